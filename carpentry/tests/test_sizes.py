from fractions import Fraction
from unittest import TestCase

from carpentry.language import TICKS_PER_FOOT, TICKS_PER_INCH, StockNameError, read_length
from carpentry.lumber import (
    DRESSED_SIZES,
    INCHES,
    MILLIMETRES,
    Kind,
    board_feet,
    lexicon_in,
    read_stock,
    standard_section,
)
from carpentry.lumber.families import DRESSED_FAMILIES

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
            section = DRESSED_SIZES[name].section
            self.assertEqual(section.thickness, read_length(thickness, "in").ticks, name)
            self.assertEqual(section.width, read_length(width, "in").ticks, name)

    def test_no_board_is_larger_than_its_name(self) -> None:
        for family in DRESSED_FAMILIES:
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
            self.assertEqual(str(read_stock(text, INCHES).stock), "2x4 treated", text)

    def test_words_are_a_set(self) -> None:
        first = read_stock("2x4 kd fir", INCHES).stock
        self.assertEqual(first, read_stock("2x4 fir kd", INCHES).stock)
        self.assertNotEqual(first, read_stock("2x4 fir", INCHES).stock)

    def test_an_unknown_word_is_a_warning(self) -> None:
        read = read_stock("1x6 bluewood", INCHES)
        self.assertIn("bluewood", read.warnings[0])
        self.assertEqual(read_stock("1x6 cedar", INCHES).warnings, ())

    def test_a_third_number_is_feet_when_it_is_sold(self) -> None:
        for text, unit, length in (
            ("2x4x8", "in", "96"),
            ("2x4x12", "in", "144"),
            ("2x4x16", "in", "192"),
            ("4x2x8 treated", "in", "96"),
            ("2x4x8", "mm", "2438.4"),
            ("1x4x30", "in", "30"),
            ("2x4x92 5/8", "in", "92 5/8"),
            ("2x4x2400", "mm", "2400"),
        ):
            read = read_stock(text, lexicon_in(unit))
            assert read.length is not None, text
            self.assertEqual(read.length.ticks, read_length(length, unit).ticks, text)
            self.assertEqual(read_length(read.length.text, unit).ticks, read.length.ticks, text)

    def test_a_fraction_is_inches_after_a_size_in_inches(self) -> None:
        read = read_stock("2x4x92 5/8", MILLIMETRES)
        assert read.length is not None
        self.assertEqual(read.length.ticks, read_length("92 5/8in", "mm").ticks)
        self.assertEqual(read.length.text, "92 5/8in")

    def test_how_a_third_number_was_read_is_said_where_another_comes_to_mind(self) -> None:
        self.assertEqual(read_stock("2x4x12", INCHES).warnings, ("×12 is read as 12 ft",))
        self.assertEqual(read_stock("1x4x24", INCHES).warnings, ("×24 is read as 24 in",))
        self.assertEqual(read_stock("2x4x8", INCHES).warnings, ())

    def test_a_third_number_that_is_no_length_of_a_board(self) -> None:
        for text, words in (
            ("4x8x3/4", "a sheet is written ply 3/4"),
            ("2x4x2400", "write 2400mm"),
            ("2x4x8x", "neither a size nor a word"),
            ("2x4 8", "write 8ft or 8in"),
        ):
            with self.assertRaisesRegex(StockNameError, words):
                read_stock(text, INCHES)

    def test_an_unknown_size_names_the_nearest(self) -> None:
        with self.assertRaisesRegex(StockNameError, "2x12, 2x10"):
            read_stock("2x13", INCHES)
        for text in ("plank", "", "cedar", "2x4 $$"):
            with self.assertRaises(StockNameError, msg=text):
                read_stock(text, INCHES)

    def test_sheets(self) -> None:
        stock = read_stock("Plywood 1/2 exterior", INCHES).stock
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
            self.assertEqual(read_stock(text, INCHES).stock.kind, kind, text)


# What builders write, and what each of them means. Worked by hand.
WRITTEN = {
    "2x4": (
        *('2"x4"', '2" x 4"', "2″×4″", "2 by 4", "2 X 4", "2in x 4in", "2 in. x 4 in.", "4x2"),
        *("2x4 post", "2*4"),
    ),
    "2x4 treated": (
        *("2x4 p.t.", "2x4 PT", "PT 2x4", "treated 2x4", "2x4 pressure treated"),
        *("2x4 Pressure-Treated", "2x4 (treated)", "2x4, treated"),
    ),
    "2x4 #2": ("2x4 no.2", "2x4 No. 2", "#2 2x4", "2x4 grade 2"),
    "38x89": ("38mm x 89mm", "38 x 89 mm", "38x89mm", "89x38"),
    "5/4x6": ("5/4 x 6", "1-1/4 x 6", "1 1/4x6", "6x5/4"),
    "5/4x6 decking": ("5/4 x 6 deck board", "5/4x6 decking"),
    "8/4 walnut": ("8/4 walnut", "walnut 8/4"),
    "8/4x6 oak": ("8/4 x 6 oak", "oak 8/4x6"),
    "1x6 t&g": ("1x6 T & G", "1x6 tongue and groove", "1x6 t+g", "t&g 1x6"),
    "1x10 rough": ("rough 1x10", "1x10 rough sawn", "1x10 rough-sawn"),
    "5/8x6 dog-ear picket": ("5/8 x 6 dog ear", "5/8x6 dog-eared picket"),
    "1/2x6 siding": ("1/2 x 6 bevel siding", "1/2x6 siding"),
    "1/4x1 5/8 lattice": ("1/4x1-5/8 lattice strip",),
    "1x3 furring": ("1x3 furring strips",),
    "3x5 landscape": ("3x5 landscape timber",),
    "ex 25x50": ("ex 50x25", "ex25x50", "EX. 25 x 50"),
    "ply 3/4": (
        *("3/4 ply", '3/4" plywood', "3/4in plywood", "4x8x3/4 plywood", "4x8 3/4 ply"),
        *("plywood 3/4", "plywood 3/4 4x8", "3/4 x 4' x 8' plywood", "¾ ply"),
    ),
    "ply 1/2 cdx": ("1/2 CDX plywood", "ply 1/2 cdx"),
    "ply 18mm": ("18mm ply", "18 mm plywood", "ply 18mm", "ply 18"),
    "osb 7/16": ("7/16 osb", "OSB 7/16"),
    "mdf 3/4": ("3/4 mdf", 'mdf 3/4"'),
    "polycarbonate 6mm": ("6mm polycarbonate",),
    "10x12": ("12 x 10",),
    "1x1": ("1 x 1",),
}


class WrittenTest(TestCase):
    def test_every_way_to_write_a_name_means_it(self) -> None:
        for name, ways in WRITTEN.items():
            for text in (name, *ways):
                read = read_stock(text, INCHES)
                self.assertEqual(str(read.stock), name, text)
                self.assertIsNone(read.length, text)

    def test_a_length_with_its_unit_is_no_part_of_the_name(self) -> None:
        for text in ("2x4 8ft", "2x4 8'", "2x4 8 ft treated", "PT 2x4 8ft", "2x4x8 ft", "2x4-8"):
            read = read_stock(text, INCHES)
            assert read.length is not None, text
            self.assertEqual(read.length.ticks, 8 * TICKS_PER_FOOT, text)
            self.assertEqual(read.stock.size, "2x4", text)

    def test_what_the_book_does_not_know_is_refused_not_dropped(self) -> None:
        for text in (
            *("cement board 1/2", "1/2 cement board", "dowel 1/2", "1/2 dowel", "1/2 cement ply"),
            *("plank", "2x4 $$", "7/4", "8/4x0", "sheet of mdf"),
        ):
            with self.assertRaises(StockNameError, msg=text):
                read_stock(text, INCHES)

    def test_a_size_that_is_only_sold_worked_says_how(self) -> None:
        with self.assertRaisesRegex(StockNameError, "5/8x6 picket"):
            read_stock("5/8x6", INCHES)
        with self.assertRaisesRegex(StockNameError, "3x4 landscape, 3x5 landscape"):
            read_stock("landscape timber", INCHES)

    def test_what_a_board_measures_is_not_its_name(self) -> None:
        with self.assertRaisesRegex(StockNameError, "what a 2x4 measures: write 2x4"):
            read_stock("1 1/2 x 3 1/2", INCHES)

    def test_a_working_that_the_book_does_not_know_of_a_size(self) -> None:
        self.assertIn("no 2x4 picket", read_stock("2x4 picket", INCHES).warnings[0])

    def test_in_millimetres_the_nearest_are_metric(self) -> None:
        with self.assertRaisesRegex(StockNameError, "Nearest known: 45x95"):
            read_stock("44x93", MILLIMETRES)


# Real sizes of worked and metric stock, in inches or millimetres: PS 20 from memory, the others
# common practice, no source. Typed here a second time.
REAL = {
    "1x6 rough": ("1", "6"),
    "1x10 rough": ("1", "10"),
    "8/4x6": ("2", "6"),
    "8/4x6 surfaced": ("1 3/4", "6"),
    "5/4x6 decking": ("1", "5 1/2"),
    "5/8x6 picket": ("1/2", "5 1/2"),
    "1x6 t&g": ("3/4", "5 3/8"),
    "1x8 shiplap": ("3/4", "7 1/4"),
    "1/2x6 siding": ("15/32", "5 1/2"),
    "1x2 furring": ("3/4", "1 1/2"),
    "1/4x1 5/8 lattice": ("1/4", "1 5/8"),
    "3x4 landscape": ("2 1/2", "3 1/2"),
    "1x1": ("3/4", "3/4"),
    "10x12": ("9 1/2", "11 1/2"),
    "12x12": ("11 1/2", "11 1/2"),
    "ex 25x50": ("20mm", "45mm"),
    "45x95": ("45mm", "95mm"),
    "47x100": ("47mm", "100mm"),
    "38x235": ("38mm", "235mm"),
    "28x120": ("28mm", "120mm"),
}


class RealSizesTest(TestCase):
    def test_of_worked_and_metric_stock(self) -> None:
        for name, (thickness, width) in REAL.items():
            section = standard_section(read_stock(name, INCHES).stock)
            assert section is not None, name
            self.assertEqual(section.thickness, read_length(thickness, "in").ticks, name)
            self.assertEqual(section.width, read_length(width, "in").ticks, name)

    def test_random_widths_have_none(self) -> None:
        self.assertIsNone(standard_section(read_stock("8/4 walnut", INCHES).stock))

    def test_a_width_of_quarters_is_said_to_be_rough(self) -> None:
        self.assertIn("rough hardwood", read_stock("5/4x7", INCHES).warnings[0])
        for text in ("8/4x6 rough", "8/4x6 surfaced", "5/4x6"):
            self.assertEqual(read_stock(text, INCHES).warnings, (), text)


class BoardFeetTest(TestCase):
    def test_worked_values(self) -> None:
        """Common practice, no source: nominal thickness × width × length ÷ 144."""
        for text, feet, expected in (
            ("2x4", 8, Fraction(16, 3)),
            ("1x6", 12, Fraction(6)),
            ("5/4x6", 8, Fraction(5)),
            ("4x4", 8, Fraction(32, 3)),
            ("5/8x6 picket", 6, Fraction(3)),  # under an inch counts as one
            ("1x10 rough", 12, Fraction(10)),
            ("8/4x6", 6, Fraction(6)),
        ):
            stock = read_stock(text, INCHES).stock
            self.assertEqual(board_feet(stock, feet * TICKS_PER_FOOT), expected, text)

    def test_the_two_schools_differ_on_odd_lengths(self) -> None:
        stock = read_stock("2x6", INCHES).stock
        length = read_length("92 5/8", "in").ticks
        self.assertEqual(board_feet(stock, length), Fraction(12) * Fraction(741, 8) / 144)
        self.assertEqual(board_feet(stock, length, whole_inches=True), Fraction(12 * 93, 144))
