"""Joints and hardware as they are typed, a line each."""

import re
from collections.abc import Callable
from dataclasses import dataclass
from decimal import Decimal
from typing import TypeVar

from carpentry.buying.coating import read_volume
from carpentry.buying.fastener_names import Fastener, read_fastener
from carpentry.buying.fasteners import Kind, Through
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
JOINT_WORDS = ("load", "recessed", "glued", "along", "half lap")
MOST_COUNT = 10_000
LONGEST_LINE = 400
_JOINT = re.compile(rf"({COUNT})\s*[x×]?\s+([^,]+),\s*([^,]+)((?:,[^,]+)*)", re.IGNORECASE)
_PIECE = re.compile(r"([A-Z]{1,3})(?:\s+(face|edge|end))?", re.IGNORECASE)
_HELD = re.compile(rf"(?:({COUNT})\s+(?!d\b))?(.+)")
_ITEM = re.compile(r"(have\s+)?(\d{1,9})\s*[x×]?\s+([^@]+?)\s*(?:@\s*(\S+?)(?:\s+([A-Za-z]{3}))?)?")
_DRAWN = re.compile(r"have\s+([\d.]+\s*(?:ml|l|gal|qt|pt|fl\s*oz))\s+(.+)", re.IGNORECASE)
_BETWEEN = re.compile(r"\s+(?:to|into|through|on)\s+", re.IGNORECASE)
_SAME_WORD = {"lap": "half lap", "lapped": "half lap", "half-lap": "half lap", "recess": "recessed"}
Typed = TypeVar("Typed")


@dataclass(frozen=True)
class Meeting:
    """A part in a joint, by its mark, and through or into what the fastener goes."""

    mark: str
    through: Through


@dataclass(frozen=True)
class Joint:
    """``count`` equal joints, each held by ``each`` fasteners of a kind, from the first part of
    ``way`` into the last. One of them may ``load`` it, its heads may be recessed and plugged, it
    may be ``glued`` as well, its pieces may lie ``along`` each other or be half ``lapped``, each
    sawn to half its thickness; a ``length`` (ticks) that was typed is taken as it is. ``name`` is
    the fastener's with its gauge and sort: ``#8 deck screw``."""

    text: str
    count: int
    way: tuple[Meeting, ...]
    each: int
    kind: Kind
    name: str = ""
    load: bool = False
    recessed: bool = False
    length: int | None = None
    glued: bool = False
    along: bool = False
    lapped: bool = False


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
    screws, 3in, recessed``. Raises ``CarpentryError``."""
    found = _JOINT.fullmatch(text.strip())
    if not found:
        raise CarpentryError("write how many, which parts and how: 8 B to A edge, 2 screws")
    count, way, held, more = found.groups()
    each, fastener = _held(held, unit)
    said: set[str] = set()
    length = fastener.length
    for typed in filter(None, (" ".join(one.lower().split()) for one in more.split(","))):
        word = _SAME_WORD.get(typed, typed)
        if word in JOINT_WORDS:
            said.add(word)
        else:
            length = _length(word, unit)
    return Joint(
        text.strip(),
        _count(count),
        _way(way),
        each,
        fastener.kind,
        fastener.name,
        load="load" in said,
        recessed="recessed" in said,
        length=length,
        glued="glued" in said or fastener.kind is Kind.GLUE,
        along="along" in said,
        lapped="half lap" in said,
    )


def _length(text: str, unit: Unit) -> int:
    try:
        return read_length(text, unit).ticks
    except CarpentryError as error:
        words = ", ".join(JOINT_WORDS)
        raise CarpentryError(f"“{text}” is neither {words} nor a length") from error


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


def _held(text: str, unit: Unit) -> tuple[int, Fastener]:
    """How many fasteners hold a joint, and which: ``two #8 deck screws 3in``."""
    found = _HELD.fullmatch(text.strip())
    fastener = read_fastener(found[2], unit) if found else None
    if not found or fastener is None:
        known = ", ".join(Kind)
        raise CarpentryError(f"“{text.strip().lower()}” holds nothing: write one of {known}")
    return _count(found[1] or "1"), fastener


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
