"""One line of a yard's price list, and what one piece of it costs."""

import re
from dataclasses import dataclass, replace
from datetime import date
from decimal import Decimal
from fractions import Fraction
from functools import lru_cache, partial

from carpentry.language import (
    TICKS_PER_FOOT,
    TICKS_PER_INCH,
    TICKS_PER_MM,
    CarpentryError,
    Faults,
    Length,
    Unit,
    cents,
    check_typed,
    typed,
    typed_fields,
    write_money,
)
from carpentry.lumber import (
    Lexicon,
    ReadStock,
    Section,
    StockName,
    board_feet,
    nominal,
    read_stock,
    standard_section,
)

MAX_LINES = 10_000
_MONTHS = 12
MAX_AVAILABLE = 1_000_000
PER = ("each", "ft", "m", "bf", "sheet")
_PRICE = re.compile(r"[0-9]{1,7}(\.[0-9]{1,9})?")
_SIGNS = {
    "$": ("USD", "CAD", "AUD", "NZD"),
    "€": ("EUR",),
    "£": ("GBP",),
    **{code: (code,) for code in ("USD", "CAD", "AUD", "NZD", "EUR", "GBP", "CHF")},
    **{code: (code,) for code in ("SEK", "NOK", "DKK", "PLN", "CZK")},
}
_SIGN = re.compile("|".join(map(re.escape, _SIGNS)))
_THOUSANDS = re.compile(r"\d{1,3}(,\d{3})+\.\d+")
_DATE = re.compile(r"([0-9]{4})-([0-9]{1,2})-([0-9]{1,2})")
_OTHER_DATE = re.compile(r"([0-9]{1,2})([/.])([0-9]{1,2})\2([0-9]{4})")
_LONGEST_STOCK = 60 * TICKS_PER_FOOT
_SHORTEST_STOCK = TICKS_PER_INCH


@dataclass(frozen=True)
class PriceFields:
    """A price line exactly as typed."""

    yard: str = typed("Yard", most=100)
    stock: str = typed("Stock", most=100)
    length: str = typed("Length", is_length=True)
    price: str = typed("Price", most=20)
    per: str = typed("Per", help=", ".join(PER), most=10)
    available: str = typed("Available", most=10)
    actual: str = typed("Real length", is_length=True)
    date: str = typed("Date", most=20)
    thickness: str = typed("Thickness", is_length=True)
    width: str = typed("Width", is_length=True)


PRICE_COLUMNS = tuple(typed_fields(PriceFields))


@dataclass(frozen=True)
class PriceLine:
    """A stock length as a yard sells it.

    ``length`` is the named length, ``actual`` the real one where it differs, ``section`` the yard's
    own section where its list gives one. ``price`` is ``None`` where the list leaves it out.
    """

    fields: PriceFields
    stock: StockName
    length: Length
    price: Decimal | None
    per: str
    available: int | None
    actual: Length | None
    date: date | None
    thickness: Length | None
    width: Length | None
    warnings: tuple[str, ...] = ()

    @property
    def real_length(self) -> int:
        """Ticks of wood in one piece."""
        return self.actual.ticks if self.actual else self.length.ticks

    @property
    def section(self) -> Section | None:
        """The section this yard's boards have (ticks), the standard one where it says nothing."""
        standard = standard_section(self.stock)
        size = nominal(self.stock)
        if standard is None and size and self.width:  # of random widths, but here of this one
            standard = Section(size.section.thickness, self.width.ticks)
        if standard is None:
            return None
        return Section(
            self.thickness.ticks if self.thickness else standard.thickness,
            self.width.ticks if self.width else standard.width,
        )

    @property
    def has_own_section(self) -> bool:
        return self.thickness is not None or self.width is not None


def piece_price(line: PriceLine, *, whole_inches: bool = False) -> Decimal | None:
    """What one piece costs: the price times the **named** size and length, rounded half up to the
    cent once; ``None`` where no price is known. ``whole_inches`` is the school of board feet."""
    if line.price is None:
        return None
    amount = Fraction(line.price)
    if line.per == "ft":
        amount *= Fraction(line.length.ticks, TICKS_PER_FOOT)
    elif line.per == "m":
        amount *= Fraction(line.length.ticks, 1000 * TICKS_PER_MM)
    elif line.per == "bf":
        amount *= board_feet(line.stock, line.length.ticks, whole_inches=whole_inches) or 0
    return cents(amount)


_SAID = {"ft": "a foot", "m": "a metre", "bf": "a board foot", "sheet": "a sheet"}


def price_told(line: PriceLine, currency: str, *, whole_inches: bool = False) -> str:
    """How the price of one piece comes about, such as "$0.61 a foot × 8, seen 2026-10-19"; empty
    where there is none."""
    if line.price is None:
        return ""
    told = f"{write_money(line.price, currency)} each"
    times = {
        "ft": Fraction(line.length.ticks, TICKS_PER_FOOT),
        "m": Fraction(line.length.ticks, 1000 * TICKS_PER_MM),
        "bf": board_feet(line.stock, line.length.ticks, whole_inches=whole_inches),
    }.get(line.per)
    if line.per in _SAID:
        told = f"{line.price:f} {currency} {_SAID[line.per]}"
    if times:
        told += f" × {_number(times)}"
    return told + (f", seen {line.date.isoformat()}" if line.date else "")


def _number(amount: Fraction) -> str:
    return f"{float(amount):.3f}".rstrip("0").rstrip(".")


def _without_sign(typed: str, currency: str) -> str:
    """A price without the sign of its currency, before it or after it."""
    signs = _SIGN.findall(typed)
    for sign in signs:
        if currency and currency not in _SIGNS[sign]:
            told = f"“{typed}” is in {_SIGNS[sign][0]}, the list in {currency}: they are not mixed"
            raise CarpentryError(told)
    bare = _SIGN.sub("", typed).strip()
    at_an_end = typed.startswith(bare) or typed.endswith(bare)
    return bare if at_an_end or len(signs) > 1 else typed


def _read_price(text: str, per: str, currency: str) -> Decimal | None:
    typed = text.strip()
    if not typed:
        return None
    bare = _without_sign(typed, currency)
    if _THOUSANDS.fullmatch(bare):
        bare = bare.replace(",", "")
    elif re.fullmatch(r"[0-9]+,[0-9]{1,2}", bare):
        bare = bare.replace(",", ".")
    elif "," in bare:
        raise CarpentryError(f"“{typed}”: write the price with a point, not a comma")
    if not _PRICE.fullmatch(bare):
        raise CarpentryError(f"“{typed}” is no price: write a plain number such as 7.15")
    decimals = len(bare.partition(".")[2])
    if decimals > (2 if per in {"each", "sheet"} else 4):
        most = "two" if per in {"each", "sheet"} else "four"
        raise CarpentryError(f"“{typed}” has more than {most} decimals")
    return Decimal(bare)


def _read_available(text: str) -> int | None:
    typed = text.strip()
    if not typed:
        return None
    if not re.fullmatch(r"[0-9]{1,7}", typed) or int(typed) > MAX_AVAILABLE:
        raise CarpentryError(f"“{typed}” is no count: write a whole number, or nothing for plenty")
    return int(typed)


def _read_date(text: str, *, day_first: bool) -> date | None:
    """A day: ``2026-11-02``, ``2.11.2026``, or ``11/2/2026``, in which the day may come first."""
    typed = text.strip()
    if not typed:
        return None
    whole, other = _DATE.fullmatch(typed), _OTHER_DATE.fullmatch(typed)
    try:
        if whole:
            return date(int(whole[1]), int(whole[2]), int(whole[3]))
        if other:
            first, second = int(other[1]), int(other[3])
            day_first = other[2] == "." or first > _MONTHS or (day_first and second <= _MONTHS)
            day, month = (first, second) if day_first else (second, first)
            return date(int(other[4]), month, day)
        raise ValueError
    except ValueError as error:
        raise CarpentryError(f"“{typed}” is no date: write it as 2026-11-02") from error


def _date_doubt(text: str, read: date | None) -> tuple[str, ...]:
    """How a day was read that could be another one."""
    other = _OTHER_DATE.fullmatch(text.strip())
    if not other or not read or other[2] == "." or max(int(other[1]), int(other[3])) > _MONTHS:
        return ()
    same = other[1].lstrip("0") == other[3].lstrip("0")
    return () if same else (f"{text.strip()} is read as {read.isoformat()}",)


def _length(text: str, lexicon: Lexicon) -> Length | None:
    return lexicon.length(text) if text.strip() else None


def _read_per(text: str, read: ReadStock | None) -> str:
    per = text.strip().lower() or "each"
    if per not in PER:
        raise CarpentryError(f"“{text.strip()}” is not one of {', '.join(PER)}")
    if read and read.stock.is_sheet and per in {"ft", "m", "bf"}:
        raise CarpentryError("a sheet is priced by the sheet")
    if read and not read.stock.is_sheet and per == "sheet":
        raise CarpentryError("a board is no sheet: price it each, by ft, m or bf")
    return per


def _check_lengths(sold: Length | None, actual: Length | None, faults: Faults) -> None:
    for place, value in (("length", sold), ("actual", actual)):
        if value is not None and not _SHORTEST_STOCK <= value.ticks <= _LONGEST_STOCK:
            faults.add(place, "no stock is that long or short: 1 in to 60 ft")
    if sold and actual and abs(actual.ticks - sold.ticks) > TICKS_PER_FOOT:
        faults.add("actual", "that is more than a foot from the named length")


def _check_section(
    stock: StockName, thickness: Length | None, width: Length | None, faults: Faults
) -> None:
    """An actual section that differs by half from its standard is a typing mistake."""
    standard = standard_section(stock)
    if standard is None:
        return
    for place, own, usual in (
        ("thickness", thickness, standard.thickness),
        ("width", width, standard.width),
    ):
        if own is not None and not usual <= 2 * own.ticks <= 3 * usual:
            faults.add(place, f"that {place} cannot be: the standard size is far from it")


def read_price_line(
    fields: PriceFields,
    lexicon: Lexicon,
    *,
    day_first: bool | None = None,
    currency: str = "",
) -> PriceLine:
    """A price line from its fields as typed. A price with the
    sign of another ``currency`` is refused, where that is known. Whether the day
    comes first in ``3/11/2026`` goes by the unit, where it is not said.

    Raises ``CarpentryError`` with a problem for every field that is wrong, placed by its name.
    """
    return _read(fields, lexicon, day_first, currency)


@lru_cache(10_000)
def _read(
    fields: PriceFields, lexicon: Lexicon, day_first: bool | None, currency: str
) -> PriceLine:
    faults = Faults()
    check_typed(fields, faults)
    read = faults.attempt("stock", lambda: read_stock(fields.stock, lexicon), None)
    per = faults.attempt("per", lambda: _read_per(fields.per, read), "each")
    price = faults.attempt("price", partial(_read_price, fields.price, per, currency), None)
    available = faults.attempt("available", lambda: _read_available(fields.available), None)
    if day_first is None:
        day_first = lexicon.unit is Unit.MM
    day = faults.attempt("date", partial(_read_date, fields.date, day_first=day_first), None)
    sold, actual, thickness, width = (
        faults.attempt(place, partial(_length, getattr(fields, place), lexicon), None)
        for place in ("length", "actual", "thickness", "width")
    )
    if sold is None and not fields.length.strip():
        if read is None or read.length is None:
            faults.add("length", "a length is missing")
        else:
            sold = read.length
    if read and per == "bf" and board_feet(read.stock, TICKS_PER_FOOT) is None:
        told = f"{read.stock.size} comes in random widths: name one, such as {read.stock.size}x6"
        faults.add("stock", told)
    _check_lengths(sold, actual, faults)
    if read:
        _check_section(read.stock, thickness, width, faults)
    faults.raise_any()
    assert read is not None and sold is not None
    stock, warnings = read.stock, (*read.warnings, *_date_doubt(fields.date, day))
    typed = replace(
        fields,
        price="" if price is None else f"{price:f}",
        date=day.isoformat() if day else "",
    )
    return PriceLine(
        typed, stock, sold, price, per, available, actual, day, thickness, width, warnings
    )
