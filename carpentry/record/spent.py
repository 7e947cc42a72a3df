"""What a project that is cut has cost: receipts, and what was bought without one."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from decimal import Decimal

from carpentry.buying import Tax, shopping_list, write_money

_NOTHING = Decimal(0)


@dataclass(frozen=True)
class SpentLine:
    """What something has cost: a receipt with its tax, the rest before it, and the tax of that."""

    what: str
    paid: Decimal
    unpriced: int = 0


@dataclass(frozen=True)
class AtYard:
    """Prices of one piece each, before tax: of boards as they were ``planned``, of those bought
    ``after`` (for a miscut, say), ``None`` for one without a price; and what ``spares`` and
    ``hardware`` cost by the list, of which ``unpriced`` lines have no price."""

    tax: Tax
    planned: Sequence[Decimal | None] = ()
    after: Sequence[Decimal | None] = ()
    spares: Decimal = _NOTHING
    hardware: Decimal = _NOTHING
    unpriced: int = 0

    def lines(self, *, boards_paid: bool, hardware_paid: bool) -> Iterable[SpentLine]:
        """What of it is on no receipt."""
        if not boards_paid:
            yield from _boards(self.planned, "by the list")
            if self.spares:
                yield SpentLine("spare boards, by the list", self.spares)
        if not hardware_paid and (self.hardware or self.unpriced):
            yield SpentLine("hardware, by the list", self.hardware, self.unpriced)
        yield from _boards(self.after, "bought after the plan, at its prices")


@dataclass(frozen=True)
class Spent:
    """What was spent: ``lines`` and their ``total``, tax and all; ``unpriced`` things are not in
    it. Boards that came ``from_rack`` cost nothing; pieces that went ``back`` there are left."""

    lines: tuple[SpentLine, ...] = field(default=())
    from_rack: int = 0
    back: int = 0

    @property
    def total(self) -> Decimal:
        return sum((line.paid for line in self.lines), _NOTHING)

    @property
    def unpriced(self) -> int:
        return sum(line.unpriced for line in self.lines)

    def told(self, currency: str) -> str:
        """What it comes to, in words: "$84.20, 2 boards from the rack, 1 piece back on it"."""
        said = [write_money(self.total, currency)]
        if self.unpriced:
            said.append(f"without {_counted(self.unpriced, 'thing')} that had no price")
        if self.from_rack:
            said.append(f"{_counted(self.from_rack, 'board')} from the rack")
        if self.back:
            said.append(f"{_counted(self.back, 'piece')} back on the rack")
        return ", ".join(said)


def spent_on(
    receipts: Iterable[SpentLine],
    at_yard: Iterable[AtYard],
    *,
    boards_paid: bool,
    from_rack: int = 0,
    back: int = 0,
) -> Spent:
    """What was spent by ``receipts`` and, at yards, without one: ``boards_paid`` if the receipts
    have the boards that were planned. Tax is rounded once on all that bears the same, as on the
    list."""
    paid = tuple(receipts)
    others: list[SpentLine] = []
    taxed: dict[Tax, Decimal] = {}
    for one in at_yard:
        for line in one.lines(boards_paid=boards_paid, hardware_paid=bool(paid)):
            others.append(line)
            taxed[one.tax] = taxed.get(one.tax, _NOTHING) + line.paid
    for tax, amount in taxed.items():
        more = shopping_list((), tax, 1, amount).total - amount
        if more:
            others.append(SpentLine(f"tax, {tax.rate.normalize():f} %", more))
    return Spent((*paid, *others), from_rack, back)


def _boards(prices: Sequence[Decimal | None], how: str) -> Iterable[SpentLine]:
    if prices:
        known = [price for price in prices if price is not None]
        paid = sum(known, _NOTHING)
        yield SpentLine(f"{_counted(len(prices), 'board')} {how}", paid, len(prices) - len(known))


def _counted(count: int, one: str) -> str:
    return f"{count} {one}{'' if count == 1 else 's'}"
