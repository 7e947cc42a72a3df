"""What boards leave: for the rack, and for trial cuts."""

from carpentry.cutting import CutPlan, Layout, Leftover
from carpentry.length import TICKS_PER_INCH

SHORTEST_TEST_PIECE = 6 * TICKS_PER_INCH  # shorter ones are not held by hand; common practice


def whole_leftover(layout: Layout) -> Leftover | None:
    """The leftover that has the whole section of its board, the longest; ``None`` for none."""
    last = max((part.end for part in layout.parts), default=0)
    whole = [rest for rest in layout.leftover if rest.start >= last]
    return max(whole, key=lambda rest: rest.length, default=None)


def test_piece(plan: CutPlan) -> tuple[int, Leftover] | None:
    """The leftover of the whole section that is best cut up to set the saw: the shortest that can
    be held, with the number of its board from 0; ``None`` when there is none."""
    found: list[tuple[int, int, Leftover]] = []
    board = 0
    for layout in plan.layouts:
        rest = whole_leftover(layout)
        if rest and rest.length >= SHORTEST_TEST_PIECE:
            found.append((rest.length, board, rest))
        board += layout.count
    if not found:
        return None
    _, number, rest = min(found, key=lambda one: one[:2])
    return number, rest
