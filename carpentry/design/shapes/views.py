"""The views of a shape: its pieces as they are seen from the front or the back, from the right side
and from above, and the sizes that are told beside them."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction

from carpentry.design.shapes.asked import Span, Vector
from carpentry.design.shapes.shape import Made, Solid

Point = tuple[float, float]
VIEWS = ("front", "back", "side", "plan")
ACROSS, UP = "across", "up"
_NOTHING = 1e-6
# Of a view: the axes that run across it (and which way) and up, and the one that runs away from
# who looks, and which way along that is nearer.
_AXES = {
    "front": (0, 1, 2, 1, -1),
    "back": (0, -1, 2, 1, 1),
    "side": (1, 1, 2, 0, 1),
    "plan": (0, 1, 1, 2, 1),
}


@dataclass(frozen=True)
class Outline:
    """A piece as it is seen: the part that it is by its key and letter, which of them, and the
    corners round it, in units of space, up being more."""

    key: str
    letter: str
    number: int
    points: tuple[Point, ...]


@dataclass(frozen=True)
class Dimension:
    """A size that is told: from where to where ``across`` the view or ``up``, and the same in
    ticks."""

    way: str
    start: float
    end: float
    ticks: int


@dataclass(frozen=True)
class View:
    """What is seen from one side: outlines from the furthest to the nearest, sizes, and the corners
    of the whole."""

    name: str
    outlines: tuple[Outline, ...]
    dimensions: tuple[Dimension, ...]
    low: Point
    high: Point

    @property
    def size(self) -> Point:
        return self.high[0] - self.low[0], self.high[1] - self.low[1]


def views_of(made: Made) -> list[View]:
    """A shape in its views. Raises ``CarpentryError`` by measure where it cannot be built."""
    spans = [*_extents(made.solids), *made.shape.spans(made)]
    return [_view(name, made, spans) for name in made.shape.views]


def _view(name: str, made: Made, spans: Sequence[Span]) -> View:
    across, way, up, depth, nearer = _AXES[name]

    def near(solid: Solid) -> tuple[float, float]:
        depths = [corner[depth] * nearer for corner in solid.corners]
        return round(max(depths), 4), round(sum(depths), 4)

    outlines = tuple(
        Outline(
            solid.key,
            made.names.letters[solid.key],
            solid.number,
            tuple((x * way, y) for x, y in _seen(solid, across, up, depth)),
        )
        for solid in sorted(made.solids, key=near)
    )
    points = [point for outline in outlines for point in outline.points]
    xs, ys = [x for x, _ in points], [y for _, y in points]
    low, high = (min(xs), min(ys)), (max(xs), max(ys))
    told: dict[tuple[str, float, float], Dimension] = {}
    for span in spans:
        if span.view != name:
            continue
        axis = across if span.way == ACROSS else up
        turned = way if span.way == ACROSS else 1
        ends = (made.seen_at(point)[axis] * turned for point in (span.start, span.end))
        start, end = sorted(ends)
        if end - start > _NOTHING:
            ticks = round(Fraction(end - start) * made.per)
            key = (span.way, round(start, 4), round(end, 4))
            told.setdefault(key, Dimension(span.way, start, end, ticks))
    return View(name, outlines, tuple(told.values()), low, high)


def _seen(solid: Solid, across: int, up: int, depth: int) -> list[Point]:
    """The corners round a piece as it is seen: those of its face where that is seen straight, else
    those round all of its corners."""
    flat = all(
        len({round(corner[depth], 4) for corner in loop}) == 1 for loop in (solid.face, solid.back)
    )
    faces = {
        tuple((round(c[across], 4), round(c[up], 4)) for c in loop)
        for loop in (solid.face, solid.back)
    }
    if flat and len(faces) == 1:
        return [(corner[across], corner[up]) for corner in solid.face]
    return hull([(corner[across], corner[up]) for corner in solid.corners])


def hull(points: Sequence[Point]) -> list[Point]:
    """The corners of the smallest convex outline round points, against the clock (the monotone
    chain)."""
    ordered = sorted({(round(x, 6), round(y, 6)) for x, y in points})
    if len(ordered) < 3:
        return ordered
    return [*_chain(ordered), *_chain(ordered[::-1])]


def _chain(points: Sequence[Point]) -> list[Point]:
    found: list[Point] = []
    for point in points:
        while len(found) > 1 and _turn(found[-2], found[-1], point) <= _NOTHING:
            found.pop()
        found.append(point)
    return found[:-1]


def _turn(a: Point, b: Point, c: Point) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def _extents(solids: Sequence[Solid]) -> Iterator[Span]:
    """The size of the whole in every view."""
    corners = [corner for solid in solids for corner in solid.corners]
    low: Vector = (
        min(c[0] for c in corners),
        min(c[1] for c in corners),
        min(c[2] for c in corners),
    )
    high: Vector = (
        max(c[0] for c in corners),
        max(c[1] for c in corners),
        max(c[2] for c in corners),
    )
    for view in VIEWS:
        for way in (ACROSS, UP):
            yield Span(view, way, low, high)


def part_view(letter: str, corners: Sequence[Point], per: int) -> View:
    """A part by itself, seen from its face (ticks): every corner is measured from its left end and
    from its bottom edge."""
    points = [(u / per, v / per) for u, v in corners]
    long, high = (max(point[n] for point in points) for n in (0, 1))
    told: dict[tuple[str, int], Dimension] = {}
    for axis, way in ((0, ACROSS), (1, UP)):
        for point, corner in zip(points, corners, strict=True):
            ticks = round(corner[axis])
            if ticks:
                told.setdefault((way, ticks), Dimension(way, 0.0, point[axis], ticks))
    outline = Outline("", letter, 1, tuple(points))
    return View("face", (outline,), tuple(told.values()), (0.0, 0.0), (long, high))
