"""The model of a cut problem with ripping: what one board can hold when it is crosscut into
segments, each segment is ripped, and each strip is crosscut again."""

import math
import random
from collections.abc import Iterator, Sequence
from dataclasses import replace
from time import monotonic

from carpentry.cutting.linear import Outcome
from carpentry.cutting.loads import Loads, list_loads
from carpentry.cutting.model import Board, Packing, Pattern
from carpentry.cutting.particular import by_capacity
from carpentry.cutting.pricing import Pricing
from carpentry.cutting.problem import CutProblem
from carpentry.cutting.ripping import Ripping, Segment

_MOST_QUICK_BOARDS = 400
_TIGHT_STEPS = 20
_GREEDY_TRIES = 8
_MENDING_TRIES = 30


class Ripped(Ripping):
    """Answers what the search asks. After ``deadline`` bounds are no longer made tight."""

    def __init__(self, problem: CutProblem, *, loose: bool = False) -> None:
        super().__init__(problem, loose=loose)
        self.deadline = math.inf
        self.loads: Loads | None = None

    def list_loads(self, deadline: float) -> bool:
        """Lists what every kind of board can hold, where that can be done by then; whether it is
        done."""
        self.loads = list_loads(self, deadline)
        return self.loads is not None

    def holds(self, source: int, item: int) -> bool:
        return self.kinds[self.sources[source].kind].holds(item, self.items[item])

    def every_pattern(self, kind: int, demand: Sequence[int], most: int) -> list[Pattern] | None:
        return None  # of large problems too many, and small ones are packed by their loads

    def pack(
        self, kinds: Sequence[int], demand: Sequence[int], deadline: float
    ) -> tuple[Outcome, tuple[Pattern, ...]]:
        if self.loads is None:
            return Outcome.UNDECIDED, ()
        return self.loads.pack(kinds, demand, deadline)

    def roomiest(self, packing: Packing, deadline: float) -> Packing:
        """The same boards with as much length left on one of them as can be, where every load is
        listed."""
        if self.loads is None or any(packing.missing):
            return packing
        sources = [board.source for board in packing.boards]
        kinds = [self.sources[source].kind for source in sources]
        held = self.loads.longest_leftover(kinds, self.demand, deadline)
        if held is None or not all(map(any, held)):
            return packing
        for kind, load in zip(kinds, held, strict=True):
            self.recipes[kind, load] = self.loads.segments(kind, load)
        boards = tuple(Board(source, load) for source, load in zip(sources, held, strict=True))
        return Packing(boards, packing.missing)

    def best_for(
        self, kinds: Sequence[int], values: Sequence[int], demand: Sequence[int]
    ) -> list[tuple[int, Pattern]]:
        pricing = None if self.loads else Pricing(self, values, demand)
        found: dict[int, tuple[int, Pattern]] = {}
        for kind in kinds:
            if kind not in found and self.loads:
                found[kind] = self.loads.best(kind, values, demand)
            elif kind not in found and self.kinds[kind].particular:
                found[kind] = self._best_in_runs(kind, values, demand)
            elif kind not in found and pricing:
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

    def tight_for(
        self, kinds: Sequence[int], values: Sequence[int], demand: Sequence[int]
    ) -> list[tuple[int, Pattern]]:
        if self.loads:
            return self.best_for(kinds, values, demand)
        found = {
            kind: self._best_in_runs(kind, values, demand)
            if self.kinds[kind].particular
            else self._tight(kind, values, demand)
            for kind in dict.fromkeys(kinds)
        }
        return [found[kind] for kind in kinds]

    def _tight(
        self, kind: int, values: Sequence[int], demand: Sequence[int]
    ) -> tuple[int, Pattern]:
        """Lagrangian relaxation of "no more of an item than is wanted": what strips and segments
        take too much of is made less worth, step by step (Held and Karp's subgradients)."""
        lowered = [0] * len(values)
        best_worth, best_pattern, best_value = -1, tuple(0 for _ in values), -1
        for step in range(_TIGHT_STEPS):
            if step and monotonic() > self.deadline:
                break
            rest = [v - low for v, low in zip(values, lowered, strict=True)]
            pricing = Pricing(self, rest, demand)
            worth, pattern = pricing.best(kind)
            worth += sum(low * d for low, d in zip(lowered, demand, strict=True))
            value = sum(v * n for v, n in zip(values, pattern, strict=True))
            if value > best_value:
                best_pattern, best_value = pattern, value
            best_worth = worth if best_worth < 0 else min(worth, best_worth)
            excess = [n - d for n, d in zip(pricing.taken, demand, strict=True)]
            norm = sum(e * e for e in excess if e > 0)
            if best_worth <= best_value or not norm:
                break
            size = max(1.0, (worth - best_value) / norm * (1 - step / _TIGHT_STEPS))
            lowered = [
                min(v, max(0, low + round(e * size))) if e > 0 or low else low
                for v, low, e in zip(values, lowered, excess, strict=True)
            ]
        return max(best_worth, best_value), best_pattern

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
                packing = self._greedy(self.demand, nothing, drawn)
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
        rest = self._greedy(demand, used, values)
        return Packing((*kept, *rest.boards), rest.missing)

    def quick(self, demand: Sequence[int], used: Sequence[int]) -> Packing:
        return self._greedy(demand, used, self.sizes)

    def _greedy(self, demand: Sequence[int], used: Sequence[int], values: Sequence[int]) -> Packing:
        """Board after board, each the one that gives most worth for its price; ended where that is
        cheapest by the cheapest board that holds all the rest."""
        left, gone = list(demand), list(used)
        boards: list[Board] = []
        ended: list[Packing] = []
        while any(left) and len(boards) < _MOST_QUICK_BOARDS:
            open_sources = [s for s, source in enumerate(self.sources) if gone[s] < source.limit]
            best = self.best_for([self.sources[s].kind for s in open_sources], values, left)
            choices = []
            for s, (_, pattern) in zip(open_sources, best, strict=True):
                worth = sum(v * n for v, n in zip(values, pattern, strict=True))
                if worth:
                    choices.append((-worth / (self.sources[s].cost or 0.01), s, pattern))
            if not choices:
                break
            whole = [s for _, s, pattern in choices if list(pattern) == left]
            if whole:
                last = min(whole, key=lambda s: self.sources[s].cost)
                nothing = tuple(0 for _ in left)
                ended.append(Packing((*boards, Board(last, tuple(left))), nothing))
            _, source, pattern = min(choices)
            times = min(r // n for n, r in zip(pattern, left, strict=True) if n)
            times = max(1, min(times, self.sources[source].limit - gone[source]))
            boards += [Board(source, pattern)] * times
            gone[source] += times
            left = [r - n * times for r, n in zip(left, pattern, strict=True)]
        packing = self._cheapened(Packing(tuple(boards), tuple(left)), gone)
        return min((packing, *ended), key=lambda one: one.key(self))

    def _cheapened(self, packing: Packing, gone: list[int]) -> Packing:
        """Every board exchanged for the cheapest piece that holds the same."""
        boards = []
        for board in packing.boards:
            best = board.source
            for s in sorted(range(len(self.sources)), key=lambda s: self.sources[s].cost):
                if self.sources[s].cost >= self.sources[board.source].cost:
                    break
                if gone[s] < self.sources[s].limit and self._can_hold(s, board.pattern):
                    best = s
                    break
            gone[board.source] -= 1
            gone[best] += 1
            boards.append(Board(best, board.pattern))
        return Packing(tuple(boards), packing.missing)

    def _can_hold(self, source: int, pattern: Pattern) -> bool:
        if not all(self.holds(source, item) for item, n in enumerate(pattern) if n):
            return False
        (_, found), *_ = self.best_for([self.sources[source].kind], self.sizes, pattern)
        return found == pattern

    def recipe(self, board: Board) -> tuple[Segment, ...]:
        """How a board is cut: a known way to its pattern, or to one that holds more."""
        kind = self.sources[board.source].kind
        known = self.recipes.get((kind, board.pattern))
        if known:
            return known
        if self.loads:
            return self.loads.segments(kind, board.pattern)
        for (of_kind, pattern), segments in self.recipes.items():
            if of_kind == kind and all(a >= b for a, b in zip(pattern, board.pattern, strict=True)):
                return segments
        raise AssertionError("a board that nobody found")
