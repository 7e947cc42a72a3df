"""The end of a trip: boards go onto the rack, what was paid is told and teaches the yard."""

import uuid
from collections.abc import Callable
from datetime import date
from decimal import Decimal

from django.db import transaction
from django.utils import timezone

from carpentry.buying import piece_price, read_money
from carpentry.language import CarpentryError, Unit, interchange
from carpentry.lumber import Section, standard_section
from carpentry.lumber.rack import MAX_BOARDS, BoardFields, section_noted
from carpentry.project import RackUse, pack_prices, packs_priced
from carpentry.trip import Cart, Line, PaidLine, Receipt, line_key, receipt_of
from server.plans.models import Plan
from server.projects.models import Project
from server.rack.models import Rack
from server.trips.models import Trip
from server.yards.models import PriceLine, Yard

MOST_PAID = 10_000
_AT_THE_END = ["finished", "laid", "put_away", "project_version"]


@transaction.atomic
def finish(trip: Trip, change_id: uuid.UUID, *, put_away: bool) -> None:
    """Ends a trip; where asked for, the boards are laid on the rack, which the project then uses
    where it saves, and packs are in its drawer. Done again it does nothing.

    Raises ``CarpentryError`` when the rack is full.
    """
    trip.refresh_from_db()
    if trip.finished is not None:
        return
    trip.finished = timezone.now()
    if put_away:
        cart = trip.cart()
        _lay_on_rack(trip, _boards(trip, cart), change_id)
        drawer = [
            line for key in cart.touched() for line in cart.lines[key].in_drawer(cart.taken(key))
        ]
        _settle_project(trip, drawer, change_id)
    trip.save(update_fields=_AT_THE_END)
    trip.project.plans.filter(id=trip.plan_id).update(stage=Plan.Stage.BOUGHT)


def _lay_on_rack(trip: Trip, boards: list[BoardFields], change_id: uuid.UUID) -> None:
    if not boards:
        return
    rack = Rack.of(trip.project.owner)
    if rack.boards.count() + len(boards) > MAX_BOARDS:
        raise CarpentryError(f"a rack holds {MAX_BOARDS:,} boards: take some off first")

    def lay(rack: Rack) -> str:
        trip.laid = [str(board.id) for board in rack.add_boards(boards)]
        return f"{len(boards)} boards from {trip.yard_name} laid on"

    rack.change(rack.version, change_id, "boards bought", lay)


def _settle_project(trip: Trip, drawer: list[str], change_id: uuid.UUID) -> None:
    """The project uses the rack, and what is in its drawer."""

    def settle(project: Project) -> str:
        if trip.laid and project.rack == RackUse.NEVER:
            project.rack = RackUse.SAVING.value
        if drawer:
            typed = project.typed_lines()["hardware"].rstrip()
            lines = project.write_lines("hardware", "\n".join(filter(None, (typed, *drawer))))
            trip.put_away = [str(line.id) for line in lines[-len(drawer) :]]
        return f"bought at {trip.yard_name}"

    if trip.laid or drawer:
        _change_project(trip, change_id, settle)


def _change_project(trip: Trip, change_id: uuid.UUID, make: Callable[[Project], str]) -> None:
    """A change of the project by the trip itself; a trip that knew the newest state still does."""
    knew = trip.project_version == trip.project.version
    trip.project.change(trip.project.version, change_id, "trip", make)
    if knew:
        trip.project_version = trip.project.version


def _take_out(trip: Trip, change_id: uuid.UUID) -> None:
    """Takes out of the project's drawer what the trip put in and is still there."""

    def take_out(project: Project) -> str:
        project.lines.filter(id__in=trip.put_away).delete()
        return f"not bought at {trip.yard_name} after all"

    if trip.put_away:
        _change_project(trip, change_id, take_out)


def _boards(trip: Trip, cart: Cart) -> list[BoardFields]:
    """What was taken, as the rack notes it down: measured where it was, or where the yard's section
    is its own."""
    laid = []
    for key in cart.touched():
        line = cart.lines[key]
        if line.stock is None:
            continue
        own_size = line.section and line.section != standard_section(line.stock)
        sizes = _sizes(line.section) if own_size else {}
        laid += [_laid(trip, line, line.real_length, **sizes)] * cart.plain(key)
        laid += [
            _laid(
                trip,
                line,
                board.length,
                **(_sizes(board.section) if board.is_measured else sizes),
                bow=_size(board.bow),
                cup=_size(board.cup),
            )
            for board in (kept.read for kept in cart.kept(key))
        ]
    return laid


def _laid(trip: Trip, line: Line, length: int, **noted: str) -> BoardFields:
    return BoardFields(
        stock=line.name,
        length=_size(length),
        place=f"bought for {trip.project.name}"[:200],
        note=f"from {trip.yard_name}"[:200],
        **noted,
    )


def _sizes(section: Section | None) -> dict[str, str]:
    return section_noted(section, Unit.INCH) if section else {}


def _size(ticks: int) -> str:
    return interchange(ticks, Unit.INCH) if ticks else ""


@transaction.atomic
def open_again(trip: Trip, change_id: uuid.UUID) -> None:
    """Takes the end of a trip back: boards it laid on the rack that are still there go, and so does
    what it put into the drawer.

    Raises ``CarpentryError`` when the project has another trip under way.
    """
    trip.refresh_from_db()
    if trip.finished is None:
        return
    if trip.project.trips.filter(finished=None).exists():
        raise CarpentryError("another trip for this project is under way: finish it first")
    if trip.laid:
        rack = Rack.of(trip.project.owner)

        def take_off(rack: Rack) -> str:
            gone = rack.boards.filter(id__in=trip.laid)
            count = gone.count()
            gone.delete()
            return f"{count} boards from {trip.yard_name} taken off"

        rack.change(rack.version, change_id, "trip opened again", take_off)
    _take_out(trip, change_id)
    trip.laid, trip.put_away = [], []
    trip.finished = None
    trip.save(update_fields=_AT_THE_END)
    trip.project.plans.filter(id=trip.plan_id).update(stage=Plan.Stage.CHOSEN)


def receipt(trip: Trip, cart: Cart) -> Receipt:
    """Planned against paid; what was paid is what was taken at its tags, unless corrected."""
    lines = {}
    for key in dict.fromkeys((*trip.planned, *trip.purchase, *cart.touched(), *trip.paid)):
        if key not in cart.lines:
            continue
        planned = trip.planned.get(key, {})
        corrected = trip.paid.get(key, {})
        price = cart.price(key)
        line = PaidLine(
            planned=planned.get("count", 0),
            planned_price=_price(planned.get("price")) if planned else cart.lines[key].price,
            paid=int(corrected.get("count", cart.taken(key))),
            paid_price=_price(corrected["price"]) if "price" in corrected else price,
        )
        if line.planned or line.paid:
            lines[key] = line
    return receipt_of(lines, trip.tax, trip.currency)


def _price(text: str | None) -> Decimal | None:
    return None if text is None else read_money(text)


@transaction.atomic
def correct(trip: Trip, line: str, count: str | None, price: str | None) -> None:
    """Corrects what was paid for a line: how many, or for one; empty text takes that back.

    Raises ``CarpentryError`` for what is no count or price, and for a line that is not there.
    """
    trip.refresh_from_db()
    if line not in trip.lines():
        raise CarpentryError("that is not on this trip", "line")
    paid = dict(trip.paid.get(line, {}))
    if count is not None:
        text = count.strip()
        if text and not (text.isdecimal() and int(text) <= MOST_PAID):
            raise CarpentryError(f"“{text}” is no count: from 0 to {MOST_PAID:,}", "count")
        paid["count"] = text
    if price is not None:
        text = price.strip()
        if text:
            read_money(text)
        paid["price"] = text
    trip.paid = trip.paid | {line: {name: text for name, text in paid.items() if text}}
    trip.save(update_fields=["paid"])


def lessons(trip: Trip, told: Receipt, cart: Cart) -> dict[str, Decimal]:
    """The prices that were paid and are not those of the yard's list and packs, by line."""
    if trip.yard is None:
        return {}
    listed = _listed(trip.yard, [cart.lines[key] for key in told.lines])
    return {
        key: line.paid_price
        for key, line in told.lines.items()
        if line.paid and line.paid_price is not None and key in listed
        if line.paid_price != listed[key]
    }


def _listed(yard: Yard, lines: list[Line]) -> dict[str, Decimal | None]:
    """What one of each line costs by the yard's list as it is; a board that is not on it has no
    price, a pack that is not sold there is left out."""
    rows = yard.lines.filter(stock_key__in={str(line.stock) for line in lines if line.stock})
    boards = {
        line_key(line.stock, line.length.ticks): piece_price(line, whole_inches=yard.whole_inches)
        for line in (row.read() for row in rows)
    }
    packs = pack_prices(yard.packs, Unit(yard.unit))
    return {
        line.key: boards.get(line.key) if line.stock else packs[line.key.lower()]
        for line in lines
        if line.stock or line.key.lower() in packs
    }


@transaction.atomic
def keep_prices(trip: Trip, change_id: uuid.UUID) -> int:
    """Writes the prices that were paid into the yard's list, as one change that can be undone; each
    joins the history of its line. Returns how many.

    Raises ``CarpentryError`` when the yard is gone or asks in another currency by now.
    """
    trip.refresh_from_db()
    yard = trip.yard
    if yard is None:
        raise CarpentryError("this yard is not there any more", "yard")
    if yard.currency != trip.currency:
        raise CarpentryError(
            f"paid in {trip.currency}, but the list is in {yard.currency}: they are not mixed",
            "yard",
        )
    cart = trip.cart()
    learned = lessons(trip, receipt(trip, cart), cart)

    def learn(yard: Yard) -> str:
        packs = {key.lower(): price for key, price in learned.items() if not cart.lines[key].stock}
        yard.write_packs(packs_priced(yard.packs, Unit(yard.unit), packs))
        for key, price in learned.items():
            if cart.lines[key].stock:
                _learn_board(yard, cart.lines[key], price)
        return f"{len(learned)} prices paid on a trip"

    if learned:
        yard.change(yard.version, change_id, "prices paid", learn)
    return len(learned)


def _learn_board(yard: Yard, line: Line, price: Decimal) -> None:
    """Writes what one board cost today into the yard's list."""
    assert line.stock is not None
    found = yard.lines.filter(stock_key=str(line.stock), length_ticks=line.length).first()
    last = yard.lines.order_by("-position").first()
    row = found or PriceLine(
        position=last.position + 1 if last else 0,
        stock=str(line.stock),
        length=interchange(line.length, Unit(yard.unit)),
    )
    row.yard = yard
    row.price, row.date = f"{price:f}", date.today().isoformat()
    row.per = "sheet" if line.stock.is_sheet else "each"
    row.full_clean()
    row.save()
