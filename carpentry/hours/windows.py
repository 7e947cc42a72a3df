"""The hours in which a builder works: free hours of the week, days off, and the stretches of time
that they come to."""

import re
from bisect import bisect_left, bisect_right
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, timedelta
from itertools import accumulate

from carpentry.hours.clock import MINUTES_A_DAY, Zone
from carpentry.language import CarpentryError

DAYS = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
Span = tuple[int, int]
USUAL_WINDOWS: Mapping[str, Sequence[str]] = {
    "mon-fri": ("18:00-21:00",),
    "sat-sun": ("09:00-17:00",),
}
_CLOCK = re.compile(r"(\d{1,2}):(\d{2})\s*[-–]\s*(\d{1,2}):(\d{2})")


@dataclass(frozen=True)
class FreeHours:
    """The free hours of each day of the week, Monday first: from and to in minutes after 0:00 on
    the clock, in order and apart; and the days on which there are none."""

    week: tuple[tuple[Span, ...], ...]
    off: frozenset[date] = frozenset()
    more: Mapping[date, tuple[Span, ...]] = field(default_factory=dict)

    def of(self, day: date) -> tuple[Span, ...]:
        """The free hours of a day, by the clock; those that are ``more`` stand for themselves."""
        if day in self.more:
            return self.more[day]
        return () if day in self.off else self.week[day.weekday()]

    @property
    def longest(self) -> int:
        """Minutes of the longest stretch of a week, over midnight where it runs on."""
        spans = [
            (n * MINUTES_A_DAY + start, n * MINUTES_A_DAY + end)
            for n in range(14)
            for start, end in self.week[n % 7]
        ]
        return max((end - start for start, end in joined(spans)), default=0)


def joined(spans: Iterable[Span]) -> list[Span]:
    """Spans in order, those that touch or overlap as one."""
    found: list[Span] = []
    for start, end in sorted(spans):
        if found and start <= found[-1][1]:
            found[-1] = (found[-1][0], max(end, found[-1][1]))
        else:
            found.append((start, end))
    return found


def read_hours(text: str) -> Span:
    """Hours as in ``18:00-21:00``, in minutes after 0:00. Raises ``CarpentryError``."""
    found = _CLOCK.fullmatch(text.strip())
    if not found:
        raise CarpentryError(f"“{text[:40]}” is no stretch of hours: write 18:00-21:00")
    from_hour, from_minute, to_hour, to_minute = map(int, found.groups())
    start, end = from_hour * 60 + from_minute, to_hour * 60 + to_minute
    if from_minute > 59 or to_minute > 59 or start > MINUTES_A_DAY or end > MINUTES_A_DAY:
        raise CarpentryError(f"“{text[:40]}” is past 24:00")
    if end <= start:
        raise CarpentryError(
            f"“{text[:40]}” ends before it begins: hours over midnight are two, to 24:00 and from "
            "0:00"
        )
    return start, end


def read_days(text: str) -> list[int]:
    """The days of the week (0 is Monday) of ``mon`` or ``mon-fri``. Raises ``CarpentryError``."""
    ends = [one.strip().lower()[:3] for one in re.split(r"[-–]", text)]
    if len(ends) > 2 or any(one not in DAYS for one in ends):
        raise CarpentryError(f"“{text[:40]}” is no day of the week: write mon, or mon-fri")
    first, last = DAYS.index(ends[0]), DAYS.index(ends[-1])
    return [n % 7 for n in range(first, first + (last - first) % 7 + 1)]


def week_of(hours: Mapping[str, Iterable[str]]) -> tuple[tuple[Span, ...], ...]:
    """A week from the hours of its days. Raises ``CarpentryError`` with the day it is of."""
    week: list[list[Span]] = [[] for _ in DAYS]
    for days, spans in hours.items():
        for n in read_days(days):
            week[n] += [read_hours(one) for one in spans]
    return tuple(tuple(joined(spans)) for spans in week)


def read_week(text: str) -> tuple[tuple[Span, ...], ...]:
    """A week as it is typed: ``mon-fri 18:00-21:00, sat-sun 9:00-12:00 13:00-17:00``. Raises
    ``CarpentryError``."""
    week: list[list[Span]] = [[] for _ in DAYS]
    for part in filter(None, (one.strip() for one in text.split(","))):
        days, *spans = part.split()
        if not spans:
            raise CarpentryError(f"“{part[:40]}” says no hours: write mon-fri 18:00-21:00")
        for n in read_days(days):
            week[n] += [read_hours(one) for one in spans]
    return tuple(tuple(joined(spans)) for spans in week)


def write_week(week: Sequence[Sequence[Span]]) -> str:
    """A week as it is typed, days with the same hours together."""
    told: list[str] = []
    first = 0
    for n in range(1, 8):
        if n < 7 and week[n] == week[first]:
            continue
        if week[first]:
            days = DAYS[first] if n - 1 == first else f"{DAYS[first]}-{DAYS[n - 1]}"
            told.append(f"{days} {' '.join(write_hours(one) for one in week[first])}")
        first = n
    return ", ".join(told)


def write_hours(span: Span) -> str:
    (start, end) = (divmod(one, 60) for one in span)
    return f"{start[0]}:{start[1]:02}-{end[0]}:{end[1]:02}"


class Calendar:
    """The free stretches of time between two days, and where work fits into them.

    Instants are minutes. A piece of work lies in one stretch, from its beginning to its end.
    """

    def __init__(self, spans: Iterable[Span]) -> None:
        self.spans = joined(spans)
        self.starts = [start for start, _ in self.spans]
        self.ends = [end for _, end in self.spans]
        self._before = [0, *accumulate(end - start for start, end in self.spans)]
        self._long: dict[int, tuple[list[int], list[int]]] = {}

    def fits(self, minutes: int) -> tuple[list[int], list[int]]:
        """Starts and ends of the stretches that are long enough for so many minutes."""
        found = self._long.get(minutes)
        if found is None:
            long = [span for span in self.spans if span[1] - span[0] >= minutes]
            found = [start for start, _ in long], [end for _, end in long]
            self._long[minutes] = found
        return found

    def earliest(self, after: int, minutes: int) -> int | None:
        """When work of so many minutes can begin at the earliest; ``None`` past the last day."""
        starts, ends = self.fits(minutes)
        n = bisect_left(ends, after + minutes)
        return None if n == len(ends) else max(after, starts[n])

    def latest(self, end: int, minutes: int) -> int | None:
        """When work of so many minutes begins at the latest to end by then."""
        starts, ends = self.fits(minutes)
        n = bisect_right(starts, end - minutes) - 1
        return None if n < 0 else min(end, ends[n]) - minutes

    def free_before(self, instant: int) -> int:
        """The free minutes before an instant."""
        n = bisect_right(self.starts, instant) - 1
        if n < 0:
            return 0
        return self._before[n] + min(instant, self.ends[n]) - self.starts[n]

    def earliest_split(self, after: int, minutes: int) -> Span | None:
        """Begin and end of work that goes on from one stretch to the next."""
        n = bisect_right(self.ends, after) if minutes else bisect_left(self.ends, after)
        if n == len(self.ends):
            return None
        start = max(after, self.starts[n])
        need = self.free_before(start) + minutes
        m = n if not minutes else bisect_left(self._before, need, lo=1) - 1
        if m >= len(self.ends):
            return None
        return start, start if not minutes else self.starts[m] + need - self._before[m]

    def latest_split(self, end: int, minutes: int) -> int | None:
        """When work begins at the latest that goes on from one stretch to the next."""
        if not minutes:
            return self.latest(end, 0)
        need = self.free_before(end) - minutes
        if need < 0:
            return None
        n = bisect_right(self._before, need) - 1
        return self.starts[n] + need - self._before[n]

    def within(self, spans: Sequence[Span]) -> "Calendar":
        """What of it lies in other stretches, in order and apart."""
        found = []
        n = 0
        for start, end in self.spans:
            while n and spans[n - 1][1] > start:
                n -= 1
            while n < len(spans) and spans[n][1] <= start:
                n += 1
            m = n
            while m < len(spans) and spans[m][0] < end:
                found.append((max(start, spans[m][0]), min(end, spans[m][1])))
                m += 1
        return Calendar(span for span in found if span[0] < span[1])


def spans_between(
    zone: Zone, first: date, last: date, hours: Callable[[date], Iterable[Span]]
) -> list[Span]:
    """The stretches of time (instants) in which the clock shows the hours of its days, from the
    first day to the last. Where an hour is doubled both passes count, where it is skipped none."""
    found: list[Span] = []
    day = first
    while day <= last:
        spans = list(hours(day))
        for start, end, ahead in zone.pieces(day) if spans else ():
            wall = start + ahead
            midnight = wall - wall % MINUTES_A_DAY
            for from_, to in spans:
                low = max(start, midnight + from_ - ahead)
                high = min(end, midnight + to - ahead)
                if low < high:
                    found.append((low, high))
        day += timedelta(days=1)
    return joined(found)
