"""One part: its fields as typed, checked and understood."""

import re
from dataclasses import dataclass, field
from decimal import Decimal, InvalidOperation

from carpentry.errors import CarpentryError, LengthError, Problem, StockNameError
from carpentry.length import Length, Unit, read_length
from carpentry.sizes import Section, StockName, read_stock

MAX_PARTS = 2_000
MAX_QUANTITY = 10_000
MAX_TEXT = 200
MEASURED = ("long-long", "edge", "short-short", "centre")


@dataclass(frozen=True)
class PartFields:
    """A part exactly as typed: every field is text, empty where nothing was typed."""

    quantity: str = "1"
    name: str = ""
    stock: str = ""
    length: str = ""
    thickness: str = ""
    width: str = ""
    ends: str = ""
    measured: str = ""
    grain: str = ""
    clear: str = ""
    group: str = ""
    note: str = ""


@dataclass(frozen=True)
class EndAngle:
    """One end of a part: degrees from square, and whether it is a bevel through the thickness."""

    degrees: Decimal
    bevel: bool = False


@dataclass(frozen=True)
class Part:
    """A part as understood. Lengths are exact; ``fields`` keeps what was typed."""

    fields: PartFields
    quantity: int
    name: str
    stock: StockName
    length: Length
    thickness: Length | None = None
    width: Length | None = None
    ends: tuple[EndAngle, EndAngle] = (EndAngle(Decimal(0)), EndAngle(Decimal(0)))
    warnings: tuple[str, ...] = field(default=())

    @property
    def square_ended(self) -> bool:
        return all(end.degrees == 0 for end in self.ends)


_END = re.compile(r"([+-]?\d+(?:\.\d+)?)\s*°?\s*(b?)", re.IGNORECASE)


def _read_quantity(text: str) -> int:
    typed = text.strip()
    if not typed:
        raise CarpentryError("a quantity is missing")
    if not re.fullmatch(r"\d{1,9}", typed):
        raise CarpentryError(f"“{typed}” is no quantity: write a whole number such as 6")
    quantity = int(typed)
    if quantity < 1:
        raise CarpentryError("a quantity of 0 makes nothing: write 1 or more")
    if quantity > MAX_QUANTITY:
        raise CarpentryError(f"{quantity:,} is more than {MAX_QUANTITY:,} of one part")
    return quantity


def _read_ends(text: str) -> tuple[EndAngle, EndAngle]:
    square = EndAngle(Decimal(0))
    if not text.strip():
        return square, square
    found = [_END.fullmatch(word) for word in re.split(r"[\s,/]+", text.strip())]
    angles = [match for match in found if match]
    if len(angles) != len(found) or len(angles) != 2:
        raise CarpentryError(f"“{text.strip()}” is no pair of end angles: write two, such as 20 -20")
    try:
        left, right = (EndAngle(Decimal(m[1]), bool(m[2])) for m in angles)
    except InvalidOperation as error:  # pragma: no cover - the pattern admits only numbers
        raise CarpentryError("an end angle is no number") from error
    if any(abs(end.degrees) > 75 for end in (left, right)):
        raise CarpentryError("an end angle is more than 75° from square: no saw cuts that")
    return left, right


def _choice(text: str, choices: tuple[str, ...], what: str) -> None:
    if text.strip() and text.strip().lower() not in choices:
        raise CarpentryError(f"“{text.strip()}” is no {what}: write {', '.join(choices)}")


class _Collector:
    """Runs the readers of all fields, so that every fault of a part is told at once."""

    def __init__(self) -> None:
        self.problems: list[Problem] = []

    def fault(self, place: str, error: CarpentryError | str) -> None:
        told = [error] if isinstance(error, str) else [p.message for p in error.problems]
        self.problems.extend(Problem(place, message) for message in told)

    def length(self, place: str, text: str, unit: Unit, comma: bool) -> Length | None:
        if not text.strip():
            return None
        try:
            read = read_length(text, unit, decimal_comma=comma)
        except LengthError as error:
            self.fault(place, error)
            return None
        if read.ticks == 0:
            self.fault(place, "a part cannot measure nothing")
            return None
        return read


def read_part(fields: PartFields, unit: Unit | str, *, decimal_comma: bool = False) -> Part:
    """A part from its fields as typed; ``unit`` is what bare numbers mean.

    Raises ``CarpentryError`` with a problem for every field that is wrong, placed by its name.
    """
    unit = Unit(unit)
    collect = _Collector()
    quantity, ends, stock_read = 0, _read_ends(""), None
    try:
        quantity = _read_quantity(fields.quantity)
    except CarpentryError as error:
        collect.fault("quantity", error)
    try:
        stock_read = read_stock(fields.stock, unit)
    except StockNameError as error:
        collect.fault("stock", error)
    try:
        ends = _read_ends(fields.ends)
    except CarpentryError as error:
        collect.fault("ends", error)
    for place, choices, what in (
        ("measured", MEASURED, "way of measuring"),
        ("grain", ("length", "any"), "grain"),
        ("clear", ("yes", "no"), "answer"),
    ):
        try:
            _choice(getattr(fields, place), choices, what)
        except CarpentryError as error:
            collect.fault(place, error)
    for place in ("name", "group", "note"):
        if len(getattr(fields, place)) > MAX_TEXT:
            collect.fault(place, f"longer than {MAX_TEXT} characters")
    length = collect.length("length", fields.length, unit, decimal_comma)
    thickness = collect.length("thickness", fields.thickness, unit, decimal_comma)
    width = collect.length("width", fields.width, unit, decimal_comma)
    warnings: list[str] = []
    if stock_read:
        warnings.extend(stock_read.warnings)
        named = stock_read.length
        if named is not None and not fields.length.strip():
            length = Length(named, _named_length_text(fields.stock))
        elif named is not None and length is not None and named != length.ticks:
            collect.fault("length", "the name of the stock says another length")
        if stock_read.stock.is_sheet and not fields.width.strip():
            collect.fault("width", "a part from a sheet needs a width")
    named_one = stock_read.length if stock_read else re.search(r"[xX×].*[xX×]", fields.stock)
    if not fields.length.strip() and named_one is None:
        collect.fault("length", "a length is missing")
    if length and length.rounded:
        warnings.append("the length was rounded to the nearest 1/8128 in")
    if collect.problems or stock_read is None or length is None:
        raise CarpentryError(collect.problems)
    name = fields.name.strip() or str(stock_read.stock)
    return Part(
        fields, quantity, name, stock_read.stock, length, thickness, width, ends, tuple(warnings)
    )


def _named_length_text(stock: str) -> str:
    third = re.split(r"[xX×]", stock)[-1].split()[0]
    return f"{third}ft" if third.isdigit() and int(third) <= 20 else third


def not_planned_yet(part: Part, actual: Section | None) -> str | None:
    """Why no board is planned for a part, in words, or ``None`` when one is.

    ``actual`` is the real section of the stock it is cut from (ticks).
    """
    if part.stock.is_sheet:
        return "cut from a sheet"
    if not part.square_ended:
        return "has an angled end"
    if actual is None:
        return None
    for own, real, what in (
        (part.thickness, actual.thickness, "thickness"),
        (part.width, actual.width, "width"),
    ):
        if own is not None and own.ticks < real:
            return f"has to be ripped or planed to its {what}"
        if own is not None and own.ticks > real:
            return f"is more than the {what} of its stock"
    return None
