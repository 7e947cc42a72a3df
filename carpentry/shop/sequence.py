"""In which order cuts are made so that each position of a tool is set as seldom as can be.

A cut waits for the one that makes its piece; all that are ready at one position are made together,
those too that ride along: a cut to a line may be made at any stop where the saw stands so. A
position of which nothing comes later is never wrong to take now; only where there is none is
searched, deeper and deeper, within a budget of steps: the fewest positions that way are proven,
without the budget the order is a good one.
"""

from collections.abc import Callable, Hashable, Iterable, Mapping, Sequence
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
    """Boards that are cut alike are one: the positions at which each of its cuts may be made, by
    number, and which cut it waits for."""

    positions: tuple[tuple[int, ...], ...]
    after: tuple[int | None, ...]


Masks = list[dict[int, int]]  # of every position its cuts, by work, a bit each
Done = tuple[int, ...]  # of every work the cuts that are done, a bit each


def in_fewest_rounds(
    boards: Iterable[Sequence[tuple[C, Sequence[K], C | None]]], rank: Callable[[K], Rank]
) -> Ordered[K, C]:
    """The cuts of boards, each with the positions at which it may be made and the cut of the same
    board that it waits for, in as few positions as can be; of positions that may all be next the
    one that ranks first."""
    known = [list(board) for board in boards]
    every = sorted({one for board in known for _, may, _ in board for one in may}, key=rank)
    numbers = {position: number for number, position in enumerate(every)}
    alike: dict[_Work, list[list[C]]] = {}
    for board in known:
        names = [cut for cut, _, _ in board]
        places = {cut: n for n, cut in enumerate(names)}
        after = tuple(None if one is None else places[one] for _, _, one in board)
        work = _Work(tuple(tuple(sorted(numbers[p] for p in may)) for _, may, _ in board), after)
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
        self._at: Masks = [{} for _ in range(positions)]
        self._own: Masks = [{} for _ in range(positions)]  # of those that are made nowhere else
        for w, work in enumerate(works):
            for n, may in enumerate(work.positions):
                for position in may:
                    for masks in (self._at, self._own) if len(may) == 1 else (self._at,):
                        masks[position][w] = masks[position].get(w, 0) | 1 << n

    def order(self) -> list[int]:
        """The positions, one after the other."""
        most_cuts = sum(len(work.positions) for work in self.works)
        for most in range(sum(map(bool, self._own)), 2 * most_cuts + 1):
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

    def _exhausts(self, done: Done, position: int, cuts: Masks) -> Done | None:
        """What is done after a position of whose cuts nothing comes later; ``None`` where something
        does."""
        after = self.made(done, position)
        later = any(mine & ~after[w] for w, mine in cuts[position].items())
        return None if later else after

    def _left(self, done: Done) -> list[int]:
        """The positions of whose own cuts something is left."""
        return [
            position
            for position, by_work in enumerate(self._own)
            if any(cuts & ~done[w] for w, cuts in by_work.items())
        ]

    def _is_done(self, done: Done) -> bool:
        return all(
            now == (1 << len(work.positions)) - 1
            for work, now in zip(self.works, done, strict=True)
        )

    def _ready(self, done: Done) -> list[int]:
        """Those at which something can be done now."""
        return [one for one in range(self.positions) if self._is_ready(done, one)]

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
                after = self._exhausts(done, position, self._at)
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
        if self._is_done(done):
            return taken if room >= 0 else None
        # where every one that is left has more of its own to come, one of them is taken twice
        twice = not any(self._exhausts(done, one, self._own) for one in left)
        if len(left) + twice > room or self._failed.get(done, -1) >= room or self._looked > _WORK:
            return None
        for position in self._ready(done):
            rest = self._within(self.made(done, position), room - 1)
            if rest is not None:
                return [*taken, position, *rest]
        self._failed[done] = room
        return None

    def _greedy(self) -> list[int]:
        """Always the position of which most is ready, as a share of what is left of it."""
        done, order = self.begun, []
        while True:
            taken, done, _ = self._safe(done)
            order += taken
            if self._is_done(done):
                return order
            best = max(self._ready(done), key=lambda one: self._share(done, one))
            order.append(best)
            done = self.made(done, best)

    def _share(self, done: Done, position: int) -> float:
        now = self.made(done, position)
        waiting = sum((c & ~done[w]).bit_count() for w, c in self._at[position].items())
        rest = sum((c & ~now[w]).bit_count() for w, c in self._at[position].items())
        return (waiting - rest) / waiting


def in_few_walks(
    rounds: Sequence[tuple[K, tuple[C, ...]]],
    waits: Mapping[C, C | None],
    nearer: Callable[[K | None, K], int],
) -> list[tuple[K, tuple[C, ...]]]:
    """The same rounds, each after those that it waits for, so that what is done at one tool comes
    together: next is always the one that is least far (``nearer``) from the last."""
    at = {cut: n for n, (_, cuts) in enumerate(rounds) for cut in cuts}
    before = [
        {at[w] for cut in cuts if (w := waits[cut]) is not None and at[w] != n}
        for n, (_, cuts) in enumerate(rounds)
    ]
    order: list[int] = []
    left = list(range(len(rounds)))
    while left:
        last = rounds[order[-1]][0] if order else None
        ready = [n for n in left if before[n] <= set(order)]
        best = min(ready, key=lambda n: (nearer(last, rounds[n][0]), n))
        order.append(best)
        left.remove(best)
    return [rounds[n] for n in order]
