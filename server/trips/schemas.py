"""The API's contract for trips to a yard."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from ninja import Schema
from pydantic import BaseModel, Field

from carpentry.trip import Event
from server.common.columns import told_fields
from server.common.schemas import LengthOut, SectionOut


class NewTripIn(Schema):
    """A trip under an id of the client's making."""

    id: UUID


class _HappenedIn(Schema):
    """Something that happened at the yard, under an id of the client's making. ``line`` is the key
    of a line, or of a check; sizes as typed."""

    id: UUID
    kind: Annotated[str, Field(max_length=60)]


EventIn = told_fields(Event, "EventIn", _HappenedIn)


class EventsIn(Schema):
    """Events in the order in which they happened."""

    events: list[EventIn]


class RefusedEventOut(BaseModel):
    """An event that could not be, and why."""

    id: UUID
    message: str


class TripBoardOut(BaseModel):
    """A board that was measured; ``event`` told so. An ``idle`` one serves no
    part: it can be put back. ``notes`` are what else was noted."""

    event: UUID
    kept: bool
    idle: bool
    length: LengthOut
    notes: list[str]


class TripLineOut(BaseModel):
    """A line to take: so many in all, ``spare`` of them spare, and how many are in the cart.
    ``put_back`` are in it and not wanted any more. ``price`` is that of the list, ``tag`` what was
    seen, ``each`` and ``listed`` are tag (or list) and list as plain numbers; ``left`` how many
    more there are where that is known, ``limited`` when it was said at the yard."""

    key: str
    called: str
    name: str
    content: str
    kind: str
    section: SectionOut | None
    named_length: str
    length: LengthOut | None
    real_length: LengthOut | None
    is_board: bool
    wanted: int
    spare: int
    taken: int
    put_back: int
    price: str | None
    tag: str | None
    each: str | None
    listed: str | None
    left: int | None
    limited: bool
    boards: list[TripBoardOut]


class TripRackOut(BaseModel):
    name: str
    lines: list[TripLineOut]


class CheckOut(BaseModel):
    key: str
    name: str
    how: str
    checked: bool


class TripOut(BaseModel):
    """A trip as it is. ``seen`` are the events it knows of. ``total`` is of everything wanted,
    ``in_cart`` of what is taken, both with tax, by tags where they were read. ``said`` is what the
    newest plan changed because of the event ``said_by``."""

    id: UUID
    project: UUID
    project_name: str
    yard: str
    unit: str
    finished: datetime | None
    stale: bool
    seen: list[UUID]
    checks: list[CheckOut]
    racks: list[TripRackOut]
    wanted: int
    taken: int
    total: str
    in_cart: str
    currency: str
    tax_rate: str
    tax_included: bool
    unpriced: int
    weight: str
    longest: str
    claim: str
    said: str
    said_by: str
    left_out: list[str]
    refused: list[RefusedEventOut]


class TripRowOut(BaseModel):
    """A trip among others."""

    id: UUID
    yard: str
    begun: datetime
    finished: datetime | None
    total: str


class FinishIn(Schema):
    """The end of a trip; what was taken may be put away, on the rack and in the drawer."""

    change_id: UUID
    put_away: bool


class PaidIn(Schema):
    """What was paid for a line: how many, and for one. Empty text takes a correction back."""

    line: Annotated[str, Field(max_length=300)]
    count: Annotated[str, Field(max_length=60)] | None = None
    price: Annotated[str, Field(max_length=60)] | None = None


class ReceiptLineOut(BaseModel):
    """A line of a receipt; money as text, ``None`` where a price is missing. ``difference`` is
    empty where there is none."""

    key: str
    called: str
    name: str
    named_length: str
    length: LengthOut | None
    content: str
    section: SectionOut | None
    planned: int
    planned_price: str | None
    planned_together: str | None
    paid: int
    paid_price: str | None
    paid_typed: str
    paid_together: str | None
    difference: str | None
    dearer: bool
    not_bought: int


class ReceiptOut(BaseModel):
    """Planned against paid. ``learns`` counts the prices that the yard's list could take over;
    ``laid`` the boards on the rack from this trip."""

    trip: UUID
    project: UUID
    project_name: str
    yard: str
    yard_id: UUID | None
    finished: datetime | None
    lines: list[ReceiptLineOut]
    planned: str
    paid: str
    tax_rate: str
    tax_included: bool
    told: str
    over: bool
    learns: int
    laid: int
