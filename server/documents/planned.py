"""A project with its plan, for paper and files."""

from dataclasses import dataclass
from threading import BoundedSemaphore

from django.conf import settings

from carpentry.planning import numbered_boards
from server.plans.making import settled_plan
from server.plans.resting import work_up
from server.plans.schemas import PlanOut
from server.plans.showing import show_documents
from server.projects.models import Project
from server.projects.schemas import ProjectOut
from server.projects.showing import show_project


@dataclass(frozen=True)
class Planned:
    """A project and its plan, both as they are shown, with the ``labels`` of the pieces on each
    board by its number."""

    project: ProjectOut
    plan: PlanOut
    labels: dict[int, list[str]]


_may_wait = BoundedSemaphore(2)


def planned(project: Project) -> Planned:
    """The project with the plan of its present state. A plan under way is waited for, as long as
    plans may take; where there is none yet, one is made for this answer. Only so many may wait at
    once, so that there is always a thread for who asks for less; the others get the best plan so
    far, which says so."""
    work = work_up(project)
    waits = _may_wait.acquire(blocking=False)
    try:
        seconds = settings.QUICK_PLAN_SECONDS + (settings.PLAN_SECONDS if waits else 0)
        documents = settled_plan(project, work, seconds)
    finally:
        if waits:
            _may_wait.release()
    labels = {
        board.number: [piece.label for piece in board.pieces]
        for board in numbered_boards(work, work.plans(documents))
    }
    return Planned(show_project(project), show_documents(project, work, documents), labels)
