"""Of what state an answer about a plan is, found without working anything up."""

import hashlib
from collections.abc import Hashable

from server.plans.models import Plan
from server.plans.solver import solver
from server.projects.models import Project
from server.rack.models import Rack
from server.stocks.models import OwnMaterials
from server.tools.models import Toolbox

_STATE = ("id", "version", "updated")  # a database that was put back has other times


def state_of_project(project: Project) -> Hashable:
    """What changes with everything that a project's plan is made from: the project, its yard and
    the rack, materials and tools of one's own, and what was cut."""
    owner, yard = project.owner_id, project.yard
    cut = project.plans.filter(stage=Plan.Stage.CUT).values_list("id", flat=True)
    return (
        *(project.id, project.version, project.updated),
        yard and (yard.id, yard.version, yard.updated),
        tuple(Rack.objects.filter(owner=owner).values_list(*_STATE)),
        tuple(OwnMaterials.objects.filter(owner=owner).values_list(*_STATE)),
        tuple(Toolbox.objects.filter(owner=owner).values_list(*_STATE)),
        tuple(sorted(map(str, cut))),
    )


def state_of(plan: Plan) -> str:
    """An entity tag that changes with everything an answer about a plan is made from, and with how
    far it is."""
    job = solver.job(plan.id)
    state = (
        plan.id,
        plan.status,
        plan.stage,
        (job.told, job.stopped) if job else None,
        state_of_project(plan.project),
    )
    return f'"{hashlib.sha256(repr(state).encode()).hexdigest()[:32]}"'
