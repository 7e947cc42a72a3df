"""Parts that follow measures and runs: exact until they are cut, told where they cannot be."""

import json
import random
from decimal import Decimal
from fractions import Fraction
from unittest import TestCase

from carpentry.cutting import CutPart, CutProblem, StockPiece, plan_cuts
from carpentry.design import (
    PartFields,
    Sheet,
    TypedSheet,
    measures_shown,
    part_keeping_unit,
    read_entry,
    read_lines,
    renaming,
    run_keeping_unit,
    runs_shown,
    write_parts_csv,
)
from carpentry.design.edge_marks import edge_run
from carpentry.design.measures import Kind, MeasureFields, Value
from carpentry.design.questions import QUESTIONS, answer_to
from carpentry.design.runs import RunFields
from carpentry.language import TICKS_PER_INCH, CarpentryError, Unit
from carpentry.lumber import INCHES, MILLIMETRES, Section, standard_section
from carpentry.planning import build_document, plan_all, work_up_files
from carpentry.project import read_project_file, read_yard_file
from carpentry.tests.problems import ticks

KERF = {
    "kerf": Value(Kind.LENGTH, Fraction(ticks("1/8"))),
    "first trim": Value(Kind.LENGTH, Fraction(0)),
    "last trim": Value(Kind.LENGTH, Fraction(0)),
}


def part(stock: str, length: str, **typed: str) -> PartFields:
    return PartFields(stock=stock, length=length, **typed)


def sheet(
    measures: dict[str, str],
    parts: dict[str, PartFields] | None = None,
    runs: tuple[RunFields, ...] = (),
    **more: object,
) -> Sheet:
    named = [MeasureFields(name, formula) for name, formula in measures.items()]
    typed = TypedSheet(parts or {}, named, runs, KERF)
    lexicon = more.get("lexicon", INCHES)
    return Sheet(typed, lexicon, standard_section)  # type: ignore[arg-type]


class PartsTest(TestCase):
    def test_worked_by_hand(self) -> None:
        # 72 less two 3 1/2 posts is 65; a third of that, less a kerf, is 21 13/24: 21 17/32 cut.
        found = sheet(
            {"opening": "72", "post": "width of A", "rail": "opening - 2 * post"},
            {
                "A": part("4x4", "58"),
                "B": part("2x4", "=rail"),
                "C": part("2x4", "=rail / 3 - kerf"),
                "D": part("2x4", "=length of C * 3 + 3 * kerf"),
            },
        )
        lengths = {mark: found.part(mark).length for mark in "ABCD"}
        self.assertEqual([one.text for one in lengths.values()], ["58", "65", "21 17/32", "65"])
        self.assertEqual(found.part("C").followed, (("length", "21 17/32", False),))
        self.assertEqual(found.part("D").followed, (("length", "65", True),))  # nothing adds up

    def test_actual_sizes_in_their_order_of_trust(self) -> None:
        parts = {
            "A": part("1x6", "40", width="5"),
            "B": part("1x6", "40"),
            "C": part("2x4", "=width of A + width of B"),
        }
        self.assertEqual(sheet({}, parts).part("C").length.text, "10 1/2")

        def at_the_yard(stock: object) -> object:
            section = standard_section(stock)  # type: ignore[arg-type]
            return section and type(section)(section.thickness, ticks("5 3/8"))

        there = Sheet(TypedSheet(parts), INCHES, at_the_yard)  # type: ignore[arg-type]
        self.assertEqual(there.part("C").length.text, "10 3/8")

    def test_a_measured_board_goes_before_the_yard(self) -> None:
        narrow, wide = (Section(ticks("3/4"), ticks(width)) for width in ("5 1/4", "5 3/8"))
        for named, length in (
            ("12", "5 1/4"),
            ("12 13", "5 1/4"),
            ("12 14", "5 1/2"),
            ("not 12", "5 1/2"),
        ):
            parts = {"A": part("1x6", "40", boards=named), "B": part("2x4", "=width of A")}
            typed = TypedSheet(parts, boards={12: narrow, 13: narrow, 14: wide})
            found = Sheet(typed, INCHES, standard_section).part("B")
            self.assertEqual(found.length.text, length, named)

    def test_made_up_chains_against_plain_arithmetic(self) -> None:
        for seed in range(40):
            draw = random.Random(seed)
            values = {"m0": Fraction(draw.randint(20, 900), 16)}
            texts = {"m0": f"{values['m0'].numerator} / {values['m0'].denominator}"}
            for n in range(1, 30):
                one, other = draw.choice(list(values)), draw.choice(list(values))
                sign = draw.choice("+-")
                shares = draw.randint(1, 7)
                size = values[one] + (values[other] if sign == "+" else -values[other]) / shares
                values[f"m{n}"] = size
                texts[f"m{n}"] = f"{one} {sign} {other} / {shares}"
            shuffled = list(texts.items())
            draw.shuffle(shuffled)
            parts = {"A": part("2x4", "=m29 + 200")}
            found = sheet(dict(shuffled), parts)
            exact = values["m29"] + 200
            with self.subTest(seed=seed):
                self.assertEqual(found.worked.values["m29"].amount, values["m29"])
                cut = Fraction(found.part("A").length.ticks, TICKS_PER_INCH)
                self.assertLessEqual(abs(cut - exact), Fraction(1, 64))

    def test_measured_holds_and_what_was_computed_stays(self) -> None:
        measures = [MeasureFields("opening", "72"), MeasureFields("rail", "opening - 7", "64 7/8")]
        parts = {
            "A": part("2x4", "=rail", taped="64 3/4"),
            "B": part("2x4", "=length of A / 2"),
        }
        found = Sheet(TypedSheet(parts, measures), INCHES)
        a = found.part("A")
        self.assertEqual((a.length.text, a.computed and a.computed.text), ("64 3/4", "64 7/8"))
        self.assertEqual(found.part("B").length.text, "32 3/8")
        (_, rail) = measures_shown(found)
        assert rail.computed
        self.assertEqual(rail.computed.amount, 65)

    def test_cut_after_measuring(self) -> None:
        held = part("2x4", "60", held="yes")
        found = sheet({}, {"A": held, "B": part("2x4", "60", held="yes", extra_length="1/2")})
        a, b = found.part("A"), found.part("B")
        self.assertTrue(a.is_held)
        self.assertEqual(
            [one.extra[0].ticks for one in (a, b) if one.extra[0]], [ticks("2"), ticks("1/2")]
        )
        came_in = sheet({}, {"A": part("2x4", "60", held="yes", taped="59 3/4")}).part("A")
        self.assertFalse(came_in.is_held)
        self.assertEqual((came_in.length.text, came_in.extra[0]), ("59 3/4", None))

    def test_what_goes_wrong_is_told_with_what_went_in(self) -> None:
        cases = {
            "=opening - 80": "length: comes out -8: opening - 80, where opening = 72",
            "=opening / nothing": "length: nothing can be divided by 0",
            "=opening * opening * 1in": "two lengths",
            "=lean": "an angle is no length",
            "=length of B": "goes round in a circle",
            "=length of C": "there is no part C",
            "=gap of slats": "there is no run “slats”",
            "=wrong": "waits for wrong, not worked out: “oppening” is not known. Nearest known:",
        }
        measures = {"opening": "72 in", "nothing": "0", "lean": "8°", "wrong": "oppening / 2"}
        for formula, said in cases.items():
            found = sheet(measures, {"A": part("4x4", "58"), "B": part("2x4", formula)})
            told = found.part("B")
            self.assertIn(said, told.fault, formula)
            self.assertEqual(told.length.ticks, 0, formula)
            self.assertFalse(found.part("A").fault)
            with self.assertRaises(CarpentryError):
                found.check("B")

    def test_faults_of_several_sorts_are_all_told(self) -> None:
        bad = part("2x4", "=nowhere", ends="=steep, 0°", quantity="=bays / 2", extra_length="=9ft")
        told = sheet({"steep": "80°", "bays": "3"}, {"A": bad}).part("A").fault
        for said in ("length: “nowhere”", "end angles: an end angle is more", "count:", "4 ft"):
            self.assertIn(said, told)

    def test_a_part_of_a_sheet_whose_width_is_not_known(self) -> None:
        told = sheet({}, {"A": part("ply 1/2", "40", width="=nowhere")}).part("A")
        self.assertIn("width: “nowhere” is not known", told.fault)
        self.assertEqual((told.width, told.length.text), (None, "40"))

    def test_quantities_and_angles(self) -> None:
        found = sheet(
            {"bays": "3", "lean": "8°"},
            {
                "A": part("2x4", "40", quantity="=2 * bays", ends="=lean, -lean b"),
                "B": part("2x4", "40", quantity="=bays / 2"),
            },
        )
        a = found.part("A")
        self.assertEqual((a.quantity, [str(end) for end in a.ends]), (6, ["8", "-8b"]))
        self.assertIn("comes out 1.5, and a quantity is a whole number", found.part("B").fault)
        lone = sheet({"lean": "8°"}, {"A": part("2x4", "40", ends="=lean")}).part("A")
        self.assertIn("write two angles with a comma", lone.fault)

    def test_the_entry_line_and_what_reads_as_a_length(self) -> None:
        here = sheet({"opening": "72", "post": "3 1/2"})
        for line, length, kept in (
            ("4 rails 2x4 =opening-2*post", "65", "=opening-2*post"),
            ("4 rails 2x4 (61 - 18 5/8)/2", "21 3/16", "=(61 - 18 5/8)/2"),
            ("4 rails 2x4 44 - 1/2", "44 1/2", "44 - 1/2"),  # as it always was
            ("2 bottom ply 1/2 =opening x =opening / 3", "72", "=opening"),
        ):
            read = read_entry(line, INCHES, here)
            shown = {f: v for f, v, _ in read.followed}.get("length", "44 1/2")
            self.assertEqual((shown, read.fields.length), (length, kept), line)
        self.assertEqual(
            read_entry("1 x 2x4 (61 - 18 5/8)/2", INCHES).length.ticks, ticks("21 3/16")
        )

    def test_a_table_of_formulas_and_values_out(self) -> None:
        here = sheet({"opening": "72"})
        parts = read_lines("part\tstock\tlength\nrail\t2x4\t=opening / 2\n", INCHES, sheet=here)
        self.assertEqual(parts[0].fields.length, "=opening / 2")
        self.assertIn("rail,2x4,36,", write_parts_csv(parts))
        with self.assertRaises(CarpentryError) as caught:
            read_lines(
                "part\tstock\tlength\nrail\t2x4\t=openin\nsill\t2x4\t=1/\n", INCHES, sheet=here
            )
        places = [problem.place for problem in caught.exception.problems]
        self.assertEqual(places, ["line 2, length", "line 3, length"])

    def test_specimens_and_those_that_would_not_fit(self) -> None:
        formula = "largest of 23 1/8, 23 3/16, 22 7/8 plus 1/4"
        (barrel,) = measures_shown(sheet({"barrel": formula}))
        assert barrel.value
        self.assertEqual(barrel.value.amount, Fraction("23.4375"))
        self.assertEqual([fits for _, fits in barrel.specimens], [True, True, True])
        named = [MeasureFields("barrel", formula, "23 1/8")]
        (small,) = measures_shown(Sheet(TypedSheet(measures=named), INCHES))
        self.assertEqual([fits for _, fits in small.specimens], [True, False, True])
        (gap,) = measures_shown(sheet({"gap": "smallest of 4, 3 1/2, 5"}))
        self.assertEqual([fits for _, fits in gap.specimens], [True, True, True])


class RunsTest(TestCase):
    def test_a_run_drives_its_part(self) -> None:
        # 72 in of 3 1/2 pickets about 2 in apart, a gap at either end: 13 leave 1 25/28 in.
        run = RunFields("pickets", along="opening", item="width of A", way="gap", figure="2")
        parts = {
            "A": part("1x4", "42", quantity="=count of pickets"),
            "B": part("1x2", "=gap of pickets"),
        }
        found = sheet({"opening": "72"}, parts, (run,))
        self.assertEqual(found.part("A").quantity, 13)
        self.assertEqual(
            found.worked.values["gap of pickets"].amount, Fraction(53 * TICKS_PER_INCH, 28)
        )
        (shown,) = runs_shown(found)
        self.assertEqual(shown.used_by, ("length of B", "quantity of A"))

    def test_what_is_left_out(self) -> None:
        run = RunFields(
            "slats", along="72", item="3 1/2", way="count", figure="10", left_out="4 5", loose="2"
        )
        (shown,) = runs_shown(sheet({}, runs=(run,)))
        assert shown.laid
        self.assertEqual((shown.laid.pieces, shown.laid.loose), (8, 2))
        gap = shown.laid.run.gap
        wide = 2 * ticks("3 1/2") + 3 * gap
        self.assertEqual(shown.laid.openings, {4: wide})

    def test_the_edge_of_an_angled_part_however_it_is_measured(self) -> None:
        # 1 in per cos 60° is 2: a kerf of 1/8 takes 1/4 along the edge.
        reach = 3.5 * 3**0.5  # of a 2x4 at 60°
        for measured, length in (
            ("edge", 21.0),
            ("long-long", 21 + reach),
            ("short-short", 21 - reach),
            ("centre", 21.0),
        ):
            text = f"{length:.6f}"
            parts = {"A": part("2x4", text, quantity="3", ends="60 -60", measured=measured)}
            here = sheet({}, parts)
            run = edge_run("A", here.part("A"))
            (shown,) = runs_shown(sheet({}, parts, (run,)))
            assert shown.laid, shown.problems
            marks = [float(mark) / TICKS_PER_INCH for mark in shown.laid.marks()]
            self.assertEqual(marks, [21.0, 42.25, 63.5], measured)
        with self.assertRaises(CarpentryError):
            edge_run("A", sheet({}, {"A": part("2x4", "40", ends="20 20")}).part("A"))

    def test_the_top_edge_of_a_trapezoid_is_its_long_one_or_its_short_one(self) -> None:
        # 3 1/2 * tan 45° is 3 1/2 at each end: 40 between long points is 33 between short ones.
        for ends, measured, length, edge in (
            ("45 45", "long-long", "40", "40"),
            ("-45 -45", "long-long", "40", "33"),
            ("45 45", "short-short", "33", "40"),
            ("-45 -45", "short-short", "33", "33"),
            ("45 45", "centre", "36 1/2", "40"),
            ("-45 -45", "centre", "36 1/2", "33"),
            ("-45 45", "long-long", "40", "36 1/2"),
            ("45b -45b", "long-long", "40", "38 1/2"),
            ("0 -45", "edge", "40", "40"),
            ("=8°, -8°", "edge", "40", "40"),
        ):
            angled = part("2x4", length, ends=ends, measured=measured)
            found = sheet({}, {"A": angled, "B": part("2x4", "=edge of A")}).part("B")
            self.assertEqual((found.length.text, found.fault), (edge, ""), (ends, measured))

    def test_packers_that_do_not_fit_leave_the_count_known(self) -> None:
        run = RunFields("pickets", along="72", item="3 1/2", way="gap", figure="2", packers="1/4")
        found = sheet({}, {"A": part("1x4", "42", quantity="=count of pickets")}, (run,))
        (shown,) = runs_shown(found)
        self.assertEqual([problem.place for problem in shown.problems], ["packers"])
        self.assertEqual(found.part("A").quantity, 13)

    def test_each_fault_at_its_field(self) -> None:
        good = {"along": "72", "item": "3 1/2", "way": "gap", "figure": "2"}
        for typed, place in (
            ({"along": ""}, "along"),
            ({"item": ""}, "item"),
            ({"figure": ""}, "figure"),
            ({"figure": "-1"}, "figure"),
            ({"way": "centres", "figure": "3"}, "figure"),
            ({"way": "count", "figure": "99"}, "figure"),
            ({"along": "8°"}, "along"),
            ({"first": "nowhere"}, "first"),
            ({"rounding": "x"}, "rounding"),
            ({"rounding": "0"}, "rounding"),
            ({"packers": "1, x"}, "packers"),
            ({"left_out": "0"}, "left_out"),
            ({"loose": "1/2"}, "loose"),
            ({"way": "exposure", "figure": "0"}, "exposure"),
            ({"way": "count", "figure": "5", "gap": "2"}, "gap"),
            ({"gap": "2"}, "gap"),
            ({"way": "centres", "figure": "16", "gap": "2"}, "gap"),
            ({"way": "exposure", "figure": "2", "gap": "1/8"}, "gap"),
        ):
            (shown,) = runs_shown(sheet({}, runs=(RunFields("a", **(good | typed)),)))
            self.assertIn(
                place,
                [p.place for p in shown.problems] + ["exposure"] * (place == "exposure"),
                typed,
            )
            self.assertTrue(shown.problems, typed)


class KeepingTest(TestCase):
    def test_renaming_follows_everywhere(self) -> None:
        run = RunFields("slats", along="opening", item="3 1/2", way="gap", figure="opening / 40")
        parts = {"A": part("2x4", "=opening - 2", ends="=lean, -lean b")}
        typed = TypedSheet(
            parts, [MeasureFields("opening", "72"), MeasureFields("half", "opening / 2")], (run,)
        )
        now = renaming(typed, "opening", "gate width", Unit.INCH)
        self.assertEqual([one.name for one in now.measures], ["gate width", "half"])
        self.assertEqual(now.measures[1].formula, "gate width / 2")
        self.assertEqual((now.runs[0].along, now.runs[0].figure), ("gate width", "gate width / 40"))
        self.assertEqual(now.parts["A"].length, "=gate width - 2")
        leaning = renaming(typed, "lean", "slope", Unit.INCH)
        self.assertEqual(leaning.parts["A"].ends, "=slope, -slope b")

    def test_a_formula_keeps_the_unit_it_was_typed_in(self) -> None:
        fields = part("2x4", "=opening - 2 * 3", ends="=lean, -lean")
        kept = part_keeping_unit(fields, Unit.INCH)
        self.assertEqual(kept, {"length": "=in: opening - 2 * 3", "ends": "=lean, -lean"})
        run = RunFields(
            "a", along="72", item="width of A", figure="2", packers="3/4 1/8", rounding="1/16"
        )
        there = run_keeping_unit(run, Unit.INCH)
        self.assertEqual(
            (there.along, there.item, there.packers), ("in: 72", "width of A", "3/4in, 1/8in")
        )
        self.assertEqual(there.rounding, "1/16in")
        measures = {"opening": "in: 72", "lean": "8°"}
        found = sheet(measures, {"A": part("2x4", kept["length"])}, lexicon=MILLIMETRES).part("A")
        self.assertEqual(found.length.text, "1676.5")  # 66 in is 1676.4 mm
        mixed = sheet(measures, {"A": part("2x4", "=opening * 2")}, lexicon=MILLIMETRES).part("A")
        self.assertIn("write the units of the lengths", mixed.fault)
        plain = sheet(
            {"bays": "in: 3"}, {"A": part("2x4", "500", quantity="=bays * 2")}, lexicon=MILLIMETRES
        )
        self.assertEqual(plain.part("A").quantity, 6)


class QuestionsTest(TestCase):
    def test_each_worked_by_hand(self) -> None:
        # Common practice, no source; two from a 10 ft 4x4 at a kerf of 1/8 are 59 15/16.
        here = sheet({"opening": "30", "barrel": "23 3/16"})
        for name, given, formula, value in (
            (
                "half",
                {"board": "8 ft"},
                "(8 ft - first trim - last trim - kerf) / 2",
                "47 15/16",
            ),
            (
                "equal",
                {"board": "10 ft", "pieces": "2"},
                "(10 ft - first trim - last trim - (2 - 1) * kerf) / 2",
                "59 15/16",
            ),
            ("middle", {"size": "barrel"}, "barrel / 2", "11 19/32"),
            ("round", {"size": "barrel", "gap": "1/4 in"}, "barrel + 2 * 1/4 in", "23 11/16"),
            ("within", {"opening": "opening", "gap": "1/8 in"}, "opening - 2 * 1/8 in", "29 3/4"),
            (
                "panel",
                {"inside": "18", "groove": "3/8 in", "clearance": "1/8 in"},
                "18 + 2 * 3/8 in - 1/8 in",
                "18 5/8",
            ),
            (
                "door",
                {"opening": "opening", "gap": "1/8 in", "leaves": "2", "between": "1/8 in"},
                "(opening - 2 * 1/8 in - (2 - 1) * 1/8 in) / 2",
                "14 13/16",
            ),
            ("within", {"opening": "opening - 2", "gap": "1"}, "(opening - 2) - 2 * 1", "26"),
        ):
            answer = answer_to(name, given)
            self.assertEqual(answer, formula)
            self.assertEqual(here.shown(here.reckon(answer))[0], value, name)
        self.assertEqual(
            {one.name for one in QUESTIONS},
            {"half", "equal", "middle", "round", "within", "panel", "door"},
        )

    def test_equal_pieces_come_out_of_their_board_with_its_trims(self) -> None:
        """And no tick longer."""
        kerf, first, last = ticks("1/8"), ticks("1/2"), ticks("1/4")
        known = {
            name: Value(Kind.LENGTH, Fraction(size))
            for name, size in {"kerf": kerf, "first trim": first, "last trim": last}.items()
        }
        here = Sheet(TypedSheet({}, [], (), known), INCHES, standard_section)
        for name, count in (("half", 2), ("equal", 2), ("equal", 3), ("equal", 7)):
            answer = answer_to(name, {"board": "10 ft", "pieces": str(count)})
            longest = here.reckon(answer).amount
            for more, boards in ((0, 1), (1, 2)):
                part = CutPart("a", int(longest) + more, count)
                stock = (StockPiece("10 ft", ticks("120"), Decimal(1)),)
                asked = CutProblem(Unit.INCH, kerf, first, last, stock, (part,))
                self.assertEqual(plan_cuts(asked).pieces_of_stock, boards, (name, count, more))

    def test_what_is_missing_or_unknown(self) -> None:
        for name, said in (("half", "is missing: Board"), ("whole", "no question")):
            with self.assertRaisesRegex(CarpentryError, said):
                answer_to(name, {})


class ProjectTest(TestCase):
    def document(self) -> dict[str, object]:
        return {
            "format": "grain-tally/project@3",
            "name": "Fence",
            "yard": "Bell Yard",
            "measures": [
                {"name": "opening", "formula": "72"},
                {"name": "rail", "formula": "opening - 2 * width of A"},
            ],
            "runs": [{"name": "pickets", "along": "rail", "item": "width of C", "figure": "2"}],
            "joints": ["=(2 * 2) B to A, 2 screws"],
            "parts": [
                {"mark": "A", "quantity": "2", "name": "post", "stock": "4x4", "length": "58"},
                {"mark": "B", "quantity": "2", "name": "rail", "stock": "2x4", "length": "=rail"},
                {
                    "mark": "C",
                    "quantity": "=count of pickets",
                    "name": "picket",
                    "stock": "1x4",
                    "length": "42",
                },
            ],
        }

    def test_built_on_the_sizes_of_the_yard(self) -> None:
        project = read_project_file(json.dumps(self.document()))
        self.assertEqual(project.parts[1].length.text, "65")
        yard = {
            "format": "grain-tally/yard@1",
            "name": "Bell Yard",
            "lines": [
                {
                    "stock": "4x4",
                    "length": "8ft",
                    "price": "12",
                    "thickness": "3 3/8",
                    "width": "3 3/8",
                }
            ],
        }
        work = work_up_files(project, read_yard_file(json.dumps(yard)))
        built = build_document(work, plan_all(work, 2.0))
        self.assertEqual(
            built["measures"]["rail"], {"kind": "length", "value": "65 1/4", "exact": True}
        )
        self.assertEqual(len(built["marks"]["pickets"]), 12)
        self.assertEqual(built["tally"]["left_out"], 0)

    def test_every_fault_of_a_file_at_its_path(self) -> None:
        bad = self.document() | {
            "measures": [
                {"name": "sin", "formula": "1"},
                {"name": "a", "formula": "1 +"},
                {"name": "a", "formula": "2", "x": "3"},
            ],
            "runs": [{"name": "r", "way": "sideways"}, {"name": "r"}],
            "parts": [{"stock": "2x4", "length": "=1 +", "values": {"length": "3", "name": "x"}}],
        }
        with self.assertRaises(CarpentryError) as caught:
            read_project_file(json.dumps(bad))
        places = {problem.place for problem in caught.exception.problems}
        for place in (
            "measures[0].name",
            "measures[1].formula",
            "measures[2].name",
            "measures[2].x",
            "runs[0].way",
            "runs[1].name",
            "parts[0].length",
            "parts[0].values.name",
        ):
            self.assertIn(place, places)

    def test_what_is_no_formula_is_refused_beside_one_that_is(self) -> None:
        bad = self.document()
        bad["parts"] = [
            {"quantity": "abc", "stock": "2x4", "length": "=rail"},
            {"quantity": "2", "stock": "2x4", "length": "=quantity of A * 3", "ends": "9 9999"},
        ]
        with self.assertRaises(CarpentryError) as caught:
            read_project_file(json.dumps(bad))
        places = [problem.place for problem in caught.exception.problems]
        self.assertEqual(places, ["parts[0].quantity", "parts[1].ends"])

    def test_a_file_that_cannot_be_worked_out_opens_with_everything_in_it(self) -> None:
        project = read_project_file(json.dumps(self.document() | {"measures": []}))
        self.assertIn("“rail” is not known", project.parts[1].fault)
        self.assertEqual(project.parts[1].fields.length, "=rail")
        work = work_up_files(project)
        built = build_document(work, plan_all(work, 2.0))
        self.assertEqual([one["part"] for one in built["unplaced"]], ["B", "C"])
        self.assertEqual(built["tally"]["not_planned"], 2)
