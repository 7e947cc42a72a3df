"""Every load that a board can hold, where the parts are few enough to list them all.

A load says how many of each item. Arrays with one axis per item say for every load at once whether
a board holds it, and how short a board would do. What boards of a purchase hold together follows
from those arrays, so that a purchase is decided without any search.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import prod
from typing import TypeVar

import numpy as np
import numpy.typing as npt

from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.model import FilledBoard, Model, Packing, Pattern
from carpentry.cutting.search.programs import Outcome

Ints = npt.NDArray[np.int64]
Lengths = npt.NDArray[np.int32]  # of the shortest board for each load
Bools = npt.NDArray[np.bool_]
Of = TypeVar("Of", Lengths, Bools)
MOST_LOADS = 500_000
NEVER = 2**30
_MOST_KEPT = 60
_MOST_BOARDS = 60


def roomiest(model: Model, loads: "Loads", packing: Packing, clock: Clock) -> Packing:
    """The same boards with as much length left on one of them as can be."""
    if any(packing.missing):
        return packing
    kinds = [model.sources[board.source].kind for board in packing.boards]
    held = loads.longest_leftover(kinds, model.demand, clock)
    if held is None or not all(map(any, held)):
        return packing
    boards = (
        FilledBoard(board.source, load) for board, load in zip(packing.boards, held, strict=True)
    )
    return Packing(tuple(boards), packing.missing)


class TimeIsUp(Exception):
    """Time was up before all loads were listed."""


def can_be_listed(demand: Sequence[int]) -> bool:
    """Whether the selections of so many parts are few enough."""
    return prod(d + 1 for d in demand) <= MOST_LOADS


@dataclass(frozen=True)
class Held:
    """What boards of a kind hold. Where it is known, the ``shortest`` that such a board could be
    for each load, of its ``capacity``."""

    loads: Bools
    capacity: int
    shortest: Lengths | None = None


class Loads:
    """The loads of all kinds of boards."""

    def __init__(self, held: Sequence[Held]) -> None:
        self.held = held
        self.fullest = [np.argwhere(fullest(one.loads)) for one in held]
        self._together: dict[tuple[int, ...], Bools] = {}
        self._together_for: tuple[int, ...] = ()

    def best(self, kind: int, values: Sequence[int], demand: Sequence[int]) -> tuple[int, Pattern]:
        """The greatest worth of a load with no more than ``demand``, and the load."""
        loads = np.minimum(self.fullest[kind], np.array(demand, dtype=np.int64))
        worths = loads @ np.array(values, dtype=np.int64)
        at = int(worths.argmax())
        return int(worths[at]), tuple(int(n) for n in loads[at])

    def every(self, kind: int, demand: Sequence[int], most: int) -> list[Pattern] | None:
        """The loads of a kind with no more than ``demand`` that no other contains, and perhaps a
        few more; ``None`` for more than ``most``."""
        loads = np.unique(np.minimum(self.fullest[kind], np.array(demand)), axis=0)
        return None if len(loads) > most else [tuple(map(int, load)) for load in loads]

    def pack(
        self, kinds: Sequence[int], demand: Sequence[int], clock: Clock
    ) -> tuple[Outcome, tuple[Pattern, ...]]:
        """Whether boards of these kinds hold all of a demand, and what each of them holds then;
        undecided for very many boards."""
        if len(kinds) > _MOST_BOARDS:
            return Outcome.UNDECIDED, ()
        wanted = tuple(demand)
        if wanted != self._together_for or len(self._together) > _MOST_KEPT:
            self._together, self._together_for = {}, wanted
        ordered = sorted(range(len(kinds)), key=lambda n: kinds[n])
        halves = ordered[::2], ordered[1::2]
        try:
            one, other = (
                self._all(tuple(kinds[n] for n in half), wanted, clock) for half in halves
            )
        except TimeIsUp:
            return Outcome.UNDECIDED, ()
        hits = np.argwhere(one & np.flip(other))
        if not len(hits):
            return Outcome.IMPOSSIBLE, ()
        found: list[Pattern] = [()] * len(kinds)
        for half, load in zip(halves, (hits[-1], np.array(wanted) - hits[-1]), strict=True):
            left = load
            for at in range(len(half) - 1, -1, -1):
                before = self._all(tuple(kinds[n] for n in half[:at]), wanted, clock)
                held = self._of_one(kinds[half[at]], left, before)
                found[half[at]] = tuple(int(n) for n in held)
                left = left - held
        return Outcome.SOLVED, tuple(found)

    def longest_leftover(
        self, kinds: Sequence[int], demand: Sequence[int], clock: Clock
    ) -> tuple[Pattern, ...] | None:
        """What each of these boards holds so that one of them has as much length left as can be;
        ``None`` where no plain board is among them, they are very many, or time is up."""
        if len(kinds) > _MOST_BOARDS:
            return None
        wanted = tuple(demand)
        best: tuple[int, int, Ints] | None = None
        for kind in dict.fromkeys(kinds):
            shortest = self.held[kind].shortest
            if shortest is None:
                continue
            others = list(kinds)
            others.remove(kind)
            try:
                beside = self._all(tuple(sorted(others)), wanted, clock)
            except TimeIsUp:
                return None
            mine = shortest[tuple(slice(n + 1) for n in wanted)]
            needed = np.where(beside, np.flip(mine), NEVER)
            load = np.array(np.unravel_index(int(needed.argmin()), needed.shape))
            left = self.held[kind].capacity - int(needed.min())
            if left >= 0 and (best is None or left > best[0]):
                best = left, kind, load
        if best is None:
            return None
        _, kind, load = best
        others = list(kinds)
        at = others.index(kind)
        del others[at]
        outcome, found = self.pack(others, [int(n) for n in load], clock)
        if outcome is not Outcome.SOLVED:
            return None
        last = tuple(int(d - n) for d, n in zip(wanted, load, strict=True))
        return *found[:at], last, *found[at:]

    def _all(self, kinds: tuple[int, ...], wanted: tuple[int, ...], clock: Clock) -> Bools:
        """Which loads (up to ``wanted``) boards of these kinds hold together."""
        if not kinds:
            nothing: Bools = np.zeros([n + 1 for n in wanted], dtype=np.bool_)
            nothing[(0,) * len(wanted)] = True
            return nothing
        if kinds not in self._together:
            before = self._all(kinds[:-1], wanted, clock)
            last = self.held[kinds[-1]].loads[tuple(slice(n + 1) for n in wanted)]
            self._together[kinds] = both(before, last, clock)
        return self._together[kinds]

    def _of_one(self, kind: int, load: Ints, before: Bools) -> Ints:
        """What one board holds of a load, so that the others hold the rest."""
        loads = np.minimum(self.fullest[kind], load)
        rests = before[tuple((load - loads).T)]
        found: Ints = loads[int(rests.argmax())]
        return found


def both(one: Bools, other: Bools, clock: Clock) -> Bools:
    """The loads that fall into one that ``one`` and one that ``other`` holds."""
    every = np.zeros_like(one)
    for load in np.argwhere(fullest(other)):
        if clock.is_over:
            raise TimeIsUp
        every[containing(load)] |= one[rest_of(load, one.shape)]
    return smaller_too(every, np.logical_or)


def containing(load: Ints) -> tuple[slice, ...]:
    """The loads that contain this one."""
    return tuple(slice(int(n), None) for n in load)


def rest_of(load: Ints, shape: tuple[int, ...]) -> tuple[slice, ...]:
    """What those that contain a load have beside it."""
    return tuple(slice(0, size - int(n)) for n, size in zip(load, shape, strict=True))


def smaller_too(of_loads: Of, fold: np.ufunc) -> Of:
    """What holds for a load also holds for all that it contains."""
    for axis in range(of_loads.ndim):
        turned = np.flip(of_loads, axis)
        of_loads = np.flip(fold.accumulate(turned, axis=axis), axis)
    return of_loads


def _one_more(of_loads: Lengths | Bools, axis: int, beyond: int) -> Lengths | Bools:
    """For each load what holds with one more of an item, ``beyond`` where no more are wanted."""
    more = np.full_like(of_loads, beyond)
    ahead, behind = [slice(None)] * of_loads.ndim, [slice(None)] * of_loads.ndim
    ahead[axis], behind[axis] = slice(1, None), slice(0, -1)
    more[tuple(behind)] = of_loads[tuple(ahead)]
    return more


def fullest(held: Bools) -> Bools:
    """The loads of ``held`` that no other of them contains."""
    fullest = held.copy()
    for axis in range(held.ndim):
        fullest &= ~_one_more(held, axis, 0).astype(np.bool_)
    return fullest


def worth_cutting(shortest: Lengths, most: int) -> Bools:
    """The loads in up to ``most`` length that take no part more without getting longer."""
    worth: Bools = (shortest <= most) & (shortest > 0)
    for axis in range(shortest.ndim):
        worth &= _one_more(shortest, axis, NEVER) > shortest
    return worth
