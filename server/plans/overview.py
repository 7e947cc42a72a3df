"""All projects of a builder with what their plans come to."""

from typing import Any

from django.db.models import Count

from carpentry.buying import write_money
from server.plans.models import Plan, PlanOfVersion
from server.plans.schemas import ProjectRowOut
from server.projects.models import Project


def list_projects(owner: Any) -> list[ProjectRowOut]:
    """The projects, the last changed first."""
    projects = Project.objects.of(owner).select_related("yard").annotate(count=Count("parts"))
    planned = PlanOfVersion.objects.filter(
        project__owner=owner, plan__status=Plan.Status.DONE
    ).select_related("plan")
    plans = {(one.project_id, one.number): one.plan for one in planned}
    return [_row(project, plans.get((project.id, project.version))) for project in projects]


def _row(project: Project, plan: Plan | None) -> ProjectRowOut:
    currency = project.yard.currency if project.yard else "USD"
    return ProjectRowOut(
        id=project.id,
        name=project.name,
        unit=project.unit,
        copies=project.copies,
        yard=project.yard.name if project.yard else "",
        parts=project.count,
        boards=plan.boards_count if plan else None,
        cost=write_money(plan.subtotal, currency) if plan and plan.subtotal else None,
        proven=bool(plan and plan.proven),
        updated=project.updated,
    )
