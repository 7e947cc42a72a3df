"""Cutting a line of parts with angled ends, all loads of a board listed."""

from collections.abc import Iterator

from carpentry.cutting.angled.model import AngledModel, to_angled
from carpentry.cutting.layouts import Placing, Waiting, in_order, lay_out, put_together
from carpentry.cutting.plan import Layout
from carpentry.cutting.problem import CutPart, CutProblem
from carpentry.cutting.search.cheapest import SearchResult, search
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.every_load import roomiest
from carpentry.cutting.search.holding import Holder
from carpentry.cutting.search.model import FilledBoard, Packing
from carpentry.cutting.way import Report, Way


class AngledWay:
    """Parts one after the other, each turned so that their ends lie close."""

    rip_set_ups = None
    bounds_all = True

    def __init__(self, problem: CutProblem, model: AngledModel) -> None:
        self.problem = problem
        self.model = model

    @classmethod
    def of(cls, problem: CutProblem, clock: Clock) -> "AngledWay | None":
        """The way, ``None`` where its loads are too many or time is up."""
        model = to_angled(problem, clock)
        return cls(problem, model) if model else None

    def loosened(self) -> Way | None:
        return None

    def item_of(self, part: CutPart) -> int | None:
        shape = self.problem.shape(part)
        return self.model.shapes.index(shape) if shape in self.model.shapes else None

    def search(self, clock: Clock, report: Report, kept_back: float = 0.0) -> SearchResult:
        found = search(Holder(self.model, clock), report)
        return found.keeping(roomiest(self.model, self.model.loads, found.packing, clock))

    def search_plainly(self, clock: Clock) -> SearchResult:
        return search(Holder(self.model, clock), lambda *_: None)

    def arrange(self, packing: Packing) -> tuple[Layout, ...]:
        """Each board with its parts in the shortest line."""
        problem, model = self.problem, self.model
        waiting = Waiting((problem.shape(part), part) for part in problem.parts)
        pieces = {piece.id: piece for piece in problem.stock}

        def run(board: FilledBoard) -> Iterator[Placing]:
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
                for board in sorted(packing.boards, key=in_order)
            ),
        )
