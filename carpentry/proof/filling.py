"""Purchases refuted: however their boards are filled, some part is left over."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from carpentry.cutting.problem import CutProblem
from carpentry.proof.boards import Piece, pieces_of, stretches
from carpentry.proof.proof import Counts
from carpentry.proof.sections import ways_to_fill

MOST_STEPS, MOST_PIECES = 20_000, 300


@dataclass(frozen=True)
class Board:
    """What boards of a kind have ``room`` for, and the size of each piece on them, by its number;
    ``None`` for one that may not come from them."""

    room: int
    sizes: tuple[int | None, ...]


def is_refuted(problem: CutProblem, counts: Counts) -> bool:
    """Whether so many pieces of each stock hold not all parts, whichever way they are filled, flaws
    left aside. False where they may, and where there are too many ways to try."""
    pieces = pieces_of(problem)
    if sum(piece.quantity for piece in pieces) > MOST_PIECES:
        return False
    return any(_refutes(pieces, kinds, counts) for kinds in _kinds(problem, pieces))


def _kinds(problem: CutProblem, pieces: Sequence[Piece]) -> Iterator[Mapping[str, Board]]:
    """What boards of each stock have room for, seen in different ways."""
    if problem.is_ripped:
        ways = {stock.id: ways_to_fill(problem, stock, pieces) for stock in problem.stock}
        for number in range(max(map(len, ways.values()), default=0)):
            if all(len(of_stock) > number for of_stock in ways.values()):
                yield {name: Board(*of_stock[number]) for name, of_stock in ways.items()}
        return
    yield {
        stock.id: Board(
            sum(stretches(problem, stock, clear=False)),
            tuple(piece.size if piece.may_come_from(stock) else None for piece in pieces),
        )
        for stock in problem.stock
    }


def _refutes(pieces: Sequence[Piece], kinds: Mapping[str, Board], counts: Counts) -> bool:
    """Whether every way to fill some boards is tried, and leaves something over."""
    wanted = sum(piece.quantity for piece in pieces)
    boards = [kinds[name] for name, n in counts.items() for _ in range(min(n, wanted))]
    order = sorted(range(len(pieces)), key=lambda n: -_largest(boards, n))
    each = [number for number in order for _ in range(pieces[number].quantity)]
    return _Filling(boards, each).is_impossible


def _largest(boards: Sequence[Board], piece: int) -> int:
    return max((board.sizes[piece] or 0 for board in boards), default=0)


class _Filling:
    """Pieces put onto boards one after the other, the largest first."""

    def __init__(self, boards: Sequence[Board], each: Sequence[int]) -> None:
        self.kinds = list(dict.fromkeys(boards))
        self.each = each
        self.steps = 0
        self.failed: set[tuple[int, tuple[tuple[int, int], ...]]] = set()
        # What is still to come takes at least so much, where all boards see it in the same way.
        alike = len({board.sizes for board in self.kinds}) <= 1
        self.to_come = [0] * (len(each) + 1)
        for at in range(len(each) - 1, -1, -1) if alike and self.kinds else ():
            self.to_come[at] = self.to_come[at + 1] + (self.kinds[0].sizes[each[at]] or 0)
        self.start = tuple(sorted((self.kinds.index(board), board.room) for board in boards))

    @property
    def is_impossible(self) -> bool:
        return self._fills(0, self.start) is False

    def _fills(self, at: int, rooms: tuple[tuple[int, int], ...]) -> bool | None:
        """Whether the pieces from one on have room; ``None`` for too many ways to try."""
        if at == len(self.each):
            return True
        if sum(room for _, room in rooms) < self.to_come[at] or (at, rooms) in self.failed:
            return False
        self.steps += 1
        if self.steps > MOST_STEPS:
            return None
        piece = self.each[at]
        for number, (kind, room) in enumerate(rooms):
            size = self.kinds[kind].sizes[piece]
            same = number and rooms[number - 1] == (kind, room)
            if size is None or size > room or same:
                continue
            left = sorted((*rooms[:number], (kind, room - size), *rooms[number + 1 :]))
            found = self._fills(at + 1, tuple(left))
            if found is not False:
                return found
        self.failed.add((at, rooms))
        return False
