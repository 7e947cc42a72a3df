"""What a project would cost otherwise: at another yard, or with a part bought made."""

from dataclasses import replace

from carpentry.buying import write_money
from carpentry.language import CarpentryError, Json
from carpentry.planning import (
    AtYard,
    Workup,
    cheaper_told,
    make_or_buy,
    read_made_price,
)
from carpentry.project import Hardware
from server.plans.buying import shopping_out
from server.plans.making import planned_aside, settled_plan
from server.plans.resting import work_up, work_up_elsewhere
from server.plans.schemas import (
    ComparedLineOut,
    ComparisonOut,
    ListLineOut,
    MakeOrBuyOut,
    ShoppingOut,
)
from server.projects.models import Part, Project
from server.yards.models import Yard

MOST_SECONDS = 8.0
Key = tuple[str, str, bool]
Side = tuple[AtYard, ShoppingOut]


def compare_with(project: Project, yard: Yard) -> ComparisonOut:
    """What a project takes at its own yard and at another one, line by line. The other plan is made
    for this answer and not kept; where time runs out it is the best so far.

    Raises ``CarpentryError`` where the project has no yard, or one of the plans is not there.
    """
    if project.yard is None:
        raise CarpentryError("choose a yard for the project first", "yard")
    home = work_up(project)
    here = _side(home, settled_plan(project, home, MOST_SECONDS))
    project.yard = yard
    away = work_up_elsewhere(project, home)
    there = planned_aside(away, project, str(yard.id), MOST_SECONDS)
    return _side_by_side(here, _side(away, there))


def weigh_making(project: Project, part: Part, price: str) -> MakeOrBuyOut:
    """What the wood of a part costs in the least purchase, beside what it costs bought made.

    Raises ``CarpentryError`` for what is no price, and where boards of it have none.
    """
    read = part.read()
    each = read_made_price(price, read.length.ticks)
    whole = work_up(project)
    without = replace(whole, project=whole.project.without(str(part.id)))
    with_it, _ = _side(whole, settled_plan(project, whole, MOST_SECONDS))
    without_it, _ = _side(without, planned_aside(without, project, str(part.id), MOST_SECONDS))
    if with_it.lacks_wood:
        raise CarpentryError("some boards have no price or parts no board: it cannot be told")
    weighed = make_or_buy(
        read.quantity * whole.settings.copies,
        each,
        with_it=with_it.total(hardware=False),
        without_it=without_it.total(hardware=False),
        tax=whole.basis.tax,
        currency=whole.currency,
    )
    return MakeOrBuyOut(
        made=write_money(weighed.made, whole.currency),
        bought=write_money(weighed.bought, whole.currency),
        told=weighed.told,
        proven=with_it.tally.claim.proven and without_it.tally.claim.proven,
    )


def _side(work: Workup, documents: list[Json]) -> Side:
    problems = sum(problem is not None for problem in work.documents)
    if len(documents) != problems:
        raise CarpentryError(f"there is no plan for {work.source} yet: try again", "yard")
    plans = work.plans(documents)
    tally = work.tally(plans)
    at_yard = AtYard(work.source, work.currency, tally, work.hardware)
    return at_yard, shopping_out(tally, work, plans)


def _side_by_side(here: Side, there: Side) -> ComparisonOut:
    mine, other = _by_key(here[1]), _by_key(there[1])
    keys = list(dict.fromkeys((*mine, *other)))
    stocks = [stock for stock, _, _ in keys]
    keys.sort(key=lambda key: (key[2], stocks.index(key[0])))
    tallies = here[0].tally, there[0].tally
    return ComparisonOut(
        here=here[0].name,
        there=there[0].name,
        here_claim=tallies[0].claim.headline,
        there_claim=tallies[1].claim.headline,
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
        here_hardware=_hardware(here[1], here[0].hardware),
        there_hardware=_hardware(there[1], there[0].hardware),
        here_total=here[1].total,
        there_total=there[1].total,
        left_out=tallies[1].unplaced + tallies[1].later,
        verdict=cheaper_told(here[0], there[0]),
    )


def _by_key(shopping: ShoppingOut) -> dict[Key, ListLineOut]:
    return {(line.stock, line.named_length, line.spare): line for line in shopping.lines}


def _hardware(shopping: ShoppingOut, hardware: Hardware) -> str:
    return shopping.hardware.price + (", some without a price" if hardware.unpriced else "")
