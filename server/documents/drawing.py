"""A board on paper, to scale, told apart by line and hatch alone."""

from uuid import UUID

from reportlab.lib import colors
from reportlab.platypus import Flowable

from carpentry.length import write_length
from server.documents.type import BOLD, REGULAR
from server.plans.schemas import LayoutOut

BOARD_HEIGHT = 22
MARK_HEIGHT = 11


class BoardDrawing(Flowable):
    """One layout: trim and waste hatched, parts with mark and length, saw lines with their distance
    from the marked end, a keepable leftover dashed."""

    def __init__(
        self, layout: LayoutOut, marks: dict[UUID, str], scale: float, notation: str
    ) -> None:
        super().__init__()
        self.layout = layout
        self.marks = marks
        self.scale = scale
        self.notation = notation
        self.width = layout.length.ticks * self.scale
        self.height = BOARD_HEIGHT + MARK_HEIGHT + 4

    def wrap(self, *_: float) -> tuple[float, float]:
        return self.width, self.height

    def draw(self) -> None:
        base = MARK_HEIGHT + 2
        self.canv.setLineWidth(0.4)
        self.canv.setStrokeColor(colors.grey)
        self.canv.rect(0, base, self.width, BOARD_HEIGHT)
        self._hatch(0, self.layout.trim_start * self.scale, base)
        rest = self.layout.leftover
        end = self.layout.parts[-1].end if self.layout.parts else 0
        if rest is None or not rest.keep:
            self._hatch(end * self.scale, self.width, base)
        for placed in self.layout.parts:
            self._part(placed.start * self.scale, placed.end * self.scale, base)
            self._write(placed.start, placed.end, self.marks[placed.part], placed.length.text, base)
        for placed in self.layout.parts:
            self._saw_line(placed.end, base)
        if rest and rest.keep:
            self._keep(rest.start * self.scale, rest.end * self.scale, rest.length.text, base)

    def _hatch(self, start: float, end: float, base: float) -> None:
        if end - start < 0.5:
            return
        canvas = self.canv
        canvas.saveState()
        path = canvas.beginPath()
        path.rect(start, base, end - start, BOARD_HEIGHT)
        canvas.clipPath(path, stroke=0, fill=0)
        canvas.setStrokeColor(colors.black)
        canvas.setLineWidth(0.5)
        at = start - BOARD_HEIGHT
        while at < end:
            canvas.line(at, base, at + BOARD_HEIGHT, base + BOARD_HEIGHT)
            at += 4
        canvas.restoreState()

    def _part(self, start: float, end: float, base: float) -> None:
        canvas = self.canv
        canvas.setFillColor(colors.white)
        canvas.setStrokeColor(colors.black)
        canvas.setLineWidth(0.9)
        canvas.rect(start, base, end - start, BOARD_HEIGHT, fill=1)
        canvas.setFillColor(colors.black)

    def _write(self, start: int, end: int, mark: str, length: str, base: float) -> None:
        left, right = start * self.scale, end * self.scale
        canvas = self.canv
        canvas.setFont(BOLD, 10)
        canvas.drawString(left + 3, base + 7, mark)
        room = right - left - 8 - canvas.stringWidth(mark, BOLD, 10)
        if canvas.stringWidth(length, REGULAR, 9) < room:
            canvas.setFont(REGULAR, 9)
            canvas.drawRightString(right - 3, base + 7, length)

    def _saw_line(self, end: int, base: float) -> None:
        canvas = self.canv
        at = end * self.scale
        if self.layout.length.ticks == end:
            return
        canvas.setStrokeColor(colors.black)
        canvas.setLineWidth(1.4)
        canvas.line(at, base - 3, at, base + BOARD_HEIGHT + 2)
        canvas.setFont(REGULAR, 7)
        canvas.drawRightString(at + 1, base - 10, write_length(end, self.notation).text)

    def _keep(self, start: float, end: float, length: str, base: float) -> None:
        canvas = self.canv
        canvas.saveState()
        canvas.setDash(3, 2)
        canvas.setFillColor(colors.white)
        canvas.rect(start, base, end - start, BOARD_HEIGHT, fill=1)
        canvas.restoreState()
        canvas.setFillColor(colors.black)
        canvas.setFont(REGULAR, 8)
        label = f"keep {length}"
        if canvas.stringWidth(label, REGULAR, 8) < end - start - 4:
            canvas.drawCentredString((start + end) / 2, base + 8, label)
