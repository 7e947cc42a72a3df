"""Parts that are the left and the right of a pair."""

from collections.abc import Mapping

from carpentry.design.ends import mirrored, ways_to_lie
from carpentry.design.part import Part


def mirror_pairs(parts: Mapping[str, Part]) -> dict[str, str]:
    """Of each part (by id) that has one, another that is its mirror image."""
    shapes: dict[object, str] = {}
    for id_, part in parts.items():
        if not part.square_ended:
            shapes.setdefault((part.stock, part.length.ticks, part.measured, part.ends), id_)
    found = {}
    for id_, part in parts.items():
        if part.square_ended or mirrored(part.ends) in ways_to_lie(part.ends):
            continue
        for way in ways_to_lie(mirrored(part.ends)):
            other = shapes.get((part.stock, part.length.ticks, part.measured, way))
            if other:
                found[id_] = other
    return found
