"""Rows of siding up a wall: each covers so much of the one below, the last is ripped to what is
left."""

import math
from dataclasses import dataclass
from fractions import Fraction

from carpentry.design.runs.asked import Side, Ticks, across, check_count, check_item
from carpentry.language import CarpentryError


@dataclass(frozen=True)
class Siding:
    """Rows as they lie: the lower edge of each, from the foot of the wall, and the widths that the
    first and the last one are ripped to."""

    rows: int
    exposure: Ticks
    places: tuple[Ticks, ...]
    first: Ticks
    last: Ticks
    is_shifted: bool

    def marks(self, width: Ticks, side: Side) -> list[Ticks]:
        """A mark for each row of boards of a ``width``: of its lower edge (near), its upper one or
        its middle, as it is ripped."""
        widths = [width] * self.rows
        widths[0], widths[-1] = self.first, self.last
        return [across(place, wide, side) for place, wide in zip(self.places, widths, strict=True)]


def exposure_of(width: Ticks, lap: Ticks, gap: Ticks) -> Ticks:
    """What a row shows: its width less what the next one covers, and the gap that is left for the
    wood to move. Common practice, no source.

    Raises ``CarpentryError`` where a row would show nothing.
    """
    if lap < 0 or gap < 0:
        raise CarpentryError("is not below 0", "lap" if lap < 0 else "gap")
    if lap >= width:
        raise CarpentryError("is as wide as the board, or wider: a row would show nothing", "lap")
    return width - lap + gap


def lay_rows(height: Ticks, width: Ticks, exposure: Ticks, least: Ticks) -> Siding:
    """As many rows as cover a height. The last is ripped to what is left; where that were narrower
    than ``least``, the first and the last are made equal.

    Raises ``CarpentryError`` at the field where that cannot be.
    """
    if exposure <= 0:
        raise CarpentryError("a row shows more than nothing", "exposure")
    check_item(min(width, height), height)
    if width >= height:
        return Siding(1, exposure, (Fraction(0),), height, height, False)
    rows = math.ceil((height - width) / exposure) + 1
    check_count(rows)
    last = height - (rows - 1) * exposure
    if last >= least:
        places = tuple(row * exposure for row in range(rows))
        return Siding(rows, exposure, places, min(width, height), last, False)
    covered = width - exposure  # what two rows have in common, below nothing where a gap is left
    equal = (height + covered - (rows - 2) * exposure) / 2
    if equal < least:
        raise CarpentryError(
            "no row of the first and the last is as wide as that, made equal or not", "least"
        )
    start = equal - covered
    places = (Fraction(0), *(start + row * exposure for row in range(rows - 1)))
    return Siding(rows, exposure, places, equal, equal, True)
