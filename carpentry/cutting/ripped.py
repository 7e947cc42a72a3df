"""A cut problem with ripping as whole numbers: what one board can hold when it is crosscut into
segments, each segment is ripped, and each strip is crosscut again.

Sizes along the board have the kerf in them, so that strips hold parts, and boards hold segments,
exactly when sizes add up to no more than what there is. After Gilmore and Gomory (1961, 1963) a
strip is a knapsack, a section the best of its rip patterns, and a board the best of its segments.
"""

import math
import random
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import reduce
from math import gcd
from time import monotonic

import numpy as np
import numpy.typing as npt

from carpentry.cutting.cross_section import BoardSection, RipPattern, StripSize
from carpentry.cutting.model import Board, Money, Packing, Pattern, Source
from carpentry.cutting.patterns import Knapsack, Profile
from carpentry.cutting.problem import CutPart, CutProblem, Order, Shape, StockPiece
from carpentry.cutting.rip_values import RipValues

Ints = npt.NDArray[np.int64]
_WEIGHT = 1000  # of the largest part; weights are whole and need not be exact
_THREE_SEGMENTS = 400  # lengths worth cutting at, above which two segments are tried, not three
_MOST_QUICK_BOARDS = 400
_TIGHT_STEPS = 20
_GREEDY_TRIES = 8
_MENDING_TRIES = 30


@dataclass(frozen=True)
class Segment:
    """A length of a board (kerf in, whole units) with its rip pattern, and the items that each of
    the pattern's strips holds, in their order."""

    size: int
    pattern: RipPattern
    strips: tuple[tuple[int, ...], ...]


@dataclass(frozen=True)
class Item:
    """Parts of one strip size and shape; ``size`` has their saw lines in it, in whole units."""

    strip: int
    shape: Shape
    size: int


@dataclass(frozen=True)
class Kind:
    """Boards that hold the same: their capacity (kerf in) and how their section is ripped."""

    capacity: int
    section: RipValues
    strips: tuple[int, ...]


class Ripped:
    """The model of a problem with ripping. ``recipes`` says how a pattern that was found is cut."""

    def __init__(self, problem: CutProblem) -> None:
        self.order = problem.order
        self.deadline = math.inf  # after which bounds are no longer made tight
        self.money = Money.of([piece.price for piece in problem.stock])
        strips: dict[StripSize, int] = {}
        wanted: dict[tuple[int, Shape], int] = {}
        room: dict[tuple[int, Shape], int] = {}
        for part in problem.parts:
            if any(_takes(piece, problem, part) for piece in problem.stock):
                strip = strips.setdefault(strip_of(part), len(strips))
                key = strip, problem.shape(part)
                room[key] = part.room(problem.kerf)
                wanted[key] = wanted.get(key, 0) + part.quantity
        self.strips = tuple(strips)
        self.kerf = problem.kerf
        keys = sorted(wanted, key=lambda k: (k[0], -room[k], str(k[1])))
        unit = reduce(gcd, (room[key] for key in keys), 0) or 1
        self.unit = unit
        self.items = tuple(Item(strip, shape, room[strip, shape] // unit) for strip, shape in keys)
        self.demand = tuple(wanted[key] for key in keys)
        self.sizes = self._weights()
        self.recipes: dict[tuple[int, Pattern], tuple[Segment, ...]] = {}
        self.of_strip = [
            [i for i, item in enumerate(self.items) if item.strip == strip]
            for strip in range(len(self.strips))
        ]
        self.kinds: list[Kind] = []
        self.sources = tuple(self._sources(problem))
        top = max((kind.capacity for kind in self.kinds), default=0)
        self.knapsacks = [
            Knapsack(
                [self.items[i].size for i in of_strip], [self.demand[i] for i in of_strip], [top]
            )
            for of_strip in self.of_strip
        ]
        self.most_segments = self._most_segments()

    def _weights(self) -> tuple[int, ...]:
        volumes = [
            (strip.thickness + strip.extra_thickness + self.kerf)
            * (strip.width + strip.extra_width + self.kerf)
            * item.size
            for item in self.items
            for strip in (self.strips[item.strip],)
        ]
        largest = max(volumes, default=1)
        return tuple(max(1, volume * _WEIGHT // largest) for volume in volumes)

    def _sources(self, problem: CutProblem) -> Iterator[Source]:
        total = sum(self.demand)
        known: dict[tuple[int, int, int], int] = {}
        for piece in problem.stock:
            capacity = (problem.sound_length(piece) + problem.kerf) // self.unit
            key = piece.thickness or 0, piece.width or 0, capacity
            if piece.available == 0 or problem.sound_length(piece) <= 0:
                continue
            if key not in known:
                kind = self._kind(problem, piece, capacity)
                if kind is None:
                    continue
                known[key] = len(self.kinds)
                self.kinds.append(kind)
            limit = total if piece.available is None else min(piece.available, total)
            yield Source(piece.id, known[key], self.money.cost(piece.price), limit)

    def _kind(self, problem: CutProblem, piece: StockPiece, capacity: int) -> Kind | None:
        """How a piece is used, ``None`` for one that no part comes from."""
        high, wide = piece.thickness or 0, piece.width or 0
        usable = tuple(
            number
            for number, strip in enumerate(self.strips)
            if strip.fits(high, wide, problem.eased)
            and any(self.items[i].size <= capacity for i in self.of_strip[number])
        )
        if not usable:
            return None
        most = [sum(self.demand[i] for i in self.of_strip[number]) for number in usable]
        board = BoardSection(high, wide, problem.eased)
        section = RipValues(board, problem.kerf, [self.strips[number] for number in usable], most)
        return Kind(capacity, section, usable)

    def _most_segments(self) -> int:
        if self.order is Order.RIP_FIRST:
            return 1
        places = sum(len(knapsack.sums) for knapsack in self.knapsacks)
        return 3 if places <= _THREE_SEGMENTS else 2

    def holds(self, source: int, item: int) -> bool:
        kind = self.kinds[self.sources[source].kind]
        return self.items[item].strip in kind.strips and self.items[item].size <= kind.capacity

    def every_pattern(self, kind: int, demand: Sequence[int], most: int) -> list[Pattern] | None:
        return None  # too many to list: the bound decides

    def best_for(
        self, kinds: Sequence[int], values: Sequence[int], demand: Sequence[int]
    ) -> list[tuple[int, Pattern]]:
        pricing = _Pricing(self, values, demand)
        found: dict[int, tuple[int, Pattern]] = {}
        for kind in kinds:
            if kind not in found:
                found[kind] = pricing.best(kind)
        return [found[kind] for kind in kinds]

    def tight_for(
        self, kinds: Sequence[int], values: Sequence[int], demand: Sequence[int]
    ) -> list[tuple[int, Pattern]]:
        found: dict[int, tuple[int, Pattern]] = {}
        for kind in kinds:
            if kind not in found:
                found[kind] = self._tight(kind, values, demand)
        return [found[kind] for kind in kinds]

    def _tight(
        self, kind: int, values: Sequence[int], demand: Sequence[int]
    ) -> tuple[int, Pattern]:
        """Lagrangian relaxation of "no more of an item than is wanted": what strips and segments
        take too much of is made less worth, step by step (Held and Karp's subgradients)."""
        lowered = [0] * len(values)
        best_worth, best_pattern, best_value = -1, tuple(0 for _ in values), -1
        for step in range(_TIGHT_STEPS):
            if step and monotonic() > self.deadline:
                break
            rest = [v - low for v, low in zip(values, lowered, strict=True)]
            pricing = _Pricing(self, rest, demand)
            worth, pattern = pricing.best(kind)
            worth += sum(low * d for low, d in zip(lowered, demand, strict=True))
            value = sum(v * n for v, n in zip(values, pattern, strict=True))
            if value > best_value:
                best_pattern, best_value = pattern, value
            best_worth = worth if best_worth < 0 else min(worth, best_worth)
            excess = [n - d for n, d in zip(pricing.taken, demand, strict=True)]
            norm = sum(e * e for e in excess if e > 0)
            if best_worth <= best_value or not norm:
                break
            size = max(1.0, (worth - best_value) / norm * (1 - step / _TIGHT_STEPS))
            lowered = [
                min(v, max(0, low + round(e * size))) if e > 0 or low else low
                for v, low, e in zip(values, lowered, excess, strict=True)
            ]
        return max(best_worth, best_value), best_pattern

    def tries(self, values: Sequence[int], deadline: float) -> Iterator[Packing]:
        """Greedy packings by values drawn around ``values`` and sizes, then the best of them with
        two or three boards at a time packed anew."""
        chance = random.Random(1)
        nothing = [0] * len(self.sources)
        best: Packing | None = None
        for number in range(_GREEDY_TRIES + _MENDING_TRIES):
            if monotonic() > deadline:
                return
            base = values if number % 2 else self.sizes
            drawn = [max(1, round(v * chance.uniform(0.6, 1.4))) for v in base]
            if number < _GREEDY_TRIES or best is None or len(best.boards) < 2:
                packing = self._greedy(self.demand, nothing, drawn)
            else:
                packing = self._mended(best, drawn, chance)
            if best is None or packing.key(self) < best.key(self):
                best = packing
                yield packing

    def _mended(self, packing: Packing, values: Sequence[int], chance: random.Random) -> Packing:
        """Two or three boards taken out and what they hold packed anew."""
        count = min(len(packing.boards), chance.choice((2, 2, 3)))
        out = set(chance.sample(range(len(packing.boards)), count))
        kept = [board for number, board in enumerate(packing.boards) if number not in out]
        demand = list(packing.missing)
        for number in out:
            for item, n in enumerate(packing.boards[number].pattern):
                demand[item] += n
        used = [sum(board.source == s for board in kept) for s in range(len(self.sources))]
        rest = self._greedy(demand, used, values)
        return Packing((*kept, *rest.boards), rest.missing)

    def quick(self, demand: Sequence[int], used: Sequence[int]) -> Packing:
        return self._greedy(demand, used, self.sizes)

    def _greedy(self, demand: Sequence[int], used: Sequence[int], values: Sequence[int]) -> Packing:
        """Board after board, each the one that gives most worth for its price; ended where that is
        cheapest by the cheapest board that holds all the rest."""
        left, gone = list(demand), list(used)
        boards: list[Board] = []
        ended: list[Packing] = []
        while any(left) and len(boards) < _MOST_QUICK_BOARDS:
            open_sources = [s for s, source in enumerate(self.sources) if gone[s] < source.limit]
            best = self.best_for([self.sources[s].kind for s in open_sources], values, left)
            choices = []
            for s, (_, pattern) in zip(open_sources, best, strict=True):
                worth = sum(v * n for v, n in zip(values, pattern, strict=True))
                if worth:
                    choices.append((-worth / (self.sources[s].cost or 0.01), s, pattern))
            if not choices:
                break
            whole = [s for _, s, pattern in choices if list(pattern) == left]
            if whole:
                last = min(whole, key=lambda s: self.sources[s].cost)
                nothing = tuple(0 for _ in left)
                ended.append(Packing((*boards, Board(last, tuple(left))), nothing))
            _, source, pattern = min(choices)
            times = min(r // n for n, r in zip(pattern, left, strict=True) if n)
            times = max(1, min(times, self.sources[source].limit - gone[source]))
            boards += [Board(source, pattern)] * times
            gone[source] += times
            left = [r - n * times for r, n in zip(left, pattern, strict=True)]
        packing = self._cheapened(Packing(tuple(boards), tuple(left)), gone)
        return min((packing, *ended), key=lambda one: one.key(self))

    def _cheapened(self, packing: Packing, gone: list[int]) -> Packing:
        """Every board exchanged for the cheapest piece that holds the same."""
        boards = []
        for board in packing.boards:
            best = board.source
            for s in sorted(range(len(self.sources)), key=lambda s: self.sources[s].cost):
                if self.sources[s].cost >= self.sources[board.source].cost:
                    break
                if gone[s] < self.sources[s].limit and self._can_hold(s, board.pattern):
                    best = s
                    break
            gone[board.source] -= 1
            gone[best] += 1
            boards.append(Board(best, board.pattern))
        return Packing(tuple(boards), packing.missing)

    def _can_hold(self, source: int, pattern: Pattern) -> bool:
        if not all(self.holds(source, item) for item, n in enumerate(pattern) if n):
            return False
        (_, found), *_ = self.best_for([self.sources[source].kind], self.sizes, pattern)
        return found == pattern

    def recipe(self, board: Board) -> tuple[Segment, ...]:
        """How a board is cut: a known way to its pattern, or to one that holds more."""
        kind = self.sources[board.source].kind
        known = self.recipes.get((kind, board.pattern))
        if known:
            return known
        for (of_kind, pattern), segments in self.recipes.items():
            if of_kind == kind and all(a >= b for a, b in zip(pattern, board.pattern, strict=True)):
                return segments
        raise AssertionError("a board that nobody found")


def strip_of(part: CutPart) -> StripSize:
    """The strip that a part is sawn from."""
    assert part.thickness is not None and part.width is not None
    extra = part.extra
    square = part.thickness == part.width and extra.thickness == extra.width
    return StripSize(
        part.thickness, part.width, part.turn and not square, extra.thickness, extra.width
    )


def _takes(piece: StockPiece, problem: CutProblem, part: CutPart) -> bool:
    """Whether a piece of stock can give a part at all."""
    return (
        piece.available != 0
        and part.room(problem.kerf) <= problem.sound_length(piece) + problem.kerf
        and strip_of(part).fits(piece.thickness or 0, piece.width or 0, problem.eased)
    )


class _Pricing:
    """One question, "what is the most valuable board of each kind", over shared strip profiles."""

    def __init__(self, model: Ripped, values: Sequence[int], demand: Sequence[int]) -> None:
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
        nothing = tuple(0 for _ in self.values)
        places = self._places(kind)
        if not len(places):
            return 0, nothing
        worths = np.array([self._strip_worths(strip, places) for strip in kind.strips])
        caps = np.array([self._caps(strip, places) for strip in kind.strips])
        section = kind.section.best(worths, caps)
        worth, chosen = self._split(kind, places, section)
        segments, pattern = self._realise(kind, places, chosen, worths, caps)
        key = kind_number, pattern
        if segments and key not in self.model.recipes:
            self.model.recipes[key] = segments
        return worth, pattern

    def _places(self, kind: Kind) -> Ints:
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
        return every[every <= kind.capacity]

    def _strip_worths(self, strip: int, places: Ints) -> Ints:
        if self.model.order is not Order.CROSSCUT_FIRST:
            return self.profiles[strip].values(places)
        single = np.zeros(len(places), dtype=np.int64)
        for i in self.model.of_strip[strip]:
            if self.demand[i]:
                at = places >= self.model.items[i].size
                single[at] = np.maximum(single[at], self.values[i])
        return single

    def _caps(self, strip: int, places: Ints) -> Ints:
        """All that is wanted of a strip size and no longer than each place."""
        cap = np.zeros(len(places), dtype=np.int64)
        for i in self.model.of_strip[strip]:
            cap[places >= self.model.items[i].size] += self.values[i] * self.demand[i]
        return cap

    def _split(self, kind: Kind, places: Ints, section: Ints) -> tuple[int, list[int]]:
        """The most valuable way to cut a board into segments: its worth and their places."""
        if self.model.order is Order.CROSSCUT_FIRST:
            return self._many_segments(kind, places, section)
        best, chosen = int(section[-1]), [len(section) - 1]
        if self.model.most_segments >= 2:
            second = self._rest(places, section, kind.capacity - places)
            total = section + np.where(second >= 0, section[second], 0)
            at = int(total.argmax())
            if total[at] > best:
                best, chosen = int(total[at]), [at, int(second[at])]
        if self.model.most_segments >= 3:
            left = kind.capacity - places[:, None] - places[None, :]
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

    @staticmethod
    def _many_segments(kind: Kind, places: Ints, section: Ints) -> tuple[int, list[int]]:
        sizes = [int(p) for p in places]
        times = [kind.capacity // size for size in sizes]
        profile = Knapsack(sizes, times, [kind.capacity]).profile([int(v) for v in section], times)
        counts = profile.pattern(kind.capacity)
        chosen = [at for at, n in enumerate(counts) for _ in range(n)]
        return profile.value(kind.capacity), sorted(chosen, reverse=True)

    def _realise(
        self, kind: Kind, places: Ints, chosen: Sequence[int], worths: Ints, caps: Ints
    ) -> tuple[tuple[Segment, ...], Pattern]:
        """Segments with their parts, no more of an item than is wanted; what the worth promised
        where nothing is wanted too little for it."""
        left = list(self.demand)
        self.taken = [0] * len(self.values)
        segments = []
        for at in chosen:
            pattern = kind.section.pattern(worths, caps, at)
            size = int(places[at])
            strips = []
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
