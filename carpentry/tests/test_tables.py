"""Rows, headers and JSON documents: how faults are found and placed."""

import json
from decimal import Decimal
from unittest import TestCase

from carpentry.language import (
    CarpentryError,
    Column,
    Columns,
    Faults,
    Problem,
    Reader,
    Row,
    Unit,
    decode,
    parse_json,
    read_heading,
    split_rows,
    split_text,
    table_of_rows,
    table_of_text,
)

KNOWN = Columns(("name", "size", "note"), {"l": "size", "länge": "size"}, ("name",), ("size",))


class TableTest(TestCase):
    def test_rows_know_the_line_they_begin_on(self) -> None:
        rows, problems = split_rows('name,note\n"a\nb",1\n\nc,2\n', ",")
        self.assertEqual([row.line for row in rows], [1, 2, 5])
        self.assertEqual(problems, [])

    def test_the_delimiter_under_which_the_header_makes_sense(self) -> None:
        for delimiter in (",", ";", "\t"):
            text = delimiter.join(("Name", " SIZE ")) + f"\nx{delimiter}1\n"
            found = split_text(text, KNOWN)
            assert found is not None
            self.assertEqual(found[0], delimiter)
        self.assertIsNone(split_text("x 1\n", KNOWN))
        self.assertIsNone(split_text("", KNOWN))

    def test_headings_in_other_words_and_with_units(self) -> None:
        for heading, name, unit in (
            ("Size", "size", None),
            ("SIZES:", "size", None),
            ("L (in)", "size", Unit.INCH),
            ("Länge mm", "size", Unit.MM),
            ("size [mm]", "size", Unit.MM),
            ("size, inches", "size", Unit.INCH),
            ("colour", "", None),
        ):
            self.assertEqual(read_heading(heading, KNOWN), (name, unit), heading)

    def test_bare_numbers_take_the_unit_of_their_heading(self) -> None:
        rows = [Row(1, ("name", "L (mm)")), Row(2, ("a", "900")), Row(3, ("b", "3 ft"))]
        table = table_of_rows(rows, KNOWN)
        self.assertEqual([r["size"] for _, r in table.records()], ["900mm", "3 ft"])

    def test_records_by_name_whatever_the_order(self) -> None:
        table = table_of_text("SIZE;name\n1,5;a,b\n", KNOWN)
        assert table is not None
        self.assertTrue(table.decimal_comma)
        _, record = next(iter(table.records()))
        self.assertEqual(record, {"size": "1.5", "name": "a,b"})

    def test_the_apostrophe_before_a_formula_is_taken_off(self) -> None:
        table = table_of_rows([Row(1, ("name", "size")), Row(2, ("'=1+1", "'-5"))], KNOWN)
        self.assertEqual(next(iter(table.records()))[1], {"name": "=1+1", "size": "-5"})
        table = table_of_rows([Row(1, ("name", "size")), Row(2, ("'tis", "5"))], KNOWN)
        self.assertEqual(next(iter(table.records()))[1]["name"], "'tis")

    def test_short_rows_and_columns_that_are_not_used(self) -> None:
        rows = [Row(1, ("name", "colour", "size")), Row(2, ("a",)), Row(3, ("b", "x", "2"))]
        table = table_of_rows(rows, KNOWN)
        self.assertEqual([column.name for column in table.columns], ["name", "", "size"])
        self.assertEqual(table.columns[1], Column("", "colour", None, "x"))
        records = [record for _, record in table.records()]
        self.assertEqual(records, [{"name": "a"}, {"name": "b", "size": "2"}])

    def test_columns_as_the_builder_says(self) -> None:
        rows = [Row(1, ("name", "colour", "size")), Row(2, ("a", "red", "2"))]
        table = table_of_rows(rows, KNOWN, chosen=("note", "name", ""))
        self.assertEqual(next(iter(table.records()))[1], {"note": "a", "name": "red"})
        (problem,) = table_of_rows(rows, KNOWN, chosen=("note", "note", "name")).problems
        self.assertIn("“note” is there twice", problem.message)

    def test_bytes(self) -> None:
        self.assertEqual(decode(b"\xef\xbb\xbfname"), "name")
        with self.assertRaises(CarpentryError) as caught:
            decode(b"a\nb\n\xff")
        self.assertEqual(caught.exception.problems[0].place, "line 3")


class DocumentTest(TestCase):
    def read(self, document: object) -> Reader:
        return Reader(parse_json(json.dumps(document)))

    def told(self, reader: Reader) -> dict[str, str]:
        return {problem.place: problem.message for problem in reader.problems}

    def test_good_fields(self) -> None:
        reader = self.read(
            {"t": "x", "n": 3, "f": True, "l": "1 1/2", "p": "7.15", "in": {"c": "b"}, "it": [{}]}
        )
        self.assertEqual(reader.text("t"), "x")
        self.assertEqual(reader.whole("n", most=5), 3)
        self.assertTrue(reader.flag("f", False))
        self.assertEqual(reader.ticks("l", Unit.INCH), 12192)
        self.assertEqual(reader.price("p"), Decimal("7.15"))
        self.assertEqual(reader.inside("in").choice("c", ("a", "b"), "a"), "b")
        self.assertEqual(len(list(reader.items("it", most=1))), 1)
        reader.refuse_unknown()
        reader.raise_problems()

    def test_defaults(self) -> None:
        reader = self.read({})
        self.assertEqual(reader.text("t", "d"), "d")
        self.assertEqual(reader.whole("n", 4, most=5), 4)
        self.assertFalse(reader.flag("f", False))
        self.assertEqual(list(reader.items("it", most=1, required=False)), [])
        self.assertEqual(reader.problems, [])

    def test_every_fault_under_its_path(self) -> None:
        reader = self.read(
            {
                "t": 1,
                "e": " ",
                "n": True,
                "b": 99,
                "f": "yes",
                "p": 7.15,
                "c": "z",
                "o": [],
                "it": [1, {"x": ""}],
                "many": [{}, {}],
                "new": 0,
            }
        )
        reader.text("t")
        reader.text("e")
        reader.text("gone")
        reader.whole("n", most=5)
        reader.whole("b", most=5)
        reader.whole("none", most=5)
        reader.flag("f", False)
        reader.price("p")
        reader.choice("c", ("a",), "a")
        reader.inside("o")
        for item in reader.items("it", most=5):
            item.text("x")
        list(reader.items("many", most=1))
        list(reader.items("absent", most=1))
        reader.refuse_unknown()
        told = self.told(reader)
        for place, words in {
            "t": "must be text",
            "e": "is empty",
            "gone": "is missing",
            "n": "whole number",
            "b": "from 0 to 5",
            "none": "is missing",
            "f": "true or false",
            "p": "must be text",
            "c": "one of a",
            "o": "must be an object",
            "it[0]": "must be an object",
            "it[1].x": "is empty",
            "many": "2 entries, more than 1",
            "absent": "is missing",
            "new": "no field",
        }.items():
            self.assertIn(words, told.get(place, f"nothing at {place}"))
        with self.assertRaises(CarpentryError):
            reader.raise_problems()

    def test_text_that_is_no_json_says_where(self) -> None:
        with self.assertRaises(CarpentryError) as caught:
            parse_json('{"a": 1,\n}')
        self.assertEqual(caught.exception.problems[0].place, "line 2")


class ErrorsTest(TestCase):
    def test_a_problem_in_words(self) -> None:
        self.assertEqual(str(Problem("line 2", "is wrong")), "line 2: is wrong")
        self.assertEqual(str(Problem("", "is wrong")), "is wrong")
        error = CarpentryError([Problem("a", "x"), Problem("b", "y")])
        self.assertEqual(str(error), "a: x\nb: y")

    def test_faults_gather(self) -> None:
        faults = Faults()

        def fail() -> int:
            raise CarpentryError("no")

        self.assertEqual(faults.attempt("a", lambda: 5, 0), 5)
        self.assertEqual(faults.attempt("b", fail, 7), 7)
        faults.add("c", "never")
        with self.assertRaises(CarpentryError) as caught:
            faults.raise_any()
        self.assertEqual([p.place for p in caught.exception.problems], ["b", "c"])
        Faults().raise_any()
