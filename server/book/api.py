"""The API of the book: all projects with what they come to, and what one has cost."""

import uuid

from django.http import HttpRequest
from ninja import Router

from carpentry.buying import write_money
from server.book.overview import list_projects
from server.book.schemas import ProjectRowOut, SpentLineOut, SpentOut
from server.book.spent import spent
from server.common.owned import owned
from server.common.schemas import ErrorOut
from server.projects.models import Project

router = Router(tags=["book"])


@router.get("/overview", response=list[ProjectRowOut])
def get_projects(request: HttpRequest) -> list[ProjectRowOut]:
    """All projects, the last changed first, with what their plans come to."""
    return list_projects(request.user)


@router.get("/projects/{uuid:project_id}/spent", response={200: SpentOut, 404: ErrorOut})
def get_spent(request: HttpRequest, project_id: uuid.UUID) -> SpentOut:
    """What a project has cost, as far as it is cut."""
    project = owned(Project, request, project_id)
    found = spent(project)
    if found is None:
        return SpentOut(lines=[], total="", told="")
    currency = project.currency
    return SpentOut(
        lines=[
            SpentLineOut(what=line.what, paid=write_money(line.paid, currency))
            for line in found.lines
        ],
        total=write_money(found.total, currency),
        told=found.told(currency),
    )
