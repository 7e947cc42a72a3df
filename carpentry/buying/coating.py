"""Finish and glue by area: what is coated, how often, and how far a litre goes.

A can's label always wins over any rule; the coverage is what the builder types from it.
"""

import math
import re
from dataclasses import dataclass
from decimal import Decimal
from fractions import Fraction

from carpentry.errors import CarpentryError
from carpentry.length import TICKS_PER_MM

SQUARE_METRES_PER_SQUARE_FOOT = Fraction("0.09290304")  # exact: the foot is 0.3048 m
LITRES = {  # exact: the US gallon is 231 cubic inches
    "l": Fraction(1),
    "ml": Fraction(1, 1000),
    "gal": Fraction("3.785411784"),
    "qt": Fraction("0.946352946"),
    "pt": Fraction("0.473176473"),
    "fl oz": Fraction("0.0295735295625"),
}
MOST_COATS = 20
_NUMBER = r"\d+(?:\.\d+)?"
_VOLUME = re.compile(rf"({_NUMBER})\s*(ml|l|gal|qt|pt|fl\s*oz)", re.IGNORECASE)
_COAT = re.compile(
    rf"([^,]+?)\s+on\s+(all|[A-Z]{{1,3}}(?:\s+[A-Z]{{1,3}})*),\s*(\d+)\s+coats?,\s*"
    rf"({_NUMBER})\s*(m2/l|sq\s*ft/gal)(?:,\s*({_NUMBER})\s*%\s*loss)?",
    re.IGNORECASE,
)


@dataclass(frozen=True)
class Coat:
    """A finish on parts (by mark, empty for all): how many coats, how many square metres a litre
    covers, and the share that is lost, in percent."""

    text: str
    name: str
    marks: tuple[str, ...]
    coats: int
    coverage: Fraction
    loss: Fraction


def read_coat(text: str) -> Coat:
    """A finish: ``oil on B D E, 2 coats, 12 m2/l, 10 % loss``, or ``stain on all, 1 coat, 300
    sq ft/gal``. Raises ``CarpentryError``."""
    found = _COAT.fullmatch(text.strip())
    if not found:
        raise CarpentryError(
            "write what, on which and how far it goes: oil on B D, 2 coats, 12 m2/l"
        )
    name, on, coats, coverage, unit, loss = found.groups()
    if not 1 <= int(coats) <= MOST_COATS:
        raise CarpentryError(f"from 1 to {MOST_COATS} coats")
    far = Fraction(coverage)
    if not far:
        raise CarpentryError("a coverage of 0 covers nothing: the can's label says how far it goes")
    if unit.lower() != "m2/l":
        far *= SQUARE_METRES_PER_SQUARE_FOOT / LITRES["gal"]
    share = Fraction(loss or 0)
    if share >= 100:
        raise CarpentryError("a loss is less than 100 %")
    marks = () if on.lower() == "all" else tuple(on.upper().split())
    return Coat(text.strip(), name.strip(), marks, int(coats), far, share)


def surface(thickness: int, width: int, length: int) -> int:
    """The area of all six sides of a piece, in square ticks; sizes in ticks."""
    return 2 * (thickness * width + thickness * length + width * length)


def millilitres(coat: Coat, area: int) -> int:
    """What coats on an area (square ticks) take, rounded up: area × coats ÷ coverage, and what is
    lost on top."""
    square_metres = Fraction(area, (TICKS_PER_MM * 1000) ** 2)
    litres = square_metres * coat.coats / coat.coverage / (1 - coat.loss / 100)
    return math.ceil(litres * 1000)


def read_volume(text: str) -> int | None:
    """Millilitres (rounded) of a volume like ``1 qt`` or ``2.5 l``; ``None`` for what is none."""
    found = _VOLUME.fullmatch(text.strip())
    if not found:
        return None
    unit = re.sub(r"\s+", " ", found[2].lower().replace("floz", "fl oz"))
    return round(Fraction(found[1]) * LITRES[unit] * 1000)


def write_volume(volume: int, *, metric: bool) -> str:
    """Millilitres as a builder says them: ``1.25 l``, ``0.35 gal``; rounded up to the second
    place."""
    whole = Fraction(volume, 1000) / (1 if metric else LITRES["gal"])
    rounded = Decimal(math.ceil(whole * 100)) / 100
    return f"{rounded:f} {'l' if metric else 'gal'}"
