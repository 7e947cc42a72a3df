"""The API of the days: what is next, and what happened."""

import uuid

from django.http import HttpRequest
from ninja import Router

from carpentry.language import CarpentryError
from carpentry.time.progress import ProgressEvent, ProgressKind
from server.common.owned import owned
from server.common.schemas import ErrorOut
from server.days.going import project_days, take_events, zone_of
from server.days.schemas import DaysOut, StepEventIn, StepEventsIn
from server.days.showing import show_days
from server.projects.models import Project

router = Router(tags=["days"])
MOST_AT_ONCE = 100
DAYS = {200: DaysOut, 404: ErrorOut, 422: ErrorOut}


@router.get("/projects/{uuid:project_id}/days", response=DAYS)
def get_days(
    request: HttpRequest, project_id: uuid.UUID, zone: str = "", thorough: bool = False
) -> DaysOut:
    """The days of a project, at once, or with all that can be worked out in a moment; ``zone`` is
    where the builder's clock hangs, unless the project says so."""
    project = owned(Project, request, project_id)
    return show_days(project_days(project, zone_of(zone)), thorough=thorough)


@router.post("/projects/{uuid:project_id}/days/events", response=DAYS)
def tell_step_events(request: HttpRequest, project_id: uuid.UUID, told: StepEventsIn) -> DaysOut:
    """Takes in what happened of steps, each event once however often it is told."""
    project = owned(Project, request, project_id)
    if len(told.events) > MOST_AT_ONCE:
        raise CarpentryError(f"at most {MOST_AT_ONCE} events at once")
    zone = zone_of(told.zone)
    refused = take_events(project, zone, [_event(event) for event in told.events])
    return show_days(project_days(project, zone), thorough=False, refused=refused)


def _event(told: StepEventIn) -> ProgressEvent:
    typed = told.dict()
    try:
        kind = ProgressKind(typed.pop("kind"))
    except ValueError as error:
        raise CarpentryError(f"“{told.kind}” is nothing that happens of a step", "kind") from error
    return ProgressEvent(id=str(typed.pop("id")), kind=kind, **typed)
