"""Measures: what formulas mean, checked against figures worked by hand, Python's own rational
arithmetic on trees that were never written down, and identities of trigonometry."""

import json
import math
import random
from dataclasses import dataclass
from fractions import Fraction
from itertools import pairwise
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from carpentry.design.measures import (
    Formula,
    Kind,
    Reference,
    Value,
    Worked,
    as_length,
    number,
    read_formula,
    renamed,
    used_by,
    work_out,
    work_out_formulas,
    worked_document,
)
from carpentry.language import TICKS_PER_INCH, TICKS_PER_MM, CarpentryError, Faults, Unit
from carpentry.tests import often

KNOWN = {
    "opening": number(72),
    "slat gap": number(Fraction(3, 8)),
    "lean": Value(Kind.ANGLE, Fraction(8)),
    "bays": Value(Kind.COUNT, Fraction(3)),
}


def look(reference: Reference) -> Value:
    return Value(Kind.LENGTH, Fraction(7, 2) * TICKS_PER_INCH)


def worth(text: str, unit: Unit = Unit.INCH) -> Value:
    return read_formula(text, unit).value(KNOWN, look)


def inches(text: str) -> Fraction:
    return as_length(worth(text), Unit.INCH).amount / TICKS_PER_INCH


def why(text: str) -> str:
    try:
        worth(text)
    except CarpentryError as error:
        return str(error)
    raise AssertionError(f"{text} was not refused")


class FigureTest(TestCase):
    def test_a_mixed_number_is_one_figure(self) -> None:
        self.assertEqual(worth("18 5/8"), number(Fraction(149, 8)))
        self.assertEqual(worth("100 - 18 5/8"), number(Fraction(651, 8)))
        self.assertEqual(worth("18½ / 2"), number(Fraction(37, 4)))
        self.assertEqual(worth("12 / 6 / 3"), number(Fraction(2, 3)))

    def test_a_figure_with_a_unit_or_a_mark_is_a_length(self) -> None:
        for text, expected in (
            ("3' 8 1/2\"", Fraction(89, 2)),
            ("6ft 5in", Fraction(77)),
            ("3'-8\"", Fraction(44)),
            ('5/8"', Fraction(5, 8)),
            ("254 mm", Fraction(10)),
            ("1.27 m", Fraction(50)),
            ("7.5''", Fraction(15, 2)),
        ):
            self.assertEqual(worth(text).kind, Kind.LENGTH, text)
            self.assertEqual(inches(text), expected, text)

    def test_a_bare_figure_stands_for_a_length_in_the_unit(self) -> None:
        self.assertEqual(worth("3 + 1in").amount, 4 * TICKS_PER_INCH)
        mixed = read_formula("3 + 1in", Unit.MM).value({}, look)
        self.assertEqual(mixed.amount, 3 * TICKS_PER_MM + TICKS_PER_INCH)

    def test_what_can_be_read_two_ways_is_asked_about(self) -> None:
        self.assertIn("write 44 1/2, or 44 - 1/2", why("44-1/2"))
        self.assertEqual(worth("44 - 1/2"), number(Fraction(87, 2)))
        self.assertEqual(worth("61-18 5/8"), number(Fraction(339, 8)))

    def test_names_of_several_words(self) -> None:
        formula = read_formula("opening - 2 * slat  gap", Unit.INCH)
        self.assertEqual(formula.names, ("opening", "slat gap"))
        self.assertEqual(worth("opening - 2 * slat gap"), number(Fraction(285, 4)))

    def test_what_is_said_of_parts_and_runs(self) -> None:
        formula = read_formula("opening - 2 * width of A + gap of field pickets", Unit.INCH)
        self.assertEqual(
            formula.references, (Reference("width", "A"), Reference("gap", "field pickets"))
        )
        self.assertEqual(inches("opening - 2 * width of AB"), 65)
        self.assertIn("colour", why("colour of A"))
        self.assertIn("gap, count, last", why("width of pickets"))

    def test_specimens(self) -> None:
        barrels = "of 23 1/8, 23 3/16, 22 7/8"
        self.assertEqual(worth(f"largest {barrels}"), number(Fraction(371, 16)))
        self.assertEqual(worth(f"smallest {barrels}"), number(Fraction(183, 8)))
        self.assertEqual(worth(f"spread {barrels}"), number(Fraction(5, 16)))
        self.assertEqual(worth(f"largest {barrels} plus 1/8"), number(Fraction(373, 16)))


class KindTest(TestCase):
    def test_what_goes_together(self) -> None:
        for text, kind in (
            ("2 * 3in", Kind.LENGTH),
            ("3in / 2in", Kind.NUMBER),
            ("opening / 3 1/2in", Kind.NUMBER),
            ("3in - opening", Kind.LENGTH),
            ("90° - lean", Kind.ANGLE),
            ("lean * 2", Kind.ANGLE),
            ("lean / 2°", Kind.NUMBER),
            ("bays + bays", Kind.COUNT),
            ("bays + 1", Kind.NUMBER),
            ("bays * 3in", Kind.LENGTH),
            ("floor(7.5)", Kind.COUNT),
            ("floor(7.5in)", Kind.LENGTH),
            ("atan2(3in, 4)", Kind.ANGLE),
            ("hypot(3in, 4)", Kind.LENGTH),
            ("sin(lean)", Kind.NUMBER),
        ):
            self.assertEqual(worth(text).kind, kind, text)

    def test_what_does_not_is_refused_in_words(self) -> None:
        for text, said in (
            ("3in * 2in", "an area"),
            ("3in + 8°", "an angle and a length do not add"),
            ("opening + lean", "write the degrees with °"),
            ("3in + bays", "a count and a length do not add"),
            ("lean * lean", "cannot be multiplied"),
            ("bays / 3in", "cannot be divided"),
            ("3in / lean", "cannot be divided"),
            ("1 / (opening - 72)", "divided by 0"),
            ("sqrt(4in)", "a length has no root"),
            ("sqrt(1 - 2)", "below 0 has no root"),
            ("sin(8)", "takes an angle"),
            ("tan(270°)", "without end"),
            ("atan2(0, 0)", "have no angle"),
            ("atan2(1°, 1°)", "not angles"),
            ("hypot(3)", "two sides"),
            ("round(3, 0)", "above 0"),
            ("round(3, 1, 2)", "after a comma"),
            ("sqrt(1, 2)", "one figure, not 2"),
            ("999 m * 9999", "longer than a kilometre"),
            ("1001 m", "longer than a kilometre"),
        ):
            self.assertIn(said, why(text), text)


class BadFormulaTest(TestCase):
    def test_each_is_refused_at_its_column(self) -> None:
        for text, said in (
            ("", "a formula is missing"),
            ("3 +", "it ends where"),
            ("(3 + 1", "“)” is missing"),
            ("3 + 1)", "“)” (column 6) closes nothing"),
            ("2 post", "before “post” (column 3) it is not said what to do"),
            ("Opening - 1", "lower-case words (column 1)"),
            ("3 % 2", "“%” means nothing here (column 3)"),
            ("1,5", "with a point, not a comma"),
            ("min()", "instead of “)” (column 5)"),
            ("lots(3)", "“lots” is no function: min, max"),
            ("1 + 18 1/3", "1/3 is not on a tape: use halves, quarters, 8ths … 64ths (column 8)"),
            ("__import__('os')", "means nothing here"),
            ("9" * 40, "too long"),
        ):
            self.assertIn(said, why(text), text)

    def test_the_longest_and_the_deepest_are_refused_at_once(self) -> None:
        self.assertIn("500 characters", why("1+" * 5_000 + "1"))
        self.assertIn("500 characters", why("(" * 1_000 + "1" + ")" * 1_000))
        self.assertIn("40 deep", why("(" * 100 + "1" + ")" * 100))
        self.assertEqual(worth("-" * 499 + "1"), number(-1))
        self.assertEqual(worth("(" * 40 + "1" + ")" * 40), number(1))

    def test_figures_do_not_grow_without_end(self) -> None:
        told = work_out(
            {"a": "9999999999999"}
            | {f"a{'b' * n}": f"a{'b' * (n - 1)} * a{'b' * (n - 1)}" for n in range(1, 9)},
            Unit.INCH,
        )
        self.assertIn("grow too long", told.problems[0].message)


@dataclass
class Tree:
    """A formula that was made up, with what it comes to."""

    text: str
    amount: Fraction


def made_up(chance: random.Random, deep: int) -> Tree:
    if not deep or chance.random() < 0.2:
        whole, eighths = chance.randint(0, 99), chance.randint(1, 7)
        part = Fraction(eighths, 8)
        return chance.choice(
            [
                Tree(str(whole), Fraction(whole)),
                Tree(f"{whole} {part}", whole + part),
                Tree(f"{whole}.{eighths}", Fraction(f"{whole}.{eighths}")),
            ]
        )
    one, other = made_up(chance, deep - 1), made_up(chance, deep - 1)
    way = chance.choice("+-*/m")
    if way == "m":
        return Tree(f"max({one.text}, {other.text})", max(one.amount, other.amount))
    if way == "/" and not other.amount:
        way = "+"
    amount = {
        "+": lambda: one.amount + other.amount,
        "-": lambda: one.amount - other.amount,
        "*": lambda: one.amount * other.amount,
        "/": lambda: one.amount / other.amount,
    }[way]()
    return Tree(f"({one.text} {way} {other.text})", amount)


class ExactTest(TestCase):
    @settings(max_examples=often(80, 300), deadline=None)
    @given(st.integers(0, 10**9))
    def test_against_rational_arithmetic(self, seed: int) -> None:
        tree = made_up(random.Random(seed), 4)
        if len(tree.text) <= 500:
            self.assertEqual(worth(tree.text).amount, tree.amount, tree.text)

    def test_nothing_adds_up_of_what_is_rounded(self) -> None:
        told = work_out({"third": "57 1/2 / 3", "back": "third * 3"}, Unit.INCH)
        self.assertEqual(told.values["back"], number(Fraction(115, 2)))

    @settings(max_examples=often(60, 200), deadline=None)
    @given(st.integers(1, 899), st.integers(1, 1_000), st.integers(1, 1_000))
    def test_roots_and_angles_keep_twelve_digits(self, tenths: int, a: int, b: int) -> None:
        """Against identities: sin² + cos² = 1, tan = sin ÷ cos, and an angle from its own sides."""
        angle = f"{tenths / 10}°"
        one = worth(f"sin({angle}) * sin({angle}) + cos({angle}) * cos({angle})").amount
        self.assertAlmostEqual(float(one), 1, 11)
        ratio = worth(f"tan({angle}) * cos({angle}) / sin({angle})").amount
        self.assertAlmostEqual(float(ratio), 1, 9)
        root = worth(f"sqrt({a})").amount
        self.assertLess(abs(root * root - a), Fraction(a, 10**11))
        back = worth(f"tan(atan2({a}, {b})) * {b} / {a}").amount
        self.assertAlmostEqual(float(back), 1, 7)
        self.assertEqual(worth(f"hypot({3 * a}, {4 * a})").amount, 5 * a)

    def test_half_a_circle_in_known_places(self) -> None:
        self.assertEqual(worth("cos(90°)").amount, 0)
        self.assertEqual(worth("sin(30°)").amount, Fraction(1, 2))
        self.assertEqual(worth("tan(45°)").amount, 1)
        self.assertAlmostEqual(float(worth("atan2(1, 1)").amount), 45, 9)
        self.assertAlmostEqual(float(worth("sqrt(2)").amount), math.sqrt(2), 11)

    def test_rounding_is_half_up(self) -> None:
        self.assertEqual(worth("round(7 3/16, 1/8)").amount, Fraction(29, 4))
        self.assertEqual(worth("ceil(7.01)").amount, 8)
        self.assertEqual(worth("floor(0 - 7.01)").amount, -8)
        self.assertEqual(inches("round(10mm, 1/16)"), Fraction(3, 8))


class SheetTest(TestCase):
    def problems(self, **measures: str) -> dict[str, str]:
        told = work_out(
            {name.replace("_", " "): text for name, text in measures.items()}, Unit.INCH
        )
        return {problem.place: problem.message for problem in told.problems}

    def test_trade_figures(self) -> None:
        """Worked by hand: (61 − 18 5/8) ÷ 2 = 21 3/16; two of a 10 ft 4x4 at a kerf of 1/8 and no
        trim are (120 − 1/8) ÷ 2 = 59 15/16."""
        told = work_out(
            {
                "shelf": "(opening - post) / 2",
                "opening": "61",
                "post": "18 5/8",
                "half": "(10ft - kerf) / 2",
                "kerf": "1/8",
            },
            Unit.INCH,
        )
        self.assertEqual(told.problems, ())
        self.assertEqual(told.values["shelf"].amount, Fraction(339, 16))
        self.assertEqual(told.values["half"].amount / TICKS_PER_INCH, Fraction(959, 16))

    def test_a_circle_is_told_with_its_chain_and_the_others_are_worked_out(self) -> None:
        told = work_out(
            {"rail": "post + 1", "post": "bay * 2", "bay": "rail", "top": "rail", "leg": "3"},
            Unit.INCH,
        )
        self.assertEqual(
            [(p.place, p.message) for p in told.problems],
            [("rail", "goes round in a circle: rail → post → bay → rail")],
        )
        self.assertEqual(dict(told.values), {"leg": number(3)})
        self.assertIn("rail → rail", self.problems(rail="rail + 1")["rail"])

    def test_every_fault_is_told_at_its_own_measure_only(self) -> None:
        found = self.problems(
            opening="72", rail="opning - 2", leg="1 / 0", foot="leg + 1", min="3", in_="4"
        )
        self.assertIn("“opning” is not known. Nearest known: opening", found["rail"])
        self.assertIn("divided by 0", found["leg"])
        self.assertNotIn("foot", found)
        self.assertIn("means something in formulas", found["min"])

    def test_names(self) -> None:
        for name in ("2x4", "Opening", "5", "a-b", "post of", "", "sin", "mm", "x" * 41):
            told = work_out({name: "1"}, Unit.INCH)
            self.assertEqual([p.place for p in told.problems], [name])
        for name in ("slat gap", "höhe", "shelf2", "inner", "of course"[3:]):
            self.assertEqual(work_out({name: "1"}, Unit.INCH).problems, ())

    def test_a_chain_of_all_that_there_may_be(self) -> None:
        names = [f"m{n}" for n in range(2_000)]
        chain = {name: f"{before} + 1/16" for before, name in pairwise(names)}
        told = work_out(dict(reversed(chain.items())) | {"m0": "1"}, Unit.INCH)
        self.assertEqual(told.values["m1999"].amount, 1 + Fraction(1999, 16))
        with self.assertRaisesRegex(CarpentryError, "2,000 at the most"):
            work_out({f"m{n}": "1" for n in range(2_001)}, Unit.INCH)


class FollowingTest(TestCase):
    """Parts that follow measures, and measures that follow parts."""

    def formulas(self, **texts: str) -> dict[str, Formula]:
        return {
            name.replace("_", " "): read_formula(text, Unit.INCH) for name, text in texts.items()
        }

    def work(
        self, formulas: dict[str, Formula], measured: dict[str, Value] | None = None
    ) -> tuple[dict[str, Fraction], Worked]:
        named = {name for name in formulas if " of " not in name}
        told = work_out_formulas(formulas, named, Faults(), look, measured or {})
        shown = {
            name: as_length(value, Unit.INCH).amount / TICKS_PER_INCH
            for name, value in told.values.items()
        }
        return shown, told

    def test_a_measure_follows_a_part_that_follows_a_measure(self) -> None:
        formulas = self.formulas(
            shelf="length of A - 2 * width of B", length_of_A="opening / 2", opening="72"
        )
        shown, told = self.work(formulas)
        self.assertEqual(told.problems, ())
        self.assertEqual(shown, {"opening": 72, "length of A": 36, "shelf": 29})

    def test_a_circle_through_a_part(self) -> None:
        formulas = self.formulas(length_of_A="rail + 1", rail="length of A - 1", leg="3")
        shown, told = self.work(formulas)
        self.assertEqual(
            [problem.message for problem in told.problems],
            ["goes round in a circle: length of A → rail → length of A"],
        )
        self.assertEqual(shown, {"leg": 3})

    def test_what_was_measured_holds_and_all_follows_it(self) -> None:
        formulas = self.formulas(opening="72", rail="opening - 2", half="rail / 2")
        measured = {"opening": number(Fraction(575, 8))}
        shown, told = self.work(formulas, measured)
        self.assertEqual(shown["opening"], Fraction(575, 8))
        self.assertEqual(shown["half"], Fraction(559, 16))
        self.assertEqual(told.computed, {"opening": number(72)})

    def test_what_was_measured_breaks_a_circle_and_mends_what_cannot_be_worked_out(self) -> None:
        formulas = self.formulas(a="b + 1", b="a + 1", c="1 / 0", d="c * 2")
        shown, told = self.work(formulas, {"a": number(5), "c": number(4)})
        self.assertEqual(shown, {"a": 5, "b": 6, "c": 4, "d": 8})
        self.assertEqual(told.computed, {"a": number(7)})

    def test_where_a_name_is_used(self) -> None:
        formulas = self.formulas(
            rail="opening - 2", length_of_A="rail", top="length of A + rail", opening="72"
        )
        self.assertEqual(used_by("rail", formulas), ["length of A", "top"])
        self.assertEqual(used_by("length of A", formulas), ["top"])
        self.assertEqual(used_by("top", formulas), [])

    def test_a_new_name_follows_everywhere_and_nowhere_else(self) -> None:
        for text, after in (
            ("rail - 2*rail stop + rail", "top rail - 2*rail stop + top rail"),
            ("gap of rail + rail", "gap of rail + top rail"),
            ("min(rail,3)+width of A", "min(top rail,3)+width of A"),
            ("largest of rail, 3 plus rail", "largest of top rail, 3 plus top rail"),
            ("3 5/8", "3 5/8"),
        ):
            self.assertEqual(renamed(read_formula(text, Unit.INCH), "rail", "top rail"), after)

    def test_a_thousand_circles_and_as_many_unknown_names_take_no_time(self) -> None:
        pairs = {f"a{n}": f"b{n} + 1" for n in range(1_000)}
        pairs |= {f"b{n}": f"a{n} + 1" for n in range(1_000)}
        self.assertEqual(len(work_out(pairs, Unit.INCH).problems), 1_000)
        unknown = {f"m{n}": f"opning{n}" for n in range(2_000)}
        self.assertEqual(len(work_out(unknown, Unit.INCH).problems), 2_000)


class DocumentTest(TestCase):
    def worked(self, **document: object) -> dict[str, tuple[str, str, bool]]:
        told = worked_document(json.dumps(document))["measures"]
        return {name: (one["kind"], one["value"], one["exact"]) for name, one in told.items()}

    def test_inches_are_fractions(self) -> None:
        measures = {
            "opening": "57 1/2",
            "rail": "opening - 2 * 1 3/4",
            "third": "opening / 3",
            "board": "245 mm",
            "short": "1 - 3 1/2",
            "bays": "ceil(opening / 16)",
            "lean": "atan2(1, 3)",
            "square": "90°",
        }
        self.assertEqual(
            self.worked(units="in", measures=measures),
            {
                "opening": ("number", "57 1/2", True),
                "rail": ("number", "54", True),
                "third": ("number", "19 5/32", False),
                "board": ("length", "9 21/32", False),
                "short": ("number", "-2 1/2", True),
                "bays": ("count", "4", True),
                "lean": ("angle", "18.434949", False),
                "square": ("angle", "90", True),
            },
        )

    def test_millimetres_are_decimals(self) -> None:
        measures = {"half": "1210 / 8", "inch": "1in", "third": "100 / 3"}
        self.assertEqual(
            self.worked(units="mm", measures=measures),
            {
                "half": ("number", "151.5", False),
                "inch": ("length", "25.5", False),
                "third": ("number", "33.5", False),
            },
        )
        fine = self.worked(units="mm", round="0.1", measures=measures)
        self.assertEqual(fine["inch"], ("length", "25.4", True))

    def test_every_fault_has_its_path(self) -> None:
        document = {
            "units": "in",
            "round": "0",
            "measures": {"a": "b", "b": "a", "c": 5, "d": "c + 1", "e": "width of A", "f": "2 x"},
            "rounding": "1/8",
        }
        with self.assertRaises(CarpentryError) as raised:
            worked_document(json.dumps(document))
        self.assertEqual(
            {problem.place for problem in raised.exception.problems},
            {"round", "rounding", "measures.a", "measures.c", "measures.e", "measures.f"},
        )

    def test_a_file_without_measures(self) -> None:
        with self.assertRaisesRegex(CarpentryError, "measures: is missing"):
            worked_document('{"units": "mm"}')

    def test_a_name_that_is_there_twice_is_refused(self) -> None:
        with self.assertRaisesRegex(CarpentryError, "“rail” is there twice"):
            worked_document('{"measures": {"rail": "1", "rail": "2"}}')
