"""Pieces of the API's contract that every part of it uses."""

from functools import lru_cache
from typing import Annotated, Generic, TypeVar
from uuid import UUID

from ninja import Schema
from pydantic import BaseModel, ConfigDict, Field

from carpentry.language import measured_in, write_length
from carpentry.lumber import Section

T = TypeVar("T")
Page = Annotated[int, Field(ge=1, le=100_000)]


class LengthOut(BaseModel):
    """A length, ready to be typeset: ``whole``, a true fraction, and the ``mark`` of the unit."""

    model_config = ConfigDict(frozen=True)
    ticks: int
    whole: str
    numerator: int | None
    denominator: int | None
    mark: str
    text: str
    exact: bool


class ValueOut(BaseModel):
    """A value: its kind, as text in the project's unit, as a length where it is one, and whether
    that is exact."""

    kind: str
    text: str
    length: LengthOut | None
    exact: bool


class ProblemOut(BaseModel):
    """One fault: where it is, and what it is in a builder's words."""

    place: str
    message: str


class ColumnOut(BaseModel):
    """What a column of a table is taken for, empty for nothing, with its heading and the first
    thing in it."""

    name: str
    heading: str
    sample: str


class ErrorOut(BaseModel):
    """What went wrong, with every fault that was found."""

    detail: str
    problems: list[ProblemOut]


@lru_cache(20_000)
def length_out(ticks: int, notation: str) -> LengthOut:
    """A length in ticks as the project's notation writes it."""
    written = write_length(ticks, notation)
    return LengthOut(
        ticks=ticks,
        whole=written.whole,
        numerator=written.numerator,
        denominator=written.denominator,
        mark=written.mark,
        text=written.text,
        exact=written.exact,
    )


def sawn_out(ticks: int, notation: str) -> LengthOut:
    """A length in ticks as it is measured at the saw: in millimetres where it is made in them."""
    return length_out(ticks, measured_in(ticks, notation))


class SectionOut(BaseModel):
    """A cross-section; a ``round`` one has its diameter in both."""

    thickness: LengthOut
    width: LengthOut
    round: bool


def section_out(section: Section | None, notation: str) -> SectionOut | None:
    if section is None:
        return None
    return SectionOut(
        thickness=sawn_out(section.thickness, notation),
        width=sawn_out(section.width, notation),
        round=section.round,
    )


class ChangeIn(Schema):
    """A change under an id of the client's making: asked twice it is made once."""

    change_id: UUID


class SeenIn(Schema):
    """Every change names the version it saw and carries an id of its own."""

    version: int
    change_id: UUID


class ConflictOut(BaseModel, Generic[T]):
    """A change came from a state that is no longer the newest: that state, and the newest."""

    detail: str
    seen: dict[str, object] | None
    current: T
