"""All projects of a builder with what their plans come to."""

from collections import defaultdict
from typing import Any

from django.db.models import Count

from carpentry.buying import write_money
from server.book.schemas import ProjectRowOut
from server.book.spent import spent
from server.plans.models import Plan, PlanOfVersion
from server.projects.models import Project


def list_projects(owner: Any) -> list[ProjectRowOut]:
    """The projects, the last changed first."""
    projects = Project.objects.of(owner).select_related("yard").annotate(count=Count("parts"))
    planned = PlanOfVersion.objects.filter(
        project__owner=owner, plan__status=Plan.Status.DONE
    ).select_related("plan")
    plans = {(one.project_id, one.number): one.plan for one in planned}
    cut = defaultdict[Any, set[str]](set)
    plans_cut = Plan.objects.filter(project__owner=owner, stage=Plan.Stage.CUT)
    for of, digest in plans_cut.values_list("project", "digest"):
        cut[of].add(digest)
    return [
        _row(project, plans.get((project.id, project.version)), cut[project.id])
        for project in projects
    ]


def _row(project: Project, plan: Plan | None, cut: set[str]) -> ProjectRowOut:
    """A project with its plan, and the digests of those of its plans that are ``cut``."""
    currency = project.currency
    nothing_left = plan and not plan.boards_count and not plan.unplaced_count
    all_cut = bool(plan and cut and (plan.digest in cut or nothing_left))
    cost = plan.subtotal if plan else None
    if all_cut:
        found = spent(project)
        cost = found.total if found else None
    return ProjectRowOut(
        id=project.id,
        name=project.name,
        unit=project.unit,
        copies=project.copies,
        yard=project.yard.name if project.yard else "",
        parts=project.count,
        boards=plan.boards_count if plan else None,
        cost=write_money(cost, currency) if cost else None,
        proven=bool(plan and plan.proven) and not all_cut,
        is_cut=all_cut,
        updated=project.updated,
    )
