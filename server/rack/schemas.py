"""The API's contract for the rack."""

from uuid import UUID

from ninja import Schema
from pydantic import BaseModel

from server.config.schemas import LengthOut
from server.plans.schemas import SectionOut
from server.projects.schemas import SeenIn


class RackBoardOut(BaseModel):
    """A board: each field as noted, and what was understood."""

    id: UUID
    number: int
    stock: str
    length: str
    thickness: str
    width: str
    width_middle: str
    width_end: str
    crook: str
    bow: str
    cup: str
    twist: str
    flaws: str
    place: str
    note: str
    kind: str
    length_shown: LengthOut
    section: SectionOut | None
    section_source: str
    straight_width: LengthOut | None
    left_alone: str


class RackOut(BaseModel):
    """The rack; ``boards`` are those asked for, ``found`` how many there are of them."""

    version: int
    boards: list[RackBoardOut]
    found: int
    total: int
    page_size: int
    undo: str | None
    redo: str | None
    change: str


class RackConflictOut(BaseModel):
    detail: str
    seen: dict[str, object] | None
    current: RackOut


class BoardFieldsIn(Schema):
    """Fields of a board, those that are given."""

    stock: str | None = None
    length: str | None = None
    thickness: str | None = None
    width: str | None = None
    width_middle: str | None = None
    width_end: str | None = None
    crook: str | None = None
    bow: str | None = None
    cup: str | None = None
    twist: str | None = None
    flaws: str | None = None
    place: str | None = None
    note: str | None = None


class RackBoardIn(SeenIn, BoardFieldsIn):
    """A new board under an id of the client's making, or fields of one that is there."""


class RemoveBoardsIn(SeenIn):
    boards: list[UUID]
