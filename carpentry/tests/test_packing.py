"""Packs at the yard: what is in the cart, what is left there, what tags say."""

import itertools
import random
from decimal import Decimal
from unittest import TestCase

from carpentry.buying import Package
from carpentry.language import Unit
from carpentry.project import FoundPacks, HardwareLine, pack_key, pack_prices, packs_priced
from carpentry.project.packing import packed_line
from carpentry.tests.problems import ticks

TWENTY = Package("screw 2in", 20, Decimal("3.00"), content="20")
FIFTY = Package("screw 2in", 50, Decimal("6.50"), content="50")
KEYS = {package: pack_key("screw", ticks("2"), package) for package in (TWENTY, FIFTY)}


def need(count: int, have: int = 0) -> HardwareLine:
    return HardwareLine("screw", ticks("2"), count, have, (), None, 0, ())


def packed(
    count: int, have: int = 0, twenty: FoundPacks | None = None, fifty: FoundPacks | None = None
) -> HardwareLine:
    found = {KEYS[TWENTY]: twenty or FoundPacks(), KEYS[FIFTY]: fifty or FoundPacks()}
    return packed_line(need(count, have), [TWENTY, FIFTY], found)


def counts(line: HardwareLine) -> dict[int, int]:
    return {package.holds: count for package, count in line.packs}


class PackedTest(TestCase):
    def test_as_listed(self) -> None:
        line = packed(40)
        self.assertEqual((counts(line), line.price, line.left), ({20: 2}, Decimal("6.00"), 0))
        self.assertEqual(counts(packed(45)), {50: 1})
        self.assertEqual(counts(packed(45, have=10)), {20: 2})

    def test_what_is_in_the_cart_stays_and_counts(self) -> None:
        line = packed(45, twenty=FoundPacks(taken=1))
        self.assertEqual((counts(line), line.left), ({20: 3}, 15))
        line = packed(20, fifty=FoundPacks(taken=1))
        self.assertEqual((counts(line), line.left, line.missing), ({50: 1}, 30, 0))

    def test_none_of_one_kind(self) -> None:
        self.assertEqual(counts(packed(40, twenty=FoundPacks(left=0))), {50: 1})
        self.assertEqual(counts(packed(90, fifty=FoundPacks(taken=1, left=0))), {20: 2, 50: 1})

    def test_too_few_of_all(self) -> None:
        line = packed(90, twenty=FoundPacks(left=1), fifty=FoundPacks(left=1))
        self.assertEqual((counts(line), line.missing), ({20: 1, 50: 1}, 20))
        line = packed(90, twenty=FoundPacks(left=0), fifty=FoundPacks(left=0))
        self.assertEqual((counts(line), line.missing), ({}, 90))

    def test_a_tag_decides(self) -> None:
        line = packed(40, twenty=FoundPacks(tag=Decimal("4.00")))
        self.assertEqual((counts(line), line.price), ({50: 1}, Decimal("6.50")))

    def test_without_packs(self) -> None:
        self.assertEqual(packed_line(need(9), [], {}), need(9))
        key = pack_key("screw", ticks("2"))
        none = packed_line(need(9, 2), [], {key: FoundPacks(left=0)})
        self.assertEqual(none.missing, 7)

    def test_against_brute_force(self) -> None:
        for seed in range(60):
            chance = random.Random(seed)
            count = chance.randint(1, 130)
            found = [
                FoundPacks(
                    chance.randint(0, 1),
                    chance.choice([None, 1, 2]),
                    chance.choice([None, Decimal(chance.randint(200, 900)).scaleb(-2)]),
                )
                for _ in range(2)
            ]
            line = packed(count, twenty=found[0], fifty=found[1])
            most = [9 if one.left is None else one.left for one in found]
            costs = [
                n * (found[0].tag or TWENTY.price) + m * (found[1].tag or FIFTY.price)
                for n, m in itertools.product(*(range(limit + 1) for limit in most))
                if 20 * (n + found[0].taken) + 50 * (m + found[1].taken) >= count
            ]
            in_cart = found[0].taken * (found[0].tag or TWENTY.price)
            in_cart += found[1].taken * (found[1].tag or FIFTY.price)
            if costs:
                self.assertEqual((line.price, line.missing), (min(costs) + in_cart, 0), seed)
            else:
                self.assertGreater(line.missing, 0, seed)


class PricesOfPacksTest(TestCase):
    TEXT = "Screws 2in, 20, 3.00\nnonsense\noil, 1 qt, 21.00\nlatch, 1, 4.20"

    def test_read_by_key(self) -> None:
        prices = pack_prices(self.TEXT, Unit.INCH)
        self.assertEqual(prices[KEYS[TWENTY]], Decimal("3.00"))
        self.assertEqual(prices["pack oil 1 qt"], Decimal("21.00"))
        self.assertEqual(prices["pack latch"], Decimal("4.20"))

    def test_written_back(self) -> None:
        prices = {KEYS[TWENTY]: Decimal("3.40"), "pack latch": Decimal("5")}
        self.assertEqual(
            packs_priced(self.TEXT, Unit.INCH, prices),
            "Screws 2in, 20, 3.40\nnonsense\noil, 1 qt, 21.00\nlatch, 1, 5",
        )
        self.assertEqual(packs_priced(self.TEXT, Unit.INCH, {}), self.TEXT)
