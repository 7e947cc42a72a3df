"""A cut problem as whole numbers on one line: what the search works on when nothing is ripped.

The kerf is added to every length and to the stock, equal lengths become one item, and everything is
divided by the common divisor, so that parts fit a piece exactly when their sizes add up to no more
than its capacity. At an angle the saw takes more; where neighbours share a saw line, parts nest.
"""

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, reduce
from math import gcd

from carpentry.cutting.first_fit import best_first_fit
from carpentry.cutting.model import Money, Packing, Pattern, Source
from carpentry.cutting.patterns import Knapsack, maximal_patterns
from carpentry.cutting.problem import CutPart, CutProblem
from carpentry.ends import EndAngle, Ends

Shape = tuple[int, Ends]


def shape_of(part: CutPart) -> Shape:
    """What makes parts alike: sawn length (ticks) and ends."""
    return part.sawn_length, part.ends


@dataclass(frozen=True)
class Line:
    """Items (largest first) and sources, whose kind is their capacity.

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

    @cached_property
    def knapsack(self) -> Knapsack:
        return Knapsack(self.sizes, self.demand, [source.kind for source in self.sources])

    def holds(self, source: int, item: int) -> bool:
        return self.sources[source].kind - self._overhead_of(item) >= self.sizes[item]

    def _overhead_of(self, item: int) -> int:
        return self.overhead if self.overhead and self.chained[item] else 0

    def _unchained(self, demand: Sequence[int]) -> list[int]:
        return [0 if self._overhead_of(item) else n for item, n in enumerate(demand)]

    def best_for(
        self, kinds: Sequence[int], values: Sequence[int], demand: Sequence[int]
    ) -> list[tuple[int, Pattern]]:
        if not self.overhead:
            return self.knapsack.best_for(kinds, values, demand)
        less = [max(0, kind - self.overhead) for kind in kinds]
        with_chain = self.knapsack.best_for(less, values, demand)
        without = self.knapsack.best_for(kinds, values, self._unchained(demand))
        return [max(pair, key=lambda one: one[0]) for pair in zip(with_chain, without, strict=True)]

    def tight_for(
        self, kinds: Sequence[int], values: Sequence[int], demand: Sequence[int]
    ) -> list[tuple[int, Pattern]]:
        return self.best_for(kinds, values, demand)  # exact already

    def every_pattern(self, kind: int, demand: Sequence[int], most: int) -> list[Pattern] | None:
        if not self.overhead:
            return maximal_patterns(self.sizes, demand, kind, most)
        with_chain = maximal_patterns(self.sizes, demand, max(0, kind - self.overhead), most)
        without = maximal_patterns(self.sizes, self._unchained(demand), kind, most)
        if with_chain is None or without is None:
            return None
        return list(dict.fromkeys((*with_chain, *without)))

    def tries(self, values: Sequence[int], deadline: float) -> Iterator[Packing]:
        return iter(())  # the search finds boards on a line well enough

    def quick(self, demand: Sequence[int], used: Sequence[int]) -> Packing:
        if not self.overhead:
            return best_first_fit(self, demand, used)
        shorter = tuple(replace(s, kind=max(1, s.kind - self.overhead)) for s in self.sources)
        careful = best_first_fit(replace(self, sources=shorter, overhead=0), demand, used)
        return Packing(careful.boards, careful.missing)


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


def to_line(problem: CutProblem) -> Line:
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
        shape = shape_of(part)
        chained[shape] = _is_chained(part, chain)
        shared = part.sawn_length - part.reach(0) + part.ends[0].saw(problem.kerf)
        room[shape] = shared if chained[shape] else part.room(problem.kerf)
        overhead = part.reach(0) if chained[shape] else 0
        if room[shape] + overhead <= longest + problem.kerf:
            demand[shape] = demand.get(shape, 0) + part.quantity
    shapes = sorted(demand, key=lambda shape: (-room[shape], shape[0], str(shape[1])))
    used_chain = chain[1] if chain and any(chained[shape] for shape in shapes) else 0
    total = sum(demand.values())
    divisor = reduce(gcd, (used_chain, *(room[shape] for shape in shapes)), 0) or 1
    sources = tuple(
        Source(
            piece.id,
            (problem.sound_length(piece) + problem.kerf) // divisor,
            money.cost(piece.price),
            total if piece.available is None else min(piece.available, total),
        )
        for piece in usable
        if shapes and problem.sound_length(piece) + problem.kerf >= room[shapes[-1]]
    )
    return Line(
        sizes=tuple(room[shape] // divisor for shape in shapes),
        demand=tuple(demand[shape] for shape in shapes),
        shapes=tuple(shapes),
        sources=sources,
        money=money,
        chained=tuple(chained[shape] for shape in shapes),
        overhead=used_chain // divisor,
    )
