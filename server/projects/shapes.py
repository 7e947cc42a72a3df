"""The API of shapes: what writes parts, and how they are drawn."""

import uuid
from dataclasses import replace

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router

from carpentry.design import renaming
from carpentry.design.shapes import MOST_SHAPES, SHAPES, Placed, check_placed
from carpentry.language import CarpentryError, Unit
from server.common.owned import owned
from server.common.schemas import ErrorOut
from server.projects.changing import CHANGE, follow
from server.projects.drawing import show_drawing, show_preview
from server.projects.linking import (
    add_shape,
    follow_again,
    let_go,
    remove_with_all,
    write_shape,
)
from server.projects.models import Project
from server.projects.rows import Shape
from server.projects.shape_schemas import (
    DrawingOut,
    FollowAgainIn,
    LetGoIn,
    ShapeIn,
    ShapePatchIn,
    ShapePreviewIn,
    ShapePreviewOut,
)

router = Router(tags=["shapes"])


def _kind(shape: str) -> str:
    if shape not in SHAPES:
        raise CarpentryError(f"“{shape[:40]}” is no shape: {', '.join(SHAPES)}", "shape")
    return shape


def _said(measures: dict[str, str]) -> dict[str, str]:
    return {name: text.strip().removeprefix("=").strip() for name, text in measures.items()}


@router.post("/projects/{uuid:project_id}/shapes", response=CHANGE)
def add(request: HttpRequest, project_id: uuid.UUID, typed: ShapeIn) -> HttpResponse:
    """A shape more: it writes its parts, joints, work and runs."""
    project = owned(Project, request, project_id)
    placed = Placed(" ".join(typed.called.split()), _kind(typed.shape), _said(typed.measures))

    def make(project: Project) -> str:
        if project.shapes.count() >= MOST_SHAPES:
            raise CarpentryError(f"a project has {MOST_SHAPES} shapes at the most")
        check_placed(placed, project.taken_names(), project.lexicon)
        shape = add_shape(project, placed.said)
        return f"{placed.kind.heading.lower()} “{placed.called}” added, {_wrote(project, shape)}"

    return follow(project, typed, "shape added", make)


def _wrote(project: Project, shape: Shape) -> str:
    marks = [row.mark for row in project.parts.filter(shape=shape)]
    return f"writes {', '.join(marks)}" if marks else "writes nothing"


@router.patch("/projects/{uuid:project_id}/shapes/{uuid:shape_id}", response=CHANGE)
def change(
    request: HttpRequest, project_id: uuid.UUID, shape_id: uuid.UUID, patch: ShapePatchIn
) -> HttpResponse:
    """Changes measures of a shape, or what it is called: formulas follow the new name."""
    project = owned(Project, request, project_id)

    def make(project: Project) -> str:
        shape = get_object_or_404(project.shapes, id=shape_id)
        before = shape.placed
        said = []
        called = " ".join((patch.called or "").split())
        if called and called != before.called:
            _rename(project, shape, called)
            said.append(f"is now “{called}”")
            shape.refresh_from_db()
        told = _said(patch.measures)
        now = shape.placed
        placed = replace(now, measures={**now.measures, **told})
        own = set(now.named)
        others = [n for n in project.taken_names() if n not in own and n != now.called]
        check_placed(placed, others, project.lexicon)
        shape.take(placed)
        shape.save()
        write_shape(project, shape)
        given = now.given
        said += [
            f"{name} {given.typed.get(name) or 'none'} → {text or 'as usual'}"
            for name, text in told.items()
        ]
        return f"{now.called} {', '.join(said)}"

    return follow(project, patch, "shape changed", make)


def _rename(project: Project, shape: Shape, called: str) -> None:
    placed, unit = shape.placed, Unit(project.unit)
    check_placed(
        replace(placed, called=called, figures={}),
        [name for name in project.taken_names() if name not in placed.named],
        project.lexicon,
    )
    typed = project.sheet().typed
    names = {name: f"{called}{name.removeprefix(placed.called)}" for name in placed.named}
    for old, new in names.items():
        typed = renaming(typed, old, new, unit)
    for run in project.runs.filter(shape=shape):
        typed = renaming(typed, run.name, f"{called} {run.key}", unit, of_run=True)
    shape.take(
        replace(placed, called=called, figures={names[n]: t for n, t in placed.figures.items()})
    )
    shape.save()
    project.write_sheet(typed)


@router.post("/projects/{uuid:project_id}/shapes/{uuid:shape_id}/let-go", response=CHANGE)
def let_shape_go(
    request: HttpRequest, project_id: uuid.UUID, shape_id: uuid.UUID, asked: LetGoIn
) -> HttpResponse:
    """Lets a shape go: what it wrote stays, unless it goes ``with_all``."""
    project = owned(Project, request, project_id)

    def make(project: Project) -> str:
        shape = get_object_or_404(project.shapes, id=shape_id)
        if asked.with_all:
            remove_with_all(project, shape)
            return f"{shape.called} removed with all that it wrote"
        let_go(project, shape)
        return f"{shape.called} let go: what it wrote stays"

    return follow(project, asked, "shape let go", make)


@router.post("/projects/{uuid:project_id}/shapes/{uuid:shape_id}/follow", response=CHANGE)
def let_follow(
    request: HttpRequest, project_id: uuid.UUID, shape_id: uuid.UUID, asked: FollowAgainIn
) -> HttpResponse:
    """Lets a field of a part follow its shape again, or all that it wrote."""
    project = owned(Project, request, project_id)

    def make(project: Project) -> str:
        shape = get_object_or_404(project.shapes, id=shape_id)
        if asked.part is None:
            follow_again(project, shape, None, "")
            return f"all of {shape.called} follows again"
        part = get_object_or_404(project.parts, id=asked.part, shape=shape)
        if asked.field not in part.by_hand:
            raise CarpentryError(f"{asked.field or 'nothing'} is as the shape writes it", "field")
        follow_again(project, shape, part, asked.field)
        return f"{part.mark} {part.name}: {asked.field} follows {shape.called} again"

    return follow(project, asked, "follows again", make)


@router.get(
    "/projects/{uuid:project_id}/shapes/{uuid:shape_id}/drawing",
    response={200: DrawingOut, 404: ErrorOut},
)
def drawing(
    request: HttpRequest,
    project_id: uuid.UUID,
    shape_id: uuid.UUID,
    wide: int = 700,
    high: int = 440,
) -> DrawingOut:
    """A shape in its views, laid out in a room of so many pixels."""
    project = owned(Project, request, project_id)
    shape = get_object_or_404(project.shapes, id=shape_id)
    return show_drawing(project, shape, wide, high)


@router.post(
    "/projects/{uuid:project_id}/reading/shape",
    response={200: ShapePreviewOut, 404: ErrorOut},
)
def read_shape(
    request: HttpRequest, project_id: uuid.UUID, typed: ShapePreviewIn
) -> ShapePreviewOut:
    """What a shape would write, and its drawing, or why it cannot be built; keeps nothing."""
    project = owned(Project, request, project_id)
    placed = Placed(" ".join(typed.called.split()), _kind(typed.shape), _said(typed.measures))
    return show_preview(project, placed, typed.wide, typed.high)
