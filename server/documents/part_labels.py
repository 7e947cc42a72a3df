"""Labels for pieces: on plain paper with lines to cut along, or on label sheets by their
measures."""

import io
from dataclasses import dataclass

from reportlab.lib.units import inch
from reportlab.pdfgen.canvas import Canvas

from carpentry.language import TICKS_PER_INCH, CarpentryError, Faults, Unit, read_length
from server.documents.type import BOLD, PAPERS, REGULAR, register_fonts
from server.shop.schemas import LabelOut

_MOST = 40  # of columns and rows
_PADDING = 6


@dataclass(frozen=True)
class LabelSheet:
    """The labels of a sheet, in points: so many across and down, how large, where the first begins
    from the top left corner, how far apart; whether lines are drawn to cut along."""

    columns: int
    rows: int
    wide: float
    high: float
    left: float
    top: float
    apart: float = 0.0
    below: float = 0.0
    ruled: bool = False


def plain_paper(paper: str) -> LabelSheet:
    """Three columns and ten rows, to be cut apart."""
    page = PAPERS[paper]
    margin, columns, rows = 0.5 * inch, 3, 10
    wide, high = (page[0] - 2 * margin) / columns, (page[1] - 2 * margin) / rows
    return LabelSheet(columns, rows, wide, high, margin, margin, ruled=True)


def read_label_sheet(typed: dict[str, str], paper: str) -> LabelSheet:
    """A sheet by its measures as typed, in inches where nothing else is said. Raises
    ``CarpentryError`` with every problem, by measure."""
    faults = Faults()

    def length(name: str) -> float:
        text = typed.get(name, "").strip() or "0"
        ticks = faults.attempt(name, lambda: read_length(text, Unit.INCH).ticks, 0)
        return ticks / TICKS_PER_INCH * inch

    def count(name: str) -> int:
        text = typed.get(name, "").strip()
        if not (text.isascii() and text.isdigit() and 1 <= int(text) <= _MOST):
            faults.add(name, f"write how many, from 1 to {_MOST}")
            return 1
        return int(text)

    columns, rows = count("columns"), count("rows")
    sizes = {name: length(name) for name in ("wide", "high", "left", "top", "apart", "below")}
    for name in ("wide", "high"):
        if not faults.problems and sizes[name] < inch / 4:
            faults.add(name, "a label is at least a quarter inch")
    page = PAPERS[paper]
    across = sizes["left"] + columns * sizes["wide"] + (columns - 1) * sizes["apart"]
    down = sizes["top"] + rows * sizes["high"] + (rows - 1) * sizes["below"]
    if not faults.problems and across > page[0] + 1:
        faults.add("columns", "these labels are wider than the paper")
    if not faults.problems and down > page[1] + 1:
        faults.add("rows", "these labels are longer than the paper")
    faults.raise_any()
    return LabelSheet(columns, rows, **sizes)


def part_labels_pdf(labels: list[LabelOut], sheet: LabelSheet, paper: str) -> bytes:
    """A label for every piece: what is written on it, its name, its length, the board that it comes
    from and where it goes."""
    if not labels:
        raise CarpentryError("there are no pieces to label yet")
    register_fonts()
    out = io.BytesIO()
    page = PAPERS[paper]
    canvas = Canvas(out, pagesize=page)
    canvas.setTitle("Part labels")
    for index, label in enumerate(labels):
        at = index % (sheet.columns * sheet.rows)
        if index and at == 0:
            canvas.showPage()
        column, row = at % sheet.columns, at // sheet.columns
        left = sheet.left + column * (sheet.wide + sheet.apart)
        top = page[1] - sheet.top - row * (sheet.high + sheet.below)
        _label(canvas, label, sheet, left, top)
    canvas.save()
    return out.getvalue()


def _label(canvas: Canvas, label: LabelOut, sheet: LabelSheet, left: float, top: float) -> None:
    if sheet.ruled:
        canvas.setLineWidth(0.3)
        canvas.rect(left, top - sheet.high, sheet.wide, sheet.high)
    large = min(26.0, sheet.high * 0.42)
    right = left + sheet.wide - _PADDING
    canvas.setFont(BOLD, large)
    canvas.drawString(left + _PADDING, top - large - 2, label.label)
    small = max(6.0, min(10.0, sheet.high * 0.15))
    canvas.setFont(BOLD, small + 2)
    canvas.drawRightString(right, top - small - 6, f"{label.length.text} {label.measured}".rstrip())
    canvas.setFont(REGULAR, small)
    canvas.drawRightString(right, top - 2 * small - 9, f"board {label.board}")
    room = int((sheet.wide - 2 * _PADDING) / (small * 0.52))
    line = top - large - small - 5
    for told in (label.name, f"to {label.goes_to}" if label.goes_to else ""):
        if told and line > top - sheet.high + 2:
            canvas.drawString(left + _PADDING, line, told[:room])
            line -= small + 2
