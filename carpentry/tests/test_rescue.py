"""A plan that the check refuses never reaches a builder as a failure."""

import logging
from dataclasses import replace
from unittest import TestCase
from unittest.mock import patch

from carpentry.cutting import (
    Budget,
    CutProblem,
    Layout,
    Order,
    Status,
    check_plan,
    first_plan,
    plan_cuts,
)
from carpentry.cutting.line.model import LineModel
from carpentry.cutting.line.way import arrange_line
from carpentry.cutting.rescue import rescued
from carpentry.cutting.search.model import Packing
from carpentry.tests.problems import home_size, problem
from carpentry.tests.random_problems import SORTS, random_problem


def too_close(given: CutProblem, line: LineModel, packing: Packing) -> tuple[Layout, ...]:
    """Boards whose second part begins where the first one ends: no room for the saw."""
    spoiled = []
    for layout in arrange_line(given, line, packing):
        first, *others = layout.parts
        if others and layout.count == 1:
            size = others[0].end - others[0].start
            others[0] = replace(others[0], start=first.end, end=first.end + size)
        spoiled.append(replace(layout, parts=(first, *others)))
    return tuple(spoiled)


def longer_than_the_board(
    given: CutProblem, line: LineModel, packing: Packing
) -> tuple[Layout, ...]:
    """Boards whose last part ends in the air."""
    return tuple(
        replace(layout, parts=(*layout.parts[:-1], replace(layout.parts[-1], end=10**7)))
        for layout in arrange_line(given, line, packing)
    )


class RescueTest(TestCase):
    def setUp(self) -> None:
        logging.disable(logging.CRITICAL)
        self.addCleanup(logging.disable, logging.NOTSET)

    def test_a_refused_plan_is_made_anew_and_nothing_is_claimed(self) -> None:
        given = home_size(3)
        good = plan_cuts(given)
        with patch("carpentry.cutting.line.way.arrange_line", too_close):
            plan = plan_cuts(given, Budget(2.0))
        check_plan(given, plan)
        self.assertIs(plan.status, Status.FEASIBLE)
        self.assertEqual(plan.unplaced, ())
        self.assertGreaterEqual(plan.price, good.price)
        self.assertLessEqual(plan.bound, good.price)

    def test_where_stock_runs_out_the_rest_is_told(self) -> None:
        given = problem([("96", "5", 1)], [("60", 2)])
        with patch("carpentry.cutting.line.way.arrange_line", longer_than_the_board):
            plan = first_plan(given)
        check_plan(given, plan)
        (left,) = plan.unplaced
        self.assertEqual((left.part, left.quantity), ("p0", 1))
        self.assertIn("no plan for it passed the check", left.reason)

    def test_every_sort_of_problem_can_be_rescued(self) -> None:
        """All boards refused: every part that fits anywhere gets a board of its own."""
        for sort in SORTS:
            for seed in range(8):
                given = replace(random_problem(sort, seed, most=3), order=Order.EITHER)
                plan = first_plan(given)
                layouts = rescued(given, ())
                placed = sum(len(one.parts) * one.count for one in layouts)
                wanted = sum(part.quantity for part in given.parts)
                missing = sum(one.quantity for one in plan.unplaced)
                self.assertEqual(placed, wanted - missing, (sort, seed))
