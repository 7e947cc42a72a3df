"""The way from a cut problem to a checked plan."""

import logging
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, replace
from decimal import Decimal

from carpentry.cutting.alone import each_alone
from carpentry.cutting.angled import Angled, to_angled
from carpentry.cutting.arrange import arrange_angled, arrange_line, arrange_ripped
from carpentry.cutting.check import check_plan
from carpentry.cutting.clock import Clock
from carpentry.cutting.holding import Holder
from carpentry.cutting.leftover import lengthen_leftover
from carpentry.cutting.line import Line, to_line
from carpentry.cutting.loads import roomiest
from carpentry.cutting.mending import better_packings
from carpentry.cutting.model import Packing
from carpentry.cutting.particular import sound_stretches
from carpentry.cutting.plan import CutPlan, Ended, Layout, Status, Unplaced
from carpentry.cutting.problem import NO_LIMITS, CutPart, CutProblem, Order, StockPiece
from carpentry.cutting.relaxed import (
    AnyModel,
    cost_of_wood,
    is_no_looser,
    leaves_something_out,
    relaxed,
)
from carpentry.cutting.rescue import rescued
from carpentry.cutting.ripped import Ripped
from carpentry.cutting.ripping import fits_stock
from carpentry.cutting.sawing import with_cuts
from carpentry.cutting.search import SearchResult, search
from carpentry.cutting.steady import keep_boards
from carpentry.ends import is_angled
from carpentry.errors import PlanCheckError
from carpentry.length import Notation, Unit, write_length


@dataclass(frozen=True)
class Budget:
    """``seconds`` after which the best plan so far is returned with its proven bound."""

    seconds: float = 10.0


logger = logging.getLogger(__name__)

_ALONE_SHARE = 0.15
_LIST_SHARE = 0.4
_STEADY_SECONDS = 0.4
_CHECK_SECONDS, _MOST_CHECKING = 0.0003, 0.1  # kept for the check, per part, and of all time
_BOUND_SHARE = 0.4  # of the time, for the bound of parts with angles
_MENDING_SHARE = 0.1
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
    if problem.owned_first and any(not piece.price for piece in problem.stock):
        return _plan_owned_first(problem, budget, progress)
    check = sum(part.quantity for part in problem.parts) * _CHECK_SECONDS
    clock = Clock(budget.seconds - min(check, budget.seconds * _MOST_CHECKING))
    model = _model(problem, clock.part(_LIST_SHARE))
    roomy = leaves_something_out(problem, model)
    loose = relaxed(problem) if roomy else None
    roomy = roomy and not is_no_looser(loose, model)

    def report(packing: Packing, bound: int) -> None:
        if progress:
            known = 0 if roomy else bound
            progress(_checked(problem, model, packing, proven=False, bound=known))

    if isinstance(model, Ripped):
        part = clock.part(1 - _BOUND_SHARE) if roomy else clock
        found = _search_ripped(problem, model, part, report)
        packing = found.packing
        if found.proven and model.loads:
            packing = roomiest(model, model.loads, packing, part)
    elif isinstance(model, Angled):
        found = search(Holder(model, clock), report)
        packing = roomiest(model, model.loads, found.packing, clock)
    else:
        holder = Holder(model, clock)
        found = search(holder, report)
        packing = found.packing
        if found.proven:
            packing = lengthen_leftover(problem, holder, model, found.packing)
    if roomy:
        found = _bounded(problem, found, loose, model, clock)
    least_wood = 0 if any(packing.missing) else model.money.cost(cost_of_wood(problem))
    bound = max(found.bound, least_wood)
    plan = _checked(problem, model, packing, proven=found.proven, bound=bound)
    return replace(plan, ended=_ended(plan, clock))


def _ended(plan: CutPlan, clock: Clock) -> Ended:
    """What ended a search."""
    if clock.has_rung:
        return Ended.CLOCK
    return Ended.PROOF if plan.status is Status.OPTIMAL else Ended.STEPS


def _bounded(
    problem: CutProblem,
    found: SearchResult,
    loose: Line | Ripped | None,
    model: AnyModel,
    clock: Clock,
) -> SearchResult:
    """What is really proven of a plan whose model leaves some ways to save out."""
    unproven = replace(found, proven=False, bound=0, fewest=0)
    if loose is None:
        return unproven
    if isinstance(loose, Ripped):
        loose.list_loads(clock)
    least = search(Holder(loose, clock), lambda *_: None)
    if sum(least.packing.missing) != sum(found.packing.missing):
        return unproven
    return unproven.with_bound(least.bound, least.fewest, model)


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
    )
    check_plan(problem, plan)
    by_clock = Ended.CLOCK in (cheapest.ended, first.ended, second.ended)
    by_itself = Ended.PROOF if plan.status is Status.OPTIMAL else Ended.STEPS
    return replace(plan, ended=Ended.CLOCK if by_clock else by_itself)


def steadied(
    problem: CutProblem, plan: CutPlan, before: CutPlan, seconds: float = _STEADY_SECONDS
) -> CutPlan:
    """A plan with more boards as they were ``before`` a change, where that costs nothing: neither
    money nor a piece more. What was proven of it stays. Where owned stock goes first boards are
    taken as they come."""
    if problem.owned_first:
        return plan
    clock = Clock(seconds)
    kept = keep_boards(problem, plan, before, _rest_planned, clock)
    ended = Ended.CLOCK if clock.has_rung else plan.ended
    if kept is None:
        return replace(plan, ended=ended)
    steady = replace(plan, layouts=kept, unplaced=_unplaced(problem, kept), ended=ended)
    try:
        check_plan(problem, steady)
    except PlanCheckError:
        logger.exception("a steady plan was refused by the check")
        return plan
    return steady


def _rest_planned(problem: CutProblem, clock: Clock) -> CutPlan:
    """A plan that is as cheap as may be, without its bound and without care for leftovers."""
    model = _model(problem, clock)
    if isinstance(model, Ripped):
        model.list_loads(clock)
    found = search(Holder(model, clock), lambda *_: None)
    return _checked(problem, model, found.packing, proven=False, bound=0)


def _search_ripped(
    problem: CutProblem,
    model: Ripped,
    clock: Clock,
    report: Callable[[Packing, int], None],
) -> SearchResult:
    """The search over purchases, with every load listed where they are few, and never dearer than
    each size ripped alone."""
    report(model.quick(model.demand, [0] * len(model.sources)), 0)
    listed = model.list_loads(clock.part(_LIST_SHARE))
    start = None if listed else each_alone(problem, model, clock.part(_ALONE_SHARE))
    model.clock = clock.part(1 - _MENDING_SHARE)
    found = search(Holder(model, model.clock), report, start)
    if found.proven or any(found.packing.missing):
        return found
    packing = found.packing
    if listed:
        alone = each_alone(problem, model, clock)
        packing = min((alone or packing, packing), key=lambda one: one.key(model))
    found = found.with_packing(packing, model)
    for better in better_packings(problem, model, packing, clock):
        found = found.with_packing(better, model)
        report(better, found.bound)
        if found.proven:
            break
    return found


def first_plan(problem: CutProblem) -> CutPlan:
    """A plan at once, board after board, without any proof."""
    model = Ripped(problem) if problem.is_ripped else to_line(problem)
    packing = model.quick(model.demand, [0] * len(model.sources))
    return _checked(problem, model, packing, proven=False, bound=0)


def _model(problem: CutProblem, clock: Clock) -> AnyModel:
    if problem.is_ripped:
        return Ripped(problem)
    angled = any(is_angled(part.ends) for part in problem.parts)
    return (angled and to_angled(problem, clock)) or to_line(problem)


def _checked(
    problem: CutProblem,
    model: AnyModel,
    packing: Packing,
    *,
    proven: bool,
    bound: int,
) -> CutPlan:
    if isinstance(model, Line):
        layouts = arrange_line(problem, model, packing)
    elif isinstance(model, Angled):
        layouts = arrange_angled(problem, model, packing)
    else:
        layouts = arrange_ripped(problem, model, packing)
    layouts = tuple(with_cuts(problem, layout) for layout in layouts)
    unplaced = _unplaced(problem, layouts)
    cost = packing.key(model)[1]
    status = Status.INCOMPLETE if unplaced else Status.OPTIMAL if proven else Status.FEASIBLE
    plan = CutPlan(
        status,
        price=model.money.price(cost),
        bound=model.money.price(cost if proven else min(bound, cost)),
        layouts=layouts,
        unplaced=unplaced,
        rip_set_ups=model.rip_set_ups if isinstance(model, Ripped) else None,
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
    price = {piece.id: piece.price for piece in problem.stock}
    costs = sum((price[layout.stock] * layout.count for layout in layouts), Decimal(0))
    unplaced = tuple(
        replace(one, reason=f"no plan for it passed the check: {one.reason}")
        for one in _unplaced(problem, layouts)
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


def _unplaced(problem: CutProblem, layouts: tuple[Layout, ...]) -> tuple[Unplaced, ...]:
    placed: Counter[str] = Counter()
    for layout in layouts:
        for part in layout.parts:
            placed[part.part] += layout.count
    return tuple(
        Unplaced(part.id, part.quantity - placed[part.id], _reason(problem, part))
        for part in problem.parts
        if part.quantity > placed[part.id]
    )


def _beyond_the_saw(
    problem: CutProblem, part: CutPart, stock: list[StockPiece], written: Callable[[int], str]
) -> str:
    """Why no saw at hand makes a part, in words; empty where one does."""
    saw = problem.saw
    for end in part.ends:
        if not saw.turns(end):
            most = saw.tilt if end.bevel else saw.miter
            return f"an end of {end.words} is beyond the saw, which goes to {most:f}°"
    if saw == NO_LIMITS or part.width is None or part.thickness is None:
        return ""
    for edge in part.edges:
        if not saw.tilts(edge):
            return f"an edge of {edge.words} is beyond the saw, which tilts to {saw.tilt:f}°"
    wide = max(part.width, part.thickness)
    if not saw.crosses(wide, 0):
        return f"{written(wide)} is wider than the saw crosscuts, {written(saw.crosscut or 0)}"
    if problem.is_ripped and problem.order is Order.CROSSCUT_FIRST:
        narrow = [p for p in stock if saw.crosses(p.width or 0, p.thickness or 0)]
        if stock and not any(fits_stock(part, piece, problem) for piece in narrow):
            return "crosscuts come first, and the saw crosses no board that is wide enough"
    freely = replace(problem, saw=NO_LIMITS)
    fitting = [piece for piece in stock if fits_stock(part, piece, freely)]
    if not problem.is_ripped or any(fits_stock(part, piece, problem) for piece in fitting):
        return ""
    if not fitting:
        return ""
    limits = {"rips": saw.rip_depth, "resaws": saw.resaw_depth}
    does = " and ".join(f"{word} up to {written(most)}" for word, most in limits.items() if most)
    return f"no board gives it within what the saw does, which {does or 'reaches too short'}"


def _reason(problem: CutProblem, part: CutPart) -> str:
    notation = Notation.MM if problem.unit is Unit.MM else Notation.SIXTY_FOURTHS

    def written(ticks: int) -> str:
        return write_length(ticks, notation).text

    stock = [piece for piece in problem.stock if piece.available != 0]
    if not stock:
        return "there is no stock to cut it from"
    if part.on:
        stock = [piece for piece in stock if piece.id in part.on]
    if not stock:
        return f"nothing is left of {', '.join(part.on)}, which it may come from"
    beyond = _beyond_the_saw(problem, part, stock, written)
    if beyond:
        return beyond
    if part.thickness is not None and part.width is not None:
        thick, wide = part.thickness + part.extra.thickness, part.width + part.extra.width
        fitting = [piece for piece in stock if fits_stock(part, piece, problem)]
        widest = max(piece.width or 0 for piece in stock)
        thickest = max(piece.thickness or 0 for piece in stock)
        if not fitting and wide > widest:
            return f"it is {written(wide - widest)} wider than the widest stock"
        if not fitting:
            short = max(thick - thickest, 1)
            return f"it is {written(short)} thicker than the stock that is wide enough"
        stock = fitting
    if part.clear and any(piece.flaws for piece in stock):
        sound = max((b - a for p in stock for a, b in sound_stretches(problem, p)), default=0)
        if part.sawn_length > sound:
            by = written(part.sawn_length - sound)
            found = f"the longest sound wood, {written(sound)}" if sound else "all sound wood"
            return f"{written(part.sawn_length)} misses {found}, by {by}"
    longest = max(stock, key=lambda piece: piece.length)
    sound = problem.sound_length(longest)
    if sound <= 0:
        return "the trims take all of every piece of stock"
    if part.sawn_length > sound:
        trims = problem.trim_start + problem.trim_end
        left = f", {written(sound)} after trimming" if trims else ""
        missed = f"{written(part.sawn_length)} misses the longest stock, {written(longest.length)}"
        return f"{missed}{left}, by {written(part.sawn_length - sound)}"
    return "every piece of stock that holds it is used up"
