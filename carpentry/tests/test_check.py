from collections.abc import Callable
from dataclasses import replace
from decimal import Decimal
from unittest import TestCase

from carpentry.cutting import (
    CutPlan,
    Layout,
    Leftover,
    PlacedPart,
    Status,
    Unplaced,
    check_plan,
    plan_cuts,
)
from carpentry.language import PlanCheckError
from carpentry.tests.problems import problem, ticks

PROBLEM = problem([("96", "5.00", 3), ("120", "7.00", None)], [("40", 3), ("30", 2)], start="1/2")


class CheckTest(TestCase):
    """Every way of spoiling a good plan is noticed."""

    def setUp(self) -> None:
        self.plan = plan_cuts(PROBLEM)

    def spoiled(self, spoil: Callable[[Layout], Layout]) -> CutPlan:
        first, *others = self.plan.layouts
        return replace(self.plan, layouts=(spoil(first), *others))

    def refused(self, plan: CutPlan, words: str) -> None:
        with self.assertRaisesRegex(PlanCheckError, words):
            check_plan(PROBLEM, plan)

    def test_the_plan_itself_holds(self) -> None:
        check_plan(PROBLEM, self.plan)

    def test_a_part_missing(self) -> None:
        self.refused(self.spoiled(lambda la: replace(la, parts=la.parts[:-1])), "accounted for")

    def test_a_part_too_short(self) -> None:
        def shorten(layout: Layout) -> Layout:
            last = layout.parts[-1]
            short = replace(last, end=last.end - 1)
            return replace(layout, parts=(*layout.parts[:-1], short))

        self.refused(self.spoiled(shorten), "not cut to its length")

    def test_the_kerf_forgotten(self) -> None:
        def close_up(layout: Layout) -> Layout:
            first, second, *others = layout.parts
            moved = PlacedPart(second.part, first.end, first.end + second.end - second.start)
            return replace(layout, parts=(first, moved, *others))

        self.refused(self.spoiled(close_up), "its size or place is another")

    def test_a_part_in_the_trim(self) -> None:
        def shift(layout: Layout) -> Layout:
            return replace(
                layout,
                parts=tuple(replace(p, start=p.start - 1, end=p.end - 1) for p in layout.parts),
            )

        self.refused(self.spoiled(shift), "beyond sound wood")

    def test_a_part_beyond_the_end(self) -> None:
        def push(layout: Layout) -> Layout:
            far = ticks("200")
            last = layout.parts[-1]
            moved = PlacedPart(last.part, far, far + last.end - last.start)
            return replace(layout, parts=(*layout.parts[:-1], moved))

        self.refused(self.spoiled(push), "beyond sound wood")

    def test_unknown_names_and_empty_boards(self) -> None:
        self.refused(self.spoiled(lambda la: replace(la, stock="plank")), "no stock is called")
        self.refused(
            self.spoiled(lambda la: replace(la, parts=(replace(la.parts[0], part="x"),))),
            "no part is called",
        )
        self.refused(self.spoiled(lambda la: replace(la, parts=())), "nothing is cut from")
        self.refused(self.spoiled(lambda la: replace(la, count=0)), "no boards")

    def test_too_many_of_a_stock(self) -> None:
        scarce = replace(
            PROBLEM, stock=tuple(replace(piece, available=0) for piece in PROBLEM.stock)
        )
        with self.assertRaisesRegex(PlanCheckError, "0 available"):
            check_plan(scarce, self.plan)

    def test_leftovers_price_bound_and_status(self) -> None:
        wrong_rest = self.spoiled(lambda la: replace(la, leftover=(Leftover(0, 5),)))
        self.refused(wrong_rest, "not what remains")
        self.refused(replace(self.plan, price=Decimal("1.00")), "the boards cost")
        self.refused(replace(self.plan, bound=self.plan.price + 1), "above the price")
        self.refused(replace(self.plan, bound=self.plan.price - 1), "bound is its price")
        self.refused(replace(self.plan, status=Status.INCOMPLETE), "says otherwise")
        extra = replace(
            self.plan, status=Status.INCOMPLETE, unplaced=(Unplaced("p0", 1, "because"),)
        )
        self.refused(extra, "accounted for")
