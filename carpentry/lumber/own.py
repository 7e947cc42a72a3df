"""Materials of a builder's own: what the size book does not know, with the sizes it really has."""

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from decimal import Decimal, InvalidOperation
from enum import StrEnum
from functools import partial
from types import MappingProxyType
from typing import TypeVar

from carpentry.language import TICKS_PER_FOOT, CarpentryError, Faults, Unit, read_length
from carpentry.lumber.kinds import Exposure, Kind
from carpentry.lumber.section import Section

MAX_OWN = 200
MAX_NAME = 60
_NAME = re.compile(r"[^\W\d_][\w /.'-]*")
_THICKEST = 2 * TICKS_PER_FOOT
_WIDEST = 12 * TICKS_PER_FOOT
_LIGHTEST, _HEAVIEST = Decimal(20), Decimal(9000)  # foam to steel, kg/m³
_USUAL_DENSITY = Decimal(500)
T = TypeVar("T", bound=StrEnum)


class Form(StrEnum):
    """The shape of a piece: a ``ROUND`` (dowel, pipe) is as wide as it is thick."""

    BOARD = "board"
    SHEET = "sheet"
    ROUND = "round"


@dataclass(frozen=True)
class OwnFields:
    """A material exactly as typed; ``thickness`` of a round is its diameter."""

    name: str = ""
    form: str = "board"
    thickness: str = ""
    width: str = ""
    density: str = ""
    kind: str = "plain"
    exposure: str = "indoors, or sealed on every face"
    caution: str = ""


@dataclass(frozen=True)
class OwnStock:
    """A material as understood: ``section`` in ticks, ``density`` in kg/m³."""

    fields: OwnFields
    name: str
    form: Form
    section: Section
    density: Decimal
    kind: Kind
    exposure: Exposure
    caution: str


OwnStocks = Mapping[str, OwnStock]
NO_OWN: OwnStocks = MappingProxyType({})


def plain_name(text: str) -> str:
    """A name as it is compared: small letters, single spaces."""
    return " ".join(text.lower().split())


def _size(text: str, unit: Unit, most: int) -> int:
    if not text.strip():
        raise CarpentryError("a size is missing")
    ticks = read_length(text, unit).ticks
    if not 0 < ticks <= most:
        raise CarpentryError("must be more than 0 and no wider than a sheet")
    return ticks


def _density(text: str, kind: Kind | None) -> Decimal:
    if not text.strip():
        return Decimal(950) if kind is Kind.COMPOSITE else _USUAL_DENSITY
    try:
        density = Decimal(text.strip())
    except InvalidOperation as error:
        raise CarpentryError("write kilograms per cubic metre, such as 520") from error
    if not density.is_finite() or not _LIGHTEST <= density <= _HEAVIEST:
        raise CarpentryError(f"a density is {_LIGHTEST} to {_HEAVIEST} kg/m³")
    return density


def _choice(of: type[T], text: str) -> T:
    try:
        return of(text)
    except ValueError as error:
        raise CarpentryError(f"choose one of {', '.join(of)}") from error


def read_own(fields: OwnFields, unit: Unit | str, taken: Iterable[str] = ()) -> OwnStock:
    """A material of one's own; ``unit`` is what bare numbers mean, ``taken`` names in use.

    Its name begins with a letter, so that it is never mistaken for a size. Raises
    ``CarpentryError`` with a problem for every field that is wrong.
    """
    unit = Unit(unit)
    faults = Faults()
    name = plain_name(fields.name)
    if not name:
        faults.add("name", "give it a name")
    elif not _NAME.fullmatch(name) or len(name) > MAX_NAME:
        faults.add("name", f"a name begins with a letter and has at most {MAX_NAME} characters")
    elif name in taken:
        faults.add("name", "you have a material of this name")
    form = faults.attempt("form", lambda: _choice(Form, fields.form), Form.BOARD)
    kind = faults.attempt("kind", lambda: _choice(Kind, fields.kind), Kind.PLAIN)
    exposure = faults.attempt("exposure", lambda: _choice(Exposure, fields.exposure), Exposure.DRY)
    thickness = faults.attempt("thickness", partial(_size, fields.thickness, unit, _THICKEST), 1)
    width = thickness
    if form is not Form.ROUND:
        width = faults.attempt("width", partial(_size, fields.width, unit, _WIDEST), 1)
    density = faults.attempt("density", lambda: _density(fields.density, kind), _USUAL_DENSITY)
    if len(fields.caution) > 200:
        faults.add("caution", "longer than 200 characters")
    faults.raise_any()
    section = Section(thickness, width, round=form is Form.ROUND)
    kind = Kind.SHEET if form is Form.SHEET else kind
    return OwnStock(fields, name, form, section, density, kind, exposure, fields.caution.strip())


def match_own(text: str, own: OwnStocks) -> tuple[OwnStock, int] | None:
    """The material of one's own that a text begins with, the longest name first, and where it
    ends; ``None`` where it begins with none."""
    for name in sorted(own, key=len, reverse=True):
        words = r"\s+".join(re.escape(word) for word in name.split())
        found = re.match(rf"\s*{words}(?![\w'-])", text, re.IGNORECASE)
        if found:
            return own[name], found.end()
    return None
