"""A trip under way: begun from the plan of the desk, planned anew from what there is there."""

import hashlib
import json
import uuid
from dataclasses import asdict, replace
from typing import Any

from django.conf import settings
from django.db import transaction

from carpentry.cutting import Status, check_plan, read_plan
from carpentry.errors import CarpentryError
from carpentry.length import Unit
from carpentry.project import Material, missing_told, standard_lines
from carpentry.trip import (
    Cart,
    Event,
    EventKind,
    Purchase,
    change_told,
    line_key,
    packs_of,
    purchase_of,
    touched_by,
)
from server.plans.inputs import Basis, Document, Inputs, inputs_of
from server.plans.making import planned_aside, settled_plan
from server.projects.models import Project
from server.trips.models import Trip, TripEvent

MOST_SECONDS = 8.0
MOST_EVENTS = 5_000
MOST_KNOWN = 40
_MOST_TRIES = 3
# What a new plan says. All else of a trip may have changed while it was made.
_PLANNED = [
    *("plans", "known", "packs", "short", "said", "said_by", "project_version", "unplanned"),
    "basis",
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
        raise CarpentryError("choose a yard at the desk first: lengths and prices are its", "yard")
    inputs = inputs_of(project)
    documents = settled_plan(project, inputs, MOST_SECONDS)
    basis = _with_unlisted(inputs)
    trip = Trip(
        id=id,
        project=project,
        yard=project.yard,
        yard_name=project.yard.name,
        project_version=project.version,
        unit=project.unit,
        basis=basis.document(),
    )
    inputs = inputs_of(project, basis)
    _take_hardware(trip, inputs)
    problems = inputs.documents
    if len(documents) != sum(problem is not None for problem in problems):
        raise CarpentryError(_NO_PLAN, "plan")
    made = iter(documents)
    cart = Cart(trip.lines(), Unit(trip.unit), {})
    for material, problem in zip(inputs.materials, problems, strict=True):
        document = next(made) if problem else None
        trip.plans.append(_record(inputs, material, document, cart))
        if problem and document:
            _remember(trip, problem, document)
    if not trip.purchase:
        raise CarpentryError("there is nothing to buy for this project", "plan")
    lines = trip.lines()
    trip.planned = {
        key: {"count": wanted.count, "price": _text(lines[key].price)}
        for key, wanted in trip.purchase.items()
    }
    return _begun(trip)


@transaction.atomic
def _begun(trip: Trip) -> Trip:
    """The trip stored, or the one that was begun meanwhile."""
    known = trip.project.trips.filter(finished=None).first()
    if known:
        return known
    trip.full_clean()
    trip.save(force_insert=True)
    return trip


def _text(price: Any) -> str | None:
    return None if price is None else f"{price:f}"


def _with_unlisted(inputs: Inputs) -> Basis:
    """Yard and rack as they are, with the standard lengths of what the yard does not list."""
    listed = {line.stock for line in inputs.basis.lines}
    unlisted = dict.fromkeys(
        offer.stock
        for material in inputs.materials
        for offer in material.offers
        if not offer.owned and offer.stock not in listed
    )
    unit = inputs.settings.unit
    more = [line for stock in unlisted for line in standard_lines(stock, unit)]
    return replace(inputs.basis, lines=[*inputs.basis.lines, *more])


def take_events(trip: Trip, events: list[Event]) -> list[tuple[Event, str]]:
    """Takes events in that the trip does not know yet, and plans anew where they ask for it.
    Returns those that could not be, with the reason."""
    refused: list[tuple[Event, str]] = []
    disturbed: list[tuple[Event, str]] = []
    for event in events:
        try:
            with transaction.atomic():
                if not _take(trip, event):
                    continue
        except CarpentryError as error:
            refused.append((event, error.problems[0].message))
            continue
        line = _disturbs(trip, event)
        if line:
            disturbed.append((event, line))
    if trip.unplanned:
        _plan_for(trip, disturbed)
    return refused


def _plan_for(trip: Trip, disturbed: list[tuple[Event, str]]) -> None:
    """Plans anew because of events; where that fails it is said, and tried again next time."""
    lines = {line for _, line in disturbed}
    newest = disturbed[-1][0] if disturbed else None
    because = newest.id if newest and newest.kind is not EventKind.UNDONE else ""
    try:
        plan_anew(trip, because, *(lines if len(lines) == 1 else ()))
    except CarpentryError as error:
        trip.refresh_from_db()
        trip.said, trip.said_by = error.problems[0].message, because
        trip.save(update_fields=["said", "said_by"])


def _take(trip: Trip, event: Event) -> bool:
    """Stores an event; false for one that is known."""
    if TripEvent.objects.filter(id=event.id).exists():
        return False
    trip.refresh_from_db(fields=["finished"])
    if trip.finished is not None:
        raise CarpentryError("this trip is finished: open it again first")
    known = trip.events.count()
    if known >= MOST_EVENTS:
        raise CarpentryError("too much happened on this trip: finish it and begin another")
    trip.cart(event)
    typed = {name: value for name, value in asdict(event).items() if value != ""}
    del typed["id"], typed["kind"]
    row = TripEvent(id=event.id, trip=trip, number=known + 1, kind=event.kind.value, typed=typed)
    row.full_clean()
    row.save(force_insert=True)
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
    touches, all of them without one or when the project has changed. The answer is the best that is
    found in a moment; it is kept unless something happened meanwhile, then it is made once more.

    Raises ``CarpentryError`` when no plan could be made.
    """
    before, events = trip.purchase, -1
    for _ in range(_MOST_TRIES):
        events = trip.events.count()
        cart = trip.cart()
        basis = Basis.read(trip.basis)
        found = replace(
            basis, lines=cart.as_found(basis.lines), cart=cart.on_hand(), found=cart.packs()
        )
        inputs = inputs_of(trip.project, found)
        _take_hardware(trip, inputs)
        as_before = trip.project_version == trip.project.version
        if line and as_before and len(trip.plans) == len(inputs.materials):
            touched = touched_by(cart.lines[line].stock, inputs.materials)
        else:
            touched = set(range(len(inputs.materials)))
            trip.plans = (trip.plans + [{}] * len(touched))[: len(touched)]
        _plan_materials(trip, inputs, sorted(touched), trip.cart())
        trip.said = _change(trip, before, inputs)[:500]
        trip.said_by = because
        trip.project_version = trip.project.version
        if trip.events.count() == events:
            break
    trip.unplanned = trip.events.count() != events
    trip.save(update_fields=_PLANNED)


def _plan_materials(trip: Trip, inputs: Inputs, indices: list[int], cart: Cart) -> None:
    """Plans some materials anew; cut problems that are known keep their plans."""
    problems = inputs.documents
    unknown = [
        n for n in indices if (problem := problems[n]) and _digest(problem) not in trip.known
    ]
    before = [plan["document"] for plan in trip.plans if plan.get("document")]
    made = planned_aside(
        [problems[n] for n in unknown],
        trip.project,
        f"at the yard {trip.id}",
        settings.ANSWER_AT_YARD_SECONDS,
        before,
    )
    if len(made) != len(unknown):
        raise CarpentryError(_NO_PLAN, "plan")
    fresh = dict(zip(unknown, made, strict=True))
    for n in indices:
        problem = problems[n]
        document = fresh.get(n) or (trip.known[_digest(problem)] if problem else None)
        trip.plans[n] = _record(inputs, inputs.materials[n], document, cart)
        if problem and document:
            _remember(trip, problem, document)


def _digest(problem: Document) -> str:
    return hashlib.sha256(json.dumps(problem, sort_keys=True).encode()).hexdigest()


def _remember(trip: Trip, problem: Document, document: Document) -> None:
    others = list(trip.known.items())[-MOST_KNOWN:]
    trip.known = dict(others) | {_digest(problem): document}


def _record(inputs: Inputs, material: Material, document: Document | None, cart: Cart) -> Document:
    """The plan of a material, checked, with what it wants and whom it leaves out."""
    problem = material.problem(inputs.settings)
    plan = read_plan(document, inputs.settings.unit) if problem and document else None
    if problem and plan:
        check_plan(problem, plan)
    wanted = purchase_of([(material, plan)], cart, inputs.settings)
    named = {one.id: one.part.name for one in material.parts}
    return {
        "document": document,
        "proven": plan is None or (plan.status is Status.OPTIMAL and plan.price == plan.bound),
        "wanted": {key: [one.needed, one.spare, one.idle] for key, one in wanted.items()},
        "left_out": [
            f"{left.quantity} × {named[left.part]}: {left.reason}"
            for left in (plan.unplaced if plan else ())
        ],
    }


def _take_hardware(trip: Trip, inputs: Inputs) -> None:
    """The packs as they are now, and of which there are too few."""
    trip.take_packs(packs_of(inputs.hardware))
    told = (missing_told(line, inputs.settings) for line in inputs.hardware.lines)
    trip.short = [one for one in told if one]


def _change(trip: Trip, before: Purchase, inputs: Inputs) -> str:
    told = change_told(
        before,
        trip.purchase,
        trip.cart(),
        trip.tax,
        currency=trip.currency,
        notation=inputs.settings.notation,
    )
    return told or "nothing else changes"


def renew(trip: Trip) -> None:
    """Takes the project over as it is now: its parts, and lines of the yard that are new."""
    basis = Basis.read(trip.basis)
    project = trip.project
    project.yard = trip.yard
    now = _with_unlisted(inputs_of(project, Basis.of(project)))
    known = {line_key(line.stock, line.length.ticks) for line in basis.lines}
    more = [line for line in now.lines if line_key(line.stock, line.length.ticks) not in known]
    fresh = replace(basis, lines=[*basis.lines, *more], own=now.own, packs=now.packs, rack=now.rack)
    trip.basis = fresh.document()
    trip.project.refresh_from_db()
    plan_anew(trip)
