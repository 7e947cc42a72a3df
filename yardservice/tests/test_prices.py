import unittest
from datetime import date, timedelta
from decimal import Decimal
from fractions import Fraction
from itertools import pairwise

from yardservice.prices import quote

DAY = date(2026, 11, 25)
STOCK = [f"{size} {word}".strip() for size in ("2x4", "1x6", "4x4") for word in ("", "treated")]


class PricesTest(unittest.TestCase):
    def test_the_same_day_gives_the_same_quote(self) -> None:
        for stock in STOCK:
            first = quote("tallow-street", stock, Fraction(8), DAY)
            self.assertEqual(first, quote("tallow-street", stock, Fraction(8), DAY))

    def test_prices_drift_a_little_from_week_to_week(self) -> None:
        for stock in STOCK:
            prices = []
            for week in range(8):
                found = quote("tallow-street", stock, Fraction(8), DAY + timedelta(weeks=week))
                assert found
                prices.append(found.price)
            self.assertGreater(len(set(prices)), 4)
            for before, after in pairwise(prices):
                # A step of three percent either way enters, another leaves at the far end.
                self.assertLess(abs(after - before), before * Decimal("0.07"))

    def test_a_longer_and_a_better_board_costs_more(self) -> None:
        def price(stock: str, feet: int) -> Decimal:
            found = quote("tallow-street", stock, Fraction(feet), DAY)
            assert found
            return found.price

        self.assertGreater(price("2x4", 10), price("2x4", 8))
        self.assertGreater(price("1x6 cedar", 8), price("1x6", 8))

    def test_some_items_run_out_and_most_do_not(self) -> None:
        counts = [
            found.available
            for week in range(60)
            if (found := quote("tallow-street", "2x4", Fraction(8), DAY + timedelta(weeks=week)))
        ]
        self.assertGreater(counts.count(0), 0)
        self.assertLess(counts.count(0), 15)
        self.assertGreater(counts.count(None), 20)

    def test_what_it_does_not_sell(self) -> None:
        self.assertIsNone(quote("tallow-street", "ply 1/2", Fraction(8), DAY))
        self.assertIsNone(quote("tallow-street", "2x4", Fraction(0), DAY))
