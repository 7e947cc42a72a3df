"""The boards of a plan as they lie on the bench, and what of a project the bench does not know of
yet."""

from collections.abc import Iterable, Iterator, Sequence

from carpentry.cutting import CutPlan
from carpentry.language import sold_name
from carpentry.lumber import Section
from carpentry.planning import Workup, numbered_boards
from carpentry.project import Material
from carpentry.shop.bench_cuts import BenchBoard
from carpentry.shop.shaping import PartShape

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
            shapes=_shapes(work.materials[material], board.section),
        )
        labels = [one.label for one in board.pieces]
        found.append(bench.holding(zip(layout.parts, labels, strict=True)))
    return found


def _shapes(material: Material, section: Section | None) -> dict[str, PartShape]:
    """What makes the parts of a material more than square pieces, of boards of a section."""
    if section is None:
        return {}
    found = {}
    for named in material.parts:
        part = named.part
        if part.is_shaped:
            own = part.finished_section(section) or section
            found[named.id] = PartShape(
                part.outermost(section),
                own.width,
                own.thickness,
                part.ends,
                part.notches,
                part.outline,
            )
    return found


def not_yet(work: Workup, lines: Iterable[str] = ()) -> Iterator[str]:
    """What of a project no set-up is made of, ``lines`` of work on parts too, told so that nothing
    is left out in silence."""
    for material in work.materials:
        for named in material.all_parts():
            if named.part.is_shaped and material.section is None:
                yield f"{_WORK}{work.marks[named.id]} is of wood whose section nobody knows."
    for line in lines:
        if line.strip():
            yield f"{_WORK}{line.strip()}"
