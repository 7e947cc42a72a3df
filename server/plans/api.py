"""The API of plans: asked for, watched, stopped."""

import uuid

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router

from server.config.schemas import ErrorOut
from server.plans.comparing import compare_with, weigh_making
from server.plans.cut import mark_cut, take_cut_back
from server.plans.inputs import inputs_of
from server.plans.making import plan_for, wait_for
from server.plans.models import Plan
from server.plans.schemas import ChangeIn, ComparisonOut, MakeOrBuyOut, PlanOut
from server.plans.showing import show_plan
from server.plans.solver import solver
from server.projects.models import Project
from server.yards.models import Yard

router = Router(tags=["plans"])
_FINISHING = 2.0  # seconds for a plan that is just being finished


def _show(plan: Plan) -> PlanOut:
    inputs = inputs_of(plan.project)
    if plan.digest == inputs.digest:
        return show_plan(plan, inputs)
    current = plan_for(plan.project, inputs)
    return show_plan(current, inputs)


@router.post("/projects/{uuid:project_id}/plans", response={200: PlanOut, 404: ErrorOut})
def ask_for_plan(request: HttpRequest, project_id: uuid.UUID) -> PlanOut:
    """The plan of the project's present state. One that was stopped is taken up again."""
    project = get_object_or_404(Project.objects.of(request.user), id=project_id)
    inputs = inputs_of(project)
    project.plans.filter(digest=inputs.digest, status=Plan.Status.STOPPED).delete()
    return show_plan(plan_for(project, inputs), inputs)


@router.get(
    "/projects/{uuid:project_id}/compare/{uuid:yard_id}",
    response={200: ComparisonOut, 404: ErrorOut, 422: ErrorOut},
)
def compare_yards(request: HttpRequest, project_id: uuid.UUID, yard_id: uuid.UUID) -> ComparisonOut:
    """The project's purchase beside what it would be at another yard; keeps nothing."""
    project = get_object_or_404(Project.objects.of(request.user), id=project_id)
    yard = get_object_or_404(Yard.objects.of(request.user), id=yard_id)
    return compare_with(project, yard)


@router.get(
    "/projects/{uuid:project_id}/make-or-buy/{uuid:part_id}",
    response={200: MakeOrBuyOut, 404: ErrorOut, 422: ErrorOut},
)
def weigh_make_or_buy(
    request: HttpRequest, project_id: uuid.UUID, part_id: uuid.UUID, price: str
) -> MakeOrBuyOut:
    """What a part costs made from boards beside what it costs bought made; keeps nothing."""
    project = get_object_or_404(Project.objects.of(request.user), id=project_id)
    return weigh_making(project, get_object_or_404(project.parts, id=part_id), price)


@router.get("/plans/{uuid:plan_id}", response={200: PlanOut, 404: ErrorOut})
def get_plan(request: HttpRequest, plan_id: uuid.UUID) -> PlanOut:
    """A plan as far as it is; where the project has changed since, that of its present state."""
    return _show(get_object_or_404(Plan, id=plan_id, project__owner=request.user))


@router.post("/plans/{uuid:plan_id}/cut", response={200: PlanOut, 404: ErrorOut, 422: ErrorOut})
def mark_plan_cut(request: HttpRequest, plan_id: uuid.UUID, seen: ChangeIn) -> PlanOut:
    """Marks a plan cut: its keepable offcuts go onto the rack, boards it used come off."""
    plan = get_object_or_404(Plan, id=plan_id, project__owner=request.user)
    wait_for(plan, _FINISHING)
    mark_cut(plan, seen.change_id)
    return _show(plan)


@router.post("/plans/{uuid:plan_id}/not-cut", response={200: PlanOut, 404: ErrorOut})
def mark_plan_not_cut(request: HttpRequest, plan_id: uuid.UUID, seen: ChangeIn) -> PlanOut:
    """Takes that back."""
    plan = get_object_or_404(Plan, id=plan_id, project__owner=request.user)
    take_cut_back(plan, seen.change_id)
    plan.refresh_from_db()
    return _show(plan)


@router.post("/plans/{uuid:plan_id}/stop", response={200: PlanOut, 404: ErrorOut})
def stop_plan(request: HttpRequest, plan_id: uuid.UUID) -> PlanOut:
    """Stops planning and keeps the best plan so far."""
    plan = get_object_or_404(Plan, id=plan_id, project__owner=request.user)
    job = solver.job(plan.id)
    solver.stop(plan.id)
    if job:
        job.settled.wait(5)
    plan.refresh_from_db()
    return _show(plan)
