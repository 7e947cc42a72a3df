"""In which order cuts are made so that each position of a tool is set as seldom as can be.

A cut waits for the one that makes its piece; all that are ready at one position are made together.
A position that has no cut but those that are ready is never wrong to take now; only where there is
none is searched, deeper and deeper, within a budget of steps: the fewest positions that way are
proven, without the budget the order is a good one.
"""

from collections import Counter
from collections.abc import Callable, Hashable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Generic, TypeVar

K = TypeVar("K", bound=Hashable)  # a position
C = TypeVar("C", bound=Hashable)  # a cut
_STEPS = 4_000


@dataclass(frozen=True)
class Ordered(Generic[K, C]):
    """Positions in their order, each with its cuts; whether no order has fewer."""

    rounds: Sequence[tuple[K, tuple[C, ...]]]
    is_fewest: bool


@dataclass(frozen=True)
class _Work(Generic[K]):
    """Boards that are cut alike are one: the position of each of its cuts, which cut it waits
    for, and what waits for it."""

    positions: tuple[K, ...]
    after: tuple[int | None, ...]


Done = tuple[frozenset[int], ...]
Rank = tuple[int | float | str, ...]


def in_fewest_rounds(
    boards: Iterable[Sequence[tuple[C, K, C | None]]], rank: Callable[[K], Rank]
) -> Ordered[K, C]:
    """The cuts of boards, each with its position and the cut of the same board that it waits for,
    in as few positions as can be; of positions that may all be next the one that ranks first."""
    alike: dict[_Work[K], list[Sequence[C]]] = {}
    for board in boards:
        names = [cut for cut, _, _ in board]
        places = {cut: n for n, cut in enumerate(names)}
        after = tuple(None if one is None else places[one] for _, _, one in board)
        work = _Work(tuple(position for _, position, _ in board), after)
        alike.setdefault(work, []).append(names)
    search = _Search(list(alike), rank)
    order = search.order()
    rounds = []
    done = search.begun
    for position in order:
        fresh = search.made(done, position)
        cuts = [
            names[n]
            for work, before, now in zip(alike, done, fresh, strict=True)
            for names in alike[work]
            for n in sorted(now - before)
        ]
        rounds.append((position, tuple(cuts)))
        done = fresh
    return Ordered(rounds, search.is_fewest)


class _Search(Generic[K]):
    def __init__(self, works: Sequence[_Work[K]], rank: Callable[[K], Rank]) -> None:
        self.works = works
        self.rank = rank
        self.is_fewest = True
        self.begun: Done = tuple(frozenset() for _ in works)
        self._steps = 0
        self._failed: dict[Done, int] = {}

    def order(self) -> list[K]:
        """The positions, one after the other."""
        least = len({position for work in self.works for position in work.positions})
        for more in range(3 + sum(len(work.positions) for work in self.works)):
            self._failed.clear()
            found = self._within(self.begun, least + more)
            if found is not None:
                return found
            if self._steps > _STEPS:
                break
        self.is_fewest = False
        return self._greedy()

    def made(self, done: Done, position: K) -> Done:
        """What is done when all cuts at a position are made that are ready, or come to be."""
        return tuple(
            self._made(work, before, position)
            for work, before in zip(self.works, done, strict=True)
        )

    def _made(self, work: _Work[K], before: frozenset[int], position: K) -> frozenset[int]:
        now = set(before)
        for n, after in enumerate(work.after):
            if work.positions[n] == position and (after is None or after in now):
                now.add(n)
        return frozenset(now)

    def _left(self, done: Done) -> Counter[K]:
        """How many cuts are left at every position."""
        return Counter(
            position
            for work, mine in zip(self.works, done, strict=True)
            for n, position in enumerate(work.positions)
            if n not in mine
        )

    def _ready(self, done: Done) -> set[K]:
        return {
            work.positions[n]
            for work, mine in zip(self.works, done, strict=True)
            for n, after in enumerate(work.after)
            if n not in mine and (after is None or after in mine)
        }

    def _safe(self, done: Done) -> tuple[list[K], Done]:
        """The positions that are taken now because nothing of them comes later."""
        taken: list[K] = []
        while True:
            left = self._left(done)
            for position in sorted(self._ready(done), key=self.rank):
                after = self.made(done, position)
                if not self._left(after)[position]:
                    taken.append(position)
                    done = after
                    break
            else:
                return taken, done
            if not left:
                return taken, done

    def _within(self, done: Done, most: int) -> list[K] | None:
        """An order of at most so many positions more; ``None`` where there is none, or the budget
        is used up."""
        self._steps += 1
        taken, done = self._safe(done)
        room = most - len(taken)
        left = self._left(done)
        if not left:
            return taken
        if len(left) >= room or self._failed.get(done, -1) >= room or self._steps > _STEPS:
            return None  # one of those that are left is taken twice
        for position in sorted(self._ready(done), key=self.rank):
            rest = self._within(self.made(done, position), room - 1)
            if rest is not None:
                return [*taken, position, *rest]
        self._failed[done] = room
        return None

    def _greedy(self) -> list[K]:
        """Always the position of which most is ready, as a share of what is left of it."""
        done, order = self.begun, []
        while True:
            taken, done = self._safe(done)
            order += taken
            left = self._left(done)
            if not left:
                return order
            best = max(self._ready(done), key=lambda one: self._share(done, one, left))
            order.append(best)
            done = self.made(done, best)

    def _share(self, done: Done, position: K, left: Mapping[K, int]) -> float:
        after = self._left(self.made(done, position))
        return (left[position] - after[position]) / left[position]
