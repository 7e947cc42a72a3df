"""At the yard: what is ticked, seen on tags and measured there, and what is still to be taken.

A trip is a list of events. ``cart_of`` folds them into a cart; ``Purchase`` is what a plan wants of
every line; ``change_told`` says what a new plan changed, ``receipt_of`` what was paid against what
was planned.
"""

from carpentry.trip.cart import Cart, Line, YardBoard, cart_of, line_key, lines_of, packs_of
from carpentry.trip.checks import CHECKS, Check
from carpentry.trip.events import Event, EventKind
from carpentry.trip.purchase import (
    Purchase,
    Wanted,
    change_told,
    left_out_told,
    load_of,
    purchase_of,
    racks_of,
    together,
    total_of,
    touched_by,
)
from carpentry.trip.receipt import PaidLine, Receipt, receipt_of

__all__ = [
    "CHECKS",
    "Cart",
    "Check",
    "Event",
    "EventKind",
    "Line",
    "PaidLine",
    "Purchase",
    "Receipt",
    "Wanted",
    "YardBoard",
    "cart_of",
    "change_told",
    "left_out_told",
    "line_key",
    "lines_of",
    "load_of",
    "packs_of",
    "purchase_of",
    "racks_of",
    "receipt_of",
    "together",
    "total_of",
    "touched_by",
]
