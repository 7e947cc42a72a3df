"""Which purchases are still possible: those that satisfy every inequality found, and were not
refused."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil, gcd

import numpy as np
import numpy.typing as npt

from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.holding import Inequality
from carpentry.cutting.search.model import Model, Packing
from carpentry.cutting.search.programs import INFINITY, Outcome, Program, charge_spares
from carpentry.cutting.search.sources import Source, cost_of

_PURCHASE_NODES, _ROOMY_NODES = 50_000, 100
_MOST_LISTED = 400_000
Ints = npt.NDArray[np.int64]


@dataclass(frozen=True)
class PieceCounts:
    """Pieces of each source, and parts of each item that are given up."""

    counts: tuple[int, ...]
    missing: tuple[int, ...]

    def key(self, model: Model) -> tuple[int, int, int]:
        return sum(self.missing), cost_of(model.sources, self.counts), sum(self.counts)


def _scarce_items(model: Model) -> list[int]:
    """Items that only limited sources hold: these alone may have to be given up."""
    total = sum(model.demand)
    return [
        item
        for item in range(len(model.sizes))
        if not any(
            model.holds(s, item) and source.limit >= total for s, source in enumerate(model.sources)
        )
    ]


class Purchases:
    """The cheapest purchase that satisfies everything known so far."""

    def __init__(self, model: Model, clock: Clock) -> None:
        self.model = model
        self.clock = clock
        self.scarce = _scarce_items(model)
        self.inequalities: list[Inequality] = []
        self.refused: list[PieceCounts] = []
        self._listed: _Listed | None = None
        self.least_cost = 0  # below which no purchase is, also where none could be named

    def list_up_to(self, best: Packing) -> None:
        """Lists every purchase that is no worse than a packing, where they are few; later answers
        are then looked up."""
        if not self.scarce and not any(best.missing):
            counts = _counts_up_to(self.model, best.key(self.model)[1], self.inequalities)
            self._listed = _Listed(self.model, counts) if counts is not None else None

    def _program(self, costs: Sequence[float], most_missing: int | None) -> Program:
        """The purchases that are left, of sources at these costs, without spare pieces."""
        program = Program([])
        model = self.model
        for source, cost in zip(model.sources, costs, strict=True):
            program.add_column(float(cost), [], float(source.limit), integer=True)
        for item in self.scarce:
            given_up_cost = 1.0 if most_missing is None else 0.0
            program.add_column(given_up_cost, [], float(model.demand[item]), integer=True)
        sources = len(model.sources)
        for inequality in self.inequalities:
            entries = [(s, float(worth)) for s, worth in enumerate(inequality.worth) if worth]
            entries += [
                (sources + k, float(inequality.value[item]))
                for k, item in enumerate(self.scarce)
                if inequality.value[item]
            ]
            program.add_row(float(inequality.needed), INFINITY, entries)
        program.add_row(0.0, float(sum(model.demand)), [(s, 1.0) for s in range(sources)])
        if most_missing is not None and self.scarce:
            given_up = [(sources + k, 1.0) for k in range(len(self.scarce))]
            program.add_row(0.0, float(most_missing), given_up)
        for purchase in self.refused:
            self._exclude(program, purchase)
        return program

    def _exclude(self, program: Program, purchase: PieceCounts) -> None:
        """A purchase that cannot hold the parts, nor can any with no more of everything."""
        held = [*purchase.counts, *(purchase.missing[item] for item in self.scarce)]
        limits = [
            *(s.limit for s in self.model.sources),
            *(self.model.demand[i] for i in self.scarce),
        ]
        more = []
        for column, (count, limit) in enumerate(zip(held, limits, strict=True)):
            if count < limit:
                switch = program.add_column(0.0, [], 1.0, integer=True)
                program.add_row(0.0, INFINITY, [(column, 1.0), (switch, -float(count + 1))])
                more.append((switch, 1.0))
        program.add_row(1.0, INFINITY, more)

    def cheapest(self) -> PieceCounts | None:
        """The next candidate, least in parts given up, cost and pieces; ``None`` when undecided."""
        model = self.model
        if self._listed:
            return self._listed.cheapest(self.inequalities, self.refused)
        most_missing = 0
        if self.scarce:
            found = self._program([0] * len(model.sources), None).solve(self.clock, _PURCHASE_NODES)
            if found.outcome is not Outcome.SOLVED:
                return None
            most_missing = round(found.objective)
        divisor = gcd(*(source.cost for source in model.sources)) or 1
        costs = [source.cost // divisor for source in model.sources]
        program = self._program(costs, most_missing)
        for source, cost in enumerate(costs):
            charge_spares(program, model.sources[source], [source], float(cost))
        found = program.solve(self.clock, _PURCHASE_NODES)
        self.least_cost = divisor * max(0, ceil(found.bound - 1e-6)) if found.bound > 0 else 0
        if found.outcome is not Outcome.SOLVED:
            return None
        cheapest = self._purchase(found.columns)
        if cheapest is None:
            return None
        fewest = self._program([1] * len(model.sources), most_missing)
        spent = [(s, float(cost)) for s, cost in enumerate(costs) if cost]
        for source, cost in enumerate(costs):
            spares = charge_spares(fewest, model.sources[source], [source], 0.0)
            spent += [(column, float(cost)) for column in spares]
        fewest.add_row(-INFINITY, float(cheapest.key(model)[1] // divisor), spent)
        found = fewest.solve(self.clock, _PURCHASE_NODES)
        if found.outcome is not Outcome.SOLVED:
            return None
        return self._purchase(found.columns)

    def roomiest(self, cost: int) -> PieceCounts | None:
        """The purchase of up to a cost that holds most, by all that is known of what pieces hold;
        ``None`` where there is none, or parts may have to be given up."""
        if self.scarce or not self.inequalities:
            return None
        if self._listed:
            return self._listed.roomiest(cost, self.inequalities, self.refused)
        model = self.model
        program = self._program([0] * len(model.sources), 0)
        worths = np.array([i.worth for i in self.inequalities], dtype=np.float64)
        needed = np.array([max(1, i.needed) for i in self.inequalities], dtype=np.float64)
        room = program.add_column(-1.0, [], 4.0)
        for shares in worths / needed[:, None]:
            entries = [(s, float(share)) for s, share in enumerate(shares) if share]
            program.add_row(0.0, INFINITY, [*entries, (room, -1.0)])
        divisor = gcd(*(source.cost for source in model.sources)) or 1
        spent = [(s, source.cost / divisor) for s, source in enumerate(model.sources)]
        program.add_row(0.0, cost / divisor, [(s, c) for s, c in spent if c])
        found = program.solve(self.clock, _ROOMY_NODES, gap=0.01)
        return self._purchase(found.columns) if len(found.columns) else None

    def _purchase(self, columns: Sequence[float]) -> PieceCounts | None:
        """The purchase that a program found; ``None`` where rounding breaks what is known."""
        sources = len(self.model.sources)
        missing = [0] * len(self.model.sizes)
        for k, item in enumerate(self.scarce):
            missing[item] = round(columns[sources + k])
        purchase = PieceCounts(tuple(round(n) for n in columns[:sources]), tuple(missing))
        met = all(i.is_met(purchase.counts, purchase.missing) for i in self.inequalities)
        return purchase if met else None


def _counts_up_to(model: Model, cost: int, inequalities: Sequence[Inequality]) -> Ints | None:
    """How many pieces of each source, for every purchase that costs no more and could meet the
    inequalities; ``None`` where there are too many."""
    counts: Ints = np.zeros((1, 0), dtype=np.int64)
    spent: Ints = np.zeros(1, dtype=np.int64)
    for number, source in enumerate(model.sources):
        if source.cost:
            most = np.minimum((cost - spent) // source.cost, source.limit)
        else:
            most = np.full(len(spent), source.limit, dtype=np.int64)
        if int((most + 1).sum()) > _MOST_LISTED:
            return None
        rows = np.repeat(np.arange(len(spent)), most + 1)
        more = np.concatenate([np.arange(n + 1) for n in most])
        counts = np.column_stack([counts[rows], more])
        spent = spent[rows] + more * source.cost
        hopeful = np.ones(len(spent), dtype=bool)
        for one in inequalities:
            held = counts @ np.array(one.worth[: number + 1], dtype=np.int64)
            hopeful &= held + _most_for(model, one, number + 1, cost - spent) >= one.needed
        counts, spent = counts[hopeful], spent[hopeful]
    within: Ints = counts[_costs(model.sources, counts) <= cost]
    return within


def _costs(sources: Sequence[Source], counts: Ints) -> Ints:
    """What each purchase costs with its spare pieces."""
    total: Ints = np.zeros(len(counts), dtype=np.int64)
    for column, source in enumerate(sources):
        most = int(counts[:, column].max(initial=0))
        total += np.array([source.cost_of(n) for n in range(most + 1)])[counts[:, column]]
    return total


def _most_for(
    model: Model, inequality: Inequality, first: int, money: Ints
) -> npt.NDArray[np.float64]:
    """No less than what the sources from a ``first`` one on add to an inequality for some
    money."""
    rest = list(zip(inequality.worth, model.sources, strict=True))[first:]
    if any(worth and not source.cost for worth, source in rest):
        return np.full(len(money), np.inf)
    rate = max((worth / source.cost for worth, source in rest if worth), default=0.0)
    return np.asarray(money * (rate * (1 + 1e-9)) + 1e-6, dtype=np.float64)


class _Listed:
    """Purchases in the order of cost and pieces; those that break what is learnt are struck off."""

    def __init__(self, model: Model, counts: Ints) -> None:
        self.sources = model.sources
        costs = _costs(model.sources, counts)
        self.counts = counts[np.lexsort((counts.sum(axis=1), costs))]
        self.nothing_missing = tuple(0 for _ in model.sizes)
        self.known = self.refused = 0

    def cheapest(
        self, inequalities: Sequence[Inequality], refused: Sequence[PieceCounts]
    ) -> PieceCounts | None:
        """The first that is left; ``None`` where none is."""
        for inequality in inequalities[self.known :]:
            worth = np.array(inequality.worth, dtype=np.int64)
            self.counts = self.counts[self.counts @ worth >= inequality.needed]
        for purchase in refused[self.refused :]:
            self.counts = self.counts[(self.counts > np.array(purchase.counts)).any(axis=1)]
        self.known, self.refused = len(inequalities), len(refused)
        if not len(self.counts):
            return None
        return PieceCounts(tuple(int(n) for n in self.counts[0]), self.nothing_missing)

    def roomiest(
        self, cost: int, inequalities: Sequence[Inequality], refused: Sequence[PieceCounts]
    ) -> PieceCounts | None:
        """The one of up to a cost that is farthest above what is needed."""
        if self.cheapest(inequalities, refused) is None:
            return None
        within = self.counts[_costs(self.sources, self.counts) <= cost]
        if not len(within):
            return None
        worths = np.array([i.worth for i in inequalities], dtype=np.float64)
        needed = np.array([max(1, i.needed) for i in inequalities], dtype=np.float64)
        room = (within @ worths.T / needed).min(axis=1)
        return PieceCounts(tuple(int(n) for n in within[int(room.argmax())]), self.nothing_missing)
