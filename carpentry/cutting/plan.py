"""A cut plan: boards, what lies on each, and what was proven about it."""

from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum

from carpentry.cutting.problem import CutPart, CutProblem, StockPiece


class Status(StrEnum):
    """What a plan claims."""

    OPTIMAL = "optimal"
    FEASIBLE = "feasible"
    INCOMPLETE = "incomplete"


@dataclass(frozen=True)
class PlacedPart:
    """A part on a board, from ``start`` to ``end`` in ticks from the board's marked end."""

    part: str
    start: int
    end: int


@dataclass(frozen=True)
class Leftover:
    """Sound wood that no part uses, in ticks from the board's marked end."""

    start: int
    end: int

    @property
    def length(self) -> int:
        return self.end - self.start


@dataclass(frozen=True)
class Layout:
    """``count`` boards of one stock, all cut alike."""

    stock: str
    count: int
    parts: tuple[PlacedPart, ...]
    leftover: tuple[Leftover, ...]


@dataclass(frozen=True)
class Unplaced:
    """Parts that got no place, and why, in words."""

    part: str
    quantity: int
    reason: str


@dataclass(frozen=True)
class CutPlan:
    """A plan for a ``CutProblem``.

    ``optimal`` means that price and number of pieces are proven least; otherwise ``bound`` is a
    price below which no plan that places as many parts exists.
    """

    status: Status
    price: Decimal
    bound: Decimal
    layouts: tuple[Layout, ...]
    unplaced: tuple[Unplaced, ...]

    @property
    def pieces_of_stock(self) -> int:
        return sum(layout.count for layout in self.layouts)


def lay_out(problem: CutProblem, piece: StockPiece, parts: list[CutPart], count: int = 1) -> Layout:
    """The layout of ``parts``, one after the other from the start of sound wood, on ``piece``."""
    at = problem.trim_start
    placed: list[PlacedPart] = []
    for part in parts:
        placed.append(PlacedPart(part.id, at, at + part.length))
        at += part.length + problem.kerf
    sound_end = piece.length - problem.trim_end
    rest = (Leftover(at, sound_end),) if sound_end > at else ()
    return Layout(piece.id, count, tuple(placed), rest)
