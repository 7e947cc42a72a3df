"""When there is time for a project: by when it is wanted, free hours, what is owned."""

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from datetime import date, datetime, time, timedelta
from decimal import Decimal

from carpentry.hours.clock import Zone, read_date, read_moment, read_zone
from carpentry.hours.pace import read_pace
from carpentry.hours.windows import FreeHours, Span, joined, read_hours, read_week
from carpentry.language import CarpentryError, Faults

DAYS_SETTINGS = (
    *("wanted", "begin", "hours", "off", "more", "zone", "clamps", "helper", "daylight", "pace"),
)
MOST_CLAMPS = 200
MOST_DAYS_OFF = 400
_NOON = (8 * 60, 17 * 60)
_TO = re.compile(r"\s+to\s+", re.IGNORECASE)


@dataclass(frozen=True)
class DaysSettings:
    """By when it is wanted and not before when it is begun, by the clock of its ``zone`` (``None``:
    that of whoever looks); the free hours, those of a helper (``None``: the same) and of daylight;
    the clamps that are owned (``None``: enough), and the pace in percent."""

    wanted: datetime | None = None
    begin: datetime | None = None
    hours: FreeHours = field(default_factory=lambda: FreeHours(((),) * 7))
    helper: FreeHours | None = None
    daylight: Span = _NOON
    zone: Zone | None = None
    clamps: int | None = None
    pace: Decimal = Decimal(100)


def read_days_settings(typed: Mapping[str, str], faults: Faults) -> DaysSettings:
    """What is typed of the days, with faults by field."""
    none: tuple[tuple[Span, ...], ...] = ((),) * 7
    off: frozenset[date] = frozenset()
    more: dict[date, tuple[Span, ...]] = {}
    off = faults.attempt("days_off", lambda: frozenset(_days_off(typed["off"])), off)
    more = faults.attempt("days_more", lambda: dict(_other_hours(typed["more"])), more)
    week = faults.attempt("days_hours", lambda: read_week(typed["hours"]), none)
    helper = faults.attempt("days_helper", lambda: read_week(typed["helper"]), none)
    return DaysSettings(
        wanted=faults.attempt("days_wanted", lambda: _by(typed["wanted"]), None),
        begin=faults.attempt("days_begin", lambda: _from(typed["begin"]), None),
        hours=FreeHours(week, off, more),
        helper=FreeHours(helper, off) if typed["helper"].strip() else None,
        daylight=faults.attempt("days_daylight", lambda: _daylight(typed["daylight"]), _NOON),
        zone=faults.attempt("days_zone", lambda: _zone(typed["zone"]), None),
        clamps=faults.attempt("days_clamps", lambda: _clamps(typed["clamps"]), None),
        pace=faults.attempt("days_pace", lambda: read_pace(typed["pace"]), Decimal(100)),
    )


def _moment(text: str, of_a_day: timedelta) -> datetime | None:
    """A time by the clock; of a day alone so much after its beginning."""
    typed = text.strip()
    if not typed:
        return None
    if len(typed) <= 10:
        return datetime.combine(read_date(typed), time()) + of_a_day
    moment = read_moment(typed)
    if moment.tzinfo:
        raise CarpentryError("write it by the clock on the wall: 2027-06-10 20:00")
    return moment


def _by(text: str) -> datetime | None:
    return _moment(text, timedelta(days=1))


def _from(text: str) -> datetime | None:
    return _moment(text, timedelta())


def _days_off(text: str) -> Iterator[date]:
    for part in filter(None, (one.strip() for one in text.split(","))):
        first, *last = (read_date(one) for one in _TO.split(part, maxsplit=1))
        end = last[0] if last else first
        if end < first:
            raise CarpentryError(f"“{part[:40]}” ends before it begins")
        if (end - first).days > MOST_DAYS_OFF:
            raise CarpentryError(f"“{part[:40]}” is over {MOST_DAYS_OFF} days")
        yield from (first + timedelta(days=n) for n in range((end - first).days + 1))


def _other_hours(text: str) -> Iterator[tuple[date, tuple[Span, ...]]]:
    for part in filter(None, (one.strip() for one in text.split(","))):
        day, *hours = part.split()
        if not hours:
            raise CarpentryError(f"“{part[:40]}” says no hours: write 2027-06-09 8:00-12:00")
        yield read_date(day), tuple(joined(read_hours(one) for one in hours))


def _daylight(text: str) -> Span:
    return read_hours(text) if text.strip() else _NOON


def _zone(text: str) -> Zone | None:
    return read_zone(text.strip()) if text.strip() else None


def _clamps(text: str) -> int | None:
    typed = text.strip()
    if not typed:
        return None
    if not typed.isascii() or not typed.isdigit() or int(typed) > MOST_CLAMPS:
        raise CarpentryError(f"write how many, from 0 to {MOST_CLAMPS}, or nothing for enough")
    return int(typed)
