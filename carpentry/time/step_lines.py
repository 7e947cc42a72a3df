"""Steps as they are typed, a line each: one of one's own, or what is otherwise of one that is
there."""

import re
from collections.abc import Callable
from dataclasses import dataclass, replace
from fractions import Fraction

from carpentry.buying.products import MOST_STAY
from carpentry.hours.durations import DURATION, LONGEST_WORK, read_duration
from carpentry.hours.weather import read_celsius
from carpentry.language import CarpentryError, Unit
from carpentry.time.checks import Check, read_check
from carpentry.time.step import MOST_NAME

MOST_CLAMPS = 200
MOST_COATS = 20


@dataclass(frozen=True)
class TypedStep:
    """What a line says of the step ``name``; ``None`` or nothing for what it does not say. What it
    comes ``after`` is added to what it needs by itself, unless it comes ``only`` after that."""

    text: str
    name: str
    minutes: int | None = None
    wait: int | None = None
    stays: bool | None = None
    coats: int | None = None
    check: Check | None = None
    clamps: int | None = None
    helper: bool = False
    daylight: bool = False
    dry: bool = False
    least: Fraction | None = None
    after: tuple[str, ...] = ()
    only: bool = False
    before: tuple[str, ...] = ()
    before_closing: bool = False
    loose: bool = False
    product: str = ""
    may_split: bool | None = None
    left_out: bool = False
    called: str = ""


Take = Callable[[TypedStep, re.Match[str], Unit], TypedStep]


def _minutes(step: TypedStep, found: re.Match[str], unit: Unit) -> TypedStep:
    minutes = read_duration(found[1], most=LONGEST_WORK, of="hands-on work")
    return replace(step, minutes=minutes)


def _wait(step: TypedStep, found: re.Match[str], unit: Unit) -> TypedStep:
    wait = read_duration(found[2])
    stays = found[1].lower() == "stay" or 5 <= wait <= MOST_STAY
    return replace(step, wait=wait, stays=stays)


def _coats(step: TypedStep, found: re.Match[str], unit: Unit) -> TypedStep:
    if not 1 <= int(found[1]) <= MOST_COATS:
        raise CarpentryError(f"from 1 to {MOST_COATS} coats")
    return replace(step, coats=int(found[1]))


def _clamps(step: TypedStep, found: re.Match[str], unit: Unit) -> TypedStep:
    if int(found[1]) > MOST_CLAMPS:
        raise CarpentryError(f"at most {MOST_CLAMPS} clamps")
    return replace(step, clamps=int(found[1]))


_CLAUSES: tuple[tuple[str, Take], ...] = (
    (rf"({DURATION})(?:\s+of work)?", _minutes),
    (rf"(?:then\s+)?(wait|stay)\s+(?:for\s+)?({DURATION})", _wait),
    (r"(\d{1,3})\s+coats?", _coats),
    (r"(?:needs\s+)?(\d{1,4})\s+clamps?", _clamps),
    (r"(?:needs\s+)?(?:a\s+)?helper", lambda step, found, unit: replace(step, helper=True)),
    (r"(?:needs\s+)?daylight", lambda step, found, unit: replace(step, daylight=True)),
    (r"(?:needs\s+)?dry(?:\s+weather)?", lambda step, found, unit: replace(step, dry=True)),
    (
        r"(?:needs\s+)?(?:at least\s+)?(-?\d+(?:\.\d+)?)\s*°?\s*([FC])",
        lambda step, found, unit: replace(step, least=read_celsius(found[1], found[2])),
    ),
    (
        r"check\s+(.+)",
        lambda step, found, unit: replace(step, check=read_check(found[1], unit)),
    ),
    (
        r"only after\s+(.+)",
        lambda step, found, unit: replace(step, after=(*step.after, found[1]), only=True),
    ),
    (r"after\s+(.+)", lambda step, found, unit: replace(step, after=(*step.after, found[1]))),
    (r"at once", lambda step, found, unit: replace(step, only=True)),
    (r"before closing", lambda step, found, unit: replace(step, before_closing=True)),
    (r"before\s+(.+)", lambda step, found, unit: replace(step, before=(*step.before, found[1]))),
    (r"loose until measured", lambda step, found, unit: replace(step, loose=True)),
    (r"with\s+(.+)", lambda step, found, unit: replace(step, product=found[1].strip())),
    (r"may be split", lambda step, found, unit: replace(step, may_split=True)),
    (r"in one go", lambda step, found, unit: replace(step, may_split=False)),
    (r"left out", lambda step, found, unit: replace(step, left_out=True)),
    (r"called\s+(.+)", lambda step, found, unit: replace(step, called=found[1].strip())),
)
_WAYS = tuple((re.compile(way, re.IGNORECASE), take) for way, take in _CLAUSES)
_CLOSING = re.compile(r"(.+?)\s+before closing", re.IGNORECASE)
HELP = (
    "after its name, with commas: 20 min, then wait 10 h, 2 coats, needs 4 clamps, needs a helper, "
    "check diagonals to 1/16, after another step, only after another, before another, before "
    "closing, left out"
)


def read_step(text: str, unit: Unit) -> TypedStep:
    """A step as it is typed: ``glue up the shelf panels, 20 min, then wait overnight``, ``paint
    slats before closing, 2 coats``. Raises ``CarpentryError``."""
    name, *clauses = (one.strip() for one in text.split(","))
    if not name:
        raise CarpentryError("a step begins with what is done: glue up the panels, 20 min")
    if len(name) > MOST_NAME:
        raise CarpentryError(f"the name of a step has {MOST_NAME} characters at the most")
    closing = _CLOSING.fullmatch(name)
    found = TypedStep(text.strip(), closing[1] if closing else name)
    if closing:
        found = replace(found, before_closing=True)
    for clause in filter(None, clauses):
        found = _with(found, clause, unit)
    return found


def _with(step: TypedStep, clause: str, unit: Unit) -> TypedStep:
    for way, take in _WAYS:
        said = way.fullmatch(clause)
        if said:
            return take(step, said, unit)
    raise CarpentryError(f"“{clause[:60]}” says nothing of a step; {HELP}")
