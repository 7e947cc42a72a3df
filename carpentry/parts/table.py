"""Part lists as tables: CSV files, spreadsheet rows and what is pasted from one."""

import csv
import io
from collections.abc import Callable, Iterable, Sequence
from dataclasses import fields as dataclass_fields

from carpentry.errors import CarpentryError, Problem
from carpentry.length import Unit, read_length
from carpentry.parts.part import MAX_PARTS, PART_LENGTHS, Part, PartFields, read_part
from carpentry.sizes import NO_OWN, OwnStocks, read_stock
from carpentry.table import (
    Row,
    Table,
    decode,
    find_header,
    read_table,
    split_rows,
    table_of_rows,
)

PART_COLUMNS = tuple(field.name for field in dataclass_fields(PartFields))
REQUIRED = ("quantity", "name", "stock", "length")


def _read(table: Table, unit: Unit, own: OwnStocks) -> list[Part]:
    if len(table.rows) > MAX_PARTS:
        raise CarpentryError(
            f"{len(table.rows):,} rows are more than {MAX_PARTS:,} in one part list"
        )
    parts: list[Part] = []
    problems: list[Problem] = []
    for row, record in table.records(numbers=PART_LENGTHS):
        try:
            parts.append(read_part(PartFields(**record), unit, own))
        except CarpentryError as error:
            problems.extend(
                Problem(f"line {row.line}, {p.place}", p.message) for p in error.problems
            )
    problems.extend(table.problems)
    if problems:
        raise CarpentryError(problems)
    return parts


def read_parts_csv(data: bytes, unit: Unit | str, own: OwnStocks = NO_OWN) -> list[Part]:
    """A part list file (comma, semicolon or tab, with a header).

    Raises ``CarpentryError`` with every problem, each with its line; then nothing is read.
    """
    return _read(read_table(decode(data), PART_COLUMNS, REQUIRED), Unit(unit), own)


def read_parts_rows(rows: Sequence[Row], unit: Unit | str, own: OwnStocks = NO_OWN) -> list[Part]:
    """A part list from spreadsheet rows whose first is the header; raises as ``read_parts_csv``."""
    return _read(table_of_rows(rows, PART_COLUMNS, REQUIRED), Unit(unit), own)


def _passes(test: Callable[[str], object], cell: str) -> bool:
    try:
        test(cell)
    except CarpentryError:
        return False
    return True


def _guess_columns(
    rows: Sequence[Row], unit: Unit, own: OwnStocks, comma: bool
) -> tuple[str, ...] | None:
    """Names for the columns of rows without a header, by what most of their cells hold."""
    width = max(len(row.cells) for row in rows)
    names = [""] * width
    tests: tuple[tuple[str, Callable[[str], bool]], ...] = (
        ("stock", lambda cell: _passes(lambda c: read_stock(c, unit, own), cell)),
        ("quantity", lambda cell: cell.isdigit()),
        (
            "length",
            lambda cell: _passes(
                lambda c: read_length(c.replace(",", ".") if comma else c, unit), cell
            ),
        ),
        ("name", lambda cell: any(character.isalpha() for character in cell)),
        ("note", bool),
    )
    for name, test in tests:
        for column in range(width):
            cells = [r.cells[column].strip() for r in rows if column < len(r.cells)]
            filled = [cell for cell in cells if cell]
            if not names[column] and filled and sum(map(test, filled)) * 2 > len(filled):
                names[column] = name
                break
    if "stock" not in names or "length" not in names:
        return None
    return tuple(names)


def read_parts_table(text: str, unit: Unit, own: OwnStocks = NO_OWN) -> list[Part] | None:
    """Pasted text as a part list, or ``None`` when it is no table at all.

    A header is recognised when it is there; without one, or with one in other words (a first row
    without any digit), the columns are told apart by content.
    Raises ``CarpentryError`` with every problem of the table.
    """
    if find_header(text, PART_COLUMNS, ("stock", "length")):
        return _read(read_table(text, PART_COLUMNS, ("stock", "length")), unit, own)
    for delimiter in ("\t", ";", ","):
        if any(delimiter not in line for line in text.splitlines() if line.strip()):
            continue
        rows, problems = split_rows(text, delimiter)
        columns = _guess_columns(rows, unit, own, delimiter == ";") if rows else None
        if columns:
            named = len(rows) > 1 and not any(c.isdigit() for cell in rows[0].cells for c in cell)
            under = tuple(rows[1:] if named else rows)
            return _read(Table(columns, under, delimiter == ";", tuple(problems)), unit, own)
    return None


def write_parts_csv(parts: Iterable[Part], protect: Callable[[str], str] = str) -> str:
    """Parts as a CSV list that reads back to the same parts; ``protect`` is applied to cells."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(PART_COLUMNS)
    for part in parts:
        writer.writerow([protect(getattr(part.fields, name)) for name in PART_COLUMNS])
    return out.getvalue()
