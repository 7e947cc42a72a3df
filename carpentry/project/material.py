"""Parts gathered by material, each with the stock lengths it can be cut from."""

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal

from carpentry.buying import PriceLine, piece_price
from carpentry.cutting import CutPart, CutProblem, StockPiece, near_misses
from carpentry.length import Unit, interchange, sold_name, write_length
from carpentry.parts import Part, not_planned_yet
from carpentry.project.settings import Settings
from carpentry.rack import OnHand
from carpentry.sizes import STANDARD_LENGTHS, Section, StockName, standard_section

MOST_PIECES = 10_000
COUNTED = {1: "One", 2: "Two", 3: "Three", 4: "Four", 5: "Five", 6: "Six", 7: "Seven", 8: "Eight"}


@dataclass(frozen=True)
class NamedPart:
    """A part under the lasting id of its row."""

    id: str
    part: Part


@dataclass(frozen=True)
class Offer:
    """A length a material can be bought in, or, at price 0, one that is ``owned``. ``price`` of one
    piece, ``None`` when not known. ``section`` is its own where it was measured."""

    id: str
    length: int
    real_length: int
    price: Decimal | None
    available: int | None
    owned: bool = False
    section: Section | None = None


@dataclass(frozen=True)
class Material:
    """One stock, the parts cut from it and the lengths it comes in.

    ``priced`` says whether the plan minimises money or, without prices, total length. ``later``
    are parts that no board is planned for yet, each with the reason.
    """

    stock: StockName
    section: Section | None
    section_from_yard: bool
    sections_differ: bool
    priced: bool
    offers: tuple[Offer, ...]
    parts: tuple[NamedPart, ...]
    later: tuple[tuple[NamedPart, str], ...]

    def near_misses(self, settings: Settings) -> list[str]:
        """In words, where kerf and trims take a part that a length seems to promise."""
        problem = self.problem(settings)
        offers = {offer.id: offer for offer in self.offers}
        parts = {named.id: named.part for named in self.parts}
        told = []
        for miss in near_misses(problem) if problem else ():
            length = write_length(parts[miss.part].length.ticks, settings.notation).text
            board = sold_name(offers[miss.stock].length, settings.notation)
            by = write_length(miss.missing, settings.notation).text
            count = COUNTED.get(miss.count, str(miss.count))
            plural = "part misses" if miss.count == 1 else "parts miss"
            article = "an" if board.startswith(("8", "11 ", "18 ")) else "a"
            told.append(
                f"{count} {length} {plural} {article} {board} board by {by}: the saw takes that"
            )
        return told

    def problem(self, settings: Settings) -> CutProblem | None:
        """The cut problem of this material, or ``None`` when nothing of it can be planned."""
        if not self.parts:
            return None
        return CutProblem(
            unit=settings.unit,
            kerf=settings.kerf.ticks,
            trim_start=settings.trim_start.ticks,
            trim_end=settings.trim_end.ticks,
            stock=tuple(
                StockPiece(
                    offer.id,
                    offer.real_length,
                    offer.price if offer.price is not None else Decimal(offer.real_length),
                    offer.available,
                )
                for offer in self.offers
            ),
            parts=tuple(
                CutPart(named.id, named.part.length.ticks, named.part.quantity * settings.copies)
                for named in self.parts
            ),
        )


def _priced_offers(
    lines: Sequence[PriceLine], whole_inches: bool
) -> tuple[bool, tuple[Offer, ...]]:
    prices = [(line, piece_price(line, whole_inches=whole_inches)) for line in lines]
    priced = [(line, price) for line, price in prices if price is not None]
    return bool(priced), tuple(
        Offer(
            interchange(line.length.ticks, Unit.INCH),
            line.length.ticks,
            line.real_length,
            price,
            line.available,
        )
        for line, price in (priced or prices)
    )


def _standard_offers(unit: Unit) -> tuple[Offer, ...]:
    return tuple(
        Offer(interchange(length, Unit.INCH), length, length, None, None)
        for length in STANDARD_LENGTHS[unit]
    )


def gather_materials(
    parts: Iterable[NamedPart],
    lines: Iterable[PriceLine],
    settings: Settings,
    *,
    whole_inches: bool = False,
    owned: Mapping[StockName, Counter[OnHand]] | None = None,
) -> list[Material]:
    """Materials in the order in which the parts first name them.

    The yard's ``lines`` of the same stock give lengths and prices; where some are priced only those
    are used, and where there are none the standard lengths stand in, without a price.
    ``whole_inches`` is the yard's school of board feet. ``owned`` are boards on hand, how many are
    alike: they cost nothing, and where one was measured its parts have the size it has.
    """
    by_stock: dict[StockName, list[NamedPart]] = {}
    for named in parts:
        by_stock.setdefault(named.part.stock, []).append(named)
    sold: dict[StockName, list[PriceLine]] = {}
    for line in lines:
        if line.stock in by_stock:
            sold.setdefault(line.stock, []).append(line)
    return [
        _with_owned(
            _material(stock, named, sold.get(stock, []), settings, whole_inches),
            (owned or {}).get(stock, Counter()),
        )
        for stock, named in by_stock.items()
    ]


def _with_owned(material: Material, owned: Counter[OnHand]) -> Material:
    """Boards on hand come first. One that measures less than a part states is left alone."""
    parts = [one.part for one in material.parts]
    thickest = max((p.thickness.ticks for p in parts if p.thickness), default=0)
    widest = max((p.width.ticks for p in parts if p.width), default=0)
    offers = tuple(
        Offer(
            _owned_id(board),
            board.length,
            board.length,
            Decimal(0),
            count,
            owned=True,
            section=board.section,
        )
        for board, count in sorted(owned.items(), key=lambda one: _owned_id(one[0]))
        if board.section is None
        or (board.section.thickness >= thickest and board.section.width >= widest)
    )
    return replace(material, offers=(*offers, *material.offers))


def _owned_id(board: OnHand) -> str:
    sizes = [board.length]
    if board.section:
        sizes += [board.section.thickness, board.section.width]
    return " ".join(("owned", *(interchange(size, Unit.INCH) for size in sizes)))


def section_sold(stock: StockName, lines: Iterable[PriceLine]) -> tuple[Section | None, bool]:
    """The section a stock has where these lines are sold, and whether it is the yard's own: the
    first that a line states, else the standard one (``None`` for a sheet)."""
    own = next((line for line in lines if line.has_own_section), None)
    return (own.section, True) if own else (standard_section(stock), False)


def _material(
    stock: StockName,
    named: Sequence[NamedPart],
    lines: Sequence[PriceLine],
    settings: Settings,
    whole_inches: bool,
) -> Material:
    section, from_yard = section_sold(stock, lines)
    now: list[NamedPart] = []
    later: list[tuple[NamedPart, str]] = []
    for one in named:
        reason = not_planned_yet(one.part, section)
        if reason:
            later.append((one, reason))
        else:
            now.append(one)
    if sum(one.part.quantity for one in now) * settings.copies > MOST_PIECES:
        reason = f"more than {MOST_PIECES:,} pieces of one stock: build fewer copies"
        later += [(one, reason) for one in now]
        now = []
    priced, offers = False, _standard_offers(settings.unit)
    if lines:
        priced, offers = _priced_offers(lines, whole_inches)
    return Material(
        stock=stock,
        section=section,
        section_from_yard=from_yard,
        sections_differ=len({line.section for line in lines}) > 1,
        priced=priced,
        offers=offers,
        parts=tuple(now),
        later=tuple(later),
    )
