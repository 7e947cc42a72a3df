"""The API's contract for yards and their prices."""

from datetime import datetime
from uuid import UUID

from ninja import Schema
from pydantic import BaseModel

from server.config.schemas import LengthOut, ProblemOut
from server.plans.schemas import SectionOut
from server.projects.schemas import SeenIn


class PriceLineOut(BaseModel):
    """A price line: each field as typed, and what was understood."""

    id: UUID
    stock: str
    length: str
    price: str
    per: str
    available: str
    actual: str
    date: str
    thickness: str
    width: str
    kind: str
    named_length: str
    real_length: LengthOut
    section: SectionOut | None
    section_is_own: bool
    is_old: bool
    piece_price: str | None
    warnings: list[str]


class YardOut(BaseModel):
    id: UUID
    name: str
    version: int
    unit: str
    currency: str
    tax_rate: str
    prices_include_tax: bool
    board_foot_rounding: str
    price_age_days: int
    old_prices: int
    lines: list[PriceLineOut]
    undo: str | None
    redo: str | None
    change: str
    updated: datetime


class YardRowOut(BaseModel):
    id: UUID
    name: str
    currency: str
    tax_rate: str
    lines: int
    newest: str
    projects: int


class YardConflictOut(BaseModel):
    detail: str
    seen: dict[str, object] | None
    current: YardOut


class NewYardIn(Schema):
    id: UUID
    name: str
    currency: str = "USD"
    unit: str = "in"


class YardPatchIn(SeenIn):
    name: str | None = None
    currency: str | None = None
    tax_rate: str | None = None
    prices_include_tax: bool | None = None
    board_foot_rounding: str | None = None
    price_age_days: int | None = None


class PriceLineIn(SeenIn):
    """A new line under an id of the client's making, or fields of one that is there."""

    stock: str | None = None
    length: str | None = None
    price: str | None = None
    per: str | None = None
    available: str | None = None
    actual: str | None = None
    date: str | None = None
    thickness: str | None = None
    width: str | None = None


class RemoveLinesIn(SeenIn):
    lines: list[UUID]


class PricePointOut(BaseModel):
    """A price a line had: as typed, with its own date and when it was entered here."""

    price: str
    per: str
    date: str
    entered: datetime


class YardReadingOut(BaseModel):
    """What a price list does to one yard."""

    yard: str
    known: bool
    new: list[str]
    changed: list[str]
    same: int
    gone: list[str]


class PricesReadingOut(BaseModel):
    yards: list[YardReadingOut]
    problems: list[ProblemOut]
