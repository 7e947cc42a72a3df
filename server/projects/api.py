"""The API of projects: every change of one, and its history."""

import uuid
from dataclasses import asdict
from typing import Any

from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import File, Form, Router
from ninja.files import UploadedFile

from carpentry.buying import Kind, usual_lengths
from carpentry.design import (
    EMPTY,
    MAX_PARTS,
    PartFields,
    parts_table_of_text,
    read_lines,
    read_parts,
)
from carpentry.design import Part as ReadPart
from carpentry.language import CarpentryError, Unit, change_said
from carpentry.lumber import lexicon_in
from carpentry.project import ProjectFile, SettingFields, read_project_file
from carpentry.project.file import TYPED_LINES
from server.common.answers import json_answer
from server.common.columns import given
from server.common.owned import owned
from server.common.schemas import ErrorOut, SeenIn, length_out
from server.common.uploads import chosen_columns, parts_table, upload_bytes
from server.history.models import shortened
from server.projects.changing import CHANGE, changed, follow, seen_by
from server.projects.linking import link_shape, write_shapes
from server.projects.models import Measure, Part, Project, Run
from server.projects.schemas import (
    DeletedProjectOut,
    FileReadingIn,
    ImportIn,
    NewProjectIn,
    PartPatchIn,
    PartsIn,
    ProjectOut,
    ProjectPatchIn,
    ReadingOut,
    RemovePartsIn,
    TextIn,
    UsualLengthsOut,
)
from server.projects.showing import show_problems, show_project, show_reading
from server.stocks.models import OwnMaterials, own_stocks
from server.yards.models import Yard

router = Router(tags=["projects"])
SAID: dict[str, dict[str | bool, str]] = {
    "rack": {
        "never": "rack left alone",
        "saving": "rack boards where they save",
        "always": "rack boards first",
    },
    "rip": {True: "parts may be ripped", False: "no ripping"},
    "share_angled_cuts": {True: "angled cuts shared", False: "angled cuts not shared"},
}


def _setting_said(name: str, value: Any) -> str:
    """A setting that was changed, in words; a name is no setting of the saw."""
    return f"name {value}" if name == "name" else change_said(SettingFields, name, value)


@transaction.atomic
def _new_project(project: Project, label: str) -> Project:
    """The project stored, or the one that is there under its id already."""
    known = Project.objects.filter(id=project.id, owner=project.owner).first()
    if known:
        return known
    project.full_clean()
    project.save(force_insert=True)
    project.begin_history(label)
    return project


@router.post("/projects", response={200: ProjectOut, 422: ErrorOut})
def create_project(request: HttpRequest, new: NewProjectIn) -> HttpResponse:
    """A new project under an id of the client's making; asked twice it is made once."""
    known = Project.objects.filter(owner=request.user, id=new.id).first()
    if known:
        return json_answer(show_project(known))
    yard = owned(Yard, request, new.yard) if new.yard else None
    project = Project(id=new.id, owner=request.user, name=new.name.strip(), yard=yard)
    project.unit = new.unit
    if new.unit in list(Unit):
        project.take_settings(SettingFields.new(Unit(new.unit)))
    return json_answer(show_project(_new_project(project, "new project")))


@router.post("/projects/import", response={200: ProjectOut, 413: ErrorOut, 422: ErrorOut})
def import_project(
    request: HttpRequest, id: Form[uuid.UUID], file: File[UploadedFile]
) -> HttpResponse:
    """A project from its JSON file, under an id of the client's making."""
    known = Project.objects.filter(owner=request.user, id=id).first()
    if known:
        return json_answer(show_project(known))
    project = project_from_file(
        request.user, read_project_file(upload_bytes(file), own_stocks(request.user)), id
    )
    return json_answer(show_project(project))


@transaction.atomic
def project_from_file(owner: Any, read: ProjectFile, id: uuid.UUID) -> Project:
    """A new project that is what a file says, or the one that is there under its id already; its
    yard is the owner's yard of that name."""
    known = Project.objects.filter(owner=owner, id=id).first()
    if known:
        return known
    OwnMaterials.of(owner).take(read.materials)
    project = Project(
        id=id,
        owner=owner,
        name=read.name,
        yard=Yard.objects.of(owner).filter(name=read.yard).first() if read.yard else None,
    )
    project.take_settings(read.settings.fields)
    project.full_clean()
    project.save(force_insert=True)
    for name in TYPED_LINES:
        project.write_lines(name, getattr(read, name))
    Measure.objects.bulk_create(
        Measure(project=project, position=n, **asdict(one)) for n, one in enumerate(read.measures)
    )
    Run.objects.bulk_create(
        Run(project=project, position=n, **asdict(one)) for n, one in enumerate(read.runs)
    )
    project.add_parts(read.parts, read.marks)
    for one in read.shapes:
        link_shape(project, one)
    project.begin_history("imported")
    return project


@router.get("/projects/{uuid:project_id}", response={200: ProjectOut, 404: ErrorOut})
def get_project(request: HttpRequest, project_id: uuid.UUID) -> HttpResponse:
    """A project with its parts."""
    return json_answer(show_project(owned(Project, request, project_id)))


@router.delete("/projects/{uuid:project_id}", response={204: None, 404: ErrorOut})
def delete_project(request: HttpRequest, project_id: uuid.UUID) -> tuple[int, None]:
    """Deletes a project so that it can be brought back."""
    owned(Project, request, project_id)
    Project.objects.filter(id=project_id).update(deleted=timezone.now())
    return 204, None


def _deleted(request: HttpRequest, project_id: uuid.UUID) -> Project:
    return get_object_or_404(Project.objects.deleted_of(request.user), id=project_id)


@router.post("/projects/{uuid:project_id}/bring-back", response={200: ProjectOut, 404: ErrorOut})
def bring_back(request: HttpRequest, project_id: uuid.UUID) -> HttpResponse:
    """Brings a deleted project back as it was."""
    project = _deleted(request, project_id)
    Project.objects.filter(id=project_id).update(deleted=None)
    return json_answer(show_project(project))


@router.delete("/deleted-projects/{uuid:project_id}", response={204: None, 404: ErrorOut})
def delete_for_good(request: HttpRequest, project_id: uuid.UUID) -> tuple[int, None]:
    """Deletes a project that was deleted before, with its whole history; nothing brings it back."""
    _deleted(request, project_id).delete()
    return 204, None


@router.get("/deleted-projects", response=list[DeletedProjectOut])
def list_deleted(request: HttpRequest) -> list[DeletedProjectOut]:
    """The projects that can be brought back, the one deleted last first."""
    deleted = Project.objects.deleted_of(request.user).values("id", "name", "deleted")
    return [DeletedProjectOut(**row) for row in deleted]


@router.patch("/projects/{uuid:project_id}", response=CHANGE)
def change_project(
    request: HttpRequest, project_id: uuid.UUID, patch: ProjectPatchIn
) -> HttpResponse:
    """Changes settings. ``yard`` is a yard's id, or empty text for none."""
    project = owned(Project, request, project_id)
    told = given(patch)

    def make(project: Project) -> str:
        said = []
        if "unit" in told and told["unit"] != project.unit:
            unit = told.pop("unit")
            if unit not in list(Unit):
                raise CarpentryError("choose inches or millimetres", "unit")
            project.change_unit(Unit(unit))
            said.append(f"unit {unit}")
        if "yard" in told:
            yard_id = told.pop("yard")
            project.yard = owned(Yard, request, yard_id) if yard_id else None
            said.append(f"yard {project.yard.name if project.yard else 'none'}")
        for name in TYPED_LINES:
            if name in told:
                project.write_lines(name, told.pop(name))
                said.append(f"{name} changed")
        for name, value in told.items():
            setattr(project, name, value)
            said.append(SAID.get(name, {}).get(value) or _setting_said(name, value))
        write_shapes(project)
        return ", ".join(said)

    return changed(project, patch, lambda: project.change(*seen_by(patch), "settings", make))


@router.post("/projects/{uuid:project_id}/parts", response=CHANGE)
def add_parts(request: HttpRequest, project_id: uuid.UUID, typed: PartsIn) -> HttpResponse:
    """Adds parts from typed lines or a pasted table, all or none."""
    project = owned(Project, request, project_id)
    chosen = chosen_columns(typed.columns)
    parts = read_lines(typed.text, project.lexicon, chosen, project.sheet())

    def make(project: Project) -> str:
        return _append(project, parts)

    return changed(project, typed, lambda: project.change(*seen_by(typed), "parts added", make))


@router.post("/projects/{uuid:project_id}/parts/import", response=CHANGE | {413: ErrorOut})
def import_parts(
    request: HttpRequest,
    project_id: uuid.UUID,
    seen: Form[ImportIn],
    file: File[UploadedFile],
) -> HttpResponse:
    """Takes the parts of a CSV or XLSX file as one step, all or none: beside those that are there,
    or instead of them. Then parts that are in both stay the same parts."""
    project = owned(Project, request, project_id)
    table = parts_table(file, project.lexicon, chosen_columns(seen.columns))
    parts = read_parts(table, project.lexicon, project.sheet())

    def make(project: Project) -> str:
        if not seen.instead:
            return _append(project, parts)
        project.replace_parts(parts)
        return f"{len(parts)} parts imported instead of those before"

    return changed(project, seen, lambda: project.change(*seen_by(seen), "parts imported", make))


def _append(project: Project, parts: list[ReadPart]) -> str:
    if project.parts.count() + len(parts) > MAX_PARTS:
        raise CarpentryError(f"a project holds {MAX_PARTS:,} parts at the most")
    rows = project.add_parts(parts)
    if len(rows) == 1:
        return shortened(f"{rows[0].quantity} × {rows[0].name or rows[0].stock} added")
    return f"{len(rows)} parts added"


@router.patch("/projects/{uuid:project_id}/parts/{uuid:part_id}", response=CHANGE)
def change_part(
    request: HttpRequest, project_id: uuid.UUID, part_id: uuid.UUID, patch: PartPatchIn
) -> HttpResponse:
    """Changes fields of one part."""
    project = owned(Project, request, project_id)

    told = given(patch)

    def make(project: Project) -> str:
        part = get_object_or_404(project.parts, id=part_id)
        said = []
        if "taped" in told:  # the day on which the tape said so
            told.setdefault("taped_on", _today() if told["taped"] else "")
        for name, value in told.items():
            before = getattr(part, name)
            setattr(part, name, value)
            if name == "taped_on":
                continue
            said.append(change_said(PartFields, name, getattr(part, name), before))
        part.project = project
        part.full_clean()
        part.save()
        project.touch([part.id])
        return shortened(f"{part.mark} {part.name}: {', '.join(said)}")

    return follow(project, patch, "part changed", make, part_id)


@router.post("/projects/{uuid:project_id}/parts/remove", response=CHANGE)
def remove_parts(
    request: HttpRequest, project_id: uuid.UUID, removal: RemovePartsIn
) -> HttpResponse:
    """Removes parts."""
    project = owned(Project, request, project_id)

    def make(project: Project) -> str:
        project.note_letters()
        gone = list(Part.objects.filter(project=project, id__in=removal.parts))
        ids = [part.id for part in gone]
        Part.objects.filter(id__in=ids).delete()
        project.touch(gone=ids)
        return shortened(f"{', '.join(part.name or part.stock for part in gone)} removed")

    return follow(project, removal, "parts removed", make)


def _today() -> str:
    return timezone.localdate().isoformat()


@router.post("/projects/{uuid:project_id}/undo", response=CHANGE)
def undo(request: HttpRequest, project_id: uuid.UUID, seen: SeenIn) -> HttpResponse:
    """Takes the newest change back."""
    project = owned(Project, request, project_id)
    return changed(project, seen, lambda: project.undo(*seen_by(seen)))


@router.post("/projects/{uuid:project_id}/redo", response=CHANGE)
def redo(request: HttpRequest, project_id: uuid.UUID, seen: SeenIn) -> HttpResponse:
    """Brings back what the last undo took."""
    project = owned(Project, request, project_id)
    return changed(project, seen, lambda: project.redo(*seen_by(seen)))


@router.get(
    "/projects/{uuid:project_id}/usual-lengths",
    response={200: list[UsualLengthsOut], 404: ErrorOut},
)
def usual_lengths_of_fasteners(
    request: HttpRequest, project_id: uuid.UUID
) -> list[UsualLengthsOut]:
    """The lengths that fasteners are usually sold in, by kind, in the project's unit."""
    settings = owned(Project, request, project_id).settings()
    return [
        UsualLengthsOut(
            kind=kind.value, lengths=[length_out(ticks, settings.notation) for ticks in lengths]
        )
        for kind in Kind
        if (lengths := usual_lengths(kind, settings.unit))
    ]


@router.post("/reading/parts", response=ReadingOut)
def read_parts_text(request: HttpRequest, typed: TextIn) -> ReadingOut:
    """What a typed line or pasted rows are understood as; keeps nothing."""
    lexicon, table = lexicon_in(typed.unit, own_stocks(request.user)), None
    sheet = owned(Project, request, typed.project).sheet() if typed.project else EMPTY
    try:
        table = parts_table_of_text(typed.text, lexicon, chosen_columns(typed.columns))
        parts = (
            read_parts(table, lexicon, sheet)
            if table
            else read_lines(typed.text, lexicon, sheet=sheet)
        )
    except CarpentryError as error:
        return show_problems(error, table)
    return show_reading(parts, typed.notation, table)


@router.post("/reading/parts-file", response={200: ReadingOut, 413: ErrorOut})
def read_parts_file(
    request: HttpRequest, asked: Form[FileReadingIn], file: File[UploadedFile]
) -> ReadingOut:
    """What a part list file is understood as; keeps nothing."""
    lexicon, table = lexicon_in(asked.unit, own_stocks(request.user)), None
    sheet = owned(Project, request, asked.project).sheet() if asked.project else EMPTY
    try:
        table = parts_table(file, lexicon, chosen_columns(asked.columns))
        parts = read_parts(table, lexicon, sheet)
    except CarpentryError as error:
        return show_problems(error, table)
    return show_reading(parts, asked.notation, table)
