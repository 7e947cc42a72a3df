"""What moves the day on which all is ready, and by how much: worked out with and without it."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from time import monotonic

from carpentry.hours.durations import write_long
from carpentry.hours.weather import Forecast
from carpentry.language import CarpentryError
from carpentry.time.asked import Days
from carpentry.time.solve import solve

_A_TRY = 0.25  # seconds for each


@dataclass(frozen=True)
class Reason:
    """What makes it ``minutes`` later, in words; ``exact`` where that is known to be so much."""

    says: str
    minutes: int
    exact: bool

    @property
    def told(self) -> str:
        """``Rain makes it 1 day later.``"""
        about = "" if self.exact else "about "
        return f"{self.says} {about}{write_long(self.minutes)} later."


def reasons_of(days: Days, ready: int, *, exact: bool, deadline: float) -> Iterator[Reason]:
    """Each of what holds the days up that there is, as far as that is found out until the
    deadline."""
    for says, without in _without_each(days):
        if monotonic() > deadline:
            return
        try:
            found = without.lasting(lambda problem: solve(problem, _A_TRY))
        except CarpentryError:
            continue
        if found.ready < ready:
            is_exact = exact and found.bound >= found.ready
            yield Reason(says, ready - found.ready, is_exact)


def _without_each(days: Days) -> Iterator[tuple[str, Days]]:
    """The days without each of their hindrances."""
    left = [one for one in days.steps if one.ended is None]

    def steps(**fields: object) -> Days:
        changed = (
            one if one.ended is not None else replace(one, **fields)  # type: ignore[arg-type]
            for one in days.steps
        )
        return replace(days, steps=tuple(changed))

    if any(one.dry for one in left):
        yield "Waiting for dry weather makes it", steps(dry=False)
    if any(one.daylight for one in left):
        yield "Waiting for daylight makes it", steps(daylight=False)
    if any(one.least is not None for one in left):
        yield "Waiting until it is warm enough makes it", steps(least=None)
    if any(one.wait.slow > one.wait.minutes for one in left) and days.forecast != Forecast():
        steady = replace(
            days,
            steps=tuple(
                one
                if one.ended is not None
                else replace(one, wait=replace(one.wait, slow=one.wait.minutes))
                for one in days.steps
            ),
        )
        yield "What dries slowly in this weather makes it", steady
    if days.helper is not None and any(one.helper for one in left):
        yield "Waiting for the helper makes it", steps(helper=False)
    if days.clamps is not None and any(one.clamps for one in left):
        yield f"Having {days.clamps} clamps makes it", replace(days, clamps=None)
    if days.hours.off:
        yield "Days off make it", replace(days, hours=replace(days.hours, off=frozenset()))
