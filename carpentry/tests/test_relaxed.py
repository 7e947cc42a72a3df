"""Bounds of plans whose model leaves some ways to save out, worked by hand."""

from dataclasses import replace
from decimal import Decimal
from unittest import TestCase

from carpentry.cutting import CutPart, Order, plan_cuts
from carpentry.design.edges import read_edges
from carpentry.tests.problems import ticks
from carpentry.tests.test_ripping import part, problem, stock

BOARD = stock("1x6", "3/4", "5 1/2", "60", "3.00")


def bevelled(name: str, thickness: str, count: int) -> CutPart:
    """3 in wide between its outermost points, both edges at 10°."""
    one = CutPart(name, ticks("50"), count, ticks(thickness), ticks("3"))
    return replace(one, edges=read_edges("10 10"))


class RelaxedTest(TestCase):
    def test_bevels_of_several_thicknesses(self) -> None:
        """Half way up they are 3 - 3/4 tan 10° = 2.87 and 2.93 in wide: no two of them and a kerf
        go into 5 1/2, and 3/4 gives no second layer of 3/8. Three parts take three boards."""
        given = problem([BOARD], [bevelled("thick", "3/4", 2), bevelled("thin", "3/8", 1)])
        plan = plan_cuts(given)
        self.assertEqual((plan.price, plan.bound), (Decimal("9.00"), Decimal("9.00")))

    def test_clear_parts_keep_off_flaws_beside_others_that_do_not(self) -> None:
        """A flaw from 20 to 21 leaves 20 and 39 in: one clear part of 28 a board, whatever else
        may lie on the flaw."""
        flawed = replace(BOARD, flaws=((ticks("20"), ticks("21")),))
        clear = replace(part("clear", "3/4", "5 1/2", "28", 4), clear=True)
        other = replace(part("other", "3/4", "2 1/2", "12", 1), clear=False)
        for order in (Order.EITHER, Order.RIP_FIRST, Order.CROSSCUT_FIRST):
            plan = plan_cuts(problem([flawed], [clear, other], order))
            bound, price = plan.bound, plan.price
            self.assertEqual((price, bound), (Decimal("12.00"), Decimal("12.00")), order)
