"""A trip in the words of the API's contract."""

import uuid
from collections.abc import Iterable
from decimal import Decimal
from typing import Any

from carpentry.buying import write_money
from carpentry.language import Notation, Unit, sold_name
from carpentry.lumber import load_told
from carpentry.trip import (
    CHECKS,
    Cart,
    Event,
    Line,
    PaidLine,
    Purchase,
    Wanted,
    YardBoard,
    load_of,
    racks_of,
    total_of,
)
from server.common.schemas import length_out, section_out
from server.trips.finishing import lessons, receipt
from server.trips.models import Trip
from server.trips.schemas import (
    CheckOut,
    ReceiptLineOut,
    ReceiptOut,
    RefusedEventOut,
    TripBoardOut,
    TripLineOut,
    TripOut,
    TripRackOut,
    TripRowOut,
)

_NOTED = ("thickness", "width", "crook", "bow", "cup", "twist")


def show_trip(trip: Trip, refused: Iterable[tuple[Event, str]] = ()) -> TripOut:
    """The trip as it is, with the events that could not be."""
    cart, purchase = trip.cart(), trip.purchase
    walk = trip.yard.walk if trip.yard else ""
    keys = [key for key in dict.fromkeys((*purchase, *cart.touched())) if key in cart.lines]
    wanted = {key: one.count for key, one in purchase.items()}
    taken = {key: cart.taken(key) - len(purchase.get(key, Wanted(0)).idle) for key in keys}
    total, unpriced = total_of(wanted, cart, trip.tax)
    in_cart, _ = total_of({key: cart.taken(key) for key in keys}, cart, trip.tax)
    load = load_of(purchase, cart)
    notation = trip.project.notation
    return TripOut(
        id=trip.id,
        project=trip.project.id,
        project_name=trip.project.name,
        yard=trip.yard_name,
        unit=trip.unit,
        finished=trip.finished,
        stale=trip.project_version != trip.project.version and trip.finished is None,
        seen=list(trip.events.values_list("id", flat=True)),
        checks=[
            CheckOut(
                key=check.key,
                name=check.name,
                how=check.how,
                checked=check.key in cart.checked,
            )
            for check in CHECKS
        ],
        racks=[
            TripRackOut(name=name, lines=[_line(trip, key, cart, purchase) for key in lines])
            for name, lines in racks_of(keys, cart, walk)
        ],
        wanted=sum(wanted.values()),
        taken=sum(min(taken.get(key, 0), count) for key, count in wanted.items()),
        total=write_money(total, trip.currency),
        in_cart=write_money(in_cart, trip.currency),
        currency=trip.currency,
        tax_rate=f"{trip.tax.rate:f}",
        tax_included=trip.tax.included,
        unpriced=unpriced,
        weight=load_told(load.weight_kg, load.unweighed, Unit(trip.project.unit)),
        longest=sold_name(load.longest, notation) if load.longest else "",
        claim=trip.claim,
        said=trip.said,
        said_by=trip.said_by,
        left_out=trip.missing,
        refused=[RefusedEventOut(id=uuid.UUID(event.id), message=why) for event, why in refused],
    )


def _line(trip: Trip, key: str, cart: Cart, purchase: Purchase) -> TripLineOut:
    line = cart.lines[key]
    one = purchase.get(key, Wanted(0))
    taken = cart.taken(key) - len(one.idle)
    notation = Notation(trip.project.notation)
    tag = cart.tag(key)
    is_board = line.stock is not None
    return TripLineOut(
        **_named(line, notation),
        kind=line.stock.kind if line.stock else "",
        section=section_out(line.section, notation),
        real_length=length_out(line.real_length, notation)
        if is_board and line.real_length != line.length
        else None,
        is_board=is_board,
        wanted=one.count,
        spare=one.spare,
        taken=taken,
        put_back=max(0, taken - one.count) + len(one.idle),
        price=_money(line.price, trip),
        tag=_money(tag, trip),
        each=_plain(cart.price(key)),
        listed=_plain(line.price),
        left=cart.left(key),
        limited=cart.limited(key),
        boards=[_board(board, board.event in one.idle, notation) for board in cart.boards(key)],
    )


def _named(line: Line, notation: Notation) -> dict[str, Any]:
    """How a line is called, in one piece and in pieces that can be typeset."""
    is_board = line.stock is not None
    return {
        "key": line.key,
        "called": line.called(notation),
        "name": line.name,
        "named_length": sold_name(line.length, notation) if is_board else "",
        "length": length_out(line.length, notation) if line.length and not is_board else None,
        "content": line.content,
    }


def _board(board: YardBoard, idle: bool, notation: str) -> TripBoardOut:
    read = board.read
    notes = [
        f"{name} {text}" if name != "twist" else "twisted"
        for name in _NOTED
        if (text := getattr(read.fields, name)) and (name != "twist" or read.twisted)
    ]
    return TripBoardOut(
        event=uuid.UUID(board.event),
        kept=board.kept,
        idle=idle,
        length=length_out(read.length, notation),
        notes=notes,
    )


def _plain(amount: Decimal | None) -> str | None:
    return None if amount is None else f"{amount:f}"


def _money(amount: Decimal | None, trip: Trip) -> str | None:
    return None if amount is None else write_money(amount, trip.currency)


def show_row(trip: Trip) -> TripRowOut:
    """A trip among others."""
    cart = trip.cart()
    if trip.finished:
        total = receipt(trip, cart).paid
    else:
        counts = {key: one.count for key, one in trip.purchase.items()}
        total, _ = total_of(counts, cart, trip.tax)
    return TripRowOut(
        id=trip.id,
        yard=trip.yard_name,
        begun=trip.begun,
        finished=trip.finished,
        total=write_money(total, trip.currency),
    )


def show_receipt(trip: Trip) -> ReceiptOut:
    """Planned against paid."""
    cart = trip.cart()
    told = receipt(trip, cart)
    learned = lessons(trip, told, cart)
    keys = [key for _, keys in racks_of(told.lines, cart, "") for key in keys]
    return ReceiptOut(
        trip=trip.id,
        project=trip.project.id,
        project_name=trip.project.name,
        yard=trip.yard_name,
        yard_id=trip.yard.id if trip.yard else None,
        finished=trip.finished,
        lines=[_receipt_line(trip, key, told.lines[key], cart) for key in keys],
        planned=write_money(told.planned, trip.currency),
        paid=write_money(told.paid, trip.currency),
        tax_rate=f"{trip.tax.rate:f}",
        tax_included=trip.tax.included,
        told=told.told,
        over=told.over,
        learns=len(learned),
        laid=len(trip.laid),
    )


def _receipt_line(trip: Trip, key: str, paid: PaidLine, cart: Cart) -> ReceiptLineOut:
    line = cart.lines[key]
    difference = paid.difference
    notation = Notation(trip.project.notation)
    return ReceiptLineOut(
        **_named(line, notation),
        section=section_out(line.section, notation),
        planned=paid.planned,
        planned_price=_money(paid.planned_price, trip),
        planned_together=_money(paid.planned_together, trip),
        paid=paid.paid,
        paid_price=_money(paid.paid_price, trip),
        paid_typed="" if paid.paid_price is None else f"{paid.paid_price:f}",
        paid_together=_money(paid.paid_together, trip),
        difference=None if not difference else _money(difference, trip),
        dearer=bool(difference and difference > 0),
        not_bought=paid.not_bought,
    )
