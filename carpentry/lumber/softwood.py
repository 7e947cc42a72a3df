"""Softwood lumber in inches: boards, dimension lumber, timbers, and what is worked from them."""

from collections.abc import Iterable, Iterator
from fractions import Fraction

from carpentry.lumber.family import COMMON, PS_20, Family, Size, as_number, inch_section, worked

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
    "1": ("3/4", "25/32"),
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
    thicknesses: dict[str, tuple[str, str]], widths: Iterable[str], at_least: str
) -> Iterator[Size]:
    for thickness, (dry, green) in thicknesses.items():
        for width in widths:
            if as_number(width) < max(as_number(thickness), as_number(at_least)):
                continue
            dry_width, green_width = _WIDE[width]
            yield Size(
                f"{thickness}x{width}",
                as_number(thickness),
                as_number(width),
                inch_section(dry, dry_width),
                inch_section(green, green_width),
            )


def _timbers() -> Iterator[Size]:
    sides = ("6", "8", "10", "12")
    for at, thickness in enumerate(sides):
        for width in sides[at:]:
            section = inch_section(f"{int(thickness) - 1} 1/2", f"{int(width) - 1} 1/2")
            yield Size(
                f"{thickness}x{width}", as_number(thickness), as_number(width), section, section
            )


def _rough_sawn() -> Iterator[Size]:
    for thickness in ("1", "5/4", "6/4", "2", "3", "4", "6", "8", "10", "12"):
        for width in ("2", "3", "4", "6", "8", "10", "12"):
            if as_number(width) >= as_number(thickness):
                section = inch_section(_mixed(thickness), width)
                yield Size(
                    f"{thickness}x{width} rough", as_number(thickness), as_number(width), section
                )


def _mixed(thickness: str) -> str:
    """Quarters as a tape shows them: 5/4 is 1 1/4."""
    whole, rest = divmod(Fraction(thickness), 1)
    return f"{whole} {rest}" if rest else str(whole)


BOARDS = Family(
    "boards",
    PS_20,
    "Dressed on four sides. Under 2 in thick.",
    (*_dressed({"1": _THIN["1"]}, ("1",), "1"), *_dressed(_THIN, _WIDE, "2")),
)
DIMENSION = Family(
    "dimension",
    PS_20,
    "Dressed framing lumber, 2 to 4 in thick.",
    tuple(_dressed(_THICK, _WIDE, "2")),
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
    worked("decking", {f"5/4x{width}": ("1", _WIDE[width][0]) for width in ("4", "6")}),
    "decking",
)
TONGUE_AND_GROOVE = Family(
    "tongue and groove",
    PS_20,
    "The width is over the tongue, of 1/4 in: a 1x6 covers 5 1/8 in.",
    worked(
        "t&g",
        {
            "1x4": ("3/4", "3 3/8"),
            "1x6": ("3/4", "5 3/8"),
            "1x8": ("3/4", "7 1/8"),
            "1x10": ("3/4", "9 1/8"),
            "2x6": ("1 1/2", "5 3/8"),
            "2x8": ("1 1/2", "7 1/8"),
        },
    ),
    "t&g",
)
SHIPLAP = Family(
    "shiplap",
    PS_20,
    "The width is over the lap, of 3/8 in: a 1x6 covers 5 1/8 in.",
    worked(
        "shiplap",
        {
            "1x4": ("3/4", "3 1/2"),
            "1x6": ("3/4", "5 1/2"),
            "1x8": ("3/4", "7 1/4"),
            "1x10": ("3/4", "9 1/4"),
            "1x12": ("3/4", "11 1/4"),
        },
    ),
    "shiplap",
)
SIDING = Family(
    "bevel siding",
    PS_20,
    "The thickness is that of the thick edge; the thin one is about 3/16 in.",
    worked(
        "siding",
        {
            "1/2x4": ("15/32", "3 1/2"),
            "1/2x5": ("15/32", "4 1/2"),
            "1/2x6": ("15/32", "5 1/2"),
            "1/2x8": ("15/32", "7 1/4"),
            "3/4x8": ("3/4", "7 1/4"),
            "3/4x10": ("3/4", "9 1/4"),
        },
    ),
    "siding",
)
ROUGH_SAWN = Family(
    "rough sawn",
    COMMON,
    "Not planed: it measures what it is called, more or less the saw's wander.",
    tuple(_rough_sawn()),
    "rough",
)
PICKETS = Family(
    "pickets",
    COMMON,
    "Fence pickets sold as 5/8 are often 1/2 in thick: measure one.",
    worked(
        "picket",
        {
            "5/8x4": ("1/2", "3 1/2"),
            "5/8x6": ("1/2", "5 1/2"),
            "1x4": ("3/4", "3 1/2"),
            "1x6": ("3/4", "5 1/2"),
        },
    ),
    "picket",
)
FURRING = Family(
    "furring",
    COMMON,
    "Strapping of low grade: crooked, and often scant by 1/16 in.",
    worked("furring", {f"1x{width}": ("3/4", _WIDE[width][0]) for width in ("2", "3", "4")}),
    "furring",
)
LATTICE = Family(
    "lattice",
    COMMON,
    "Thin clear strips, sold by what they measure.",
    worked(
        "lattice",
        {f"1/4x{width}": ("1/4", width) for width in ("1 1/8", "1 3/8", "1 5/8", "2 5/8")},
    ),
    "lattice",
)
LANDSCAPE = Family(
    "landscape timbers",
    COMMON,
    "Peeler cores with two flat faces, treated; sizes vary from mill to mill: measure one.",
    worked("landscape", {"3x4": ("2 1/2", "3 1/2"), "3x5": ("2 3/4", "4 1/2")}),
    "landscape",
)
