"""What is looked at before a step counts as done, with its tolerance, what it means to be out of
it, and what to do then. Common practice, no source, but for the diagonals: a frame of two pairs of
equal sides is square when its diagonals are equal (geometry)."""

import re
from dataclasses import dataclass

from carpentry.language import (
    TICKS_PER_INCH,
    CarpentryError,
    Notation,
    Unit,
    read_length,
    unambiguous,
    unit_meant,
    write_length,
)

_SIXTEENTH = TICKS_PER_INCH // 16
_EIGHTH = TICKS_PER_INCH // 8


@dataclass(frozen=True)
class Check:
    """Asks for a figure that is ``tolerance`` (ticks) at the most, or for a yes where that is
    ``None``; ``means`` and ``do`` are for what is out of it."""

    name: str
    asks: str
    tolerance: int | None
    means: str
    do: str

    def told(self, notation: Notation) -> str:
        """``diagonals equal to 1/16``."""
        if self.tolerance is None:
            return self.name
        return f"{self.name} to {write_length(self.tolerance, notation).text}"


@dataclass(frozen=True)
class Answered:
    """An answer to a check as typed, whether it is good, and what it means where it is not."""

    text: str
    good: bool
    says: str


CHECKS = {
    one.name: one
    for one in (
        Check(
            "diagonals equal",
            "difference of the two diagonals",
            _SIXTEENTH,
            "it is out of square",
            "push the two corners of the longer diagonal together before it is fast, and measure "
            "again",
        ),
        Check(
            "square every five boards",
            "how far the fifth board is out of square",
            _EIGHTH,
            "the boards fan out",
            "take up the difference over the next five, a little at each",
        ),
        Check(
            "level",
            "how far one end is higher",
            _EIGHTH,
            "it does not stand level",
            "pack up the low side; wood that stands on the ground needs a stone or a foot under it",
        ),
        Check(
            "centred",
            "how far it is off the middle",
            _SIXTEENTH,
            "it sits to one side",
            "move it by half of that, and measure from both ends",
        ),
        Check(
            "gap even all round",
            "widest gap less the narrowest",
            _SIXTEENTH,
            "it will bind on one side",
            "shift the hinge side first; plane what still rubs",
        ),
        Check(
            "first piece of each length",
            "how far it is off",
            _SIXTEENTH,
            "the stop is off, or the tape was read from its other side",
            "set the stop again before the next piece is cut",
        ),
        Check(
            "trial fit",
            "does it go together dry?",
            None,
            "something does not fit",
            "find the piece that is off and cut it again before there is glue on anything",
        ),
        Check(
            "nothing proud underneath",
            "is nothing proud underneath?",
            None,
            "a screw or an edge stands out",
            "drive it home or plane it off: it scratches, and it keeps boards from lying flat",
        ),
    )
}
_WORDS = {
    "square": "diagonals equal",
    "diagonals": "diagonals equal",
    "diagonals equal": "diagonals equal",
    "fit": "trial fit",
    "dry fit": "trial fit",
    "centered": "centred",
    "gap": "gap even all round",
    "even gap": "gap even all round",
    "proud": "nothing proud underneath",
}
_TO = re.compile(r"(.+?)\s+to\s+(\S.*)")
MOST_TOLERANCE = 2 * TICKS_PER_INCH


def read_check(text: str, unit: Unit) -> Check:
    """A check as it is typed: ``diagonals to 1/16``, ``level``, or words of one's own that are
    answered with yes. Raises ``CarpentryError``."""
    typed = " ".join(text.split())
    found = _TO.fullmatch(typed)
    name, tolerance = (found[1], found[2]) if found else (typed, "")
    known = CHECKS.get(_WORDS.get(name.lower(), name.lower()))
    if known is None and not tolerance:
        return Check(typed, f"{typed}?", None, "it is not as it should be", "set it right first")
    if known is None:
        asks = f"{name}: how far off"
        known = Check(name, asks, 0, "it is not as it should be", "set it right first")
    if not tolerance:
        return known
    ticks = read_length(tolerance, unit_meant(tolerance, unit)).ticks
    if not 0 < ticks <= MOST_TOLERANCE:
        raise CarpentryError("a tolerance is more than 0 and at most 2 in")
    return Check(known.name, known.asks, ticks, known.means, known.do)


def answer_spelled_out(text: str, unit: Unit) -> str:
    """An answer as it reads in any unit of bare numbers."""
    typed = text.strip()
    try:
        meant = unit_meant(typed, unit)
        return unambiguous(typed, read_length(typed, meant).ticks, meant)
    except CarpentryError:
        return typed


def answer_check(check: Check, text: str, unit: Unit, notation: Notation) -> Answered:
    """What an answer comes to: a figure, ``yes`` or ``no``. Raises ``CarpentryError``."""
    typed = text.strip()
    if typed.lower() in ("yes", "y", "ok", "good"):
        return Answered(typed, True, "")
    if typed.lower() in ("no", "n"):
        return Answered(typed, False, f"{check.means}: {check.do}")
    if check.tolerance is None:
        raise CarpentryError("answer with yes or no")
    try:
        off = read_length(typed.lstrip("-"), unit_meant(typed.lstrip("-"), unit)).ticks
    except CarpentryError as error:
        raise CarpentryError(f"“{typed[:40]}” is neither a length, nor yes, nor no") from error
    shown = write_length(off, notation).text
    if off <= check.tolerance:
        return Answered(shown, True, "")
    most = write_length(check.tolerance, notation).text
    return Answered(shown, False, f"{shown} is more than {most}, {check.means}: {check.do}")
