"""Rows of text from CSV, TSV or a spreadsheet: delimiters, headers and the places of faults."""

import csv
import io
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from carpentry.errors import CarpentryError, Problem

FORMULA_STARTS = ("=", "+", "-", "@")
DELIMITERS = (",", ";", "\t")


@dataclass(frozen=True)
class Row:
    """One row: the line it begins on (from 1) and its cells, as text."""

    line: int
    cells: tuple[str, ...]

    @property
    def is_empty(self) -> bool:
        return not any(cell.strip() for cell in self.cells)


@dataclass(frozen=True)
class Table:
    """Rows under a header. ``decimal_comma`` is true for semicolon-separated text, where numbers
    may be written with a comma."""

    header: tuple[str, ...]
    rows: tuple[Row, ...]
    decimal_comma: bool
    problems: tuple[Problem, ...]

    def records(self, numbers: Sequence[str]) -> Iterator[tuple[Row, dict[str, str]]]:
        """Each row with its cells by column name; ``numbers`` are columns that may hold a decimal
        comma, which becomes a point."""
        for row in self.rows:
            record = {
                name: _bare(cell.strip())
                for name, cell in zip(self.header, row.cells, strict=False)
                if name
            }
            if self.decimal_comma:
                for name in set(numbers) & set(record):
                    record[name] = record[name].replace(",", ".")
            yield row, record


def _bare(cell: str) -> str:
    """A cell without the apostrophe that keeps a spreadsheet from taking it for a formula."""
    return cell[1:] if cell[:1] == "'" and cell[1:2] in FORMULA_STARTS else cell


def decode(data: bytes) -> str:
    """File bytes as text. Raises ``CarpentryError`` when they are not UTF-8."""
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        line = data[: error.start].count(b"\n") + 1
        raise CarpentryError(
            "the file is not UTF-8 text: save it as CSV UTF-8", f"line {line}"
        ) from error


def split_rows(text: str, delimiter: str) -> tuple[list[Row], list[Problem]]:
    """Rows of delimited text, quoted strictly, and a problem for a row that is not."""
    rows: list[Row] = []
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter, strict=True)
    while True:
        line = reader.line_num + 1
        try:
            cells = next(reader)
        except StopIteration:
            return rows, []
        except csv.Error as error:
            unfinished = "unexpected end" in str(error)
            message = (
                "a quotation mark is opened and never closed"
                if unfinished
                else f"the quotation marks are wrong: {error}"
            )
            return rows, [Problem(f"line {line}", message)]
        row = Row(line, tuple(cells))
        if not row.is_empty:
            rows.append(row)


def _named(cell: str) -> str:
    return cell.strip().lower()


def find_header(
    text: str, known: Sequence[str], required: Iterable[str] = ()
) -> tuple[str, list[Row], list[Problem]] | None:
    """The delimiter under which the first row reads as a header of ``known`` columns, with all
    rows and problems, or ``None`` when it reads as one under no delimiter."""
    best: tuple[int, str] | None = None
    first = next((line for line in text.splitlines() if line.strip()), "")
    for delimiter in DELIMITERS:
        names = {_named(cell.strip('"')) for cell in first.split(delimiter)}
        score = len(names & set(known))
        if score and (best is None or score > best[0]):
            best = (score, delimiter)
    if best is None or not set(required) & {
        _named(cell.strip('"')) for cell in first.split(best[1])
    }:
        return None
    rows, problems = split_rows(text, best[1])
    return best[1], rows, problems


def read_table(text: str, known: Sequence[str], required: Sequence[str]) -> Table:
    """Delimited text with a header, in any order or case.

    Raises ``CarpentryError`` naming unknown, repeated and missing columns.
    """
    found = find_header(text, known, required)
    if found is None:
        raise CarpentryError(
            f"the first line must name the columns: {', '.join(required)}", "line 1"
        )
    delimiter, rows, problems = found
    if problems and len(rows) < 2:
        raise CarpentryError(problems)
    table = table_of_rows(rows, known, required, decimal_comma=delimiter == ";")
    return Table(table.header, table.rows, table.decimal_comma, (*table.problems, *problems))


def table_of_rows(
    rows: Sequence[Row],
    known: Sequence[str],
    required: Sequence[str],
    *,
    decimal_comma: bool = False,
) -> Table:
    """Rows whose first is a header, as a table. Raises ``CarpentryError`` as ``read_table``."""
    if not rows:
        raise CarpentryError("the file is empty", "line 1")
    header = tuple(_named(cell) for cell in rows[0].cells)
    place = f"line {rows[0].line}"
    problems = [
        Problem(place, f"“{name}” is no column: known are {', '.join(known)}")
        for name in header
        if name and name not in known
    ]
    problems += [
        Problem(place, f"the column “{name}” is there twice")
        for name in sorted({n for n in header if n and header.count(n) > 1})
    ]
    problems += [
        Problem(place, f"the column “{name}” is missing") for name in required if name not in header
    ]
    if problems:
        raise CarpentryError(problems)
    if len(rows) == 1:
        raise CarpentryError("there is nothing under the header", place)
    overfull = [
        Problem(
            f"line {row.line}", "there are more cells than columns: quote a comma inside a cell"
        )
        for row in rows[1:]
        if any(cell.strip() for cell in row.cells[len(header) :])
    ]
    return Table(header, tuple(rows[1:]), decimal_comma, tuple(overfull))
