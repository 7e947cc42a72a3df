"""Angled ends: how they are written, how a length is measured over them, what the saw takes.

A board is seen from its face: an angle is from square, positive when the long point is on the top
edge, negative when it is on the bottom edge. A bevel runs through the thickness: positive when the
long point is on the face.
"""

import math
import re
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum

from carpentry.language import CarpentryError

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
        if not self.degrees:
            return 0
        across = thickness if self.bevel else width
        return math.ceil(across * math.tan(math.radians(abs(self.degrees))) - 1e-6)

    def saw(self, kerf: int) -> int:
        """Ticks that a saw line takes along the board, rounded up: kerf ÷ cos θ."""
        if not self.degrees:
            return kerf
        return math.ceil(kerf / math.cos(math.radians(abs(self.degrees))) - 1e-6)

    @property
    def flipped(self) -> "EndAngle":
        """The same end with the board rolled over about its length."""
        return EndAngle(-self.degrees, self.bevel) if self.degrees else self

    @property
    def long_point(self) -> str:
        """Where its long point is: top or bottom edge, face or back; empty for a square end."""
        if not self.degrees:
            return ""
        return ("back", "face", "bottom", "top")[2 * (not self.bevel) + (self.degrees > 0)]

    @property
    def words(self) -> str:
        """Its size in words, without its direction."""
        if not self.degrees:
            return "square"
        return f"{abs(self.degrees):f}°{' bevel' if self.bevel else ''}"


Ends = tuple[EndAngle, EndAngle]
SQUARE = EndAngle()
SQUARE_ENDS: Ends = (SQUARE, SQUARE)


def read_angle(text: str) -> EndAngle:
    """An angle as it is typed: ``20``, ``-20``, ``45b``. Raises ``CarpentryError``."""
    found = _ANGLE.fullmatch(text.strip())
    if not found:
        raise CarpentryError(f"“{text.strip()}” is no angle: write degrees such as 20, -20 or 45b")
    degrees = Decimal(found[1])
    angle = EndAngle(degrees, bool(found[2])) if degrees else EndAngle()
    if abs(angle.degrees) > STEEPEST:
        raise CarpentryError(f"an end angle is more than {STEEPEST}° from square: no saw cuts that")
    return angle


def read_ends(text: str) -> Ends:
    """Left and right end as they are typed: ``20 -20``; square where nothing is typed. Raises
    ``CarpentryError``."""
    if not text.strip():
        return SQUARE_ENDS
    left, right = map(read_angle, pair_of_angles(text, "20 -20"))
    return left, right


def pair_of_angles(text: str, example: str) -> tuple[str, str]:
    """The words for left and right. Raises ``CarpentryError`` unless they are two."""
    words = re.split(r"[\s,/]+", text.strip())
    if len(words) != 2:
        raise CarpentryError(f"“{text.strip()}” is no pair of angles: write two, such as {example}")
    return words[0], words[1]


def is_angled(ends: Ends) -> bool:
    return any(end.degrees for end in ends)


def _over_all(length: int, ends: Ends, measured: Measured, reaches: Sequence[int]) -> int:
    if measured is Measured.EDGE:
        lost = sum(r for r, end in zip(reaches, ends, strict=True) if end.degrees < 0)
    elif measured is Measured.SHORT_SHORT:
        lost = sum(reaches)
    elif measured is Measured.CENTRE:
        lost = -(-sum(reaches) // 2)
    else:
        lost = 0
    return length + lost


def centre_length(length: int, ends: Ends, measured: Measured, thickness: int, width: int) -> int:
    """The length along the centre line (all in ticks), rounded down: a part's volume goes by it.
    Nothing where the ends leave nothing."""
    reaches = [end.reach(thickness, width) for end in ends]
    return max(0, _over_all(length, ends, measured, reaches) - sum(reaches) // 2)


def faces(over_all: int, ends: Ends, thickness: int, width: int) -> dict[Measured, int]:
    """The length of a part that is so long between its outermost points, in every way in which it
    can be measured (all in ticks): those that its ends leave."""
    reaches = [end.reach(thickness, width) for end in ends]
    lengths = {way: over_all - _over_all(0, ends, way, reaches) for way in Measured}
    return {way: length for way, length in lengths.items() if length > 0}


def outermost(length: int, ends: Ends, measured: Measured, thickness: int, width: int) -> int:
    """The length between the outermost points of a part whose ``length`` is ``measured`` otherwise
    (all in ticks). Raises ``CarpentryError`` when the ends leave nothing of an edge."""
    reaches = [end.reach(thickness, width) for end in ends]
    whole = _over_all(length, ends, measured, reaches)
    left, right = ends
    for edge in (1, -1):
        cut = [r for r, end in zip(reaches, (left, right), strict=True) if end.degrees * edge < 0]
        if whole - sum(cut) <= 0:
            raise CarpentryError("the ends meet: nothing is left of one edge")
    return whole


def turned(ends: Ends, left: EndAngle) -> Ends:
    """The ends with the part turned end for end, turned over, or both, so that ``left`` is its left
    end; as they are where that cannot be."""
    return next((way for way in ways_to_lie(ends) if way[0] == left), ends)


def ways_to_lie(ends: Ends) -> tuple[Ends, Ends, Ends, Ends]:
    """The ends as they are, rolled over about the length, turned end for end on the face, and
    turned end for end and over. A mirror image is another part."""
    first, second = ends
    flat = [end if end.bevel else end.flipped for end in (second, first)]
    over = [end.flipped if end.bevel else end for end in (second, first)]
    return ends, (first.flipped, second.flipped), (flat[0], flat[1]), (over[0], over[1])


def mirrored(ends: Ends) -> Ends:
    """The ends of the other part of a left and right pair: end for end, seen in a mirror."""
    return ends[1], ends[0]


def told(ends: Ends) -> str:
    """Both ends in words, such as "both 20°, mirrored" for a trapezoid."""
    left, right = ends
    if left == right:
        return f"both {left.words}, mirrored" if left.degrees else "both square"
    if left == right.flipped:
        return f"both {left.words}, parallel"
    return f"left {left.words}, right {right.words}"


def outline(start: int, end: int, ends: Ends, thickness: int, width: int) -> tuple[int, ...]:
    """Where the corners of a part lie along the board (ticks), seen from its face with bevels at
    their full length: top left, top right, bottom right, bottom left."""
    left, right = (0 if one.bevel else one.reach(thickness, width) for one in ends)
    return (
        start + (left if ends[0].degrees < 0 else 0),
        end - (right if ends[1].degrees < 0 else 0),
        end - (right if ends[1].degrees > 0 else 0),
        start + (left if ends[0].degrees > 0 else 0),
    )


def bevel_lines(start: int, end: int, ends: Ends, thickness: int) -> list[int]:
    """Where the short points of bevelled ends lie along the board (ticks)."""
    left, right = ends
    lines = [start + left.reach(thickness, 0)] if left.bevel else []
    return lines + ([end - right.reach(thickness, 0)] if right.bevel else [])
