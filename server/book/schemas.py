"""The API's contract for the book."""

from datetime import datetime
from uuid import UUID

from pydantic import BaseModel


class SpentLineOut(BaseModel):
    what: str
    paid: str


class SpentOut(BaseModel):
    """What a project that is cut has cost, tax and all; no ``lines`` where nothing is cut."""

    lines: list[SpentLineOut]
    total: str
    told: str


class ProjectRowOut(BaseModel):
    """A project in the list of projects; of one that is cut, ``cost`` is what it has cost."""

    id: UUID
    name: str
    unit: str
    copies: int
    yard: str
    parts: int
    boards: int | None
    cost: str | None
    proven: bool
    is_cut: bool
    updated: datetime
