"""Spreadsheets: the shopping list, part list and price list as CSV and XLSX.

Cells that a spreadsheet would run as a formula are made harmless with a leading apostrophe.
"""

import csv
import io
from collections.abc import Iterable, Sequence

from openpyxl import Workbook
from openpyxl.cell.cell import ILLEGAL_CHARACTERS_RE
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter

from carpentry.language import FORMULA_STARTS
from server.plans.schemas import HardwareLineOut, PlanOut

LIST_COLUMNS = ("stock", "length", "real length", "count", "unit price", "line price")


def harmless(cell: str) -> str:
    """A cell that no spreadsheet takes for a formula."""
    return f"'{cell}" if cell.startswith(FORMULA_STARTS) else cell


def packs_in_words(line: HardwareLineOut) -> str:
    """The packs of a line: ``2 of 100 at $8.60``."""
    return ", ".join(
        f"{p.count} of {p.content} at {p.price}" if p.content else f"{p.count} at {p.price}"
        for p in line.packs
    )


def list_rows(plan: PlanOut) -> list[tuple[str, ...]]:
    """The shopping list as rows of text under ``LIST_COLUMNS``, with its totals."""
    shopping = plan.shopping
    rows = [
        (
            harmless(f"{line.stock}, spare" if line.spare else line.stock),
            line.named_length,
            line.real_length.text if line.real_length else line.named_length,
            str(line.count),
            line.price or "no price",
            line.line_price or "no price",
        )
        for line in shopping.lines
    ]
    rows += [
        (
            harmless(line.name),
            line.length.text if line.length else "",
            "",
            line.needed,
            packs_in_words(line),
            line.price or "no price",
        )
        for line in shopping.hardware.lines
    ]
    tax = f"tax {shopping.tax_rate} %" + (", included" if shopping.tax_included else "")
    total = ", ".join(filter(None, ("total", shopping.total_note)))
    rows += [
        ("wood", "", "", str(plan.tally.boards + plan.tally.spare), "", shopping.subtotal),
        *(
            [("hardware", "", "", "", "", shopping.hardware.price)]
            if shopping.hardware.lines
            else []
        ),
        (tax, "", "", "", "", shopping.tax),
        (total, "", "", "", "", shopping.total),
    ]
    if shopping.copies > 1:
        rows.append((f"each of {shopping.copies}", "", "", "", "", shopping.per_copy))
    return rows


def write_csv(columns: Sequence[str], rows: Iterable[Sequence[str]]) -> bytes:
    """Rows as CSV, UTF-8 with a byte-order mark so that spreadsheets read it right."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(columns)
    writer.writerows(rows)
    return out.getvalue().encode("utf-8-sig")


def write_xlsx(title: str, columns: Sequence[str], rows: Iterable[Sequence[str]]) -> bytes:
    """Rows as a workbook of one sheet; every cell is text, so that nothing is recalculated."""
    book = Workbook()
    sheet = book.active
    plain = ILLEGAL_CHARACTERS_RE.sub("", title)
    sheet.title = "".join(c for c in plain if c not in "[]:*?/\\'")[:31] or "list"
    sheet.append(list(columns))
    for cell in sheet[1]:
        cell.font = Font(bold=True)
    widths = [len(column) for column in columns]
    for row in rows:
        sheet.append([ILLEGAL_CHARACTERS_RE.sub("", text) for text in row])
        for cell in sheet[sheet.max_row]:
            cell.data_type = "s"
        widths = [max(w, len(text)) for w, text in zip(widths, row, strict=True)]
    for number, width in enumerate(widths, start=1):
        sheet.column_dimensions[get_column_letter(number)].width = min(width + 2, 60)
    sheet.freeze_panes = "A2"
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
