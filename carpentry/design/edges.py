"""Bevelled edges: ripped at an angle along the whole length of a part.

A part is seen on its end with its face up. An edge is given in degrees from square, positive where
the face is the wider side there, negative where the back is. The width is that of the wider of the
two.
"""

from dataclasses import replace

from carpentry.design.ends import SQUARE_ENDS, EndAngle, pair_of_angles, read_angle
from carpentry.language import CarpentryError

Edges = tuple[EndAngle, EndAngle]
SQUARE_EDGES: Edges = SQUARE_ENDS


def read_edges(text: str) -> Edges:
    """Left and right edge as they are typed: ``45 45`` for a corner block, ``20 -20`` for a leaning
    side; square where nothing is typed. Raises ``CarpentryError``."""
    if not text.strip():
        return SQUARE_EDGES
    left, right = map(_edge, pair_of_angles(text, "45 45"))
    return left, right


def _edge(text: str) -> EndAngle:
    angle = read_angle(text)
    if angle.bevel:
        raise CarpentryError(f"“{text}” is no angle of an edge: write degrees such as 45 or -20")
    return replace(angle, bevel=True) if angle.degrees else angle


def outermost_width(width: int, edges: Edges, thickness: int) -> int:
    """The width between the outermost points, when ``width`` is that of the wider face (all in
    ticks). Raises ``CarpentryError`` when the edges meet before the other face is reached."""
    gains = _gains(edges, thickness)
    if abs(sum(gains)) > width:
        raise CarpentryError("the bevelled edges meet: nothing is left of one face")
    face = width if sum(gains) >= 0 else width + sum(gains)
    return max(face, face - gains[1]) - min(0, gains[0])


def _gains(edges: Edges, thickness: int) -> list[int]:
    """Ticks that the face gains on the back at each edge."""
    reaches = (edge.reach(thickness, 0) for edge in edges)
    return [r if edge.degrees > 0 else -r for r, edge in zip(reaches, edges, strict=True)]


def corners(low: int, high: int, edges: Edges, thickness: int) -> tuple[int, int, int, int]:
    """Where the corners lie across the board (ticks) of a part between its outermost points: on the
    face left and right, on the back right and left."""
    left, right = (edge.reach(thickness, 0) for edge in edges)
    return (
        low + (left if edges[0].degrees < 0 else 0),
        high - (right if edges[1].degrees < 0 else 0),
        high - (right if edges[1].degrees > 0 else 0),
        low + (left if edges[0].degrees > 0 else 0),
    )


def wider_width(over_all: int, edges: Edges, thickness: int) -> int:
    """The width of the wider face of a part that is so wide between its outermost points: what
    ``outermost_width`` began with."""
    face_left, face_right, back_right, back_left = corners(0, over_all, edges, thickness)
    return max(face_right - face_left, back_right - back_left)


def mean_width(width: int, edges: Edges, thickness: int) -> int:
    """The width half-way through the thickness (ticks): what a part's volume goes by. Nothing where
    the edges leave nothing."""
    return max(0, width - abs(sum(_gains(edges, thickness))) // 2)


def edges_told(edges: Edges) -> str:
    """Both edges in words, and whether they lean alike or apart; nothing for square ones."""
    left, right = edges
    if not left.degrees and not right.degrees:
        return ""
    if left.degrees == right.degrees:
        wider = "face" if left.degrees > 0 else "back"
        return f"both {abs(left.degrees):f}°, leaning apart: the {wider} is wider"
    if left.degrees == -right.degrees:
        return f"both {abs(left.degrees):f}°, leaning alike"
    return f"left {_edge_told(left)}, right {_edge_told(right)}"


def _edge_told(edge: EndAngle) -> str:
    if not edge.degrees:
        return "square"
    return f"{abs(edge.degrees):f}° with the long point on the {edge.long_point}"
