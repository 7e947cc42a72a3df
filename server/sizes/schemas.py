"""The API's contract for the size book."""

from uuid import UUID

from ninja import Schema
from pydantic import BaseModel

from carpentry.language import Unit
from server.common.schemas import LengthOut


class BothUnitsOut(BaseModel):
    """A length in inches and in millimetres."""

    inches: LengthOut
    millimetres: LengthOut


class BookSizeOut(BaseModel):
    """A size of the book. ``width`` is missing for random widths, green where it is the same."""

    name: str
    thickness: BothUnitsOut
    width: BothUnitsOut | None
    green_thickness: BothUnitsOut | None
    green_width: BothUnitsOut | None


class FamilyOut(BaseModel):
    name: str
    source: str
    note: str
    sizes: list[BookSizeOut]


class BookOut(BaseModel):
    """What was found, by family; ``message`` says why there is nothing."""

    families: list[FamilyOut]
    message: str


class WaysIn(Schema):
    """A finished size. ``words`` narrow the yard's stock, such as ``cedar``; without them its plain
    boards count."""

    thickness: str
    width: str
    unit: Unit = Unit.INCH
    yard: UUID | None = None
    words: str = ""


class WayOut(BaseModel):
    """One way to a finished size; ``cost`` is per running foot at the yard."""

    way: str
    size: str
    boards: int
    thickness: BothUnitsOut
    width: BothUnitsOut
    off_width: BothUnitsOut
    off_thickness: BothUnitsOut
    cost: str | None
