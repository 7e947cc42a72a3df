"""Of what state an answer with a plan is, found without working anything up."""

import hashlib

from server.plans.models import Plan
from server.plans.solver import solver
from server.rack.models import Rack
from server.stocks.models import OwnMaterials


def state_of(plan: Plan) -> str:
    """An entity tag that changes with everything an answer about a plan is made from: how far it
    is, its project, yard and rack, materials of one's own, and what else was cut."""
    job = solver.job(plan.id)
    project = plan.project
    yard = project.yard
    cut = project.plans.filter(stage=Plan.Stage.CUT).values_list("id", flat=True)
    owner = project.owner_id
    state = (
        plan.id,
        plan.status,
        plan.stage,
        (job.told, job.stopped) if job else None,
        project.version,
        yard and (yard.id, yard.version),
        *Rack.objects.filter(owner=owner).values_list("version", flat=True),
        "materials",
        *OwnMaterials.objects.filter(owner=owner).values_list("version", flat=True),
        "cut",
        *sorted(map(str, cut)),
    )
    return f'"{hashlib.sha256(repr(state).encode()).hexdigest()[:32]}"'
