from decimal import Decimal
from fractions import Fraction
from unittest import TestCase

from carpentry.buying import (
    ListLine,
    PriceFields,
    Tax,
    cents,
    piece_price,
    read_price_line,
    read_prices_csv,
    shopping_list,
    write_money,
    write_prices_csv,
)
from carpentry.language import TICKS_PER_FOOT, CarpentryError
from carpentry.lumber import INCHES, MILLIMETRES, feet_or_inches, read_stock
from carpentry.tests.samples import sample

HEADER = "yard,stock,length,price,per,available,actual,date\n"


def line(**typed: str) -> Decimal | None:
    fields = PriceFields(**{"stock": "2x4", "length": "8ft", "price": "5"} | typed)
    return piece_price(read_price_line(fields, INCHES))


class MoneyTest(TestCase):
    def test_half_a_cent_goes_up(self) -> None:
        self.assertEqual(cents(Decimal("1.005")), Decimal("1.01"))
        self.assertEqual(cents(Decimal("2.675")), Decimal("2.68"))
        self.assertEqual(cents(Fraction(2675, 1000)), Decimal("2.68"))

    def test_written(self) -> None:
        self.assertEqual(write_money(Decimal("1322.5"), "USD"), "$1,322.50")
        self.assertEqual(write_money(Decimal("-9.1"), "USD"), "−$9.10")
        self.assertEqual(write_money(Decimal("7"), "EUR"), "€7.00")


class PiecePriceTest(TestCase):
    def test_each_foot_metre_and_board_foot(self) -> None:
        """Worked by hand: the named size and length are priced, rounded half up once."""
        self.assertEqual(line(price="5.18"), Decimal("5.18"))
        self.assertEqual(line(price="0.61", per="ft"), Decimal("4.88"))
        self.assertEqual(line(price="0.61", per="ft", actual="95 3/4"), Decimal("4.88"))
        self.assertEqual(line(stock="1x6", price="3.05", per="bf"), Decimal("12.20"))
        self.assertEqual(line(stock="1x6", length="16ft", price="2.90", per="bf"), Decimal("23.20"))
        self.assertEqual(line(length="2400mm", price="2.15", per="m"), Decimal("5.16"))
        self.assertEqual(line(length="92 5/8", price="1", per="ft"), Decimal("7.72"))

    def test_a_missing_price_is_missing(self) -> None:
        self.assertIsNone(line(price=""))

    def test_faults_by_field(self) -> None:
        for typed, place, words in (
            ({"price": "cheap"}, "price", "is no price"),
            ({"price": "1,234"}, "price", "not a comma"),
            ({"price": "5.187"}, "price", "two decimals"),
            ({"price": "0.61234", "per": "ft"}, "price", "four decimals"),
            ({"price": "-1"}, "price", "is no price"),
            ({"per": "dozen"}, "per", "is not one of"),
            ({"per": "sheet"}, "per", "no sheet"),
            ({"stock": "ply 1/2", "per": "bf"}, "per", "by the sheet"),
            ({"available": "some"}, "available", "no count"),
            ({"date": "2 Nov"}, "date", "is no date"),
            ({"date": "2026-13-01"}, "date", "is no date"),
            ({"length": ""}, "length", "missing"),
            ({"length": "1/2"}, "length", "that long or short"),
            ({"length": "100ft"}, "length", "that long or short"),
            ({"actual": "60"}, "actual", "more than a foot"),
            ({"width": "40"}, "width", "far from it"),
            ({"thickness": "1/8"}, "thickness", "far from it"),
            ({"stock": "2x13"}, "stock", "2x13"),
        ):
            with self.assertRaises(CarpentryError, msg=typed) as caught:
                line(**typed)
            told = {p.place: p.message for p in caught.exception.problems}
            self.assertIn(words, told.get(place, str(told)))


class PriceListTest(TestCase):
    def test_the_samples(self) -> None:
        tallow = read_prices_csv(sample("tallow-street.prices.csv"))["Tallow Street Yard"]
        self.assertEqual(len(tallow), 16)
        pike = read_prices_csv(sample("pike-and-daughter.prices.csv"))["Pike & Daughter"]
        own = next(one for one in pike if one.has_own_section)
        self.assertNotEqual(own.section, tallow[0].section)
        self.assertEqual(pike[4].available, 9)

    def test_a_list_reads_back(self) -> None:
        lines = read_prices_csv(sample("tallow-street.prices.csv"))["Tallow Street Yard"]
        fields = [one.fields for one in lines]
        again = read_prices_csv(write_prices_csv("Tallow Street Yard", fields).encode())
        self.assertEqual([one.fields for one in again["Tallow Street Yard"]], fields)

    def test_faults_by_line(self) -> None:
        for rows, place, words in (
            ("A,2x4,8ft,5\nA,2x4,96,6\n", "line 3", "same stock and length as on line 2"),
            ("A,2x4,8ft,x\n", "line 2, price", "is no price"),
            (",2x4,8ft,5\n", "line 2, yard", "missing"),
            ("A,3x9,8ft,5\n", "line 2, stock", "3x9"),
        ):
            with self.assertRaises(CarpentryError) as caught:
                read_prices_csv((HEADER + rows).encode())
            told = {p.place: p.message for p in caught.exception.problems}
            self.assertIn(words, told.get(place, str(told)))

    def test_prices_and_days_as_lists_write_them(self) -> None:
        """All rows together say whether the day comes first; where none does, the unit does."""
        text = "store,item,L,cost,as of\nA,2x4,8ft,$13.10,{}\nA,2x6,8ft,{},{}\n"
        for price, days, expected, day in (
            ('"6,90"', ("3/11/2026", "3/12/2026"), "6.90", "2026-03-11"),
            ("€ 6.90", ("3/11/2026", "13/11/2026"), "6.90", "2026-11-03"),
            ('"1,206.90"', ("3.11.2026", "2026-11-02"), "1206.90", "2026-11-03"),
            ("6.90 USD", ("3/11/2026", "3/14/2026"), "6.90", "2026-03-11"),
        ):
            data = text.format(days[0], price, days[1]).encode()
            first, second = read_prices_csv(data)["A"]
            self.assertEqual(first.price, Decimal("13.10"))
            self.assertEqual(second.price, Decimal(expected), price)
            self.assertEqual(str(first.date), day, days)
            self.assertEqual((first.fields.price, first.fields.date), ("13.10", day))
        typed = PriceFields(stock="2x4", length="8ft", price="5", date="3/11/2026")
        self.assertIn("is read as 2026-03-11", read_price_line(typed, INCHES).warnings[0])
        self.assertEqual(str(read_price_line(typed, MILLIMETRES).date), "2026-11-03")

    def test_a_price_in_another_currency_is_refused(self) -> None:
        """A sign that more countries use is taken for the yard's own."""
        for price, currency, fine in (
            ("€5", "USD", False),
            ("5 GBP", "EUR", False),
            ("$5", "CAD", True),
            ("CAD $5", "CAD", True),
            ("5 €", "EUR", True),
            ("TBD5", "USD", False),
        ):
            fields = PriceFields(stock="2x4", length="8ft", price=price)
            if fine:
                read = read_price_line(fields, INCHES, currency=currency)
                self.assertEqual((read.price, read.fields.price), (Decimal(5), "5"))
                continue
            with self.assertRaises(CarpentryError, msg=price) as caught:
                read_price_line(fields, INCHES, currency=currency)
            self.assertEqual([p.place for p in caught.exception.problems], ["price"])

    def test_a_yard_s_own_width_of_random_widths(self) -> None:
        fields = PriceFields(stock="8/4 walnut", length="8ft", price="50", width="7 1/2")
        section = read_price_line(fields, INCHES).section
        assert section is not None
        self.assertEqual((section.thickness, section.width), (2 * 8128, 7.5 * 8128))

    def test_random_widths_have_no_price_by_the_board_foot(self) -> None:
        with self.assertRaisesRegex(CarpentryError, "name one, such as 8/4x6"):
            read_price_line(PriceFields(stock="8/4", length="8ft", price="5", per="bf"), INCHES)

    def test_a_list_of_one_yard_names_none(self) -> None:
        lists = read_prices_csv(b"stock,length,price\n2x4,8ft,5\n", at="Alder Yard")
        self.assertEqual([one.stock.size for one in lists["Alder Yard"]], ["2x4"])

    def test_a_wood_in_its_own_column(self) -> None:
        lists = read_prices_csv(b"yard,size,species,length,price\nA,2x4,PT,8ft,5\n")
        self.assertEqual(str(lists["A"][0].stock), "2x4 treated")

    def test_a_bare_number_of_feet_is_asked_about(self) -> None:
        with self.assertRaisesRegex(CarpentryError, "8 ft. Write 8ft, or 8in"):
            read_prices_csv(b"yard,stock,length,price\nA,2x4,8,5\n")
        for text, unit in (("96", "in"), ("8", "mm"), ("8ft", "in"), ("3", "in"), ("x", "in")):
            self.assertEqual(feet_or_inches(text, unit), "", text)

    def test_the_limit_is_named(self) -> None:
        rows = "A,2x4,8ft,5\n" * 10_001
        with self.assertRaisesRegex(CarpentryError, "10,001 rows are more than 10,000"):
            read_prices_csv((HEADER + rows).encode())

    def test_a_decimal_comma_in_a_semicolon_file(self) -> None:
        data = b"yard;stock;length;price\nA;2x4;2,4 m;5,18\n"
        read = read_prices_csv(data)["A"][0]
        self.assertEqual(read.price, Decimal("5.18"))


class ShoppingListTest(TestCase):
    def lines(self) -> list[ListLine]:
        stock = read_stock("2x4", INCHES).stock
        length = 8 * TICKS_PER_FOOT
        return [
            ListLine(stock, None, length, length, 5, Decimal("8.36")),
            ListLine(stock, None, length, length, 18, Decimal("7.30")),
        ]

    def test_tax_on_top(self) -> None:
        found = shopping_list(self.lines(), Tax(Decimal("6.75"), included=False), 2)
        self.assertEqual(found.subtotal, Decimal("173.20"))
        self.assertEqual(found.tax, Decimal("11.69"))
        self.assertEqual(found.total, Decimal("184.89"))
        self.assertEqual(found.per_copy, Decimal("92.45"))

    def test_tax_inside(self) -> None:
        found = shopping_list(self.lines(), Tax(Decimal(20), included=True), 1)
        self.assertEqual((found.total, found.tax), (Decimal("173.20"), Decimal("28.87")))

    def test_a_missing_price_is_counted_as_missing(self) -> None:
        unknown = ListLine(read_stock("2x6", INCHES).stock, None, 1, 1, 3, None)
        found = shopping_list([*self.lines(), unknown], Tax(Decimal(0), included=False), 1)
        self.assertEqual((found.unpriced, found.subtotal), (3, Decimal("173.20")))
