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
    def not_bought(self) -> int:
        """How many of those that were planned were not paid for."""
        return max(0, self.planned - self.paid)

    @property
    def bought_as_planned(self) -> Decimal | None:
        """What those that were paid for would have cost by the plan."""
        return _together(min(self.planned, self.paid), self.planned_price)

    @property
    def difference(self) -> Decimal | None:
        """What was paid beyond what was planned for what was bought; ``None`` where a price is
        missing."""
        planned, paid = self.bought_as_planned, self.paid_together
        return None if planned is None or paid is None else paid - planned


def _together(count: int, price: Decimal | None) -> Decimal | None:
    if not count:
        return Decimal(0)
    return None if price is None else price * count


@dataclass(frozen=True)
class Receipt:
    """A trip's lines with both totals, tax and all. ``told`` says how they differ for what was
    bought, and what was not; ``over`` is whether that cost more; ``unpriced`` lines are in
    neither."""

    lines: Mapping[str, PaidLine]
    planned: Decimal
    paid: Decimal
    unpriced: int
    told: str
    over: bool


def receipt_of(lines: Mapping[str, PaidLine], tax: Tax, currency: str) -> Receipt:
    """The receipt of a trip."""
    planned = _with_tax([line.planned_together for line in lines.values()], tax)
    paid = _with_tax([line.paid_together for line in lines.values()], tax)
    bought = _with_tax([line.bought_as_planned for line in lines.values()], tax)
    unpriced = sum(line.difference is None for line in lines.values())
    missing = sum(line.not_bought for line in lines.values())
    told = _told(paid - bought, planned - bought, missing, unpriced, currency)
    return Receipt(lines, planned, paid, unpriced, told, not unpriced and paid > bought)


def _with_tax(amounts: Iterable[Decimal | None], tax: Tax) -> Decimal:
    whole = sum((amount or Decimal(0) for amount in amounts), Decimal(0))
    return shopping_list((), tax, 1, whole).total


def _told(more: Decimal, left: Decimal, missing: int, unpriced: int, currency: str) -> str:
    """How a trip went: so much ``more`` than planned for what was bought, and what was not."""
    if unpriced:
        lines = "line has" if unpriced == 1 else "lines have"
        return f"{unpriced} {lines} no price: the totals are not of the same things"
    way = "more" if more > 0 else "less"
    paid = (
        f"{write_money(abs(more), currency)} {way} than planned"
        if more
        else "paid what was planned"
    )
    if not missing:
        return paid
    pieces = "one piece was" if missing == 1 else f"{missing} pieces were"
    return f"{paid}, for what was bought; {pieces} not bought, {write_money(left, currency)}"
