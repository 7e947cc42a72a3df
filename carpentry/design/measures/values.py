"""What a measure can be, and how two of them are reckoned with: exact, and refused in words where
they do not go together.

A length is a rational count of ticks, an angle of degrees; a number and a count are as they are. A
bare figure is a number, which stands for a length wherever one is wanted: in the unit that bare
figures were in where it was typed.
"""

from dataclasses import dataclass, field
from enum import StrEnum
from fractions import Fraction

from carpentry.language import LONGEST, CarpentryError, Unit, ticks_per

_NO_UNITS: frozenset[Unit] = frozenset()
_ONE_UNIT = {unit: frozenset({unit}) for unit in Unit}
_MOST_DIGITS = 400  # bits of a numerator or denominator, so that nothing grows without end


class Kind(StrEnum):
    LENGTH = "length"
    NUMBER = "number"
    COUNT = "count"
    ANGLE = "angle"


_WORDS = {
    Kind.LENGTH: "a length",
    Kind.NUMBER: "a number",
    Kind.COUNT: "a count",
    Kind.ANGLE: "an angle",
}
_PLAIN = (Kind.NUMBER, Kind.COUNT)


@dataclass(frozen=True, slots=True)
class Value:
    """A kind with its amount: ticks of a length, degrees of an angle. ``units`` are those that the
    bare figures it comes from stand for lengths in."""

    kind: Kind
    amount: Fraction
    units: frozenset[Unit] = field(default=_NO_UNITS, compare=False)

    @property
    def words(self) -> str:
        return _WORDS[self.kind]


def number(amount: Fraction | int, unit: Unit | None = None) -> Value:
    """A number; ``unit`` is the one it stands for a length in, as a bare figure."""
    units = _NO_UNITS if unit is None else _ONE_UNIT[unit]
    return _within(Value(Kind.NUMBER, Fraction(amount), units))


def length(ticks: Fraction | int) -> Value:
    return _within(Value(Kind.LENGTH, Fraction(ticks)))


def _within(value: Value) -> Value:
    size = max(value.amount.numerator.bit_length(), value.amount.denominator.bit_length())
    if size > _MOST_DIGITS:
        raise CarpentryError("the figures grow too long to be reckoned exactly")
    if value.kind is Kind.LENGTH and abs(value.amount) > LONGEST:
        raise CarpentryError("that is longer than a kilometre")
    return value


def as_length(value: Value, unit: Unit) -> Value:
    """The length that a value is or, as a bare figure, stands for: in ``unit`` where nothing else
    is known. Raises ``CarpentryError``."""
    if value.kind is Kind.LENGTH:
        return value
    if len(value.units) > 1:
        raise CarpentryError(
            "bare figures typed as inches and as millimetres meet: write the units of the lengths"
        )
    if value.kind is Kind.NUMBER:
        return length(value.amount * ticks_per(next(iter(value.units), unit)))
    raise CarpentryError(f"{value.words} is no length")


def alike(values: list[Value], unit: Unit) -> list[Value]:
    """Values that can be added or compared, as values of one kind. Raises ``CarpentryError``."""
    first = values[0]
    if all(value.kind is first.kind and value.units == first.units for value in values):
        return values
    kinds = {value.kind for value in values}
    if kinds == {Kind.LENGTH, Kind.NUMBER}:
        return [as_length(value, unit) for value in values]
    if kinds <= set(_PLAIN):
        kind = Kind.COUNT if kinds == {Kind.COUNT} else Kind.NUMBER
        units = frozenset[Unit]().union(*(value.units for value in values))
        return [Value(kind, value.amount, units) for value in values]
    if len(kinds) == 1:
        return values
    one, other = sorted(kinds)[:2]
    hint = ": write the degrees with °" if Kind.ANGLE in kinds and Kind.NUMBER in kinds else ""
    raise CarpentryError(f"{_WORDS[one]} and {_WORDS[other]} do not add{hint}")


def add(one: Value, other: Value, unit: Unit) -> Value:
    one, other = alike([one, other], unit)
    return _within(Value(one.kind, one.amount + other.amount, one.units))


def subtract(one: Value, other: Value, unit: Unit) -> Value:
    one, other = alike([one, other], unit)
    return _within(Value(one.kind, one.amount - other.amount, one.units))


def multiply(one: Value, other: Value, _unit: Unit) -> Value:
    if one.kind not in _PLAIN and other.kind not in _PLAIN:
        if one.kind is other.kind is Kind.LENGTH:
            raise CarpentryError("two lengths multiplied are an area, and no measure is one")
        raise CarpentryError(f"{one.words} cannot be multiplied by {other.words}")
    kinds = {one.kind, other.kind}
    kind = next(
        (kind for kind in (Kind.LENGTH, Kind.ANGLE, Kind.NUMBER) if kind in kinds), one.kind
    )
    units = one.units if one.units == other.units else one.units | other.units
    return _within(Value(kind, one.amount * other.amount, units))


def divide(one: Value, other: Value, unit: Unit) -> Value:
    if not other.amount:
        raise CarpentryError("nothing can be divided by 0")
    if one.kind is Kind.NUMBER and other.kind is Kind.LENGTH:
        one = as_length(one, unit)
    if one.kind in _PLAIN and other.kind in _PLAIN:
        return _within(Value(Kind.NUMBER, one.amount / other.amount, one.units))
    if one.kind is other.kind:
        return number(one.amount / other.amount)
    if other.kind not in _PLAIN:
        raise CarpentryError(f"{one.words} cannot be divided by {other.words}")
    return _within(Value(one.kind, one.amount / other.amount, one.units))


def negate(value: Value) -> Value:
    return Value(value.kind, -value.amount, value.units)
