"""The boards of a plan as they lie on the bench, and what of a project the bench does not know of
yet."""

from collections.abc import Iterable, Iterator, Sequence

from carpentry.cutting import CutPlan
from carpentry.language import sold_name
from carpentry.planning import Workup, numbered_boards
from carpentry.shop.bench_cuts import BenchBoard

_WORK = "Work on parts is not worked out yet: "


def boards_to_cut(work: Workup, plans: Sequence[CutPlan | None]) -> list[BenchBoard]:
    """The boards of the plans of a workup, with their cuts and labels, numbered as they are
    everywhere."""
    layouts = [
        (material, layout)
        for material, plan in enumerate(plans)
        for layout in (plan.layouts if plan else ())
        for _ in range(layout.count)
    ]
    found = []
    for board, (material, layout) in zip(numbered_boards(work, plans), layouts, strict=True):
        bench = BenchBoard(
            number=board.number,
            stock=str(board.offer.stock),
            length=board.offer.real_length,
            section=board.section,
            cuts=layout.cuts,
            pieces=layout.pieces,
            material=material,
            offer=board.offer.id,
            called=sold_name(board.offer.length, work.settings.notation),
            price=board.offer.price,
            crooked=bool(board.offer.on_hand and board.offer.on_hand.crook),
            flaws=board.offer.on_hand.flaws if board.offer.on_hand else (),
            rack=board.taken.id if board.taken else "",
            trims=(work.settings.trim_start.ticks, work.settings.trim_end.ticks),
        )
        labels = [one.label for one in board.pieces]
        found.append(bench.holding(zip(layout.parts, labels, strict=True)))
    return found


def not_yet(work: Workup, lines: Iterable[str] = ()) -> Iterator[str]:
    """What of a project no set-up is made of, ``lines`` of work on parts too, told so that nothing
    is left out in silence."""
    for material in work.materials:
        for named in material.all_parts():
            part, mark = named.part, work.marks[named.id]
            if any(end.is_shaped for end in part.ends):
                yield f"{_WORK}{mark} has ends that are cut from square ones."
            if part.notches or part.outline:
                yield f"{_WORK}{mark} has notches or an outline."
    for line in lines:
        if line.strip():
            yield f"{_WORK}{line.strip()}"
