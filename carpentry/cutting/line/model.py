"""A cut problem as whole numbers on one line: what the search works on when nothing is ripped.

The kerf is added to every length and to the stock, equal lengths become one item, and everything is
divided by the common divisor, so that parts fit a piece exactly when their sizes add up to no more
than its capacity. At an angle the saw takes more; where neighbours share a saw line, parts nest.
"""

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property, partial, reduce
from math import gcd
from typing import ClassVar

from carpentry.cutting.line.sound_runs import Fill, Particular, Run, by_capacity
from carpentry.cutting.problem import CutPart, CutProblem, Shape
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.first_fit import best_first_fit
from carpentry.cutting.search.knapsack import GridKnapsack
from carpentry.cutting.search.model import FilledBoard, Packing, Pattern, worth_of
from carpentry.cutting.search.patterns import Knapsack, maximal_patterns
from carpentry.cutting.search.programs import Outcome
from carpentry.cutting.search.sources import Money, Source, as_source
from carpentry.design.ends import EndAngle, Ends

_MOST_SUMS = 20_000  # that lengths may reach for all of them to be listed


@dataclass(frozen=True)
class LineModel:
    """Items (largest first) and sources, whose kind is their capacity; one below zero is the number
    of a ``particular`` piece, -1 for the first. ``fills`` says how patterns of those lie.

    Items that are ``chained`` have both ends at one angle and share their saw lines: each takes
    less, but a board with any of them has ``overhead`` less to give.
    """

    sizes: tuple[int, ...]
    demand: tuple[int, ...]
    shapes: tuple[Shape, ...]
    sources: tuple[Source, ...]
    money: Money
    chained: tuple[bool, ...] = ()
    overhead: int = 0
    particular: tuple[Particular, ...] = ()
    fills: dict[tuple[int, Pattern], Fill] = field(default_factory=dict, compare=False)

    @cached_property
    def knapsack(self) -> Knapsack | GridKnapsack:
        tops = [source.kind for source in self.sources if source.kind >= 0]
        capacities = [*tops, *(one.whole for one in self.particular)]
        every = Knapsack(self.sizes, self.demand, capacities)
        return every if len(every.sums) <= _MOST_SUMS else GridKnapsack(self.sizes, capacities)

    def particular_of(self, kind: int) -> Particular | None:
        """The particular piece of a kind, ``None`` for a plain one."""
        return self.particular[-1 - kind] if kind < 0 else None

    def holds(self, source: int, item: int) -> bool:
        kind = self.sources[source].kind
        piece = self.particular_of(kind)
        room = piece.longest_for(item) if piece else kind
        return room - self._overhead_of(item) >= self.sizes[item]

    def fits(self, source: int, pattern: Pattern) -> bool:
        """Whether a plain piece of a source holds a pattern."""
        kind = self.sources[source].kind
        held = sum(n * size for n, size in zip(pattern, self.sizes, strict=True))
        chained = any(n and self._overhead_of(item) for item, n in enumerate(pattern))
        return kind >= 0 and held + (self.overhead if chained else 0) <= kind

    def _overhead_of(self, item: int) -> int:
        return self.overhead if self.overhead and self.chained[item] else 0

    def _unchained(self, demand: Sequence[int]) -> list[int]:
        return [0 if self._overhead_of(item) else n for item, n in enumerate(demand)]

    is_quick: ClassVar[bool] = True

    @property
    def most_care(self) -> int:
        return self.knapsack.most_care

    def best_for(
        self, kinds: Sequence[int], values: Sequence[int], demand: Sequence[int], care: int = 0
    ) -> list[tuple[int, Pattern]]:
        plain = [kind for kind in dict.fromkeys(kinds) if kind >= 0]
        found = dict(zip(plain, self._best_for_plain(plain, values, demand, care), strict=True))
        for kind in kinds:
            if kind not in found:
                found[kind] = self._best_for_particular(kind, values, demand)
        return [found[kind] for kind in kinds]

    def _best_for_particular(
        self, kind: int, values: Sequence[int], demand: Sequence[int]
    ) -> tuple[int, Pattern]:
        """Runs filled one after the other, in each way the flaws allow; no pattern is worth more
        than the whole piece would be without them, nor, where all must be clear, than the sum of
        its runs."""
        piece = self.particular[-1 - kind]
        wanted = piece.may(demand)
        ((worth, _),) = self._best_for_plain([piece.whole], values, wanted)
        if len(piece.ways) == 1:
            capacities = [run.capacity for run in piece.ways[0]]
            alone = self._best_for_plain(capacities, values, wanted)
            worth = min(worth, sum(most for most, _ in alone))
        best = -1
        best_fill: Fill = ()
        for way in piece.ways:
            value, fill = self._filled(piece, way, values, wanted)
            if value > best:
                best, best_fill = value, fill
        held = [counts for _, counts in best_fill]
        pattern = tuple(sum(counts[item] for counts in held) for item in range(len(demand)))
        self.fills.setdefault((kind, pattern), best_fill)
        return worth, pattern

    def _filled(
        self, piece: Particular, way: Sequence[Run], values: Sequence[int], demand: Sequence[int]
    ) -> tuple[int, Fill]:
        left = list(demand)
        fill = []
        for run in by_capacity(way):
            wanted = piece.crossing(left) if run.crossing else left
            ((_, counts),) = self._best_for_plain([run.capacity], values, wanted)
            left = [r - n for r, n in zip(left, counts, strict=True)]
            fill.append((run.start, counts))
        taken = sum(v * (d - r) for v, d, r in zip(values, demand, left, strict=True))
        return taken, tuple(sorted(fill))

    def fill_of(self, board: FilledBoard) -> Fill | None:
        """Where the parts of a particular piece lie: as was found for its pattern, or for one that
        holds more; ``None`` for a plain piece."""
        kind = self.sources[board.source].kind
        if kind >= 0:
            return None
        known = self.fills.get((kind, board.pattern))
        if known is not None:
            return known
        for (of_kind, pattern), fill in self.fills.items():
            if of_kind == kind and all(a >= b for a, b in zip(pattern, board.pattern, strict=True)):
                return fill
        raise AssertionError("a board that nobody found")

    def _best_for_plain(
        self,
        kinds: Sequence[int],
        values: Sequence[int],
        demand: Sequence[int],
        care: int = 0,
    ) -> list[tuple[int, Pattern]]:
        ask = partial(self.knapsack.best_for, care=care)
        if not self.overhead:
            return ask(kinds, values, demand)
        less = [max(0, kind - self.overhead) for kind in kinds]
        with_chain = ask(less, values, demand)
        without = ask(kinds, values, self._unchained(demand))
        return [
            (max(one[0], other[0]), max(one[1], other[1], key=partial(worth_of, values)))
            for one, other in zip(with_chain, without, strict=True)
        ]

    def others_for(
        self, kind: int, values: Sequence[int], demand: Sequence[int]
    ) -> Iterator[Pattern]:
        if kind >= 0 and not self.overhead:
            yield from self.knapsack.with_each(kind, values, demand)

    def pack(
        self, kinds: Sequence[int], demand: Sequence[int], clock: Clock, effort: int = 0
    ) -> tuple[Outcome, tuple[Pattern, ...]]:
        return Outcome.UNDECIDED, ()

    def every_pattern(self, kind: int, demand: Sequence[int], most: int) -> list[Pattern] | None:
        piece = self.particular_of(kind)
        if piece:
            found = None if self.overhead else piece.every_pattern(self.sizes, demand, most)
            for pattern, fill in (found or {}).items():
                self.fills.setdefault((kind, pattern), fill)
            return None if found is None else list(found)
        if not self.overhead:
            return maximal_patterns(self.sizes, demand, kind, most)
        with_chain = maximal_patterns(self.sizes, demand, max(0, kind - self.overhead), most)
        without = maximal_patterns(self.sizes, self._unchained(demand), kind, most)
        if with_chain is None or without is None:
            return None
        return list(dict.fromkeys((*with_chain, *without)))

    def tries(self, values: Sequence[int], clock: Clock) -> Iterator[Packing]:
        return iter(())  # the search finds boards on a line well enough

    def quick(self, demand: Sequence[int], used: Sequence[int]) -> Packing:
        plain = self._quick_plain(demand, used)
        if not self.particular:
            return plain
        boards: list[FilledBoard] = []
        left = list(demand)
        for number, source in enumerate(self.sources):
            for _ in range(source.limit - used[number] if source.kind < 0 else 0):
                _, pattern = self._best_for_particular(source.kind, self.sizes, left)
                if not any(pattern):
                    break
                boards.append(FilledBoard(number, pattern))
                left = [r - n for r, n in zip(left, pattern, strict=True)]
        rest = self._quick_plain(left, used)
        mixed = Packing((*boards, *rest.boards), rest.missing)
        return min((mixed, plain), key=lambda packing: packing.key(self))

    def _quick_plain(self, demand: Sequence[int], used: Sequence[int]) -> Packing:
        """First-fit on plain pieces alone, with room for the chain on each."""
        numbers = [n for n, source in enumerate(self.sources) if source.kind >= 0]
        shorter = tuple(
            replace(self.sources[n], kind=max(1, self.sources[n].kind - self.overhead))
            for n in numbers
        )
        plain = replace(self, sources=shorter, overhead=0, particular=())
        packing = best_first_fit(plain, demand, [used[n] for n in numbers])
        boards = (FilledBoard(numbers[board.source], board.pattern) for board in packing.boards)
        return Packing(tuple(boards), packing.missing)


def _chain(problem: CutProblem) -> tuple[Ends, int] | None:
    """The angle that most parts have at both ends, where saw lines may be shared, and its reach."""
    if not problem.share_angled_cuts:
        return None
    pieces: Counter[tuple[str, int]] = Counter()
    ends: dict[tuple[str, int], Ends] = {}
    for part in problem.parts:
        left, right = part.ends
        if left.degrees and left in (right, right.flipped):
            key = str(EndAngle(abs(left.degrees), left.bevel)), part.reach(0)
            pieces[key] += part.quantity
            ends[key] = part.ends
    if not pieces:
        return None
    most = max(sorted(pieces), key=lambda key: pieces[key])
    return ends[most], most[1]


def _is_chained(part: CutPart, chain: tuple[Ends, int] | None) -> bool:
    if chain is None:
        return False
    (like, _), reach = chain
    return part.reach(0) == reach and all(end in (like, like.flipped) for end in part.ends)


def to_line(problem: CutProblem) -> LineModel:
    """The whole-number form of a problem, without what cannot be used.

    Parts longer than every piece, and pieces shorter than every part, are left out.
    """
    money = Money.of([piece.price for piece in problem.stock])
    usable = [p for p in problem.stock if p.available != 0 and problem.sound_length(p) > 0]
    longest = max((problem.sound_length(piece) for piece in usable), default=0)
    chain = _chain(problem)
    demand: dict[Shape, int] = {}
    room: dict[Shape, int] = {}
    chained: dict[Shape, bool] = {}
    for part in problem.parts:
        shape = problem.shape(part)
        chained[shape] = _is_chained(part, chain)
        shared = part.sawn_length - part.reach(0) + part.ends[0].saw(problem.kerf)
        room[shape] = shared if chained[shape] else part.room(problem.kerf)
        overhead = part.reach(0) if chained[shape] else 0
        if problem.may_crosscut(part) and room[shape] + overhead <= longest + problem.kerf:
            demand[shape] = demand.get(shape, 0) + part.quantity
    shapes = sorted(demand, key=lambda shape: (-room[shape], str(shape)))
    used_chain = chain[1] if chain and any(chained[shape] for shape in shapes) else 0
    total = sum(demand.values())
    divisor = reduce(gcd, (used_chain, *(room[shape] for shape in shapes)), 0) or 1
    particular: list[Particular] = []
    sources: list[Source] = []
    for piece in usable:
        if not shapes or problem.sound_length(piece) + problem.kerf < room[shapes[-1]]:
            continue
        kind = (problem.sound_length(piece) + problem.kerf) // divisor
        allowed = [not shape.on or piece.id in shape.on for shape in shapes]
        if not any(allowed):
            continue
        if piece.flaws or not all(allowed):
            clear = [shape.clear for shape in shapes]
            particular.append(Particular.of(problem, piece, divisor, allowed, clear))
            kind = -len(particular)
        sources.append(as_source(problem, piece, kind, money, total))
    return LineModel(
        sizes=tuple(room[shape] // divisor for shape in shapes),
        demand=tuple(demand[shape] for shape in shapes),
        shapes=tuple(shapes),
        sources=tuple(sources),
        money=money,
        chained=tuple(chained[shape] for shape in shapes),
        overhead=used_chain // divisor,
        particular=tuple(particular),
    )
