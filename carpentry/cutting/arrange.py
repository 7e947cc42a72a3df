"""From packings to layouts: where every part lies on its board."""

from collections import Counter
from collections.abc import Hashable, Iterable, Iterator
from dataclasses import replace

from carpentry.cutting.angled import Angled
from carpentry.cutting.line import Line
from carpentry.cutting.model import Board, Packing
from carpentry.cutting.plan import Layout, PlacedPart
from carpentry.cutting.problem import CutPart, CutProblem, StockPiece
from carpentry.cutting.ripped import Ripped
from carpentry.cutting.ripping import Segment, strip_of
from carpentry.ends import EndAngle, Ends, turned, ways_to_lie

Placing = tuple[CutPart, Ends | None]  # a part, and how its ends lie unless that is open


class _Waiting:
    """Parts that have no place yet, alike ones in the order of the problem, but those that show
    first."""

    def __init__(self, parts: Iterable[tuple[Hashable, CutPart]]) -> None:
        self._parts: dict[Hashable, list[CutPart]] = {}
        for key, part in sorted(parts, key=lambda one: not one[1].show):
            self._parts.setdefault(key, []).extend([part] * part.quantity)

    def take(self, key: Hashable) -> CutPart:
        """The next part that is alike."""
        return self._parts[key].pop(0)


def put_together(problem: CutProblem, layouts: Iterable[Layout]) -> tuple[Layout, ...]:
    """Single boards in the order of the stock, equal ones as one layout with a count; of one stock
    those with most parts that show come first."""
    counted = Counter(layouts)
    show = {part.id for part in problem.parts if part.show}
    stocks = [piece.id for piece in problem.stock]

    def order(layout: Layout) -> tuple[int, int]:
        return stocks.index(layout.stock), -sum(placed.part in show for placed in layout.parts)

    return tuple(replace(layout, count=counted[layout]) for layout in sorted(counted, key=order))


def lay_out(
    problem: CutProblem, piece: StockPiece, runs: Iterable[tuple[int, Iterable[Placing]]]
) -> Layout:
    """On ``piece`` the parts of each run, one after the other from where it begins (ticks)."""
    placed: list[PlacedPart] = []
    for start, parts in runs:
        placed += _in_line(problem, start, parts)
    return Layout(piece.id, 1, tuple(placed))


def _in_line(problem: CutProblem, start: int, parts: Iterable[Placing]) -> list[PlacedPart]:
    """Parts one after the other. Where saw lines may be shared a part whose way to lie is open is
    turned so that its end runs like its neighbour's."""
    placed: list[PlacedPart] = []
    end, before = start, EndAngle()
    for part, way in parts:
        ends = way or part.ends
        if way is None and problem.share_angled_cuts and placed and before.degrees:
            ends = turned(ends, before.flipped)
        start = end
        if placed:
            apart = max(before.saw(problem.kerf), ends[0].saw(problem.kerf))
            start += apart - (_reach(part, ends[0]) if _shared(problem, before, ends[0]) else 0)
        end, before = start + part.sawn_length, ends[1]
        placed.append(PlacedPart(part.id, start, end, ends=ends))
    return placed


def _reach(part: CutPart, end: EndAngle) -> int:
    return end.reach(part.thickness or 0, part.width or 0)


def _shared(problem: CutProblem, right: EndAngle, left: EndAngle) -> bool:
    """Whether one saw line makes the right end of a part and the left end of the next."""
    return problem.share_angled_cuts and bool(left.degrees) and left == right.flipped


def arrange_line(problem: CutProblem, line: Line, packing: Packing) -> tuple[Layout, ...]:
    """Boards in the order of the stock; parts that share saw lines first, then longest first; equal
    boards together."""
    waiting = _Waiting((problem.shape(part), part) for part in problem.parts)
    pieces = {piece.id: piece for piece in problem.stock}

    def parts_of(counts: Iterable[int]) -> Iterator[Placing]:
        copies = list(counts)
        for chained in (True, False):
            for item, number in enumerate(copies):
                if line.chained[item] == chained:
                    for _ in range(number):
                        yield waiting.take(line.shapes[item]), None

    def runs_of(board: Board) -> Iterator[tuple[int, Iterator[Placing]]]:
        fill = line.fill_of(board)
        if fill is None:
            yield problem.trim_start, parts_of(board.pattern)
            return
        left = list(board.pattern)
        for start, counts in fill:
            taken = [min(n, r) for n, r in zip(counts, left, strict=True)]
            left = [r - n for r, n in zip(left, taken, strict=True)]
            yield start, parts_of(taken)

    return put_together(
        problem,
        (
            lay_out(problem, pieces[line.sources[board.source].stock], runs_of(board))
            for board in sorted(packing.boards, key=_in_order)
        ),
    )


def arrange_angled(problem: CutProblem, model: Angled, packing: Packing) -> tuple[Layout, ...]:
    """Boards in the order of the stock, each with its parts in the shortest line."""
    waiting = _Waiting((problem.shape(part), part) for part in problem.parts)
    pieces = {piece.id: piece for piece in problem.stock}

    def run(board: Board) -> Iterator[Placing]:
        for item, ends in model.order(board.pattern):
            yield waiting.take(model.shapes[item]), ends

    return put_together(
        problem,
        (
            lay_out(
                problem,
                pieces[model.sources[board.source].stock],
                [(problem.trim_start, run(board))],
            )
            for board in sorted(packing.boards, key=_in_order)
        ),
    )


def _in_order(board: Board) -> tuple[int, tuple[int, ...]]:
    return board.source, tuple(-n for n in board.pattern)


def arrange_ripped(problem: CutProblem, model: Ripped, packing: Packing) -> tuple[Layout, ...]:
    """Boards in the order of the stock, each with its segments and strips, equal ones together."""
    bench = _RipBench(problem, model)
    return put_together(
        problem, (bench.lay_out(board) for board in sorted(packing.boards, key=_in_order))
    )


class _RipBench:
    """Lays out one board after the other from the parts that still wait."""

    def __init__(self, problem: CutProblem, model: Ripped) -> None:
        self.problem = problem
        self.model = model
        self.pieces = {piece.id: piece for piece in problem.stock}
        waiting = (((strip_of(part), problem.shape(part)), part) for part in problem.parts)
        self.waiting = _Waiting(waiting)

    def lay_out(self, board: Board) -> Layout:
        problem, model = self.problem, self.model
        piece = self.pieces[model.sources[board.source].stock]
        placed: list[PlacedPart] = []
        left = list(board.pattern)
        at = problem.trim_start
        for segment in model.recipe(board):
            at = at if segment.start is None else segment.start
            here = list(self._parts(segment, at, left))
            if here:
                placed += here
                at += segment.size * model.unit
        return Layout(piece.id, 1, tuple(placed))

    def _parts(self, segment: Segment, at: int, left: list[int]) -> Iterator[PlacedPart]:
        """The parts of a segment that begins at ``at``, no more of an item than ``left``."""
        kerf = self.problem.kerf
        for strip, items in zip(segment.pattern.strips, segment.strips, strict=True):
            x = at
            for number in (n for n in items if left[n]):
                item = self.model.items[number]
                part = self.waiting.take((self.model.strips[item.strip], item.shape))
                left[number] -= 1
                ends = ways_to_lie(part.ends)[strip.way]
                start = x + ends[0].saw(kerf) - kerf
                end = start + part.sawn_length
                yield PlacedPart(part.id, start, end, strip.y, strip.z, ends, strip.edges)
                x += item.size * self.model.unit
