"""Cut plans: which part from which board, at the least price, with a proof.

``plan_cuts`` plans a ``CutProblem``; ``check_plan`` replays any plan with other code.
Files are read by ``read_problem`` and written by ``plan_document``.
"""

from carpentry.cutting.check import check_plan
from carpentry.cutting.cuts import Cut, Saw, SawnPiece
from carpentry.cutting.near_miss import Cause, NearMiss, less_trim, near_misses
from carpentry.cutting.plan import CutPlan, Ended, Layout, Leftover, PlacedPart, Status, Unplaced
from carpentry.cutting.plan_file import plan_document, read_plan
from carpentry.cutting.planner import Budget, Progress, first_plan, plan_cuts, steadied
from carpentry.cutting.problem import (
    MOST_WEDGE,
    NO_LIMITS,
    NO_SPARE,
    CutPart,
    CutProblem,
    Extra,
    Order,
    SawLimits,
    Spare,
    StockPiece,
)
from carpentry.cutting.problem_file import problem_document, read_problem, read_saw_angle
from carpentry.cutting.sawing import with_cuts
from carpentry.cutting.within import plan_within

__all__ = [
    "MOST_WEDGE",
    "NO_LIMITS",
    "NO_SPARE",
    "Budget",
    "Cause",
    "Cut",
    "CutPart",
    "CutPlan",
    "CutProblem",
    "Ended",
    "Extra",
    "Layout",
    "Leftover",
    "NearMiss",
    "Order",
    "PlacedPart",
    "Progress",
    "Saw",
    "SawLimits",
    "SawnPiece",
    "Spare",
    "Status",
    "StockPiece",
    "Unplaced",
    "check_plan",
    "first_plan",
    "less_trim",
    "near_misses",
    "plan_cuts",
    "plan_document",
    "plan_within",
    "problem_document",
    "read_plan",
    "read_problem",
    "read_saw_angle",
    "steadied",
    "with_cuts",
]
