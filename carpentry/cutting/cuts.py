"""How a board comes apart: its cuts in an order in which they can be made, and what every piece is.

Drawing, paper, terminal and shop show these cuts and nothing else. Positions are ticks in the
board's own coordinates: along it from the marked end, across it from the marked edge, through it
from the marked face.
"""

from dataclasses import dataclass
from enum import StrEnum

from carpentry.design.ends import SQUARE, EndAngle


class Saw(StrEnum):
    """Across the grain; along it through the thickness; along it through the width."""

    CROSSCUT = "crosscut"
    RIP = "rip"
    RESAW = "resaw"


@dataclass(frozen=True)
class Cut:
    """One straight cut of piece ``of``; the board is piece 0. The saw takes from ``start`` to
    ``end`` (ticks), one kerf or kerf ÷ cos θ; at the ends of a piece a part of that may be air.
    ``makes`` are the pieces below ``start`` and above ``end``, ``None`` where nothing is left.

    ``angle`` is that of the right end (of a rip: the right edge) of what lies below: positive where
    its long point is on the marked edge (a bevel or tilt: on the marked face). Positions of a
    slanted cut are those on the edge and face of its piece that are nearest the marked ones.
    """

    saw: Saw
    of: int
    start: int
    end: int
    makes: tuple[int | None, int | None]
    angle: EndAngle = SQUARE


@dataclass(frozen=True)
class SawnPiece:
    """A piece that is cut no further: a ``part``, an offcut to ``keep``, or waste."""

    number: int
    part: str = ""
    keep: bool = False

    @property
    def is_waste(self) -> bool:
        return not self.part and not self.keep
