"""How much one board that is ripped holds at the most, by what its section has room for.

Parts along one strip take turns, and strips lie side by side. Give every section that parts have a
share: whatever strips are sawn out of a board's section, their shares add up to no more than some
most. Then the shares of all parts, each times its length and a saw line, add up to no more than
that most times the length of the board and a saw line. That is so for each way to give shares; what
a board holds is no more than the least of what they say.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cache
from itertools import chain
from math import lcm

from carpentry.cutting.problem import CutPart, CutProblem, StockPiece
from carpentry.design.ends import is_angled
from carpentry.proof.boards import Loads, Piece, pieces_of

Size = tuple[int, int]  # thickness and width
_MOST_PLACES = 200  # along a side of a section, at which it may be cut
_MOST_COUNTED = 10_000  # for shares that are parts of one


@dataclass(frozen=True)
class Section:
    """A section that parts have, at its least: ``turn`` for one that may lie on its edge, ``rip``
    and ``resaw`` for what may be sawn of it, ``whole`` for that of the board whatever it is."""

    thickness: int
    width: int
    turn: bool
    rip: bool
    resaw: bool
    whole: bool

    @classmethod
    def of(cls, part: CutPart) -> "Section":
        thick, wide = part.thickness or 0, part.width or 0
        bevelled = is_angled(part.edges)
        if bevelled:  # with others beside it that lean the same way
            wide = max(1, wide - sum(edge.reach(thick, 0) for edge in part.edges))
        turn = part.turn and not bevelled
        return cls(thick, wide, turn, part.rip or bevelled, part.resaw, part.whole)

    def lying(self, board: Size) -> Iterator[Size]:
        """How it may lie in a board's section."""
        if self.whole:
            yield board
            return
        ways = [(self.thickness, self.width)]
        if self.turn and self.thickness != self.width:
            ways.append((self.width, self.thickness))
        for high, wide in ways:
            if (self.resaw or high == board[0]) and (self.rip or wide == board[1]):
                yield high, wide


def most_share(board: Size, kerf: int, shares: Mapping[Section, int]) -> int | None:
    """The most that shares of strips sawn out of a section add up to, cut after cut from side to
    side: every cut is tried (Gilmore and Gomory 1965). ``None`` for too many cuts."""
    sizes = [(size, share) for one, share in shares.items() if share for size in one.lying(board)]
    heights = _places([high for (high, _), _ in sizes], board[0], kerf)
    widths = _places([wide for (_, wide), _ in sizes], board[1], kerf)
    if len(heights) > _MOST_PLACES or len(widths) > _MOST_PLACES:
        return None

    @cache
    def most(high: int, wide: int) -> int:
        best = max((s for (h, w), s in sizes if h <= high and w <= wide), default=0)
        if not best:
            return 0
        for at in widths:
            if at + kerf >= wide:
                break
            best = max(best, most(high, at) + most(high, wide - at - kerf))
        for at in heights:
            if at + kerf >= high:
                break
            best = max(best, most(at, wide) + most(high - at - kerf, wide))
        return best

    return most(*board)


def _places(sizes: Sequence[int], side: int, kerf: int) -> list[int]:
    """Where a side may be cut: after as many of these sizes as there is room for."""
    found = {0}
    for size in set(sizes):
        for at in sorted(found):
            beyond = at
            while beyond + size + (kerf if beyond else 0) <= side:
                beyond += size + (kerf if beyond else 0)
                found.add(beyond)
    return sorted(found - {0})


def _each_alone(sections: Sequence[Section]) -> Iterator[dict[Section, int]]:
    """Ways to give sections their shares: one has all of it."""
    for one in sections:
        yield {one: 1}


def _all_together(
    board: Size, kerf: int, sections: Sequence[Section]
) -> Iterator[dict[Section, int]]:
    """Ways to give sections their shares: by how many of one a board has room for, by area, and all
    alike."""
    counts = {one: most_share(board, kerf, {one: 1}) or 1 for one in sections}
    whole = lcm(*counts.values()) if counts else 1
    if whole > _MOST_COUNTED:
        counts, whole = dict.fromkeys(sections, 1), 1
    yield {one: whole // count for one, count in counts.items()}
    areas = {}
    for one in sections:
        high, wide = next(one.lying(board), (one.thickness, one.width))
        areas[one] = (high + kerf) * (wide + kerf)
    yield areas
    yield dict.fromkeys(sections, 1)


def most_worth_ripped(problem: CutProblem, worth: Mapping[str, int]) -> dict[str, int]:
    """The most worth that one piece of each stock (by id) holds, or somewhat more."""
    pieces = [
        piece for piece in pieces_of(problem) if sum(worth.get(part, 0) for part in piece.parts)
    ]
    return {stock.id: _of_board(problem, stock, pieces, worth) for stock in problem.stock}


class _Sawn:
    """What may be sawn out of a board: pieces (by number), each with its section."""

    def __init__(self, problem: CutProblem, stock: StockPiece, pieces: Sequence[Piece]) -> None:
        parts = {part.id: part for part in problem.parts}
        self.kerf = problem.kerf
        self.board = stock.thickness or 0, stock.width or 0
        self.long = 2 * (stock.length - problem.trim_start - problem.trim_end + problem.kerf)
        self.pieces = {
            number: (piece, section)
            for number, piece in enumerate(pieces)
            for section in [Section.of(parts[piece.parts[0]])]
            if piece.may_come_from(stock)
            and piece.size <= self.long
            and any(h <= self.board[0] and w <= self.board[1] for h, w in section.lying(self.board))
        }
        self.sections = list(dict.fromkeys(section for _, section in self.pieces.values()))

    def shared(self, ways: Iterator[dict[Section, int]]) -> Iterator[tuple[int, dict[int, Piece]]]:
        """The room of the board, and the pieces with the sizes that they have of it, for each way
        to share."""
        for shares in ways:
            most = most_share(self.board, self.kerf, shares)
            if most is not None:
                yield (
                    self.long * most,
                    {
                        number: replace(piece, size=piece.size * shares.get(section, 0))
                        for number, (piece, section) in self.pieces.items()
                    },
                )


def _of_board(
    problem: CutProblem, stock: StockPiece, pieces: Sequence[Piece], worth: Mapping[str, int]
) -> int:
    sawn = _Sawn(problem, stock, pieces)
    least = sum(
        piece.quantity * sum(worth.get(part, 0) for part in piece.parts)
        for piece, _ in sawn.pieces.values()
    )
    together = _all_together(sawn.board, sawn.kerf, sawn.sections)
    for room, sized in sawn.shared(chain(together, _each_alone(sawn.sections))):
        loads = Loads(list(sized.values()), worth, room)
        if loads.is_complete:
            least = min(least, loads.most(room))
    return least


def ways_to_fill(
    problem: CutProblem, stock: StockPiece, pieces: Sequence[Piece]
) -> list[tuple[int, tuple[int | None, ...]]]:
    """What a board has room for, seen in different ways, with the size of each piece on it by its
    number; ``None`` for one that it does not give."""
    sawn = _Sawn(problem, stock, pieces)
    numbers = range(len(pieces))
    return [
        (room, tuple(sized[number].size if number in sized else None for number in numbers))
        for room, sized in sawn.shared(_all_together(sawn.board, sawn.kerf, sawn.sections))
    ]
