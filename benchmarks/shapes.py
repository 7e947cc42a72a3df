"""Shapes of random measures: made up afresh at every run, their seeds printed."""

import random
import time
from collections.abc import Callable

from benchmarks.reporting import report
from carpentry.design import not_planned_yet
from carpentry.design.shapes import SHAPES, Made, make_shape, views_of
from carpentry.language import CarpentryError
from carpentry.lumber import INCHES, standard_section

WANTED, MOST_TRIES = 200, 20_000
SNUG = 0.05  # in, of the outer size: lengths and angles are rounded as they are cut
_FINE = (
    "has bevelled edges: it has to be ripped",
    "has to be ripped or planed",
    "cut from a sheet",
)
Measures = dict[str, str]


def _of(draw: random.Random, low: int, high: int) -> str:
    return f"{draw.randint(low * 8, high * 8) / 8:g}"


def _stock(draw: random.Random) -> str:
    return draw.choice(["2x2", "2x4", "2x6", "1x4", "1x6", "4x4", "5/4x6"])


_ASKED: dict[str, Callable[[random.Random], Measures]] = {
    "frame": lambda d: {
        "width": _of(d, 0, 96),
        "height": _of(d, 0, 96),
        "corners": d.choice(["rails between", "posts between", "mitered", "half-lapped"]),
        "middles": str(d.randint(0, 8)),
        "middles run": d.choice(["upright", "level"]),
    },
    "row": lambda d: {
        "along": _of(d, 0, 140),
        d.choice(["gap", "count"]): str(d.randint(0, 40)),
        "length": _of(d, 0, 90),
        "rails": str(d.randint(0, 6)),
        "held": d.choice(["nailed", "loose", "in a groove"]),
        "ends": d.choice(["gap", "item", "half-gap", "half-item"]),
    },
    "wall": lambda d: {
        "width": _of(d, 0, 140),
        "height": _of(d, 0, 90),
        "joint": d.choice(["butt", "lap", "shiplap"]),
        "lap": d.choice(["", "1/2", _of(d, 0, 8)]),
        "over left": d.choice(["", "3/4"]),
        "least": d.choice(["", "3", _of(d, 0, 7)]),
    },
    "box": lambda d: {
        "length": _of(d, 0, 60),
        "width": _of(d, 0, 40),
        "height": _of(d, 0, 10),
        "corners": d.choice(["butt", "rabbeted", "mitered"]),
        "over": d.choice(["ends", "sides"]),
        "rabbet": d.choice(["", _of(d, 0, 1)]),
        "bottom": d.choice(["none", "under", "between", "groove"]),
        "lean sides": d.choice(["", str(d.randint(-50, 50))]),
        "lean ends": d.choice(["", str(d.randint(-50, 50))]),
    },
    "stand": lambda d: {
        "length": _of(d, 0, 96),
        "width": _of(d, 0, 40),
        "height": _of(d, 0, 48),
        "leg stock": _stock(d),
        "rails": d.choice(["flush", "set in"]),
        "shelves at": d.choice(["", _of(d, 0, 40), f"{_of(d, 0, 20)}, {_of(d, 20, 40)}"]),
        "top": d.choice(["", "5/4x6", "2x4"]),
    },
    "door": lambda d: {
        "width": _of(d, 0, 90),
        "height": _of(d, 0, 96),
        "leaves": str(d.randint(0, 3)),
        "rails": str(d.randint(1, 5)),
        "kind": d.choice(["framed", "ledged"]),
        "faces": d.choice(["", "1x6"]),
        "strip": d.choice(["", "1x2"]),
    },
    "brace": lambda d: {
        "run": _of(d, 0, 48),
        "rise": _of(d, 0, 48),
        "pairs": str(d.randint(0, 3)),
        "measured": d.choice(["long-long", "short-short", "centre"]),
    },
    "splayed legs": lambda d: {
        "height": _of(d, 0, 40),
        "top": _of(d, 0, 24),
        "floor": _of(d, 0, 40),
        "stretchers at": d.choice(["", _of(d, 0, 40)]),
    },
    "crossed legs": lambda d: {
        "height": _of(d, 0, 40),
        "spread": _of(d, 0, 48),
        "cross at": _of(d, 0, 36),
        "joint": d.choice(["bolted", "half-lapped"]),
    },
    "truss": lambda d: {
        "span": _of(d, 0, 240),
        "pitch": str(d.randint(0, 80)),
        "overhang": _of(d, 0, 20),
        "tails": d.choice(["plumb", "square"]),
        "supports": d.choice(["", "1/2", "1/3, 2/3"]),
        "supports stand": d.choice(["plumb", "square"]),
        "stands over": d.choice(["", "0, 24, 48"]),
    },
}


def _outer(name: str, measures: Measures, made: Made) -> list[tuple[int, str]]:
    """Which measures the outer size is, by axis."""
    if name == "row":
        over = " + width of {board}" if made.given.choice("ends") == "half-item" else ""
        return [(0, f"{{along}}{over}")] if made.count("rails") else []
    if name == "wall":
        return [(0, "{width} + {over left} + {over right}"), (2, "{height}")]
    if name == "door":
        return [(0, "{width} - 2 * {gap}"), (2, "{leaf height}")]
    if name == "brace":
        return []
    return {
        "frame": [(0, "{width}"), (2, "{height}")],
        "box": [(0, "{length}"), (1, "{width}"), (2, "{height}")],
        "stand": [(0, "{length}"), (1, "{width}"), (2, "{height}")],
        "splayed legs": [(0, "{floor}"), (2, "{height}")],
        "crossed legs": [(2, "{height}")],
        "truss": [(0, "{span} + 2 * {overhang}")],
    }[name]


def shapes() -> None:
    """Of every shape, over random measures: that those that can be built make parts that the
    planner takes and a drawing as large as they say, and that the others are told in a sentence."""
    for name in SHAPES:
        seed = random.SystemRandom().randrange(10**6)
        draw = random.Random(seed)
        built = told = refused = off = tries = 0
        took: list[float] = []
        while (built < WANTED or told < WANTED) and tries < MOST_TRIES:
            tries += 1
            measures = _ASKED[name](draw) | {"stock": "1x10" if name == "box" else _stock(draw)}
            started = time.process_time()
            try:
                made = make_shape(name, measures, INCHES)
                views_of(made)
            except CarpentryError as error:
                if told < WANTED:
                    told += 1
                    assert all(problem.message for problem in error.problems)
                continue
            if built == WANTED:
                continue
            built += 1
            took.append(time.process_time() - started)
            refused += not _planned(made)
            corners = [corner for solid in made.solids for corner in solid.corners]
            for axis, formula in _outer(name, measures, made):
                size = max(c[axis] for c in corners) - min(c[axis] for c in corners)
                off += abs(size - made.length(formula)) > SNUG
        report(
            f"{name} (seed {seed})",
            f"{built} built, {refused} not taken by the planner, {off} not as large as said; "
            f"{told} refused in words; median {sorted(took)[len(took) // 2] * 1000:.0f} ms of CPU",
        )


def _planned(made: Made) -> bool:
    """Whether the planner takes every part, at most ripped or from a sheet."""
    for part in made.parts.values():
        why = not_planned_yet(part, standard_section(part.stock))
        if why and not why.startswith(_FINE):
            return False
    return True
