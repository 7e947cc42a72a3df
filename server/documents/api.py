"""Everything a builder takes away, as files."""

import uuid

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router

from carpentry.buying import PRICE_COLUMNS, write_prices_csv
from carpentry.parts import write_parts_csv
from carpentry.project import project_document, yard_document
from server.config.schemas import ErrorOut
from server.documents.answers import as_json, file_answer
from server.documents.message import list_message
from server.documents.paper import cut_sheet_pdf, shopping_list_pdf
from server.documents.sheets import LIST_COLUMNS, harmless, list_rows, write_csv, write_xlsx
from server.documents.type import Paper
from server.plans.models import Piece
from server.projects.models import Project
from server.projects.showing import show_planned
from server.yards.models import Yard

router = Router(tags=["documents"])
FILE = {200: None, 404: ErrorOut}


def _project(request: HttpRequest, project_id: uuid.UUID) -> Project:
    return get_object_or_404(Project.objects.of(request.user), id=project_id)


@router.get("/projects/{uuid:project_id}/shopping-list.csv", response=FILE)
def list_csv(request: HttpRequest, project_id: uuid.UUID) -> HttpResponse:
    """The shopping list as CSV."""
    project = _project(request, project_id)
    rows = list_rows(show_planned(project).plan)
    return file_answer(write_csv(LIST_COLUMNS, rows), f"{project.name} shopping list", "csv")


@router.get("/projects/{uuid:project_id}/shopping-list.xlsx", response=FILE)
def list_xlsx(request: HttpRequest, project_id: uuid.UUID) -> HttpResponse:
    """The shopping list as a workbook."""
    project = _project(request, project_id)
    rows = list_rows(show_planned(project).plan)
    content = write_xlsx(project.name, LIST_COLUMNS, rows)
    return file_answer(content, f"{project.name} shopping list", "xlsx")


@router.get("/projects/{uuid:project_id}/shopping-list.pdf", response=FILE)
def list_pdf(request: HttpRequest, project_id: uuid.UUID, paper: Paper = "letter") -> HttpResponse:
    """The shopping list on paper."""
    project = _project(request, project_id)
    content = shopping_list_pdf(show_planned(project), paper)
    return file_answer(content, f"{project.name} shopping list", "pdf")


@router.get("/projects/{uuid:project_id}/shopping-list.txt", response=FILE)
def list_text(request: HttpRequest, project_id: uuid.UUID) -> HttpResponse:
    """The shopping list as plain text, to paste into a message."""
    project = _project(request, project_id)
    content = list_message(show_planned(project)).encode()
    return file_answer(content, f"{project.name} shopping list", "txt")


@router.get("/projects/{uuid:project_id}/cut-sheet.pdf", response=FILE)
def cut_sheet(request: HttpRequest, project_id: uuid.UUID, paper: Paper = "letter") -> HttpResponse:
    """The cut sheet on paper."""
    project = _project(request, project_id)
    shown = show_planned(project)
    content = cut_sheet_pdf(shown, paper, _labels(shown.plan.id))
    return file_answer(content, f"{project.name} cut sheet", "pdf")


def _labels(plan_id: uuid.UUID) -> dict[int, list[str]]:
    """The part numbers on each board of a plan, by the number of the board."""
    labels: dict[int, list[str]] = {}
    pieces = Piece.objects.filter(board__plan=plan_id).order_by("board__number", "start")
    for number, label in pieces.values_list("board__number", "label"):
        labels.setdefault(number, []).append(label)
    return labels


@router.get("/projects/{uuid:project_id}/parts.csv", response=FILE)
def parts_csv(request: HttpRequest, project_id: uuid.UUID) -> HttpResponse:
    """The part list as CSV; importing it gives the same parts."""
    project = _project(request, project_id)
    content = write_parts_csv(project.as_file().parts, harmless).encode()
    return file_answer(content, f"{project.name} parts", "csv")


@router.get("/projects/{uuid:project_id}/project.json", response=FILE)
def project_json(request: HttpRequest, project_id: uuid.UUID) -> HttpResponse:
    """The whole project; importing it gives the same project."""
    project = _project(request, project_id)
    return file_answer(as_json(project_document(project.as_file())), project.name, "json")


def _yard(request: HttpRequest, yard_id: uuid.UUID) -> Yard:
    return get_object_or_404(Yard.objects.of(request.user), id=yard_id)


@router.get("/yards/{uuid:yard_id}/prices.csv", response=FILE)
def prices_csv(request: HttpRequest, yard_id: uuid.UUID) -> HttpResponse:
    """A yard's price list as CSV; importing it gives the same lines."""
    yard = _yard(request, yard_id)
    lines = [line.fields for line in yard.lines.all()]
    return file_answer(
        write_prices_csv(yard.name, lines, harmless).encode(), f"{yard.name} prices", "csv"
    )


@router.get("/yards/{uuid:yard_id}/prices.xlsx", response=FILE)
def prices_xlsx(request: HttpRequest, yard_id: uuid.UUID) -> HttpResponse:
    """A yard's price list as a workbook; importing it gives the same lines."""
    yard = _yard(request, yard_id)
    rows = [
        [harmless(getattr(line.fields, column)) for column in PRICE_COLUMNS]
        for line in yard.lines.all()
    ]
    return file_answer(write_xlsx(yard.name, PRICE_COLUMNS, rows), f"{yard.name} prices", "xlsx")


@router.get("/yards/{uuid:yard_id}/yard.json", response=FILE)
def yard_json(request: HttpRequest, yard_id: uuid.UUID) -> HttpResponse:
    """The whole yard; importing it gives the same yard."""
    yard = _yard(request, yard_id)
    return file_answer(as_json(yard_document(yard.as_file())), yard.name, "json")
