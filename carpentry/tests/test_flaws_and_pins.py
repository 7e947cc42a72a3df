"""Boards with flaws, and parts that may come from some boards alone."""

import itertools
import json
import random
from dataclasses import replace
from decimal import Decimal
from unittest import TestCase
from unittest.mock import patch

from carpentry.cutting import (
    Budget,
    CutPart,
    CutProblem,
    Layout,
    PlacedPart,
    Status,
    StockPiece,
    check_plan,
    plan_cuts,
    problem_document,
    read_problem,
)
from carpentry.language import TICKS_PER_INCH, CarpentryError, PlanCheckError, Unit
from carpentry.tests import seeds
from carpentry.tests.problems import ticks

FIVE = Budget(5.0)
INCH = TICKS_PER_INCH


def board(name: str, length: int, price: str, *flaws: tuple[int, int]) -> StockPiece:
    """One board; whole inches."""
    spans = tuple((a * INCH, b * INCH) for a, b in flaws)
    return StockPiece(name, length * INCH, Decimal(price), 1, flaws=spans)


def problem(stock: list[StockPiece], parts: list[CutPart]) -> CutProblem:
    """Without a kerf, so that sums are easy to follow."""
    return CutProblem(Unit.INCH, 0, 0, 0, tuple(stock), tuple(parts))


def part(name: str, length: int, count: int = 1, **more: object) -> CutPart:
    return CutPart(name, length * INCH, count, **more)  # type: ignore[arg-type]


class FlawTest(TestCase):
    def test_clear_parts_lie_beside_a_flaw_and_others_on_it(self) -> None:
        flawed = board("found", 100, "0", (40, 50))
        for clear, fits in ((True, 2), (False, 3)):
            plan = plan_cuts(problem([flawed], [part("slat", 33, 3, clear=clear)]), FIVE)
            self.assertEqual(sum(u.quantity for u in plan.unplaced), 3 - fits)

    def test_a_kerf_beside_a_flaw(self) -> None:
        """A flaw that is shorter than the kerf still keeps the parts beside it apart."""
        given = problem([board("found", 80, "0")], [CutPart("slat", ticks("39 15/16"), 2)])
        given = replace(given, kerf=ticks("1/8"))
        self.assertEqual(plan_cuts(given, FIVE).unplaced, ())
        thin = replace(given.stock[0], flaws=((ticks("40"), ticks("40 1/16")),))
        plan = plan_cuts(replace(given, stock=(thin,)), FIVE)
        self.assertEqual(len(plan.unplaced), 1)

    def test_flaws_that_leave_no_sound_wood(self) -> None:
        rotten = board("rotten", 60, "0", (0, 60))
        plan = plan_cuts(problem([rotten], [part("slat", 20)]), FIVE)
        self.assertIn("misses all sound wood", plan.unplaced[0].reason)
        spotted = board("spotted", 60, "0", (18, 20), (38, 40))
        plan = plan_cuts(problem([spotted], [part("slat", 25)]), FIVE)
        self.assertIn("the longest sound wood, 20″, by 5″", plan.unplaced[0].reason)

    def test_owned_boards_with_flaws_save_a_purchase(self) -> None:
        stock = [
            board("found", 96, "0", (30, 36)),
            replace(board("new", 96, "5.00"), available=None),
        ]
        plan = plan_cuts(problem(stock, [part("long", 58), part("short", 28, 2)]), FIVE)
        self.assertEqual((plan.status, plan.price), (Status.OPTIMAL, Decimal("5.00")))
        for layout in plan.layouts:
            if layout.stock == "found":
                self.assertEqual(len(layout.parts), 2)

    def test_against_every_way_of_sharing_parts_out(self) -> None:
        """Brute force: each part goes into one sound stretch or onto a new board."""
        chance = random.Random(11)
        for number in seeds(12, 40):
            stretches: list[int] = []
            stock = []
            for n in range(chance.randint(1, 2)):
                at = chance.randint(10, 30)
                flaw = (at, at + chance.randint(1, 6))
                stock.append(board(f"found{n}", 60, "0", flaw))
                stretches += [at, 60 - flaw[1]]
            stock.append(replace(board("new", 50, "4.00"), available=None))
            lengths = [chance.randint(8, 28) for _ in range(chance.randint(2, 6))]
            given = problem(stock, [part(f"p{n}", size) for n, size in enumerate(lengths)])
            plan = plan_cuts(given, FIVE)
            self.assertEqual(plan.price, 4 * self.fewest_new(lengths, stretches), number)
            self.assertEqual(plan.status, Status.OPTIMAL, number)

    @staticmethod
    def fewest_new(lengths: list[int], stretches: list[int]) -> int:
        new = [50] * len(lengths)
        best = len(lengths)
        for places in itertools.product(range(len(stretches) + len(new)), repeat=len(lengths)):
            room = [*stretches, *new]
            for size, place in zip(lengths, places, strict=True):
                room[place] -= size
            if min(room) >= 0:
                best = min(best, sum(r < 50 for r in room[len(stretches) :]))
        return best

    def test_every_plan_holds_and_flaws_never_lower_the_price(self) -> None:
        chance = random.Random(5)
        for number in seeds(6, 25):
            sound = [
                StockPiece(f"s{n}", chance.randint(60, 120) * INCH, Decimal(n), 3) for n in range(3)
            ]
            flawed = []
            for piece in sound:
                at = chance.randint(5, 50)
                flawed.append(replace(piece, flaws=((at * INCH, (at + 5) * INCH),)))
            parts = [
                part(f"p{n}", chance.randint(10, 50), chance.randint(1, 4), clear=n % 2 == 0)
                for n in range(4)
            ]
            fresh = plan_cuts(replace(problem(sound, parts), kerf=ticks("1/8")), Budget(1.0))
            plan = plan_cuts(replace(problem(flawed, parts), kerf=ticks("1/8")), Budget(1.0))
            lost = sum(u.quantity for u in plan.unplaced) - sum(u.quantity for u in fresh.unplaced)
            self.assertGreaterEqual(lost, 0, number)
            if not lost:
                self.assertGreaterEqual(plan.price, fresh.price, number)


class PinTest(TestCase):
    def test_a_pinned_part_comes_from_its_board(self) -> None:
        stock = [board("old", 96, "3.00"), replace(board("new", 96, "2.00"), available=None)]
        pinned = [part("sign", 40, on=("old",)), part("rail", 50)]
        plan = plan_cuts(problem(stock, pinned), FIVE)
        self.assertEqual((plan.price, plan.status), (Decimal("3.00"), Status.OPTIMAL))
        kept_off = [part("sign", 40, on=("new",)), part("rail", 50, on=("old",))]
        self.assertEqual(plan_cuts(problem(stock, kept_off), FIVE).price, Decimal("5.00"))

    def test_a_pinned_part_never_lowers_the_price(self) -> None:
        chance = random.Random(2)
        for number in seeds(8, 25):
            stock = [
                StockPiece(f"s{n}", chance.randint(60, 120) * INCH, Decimal(5 + n), 9)
                for n in range(3)
            ]
            parts = [part(f"p{n}", chance.randint(10, 50), chance.randint(1, 5)) for n in range(4)]
            free = plan_cuts(problem(stock, parts), FIVE)
            held = [replace(parts[0], on=(chance.choice(stock).id,)), *parts[1:]]
            pinned = plan_cuts(problem(stock, held), FIVE)
            self.assertEqual((free.unplaced, pinned.unplaced), ((), ()), number)
            self.assertGreaterEqual(pinned.price, free.price, number)

    def test_a_board_that_is_gone(self) -> None:
        old = replace(board("old", 96, "0"), available=0)
        given = problem([old, board("new", 96, "2.00")], [part("sign", 40, on=("old",))])
        self.assertIn("nothing is left of old", plan_cuts(given, FIVE).unplaced[0].reason)


class FileTest(TestCase):
    def test_documents_read_back(self) -> None:
        given = problem(
            [board("found", 96, "0", (30, 36))],
            [part("slat", 20, clear=False), part("sign", 30, on=("found",))],
        )
        self.assertEqual(read_problem(json.dumps(problem_document(given))), given)

    def test_bad_flaws_and_pins(self) -> None:
        document = problem_document(problem([board("found", 96, "0")], [part("slat", 20)]))
        document["stock"][0]["flaws"] = [{"from": "30", "to": "20"}, {"from": "90", "to": "100"}]
        document["parts"][0]["on"] = ["lost"]
        with self.assertRaises(CarpentryError) as caught:
            read_problem(json.dumps(document))
        told = {problem.place: problem.message for problem in caught.exception.problems}
        self.assertIn("beyond where the flaw begins", told["stock[0].flaws[0].to"])
        self.assertIn("beyond the end", told["stock[0].flaws[1].to"])
        self.assertIn("“lost” is no stock", told["parts[0].on"])


def ripped_board(
    name: str, width: int, length: int, price: str, *flaws: tuple[int, int]
) -> StockPiece:
    return replace(board(name, length, price, *flaws), thickness=INCH, width=width * INCH)


def strip(name: str, width: int, length: int, count: int = 1, **more: object) -> CutPart:
    return part(name, length, count, thickness=INCH, width=width * INCH, **more)


class RippedFlawTest(TestCase):
    def test_clear_strips_lie_beside_a_flaw_and_others_on_it(self) -> None:
        """A board 2 in wide and 100 in long, its middle flawed: strips of 33 in lie two by two on
        either side, and a third pair over the flaw where they need not be clear."""
        found = ripped_board("found", 2, 100, "0", (40, 50))
        for clear, fits in ((True, 4), (False, 6)):
            plan = plan_cuts(problem([found], [strip("slat", 1, 33, 6, clear=clear)]), FIVE)
            self.assertEqual(sum(u.quantity for u in plan.unplaced), 6 - fits)

    def test_a_strip_comes_from_the_board_it_names(self) -> None:
        stock = [ripped_board("one", 2, 60, "0"), ripped_board("other", 2, 60, "0")]
        parts = [strip("named", 1, 50, 2, on=("other",)), strip("free", 1, 40, 2)]
        plan = plan_cuts(problem(stock, parts), FIVE)
        on = {placed.part: layout.stock for layout in plan.layouts for placed in layout.parts}
        self.assertEqual(on, {"named": "other", "free": "one"})

    def test_random_boards_listed_and_priced(self) -> None:
        """Both ways of planning keep off the flaws and the other boards (the checker looks), and
        neither's plan undercuts the other's bound."""
        chance = random.Random(12)
        for number in seeds(4, 12):
            stock = [
                ripped_board(
                    f"b{n}", chance.choice((2, 3, 5)), 80, str(chance.randint(0, 4)), (30, 36)
                )
                for n in range(3)
            ]
            stock.append(replace(ripped_board("new", 4, 90, "6"), available=None))
            parts = [
                strip(
                    f"p{n}",
                    chance.randint(1, 3),
                    chance.randint(10, 50),
                    chance.randint(1, 3),
                    clear=chance.random() < 0.7,
                    on=chance.choice(((), (), ("b0", "new"))),
                )
                for n in range(4)
            ]
            given = replace(problem(stock, parts), kerf=INCH // 8)
            listed = plan_cuts(given, Budget(3.0))
            with patch("carpentry.cutting.search.every_load.MOST_LOADS", 0):
                priced = plan_cuts(given, Budget(2.0))
            for plan in (listed, priced):
                check_plan(given, plan)
                self.assertEqual(plan.unplaced, (), number)
            self.assertLessEqual(listed.bound, priced.price, number)
            self.assertLessEqual(priced.bound, listed.price, number)


class CheckTest(TestCase):
    def test_what_is_wrong(self) -> None:
        given = problem(
            [board("found", 96, "0", (30, 36)), board("new", 96, "2.00")],
            [part("slat", 20), part("sign", 30, on=("found",))],
        )
        plan = plan_cuts(given, FIVE)
        check_plan(given, plan)
        for name, start, stock, words in (
            ("slat", 20, "found", "slat lies on a flaw"),
            ("sign", 0, "new", "sign may not come from new"),
        ):
            size = 20 if name == "slat" else 30
            placed = PlacedPart(name, start * INCH, (start + size) * INCH)
            spoiled = replace(plan, layouts=(Layout(stock, 1, (placed,), ()),))
            with self.assertRaisesRegex(PlanCheckError, words):
                check_plan(given, spoiled)
