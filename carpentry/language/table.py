"""Rows of text from CSV, TSV or a spreadsheet: delimiters, headers and the places of faults."""

import csv
import io
import re
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from carpentry.language.errors import CarpentryError, Problem
from carpentry.language.length import Unit

MOST_COLUMNS = 50
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
class Columns:
    """The columns that a kind of table has: their names, the ``headings`` that mean the same, those
    that are ``required``, and those that hold ``lengths`` or other ``numbers``."""

    known: tuple[str, ...]
    headings: Mapping[str, str]
    required: tuple[str, ...]
    lengths: tuple[str, ...]
    numbers: tuple[str, ...] = ()


@dataclass(frozen=True)
class Column:
    """One column: what it is taken for (empty for not used), its ``heading`` as written, what its
    bare numbers are in where the heading says so, and the first thing in it."""

    name: str
    heading: str = ""
    unit: Unit | None = None
    sample: str = ""


@dataclass(frozen=True)
class Table:
    """Rows with what each column is taken for. ``decimal_comma`` is true for semicolon- and
    tab-separated text, where numbers may be written with a comma."""

    of: Columns
    columns: tuple[Column, ...]
    rows: tuple[Row, ...]
    decimal_comma: bool
    problems: tuple[Problem, ...]

    def records(self) -> Iterator[tuple[Row, dict[str, str]]]:
        """Each row with its cells by the name of their column."""
        for row in self.rows:
            record = {}
            for column, cell in zip(self.columns, row.cells, strict=False):
                if column.name:
                    record[column.name] = self._cell(column, _bare(cell.strip()))
            yield row, record

    def _cell(self, column: Column, cell: str) -> str:
        numbers = column.name in (*self.of.lengths, *self.of.numbers)
        if self.decimal_comma and numbers:
            cell = _DECIMAL_COMMA.sub(r"\1.\2", cell)
        if column.unit and column.name in self.of.lengths and _BARE_NUMBER.fullmatch(cell):
            cell = f"{cell}{column.unit.value}"
        return cell


_DECIMAL_COMMA = re.compile(r"(?<![\d,])(\d+),(\d{1,2}|\d{4,6})(?![\d,])")
_BARE_NUMBER = re.compile(r"[\d\s./-]*\d")
_UNIT_OF_HEADING = re.compile(
    r"[\s,]*[(\[]?\s*\b(in|inch|inches|mm|millimet(?:er|re)s?)\b\.?\s*[)\]]?\s*$"
)


def _bare(cell: str) -> str:
    """A cell without the apostrophe that keeps a spreadsheet from taking it for a formula."""
    return cell[1:] if cell[:1] == "'" and cell[1:2] in FORMULA_STARTS else cell


def read_heading(cell: str, of: Columns) -> tuple[str, Unit | None]:
    """What a heading names, empty for nothing that is known, and the unit it gives."""
    said = " ".join(cell.lower().replace("_", " ").split()).strip(" .:*#") or cell.strip()
    for text, unit in ((said, None), _without_unit(said)):
        for name in (text, text.rstrip("s")):
            if name.replace(" ", "_") in of.known:
                return name.replace(" ", "_"), unit
            if name in of.headings:
                return of.headings[name], unit
    return "", None


def _without_unit(said: str) -> tuple[str, Unit | None]:
    found = _UNIT_OF_HEADING.search(said)
    if not found:
        return said, None
    unit = Unit.INCH if found[1].startswith("in") else Unit.MM
    return said[: found.start()].strip(" .:,"), unit


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


def split_text(text: str, of: Columns) -> tuple[str, list[Row], list[Problem]] | None:
    """Delimited text as rows, with its delimiter: the one under which the first line has most known
    headings, else one that is in every line; ``None`` where there is none."""
    lines = [line for line in text.splitlines() if line.strip()]
    if not lines:
        return None
    scores = {
        delimiter: sum(bool(read_heading(c.strip('"'), of)[0]) for c in lines[0].split(delimiter))
        for delimiter in DELIMITERS
    }
    delimiter = max(DELIMITERS, key=lambda one: scores[one])
    if scores[delimiter] < _ENOUGH_HEADINGS:
        everywhere = [d for d in ("\t", ";", ",") if all(d in line for line in lines)]
        if not everywhere:
            return None
        delimiter = everywhere[0]
    rows, problems = split_rows(text, delimiter)
    return delimiter, rows, problems


_ENOUGH_HEADINGS = 2
Guess = Callable[[Sequence[Row], bool, tuple[str, ...]], tuple[str, ...] | None]


def table_of_rows(
    rows: Sequence[Row],
    of: Columns,
    *,
    guess: Guess | None = None,
    chosen: Sequence[str] = (),
    decimal_comma: bool = False,
    problems: Sequence[Problem] = (),
) -> Table:
    """Rows as a table. What each column is comes from its heading, from what its cells hold where
    there is none, or one that is required is not among the headings (``guess`` by the rows, whether
    they have decimal commas, and what the headings name), or is ``chosen`` by the builder.

    Raises ``CarpentryError`` where nothing tells.
    """
    if not rows:
        raise CarpentryError(list(problems) or "the file is empty", "" if problems else "line 1")
    read = [read_heading(cell, of) for cell in rows[0].cells]
    no_digits = not any(c.isdigit() for cell in rows[0].cells for c in cell)
    headed = sum(bool(name) for name, _ in read) >= _ENOUGH_HEADINGS or (
        len(rows) > 1 and no_digits
    )
    under = rows[1:] if headed else rows
    names = tuple(name for name, _ in read) if headed else ()
    if guess and not set(of.required) <= set(names):
        names = guess(under, decimal_comma, names) or names
    if chosen:
        names = tuple(chosen)
    if not any(names):
        told = f"the first line must name the columns: {', '.join(of.required)}"
        raise CarpentryError(told, f"line {rows[0].line}")
    width = max(len(row.cells) for row in rows)
    columns = tuple(
        Column(
            names[at] if at < len(names) else "",
            rows[0].cells[at].strip() if headed and at < len(rows[0].cells) else "",
            read[at][1] if headed and at < len(read) else None,
            next((r.cells[at].strip() for r in under if at < len(r.cells) and r.cells[at]), ""),
        )
        for at in range(min(width, MOST_COLUMNS))
    )
    return Table(
        of,
        columns,
        tuple(under),
        decimal_comma,
        (*_faults(columns, rows, under, of, headed=headed), *problems),
    )


def _faults(
    columns: Sequence[Column],
    rows: Sequence[Row],
    under: Sequence[Row],
    of: Columns,
    *,
    headed: bool,
) -> Iterator[Problem]:
    place = f"line {rows[0].line}"
    names = [column.name for column in columns if column.name]
    for name in sorted({name for name in names if names.count(name) > 1}):
        yield Problem(place, f"the column “{name}” is there twice")
    for name in of.required:
        if name not in names:
            yield Problem(place, f"the column “{name}” is missing")
    for name in names:
        if name not in of.known:
            yield Problem(place, f"“{name}” is no column: known are {', '.join(of.known)}")
    if headed and not under:
        yield Problem(place, "there is nothing under the header")
    for row in under if headed else ():
        if any(cell.strip() for cell in row.cells[len(rows[0].cells) :]):
            yield Problem(
                f"line {row.line}", "there are more cells than columns: quote a comma inside a cell"
            )


def table_of_text(
    text: str, of: Columns, *, guess: Guess | None = None, chosen: Sequence[str] = ()
) -> Table | None:
    """Delimited text as a table, as ``table_of_rows``; ``None`` where it is no table at all."""
    split = split_text(text, of)
    if split is None:
        return None
    delimiter, rows, problems = split
    return table_of_rows(
        rows,
        of,
        guess=guess,
        chosen=chosen,
        decimal_comma=delimiter != ",",
        problems=problems,
    )
