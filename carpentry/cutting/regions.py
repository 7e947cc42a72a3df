"""Regions of a board while it is taken apart: between which planes a piece lies, and the room that
a part needs."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from carpentry.cutting.plan import PlacedPart, Span
from carpentry.design.ends import SQUARE, EndAngle

SLACK = 2  # ticks that slanted faces may be off by: their reach is rounded to whole ticks


@dataclass(frozen=True)
class Plane:
    """A side of a piece: ``at`` (ticks) on the edge or face nearest the marked one, and its angle
    as that of the right end of what lies below."""

    at: int
    angle: EndAngle = SQUARE

    def far(self, thickness: int, width: int) -> int:
        """Where it is on the other edge or face."""
        reach = self.angle.reach(thickness, width)
        return self.at - reach if self.angle.degrees > 0 else self.at + reach

    def is_like(self, other: "Plane") -> bool:
        slack = SLACK if self.angle.degrees else 0
        return self.angle == other.angle and abs(self.at - other.at) <= slack


Sides = tuple[Plane, Plane]


@dataclass(frozen=True)
class Region:
    """A piece that is still to be cut, between its sides along, across and through the board.
    ``free`` is the space along and across it that no slanted side reaches into; ``older`` are sides
    behind newer ones (axis, lower 0 or upper 1) that still bound it, as one of them is slanted."""

    number: int
    x: Sides
    y: Sides
    z: Sides
    free: tuple[Span, Span]
    older: tuple[tuple[str, int, Plane], ...] = ()

    def between(self, axis: str, sides: Sides, free: Span, number: int) -> "Region":
        """The piece that a cut on an axis leaves, with its new sides and free space there."""
        old: Sides = getattr(self, axis)
        older = tuple(
            (axis, which, side)
            for which, (side, new) in enumerate(zip(old, sides, strict=True))
            if side != new and (side.angle.degrees or new.angle.degrees)
        )
        kept = replace(self, number=number, older=(*self.older, *older))
        along, across = self.free
        if axis == "x":
            return replace(kept, x=sides, free=(free, across))
        if axis == "y":
            return replace(kept, y=sides, free=(along, free))
        return replace(kept, z=sides)

    def on_face(self, deeper: int) -> "Region":
        """The piece measured on a face so many ticks deeper."""

        def there(side: Plane) -> Plane:
            return Plane(side.far(deeper, 0), side.angle)

        low, high = self.y
        older = tuple((a, w, there(side) if a == "y" else side) for a, w, side in self.older)
        return replace(self, y=(there(low), there(high)), older=older)

    def every(self, axis: str, which: int) -> list[Plane]:
        """The lower (0) or upper (1) sides that bound it on an axis."""
        newest: Sides = getattr(self, axis)
        return [newest[which], *(s for a, w, s in self.older if (a, w) == (axis, which))]

    @property
    def high(self) -> int:
        return self.z[1].at - self.z[0].at

    @property
    def wide(self) -> int:
        """Ticks across, between its outermost points."""
        low = min(self.y[0].at, self.y[0].far(self.high, 0))
        return max(self.y[1].at, self.y[1].far(self.high, 0)) - low


@dataclass(frozen=True)
class Box:
    """A part as it lies: its sides, and how far along the board its saw lines reach."""

    placed: PlacedPart
    x: Sides
    y: Sides
    z: Sides
    along: Span

    def outermost(self, which: int) -> int:
        """Its outermost point across the board, on the left (0) or right (1)."""
        side = self.y[which]
        ends = side.at, side.far(self.z[1].at - self.z[0].at, 0)
        return max(ends) if which else min(ends)

    @property
    def middle(self) -> Span:
        """Across the board, half-way through."""
        high = self.z[1].at - self.z[0].at
        low, top = ((side.at + side.far(high, 0)) // 2 for side in self.y)
        return low, top


def sides_of(span: Span, ends: tuple[EndAngle, EndAngle], thickness: int, width: int) -> Sides:
    """The sides of a part between its outermost points."""
    left, right = ends
    low = span[0] + (left.reach(thickness, width) if left.degrees < 0 else 0)
    high = span[1] - (right.reach(thickness, width) if right.degrees < 0 else 0)
    return Plane(low, left.flipped), Plane(high, right)


def is_beyond(uppers: Sequence[Plane], lowers: Sequence[Plane], across: Span) -> bool:
    """Whether there is wood between sides, on one edge or face or the other."""
    slack = SLACK if any(side.angle.degrees for side in (*uppers, *lowers)) else 0
    near = min(side.at for side in uppers) - max(side.at for side in lowers)
    far = min(s.far(*across) for s in uppers) - max(s.far(*across) for s in lowers)
    return max(near, far) > slack


def fills(box: Box, region: Region) -> bool:
    """Whether a piece has the section of a part, where the part lies."""
    alike = all(one.is_like(other) for one, other in zip(box.y, region.y, strict=True))
    return alike and box.z == region.z


def touches(box: Box, which: int, angle: EndAngle, face: int) -> int:
    """Where a rip at an angle meets a face (ticks from the marked one) when it just touches the
    left (0) or right (1) side of a part."""
    low, high = box.z[0].at, box.z[1].at
    sign = 1 if angle.degrees > 0 else -1
    side = box.y[which]
    near = side.at + sign * angle.reach(low - face, 0)
    far = side.far(high - low, 0) + sign * angle.reach(high - face, 0)
    return max(near, far) if which else min(near, far)


def strips_of(boxes: list[Box]) -> set[tuple[Sides, Sides]]:
    return {(box.y, box.z) for box in boxes}


def groups_apart(boxes: list[Box], kerf: int) -> Iterator[list[Box]]:
    """Parts that no square crosscut takes apart, from the marked end."""
    group: list[Box] = []
    end = 0
    for box in sorted(boxes, key=lambda one: one.along):
        if group and box.along[0] >= end + kerf:
            yield group
            group = []
        group.append(box)
        end = max(end, box.along[1]) if len(group) > 1 else box.along[1]
    if group:
        yield group
