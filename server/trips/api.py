"""The API of trips: begun, ticked, planned anew, finished, and what was paid."""

import uuid

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router

from carpentry.language import CarpentryError
from carpentry.trip import Event, EventKind
from server.common.owned import owned
from server.common.schemas import ChangeIn, ErrorOut
from server.projects.models import Project
from server.trips.finishing import correct, finish, keep_prices, open_again
from server.trips.going import begin_trip, renew, take_events
from server.trips.models import Trip
from server.trips.schemas import (
    EventIn,
    EventsIn,
    FinishIn,
    NewTripIn,
    PaidIn,
    ReceiptOut,
    TripOut,
    TripRowOut,
)
from server.trips.showing import show_receipt, show_row, show_trip

router = Router(tags=["trips"])
MOST_AT_ONCE = 500
TRIP = {200: TripOut, 404: ErrorOut, 422: ErrorOut}
RECEIPT = {200: ReceiptOut, 404: ErrorOut, 422: ErrorOut}


def own_trip(request: HttpRequest, trip_id: uuid.UUID) -> Trip:
    """The signed-in builder's trip; to anybody else it does not exist."""
    trips = Trip.objects.select_related("project", "yard")
    return get_object_or_404(trips, id=trip_id, project__owner=request.user)


@router.post("/projects/{uuid:project_id}/trips", response=TRIP)
def go_to_the_yard(request: HttpRequest, project_id: uuid.UUID, new: NewTripIn) -> TripOut:
    """The open trip of a project, begun under an id of the client's making if there is none."""
    return show_trip(begin_trip(owned(Project, request, project_id), new.id))


@router.get("/projects/{uuid:project_id}/trips", response={200: list[TripRowOut], 404: ErrorOut})
def list_trips(request: HttpRequest, project_id: uuid.UUID) -> list[TripRowOut]:
    """The trips of a project, the newest first."""
    project = owned(Project, request, project_id)
    return [show_row(trip) for trip in project.trips.select_related("project", "yard")]


@router.get("/trips/{uuid:trip_id}", response={200: TripOut, 404: ErrorOut})
def get_trip(request: HttpRequest, trip_id: uuid.UUID) -> TripOut:
    """A trip as it is."""
    return show_trip(own_trip(request, trip_id))


@router.delete("/trips/{uuid:trip_id}", response={204: None, 404: ErrorOut, 422: ErrorOut})
def call_trip_off(request: HttpRequest, trip_id: uuid.UUID) -> tuple[int, None]:
    """Calls a trip off; one that is finished stays, as its receipt does."""
    trip = own_trip(request, trip_id)
    if trip.finished is not None:
        raise CarpentryError("this trip is finished: its receipt is kept")
    trip.delete()
    return 204, None


@router.post("/trips/{uuid:trip_id}/events", response=TRIP)
def tell_events(request: HttpRequest, trip_id: uuid.UUID, told: EventsIn) -> TripOut:
    """Takes events in, each once however often it is told; where one changes what there is, the
    rest is planned anew before this answers."""
    trip = own_trip(request, trip_id)
    if len(told.events) > MOST_AT_ONCE:
        raise CarpentryError(f"at most {MOST_AT_ONCE} events at once")
    refused = take_events(trip, [_event(event) for event in told.events])
    return show_trip(trip, refused)


def _event(told: EventIn) -> Event:
    typed = told.dict()
    try:
        kind = EventKind(typed.pop("kind"))
    except ValueError as error:
        raise CarpentryError(f"“{told.kind}” is nothing that happens at a yard", "kind") from error
    return Event(id=str(typed.pop("id")), kind=kind, **typed)


@router.post("/trips/{uuid:trip_id}/renew", response=TRIP)
def take_the_project_over(request: HttpRequest, trip_id: uuid.UUID) -> TripOut:
    """Plans anew from the project as it is now."""
    trip = own_trip(request, trip_id)
    renew(trip)
    return show_trip(trip)


@router.post("/trips/{uuid:trip_id}/finish", response=RECEIPT)
def finish_trip(request: HttpRequest, trip_id: uuid.UUID, how: FinishIn) -> ReceiptOut:
    """Ends a trip; its receipt is kept."""
    trip = own_trip(request, trip_id)
    finish(trip, how.change_id, put_away=how.put_away)
    return show_receipt(trip)


@router.post("/trips/{uuid:trip_id}/open-again", response=TRIP)
def open_trip_again(request: HttpRequest, trip_id: uuid.UUID, seen: ChangeIn) -> TripOut:
    """Takes the end of a trip back."""
    trip = own_trip(request, trip_id)
    open_again(trip, seen.change_id)
    return show_trip(trip)


@router.get("/trips/{uuid:trip_id}/receipt", response={200: ReceiptOut, 404: ErrorOut})
def get_receipt(request: HttpRequest, trip_id: uuid.UUID) -> ReceiptOut:
    """Planned against paid."""
    return show_receipt(own_trip(request, trip_id))


@router.put("/trips/{uuid:trip_id}/receipt", response=RECEIPT)
def correct_receipt(request: HttpRequest, trip_id: uuid.UUID, paid: PaidIn) -> ReceiptOut:
    """Corrects what was paid for a line."""
    trip = own_trip(request, trip_id)
    correct(trip, paid.line, paid.count, paid.price)
    return show_receipt(trip)


@router.post("/trips/{uuid:trip_id}/keep-prices", response=RECEIPT)
def keep_paid_prices(request: HttpRequest, trip_id: uuid.UUID, seen: ChangeIn) -> ReceiptOut:
    """Writes the prices that were paid into the yard's list."""
    trip = own_trip(request, trip_id)
    keep_prices(trip, seen.change_id)
    return show_receipt(own_trip(request, trip_id))
