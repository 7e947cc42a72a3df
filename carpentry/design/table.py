"""Part lists as tables: CSV files, spreadsheet rows and what is pasted from one."""

import csv
import io
from collections.abc import Callable, Iterable, Sequence
from dataclasses import fields as dataclass_fields
from statistics import median

from carpentry.design.part import MAX_PARTS, PART_LENGTHS, Part, PartFields
from carpentry.design.sheet import EMPTY, Sheet
from carpentry.language import (
    CarpentryError,
    Columns,
    Guess,
    Problem,
    Row,
    Table,
    decode,
    table_of_rows,
    table_of_text,
)
from carpentry.lumber import Lexicon, names_a_wood, read_stock

PART_COLUMNS = tuple(field.name for field in dataclass_fields(PartFields))
WOOD = "wood"  # a column that goes with the stock
REQUIRED = ("stock", "length")
_HEADINGS = {
    **dict.fromkeys(("qty", "count", "no", "number", "nr", "pcs", "piece", "amount"), "quantity"),
    **dict.fromkeys(("quant", "how many", "anzahl", "stück", "menge", "each"), "quantity"),
    **dict.fromkeys(("part", "item", "description", "desc", "component", "label"), "name"),
    **dict.fromkeys(("part name", "what", "member", "bezeichnung", "bauteil", "teil"), "name"),
    **dict.fromkeys(("size", "section", "nominal", "nominal size", "stock size"), "stock"),
    **dict.fromkeys(("dimension", "profile", "lumber", "board", "lumber size"), "stock"),
    **dict.fromkeys(("querschnitt", "format"), "stock"),
    **dict.fromkeys(("len", "l", "long", "cut length", "finished length", "cut to"), "length"),
    **dict.fromkeys(("finish length", "cut", "länge", "laenge"), "length"),
    **dict.fromkeys(("w", "wide", "breite"), "width"),
    **dict.fromkeys(("t", "th", "thick", "dicke", "stärke", "staerke"), "thickness"),
    **dict.fromkeys(("species", "material", "wood type", "timber", "grade", "holz"), WOOD),
    **dict.fromkeys(("holzart", "treatment"), WOOD),
    **dict.fromkeys(("assembly", "sub-assembly", "subassembly", "gruppe"), "group"),
    **dict.fromkeys(("comment", "remark", "bemerkung", "notiz"), "note"),
}
COLUMNS = Columns((*PART_COLUMNS, WOOD), _HEADINGS, REQUIRED, PART_LENGTHS, ("quantity",))


def read_parts(table: Table, lexicon: Lexicon, sheet: Sheet = EMPTY) -> list[Part]:
    """The parts of a table, for a ``sheet`` the measures of which they may follow.

    Raises ``CarpentryError`` with every problem, each with its line; then nothing is read.
    """
    if len(table.rows) > MAX_PARTS:
        raise CarpentryError(
            f"{len(table.rows):,} rows are more than {MAX_PARTS:,} in one part list"
        )
    parts: list[Part] = []
    problems: list[Problem] = []
    counted = any(column.name == "quantity" for column in table.columns)
    for row, record in table.records() if not _hopeless(table) else ():
        wood = record.pop(WOOD, "").strip(" -")
        record["stock"] = f"{record.get('stock', '')} {wood}".strip()
        typed = PartFields(**record) if counted else PartFields(**record, quantity="1")
        try:
            parts.append(sheet.read(typed, lexicon))
        except CarpentryError as error:
            problems.extend(
                Problem(f"line {row.line}, {p.place}", p.message) for p in error.problems
            )
    problems.extend(table.problems)
    if problems:
        raise CarpentryError(problems)
    return parts


def _hopeless(table: Table) -> bool:
    """Whether columns are missing or doubled, so that the rows say nothing."""
    first = {problem.place for problem in table.problems}
    return (
        bool(table.problems)
        and first == {table.problems[0].place}
        and any("column" in problem.message for problem in table.problems)
    )


def parts_table_of_csv(data: bytes, lexicon: Lexicon, chosen: Sequence[str] = ()) -> Table:
    """A part list file (comma, semicolon or tab, with a header or without one) as a table. Raises
    ``CarpentryError`` for what is none."""
    table = table_of_text(decode(data), COLUMNS, guess=_guess(lexicon), chosen=chosen)
    if table is None:
        told = f"the first line must name the columns: {', '.join(REQUIRED)}"
        raise CarpentryError(told, "line 1")
    return table


def parts_table_of_rows(rows: Sequence[Row], lexicon: Lexicon, chosen: Sequence[str] = ()) -> Table:
    """A part list from spreadsheet rows; raises as ``parts_table_of_csv``."""
    return table_of_rows(rows, COLUMNS, guess=_guess(lexicon), chosen=chosen)


def read_parts_csv(data: bytes, lexicon: Lexicon) -> list[Part]:
    """The parts of a part list file.

    Raises ``CarpentryError`` with every problem, each with its line; then nothing is read.
    """
    return read_parts(parts_table_of_csv(data, lexicon), lexicon)


def parts_table_of_text(text: str, lexicon: Lexicon, chosen: Sequence[str] = ()) -> Table | None:
    """Pasted text as a table, with a header or without one, or ``None`` when it is no table."""
    try:
        table = table_of_text(text, COLUMNS, guess=_guess(lexicon), chosen=chosen)
    except CarpentryError:
        return None
    names = {column.name for column in table.columns} if table else set()
    return table if names & set(REQUIRED) else None


def _passes(test: Callable[[str], object], cell: str) -> bool:
    try:
        test(cell)
    except CarpentryError:
        return False
    return True


def _guess(lexicon: Lexicon) -> Guess:
    def guess(rows: Sequence[Row], comma: bool, names: tuple[str, ...]) -> tuple[str, ...] | None:
        guessed = _guess_columns(rows, lexicon, comma)
        if not guessed or not set(REQUIRED) & set(names):
            return guessed
        if "stock" in names:
            return None
        at = guessed.index("stock")  # under another heading, such as material or description
        return (*names[:at], "stock", *names[at + 1 :])

    return guess


def _guess_columns(rows: Sequence[Row], lexicon: Lexicon, comma: bool) -> tuple[str, ...] | None:
    """Names for the columns of rows without a header, by what most of their cells hold.

    Where two columns hold numbers, the lengths are those with a unit or a fraction anywhere, else
    those that are larger; quantities are whole.
    """
    width = max((len(row.cells) for row in rows), default=0)
    cells = [
        [c for r in rows if at < len(r.cells) and (c := r.cells[at].strip())] for at in range(width)
    ]

    def mostly(at: int, test: Callable[[str], object]) -> bool:
        return bool(cells[at]) and sum(map(bool, map(test, cells[at]))) * 2 > len(cells[at])

    def ticks(cell: str) -> int:
        try:
            return lexicon.length(cell.replace(",", ".") if comma else cell).ticks
        except CarpentryError:
            return 0

    names = [""] * width

    def names_a_stock(cell: str) -> bool:
        return _passes(lambda text: read_stock(text, lexicon), cell)

    stock = next((at for at in range(width) if mostly(at, names_a_stock)), None)
    if stock is None:
        return None
    names[stock] = "stock"
    lengths = [at for at in range(width) if not names[at] and mostly(at, ticks)]
    if not lengths:
        return None
    counts = [at for at in lengths if all(c.isascii() and c.isdigit() for c in cells[at])]
    rest = [at for at in lengths if at not in counts]
    by_size = sorted(lengths, key=lambda at: (at in rest, median(map(ticks, cells[at])), at))
    length = by_size[-1]
    names[length] = "length"
    quantity = next((at for at in counts if at != length), None)
    if quantity is not None:
        names[quantity] = "quantity"
    texts = [at for at in range(width) if not names[at] and cells[at]]
    for at in texts:
        if WOOD not in names and all(names_a_wood(cell) for cell in cells[at]):
            names[at] = WOOD
    for name in ("name", "note"):
        free = [
            at for at in texts if not names[at] and mostly(at, lambda c: any(map(str.isalpha, c)))
        ]
        if free:
            names[free[0]] = name
    return tuple(names)


def write_parts_csv(parts: Iterable[Part], protect: Callable[[str], str] = str) -> str:
    """Parts as a CSV list that reads back to parts of the same sizes: values where formulas were
    typed. ``protect`` is applied to cells."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(PART_COLUMNS)
    for part in parts:
        writer.writerow([protect(getattr(part.plain_fields, name)) for name in PART_COLUMNS])
    return out.getvalue()
