"""Hardwood lumber, by quarters of an inch."""

from collections.abc import Iterator
from fractions import Fraction

from carpentry.language import TICKS_PER_INCH
from carpentry.lumber.family import NHLA, Family, Size, inch_ticks
from carpentry.lumber.section import Section

_SURFACED = (
    *((4, "13/16"), (5, "1 1/16"), (6, "1 5/16"), (8, "1 3/4")),
    *((10, "2 1/4"), (12, "2 3/4"), (16, "3 3/4")),
)


def _quarters() -> Iterator[Size]:
    """Rough and surfaced two sides; widths are random, so the section's width is 0."""
    for quarters, surfaced in _SURFACED:
        rough = Section(quarters * TICKS_PER_INCH // 4, 0)
        nominal = Fraction(quarters, 4)
        yield Size(f"{quarters}/4 rough", nominal, None, rough)
        yield Size(f"{quarters}/4 surfaced", nominal, None, Section(inch_ticks(surfaced), 0))


HARDWOOD = Family(
    "hardwood",
    NHLA,
    "Thickness in quarters of an inch, widths at random, sold by the board foot.",
    tuple(_quarters()),
)
