"""Can a given purchase hold the parts? Column generation at fixed counts, then whole boards.

Column generation follows Gilmore and Gomory (1961, 1963). When the purchase cannot hold the parts,
the dual prices give an inequality on purchases that any complete plan must satisfy.
"""

import random
from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import gcd

from carpentry.cutting.clock import Clock
from carpentry.cutting.linear import INFINITY, Outcome, Program
from carpentry.cutting.model import Board, Model, Packing, Pattern

_VALUE_SCALE = 10**7
_EPSILON = 1e-7
_CUT_SCALES = (1, 12, 60, 840, 10_080, 100_000)
_CAREFUL_SCALES = (60, 10_080)
_MOST_PATTERNS = 6_000
_FEW_NODES = 200
_WIDENINGS = 24
_MANY_NODES = 20_000
_PACKING_SHARE = 0.3  # of the time that is left
_LAST_BOARDS = (4, 6, 8, 12)


@dataclass(frozen=True)
class Inequality:
    """Any plan satisfies Σ pieces[s] × worth[s] + Σ missing[i] × value[i] ≥ needed."""

    worth: tuple[int, ...]
    value: tuple[int, ...]
    needed: int

    def is_met(self, counts: Sequence[int], missing: Sequence[int]) -> bool:
        held = sum(w * n for w, n in zip(self.worth, counts, strict=True))
        left = sum(v * m for v, m in zip(self.value, missing, strict=True))
        return held + left >= self.needed


@dataclass(frozen=True)
class Bin:
    """Some equal pieces: their kind, how many, and the source they are of."""

    kind: int
    count: int
    source: int


class Holder:
    """Answers what purchases can hold. Keeps every pattern it has found."""

    def __init__(self, model: Model, clock: Clock) -> None:
        self.model = model
        self.clock = clock
        self.kinds = [source.kind for source in model.sources]
        self._patterns: dict[int, dict[Pattern, None]] = {}

    def inequality(self, value: Sequence[int], care: int = 0) -> Inequality:
        """The inequality that whole-number item values give."""
        found = self.model.best_for(self.kinds, value, self.model.demand, care)
        return Inequality(
            tuple(worth for worth, _ in found),
            tuple(value),
            sum(v * d for v, d in zip(value, self.model.demand, strict=True)),
        )

    def remember(self, kind: int, pattern: Pattern) -> None:
        """Keeps a pattern for later programs."""
        self._patterns.setdefault(kind, {})[pattern] = None

    def widen(self, bins: Sequence["Bin"], demand: Sequence[int]) -> None:
        """Finds patterns beside those that prices asked for: the best by values drawn at random,
        always the same, over a part of the demand."""
        chance = random.Random(len(self._patterns))
        kinds = [b.kind for b in bins]
        for _ in range(_WIDENINGS):
            if self.clock.is_over:
                return
            values = [round(size * chance.uniform(0.7, 1.3)) for size in self.model.sizes]
            some = [d if chance.random() < 0.7 else 0 for d in demand]
            for kind, (_, pattern) in zip(
                kinds, self.model.best_for(kinds, values, some), strict=True
            ):
                self.remember(kind, pattern)

    def remembered(self, kind: int) -> tuple[Pattern, ...]:
        return tuple(self._patterns.get(kind, ()))

    def broken_inequality(
        self, duals: Sequence[float], counts: Sequence[int], missing: Sequence[int]
    ) -> Inequality | None:
        """An inequality from dual prices that the purchase breaks, with numbers as small as they
        can be, or ``None``."""
        top = max(duals, default=0.0)
        if top <= _EPSILON:
            return None
        for care in range(self.model.most_care + 1):
            for scale in _CAREFUL_SCALES if care else _CUT_SCALES:
                if self.clock.is_over:
                    return None
                value = [round(max(dual, 0.0) / top * scale) for dual in duals]
                found = self.inequality(value, care)
                if not found.is_met(counts, missing):
                    return found
        return None


class Relaxation:
    """The linear program "cover the demand from these bins", solved by column generation.

    Minimises what is left uncovered, by size; zero means that the bins hold everything if boards
    could be mixed in fractions.
    """

    def __init__(self, holder: Holder, bins: Sequence[Bin], demand: Sequence[int]) -> None:
        self.holder = holder
        self.bins = [b for b in bins if b.count]
        self.residual = list(demand)
        self.counts = [b.count for b in self.bins]
        self.columns: list[tuple[int, Pattern] | None] = []
        items = len(holder.model.sizes)
        rows = [(float(d), INFINITY) for d in demand] + [(-INFINITY, float(n)) for n in self.counts]
        self.program = Program(rows)
        longest = max(holder.model.sizes)
        for item, size in enumerate(holder.model.sizes):
            self.program.add_column(size / longest, [(item, 1.0)])
            self.columns.append(None)
        self._items = items
        for index, b in enumerate(self.bins):
            for pattern in holder.remembered(b.kind):
                self._add(index, pattern)

    def _add(self, index: int, pattern: Pattern) -> None:
        entries = [(item, float(n)) for item, n in enumerate(pattern) if n]
        self.program.add_column(0.0, [*entries, (self._items + index, 1.0)])
        self.columns.append((index, pattern))

    def solve(self) -> tuple[float, Sequence[float], Sequence[float]] | None:
        """What is uncovered (in largest parts), column values and item duals; ``None`` when time is
        up. Stops as soon as the duals prove that the bins cannot hold everything."""
        model = self.holder.model
        tops = [b.kind for b in self.bins]
        while True:
            found = self.program.solve(self.holder.clock)
            if found.outcome is not Outcome.SOLVED or self.holder.clock.is_over:
                return None
            duals = found.duals[: self._items]
            if found.objective <= _EPSILON:
                return 0.0, found.columns, duals
            values = [max(0, int(dual * _VALUE_SCALE)) for dual in duals]
            wanted = sum(v * d for v, d in zip(values, self.residual, strict=True))
            for care in range(model.most_care + 1):
                best = model.best_for(tops, values, self.residual, care)
                held = sum(worth * n for (worth, _), n in zip(best, self.counts, strict=True))
                if held < wanted:
                    return found.objective, found.columns, duals
                if self._improve([pattern for _, pattern in best], values, found.duals):
                    break
            else:
                return found.objective, found.columns, duals

    def _improve(
        self, patterns: Sequence[Pattern], values: Sequence[int], duals: Sequence[float]
    ) -> bool:
        """Adds those patterns, one per bin, that are worth more than their bin's price."""
        improved = False
        for index, pattern in enumerate(patterns):
            price = -duals[self._items + index]
            worth = sum(v * n for v, n in zip(values, pattern, strict=True))
            if worth / _VALUE_SCALE > price + 1e-6:
                self.holder.remember(self.bins[index].kind, pattern)
                self._add(index, pattern)
                improved = True
        return improved

    def fix(self, column: int, times: int) -> list[Board]:
        """Takes ``times`` boards of a column for good and shrinks what remains to be covered."""
        taken = self.columns[column]
        assert taken is not None
        index, pattern = taken
        for item, n in enumerate(pattern):
            if n:
                self.residual[item] -= n * times
                self.program.bound_row(item, float(max(0, self.residual[item])), INFINITY)
        self.counts[index] -= times
        self.program.bound_row(self._items + index, -INFINITY, float(self.counts[index]))
        for number, other in enumerate(self.columns):
            if other and any(n > r for n, r in zip(other[1], self.residual, strict=True)):
                self.program.bound_column(number, 0.0)
        return [Board(self.bins[index].source, pattern)] * times

    def most_times(self, column: int, value: float) -> int:
        """How often a column may be fixed: its whole part, at least once, and no more than fits."""
        taken = self.columns[column]
        assert taken is not None
        index, pattern = taken
        fits = min(r // n for n, r in zip(pattern, self.residual, strict=True) if n)
        return min(max(1, int(value + 1e-6)), fits, self.counts[index])


@dataclass(frozen=True)
class Dive:
    """What a dive ended with: boards, and the demand they leave."""

    boards: tuple[Board, ...]
    residual: tuple[int, ...]

    @property
    def is_complete(self) -> bool:
        return not any(self.residual)


def dive(
    relaxation: Relaxation,
    values: Sequence[float],
    chance: random.Random | None = None,
    leave: int = 0,
) -> Dive:
    """Rounds a relaxation to whole boards, the surest column first, pricing again after each; with
    ``chance`` one that is drawn by how sure it is, and no more boards than ``leave`` some over."""
    boards: list[Board] = []
    while any(relaxation.residual) and sum(relaxation.counts) > leave:
        candidates = [
            (values[number], -number)
            for number, column in enumerate(relaxation.columns)
            if column and number < len(values) and values[number] > 1e-6 and any(column[1])
        ]
        if not candidates:
            break
        whole = [c for c in candidates if c[0] >= 1 - 1e-6]
        if chance and whole:
            whole = chance.sample(whole, max(1, len(whole) * 3 // 4))
        elif chance:
            whole = chance.choices(candidates, [value for value, _ in candidates])
        fixed_any = False
        for value, negative in whole or [max(candidates)]:
            column = relaxation.columns[-negative]
            assert column is not None
            fits = all(n <= r for n, r in zip(column[1], relaxation.residual, strict=True))
            if fits and relaxation.counts[column[0]] > 0:
                boards += relaxation.fix(-negative, relaxation.most_times(-negative, value))
                fixed_any = True
        if not fixed_any:
            number = -max(candidates)[1]
            relaxation.program.bound_column(number, 0.0)
        solved = relaxation.solve()
        if solved is None or solved[0] > _EPSILON:
            break
        values = solved[1]
    return Dive(tuple(boards), tuple(relaxation.residual))


def insist(
    holder: Holder, bins: Sequence[Bin], demand: Sequence[int], chance: random.Random
) -> tuple[Board, ...] | None:
    """Another way to hold a demand in bins that could not be decided: a dive by chance, and the
    last boards by every pattern of what is left then. ``None`` where that fails."""
    relaxation = Relaxation(holder, bins, demand)
    solved = relaxation.solve()
    if solved is None or solved[0] > _EPSILON:
        return None
    leave = chance.choice(_LAST_BOARDS)
    ended = dive(relaxation, solved[1], chance, leave)
    if ended.is_complete:
        return ended.boards
    rest = [
        replace(b, count=n) for b, n in zip(relaxation.bins, relaxation.counts, strict=True) if n
    ]
    if sum(b.count for b in rest) > leave:
        return None
    outcome, boards = pack_whole(holder, rest, ended.residual)
    return (*ended.boards, *boards) if outcome is Outcome.SOLVED else None


def whole_boards(
    holder: Holder,
    bins: Sequence[Bin],
    demand: Sequence[int],
    patterns: Sequence[Sequence[Pattern]],
    nodes: int,
) -> tuple[Outcome, tuple[Board, ...]]:
    """An integer program: cover the demand with whole boards of the given ``patterns`` per bin."""
    rows = [(float(d), INFINITY) for d in demand] + [(-INFINITY, float(b.count)) for b in bins]
    program = Program(rows)
    columns: list[tuple[int, Pattern]] = []
    for index, (b, choices) in enumerate(zip(bins, patterns, strict=True)):
        for pattern in choices:
            entries = [(item, float(n)) for item, n in enumerate(pattern) if n]
            program.add_column(0.0, [*entries, (len(demand) + index, 1.0)], b.count, integer=True)
            columns.append((index, pattern))
    found = program.solve(holder.clock, nodes)
    if found.outcome is not Outcome.SOLVED:
        return found.outcome, ()
    boards: list[Board] = []
    left = list(demand)
    used = [0] * len(bins)
    for (index, pattern), value in zip(columns, found.columns, strict=True):
        for _ in range(round(value)):
            taken = tuple(min(n, r) for n, r in zip(pattern, left, strict=True))
            left = [r - n for r, n in zip(left, taken, strict=True)]
            used[index] += 1
            if any(taken):
                boards.append(Board(bins[index].source, taken))
    if any(left) or any(n > b.count for n, b in zip(used, bins, strict=True)):
        return Outcome.UNDECIDED, ()
    return Outcome.SOLVED, tuple(boards)


def cheapest_of_found(
    holder: Holder, scarce: Sequence[int], least: int, clock: Clock, nodes: int
) -> Packing | None:
    """An integer program over all sources and the patterns found so far: the least cost for the
    demand, whatever the purchase. The best that was found by then, or after so many nodes; one of
    cost ``least`` is good enough. ``None`` for nothing. ``scarce`` items may be given up, for a
    price above all others."""
    model = holder.model
    items, divisor = len(model.sizes), gcd(*(s.cost for s in model.sources)) or 1
    rows = [(float(d), INFINITY) for d in model.demand]
    rows += [(-INFINITY, float(s.limit)) for s in model.sources]
    program = Program(rows)
    columns: list[tuple[int, Pattern]] = []
    for index, source in enumerate(model.sources):
        for pattern in holder.remembered(source.kind):
            entries = [(item, float(n)) for item, n in enumerate(pattern) if n]
            cost = source.cost / divisor
            upper = float(source.limit)
            program.add_column(cost, [*entries, (items + index, 1.0)], upper, integer=True)
            columns.append((index, pattern))
    dearest = max((s.cost for s in model.sources), default=0) / divisor
    for item in scarce:
        upper = float(model.demand[item])
        program.add_column(10 * dearest + 10, [(item, 1.0)], upper, integer=True)
    found = program.solve(clock, nodes, least / divisor + 1e-6)
    if not len(found.columns):
        return None
    left = list(model.demand)
    used = [0] * len(model.sources)
    boards: list[Board] = []
    for (index, pattern), value in zip(columns, found.columns, strict=False):
        for _ in range(round(value)):
            taken = tuple(min(n, r) for n, r in zip(pattern, left, strict=True))
            if any(taken) and used[index] < model.sources[index].limit:
                left = [r - n for r, n in zip(left, taken, strict=True)]
                used[index] += 1
                boards.append(Board(index, taken))
    return Packing(tuple(boards), tuple(left))


def pack(
    holder: Holder, bins: Sequence[Bin], demand: Sequence[int], effort: int
) -> tuple[Outcome, tuple[Board, ...]]:
    """Whole boards for a demand as the model itself packs them."""
    each = [b for b in bins for _ in range(b.count)]
    clock = holder.clock.part(_PACKING_SHARE)
    outcome, held = holder.model.pack([b.kind for b in each], demand, clock, effort)
    boards = zip(each, held, strict=False)
    return outcome, tuple(Board(b.source, load) for b, load in boards if any(load))


def pack_whole(
    holder: Holder, bins: Sequence[Bin], demand: Sequence[int]
) -> tuple[Outcome, tuple[Board, ...]]:
    """Whole boards for bins that hold the demand in fractions: over the patterns found so far, then
    over every maximal pattern, which decides the question when they are few enough."""
    for widened in (False, True):
        if widened:
            holder.widen(bins, demand)
        found_patterns = [holder.remembered(b.kind) for b in bins]
        outcome, boards = whole_boards(holder, bins, demand, found_patterns, _FEW_NODES)
        if outcome is Outcome.SOLVED:
            return outcome, boards
    every: list[list[Pattern]] = []
    for b in bins:
        patterns = holder.model.every_pattern(b.kind, demand, _MOST_PATTERNS)
        if patterns is None:
            return Outcome.UNDECIDED, ()
        every.append(patterns)
    return whole_boards(holder, bins, demand, every, _MANY_NODES)
