"""Bounded knapsacks with sizes so fine that the sums they reach are too many to list: on a grid,
for good patterns and a bound that is close, and exactly, by states that no other is better than.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from carpentry.cutting.search.model import Pattern, worth_of

Ints = npt.NDArray[np.int64]
Step = tuple[int, int, int, npt.NDArray[np.bool_]]  # item, share, its size, where it is taken
CELLS, _FINER = 16_384, 4  # of the grid, and how many times finer another one is
_MOST_WORK = 600_000  # states, over all steps


def binary_shares(copies: int) -> Iterator[int]:
    """Shares of so many copies whose sums are every number up to it."""
    share = 1
    while copies > 0:
        taken = min(share, copies)
        yield taken
        copies -= taken
        share *= 2


@dataclass(frozen=True)
class _Grid:
    """Sizes in cells, rounded one way, and what a ``cell`` measures."""

    sizes: Ints
    top: int
    cell: int

    @classmethod
    def of(cls, sizes: Sequence[int], top: int, cells: int, *, up: bool) -> "_Grid":
        cell = max(1, -(-top // cells))
        every = np.array(sizes, dtype=np.int64)
        return cls(-(-every // cell) if up else every // cell, top // cell, cell)

    def best(self, values: Sequence[int], demand: Sequence[int]) -> tuple[Ints, list[Step]]:
        """The greatest value of every number of cells, and the steps that made it."""
        best: Ints = np.zeros(self.top + 1, dtype=np.int64)
        steps = []
        for item, (value, copies) in enumerate(zip(values, demand, strict=True)):
            size = int(self.sizes[item])
            if value <= 0 or copies <= 0 or size > self.top:
                continue
            most = min(copies, self.top // size) if size else copies
            for share in binary_shares(most):
                wide = share * size
                with_it = best[: self.top + 1 - wide] + share * value
                better = with_it > best[wide:]
                if better.any():
                    best[wide:] = np.where(better, with_it, best[wide:])
                    steps.append((item, share, wide, better))
        return best, steps


class GridKnapsack:
    """The most valuable patterns for several capacities at once, over a grid: patterns that fit,
    and values that no pattern exceeds."""

    most_care = 2

    def __init__(self, sizes: Sequence[int], capacities: Sequence[int], cells: int = CELLS) -> None:
        self.sizes = tuple(sizes)
        self.top, self.cells = max(capacities, default=1), cells
        self._grids: dict[tuple[int, bool], _Grid] = {}
        self._last: dict[int, tuple[object, list[Step]]] = {}

    def best_for(
        self, capacities: Sequence[int], values: Sequence[int], demand: Sequence[int], care: int = 0
    ) -> list[tuple[int, Pattern]]:
        """For each capacity (none above the largest) a worth that no pattern exceeds, and a pattern
        that is good; with care on finer grids, and with more where that is not too much work the
        greatest worth there is."""
        down = self._grid(care, up=False)
        above, _ = down.best(values, demand)
        found = []
        for capacity in capacities:
            at_most = int(above[capacity // down.cell])
            good = self._good(capacity, values, demand, min(care, 1))
            worth = worth_of(values, good)
            if care > 1 and worth < at_most:
                best = best_exactly(self.sizes, values, demand, capacity, good)
                at_most = worth_of(values, best) if best else at_most
                good = best or good
            found.append((max(worth, at_most), good))
        return found

    def _grid(self, care: int, *, up: bool) -> _Grid:
        if (care, up) not in self._grids:
            cells = self.cells * _FINER**care
            self._grids[care, up] = _Grid.of(self.sizes, self.top, cells, up=up)
        return self._grids[care, up]

    def _steps(self, values: Sequence[int], demand: Sequence[int], care: int) -> list[Step]:
        """The steps to good patterns; those of the last question are kept."""
        asked = tuple(values), tuple(demand)
        if care not in self._last or self._last[care][0] != asked:
            self._last[care] = asked, self._grid(care, up=True).best(values, demand)[1]
        return self._last[care][1]

    def _good(
        self, capacity: int, values: Sequence[int], demand: Sequence[int], care: int
    ) -> Pattern:
        """A pattern that fits and is worth most by a grid."""
        at = capacity // self._grid(care, up=True).cell
        counts = self._trace(self._steps(values, demand, care), at)
        return self._filled(counts, capacity, values, demand)

    def with_each(
        self, capacity: int, values: Sequence[int], demand: Sequence[int]
    ) -> Iterator[Pattern]:
        """For each item that is worth something a good pattern that has it."""
        steps, cell = self._steps(values, demand, 0), self._grid(0, up=True).cell
        for item, size in enumerate(self.sizes):
            if values[item] <= 0 or not demand[item] or size > capacity:
                continue
            counts = self._trace(steps, (capacity - size) // cell)
            if counts[item] < demand[item]:
                counts[item] += 1
                yield self._filled(counts, capacity, values, demand)

    def _trace(self, steps: Sequence[Step], at: int) -> list[int]:
        counts = [0] * len(self.sizes)
        for item, share, wide, better in reversed(steps):
            if at >= wide and better[at - wide]:
                counts[item] += share
                at -= wide
        return counts

    def _filled(
        self, counts: list[int], capacity: int, values: Sequence[int], demand: Sequence[int]
    ) -> Pattern:
        """A pattern with what still fits beside it, for the most worth first."""
        left = capacity - sum(n * size for n, size in zip(counts, self.sizes, strict=True))
        fits = [i for i, size in enumerate(self.sizes) if values[i] > 0 and size <= left]
        for item in sorted(fits, key=lambda i: -values[i]):
            more = min(demand[item] - counts[item], left // self.sizes[item])
            if more > 0:
                counts[item] += more
                left -= more * self.sizes[item]
        return tuple(counts)


def best_exactly(
    sizes: Sequence[int],
    values: Sequence[int],
    demand: Sequence[int],
    capacity: int,
    start: Pattern,
) -> Pattern | None:
    """The most valuable pattern of a capacity: states of size and value that no other is better
    than, without those that cannot beat what is known (``start`` at first). ``None`` where there
    are too many states."""
    order = [i for i, v in enumerate(values) if v > 0 and demand[i] and sizes[i] <= capacity]
    order.sort(key=lambda i: (-values[i] / sizes[i], sizes[i]))
    best_value = worth_of(values, start)
    held: Ints = np.zeros(1, dtype=np.int64)
    worth: Ints = np.zeros(1, dtype=np.int64)
    history: list[tuple[int, int, Ints, Ints]] = []  # item, share, where each state comes from
    work = 0
    best: tuple[int, int] | None = None  # after which step, and which state
    for place, item in enumerate(order):
        rate = values[item] / sizes[item]
        after = order[place + 1] if place + 1 < len(order) else None
        next_rate = values[after] / sizes[after] if after is not None else 0.0
        for share in binary_shares(min(demand[item], capacity // sizes[item])):
            work += len(held)
            if work > _MOST_WORK:
                return None
            more = held + share * sizes[item]
            fits = np.flatnonzero(more <= capacity)
            sums = np.concatenate([held, more[fits]])
            gains = np.concatenate([worth, worth[fits] + share * values[item]])
            origin = np.concatenate([np.arange(len(held)), fits])
            taken = np.concatenate([np.zeros(len(held), np.int64), np.ones(len(fits), np.int64)])
            ranked = np.lexsort((-gains, sums))
            sums, gains, origin, taken = sums[ranked], gains[ranked], origin[ranked], taken[ranked]
            peak = np.maximum.accumulate(gains)
            fresh = np.empty(len(gains), dtype=bool)
            fresh[0] = True
            fresh[1:] = gains[1:] > peak[:-1]
            hopeful = gains + (capacity - sums) * max(rate, next_rate) > best_value + 1e-9
            top = int(gains.argmax())
            keep = fresh & hopeful
            if gains[top] > best_value:
                best_value = int(gains[top])
                keep[top] = True
            kept = np.flatnonzero(keep)
            if gains[top] == best_value and keep[top] and taken[top]:
                best = len(history), int(np.searchsorted(kept, top))
            held, worth = sums[kept], gains[kept]
            history.append((item, share, origin[kept], taken[kept]))
            if not len(held):
                return _retraced(history, best, len(sizes)) or start
    return _retraced(history, best, len(sizes)) or start


def _retraced(
    history: list[tuple[int, int, Ints, Ints]], best: tuple[int, int] | None, items: int
) -> Pattern | None:
    """The pattern of a state, ``None`` where none beat the start."""
    if best is None:
        return None
    counts = [0] * items
    step, state = best
    for item, share, origin, taken in reversed(history[: step + 1]):
        if taken[state]:
            counts[item] += share
        state = int(origin[state])
    return tuple(counts)
