"""A cut problem as whole numbers on one line: what the search works on when nothing is ripped.

The kerf is added to every length and to the stock, equal lengths become one item, and everything is
divided by the common divisor, so that parts fit a piece exactly when their sizes add up to no more
than its capacity.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property, reduce
from math import gcd

from carpentry.cutting.first_fit import best_first_fit
from carpentry.cutting.model import Money, Packing, Pattern, Source
from carpentry.cutting.patterns import Knapsack, maximal_patterns
from carpentry.cutting.problem import CutProblem


@dataclass(frozen=True)
class Line:
    """Items (longest first) and sources, whose kind is their capacity."""

    sizes: tuple[int, ...]
    demand: tuple[int, ...]
    lengths: tuple[int, ...]
    sources: tuple[Source, ...]
    money: Money

    @cached_property
    def knapsack(self) -> Knapsack:
        return Knapsack(self.sizes, self.demand, [source.kind for source in self.sources])

    def holds(self, source: int, item: int) -> bool:
        return self.sources[source].kind >= self.sizes[item]

    def best_for(
        self, kinds: Sequence[int], values: Sequence[int], demand: Sequence[int]
    ) -> list[tuple[int, Pattern]]:
        return self.knapsack.best_for(kinds, values, demand)

    def tight_for(
        self, kinds: Sequence[int], values: Sequence[int], demand: Sequence[int]
    ) -> list[tuple[int, Pattern]]:
        return self.best_for(kinds, values, demand)  # exact already

    def every_pattern(self, kind: int, demand: Sequence[int], most: int) -> list[Pattern] | None:
        return maximal_patterns(self.sizes, demand, kind, most)

    def tries(self, values: Sequence[int], deadline: float) -> Iterator[Packing]:
        return iter(())  # the search finds boards on a line well enough

    def quick(self, demand: Sequence[int], used: Sequence[int]) -> Packing:
        return best_first_fit(self, demand, used)


def to_line(problem: CutProblem) -> Line:
    """The whole-number form of a problem, without what cannot be used.

    Parts longer than every piece, and pieces shorter than every part, are left out.
    """
    money = Money.of([piece.price for piece in problem.stock])
    usable = [p for p in problem.stock if p.available != 0 and problem.sound_length(p) > 0]
    longest = max((problem.sound_length(piece) for piece in usable), default=0)
    demand: dict[int, int] = {}
    for part in problem.parts:
        if part.sawn_length <= longest:
            demand[part.sawn_length] = demand.get(part.sawn_length, 0) + part.quantity
    lengths = sorted(demand, reverse=True)
    total = sum(demand.values())
    divisor = reduce(gcd, (length + problem.kerf for length in lengths), 0) or 1
    sources = tuple(
        Source(
            piece.id,
            (problem.sound_length(piece) + problem.kerf) // divisor,
            money.cost(piece.price),
            total if piece.available is None else min(piece.available, total),
        )
        for piece in usable
        if lengths and problem.sound_length(piece) >= lengths[-1]
    )
    return Line(
        sizes=tuple((length + problem.kerf) // divisor for length in lengths),
        demand=tuple(demand[length] for length in lengths),
        lengths=tuple(lengths),
        sources=sources,
        money=money,
    )
