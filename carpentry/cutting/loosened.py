"""The relaxed problem of one whose models leave out some ways to save: every plan there is has room
in it, and may be cheaper.

A model gives every angled end a saw line of its own, but for one class that shares; it shares
bevels with their like only; it lays parts that may lie on a flaw in few ways. In the relaxed
problem saw lines are square, at every end half of what sharing it could save is gone, bevels lie as
close as they can come (of several thicknesses: with the wood between the middles of their edges),
and parts that must be clear keep off flaws by themselves, but not beside others that may lie on
them; a saw's fence stands as far away as it must, and tilted blades cut as deep.
"""

from dataclasses import replace
from decimal import Decimal
from fractions import Fraction

from carpentry.cutting.problem import CutPart, CutProblem
from carpentry.design.edges import SQUARE_EDGES
from carpentry.design.ends import SQUARE_ENDS, is_angled


def has_angles(problem: CutProblem) -> bool:
    """Whether an end or an edge of any part is slanted."""
    return any(is_angled(part.ends) or is_angled(part.edges) for part in problem.parts)


def loosened(problem: CutProblem) -> CutProblem:
    """The relaxed problem."""
    share = problem.share_angled_cuts
    bevelled = {part.thickness for part in problem.parts if is_angled(part.edges)}

    def least(part: CutPart) -> CutPart:
        saved = (part.reach(0) + part.reach(1)) // 2 if share else 0
        square = replace(part, length=max(1, part.length - saved), ends=SQUARE_ENDS)
        return _half_way_up(square) if len(bevelled) > 1 else square

    parts = tuple(least(part) for part in problem.parts)
    return replace(problem, parts=parts, share_angled_cuts=False)


def _half_way_up(part: CutPart) -> CutPart:
    """A part with square edges, as wide as half way up its thickness. Where bevels are ripped on
    pieces as thick as their part, strips side by side have a kerf or more between them there."""
    if part.width is None or part.thickness is None or not is_angled(part.edges):
        return part
    reach = sum(edge.reach(part.thickness, 0) for edge in part.edges)
    wide = max(1, part.width - (reach + 1) // 2)
    return replace(part, width=wide, edges=SQUARE_EDGES, turn=False)


def cost_of_wood(problem: CutProblem) -> Decimal:
    """What the wood in the parts alone costs at the least, at the best price by volume that a piece
    of stock has, and no less than one piece; nothing where some stock is free."""
    rates = [
        Fraction(piece.price) / (piece.length * (piece.width or 1) * (piece.thickness or 1))
        for piece in problem.stock
        if piece.available != 0 and piece.length
    ]
    volume = 0
    for part in problem.parts:
        thick, wide = part.thickness or 1, part.width or 1
        along = part.length - sum(map(part.reach, (0, 1)))
        across = wide - sum(edge.reach(thick, 0) for edge in part.edges)
        volume += max(0, along) * max(0, across) * thick * part.quantity
    cents = Fraction(100) * volume * min(rates, default=Fraction(0))
    one = min((piece.price for piece in problem.stock if piece.available != 0), default=Decimal(0))
    return max(Decimal(int(cents)).scaleb(-2), one if problem.parts else Decimal(0))
