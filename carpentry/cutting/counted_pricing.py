"""The most valuable board when some items are counted: no more of those is taken from a board than
is wanted, by all its strips and segments together.

The worth of strips, sections and boards is asked for every number of the counted items that they
may take; all other items are held back within each strip alone. Counting only the items that are
taken too often is the relaxation of state spaces of Christofides, Mingozzi and Toth (1981), widened
step by step after Righini and Salani (2008).
"""

from collections.abc import Iterator, Sequence
from functools import cached_property
from math import prod

import numpy as np

from carpentry.cutting.model import Pattern
from carpentry.cutting.patterns import Profile
from carpentry.cutting.rip_values import Ints
from carpentry.cutting.ripping import Kind, Ripping, Segment

_NEVER = -(2**60)
_MOST_WORK = 30_000_000  # pairs of places and counts
_MOST_VALUES = 4_000_000
Counts = tuple[int, ...]


class TooMuchWork(Exception):
    """More places and counts than are worth going through."""


class _Strips:
    """Strips of one size: the worth of any number of them, for each count of their counted items
    (one axis each, at the most) and each place (last axis)."""

    def __init__(
        self,
        ripping: Ripping,
        strip: int,
        values: Sequence[int],
        demand: Sequence[int],
        counted: Sequence[int],
    ) -> None:
        self.of_strip = ripping.of_strip[strip]
        self.items = [i for i in counted if i in self.of_strip]
        self.shape = tuple(demand[i] + 1 for i in self.items)
        counts: Ints = np.indices(self.shape).reshape(len(self.items), prod(self.shape)).astype(np.int64)
        sizes = np.array([ripping.items[i].size for i in self.items], dtype=np.int64)
        worths = np.array([values[i] for i in self.items], dtype=np.int64)
        self.need: Ints = sizes @ counts
        self.worth: Ints = worths @ counts
        freely = [0 if i in self.items else demand[i] for i in self.of_strip]
        self.profile: Profile = ripping.knapsacks[strip].profile(
            [values[i] for i in self.of_strip], freely
        )
        self.cap = sum(values[i] * demand[i] for i in self.of_strip)
        self.exact: Ints = np.zeros(0, dtype=np.int64)
        self.together: list[Ints] = []

    def places(self) -> Ints:
        """The sizes at which the worth may grow."""
        records = np.concatenate([[0], self.profile.records()])
        return np.unique(self.need[:, None] + records[None, :])

    def weigh(self, places: Ints, most: int) -> None:
        """The worth of up to ``most`` strips at each of the places."""
        left = places[None, :] - self.need[:, None]
        worth = self.profile.values(np.maximum(left, 0)) + self.worth[:, None]
        self.exact = np.where(left >= 0, worth, _NEVER).reshape(*self.shape, len(places))
        one = self.exact
        for axis in range(len(self.shape)):
            one = np.maximum.accumulate(one, axis=axis)
        self.together = [np.zeros_like(one), one]
        while len(self.together) <= most:
            before = self.together[-1]
            more = before.copy()
            for count in np.ndindex(self.shape):
                at = more[_from(count)]
                np.maximum(at, before[_rest(count, self.shape)] + one[count], out=at)
            self.together.append(np.minimum(more, self.cap))

    def fillings(self, strips: int, count: Counts, at: int, size: int) -> Iterator[list[int]]:
        """What each of some strips holds, items in their order, for the worth of a count at a
        place."""
        for number in range(strips, 0, -1):
            wanted = self.together[number][(*count, at)]
            mine = max(
                (one for one in np.ndindex(tuple(n + 1 for n in count))),
                key=lambda one: min(
                    wanted,
                    self.together[1][(*one, at)]
                    + self.together[number - 1][(*_less(count, one), at)],
                ),
            )
            count = _less(count, mine)
            exact = next(
                one
                for one in np.ndindex(tuple(n + 1 for n in mine))
                if self.exact[(*one, at)] == self.together[1][(*mine, at)]
            )
            need = int(self.need[np.ravel_multi_index(exact, self.shape)]) if exact else 0
            pattern = self.profile.pattern(size - need)
            times = dict(zip(self.of_strip, pattern, strict=True))
            times.update(zip(self.items, exact, strict=True))
            yield [i for i in self.of_strip for _ in range(times[i])]


def _from(count: Counts) -> tuple[slice, ...]:
    return tuple(slice(n, None) for n in count)


def _rest(count: Counts, shape: Counts) -> tuple[slice, ...]:
    return tuple(slice(0, size - n) for n, size in zip(count, shape, strict=True))


def _less(count: Counts, taken: Counts) -> Counts:
    return tuple(n - m for n, m in zip(count, taken, strict=True))


class CountedPricing:
    """The most valuable board of a plain kind whose rip patterns are listed. ``taken`` says how
    many of each item its worth counts. Raises ``TooMuchWork``."""

    def __init__(
        self,
        ripping: Ripping,
        kind: Kind,
        values: Sequence[int],
        demand: Sequence[int],
        counted: Sequence[int],
    ) -> None:
        self.ripping = ripping
        self.kind = kind
        self.demand = demand
        self.taken = [0] * len(values)
        self.patterns = kind.section.patterns or []
        self.strips = [_Strips(ripping, s, values, demand, counted) for s in kind.strips]
        self.shape = tuple(n for strips in self.strips for n in strips.shape)
        self.segments_at_most = 1 if kind.one_segment else ripping.most_segments
        self._weigh()
        self.worth, chosen = self._best()
        self.segments, self.pattern = self._cut(chosen)

    def _weigh(self) -> None:
        if self.segments_at_most == 1:
            self.places: Ints = np.array([self.kind.capacity], dtype=np.int64)
        else:
            every = np.unique(np.concatenate([strips.places() for strips in self.strips]))
            self.places = every[(every > 0) & (every <= self.kind.capacity)]
        states, places = prod(self.shape), len(self.places)
        work = states * states * places * (places if self.segments_at_most > 2 else 1)
        if not places or work > _MOST_WORK or states * places > _MOST_VALUES:
            raise TooMuchWork
        for number, strips in enumerate(self.strips):
            strips.weigh(self.places, max(p.counts[number] for p in self.patterns))

    def _of_pattern(self, counts: Counts) -> Ints:
        """The worth of one rip pattern, for every count and place."""
        total: Ints = np.zeros((*(1 for _ in self.shape), len(self.places)), dtype=np.int64)
        first = 0
        for strips, n in zip(self.strips, counts, strict=True):
            if n:
                axes = [1] * len(self.shape)
                axes[first : first + len(strips.shape)] = strips.shape
                total = total + strips.together[n].reshape(*axes, len(self.places))
            first += len(strips.shape)
        return total

    @cached_property
    def section(self) -> Ints:
        """The worth of a segment, for every count (at the most) and place."""
        best: Ints = np.zeros((*self.shape, len(self.places)), dtype=np.int64)
        for pattern in self.patterns:
            np.maximum(best, self._of_pattern(pattern.counts), out=best)
        return np.maximum.accumulate(best, axis=-1)

    def _best(self) -> tuple[int, list[tuple[Counts, int]]]:
        """The worth of a board, and its segments: the count each may take, and its place."""
        every = tuple(n - 1 for n in self.shape)
        best = int(self.section[(*every, -1)])
        chosen = [(every, len(self.places) - 1)]
        if self.segments_at_most == 1:
            return best, chosen
        lefts = [self.kind.capacity - self.places]
        if self.segments_at_most > 2:
            lefts.append(self.kind.capacity - self.places[:, None] - self.places[None, :])
        padded = np.concatenate([np.zeros((*self.shape, 1), dtype=np.int64), self.section], axis=-1)
        for left in lefts:
            after = np.searchsorted(self.places, left, side="right")  # 0: nothing fits any more
            for count in np.ndindex(self.shape):
                both = self._with(count, padded, after, left)
                top = int(both.max())
                if top > best:
                    best = top
                    where = np.unravel_index(int(both.argmax()), both.shape)
                    *other, place = (int(n) for n in where)
                    if left.ndim == 1:
                        pairs = [(count, place), (_less(every, count), int(after[place]) - 1)]
                    else:
                        pairs = self._three(count, tuple(other), place, padded, after)
                    chosen = [(c, p) for c, p in pairs if p >= 0]
        return best, chosen

    def _with(self, count: Counts, padded: Ints, after: Ints, left: Ints) -> Ints:
        """The worth of boards whose first segment may take ``count``, by its place; with three
        segments also by what the second may take."""
        every = tuple(n - 1 for n in self.shape)
        rest = _less(every, count)
        if left.ndim == 1:
            both = self.section[count] + padded[rest][after]
            return np.where(left >= 0, both, _NEVER)
        inner = tuple(slice(0, n + 1) for n in rest)
        second = self.section[inner]
        third = np.flip(padded[inner], axis=tuple(range(len(rest))))
        both = self.section[count][:, None] + second[..., None, :] + third[..., after]
        both = np.where(left >= 0, both, _NEVER)
        return np.asarray(both.max(axis=-1), dtype=np.int64)

    def _three(
        self, count: Counts, second: Counts, place: int, padded: Ints, after: Ints
    ) -> list[tuple[Counts, int]]:
        """The three segments of a worth that was found."""
        every = tuple(n - 1 for n in self.shape)
        third = _less(_less(every, count), second)
        both = self.section[second] + padded[third][after[place]]
        both = np.where(self.places + self.places[place] <= self.kind.capacity, both, _NEVER)
        at = int(both.argmax())
        return [(count, place), (second, at), (third, int(after[place, at]) - 1)]

    def _cut(self, chosen: Sequence[tuple[Counts, int]]) -> tuple[tuple[Segment, ...], Pattern]:
        """How the board is cut, with no more of an item than is wanted."""
        left = list(self.demand)
        segments = []
        for count, at in chosen:
            worth = self.section[(*count, at)]
            while at and self.section[(*count, at - 1)] == worth:
                at -= 1
            size = int(self.places[at])
            pattern = next(p for p in self.patterns if self._of_one(p.counts, count, at) == worth)
            waiting: dict[int, list[list[int]]] = {}
            first = 0
            for number, strips in enumerate(self.strips):
                mine = count[first : first + len(strips.shape)]
                first += len(strips.shape)
                fillings = strips.fillings(pattern.counts[number], mine, at, size)
                waiting[number] = list(fillings)
            held = []
            for strip in pattern.strips:
                items = []
                for item in waiting[strip.size].pop():
                    self.taken[item] += 1
                    if left[item]:
                        left[item] -= 1
                        items.append(item)
                held.append(tuple(items))
            if any(held):
                segments.append(Segment(size, pattern, tuple(held)))
        return tuple(segments), tuple(d - r for d, r in zip(self.demand, left, strict=True))

    def _of_one(self, counts: Counts, count: Counts, at: int) -> int:
        """The worth of one rip pattern for a count at a place."""
        total = first = 0
        for strips, n in zip(self.strips, counts, strict=True):
            mine = count[first : first + len(strips.shape)]
            first += len(strips.shape)
            total += int(strips.together[n][(*mine, at)]) if n else 0
        return total
