"""The same project bought at another yard, side by side."""

import uuid

from carpentry.buying import write_money
from carpentry.errors import CarpentryError
from carpentry.project import Tally
from server.plans.buying import shopping_out
from server.plans.inputs import Inputs, inputs_of
from server.plans.making import plan_for
from server.plans.schemas import ComparedLineOut, ComparisonOut, ListLineOut, ShoppingOut
from server.plans.solver import solver
from server.projects.models import Project
from server.yards.models import Yard

MOST_SECONDS = 8.0
Key = tuple[str, str, bool]


def compare_with(project: Project, yard: Yard) -> ComparisonOut:
    """What a project takes at its own yard and at another one, line by line. The other plan is made
    for this answer and not kept; where time runs out it is the best so far.

    Raises ``CarpentryError`` where the project has no yard, or the other plan fails.
    """
    if project.yard is None:
        raise CarpentryError("choose a yard for the project first", "yard")
    here = inputs_of(project)
    plan = plan_for(project, here)
    at_home = here.plans(plan.outcome)
    home = here.tally(at_home)
    project.yard = yard
    there = inputs_of(project)
    away_plans = there.plans(_planned(project, yard, there))
    away = there.tally(away_plans)
    return _side_by_side(
        (here, home, shopping_out(home.shopping, here, at_home)),
        (there, away, shopping_out(away.shopping, there, away_plans)),
    )


def _planned(project: Project, yard: Yard, there: Inputs) -> list[dict[str, object]]:
    problems = [problem for problem in there.problems() if problem]
    if not problems:
        return []
    subject = uuid.uuid5(project.id, str(yard.id))
    job = solver.submit(uuid.uuid4(), subject, problems)
    if not job.finished.wait(MOST_SECONDS):
        solver.stop(job.key)
        job.finished.wait(2)
    solver.forget(job)
    if job.failed or len(job.plans) != len(problems):
        raise CarpentryError(f"{yard.name} could not be planned: try again", "yard")
    return job.plans


Side = tuple[Inputs, Tally, ShoppingOut]


def _side_by_side(here: Side, there: Side) -> ComparisonOut:
    mine, other = _by_key(here[2]), _by_key(there[2])
    keys = list(dict.fromkeys((*mine, *other)))
    stocks = [stock for stock, _, _ in keys]
    keys.sort(key=lambda key: (key[2], stocks.index(key[0])))
    currencies = here[0].currency, there[0].currency
    return ComparisonOut(
        here=here[0].source,
        there=there[0].source,
        here_claim=here[1].claim.headline,
        there_claim=there[1].claim.headline,
        lines=[
            ComparedLineOut(
                stock=key[0],
                named_length=key[1],
                spare=key[2],
                here=mine.get(key),
                there=other.get(key),
            )
            for key in keys
        ],
        here_hardware=_hardware(here),
        there_hardware=_hardware(there),
        here_total=here[2].total,
        there_total=there[2].total,
        left_out=there[1].unplaced + there[1].later,
        verdict=_verdict(here, there) if currencies[0] == currencies[1] else "",
        refused=""
        if currencies[0] == currencies[1]
        else f"prices are in {currencies[0]} and {currencies[1]}: totals cannot be compared",
    )


def _by_key(shopping: ShoppingOut) -> dict[Key, ListLineOut]:
    return {(line.stock, line.named_length, line.spare): line for line in shopping.lines}


def _hardware(side: Side) -> str:
    unpriced = side[2].hardware.unpriced
    return f"{side[2].hardware.price}{', some without a price' if unpriced else ''}"


def _verdict(here: Side, there: Side) -> str:
    """Which is cheaper: with hardware where all of it has a price at both, else the wood alone."""
    whole = not any(side[2].hardware.unpriced for side in (here, there))
    first, second = (
        side[1].shopping.total if whole else side[1].shopping.wood_total for side in (here, there)
    )
    saved = first - second
    missing = there[1].shopping.unpriced or there[1].unplaced or here[1].shopping.unpriced
    if missing:
        return "prices or boards are missing: the totals are not of the same things"
    if not saved:
        return "it costs the same"
    money = write_money(abs(saved), here[0].currency)
    of = "" if whole else "the wood alone is "
    return f"{of}{money} cheaper at {there[0].source if saved > 0 else here[0].source}"
