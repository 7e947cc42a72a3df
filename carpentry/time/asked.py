"""What is asked of the days: steps as a builder says them, and when there is time for them."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field, replace
from datetime import date, timedelta
from fractions import Fraction
from typing import TypeVar

from carpentry.hours.clock import FIRST_YEAR, LAST_YEAR, MINUTES_A_DAY, Zone
from carpentry.hours.durations import write_duration
from carpentry.hours.weather import Drying, Forecast, Wait
from carpentry.hours.windows import Calendar, FreeHours, Span, spans_between
from carpentry.language import CarpentryError
from carpentry.time.placing import without_room
from carpentry.time.tasks import NOTHING, DaysProblem, NoRoom, Task, circle_among

Answer = TypeVar("Answer")
MOST_STEPS = 200
MOST_CLAMPS = 1_000
_DAYS_AHEAD = 3_000
_FEW_WEEKS = 21


@dataclass(frozen=True)
class Instead:
    """What would wait less in its place, in words, below how many °C it is not used, and how many
    ``minutes`` it takes where that is known."""

    says: str
    wait: Wait
    least: Fraction | None = None
    minutes: int | None = None


@dataclass(frozen=True)
class TimedStep:
    """A step: its ``minutes`` of hands-on work, what it comes ``after`` (ids), its ``wait`` and
    whether the builder ``stays`` through it; the clamps it holds through its wait (through ``held``
    where that is shorter); whether it needs a helper, daylight, dry weather or ``least`` °C;
    whether it may be split or left out; what could be used ``instead``. ``begun``, ``ended`` and
    ``over`` are when it was, as instants."""

    id: str
    minutes: int
    after: tuple[str, ...] = ()
    wait: Wait = NOTHING
    stays: bool = False
    clamps: int = 0
    held: Wait | None = None
    helper: bool = False
    daylight: bool = False
    dry: bool = False
    least: Fraction | None = None
    may_split: bool = False
    may_leave: bool = False
    instead: Instead | None = None
    begun: int | None = None
    ended: int | None = None
    over: int | None = None


@dataclass(frozen=True)
class Days:
    """Steps to do from an instant on, and by when they are ``wanted``; the free hours of the
    builder and of a ``helper`` (``None``: whenever the builder is there), ``daylight`` by the
    clock, the weather that is expected, the clamps that are owned (``None``: enough)."""

    zone: Zone
    start: int
    steps: tuple[TimedStep, ...]
    hours: FreeHours
    wanted: int | None = None
    helper: FreeHours | None = None
    daylight: Span = (8 * 60, 17 * 60)
    forecast: Forecast = field(default_factory=Forecast)
    clamps: int | None = None

    def without(self, id: str) -> "Days":
        """The same days where a step is left out: what came after it comes after what it came
        after."""
        gone = next(one for one in self.steps if one.id == id)
        kept = [
            replace(one, after=tuple(dict.fromkeys(_instead_of(one.after, gone))))
            for one in self.steps
            if one.id != id
        ]
        return replace(self, steps=tuple(kept))

    def with_instead(self, says: str) -> "Days":
        """The same days with what waits less, wherever there is something of that name."""
        steps = [
            replace(
                one,
                wait=one.instead.wait,
                least=one.instead.least,
                minutes=one.minutes if one.instead.minutes is None else one.instead.minutes,
                instead=None,
            )
            if one.instead and one.instead.says == says and one.over is None
            else one
            for one in self.steps
        ]
        return replace(self, steps=tuple(steps))

    def check(self) -> None:
        """Raises ``CarpentryError`` for steps that wait for each other in a circle, and for what
        no hours or clamps are enough for."""
        named = {one.id: n for n, one in enumerate(self.steps)}
        circle = circle_among([[named[id] for id in one.after] for one in self.steps])
        if circle:
            names = [f"“{self.steps[n].id}”" for n in (*circle, circle[0])]
            raise CarpentryError(
                f"a circle: {' waits for '.join(names)}; none of them can begin", "steps"
            )
        if not self.hours.longest and not any(self.hours.more.values()):
            raise CarpentryError("no free hours: nothing can be done", "windows")
        for n, one in enumerate(self.steps):
            self._check_step(one, f"steps[{n}]")

    def _check_step(self, one: TimedStep, place: str) -> None:
        longest = max(
            [self.hours.longest, *(b - a for day in self.hours.more.values() for a, b in day)]
        )
        here = one.minutes + (one.wait.minutes if one.stays else 0)
        if one.stays and one.may_split:
            raise CarpentryError(
                f"“{one.id}”: who stays through a wait cannot split the work before it", place
            )
        if one.ended is None and not one.may_split and here > longest:
            raise CarpentryError(
                f"“{one.id}” takes {write_duration(here)} at a stretch, more than the "
                f"{write_duration(longest)} of the longest free hours: allow it to be split, or "
                "find a longer day",
                place,
            )
        if self.clamps is not None and one.clamps > self.clamps and one.ended is None:
            raise CarpentryError(
                f"“{one.id}” holds {one.clamps} clamps, and there are {self.clamps}", place
            )

    def problem(self, first: date, last: date) -> DaysProblem:
        """The problem of these days, on the calendar from one day to another."""
        calendars = _Calendars(self, first, last)
        named = {one.id: n for n, one in enumerate(self.steps)}
        tasks = tuple(
            Task(
                one.minutes,
                calendars.of(one),
                tuple(named[id] for id in one.after),
                wait=one.wait,
                stays=one.stays,
                clamps=one.clamps,
                held=(one.wait if one.held is None else one.held) if one.clamps else NOTHING,
                may_split=one.may_split,
                begun=one.begun,
                ended=one.ended,
                over=one.over,
            )
            for one in self.steps
        )
        return DaysProblem(tasks, self.start, calendars.drying, self.clamps)

    def lasting(self, asks: Callable[[DaysProblem], Answer]) -> Answer:
        """What is answered on a calendar that is long enough. Raises ``CarpentryError`` where none
        is."""
        first = self.zone.day(
            min([self.start, *(one.begun for one in self.steps if one.begun is not None)])
        )
        ahead = _FEW_WEEKS + self.whole // MINUTES_A_DAY
        while True:
            try:
                return asks(self.problem(first - timedelta(days=1), _later(first, ahead)))
            except NoRoom:
                if ahead > _DAYS_AHEAD:
                    raise CarpentryError(self._no_time(first), "windows") from None
                ahead *= 4

    def free(self, start: int, end: int) -> list[Span]:
        """The free stretches of the days from one instant to another."""
        first, last = self.zone.day(start) - timedelta(days=1), self.zone.day(end)
        return spans_between(self.zone, first, last, self.hours.of)

    def _no_time(self, first: date) -> str:
        """That a step never has time, named, with what it waits for."""
        n = without_room(self.problem(first - timedelta(days=1), _later(first, _DAYS_AHEAD)))
        if n is None:
            return f"there is no time for all of it in the next {_DAYS_AHEAD // 365} years"
        one = self.steps[n]
        waits = {
            "a helper": one.helper,
            "daylight": one.daylight,
            "dry weather": one.dry,
            "warmer weather": one.least is not None,
        }
        needed = " and ".join(what for what, is_needed in waits.items() if is_needed)
        why = f": it waits for {needed}" if needed else ""
        return f"there is no time for “{one.id}” in the next {_DAYS_AHEAD // 365} years{why}"

    @property
    def whole(self) -> int:
        """Minutes of all work and all waits, were nothing done beside anything."""
        return sum(one.minutes + max(one.wait.minutes, one.wait.slow) for one in self.steps)


def _instead_of(after: Iterable[str], gone: TimedStep) -> Iterable[str]:
    for id in after:
        yield from gone.after if id == gone.id else (id,)


def _later(day: date, days: int) -> date:
    try:
        return min(day + timedelta(days=days), date(LAST_YEAR, 12, 31))
    except OverflowError:
        return date(LAST_YEAR, 12, 31)


class _Calendars:
    """The calendar of each step between two days, one for all that need the same."""

    def __init__(self, days: Days, first: date, last: date) -> None:
        self._days, self._first, self._last = days, max(first, date(FIRST_YEAR, 1, 2)), last
        self._base = Calendar(self._spans(days.hours.of))
        self._known: dict[tuple[object, ...], Calendar] = {}
        self.drying = Drying(self._spans_where(lambda day: days.forecast.of(day).slows))

    def _spans(self, hours: Callable[[date], Iterable[Span]]) -> Sequence[Span]:
        return spans_between(self._days.zone, self._first, self._last, hours)

    def _spans_where(self, holds: Callable[[date], bool]) -> Sequence[Span]:
        """All day, on the days of which something holds."""
        return self._spans(lambda day: [(0, MINUTES_A_DAY)] if holds(day) else [])

    def of(self, step: TimedStep) -> Calendar:
        key = step.helper, step.daylight, step.dry, step.least
        if key not in self._known:
            self._known[key] = self._made(step)
        return self._known[key]

    def _made(self, step: TimedStep) -> Calendar:
        days, found = self._days, self._base
        if step.helper and days.helper is not None:
            found = found.within(self._spans(days.helper.of))
        if step.daylight:
            found = found.within(self._spans(lambda _: [days.daylight]))
        if step.dry:
            found = found.within(self._spans_where(lambda day: not days.forecast.of(day).wet))
        if step.least is not None:
            least = step.least
            found = found.within(self._spans_where(lambda day: days.forecast.of(day).allows(least)))
        return found
