"""What is still to be done of a problem, as plain numbers for the search."""

from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from dataclasses import dataclass, replace

from carpentry.hours.windows import Calendar
from carpentry.time.clamping import rules_for
from carpentry.time.placing import fixed, free_of_begun
from carpentry.time.tasks import DaysProblem, NoRoom

Holds = tuple[tuple[int, int], ...]  # until when, how many clamps


@dataclass(frozen=True)
class Now:
    """Where one stands after some tasks: the builder is free from ``at`` on; tasks that follow may
    not begin before ``rel``; clamps are held."""

    at: int
    rel: tuple[int, ...]
    holds: Holds


class Remaining:
    """The tasks of a problem that are not begun, renumbered; times are instants."""

    def __init__(self, problem: DaysProblem) -> None:
        known = fixed(problem)
        self.problem = problem
        self.ids = [n for n in problem.in_order if n not in known]
        place = {n: k for k, n in enumerate(self.ids)}
        self.tasks = [problem.tasks[n] for n in self.ids]
        self.count = len(self.ids)
        self.after = [sorted({place[n] for n in t.after if n in place}) for t in self.tasks]
        self.followers: list[list[int]] = [[] for _ in self.tasks]
        for k, before in enumerate(self.after):
            for one in before:
                self.followers[one].append(k)
        self.here = [t.here for t in self.tasks]
        self.clamps = [t.clamps if problem.clamps is not None else 0 for t in self.tasks]
        self.owned = problem.clamps if problem.clamps is not None else 0
        self.fits = [t.calendar.fits(t.here) for t in self.tasks]
        self._drying = problem.drying
        self._steady = [
            t.wait.minutes if self._is_steady(k) else -1 for k, t in enumerate(self.tasks)
        ]
        at = free_of_begun(problem, {n: placed for n, (placed, _) in known.items()})
        rel = [
            max(
                [at if t.release is None else max(at, t.release)]
                + [known[n][0].free_from for n in t.after if n in known]
            )
            for t in self.tasks
        ]
        holds = tuple(
            (hold.until, hold.clamps) for _, hold in known.values() if hold and hold.until > at
        )
        self.begin = Now(at, tuple(rel), holds if problem.clamps is not None else ())
        self.ready_so_far = max([problem.start, *(p.free_from for p, _ in known.values())])
        self.followed = [(k, 1 << k) for k in range(self.count) if self.after[k]]
        kinds: dict[tuple[object, ...], int] = {}
        self.alike = [kinds.setdefault(self._signature(k), k) for k in range(self.count)]
        self.widest = Calendar(span for t in self.tasks for span in t.calendar.spans)
        self.clamped = [
            k for k in range(self.count) if self.clamps[k] and not self.tasks[k].may_split
        ]
        self.rules = [
            (rule, [self.clamped[n] for n in about])
            for rule, about in rules_for(
                [(self.clamps[k], self._least_hold(k)) for k in self.clamped],
                self.owned,
                self.widest,
            )
        ]
        self.heads = self.heads_from(rel)
        self.begin = replace(self.begin, rel=tuple(self.heads))

    def _is_steady(self, k: int) -> bool:
        wait = self.tasks[k].wait
        return self.tasks[k].stays or wait.minutes == wait.slow or self._drying.is_steady

    def start(self, k: int, at: int, holds: Holds) -> tuple[int, int]:
        """When a task begins and ends (hands-on) that begins no earlier than ``at``. Raises
        ``NoRoom``."""
        task, here, clamps = self.tasks[k], self.here[k], self.clamps[k]
        starts, ends = self.fits[k]
        while True:
            if task.may_split:
                span = task.calendar.earliest_split(at, task.minutes)
                if span is None:
                    raise NoRoom
                start, end = span
            else:
                n = bisect_left(ends, at + here)
                if n == len(ends):
                    raise NoRoom
                start = at if at > starts[n] else starts[n]
                end = start + task.minutes
            if not clamps:
                return start, end
            spare = self.owned - clamps
            used = 0
            for until, held in holds:
                if until > start:
                    used += held
            if used <= spare:
                return start, end
            later = start
            for until, held in sorted(holds):
                if until > start:
                    used -= held
                    later = until
                    if used <= spare:
                        break
            at = later

    def over(self, k: int, end: int) -> int:
        """When its wait is over."""
        steady = self._steady[k]
        if steady >= 0:
            return end + steady
        return self._drying.over(end, self.tasks[k].wait)

    def held(self, k: int, end: int) -> int:
        """Until when its clamps are held."""
        return self._drying.over(end, self.tasks[k].held)

    def busy(self, k: int, end: int) -> int:
        """Until when the builder is there."""
        return end + (self.tasks[k].wait.minutes if self.tasks[k].stays else 0)

    def through(self, k: int, end: int) -> int:
        """From when on the builder is free and its clamps are, when anything can begin."""
        busy = self.busy(k, end)
        return max(busy, self._free(self.held(k, end))) if self.clamps[k] else busy

    def step(self, now: Now, k: int, start: int, end: int) -> Now:
        """Where one stands after a task that begins and ends then."""
        over = self.over(k, end)
        rel = now.rel
        if self.followers[k]:
            later = list(rel)
            for one in self.followers[k]:
                if over > later[one]:
                    later[one] = self.next(one, over)
            rel = tuple(later)
        holds = now.holds
        if self.clamps[k]:
            kept = [one for one in holds if one[0] > start]
            holds = (*kept, (self._free(self.held(k, end)), self.clamps[k]))
        return Now(self.busy(k, end), rel, holds)

    def next(self, k: int, after: int) -> int:
        """When a task can begin at the earliest after an instant."""
        if self.tasks[k].may_split:
            return self._free(after)
        starts, ends = self.fits[k]
        n = bisect_left(ends, after + self.here[k])
        if n == len(ends):
            raise NoRoom
        return after if after > starts[n] else starts[n]

    def _free(self, after: int) -> int:
        """When anything can begin at the earliest after an instant."""
        ends = self.widest.ends
        n = bisect_left(ends, after)
        return after if n == len(ends) else max(after, self.widest.starts[n])

    def heads_from(self, least: Sequence[int]) -> list[int]:
        """When each task can begin at the earliest, not before ``least``, were it alone. Raises
        ``NoRoom``."""
        heads = [0] * self.count
        overs = [0] * self.count
        for k in range(self.count):
            at = least[k]
            for one in self.after[k]:
                at = max(at, overs[one])
            heads[k], end = self.start(k, at, self.begin.holds)
            overs[k] = self.over(k, end)
        return heads

    def latest(self, limit: int) -> tuple[list[int], list[int]] | None:
        """When each task begins, and is left, at the latest for all to be over by ``limit``, were
        it alone; ``None`` where that is before it can."""
        found, ends_by = [0] * self.count, [0] * self.count
        for k in reversed(range(self.count)):
            task, by = self.tasks[k], limit
            for one in self.followers[k]:
                by = min(by, found[one])
            start: int | None
            if task.may_split:
                by = self._begun_by(k, by)
                start = task.calendar.latest_split(by, task.minutes)
                ends_by[k] = by
            else:
                by = by if task.stays else self._begun_by(k, by)
                starts, ends = self.fits[k]
                n = bisect_right(starts, by - self.here[k]) - 1
                start = None if n < 0 else min(by, ends[n]) - self.here[k]
            if start is None or start < self.heads[k]:
                return None
            found[k] = start
            if not task.may_split:
                ends_by[k] = start + self.here[k]
        return found, ends_by

    def _begun_by(self, k: int, end: int) -> int:
        steady = self._steady[k]
        return end - steady if steady >= 0 else self._drying.begun_by(end, self.tasks[k].wait)

    def ready(self, order: Sequence[int]) -> int:
        """When the last wait is over in an order of beginnings. Raises ``NoRoom``."""
        now, ready = self.begin, self.ready_so_far
        for k in order:
            start, end = self.start(k, max(now.at, now.rel[k]), now.holds)
            ready = max(ready, self.over(k, end))
            now = self.step(now, k, start, end)
        return ready

    def _signature(self, k: int) -> tuple[object, ...]:
        """What makes two tasks alike: in any order the one or the other is the same."""
        task = self.tasks[k]
        return (
            *(task.minutes, task.wait, task.stays, task.held, task.may_split, task.clamps),
            *(id(task.calendar), self.begin.rel[k], tuple(self.after[k]), tuple(self.followers[k])),
        )

    def _least_hold(self, k: int) -> int:
        """For how long it holds its clamps at least, from its beginning on (minutes)."""
        task = self.tasks[k]
        return task.minutes + min(task.held.minutes, task.held.slow)
