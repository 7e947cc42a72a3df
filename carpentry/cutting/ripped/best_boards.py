"""The most valuable board of each kind when parts have a worth.

After Gilmore and Gomory (1961, 1963) a strip is a knapsack, a section the best of its rip patterns,
and a board the best of its segments.
"""

from collections.abc import Sequence

import numpy as np

from carpentry.cutting.problem import Order
from carpentry.cutting.ripped.best_rips import Ints
from carpentry.cutting.ripped.numbers import Kind, Ripping, Segment
from carpentry.cutting.ripped.rip_patterns import RipPattern
from carpentry.cutting.search.model import Pattern
from carpentry.cutting.search.patterns import Knapsack, Profile


class Pricing:
    """One question, "what is the most valuable board of each kind", over shared strip profiles."""

    def __init__(self, model: Ripping, values: Sequence[int], demand: Sequence[int]) -> None:
        self.model = model
        self.values = values
        self.demand = demand
        self.taken = [0] * len(values)  # of each item by the last worth, wanted or not
        self.profiles = [
            knapsack.profile([values[i] for i in of_strip], [demand[i] for i in of_strip])
            for knapsack, of_strip in zip(model.knapsacks, model.of_strip, strict=True)
        ]

    def best(self, kind_number: int) -> tuple[int, Pattern]:
        """The worth that no board of a kind exceeds, and the best pattern found."""
        kind = self.model.kinds[kind_number]
        worth, pattern, segments = self.best_within(kind, kind.capacity)
        if segments:
            self.model.recipes.setdefault((kind_number, pattern), segments)
        return worth, pattern

    def best_within(self, kind: Kind, capacity: int) -> tuple[int, Pattern, tuple[Segment, ...]]:
        """The same of so much length of a kind, with how the pattern is cut."""
        nothing = tuple(0 for _ in self.values)
        places = self._places(kind, capacity)
        if not len(places):
            return 0, nothing, ()
        worths = np.array([self._strip_worths(strip, places) for strip in kind.strips])
        caps = np.array([self._caps(strip, places) for strip in kind.strips])
        if self.model.order is Order.CROSSCUT_FIRST and kind.section.patterns is not None:
            by_pattern = self._one_part_each(kind, places)
            section = by_pattern.max(axis=0, initial=0)
            ripped = [kind.section.patterns[at] for at in by_pattern.argmax(axis=0)]
        else:
            section = kind.section.best(worths, caps)
            ripped = []
        worth, chosen = self._split(kind, capacity, places, section)
        cut = [ripped[n] if ripped else kind.section.pattern(worths, caps, n) for n in chosen]
        segments, pattern = self._realise(kind, [int(places[n]) for n in chosen], cut)
        return worth, pattern, segments

    def _places(self, kind: Kind, capacity: int) -> Ints:
        """The segment sizes at which some strip gains, or more of it is wanted."""
        items = self.model.items
        sizes = [
            items[i].size
            for strip in kind.strips
            for i in self.model.of_strip[strip]
            if self.values[i] > 0 and self.demand[i]
        ]
        found: list[Ints] = [np.array(sizes, dtype=np.int64)]
        if self.model.order is not Order.CROSSCUT_FIRST:
            found += [self.profiles[strip].records() for strip in kind.strips]
        every: Ints = np.unique(np.concatenate(found))
        return every[every <= capacity]

    def _strip_worths(self, strip: int, places: Ints) -> Ints:
        if self.model.order is not Order.CROSSCUT_FIRST:
            return self.profiles[strip].values(places)
        single = np.zeros(len(places), dtype=np.int64)
        for i in self.model.of_strip[strip]:
            if self.demand[i]:
                at = places >= self.model.items[i].size
                single[at] = np.maximum(single[at], self.values[i])
        return single

    def _one_part_each(self, kind: Kind, places: Ints) -> Ints:
        """The worth of a section whose strips hold one part each, no more of one than is wanted:
        a row for each rip pattern."""
        patterns = np.array([pattern.counts for pattern in kind.section.patterns or ()])
        total = np.zeros((len(patterns), len(places)), dtype=np.int64)
        for number, strip in enumerate(kind.strips):
            most = int(patterns[:, number].max(initial=0))
            ranked = self._ranked(strip, most)
            values = np.array([self.values[i] for i in ranked], dtype=np.int64)
            sizes = np.array([self.model.items[i].size for i in ranked], dtype=np.int64)
            fits = places[:, None] >= sizes
            rank = fits.cumsum(axis=1)
            best = [(values * (fits & (rank <= n))).sum(axis=1) for n in range(most + 1)]
            total += np.array(best)[patterns[:, number]]
        return total

    def _ranked(self, strip: int, most: int) -> list[int]:
        """The items that up to ``most`` strips of a size could hold, the most valuable first, each
        as often as it is wanted."""
        wanted = [i for i in self.model.of_strip[strip] if self.demand[i] and self.values[i] > 0]
        wanted.sort(key=lambda i: (-self.values[i], i))
        return [i for i in wanted for _ in range(min(self.demand[i], most))]

    def _caps(self, strip: int, places: Ints) -> Ints:
        """All that is wanted of a strip size and no longer than each place."""
        cap = np.zeros(len(places), dtype=np.int64)
        for i in self.model.of_strip[strip]:
            cap[places >= self.model.items[i].size] += self.values[i] * self.demand[i]
        return cap

    def _split(
        self, kind: Kind, capacity: int, places: Ints, section: Ints
    ) -> tuple[int, list[int]]:
        """The most valuable way to cut a board into segments: its worth and their places."""
        if self.model.order is Order.CROSSCUT_FIRST:
            return self._many_segments(capacity, places, section)
        best, chosen = int(section[-1]), [len(section) - 1]
        most_segments = 1 if kind.one_segment else self.model.most_segments
        if most_segments >= 2:
            second = self._rest(places, section, capacity - places)
            total = section + np.where(second >= 0, section[second], 0)
            at = int(total.argmax())
            if total[at] > best:
                best, chosen = int(total[at]), [at, int(second[at])]
        if most_segments >= 3:
            left = capacity - places[:, None] - places[None, :]
            third = self._rest(places, section, left)
            three = section[:, None] + section[None, :] + np.where(third >= 0, section[third], 0)
            three[left < 0] = -1
            at = int(three.argmax())
            i, j = divmod(at, len(places))
            if three[i, j] > best:
                best, chosen = int(three[i, j]), [i, j, int(third[i, j])]
        return best, [at for at in chosen if at >= 0]

    @staticmethod
    def _rest(places: Ints, section: Ints, left: Ints) -> Ints:
        """The place of the longest segment that still fits; -1 for none."""
        return np.searchsorted(places, left, side="right") - 1

    def _many_segments(self, capacity: int, places: Ints, section: Ints) -> tuple[int, list[int]]:
        sizes = tuple(int(p) for p in places)
        times = [capacity // size for size in sizes]
        known = self.model.crosscuts.get((sizes, capacity))
        if known is None:
            known = self.model.crosscuts[sizes, capacity] = Knapsack(sizes, times, [capacity])
        profile = known.profile([int(v) for v in section], times)
        counts = profile.pattern(capacity)
        chosen = [at for at, n in enumerate(counts) for _ in range(n)]
        return profile.value(capacity), sorted(chosen, reverse=True)

    def _realise(
        self, kind: Kind, sizes: Sequence[int], cut: Sequence[RipPattern]
    ) -> tuple[tuple[Segment, ...], Pattern]:
        """Segments with their parts, no more of an item than is wanted; what the worth promised
        where nothing is wanted too little for it."""
        left = list(self.demand)
        self.taken = [0] * len(self.values)
        segments = []
        for size, pattern in zip(sizes, cut, strict=True):
            strips = []
            if self.model.order is Order.CROSSCUT_FIRST:
                self._count_one_each(kind, pattern.counts, size)
            for strip in pattern.strips:
                self._count(kind.strips[strip.size], size)
                items = self._fill(kind.strips[strip.size], size, left)
                for item in items:
                    left[item] -= 1
                strips.append(tuple(items))
            if any(strips):
                segments.append(Segment(size, pattern, tuple(strips)))
        counts = tuple(d - r for d, r in zip(self.demand, left, strict=True))
        return tuple(segments), counts

    def _count(self, strip: int, size: int) -> None:
        """Adds to ``taken`` what the worth counted for one strip."""
        if self.model.order is Order.CROSSCUT_FIRST:
            return
        of_strip = self.model.of_strip[strip]
        for n, i in zip(self.profiles[strip].pattern(size), of_strip, strict=True):
            self.taken[i] += n

    def _count_one_each(self, kind: Kind, counts: Sequence[int], size: int) -> None:
        """The same for a segment whose strips hold one part each."""
        for strip, n in zip(kind.strips, counts, strict=True):
            fits = [i for i in self._ranked(strip, n) if self.model.items[i].size <= size]
            for item in fits[:n]:
                self.taken[item] += 1

    def _fill(self, strip: int, size: int, left: Sequence[int]) -> list[int]:
        of_strip = self.model.of_strip[strip]
        if self.model.order is Order.CROSSCUT_FIRST:
            fits = [i for i in of_strip if left[i] and self.model.items[i].size <= size]
            return [max(fits, key=lambda i: (self.values[i], -i))] if fits else []
        profile = self.profiles[strip]
        counts = profile.pattern(size)
        if any(n > left[i] for n, i in zip(counts, of_strip, strict=True)):
            profile = self._profile_of_rest(strip, left)
            counts = profile.pattern(size)
        return [i for n, i in zip(counts, of_strip, strict=True) for _ in range(n)]

    def _profile_of_rest(self, strip: int, left: Sequence[int]) -> Profile:
        of_strip = self.model.of_strip[strip]
        return self.model.knapsacks[strip].profile(
            [self.values[i] for i in of_strip], [left[i] for i in of_strip]
        )
