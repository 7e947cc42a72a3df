"""Everything a builder takes away, as files."""

import uuid

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Query, Router

from carpentry.buying import PRICE_COLUMNS, write_prices_csv
from carpentry.design import write_parts_csv
from carpentry.design.shapes import Made, made_placed
from carpentry.language import CarpentryError
from carpentry.project import project_document, yard_document
from carpentry.time.calendar_file import calendar_file
from server.common.answers import as_json, file_answer
from server.common.owned import owned
from server.common.schemas import ErrorOut
from server.days.going import plan_for_days, project_days, zone_of
from server.days.showing import show_days
from server.documents.build_sheet import build_sheet_pdf
from server.documents.labels import rack_labels_pdf
from server.documents.marks import marks_pdf
from server.documents.message import list_message
from server.documents.paper import cut_sheet_pdf, shopping_list_pdf
from server.documents.part_labels import part_labels_pdf, plain_paper, read_label_sheet
from server.documents.planned import planned
from server.documents.shapes import ALL, drawing_dxf, drawing_pdf, drawing_svg
from server.documents.sheets import LIST_COLUMNS, harmless, list_rows, write_csv, write_xlsx
from server.documents.shop_sheet import shop_sheet_pdf
from server.documents.type import Paper
from server.projects.models import Project
from server.projects.showing import show_project
from server.rack.models import Rack
from server.rack.showing import show_board
from server.shop.going import cutting_of, planned_cutting
from server.shop.schemas import CuttingOut, LabelSheetIn
from server.shop.showing import show_cutting
from server.yards.models import Yard

router = Router(tags=["documents"])
FILE = {200: None, 404: ErrorOut}
DRAWN = FILE | {422: ErrorOut}


@router.get("/projects/{uuid:project_id}/shopping-list.csv", response=FILE)
def list_csv(request: HttpRequest, project_id: uuid.UUID) -> HttpResponse:
    """The shopping list as CSV."""
    project = owned(Project, request, project_id)
    rows = list_rows(planned(project).plan)
    return file_answer(write_csv(LIST_COLUMNS, rows), f"{project.name} shopping list", "csv")


@router.get("/projects/{uuid:project_id}/shopping-list.xlsx", response=FILE)
def list_xlsx(request: HttpRequest, project_id: uuid.UUID) -> HttpResponse:
    """The shopping list as a workbook."""
    project = owned(Project, request, project_id)
    rows = list_rows(planned(project).plan)
    content = write_xlsx(project.name, LIST_COLUMNS, rows)
    return file_answer(content, f"{project.name} shopping list", "xlsx")


@router.get("/projects/{uuid:project_id}/shopping-list.pdf", response=FILE)
def list_pdf(request: HttpRequest, project_id: uuid.UUID, paper: Paper = "letter") -> HttpResponse:
    """The shopping list on paper."""
    project = owned(Project, request, project_id)
    content = shopping_list_pdf(planned(project), paper)
    return file_answer(content, f"{project.name} shopping list", "pdf")


@router.get("/projects/{uuid:project_id}/shopping-list.txt", response=FILE)
def list_text(request: HttpRequest, project_id: uuid.UUID) -> HttpResponse:
    """The shopping list as plain text, to paste into a message."""
    project = owned(Project, request, project_id)
    content = list_message(planned(project)).encode()
    return file_answer(content, f"{project.name} shopping list", "txt")


@router.get("/projects/{uuid:project_id}/cut-sheet.pdf", response=FILE)
def cut_sheet(request: HttpRequest, project_id: uuid.UUID, paper: Paper = "letter") -> HttpResponse:
    """The cut sheet on paper."""
    project = owned(Project, request, project_id)
    content = cut_sheet_pdf(planned(project), paper)
    return file_answer(content, f"{project.name} cut sheet", "pdf")


@router.get("/projects/{uuid:project_id}/shapes/{uuid:shape_id}/drawing.pdf", response=DRAWN)
def shape_paper(
    request: HttpRequest,
    project_id: uuid.UUID,
    shape_id: uuid.UUID,
    view: str = ALL,
    paper: Paper = "letter",
) -> HttpResponse:
    """The drawing of a shape on paper, with its scale."""
    project, made = _shape(request, project_id, shape_id)
    content = drawing_pdf(show_project(project), project, made, view, paper)
    return file_answer(content, f"{project.name} {made.names.called}", "pdf")


@router.get("/projects/{uuid:project_id}/shapes/{uuid:shape_id}/drawing.svg", response=DRAWN)
def shape_svg(
    request: HttpRequest, project_id: uuid.UUID, shape_id: uuid.UUID, view: str = ALL
) -> HttpResponse:
    """The drawing of a shape as SVG, at full size."""
    project, made = _shape(request, project_id, shape_id)
    content = drawing_svg(project, made, view)
    return file_answer(content, f"{project.name} {made.names.called}", "svg")


@router.get("/projects/{uuid:project_id}/shapes/{uuid:shape_id}/drawing.dxf", response=DRAWN)
def shape_dxf(
    request: HttpRequest, project_id: uuid.UUID, shape_id: uuid.UUID, view: str = ALL
) -> HttpResponse:
    """The drawing of a shape as DXF, at full size."""
    project, made = _shape(request, project_id, shape_id)
    content = drawing_dxf(project, made, view)
    return file_answer(content, f"{project.name} {made.names.called}", "dxf")


def _shape(
    request: HttpRequest, project_id: uuid.UUID, shape_id: uuid.UUID
) -> tuple[Project, Made]:
    """A shape as it is made. Raises ``CarpentryError`` where it cannot be drawn."""
    project = owned(Project, request, project_id)
    shape = get_object_or_404(project.shapes, id=shape_id)
    made = made_placed(shape.placed, project.sheet())
    made.check_runs()
    return project, made


@router.get("/projects/{uuid:project_id}/runs/{uuid:run_id}/marks.pdf", response=FILE)
def run_marks(
    request: HttpRequest, project_id: uuid.UUID, run_id: uuid.UUID, paper: Paper = "letter"
) -> HttpResponse:
    """The marks of a run on paper."""
    project = owned(Project, request, project_id)
    get_object_or_404(project.runs, id=run_id)
    shown = show_project(project)
    run = next(one for one in shown.runs if one.id == run_id)
    content = marks_pdf(shown, run, paper)
    return file_answer(content, f"{project.name} marks of {run.name}", "pdf")


@router.get("/projects/{uuid:project_id}/parts.csv", response=FILE)
def parts_csv(request: HttpRequest, project_id: uuid.UUID) -> HttpResponse:
    """The part list as CSV; importing it gives the same parts."""
    project = owned(Project, request, project_id)
    content = write_parts_csv(project.as_file().parts, harmless).encode()
    return file_answer(content, f"{project.name} parts", "csv")


@router.get("/projects/{uuid:project_id}/project.json", response=FILE)
def project_json(request: HttpRequest, project_id: uuid.UUID) -> HttpResponse:
    """The whole project; importing it gives the same project."""
    project = owned(Project, request, project_id)
    return file_answer(as_json(project_document(project.as_file())), project.name, "json")


@router.get("/yards/{uuid:yard_id}/prices.csv", response=FILE)
def prices_csv(request: HttpRequest, yard_id: uuid.UUID) -> HttpResponse:
    """A yard's price list as CSV; importing it gives the same lines."""
    yard = owned(Yard, request, yard_id)
    lines = [line.fields for line in yard.lines.all()]
    return file_answer(
        write_prices_csv(yard.name, lines, harmless).encode(), f"{yard.name} prices", "csv"
    )


@router.get("/yards/{uuid:yard_id}/prices.xlsx", response=FILE)
def prices_xlsx(request: HttpRequest, yard_id: uuid.UUID) -> HttpResponse:
    """A yard's price list as a workbook; importing it gives the same lines."""
    yard = owned(Yard, request, yard_id)
    rows = [
        [harmless(getattr(line.fields, column)) for column in PRICE_COLUMNS]
        for line in yard.lines.all()
    ]
    return file_answer(write_xlsx(yard.name, PRICE_COLUMNS, rows), f"{yard.name} prices", "xlsx")


@router.get("/yards/{uuid:yard_id}/yard.json", response=FILE)
def yard_json(request: HttpRequest, yard_id: uuid.UUID) -> HttpResponse:
    """The whole yard; importing it gives the same yard."""
    yard = owned(Yard, request, yard_id)
    return file_answer(as_json(yard_document(yard.as_file())), yard.name, "json")


@router.get("/rack/labels.pdf", response={200: None})
def labels(request: HttpRequest, paper: Paper = "letter") -> HttpResponse:
    """A label for every board on the rack, to cut out and staple on."""
    boards = [show_board(board) for board in Rack.of(request.user).boards.all()]
    return file_answer(rack_labels_pdf(boards, paper), "rack labels", "pdf")


@router.get("/projects/{uuid:project_id}/shop-sheet.pdf", response=DRAWN)
def shop_sheet(
    request: HttpRequest,
    project_id: uuid.UUID,
    paper: Paper = "letter",
    by_board: bool = False,
) -> HttpResponse:
    """Every set-up on paper, stop by stop or board after board."""
    project = owned(Project, request, project_id)
    content = shop_sheet_pdf(show_project(project), _cutting(project), paper, by_board=by_board)
    return file_answer(content, f"{project.name} shop sheet", "pdf")


@router.get("/projects/{uuid:project_id}/part-labels.pdf", response=DRAWN)
def part_labels(
    request: HttpRequest, project_id: uuid.UUID, sheet: Query[LabelSheetIn], paper: Paper = "letter"
) -> HttpResponse:
    """A label for every piece, on plain paper or on label sheets by their measures."""
    project = owned(Project, request, project_id)
    typed = sheet.dict()
    by_measures = any(typed.values())
    read = read_label_sheet(typed, paper) if by_measures else plain_paper(paper)
    content = part_labels_pdf(_cutting(project).labels, read, paper)
    return file_answer(content, f"{project.name} labels", "pdf")


def _cutting(project: Project) -> CuttingOut:
    """What is cut of a project, or would be."""
    return show_cutting(cutting_of(project) or planned_cutting(project, uuid.uuid4()))


@router.get("/projects/{uuid:project_id}/build-sheet.pdf", response=DRAWN)
def build_sheet(
    request: HttpRequest, project_id: uuid.UUID, paper: Paper = "letter", zone: str = ""
) -> HttpResponse:
    """Every step on paper: pieces, joints, checks, and when."""
    project = owned(Project, request, project_id)
    days = show_days(project_days(project, zone_of(zone)), thorough=True)
    content = build_sheet_pdf(project, show_project(project), days, paper)
    return file_answer(content, f"{project.name} build sheet", "pdf")


@router.get("/projects/{uuid:project_id}/days.ics", response=DRAWN)
def days_calendar(request: HttpRequest, project_id: uuid.UUID, zone: str = "") -> HttpResponse:
    """What is still to do, as a calendar; taken in again it moves what it brought before."""
    project = owned(Project, request, project_id)
    found = project_days(project, zone_of(zone))
    if found.days is None:
        raise CarpentryError(found.fault or "there is nothing to do yet", "days")
    plan, _ = plan_for_days(found.days, thorough=True)
    steps = {step.key: step for step in found.all.steps}
    named = (project.id, project.name)
    content = calendar_file(plan, steps, named, project.settings().notation, timezone.now())
    return file_answer(content, f"{project.name} days", "ics")


@router.get("/account/export.json", response={200: None})
def export_account(request: HttpRequest) -> HttpResponse:
    """Everything the account holds, but for deleted projects: projects and yards as their
    open-format documents."""
    projects = Project.objects.of(request.user)
    yards = Yard.objects.of(request.user)
    document = {
        "format": "grain-tally/account@1",
        "username": request.user.get_username(),
        "projects": [project_document(project.as_file()) for project in projects],
        "yards": [yard_document(yard.as_file()) for yard in yards],
    }
    return file_answer(as_json(document), f"grain tally {request.user.get_username()}", "json")
