"""Which parts of a list are those of an older one: they stay the same parts."""

from collections.abc import Callable, Hashable, Iterable, Sequence
from dataclasses import replace

from carpentry.design.part import Part, PartFields

Likeness = Callable[[PartFields], Hashable]
_LIKENESSES: tuple[Likeness, ...] = (
    lambda fields: fields,
    lambda fields: replace(fields, quantity="", note="", group=""),
    lambda fields: (fields.name, fields.stock, fields.length),
    lambda fields: (fields.name, fields.stock),
    lambda fields: fields.name or None,
)


def matched(known: Iterable[tuple[str, PartFields]], parts: Sequence[Part]) -> list[str | None]:
    """For each of some parts the id of the known one that it is, ``None`` for one that is new:
    those that are alike in everything first, then in less and less, at the last in their name."""
    free = dict(known)
    found: list[str | None] = [None] * len(parts)
    for likeness in _LIKENESSES:
        by_likeness: dict[Hashable, list[str]] = {}
        for id_, fields in free.items():
            by_likeness.setdefault(likeness(fields), []).append(id_)
        for number, part in enumerate(parts):
            key = likeness(part.fields)
            alike = by_likeness.get(key) if key is not None else None
            if found[number] is None and alike:
                found[number] = alike.pop(0)
                del free[found[number] or ""]
    return found
