"""The way from a cut problem to a checked plan."""

import logging
from collections.abc import Callable
from dataclasses import dataclass, replace
from decimal import Decimal

from carpentry.cutting.check import check_plan
from carpentry.cutting.few_positions import fewer_positions
from carpentry.cutting.kept_boards import keep_boards
from carpentry.cutting.loosened import cost_of_wood
from carpentry.cutting.plan import CutPlan, Ended, Status, pieces_used
from carpentry.cutting.problem import CutProblem
from carpentry.cutting.rescue import rescued
from carpentry.cutting.sawing import with_cuts
from carpentry.cutting.search.cheapest import SearchResult
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.model import Packing
from carpentry.cutting.shared_lines import shares_beside_rips, with_shared_lines
from carpentry.cutting.together import joined, taken_apart, telling
from carpentry.cutting.unplaced import unplaced_of
from carpentry.cutting.way import MoneyedModel, Way
from carpentry.cutting.ways import quick_way, way_for
from carpentry.language import PlanCheckError


@dataclass(frozen=True)
class Budget:
    """``seconds`` after which the best plan so far is returned with its proven bound."""

    seconds: float = 10.0


logger = logging.getLogger(__name__)

_LIST_SHARE = 0.4
_STEADY_SECONDS = 0.4
_POSITIONS_SECONDS, _MOST_SEEKING = 0.5, 0.05  # for fewer positions of a saw, of all time
_CHECK_SECONDS, _MOST_CHECKING = 0.0003, 0.1  # kept for the check, per part, and of all time
_RIPPED_SHARE = 0.8  # of the time, for a plan in which nothing is shared
_BOUND_SHARE = 0.4  # of the time, for the bound of parts with angles
Progress = Callable[[CutPlan], None]


def plan_cuts(
    problem: CutProblem, budget: Budget | None = None, progress: Progress | None = None
) -> CutPlan:
    """The plan that places most parts at the least price from the fewest pieces of stock.

    It is ``optimal`` when price and pieces are proven least. Parts without a place are listed with
    the reason; the rest is planned. ``progress`` is told every better plan on the way. The plan is
    replayed by ``check_plan`` before it is returned. The same problem gives the same plan, unless
    time runs out.
    """
    budget = budget or Budget()
    whole, sets = joined(problem)
    if sets:
        plan = plan_cuts(whole, budget, telling(problem, sets, progress))
        apart = taken_apart(problem, sets, plan)
        check_plan(problem, apart)
        return apart
    if problem.owned_first and any(not piece.price for piece in problem.stock):
        return _plan_owned_first(problem, budget, progress)
    check = sum(part.quantity for part in problem.parts) * _CHECK_SECONDS
    clock = Clock(budget.seconds - min(check, budget.seconds * _MOST_CHECKING))
    one_way = _plan_sharing if shares_beside_rips(problem) else _plan_one_way
    plan = one_way(problem, clock, progress)
    if progress and plan.status is Status.OPTIMAL and problem.is_ripped:
        progress(plan)  # what follows changes no price
    moment = Clock(min(_POSITIONS_SECONDS, _MOST_SEEKING * budget.seconds))

    def again(other: CutProblem) -> CutPlan | None:
        found = _rest_planned(other, moment)
        return None if moment.has_rung else found

    return fewer_positions(problem, plan, again)


def _plan_sharing(problem: CutProblem, clock: Clock, progress: Progress | None) -> CutPlan:
    """The cheapest of plans in which nothing is shared or nothing is ripped beside what is."""
    best = _plan_one_way(problem, clock.part(_RIPPED_SHARE), progress)

    def beside(part: CutProblem, share: float) -> CutPlan:
        found = plan_cuts(part, Budget(max(0.0, clock.left) * share))
        if found.ended is Ended.CLOCK:
            clock.ring()
        return found

    if best.unplaced or best.price != best.bound:
        for plan in with_shared_lines(problem, best, beside):
            try:
                check_plan(problem, plan)
            except PlanCheckError:
                logger.exception("a plan with shared saw lines was refused by the check")
                continue
            best = plan
            if progress:
                progress(best)
    return replace(best, ended=_ended(best, clock))


def _plan_one_way(problem: CutProblem, clock: Clock, progress: Progress | None) -> CutPlan:
    """The best plan of the way that proves most of a problem."""
    way = way_for(problem, clock.part(_LIST_SHARE))
    roomy = not way.bounds_all
    loose = way.loosened() if roomy else None

    def report(packing: Packing, bound: int) -> None:
        if progress:
            known = 0 if roomy else bound
            progress(_checked(way, packing, proven=False, bound=known))

    found = way.search(clock, report, _BOUND_SHARE if roomy else 0.0)
    proven = _bounded(found, loose, way.model, clock) if roomy else found
    packing = found.packing
    least_wood = 0 if any(packing.missing) else way.model.money.cost(cost_of_wood(problem))
    bound = max(proven.bound, least_wood)
    plan = _checked(way, packing, proven=proven.proven, bound=bound)
    worths = _worths(loose if roomy and loose else way, proven)
    return replace(plan, ended=_ended(plan, clock), worths=worths)


def _worths(way: Way, proven: SearchResult) -> tuple[dict[str, int], ...]:
    """What each part (by id) was worth in what was proven."""
    items = {part.id: way.item_of(part) for part in way.problem.parts}
    return tuple(
        {name: worth[item] for name, item in items.items() if item is not None and worth[item]}
        for worth in proven.worths
    )


def _ended(plan: CutPlan, clock: Clock) -> Ended:
    """What ended a search."""
    if clock.has_rung:
        return Ended.CLOCK
    return Ended.PROOF if plan.status is Status.OPTIMAL else Ended.STEPS


def _bounded(
    found: SearchResult, loose: Way | None, model: MoneyedModel, clock: Clock
) -> SearchResult:
    """What is really proven of a plan whose model leaves some ways to save out."""
    unproven = replace(found, proven=False, bound=0, fewest=0)
    if loose is None:
        return unproven
    least = loose.search_plainly(clock)
    if sum(least.packing.missing) != sum(found.packing.missing):
        return unproven
    return replace(unproven, worths=least.worths).with_bound(least.bound, least.fewest, model)


def _plan_owned_first(problem: CutProblem, budget: Budget, progress: Progress | None) -> CutPlan:
    """As many parts as can be from owned stock, the rest from what is bought. The bound is that of
    the cheapest purchase of all, so that it says what putting owned stock first may cost."""
    share = Budget(budget.seconds / 3)
    freely = replace(problem, owned_first=False)
    cheapest = plan_cuts(freely, share, progress)
    owned = tuple(piece for piece in problem.stock if not piece.price)
    first = plan_cuts(replace(freely, stock=owned), share)
    left = {unplaced.part: unplaced.quantity for unplaced in first.unplaced}
    if not left:
        return first
    rest = tuple(replace(p, quantity=left[p.id]) for p in problem.parts if p.id in left)
    bought = tuple(piece for piece in problem.stock if piece.price)
    second = plan_cuts(replace(freely, stock=bought, parts=rest), share)
    if second.unplaced and not cheapest.unplaced:
        return cheapest
    proven = second.price == cheapest.bound and cheapest.status is Status.OPTIMAL
    pieces = first.pieces_of_stock + second.pieces_of_stock
    status = Status.OPTIMAL if proven and pieces == cheapest.pieces_of_stock else Status.FEASIBLE
    plan = CutPlan(
        Status.INCOMPLETE if second.unplaced else status,
        second.price,
        min(cheapest.bound, second.price),
        (*first.layouts, *second.layouts),
        second.unplaced,
        worths=cheapest.worths,
    )
    check_plan(problem, plan)
    by_clock = Ended.CLOCK in (cheapest.ended, first.ended, second.ended)
    by_itself = Ended.PROOF if plan.status is Status.OPTIMAL else Ended.STEPS
    return replace(plan, ended=Ended.CLOCK if by_clock else by_itself)


def steadied(
    problem: CutProblem, plan: CutPlan, before: CutPlan, seconds: float = _STEADY_SECONDS
) -> CutPlan:
    """A plan with more boards as they were ``before`` a change, where that costs nothing: neither
    money nor a piece more. What was proven of it stays. Where owned stock goes first, or parts are
    kept together, boards are taken as they come."""
    if problem.owned_first or any(part.together for part in problem.parts):
        return plan
    clock = Clock(seconds)
    kept = keep_boards(problem, plan, before, _rest_planned, clock)
    ended = Ended.CLOCK if clock.has_rung else plan.ended
    if kept is None:
        return replace(plan, ended=ended)
    steady = replace(plan, layouts=kept, unplaced=unplaced_of(problem, kept), ended=ended)
    try:
        check_plan(problem, steady)
    except PlanCheckError:
        logger.exception("a steady plan was refused by the check")
        return plan
    return steady


def _rest_planned(problem: CutProblem, clock: Clock) -> CutPlan:
    """A plan that is as cheap as may be, without its bound and without care for leftovers."""
    way = way_for(problem, clock)
    return _checked(way, way.search_plainly(clock).packing, proven=False, bound=0)


def first_plan(problem: CutProblem) -> CutPlan:
    """A plan at once, board after board, without any proof."""
    whole, sets = joined(problem)
    if sets:
        plan = taken_apart(problem, sets, first_plan(whole))
        check_plan(problem, plan)
        return plan
    way = quick_way(problem)
    packing = way.model.quick(way.model.demand, [0] * len(way.model.sources))
    return _checked(way, packing, proven=False, bound=0)


def _checked(way: Way, packing: Packing, *, proven: bool, bound: int) -> CutPlan:
    """A packing as a plan with its cuts, replayed."""
    problem, money = way.problem, way.model.money
    layouts = tuple(with_cuts(problem, layout) for layout in way.arrange(packing))
    unplaced = unplaced_of(problem, layouts)
    cost = packing.key(way.model)[1]
    status = Status.INCOMPLETE if unplaced else Status.OPTIMAL if proven else Status.FEASIBLE
    plan = CutPlan(
        status,
        price=money.price(cost),
        bound=money.price(cost if proven else min(bound, cost)),
        layouts=layouts,
        unplaced=unplaced,
        rip_set_ups=way.rip_set_ups,
    )
    try:
        check_plan(problem, plan)
    except PlanCheckError:
        logger.exception("a plan was refused by the check")
        return _rescued(problem, plan)
    return plan


def _rescued(problem: CutProblem, refused: CutPlan) -> CutPlan:
    """A plan that passes the check in the place of one that does not, with nothing proven of it but
    the bound."""
    layouts = rescued(problem, refused.layouts)
    costs = problem.price_of(pieces_used(layouts))
    unplaced = tuple(
        replace(one, reason=f"no plan for it passed the check: {one.reason}")
        for one in unplaced_of(problem, layouts)
    )
    plan = replace(
        refused,
        status=Status.INCOMPLETE if unplaced else Status.FEASIBLE,
        price=costs,
        bound=min(refused.bound, costs) if not unplaced else Decimal(0),
        layouts=layouts,
        unplaced=unplaced,
    )
    check_plan(problem, plan)
    return plan
