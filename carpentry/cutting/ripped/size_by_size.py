"""Ripping one size after the other, each from boards of its own: what is done without a plan, and a
start that no ripped plan is dearer than."""

from dataclasses import replace

from carpentry.cutting.problem import CutProblem
from carpentry.cutting.ripped.model import RippedModel
from carpentry.cutting.ripped.numbers import strip_of
from carpentry.cutting.ripped.taken_over import adopted
from carpentry.cutting.search.cheapest import search
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.holding import Holder
from carpentry.cutting.search.model import FilledBoard, Packing


def each_alone(problem: CutProblem, model: RippedModel, clock: Clock) -> Packing | None:
    """The boards of every size's own plan together, each searched briefly; ``None`` where there is
    one size, or where limited stock gives parts up."""
    if len(model.strips) < 2:
        return None
    boards: list[FilledBoard] = []
    left = {piece.id: piece.available for piece in problem.stock}
    for number, strip in enumerate(model.strips):
        parts = tuple(part for part in problem.parts if strip_of(part) == strip)
        stock = tuple(replace(piece, available=left[piece.id]) for piece in problem.stock)
        alone = RippedModel(replace(problem, parts=parts, stock=stock))
        own = clock.part(1 / (len(model.strips) - number))
        alone.list_loads(own)
        packing = search(Holder(alone, own), lambda *_: None, briefly=True).packing
        if any(packing.missing):
            return None
        for board in packing.boards:
            boards.append(adopted(model, alone, board))
            name = alone.sources[board.source].stock
            available = left[name]
            left[name] = None if available is None else available - 1
    held = [sum(board.pattern[item] for board in boards) for item in range(len(model.demand))]
    if any(n < d for n, d in zip(held, model.demand, strict=True)):
        return None
    return Packing(tuple(boards), tuple(0 for _ in model.demand))
