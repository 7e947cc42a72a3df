"""The API of plans: asked for, watched, stopped, cut; and what would become of them."""

import uuid

from django.http import HttpRequest, HttpResponse, HttpResponseNotModified
from django.shortcuts import get_object_or_404
from ninja import Router

from server.common.answers import json_answer
from server.common.owned import owned
from server.common.schemas import ChangeIn, ConflictOut, ErrorOut, SeenIn
from server.plans.comparing import compare_with, weigh_making
from server.plans.cut import mark_cut, step_rack, take_cut_back
from server.plans.effects import effect_at_yard, effect_of_material, effect_on_rack
from server.plans.making import plan_again, plan_for, wait_for
from server.plans.models import Plan
from server.plans.resting import work_up
from server.plans.schemas import (
    ComparisonOut,
    EffectOut,
    MakeOrBuyOut,
    PlanOut,
    ProofOut,
)
from server.plans.showing import show_plan, show_proofs
from server.plans.solver import solver
from server.plans.state import state_of
from server.projects.models import Project
from server.rack.models import Rack
from server.rack.schemas import BoardFieldsIn, RackOut
from server.rack.showing import show_rack
from server.stocks.models import OwnMaterials
from server.stocks.schemas import OwnFieldsIn
from server.yards.models import Yard
from server.yards.schemas import LineSizeIn

router = Router(tags=["plans"])
EFFECTS = {200: list[EffectOut], 404: ErrorOut, 422: ErrorOut}
RACK = {200: RackOut, 404: ErrorOut, 409: ConflictOut[RackOut], 422: ErrorOut}
_FINISHING = 2.0  # seconds for a plan that is just being finished
_STOPPING = 5.0
_MOST_TRIES = 4


def own_plan(request: HttpRequest, plan_id: uuid.UUID) -> Plan:
    """The signed-in builder's plan; to anybody else it does not exist. What it came to is read when
    it is asked for."""
    plans = Plan.objects.select_related("project").defer("basis", "problems", "outcome")
    return get_object_or_404(plans, id=plan_id, project__owner=request.user, project__deleted=None)


def _present(project: Project, *, again: bool = False) -> HttpResponse:
    """The plan of a project's present state. One that somebody else's change has outdated meanwhile
    is asked for once more."""
    for tries_left in reversed(range(_MOST_TRIES)):
        work = work_up(project)
        plan = plan_again(project, work) if again else plan_for(project, work)
        try:
            return json_answer(show_plan(plan, work))
        except Plan.DoesNotExist:
            if not tries_left:
                raise
    raise AssertionError("it is answered or raised")


@router.post("/projects/{uuid:project_id}/plans", response={200: PlanOut, 404: ErrorOut})
def ask_for_plan(request: HttpRequest, project_id: uuid.UUID, again: bool = False) -> HttpResponse:
    """The plan of the project's present state, made if there is none. One that was stopped is taken
    up ``again`` where that is asked for."""
    return _present(owned(Project, request, project_id), again=again)


@router.get(
    "/plans/{uuid:plan_id}",
    response={200: PlanOut, 304: None, 404: ErrorOut, 410: ErrorOut},
)
def get_plan(request: HttpRequest, plan_id: uuid.UUID) -> HttpResponse:
    """A plan as far as it is. 410 where the project, its yard or the rack has changed since, so
    that another is asked for. To somebody who has it as it is nothing is sent again."""
    plan = own_plan(request, plan_id)
    state = state_of(plan)
    if request.headers.get("If-None-Match") == state:
        return HttpResponseNotModified(headers={"ETag": state})
    work = work_up(plan.project)
    if plan.digest != work.digest:
        return _gone()
    answer = json_answer(show_plan(plan, work))
    answer["ETag"] = state
    return answer


def _gone() -> HttpResponse:
    answer = json_answer(ErrorOut(detail="the project has changed: ask for its plan", problems=[]))
    answer.status_code = 410
    return answer


@router.get(
    "/plans/{uuid:plan_id}/proof",
    response={200: list[ProofOut], 404: ErrorOut, 410: ErrorOut},
)
def get_proof(request: HttpRequest, plan_id: uuid.UUID) -> HttpResponse | list[ProofOut]:
    """Why no purchase is cheaper, material by material. 410 where something has changed since."""
    plan = own_plan(request, plan_id)
    work = work_up(plan.project)
    return show_proofs(plan, work) if plan.digest == work.digest else _gone()


@router.post("/plans/{uuid:plan_id}/cut", response={200: PlanOut, 404: ErrorOut, 422: ErrorOut})
def mark_plan_cut(request: HttpRequest, plan_id: uuid.UUID, seen: ChangeIn) -> HttpResponse:
    """Marks a plan cut: its keepable offcuts go onto the rack, boards it used come off."""
    plan = own_plan(request, plan_id)
    wait_for(plan, _FINISHING)
    mark_cut(plan, seen.change_id)
    return _present(plan.project)


@router.post("/plans/{uuid:plan_id}/not-cut", response={200: PlanOut, 404: ErrorOut})
def mark_plan_not_cut(request: HttpRequest, plan_id: uuid.UUID, seen: ChangeIn) -> HttpResponse:
    """Takes that back."""
    plan = own_plan(request, plan_id)
    take_cut_back(plan, seen.change_id)
    return _present(plan.project)


@router.post("/plans/{uuid:plan_id}/stop", response={200: PlanOut, 404: ErrorOut})
def stop_plan(request: HttpRequest, plan_id: uuid.UUID) -> HttpResponse:
    """Stops planning and keeps the best plan so far."""
    plan = own_plan(request, plan_id)
    job = solver.job(plan.id)
    solver.stop(plan.id)
    if job:
        job.settled.wait(_STOPPING)
    return _present(plan.project)


@router.get(
    "/projects/{uuid:project_id}/compare/{uuid:yard_id}",
    response={200: ComparisonOut, 404: ErrorOut, 422: ErrorOut},
)
def compare_yards(request: HttpRequest, project_id: uuid.UUID, yard_id: uuid.UUID) -> ComparisonOut:
    """The project's purchase beside what it would be at another yard; keeps nothing."""
    return compare_with(owned(Project, request, project_id), owned(Yard, request, yard_id))


@router.get(
    "/projects/{uuid:project_id}/make-or-buy/{uuid:part_id}",
    response={200: MakeOrBuyOut, 404: ErrorOut, 422: ErrorOut},
)
def weigh_make_or_buy(
    request: HttpRequest, project_id: uuid.UUID, part_id: uuid.UUID, price: str
) -> MakeOrBuyOut:
    """What a part costs made from boards beside what it costs bought made; keeps nothing."""
    project = owned(Project, request, project_id)
    return weigh_making(project, get_object_or_404(project.parts, id=part_id), price)


@router.post("/yards/{uuid:yard_id}/lines/{uuid:line_id}/effect", response=EFFECTS)
def effect_of_size(
    request: HttpRequest, yard_id: uuid.UUID, line_id: uuid.UUID, fields: LineSizeIn
) -> list[EffectOut]:
    """The parts that a corrected section would change; keeps nothing."""
    yard = owned(Yard, request, yard_id)
    line = get_object_or_404(yard.lines, id=line_id)
    return effect_at_yard(yard, line, fields.dict(exclude_none=True))


@router.post("/materials/{uuid:material_id}/effect", response=EFFECTS)
def effect_of_changing(
    request: HttpRequest, material_id: uuid.UUID, fields: OwnFieldsIn
) -> list[EffectOut]:
    """The parts that another size of a material would change; keeps nothing."""
    row = get_object_or_404(OwnMaterials.of(request.user).rows, id=material_id)
    return effect_of_material(row, fields.dict(exclude_none=True))


@router.post("/rack/boards/{uuid:board_id}/effect", response=EFFECTS)
def effect_of_measuring(
    request: HttpRequest, board_id: uuid.UUID, fields: BoardFieldsIn
) -> list[EffectOut]:
    """The parts planned from this board that new fields of it would change; keeps nothing."""
    board = get_object_or_404(Rack.of(request.user).boards, id=board_id)
    return effect_on_rack(board, fields.dict(exclude_none=True))


@router.post("/rack/undo", response=RACK)
def undo_rack(request: HttpRequest, seen: SeenIn) -> RackOut:
    """Takes the newest change of the rack back, and with it that a plan was cut."""
    rack = Rack.of(request.user)
    step_rack(rack, "undo", seen.version, seen.change_id)
    return show_rack(rack)


@router.post("/rack/redo", response=RACK)
def redo_rack(request: HttpRequest, seen: SeenIn) -> RackOut:
    """Brings back what the last undo took."""
    rack = Rack.of(request.user)
    step_rack(rack, "redo", seen.version, seen.change_id)
    return show_rack(rack)
