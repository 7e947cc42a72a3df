"""A board's name as people type it: a size, perhaps a length after it, and words."""

import difflib
import re
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from fractions import Fraction
from functools import lru_cache

from carpentry.language import (
    TICKS_PER_FOOT,
    TICKS_PER_INCH,
    CarpentryError,
    Length,
    LengthError,
    StockNameError,
    Unit,
    read_length,
)
from carpentry.lumber.families import DRESSED_FAMILIES, FAMILIES, METRIC_FAMILIES
from carpentry.lumber.family import Size, as_number
from carpentry.lumber.kinds import Kind
from carpentry.lumber.lexicon import Lexicon
from carpentry.lumber.own import Form, OwnStock, match_own
from carpentry.lumber.section import Section
from carpentry.lumber.words import (
    KNOWN_WORDS,
    UNEVEN_WORDS,
    WORDS_OF_KIND,
    WORKED_WORDS,
    read_words,
)
from carpentry.lumber.writing import (
    SHEET_KINDS,
    SHEET_NAMES,
    WrittenSize,
    spelled_out_fractions,
    written_board,
    written_length,
    written_sheet,
    written_third,
)


@dataclass(frozen=True)
class StockName:
    """A stock by size and words. Two names are the same stock when both agree.

    ``size`` is the canonical size (``2x4``, ``5/4x6``, ``ply 1/2``), ``words`` the lower-case
    words with it, in the order of the alphabet. A material of one's ``own`` has its name as size
    and no words.
    """

    size: str
    words: tuple[str, ...]
    own: OwnStock | None = field(default=None, compare=False, repr=False)

    def __str__(self) -> str:
        return " ".join((self.size, *self.words))

    @property
    def is_sheet(self) -> bool:
        if self.own:
            return self.own.form is Form.SHEET
        return self.size.split()[0] in SHEET_KINDS

    @property
    def wood(self) -> tuple[str, ...]:
        """What boards are alike in that can be ripped for one another: a material of one's own is
        a wood by itself."""
        return (f"own {self.own.name}",) if self.own else self.words

    @property
    def is_even(self) -> bool:
        """Whether its boards have four flat faces, so that others can be ripped from them."""
        if self.own:
            return self.own.form is Form.BOARD
        return not (self.is_sheet or UNEVEN_WORDS & set(self.words))

    @property
    def kind(self) -> Kind:
        if self.own:
            return self.own.kind
        if self.is_sheet:
            return Kind.SHEET
        words = set(self.words)
        for kind, of_kind in WORDS_OF_KIND.items():
            heated = kind is Kind.TREATED and "heat" in words and "pt" not in words
            if words & of_kind and not heated:
                return kind
        return Kind.DURABLE if {"white", "oak"} <= words else Kind.PLAIN


@dataclass(frozen=True)
class ReadStock:
    """A stock name as it was read, the length inside it if it had one (its text says its unit),
    and warnings."""

    stock: StockName
    length: Length | None
    warnings: tuple[str, ...]


BOOK: dict[str, Size] = {size.name: size for family in FAMILIES for size in family.sizes}
DRESSED_SIZES = {size.name: size for family in DRESSED_FAMILIES for size in family.sizes}
METRIC_SIZES = {size.name: size for family in METRIC_FAMILIES for size in family.sizes}

STANDARD_LENGTHS = {
    Unit.INCH: tuple(feet * TICKS_PER_FOOT for feet in (8, 10, 12, 14, 16)),
    Unit.MM: tuple(
        read_length(str(mm), Unit.MM).ticks for mm in (1800, 2400, 3000, 3600, 4200, 4800)
    ),
}
LONGEST_NAME = 100
_SOLD_FEET = frozenset({6, 8, 10, 12, 14, 16, 18, 20})
_MOST_FEET = 24
_BOARD_FEET = frozenset({*range(4, 11), 12, 14, 16})  # an offcut may well be 18 or 20 in
_DOUBTFUL_FEET = 12  # from here on the same number is also a usual part length in inches
_LONGEST_IN_NAME = 60 * TICKS_PER_FOOT
_SHORTEST_IN_NAME = 2 * TICKS_PER_INCH
_QUARTERS = re.compile(r"((?:4|5|6|8|10|12|16)/4)(?:x(\d{1,2}))?")
_WIDEST_ROUGH = 16
_THINNEST_METRIC = 13  # a number from here on in a size is millimetres


def standard_section(stock: StockName) -> Section | None:
    """The standard section of a board (ticks): the dry one, or the green one where the name says
    so; ``None`` for a sheet and for random widths. A material of one's own has its own."""
    if stock.is_sheet:
        return None
    if stock.own:
        return stock.own.section
    size = nominal(stock)
    if size is None or not size.section.width:
        return None
    return size.green if "green" in stock.words and size.green else size.section


def sheet_section(stock: StockName) -> Section | None:
    """What a sheet measures: its real thickness, and its width as it is sold; ``None`` for what is
    no sheet."""
    if not stock.is_sheet:
        return None
    if stock.own:
        return stock.own.section
    size = BOOK.get(stock.size)
    return size.section if size else None


def nominal(stock: StockName) -> Size | None:
    """The nominal size of a board, or ``None`` for a sheet and a material of one's own."""
    if stock.own or stock.is_sheet:
        return None
    worked = (word for word in WORKED_WORDS if word in stock.words)
    for name in (*(f"{stock.size} {word}" for word in worked), stock.size):
        if name in BOOK:
            return BOOK[name]
    return _of_quarters(stock)


def _of_quarters(stock: StockName) -> Size | None:
    """Hardwood by its quarters, of a width where the name has one: ``8/4``, ``8/4x6``."""
    found = _QUARTERS.fullmatch(stock.size)
    if not found:
        return None
    surfaced = "surfaced" in stock.words or "s2s" in stock.words
    size = BOOK[f"{found[1]} {'surfaced' if surfaced else 'rough'}"]
    if not found[2]:
        return size
    width = int(found[2])
    section = Section(size.section.thickness, width * TICKS_PER_INCH)
    return Size(stock.size, size.thickness, Fraction(width), section)


def match_size(text: str, lexicon: Lexicon) -> tuple[str, int] | None:
    """The canonical size a text begins with and where it ends, or ``None`` if it begins with none.
    Names of one's own come first.

    Sizes named wide side first (``4x2``) are turned. Raises ``StockNameError`` for something
    written like a size that nobody sells, naming the nearest that are.
    """
    mine = match_own(text, lexicon.own)
    if mine:
        return mine[0].name, mine[1]
    found = _match(text, lexicon.unit)
    return (found.name, found.end) if found else None


def _match(text: str, unit: Unit) -> WrittenSize | None:
    """The size of the book that a text begins with; raises as ``match_size``."""
    sheet = written_sheet(text, unit)
    if sheet and KNOWN_WORDS.issuperset(sheet.words.lower().split()):
        return sheet
    board = written_board(text)
    return replace(board, name=_sold_as(board)) if board else None


def _sold_as(board: WrittenSize) -> str:
    """The name under which a board as written is sold, wide side first or not."""
    thickness, _, width = board.name.partition("x")
    if board.name.startswith("ex "):
        thickness, _, width = board.name[3:].partition("x")
    ex = "ex " if board.name.startswith("ex ") else ""
    names = [f"{ex}{thickness}x{width}", f"{ex}{width}x{thickness}"] if width else [thickness]
    for name in names:
        if name in BOOK:
            return name
        quarters = _QUARTERS.fullmatch(name)
        if quarters and 1 <= int(quarters[2] or 1) <= _WIDEST_ROUGH:
            return name
    for name in names:
        if any(f"{name} {word}" in BOOK for word in WORKED_WORDS):
            return name
    raise StockNameError(_unknown(ex, thickness, width, metric=board.metric))


def _unknown(ex: str, thickness: str, width: str, *, metric: bool) -> str:
    """Why a size is refused, with what it may be."""
    asked = f"{ex}{thickness}x{width}"
    thick, wide = as_number(thickness), as_number(width)
    measured = next(
        (
            size.name
            for family in DRESSED_FAMILIES
            for size in family.sizes
            if thick * TICKS_PER_INCH == size.section.thickness
            and wide * TICKS_PER_INCH == size.section.width
        ),
        None,
    )
    if measured and not metric:
        return f"{asked} is what a {measured} measures: write {measured}"
    return f"no board is called {asked}. Nearest known: {_nearest(thick, wide, metric)}"


def _nearest(thick: Fraction, wide: Fraction, metric: bool) -> str:
    metric = metric or min(thick, wide) >= _THINNEST_METRIC
    families = METRIC_FAMILIES if metric else DRESSED_FAMILIES
    per_inch = Fraction(254, 10) if metric else Fraction(1)

    def distance(size: Size) -> tuple[Fraction, str]:
        across = size.width or Fraction(0)
        return (
            abs(size.thickness - thick / per_inch) * 8 + abs(across - wide / per_inch),
            size.name,
        )

    sizes = (size for family in families for size in family.sizes)
    return ", ".join(size.name for size in sorted(sizes, key=distance)[:3])


def length_in_name(text: str, unit: Unit | str, *, inches: bool = True) -> Length:
    """The third number of a name like ``2x4x8``, its text with its unit.

    It is feet when it is a length that is sold, else it is in ``unit``; a fraction is inches after
    a size in ``inches``. Raises ``StockNameError`` for what is no length of a board.
    """
    unit = Unit(unit)
    try:
        read = read_length(text, unit)
    except LengthError as error:
        raise StockNameError(f"the length after the size is unclear: {error}") from error
    if re.search(r"[^\W\d_]|[\"'″′”’]", text):
        return read
    if text.isdigit() and int(text) in _SOLD_FEET:
        return Length(int(text) * TICKS_PER_FOOT, f"{text}ft")
    if unit is Unit.MM and inches and "/" in text:
        read = read_length(f"{text}in", unit)
    if read.ticks < _SHORTEST_IN_NAME:
        raise StockNameError(
            f"×{text} is too short for the length of a board; a sheet is written ply {text}"
        )
    if unit is Unit.INCH and read.ticks > _LONGEST_IN_NAME:
        raise StockNameError(f"×{text} in is no board: write {text}mm where millimetres are meant")
    return read


def feet_or_inches(text: str, unit: Unit | str) -> str:
    """What to ask where the length of a board is a bare number that is sold in feet, such as
    ``8``; empty where there is nothing to ask."""
    bare = text.strip()
    if Unit(unit) is Unit.MM or not bare.isascii() or not bare.isdigit():
        return ""
    if int(bare[:6]) not in _BOARD_FEET:
        return ""
    return f"{bare} ft? Write {bare}ft, or {bare}in if it is that short"


def ask_for_feet(text: str, unit: Unit | str) -> None:
    """Raises ``CarpentryError`` at ``length`` where ``feet_or_inches`` has something to ask."""
    asked = feet_or_inches(text, unit)
    if asked:
        raise CarpentryError(asked, "length")


def _said_of(third: str, length: Length, unit: Unit) -> tuple[str, ...]:
    """How a third number was read, where another reading comes to mind."""
    if not third.isdigit() or not (length.text != third or int(third) <= _MOST_FEET):
        return ()
    if length.text != third:
        return (f"×{third} is read as {third} ft",) if int(third) >= _DOUBTFUL_FEET else ()
    return (f"×{third} is read as {third} {unit}",)


def read_stock(text: str, lexicon: Lexicon) -> ReadStock:
    """A stock name as people type it: a size, perhaps a length after it, and words after or before
    it; or the name of a material of one's own.

    Raises ``StockNameError`` when the size is not known, with the nearest known names.
    """
    if len(text) > LONGEST_NAME:
        raise StockNameError(f"the name of a stock has {LONGEST_NAME} characters at the most")
    if not text.strip():
        raise StockNameError("a stock name is missing, such as 2x4 treated")
    mine = match_own(text, lexicon.own)
    if mine and text[mine[1] :].strip():
        raise StockNameError(f"“{mine[0].name}” is your own material: nothing follows its name")
    if mine:
        return ReadStock(StockName(mine[0].name, (), mine[0]), None, ())
    return _read_in_book(spelled_out_fractions(text), lexicon.unit, tuple(lexicon.own))


@lru_cache(4096)
def _read_in_book(text: str, unit: Unit, own_names: tuple[str, ...]) -> ReadStock:
    found = _size_in(text, unit)
    if found is None:
        raise StockNameError(_no_size(text, own_names))
    before, size = found
    end = len(before) + size.end
    length, rest = None, text[end:]
    warnings: tuple[str, ...] = ()
    third = written_third(text, end) if "x" in size.name and not size.sheet else None
    if third:
        length = length_in_name(third[0], unit, inches=size.name not in METRIC_SIZES)
        rest = text[third[1] :]
        warnings = _said_of(third[0], length, unit)
    else:
        said = written_length(rest)
        if said:
            length, rest = read_length(said[0], unit), said[1]
    words, own_words = read_words(f"{before} {size.words} {rest}", text)
    stock = StockName(size.name, words)
    return ReadStock(stock, length, (*warnings, *own_words, *_doubts(stock)))


def _doubts(stock: StockName) -> Iterator[str]:
    """What should be known of a name that is understood. Raises ``StockNameError`` for a size
    that is only sold worked in some way, where no word says so."""
    if stock.is_sheet:
        if stock.size not in BOOK:
            yield f"{stock.size} is not in the size book"
        return
    worked = [word for word in WORKED_WORDS if word in stock.words and word != "surfaced"]
    if nominal(stock) is None:
        ways = [f"{stock.size} {word}" for word in WORKED_WORDS if f"{stock.size} {word}" in BOOK]
        raise StockNameError(f"{stock.size} is only known as {' or '.join(ways)}")
    if (
        "/4x" in stock.size
        and stock.size not in BOOK
        and not worked
        and "surfaced" not in stock.words
    ):
        yield f"{stock.size} is taken for rough hardwood of that width"
    for word in worked:
        if f"{stock.size} {word}" not in BOOK and not _QUARTERS.fullmatch(stock.size):
            yield f"the size book has no {stock.size} {word}: it is taken for a plain {stock.size}"


def _size_in(text: str, unit: Unit) -> tuple[str, WrittenSize] | None:
    """The size in a name, with what stands before it: words that are known, or nothing."""
    for found in re.finditer(r"(?<![^\s,])[^\s,]", text):
        before = text[: found.start()]
        if before.strip() and not _all_known(before):
            return None
        size = _match(text[found.start() :], unit)
        if size:
            return before, size
    return None


def _all_known(text: str) -> bool:
    try:
        words, own_words = read_words(text, text)
    except StockNameError:
        return False
    return bool(words) and not own_words


def _no_size(text: str, own_names: tuple[str, ...]) -> str:
    """Why a name is refused, with what may be meant."""
    try:
        words = {SHEET_NAMES.get(word, word) for word in read_words(text, text)[0]}
    except StockNameError:
        words = set()
    sold = [name for name in BOOK if words & {*WORKED_WORDS, *SHEET_KINDS} & set(name.split())]
    if sold:
        return f"“{text.strip()}” names no size: there are {', '.join(sold[:6])}"
    known_names = [*own_names, *DRESSED_SIZES, "ply 1/2"]
    near = difflib.get_close_matches(text.strip().lower(), known_names, n=3)
    known = ", ".join(near) if near else "2x4, 1x6 cedar, 5/4x6, ply 1/2"
    return (
        f"“{text.strip()}” names no size. Write one such as {known}, or make it a material of "
        "your own"
    )
