"""What a project has cost, from its receipts and from what was cut."""

from collections.abc import Iterable
from decimal import Decimal
from uuid import UUID

from carpentry.buying import Tax
from carpentry.record import AtYard, Spent, SpentLine, spent_on
from server.plans.models import AS_CUT, Plan
from server.plans.resting import work_up
from server.projects.models import Project
from server.rack.models import Rack
from server.shop.models import Cutting
from server.trips.finishing import receipt
from server.trips.models import Trip

Prices = list[Decimal | None]


def spent(project: Project) -> Spent | None:
    """What a project has cost so far; ``None`` where nothing of it is cut."""
    plans = list(project.plans.filter(stage=Plan.Stage.CUT).order_by("asked"))
    if not plans:
        return None
    trips = [trip for trip in project.trips.exclude(finished=None) if trip.cart().touched()]
    work = work_up(project)
    bought_before = {UUID(id_) for trip in trips for id_ in trip.laid}
    found = [_of_plan(plan, work.basis.tax, bought_before) for plan in plans]
    hardware = AtYard(work.basis.tax, hardware=work.hardware.price, unpriced=work.hardware.unpriced)
    entries = {entry["plan"]: entry for entry in Rack.of(project.owner).cut_plans}
    back = sum(len(entries[str(p.id)]["added"]) for p in plans if str(p.id) in entries)
    return spent_on(
        [_receipt(trip) for trip in trips],
        [*(at_yard for at_yard, _ in found), hardware],
        # Boards that were put away after a trip are cut from the rack, and no others are paid.
        boards_paid=any(not trip.laid for trip in trips),
        from_rack=sum(from_rack for _, from_rack in found),
        back=back,
    )


def _receipt(trip: Trip) -> SpentLine:
    assert trip.finished is not None
    told = receipt(trip, trip.cart())
    when = trip.finished.date().isoformat()
    return SpentLine(f"paid at {trip.yard_name}, {when}", told.paid, told.unpriced)


def _of_plan(plan: Plan, tax: Tax, bought_before: set[UUID]) -> tuple[AtYard, int]:
    """What of the boards of a plan came from a yard, and how many were on the rack before."""
    rate, included = plan.basis.get("tax", (str(tax.rate), tax.included))
    then = Tax(Decimal(rate), included)
    cutting = plan.cuttings.first()
    if cutting:
        planned, after, racked = _at_the_bench(cutting)
    else:
        boards = list(plan.boards.all())
        racked = [board.rack_board for board in boards if board.rack_board]
        planned, after = [board.price for board in boards if not board.rack_board], []
    from_rack = sum(id_ not in bought_before for id_ in racked)
    as_planned = plan
    if cutting:
        same = plan.project.plans.filter(digest=cutting.digest)
        as_planned = same.exclude(made_by=AS_CUT).first() or plan
    return AtYard(then, planned, after, _spares(as_planned, planned)), from_rack


def _spares(plan: Plan, boards: Prices) -> Decimal:
    """Return the cost of boards that were bought beside those that are cut."""
    known = [price for price in boards if price is not None]
    is_known = plan.made_by != AS_CUT and len(known) == len(boards)
    return max(Decimal(0), plan.subtotal - sum(known)) if is_known else Decimal(0)


def _at_the_bench(cutting: Cutting) -> tuple[Prices, Prices, Iterable[UUID]]:
    """Prices of the boards that were planned and of those that were bought after, and which of them
    came from the rack."""
    first = {board.number for board in cutting.planned_boards()}
    boards = cutting.bench().boards.values()
    bought = [board for board in boards if not board.rack]
    return (
        [board.price for board in bought if board.number in first],
        [board.price for board in bought if board.number not in first],
        [UUID(board.rack) for board in boards if board.rack and board.placed],
    )
