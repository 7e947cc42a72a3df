"""Seeded prices: the same yard, stock, length and day always give the same quote."""

import hashlib
import re
from dataclasses import dataclass
from datetime import date
from decimal import ROUND_HALF_UP, Decimal
from fractions import Fraction

DRIFT_WEEKS = 26
MOST_DRIFT = Fraction(3, 100)  # either way in one week
RUN_OUT_OF = 12  # one item in so many has run out in a week
CURRENCIES = {"tallow-street": "USD", "pike-and-daughter": "USD", "north-quay": "EUR"}
_SIZE = re.compile(r"(?:ex )?(\d+)(?:/4)?x(\d+)")
_PER_BOARD_FOOT = {
    "treated": Fraction(95, 100),
    "cedar": Fraction(260, 100),
    "redwood": Fraction(310, 100),
    "composite": Fraction(420, 100),
}
_PLAIN = Fraction(78, 100)


@dataclass(frozen=True)
class Quote:
    """What a piece costs today, and how many there are (``None``: plenty)."""

    price: Decimal
    available: int | None


def _chance(*seed: object) -> Fraction:
    """A number from 0 up to 1 that depends on the seed alone."""
    digest = hashlib.sha256("|".join(map(str, seed)).encode()).digest()
    return Fraction(int.from_bytes(digest[:6], "big"), 1 << 48)


def _week(day: date) -> int:
    return day.toordinal() // 7


def _drift(yard: str, stock: str, day: date) -> Fraction:
    """The product of the last half year's weekly steps."""
    factor = Fraction(1)
    for week in range(_week(day) - DRIFT_WEEKS, _week(day)):
        step = (2 * _chance(yard, stock, week, "drift") - 1) * MOST_DRIFT
        factor = (factor * (1 + step)).limit_denominator(10**9)
    return factor


def quote(yard: str, stock: str, feet: Fraction, day: date) -> Quote | None:
    """Today's quote of one piece, ``None`` for a stock this service does not know."""
    found = _SIZE.match(stock)
    if not found or not 0 < feet <= 60:
        return None
    thick, wide = Fraction(found[1]), Fraction(found[2])
    if "/4" in found[0]:
        thick /= 4
    if thick >= 20:  # millimetres
        thick, wide = thick / 25, wide / 25
    words = stock[found.end() :].lower().split()
    rate = next((_PER_BOARD_FOOT[word] for word in words if word in _PER_BOARD_FOOT), _PLAIN)
    own = Fraction(9, 10) + _chance(yard, stock, "own") / 5
    amount = thick * wide * feet / 12 * rate * own * _drift(yard, stock, day)
    cents = Decimal(amount.numerator) / Decimal(amount.denominator)
    price = max(cents.quantize(Decimal("0.01"), ROUND_HALF_UP), Decimal("0.10"))
    return Quote(price, _available(yard, stock, feet, day))


def _available(yard: str, stock: str, feet: Fraction, day: date) -> int | None:
    chance = _chance(yard, stock, feet, _week(day), "stock")
    if chance < Fraction(1, RUN_OUT_OF):
        return 0
    return int(chance * 60) if chance < Fraction(1, 3) else None
