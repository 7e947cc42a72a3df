"""Replays a plan as a builder would saw it, knowing nothing of how it was found."""

from collections import Counter
from decimal import Decimal

from carpentry.cutting.plan import CutPlan, Layout, Status
from carpentry.cutting.problem import CutPart, CutProblem, StockPiece
from carpentry.errors import PlanCheckError, Problem


def check_plan(problem: CutProblem, plan: CutPlan) -> None:
    """Raises ``PlanCheckError`` with everything that is wrong with a plan for a problem.

    Every part is there once or listed as unplaced; every part lies in sound wood at its own length
    with the kerf between it and the next; no more of a stock is used than there is; leftovers are
    what remains; price and status add up.
    """
    faults: list[Problem] = []
    parts = {part.id: part for part in problem.parts}
    stock = {piece.id: piece for piece in problem.stock}
    cut: Counter[str] = Counter()
    used: Counter[str] = Counter()
    price = Decimal(0)
    for number, layout in enumerate(plan.layouts):
        place = f"layouts[{number}]"
        piece = stock.get(layout.stock)
        if piece is None:
            faults.append(Problem(place, f"no stock is called {layout.stock}"))
            continue
        if layout.count < 1:
            faults.append(Problem(place, "a layout of no boards"))
        used[piece.id] += layout.count
        price += piece.price * layout.count
        faults += [Problem(place, text) for text in _saw(problem, piece, layout, parts)]
        for placed in layout.parts:
            cut[placed.part] += layout.count
    for unplaced in plan.unplaced:
        cut[unplaced.part] += unplaced.quantity
    for name in {*parts, *cut}:
        wanted = parts[name].quantity if name in parts else 0
        if cut[name] != wanted:
            faults.append(Problem(name, f"{cut[name]} accounted for, {wanted} wanted"))
    for name, count in used.items():
        available = stock[name].available
        if available is not None and count > available:
            faults.append(Problem(name, f"{count} used, {available} available"))
    if price != plan.price:
        faults.append(Problem("price", f"the boards cost {price}, the plan says {plan.price}"))
    if plan.bound > plan.price:
        faults.append(Problem("bound", "the proven bound is above the price"))
    if (plan.status is Status.INCOMPLETE) != bool(plan.unplaced):
        faults.append(Problem("status", "says otherwise than the unplaced parts"))
    if plan.status is Status.OPTIMAL and plan.bound != plan.price:
        faults.append(Problem("bound", "an optimal plan's bound is its price"))
    if faults:
        raise PlanCheckError(faults)


def _saw(
    problem: CutProblem, piece: StockPiece, layout: Layout, parts: dict[str, CutPart]
) -> list[str]:
    """What goes wrong when this board is cut from its marked end."""
    wrong: list[str] = []
    sound_from = problem.trim_start
    sound_to = piece.length - problem.trim_end
    if not layout.parts:
        wrong.append("a board that nothing is cut from")
    at = sound_from
    for placed in layout.parts:
        part = parts.get(placed.part)
        if part is None:
            wrong.append(f"no part is called {placed.part}")
            continue
        if placed.end - placed.start != part.length:
            wrong.append(f"{placed.part} is not cut to its length")
        if placed.start < at:
            wrong.append(f"{placed.part} begins before the saw is clear of what is left of it")
        if placed.end > sound_to:
            wrong.append(f"{placed.part} ends beyond sound wood")
        at = placed.end + problem.kerf
    claimed = [(rest.start, rest.end) for rest in layout.leftover]
    remains = [(at, sound_to)] if sound_to > at else []
    if claimed != remains:
        wrong.append("the leftover is not what remains")
    return wrong
