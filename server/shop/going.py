"""Cutting under way: begun from the plan of the desk, and what happens taken in once each."""

import uuid
from collections.abc import Iterator
from dataclasses import asdict

from django.db import transaction

from carpentry.design.ends import is_angled
from carpentry.language import CarpentryError, sold_name
from carpentry.planning import Workup
from carpentry.project import Material, NamedPart
from carpentry.shop import (
    BenchEvent,
    BenchEventKind,
    Changed,
    Sold,
    Supply,
    board_document,
    boards_to_cut,
    changed_document,
    come_to,
    not_yet,
    undo_fault,
)
from server.plans.making import find_plan, settled_plan
from server.plans.models import Plan
from server.plans.resting import work_up
from server.projects.models import Project
from server.shop.models import Cutting, CuttingEvent, supply_document
from server.tools.models import Toolbox

MOST_SECONDS = 8.0
MOST_EVENTS = 10_000


def cutting_of(project: Project) -> Cutting | None:
    """The cutting of a project that is under way."""
    return project.cuttings.filter(finished=None).first()


def put_away(project: Project) -> Cutting | None:
    """The last cutting of a project, where it cut all of the project as it is now."""
    last = project.cuttings.exclude(finished=None).first()
    if last is None or last.plan is None or last.plan.stage != Plan.Stage.CUT:
        return None
    return last if last.plan.digest == work_up(project).digest else None


def planned_cutting(project: Project, id: uuid.UUID) -> Cutting:
    """What would be cut of a project as it is now; not stored. Raises ``CarpentryError`` where
    there is no plan, or nothing to cut."""
    work = work_up(project)
    documents = settled_plan(project, work, MOST_SECONDS)
    plan = find_plan(project, work)
    if plan is not None and plan.stage == Plan.Stage.CUT:
        raise CarpentryError("all of it is marked cut: take that back at the desk first", "plan")
    plans = work.plans(documents)
    if len(documents) != sum(problem is not None for problem in work.problems):
        raise CarpentryError("no plan could be made in a moment: try again", "plan")
    boards = boards_to_cut(work, plans)
    if not boards:
        raise CarpentryError("there is nothing to cut of this project yet", "plan")
    bare = next((one for one in boards if one.labels and not one.pieces), None)
    if bare is not None:
        raise CarpentryError("this plan is of an earlier version: plan it again first", "plan")
    lines = project.typed_lines()["work"].splitlines()
    return Cutting(
        id=id,
        project=project,
        project_version=project.version,
        unit=project.unit,
        notation=project.notation,
        digest=work.digest,
        basis=work.basis.document(),
        boards=[board_document(board) for board in boards],
        parts={one.id: _called(work, one) for m in work.materials for one in m.parts},
        supply=supply_document(_supply(work, project)),
        not_yet=list(not_yet(work, lines)),
        plan=plan,
    )


def _called(work: Workup, named: NamedPart) -> dict[str, object]:
    """How a part is called at the bench."""
    part = named.part
    cut = (one for problem in work.problems if problem for one in problem.parts)
    slanted = (one.length for one in cut if one.id == named.id and is_angled(one.ends))
    return {
        "mark": work.marks[named.id],
        "name": part.name,
        "group": part.fields.group.strip(),
        "length": part.length.ticks,
        "over_all": next(slanted, None),
        "quantity": part.quantity * work.settings.copies,
        "held": part.is_held,
    }


def _supply(work: Workup, project: Project) -> Supply:
    return Supply(
        problems=work.problems,
        sold=[dict(_sold(material, work)) for material in work.materials],
        unit=work.settings.unit,
        notation=work.settings.notation,
        currency=work.currency,
        tools=Toolbox.of(project.owner).owned,
    )


def _sold(material: Material, work: Workup) -> Iterator[tuple[str, Sold]]:
    for offer in material.offers:
        yield (
            offer.id,
            Sold(
                offer.id,
                str(offer.stock),
                sold_name(offer.length, work.settings.notation),
                offer.real_length,
                material.section_of(offer),
                None if offer.owned else offer.price,
            ),
        )


@transaction.atomic
def begin(project: Project, id: uuid.UUID) -> Cutting:
    """The cutting of a project that is under way, begun under an id of the client's making if there
    is none."""
    known = cutting_of(project) or project.cuttings.filter(id=id).first()
    if known:
        return known
    cutting = planned_cutting(project, id)
    cutting.full_clean()
    cutting.save(force_insert=True)
    return cutting


def take_events(cutting: Cutting, events: list[BenchEvent]) -> list[tuple[BenchEvent, str]]:
    """Takes events in that are not known yet, each with what it comes to. Returns those that could
    not be, with the reason."""
    refused: list[tuple[BenchEvent, str]] = []
    for event in events:
        try:
            with transaction.atomic():
                _take_in(cutting, event)
        except CarpentryError as error:
            refused.append((event, error.problems[0].message))
    return refused


def _take_in(cutting: Cutting, event: BenchEvent) -> None:
    """Stores an event that is not known yet."""
    if CuttingEvent.objects.filter(id=event.id).exists():
        return
    Cutting.objects.select_for_update().get(id=cutting.id)
    cutting.refresh_from_db(fields=["finished"])
    if cutting.finished is not None:
        raise CarpentryError("this is cut and put away: open it again first")
    if cutting.events.count() >= MOST_EVENTS:
        raise CarpentryError("too much happened here: finish it and begin again")
    changed: Changed | None = None
    if event.kind is BenchEventKind.UNDONE:
        fault = undo_fault(cutting.happened(), event.undoes)
        if fault:
            raise CarpentryError(fault, "undoes")
    elif event.kind is BenchEventKind.CUT:
        cutting.bench().with_before(event.keys)
    else:
        changed = come_to(cutting.bench(), event, cutting.supplied)
    typed = {name: value for name, value in asdict(event).items() if value not in ("", 0)}
    del typed["id"], typed["kind"]
    came_to = None if changed is None else changed_document(changed)
    CuttingEvent.take(cutting, event.id, event.kind.value, typed, came_to=came_to)
