"""Somebody at the saws who knows nothing but what is printed on a card.

Pieces are solids between planes, put on a saw as a card says, turned as one turns wood in the hand
(never mirrored), and sawn where stop or fence, turn and tilt put the blade. Knows nothing of the
shop: cards are JSON, boards plain.
"""

import itertools
import math
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from carpentry.language import Unit, read_length

Vector = tuple[float, float, float]
Half = tuple[Vector, float]  # a half space: normal · point ≤ distance
_NEAR = 1e-6


def dot(a: Vector, b: Vector) -> float:
    return sum(x * y for x, y in zip(a, b, strict=True))


def det(a: Vector, b: Vector, c: Vector) -> float:
    cross = (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])
    return dot(cross, c)


@dataclass
class Solid:
    """A convex piece of wood in inches, by the planes round it."""

    halves: list[Half]

    def corners(self) -> list[Vector]:
        found = []
        for (a, p), (b, q), (c, r) in itertools.combinations(self.halves, 3):
            size = det(a, b, c)
            if abs(size) < 1e-9:
                continue
            point = []
            for axis in range(3):
                rows = [list(one) for one in (a, b, c)]
                for row, value in zip(rows, (p, q, r), strict=True):
                    row[axis] = value
                first, second, third = ((row[0], row[1], row[2]) for row in rows)
                point.append(det(first, second, third) / size)
            corner = (point[0], point[1], point[2])
            if all(dot(n, corner) <= d + _NEAR for n, d in self.halves):
                found.append(corner)
        return found

    def extents(self) -> list[float]:
        corners = self.corners()
        return [max(c[axis] for c in corners) - min(c[axis] for c in corners) for axis in range(3)]

    def volume(self) -> float:
        """By pyramids from the middle to each side."""
        corners = self.corners()
        middle = _middle(corners)
        total = 0.0
        seen: list[Half] = []
        for n, d in self.halves:
            length = math.sqrt(dot(n, n))
            unit = (n[0] / length, n[1] / length, n[2] / length)
            at = d / length
            if any(abs(dot(unit, m) - 1) < 1e-9 and abs(at - e) < 1e-6 for m, e in seen):
                continue
            seen.append((unit, at))
            face = [c for c in corners if abs(dot(unit, c) - at) < 1e-5]
            if len(face) >= 3:
                total += _area(face, unit) * (at - dot(unit, middle)) / 3
        return total

    def cut(self, half: Half) -> "Solid":
        return Solid([*self.halves, half])


def _middle(points: Iterable[Vector]) -> Vector:
    known = list(points)
    x, y, z = (sum(p[axis] for p in known) / len(known) for axis in range(3))
    return x, y, z


def _area(face: list[Vector], normal: Vector) -> float:
    middle = _middle(face)
    away = (1.0, 0.0, 0.0) if abs(normal[0]) < 0.9 else (0.0, 1.0, 0.0)
    u = _unit(_cross(normal, away))
    v = _cross(normal, u)
    flat = sorted(
        ((dot(_minus(c, middle), u), dot(_minus(c, middle), v)) for c in face),
        key=lambda one: math.atan2(one[1], one[0]),
    )
    pairs = zip(flat, [*flat[1:], flat[0]], strict=True)
    return abs(sum(a[0] * b[1] - a[1] * b[0] for a, b in pairs)) / 2


def _cross(a: Vector, b: Vector) -> Vector:
    return a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]


def _minus(a: Vector, b: Vector) -> Vector:
    return a[0] - b[0], a[1] - b[1], a[2] - b[2]


def _unit(a: Vector) -> Vector:
    length = math.sqrt(dot(a, a))
    return a[0] / length, a[1] / length, a[2] / length


def plain_board(length: float, width: float, thickness: float) -> Solid:
    halves: list[Half] = []
    for axis, size in enumerate((length, width, thickness)):
        for sign, at in ((-1.0, 0.0), (1.0, size)):
            normal = [0.0, 0.0, 0.0]
            normal[axis] = sign
            halves.append(((normal[0], normal[1], normal[2]), at))
    return Solid(halves)


RIGHT, AWAY, UP = (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)


def _times(vector: Vector, factor: float) -> Vector:
    return vector[0] * factor, vector[1] * factor, vector[2] * factor


def _put_down(
    card: dict[str, Any], cut: dict[str, Any]
) -> tuple[tuple[Vector, Vector, Vector], tuple[Vector, Vector, Vector]]:
    """Which way the length, the width and the thickness of a piece point, from its marked end, edge
    and face; and what is out from stop or fence, along the fence's other side, and up."""
    crosscut = card["do"] in ("crosscut", "trim")
    # out: away from stop or fence, across the blade; along the fence; up
    if crosscut:
        out, along, up = RIGHT, _times(AWAY, -1), UP
        x = out if cut["first"] == "marked end" else _times(out, -1)
        y = along if cut["against"] == "marked edge" else _times(along, -1)
        z = _times(up, -1) if cut["up"] == "marked face" else up
    else:
        out = _times(RIGHT, -1) if card["fence_side"] == "right" else RIGHT
        along, up = AWAY, UP
        x = _times(along, -1) if cut["first"] == "marked end" else along
        if cut["up"] in ("marked face", "back"):
            y = out if cut["against"] == "marked edge" else _times(out, -1)
            z = _times(up, -1) if cut["up"] == "marked face" else up
        else:
            z = out if cut["against"] == "marked face" else _times(out, -1)
            y = up if cut["up"] == "far edge" else _times(up, -1)
    return (x, y, z), (out, along, up)


class CardReader:
    """Boards, by number, and the pieces they came apart into."""

    def __init__(
        self, boards: dict[int, tuple[float, float, float]], kerf: float, unit: Unit
    ) -> None:
        self.pieces = {(number, 0): plain_board(*size) for number, size in boards.items()}
        self.labels: dict[str, Solid] = {}
        self.parts: dict[str, str] = {}
        self.kerf = kerf
        self.unit = unit

    def inches(self, text: str) -> float:
        return read_length(text, self.unit).ticks / 8128

    def work(self, card: dict[str, Any]) -> None:
        """Sets the tool once, and makes every cut of the card."""
        for cut in card["cuts"]:
            self._saw(card, cut)

    def _saw(self, card: dict[str, Any], cut: dict[str, Any]) -> None:
        solid = self.pieces.pop((cut["board"], cut["piece"]))
        crosscut = card["do"] in ("crosscut", "trim")
        (x, y, z), (out, along, up) = _put_down(card, cut)
        assert abs(det(x, y, z) - 1) < 1e-9, f"a piece is never mirrored: {cut}"

        def seen(point: Vector) -> Vector:
            """Where a point of the piece is at the saw: along out, along and up."""
            at = [
                sum(v[axis] * p for v, p in zip((x, y, z), point, strict=True)) for axis in range(3)
            ]
            where = (at[0], at[1], at[2])
            return dot(where, out), dot(where, along), dot(where, up)

        corners = [seen(corner) for corner in solid.corners()]
        low = [min(c[axis] for c in corners) for axis in range(3)]
        lean = math.tan(math.radians(float(card.get("bevel", 0))))
        turn = 0.0
        if crosscut:
            turn = math.tan(math.radians(float(card["angle"])))
            turn *= -1 if card.get("swing") == "left" else 1
            lean *= 1 if card.get("tilt_side", "right") == "right" else -1
        takes = self.kerf / math.cos(math.atan(math.hypot(turn, lean)))
        if cut["waste"] == "beyond":
            near = self.inches(card.get("stop") or card.get("fence") or cut["mark"])
        elif crosscut:
            near = self.inches(cut["mark"]) - takes
        else:
            near = self.inches(card.get("fence") or cut["mark"]) - (
                0 if card.get("fence") else takes
            )
        # the blade: out = near + turn · along the fence's side + lean · up, from fence and table
        slopes = (1.0, -turn, -lean)
        normal = [0.0, 0.0, 0.0]
        for slope, base in zip(slopes, (out, along, up), strict=True):
            for axis in range(3):
                normal[axis] += slope * base[axis]
        at_saw = (normal[0], normal[1], normal[2])
        in_piece = (dot(at_saw, x), dot(at_saw, y), dot(at_saw, z))
        shift = low[0] - turn * low[1] - lean * low[2]
        below = solid.cut((in_piece, near + shift))
        above = solid.cut((_times(in_piece, -1), -(near + takes + shift)))
        for told, piece in ((cut["near"], below), (cut["far"], above)):
            if told is None:
                continue
            wanted = told["label"] or told["keep"]
            assert piece.corners() or not wanted, f"nothing is left of piece {told}: {cut}"
            self.pieces[cut["board"], told["piece"]] = piece
            if told["label"]:
                self.labels[told["label"]] = piece
                self.parts[told["label"]] = told["part"]
