"""From joints as they are typed to what is bought for them."""

from decimal import Decimal
from itertools import product
from unittest import TestCase

from carpentry.buying.coating import read_coat, read_volume, write_volume
from carpentry.buying.fastener_kinds import Kind
from carpentry.buying.fasteners import USUAL_RULES, Through
from carpentry.buying.joints import (
    hardware_key,
    read_each_line,
    read_item,
    read_joint,
    read_package,
)
from carpentry.buying.rules import USUAL_LINES, read_rules
from carpentry.language import TICKS_PER_MM, CarpentryError, Unit
from carpentry.project import (
    Hardware,
    HardwareFields,
    JoinedPart,
    SettingFields,
    hardware_of,
    read_settings,
)
from carpentry.project.respelling import respelled
from carpentry.tests.problems import ticks

POST = JoinedPart(ticks("1 1/2"), ticks("3 1/2"), ticks("36"))
BOARD = JoinedPart(20 * TICKS_PER_MM, 100 * TICKS_PER_MM, 1000 * TICKS_PER_MM, 10)
SLAT = JoinedPart(ticks("3/4"), ticks("5 1/2"), ticks("48"))


def hardware(joints: str, other: str = "", packs: str = "", copies: int = 1) -> Hardware:
    settings = read_settings(SettingFields(copies=copies))
    fields = HardwareFields(joints, other, packs=packs)
    return hardware_of(fields, {"A": POST, "B": SLAT}, settings)


class ReadingTest(TestCase):
    def test_a_joint(self) -> None:
        joint = read_joint("8 B to A edge, 2 screws, recessed, 2 1/2in", Unit.INCH)
        self.assertEqual((joint.count, joint.each, joint.kind), (8, 2, Kind.SCREW))
        self.assertEqual([m.mark for m in joint.way], ["B", "A"])
        self.assertEqual([m.through for m in joint.way], [Through.FACE, Through.EDGE])
        self.assertTrue(joint.recessed)
        self.assertEqual(joint.length, ticks("2 1/2"))
        three = read_joint("4x A into B into A, carriage bolt, load", Unit.INCH)
        self.assertEqual((len(three.way), three.each, three.kind), (3, 1, Kind.CARRIAGE))
        self.assertTrue(three.load)
        self.assertEqual(read_joint("8 b to a Edge, 2 Screws", Unit.INCH).way, joint.way)

    def test_what_is_refused(self) -> None:
        for text, words in (
            ("screws", "write how many"),
            ("8 B, 2 screws", "takes two parts"),
            ("8 B to slat, 2 screws", "“slat” is no part"),
            ("8 B to A, 2 rivets", "“2 rivets” holds nothing"),
            ("0 B to A, 2 screws", "from 1 to"),
            ("8 B to A, 2 screws, sideways", "sideways"),
        ):
            with self.assertRaisesRegex(CarpentryError, words):
                read_joint(text, Unit.INCH)
        for text in ("hinge", "2 hinge @ much", "2 hinge @ -3"):
            with self.assertRaises(CarpentryError):
                read_item(text)
        with self.assertRaisesRegex(CarpentryError, "“screw 2in” has no price"):
            read_package("screw 2in, 100,")
        for text in ("screw 2in", "screw 2in, 0, 3", "screw 2in, many, 3", "screw 2in, 5, 3.333"):
            with self.assertRaises(CarpentryError):
                read_package(text)

    def test_fasteners_as_builders_write_them(self) -> None:
        for held, each, name, length in (
            ("two screws", 2, "screw", None),
            ("2 screws 3in", 2, "screw", "3"),
            ("2 #8 deck screws", 2, "#8 deck screw", None),
            ("2 #8 x 2 1/2in deck screws", 2, "#8 deck screw", "2 1/2"),
            ("2 3in deck screws", 2, "deck screw", "3"),
            ("16d", 1, "nail", "3 1/2"),
            ("3 16d nails", 3, "nail", "3 1/2"),
            ("3 8d common nails", 3, "common nail", "2 1/2"),
            ("lag", 1, "lag screw", None),
            ("2 3/8 lag screws 4in", 2, "3/8 lag screw", "4"),
            ("4 brads", 4, "brad", None),
            ("1/2 carriage bolt", 1, "1/2 carriage bolt", None),
            ("1/2 x 6in bolt", 1, "1/2 bolt", "6"),
            ("M8 bolt 100mm", 1, "M8 bolt", "100mm"),
            ("a dozen nails", 12, "nail", None),
        ):
            joint = read_joint(f"eight B to A, {held}", Unit.INCH)
            self.assertEqual((joint.count, joint.each, joint.name), (8, each, name), held)
            self.assertEqual(joint.length, ticks(length) if length else None, held)

    def test_lines_are_told_by_number(self) -> None:
        found, problems = read_each_line("2 hinge @ 4\n\nlatch\n1 bolt", read_item)
        self.assertEqual([item.name for item in found], ["hinge", "bolt"])
        self.assertEqual([problem.place for problem in problems], ["line 3"])

    def test_names_that_mean_the_same(self) -> None:
        self.assertEqual(hardware_key("Screws 2 1/2in", Unit.INCH), ("screw", ticks("2 1/2")))
        self.assertEqual(hardware_key("carriage bolt 4", Unit.INCH), ("carriage bolt", ticks("4")))
        for text in ("#8 deck screw 2in", "deck screw #8 x 2in", "#8 x 2in deck screws"):
            self.assertEqual(hardware_key(text, Unit.INCH), ("#8 deck screw", ticks("2")), text)
        self.assertEqual(hardware_key("Wire  Mesh", Unit.MM), ("wire mesh", None))


class CountingTest(TestCase):
    def test_screws_are_counted_and_packed(self) -> None:
        """Twelve slats, each on two posts with two screws: 48 of 2 in, less eight in the drawer."""
        found = hardware("24 B to A, 2 screws", "have 8 screw 2in", "screw 2in, 25, 3.00")
        (line,) = found.lines
        self.assertEqual((line.name, line.length, line.needed), ("screw", ticks("2"), 48))
        self.assertEqual([count for _, count in line.packs], [2])
        self.assertEqual((line.price, line.left), (Decimal("6.00"), 10))
        self.assertEqual(found.joints[0].notes, ("drill pilot holes",))

    def test_copies_multiply(self) -> None:
        found = hardware("4 B to A, 2 screws", "1 hinge @ 2.50", copies=3)
        self.assertEqual([line.needed for line in found.lines], [24, 3])
        self.assertEqual((found.price, found.unpriced), (Decimal("7.50"), 1))

    def test_more_than_anybody_buys_has_no_price(self) -> None:
        found = hardware("10000 B to A, 10000 screws", packs="screw 2in, 25, 3.00")
        self.assertEqual((found.lines[0].needed, found.lines[0].price), (100_000_000, None))

    def test_what_a_bolt_takes(self) -> None:
        """Common practice, no source: two washers and a nut for a bolt, one washer for a carriage
        bolt; a plug for every recess."""
        found = hardware(
            "2 A to A, 2 bolts\n3 A to A, 1 carriage bolt\n4 B to A, 1 screw, recessed"
        )
        counts = {line.name: line.needed for line in found.lines}
        self.assertEqual((counts["bolt"], counts["carriage bolt"]), (4, 3))
        self.assertEqual((counts["washer"], counts["nut"], counts["plug"]), (11, 7, 4))

    def test_a_half_lap_passes_half(self) -> None:
        """Two slats of 3/4 lapped are 3/4 together: 3/8 into 3/8 takes no screw that is sold; two
        posts of 1 1/2 lapped, 3/4 into 3/4, 1 1/4 in."""
        (told,) = hardware("4 A to A, 2 screws, half lap").joints
        self.assertEqual(told.length, ticks("1 1/4"))
        (told,) = hardware("4 B to B, 2 screws, half lap").joints
        self.assertEqual(told.length, None)

    def test_lines_that_are_not_counted_are_told_with_the_total(self) -> None:
        found = hardware("24 B to A, 2 screws\nscrews\n2 B to Z, 1 bolt", "hinge")
        self.assertEqual(found.left_out, 3)
        self.assertIn("3 lines of hardware", found.left_out_told)
        self.assertEqual(hardware("24 B to A, 2 screws").left_out_told, "")

    def test_what_is_said(self) -> None:
        for joint, words in (
            ("4 B to A, 2 screws, load", "brittle"),
            ("4 B to A, 2 nails, load", "draw out"),
            ("4 B to A, 2 pocket screws, load", "split out"),
            ("4 B to A, 2 brads, load", "hold in place"),
            ("4 B to A, glue, load", "may let go"),
            ("4 B to A, 2 dowels, load", "may let go"),
            ("4 B to A, 2 biscuits, load", "may let go"),
            ("4 B to A, 2 screws, 3in", "comes through"),
            ("4 A to B, 2 screws, 1 5/8in", "only 1/8″ goes into"),
            ("4 B to Z, 2 screws", "no part is marked Z"),
        ):
            (told,) = hardware(joint).joints
            self.assertIn(words, " ".join(told.warnings), joint)
        part = JoinedPart(0, 0, ticks("10"))
        settings = read_settings(SettingFields())
        (told,) = hardware_of(
            HardwareFields("4 B to A, 2 screws"), {"A": POST, "B": part}, settings
        ).joints
        self.assertIn("thickness of a piece is missing", told.warnings[0])
        self.assertEqual(
            [problem.place for problem in hardware("x", "y").problems],
            ["joints, line 1", "hardware, line 1"],
        )


class FinishTest(TestCase):
    def coat(self, text: str, packs: str = "", copies: int = 1) -> Hardware:
        settings = read_settings(SettingFields(copies=copies))
        return hardware_of(
            HardwareFields(finishes=text, packs=packs), {"A": POST, "B": BOARD}, settings
        )

    def test_litres_from_area(self) -> None:
        """Ten boards of 1000 × 100 × 20 mm: 2 × (0.1 + 0.02 + 0.002) = 0.244 m² each, 2.44 m² in
        all, two coats at 10 m² a litre 488 ml, with a fifth lost 610 ml."""
        (line,) = self.coat("oil on B, 2 coats, 10 m2/l").lines
        self.assertEqual((line.needed, line.volume), (488, True))
        self.assertEqual(line.used_for, ("oil on B, 2 coats, 10 m2/l: 26 sq ft",))
        (line,) = self.coat("oil on B, 2 coats, 10 m2/l, 20 % loss").lines
        self.assertEqual(line.needed, 610)
        (line,) = self.coat("oil on B, 2 coats, 10 m2/l", copies=3).lines
        self.assertEqual(line.needed, 1464)

    def test_feet_and_gallons(self) -> None:
        """300 sq ft/gal are 7.3625 m² a litre: 1 ft² is 0.09290304 m² and a gallon 3.785411784 l,
        both exact."""
        coverage = read_coat("stain on all, 1 coat, 300 sq ft/gal").coverage
        self.assertAlmostEqual(float(coverage), 7.3627, 3)
        self.assertEqual(read_volume("1 gal"), 3785)
        self.assertEqual(read_volume("2.5 l"), 2500)
        self.assertIsNone(read_volume("100"))
        for volume, metric, tin, told in (
            (3786, False, "", "1.1 gal"),
            (1250, True, "", "1.25 l"),
            (488, True, "", "490 ml"),
            (488, False, "500 ml", "490 ml"),  # in the unit of the tin
            (60, False, "", "2.5 fl oz"),
            (60, False, "1 qt", "2.5 fl oz"),
            (1500, True, "1 gal", "1.6 qt"),
        ):
            self.assertEqual(write_volume(volume, metric=metric, tin=tin), told, (volume, tin))

    def test_cans_at_the_least_cost(self) -> None:
        cans = "oil, 500 ml, 12.00\noil, 750 ml, 17.00\noil, 2.5 l, 48.00"
        (line,) = self.coat("oil on B, 2 coats, 10 m2/l, 20 % loss", cans).lines
        self.assertEqual([(p.holds, n) for p, n in line.packs], [(750, 1)])
        self.assertEqual((line.price, line.left), (Decimal("17.00"), 140))

    def test_what_is_in_the_drawer(self) -> None:
        """Half a litre of oil in the drawer, and a hook of the same name, which is no oil."""
        fields = HardwareFields(
            hardware="have 0.5 l oil\n1 oil @ 3.00", finishes="oil on B, 2 coats, 10 m2/l"
        )
        found = hardware_of(fields, {"B": BOARD}, read_settings(SettingFields()))
        lines = {line.volume: line for line in found.lines}
        self.assertEqual((lines[True].have, lines[True].price), (500, Decimal(0)))
        self.assertEqual((lines[False].needed, lines[False].price), (1, Decimal("3.00")))

    def test_what_is_said(self) -> None:
        for text, words in (
            ("oil", "write what"),
            ("oil on B, 2 coats, 0 m2/l", "covers nothing"),
            ("oil on B, 0 coats, 9 m2/l", "from 1 to"),
            ("oil on B, 2 coats, 9 m2/l, 100 % loss", "less than 100"),
            ("oil on Z, 2 coats, 9 m2/l", "no part is marked Z"),
        ):
            (problem,) = self.coat(text).problems
            self.assertIn(words, problem.message, text)
            self.assertIn("finishes", problem.place)

    def test_some_sides_only(self) -> None:
        """One face of ten boards of 1000 × 100 mm: 1 m², both faces 2; edges 2 × 20 × 1000 each."""
        for sides, millilitres in (("face", 100), ("faces", 200), ("faces and edges", 240)):
            (line,) = self.coat(f"oil on B {sides}, 1 coat, 10 m2/l").lines
            self.assertEqual(line.needed, millilitres, sides)
        whole = read_coat("stain on all faces, 1 coat, 10 m2/l")
        self.assertEqual((whole.marks, whole.sides), ((), ("faces",)))

    def test_mixed_by_ratio(self) -> None:
        """488 ml, two parts to one: 325.3 and 162.7, each rounded up."""
        lines = self.coat("resin + hardener 2:1 on B, 2 coats, 10 m2/l").lines
        self.assertEqual(
            [(line.name, line.needed) for line in lines], [("resin", 326), ("hardener", 163)]
        )
        (problem,) = self.coat("resin + hardener 2:0 on B, 1 coat, 9 m2/l").problems
        self.assertIn("some of both", problem.message)


class GlueTest(TestCase):
    """Slats of 3/4 x 5 1/2 x 48 and posts of 1 1/2 x 3 1/2 x 36."""

    def glue(self, *joints: str) -> Hardware:
        fields = HardwareFields("\n".join(joints), finishes="glue on joints, 1 coat, 1 m2/l")
        return hardware_of(fields, {"A": POST, "B": SLAT}, read_settings(SettingFields()))

    def square_inches(self, *joints: str) -> float:
        (line,) = [line for line in self.glue(*joints).lines if line.volume]
        return line.needed / 1000 / 0.00064516  # a square inch is 0.00064516 m² exactly

    def test_where_pieces_meet(self) -> None:
        for joint, area in (
            ("1 B to A, glue", 5.5 * 3.5),  # crossing
            ("1 B to A, 2 screws, glued", 5.5 * 3.5),
            ("4 B to A, glue", 4 * 5.5 * 3.5),
            ("1 A end to B, glue", 1.5 * 3.5),  # standing on it
            ("1 B edge to B edge, glue", 0.75 * 48),  # edge to edge
            ("1 A to B, glue, along", 3.5 * 36),  # laid along
        ):
            self.assertAlmostEqual(self.square_inches(joint), area, delta=1.6, msg=joint)

    def test_it_does_not_matter_which_comes_first(self) -> None:
        sides = ("face", "edge", "end")
        for one, other in product(sides, sides):
            here = self.glue(f"1 A {one} to B {other}, glue").lines[0].needed
            there = self.glue(f"1 B {other} to A {one}, glue").lines[0].needed
            self.assertEqual(here, there, (one, other))

    def test_no_joint_is_glued(self) -> None:
        (problem,) = self.glue("1 B to A, 2 screws").problems
        self.assertIn("no joint is glued", problem.message)


class RulesTest(TestCase):
    def hardware(self, joints: str, rules: str, other: str = "") -> Hardware:
        fields = HardwareFields(joints, other, rules=rules)
        return hardware_of(fields, {"A": POST, "B": SLAT}, read_settings(SettingFields()))

    def test_a_builder_sets_others(self) -> None:
        """Through 3/4 in and half of 1 1/2 in: 1 1/2 in."""
        (joint,) = self.hardware("1 B to A, 1 screw", "Into a face: 1/2").joints
        self.assertEqual(joint.length, ticks("1 1/2"))
        (joint,) = self.hardware("1 B to A, 1 screw", "").joints
        self.assertEqual(joint.length, ticks("2"))
        joint = self.hardware("1 B to A, 1 carriage bolt", "washers and nut: 1").joints[0]
        self.assertEqual(joint.length, ticks("3 1/2"))

    def test_what_a_bolt_takes(self) -> None:
        lines = self.hardware("2 B to A, 1 carriage bolt", "carriage bolt takes: 2 washer").lines
        self.assertEqual(
            [(line.name, line.needed) for line in lines], [("carriage bolt", 2), ("washer", 4)]
        )
        lines = self.hardware("2 B to A, 1 screw, recessed", "recess takes: nothing").lines
        self.assertEqual([line.name for line in lines], ["screw"])

    def test_what_is_no_rule(self) -> None:
        for text, words in (
            ("into a hole: 2/3", "is no rule"),
            ("into a face", "is no rule"),
            ("into a face: much", "is no share"),
            ("into a face: 1/0", "is no share"),
            ("into a face: 0", "more than 0"),
            ("recess: deep", "number is expected"),
            ("bolt takes: washers", "is not taken"),
        ):
            (problem,) = self.hardware("", text).problems
            self.assertIn(words, problem.message, text)
            self.assertEqual(problem.place, "rules, line 1")

    def test_usual_rules_change_nothing(self) -> None:
        rules, problems = read_rules("\n".join(USUAL_LINES), Unit.INCH)
        self.assertEqual((rules, problems), (USUAL_RULES, []))

    def test_currencies_are_not_mixed(self) -> None:
        found = self.hardware("", "", "2 latch @ 3.20 EUR\n1 hook @ 2 usd")
        (problem,) = found.problems
        self.assertEqual(problem.message, "EUR on a list in USD: currencies are not mixed")
        self.assertEqual([line.price for line in found.lines], [None, Decimal("2")])


class RespellingTest(TestCase):
    def test_bare_lengths_keep_their_meaning(self) -> None:
        for kind, before, after in (
            ("joints", "8 B to A, 2 screws, 2 1/2, load", "8 B to A, 2 screws, 2 1/2in, load"),
            ("joints", "8 B to A, 2 screws, 60mm", "8 B to A, 2 screws, 60mm"),
            ("joints", "8 B to A, 2 screws", "8 B to A, 2 screws"),
            ("joints", "whatever", "whatever"),
            ("hardware", "have 40 screw 2 1/2", "have 40 screw 2 1/2in"),
            ("hardware", "4 bolt 6 @ 2.35", "4 bolt 6in @ 2.35"),
            ("hardware", "2 wire mesh @ 18.40", "2 wire mesh @ 18.40"),
            ("hardware", "2 strap hinge 6 @ 1", "2 strap hinge 6 @ 1"),
            ("rules", "recess: 1/4\ninto a face: 2/3", "recess: 1/4in\ninto a face: 2/3"),
            ("finishes", "oil on B, 2 coats, 9 m2/l", "oil on B, 2 coats, 9 m2/l"),
        ):
            self.assertEqual(respelled(kind, before, Unit.INCH), after)
            again = respelled(kind, after, Unit.MM)
            self.assertEqual(again, after)
