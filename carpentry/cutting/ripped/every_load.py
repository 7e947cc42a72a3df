"""The loads of boards that are ripped: first what one segment holds, over all rip patterns, then
one segment more, until nothing gets shorter."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

import numpy as np

from carpentry.cutting.line.sound_runs import Particular, Run
from carpentry.cutting.problem import Order
from carpentry.cutting.ripped.numbers import Kind, Ripping, Segment
from carpentry.cutting.ripped.rip_patterns import RipPattern
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.every_load import (
    NEVER,
    Bools,
    Held,
    Ints,
    Lengths,
    Loads,
    TimeIsUp,
    both,
    can_be_listed,
    containing,
    fullest,
    rest_of,
    smaller_too,
    worth_cutting,
)
from carpentry.cutting.search.model import Pattern


def list_loads(ripping: Ripping, clock: Clock) -> "RippedLoads | None":
    """The loads of all kinds of boards; ``None`` where they are too many, or time is up."""
    if not can_be_listed(ripping.demand):
        return None
    if any(kind.section.patterns is None for kind in ripping.kinds):
        return None
    try:
        return RippedLoads(ripping, clock)
    except TimeIsUp:
        return None


class RippedLoads(Loads):
    """What boards of each kind hold, and how they are cut for it."""

    def __init__(self, ripping: Ripping, clock: Clock) -> None:
        self.demand = np.array(ripping.demand, dtype=np.int64)
        self.kinds = ripping.kinds
        self.items = ripping.items
        sections: dict[tuple[object, ...], _Section] = {}
        self.sections = []
        for kind in ripping.kinds:
            alike = kind.strips, kind.one_segment, tuple(kind.section.patterns or ())
            if alike not in sections:
                same = [one for one in ripping.kinds if one.strips == kind.strips]
                capacity = max(one.capacity for one in same)
                sections[alike] = _Section(ripping, kind, capacity, clock)
            self.sections.append(sections[alike])
        super().__init__([self._of_kind(number, clock) for number in range(len(self.kinds))])

    def _of_kind(self, kind: int, clock: Clock) -> Held:
        """The loads that one board holds: in all its length, or in the runs of one of its ways."""
        particular, capacity = self.kinds[kind].particular, self.kinds[kind].capacity
        section = self.sections[kind]
        sound = self._sound(kind, clock)
        if particular is None:
            shortest = None if section.rip_first else section.shortest[-1]
            held = section.within(capacity) & self._short_enough(capacity) & sound
            return Held(held, capacity, shortest)
        ways = [self._in_runs(kind, particular, way, clock) for way in particular.ways]
        return Held(np.logical_or.reduce([way[-1] for way in ways]) & sound, capacity)

    def _sound(self, kind: int, clock: Clock) -> Bools:
        """Which loads of the parts that must be clear the sound runs of a board hold by themselves,
        whatever else is beside them."""
        sound = self.kinds[kind].sound
        if sound is None:
            return np.ones([1] * len(self.demand), dtype=np.bool_)
        (runs,) = sound.ways
        alone = self._in_runs(kind, sound, runs, clock)[-1]
        return alone[tuple(slice(None) if clear else slice(1) for clear in sound.clear)]

    def _short_enough(self, capacity: int) -> Bools:
        """The loads without items that are too long by themselves."""
        return self._without([item.alone > capacity for item in self.items])

    def _in_runs(
        self, kind: int, particular: Particular, way: tuple[Run, ...], clock: Clock
    ) -> list[Bools]:
        """What the first run of a way holds, what the first two hold, and so on, up to all of
        them."""
        found: list[Bools] = []
        for run in way:
            inside = self.sections[kind].within(run.capacity) & self._may(particular, run)
            found.append(both(found[-1], inside, clock) if found else inside)
        return found

    def _may(self, particular: Particular, run: Run) -> Bools:
        """The loads without what may not come from a board, or not lie in a run of it."""
        most = particular.may([1] * len(self.demand))
        if run.crossing:
            most = particular.crossing(most)
        return self._without(
            [
                not allowed or item.alone > run.capacity
                for allowed, item in zip(most, self.items, strict=True)
            ]
        )

    def _without(self, items: Sequence[bool]) -> Bools:
        """The loads with none of some items."""
        may: Bools = np.zeros([d + 1 for d in self.demand], dtype=np.bool_)
        may[tuple(slice(1) if without else slice(None) for without in items)] = True
        return may

    def segments(self, kind: int, load: Pattern) -> tuple[Segment, ...]:
        """How a board of a kind is cut for a load."""
        section, particular = self.sections[kind], self.kinds[kind].particular
        left = np.array(load)
        if particular is None:
            return tuple(section.segments(left, self.kinds[kind].capacity))
        ways = ((way, self._in_runs(kind, particular, way, Clock())) for way in particular.ways)
        way, held = next(one for one in ways if one[1][-1][tuple(left)])
        found: list[Segment] = []
        for number in range(len(way) - 1, -1, -1):
            run = way[number]
            mine = left
            if number:
                inside = section.within(run.capacity) & self._may(particular, run)
                loads = np.minimum(np.argwhere(fullest(inside)), left)
                mine = loads[int(held[number - 1][tuple((left - loads).T)].argmax())]
            left = left - mine
            first, *others = section.segments(mine, run.capacity)
            found = [replace(first, start=run.start), *others, *found]
        return tuple(found)


class _Section:
    """Boards of one section: the shortest length for every load, in one segment, in two, and so
    on."""

    def __init__(self, ripping: Ripping, kind: Kind, capacity: int, clock: Clock) -> None:
        self.patterns = kind.section.patterns or []
        self.rip_first = kind.one_segment
        most = np.array([pattern.counts for pattern in self.patterns]).max(axis=0, initial=0)
        self.strips = [
            _Strip(ripping, strip, n, capacity) for strip, n in zip(kind.strips, most, strict=True)
        ]
        self.items = len(ripping.items)
        shape = tuple(d + 1 for d in ripping.demand)
        single: Lengths = np.full(shape, NEVER, dtype=np.int32)
        nothing = [i for i in range(self.items) if ripping.items[i].strip not in kind.strips]
        inside = tuple(slice(1) if i in nothing else slice(None) for i in range(self.items))
        for pattern in self.patterns:
            if clock.is_over:
                raise TimeIsUp
            np.minimum(single[inside], self._in_one(pattern), out=single[inside])
        self.shortest = [single]
        self.single = np.argwhere(worth_cutting(single, capacity // 2))
        self.lengths = single[tuple(self.single.T)]
        if not self.rip_first:
            self._lengthen(capacity, clock)

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

    def _lengthen(self, capacity: int, clock: Clock) -> None:
        """One segment more, the shortest of them, until nothing gets shorter."""
        while True:
            before = self.shortest[-1]
            longer = before.copy()
            most = capacity // (len(self.shortest) + 1)
            for load, length in zip(self.single, self.lengths, strict=True):
                if length > most:
                    continue
                if clock.is_over:
                    raise TimeIsUp
                at = longer[containing(load)]
                np.minimum(at, before[rest_of(load, before.shape)] + length, out=at)
            longer = smaller_too(longer, np.minimum)
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
            n: sorted(strip.fillings(count, load, shortest), key=len)
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
        self.one: Lengths = np.where(fits, length, NEVER).astype(np.int32)
        none: Lengths = np.where(length == 0, 0, NEVER).astype(np.int32)
        self.loads = np.argwhere(fits & (length > 0))
        self.shortest = [none, smaller_too(self.one, np.minimum)]
        while len(self.shortest) <= most:
            before = self.shortest[-1]
            more = before.copy()
            for load in self.loads:
                at = more[containing(load)]
                rest = before[rest_of(load, before.shape)]
                np.minimum(at, np.maximum(rest, self.one[tuple(load)]), out=at)
            self.shortest.append(smaller_too(more, np.minimum))

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
