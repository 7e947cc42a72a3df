"""A ripped plan made cheaper: a few boards at a time are taken out, and what they hold is planned
anew, with every load listed."""

import random
from collections.abc import Iterator, Sequence
from dataclasses import replace
from math import prod

from carpentry.cutting.problem import CutProblem
from carpentry.cutting.ripped.model import RippedModel
from carpentry.cutting.ripped.numbers import strip_of
from carpentry.cutting.ripped.taken_over import adopted, given_over
from carpentry.cutting.search.cheapest import search
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.holding import Holder
from carpentry.cutting.search.model import FilledBoard, Packing

_MOST_LOADS = 100_000
_MOST_BOARDS = 4
_SECONDS = 2.0
_MOST_IDLE = 60


def better_packings(
    problem: CutProblem, model: RippedModel, packing: Packing, clock: Clock
) -> Iterator[Packing]:
    """Packings, each better than the one before, for as long as there is time and exchanges
    help."""
    chance = random.Random(1)
    idle = 0
    while idle < _MOST_IDLE and not clock.is_over:
        idle += 1
        out = _some_boards(model, packing, chance)
        if len(out) < 2:
            continue
        kept = [board for n, board in enumerate(packing.boards) if n not in out]
        taken = [packing.boards[n] for n in out]
        anew = _anew(problem, model, taken, kept, clock.within(_SECONDS))
        better = Packing((*kept, *anew), packing.missing)
        if better.key(model) < packing.key(model):
            packing, idle = better, 0
            yield packing


def _some_boards(model: RippedModel, packing: Packing, chance: random.Random) -> list[int]:
    """Numbers of boards whose loads together are few enough to list what any board may hold."""
    numbers = list(range(len(packing.boards)))
    chance.shuffle(numbers)
    chosen: list[int] = []
    total = [0] * len(model.items)
    for number in numbers:
        with_it = [a + b for a, b in zip(total, packing.boards[number].pattern, strict=True)]
        if prod(n + 1 for n in with_it) <= _MOST_LOADS:
            chosen.append(number)
            total = with_it
        if len(chosen) == _MOST_BOARDS:
            break
    return chosen


def _anew(
    problem: CutProblem,
    model: RippedModel,
    taken: Sequence[FilledBoard],
    kept: Sequence[FilledBoard],
    clock: Clock,
) -> list[FilledBoard]:
    """The cheapest boards for what some boards hold, beside those that are kept."""
    used = [model.sources[board.source].stock for board in kept]
    stock = tuple(
        replace(piece, available=piece.available - used.count(piece.id))
        if piece.available is not None
        else piece
        for piece in problem.stock
    )
    examples = {(strip_of(part), problem.shape(part)): part for part in problem.parts}
    parts = []
    for key, number in model.item_of.items():
        count = sum(board.pattern[number] for board in taken)
        if count:
            parts.append(replace(examples[key], id=str(number), quantity=count))
    some = RippedModel(replace(problem, parts=tuple(parts), stock=stock))
    if not some.list_loads(clock):
        return list(taken)
    start = Packing(
        tuple(given_over(some, model, board) for board in taken), tuple(0 for _ in some.demand)
    )
    found = search(Holder(some, clock), lambda *_: None, start).packing
    return list(taken) if found == start else [adopted(model, some, b) for b in found.boards]
