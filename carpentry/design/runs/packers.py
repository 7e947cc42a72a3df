"""Packers: which of those at hand make up each gap, so that the run still ends where it must."""

from bisect import bisect_left
from collections.abc import Sequence
from fractions import Fraction

from carpentry.design.runs.asked import Run, Ticks
from carpentry.language import CarpentryError

MOST_PACKERS = 40
_MOST_SUMS = 50_000

Pile = tuple[Ticks, ...]


def piles(packers: Sequence[Ticks], up_to: Ticks) -> dict[Ticks, Pile]:
    """Every height that packers make, and the fewest that make it, the thickest first.

    Raises ``CarpentryError`` where there are too many ways.
    """
    if len(packers) > MOST_PACKERS:
        raise CarpentryError(f"are {MOST_PACKERS} at the most", "packers")
    if any(packer <= 0 for packer in packers):
        raise CarpentryError("each takes more than no room", "packers")
    made: dict[Ticks, Pile] = {Fraction(0): ()}
    for packer in sorted(packers, reverse=True):
        for height, pile in list(made.items()):
            higher = height + packer
            known = made.get(higher)
            if higher <= up_to and (known is None or len(pile) + 1 < len(known)):
                made[higher] = (*pile, packer)
        if len(made) > _MOST_SUMS:
            raise CarpentryError("can be put together in too many ways", "packers")
    return made


def packed(run: Run, start: Ticks, packers: Sequence[Ticks]) -> list[Pile]:
    """What lies in each gap of a run, one gap after the other.

    Items stand one against the packers after the other, from ``start``, the place where the first
    one was marked. Each pile brings the next item as near to its exact place as it can, so that
    nothing adds up; of two that come as near, the lower. Raises ``CarpentryError`` where the
    packers come no nearer than half the smallest of them.
    """
    if not packers:
        return []
    smallest = min(packers)
    made = piles(packers, run.gap + smallest)
    heights = sorted(made)
    found: list[Pile] = []
    at = start
    for exact in run.places[1:]:
        wanted = exact - at - run.item
        over = bisect_left(heights, wanted)
        near = heights[max(0, over - 1) : over + 1]
        height = min(near, key=lambda one: (abs(one - wanted), one))
        if abs(height - wanted) > smallest / 2:
            raise CarpentryError("do not make up the gaps to half the smallest of them", "packers")
        found.append(made[height])
        at += run.item + height
    return found
