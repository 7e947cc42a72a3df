"""Parts that are kept together: cut from one board one after the other, a kerf between two, so that
their grain runs on. To the planner such a set is one part; on its boards it is its parts again."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import replace

from carpentry.cutting.plan import CutPlan, Layout, PlacedPart, Unplaced
from carpentry.cutting.problem import CutPart, CutProblem, sets_of
from carpentry.cutting.sawing import with_cuts

Sets = Mapping[str, Sequence[CutPart]]  # by the id of the first part of each


def joined(problem: CutProblem) -> tuple[CutProblem, Sets]:
    """The problem with every set as one part, and the sets. One that is there no more as a whole,
    as some of it was cut, is planned part by part."""
    sets = {
        one[0].id: one
        for one in sets_of(problem.parts).values()
        if len({part.quantity for part in one}) == 1
    }
    others = {part.id for one in sets.values() for part in one[1:]}
    parts = [
        _whole(problem, sets[part.id]) if part.id in sets else part
        for part in problem.parts
        if part.id not in others
    ]
    return replace(problem, parts=tuple(parts)), sets


def _whole(problem: CutProblem, parts: Sequence[CutPart]) -> CutPart:
    length = sum(part.sawn_length for part in parts) + problem.kerf * (len(parts) - 1)
    first = parts[0]
    return replace(
        first,
        length=length,
        extra=replace(first.extra, length=0),
        clear=any(part.clear for part in parts),
        show=any(part.show for part in parts),
        rip=all(part.rip for part in parts),
        resaw=all(part.resaw for part in parts),
        turn=all(part.turn for part in parts),
        together="",
    )


def taken_apart(problem: CutProblem, sets: Sets, plan: CutPlan) -> CutPlan:
    """A plan of sets as the plan of their parts, with the cuts between them."""
    return replace(
        plan,
        layouts=tuple(_apart(problem, sets, layout) for layout in plan.layouts),
        unplaced=tuple(
            Unplaced(part.id, one.quantity, one.reason)
            for one in plan.unplaced
            for part in (sets.get(one.part) or [_named(problem, one.part)])
        ),
    )


def _named(problem: CutProblem, part: str) -> CutPart:
    return next(one for one in problem.parts if one.id == part)


def _apart(problem: CutProblem, sets: Sets, layout: Layout) -> Layout:
    if not any(placed.part in sets for placed in layout.parts):
        return layout
    placed = [one for whole in layout.parts for one in _pieces(problem, sets, whole)]
    return with_cuts(problem, Layout(layout.stock, layout.count, tuple(placed)))


def _pieces(problem: CutProblem, sets: Sets, whole: PlacedPart) -> Iterator[PlacedPart]:
    parts = sets.get(whole.part)
    if parts is None:
        yield whole
        return
    at = whole.start
    for part in parts:
        yield replace(whole, part=part.id, start=at, end=at + part.sawn_length)
        at += part.sawn_length + problem.kerf


def telling(
    problem: CutProblem, sets: Sets, progress: Callable[[CutPlan], None] | None
) -> Callable[[CutPlan], None] | None:
    """What is told of every better plan, of its parts."""
    if progress is None:
        return None
    tell = progress
    return lambda plan: tell(taken_apart(problem, sets, plan))
