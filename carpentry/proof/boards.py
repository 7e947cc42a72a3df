"""How much worth one board holds at the most, by listing all that could lie on it.

Sizes are twice those in ticks, so that half of what a shared saw line saves is whole. What boards
hold is never counted too low: parts lie as close as they ever could. Each takes its length and one
saw line, less half of what sharing the saw lines at its two ends would save; where all parts have
to be clear of flaws, the stretches between flaws are filled by themselves.
"""

from bisect import bisect_right
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from carpentry.cutting.problem import CutProblem, StockPiece

MOST_LOADS = 60_000  # that are kept while a board is filled


@dataclass(frozen=True)
class Piece:
    """What is cut as one: a part, or parts that are kept together (by id). ``size`` is doubled, the
    saw line in it; it comes from stock ``on``, by id, where that is said."""

    parts: tuple[str, ...]
    size: int
    quantity: int
    clear: bool
    on: tuple[str, ...]

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
            size = 0
            for part in group:
                size += 2 * (part.length + part.extra.length + problem.kerf)
                if problem.share_angled_cuts:
                    size -= part.reach(0) + part.reach(1)
            first = group[0]
            clear = any(part.clear for part in group)
            ids = tuple(part.id for part in group)
            pieces.append(Piece(ids, max(1, size), first.quantity, clear, first.on))
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
    both rising."""

    def __init__(self, pieces: Sequence[Piece], worth: Mapping[str, int], room: int) -> None:
        values = [(one, sum(worth.get(part, 0) for part in one.parts)) for one in pieces]
        self.sizes = [0]
        self.worths = [sum(value * one.quantity for one, value in values if not one.size)]
        self.is_complete = True
        for piece, value in values:
            if value <= 0 or not piece.size:
                continue
            for times in _doubling(min(piece.quantity, room // piece.size)):
                self._add(piece.size * times, value * times, room)
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


def most_worth_crosscut(problem: CutProblem, worth: Mapping[str, int]) -> dict[str, int] | None:
    """The most worth that one piece of each stock (by id) holds, or somewhat more; ``None`` where
    loads are too many to be listed."""
    pieces = pieces_of(problem)
    found: dict[str, int] = {}
    known: dict[tuple[bool, ...], Loads] = {}
    longest = max((2 * (piece.length + problem.kerf) for piece in problem.stock), default=0)
    for stock in problem.stock:
        allowed = tuple(piece.may_come_from(stock) for piece in pieces)
        if allowed not in known:
            here = [piece for piece, may in zip(pieces, allowed, strict=True) if may]
            known[allowed] = Loads(here, worth, longest)
        loads = known[allowed]
        if not loads.is_complete:
            return None
        clear = all(piece.clear for piece in pieces)
        whole = loads.most(sum(stretches(problem, stock, clear=False)))
        apart = sum(loads.most(room) for room in stretches(problem, stock, clear=clear))
        found[stock.id] = min(whole, apart)
    return found
