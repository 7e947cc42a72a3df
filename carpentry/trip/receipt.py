"""After the trip: what was paid against what was planned, line by line."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from decimal import Decimal

from carpentry.buying import Tax, shopping_list, write_money


@dataclass(frozen=True)
class PaidLine:
    """A line of a trip: how many were planned at which price for one, and how many were paid for at
    which. A price is ``None`` where it is not known."""

    planned: int
    planned_price: Decimal | None
    paid: int
    paid_price: Decimal | None

    @property
    def planned_together(self) -> Decimal | None:
        return _together(self.planned, self.planned_price)

    @property
    def paid_together(self) -> Decimal | None:
        return _together(self.paid, self.paid_price)

    @property
    def difference(self) -> Decimal | None:
        """What was paid beyond what was planned; ``None`` where a price is missing."""
        planned, paid = self.planned_together, self.paid_together
        return None if planned is None or paid is None else paid - planned


def _together(count: int, price: Decimal | None) -> Decimal | None:
    if not count:
        return Decimal(0)
    return None if price is None else price * count


@dataclass(frozen=True)
class Receipt:
    """A trip's lines with both totals, tax and all. ``told`` says how they differ; ``unpriced``
    lines are in neither."""

    lines: Mapping[str, PaidLine]
    planned: Decimal
    paid: Decimal
    unpriced: int
    told: str


def receipt_of(lines: Mapping[str, PaidLine], tax: Tax, currency: str) -> Receipt:
    """The receipt of a trip."""
    planned = _with_tax([line.planned_together for line in lines.values()], tax)
    paid = _with_tax([line.paid_together for line in lines.values()], tax)
    unpriced = sum(line.difference is None for line in lines.values())
    return Receipt(lines, planned, paid, unpriced, _told(planned, paid, unpriced, currency))


def _with_tax(amounts: Iterable[Decimal | None], tax: Tax) -> Decimal:
    whole = sum((amount or Decimal(0) for amount in amounts), Decimal(0))
    return shopping_list((), tax, 1, whole).total


def _told(planned: Decimal, paid: Decimal, unpriced: int, currency: str) -> str:
    if unpriced:
        lines = "line has" if unpriced == 1 else "lines have"
        return f"{unpriced} {lines} no price: the totals are not of the same things"
    if paid == planned:
        return "paid what was planned"
    way = "more" if paid > planned else "less"
    return f"{write_money(abs(paid - planned), currency)} {way} than planned"
