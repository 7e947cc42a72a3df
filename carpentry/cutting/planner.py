"""The way from a cut problem to a checked plan."""

from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass
from time import monotonic

from carpentry.cutting.check import check_plan
from carpentry.cutting.first_fit import Board, Packing, best_first_fit
from carpentry.cutting.line import Line, to_line
from carpentry.cutting.plan import CutPlan, Layout, Status, Unplaced, lay_out
from carpentry.cutting.problem import CutPart, CutProblem
from carpentry.cutting.search import search
from carpentry.length import Notation, Unit, write_length


@dataclass(frozen=True)
class Budget:
    """``seconds`` after which the best plan so far is returned with its proven bound."""

    seconds: float = 10.0


Progress = Callable[[CutPlan], None]


def plan_cuts(
    problem: CutProblem, budget: Budget | None = None, progress: Progress | None = None
) -> CutPlan:
    """The plan that places most parts at the least price from the fewest pieces of stock.

    It is ``optimal`` when price and pieces are proven least. Parts without a place are listed with
    the reason; the rest is planned. ``progress`` is told every better plan on the way. The plan is
    replayed by ``check_plan`` before it is returned. The same problem gives the same plan, unless
    time runs out.
    """
    deadline = monotonic() + (budget or Budget()).seconds
    line = to_line(problem)

    def report(packing: Packing, bound: int) -> None:
        if progress:
            progress(_checked(problem, line, packing, proven=False, bound=bound))

    found = search(line, deadline, report)
    return _checked(problem, line, found.packing, proven=found.proven, bound=found.bound)


def first_plan(problem: CutProblem) -> CutPlan:
    """A plan at once, by first-fit decreasing, without any proof."""
    line = to_line(problem)
    return _checked(problem, line, best_first_fit(line), proven=False, bound=0)


def _checked(
    problem: CutProblem, line: Line, packing: Packing, *, proven: bool, bound: int
) -> CutPlan:
    layouts = _arrange(problem, line, packing)
    unplaced = _unplaced(problem, layouts)
    cost = packing.key(line)[1]
    status = Status.INCOMPLETE if unplaced else Status.OPTIMAL if proven else Status.FEASIBLE
    plan = CutPlan(
        status,
        price=line.price(cost),
        bound=line.price(cost if proven else min(bound, cost)),
        layouts=layouts,
        unplaced=unplaced,
    )
    check_plan(problem, plan)
    return plan


def _arrange(problem: CutProblem, line: Line, packing: Packing) -> tuple[Layout, ...]:
    """Boards in the order of the stock, longest parts first, equal ones together."""
    waiting: dict[int, list[CutPart]] = {}
    for part in problem.parts:
        waiting.setdefault(part.length, []).extend([part] * part.quantity)
    pieces = {piece.id: piece for piece in problem.stock}

    def order(board: Board) -> tuple[int, tuple[int, ...]]:
        return board.source, tuple(-n for n in board.pattern)

    layouts: Counter[Layout] = Counter()
    for board in sorted(packing.boards, key=order):
        parts: list[CutPart] = []
        for length, copies in zip(line.lengths, board.pattern, strict=True):
            parts += waiting[length][:copies]
            del waiting[length][:copies]
        layouts[lay_out(problem, pieces[line.sources[board.source].stock], parts)] += 1
    return tuple(
        Layout(layout.stock, count, layout.parts, layout.leftover)
        for layout, count in layouts.items()
    )


def _unplaced(problem: CutProblem, layouts: tuple[Layout, ...]) -> tuple[Unplaced, ...]:
    placed: Counter[str] = Counter()
    for layout in layouts:
        for part in layout.parts:
            placed[part.part] += layout.count
    return tuple(
        Unplaced(part.id, part.quantity - placed[part.id], _reason(problem, part))
        for part in problem.parts
        if part.quantity > placed[part.id]
    )


def _reason(problem: CutProblem, part: CutPart) -> str:
    notation = Notation.MM if problem.unit is Unit.MM else Notation.SIXTY_FOURTHS

    def written(ticks: int) -> str:
        return write_length(ticks, notation).text

    stock = [piece for piece in problem.stock if piece.available != 0]
    if not stock:
        return "there is no stock to cut it from"
    longest = max(stock, key=lambda piece: piece.length)
    sound = problem.sound_length(longest)
    if sound <= 0:
        return "the trims take all of every piece of stock"
    if part.length > sound:
        trims = problem.trim_start + problem.trim_end
        left = f", {written(sound)} after trimming" if trims else ""
        return (
            f"{written(part.length)} misses the longest stock, {written(longest.length)}{left}, "
            f"by {written(part.length - sound)}"
        )
    return "every piece of stock that is long enough is used up"
