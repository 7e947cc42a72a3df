"""Sheet goods: what a sheet of each kind really measures through its thickness."""

from collections.abc import Mapping
from fractions import Fraction

from carpentry.language import TICKS_PER_INCH, TICKS_PER_MM
from carpentry.lumber.family import COMMON, Family, Size, as_number, inch_ticks
from carpentry.lumber.section import Section

_STAMPED = "as usually stamped in North America"
_WIDE, _METRIC_WIDE = 48 * TICKS_PER_INCH, 1220 * TICKS_PER_MM


def _inch(kind: str, rows: Mapping[str, str], wide: int = _WIDE) -> tuple[Size, ...]:
    """Sheets named in inches: the real thickness by the name."""
    return tuple(
        Size(
            f"{kind} {name.replace(' ', '-')}",
            as_number(name),
            Fraction(wide, TICKS_PER_INCH),
            Section(inch_ticks(real), wide),
        )
        for name, real in rows.items()
    )


def _mm(kind: str, *thicknesses: int) -> tuple[Size, ...]:
    """Sheets named in millimetres, which measure what they are called."""
    return tuple(
        Size(
            f"{kind} {thick}mm",
            Fraction(thick * TICKS_PER_MM, TICKS_PER_INCH),
            Fraction(_METRIC_WIDE, TICKS_PER_INCH),
            Section(thick * TICKS_PER_MM, _METRIC_WIDE),
        )
        for thick in thicknesses
    )


def _true(*names: str) -> dict[str, str]:
    return {name: name for name in names}


PLYWOOD = Family(
    "plywood",
    f"Sanded plywood and sheathing {_STAMPED}",
    "Sheets of 4 by 8 ft; the real thickness is a little less than the name in inches.",
    (
        *_inch(
            "ply",
            {
                **{"1/4": "7/32", "11/32": "11/32", "3/8": "11/32", "15/32": "15/32"},
                **{"1/2": "15/32", "19/32": "19/32", "5/8": "19/32", "23/32": "23/32"},
                **{"3/4": "23/32", "1 1/8": "1 3/32"},
            },
        ),
        *_mm("ply", 4, 6, 9, 12, 15, 18, 21, 24, 25),
    ),
)
OSB = Family(
    "oriented strand board",
    f"Sheathing {_STAMPED}",
    "Sheets of 4 by 8 ft.",
    (
        *_inch(
            "osb",
            {
                **{"3/8": "3/8", "7/16": "7/16", "15/32": "15/32", "1/2": "15/32"},
                **{"19/32": "19/32", "5/8": "19/32", "23/32": "23/32", "3/4": "23/32"},
            },
        ),
        *_mm("osb", 9, 11, 12, 15, 18, 22),
    ),
)
HARDBOARD = Family(
    "hardboard",
    COMMON,
    "Sheets of 4 by 8 ft, smooth on one side or on both.",
    (*_inch("hardboard", _true("1/8", "3/16", "1/4")), *_mm("hardboard", 3, 5, 6)),
)
MDF = Family(
    "medium-density fibreboard",
    COMMON,
    "Sheets of 49 by 97 in are common: a trim on every edge. Heavy, and it swells when wet.",
    (
        *_inch("mdf", _true("1/4", "3/8", "1/2", "5/8", "3/4", "1")),
        *_mm("mdf", 3, 6, 9, 12, 15, 18, 22, 25),
    ),
)
PARTICLEBOARD = Family(
    "particleboard",
    COMMON,
    "Sheets of 49 by 97 in are common. It does not stand wet.",
    (
        *_inch("particleboard", _true("3/8", "1/2", "5/8", "3/4")),
        *_mm("particleboard", 12, 15, 18, 22),
    ),
)
POLYCARBONATE = Family(
    "polycarbonate",
    COMMON,
    "Twin-wall panels; they lengthen in the sun: leave room, and drill the holes wide.",
    (
        *_inch("polycarbonate", _true("1/4", "5/16", "3/8", "5/8")),
        *_mm("polycarbonate", 4, 6, 8, 10, 16),
    ),
)
CORRUGATED = Family(
    "corrugated panels",
    COMMON,
    "By the depth of the corrugation. 26 in wide, they cover 24.",
    _inch("corrugated", _true("1/2", "9/16", "7/8"), 26 * TICKS_PER_INCH),
)
PANEL_FAMILIES = (*(PLYWOOD, OSB, HARDBOARD, MDF, PARTICLEBOARD, POLYCARBONATE, CORRUGATED),)
