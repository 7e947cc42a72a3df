"""What a size and a family of sizes are, and how the tables of the book are written."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from fractions import Fraction

from carpentry.language import TICKS_PER_INCH, TICKS_PER_MM, Unit, read_length
from carpentry.lumber.section import Section

PS_20 = "American Softwood Lumber Standard PS 20"
NHLA = "NHLA rules for hardwood lumber"
COMMON = "common practice, no source"


@dataclass(frozen=True)
class Size:
    """A size by its name. ``thickness`` and ``width`` are nominal inches, ``width`` ``None`` for
    random widths; ``section`` is what it measures as it is usually sold, ``green`` before drying.
    """

    name: str
    thickness: Fraction
    width: Fraction | None
    section: Section
    green: Section | None = None


@dataclass(frozen=True)
class Family:
    """Sizes that come from one rule. ``note`` says what a builder should know of it; ``word`` is
    what follows the size where a name needs it (``1x6 rough``)."""

    name: str
    source: str
    note: str
    sizes: tuple[Size, ...]
    word: str = ""


def inch_ticks(text: str) -> int:
    return read_length(text, Unit.INCH).ticks


def inch_section(thickness: str, width: str) -> Section:
    return Section(inch_ticks(thickness), inch_ticks(width))


def as_number(text: str) -> Fraction:
    """A number as sizes are named: ``5/4``, ``1 1/2``, ``89``."""
    return sum(map(Fraction, text.split()), Fraction(0))


def worked(word: str, rows: Mapping[str, tuple[str, str]]) -> tuple[Size, ...]:
    """Sizes named in inches with a word after them, each with its real thickness and width."""
    return tuple(
        Size(
            f"{name} {word}",
            as_number(name.partition("x")[0]),
            as_number(name.partition("x")[2]),
            inch_section(*real),
        )
        for name, real in rows.items()
    )


def metric(rows: Iterable[tuple[int, int, int, int]], prefix: str = "") -> Iterator[Size]:
    """Sizes named in millimetres, each with its real thickness and width."""
    for thickness, width, real_thickness, real_width in rows:
        yield Size(
            f"{prefix}{thickness}x{width}",
            Fraction(thickness * TICKS_PER_MM, TICKS_PER_INCH),
            Fraction(width * TICKS_PER_MM, TICKS_PER_INCH),
            Section(real_thickness * TICKS_PER_MM, real_width * TICKS_PER_MM),
        )


def as_named(rows: Mapping[int, Iterable[int]]) -> Iterator[tuple[int, int, int, int]]:
    """Rows of sizes that measure what they are called: widths by thickness, in millimetres."""
    return (
        (thickness, width, thickness, width)
        for thickness, widths in rows.items()
        for width in widths
    )
