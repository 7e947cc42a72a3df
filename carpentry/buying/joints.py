"""Joints and hardware as they are typed, a line each."""

import re
from collections.abc import Callable
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Any, TypeVar

from carpentry.buying.coating import read_volume
from carpentry.buying.fastener_kinds import KINDS, Kind
from carpentry.buying.fastener_names import read_fastener
from carpentry.buying.fasteners import Through
from carpentry.buying.packages import Package
from carpentry.language import (
    COUNT,
    CarpentryError,
    Problem,
    Unit,
    read_count,
    read_length,
    read_money,
)

MOST_LINES = 500
MOST_COUNT = 10_000
LONGEST_LINE = 400
_JOINT = re.compile(rf"({COUNT})\s*[x×]?\s+([^,]+),(.+)", re.IGNORECASE)
_PIECE = re.compile(r"([A-Z]{1,3})(?:\s+(face|edge|end))?", re.IGNORECASE)
_HELD = re.compile(rf"(?:({COUNT})\s+(?!d\b))?(.+)")
_ITEM = re.compile(r"(have\s+)?(\d{1,9})\s*[x×]?\s+([^@]+?)\s*(?:@\s*(\S+?)(?:\s+([A-Za-z]{3}))?)?")
_DRAWN = re.compile(r"have\s+([\d.]+\s*(?:ml|l|gal|qt|pt|fl\s*oz))\s+(.+)", re.IGNORECASE)
_BETWEEN = re.compile(r"\s+(?:to|into|through|on)\s+", re.IGNORECASE)
_WORDS = {  # each way to say it, and what it says
    "load": "load",
    "recessed": "recessed",
    "recess": "recessed",
    "counterbored": "recessed",
    "countersunk": "countersunk",
    "along": "along",
    "half lap": "lapped",
    "half-lap": "lapped",
    "half lapped": "lapped",
    "lap": "lapped",
    "lapped": "lapped",
    "toe-screwed": "toed",
    "toe screwed": "toed",
    "toe-nailed": "toed",
    "toe nailed": "toed",
    "through the miter": "mitered",
    "through the mitre": "mitered",
    "miter": "mitered",
    "mitre": "mitered",
    "mitered": "mitered",
    "mitred": "mitered",
}
_SAID = ("load", "recessed", "countersunk", "glued", "along", "half lap", "toe-screwed")
_RECESSED = re.compile(r"(?:recess|recessed|counterbored)\s+(\S.*)", re.IGNORECASE)
_SAWN = re.compile(
    r"(?:(?:in|with)\s+a\s+)?(?:rabbet|groove|dado|notch|lap)\s+(\S.*)", re.IGNORECASE
)
_TOE = re.compile(r"\btoe[- ](?=screws?\b|nails?\b)")
_KINDS = ", ".join(Kind)
Typed = TypeVar("Typed")


@dataclass(frozen=True)
class Meeting:
    """A part in a joint, by its mark, and through or into what the fastener goes."""

    mark: str
    through: Through


@dataclass(frozen=True)
class Joint:
    """``count`` equal joints, each held by ``each`` fasteners of a kind, from the first part of
    ``way`` into the last. One of them may ``load`` it, its heads may be ``recessed`` and plugged,
    so deep (ticks) where ``recess`` says so, or ``countersunk``, which is flush; it may be glued
    as well, with a ``glue`` where its line names one; its pieces may lie ``along`` each other or
    be half ``lapped``, each sawn to half
    its thickness, or one be ``sawn`` so deep (ticks) where the fastener goes; it may be driven
    ``toed``, at a slope through an end, or where a ``mitered`` end lies on the other piece. A
    ``length`` (ticks) that was typed is taken as it is. ``name`` is the fastener's with its gauge
    and sort: ``#8 deck screw``."""

    text: str
    count: int
    way: tuple[Meeting, ...]
    each: int
    kind: Kind
    name: str = ""
    load: bool = False
    recessed: bool = False
    recess: int | None = None
    countersunk: bool = False
    length: int | None = None
    glued: bool = False
    glue: str = ""
    along: bool = False
    lapped: bool = False
    sawn: int = 0
    toed: bool = False
    mitered: bool = False

    @property
    def holds_by_itself(self) -> bool:
        """Whether something else than glue, and what takes clamps, holds it."""
        return not KINDS[self.kind].clamps


@dataclass(frozen=True)
class Item:
    """Something to buy by name, at a price for one where it is known; or ``have``: it is in the
    drawer. ``count`` is millilitres where it is a ``volume``. ``currency`` is that of the price
    where it was typed with one."""

    count: int
    name: str
    price: Decimal | None
    have: bool
    volume: bool = False
    currency: str = ""


def read_joint(text: str, unit: Unit) -> Joint:
    """A joint: ``8 B to A edge, 2 screws``, ``4 C to D, 1 carriage bolt, load``, ``6 E to F, 2
    screws, 3in, recessed 1/2``, ``4 G end to H, glue``. After the parts, the order of what is said
    does not matter. Raises ``CarpentryError``."""
    found = _JOINT.fullmatch(text.strip())
    if not found:
        raise CarpentryError("write how many, which parts and how: 8 B to A edge, 2 screws")
    count, way, more = found.groups()
    joint = Joint(text.strip(), _count(count), _way(way), 1, Kind.GLUE)
    held = False
    for typed in filter(None, (" ".join(one.lower().split()) for one in more.split(","))):
        joint, holds = _with(joint, typed, unit, held=held)
        held = held or holds
    if not held and not joint.glued:
        raise CarpentryError(f"nothing holds it: write one of {_KINDS}")
    return joint if held else replace(joint, name=Kind.GLUE.value)


def _with(joint: Joint, typed: str, unit: Unit, *, held: bool) -> tuple[Joint, bool]:
    """A joint with what one word of its line says, and whether that holds it."""
    if typed in _WORDS:
        said: dict[str, Any] = {_WORDS[typed]: True}
        return replace(joint, **said), False
    if sized := _RECESSED.fullmatch(typed):
        return replace(joint, recessed=True, recess=read_length(sized[1], unit).ticks), False
    if sized := _SAWN.fullmatch(typed):
        return replace(joint, sawn=read_length(sized[1], unit).ticks), False
    found = _HELD.fullmatch(_TOE.sub("", typed))
    fastener = read_fastener(found[2], unit) if found else None
    if found and fastener and fastener.kind is Kind.GLUE:
        named = "" if fastener.word in ("glue", "glued") else fastener.word
        return replace(joint, glued=True, glue=named), False
    if found and fastener:
        if held:
            raise CarpentryError(f"“{typed}” is a second fastener: write a line for each")
        joint = replace(
            joint,
            each=_count(found[1] or "1"),
            kind=fastener.kind,
            name=fastener.name,
            length=joint.length if fastener.length is None else fastener.length,
            toed=joint.toed or bool(_TOE.search(typed)),
        )
        return joint, True
    try:
        return replace(joint, length=read_length(typed, unit).ticks), False
    except CarpentryError as error:
        words = ", ".join(_SAID)
        raise CarpentryError(
            f"“{typed}” holds nothing, and is neither {words} nor a length: what holds is one of "
            f"{_KINDS}"
        ) from error


def _count(text: str) -> int:
    count = read_count(text)
    if not 1 <= count <= MOST_COUNT:
        raise CarpentryError(f"from 1 to {MOST_COUNT:,}")
    return count


def _way(text: str) -> tuple[Meeting, ...]:
    meetings = []
    for piece in _BETWEEN.split(text.strip()):
        found = _PIECE.fullmatch(piece.strip())
        if not found:
            raise CarpentryError(
                f"“{piece.strip()}” is no part: write its mark, such as B or B edge"
            )
        meetings.append(Meeting(found[1].upper(), Through((found[2] or "face").lower())))
    if len(meetings) < 2:
        raise CarpentryError("a joint takes two parts: B to A")
    return tuple(meetings)


def read_item(text: str) -> Item:
    """Something to buy, ``2 strap hinge 6in @ 4.50``, ``1 latch @ 3.20 EUR``, or in the drawer,
    ``have 40 screw 2in``, ``have 1 qt oil``. Raises ``CarpentryError``."""
    found = _DRAWN.fullmatch(text.strip())
    volume = read_volume(found[1]) if found else None
    if found and volume:
        return Item(volume, found[2].strip(), None, have=True, volume=True)
    found = _ITEM.fullmatch(text.strip())
    if not found:
        raise CarpentryError("write how many and what: 2 strap hinge @ 4.50, or have 40 screw 2in")
    have, count, name, price, currency = found.groups()
    return Item(
        _count(count),
        name.strip(),
        read_money(price) if price else None,
        bool(have),
        currency=(currency or "").upper(),
    )


def read_package(text: str) -> Package:
    """What a yard sells by the pack or can: ``screw 2 1/2in, 100, 9.50``, ``oil, 1 qt, 21.00``.
    Raises ``CarpentryError``."""
    words = [word.strip() for word in text.split(",")]
    if len(words) != 3 or not words[0]:
        raise CarpentryError("write a name, how many it holds, and its price: screw 2in, 100, 9.50")
    volume = read_volume(words[1])
    if volume is None and not re.fullmatch(r"\d{1,6}", words[1]):
        raise CarpentryError(f"“{words[1]}” is no content: write a number or a volume like 1 qt")
    if not words[2]:
        raise CarpentryError(f"“{words[0]}” has no price: packs are chosen by it")
    holds = int(words[1]) if volume is None else volume
    if holds < 1:
        raise CarpentryError("a pack holds one or more")
    price = read_money(words[2])
    return Package(words[0], holds, price, volume=volume is not None, content=words[1])


def read_each_line(text: str, read: Callable[[str], Typed]) -> tuple[list[Typed], list[Problem]]:
    """What each line that is not empty means, and the problems of those that mean nothing, by
    line."""
    lines = [(n, line) for n, line in enumerate(text.splitlines(), start=1) if line.strip()]
    if len(lines) > MOST_LINES:
        return [], [Problem("line 1", f"at most {MOST_LINES} lines")]
    found: list[Typed] = []
    problems: list[Problem] = []
    for number, line in lines:
        if len(line) > LONGEST_LINE:
            told = f"a line has {LONGEST_LINE} characters at the most"
            problems.append(Problem(f"line {number}", told))
            continue
        try:
            found.append(read(line))
        except CarpentryError as error:
            problems += [Problem(f"line {number}", p.message) for p in error.problems]
    return found, problems


def hardware_key(name: str, unit: Unit) -> tuple[str, int | None]:
    """What two names of hardware have in common when they mean the same: a fastener with its gauge
    and its length in ticks, or the name in lower case."""
    fastener = read_fastener(name, unit)
    if fastener and fastener.length is not None:
        return fastener.name, fastener.length
    return " ".join(name.lower().split()), None
