"""The functions a formula knows."""

import math
from collections.abc import Callable
from decimal import Decimal, localcontext
from fractions import Fraction

from carpentry.design.measures.values import Kind, Value, alike, as_length, number
from carpentry.language import CarpentryError, Unit, ticks_per

KEPT_DIGITS = 12  # of roots, and of what has to do with angles
_NOTHING = 1e-13
_WORKED = 60


def _kept(amount: Decimal) -> Fraction:
    if abs(amount) < _NOTHING:
        return Fraction(0)
    with localcontext(prec=KEPT_DIGITS):
        return Fraction(+amount)


def _root(amount: Fraction) -> Fraction:
    """Exact where the root is rational, else to twelve digits."""
    top, bottom = math.isqrt(amount.numerator), math.isqrt(amount.denominator)
    if top * top == amount.numerator and bottom * bottom == amount.denominator:
        return Fraction(top, bottom)
    with localcontext(prec=_WORKED):
        return _kept((Decimal(amount.numerator) / Decimal(amount.denominator)).sqrt())


def _one(called: str, given: list[Value]) -> Value:
    if len(given) != 1:
        raise CarpentryError(f"{called} takes one figure, not {len(given)}")
    return given[0]


def _least(given: list[Value], unit: Unit) -> Value:
    return min(alike(given, unit), key=lambda value: value.amount)


def _most(given: list[Value], unit: Unit) -> Value:
    return max(alike(given, unit), key=lambda value: value.amount)


def _stepped(called: str, to_whole: Callable[[Fraction], int]) -> Callable[..., Value]:
    def step(given: list[Value], unit: Unit) -> Value:
        if len(given) not in {1, 2}:
            raise CarpentryError(f"{called} takes a figure and, after a comma, what to round it to")
        value = given[0]
        by = given[1] if len(given) > 1 else number(1)
        if value.kind is Kind.LENGTH:
            by = as_length(by, unit)
        elif by.kind is not Kind.NUMBER and by.kind is not value.kind:
            raise CarpentryError(f"{value.words} cannot be rounded to {by.words}")
        if by.amount <= 0:
            raise CarpentryError(f"{called} rounds to something above 0")
        whole = to_whole(value.amount / by.amount) * by.amount
        plain = value.kind is Kind.NUMBER and whole.denominator == 1 and len(given) == 1
        return Value(Kind.COUNT if plain else value.kind, whole, value.units)

    return step


def _half_up(amount: Fraction) -> int:
    return math.floor(amount + Fraction(1, 2))


def _sqrt(given: list[Value], _unit: Unit) -> Value:
    value = _one("sqrt", given)
    if value.kind not in {Kind.NUMBER, Kind.COUNT}:
        raise CarpentryError(f"{value.words} has no root: sqrt takes a number")
    if value.amount < 0:
        raise CarpentryError("a number below 0 has no root")
    return Value(Kind.NUMBER, _root(value.amount), value.units)


def _of_angle(called: str, ratio: Callable[[float], float]) -> Callable[..., Value]:
    def work(given: list[Value], _unit: Unit) -> Value:
        value = _one(called, given)
        if value.kind is not Kind.ANGLE:
            raise CarpentryError(f"{called} takes an angle, such as 8°, not {value.words}")
        around = value.amount % 360
        if called == "tan" and around in {90, 270}:
            raise CarpentryError(f"tan of {value.amount}° is without end")
        return number(_kept(Decimal(ratio(math.radians(float(around))))))

    return work


def _atan2(given: list[Value], unit: Unit) -> Value:
    if len(given) != 2:
        raise CarpentryError("atan2 takes a rise and a run")
    rise, run = alike(given, unit)
    if rise.kind is Kind.ANGLE:
        raise CarpentryError("atan2 takes a rise and a run, not angles")
    if not rise.amount and not run.amount:
        raise CarpentryError("a rise and a run of 0 have no angle")
    scale = max(abs(rise.amount), abs(run.amount))
    turned = math.atan2(float(rise.amount / scale), float(run.amount / scale))
    return Value(Kind.ANGLE, _kept(Decimal(math.degrees(turned))))


def _hypot(given: list[Value], unit: Unit) -> Value:
    if len(given) < 2:
        raise CarpentryError("hypot takes two sides")
    sides = alike(given, unit)
    if sides[0].kind is Kind.ANGLE:
        raise CarpentryError("hypot takes sides, not angles")
    # In units, so that what is whole there is exact.
    by = ticks_per(unit) if sides[0].kind is Kind.LENGTH else 1
    kind = Kind.NUMBER if sides[0].kind is Kind.COUNT else sides[0].kind
    squares = sum(((side.amount / by) ** 2 for side in sides), Fraction(0))
    return Value(kind, _root(squares) * by, sides[0].units)


FUNCTIONS: dict[str, Callable[[list[Value], Unit], Value]] = {
    "min": _least,
    "max": _most,
    "floor": _stepped("floor", math.floor),
    "ceil": _stepped("ceil", math.ceil),
    "round": _stepped("round", _half_up),
    "sqrt": _sqrt,
    "sin": _of_angle("sin", math.sin),
    "cos": _of_angle("cos", math.cos),
    "tan": _of_angle("tan", math.tan),
    "atan2": _atan2,
    "hypot": _hypot,
}
