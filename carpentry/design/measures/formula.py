"""Reading formulas: figures, names, what is said of parts and runs, and how they are reckoned.

Nothing is evaluated as code. A formula becomes the steps of a reckoner with a stack, so that the
deepest one takes no more room than the longest.
"""

import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property, lru_cache, partialmethod
from itertools import accumulate
from typing import cast

from lark import Lark, Token, Transformer, UnexpectedCharacters, UnexpectedInput, UnexpectedToken

from carpentry.design.measures.functions import FUNCTIONS
from carpentry.design.measures.values import (
    Kind,
    Value,
    add,
    divide,
    length,
    multiply,
    negate,
    number,
    subtract,
)
from carpentry.language import CarpentryError, LengthError, Unit, read_exactly, ticks_per

LONGEST_FORMULA = 500
DEEPEST = 40
OF_PARTS = ("length", "width", "thickness", "quantity", "edge", "angle")
OF_RUNS = ("gap", "count", "last")
CHOICES = ("largest", "smallest", "spread")
UNITS = ("in", "ft", "mm", "cm", "m", "deg")
RESERVED = (*FUNCTIONS, *CHOICES, *UNITS, "of", "plus")

_INCH = r"(?:inches|inch|in\b\.?|[\"″”]|['′’]{2})"
_FOOT = r"(?:feet|foot|ft\b\.?|['′’](?!['′’]))"
_METRIC = r"(?:millimet(?:er|re)s?|mm\b|centimet(?:er|re)s?|cm\b|met(?:er|re)s?|m\b)"
_ANY_UNIT = rf"(?:{_INCH}|{_FOOT}|{_METRIC})"
_NUMBER = r"(?:\d+(?:\.\d+)?|\.\d+)"
_FRACTION = r"\d+[\/⁄]\d+"
_MIXED = rf"(?:\d+\s+{_FRACTION}|\d*\s*[½¼¾⅛⅜⅝⅞])"
_WORD = r"(?!(?:of|plus)\b)[a-zß-öø-ÿ][a-zß-öø-ÿ0-9]*"
NAME = re.compile(rf"{_WORD}(?: +{_WORD})*")
_OF_UNIT = re.compile(r"\s*(in|mm)\s*:")
_HAS_UNIT = re.compile(rf"{_ANY_UNIT}\s*$")
_TWO_WAYS = re.compile(rf"(?<![\d.])\d+-{_FRACTION}")

_GRAMMAR = rf"""
    ?start: sum | choice | choice "plus" sum -> add
    choice: CHOICE "of" sum ("," sum)*
    ?sum: product | sum "+" product -> add | sum ("-" | "−" | "–") product -> subtract
    ?product: signed | product ("*" | "×") signed -> multiply
        | product ("/" | "÷") signed -> divide
    ?signed: atom | ("-" | "−" | "–") signed -> negate | "+" signed
    ?atom: FIGURE -> figure | ANGLE -> angle | NAME -> name | call | reference | "(" sum ")"
    call: NAME "(" sum ("," sum)* ")"
    reference: NAME "of" (MARK | NAME)

    CHOICE.4: /(?:{"|".join(CHOICES)})(?=\s+of\b)/
    ANGLE.3: /{_NUMBER}\s*(?:°|deg(?:rees?)?\b)/
    FIGURE.2: /\d+\s*{_FOOT}(?:-|\s*)(?:{_MIXED}|{_FRACTION}|{_NUMBER})(?:\s*{_INCH})?/
        | /{_MIXED}(?:\s*{_ANY_UNIT})?/
        | /{_FRACTION}\s*{_ANY_UNIT}/
        | /{_NUMBER}(?:\s*{_ANY_UNIT})?/
    NAME: /{_WORD}(?:\s+{_WORD})*/
    MARK: /[A-Z]+\b/
    %ignore /\s+/
"""


@dataclass(frozen=True, slots=True)
class Reference:
    """What is said of a part, by its letter, or of a run: ``width of A``, ``gap of pickets``."""

    field: str
    of: str

    def __str__(self) -> str:
        return f"{self.field} of {self.of}"


Step = Value | str | Reference | tuple[Callable[[list[Value], Unit], Value], int]
Known = Mapping[str, Value]
Look = Callable[[Reference], Value]


@dataclass(frozen=True)
class Formula:
    """A formula that was read: what it names, and the steps in which it is worked out. ``unit`` is
    what its bare figures are in where they stand for lengths."""

    text: str
    unit: Unit
    steps: tuple[Step, ...]

    @cached_property
    def names(self) -> tuple[str, ...]:
        """The measures that it rests on, in the order in which they are named."""
        return tuple(dict.fromkeys(step for step in self.steps if isinstance(step, str)))

    @cached_property
    def references(self) -> tuple[Reference, ...]:
        """The parts and runs that it rests on."""
        return tuple(dict.fromkeys(step for step in self.steps if isinstance(step, Reference)))

    def value(self, known: Known, look: Look) -> Value:
        """What it comes to, from the values of its names and of what it refers to.

        Raises ``CarpentryError`` in words where figures do not go together, ``KeyError`` for a
        name that is not among ``known``.
        """
        return self._worked(known, look, [])

    def specimens(self, known: Known, look: Look) -> list[Value]:
        """The things measured of which it takes the largest or the smallest, each as it was given;
        none of another formula. Raises as ``value``."""
        found: list[Value] = []
        if any(isinstance(step, tuple) and step[0] in _OF_SPECIMENS for step in self.steps):
            self._worked(known, look, found)
        return found

    @property
    def takes_smallest(self) -> bool:
        """Whether it is the smallest of its specimens that it takes."""
        return any(isinstance(step, tuple) and step[0] is _smallest for step in self.steps)

    def _worked(self, known: Known, look: Look, specimens: list[Value]) -> Value:
        stack: list[Value] = []
        for step in self.steps:
            if isinstance(step, Value):
                stack.append(step)
            elif isinstance(step, str):
                stack.append(known[step])
            elif isinstance(step, Reference):
                stack.append(look(step))
            else:
                work, count = step
                given = stack[-count:]
                del stack[-count:]
                if work in _OF_SPECIMENS:
                    specimens.extend(given)
                stack.append(work(given, self.unit))
        return stack[0]


def _negated(given: list[Value], _unit: Unit) -> Value:
    return negate(given[0])


def _spread(given: list[Value], unit: Unit) -> Value:
    least, most = FUNCTIONS["min"](given, unit), FUNCTIONS["max"](given, unit)
    return subtract(most, least, unit)


def _largest(given: list[Value], unit: Unit) -> Value:
    return FUNCTIONS["max"](given, unit)


def _smallest(given: list[Value], unit: Unit) -> Value:
    return FUNCTIONS["min"](given, unit)


_CHOOSE = {"largest": _largest, "smallest": _smallest, "spread": _spread}
_OF_SPECIMENS = (_largest, _smallest)
Work = Callable[[Value, Value, Unit], Value]


class _Steps(Transformer[Token, list[Step]]):
    """Turns what was read into steps, from the inside out."""

    def __init__(self, unit: Unit) -> None:
        super().__init__()
        self.unit = unit

    def figure(self, found: list[Token]) -> list[Step]:
        text, before = str(found[0]), (found[0].column or 1) - 1
        try:
            ticks = read_exactly(text, self.unit)
        except LengthError as error:
            raise LengthError(error.said, before + error.column) from error
        if _HAS_UNIT.search(text):
            return [length(ticks)]
        return [number(ticks / ticks_per(self.unit), self.unit)]

    def angle(self, found: list[Token]) -> list[Step]:
        digits = re.match(_NUMBER, found[0])
        return [Value(Kind.ANGLE, Fraction(digits[0] if digits else "0"))]

    def name(self, found: list[Token]) -> list[Step]:
        return [" ".join(found[0].split())]

    def reference(self, found: list[Token]) -> list[Step]:
        field, of = (" ".join(one.split()) for one in found)
        fields = OF_PARTS if found[1].type == "MARK" else OF_RUNS
        if field not in fields:
            whose = "part" if fields is OF_PARTS else "run"
            raise CarpentryError(
                f"“{field}” is nothing that a {whose} has: {', '.join(fields)} of {of}"
            )
        return [Reference(field, of)]

    def call(self, found: list[Token | list[Step]]) -> list[Step]:
        called, *given = found
        work = FUNCTIONS.get(str(called))
        if work is None:
            raise CarpentryError(f"“{called}” is no function: {', '.join(FUNCTIONS)}")
        return [*_flat(given), (work, len(given))]

    def choice(self, found: list[Token | list[Step]]) -> list[Step]:
        called, *given = found
        return [*_flat(given), (_CHOOSE[str(called)], len(given))]

    def negate(self, found: list[list[Step]]) -> list[Step]:
        return [*found[0], (_negated, 1)]

    def _both(self, found: list[list[Step]], work: Work) -> list[Step]:
        return [*_flat(found), (lambda given, unit: work(given[0], given[1], unit), 2)]

    add = partialmethod(_both, work=add)
    subtract = partialmethod(_both, work=subtract)
    multiply = partialmethod(_both, work=multiply)
    divide = partialmethod(_both, work=divide)


def _flat(found: Sequence[Token | list[Step]]) -> list[Step]:
    return [step for one in found if isinstance(one, list) for step in one]


@lru_cache
def _parser(unit: Unit) -> Lark:
    return Lark(_GRAMMAR, parser="lalr", transformer=_Steps(unit), cache=False)


@lru_cache(10_000)
def read_formula(text: str, unit: Unit) -> Formula:
    """A formula as it was typed, without the ``=`` before it; ``unit`` is what a bare figure that
    stands for a length is in, unless the formula says so itself: ``in: 72``, ``mm: 1829``.

    Raises ``CarpentryError`` with the column at which it stopped making sense.
    """
    if len(text) > LONGEST_FORMULA:
        raise CarpentryError(f"a formula has {LONGEST_FORMULA} characters at the most")
    said, unit = _unit_said(text, unit)
    if not text[said:].strip():
        raise CarpentryError("a formula is missing")
    deepest = max(accumulate({"(": 1, ")": -1}.get(letter, 0) for letter in text))
    if deepest > DEEPEST:
        raise CarpentryError(f"brackets stand {DEEPEST} deep in one another at the most")
    doubtful = _TWO_WAYS.search(text)
    if doubtful:
        whole, _, fraction = doubtful[0].partition("-")
        raise CarpentryError(
            f"{doubtful[0]} can be read two ways: write {whole} {fraction}, or {whole} - {fraction}"
        )
    try:
        body = " " * said + text[said:]
        steps = cast(list[Step], _parser(unit).parse(body))  # what the transformer made of it
    except UnexpectedInput as error:
        raise CarpentryError(_why(text, error)) from error
    return Formula(text.strip(), unit, tuple(steps))


def _unit_said(text: str, unit: Unit) -> tuple[int, Unit]:
    """Where a formula begins after the unit that it says, and the unit of its bare figures."""
    said = _OF_UNIT.match(text)
    return (said.end(), Unit(said[1])) if said else (0, unit)


def keeping_unit(text: str, unit: Unit) -> str:
    """A formula as it is typed where bare figures are no longer in this unit but in the other one:
    it says which its own are in, unless it has none or they are in that other one."""
    formula = read_formula(text, unit)
    said = _OF_UNIT.match(text)
    if said and formula.unit is not unit:
        return text[said.end() :].strip()
    bare = any(isinstance(step, Value) and step.units for step in formula.steps)
    return f"{unit.value}: {text.strip()}" if bare and not _OF_UNIT.match(text) else text


def renamed(formula: Formula, old: str, new: str, *, run: bool = False) -> str:
    """The text of a formula in which a measure, or else a ``run``, is called otherwise; all else
    stays as typed."""
    begins, _ = _unit_said(formula.text, formula.unit)
    tokens = list(_parser(formula.unit).lex(" " * begins + formula.text[begins:]))
    found, at = "", 0
    for before, token, after in zip([None, *tokens[:-1]], tokens, [*tokens[1:], None], strict=True):
        is_field_or_function = after is not None and after.value in {"of", "("}
        is_of = before is not None and before.value == "of" and token.type == "NAME"
        is_run = is_of and before is not tokens[1 if tokens[0].type == "CHOICE" else 0]
        if token.type != "NAME" or is_field_or_function or is_run != run:
            continue
        if " ".join(token.split()) == old:
            found += formula.text[at : token.start_pos] + new
            at = token.end_pos or len(formula.text)
    return found + formula.text[at:]


def _why(text: str, error: UnexpectedInput) -> str:
    """Why a text is no formula, in words."""
    if isinstance(error, UnexpectedCharacters):
        letter = text[error.pos_in_stream or 0]
        if letter.isalpha():
            return f"names are lower-case words (column {error.column})"
        return f"“{letter}” means nothing here (column {error.column})"
    if isinstance(error, UnexpectedToken) and error.token.type == "$END":
        if "RPAR" in error.expected and text.count("(") > text.count(")"):
            return "a “)” is missing at the end"
        return "it ends where a figure or a name is expected"
    if isinstance(error, UnexpectedToken):
        found = f"“{error.token}” (column {error.column})"
        if error.token.type == "COMMA" and text.count("(") == 0:
            return f"write the decimals with a point, not a comma (column {error.column})"
        if error.token.type == "RPAR" and text.count(")") > text.count("("):
            return f"{found} closes nothing that is open"
        if "PLUS" in error.expected:
            return f"before {found} it is not said what to do: + - * or /"
        return f"a figure or a name is expected instead of {found}"
    return "it cannot be read"
