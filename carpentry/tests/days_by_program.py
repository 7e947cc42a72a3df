"""When all is ready, by a general-purpose solver: the same problem as an integer program."""

from datetime import datetime, timedelta
from itertools import permutations
from zoneinfo import ZoneInfo

import pulp

from carpentry.language import Json
from carpentry.tests.days_by_brute_force import free_minutes, wait_of


def _stretches(lasts: list[int], until: int) -> list[tuple[int, int]]:
    found, n = [], 0
    while n < until:
        if lasts[n]:
            found.append((n, n + lasts[n]))
            n += lasts[n]
        n += 1
    return found


def ready_by_program(problem: Json, known: int, seconds: int = 60) -> int | None:
    """Minutes from the beginning until all is ready; by ``known`` it can be. ``None`` where the
    solver does not come to an end. Steps that may be split are not understood."""
    lasts, _ = free_minutes(problem["zone"], problem["from"], tuple(problem.get("off", ())))
    free = _stretches(lasts, known)
    steps = {one["id"]: one for one in problem["steps"]}
    waits = {id: wait_of(one, problem.get("weather", {})) for id, one in steps.items()}
    here = {id: s["minutes"] + (waits[id] if s.get("stay") else 0) for id, s in steps.items()}
    model = pulp.LpProblem("days", pulp.LpMinimize)
    ready = pulp.LpVariable("ready", 0, known)
    model += ready
    start = {id: pulp.LpVariable(f"s_{id}", 0, known) for id in steps}
    for id, step in steps.items():
        in_ = [pulp.LpVariable(f"w_{id}_{n}", cat="Binary") for n in range(len(free))]
        model += pulp.lpSum(in_) == 1
        model += start[id] >= pulp.lpSum(one * a for one, (a, _) in zip(in_, free, strict=True))
        model += start[id] + here[id] <= pulp.lpSum(
            one * b for one, (_, b) in zip(in_, free, strict=True)
        )
        model += ready >= start[id] + step["minutes"] + waits[id]
        for before in step.get("after", []):
            model += start[id] >= start[before] + steps[before]["minutes"] + waits[before]
    far = known + max(waits.values()) + max(here.values())
    first = {
        pair: pulp.LpVariable(f"y_{'_'.join(pair)}", cat="Binary")
        for pair in permutations(steps, 2)
    }
    for (one, other), is_first in first.items():
        model += is_first + first[other, one] == 1
        model += start[other] >= start[one] + here[one] - far * (1 - is_first)
    users = [id for id, one in steps.items() if one.get("clamps")]
    for other in users:
        held = []
        for one in users:
            if one != other:
                beside = pulp.LpVariable(f"z_{one}_{other}", cat="Binary")
                over = start[one] + steps[one]["minutes"] + waits[one]
                model += start[other] >= over - far * (1 - first[one, other] + beside)
                held.append(beside * steps[one]["clamps"])
        model += pulp.lpSum(held) <= problem["clamps"] - steps[other]["clamps"]
    model.solve(pulp.HiGHS(msg=False, timeLimit=seconds, gapAbs=0.5, gapRel=0))
    if model.status != pulp.LpStatusOptimal or model.sol_status != pulp.LpSolutionOptimal:
        return None
    found: int = round(pulp.value(ready))
    return found


def minutes_until(problem: Json, moment: str) -> int:
    """Minutes from the beginning of a problem to a local time in an answer."""
    info = ZoneInfo(problem["zone"])
    ends = []
    for text in (problem["from"], moment):
        read = datetime.fromisoformat(text)
        ends.append(read if read.tzinfo else read.replace(tzinfo=info))
    return int((ends[1].timestamp() - ends[0].timestamp()) // timedelta(minutes=1).total_seconds())
