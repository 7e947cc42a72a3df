"""A view laid out in a room of so many pixels or points: where its outlines, its letters and its
dimension lines come to lie, so that no two of them are in one place. Points are from the top left
corner, down being more.

The whole is told to the left and below, all else to the right and above: shorter ones nearer.
"""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from carpentry.design.shapes.views import ACROSS, UP, Dimension, Outline, Point, View

TEXT = 13.0  # the height of what is written
_PER_LETTER = 7.4  # the width of a letter of it
_LEVEL = 24.0  # from one line across to the next
_BESIDE = 16.0  # from the drawing to the first of them
_TICK = 6.0  # a tick's half, at the ends of a line
_GAP = 6.0
_MARGIN = 12.0
_LEAST = 9.0  # of a piece that has room for its letter


@dataclass(frozen=True)
class Line:
    """One line of a dimension, or a tick at its end."""

    start: Point
    end: Point


@dataclass(frozen=True)
class Label:
    """Something written with its middle there: a size, or the letter of a piece."""

    text: str
    at: Point
    letter: str = ""
    number: int = 0


@dataclass(frozen=True)
class LaidOut:
    """A view in its room, at 1 to ``ratio``. ``scale`` is pixels in a unit of space, ``origin``
    where its low corner lies."""

    outlines: tuple[Outline, ...]
    lines: tuple[Line, ...]
    labels: tuple[Label, ...]
    width: float
    height: float
    ratio: int
    scale: float
    origin: Point

    def unit_point(self, point: Point) -> Point:
        """A point in units of space, up being more, from the low corner."""
        return (point[0] - self.origin[0]) / self.scale, (self.origin[1] - point[1]) / self.scale


@dataclass
class _Beside:
    """Dimensions on one side of the drawing, each with the level that it lies on."""

    levels: list[list[tuple[float, float]]]

    def level(self, low: float, high: float) -> int:
        """The nearest level on which, and outside of which, nothing else lies there."""
        at = 0
        for n, taken in enumerate(self.levels):
            if any(low < end + _GAP and start - _GAP < high for start, end in taken):
                at = n + 1
        if at == len(self.levels):
            self.levels.append([])
        self.levels[at].append((low, high))
        return at


def _wide(text: str) -> float:
    return len(text) * _PER_LETTER


def lay_out(
    view: View, wide: float, high: float, full: float, words: Callable[[int], str]
) -> LaidOut:
    """A view in a room, at the largest scale of 1 to a whole number that fits; ``full`` is how many
    pixels a unit has at full size, ``words`` writes a length in ticks."""
    inner = {
        way: [d for d in view.dimensions if d.way == way and not _whole(view, d)]
        for way in (ACROSS, UP)
    }
    whole = {
        way: [d for d in view.dimensions if d.way == way and _whole(view, d)]
        for way in (ACROSS, UP)
    }
    texts = [_wide(words(d.ticks)) for d in (*inner[UP], *whole[UP])]
    letters = max(texts, default=0.0) + _GAP
    left = _MARGIN + (letters + _BESIDE + _TICK if whole[UP] else 0)
    levels_right = _most_levels(view, inner[UP], wide, high)
    right = _MARGIN + levels_right * (letters + _BESIDE)
    above = _MARGIN + _most_levels(view, inner[ACROSS], wide, high) * _LEVEL + _BESIDE
    below = _MARGIN + (_LEVEL + _BESIDE + TEXT if whole[ACROSS] else 0)
    size = view.size
    room = max(40.0, wide - left - right), max(40.0, high - above - below)
    fits = min(room[0] / max(size[0], 1e-9), room[1] / max(size[1], 1e-9))
    ratio = math.ceil(full / fits)
    scale = full / ratio
    origin = left, above + size[1] * scale

    def place(point: Point) -> Point:
        x, y = point[0] - view.low[0], point[1] - view.low[1]
        return round(origin[0] + x * scale, 2), round(origin[1] - y * scale, 2)

    outlines = tuple(
        Outline(one.key, one.letter, one.number, tuple(map(place, one.points)))
        for one in view.outlines
    )
    lines: list[Line] = []
    labels = list(_letters(outlines))
    drawn_right, foot = origin[0] + size[0] * scale, origin[1]
    top = foot - size[1] * scale
    for dimensions, at in ((inner[ACROSS], top - _BESIDE), (whole[ACROSS], foot + _BESIDE)):
        beside = _Beside([])
        for one in _shortest_first(dimensions):
            start, end = place((one.start, view.low[1]))[0], place((one.end, view.low[1]))[0]
            text = words(one.ticks)
            middle = (start + end) / 2
            reach = max(end - start, _wide(text)) / 2
            level = beside.level(middle - reach, middle + reach)
            y = at + (level * _LEVEL if at > top else -level * _LEVEL)
            lines += _line((start, y), (end, y), upright=True)
            labels.append(Label(text, (middle, y + (TEXT if at > top else -TEXT / 2 - 1))))
    for dimensions, at, step in (
        (inner[UP], drawn_right + _BESIDE, letters + _BESIDE),
        (whole[UP], origin[0] - _BESIDE, 0.0),
    ):
        beside = _Beside([])
        for one in _shortest_first(dimensions):
            low, high_ = place((view.low[0], one.end))[1], place((view.low[0], one.start))[1]
            middle = (low + high_) / 2
            reach = max(high_ - low, TEXT) / 2
            x = at + beside.level(middle - reach, middle + reach) * step
            lines += _line((x, low), (x, high_), upright=False)
            text = words(one.ticks)
            away = (_wide(text) / 2 + _GAP) * (1 if step else -1)
            labels.append(Label(text, (x + away, middle + TEXT / 3)))
    return LaidOut(
        outlines,
        tuple(lines),
        tuple(labels),
        round(drawn_right + right, 2),
        round(foot + below, 2),
        ratio,
        scale,
        origin,
    )


def _whole(view: View, one: Dimension) -> bool:
    axis = 0 if one.way == ACROSS else 1
    return abs(one.start - view.low[axis]) < 1e-3 and abs(one.end - view.high[axis]) < 1e-3


def _shortest_first(dimensions: Sequence[Dimension]) -> list[Dimension]:
    return sorted(dimensions, key=lambda one: (one.end - one.start, one.start))


def _most_levels(view: View, dimensions: Sequence[Dimension], wide: float, high: float) -> int:
    """How many levels of lines there may be at most beside the drawing."""
    beside = _Beside([])
    axis, room = (0, wide) if dimensions and dimensions[0].way == ACROSS else (1, high)
    scale = room * 0.6 / max(view.size[axis], 1e-9)
    for one in _shortest_first(dimensions):
        beside.level(one.start * scale, one.end * scale)
    return len(beside.levels)


def _line(start: Point, end: Point, *, upright: bool) -> Iterator[Line]:
    """A dimension line with a tick at each end; ``upright`` ticks are those of a line across."""
    yield Line(_rounded(start), _rounded(end))
    for x, y in (start, end):
        dx, dy = (0.0, _TICK) if upright else (_TICK, 0.0)
        yield Line(_rounded((x - dx, y - dy)), _rounded((x + dx, y + dy)))


def _rounded(point: Point) -> Point:
    return round(point[0], 2), round(point[1], 2)


def _letters(outlines: Sequence[Outline]) -> Iterator[Label]:
    """The letter of every piece that has room for it, where it lies neither behind another piece
    nor beside another letter."""
    taken: list[Point] = []
    for n, one in enumerate(outlines):
        xs, ys = [x for x, _ in one.points], [y for _, y in one.points]
        if min(max(xs) - min(xs), max(ys) - min(ys)) < _LEAST:
            continue
        middle = sum(xs) / len(xs), sum(ys) / len(ys)
        towards = [
            ((middle[0] + (a[0] + b[0]) / 2) / 2, (middle[1] + (a[1] + b[1]) / 2) / 2)
            for a, b in zip(one.points, [*one.points[1:], one.points[0]], strict=True)
        ]
        nearer = [other.points for other in outlines[n + 1 :]]
        for at in (middle, *towards):
            if any(abs(at[0] - x) < TEXT and abs(at[1] - y) < TEXT for x, y in taken):
                continue
            if not any(_inside(corner, points) for points in nearer for corner in _round(at)):
                taken.append(at)
                yield Label(one.letter, _rounded((at[0], at[1] + TEXT / 3)), one.letter, one.number)
                break


def _round(at: Point) -> tuple[Point, ...]:
    """A letter's middle, and points round it that are to be free."""
    wide, high = _PER_LETTER / 2, TEXT / 3
    beside = ((-wide, -high), (wide, -high), (-wide, high), (wide, high))
    return (at, *((at[0] + x, at[1] + y) for x, y in beside))


def _inside(point: Point, corners: Sequence[Point]) -> bool:
    """Whether a point lies inside an outline: a ray from it crosses it an odd number of times."""
    x, y = point
    crossed = False
    for (ax, ay), (bx, by) in zip(corners, [*corners[1:], corners[0]], strict=True):
        if (ay > y) != (by > y) and x < ax + (y - ay) * (bx - ax) / (by - ay):
            crossed = not crossed
    return crossed
