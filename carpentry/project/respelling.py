"""Typed lines that mean the same whatever a bare number means: for a change of unit."""

import re
from collections.abc import Callable, Mapping

from carpentry.buying import RULE_SIZES, hardware_key
from carpentry.language import CarpentryError, Unit, read_length, unambiguous, unit_meant

_NAMED = re.compile(r"(?P<name>.*?\S)\s+(?P<size>\d[\d\s/.-]*)")


def respelled(kind: str, text: str, unit: Unit) -> str:
    """Lines of a ``kind`` (``joints``, ``hardware``, ``rules``, ``steps``; others hold no lengths)
    with the ``unit`` of bare lengths written out. Lines that mean nothing stay as they are."""
    if kind not in _WAYS:
        return text
    return "\n".join(_WAYS[kind](line, unit) for line in text.splitlines())


def _length(text: str, unit: Unit) -> str:
    """A length as it reads in any unit; what is none stays."""
    typed = text.strip()
    try:
        return unambiguous(typed, read_length(typed, unit).ticks, unit)
    except CarpentryError:
        return typed


def _tolerance(text: str, unit: Unit) -> str:
    """A tolerance as it reads in any unit."""
    return _length(text, unit_meant(text.strip(), unit))


def _joint(line: str, unit: Unit) -> str:
    pieces = [piece.strip() for piece in line.split(",")]
    said = [_sized(one, unit) for one in pieces]
    return ", ".join(said) if len(pieces) > 2 else line


def _sized(word: str, unit: Unit) -> str:
    """A word of a joint with the unit of its length."""
    found = _SIZED.fullmatch(word)
    return f"{found[1]}{_length(found[2], unit)}" if found else word


def _item(line: str, unit: Unit) -> str:
    before, at, price = line.partition("@")
    found = _NAMED.fullmatch(before.strip())
    if not found or hardware_key(_counted(before), unit)[1] is None:
        return line
    spelled = f"{found['name']} {_length(found['size'], unit)}"
    return f"{spelled} @{price}" if at else spelled


def _counted(text: str) -> str:
    """The name in a line of hardware, without its count."""
    return re.sub(r"^\s*(?:have\s+)?\d+\s*[x×]?\s+", "", text, flags=re.IGNORECASE).strip()


def _rule(line: str, unit: Unit) -> str:
    name, colon, value = line.partition(":")
    is_size = colon and " ".join(name.lower().split()) in RULE_SIZES
    return f"{name}: {_length(value, unit)}" if is_size else line


def _step(line: str, unit: Unit) -> str:
    """A step with the unit of the tolerance of its check."""
    return _TOLERANCE.sub(lambda found: f"{found[1]}{_tolerance(found[2], unit)}", line)


_SIZED = re.compile(  # a length alone, or after what is so deep
    r"((?:(?:recess|recessed|counterbored|rabbet|groove|dado|notch|lap)\s+)?)(\d[\d\s/.-]*)",
    re.IGNORECASE,
)
_TOLERANCE = re.compile(r"(,\s*check\s[^,]+?\sto\s+)([^,]+)", re.IGNORECASE)
_WAYS: Mapping[str, Callable[[str, Unit], str]] = {
    "joints": _joint,
    "hardware": _item,
    "rules": _rule,
    "steps": _step,
}
