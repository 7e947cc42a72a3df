"""Boards that were planned for some of the parts, taken over into the plan for all of them."""

from dataclasses import replace

from carpentry.cutting.ripped.model import RippedModel
from carpentry.cutting.ripped.rip_patterns import RipPattern
from carpentry.cutting.search.model import FilledBoard, Pattern


def adopted(model: RippedModel, some: RippedModel, board: FilledBoard) -> FilledBoard:
    """A board of a model of some of the parts as a board of the whole one, which then knows how it
    is cut."""
    source = model.source_of[some.sources[board.source].stock]
    kind = model.kinds[model.sources[source].kind]
    usable = some.kinds[some.sources[board.source].kind].strips
    numbers = [kind.strips.index(model.strips.index(some.strips[n])) for n in usable]
    items = [model.item_of[key] for key in some.item_of]
    segments = tuple(
        replace(
            segment,
            size=segment.size * some.unit // model.unit,
            pattern=_renumbered(segment.pattern, numbers, len(kind.strips)),
            strips=tuple(tuple(items[n] for n in strip) for strip in segment.strips),
        )
        for segment in some.recipe(board)
    )
    pattern = [0] * len(model.items)
    for number, n in enumerate(board.pattern):
        pattern[items[number]] += n
    found: Pattern = tuple(pattern)
    model.recipes.setdefault((model.sources[source].kind, found), segments)
    return FilledBoard(source, found)


def given_over(some: RippedModel, model: RippedModel, board: FilledBoard) -> FilledBoard:
    """The other way round: a board of the whole model as one of a model of some of the parts."""
    source = some.source_of[model.sources[board.source].stock]
    return FilledBoard(source, tuple(board.pattern[model.item_of[key]] for key in some.item_of))


def _renumbered(pattern: RipPattern, numbers: list[int], sizes: int) -> RipPattern:
    counts = [0] * sizes
    for size, n in enumerate(pattern.counts):
        counts[numbers[size]] += n
    strips = tuple(replace(strip, size=numbers[strip.size]) for strip in pattern.strips)
    return RipPattern(tuple(counts), strips)
