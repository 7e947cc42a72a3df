"""The search for the cheapest purchase that holds every part, with its proof.

Inequalities that every plan must satisfy say how many pieces of each source any purchase needs. The
cheapest purchase that satisfies all of them is a lower bound; when it can really hold the parts it
is the answer, and otherwise it gives the next inequality.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from time import monotonic

from carpentry.cutting.first_fit import Board, Packing, best_first_fit
from carpentry.cutting.holding import (
    Bin,
    Holder,
    Inequality,
    Relaxation,
    dive,
    pack_whole,
)
from carpentry.cutting.line import Line, Source
from carpentry.cutting.linear import INFINITY, Outcome, Program

_MOST_PURCHASES = 400
_PURCHASE_NODES = 50_000
_MOST_LEFTOVER_TRIES = 14


@dataclass(frozen=True)
class Purchase:
    """Pieces of each source, and parts of each item that are given up."""

    counts: tuple[int, ...]
    missing: tuple[int, ...]

    def key(self, line: Line) -> tuple[int, int, int]:
        cost = sum(n * s.cost for n, s in zip(self.counts, line.sources, strict=True))
        return sum(self.missing), cost, sum(self.counts)


@dataclass(frozen=True)
class SearchResult:
    """The best packing, whether its cost and pieces are proven least, and a proven least cost."""

    packing: Packing
    proven: bool
    bound: int


Report = Callable[[Packing, int], None]


def _scarce_items(line: Line) -> list[int]:
    """Items that only limited sources hold: these alone may have to be given up."""
    return [
        item
        for item, size in enumerate(line.sizes)
        if not any(s.capacity >= size and s.limit >= line.total_demand for s in line.sources)
    ]


class _Purchases:
    """The cheapest purchase that satisfies everything known so far."""

    def __init__(self, line: Line, deadline: float) -> None:
        self.line = line
        self.deadline = deadline
        self.scarce = _scarce_items(line)
        self.inequalities: list[Inequality] = []
        self.refused: list[Purchase] = []

    def _program(self, costs: Sequence[int], most_missing: int | None) -> Program:
        program = Program([])
        line = self.line
        for source, cost in zip(line.sources, costs, strict=True):
            program.add_column(float(cost), [], float(source.limit), integer=True)
        for item in self.scarce:
            given_up_cost = 1.0 if most_missing is None else 0.0
            program.add_column(given_up_cost, [], float(line.demand[item]), integer=True)
        sources = len(line.sources)
        for inequality in self.inequalities:
            entries = [(s, float(worth)) for s, worth in enumerate(inequality.worth) if worth]
            entries += [
                (sources + k, float(inequality.value[item]))
                for k, item in enumerate(self.scarce)
                if inequality.value[item]
            ]
            program.add_row(float(inequality.needed), INFINITY, entries)
        program.add_row(0.0, float(line.total_demand), [(s, 1.0) for s in range(sources)])
        if most_missing is not None and self.scarce:
            given_up = [(sources + k, 1.0) for k in range(len(self.scarce))]
            program.add_row(0.0, float(most_missing), given_up)
        for purchase in self.refused:
            self._exclude(program, purchase)
        return program

    def _exclude(self, program: Program, purchase: Purchase) -> None:
        """A purchase that cannot hold the parts, nor can any with no more of everything."""
        held = [*purchase.counts, *(purchase.missing[item] for item in self.scarce)]
        limits = [
            *(s.limit for s in self.line.sources),
            *(self.line.demand[i] for i in self.scarce),
        ]
        more = []
        for column, (count, limit) in enumerate(zip(held, limits, strict=True)):
            if count < limit:
                switch = program.add_column(0.0, [], 1.0, integer=True)
                program.add_row(0.0, INFINITY, [(column, 1.0), (switch, -float(count + 1))])
                more.append((switch, 1.0))
        program.add_row(1.0, INFINITY, more)

    def cheapest(self) -> Purchase | None:
        """The next candidate, least in parts given up, cost and pieces; ``None`` when undecided."""
        line = self.line
        most_missing = 0
        if self.scarce:
            found = self._program([0] * len(line.sources), None).solve(
                self.deadline, _PURCHASE_NODES
            )
            if found.outcome is not Outcome.SOLVED:
                return None
            most_missing = round(found.objective)
        weight = line.total_demand + 1
        costs = [source.cost * weight + 1 for source in line.sources]
        found = self._program(costs, most_missing).solve(self.deadline, _PURCHASE_NODES)
        if found.outcome is not Outcome.SOLVED:
            return None
        sources = len(line.sources)
        missing = [0] * len(line.sizes)
        for k, item in enumerate(self.scarce):
            missing[item] = round(found.columns[sources + k])
        purchase = Purchase(tuple(round(n) for n in found.columns[:sources]), tuple(missing))
        met = all(i.is_met(purchase.counts, purchase.missing) for i in self.inequalities)
        return purchase if met else None


def _price_inequality(holder: Holder, start: Packing) -> Inequality | None:
    """The inequality that the prices themselves give: column generation on the cost of covering
    the demand, as a linear program over all sources."""
    line = holder.line
    items = len(line.sizes)
    rows = [(float(d), INFINITY) for d in line.demand]
    rows += [(-INFINITY, float(s.limit)) for s in line.sources]
    program = Program(rows)
    top = max((s.cost for s in line.sources), default=0) or 1
    for item in range(items):
        program.add_column(3.0, [(item, 1.0)])

    def add(source: int, pattern: tuple[int, ...]) -> None:
        entries = [(item, float(n)) for item, n in enumerate(pattern) if n]
        program.add_column(line.sources[source].cost / top, [*entries, (items + source, 1.0)])
        holder.remember(line.sources[source].capacity, pattern)

    for board in dict.fromkeys(start.boards):
        add(board.source, board.pattern)
    scale = 10**7
    while True:
        found = program.solve(holder.deadline)
        if found.outcome is not Outcome.SOLVED:
            return None
        duals = found.duals[:items]
        values = [max(0, int(dual * scale)) for dual in duals]
        improved = False
        for source, (worth, pattern) in enumerate(holder.knapsack.best(values, line.demand)):
            limit_price = -found.duals[items + source]
            if worth / scale > line.sources[source].cost / top + limit_price + 1e-6:
                add(source, pattern)
                improved = True
        if not improved:
            peak = max(duals, default=0.0)
            if peak <= 0:
                return None
            return holder.inequality([round(max(0.0, dual) / peak * 10_080) for dual in duals])


class _Search:
    def __init__(self, line: Line, deadline: float, report: Report) -> None:
        self.line = line
        self.report = report
        self.deadline = deadline
        self.holder = Holder(line, deadline)
        self.purchases = _Purchases(line, deadline)
        self.best = best_first_fit(line)
        self.bound = 0

    def offer(self, packing: Packing) -> None:
        if packing.key(self.line) < self.best.key(self.line):
            self.best = packing
            self.report(self.best, self.bound)

    def run(self) -> SearchResult:
        line = self.line
        self.purchases.inequalities.append(self.holder.inequality(line.sizes))
        if not self.purchases.scarce:
            priced = _price_inequality(self.holder, self.best)
            if priced:
                self.purchases.inequalities.append(priced)
        self.report(self.best, 0)
        decided = True
        for _ in range(_MOST_PURCHASES):
            if monotonic() > self.deadline:
                break
            purchase = self.purchases.cheapest()
            if purchase is None:
                break
            key = purchase.key(line)
            if decided and key[0] >= sum(self.best.missing):
                self.bound = key[1]
            if key >= self.best.key(line):
                return SearchResult(self.best, decided, self.bound)
            outcome = self._try(purchase)
            if outcome is Outcome.SOLVED:
                if decided:
                    self.bound = key[1]
                return SearchResult(self.best, decided, self.bound)
            if outcome is Outcome.UNDECIDED:
                decided = False
        return SearchResult(self.best, False, self.bound)

    def _try(self, purchase: Purchase) -> Outcome:
        """Whether a purchase holds the parts; when not, what was learnt is kept."""
        demand = [d - m for d, m in zip(self.line.demand, purchase.missing, strict=True)]
        bins = [
            Bin(source.capacity, count, s)
            for s, (source, count) in enumerate(
                zip(self.line.sources, purchase.counts, strict=True)
            )
            if count
        ]
        relaxation = Relaxation(self.holder, bins, demand)
        solved = relaxation.solve()
        if solved is None:
            return Outcome.UNDECIDED
        uncovered, values, duals = solved
        if uncovered > 0:
            broken = self.holder.broken_inequality(duals, purchase.counts, purchase.missing)
            if broken:
                self.purchases.inequalities.append(broken)
                return Outcome.IMPOSSIBLE
        else:
            ended = dive(relaxation, values)
            if ended.is_complete:
                self.offer(Packing(ended.boards, purchase.missing))
                return Outcome.SOLVED
            self._complete(ended.boards, ended.residual, purchase.missing)
        outcome, boards = pack_whole(self.holder, bins, demand)
        if outcome is Outcome.SOLVED:
            self.offer(Packing(boards, purchase.missing))
            return outcome
        self.purchases.refused.append(purchase)
        return outcome

    def _complete(
        self, boards: tuple[Board, ...], residual: tuple[int, ...], missing: tuple[int, ...]
    ) -> None:
        """Offers a dive that stopped short, with the rest packed first-fit."""
        used = [0] * len(self.line.sources)
        for board in boards:
            used[board.source] += 1
        sources = tuple(
            Source(s.stock, s.capacity, s.cost, s.limit - n)
            for s, n in zip(self.line.sources, used, strict=True)
        )
        line = Line(self.line.sizes, residual, self.line.lengths, sources, self.line.cost_scale)
        rest = best_first_fit(line)
        given_up = tuple(a + b for a, b in zip(rest.missing, missing, strict=True))
        self.offer(Packing((*boards, *rest.boards), given_up))

    def lengthen_leftover(self, packing: Packing) -> Packing:
        """The same purchase with the longest single leftover that a few tries find."""
        line, best = self.line, packing
        demand = [d - m for d, m in zip(line.demand, packing.missing, strict=True)]
        counts = [0] * len(line.sources)
        for board in packing.boards:
            counts[board.source] += 1
        tries = 0

        def rest_of(board: Board) -> int:
            held = sum(n * w for n, w in zip(board.pattern, line.sizes, strict=True))
            return line.sources[board.source].capacity - held

        longest = max(map(rest_of, packing.boards), default=0)
        total_rest = sum(map(rest_of, packing.boards))
        by_capacity = sorted(range(len(counts)), key=lambda s: -line.sources[s].capacity)
        for source in (s for s in by_capacity if counts[s]):
            capacity = line.sources[source].capacity
            low, high = longest, min(capacity - line.sizes[-1], total_rest)
            while high > low and tries < _MOST_LEFTOVER_TRIES and monotonic() < self.deadline:
                tries += 1
                wanted = high if tries == 1 else (low + high + 1) // 2
                boards = self._with_rest(counts, source, wanted, demand)
                if boards is None:
                    high = wanted - 1
                    continue
                best = Packing(boards, packing.missing)
                low = longest = max(map(rest_of, boards))
        return best

    def _with_rest(
        self, counts: Sequence[int], source: int, rest: int, demand: Sequence[int]
    ) -> tuple[Board, ...] | None:
        """The demand on the same pieces, one of them ``rest`` shorter, or ``None``."""
        bins = [
            Bin(s.capacity, n - (index == source), index)
            for index, (s, n) in enumerate(zip(self.line.sources, counts, strict=True))
        ]
        bins.append(Bin(self.line.sources[source].capacity - rest, 1, source))
        relaxation = Relaxation(self.holder, bins, demand)
        solved = relaxation.solve()
        if solved is None or solved[0] > 0:
            return None
        ended = dive(relaxation, solved[1])
        whole = ended.is_complete and len(ended.boards) == sum(counts)
        return ended.boards if whole else None


def search(line: Line, deadline: float, report: Report) -> SearchResult:
    """The least (parts given up, cost, pieces) for a line, and of those a long single leftover.

    ``deadline`` is on the monotonic clock; ``report`` is told every better packing with the bound
    proven so far.
    """
    if not line.sources or not line.sizes:
        return SearchResult(Packing((), line.demand), True, 0)
    running = _Search(line, deadline, report)
    result = running.run()
    if not result.proven:
        return result
    report(result.packing, result.bound)
    return SearchResult(running.lengthen_leftover(result.packing), True, result.bound)
