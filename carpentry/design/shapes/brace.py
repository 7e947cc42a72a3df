"""A brace between an upright and a level piece, such as a post and a beam, cut to lie against both.

Seen from the side, the corner is at the top left: the brace runs from the post, ``rise`` below the
beam, to the beam, ``run`` from the post. Both are measured to its outer edge, where its long points
are; a vertical cut and a level one leave angles from square that add up to 90°. Plane geometry.
"""

import math
from collections.abc import Sequence

from carpentry.design.shapes.asked import (
    Ask,
    Asks,
    Given,
    Lying,
    Row,
    Span,
    Vector,
    Written,
    refuse,
)
from carpentry.design.shapes.shape import Made, Shape
from carpentry.language import CarpentryError

_SQUARE = 90


class Brace(Shape):
    """``run`` and ``rise``, or the angle (from the beam) and the length; left and right are each
    other's mirror image."""

    name = "brace"
    heading = "Braces"
    help = "between a post and a beam, left and right"
    asks = (
        Ask("run", Asks.LENGTH, "Along the beam", open=True),
        Ask("rise", Asks.LENGTH, "Down the post", open=True),
        Ask("angle", Asks.ANGLE, "Angle, from the beam", open=True),
        Ask("length", Asks.LENGTH, "Length, long points", open=True),
        Ask(
            "measured", Asks.CHOICE, "Measured", "long-long", ("long-long", "short-short", "centre")
        ),
        Ask("stock", Asks.STOCK, "Stock"),
        Ask("pairs", Asks.COUNT, "Pairs, left and right", "1"),
    )

    def write(self, given: Given) -> Written:
        by_run = bool(given["run"] and given["rise"])
        by_angle = bool(given["angle"] and given["length"])
        if by_run == by_angle:
            raise refuse("run", "and rise are said, or the angle and the length")
        if by_angle and not 0 < given.values["angle"] < _SQUARE:
            raise refuse("angle", "is between 0° and 90°: else it meets one of the two alone")
        figures = {
            "lean": "{angle}" if by_angle else "atan2({rise}, {run})",
            "outside": "{length}" if by_angle else "hypot({run}, {rise})",
        }
        reach = "width of {left} * (tan({lean}) + tan(90° - {lean}))"
        lost = {"long-long": "", "short-short": f" - {reach}", "centre": f" - {reach} / 2"}
        measured = given.choice("measured")
        told = "" if measured == "long-long" else measured
        ends = "{lean}, 90° - {lean}", "90° - {lean}, {lean}"
        stock, length = given["stock"], f"{{outside}}{lost[measured]}"
        rows = [
            Row("left", "left brace", stock, "{pairs}", length, ends[0], measured=told),
            Row(
                "right", "right brace", stock, "{pairs}", "length of {left}", ends[1], measured=told
            ),
        ]
        return Written(rows, figures=figures)

    def lie(self, made: Made) -> Sequence[Lying]:
        if made.count("pairs") < 1:
            raise refuse("pairs", "of 0 make nothing")
        try:
            over_all = made.length_of("left")
        except CarpentryError as error:
            place = "length" if made.given["angle"] else "run"
            raise refuse(place, f"is too short for this stock: {error}") from error
        angle = made.lean("left")
        run, rise = over_all * math.cos(angle), over_all * math.sin(angle)
        apart = run + made.width_of("left")
        found = []
        for pair in range(made.count("pairs")):
            at = 2 * pair * apart
            left = (math.cos(angle), 0.0, math.sin(angle))
            found.append(Lying("left", _outer((at, 0, -rise), made, left), left, _out(left)))
            right = (math.cos(angle), 0.0, -math.sin(angle))
            start = (at + apart, 0, 0)
            found.append(Lying("right", _outer(start, made, right), right, _out(right)))
        return found

    def spans(self, made: Made) -> Sequence[Span]:
        angle, over_all = made.lean("left"), made.length_of("left")
        run, rise = over_all * math.cos(angle), over_all * math.sin(angle)
        return (
            Span("front", "across", (0, 0, 0), (run, 0, 0)),
            Span("front", "up", (0, 0, -rise), (0, 0, 0)),
        )

    def notices(self, made: Made) -> Sequence[str]:
        """What it braces is another's: its joints are typed."""
        return (
            "Nothing holds it yet: type its joints at both ends, such as 4 A end to B, 2 screws, "
            "through the miter.",
        )


def _out(along: Vector) -> Vector:
    """From the corner to the outer edge."""
    return (along[2], 0.0, -along[0])


def _outer(start: Vector, made: Made, along: Vector) -> Vector:
    """The inner corner of a brace whose outer edge begins at ``start``."""
    x, _, z = _out(along)
    wide = made.width_of("left")
    return (start[0] - wide * x, 0.0, start[2] - wide * z)
