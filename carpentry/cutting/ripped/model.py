"""The model of a cut problem with ripping: what one board can hold when it is crosscut into
segments, each segment is ripped, and each strip is crosscut again."""

import random
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace

from carpentry.cutting.line.sound_runs import by_capacity
from carpentry.cutting.problem import CutProblem, Order
from carpentry.cutting.ripped.best_boards import Pricing
from carpentry.cutting.ripped.every_load import RippedLoads, list_loads
from carpentry.cutting.ripped.numbers import Ripping, Segment
from carpentry.cutting.ripped.one_program import Nested, TooLarge
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.greedy import greedy
from carpentry.cutting.search.model import FilledBoard, Packing, Pattern
from carpentry.cutting.search.programs import Outcome

_TIGHT_STEPS = 12
_GREEDY_TRIES = 8
_MENDING_TRIES = 30


class RippedModel(Ripping):
    """Answers what the search asks. When the ``clock`` has rung bounds are no longer made tight."""

    def __init__(
        self, problem: CutProblem, *, loose: bool = False, alone: Mapping[str, int] | None = None
    ) -> None:
        super().__init__(problem, loose=loose, alone=alone)
        self.clock = Clock()
        self.loads: RippedLoads | None = None
        nothing = [0.0] * len(self.items)
        self._lowered = [nothing] * len(self.kinds)  # shares of values, where boards last had them

    def list_loads(self, clock: Clock) -> bool:
        """Lists what every kind of board can hold, where that can be done by then; whether it is
        done."""
        self.loads = list_loads(self, clock)
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

    def others_for(
        self, kind: int, values: Sequence[int], demand: Sequence[int]
    ) -> Iterator[Pattern]:
        return iter(())

    def pack(
        self, kinds: Sequence[int], demand: Sequence[int], clock: Clock, effort: int = 0
    ) -> tuple[Outcome, tuple[Pattern, ...]]:
        if self.loads:
            return self.loads.pack(kinds, demand, clock)
        try:
            return Nested(self, kinds, demand).solve(clock, effort)
        except TooLarge:
            return Outcome.UNDECIDED, ()

    @property
    def is_quick(self) -> bool:
        return self.loads is not None

    @property
    def most_care(self) -> int:
        return 0 if self.loads else 1

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
            elif care:
                found[kind] = self._tight(kind, values, demand)
            elif pricing:
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
        self, kind: int, values: Sequence[int], demand: Sequence[int]
    ) -> tuple[int, Pattern]:
        """Lagrangian relaxation of "no more of an item than is wanted": what strips and segments
        take too much of is made less worth, step by step (Held and Karp's subgradients), from where
        that was best the last time."""
        lowered = [int(v * share) for v, share in zip(values, self._lowered[kind], strict=True)]
        kept = lowered
        best_worth, best_pattern, best_value = -1, tuple(0 for _ in values), -1
        for step in range(_TIGHT_STEPS):
            if step and self.clock.is_over:
                break
            rest = [v - low for v, low in zip(values, lowered, strict=True)]
            pricing = Pricing(self, rest, demand)
            worth, pattern = pricing.best(kind)
            worth += sum(low * d for low, d in zip(lowered, demand, strict=True))
            value = sum(v * n for v, n in zip(values, pattern, strict=True))
            if value > best_value:
                best_pattern, best_value = pattern, value
            if best_worth < 0 or worth < best_worth:
                best_worth, kept = worth, lowered
            excess = [
                n - d if n > d or low else 0
                for n, d, low in zip(pricing.taken, demand, lowered, strict=True)
            ]
            norm = sum(e * e for e in excess)
            if best_worth <= best_value or not norm:
                break
            size = max(1.0, (worth - best_value) / norm * (1 - step / _TIGHT_STEPS))
            lowered = [
                min(v, max(0, low + round(e * size)))
                for v, low, e in zip(values, lowered, excess, strict=True)
            ]
        shares = zip(values, kept, strict=True)
        self._lowered[kind] = [low / v if v else 0.0 for v, low in shares]
        return max(best_worth, best_value), best_pattern

    def tries(self, values: Sequence[int], clock: Clock) -> Iterator[Packing]:
        """Greedy packings by values drawn around ``values`` and sizes, then the best of them with
        two or three boards at a time packed anew. None where every purchase is decided anyway."""
        if self.loads:
            return
        chance = random.Random(1)
        nothing = [0] * len(self.sources)
        best: Packing | None = None
        for number in range(_GREEDY_TRIES + _MENDING_TRIES):
            if clock.is_over:
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

    def recipe(self, board: FilledBoard) -> tuple[Segment, ...]:
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
