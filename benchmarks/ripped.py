"""Ripped boards: what is proven, how soon there is a plan, what planning together saves."""

import statistics
import time
from dataclasses import replace
from decimal import Decimal

from benchmarks.reporting import gap, report
from carpentry.cutting import Budget, CutPlan, CutProblem, Status, first_plan, plan_cuts
from carpentry.tests.problems import rip_size


def _alone(problem: CutProblem) -> Decimal:
    """Every width planned on its own, each with the same time."""
    total = Decimal(0)
    for width in {part.width for part in problem.parts}:
        some = tuple(part for part in problem.parts if part.width == width)
        total += plan_cuts(replace(problem, parts=some), Budget(2.0)).price
    return total


def _planned(problem: CutProblem, seconds: float) -> tuple[CutPlan, float, float]:
    """A plan, the seconds to the first one, and those of the limit that it took."""
    started = time.perf_counter()
    first_plan(problem)
    first = time.perf_counter() - started
    started = time.perf_counter()
    plan = plan_cuts(problem, Budget(seconds))
    return plan, first, (time.perf_counter() - started) / seconds


def rips() -> None:
    problems = [rip_size(seed) for seed in range(12)]
    done = [_planned(problem, 5.0) for problem in problems]
    plans = [plan for plan, _, _ in done]
    gaps = [gap(plan) for plan in plans]
    ratios = [plan.price / _alone(problem) for plan, problem in zip(plans, problems, strict=True)]
    report(
        "ripped, up to 45 parts, 5 s",
        f"{sum(plan.status is Status.OPTIMAL for plan in plans)} of {len(plans)} proven",
        f"gap median {statistics.median(gaps):.1f} %, worst {max(gaps):.1f} %",
    )
    report(
        "  first plan, limit kept",
        f"worst {max(first for _, first, _ in done):.2f} s",
        f"{max(share for _, _, share in done):.2f} of the limit",
    )
    report(
        "  price against each width ripped alone",
        f"mean {statistics.mean(map(float, ratios)):.3f}, worst {float(max(ratios)):.3f}",
    )
    large = [rip_size(100 + seed, kinds=(10, 16), parts=(100, 150)) for seed in range(4)]
    done = [_planned(problem, 30.0) for problem in large]
    gaps = [gap(plan) for plan, _, _ in done]
    report(
        "ripped, up to 150 parts, 30 s",
        f"gaps {', '.join(f'{g:.1f} %' for g in gaps)}",
        f"first plan {max(first for _, first, _ in done):.2f} s",
        f"{max(share for _, _, share in done):.2f} of the limit",
    )
