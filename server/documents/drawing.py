"""A board on paper, to scale, told apart by line and hatch alone."""

from uuid import UUID

from reportlab.graphics.shapes import Drawing, Rect
from reportlab.lib import colors
from reportlab.platypus import Flowable

from carpentry.language import TICKS_PER_INCH
from server.documents.type import BOLD, REGULAR
from server.plans.schemas import CutOut, LayoutOut, LeftoverOut, PlacedOut, SpanOut

BOARD_HEIGHT = 22
HIGHEST = 90
POINTS_PER_INCH = 9  # across boards that are ripped
MARK_HEIGHT = 11
SMALLEST_TYPE = 5  # of marks; what is measured is never smaller than FIGURE
FIGURE = 11


def narrowest(placed: PlacedOut) -> tuple[int, int]:
    """Where a part is there on both edges and sides: room to write on it (ticks)."""
    top_left, top_right, bottom_right, bottom_left = placed.corners
    middle = (placed.start + placed.end) // 2
    before = [at for at in placed.bevels if at < middle]
    beyond = [at for at in placed.bevels if at >= middle]
    return max(top_left, bottom_left, *before), min(top_right, bottom_right, *beyond)


class BoardDrawing(Flowable):
    """One layout: waste hatched, parts with mark and length, saw lines as its cuts are made with
    their numbers, leftovers worth keeping dashed."""

    def __init__(self, layout: LayoutOut, marks: dict[UUID, str], scale: float) -> None:
        super().__init__()
        self.layout = layout
        self.marks = marks
        self.scale = scale
        self.width = layout.length.ticks * self.scale
        self.board = BOARD_HEIGHT
        if layout.rips and layout.section:
            wide = layout.section.width.ticks / TICKS_PER_INCH * POINTS_PER_INCH
            self.board = round(min(HIGHEST, max(BOARD_HEIGHT, wide)))
        self.height = self.board + MARK_HEIGHT + 6

    def wrap(self, *_: float) -> tuple[float, float]:
        return self.width, self.height

    def draw(self) -> None:
        base = MARK_HEIGHT + 2
        self.canv.setLineWidth(0.4)
        self.canv.setStrokeColor(colors.grey)
        self.canv.rect(0, base, self.width, self.board)
        self._hatch(0, self.width, base)
        for rest in self.layout.keep:
            self._keep(rest, *self._across(rest.y, base))
        for placed in self._on_top():
            low, high = self._across(placed.y, base)
            self._part(placed, low, high)
            self._write(placed, low, high)
        for flaw in self.layout.flaws:
            self._flaw(flaw.low * self.scale, flaw.high * self.scale, base)
        for cut in self.layout.cuts:
            if cut.on_face:
                self._saw_line(cut, base)

    def _on_top(self) -> list[PlacedOut]:
        """The parts that are seen from the face, nearest last."""
        return sorted(self.layout.parts, key=lambda one: -(one.z.low if one.z else 0))

    def _hatch(self, start: float, end: float, base: float) -> None:
        if end - start < 0.5:
            return
        canvas = self.canv
        canvas.saveState()
        path = canvas.beginPath()
        path.rect(start, base, end - start, self.board)
        canvas.clipPath(path, stroke=0, fill=0)
        canvas.setStrokeColor(colors.black)
        canvas.setLineWidth(0.5)
        at = start - self.board
        while at < end:
            canvas.line(at, base, at + self.board, base + self.board)
            at += 4
        canvas.restoreState()

    def _across(self, across: SpanOut | None, base: float) -> tuple[float, float]:
        """Where something lies across the board, in points from below; the marked edge is above."""
        if across is None or self.layout.section is None:
            return base, base + self.board
        return self._height(across.high, base), self._height(across.low, base)

    def _height(self, across: int, base: float) -> float:
        """Points from below of what is so far (ticks) from the marked edge."""
        wide = self.layout.section.width.ticks if self.layout.section else 1
        return base + self.board - across * self.board / wide

    def _part(self, placed: PlacedOut, low: float, high: float) -> None:
        canvas = self.canv
        canvas.setFillColor(colors.white)
        canvas.setStrokeColor(colors.black)
        canvas.setLineWidth(0.9)
        corners = [at * self.scale for at in placed.corners]
        path = canvas.beginPath()
        path.moveTo(corners[0], high)
        path.lineTo(corners[1], high)
        path.lineTo(corners[2], low)
        path.lineTo(corners[3], low)
        path.close()
        canvas.drawPath(path, fill=1)
        canvas.setFillColor(colors.black)
        self._bevels(placed, low, high)

    def _bevels(self, placed: PlacedOut, low: float, high: float) -> None:
        """The short points of bevelled ends, dashed."""
        canvas = self.canv
        canvas.saveState()
        canvas.setDash(2, 1.5)
        canvas.setLineWidth(0.6)
        for at in placed.bevels:
            canvas.line(at * self.scale, low, at * self.scale, high)
        canvas.restoreState()

    def _write(self, placed: PlacedOut, low: float, high: float) -> None:
        left, right = (at * self.scale for at in narrowest(placed))
        mark, length = self.marks[placed.part], placed.length.text
        size = min(FIGURE, high - low - 1)
        if size < SMALLEST_TYPE:
            return
        canvas, middle = self.canv, (low + high) / 2 - size * 0.36
        canvas.setFont(BOLD, size)
        canvas.drawString(left + 3, middle, mark)
        room = right - left - 8 - canvas.stringWidth(mark, BOLD, size)
        if size == FIGURE and canvas.stringWidth(length, REGULAR, size) < room:
            canvas.setFont(REGULAR, size)
            canvas.drawRightString(right - 3, middle, length)

    def _flaw(self, start: float, end: float, base: float) -> None:
        """Unsound wood: a dotted box with a cross through it."""
        canvas = self.canv
        canvas.saveState()
        canvas.setDash(1, 1)
        canvas.setLineWidth(0.7)
        canvas.rect(start, base, end - start, self.board)
        canvas.line(start, base, end, base + self.board)
        canvas.line(start, base + self.board, end, base)
        canvas.restoreState()

    def _saw_line(self, cut: CutOut, base: float) -> None:
        """A saw line as it runs on the face, that of a crosscut through the whole board with the
        number of its cut."""
        assert cut.on_face
        canvas = self.canv
        x1, y1, x2, y2 = cut.on_face
        left, right = x1 * self.scale, x2 * self.scale
        low, high = self._height(y2, base), self._height(y1, base)
        whole = cut.saw == "crosscut" and high - low > self.board - 1
        canvas.setStrokeColor(colors.black)
        canvas.setLineWidth(1.4 if whole else 0.9)
        canvas.line(left, high + (2 if whole else 0), right, low - (3 if whole else 0))
        if whole:
            canvas.setFont(BOLD, 8)
            canvas.drawCentredString((left + right) / 2, base - 11, str(cut.number))

    def _keep(self, rest: LeftoverOut, low: float, high: float) -> None:
        start, end = rest.start * self.scale, rest.end * self.scale
        canvas = self.canv
        canvas.saveState()
        canvas.setDash(3, 2)
        canvas.setFillColor(colors.white)
        canvas.rect(start, low, end - start, high - low, fill=1)
        canvas.restoreState()
        canvas.setFillColor(colors.black)
        size = FIGURE
        if high - low < size + 1:
            return
        canvas.setFont(REGULAR, size)
        across = f" × {rest.width.text}" if rest.width and self.layout.rips else ""
        label = f"keep {rest.length.text}{across}"
        if canvas.stringWidth(label, REGULAR, size) < end - start - 4:
            canvas.drawCentredString((start + end) / 2, (low + high) / 2 - size * 0.36, label)


def box_to_tick() -> Drawing:
    """A box to tick."""
    drawing = Drawing(14, 14)
    drawing.add(Rect(1, 1, 10, 10, fillColor=None, strokeWidth=0.8))
    return drawing
