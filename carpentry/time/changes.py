"""What one could change about the days so that all is ready earlier."""

from collections.abc import Iterable, Iterator
from dataclasses import replace
from datetime import date, timedelta

from carpentry.hours.clock import MINUTES_A_DAY
from carpentry.hours.durations import write_duration
from carpentry.hours.windows import DAYS, USUAL_WINDOWS, Span, joined, read_hours, write_hours
from carpentry.language import Json
from carpentry.time.asked import Days

Change = tuple[str, Json, Days]  # in words, what is asked otherwise, and the days then
_EVENING = read_hours(USUAL_WINDOWS["mon-fri"][0])
_MOST_DAYS = 5  # that are tried as one evening more
_MOST_CLAMPS = 4  # that are tried as more
_HOUR = 60


def changes_of(days: Days, ready: int, begin_by: int | None) -> Iterator[Iterable[Change]]:
    """Ways to be ready before ``ready``, each as changes of which one goes further than the one
    before."""
    yield _fewer(days)
    yield from ([one] for one in _faster(days))
    yield from ([one] for one in _on_days_off(days, ready))
    yield from ([one] for one in _more_evenings(days, ready))
    yield _longer_days(days)
    yield _more_clamps(days)
    if begin_by is not None and begin_by < days.start:
        told = f"{days.zone.local(begin_by):%A %b %-d, %-H:%M}"
        yield [
            (f"begun by {told}", {"from": days.zone.shown(begin_by)}, replace(days, start=begin_by))
        ]


def _fewer(days: Days) -> Iterator[Change]:
    """Without what may be left out: the last of it, then the one before as well."""
    left_out: list[str] = []
    for one in reversed(days.steps):
        if one.may_leave and one.ended is None and one.begun is None:
            left_out.append(one.id)
            days = days.without(one.id)
            told = " and ".join(reversed(left_out))
            yield f"without {told}", {"without": list(left_out)}, days


def _faster(days: Days) -> Iterator[Change]:
    """With what waits less, wherever it is used."""
    said = dict.fromkeys(one.instead.says for one in days.steps if one.instead)
    for says in said:
        yield f"with {says}", {"with": says}, days.with_instead(says)


def _on_days_off(days: Days, ready: int) -> Iterator[Change]:
    for day in _between(days, ready):
        if day in days.hours.off and days.hours.week[day.weekday()]:
            off = days.hours.off - {day}
            hours = replace(days.hours, off=off)
            take = {"off": sorted(one.isoformat() for one in off)}
            yield f"working on {day:%A %b %-d}, a day off", take, replace(days, hours=hours)


def _more_evenings(days: Days, ready: int) -> Iterator[Change]:
    """An evening on a day that has no free hours."""
    tried = 0
    for day in _between(days, ready):
        if tried == _MOST_DAYS:
            break
        if not days.hours.week[day.weekday()] and day not in days.hours.more:
            tried += 1
            more = {**days.hours.more, day: (_EVENING,)}
            take = {"more": {one.isoformat(): _told(spans) for one, spans in more.items()}}
            said = f"one evening more, {day:%A %b %-d} {write_hours(_EVENING)}"
            yield said, take, replace(days, hours=replace(days.hours, more=more))


def _longer_days(days: Days) -> Iterator[Change]:
    """An hour more, then two, at the end of what is free every day."""
    for more in (_HOUR, 2 * _HOUR):
        week = tuple(
            tuple(
                joined(
                    (start, min(MINUTES_A_DAY, end + more if n == len(spans) - 1 else end))
                    for n, (start, end) in enumerate(spans)
                )
            )
            for spans in days.hours.week
        )
        take = {"windows": {day: _told(spans) for day, spans in zip(DAYS, week, strict=True)}}
        hours = replace(days.hours, week=week)
        yield (
            f"{write_duration(more)} more every day that is free",
            take,
            replace(days, hours=hours),
        )


def _more_clamps(days: Days) -> Iterator[Change]:
    if days.clamps is None or not any(one.clamps for one in days.steps):
        return
    for more in range(1, _MOST_CLAMPS + 1):
        count = days.clamps + more
        said = f"with {more} more clamp{'s' if more > 1 else ''}"
        yield said, {"clamps": count}, replace(days, clamps=count)


def _told(spans: Iterable[Span]) -> list[str]:
    return [write_hours(one) for one in spans]


def _between(days: Days, ready: int) -> Iterator[date]:
    """The days from now until all is ready."""
    day, last = days.zone.day(days.start), days.zone.day(ready)
    while day <= last:
        yield day
        day += timedelta(days=1)
