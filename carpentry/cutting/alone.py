"""Ripping one size after the other, each from boards of its own: what is done without a plan, and a
start that no ripped plan is dearer than."""

from dataclasses import replace
from time import monotonic

from carpentry.cutting.cross_section import RipPattern
from carpentry.cutting.holding import Holder
from carpentry.cutting.model import Board, Packing, Pattern
from carpentry.cutting.problem import CutProblem
from carpentry.cutting.ripped import Ripped, Segment, strip_of
from carpentry.cutting.search import search


def each_alone(problem: CutProblem, model: Ripped, seconds: float) -> Packing | None:
    """The boards of every size's own plan together, each searched for its share of the time;
    ``None`` where there is one size, or where limited stock gives parts up."""
    if len(model.strips) < 2:
        return None
    boards: list[Board] = []
    left = {piece.id: piece.available for piece in problem.stock}
    for strip in model.strips:
        parts = tuple(part for part in problem.parts if strip_of(part) == strip)
        stock = tuple(replace(piece, available=left[piece.id]) for piece in problem.stock)
        alone = Ripped(replace(problem, parts=parts, stock=stock))
        deadline = monotonic() + seconds / len(model.strips)
        packing = search(Holder(alone, deadline), lambda *_: None).packing
        if any(packing.missing):
            return None
        for board in packing.boards:
            boards.append(_adopted(model, alone, board))
            name = alone.sources[board.source].stock
            available = left[name]
            left[name] = None if available is None else available - 1
    held = [sum(board.pattern[item] for board in boards) for item in range(len(model.demand))]
    if any(n < d for n, d in zip(held, model.demand, strict=True)):
        return None
    return Packing(tuple(boards), tuple(0 for _ in model.demand))


def _adopted(model: Ripped, alone: Ripped, board: Board) -> Board:
    """A board of one size's model as a board of the whole one, with its recipe."""
    name = alone.sources[board.source].stock
    source = next(n for n, one in enumerate(model.sources) if one.stock == name)
    kind = model.kinds[model.sources[source].kind]
    usable = alone.kinds[alone.sources[board.source].kind].strips
    numbers = [kind.strips.index(model.strips.index(alone.strips[n])) for n in usable]
    known = {(model.strips[item.strip], item.shape): n for n, item in enumerate(model.items)}
    items = [known[alone.strips[item.strip], item.shape] for item in alone.items]
    segments = tuple(
        Segment(
            segment.size * alone.unit // model.unit,
            _renumbered(segment.pattern, numbers, len(kind.strips)),
            tuple(tuple(items[n] for n in strip) for strip in segment.strips),
        )
        for segment in alone.recipe(board)
    )
    pattern = [0] * len(model.items)
    for number, n in enumerate(board.pattern):
        pattern[items[number]] += n
    found: Pattern = tuple(pattern)
    model.recipes.setdefault((model.sources[source].kind, found), segments)
    return Board(source, found)


def _renumbered(pattern: RipPattern, numbers: list[int], sizes: int) -> RipPattern:
    counts = [0] * sizes
    for size, n in enumerate(pattern.counts):
        counts[numbers[size]] += n
    strips = tuple(replace(strip, size=numbers[strip.size]) for strip in pattern.strips)
    return RipPattern(tuple(counts), strips)
