"""Two yards: which of them is cheaper for a project, in words."""

from dataclasses import dataclass
from decimal import Decimal

from carpentry.buying import write_money
from carpentry.project import Hardware, Tally


@dataclass(frozen=True)
class AtYard:
    """What a project takes at a yard: its name and currency, the tally of the wood, and the
    hardware."""

    name: str
    currency: str
    tally: Tally
    hardware: Hardware

    def total(self, *, hardware: bool) -> Decimal:
        """What it costs there with tax, with the hardware or the wood alone."""
        shopping = self.tally.shopping
        return shopping.total if hardware else shopping.wood_total

    @property
    def lacks_wood(self) -> bool:
        """Whether boards have no price there, or parts no board."""
        return bool(self.tally.shopping.unpriced or self.tally.unplaced)


def cheaper_told(here: AtYard, there: AtYard) -> str:
    """Which is cheaper: with hardware where all of it has a price at both, else the wood alone; or
    why that cannot be told."""
    if here.currency != there.currency:
        return f"prices are in {here.currency} and {there.currency}: the totals cannot be compared"
    if here.lacks_wood or there.lacks_wood:
        return "prices or boards are missing: the totals are not of the same things"
    whole = not (here.hardware.unpriced or there.hardware.unpriced)
    saved = here.total(hardware=whole) - there.total(hardware=whole)
    if not saved:
        return "it costs the same" if whole else "the wood alone costs the same"
    money = write_money(abs(saved), here.currency)
    of = "" if whole else "the wood alone is "
    return f"{of}{money} cheaper at {there.name if saved > 0 else here.name}"
