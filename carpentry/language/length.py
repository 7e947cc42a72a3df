"""Exact lengths: reading what builders type, and writing what they can measure.

A length is an integer count of ticks of 1/8128 in (3.125 µm). 1/64 in is 127 ticks and 0.1 mm is
32 ticks, so inch fractions and tenths of a millimetre are both exact and sums never drift.
"""

import re
from dataclasses import dataclass, replace
from enum import StrEnum
from fractions import Fraction
from functools import lru_cache

from carpentry.language.errors import LengthError

TICKS_PER_INCH = 8128
TICKS_PER_FOOT = 12 * TICKS_PER_INCH
TICKS_PER_MM = 320
LONGEST = 1_000_000 * TICKS_PER_MM  # one kilometre
FINEST_FRACTION = 64
LONGEST_TEXT = 60

VULGAR_FRACTIONS = {
    "½": "1/2",
    "¼": "1/4",
    "¾": "3/4",
    "⅛": "1/8",
    "⅜": "3/8",
    "⅝": "5/8",
    "⅞": "7/8",
}


class Unit(StrEnum):
    """What a bare number means."""

    INCH = "in"
    MM = "mm"


class Notation(StrEnum):
    """How lengths are shown."""

    SIXTEENTHS = "1/16"
    THIRTY_SECONDS = "1/32"
    SIXTY_FOURTHS = "1/64"
    DECIMAL = "decimal"
    FEET = "feet"
    MM = "mm"


@dataclass(frozen=True)
class Length:
    """A length as it was read: its ticks, the text as typed, and whether it had to be rounded."""

    ticks: int
    text: str
    rounded: bool = False


@dataclass(frozen=True)
class WrittenLength:
    """A length ready to be typeset: ``whole``, then a true fraction, then the ``mark`` of the unit.

    ``whole`` may be empty (for 3/4) and carries the feet in feet-and-inches. ``exact`` is false
    when the notation had to round.
    """

    ticks: int
    whole: str
    numerator: int | None
    denominator: int | None
    mark: str
    exact: bool

    @property
    def text(self) -> str:
        fraction = f"{self.numerator}/{self.denominator}" if self.numerator else ""
        between = " " if self.whole and fraction else ""
        return f"{self.whole}{between}{fraction}{self.mark}"


_NUMBER = re.compile(r"(\d+(?:[.,]\d+)?|[.,]\d+)")
_FRACTION = re.compile(r"(\d+)\s*[/⁄]\s*(\d+)")
_JOINT = re.compile(r"\s*-\s*|\s+")
_UNIT = re.compile(
    r"\s*(feet|foot|ft\b\.?|['′’]{2}|[\"″”]|['′’]|inches|inch|in\b\.?|millimet(?:er|re)s?|mm\b"
    r"|centimet(?:er|re)s?|cm\b|met(?:er|re)s?|m\b)",
    re.IGNORECASE,
)


def _unit_kind(text: str) -> str:
    word = text.strip().lower().rstrip(".")
    if word in {"'", "′", "’"} or word.startswith("f"):
        return "ft"
    if word in {'"', "″", "”"} or (len(word) == 2 and word[0] in "'′’") or word.startswith("i"):
        return "in"
    if word == "mm" or word.startswith("milli"):
        return "mm"
    return "cm" if word == "cm" or word.startswith("centi") else "m"


_TICKS_OF = {
    "ft": TICKS_PER_FOOT,
    "in": TICKS_PER_INCH,
    "mm": TICKS_PER_MM,
    "cm": 10 * TICKS_PER_MM,
    "m": 1000 * TICKS_PER_MM,
}


class _Scanner:
    """Walks a length text from left to right, remembering how far it made sense."""

    def __init__(self, text: str) -> None:
        self.typed = text
        self.text = text
        self.columns = list(range(1, len(text) + 2))
        self._spell_out_vulgar_fractions()
        self.at = len(self.text) - len(self.text.lstrip())

    def _spell_out_vulgar_fractions(self) -> None:
        spelled: list[str] = []
        columns: list[int] = []
        for column, character in enumerate(self.typed, start=1):
            written = VULGAR_FRACTIONS.get(character, character)
            if written != character and spelled and spelled[-1].isdigit():
                written = " " + written
            spelled.extend(written)
            columns.extend([column] * len(written))
        self.text = "".join(spelled)
        self.columns = [*columns, len(self.typed) + 1]

    def fail(self, message: str, at: int | None = None) -> LengthError:
        return LengthError(
            message, self.columns[min(self.at if at is None else at, len(self.text))]
        )

    def take(self, pattern: re.Pattern[str]) -> re.Match[str] | None:
        found = pattern.match(self.text, self.at)
        if found:
            self.at = found.end()
        return found

    def at_end(self) -> bool:
        return not self.text[self.at :].strip()

    def fraction(self) -> Fraction | None:
        start = self.at
        found = self.take(_FRACTION)
        if not found:
            return None
        numerator, denominator = int(found[1]), int(found[2])
        if denominator not in {2, 4, 8, 16, 32, 64}:
            raise self.fail(
                f"{found[1]}/{found[2]} is not on a tape: use halves, quarters, 8ths … 64ths", start
            )
        if numerator >= denominator:
            raise self.fail(
                f"{found[1]}/{found[2]} is a whole inch or more: write the inches first", start
            )
        return Fraction(numerator, denominator)

    def amount(self) -> tuple[Fraction, bool]:
        """A number with its fraction: its value, and whether it was written as a decimal."""
        alone = self.fraction()
        if alone is not None:
            return alone, False
        start = self.at
        found = self.take(_NUMBER)
        if not found:
            raise self.fail("a number is expected here")
        digits = found[1]
        if "," in digits:
            raise self.fail("write the decimals with a point, not a comma", start)
        if len(digits) > 18:
            raise self.fail("that number is too long", start)
        value = Fraction(digits)
        if "." in digits:
            return value, True
        before_joint = self.at
        if self.take(_JOINT):
            fraction = self.fraction()
            if fraction is not None:
                return value + fraction, False
            self.at = before_joint
        return value, False

    def unit(self) -> str | None:
        found = self.take(_UNIT)
        return _unit_kind(found[1]) if found else None


def read_length(text: str, unit: Unit | str) -> Length:
    """What a builder typed, as a length.

    ``unit`` is what a bare number means. Understands ``44 1/2``, ``44-1/2``, ``44½``,
    ``3' 8-1/2"``, ``6ft 5in``, ``735mm``, ``73.5 cm``, ``1.2 m``. A decimal that is no whole
    number of ticks is rounded to the nearest one and marked so. Raises ``LengthError`` with the
    column at which the text stopped making sense.
    """
    return _read(text, Unit(unit))


@lru_cache(50_000)
def _read(text: str, unit: Unit) -> Length:
    total = read_exactly(text, unit)
    if total > LONGEST:
        column = len(text) - len(text.lstrip()) + 1
        raise LengthError("that is longer than a kilometre", column)
    ticks = round(total)
    return Length(ticks, text.strip(), ticks != total)


def read_exactly(text: str, unit: Unit | str) -> Fraction:
    """What ``read_length`` reads, in ticks, before it is rounded to whole ones and however long."""
    if len(text) > LONGEST_TEXT:
        raise LengthError(f"a length has {LONGEST_TEXT} characters at the most", LONGEST_TEXT)
    scanner = _Scanner(text)
    if scanner.at_end():
        raise LengthError("a length is missing", 1)
    start = scanner.at
    value, decimal = scanner.amount()
    kind = scanner.unit()
    if kind is not None and kind in {"mm", "cm", "m"} and value.denominator > 1 and not decimal:
        raise scanner.fail(
            "millimetres, centimetres and metres take decimals, not fractions", start
        )
    total = value * _TICKS_OF[kind or Unit(unit).value]
    if kind == "ft" and not scanner.at_end():
        if scanner.take(re.compile(r"\s*-\s*")) is None:
            scanner.take(re.compile(r"\s+"))
        inches_at = scanner.at
        inches, _ = scanner.amount()
        inch_mark = scanner.unit()
        if inch_mark not in {None, "in"}:
            raise scanner.fail("after feet only inches can follow", inches_at)
        if value.denominator > 1:
            raise scanner.fail("feet with inches after them must be whole", start)
        if inches >= 12:
            raise scanner.fail("inches after feet must be below 12", inches_at)
        total += inches * TICKS_PER_INCH
    if not scanner.at_end():
        scanner.take(re.compile(r"\s+"))
        raise scanner.fail("the length should end here")
    return total


def ticks_per(unit: Unit) -> int:
    """Ticks in one of what a bare figure means."""
    return _TICKS_OF[unit.value]


def decimal_text(value: Fraction, places: int) -> str:
    """A figure, zero or more, to so many places, without noughts at its end."""
    scaled = round(value * 10**places)
    whole, rest = divmod(scaled, 10**places)
    return f"{whole}.{rest:0{places}d}".rstrip("0").rstrip(".")


def _inches(ticks: int, denominator: int) -> tuple[int, int | None, int | None, bool]:
    parts = Fraction(ticks * denominator, TICKS_PER_INCH)
    nearest = int(parts + Fraction(1, 2))
    whole, rest = divmod(nearest, denominator)
    fraction = Fraction(rest, denominator)
    if not rest:
        return whole, None, None, parts == nearest
    return whole, fraction.numerator, fraction.denominator, parts == nearest


def write_length(ticks: int, notation: Notation | str) -> WrittenLength:
    """A length (ticks) as the builder's tape shows it.

    Fractions are rounded half up to the notation's denominator, ``feet`` to 1/16, decimal inches to
    three places, millimetres to a tenth; ``exact`` says whether that lost anything. A place before
    the zero of a tape has a sign.
    """
    notation = Notation(notation)
    if ticks < 0:
        beyond = write_length(-ticks, notation)
        return replace(beyond, ticks=ticks, whole=f"−{beyond.whole}")
    if notation is Notation.MM:
        tenths = int(Fraction(ticks * 10, TICKS_PER_MM) + Fraction(1, 2))
        exact = tenths * TICKS_PER_MM == ticks * 10
        return WrittenLength(ticks, decimal_text(Fraction(tenths, 10), 1), None, None, " mm", exact)
    if notation is Notation.DECIMAL:
        inches = Fraction(ticks, TICKS_PER_INCH)
        text = decimal_text(inches, 3)
        return WrittenLength(ticks, text, None, None, "″", Fraction(text) == inches)
    denominator = 16 if notation is Notation.FEET else int(notation.split("/")[1])
    whole, numerator, below, exact = _inches(ticks, denominator)
    shown = str(whole) if whole or not numerator else ""
    if notation is Notation.FEET and whole >= 12:
        feet, inches_left = divmod(whole, 12)
        if not inches_left and not numerator:
            return WrittenLength(ticks, str(feet), None, None, "′", exact)
        shown = f"{feet}′ {inches_left}" if inches_left or not numerator else f"{feet}′"
    return WrittenLength(ticks, shown, numerator, below, "″", exact)


def measured_in(ticks: int, notation: Notation | str) -> Notation:
    """The notation in which a length (ticks) is set at the saw: millimetres where it is a whole
    number of halves of them but no fraction of an inch, and the other way round; else the given
    one."""
    notation = Notation(notation)
    in_inches, in_millimetres = not ticks % (TICKS_PER_INCH // 64), not ticks % (TICKS_PER_MM // 2)
    if notation is Notation.MM:
        return Notation.SIXTY_FOURTHS if in_inches and not in_millimetres else notation
    return Notation.MM if in_millimetres and not in_inches else notation


@lru_cache(20_000)
def interchange(ticks: int, unit: Unit | str) -> str:
    """A length (ticks) as files write it, so that reading it back gives the same ticks.

    In inches a 1/64 fraction where that is exact, else millimetres to six places; in millimetres
    a bare number.
    """
    millimetres = decimal_text(Fraction(ticks, TICKS_PER_MM), 6)
    if Unit(unit) is Unit.MM:
        return millimetres
    whole, numerator, denominator, exact = _inches(ticks, FINEST_FRACTION)
    if not exact:
        return f"{millimetres}mm"
    if not numerator:
        return str(whole)
    return f"{whole} {numerator}/{denominator}" if whole else f"{numerator}/{denominator}"


def spelled_out(ticks: int, unit: Unit) -> str:
    """``interchange`` with its unit written: it reads the same whatever a bare number means."""
    written = interchange(ticks, unit)
    return written if written.endswith("mm") else f"{written}{unit.value}"


def unit_meant(text: str, unit: Unit) -> Unit:
    """The unit of a small tolerance as it was typed: a bare fraction such as ``1/8`` is one of an
    inch, whatever else is measured in."""
    return Unit.INCH if _BARE_FRACTION.fullmatch(text.strip()) else unit


_BARE_FRACTION = re.compile(r"(?:\d+[ -])?\d+/\d+")


def unambiguous(text: str, ticks: int, unit: Unit) -> str:
    """A length as it was typed, with its ``unit`` where it was a bare number."""
    bare = text.replace(" ", "").replace(".", "").replace("/", "").replace("-", "")
    return spelled_out(ticks, unit) if bare.isnumeric() else text


def sold_name(ticks: int, notation: Notation | str) -> str:
    """What a stock length (ticks) is sold as: ``8 ft``, ``2400 mm``, or as the notation writes it.

    Whole feet and whole tenths of a metre are named so in any project.
    """
    feet, rest = divmod(ticks, TICKS_PER_FOOT)
    if feet and not rest:
        return f"{feet} ft"
    if ticks and not ticks % (100 * TICKS_PER_MM):
        return f"{ticks // TICKS_PER_MM} mm"
    return write_length(ticks, notation).text
