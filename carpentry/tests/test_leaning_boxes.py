"""Leaning boxes: their saw angles against intersected planes, their pieces by geometry."""

import random
from decimal import Decimal
from unittest import TestCase

import numpy as np
from numpy.typing import NDArray

from carpentry.design.shapes import Made
from carpentry.tests.shape_geometry import SNUG, box_round, lengths, made, overlaps


def _unit(vector: NDArray[np.float64]) -> NDArray[np.float64]:
    return vector / np.linalg.norm(vector)


def saw_angles(own: float, other: float, *, mitered: bool) -> tuple[float, float]:
    """The miter and the tilt (degrees) of the left end of a board that leans by ``own`` beside
    others that lean by ``other``: its planes are intersected, nothing else is assumed."""
    own, other = np.radians(own), np.radians(other)
    face = np.array([0, -np.cos(own), -np.sin(own)])  # out of the board
    beside = np.array([-np.cos(other), 0, -np.sin(other)])
    end = beside if not mitered else _unit(beside - face)
    line = np.cross(face, end)  # where the end meets the face
    line *= np.sign(line[2])
    square = np.cross(face, [1, 0, 0])  # up the face, square to its length
    square *= np.sign(square[2])
    miter = np.degrees(np.arccos(np.clip(_unit(line) @ _unit(square), -1, 1)))
    miter *= -np.sign(line[0]) if abs(line[0]) > 1e-12 else 1  # long at the top where it runs out
    through = np.cross(end, line)  # in the end, from the back to the face
    through *= np.sign(through @ face)
    tilt = np.degrees(np.arcsin(np.clip(abs(end @ face), 0, 1)))
    return float(miter), float(-np.sign(through[0]) * tilt)  # long on the face where it runs out


class LeaningTest(TestCase):
    """Leaning boxes against intersected planes and against the corners of their own pieces."""

    def leaning(self, seed: int) -> tuple[Made, float, float, bool]:
        draw = random.Random(seed)
        sides, ends = draw.randint(-25, 30), draw.randint(-25, 30)
        mitered = draw.random() < 0.5
        one = made(
            "box",
            length=f"{draw.randint(24, 48)}",
            width=f"{draw.randint(20, 36)}",
            height=f"{draw.randint(5, 8)}",
            stock="1x12",
            lean_sides=f"{sides}",
            lean_ends=f"{ends or 4}",
            corners="mitered" if mitered else "butt",
            over=draw.choice(["ends", "sides"]),
            bottom=draw.choice(["none", "between", "under"]),
        )
        return one, sides, ends or 4, mitered

    def test_saw_angles_are_those_of_planes_to_a_tenth_of_a_degree(self) -> None:
        for seed in range(60):
            one, sides, ends, mitered = self.leaning(seed)
            for key, own, other in (("side", sides, ends), ("end", ends, sides)):
                with self.subTest(seed=seed, key=key):
                    miter, tilt = saw_angles(own, other, mitered=mitered)
                    for end in one.parts[key].ends:
                        found = (end.degrees, end.tilt)
                        if end.bevel:
                            found = (Decimal(0), end.degrees)
                        self.assertAlmostEqual(float(found[0]), miter, delta=0.05)
                        self.assertAlmostEqual(float(found[1]), tilt, delta=0.05)

    def test_published_angles(self) -> None:
        """Four sides at a slope of 30°: 26.6° and 37.8° with mitered corners, as tables of compound
        miters have it (from memory; common practice)."""
        one = made(
            "box",
            length="24",
            width="24",
            height="6",
            stock="1x12",
            lean_sides="30",
            lean_ends="30",
            corners="mitered",
        )
        left, _ = one.parts["side"].ends
        self.assertAlmostEqual(float(left.degrees), 26.57, delta=0.05)
        self.assertAlmostEqual(float(left.tilt), 37.76, delta=0.05)

    def test_pieces_lie_where_the_measures_say_and_not_in_one_another(self) -> None:
        for seed in range(40):
            one, _sides, _ends, _mitered = self.leaning(seed)
            with self.subTest(seed=seed):
                size = box_round(one.solids)
                for found, name in zip(size, ("length", "width", "height"), strict=True):
                    self.assertAlmostEqual(found, one.length(f"{{{name}}}"), delta=2 * SNUG)
                self.assertEqual(overlaps(one, 2 * SNUG), [])
                for solid in one.solids:
                    if solid.key in {"side", "end"}:
                        heights = sorted(corner[2] for corner in solid.corners)
                        self.assertLess(np.ptp(heights[:4]), SNUG)  # the foot lies level
                        self.assertLess(np.ptp(heights[4:]), SNUG)  # and so does the top

    def test_a_bottom_in_grooves_is_told_as_work(self) -> None:
        size = {"length": "24", "width": "14", "height": "6", "stock": "1x10"}
        one = made("box", **size, lean_sides="10", lean_ends="10", bottom="groove")
        told = [(work.kind, work.key) for work in one.written.work]
        self.assertEqual(told, [("groove", "side"), ("groove", "end")])

    def test_measured_inside_and_at_the_bottom(self) -> None:
        size = {"length": "20", "width": "10", "height": "6", "stock": "1x12", "lean_ends": "20"}
        inside = made("box", **size, **{"from": "inside the bottom"}, bottom="under")
        # 20 and two boards of 3/4 / cos 20° is 21.60: so long is the bottom under them
        self.assertEqual(lengths(inside)["bottom"], "21 19/32")
        foot = made("box", **size, **{"from": "at the bottom"}, bottom="under")
        self.assertEqual(lengths(foot)["bottom"], "20")
        upright = made(
            "box",
            length="20",
            width="10",
            height="6",
            stock="1x12",
            **{"from": "inside the bottom"},
        )
        self.assertEqual(lengths(upright), {"side": "20", "end": "11 1/2"})
