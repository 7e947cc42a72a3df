"""Money: decimals rounded half up to the cent, and how they are written."""

import re
from decimal import ROUND_HALF_UP, Decimal
from fractions import Fraction

from babel.numbers import format_currency

from carpentry.language.errors import CarpentryError

CENT = Decimal("0.01")
_MONEY = re.compile(r"\d{1,9}(?:\.\d{1,2})?")


def cents(amount: Decimal | Fraction) -> Decimal:
    """An amount rounded half up to the cent."""
    if isinstance(amount, Fraction):
        scaled = amount * 100
        half_up = int(abs(scaled) + Fraction(1, 2))
        return Decimal(half_up if scaled >= 0 else -half_up).scaleb(-2)
    return amount.quantize(CENT, ROUND_HALF_UP)


def write_money(amount: Decimal, currency: str) -> str:
    """An amount with its currency's sign, such as ``$7.15`` or ``−$9.10``."""
    written = format_currency(abs(amount), currency, "¤#,##0.00", "en_US", currency_digits=False)
    return f"−{written}" if amount < 0 else written


def read_money(text: str) -> Decimal:
    """An amount as it is typed, such as ``9.50``. Raises ``CarpentryError``."""
    if not _MONEY.fullmatch(text.strip()):
        raise CarpentryError(f"“{text.strip()}” is no amount of money: write a number such as 9.50")
    return Decimal(text.strip())
