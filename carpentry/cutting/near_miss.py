"""The mistake the saw punishes: parts that fit a board on paper, but not with kerf and trim."""

from collections.abc import Iterator
from dataclasses import dataclass

from carpentry.cutting.problem import CutProblem
from carpentry.ends import is_angled


@dataclass(frozen=True)
class NearMiss:
    """``count`` of a part add up to no more than a piece of stock is long, yet do not come out of
    it: ``missing`` ticks are lost to kerf and trims."""

    part: str
    count: int
    stock: str
    missing: int


def near_misses(problem: CutProblem) -> Iterator[NearMiss]:
    """Every part and stock where counting without the saw would promise one part more.

    Two 48 in parts from a 96 in board, say. Only where that many of the part are wanted.
    """
    for part in (one for one in problem.parts if not is_angled(one.ends)):
        for piece in problem.stock:
            promised = piece.length // part.sawn_length
            if promised < 1 or promised > part.quantity:
                continue
            needed = promised * (part.sawn_length + problem.kerf) - problem.kerf
            missing = needed - problem.sound_length(piece)
            if missing > 0:
                yield NearMiss(part.id, promised, piece.id, missing)
