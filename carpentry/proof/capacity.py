"""What boards of a problem hold: the most worth of one, and whether some of them hold all parts."""

from collections.abc import Iterator, Mapping, Sequence
from operator import mul

from carpentry.cutting.problem import CutProblem
from carpentry.proof.boards import LineBoard, TooMany, pieces_of
from carpentry.proof.proof import Counts as Purchase
from carpentry.proof.proof import Line
from carpentry.proof.ripped import RippedBoard, Sawing
from carpentry.proof.sections import Counts

_MOST_STEPS = 100_000  # loads of boards that are tried
_MOST_LISTED = 2_000  # loads of one board that are tried for the most worth
_MOST_PIECES = 300
_FINE = 1_000  # of the largest
_Board = LineBoard | RippedBoard
_Sections = dict[tuple[object, tuple[bool, ...]], Sawing]


class Capacity:
    """What the boards of a problem hold. It remembers what it has tried."""

    def __init__(self, problem: CutProblem) -> None:
        self.problem = problem
        self.pieces = pieces_of(problem)
        self.boards = dict(self._boards())

    def _boards(self) -> Iterator[tuple[str, _Board]]:
        sawn: _Sections = {}
        for stock in self.problem.stock:
            may = tuple(piece.may_come_from(stock) for piece in self.pieces)
            if not self.problem.is_ripped:
                yield stock.id, LineBoard(self.problem, stock, self.pieces, may)
                continue
            section = stock.thickness or 0, stock.width or 0
            if (section, may) not in sawn:
                sawn[section, may] = Sawing(self.problem, section, self.pieces, may)
            yield stock.id, RippedBoard(sawn[section, may], self.problem, stock)

    def usual_worths(self) -> Iterator[dict[str, int]]:
        """Parts by number, and where boards are ripped by length and by volume."""
        yield {part.id: 1 for part in self.problem.parts}
        if self.problem.is_ripped:
            parts = {part.id: part for part in self.problem.parts}
            kerf = self.problem.kerf
            lengths = {piece.parts[0]: piece.size for piece in self.pieces}
            volumes = {
                name: size * ((one.thickness or 0) + kerf) * ((one.width or 0) + kerf)
                for name, size in lengths.items()
                for one in [parts[name]]
            }
            for sizes in (lengths, volumes):
                longest = max(sizes.values(), default=1)
                yield {name: -(-size * _FINE // longest) for name, size in sizes.items()}

    def most_worth(self, worth: Mapping[str, int]) -> dict[str, int] | None:
        """The most worth that one piece of each stock (by id) holds, or somewhat more; ``None``
        where nobody can tell."""
        values = self.values(worth)
        found = {}
        for name, board in self.boards.items():
            most = board.most_worth(values)
            if most is None:
                return None
            if isinstance(board, RippedBoard):
                most = self._most_listed(board, values, most)
            found[name] = most
        return found

    def values(self, worth: Mapping[str, int]) -> Counts:
        """What one of each piece is worth."""
        return tuple(sum(worth.get(part, 0) for part in piece.parts) for piece in self.pieces)

    def _most_listed(self, board: RippedBoard, values: Counts, most: int) -> int:
        """The same by every load of a board that is worth more than the best one found."""
        order = sorted(
            (n for n, value in enumerate(values) if value),
            key=lambda n: -values[n] / self.pieces[n].size,
        )
        to_come = [0] * (len(order) + 1)
        for at in range(len(order) - 1, -1, -1):
            n = order[at]
            to_come[at] = to_come[at + 1] + values[n] * self.pieces[n].quantity
        best = steps = 0

        def load(at: int, counts: Counts, value: int) -> None:
            nonlocal best, steps
            best = max(best, value)
            if best >= most or value + to_come[at] <= best:
                return
            n = order[at]
            loads = [counts]
            for count in range(1, self.pieces[n].quantity + 1):
                steps += 1
                if steps > _MOST_LISTED:
                    raise TooMany
                more = (*counts[:n], count, *counts[n + 1 :])
                if not board.has_room(more):
                    break
                loads.append(more)
            for count in range(len(loads) - 1, -1, -1):
                load(at + 1, loads[count], value + values[n] * count)

        try:
            load(0, tuple(0 for _ in values), 0)
        except TooMany:
            return most
        return best

    def is_refuted(self, purchase: Purchase, lines: Sequence[Line]) -> bool:
        """Whether so many pieces of each stock hold not all parts, whichever way they are filled,
        flaws left aside. No board is filled with less than what the others leave to it by any of
        the lines. False where they may hold them, and where there are too many ways to try."""
        wanted = tuple(piece.quantity for piece in self.pieces)
        if sum(wanted) > _MOST_PIECES:
            return False
        names = [name for name, n in purchase.items() for _ in range(min(n, sum(wanted)))]
        try:
            return not _Filling(self, names, lines).fills(0, wanted)
        except TooMany:
            return False


class _Filling:
    """Boards filled one after the other, each with as much as there is room for."""

    def __init__(self, capacity: Capacity, names: Sequence[str], lines: Sequence[Line]) -> None:
        self.capacity = capacity
        self.names = names
        self.values = [capacity.values(line.worth) for line in lines]
        self.holds = [[line.holds.get(name, 0) for name in names] for line in lines]
        self.steps = 0
        self.failed: set[tuple[int, Counts]] = set()
        wanted = tuple(piece.quantity for piece in capacity.pieces)
        slack = [
            sum(holds) - _worth(values, wanted)
            for values, holds in zip(self.values, self.holds, strict=True)
        ]
        self.loads: dict[str, list[Counts]] = {}
        for at, name in enumerate(names):
            if name not in self.loads:
                asked = [holds[at] - s for holds, s in zip(self.holds, slack, strict=True)]
                self.loads[name] = list(self._full_loads(name, wanted, asked))

    def fills(self, at: int, left: Counts) -> bool:
        """Whether boards from one on have room for what is left. Raises ``TooMany``."""
        if not any(left):
            return True
        if at == len(self.names) or (at, left) in self.failed:
            return False
        asked = [
            _worth(values, left) - sum(holds[at + 1 :])
            for values, holds in zip(self.values, self.holds, strict=True)
        ]
        for load in {tuple(map(min, load, left)) for load in self.loads[self.names[at]]}:
            self._step()
            worths = (_worth(values, load) for values in self.values)
            if all(worth >= least for worth, least in zip(worths, asked, strict=True)):
                rest = tuple(have - n for have, n in zip(left, load, strict=True))
                if self.fills(at + 1, rest):
                    return True
        self.failed.add((at, left))
        return False

    def _step(self) -> None:
        self.steps += 1
        if self.steps > _MOST_STEPS:
            raise TooMany

    def _full_loads(self, name: str, wanted: Counts, asked: Sequence[int]) -> Iterator[Counts]:
        """The loads of a board that are worth what is asked of them and to which nothing can be
        added."""
        board, pieces = self.capacity.boards[name], self.capacity.pieces
        order = sorted(range(len(pieces)), key=lambda n: -pieces[n].size)
        to_come = [[0] * (len(order) + 1) for _ in self.values]
        for of, values in zip(to_come, self.values, strict=True):
            for at in range(len(order) - 1, -1, -1):
                of[at] = of[at + 1] + values[order[at]] * wanted[order[at]]

        def add(at: int, counts: Counts, worths: Sequence[int]) -> Iterator[Counts]:
            if any(w + of[at] < a for w, of, a in zip(worths, to_come, asked, strict=True)):
                return
            if at == len(order):
                open_ = (n for n, have in enumerate(counts) if have < wanted[n])
                if not any(board.has_room(_one_more(counts, n)) for n in open_):
                    yield counts
                return
            n = order[at]
            loads = [counts]
            while loads[-1][n] < wanted[n]:
                self._step()
                more = _one_more(loads[-1], n)
                if not board.has_room(more):
                    break
                loads.append(more)
            for one in reversed(loads):
                worth = [w + v[n] * one[n] for w, v in zip(worths, self.values, strict=True)]
                yield from add(at + 1, one, worth)

        return add(0, tuple(0 for _ in wanted), [0] * len(asked))


def _worth(values: Counts, counts: Counts) -> int:
    return sum(map(mul, values, counts))


def _one_more(counts: Counts, number: int) -> Counts:
    return (*counts[:number], counts[number] + 1, *counts[number + 1 :])
