"""Spare boards are part of what is bought, so part of what is proven cheapest."""

import json
from collections.abc import Sequence
from dataclasses import replace
from decimal import Decimal
from functools import cache
from itertools import product
from math import ceil
from random import Random
from unittest import TestCase

from carpentry.buying import Tax
from carpentry.cutting import (
    CutProblem,
    Spare,
    Status,
    check_plan,
    plan_cuts,
    problem_document,
    read_problem,
    steadied,
)
from carpentry.language import CarpentryError, PlanCheckError
from carpentry.project import tally
from carpentry.tests import seeds
from carpentry.tests.problems import problem
from carpentry.tests.test_claims import line, planned, settled, typed

SPARES = (Spare(1), Spare(2), Spare(0, 10), Spare(0, 40), Spare(1, 25))
YARD = [line("2x4", "8ft", "5.13"), line("2x4", "10ft", "6.99"), line("2x4", "12ft", "8.25")]
PARTS = "7 stud 2x4 30\n3 plate 2x4 44"


def drawn(seed: int) -> CutProblem:
    """A few parts from two or three lengths, one of them perhaps limited."""
    chance = Random(seed)
    feet = sorted(chance.sample((6, 8, 10, 12), chance.choice((2, 3))))
    limited = chance.choice((None, *feet))
    stock = [
        (
            str(12 * length),
            str(Decimal(round(length * 62 * chance.uniform(0.85, 1.2))).scaleb(-2)),
            chance.randint(1, 4) if length == limited else None,
        )
        for length in feet
    ]
    parts = [(str(chance.randint(14, 60)), chance.randint(1, 4)) for _ in range(3)]
    given = problem(stock, parts, start="1/2")
    return replace(given, spare=chance.choice(SPARES))


def least(given: CutProblem) -> Decimal:
    """The price of the cheapest purchase of all that hold the parts: every purchase is looked at,
    every part is tried on every board."""
    sizes = sorted(
        (part.length + given.kerf for part in given.parts for _ in range(part.quantity)),
        reverse=True,
    )
    room = [given.sound_length(piece) + given.kerf for piece in given.stock]
    most = [len(sizes) if p.available is None else p.available for p in given.stock]

    @cache
    def hold(left: tuple[int, ...], at: int) -> bool:
        if at == len(sizes):
            return True
        return any(
            space >= sizes[at]
            and (n == 0 or left[n - 1] != space)
            and hold(tuple(sorted((*left[:n], space - sizes[at], *left[n + 1 :]))), at + 1)
            for n, space in enumerate(left)
        )

    def bought(counts: Sequence[int]) -> Decimal:
        total = Decimal(0)
        for piece, count in zip(given.stock, counts, strict=True):
            more = given.spare.boards + ceil(count * given.spare.percent / 100) if count else 0
            if piece.available is not None:
                more = min(more, piece.available - count)
            total += piece.price * (count + more)
        return total

    every = sorted(product(*(range(n + 1) for n in most)), key=bought)
    for counts in every:
        boards = tuple(
            sorted(space for space, n in zip(room, counts, strict=True) for _ in range(n))
        )
        if sum(boards) >= sum(sizes) and hold(boards, 0):
            return bought(counts)
    raise AssertionError("no purchase holds the parts")


class SparesTest(TestCase):
    def test_one_length_alone_needs_the_fewest(self) -> None:
        """One spare of each length: 8 ft alone is 4 and 1 boards of 5.13, which is 25.65; one of
        each length, cheapest without spares, would be 40.74."""
        plans, claim = planned(typed(PARTS), YARD, settled(spare="1"))
        ((_, plan),) = plans
        assert plan is not None
        self.assertEqual(plan.price, Decimal("25.65"))
        self.assertTrue(claim.proven)
        found = tally(plans, settled(spare="1"), Tax(Decimal(0), included=False), "USD", "Mill")
        self.assertEqual(found.shopping.subtotal, plan.price)
        self.assertEqual((found.boards, found.spare), (4, 1))

    def test_no_purchase_is_cheaper_with_its_spares(self) -> None:
        for seed in seeds(25, 200):
            given = drawn(seed)
            plan = plan_cuts(given)
            check_plan(given, plan)
            with self.subTest(seed=seed, spare=given.spare):
                if not plan.unplaced:
                    self.assertEqual(plan.status, Status.OPTIMAL)
                    self.assertEqual(plan.price, least(given))

    def test_a_plan_says_what_its_spares_cost(self) -> None:
        given = replace(problem([("96", "5.00", 5)], [("40", 8)]), spare=Spare(2))
        plan = plan_cuts(given)
        self.assertEqual(plan.price, Decimal("25.00"))  # four are cut, one more is there
        with self.assertRaises(PlanCheckError):
            check_plan(given, replace(plan, price=Decimal("30.00"), bound=Decimal("30.00")))

    def test_boards_that_stay_cost_no_spare_more(self) -> None:
        given = replace(problem([("96", "5.13", None), ("120", "6.99", None)], [("30", 7)]))
        before = plan_cuts(given)
        spared = replace(given, spare=Spare(1))
        plan = plan_cuts(spared)
        self.assertEqual(steadied(spared, plan, before).price, plan.price)

    def test_a_problem_with_spares_reads_back(self) -> None:
        given = replace(problem([("96", "5.00", None)], [("40", 8)]), spare=Spare(1, 10))
        self.assertEqual(read_problem(json.dumps(problem_document(given))), given)
        self.assertNotIn("spare", problem_document(replace(given, spare=Spare())))
        wrong = problem_document(given) | {"spare": {"boards": -1, "percent": 200, "per": 1}}
        with self.assertRaises(CarpentryError) as told:
            read_problem(json.dumps(wrong))
        self.assertEqual(
            {one.place for one in told.exception.problems},
            {"spare.boards", "spare.percent", "spare.per"},
        )


class OlderPlansTest(TestCase):
    def test_spares_that_were_not_planned_are_not_called_least(self) -> None:
        plans, _ = planned(typed(PARTS), YARD, settled())
        found = tally(plans, settled(spare="1"), Tax(Decimal(0), included=False), "USD", "Mill")
        self.assertFalse(found.claim.proven)
        self.assertIn("spare boards come on top", found.claim.detail)
