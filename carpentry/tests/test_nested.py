"""Whether ripped boards hold everything, decided by one program over all of them."""

import random
from dataclasses import replace
from unittest import TestCase

from carpentry.cutting import CutPart, CutProblem, Order
from carpentry.cutting.ripped.model import RippedModel
from carpentry.cutting.ripped.one_program import Nested, TooLarge
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.programs import Outcome
from carpentry.tests.problems import rip_size
from carpentry.tests.test_ripping import part, problem, stock


def answer(given: CutProblem, kinds: list[int]) -> Outcome:
    model = RippedModel(given)
    outcome, loads = Nested(model, kinds, model.demand).solve(Clock(60), 2)
    if outcome is Outcome.SOLVED:
        assert [sum(one) for one in zip(*loads, strict=True)] == list(model.demand)
    return outcome


class NestedTest(TestCase):
    def by_order(self, order: Order) -> CutProblem:
        """Slats 2 1/2 wide out of a 1x6 of 60 in: two side by side, kerf 1/8, two along."""
        parts = [part("slat", "3/4", "2 1/2", "28", 4), part("stick", "3/4", "2 1/2", "3", 2)]
        return replace(problem([stock("1x6", "3/4", "5 1/2", "60", "3.00")], parts), order=order)

    def test_worked_by_hand(self) -> None:
        """Four slats of 28 in fill 56 1/4 in of both strips; 3 in more fit beside them where kerfs
        leave 3 5/8: in every order. A fifth slat needs a second board."""
        for order in (Order.EITHER, Order.RIP_FIRST, Order.CROSSCUT_FIRST):
            given = self.by_order(order)
            self.assertEqual(answer(given, [0]), Outcome.SOLVED, order)
            more = replace(given.parts[0], quantity=5)
            fifth = replace(given, parts=(more, *given.parts[1:]))
            self.assertEqual(answer(fifth, [0]), Outcome.IMPOSSIBLE, order)
            self.assertEqual(answer(fifth, [0, 0]), Outcome.SOLVED, order)

    def test_crosscut_first_cannot_mix_what_ripping_first_can(self) -> None:
        """A strip of 40 in and, beside it, one of 30 and one of 20: 51 in of two strips. Crosscut
        first, each strip of a segment holds one part: 40 beside 30, and 20 more make 60 1/8."""
        parts = [part(f"p{n}", "3/4", "2 1/2", n, 1) for n in ("40", "30", "20")]
        given = problem([stock("1x6", "3/4", "5 1/2", "52", "3.00")], parts)
        for order, outcome in (
            (Order.RIP_FIRST, Outcome.SOLVED),
            (Order.EITHER, Outcome.SOLVED),
            (Order.CROSSCUT_FIRST, Outcome.IMPOSSIBLE),
        ):
            self.assertEqual(answer(replace(given, order=order), [0]), outcome, order)

    def test_as_the_lists_of_all_loads_decide(self) -> None:
        """The lists know every load of a board by arrays, without any program."""
        decided = 0
        for seed in range(24):
            chance = random.Random(seed)
            orders = (Order.EITHER, Order.RIP_FIRST, Order.CROSSCUT_FIRST)
            given = replace(rip_size(seed, kinds=(2, 5), parts=(4, 12)), order=orders[seed % 3])
            model, listed = RippedModel(given), RippedModel(given)
            self.assertTrue(listed.list_loads(Clock(60)))
            for _ in range(4):
                count = chance.randint(1, 5)
                kinds = [chance.randrange(len(model.kinds)) for _ in range(count)]
                expected, _ = listed.pack(kinds, model.demand, Clock(60))
                found, loads = Nested(model, kinds, model.demand).solve(Clock(60), 2)
                if (
                    found is Outcome.SOLVED
                    or model.most_segments > 2
                    or given.order is not Order.EITHER
                ):
                    self.assertEqual(found, expected, (seed, kinds))
                    decided += 1
                if found is Outcome.SOLVED:
                    held = [sum(one) for one in zip(*loads, strict=True)]
                    self.assertEqual(held, list(model.demand))
        self.assertGreater(decided, 60)

    def test_boards_with_flaws_are_left_to_others(self) -> None:
        given = self.by_order(Order.EITHER)
        flawed = replace(given, stock=(replace(given.stock[0], flaws=((100_000, 120_000),)),))
        model = RippedModel(flawed)
        with self.assertRaises(TooLarge):
            Nested(model, [0], model.demand)

    def test_very_many_fillings_are_refused(self) -> None:
        parts = tuple(CutPart(f"p{n}", 60_000 + 4_000 * n, 3, 6_096, 20_320) for n in range(24))
        given = replace(self.by_order(Order.EITHER), parts=parts)
        model = RippedModel(given)
        with self.assertRaises(TooLarge):
            Nested(model, [0] * 4, model.demand)
