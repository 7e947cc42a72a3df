"""How a ripped board looks on its end: for every length of it that is ripped in one way, its
strips and the saw lines that part them."""

from collections.abc import Sequence
from dataclasses import dataclass

from carpentry.cutting import Layout, PlacedPart, Saw
from carpentry.cutting.plan import Span
from carpentry.design.edges import SQUARE_EDGES, Edges, corners
from carpentry.lumber import Section
from carpentry.project.cut_lines import CutLine


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
class RipSegment:
    """A length of a board that is ripped in one way, from ``start`` to ``end`` (ticks), and the
    rips and resaws that go through it."""

    start: int
    end: int
    strips: tuple[RipStrip, ...]
    lines: tuple[CutLine, ...]


def rip_segments(layout: Layout, section: Section, lines: Sequence[CutLine]) -> list[RipSegment]:
    """The segments of a board that has a section and is cut along ``lines``, from its marked
    end."""
    segments: list[RipSegment] = []
    waiting = sorted(layout.parts, key=lambda p: (p.start, p.y or (0, 0), p.z or (0, 0)))
    while waiting:
        here: list[PlacedPart] = []
        end = 0
        while waiting and (not here or waiting[0].start < end):
            here.append(waiting.pop(0))
            end = max(end, here[-1].end)
        segment = _segment(here, section, lines)
        if segments and _same_rips(segments[-1], segment):
            segments[-1] = _joined(segments[-1], segment)
        else:
            segments.append(segment)
    return segments


def _segment(placed: list[PlacedPart], section: Section, lines: Sequence[CutLine]) -> RipSegment:
    found: dict[tuple[Span, Span, Edges], list[str]] = {}
    for part in placed:
        key = part.y or (0, section.width), part.z or (0, section.thickness), part.edges
        found.setdefault(key, []).append(part.part)
    strips = tuple(
        RipStrip(y, z, tuple(parts), edges)
        for (y, z, edges), parts in sorted(found.items(), key=lambda one: one[0][:2])
    )
    start, end = min(part.start for part in placed), max(part.end for part in placed)
    mine = (
        line
        for line in lines
        if line.saw is not Saw.CROSSCUT and line.along[0] < end and line.along[1] > start
    )
    return RipSegment(start, end, strips, tuple(mine))


def _same_rips(one: RipSegment, other: RipSegment) -> bool:
    alike = [(s.y, s.z, s.edges) for s in one.strips] == [(s.y, s.z, s.edges) for s in other.strips]
    return alike and one.lines == other.lines


def _joined(one: RipSegment, other: RipSegment) -> RipSegment:
    strips = tuple(
        RipStrip(a.y, a.z, (*a.parts, *b.parts), a.edges)
        for a, b in zip(one.strips, other.strips, strict=True)
    )
    return RipSegment(one.start, other.end, strips, one.lines)
