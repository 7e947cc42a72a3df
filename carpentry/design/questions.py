"""What builders ask before there is a part: each is a formula that can be read and changed.

What is asked for is a figure or a name. The rules are common practice, no source: a board gives
``n`` equal pieces less its trims and a kerf between two, a panel is as wide as the inside and both
grooves, less what it needs to move, leaves share an opening less the gaps round and between them.
"""

import re
from collections.abc import Mapping
from dataclasses import dataclass

from carpentry.language import CarpentryError

_PLAIN = re.compile(r"[\w\s./°½¼¾⅛⅜⅝⅞'\"′″]*")


@dataclass(frozen=True)
class Asked:
    """One figure that a question needs; ``usual`` is what it begins with."""

    name: str
    heading: str
    usual: str = ""


@dataclass(frozen=True)
class Question:
    """A question, what it asks for, and the formula that answers it."""

    name: str
    title: str
    asks: tuple[Asked, ...]
    formula: str

    def answer(self, given: Mapping[str, str]) -> str:
        """The formula with what was given. Raises ``CarpentryError`` for what is missing."""
        missing = [one.heading for one in self.asks if not given.get(one.name, "").strip()]
        if missing:
            raise CarpentryError(f"is missing: {', '.join(missing)}")
        return self.formula.format(**{one.name: _bracketed(given[one.name]) for one in self.asks})


def answer_to(name: str, given: Mapping[str, str]) -> str:
    """The formula that answers a question. Raises ``CarpentryError``."""
    question = next((one for one in QUESTIONS if one.name == name), None)
    if question is None:
        raise CarpentryError(f"“{name}” is no question that is known")
    return question.answer(given)


def _bracketed(text: str) -> str:
    """What was given, in brackets where it is more than one figure or one name."""
    plain = text.strip()
    return plain if _PLAIN.fullmatch(plain) else f"({plain})"


QUESTIONS = (
    Question(
        "half",
        "Half of a board, less trims and kerf",
        (Asked("board", "Board, such as 8 ft"),),
        "({board} - first trim - last trim - kerf) / 2",
    ),
    Question(
        "equal",
        "Equal pieces of a board, as long as can be",
        (Asked("board", "Board, such as 10 ft"), Asked("pieces", "How many", "2")),
        "({board} - first trim - last trim - ({pieces} - 1) * kerf) / {pieces}",
    ),
    Question("middle", "Half or centre of a size", (Asked("size", "Size or name"),), "{size} / 2"),
    Question(
        "round",
        "Round something: its size and a gap on both sides",
        (Asked("size", "Measured size or name"), Asked("gap", "Gap on each side")),
        "{size} + 2 * {gap}",
    ),
    Question(
        "within",
        "Into an opening, with a gap on both sides",
        (Asked("opening", "Opening or name"), Asked("gap", "Gap on each side", "1/8 in")),
        "{opening} - 2 * {gap}",
    ),
    Question(
        "panel",
        "A loose panel in two grooves",
        (
            Asked("inside", "Inside, between the frames"),
            Asked("groove", "Depth of the groove", "3/8 in"),
            Asked("clearance", "Left free in all, for the wood to move", "1/8 in"),
        ),
        "{inside} + 2 * {groove} - {clearance}",
    ),
    Question(
        "door",
        "A door, or one of its leaves, in an opening",
        (
            Asked("opening", "Opening or name"),
            Asked("gap", "Gap all round", "1/8 in"),
            Asked("leaves", "Leaves", "1"),
            Asked("between", "Gap between leaves", "1/8 in"),
        ),
        "({opening} - 2 * {gap} - ({leaves} - 1) * {between}) / {leaves}",
    ),
)
