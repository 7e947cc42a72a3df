"""The shopping list: what to buy, line by line, with tax and totals."""

from collections.abc import Iterable
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal

from carpentry.language import cents, write_money
from carpentry.lumber import Section, StockName


@dataclass(frozen=True)
class Tax:
    """``rate`` in percent; ``included`` when the prices hold it already."""

    rate: Decimal
    included: bool


@dataclass(frozen=True)
class ListLine:
    """``count`` pieces of one stock and named length (ticks). ``price`` of one, ``None`` if not
    known. A ``spare`` line stands apart: boards that no part is cut from, against culls."""

    stock: StockName
    section: Section | None
    length: int
    real_length: int
    count: int
    price: Decimal | None
    spare: bool = False

    @property
    def line_price(self) -> Decimal | None:
        return None if self.price is None else self.price * self.count


@dataclass(frozen=True)
class ShoppingList:
    """Lines with their totals: ``subtotal`` and ``wood_total`` (with tax) of these alone, ``total``
    with ``hardware`` too. ``unpriced`` counts the pieces without a price: when there are any, the
    totals are incomplete."""

    lines: tuple[ListLine, ...]
    subtotal: Decimal
    hardware: Decimal
    tax: Decimal
    wood_total: Decimal
    total: Decimal
    per_copy: Decimal
    unpriced: int


def shopping_list(
    lines: Iterable[ListLine], tax: Tax, copies: int, hardware: Decimal = Decimal(0)
) -> ShoppingList:
    """The list of ``lines`` for ``copies`` builds, and what ``hardware`` costs beside them. A
    missing price is counted as missing, never as zero. Tax is rounded half up to the cent once, on
    the whole."""
    kept = tuple(lines)
    subtotal = sum((line.line_price or Decimal(0) for line in kept), Decimal(0))
    share, total = _with_tax(subtotal + hardware, tax)
    return ShoppingList(
        lines=kept,
        subtotal=cents(subtotal),
        hardware=cents(hardware),
        tax=share,
        wood_total=_with_tax(subtotal, tax)[1],
        total=total,
        per_copy=cents(total / copies),
        unpriced=sum(line.count for line in kept if line.price is None),
    )


def budget_told(total: Decimal, budget: Decimal, currency: str) -> str:
    """What of a budget is left or over, in words."""
    left = write_money(abs(budget - total), currency)
    word = "over" if total > budget else "left of"
    return f"{left} {word} the budget of {write_money(budget, currency)}"


def margin_told(cost: Decimal, sells_for: Decimal, currency: str) -> str:
    """What is earned on one that sells, and its share of the price, in words; empty where it sells
    for nothing."""
    if not sells_for:
        return ""
    earned = sells_for - cost
    amount = write_money(abs(earned), currency)
    share = (abs(earned) / sells_for * 100).quantize(Decimal(1), ROUND_HALF_UP)
    way = "below" if earned < 0 else "above"
    sold = write_money(sells_for, currency)
    return f"sells for {sold}: {amount} {way} cost, {share:f} % of the price"


def _with_tax(amount: Decimal, tax: Tax) -> tuple[Decimal, Decimal]:
    """The tax on an amount, or within it, and what is paid."""
    if tax.included:
        total = cents(amount)
        return total - cents(total / (1 + tax.rate / 100)), total
    share = cents(amount * tax.rate / 100)
    return share, cents(amount + share)
