"""What boards hold when every load is listed, against other ways to the same answer."""

import itertools
import random
from collections import Counter
from dataclasses import replace
from decimal import Decimal
from unittest import TestCase

from carpentry.cutting import Budget, CutPart, CutProblem, Order, Status, StockPiece, plan_cuts
from carpentry.cutting.ripped.best_boards import Pricing
from carpentry.cutting.ripped.every_load import RippedLoads
from carpentry.cutting.ripped.exchanges import better_packings
from carpentry.cutting.ripped.model import RippedModel
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.holding import Bin, Holder, whole_boards
from carpentry.cutting.search.model import Packing
from carpentry.cutting.search.programs import Outcome
from carpentry.language import Unit
from carpentry.tests import seeds
from carpentry.tests.problems import rip_size, ticks


def listed(model: RippedModel) -> RippedLoads:
    assert model.list_loads(Clock(60))
    assert model.loads is not None
    return model.loads


class LoadsTest(TestCase):
    def test_a_load_is_worth_no_less_than_what_pricing_finds(self) -> None:
        """Pricing finds real loads and a worth that none exceeds, by other code; ripped first there
        is one segment in both."""
        chance = random.Random(3)
        for seed in seeds(3, 6):
            for order in Order:
                given = replace(rip_size(seed, kinds=(4, 7), parts=(8, 20)), order=order)
                model = RippedModel(given)
                loads = listed(model)
                for _ in range(3):
                    values = [chance.randint(1, 40) for _ in model.items]
                    pricing = Pricing(model, values, model.demand)
                    for kind in range(len(model.kinds)):
                        worth, pattern = pricing.best(kind)
                        found = sum(v * n for v, n in zip(values, pattern, strict=True))
                        best, load = loads.best(kind, values, model.demand)
                        self.assertEqual(
                            best, sum(v * n for v, n in zip(values, load, strict=True))
                        )
                        self.assertGreaterEqual(best, found, (seed, order))
                        if order is Order.RIP_FIRST:
                            self.assertLessEqual(best, worth, seed)

    def test_every_load_says_how_it_is_cut(self) -> None:
        """Segments no longer than the board, strips of their rip pattern, and on them the load."""
        chance = random.Random(4)
        for seed in range(6):
            order = chance.choice(list(Order))
            model = RippedModel(replace(rip_size(seed, kinds=(4, 8), parts=(8, 24)), order=order))
            loads = listed(model)
            for number, kind in enumerate(model.kinds):
                for load in chance.sample(list(map(tuple, loads.fullest[number])), 1):
                    segments = loads.segments(number, load)
                    self.assertLessEqual(sum(s.size for s in segments), kind.capacity)
                    held = Counter(i for s in segments for strip in s.strips for i in strip)
                    self.assertEqual(tuple(held[i] for i in range(len(load))), load)
                    for segment in segments:
                        for strip, items in zip(
                            segment.pattern.strips, segment.strips, strict=True
                        ):
                            size = kind.strips[strip.size]
                            self.assertTrue(all(model.items[i].strip == size for i in items))
                            self.assertLessEqual(
                                sum(model.items[i].size for i in items), segment.size
                            )

    def test_a_purchase_is_decided_as_an_integer_program_decides_it(self) -> None:
        """The same question to a general-purpose solver: whole boards of listed loads."""
        chance = random.Random(6)
        decided = Counter[Outcome]()
        for seed in seeds(3, 8):
            model = RippedModel(rip_size(seed, kinds=(3, 6), parts=(6, 16)))
            loads = listed(model)
            every = [list(map(tuple, rows.tolist())) for rows in loads.fullest]
            holder = Holder(model, Clock(60))
            start = Counter(
                b.source for b in model.quick(model.demand, [0] * len(model.sources)).boards
            )
            for _ in range(6):
                counts = [start[source] for source in range(len(model.sources))]
                for _ in range(chance.randint(0, min(1, sum(counts) - 1))):
                    counts[chance.choice([n for n, count in enumerate(counts) if count])] -= 1
                bins = [
                    Bin(s.kind, n, i)
                    for i, (s, n) in enumerate(zip(model.sources, counts, strict=True))
                    if n
                ]
                patterns = [every[b.kind] for b in bins]
                by_solver, _ = whole_boards(holder, bins, model.demand, patterns, 50_000)
                kinds = [b.kind for b in bins for _ in range(b.count)]
                outcome, packed = loads.pack(kinds, model.demand, Clock(60))
                self.assertEqual(outcome, by_solver, (seed, counts))
                decided[outcome] += 1
                if outcome is Outcome.SOLVED:
                    held = [sum(load[i] for load in packed) for i in range(len(model.demand))]
                    self.assertEqual(tuple(held), model.demand)
        self.assertGreater(min(decided[Outcome.SOLVED], decided[Outcome.IMPOSSIBLE]), 5)

    def test_what_is_too_much_to_list_is_planned_all_the_same(self) -> None:
        given = rip_size(100, kinds=(10, 16), parts=(100, 150))
        self.assertFalse(RippedModel(given).list_loads(Clock(60)))
        plan = plan_cuts(given, Budget(3.0))
        self.assertEqual(plan.unplaced, ())
        self.assertLess(plan.bound, plan.price)

    def test_a_late_listing_is_given_up(self) -> None:
        self.assertFalse(RippedModel(rip_size(0)).list_loads(Clock(0)))


class MendingTest(TestCase):
    def test_every_packing_is_whole_and_better_than_the_one_before(self) -> None:
        given = rip_size(4)
        model = RippedModel(given)
        packing = model.quick(model.demand, [0] * len(model.sources))
        last = packing.key(model)
        for better in better_packings(given, model, packing, Clock(6)):
            self.assertLess(better.key(model), last)
            self.assertEqual(self.held(better), model.demand)
            last = better.key(model)
        plan = plan_cuts(given, Budget(20.0))
        self.assertIs(plan.status, Status.OPTIMAL)
        self.assertGreaterEqual(model.money.price(last[1]), plan.price)
        self.assertLess(last, packing.key(model))

    @staticmethod
    def held(packing: Packing) -> tuple[int, ...]:
        patterns = [board.pattern for board in packing.boards]
        return tuple(sum(counts) for counts in zip(*patterns, strict=True))


class LeftoverTest(TestCase):
    def test_one_board_keeps_as_much_length_as_can_be(self) -> None:
        """Against every pair of loads: three squares of 30 in and five of 20 from two boards."""
        half = ticks("1 1/2")
        stock = StockPiece("2x4", ticks("72"), Decimal(4), None, half, ticks("3 1/2"))
        parts = (
            CutPart("long", ticks("30"), 3, half, half),
            CutPart("short", ticks("20"), 5, half, half),
        )
        given = CutProblem(Unit.INCH, ticks("1/8"), 0, 0, (stock,), parts)
        model = RippedModel(given)
        loads = listed(model)
        plan = plan_cuts(given, Budget(5.0))
        self.assertEqual(plan.pieces_of_stock, 2)
        capacity, shortest = model.kinds[0].capacity, loads.sections[0].shortest[-1]
        best = 0
        for one in itertools.product(*(range(d + 1) for d in model.demand)):
            other = tuple(d - n for d, n in zip(model.demand, one, strict=True))
            if max(shortest[one], shortest[other]) <= capacity:
                best = max(best, capacity - min(int(shortest[one]), int(shortest[other])))
        rests = [rest for layout in plan.layouts for rest in layout.leftover]
        kept = max(rest.length for rest in rests if rest.y == (0, stock.width))
        self.assertEqual(kept + given.kerf, best * model.unit)
