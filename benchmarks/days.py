"""The plan of days: random projects made up afresh at every run (their seeds printed), against
every order and against a general-purpose solver."""

import json
import random
import statistics
import time

from benchmarks.reporting import report
from carpentry.tests.days_by_brute_force import fault_of, ready_by_brute_force
from carpentry.tests.days_by_program import minutes_until, ready_by_program
from carpentry.tests.random_days import random_days
from carpentry.time import first_plan_of_days, plan_of_days, read_days_file
from carpentry.time.days_file import days_answer
from carpentry.time.solve import solve

PROJECTS, SMALL = 30, 200
_WHOLE = 8.0  # seconds for what is larger than a home project


def days() -> None:
    """When all is ready: how fast, how surely, and whether others find better."""
    first = random.randrange(10**6)
    _first_answers(first)
    _proven(first)
    _larger(first)
    _every_order(first)
    _general_solver(first)
    _taken(first)


def _first_answers(first: int) -> None:
    """At 60 steps, from the question to the answer."""
    seconds = []
    for seed in range(first, first + PROJECTS):
        asked = json.dumps(random_days(seed, 60))
        started = time.perf_counter()
        first_plan_of_days(read_days_file(asked))
        seconds.append(time.perf_counter() - started)
    report(
        "days: first answer, 60 steps",
        f"median {statistics.median(seconds):.3f} s, worst {max(seconds):.3f}",
        f"seeds {first}-{first + PROJECTS - 1}",
    )


def _proven(first: int) -> None:
    """How many are proven, within how long."""
    for count in (12, 24):
        exact, seconds = [], []
        for seed in range(first, first + PROJECTS):
            asked = read_days_file(json.dumps(random_days(seed, count)))
            started = time.perf_counter()
            found = asked.lasting(lambda problem: solve(problem, 1.0))
            seconds.append(time.perf_counter() - started)
            exact.append(found.is_exact)
        report(
            f"days: proven within 1 s, {count} steps",
            f"{sum(exact)} of {len(exact)}",
            f"median {statistics.median(seconds):.3f} s",
            f"seeds {first}-{first + PROJECTS - 1}",
        )


def _larger(first: int) -> None:
    """How far off the bound may be where there is no proof."""
    for count in (40, 60):
        gaps, exact = [], 0
        for seed in range(first, first + 12):
            asked = read_days_file(json.dumps(random_days(seed, count)))
            found = asked.lasting(lambda problem: solve(problem, _WHOLE))
            gaps.append((found.ready - found.bound) / (found.ready - asked.start) * 100)
            exact += found.is_exact
        report(
            f"days: gap to the bound, {count} steps, {_WHOLE:.0f} s",
            f"{exact} of {len(gaps)} proven",
            f"median {statistics.median(gaps):.1f} %, worst {max(gaps):.1f} %",
            f"over 10 %: {sum(gap > 10 for gap in gaps)}",
            f"seeds {first}-{first + 11}",
        )


def _every_order(first: int) -> None:
    """Small ones, against every order of their steps."""
    otherwise = 0
    for seed in range(first, first + SMALL):
        problem = random_days(seed, 1 + seed % 7)
        month = 3 + seed % 2 * 8
        problem |= {"zone": "America/Denver", "from": f"2027-{month:02}-11T18:00"}
        found = days_answer(json.dumps(problem), 5)
        ready = minutes_until(problem, found["ready"])
        right = not fault_of(problem, found) and ready == ready_by_brute_force(problem)
        otherwise += not (right and found["exact"])
    report(
        "days: other than the best of every order",
        f"{otherwise} of {SMALL}",
        f"seeds {first}-{first + SMALL - 1}",
    )


def _general_solver(first: int) -> None:
    """Up to 12 steps, against an integer program."""
    otherwise = 0
    for seed in range(first, first + PROJECTS):
        problem = random_days(seed, 8 + seed % 5)
        for step in problem["steps"]:
            if step.pop("may be split", False):
                step["minutes"] = 100
        found = days_answer(json.dumps(problem), 5)
        ready = minutes_until(problem, found["ready"])
        otherwise += not found["exact"] or ready_by_program(problem, ready + 1) != ready
    report(
        "days: other than a general solver's",
        f"{otherwise} of {PROJECTS}",
        f"seeds {first}-{first + PROJECTS - 1}",
    )


def _taken(first: int) -> None:
    """What would do, taken: is it ready when it was said to be?"""
    kept = broken = 0
    for seed in range(first, first + PROJECTS):
        found = plan_of_days(read_days_file(json.dumps(random_days(seed, 10, wanted=True))), 3)
        for one in found.would_do:
            again = plan_of_days(one.days, 3)
            kept += again.ready == one.ready
            broken += again.ready != one.ready
    report(
        "days: would do, taken, gives the day said",
        f"{kept} of {kept + broken}",
        f"seeds {first}-{first + PROJECTS - 1}",
    )
