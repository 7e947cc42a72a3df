"""Fields as a builder types them, each defined once: how it is called, what helps, what it may be.

A class of such fields is a dataclass; the columns of the database, the API's contract, the columns
of a table and the forms on the screen are made from it.
"""

from collections.abc import Mapping
from dataclasses import Field, dataclass, field, fields
from datetime import date
from functools import cache
from types import MappingProxyType
from typing import Any, cast

from carpentry.language.errors import CarpentryError, Faults


@dataclass(frozen=True)
class Typed:
    """How a field is typed: its ``heading`` on the screen, a ``help`` of a few words, the ``most``
    characters it may have, the ``choices`` where it is one of some words (in the ``words`` that are
    shown for them), and whether it ``is_length``, then perhaps the ``largest`` (ticks) and what is
    said of a larger one. Forms show it under the heading of its ``group``."""

    heading: str
    help: str = ""
    most: int = 60
    choices: tuple[str, ...] = ()
    is_length: bool = False
    largest: int | None = None
    refused: str = ""
    group: str = ""
    words: tuple[str, ...] = ()


def typed(
    heading: str,
    usual: Any = "",
    *,
    help: str = "",
    most: int = 60,
    choices: tuple[str, ...] = (),
    is_length: bool = False,
    largest: int | None = None,
    refused: str = "",
    group: str = "",
    words: tuple[str, ...] = (),
) -> Any:
    """A field of a dataclass that is typed; ``usual`` is its value where nothing is."""
    is_length = is_length or largest is not None
    way = Typed(heading, help, most, choices, is_length, largest, refused, group, words)
    return field(default=usual, metadata={"typed": way})


def typed_fields(of: type[Any]) -> Mapping[str, Typed]:
    """The typed fields of a dataclass by name, in their order."""
    return _fields_of(cast(Any, of))


@cache
def _fields_of(of: Any) -> Mapping[str, Typed]:
    return MappingProxyType(
        {one.name: one.metadata["typed"] for one in fields(of) if "typed" in one.metadata}
    )


def length_fields(of: type[Any]) -> tuple[str, ...]:
    """The names of those that are lengths."""
    return tuple(name for name, way in typed_fields(of).items() if way.is_length)


def usual_values(of: type[Any]) -> Mapping[str, Any]:
    """What each typed field has where nothing is typed."""
    return _usual_of(cast(Any, of))


@cache
def _usual_of(of: Any) -> Mapping[str, Any]:
    known: dict[str, Field[Any]] = {one.name: one for one in fields(of)}
    return MappingProxyType({name: known[name].default for name in typed_fields(of)})


def change_said(of: type[Any], name: str, after: Any, before: Any = "") -> str:
    """What was typed into a field, in the words of its heading: ``length 9ft → 60``."""
    way = typed_fields(of)[name]
    called = way.heading[:1].lower() + way.heading[1:]
    if isinstance(after, bool):
        return f"{called}: {'yes' if after else 'no'}"
    told, was = (_in_words(way, str(value).strip()) for value in (after, before))
    if not told:
        return f"{called} taken away"
    return f"{called} {was} → {told}" if was else f"{called} {told}"


def _in_words(way: Typed, value: str) -> str:
    known = dict(zip(way.choices, way.words, strict=True)) if way.words else {}
    return known.get(value, value)


def check_typed(fields: object, faults: Faults) -> None:
    """Adds a fault for every field that is longer than it may be, or none of its choices."""
    usual = usual_values(type(fields))
    for place, way in typed_fields(type(fields)).items():
        text = str(getattr(fields, place)).strip()
        known = not way.choices or text.lower() in way.choices
        if not known and (text or usual[place]):
            choices = ", ".join(way.choices)
            faults.add(place, f"“{text[:40]}” is no answer: choose one of {choices}")
        elif len(text) > way.most:
            faults.add(place, f"longer than {way.most} characters")


def check_day(text: str) -> None:
    """Raises ``CarpentryError`` unless a day is written as in 2026-05-31, or not at all."""
    try:
        date.fromisoformat(text.strip() or "2026-01-01")
    except ValueError as error:
        raise CarpentryError(f"“{text.strip()}” is no day: write it as 2026-05-31") from error
