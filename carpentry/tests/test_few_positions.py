"""Of plans at one price the one that takes fewest positions of a saw."""

from collections import Counter
from dataclasses import replace
from decimal import Decimal
from unittest import TestCase

from carpentry.cutting import (
    Budget,
    CutPart,
    CutPlan,
    CutProblem,
    Layout,
    Order,
    PlacedPart,
    Saw,
    StockPiece,
    check_plan,
    first_plan,
    plan_cuts,
)
from carpentry.cutting.few_positions import fewer_positions, positions_of, trouble_of
from carpentry.cutting.plan import pieces_used
from carpentry.cutting.sawing import with_cuts
from carpentry.language import Unit
from carpentry.tests import seeds
from carpentry.tests.problems import ticks
from carpentry.tests.random_problems import random_problem

THICK = ticks("3/4")


def _part(name: str, count: int, length: str, width: str) -> CutPart:
    return CutPart(name, ticks(length), count, THICK, ticks(width))


def boxes(order: Order = Order.EITHER) -> CutProblem:
    """Twenty boxes of five kinds of parts, out of boards of two widths."""
    stock = (
        StockPiece("8 ft", ticks("96"), Decimal("9.80"), None, THICK, ticks("5 1/2")),
        StockPiece("10 ft", ticks("120"), Decimal("12.20"), None, THICK, ticks("5 1/2")),
        StockPiece("wide", ticks("96"), Decimal("14.40"), None, THICK, ticks("7 1/4")),
    )
    parts = (
        _part("side", 40, "18", "5"),
        _part("end", 40, "10 1/2", "5"),
        _part("bottom", 40, "16 1/2", "4 1/2"),
        _part("cleat", 40, "9", "1 1/2"),
        _part("handle", 20, "12", "2"),
    )
    return CutProblem(Unit.INCH, ticks("1/8"), ticks("1/4"), 0, stock, parts, order=order)


class FewPositionsTest(TestCase):
    def test_a_plan_stays_what_it_costs_and_keeps(self) -> None:
        sought = 0
        for sort in ("ripped", "eased", "bevelled", "limited"):
            for seed in seeds(15, 150):
                with self.subTest(sort=sort, seed=seed):
                    problem = random_problem(sort, seed)
                    plan = first_plan(problem)
                    found = fewer_positions(problem, plan, first_plan)
                    check_plan(problem, found)
                    self.assertEqual(pieces_used(found.layouts), pieces_used(plan.layouts))
                    self.assertEqual((found.price, found.bound), (plan.price, plan.bound))
                    before, after = (trouble_of(problem, p.layouts) for p in (plan, found))
                    self.assertLessEqual(after, before)
                    kept = [_kept(one, problem.keep_offcut_from) for one in (plan, found)]
                    self.assertGreaterEqual(kept[1], kept[0])
                    sought += after < before
        self.assertGreater(sought, 0)

    def test_what_is_kept_is_never_given_for_a_position(self) -> None:
        problem = replace(boxes(), keep_offcut_from=ticks("6"))
        plan = first_plan(problem)

        def wasteful(other: CutProblem) -> CutPlan:
            return replace(first_plan(other), layouts=tuple(map(_nothing_kept, plan.layouts)))

        found = fewer_positions(problem, plan, wasteful)
        self.assertEqual(_kept(found, ticks("6")), _kept(plan, ticks("6")))

    def test_waste_is_not_crosscut_off_before_a_rip_that_takes_it_off(self) -> None:
        # by hand: two rows of three parts, 3 × 18 and two kerfs from 1/4 on, end at 54 1/2 of 56:
        # crosscut there first that is a stop of its own, else 18, and the two fences
        stock = (StockPiece("board", ticks("56"), Decimal(1), 1, THICK, ticks("5 1/2")),)
        problem = CutProblem(
            Unit.INCH, ticks("1/8"), ticks("1/4"), 0, stock, (_part("slat", 6, "18", "2 1/2"),)
        )
        wide, long, kerf = ticks("2 1/2"), ticks("18"), ticks("1/8")
        placed = tuple(
            PlacedPart("slat", x, x + long, (y, y + wide), (0, THICK))
            for y in (0, wide + kerf)
            for x in (ticks("1/4") + n * (long + kerf) for n in range(3))
        )
        layout = with_cuts(problem, Layout("board", 1, placed))
        plan = replace(first_plan(problem), layouts=(layout,), unplaced=())
        found = fewer_positions(problem, plan, lambda _: None)
        stops = Counter(cut.saw for cut in found.layouts[0].cuts)
        self.assertEqual(positions_of(problem, plan.layouts), 3)
        self.assertEqual(positions_of(problem, found.layouts), 2)
        self.assertEqual(stops[Saw.RIP], 2)

    def test_parts_that_show_stay_on_their_boards(self) -> None:
        plain = boxes()
        shown = replace(plain, parts=tuple(replace(one, show=True) for one in plain.parts))
        asked: list[CutProblem] = []

        def again(other: CutProblem) -> None:
            asked.append(other)

        for problem, count in ((plain, 2), (shown, 0)):
            asked.clear()
            fewer_positions(problem, first_plan(problem), again)
            self.assertEqual(len(asked), count)

    def test_twenty_boxes(self) -> None:
        problem = boxes()
        plan = plan_cuts(problem, Budget(2.0))
        usual = tuple(with_cuts(problem, replace(one, cuts=())) for one in plan.layouts)
        self.assertLess(positions_of(problem, plan.layouts), positions_of(problem, usual))


def _nothing_kept(layout: Layout) -> Layout:
    rest = tuple(replace(one, keep=False) for one in layout.leftover)
    return replace(layout, leftover=rest)


def _kept(plan: CutPlan, least: int) -> int:
    if not least:
        return 0
    return sum(
        one.length * layout.count for layout in plan.layouts for one in layout.leftover if one.keep
    )
