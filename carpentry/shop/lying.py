"""How a piece lies on a saw for one cut of the plan: what is up, what is against the fence or the
stop, how far from it the blade stands, and how it leans.

A piece is seen with its marked face up and its marked end to the left: its marked edge is then the
one away from the builder, against the fence of a miter saw. At a table saw it is pushed away from
the builder. Where the blade is tilted, distances are measured at the table, where fence, stop and
blade meet it. Common practice, no source, but for the geometry.
"""

import math
from dataclasses import dataclass
from decimal import Decimal

from carpentry.cutting import Cut, Saw
from carpentry.cutting.replay import Piece
from carpentry.language import TICKS_PER_INCH

NARROW = 3 * TICKS_PER_INCH // 2  # a narrower strip is not guided between blade and fence
FACE, BACK = "marked face", "back"
EDGE, FAR_EDGE = "marked edge", "far edge"
END, FAR_END = "marked end", "far end"
NOTHING = Decimal(0)


@dataclass(frozen=True)
class Lying:
    """A piece on the saw. ``up`` is the face that is seen (of a resaw: the edge), ``fence`` what
    lies against the fence, ``first`` the end that goes first, or at the stop. ``distance`` is from
    fence or stop to the near side of the blade, ``beyond`` to its far side (ticks, at the table).
    ``lean`` are degrees: of a blade that is tilted, positive where its top leans away from fence or
    stop; ``swing`` of a miter saw that is turned, positive where its front end goes to the left."""

    up: str
    fence: str
    first: str
    distance: int
    beyond: int
    lean: Decimal = NOTHING
    swing: Decimal = NOTHING


def at_the_miter_saw(cut: Cut, piece: Piece, *, over: bool = False) -> Lying:
    """A crosscut: the marked end to the left, at the stop; turned ``over`` about its length the
    back is up and the far edge against the fence, so that the saw turns and tilts the other way."""
    x0 = round(piece.spans[0][0])
    y, z = (1, 0) if over else (0, 1)  # which of its spans' ends are at the fence, on the table
    lean, swing = NOTHING, NOTHING
    degrees = cut.angle.degrees
    if cut.angle.bevel:
        away = _gone(piece, 2, z, degrees)
        lean = -degrees if over else degrees
    else:
        away = _gone(piece, 1, y, degrees)
        swing = -degrees if over else degrees
    return Lying(
        up=BACK if over else FACE,
        fence=FAR_EDGE if over else EDGE,
        first=END,
        distance=max(0, cut.start - away - x0),
        beyond=cut.end - away - x0,
        lean=lean,
        swing=swing,
    )


def _gone(piece: Piece, axis: int, which: int, degrees: Decimal) -> int:
    """How much nearer the marked end or edge a slanted cut is on the far one (1) of two sides."""
    return round(which * piece.size(axis) * math.tan(math.radians(degrees)))


def at_the_fence(cut: Cut, piece: Piece, *, far: bool | None = None) -> Lying:
    """A rip or a resaw: with the marked edge (of a resaw: face) against the fence, or with the
    ``far`` one; where that is not said so that a narrow strip falls on the free side. A tilted
    blade leans away from the fence."""
    axis = 1 if cut.saw is Saw.RIP else 2
    low, high = (round(one) for one in piece.spans[axis])
    if far is None:
        far = _falls_free(cut, cut.start - low, high - cut.end)
    degrees = cut.angle.degrees
    if cut.saw is Saw.RESAW:
        fence, up, marked_first = (BACK, FAR_EDGE, False) if far else (FACE, FAR_EDGE, True)
    else:
        face_up = (degrees > 0) != far if degrees else True
        fence, up = FAR_EDGE if far else EDGE, FACE if face_up else BACK
        marked_first = face_up != far
    on_table = 1 if up == FACE else 0
    away = _gone(piece, 2, on_table, degrees) if degrees else 0
    near, off = (
        (high - cut.end + away, high - cut.start + away)
        if far
        else (cut.start - away - low, cut.end - away - low)
    )
    return Lying(up, fence, END if marked_first else FAR_END, max(0, near), off, lean=abs(degrees))


def _falls_free(cut: Cut, below: int, above: int) -> bool:
    """Whether what lies below a cut is on the free side of the blade."""
    return (above > below and (cut.saw is Saw.RESAW or below < NARROW)) or below <= 0
