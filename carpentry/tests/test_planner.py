import itertools
import random
from dataclasses import replace
from decimal import Decimal
from unittest import TestCase

import pulp
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from carpentry.cutting import (
    Budget,
    CutPart,
    CutPlan,
    CutProblem,
    Ended,
    Status,
    StockPiece,
    check_plan,
    first_plan,
    near_misses,
    plan_cuts,
)
from carpentry.language import TICKS_PER_MM, Unit
from carpentry.tests import often, seeds
from carpentry.tests.problems import home_size, problem, ticks


def assignment_optimum(given_problem: CutProblem) -> tuple[Decimal, int]:
    """Least price and, at that price, least pieces by another solver (CBC) on another model: each
    single part is assigned to one of many single boards."""
    singles = [p.length for p in given_problem.parts for _ in range(p.quantity)]
    boards = [
        piece
        for piece in given_problem.stock
        for _ in range(len(singles) if piece.available is None else piece.available)
    ]
    many = len(singles) + 1
    model = pulp.LpProblem("assignment", pulp.LpMinimize)
    used = [pulp.LpVariable(f"u{b}", cat="Binary") for b in range(len(boards))]
    on = pulp.LpVariable.dicts("x", (range(len(singles)), range(len(boards))), cat="Binary")
    cents = [int(board.price * 100) for board in boards]
    model += pulp.lpSum(u * (c * many + 1) for u, c in zip(used, cents, strict=True))
    for s in range(len(singles)):
        model += pulp.lpSum(on[s][b] for b in range(len(boards))) == 1
    for b, board in enumerate(boards):
        room = (given_problem.sound_length(board) + given_problem.kerf) / 127
        sizes = [(length + given_problem.kerf) / 127 for length in singles]
        total = pulp.lpSum(on[s][b] * sizes[s] for s in range(len(singles)))
        model += total <= room * used[b]
    for first, second in itertools.pairwise(range(len(boards))):
        if boards[first] is boards[second]:
            model += used[first] >= used[second]
    status = model.solve(pulp.PULP_CBC_CMD(msg=False, gapRel=0, gapAbs=0.5))
    assert status == pulp.LpStatusOptimal
    price, pieces = divmod(round(pulp.value(model.objective)), many)
    return Decimal(price).scaleb(-2), pieces


def arc_flow_optimum(sizes: list[int], capacity: int) -> int:
    """Least bins by another solver (CBC) on another model: arcs of a flow from 0 to the capacity,
    one for each size at each place (Valério de Carvalho 1999)."""
    model = pulp.LpProblem("flow", pulp.LpMinimize)
    used = pulp.LpVariable("bins", 0, len(sizes), cat="Integer")
    model += used
    into: dict[int, list[pulp.LpVariable]] = {at: [] for at in range(capacity + 1)}
    out: dict[int, list[pulp.LpVariable]] = {at: [] for at in range(capacity + 1)}
    arcs: dict[int, list[pulp.LpVariable]] = {size: [] for size in sizes}
    for size in (*arcs, 0):
        wide = size or 1  # an arc of one unit is waste
        for at in range(capacity + 1 - wide):
            arc = pulp.LpVariable(f"a{size}at{at}", 0, cat="Integer")
            out[at].append(arc)
            into[at + wide].append(arc)
            if size:
                arcs[size].append(arc)
    for at in range(capacity + 1):
        more = used if at == 0 else -used if at == capacity else 0
        model += pulp.lpSum(into[at]) + more == pulp.lpSum(out[at])
    for size, of_size in arcs.items():
        model += pulp.lpSum(of_size) >= sizes.count(size)
    status = model.solve(pulp.PULP_CBC_CMD(msg=False, gapRel=0, gapAbs=0.5))
    assert status == pulp.LpStatusOptimal
    least: int = round(pulp.value(used))
    return least


def brute_force(given_problem: CutProblem) -> Decimal:
    """Least price by trying every way of putting single parts onto boards, one after the other."""
    singles = sorted(
        (p.length + given_problem.kerf for p in given_problem.parts for _ in range(p.quantity)),
        reverse=True,
    )
    best: Decimal | None = None

    def place(at: int, rooms: list[tuple[int, int]], counts: list[int], price: Decimal) -> None:
        nonlocal best
        if best is not None and price >= best:
            return
        if at == len(singles):
            best = price
            return
        for index in range(len(rooms)):
            room, kind = rooms[index]
            if room >= singles[at] and rooms[index] not in rooms[:index]:
                rooms[index] = (room - singles[at], kind)
                place(at + 1, rooms, counts, price)
                rooms[index] = (room, kind)
        for kind, piece in enumerate(given_problem.stock):
            room = given_problem.sound_length(piece) + given_problem.kerf
            left = piece.available is None or counts[kind] < piece.available
            if room >= singles[at] and left:
                counts[kind] += 1
                place(at + 1, [*rooms, (room - singles[at], kind)], counts, price + piece.price)
                counts[kind] -= 1

    place(0, [], [0] * len(given_problem.stock), Decimal(0))
    assert best is not None
    return best


def bins(sizes: list[int], capacity: int) -> CutPlan:
    """A bin-packing instance as a cut problem without kerf, at price 1 a bin."""
    counts = {size: sizes.count(size) for size in sizes}
    return plan_cuts(
        CutProblem(
            Unit.MM,
            0,
            0,
            0,
            (StockPiece("bin", capacity * TICKS_PER_MM, Decimal(1)),),
            tuple(CutPart(str(s), s * TICKS_PER_MM, n) for s, n in counts.items()),
        )
    )


class TradeValuesTest(TestCase):
    """Worked values of the trade. Common practice, no source."""

    def test_two_48s_do_not_come_out_of_a_96(self) -> None:
        plan = plan_cuts(problem([("96", "5.00", None)], [("48", 2)]))
        self.assertEqual(plan.pieces_of_stock, 2)

    def test_two_halves_are_each_half_the_length_less_half_a_kerf(self) -> None:
        plan = plan_cuts(problem([("96", "5.00", None)], [("47 15/16", 2)]))
        self.assertEqual(plan.pieces_of_stock, 1)
        self.assertEqual(plan.layouts[0].leftover, ())
        plan = plan_cuts(problem([("96", "5.00", None)], [("47 61/64", 2)]))
        self.assertEqual(plan.pieces_of_stock, 2)

    def test_what_the_saw_takes_is_said(self) -> None:
        given_problem = problem(
            [("96", "5.00", None), ("120", "7.00", None)], [("48", 2), ("40", 3)]
        )
        self.assertEqual(
            [(m.part, m.count, m.stock, m.missing) for m in near_misses(given_problem)],
            [("p0", 2, "s0", ticks("1/8")), ("p1", 3, "s1", ticks("1/4"))],
        )
        self.assertEqual(list(near_misses(problem([("96", "5", None)], [("48", 1)]))), [])

    def test_the_last_part_needs_no_cut_at_the_end_of_sound_wood(self) -> None:
        three = [("31 1/4", 3)]
        fits = problem([("94 1/2", "5.00", None)], three, start="1/2", end="0")
        self.assertEqual(plan_cuts(fits).pieces_of_stock, 1)
        trimmed = replace(fits, trim_end=ticks("1/64"))
        self.assertEqual(plan_cuts(trimmed).pieces_of_stock, 2)

    def test_positions_are_as_the_format_shows_them(self) -> None:
        plan = plan_cuts(problem([("96", "7.15", None)], [("31 1/4", 4)], start="1/2"))
        full = plan.layouts[0]
        self.assertEqual(
            [(p.start, p.end) for p in full.parts],
            [
                (ticks(a), ticks(b))
                for a, b in (("1/2", "31 3/4"), ("31 7/8", "63 1/8"), ("63 1/4", "94 1/2"))
            ],
        )
        self.assertEqual(full.leftover[0].start, ticks("94 5/8"))
        self.assertEqual((plan.status, plan.price), (Status.OPTIMAL, Decimal("14.30")))

    def test_dearer_long_boards_are_left_where_short_ones_do(self) -> None:
        plan = plan_cuts(problem([("96", "5.00", None), ("192", "11.00", None)], [("90", 2)]))
        self.assertEqual(plan.price, Decimal("10.00"))

    def test_of_equal_prices_the_fewest_pieces(self) -> None:
        plan = plan_cuts(problem([("96", "5.00", None), ("192", "10.00", None)], [("90", 2)]))
        self.assertEqual(plan.pieces_of_stock, 1)

    def test_owned_boards_at_price_zero(self) -> None:
        stock: list[tuple[str, str, int | None]] = [("96", "0", 2), ("96", "5.00", None)]
        plan = plan_cuts(problem(stock, [("50", 3)]))
        self.assertEqual((plan.status, plan.price), (Status.OPTIMAL, Decimal("5.00")))
        free = plan_cuts(problem([("96", "0", None), ("120", "0", None)], [("50", 5)]))
        self.assertEqual((free.status, free.price, free.pieces_of_stock), (Status.OPTIMAL, 0, 3))

    def test_the_longest_single_leftover(self) -> None:
        plan = plan_cuts(problem([("96", "5.00", 2)], [("40", 2), ("20", 2)], kerf="0"))
        longest = max(rest.length for la in plan.layouts for rest in la.leftover)
        self.assertEqual(longest, ticks("56"))


class UnplacedTest(TestCase):
    def test_a_part_longer_than_every_piece_says_by_how_much(self) -> None:
        plan = plan_cuts(problem([("96", "5.00", None)], [("100", 2), ("40", 1)], start="1/2"))
        self.assertEqual(plan.status, Status.INCOMPLETE)
        self.assertEqual([(u.part, u.quantity) for u in plan.unplaced], [("p0", 2)])
        self.assertIn("by 4 1/2″", plan.unplaced[0].reason)
        self.assertEqual(plan.pieces_of_stock, 1)

    def test_most_parts_are_placed_when_stock_runs_out(self) -> None:
        plan = plan_cuts(problem([("96", "5.00", 2)], [("60", 2), ("30", 4)]))
        self.assertEqual(sum(u.quantity for u in plan.unplaced), 1)
        self.assertIn("used up", plan.unplaced[0].reason)

    def test_most_parts_come_before_price(self) -> None:
        stock: list[tuple[str, str, int | None]] = [("96", "1.00", 1), ("120", "90.00", 1)]
        plan = plan_cuts(problem(stock, [("50", 3)]))
        self.assertEqual(plan.price, Decimal("91.00"))
        self.assertEqual(plan.unplaced, ())

    def test_nothing_to_cut_from(self) -> None:
        for given_problem, words in (
            (problem([], [("10", 1)]), "no stock"),
            (problem([("96", "5", 0)], [("10", 1)]), "no stock"),
            (problem([("20", "5", None)], [("10", 1)], start="12", end="9"), "trims take all"),
        ):
            plan = plan_cuts(given_problem)
            self.assertIn(words, plan.unplaced[0].reason)
            self.assertEqual(plan.pieces_of_stock, 0)


class AgainstOthersTest(TestCase):
    def test_against_another_solver_on_another_model(self) -> None:
        for seed in seeds(5, 12):
            given_problem = home_size(seed, kinds=(2, 5), parts=(4, 9))
            plan = plan_cuts(given_problem)
            self.assertEqual(plan.status, Status.OPTIMAL, seed)
            self.assertEqual(
                (plan.price, plan.pieces_of_stock), assignment_optimum(given_problem), seed
            )

    def test_against_brute_force(self) -> None:
        for seed in seeds(12, 40):
            given_problem = home_size(1000 + seed, kinds=(2, 4), parts=(3, 7))
            self.assertEqual(plan_cuts(given_problem).price, brute_force(given_problem), seed)

    def test_triplets_fill_their_bins_exactly(self) -> None:
        """Generated in the way of Falkenauer's triplets (1996): n items made as exact triples of
        the bin, so the optimum is n ÷ 3."""
        for seed in range(3):
            chance = random.Random(seed)
            sizes: list[int] = []
            while len(sizes) < 60:
                large, middle = chance.randint(380, 490), chance.randint(250, 370)
                if 250 <= 1000 - large - middle < middle:
                    sizes += [large, middle, 1000 - large - middle]
            plan = bins(sizes, 1000)
            self.assertEqual((plan.status, plan.pieces_of_stock), (Status.OPTIMAL, 20), seed)

    def test_uniform_bins_are_as_few_as_another_model_finds(self) -> None:
        """Generated in the way of Falkenauer's class u120 (1996): sizes 20 to 100 in bins of
        150."""
        for seed in seeds(1, 3, first=7):
            chance = random.Random(seed)
            sizes = [chance.randint(20, 100) for _ in range(120)]
            plan = bins(sizes, 150)
            least = arc_flow_optimum(sizes, 150)
            self.assertEqual((plan.status, plan.pieces_of_stock), (Status.OPTIMAL, least), seed)


SEEDS = st.integers(0, 10_000)


class PropertiesTest(TestCase):
    @settings(max_examples=often(8, 25), deadline=None)
    @given(SEEDS)
    def test_every_plan_holds_and_no_pencil_plan_is_cheaper(self, seed: int) -> None:
        given_problem = home_size(seed, parts=(4, 40))
        plan = plan_cuts(given_problem)
        check_plan(given_problem, plan)
        pencil = first_plan(given_problem)
        check_plan(given_problem, pencil)
        if not plan.unplaced and not pencil.unplaced:
            self.assertLessEqual(plan.price, pencil.price)
        self.assertLessEqual(
            sum(u.quantity for u in plan.unplaced), sum(u.quantity for u in pencil.unplaced)
        )

    @settings(max_examples=often(4, 10), deadline=None)
    @given(SEEDS)
    def test_the_same_problem_gives_the_same_plan(self, seed: int) -> None:
        """Unless the clock ended one of them, which it then says."""
        given_problem = home_size(seed, parts=(4, 40))
        first, again = (plan_cuts(given_problem, Budget(30)) for _ in range(2))
        assume(Ended.CLOCK not in (first.ended, again.ended))
        self.assertEqual(first, again)

    @settings(max_examples=often(4, 10), deadline=None)
    @given(SEEDS)
    def test_more_stock_never_costs_more(self, seed: int) -> None:
        given_problem = home_size(seed, kinds=(3, 8), parts=(4, 25))
        plan = plan_cuts(given_problem)
        plenty = tuple(replace(piece, available=None) for piece in given_problem.stock)
        more = plan_cuts(replace(given_problem, stock=plenty))
        if not plan.unplaced:
            self.assertLessEqual(more.price, plan.price)

    @settings(max_examples=often(4, 10), deadline=None)
    @given(SEEDS)
    def test_a_smaller_kerf_never_costs_more(self, seed: int) -> None:
        given_problem = home_size(seed, kinds=(3, 8), parts=(4, 25))
        plan = plan_cuts(given_problem)
        thin = plan_cuts(replace(given_problem, kerf=given_problem.kerf // 2))
        if not plan.unplaced:
            self.assertLessEqual(thin.price, plan.price)

    @settings(max_examples=often(4, 10), deadline=None)
    @given(SEEDS)
    def test_doubling_prices_doubles_the_cost(self, seed: int) -> None:
        given_problem = home_size(seed, kinds=(3, 8), parts=(4, 25))
        stock = tuple(replace(piece, price=piece.price * 2) for piece in given_problem.stock)
        doubled = plan_cuts(replace(given_problem, stock=stock))
        self.assertEqual(doubled.price, plan_cuts(given_problem).price * 2)

    def test_lengths_that_share_no_divisor(self) -> None:
        chance = random.Random(3)
        parts = tuple(
            CutPart(f"p{n}", chance.randint(90_000, 700_000), chance.randint(1, 4))
            for n in range(12)
        )
        odd = replace(home_size(1), parts=parts)
        self.assertEqual(plan_cuts(odd).status, Status.OPTIMAL)

    def test_no_time_still_gives_a_plan_with_a_true_bound(self) -> None:
        """The bound of any time is no more than the optimum of another model."""
        for seed in seeds(3, 6):
            given_problem = home_size(seed, kinds=(2, 5), parts=(4, 9))
            least, _ = assignment_optimum(given_problem)
            for seconds in (0.0, 0.01, 0.1):  # never no bound at all
                hurried = plan_cuts(given_problem, Budget(seconds))
                check_plan(given_problem, hurried)
                self.assertGreater(hurried.bound, 0, seed)
                self.assertLessEqual(hurried.bound, least, seed)
                self.assertLessEqual(least, hurried.price, seed)

    def test_a_plan_says_what_ended_it(self) -> None:
        given_problem = home_size(3)
        self.assertEqual(plan_cuts(given_problem, Budget(60)).ended, Ended.PROOF)
        self.assertEqual(plan_cuts(given_problem, Budget(0.0)).ended, Ended.CLOCK)

    def test_progress_gets_better_and_ends_with_the_plan(self) -> None:
        told: list[CutPlan] = []
        plan = plan_cuts(home_size(6), progress=told.append)
        prices = [one.price for one in told]
        self.assertEqual(prices, sorted(prices, reverse=True))
        self.assertEqual(told[-1].price, plan.price)


class OwnedFirstTest(TestCase):
    def test_owned_boards_are_used_where_they_save_nothing(self) -> None:
        """A 120 in board holds it all; the owned one is used only when it comes first."""
        given = problem([("40", "0", 1), ("120", "5.00", None)], [("80", 1), ("30", 1)])
        freely = plan_cuts(given)
        self.assertEqual((freely.pieces_of_stock, freely.price), (1, Decimal("5.00")))
        first = plan_cuts(replace(given, owned_first=True))
        self.assertEqual([la.stock for la in first.layouts], ["s0", "s1"])
        self.assertEqual((first.price, first.bound), (Decimal("5.00"), Decimal("5.00")))

    def test_what_owned_first_costs_is_told(self) -> None:
        """The owned board takes both short parts, and a dearer one is bought for the long part."""
        given = problem(
            [("50", "0", 1), ("60", "4.00", 1), ("45", "3.00", 1)], [("45", 1), ("24", 2)]
        )
        freely = plan_cuts(given)
        first = plan_cuts(replace(given, owned_first=True))
        check_plan(given, first)
        self.assertEqual(first.bound, freely.price)
        self.assertGreaterEqual(first.price, freely.price)
        self.assertEqual(len(first.layouts[0].parts), 2)

    def test_every_plan_places_what_can_be_placed(self) -> None:
        for seed in seeds(3, 8):
            given = home_size(seed, kinds=(3, 8), parts=(8, 30))
            owned = replace(given.stock[0], id="own", price=Decimal("0.00"), available=2)
            mixed = replace(given, stock=(owned, *given.stock), owned_first=True)
            plan = plan_cuts(mixed, Budget(5.0))
            check_plan(mixed, plan)
            freely = plan_cuts(replace(mixed, owned_first=False), Budget(5.0))
            self.assertEqual(plan.unplaced, freely.unplaced, seed)
            self.assertGreaterEqual(plan.price, freely.price, seed)
