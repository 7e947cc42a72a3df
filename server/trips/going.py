"""A trip under way: begun from the plan of the desk, planned anew from what there is there."""

import uuid
from collections.abc import Collection, Sequence
from dataclasses import asdict, replace
from decimal import Decimal

from django.conf import settings
from django.db import transaction

from carpentry.language import CarpentryError, Json
from carpentry.planning import MADE_BY, Basis, Facts, Workup, replan
from carpentry.project import missing_told, standard_lines
from carpentry.trip import (
    Event,
    EventKind,
    Purchase,
    change_told,
    left_out_told,
    line_key,
    packs_of,
    purchase_of,
    touched_by,
)
from server.plans.making import planned_aside, settled_plan
from server.plans.models import Plan
from server.plans.resting import basis_now, work_up, work_up_on
from server.projects.models import Project
from server.projects.showing import read_at_once
from server.trips.models import Trip, TripEvent

MOST_SECONDS = 8.0
MOST_EVENTS = 5_000
MOST_KNOWN = 40  # plans of a trip that are kept
_MOST_TRIES = 3
# What a new plan says. All else of a trip may have changed while it was made.
_PLANNED = [
    *("plan", "wanted", "left_out", "packs", "short", "said", "said_by", "project_version"),
    *("unplanned", "basis"),
]
_NO_PLAN = "no plan could be made in a moment: try again"


def begin_trip(project: Project, id: uuid.UUID) -> Trip:
    """The open trip of a project, begun from its plan if there is none.

    Raises ``CarpentryError`` for a project without a yard, or without anything to buy.
    """
    known = project.trips.filter(finished=None).first() or project.trips.filter(id=id).first()
    if known:
        return known
    if project.yard is None:
        raise CarpentryError("choose a yard first: lengths and prices are its", "yard")
    work = work_up(project)
    documents = settled_plan(project, work, MOST_SECONDS)
    basis = _with_unlisted(work)
    trip = Trip(
        id=id,
        project=project,
        yard=project.yard,
        yard_name=project.yard.name,
        project_version=project.version,
        unit=project.unit,
        basis=basis.document(),
    )
    work = work_up_on(project, basis, Facts())
    if len(documents) != sum(problem is not None for problem in work.problems):
        raise CarpentryError(_NO_PLAN, "plan")
    _take(trip, work, documents, range(len(work.materials)))
    if not trip.purchase:
        raise CarpentryError("there is nothing to buy for this project", "plan")
    lines = trip.lines()
    trip.planned = {
        key: {"count": wanted.count, "price": _text(lines[key].price)}
        for key, wanted in trip.purchase.items()
    }
    return _begun(trip, _plan_of(trip, work, replan(work, {}, []).digests, documents))


@transaction.atomic
def _begun(trip: Trip, plan: Plan) -> Trip:
    """The trip stored, or the one that was begun meanwhile."""
    known = trip.project.trips.filter(finished=None).first()
    if known:
        return known
    plan.save(force_insert=True)
    trip.plan = plan
    trip.full_clean()
    trip.save(force_insert=True)
    return trip


def _plan_of(trip: Trip, work: Workup, digests: Sequence[str], documents: Sequence[Json]) -> Plan:
    """A plan of a trip, not stored."""
    return Plan(
        project=trip.project,
        digest=work.digest,
        made_by=work.made_by,
        proven=work.tally(work.plans(documents)).claim.proven,
        problems=list(digests),
        outcome=list(documents),
        status=Plan.Status.DONE,
        stage=Plan.Stage.CHOSEN,
        basis=trip.basis,
        seconds=0.0,
    )


def _made_by(trip: Trip) -> int:
    """The version of planning that a trip goes on with, so that its lines stay those of its
    materials; plans without cuts are made anew."""
    return max(trip.plan.made_by, 2) if trip.plan else MADE_BY


def _text(price: Decimal | None) -> str | None:
    return None if price is None else f"{price:f}"


def _with_unlisted(work: Workup) -> Basis:
    """Yard and rack as they are, with the standard lengths of what the yard does not list."""
    listed = {line.stock for line in work.basis.lines}
    unlisted = dict.fromkeys(
        offer.stock
        for material in work.materials
        for offer in material.offers
        if not offer.owned and offer.stock not in listed
    )
    more = [line for stock in unlisted for line in standard_lines(stock, work.settings.unit)]
    return replace(work.basis, lines=[*work.basis.lines, *more])


def take_events(trip: Trip, events: list[Event]) -> list[tuple[Event, str]]:
    """Takes events in that the trip does not know yet, and plans anew where they ask for it.
    Returns those that could not be, with the reason."""
    refused: list[tuple[Event, str]] = []
    disturbing: list[tuple[Event, str]] = []
    for event in events:
        try:
            with transaction.atomic():
                if not _take_in(trip, event):
                    continue
        except CarpentryError as error:
            refused.append((event, error.problems[0].message))
            continue
        line = _disturbs(trip, event)
        if line:
            disturbing.append((event, line))
    if trip.unplanned:
        _plan_because_of(trip, disturbing)
    return refused


def _plan_because_of(trip: Trip, events: list[tuple[Event, str]]) -> None:
    """Plans anew because of events, each with its line; where that fails it is said, and tried
    again next time."""
    lines = {line for _, line in events}
    newest = events[-1][0] if events else None
    because = newest.id if newest and newest.kind is not EventKind.UNDONE else ""
    try:
        plan_anew(trip, because, *(lines if len(lines) == 1 else ()))
    except CarpentryError as error:
        trip.refresh_from_db()
        trip.said, trip.said_by = error.problems[0].message, because
        trip.save(update_fields=["said", "said_by"])


def _take_in(trip: Trip, event: Event) -> bool:
    """Stores an event; false for one that is known."""
    if TripEvent.objects.filter(id=event.id).exists():
        return False
    trip.refresh_from_db(fields=["finished"])
    if trip.finished is not None:
        raise CarpentryError("this trip is finished: open it again first")
    if trip.events.count() >= MOST_EVENTS:
        raise CarpentryError("too much happened on this trip: finish it and begin another")
    trip.cart(event)
    typed = {name: value for name, value in asdict(event).items() if value != ""}
    del typed["id"], typed["kind"]
    TripEvent.take(trip, event.id, event.kind.value, typed)
    if _disturbs(trip, event):
        trip.unplanned = True
        trip.save(update_fields=["unplanned"])
    return True


def _disturbs(trip: Trip, event: Event) -> str:
    """The line that has to be planned anew because of an event, or of the one it takes back; empty
    where nothing has to."""
    if event.kind is EventKind.UNDONE:
        event = trip.events.get(id=event.undoes).read()
    return event.line if event.replans else ""


def plan_anew(trip: Trip, because: str = "", line: str = "") -> None:
    """Plans from what is there and what is in the cart: the materials that a change of a ``line``
    touches, all of them without one or when the project has changed; cut problems that the trip
    knew before keep the plans that they had. The answer is the best that is found in a moment; it
    is kept unless something happened meanwhile, then it is made once more.

    Raises ``CarpentryError`` when no plan could be made.
    """
    before, events = trip.purchase, -1
    in_force = trip.plan
    for _ in range(_MOST_TRIES):
        events = trip.events.count()
        read_at_once(trip.project)
        basis = trip.rests_on
        cart = trip.cart()
        work = work_up_on(trip.project, basis, cart.facts(basis), _made_by(trip))
        touched = set(range(len(work.materials)))
        if line and in_force and trip.project_version == trip.project.version:
            touched = touched_by(cart.lines[line].stock, work.materials)
        wanted = replan(work, _known(trip), in_force.outcome if in_force else [])
        if in_force:
            wanted = wanted.leaving(work, touched, in_force.problems, in_force.outcome)
        made = planned_aside(
            work,
            trip.project,
            f"at the yard {trip.id}",
            settings.ANSWER_AT_YARD_SECONDS,
            wanted,
        )
        if len(made) != len(wanted.problems):
            raise CarpentryError(_NO_PLAN, "plan")
        _take(trip, work, made, touched)
        told = _change(trip, before, work)
        trip.said, trip.said_by = told[:500], because
        trip.project_version = trip.project.version
        if trip.events.count() == events:
            break
    trip.unplanned = trip.events.count() != events
    with transaction.atomic():
        trip.plan = _plan_of(trip, work, wanted.digests, made)
        trip.plan.save(force_insert=True)
        trip.save(update_fields=_PLANNED)
        _forget_older(trip)


def _forget_older(trip: Trip) -> None:
    chosen = trip.project.plans.filter(stage=Plan.Stage.CHOSEN).values_list("id", flat=True)
    Plan.objects.filter(id__in=list(chosen[MOST_KNOWN:])).delete()


def _known(trip: Trip) -> dict[str, Json]:
    """The plans that the trip had, by the digests of their problems; the newest count."""
    plans = trip.project.plans.filter(stage=Plan.Stage.CHOSEN).order_by("asked")
    return {
        digest: document
        for plan in plans
        for digest, document in zip(plan.problems, plan.outcome, strict=False)
    }


def _take(trip: Trip, work: Workup, documents: Sequence[Json], touched: Collection[int]) -> None:
    """What plans of a workup want and whom they leave out, of the materials that are ``touched``,
    with the packs as they are now. Raises ``PlanCheckError`` for one that cannot be sawn as it
    says."""
    work.check(documents, touched)
    trip.take_packs(packs_of(work.hardware))
    told = (missing_told(line, work.settings) for line in work.hardware.lines)
    trip.short = [one for one in told if one]
    cart = trip.cart()
    for n, planned in enumerate(zip(work.materials, work.plans(documents), strict=True)):
        if n not in touched:
            continue
        wanted = purchase_of([planned], cart, work.settings)
        one = {key: [one.needed, one.spare, one.idle] for key, one in wanted.items()}
        trip.wanted[n : n + 1] = [one]
        trip.left_out[n : n + 1] = [left_out_told([planned])]
    del trip.wanted[len(work.materials) :], trip.left_out[len(work.materials) :]


def _change(trip: Trip, before: Purchase, work: Workup) -> str:
    told = change_told(
        before,
        trip.purchase,
        trip.cart(),
        trip.tax,
        currency=trip.currency,
        notation=work.settings.notation,
    )
    return told or "nothing else changes"


def renew(trip: Trip) -> None:
    """Takes the project over as it is now: its parts, and lines of the yard that are new."""
    basis = trip.rests_on
    project = trip.project
    planned = work_up(project).project
    project.yard = trip.yard
    now = _with_unlisted(Workup(planned, basis_now(project)))
    known = {line_key(line.stock, line.length.ticks) for line in basis.lines}
    more = [line for line in now.lines if line_key(line.stock, line.length.ticks) not in known]
    fresh = replace(
        basis, lines=[*basis.lines, *more], own=now.own, packs=now.packs, rack=now.rack, saw=now.saw
    )
    trip.basis = fresh.document()
    del trip.rests_on
    plan_anew(trip)
