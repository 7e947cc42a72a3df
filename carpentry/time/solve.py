"""When all is ready at the earliest: a first answer at once, then a proof, or how far off it may
be."""

from contextlib import suppress
from dataclasses import dataclass
from random import Random
from time import monotonic

from carpentry.time.bounds import least_ready
from carpentry.time.placing import place_in_order, ready_at
from carpentry.time.remaining import Remaining
from carpentry.time.search import Budget, OutOfTries, Search, by_latest
from carpentry.time.tasks import DaysProblem, NoRoom, Placed

_HOME = 24  # tasks, up to which proofs are looked for at once
_WIDTH, _FINE = 20, 200
_FOR_FEW = 0.2  # of the time, for a better first answer where a project is large
IMPROVEMENTS = 300
_FIRST_TRIES, _HOME_TRIES, MOST_TRIES = 2_000, 64_000, 1_000_000
_SEED = 7  # the same problem has the same answer


@dataclass(frozen=True)
class Solved:
    """When every task is done, when all is over, and before when it cannot be."""

    placed: dict[int, Placed]
    ready: int
    bound: int

    @property
    def is_exact(self) -> bool:
        return self.bound >= self.ready


def first_answer(problem: DaysProblem) -> Solved:
    """A good answer at once. Raises ``NoRoom``."""
    left = Remaining(problem)
    order, ready = _first(left)
    return _solved(problem, left, order, least_ready(left, ready))


def solve(problem: DaysProblem, seconds: float = 1.0) -> Solved:
    """The earliest answer that is found, proven where its bound is met. Raises ``NoRoom``."""
    deadline = monotonic() + seconds
    left = Remaining(problem)
    order, ready = _first(left)
    bound = least_ready(left, ready)
    order, ready = _improved(left, order, ready, bound, Budget(IMPROVEMENTS, deadline))
    if left.count > _HOME:
        budget = Budget(MOST_TRIES, monotonic() + seconds * _FOR_FEW)
        order, ready = _among_few(left, (order, ready), bound, _WIDTH, budget)
    just_before, half_way = Search(left), Search(left)
    size = _FIRST_TRIES if left.count > _HOME else _HOME_TRIES  # mostly enough for a proof
    while bound < ready and size < MOST_TRIES and monotonic() < deadline:
        for search, limit, tries in (
            (just_before, ready - 1, size),
            (half_way, (bound + ready) // 2, size // 2),
        ):
            try:
                better = search.order_by(limit, Budget(tries, deadline))
            except OutOfTries:
                continue
            if better is None:
                bound = limit + 1
            else:
                order, ready = better, left.ready(better)
            break
        else:
            size *= 2
    return _solved(problem, left, order, bound)


def _among_few(
    left: Remaining, best: tuple[list[int], int], bound: int, width: int, budget: Budget
) -> tuple[list[int], int]:
    """A better order, if one is found among few states of every depth."""
    order, ready = best
    search, low = Search(left), bound
    fine = max(1, (ready - left.begin.at) // _FINE)
    with suppress(OutOfTries):
        while ready - low > fine:
            limit = (low + ready) // 2
            better = search.among(limit, width, budget)
            if better is None:
                low = limit + 1
            else:
                order, ready = better, left.ready(better)
    return order, ready


def can_be_ready(problem: DaysProblem, limit: int, budget: Budget) -> bool:
    """Whether all can be over by a limit. Raises ``OutOfTries``."""
    try:
        left = Remaining(problem)
    except NoRoom:
        return False
    return Search(left).order_by(limit, budget) is not None


def _solved(problem: DaysProblem, left: Remaining, order: list[int], bound: int) -> Solved:
    placed = place_in_order(problem, [left.ids[k] for k in order])
    return Solved(placed, ready_at(problem, placed), bound)


def _first(left: Remaining) -> tuple[list[int], int]:
    """The best of a few orders by rule. Raises ``NoRoom``."""
    order = list(range(left.count))
    ready = left.ready(order)
    for keen in (True, False, True):
        found = left.latest(ready)
        if found is None:  # all was over before
            break
        for weighed in (
            found[0],
            [end - here for end, here in zip(found[1], left.here, strict=True)],
        ):
            other = by_latest(left, weighed, keen=keen)
            then = left.ready(other)
            if then < ready:
                order, ready = other, then
    return order, ready


def _improved(
    left: Remaining, order: list[int], ready: int, bound: int, budget: Budget
) -> tuple[list[int], int]:
    """A better order, if one is found by putting tasks elsewhere."""
    random = Random(_SEED)
    best, best_ready = order, ready
    while budget.is_left and best_ready > bound:
        budget.tries -= 1
        moved = list(best)
        for _ in range(random.choice((1, 1, 2))):
            k = moved.pop(random.randrange(len(moved)))
            low = max((moved.index(one) + 1 for one in left.after[k]), default=0)
            high = min((moved.index(one) for one in left.followers[k]), default=len(moved))
            moved.insert(random.randint(low, high), k)
        try:
            then = left.ready(moved)
        except NoRoom:
            continue
        if then <= best_ready:
            best, best_ready = moved, then
    return best, best_ready
