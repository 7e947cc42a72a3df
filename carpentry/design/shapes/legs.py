"""Legs that lean: splayed ones with stretchers between, and crossed ones. Drawn from the front.

The cuts at floor and top are level, so that both ends of a leg are at its lean from square, and
parallel. Plane geometry, no source needed.
"""

import math
from collections.abc import Iterator, Sequence

from carpentry.design.ends import STEEPEST
from carpentry.design.shapes.asked import (
    Ask,
    Asks,
    Given,
    Joint,
    Lying,
    Row,
    Span,
    Work,
    Written,
    refuse,
)
from carpentry.design.shapes.frame import RIGHT, UP
from carpentry.design.shapes.held import end_on_edge, half_lapped
from carpentry.design.shapes.shape import Made, Shape


def _legs(stock: str) -> list[Row]:
    """A left and a right leg, measured along an edge from floor to top."""
    length = "{height} / cos({lean})"
    left = Row("left", "left leg", stock, "1", length, "{lean}, -{lean}", measured="edge")
    right = Row("right", "right leg", stock, "1", length, "-{lean}, {lean}", measured="edge")
    return [left, right]


def _left_leg(made: Made, floor: float, y: float) -> Lying:
    """A leg whose outer edge stands on the floor there and leans to the right."""
    lean = made.lean("left")
    along = (math.sin(lean), 0.0, math.cos(lean))
    across = (-math.cos(lean), 0.0, math.sin(lean))
    wide = made.width_of("left")
    return Lying("left", (floor - wide * across[0], y, -wide * across[2]), along, across)


def _right_leg(made: Made, floor: float, y: float) -> Lying:
    """A leg whose outer edge stands on the floor there and leans to the left."""
    lean = made.lean("left")
    along = (-math.sin(lean), 0.0, math.cos(lean))
    across = (-math.cos(lean), 0.0, -math.sin(lean))
    return Lying("right", (floor, y, 0.0), along, across)


class SplayedLegs(Shape):
    """Two legs that stand further apart on the floor than at the top, and stretchers between them.
    ``top`` and ``floor`` are outside; a stretcher's place is that of its top edge."""

    name = "splayed legs"
    heading = "Splayed legs"
    help = "two legs that stand apart, and stretchers"
    asks = (
        Ask("height", Asks.LENGTH, "Height"),
        Ask("top", Asks.LENGTH, "Spread at the top, outside"),
        Ask("floor", Asks.LENGTH, "Spread on the floor, outside", open=True),
        Ask("angle", Asks.ANGLE, "Lean of a leg", open=True),
        Ask("stock", Asks.STOCK, "Stock"),
        Ask("stretchers at", Asks.LENGTHS, "Stretchers at (top edge), from the floor", open=True),
    )

    def write(self, given: Given) -> Written:
        if bool(given["floor"]) == bool(given["angle"]):
            raise refuse("floor", "or the angle is said, one of them")
        if given["angle"] and not 0 < given.values["angle"] <= STEEPEST:
            raise refuse(
                "angle", f"is above 0 and at most {STEEPEST}°: else no leg meets the floor"
            )
        figures = {
            "lean": "{angle}" if given["angle"] else "atan2(({floor} - {top}) / 2, {height})",
            "spread": "{top} + 2 * {height} * tan({lean})",
        }
        rows, joints = _legs(given["stock"]), []
        for n, place in enumerate(given.several("stretchers at"), start=1):
            key, name = f"stretcher{n}", f"stretcher {n}" if n > 1 else "stretcher"
            figures[f"under{n}"] = f"{place} - width of {{left}}"
            inside = f"{{spread}} - 2 * {{under{n}}} * tan({{lean}})"
            inside += " - 2 * width of {left} / cos({lean})"
            rows.append(Row(key, name, given["stock"], "1", inside, "-{lean}, -{lean}"))
            joints += [end_on_edge("1", given, "stock", key, leg) for leg in ("left", "right")]
        return Written(rows, joints, figures=figures)

    def lie(self, made: Made) -> Sequence[Lying]:
        lean, height = made.lean("left"), made.length("{height}")
        if made.parts["left"].ends[0].degrees <= 0:
            raise refuse("angle" if made.given["angle"] else "floor", "lets the legs not splay")
        if made.length("{top}") < 2 * made.width_of("left") / math.cos(lean):
            raise refuse("top", "leaves the legs no room beside one another")
        floor = made.length("{top}") + 2 * height * math.tan(lean)
        found = [_left_leg(made, 0, 0), _right_leg(made, floor, 0)]
        return [*found, *self._stretchers(made, lean, height)]

    def spans(self, made: Made) -> Sequence[Span]:
        inwards = made.length("{height}") * math.tan(made.lean("left"))
        top = made.length("{top}")
        return [
            Span("front", "across", (inwards, 0, 0), (inwards + top, 0, 0)),
            *(
                Span("front", "up", (0, 0, 0), (0, 0, made.length(place)))
                for place in made.given.several("stretchers at")
            ),
        ]

    @staticmethod
    def _stretchers(made: Made, lean: float, height: float) -> Iterator[Lying]:
        wide = made.width_of("left")
        for n, place in enumerate(made.given.several("stretchers at"), start=1):
            top = made.length(place)
            if top > height or top < wide:
                raise refuse("stretchers at", "are not between floor and top")
            start = (top - wide) * math.tan(lean) + wide / math.cos(lean)
            yield Lying(f"stretcher{n}", (start, 0, top - wide), RIGHT, UP)


class CrossedLegs(Shape):
    """Two legs that cross, bolted side by side or half-lapped into one another. ``spread`` is that
    on the floor, outside; they cross where their middle lines do."""

    name = "crossed legs"
    heading = "Crossed legs"
    help = "two legs that cross, bolted or lapped"
    asks = (
        Ask("height", Asks.LENGTH, "Height"),
        Ask("spread", Asks.LENGTH, "Spread on the floor, outside"),
        Ask("stock", Asks.STOCK, "Stock"),
        Ask("cross at", Asks.LENGTH, "They cross at, from the floor"),
        Ask("joint", Asks.CHOICE, "Joint", "bolted", ("bolted", "half-lapped")),
    )

    def write(self, given: Given) -> Written:
        figures = {
            "out": "{spread} / 2",
            "reach": "hypot({out}, {cross at}) + 0 in",  # a length, however it was typed
            "sine": "width of {left} / (2 * {reach})",
            "lean": "atan2({out}, {cross at}) - atan2({sine}, sqrt(1 - {sine} * {sine}))",
        }
        crossing = {"from the floor, along the middle": "{cross at} / cos({lean})"}
        work = [Work("crossing", key, "mark", crossing) for key in ("left", "right")]
        if given.choice("joint") == "half-lapped":
            sizes = {
                "depth": "thickness of {left} / 2",
                "length": "width of {left} / sin(2 * {lean})",
            }
            work += [Work("half lap", key, "at the crossing", sizes) for key in ("left", "right")]
            joint = half_lapped("1", given, "stock", "left", "right")
        else:
            joint = Joint("1", "{left} to {right}, 1 carriage bolt, load")
        return Written(_legs(given["stock"]), [joint], work, figures=figures)

    def lie(self, made: Made) -> Sequence[Lying]:
        cross, height = made.length("{cross at}"), made.length("{height}")
        if not 0 < cross < height:
            raise refuse("cross at", "is not between floor and top")
        if made.parts["left"].ends[0].degrees <= 0:
            raise refuse("spread", "is so narrow that the legs never cross")
        behind = made.thickness_of("left") if made.given.choice("joint") == "bolted" else 0.0
        return [_left_leg(made, 0, 0), _right_leg(made, made.length("{spread}"), behind)]

    def spans(self, made: Made) -> Sequence[Span]:
        return (Span("front", "up", (0, 0, 0), (0, 0, made.length("{cross at}"))),)
