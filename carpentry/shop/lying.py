"""How a piece lies on a saw for one cut of the plan: what is up, what is against the fence or the
stop, what touches the stop, how far from it the blade stands, how it leans, and where its line is.

A piece is seen with its marked face up and its marked end to the left: its marked edge is then the
one away from the builder, against the fence of a miter saw. At a table saw it is pushed away from
the builder. Where the blade is tilted fence and stop are set at the table, where fence, stop and
blade meet it; a line is drawn on the face that is up. Common practice, no source, but for the
geometry.
"""

import math
from dataclasses import dataclass
from decimal import Decimal
from itertools import combinations

from carpentry.cutting import Cut, Saw
from carpentry.cutting.replay import Piece
from carpentry.language import TICKS_PER_INCH

NARROW = 3 * TICKS_PER_INCH // 2  # a narrower strip is not guided between blade and fence
FACE, BACK = "marked face", "back"
EDGE, FAR_EDGE = "marked edge", "far edge"
END, FAR_END = "marked end", "far end"
LONG_POINT, LONG_EDGE_UP, LONG_EDGE_DOWN = "long point", "long edge up", "long edge down"
NOTHING = Decimal(0)
_SLACK = 4  # ticks that corners may differ by and still touch together
_STOP = TICKS_PER_INCH // 2  # from the fence, that a stop surely is deep

Corners = tuple[int, int, int, int]


@dataclass(frozen=True)
class Lying:
    """A piece on the saw. ``up`` is the face that is seen (of a resaw: the edge), ``fence`` what
    lies against the fence, ``first`` the end that goes first, or at the stop. ``distance`` is from
    fence or stop to the near side of the blade, ``beyond`` to its far side (ticks, at the table).
    ``lean`` are degrees: of a blade that is tilted, positive where its top leans away from fence or
    stop; ``swing`` of a miter saw that is turned, positive where its front end goes to the left.

    ``touches`` is what of a slanted end touches the stop, empty for a square one, ``None`` where
    its long point is away from the fence, so that a stop tells nothing. On the face that is up the
    saw takes from ``line`` to ``line_beyond`` (ticks), measured ``along`` an edge ``from_`` the end
    or the long point there. ``near_end``, ``blade`` and ``far_end`` say where the ends and the near
    side of the blade are, at the corners of the section (ticks from what touches the stop): at the
    fence and away from it on the face that is up, away from it and at the fence on the table."""

    up: str
    fence: str
    first: str
    distance: int
    beyond: int
    lean: Decimal = NOTHING
    swing: Decimal = NOTHING
    touches: str | None = ""
    line: int = 0
    line_beyond: int = 0
    along: str = ""
    from_: str = "end"
    near_end: Corners = (0, 0, 0, 0)
    blade: Corners = (0, 0, 0, 0)
    far_end: Corners = (0, 0, 0, 0)


def at_the_miter_saw(cut: Cut, piece: Piece, *, over: bool = False) -> Lying:
    """A crosscut: the marked end to the left, at the stop; turned ``over`` about its length the
    back is up and the far edge against the fence, so that the saw turns and tilts the other way."""
    degrees = -cut.angle.degrees if over else cut.angle.degrees
    section = _section(piece, over=over)
    near_end = [_end(piece, y, z, upper=False) for y, z in section]
    far_end = [_end(piece, y, z, upper=True) for y, z in section]
    blade = [_blade(cut, piece, y, z) for y, z in section]
    at_fence = outermost(piece)[over]
    contact = min(
        (near_end[n] for n in (0, 3) if abs(section[n][0] - at_fence) <= _STOP),
        default=min(near_end),
    )
    kerf = cut.end - cut.start
    distance = round(_blade(cut, piece, at_fence, section[3][1]) - contact)
    datum = 0 if near_end[0] <= near_end[1] + _SLACK else 1
    is_flush = abs(near_end[0] - near_end[1]) <= _SLACK
    line = round(blade[datum] - near_end[datum])
    fence, front = (FAR_EDGE, EDGE) if over else (EDGE, FAR_EDGE)
    return Lying(
        up=BACK if over else FACE,
        fence=fence,
        first=END,
        distance=distance,
        beyond=distance + kerf,
        lean=degrees if cut.angle.bevel else NOTHING,
        swing=NOTHING if cut.angle.bevel else degrees,
        touches=_touches(near_end, contact),
        line=line,
        line_beyond=line + kerf,
        along=front if datum else fence,
        from_="end" if is_flush else LONG_POINT,
        near_end=_from(contact, near_end),
        blade=_from(contact, blade),
        far_end=_from(contact, far_end),
    )


def _section(piece: Piece, *, over: bool) -> list[tuple[float, float]]:
    """The corners of a section, across and through the board: at the fence and away from it on the
    face that is up, away from it and at the fence on the table."""
    (z0, z1), found = piece.spans[2], []
    for z, outward in (((z1 if over else z0), False), ((z0 if over else z1), True)):
        both = across(piece, z)
        fence, front = (both[1], both[0]) if over else both
        found += [(front, z), (fence, z)] if outward else [(fence, z), (front, z)]
    return found


def across(piece: Piece, z: float) -> tuple[float, float]:
    """From where to where a piece is there across the board, so deep in it (ticks)."""
    (y0, y1), found = piece.spans[1], []
    for upper in (False, True):
        found.append(
            [
                side.where((0, 0, z))
                for side in piece.sides
                if side.axis == 1 and side.upper == upper
            ]
        )
    return max(found[0], default=y0), min(found[1], default=y1)


def outermost(piece: Piece) -> tuple[float, float]:
    """How far a piece reaches across the board, also where two of its sides meet in between."""
    z_span, found = piece.spans[2], []
    for upper in (False, True):
        sides = [side for side in piece.sides if side.axis == 1 and side.upper == upper]
        depths = set(z_span)
        for one, other in combinations(sides, 2):
            apart = one.lean[2] - other.lean[2]
            if apart:
                depths.add((other.at - one.at) / apart)
        within = [z for z in depths if z_span[0] <= z <= z_span[1]]
        found.append([across(piece, z)[upper] for z in within])
    return min(found[0]), max(found[1])


def _end(piece: Piece, y: float, z: float, *, upper: bool) -> float:
    """Where the marked (or the far) end of a piece is, along one of its long edges."""
    every = [
        side.where((0, y, z)) for side in piece.sides if side.axis == 0 and side.upper == upper
    ]
    return min(every) if upper else max(every)


def _blade(cut: Cut, piece: Piece, y: float, z: float) -> float:
    """Where the near side of the blade is, along one of the long edges of a piece."""
    steep = math.tan(math.radians(cut.angle.degrees))
    deep = z - piece.spans[2][0] if cut.angle.bevel else y - piece.spans[1][0]
    return cut.start - steep * deep


def _touches(near_end: list[float], contact: float) -> str | None:
    if contact > min(near_end) + _SLACK:
        return None
    if max(near_end) - min(near_end) <= _SLACK:
        return ""
    if abs(near_end[0] - near_end[3]) <= _SLACK:
        return LONG_POINT
    return LONG_EDGE_UP if near_end[0] < near_end[3] else LONG_EDGE_DOWN


def _from(contact: float, corners: list[float]) -> Corners:
    first, second, third, fourth = (round(one - contact) for one in corners)
    return first, second, third, fourth


def _gone(piece: Piece, axis: int, which: int, degrees: Decimal) -> int:
    """How much nearer the marked end or edge a slanted cut is on the far one (1) of two sides."""
    return round(which * piece.size(axis) * math.tan(math.radians(degrees)))


def at_the_fence(cut: Cut, piece: Piece, *, far: bool | None = None) -> Lying:
    """A rip or a resaw: with the marked edge (of a resaw: face) against the fence, or with the
    ``far`` one; where that is not said so that a narrow strip falls on the free side. A tilted
    blade leans away from the fence."""
    axis = 1 if cut.saw is Saw.RIP else 2
    low, high = (round(one) for one in (outermost(piece) if axis == 1 else piece.spans[axis]))
    if far is None:
        far = _falls_free(cut, cut.start - low, high - cut.end)
    if axis == 2 and not _is_flat(piece, piece.spans[2][far]):
        far = not far
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
    first = END if marked_first else FAR_END
    line = _line_of_a_rip(cut, piece, near, up, far=far)
    return Lying(
        up=up,
        fence=fence,
        first=first,
        distance=max(0, near),
        beyond=off,
        lean=abs(degrees),
        line=line,
        line_beyond=line + cut.end - cut.start,
        from_=fence,
    )


def _line_of_a_rip(cut: Cut, piece: Piece, near: int, up: str, *, far: bool) -> int:
    """Where the near side of the blade is on the face that is up, from the edge there."""
    if cut.saw is Saw.RESAW:
        return near
    z = piece.spans[2][0 if up == FACE else 1]
    low, high = across(piece, z)
    furthest = outermost(piece)
    outside = furthest[1] - high if far else low - furthest[0]
    leans = abs(_gone(piece, 2, 1, cut.angle.degrees))
    return round(near + leans - outside)


def _is_flat(piece: Piece, z: float) -> bool:
    """Whether there is a face at all, so deep in a piece, that lies flat against a fence."""
    low, high = across(piece, z)
    return high - low > _SLACK


def _falls_free(cut: Cut, below: int, above: int) -> bool:
    """Whether what lies below a cut is on the free side of the blade."""
    return (above > below and (cut.saw is Saw.RESAW or below < NARROW)) or below <= 0
