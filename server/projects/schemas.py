"""The API's contract for projects and their parts."""

from datetime import datetime
from uuid import UUID

from ninja import Schema
from pydantic import BaseModel

from carpentry.length import Notation, Unit
from server.config.schemas import ColumnOut, LengthOut, ProblemOut
from server.plans.schemas import AlreadyCutOut, PlanOut, SectionOut


class SettingLengthOut(BaseModel):
    """A length as typed, and as it is shown."""

    typed: str
    shown: LengthOut


class YardNameOut(BaseModel):
    id: UUID
    name: str


class PartOut(BaseModel):
    """A part: each field as typed, and what was understood. ``over_all`` is its length between the
    outermost points where that is another, ``sawn`` that with what is added for the
    work. ``angles`` are its ends in words, ``bevels`` its edges, ``pair`` the mark of
    the part that is its mirror image.
    """

    id: UUID
    mark: str
    quantity: str
    name: str
    stock: str
    length: str
    thickness: str
    width: str
    ends: str
    edges: str
    measured: str
    grain: str
    clear: str
    show: str
    rip: str
    resaw: str
    own_stock: str
    extra_length: str
    extra_width: str
    extra_thickness: str
    boards: str
    group: str
    note: str
    pieces: int
    cut: int
    called: str
    stock_name: str
    kind: str
    section: SectionOut | None
    section_source: str
    length_shown: LengthOut
    over_all: LengthOut | None
    sawn: LengthOut | None
    angles: str
    bevels: str
    pair: str
    weight: str
    later: str
    warnings: list[str]


class ChangeOut(BaseModel):
    """What the newest change was, and what it did to the purchase (empty when not known yet)."""

    label: str
    effect: str


class ProjectOut(BaseModel):
    id: UUID
    name: str
    version: int
    unit: Unit
    notation: Notation
    kerf: SettingLengthOut
    trim_start: SettingLengthOut
    trim_end: SettingLengthOut
    keep_from: SettingLengthOut
    keep_from_of: str
    keep_width: SettingLengthOut
    saw_crosscut: SettingLengthOut
    saw_rip_depth: SettingLengthOut
    saw_rip_width: SettingLengthOut
    saw_resaw_depth: SettingLengthOut
    saw_tilt: str
    saw_miter: str
    budget: str
    sells_for: str
    joints: str
    hardware: str
    finishes: str
    rules: str
    usual_rules: list[str]
    extra_length: SettingLengthOut
    extra_width: SettingLengthOut
    extra_thickness: SettingLengthOut
    eased: SettingLengthOut
    copies: int
    yard: YardNameOut | None
    rack: str
    rip: bool
    resaw: bool
    own_stock: bool
    order: str
    share_angled_cuts: bool
    spare: str
    parts: list[PartOut]
    undo: str | None
    redo: str | None
    change: ChangeOut
    updated: datetime
    already_cut: list[AlreadyCutOut]
    plan: PlanOut


class ProjectRowOut(BaseModel):
    """A project in the list of projects."""

    id: UUID
    name: str
    unit: str
    copies: int
    yard: str
    parts: int
    boards: int | None
    cost: str | None
    proven: bool
    updated: datetime


class ConflictOut(BaseModel):
    """A change came from a state that is no longer the newest: that state, and the newest."""

    detail: str
    seen: dict[str, object] | None
    current: ProjectOut


class NewProjectIn(Schema):
    id: UUID
    name: str
    unit: str
    yard: UUID | None = None


class SeenIn(Schema):
    """Every change names the version it saw and carries an id of its own."""

    version: int
    change_id: UUID


class ProjectPatchIn(SeenIn):
    name: str | None = None
    unit: str | None = None
    notation: str | None = None
    kerf: str | None = None
    trim_start: str | None = None
    trim_end: str | None = None
    copies: int | None = None
    yard: UUID | str | None = None
    rack: str | None = None
    rip: bool | None = None
    resaw: bool | None = None
    own_stock: bool | None = None
    keep_width: str | None = None
    saw_crosscut: str | None = None
    saw_rip_depth: str | None = None
    saw_rip_width: str | None = None
    saw_resaw_depth: str | None = None
    saw_tilt: str | None = None
    saw_miter: str | None = None
    order: str | None = None
    share_angled_cuts: bool | None = None
    keep_from: str | None = None
    keep_from_of: str | None = None
    budget: str | None = None
    sells_for: str | None = None
    joints: str | None = None
    hardware: str | None = None
    finishes: str | None = None
    rules: str | None = None
    extra_length: str | None = None
    extra_width: str | None = None
    extra_thickness: str | None = None
    eased: str | None = None
    spare: str | None = None


class PartsIn(SeenIn):
    """Typed lines or a pasted table, its ``columns`` as the builder says."""

    text: str
    columns: str = ""


class ImportIn(SeenIn):
    """What goes with a file of parts."""

    columns: str = ""


class PartPatchIn(SeenIn):
    quantity: str | None = None
    name: str | None = None
    stock: str | None = None
    length: str | None = None
    thickness: str | None = None
    width: str | None = None
    ends: str | None = None
    edges: str | None = None
    measured: str | None = None
    grain: str | None = None
    clear: str | None = None
    show: str | None = None
    rip: str | None = None
    resaw: str | None = None
    own_stock: str | None = None
    extra_length: str | None = None
    extra_width: str | None = None
    extra_thickness: str | None = None
    boards: str | None = None
    group: str | None = None
    note: str | None = None


class RemovePartsIn(SeenIn):
    parts: list[UUID]


class TextIn(Schema):
    """What was typed or pasted; ``columns`` says what each column is, where the builder does."""

    text: str
    unit: Unit
    notation: Notation = Notation.THIRTY_SECONDS
    columns: str = ""


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
