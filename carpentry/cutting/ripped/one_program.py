"""Whether some ripped boards hold everything, as one integer program over all of them.

Boards are crosscut into segments, segments are ripped into strips, strips hold parts. Each of these
is counted for all boards together (as in Gilmore and Gomory's two stages, 1965), so that equal
boards are not told apart: there are as many places of a length or longer as there are segments, and
as many strips of a length or longer as there are fillings.
"""

from bisect import bisect_right
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from carpentry.cutting.problem import Order
from carpentry.cutting.ripped.numbers import Kind, Ripping, Segment
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.model import Pattern
from carpentry.cutting.search.patterns import maximal_patterns
from carpentry.cutting.search.programs import INFINITY, Outcome, Program

_NODES, _MOST_EFFORT = 500, 8
_MOST_FILLINGS = 2_500
_MOST_COLUMNS = 25_000
_MOST_WAYS = 1_000  # to crosscut a board into any number of segments


class TooLarge(Exception):
    """More columns than are worth a program."""


@dataclass(frozen=True)
class _Filling:
    """What a strip may hold, and how long (whole units) it is for that."""

    strip: int
    length: int
    counts: tuple[tuple[int, int], ...]  # items, and how many of each


@dataclass
class _Section:
    """Kinds of boards that are ripped alike; ``rows`` balance places against segments by length."""

    kinds: list[int]
    rows: dict[int, int] = field(default_factory=dict)


class Nested:
    """One question: do boards of these ``kinds`` hold all of a ``demand``? Raises ``TooLarge``."""

    def __init__(self, ripping: Ripping, kinds: Sequence[int], demand: Sequence[int]) -> None:
        self.ripping = ripping
        self.kinds = kinds
        self.demand = demand
        self.count = Counter(kinds)
        self.program = Program([])
        self.sections = self._sections()
        self.fillings = list(self._fillings())
        self.lengths = sorted({one.length for one in self.fillings})
        self.held = [self._row(float(wanted)) for wanted in demand]
        self.strips = {
            (strip, length): self._row()
            for strip in {one.strip for one in self.fillings}
            for length in self.lengths
        }
        self.ways: list[tuple[int, int, tuple[int, ...]]] = []  # column, kind, places
        self.places: list[tuple[int, int, int, int]] = []  # column, kind, board of it, length
        self.ripped: list[tuple[int, int, int, int]] = []  # column, section, length, pattern
        for number, section in enumerate(self.sections):
            self._crosscut(section)
            self._rip(number, section)
        for strip in {one.strip for one in self.fillings}:
            self._carry({length: self.strips[strip, length] for length in self.lengths})
        self.filled = [self._fill(one) for one in self.fillings]

    def solve(self, clock: Clock, effort: int) -> tuple[Outcome, tuple[Pattern, ...]]:
        """Whether the boards hold it, and what each of them holds then."""
        found = self.program.solve(clock, _NODES * 4 ** min(effort, _MOST_EFFORT))
        if found.outcome is not Outcome.SOLVED:
            return found.outcome, ()
        return self._laid([round(n) for n in found.columns])

    def _row(self, needed: float = 0.0) -> int:
        return self.program.add_row(needed, INFINITY, [])

    def _column(self, entries: Sequence[tuple[int, float]], most: float = INFINITY) -> int:
        if self.program.column_count > _MOST_COLUMNS:
            raise TooLarge
        return self.program.add_column(0.0, entries, most, integer=True)

    def _kind(self, number: int) -> Kind:
        return self.ripping.kinds[number]

    def _sections(self) -> list[_Section]:
        alike: dict[object, _Section] = {}
        for number in self.count:
            kind = self._kind(number)
            if kind.particular or kind.section.patterns is None:
                raise TooLarge
            key = kind.strips, tuple(pattern.counts for pattern in kind.section.patterns)
            alike.setdefault(key, _Section([])).kinds.append(number)
        return list(alike.values())

    def _fillings(self) -> Iterator[_Filling]:
        """All that a strip may hold; where no board is crosscut first, only what has no room for
        another part."""
        used = [self._kind(number) for number in self.count]
        left = _MOST_FILLINGS
        for strip, items in enumerate(self.ripping.of_strip):
            of_strip = [i for i in items if self.demand[i]]
            tops = sorted({kind.capacity for kind in used if strip in kind.strips})
            sizes = [self.ripping.items[i].size for i in of_strip]
            wanted = [self.demand[i] for i in of_strip]
            if not of_strip or not tops:
                continue
            if all(kind.one_segment for kind in used):
                for top in tops:
                    patterns = maximal_patterns(sizes, wanted, top, left)
                    if patterns is None:
                        raise TooLarge
                    for pattern in patterns:
                        left -= 1
                        yield self._filling(strip, of_strip, pattern, top)
                continue
            most = 1 if self.ripping.order is Order.CROSSCUT_FIRST else tops[-1]
            for pattern, length in _selections(sizes, wanted, tops[-1], most):
                left -= 1
                if left < 0:
                    raise TooLarge
                yield self._filling(strip, of_strip, pattern, length)

    @staticmethod
    def _filling(strip: int, items: Sequence[int], pattern: Pattern, length: int) -> _Filling:
        counts = tuple((i, n) for i, n in zip(items, pattern, strict=True) if n)
        return _Filling(strip, length, counts)

    def _fill(self, filling: _Filling) -> int:
        held = [(self.held[item], float(n)) for item, n in filling.counts]
        return self._column([(self.strips[filling.strip, filling.length], -1.0), *held])

    def _carry(self, rows: dict[int, int]) -> None:
        """What is there for a length may serve the next shorter one."""
        for longer, shorter in zip(self.lengths[1:], self.lengths, strict=False):
            self.program.add_column(0.0, [(rows[longer], -1.0), (rows[shorter], 1.0)])

    def _crosscut(self, section: _Section) -> None:
        """The ways to crosscut each kind of board into places for segments."""
        section.rows = {length: self._row() for length in self.lengths}
        for number in section.kinds:
            ways = self._divisions(self._kind(number))
            if ways is None:
                self._crosscut_each(section, number)
                continue
            count = float(self.count[number])
            boards = self.program.add_row(-INFINITY, count, [])
            for places in ways:
                entries = [(section.rows[place], float(n)) for place, n in Counter(places).items()]
                column = self._column([(boards, 1.0), *entries], count)
                self.ways.append((column, number, places))
        self._carry(section.rows)

    def _crosscut_each(self, section: _Section, number: int) -> None:
        """The places of every board of a kind by itself, as many of any length as it has room
        for."""
        capacity = self._kind(number).capacity
        for board in range(self.count[number]):
            room = self.program.add_row(-INFINITY, float(capacity), [])
            for length in self.lengths:
                if length <= capacity:
                    entries = [(room, float(length)), (section.rows[length], 1.0)]
                    column = self._column(entries, float(capacity // length))
                    self.places.append((column, number, board, length))

    def _divisions(self, kind: Kind) -> list[tuple[int, ...]] | None:
        """Every way to crosscut a board, as its places; ``None`` for very many."""
        lengths = [length for length in self.lengths if length <= kind.capacity]
        if self.ripping.order is Order.CROSSCUT_FIRST:
            sizes = lengths[::-1]
            times = [kind.capacity // size for size in sizes]
            patterns = maximal_patterns(sizes, times, kind.capacity, _MOST_WAYS)
            return patterns and [
                tuple(s for s, n in zip(sizes, pattern, strict=True) for _ in range(n))
                for pattern in patterns
            ]
        segments = 1 if kind.one_segment else self.ripping.most_segments
        return list(_divided(lengths, kind.capacity, kind.capacity, segments))

    def _rip(self, number: int, section: _Section) -> None:
        """The ways to rip segments of each length at which a filling ends; strips that are too
        short for any filling do not count."""
        kind = self._kind(section.kinds[0])
        shortest: dict[int, int] = {}
        for one in self.fillings:
            shortest[one.strip] = min(one.length, shortest.get(one.strip, one.length))
        ends = {(one.strip, one.length) for one in self.fillings}
        for length in self.lengths:
            known = set()
            for at, pattern in enumerate(kind.section.patterns or ()):
                useful = tuple(
                    (strip, n)
                    for strip, n in zip(kind.strips, pattern.counts, strict=True)
                    if n and shortest.get(strip, length + 1) <= length
                )
                if useful in known or not any((strip, length) in ends for strip, _ in useful):
                    continue
                known.add(useful)
                strips = [(self.strips[strip, length], float(n)) for strip, n in useful]
                column = self._column([(section.rows[length], -1.0), *strips])
                self.ripped.append((column, number, length, at))

    def _laid(self, times: Sequence[int]) -> tuple[Outcome, tuple[Pattern, ...]]:
        """The boards as they were asked for, each with how it is cut and what it holds: the longest
        segments in the longest places, the longest fillings in the longest strips."""
        crosscut: dict[int, list[tuple[int, ...]]] = {}
        for column, kind, places in self.ways:
            crosscut.setdefault(kind, []).extend([places] * times[column])
        for kind, count in self.count.items():
            of_kind = [one for one in self.places if one[1] == kind]
            for board in range(count if of_kind else 0):
                mine = [(col, length) for col, _, of, length in of_kind if of == board]
                places = tuple(length for col, length in mine for _ in range(times[col]))
                crosscut.setdefault(kind, []).append(places)
        boards = [crosscut[kind].pop() if crosscut[kind] else () for kind in self.kinds]
        fillings = self._waiting(times)
        cut: dict[int, list[Segment]] = {}
        for number, section in enumerate(self.sections):
            free = [
                (place, board)
                for board, places in enumerate(boards)
                for place in places
                if self.kinds[board] in section.kinds
            ]
            segments = [
                (length, at)
                for column, of_section, length, at in self.ripped
                for _ in range(times[column])
                if of_section == number
            ]
            laid = zip(sorted(free, reverse=True), sorted(segments, reverse=True), strict=False)
            for (_, board), (length, at) in laid:
                of = self._kind(self.kinds[board])
                pattern = (of.section.patterns or [])[at]
                size = of.capacity if of.one_segment else length
                empty = tuple(() for _ in pattern.strips)
                cut.setdefault(board, []).append(Segment(size, pattern, empty))
        self._lay_fillings(cut, fillings)
        return self._loads(cut)

    def _waiting(self, times: Sequence[int]) -> dict[int, list[tuple[int, tuple[int, ...]]]]:
        """The fillings of each strip size with their lengths, no more of an item than is wanted."""
        left = list(self.demand)
        waiting: dict[int, list[tuple[int, tuple[int, ...]]]] = {}
        for column, one in zip(self.filled, self.fillings, strict=True):
            for _ in range(times[column]):
                items: list[int] = []
                for item, n in one.counts:
                    taken = min(n, left[item])
                    left[item] -= taken
                    items += [item] * taken
                waiting.setdefault(one.strip, []).append((one.length, tuple(sorted(items))))
        return waiting

    def _lay_fillings(
        self,
        cut: dict[int, list[Segment]],
        waiting: dict[int, list[tuple[int, tuple[int, ...]]]],
    ) -> None:
        free: dict[int, list[tuple[int, int, int, int]]] = {}
        lying: dict[tuple[int, int, int], tuple[int, ...]] = {}
        for board, segments in cut.items():
            kind = self._kind(self.kinds[board])
            for at, segment in enumerate(segments):
                for place, strip in enumerate(segment.pattern.strips):
                    where = segment.size, board, at, place
                    free.setdefault(kind.strips[strip.size], []).append(where)
        for number, fillings in waiting.items():
            places = sorted(free.get(number, ()), reverse=True)
            longest = sorted(fillings, reverse=True)
            for (_, board, at, place), (_, items) in zip(places, longest, strict=False):
                lying[board, at, place] = items
        for board, segments in cut.items():
            for at, segment in enumerate(segments):
                strips = tuple(
                    lying.get((board, at, place), ()) for place in range(len(segment.strips))
                )
                segments[at] = Segment(segment.size, segment.pattern, strips)

    def _loads(self, cut: dict[int, list[Segment]]) -> tuple[Outcome, tuple[Pattern, ...]]:
        loads = []
        for board, number in enumerate(self.kinds):
            segments = [s for s in cut.get(board, ()) if any(s.strips)]
            segments.sort(key=lambda segment: -segment.size)
            held = Counter(item for s in segments for strip in s.strips for item in strip)
            load = tuple(held[item] for item in range(len(self.demand)))
            self.ripping.recipes.setdefault((number, load), tuple(segments))
            loads.append(load)
        total = [sum(load[item] for load in loads) for item in range(len(self.demand))]
        if total != list(self.demand):
            return Outcome.UNDECIDED, ()
        return Outcome.SOLVED, tuple(loads)


def _selections(
    sizes: Sequence[int], demand: Sequence[int], top: int, most: int
) -> Iterator[tuple[Pattern, int]]:
    """Every selection of up to ``most`` items that is no longer than ``top``, with its length."""

    def add(item: int, counts: Pattern, length: int) -> Iterator[tuple[Pattern, int]]:
        if item == len(sizes):
            if length:
                yield counts, length
            return
        for n in range(min(demand[item], (top - length) // sizes[item], most - sum(counts)) + 1):
            yield from add(item + 1, (*counts, n), length + n * sizes[item])

    return add(0, (), 0)


def _divided(
    lengths: Sequence[int], left: int, longest: int, segments: int
) -> Iterator[tuple[int, ...]]:
    """Every way to divide a length into so many segments, none longer than the one before, the last
    one as long as can be."""
    fits = bisect_right(lengths, min(left, longest))
    if not fits:
        yield ()
    elif segments == 1:
        yield (lengths[fits - 1],)
    else:
        for length in lengths[:fits]:
            for others in _divided(lengths, left - length, length, segments - 1):
                yield (length, *others)
