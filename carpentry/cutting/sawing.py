"""From where parts lie on a board to the cuts that take it apart."""

from collections import deque
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import count

from carpentry.cutting.cuts import Cut, Saw, SawnPiece
from carpentry.cutting.plan import Layout, Leftover, PlacedPart, Span
from carpentry.cutting.problem import CutPart, CutProblem, Order, StockPiece
from carpentry.cutting.regions import (
    SLACK,
    Box,
    Plane,
    Region,
    fills,
    groups_apart,
    is_beyond,
    sides_of,
    strips_of,
    touches,
)
from carpentry.design.ends import SQUARE, EndAngle

_CUTS_A_PART = 10


@dataclass(frozen=True)
class Manner:
    """In which of several orders a board is taken apart, where its order of work is free: ripped
    from end to end at once, its neighbours that are ripped alike ``joined``, waste at its end
    crosscut off before what is left is ripped (``waste_first``)."""

    rip_first: bool = False
    joined: bool = True
    waste_first: bool = True


USUAL = Manner()
MANNERS = (USUAL, Manner(waste_first=False), Manner(joined=False), Manner(rip_first=True))
_STAGES = {
    Order.RIP_FIRST: ("yz", "x"),
    Order.CROSSCUT_FIRST: ("x", "yz", "x"),
    Order.EITHER: ("x", "yz", "x"),
}


def with_cuts(problem: CutProblem, layout: Layout, manner: Manner = USUAL) -> Layout:
    """The layout with its cuts, what every piece is, and what is left over."""
    piece = next(one for one in problem.stock if one.id == layout.stock)
    bench = _Bench(problem, piece, manner)
    bench.take_apart(layout.parts)
    return replace(
        layout,
        cuts=tuple(bench.cuts),
        pieces=tuple(sorted(bench.pieces, key=lambda one: one.number)),
        leftover=tuple(bench.leftover),
    )


class _Bench:
    """Takes one board apart, cut by cut."""

    def __init__(self, problem: CutProblem, piece: StockPiece, manner: Manner) -> None:
        self.manner = manner
        self.problem = problem
        self.piece = piece
        self.kerf = problem.kerf
        self.cuts: list[Cut] = []
        self.pieces: list[SawnPiece] = []
        self.leftover: list[Leftover] = []
        self._parts: dict[str, CutPart] = {part.id: part for part in problem.parts}
        self._most_cuts = _CUTS_A_PART
        self._boxes: list[Box] = []
        self._numbers = count(1)
        self._waiting: deque[tuple[Region, list[Box], Sequence[str]]] = deque()

    def take_apart(self, parts: Sequence[PlacedPart]) -> None:
        """Makes all cuts of a board with these parts; not for ever, where they lie beyond it."""
        self._most_cuts = _CUTS_A_PART * (len(parts) + 4)
        boxes = self._boxes = [self._box(placed) for placed in parts]
        wide, high = self._section(parts)
        board = Region(
            0,
            (Plane(0), Plane(self.piece.length)),
            (Plane(0), Plane(wide)),
            (Plane(0), Plane(high)),
            ((0, self.piece.length), (0, wide)),
        )
        self._waiting.append((self._straightened(board), boxes, self._stages()))
        while self._waiting:  # all cuts of one stage before those of the next
            self._apart(*self._waiting.popleft())

    def _straightened(self, board: Region) -> Region:
        """A crooked board with both edges made straight: first its belly, the two ends of its
        hollow against the fence, then the hollow."""
        if not self.piece.crook:
            return board
        low, top = self.problem.straight_edges(self.piece)
        rest = board
        for at, which in ((top, 0), (low - self.kerf, 1)):
            made = self._cut(rest, Saw.RIP, at)
            self._scrap(made[1 - which])
            rest = made[which] or rest
        return rest

    def _stages(self) -> Sequence[str]:
        """The stages of work on this board; a bad spot is cut out before anything else."""
        order = self.problem.order
        if order is Order.EITHER and self.manner.rip_first and not self.piece.flaws:
            order = Order.RIP_FIRST
        return _STAGES[Order.EITHER if self.piece.flaws and order is Order.RIP_FIRST else order]

    def _section(self, parts: Sequence[PlacedPart]) -> Span:
        """Width and thickness of the board; where it has none, those of its parts."""
        if self.piece.width is not None and self.piece.thickness is not None:
            return self.piece.width, self.piece.thickness
        part = self._parts[parts[0].part]
        return part.width or 1, part.thickness or 1

    def _box(self, placed: PlacedPart) -> Box:
        wide, high = self._section([placed])
        y, z = placed.y or (0, wide), placed.z or (0, high)
        through, across = z[1] - z[0], y[1] - y[0]
        left, right = placed.ends
        saws = [end.saw(self.kerf) - self.kerf for end in placed.ends]
        return Box(
            placed,
            sides_of((placed.start, placed.end), (left, right), through, across),
            sides_of(y, placed.edges, through, 0),
            (Plane(z[0]), Plane(z[1])),
            (placed.start - saws[0], placed.end + saws[1]),
        )

    def _apart(self, region: Region, boxes: list[Box], stages: Sequence[str]) -> None:
        if not boxes:
            self._scrap(region)
        elif all(fills(box, region) for box in boxes):
            self._line(region, boxes)
        elif stages[0] == "x" and self.problem.saw.crosses(region.wide, region.high):
            self._segments(region, boxes, stages[1:])
        else:
            self._rips(region, boxes)

    def _line(self, region: Region, boxes: list[Box]) -> None:
        """Parts one after the other in a strip that has their section."""
        for box in sorted(boxes, key=lambda one: one.placed.start):
            low, high = box.x
            if not region.x[0].is_like(low):
                at = low.at - low.angle.saw(self.kerf)
                below, above = self._cut(region, Saw.CROSSCUT, at, low.angle)
                self._scrap(below)
                region = above or region
            if region.x[1].is_like(high):
                self._is_part(region, box)
                return
            below, above = self._cut(region, Saw.CROSSCUT, high.at, high.angle)
            self._is_part(below, box)
            if above is None:
                return
            region = above
        self._scrap(region)

    def _segments(self, region: Region, boxes: list[Box], stages: Sequence[str]) -> None:
        """Square crosscuts between groups of parts that lie beside or over each other."""
        for group in self._segmented(boxes):
            start = min(box.along[0] for box in group)
            end = max(box.along[1] for box in group)
            if start > region.x[0].at:
                below, above = self._cut(region, Saw.CROSSCUT, start - self.kerf)
                self._scrap(below)
                region = above or region
            if end >= region.x[1].at or self._rips_waste_off(region, group, end):
                self._waiting.append((region, group, stages))
                return
            below, above = self._cut(region, Saw.CROSSCUT, end)
            self._waiting.append((below or region, group, stages))
            if above is None:
                return
            region = above
        self._scrap(region)

    def _rips_waste_off(self, region: Region, group: list[Box], end: int) -> bool:
        """Whether what is beyond the last group is waste that is ripped with it, and comes off its
        strips with their last crosscuts."""
        if self.manner.waste_first or self.problem.order is not Order.EITHER or self.piece.flaws:
            return False
        rest = region.x[1].at - end - self.kerf - self.problem.trim_end
        kept = self.problem.keep_offcut_from
        is_last = all(box.along[1] <= end for box in self._boxes)
        return is_last and (not kept or rest < kept) and len(group) > 1

    def _segmented(self, boxes: list[Box]) -> list[list[Box]]:
        """Parts of one segment each, from the marked end. Neighbours that are ripped alike are one,
        which takes no more cuts, unless crosscuts are wanted first."""
        groups = list(groups_apart(boxes, self.kerf))
        if not self.manner.joined or self.problem.order is not Order.EITHER or self.piece.flaws:
            return groups
        joined: list[list[Box]] = []
        for group in groups:
            if joined and strips_of(group) == strips_of(joined[-1]):
                joined[-1] += group
            else:
                joined.append(group)
        return joined

    def _rips(self, region: Region, boxes: list[Box]) -> None:
        """Rips and resaws until every piece is a strip of one section, then its crosscuts."""
        every = list(self._choices(region, boxes))
        if not every or len(self.cuts) > self._most_cuts:
            self._line(region, boxes)
            return
        saw, at, angle = next((one for one in every if self._within(region, *one)), every[0])
        below, above = self._cut(region, saw, at, angle)
        first, second = self._divided(region, boxes, saw, at, angle)
        for piece, mine in ((below, first), (above, second)):
            if piece is not None and mine and not all(fills(box, piece) for box in mine):
                self._rips(piece, mine)
            elif piece is not None:
                self._waiting.append((piece, mine, ("x",)))

    def _choices(self, region: Region, boxes: list[Box]) -> Iterator[tuple[Saw, int, EndAngle]]:
        """Rips and resaws that part the parts or free them from waste, the best first: the marked
        edge is made straight, strips come off one after the other, and what is resawn is as narrow
        as can be."""
        face = region.z[0].at
        lead, trail = (self._outer_side(boxes, face, which) for which in (0, 1))
        if lead and not region.y[0].is_like(lead):
            yield Saw.RIP, lead.at - lead.angle.saw(self.kerf), lead.angle
        ordered = sorted(boxes, key=lambda box: (box.middle, box.z[0].at))
        for number in range(1, len(ordered)):
            yield from self._between(face, ordered[:number], ordered[number:])
        if trail and not region.y[1].is_like(trail):
            yield Saw.RIP, trail.at, trail.angle
        for at in sorted({box.z[1].at for box in boxes}):
            if at < region.z[1].at and self._clear(region, boxes, at):
                yield Saw.RESAW, at, SQUARE
        deep = min(box.z[0].at for box in boxes)
        if deep > face:
            yield Saw.RESAW, deep - self.kerf, SQUARE

    def _outer_side(self, boxes: list[Box], face: int, which: int) -> Plane | None:
        """The left (0) or right (1) side that the outermost parts have in common, on a face; no
        other part is beyond it. ``None`` where they differ."""
        furthest = min if which == 0 else max
        outer = furthest(boxes, key=lambda box: box.outermost(which))
        angle = outer.y[which].angle
        touched = [touches(box, which, angle, face) for box in boxes]
        edge = touches(outer, which, angle, face)
        slack = SLACK if angle.degrees else 0
        return Plane(edge, angle) if abs(furthest(touched) - edge) <= slack else None

    def _between(
        self, face: int, first: list[Box], second: list[Box]
    ) -> Iterator[tuple[Saw, int, EndAngle]]:
        """A rip between two groups, along the edge of one of them or square."""
        angles = [box.y[1].angle for box in first] + [box.y[0].angle for box in second] + [SQUARE]
        for angle in dict.fromkeys(angles):
            low = max(touches(box, 1, angle, face) for box in first)
            high = min(touches(box, 0, angle, face) for box in second)
            if low + angle.saw(self.kerf) <= high + (SLACK if angle.degrees else 0):
                yield Saw.RIP, low, angle

    def _clear(self, region: Region, boxes: list[Box], at: int) -> bool:
        """Whether a resaw goes through no part."""
        first, second = self._divided(region, boxes, Saw.RESAW, at, SQUARE)
        return len(first) + len(second) == len(boxes)

    def _divided(
        self, region: Region, boxes: list[Box], saw: Saw, at: int, angle: EndAngle
    ) -> tuple[list[Box], list[Box]]:
        """The parts below and above a cut."""
        end = at + angle.saw(self.kerf)
        slack = SLACK if angle.degrees else 0
        face = region.z[0].at
        first, second = [], []
        for box in boxes:
            if saw is Saw.RESAW:
                below, above = box.z[1].at <= at, box.z[0].at >= end
            else:
                below = touches(box, 1, angle, face) <= at + slack
                above = touches(box, 0, angle, face) >= end - slack
            if below:
                first.append(box)
            elif above:
                second.append(box)
        return first, second

    def _within(self, region: Region, saw: Saw, at: int, angle: EndAngle) -> bool:
        """Whether a rip or resaw is within what the saw can do."""
        limits = self.problem.saw
        if saw is Saw.RESAW:
            return limits.resaws(region.wide)
        fence = min(at - region.y[0].at, region.y[1].at - at - angle.saw(self.kerf))
        return limits.rips(region.high, angle) and limits.reaches(fence)

    def _cut(
        self, region: Region, saw: Saw, at: int, angle: EndAngle = SQUARE
    ) -> tuple[Region | None, Region | None]:
        """One cut more, and the pieces that it makes."""
        axis = {Saw.CROSSCUT: "x", Saw.RIP: "y", Saw.RESAW: "z"}[saw]
        end = at + angle.saw(self.kerf)
        low, high = getattr(region, axis)
        start_plane, end_plane = Plane(at, angle), Plane(end, angle)
        across = (region.high, region.wide) if saw is Saw.CROSSCUT else (region.high, 0)
        below = above = None
        free = region.free[axis == "y"]
        if is_beyond([start_plane], region.every(axis, 0), across):
            ends = free[0], min(free[1], at, start_plane.far(*across))
            below = region.between(axis, (low, start_plane), ends, next(self._numbers))
        if is_beyond(region.every(axis, 1), [end_plane], across):
            ends = max(free[0], end, end_plane.far(*across)), free[1]
            above = region.between(axis, (end_plane, high), ends, next(self._numbers))
            above = above.on_face(end - low.at) if saw is Saw.RESAW else above
        makes = (below.number if below else None, above.number if above else None)
        self.cuts.append(Cut(saw, region.number, at, end, makes, angle))
        return below, above

    def _is_part(self, region: Region | None, box: Box) -> None:
        if region is not None:
            self.pieces.append(SawnPiece(region.number, box.placed.part))

    def _scrap(self, region: Region | None) -> None:
        """What is no part: kept where it is sound and large enough, else waste."""
        if region is None:
            return
        sound = [replace(box, keep=self._is_kept(box)) for box in self._sound(region)]
        self.leftover += sound
        kept = [box for box in sound if box.keep]
        flawed = any(
            start < region.x[1].at and end > region.x[0].at for start, end in self.piece.flaws
        )
        if not kept or not flawed:
            self.pieces.append(SawnPiece(region.number, keep=bool(kept)))
            return
        rest: Region | None = region
        for box in kept:
            if rest is None:
                return
            if box.start > rest.free[0][0]:
                below, above = self._cut(rest, Saw.CROSSCUT, box.start - self.kerf)
                if below:
                    self.pieces.append(SawnPiece(below.number))
                rest = above or rest
            if box.end >= rest.x[1].at - self.problem.trim_end:
                self.pieces.append(SawnPiece(rest.number, keep=True))
                return
            below, rest = self._cut(rest, Saw.CROSSCUT, box.end)
            if below:
                self.pieces.append(SawnPiece(below.number, keep=True))
        if rest:
            self.pieces.append(SawnPiece(rest.number))

    def _is_kept(self, box: Leftover) -> bool:
        problem, piece = self.problem, self.piece
        least = problem.keep_offcut_from if piece.keep_from is None else piece.keep_from
        if box.length < least:
            return False
        return all(
            span is None or whole is None or span[1] - span[0] >= min(problem.keep_width, whole)
            for span, whole in ((box.y, piece.width), (box.z, piece.thickness))
        )

    def _sound(self, region: Region) -> Iterator[Leftover]:
        """The sound wood of a piece, between its innermost points."""
        free, across = region.free
        along = (
            max(free[0], self.problem.trim_start),
            min(free[1], self.piece.length - self.problem.trim_end),
        )
        y = z = None
        if self.problem.is_ripped and self.piece.width:
            low, top = self.problem.straight_edges(self.piece)
            if across != (0, self.piece.width) or self.piece.crook:
                across = max(across[0], low), min(across[1], top)
            y, z = across, (region.z[0].at, region.z[1].at)
            if y[1] <= y[0] or z[1] <= z[0]:
                return
        at = along[0]
        for start, end in sorted(self.piece.flaws):
            if start < along[1] and end > at:
                if start > at:
                    yield Leftover(at, start, y, z)
                at = max(end, start + self.kerf)
        if along[1] > at:
            yield Leftover(at, along[1], y, z)
