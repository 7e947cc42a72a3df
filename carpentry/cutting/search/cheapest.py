"""The search for the cheapest purchase that holds every part, with its proof.

Inequalities that every plan must satisfy say how many pieces of each source any purchase needs. The
cheapest purchase that satisfies all of them is a lower bound; when it can really hold the parts it
is the answer, and otherwise it gives the next inequality.
"""

import random
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.covering import Prices, Relaxation, dive, insist
from carpentry.cutting.search.holding import (
    Bin,
    Holder,
    cheapest_of_found,
    pack,
    pack_whole,
)
from carpentry.cutting.search.model import FilledBoard, Model, Packing
from carpentry.cutting.search.programs import Outcome
from carpentry.cutting.search.purchases import PieceCounts, Purchases

_PRICING_SHARE = 0.5  # of the time that is left
_TRY_SHARE, _DIVE_SHARE, _CHANCE_SHARE = 0.4, 0.3, 0.15
_QUICK_SHARE, _FEW_NODES = 0.2, 100  # of a first rounding
_WHOLE_NODES = 5_000
_MOST_PURCHASES, _FEW_PURCHASES = 400, 6
_MOST_ATTEMPTS = 400
_NEAR, _VERY_NEAR = 0.01, 0.0005  # to the bound, where a plan is not probed, and not rounded anew
_MOST_DIVES = 6


@dataclass(frozen=True)
class SearchResult:
    """The best packing, whether its cost and pieces are proven least, and a proven least cost, with
    the fewest pieces at that cost; ``worths`` of items are what that was proven with."""

    packing: Packing
    proven: bool
    bound: int
    fewest: int = 0
    worths: tuple[tuple[int, ...], ...] = ()

    def keeping(self, packing: Packing) -> "SearchResult":
        """The same with a packing that costs as much, of as many pieces."""
        return replace(self, packing=packing)

    def with_packing(self, packing: Packing, model: Model) -> "SearchResult":
        """The same with another packing, proven when it is as good as any can be."""
        return replace(self, packing=packing).with_bound(self.bound, self.fewest, model)

    def with_bound(self, bound: int, fewest: int, model: Model) -> "SearchResult":
        """The same with another bound on cost and pieces, proven when the packing meets it."""
        _, cost, pieces = self.packing.key(model)
        proven = (cost, pieces) == (bound, fewest)
        return replace(self, bound=min(bound, cost), fewest=fewest, proven=proven)


Report = Callable[[Packing, int], None]


class _Search:
    def __init__(self, holder: Holder, report: Report, start: Packing | None) -> None:
        model, clock = holder.model, holder.clock
        self.model = model
        self.report = report
        self.clock = clock
        self.holder = holder
        self.purchases = Purchases(model, clock)
        quick = model.quick(model.demand, [0] * len(model.sources))
        starts = (quick, start) if start else (quick,)
        self.best = min(starts, key=lambda packing: packing.key(model))
        self.bound = 0
        self.fewest = 0
        self.reached = (0, 0, 0)  # below which all purchases were tried
        self.undecided: list[PieceCounts] = []
        self.tried = 0
        self.most_tried = _MOST_PURCHASES

    def offer(self, packing: Packing) -> None:
        if packing.key(self.model) < self.best.key(self.model):
            self.best = packing
            self.report(self.best, self.bound)

    def run(self, *, briefly: bool) -> SearchResult:
        model = self.model
        self.most_tried = _FEW_PURCHASES if briefly else _MOST_PURCHASES
        self.purchases.inequalities.append(self.holder.inequality(model.sizes))
        self.report(self.best, 0)
        prices = self._item_prices()
        if prices:
            if not self.purchases.scarce:
                self.purchases.inequalities.append(self.holder.inequality(prices, model.most_care))
            self._round(_FEW_NODES, _QUICK_SHARE)
            self._reach_least()
            share = self.clock.part(_CHANCE_SHARE)
            for attempt in range(_MOST_DIVES if model.is_quick else 0):
                cost = self.best.key(model)[1]
                if cost - self.bound <= cost * _VERY_NEAR or share.is_over:
                    break
                self._dive_by_chance(attempt, share)
            for packing in model.tries(prices, self.clock.part(0.5)):
                self.offer(packing)
        else:
            self.purchases.cheapest()
            self._reach_least()
        self.purchases.list_up_to(self.best)
        if self._ascend(self.clock.part(0.5)):
            return self._result(proven=True)
        if not briefly:
            if not self._is_near:
                self._probe(self.clock.part(0.5))
            if self._ascend(self.clock):
                return self._result(proven=True)
            self._insist()
            self._round(_WHOLE_NODES, 1.0)
        met = self.best.key(model)[1:] == (self.bound, self.fewest) and not any(self.best.missing)
        return self._result(proven=met)

    def _item_prices(self) -> list[int] | None:
        """What an item is worth by the prices of the sources; those of the last round when time is
        up, ``None`` where there was none. Offers the boards that the prices lead to."""
        covering = Prices(self.holder, self.best.boards)
        solved = covering.solve(self.clock.part(_PRICING_SHARE))
        peak = max(solved[2], default=0.0) if solved else 0.0
        if solved is None or peak <= 0:
            return None
        if self.model.is_quick:
            self._dive(covering, solved[1], self.clock.part(_DIVE_SHARE))
        return [round(max(0.0, dual) / peak * 10_080) for dual in solved[2]]

    def _dive(
        self,
        covering: Prices,
        values: Sequence[float],
        clock: Clock,
        chance: random.Random | None = None,
    ) -> None:
        """Offers the boards that the least cost in fractions leads to."""
        ended = dive(covering, values, chance, clock=clock)
        self._complete(ended.boards, ended.residual, tuple(0 for _ in ended.residual))

    def _dive_by_chance(self, attempt: int, clock: Clock) -> None:
        covering = Prices(self.holder, ())
        solved = covering.program.solve(clock)
        if solved.outcome is Outcome.SOLVED:
            self._dive(covering, solved.columns, clock, random.Random(attempt))

    def _reach_least(self) -> None:
        """No purchase costs less than those that nothing known speaks against."""
        if not self.purchases.scarce and not any(self.best.missing):
            if self.purchases.least_cost > self.reached[1]:
                self.reached = 0, self.purchases.least_cost, 0  # nobody knows in how many pieces
            self._settle()

    @property
    def _is_near(self) -> bool:
        """Whether the best is so near to the bound that it is not worth looking half way."""
        cost = self.best.key(self.model)[1]
        return any(self.best.missing) or cost - self.bound <= cost * _NEAR

    def _ascend(self, clock: Clock) -> bool:
        """Tries the purchases that nothing known speaks against, the cheapest first, and sets aside
        those that cannot be decided; whether the best one is found."""
        model = self.model
        while self.tried < self.most_tried and not clock.is_over:
            purchase = self.purchases.cheapest()
            if purchase is None:
                self._reach_least()
                break
            key = purchase.key(model)
            if key[0] >= sum(self.best.missing):
                self.reached = min(key, self.best.key(model))
                self._settle()
            if key >= self.best.key(model):
                return not self.undecided
            self.tried += 1
            outcome = self._try(purchase)
            if outcome is Outcome.UNDECIDED:
                self.undecided.append(purchase)
                self.purchases.refused.append(purchase)
            elif outcome is Outcome.SOLVED:
                self._settle()
                return not self.undecided
        self._settle()
        return False

    def _settle(self) -> None:
        """The bound: no purchase below what was reached is left, but for those set aside, whose own
        parts were tried before them; and none is above the best."""
        open_keys = [purchase.key(self.model) for purchase in self.undecided]
        missing, cost, pieces = min([self.reached, self.best.key(self.model), *open_keys])
        if missing >= sum(self.best.missing) and (cost, pieces) > (self.bound, self.fewest):
            self.bound, self.fewest = cost, pieces

    def _probe(self, clock: Clock) -> None:
        """Tries roomy purchases half way between the bound and the best, where these are far apart:
        those that hold the parts are better, those that do not are refused with all that hold
        less."""
        low = self.bound
        probed: set[PieceCounts] = set()
        while self.tried < self.most_tried and not clock.is_over:
            best = self.best.key(self.model)[1]
            if any(self.best.missing) or best - low <= best * _NEAR:
                return
            middle = (low + best) // 2
            purchase = self.purchases.roomiest(middle)
            if purchase is None or purchase in probed:
                low = middle
                continue
            probed.add(purchase)
            self.tried += 1
            if self._try(purchase) is not Outcome.SOLVED:
                low = middle

    def _insist(self) -> None:
        """Tries purchases that could not be decided again and again, the cheapest first, and every
        now and then the others."""
        for attempt in range(_MOST_ATTEMPTS):
            best = self.best.key(self.model)
            self.undecided = [p for p in self.undecided if p.key(self.model) < best]
            if not self.undecided or self.clock.is_over:
                break
            if attempt % 4 == 3 and self.model.is_quick:
                self._dive_by_chance(attempt, self.clock.part(_CHANCE_SHARE))
                continue
            at = 0 if attempt % 3 else attempt // 3 % len(self.undecided)
            purchase = self.undecided[at]
            bins, demand = self._bins(purchase)
            if attempt % 3 == 1:
                outcome, boards = pack(self.holder, bins, demand, 1 + attempt // 3)
                if outcome is Outcome.IMPOSSIBLE:
                    self.undecided.remove(purchase)
                    self._settle()
            else:
                boards = insist(self.holder, bins, demand, random.Random(attempt)) or ()
            if boards:
                self.offer(Packing(boards, purchase.missing))
        self._settle()

    def _round(self, nodes: int, share: float) -> None:
        """Offers whole boards of the patterns found so far, unless nothing can be cheaper; in so
        many nodes and a share of the time that is left."""
        least = 0
        if not self.purchases.scarce:
            self.purchases.cheapest()
            least = self.purchases.least_cost
        if not any(self.best.missing) and self.best.key(self.model)[1] <= least:
            return
        clock = self.clock.part(share)
        whole = cheapest_of_found(self.holder, self.purchases.scarce, least, clock, nodes)
        if whole:
            self._complete(whole.boards, whole.missing, tuple(0 for _ in whole.missing))

    def _result(self, *, proven: bool) -> SearchResult:
        worths = tuple(dict.fromkeys(one.value for one in self.purchases.inequalities))
        return SearchResult(self.best, proven, self.bound, self.fewest, worths)

    def _bins(self, purchase: PieceCounts) -> tuple[list[Bin], list[int]]:
        """The pieces of a purchase, and what they are to hold."""
        demand = [d - m for d, m in zip(self.model.demand, purchase.missing, strict=True)]
        counts = zip(self.model.sources, purchase.counts, strict=True)
        bins = [Bin(source.kind, n, s) for s, (source, n) in enumerate(counts) if n]
        return bins, demand

    def _try(self, purchase: PieceCounts) -> Outcome:
        """Whether a purchase holds the parts; when not, what was learnt is kept."""
        bins, demand = self._bins(purchase)
        relaxation = Relaxation(self.holder, bins, demand)
        solved = relaxation.solve(self.clock.part(_TRY_SHARE))
        if solved is None:
            return Outcome.UNDECIDED
        uncovered, values, duals = solved
        refuted = relaxation.refuted_with
        if uncovered > 0 and refuted is not None:
            counts, missing = purchase.counts, purchase.missing
            broken = self.holder.broken_inequality(duals, counts, missing, refuted)
            if broken:
                self.purchases.inequalities.append(broken)
            else:
                self.purchases.refused.append(purchase)
            return Outcome.IMPOSSIBLE
        outcome, boards = pack(self.holder, bins, demand, 0)
        if outcome is not Outcome.UNDECIDED:
            return self._settled(purchase, outcome, boards)
        if uncovered > 0 and relaxation.is_finished:
            return outcome  # only patterns that no pricing finds could help
        ended = dive(relaxation, values)
        if ended.is_complete:
            self.offer(Packing(ended.boards, purchase.missing))
            return Outcome.SOLVED
        self._complete(ended.boards, ended.residual, purchase.missing)
        return self._settled(purchase, *pack_whole(self.holder, bins, demand))

    def _settled(
        self, purchase: PieceCounts, outcome: Outcome, boards: tuple[FilledBoard, ...]
    ) -> Outcome:
        """Keeps what packing a purchase came to."""
        if outcome is Outcome.SOLVED:
            self.offer(Packing(boards, purchase.missing))
        if outcome is Outcome.IMPOSSIBLE:
            self.purchases.refused.append(purchase)
        return outcome

    def _complete(
        self, boards: tuple[FilledBoard, ...], residual: tuple[int, ...], missing: tuple[int, ...]
    ) -> None:
        """Offers a dive that stopped short, with the rest packed first-fit."""
        used = [0] * len(self.model.sources)
        for board in boards:
            used[board.source] += 1
        rest = self.model.quick(residual, used)
        given_up = tuple(a + b for a, b in zip(rest.missing, missing, strict=True))
        self.offer(Packing((*boards, *rest.boards), given_up))


def search(
    holder: Holder, report: Report, start: Packing | None = None, *, briefly: bool = False
) -> SearchResult:
    """The least (parts given up, cost, pieces) for what a holder's model wants, never more than
    those of ``start``; ``briefly`` only the first few purchases are tried.

    ``report`` is told every better packing with the bound proven so far.
    """
    model = holder.model
    if not model.sources or not model.sizes:
        return SearchResult(Packing((), model.demand), True, 0)
    result = _Search(holder, report, start).run(briefly=briefly)
    if result.proven:
        report(result.packing, result.bound)
    return result
