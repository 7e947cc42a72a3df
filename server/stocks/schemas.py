"""The API's contract for materials."""

from uuid import UUID

from ninja import Schema
from pydantic import BaseModel

from server.common.schemas import SectionOut, SeenIn


class WoodOut(BaseModel):
    """A wood or treatment of the book; densities air-dry."""

    word: str
    name: str
    kilograms_per_m3: str
    pounds_per_foot3: str
    exposure: str
    caution: str


class OwnMaterialOut(BaseModel):
    """A material of one's own: as typed, and what was understood; ``used`` says how often."""

    id: UUID
    name: str
    form: str
    thickness: str
    width: str
    density: str
    kind: str
    exposure: str
    caution: str
    section: SectionOut
    kilograms_per_m3: str
    used: int


class MaterialsOut(BaseModel):
    version: int
    woods: list[WoodOut]
    own: list[OwnMaterialOut]
    exposures: list[str]
    undo: str | None
    redo: str | None
    change: str


class OwnFieldsIn(Schema):
    """Fields of a material, those that are given."""

    thickness: str | None = None
    width: str | None = None
    density: str | None = None
    kind: str | None = None
    exposure: str | None = None
    caution: str | None = None


class OwnMaterialIn(SeenIn, OwnFieldsIn):
    """A new material under an id of the client's making, or fields of one that is there; ``name``
    and ``form`` of a new one only."""

    name: str | None = None
    form: str | None = None
