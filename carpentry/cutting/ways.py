"""Which way a cut problem is worked on: here a new kind of stock joins."""

from carpentry.cutting.angled.way import AngledWay
from carpentry.cutting.line.way import LineWay
from carpentry.cutting.problem import CutProblem
from carpentry.cutting.ripped.way import RippedWay
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.way import Way
from carpentry.design.ends import is_angled


def way_for(problem: CutProblem, clock: Clock) -> Way:
    """The way that proves most of a problem."""
    if problem.is_ripped:
        return RippedWay(problem)
    angled = any(is_angled(part.ends) for part in problem.parts)
    return (angled and AngledWay.of(problem, clock)) or LineWay(problem)


def quick_way(problem: CutProblem) -> Way:
    """A way that is at hand at once."""
    return RippedWay(problem) if problem.is_ripped else LineWay(problem)
