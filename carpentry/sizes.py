"""Real sizes: a board's name as people type it, and the section it really has.

``read_stock("2 X 4 treated")`` gives the name, ``standard_section`` the dressed size. A yard's own
actual section, where its price list gives one, wins over the standard one.
"""

import difflib
import re
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction

from carpentry.errors import LengthError, StockNameError
from carpentry.length import TICKS_PER_FOOT, TICKS_PER_INCH, Unit, read_length


@dataclass(frozen=True)
class Section:
    """The cross-section of a board, in ticks."""

    thickness: int
    width: int


@dataclass(frozen=True)
class NominalSize:
    """A size by its name: what it is called, and what it really measures.

    ``thickness`` and ``width`` are the nominal inches; ``section`` is the dressed dry size.
    """

    name: str
    thickness: Fraction
    width: Fraction
    section: Section


class Kind(StrEnum):
    """The kind of stock, which also gives a drawing its tone and its mark."""

    PLAIN = "plain"
    TREATED = "treated"
    DURABLE = "durable"
    COMPOSITE = "composite"
    SHEET = "sheet"


@dataclass(frozen=True)
class StockName:
    """A stock by size and words. Two names are the same stock when both agree.

    ``size`` is the canonical size (``2x4``, ``5/4x6``, ``ply 1/2``), ``words`` the lower-case
    words after it, in the order of the alphabet.
    """

    size: str
    words: tuple[str, ...]

    def __str__(self) -> str:
        return " ".join((self.size, *self.words))

    @property
    def is_sheet(self) -> bool:
        return self.size.split()[0] in SHEET_KINDS

    @property
    def kind(self) -> Kind:
        if self.is_sheet:
            return Kind.SHEET
        for kind, words in _WORDS_OF_KIND.items():
            if words & set(self.words):
                return kind
        return Kind.PLAIN


@dataclass(frozen=True)
class ReadStock:
    """A stock name as it was read, the length inside it (ticks) if it had one, and warnings."""

    stock: StockName
    length: int | None
    warnings: tuple[str, ...]


# Dressed dry sizes in inches of the American Softwood Lumber Standard, PS 20 (boards, dimension
# lumber, timbers), by nominal inch. Values from memory of the published tables.
_DRESSED_THICKNESS = {"1": "3/4", "5/4": "1", "2": "1 1/2", "4": "3 1/2", "6": "5 1/2"}
_DRESSED_WIDTH = {
    "2": "1 1/2",
    "3": "2 1/2",
    "4": "3 1/2",
    "5": "4 1/2",
    "6": "5 1/2",
    "8": "7 1/4",
    "10": "9 1/4",
    "12": "11 1/4",
}
_SOLD_WIDTHS = {
    "1": ("2", "3", "4", "5", "6", "8", "10", "12"),
    "5/4": ("4", "5", "6"),
    "2": ("2", "3", "4", "6", "8", "10", "12"),
    "4": ("4", "6"),
    "6": ("6",),
}


def _dressed(text: str) -> int:
    return read_length(text, Unit.INCH).ticks


STANDARD_SIZES: dict[str, NominalSize] = {
    f"{thickness}x{width}": NominalSize(
        f"{thickness}x{width}",
        Fraction(thickness),
        Fraction(width),
        Section(_dressed(_DRESSED_THICKNESS[thickness]), _dressed(_DRESSED_WIDTH[width])),
    )
    for thickness, widths in _SOLD_WIDTHS.items()
    for width in widths
}

SHEET_KINDS = {"ply": "ply", "plywood": "ply", "osb": "osb", "hardboard": "hardboard"}

_WORDS_OF_KIND = {
    Kind.COMPOSITE: {"composite"},
    Kind.TREATED: {"treated", "pt"},
    Kind.DURABLE: {"cedar", "redwood", "larch", "cypress", "locust"},
}
_OTHER_WORDS = {
    *("pine", "fir", "spruce", "hemlock", "douglas", "whitewood", "southern", "yellow", "red"),
    *("white", "rough", "select", "clear", "common", "premium", "kd", "green", "dry", "exterior"),
}
KNOWN_WORDS = frozenset(_OTHER_WORDS.union(*_WORDS_OF_KIND.values()))

_SOLD_FEET = frozenset({6, 8, 10, 12, 14, 16, 18, 20})
_DOUBTFUL_FROM_FEET = 12  # from here on the same number is also a usual part length in inches

STANDARD_LENGTHS = {
    Unit.INCH: tuple(feet * TICKS_PER_FOOT for feet in (8, 10, 12, 14, 16)),
    Unit.MM: tuple(
        read_length(str(mm), Unit.MM).ticks for mm in (1800, 2400, 3000, 3600, 4200, 4800)
    ),
}

_TIMES = r"\s*[xX×]\s*"
_BOARD = re.compile(rf"\s*(5/4|\d+){_TIMES}(5/4|\d+)(?![\d/.])")
_THIRD = re.compile(rf"{_TIMES}(\S.*?)(?=\s+[A-Za-z]{{3,}}|\s*$)")
_SHEET = re.compile(
    rf"\s*({'|'.join(sorted(SHEET_KINDS, key=len, reverse=True))})"
    r"\s+(\d+/\d+|\d+(?:\.\d+)?\s*mm)\b",
    re.IGNORECASE,
)
_WORD = re.compile(r"[^\W\d_][\w'-]*")


def standard_section(stock: StockName) -> Section | None:
    """The standard dressed section of a board (ticks), or ``None`` for a sheet."""
    size = STANDARD_SIZES.get(stock.size)
    return size.section if size else None


def nominal(stock: StockName) -> NominalSize | None:
    """The nominal size of a board, or ``None`` for a sheet."""
    return STANDARD_SIZES.get(stock.size)


def _sheet(text: str, unit: Unit) -> tuple[str, int] | None:
    found = _SHEET.match(text)
    if not found:
        return None
    thickness = read_length(found[2], unit)
    return f"{SHEET_KINDS[found[1].lower()]} {thickness.text.replace(' ', '')}", found.end()


def match_size(text: str, unit: Unit | str) -> tuple[str, int] | None:
    """The canonical size a text begins with and where it ends, or ``None`` if it begins with none.

    Sizes named wide side first (``4x2``) are turned. Raises ``StockNameError`` for something
    written like a size that nobody sells, naming the nearest that are.
    """
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


def _nearest(asked: str) -> str:
    thickness, width = (Fraction(number) for number in asked.split("x"))

    def distance(size: NominalSize) -> tuple[Fraction, str]:
        return abs(size.thickness - thickness) * 3 + abs(size.width - width), size.name

    return ", ".join(size.name for size in sorted(STANDARD_SIZES.values(), key=distance)[:3])


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


def read_stock(text: str, unit: Unit | str) -> ReadStock:
    """A stock name as people type it: a size, perhaps a length after it, then optional words.

    Raises ``StockNameError`` when the size is not known, with the nearest known names.
    """
    unit = Unit(unit)
    if not text.strip():
        raise StockNameError("a stock name is missing, such as 2x4 treated")
    matched = match_size(text, unit)
    if matched is None:
        near = difflib.get_close_matches(text.strip().lower(), [*STANDARD_SIZES, "ply 1/2"], n=3)
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


def board_feet(stock: StockName, length: int, *, whole_inches: bool = False) -> Fraction | None:
    """Board feet of one piece by named size (inches) and ``length`` (ticks); ``None`` for sheets.

    Thickness × width × length ÷ 144 (common practice, no source). Two schools: fractions are
    kept, or with ``whole_inches`` width and length are rounded to the nearest inch, halves up. The
    named thickness is that of the rough board and stays as it is.
    """
    size = nominal(stock)
    if size is None:
        return None
    width, inches = size.width, Fraction(length, TICKS_PER_INCH)
    if whole_inches:
        width, inches = (Fraction(int(n + Fraction(1, 2))) for n in (width, inches))
    return size.thickness * width * inches / 144
