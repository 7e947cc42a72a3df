"""One part: its fields as typed, checked and understood."""

import re
from dataclasses import dataclass, replace
from functools import lru_cache, partial

from carpentry.design.edges import SQUARE_EDGES, Edges, mean_width, outermost_width, read_edges
from carpentry.design.ends import (
    SQUARE_ENDS,
    Ends,
    Measured,
    centre_length,
    ends_seen,
    is_angled,
    is_shaped,
    outermost,
    read_ends,
    told,
)
from carpentry.design.outline import (
    Corner,
    Notch,
    area_of,
    cuts_told,
    notched,
    read_notches,
    read_outline,
)
from carpentry.language import (
    TICKS_PER_FOOT,
    TICKS_PER_INCH,
    TICKS_PER_MM,
    CarpentryError,
    Faults,
    Length,
    Unit,
    check_day,
    check_typed,
    length_fields,
    typed,
)
from carpentry.lumber import Lexicon, ReadStock, Section, StockName, read_stock
from carpentry.lumber.rack import OnHand

MAX_PARTS = 2_000
MAX_QUANTITY = 10_000
MAX_TEXT = 200
MEASURED = tuple(Measured)
_BOARDS = re.compile(r"(not\s+)?(\d{1,6}(?:[\s,]+\d{1,6})*)", re.IGNORECASE)
MOST_EXTRA = 4 * TICKS_PER_FOOT
MOST_FORMULA = 500  # characters of what may be a formula
# What a part takes beyond its length that is cut once it was measured, in ticks: the usual rough
# length. Common practice, no source.
UNTIL_MEASURED = {Unit.INCH: 2 * TICKS_PER_INCH, Unit.MM: 50 * TICKS_PER_MM}
YES_OR_NO = ("yes", "no")


@dataclass(frozen=True)
class PartFields:
    """A part exactly as typed: every field is text, empty where nothing was typed."""

    quantity: str = typed("Count", "1", most=MOST_FORMULA)
    name: str = typed("Name", most=MAX_TEXT)
    stock: str = typed("Stock", most=100)
    length: str = typed("Length", is_length=True, most=MOST_FORMULA)
    thickness: str = typed(
        "Thickness", help="where it is not the stock’s own", is_length=True, most=MOST_FORMULA
    )
    width: str = typed(
        "Width", help="where it is not the stock’s own", is_length=True, most=MOST_FORMULA
    )
    ends: str = typed("End angles", help="20 -20; 45 stub 3/8, 0; point 45, 0", most=MOST_FORMULA)
    edges: str = typed("Bevelled edges", help="left and right, such as 45 45", most=MOST_FORMULA)
    notches: str = typed(
        "Notches", help="1 1/8 x 2 at top right; 1 x 3 at bottom, 12 from left", most=MOST_FORMULA
    )
    outline: str = typed(
        "Outline", help="corners from left and bottom: 0 0, 30 0, 30 5, 0 9.25", most=MOST_FORMULA
    )
    measured: str = typed(
        "Measured", help="long-long, edge, short-short, centre", most=20, choices=MEASURED
    )
    grain: str = typed("Grain", help="length or any (sheets)", most=20, choices=("length", "any"))
    clear: str = typed("Clear", help="no: a flaw may lie on it", most=20, choices=YES_OR_NO)
    show: str = typed("Seen", help="yes: the best boards are for it", most=20, choices=YES_OR_NO)
    rip: str = typed(
        "Ripped",
        help="yes or no: where it differs from the project",
        most=20,
        choices=YES_OR_NO,
    )
    resaw: str = typed(
        "Sawn thinner", help="yes or no: where it differs", most=20, choices=YES_OR_NO
    )
    own_stock: str = typed(
        "Own stock only", help="yes or no: where it differs", most=20, choices=YES_OR_NO
    )
    extra_length: str = typed(
        "Extra length",
        help="trimmed later: where it is not the project’s",
        is_length=True,
        most=MOST_FORMULA,
    )
    extra_width: str = typed(
        "Extra width", help="planed off a sawn face", is_length=True, most=MOST_FORMULA
    )
    extra_thickness: str = typed(
        "Extra thickness", help="planed off a sawn face", is_length=True, most=MOST_FORMULA
    )
    held: str = typed(
        "Cut after measuring",
        help="yes: bought now, cut once it was measured",
        most=20,
        choices=YES_OR_NO,
    )
    taped: str = typed("Tape said", help="its length as measured; it holds instead")
    taped_on: str = typed("Measured on", help="such as 2026-05-31", most=20)
    boards: str = typed("Rack boards", help="from these only: 12 14; or not 12")
    together: str = typed(
        "Kept together", help="a name: cut from one board with all of it, in order", most=40
    )
    group: str = typed("Group", help="frame, boarding …", most=MAX_TEXT)
    note: str = typed("Note", help="for yourself", most=MAX_TEXT)


PART_LENGTHS = length_fields(PartFields)


@dataclass(frozen=True)
class RackChoice:
    """The rack boards a part comes from, by number: from them ``only``, or from any but them."""

    numbers: tuple[int, ...]
    only: bool

    def __str__(self) -> str:
        return " or ".join(map(str, self.numbers))

    def allows(self, board: OnHand | None) -> bool:
        """Whether it may come from a board on hand, or (``None``) from one that is bought."""
        named = board is not None and board.number in self.numbers
        return named == self.only


ExtraTyped = tuple[Length | None, Length | None, Length | None]


@dataclass(frozen=True)
class Part:
    """A part as understood. Lengths are exact; ``fields`` keeps what was typed, but that a length
    inside the stock's name (``2x4x8``) has moved to its own field, where it means one thing.
    ``extra`` is what it takes beyond its finished length, width and thickness, where it says so.
    ``followed`` are the fields that formulas say: name, value as text, and whether that is exact.
    ``computed`` is the length where the tape said another. With a ``fault`` nothing can be planned
    of it: what it follows cannot be worked out.
    """

    fields: PartFields
    quantity: int
    name: str
    stock: StockName
    length: Length
    thickness: Length | None = None
    width: Length | None = None
    ends: Ends = SQUARE_ENDS
    edges: Edges = SQUARE_EDGES
    measured: Measured = Measured.LONG_LONG
    extra: ExtraTyped = (None, None, None)
    boards: RackChoice | None = None
    warnings: tuple[str, ...] = ()
    followed: tuple[tuple[str, str, bool], ...] = ()
    computed: Length | None = None
    fault: str = ""
    notches: tuple[Notch, ...] = ()
    outline: tuple[Corner, ...] = ()

    @property
    def is_held(self) -> bool:
        """Whether it is bought now, but cut once it was measured, and was not measured yet."""
        return _answer(self.fields.held, False) and not self.fields.taped.strip()

    @property
    def plain_fields(self) -> PartFields:
        """Its fields with what its formulas come to instead of them."""
        return replace(self.fields, **{name: text for name, text, _ in self.followed})

    def may_be_ripped(self, usual: bool) -> bool:
        """Whether it may be ripped from another size, as it says or else as the project does; who
        asks for bevelled edges asks for it."""
        return _answer(self.fields.rip, usual or is_angled(self.edges))

    def may_be_resawn(self, usual: bool) -> bool:
        """Whether it may be sawn thinner than its board, as it says or else as the project does."""
        return _answer(self.fields.resaw, usual)

    def may_be_sawn(self, rip: bool) -> bool:
        """Whether it may be ripped, or else resawn because it says so."""
        return self.may_be_ripped(rip) or self.may_be_resawn(False)

    def own_stock_only(self, usual: bool) -> bool:
        """Whether it comes from boards of the stock it names alone."""
        return _answer(self.fields.own_stock, usual)

    def finished_section(self, stock: Section | None) -> Section | None:
        """Its section when its stock has this one: its own sizes where it states them."""
        if stock is None:
            return None
        return Section(
            self.thickness.ticks if self.thickness else stock.thickness,
            self.width.ticks if self.width else stock.width,
            stock.round,
        )

    @property
    def clear(self) -> bool:
        """Whether no flaw may fall on it."""
        return _answer(self.fields.clear, True)

    @property
    def show(self) -> bool:
        """Whether it is seen when all is done: the best boards are for such parts."""
        return _answer(self.fields.show, False)

    def lengths(self) -> dict[str, Length]:
        """The lengths it states, by the names of their fields; its length is the one it was typed
        with, also where the tape said another."""
        stated = (self.computed or self.length, self.thickness, self.width, *self.extra)
        return {
            name: length
            for name, length in zip(PART_LENGTHS, stated, strict=True)
            if length is not None
        }

    @property
    def square_ended(self) -> bool:
        return not is_angled(self.ends)

    @property
    def is_shaped(self) -> bool:
        """Whether it is cut from a square-ended piece, and shaped afterwards."""
        return is_shaped(self.ends) or bool(self.notches or self.outline)

    @property
    def sawn_ends(self) -> Ends:
        """Its ends as it comes off the board."""
        return SQUARE_ENDS if self.is_shaped else self.ends

    def shaping_told(self) -> list[str]:
        """What is cut of it after it came off the board, in words."""
        found = [f"ends: {told(self.ends)}"] if is_shaped(self.ends) else []
        found += [one.words for one in self.notches]
        return found + list(cuts_told(self.outline) if self.outline else ())

    def seen(self, section: Section) -> list[tuple[float, float]]:
        """Its corners (ticks) as it is seen from its face, from the left end and the bottom edge;
        bevels at their full length. Raises ``CarpentryError`` where it cannot be cut."""
        own = self.finished_section(section) or section
        over_all = self.length.ticks if self.square_ended else self.outermost(section)
        if self.outline:
            return [(float(u), float(v)) for u, v in self.outline]
        if self.notches:
            return notched(over_all, own.width, self.notches)
        return ends_seen(over_all, self.ends, own.thickness, own.width)

    def centre_length(self, section: Section | None) -> int:
        """Ticks along its centre line: what its volume goes by."""
        if section is not None and (self.notches or self.outline):
            own = self.finished_section(section) or section
            return int(area_of(self.seen(section)) / own.width)
        if section is None or self.square_ended:
            return self.length.ticks
        own = self.finished_section(section) or section
        return centre_length(self.length.ticks, self.ends, self.measured, own.thickness, own.width)

    def sawn_section(self, finished: Section) -> Section:
        """A finished section between its outermost points. Raises ``CarpentryError`` when bevelled
        edges leave nothing of a face."""
        width = outermost_width(finished.width, self.edges, finished.thickness)
        return replace(finished, width=width)

    def mean_section(self, section: Section) -> Section:
        """Its section as its volume goes by it, when its stock has this one."""
        own = self.finished_section(section) or section
        return replace(own, width=mean_width(own.width, self.edges, own.thickness))

    def outermost(self, section: Section) -> int:
        """Ticks between its outermost points when its stock has this section. Raises
        ``CarpentryError`` when its ends leave nothing."""
        own = self.finished_section(section) or section
        if is_shaped(self.ends):
            own = self.sawn_section(own)
        return outermost(self.length.ticks, self.ends, self.measured, own.thickness, own.width)


def _answer(typed: str, usual: bool) -> bool:
    """A yes or no, or what is usual where nothing was typed."""
    said = typed.strip().lower()
    return said == "yes" if said else usual


def read_quantity(text: str) -> int:
    """How many of a part, as it is typed. Raises ``CarpentryError``."""
    typed = text.strip()
    if not typed:
        raise CarpentryError("a quantity is missing")
    if not re.fullmatch(r"[0-9]{1,9}", typed):
        raise CarpentryError(f"“{typed}” is no quantity: write a whole number such as 6")
    quantity = int(typed)
    if quantity < 1:
        raise CarpentryError("a quantity of 0 makes nothing: write 1 or more")
    if quantity > MAX_QUANTITY:
        raise CarpentryError(f"{quantity:,} is more than {MAX_QUANTITY:,} of one part")
    return quantity


def _positive(text: str, lexicon: Lexicon) -> Length | None:
    if not text.strip():
        return None
    read = lexicon.length(text)
    if read.ticks == 0:
        raise CarpentryError("a part cannot measure nothing")
    return read


def read_boards(text: str) -> RackChoice | None:
    """Rack boards as they are typed: ``12 14``, or ``not 12``. Raises ``CarpentryError``."""
    if not text.strip():
        return None
    found = _BOARDS.fullmatch(text.strip())
    if not found:
        raise CarpentryError("write numbers of rack boards, such as 12 14, or not 12")
    numbers = tuple(sorted({int(number) for number in re.findall(r"\d+", found[2])}))
    return RackChoice(numbers, only=not found[1])


def _extra(text: str, lexicon: Lexicon) -> Length | None:
    if not text.strip():
        return None
    read = lexicon.length(text)
    if read.ticks > MOST_EXTRA:
        raise CarpentryError("at most 4 ft are added to a part")
    return read


def read_part(fields: PartFields, lexicon: Lexicon) -> Part:
    """A part from its fields as typed.

    Raises ``CarpentryError`` with a problem for every field that is wrong, placed by its name.
    """
    return _read(fields, lexicon)


@lru_cache(10_000)
def _read(fields: PartFields, lexicon: Lexicon) -> Part:
    faults = Faults()
    quantity = faults.attempt("quantity", lambda: read_quantity(fields.quantity), 0)
    stock = faults.attempt("stock", lambda: read_stock(fields.stock, lexicon), None)
    ends = faults.attempt("ends", lambda: read_ends(fields.ends, lexicon.unit), SQUARE_ENDS)
    no_notches: tuple[Notch, ...] = ()
    notches = faults.attempt(
        "notches", lambda: read_notches(fields.notches, lexicon.unit), no_notches
    )
    no_outline: tuple[Corner, ...] = ()
    outline = faults.attempt(
        "outline", lambda: read_outline(fields.outline, lexicon.unit), no_outline
    )
    edges = faults.attempt("edges", lambda: read_edges(fields.edges), SQUARE_EDGES)
    if notches and (is_angled(ends) or outline):
        faults.add("notches", "are for parts with square ends: write an outline")
    if outline and (is_angled(ends) or is_angled(edges)):
        faults.add("outline", "says all there is of ends and edges: leave their angles out")
    check_typed(fields, faults)
    length, thickness, width = (
        faults.attempt(place, partial(_positive, getattr(fields, place), lexicon), None)
        for place in ("length", "thickness", "width")
    )
    extra_length, extra_width, extra_thickness = (
        faults.attempt(place, partial(_extra, getattr(fields, place), lexicon), None)
        for place in ("extra_length", "extra_width", "extra_thickness")
    )
    boards = faults.attempt("boards", lambda: read_boards(fields.boards), None)
    if stock:
        length = _settle_length(fields, stock, length, faults)
        if stock.stock.is_sheet and not fields.width.strip():
            faults.add("width", "a part from a sheet needs a width")
    elif not fields.length.strip() and not re.search(r"[xX×].*[xX×]", fields.stock):
        faults.add("length", "a length is missing")
    taped = faults.attempt("taped", lambda: _positive(fields.taped, lexicon), None)
    faults.attempt("taped_on", lambda: check_day(fields.taped_on), None)
    faults.raise_any()
    assert stock is not None and length is not None
    if _answer(fields.held, False):
        usual = UNTIL_MEASURED[lexicon.unit]
        extra_length = None if taped else extra_length or Length(usual, "")
    warnings = stock.warnings
    if length.rounded:
        warnings += ("the length was rounded to the nearest 1/8128 in",)
    name = fields.name.strip() or str(stock.stock)
    if stock.length is not None:
        fields = replace(fields, stock=str(stock.stock), length=length.text)
    return Part(
        fields=fields,
        quantity=quantity,
        name=name,
        stock=stock.stock,
        length=taped or length,
        computed=length if taped else None,
        thickness=thickness,
        width=width,
        ends=ends,
        edges=edges,
        measured=Measured(fields.measured.strip().lower() or Measured.LONG_LONG),
        boards=boards,
        extra=(extra_length, extra_width, extra_thickness),
        warnings=warnings,
        notches=notches,
        outline=outline,
    )


def _settle_length(
    fields: PartFields, stock: ReadStock, length: Length | None, faults: Faults
) -> Length | None:
    """The length typed, or the one inside the stock's name (``2x4x8``)."""
    if stock.length is None:
        if not fields.length.strip():
            faults.add("length", "a length is missing")
        return length
    if not fields.length.strip():
        return stock.length
    if length is not None and length.ticks != stock.length.ticks:
        faults.add("length", "the name of the stock says another length")
    return length
