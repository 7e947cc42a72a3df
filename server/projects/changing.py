"""One way of changing a project: what a request saw, and the answer to what it did."""

import uuid
from collections.abc import Callable

from django.db import transaction
from django.http import HttpResponse

from carpentry.design import Sheet
from server.common.answers import json_answer
from server.common.schemas import ErrorOut, SeenIn
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


def followed(before: Sheet, after: Sheet) -> str:
    """The parts that followed a change, in words; empty for none."""
    known = {mark: _sizes(before, mark) for mark in before.typed.parts}
    other = [mark for mark in after.typed.parts if known.get(mark) != _sizes(after, mark)]
    if not other:
        return ""
    named = ", ".join(other[:MOST_NAMED]) + (" …" if len(other) > MOST_NAMED else "")
    return f"{named} {'follows' if len(other) == 1 else 'follow'}"


def _sizes(sheet: Sheet, mark: str) -> object:
    part = sheet.part(mark)
    return part.plain_fields, part.length.ticks, part.fault
