"""The API's contract for projects and their parts."""

from datetime import datetime
from uuid import UUID

from ninja import Schema
from pydantic import BaseModel, create_model

from carpentry.design import PartFields
from carpentry.design.measures import MeasureFields
from carpentry.design.runs import RunFields
from carpentry.language import Notation, Unit, typed_fields
from carpentry.project import SettingFields
from carpentry.project.settings import PROJECT_LENGTHS, SAW
from server.common.columns import given_fields, shown_fields
from server.common.schemas import (
    ColumnOut,
    ConflictOut,
    LengthOut,
    ProblemOut,
    SectionOut,
    SeenIn,
    ValueOut,
)
from server.projects.shape_schemas import DrawnOut, ShapeOut


class SettingLengthOut(BaseModel):
    """A length as typed, and as it is shown."""

    typed: str
    shown: LengthOut


class YardNameOut(BaseModel):
    id: UUID
    name: str


class SlantOut(BaseModel):
    """How ends and edges lean, left and right, in degrees from square, for a small picture;
    ``bevels`` says which ends lean through the thickness and not across the width."""

    ends: list[float]
    bevels: list[bool]
    edges: list[float]


class FollowedOut(BaseModel):
    """What the formula of a field came to, as text in the project's unit, and whether that is the
    exact value."""

    field: str
    value: str
    exact: bool


class FaceOut(BaseModel):
    """How long an angled part is measured otherwise: long, short, along the edge, at the centre."""

    called: str
    length: LengthOut


class PartOut(shown_fields(PartFields, "PartFieldsOut")):
    """A part: each field as typed, and what was understood. ``over_all`` is its length between the
    outermost points where that is another, ``sawn`` that with what is added for the work.
    ``angles`` are its ends in words, ``bevels`` its edges; ``slant`` is missing where all are
    square. ``computed`` is its length where the tape said another, which holds; with a ``fault``
    what it follows cannot be worked out.
    """

    id: UUID
    mark: str
    position: int
    pieces: int
    called: str
    stock_name: str
    kind: str
    section: SectionOut | None
    section_source: str
    length_shown: LengthOut
    computed: LengthOut | None
    follows: list[FollowedOut]
    fault: str
    is_held: bool
    shape: UUID | None
    by_hand: list[str]
    shaping: list[str]
    sketch: DrawnOut | None
    other_faces: list[FaceOut]
    over_all: LengthOut | None
    sawn: LengthOut | None
    angles: str
    bevels: str
    slant: SlantOut | None
    weight: str
    warnings: list[str]


class SpecimenOut(BaseModel):
    """One of several things measured, and whether it fits what holds."""

    text: str
    fits: bool


class MeasureOut(shown_fields(MeasureFields, "MeasureFieldsOut")):
    """A measure as typed, what holds, and what it would come to where the tape said otherwise."""

    id: UUID
    value: ValueOut | None
    computed: ValueOut | None
    problems: list[str]
    specimens: list[SpecimenOut]
    used_by: list[str]


class MarkOut(BaseModel):
    """One item of a run: where it is marked from either end, where it lies (ticks), and what it
    ends at where that is to be checked."""

    number: int
    left: LengthOut
    right: LengthOut
    start: int
    wide: int
    left_out: bool
    loose: bool
    check: LengthOut | None


class NeighbourOut(BaseModel):
    """The gap that another number of items would leave."""

    count: int
    gap: LengthOut


class OpeningOut(BaseModel):
    """What is free where items are left out, from the one of this number on."""

    number: int
    width: LengthOut


class LaidOut(BaseModel):
    """How a run lies. ``rows``, ``first`` and ``last`` (what they are ripped to) are those of
    siding."""

    count: int
    pieces: int
    item: LengthOut
    along: LengthOut
    gap: LengthOut | None
    exact_gap: str
    neighbours: list[NeighbourOut]
    marks: list[MarkOut]
    side: str
    packers: list[str]
    rows: int | None
    first: LengthOut | None
    last: LengthOut | None
    is_shifted: bool
    exposure: LengthOut | None
    openings: list[OpeningOut]
    caution: str


class RunOut(shown_fields(RunFields, "RunFieldsOut")):
    """A run as typed, and how it lies or what is wrong with it."""

    id: UUID
    kind: str
    laid: LaidOut | None
    problems: list[ProblemOut]
    used_by: list[str]


_SettingsOut = create_model(  # type: ignore[call-overload]
    "SettingsOut",
    __base__=shown_fields(
        SettingFields, "SettingFieldsOut", *PROJECT_LENGTHS, *SAW, "unit", "notation"
    ),
    **dict.fromkeys(PROJECT_LENGTHS, (SettingLengthOut, ...)),
)


class WholeProjectOut(_SettingsOut):
    """A project but for its parts: its settings and what is typed a line each. ``pairs`` has, of
    each part that has one, the mark of the part that is its mirror image; ``change`` is what the
    newest change was."""

    id: UUID
    name: str
    version: int
    unit: Unit
    notation: Notation
    joints: str
    hardware: str
    finishes: str
    rules: str
    work: str
    steps: str
    products: str
    weather: str
    measures: list[MeasureOut]
    runs: list[RunOut]
    shapes: list[ShapeOut]
    usual_rules: list[str]
    yard: YardNameOut | None
    pairs: dict[UUID, str]
    undo: str | None
    redo: str | None
    change: str
    updated: datetime


class DeletedProjectOut(BaseModel):
    """A project that was deleted and can be brought back."""

    id: UUID
    name: str
    deleted: datetime


class ProjectOut(WholeProjectOut):
    """A project with its parts."""

    parts: list[PartOut]


class ProjectChangedOut(WholeProjectOut):
    """What a change made of a project of the version ``seen``: the parts that it added or altered,
    and the ids of those that are gone. All parts are there where it is ``whole``: then what was
    known before is known no more."""

    seen: int
    whole: bool
    parts: list[PartOut]
    gone: list[UUID]


class NewProjectIn(Schema):
    id: UUID
    name: str
    unit: str
    yard: UUID | None = None


class _ProjectIn(SeenIn):
    name: str | None = None
    yard: UUID | str | None = None
    joints: str | None = None
    hardware: str | None = None
    finishes: str | None = None
    rules: str | None = None
    work: str | None = None
    steps: str | None = None
    products: str | None = None
    weather: str | None = None


ProjectPatchIn = given_fields(SettingFields, "ProjectPatchIn", _ProjectIn, *SAW)
PartPatchIn = given_fields(PartFields, "PartPatchIn", SeenIn)
MeasurePatchIn = given_fields(MeasureFields, "MeasurePatchIn", SeenIn)
RunPatchIn = given_fields(RunFields, "RunPatchIn", SeenIn)
RunIn = given_fields(RunFields, "RunIn", SeenIn)
ProjectConflictOut = ConflictOut[ProjectOut]
PART_FIELDS = tuple(typed_fields(PartFields))


class PartsIn(SeenIn):
    """Typed lines or a pasted table, its ``columns`` as the builder says."""

    text: str
    columns: str = ""


class ImportIn(SeenIn):
    """What goes with a file of parts: they are added to those that are there, or come ``instead``
    of them."""

    columns: str = ""
    instead: bool = False


class RemovePartsIn(SeenIn):
    parts: list[UUID]


class LineIn(SeenIn):
    """One typed line."""

    line: str


class MeasureReadingIn(Schema):
    """A measure as a line that is being typed."""

    line: str


class QuestionIn(Schema):
    """A common question, and what is given by the names of what it asks for."""

    question: str
    given: dict[str, str]


class MeasureReadingOut(BaseModel):
    """What a line would come to as a measure, or why it is none; the formula that it is worked out
    by."""

    name: str
    formula: str
    value: ValueOut | None
    problems: list[ProblemOut]


class FileReadingIn(Schema):
    """How a file of parts is read; ``columns`` says what each column is, where the builder does.
    Formulas follow the measures of the ``project``."""

    unit: Unit
    notation: Notation = Notation.THIRTY_SECONDS
    columns: str = ""
    project: UUID | None = None


class TextIn(FileReadingIn):
    """What was typed or pasted, and how it is read."""

    text: str


class ReadPartOut(BaseModel):
    """A part as understood, before it is kept."""

    quantity: int
    name: str
    stock: str
    kind: str
    section: SectionOut | None
    length: LengthOut
    group: str
    note: str
    later: str
    warnings: list[str]


class UsualLengthsOut(BaseModel):
    """The lengths that a kind of fastener is usually sold in."""

    kind: str
    lengths: list[LengthOut]


class ReadingOut(BaseModel):
    """What a text or a file was understood as: parts, or problems and no parts. ``columns`` are
    those of a table, ``choices`` what they may be."""

    columns: list[ColumnOut]
    choices: list[str]
    parts: list[ReadPartOut]
    problems: list[ProblemOut]
