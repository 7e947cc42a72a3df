"""Knapsacks over a grid against exact ones, first-fit in lots against one part at a time, and the
bound of the wood alone."""

import random
from collections.abc import Sequence
from unittest import TestCase

from carpentry.cutting import Status, plan_cuts
from carpentry.cutting.line.model import LineModel, to_line
from carpentry.cutting.loosened import cost_of_wood
from carpentry.cutting.search.first_fit import first_fit
from carpentry.cutting.search.knapsack import GridKnapsack, best_exactly
from carpentry.cutting.search.patterns import Knapsack
from carpentry.tests import seeds
from carpentry.tests.problems import home_size, rip_size


def total(values: Sequence[int], pattern: Sequence[int]) -> int:
    return sum(v * n for v, n in zip(values, pattern, strict=True))


class GridKnapsackTest(TestCase):
    def test_patterns_fit_and_no_pattern_is_worth_more_than_is_said(self) -> None:
        for seed in seeds(60, 150):
            chance = random.Random(seed)
            sizes = sorted(chance.randint(30, 400) for _ in range(chance.randint(2, 12)))[::-1]
            demand = [chance.randint(1, 6) for _ in sizes]
            values = [max(0, round(size * chance.uniform(-0.1, 1.2))) for size in sizes]
            capacities = [chance.randint(400, 1_500), chance.randint(400, 1_500)]
            exact = Knapsack(sizes, demand, capacities).best_for(capacities, values, demand)
            for cells in (16, 256):
                grid = GridKnapsack(sizes, capacities, cells)
                for care in range(grid.most_care + 1):
                    found = grid.best_for(capacities, values, demand, care)
                    for capacity, (most, _), (worth, pattern) in zip(
                        capacities, exact, found, strict=True
                    ):
                        self.assertGreaterEqual(worth, most, seed)
                        self.assertLessEqual(total(sizes, pattern), capacity)
                        self.assertTrue(all(n <= d for n, d in zip(pattern, demand, strict=True)))
                        if care == grid.most_care:
                            self.assertEqual((worth, total(values, pattern)), (most, most), seed)

    def test_from_nothing_to_the_best(self) -> None:
        """Of 7 (worth 9), 5 (6) and 4 (5), two of each, 16 holds 7 + 5 + 4: worth 20."""
        best = best_exactly((7, 5, 4), (9, 6, 5), (2, 2, 2), 16, (0, 0, 0))
        self.assertEqual(best, (1, 1, 1))


class FirstFitTest(TestCase):
    def part_by_part(self, line: LineModel, order: Sequence[int]) -> list[tuple[int, ...]]:
        """What first-fit decreasing is: each part onto the first open board that holds it."""
        room: list[int] = []
        held: list[list[int]] = []
        used = [0] * len(line.sources)
        for item, size in enumerate(line.sizes):
            for _ in range(line.demand[item]):
                at = next((n for n, left in enumerate(room) if left >= size), None)
                if at is None:
                    at = len(room)
                    source = next(
                        s
                        for s in order
                        if line.sources[s].kind >= size and used[s] < line.sources[s].limit
                    )
                    used[source] += 1
                    room.append(line.sources[source].kind)
                    held.append([0] * len(line.sizes))
                room[at] -= size
                held[at][item] += 1
        return [tuple(counts) for counts in held]

    def test_in_lots_it_is_the_same(self) -> None:
        for seed in range(30):
            line = to_line(home_size(seed))
            order = list(range(len(line.sources)))[::-1]
            packing = first_fit(line, order, line.demand)
            if any(packing.missing):
                continue
            lots = [board.pattern for board in packing.boards]
            self.assertEqual(lots, self.part_by_part(line, order), seed)


class CostOfWoodTest(TestCase):
    def test_no_plan_costs_less(self) -> None:
        for given in (*map(home_size, seeds(4, 10)), *map(rip_size, seeds(2, 6))):
            plan = plan_cuts(given)
            if plan.status is Status.OPTIMAL:
                self.assertLessEqual(cost_of_wood(given), plan.price)
                self.assertGreater(cost_of_wood(given), 0)
