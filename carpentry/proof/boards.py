"""How much worth one board holds at the most, by listing all that could lie on it.

Sizes are twice those in ticks, so that half of what a shared saw line saves is whole. What boards
hold is never counted too low: parts lie as close as they ever could. Each takes its length and one
square saw line, less half of what sharing angled ones at its two ends would save; where all parts
have to be clear of flaws, the stretches between flaws are filled by themselves.
"""

from bisect import bisect_right
from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import product
from math import prod

from carpentry.cutting.problem import CutProblem, StockPiece
from carpentry.design.ends import EndAngle

MOST_LOADS = 60_000  # that are kept while a board is filled
_MOST_LOADS_BELOW = 4_000  # with some pieces fewer, all of which must have room, too


class TooMany(Exception):
    """More ways than can be tried."""


@dataclass(frozen=True)
class Piece:
    """What is cut as one: a part, or parts that are kept together (by id). ``size`` is doubled, the
    saw line in it; it comes from stock ``on``, by id, where that is said. ``ends`` are those that
    share saw lines with others that run alike: by how they run, what of the size each saves."""

    parts: tuple[str, ...]
    size: int
    quantity: int
    clear: bool
    on: tuple[str, ...]
    ends: tuple[tuple[EndAngle, int], ...] = ()

    def may_come_from(self, piece: StockPiece) -> bool:
        return not self.on or piece.id in self.on


def pieces_of(problem: CutProblem) -> list[Piece]:
    """The pieces to cut of a problem that is crosscut."""
    pieces: list[Piece] = []
    sets: dict[str, list[int]] = {}
    for number, part in enumerate(problem.parts):
        sets.setdefault(part.together or f"\0{number}", []).append(number)
    for numbers in sets.values():
        parts = [problem.parts[number] for number in numbers]
        if len({part.quantity for part in parts}) > 1:
            groups = [[part] for part in parts]
        else:
            groups = [parts]
        for group in groups:
            size = sum(2 * (part.sawn_length + problem.kerf) for part in group)
            ends = []
            if problem.share_angled_cuts:
                for part, number in product(group, (0, 1)):
                    end = part.ends[number]
                    saved = problem.kerf - end.saw(problem.kerf) + part.reach(number)
                    size -= saved
                    if saved and not end.is_shaped:
                        ends.append((replace(end, degrees=abs(end.degrees)), saved))
            first = group[0]
            clear = any(part.clear for part in group)
            ids = tuple(part.id for part in group)
            pieces.append(Piece(ids, max(1, size), first.quantity, clear, first.on, tuple(ends)))
    return pieces


def stretches(problem: CutProblem, piece: StockPiece, *, clear: bool) -> list[int]:
    """The room of a board, doubled, with a saw line more: all of it between its trims, or where
    parts are to be clear the stretches between flaws."""
    start, end = problem.trim_start, piece.length - problem.trim_end
    found = []
    for flaw_start, flaw_end in sorted(piece.flaws) if clear else ():
        found.append((start, min(flaw_start, end)))
        start = max(start, flaw_end)
    found.append((start, end))
    return [2 * (b - a + problem.kerf) for a, b in found if b > a]


class Loads:
    """The loads of some pieces that are worth more than any that is no longer: sizes and worths,
    both rising. Of a piece are told its size, its worth, and how many are wanted."""

    def __init__(self, pieces: Iterable[tuple[int, int, int]], room: int) -> None:
        pieces = list(pieces)
        self.sizes = [0]
        self.worths = [sum(value * quantity for size, value, quantity in pieces if not size)]
        self.is_complete = True
        for size, value, quantity in pieces:
            if value <= 0 or not size:
                continue
            for times in _doubling(min(quantity, room // size)):
                self._add(size * times, value * times, room)
                if len(self.sizes) > MOST_LOADS:
                    self.is_complete = False
                    return

    def _add(self, size: int, value: int, room: int) -> None:
        more = [(s + size, w + value) for s, w in self._each() if s + size <= room]
        sizes: list[int] = []
        worths: list[int] = []
        for s, w in sorted([*self._each(), *more], key=lambda one: (one[0], -one[1])):
            if not worths or w > worths[-1]:
                sizes.append(s)
                worths.append(w)
        self.sizes, self.worths = sizes, worths

    def _each(self) -> Iterator[tuple[int, int]]:
        return zip(self.sizes, self.worths, strict=True)

    def most(self, room: int) -> int:
        """The greatest worth in so much room."""
        return self.worths[bisect_right(self.sizes, room) - 1] if room >= 0 else 0


def _doubling(count: int) -> Iterator[int]:
    """Numbers that add up, some of them, to every number up to a count."""
    step = 1
    while count > 0:
        yield min(step, count)
        count -= step
        step *= 2


@lru_cache(maxsize=32)
def _loads(pieces: tuple[tuple[int, int, int], ...], room: int) -> Loads:
    """The loads of boards that are not longer: listed once for boards of every length."""
    return Loads(pieces, room)


class LineBoard:
    """What one piece of a stock holds that is only crosscut, of pieces that ``may`` be from it."""

    def __init__(
        self, problem: CutProblem, stock: StockPiece, pieces: Sequence[Piece], may: Sequence[bool]
    ) -> None:
        self.pieces = pieces
        self.may = may
        clear = all(piece.clear for piece in pieces)
        self.room = sum(stretches(problem, stock, clear=False))
        self.stretches = stretches(problem, stock, clear=clear)
        self._known: dict[tuple[int, ...], bool] = {}
        self.longest = max(2 * (one.length + problem.kerf) for one in problem.stock)

    def has_room(self, counts: tuple[int, ...]) -> bool:
        """Whether so many of each piece may be cut from it: what has room has it with a piece
        fewer, too. Raises ``TooMany``."""
        if any(n and not may for n, may in zip(counts, self.may, strict=True)):
            return False
        size = sum(p.size * n for p, n in zip(self.pieces, counts, strict=True))
        if size > self.room or not any(
            p.ends for p, n in zip(self.pieces, counts, strict=True) if n
        ):
            return size <= self.room
        known = self._known.get(counts)
        if known is None:
            if prod(n + 1 for n in counts) > _MOST_LOADS_BELOW:
                raise TooMany
            known = size + self._saved_by_nobody(counts) <= self.room and all(
                self.has_room((*counts[:at], n - 1, *counts[at + 1 :]))
                for at, n in enumerate(counts)
                if n and sum(counts) > 1
            )
            self._known[counts] = known
        return known

    def _saved_by_nobody(self, counts: Sequence[int]) -> int:
        """What is counted as saved of ends that find no other to share a saw line with: of those
        that run alike one is left over where they are odd in number, and two are the outermost."""
        number = Counter[EndAngle]()
        least: dict[EndAngle, int] = {}
        others = 0
        for piece, n in zip(self.pieces, counts, strict=True):
            others += n * (2 * len(piece.parts) - len(piece.ends))
            for end, saved in piece.ends if n else ():
                number[end] += n
                least[end] = min(saved, least.get(end, saved))
        saves = [least[end] for end, n in number.items() if n % 2]
        if number and not others and not saves:
            saves = [min(least.values())] * 2
        return sum(saves)

    def most_worth(self, values: Sequence[int]) -> int | None:
        """The most that pieces with these values are worth together on it, or somewhat more;
        ``None`` where loads are too many to be listed."""
        each = zip(self.pieces, values, self.may, strict=True)
        here = tuple((piece.size, value, piece.quantity) for piece, value, may in each if may)
        loads = _loads(here, self.longest)
        if not loads.is_complete:
            return None
        apart = sum(loads.most(room) for room in self.stretches)
        return min(loads.most(self.room), apart)
