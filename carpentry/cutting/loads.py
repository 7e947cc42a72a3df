"""Every load that a ripped board can hold, where the parts are few enough to list them all.

A load says how many of each item. Arrays with one axis per item hold, for every load at once, the
shortest length of board that has it: of one segment, over all rip patterns, then of one segment
more, until nothing gets shorter. What boards of a purchase hold together follows from those arrays,
so that a purchase is decided without any search.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace
from math import prod
from time import monotonic
from typing import TypeVar

import numpy as np
import numpy.typing as npt

from carpentry.cutting.cross_section import RipPattern
from carpentry.cutting.linear import Outcome
from carpentry.cutting.model import Pattern
from carpentry.cutting.particular import Particular, Run
from carpentry.cutting.problem import Order
from carpentry.cutting.rip_values import Ints
from carpentry.cutting.ripping import Kind, Ripping, Segment

Lengths = npt.NDArray[np.int32]  # of the shortest board for each load
Bools = npt.NDArray[np.bool_]
Of = TypeVar("Of", Lengths, Bools)
_MOST_LOADS = 300_000
_MOST_KEPT = 60
_NEVER = 2**30


class _TimeIsUp(Exception):
    """The deadline came before all loads were listed."""


def list_loads(ripping: Ripping, deadline: float) -> "Loads | None":
    """The loads of all kinds of boards; ``None`` where they are too many, or time is up."""
    if prod(d + 1 for d in ripping.demand) > _MOST_LOADS:
        return None
    if any(kind.section.patterns is None for kind in ripping.kinds):
        return None
    try:
        return Loads(ripping, deadline)
    except _TimeIsUp:
        return None


class Loads:
    """What boards of each kind hold."""

    def __init__(self, ripping: Ripping, deadline: float) -> None:
        self.demand = np.array(ripping.demand, dtype=np.int64)
        self.kinds = ripping.kinds
        sections: dict[tuple[object, ...], _Section] = {}
        self.sections = []
        for kind in ripping.kinds:
            alike = kind.strips, tuple(kind.section.patterns or ())
            if alike not in sections:
                same = [one for one in ripping.kinds if one.strips == kind.strips]
                capacity = max(one.capacity for one in same)
                sections[alike] = _Section(ripping, kind, capacity, deadline)
            self.sections.append(sections[alike])
        self.held = [self._held(number) for number in range(len(self.kinds))]
        self.fullest = [np.argwhere(_fullest(held)) for held in self.held]
        self._together: dict[tuple[int, ...], Bools] = {}
        self._together_for: tuple[int, ...] = ()

    def _held(self, kind: int) -> Bools:
        """The loads that one board holds: in all its length, or in the runs of one of its ways."""
        particular = self.kinds[kind].particular
        if particular is None:
            return self.sections[kind].within(self.kinds[kind].capacity)
        ways = [self._in_runs(kind, particular, way) for way in particular.ways]
        held: Bools = np.logical_or.reduce([way[-1] for way in ways])
        return held

    def _in_runs(self, kind: int, particular: Particular, way: tuple[Run, ...]) -> list[Bools]:
        """What the first run of a way holds, what the first two hold, and so on, up to all of
        them."""
        found: list[Bools] = []
        for run in way:
            inside = self.sections[kind].within(run.capacity) & self._may(particular, run)
            found.append(_both(found[-1], inside) if found else inside)
        return found

    def _may(self, particular: Particular, run: Run) -> Bools:
        """The loads without what may not come from a board, or not lie in a run of it."""
        most = particular.may([1] * len(self.demand))
        if run.crossing:
            most = particular.crossing(most)
        may: Bools = np.zeros([d + 1 for d in self.demand], dtype=np.bool_)
        may[tuple(slice(None) if allowed else slice(1) for allowed in most)] = True
        return may

    def best(self, kind: int, values: Sequence[int], demand: Sequence[int]) -> tuple[int, Pattern]:
        """The greatest worth of a load with no more than ``demand``, and the load."""
        loads = np.minimum(self.fullest[kind], np.array(demand, dtype=np.int64))
        worths = loads @ np.array(values, dtype=np.int64)
        at = int(worths.argmax())
        return int(worths[at]), tuple(int(n) for n in loads[at])

    def pack(
        self, kinds: Sequence[int], demand: Sequence[int], deadline: float
    ) -> tuple[Outcome, tuple[Pattern, ...]]:
        """Whether boards of these kinds hold all of a demand, and what each of them holds then."""
        wanted = tuple(demand)
        if wanted != self._together_for or len(self._together) > _MOST_KEPT:
            self._together, self._together_for = {}, wanted
        ordered = sorted(range(len(kinds)), key=lambda n: kinds[n])
        halves = ordered[::2], ordered[1::2]
        try:
            one, other = (
                self._all(tuple(kinds[n] for n in half), wanted, deadline) for half in halves
            )
        except _TimeIsUp:
            return Outcome.UNDECIDED, ()
        hits = np.argwhere(one & np.flip(other))
        if not len(hits):
            return Outcome.IMPOSSIBLE, ()
        found: list[Pattern] = [()] * len(kinds)
        for half, load in zip(halves, (hits[-1], np.array(wanted) - hits[-1]), strict=True):
            left = load
            for at in range(len(half) - 1, -1, -1):
                before = self._all(tuple(kinds[n] for n in half[:at]), wanted, deadline)
                held = self._of_one(kinds[half[at]], left, before)
                found[half[at]] = tuple(int(n) for n in held)
                left = left - held
        return Outcome.SOLVED, tuple(found)

    def longest_leftover(
        self, kinds: Sequence[int], demand: Sequence[int], deadline: float
    ) -> tuple[Pattern, ...] | None:
        """What each of these boards holds so that one of them has as much length left as can be;
        ``None`` where no plain board is among them, or time is up."""
        wanted = tuple(demand)
        best: tuple[int, int, Ints] | None = None
        for kind in dict.fromkeys(kinds):
            if self.kinds[kind].particular or self.sections[kind].rip_first:
                continue
            others = list(kinds)
            others.remove(kind)
            try:
                beside = self._all(tuple(sorted(others)), wanted, deadline)
            except _TimeIsUp:
                return None
            shortest = self.sections[kind].shortest[-1][tuple(slice(n + 1) for n in wanted)]
            needed = np.where(beside, np.flip(shortest), _NEVER)
            load = np.array(np.unravel_index(int(needed.argmin()), needed.shape))
            left = self.kinds[kind].capacity - int(needed.min())
            if left >= 0 and (best is None or left > best[0]):
                best = left, kind, load
        if best is None:
            return None
        _, kind, load = best
        others = list(kinds)
        at = others.index(kind)
        del others[at]
        outcome, found = self.pack(others, [int(n) for n in load], deadline)
        if outcome is not Outcome.SOLVED:
            return None
        mine = tuple(int(d - n) for d, n in zip(wanted, load, strict=True))
        return *found[:at], mine, *found[at:]

    def _all(self, kinds: tuple[int, ...], wanted: tuple[int, ...], deadline: float) -> Bools:
        """Which loads (up to ``wanted``) boards of these kinds hold together."""
        if not kinds:
            nothing: Bools = np.zeros([n + 1 for n in wanted], dtype=np.bool_)
            nothing[(0,) * len(wanted)] = True
            return nothing
        if kinds not in self._together:
            before = self._all(kinds[:-1], wanted, deadline)
            last = self.held[kinds[-1]][tuple(slice(n + 1) for n in wanted)]
            self._together[kinds] = _both(before, last, deadline)
        return self._together[kinds]

    def _of_one(self, kind: int, load: Ints, before: Bools) -> Ints:
        """What one board holds of a load, so that the others hold the rest."""
        loads = np.minimum(self.fullest[kind], load)
        rests = before[tuple((load - loads).T)]
        found: Ints = loads[int(rests.argmax())]
        return found

    def segments(self, kind: int, load: Pattern) -> tuple[Segment, ...]:
        """How a board of a kind is cut for a load."""
        section, particular = self.sections[kind], self.kinds[kind].particular
        left = np.array(load)
        if particular is None:
            return tuple(section.segments(left, self.kinds[kind].capacity))
        ways = ((way, self._in_runs(kind, particular, way)) for way in particular.ways)
        way, held = next(one for one in ways if one[1][-1][tuple(left)])
        found: list[Segment] = []
        for number in range(len(way) - 1, -1, -1):
            run = way[number]
            mine = left
            if number:
                inside = section.within(run.capacity) & self._may(particular, run)
                loads = np.minimum(np.argwhere(_fullest(inside)), left)
                mine = loads[int(held[number - 1][tuple((left - loads).T)].argmax())]
            left = left - mine
            first, *others = section.segments(mine, run.capacity)
            found = [replace(first, start=run.start), *others, *found]
        return tuple(found)


class _Section:
    """Boards of one section: the shortest length for every load, in one segment, in two, and so
    on."""

    def __init__(self, ripping: Ripping, kind: Kind, capacity: int, deadline: float) -> None:
        self.patterns = kind.section.patterns or []
        self.rip_first = ripping.order is Order.RIP_FIRST
        most = np.array([pattern.counts for pattern in self.patterns]).max(axis=0, initial=0)
        self.strips = [
            _Strip(ripping, strip, n, capacity) for strip, n in zip(kind.strips, most, strict=True)
        ]
        self.items = len(ripping.items)
        shape = tuple(d + 1 for d in ripping.demand)
        single: Lengths = np.full(shape, _NEVER, dtype=np.int32)
        nothing = [i for i in range(self.items) if ripping.items[i].strip not in kind.strips]
        inside = tuple(slice(1) if i in nothing else slice(None) for i in range(self.items))
        for pattern in self.patterns:
            if monotonic() > deadline:
                raise _TimeIsUp
            np.minimum(single[inside], self._in_one(pattern), out=single[inside])
        self.shortest = [single]
        self.single = np.argwhere(_longest_use(single, capacity // 2))
        self.lengths = single[tuple(self.single.T)]
        if not self.rip_first:
            self._lengthen(capacity, deadline)

    def within(self, capacity: int) -> Bools:
        """The loads for which so much length is enough."""
        held: Bools = self.shortest[-1] <= capacity
        return held

    def _in_one(self, pattern: RipPattern) -> Lengths:
        """The length of a segment with one rip pattern, for each load."""
        axes = [1] * self.items
        longest: Lengths = np.zeros(axes, dtype=np.int32)
        for strip, count in zip(self.strips, pattern.counts, strict=True):
            longest = np.maximum(longest, strip.along(count, self.items))
        return longest

    def _lengthen(self, capacity: int, deadline: float) -> None:
        """One segment more, the shortest of them, until nothing gets shorter."""
        while True:
            before = self.shortest[-1]
            longer = before.copy()
            most = capacity // (len(self.shortest) + 1)
            for load, length in zip(self.single, self.lengths, strict=True):
                if length > most:
                    continue
                if monotonic() > deadline:
                    raise _TimeIsUp
                at = longer[_from(load)]
                np.minimum(at, before[_up_to(load, before.shape)] + length, out=at)
            longer = _smaller_too(longer, np.minimum)
            if np.array_equal(longer, before):
                return
            self.shortest.append(longer)

    def segments(self, load: Ints, capacity: int) -> Iterator[Segment]:
        """The segments of a board that holds a load."""
        left = load
        for number in range(len(self.shortest) - 1, 0, -1):
            before = self.shortest[number - 1]
            length = self.shortest[number][tuple(left)]
            if length == before[tuple(left)]:
                continue
            rests = np.maximum(left - self.single, 0)
            at = int((before[tuple(rests.T)] + self.lengths).argmin())
            yield self._segment(left - rests[at])
            left = rests[at]
        yield self._segment(left, capacity if self.rip_first else None)

    def _segment(self, load: Ints, length: int | None = None) -> Segment:
        shortest = int(self.shortest[0][tuple(load)])
        pattern = next(p for p in self.patterns if self._holds(p, load, shortest))
        waiting = {
            n: strip.fillings(count, load, shortest)
            for n, (strip, count) in enumerate(zip(self.strips, pattern.counts, strict=True))
        }
        strips = tuple(waiting[strip.size].pop() for strip in pattern.strips)
        return Segment(shortest if length is None else length, pattern, strips)

    def _holds(self, pattern: RipPattern, load: Ints, length: int) -> bool:
        every = self._in_one(pattern)
        return int(every[tuple(load)]) <= length


class _Strip:
    """Strips of one size: the shortest length in which so many of them hold each load of the items
    that come from such strips."""

    def __init__(self, ripping: Ripping, strip: int, most: int, capacity: int) -> None:
        self.items = ripping.of_strip[strip]
        shape = tuple(ripping.demand[i] + 1 for i in self.items)
        counts = np.indices(shape)
        sizes = [ripping.items[i].size for i in self.items]
        length = sum(n * size for n, size in zip(counts, sizes, strict=True))
        fits = length <= capacity
        if ripping.order is Order.CROSSCUT_FIRST:
            fits &= counts.sum(axis=0) <= 1
        self.one: Lengths = np.where(fits, length, _NEVER).astype(np.int32)
        none: Lengths = np.where(length == 0, 0, _NEVER).astype(np.int32)
        self.loads = np.argwhere(fits & (length > 0))
        self.shortest = [none, _smaller_too(self.one, np.minimum)]
        while len(self.shortest) <= most:
            before = self.shortest[-1]
            more = before.copy()
            for load in self.loads:
                at = more[_from(load)]
                rest = before[_up_to(load, before.shape)]
                np.minimum(at, np.maximum(rest, self.one[tuple(load)]), out=at)
            self.shortest.append(_smaller_too(more, np.minimum))

    def along(self, count: int, items: int) -> Lengths:
        """The shortest length in which ``count`` strips hold each load, on the axes of all
        items."""
        axes = [1] * items
        for i, n in zip(self.items, self.shortest[count].shape, strict=True):
            axes[i] = n
        return self.shortest[count].reshape(axes)

    def fillings(self, count: int, load: Ints, length: int) -> list[tuple[int, ...]]:
        """What each of ``count`` strips holds of a load, items in their order."""
        left = load[self.items]
        found: list[tuple[int, ...]] = []
        for number in range(count, 0, -1):
            if not left.any():
                found.append(())
                continue
            before = self.shortest[number - 1]
            loads = np.minimum(self.loads, left)
            needed = np.maximum(before[tuple((left - loads).T)], self.one[tuple(loads.T)])
            at = int(needed.argmin())
            assert needed[at] <= length
            found.append(
                tuple(i for i, n in zip(self.items, loads[at], strict=True) for _ in range(n))
            )
            left = left - loads[at]
        return found


def _both(one: Bools, other: Bools, deadline: float = math.inf) -> Bools:
    """The loads that fall into one that ``one`` and one that ``other`` holds."""
    every = np.zeros_like(one)
    for load in np.argwhere(_fullest(other)):
        if monotonic() > deadline:
            raise _TimeIsUp
        every[_from(load)] |= one[_up_to(load, one.shape)]
    return _smaller_too(every, np.logical_or)


def _from(load: Ints) -> tuple[slice, ...]:
    """The loads that contain this one."""
    return tuple(slice(int(n), None) for n in load)


def _up_to(load: Ints, shape: tuple[int, ...]) -> tuple[slice, ...]:
    """What those that contain a load have beside it."""
    return tuple(slice(0, size - int(n)) for n, size in zip(load, shape, strict=True))


def _smaller_too(of_loads: Of, fold: np.ufunc) -> Of:
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


def _fullest(held: Bools) -> Bools:
    """The loads of ``held`` that no other of them contains."""
    fullest = held.copy()
    for axis in range(held.ndim):
        fullest &= ~_one_more(held, axis, 0).astype(np.bool_)
    return fullest


def _longest_use(shortest: Lengths, most: int) -> Bools:
    """The loads in up to ``most`` length that take no part more without getting longer."""
    worth: Bools = (shortest <= most) & (shortest > 0)
    for axis in range(shortest.ndim):
        worth &= _one_more(shortest, axis, _NEVER) > shortest
    return worth
