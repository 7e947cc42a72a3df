"""What is asked of a run: the length, the item, how many or how far apart, and what is at the ends.

All lengths are ticks, exact fractions of one where they were worked out.
"""

from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction

from carpentry.language import CarpentryError

MOST_ITEMS = 2_000
Ticks = Fraction


class AtEnd(StrEnum):
    """What stands at the end of a run, before its first item or after its last."""

    ITEM = "item"
    GAP = "gap"
    HALF_GAP = "half-gap"
    HALF_ITEM = "half-item"


class Side(StrEnum):
    """Which edge of an item a mark is for."""

    NEAR = "near"
    FAR = "far"
    CENTRE = "centre"


End = AtEnd | Ticks  # or a stated distance


@dataclass(frozen=True)
class Spacing:
    """How an equal run is asked for: exactly one of these."""

    count: int | None = None
    gap: Ticks | None = None  # about
    gap_at_most: Ticks | None = None
    centres: Ticks | None = None  # centre to centre


@dataclass(frozen=True)
class Run:
    """Items as they lie: how many, the gap between two, and where the near edge of each is, from
    the beginning of the run."""

    item: Ticks
    count: int
    gap: Ticks
    places: tuple[Ticks, ...]
    along: Ticks

    def marks(self, side: Side) -> list[Ticks]:
        """A mark for each item, exact."""
        return [across(place, self.item, side) for place in self.places]

    @property
    def gaps(self) -> tuple[Ticks, ...]:
        """The gaps between items, one after the other."""
        pairs = zip(self.places, self.places[1:], strict=False)
        return tuple(after - before - self.item for before, after in pairs)


def across(place: Ticks, item: Ticks, side: Side) -> Ticks:
    """Where an edge or the middle of an item is, the near edge of which is at a place."""
    return place + {Side.NEAR: Fraction(0), Side.CENTRE: item / 2, Side.FAR: item}[side]


def check_item(item: Ticks, along: Ticks) -> None:
    if item <= 0:
        raise CarpentryError("an item takes more than no room", "item")
    if along <= 0:
        raise CarpentryError("a run takes more than no room", "along")
    if item > along:
        raise CarpentryError("not one of them fits", "item")


def check_count(count: int) -> None:
    if count < 1:
        raise CarpentryError("a run has one item at the least", "count")
    if count > MOST_ITEMS:
        raise CarpentryError(f"a run has {MOST_ITEMS:,} items at the most", "count")
