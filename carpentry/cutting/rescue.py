"""When a plan is refused by the check: its good boards, and what lay on the others each on a board
of its own. Dear, but right; a builder never stands there without a plan."""

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import replace

from carpentry.cutting.check import layout_faults
from carpentry.cutting.layouts import put_together
from carpentry.cutting.plan import Layout, PlacedPart
from carpentry.cutting.problem import CutPart, CutProblem, StockPiece
from carpentry.cutting.sawing import with_cuts


def rescued(problem: CutProblem, layouts: Iterable[Layout]) -> tuple[Layout, ...]:
    """The boards that pass the check, and for every part that is left the cheapest board that it
    comes from alone, as long as there are any."""
    wanted = Counter({part.id: part.quantity for part in problem.parts})
    free = {piece.id: piece.available for piece in problem.stock}
    kept: list[Layout] = []

    def take(layout: Layout) -> bool:
        left = free[layout.stock]
        held = Counter(placed.part for placed in layout.parts)
        if left == 0 or not held <= wanted:
            return False
        wanted.subtract(held)
        free[layout.stock] = None if left is None else left - 1
        kept.append(layout)
        return True

    for layout in layouts:
        if not layout_faults(problem, layout):
            for _ in range(layout.count):
                take(replace(layout, count=1))
    for part in problem.parts:
        if not wanted[part.id]:
            continue
        for alone in _alone(problem, part):
            while wanted[part.id] and take(alone):
                pass
    return put_together(problem, kept)


def _alone(problem: CutProblem, part: CutPart) -> Iterator[Layout]:
    """Boards that give this part alone, the cheapest first."""
    for piece in sorted(problem.stock, key=lambda one: one.price):
        for placed in _places(problem, part, piece):
            layout = with_cuts(problem, Layout(piece.id, 1, (placed,)))
            if not layout_faults(problem, layout):
                yield layout
                break


def _places(problem: CutProblem, part: CutPart, piece: StockPiece) -> Iterator[PlacedPart]:
    """Where a part may lie on a board of its own: after the first trim, and after its flaws."""
    starts = [problem.trim_start, *(end + problem.kerf for _, end in piece.flaws)]
    for start in starts:
        end = start + part.sawn_length
        if not problem.is_ripped or part.width is None or part.thickness is None:
            yield PlacedPart(part.id, start, end, ends=part.ends)
            continue
        low, _ = problem.straight_edges(piece)
        wide, high = piece.width or 0, piece.thickness or 0
        sizes = [(part.width, part.thickness), (part.thickness, part.width)]
        for across, through in sizes if part.turn else sizes[:1]:
            whole = part.whole or (across == wide and not piece.crook)
            saw = part.edges[0].saw(problem.kerf) - problem.kerf
            first = 0 if whole else low + saw
            more = 0 if whole else part.extra.width
            y = (0, wide) if part.whole else (first, first + across + more)
            deep = through if through == high else through + part.extra.thickness
            z = (0, high) if part.whole else (0, deep)
            yield PlacedPart(part.id, start, end, y, z, part.ends, part.edges)
