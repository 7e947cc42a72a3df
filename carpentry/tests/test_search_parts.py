"""The pieces of the search on their own: whole-number lines, knapsacks, programs, packings."""

import itertools
import random
from collections.abc import Sequence
from dataclasses import replace
from decimal import Decimal
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from carpentry.cutting.line.model import LineModel, to_line
from carpentry.cutting.problem import CutPart, Shape
from carpentry.cutting.search.cheapest import search
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.covering import Relaxation, dive
from carpentry.cutting.search.first_fit import best_first_fit, first_fit, orders
from carpentry.cutting.search.holding import Bin, Holder, pack_whole
from carpentry.cutting.search.model import Packing
from carpentry.cutting.search.patterns import Knapsack, maximal_patterns
from carpentry.cutting.search.programs import INFINITY, Outcome, Program
from carpentry.cutting.search.sources import Money, Source
from carpentry.design.ends import SQUARE_ENDS
from carpentry.tests import often
from carpentry.tests.problems import home_size, problem, ticks

LATER = 60.0

SIZES = st.lists(st.integers(2, 40), min_size=1, max_size=5, unique=True)


def every_pattern(
    sizes: Sequence[int], demand: Sequence[int], capacity: int
) -> list[tuple[int, ...]]:
    ranges = [range(min(d, capacity // s) + 1) for s, d in zip(sizes, demand, strict=True)]
    return [
        counts
        for counts in itertools.product(*ranges)
        if sum(n * s for n, s in zip(counts, sizes, strict=True)) <= capacity
    ]


def line_of(
    sizes: Sequence[int], demand: Sequence[int], sources: Sequence[tuple[int, int, int]]
) -> LineModel:
    """A line from sizes, demand and (capacity, cost, limit)."""
    return LineModel(
        tuple(sizes),
        tuple(demand),
        tuple(Shape(size, SQUARE_ENDS, True, ()) for size in sizes),
        tuple(Source(f"s{n}", *source) for n, source in enumerate(sources)),
        Money(Decimal(1)),
        tuple(False for _ in sizes),
    )


class LineTest(TestCase):
    def test_equal_lengths_become_one_item_longest_first(self) -> None:
        line = to_line(problem([("96", "5", None)], [("20", 2), ("30", 1), ("20", 3)]))
        self.assertEqual(line.demand, (1, 5))
        self.assertEqual([shape.length for shape in line.shapes], [ticks("30"), ticks("20")])

    def test_parts_fit_exactly_when_sizes_add_up(self) -> None:
        given_problem = problem([("94 1/2", "5", None)], [("31 1/4", 3)], start="1/2")
        line = to_line(given_problem)
        self.assertEqual(line.sizes[0] * 3, line.sources[0].kind)

    def test_what_cannot_be_used_is_left_out(self) -> None:
        stock: list[tuple[str, str, int | None]] = [
            ("96", "5", None),
            ("10", "1", None),
            ("120", "6", 0),
        ]
        line = to_line(problem(stock, [("100", 1), ("50", 2)]))
        self.assertEqual([s.stock for s in line.sources], ["s0"])
        self.assertEqual([shape.length for shape in line.shapes], [ticks("50")])

    def test_prices_become_whole_costs_and_come_back(self) -> None:
        line = to_line(problem([("96", "5.1", None), ("120", "6.25", None)], [("50", 2)]))
        self.assertEqual([s.cost for s in line.sources], [510, 625])
        self.assertEqual(line.money.price(1135), Decimal("11.35"))

    def test_a_limit_is_never_above_the_number_of_parts(self) -> None:
        line = to_line(problem([("96", "5", 500), ("120", "5", None)], [("50", 3)]))
        self.assertEqual([s.limit for s in line.sources], [3, 3])


class KnapsackTest(TestCase):
    @settings(max_examples=often(25, 60), deadline=None)
    @given(SIZES, st.integers(0, 1000), st.integers(20, 90))
    def test_against_every_pattern(self, sizes: list[int], seed: int, capacity: int) -> None:
        chance = random.Random(seed)
        sizes = sorted(sizes, reverse=True)
        demand = [chance.randint(1, 3) for _ in sizes]
        values = [chance.randint(0, 30) for _ in sizes]
        smaller = capacity // 2
        knapsack = Knapsack(sizes, demand, [capacity, smaller])
        for room, (worth, pattern) in zip(
            (capacity, smaller), knapsack.best_for([capacity, smaller], values, demand), strict=True
        ):
            best = max(
                sum(n * v for n, v in zip(counts, values, strict=True))
                for counts in every_pattern(sizes, demand, room)
            )
            self.assertEqual(worth, best)
            self.assertEqual(sum(n * v for n, v in zip(pattern, values, strict=True)), worth)
            self.assertLessEqual(sum(n * s for n, s in zip(pattern, sizes, strict=True)), room)
            self.assertTrue(all(n <= d for n, d in zip(pattern, demand, strict=True)))

    def test_less_demand_may_be_asked_for_later(self) -> None:
        knapsack = Knapsack([5, 3], [4, 4], [20])
        self.assertEqual(knapsack.best_for([20], [5, 3], [4, 4])[0][0], 20)
        self.assertEqual(knapsack.best_for([20], [5, 3], [1, 1])[0], (8, (1, 1)))
        self.assertEqual(knapsack.best_for([20], [5, 3], [0, 0])[0], (0, (0, 0)))

    def test_a_capacity_that_was_not_named(self) -> None:
        knapsack = Knapsack([5, 3], [4, 4], [20])
        self.assertEqual(knapsack.best_for([4], [5, 3], [4, 4]), [(3, (0, 1))])

    def test_very_large_numbers(self) -> None:
        knapsack = Knapsack([700_001, 350_003], [2, 3], [1_500_000])
        worth, pattern = knapsack.best_for([1_500_000], [7, 4], [2, 3])[0]
        self.assertEqual((worth, pattern), (15, (1, 2)))

    @settings(max_examples=40, deadline=None)
    @given(SIZES, st.integers(0, 1000), st.integers(20, 70))
    def test_maximal_patterns_are_all_there_and_maximal(
        self, sizes: list[int], seed: int, capacity: int
    ) -> None:
        chance = random.Random(seed)
        sizes = sorted(sizes, reverse=True)
        demand = [chance.randint(1, 3) for _ in sizes]
        found = maximal_patterns(sizes, demand, capacity, 100_000)
        assert found is not None

        def is_maximal(counts: tuple[int, ...]) -> bool:
            left = capacity - sum(n * s for n, s in zip(counts, sizes, strict=True))
            return all(n == d or s > left for n, d, s in zip(counts, demand, sizes, strict=True))

        expected = {c for c in every_pattern(sizes, demand, capacity) if is_maximal(c)}
        self.assertEqual(set(found), expected)
        self.assertEqual(len(found), len(expected))

    def test_too_many_patterns_are_given_up(self) -> None:
        self.assertIsNone(maximal_patterns(range(40, 10, -1), [3] * 30, 400, 50))


class ProgramTest(TestCase):
    def test_a_linear_program_with_its_duals(self) -> None:
        program = Program([(4.0, INFINITY)])
        program.add_column(3.0, [(0, 1.0)])
        program.add_column(5.0, [(0, 2.0)])
        found = program.solve(Clock(LATER))
        self.assertEqual(found.outcome, Outcome.SOLVED)
        self.assertAlmostEqual(found.objective, 10.0)
        self.assertAlmostEqual(found.duals[0], 2.5)

    def test_whole_numbers(self) -> None:
        program = Program([(3.0, INFINITY)])
        program.add_column(5.0, [(0, 2.0)], integer=True)
        found = program.solve(Clock(LATER))
        self.assertEqual(round(found.columns[0]), 2)

    def test_what_cannot_be(self) -> None:
        program = Program([(3.0, INFINITY)])
        program.add_column(5.0, [(0, 2.0)], 1.0)
        self.assertEqual(program.solve(Clock(LATER)).outcome, Outcome.IMPOSSIBLE)

    def test_bounds_change_between_solves(self) -> None:
        program = Program([(2.0, INFINITY)])
        cheap = program.add_column(1.0, [(0, 1.0)])
        program.add_column(9.0, [(0, 1.0)])
        self.assertAlmostEqual(program.solve(Clock(LATER)).objective, 2.0)
        program.bound_column(cheap, 0.0)
        self.assertAlmostEqual(program.solve(Clock(LATER)).objective, 18.0)
        program.bound_row(0, 1.0, INFINITY)
        self.assertAlmostEqual(program.solve(Clock(LATER)).objective, 9.0)


class FirstFitTest(TestCase):
    def test_longest_first_onto_the_first_board_that_holds_it(self) -> None:
        line = line_of([6, 4, 3], [1, 1, 2], [(10, 5, 9)])
        packing = first_fit(line, [0], line.demand)
        self.assertEqual([board.pattern for board in packing.boards], [(1, 1, 0), (0, 0, 2)])

    def test_a_board_is_exchanged_for_a_cheaper_piece_that_holds_the_same(self) -> None:
        line = line_of([6], [1], [(20, 9, 9), (8, 4, 9)])
        packing = first_fit(line, [0, 1], line.demand)
        self.assertEqual([board.source for board in packing.boards], [1])

    def test_limits_are_kept(self) -> None:
        line = line_of([6], [5], [(20, 9, 1), (8, 4, 1)])
        packing = best_first_fit(line)
        self.assertEqual(packing.missing, (1,))
        self.assertEqual(len(packing.boards), 2)

    def test_every_source_is_once_the_first(self) -> None:
        line = line_of([6], [5], [(20, 9, 1), (8, 4, 1), (30, 4, 1)])
        self.assertEqual({order[0] for order in orders(line)}, {0, 1, 2})

    def test_no_source_at_all(self) -> None:
        line = line_of([6], [5], [])
        self.assertEqual(best_first_fit(line), Packing((), (5,)))


class HoldingTest(TestCase):
    def holder(self, line: LineModel) -> Holder:
        return Holder(line, Clock(LATER))

    def test_bins_that_hold_everything(self) -> None:
        line = line_of([6, 4], [3, 3], [(10, 1, 9)])
        relaxation = Relaxation(self.holder(line), [Bin(10, 3, 0)], line.demand)
        solved = relaxation.solve()
        assert solved is not None
        self.assertEqual(solved[0], 0.0)
        ended = dive(relaxation, solved[1])
        self.assertTrue(ended.is_complete)
        self.assertEqual(len(ended.boards), 3)

    def test_bins_that_do_not_give_an_inequality_they_break(self) -> None:
        line = line_of([6, 4], [3, 3], [(10, 1, 9)])
        holder = self.holder(line)
        solved = Relaxation(holder, [Bin(10, 2, 0)], line.demand).solve()
        assert solved is not None
        self.assertGreater(solved[0], 0)
        broken = holder.broken_inequality(solved[2], [2], [0, 0], 0)
        assert broken is not None
        self.assertFalse(broken.is_met([2], [0, 0]))
        self.assertTrue(broken.is_met([3], [0, 0]))

    def test_an_inequality_holds_for_every_packing(self) -> None:
        line = line_of([7, 5, 3], [2, 3, 4], [(12, 4, 9), (16, 5, 9)])
        holder = self.holder(line)
        chance = random.Random(1)
        packing = best_first_fit(line)
        counts = [sum(b.source == s for b in packing.boards) for s in range(2)]
        for _ in range(30):
            values = [chance.randint(0, 9) for _ in line.sizes]
            self.assertTrue(holder.inequality(values).is_met(counts, packing.missing))

    def test_halves_that_only_fit_in_fractions(self) -> None:
        """Three 5s fill one and a half bins of 10: two bins do, whole boards decide."""
        line = line_of([5], [3], [(10, 1, 9)])
        outcome, boards = pack_whole(self.holder(line), [Bin(10, 2, 0)], line.demand)
        self.assertEqual(outcome, Outcome.SOLVED)
        self.assertEqual(sum(board.pattern[0] for board in boards), 3)
        outcome, _ = pack_whole(self.holder(line), [Bin(10, 1, 0)], line.demand)
        self.assertEqual(outcome, Outcome.IMPOSSIBLE)


class SearchTest(TestCase):
    def found(self, line: LineModel) -> tuple[tuple[int, int, int], bool, int]:
        told: list[tuple[int, int, int]] = []
        result = search(
            Holder(line, Clock(LATER)),
            lambda packing, bound: told.append(packing.key(line)),
        )
        self.assertEqual(told, sorted(told, reverse=True))
        return result.packing.key(line), result.proven, result.bound

    def test_cost_first_then_pieces(self) -> None:
        line = line_of([5], [4], [(10, 3, 9), (20, 6, 9)])
        self.assertEqual(self.found(line), ((0, 6, 1), True, 6))

    def test_limits_make_it_dearer(self) -> None:
        line = line_of([5], [4], [(10, 3, 1), (20, 9, 9)])
        self.assertEqual(self.found(line), ((0, 9, 1), True, 9))

    def test_parts_are_given_up_only_where_they_must(self) -> None:
        line = line_of([9, 4], [3, 2], [(10, 3, 2), (5, 1, 9)])
        key, proven, _ = self.found(line)
        self.assertEqual((key[0], proven), (1, True))
        self.assertEqual(key[1], 2 * 3 + 2 * 1)

    def test_free_boards(self) -> None:
        line = line_of([5], [4], [(10, 0, 9), (20, 0, 9)])
        self.assertEqual(self.found(line), ((0, 0, 1), True, 0))

    def test_nothing_to_do(self) -> None:
        self.assertEqual(self.found(line_of([], [], [(10, 1, 9)])), ((0, 0, 0), True, 0))
        self.assertEqual(self.found(line_of([5], [2], [])), ((2, 0, 0), True, 0))

    def test_a_deadline_that_has_passed(self) -> None:
        line = to_line(home_size(3))
        result = search(Holder(line, Clock(-1)), lambda packing, bound: None)
        self.assertFalse(result.proven)
        self.assertLessEqual(result.bound, result.packing.key(line)[1])

    def test_copies_of_a_project_cost_no_more_than_the_project_each(self) -> None:
        given_problem = home_size(5, kinds=(3, 8), parts=(8, 20))
        free = replace(
            given_problem,
            stock=tuple(replace(s, available=None) for s in given_problem.stock),
        )
        twice = replace(
            free, parts=tuple(CutPart(p.id, p.length, p.quantity * 2) for p in free.parts)
        )
        once_key, _, _ = self.found(to_line(free))
        twice_key, _, _ = self.found(to_line(twice))
        self.assertLessEqual(twice_key[1], 2 * once_key[1])
