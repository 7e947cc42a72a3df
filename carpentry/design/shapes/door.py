"""A door of one leaf or two: framed or on ledges, with braces from the hinge side up. Drawn from
outside, shut, hinges at the outer sides.

A brace lies between two rails, from the corner at the hinge below to the corner at the other side
above, its ends level. Plane geometry, no source needed.
"""

import math
from collections.abc import Iterator, Sequence

from carpentry.design.runs import RunFields
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

_FRAMED, _LEDGED = "framed", "ledged"


class Door(Shape):
    """``width`` and ``height`` are those of the opening; the gap is kept all round, and ``between``
    two leaves. Rails of a framed leaf run between its stiles, ledges run full. Common practice, no
    source."""

    name = "door"
    heading = "Door"
    help = "stiles, rails and braces, or boards on ledges"
    views = ("front", "back", "plan")
    asks = (
        Ask("width", Asks.LENGTH, "Width of the opening"),
        Ask("height", Asks.LENGTH, "Height of the opening"),
        Ask("stock", Asks.STOCK, "Stock"),
        Ask("gap", Asks.LENGTH, "Gap all round", "1/8 in"),
        Ask("leaves", Asks.COUNT, "Leaves", "1"),
        Ask("between", Asks.LENGTH, "Gap between leaves", "1/8 in"),
        Ask("kind", Asks.CHOICE, "Kind", _FRAMED, (_FRAMED, _LEDGED)),
        Ask("rails", Asks.COUNT, "Rails of a leaf", "3"),
        Ask("brace", Asks.CHOICE, "Braces", "yes", ("yes", "none")),
        Ask("faces", Asks.STOCK, "Boards on it, their stock", open=True),
        Ask("face gap", Asks.LENGTH, "Gap of the boards, about", "1/8 in"),
        Ask("strip", Asks.STOCK, "Strip over the gap, its stock", open=True),
    )

    def write(self, given: Given) -> Written:
        leaves, rails = given.count("leaves"), given.count("rails")
        if leaves not in {1, 2}:
            raise refuse("leaves", "are one or two")
        if rails < 2:
            raise refuse("rails", "are two at least, above and below")
        wide = given.section("stock").width
        high = given.values["height"] - 2 * given.values["gap"]
        bay = (high - rails * wide) / (rails - 1)
        if bay <= 0:
            raise refuse("rails", "do not fit on the height of a leaf")
        if given.choice("brace") == "yes" and bay <= wide:
            raise refuse("rails", "leave no room for a brace between them")
        framed, stock = given.choice("kind") == _FRAMED, given["stock"]
        if not framed and not given["faces"]:
            raise refuse("faces", "is missing: a ledged door is made of boards")
        figures = {
            "leaf width": "({width} - 2 * {gap} - ({leaves} - 1) * {between}) / {leaves}",
            "leaf height": "{height} - 2 * {gap}",
        }
        rows: list[Row] = []
        joints: list[Joint] = []
        if framed:
            rows.append(Row("stile", "stile", stock, "2 * {leaves}", "{leaf height}"))
            long, name = "{leaf width} - 2 * width of {stile}", "rail"
            joints.append(end_on_edge("2 * {leaves} * {rails}", given, "stock", "rail", "stile"))
        else:
            long, name = "{leaf width}", "ledge"
        rows.append(Row("rail", name, stock, "{leaves} * {rails}", long))
        if given.choice("brace") == "yes":
            rows.append(self._brace(stock, figures))
            line = "{brace} end to {rail} edge, 1 screw, through the miter"
            joints.append(Joint("2 * {leaves} * ({rails} - 1)", line))
        runs: list[RunFields] = []
        if given["faces"]:
            quantity = "count of {face boards} * {leaves}"
            rows.append(Row("face", "face board", given["faces"], quantity, "{leaf height}"))
            line = "{face} to {rail}, 2 screws"
            joints.append(Joint("count of {face boards} * {leaves} * {rails}", line))
            asked = ("{leaf width}", "width of {face}", "gap", "{face gap}")
            runs.append(RunFields("face boards", *asked, first="item", last="item", part="face"))
        if given["strip"]:
            rows.append(Row("strip", "strip", given["strip"], "1", "{leaf height}"))
            onto = "stile" if framed else "face"
            joints.append(Joint("4", f"{{strip}} to {{{onto}}}, 1 screw"))
        return Written(rows, joints, (), runs, figures)

    @staticmethod
    def _brace(stock: str, figures: dict[str, str]) -> Row:
        """A brace of a width w in a bay a wide and b high: a level cut of it takes c, where
        c (b² − w²) = w (b √(a² + b² − w²) − a w), and it leans by atan((a − c) / b)."""
        figures |= {
            "bay": "({leaf height} - {rails} * width of {rail}) / ({rails} - 1)",
            "flat": "sqrt(({long} * {long} + {high} * {high} - {wide} * {wide}))",
            "long": "length of {rail} / 1 in",
            "high": "{bay} / 1 in",
            "wide": "width of {rail} / 1 in",
            "cut": "{wide} * ({high} * {flat} - {long} * {wide})"
            " / ({high} * {high} - {wide} * {wide})",
            "lean": "atan2({long} - {cut}, {high})",
        }
        quantity = "{leaves} * ({rails} - 1)"
        ends = "{lean}, -{lean}"
        return Row("brace", "brace", stock, quantity, "{bay} / cos({lean})", ends, measured="edge")

    def lie(self, made: Made) -> Sequence[Lying]:
        if made.length("{leaf width}") <= 2 * made.width_of("rail"):
            raise refuse("width", "leaves no room between the stiles")
        if "brace" in made.parts and made.parts["brace"].ends[0].degrees <= 0:
            raise refuse("width", "leaves no room for a brace between the stiles")
        found: list[Lying] = []
        for leaf in range(made.count("leaves")):
            found += self._leaf(made, leaf)
        if "strip" in made.parts:
            found.append(self._strip(made))
        return found

    def _leaf(self, made: Made, leaf: int) -> Iterator[Lying]:
        gap, wide = made.length("{gap}"), made.length("{leaf width}")
        x = gap + leaf * (wide + made.length("{between}"))
        rail, thick = made.width_of("rail"), made.thickness_of("rail")
        framed = "stile" in made.parts
        inner = made.width_of("stile") if framed else 0.0
        if framed:
            yield Lying("stile", (x + inner, thick, gap), UP, LEFT)
            yield Lying("stile", (x + wide, thick, gap), UP, LEFT)
        rails = made.count("rails")
        bay = (made.length("{leaf height}") - rails * rail) / (rails - 1)
        for n in range(rails):
            yield Lying("rail", (x + inner, thick, gap + n * (rail + bay)), RIGHT, UP)
        for n in range(rails - 1 if "brace" in made.parts else 0):
            low = gap + rail + n * (rail + bay)
            yield self._brace_at(made, x + inner, wide - 2 * inner, low, right=leaf == 1)
        if "face" in made.parts:
            out = made.width_of("face")
            for place in made.laid("face boards").run.places:
                at = x + float(place / made.per) + out
                yield Lying("face", (at, 0.0, gap), UP, LEFT)

    @staticmethod
    def _brace_at(made: Made, x: float, wide: float, low: float, *, right: bool) -> Lying:
        """From the corner at the hinge below up; hinges of the second leaf are at its right."""
        thick = made.thickness_of("brace")
        lean = made.lean("brace")
        sin, cos = math.sin(lean), math.cos(lean)
        deep = made.width_of("brace")
        if right:
            down: Vector = (-sin, 0.0, cos)
            return Lying(
                "brace", (x + wide - deep * cos, 0.0, low - deep * sin), down, (cos, 0.0, sin)
            )
        up: Vector = (sin, 0.0, cos)
        return Lying("brace", (x + deep * cos, thick, low - deep * sin), up, (-cos, 0.0, sin))

    @staticmethod
    def _strip(made: Made) -> Lying:
        """On the face of a leaf, over the gap to the other one or to the frame."""
        gap, wide = made.length("{gap}"), made.length("{leaf width}")
        out = made.width_of("strip")
        edge = gap + wide
        middle = edge + made.length("{between}") / 2 if made.count("leaves") == 2 else edge
        front = -made.thickness_of("face") if "face" in made.parts else 0.0
        at = middle + out / 2 if made.count("leaves") == 2 else edge
        return Lying("strip", (at, front, gap), UP, LEFT)

    def spans(self, made: Made) -> Sequence[Span]:
        gap, wide = made.length("{gap}"), made.length("{leaf width}")
        rail = made.width_of("rail")
        return (
            Span("front", "across", (gap, 0, 0), (gap + wide, 0, 0)),
            Span("front", "up", (0, 0, gap), (0, 0, gap + rail)),
        )

    def notices(self, made: Made) -> Sequence[str]:
        if made.length("{leaf width}") > made.length("{leaf height}"):
            return ("A leaf is wider than high: it sags in time. Two leaves hang better.",)
        return ()
