"""What boards leave: for the rack, and for trial cuts."""

from carpentry.cutting import CutPlan, Layout, Leftover
from carpentry.language import TICKS_PER_INCH
from carpentry.lumber import Section
from carpentry.project.material import Material

SHORTEST_TEST_PIECE = 6 * TICKS_PER_INCH  # shorter ones are not held by hand; common practice


def kept_leftovers(layout: Layout) -> list[Leftover]:
    """The leftovers of a board that are worth keeping, from its marked end."""
    return sorted(
        (rest for rest in layout.leftover if rest.keep), key=lambda rest: (rest.start, rest.y or ())
    )


def section_left(rest: Leftover, board: Section | None) -> Section | None:
    """The section of a leftover of a board; ``None`` where that of the board is not known."""
    if rest.y is None or rest.z is None:
        return board
    return Section(rest.z[1] - rest.z[0], rest.y[1] - rest.y[0])


def test_piece(material: Material, plan: CutPlan) -> tuple[int, Leftover] | None:
    """The leftover of a board's whole section that is best cut up to set the saw: the shortest that
    can be held, with the number of its board from 0; ``None`` when there is none."""
    offers = {offer.id: offer for offer in material.offers}
    found: list[tuple[int, int, Leftover]] = []
    board = 0
    for layout in plan.layouts:
        section = material.section_of(offers[layout.stock])
        for rest in layout.leftover:
            if rest.length >= SHORTEST_TEST_PIECE and section_left(rest, section) == section:
                found.append((rest.length, board, rest))
        board += layout.count
    if not found:
        return None
    _, number, rest = min(found, key=lambda one: one[:2])
    return number, rest
