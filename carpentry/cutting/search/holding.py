"""Can a given purchase hold the parts? Column generation at fixed counts, then whole boards.

Column generation follows Gilmore and Gomory (1961, 1963). When the purchase cannot hold the parts,
the dual prices give an inequality on purchases that any complete plan must satisfy.
"""

import random
from collections.abc import Sequence
from dataclasses import dataclass
from math import gcd

from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.model import FilledBoard, Model, Packing, Pattern, worth_of
from carpentry.cutting.search.programs import INFINITY, Outcome, Program, charge_spares

EPSILON = 1e-7
_CUT_SCALES = (1, 12, 60, 840, 10_080, 100_000)
_CAREFUL_SCALES = (60, 10_080, 400_000)
_MOST_PATTERNS = 6_000
_FEW_NODES = 200
_WIDENINGS = 24
_MANY_NODES = 20_000
_PACKING_SHARE = 0.3  # of the time that is left
_MOST_OTHERS, _MOST_REMEMBERED = 16, 4  # in one round of pricing, and of a kind for each item


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

    def keep_best(self, values: Sequence[int]) -> None:
        """Forgets all patterns of a kind but those that are worth most: more of them make programs
        slower, not better."""
        most = _MOST_REMEMBERED * len(values)
        for kind, patterns in self._patterns.items():
            best = sorted(patterns, key=lambda one: -worth_of(values, one))[:most]
            self._patterns[kind] = dict.fromkeys(best)

    def best_others(
        self, kind: int, values: Sequence[int], demand: Sequence[int], least: float
    ) -> list[Pattern]:
        """Other good patterns of a kind, that are worth more than ``least``."""
        others = dict.fromkeys(self.model.others_for(kind, values, demand))
        worths = sorted((-worth_of(values, one), one) for one in others)
        return [one for negative, one in worths[:_MOST_OTHERS] if -negative > least]

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
        self, duals: Sequence[float], counts: Sequence[int], missing: Sequence[int], care: int
    ) -> Inequality | None:
        """An inequality from dual prices that the purchase breaks, with numbers as small as they
        can be, or ``None``."""
        top = max(duals, default=0.0)
        if top <= EPSILON:
            return None
        for scale in _CAREFUL_SCALES if care else _CUT_SCALES:
            if self.clock.is_over:
                return None
            value = [round(max(dual, 0.0) / top * scale) for dual in duals]
            found = self.inequality(value, care)
            if not found.is_met(counts, missing):
                return found
        return None


def whole_boards(
    holder: Holder,
    bins: Sequence[Bin],
    demand: Sequence[int],
    patterns: Sequence[Sequence[Pattern]],
    nodes: int,
) -> tuple[Outcome, tuple[FilledBoard, ...]]:
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
    boards: list[FilledBoard] = []
    left = list(demand)
    used = [0] * len(bins)
    for (index, pattern), value in zip(columns, found.columns, strict=True):
        for _ in range(round(value)):
            taken = tuple(min(n, r) for n, r in zip(pattern, left, strict=True))
            left = [r - n for r, n in zip(left, taken, strict=True)]
            used[index] += 1
            if any(taken):
                boards.append(FilledBoard(bins[index].source, taken))
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
    columns: list[tuple[int, int, Pattern]] = []
    for index, source in enumerate(model.sources):
        used: list[int] = []
        for pattern in holder.remembered(source.kind):
            entries = [(item, float(n)) for item, n in enumerate(pattern) if n]
            cost = source.cost / divisor
            upper = float(source.limit)
            entries.append((items + index, 1.0))
            used.append(program.add_column(cost, entries, upper, integer=True))
            columns.append((used[-1], index, pattern))
        charge_spares(program, source, used, source.cost / divisor)
    dearest = max((s.cost for s in model.sources), default=0) / divisor
    for item in scarce:
        upper = float(model.demand[item])
        program.add_column(10 * dearest + 10, [(item, 1.0)], upper, integer=True)
    found = program.solve(clock, nodes, least / divisor + 1e-6)
    if not len(found.columns):
        return None
    left = list(model.demand)
    used = [0] * len(model.sources)
    boards: list[FilledBoard] = []
    for column, index, pattern in columns:
        for _ in range(round(found.columns[column])):
            taken = tuple(min(n, r) for n, r in zip(pattern, left, strict=True))
            if any(taken) and used[index] < model.sources[index].limit:
                left = [r - n for r, n in zip(left, taken, strict=True)]
                used[index] += 1
                boards.append(FilledBoard(index, taken))
    return Packing(tuple(boards), tuple(left))


def pack(
    holder: Holder, bins: Sequence[Bin], demand: Sequence[int], effort: int
) -> tuple[Outcome, tuple[FilledBoard, ...]]:
    """Whole boards for a demand as the model itself packs them."""
    each = [b for b in bins for _ in range(b.count)]
    clock = holder.clock.part(_PACKING_SHARE)
    outcome, held = holder.model.pack([b.kind for b in each], demand, clock, effort)
    boards = zip(each, held, strict=False)
    return outcome, tuple(FilledBoard(b.source, load) for b, load in boards if any(load))


def pack_whole(
    holder: Holder, bins: Sequence[Bin], demand: Sequence[int]
) -> tuple[Outcome, tuple[FilledBoard, ...]]:
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
