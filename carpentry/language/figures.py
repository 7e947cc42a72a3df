"""Figures as files give them: rounded once, half up, and without their unit."""

import math
from fractions import Fraction

from carpentry.language.length import Unit, decimal_text

ROUNDED_TO = {Unit.INCH: "1/32", Unit.MM: "0.5"}  # unless a project says otherwise


def rounded(amount: Fraction, step: Fraction) -> Fraction:
    """The nearest whole number of steps, halves up."""
    return math.floor(amount / step + Fraction(1, 2)) * step


def write_figure(amount: Fraction, unit: Unit) -> str:
    """A figure in its unit: a mixed number of inches, a decimal of millimetres."""
    return _as_fraction(amount) if unit is Unit.INCH else write_decimal(amount)


def write_decimal(amount: Fraction) -> str:
    """A figure to six places."""
    text = decimal_text(abs(amount), 6)
    return f"-{text}" if amount < 0 and text != "0" else text


def _as_fraction(amount: Fraction) -> str:
    sign = "-" if amount < 0 else ""
    whole, rest = divmod(abs(amount), 1)
    if not rest:
        return f"{sign}{whole}"
    return f"{sign}{whole} {rest}" if whole else f"{sign}{rest}"
