"""Boards that are ripped over their whole length: whether some hold everything, as one integer
program.

How many boards are ripped in which way says how many strips of each size and length there are; what
strips hold are the patterns of a line. Both are counted for all boards together (Gilmore and
Gomory's two stages, 1965), so that equal boards are not told apart.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from carpentry.cutting.linear import INFINITY, Outcome, Program
from carpentry.cutting.model import Pattern
from carpentry.cutting.patterns import maximal_patterns
from carpentry.cutting.ripping import Kind, Ripping, Segment

_NODES = 5_000
_MOST_PATTERNS = 2_000

Filling = tuple[int, ...]  # items, in their order


@dataclass(frozen=True)
class _Filled:
    """A column: strips of one size and length (whole units) that hold the same."""

    strip: int
    length: int
    pattern: Pattern


class RipFirst:
    """Answers for boards that are plain: without flaws, and for every part."""

    def __init__(self, ripping: Ripping) -> None:
        self.ripping = ripping

    @staticmethod
    def answers(kind: Kind) -> bool:
        """Whether boards of a kind are plain and ripped first, in ways that are listed."""
        plain = kind.particular is None and kind.section.patterns is not None
        return plain and kind.one_segment

    def pack(
        self, kinds: Sequence[int], demand: Sequence[int], deadline: float
    ) -> tuple[Outcome, tuple[Pattern, ...]]:
        """Whether boards of these kinds hold all of a demand, and what each of them holds then."""
        boards = {number: self.ripping.kinds[number] for number in dict.fromkeys(kinds)}
        if not all(map(self.answers, boards.values())):
            return Outcome.UNDECIDED, ()
        filled = self._filled(boards, demand)
        if filled is None:
            return Outcome.UNDECIDED, ()
        program = Program([])
        ways = []
        for number, kind in boards.items():
            count = float(kinds.count(number))
            of_kind = []
            for way, pattern in enumerate(kind.section.patterns or ()):
                of_kind.append((program.add_column(0.0, [], count, integer=True), 1.0))
                ways.append((number, way, pattern.counts))
            program.add_row(-INFINITY, count, of_kind)
        first = len(ways)
        for _ in filled:
            program.add_column(0.0, [], INFINITY, integer=True)
        for strip, length in dict.fromkeys((one.strip, one.length) for one in filled):
            ripped = [
                (column, float(counts[boards[number].strips.index(strip)]))
                for column, (number, _, counts) in enumerate(ways)
                if boards[number].capacity == length and strip in boards[number].strips
            ]
            used = [
                (first + n, -1.0)
                for n, one in enumerate(filled)
                if (one.strip, one.length) == (strip, length)
            ]
            program.add_row(0.0, INFINITY, [*((c, n) for c, n in ripped if n), *used])
        for item, wanted in enumerate(demand):
            held = [(first + n, float(one.pattern[item])) for n, one in enumerate(filled)]
            program.add_row(float(wanted), INFINITY, [(c, n) for c, n in held if n])
        found = program.solve(deadline, _NODES)
        if found.outcome is not Outcome.SOLVED:
            return found.outcome, ()
        times = [round(n) for n in found.columns]
        waiting = self._fillings(filled, times[first:], demand)
        cut = [(number, way) for (number, way, _), n in zip(ways, times, strict=False) for _ in range(n)]
        return self._laid(kinds, cut, waiting, demand)

    def _filled(self, boards: dict[int, Kind], demand: Sequence[int]) -> list[_Filled] | None:
        """All that strips may hold, by their size and length; ``None`` where that is too much."""
        found: list[_Filled] = []
        every = {(s, kind.capacity) for kind in boards.values() for s in kind.strips}
        for strip, length in sorted(every):
            of_strip = [i for i in self.ripping.of_strip[strip] if demand[i]]
            sizes = [self.ripping.items[i].size for i in of_strip]
            wanted = [demand[i] for i in of_strip]
            patterns = maximal_patterns(sizes, wanted, length, _MOST_PATTERNS - len(found))
            if patterns is None:
                return None
            for pattern in patterns:
                whole = [0] * len(demand)
                for i, n in zip(of_strip, pattern, strict=True):
                    whole[i] = n
                found.append(_Filled(strip, length, tuple(whole)))
        return found

    @staticmethod
    def _fillings(
        filled: Sequence[_Filled], times: Sequence[int], demand: Sequence[int]
    ) -> dict[tuple[int, int], list[Filling]]:
        """What the strips of each size and length hold, no more of an item than is wanted."""
        left = list(demand)
        waiting: dict[tuple[int, int], list[Filling]] = {}
        for one, n in zip(filled, times, strict=True):
            for _ in range(n):
                taken = [min(a, b) for a, b in zip(one.pattern, left, strict=True)]
                left = [r - t for r, t in zip(left, taken, strict=True)]
                items = tuple(i for i, t in enumerate(taken) for _ in range(t))
                waiting.setdefault((one.strip, one.length), []).append(items)
        return waiting

    def _laid(
        self,
        kinds: Sequence[int],
        cut: Sequence[tuple[int, int]],
        waiting: dict[tuple[int, int], list[Filling]],
        demand: Sequence[int],
    ) -> tuple[Outcome, tuple[Pattern, ...]]:
        """The boards as they were asked for, each with a way to rip it and what its strips hold."""
        ways = list(cut)
        loads = []
        held = [0] * len(demand)
        for number in kinds:
            kind = self.ripping.kinds[number]
            load = [0] * len(demand)
            mine = next((one for one in ways if one[0] == number), None)
            if mine is not None:
                ways.remove(mine)
                assert kind.section.patterns is not None
                pattern = kind.section.patterns[mine[1]]
                strips = []
                for strip in pattern.strips:
                    free = waiting.get((kind.strips[strip.size], kind.capacity))
                    strips.append(free.pop() if free else ())
                for item in (i for strip in strips for i in strip):
                    load[item] += 1
                    held[item] += 1
                segment = Segment(kind.capacity, pattern, tuple(strips))
                self.ripping.recipes.setdefault((number, tuple(load)), (segment,))
            loads.append(tuple(load))
        if held != list(demand):
            return Outcome.UNDECIDED, ()
        return Outcome.SOLVED, tuple(loads)
