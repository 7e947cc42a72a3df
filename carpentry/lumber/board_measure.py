"""Board feet, in both schools of rounding."""

from decimal import ROUND_HALF_UP, Decimal
from enum import StrEnum
from fractions import Fraction

from carpentry.language import TICKS_PER_INCH, CarpentryError
from carpentry.lumber.families import DRESSED_FAMILIES
from carpentry.lumber.family import Size
from carpentry.lumber.names import StockName, nominal

_CUBIC_INCHES = 144
_QUARTERS = (4, 5, 6, 8, 10, 12, 16)
_LEAST = Fraction(1)  # inches of thickness that any board counts as
HUNDREDTH = Decimal("0.01")


class Rounding(StrEnum):
    """``EACH`` rounds every dimension to the inch; ``TOTAL`` keeps fractions to the end."""

    EACH = "each"
    TOTAL = "total"


def _nearest_inch(inches: Fraction) -> Fraction:
    return Fraction(int(inches + Fraction(1, 2)))


def rough_thickness(thickness: Fraction) -> Fraction:
    """The rough quarter a surfaced thickness (inches) came from: 7/8 from 4/4, 1 3/4 from 8/4;
    nothing counts as less than an inch."""
    for quarters in _QUARTERS:
        if thickness <= Fraction(quarters, 4):
            return Fraction(quarters, 4)
    return _nearest_inch(thickness)


def board_feet(stock: StockName, length: int, *, whole_inches: bool = False) -> Fraction | None:
    """Board feet of one piece by named size (inches) and ``length`` (ticks); ``None`` for sheets
    and random widths.

    Thickness × width × length ÷ 144, a thickness under 1 in counted as 1 (common practice, no
    source). Two schools: fractions are kept, or with ``whole_inches`` width and length are rounded
    to the nearest inch, halves up. The named thickness is that of the rough board and stays as it
    is. A material of one's own counts as it measures.
    """
    size = nominal(stock)
    if stock.own and not stock.is_sheet:
        section = stock.own.section
        area = Fraction(section.area, TICKS_PER_INCH**2)
        width = Fraction(section.width, TICKS_PER_INCH)
        thickness = area / width
    elif size and size.width:
        thickness, width = size.thickness, size.width
    else:
        return None
    inches = Fraction(length, TICKS_PER_INCH)
    if whole_inches:
        width, inches = _nearest_inch(width), _nearest_inch(inches)
    return max(thickness, _LEAST) * width * inches / _CUBIC_INCHES


def _dressed_from(thickness: int, width: int) -> Size | None:
    """The nominal size whose dressed boards measure this (ticks), dry or green."""
    measured = (thickness, width)
    return next(
        (
            size
            for family in DRESSED_FAMILIES
            for size in family.sizes
            for section in (size.section, size.green)
            if section and measured == (section.thickness, section.width)
        ),
        None,
    )


def measured_board_feet(
    thickness: int, width: int, length: int, count: int, rounding: Rounding
) -> Decimal:
    """Board feet of ``count`` measured pieces (ticks), to the hundredth.

    What measures as dressed softwood does counts as its nominal size: 1 1/2 × 3 1/2 is a 2x4.
    ``EACH``: surfaced thickness counts as the rough quarter it came from, width and length as whole
    inches, halves up. ``TOTAL``: fractions are kept and only the total is rounded, a thickness
    under 1 in counted as 1. All common practice, no source. Raises ``CarpentryError`` unless every
    number is above zero.
    """
    if min(thickness, width, length, count) < 1:
        raise CarpentryError("every dimension and the count must be more than 0")
    t, w, long = (Fraction(ticks, TICKS_PER_INCH) for ticks in (thickness, width, length))
    size = _dressed_from(thickness, width)
    if size and size.width:
        t, w = size.thickness, size.width
    if rounding is Rounding.EACH:
        t, w, long = rough_thickness(t), _nearest_inch(w), _nearest_inch(long)
    total = max(t, _LEAST) * w * long * count / _CUBIC_INCHES
    return (Decimal(total.numerator) / Decimal(total.denominator)).quantize(
        HUNDREDTH, ROUND_HALF_UP
    )
