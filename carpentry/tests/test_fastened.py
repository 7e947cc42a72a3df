"""What fasteners pass, against a model of wood alone: a head, a point, and pieces in between."""

import random
from fractions import Fraction
from math import sqrt
from unittest import TestCase

from carpentry.buying.fastener_kinds import KINDS, Kind, usual_lengths
from carpentry.buying.joints import read_joint
from carpentry.language import CarpentryError, Unit
from carpentry.project import (
    Fastened,
    Hardware,
    HardwareFields,
    JoinedPart,
    SettingFields,
    hardware_of,
    read_settings,
)
from carpentry.tests import often
from carpentry.tests.problems import ticks

POST = JoinedPart(ticks("3 1/2"), ticks("3 1/2"), ticks("60"), 4)
RAIL = JoinedPart(ticks("1 1/2"), ticks("3 1/2"), ticks("40"), 8)
SLAT = JoinedPart(ticks("3/4"), ticks("5 1/2"), ticks("48"), 20)
MESH = JoinedPart(ticks("1/8"), ticks("24"), ticks("48"), 1)
MARKS = {"P": POST, "R": RAIL, "S": SLAT, "M": MESH}


def hardware(joints: str, packs: str = "", rules: str = "", parts: object = None) -> Hardware:
    fields = HardwareFields(joints, packs=packs, rules=rules)
    return hardware_of(fields, parts or MARKS, read_settings(SettingFields()))  # type: ignore[arg-type]


def one(joint: str, packs: str = "", rules: str = "") -> Fastened:
    found = hardware(joint, packs, rules)
    assert not found.problems, found.problems
    return found.joints[0]


class WhatHoldsTest(TestCase):
    def test_usual_practice_is_silent(self) -> None:
        """A 3 in screw through a 2x4 into a 4x6 bites 1 1/2: nobody would take another."""
        for joint, length in (
            ("4 R to P, 2 screws, 3in", "3"),
            ("4 R to P, 2 screws", "3"),
            ("4 S to R edge, 2 screws", "2"),
            ("4 R to R edge, 2 screws", "3"),  # a deck board 1 1/2 thick
        ):
            told = one(joint)
            self.assertEqual((told.length, told.warnings), (ticks(length), ()), joint)

    def test_a_fault_says_the_figures(self) -> None:
        for joint, words in (
            ("4 R to P, 2 screws, 1 3/4in", "only 1/4″ goes into the last piece"),
            ("4 R to P, 2 screws, 1 1/4in", "misses the last piece: 1 1/2″ lie before it"),
            ("4 S to S, 2 screws, 2in", "2″ comes through"),
            ("4 S to S, 2 screws, 1 7/16in", "stops only 1/16″ from the far side"),
            ("4 P to R end, 2 screws", "5″ is a silly length for a screw: counterbore it"),
            ("4 S to S, 2 pocket screws, 1 1/2in", "comes through"),
        ):
            told = " ".join(one(joint).warnings)
            self.assertIn(words, told.replace("1 1/2″ comes", "comes"), joint)

    def test_more_than_a_builder_asks_may_be_typed(self) -> None:
        lenient = one("4 R to P, 2 screws, 2in", rules="enough bite: 1/2in")
        self.assertEqual(lenient.warnings, ())
        self.assertIn("only 1/2″", one("4 R to P, 2 screws, 2in").warnings[0])

    def test_a_mitered_end_is_held(self) -> None:
        """Through the miter there is 1 1/2 of wood where the screw begins; at a slope of 45° from
        an inch up the end, 1.41 in."""
        for joint, length in (
            ("4 R end to P, 2 deck screws, 3in, through the miter", "3"),
            ("4 R end to P, 2 deck screws, through the miter", "3"),
            ("4 R end to P, 2 screws, toe-screwed", "3"),
            ("4 R end to P, 2 toe screws", "3"),
            ("4 R end to P, 3 toe nails", "3 1/2"),
        ):
            told = one(joint)
            self.assertEqual((told.length, told.warnings), (ticks(length), ()), joint)
        (missed,) = one("4 R end to P, 2 deck screws 3in").warnings
        self.assertIn("misses the last piece: 40″ lie before it", missed)
        self.assertIn("write the piece with the head first", missed)
        self.assertIn("with the head first", one("4 R end to P, 2 screws").warnings[0])

    def test_a_pocket_goes_by_the_thickness_of_its_piece(self) -> None:
        for joint, length in (
            ("12 S end to R edge, 2 pocket screws", "1 1/4"),
            ("12 S to R, 2 pocket screws", "1 1/4"),
            ("12 S edge to R edge, 2 pocket screws", "1 1/4"),
            ("12 R end to P, 2 pocket screws", "2 1/2"),
            ("12 R edge to P, 2 pocket screws", "2 1/2"),
        ):
            told = one(joint)
            self.assertEqual((told.length, told.warnings), (ticks(length), ()), joint)

    def test_what_the_joint_took_off_is_not_passed(self) -> None:
        """A rabbet of 3/8 leaves 3/8 of a slat: 1 in bites 5/8; under a recess of 2 in, 1 1/2 of a
        post is left and 3 in holds."""
        for joint, length in (
            ("4 S to R end, 3 screws, rabbet 3/8in", "1"),
            ("4 S to R end, 3 screws, in a dado 3/8in", "1"),
            ("4 P to R end, 1 screw, recessed 2in", "3"),
            ("4 P to R end, 1 screw, counterbored 2in", "3"),
        ):
            told = one(joint)
            self.assertEqual((told.length, told.warnings), (ticks(length), ()), joint)
        counts = {
            line.name: line.needed for line in hardware("4 P to R end, 1 screw, recessed 2in").lines
        }
        self.assertEqual(counts, {"screw": 4, "plug": 4})
        flush = hardware("4 S to R, 1 screw, countersunk").lines
        self.assertEqual([line.name for line in flush], ["screw"])
        told = one("4 S to R end, 3 screws, rabbet 3/4in")
        self.assertIn("leaves nothing", told.warnings[0])

    def test_as_builders_write_it(self) -> None:
        for text, kind, each, glued in (
            ("8 S to R, 2 flat head screws", Kind.SCREW, 2, False),
            ("8 S to R, 3 ring shank nails", Kind.NAIL, 3, False),
            ("8 S to R, 6 staples", Kind.STAPLE, 6, False),
            ("8 S to R, 4 tacks", Kind.TACK, 4, False),
            ("8 R end to P, 2 screws, toe screwed", Kind.SCREW, 2, False),
            ("8 S to R, construction adhesive", Kind.GLUE, 1, True),
            ("8 S end to S end, miter, glue", Kind.GLUE, 1, True),
            ("8 S to R, 2 pocket screws, glue", Kind.POCKET, 2, True),
            ("8 S to R, glue, 2 pocket screws", Kind.POCKET, 2, True),
            ("8 S to R, glued, 3 brads", Kind.BRAD, 3, True),
            ("8 S to R, glued", Kind.GLUE, 1, True),
            ("8 S to R, load, 2 bolts", Kind.BOLT, 2, False),
        ):
            joint = read_joint(text, Unit.INCH)
            self.assertEqual((joint.kind, joint.each, joint.glued), (kind, each, glued), text)
        self.assertEqual(read_joint("8 S to R, epoxy, 2 dowels", Unit.INCH).glue, "epoxy")
        for text, words in (
            ("8 S to R, load", "nothing holds it"),
            ("8 S to R, 2 screws, 2 nails", "a second fastener"),
        ):
            with self.assertRaisesRegex(CarpentryError, words):
                read_joint(text, Unit.INCH)

    def test_lengths_that_the_yard_sells_come_first(self) -> None:
        """Nails of 32 and screws of 40 mm, where 30 and 35 are usual."""
        parts = {"A": JoinedPart(320 * 20, 0, 0), "B": JoinedPart(320 * 45, 0, 0)}
        fields = HardwareFields(
            "4 A to B, 2 nails\n4 A to B, 2 screws\n4 A to B, 2 brads",
            packs="nail 55mm, 100, 3.00\nscrew 52mm, 100, 5.00",
            packs_unit=Unit.MM,
        )
        found = hardware_of(fields, parts, read_settings(SettingFields.usual(Unit.MM)))
        self.assertEqual([one.length for one in found.joints], [55 * 320, 52 * 320, 50 * 320])
        self.assertEqual(found.unpriced, 1)


class EveryKindTest(TestCase):
    """A kind that is added to the list has all that is asked of one."""

    def test_each_is_read_counted_timed_and_judged_under_load(self) -> None:
        for kind in Kind:
            with self.subTest(kind=kind):
                record = KINDS[kind]
                joint = read_joint(f"4 S to R, 2 {kind}s, load", Unit.INCH)
                self.assertEqual(joint.kind, kind)
                for name in record.other_names:
                    if name != "glued":
                        self.assertEqual(read_joint(f"4 S to R, {name}", Unit.INCH).kind, kind)
                if record.how != "not":
                    for unit in Unit:
                        lengths = usual_lengths(kind, unit)
                        self.assertTrue(lengths)
                        self.assertEqual(list(lengths), sorted(set(lengths)))
                told = one(f"4 S to R, 2 {kind}s, load")
                self.assertTrue(told.fastener)
                self.assertEqual(record.gives_way in told.warnings, not record.bears)
                self.assertEqual(told.length is not None, record.how != "not")
                thin = kind in (Kind.STAPLE, Kind.TACK)
                bare = one(f"4 {'M' if thin else 'S'} to R, 2 {kind}s")
                self.assertEqual(bare.warnings, ())
                self.assertTrue(record.minutes or kind is Kind.GLUE)
                lines = {line.name: line.needed for line in hardware(bare.text).lines}
                for name, count in record.takes.items():
                    self.assertEqual(lines[name], 8 * count)


class ModelTest(TestCase):
    """Random joints of random pieces: the head lies so far under the surface of the first, and the
    point so far into the last."""

    SHARES = {"face": 0, "edge": 1, "end": 2}

    def depth(self, sizes: tuple[int, int, int], side: str) -> Fraction:
        return Fraction(sizes[self.SHARES[side]])

    def test_screws(self) -> None:
        tried = silent = 0
        for seed in range(often(300, 3000)):
            draw = random.Random(seed)
            sizes = {
                mark: (
                    ticks(draw.choice(("1/2", "3/4", "1", "1 1/2", "3 1/2"))),
                    ticks(draw.choice(("1 1/2", "2 1/2", "3 1/2", "5 1/2"))),
                    ticks(str(draw.randint(8, 60))),
                )
                for mark in "AB"
            }
            first, last = draw.choice(("face", "edge")), draw.choice(("face", "edge", "end"))
            manner = draw.choice(("", "", "toed", "recess", "rabbet", "half lap"))
            kind = draw.choice((Kind.SCREW, Kind.NAIL, Kind.STRUCTURAL))
            head, point = self.depth(sizes["A"], first), self.depth(sizes["B"], last)
            slope = Fraction(1)
            words = ""
            if manner == "toed":
                first, words = "end", ", toe-screwed"
                slope = Fraction(sqrt(2))
                head = min(Fraction(ticks("1")), Fraction(2 * sizes["A"][0], 3)) * slope
                point *= slope
            elif manner == "recess":
                words = ", recessed 1/4in"
                head -= ticks("1/4")
            elif manner == "rabbet":
                words = ", rabbet 1/4in"
                if first == "face":
                    head -= ticks("1/4")
                elif last == "face":
                    point -= ticks("1/4")
                else:
                    head -= ticks("1/4")
            elif manner == "half lap":
                words = ", half lap"
                head, point = head / 2, point / 2
            text = f"4 A {first} to B {last}, 2 {kind}s{words}"
            parts = {mark: JoinedPart(*three) for mark, three in sizes.items()}
            (told,) = hardware(text, parts=parts).joints
            with self.subTest(seed=seed, joint=text):
                if told.length is None:
                    self.assertTrue(told.warnings)
                    continue
                tried += 1
                into = told.length - head
                left = point - into
                self.assertGreater(into, -3)
                self.assertGreater(left, ticks("1/8") - 3)
                if not told.warnings:
                    silent += 1
                    share = Fraction(1, 2) if last == "end" else Fraction(1, 3)
                    most = ticks("1 1/2") if last == "end" else ticks("1")
                    thin = Fraction(2, 3) * point if last == "face" else point
                    least = min(told.length * share, Fraction(most), thin, head * Fraction(3, 2))
                    self.assertGreaterEqual(into, least - 3)
                    self.assertLessEqual(told.length, KINDS[kind].longest or told.length)
        self.assertGreater(tried, often(200, 2000))
        self.assertGreater(silent, tried // 2)
