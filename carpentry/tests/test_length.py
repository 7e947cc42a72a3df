from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from carpentry.language import (
    LONGEST,
    TICKS_PER_FOOT,
    TICKS_PER_INCH,
    TICKS_PER_MM,
    CarpentryError,
    LengthError,
    Notation,
    Unit,
    interchange,
    read_length,
    sold_name,
    write_length,
)

INCH = TICKS_PER_INCH
TICKS = st.integers(min_value=0, max_value=LONGEST - TICKS_PER_INCH)


class ReadingTest(TestCase):
    def test_every_way_of_writing_44_and_a_half(self) -> None:
        for text in ("44.5", "44 1/2", "44-1/2", "44½", "44 ½", '44 1/2"', "44.5 in", "44½″"):
            self.assertEqual(read_length(text, "in").ticks, 44 * INCH + INCH // 2, text)
        for text in ("3' 8-1/2\"", "3′8½″", "3ft 8 1/2in", "3 ft 8.5 in", "3'-8 1/2\""):
            self.assertEqual(read_length(text, "in").ticks, 44 * INCH + INCH // 2, text)

    def test_feet_and_metric(self) -> None:
        self.assertEqual(read_length("6ft 5in", "mm").ticks, 77 * INCH)
        self.assertEqual(read_length("9ft", "in").ticks, 9 * TICKS_PER_FOOT)
        self.assertEqual(read_length("735mm", "in").ticks, 735 * TICKS_PER_MM)
        self.assertEqual(read_length("73.5 cm", "in").ticks, 735 * TICKS_PER_MM)
        self.assertEqual(read_length("1.2 m", "in").ticks, 1200 * TICKS_PER_MM)

    def test_a_bare_number_is_in_the_unit_given(self) -> None:
        self.assertEqual(read_length("44", Unit.INCH).ticks, 44 * INCH)
        self.assertEqual(read_length("44", Unit.MM).ticks, 44 * TICKS_PER_MM)

    def test_an_inch_is_25_4_mm(self) -> None:
        """International yard and pound agreement, 1959: 1 in is exactly 25.4 mm."""
        self.assertEqual(read_length("25.4mm", "in").ticks, INCH)
        self.assertEqual(read_length("1/64", "in").ticks, 127)

    def test_a_decimal_between_ticks_is_rounded_and_says_so(self) -> None:
        read = read_length("0.1", "in")
        self.assertTrue(read.rounded)
        self.assertEqual(read.ticks, 813)
        self.assertFalse(read_length("0.5", "in").rounded)

    def test_a_decimal_comma_is_refused(self) -> None:
        with self.assertRaisesRegex(LengthError, "point, not a comma"):
            read_length("1,82 m", "in")

    def test_nonsense_is_refused_at_its_column(self) -> None:
        for text, column, words in (
            ("abc", 1, "a number is expected"),
            ("", 1, "missing"),
            ("44 x", 4, "should end here"),
            ("44 1/2 1/2", 8, "should end here"),
            ("44 1/3", 4, "not on a tape"),
            ("44½½", 4, "should end here"),
            ("5/4", 1, "a whole inch or more"),
            ("44 5/4", 4, "a whole inch or more"),
            ("12' 14 3/4 1/2", 5, "below 12"),
            ("3.5' 2", 1, "must be whole"),
            ("3' 2mm", 4, "only inches can follow"),
            ("44 1/2 mm", 1, "decimals, not fractions"),
            ("-4", 1, "a number is expected"),
            ("2000000 m", 1, "longer than a kilometre"),
            ("1" * 40, 1, "too long"),
        ):
            with self.assertRaises(LengthError, msg=text) as caught:
                read_length(text, "in")
            self.assertEqual(caught.exception.column, column, text)
            self.assertIn(words, str(caught.exception))

    @given(st.text(max_size=20))
    def test_any_text_is_read_or_refused(self, text: str) -> None:
        try:
            self.assertGreaterEqual(read_length(text, "in").ticks, 0)
        except CarpentryError as error:
            self.assertTrue(str(error))


class WritingTest(TestCase):
    @given(TICKS, st.sampled_from(Unit))
    def test_the_interchange_text_reads_back_to_the_same_ticks(
        self, ticks: int, unit: Unit
    ) -> None:
        read = read_length(interchange(ticks, unit), unit)
        self.assertEqual(read.ticks, ticks)
        self.assertFalse(read.rounded)

    @given(TICKS, st.sampled_from(Notation))
    def test_what_is_shown_as_exact_reads_back(self, ticks: int, notation: Notation) -> None:
        written = write_length(ticks, notation)
        if written.exact:
            self.assertEqual(read_length(written.text, "in").ticks, ticks)

    @given(TICKS, st.sampled_from([8, 16, 32]))
    def test_rounding_is_never_off_by_more_than_half_a_step(self, ticks: int, step: int) -> None:
        notation = {8: Notation.FEET, 16: Notation.SIXTEENTHS, 32: Notation.THIRTY_SECONDS}[step]
        shown = read_length(write_length(ticks, notation).text, "in").ticks
        self.assertLessEqual(abs(shown - ticks) * 2 * (16 if step == 8 else step), INCH)

    def test_notations(self) -> None:
        ticks = read_length("44 5/8", "in").ticks
        shown = {n.value: write_length(ticks, n).text for n in Notation}
        self.assertEqual(shown["1/16"], "44 5/8″")
        self.assertEqual(shown["decimal"], "44.625″")
        self.assertEqual(shown["feet"], "3′ 8 5/8″")
        self.assertEqual(write_length(read_length("735mm", "mm").ticks, "mm").text, "735 mm")
        self.assertEqual(write_length(2 * TICKS_PER_FOOT, "feet").text, "2′")
        self.assertEqual(write_length(0, "1/32").text, "0″")
        self.assertEqual(write_length(INCH // 2, "1/32").text, "1/2″")
        self.assertFalse(write_length(INCH // 32, "1/16").exact)

    def test_what_stock_lengths_are_sold_as(self) -> None:
        self.assertEqual(sold_name(8 * TICKS_PER_FOOT, "mm"), "8 ft")
        self.assertEqual(sold_name(2400 * TICKS_PER_MM, "1/32"), "2400 mm")
        self.assertEqual(sold_name(read_length("92 5/8", "in").ticks, "1/32"), "92 5/8″")
