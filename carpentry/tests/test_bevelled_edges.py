"""Edges ripped at an angle, against the geometry of the saw, and parts that are seen."""

import json
import math
import random
from dataclasses import replace
from decimal import Decimal
from unittest import TestCase

from carpentry.cutting import (
    Budget,
    CutPart,
    CutPlan,
    CutProblem,
    Status,
    StockPiece,
    check_plan,
    plan_cuts,
)
from carpentry.cutting.problem_file import problem_document, read_problem
from carpentry.design.edges import corners, mean_width, outermost_width, read_edges, wider_width
from carpentry.language import CarpentryError, PlanCheckError, Unit
from carpentry.tests.problems import SIXTEENTH, ticks

FIVE = Budget(5.0)


def piece(id_: str, width: str, length: str, price: str, thickness: str = "1 1/2") -> StockPiece:
    return StockPiece(id_, ticks(length), Decimal(price), None, ticks(thickness), ticks(width))


def bevelled(id_: str, width: str, length: str, quantity: int, edges: str) -> CutPart:
    thickness = "1 1/2"
    angles = read_edges(edges)
    across = outermost_width(ticks(width), angles, ticks(thickness))
    return CutPart(id_, ticks(length), quantity, ticks(thickness), across, edges=angles)


def cut(stock: list[StockPiece], parts: list[CutPart], kerf: str = "1/8") -> CutProblem:
    return CutProblem(Unit.INCH, ticks(kerf), 0, 0, tuple(stock), tuple(parts))


class EdgesTest(TestCase):
    def test_the_width_is_that_of_the_wider_face(self) -> None:
        """A corner block at 45° narrows by its thickness on either side; a leaning side is as wide
        on its face as on its back, but reaches further by its thickness times tan θ."""
        thick = ticks("1 1/2")
        block, side = read_edges("45 45"), read_edges("20 -20")
        self.assertEqual(outermost_width(ticks("4"), block, thick), ticks("4"))
        face_left, face_right, back_right, back_left = corners(0, ticks("4"), block, thick)
        self.assertEqual((face_right - face_left, back_right - back_left), (ticks("4"), ticks("1")))
        reach = math.ceil(thick * math.tan(math.radians(20)))
        self.assertEqual(outermost_width(ticks("4"), side, thick), ticks("4") + reach)
        self.assertEqual(mean_width(ticks("4"), block, thick), ticks("2 1/2"))

    def test_widths_read_back(self) -> None:
        chance = random.Random(8)
        for _ in range(200):
            edges = read_edges(f"{chance.randint(-60, 60)} {chance.randint(-60, 60)}")
            thick, width = chance.randint(3_000, 15_000), chance.randint(60_000, 90_000)
            over_all = outermost_width(width, edges, thick)
            self.assertGreaterEqual(over_all, width)
            self.assertEqual(wider_width(over_all, edges, thick), width)

    def test_what_is_refused(self) -> None:
        for text, words in (
            ("45", "no pair of angles"),
            ("45b 45", "no angle of an edge"),
            ("80 0", "no saw cuts that"),
            ("a b", "is no angle"),
        ):
            with self.assertRaisesRegex(CarpentryError, words):
                read_edges(text)
        with self.assertRaisesRegex(CarpentryError, "nothing is left of one face"):
            outermost_width(ticks("2"), read_edges("45 45"), ticks("1 1/2"))


class BevelledPlansTest(TestCase):
    def held(self, stock: StockPiece, part: CutPart) -> int:
        """How many of a part lie side by side in one board that is as long as the part."""
        plan = plan_cuts(cut([replace(stock, available=1)], [replace(part, quantity=20)]), FIVE)
        return sum(layout.count * len(layout.parts) for layout in plan.layouts)

    def test_turned_blocks_share_their_saw_lines(self) -> None:
        """Corner blocks of 3 in at 45° from a 2x10: each but the first takes 3 − 1 1/2 in and
        kerf ÷ cos 45°, so that four measure 8.03 in and five 9.71 in. Side by side without turning
        there would be room for two."""
        block = bevelled("block", "3", "10", 1, "45 45")
        self.assertEqual(self.held(piece("2x10", "9 1/4", "10", "8"), block), 4)
        saw = Decimal("0.125") / Decimal(math.cos(math.radians(45)))
        first, more = Decimal(3), Decimal("1.5") + saw
        outer = 2 * (saw - Decimal("0.125"))
        self.assertLess(first + 3 * more + outer, Decimal("9.25"))
        self.assertGreater(first + 4 * more, Decimal("9.25"))

    def test_leaning_sides_lie_parallel(self) -> None:
        """Sides of 2 in with both edges at 20°: 2 in and kerf ÷ cos 20° from one to the next."""
        side = bevelled("side", "2", "10", 1, "20 -20")
        reach, saw = 1.5 * math.tan(math.radians(20)), 0.125 / math.cos(math.radians(20))
        room = (9.25 - reach - 2 * (saw - 0.125) + saw) / (2 + saw)
        self.assertEqual(self.held(piece("2x10", "9 1/4", "10", "8"), side), int(room))

    def test_a_part_as_wide_as_its_board_is_only_bevelled(self) -> None:
        sill = bevelled("sill", "5 1/2", "20", 1, "15 0")
        plan = plan_cuts(cut([piece("2x6", "5 1/2", "20", "4")], [sill]), FIVE)
        self.assertIs(plan.status, Status.OPTIMAL)
        self.assertEqual(plan.layouts[0].parts[0].y, (0, ticks("5 1/2")))

    def test_a_bevel_too_wide_for_its_board_is_told(self) -> None:
        side = bevelled("side", "5 1/2", "20", 1, "20 -20")
        plan = plan_cuts(cut([piece("2x6", "5 1/2", "20", "4")], [side]), FIVE)
        self.assertIs(plan.status, Status.INCOMPLETE)
        self.assertIn("wider than the widest stock", plan.unplaced[0].reason)

    def test_plans_hold_and_bounds_are_below_them(self) -> None:
        """Random parts with and without bevels: the checker replays every plan; without a kerf
        square edges never need less than bevelled ones, which lie inside them."""
        chance = random.Random(2)
        proven = 0
        for seed in range(10):
            stock = [piece("2x4", "3 1/2", "48", "3"), piece("2x8", "7 1/4", "60", "6.5")]
            parts = [
                bevelled(
                    f"p{n}",
                    f"{chance.randint(48, 56) / 16}",
                    f"{chance.randint(8, 40)}",
                    chance.randint(1, 3),
                    chance.choice(("45 45", "30 -30", "30 30", "20 0", "0 0")),
                )
                for n in range(chance.randint(2, 4))
            ]
            kerf = chance.choice(("0", "1/8"))
            given = cut(stock, parts, kerf)
            plan = plan_cuts(given, Budget(3.0))
            check_plan(given, plan)
            self.assertEqual(plan.unplaced, (), seed)
            proven += plan.status is Status.OPTIMAL
            square = replace(given, parts=tuple(replace(p, edges=read_edges("")) for p in parts))
            if kerf == "0":
                self.assertLessEqual(plan.bound, plan_cuts(square, Budget(3.0)).price, seed)
        self.assertGreater(proven, 4)

    def test_the_problem_reads_back(self) -> None:
        given = cut(
            [piece("2x6", "5 1/2", "48", "4")],
            [bevelled("a", "3", "10", 2, "45 45"), bevelled("b", "2 1/2", "10", 1, "20 -20")],
        )
        given = replace(given, parts=(replace(given.parts[0], show=True), given.parts[1]))
        self.assertEqual(read_problem(json.dumps(problem_document(given))), given)

    def test_what_a_file_may_not_say(self) -> None:
        document = problem_document(cut([piece("2x6", "5 1/2", "48", "4")], []))
        document["parts"] = [
            {"id": "a", "length": "10", "quantity": 1, "thickness": "1 1/2", "width": "2"}
            | {"edges": ["45", "45"]}
        ]
        with self.assertRaisesRegex(CarpentryError, r"parts\[0\].edges: .*nothing is left"):
            read_problem(json.dumps(document))


class CheckTest(TestCase):
    def setUp(self) -> None:
        self.given = cut(
            [piece("2x10", "9 1/4", "10", "8")], [bevelled("block", "3", "10", 3, "45 45")]
        )
        self.plan = plan_cuts(self.given, FIVE)

    def spoiled(self, number: int, **change: object) -> CutPlan:
        layout = self.plan.layouts[0]
        parts = list(layout.parts)
        parts[number] = replace(parts[number], **change)  # type: ignore[arg-type]
        return replace(self.plan, layouts=(replace(layout, parts=tuple(parts), leftover=()),))

    def test_what_is_wrong(self) -> None:
        check_plan(self.given, self.plan)
        second = self.plan.layouts[0].parts[1]
        assert second.y is not None
        closer = (second.y[0] - SIXTEENTH, second.y[1] - SIXTEENTH)
        with self.assertRaisesRegex(PlanCheckError, "its size or place"):
            check_plan(self.given, self.spoiled(1, y=closer))
        with self.assertRaisesRegex(PlanCheckError, "other ends or edges"):
            check_plan(self.given, self.spoiled(1, edges=read_edges("30 30")))
        upright = tuple(edge.flipped for edge in second.edges)
        with self.assertRaisesRegex(PlanCheckError, "its size or place"):
            check_plan(self.given, self.spoiled(1, edges=upright))


class SeenPartsTest(TestCase):
    def test_parts_that_show_share_the_first_boards(self) -> None:
        """Two equal parts, one of them seen: it lies on the first boards, none of them mixed while
        that can be."""
        stock = (StockPiece("s", ticks("96"), Decimal(5)),)
        parts = (
            CutPart("hidden", ticks("30"), 6),
            CutPart("seen", ticks("30"), 3, show=True),
        )
        plan = plan_cuts(CutProblem(Unit.INCH, ticks("1/8"), 0, 0, stock, parts), FIVE)
        first, *others = plan.layouts
        self.assertEqual([one.part for one in first.parts], ["seen"] * 3)
        self.assertTrue(all(one.part == "hidden" for rest in others for one in rest.parts))
