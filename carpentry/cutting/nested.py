"""Boards, segments and strips in one integer program: decides small problems with ripping.

Whole numbers of boards of each source, of segments (a length with a rip pattern) and of strip
fillings (parts side by side along one strip). A strip holds a filling when it is long enough:
counted over every length, so that no strip has to be named. Segments are counted against all
boards of a source together, with cuts that keep most of them apart; what they cost is therefore a
lower bound, and a plan once they are packed into boards.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from time import monotonic

from carpentry.cutting.cross_section import RipPattern
from carpentry.cutting.holding import Inequality
from carpentry.cutting.linear import INFINITY, Outcome, Program
from carpentry.cutting.model import Board, Packing
from carpentry.cutting.problem import Order
from carpentry.cutting.ripped import Ripped, Segment

Counts = tuple[tuple[int, int], ...]
_MOST_FILLINGS = 800
_MOST_SEGMENTS = 3_000
_SEGMENTS_A_SECOND = 350  # with more the solver is not done and overruns its limit
_BIG_PIECES = 4  # of pieces longer than 1/(k + 1) of a board, it holds k at the most
_NODES = 200_000
_MOST_ROUNDS = 40
_MOST_TO_FIT = 10
_OWN_SHARE = 0.7  # of the time left: the solver overruns its limit


@dataclass(frozen=True)
class Filling:
    """Items along one strip, how many of each, and the length they take (kerf in)."""

    strip: int
    size: int
    counts: Counts


@dataclass(frozen=True)
class Found:
    """What the program came to: a packing where there is one, and a cost that none is below."""

    packing: Packing | None
    bound: int


def prepared(model: Ripped) -> "Nested | None":
    """The program of a problem that is small enough for one, and whose rip patterns are all known:
    a board with others might be the cheaper one."""
    if model.order is Order.CROSSCUT_FIRST:
        return None
    if any(kind.section.patterns is None for kind in model.kinds):
        return None
    fillings = _fillings(model)
    program = Nested(model, fillings) if fillings is not None else None
    return program if program and len(program.segments) <= _MOST_SEGMENTS else None


def _fillings(model: Ripped) -> list[Filling] | None:
    """Every filling of a strip that fits some board."""
    top = max((kind.capacity for kind in model.kinds), default=0)
    found: list[Filling] = []

    def extend(strip: int, items: list[int], size: int, counts: Counts) -> None:
        if len(found) > _MOST_FILLINGS:
            return
        if not items:
            if counts:
                found.append(Filling(strip, size, counts))
            return
        item, *rest = items
        each = model.items[item].size
        for n in range(min(model.demand[item], (top - size) // each) + 1):
            extend(strip, rest, size + n * each, (*counts, (item, n)) if n else counts)

    for strip, items in enumerate(model.of_strip):
        extend(strip, items, 0, ())
    return found if len(found) <= _MOST_FILLINGS else None


class Nested:
    """The program of a small problem."""

    def __init__(self, model: Ripped, fillings: list[Filling]) -> None:
        self.model = model
        self.fillings = fillings
        self.sizes = [
            sorted({f.size for f in fillings if f.strip == strip})
            for strip in range(len(model.strips))
        ]
        self.segments = list(self._segments())

    def fits(self, seconds: float) -> bool:
        """Whether something may come of it in that time."""
        return len(self.segments) <= seconds * _SEGMENTS_A_SECOND

    def _segments(self) -> Iterator[tuple[int, int, RipPattern]]:
        """Source, size and rip pattern of every segment that may be of use."""
        for number, source in enumerate(self.model.sources):
            kind = self.model.kinds[source.kind]
            for pattern in kind.section.patterns or ():
                sizes = {
                    size
                    for strip, n in zip(kind.strips, pattern.counts, strict=True)
                    for size in self.sizes[strip]
                    if n and size <= kind.capacity
                }
                if self.model.order is Order.RIP_FIRST:
                    sizes = {kind.capacity}
                for size in sorted(sizes):
                    yield number, size, pattern

    def _program(self, cost_below: int) -> Program:
        model = self.model
        rows = [(float(d), INFINITY) for d in model.demand]
        self.length_row = len(rows)
        per_source = 1 + _BIG_PIECES
        rows += [(0.0, INFINITY)] * (per_source * len(model.sources))
        self.strip_row: dict[tuple[int, int], int] = {}
        for strip, sizes in enumerate(self.sizes):
            for size in sizes:
                self.strip_row[strip, size] = len(rows)
                rows.append((0.0, INFINITY))
        cost_row = len(rows)
        rows.append((-INFINITY, float(cost_below)))
        program = Program(rows)
        pieces = sum(model.demand) + 1
        for number, source in enumerate(model.sources):
            capacity = float(model.kinds[source.kind].capacity)
            at = self.length_row + per_source * number
            entries = [(at, capacity), (cost_row, float(source.cost * pieces + 1))]
            entries += [(at + k, float(k)) for k in range(1, per_source)]
            cost = float(source.cost * pieces + 1)
            program.add_column(cost, entries, float(source.limit), integer=True)
        for number, size, pattern in self.segments:
            program.add_column(0.0, self._entries(number, size, pattern), integer=True)
        for filling in self.fillings:
            entries = [(item, float(n)) for item, n in filling.counts]
            entries += [
                (self.strip_row[filling.strip, size], -1.0)
                for size in self.sizes[filling.strip]
                if size <= filling.size
            ]
            program.add_column(0.0, entries, integer=True)
        return program

    def _entries(self, number: int, size: int, pattern: RipPattern) -> list[tuple[int, float]]:
        kind = self.model.kinds[self.model.sources[number].kind]
        at = self.length_row + (1 + _BIG_PIECES) * number
        entries = [(at, -float(size))]
        entries += [
            (at + k, -1.0) for k in range(1, _BIG_PIECES + 1) if size * (k + 1) > kind.capacity
        ]
        for strip, n in zip(kind.strips, pattern.counts, strict=True):
            if n:
                entries += [
                    (self.strip_row[strip, reached], float(n))
                    for reached in self.sizes[strip]
                    if reached <= size
                ]
        return entries

    def better_than(
        self, best: Packing, known: Sequence[Inequality], deadline: float
    ) -> Found | None:
        """A packing that is better than ``best`` (all parts placed), or the proof that there is
        none: then the bound is its cost. ``known`` inequalities on purchases help. ``None`` when
        too little comes of it in time."""
        model = self.model
        pieces = sum(model.demand) + 1
        cost = best.key(model)[1]
        weighed = cost * pieces + len(best.boards)
        program = self._program(weighed - 1)
        for inequality in known:
            entries = [(s, float(worth)) for s, worth in enumerate(inequality.worth) if worth]
            program.add_row(float(inequality.needed), INFINITY, entries)
        bound = -1.0
        packed: Packing | None = None
        for _ in range(_MOST_ROUNDS):
            now = monotonic()
            found = program.solve(now + (deadline - now) * _OWN_SHARE, _NODES)
            if found.outcome is Outcome.IMPOSSIBLE:
                return Found(best, cost)
            bound = max(bound, found.bound)
            values = [round(value) for value in found.columns]
            packed = self._pack(values) if values else None
            if packed or not values or monotonic() > deadline:
                break
            if not self._keep_apart(program, values):
                break
        return Found(packed, int(bound + 0.5) // pieces) if bound >= 0 else None

    def _keep_apart(self, program: Program, values: Sequence[int]) -> bool:
        """Forbids segments that no number of boards chosen for them can hold, by a dual feasible
        function (Fekete and Schepers 2001): pieces shorter than a length count nothing, pieces that
        leave less than it count a whole board. Whether one was found that they break."""
        sources = len(self.model.sources)
        chosen = values[sources : sources + len(self.segments)]
        broken = False
        for number, source in enumerate(self.model.sources):
            capacity = self.model.kinds[source.kind].capacity
            mine = [i for i, (s, _, _) in enumerate(self.segments) if s == number]
            lengths = {self.segments[i][1] for i in mine if chosen[i]}
            for least in sorted(n for n in lengths | {capacity - n for n in lengths} if n):
                if 2 * least > capacity:
                    continue
                weights = {i: _weight(self.segments[i][1], least, capacity) for i in mine}
                held = sum(chosen[i] * weight for i, weight in weights.items())
                if held > capacity * values[number]:
                    entries = [(sources + i, float(w)) for i, w in weights.items() if w]
                    entries.append((number, -float(capacity)))
                    program.add_row(-INFINITY, 0.0, entries)
                    broken = True
        return broken or self._exclude(program, values)

    def _exclude(self, program: Program, values: Sequence[int]) -> bool:
        """Forbids segments that do not fit their boards, and all that are no easier to fit: no
        fewer of any size or longer. Whether there were any."""
        sources = len(self.model.sources)
        chosen = values[sources : sources + len(self.segments)]
        found = False
        for number, source in enumerate(self.model.sources):
            capacity = self.model.kinds[source.kind].capacity
            mine = [i for i, (s, _, _) in enumerate(self.segments) if s == number]
            sizes = sorted(
                (self.segments[i][1] for i in mine for _ in range(chosen[i])), reverse=True
            )
            if len(sizes) > _MOST_TO_FIT or _can_fit(sizes, [capacity] * values[number]):
                continue
            found = True
            many = float(sum(self.model.demand))
            switches = []
            for size in sorted(set(sizes)):
                count = sum(one >= size for one in sizes)
                switch = program.add_column(0.0, [], 1.0, integer=True)
                entries = [(sources + i, 1.0) for i in mine if self.segments[i][1] >= size]
                program.add_row(-INFINITY, count - 1 + many, [*entries, (switch, many)])
                switches.append((switch, 1.0))
            switch = program.add_column(0.0, [], 1.0, integer=True)
            program.add_row(0.0, INFINITY, [(number, 1.0), (switch, -float(values[number] + 1))])
            program.add_row(1.0, INFINITY, [*switches, (switch, 1.0)])
        return found

    def _pack(self, values: list[int]) -> Packing | None:
        """The program's answer as boards, ``None`` where its segments do not fit them."""
        model = self.model
        sources, number_of_segments = len(model.sources), len(self.segments)
        chosen = values[sources : sources + number_of_segments]
        filled = values[sources + number_of_segments :][: len(self.fillings)]
        segments = [
            one for one, n in zip(self.segments, chosen, strict=True) for _ in range(max(0, n))
        ]
        waiting = [
            filling
            for filling, n in zip(self.fillings, filled, strict=True)
            for _ in range(max(0, n))
        ]
        boards: list[Board] = []
        left = list(model.demand)
        for number, source in enumerate(model.sources):
            mine = sorted((s for s in segments if s[0] == number), key=lambda s: -s[1])
            bins = _first_fit([size for _, size, _ in mine], model.kinds[source.kind].capacity)
            if bins is None or len(bins) > values[number]:
                return None
            for on_board in bins:
                cut = tuple(self._cut(mine[i], waiting, left) for i in on_board)
                counts = [0] * len(model.demand)
                for segment in cut:
                    for strip in segment.strips:
                        for item in strip:
                            counts[item] += 1
                if any(counts):
                    board = Board(number, tuple(counts))
                    model.recipes.setdefault((source.kind, board.pattern), cut)
                    boards.append(board)
        return Packing(tuple(boards), tuple(left)) if not any(left) else None

    def _cut(
        self, segment: tuple[int, int, RipPattern], waiting: list[Filling], left: list[int]
    ) -> Segment:
        """A segment with the longest fillings that wait for its strips."""
        number, size, pattern = segment
        kind = self.model.kinds[self.model.sources[number].kind]
        strips: list[tuple[int, ...]] = []
        for strip in pattern.strips:
            fitting = [f for f in waiting if f.strip == kind.strips[strip.size] and f.size <= size]
            filling = max(fitting, key=lambda f: f.size, default=None)
            items: list[int] = []
            if filling:
                waiting.remove(filling)
                for item, n in filling.counts:
                    taken = min(n, left[item])
                    left[item] -= taken
                    items += [item] * taken
            strips.append(tuple(items))
        return Segment(size, pattern, tuple(strips))


def _weight(size: int, least: int, capacity: int) -> int:
    if size > capacity - least:
        return capacity
    return size if size >= least else 0


def _can_fit(sizes: Sequence[int], room: list[int]) -> bool:
    """Whether pieces (longest first) fit into what room there is."""
    if not sizes:
        return True
    size, *rest = sizes
    return any(
        size <= free
        and free not in room[:number]
        and _can_fit(rest, [*room[:number], free - size, *room[number + 1 :]])
        for number, free in enumerate(room)
    )


def _first_fit(sizes: list[int], capacity: int) -> list[list[int]] | None:
    """Sizes (longest first) packed first-fit: their numbers by bin; ``None`` for one too long."""
    bins: list[list[int]] = []
    room: list[int] = []
    for number, size in enumerate(sizes):
        if size > capacity:
            return None
        at = next((i for i, free in enumerate(room) if free >= size), None)
        if at is None:
            bins.append([])
            room.append(capacity)
            at = len(bins) - 1
        bins[at].append(number)
        room[at] -= size
    return bins
