"""Boards on hand: measured, judged, and how much of one can be used.

A measured size is trusted before a yard's, a yard's before the standard one.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import lru_cache, partial
from itertools import pairwise

from carpentry.language import (
    TICKS_PER_FOOT,
    TICKS_PER_INCH,
    CarpentryError,
    Faults,
    Unit,
    check_typed,
    interchange,
    typed,
)
from carpentry.lumber import (
    DRESSED_SIZES,
    METRIC_SIZES,
    Lexicon,
    Section,
    StockName,
    read_stock,
    standard_section,
    straight_width,
)

MAX_BOARDS = 2_000
MAX_TEXT = 200
CORNER = TICKS_PER_INCH // 8  # what a rounded corner takes per straightened edge; common practice
CLOSE_TO_NAME = (
    TICKS_PER_INCH // 8
)  # a board this much under its name still serves; common practice
_LONGEST = 60 * TICKS_PER_FOOT
_RANGE = re.compile(r"\s*(?:-|–|to|\.\.)\s+|\s+(?:-|–|to|\.\.)\s*|–|\.\.")


@dataclass(frozen=True)
class BoardFields:
    """A board exactly as it was noted down. ``width`` is at the marked end."""

    stock: str = typed("Stock", most=100)
    length: str = typed("Length", is_length=True)
    thickness: str = typed("Thickness", is_length=True)
    width: str = typed("Width", is_length=True)
    width_middle: str = typed("Width, middle", is_length=True)
    width_end: str = typed("Width, end", is_length=True)
    crook: str = typed("Crook", is_length=True)
    bow: str = typed("Bow", is_length=True)
    cup: str = typed("Cup", is_length=True)
    twist: str = typed("Twist", most=10, choices=("no", "yes"))
    flaws: str = typed("Flaws", most=MAX_TEXT)
    place: str = typed("Place", most=MAX_TEXT)
    note: str = typed("Note", most=MAX_TEXT)


@dataclass(frozen=True)
class OnHand:
    """What a plan knows of a board on hand: boards that are equal in this are alike. ``length`` in
    ticks, ``section`` where it was measured, ``flaws`` from–to, ``number`` where a part names it,
    ``crook`` the hollow of its curved edge.
    """

    length: int
    section: Section | None = None
    flaws: tuple[tuple[int, int], ...] = ()
    number: int | None = None
    crook: int = 0


@dataclass(frozen=True)
class MeasuredBoard:
    """A board as understood; lengths in ticks, 0 where crook, bow or cup were not noted."""

    fields: BoardFields
    stock: StockName
    length: int
    thickness: int | None
    widths: tuple[int, ...]
    crook: int
    bow: int
    cup: int
    twisted: bool
    flaws: tuple[tuple[int, int], ...]

    @property
    def section(self) -> Section | None:
        """The section that is there all along the board: the least that was measured, the standard
        one where nothing was."""
        standard = standard_section(self.stock)
        if standard is None:
            return None
        return Section(
            self.thickness if self.thickness is not None else standard.thickness,
            min(self.widths, default=standard.width),
        )

    @property
    def is_measured(self) -> bool:
        return self.thickness is not None or bool(self.widths)

    @property
    def on_hand(self) -> OnHand:
        measured = self.is_measured or self.crook
        return OnHand(self.length, self.section if measured else None, self.flaws, crook=self.crook)

    @property
    def unevenness(self) -> int:
        """Bow and cup together (ticks): of boards that are alike the least uneven is the best."""
        return self.bow + self.cup

    @property
    def straight_width(self) -> int | None:
        """The width of the straight strip when both edges are straightened; ``None`` where there is
        none, as in a twisted board, the whole width where there is no crook."""
        section = self.section
        if section is None or self.twisted:
            return None
        if not self.crook:
            return section.width
        try:
            return straight_width(section.width, self.crook, CORNER, 2)
        except CarpentryError:
            return None

    def not_used_because(self) -> str:
        """Why plans leave this board on the rack, empty when they may use it."""
        standard = standard_section(self.stock)
        section = self.section
        if section is None or standard is None:
            return "a sheet: not planned yet"
        if self.twisted:
            return "twisted: rejected"
        if self.crook and self.straight_width is None:
            return "crooked: nothing straight is left of it"
        under = max(standard.width - section.width, standard.thickness - section.thickness)
        if under > CLOSE_TO_NAME:
            return "more than 1/8 in under its name"
        return ""


def _size(text: str, lexicon: Lexicon, least: int, most: int, refused: str) -> int | None:
    if not text.strip():
        return None
    ticks = lexicon.length(text).ticks
    if not least <= ticks <= most:
        raise CarpentryError(refused)
    return ticks


def _deviation(text: str, lexicon: Lexicon) -> int:
    return _size(text, lexicon, 0, TICKS_PER_FOOT, "more than a foot out of true is no board") or 0


def section_noted(section: Section, unit: Unit) -> dict[str, str]:
    """A measured section as the fields of a board."""
    return {
        "thickness": interchange(section.thickness, unit),
        "width": interchange(section.width, unit),
    }


def offcut_stock(stock: StockName, section: Section | None) -> StockName | None:
    """The name under which an offcut of a stock is laid on the rack: the stock's own where its
    section (ticks) is about that, else the largest size of the wood that is in it; ``None`` where
    no size is."""
    standard = standard_section(stock)
    if section is None or standard is None or stock.own:
        return stock
    if _holds(section, standard) or _is_close(section, standard):
        return stock
    named = METRIC_SIZES if stock.size in METRIC_SIZES else DRESSED_SIZES
    inside = [size for size in named.values() if _holds(section, size.section)]
    if not inside:
        return None
    best = max(inside, key=lambda size: (size.section.area, size.name))
    return replace(stock, size=best.name)


def _holds(section: Section, size: Section) -> bool:
    """Whether a size is in a section, which is not so much larger that the name would mislead."""
    return all(
        own <= real <= own * 3 // 2
        for real, own in ((section.thickness, size.thickness), (section.width, size.width))
    )


def _is_close(section: Section, size: Section) -> bool:
    under = max(size.thickness - section.thickness, size.width - section.width)
    return 0 <= under <= CLOSE_TO_NAME


def read_flaws(text: str, lexicon: Lexicon, length: int) -> tuple[tuple[int, int], ...]:
    """Flaws as ranges from the marked end, such as ``30 to 34 1/2, 60 to 62``, sorted.

    Raises ``CarpentryError`` for ranges that are backward, beyond the board or overlap.
    """
    ranges: list[tuple[int, int]] = []
    for part in filter(str.strip, re.split(r"[,;]", text)):
        ends = [end for end in _RANGE.split(part.strip()) if end.strip()]
        if len(ends) != 2:
            raise CarpentryError(f"“{part.strip()}” is no range: write such as 30 to 34 1/2")
        start, end = (lexicon.length(one).ticks for one in ends)
        if end <= start:
            raise CarpentryError(f"“{part.strip()}” runs backward")
        if end > length:
            raise CarpentryError(f"“{part.strip()}” lies beyond the end of the board")
        ranges.append((start, end))
    ranges.sort()
    for (_, end), (start, _) in pairwise(ranges):
        if start < end:
            raise CarpentryError("two flaws overlap: write them as one")
    return tuple(ranges)


def read_board(fields: BoardFields, lexicon: Lexicon) -> MeasuredBoard:
    """A board from what was noted.

    Raises ``CarpentryError`` with a problem for every field that is wrong, placed by its name.
    """
    return _read(fields, lexicon)


@lru_cache(10_000)
def _read(fields: BoardFields, lexicon: Lexicon) -> MeasuredBoard:
    faults = Faults()
    check_typed(fields, faults)
    read = faults.attempt("stock", lambda: read_stock(fields.stock, lexicon), None)
    named = read.length.ticks if read and read.length else None
    no_board = "no board is that long or short: 1 in to 60 ft"
    length = faults.attempt(
        "length", partial(_size, fields.length, lexicon, TICKS_PER_INCH, _LONGEST, no_board), None
    )
    if not fields.length.strip():
        length = named
        if named is None:
            faults.add("length", "a length is missing")
    standard = standard_section(read.stock) if read else None

    def near(place: str, usual: int | None) -> int | None:
        text = getattr(fields, place)
        least, most = (usual // 2, usual * 3 // 2) if usual else (1, 4 * TICKS_PER_FOOT)
        refused = "that cannot be: it is far from what the name says"
        return faults.attempt(place, partial(_size, text, lexicon, least, most, refused), None)

    thickness = near("thickness", standard.thickness if standard else None)
    wide = standard.width if standard else None
    widths = [near(place, wide) for place in ("width", "width_middle", "width_end")]
    deviations: dict[str, Callable[[], int]] = {
        place: partial(_deviation, getattr(fields, place), lexicon)
        for place in ("crook", "bow", "cup")
    }
    crook, bow, cup = (faults.attempt(place, ask, 0) for place, ask in deviations.items())
    twisted = fields.twist.strip().lower() == "yes"
    none: tuple[tuple[int, int], ...] = ()
    flaws = faults.attempt(
        "flaws", lambda: read_flaws(fields.flaws, lexicon, length or _LONGEST), none
    )
    faults.raise_any()
    assert read is not None and length is not None
    return MeasuredBoard(
        fields,
        read.stock,
        length,
        thickness,
        tuple(width for width in widths if width is not None),
        crook,
        bow,
        cup,
        twisted,
        flaws,
    )
