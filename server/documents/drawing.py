"""A board on paper, to scale, told apart by line and hatch alone."""

from dataclasses import dataclass
from uuid import UUID

from reportlab.lib import colors
from reportlab.platypus import Flowable

from carpentry.length import TICKS_PER_INCH, write_length
from server.documents.type import BOLD, REGULAR
from server.plans.schemas import LayoutOut, PlacedOut

BOARD_HEIGHT = 22
HIGHEST = 90
POINTS_PER_INCH = 9  # across boards that are ripped
MARK_HEIGHT = 11
SMALLEST_TYPE = 5


@dataclass(frozen=True)
class SawLine:
    """Where a crosscut meets the top and the bottom edge, in ticks from the marked end, and where
    the long point of the part is."""

    top: int
    bottom: int
    long_point: str = ""


def narrowest(placed: PlacedOut) -> tuple[int, int]:
    """Where a part is there on both edges and sides: room to write on it (ticks)."""
    top_left, top_right, bottom_right, bottom_left = placed.corners
    middle = (placed.start + placed.end) // 2
    before = [at for at in placed.bevels if at < middle]
    beyond = [at for at in placed.bevels if at >= middle]
    return max(top_left, bottom_left, *before), min(top_right, bottom_right, *beyond)


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
        self.board = BOARD_HEIGHT
        if layout.rips and layout.section:
            wide = layout.section.width.ticks / TICKS_PER_INCH * POINTS_PER_INCH
            self.board = round(min(HIGHEST, max(BOARD_HEIGHT, wide)))
        marked_above = any(one.long_points[0] for one in layout.parts) and not layout.rips
        self.height = self.board + MARK_HEIGHT + (12 if marked_above else 4)

    def wrap(self, *_: float) -> tuple[float, float]:
        return self.width, self.height

    def draw(self) -> None:
        base = MARK_HEIGHT + 2
        self.canv.setLineWidth(0.4)
        self.canv.setStrokeColor(colors.grey)
        self.canv.rect(0, base, self.width, self.board)
        self._hatch(0, self.layout.trim_start * self.scale, base)
        rest = self.layout.leftover
        end = max((placed.end for placed in self.layout.parts), default=0)
        if self.layout.rips or any(placed.ends for placed in self.layout.parts):
            self._hatch(0, self.width, base)
        elif rest is None or not rest.keep:
            self._hatch(end * self.scale, self.width, base)
        for placed in self.layout.parts:
            low, high = self._across(placed, base)
            self._part(placed, low, high)
            self._write(placed, low, high)
        for flaw in self.layout.flaws:
            self._flaw(flaw.low * self.scale, flaw.high * self.scale, base)
        if self.layout.rips:
            for segment in self.layout.rips:
                self._saw_line(SawLine(segment.end.ticks, segment.end.ticks), base)
        else:
            for placed in self.layout.parts:
                self._ends(placed, base)
        if rest and rest.keep:
            self._keep(rest.start * self.scale, rest.end * self.scale, rest.length.text, base)

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

    def _across(self, placed: PlacedOut, base: float) -> tuple[float, float]:
        """Where a part lies across the board, in points from below; the marked edge is above."""
        if placed.y is None or self.layout.section is None:
            return base, base + self.board
        share = self.board / self.layout.section.width.ticks
        top = base + self.board
        return top - placed.y.high * share, top - placed.y.low * share

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
        size = min(10, high - low - 1)
        if size < SMALLEST_TYPE:
            return
        canvas, middle = self.canv, (low + high) / 2 - size * 0.36
        canvas.setFont(BOLD, size)
        canvas.drawString(left + 3, middle, mark)
        room = right - left - 8 - canvas.stringWidth(mark, BOLD, size)
        if canvas.stringWidth(length, REGULAR, size - 1) < room:
            canvas.setFont(REGULAR, size - 1)
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

    def _ends(self, placed: PlacedOut, base: float) -> None:
        """The saw lines of a part: that of its right end, and that of an angled left end which no
        neighbour shares, marked above the board."""
        top_left, top_right, bottom_right, bottom_left = placed.corners
        left, right = placed.long_points
        if left and not placed.shared:
            self._saw_line(SawLine(top_left, bottom_left, left), base, above=True)
        self._saw_line(SawLine(top_right, bottom_right, right), base)

    def _saw_line(self, line: SawLine, base: float, *, above: bool = False) -> None:
        if self.layout.length.ticks == line.top == line.bottom:
            return
        canvas = self.canv
        top, bottom = line.top * self.scale, line.bottom * self.scale
        lean = (top - bottom) / self.board
        canvas.setStrokeColor(colors.black)
        canvas.setLineWidth(1.4)
        canvas.line(bottom - 3 * lean, base - 3, top + 2 * lean, base + self.board + 2)
        canvas.setFont(REGULAR, 7)
        if above:
            at = min(line.top, line.bottom)
            canvas.drawString(at * self.scale, base + self.board + 4, self._distance(at, line))
        else:
            at = max(line.top, line.bottom)
            canvas.drawRightString(at * self.scale + 1, base - 10, self._distance(at, line))

    def _distance(self, at: int, line: SawLine) -> str:
        """How far a saw line is from the marked end: its long point, and where that is."""
        return f"{write_length(at, self.notation).text} {line.long_point}".rstrip()

    def _keep(self, start: float, end: float, length: str, base: float) -> None:
        canvas = self.canv
        canvas.saveState()
        canvas.setDash(3, 2)
        canvas.setFillColor(colors.white)
        canvas.rect(start, base, end - start, self.board, fill=1)
        canvas.restoreState()
        canvas.setFillColor(colors.black)
        canvas.setFont(REGULAR, 8)
        label = f"keep {length}"
        if canvas.stringWidth(label, REGULAR, 8) < end - start - 4:
            canvas.drawCentredString((start + end) / 2, base + self.board / 2 - 3, label)
