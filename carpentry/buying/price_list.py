"""Price lists as tables: CSV files and spreadsheet rows, several yards in one file."""

import csv
import io
import re
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass

from carpentry.buying.pricing import (
    MAX_LINES,
    PRICE_COLUMNS,
    PriceFields,
    PriceLine,
    read_price_line,
)
from carpentry.language import (
    CarpentryError,
    Columns,
    Problem,
    Row,
    Table,
    decode,
    table_of_rows,
    table_of_text,
)
from carpentry.lumber import INCHES, Lexicon, StockName, feet_or_inches

WOOD = "wood"  # a column that goes with the stock
REQUIRED = ("stock", "length", "price")
_HEADINGS = {
    **dict.fromkeys(("store", "shop", "supplier", "vendor", "lieferant", "händler"), "yard"),
    **dict.fromkeys(("size", "item", "description", "product", "section", "dimension"), "stock"),
    **dict.fromkeys(("name", "lumber", "artikel", "bezeichnung", "querschnitt"), "stock"),
    **dict.fromkeys(("len", "l", "länge", "laenge", "stock length"), "length"),
    **dict.fromkeys(("cost", "unit price", "rate", "preis", "price each"), "price"),
    **dict.fromkeys(("unit", "uom", "priced per", "price per", "einheit", "je"), "per"),
    **dict.fromkeys(("qty", "quantity", "in stock", "on hand", "count", "bestand"), "available"),
    **dict.fromkeys(("actual length", "real length"), "actual"),
    **dict.fromkeys(("as of", "seen", "datum", "price date", "updated"), "date"),
    **dict.fromkeys(("w", "wide", "breite", "actual width"), "width"),
    **dict.fromkeys(("t", "thick", "dicke", "actual thickness"), "thickness"),
    **dict.fromkeys(("species", "material", "grade", "treatment", "holz", "holzart"), WOOD),
}
COLUMNS = Columns(
    (*PRICE_COLUMNS, WOOD),
    _HEADINGS,
    REQUIRED,
    ("length", "actual", "thickness", "width"),
    ("price",),
)
_SLASHED = re.compile(r"(\d{1,2})/(\d{1,2})/\d{4}")


@dataclass(frozen=True)
class KnownYard:
    """How the words of a yard are read, and the currency of its prices, empty for any."""

    lexicon: Lexicon = INCHES
    currency: str = ""


YardOf = Callable[[str], KnownYard]


def any_yard(name: str) -> KnownYard:
    """A yard of which nothing is known: bare lengths are inches."""
    return KnownYard()


def read_prices(
    table: Table, yard_of: YardOf = any_yard, at: str = ""
) -> dict[str, list[PriceLine]]:
    """The price lines of a table by yard; those that name none are ``at`` a yard.

    ``yard_of`` says what is known of a yard by its name. Raises ``CarpentryError`` with every
    problem, each with its line; then nothing is read.
    """
    if len(table.rows) > MAX_LINES:
        raise CarpentryError(f"{len(table.rows):,} rows are more than {MAX_LINES:,} in one list")
    yards: dict[str, list[PriceLine]] = {}
    first_line: dict[tuple[str, StockName, int], int] = {}
    problems: list[Problem] = []
    day_first = _day_first(record.get("date", "") for _, record in table.records())
    for row, record in table.records():
        place = f"line {row.line}"
        wood = record.pop(WOOD, "").strip(" -")
        record["stock"] = f"{record.get('stock', '')} {wood}".strip()
        record["yard"] = record.get("yard") or at
        typed = PriceFields(**record)
        if not typed.yard:
            problems.append(Problem(f"{place}, yard", "the yard's name is missing"))
        elif len(typed.yard) > 100:
            problems.append(Problem(f"{place}, yard", "the yard's name is over 100 characters"))
        yard = yard_of(typed.yard)
        asked = feet_or_inches(typed.length, yard.lexicon.unit)
        if asked:
            problems.append(Problem(f"{place}, length", asked))
            continue
        try:
            line = read_price_line(typed, yard.lexicon, day_first=day_first, currency=yard.currency)
        except CarpentryError as error:
            problems += [Problem(f"{place}, {p.place}", p.message) for p in error.problems]
            continue
        key = (typed.yard, line.stock, line.length.ticks)
        if key in first_line:
            problems.append(
                Problem(place, f"the same stock and length as on line {first_line[key]}")
            )
        first_line.setdefault(key, row.line)
        yards.setdefault(typed.yard, []).append(line)
    problems.extend(table.problems)
    if problems:
        raise CarpentryError(problems)
    return yards


def _day_first(dates: Iterable[str]) -> bool | None:
    """Whether dates like ``3/11/2026`` begin with the day, by those that can only be read one way;
    ``None`` where none tells."""
    for found in filter(None, (_SLASHED.fullmatch(date.strip()) for date in dates)):
        if int(found[1]) > _MONTHS or int(found[2]) > _MONTHS:
            return int(found[1]) > _MONTHS
    return None


_MONTHS = 12


def prices_table_of_csv(data: bytes, chosen: Sequence[str] = ()) -> Table:
    """A price list file (comma, semicolon or tab, with a header) as a table. Raises
    ``CarpentryError`` for what is none."""
    table = table_of_text(decode(data), COLUMNS, chosen=chosen)
    if table is None:
        told = f"the first line must name the columns: {', '.join(REQUIRED)}"
        raise CarpentryError(told, "line 1")
    return table


def prices_table_of_rows(rows: Sequence[Row], chosen: Sequence[str] = ()) -> Table:
    """A price list from spreadsheet rows; raises as ``prices_table_of_csv``."""
    return table_of_rows(rows, COLUMNS, chosen=chosen)


def read_prices_csv(
    data: bytes, yard_of: YardOf = any_yard, at: str = ""
) -> dict[str, list[PriceLine]]:
    """The price lines of a file by yard; raises as ``read_prices``."""
    return read_prices(prices_table_of_csv(data), yard_of, at)


def write_prices_csv(
    yard: str, lines: Iterable[PriceFields], protect: Callable[[str], str] = str
) -> str:
    """A yard's lines as a CSV list that reads back to the same lines."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(PRICE_COLUMNS)
    for line in lines:
        cells = [yard if name == "yard" else getattr(line, name) for name in PRICE_COLUMNS]
        writer.writerow([protect(cell) for cell in cells])
    return out.getvalue()
