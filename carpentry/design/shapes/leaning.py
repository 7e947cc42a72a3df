"""A box whose sides or ends lean: out is above 0, in below.

Where both lean, its ends are cut at a miter with the blade tilted. Seen on its face, the end of a
side that leans by α between ends that lean by β runs off square by tan M = tan β cos α. Through the
thickness it lies against the face of an end, tan T = −sin α tan β cos M with the long point on the
back; or half-way between both faces, tan T = (1 − sin α sin β) ÷ cos β × cos M with the long point
on the face. Solid geometry, from the normals of the boards; no source needed. Top and bottom edges
are ripped at the lean, so that they lie level.
"""

import math
from collections.abc import Iterator, Sequence

from carpentry.design.shapes.asked import (
    Given,
    Joint,
    Lying,
    Row,
    Vector,
    Work,
    Written,
    refuse,
)
from carpentry.design.shapes.shape import Made, cut_corners

_SIDES, _ENDS = "lean sides", "lean ends"
_MITERED, _RABBETED = "mitered", "rabbeted"
_NONE, _UNDER, _BETWEEN, _GROOVE = "none", "under", "between", "groove"


def write_leaning(given: Given) -> Written:
    """The parts of a leaning box. Raises ``CarpentryError`` by measure."""
    corners, bottom = given.choice("corners"), given.choice("bottom")
    steepest = max(abs(given.values[lean]) for lean in (_SIDES, _ENDS))
    check_wide_enough(given, math.cos(math.radians(steepest)))
    if corners == _RABBETED:
        raise refuse("corners", "are butt or mitered where a box leans")
    full = "" if corners == _MITERED else {"ends": "end", "sides": "side"}[given.choice("over")]
    figures = {
        "wall": "{height} - thickness of {bottom}" if bottom == _UNDER else "{height}",
        "base length": _base(given, "length", _ENDS),
        "base width": _base(given, "width", _SIDES),
    }
    rows = []
    for key, own, other, size in (
        ("side", _SIDES, _ENDS, "length"),
        ("end", _ENDS, _SIDES, "width"),
    ):
        figures |= _angles(key, own, other, mitered=corners == _MITERED)
        lost = ""
        if corners != _MITERED and key != full:
            lost = f" - 2 * thickness of {{side}} / cos({{{other}}})"
        top = f"{{base {size}}}{lost} + 2 * {{wall}} * tan({{{other}}})"
        if given.values[own] < 0:  # the back is higher: the length is as if the face were, too
            top += f" - 2 * tan({{{key} miter}}) * thickness of {{side}} * tan({{{own}}})"
        rows.append(
            Row(
                *(key, key, given["stock"], "2"),
                top,
                f"{{{key} miter}}; {{{key} tilt}}, {{{key} miter}}; {{{key} tilt}}",
                f"-{{{own}}}, {{{own}}}",
                measured="edge",
                width=f"{{wall}} / cos({{{own}}})",
                rip="yes",
            )
        )
    joints, work = [_corner_joint(corners, full)], []
    if bottom != _NONE:
        rows.append(_bottom(given, bottom))
        if bottom == _GROOVE:
            sizes = {"depth": "{groove}", "width": "thickness of {bottom}"}
            place = "near the bottom edge, level"
            work = [Work("groove", key, place, sizes) for key in ("side", "end")]
        else:
            joints.append(Joint("12", BOTTOM_HELD[bottom]))
    return Written(rows, joints, work, figures=figures)


BOTTOM_HELD = {  # through the bottom from below, or through the sides into its edges
    _UNDER: "{bottom} to {side} edge, 1 screw",
    _BETWEEN: "{side} to {bottom} edge, 1 screw",
}


def check_wide_enough(given: Given, cosine: float = 1.0) -> None:
    """Raises ``CarpentryError`` where no board of its stock is as wide as a wall is high."""
    board = given.section("stock")
    high, bottom = float(given.values["height"]), given.choice("bottom")
    takes = 0.0 if bottom == _NONE else float(given.section("bottom stock").thickness)
    if bottom == _GROOVE:
        takes += board.thickness / 2
    if high <= takes:
        raise refuse("height", "leaves nothing above the bottom")
    if bottom == _UNDER:
        high -= takes
    if high / cosine > board.width:
        raise refuse("height", "is more than a board of its stock is wide")


def _corner_joint(corners: str, full: str) -> Joint:
    if corners == _MITERED:
        return Joint("4", "{side} end to {end} end, 1 spline, glued")
    between = "side" if full == "end" else "end"
    return Joint("4", f"{{{full}}} to {{{between}}} end, 3 screws")


def _base(given: Given, size: str, lean: str) -> str:
    """The length or the width of the walls at their foot, outside."""
    place = given.choice("from")
    if place == "inside the bottom":
        return f"{{{size}}} + 2 * thickness of {{side}} / cos({{{lean}}})"
    if place == "at the bottom":
        return f"{{{size}}}"
    return f"{{{size}}} - 2 * {{wall}} * max(0, tan({{{lean}}}))"


def _angles(key: str, own: str, other: str, *, mitered: bool) -> dict[str, str]:
    miter = f"atan2(tan({{{other}}}) * cos({{{own}}}), 1)"
    if mitered:
        through = f"(1 - sin({{{own}}}) * sin({{{other}}})) / cos({{{other}}})"
        tilt = f"atan2({through} * cos({{{key} miter}}), 1)"
    else:
        tilt = f"-atan2(sin({{{own}}}) * tan({{{other}}}) * cos({{{key} miter}}), 1)"
    return {f"{key} miter": miter, f"{key} tilt": tilt}


def _bottom(given: Given, bottom: str) -> Row:
    """A bottom between is as large as the inside at its upper face, its edges at the lean; one in
    a groove reaches into it where the groove is, half a thickness up."""
    stock = given["bottom stock"]
    if bottom == _UNDER:
        return Row("bottom", "bottom", stock, "1", "{base length}", width="{base width}")
    inside = "{{base {size}}} - 2 * thickness of {{side}} / cos({{{lean}}})"
    deep = " + 2 * thickness of {{bottom}} * tan({{{lean}}})"
    if bottom == _GROOVE:
        deep = " + thickness of {{side}} * tan({{{lean}}}) + 2 * {{groove}} - {{clearance}}"
    length, width = (
        f"{inside}{deep}".format(size=size, lean=lean)
        for size, lean in (("length", _ENDS), ("width", _SIDES))
    )
    if bottom == _GROOVE:
        return Row("bottom", "bottom", stock, "1", length, width=width)
    ends, edges = f"{{{_ENDS}}} b, {{{_ENDS}}} b", f"{{{_SIDES}}}, {{{_SIDES}}}"
    if given.values[_ENDS] < 0:
        length = length.removesuffix(deep.format(lean=_ENDS))
    if given.values[_SIDES] < 0:
        width = width.removesuffix(deep.format(lean=_SIDES))
    return Row("bottom", "bottom", stock, "1", length, ends, edges, width=width)


def lie_leaning(made: Made) -> Sequence[Lying]:
    """Where the pieces of a leaning box lie. Raises ``CarpentryError`` by measure."""
    thick = made.thickness_of("side")
    for size, lean in (("length", _ENDS), ("width", _SIDES)):
        base = made.length(f"{{base {size}}}")
        top = base + 2 * made.length("{wall}") * math.tan(math.radians(made.degrees(f"{{{lean}}}")))
        if min(base, top) <= 2 * thick / math.cos(math.radians(made.degrees(f"{{{lean}}}"))):
            raise refuse(size, "leaves nothing inside")
    return [*_walls(made), *_floor(made)]


def _walls(made: Made) -> Iterator[Lying]:
    """Each wall with its face out: the corner of its face at the top, where it begins, is known."""
    high = made.length("{wall}")
    foot = made.thickness_of("bottom") if made.given.choice("bottom") == _UNDER else 0.0
    for key, own, away, turns in (
        ("side", _SIDES, "width", (0, 2)),
        ("end", _ENDS, "length", (1, 3)),
    ):
        lean = math.radians(made.degrees(f"{{{own}}}"))
        out = made.length(f"{{base {away}}}") / 2 + high * math.tan(lean)
        top = made.length_at_top(key)
        for turn in turns:
            yield _wall(made, key, lean, (-top / 2, -out, foot + high), turn)


def _wall(made: Made, key: str, lean: float, corner: Vector, turn: int) -> Lying:
    """A wall as it would stand in front, turned about the middle of the box by quarters."""
    part, section = made.parts[key], made.section(key)
    _, face = cut_corners(part, section)
    u, v, t = (amount / made.per for amount in face[3])  # the top corner where it begins
    along, across = (1.0, 0.0, 0.0), (0.0, -math.sin(lean), math.cos(lean))
    normal = (0.0, -math.cos(lean), -math.sin(lean))
    origin = [
        c - u * a - v * b - t * n for c, a, b, n in zip(corner, along, across, normal, strict=True)
    ]
    return Lying(key, _turned(origin, turn), _turned(along, turn), _turned(across, turn))


def _turned(point: Sequence[float], quarters: int) -> Vector:
    """A point turned about the upright through the middle, against the clock from above."""
    x, y, z = point
    for _ in range(quarters):
        x, y = -y, x
    return (x, y, z)


def _floor(made: Made) -> Iterator[Lying]:
    bottom = made.given.choice("bottom")
    if bottom == _NONE:
        return
    part, section = made.parts["bottom"], made.section("bottom")
    corners = [corner for loop in cut_corners(part, section) for corner in loop]
    long, wide = (max(corner[n] for corner in corners) / made.per for n in (0, 1))
    low = made.thickness_of("side") / 2 if bottom == _GROOVE else 0.0
    yield Lying("bottom", (-long / 2, -wide / 2, low), (1.0, 0.0, 0.0), (0.0, 1.0, 0.0))
