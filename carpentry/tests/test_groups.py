"""What of a purchase falls to each group of parts."""

import random
from decimal import Decimal
from unittest import TestCase

from carpentry.buying import PriceFields, Tax, read_price_line
from carpentry.cutting import CutPlan, plan_cuts
from carpentry.design import PartFields, read_part
from carpentry.language import CarpentryError, Unit
from carpentry.lumber import INCHES
from carpentry.planning import make_or_buy, read_made_price
from carpentry.project import (
    Material,
    NamedPart,
    SettingFields,
    Shelf,
    gather_materials,
    group_shares,
    read_settings,
)
from carpentry.tests.problems import ticks

LIST = [
    read_price_line(PriceFields(stock=stock, length=length, price=price), INCHES)
    for stock, length, price in (
        ("2x4", "8ft", "3.97"),
        ("2x4", "12ft", "6.11"),
        ("1x6", "8ft", "7.03"),
    )
]


def planned(*parts: PartFields) -> list[tuple[Material, CutPlan | None]]:
    settings = read_settings(SettingFields())
    named = [NamedPart(str(n), read_part(part, INCHES)) for n, part in enumerate(parts)]
    found: list[tuple[Material, CutPlan | None]] = []
    for material in gather_materials(named, Shelf(LIST, Unit.INCH), settings):
        problem = material.problem(settings)
        found.append((material, plan_cuts(problem) if problem else None))
    return found


class GroupSharesTest(TestCase):
    def test_by_volume(self) -> None:
        """One 2x4 at 3.97 holds 60 and 20 in: three quarters and one quarter of it."""
        shares = group_shares(
            planned(
                PartFields(name="leg", stock="2x4", length="60", group="frame"),
                PartFields(name="stop", stock="2x4", length="20"),
            )
        )
        self.assertEqual(
            [(share.name, share.pieces, share.cost) for share in shares],
            [("frame", 1, Decimal("2.98")), ("", 1, Decimal("0.99"))],
        )

    def test_shares_add_up_to_the_cent(self) -> None:
        for seed in range(12):
            chance = random.Random(seed)
            plans = planned(
                *(
                    PartFields(
                        quantity=str(chance.randint(1, 5)),
                        stock=chance.choice(["2x4", "1x6"]),
                        length=str(chance.randint(5, 90)),
                        group=chance.choice(["frame", "roof", ""]),
                    )
                    for _ in range(6)
                )
            )
            whole = sum((plan.price for _, plan in plans if plan), Decimal(0))
            shares = group_shares(plans)
            self.assertEqual(sum(share.cost for share in shares), whole, seed)
            pieces = sum(one.part.quantity for material, _ in plans for one in material.parts)
            self.assertEqual(sum(share.pieces for share in shares), pieces)

    def test_nothing_is_planned(self) -> None:
        self.assertEqual(group_shares([]), [])


class MakeOrBuyTest(TestCase):
    NO_TAX = Tax(Decimal(0), included=False)

    def test_a_price_each_or_by_length(self) -> None:
        """40 in are 3 1/3 ft: 2.83 at 0.85; a metre is 39.37 in."""
        self.assertEqual(read_made_price(" 6.20 ", ticks("40")), Decimal("6.20"))
        self.assertEqual(read_made_price("0.85/ft", ticks("40")), Decimal("2.83"))
        self.assertEqual(read_made_price("2.00 / m", ticks("1.5 m")), Decimal("3.00"))
        for text in ("", "x", "1/yd", "1.234"):
            with self.assertRaises(CarpentryError):
                read_made_price(text, ticks("40"))

    def test_tax_is_on_both(self) -> None:
        weighed = make_or_buy(
            4,
            Decimal("3.00"),
            with_it=Decimal("33.00"),
            without_it=Decimal("22.00"),
            tax=Tax(Decimal(10), included=False),
            currency="USD",
        )
        self.assertEqual((weighed.made, weighed.bought), (Decimal("11.00"), Decimal("13.20")))
        self.assertIn("making saves $2.20", weighed.told)

    def test_leftovers_make_it_cheap(self) -> None:
        """A part that fits into what is left costs nothing more."""
        weighed = make_or_buy(
            1,
            Decimal("0.10"),
            with_it=Decimal("9.00"),
            without_it=Decimal("9.00"),
            tax=self.NO_TAX,
            currency="USD",
        )
        self.assertEqual(weighed.made, Decimal(0))
        self.assertIn("making saves $0.10", weighed.told)
