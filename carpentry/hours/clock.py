"""Instants and the clock on the wall, right also on the days when clocks change.

An instant is a count of whole minutes since 1970-01-01 00:00 UTC.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from functools import lru_cache
from itertools import pairwise
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from carpentry.language import CarpentryError

MINUTES_A_DAY = 24 * 60
FIRST_YEAR, LAST_YEAR = 2000, 2100
_EPOCH = datetime(1970, 1, 1, tzinfo=UTC)
_MINUTE = timedelta(minutes=1)


def instant_of(moment: datetime) -> int:
    """The whole minute in which a moment (with its offset) is."""
    return (moment - _EPOCH) // _MINUTE


def moment_of(instant: int) -> datetime:
    """A moment in UTC."""
    return _EPOCH + instant * _MINUTE


@dataclass(frozen=True)
class Zone:
    """Where the builder's clock hangs, by its name in the time zone database."""

    name: str

    @property
    def info(self) -> ZoneInfo:
        return ZoneInfo(self.name)

    def local(self, instant: int) -> datetime:
        """What the clock shows."""
        return moment_of(instant).astimezone(self.info)

    def day(self, instant: int) -> date:
        return self.local(instant).date()

    def midnight(self, day: date) -> int:
        """When a day begins; later than 0:00 where that hour is skipped."""
        return next(self.pieces(day))[0]

    def instant(self, wall: datetime) -> int:
        """When the clock shows a time (of no zone; one with an offset is when it says).

        Of an hour that is doubled the first. Raises ``CarpentryError`` for one that is skipped.
        """
        if wall.tzinfo:
            return instant_of(wall)
        found = instant_of(wall.replace(tzinfo=self.info))
        if self.local(found).replace(tzinfo=None) != wall:
            raise CarpentryError(
                f"{wall:%Y-%m-%d %H:%M} is skipped in {self.name}: clocks go forward over it"
            )
        return found

    def shown(self, instant: int) -> str:
        """``2027-06-11T03:20``; with the offset in the second pass of an hour that is doubled."""
        local = self.local(instant)
        text = f"{local:%Y-%m-%dT%H:%M}"
        return f"{text}{_offset(local)}" if local.fold else text

    def pieces(self, day: date) -> Iterator[tuple[int, int, int]]:
        """A day as stretches on which the clock runs evenly: from and to (instants), and what the
        clock is ahead of UTC by (minutes)."""
        return iter(_pieces(self.name, day))


def _offset(local: datetime) -> str:
    return local.isoformat()[-6:]


@lru_cache(20_000)
def _pieces(name: str, day: date) -> tuple[tuple[int, int, int], ...]:
    zone = Zone(name)
    noon = instant_of(datetime(day.year, day.month, day.day, 12, tzinfo=zone.info))
    changes = [noon - 18 * 60, *_changes(zone, noon - 18 * 60, noon + 18 * 60), noon + 18 * 60]
    found = []
    for one, next_ in pairwise(changes):
        ahead = _ahead(zone, one)
        midnight = instant_of(datetime(day.year, day.month, day.day, tzinfo=UTC)) - ahead
        start, end = max(one, midnight), min(next_, midnight + MINUTES_A_DAY)
        if start < end:
            found.append((start, end, ahead))
    return tuple(found)


def _ahead(zone: Zone, instant: int) -> int:
    offset = zone.local(instant).utcoffset()
    assert offset is not None
    return offset // _MINUTE


def _changes(zone: Zone, start: int, end: int) -> Iterator[int]:
    """The instants at which clocks change, one at the most in a stretch of 36 hours."""
    before = _ahead(zone, start)
    if before == _ahead(zone, end):
        return
    low, high = start, end
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if _ahead(zone, middle) == before else (low, middle)
    yield high


def read_zone(name: str) -> Zone:
    """A time zone by its name. Raises ``CarpentryError``."""
    try:
        ZoneInfo(name)
    except (ZoneInfoNotFoundError, ValueError, OSError) as error:
        raise CarpentryError(
            f"“{name[:40]}” is no time zone: write such as America/Denver"
        ) from error
    return Zone(name)


def read_date(text: str) -> date:
    """A day as in 2027-06-09. Raises ``CarpentryError``."""
    try:
        day = date.fromisoformat(text.strip())
    except ValueError as error:
        raise CarpentryError(f"“{text[:40]}” is no day: write it as 2027-06-09") from error
    return _in_range(day)


def read_moment(text: str) -> datetime:
    """A time as in 2027-06-09T18:00, with an offset where it was written with one. Raises
    ``CarpentryError``."""
    typed = text.strip().replace(" ", "T", 1)
    try:
        moment = datetime.fromisoformat(typed)
    except ValueError as error:
        raise CarpentryError(f"“{text[:40]}” is no time: write it as 2027-06-09T18:00") from error
    if len(typed) <= 10:
        raise CarpentryError(f"“{text[:40]}” says no hour: write it as 2027-06-09T18:00")
    if moment.second or moment.microsecond:
        raise CarpentryError(f"“{text[:40]}” has seconds: times are whole minutes")
    _in_range(moment.date())
    return moment


def _in_range(day: date) -> date:
    if not FIRST_YEAR <= day.year <= LAST_YEAR:
        raise CarpentryError(f"a year is from {FIRST_YEAR} to {LAST_YEAR}")
    return day
