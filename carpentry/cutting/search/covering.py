"""Linear programs that cover a demand with boards, by column generation, and how they are rounded
to whole boards (Gilmore and Gomory 1961, 1963)."""

import random
from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt

from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.holding import EPSILON, Bin, Holder, pack_whole
from carpentry.cutting.search.model import FilledBoard, Pattern, worth_of
from carpentry.cutting.search.programs import INFINITY, Outcome, Program, Solution

_VALUE_SCALE = 10**7
_LEAST_GAIN = 1e-6
_NEAR_ENOUGH = 3e-5  # to the bound, of the prices of items
_MOST_ROUNDS, _MOST_CAREFUL = 10_000, 6  # of pricing, and of those that cost more
_UNCOVERED = 3.0  # what an item costs that is not covered, in dearest boards
_LAST_BOARDS = (4, 6, 8, 12)
Solved = tuple[float, Sequence[float], Sequence[float]]  # objective, columns, duals of the items


class Covering(ABC):
    """The linear program "cover the demand from these bins" with patterns found so far. A board of
    a bin has its ``cost``, each item that is left uncovered one of ``uncovered``."""

    def __init__(
        self,
        holder: Holder,
        bins: Sequence[Bin],
        demand: Sequence[int],
        costs: Sequence[float],
        uncovered: Sequence[float],
    ) -> None:
        self.holder = holder
        self.bins = bins
        self.costs = costs
        self.residual = list(demand)
        self.counts = [b.count for b in bins]
        self.columns: list[tuple[int, Pattern] | None] = []
        self.is_whole = True  # nothing is fixed yet
        items = len(demand)
        rows = [(float(d), INFINITY) for d in demand] + [(-INFINITY, float(n)) for n in self.counts]
        self.program = Program(rows)
        for item, cost in enumerate(uncovered):
            self.program.add_column(cost, [(item, 1.0)])
            self.columns.append(None)
        self._items = items
        self._nothing = (0,) * items
        self._patterns: npt.NDArray[np.int64] = np.zeros((0, items), dtype=np.int64)
        self._closed: set[int] = set()
        for index, b in enumerate(self.bins):
            for pattern in holder.remembered(b.kind):
                self._add(index, pattern)

    @abstractmethod
    def solve(self, clock: Clock | None = None) -> Solved | None:
        """The best cover, by pricing patterns until none helps; ``None`` when time is up. With a
        ``clock`` for a part of the time it may end unfinished, with what it has by then."""

    @abstractmethod
    def is_lost(self, objective: float) -> bool:
        """Whether nothing is to be hoped of it any more."""

    def learn(self, index: int, pattern: Pattern) -> None:
        """Adds a pattern of a bin, also for later programs."""
        self.holder.remember(self.bins[index].kind, pattern)
        self._add(index, pattern)

    def _add(self, index: int, pattern: Pattern) -> None:
        entries = [(item, float(n)) for item, n in enumerate(pattern) if n]
        self.program.add_column(self.costs[index], [*entries, (self._items + index, 1.0)])
        self.columns.append((index, pattern))

    def _asked(self, found: Solution) -> list[int]:
        """What items are worth by their dual prices, as whole numbers."""
        return [max(0, int(dual * _VALUE_SCALE)) for dual in found.duals[: self._items]]

    def _price(self, index: int, duals: Sequence[float]) -> float:
        """What a pattern of a bin must be worth to help."""
        return self.costs[index] - duals[self._items + index]

    def _improve(
        self, patterns: Sequence[Pattern], values: Sequence[int], duals: Sequence[float]
    ) -> bool:
        """Adds those patterns, one per bin, that are worth more than their bin's price, and some
        others while nothing is fixed."""
        improved = False
        for index, pattern in enumerate(patterns):
            least = (self._price(index, duals) + _LEAST_GAIN) * _VALUE_SCALE
            if worth_of(values, pattern) <= least:
                continue
            self.learn(index, pattern)
            improved = True
            if self.is_whole:
                kind = self.bins[index].kind
                for other in self.holder.best_others(kind, values, self.residual, least):
                    if other != pattern:
                        self.learn(index, other)
        return improved

    def fix(self, column: int, times: int) -> list[FilledBoard]:
        """Takes ``times`` boards of a column for good and shrinks what remains to be covered."""
        taken = self.columns[column]
        assert taken is not None
        index, pattern = taken
        self.is_whole = False
        for item, n in enumerate(pattern):
            if n:
                self.residual[item] -= n * times
                self.program.bound_row(item, float(max(0, self.residual[item])), INFINITY)
        self.counts[index] -= times
        self.program.bound_row(self._items + index, -INFINITY, float(self.counts[index]))
        for number in self._too_much():
            self.program.bound_column(number, 0.0)
            self._closed.add(number)
        return [FilledBoard(self.bins[index].source, pattern)] * times

    def _too_much(self) -> list[int]:
        """The columns that hold more than what remains, and have not been closed for it."""
        known = len(self._patterns)
        more = [column[1] if column else self._nothing for column in self.columns[known:]]
        self._patterns = np.concatenate([self._patterns, np.array(more).reshape(-1, self._items)])
        over = np.flatnonzero((self._patterns > np.array(self.residual)).any(axis=1))
        return [int(number) for number in over if int(number) not in self._closed]

    def most_times(self, column: int, value: float) -> int:
        """How often a column may be fixed: its whole part, at least once, and no more than fits."""
        taken = self.columns[column]
        assert taken is not None
        index, pattern = taken
        fits = min(r // n for n, r in zip(pattern, self.residual, strict=True) if n)
        return min(max(1, int(value + 1e-6)), fits, self.counts[index])


class Relaxation(Covering):
    """How much of a demand a purchase leaves uncovered, by size; nothing where its bins hold
    everything if boards could be mixed in fractions."""

    def __init__(self, holder: Holder, bins: Sequence[Bin], demand: Sequence[int]) -> None:
        longest = max(holder.model.sizes)
        used = [b for b in bins if b.count]
        uncovered = [size / longest for size in holder.model.sizes]
        super().__init__(holder, used, demand, [0.0] * len(used), uncovered)
        self.is_finished = True
        self.refuted_with: int | None = None  # the care with which duals prove that it is too much

    def solve(self, clock: Clock | None = None) -> Solved | None:
        """What is uncovered (in largest parts), column values and item duals. Stops as soon as the
        duals prove that the bins cannot hold everything."""
        model = self.holder.model
        tops = [b.kind for b in self.bins]
        last: Solved | None = None
        self.is_finished = True
        while True:
            found = self.program.solve(clock or self.holder.clock)
            if self.holder.clock.is_over:
                return None
            if found.outcome is not Outcome.SOLVED or (clock and clock.is_over):
                self.is_finished = False
                return last
            duals = found.duals[: self._items]
            last = found.objective, found.columns, duals
            if found.objective <= EPSILON:
                return 0.0, found.columns, duals
            values = self._asked(found)
            wanted = sum(v * d for v, d in zip(values, self.residual, strict=True))
            for care in range(model.most_care + 1):
                best = model.best_for(tops, values, self.residual, care)
                held = sum(worth * n for (worth, _), n in zip(best, self.counts, strict=True))
                if held < wanted:
                    self.refuted_with = care
                    return last
                if self._improve([pattern for _, pattern in best], values, found.duals):
                    break
            else:
                return last

    def is_lost(self, objective: float) -> bool:
        return objective > EPSILON


class Prices(Covering):
    """The least cost of a demand if boards could be mixed in fractions, over all sources: its duals
    are what items are worth by the prices of the boards."""

    def __init__(self, holder: Holder, start: Sequence[FilledBoard]) -> None:
        sources = holder.model.sources
        top = max((source.cost for source in sources), default=0) or 1
        bins = [Bin(source.kind, source.limit, s) for s, source in enumerate(sources)]
        demand = holder.model.demand
        costs = [source.cost / top for source in sources]
        super().__init__(holder, bins, demand, costs, [_UNCOVERED] * len(demand))
        for board in dict.fromkeys(start):
            self.learn(board.source, board.pattern)

    def solve(self, clock: Clock | None = None) -> Solved | None:
        """Cost (in dearest boards), column values and item duals; those of the last round where
        time is up. Ends where more pricing could not make the cost much less, or takes long, and
        after one round of it once something is fixed."""
        last: Solved | None = None
        values: list[int] = []
        most_care = min(1, self.holder.model.most_care) if self.is_whole else 0
        rounds = [_MOST_ROUNDS if self.is_whole else 1, _MOST_CAREFUL]  # by care
        while True:
            found = self.program.solve(clock or self.holder.clock)
            if found.outcome is not Outcome.SOLVED or (clock or self.holder.clock).is_over:
                break
            last = found.objective, found.columns, found.duals[: self._items]
            values = self._asked(found)
            care = self._improved(values, found.duals, most_care)
            if care is None or not rounds[care]:
                break
            rounds[care] -= 1
        if self.is_whole and values:
            self.holder.keep_best(values)
        return last

    def _improved(
        self, values: Sequence[int], duals: Sequence[float], most_care: int
    ) -> int | None:
        """The care with which patterns were found that make the cost less, where they may."""
        for care in range(most_care + 1):
            best = self.holder.model.best_for(self.holder.kinds, values, self.residual, care)
            if self._is_near([worth / _VALUE_SCALE for worth, _ in best], duals):
                return None
            if self._improve([pattern for _, pattern in best], values, duals):
                return care
        return None

    def _is_near(self, worths: Sequence[float], duals: Sequence[float]) -> bool:
        """Whether no prices give a bound that is much higher (Farley 1990): no board is worth more
        than a very little above its price."""
        prices = [self._price(index, duals) for index in range(len(worths))]
        each = zip(worths, prices, strict=True)
        return all(worth <= max(0.0, price) * (1 + _NEAR_ENOUGH) for worth, price in each)

    def is_lost(self, objective: float) -> bool:
        return False


@dataclass(frozen=True)
class Dive:
    """What a dive ended with: boards, and the demand they leave."""

    boards: tuple[FilledBoard, ...]
    residual: tuple[int, ...]

    @property
    def is_complete(self) -> bool:
        return not any(self.residual)


def dive(
    relaxation: Covering,
    values: Sequence[float],
    chance: random.Random | None = None,
    leave: int = 0,
    clock: Clock | None = None,
) -> Dive:
    """Rounds a relaxation to whole boards, the surest column first, pricing again after each; with
    ``chance`` one that is drawn by how sure it is, and no more boards than ``leave`` some over.
    Ends early when a ``clock`` rings."""
    boards: list[FilledBoard] = []
    while any(relaxation.residual) and sum(relaxation.counts) > leave:
        candidates = [
            (values[number], -number)
            for number, column in enumerate(relaxation.columns)
            if column and number < len(values) and values[number] > 1e-6 and any(column[1])
        ]
        if not candidates:
            break
        whole = [c for c in candidates if c[0] >= 1 - 1e-6]
        if chance and whole:
            whole = chance.sample(whole, max(1, len(whole) * 3 // 4))
        elif chance:
            whole = chance.choices(candidates, [value for value, _ in candidates])
        fixed_any = False
        for value, negative in whole or [max(candidates)]:
            column = relaxation.columns[-negative]
            assert column is not None
            fits = all(n <= r for n, r in zip(column[1], relaxation.residual, strict=True))
            if fits and relaxation.counts[column[0]] > 0:
                boards += relaxation.fix(-negative, relaxation.most_times(-negative, value))
                fixed_any = True
        if not fixed_any:
            number = -max(candidates)[1]
            relaxation.program.bound_column(number, 0.0)
        solved = relaxation.solve(clock)
        if solved is None or relaxation.is_lost(solved[0]):
            break
        values = solved[1]
    return Dive(tuple(boards), tuple(relaxation.residual))


def insist(
    holder: Holder, bins: Sequence[Bin], demand: Sequence[int], chance: random.Random
) -> tuple[FilledBoard, ...] | None:
    """Another way to hold a demand in bins that could not be decided: a dive by chance, and the
    last boards by every pattern of what is left then. ``None`` where that fails."""
    relaxation = Relaxation(holder, bins, demand)
    solved = relaxation.solve()
    if solved is None or solved[0] > EPSILON:
        return None
    leave = chance.choice(_LAST_BOARDS)
    ended = dive(relaxation, solved[1], chance, leave)
    if ended.is_complete:
        return ended.boards
    rest = [
        replace(b, count=n) for b, n in zip(relaxation.bins, relaxation.counts, strict=True) if n
    ]
    if sum(b.count for b in rest) > leave:
        return None
    outcome, boards = pack_whole(holder, rest, ended.residual)
    return (*ended.boards, *boards) if outcome is Outcome.SOLVED else None
