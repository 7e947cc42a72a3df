"""A board's name as people type it: a size, perhaps a length after it, then words."""

import difflib
import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from fractions import Fraction
from functools import lru_cache

from carpentry.errors import LengthError, StockNameError
from carpentry.length import TICKS_PER_FOOT, Unit, read_length
from carpentry.sizes.families import STOCK_FAMILIES, Size
from carpentry.sizes.kinds import Kind
from carpentry.sizes.own import NO_OWN, Form, OwnStock, OwnStocks, match_own
from carpentry.sizes.section import Section


@dataclass(frozen=True)
class StockName:
    """A stock by size and words. Two names are the same stock when both agree.

    ``size`` is the canonical size (``2x4``, ``5/4x6``, ``ply 1/2``), ``words`` the lower-case
    words after it, in the order of the alphabet. A material of one's ``own`` has its name as size
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
    def kind(self) -> Kind:
        if self.own:
            return self.own.kind
        if self.is_sheet:
            return Kind.SHEET
        words = set(self.words)
        for kind, of_kind in _WORDS_OF_KIND.items():
            heated = kind is Kind.TREATED and "heat" in words and "pt" not in words
            if words & of_kind and not heated:
                return kind
        return Kind.DURABLE if {"white", "oak"} <= words else Kind.PLAIN


@dataclass(frozen=True)
class ReadStock:
    """A stock name as it was read, the length inside it (ticks) if it had one, and warnings."""

    stock: StockName
    length: int | None
    warnings: tuple[str, ...]


STANDARD_SIZES: dict[str, Size] = {
    size.name: size for family in STOCK_FAMILIES for size in family.sizes
}

SHEET_KINDS = {"ply": "ply", "plywood": "ply", "osb": "osb", "hardboard": "hardboard"}

_WORDS_OF_KIND = {
    Kind.COMPOSITE: {"composite"},
    Kind.TREATED: {"treated", "pt"},
    Kind.DURABLE: {"cedar", "redcedar", "redwood", "larch", "cypress", "locust", "ipe", "teak"},
}
GRADES = frozenset(
    {
        *("rough", "select", "clear", "common", "premium", "prime", "standard", "stud", "kd"),
        *("green", "dry", "exterior", "sanded", "heat", "treated", "ht", "ground", "contact"),
    }
)
_WOODS = {
    *("pine", "fir", "spruce", "hemlock", "douglas", "whitewood", "southern", "yellow", "red"),
    *("white", "spf", "syp", "oak", "maple", "ash", "birch", "beech", "cherry", "walnut"),
    *("poplar", "ponderosa", "soft", "hard", "black", "hem-fir", "douglas-fir"),
    *("spruce-pine-fir", "western", "eastern", "northern", "alaska"),
}
KNOWN_WORDS = frozenset((GRADES | _WOODS).union(*_WORDS_OF_KIND.values()))

_SOLD_FEET = frozenset({6, 8, 10, 12, 14, 16, 18, 20})
_DOUBTFUL_FROM_FEET = 12  # from here on the same number is also a usual part length in inches

STANDARD_LENGTHS = {
    Unit.INCH: tuple(feet * TICKS_PER_FOOT for feet in (8, 10, 12, 14, 16)),
    Unit.MM: tuple(
        read_length(str(mm), Unit.MM).ticks for mm in (1800, 2400, 3000, 3600, 4200, 4800)
    ),
}

_TIMES = r"\s*[xX×]\s*"
_BOARD = re.compile(rf"\s*([56]/4|\d+){_TIMES}([56]/4|\d+)(?![\d/.])")
_THIRD = re.compile(rf"{_TIMES}(\S.*?)(?=\s+[A-Za-z]{{3,}}|\s*$)")
_SHEET = re.compile(
    rf"\s*({'|'.join(sorted(SHEET_KINDS, key=len, reverse=True))})"
    r"\s+(\d+/\d+|\d+(?:\.\d+)?\s*mm)\b",
    re.IGNORECASE,
)
_WORD = re.compile(r"[^\W\d_][\w'-]*")


def standard_section(stock: StockName) -> Section | None:
    """The standard section of a board (ticks): the dry one, or the green one where the name says
    so; ``None`` for a sheet. A material of one's own has the one it was given."""
    if stock.own:
        return None if stock.is_sheet else stock.own.section
    size = STANDARD_SIZES.get(stock.size)
    if size is None:
        return None
    return size.green if "green" in stock.words and size.green else size.section


def nominal(stock: StockName) -> Size | None:
    """The nominal size of a board, or ``None`` for a sheet."""
    return STANDARD_SIZES.get(stock.size)


def _sheet(text: str, unit: Unit) -> tuple[str, int] | None:
    found = _SHEET.match(text)
    if not found:
        return None
    thickness = read_length(found[2], unit)
    return f"{SHEET_KINDS[found[1].lower()]} {thickness.text.replace(' ', '')}", found.end()


def match_size(text: str, unit: Unit | str, own: OwnStocks = NO_OWN) -> tuple[str, int] | None:
    """The canonical size a text begins with and where it ends, or ``None`` if it begins with none.
    Names of one's ``own`` come first.

    Sizes named wide side first (``4x2``) are turned. Raises ``StockNameError`` for something
    written like a size that nobody sells, naming the nearest that are.
    """
    mine = match_own(text, own)
    if mine:
        return mine[0].name, mine[1]
    sheet = _sheet(text, Unit(unit))
    if sheet:
        return sheet
    found = _BOARD.match(text)
    if not found:
        return None
    for name in (f"{found[1]}x{found[2]}", f"{found[2]}x{found[1]}"):
        if name in STANDARD_SIZES:
            return name, found.end()
    asked = f"{found[1]}x{found[2]}"
    raise StockNameError(f"no board is called {asked}. Nearest known: {_nearest(asked)}")


def _inch_sizes() -> Iterator[Size]:
    return (size for family in STOCK_FAMILIES[:3] for size in family.sizes)


def _nearest(asked: str) -> str:
    thickness, width = (Fraction(number) for number in asked.split("x"))

    def distance(size: Size) -> tuple[Fraction, str]:
        wide = size.width or Fraction(0)
        return abs(size.thickness - thickness) * 8 + abs(wide - width), size.name

    return ", ".join(size.name for size in sorted(_inch_sizes(), key=distance)[:3])


def length_in_name(text: str, unit: Unit | str) -> int:
    """The third number of a name like ``2x4x8``, in ticks.

    It is feet when it is a length that is sold, else it is in ``unit``. Raises ``StockNameError``
    where both could be meant.
    """
    unit = Unit(unit)
    try:
        read = read_length(text, unit)
    except LengthError as error:
        raise StockNameError(f"the length after the size is unclear: {error}") from error
    if not text.isdigit() or int(text) not in _SOLD_FEET:
        return read.ticks
    if unit is Unit.INCH and int(text) >= _DOUBTFUL_FROM_FEET:
        raise StockNameError(
            f"×{text} may mean {text} ft or {text} in: write {text}ft or {text}in after the size"
        )
    return int(text) * TICKS_PER_FOOT


def read_stock(text: str, unit: Unit | str, own: OwnStocks = NO_OWN) -> ReadStock:
    """A stock name as people type it: a size, perhaps a length after it, then optional words; or
    the name of a material of one's ``own``.

    Raises ``StockNameError`` when the size is not known, with the nearest known names.
    """
    unit = Unit(unit)
    if not text.strip():
        raise StockNameError("a stock name is missing, such as 2x4 treated")
    mine = match_own(text, own)
    if mine and text[mine[1] :].strip():
        raise StockNameError(f"“{mine[0].name}” is your own material: nothing follows its name")
    if mine:
        return ReadStock(StockName(mine[0].name, (), mine[0]), None, ())
    return _read_in_book(text, unit, tuple(own))


@lru_cache(4096)
def _read_in_book(text: str, unit: Unit, own_names: tuple[str, ...]) -> ReadStock:
    matched = match_size(text, unit)
    if matched is None:
        known_names = [*own_names, *STANDARD_SIZES, "ply 1/2"]
        near = difflib.get_close_matches(text.strip().lower(), known_names, n=3)
        known = ", ".join(near) if near else "2x4, 1x6 cedar, 5/4x6, ply 1/2"
        raise StockNameError(f"“{text.strip()}” names no size. Write one such as {known}")
    size, end = matched
    length = None
    third = _THIRD.match(text, end) if "x" in size else None
    if third:
        length = length_in_name(third[1].strip(), unit)
        end = third.end()
    words, warnings = _read_words(text[end:], text)
    return ReadStock(StockName(size, words), length, warnings)


def _read_words(rest: str, text: str) -> tuple[tuple[str, ...], tuple[str, ...]]:
    words: set[str] = set()
    for word in re.split(r"[\s,]+", rest.strip()):
        if not word:
            continue
        if not _WORD.fullmatch(word):
            raise StockNameError(f"“{word}” in “{text.strip()}” is neither a size nor a word")
        words.add(word.lower())
    unknown = sorted(words - KNOWN_WORDS)
    warnings = tuple(
        f"“{word}” is a word of your own: it must match the yard's" for word in unknown
    )
    return tuple(sorted(words)), warnings
