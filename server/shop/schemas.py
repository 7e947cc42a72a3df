"""The API's contract for the shop."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from ninja import Schema
from pydantic import BaseModel, Field

from carpentry.shop import BenchEvent
from server.common.columns import told_fields
from server.common.schemas import LengthOut


class LabelSheetIn(Schema):
    """A sheet of labels by its measures as typed: how many across and down, how large each is,
    where the first begins, how far apart they are. None of them for plain paper."""

    columns: str = ""
    rows: str = ""
    wide: str = ""
    high: str = ""
    left: str = ""
    top: str = ""
    apart: str = ""
    below: str = ""


class NewCuttingIn(Schema):
    """Cutting under an id of the client's making."""

    id: UUID


class _HappenedIn(Schema):
    """Something that happened at the bench, under an id of the client's making."""

    id: UUID
    kind: Annotated[str, Field(max_length=60)]


BenchEventIn = told_fields(BenchEvent, "BenchEventIn", _HappenedIn)


class BenchEventsIn(Schema):
    """Events in the order in which they happened."""

    events: list[BenchEventIn]


class RefusedBenchEventOut(BaseModel):
    """An event that could not be, and why."""

    id: UUID
    message: str


class SawnShapeOut(BaseModel):
    """What is sawn of a part: the corners of the ``line`` and of the ``waste`` (of an outline: of
    what is left), each from its marked end and marked edge (ticks)."""

    line: list[list[int]]
    waste: list[list[int]]
    is_outline: bool
    is_over: bool


class CardCutOut(BaseModel):
    """One cut of a set-up: its ``key`` is board and number. ``lies`` says how the piece is put on
    the saw; ``size`` are its length, width and thickness, ``near`` and ``far`` from stop or fence
    to either side of the blade (ticks). ``line`` says where the line is drawn on the face that is
    up; ``touches`` what of a slanted end touches the stop. ``near_end``, ``blade`` (its near side)
    and ``far_end`` are where ends and blade are drawn (ticks from what touches the stop), ``kerf``
    what it takes there: at the fence and away from it on the face that is up, away from it and at
    the fence on the table. ``corners`` is its end as it lies against the fence: from
    the fence out and from the table up, round it (ticks). ``measured`` is what a miscut is asked
    for: how long (or wide) the piece at stop or fence should be, ``None`` where nothing is measured
    there, and ``measured_how`` where its ends are slanted."""

    key: str
    board: int
    piece: str
    lies: str
    is_usual: bool
    up: str
    against: str
    first: str
    mark: LengthOut
    to_line: bool
    line: str
    line_along: str
    touches: str
    waste: str
    size: list[int]
    near_end: list[int]
    blade: list[int]
    far_end: list[int]
    kerf: int
    near: int
    far: int
    corners: list[list[int]]
    labels: list[str]
    makes: str
    keeps_near: bool
    keeps_far: bool
    measured: LengthOut | None
    measured_how: str
    shape: SawnShapeOut | None


class CardRowOut(BaseModel):
    """The cuts of one board at a set-up, in order; ``off`` are the parts that come off."""

    board: int
    called: str
    stock: str
    kind: str
    off: str
    cuts: list[CardCutOut]


class CardOut(BaseModel):
    """A set-up as it is read at the saw: ``heading`` over the figure ``at``, ``stands`` how the
    blade stands, ``tells`` what comes off. ``angle`` and ``tilt`` in degrees, with their
    directions as one stands before the saw."""

    key: str
    do: str
    tool: str
    heading: str
    at: LengthOut | None
    stands: str
    tells: str
    way: str
    notes: list[str]
    cautions: list[str]
    angle: float
    swing: str
    tilt: float
    tilt_side: str
    fence_side: str
    is_crosscut: bool
    minutes: float
    rows: list[CardRowOut]


class SequenceOut(BaseModel):
    """Set-ups in one order; how often a stop, fence or angle is set, and how often a board is taken
    up, a saw turned or tilted (``swings``), another tool gone to (``walks``); ``fewest`` where no
    order of these cuts, each in its turn along its board, takes fewer set-ups."""

    cards: list[CardOut]
    moves: int
    lifts: int
    swings: int
    walks: int
    fewest: bool


class BenchBoardOut(BaseModel):
    """A board: ``pieces`` are those that lie there now, each with what it is called and how long it
    is. ``is_more`` for one that was not in the plan."""

    number: int
    called: str
    stock: str
    length: LengthOut
    is_more: bool
    is_whole: bool
    is_gone: bool
    pieces: list["BenchPieceOut"]


class BenchPieceOut(BaseModel):
    number: int
    called: str
    length: LengthOut


class LastEventOut(BaseModel):
    """The newest event that can be undone: what it was, and the cuts that were done by it."""

    id: UUID
    said: str
    cuts: list[str]


class HeldOut(BaseModel):
    """Parts that are cut after something is measured."""

    mark: str
    name: str
    count: int


class LabelOut(BaseModel):
    """What is written on a piece; ``measured`` how its length is, where its ends are slanted."""

    label: str
    name: str
    length: LengthOut
    measured: str
    board: int
    goes_to: str


class CuttingOut(BaseModel):
    """Cutting as it is. ``id`` is ``None`` while it is not begun. ``seen`` are the events taken in,
    ``said`` what the newest one that changed the boards came to; ``changed`` says how the project
    differs at the desk from what is cut here."""

    id: UUID | None
    project: UUID
    name: str
    begun: datetime | None
    finished: bool
    by_stop: SequenceOut
    by_board: SequenceOut
    boards: list[BenchBoardOut]
    done: list[str]
    seen: list[UUID]
    refused: list[RefusedBenchEventOut]
    last: LastEventOut | None
    missing: list[str]
    said: str
    changed: list[str]
    held: list[HeldOut]
    not_yet: list[str]
    labels: list[LabelOut]
    marks: str
    notation: str
