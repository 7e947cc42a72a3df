"""A run on paper: a drawing to scale, and its marks to read off at the bench."""

from collections.abc import Iterator

from reportlab.lib import colors
from reportlab.lib.units import inch
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.platypus import Flowable, Paragraph, Spacer, Table, TableStyle

from carpentry.language import TICKS_PER_INCH
from server.documents.page import MARGIN, document, heading
from server.documents.type import BOLD, PAPERS, REGULAR, length_markup, style, text
from server.projects.schemas import LaidOut, MarkOut, ProjectOut, RunOut

FIGURES = 16  # points: the list is read from where the tape is
_SIDES = {"near": "near edges", "far": "far edges", "centre": "centres"}


def marks_pdf(project: ProjectOut, run: RunOut, paper: str) -> bytes:
    """The marks of a run on paper; what is wrong where it cannot be laid."""
    width = PAPERS[paper][0] - 2 * MARGIN
    story = heading(project, f"marks of {run.name}")
    if run.laid is None:
        story += [text(f"{p.place} {p.message}", 11) for p in run.problems]
        return document(f"marks of {run.name}", project, paper, story)
    laid = run.laid
    story += [Paragraph(line, style(11)) for line in _told(laid)]
    story += [Spacer(1, 8), RunDrawing(laid, run.part, width), Spacer(1, 10)]
    side = "" if laid.side == "centre" else " The piece lies on the side of the cross."
    lead = f"Hook the tape once. Every figure is from the left end, of {_SIDES[laid.side]}.{side}"
    story += [text(lead, 10, bold=True), Spacer(1, 4), _list(laid, run.part, width)]
    return document(f"marks of {run.name}", project, paper, story)


def _told(laid: LaidOut) -> Iterator[str]:
    if laid.gap:
        yield f"<b>{laid.count}, gap {length_markup(laid.gap)}</b> (exactly {laid.exact_gap})"
    elif laid.exposure and laid.last:
        told = f"<b>{laid.count} rows, each shows {length_markup(laid.exposure)}</b>"
        yield f"{told}; the last is ripped to {length_markup(laid.last)}"
    for opening in laid.openings:
        yield f"without {opening.number}: an opening of {length_markup(opening.width)}"
    if laid.caution:
        yield laid.caution


def _list(laid: LaidOut, letter: str, width: float) -> Table:
    """Every mark, down one column after the other."""
    cells = [_cell(mark, letter, _after(laid, index)) for index, mark in enumerate(laid.marks)]
    columns = 2 if laid.packers else 3
    deep = -(-len(cells) // columns)
    rows = [cells[row::deep] for row in range(deep)]
    filled = [row + [""] * (columns - len(row)) for row in rows]
    return Table(
        filled,
        colWidths=[width / columns] * columns,
        style=TableStyle(
            [("LINEBELOW", (0, 0), (-1, -1), 0.3, colors.grey), ("VALIGN", (0, 0), (-1, -1), "TOP")]
        ),
    )


def _after(laid: LaidOut, index: int) -> str:
    return f"then {laid.packers[index]}" if index < len(laid.packers) else ""


def _cell(mark: MarkOut, letter: str, after: str) -> Paragraph:
    said = [after] if after else []
    said += ["left out"] if mark.left_out else ["loose"] if mark.loose else []
    said += [f"ends at {length_markup(mark.check)}"] if mark.check else []
    figure = length_markup(mark.left)
    beside = f" <font size=8>{'; '.join(said)}</font>" if said else ""
    return Paragraph(
        f"<font size=9>{letter}{mark.number}</font>  <b>{figure}</b>{beside}", style(FIGURES)
    )


class RunDrawing(Flowable):
    """A run to scale: its items on what they fill, a line at every mark, and the whole length."""

    HIGH = 54
    RAIL = 14
    FOOT = 40

    def __init__(self, laid: LaidOut, letter: str, width: float) -> None:
        super().__init__()
        self.laid, self.letter, self.width = laid, letter, width
        self.height = self.HIGH + self.FOOT
        ends = [mark.start + mark.wide for mark in laid.marks]
        self.low = min(0, *(mark.start for mark in laid.marks))
        self.scale = width / (max(laid.along.ticks, *ends) - self.low)

    def wrap(self, *_: float) -> tuple[float, float]:
        return self.width, self.height

    def _x(self, ticks: float) -> float:
        return (ticks - self.low) * self.scale

    def draw(self) -> None:
        canvas = self.canv
        canvas.setLineWidth(0.5)
        rail = self.FOOT + (self.HIGH - self.RAIL) / 2
        canvas.rect(self._x(0), rail, self.laid.along.ticks * self.scale, self.RAIL)
        for mark in self.laid.marks:
            self._item(mark)
        self._whole()

    def _item(self, mark: MarkOut) -> None:
        canvas, wide = self.canv, mark.wide * self.scale
        canvas.saveState()
        canvas.setFillColor(colors.white)
        canvas.setDash(*([3, 2] if mark.left_out else []))
        canvas.rect(self._x(mark.start), self.FOOT, wide, self.HIGH, fill=not mark.left_out)
        canvas.restoreState()
        name = f"{self.letter}{mark.number}"
        if stringWidth(name, BOLD, 8) < wide - 2:
            canvas.setFont(BOLD, 8)
            middle = self.FOOT + self.HIGH / 2 - 3
            canvas.drawCentredString(self._x(mark.start) + wide / 2, middle, name)
        if not mark.left_out:
            share = {"near": 0.0, "centre": 0.5, "far": 1.0}[self.laid.side]
            at = self._x(mark.start + mark.wide * share)
            canvas.line(at, self.FOOT, at, self.FOOT - 12)
            cross = {"near": 4, "far": -4}.get(self.laid.side)
            if cross and wide > 8:
                canvas.setFont(REGULAR, 7)
                canvas.drawCentredString(at + cross, self.FOOT - 10, "×")

    def _whole(self) -> None:
        canvas, start, end = self.canv, self._x(0), self._x(self.laid.along.ticks)
        canvas.line(start, 16, end, 16)
        for at in (start, end):
            canvas.line(at, 12, at, 20)
        canvas.setFont(BOLD, 9)
        canvas.drawCentredString((start + end) / 2, 3, self.laid.along.text)
        canvas.setFont(REGULAR, 8)
        canvas.drawRightString(end, 3, f"1 : {inch / TICKS_PER_INCH / self.scale:.3g}")
