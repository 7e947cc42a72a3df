"""Finish and glue by area: what is coated, how often, and how far a litre goes.

A can's label always wins over any rule; the coverage is what the builder types from it.
"""

import math
import re
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from carpentry.buying.products import usual_product
from carpentry.language import TICKS_PER_MM, CarpentryError

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
_MIX = re.compile(r"(.+?)\s*\+\s*(.+?)\s+(\d{1,3}):(\d{1,3})")
_NUMBER = r"\d+(?:\.\d+)?"
_VOLUME = re.compile(rf"({_NUMBER})\s*(ml|l|gal|qt|pt|fl\s*oz)", re.IGNORECASE)
_SIDES = "faces|face|edges|ends"
_COAT = re.compile(
    rf"([^,]+?)\s+on\s+(joints|all|(?:(?!(?:{_SIDES})\b)[A-Z]{{1,3}})"
    rf"(?:\s+(?!(?:{_SIDES})\b)[A-Z]{{1,3}})*)"
    rf"(?:\s+((?:{_SIDES})(?:\s+and\s+(?:{_SIDES}))*))?((?:,[^,]+)+)",
    re.IGNORECASE,
)
_HOW_OFTEN = re.compile(r"(\d+)\s+coats?", re.IGNORECASE)
_HOW_FAR = re.compile(rf"({_NUMBER})\s*(m2/l|sq\s*ft/gal)", re.IGNORECASE)
_LOST = re.compile(rf"({_NUMBER})\s*%\s*loss", re.IGNORECASE)
_CLOSING = re.compile(r"before closing", re.IGNORECASE)
_SANDED = re.compile(r"(not) sanded|sanded (?:at|to) (\d{2,4})", re.IGNORECASE)


@dataclass(frozen=True)
class Coat:
    """A finish or glue on parts (by mark, empty for all), on some of their ``sides`` or, empty, on
    all, or ``on_joints`` that are glued: how many coats, how many square metres a litre covers, and
    the share that is lost, in percent. ``mix`` names its components with their shares by volume;
    one alone has the whole. It may go on ``before_closing``, before the parts are joined. Its
    coverage may be the ``usual`` one. It is sanded for up to a ``grit`` (0 for not at all; ``None``
    for as usual)."""

    text: str
    mix: tuple[tuple[str, Fraction], ...]
    marks: tuple[str, ...]
    coats: int
    coverage: Fraction
    loss: Fraction
    sides: tuple[str, ...] = ()
    on_joints: bool = False
    before_closing: bool = False
    usual: bool = False
    grit: int | None = None

    @property
    def name(self) -> str:
        """``resin + hardener``."""
        return " + ".join(name for name, _ in self.mix)

    def coverage_told(self, *, metric: bool) -> str:
        """``10 m²/l``, ``407 sq ft/gal``."""
        if metric:
            return f"{float(self.coverage):g} m²/l"
        feet = self.coverage * LITRES["gal"] / SQUARE_METRES_PER_SQUARE_FOOT
        return f"{float(feet):.0f} sq ft/gal"


def read_coat(text: str) -> Coat:
    """A finish: ``oil on B D E, 2 coats, 12 m2/l, 10 % loss``, ``stain on all faces and edges, 1
    coat, 300 sq ft/gal``, ``resin + hardener 2:1 on joints, 1 coat, 5 m2/l``, ``paint on A, 2
    coats, sanded at 80``. Without a coverage its product's usual one is taken. Raises
    ``CarpentryError``."""
    found = _COAT.fullmatch(text.strip())
    if not found:
        raise CarpentryError(_WRITE)
    name, on, sides, rest = found.groups()
    said = {"coats": "", "far": "", "loss": "", "closing": "", "grit": ""}
    for clause in filter(None, (one.strip() for one in rest.split(","))):
        said[_clause(clause)] = clause
    if not said["coats"]:
        raise CarpentryError(_WRITE)
    coats = int(re.findall(r"\d+", said["coats"])[0])
    if not 1 <= coats <= MOST_COATS:
        raise CarpentryError(f"from 1 to {MOST_COATS} coats")
    share = Fraction(re.findall(_NUMBER, said["loss"] or "0")[0])
    if share >= 100:
        raise CarpentryError("a loss is less than 100 %")
    on_joints = on.lower() == "joints"
    if on_joints and sides:
        raise CarpentryError("glue on joints goes where they meet: name no sides")
    mix = _mix(name.strip())
    grit = _SANDED.fullmatch(said["grit"])
    return Coat(
        text.strip(),
        mix,
        () if on.lower() in {"all", "joints"} else tuple(on.upper().split()),
        coats,
        _far(said["far"]) if said["far"] else _usually(mix[0][0]),
        share,
        sides=tuple(re.findall(_SIDES, sides or "", re.IGNORECASE)),
        on_joints=on_joints,
        before_closing=bool(said["closing"]),
        usual=not said["far"],
        grit=int(grit[2] or 0) if grit else None,
    )


_WRITE = "write what, on which and how far it goes: oil on B D, 2 coats, 12 m2/l"


def _clause(text: str) -> str:
    """The name of what a clause of a finish is about."""
    ways = {
        "coats": _HOW_OFTEN,
        "far": _HOW_FAR,
        "loss": _LOST,
        "closing": _CLOSING,
        "grit": _SANDED,
    }
    found = next((name for name, way in ways.items() if way.fullmatch(text)), None)
    if found is None:
        raise CarpentryError(
            f"“{text[:40]}” says nothing of a finish: after the coats may come how far it goes "
            "(12 m2/l, 400 sq ft/gal), 10 % loss, sanded at 80, not sanded, before closing"
        )
    return found


def _far(text: str) -> Fraction:
    """Square metres a litre."""
    found = _HOW_FAR.fullmatch(text)
    assert found is not None
    far = Fraction(found[1])
    if not far:
        raise CarpentryError("a coverage of 0 covers nothing: the can's label says how far it goes")
    if found[2].lower() != "m2/l":
        far *= SQUARE_METRES_PER_SQUARE_FOOT / LITRES["gal"]
    return far


def _usually(name: str) -> Fraction:
    """Square metres that a litre of such a product usually covers."""
    coverage = usual_product(name).coverage
    if coverage is None:
        raise CarpentryError(
            f"how far “{name}” goes is not known: write it from its label, such as 12 m2/l or 400 "
            "sq ft/gal"
        )
    return Fraction(coverage)


def _mix(name: str) -> tuple[tuple[str, Fraction], ...]:
    found = _MIX.fullmatch(name)
    if not found:
        return ((name, Fraction(1)),)
    one, other = int(found[3]), int(found[4])
    if not one or not other:
        raise CarpentryError("a mix takes some of both: write such as 2:1")
    return ((found[1], Fraction(one, one + other)), (found[2], Fraction(other, one + other)))


def surface(thickness: int, width: int, length: int, sides: Sequence[str] = ()) -> int:
    """The area of some sides of a piece, of all six where none is named, in square ticks; sizes in
    ticks. ``face`` is one of the two ``faces``."""
    areas = {
        "face": width * length,
        "faces": 2 * width * length,
        "edges": 2 * thickness * length,
        "ends": 2 * thickness * width,
    }
    named = {side.lower() for side in sides} or {"faces", "edges", "ends"}
    return sum(areas[side] for side in named)


def millilitres(coat: Coat, area: int) -> list[tuple[str, int]]:
    """What coats on an area (square ticks) take of each component, rounded up: area × coats ÷
    coverage, and what is lost on top."""
    square_metres = Fraction(area, (TICKS_PER_MM * 1000) ** 2)
    litres = square_metres * coat.coats / coat.coverage / (1 - coat.loss / 100)
    return [(name, math.ceil(litres * share * 1000)) for name, share in coat.mix]


def write_area(area: int, *, metric: bool) -> str:
    """An area in square ticks as a builder says it: ``12.8 m²``, ``138 sq ft``; one decimal in
    metres."""
    metres = Fraction(area, (TICKS_PER_MM * 1000) ** 2)
    if metric:
        return f"{float(metres):.1f} m²"
    return f"{float(metres / SQUARE_METRES_PER_SQUARE_FOOT):.0f} sq ft"


def read_volume(text: str) -> int | None:
    """Millilitres (rounded) of a volume like ``1 qt`` or ``2.5 l``; ``None`` for what is none."""
    found = _VOLUME.fullmatch(text.strip())
    if not found:
        return None
    unit = re.sub(r"\s+", " ", found[2].lower().replace("floz", "fl oz"))
    return round(Fraction(found[1]) * LITRES[unit] * 1000)


def write_volume(volume: int, *, metric: bool, tin: str = "", down: bool = False) -> str:
    """Millilitres as a builder measures them out, in the unit of the ``tin`` where one is known:
    ``1.25 l``, ``610 ml``, ``12 fl oz``, ``1.4 qt``; rounded up, or ``down`` for what is left."""
    whole = math.floor if down else math.ceil
    content = _VOLUME.fullmatch(tin.strip())
    if content:
        metric = content[2].lower() in {"ml", "l"}
    if metric:
        steps = 5 if volume < 1000 else 10
        rounded = whole(Fraction(volume, steps)) * steps
        return f"{rounded} ml" if rounded < 1000 else f"{_plain(Fraction(rounded, 1000))} l"
    for unit, least, step in (("gal", 1, 10), ("qt", 1, 10), ("fl oz", 0, 2)):
        amount = Fraction(volume, 1000) / LITRES[unit]
        if amount >= least:
            return f"{_plain(Fraction(whole(amount * step), step))} {unit}"
    raise ValueError("a volume is nothing or more")


def _plain(amount: Fraction) -> str:
    return f"{float(amount):.2f}".rstrip("0").rstrip(".")
