"""The model of a cut problem with ripping: what one board can hold when it is crosscut into
segments, each segment is ripped, and each strip is crosscut again."""

import math
import random
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from time import monotonic

from carpentry.cutting.counted_pricing import CountedPricing, TooMuchWork
from carpentry.cutting.crosscut_first import CrosscutFirst
from carpentry.cutting.greedy import greedy
from carpentry.cutting.linear import Outcome
from carpentry.cutting.model import Board, Packing, Pattern
from carpentry.cutting.particular import by_capacity
from carpentry.cutting.pricing import Pricing
from carpentry.cutting.problem import CutProblem, Order
from carpentry.cutting.rip_first import RipFirst
from carpentry.cutting.ripped_loads import RippedLoads, list_loads
from carpentry.cutting.ripping import Ripping, Segment

_TIGHT_STEPS = 12
_COUNTED_STEPS = 4
_GREEDY_TRIES = 8
_MENDING_TRIES = 30


class Ripped(Ripping):
    """Answers what the search asks. After ``deadline`` bounds are no longer made tight."""

    def __init__(self, problem: CutProblem, *, loose: bool = False) -> None:
        super().__init__(problem, loose=loose)
        self.deadline = math.inf
        self.loads: RippedLoads | None = None
        nothing = [0.0] * len(self.items)
        self._lowered = [nothing] * len(self.kinds)  # shares of values, where boards last had them

    def list_loads(self, deadline: float) -> bool:
        """Lists what every kind of board can hold, where that can be done by then; whether it is
        done."""
        self.loads = list_loads(self, deadline)
        return self.loads is not None

    @property
    def rip_set_ups(self) -> int | None:
        """How many segments a board has at the most; ``None`` where that is no limit."""
        limited = self.loads is None and self.order is Order.EITHER
        return self.most_segments if limited else None

    def holds(self, source: int, item: int) -> bool:
        return self.kinds[self.sources[source].kind].holds(item, self.items[item])

    def every_pattern(self, kind: int, demand: Sequence[int], most: int) -> list[Pattern] | None:
        return self.loads.every(kind, demand, most) if self.loads else None

    def pack(
        self, kinds: Sequence[int], demand: Sequence[int], deadline: float
    ) -> tuple[Outcome, tuple[Pattern, ...]]:
        if self.loads:
            return self.loads.pack(kinds, demand, deadline)
        if self.order is Order.CROSSCUT_FIRST:
            return CrosscutFirst(self).pack(kinds, demand, deadline)
        return RipFirst(self).pack(kinds, demand, deadline)

    @property
    def most_care(self) -> int:
        return 0 if self.loads else 1 if self.order is Order.CROSSCUT_FIRST else 2

    def best_for(
        self, kinds: Sequence[int], values: Sequence[int], demand: Sequence[int], care: int = 0
    ) -> list[tuple[int, Pattern]]:
        pricing = None if self.loads else Pricing(self, values, demand)
        found: dict[int, tuple[int, Pattern]] = {}
        for kind in dict.fromkeys(kinds):
            if self.loads:
                found[kind] = self.loads.best(kind, values, demand)
            elif self.kinds[kind].particular:
                found[kind] = self._best_in_runs(kind, values, demand)
            elif care and self.order is Order.CROSSCUT_FIRST:
                exact = CrosscutFirst(self).best(kind, values, demand, self.deadline)
                found[kind] = exact or pricing.best(kind)
            elif care:
                found[kind] = self._tight(kind, values, demand, counting=care > 1)
            else:
                found[kind] = pricing.best(kind)
        return [found[kind] for kind in kinds]

    def _best_in_runs(
        self, number: int, values: Sequence[int], demand: Sequence[int]
    ) -> tuple[int, Pattern]:
        """The most valuable load of a board with flaws or for some parts only: run after run of
        each of its ways."""
        kind = self.kinds[number]
        assert kind.particular is not None
        most, best, best_value = 0, tuple(0 for _ in values), -1
        for way in kind.particular.ways:
            worth, left, segments = 0, kind.particular.may(demand), list[Segment]()
            for run in by_capacity(way):
                wanted = left if not run.crossing else kind.particular.crossing(left)
                every = kind.particular.may(demand)
                if run.crossing:
                    every = kind.particular.crossing(every)
                worth += Pricing(self, values, every).best_within(kind, run.capacity)[0]
                _, pattern, cut = Pricing(self, values, wanted).best_within(kind, run.capacity)
                left = [r - n for r, n in zip(left, pattern, strict=True)]
                segments += [replace(one, start=run.start) for one in cut[:1]] + list(cut[1:])
            held = tuple(d - r for d, r in zip(kind.particular.may(demand), left, strict=True))
            value = sum(v * n for v, n in zip(values, held, strict=True))
            most = max(most, worth)
            if value > best_value:
                best, best_value = held, value
                self.recipes.setdefault((number, held), tuple(segments))
        return most, best

    def _tight(
        self, number: int, values: Sequence[int], demand: Sequence[int], *, counting: bool
    ) -> tuple[int, Pattern]:
        """Lagrangian relaxation of "no more of an item than is wanted": what strips and segments
        take too much of is made less worth, step by step (Held and Karp's subgradients); then
        ``counting`` one item more after the other."""
        kind = self.kinds[number]
        nothing = tuple(0 for _ in values)
        lowered = [int(v * share) for v, share in zip(values, self._lowered[number], strict=True)]
        tight = _Tightened(values, demand, -1, nothing, 0, lowered)
        for step in range(_TIGHT_STEPS):
            if step and monotonic() > self.deadline:
                break
            pricing = Pricing(self, tight.rest, demand)
            tight.learn(*pricing.best(number), pricing.taken)
            if tight.is_closed:
                break
            tight.step(1 - step / _TIGHT_STEPS)
        self._lowered[number] = tight.shares
        counted: list[int] = []
        while counting and kind.section.patterns and not tight.is_closed:
            exceeded = tight.most_exceeded(counted)
            if exceeded is None:
                break
            counted.append(exceeded)
            tight.start_anew(counted)
            for step in range(_COUNTED_STEPS):
                if monotonic() > self.deadline:
                    return tight.answer
                try:
                    exact = CountedPricing(self, kind, tight.rest, demand, counted)
                except TooMuchWork:
                    return tight.answer
                self.recipes.setdefault((number, exact.pattern), exact.segments)
                tight.learn(exact.worth, exact.pattern, exact.taken)
                if tight.is_closed:
                    break
                tight.step(1 - step / _COUNTED_STEPS)
        return tight.answer

    def tries(self, values: Sequence[int], deadline: float) -> Iterator[Packing]:
        """Greedy packings by values drawn around ``values`` and sizes, then the best of them with
        two or three boards at a time packed anew. None where every purchase is decided anyway."""
        if self.loads:
            return
        chance = random.Random(1)
        nothing = [0] * len(self.sources)
        best: Packing | None = None
        for number in range(_GREEDY_TRIES + _MENDING_TRIES):
            if monotonic() > deadline:
                return
            base = values if number % 2 else self.sizes
            drawn = [max(1, round(v * chance.uniform(0.6, 1.4))) for v in base]
            if number < _GREEDY_TRIES or best is None or len(best.boards) < 2:
                packing = greedy(self, self.demand, nothing, drawn)
            else:
                packing = self._mended(best, drawn, chance)
            if best is None or packing.key(self) < best.key(self):
                best = packing
                yield packing

    def _mended(self, packing: Packing, values: Sequence[int], chance: random.Random) -> Packing:
        """Two or three boards taken out and what they hold packed anew."""
        count = min(len(packing.boards), chance.choice((2, 2, 3)))
        out = set(chance.sample(range(len(packing.boards)), count))
        kept = [board for number, board in enumerate(packing.boards) if number not in out]
        demand = list(packing.missing)
        for number in out:
            for item, n in enumerate(packing.boards[number].pattern):
                demand[item] += n
        used = [sum(board.source == s for board in kept) for s in range(len(self.sources))]
        rest = greedy(self, demand, used, values)
        return Packing((*kept, *rest.boards), rest.missing)

    def quick(self, demand: Sequence[int], used: Sequence[int]) -> Packing:
        return greedy(self, demand, used, self.sizes)

    def recipe(self, board: Board) -> tuple[Segment, ...]:
        """How a board is cut: the shortest way to its pattern where loads are listed, else a known
        way to it or to one that holds more."""
        kind = self.sources[board.source].kind
        if self.loads:
            return self.loads.segments(kind, board.pattern)
        known = self.recipes.get((kind, board.pattern))
        if known:
            return known
        for (of_kind, pattern), segments in self.recipes.items():
            if of_kind == kind and all(a >= b for a, b in zip(pattern, board.pattern, strict=True)):
                return segments
        raise AssertionError("a board that nobody found")


@dataclass
class _Tightened:
    """The least ``worth`` that a relaxation has proven for a board, and the best pattern found;
    values are ``lowered`` for items of which too many are ``taken``."""

    values: Sequence[int]
    demand: Sequence[int]
    worth: int
    pattern: Pattern
    value: int
    lowered: list[int]
    taken: Sequence[int] = ()
    last: int = 0
    kept: Sequence[int] = ()

    @property
    def rest(self) -> list[int]:
        return [v - low for v, low in zip(self.values, self.lowered, strict=True)]

    @property
    def shares(self) -> list[float]:
        """How much each value is lowered where the worth was least, as a share of it."""
        return [low / v if v else 0.0 for v, low in zip(self.values, self.kept, strict=True)]

    @property
    def answer(self) -> tuple[int, Pattern]:
        return max(self.worth, self.value), self.pattern

    @property
    def _excess(self) -> list[int]:
        """How many of each item are taken beyond what is wanted; below zero only where its value
        was lowered for that."""
        every = zip(self.taken, self.demand, self.lowered, strict=True)
        return [n - d if n > d or low else 0 for n, d, low in every]

    @property
    def is_closed(self) -> bool:
        """Whether the pattern is as good as any, or nothing is taken too often."""
        return self.worth <= self.value or not any(self._excess)

    def learn(self, worth: int, pattern: Pattern, taken: Sequence[int]) -> None:
        """What the relaxation with ``rest`` as values came to."""
        self.taken = taken
        self.last = worth + sum(low * d for low, d in zip(self.lowered, self.demand, strict=True))
        if self.worth < 0 or self.last < self.worth:
            self.worth, self.kept = self.last, self.lowered
        value = sum(v * n for v, n in zip(self.values, pattern, strict=True))
        if value > self.value:
            self.pattern, self.value = pattern, value

    def step(self, share: float) -> None:
        """Lowers the values of what was taken too often, raises others again."""
        excess = self._excess
        size = max(1.0, (self.last - self.value) / sum(e * e for e in excess) * share)
        self.lowered = [
            min(v, max(0, low + round(e * size)))
            for v, low, e in zip(self.values, self.lowered, excess, strict=True)
        ]

    def most_exceeded(self, counted: Sequence[int]) -> int | None:
        """The item whose excess counts for most, beside those that are counted."""
        excess = self._excess
        others = [i for i, e in enumerate(excess) if e > 0 and i not in counted]
        return max(others, key=lambda i: (excess[i] * self.values[i], -i), default=None)

    def start_anew(self, counted: Sequence[int]) -> None:
        """From where the worth was least; counted items keep their value."""
        self.lowered = [0 if i in counted else low for i, low in enumerate(self.kept)]
