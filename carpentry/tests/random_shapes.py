"""Shapes with random measures, as a builder might give them."""

import random
from collections.abc import Callable, Mapping

Draw = random.Random
Measures = dict[str, str]
_THICK, _EVERY = ("2x2", "2x4", "2x6"), ("1x4", "1x6", "2x2", "2x4", "2x6")


def _frame(draw: Draw) -> Measures:
    return {
        "width": f"{draw.randint(16, 90)}",
        "height": f"{draw.randint(16, 90)}",
        "stock": draw.choice((*_EVERY, "1x2", "4x4", "5/4x6")),
        "corners": draw.choice(("rails between", "posts between", "mitered", "half-lapped")),
        "middles": f"{draw.randint(0, 1)}",
        "middles run": draw.choice(("upright", "level")),
    }


def _box(draw: Draw) -> Measures:
    corners = draw.choice(("butt", "mitered", "rabbeted"))
    leans = corners != "rabbeted" and draw.random() < 0.5
    return {
        "length": f"{draw.randint(20, 60)}",
        "width": f"{draw.randint(18, 40)}",
        "height": f"{draw.randint(3, 7)}",
        "stock": draw.choice(("1x10", "1x12", "2x10")),
        "corners": corners,
        "over": draw.choice(("ends", "sides")),
        "bottom": draw.choice(("none", "between", "under", "groove")),
        "bottom stock": draw.choice(("ply 1/2", "ply 3/4")),
        "lean sides": f"{draw.randint(0, 20) * leans}",
        "lean ends": f"{draw.randint(0, 20) * leans}",
    }


def _stand(draw: Draw) -> Measures:
    return {
        "length": f"{draw.randint(24, 90)}",
        "width": f"{draw.randint(18, 40)}",
        "height": f"{draw.randint(18, 42)}",
        "leg stock": draw.choice(("4x4", "2x4", "2x2")),
        "stock": draw.choice(("1x4", "2x4")),
        "rails": draw.choice(("flush", "set in")),
        "shelves at": draw.choice(("", "6")),
        "top": draw.choice(("", "5/4x6", "1x4", "2x6")),
    }


def _door(draw: Draw) -> Measures:
    kind = draw.choice(("framed", "ledged"))
    return {
        "width": f"{draw.randint(30, 40)}",
        "height": f"{draw.randint(40, 84)}",
        "stock": draw.choice(("1x4", "1x6", "2x4", "5/4x6")),
        "kind": kind,
        "rails": "2",
        "faces": "1x6" if kind == "ledged" else draw.choice(("", "1x6")),
        "strip": draw.choice(("", "1x2")),
    }


def _truss(draw: Draw) -> Measures:
    return {
        "span": f"{draw.randint(70, 200)}",
        "pitch": f"{draw.randint(18, 50)}",
        "stock": draw.choice(("2x4", "2x6")),
        "overhang": f"{draw.randint(0, 18)}",
        "ridge": draw.choice(("0", "3/4", "1 1/2")),
        "supports": draw.choice(("", "1/2")),
        "supports stand": draw.choice(("plumb", "square")),
    }


def _splayed(draw: Draw) -> Measures:
    top = draw.randint(12, 20)
    return {
        "height": f"{draw.randint(20, 40)}",
        "top": f"{top}",
        "floor": f"{top + draw.randint(2, 16)}",
        "stock": draw.choice(("2x2", "2x4", "1x4")),
        "stretchers at": draw.choice(("", "10", "8, 16 1/2")),
    }


def _crossed(draw: Draw) -> Measures:
    return {
        "height": f"{draw.randint(24, 40)}",
        "spread": f"{draw.randint(22, 36)}",
        "cross at": f"{draw.randint(12, 20)}",
        "stock": draw.choice(("1x4", "2x4")),
        "joint": draw.choice(("bolted", "half-lapped")),
    }


def _row(draw: Draw) -> Measures:
    return {
        "along": f"{draw.randint(30, 120)}",
        "gap": f"{draw.randint(0, 3)}",
        "stock": draw.choice(("1x4", "1x6", "2x6", "5/4x6")),
        "length": f"{draw.randint(20, 72)}",
        "rail stock": draw.choice(("2x4", "1x4", "4x4")),
    }


RANDOM: Mapping[str, Callable[[Draw], Measures]] = {
    "frame": _frame,
    "box": _box,
    "stand": _stand,
    "door": _door,
    "truss": _truss,
    "splayed legs": _splayed,
    "crossed legs": _crossed,
    "row": _row,
}
