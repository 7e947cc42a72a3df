"""Make a part from boards, or buy it made: what each costs."""

import re
from dataclasses import dataclass
from decimal import Decimal
from fractions import Fraction

from carpentry.buying import Tax, cents, read_money, shopping_list, write_money
from carpentry.language import TICKS_PER_FOOT, TICKS_PER_MM, CarpentryError

_PRICE = re.compile(r"([^/]+?)\s*(?:/\s*(ft|m))?")


def read_made_price(text: str, length: int) -> Decimal:
    """What one part of a length (ticks) costs made, from a price each, ``6.20``, by the foot,
    ``0.85/ft``, or by the metre. Raises ``CarpentryError``."""
    found = _PRICE.fullmatch(text.strip())
    if not found:
        raise CarpentryError("write what one costs made, such as 6.20 or 0.85/ft", "price")
    try:
        price = read_money(found[1])
    except CarpentryError as error:
        raise CarpentryError(error.problems[0].message, "price") from error
    per = {"ft": TICKS_PER_FOOT, "m": 1000 * TICKS_PER_MM}
    return cents(Fraction(price) * Fraction(length, per[found[2]])) if found[2] else price


@dataclass(frozen=True)
class MakeOrBuy:
    """What the wood of a part costs in the whole purchase, what it costs bought made, both with
    tax, and which is cheaper, in words."""

    made: Decimal
    bought: Decimal
    told: str


def make_or_buy(
    pieces: int,
    price: Decimal,
    *,
    with_it: Decimal,
    without_it: Decimal,
    tax: Tax,
    currency: str,
) -> MakeOrBuy:
    """Weighs ``pieces`` made at home against bought ones at a ``price`` each: the wood costs what
    the purchase ``with_it`` is dearer than the one ``without_it`` (both with tax)."""
    made = with_it - without_it
    bought = shopping_list((), tax, 1, price * pieces).total
    saved = write_money(abs(made - bought), currency)
    told = f"the wood for {pieces} costs {write_money(made, currency)}, "
    told += f"bought made they cost {write_money(bought, currency)}: "
    if made == bought:
        return MakeOrBuy(made, bought, told + "the same")
    return MakeOrBuy(made, bought, f"{told}{'making' if made < bought else 'buying'} saves {saved}")
