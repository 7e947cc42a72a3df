"""The pages that are printed: black on white, Letter or A4."""

import io
from collections.abc import Iterable
from datetime import date

from reportlab.lib.units import inch
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, SimpleDocTemplate, Spacer

from server.documents.type import PAPERS, REGULAR, register_fonts, text
from server.projects.schemas import ProjectOut

MARGIN = 0.6 * inch


def document(title: str, project: ProjectOut, paper: str, story: Iterable[Flowable]) -> bytes:
    """Pages with the project's name, its version and the day at the foot."""
    register_fonts()
    out = io.BytesIO()
    page = PAPERS[paper]

    def foot(canvas: Canvas, document: SimpleDocTemplate) -> None:
        canvas.setFont(REGULAR, 8)
        canvas.drawString(
            MARGIN, MARGIN * 0.6, f"{project.name} · {title} · version {project.version}"
        )
        canvas.drawRightString(
            page[0] - MARGIN, MARGIN * 0.6, f"{date.today().isoformat()} · page {document.page}"
        )

    template = SimpleDocTemplate(
        out,
        pagesize=page,
        leftMargin=MARGIN,
        rightMargin=MARGIN,
        topMargin=MARGIN,
        bottomMargin=MARGIN,
        title=f"{project.name}: {title}",
        author="Grain Tally",
    )
    template.build(list(story), onFirstPage=foot, onLaterPages=foot)
    return out.getvalue()


def heading(project: ProjectOut, title: str) -> list[Flowable]:
    """What stands at the head of the first page."""
    copies = f"build {project.copies}" if project.copies > 1 else "build 1"
    yard = project.yard.name if project.yard else "no yard chosen: standard lengths, no prices"
    return [
        text(project.name, 18, bold=True),
        text(f"{title} · {copies} · {yard}", 10),
        Spacer(1, 10),
    ]
