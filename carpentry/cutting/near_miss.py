"""The mistake the saw punishes: parts that fit a board on paper, but not with kerf and trim."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from enum import StrEnum

from carpentry.cutting.plan import CutPlan
from carpentry.cutting.planner import first_plan
from carpentry.cutting.problem import CutProblem
from carpentry.design.ends import is_angled
from carpentry.language import TICKS_PER_INCH

CLOSE = TICKS_PER_INCH // 2  # parts that are too long by no more than this are a near miss
_MOST_PIECES = 300  # above which nobody looks what less trim would save
_STEP = TICKS_PER_INCH // 16


class Cause(StrEnum):
    """What takes most of the wood that is missing."""

    KERF = "kerf"
    TRIM = "trim"
    LENGTH = "length"


@dataclass(frozen=True)
class NearMiss:
    """``count`` of a part do not come out of a piece of stock by ``missing`` ticks: their own
    length goes ``over`` what it has, or leaves some of it ``spare``; ``kerf`` and ``trim`` are what
    these take."""

    part: str
    count: int
    stock: str
    missing: int
    over: int
    kerf: int
    trim: int

    @property
    def spare(self) -> int:
        return self.kerf + self.trim + self.over - self.missing

    @property
    def cause(self) -> Cause:
        """What takes most, when what is spare is set against the trim first."""
        trim = max(0, self.trim - self.spare)
        kerf = self.kerf - max(0, self.spare - self.trim)
        if self.over and self.over >= max(kerf, trim):
            return Cause.LENGTH
        return Cause.TRIM if trim > kerf else Cause.KERF


def near_misses(problem: CutProblem) -> Iterator[NearMiss]:
    """Every part and stock where counting without the saw would promise one part more.

    Two 48 in parts from a 96 in board, say. Only where that many of the part are wanted.
    """
    for part in (one for one in problem.parts if not is_angled(one.ends)):
        for piece in problem.stock:
            promised = (piece.length + CLOSE) // part.sawn_length
            if promised < 1 or promised > part.quantity or (part.on and piece.id not in part.on):
                continue
            kerf = (promised - 1) * problem.kerf
            trim = problem.trim_start + problem.trim_end
            over = promised * part.sawn_length - piece.length
            missing = over + kerf + trim
            if missing > 0:
                yield NearMiss(part.id, promised, piece.id, missing, max(0, over), kerf, trim)


def less_trim(problem: CutProblem, plan: CutPlan) -> tuple[int, int] | None:
    """By how many ticks less first trim a purchase would have fewer boards and cost no more, and
    how many fewer at the least; ``None`` where it would not, or nobody looked: where boards are
    ripped, and for many pieces."""
    pieces = sum(part.quantity for part in problem.parts)
    if problem.is_ripped or problem.trim_start < _STEP or pieces > _MOST_PIECES or plan.unplaced:
        return None

    def saved(less: int) -> int:
        other = first_plan(replace(problem, trim_start=problem.trim_start - less))
        cheaper = not other.unplaced and other.price <= plan.price
        return plan.pieces_of_stock - other.pieces_of_stock if cheaper else 0

    low, high = 0, problem.trim_start // _STEP
    if saved(high * _STEP) < 1:
        return None
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (low, middle) if saved(middle * _STEP) > 0 else (middle, high)
    return high * _STEP, saved(high * _STEP)
