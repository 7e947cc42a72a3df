"""After a small change: of equal purchases the one that leaves most boards as they were."""

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import replace
from time import monotonic

from carpentry.cutting.holding import Holder
from carpentry.cutting.line import Line
from carpentry.cutting.model import Board, Packing
from carpentry.cutting.plan import CutPlan, Layout
from carpentry.cutting.problem import CutProblem
from carpentry.cutting.search import search

_MOST_TRIES = 12
_SECONDS = 0.25


def keep_boards(problem: CutProblem, line: Line, plan: CutPlan, before: CutPlan) -> Packing | None:
    """Boards that cost what ``plan`` does, with more of those of ``before``; ``None`` where a few
    tries find none."""
    now = Counter(_boards(problem, line, plan))
    known = _still_good(line, _boards(problem, line, before))
    common = list((now & Counter(known)).elements())
    target = sum(u.quantity for u in plan.unplaced), _cost(line, now.elements()), now.total()
    others = Counter(known) - now
    if not others:
        return None
    best: Packing | None = None
    kept = common
    tries = [known, *([board] * n for board, n in others.items())][:_MOST_TRIES]
    deadline = monotonic() + _SECONDS
    for number, more in enumerate(tries):
        if monotonic() > deadline:
            break
        wanted = more if number == 0 else [*kept, *more]
        found = _around(line, wanted, deadline)
        if found and found.key(line) == target:
            best, kept = found, wanted
            if number == 0:
                break
    return best


def _cost(line: Line, boards: Iterable[Board]) -> int:
    return sum(line.sources[board.source].cost for board in boards)


def _boards(problem: CutProblem, line: Line, plan: CutPlan) -> list[Board]:
    """The boards of a plan in the line's numbers, but those that hold what is no longer wanted like
    that."""
    items = {shape: number for number, shape in enumerate(line.shapes)}
    parts = {part.id: part for part in problem.parts}
    sources = {source.stock: number for number, source in enumerate(line.sources)}

    def board(layout: Layout) -> Board | None:
        pattern = [0] * len(line.shapes)
        for placed in layout.parts:
            part = parts.get(placed.part)
            if part is None or placed.end - placed.start != part.sawn_length:
                return None
            shape = problem.shape(part)
            if shape not in items:
                return None
            pattern[items[shape]] += 1
        source = sources.get(layout.stock)
        if source is None or not line.fits(source, tuple(pattern)):
            return None
        return Board(source, tuple(pattern))

    found = ((board(layout), layout.count) for layout in plan.layouts)
    return [one for one, count in found if one for _ in range(count)]


def _still_good(line: Line, boards: Sequence[Board]) -> list[Board]:
    """As many of the boards as there is demand and stock for."""
    left = list(line.demand)
    free = [source.limit for source in line.sources]
    kept = []
    for board in boards:
        if free[board.source] and all(n <= r for n, r in zip(board.pattern, left, strict=True)):
            kept.append(board)
            free[board.source] -= 1
            left = [r - n for r, n in zip(left, board.pattern, strict=True)]
    return kept


def _around(line: Line, kept: Sequence[Board], deadline: float) -> Packing | None:
    """The kept boards, and the cheapest ones for the rest; ``None`` where they are too many."""
    left = list(line.demand)
    free = [source.limit for source in line.sources]
    for board in kept:
        free[board.source] -= 1
        left = [r - n for r, n in zip(left, board.pattern, strict=True)]
    if min(left, default=0) < 0 or min(free, default=0) < 0:
        return None
    if not any(left):
        return Packing(tuple(kept), tuple(left))
    sources = tuple(
        replace(source, limit=limit) for source, limit in zip(line.sources, free, strict=True)
    )
    rest = replace(line, demand=tuple(left), sources=sources)
    found = search(Holder(rest, deadline), lambda *_: None).packing
    return Packing((*kept, *found.boards), found.missing)
