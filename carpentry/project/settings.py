"""How a project measures and saws."""

from dataclasses import dataclass

from carpentry.cutting import Order
from carpentry.errors import CarpentryError, LengthError, Problem
from carpentry.length import TICKS_PER_FOOT, TICKS_PER_INCH, Length, Notation, Unit, read_length

MAX_COPIES = 1_000
WIDEST_KERF = TICKS_PER_INCH
LONGEST_TRIM = 4 * TICKS_PER_FOOT
DEFAULTS = {
    Unit.INCH: {"kerf": "1/8", "trim_start": "1/2", "trim_end": "0", "notation": "1/32"},
    Unit.MM: {"kerf": "3", "trim_start": "10", "trim_end": "0", "notation": "mm"},
}


@dataclass(frozen=True)
class Settings:
    """Kerf and trims as exact lengths; ``copies`` is how many are built; ``rip`` whether parts may
    be ripped from other sizes unless they say otherwise, in which ``order`` of work."""

    unit: Unit
    notation: Notation
    kerf: Length
    trim_start: Length
    trim_end: Length
    copies: int
    rip: bool = False
    order: Order = Order.EITHER


def read_settings(
    *,
    unit: str,
    notation: str,
    kerf: str,
    trim_start: str,
    trim_end: str,
    copies: int,
    rip: bool = False,
    order: str = Order.EITHER.value,
) -> Settings:
    """Settings from what was typed. Raises ``CarpentryError`` with every problem, by field."""
    problems: list[Problem] = []
    try:
        read_unit = Unit(unit)
    except ValueError as error:
        raise CarpentryError("choose inches or millimetres", "unit") from error

    def length(place: str, text: str, most: int, what: str) -> Length:
        try:
            read = read_length(text, read_unit)
        except LengthError as error:
            problems.append(Problem(place, error.problems[0].message))
            return Length(0, text)
        if read.ticks > most:
            problems.append(Problem(place, what))
        return read

    read_notation = Notation.MM if read_unit is Unit.MM else Notation.THIRTY_SECONDS
    if notation not in [n.value for n in Notation]:
        problems.append(Problem("notation", "is no way of writing lengths"))
    elif (notation == Notation.MM.value) != (read_unit is Unit.MM):
        problems.append(Problem("notation", "goes with the other unit"))
    else:
        read_notation = Notation(notation)
    read_kerf = length("kerf", kerf, WIDEST_KERF, "no saw takes more than an inch")
    start = length("trim_start", trim_start, LONGEST_TRIM, "a trim is at most 4 ft")
    end = length("trim_end", trim_end, LONGEST_TRIM, "a trim is at most 4 ft")
    if not 1 <= copies <= MAX_COPIES:
        problems.append(Problem("copies", f"build from 1 to {MAX_COPIES:,} copies"))
    read_order = next((one for one in Order if one.value == order), None)
    if read_order is None:
        problems.append(Problem("order", f"choose one of {', '.join(o.value for o in Order)}"))
    if problems or read_order is None:
        raise CarpentryError(problems)
    return Settings(read_unit, read_notation, read_kerf, start, end, copies, rip, read_order)
