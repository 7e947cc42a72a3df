"""Price lists as tables: CSV files and spreadsheet rows, several yards in one file."""

import csv
import io
from collections.abc import Callable, Iterable, Sequence

from carpentry.buying.prices import (
    MAX_LINES,
    PRICE_COLUMNS,
    PriceFields,
    PriceLine,
    read_price_line,
)
from carpentry.errors import CarpentryError, Problem
from carpentry.length import Unit
from carpentry.sizes import NO_OWN, OwnStocks, StockName
from carpentry.table import Row, Table, decode, read_table, table_of_rows

_NUMBERS = ("length", "actual", "thickness", "width", "price")
UnitOf = Callable[[str], Unit]
REQUIRED = ("yard", "stock", "length", "price")


def in_inches(yard: str) -> Unit:
    """Bare lengths of any yard are inches."""
    return Unit.INCH


def _read(table: Table, unit_of: UnitOf, own: OwnStocks) -> dict[str, list[PriceLine]]:
    if len(table.rows) > MAX_LINES:
        raise CarpentryError(f"{len(table.rows):,} rows are more than {MAX_LINES:,} in one list")
    yards: dict[str, list[PriceLine]] = {}
    first_line: dict[tuple[str, StockName, int], int] = {}
    problems: list[Problem] = []
    for row, record in table.records(_NUMBERS):
        place = f"line {row.line}"
        typed = PriceFields(**record)
        if not typed.yard:
            problems.append(Problem(f"{place}, yard", "the yard's name is missing"))
        elif len(typed.yard) > 100:
            problems.append(Problem(f"{place}, yard", "the yard's name is over 100 characters"))
        try:
            line = read_price_line(typed, unit_of(typed.yard), own)
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


def read_prices_csv(
    data: bytes, unit_of: UnitOf = in_inches, own: OwnStocks = NO_OWN
) -> dict[str, list[PriceLine]]:
    """The price lines of a file by yard (comma, semicolon or tab, with a header).

    ``unit_of`` says what bare lengths of a yard mean.

    Raises ``CarpentryError`` with every problem, each with its line; then nothing is read.
    """
    return _read(read_table(decode(data), PRICE_COLUMNS, REQUIRED), unit_of, own)


def read_prices_rows(
    rows: Sequence[Row], unit_of: UnitOf = in_inches, own: OwnStocks = NO_OWN
) -> dict[str, list[PriceLine]]:
    """The price lines of spreadsheet rows; raises as ``read_prices_csv``."""
    return _read(table_of_rows(rows, PRICE_COLUMNS, REQUIRED), unit_of, own)


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
