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
STOP = 0.5  # inches from the fence, that every stop block is deep
FINE = 1 / 64


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
        if cut["up"] in ("marked face", "back"):
            y = along if cut["against"] == "marked edge" else _times(along, -1)
            z = _times(up, -1) if cut["up"] == "marked face" else up
        else:
            z = along if cut["against"] == "marked face" else _times(along, -1)
            y = _times(up, -1) if cut["up"] == "marked edge" else up
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


def _out_of_blade(bases: tuple[Vector, Vector, Vector], turn: float, lean: float) -> Vector:
    """Which way is out of a blade, whose side is at out = near + turn · along + lean · up."""
    found = [
        sum(slope * base[axis] for slope, base in zip((1.0, -turn, -lean), bases, strict=True))
        for axis in range(3)
    ]
    return found[0], found[1], found[2]


@dataclass(frozen=True)
class Blade:
    """Its near side at fence and table (inches), how it goes out towards the builder and upwards,
    and what it takes along the piece."""

    near: float
    turn: float
    lean: float
    takes: float


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
        self.cut_further: set[tuple[int, int]] = set()

    def inches(self, text: str) -> float:
        return read_length(text, self.unit).ticks / 8128

    def signed(self, text: str) -> float:
        return -self.inches(text[1:]) if text.startswith("-") else self.inches(text)

    def work(self, card: dict[str, Any]) -> None:
        """Sets the tool once, and makes every cut of the card."""
        for cut in card["cuts"]:
            if cut["shapes"]:
                self._shape(card, cut)
            else:
                self._saw(card, cut)

    def _shape(self, card: dict[str, Any], cut: dict[str, Any]) -> None:
        """Draws a line between the two points that a card says, lays the piece as it says, turns
        and tilts the saw, and saws beside the line; the larger piece is the part."""
        assert len(cut["line"]) == 2, f"that is no straight cut: {cut}"
        solid = self.labels[cut["shapes"]]
        (x, y, z), (out, along, up) = _put_down(card, cut)
        corners = solid.corners()
        low = [min(c[axis] for c in corners) for axis in range(3)]
        edge, face = (1, 2) if cut["against"] in ("marked edge", "far edge") else (2, 1)
        marked_up = cut["up"] in ("marked face", "marked edge")
        top = (min if marked_up else max)(c[face] for c in corners)
        points = []
        for away, across in cut["line"]:
            point = [0.0, 0.0, 0.0]
            point[0], point[edge], point[face] = (
                low[0] + self.inches(away),
                low[edge] + self.inches(across),
                top,
            )
            at = [
                sum(v[axis] * p for v, p in zip((x, y, z), point, strict=True)) for axis in range(3)
            ]
            seen = (at[0], at[1], at[2])
            points.append((dot(seen, out), dot(seen, along), dot(seen, up)))
        miter = math.radians(float(card["angle"])) * (-1 if card.get("swing") == "left" else 1)
        turn = math.tan(miter)
        lean = math.tan(math.radians(float(card.get("bevel", 0)))) / math.cos(miter)
        lean *= -1 if card.get("tilt_side") == "left" else 1
        nears = [p[0] - turn * p[1] - lean * p[2] for p in points]
        assert abs(nears[0] - nears[1]) < FINE, f"the line is not where the saw runs: {cut}"
        at_saw = _out_of_blade((out, along, up), turn, lean)
        in_piece = self._along_axes(x, y, z, at_saw)
        below, above = solid.cut((in_piece, nears[0])), solid.cut((_times(in_piece, -1), -nears[0]))
        kept = max(
            (one for one in (below, above) if len(one.corners()) >= 4), key=lambda one: one.volume()
        )
        self.labels[cut["shapes"]] = kept

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

        there = [seen(corner) for corner in solid.corners()]
        lean = math.tan(math.radians(float(card.get("bevel", 0))))
        turn = 0.0
        if crosscut:
            turn = math.tan(math.radians(float(card["angle"])))
            turn *= -1 if card.get("swing") == "left" else 1
            lean *= 1 if card.get("tilt_side", "right") == "right" else -1
        takes = self.kerf / math.cos(math.atan(math.hypot(turn, lean)))
        fence, table = min(c[1] for c in there), min(c[2] for c in there)
        figure = card.get("stop") or card.get("fence")
        if figure and not cut["to_line"]:
            outward, inward = (self._along_axes(x, y, z, one) for one in (out, along))
            near = self._touching(solid, outward, inward, crosscut=crosscut) + self.inches(figure)
        else:
            edge = self._measured_from(card, cut, there, crosscut=crosscut)
            line = edge[0] + self.signed(cut["mark"])
            near = line - turn * (edge[1] - fence) - lean * (edge[2] - table)
            near -= 0 if cut["waste"] == "beyond" else takes
        self.look(card, cut, solid, near)
        if crosscut:
            self._compare(cut, there, Blade(near, turn, lean, takes))
        at_saw = _out_of_blade((out, along, up), turn, lean)
        in_piece = (dot(at_saw, x), dot(at_saw, y), dot(at_saw, z))
        shift = -turn * fence - lean * table
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

    @staticmethod
    def _along_axes(x: Vector, y: Vector, z: Vector, direction: Vector) -> Vector:
        """A direction at the saw, in the piece."""
        return dot(direction, x), dot(direction, y), dot(direction, z)

    @staticmethod
    def _touching(solid: Solid, out: Vector, along: Vector, *, crosscut: bool) -> float:
        """Where a piece that is pushed home is met: by a fence anywhere, by a stop within half an
        inch of the fence, which is all that a stop surely is deep."""
        if not crosscut:
            return min(dot(out, c) for c in solid.corners())
        fence = min(dot(along, c) for c in solid.corners())
        return min(dot(out, c) for c in solid.cut((along, fence + STOP)).corners())

    @staticmethod
    def _measured_from(
        card: dict[str, Any], cut: dict[str, Any], there: list[Vector], *, crosscut: bool
    ) -> Vector:
        """The corner on the face that is up which a tape is hooked on."""
        top = max(c[2] for c in there)
        face = [c for c in there if c[2] > top - 1e-5]
        if not crosscut:
            assert cut["mark_from"] == f"from the {cut['against']}", cut
            is_face = "face" in cut["against"] or cut["against"] == "back"
            return min(there if is_face else face)  # a face is flat at the fence, edges may lean
        low, high = min(c[1] for c in face), max(c[1] for c in face)
        end, _, along = cut["mark_from"].partition(", along the ")
        assert end.removeprefix("from the ").removeprefix("long point of the ") == cut["first"]
        edges = {"": low, cut["against"]: low}
        other = {"marked edge": "far edge", "far edge": "marked edge"}[cut["against"]]
        edges[other] = high
        mine = min(c for c in face if abs(c[1] - edges[along]) < 1e-4)
        if "long point" in end or not along:
            assert mine[0] < min(face)[0] + FINE, f"that is no long point: {cut}"
        return mine

    def _compare(self, cut: dict[str, Any], there: list[Vector], saw: Blade) -> None:
        """Whether ends, blade and kerf are where they are drawn."""
        drawn = {name: cut["drawn"][name] for name in ("near_end", "blade", "far_end")}
        told = {name: [self.signed(one) for one in corners] for name, corners in drawn.items()}
        assert abs(self.inches(cut["drawn"]["kerf"]) - saw.takes) < FINE, cut
        fence, table, top = (f(c[a] for c in there) for f, a in ((min, 1), (min, 2), (max, 2)))
        origin = None  # the place of the stop, as it is drawn
        sides = []
        for height in (top, table):
            face = [c for c in there if abs(c[2] - height) < 1e-4]
            sides.append((height, face))
        order = [(0, min), (0, max), (1, max), (1, min)]
        for n, (which, pick) in enumerate(order):
            height, face = sides[which]
            edge = pick(c[1] for c in face)
            mine = [c[0] for c in face if abs(c[1] - edge) < 1e-4]
            near_end, far_end, blade = (told[name][n] for name in ("near_end", "far_end", "blade"))
            origin = min(mine) - near_end if origin is None else origin
            assert abs(min(mine) - origin - near_end) < FINE, f"drawn at {near_end}: {cut}"
            assert abs(max(mine) - origin - far_end) < FINE, f"drawn at {far_end}: {cut}"
            at = saw.near + saw.turn * (edge - fence) + saw.lean * (height - table)
            assert abs(at - origin - blade) < FINE, f"blade drawn at {blade}: {cut}"

    def look(self, card: dict[str, Any], cut: dict[str, Any], solid: Solid, near: float) -> None:
        """What no careful person does: short pieces ripped at a fence or crosscut without being
        held, a part on the free side while a sliver is trapped at the fence."""
        long = solid.extents()[0]
        if card["do"] in ("rip", "resaw"):
            by_hand = card["tool"] in ("hand saw", "circular saw", None)
            if long < 12 - FINE:
                assert by_hand or card["way"] == "hold-down", f"{long} in is ripped: {cut}"
            waste = cut["near"] is None or not (cut["near"]["label"] or cut["near"]["keep"])
            inside = cut["near"] and self.holds_parts(card, cut["board"], cut["near"]["piece"])
            if card.get("fence") and float(self.inches(card["fence"])) < 0.5 and not inside:
                assert not waste, f"a sliver at the fence: {cut}"
        elif cut["near"] and cut["near"]["label"]:
            at_stop = card.get("stop") and not cut["to_line"]
            corners = self.inches(card["stop"]) if at_stop else long
            if corners < 6 - FINE or long < 12 - FINE:
                assert cut["held"] or card["way"], f"{corners} of {long} in is not held: {cut}"

    def holds_parts(self, card: dict[str, Any], board: int, piece: int) -> bool:
        """Whether something is still cut from a piece: a later card takes it up."""
        return (board, piece) in self.cut_further
