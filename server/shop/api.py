"""The API of the shop: set-ups, what happened at the bench, and the end of it."""

import uuid

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router

from carpentry.language import CarpentryError
from carpentry.shop import BenchEvent, BenchEventKind
from server.common.owned import owned
from server.common.schemas import ChangeIn, ErrorOut
from server.plans.resting import work_up
from server.projects.models import Project
from server.shop.finishing import finish, open_again
from server.shop.going import begin, cutting_of, planned_cutting, put_away, take_events
from server.shop.models import Cutting
from server.shop.schemas import BenchEventIn, BenchEventsIn, CuttingOut, NewCuttingIn
from server.shop.showing import show_cutting

router = Router(tags=["shop"])
MOST_AT_ONCE = 500
CUTTING = {200: CuttingOut, 404: ErrorOut, 422: ErrorOut}


def own_cutting(request: HttpRequest, cutting_id: uuid.UUID) -> Cutting:
    """The signed-in builder's cutting; to anybody else it does not exist."""
    cuttings = Cutting.objects.select_related("project")
    return get_object_or_404(cuttings, id=cutting_id, project__owner=request.user)


def _shown(cutting: Cutting, *refused: tuple[BenchEvent, str]) -> CuttingOut:
    return show_cutting(cutting, work_up(cutting.project), refused)


@router.get("/projects/{uuid:project_id}/shop", response=CUTTING)
def get_shop(request: HttpRequest, project_id: uuid.UUID) -> CuttingOut:
    """The set-ups of a project: those of the cutting under way, or of the one that cut all of it,
    else of its plan as it is now."""
    project = owned(Project, request, project_id)
    known = cutting_of(project) or put_away(project)
    return _shown(known or planned_cutting(project, uuid.uuid4()))


@router.post("/projects/{uuid:project_id}/cuttings", response=CUTTING)
def begin_cutting(request: HttpRequest, project_id: uuid.UUID, new: NewCuttingIn) -> CuttingOut:
    """The cutting of a project, begun under an id of the client's making if there is none."""
    return _shown(begin(owned(Project, request, project_id), new.id))


@router.get("/cuttings/{uuid:cutting_id}", response=CUTTING)
def get_cutting(request: HttpRequest, cutting_id: uuid.UUID) -> CuttingOut:
    """A cutting as it is."""
    return _shown(own_cutting(request, cutting_id))


@router.delete("/cuttings/{uuid:cutting_id}", response={204: None, 404: ErrorOut, 422: ErrorOut})
def call_cutting_off(request: HttpRequest, cutting_id: uuid.UUID) -> tuple[int, None]:
    """Calls cutting off of which nothing is cut yet."""
    cutting = own_cutting(request, cutting_id)
    if cutting.finished is not None or cutting.bench().done:
        raise CarpentryError("something is cut already: put it away instead")
    cutting.delete()
    return 204, None


@router.post("/cuttings/{uuid:cutting_id}/events", response=CUTTING)
def tell_bench_events(
    request: HttpRequest, cutting_id: uuid.UUID, told: BenchEventsIn
) -> CuttingOut:
    """Takes events in, each once however often it is told; what goes wrong is planned again before
    this answers."""
    cutting = own_cutting(request, cutting_id)
    if len(told.events) > MOST_AT_ONCE:
        raise CarpentryError(f"at most {MOST_AT_ONCE} events at once")
    return _shown(cutting, *take_events(cutting, [_event(event) for event in told.events]))


def _event(told: BenchEventIn) -> BenchEvent:
    typed = told.dict()
    try:
        kind = BenchEventKind(typed.pop("kind"))
    except ValueError as error:
        raise CarpentryError(f"“{told.kind}” is nothing that happens at a bench", "kind") from error
    return BenchEvent(id=str(typed.pop("id")), kind=kind, **typed)


@router.post("/cuttings/{uuid:cutting_id}/finish", response=CUTTING)
def finish_cutting(request: HttpRequest, cutting_id: uuid.UUID, seen: ChangeIn) -> CuttingOut:
    """Ends cutting: what is cut stays cut, what is left goes onto the rack."""
    cutting = own_cutting(request, cutting_id)
    finish(cutting, seen.change_id)
    return _shown(cutting)


@router.post("/cuttings/{uuid:cutting_id}/open-again", response=CUTTING)
def open_cutting_again(request: HttpRequest, cutting_id: uuid.UUID, seen: ChangeIn) -> CuttingOut:
    """Takes the end of cutting back."""
    cutting = own_cutting(request, cutting_id)
    open_again(cutting, seen.change_id)
    return _shown(cutting)
