"""After a small change: of equal purchases the one that leaves most boards as they were."""

from collections import Counter
from collections.abc import Callable, Iterable
from dataclasses import replace

from carpentry.cutting.check import layout_faults
from carpentry.cutting.layouts import put_together
from carpentry.cutting.plan import CutPlan, Layout
from carpentry.cutting.problem import CutProblem
from carpentry.cutting.sawing import with_cuts
from carpentry.cutting.search.clock import Clock

_MOST_TRIES = 12

Replan = Callable[[CutProblem, Clock], CutPlan]
Alike = tuple[str, tuple[str, ...]]  # a board's stock and its parts, in whatever order


def keep_boards(
    problem: CutProblem, plan: CutPlan, before: CutPlan, replan: Replan, clock: Clock
) -> tuple[Layout, ...] | None:
    """Boards that cost what ``plan`` does, with more of those of ``before``, which stay just as
    they were; ``None`` where a few tries find none. ``replan`` plans the rest until time is up."""
    known = _still_good(problem, before)
    now = Counter(map(_alike, _singly(plan.layouts)))
    others = _beyond(now, known)
    if not others:
        return None
    kept = [board for board in known if board not in others]
    every = [known, *_by_kind(others)][:_MOST_TRIES]
    best: tuple[Layout, ...] | None = None
    for number, more in enumerate(every):
        if clock.is_over:
            break
        wanted = more if number == 0 else [*kept, *more]
        found = _around(problem, wanted, plan, replan, clock)
        if found is not None and _kept(found, before) > _kept(best or plan.layouts, before):
            best, kept = found, wanted
            if number == 0:
                break
    return best


def _kept(layouts: Iterable[Layout], before: CutPlan) -> int:
    """How many boards are as they were."""
    boards = (Counter(map(_alike, _singly(some))) for some in (layouts, before.layouts))
    return (next(boards) & next(boards)).total()


def _alike(board: Layout) -> Alike:
    return board.stock, tuple(sorted(placed.part for placed in board.parts))


def _singly(layouts: Iterable[Layout]) -> list[Layout]:
    """Every board as a layout of its own."""
    return [replace(layout, count=1) for layout in layouts for _ in range(layout.count)]


def _beyond(now: Counter[Alike], known: list[Layout]) -> list[Layout]:
    """The known boards that a plan has not, or not so many of."""
    left = now.copy()
    others = []
    for board in known:
        if left[_alike(board)] > 0:
            left[_alike(board)] -= 1
        else:
            others.append(board)
    return others


def _by_kind(boards: list[Layout]) -> list[list[Layout]]:
    kinds: dict[Alike, list[Layout]] = {}
    for board in boards:
        kinds.setdefault(_alike(board), []).append(board)
    return list(kinds.values())


def _still_good(problem: CutProblem, before: CutPlan) -> list[Layout]:
    """As many of the boards there were as can still be cut, and there is demand and stock for."""
    wanted = Counter({part.id: part.quantity for part in problem.parts})
    free = {piece.id: piece.available for piece in problem.stock}
    kept = []
    for layout in before.layouts:
        if layout.stock not in free or any(one.part not in wanted for one in layout.parts):
            continue
        sawn = with_cuts(problem, layout)
        if layout_faults(problem, sawn):
            continue
        held = Counter(placed.part for placed in layout.parts)
        for board in _singly([sawn]):
            available = free[layout.stock]
            if available == 0 or not held <= wanted:
                break
            kept.append(board)
            wanted -= held
            free[layout.stock] = None if available is None else available - 1
    return kept


def _around(
    problem: CutProblem, kept: list[Layout], plan: CutPlan, replan: Replan, clock: Clock
) -> tuple[Layout, ...] | None:
    """The kept boards and the cheapest for the rest, when they cost what a plan does and are no
    more."""
    held = Counter(placed.part for board in kept for placed in board.parts)
    used = Counter(board.stock for board in kept)
    rest = replace(
        problem,
        parts=tuple(
            replace(part, quantity=part.quantity - held[part.id])
            for part in problem.parts
            if part.quantity > held[part.id]
        ),
        stock=tuple(
            piece
            if piece.available is None
            else replace(piece, available=piece.available - used[piece.id])
            for piece in problem.stock
        ),
    )
    if any(part.quantity < held[part.id] for part in problem.parts) or any(
        piece.available is not None and piece.available < used[piece.id] for piece in problem.stock
    ):
        return None
    layouts = replan(rest, clock).layouts if rest.parts else ()
    together = [*kept, *_singly(layouts)]
    placed = sum(len(board.parts) for board in together)
    now = sum(layout.count * len(layout.parts) for layout in plan.layouts)
    costs = problem.price_of(Counter(board.stock for board in together))
    if (placed, costs, len(together)) != (now, plan.price, plan.pieces_of_stock):
        return None
    return put_together(problem, together)
