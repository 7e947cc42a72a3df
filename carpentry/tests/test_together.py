"""Parts that are kept together: one board, in order, a kerf between two."""

import json
import random
from dataclasses import replace
from decimal import Decimal
from unittest import TestCase

from carpentry.cutting import (
    Budget,
    CutPart,
    CutProblem,
    StockPiece,
    check_plan,
    first_plan,
    plan_cuts,
    steadied,
)
from carpentry.cutting.plan import CutPlan
from carpentry.cutting.problem_file import problem_document, read_problem
from carpentry.design import PartFields, read_part
from carpentry.language import TICKS_PER_INCH, CarpentryError, PlanCheckError, Unit
from carpentry.lumber import INCHES
from carpentry.project import NamedPart, SettingFields, read_settings
from carpentry.project.gathering import Shelf, gather_materials

INCH, KERF = TICKS_PER_INCH, TICKS_PER_INCH // 8


def problem(parts: list[CutPart], *lengths: int, kerf: int = KERF) -> CutProblem:
    stock = tuple(StockPiece(f"{n}", n * INCH, Decimal(n)) for n in lengths)
    return CutProblem(Unit.INCH, kerf, 0, 0, stock, tuple(parts))


def part(name: str, inches: int, quantity: int = 1, together: str = "") -> CutPart:
    return CutPart(name, inches * INCH, quantity, together=together)


def rows(plan: CutPlan) -> list[list[str]]:
    return [[placed.part for placed in layout.parts] for layout in plan.layouts]


class TogetherTest(TestCase):
    def test_a_cut_out_and_what_is_beside_it_come_from_one_board(self) -> None:
        # Apart 60 + 60 and 30 + 30 + 55 fit two boards of 120; 30 + 60 + 30 with two kerfs is 120
        # 1/4 and fits none, so that all three are one of 144.
        left, door, right = (
            part(n, size, 1, "front") for n, size in (("L", 30), ("D", 60), ("R", 30))
        )
        plan = plan_cuts(problem([left, part("X", 55), door, right, part("Y", 60)], 120, 144))
        together = next(row for row in rows(plan) if "D" in row)
        at = together.index("L")
        self.assertEqual(together[at : at + 3], ["L", "D", "R"])
        self.assertEqual(plan.status.value, "optimal")
        layout = next(one for one in plan.layouts if any(p.part == "D" for p in one.parts))
        placed = {one.part: one for one in layout.parts}
        self.assertEqual(placed["D"].start - placed["L"].end, KERF)
        self.assertEqual(placed["R"].start - placed["D"].end, KERF)
        self.assertEqual(layout.stock, "144")

    def test_it_costs_no_less_than_apart_and_as_little_as_every_way_tried(self) -> None:
        for seed in range(25):
            draw = random.Random(seed)
            sizes = [draw.randint(8, 40) for _ in range(3)]
            alone = [part(f"p{n}", draw.randint(6, 70), draw.randint(1, 2)) for n in range(3)]
            together = [part(f"s{n}", size, 1, "set") for n, size in enumerate(sizes)]
            kept = plan_cuts(problem([*alone, *together], 96, 120, 144), Budget(5))
            as_one = part("set", 0)
            as_one = replace(as_one, length=sum(sizes) * INCH + 2 * KERF)
            one = plan_cuts(problem([*alone, as_one], 96, 120, 144), Budget(5))
            loose = plan_cuts(
                problem([*alone, *(replace(p, together="") for p in together)], 96, 120, 144),
                Budget(5),
            )
            with self.subTest(seed=seed):
                self.assertEqual(kept.price, one.price)
                self.assertGreaterEqual(kept.price, loose.price)

    def test_what_is_too_long_together_is_told_of_each(self) -> None:
        plan = plan_cuts(problem([part("L", 60, 1, "front"), part("R", 70, 1, "front")], 120))
        self.assertEqual({one.part for one in plan.unplaced}, {"L", "R"})

    def test_two_of_a_set_lie_each_on_one_board(self) -> None:
        parts = [part("L", 20, 2, "front"), part("R", 30, 2, "front")]
        plan = plan_cuts(problem(parts, 120))
        self.assertEqual(rows(plan), [["L", "R", "L", "R"]])
        self.assertEqual(rows(first_plan(problem(parts, 120))), [["L", "R", "L", "R"]])
        self.assertEqual(steadied(problem(parts, 120), plan, plan), plan)

    def test_a_plan_that_tears_them_apart_is_refused(self) -> None:
        parts = [part("L", 20, 1, "front"), part("R", 30, 1, "front"), part("X", 10)]
        plan = plan_cuts(problem([replace(one, together="") for one in parts], 120))
        torn = sorted(plan.layouts[0].parts, key=lambda one: one.part)
        self.assertEqual([one.part for one in torn], ["L", "R", "X"])
        apart = plan_cuts(problem([part("R", 30), part("X", 10), part("L", 20)], 120))
        with self.assertRaisesRegex(PlanCheckError, "front is not kept together"):
            check_plan(problem(parts, 120), apart)

    def test_a_file_that_cannot_be_kept_so_is_told(self) -> None:
        one = problem([part("L", 20, 1, "front"), part("R", 30, 1, "front")], 120)
        document = problem_document(one)
        self.assertEqual(read_problem(json.dumps(document)), one)
        document["parts"][1] |= {"ends": ["20", "0"], "width": "3", "thickness": "1"}
        with self.assertRaisesRegex(CarpentryError, "“front” is not kept together: only square"):
            read_problem(json.dumps(document))

    def test_what_cannot_be_kept_so_waits_and_is_told(self) -> None:
        rail = PartFields(quantity="1", name="rail", stock="2x4", length="30", together="front")
        for other, said in (
            ({"stock": "2x6"}, "different stock"),
            ({"quantity": "2"}, "not as many"),
            ({"ends": "20 20"}, "only square"),
            ({"together": "back"}, "nothing else"),
        ):
            parts = [
                NamedPart(str(n), read_part(typed, INCHES))
                for n, typed in enumerate((rail, replace(rail, **other)))
            ]
            shelf = Shelf((), Unit.INCH)
            settings = read_settings(SettingFields.usual(Unit.INCH))
            found = gather_materials(parts, shelf, settings)
            reasons = [why for material in found for _, why in material.later]
            self.assertEqual(len(reasons), 2, other)
            self.assertIn(said, reasons[0])

    def test_on_ripped_boards(self) -> None:
        stock = (StockPiece("8", 96 * INCH, Decimal(9), thickness=INCH, width=8 * INCH),)
        parts = tuple(
            replace(part(name, size, 2, "front"), thickness=INCH, width=3 * INCH)
            for name, size in (("L", 40), ("R", 50))
        )
        plan = plan_cuts(CutProblem(Unit.INCH, KERF, 0, 0, stock, parts), Budget(5))
        self.assertFalse(plan.unplaced)
        self.assertEqual(plan.pieces_of_stock, 1)
        for layout in plan.layouts:
            strips = {one.y for one in layout.parts}
            for strip in strips:
                row = [one.part for one in layout.parts if one.y == strip]
                self.assertEqual(row, ["L", "R"])
