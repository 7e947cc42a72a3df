from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from carpentry.design import (
    MAX_PARTS,
    Part,
    PartFields,
    not_planned_yet,
    read_entry,
    read_lines,
    read_part,
    read_parts_csv,
    write_parts_csv,
)
from carpentry.language import TICKS_PER_FOOT, TICKS_PER_INCH, TICKS_PER_MM, CarpentryError
from carpentry.lumber import INCHES, standard_section
from carpentry.tests.samples import sample


def brief(part: Part) -> tuple[int, str, str, str]:
    return part.quantity, part.name, str(part.stock), part.length.text


def problems_of(error: CarpentryError) -> dict[str, str]:
    return {problem.place: problem.message for problem in error.problems}


class EntryTest(TestCase):
    def test_typed_lines(self) -> None:
        for line, expected in (
            ("6 bearers 2x6 44 1/2", (6, "bearers", "2x6", "44 1/2")),
            ("bearer 2x6 treated 44½", (1, "bearer", "2x6 treated", "44½")),
            ("6x bearer 2 x 6 3' 8-1/2\"", (6, "bearer", "2x6", "3' 8-1/2\"")),
            ("6 × back rail 2×4 treated 9ft", (6, "back rail", "2x4 treated", "9ft")),
            ("8 2x4 treated 36", (8, "2x4 treated", "2x4 treated", "36")),
            ("6 x 2x4 36", (6, "2x4", "2x4", "36")),
            ("2x4 36", (1, "2x4", "2x4", "36")),
            ("4 post 4x2 1.2 m", (4, "post", "2x4", "1.2 m")),
            ("3 stud 2x4x8", (3, "stud", "2x4", "8ft")),
            ("1 cap 5/4x6 cedar 735mm", (1, "cap", "5/4x6 cedar", "735mm")),
            ("2 bottom ply 1/2 30 x 24", (2, "bottom", "ply 1/2", "30")),
        ):
            self.assertEqual(brief(read_entry(line, INCHES)), expected, line)

    def test_faults_name_their_field(self) -> None:
        for line, place, words in (
            ("4 shelf 2x13 36", "stock", "2x13"),
            ("2 something 12", "stock", "name the stock"),
            ("12 slat 1x6 cedar", "length", "missing"),
            ("2x6 4x4 20", "length", "end here"),
            ("0 brace 2x4 18", "quantity", "makes nothing"),
            ("3 panel ply 1/2 30", "width", "needs a width"),
            ("3 stud 2x4 0", "length", "measure nothing"),
        ):
            with self.assertRaises(CarpentryError, msg=line) as caught:
                read_entry(line, INCHES)
            self.assertIn(words, problems_of(caught.exception).get(place, ""), line)

    def test_pasted_rows_with_and_without_a_header(self) -> None:
        expected = [(8, "upright", "2x4 treated", "36"), (6, "tie", "2x4 treated", "32 1/2")]
        for text in (
            "quantity\tname\tstock\tlength\n8\tupright\t2x4 treated\t36\n"
            "6\ttie\t2x4 treated\t32 1/2",
            "8\tupright\t2x4 treated\t36\n6\ttie\t2x4 treated\t32 1/2\n",
            "Qty\tWhat\tLumber\tCut to\n8\tupright\t2x4 treated\t36\n6\ttie\t2x4 treated\t32 1/2",
            "upright\t2x4 treated\t8\t36\ntie\t2x4 treated\t6\t32 1/2",
            "8,upright,2x4 treated,36\n6,tie,2x4 treated,32 1/2",
            "Stock;Length;Name;Quantity\n2x4 treated;36;upright;8\n2x4 treated;32 1/2;tie;6",
            "8 upright 2x4 treated 36\n6 tie 2x4 treated 32 1/2",
        ):
            self.assertEqual([brief(part) for part in read_lines(text, INCHES)], expected, text)

    def test_which_column_is_what_is_decided_over_all_rows(self) -> None:
        """Worked by hand: the quantity is whole and the smaller of two numbers, wherever it is."""
        for text, expected in (
            ("Leg\t4x4\t36\t4", [(4, "Leg", "4x4", "36")]),
            ("Leg\t4x4\t4\t36", [(4, "Leg", "4x4", "36")]),
            (
                "Leg\t4x4\t36\t4\nRail\t2x4\t8 1/2\t12",
                [(4, "Leg", "4x4", "36"), (12, "Rail", "2x4", "8 1/2")],
            ),
            ("2x4;PT;8;uprights;36", [(8, "uprights", "2x4 treated", "36")]),
        ):
            self.assertEqual([brief(part) for part in read_lines(text, INCHES)], expected, text)

    def test_headings_of_other_tables(self) -> None:
        for text, expected in (
            ("Qty,Part,Size,Material,Cut length\n4,Leg,4x4,PT,36", (4, "Leg", "4x4 treated", "36")),
            ("Item,Count,Lumber,L (in)\nLeg,4,4x4,36", (4, "Leg", "4x4", "36in")),
            ("Description;No.;Section;Len;Notes\nLeg;4;4x4;36;front", (4, "Leg", "4x4", "36")),
            (
                "Teil\tAnzahl\tQuerschnitt\tLänge mm\nBein\t4\t38x89\t900",
                (4, "Bein", "38x89", "900mm"),
            ),
            ("count,part,stock,length\n4,Leg,4x4 treated,36", (4, "Leg", "4x4 treated", "36")),
            ("Part,Qty,L,Material\nLeg,4,36,2x4 PT", (4, "Leg", "2x4 treated", "36")),
            ("Description,Qty,L\n2x4 PT,4,36", (4, "2x4 treated", "2x4 treated", "36")),
            (
                "Part,Stock,Length,Species\nLeg,1x6,36,Western Red Cedar",
                (1, "Leg", "1x6 cedar red western", "36"),
            ),
        ):
            (part,) = read_parts_csv(text.encode(), INCHES)
            self.assertEqual(brief(part), expected, text)

    def test_a_list_without_a_header(self) -> None:
        parts = read_parts_csv(b"4,Leg,4x4,36\n2,Rail,2x4,40 1/2\n", INCHES)
        self.assertEqual(brief(parts[1]), (2, "Rail", "2x4", "40 1/2"))

    def test_columns_as_the_builder_says(self) -> None:
        text = "Leg\t4x4\t36\t4"
        (part,) = read_lines(text, INCHES, chosen=("name", "stock", "quantity", "length"))
        self.assertEqual(brief(part), (36, "Leg", "4x4", "4"))

    def test_numbers_in_words_in_a_typed_line(self) -> None:
        for line, quantity in (("two back posts 4x4 36", 2), ("a dozen slats 1x4 30", 12)):
            self.assertEqual(read_entry(line, INCHES).quantity, quantity, line)

    def test_a_wood_before_the_size_is_the_stock_s(self) -> None:
        for line, name, stock in (
            ("4 PT 2x4 96", "2x4 treated", "2x4 treated"),
            ("4 treated posts 4x4 36", "treated posts", "4x4 treated"),
        ):
            part = read_entry(line, INCHES)
            self.assertEqual((part.name, str(part.stock)), (name, stock), line)
        doubted = read_entry("6 cedar slats 1x4 30", INCHES)
        self.assertEqual((doubted.name, str(doubted.stock)), ("cedar slats", "1x4"))
        self.assertIn("write cedar after its size", doubted.warnings[0])

    def test_every_line_of_a_paste_is_told(self) -> None:
        with self.assertRaises(CarpentryError) as caught:
            read_lines("6 a 2x4 20\n3 b 2x4\n0 c 2x4 8", INCHES)
        self.assertEqual(set(problems_of(caught.exception)), {"line 2, length", "line 3, quantity"})

    @given(st.text(max_size=40))
    def test_any_line_is_read_or_refused(self, line: str) -> None:
        try:
            read_lines(line, INCHES)
        except CarpentryError as error:
            self.assertTrue(error.problems)


class CsvTest(TestCase):
    def test_the_compost_station(self) -> None:
        parts = read_parts_csv(sample("compost-station.parts.csv"), INCHES)
        self.assertEqual(sum(part.quantity for part in parts), 81)
        by_name = {part.name: part for part in parts}
        self.assertEqual(by_name["cross tie"].length.ticks, 65 * TICKS_PER_INCH // 2)
        self.assertEqual(by_name["back rail"].length.ticks, 9 * TICKS_PER_FOOT)
        self.assertEqual(str(by_name["cross tie"].stock), "2x4 treated")

    def test_marks_semicolons_and_a_decimal_comma(self) -> None:
        parts = read_parts_csv(sample("bin-screen-semicolon-bom.parts.csv"), INCHES)
        self.assertEqual(parts[1].length.ticks, 1820 * TICKS_PER_MM)
        self.assertEqual(parts[1].length.text, "1.82 m")

    def test_every_fault_of_the_broken_list_by_line(self) -> None:
        with self.assertRaises(CarpentryError) as caught:
            read_parts_csv(sample("broken.parts.csv"), INCHES)
        places = [problem.place for problem in caught.exception.problems]
        self.assertEqual(
            places,
            [
                "line 3, quantity",
                "line 4, quantity",
                "line 5, stock",
                "line 6, length",
                "line 7, length",
                "line 8",
            ],
        )

    def test_faults_of_the_file_itself(self) -> None:
        for data, words in (
            (b"", "must name the columns"),
            (b"quantity,name,stock,length\n", "nothing under the header"),
            (b"quantity,name,stock\n1,a,2x4\n", "“length” is missing"),
            (b"quantity,name,stock,length,name\n1,a,2x4,9,b\n", "there twice"),
            (b"quantity,name,stock,length\n1,a,2x4,9,9,9\n", "more cells than columns"),
            (b"quantity,name,stock,length\n1,\xff,2x4,9\n", "not UTF-8"),
            (b'quantity,name,stock,length\n1,a"b,2x4,"9"x\n', "quotation marks are wrong"),
        ):
            with self.assertRaises(CarpentryError, msg=data) as caught:
                read_parts_csv(data, INCHES)
            self.assertIn(words, str(caught.exception))

    def test_the_limit_is_named(self) -> None:
        rows = "1,a,2x4,9\n" * (MAX_PARTS + 1)
        with self.assertRaisesRegex(CarpentryError, "2,001 rows are more than 2,000"):
            read_parts_csv(f"quantity,name,stock,length\n{rows}".encode(), INCHES)

    def test_a_written_list_reads_back(self) -> None:
        parts = read_parts_csv(sample("compost-station.parts.csv"), INCHES)
        again = read_parts_csv(write_parts_csv(parts).encode(), INCHES)
        self.assertEqual([p.fields for p in again], [p.fields for p in parts])


class PartTest(TestCase):
    def test_all_faults_at_once(self) -> None:
        typed = PartFields(quantity="x", stock="9x9", length="", ends="80 0", clear="maybe")
        with self.assertRaises(CarpentryError) as caught:
            read_part(typed, INCHES)
        places = {problem.place for problem in caught.exception.problems}
        self.assertEqual(places, {"quantity", "stock", "length", "ends", "clear"})

    def test_what_is_not_planned_yet(self) -> None:
        def reason(**typed: str) -> str | None:
            part = read_part(PartFields(**{"stock": "2x4", "length": "20"} | typed), INCHES)
            return not_planned_yet(part, standard_section(part.stock))

        self.assertIsNone(reason())
        self.assertIsNone(reason(width="3 1/2", thickness="1 1/2", ends="0 0"))
        self.assertIsNone(reason(ends="20 -20"))
        self.assertIn("ends meet", reason(ends="75 75") or "")
        self.assertIn("width", reason(width="1 1/2") or "")
        self.assertIn("thickness", reason(thickness="3/4") or "")
        self.assertIn("more than the width", reason(width="4") or "")
        self.assertIn("sheet", reason(stock="ply 1/2", width="20") or "")
        self.assertIn("name one, such as 8/4x6", reason(stock="8/4 walnut") or "")
        self.assertIsNone(reason(stock="8/4x6 walnut"))

    def test_a_length_in_the_name_moves_to_its_field(self) -> None:
        for stock, length in (("2x4x8", ""), ("4x2x8 ", "8ft")):
            part = read_part(PartFields(stock=stock, length=length), INCHES)
            self.assertEqual((part.fields.stock, part.fields.length), ("2x4", "8ft"))

    def test_a_stock_length_and_a_length_must_agree(self) -> None:
        typed = PartFields(stock="2x4x8", length="90")
        with self.assertRaisesRegex(CarpentryError, "says another length"):
            read_part(typed, INCHES)
