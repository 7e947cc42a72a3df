"""The API's contract for the rack."""

from uuid import UUID

from ninja import Schema
from pydantic import BaseModel

from carpentry.lumber.rack import BoardFields
from server.common.columns import given_fields, shown_fields
from server.common.schemas import LengthOut, SectionOut, SeenIn


class RackBoardOut(shown_fields(BoardFields, "BoardFieldsOut")):
    """A board: each field as noted, and what was understood."""

    id: UUID
    number: int
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


BoardFieldsIn = given_fields(BoardFields, "BoardFieldsIn", Schema)
RackBoardIn = given_fields(BoardFields, "RackBoardIn", SeenIn)


class RemoveBoardsIn(SeenIn):
    boards: list[UUID]
