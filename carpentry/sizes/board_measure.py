"""Board feet, in both schools of rounding."""

from decimal import ROUND_HALF_UP, Decimal
from enum import StrEnum
from fractions import Fraction

from carpentry.errors import CarpentryError
from carpentry.length import TICKS_PER_INCH
from carpentry.sizes.names import StockName, nominal

_CUBIC_INCHES = 144
_QUARTERS = (4, 5, 6, 8, 10, 12, 16)
HUNDREDTH = Decimal("0.01")


class Rounding(StrEnum):
    """``EACH`` rounds every dimension to the inch; ``TOTAL`` keeps fractions to the end."""

    EACH = "each"
    TOTAL = "total"


def _nearest_inch(inches: Fraction) -> Fraction:
    return Fraction(int(inches + Fraction(1, 2)))


def rough_thickness(thickness: Fraction) -> Fraction:
    """The rough quarter a surfaced thickness (inches) came from: 7/8 from 4/4, 1 3/4 from 8/4."""
    for quarters in _QUARTERS:
        if thickness <= Fraction(quarters, 4):
            return Fraction(quarters, 4)
    return _nearest_inch(thickness)


def board_feet(stock: StockName, length: int, *, whole_inches: bool = False) -> Fraction | None:
    """Board feet of one piece by named size (inches) and ``length`` (ticks); ``None`` for sheets.

    Thickness × width × length ÷ 144 (common practice, no source). Two schools: fractions are
    kept, or with ``whole_inches`` width and length are rounded to the nearest inch, halves up. The
    named thickness is that of the rough board and stays as it is. A material of one's own counts
    as it measures.
    """
    if stock.own and not stock.is_sheet:
        return Fraction(stock.own.section.area * length, _CUBIC_INCHES * TICKS_PER_INCH**3)
    size = nominal(stock)
    if size is None or size.width is None:
        return None
    width, inches = size.width, Fraction(length, TICKS_PER_INCH)
    if whole_inches:
        width, inches = _nearest_inch(width), _nearest_inch(inches)
    return size.thickness * width * inches / _CUBIC_INCHES


def measured_board_feet(
    thickness: int, width: int, length: int, count: int, rounding: Rounding
) -> Decimal:
    """Board feet of ``count`` measured pieces (ticks), to the hundredth.

    ``EACH``: surfaced thickness counts as the rough quarter it came from, width and length as whole
    inches, halves up. ``TOTAL``: fractions are kept and only the total is rounded. Both common
    practice, no source. Raises ``CarpentryError`` unless every number is above zero.
    """
    if min(thickness, width, length, count) < 1:
        raise CarpentryError("every dimension and the count must be more than 0")
    t, w, long = (Fraction(ticks, TICKS_PER_INCH) for ticks in (thickness, width, length))
    if rounding is Rounding.EACH:
        t, w, long = rough_thickness(t), _nearest_inch(w), _nearest_inch(long)
    total = t * w * long * count / _CUBIC_INCHES
    return (Decimal(total.numerator) / Decimal(total.denominator)).quantize(
        HUNDREDTH, ROUND_HALF_UP
    )
