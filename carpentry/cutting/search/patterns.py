"""What one piece of stock can hold: bounded knapsacks over the sums that can be reached at all."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from carpentry.cutting.search.knapsack import binary_shares
from carpentry.cutting.search.model import Pattern


class Knapsack:
    """The most valuable patterns for several capacities at once.

    ``sizes`` and ``demand`` are those of the items, ``capacities`` those of the sources. The sums
    that subsets of the items reach are found once; every later question is answered over them.
    """

    def __init__(
        self, sizes: Sequence[int], demand: Sequence[int], capacities: Sequence[int]
    ) -> None:
        self.sizes = tuple(sizes)
        top = max(capacities, default=0)
        mask = (1 << (top + 1)) - 1
        reached = 1
        for size, copies in zip(sizes, demand, strict=True):
            for share in binary_shares(min(copies, top // size)):
                reached |= (reached << (share * size)) & mask
        raw = np.frombuffer(reached.to_bytes(top // 8 + 1, "little"), dtype=np.uint8)
        self.sums = np.flatnonzero(np.unpackbits(raw, bitorder="little")).astype(np.int64)
        self._below: dict[int, tuple[int, npt.NDArray[np.int64]]] = {}

    def _predecessors(self, size: int) -> tuple[int, npt.NDArray[np.int64]]:
        """The first sum that holds ``size``, and for each from there the one left without it."""
        known = self._below.get(size)
        if known is None:
            first = int(np.searchsorted(self.sums, size))
            left = np.searchsorted(self.sums, self.sums[first:] - size, side="right") - 1
            known = self._below[size] = (first, left.astype(np.int64))
        return known

    most_care = 0  # exact already

    def best_for(
        self, capacities: Sequence[int], values: Sequence[int], demand: Sequence[int], care: int = 0
    ) -> list[tuple[int, Pattern]]:
        """For each capacity (none above the largest) the greatest value and a pattern that has it.

        ``values`` are whole numbers per item; no pattern holds more of an item than ``demand``.
        """
        profile = self.profile(values, demand)
        return [(profile.value(c), profile.pattern(c)) for c in capacities]

    def profile(self, values: Sequence[int], demand: Sequence[int]) -> "Profile":
        """The greatest value of every capacity at once."""
        top = self.sums[-1] if len(self.sums) else 0
        best = np.zeros(len(self.sums), dtype=np.int64)
        steps: list[Step] = []
        for item, (size, value, copies) in enumerate(zip(self.sizes, values, demand, strict=True)):
            if value <= 0 or copies <= 0:
                continue
            for share in binary_shares(min(copies, int(top) // size)):
                first, left = self._predecessors(share * size)
                with_it = best[left] + share * value
                better = with_it > best[first:]
                best[first:] = np.where(better, with_it, best[first:])
                steps.append((item, share, first, better))
        return Profile(self, self.sums, best, steps)

    def with_each(
        self, capacity: int, values: Sequence[int], demand: Sequence[int]
    ) -> Iterator[Pattern]:
        """For each item that is worth something a good pattern that has it."""
        profile = self.profile(values, demand)
        for item, size in enumerate(self.sizes):
            if values[item] > 0 and demand[item] and size <= capacity:
                pattern = profile.pattern(capacity - size)
                if pattern[item] < demand[item]:
                    yield tuple(n + (i == item) for i, n in enumerate(pattern))

    def trace(self, steps: "Sequence[Step]", at: int) -> Pattern:
        """The pattern that the steps of a profile made at a sum's index."""
        counts = [0] * len(self.sizes)
        for item, share, first, better in reversed(steps):
            if at >= first and better[at - first]:
                counts[item] += share
                at = int(self._predecessors(share * self.sizes[item])[1][at - first])
        return tuple(counts)


Step = tuple[int, int, int, npt.NDArray[np.bool_]]


@dataclass(frozen=True)
class Profile:
    """Greatest values by reachable sum; ``best`` never falls from one sum to the next."""

    knapsack: Knapsack
    sums: npt.NDArray[np.int64]
    best: npt.NDArray[np.int64]
    steps: list[Step]

    def value(self, capacity: int) -> int:
        """The greatest value of a capacity."""
        return int(self.best[self._index(capacity)])

    def pattern(self, capacity: int) -> Pattern:
        """A pattern of that value."""
        return self.knapsack.trace(self.steps, self._index(capacity))

    def records(self) -> npt.NDArray[np.int64]:
        """The sums at which the value grows."""
        grown = np.empty(len(self.best), dtype=bool)
        grown[0] = False
        np.greater(self.best[1:], self.best[:-1], out=grown[1:])
        return self.sums[grown]

    def values(self, capacities: npt.NDArray[np.int64]) -> npt.NDArray[np.int64]:
        """The greatest value of each of many capacities."""
        return self.best[np.searchsorted(self.sums, capacities, side="right") - 1]

    def _index(self, capacity: int) -> int:
        return int(np.searchsorted(self.sums, capacity, side="right")) - 1


def maximal_patterns(
    sizes: Sequence[int], demand: Sequence[int], capacity: int, most: int
) -> list[Pattern] | None:
    """Every pattern of a capacity to which no further item can be added, or ``None`` when there
    are more than ``most`` or finding them takes too many steps. ``sizes``: longest first."""
    found: list[Pattern] = []
    counts = [0] * len(sizes)
    steps = 0

    def extend(item: int, left: int, spared: int) -> bool:
        nonlocal steps
        steps += 1
        if steps > 20 * most:
            return False
        if item == len(sizes):
            if left < spared:
                found.append(tuple(counts))
            return len(found) <= most
        fit = min(demand[item], left // sizes[item])
        for copies in range(fit, -1, -1):
            counts[item] = copies
            smallest = sizes[item] if copies < demand[item] else spared
            if not extend(item + 1, left - copies * sizes[item], min(spared, smallest)):
                return False
        counts[item] = 0
        return True

    return found if extend(0, capacity, capacity + 1) else None
