"""In which order cuts are made so that each position of a tool is set as seldom as can be.

A cut waits for the one that makes its piece; all that are ready at one position are made together.
A position that has no cut but those that are ready is never wrong to take now; only where there is
none is searched, deeper and deeper, within a budget of steps: the fewest positions that way are
proven, without the budget the order is a good one.
"""

from collections.abc import Callable, Hashable, Iterable, Sequence
from dataclasses import dataclass
from typing import Generic, TypeVar

K = TypeVar("K", bound=Hashable)  # a position
C = TypeVar("C", bound=Hashable)  # a cut
_WORK = 30_000  # boards looked at in the search
Rank = tuple[int | float | str, ...]


@dataclass(frozen=True)
class Ordered(Generic[K, C]):
    """Positions in their order, each with its cuts; whether no order has fewer."""

    rounds: Sequence[tuple[K, tuple[C, ...]]]
    is_fewest: bool


@dataclass(frozen=True)
class _Work:
    """Boards that are cut alike are one: the position of each of its cuts, by number, and which cut
    it waits for."""

    positions: tuple[int, ...]
    after: tuple[int | None, ...]


Done = tuple[int, ...]  # of every work the cuts that are done, a bit each


def in_fewest_rounds(
    boards: Iterable[Sequence[tuple[C, K, C | None]]], rank: Callable[[K], Rank]
) -> Ordered[K, C]:
    """The cuts of boards, each with its position and the cut of the same board that it waits for,
    in as few positions as can be; of positions that may all be next the one that ranks first."""
    known = [list(board) for board in boards]
    every = sorted({position for board in known for _, position, _ in board}, key=rank)
    numbers = {position: number for number, position in enumerate(every)}
    alike: dict[_Work, list[list[C]]] = {}
    for board in known:
        names = [cut for cut, _, _ in board]
        places = {cut: n for n, cut in enumerate(names)}
        after = tuple(None if one is None else places[one] for _, _, one in board)
        work = _Work(tuple(numbers[position] for _, position, _ in board), after)
        alike.setdefault(work, []).append(names)
    search = _Search(list(alike), len(every))
    rounds = []
    done = search.begun
    for position in search.order():
        fresh = search.made(done, position)
        cuts = [
            names[n]
            for work, before, now in zip(alike, done, fresh, strict=True)
            for names in alike[work]
            for n in range(len(names))
            if (now & ~before) >> n & 1
        ]
        rounds.append((every[position], tuple(cuts)))
        done = fresh
    return Ordered(rounds, search.is_fewest)


class _Search:
    """Looks for an order of positions, which are numbers in their rank."""

    def __init__(self, works: Sequence[_Work], positions: int) -> None:
        self.works = works
        self.positions = positions
        self.is_fewest = True
        self.begun: Done = tuple(0 for _ in works)
        self._looked = 0
        self._failed: dict[Done, int] = {}
        self._at: list[dict[int, int]] = [{} for _ in range(positions)]  # its cuts, by work
        for w, work in enumerate(works):
            for n, position in enumerate(work.positions):
                self._at[position][w] = self._at[position].get(w, 0) | 1 << n

    def order(self) -> list[int]:
        """The positions, one after the other."""
        for most in range(self.positions, 2 * sum(len(w.positions) for w in self.works) + 1):
            self._failed.clear()
            found = self._within(self.begun, most)
            if found is not None:
                return found
            if self._looked > _WORK:
                break
        self.is_fewest = False
        return self._greedy()

    def made(self, done: Done, position: int) -> Done:
        """What is done when all cuts at a position are made that are ready, or come to be."""
        now = list(done)
        for w in self._at[position]:
            now[w] = self._made(w, done[w], position)
        return tuple(now)

    def _made(self, w: int, done: int, position: int) -> int:
        self._looked += 1
        work = self.works[w]
        waiting = self._at[position][w] & ~done
        while waiting:
            low = waiting & -waiting
            waiting ^= low
            after = work.after[low.bit_length() - 1]
            if after is None or done >> after & 1:
                done |= low
        return done

    def _exhausts(self, done: Done, position: int) -> Done | None:
        """What is done after a position of which nothing comes later; ``None`` where something
        does."""
        now = list(done)
        for w, cuts in self._at[position].items():
            if cuts & ~done[w]:
                now[w] = self._made(w, done[w], position)
                if cuts & ~now[w]:
                    return None
        return tuple(now)

    def _left(self, done: Done) -> list[int]:
        """The positions at which something is left."""
        return [
            position
            for position, by_work in enumerate(self._at)
            if any(cuts & ~done[w] for w, cuts in by_work.items())
        ]

    def _ready(self, done: Done, left: Iterable[int]) -> list[int]:
        """Those at which something can be done now."""
        return [position for position in left if self._is_ready(done, position)]

    def _is_ready(self, done: Done, position: int) -> bool:
        for w, cuts in self._at[position].items():
            waiting = cuts & ~done[w]
            while waiting:
                low = waiting & -waiting
                waiting ^= low
                after = self.works[w].after[low.bit_length() - 1]
                if after is None or done[w] >> after & 1:
                    return True
        return False

    def _safe(self, done: Done) -> tuple[list[int], Done, list[int]]:
        """The positions that are taken now because nothing of them comes later, what is done then,
        and the positions that are left."""
        taken: list[int] = []
        left = self._left(done)
        again = True
        while again:
            again = False
            for position in left:
                after = self._exhausts(done, position)
                if after is not None:
                    taken.append(position)
                    done = after
                    left.remove(position)
                    again = True
                    break
        return taken, done, left

    def _within(self, done: Done, most: int) -> list[int] | None:
        """An order of at most so many positions more; ``None`` where there is none, or the budget
        is used up."""
        taken, done, left = self._safe(done)
        room = most - len(taken)
        if not left:
            return taken
        if len(left) >= room or self._failed.get(done, -1) >= room or self._looked > _WORK:
            return None  # one of those that are left is taken twice
        for position in self._ready(done, left):
            rest = self._within(self.made(done, position), room - 1)
            if rest is not None:
                return [*taken, position, *rest]
        self._failed[done] = room
        return None

    def _greedy(self) -> list[int]:
        """Always the position of which most is ready, as a share of what is left of it."""
        done, order = self.begun, []
        while True:
            taken, done, left = self._safe(done)
            order += taken
            if not left:
                return order
            best = max(self._ready(done, left), key=lambda one: self._share(done, one))
            order.append(best)
            done = self.made(done, best)

    def _share(self, done: Done, position: int) -> float:
        now = self.made(done, position)
        waiting = sum((c & ~done[w]).bit_count() for w, c in self._at[position].items())
        rest = sum((c & ~now[w]).bit_count() for w, c in self._at[position].items())
        return (waiting - rest) / waiting
