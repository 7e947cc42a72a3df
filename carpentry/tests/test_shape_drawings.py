"""Drawings of shapes: their views, and how they are laid out."""

import itertools
from typing import ClassVar
from unittest import TestCase

import numpy as np

from carpentry.design import Sheet, TypedSheet
from carpentry.design.shapes import (
    SHAPES,
    LaidOut,
    Made,
    Placed,
    lay_out,
    made_alone,
    make_shape,
    views_of,
)
from carpentry.lumber import INCHES, standard_section
from carpentry.tests.shape_geometry import box_round


class DrawnTest(TestCase):
    """Views and their layout: a polygon for each piece, the whole as large as it is, and nothing
    written over anything else."""

    MADE: ClassVar = {
        "frame": {"width": "31 1/4", "height": "58", "stock": "2x2", "middles": "2"},
        "row": {"along": "72", "gap": "2", "stock": "1x4 cedar", "length": "42"},
        "box": {"length": "24", "width": "14", "height": "9", "stock": "1x10", "bottom": "groove"},
        "stand": {
            **{"length": "48", "width": "22", "height": "34", "leg stock": "4x4"},
            **{"stock": "2x4", "shelves at": "10, 20", "top": "5/4x6"},
        },
        "brace": {"run": "24", "rise": "18", "stock": "2x4", "pairs": "2"},
        "splayed legs": {
            **{"height": "28", "top": "10", "floor": "22", "stock": "2x4"},
            "stretchers at": "6, 12",
        },
        "crossed legs": {"height": "28", "spread": "30", "stock": "2x4", "cross at": "15"},
        "wall": {"width": "96", "height": "50", "stock": "1x8 cedar", "joint": "lap"},
        "truss": {
            **{"span": "96", "pitch": "30", "stock": "2x4", "overhang": "12", "tails": "square"},
            **{"supports": "1/3, 2/3", "stands over": "0, 48"},
        },
        "door": {"width": "72", "height": "80", "stock": "1x4", "leaves": "2", "faces": "1x6"},
    }
    AXES: ClassVar = {"front": (0, 2), "back": (0, 2), "side": (1, 2), "plan": (0, 1)}

    def test_every_shape_is_among_them(self) -> None:
        self.assertEqual(set(self.MADE), set(SHAPES))

    def test_a_polygon_for_each_piece_in_each_view_and_the_size_of_the_whole(self) -> None:
        for name, measures in self.MADE.items():
            one = make_shape(name, measures, INCHES)
            size = box_round(one.solids)
            for view in views_of(one):
                axes = self.AXES[view.name]
                with self.subTest(shape=name, view=view.name):
                    self.assertEqual(len(view.outlines), len(one.solids))
                    self.assertTrue(all(len(outline.points) >= 3 for outline in view.outlines))
                    for found, axis in zip(view.size, axes, strict=True):
                        self.assertAlmostEqual(found, size[axis], places=4)
                    told = {(d.way, round(d.ticks / 8128, 3)) for d in view.dimensions}
                    self.assertIn(("across", round(size[axes[0]], 3)), told)
                    self.assertIn(("up", round(size[axes[1]], 3)), told)

    def test_an_outline_is_as_large_as_what_is_seen_of_its_piece(self) -> None:
        """The outline of a piece against all of its corners, laid flat."""
        for name, measures in self.MADE.items():
            one = make_shape(name, measures, INCHES)
            for view in views_of(one):
                for outline in view.outlines:
                    solid = next(
                        s for s in one.solids if (s.key, s.number) == (outline.key, outline.number)
                    )
                    flat = np.array(solid.corners)[:, self.AXES[view.name]]
                    flat[:, 0] *= -1 if view.name == "back" else 1
                    found = np.array(outline.points)
                    for side in (np.min, np.max):
                        self.assertTrue(np.allclose(side(found, 0), side(flat, 0), atol=1e-4))

    def test_sizes_and_lines_lie_apart(self) -> None:
        for name, measures in self.MADE.items():
            one = make_shape(name, measures, INCHES)
            for view in views_of(one):
                for wide, high in ((700, 440), (330, 440), (540, 300)):
                    with self.subTest(shape=name, view=view.name, wide=wide):
                        self.apart(lay_out(view, wide, high, 96, lambda t: f"{t / 8128:.3g}″"))

    def apart(self, laid: LaidOut) -> None:
        sizes = [
            (x - 3.2 * len(label.text), y - 10, x + 3.2 * len(label.text), y)
            for label in laid.labels
            if not label.letter
            for x, y in [label.at]
        ]
        long = [
            (
                *(min(line.start[0], line.end[0]), min(line.start[1], line.end[1])),
                *(max(line.start[0], line.end[0]), max(line.start[1], line.end[1])),
            )
            for line in laid.lines
            if np.hypot(*np.subtract(line.end, line.start)) > 12.5  # no tick
        ]
        pairs = (*itertools.combinations(sizes, 2), *itertools.combinations(long, 2))
        for first, second in pairs:
            self.assertFalse(_meet(first, second), (first, second))
        boxes: list[tuple[float, ...]] = [*sizes, *long]
        for box in boxes:
            self.assertTrue(box[0] > 0 and box[1] > 0, box)
            self.assertTrue(box[2] <= laid.width and box[3] <= laid.height, (box, laid.width))
            for outline in laid.outlines:
                xs, ys = zip(*outline.points, strict=True)
                self.assertFalse(_meet(box, (min(xs), min(ys), max(xs), max(ys))), (box, outline))


def _meet(one: tuple[float, ...], other: tuple[float, ...]) -> bool:
    """Whether two upright rectangles share more than their edges."""
    return all(one[n] < other[n + 2] - 0.5 and other[n] < one[n + 2] - 0.5 for n in (0, 1))


class HandTest(TestCase):
    """A door of one leaf, whose braces run one way."""

    DOOR: ClassVar = {"width": "36", "height": "80", "stock": "1x4", "gap": "0"}

    def door(self, hand: str) -> Made:
        sheet = Sheet(TypedSheet(), INCHES, standard_section)
        return made_alone(Placed("gate", "door", self.DOOR | {"hand": hand}), sheet)

    def braces(self, hand: str) -> list[tuple[float, float]]:
        """Of every brace, where its foot and its head are, across."""
        found = []
        for solid in self.door(hand).solids:
            if solid.key == "brace":
                ordered = sorted(solid.corners, key=lambda corner: corner[2])
                found.append((ordered[0][0], ordered[-1][0]))
        return found

    def test_mirrored_it_leans_the_other_way(self) -> None:
        self.assertTrue(all(foot < head for foot, head in self.braces("as drawn")))
        self.assertTrue(all(foot > head for foot, head in self.braces("mirrored")))

    def test_left_and_right_are_drawn_beside_one_another_and_counted(self) -> None:
        braces = self.braces("left and right")
        self.assertEqual([foot < head for foot, head in braces], [True, True, False, False])
        pair = self.door("left and right")
        self.assertEqual(pair.parts["stile"].quantity, 4)
        self.assertEqual(len(pair.solids), 2 * len(self.door("as drawn").solids))
        left = max(c[0] for s in pair.solids[:7] for c in s.corners)
        right = min(c[0] for s in pair.solids[7:] for c in s.corners)
        self.assertLess(left, right)

    def test_several_of_it_have_as_many_parts(self) -> None:
        sheet = Sheet(TypedSheet(named={"houses": "3"}), INCHES, standard_section)
        one = made_alone(Placed("gate", "door", self.DOOR | {"copies": "houses"}), sheet)
        self.assertEqual(one.parts["stile"].quantity, 6)
        self.assertEqual(len(one.solids), 7)
