"""Days as JSON: what is asked, and the answer."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from datetime import date
from fractions import Fraction
from functools import partial
from typing import TypeVar

from carpentry.hours.clock import Zone, read_date, read_moment, read_zone
from carpentry.hours.durations import LONGEST_WORK, read_duration, write_duration
from carpentry.hours.weather import Forecast, Wait, Weather, check_celsius, check_humidity
from carpentry.hours.windows import (
    USUAL_WINDOWS,
    FreeHours,
    Span,
    joined,
    read_days,
    read_hours,
    week_of,
)
from carpentry.language import CarpentryError, Json, Reader, parse_json
from carpentry.time.asked import MOST_CLAMPS, MOST_STEPS, Days, Instead, TimedStep
from carpentry.time.plan import DaysPlan, plan_of_days

T = TypeVar("T")
DAYS_FORMAT = "grain-tally/days@1"
MOST_DAYS = 1_000
_FACTS = ("begun", "done", "free from")


def read_days_file(text: str | bytes) -> Days:
    """Days from their JSON. Raises ``CarpentryError`` with every problem and its path."""
    reader = Reader(parse_json(text))
    if reader.text("format", DAYS_FORMAT) != DAYS_FORMAT:
        reader.fault("format", f"must be {DAYS_FORMAT}")
    named_zone = reader.text("zone")
    zone = _told(reader, "zone", lambda: read_zone(named_zone), Zone("UTC"))
    start = _moment(reader, "from", zone)
    wanted = _moment(reader, "wanted", zone) if reader.has("wanted") else None
    reader.nothing("wanted")
    off = frozenset(_dates(reader, "off"))
    hours = FreeHours(_week(reader, "windows", USUAL_WINDOWS), off, _more(reader))
    helper = FreeHours(_week(reader, "helper", {}), off) if reader.has("helper") else None
    reader.nothing("helper")
    daylight = _hours(reader, "daylight", (8 * 60, 17 * 60))
    forecast = _forecast(reader)
    clamps = reader.whole("clamps", most=MOST_CLAMPS) if reader.has("clamps") else None
    reader.nothing("clamps")
    places: list[Reader] = []
    steps: list[TimedStep] = []
    for item in reader.items("steps", most=MOST_STEPS):
        places.append(item)
        steps.append(_step(item, zone))
    without = reader.texts("without", most=MOST_STEPS)
    with_ = reader.text("with", "")
    reader.refuse_unknown()
    named: dict[str, int] = {}
    for item, step in zip(places, steps, strict=True):
        if step.id in named:
            item.fault("id", f"“{step.id}” is there twice")
        named[step.id] = len(named)
    for item, step in zip(places, steps, strict=True):
        for n, id in enumerate(step.after):
            if id not in named:
                item.fault(f"after[{n}]", f"there is no step “{id}”")
    if not steps and not reader.problems:
        reader.fault("steps", "there is nothing to do")
    for n, id in enumerate(without):
        if id not in named:
            reader.fault(f"without[{n}]", f"there is no step “{id}”")
    reader.raise_problems()
    found = Days(
        zone,
        start or 0,
        tuple(steps),
        hours,
        wanted=wanted,
        helper=helper,
        daylight=daylight,
        forecast=forecast,
        clamps=clamps,
    )
    for id in without:
        found = found.without(id)
    found.check()
    return found.with_instead(with_) if with_ else found


def _told(reader: Reader, name: str, read: Callable[[], T], default: T) -> T:
    """What is read, or ``default`` with its faults told."""
    try:
        return read()
    except CarpentryError as error:
        for problem in error.problems:
            reader.fault(name, problem.message)
        return default


def _moment(reader: Reader, name: str, zone: Zone) -> int | None:
    text = reader.text(name)
    if not text:
        return None
    return _told(reader, name, lambda: zone.instant(read_moment(text)), None)


def _dates(reader: Reader, name: str) -> Iterator[date]:
    for n, text in enumerate(reader.texts(name, most=MOST_DAYS)):
        day = _told(reader, f"{name}[{n}]", partial(read_date, text), None)
        if day:
            yield day


def _week(
    reader: Reader, name: str, usual: Mapping[str, Sequence[str]]
) -> tuple[tuple[Span, ...], ...]:
    """The free hours of a week; the usual ones where nothing is said."""
    week: list[list[Span]] = [[] for _ in range(7)]
    if not reader.has(name):
        reader.nothing(name)
        return week_of(usual)
    inside = reader.inside(name)
    for days in inside.names():
        none: list[int] = []
        numbers = _told(inside, days, partial(read_days, days), none)
        for n, text in enumerate(inside.texts(days, alone=True)):
            span = _told(inside, f"{days}[{n}]", partial(read_hours, text), None)
            for number in numbers:
                week[number] += [span] if span else []
    return tuple(tuple(joined(spans)) for spans in week)


def _more(reader: Reader) -> dict[date, tuple[Span, ...]]:
    """The hours of single days that are free otherwise than their week says."""
    found: dict[date, tuple[Span, ...]] = {}
    inside = reader.inside("more")
    for text in inside.names():
        day = _told(inside, text, partial(read_date, text), None)
        spans = [
            _told(inside, f"{text}[{n}]", partial(read_hours, one), (0, 1))
            for n, one in enumerate(inside.texts(text, alone=True))
        ]
        if day:
            found[day] = tuple(joined(spans))
    return found


def _forecast(reader: Reader) -> Forecast:
    inside = reader.inside("weather")
    usual = _weather(inside)
    by_day = inside.inside("days")
    days: dict[date, Weather] = {}
    for text in by_day.names():
        day = _told(by_day, text, partial(read_date, text), None)
        one = by_day.inside(text)
        found = _weather(one)
        wet = one.flag("wet", False)
        one.refuse_unknown()
        if day:
            days[day] = Weather(found.humidity, found.celsius, wet)
    inside.refuse_unknown()
    return Forecast(usual, days=days)


def _weather(reader: Reader) -> Weather:
    return Weather(
        _number(reader, "humidity", check_humidity), _number(reader, "celsius", check_celsius)
    )


def _number(reader: Reader, name: str, check: Callable[[Fraction], Fraction]) -> Fraction | None:
    """A number, as such or as text."""
    value = reader.number(name)
    return None if value is None else _told(reader, name, lambda: check(value), None)


def _step(item: Reader, zone: Zone) -> TimedStep:
    id = item.text("id", longest=200)
    minutes = item.whole("minutes", most=LONGEST_WORK)
    text = item.text("wait", "0 min")
    wait = _told(item, "wait", lambda: read_duration(text), 0)
    slow = item.flag("slower when humid", False)
    humid = _duration(item, "humid")
    held = _duration(item, "clamps for")
    faster = _duration(item, "faster")
    least = _number(item, "least celsius", check_celsius)
    facts = {name: _moment(item, name, zone) if item.has(name) else None for name in _FACTS}
    for name in _FACTS:
        item.nothing(name)
    found = TimedStep(
        id,
        minutes,
        tuple(dict.fromkeys(item.texts("after", most=MOST_STEPS, alone=True))),
        wait=Wait.slowed(wait, humid) if slow or humid is not None else Wait.steady(wait),
        stays=item.flag("stay", False),
        clamps=item.whole("clamps", 0, most=MOST_CLAMPS),
        held=None if held is None else Wait.steady(min(held, wait)),
        helper=item.flag("helper", False),
        daylight=item.flag("daylight", False),
        dry=item.flag("dry", False),
        least=least,
        may_split=item.flag("may be split", False),
        may_leave=item.flag("may be left out", False),
        instead=None
        if faster is None
        else Instead("the faster product", Wait.steady(faster), least),
        begun=facts["begun"],
        ended=facts["done"],
        over=facts["free from"],
    )
    item.refuse_unknown()
    return found


def _duration(item: Reader, name: str) -> int | None:
    if not item.has(name):
        item.nothing(name)
        return None
    text = item.text(name)
    return _told(item, name, lambda: read_duration(text), None)


def _hours(reader: Reader, name: str, usual: Span) -> Span:
    text = reader.text(name, "")
    return _told(reader, name, lambda: read_hours(text), usual) if text else usual


def days_document(plan: DaysPlan) -> Json:
    """When everything is done, times local, with minutes."""
    shown = plan.days.zone.shown
    return {
        "format": "grain-tally/days-plan@1",
        "ready": shown(plan.ready),
        "late": None if plan.late is None else write_duration(plan.late),
        "begin_by": None if plan.begin_by is None else shown(plan.begin_by),
        "begin_by_exact": plan.begin_by_exact,
        "exact": plan.exact,
        "bound": shown(plan.bound),
        "gap": f"{plan.gap * 100:.1f}",
        "slack_exact": plan.slack_exact,
        "steps": [
            {
                "id": one.id,
                "start": shown(one.placed.start),
                "end": shown(one.placed.end),
                "free_from": shown(one.placed.free_from),
                "slack": None if one.slack is None else write_duration(one.slack),
                "critical": one.critical,
            }
            for one in plan.steps
        ],
        "would_do": [
            {"says": one.says, "ready": shown(one.ready), "take": one.take} for one in plan.would_do
        ],
    }


def days_answer(text: str | bytes, seconds: float) -> Json:
    """The plan of days that a JSON document asks for. Raises ``CarpentryError``."""
    return days_document(plan_of_days(read_days_file(text), seconds))
