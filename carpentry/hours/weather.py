"""The weather that is typed, and how it stretches what has to dry.

A wait goes on at its own pace while it is warm and dry, and more slowly while it is humid or cold:
half as long again where the product says nothing else. Common practice, no source.
"""

from bisect import bisect_right
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from datetime import date
from fractions import Fraction

from carpentry.hours.windows import Span, joined
from carpentry.language import CarpentryError

HUMID_ABOVE = 70  # percent
COLD_BELOW = 13  # °C, 55 °F
HALF_AGAIN = Fraction(3, 2)
COLDEST, HOTTEST = -60, 60  # °C that are believed


@dataclass(frozen=True)
class Weather:
    """What is known of a day: humidity in percent, temperature in °C, ``None`` for what is not;
    whether it is wet outside."""

    humidity: Fraction | None = None
    celsius: Fraction | None = None
    wet: bool = False

    @property
    def slows(self) -> bool:
        """Whether what has to dry takes longer."""
        humid = self.humidity is not None and self.humidity > HUMID_ABOVE
        return humid or (self.celsius is not None and self.celsius < COLD_BELOW)

    def allows(self, least: Fraction | None) -> bool:
        """Whether it is as warm as a product asks for, as far as that is known."""
        return least is None or self.celsius is None or self.celsius >= least


def check_humidity(percent: Fraction) -> Fraction:
    """Raises ``CarpentryError`` unless it is from 0 to 100."""
    if not 0 <= percent <= 100:
        raise CarpentryError(f"a humidity of {float(percent):g} % cannot be: it is from 0 to 100")
    return percent


def check_celsius(celsius: Fraction) -> Fraction:
    """Raises ``CarpentryError`` for what no thermometer of a workshop shows."""
    if not COLDEST <= celsius <= HOTTEST:
        raise CarpentryError(
            f"{float(celsius):g} °C cannot be: a temperature is from {COLDEST} to {HOTTEST} °C"
        )
    return celsius


def read_celsius(figure: str, scale: str) -> Fraction:
    """Degrees in °C or °F, in °C. Raises ``CarpentryError`` for what cannot be."""
    degrees = Fraction(figure)
    return check_celsius((degrees - 32) * 5 / 9 if scale.upper() == "F" else degrees)


@dataclass(frozen=True)
class Forecast:
    """The weather of days as it was typed, else that of their month, else what is ``usual``."""

    usual: Weather = Weather()
    months: Mapping[int, Weather] = field(default_factory=dict)
    days: Mapping[date, Weather] = field(default_factory=dict)

    def of(self, day: date) -> Weather:
        expected = self.months.get(day.month, self.usual)
        known = self.days.get(day)
        if known is None:
            return expected
        return Weather(
            expected.humidity if known.humidity is None else known.humidity,
            expected.celsius if known.celsius is None else known.celsius,
            known.wet,
        )


@dataclass(frozen=True)
class Wait:
    """How long something waits (minutes), and how long it would where all of it is ``slow``
    weather."""

    minutes: int
    slow: int

    @classmethod
    def steady(cls, minutes: int) -> "Wait":
        """One that no weather changes."""
        return cls(minutes, minutes)

    @classmethod
    def slowed(cls, minutes: int, slow: int | None = None) -> "Wait":
        """One that grows in humid or cold weather: to ``slow``, else by half."""
        grown = -int(-minutes * HALF_AGAIN // 1)
        return cls(minutes, grown if slow is None else max(slow, minutes))


class Drying:
    """When waits are over, where the weather is ``slow`` in some stretches of time (instants)."""

    def __init__(self, slow: Iterable[Span] = ()) -> None:
        edges = [edge for span in joined(slow) for edge in span]
        self._edges = edges  # of stretches that are slow and not, in turns

    @property
    def is_steady(self) -> bool:
        """Whether nothing is slow at any time."""
        return not self._edges

    def over(self, start: int, wait: Wait) -> int:
        """When a wait that begins at an instant is over."""
        if wait.minutes == wait.slow or not self._edges:
            return start + wait.minutes
        left, at = wait.minutes * wait.slow, start
        n = bisect_right(self._edges, at)
        while True:
            pace = wait.minutes if n % 2 else wait.slow
            end = at - (-left // pace) if pace else at
            if n == len(self._edges) or end <= self._edges[n]:
                return end
            left -= (self._edges[n] - at) * pace
            at = self._edges[n]
            n += 1

    def begun_by(self, end: int, wait: Wait) -> int:
        """When a wait begins at the latest to be over by then."""
        if wait.minutes == wait.slow or not self._edges:
            return end - wait.minutes
        left, at = wait.minutes * wait.slow, end
        n = bisect_right(self._edges, at - 1)
        while True:
            pace = wait.minutes if n % 2 else wait.slow
            start = at + (-left // pace) if pace else at
            if not n or start >= self._edges[n - 1]:
                return start
            left -= (at - self._edges[n - 1]) * pace
            at = self._edges[n - 1]
            n -= 1
