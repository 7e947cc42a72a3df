"""The API of measures and runs: what parts follow."""

import uuid
from collections.abc import Callable, Iterable
from dataclasses import replace

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router

from carpentry.design import Sheet, read_entry, renaming
from carpentry.design.edge_marks import edge_run
from carpentry.design.measures import MeasureFields, check_measure, split_measure
from carpentry.design.questions import answer_to
from carpentry.design.runs import RunFields, check_run
from carpentry.language import CarpentryError, Unit, change_said
from server.common.columns import given
from server.common.owned import owned
from server.common.schemas import ErrorOut, ProblemOut, SeenIn
from server.projects.changing import CHANGE, follow
from server.projects.following import show_value
from server.projects.models import Project
from server.projects.schemas import (
    LineIn,
    MeasurePatchIn,
    MeasureReadingIn,
    MeasureReadingOut,
    QuestionIn,
    RemovePartsIn,
    RunIn,
    RunPatchIn,
)

router = Router(tags=["measures and runs"])


@router.post("/projects/{uuid:project_id}/measures", response=CHANGE)
def add_measure(request: HttpRequest, project_id: uuid.UUID, typed: LineIn) -> HttpResponse:
    """A measure more, from a typed line: ``lid = depth + 1 1/2``."""
    project = owned(Project, request, project_id)
    fields = split_measure(typed.line)

    def make(project: Project) -> str:
        project.add_measure(fields)
        return f"measure {fields.name} = {fields.formula}"

    return follow(project, typed, "measure added", make)


@router.patch("/projects/{uuid:project_id}/measures/{uuid:measure_id}", response=CHANGE)
def change_measure(
    request: HttpRequest, project_id: uuid.UUID, measure_id: uuid.UUID, patch: MeasurePatchIn
) -> HttpResponse:
    """Changes fields of a measure. A new name is followed wherever the old one is used; what the
    tape said is noted with the day."""
    project = owned(Project, request, project_id)
    told = given(patch)

    def make(project: Project) -> str:
        row = get_object_or_404(project.measures, id=measure_id)
        before = row.fields
        if "measured" in told:
            today = timezone.localdate().isoformat()
            told.setdefault("measured_on", today if told["measured"] else "")
        if "name" in told:
            told["name"] = " ".join(told["name"].split())
        if "formula" in told:
            told["formula"] = told["formula"].removeprefix("=").strip()
        fields = replace(before, **told)
        others = [name for name in project.taken_names() if name != before.name]
        check_measure(fields, others, Unit(project.unit))
        if fields.name != before.name:
            typed, unit = project.sheet().typed, Unit(project.unit)
            project.write_sheet(renaming(typed, before.name, fields.name, unit))
            row.refresh_from_db()
            fields = replace(row.fields, **told)
        row.write(fields)
        row.save()
        said = [_said(name, before, fields) for name in told if name != "measured_on"]
        return f"{before.name} {', '.join(said)}"

    return follow(project, patch, "measure changed", make)


def _said(name: str, before: MeasureFields, after: MeasureFields) -> str:
    """What was changed of a measure, behind its name: ``72 → 60``, ``measured 71 7/8``."""
    if name == "formula":
        return f"{before.formula} → {after.formula}"
    return change_said(MeasureFields, name, getattr(after, name), getattr(before, name))


@router.post("/projects/{uuid:project_id}/measures/remove", response=CHANGE)
def remove_measures(
    request: HttpRequest, project_id: uuid.UUID, removal: RemovePartsIn
) -> HttpResponse:
    """Removes measures; one that is in use stays, and where it is used is said."""
    project = owned(Project, request, project_id)

    def make(project: Project) -> str:
        gone = list(project.measures.filter(id__in=removal.parts))
        sheet = project.sheet()
        _refuse_in_use({one.name: sheet.used_in(one.name) for one in gone}, {o.name for o in gone})
        project.measures.filter(id__in=[one.id for one in gone]).delete()
        return f"measure {', '.join(one.name for one in gone)} removed"

    return follow(project, removal, "measures removed", make)


def _refuse_in_use(used: dict[str, Iterable[str]], going: set[str]) -> None:
    """Raises ``CarpentryError`` for what is used by anything that stays."""
    for name, users in used.items():
        staying = [one for one in users if one not in going]
        if staying:
            raise CarpentryError(f"{name} is used in {', '.join(staying)}: change that first")


@router.post(
    "/projects/{uuid:project_id}/reading/measure",
    response={200: MeasureReadingOut, 404: ErrorOut},
)
def read_measure(
    request: HttpRequest, project_id: uuid.UUID, typed: MeasureReadingIn
) -> MeasureReadingOut:
    """What a line would come to as a measure; keeps nothing."""
    project = owned(Project, request, project_id)
    sheet = project.sheet()

    def read() -> MeasureFields:
        fields = split_measure(typed.line)
        check_measure(fields, [one.name for one in sheet.typed.measures], Unit(project.unit))
        return fields

    return _reading(project, sheet, read, typed.line.partition("=")[0].strip())


@router.post(
    "/projects/{uuid:project_id}/reading/question",
    response={200: MeasureReadingOut, 404: ErrorOut},
)
def answer_question(
    request: HttpRequest, project_id: uuid.UUID, asked: QuestionIn
) -> MeasureReadingOut:
    """The formula that answers a common question, and what it comes to; keeps nothing."""
    project = owned(Project, request, project_id)

    def read() -> MeasureFields:
        return MeasureFields(formula=answer_to(asked.question, asked.given))

    return _reading(project, project.sheet(), read, "")


def _reading(
    project: Project, sheet: Sheet, read: Callable[[], MeasureFields], name: str
) -> MeasureReadingOut:
    formula = ""
    try:
        formula = read().formula
        value = show_value(sheet.reckon(formula), sheet, project.notation)
    except CarpentryError as error:
        problems = [ProblemOut(place=p.place, message=p.message) for p in error.problems]
        return MeasureReadingOut(name=name, formula=formula, value=None, problems=problems)
    return MeasureReadingOut(name=name, formula=formula, value=value, problems=[])


@router.post("/projects/{uuid:project_id}/runs", response=CHANGE)
def add_run(request: HttpRequest, project_id: uuid.UUID, typed: RunIn) -> HttpResponse:
    """A run more."""
    project = owned(Project, request, project_id)
    fields = replace(RunFields(), **given(typed))

    def make(project: Project) -> str:
        project.add_run(fields)
        return f"run {fields.name} added"

    return follow(project, typed, "run added", make)


@router.patch("/projects/{uuid:project_id}/runs/{uuid:run_id}", response=CHANGE)
def change_run(
    request: HttpRequest, project_id: uuid.UUID, run_id: uuid.UUID, patch: RunPatchIn
) -> HttpResponse:
    """Changes fields of a run; one in use keeps its name."""
    project = owned(Project, request, project_id)
    told = given(patch)

    def make(project: Project) -> str:
        row = get_object_or_404(project.runs, id=run_id)
        before = row.fields
        fields = replace(before, **told)
        check_run(fields, [one.name for one in project.runs.exclude(id=row.id)])
        if fields.name != before.name:
            _refuse_in_use({before.name: _users_of_run(project, before.name)}, set())
        row.write(fields)
        row.save()
        said = [
            change_said(RunFields, name, getattr(fields, name), getattr(before, name))
            for name in told
        ]
        return f"run {before.name}: {', '.join(said)}"

    return follow(project, patch, "run changed", make)


def _users_of_run(project: Project, name: str) -> list[str]:
    sheet = project.sheet()
    return [
        user for said in ("gap", "count", "last") for user in sheet.used_in(f"{said} of {name}")
    ]


@router.post("/projects/{uuid:project_id}/runs/remove", response=CHANGE)
def remove_runs(
    request: HttpRequest, project_id: uuid.UUID, removal: RemovePartsIn
) -> HttpResponse:
    """Removes runs; one that is in use stays, and where it is used is said."""
    project = owned(Project, request, project_id)

    def make(project: Project) -> str:
        gone = list(project.runs.filter(id__in=removal.parts))
        _refuse_in_use({one.name: _users_of_run(project, one.name) for one in gone}, set())
        project.runs.filter(id__in=[one.id for one in gone]).delete()
        return f"run {', '.join(one.name for one in gone)} removed"

    return follow(project, removal, "runs removed", make)


@router.post("/projects/{uuid:project_id}/runs/{uuid:run_id}/part", response=CHANGE)
def write_part(
    request: HttpRequest, project_id: uuid.UUID, run_id: uuid.UUID, typed: LineIn
) -> HttpResponse:
    """Writes the part that a run lays, from a typed line without a count: it is as many as the run
    lays, and the run lays what the part really measures."""
    project = owned(Project, request, project_id)

    def make(project: Project) -> str:
        run = get_object_or_404(project.runs, id=run_id)
        sheet = project.sheet()
        read = read_entry(typed.line, project.lexicon, sheet)
        fields = replace(read.fields, quantity=f"=count of {run.name}")
        (row,) = project.add_parts([replace(read, fields=fields)])
        run.write(replace(run.fields, part=row.mark, item=f"width of {row.mark}"))
        run.save()
        row.project = project
        row.full_clean()
        row.save()
        return f"run {run.name} lays {row.mark} {row.name or row.stock}"

    return follow(project, typed, "part written", make)


@router.post("/projects/{uuid:project_id}/parts/{uuid:part_id}/edge-marks", response=CHANGE)
def mark_along_edge(
    request: HttpRequest, project_id: uuid.UUID, part_id: uuid.UUID, seen: SeenIn
) -> HttpResponse:
    """A run that marks all pieces of a part along its own edge, a kerf between two."""
    project = owned(Project, request, project_id)

    def make(project: Project) -> str:
        row = get_object_or_404(project.parts, id=part_id)
        fields = edge_run(row.mark, project.sheet().part(row.mark))
        project.add_run(fields)
        return f"run {fields.name} added"

    return follow(project, seen, "run added", make)
