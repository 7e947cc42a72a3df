"""Replays a plan as a builder would saw it, knowing nothing of how it was found."""

import math
from collections import Counter
from collections.abc import Iterator
from decimal import Decimal
from itertools import pairwise

from carpentry.cutting.plan import CutPlan, Layout, PlacedPart, Span, Status
from carpentry.cutting.problem import CutPart, CutProblem, StockPiece
from carpentry.cutting.replay import replay
from carpentry.design.ends import ways_to_lie
from carpentry.language import PlanCheckError, Problem


def check_plan(problem: CutProblem, plan: CutPlan) -> None:
    """Raises ``PlanCheckError`` with everything that is wrong with a plan for a problem.

    Every part is there once or listed as unplaced; every part lies in sound wood at its own size;
    the plan's cuts, made one after the other, each a kerf wide, in the allowed order and within
    what the saw can do, leave every part at exactly that size and place; no more of a stock is used
    than there is; leftovers are what remains; price and status add up.
    """
    faults = [
        *_board_faults(problem, plan),
        *_count_faults(problem, plan),
        *_money_faults(problem, plan),
    ]
    if faults:
        raise PlanCheckError(faults)


def _board_faults(problem: CutProblem, plan: CutPlan) -> Iterator[Problem]:
    """What goes wrong when the boards of a plan are cut."""
    parts = {part.id: part for part in problem.parts}
    stock = {piece.id: piece for piece in problem.stock}
    for number, layout in enumerate(plan.layouts):
        place = f"layouts[{number}]"
        if layout.stock not in stock:
            yield Problem(place, f"no stock is called {layout.stock}")
            continue
        if layout.count < 1:
            yield Problem(place, "a layout of no boards")
        for text in _saw(problem, stock[layout.stock], layout, parts):
            yield Problem(place, text)
        for text in _torn(problem, layout):
            yield Problem(place, text)


def _torn(problem: CutProblem, layout: Layout) -> Iterator[str]:
    """Sets that are kept together and do not lie so: one part after the other, in their order, a
    kerf between two. One of which some parts are cut already may lie as it likes."""
    for name in {part.together for part in problem.parts if part.together}:
        members = [part for part in problem.parts if part.together == name]
        order = [part.id for part in members]
        if len(order) < 2 or len({part.quantity for part in members}) > 1:
            continue
        mine = [one for one in layout.parts if one.part in order]
        lying = sorted(mine, key=lambda one: (one.y or (0, 0), one.z or (0, 0), one.start))
        for first in range(0, len(lying), len(order)):
            row = lying[first : first + len(order)]
            alike = len({(one.y, one.z) for one in row}) == 1
            close = all(b.start - a.end == problem.kerf for a, b in pairwise(row))
            if [one.part for one in row] != order or not alike or not close:
                yield f"{name} is not kept together"


def _count_faults(problem: CutProblem, plan: CutPlan) -> Iterator[Problem]:
    """Parts that are not there as often as they are wanted, and stock that there is less of."""
    wanted = Counter({part.id: part.quantity for part in problem.parts})
    cut = Counter({one.part: one.quantity for one in plan.unplaced})
    used: Counter[str] = Counter()
    for layout in plan.layouts:
        used[layout.stock] += layout.count
        for placed in layout.parts:
            cut[placed.part] += layout.count
    for name in {*wanted, *cut}:
        if cut[name] != wanted[name]:
            yield Problem(name, f"{cut[name]} accounted for, {wanted[name]} wanted")
    for piece in problem.stock:
        if piece.available is not None and used[piece.id] > piece.available:
            yield Problem(piece.id, f"{used[piece.id]} used, {piece.available} available")


def _money_faults(problem: CutProblem, plan: CutPlan) -> Iterator[Problem]:
    """A price, a bound or a status that says what is not so."""
    price = Decimal(0)
    for piece in problem.stock:
        cut = sum(layout.count for layout in plan.layouts if layout.stock == piece.id)
        if cut:
            bought = cut + problem.spare.boards + math.ceil(cut * problem.spare.percent / 100)
            if piece.available is not None:
                bought = min(bought, piece.available)
            price += piece.price * bought
    if price != plan.price:
        yield Problem("price", f"the boards cost {price}, the plan says {plan.price}")
    if plan.bound > plan.price:
        yield Problem("bound", "the proven bound is above the price")
    if (plan.status is Status.INCOMPLETE) != bool(plan.unplaced):
        yield Problem("status", "says otherwise than the unplaced parts")
    if plan.status is Status.OPTIMAL and plan.bound != plan.price:
        yield Problem("bound", "an optimal plan's bound is its price")


def layout_faults(problem: CutProblem, layout: Layout) -> list[str]:
    """What goes wrong when a board of this problem is cut so, in words."""
    piece = next((one for one in problem.stock if one.id == layout.stock), None)
    if piece is None:
        return [f"no stock is called {layout.stock}"]
    return _saw(problem, piece, layout, {part.id: part for part in problem.parts})


def _saw(
    problem: CutProblem, piece: StockPiece, layout: Layout, parts: dict[str, CutPart]
) -> list[str]:
    """What goes wrong when this board is cut."""
    wrong: list[str] = []
    if not layout.parts:
        wrong.append("a board that nothing is cut from")
    for placed in layout.parts:
        part = parts.get(placed.part)
        if part is None:
            wrong.append(f"no part is called {placed.part}")
        else:
            wrong += _misfits(problem, piece, part, placed)
    return wrong + _shared(problem, layout) + replay(problem, piece, layout)


def _shared(problem: CutProblem, layout: Layout) -> list[str]:
    """Neighbours in one strip whose ends one saw line makes, where that is not wanted."""
    in_strip = sorted(layout.parts, key=lambda one: (one.y or (), one.z or (), one.start))
    return [
        f"{one.part} and {other.part} share a saw line"
        for one, other in pairwise(in_strip)
        if (one.y, one.z) == (other.y, other.z) and other.start < one.end
        if not problem.share_angled_cuts
    ]


def _misfits(
    problem: CutProblem, piece: StockPiece, part: CutPart, placed: PlacedPart
) -> list[str]:
    """What is wrong with where a part lies and what size it has there."""
    wrong: list[str] = []
    sound = problem.trim_start, piece.length - problem.trim_end
    if placed.end - placed.start != part.sawn_length:
        wrong.append(f"{placed.part} is not cut to its length")
    if placed.start < sound[0] or placed.end > sound[1]:
        wrong.append(f"{placed.part} ends beyond sound wood")
    if part.on and piece.id not in part.on:
        wrong.append(f"{placed.part} may not come from {piece.id}")
    if part.clear and any(placed.start < end and start < placed.end for start, end in piece.flaws):
        wrong.append(f"{placed.part} lies on a flaw")
    ways = zip(ways_to_lie(part.edges), ways_to_lie(part.ends), strict=True)
    if (placed.edges, placed.ends) not in ways:
        wrong.append(f"{placed.part} has other ends or edges")
    if problem.is_ripped and piece.width is not None and piece.thickness is not None:
        across = placed.y or (0, piece.width), placed.z or (0, piece.thickness)
        wrong += _section_faults(problem, piece, part, *across)
    return wrong


def _section_faults(
    problem: CutProblem, piece: StockPiece, part: CutPart, y: Span, z: Span
) -> list[str]:
    """What is wrong with the section that a part is sawn to, and where that lies in the board."""
    board = piece.width or 0, piece.thickness or 0
    size = y[1] - y[0], z[1] - z[0]
    wrong: list[str] = []
    if part.whole:
        return [] if size == board else [f"{part.id} has not the section of its board"]
    if part.width is None or part.thickness is None:
        return []
    across, through = (part.width, part.extra.width), (part.thickness, part.extra.thickness)
    ways = [(across, through), (through, across)] if part.turn else [(across, through)]
    if not any(
        all(
            real == own + more or real == own == most
            for real, most, (own, more) in zip(size, board, way, strict=True)
        )
        for way in ways
    ):
        wrong.append(f"{part.id} is not ripped to its section")
    if not part.rip and size[0] != board[0]:
        wrong.append(f"{part.id} may not be ripped")
    if not part.resaw and size[1] != board[1]:
        wrong.append(f"{part.id} may not be resawn")
    eased = max(problem.eased, piece.corner)
    low, high = eased + piece.crook, board[0] - eased
    if (piece.crook or size[0] != board[0]) and not low <= y[0] <= y[1] <= high:
        wrong.append(f"{part.id} reaches beyond the straight wood across its board")
    return wrong
