"""Rules of thumb as a builder types them, a line each: ``into a face: 1/2``, ``bolt takes: 2
washer, 1 nut``. What no line speaks of stays as usual."""

import re
from collections.abc import Callable, Mapping
from dataclasses import replace
from fractions import Fraction
from functools import partial

from carpentry.buying.fastener_kinds import Kind
from carpentry.buying.fasteners import RECESS, USUAL_RULES, Rules
from carpentry.buying.joints import read_each_line
from carpentry.language import TICKS_PER_FOOT, CarpentryError, Problem, Unit, read_length

MOST_TAKEN = 20
_SHARES: Mapping[str, Callable[[Rules, Fraction], Rules]] = {
    "into a face": lambda rules, share: replace(rules, into_face=share),
    "into an edge": lambda rules, share: replace(rules, into_edge=share),
    "enough of a screw": lambda rules, share: replace(rules, enough_share=share),
}
RULE_SIZES: Mapping[str, Callable[[Rules, int], Rules]] = {
    "short of through": lambda rules, size: replace(rules, short=size),
    "recess": lambda rules, size: replace(rules, recess=size),
    "washers and nut": lambda rules, size: replace(rules, nut=size),
    "enough bite": lambda rules, size: replace(rules, enough=size),
}
_TAKES = {f"{kind.value} takes": kind.value for kind in Kind} | {"recess takes": RECESS}
_SHARE = re.compile(r"(?:(\d+)\s+)?(\d+)(?:/(\d+))?")
_TAKEN = re.compile(r"(\d+)\s+(.+)")
USUAL_LINES = (
    "into a face: 2/3",
    "into an edge: 1 1/2",
    "short of through: 1/8in",
    "recess: 1/4in",
    "washers and nut: 1/2in",
    "enough of a screw: 1/3",
    "enough bite: 1in",
    "bolt takes: 2 washer, 1 nut",
    "carriage bolt takes: 1 washer, 1 nut",
    "recess takes: 1 plug",
)
Change = Callable[[Rules], Rules]


def read_rules(text: str, unit: Unit) -> tuple[Rules, list[Problem]]:
    """The rules that lines change, and the problems of those that are none, by line."""
    changes, problems = read_each_line(text, partial(_read_rule, unit=unit))
    rules = USUAL_RULES
    for change in changes:
        rules = change(rules)
    return rules, problems


def _read_rule(text: str, unit: Unit) -> Change:
    name, colon, value = (part.strip() for part in text.partition(":"))
    name = " ".join(name.lower().split())
    if colon and name in _SHARES:
        share = _share(value)
        return lambda rules: _SHARES[name](rules, share)
    if colon and name in RULE_SIZES:
        size = _size(value, unit)
        return lambda rules: RULE_SIZES[name](rules, size)
    if colon and name in _TAKES:
        taken = _taken(value)
        return lambda rules: replace(rules, taken={**rules.taken, _TAKES[name]: taken})
    known = ", ".join((*_SHARES, *RULE_SIZES, "bolt takes"))
    raise CarpentryError(f"“{text.strip()}” is no rule: write one of {known}, a colon and a value")


def _share(text: str) -> Fraction:
    found = _SHARE.fullmatch(text)
    if not found or found[3] == "0":
        raise CarpentryError(f"“{text}” is no share: write such as 2/3 or 1 1/2")
    part = Fraction(int(found[2]), int(found[3] or 1))
    share = int(found[1] or 0) + part
    if not 0 < share <= 10:
        raise CarpentryError("a share is more than 0, and 10 at the most")
    return share


def _size(text: str, unit: Unit) -> int:
    ticks = read_length(text, unit).ticks
    if not 0 <= ticks <= TICKS_PER_FOOT:
        raise CarpentryError("from 0 to a foot")
    return ticks


def _taken(text: str) -> dict[str, int]:
    taken = {}
    for part in filter(None, (one.strip() for one in text.split(","))):
        found = _TAKEN.fullmatch(part)
        if part.lower() == "nothing":
            continue
        if not found or int(found[1]) > MOST_TAKEN:
            raise CarpentryError(f"“{part}” is not taken: write such as 2 washer, or nothing")
        taken[found[2].strip().lower()] = int(found[1])
    return taken
