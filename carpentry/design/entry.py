"""Parts as they are typed, one line each, or pasted from a spreadsheet.

``6 bearers 2x6 treated 44 1/2`` is a quantity, a name, a stock and a length. The quantity may be
left out (1), and so may the name (the stock's). A part from a sheet says its width after its
length: ``2 bottom ply 1/2 30 x 24``.
"""

import re
from collections.abc import Sequence
from dataclasses import replace

from carpentry.design.part import MAX_PARTS, Part, PartFields
from carpentry.design.sheet import EMPTY, Sheet
from carpentry.design.table import parts_table_of_text, read_parts
from carpentry.language import COUNT, CarpentryError, Problem, StockNameError, read_count
from carpentry.lumber import (
    SHEET_KINDS,
    Form,
    Lexicon,
    match_size,
    names_a_shape,
    names_a_wood,
    woods_in,
    words_at,
    written_third,
)

LONGEST_LINE = 400
_QUANTITY = re.compile(
    rf"\s*({COUNT})\s*(?:[x×]\s+|\s|[x×](?=[^\d\s]))\s*(?![x×]\s*\d|by\b)", re.IGNORECASE
)
_TIMES_A_SIZE = re.compile(r"\s*(\d+)\s+[x×]\s+(?=(?:5/4|\d+)[xX×]\d)")
_BY_WIDTH = re.compile(r"(.*\S)\s*[x×]\s*(.+)")
_BY_FORMULA = re.compile(r"(=.*\S)\s+[x×]\s+(=.+)")


def _split(line: str, lexicon: Lexicon) -> PartFields:
    start = 0
    quantity = "1"
    found = _TIMES_A_SIZE.match(line)
    if not found and not _begins_with_size(line, lexicon):
        found = _QUANTITY.match(line)
    if found:
        quantity, start = str(read_count(found[1])), found.end()
    size, size_at, stock_end = _find_size(line, start, lexicon)
    if size not in lexicon.own:
        third = None if _is_sheet(size, lexicon) else written_third(line, stock_end)
        stock_end = words_at(line, third[1] if third else stock_end)
    length, width = line[stock_end:].strip(" ,;@"), ""
    by_width = _BY_WIDTH.fullmatch(length)
    if length.startswith("=") and _is_sheet(size, lexicon):
        by_width = _BY_FORMULA.fullmatch(length)
    if by_width and _is_sheet(size, lexicon):
        length, width = by_width[1], by_width[2]
    name = line[start:size_at].strip(" ,;")
    of_wood = names_a_wood(name)
    return PartFields(
        quantity=quantity,
        name="" if of_wood and not names_a_shape(name) else name,
        stock=line[start if of_wood else size_at : stock_end].strip(" ,;"),
        length=length,
        width=width,
    )


def _is_sheet(size: str, lexicon: Lexicon) -> bool:
    mine = lexicon.own.get(size)
    return mine.form is Form.SHEET if mine else size.split(maxsplit=1)[0] in SHEET_KINDS


def _begins_with_size(line: str, lexicon: Lexicon) -> bool:
    try:
        return match_size(line, lexicon) is not None
    except StockNameError:
        return False


def _find_size(line: str, start: int, lexicon: Lexicon) -> tuple[str, int, int]:
    refused: StockNameError | None = None
    for at in (m.start() for m in re.finditer(r"(?<!\S)\S", line[start:])):
        try:
            matched = match_size(line[start + at :], lexicon)
        except StockNameError as error:
            refused = refused or error
            continue
        if matched:
            return matched[0], start + at, start + at + matched[1]
    raise refused or StockNameError(
        "name the stock after the part, such as 6 bearers 2x6 44 1/2", "stock"
    )


def read_entry(line: str, lexicon: Lexicon, sheet: Sheet = EMPTY) -> Part:
    """One typed line as a part of a ``sheet``, the measures of which its length may follow. Raises
    ``CarpentryError`` placed by field."""
    if len(line) > LONGEST_LINE:
        raise CarpentryError(f"a line has {LONGEST_LINE} characters at the most")
    if not line.strip():
        raise CarpentryError("type a part, such as 6 bearers 2x6 44 1/2")
    try:
        fields = _split(line, lexicon)
    except StockNameError as error:
        raise CarpentryError(Problem("stock", p.message) for p in error.problems) from error
    part = sheet.read(fields, lexicon)
    unsaid = sorted(woods_in(part.name) - set(part.stock.words)) if fields.name else []
    if unsaid and not part.stock.own:
        doubt = f"the stock is {part.stock}: write {unsaid[0]} after its size if it is {unsaid[0]}"
        part = replace(part, warnings=(*part.warnings, doubt))
    return part


def read_lines(
    text: str, lexicon: Lexicon, chosen: Sequence[str] = (), sheet: Sheet = EMPTY
) -> list[Part]:
    """Everything typed or pasted at once: a table (tabs, semicolons or commas, with or without a
    header; its columns as ``chosen`` where they are) or typed lines.

    Raises ``CarpentryError`` with every problem of every line; nothing is kept when there is one.
    """
    lines = [(n, line) for n, line in enumerate(text.splitlines(), start=1) if line.strip()]
    if not lines:
        raise CarpentryError("type a part, such as 6 bearers 2x6 44 1/2")
    if len(lines) > MAX_PARTS:
        raise CarpentryError(f"{len(lines):,} lines are more than {MAX_PARTS:,} in one part list")
    table = parts_table_of_text(text, lexicon, chosen)
    if table is not None:
        return read_parts(table, lexicon, sheet)
    parts: list[Part] = []
    problems: list[Problem] = []
    for number, line in lines:
        try:
            parts.append(read_entry(line, lexicon, sheet))
        except CarpentryError as error:
            where = f"line {number}" if len(lines) > 1 else ""
            problems.extend(
                Problem(", ".join(filter(None, (where, p.place))), p.message)
                for p in error.problems
            )
    if problems:
        raise CarpentryError(problems)
    return parts
