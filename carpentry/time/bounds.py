"""From when on all can be over at the earliest: limits that are refuted without a search."""

from bisect import bisect_left, bisect_right
from dataclasses import dataclass

from carpentry.time.remaining import Remaining

_FINE = 100  # parts of the whole time, to which a bound is found by squeezing


@dataclass(frozen=True)
class Room:
    """Between when each task begins, and by when it is left, for all to be over by a limit."""

    heads: list[int]
    latest: list[int]
    ends: list[int]


def least_ready(left: Remaining, ready: int) -> int:
    """An instant before which all cannot be over, where it is known that they can be by
    ``ready``."""
    low = max([left.ready_so_far, *(left.over(k, _alone(left, k)) for k in range(left.count))])
    high = ready
    while low < high:
        middle = (low + high) // 2
        if is_refuted(left, middle):
            low = middle + 1
        else:
            high = middle
    return low


def _alone(left: Remaining, k: int) -> int:
    return left.start(k, left.heads[k], ())[1]


def is_refuted(left: Remaining, limit: int) -> bool:
    """Whether it is plain that all cannot be over by then: there is too little time, or there are
    too few clamps."""
    found = left.latest(limit)
    if found is None or left.ready_so_far > limit:
        return True
    room = Room(left.heads, *found)
    return _is_overworked(left, room) or _lack_clamps(left, room) or _lack_stretches(left, room)


def _is_overworked(left: Remaining, room: Room) -> bool:
    """Whether tasks that lie between two instants take more than the free time between them."""
    free = left.widest.free_before
    heads = sorted({free(head) for head in room.heads}, reverse=True)
    tasks = sorted(
        (free(room.ends[k]), free(room.heads[k]), left.here[k]) for k in range(left.count)
    )
    for head in heads:
        need = 0
        for end, begin, here in tasks:
            if begin >= head:
                need += here
                if need > end - head:
                    return True
    return False


def _lack_clamps(left: Remaining, room: Room) -> bool:
    """Whether tasks hold more clamps than there are, in the stretches that they can begin in."""
    starts, ends = left.widest.starts, left.widest.ends
    first = {k: bisect_left(ends, room.heads[k]) for k in left.clamped}
    last = {k: bisect_right(starts, room.latest[k]) - 1 for k in left.clamped}
    for rule, about in left.rules:
        for low in {first[k] for k in about}:
            need = 0
            for high, k in sorted((last[k], k) for k in about if first[k] >= low):
                need += rule.weights[left.clamps[k]]
                if need > rule.room(low, high):
                    return True
    return False


def _lack_stretches(left: Remaining, room: Room) -> bool:
    """Whether long tasks, of which so many fit into each free stretch, need more stretches than
    there are between two instants."""
    calendar = left.widest
    starts, ends = calendar.starts, calendar.ends
    for length in sorted({here for here in left.here if here}):
        long = [
            k for k in range(left.count) if left.here[k] >= length and not left.tasks[k].may_split
        ]
        first = {k: bisect_left(ends, room.heads[k] + left.here[k]) for k in long}
        last = {k: bisect_right(starts, room.latest[k]) - 1 for k in long}
        until = [0]
        for n in range(max(last.values(), default=-1) + 1):
            until.append(until[-1] + (ends[n] - starts[n]) // length)
        for low in set(first.values()):
            inside = sorted(last[k] for k in long if first[k] >= low)
            for count, high in enumerate(inside, start=1):
                if high < low or count > until[high + 1] - until[low]:
                    return True
    return False
