"""One order of hands-on tasks, each begun as early as it can be."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from carpentry.time.tasks import DaysProblem, NoRoom, Placed, Task


@dataclass(frozen=True)
class Hold:
    """Clamps that are held until an instant."""

    until: int
    clamps: int


def place(
    problem: DaysProblem, task: Task, at: int, holds: Iterable[Hold]
) -> tuple[Placed, Hold | None]:
    """When a task is done that begins no earlier than ``at``, beside clamps that are held. Raises
    ``NoRoom``."""
    here, calendar = task.here, task.calendar
    while True:
        if task.may_split:
            span = calendar.earliest_split(at, task.minutes)
            if span is None:
                raise NoRoom
            start, end = span
        else:
            found = calendar.earliest(at, here)
            if found is None:
                raise NoRoom
            start, end = found, found + task.minutes
        if not task.clamps or problem.clamps is None:
            break
        later = _clamps_free(problem.clamps - task.clamps, start, holds)
        if later <= start:
            break
        at = later
    over = end + task.wait.minutes if task.stays else problem.drying.over(end, task.wait)
    if not task.clamps:
        return Placed(start, end, over), None
    return Placed(start, end, over), Hold(problem.drying.over(end, task.held), task.clamps)


def _clamps_free(spare: int, start: int, holds: Iterable[Hold]) -> int:
    """When no more than ``spare`` clamps are held, from ``start`` on."""
    held = sorted((one.until, one.clamps) for one in holds if one.until > start)
    used = sum(clamps for _, clamps in held)
    for until, clamps in held:
        if used <= spare:
            break
        used -= clamps
        start = until
    return start


def fixed(problem: DaysProblem) -> dict[int, tuple[Placed, Hold | None]]:
    """The tasks that are done, as they were, and those that were begun, which are gone on with
    first, in the order in which they were begun. Raises ``NoRoom``."""
    found: dict[int, tuple[Placed, Hold | None]] = {}
    begun: list[tuple[int, int]] = []
    for n, task in enumerate(problem.tasks):
        if task.ended is not None:
            start = task.ended - task.minutes if task.begun is None else task.begun
            over = problem.drying.over(task.ended, task.wait)
            if task.over is not None:
                over = task.over
            until = min(over, problem.drying.over(task.ended, task.held))
            hold = Hold(until, task.clamps) if task.clamps else None
            found[n] = Placed(min(start, task.ended), task.ended, over), hold
        elif task.begun is not None:
            begun.append((task.begun, n))
    at = problem.start
    for when, n in sorted(begun):
        task = problem.tasks[n]
        placed, hold = _going_on(problem, task, when, at)
        found[n] = placed, hold
        at = placed.end + (task.wait.minutes if task.stays else 0)
    return found


def _going_on(problem: DaysProblem, task: Task, begun: int, now: int) -> tuple[Placed, Hold | None]:
    """A task that was begun: what was worked on it since in free hours counts."""
    worked = task.calendar.free_before(problem.start) - task.calendar.free_before(begun)
    left = max(0, task.minutes - worked)
    end = now
    if left:
        span = task.calendar.earliest_split(now, left)
        if span is None:
            raise NoRoom
        end = span[1]
    over = problem.drying.over(end, task.wait)
    hold = Hold(problem.drying.over(end, task.held), task.clamps) if task.clamps else None
    return Placed(min(begun, end), end, over), hold


def place_in_order(problem: DaysProblem, order: Sequence[int]) -> dict[int, Placed]:
    """When every task is done, those that are not begun in this order of their beginnings. Raises
    ``NoRoom``."""
    known = fixed(problem)
    found = {n: placed for n, (placed, _) in known.items()}
    holds = [hold for _, hold in known.values() if hold]
    at = free_of_begun(problem, found)
    for n in order:
        task = problem.tasks[n]
        ready = max(
            [at, *(found[one].free_from for one in task.after if one in found)]
            + ([task.release] if task.release is not None else [])
        )
        placed, hold = place(problem, task, ready, holds)
        found[n] = placed
        if hold:
            holds.append(hold)
        at = placed.end + (task.wait.minutes if task.stays else 0)
    return found


def without_room(problem: DaysProblem) -> int | None:
    """The first task for which there is no room on the calendar, were all done in the order of the
    problem; ``None`` where there is room for all."""
    order: list[int] = []
    begun = [n for n, t in enumerate(problem.tasks) if t.ended is not None or t.begun is not None]
    for n in (one for one in problem.in_order if one not in begun):
        order.append(n)
        try:
            place_in_order(problem, order)
        except NoRoom:
            return n
    return None


def free_of_begun(problem: DaysProblem, known: dict[int, Placed]) -> int:
    """From when on the builder is free: now, or when what was begun is done."""
    going = [n for n in known if problem.tasks[n].ended is None]
    return max(
        [problem.start]
        + [
            known[n].end + (problem.tasks[n].wait.minutes if problem.tasks[n].stays else 0)
            for n in going
        ]
    )


def ready_at(problem: DaysProblem, placed: dict[int, Placed]) -> int:
    """When the last wait is over; now where there is nothing."""
    return max((one.free_from for one in placed.values()), default=problem.start)
