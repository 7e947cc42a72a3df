"""How figures are taken and printed."""

import statistics
import time

from carpentry.cutting import Budget, CutPlan, CutProblem, plan_cuts


def timed(problem: CutProblem, budget: Budget | None = None) -> tuple[CutPlan, float]:
    """A plan and the processor seconds it took."""
    started = time.process_time()
    return plan_cuts(problem, budget), time.process_time() - started


def gap(plan: CutPlan) -> float:
    """Percent between a plan's price and what is proven possible."""
    return float((plan.price - plan.bound) / plan.bound * 100) if plan.bound else 100.0


def report(what: str, *figures: str) -> None:
    print(f"{what:<44} {'  '.join(figures)}", flush=True)


def spread(seconds: list[float]) -> str:
    return f"median {statistics.median(seconds):.2f} s of CPU, worst {max(seconds):.2f}"
