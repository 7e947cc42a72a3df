"""Small changes leave boards alone where that costs nothing."""

import random
from collections import Counter
from dataclasses import replace
from unittest import TestCase

from carpentry.cutting import CutPlan, CutProblem, Status, check_plan, plan_cuts, steadied
from carpentry.tests import often, seeds
from carpentry.tests.problems import home_size, problem, rip_size

PATIENCE = 10.0  # seconds: how busy a machine is decides nothing


def boards(plan: CutPlan) -> Counter[tuple[str, tuple[str, ...]]]:
    found: Counter[tuple[str, tuple[str, ...]]] = Counter()
    for layout in plan.layouts:
        found[layout.stock, tuple(sorted(p.part for p in layout.parts))] += layout.count
    return found


def changed(plan: CutPlan, before: CutPlan) -> int:
    return (boards(plan) - boards(before)).total()


class SteadyTest(TestCase):
    def test_one_more_part_changes_one_board(self) -> None:
        parts = [("31 1/4", 6), ("22", 9), ("17 1/2", 8), ("40", 3)]
        before = plan_cuts(problem([("96", "5.00", None)], parts))
        more = problem([("96", "5.00", None)], [*parts[:1], ("22", 10), *parts[2:]])
        plan = steadied(more, plan_cuts(more), before, PATIENCE)
        check_plan(more, plan)
        self.assertEqual(plan.status, Status.OPTIMAL)
        self.assertLessEqual(changed(plan, before), 1)

    def test_never_dearer_and_never_more_pieces(self) -> None:
        chance = random.Random(4)
        steadier = calmer = 0
        for seed in seeds(5, 12):
            given = home_size(seed)
            before = plan_cuts(given)
            other = self.edited(given, chance)
            fresh = plan_cuts(other)
            plan = steadied(other, fresh, before, PATIENCE)
            check_plan(other, plan)
            self.assertEqual(
                (plan.price, plan.pieces_of_stock, plan.unplaced),
                (fresh.price, fresh.pieces_of_stock, fresh.unplaced),
            )
            self.assertLessEqual(changed(plan, before), changed(fresh, before), seed)
            calmer += changed(fresh, before)
            steadier += changed(plan, before)
        self.assertLess(steadier, calmer)

    def test_ripped_boards_stay_as_they_were_too(self) -> None:
        chance = random.Random(6)
        steadier = calmer = 0
        for seed in (2, 4, 6, 9)[: often(1, 4)]:
            given = rip_size(seed)
            before = plan_cuts(given)
            other = self.edited(given, chance)
            fresh = plan_cuts(other)
            plan = steadied(other, fresh, before, PATIENCE)
            check_plan(other, plan)
            self.assertEqual(
                (plan.price, plan.pieces_of_stock), (fresh.price, fresh.pieces_of_stock)
            )
            calmer += changed(fresh, before)
            steadier += changed(plan, before)
            again = steadied(given, before, before)
            self.assertEqual(again, before)
        self.assertLess(steadier, calmer)

    @staticmethod
    def edited(given: CutProblem, chance: random.Random) -> CutProblem:
        parts = list(given.parts)
        at = chance.randrange(len(parts))
        parts[at] = replace(parts[at], quantity=parts[at].quantity + 1)
        return replace(given, parts=tuple(parts))

    def test_boards_that_are_no_longer_there_are_given_up(self) -> None:
        given = problem([("96", "5.00", 2), ("120", "7.00", None)], [("50", 3)])
        before = plan_cuts(given)
        without = replace(given, stock=given.stock[1:])
        plan = steadied(without, plan_cuts(without), before, PATIENCE)
        self.assertEqual({layout.stock for layout in plan.layouts}, {"s1"})

    def test_a_part_of_another_length_lies_nowhere_as_before(self) -> None:
        given = problem([("96", "5.00", None)], [("30", 3), ("20", 2)])
        before = plan_cuts(given)
        longer = problem([("96", "5.00", None)], [("31", 3), ("20", 2)])
        plan = steadied(longer, plan_cuts(longer), before, PATIENCE)
        check_plan(longer, plan)
