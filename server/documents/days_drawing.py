"""The days to scale on paper, told apart by line and hatch alone."""

from reportlab.lib import colors
from reportlab.platypus import Flowable

from server.days.schemas import DaysOut, StepOut
from server.documents.type import BOLD, REGULAR

_ROW, _BAR, _TOP = 13.0, 8.0, 16.0
_NAMES = 150.0
_LEAST_NAMED = 30.0  # points a day, from which on every day is named
_HATCH = 4.0


class DaysDrawing(Flowable):
    """Work as black bars, waits hatched, free hours as light bands; now and wanted as lines."""

    def __init__(self, days: DaysOut, width: float) -> None:
        super().__init__()
        self.days = days
        self.width, self.height = width, _TOP + _ROW * len(days.steps) + 12

    def wrap(self, *_: float) -> tuple[float, float]:
        return self.width, self.height

    def _x(self, minutes: int) -> float:
        return _NAMES + (self.width - _NAMES) * minutes / max(1, self.days.width)

    def draw(self) -> None:
        canvas, days = self.canv, self.days
        foot, head = 12.0, self.height - _TOP
        canvas.setFillColor(colors.whitesmoke)
        for start, end in days.free:
            canvas.rect(self._x(start), foot, self._x(end) - self._x(start), head - foot, 0, 1)
        canvas.setFillColor(colors.black)
        canvas.setStrokeColor(colors.lightgrey)
        a_day = (self.width - _NAMES) / max(1, len(days.days))
        every = max(1, round(_LEAST_NAMED / a_day + 0.49))
        canvas.setFont(BOLD, 7)
        for n, day in enumerate(days.days):
            canvas.line(self._x(day.at), foot, self._x(day.at), head)
            if n % every == 0:
                canvas.drawString(self._x(day.at) + 1, head + 4, day.called)
        canvas.setStrokeColor(colors.black)
        for row, step in enumerate(days.steps):
            self._step(step, head - _ROW * (row + 1) + 2)
        marks = [(days.now, "now")]
        marks += [] if days.wanted is None else [(days.wanted, days.wanted_says)]
        canvas.setFont(BOLD, 7)
        for at, says in marks:
            canvas.line(self._x(at), foot - 4, self._x(at), head)
            canvas.drawCentredString(min(self._x(at), self.width - 30), 2, says)

    def _step(self, step: StepOut, base: float) -> None:
        canvas = self.canv
        canvas.setFont(REGULAR, 7)
        canvas.drawString(0, base + 1, step.name[:44])
        for start, end in step.spans:
            wide = max(1.5, self._x(end) - self._x(start))
            canvas.rect(self._x(start), base, wide, _BAR, 1, 1)
        at, over = self._x(step.end), self._x(step.free_from)
        if over - at < 1:
            return
        canvas.setLineWidth(0.4)
        canvas.rect(at, base, over - at, _BAR, 1, 0)
        while at < over:
            top = min(at + _HATCH, over)
            canvas.line(at, base, top, base + _BAR * (top - at) / _HATCH)
            at += _HATCH
        canvas.setLineWidth(1)
