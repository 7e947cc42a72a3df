"""Pieces of the API's contract that every part of it uses."""

from typing import Annotated

from pydantic import BaseModel, Field

from carpentry.length import measured_in, write_length

Page = Annotated[int, Field(ge=1, le=100_000)]


class LengthOut(BaseModel):
    """A length, ready to be typeset: ``whole``, a true fraction, and the ``mark`` of the unit."""

    ticks: int
    whole: str
    numerator: int | None
    denominator: int | None
    mark: str
    text: str
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
