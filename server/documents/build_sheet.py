"""The build sheet: every step on paper, so that a stranger could build from it."""

from collections.abc import Iterable, Iterator

from reportlab.lib import colors
from reportlab.lib.units import inch
from reportlab.platypus import CondPageBreak, Flowable, KeepTogether, Paragraph, Spacer, Table

from carpentry.design.shapes import lay_out, made_placed, views_of
from carpentry.language import CarpentryError, Unit
from carpentry.project import Fastened
from server.common.schemas import length_out
from server.days.going import ProjectDays
from server.days.schemas import DaysOut, StepOut
from server.documents.drawing import box_to_tick
from server.documents.page import MARGIN, document, heading
from server.documents.shapes import ViewDrawing
from server.documents.type import PAPERS, length_markup, style, text
from server.projects.drawing import full_size, length_words
from server.projects.models import Project
from server.projects.schemas import PartOut, ProjectOut

_POINTS_PER_INCH = 72
_DRAWN = ("join", "assemble", "glue")


def build_sheet_pdf(
    row: Project, project: ProjectOut, found: ProjectDays, days: DaysOut, paper: str
) -> bytes:
    """Steps one after the other: when, which pieces, which joints with what fasteners and holes,
    the check, and what to mind."""
    sheet = _Sheet(row, project, found, PAPERS[paper][0] - 2 * MARGIN - 12)
    story: list[Flowable] = heading(project, "build sheet")
    story.append(text(f"{days.headline}. {days.says}", 10))
    story += [text(f"{one.place}: {one.message}", 9) for one in days.problems]
    story += [text(one, 9) for one in days.not_timed]
    story.append(Spacer(1, 8))
    for number, step in enumerate(days.steps, start=1):
        story.append(CondPageBreak(1.4 * inch))
        story += sheet.step(number, step)
    story += [text(one, 8) for one in days.cautions]
    return document("build sheet", project, paper, story)


class _Sheet:
    def __init__(self, row: Project, project: ProjectOut, found: ProjectDays, width: float) -> None:
        self.row, self.project, self.found, self.width = row, project, found, width
        self.parts = {part.mark: part for part in project.parts}
        self.fastened = {one.text: one for one in found.work.hardware.joints}
        self.drawn: set[str] = set()

    def step(self, number: int, step: StepOut) -> list[Flowable]:
        """One step, with a box to tick."""
        waits = f", then waits {step.wait}, until {step.until}" if step.wait else ""
        why = f" ({step.wait_says})" if step.wait_says else ""
        when = f"{step.when}: " if step.when else ""
        head = Table(
            [[box_to_tick(), text(f"{number}. {step.name}", 13, bold=True)]],
            colWidths=[20, self.width - 20],
            hAlign="LEFT",
        )
        body: list[Flowable] = [head, text(f"{when}{step.work} of work{waits}{why}.", 9)]
        if step.needs:
            body.append(text(f"Needs {', '.join(step.needs)}.", 9))
        body += [text(note, 9) for note in step.notes]
        found: list[Flowable] = [KeepTogether(body), *self._pieces(step), *self._joints(step)]
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
        rows = [self._piece(self.parts[mark]) for mark in step.parts if mark in self.parts]
        if not rows:
            return
        table = Table(
            rows, colWidths=[self.width * share for share in (0.2, 0.36, 0.2, 0.24)], hAlign="LEFT"
        )
        table.setStyle(
            [
                ("LINEBELOW", (0, 0), (-1, -1), 0.3, colors.grey),
                ("TOPPADDING", (0, 0), (-1, -1), 1),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 1),
            ]
        )
        yield table

    def _piece(self, part: PartOut) -> list[Flowable]:
        numbers = (
            f"{part.mark}1" if part.pieces == 1 else f"{part.mark}1 to {part.mark}{part.pieces}"
        )
        size = ""
        if part.section:
            thick, wide = length_markup(part.section.thickness), length_markup(part.section.width)
            size = f"{thick} × {wide}"
        return [
            text(numbers, 9, bold=True),
            text(part.called or part.stock_name, 9),
            Paragraph(size, style(9)),
            Paragraph(length_markup(part.length_shown), style(9)),
        ]

    def _joints(self, step: StepOut) -> Iterator[Flowable]:
        for line in step.joints:
            yield text(self._joint(line, self.fastened.get(line)), 9)

    def _joint(self, line: str, fastened: Fastened | None) -> str:
        if fastened is None or not fastened.fastener:
            return f"• {line}"
        length = ""
        if fastened.length is not None:
            length = f" {length_out(fastened.length, self.row.notation).text}"
        more = "; ".join((*fastened.notes, *fastened.warnings))
        return f"• {line}: {fastened.count} × {fastened.fastener}{length}" + (
            f"; {more}" if more else ""
        )

    def _drawings(self, step: StepOut) -> Iterator[Flowable]:
        """The shapes that its parts belong to, each drawn once, from the front and the side."""
        if step.sort not in _DRAWN:
            return
        for shape in self.row.shapes.all():
            mine = set(shape.placed.letters.values())
            if shape.called in self.drawn or not mine & set(step.parts):
                continue
            self.drawn.add(shape.called)
            yield from self._views(shape.called, shape.placed)

    def _views(self, called: str, placed: object) -> Iterable[Flowable]:
        try:
            made = made_placed(placed, self.row.sheet())  # type: ignore[arg-type]
            made.check_runs()
        except CarpentryError as error:
            return [text(f"{called} cannot be drawn: {error.problems[0].message}", 9)]
        words, unit = length_words(made.sheet, self.row.notation), Unit(self.row.unit)
        found: list[Flowable] = []
        for view in views_of(made)[:2]:
            laid = lay_out(view, self.width, 190, full_size(_POINTS_PER_INCH, unit), words)
            found += [ViewDrawing(laid), text(f"{called}, {view.name}, 1 : {laid.ratio}", 8)]
        return found
