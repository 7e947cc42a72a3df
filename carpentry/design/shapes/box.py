"""A box without a lid: two sides, two ends and a bottom. Drawn as it stands, its sides to the front
and the back."""

from collections.abc import Iterator, Sequence

from carpentry.design.shapes.asked import (
    Ask,
    Asks,
    Given,
    Joint,
    Lying,
    Row,
    Span,
    Vector,
    Work,
    Written,
    refuse,
)
from carpentry.design.shapes.frame import LEFT, RIGHT, UP
from carpentry.design.shapes.leaning import (
    BOTTOM_HELD,
    check_wide_enough,
    lie_leaning,
    write_leaning,
)
from carpentry.design.shapes.shape import Made, Shape
from carpentry.design.shapes.stand import BACK, FRONT

_BUTT, _RABBETED, _MITERED = "butt", "rabbeted", "mitered"
_OVER_ALL, _FOOT, _INSIDE = "over all", "at the bottom", "inside the bottom"
_MOST_LEAN = 45
_NONE, _UNDER, _BETWEEN, _GROOVE = "none", "under", "between", "groove"


class Box(Shape):
    """What runs ``over`` is full; the others are shorter by twice its thickness, less twice the
    rabbet that it carries. A bottom in a groove is as large as the inside and both grooves, less
    its clearance. Common practice, no source."""

    name = "box"
    heading = "Box"
    help = "sides, ends and a bottom"
    asks = (
        Ask("length", Asks.LENGTH, "Length, outside"),
        Ask("width", Asks.LENGTH, "Width, outside"),
        Ask("height", Asks.LENGTH, "Height, outside"),
        Ask("stock", Asks.STOCK, "Stock"),
        Ask("corners", Asks.CHOICE, "Corners", _BUTT, (_BUTT, _RABBETED, _MITERED)),
        Ask("rabbet", Asks.LENGTH, "Depth of the rabbet", "3/8 in"),
        Ask("over", Asks.CHOICE, "What runs full", "ends", ("ends", "sides")),
        Ask("lean sides", Asks.ANGLE, "Sides lean out by", "0"),
        Ask("lean ends", Asks.ANGLE, "Ends lean out by", "0"),
        Ask("from", Asks.CHOICE, "Length and width are", _OVER_ALL, (_OVER_ALL, _FOOT, _INSIDE)),
        Ask("bottom", Asks.CHOICE, "Bottom", _NONE, (_NONE, _UNDER, _BETWEEN, _GROOVE)),
        Ask("bottom stock", Asks.STOCK, "Stock of the bottom", "ply 1/2"),
        Ask("groove", Asks.LENGTH, "Depth of the groove", "1/4 in"),
        Ask("clearance", Asks.LENGTH, "Free in the grooves, in all", "1/8 in"),
    )

    def write(self, given: Given) -> Written:
        leans = [given.values[name] for name in ("lean sides", "lean ends")]
        for name, lean in zip(("lean sides", "lean ends"), leans, strict=True):
            if abs(lean) > _MOST_LEAN:
                raise refuse(name, f"is at most {_MOST_LEAN}°, out or in")
        if any(leans):
            return write_leaning(given)
        check_wide_enough(given)
        corners, over = given.choice("corners"), given.choice("over")
        full, between = ("end", "side") if over == "ends" else ("side", "end")
        figures: dict[str, str] = {}
        if given.choice("from") == _INSIDE:
            figures = {
                f"outer {size}": f"{{{size}}} + 2 * thickness of {{side}}"
                for size in ("length", "width")
            }
        outer = "outer " if figures else ""
        outside = {"end": f"{{{outer}width}}", "side": f"{{{outer}length}}"}
        lost = f"thickness of {{{full}}}"
        if corners == _RABBETED:
            lost = f"({lost} - {{rabbet}})"
        lengths = dict(outside)
        if corners != _MITERED:
            lengths[between] = f"{outside[between]} - 2 * {lost}"
        bottom = given.choice("bottom")
        high = "{height} - thickness of {bottom}" if bottom == _UNDER else "{height}"
        ends = "45b 45b" if corners == _MITERED else ""
        rows = [
            Row(*(key, key, given["stock"], "2", lengths[key]), ends=ends, width=high, rip="yes")
            for key in ("side", "end")
        ]
        work = [Work("rabbet", full, "both ends", _rabbet(between))] if corners == _RABBETED else []
        joints = [Joint("4", _joint(corners, full, between))]
        if bottom != _NONE:
            rows.append(self._bottom(given, bottom, outer))
        if bottom == _GROOVE:
            sizes = {"depth": "{groove}", "width": "thickness of {bottom}"}
            work += [Work("groove", key, "near the bottom edge", sizes) for key in ("side", "end")]
        elif bottom != _NONE:
            joints.append(Joint("12", BOTTOM_HELD[bottom]))
        return Written(rows, joints, work, figures=figures)

    @staticmethod
    def _bottom(given: Given, bottom: str, outer: str) -> Row:
        inside = " - 2 * thickness of {side}"
        ways = {_UNDER: "", _BETWEEN: inside, _GROOVE: f"{inside} + 2 * {{groove}} - {{clearance}}"}
        length, width = (f"{{{outer}{size}}}{ways[bottom]}" for size in ("length", "width"))
        return Row(*("bottom", "bottom", given["bottom stock"], "1", length), width=width)

    def lie(self, made: Made) -> Sequence[Lying]:
        if "base length" in made.written.figures:
            return lie_leaning(made)
        thick = made.thickness_of("side")
        corners = made.given.choice("corners")
        if corners == _RABBETED and made.length("{rabbet}") >= thick:
            raise refuse("rabbet", "is as deep as the board, or deeper")
        for name in ("length", "width"):
            if _outer(made, name) <= 2 * thick:
                raise refuse(name, "leaves nothing inside")
        if made.given.choice("bottom") == _GROOVE and made.length("{groove}") >= thick:
            raise refuse("groove", "is as deep as the board, or deeper")
        return [*self._walls(made), *self._floor(made)]

    def spans(self, made: Made) -> Sequence[Span]:
        if "base length" in made.written.figures:
            return ()
        length, width = _outer(made, "length"), _outer(made, "width")
        thick = made.thickness_of("side")
        return (
            Span("plan", "across", (thick, 0, 0), (length - thick, 0, 0)),
            Span("plan", "up", (0, thick, 0), (0, width - thick, 0)),
        )

    @staticmethod
    def _walls(made: Made) -> Iterator[Lying]:
        """Sides and ends with their faces out."""
        length, width = _outer(made, "length"), _outer(made, "width")
        under = made.given.choice("bottom") == _UNDER
        above = made.thickness_of("bottom") if under else 0.0
        side, end = made.length_of("side"), made.length_of("end")
        x, y, thick = (length - side) / 2, (width - end) / 2, made.thickness_of("side")
        yield Lying("side", (x, thick, above), RIGHT, UP)
        yield Lying("side", (length - x, width - thick, above), LEFT, UP)
        yield Lying("end", (thick, width - y, above), FRONT, UP)
        yield Lying("end", (length - thick, y, above), BACK, UP)

    @staticmethod
    def _floor(made: Made) -> Iterator[Lying]:
        if made.given.choice("bottom") == _NONE:
            return
        long, wide = made.length_of("bottom"), made.width_of("bottom")
        origin: Vector = (
            (_outer(made, "length") - long) / 2,
            (_outer(made, "width") - wide) / 2,
            made.thickness_of("side") / 2 if made.given.choice("bottom") == _GROOVE else 0.0,
        )
        yield Lying("bottom", origin, RIGHT, BACK)


def _outer(made: Made, size: str) -> float:
    """The length or the width over all of an upright box."""
    outer = f"outer {size}"
    return made.length(f"{{{outer if outer in made.written.figures else size}}}")


def _rabbet(between: str) -> dict[str, str]:
    return {"depth": "{rabbet}", "width": f"thickness of {{{between}}}"}


def _joint(corners: str, full: str, between: str) -> str:
    if corners == _MITERED:
        return f"{{{full}}} end to {{{between}}} end, 1 spline, glued"
    rabbet = ", rabbet =({rabbet} + 0 in), glued" if corners == _RABBETED else ""
    return f"{{{full}}} to {{{between}}} end, 3 screws{rabbet}"
