"""The weather as it is typed, a line for a day, a month or always."""

import re
from collections.abc import Iterable
from dataclasses import replace
from datetime import date
from fractions import Fraction

from carpentry.hours.clock import read_date
from carpentry.hours.weather import Forecast, Weather, check_humidity, read_celsius
from carpentry.language import CarpentryError

MONTHS = (
    *("january", "february", "march", "april", "may", "june"),
    *("july", "august", "september", "october", "november", "december"),
)
_HUMIDITY = re.compile(r"(-?\d{1,4}(?:\.\d{1,2})?)\s*%")
_TEMPERATURE = re.compile(r"(-?\d{1,4}(?:\.\d{1,2})?)\s*°?\s*([FC])", re.IGNORECASE)
When = date | int | None  # a day, a month, or always


def read_weather(text: str) -> tuple[When, Weather]:
    """When, and what weather: ``2027-06-09: 76 %, 68 °F, rain``, ``june: 70 %``, ``always: 65 %, 18
    C``. Raises ``CarpentryError``."""
    when, colon, rest = text.strip().partition(":")
    clauses = [one.strip() for one in rest.split(",") if one.strip()]
    if not colon or not clauses:
        raise CarpentryError("write when and what: 2027-06-09: 76 %, 68 °F, rain")
    found = Weather()
    for clause in clauses:
        humidity, degrees = _HUMIDITY.fullmatch(clause), _TEMPERATURE.fullmatch(clause)
        if humidity:
            found = replace(found, humidity=check_humidity(Fraction(humidity[1])))
        elif degrees:
            found = replace(found, celsius=read_celsius(degrees[1], degrees[2]))
        elif clause.lower() in ("rain", "wet", "snow"):
            found = replace(found, wet=True)
        elif clause.lower() in ("dry", "sun", "fair"):
            found = replace(found, wet=False)
        else:
            raise CarpentryError(
                f"“{clause[:40]}” is no weather: write a humidity such as 76 %, a temperature such "
                "as 68 °F, rain or dry"
            )
    read = _when(when.strip())
    if found.wet and not isinstance(read, date):
        raise CarpentryError("rain is typed for a day")
    return read, found


def _when(text: str) -> When:
    word = text.lower()
    if word in ("always", "usually"):
        return None
    named = [
        n for n, month in enumerate(MONTHS, start=1) if len(word) > 2 and month.startswith(word)
    ]
    return named[0] if named else read_date(text)


def forecast_of(told: Iterable[tuple[When, Weather]]) -> Forecast:
    """What is expected, a later line of the same time over an earlier one."""
    usual = Weather()
    months: dict[int, Weather] = {}
    days: dict[date, Weather] = {}
    for when, weather in told:
        if when is None:
            usual = weather
        elif isinstance(when, date):
            days[when] = weather
        else:
            months[when] = weather
    return Forecast(usual, months, days)
