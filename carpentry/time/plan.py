"""The plan of days: when each step is done, by when one must begin, what can wait, and what would
do where a day is missed."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import date, timedelta
from time import monotonic

from carpentry.hours.clock import FIRST_YEAR, MINUTES_A_DAY
from carpentry.hours.windows import Span
from carpentry.language import CarpentryError, Json
from carpentry.time.asked import Days
from carpentry.time.changes import changes_of
from carpentry.time.reasons import Reason, reasons_of
from carpentry.time.remaining import Remaining
from carpentry.time.search import Budget, OutOfTries
from carpentry.time.solve import Solved, can_be_ready, first_answer, solve
from carpentry.time.tasks import DaysProblem, NoRoom, Placed

_TRIES = 20_000  # for one answer of whether something can be
_SHARE = 0.5  # of the time, for when to begin and what can wait
_MOST_BACK = 3_000  # days
_MOST_TOLD = 6


@dataclass(frozen=True)
class PlannedStep:
    """When a step is done (instants), how long it can wait (minutes) without making all of it
    later than it is or is wanted, and whether it cannot at all. ``slack`` is ``None`` for what is
    done. ``spans`` are the stretches in which it is worked on."""

    id: str
    placed: Placed
    slack: int | None
    critical: bool
    spans: tuple[Span, ...] = ()


@dataclass(frozen=True)
class WouldDo:
    """A change of the days, in words; ``take`` is what changes of them as they are asked for, and
    ``ready`` when all is over then."""

    says: str
    ready: int
    take: Json
    days: Days


@dataclass(frozen=True)
class DaysPlan:
    """``ready`` is when the last wait is over, proven where ``exact``, else not before ``bound``.
    ``begin_by`` is when to begin at the latest for what is wanted, ``None`` where nothing is or it
    is not known. ``slack_exact`` where no step can wait longer than it says. ``reasons`` are what
    makes it later."""

    days: Days
    steps: tuple[PlannedStep, ...]
    ready: int
    bound: int
    begin_by: int | None = None
    begin_by_exact: bool = False
    slack_exact: bool = False
    would_do: tuple[WouldDo, ...] = ()
    reasons: tuple[Reason, ...] = ()

    @property
    def exact(self) -> bool:
        return self.bound >= self.ready

    @property
    def late(self) -> int | None:
        """By how much (minutes) what is wanted is missed; ``None`` where nothing is wanted."""
        return None if self.days.wanted is None else max(0, self.ready - self.days.wanted)

    @property
    def gap(self) -> float:
        """How far off the bound is, as a share of the time from now until all is over."""
        whole = self.ready - self.days.start
        return (self.ready - self.bound) / whole if whole > 0 else 0.0


def plan_of_days(days: Days, seconds: float = 3.0) -> DaysPlan:
    """When all is ready at the earliest, and what follows from it. Raises ``CarpentryError`` for
    what cannot be."""
    days.check()
    solved = days.lasting(lambda problem: solve(problem, seconds))
    deadline = monotonic() + seconds * _SHARE
    late = days.wanted is not None and solved.ready > days.wanted
    begin_by, is_exact = _begin_by(days, deadline) if days.wanted is not None else (None, False)
    steps, slack_exact = _slack(days, solved, deadline)
    exact = solved.bound >= solved.ready
    return DaysPlan(
        days,
        _with_spans(days, steps),
        solved.ready,
        min(solved.bound, solved.ready),
        begin_by,
        is_exact,
        slack_exact,
        tuple(_would_do(days, solved.ready, begin_by, seconds)) if late else (),
        tuple(reasons_of(days, solved.ready, exact=exact, deadline=monotonic() + seconds * _SHARE)),
    )


def first_plan_of_days(days: Days) -> DaysPlan:
    """A plan of days at once: what can wait is not known yet. Raises ``CarpentryError``."""
    days.check()
    answer = days.lasting(first_answer)
    placed = answer.placed
    steps = tuple(PlannedStep(one.id, placed[n], None, False) for n, one in enumerate(days.steps))
    ready, bound = answer.ready, min(answer.bound, answer.ready)
    return DaysPlan(days, _with_spans(days, steps), ready, bound)


def _with_spans(days: Days, steps: Iterable[PlannedStep]) -> tuple[PlannedStep, ...]:
    """Steps with the stretches in which they are worked on: one, or the free hours that work which
    goes on from one to the next falls into."""
    found = []
    for one, asked in zip(steps, days.steps, strict=True):
        placed = one.placed
        spans: Iterable[Span] = ((placed.start, placed.end),)
        if asked.may_split and asked.ended is None:
            free = days.free(placed.start, placed.end)
            spans = [
                (max(start, placed.start), min(end, placed.end))
                for start, end in free
                if start < placed.end and end > placed.start
            ] or spans
        found.append(replace(one, spans=tuple(spans)))
    return tuple(found)


def _released(problem: DaysProblem, n: int, release: int) -> DaysProblem:
    tasks = list(problem.tasks)
    tasks[n] = replace(tasks[n], release=release)
    return replace(problem, tasks=tuple(tasks))


def _slack(days: Days, solved: Solved, deadline: float) -> tuple[tuple[PlannedStep, ...], bool]:
    """How long each step can wait, as far as that is found out until the deadline."""
    wanted = days.wanted
    target = solved.ready if wanted is None else max(solved.ready, wanted)
    problem = days.lasting(lambda problem: _reaching(problem, target))
    found, exact = [], True
    for n, one in enumerate(days.steps):
        placed = solved.placed[n]
        if one.ended is not None or one.begun is not None:
            found.append(PlannedStep(one.id, placed, None if one.ended is not None else 0, False))
            continue
        latest, known = _latest_start(problem, n, placed, target, deadline)
        exact = exact and known
        slack = latest - placed.start
        found.append(PlannedStep(one.id, placed, slack, slack == 0 and known))
    return tuple(found), exact


def _reaching(problem: DaysProblem, target: int) -> DaysProblem:
    """The problem, where its calendar reaches a day. Raises ``NoRoom``."""
    if any(not t.calendar.ends or t.calendar.ends[-1] < target for t in problem.tasks):
        raise NoRoom
    return problem


def _latest_start(
    problem: DaysProblem, n: int, placed: Placed, target: int, deadline: float
) -> tuple[int, bool]:
    """When a step begins at the latest for all to be over by ``target``, and whether that is
    known; it can be where it is planned."""
    low, high = placed.start, _alone_by(problem, n, target)
    probes = iter((high, low + 1))
    exact = True
    while low < high:
        probe = next(probes, (low + high + 1) // 2)
        if monotonic() > deadline:
            return low, False
        try:
            can = can_be_ready(_released(problem, n, probe), target, Budget(_TRIES, deadline))
        except OutOfTries:
            can = exact = False
        if can:
            low = max(low, probe)
        else:
            high = min(high, probe - 1)
    return low, exact


def _alone_by(problem: DaysProblem, n: int, target: int) -> int:
    """When a step begins at the latest, were it alone with what comes after it."""
    left = Remaining(problem)
    found = left.latest(target)
    k = left.ids.index(n)
    return found[0][k] if found else left.heads[k]


def _begin_by(days: Days, deadline: float) -> tuple[int | None, bool]:
    """When to begin (to go on, with what is done) at the latest for all to be over when it is
    wanted, and whether later is known to be too late."""
    wanted = days.wanted
    assert wanted is not None
    done = max((one.ended for one in days.steps if one.ended is not None), default=None)
    begun = [one.begun for one in days.steps if one.begun is not None and one.ended is None]
    if begun:  # it is under way
        return None, False
    last = days.zone.day(wanted)
    back = 7 + days.whole // MINUTES_A_DAY
    while True:
        first = _earlier(last, back)
        start = days.zone.midnight(first)
        start = start if done is None else max(start, done)
        problem = replace(days, start=start).problem(first - timedelta(days=1), last)
        latest = _all_alone_by(problem, wanted)
        if latest is not None:
            found, exact = _latest_begin(problem, start, latest, wanted, deadline)
            if found is not None or start == done:
                return found, exact
        elif start == done:
            return None, True
        if back > _MOST_BACK or monotonic() > deadline:
            return None, False
        back *= 3


def _latest_begin(
    problem: DaysProblem, low: int, high: int, wanted: int, deadline: float
) -> tuple[int | None, bool]:
    """The latest beginning from ``low`` to ``high`` from which all is over when it is wanted."""
    found, exact = None, True
    probes = iter((high, low))
    while low <= high:
        probe = next(probes, (low + high) // 2)
        try:
            can = can_be_ready(
                replace(problem, start=probe),
                wanted,
                Budget(_TRIES, max(deadline, monotonic() + 0.05)),
            )
        except OutOfTries:
            can = exact = False
        if can:
            found, low = probe, probe + 1
        elif probe == low:
            break
        else:
            high = probe - 1
    return found, exact


def _all_alone_by(problem: DaysProblem, wanted: int) -> int | None:
    """When the first step begins at the latest, were each alone with what comes after it."""
    try:
        left = Remaining(problem)
    except NoRoom:
        return None
    found = left.latest(wanted)
    return min(found[0], default=wanted) if found else None


def _earlier(day: date, days: int) -> date:
    return max(date(FIRST_YEAR, 1, 3), day - timedelta(days=min(days, _MOST_BACK * 3)))


def _would_do(days: Days, ready: int, begin_by: int | None, seconds: float) -> list[WouldDo]:
    """The changes that make it ready earlier, each worked out anew: first those by which it is
    ready when it is wanted."""
    wanted = days.wanted
    assert wanted is not None
    found: list[WouldDo] = []
    deadline = monotonic() + seconds
    for way in changes_of(days, ready, begin_by):
        for says, take, changed in way:  # one goes further than the one before
            if monotonic() > deadline:
                break
            try:
                then = changed.lasting(lambda problem: solve(problem, seconds / 10)).ready
            except CarpentryError:
                break
            if then < ready:
                found.append(WouldDo(says, then, take, changed))
                if then <= wanted:
                    break
    return sorted(found, key=lambda one: max(one.ready, wanted))[:_MOST_TOLD]
