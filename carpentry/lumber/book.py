"""Looking up the size book, and asking it the other way round."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum

from carpentry.language import (
    TICKS_PER_FOOT,
    TICKS_PER_INCH,
    CarpentryError,
    Faults,
    StockNameError,
)
from carpentry.lumber.families import DRESSED_FAMILIES, FAMILIES
from carpentry.lumber.family import Family, Size
from carpentry.lumber.lexicon import INCHES
from carpentry.lumber.names import nominal, read_stock
from carpentry.lumber.softwood import BOARDS, DIMENSION, ROUGH_SAWN
from carpentry.lumber.words import KNOWN_WORDS, WORKED_WORDS, read_words

JOINTED_EDGE = TICKS_PER_INCH // 16
PLANED_FACE = TICKS_PER_INCH // 16
_WIDEST = 4 * TICKS_PER_FOOT
_MOST_BOARDS = 12
_MOST_PLANED = 3 * TICKS_PER_INCH // 4


@dataclass(frozen=True)
class Entry:
    """A size with the family it is from. ``green`` when the section asked for is the green one."""

    size: Size
    family: Family
    green: bool = False


def entries() -> Iterator[Entry]:
    """The whole book, in its order."""
    return (Entry(size, family) for family in FAMILIES for size in family.sizes)


def look_up(text: str) -> list[Entry]:
    """The entries a text means, exact names first: ``5/4``, ``8/4``, ``2x10 green``, ``picket``,
    ``38x89``, ``3/4 ply``. The words of a wood say nothing of a size and are passed over.

    Raises ``CarpentryError`` when nothing in the book fits, or a word is none that it knows.
    """
    try:
        found = _read(text)
    except StockNameError as error:
        found = _by_word(text, error)
    if not found:
        raise CarpentryError(f"the size book has no “{text.strip()}”")
    return found


def _read(text: str) -> list[Entry]:
    """The entries of a name that is a size: itself first, then the same size worked otherwise."""
    read = read_stock(text, INCHES)
    _refuse_unknown(text, set(read.stock.words))
    exact = nominal(read.stock)
    if exact and exact.width is None:
        raise StockNameError(f"{read.stock} is sold in random widths")
    names = {read.stock.size, exact.name if exact else ""}
    worked = [word for word in WORKED_WORDS if word in read.stock.words]
    if not worked:
        names |= {f"{read.stock.size} {word}" for word in WORKED_WORDS}
    green = "green" in read.stock.words
    found = [
        Entry(e.size, e.family, green=green and e.size.green is not None)
        for e in entries()
        if e.size.name in names
    ]
    return sorted(found, key=lambda e: e.size != exact)


def _by_word(text: str, error: StockNameError) -> list[Entry]:
    """The entries of a family's name, a word or a thickness: ``picket``, ``5/4``, ``ply``."""
    families = {word for family in FAMILIES for word in family.name.split()}
    names = {word for e in entries() for word in e.size.name.split()}
    thick = {e.size.name.partition("x")[0] for e in entries()}
    known = families | names | thick
    typed = text.lower().split()
    said = [word for word in typed if word not in known]
    try:
        words = set(read_words(" ".join(said), text)[0])
    except StockNameError:
        raise error from None
    wanted = {word for word in typed if word in known} | (words & known)
    if not wanted:
        raise error
    _refuse_unknown(text, words - wanted)
    return [e for e in entries() if all(_fits(word, e) for word in wanted)]


def _refuse_unknown(text: str, words: set[str]) -> None:
    unknown = sorted(words - KNOWN_WORDS - {"sheets"})
    if unknown:
        raise CarpentryError(f"the size book knows no “{unknown[0]}” in “{text.strip()}”")


def _fits(word: str, entry: Entry) -> bool:
    names = entry.size.name.split()
    if word in names or word in entry.family.name.split():
        return True
    return word[0].isdigit() and any(name.partition("x")[0] == word for name in names)


class Way(StrEnum):
    """How a finished size is had."""

    RIP = "rip"
    GLUE = "glue"
    PLANE_ROUGH = "plane rough"


@dataclass(frozen=True)
class Alternative:
    """One way to a finished width and thickness (ticks).

    ``boards`` of ``size`` side by side; ``off_width`` and ``off_thickness`` are what is ripped and
    planed off. ``cost`` is money per running foot, ``None`` where no price is known.
    """

    way: Way
    size: Size
    boards: int
    off_width: int
    off_thickness: int
    cost: Decimal | None


def _rips(thickness: int, width: int) -> Iterator[Alternative]:
    for family in DRESSED_FAMILIES:
        for size in family.sizes:
            off = size.section.width - width, size.section.thickness - thickness
            if off[0] >= 0 and 0 <= off[1] <= _MOST_PLANED:
                yield Alternative(Way.RIP, size, 1, *off, None)


def _rough(thickness: int, width: int) -> Iterator[Alternative]:
    for size in ROUGH_SAWN.sizes:
        off = size.section.width - width, size.section.thickness - thickness
        if off[0] >= 0 and 2 * PLANED_FACE <= off[1] <= _MOST_PLANED:
            yield Alternative(Way.PLANE_ROUGH, size, 1, *off, None)


def _glued(thickness: int, width: int) -> Iterator[Alternative]:
    for size in (*BOARDS.sizes, *DIMENSION.sizes):
        each = size.section.width - 2 * JOINTED_EDGE
        boards = -(-width // each)
        off_thickness = size.section.thickness - thickness
        if 0 <= off_thickness <= _MOST_PLANED and 2 <= boards <= _MOST_BOARDS:
            yield Alternative(Way.GLUE, size, boards, boards * each - width, off_thickness, None)


def nominal_for(
    thickness: int,
    width: int,
    price_per_foot: Callable[[str], Decimal | None] = lambda name: None,
) -> list[Alternative]:
    """The ways to a finished thickness and width (ticks), the cheapest first.

    The smallest size to rip it from, boards glued edge to edge (each edge jointed by 1/16 in,
    common practice), and rough-sawn boards planed (1/16 in a face). Nothing that would lose more
    than 3/4 in of its thickness is named. ``price_per_foot`` gives the price of a running foot by
    size name, ``None`` where it is not known; what has no price comes after, by the wood it takes.
    Of each way and thickness only the best is kept. Raises
    ``CarpentryError`` by field for what no board can be.
    """
    faults = Faults()
    for place, ticks in (("thickness", thickness), ("width", width)):
        if ticks < 1:
            faults.add(place, "must be more than 0")
        elif ticks > _WIDEST:
            faults.add(place, "is more than 4 ft: no board is that large")
    faults.raise_any()
    best: dict[tuple[Way, int], Alternative] = {}
    for found in (*_rips(thickness, width), *_rough(thickness, width), *_glued(thickness, width)):
        price = price_per_foot(found.size.name)
        cost = None if price is None else price * found.boards
        one = Alternative(
            found.way, found.size, found.boards, found.off_width, found.off_thickness, cost
        )
        key = one.way, one.size.section.thickness
        if key not in best or _rank(one) < _rank(best[key]):
            best[key] = one
    if not best:
        raise CarpentryError("no board in the book is that thick", "thickness")
    return sorted(best.values(), key=_rank)


def _rank(one: Alternative) -> tuple[bool, Decimal, int, int, str]:
    wood = one.boards * one.size.section.area
    return one.cost is None, one.cost or Decimal(0), wood, one.boards, one.size.name
