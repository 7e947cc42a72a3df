"""Labels for the boards on the rack: the number large, the real size below it."""

import io

from reportlab.lib.units import inch
from reportlab.pdfgen.canvas import Canvas

from server.documents.type import BOLD, PAPERS, REGULAR, register_fonts
from server.rack.schemas import RackBoardOut

MARGIN = 0.5 * inch
COLUMNS, ROWS = 3, 8
PADDING = 8


def rack_labels_pdf(boards: list[RackBoardOut], paper: str) -> bytes:
    """Labels in three columns and eight rows a page, with lines to cut along."""
    register_fonts()
    out = io.BytesIO()
    page = PAPERS[paper]
    canvas = Canvas(out, pagesize=page)
    canvas.setTitle("Rack labels")
    wide = (page[0] - 2 * MARGIN) / COLUMNS
    high = (page[1] - 2 * MARGIN) / ROWS
    for index, board in enumerate(boards):
        at = index % (COLUMNS * ROWS)
        if index and at == 0:
            canvas.showPage()
        left = MARGIN + (at % COLUMNS) * wide
        top = page[1] - MARGIN - (at // COLUMNS) * high
        _label(canvas, board, left, top, wide, high)
    if not boards:
        canvas.setFont(REGULAR, 11)
        canvas.drawString(MARGIN, page[1] - 2 * MARGIN, "There is no board on the rack.")
    canvas.save()
    return out.getvalue()


def _label(  # noqa: PLR0917 - a place and a size
    canvas: Canvas, board: RackBoardOut, left: float, top: float, wide: float, high: float
) -> None:
    canvas.setLineWidth(0.4)
    canvas.rect(left, top - high, wide, high)
    canvas.setFont(BOLD, 30)
    canvas.drawString(left + PADDING, top - 36, str(board.number))
    canvas.setFont(BOLD, 11)
    canvas.drawRightString(left + wide - PADDING, top - 20, board.stock[:26])
    canvas.setFont(REGULAR, 10)
    canvas.drawRightString(left + wide - PADDING, top - 35, board.length_shown.text)
    if board.section:
        size = f"{board.section.thickness.text} × {board.section.width.text}"
        canvas.drawString(left + PADDING, top - 52, f"{size} {board.section_source}")
    canvas.setFont(REGULAR, 8)
    for row, line in enumerate(filter(None, (board.place, board.note, board.left_alone))):
        canvas.drawString(left + PADDING, top - 66 - 10 * row, line[:44])
