"""One way of changing a project: what a request saw, and the answer to what it did."""

import uuid
from collections.abc import Callable

from django.db import transaction
from django.http import HttpResponse

from carpentry.design import Sheet
from server.common.answers import json_answer
from server.common.schemas import ErrorOut, SeenIn
from server.history.models import shortened
from server.projects.linking import write_shapes
from server.projects.models import Project
from server.projects.schemas import ProjectChangedOut, ProjectConflictOut
from server.projects.showing import show_change

CHANGE = {200: ProjectChangedOut, 404: ErrorOut, 409: ProjectConflictOut, 422: ErrorOut}
MOST_NAMED = 8


def seen_by(change: SeenIn) -> tuple[int, uuid.UUID]:
    """The version that a request saw, and the id of its change."""
    return change.version, change.change_id


def changed(project: Project, seen: SeenIn, change: Callable[[], None]) -> HttpResponse:
    """Makes a change and answers what it did, of the version that it made."""
    with transaction.atomic():
        change()
        shown = show_change(project, seen.version)
    return json_answer(shown)


def with_followers(
    make: Callable[[Project], str], part: uuid.UUID | None = None
) -> Callable[[Project], str]:
    """A change, of one ``part`` where it is of one, that also says which others followed it."""

    def change(project: Project) -> str:
        before = project.before = project.sheet() if project.has_followers else None
        said = make(project)
        itself = project.parts.filter(id=part).values_list("mark", flat=True)
        told = ""
        if before or project.has_followers:
            project.after = write_shapes(project)
        if before and project.after:
            told = _followed(before, project.after, set(itself))
        return shortened(f"{said}; {told}" if told else said)

    return change


def follow(
    project: Project,
    seen: SeenIn,
    label: str,
    make: Callable[[Project], str],
    part: uuid.UUID | None = None,
) -> HttpResponse:
    """Makes a change that parts may follow, of one ``part`` where it is of one."""
    making = with_followers(make, part)
    return changed(project, seen, lambda: project.change(*seen_by(seen), label, making))


def _followed(before: Sheet, after: Sheet, but: set[str]) -> str:
    """The parts that followed a change, in words, ``but`` those; empty for none."""
    known = [mark for mark in after.typed.parts if mark in before.typed.parts and mark not in but]
    other = [mark for mark in known if before.followed(mark) != after.followed(mark)]
    if not other:
        return ""
    named = ", ".join(other[:MOST_NAMED]) + (" …" if len(other) > MOST_NAMED else "")
    return f"{named} {'follows' if len(other) == 1 else 'follow'}"
