"""What is sawn of a part once its piece has square ends: miters with a tilted blade, clipped and
pointed ends, notches and outlines.

The marked face of a piece becomes the face of its part, its marked edge the top edge, its marked
end the left end. Every cut is a line between points on the face that is up, told from the marked
end and the marked edge. Plane geometry; common practice else, no source.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Any

from carpentry.design.ends import EndAngle, Ends, read_end
from carpentry.design.outline import Corner, Notch, read_notches
from carpentry.language import Unit, spelled_out
from carpentry.shop.lying import BACK, EDGE, END, FACE, FAR_EDGE, FAR_END, NOTHING, Lying

_QUARTER = {FACE: FAR_EDGE, BACK: EDGE, EDGE: FACE, FAR_EDGE: BACK}
Point = tuple[int, int]  # ticks from the marked end, and from the marked edge


@dataclass(frozen=True)
class PartShape:
    """What makes a part more than a piece with two square ends: its ``ends``, ``notches`` and
    ``outline``, in a piece so ``long``, ``wide`` and ``thick`` (ticks)."""

    long: int
    wide: int
    thick: int
    ends: Ends
    notches: Sequence[Notch] = ()
    outline: Sequence[Corner] = ()

    def works(self) -> list["Shaping"]:
        """What is sawn of it, in order: its ends, then its notches, else its outline."""
        if self.outline:
            return [_outlined(self)]
        left, right = self.ends
        ends = [*_end(self, left, is_left=True), *_end(self, right, is_left=False)]
        return [*ends, *(_notched(self, one) for one in self.notches)]


@dataclass(frozen=True)
class Shaping:
    """One of them: what it is ``called``, along which ``line`` it is sawn, how it lies, and the
    corners of the ``waste`` that comes off. At a miter saw it turns by ``swing`` and tilts by
    ``lean`` (degrees); ``is_straight`` where one straight cut does it."""

    called: str
    line: tuple[Point, ...]
    waste: tuple[Point, ...]
    lying: Lying
    is_straight: bool = True
    more: str = ""
    edges: tuple[str, str] = (EDGE, FAR_EDGE)

    @property
    def on_edge(self) -> "Shaping":
        """The same of a piece whose part is sawn out of it on edge: a quarter turn about its
        length, so that the marked face is the top edge and the far edge the face."""
        lying = replace(self.lying, up=_QUARTER[self.lying.up], fence=_QUARTER[self.lying.fence])
        return replace(self, lying=lying, edges=(FACE, BACK))

    @property
    def end_for_end(self) -> Lying:
        """The same turned end for end on its face: the saw tilts to the other side then."""
        lying = self.lying
        other = self.edges[lying.fence == self.edges[0]]
        return replace(lying, fence=other, first=FAR_END, lean=-lying.lean)


def shape_document(shape: PartShape) -> dict[str, Any]:
    """A shape as plain data that ``read_shape`` takes back: sizes in ticks, the rest as typed."""
    return {
        "size": [shape.long, shape.wide, shape.thick],
        "ends": [_written(end) for end in shape.ends],
        "notches": "; ".join(one.spelled_out(Unit.INCH) for one in shape.notches),
        "outline": [list(corner) for corner in shape.outline],
    }


def _written(end: EndAngle) -> str:
    if end.stub is not None:
        return f"{end.degrees:f} stub {spelled_out(end.stub.ticks, Unit.INCH)}"
    return str(end)


def read_shape(document: dict[str, Any]) -> PartShape:
    """A shape from its document."""
    long, wide, thick = document["size"]
    left, right = (read_end(one, Unit.INCH) for one in document["ends"])
    outline = tuple((x, y) for x, y in document["outline"])
    notches = read_notches(document["notches"], Unit.INCH)
    return PartShape(long, wide, thick, (left, right), notches, outline)


def _lying(swing: Decimal, lean: Decimal, *, over: bool) -> Lying:
    turned = -1 if over else 1
    return Lying(
        up=BACK if over else FACE,
        fence=FAR_EDGE if over else EDGE,
        first=END,
        distance=0,
        beyond=0,
        swing=swing * turned,
        lean=lean * turned,
    )


def _end(shape: PartShape, end: EndAngle, *, is_left: bool) -> Iterator[Shaping]:
    """The cuts of an end that takes more than a plain one."""
    if not end.is_shaped:
        return
    if end.point is not None:
        yield from _pointed(shape, end, end.point, is_left=is_left)
        return
    steep = math.tan(math.radians(abs(end.degrees)))
    on_top = end.degrees > 0  # where the long point is
    stub = end.stub.ticks if end.stub else 0
    reach = round((shape.wide - stub) * steep)
    begins = stub if on_top else shape.wide - stub
    ends = shape.wide if on_top else 0
    line = (_from_end(shape, 0, begins, is_left), _from_end(shape, reach, ends, is_left))
    waste = (*line, _from_end(shape, 0, ends, is_left))
    # as at any crosscut: of the right end positive where the long point is on the marked edge
    sign = -1 if is_left else 1
    lean = end.tilt * sign
    over = end.tilt < 0  # the longer face is up, so that the line begins at its corner
    yield Shaping(
        f"clipped {_which(is_left)}" if stub else f"{_which(is_left)} at two angles",
        line,
        waste,
        _lying(end.degrees * sign, lean, over=over),
    )


def _pointed(
    shape: PartShape, end: EndAngle, below: Decimal, *, is_left: bool
) -> Iterator[Shaping]:
    """Two cuts from the tip to either edge."""
    top, low = (math.tan(math.radians(one)) for one in (end.degrees, below))
    tip = round(shape.wide * low / (top + low))  # from the top edge
    for steep, edge, degrees in ((top, 0, -end.degrees), (low, shape.wide, below)):
        reach = round(abs(tip - edge) * steep)
        line = (_from_end(shape, 0, tip, is_left), _from_end(shape, reach, edge, is_left))
        waste = (*line, _from_end(shape, 0, edge, is_left))
        swing = -degrees if is_left else degrees
        yield Shaping(
            f"point of the {_which(is_left)}",
            line,
            waste,
            _lying(swing, NOTHING, over=False),
        )


def _which(is_left: bool) -> str:
    return END if is_left else FAR_END


def _from_end(shape: PartShape, away: int, across: int, is_left: bool) -> Point:
    return (away if is_left else shape.long - away), across


def _notched(shape: PartShape, notch: Notch) -> Shaping:
    """A notch: across, along, across; at an end of the piece across and along."""
    start, end = notch.span(shape.long)
    edge, deep = 0, notch.deep.ticks
    if not notch.top:
        edge, deep = shape.wide, shape.wide - notch.deep.ticks
    corners: list[Point] = [(start, edge), (start, deep), (end, deep), (end, edge)]
    line = [one for one in corners if not _is_outside(shape, one, start, end)]
    return Shaping(
        "notch",
        tuple(line),
        tuple(corners),
        _lying(NOTHING, NOTHING, over=False),
        is_straight=False,
        more="Saw across to the corner first, then along; stop short of an inner corner and finish "
        "it by hand.",
    )


def _is_outside(shape: PartShape, corner: Point, start: int, end: int) -> bool:
    """Whether a corner of a notch lies on an end of the piece and on its edge: nothing is sawn
    from it."""
    on_edge = corner[1] in (0, shape.wide)
    return on_edge and ((corner[0] == start == 0) or (corner[0] == end == shape.long))


def _outlined(shape: PartShape) -> Shaping:
    """An outline, whose corners are from the left end and the bottom edge."""
    corners = tuple((x, shape.wide - y) for x, y in shape.outline)
    return Shaping(
        "outline",
        (*corners, corners[0]),
        corners,
        _lying(NOTHING, NOTHING, over=False),
        is_straight=False,
        more="Mark the corners, draw the lines, and saw outside them; what lies on an edge or an "
        "end is not sawn.",
    )
