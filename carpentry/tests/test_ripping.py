"""Ripping: rip patterns against brute force, plans against every plan of small problems, and what
must hold for any."""

import itertools
import random
from collections import Counter
from collections.abc import Iterator
from dataclasses import replace
from decimal import Decimal
from unittest import TestCase

from carpentry.cutting import (
    Budget,
    CutPart,
    CutPlan,
    CutProblem,
    Ended,
    Layout,
    Order,
    PlacedPart,
    Status,
    StockPiece,
    check_plan,
    first_plan,
    plan_cuts,
    read_plan,
)
from carpentry.cutting.plan_file import plan_document
from carpentry.cutting.problem import Extra
from carpentry.cutting.ripped.blocks import StripSize
from carpentry.cutting.ripped.model import RippedModel
from carpentry.cutting.ripped.rip_patterns import rip_patterns
from carpentry.cutting.ripped.section import BoardSection
from carpentry.cutting.sawing import with_cuts
from carpentry.language import TICKS_PER_INCH, PlanCheckError, Unit
from carpentry.tests.problems import rip_size, ticks

KERF = ticks("1/8")


def section(thickness: int, width: int) -> BoardSection:
    return BoardSection(thickness, width, 0, width)


FIVE = Budget(5.0)


def stock(name: str, thickness: str, width: str, length: str, price: str) -> StockPiece:
    return StockPiece(name, ticks(length), Decimal(price), None, ticks(thickness), ticks(width))


def part(name: str, thickness: str, width: str, length: str, count: int) -> CutPart:
    return CutPart(name, ticks(length), count, ticks(thickness), ticks(width))


def problem(
    pieces: list[StockPiece], parts: list[CutPart], order: Order = Order.EITHER
) -> CutProblem:
    return CutProblem(Unit.INCH, KERF, 0, 0, tuple(pieces), tuple(parts), order)


def bought(plan: CutPlan) -> Counter[str]:
    counts: Counter[str] = Counter()
    for layout in plan.layouts:
        counts[layout.stock] += layout.count
    return counts


class CrossSectionTest(TestCase):
    def counts(self, thickness: str, width: str, *sizes: tuple[str, str]) -> set[tuple[int, ...]]:
        strips = tuple(StripSize(ticks(t), ticks(w), True) for t, w in sizes)
        most = tuple(99 for _ in sizes)
        found = rip_patterns(section(ticks(thickness), ticks(width)), KERF, strips, most)
        assert found is not None
        return {pattern.counts for pattern in found}

    def test_worked_values(self) -> None:
        """Two 2x2s from a 2x4, five 1 1/2 squares from a 2x10, seven slats standing in a 2x4:
        common practice, no source."""
        self.assertEqual(self.counts("1 1/2", "3 1/2", ("1 1/2", "1 1/2")), {(2,)})
        self.assertEqual(self.counts("1 1/2", "9 1/4", ("1 1/2", "1 1/2")), {(5,)})
        self.assertEqual(self.counts("1 1/2", "3 1/2", ("3/8", "1 1/2")), {(7,)})

    def test_two_narrow_parts_side_by_side(self) -> None:
        wide = self.counts("3/4", "11 1/4", ("3/4", "5 1/2"), ("3/4", "3 1/2"))
        self.assertEqual(wide, {(2, 0), (1, 1), (0, 3)})

    def test_no_turning(self) -> None:
        strips = (StripSize(ticks("3/8"), ticks("1 1/2"), False),)
        found = rip_patterns(section(ticks("1 1/2"), ticks("3 1/2")), KERF, strips, (99,))
        assert found is not None
        self.assertEqual({p.counts for p in found}, {(6,)})

    def test_in_one_row_as_brute_force(self) -> None:
        """Every multiset of widths that fits with the kerf, and only the maximal ones."""
        chance = random.Random(4)
        for _ in range(25):
            widths = sorted(chance.sample(range(16, 60), 3))
            board = chance.randint(60, 150)
            strips = tuple(StripSize(100, w * 100, False) for w in widths)
            found = rip_patterns(section(100, board * 100), 200, strips, (9, 9, 9))
            assert found is not None
            fits = [
                counts
                for counts in itertools.product(range(10), repeat=3)
                if sum(n * (w + 2) for n, w in zip(counts, widths, strict=True)) <= board + 2
            ]
            maximal = {
                counts
                for counts in fits
                if any(counts)
                and not any(
                    other != counts and all(a >= b for a, b in zip(other, counts, strict=True))
                    for other in fits
                )
            }
            self.assertEqual({p.counts for p in found}, maximal)

    def test_strips_lie_inside_with_the_kerf_between(self) -> None:
        strips = tuple(
            StripSize(ticks(t), ticks(w), True)
            for t, w in (("3/4", "1 1/2"), ("1 1/2", "2 1/2"), ("3/8", "1"))
        )
        found = rip_patterns(section(ticks("1 1/2"), ticks("7 1/4")), KERF, strips, (9, 9, 9))
        assert found is not None
        for pattern in found:
            for strip in pattern.strips:
                self.assertLessEqual(strip.y[1], ticks("7 1/4"))
                self.assertLessEqual(strip.z[1], ticks("1 1/2"))
            for one, other in itertools.combinations(pattern.strips, 2):
                apart = any(
                    a[1] + KERF <= b[0] or b[1] + KERF <= a[0]
                    for a, b in ((one.y, other.y), (one.z, other.z))
                )
                self.assertTrue(apart, pattern)

    def test_too_many_to_list(self) -> None:
        sizes = tuple(StripSize(n * 100, n * 150, True) for n in range(4, 13))
        self.assertIsNone(rip_patterns(section(6000, 11000), 100, sizes, tuple(40 for _ in sizes)))


class RippedPlanTest(TestCase):
    def test_ripping_or_buying_the_narrow_size_is_decided_by_price(self) -> None:
        parts = [part("square", "1 1/2", "1 1/2", "30", 12)]
        wide = stock("2x4-96", "1 1/2", "3 1/2", "96", "4.00")
        for price, buys in (("1.50", {"2x2-96": 4}), ("3.00", {"2x4-96": 2})):
            narrow = stock("2x2-96", "1 1/2", "1 1/2", "96", price)
            plan = plan_cuts(problem([wide, narrow], parts), FIVE)
            self.assertEqual((plan.status, bought(plan)), (Status.OPTIMAL, buys))

    def test_the_orders_of_work_differ(self) -> None:
        """One long strip beside two short ones: only ripping first gets all from one board; a wide
        part and then two narrow ones: only crosscutting first."""
        board = [stock("1x8", "3/4", "7 1/4", "40", "5.00")]
        beside = [part("long", "3/4", "3 1/2", "40", 1), part("short", "3/4", "3 1/2", "19", 2)]
        after = [part("wide", "3/4", "7 1/4", "19", 1), part("half", "3/4", "3 1/2", "20", 2)]
        for parts, cheap in ((beside, Order.RIP_FIRST), (after, Order.CROSSCUT_FIRST)):
            prices = {}
            for order in Order:
                plan = plan_cuts(problem(board, parts, order), FIVE)
                check_plan(problem(board, parts, order), plan)
                prices[order] = plan.price
            self.assertEqual(prices[cheap], Decimal("5.00"))
            self.assertEqual(prices[Order.EITHER], Decimal("5.00"))
            dear = next(o for o in Order if o not in (cheap, Order.EITHER))
            self.assertGreater(prices[dear], Decimal("5.00"))

    def test_extra_wood_is_sawn_and_counted(self) -> None:
        pieces = [stock("1x6", "3/4", "5 1/2", "60", "3.00")]
        exact = part("slat", "3/4", "2 5/8", "59", 2)
        self.assertEqual(plan_cuts(problem(pieces, [exact]), FIVE).pieces_of_stock, 1)
        planed = replace(exact, extra=Extra(width=ticks("1/8"), length=ticks("1")))
        plan = plan_cuts(problem(pieces, [planed]), FIVE)
        self.assertEqual(plan.pieces_of_stock, 2)
        placed = plan.layouts[0].parts[0]
        self.assertEqual(placed.end - placed.start, ticks("60"))

    def test_planed_faces_are_those_that_are_sawn(self) -> None:
        """Two 1 5/8 strips and a kerf come out of a 3 1/2 board; a part as wide as the board takes
        nothing more."""
        pieces = [stock("2x4", "1 1/2", "3 1/2", "60", "3.00")]
        strip = replace(
            part("strip", "1 1/2", "1 1/2", "59", 2),
            extra=Extra(width=ticks("1/8"), thickness=ticks("1/8")),
        )
        plan = plan_cuts(problem(pieces, [strip]), FIVE)
        self.assertEqual(plan.pieces_of_stock, 1)
        (layout,) = plan.layouts
        sizes = [one.y[1] - one.y[0] for one in layout.parts if one.y]
        self.assertEqual(sizes, [ticks("1 5/8")] * 2)
        whole = replace(part("rail", "1 1/2", "3 1/2", "59", 1), extra=Extra(width=ticks("1/8")))
        plan = plan_cuts(problem(pieces, [strip, whole]), FIVE)
        self.assertEqual((plan.pieces_of_stock, plan.unplaced), (2, ()))

    def test_rounded_edges_are_ripped_off_first(self) -> None:
        """Of 3 1/2, 1/8 off either edge leaves 3 1/4: two 1 9/16 strips and a kerf, to the tick."""
        pieces = [stock("2x4", "1 1/2", "3 1/2", "60", "3.00")]
        for width, boards in (("1 9/16", 1), ("1 37/64", 2)):
            given = problem(pieces, [part("strip", "1 1/2", width, "59", 2)])
            self.assertEqual(plan_cuts(given, FIVE).pieces_of_stock, 1)
            eased = replace(given, eased=ticks("1/8"))
            plan = plan_cuts(eased, FIVE)
            self.assertEqual(plan.pieces_of_stock, boards, width)
            with self.assertRaisesRegex(PlanCheckError, "beyond the straight wood"):
                check_plan(eased, plan_cuts(given, FIVE))
        whole = problem(
            pieces, [part("rail", "1 1/2", "3 1/2", "59", 1), part("slat", "1 1/2", "1", "20", 1)]
        )
        plan = plan_cuts(replace(whole, eased=ticks("1/8")), FIVE)
        self.assertEqual((plan.unplaced, plan.pieces_of_stock), ((), 2))

    def test_eased_plans_hold_and_never_cost_less(self) -> None:
        for seed in range(4):
            given = rip_size(seed, kinds=(3, 5), parts=(6, 14))
            eased = replace(given, eased=ticks("1/8"))
            plan, fresh = plan_cuts(eased, Budget(3.0)), plan_cuts(given, Budget(3.0))
            check_plan(eased, plan)
            if not plan.unplaced:
                self.assertGreaterEqual(plan.price, fresh.bound, seed)

    def test_a_part_wider_or_thicker_than_every_stock(self) -> None:
        pieces = [stock("1x6", "3/4", "5 1/2", "60", "3.00")]
        for thickness, width, said in (
            ("3/4", "6", "1/2″ wider"),
            ("1", "5", "1/4″ thicker"),
        ):
            parts = [part("panel", thickness, width, "20", 1), part("slat", "3/4", "2", "20", 1)]
            plan = plan_cuts(problem(pieces, parts), FIVE)
            self.assertEqual(plan.status, Status.INCOMPLETE)
            self.assertEqual([u.part for u in plan.unplaced], ["panel"])
            self.assertIn(said, plan.unplaced[0].reason)

    def test_limited_stock_gives_parts_up(self) -> None:
        piece = replace(stock("1x6", "3/4", "5 1/2", "60", "3.00"), available=1)
        plan = plan_cuts(problem([piece], [part("slat", "3/4", "2 1/2", "58", 3)]), FIVE)
        self.assertEqual(plan.unplaced[0].quantity, 1)
        self.assertIn("used up", plan.unplaced[0].reason)

    def test_free_boards(self) -> None:
        piece = stock("owned", "3/4", "5 1/2", "60", "0")
        plan = plan_cuts(problem([piece], [part("slat", "3/4", "2 1/2", "58", 3)]), FIVE)
        self.assertEqual((plan.price, plan.pieces_of_stock), (Decimal("0"), 2))

    def test_a_plan_reads_back(self) -> None:
        plan = plan_cuts(rip_size(2), FIVE)
        self.assertEqual(read_plan(plan_document(plan, Unit.INCH), Unit.INCH), plan)


def _splits(items: tuple[int, ...]) -> Iterator[list[list[int]]]:
    """Every way of putting items into unordered groups."""
    if not items:
        yield []
        return
    first, *rest = items
    for groups in _splits(tuple(rest)):
        yield [[first], *groups]
        for n in range(len(groups)):
            yield [*groups[:n], [first, *groups[n]], *groups[n + 1 :]]


class AgainstBruteForceTest(TestCase):
    """Boards of one thickness, rip first: every way of strips, every way of boards."""

    def cheapest(self, board: CutProblem) -> Decimal:
        parts = [p for p in board.parts for _ in range(p.quantity)]
        best = Decimal(10**6)
        for strips in _splits(tuple(range(len(parts)))):
            if any(len({parts[i].width for i in strip}) > 1 for strip in strips):
                continue
            sizes = [
                (
                    parts[strip[0]].width or 0,
                    sum(parts[i].length + KERF for i in strip) - KERF,
                )
                for strip in strips
            ]
            for boards in _splits(tuple(range(len(strips)))):
                best = min(best, self._price(board, [[sizes[i] for i in one] for one in boards]))
        return best

    @staticmethod
    def _price(board: CutProblem, boards: list[list[tuple[int, int]]]) -> Decimal:
        total = Decimal(0)
        for strips in boards:
            wide = sum(w + KERF for w, _ in strips) - KERF
            long = max(length for _, length in strips)
            fitting = [s.price for s in board.stock if (s.width or 0) >= wide and s.length >= long]
            if not fitting:
                return Decimal(10**6)
            total += min(fitting)
        return total

    def test_small_problems(self) -> None:
        chance = random.Random(11)
        for number in range(12):
            widths = chance.sample(["1", "1 1/2", "2 1/2", "3 1/2"], 2)
            parts = [
                part(f"p{n}", "3/4", chance.choice(widths), str(chance.randint(10, 40)), 1)
                for n in range(5)
            ]
            pieces = [
                stock("a", "3/4", "3 1/2", "48", str(chance.randint(200, 300) / 100)),
                stock("b", "3/4", "5 1/2", "60", str(chance.randint(350, 550) / 100)),
            ]
            board = problem(pieces, parts, Order.RIP_FIRST)
            plan = plan_cuts(board, FIVE)
            best = self.cheapest(board)
            self.assertLessEqual(plan.bound, best, number)
            self.assertGreaterEqual(plan.price, best, number)
            if plan.status is Status.OPTIMAL:
                self.assertEqual(plan.price, best, number)
            either = plan_cuts(replace(board, order=Order.EITHER), FIVE)
            self.assertLessEqual(either.price, plan.price, number)


class PropertiesTest(TestCase):
    def test_every_plan_holds_and_its_bound_is_below_every_plan(self) -> None:
        """A bound that any plan of any order undercuts would be a false proof."""
        for seed in range(6):
            given = rip_size(seed, kinds=(3, 6), parts=(6, 16))
            plans = [plan_cuts(replace(given, order=order), Budget(2.0)) for order in Order]
            either = next(p for p, order in zip(plans, Order, strict=True) if order is Order.EITHER)
            for order, plan in zip(Order, plans, strict=True):
                check_plan(replace(given, order=order), plan)
                self.assertLessEqual(either.bound, plan.price, (seed, order))

    def test_never_dearer_than_each_size_ripped_alone(self) -> None:
        for seed in range(4):
            given = rip_size(seed, kinds=(4, 8), parts=(10, 25))
            alone = Decimal(0)
            for width in {p.width for p in given.parts}:
                some = tuple(p for p in given.parts if p.width == width)
                alone += plan_cuts(replace(given, parts=some), Budget(2.0)).price
            self.assertLessEqual(plan_cuts(given, FIVE).price, alone, seed)

    def test_the_first_plan_is_a_plan(self) -> None:
        for seed in range(5):
            given = rip_size(seed)
            quick = first_plan(given)
            self.assertEqual(quick.unplaced, ())
            self.assertGreaterEqual(quick.price, plan_cuts(given, Budget(1.0)).price)

    def test_doubled_prices_double_the_cost(self) -> None:
        given = problem(
            [
                stock("2x4", "1 1/2", "3 1/2", "96", "4.10"),
                stock("2x6", "1 1/2", "5 1/2", "96", "6"),
            ],
            [part("a", "1 1/2", "1 1/2", "30", 7), part("b", "1 1/2", "2 1/2", "41", 3)],
        )
        once = plan_cuts(given, FIVE)
        double = replace(given, stock=tuple(replace(s, price=s.price * 2) for s in given.stock))
        self.assertEqual(once.status, Status.OPTIMAL)
        self.assertEqual(plan_cuts(double, FIVE).price, once.price * 2)
        finer = replace(given, kerf=ticks("1/16"))
        self.assertLessEqual(plan_cuts(finer, FIVE).price, once.price)

    def test_a_worth_is_never_below_what_a_board_holds(self) -> None:
        """The inequality behind every bound, tried with boards that plans really use."""
        chance = random.Random(5)
        for seed in range(6):
            given = rip_size(seed, kinds=(4, 9), parts=(10, 30))
            model = RippedModel(given)
            packing = model.quick(model.demand, [0] * len(model.sources))
            for _ in range(4):
                values = [chance.randint(0, 40) for _ in model.items]
                for board in packing.boards:
                    kind = [model.sources[board.source].kind]
                    held = sum(v * n for v, n in zip(values, board.pattern, strict=True))
                    for care in range(model.most_care + 1):
                        worth = model.best_for(kind, values, model.demand, care)[0][0]
                        self.assertGreaterEqual(worth, held)


class CheckTest(TestCase):
    def setUp(self) -> None:
        self.problem = problem(
            [stock("1x6", "3/4", "5 1/2", "60", "3.00")], [part("slat", "3/4", "2 1/2", "28", 4)]
        )
        self.plan = plan_cuts(self.problem, FIVE)

    def refused(self, words: str, **change: object) -> None:
        layout = self.plan.layouts[0]
        spoiled = replace(layout.parts[0], **change)  # type: ignore[arg-type]
        parts = (spoiled, *layout.parts[1:])
        plan = replace(self.plan, layouts=(replace(layout, parts=parts),))
        with self.assertRaisesRegex(PlanCheckError, words):
            check_plan(self.problem, plan)

    def test_what_is_wrong(self) -> None:
        check_plan(self.problem, self.plan)
        self.refused("not ripped to its section", y=(0, ticks("2")))
        self.refused("beyond the straight wood", y=(ticks("4"), ticks("6 1/2")))
        self.refused("its size or place", y=(ticks("1"), ticks("3 1/2")))

    def test_a_pinwheel_cannot_be_sawn(self) -> None:
        """Four parts around a hole: each is free of the others, but no straight cut begins."""
        inch = TICKS_PER_INCH
        board = problem(
            [stock("panel", "3/4", "9", "9", "1.00")],
            [part("tall", "3/4", "6", "2", 2), part("flat", "3/4", "2", "6", 2)],
        )
        z = (0, ticks("3/4"))
        wheel = (
            PlacedPart("tall", 0, 2 * inch, (0, 6 * inch), z),
            PlacedPart("flat", 0, 6 * inch, (ticks("6 1/8"), ticks("8 1/8")), z),
            PlacedPart("tall", ticks("6 1/8"), ticks("8 1/8"), (ticks("2 1/8"), ticks("8 1/8")), z),
            PlacedPart("flat", ticks("2 1/8"), ticks("8 1/8"), (0, 2 * inch), z),
        )
        good = plan_cuts(board, FIVE)
        layout = with_cuts(board, Layout(good.layouts[0].stock, 1, wheel))
        plan = replace(good, layouts=(layout,), price=Decimal("1.00"), bound=Decimal("1.00"))
        with self.assertRaisesRegex(PlanCheckError, "its size or place"):
            check_plan(board, plan)


class LimitsTest(TestCase):
    def test_thousands_of_one_part(self) -> None:
        """Eight squares to a board of 96 in, two by two: 10,000 take 1,250 boards."""
        given = problem(
            [stock("2x4", "1 1/2", "3 1/2", "96", "4.10")],
            [part("square", "1 1/2", "1 1/2", "23 1/2", 10_000)],
        )
        plan = plan_cuts(given, FIVE)
        self.assertEqual((plan.status, plan.pieces_of_stock), (Status.OPTIMAL, 1_250))

    def test_the_clock_only_stops_early(self) -> None:
        given = rip_size(8, kinds=(30, 30), parts=(140, 150))
        plan = plan_cuts(given, Budget(0.5))
        self.assertEqual(plan.unplaced, ())
        self.assertEqual((plan.status, plan.ended), ("feasible", Ended.CLOCK))

    def test_the_same_plan_every_time(self) -> None:
        given = rip_size(11, kinds=(3, 5), parts=(8, 12))
        first, again = (plan_cuts(given, Budget(120.0)) for _ in range(2))
        self.assertEqual(first, again)
