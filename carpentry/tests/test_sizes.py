from fractions import Fraction
from unittest import TestCase

from carpentry.errors import StockNameError
from carpentry.length import TICKS_PER_FOOT, TICKS_PER_INCH, read_length
from carpentry.sizes import (
    STANDARD_SIZES,
    Kind,
    board_feet,
    read_stock,
    standard_section,
)
from carpentry.sizes.families import BOARDS, DIMENSION, TIMBERS

# Dressed dry sizes, American Softwood Lumber Standard PS 20. From memory of the published tables,
# typed here a second time and not derived from the code.
PS_20 = {
    "1x2": ("3/4", "1 1/2"),
    "1x3": ("3/4", "2 1/2"),
    "1x4": ("3/4", "3 1/2"),
    "1x6": ("3/4", "5 1/2"),
    "1x8": ("3/4", "7 1/4"),
    "1x10": ("3/4", "9 1/4"),
    "1x12": ("3/4", "11 1/4"),
    "5/4x4": ("1", "3 1/2"),
    "5/4x6": ("1", "5 1/2"),
    "2x2": ("1 1/2", "1 1/2"),
    "2x3": ("1 1/2", "2 1/2"),
    "2x4": ("1 1/2", "3 1/2"),
    "2x6": ("1 1/2", "5 1/2"),
    "2x8": ("1 1/2", "7 1/4"),
    "2x10": ("1 1/2", "9 1/4"),
    "2x12": ("1 1/2", "11 1/4"),
    "4x4": ("3 1/2", "3 1/2"),
    "4x6": ("3 1/2", "5 1/2"),
    "6x6": ("5 1/2", "5 1/2"),
}


class StandardSizesTest(TestCase):
    def test_against_the_published_table(self) -> None:
        for name, (thickness, width) in PS_20.items():
            section = STANDARD_SIZES[name].section
            self.assertEqual(section.thickness, read_length(thickness, "in").ticks, name)
            self.assertEqual(section.width, read_length(width, "in").ticks, name)

    def test_no_board_is_larger_than_its_name(self) -> None:
        for family in (BOARDS, DIMENSION, TIMBERS):
            for size in family.sizes:
                assert size.width is not None
                self.assertLess(size.section.thickness, size.thickness * TICKS_PER_INCH)
                self.assertLess(size.section.width, size.width * TICKS_PER_INCH)


class NamesTest(TestCase):
    def test_the_same_name_in_many_writings(self) -> None:
        for text in (
            "2x4 treated",
            "2 X 4 Treated",
            "2×4  treated",
            "4x2 treated",
            " 2x4 TREATED ",
        ):
            self.assertEqual(str(read_stock(text, "in").stock), "2x4 treated", text)

    def test_words_are_a_set(self) -> None:
        first = read_stock("2x4 kd fir", "in").stock
        self.assertEqual(first, read_stock("2x4 fir kd", "in").stock)
        self.assertNotEqual(first, read_stock("2x4 fir", "in").stock)

    def test_an_unknown_word_is_a_warning(self) -> None:
        read = read_stock("1x6 bluewood", "in")
        self.assertIn("bluewood", read.warnings[0])
        self.assertEqual(read_stock("1x6 cedar", "in").warnings, ())

    def test_a_third_number_is_feet_when_it_is_sold(self) -> None:
        self.assertEqual(read_stock("2x4x8", "in").length, 8 * TICKS_PER_FOOT)
        self.assertEqual(read_stock("1x4x30", "in").length, 30 * TICKS_PER_INCH)
        self.assertEqual(read_stock("4x2x8 treated", "in").length, 8 * TICKS_PER_FOOT)
        self.assertEqual(read_stock("2x4x2400", "mm").length, read_length("2400", "mm").ticks)
        self.assertEqual(read_stock("2x4x12ft", "in").length, 12 * TICKS_PER_FOOT)

    def test_a_third_number_that_could_be_both_is_asked_about(self) -> None:
        with self.assertRaisesRegex(StockNameError, "12 ft or 12 in"):
            read_stock("2x4x12", "in")

    def test_an_unknown_size_names_the_nearest(self) -> None:
        with self.assertRaisesRegex(StockNameError, "2x12, 2x10"):
            read_stock("2x13", "in")
        for text in ("plank", "", "cedar", "2x4 $$"):
            with self.assertRaises(StockNameError, msg=text):
                read_stock(text, "in")

    def test_sheets(self) -> None:
        stock = read_stock("Plywood 1/2 exterior", "in").stock
        self.assertEqual(str(stock), "ply 1/2 exterior")
        self.assertTrue(stock.is_sheet)
        self.assertIsNone(standard_section(stock))
        self.assertIsNone(board_feet(stock, TICKS_PER_FOOT))

    def test_kinds(self) -> None:
        for text, kind in (
            ("2x4", Kind.PLAIN),
            ("2x4 treated fir", Kind.TREATED),
            ("1x6 cedar", Kind.DURABLE),
            ("5/4x6 composite", Kind.COMPOSITE),
            ("osb 7/16", Kind.SHEET),
        ):
            self.assertEqual(read_stock(text, "in").stock.kind, kind, text)


class BoardFeetTest(TestCase):
    def test_worked_values(self) -> None:
        """Common practice, no source: nominal thickness × width × length ÷ 144."""
        for text, feet, expected in (
            ("2x4", 8, Fraction(16, 3)),
            ("1x6", 12, Fraction(6)),
            ("5/4x6", 8, Fraction(5)),
            ("4x4", 8, Fraction(32, 3)),
        ):
            stock = read_stock(text, "in").stock
            self.assertEqual(board_feet(stock, feet * TICKS_PER_FOOT), expected, text)

    def test_the_two_schools_differ_on_odd_lengths(self) -> None:
        stock = read_stock("2x6", "in").stock
        length = read_length("92 5/8", "in").ticks
        self.assertEqual(board_feet(stock, length), Fraction(12) * Fraction(741, 8) / 144)
        self.assertEqual(board_feet(stock, length, whole_inches=True), Fraction(12 * 93, 144))
