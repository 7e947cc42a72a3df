"""A plan of days as an iCalendar file: steps as events in the builder's time zone, waits as notes,
an alarm before each step."""

from collections.abc import Mapping
from datetime import date, datetime, timedelta
from typing import Any
from uuid import UUID, uuid5

from icalendar import Alarm, Calendar, Event

from carpentry.hours.durations import write_long
from carpentry.language import Notation
from carpentry.time.plan import DaysPlan, PlannedStep
from carpentry.time.step import Step

ALARM_BEFORE = timedelta(minutes=30)


def calendar_file(
    plan: DaysPlan,
    steps: Mapping[str, Step],
    project: tuple[UUID, str],
    notation: Notation,
    made: datetime,
) -> bytes:
    """What is still to do of a ``project`` (its id and name). An event keeps its id however the
    plan changes, so that a second import moves it."""
    id, name = project
    calendar = Calendar()
    calendar.add("prodid", "-//Grain Tally//Days//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", f"{name}: days")
    for number, one in enumerate(plan.steps):
        if plan.days.steps[number].ended is not None:
            continue
        for part, (start, end) in enumerate(one.spans):
            event = Event()
            event.add("uid", f"{uuid5(id, f'{one.id} {part}')}@grain-tally")
            event.add("dtstamp", made)
            event.add("dtstart", plan.days.zone.local(start))
            event.add("dtend", plan.days.zone.local(end))
            event.add("summary", f"{name}: {steps[one.id].name}")
            event.add("description", "\n".join(_notes(plan, one, steps[one.id], notation)))
            event.add_component(_alarm(steps[one.id].name))
            calendar.add_component(event)
    days = [one.placed.start for one in plan.steps] or [plan.days.start]
    first, last = plan.days.zone.day(min(days)), plan.days.zone.day(max(days))
    calendar.add_missing_timezones(date(first.year - 1, 1, 1), date(last.year + 2, 1, 1))
    _begin_by_the_clock_before(calendar)
    content: bytes = calendar.to_ical()
    return content


def _begin_by_the_clock_before(calendar: Calendar) -> None:
    """Has each offset of a time zone begin by the clock as it was until then, as RFC 5545 (3.6.5)
    says: the library gives the first time on the clock after it goes forward."""
    offsets: list[Any] = [one for zone in calendar.timezones for one in zone.subcomponents]
    for offset in offsets:
        forward = offset["TZOFFSETTO"].td - offset["TZOFFSETFROM"].td
        if forward <= timedelta():
            continue
        starts = [offset["DTSTART"].dt]
        if "RDATE" in offset:
            starts += [one.dt for one in offset.pop("RDATE").dts]
        first, *others = (start - forward for start in starts)
        del offset["DTSTART"]
        offset.add("DTSTART", first)
        if others:
            offset.add("RDATE", others)


def _notes(plan: DaysPlan, planned: PlannedStep, step: Step, notation: Notation) -> list[str]:
    found = list(step.notes)
    waits = planned.placed.free_from - planned.placed.end
    if waits:
        until = plan.days.zone.local(planned.placed.free_from)
        told = f"then waits {write_long(waits)}, until {until:%A %b %-d, %-H:%M}"
        found.append(f"{told} ({step.wait_told})" if step.wait_told else told)
    if step.check:
        found.append(f"check: {step.check.told(notation)}")
    return [*found, *step.cautions]


def _alarm(name: str) -> Alarm:
    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("description", name)
    alarm.add("trigger", -ALARM_BEFORE)
    return alarm
