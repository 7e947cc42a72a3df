"""The cheapest purchase that a proof leaves possible."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import cached_property
from heapq import heappop, heappush

from carpentry.cutting.problem import CutProblem
from carpentry.proof.proof import Counts, Line

MOST_STEPS = 20_000
# What is left costs no less, how many stocks are decided (below zero), how many of each, what they
# cost, and what is still needed of each line.
_Node = tuple[int, int, tuple[int, ...], int, tuple[int, ...]]


@dataclass(frozen=True)
class Found:
    """A purchase that costs the least of those that are left, ``None`` where none below the price
    is; where looking was given up, only that none costs less than ``cost``."""

    cost: int
    counts: tuple[int, ...] | None
    is_sure: bool = True


class Purchases:
    """All purchases for a problem below a ``price``, costs in the smallest coin there is."""

    def __init__(self, problem: CutProblem, price: Decimal) -> None:
        self.problem = problem
        exponents = [int(one.price.as_tuple().exponent) for one in problem.stock]
        exponents.append(int(price.as_tuple().exponent))
        self.coin = Decimal(1).scaleb(min(0, *exponents))
        self.price = int(price / self.coin)
        self.costs = [int(one.price / self.coin) for one in problem.stock]
        self.wanted = sum(part.quantity for part in problem.parts)

    def cost(self, stock: int, count: int) -> int:
        """What so many pieces of a stock cost with their spare ones."""
        if not count:
            return 0
        spare, there = self.problem.spare, self.problem.stock[stock].available
        bought = count + spare.boards + (count * spare.percent + 99) // 100
        return self.costs[stock] * (bought if there is None else min(bought, there))

    def in_money(self, cost: int) -> Decimal:
        return cost * self.coin

    @cached_property
    def limits(self) -> list[int]:
        stock = self.problem.stock
        return [self.wanted if one.available is None else one.available for one in stock]

    def cheapest(self, lines: Sequence[Line], refuted: Sequence[Counts]) -> Found:
        """The cheapest of those that hold what every line needs and are no part of one refuted.

        Best first (Hart, Nilsson, Raphael 1968): of each stock so many, then the next stock; what
        is still needed costs no less than at the best worth for the money that is to come.
        """
        names = [piece.id for piece in self.problem.stock]
        holds = [[line.holds.get(name, 0) for name in names] for line in lines]
        order = sorted(range(len(names)), key=lambda s: self._dear(s, holds))
        struck = [[one.get(names[s], 0) for s in order] for one in refuted]
        deficits = tuple(line.needed for line in lines)
        least = self._at_least(0, deficits, order, holds)
        heap: list[_Node] = [(least, 0, (), 0, deficits)]
        for _ in range(MOST_STEPS):
            if not heap:
                return Found(self.price, None)
            least, negative, counts, spent, needed = heappop(heap)
            depth = -negative
            if depth == len(order):
                if all(need <= 0 for need in needed) and not any(
                    all(n <= m for n, m in zip(counts, one, strict=True)) for one in struck
                ):
                    by_stock = sorted(zip(order, counts, strict=True))
                    return Found(spent, tuple(n for _, n in by_stock))
                continue
            stock = order[depth]
            for count in self._numbers(stock, needed, holds):
                cost = spent + self.cost(stock, count)
                if cost >= self.price:
                    break
                left = tuple(
                    need - count * of[stock] for need, of in zip(needed, holds, strict=True)
                )
                bound = max(least, cost + self._at_least(depth + 1, left, order, holds))
                if bound < self.price:
                    heappush(heap, (bound, negative - 1, (*counts, count), cost, left))
        return (
            Found(min(one[0] for one in heap), None, is_sure=False)
            if heap
            else Found(self.price, None)
        )

    def _dear(self, stock: int, holds: Sequence[Sequence[int]]) -> float:
        """How dear worth is of a stock: the order in which stocks are looked at."""
        worth = max((of[stock] for of in holds), default=0)
        return self.costs[stock] / worth if worth else float("inf")

    def _numbers(self, stock: int, needed: Sequence[int], holds: Sequence[Sequence[int]]) -> range:
        """How many of a stock are worth looking at: no more than meet every line."""
        most = max(
            (-(-need // of[stock]) for need, of in zip(needed, holds, strict=True) if of[stock]),
            default=0,
        )
        top = min(self.limits[stock], max(0, most))
        return range(top if not self.costs[stock] else 0, top + 1)  # what is free is all taken

    def _at_least(
        self,
        depth: int,
        needed: Sequence[int],
        order: Sequence[int],
        holds: Sequence[Sequence[int]],
    ) -> int:
        """The least cost, from below, of what is still needed, from the stocks not yet decided."""
        least = 0
        for need, of in zip(needed, holds, strict=True):
            if need <= 0:
                continue
            to_come = [(self.costs[s], of[s]) for s in order[depth:] if of[s]]
            if not to_come:
                return self.price
            costs = min(-(-need * cost // worth) for cost, worth in to_come)
            least = max(least, costs)
        return least
