"""Saws a board by its cuts, knowing only the board, the kerf and the cuts, and looks at what comes
off: is every part free, at its size, where the plan says it lies?

A piece is the space between planes. Nothing here is shared with the code that makes cuts.
"""

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from itertools import product
from typing import NamedTuple

from carpentry.cutting.cuts import Cut, Saw
from carpentry.cutting.plan import Layout, Leftover, PlacedPart
from carpentry.cutting.problem import CutProblem, Order, SawLimits, StockPiece
from carpentry.design.ends import EndAngle, is_angled

Point = tuple[float, float, float]
Span = tuple[float, float]
SQUARE = (0.0, 0.0, 0.0)
TOLERANCE = 3.0  # ticks that slanted faces may be off by, as their reach is whole ticks: 10 µm
_AXES = {Saw.CROSSCUT: 0, Saw.RIP: 1, Saw.RESAW: 2}
_ORDERS = {
    Order.RIP_FIRST: "rc",
    Order.CROSSCUT_FIRST: "cr",
    Order.EITHER: "crc",
}


class Side(NamedTuple):
    """A plane across one axis: where that is at the origin of the other two, and how it leans
    along them. ``upper`` bounds its piece from above."""

    axis: int
    at: float
    lean: tuple[float, float, float]
    upper: bool

    def where(self, point: Point) -> float:
        """Where the plane is on its axis, beside a point."""
        if self.lean == SQUARE:
            return self.at
        return self.at + sum(lean * size for lean, size in zip(self.lean, point, strict=True))

    def holds(self, point: Point, slack: float) -> bool:
        beyond = point[self.axis] - self.where(point)
        return beyond <= slack if self.upper else beyond >= -slack


@dataclass(frozen=True)
class Piece:
    """What one cut made: its sides, and the span it lies in on each axis."""

    sides: tuple[Side, ...]
    spans: tuple[Span, ...]

    @property
    def is_square(self) -> bool:
        """Whether it is as its spans say."""
        return all(side.lean == SQUARE for side in self.sides)

    def corners(self) -> Iterator[Point]:
        x_span, y_span, z_span = self.spans
        yield from product(x_span, y_span, z_span)

    def size(self, axis: int) -> float:
        low, high = self.spans[axis]
        return high - low


def replay(problem: CutProblem, piece: StockPiece, layout: Layout) -> list[str]:
    """What goes wrong when a board is cut so, in words; nothing where every part comes free."""
    saw = _Sawing(problem, piece, _section(problem, piece, layout))
    for cut in layout.cuts:
        saw.make(cut)
    saw.look_at(layout)
    return saw.wrong


def _section(problem: CutProblem, piece: StockPiece, layout: Layout) -> tuple[int, int]:
    """Width and thickness of a board; where nobody says, those of what is cut from it."""
    if piece.width is not None and piece.thickness is not None:
        return piece.width, piece.thickness
    parts = {part.id: part for part in problem.parts}
    first = next((parts[one.part] for one in layout.parts if one.part in parts), None)
    return (first and first.width) or 1, (first and first.thickness) or 1


def whole_board(length: int, width: int, thickness: int) -> Piece:
    """A board before anything is cut (ticks)."""
    sides = []
    for axis, most in enumerate((length, width, thickness)):
        sides.append(Side(axis, 0, (0, 0, 0), upper=False))
        sides.append(Side(axis, most, (0, 0, 0), upper=True))
    return Piece(tuple(sides), ((0, length), (0, width), (0, thickness)))


def saw_apart(piece: Piece, cut: Cut) -> tuple[Piece | None, Piece | None]:
    """What a cut leaves of a piece below and above it, ``None`` where that is nothing."""
    lean = _lean(cut)
    below = _cut_off(piece, _side(cut, cut.start, lean, piece, upper=True))
    return below, _cut_off(piece, _side(cut, cut.end, lean, piece, upper=False))


def _lean(cut: Cut) -> Point:
    """How the plane of a cut leans: a positive angle has its long point on the marked edge, or on
    the marked face, so that it comes nearer the marked end further away from there."""
    steep = -math.tan(math.radians(float(cut.angle.degrees)))
    if cut.saw is Saw.CROSSCUT:
        return (0, 0, steep) if cut.angle.bevel else (0, steep, 0)
    return 0, 0, steep if cut.saw is Saw.RIP else 0


class _Sawing:
    def __init__(self, problem: CutProblem, piece: StockPiece, section: tuple[int, int]) -> None:
        self.problem = problem
        self.stock = piece
        self.size = (piece.length, *section)
        self.wrong: list[str] = []
        self.lying = {0: whole_board(*self.size)}
        self.numbers = {0}

    def make(self, cut: Cut) -> None:
        """Makes one cut, and notes what is wrong with it."""
        name = f"{cut.saw.value} of piece {cut.of} at {cut.start}"
        piece = self.lying.pop(cut.of, None)
        if piece is None:
            self.wrong.append(f"{name}: there is no such piece any more")
            return
        kerf = math.ceil(
            self.problem.kerf / math.cos(math.radians(abs(float(cut.angle.degrees)))) - 1e-6
        )
        if cut.end - cut.start != kerf:
            self.wrong.append(f"{name}: takes {cut.end - cut.start}, the saw takes {kerf}")
        if cut.saw is Saw.RESAW and cut.angle.degrees:
            self.wrong.append(f"{name}: a resaw is square")
        self._limits(name, cut, piece)
        below, above = saw_apart(piece, cut)
        for number, rest, where in ((cut.makes[0], below, "below"), (cut.makes[1], above, "above")):
            if (number is None) != (rest is None):
                said = "nothing" if number is None else f"piece {number}"
                self.wrong.append(f"{name}: {said} is said to lie {where} it")
            elif number is not None and rest is not None:
                if number in self.numbers:
                    self.wrong.append(f"{name}: piece {number} is made twice")
                self.numbers.add(number)
                self.lying[number] = rest

    def _limits(self, name: str, cut: Cut, piece: Piece) -> None:
        limits: SawLimits = self.problem.saw
        wide, high = piece.size(1), piece.size(2)
        angle = abs(cut.angle.degrees)
        beyond = False
        if cut.saw is Saw.CROSSCUT:
            most = limits.tilt if cut.angle.bevel else limits.miter
            beyond = most is not None and angle > most
            beyond |= limits.crosscut is not None and max(wide, high) > limits.crosscut + 1
        elif cut.saw is Saw.RIP:
            deep = high / math.cos(math.radians(float(angle)))
            beyond = limits.tilt is not None and angle > limits.tilt
            beyond |= limits.rip_depth is not None and deep > limits.rip_depth + 1
            low, top = piece.spans[1]
            fence = min(cut.start - low, top - cut.end)
            beyond |= limits.rip_width is not None and fence > limits.rip_width + 1
        elif limits.resaw_depth is not None:
            beyond = wide > limits.resaw_depth + 1
        if beyond:
            self.wrong.append(f"{name} is beyond what the saw can do")

    def look_at(self, layout: Layout) -> None:
        """Compares what lies there with what the plan says."""
        told = {one.number: one for one in layout.pieces}
        if set(told) != set(self.lying) or len(told) != len(layout.pieces):
            self.wrong.append("the pieces are not those that the cuts leave")
            return
        waiting = list(layout.parts)
        for number, one in told.items():
            if not one.part:
                continue
            piece = self.lying[number]
            mine = next((p for p in waiting if p.part == one.part and self._is(piece, p)), None)
            if mine is None:
                self.wrong.append(f"piece {number} is no {one.part}: its size or place is another")
                continue
            waiting.remove(mine)
        self.wrong += [f"{placed.part} does not come off the board" for placed in waiting]
        self._order(layout, {number for number, one in told.items() if one.part})
        scrap = [self.lying[number] for number, one in told.items() if not one.part]
        keeps = [self.lying[number] for number, one in told.items() if one.keep]
        for rest in layout.leftover:
            if not any(self._holds(piece, rest) for piece in scrap) or self._spoilt(rest):
                self.wrong.append("a leftover is not what remains")
        for piece in keeps:
            if not any(self._holds(piece, rest) for rest in layout.leftover):
                self.wrong.append("an offcut to keep has no sound wood")

    def _box(self, one: PlacedPart | Leftover) -> list[tuple[int, int]]:
        return [(one.start, one.end), one.y or (0, self.size[1]), one.z or (0, self.size[2])]

    def _is(self, piece: Piece, placed: PlacedPart) -> bool:
        """Whether a piece is a part, to its size, where it is said to lie."""
        if piece.is_square and not any(is_angled(two) for two in (placed.ends, placed.edges)):
            return list(piece.spans) == self._box(placed)
        planes = list(_planes(placed, self._box(placed)))
        corners = list(_part_corners(planes))
        if any(not side.holds(c, TOLERANCE) for side in piece.sides for c in corners):
            return False
        return all(
            any(_coincide(side, plane, corners) for side in piece.sides if _alike(side, plane))
            for plane in planes
        )

    def _holds(self, piece: Piece, rest: Leftover) -> bool:
        box = self._box(rest)
        if piece.is_square:
            spans = zip(box, piece.spans, strict=True)
            return all(low <= start and end <= high for (start, end), (low, high) in spans)
        corners = list(product(*box))
        return all(side.holds((x, y, z), TOLERANCE) for side in piece.sides for x, y, z in corners)

    def _spoilt(self, rest: Leftover) -> bool:
        """Whether a leftover has unsound wood in it."""
        trims = self.problem.trim_start, self.stock.length - self.problem.trim_end
        return (
            not trims[0] <= rest.start < rest.end <= trims[1]
            or any(rest.start < end and start < rest.end for start, end in self.stock.flaws)
            or any(low >= high for low, high in self._box(rest))
        )

    def _order(self, layout: Layout, parts: set[int]) -> None:
        """Whether cuts that part parts come in the allowed order; trims come when they will."""
        holding: set[int] = set(parts)
        for cut in reversed(layout.cuts):
            if any(n in holding for n in cut.makes):
                holding.add(cut.of)
        behind: dict[int, str] = {0: ""}
        order = self.problem.order
        flawed = self.stock.flaws and order is Order.RIP_FIRST  # a bad spot may be cut out first
        allowed = _ORDERS[Order.EITHER if flawed else order]
        for cut in layout.cuts:
            made = [n for n in cut.makes if n in holding]
            kind = "c" if cut.saw is Saw.CROSSCUT else "r"
            so_far = behind.get(cut.of, "")
            if len(made) == 2 and not so_far.endswith(kind):
                so_far += kind
            if not _within(so_far, allowed) and "order" not in "".join(self.wrong):
                self.wrong.append("the cuts are not in the allowed order")
            for number in made:
                behind[number] = so_far


def _within(kinds: str, allowed: str) -> bool:
    """Whether stages follow each other as allowed, some of them perhaps left out."""
    waiting = iter(allowed)
    return all(kind in waiting for kind in kinds)


def _side(cut: Cut, at: float, lean: Point, piece: Piece, *, upper: bool) -> Side:
    """A side of a cut, whose position is on its piece's edge and face nearest the marked ones."""
    axis = _AXES[cut.saw]
    near = tuple(span[0] for span in piece.spans)
    origin = at - sum(slope * size for slope, size in zip(lean, near, strict=True))
    return Side(axis, origin, lean, upper)


def _cut_off(piece: Piece, side: Side) -> Piece | None:
    """What of a piece is on one side of a cut; ``None`` where that is nothing."""
    if side.lean == SQUARE and all(one.lean == SQUARE for one in piece.sides):
        return _squarely_cut_off(piece, side)
    corners = list(piece.corners())
    others = [one for one in piece.sides if one.axis == side.axis and one.upper != side.upper]
    sign = 1 if side.upper else -1
    open_by = max(
        sign * (side.where(c) - _tightest(others, c, upper=not side.upper)) for c in corners
    )
    slack = TOLERANCE if any(any(one.lean) for one in (side, *others)) else 0
    if open_by <= slack:
        return None
    kept = [one for one in piece.sides if not _looser(one, side, corners)]
    return _tightened((*kept, side), piece.spans)


def _squarely_cut_off(piece: Piece, side: Side) -> Piece | None:
    low, high = piece.spans[side.axis]
    span = (low, min(high, side.at)) if side.upper else (max(low, side.at), high)
    if span[0] >= span[1]:
        return None
    spans = tuple(span if axis == side.axis else one for axis, one in enumerate(piece.spans))
    if span == (low, high):
        return piece
    return Piece((*(one for one in piece.sides if not _alike(one, side)), side), spans)


def _tightened(sides: tuple[Side, ...], spans: tuple[Span, ...]) -> Piece:
    """The piece between sides, each span as short as they make it."""
    found = list(spans)
    for axis in (2, 1, 0):
        corners: list[Point] = list(product(found[0], found[1], found[2]))
        mine = [side for side in sides if side.axis == axis]
        low = min(_tightest(mine, corner, upper=False) for corner in corners)
        high = max(_tightest(mine, corner, upper=True) for corner in corners)
        found[axis] = low, high
    return Piece(sides, tuple(found))


def _tightest(sides: Sequence[Side], point: Point, *, upper: bool) -> float:
    found = [side.where(point) for side in sides if side.upper == upper]
    return min(found) if upper else max(found)


def _looser(one: Side, other: Side, corners: Sequence[Point]) -> bool:
    """Whether a side no longer matters beside another one."""
    if (one.axis, one.upper) != (other.axis, other.upper):
        return False
    sign = 1 if one.upper else -1
    return all(sign * (one.where(c) - other.where(c)) >= 0 for c in corners)


def _alike(one: Side, other: Side) -> bool:
    return one.axis == other.axis and one.upper == other.upper


def _coincide(one: Side, other: Side, corners: Iterable[Point]) -> bool:
    """Whether two sides are one and the same along a part."""
    slack = TOLERANCE if any(one.lean) or any(other.lean) else 0
    return all(abs(one.where(c) - other.where(c)) <= slack for c in corners)


def _planes(placed: PlacedPart, box: list[tuple[int, int]]) -> Iterator[Side]:
    """The six sides of a part between its outermost points."""
    (_, (y0, y1), (z0, z1)) = box
    for which, end in enumerate(placed.ends):
        yield _end_plane(0, box[0][which], end, which == 1, ((y0, y1), (z0, z1)))
    for which, edge in enumerate(placed.edges):
        yield _end_plane(1, box[1][which], edge, which == 1, ((y0, y1), (z0, z1)))
    yield Side(2, z0, (0, 0, 0), upper=False)
    yield Side(2, z1, (0, 0, 0), upper=True)


def _end_plane(
    axis: int,
    outermost: int,
    end: EndAngle,
    right: bool,
    across: tuple[tuple[int, int], tuple[int, int]],
) -> Side:
    """The plane of an end or edge whose long point is at ``outermost``: on the marked edge or face
    for a positive angle, else on the other."""
    slope = math.tan(math.radians(float(abs(end.degrees))))
    over = 2 if end.bevel else 1
    low, high = across[over - 1]
    long_at = low if end.degrees >= 0 else high
    away = 1 if end.degrees >= 0 else -1  # the way from the long point to the short one
    inward = -slope if right else slope
    lean = [0.0, 0.0, 0.0]
    lean[over] = inward * away
    return Side(axis, outermost - lean[over] * long_at, (lean[0], lean[1], lean[2]), upper=right)


def _part_corners(planes: list[Side]) -> Iterator[Point]:
    """The eight corners of a part."""
    lefts, fronts, faces = planes[0:2], planes[2:4], planes[4:6]
    for x_side, y_side, z_side in product(lefts, fronts, faces):
        z = z_side.at
        y = y_side.where((0, 0, z))
        yield x_side.where((0, y, z)), y, z
