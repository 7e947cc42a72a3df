"""Laying equal items along a length with equal gaps: pickets, slats, balusters, shelf pins."""

import math
from fractions import Fraction

from carpentry.design.runs.asked import (
    MOST_ITEMS,
    AtEnd,
    End,
    Run,
    Spacing,
    Ticks,
    check_count,
    check_item,
)
from carpentry.language import CarpentryError

_GAPS = {AtEnd.GAP: Fraction(1), AtEnd.HALF_GAP: Fraction(1, 2)}


def _in_gaps(end: End) -> Fraction:
    """How much of a gap stands at an end."""
    return _GAPS.get(end, Fraction(0)) if isinstance(end, AtEnd) else Fraction(0)


def _stated(end: End, item: Ticks) -> Ticks:
    """What stands at an end whatever the gap is; below nothing where an item hangs over it."""
    if isinstance(end, AtEnd):
        return -item / 2 if end is AtEnd.HALF_ITEM else Fraction(0)
    return end


class _Frame:
    """A length between two ends, into which any number of items may go."""

    def __init__(self, along: Ticks, item: Ticks, ends: tuple[End, End]) -> None:
        self.along, self.item, self.ends = along, item, ends
        self.room = along - sum(_stated(end, item) for end in ends)
        self.more_gaps = sum(map(_in_gaps, ends), Fraction(0))

    def gap(self, count: int) -> Ticks | None:
        """The gap that so many items leave; nothing where they leave no gap, or do not fit."""
        gaps = count - 1 + self.more_gaps
        left = self.room - count * self.item
        if not gaps:
            return Fraction(0) if not left else None
        return left / gaps if left >= 0 else None

    def most_with(self, gap: Ticks) -> Fraction:
        """How many items a gap would make, fractions and all."""
        return (self.room + gap * (1 - self.more_gaps)) / (self.item + gap)

    def laid(self, count: int, gap: Ticks) -> Run:
        first = _stated(self.ends[0], self.item) + _in_gaps(self.ends[0]) * gap
        places = tuple(first + number * (self.item + gap) for number in range(count))
        return Run(self.item, count, gap, places, self.along)


def lay(along: Ticks, item: Ticks, ends: tuple[End, End], spacing: Spacing) -> Run:
    """Equal items along a length.

    With a ``count`` the gap is what is left, shared out; with a ``gap`` the count is the one that
    comes nearest to it (the fewer items of two that come as near), with ``gap_at_most`` the least
    that keeps to it. ``centres`` are kept exactly, from the beginning, and what is left lies at the
    end; where an item stands there, one more closes the run.

    Raises ``CarpentryError`` at the field where nothing fits.
    """
    check_item(item, along)
    frame = _Frame(along, item, ends)
    if spacing.count is not None:
        check_count(spacing.count)
        gap = frame.gap(spacing.count)
        if gap is None:
            raise CarpentryError(_do_not_fit(frame, spacing.count), "count")
        return frame.laid(spacing.count, gap)
    if spacing.centres is not None:
        return _at_centres(frame, spacing.centres)
    wanted = spacing.gap if spacing.gap is not None else spacing.gap_at_most
    if wanted is None:
        raise CarpentryError("how many, or how far apart, is not said", "count")
    place = "gap" if spacing.gap is not None else "gap_at_most"
    if wanted < 0:
        raise CarpentryError("a gap is not below 0", place)
    most = frame.most_with(wanted)
    check_count(max(1, math.ceil(most)))
    if spacing.gap is not None:
        near = {max(1, math.floor(most)), max(1, math.ceil(most))}
        found = [(abs(gap - wanted), n) for n in near if (gap := frame.gap(n)) is not None]
        if not found:
            raise CarpentryError("not one fits with such a gap", place)
        count = min(found)[1]
    else:
        count = max(1, math.ceil(most))
        if frame.gap(count) is None:
            raise CarpentryError(
                f"no number of them keeps every gap to that: {count} do not fit any more", place
            )
    gap = frame.gap(count)
    assert gap is not None
    return frame.laid(count, gap)


def _do_not_fit(frame: _Frame, count: int) -> str:
    if frame.room >= count * frame.item:
        return "one item fills nothing that is longer than itself between two such ends"
    most = math.floor(frame.room / frame.item)
    return f"{count} of them do not fit: {max(0, most)} is the most"


def _at_centres(frame: _Frame, centres: Ticks) -> Run:
    gap = centres - frame.item
    if gap < 0:
        raise CarpentryError("centres are nearer to one another than an item is wide", "centres")
    first = frame.laid(1, gap).places[0]
    last_end = frame.along - _stated(frame.ends[1], frame.item) - _in_gaps(frame.ends[1]) * gap
    count = math.floor((last_end - first - frame.item) / centres) + 1
    if count < 1:
        raise CarpentryError("not one of them fits", "centres")
    check_count(count)
    run = frame.laid(count, gap)
    closing = last_end - frame.item
    if frame.ends[1] in {AtEnd.ITEM, AtEnd.HALF_ITEM} and closing > run.places[-1]:
        if closing < run.places[-1] + frame.item:
            raise CarpentryError("the last two would overlap: nothing closes the run", "centres")
        check_count(count + 1)
        return Run(run.item, count + 1, gap, (*run.places, closing), frame.along)
    return run


def length_of(item: Ticks, count: int, gap: Ticks, ends: tuple[End, End]) -> Ticks:
    """How long so many items are, with such a gap and such ends."""
    check_count(count)
    if item <= 0:
        raise CarpentryError("an item takes more than no room", "item")
    if gap < 0:
        raise CarpentryError("a gap is not below 0", "gap")
    stated = sum((_stated(end, item) for end in ends), Fraction(0))
    gaps = count - 1 + sum(map(_in_gaps, ends), Fraction(0))
    return count * item + stated + gaps * gap


def neighbours(run: Run, ends: tuple[End, End]) -> dict[int, Ticks]:
    """The gap that one item less, and one more, would leave, where they would fit."""
    frame = _Frame(run.along, run.item, ends)
    around = (run.count - 1, run.count + 1)
    return {
        count: gap
        for count in around
        if 1 <= count <= MOST_ITEMS and (gap := frame.gap(count)) is not None
    }
