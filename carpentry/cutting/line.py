"""A cut problem as whole numbers on one line: what the search works on.

The kerf is added to every length and to the stock, equal lengths become one item, and everything is
divided by the common divisor, so that parts fit a piece exactly when their sizes add up to no more
than its capacity.
"""

from dataclasses import dataclass
from decimal import Decimal
from functools import reduce
from math import gcd

from carpentry.cutting.problem import CutProblem


@dataclass(frozen=True)
class Source:
    """A stock length in whole numbers: ``cost`` per piece, ``limit`` pieces at the most."""

    stock: str
    capacity: int
    cost: int
    limit: int


@dataclass(frozen=True)
class Line:
    """Items (longest first) and sources. ``cost_scale`` turns a price into a whole cost."""

    sizes: tuple[int, ...]
    demand: tuple[int, ...]
    lengths: tuple[int, ...]
    sources: tuple[Source, ...]
    cost_scale: Decimal

    def price(self, cost: int) -> Decimal:
        """The price of a whole-number cost."""
        return (Decimal(cost) / self.cost_scale).quantize(Decimal(1) / self.cost_scale.quantize(1))

    @property
    def total_demand(self) -> int:
        return sum(self.demand)


def _cost_scale(problem: CutProblem) -> Decimal:
    places = max((-int(s.price.as_tuple().exponent) for s in problem.stock), default=0)
    return Decimal(10) ** max(places, 0)


def to_line(problem: CutProblem) -> Line:
    """The whole-number form of a problem, without what cannot be used.

    Parts longer than every piece, and pieces shorter than every part, are left out.
    """
    scale = _cost_scale(problem)
    usable = [p for p in problem.stock if p.available != 0 and problem.sound_length(p) > 0]
    longest = max((problem.sound_length(piece) for piece in usable), default=0)
    demand: dict[int, int] = {}
    for part in problem.parts:
        if part.length <= longest:
            demand[part.length] = demand.get(part.length, 0) + part.quantity
    lengths = sorted(demand, reverse=True)
    total = sum(demand.values())
    divisor = reduce(gcd, (length + problem.kerf for length in lengths), 0) or 1
    sources = tuple(
        Source(
            piece.id,
            (problem.sound_length(piece) + problem.kerf) // divisor,
            int(piece.price * scale),
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
        cost_scale=scale,
    )
