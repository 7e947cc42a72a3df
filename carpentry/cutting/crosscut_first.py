"""Boards that are crosscut before they are ripped: what one holds at the most, and whether some
hold everything, as small integer programs.

Every strip holds one part, so that only the number of strips that are long enough counts: for each
strip size and each length there are at least as many strips of that length or more as there are
such parts (Hall's condition, for sets that contain each other).
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import ceil

from carpentry.cutting.linear import INFINITY, Outcome, Program
from carpentry.cutting.model import Pattern
from carpentry.cutting.ripping import Kind, Ripping, Segment

_NODES = 2_000
_PACK_NODES = 20_000
_SCALE, _GAP = 1_000.0, 0.1  # of the item that is worth most, and how far a bound may be off
_MOST_COLUMNS = 3_000


@dataclass(frozen=True)
class _Choice:
    """Segments of one size on one board, ripped in one way (by their numbers)."""

    board: int
    size: int
    pattern: int


class CrosscutFirst:
    """Answers for the boards of a problem that are plain: without flaws, and for every part."""

    def __init__(self, ripping: Ripping) -> None:
        self.ripping = ripping

    @staticmethod
    def answers(kind: Kind) -> bool:
        """Whether boards of a kind are plain, and their rip patterns are listed."""
        return kind.particular is None and kind.section.patterns is not None

    def best(
        self, number: int, values: Sequence[int], demand: Sequence[int], deadline: float
    ) -> tuple[int, Pattern] | None:
        """A worth that no load of a kind of board exceeds, with no more of an item than ``demand``,
        and a load that has it; ``None`` where the program did not come to its end."""
        kind = self.ripping.kinds[number]
        if not self.answers(kind):
            return None
        wanted = [d if v > 0 else 0 for v, d in zip(values, demand, strict=True)]
        program = Program([])
        unit = max(1, *values) / _SCALE
        for value, most in zip(values, wanted, strict=True):
            program.add_column(-value / unit, [], float(most))
        choices = self._choices(program, [kind], wanted)
        for strip, longer in self._thresholds(wanted):
            entries = self._strips([kind], choices, strip, longer, len(wanted))
            program.add_row(0.0, INFINITY, [*entries, *((i, -1.0) for i in longer)])
        found = program.solve(deadline, _NODES, gap=_GAP)
        if found.outcome is not Outcome.SOLVED:
            return None
        load = [round(n) for n in found.columns[: len(wanted)]]
        ((segments, pattern),) = self._laid([kind], choices, found.columns[len(wanted) :], load)
        self.ripping.recipes.setdefault((number, pattern), segments)
        worth = sum(v * n for v, n in zip(values, pattern, strict=True))
        return max(worth, ceil((1e-6 - found.bound) * unit)), pattern

    def pack(
        self, kinds: Sequence[int], demand: Sequence[int], deadline: float
    ) -> tuple[Outcome, tuple[Pattern, ...]]:
        """Whether boards of these kinds hold all of a demand, and what each of them holds then."""
        boards = [self.ripping.kinds[number] for number in kinds]
        program = Program([])
        if not all(map(self.answers, boards)):
            return Outcome.UNDECIDED, ()
        choices = self._choices(program, boards, demand)
        if len(choices) > _MOST_COLUMNS:
            return Outcome.UNDECIDED, ()
        for strip, longer in self._thresholds(demand):
            needed = float(sum(demand[i] for i in longer))
            program.add_row(needed, INFINITY, self._strips(boards, choices, strip, longer, 0))
        found = program.solve(deadline, _PACK_NODES)
        if found.outcome is not Outcome.SOLVED:
            return found.outcome, ()
        laid = self._laid(boards, choices, found.columns, demand)
        for number, (segments, pattern) in zip(kinds, laid, strict=True):
            self.ripping.recipes.setdefault((number, pattern), segments)
        held = [sum(pattern[i] for _, pattern in laid) for i in range(len(demand))]
        if held != list(demand):
            return Outcome.UNDECIDED, ()
        return Outcome.SOLVED, tuple(pattern for _, pattern in laid)

    def _choices(
        self, program: Program, boards: Sequence[Kind], demand: Sequence[int]
    ) -> list[_Choice]:
        """How many segments of each size and way there are: a column each, and for each board a row
        for its length."""
        choices = []
        for number, kind in enumerate(boards):
            sizes = {
                self.ripping.items[i].size
                for strip in kind.strips
                for i in self.ripping.of_strip[strip]
                if demand[i]
            }
            entries = []
            for size in sorted(s for s in sizes if s <= kind.capacity):
                for pattern in range(len(kind.section.patterns or ())):
                    most = kind.capacity // size
                    column = program.add_column(0.0, [], float(most), integer=True)
                    entries.append((column, float(size)))
                    choices.append(_Choice(number, size, pattern))
            program.add_row(-INFINITY, float(kind.capacity), entries)
        return choices

    def _thresholds(self, demand: Sequence[int]) -> Iterator[tuple[int, list[int]]]:
        """For each strip size and wanted item, the items of the strip that are as long or longer."""
        for strip, of_strip in enumerate(self.ripping.of_strip):
            for size in {self.ripping.items[i].size for i in of_strip if demand[i]}:
                longer = [i for i in of_strip if demand[i] and self.ripping.items[i].size >= size]
                yield strip, longer

    def _strips(
        self,
        boards: Sequence[Kind],
        choices: Sequence[_Choice],
        strip: int,
        longer: Sequence[int],
        first: int,
    ) -> list[tuple[int, float]]:
        """The strips of a size that are as long as the shortest of some items, by the columns of
        the choices, which begin with ``first``."""
        shortest = min(self.ripping.items[i].size for i in longer)
        entries = []
        for column, choice in enumerate(choices, first):
            kind = boards[choice.board]
            if choice.size >= shortest and strip in kind.strips:
                assert kind.section.patterns is not None
                counts = kind.section.patterns[choice.pattern].counts
                if counts[kind.strips.index(strip)]:
                    entries.append((column, float(counts[kind.strips.index(strip)])))
        return entries

    def _laid(
        self,
        boards: Sequence[Kind],
        choices: Sequence[_Choice],
        values: Sequence[float],
        load: Sequence[int],
    ) -> list[tuple[tuple[Segment, ...], Pattern]]:
        """For each board its segments and what it holds: the longest parts first, each in the
        shortest strip that is free."""
        cut = [choice for choice, n in zip(choices, values, strict=True) for _ in range(round(n))]
        free: list[tuple[int, int, int, int]] = []  # size, segment, place in it, strip size
        lying: dict[tuple[int, int], int] = {}
        for at, choice in enumerate(cut):
            kind = boards[choice.board]
            assert kind.section.patterns is not None
            for place, strip in enumerate(kind.section.patterns[choice.pattern].strips):
                free.append((choice.size, at, place, kind.strips[strip.size]))
        free.sort()
        items = self.ripping.items
        for item in sorted(range(len(load)), key=lambda i: -items[i].size):
            for _ in range(load[item]):
                fits = (
                    n
                    for n, (size, _, _, strip) in enumerate(free)
                    if strip == items[item].strip and size >= items[item].size
                )
                number = next(fits, None)
                if number is not None:
                    _, at, place, _ = free.pop(number)
                    lying[at, place] = item
        found = []
        for board, kind in enumerate(boards):
            segments = []
            counts = [0] * len(load)
            for at, choice in enumerate(cut):
                if choice.board != board:
                    continue
                assert kind.section.patterns is not None
                pattern = kind.section.patterns[choice.pattern]
                strips = tuple(
                    (lying[at, place],) if (at, place) in lying else ()
                    for place in range(len(pattern.strips))
                )
                for item in (i for strip in strips for i in strip):
                    counts[item] += 1
                if any(strips):
                    segments.append(Segment(choice.size, pattern, strips))
            segments.sort(key=lambda segment: -segment.size)
            found.append((tuple(segments), tuple(counts)))
        return found
