"""The model of a line of parts with angled ends: what one board holds when every part may be
turned, and neighbours whose ends run alike share a saw line. For few parts, as it lists every
load."""

from collections.abc import Iterator, Sequence

import numpy as np

from carpentry.cutting.problem import CutPart, CutProblem, Shape
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.every_load import (
    NEVER,
    Bools,
    Held,
    Lengths,
    Loads,
    TimeIsUp,
    can_be_listed,
    smaller_too,
)
from carpentry.cutting.search.greedy import greedy
from carpentry.cutting.search.model import Packing, Pattern
from carpentry.cutting.search.programs import Outcome
from carpentry.cutting.search.sources import Money, as_source
from carpentry.design.ends import EndAngle, Ends, ways_to_lie

Turned = tuple[int, Ends]  # an item and its ends as they lie


def to_angled(problem: CutProblem, clock: Clock) -> "AngledModel | None":
    """The model, ``None`` where there are too many parts, boards with flaws, or time is up."""
    wanted = [part for part in problem.parts if _fits_some(problem, part)]
    demand: dict[Shape, int] = {}
    for part in wanted:
        demand[problem.shape(part)] = demand.get(problem.shape(part), 0) + part.quantity
    if not can_be_listed(tuple(demand.values())) or any(piece.flaws for piece in problem.stock):
        return None
    try:
        return AngledModel(problem, demand, clock)
    except TimeIsUp:
        return None


def _fits_some(problem: CutProblem, part: CutPart) -> bool:
    return problem.may_crosscut(part) and any(
        piece.available != 0
        and part.sawn_length <= problem.sound_length(piece)
        and (not part.on or piece.id in part.on)
        for piece in problem.stock
    )


class AngledModel:
    """Answers what the search asks, from the loads of every board. Sizes in ticks."""

    def __init__(self, problem: CutProblem, demand: dict[Shape, int], clock: Clock) -> None:
        self.problem = problem
        self.money = Money.of([piece.price for piece in problem.stock])
        self.shapes = sorted(demand, key=lambda shape: (-shape.length, str(shape)))
        self.demand = tuple(demand[shape] for shape in self.shapes)
        self.sizes = tuple(shape.length for shape in self.shapes)
        example = next((part for part in problem.parts), None)
        self._across = (example.thickness or 0, example.width or 0) if example else (0, 0)
        self.ways = [list(dict.fromkeys(ways_to_lie(shape.ends))) for shape in self.shapes]
        most = max(map(problem.sound_length, problem.stock), default=0)
        self._by_end = self._shortest(most, clock)
        kinds: dict[tuple[int, tuple[bool, ...]], int] = {}
        sources = []
        total = sum(self.demand)
        for piece in problem.stock:
            allowed = tuple(not s.on or piece.id in s.on for s in self.shapes)
            sound = problem.sound_length(piece)
            if piece.available == 0 or sound <= 0 or not any(allowed):
                continue
            kind = kinds.setdefault((sound, allowed), len(kinds))
            sources.append(as_source(problem, piece, kind, self.money, total))
        self.sources = tuple(sources)
        self.loads = Loads([self._held(sound, allowed) for sound, allowed in kinds])

    def _gap(self, before: EndAngle, after: EndAngle) -> int:
        """Ticks between two neighbours: the wider saw line, or one that both share."""
        saw = max(before.saw(self.problem.kerf), after.saw(self.problem.kerf))
        shared = self.problem.share_angled_cuts and after.degrees and after == before.flipped
        return saw - (after.reach(*self._across) if shared else 0)

    def _shortest(self, most: int, clock: Clock) -> dict[EndAngle, Lengths]:
        """For each load and last end the shortest line, ``NEVER`` where it is longer than
        ``most``."""
        shape = tuple(d + 1 for d in self.demand)
        ends = dict.fromkeys(end for ways in self.ways for way in ways for end in way)
        found: dict[EndAngle, Lengths] = {end: np.full(shape, NEVER, np.int32) for end in ends}
        for item, ways in enumerate(self.ways):
            first = tuple(int(n == item) for n in range(len(shape)))
            for _, right in ways:
                if self.sizes[item] <= most:
                    found[right][first] = self.sizes[item]
        changed = True
        while changed:
            changed = False
            for item, ways in enumerate(self.ways):
                to, of = [slice(None)] * len(shape), [slice(None)] * len(shape)
                to[item], of[item] = slice(1, None), slice(0, -1)
                for left, right in ways:
                    for end in ends:
                        if clock.is_over:
                            raise TimeIsUp
                        longer = found[end][tuple(of)] + (self._gap(end, left) + self.sizes[item])
                        longer[longer > most] = NEVER
                        here = found[right][tuple(to)]
                        if (longer < here).any():
                            np.minimum(here, longer, out=here)
                            changed = True
        return found

    def _held(self, sound: int, allowed: tuple[bool, ...]) -> Held:
        shortest: Lengths = np.minimum.reduce(list(self._by_end.values()))
        shortest = shortest.copy()
        shortest[(0,) * shortest.ndim] = 0
        inside: Bools = np.zeros(shortest.shape, dtype=np.bool_)
        inside[tuple(slice(None) if may else slice(1) for may in allowed)] = True
        held = (shortest <= sound) & inside
        if not np.array_equal(held, smaller_too(held, np.logical_or)):
            raise TimeIsUp  # fewer parts would need a longer board: no load is listed then
        return Held(held, sound, np.where(inside, shortest, NEVER).astype(np.int32))

    def order(self, pattern: Pattern) -> list[Turned]:
        """The parts of a board one after the other in the shortest line, alike ones together where
        that is no longer."""
        load = list(pattern)
        end = min(self._by_end, key=lambda one: int(self._by_end[one][pattern]))
        found: list[Turned] = []
        while sum(load) > 1:
            item, way, end = self._last(load, end, found[-1][0] if found else -1)
            found.append((item, way))
            load[item] -= 1
        (item,) = (n for n, count in enumerate(load) if count)
        found.append((item, next(way for way in self.ways[item] if way[1] == end)))
        rolled = [(item, (left.flipped, right.flipped)) for item, (left, right) in found]
        return max(found, rolled, key=self._as_typed)[::-1]

    def _as_typed(self, line: Sequence[Turned]) -> tuple[int, bool]:
        """How many parts lie as they were typed, and whether the last of the line does."""
        typed = [ends == self.shapes[item].ends for item, ends in line]
        return sum(typed), typed[-1]

    def _last(self, load: Sequence[int], end: EndAngle, like: int) -> tuple[int, Ends, EndAngle]:
        """The last part of a line with that last end, how it lies, and the end before it."""
        length = int(self._by_end[end][tuple(load)])
        items = [item for item, count in enumerate(load) if count]
        for item in sorted(items, key=lambda one: (one != like, -one)):
            rest = tuple(n - (one == item) for one, n in enumerate(load))
            for way in self.ways[item]:
                for before, shortest in self._by_end.items():
                    step = self._gap(before, way[0]) + self.sizes[item]
                    if way[1] == end and int(shortest[rest]) + step == length:
                        return item, way, before
        raise AssertionError("a line that nobody found")

    def holds(self, source: int, item: int) -> bool:
        one = tuple(int(n == item) for n in range(len(self.demand)))
        return bool(self.loads.held[self.sources[source].kind].loads[one])

    most_care = 0  # exact already
    is_quick = True

    def best_for(
        self, kinds: Sequence[int], values: Sequence[int], demand: Sequence[int], care: int = 0
    ) -> list[tuple[int, Pattern]]:
        found = {kind: self.loads.best(kind, values, demand) for kind in dict.fromkeys(kinds)}
        return [found[kind] for kind in kinds]

    def others_for(
        self, kind: int, values: Sequence[int], demand: Sequence[int]
    ) -> Iterator[Pattern]:
        return iter(())

    def pack(
        self, kinds: Sequence[int], demand: Sequence[int], clock: Clock, effort: int = 0
    ) -> tuple[Outcome, tuple[Pattern, ...]]:
        return self.loads.pack(kinds, demand, clock)

    def every_pattern(self, kind: int, demand: Sequence[int], most: int) -> list[Pattern] | None:
        return self.loads.every(kind, demand, most)

    def quick(self, demand: Sequence[int], used: Sequence[int]) -> Packing:
        return greedy(self, demand, used, self.sizes)

    def tries(self, values: Sequence[int], clock: Clock) -> Iterator[Packing]:
        return iter(())
