"""Parts that are more than a board with two cut ends: notched, or of an odd shape.

A part is seen from its face, lengths are from its left end and heights from its bottom edge. It is
cut from a square-ended piece of its length and width; what is taken off it afterwards is waste.
"""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from carpentry.language import (
    CarpentryError,
    Length,
    LengthError,
    Unit,
    read_length,
    spelled_out,
)

MOST_CORNERS = 40
_NOTCH = re.compile(
    r"(?:notch\s+)?(?P<deep>[^x×]+?)\s*[x×]\s*(?P<long>.+?)\s+at\s+(?P<edge>top|bottom)"
    r"(?:\s+(?P<end>left|right)|\s*,?\s+(?P<off>.+?)\s+from\s+(?P<side>left|right))",
    re.IGNORECASE,
)
Corner = tuple[int, int]
Loop = list[tuple[float, float]]


@dataclass(frozen=True)
class Notch:
    """A square notch: so ``deep`` into the top or the bottom edge, so ``long`` along it, ``off``
    from the left or the right end, where nothing is left between."""

    deep: Length
    long: Length
    top: bool
    right: bool
    off: Length | None

    @property
    def words(self) -> str:
        """Where it is and how it is cut."""
        edge, end = ("top" if self.top else "bottom"), ("right" if self.right else "left")
        size = f"notch {self.deep.text} deep, {self.long.text} long, {edge} edge"
        if self.off is None:
            return f"{size} at the {end} end: two stopped cuts, finished by hand"
        cuts = "two stopped cuts and one along, finished by hand"
        return f"{size}, {self.off.text} from the {end} end: {cuts}"

    def spelled_out(self, unit: Unit) -> str:
        """It as typed, every figure with its unit."""
        deep, long = (spelled_out(one.ticks, unit) for one in (self.deep, self.long))
        edge, end = ("top" if self.top else "bottom"), ("right" if self.right else "left")
        if self.off is None:
            return f"{deep} x {long} at {edge} {end}"
        return f"{deep} x {long} at {edge}, {spelled_out(self.off.ticks, unit)} from {end}"

    def span(self, length: int) -> tuple[int, int]:
        """From where to where it is, from the left end of a part that is so long."""
        off = self.off.ticks if self.off else 0
        start = length - off - self.long.ticks if self.right else off
        return start, start + self.long.ticks


def read_notches(text: str, unit: Unit) -> tuple[Notch, ...]:
    """Notches as typed, a semicolon between two: ``1 1/8 x 2 at top right; 1 x 3 at bottom, 12 from
    left``. Raises ``CarpentryError``."""
    return tuple(_notch(one.strip(), unit) for one in text.split(";") if one.strip())


def _notch(text: str, unit: Unit) -> Notch:
    found = _NOTCH.fullmatch(text)
    if not found:
        raise CarpentryError(
            f"“{text[:60]}” is no notch: write 1 1/8 x 2 at top right, or at top, 12 from left"
        )
    deep, long = (_above_nothing(found[name], unit) for name in ("deep", "long"))
    right = (found["end"] or found["side"]).lower() == "right"
    off = read_length(found["off"], unit) if found["off"] else None
    top = found["edge"].lower() == "top"
    return Notch(deep, long, top, right, off if off and off.ticks else None)


def _above_nothing(text: str, unit: Unit) -> Length:
    length = read_length(text, unit)
    if not length.ticks:
        raise CarpentryError("a notch takes more than nothing")
    return length


def check_notches(notches: Sequence[Notch], length: int, width: int) -> None:
    """Raises ``CarpentryError`` where notches are larger than their part, or are in one place."""
    for one in notches:
        start, end = one.span(length)
        if one.deep.ticks >= width:
            raise CarpentryError("a notch is as deep as the part is wide, or deeper")
        if start < 0 or end > length or one.long.ticks >= length:
            raise CarpentryError("a notch is longer than its part, or lies beyond its end")
    for n, one in enumerate(notches):
        for other in notches[n + 1 :]:
            (a, b), (c, d) = one.span(length), other.span(length)
            if (
                a < d
                and c < b
                and (one.top == other.top or one.deep.ticks + other.deep.ticks >= width)
            ):
                raise CarpentryError("two notches are in one place")


def notched(length: int, width: int, notches: Sequence[Notch]) -> Loop:
    """The corners of a square-ended part with its notches, from the bottom left one against the
    clock."""
    bottom, top = _side(length, notches, top=False), _side(length, notches, top=True)
    found: Loop = [(u, float(deep)) for u, deep in bottom]
    found += [(u, float(width - deep)) for u, deep in reversed(top)]
    return found


def _side(length: int, notches: Sequence[Notch], *, top: bool) -> list[tuple[float, int]]:
    """How deep an edge is notched along it: a pair of corners wherever that changes."""
    mine = sorted((one.span(length), one.deep.ticks) for one in notches if one.top == top)
    found: list[tuple[float, int]] = [] if mine and mine[0][0][0] == 0 else [(0.0, 0)]
    for (start, end), deep in mine:
        if start:
            found.append((float(start), 0))
        found += [(float(start), deep), (float(end), deep)]
        if end < length:
            found.append((float(end), 0))
    if not mine or mine[-1][0][1] < length:
        found.append((float(length), 0))
    return found


def read_outline(text: str, unit: Unit) -> tuple[Corner, ...]:
    """The corners of an odd shape in their order, each from the left end and from the bottom edge,
    a comma between two: ``0 0, 30 0, 30 5, 24 9 1/4, 0 9 1/4``. Figures with a fraction are written
    ``9-1/4`` or ``9.25`` there. Raises ``CarpentryError``."""
    if not text.strip():
        return ()
    corners = tuple(_corner(one, unit) for one in text.split(","))
    if not 3 <= len(corners) <= MOST_CORNERS:
        raise CarpentryError(f"an outline has 3 to {MOST_CORNERS} corners")
    if len(set(corners)) < len(corners):
        raise CarpentryError("an outline has a corner twice")
    sides = list(zip(corners, (*corners[1:], corners[0]), strict=True))
    for n, one in enumerate(sides):
        for m, other in enumerate(sides[n + 1 :], start=n + 1):
            if m - n not in {1, len(sides) - 1} and _cross(*one, *other):
                raise CarpentryError("two sides of the outline cross")
    return corners


def _corner(text: str, unit: Unit) -> Corner:
    words = text.split()
    for n in range(1, len(words)):
        try:
            along, up = (read_length(" ".join(part), unit) for part in (words[:n], words[n:]))
        except LengthError:
            continue
        return along.ticks, up.ticks
    raise CarpentryError(f"“{text.strip()[:40]}” is no corner: write two figures, such as 24 9.25")


def _cross(a: Corner, b: Corner, c: Corner, d: Corner) -> bool:
    def side(p: Corner, q: Corner, r: Corner) -> int:
        turn = (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])
        return (turn > 0) - (turn < 0)

    return side(a, b, c) != side(a, b, d) and side(c, d, a) != side(c, d, b)


def check_outline(corners: Sequence[Corner], length: int, width: int) -> None:
    """Raises ``CarpentryError`` unless an outline reaches over all of its part, and no further."""
    along, up = [u for u, _ in corners], [v for _, v in corners]
    if (min(along), max(along)) != (0, length):
        raise CarpentryError("the outline does not reach from end to end of the part")
    if (min(up), max(up)) != (0, width):
        raise CarpentryError("the outline does not reach from edge to edge of the part")


def area_of(corners: Sequence[tuple[float, float]]) -> float:
    """What corners enclose (the shoelace formula)."""
    pairs = zip(corners, (*corners[1:], corners[0]), strict=True)
    return abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in pairs)) / 2


def cuts_told(corners: Sequence[Corner]) -> Iterator[str]:
    """Which sides of an outline are stopped: those that meet at an inner corner."""
    turns = [
        _turn(corners[n - 1], one, corners[(n + 1) % len(corners)]) for n, one in enumerate(corners)
    ]
    around = 1 if sum(t > 0 for t in turns) >= sum(t < 0 for t in turns) else -1
    inner = sum(turn * around < 0 for turn in turns)
    yield f"{len(corners)} straight sides, marked from the left end and the bottom edge"
    if inner:
        corner = "corner" if inner == 1 else "corners"
        yield f"{inner} inner {corner}: the cuts stop there, finished by hand"


def _turn(a: Corner, b: Corner, c: Corner) -> int:
    return (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0])
