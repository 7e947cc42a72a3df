"""The API's contract for the days of a project."""

from typing import Annotated
from uuid import UUID

from ninja import Schema
from pydantic import BaseModel, Field

from carpentry.time.progress import ProgressEvent
from server.common.columns import told_fields
from server.common.schemas import LengthOut, ProblemOut


class _HappenedIn(Schema):
    """Something that happened of a step, under an id of the client's making."""

    id: UUID
    kind: Annotated[str, Field(max_length=20)]


StepEventIn = told_fields(ProgressEvent, "StepEventIn", _HappenedIn)


class StepEventsIn(Schema):
    """Events in the order in which they happened; ``zone`` is where the builder's clock hangs."""

    zone: Annotated[str, Field(max_length=60)] = ""
    events: list[StepEventIn]


class StepCheckOut(BaseModel):
    """A check: what it is, what it asks for and how far off it may be; the answer that was given,
    whether it is good, and what it means where it is not."""

    told: str
    asks: str
    is_figure: bool
    answer: str
    good: bool
    says: str


class PieceOut(BaseModel):
    """Pieces of a step: their letter with numbers, what they are, and their finished size."""

    label: str
    name: str
    thickness: LengthOut | None
    width: LengthOut | None
    length: LengthOut


class DrawnShapeOut(BaseModel):
    """A shape that shows what a step puts together."""

    id: UUID
    called: str


class StepOut(BaseModel):
    """A step as it is planned. ``state`` is done, begun, dry (its wait goes on), next or later;
    ``spans`` are the stretches of work and ``start``, ``end`` and ``free_from`` its times, in
    minutes from the first day that is drawn. ``typed`` is the line to change it by, ``line`` the
    one that was typed, empty for none. It is done for each of a
    ``batch``, of which so many are ``made``."""

    key: str
    name: str
    sort: str
    detail: str
    state: str
    start: int
    end: int
    free_from: int
    spans: list[list[int]]
    when: str
    until: str
    work: str
    wait: str
    wait_says: str
    slack: str
    critical: bool
    late: bool
    needs: list[str]
    pieces: list[PieceOut]
    joints: list[str]
    drawn: list[DrawnShapeOut]
    notes: list[str]
    cautions: list[str]
    check: StepCheckOut | None
    batch: int
    made: int
    again: str
    last: UUID | None
    typed: str
    line: str
    is_own: bool


class DayOut(BaseModel):
    """A day that is drawn: where it begins (minutes), and its name."""

    at: int
    called: str


class WouldDoOut(BaseModel):
    """What would make it ready earlier, when that is, and whether that is in time; ``typed`` is
    what to type, by field, to take it, nothing where it cannot be."""

    says: str
    typed: dict[str, str]
    ready: str
    in_time: bool


class DaysOut(BaseModel):
    """The days of a project. ``thorough`` where all is worked out that can be; ``exact`` where no
    order of steps is ready earlier. Times of the drawing are in minutes from its first day, and
    ``width`` is how many there are."""

    project: UUID
    name: str
    version: int
    zone: str
    thorough: bool
    headline: str
    says: str
    is_late: bool
    begin_by: str
    ready: str
    late: str
    exact: bool
    proof: str
    next: str
    work: str
    work_done: str
    waiting: str
    clamps: str
    width: int
    now: int
    wanted: int | None
    wanted_says: str
    ready_at: int
    days: list[DayOut]
    free: list[list[int]]
    steps: list[StepOut]
    would_do: list[WouldDoOut]
    problems: list[ProblemOut]
    asks: list[str]
    not_timed: list[str]
    gone: list[str]
    cautions: list[str]
    refused: list[ProblemOut]
