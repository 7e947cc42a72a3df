"""Pieces of stock that do not just hold whatever fits: boards with flaws, which clear parts avoid,
and boards that only some parts may come from."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import product

from carpentry.cutting.problem import CutProblem, StockPiece
from carpentry.cutting.search.model import Pattern
from carpentry.cutting.search.patterns import maximal_patterns

Span = tuple[int, int]
Fill = tuple[tuple[int, Pattern], ...]  # where parts begin (ticks), and how many of each item


def sound_stretches(problem: CutProblem, piece: StockPiece) -> list[Span]:
    """The sound wood of a piece between its trims and flaws, in ticks from the marked end. A flaw
    counts as at least as long as the widest saw line, so that parts beside it are apart."""
    saw = 0
    if piece.flaws:
        saw = max((end.saw(problem.kerf) for part in problem.parts for end in part.ends), default=0)
    at, sound_end = problem.trim_start, piece.length - problem.trim_end
    stretches = []
    for start, end in sorted(piece.flaws):
        if min(start, sound_end) > at:
            stretches.append((at, min(start, sound_end)))
        at = max(at, end, start + saw)
    if sound_end > at:
        stretches.append((at, sound_end))
    return stretches


@dataclass(frozen=True)
class Run:
    """Wood without a gap from one part to the next: a sound stretch, or ``crossing`` flaws."""

    start: int
    capacity: int
    crossing: bool


@dataclass(frozen=True)
class Particular:
    """One such piece in whole units: runs of its wood, ``allowed`` items and ``clear`` ones."""

    whole: int
    ways: tuple[tuple[Run, ...], ...]
    allowed: tuple[bool, ...]
    clear: tuple[bool, ...]

    @classmethod
    def of(
        cls,
        problem: CutProblem,
        piece: StockPiece,
        unit: int,
        allowed: Sequence[bool],
        clear: Sequence[bool],
    ) -> "Particular":
        stretches = sound_stretches(problem, piece)

        def run(first: int, last: int) -> Run:
            start, end = stretches[first][0], stretches[last][1]
            return Run(start, (end - start + problem.kerf) // unit, last > first)

        count = len(stretches)
        alone = [run(n, n) for n in range(count)]
        ways = [tuple(alone)]
        if not all(one or not may for one, may in zip(clear, allowed, strict=True)):
            ways += [
                (*alone[:first], run(first, last), *alone[last + 1 :])
                for first in range(count)
                for last in range(first + 1, count)
            ]
        whole = (problem.sound_length(piece) + problem.kerf) // unit
        return cls(whole, tuple(ways), tuple(allowed), tuple(clear))

    def may(self, demand: Sequence[int]) -> list[int]:
        """A demand without what may not come from here."""
        return [d if allowed else 0 for d, allowed in zip(demand, self.allowed, strict=True)]

    def crossing(self, demand: Sequence[int]) -> list[int]:
        """A demand without what may not lie on a flaw."""
        return [0 if clear else d for d, clear in zip(demand, self.clear, strict=True)]

    def longest_for(self, item: int) -> int:
        """The capacity of the longest run that an item may lie in."""
        runs = [run for way in self.ways for run in way if not (run.crossing and self.clear[item])]
        return max((run.capacity for run in runs), default=0) if self.allowed[item] else 0

    def every_pattern(
        self, sizes: Sequence[int], demand: Sequence[int], most: int
    ) -> dict[Pattern, Fill] | None:
        """Every pattern that no other contains, each with where its parts lie; ``None`` when they
        are too many to list."""
        if len(self.ways) > 1:
            return None
        (runs,) = self.ways
        choices: list[list[Pattern]] = []
        number = 1
        for run in runs:
            found = maximal_patterns(sizes, self.may(demand), run.capacity, most)
            number *= len(found) if found is not None else most + 1
            if found is None or number > most:
                return None
            choices.append(found)
        return dict(_together(runs, chosen, demand) for chosen in product(*choices))


def _together(
    runs: Sequence[Run], chosen: Sequence[Pattern], demand: Sequence[int]
) -> tuple[Pattern, Fill]:
    """The pattern that patterns of runs make, no more of an item than is wanted."""
    left = list(demand)
    fill = []
    for run, pattern in zip(runs, chosen, strict=True):
        taken = tuple(min(n, r) for n, r in zip(pattern, left, strict=True))
        left = [r - n for r, n in zip(left, taken, strict=True)]
        fill.append((run.start, taken))
    return tuple(d - r for d, r in zip(demand, left, strict=True)), tuple(fill)


def by_capacity(runs: Sequence[Run]) -> Iterator[Run]:
    """The runs, longest first: what is filled first gets the best of the parts."""
    yield from sorted(runs, key=lambda run: (-run.capacity, run.start))
