"""The size book: standard sizes as small tables, each with its source.

Every value here is from memory of the sources named; the tests hold the same tables, typed a second
time. Standard families are never changed: a yard's or a board's own size is kept apart from them.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from fractions import Fraction

from carpentry.length import TICKS_PER_INCH, TICKS_PER_MM, Unit, read_length
from carpentry.sizes.section import Section


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
    """Sizes that come from one rule. ``note`` says what a builder should know of it."""

    name: str
    source: str
    note: str
    sizes: tuple[Size, ...]


def _ticks(text: str) -> int:
    return read_length(text, Unit.INCH).ticks


def _section(thickness: str, width: str) -> Section:
    return Section(_ticks(thickness), _ticks(width))


PS_20 = "American Softwood Lumber Standard PS 20, values from memory"
NHLA = "NHLA rules for hardwood lumber, values from memory"
COMMON = "common practice, no source"

# Nominal inches to dressed inches: dry, green.
_THIN = {
    "1": ("3/4", "25/32"),
    "5/4": ("1", "1 1/32"),
    "6/4": ("1 1/4", "1 9/32"),
}
_THICK = {
    "2": ("1 1/2", "1 9/16"),
    "3": ("2 1/2", "2 9/16"),
    "4": ("3 1/2", "3 9/16"),
}
_WIDE = {
    "2": ("1 1/2", "1 9/16"),
    "3": ("2 1/2", "2 9/16"),
    "4": ("3 1/2", "3 9/16"),
    "5": ("4 1/2", "4 5/8"),
    "6": ("5 1/2", "5 5/8"),
    "8": ("7 1/4", "7 1/2"),
    "10": ("9 1/4", "9 1/2"),
    "12": ("11 1/4", "11 1/2"),
}


def _dressed(
    thicknesses: dict[str, tuple[str, str]], widths: Iterable[str], at_least: Fraction
) -> Iterator[Size]:
    for thickness, (dry, green) in thicknesses.items():
        for width in widths:
            if Fraction(width) < max(Fraction(thickness), at_least):
                continue
            dry_width, green_width = _WIDE[width]
            yield Size(
                f"{thickness}x{width}",
                Fraction(thickness),
                Fraction(width),
                _section(dry, dry_width),
                _section(green, green_width),
            )


def _timbers() -> Iterator[Size]:
    for thickness in ("6", "8"):
        for width in ("6", "8", "10", "12"):
            if int(width) >= int(thickness):
                section = _section(f"{int(thickness) - 1} 1/2", f"{int(width) - 1} 1/2")
                yield Size(
                    f"{thickness}x{width}", Fraction(thickness), Fraction(width), section, section
                )


def _quarters() -> Iterator[Size]:
    """Rough and surfaced two sides; widths are random, so the section's width is 0."""
    for quarters, surfaced in (
        *((4, "13/16"), (5, "1 1/16"), (6, "1 5/16"), (8, "1 3/4")),
        *((10, "2 1/4"), (12, "2 3/4"), (16, "3 3/4")),
    ):
        rough = Section(quarters * TICKS_PER_INCH // 4, 0)
        nominal = Fraction(quarters, 4)
        yield Size(f"{quarters}/4 rough", nominal, None, rough)
        yield Size(f"{quarters}/4 surfaced", nominal, None, Section(_ticks(surfaced), 0))


def _rough_sawn() -> Iterator[Size]:
    for thickness in ("1", "2"):
        for width in ("4", "6", "8", "10", "12"):
            yield Size(
                f"{thickness}x{width} rough",
                Fraction(thickness),
                Fraction(width),
                _section(thickness, width),
            )


def _metric(
    pairs: Iterable[tuple[tuple[int, int], tuple[int, int]]], prefix: str
) -> Iterator[Size]:
    for (thickness, width), (real_thickness, real_width) in pairs:
        yield Size(
            f"{prefix}{thickness}x{width}",
            Fraction(thickness * TICKS_PER_MM, TICKS_PER_INCH),
            Fraction(width * TICKS_PER_MM, TICKS_PER_INCH),
            Section(real_thickness * TICKS_PER_MM, real_width * TICKS_PER_MM),
        )


def _same(*pairs: tuple[int, int]) -> Iterator[tuple[tuple[int, int], tuple[int, int]]]:
    return ((pair, pair) for pair in pairs)


def _sheets() -> Iterator[Size]:
    wide, long = Fraction(48), 48 * TICKS_PER_INCH
    for kind, rows in (
        (
            "ply",
            {"1/4": "7/32", "3/8": "11/32", "1/2": "15/32", "5/8": "19/32", "3/4": "23/32"},
        ),
        ("osb", {"7/16": "7/16", "1/2": "15/32", "5/8": "19/32", "3/4": "23/32"}),
        ("hardboard", {"1/8": "1/8", "1/4": "1/4"}),
    ):
        for nominal, real in rows.items():
            yield Size(f"{kind} {nominal}", Fraction(nominal), wide, Section(_ticks(real), long))


BOARDS = Family(
    "boards",
    PS_20,
    "Dressed on four sides. Under 2 in thick.",
    tuple(_dressed(_THIN, _WIDE, Fraction(2))),
)
DIMENSION = Family(
    "dimension",
    PS_20,
    "Dressed framing lumber, 2 to 4 in thick.",
    tuple(_dressed(_THICK, _WIDE, Fraction(2))),
)
TIMBERS = Family(
    "timbers",
    PS_20,
    "5 in and thicker are dressed green, half an inch off each way, and shrink as they dry.",
    tuple(_timbers()),
)
DECKING = Family(
    "decking",
    PS_20,
    "Radius-edged deck boards; some yards' are 15/16 in thick.",
    tuple(
        Size(
            f"5/4x{width} decking", Fraction(5, 4), Fraction(width), _section("1", _WIDE[width][0])
        )
        for width in ("4", "6")
    ),
)
HARDWOOD = Family(
    "hardwood",
    NHLA,
    "Thickness in quarters of an inch, widths at random, sold by the board foot.",
    tuple(_quarters()),
)
ROUGH_SAWN = Family(
    "rough sawn",
    COMMON,
    "Not planed: it measures what it is called, more or less the saw's wander.",
    tuple(_rough_sawn()),
)
PICKETS = Family(
    "pickets",
    COMMON,
    "Fence pickets sold as 5/8 are often 1/2 in thick: measure one.",
    tuple(
        Size(f"5/8x{width} picket", Fraction(5, 8), Fraction(width), _section("1/2", real))
        for width, real in (("4", "3 1/2"), ("6", "5 1/2"))
    ),
)
METRIC_STUDS = Family(
    "metric studs",
    COMMON,
    "Regularised or planed studs, named by what they measure in millimetres.",
    tuple(_metric(_same((38, 63), (38, 89), (38, 140), (38, 184), (47, 97), (47, 147)), "")),
)
METRIC_PLANED = Family(
    "metric planed",
    COMMON,
    "Named after the sawn size they were planed from: about 5 mm less each way.",
    tuple(
        _metric(
            (
                ((25, 50), (20, 45)),
                ((25, 75), (20, 70)),
                ((25, 100), (20, 95)),
                ((25, 150), (20, 145)),
                ((50, 50), (45, 45)),
                ((50, 75), (45, 70)),
                ((50, 100), (45, 95)),
            ),
            "ex ",
        )
    ),
)
SHEETS = Family(
    "sheets",
    "Sanded plywood and sheathing as usually stamped in North America, values from memory",
    "Sheets of 4 by 8 ft; the real thickness is a little less than the name.",
    tuple(_sheets()),
)
FAMILIES = (
    *(BOARDS, DIMENSION, TIMBERS, DECKING, HARDWOOD),
    *(ROUGH_SAWN, PICKETS, METRIC_STUDS, METRIC_PLANED, SHEETS),
)
STOCK_FAMILIES = (BOARDS, DIMENSION, TIMBERS, METRIC_STUDS)  # what a stock name may begin with
