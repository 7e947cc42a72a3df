"""The build sheet: every step on paper, so that a stranger could build from it."""

from collections.abc import Iterable, Iterator

from reportlab.lib import colors
from reportlab.lib.units import inch
from reportlab.platypus import CondPageBreak, Flowable, KeepTogether, Paragraph, Spacer, Table

from carpentry.design.shapes import Placed, lay_out, made_placed, views_of
from carpentry.language import CarpentryError, Unit
from server.days.schemas import DaysOut, PieceOut, StepOut
from server.documents.days_drawing import DaysDrawing
from server.documents.drawing import box_to_tick
from server.documents.page import MARGIN, document, heading
from server.documents.shapes import ViewDrawing
from server.documents.type import PAPERS, length_markup, style, text
from server.projects.drawing import full_size, length_words
from server.projects.models import Project
from server.projects.schemas import ProjectOut

_POINTS_PER_INCH = 72


def build_sheet_pdf(row: Project, project: ProjectOut, days: DaysOut, paper: str) -> bytes:
    """Steps one after the other: when, which pieces, which joints with what fasteners and holes,
    the check, and what to mind."""
    sheet = _Sheet(row, PAPERS[paper][0] - 2 * MARGIN - 12)
    story: list[Flowable] = heading(project, "build sheet")
    story.append(text(f"{days.headline}. {days.says}", 10))
    story += [text(f"{one.place}: {one.message}", 9) for one in days.problems]
    story += [text(one, 9) for one in days.not_timed]
    story.append(Spacer(1, 8))
    if days.width and days.steps:
        story += [DaysDrawing(days, sheet.width), Spacer(1, 12)]
    for number, step in enumerate(days.steps, start=1):
        story.append(CondPageBreak(1.4 * inch))
        story += sheet.step(number, step)
    story += [text(one, 8) for one in days.cautions]
    return document("build sheet", project, paper, story)


class _Sheet:
    def __init__(self, row: Project, width: float) -> None:
        self.row, self.width = row, width
        self.shapes = {one.called: one.placed for one in row.shapes.all()}
        self.drawn: set[str] = set()

    def step(self, number: int, step: StepOut) -> list[Flowable]:
        """One step, with a box to tick."""
        waits = f", then waits {step.wait}, until {step.until}" if step.wait else ""
        why = f" ({step.wait_says})" if step.wait_says else ""
        when = f"{step.when}: " if step.when else ""
        done = ", done" if step.state in ("done", "dry") else ""
        head = Table(
            [[box_to_tick(), text(f"{number}. {step.name}{done}", 13, bold=True)]],
            colWidths=[20, self.width - 20],
            hAlign="LEFT",
        )
        body: list[Flowable] = [head, text(f"{when}{step.work} of work{waits}{why}.", 9)]
        if step.needs:
            body.append(text(f"Needs {', '.join(step.needs)}.", 9))
        body += [text(note, 9) for note in step.notes]
        found: list[Flowable] = [KeepTogether(body), *self._pieces(step)]
        found += [text(f"• {line}", 9) for line in step.joints]
        found += self._drawings(step)
        if step.check:
            answered = f" Answered: {step.check.answer}." if step.check.answer else ""
            asks = f"Check: {step.check.told}. {step.check.asks}: ________{answered}"
            found.append(text(asks, 10, bold=True))
            if step.check.says:
                found.append(text(step.check.says, 9))
        found += [text(f"Mind: {one}", 8) for one in step.cautions]
        return [*found, Spacer(1, 12)]

    def _pieces(self, step: StepOut) -> Iterator[Flowable]:
        """Its pieces by letter and number."""
        if not step.pieces:
            return
        table = Table(
            [_piece(one) for one in step.pieces],
            colWidths=[self.width * share for share in (0.2, 0.36, 0.2, 0.24)],
            hAlign="LEFT",
        )
        table.setStyle(
            [
                ("LINEBELOW", (0, 0), (-1, -1), 0.3, colors.grey),
                ("TOPPADDING", (0, 0), (-1, -1), 1),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 1),
            ]
        )
        yield table

    def _drawings(self, step: StepOut) -> Iterator[Flowable]:
        """The shapes that its parts belong to, each drawn once, as seen from two sides."""
        for shown in step.drawn:
            if shown.called not in self.drawn:
                self.drawn.add(shown.called)
                yield from self._views(shown.called, self.shapes[shown.called])

    def _views(self, called: str, placed: Placed) -> Iterable[Flowable]:
        try:
            made = made_placed(placed, self.row.sheet())
            made.check_runs()
        except CarpentryError as error:
            return [text(f"{called} cannot be drawn: {error.problems[0].message}", 9)]
        words, unit = length_words(made.sheet, self.row.notation), Unit(self.row.unit)
        found: list[Flowable] = []
        for view in views_of(made)[:2]:
            laid = lay_out(view, self.width, 190, full_size(_POINTS_PER_INCH, unit), words)
            found += [ViewDrawing(laid), text(f"{called}, {view.name}, 1 : {laid.ratio}", 8)]
        return found


def _piece(piece: PieceOut) -> list[Flowable]:
    size = " × ".join(length_markup(one) for one in (piece.thickness, piece.width) if one)
    return [
        text(piece.label, 9, bold=True),
        text(piece.name, 9),
        Paragraph(size, style(9)),
        Paragraph(length_markup(piece.length), style(9)),
    ]
