"""Angled ends: how they are written, how a length is measured over them, what the saw takes.

A board is seen from its face: an angle is from square, positive when the long point is on the top
edge, negative when it is on the bottom edge. A bevel runs through the thickness: positive when the
long point is on the face.
"""

import math
import re
from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum

from carpentry.errors import CarpentryError

STEEPEST = 75
_ANGLE = re.compile(r"([+-]?\d+(?:\.\d+)?)\s*°?\s*(b?)", re.IGNORECASE)


class Measured(StrEnum):
    """Where a length runs: between the outermost points, along the top edge (or the face),
    between the innermost points, or along the centre line."""

    LONG_LONG = "long-long"
    EDGE = "edge"
    SHORT_SHORT = "short-short"
    CENTRE = "centre"


@dataclass(frozen=True)
class EndAngle:
    """Degrees from square, and whether it is a bevel through the thickness."""

    degrees: Decimal = Decimal(0)
    bevel: bool = False

    def __str__(self) -> str:
        return f"{self.degrees:f}{'b' if self.bevel else ''}"

    def reach(self, thickness: int, width: int) -> int:
        """Ticks along the board between long and short point, rounded up: size × tan θ."""
        across = thickness if self.bevel else width
        return math.ceil(across * math.tan(math.radians(abs(self.degrees))) - 1e-6)

    def saw(self, kerf: int) -> int:
        """Ticks that a saw line takes along the board, rounded up: kerf ÷ cos θ."""
        return math.ceil(kerf / math.cos(math.radians(abs(self.degrees))) - 1e-6)

    @property
    def flipped(self) -> "EndAngle":
        """The same end with the board turned over."""
        return EndAngle(-self.degrees, self.bevel)


Ends = tuple[EndAngle, EndAngle]
SQUARE_ENDS: Ends = (EndAngle(), EndAngle())


def read_angle(text: str) -> EndAngle:
    """An angle as it is typed: ``20``, ``-20``, ``45b``. Raises ``CarpentryError``."""
    found = _ANGLE.fullmatch(text.strip())
    if not found:
        raise CarpentryError(f"“{text.strip()}” is no angle: write degrees such as 20, -20 or 45b")
    angle = EndAngle(Decimal(found[1]), bool(found[2]))
    if abs(angle.degrees) > STEEPEST:
        raise CarpentryError(f"an end angle is more than {STEEPEST}° from square: no saw cuts that")
    return angle


def is_angled(ends: Ends) -> bool:
    return any(end.degrees for end in ends)


def outermost(length: int, ends: Ends, measured: Measured, thickness: int, width: int) -> int:
    """The length between the outermost points of a part whose ``length`` is ``measured`` otherwise
    (all in ticks). Raises ``CarpentryError`` when the ends leave nothing of an edge."""
    reaches = [end.reach(thickness, width) for end in ends]
    if measured is Measured.EDGE:
        lost = sum(r for r, end in zip(reaches, ends, strict=True) if end.degrees < 0)
    elif measured is Measured.SHORT_SHORT:
        lost = sum(reaches)
    elif measured is Measured.CENTRE:
        lost = -(-sum(reaches) // 2)
    else:
        lost = 0
    whole = length + lost
    left, right = ends
    for edge in (1, -1):
        cut = [r for r, end in zip(reaches, (left, right), strict=True) if end.degrees * edge < 0]
        if whole - sum(cut) <= 0:
            raise CarpentryError("the ends meet: nothing is left of one edge")
    return whole


def turned(ends: Ends, left: EndAngle) -> Ends:
    """The ends with the part turned end for end, turned over, or both, so that ``left`` is its left
    end; as they are where that cannot be."""
    first, second = ends
    ways = (
        (first, second),
        (first.flipped, second.flipped),
        (second.flipped, first.flipped),
        (second, first),
    )
    return next((way for way in ways if way[0] == left), ends)


def outline(start: int, end: int, ends: Ends, thickness: int, width: int) -> tuple[int, ...]:
    """Where a part's corners lie along the board (ticks), as seen from its face (a bevel from its
    edge): top left, top right, bottom right, bottom left."""
    left, right = (one.reach(thickness, width) for one in ends)
    return (
        start + (left if ends[0].degrees < 0 else 0),
        end - (right if ends[1].degrees < 0 else 0),
        end - (right if ends[1].degrees > 0 else 0),
        start + (left if ends[0].degrees > 0 else 0),
    )
