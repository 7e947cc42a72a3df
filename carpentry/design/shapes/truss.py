"""Trusses of a small roof: two rafters on a tie, with supports between. Drawn from the gable.

The lower edges of the rafters meet the ends of the tie, and run at the pitch to the ridge; the tie
and what supports the rafters lie beside one another. Cuts at the ridge are plumb. Plane geometry,
no source needed.
"""

import math
from collections.abc import Iterator, Sequence
from itertools import pairwise

from carpentry.design.shapes.asked import (
    Ask,
    Asks,
    Given,
    Joint,
    Lying,
    Row,
    Span,
    Vector,
    Written,
    refuse,
)
from carpentry.design.shapes.frame import LEFT, RIGHT, UP
from carpentry.design.shapes.held import end_on_edge
from carpentry.design.shapes.shape import Made, Shape

_PLUMB, _SQUARE = "plumb", "square"


class Truss(Shape):
    """``span`` is over the tie, ``overhang`` level from its end to the tip of a rafter. Supports
    stand at fractions of the rafter, from its foot at the tie to the ridge."""

    name = "truss"
    heading = "Trusses"
    help = "rafters, a tie and supports, over posts"
    caution = (
        "A roof carries load: strength is not checked here. Local codes and a licensed engineer "
        "decide on stock, spacing and fasteners."
    )
    asks = (
        Ask("span", Asks.LENGTH, "Span, over the tie"),
        Ask("pitch", Asks.ANGLE, "Pitch, in degrees"),
        Ask("stock", Asks.STOCK, "Stock"),
        Ask("overhang", Asks.LENGTH, "Overhang, level", "0 in"),
        Ask("tails", Asks.CHOICE, "Tails are cut", _PLUMB, (_PLUMB, _SQUARE)),
        Ask("ridge", Asks.LENGTH, "Thickness of the ridge", "0 in"),
        Ask("supports", Asks.SHARES, "Supports at (parts of the rafter)", open=True),
        Ask("supports stand", Asks.CHOICE, "Supports stand", _PLUMB, (_PLUMB, _SQUARE)),
        Ask("cover", Asks.LENGTH, "Width of a sheet of roofing", open=True),
        Ask("sheets", Asks.COUNT, "Sheets side by side", open=True),
        Ask("side lap", Asks.LENGTH, "Side lap of the sheets", "0 in"),
        Ask("stands over", Asks.LENGTHS, "Stand over (places along the roof)", open=True),
    )

    def write(self, given: Given) -> Written:
        trusses = max(1, len(given.several("stands over")))
        stock = given["stock"]
        figures = {"half": "({span} - {ridge}) / 2"}
        tail = "-{pitch}" if given.choice("tails") == _PLUMB else "0°"
        length = "({half} + {overhang}) / cos({pitch})"
        rows = [
            Row(
                "rafter",
                "rafter",
                stock,
                f"{2 * trusses}",
                length,
                f"{tail}, {{pitch}}",
                measured="edge",
            ),
            Row("tie", "tie", stock, f"{trusses}", "{span}"),
        ]
        joints = [Joint(f"{2 * trusses}", "{rafter} to {tie}, 1 carriage bolt, load")]
        plumb = given.choice("supports stand") == _PLUMB
        for n, share in enumerate(given.several("supports"), start=1):
            key, name = f"support{n}", f"support {n}" if n > 1 else "support"
            figures[f"out{n}"] = f"{{half}} * {share}"
            if plumb:
                long = f"({{out{n}}} + width of {{rafter}} / 2) * tan({{pitch}})"
                row = Row(key, name, stock, f"{2 * trusses}", long, "0°, -{pitch}")
            else:
                long = f"{{out{n}}} * tan({{pitch}}) / cos({{pitch}})"
                ends = "-{pitch}, 0°"
                row = Row(key, name, stock, f"{2 * trusses}", long, ends, measured="centre")
            rows.append(row)
            joints += [
                Joint(f"{2 * trusses}", f"{{{key}}} to {{tie}}, 2 screws"),
                end_on_edge(f"{2 * trusses}", given, "stock", key, "rafter"),
            ]
        if not given.values["ridge"]:
            joints.append(Joint(f"{trusses}", "{rafter} end to {rafter} end, 2 toe screws"))
        if given["cover"] and given["sheets"]:
            figures["covered"] = "{sheets} * {cover} - ({sheets} - 1) * {side lap}"
        return Written(rows, joints, figures=figures)

    def lie(self, made: Made) -> Sequence[Lying]:
        pitch = made.degrees("{pitch}")
        if not 5 <= pitch <= 70:
            raise refuse("pitch", "is from 5° to 70°")
        if made.length("{half}") <= made.width_of("rafter"):
            raise refuse("span", "is too short for rafters of this stock")
        places = [made.length(place) for place in made.given.several("stands over")] or [0.0]
        self._check_supports(made)
        deep = 2 * made.thickness_of("rafter")
        ordered = sorted(places)
        for before, after in pairwise(ordered):
            if after - before < deep:
                raise refuse("stands over", "has two trusses in one place")
        self._check_cover(made, ordered[-1] - ordered[0] + deep)
        return [one for place in places for one in self._one(made, math.radians(pitch), place)]

    @staticmethod
    def _check_supports(made: Made) -> None:
        shares = range(1, len(made.given.several("supports")) + 1)
        outs = sorted(made.length(f"{{out{n}}}") for n in shares)
        for before, after in pairwise(outs):
            if after - before < made.width_of("rafter"):
                raise refuse("supports", "are two in one place")

    @staticmethod
    def _check_cover(made: Made, deep: float) -> None:
        """Sheets reach from the outside of the first truss to the outside of the last one."""
        if "covered" not in made.written.figures:
            return
        short = deep - made.length("{covered}")
        if short > 1e-6:
            raise refuse("sheets", f"cover {made.told(short)} less than the trusses take")

    def _one(self, made: Made, pitch: float, y: float) -> Iterator[Lying]:
        wide, thick = made.width_of("rafter"), made.thickness_of("rafter")
        span, cos, sin = made.length("{span}"), math.cos(pitch), math.sin(pitch)
        foot = -made.length("{overhang}")
        if made.given.choice("tails") == _SQUARE:
            foot += wide * sin
        low = foot * math.tan(pitch)
        up: Vector = (cos, 0.0, sin)
        yield Lying("rafter", (foot, y + thick, low), up, (-sin, 0.0, cos))
        down: Vector = (-cos, 0.0, sin)
        yield Lying("rafter", (span - foot, y, low), down, (sin, 0.0, cos))
        yield Lying("tie", (0.0, y + 2 * thick, 0.0), RIGHT, UP)
        for n in range(1, len(made.given.several("supports")) + 1):
            yield from self._supports(made, n, pitch, y)

    @staticmethod
    def _supports(made: Made, n: int, pitch: float, y: float) -> Iterator[Lying]:
        key = f"support{n}"
        out, span = made.length(f"{{out{n}}}"), made.length("{span}")
        wide, thick = made.width_of(key), made.thickness_of(key)
        if made.given.choice("supports stand") == _PLUMB:
            if out <= wide / 2 or out + wide / 2 > span / 2:
                raise refuse("supports", "stand where there is no room under the rafter")
            yield Lying(key, (out + wide / 2, y + thick, 0.0), UP, LEFT)
            yield Lying(key, (span - out - wide / 2, y, 0.0), UP, RIGHT)
            return
        cos, sin = math.cos(pitch), math.sin(pitch)
        top = out, out * math.tan(pitch)
        over_all = made.length_of(key)
        if top[0] + wide / 2 * cos + over_all * sin > span / 2:
            raise refuse("supports", "meet one another under the ridge")
        # The corner under the rafter that is nearer to its foot, and from there down.
        for side, x0, back in ((1.0, 0.0, thick), (-1.0, span, 0.0)):
            along: Vector = (-side * sin, 0.0, cos)
            across: Vector = (-side * cos, 0.0, -sin)
            start = (
                x0 + side * (top[0] + wide / 2 * cos + over_all * sin),
                y + back,
                top[1] + wide / 2 * sin - over_all * cos,
            )
            yield Lying(key, start, along, across)

    def spans(self, made: Made) -> Sequence[Span]:
        span = made.length("{span}")
        found = [Span("front", "across", (0, 0, 0), (span, 0, 0))]
        for n in range(1, len(made.given.several("supports")) + 1):
            found.append(Span("front", "across", (0, 0, 0), (made.length(f"{{out{n}}}"), 0, 0)))
        return found
