"""Branch and bound over the order in which hands-on tasks begin, each as early as it can.

For clamps that are held from a task's beginning on, beginning the tasks of an order as early as
they can is never worse for any of them; so the orders are all there is to search.
"""

from bisect import bisect_left, bisect_right
from dataclasses import dataclass, field
from time import monotonic

from carpentry.time.clamping import Rule
from carpentry.time.remaining import Now, Remaining
from carpentry.time.tasks import NoRoom

_MOST_STATES = 64  # that are remembered of one set of tasks
_MOST_RULES = 3  # of clamps, that are looked at at every try
_NEVER = 1 << 60
_LOOK = 64  # tries between two looks at the clock


class OutOfTries(Exception):
    """The search was given up before it knew."""


@dataclass
class Budget:
    """How many tries are left, and when (``monotonic`` seconds) to give up at the latest."""

    tries: int
    deadline: float

    def spend(self) -> None:
        """Raises ``OutOfTries``."""
        self.tries -= 1
        if self.tries < 0 or (self.tries % _LOOK == 0 and monotonic() > self.deadline):
            raise OutOfTries

    @property
    def is_left(self) -> bool:
        return self.tries > 0 and monotonic() < self.deadline


def by_latest(left: Remaining, latest: list[int], *, keen: bool = True) -> list[int]:
    """An order in which the task that must begin soonest goes first, of those that can begin
    before any other could be done (of all that wait for nothing, where not ``keen``). Raises
    ``NoRoom``."""
    now, order, missing = left.begin, [], [len(one) for one in left.after]
    open_ = [k for k in range(left.count) if not missing[k]]
    while open_:
        spans = {k: left.start(k, max(now.at, now.rel[k]), now.holds) for k in open_}
        soonest = min(left.busy(k, end) for k, (_, end) in spans.items())
        pick = min(
            (k for k in open_ if not keen or spans[k][0] < soonest or spans[k][1] <= soonest),
            key=lambda k: (latest[k], spans[k][0], k),
        )
        now = left.step(now, pick, *spans[pick])
        order.append(pick)
        open_.remove(pick)
        for one in left.followers[pick]:
            missing[one] -= 1
            if not missing[one]:
                open_.append(one)
    return order


@dataclass
class Search:
    """Looks for an order in which all is over by a limit, or refutes that there is one. What it
    refuted it remembers: for an earlier limit it is refuted as well."""

    left: Remaining
    budget: Budget = field(default_factory=lambda: Budget(0, 0))
    _limit: int = 0
    _known: dict[int, list[tuple[int, ...]]] = field(default_factory=dict)
    _latest: list[int] = field(default_factory=list)
    _rules: list[tuple[Rule, list[tuple[int, int, int]]]] = field(default_factory=list)
    _due: list[tuple[int, int, int]] = field(default_factory=list)

    def order_by(self, limit: int, budget: Budget) -> list[int] | None:
        """An order that is over by then; ``None`` where there is none. Raises ``OutOfTries``."""
        left, self.budget = self.left, budget
        if limit > self._limit:
            self._known.clear()
        self._limit = limit
        missing = [len(one) for one in left.after]
        order: list[int] = []
        return order if self._aim(limit) and self._go(left.begin, 0, missing, order) else None

    def _aim(self, limit: int) -> bool:
        """Makes it ready to look for what is over by a limit, unless that cannot be."""
        left = self.left
        found = left.latest(limit)
        if found is None or left.ready_so_far > limit:
            return False
        self._latest, ends = found
        before = left.widest.free_before
        by_end = sorted(range(left.count), key=lambda k: (ends[k], k))
        self._due = [(before(ends[k]), 1 << k, k) for k in by_end]
        self._rules = self._tight_rules()
        return True

    def among(self, limit: int, width: int, budget: Budget) -> list[int] | None:
        """An order that is over by then, looked for with the ``width`` best states of every depth
        alone; ``None`` where none is found. Raises ``OutOfTries``."""
        left, self.budget = self.left, budget
        if not self._aim(limit):
            return None
        missing = [len(one) for one in left.after]
        states: list[tuple[Now, int, list[int], list[int]]] = [(left.begin, 0, missing, [])]
        for _ in range(left.count):
            found: dict[int, list[tuple[float, tuple[int, ...], Now, list[int], list[int]]]] = {}
            for now, done, missing, order in states:
                for k, start, end in self._open(now, done, missing):
                    then = left.step(now, k, start, end)
                    after = done | 1 << k
                    lacks = list(missing)
                    for one in left.followers[k]:
                        lacks[one] -= 1
                    state = self._state(then, after, then.at)
                    known = found.setdefault(after, [])
                    if any(all(map(int.__le__, one[1], state)) for one in known):
                        continue
                    known[:] = [o for o in known if not all(map(int.__le__, state, o[1]))]
                    known.append((self._slack(then, after), state, then, lacks, [*order, k]))
            best = sorted(
                ((one, done) for done, known in found.items() for one in known),
                key=lambda one: (-one[0][0], one[0][4]),
            )
            states = [(one[2], done, one[3], one[4]) for one, done in best[:width]]
        return states[0][3] if states else None

    def _slack(self, now: Now, done: int) -> float:
        """The least free time that some of what is left can lose."""
        left, calendar = self.left, self.left.widest
        free = calendar.free_before(now.at)
        need, slack = 0, float(_NEVER)
        for before, bit, k in self._due:
            if not done & bit:
                need += left.here[k]
                begin = free if now.rel[k] <= now.at else calendar.free_before(now.rel[k])
                slack = min(slack, before - free - need, before - begin - left.here[k])
        return slack

    def _go(self, now: Now, done: int, missing: list[int], order: list[int]) -> bool:
        left = self.left
        if len(order) == left.count:
            return True
        spans = self._open(now, done, missing)
        if not spans:
            return False
        soonest = min(start for _, start, _ in spans)
        first, best = min(
            ((k, left.through(k, end)) for k, _, end in spans), key=lambda one: one[1]
        )
        state = self._state(now, done, soonest)
        known = self._known.setdefault(done, [])
        if any(all(map(int.__le__, one, state)) for one in known):
            return False
        seen: set[int] = set()
        for k, start, end in sorted(spans, key=lambda one: (self._latest[one[0]], one[1])):
            if k != first and start >= best:
                continue  # the first is over and done with before it
            if left.alike[k] in seen:
                continue
            seen.add(left.alike[k])
            order.append(k)
            for one in left.followers[k]:
                missing[one] -= 1
            if self._go(left.step(now, k, start, end), done | 1 << k, missing, order):
                return True
            for one in left.followers[k]:
                missing[one] += 1
            order.pop()
        if len(known) < _MOST_STATES:
            known.append(state)
        else:
            known[self.budget.tries % _MOST_STATES] = state
        return False

    def _tight_rules(self) -> list[tuple[Rule, list[tuple[int, int, int]]]]:
        """The rules of clamps that come closest to being broken, with their tasks: how much room
        there is until the last stretch of each, what it counts for, and its bit."""
        left = self.left
        found: list[tuple[float, int, Rule, list[tuple[int, int, int]]]] = []
        starts = left.widest.starts
        n = bisect_left(left.widest.ends, left.begin.at)
        for rule, about in left.rules:
            last = {k: bisect_right(starts, self._latest[k]) - 1 for k in about}
            tasks = sorted(
                (rule.room(0, last[k]), rule.weights[left.clamps[k]], 1 << k) for k in about
            )
            need, tight = 0, 0.0
            for room, weight, _ in tasks:
                need += weight
                tight = max(tight, need / (room - rule.room(0, n - 1) or 1))
            found.append((tight, len(found), rule, tasks))
        return [(rule, tasks) for _, _, rule, tasks in sorted(found, reverse=True)[:_MOST_RULES]]

    def _open(self, now: Now, done: int, missing: list[int]) -> list[tuple[int, int, int]]:
        """The tasks that can begin next, with when they begin and end; none where it is plain that
        what is left cannot be done in time."""
        self.budget.spend()
        left, latest = self.left, self._latest
        spans: list[tuple[int, int, int]] = []
        soonest = _NEVER
        at, rel, holds = now.at, now.rel, now.holds
        for k, lacks in enumerate(missing):
            if lacks or done >> k & 1:
                continue
            after = rel[k]
            try:
                start, end = left.start(k, after if after > at else at, holds)
            except NoRoom:
                return []
            if start > latest[k]:
                return []
            soonest = min(soonest, start)
            spans.append((k, start, end))
        if self._is_overworked(now, done, soonest) or (
            self._rules and self._lacks_clamps(now, done, soonest)
        ):
            return []
        return spans

    def _is_overworked(self, now: Now, done: int, soonest: int) -> bool:
        """Whether what is left, or what of it cannot begin in this stretch, takes more than the
        free time until it must be done."""
        calendar, here, rel = self.left.widest, self.left.here, now.rel
        n = bisect_left(calendar.ends, soonest)
        later = calendar.starts[n + 1] if n + 1 < len(calendar.starts) else _NEVER
        free, then = calendar.free_before(soonest), calendar.free_before(later)
        need = need_then = 0
        for before, bit, k in self._due:
            if not done & bit:
                need += here[k]
                if need > before - free:
                    return True
                if rel[k] >= later:
                    need_then += here[k]
                    if need_then > before - then:
                        return True
        return False

    def _lacks_clamps(self, now: Now, done: int, soonest: int) -> bool:
        """Whether what is left holds more clamps than the stretches that are left have."""
        calendar = self.left.widest
        n = bisect_left(calendar.ends, soonest)
        if n == len(calendar.ends):
            return True
        end, start = calendar.ends[n], calendar.starts[n]
        held = [clamps for until, clamps in now.holds if until > end]
        for rule, about in self._rules:
            need = rule.room(0, n - 1)
            if soonest > start:
                need += rule.at_once * ((end - start) // rule.hold - (end - soonest) // rule.hold)
            for clamps in held:
                need += rule.weights[clamps]
            for room, weight, bit in about:
                if not done & bit:
                    need += weight
                    if need > room:
                        return True
        return False

    def _state(self, now: Now, done: int, soonest: int) -> tuple[int, ...]:
        """What decides what is still possible with a set of tasks done: smaller is better."""
        left = self.left
        rel, times = now.rel, [soonest]
        for k, bit in left.followed:
            if not done & bit:
                after = rel[k]
                times.append(after if after > soonest else soonest)
        if left.owned:
            held = sorted(
                (u for until, c in now.holds if until > soonest for u in [until] * c), reverse=True
            )
            times += held[: left.owned] + [0] * (left.owned - len(held))
        return tuple(times)
