"""A project in the words of the API's contract."""

from dataclasses import fields
from decimal import Decimal
from threading import BoundedSemaphore

from django.conf import settings
from django.core.exceptions import ObjectDoesNotExist
from django.db import IntegrityError
from django.db.models import QuerySet, prefetch_related_objects

from carpentry.buying import USUAL_LINES, write_money
from carpentry.edges import edges_told
from carpentry.ends import mirrored, told, ways_to_lie
from carpentry.errors import CarpentryError
from carpentry.length import sold_name
from carpentry.parts import COLUMNS, PartFields, not_planned_yet
from carpentry.parts import Part as ReadPart
from carpentry.project import Material, Purchase, compare, extra_of
from carpentry.project.file import TYPED_LINES
from carpentry.project.settings import SETTING_LENGTHS
from carpentry.sizes import species_of, standard_section, weight_kg
from carpentry.table import Table
from server.config.schemas import ProblemOut, length_out
from server.documents.uploads import columns_out
from server.plans.inputs import Inputs, inputs_of
from server.plans.making import plan_for
from server.plans.models import Plan
from server.plans.schemas import AlreadyCutOut, CutBoardOut, PlanOut, section_out
from server.plans.showing import show_plan, weight_text
from server.plans.solver import solver
from server.projects.models import Part, Project
from server.projects.schemas import (
    ChangeOut,
    PartOut,
    ProjectOut,
    ReadingOut,
    ReadPartOut,
    SettingLengthOut,
    YardNameOut,
)

TYPED = tuple(field.name for field in fields(PartFields))


def _shown(project: Project) -> ProjectOut:
    """A project whose parts are at hand, with the plan of this state: done, or under way."""
    inputs = inputs_of(project)
    plan = plan_for(project, inputs)
    shown = show_plan(plan, inputs, before=_plan_before(project))
    notation = project.notation

    def setting(name: str) -> SettingLengthOut:
        ticks = inputs.settings.length(name) or 0
        return SettingLengthOut(typed=getattr(project, name), shown=length_out(ticks, notation))

    cut = {
        one.id: material.cut_already(one, inputs.settings)
        for material in inputs.materials
        for one in material.parts
    }
    read = {
        one.id: (one.part, material)
        for material in inputs.materials
        for one in (*material.parts, *(later for later, _ in material.later))
    }
    pairs = _pairs({id_: one for id_, (one, _) in read.items()}, inputs.marks)
    return ProjectOut(
        id=project.id,
        name=project.name,
        version=project.version,
        unit=project.unit,
        notation=notation,
        **{name: setting(name) for name in SETTING_LENGTHS},
        copies=project.copies,
        rack=project.rack,
        keep_from_of=project.keep_from_of,
        budget=project.budget,
        sells_for=project.sells_for,
        **{name: getattr(project, name) for name in TYPED_LINES},
        usual_rules=list(USUAL_LINES),
        saw_tilt=project.saw_tilt,
        saw_miter=project.saw_miter,
        rip=project.rip,
        resaw=project.resaw,
        own_stock=project.own_stock,
        order=project.order,
        share_angled_cuts=project.share_angled_cuts,
        spare=project.spare,
        yard=YardNameOut(id=project.yard.id, name=project.yard.name) if project.yard else None,
        parts=[
            _part(part, *read[str(part.id)], inputs).model_copy(
                update={"pair": pairs.get(str(part.id), ""), "cut": cut.get(str(part.id), 0)}
            )
            for part in project.parts.all()
        ],
        undo=project.undo_label,
        redo=project.redo_label,
        change=_change(project, plan, shown, inputs.currency),
        updated=project.updated,
        already_cut=[_already_cut(cut, notation) for cut in cut_before(project, plan)],
        plan=shown,
    )


_MOST_TRIES = 8


def show_project(project: Project) -> ProjectOut:
    """The project as it is now, with the plan of this state: done, or under way. Its settings and
    its parts are of one version, also while others change it.

    Raises ``Project.DoesNotExist`` when it is gone.
    """
    for tries_left in reversed(range(_MOST_TRIES)):
        project.refresh_from_db()
        prefetch_related_objects([project], "parts")
        if tries_left and _moved_on(project):
            continue
        try:
            return _shown(project)
        except (IntegrityError, ObjectDoesNotExist):
            if not _moved_on(project):
                raise
    return _shown(project)


def _moved_on(project: Project) -> bool:
    """Whether it is gone, or there is a newer version of it."""
    return not Project.objects.filter(id=project.id, version=project.version).exists()


_may_wait = BoundedSemaphore(2)


def show_planned(project: Project) -> ProjectOut:
    """The project for paper and files: waits for a plan under way to be done, as long as plans may
    take. Only so many may wait at once, so that there is always a thread for who asks for less; the
    others get the best plan so far, which says so."""
    shown = show_project(project)
    job = solver.job(shown.plan.id)
    if job and _may_wait.acquire(blocking=False):
        try:
            job.settled.wait(settings.QUICK_PLAN_SECONDS + settings.PLAN_SECONDS)
        finally:
            _may_wait.release()
        shown = show_project(project)
    return shown


def cut_before(project: Project, plan: Plan) -> QuerySet[Plan]:
    """The plans of a project that were cut before this one, the first first."""
    return project.plans.filter(stage=Plan.Stage.CUT).exclude(id=plan.id).order_by("asked")


def _already_cut(cut: Plan, notation: str) -> AlreadyCutOut:
    """What a plan cut, from what was stored of it then."""
    boards = list(cut.boards.prefetch_related("pieces"))
    prices = [board.price for board in boards]
    cost = None
    if None not in prices:
        cost = write_money(sum(filter(None, prices), Decimal(0)), cut.basis.get("currency", "USD"))
    count = "1 board" if len(boards) == 1 else f"{len(boards)} boards"
    return AlreadyCutOut(
        told=f"{count}, {cost}" if cost else count,
        cost=cost,
        boards=[
            CutBoardOut(
                number=board.number,
                stock=board.stock,
                length=sold_name(board.length, notation),
                pieces=[piece.label for piece in board.pieces.all()],
            )
            for board in boards
        ],
    )


def _pairs(parts: dict[str, ReadPart], marks: dict[str, str]) -> dict[str, str]:
    """The mark of each part's mirror image, where there is one: the left and right of a pair."""
    shapes: dict[object, str] = {}
    for id_, part in parts.items():
        if not part.square_ended:
            shapes.setdefault((part.stock, part.length.ticks, part.measured, part.ends), id_)
    found = {}
    for id_, part in parts.items():
        if mirrored(part.ends) in ways_to_lie(part.ends):
            continue
        for way in ways_to_lie(mirrored(part.ends)):
            other = shapes.get((part.stock, part.length.ticks, part.measured, way))
            if other:
                found[id_] = marks[other]
    return found


def _part(part: Part, read: ReadPart, material: Material, inputs: Inputs) -> PartOut:
    source = inputs.source if material.section_from_yard else "standard size"
    notation = inputs.settings.notation
    section = material.sections[str(part.id)]
    is_later = any(one.id == str(part.id) for one, _ in material.later)
    over_all = read.outermost(section) if section and not is_later else read.length.ticks
    sawn = over_all + extra_of(read, inputs.settings).length
    return PartOut(
        id=part.id,
        mark=part.mark,
        **{name: getattr(part, name) for name in TYPED},
        pieces=read.quantity * inputs.settings.copies,
        cut=0,
        called=read.name,
        stock_name=str(read.stock),
        kind=read.stock.kind,
        section=section_out(section, notation),
        section_source=source,
        length_shown=length_out(read.length.ticks, notation),
        over_all=length_out(over_all, notation) if over_all != read.length.ticks else None,
        sawn=length_out(sawn, notation) if sawn != over_all else None,
        angles="" if read.square_ended else told(read.ends),
        bevels=edges_told(read.edges),
        pair="",
        weight=_weight_of_one(str(part.id), read, material, inputs),
        later=next((why for one, why in material.later if one.id == str(part.id)), ""),
        warnings=list(read.warnings),
    )


def _weight_of_one(id_: str, part: ReadPart, material: Material, inputs: Inputs) -> str:
    """What one piece weighs air-dry; nothing for what has no section, or is of an unknown wood."""
    section = material.sections[id_]
    if section is None:
        return ""
    volume = part.mean_section(section).area * part.centre_length(section)
    density = species_of(part.stock).density()
    if density is None:
        return ""
    return weight_text(weight_kg(volume, density), inputs.settings.unit, "0.1")


def _plan_before(project: Project) -> Plan | None:
    """The plan of the version before this one, when it is done."""
    before = project.revisions.filter(number=project.version - 1).select_related("plan").first()
    done = before and before.plan and before.plan.status == Plan.Status.DONE
    return before.plan if before and done else None


def _still_to_buy(plan: Plan) -> Purchase:
    """What a plan asks for yet: nothing where its boards are cut."""
    return Purchase(0, Decimal(0), 0) if plan.stage == Plan.Stage.CUT else plan.purchase


def _change(project: Project, plan: Plan, shown: PlanOut, currency: str) -> ChangeOut:
    """The newest change, against the plan of the version before it."""
    newest = project.revisions.filter(number=project.version).first()
    before = project.revisions.filter(number=project.version - 1).first()
    planned = _plan_before(project)
    effect = ""
    if planned and plan.status == Plan.Status.DONE:
        effect = compare(_still_to_buy(planned), _still_to_buy(plan), currency)
        changed = sum(layout.changed for one in shown.materials for layout in one.layouts)
        if changed:
            boards = "board is" if changed == 1 else "boards are"
            effect += f"; {changed} {boards} cut otherwise"
    label = newest.label if newest else ""
    if newest and newest.redo_to == project.version - 1:
        label = f"undone: {before.label}" if before else label
    return ChangeOut(label=label, effect=effect)


def show_reading(parts: list[ReadPart], notation: str, table: Table | None = None) -> ReadingOut:
    """Parts as understood, for a preview, with the columns of the table that they are from."""
    return ReadingOut(
        columns=columns_out(table) if table else [],
        choices=list(COLUMNS.known),
        parts=[
            ReadPartOut(
                quantity=part.quantity,
                name=part.name,
                stock=str(part.stock),
                kind=part.stock.kind,
                section=section_out(standard_section(part.stock), notation),
                length=length_out(part.length.ticks, notation),
                group=part.fields.group,
                note=part.fields.note,
                later=not_planned_yet(part, standard_section(part.stock)) or "",
                warnings=list(part.warnings),
            )
            for part in parts
        ],
        problems=[],
    )


def show_problems(error: CarpentryError, table: Table | None = None) -> ReadingOut:
    """Why nothing was understood."""
    return ReadingOut(
        columns=columns_out(table) if table else [],
        choices=list(COLUMNS.known),
        parts=[],
        problems=[ProblemOut(place=p.place, message=p.message) for p in error.problems],
    )
