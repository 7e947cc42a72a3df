"""How a ripped board looks on its end: for every segment its strips and the saw lines, measured
from one edge and one face."""

from dataclasses import dataclass

from carpentry.cutting import Layout, PlacedPart
from carpentry.cutting.plan import Span


@dataclass(frozen=True)
class RipStrip:
    """A strip: ``y`` across the width, ``z`` through the thickness (ticks), and its parts."""

    y: Span
    z: Span
    parts: tuple[str, ...]


@dataclass(frozen=True)
class RipSegment:
    """A length of a board that is ripped in one way, from ``start`` to ``end`` (ticks).

    ``across`` are the far edges of strips from the marked edge, where the saw runs on their waste
    side; ``through`` the same from the marked face.
    """

    start: int
    end: int
    strips: tuple[RipStrip, ...]
    across: tuple[int, ...]
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
    strips: dict[tuple[Span, Span], list[str]] = {}
    for part in placed:
        key = part.y or (0, width), part.z or (0, thickness)
        strips.setdefault(key, []).append(part.part)
    return RipSegment(
        start=min(part.start for part in placed),
        end=max(part.end for part in placed),
        strips=tuple(RipStrip(y, z, tuple(parts)) for (y, z), parts in sorted(strips.items())),
        across=tuple(sorted({y[1] for y, _ in strips if y[1] < width})),
        through=tuple(sorted({z[1] for _, z in strips if z[1] < thickness})),
    )


def _same_rips(one: RipSegment, other: RipSegment) -> bool:
    return [(s.y, s.z) for s in one.strips] == [(s.y, s.z) for s in other.strips]


def _joined(one: RipSegment, other: RipSegment) -> RipSegment:
    strips = tuple(
        RipStrip(a.y, a.z, (*a.parts, *b.parts))
        for a, b in zip(one.strips, other.strips, strict=True)
    )
    return RipSegment(one.start, other.end, strips, one.across, one.through)
