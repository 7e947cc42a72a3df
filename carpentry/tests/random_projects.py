"""Random projects as builders have them: groups, glue and screws mixed, two finishes, own steps."""

from random import Random
from typing import Any

from carpentry.language import Json

_GROUPS = ("frame", "left side", "right side", "lid", "shelf")
_STOCKS = ("2x4 treated", "1x6 cedar", "1x4 pine", "2x4", "2x2")
_SIDES = ("face", "edge", "end")
_HELD = (
    "2 screws",
    "3 brads, glued",
    "2 dowels, glued",
    "glue",
    "2 pocket screws",
    "1 carriage bolt",
)
_FINISHES = (
    ("oil stain", "spar varnish"),
    ("latex primer", "latex paint"),
    ("cedar oil", "wax"),
    ("deck stain",),
    ("end sealer", "cedar oil"),
    ("varnish", "oil stain"),
    ("shellac",),
    (),
)


def random_project(seed: int, *, small: bool = False) -> Json:
    """A project file; the smaller has one group and one finish."""
    draw = Random(seed)
    groups = draw.sample(_GROUPS, 1 if small else draw.randint(1, 3))
    parts: list[dict[str, Any]] = []
    for group in groups:
        for _ in range(2 if small else draw.randint(1, 3)):
            parts.append(
                {
                    "mark": chr(ord("A") + len(parts)),
                    "quantity": str(draw.choice((2, 4, 6))),
                    "stock": draw.choice(_STOCKS),
                    "length": str(draw.randint(12, 60)),
                    "group": group,
                }
            )
    marks = [one["mark"] for one in parts]
    return {
        "format": "grain-tally/project@6",
        "name": f"Project {seed}",
        "copies": draw.choice((1, 1, 3)),
        "parts": parts,
        "joints": list(
            dict.fromkeys(_joint(draw, marks) for _ in range(2 if small else draw.randint(1, 6)))
        ),
        "finishes": _coats(draw, marks)[:1] if small else _coats(draw, marks),
        "steps": _typed(draw, groups) if not small else [],
        "days": {"clamps": draw.choice(("", "4", "8"))},
    }


def _joint(draw: Random, marks: list[str]) -> str:
    one, other = draw.choice(marks), draw.choice(marks)
    sides = [f" {side}" if side != "face" else "" for side in draw.choices(_SIDES, k=2)]
    return f"{draw.choice((2, 4, 8))} {one}{sides[0]} to {other}{sides[1]}, {draw.choice(_HELD)}"


def _coats(draw: Random, marks: list[str]) -> list[str]:
    found = []
    for name in draw.choice(_FINISHES):
        on = (
            "all"
            if draw.random() < 0.5
            else " ".join(sorted(draw.sample(marks, min(2, len(marks)))))
        )
        sides = (
            " ends" if name == "end sealer" else draw.choice(("", "", " faces", " faces and edges"))
        )
        closing = ", before closing" if draw.random() < 0.15 else ""
        found.append(f"{name} on {on}{sides}, {draw.randint(1, 2)} coats{closing}")
    return found


def _typed(draw: Random, groups: list[str]) -> list[str]:
    every = [
        f"hang the {groups[-1]}s, 20 min",
        f"paint the {groups[0]} before closing, 2 coats",
        f"clean the {groups[0]}, 10 min, after cut the parts of the {groups[0]}",
        "deliver, 1 h",
        f"cut the parts of the {groups[0]}, 40 min, needs a helper",
    ]
    return [line for line in every if draw.random() < 0.4]
