"""How a ripped board looks on its end: for every segment its strips and the saw lines, measured
from one edge and one face."""

from dataclasses import dataclass
from decimal import Decimal

from carpentry.cutting import Layout, PlacedPart
from carpentry.cutting.plan import Span
from carpentry.edges import SQUARE_EDGES, Edges, corners


@dataclass(frozen=True)
class RipStrip:
    """A strip: ``y`` across the width, ``z`` through the thickness (ticks), its parts, and its
    ``edges`` as it lies."""

    y: Span
    z: Span
    parts: tuple[str, ...]
    edges: Edges = SQUARE_EDGES

    @property
    def corners(self) -> tuple[int, int, int, int]:
        """Across the board (ticks): on the face left and right, on the back right and left."""
        return corners(*self.y, self.edges, self.z[1] - self.z[0])


@dataclass(frozen=True)
class RipLine:
    """A saw line along the board: how far from the marked edge on the ``face`` and on the ``back``
    (ticks), and the tilt of the blade from square."""

    face: int
    back: int
    tilt: Decimal = Decimal(0)


@dataclass(frozen=True)
class RipSegment:
    """A length of a board that is ripped in one way, from ``start`` to ``end`` (ticks).

    ``across`` are the far edges of strips from the marked edge, where the saw runs on their waste
    side, and bevels that no strip before them shares; ``through`` the far sides from the marked
    face.
    """

    start: int
    end: int
    strips: tuple[RipStrip, ...]
    across: tuple[RipLine, ...]
    through: tuple[int, ...]


def rip_segments(layout: Layout, thickness: int, width: int) -> list[RipSegment]:
    """The segments of a board that has a section (ticks), from its marked end."""
    segments: list[RipSegment] = []
    waiting = sorted(layout.parts, key=lambda p: (p.start, p.y or (0, 0), p.z or (0, 0)))
    while waiting:
        here: list[PlacedPart] = []
        end = 0
        while waiting and (not here or waiting[0].start < end):
            here.append(waiting.pop(0))
            end = max(end, here[-1].end)
        segment = _segment(here, thickness, width)
        if segments and _same_rips(segments[-1], segment):
            segments[-1] = _joined(segments[-1], segment)
        else:
            segments.append(segment)
    return segments


def _segment(placed: list[PlacedPart], thickness: int, width: int) -> RipSegment:
    found: dict[tuple[Span, Span, Edges], list[str]] = {}
    for part in placed:
        key = part.y or (0, width), part.z or (0, thickness), part.edges
        found.setdefault(key, []).append(part.part)
    strips = tuple(
        RipStrip(y, z, tuple(parts), edges)
        for (y, z, edges), parts in sorted(found.items(), key=lambda one: one[0][:2])
    )
    return RipSegment(
        start=min(part.start for part in placed),
        end=max(part.end for part in placed),
        strips=strips,
        across=tuple(_across(strips, width)),
        through=tuple(sorted({strip.z[1] for strip in strips if strip.z[1] < thickness})),
    )


def _across(strips: tuple[RipStrip, ...], width: int) -> list[RipLine]:
    lines: set[RipLine] = set()
    before: RipStrip | None = None
    for strip in sorted(strips, key=lambda one: one.y):
        face_left, face_right, back_right, back_left = strip.corners
        left, right = strip.edges
        shared = before is not None and left == before.edges[1].flipped and strip.y[0] < before.y[1]
        if left.degrees and not shared:
            lines.add(RipLine(face_left, back_left, abs(left.degrees)))
        if right.degrees or strip.y[1] < width:
            lines.add(RipLine(face_right, back_right, abs(right.degrees)))
        before = strip
    return sorted(lines, key=lambda line: (line.face, line.back))


def _same_rips(one: RipSegment, other: RipSegment) -> bool:
    return [(s.y, s.z, s.edges) for s in one.strips] == [(s.y, s.z, s.edges) for s in other.strips]


def _joined(one: RipSegment, other: RipSegment) -> RipSegment:
    strips = tuple(
        RipStrip(a.y, a.z, (*a.parts, *b.parts), a.edges)
        for a, b in zip(one.strips, other.strips, strict=True)
    )
    return RipSegment(one.start, other.end, strips, one.across, one.through)
