"""A plan of days as an iCalendar file: steps as events in the builder's time zone, waits as notes,
an alarm before each step."""

from collections.abc import Mapping
from datetime import datetime, timedelta
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
    calendar.add_missing_timezones()
    content: bytes = calendar.to_ical()
    return content


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
