"""Cutting on a line: boards that are crosscut, and nothing else."""

from collections.abc import Iterable, Iterator

from carpentry.cutting.layouts import Placing, Waiting, in_order, lay_out, put_together
from carpentry.cutting.line.longest_leftover import lengthen_leftover
from carpentry.cutting.line.model import LineModel, to_line
from carpentry.cutting.loosened import has_angles, loosened
from carpentry.cutting.plan import Layout
from carpentry.cutting.problem import CutPart, CutProblem
from carpentry.cutting.search.cheapest import SearchResult, search
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.holding import Holder
from carpentry.cutting.search.model import FilledBoard, Packing
from carpentry.cutting.way import Report, Way


class LineWay:
    """Parts one after the other on each board."""

    rip_set_ups = None

    def __init__(self, problem: CutProblem) -> None:
        self.problem = problem
        self.model: LineModel = to_line(problem)

    @property
    def bounds_all(self) -> bool:
        return not has_angles(self.problem)

    def loosened(self) -> Way | None:
        return LineWay(loosened(self.problem))

    def item_of(self, part: CutPart) -> int | None:
        shape = self.problem.shape(part)
        return self.model.shapes.index(shape) if shape in self.model.shapes else None

    def search(self, clock: Clock, report: Report, kept_back: float = 0.0) -> SearchResult:
        holder = Holder(self.model, clock)
        found = search(holder, report)
        if not found.proven:
            return found
        packing = lengthen_leftover(self.problem, holder, self.model, found.packing)
        return found.keeping(packing)

    def search_plainly(self, clock: Clock) -> SearchResult:
        return search(Holder(self.model, clock), lambda *_: None)

    def arrange(self, packing: Packing) -> tuple[Layout, ...]:
        """Parts that share saw lines first, then longest first."""
        return arrange_line(self.problem, self.model, packing)


def arrange_line(problem: CutProblem, line: LineModel, packing: Packing) -> tuple[Layout, ...]:
    """Boards in the order of the stock; parts that share saw lines first, then longest first; equal
    boards together."""
    waiting = Waiting((problem.shape(part), part) for part in problem.parts)
    pieces = {piece.id: piece for piece in problem.stock}

    def parts_of(counts: Iterable[int]) -> Iterator[Placing]:
        copies = list(counts)
        for chained in (True, False):
            for item, number in enumerate(copies):
                if line.chained[item] == chained:
                    for _ in range(number):
                        yield waiting.take(line.shapes[item]), None

    def runs_of(board: FilledBoard) -> Iterator[tuple[int, Iterator[Placing]]]:
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
            for board in sorted(packing.boards, key=in_order)
        ),
    )
