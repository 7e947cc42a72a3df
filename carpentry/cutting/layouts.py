"""Where parts lie on their boards: what every way of cutting has in common."""

from collections import Counter
from collections.abc import Hashable, Iterable
from dataclasses import replace

from carpentry.cutting.plan import Layout, PlacedPart
from carpentry.cutting.problem import CutPart, CutProblem, StockPiece
from carpentry.cutting.search.model import FilledBoard
from carpentry.design.ends import EndAngle, Ends, turned

Placing = tuple[CutPart, Ends | None]  # a part, and how its ends lie unless that is open


class Waiting:
    """Parts that have no place yet, alike ones in the order of the problem, but those that show
    first."""

    def __init__(self, parts: Iterable[tuple[Hashable, CutPart]]) -> None:
        self._parts: dict[Hashable, list[CutPart]] = {}
        for key, part in sorted(parts, key=lambda one: not one[1].show):
            self._parts.setdefault(key, []).extend([part] * part.quantity)

    def take(self, key: Hashable) -> CutPart:
        """The next part that is alike."""
        return self._parts[key].pop(0)


def in_order(board: FilledBoard) -> tuple[int, tuple[int, ...]]:
    """What boards are sorted by: by their stock, then fuller ones first."""
    return board.source, tuple(-n for n in board.pattern)


def put_together(problem: CutProblem, layouts: Iterable[Layout]) -> tuple[Layout, ...]:
    """Single boards in the order of the stock, equal ones as one layout with a count; of one stock
    those with most parts that show come first."""
    counted = Counter(layouts)
    show = {part.id for part in problem.parts if part.show}
    stocks = [piece.id for piece in problem.stock]

    def order(layout: Layout) -> tuple[int, int]:
        return stocks.index(layout.stock), -sum(placed.part in show for placed in layout.parts)

    return tuple(replace(layout, count=counted[layout]) for layout in sorted(counted, key=order))


def lay_out(
    problem: CutProblem, piece: StockPiece, runs: Iterable[tuple[int, Iterable[Placing]]]
) -> Layout:
    """On ``piece`` the parts of each run, one after the other from where it begins (ticks)."""
    placed: list[PlacedPart] = []
    for start, parts in runs:
        placed += _in_line(problem, start, parts)
    return Layout(piece.id, 1, tuple(placed))


def _in_line(problem: CutProblem, start: int, parts: Iterable[Placing]) -> list[PlacedPart]:
    """Parts one after the other. Where saw lines may be shared a part whose way to lie is open is
    turned so that its end runs like its neighbour's."""
    placed: list[PlacedPart] = []
    end, before = start, EndAngle()
    for part, way in parts:
        ends = way or part.ends
        if way is None and problem.share_angled_cuts and placed and before.degrees:
            ends = turned(ends, before.flipped)
        start = end
        if placed:
            apart = max(before.saw(problem.kerf), ends[0].saw(problem.kerf))
            start += apart - (_reach(part, ends[0]) if _shared(problem, before, ends[0]) else 0)
        end, before = start + part.sawn_length, ends[1]
        placed.append(PlacedPart(part.id, start, end, ends=ends))
    return placed


def _reach(part: CutPart, end: EndAngle) -> int:
    return end.reach(part.thickness or 0, part.width or 0)


def _shared(problem: CutProblem, right: EndAngle, left: EndAngle) -> bool:
    """Whether one saw line makes the right end of a part and the left end of the next."""
    return problem.share_angled_cuts and bool(left.degrees) and left == right.flipped
