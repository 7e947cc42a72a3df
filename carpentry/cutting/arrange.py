"""From packings to layouts: where every part lies on its board."""

from collections import Counter
from collections.abc import Hashable, Iterable, Iterator

from carpentry.cutting.line import Line
from carpentry.cutting.model import Board, Packing
from carpentry.cutting.plan import Layout, Leftover, PlacedPart, Span
from carpentry.cutting.problem import CutPart, CutProblem, StockPiece
from carpentry.cutting.ripped import Ripped, Segment, strip_of


class _Waiting:
    """Parts that have no place yet, alike ones in the order of the problem."""

    def __init__(self, parts: Iterable[tuple[Hashable, CutPart]]) -> None:
        self._parts: dict[Hashable, list[CutPart]] = {}
        for key, part in parts:
            self._parts.setdefault(key, []).extend([part] * part.quantity)

    def take(self, key: Hashable) -> CutPart:
        """The next part that is alike."""
        return self._parts[key].pop(0)


def _together(layouts: Iterable[Layout]) -> tuple[Layout, ...]:
    """Equal boards as one layout with a count."""
    counted = Counter(layouts)
    return tuple(
        Layout(layout.stock, count, layout.parts, layout.leftover)
        for layout, count in counted.items()
    )


def lay_out(problem: CutProblem, piece: StockPiece, parts: Iterable[CutPart]) -> Layout:
    """``parts`` one after the other from the start of sound wood on ``piece``."""
    at = problem.trim_start
    placed: list[PlacedPart] = []
    for part in parts:
        placed.append(PlacedPart(part.id, at, at + part.sawn_length))
        at += part.sawn_length + problem.kerf
    sound_end = piece.length - problem.trim_end
    rest = (Leftover(at, sound_end),) if sound_end > at else ()
    return Layout(piece.id, 1, tuple(placed), rest)


def arrange_line(problem: CutProblem, line: Line, packing: Packing) -> tuple[Layout, ...]:
    """Boards in the order of the stock, longest parts first, equal ones together."""
    waiting = _Waiting((part.sawn_length, part) for part in problem.parts)
    pieces = {piece.id: piece for piece in problem.stock}

    def order(board: Board) -> tuple[int, tuple[int, ...]]:
        return board.source, tuple(-n for n in board.pattern)

    def parts_of(board: Board) -> Iterator[CutPart]:
        for length, copies in zip(line.lengths, board.pattern, strict=True):
            for _ in range(copies):
                yield waiting.take(length)

    return _together(
        lay_out(problem, pieces[line.sources[board.source].stock], parts_of(board))
        for board in sorted(packing.boards, key=order)
    )


def arrange_ripped(problem: CutProblem, model: Ripped, packing: Packing) -> tuple[Layout, ...]:
    """Boards in the order of the stock, each with its segments and strips, equal ones together."""
    bench = _RipBench(problem, model)

    def order(board: Board) -> tuple[int, tuple[int, ...]]:
        return board.source, tuple(-n for n in board.pattern)

    return _together(bench.lay_out(board) for board in sorted(packing.boards, key=order))


class _RipBench:
    """Lays out one board after the other from the parts that still wait."""

    def __init__(self, problem: CutProblem, model: Ripped) -> None:
        self.problem = problem
        self.model = model
        self.pieces = {piece.id: piece for piece in problem.stock}
        self.waiting = _Waiting(
            ((strip_of(part), part.sawn_length), part) for part in problem.parts
        )

    def lay_out(self, board: Board) -> Layout:
        problem, model = self.problem, self.model
        piece = self.pieces[model.sources[board.source].stock]
        placed: list[PlacedPart] = []
        rests: list[Leftover] = []
        left = list(board.pattern)
        at = problem.trim_start
        sound_end = piece.length - problem.trim_end
        for segment in model.recipe(board):
            end = at + segment.size * model.unit - problem.kerf
            here = list(self._parts(segment, at, left))
            if here:
                placed += here
                rests += self._rests(piece, segment, here, (at, min(end, sound_end)))
                at = end + problem.kerf
        if sound_end > at:
            whole = (0, piece.width or 0), (0, piece.thickness or 0)
            rests.append(Leftover(at, sound_end, *whole))
        return Layout(piece.id, 1, tuple(placed), tuple(rests))

    def _parts(self, segment: Segment, at: int, left: list[int]) -> Iterator[PlacedPart]:
        """The parts of a segment that begins at ``at``, no more of an item than ``left``."""
        for strip, items in zip(segment.pattern.strips, segment.strips, strict=True):
            x = at
            for number in (n for n in items if left[n]):
                item = self.model.items[number]
                part = self.waiting.take((self.model.strips[item.strip], item.length))
                left[number] -= 1
                yield PlacedPart(part.id, x, x + item.length, strip.y, strip.z)
                x += item.length + self.problem.kerf

    def _rests(
        self, piece: StockPiece, segment: Segment, placed: list[PlacedPart], along: Span
    ) -> Iterator[Leftover]:
        """What a segment leaves: the ends of its strips, and the width beside the last of them."""
        kerf = self.problem.kerf
        for strip in segment.pattern.strips:
            ends = [part.end for part in placed if (part.y, part.z) == (strip.y, strip.z)]
            start = max(ends) + kerf if ends else along[0]
            if along[1] > start:
                yield Leftover(start, along[1], strip.y, strip.z)
        beside = max(strip.y[1] for strip in segment.pattern.strips) + kerf
        if piece.width and piece.thickness and piece.width > beside:
            yield Leftover(*along, (beside, piece.width), (0, piece.thickness))
