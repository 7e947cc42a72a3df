"""Days in a builder's words."""

from collections.abc import Iterator
from datetime import datetime

from carpentry.hours.clock import Zone
from carpentry.hours.durations import write_duration, write_long
from carpentry.hours.weather import COLD_BELOW, HUMID_ABOVE
from carpentry.hours.windows import joined
from carpentry.language import Unit
from carpentry.time.plan import DaysPlan, PlannedStep
from carpentry.time.step import Step

_EVENING = 17  # o'clock, from which on today is tonight


def clock_said(moment: datetime, unit: Unit) -> str:
    """``9 am``, ``8:20 pm``, ``noon``; ``20:20`` for who measures in millimetres."""
    if unit is Unit.MM:
        return f"{moment:%-H:%M}"
    if not moment.minute and moment.hour % 12 == 0:
        return "noon" if moment.hour else "midnight"
    minutes = f":{moment:%M}" if moment.minute else ""
    return f"{moment:%-I}{minutes} {'am' if moment.hour < 12 else 'pm'}"


def moment_said(zone: Zone, instant: int, unit: Unit) -> str:
    """``Sat 12, 9 am``."""
    local = zone.local(instant)
    return f"{local:%a %-d}, {clock_said(local, unit)}"


def day_said(zone: Zone, instant: int, now: int, unit: Unit) -> str:
    """A time as it is said now: ``today 6 pm``, ``tonight after 8 pm``, ``Saturday 9 am``,
    ``Sat Jun 26, 9 am``."""
    local, today = zone.local(instant), zone.local(now)
    clock = clock_said(local, unit)
    apart = (local.date() - today.date()).days
    if apart == 0:
        return f"tonight {clock}" if local.hour >= _EVENING else f"today {clock}"
    if apart == 1:
        return f"tomorrow {clock}"
    if 1 < apart < 7:
        return f"{local:%A} {clock}"
    year = "" if local.year == today.year else f" {local.year}"
    return f"{local:%a %b %-d}{year}, {clock}"


def wanted_said(zone: Zone, instant: int, now: int, unit: Unit) -> str:
    """A time by which something is wanted; midnight is the end of the day before."""
    if zone.midnight(zone.day(instant)) != instant:
        return day_said(zone, instant, now, unit)
    before = zone.local(instant - 1)
    year = "" if before.year == zone.local(now).year else f" {before.year}"
    return f"the end of {before:%a %b %-d}{year}"


def waiting(plan: DaysPlan) -> int:
    """Minutes for which something waits; what waits beside another counts once."""
    spans = joined((one.placed.end, one.placed.free_from) for one in plan.steps)
    return sum(end - start for start, end in spans)


def headline(plan: DaysPlan) -> str:
    """``2 h 31 min of work, 4 days 3 h of waiting``."""
    work = sum(one.minutes for one in plan.days.steps)
    return f"{write_duration(work)} of work, {write_long(waiting(plan))} of waiting"


def outlook(plan: DaysPlan, unit: Unit) -> Iterator[str]:
    """By when to begin, and whether it is ready when it is wanted."""
    zone, now, wanted = plan.days.zone, plan.days.start, plan.days.wanted
    is_begun = any(one.begun is not None or one.ended is not None for one in plan.days.steps)
    if wanted is None:
        about = "" if plan.exact else "at the latest "
        yield f"Ready {about}{day_said(zone, plan.ready, now, unit)}."
        return
    verb = "Go on" if is_begun else "Begin"
    if plan.begin_by is not None and plan.begin_by >= now:
        yield f"{verb} by {day_said(zone, plan.begin_by, now, unit)}."
    elif plan.begin_by is not None and plan.late:
        told = day_said(zone, plan.begin_by, now, unit)
        yield f"It should have been {'gone on with' if is_begun else 'begun'} by {told}."
    if plan.late:
        about = "" if plan.exact else "up to "
        missed = wanted_said(zone, wanted, now, unit)
        yield f"{missed[:1].upper() + missed[1:]} is missed by {about}{write_long(plan.late)}."
    else:
        spare = wanted - plan.ready
        told = f", {write_long(spare)} before it is wanted" if spare else ""
        yield f"Ready {day_said(zone, plan.ready, now, unit)}{told}."


def slowed(plan: DaysPlan, names: dict[str, str]) -> Iterator[str]:
    """What waits longer because of the weather, the first of each."""
    seen = set()
    for one, asked in zip(plan.steps, plan.days.steps, strict=True):
        waits = one.placed.free_from - one.placed.end
        usual = asked.wait.minutes
        if asked.ended is not None or waits <= usual or usual == asked.wait.slow:
            continue
        kind = (usual, waits)
        if kind in seen:
            continue
        seen.add(kind)
        weather = plan.days.forecast.of(plan.days.zone.day(one.placed.end))
        why = ""
        if weather.humidity is not None and weather.humidity > HUMID_ABOVE:
            why = f"At {float(weather.humidity):g} % humidity "
        elif weather.celsius is not None and weather.celsius < COLD_BELOW:
            why = f"At {float(weather.celsius):g} °C ({float(weather.celsius) * 1.8 + 32:.0f} °F) "
        name = names[one.id]
        told = f"{name} waits {write_duration(waits)}, not {write_duration(usual)}."
        yield f"{why}{told}" if why else told[:1].upper() + told[1:]


def next_said(plan: DaysPlan, steps: dict[str, Step], unit: Unit) -> str:
    """What is next, and when."""
    later = [
        one for one, asked in zip(plan.steps, plan.days.steps, strict=True) if asked.ended is None
    ]
    if not later:
        return "all is done"
    first: PlannedStep = min(later, key=lambda one: (one.placed.start, one.placed.end))
    number = [one.id for one in plan.steps].index(first.id)
    if plan.days.steps[number].begun is not None:
        return f"now: {steps[first.id].name}"
    when = day_said(plan.days.zone, first.placed.start, plan.days.start, unit)
    return f"next: {steps[first.id].name}, {when}"


def proof_said(plan: DaysPlan) -> str:
    """Whether it could be ready earlier."""
    if plan.exact:
        return "no order of these steps is ready earlier"
    early = plan.days.zone.local(plan.bound)
    return f"an order that is ready earlier may exist, not before {early:%a %b %-d, %-H:%M}"


def line_of(step: Step) -> str:
    """The line by which a step is changed: the one that was typed, else its name and time."""
    return step.line or f"{step.name}, {write_duration(step.minutes)}"
