"""Angled ends: how they are written, how a length is measured over them, what the saw takes.

A board is seen from its face: an angle is from square, positive when the long point is on the top
edge, negative when it is on the bottom edge. A bevel runs through the thickness: positive when the
long point is on the face.
"""

import math
import re
from dataclasses import dataclass, replace
from decimal import Decimal
from enum import StrEnum

from carpentry.language import CarpentryError, Length, Unit, read_length, spelled_out

STEEPEST = 75
_DEGREES = r"[+-]?\d+(?:\.\d+)?"
_ANGLE = re.compile(rf"({_DEGREES})\s*°?\s*(b?)", re.IGNORECASE)
_TILTED = re.compile(rf"({_DEGREES})\s*°?\s*tilt\s*({_DEGREES})\s*°?", re.IGNORECASE)
_CLIPPED = re.compile(rf"({_DEGREES})\s*°?\s*stub\s+(.+)", re.IGNORECASE)
_POINTED = re.compile(rf"point\s+({_DEGREES})\s*°?(?:\s*/\s*({_DEGREES})\s*°?)?", re.IGNORECASE)


class Measured(StrEnum):
    """Where a length runs: between the outermost points, along the top edge (or the face),
    between the innermost points, or along the centre line."""

    LONG_LONG = "long-long"
    EDGE = "edge"
    SHORT_SHORT = "short-short"
    CENTRE = "centre"


@dataclass(frozen=True)
class EndAngle:
    """Degrees from square, and whether it is a bevel through the thickness. Some ends take more
    than one straight cut of a saw that stands square: at a miter with the blade at a ``tilt``, too,
    positive where the face is the longer; clipped, so that a ``stub`` of the width stays square at
    the long point; or pointed by two cuts that meet, the other of them at ``point`` degrees from
    the bottom edge."""

    degrees: Decimal = Decimal(0)
    bevel: bool = False
    tilt: Decimal = Decimal(0)
    stub: Length | None = None
    point: Decimal | None = None

    def __str__(self) -> str:
        if self.point is not None:
            both = "" if self.point == self.degrees else f"/{self.point:f}"
            return f"point {self.degrees:f}{both}"
        if self.stub is not None:
            return f"{self.degrees:f} stub {self.stub.text}"
        tilt = f" tilt {self.tilt:f}" if self.tilt else ""
        return f"{self.degrees:f}{'b' if self.bevel else ''}{tilt}"

    @property
    def is_shaped(self) -> bool:
        """Whether it takes more than one cut, or one with the blade tilted at a miter: it is cut
        from a piece with a square end."""
        return bool(self.tilt) or self.stub is not None or self.point is not None

    def reach(self, thickness: int, width: int) -> int:
        """Ticks along the board between its outermost and its innermost point, rounded up."""
        if not self.degrees and not self.is_shaped:
            return 0
        if self.point is None and self.stub is None and not self.tilt:
            across = thickness if self.bevel else width
            return math.ceil(across * self._steep - 1e-6)
        corners = [(v, w) for v in (0.0, 0.5, 1.0) for w in (0.0, 1.0)]
        return math.ceil(max(self.lost(v, w, thickness, width) for v, w in corners) - 1e-6)

    @property
    def _steep(self) -> float:
        return math.tan(math.radians(abs(self.degrees)))

    def lost(self, up: float, out: float, thickness: float, width: float) -> float:
        """How far inside its outermost point it lies (ticks), at a share ``up`` of the width from
        the bottom edge and ``out`` of the thickness from the back. Plane geometry: a blade that is
        tilted at a miter goes through the thickness by tan of the tilt ÷ cos of the miter."""
        if self.point is not None:
            below = math.tan(math.radians(self.point))
            low = width * self._steep / (self._steep + below)
            at = up * width
            return (at - low) * self._steep if at > low else (low - at) * below
        from_long = 1 - up if self.degrees > 0 else up
        if self.stub is not None:
            return max(0.0, from_long * width - self.stub.ticks) * self._steep
        through = 1 - out if (self.degrees if self.bevel else self.tilt) > 0 else out
        if self.bevel:
            return through * thickness * self._steep
        tilt = math.tan(math.radians(abs(self.tilt))) / math.cos(math.radians(self.degrees))
        return from_long * width * self._steep + through * thickness * tilt

    def saw(self, kerf: int) -> int:
        """Ticks that a saw line takes along the board, rounded up: kerf ÷ cos θ."""
        if not self.degrees:
            return kerf
        return math.ceil(kerf / math.cos(math.radians(abs(self.degrees))) - 1e-6)

    @property
    def flipped(self) -> "EndAngle":
        """The same end with the board rolled over about its length."""
        if self.point is not None:
            return replace(self, degrees=self.point, point=self.degrees)
        return replace(self, degrees=-self.degrees, tilt=-self.tilt) if self.degrees else self

    @property
    def turned_flat(self) -> "EndAngle":
        """The same end with the board turned end for end on its face."""
        return self if self.bevel else replace(self.flipped, tilt=self.tilt)

    @property
    def turned_over(self) -> "EndAngle":
        """The same end with the board turned end for end and over."""
        return self.flipped if self.bevel else replace(self, tilt=-self.tilt)

    @property
    def long_point(self) -> str:
        """Where its long point is: top or bottom edge, face or back; empty for a square end."""
        if not self.degrees or self.point is not None:
            return ""
        return ("back", "face", "bottom", "top")[2 * (not self.bevel) + (self.degrees > 0)]

    @property
    def words(self) -> str:
        """Its size in words, without its direction."""
        if self.point is not None:
            return f"pointed by {self.degrees:f}° and {self.point:f}°"
        if not self.degrees:
            return "square"
        if self.stub is not None:
            return f"clipped at {abs(self.degrees):f}°, a stub of {self.stub.text} left"
        longer = "face" if self.tilt > 0 else "back"
        tilt = f", blade tilted {abs(self.tilt):f}°, longer on the {longer}" if self.tilt else ""
        return f"{abs(self.degrees):f}°{' bevel' if self.bevel else ''}{tilt}"


Ends = tuple[EndAngle, EndAngle]
SQUARE = EndAngle()
SQUARE_ENDS: Ends = (SQUARE, SQUARE)


def read_angle(text: str) -> EndAngle:
    """An angle as it is typed: ``20``, ``-20``, ``45b``. Raises ``CarpentryError``."""
    found = _ANGLE.fullmatch(text.strip())
    if not found:
        raise CarpentryError(f"“{text.strip()}” is no angle: write degrees such as 20, -20 or 45b")
    degrees = _degrees(found[1])
    return EndAngle(degrees, bool(found[2])) if degrees else EndAngle()


def _degrees(text: str) -> Decimal:
    degrees = Decimal(text)
    if abs(degrees) > STEEPEST:
        raise CarpentryError(f"an end angle is more than {STEEPEST}° from square: no saw cuts that")
    return degrees


def read_end(text: str, unit: Unit) -> EndAngle:
    """An end as it is typed: an angle, ``31.6 tilt 18.4``, ``45 stub 3/8``, ``point 45`` or
    ``point 30/60``. Raises ``CarpentryError``."""
    typed = text.strip()
    if found := _TILTED.fullmatch(typed):
        miter, tilt = map(_degrees, found.groups())
        return EndAngle(miter, tilt=tilt) if miter else EndAngle(tilt, bool(tilt))
    if found := _CLIPPED.fullmatch(typed):
        degrees, stub = _degrees(found[1]), read_length(found[2], unit)
        if not degrees:
            raise CarpentryError("a square end leaves no stub")
        return EndAngle(degrees, stub=stub) if stub.ticks else EndAngle(degrees)
    if found := _POINTED.fullmatch(typed):
        above = _degrees(found[1])
        below = _degrees(found[2]) if found[2] else above
        if above <= 0 or below <= 0:
            raise CarpentryError("a point is made by two angles above 0")
        return EndAngle(above, point=below)
    return read_angle(typed)


def says_shape(text: str) -> bool:
    """Whether typed ends say one that takes more than one plain cut; in a formula for them, where
    any word may be a name, a semicolon stands between a miter and its tilt."""
    if text.lstrip().startswith("="):
        return ";" in text
    return any(word in text.lower() for word in ("tilt", "stub", "point"))


def read_ends(text: str, unit: Unit = Unit.INCH) -> Ends:
    """Left and right end as they are typed: ``20 -20``, or with a comma between them, ``45 stub
    3/8, 0``; square where nothing is typed. Bare lengths are in ``unit``. Raises
    ``CarpentryError``."""
    if not text.strip():
        return SQUARE_ENDS
    if says_shape(text):
        words = text.split(",")
        if len(words) != 2:
            raise CarpentryError("write both ends with a comma between them: 45 stub 3/8, 0")
        return read_end(words[0], unit), read_end(words[1], unit)
    left, right = map(read_angle, pair_of_angles(text, "20 -20"))
    return left, right


def ends_spelled_out(text: str, unit: Unit) -> str:
    """Ends as they are typed with the unit of every stub, so that they mean the same in another
    unit. Raises ``CarpentryError``."""
    return ", ".join(
        f"{end.degrees:f} stub {spelled_out(end.stub.ticks, unit)}" if end.stub else str(end)
        for end in read_ends(text, unit)
    )


def pair_of_angles(text: str, example: str) -> tuple[str, str]:
    """The words for left and right. Raises ``CarpentryError`` unless they are two."""
    words = re.split(r"[\s,/]+", text.strip())
    if len(words) != 2:
        raise CarpentryError(f"“{text.strip()}” is no pair of angles: write two, such as {example}")
    return words[0], words[1]


def is_angled(ends: Ends) -> bool:
    return any(end.degrees for end in ends)


def is_shaped(ends: Ends) -> bool:
    """Whether an end takes more than one cut, or a tilted one at a miter."""
    return any(end.is_shaped for end in ends)


def _over_all(length: int, ends: Ends, measured: Measured, thickness: int, width: int) -> int:
    """Between the outermost points: the length with what each end lies inside where it is
    measured."""
    if measured is Measured.LONG_LONG:
        return length
    reaches = [end.reach(thickness, width) for end in ends]
    if measured is Measured.SHORT_SHORT:
        return length + sum(reaches)
    if is_shaped(ends):
        at = (1.0, 1.0) if measured is Measured.EDGE else (0.5, 0.5)
        return length + math.ceil(sum(end.lost(*at, thickness, width) for end in ends) - 1e-6)
    if measured is Measured.EDGE:
        return length + sum(r for r, end in zip(reaches, ends, strict=True) if end.degrees < 0)
    return length - (-sum(reaches) // 2)


def centre_length(length: int, ends: Ends, measured: Measured, thickness: int, width: int) -> int:
    """The length along the centre line (all in ticks), rounded down: a part's volume goes by it.
    Nothing where the ends leave nothing."""
    whole = _over_all(length, ends, measured, thickness, width)
    if is_shaped(ends):
        return max(0, math.floor(whole - sum(_mean_lost(end, thickness, width) for end in ends)))
    reaches = [end.reach(thickness, width) for end in ends]
    return max(0, whole - sum(reaches) // 2)


def _mean_lost(end: EndAngle, thickness: int, width: int) -> float:
    """What an end takes off the volume, as a length: the mean over the width, which it takes in
    straight lines."""
    shares = [n / 64 for n in range(65)]
    found = [end.lost(up, 0.5, thickness, width) for up in shares]
    return (sum(found) - (found[0] + found[-1]) / 2) / 64


def faces(over_all: int, ends: Ends, thickness: int, width: int) -> dict[Measured, int]:
    """The length of a part that is so long between its outermost points, in every way in which it
    can be measured (all in ticks): those that its ends leave."""
    lengths = {way: over_all - _over_all(0, ends, way, thickness, width) for way in Measured}
    return {way: length for way, length in lengths.items() if length > 0}


def outermost(length: int, ends: Ends, measured: Measured, thickness: int, width: int) -> int:
    """The length between the outermost points of a part whose ``length`` is ``measured`` otherwise
    (all in ticks). Raises ``CarpentryError`` when the ends leave nothing of an edge."""
    for end in ends:
        if end.stub is not None and end.stub.ticks >= width:
            raise CarpentryError("a stub is as wide as the part, or wider")
    whole = _over_all(length, ends, measured, thickness, width)
    for up, out in ((0.0, 0.0), (0.0, 1.0), (1.0, 0.0), (1.0, 1.0)):
        if whole - sum(end.lost(up, out, thickness, width) for end in ends) <= 1e-6:
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
    return (
        ends,
        (first.flipped, second.flipped),
        (second.turned_flat, first.turned_flat),
        (second.turned_over, first.turned_over),
    )


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


def ends_seen(over_all: int, ends: Ends, thickness: int, width: int) -> list[tuple[float, float]]:
    """The corners of a part as it is seen from its face (ticks, from the left end and the bottom
    edge), from the bottom left one against the clock; bevels at their full length."""
    left, right = (
        [
            (end.lost(up, _long_side(end), thickness, width), up * width)
            for up in _breaks(end, width)
        ]
        for end in ends
    )
    return [(over_all - lost, up) for lost, up in right] + [*reversed(left)]


def _long_side(end: EndAngle) -> float:
    """The share of the thickness at which it reaches furthest."""
    return 1.0 if (end.degrees if end.bevel else end.tilt) > 0 else 0.0


def _breaks(end: EndAngle, width: int) -> list[float]:
    """The shares of the width at which an end changes its direction, from the bottom edge up."""
    if end.stub is not None:
        share = min(1.0, end.stub.ticks / width)
        return [0.0, 1 - share if end.degrees > 0 else share, 1.0]
    if end.point is not None:
        steep, below = (math.tan(math.radians(one)) for one in (end.degrees, end.point))
        return [0.0, steep / (steep + below), 1.0]
    return [0.0, 1.0]


def bevel_lines(start: int, end: int, ends: Ends, thickness: int) -> list[int]:
    """Where the short points of bevelled ends lie along the board (ticks)."""
    left, right = ends
    lines = [start + left.reach(thickness, 0)] if left.bevel else []
    return lines + ([end - right.reach(thickness, 0)] if right.bevel else [])
