"""The API's contract for yards and their prices."""

from datetime import date, datetime
from uuid import UUID

from ninja import Schema
from pydantic import BaseModel

from carpentry.buying import PriceFields
from server.common.columns import given_fields, shown_fields
from server.common.schemas import ColumnOut, LengthOut, ProblemOut, SectionOut, SeenIn


class PriceLineOut(shown_fields(PriceFields, "PriceFieldsOut", "yard")):
    """A price line: each field as typed, and what was understood."""

    id: UUID
    kind: str
    named_length: str
    real_length: LengthOut
    section: SectionOut | None
    section_is_own: bool
    is_old: bool
    piece_price: str | None
    warnings: list[str]


class YardOut(BaseModel):
    """A yard; ``lines`` are a page of those asked for, ``found`` how many there are of them."""

    id: UUID
    name: str
    version: int
    unit: str
    currency: str
    tax_rate: str
    prices_include_tax: bool
    board_foot_rounding: str
    price_age_days: int
    price_service: str
    service_code: str
    packs: str
    walk: str
    services: list[str]
    old_prices: int
    lines: list[PriceLineOut]
    found: int
    total: int
    page_size: int
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
    price_service: str | None = None
    service_code: str | None = None
    packs: str | None = None
    walk: str | None = None


PriceLineIn = given_fields(PriceFields, "PriceLineIn", SeenIn, "yard")


class LineSizeIn(Schema):
    """A section as it would be corrected."""

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
    """What a price list would do; ``columns`` are those of the table, ``choices`` what they may
    be."""

    columns: list[ColumnOut]
    choices: list[str]
    yards: list[YardReadingOut]
    problems: list[ProblemOut]


class QuotedOut(BaseModel):
    """A line whose price or stock would change; ``doubt`` says why to look twice."""

    line: UUID
    name: str
    before: str
    after: str
    price: str
    available: str
    doubt: str


class RefusedOut(BaseModel):
    name: str
    reason: str


class AskedOut(BaseModel):
    """What a yard's price service said, against the list as it is; nothing is changed yet."""

    as_of: date
    changed: list[QuotedOut]
    same: int
    unknown: list[str]
    refused: list[RefusedOut]


class QuoteIn(Schema):
    line: UUID
    price: str
    available: str


class QuotesIn(SeenIn):
    """The quotes a builder accepts, of the day they were given."""

    as_of: date
    quotes: list[QuoteIn]
