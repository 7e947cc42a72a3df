"""The API's contract for shapes and their drawings."""

from uuid import UUID

from ninja import Schema
from pydantic import BaseModel, Field

from server.common.schemas import LengthOut, ProblemOut, SeenIn, ValueOut


class ShapeOut(BaseModel):
    """A shape: its measures as typed, what those that are figures come to, the letters of the parts
    that it wrote, the work on them in lines, and what of it was taken away."""

    id: UUID
    called: str
    shape: str
    heading: str
    measures: dict[str, str]
    values: dict[str, ValueOut]
    writes: list[str]
    work: list[str]
    left_out: list[str]
    problems: list[ProblemOut]
    notices: list[str]


class DrawnPieceOut(BaseModel):
    """A piece of a part, by its letter: its corners, in pixels."""

    letter: str
    number: int
    kind: str
    points: str


class DrawnLabelOut(BaseModel):
    """Something written in a drawing with its middle there: a size, or the letter of a piece."""

    text: str
    x: float
    y: float
    letter: str


class DrawnOut(BaseModel):
    """One view of a shape, pieces from the furthest to the nearest; a line is its two ends."""

    name: str
    width: float
    height: float
    ratio: str
    pieces: list[DrawnPieceOut]
    lines: list[list[float]]
    labels: list[DrawnLabelOut]


class DrawingOut(BaseModel):
    """A shape in its views, or why it cannot be drawn."""

    views: list[DrawnOut]
    problems: list[ProblemOut]


class PreviewedPartOut(BaseModel):
    """A part that a shape would write."""

    mark: str
    quantity: int
    name: str
    stock: str
    length: LengthOut


class ShapePreviewOut(DrawingOut):
    """What a shape would write, and its drawing."""

    parts: list[PreviewedPartOut]


class ShapeMeasuresIn(Schema):
    """What a shape is called, which it is, and its measures as typed."""

    called: str = Field("", max_length=100)
    shape: str = Field("", max_length=100)
    measures: dict[str, str] = {}


class ShapeIn(SeenIn, ShapeMeasuresIn):
    """A shape more."""


class ShapePatchIn(SeenIn):
    """Measures of a shape that change, and what it is called where that does."""

    called: str | None = Field(None, max_length=100)
    measures: dict[str, str] = {}


class ShapePreviewIn(ShapeMeasuresIn):
    """A shape that is being typed, and the room that there is for its drawing."""

    wide: int = 700
    high: int = 440


class LetGoIn(SeenIn):
    """Whether all that a shape wrote goes with it."""

    with_all: bool = False


class FollowAgainIn(SeenIn):
    """A field of a part that follows its shape again; all of the shape where no part is said."""

    part: UUID | None = None
    field: str = ""
