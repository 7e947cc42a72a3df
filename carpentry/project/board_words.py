"""What is said of a material's boards, which are numbered from some number on."""

from collections.abc import Iterable

from carpentry.cutting import CutPlan
from carpentry.language import Notation, sold_name, write_length
from carpentry.project.leftovers import test_piece
from carpentry.project.material import Material


def lengths_told(material: Material, plan: CutPlan | None, notation: Notation) -> str:
    """How many boards of each length a plan takes: ``2 of 8 ft, 1 of 12 ft from the rack``."""
    counts = {offer.id: 0 for offer in material.offers}
    for layout in plan.layouts if plan else ():
        counts[layout.stock] += layout.count
    return ", ".join(
        f"{counts[offer.id]} of {f'{offer.stock} ' if material.ripped else ''}"
        f"{sold_name(offer.length, notation)}" + (" from the rack" if offer.owned else "")
        for offer in material.offers
        if counts[offer.id]
    )


def best_boards_told(material: Material, plan: CutPlan | None, first: int) -> str:
    """Which boards hold parts that are seen; empty where all do or none does."""
    seen = {named.id for named in material.parts if named.part.show}
    numbers: list[int] = []
    hidden = False
    for layout in plan.layouts if plan else ():
        shows = any(placed.part in seen for placed in layout.parts)
        numbers += range(first, first + layout.count) if shows else ()
        hidden = hidden or not shows
        first += layout.count
    if not numbers or not hidden:
        return ""
    boards = f"board {numbers[0]}" if len(numbers) == 1 else f"boards {listed(numbers)}"
    return f"the best boards for what is seen: {boards}"


def listed(numbers: Iterable[int]) -> str:
    """Numbers in words, those in a row together: 1 to 3, 5."""
    runs: list[list[int]] = []
    for number in numbers:
        if runs and runs[-1][-1] == number - 1:
            runs[-1].append(number)
        else:
            runs.append([number])
    return ", ".join(
        f"{run[0]} to {run[-1]}" if len(run) > 2 else ", ".join(map(str, run)) for run in runs
    )


def test_piece_told(
    material: Material, plan: CutPlan | None, first: int, notation: Notation
) -> str:
    """Where the piece for trial cuts comes from; empty where nothing is cut."""
    if plan is None or not plan.layouts:
        return ""
    found = test_piece(material, plan)
    if found is None:
        return "no leftover is long enough for a test piece"
    index, rest = found
    length = write_length(rest.length, notation).text
    return f"test piece for setting up: {length} left of board {first + index}"
