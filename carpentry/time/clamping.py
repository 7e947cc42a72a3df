"""How many clamps can be held in the free stretches of time that there are.

Tasks that begin in one stretch and hold their clamps for at least so long from their beginning on
cannot share them: at the end of every such while within the stretch no more is held than is owned.
"""

from bisect import bisect_left
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import accumulate

from carpentry.hours.windows import Calendar


@dataclass(frozen=True)
class Rule:
    """Of tasks that hold clamps for ``hold`` minutes at least, each counts for what ``weights``
    says of its clamps (0 for those that the rule is not about), and what is held at once counts for
    ``at_once`` at the most."""

    weights: tuple[int, ...]
    at_once: int
    hold: int
    calendar: Calendar

    @cached_property
    def _rounds(self) -> list[int]:
        """How often all can be taken in the stretches before each."""
        spans = self.calendar.spans
        return [0, *accumulate(1 + (end - start) // self.hold for start, end in spans)]

    def room(self, first: int, last: int) -> int:
        """What can be begun from one stretch to another."""
        return max(0, self._rounds[last + 1] - self._rounds[first]) * self.at_once


def rules_for(
    tasks: Sequence[tuple[int, int]], owned: int, calendar: Calendar
) -> Iterator[tuple[Rule, list[int]]]:
    """The rules that may be broken by tasks, of which each holds so many clamps for so long, with
    the tasks that each is about."""
    holds = sorted({hold for _, hold in tasks if hold})
    lengths = sorted({end - start for start, end in calendar.spans})
    classes: dict[int, int] = {}
    for hold in holds:  # that make the same rounds are alike
        classes.setdefault(bisect_left(lengths, hold), hold)
    for hold in classes.values():
        about = [n for n, (_, long) in enumerate(tasks) if long >= hold]
        known = set()
        for weights, at_once in _weights(owned):
            counted = [n for n in about if weights[tasks[n][0]]]
            told = tuple((n, weights[tasks[n][0]]) for n in counted), at_once
            if counted and told not in known:
                known.add(told)
                yield Rule(weights, at_once, hold, calendar), counted


def _weights(owned: int) -> Iterator[tuple[tuple[int, ...], int]]:
    counts = range(owned + 1)
    yield tuple(counts), owned
    for parts in (2, 3, 4):  # of more than a half one, of more than a third two, …
        yield tuple(int(n * parts > owned) for n in counts), parts - 1
    for least in range(2, owned // 2 + 1):  # what leaves too little for any other fills all
        weights = (owned if n > owned - least else (n if n >= least else 0) for n in counts)
        yield tuple(weights), owned
