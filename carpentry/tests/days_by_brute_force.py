"""When all is ready, found by trying every order: other code, minute by minute, on JSON alone."""

from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from functools import cache
from itertools import pairwise
from typing import Any
from zoneinfo import ZoneInfo

from carpentry.language import Json

HORIZON = 45 * 24 * 60  # minutes
UNITS = {"min": 1, "h": 60}


def minutes_of(text: str) -> int:
    amount, unit = text.split()
    return int(amount) * UNITS[unit]


def wait_of(step: Json, weather: Json) -> int:
    """Steps that say so wait half as long again above 70 %."""
    wait = minutes_of(step.get("wait", "0 min"))
    humid = weather.get("humidity", 0) > 70 and step.get("slower when humid")
    return -(-wait * 3 // 2) if humid else wait


@cache
def free_minutes(zone: str, start: str, off: tuple[str, ...] = ()) -> tuple[list[int], datetime]:
    """From every minute on, for how many minutes the usual hours last; and the first minute. Read
    off the clock on the wall."""
    info = ZoneInfo(zone)
    begin = datetime.fromisoformat(start).replace(tzinfo=info).astimezone(UTC)
    free = []
    for n in range(HORIZON):
        wall = (begin + timedelta(minutes=n)).astimezone(info)
        early, late = (9, 17) if wall.weekday() > 4 else (18, 21)
        free.append(early <= wall.hour < late and wall.date().isoformat() not in off)
    lasts = [0] * (HORIZON + 1)
    for n in reversed(range(HORIZON)):
        lasts[n] = lasts[n + 1] + 1 if free[n] else 0
    return lasts, begin


def orders(steps: list[Json]) -> Iterator[list[int]]:
    """Every order in which no step is before one that it comes after."""
    named = {step["id"]: n for n, step in enumerate(steps)}
    after = [{named[id] for id in step.get("after", [])} for step in steps]

    def longer(order: list[int]) -> Iterator[list[int]]:
        if len(order) == len(steps):
            yield order
        for n in range(len(steps)):
            if n not in order and after[n] <= set(order):
                yield from longer([*order, n])

    return longer([])


def ready_by_brute_force(problem: Json, start: str = "") -> int:
    """Minutes from the beginning until all is ready, in the best order."""
    lasts, _ = free_minutes(
        problem["zone"], start or problem["from"], tuple(problem.get("off", ()))
    )
    return min(_ready(problem, order, lasts) for order in orders(problem["steps"]))


def _ready(problem: Json, order: list[int], lasts: list[int]) -> int:
    at = ready = 0
    free_from: dict[str, int] = {}
    holds: list[tuple[int, int, int]] = []
    for n in order:
        step = problem["steps"][n]
        wait = wait_of(step, problem.get("weather", {}))
        here = step["minutes"] + (wait if step.get("stay") else 0)
        start = max([at, *(free_from[id] for id in step.get("after", []))])
        clamps = step.get("clamps", 0)
        while True:
            if step.get("may be split"):
                while not lasts[start]:
                    start += 1
                end, left = start, step["minutes"]
                while left:
                    left -= bool(lasts[end])
                    end += 1
            else:
                while lasts[start] < here:
                    start += 1
                end = start + step["minutes"]
            held = sum(count for begin, until, count in holds if begin <= start < until)
            if not clamps or held + clamps <= problem["clamps"]:
                break
            start += 1
        free_from[step["id"]] = end + wait
        if clamps:
            holds.append((start, end + wait, clamps))
        at = end + (wait if step.get("stay") else 0)
        ready = max(ready, end + wait)
    return ready


def fault_of(problem: Json, answer: Json) -> str:
    """What is wrong with the answer to a problem, empty where it can be done as it says."""
    lasts, begin = free_minutes(problem["zone"], problem["from"], tuple(problem.get("off", ())))
    info = ZoneInfo(problem["zone"])

    def at(text: str) -> int:
        moment = datetime.fromisoformat(text)
        moment = moment if moment.tzinfo else moment.replace(tzinfo=info)
        return int((moment.astimezone(UTC) - begin) / timedelta(minutes=1))

    steps: dict[str, Any] = {one["id"]: one for one in problem["steps"]}
    placed = {o["id"]: (at(o["start"]), at(o["end"]), at(o["free_from"])) for o in answer["steps"]}
    if placed.keys() != steps.keys():
        return "not every step is there"
    busy: list[tuple[int, int]] = []
    for id, (start, end, over) in placed.items():
        step = steps[id]
        wait = wait_of(step, problem.get("weather", {}))
        if over != end + wait:
            return f"{id} does not wait as it should"
        if any(placed[one][2] > start for one in step.get("after", [])):
            return f"{id} begins too early"
        if step.get("may be split"):
            if sum(bool(one) for one in lasts[start:end]) != step["minutes"]:
                return f"{id} does not take its time"
        elif end - start != step["minutes"]:
            return f"{id} does not take its time"
        elif lasts[start] < step["minutes"] + (wait if step.get("stay") else 0):
            return f"{id} is not in free hours"
        busy.append((start, over if step.get("stay") else end))
    busy.sort()
    if any(one[1] > other[0] for one, other in pairwise(busy)):
        return "two things are done at once"
    for start, _, _ in placed.values():
        held = sum(
            steps[id].get("clamps", 0) for id, (s, _, over) in placed.items() if s <= start < over
        )
        if held > problem["clamps"]:
            return "there are not so many clamps"
    if at(answer["ready"]) != max(over for _, _, over in placed.values()):
        return "it is not ready when it says"
    return ""
