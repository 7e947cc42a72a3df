"""Parts that are more than a board with two cut ends: clipped, pointed, notched, outlined."""

import math
import random
from dataclasses import replace
from unittest import TestCase

from carpentry.design import (
    Part,
    PartFields,
    Sheet,
    TypedSheet,
    angles_fault,
    not_planned_yet,
    read_part,
)
from carpentry.design.ends import read_ends, told, ways_to_lie
from carpentry.design.measures import MeasureFields
from carpentry.design.outline import area_of
from carpentry.language import TICKS_PER_INCH, CarpentryError, Unit
from carpentry.lumber import INCHES, Lexicon, standard_section
from carpentry.project.units import part_in

RAIL = PartFields(quantity="2", name="rail", stock="2x4", length="30")


def part(**typed: str) -> Part:
    return read_part(replace(RAIL, **typed), INCHES)


def section(one: Part):  # type: ignore[no-untyped-def]
    found = standard_section(one.stock)
    assert found is not None
    return found


def seen(one: Part) -> list[tuple[float, float]]:
    """Its corners in inches, to a hundredth."""
    return [
        (round(u / TICKS_PER_INCH, 2), round(v / TICKS_PER_INCH, 2))
        for u, v in one.seen(section(one))
    ]


class EndsTest(TestCase):
    def test_a_clipped_end_leaves_its_stub(self) -> None:
        # 3 1/2 less a stub of 1/2 runs off 3 at 45°: the top edge is 30, the bottom one 27.
        one = part(ends="45 stub 1/2, 0")
        self.assertEqual(seen(one), [(30, 0), (30, 3.5), (0, 3.5), (0, 3), (3, 0)])
        self.assertEqual(told(one.ends), "left clipped at 45°, a stub of 1/2 left, right square")
        below = part(ends="0, -45 stub 1/2")
        self.assertEqual(seen(below), [(30, 0), (30, 0.5), (27, 3.5), (0, 3.5), (0, 0)])

    def test_a_pointed_end_meets_in_the_middle_or_where_its_angles_say(self) -> None:
        # 1 3/4 tan 45° is 1 3/4; of 60° and 30° it is (√3 against 1/√3) a quarter of the way up.
        self.assertEqual(
            seen(part(ends="0, point 45")), [(28.25, 0), (30, 1.75), (28.25, 3.5), (0, 3.5), (0, 0)]
        )
        uneven = seen(part(ends="0, point 30/60"))
        self.assertEqual(uneven[1], (30, 0.88))
        low, high = uneven[0], uneven[2]
        self.assertAlmostEqual(low[0], high[0], places=2)  # both cuts begin on one square line
        rise = uneven[1][1]
        self.assertAlmostEqual((30 - low[0]) / rise, math.tan(math.radians(60)), delta=0.02)
        self.assertAlmostEqual(
            (30 - high[0]) / (3.5 - rise), math.tan(math.radians(30)), delta=0.02
        )

    def test_lengths_over_every_face(self) -> None:
        for measured, over_all in (("long-long", 30), ("edge", 33), ("short-short", 33)):
            one = part(ends="-45 stub 1/2, 0", measured=measured)
            self.assertEqual(one.outermost(section(one)) / TICKS_PER_INCH, over_all, measured)

    def test_volume_goes_by_what_is_left(self) -> None:
        for typed in ({"ends": "45 stub 1/2, 0"}, {"ends": "point 40, point 20/50"}):
            one = part(**typed)
            wood = area_of(one.seen(section(one))) / section(one).width
            self.assertAlmostEqual(one.centre_length(section(one)), wood, delta=wood / 2000)

    def test_a_mirror_image_turned_over_is_the_part_itself(self) -> None:
        ends = read_ends("20 tilt 10, 0")
        ways = ways_to_lie(ends)
        self.assertIn(read_ends("-20 tilt -10, 0"), ways)
        self.assertIn(read_ends("0, -20 tilt 10"), ways)
        self.assertNotIn(read_ends("20 tilt -10, 0"), ways)

    def test_a_tilted_miter_says_which_face_is_longer(self) -> None:
        """A leaning side: 14.5° with 3.8° of tilt, the back the longer; planned square."""
        one = part(ends="14.51 tilt -3.84, 14.51 tilt -3.84")
        self.assertEqual(
            told(one.ends), "both 14.51°, blade tilted 3.84°, longer on the back, mirrored"
        )
        self.assertEqual([str(end) for end in one.sawn_ends], ["0", "0"])
        # 3 1/2 tan 14.51° is 0.906, 1 1/2 tan 3.84° ÷ cos 14.51° is 0.104; both off either end
        wide, thick = section(one).width, section(one).thickness
        lost = one.ends[0].reach(thick, wide) / TICKS_PER_INCH
        self.assertAlmostEqual(lost, 0.906 + 0.104, delta=0.001)
        short = part(ends="14.51 tilt -3.84, 14.51 tilt -3.84", measured="short-short")
        self.assertAlmostEqual(
            short.outermost(section(short)) / TICKS_PER_INCH, 30 + 2 * 1.01, delta=0.002
        )

    def test_what_cannot_be_read_is_told(self) -> None:
        for ends, said in (
            ("45 stub 1/2", "comma"),
            ("0 stub 1/2, 0", "square end"),
            ("point 0, 0", "above 0"),
            ("point -20, 0", "above 0"),
            ("45 stub brick, 0", ""),
            ("80 tilt 3, 0", "no saw"),
            ("45 tilt, 0", "no angle"),
        ):
            with self.assertRaisesRegex(CarpentryError, said, msg=ends):
                part(ends=ends)
        wide = part(ends="45 stub 4, 0")
        self.assertIn("stub is as wide", angles_fault(wide, section(wide)) or "")


class FormulaTest(TestCase):
    def ends(self, formula: str, **measures: str) -> str:
        typed = TypedSheet(
            {"A": replace(RAIL, ends=formula)},
            [MeasureFields(name.replace("_", " "), text) for name, text in measures.items()],
        )
        return Sheet(typed, INCHES, standard_section).check("A").plain_fields.ends

    def test_a_miter_and_its_tilt_may_be_formulas(self) -> None:
        found = self.ends("=lean; lean / 2, 0°", lean="12°")
        self.assertEqual(found, "12 tilt 6, 0")

    def test_any_word_may_be_the_name_of_a_measure(self) -> None:
        self.assertEqual(self.ends("=roof tilt / 2, point", roof_tilt="30°", point="10°"), "15 10")
        self.assertEqual(
            self.ends("=roof tilt / 2; stub, 0°", roof_tilt="30°", stub="8°"), "15 tilt 8, 0"
        )


class NotchesTest(TestCase):
    def test_a_corner_and_an_edge_by_hand(self) -> None:
        one = part(notches="1 1/8 x 2 at top right; 1 x 3 at bottom, 12 from left")
        self.assertEqual(
            seen(one),
            [
                *((0, 0), (12, 0), (12, 1), (15, 1), (15, 0), (30, 0)),
                *((30, 2.38), (28, 2.38), (28, 3.5), (0, 3.5)),
            ],
        )
        self.assertEqual(
            one.shaping_told(),
            [
                "notch 1 1/8 deep, 2 long, top edge at the right end: two stopped cuts, finished"
                " by hand",
                "notch 1 deep, 3 long, bottom edge, 12 from the left end: two stopped cuts and one"
                " along, finished by hand",
            ],
        )
        self.assertIsNone(not_planned_yet(one, section(one)))

    def test_random_notches_take_what_they_measure(self) -> None:
        for seed in range(60):
            draw = random.Random(seed)
            typed, taken = [], 0.0
            for edge in ("top", "bottom"):
                at = 0
                while at < 24 and draw.random() < 0.8:
                    deep, long, off = (
                        draw.randint(1, 13) / 8,
                        draw.randint(1, 4),
                        draw.randint(0, 3),
                    )
                    gap = off if off or at == 0 else 1
                    place = f"at {edge}, {at + gap} from left" if at + gap else f"at {edge} left"
                    typed.append(f"{deep} x {long} {place}")
                    taken += deep * long
                    at += gap + long
            one = part(notches="; ".join(typed))
            with self.subTest(seed=seed, typed=typed):
                whole = 30 * 3.5 - taken
                self.assertAlmostEqual(area_of(seen(one)), whole, delta=0.3)

    def test_what_cannot_be_is_told(self) -> None:
        for notches, said in (
            ("3 1/2 x 2 at top right", "as deep as"),
            ("1 x 30 at top right", "longer than its part"),
            ("1 x 4 at top, 28 from left", "longer than its part"),
            ("1 x 4 at top left; 1 x 4 at top, 3 from left", "one place"),
            ("2 x 4 at top left; 2 x 4 at bottom left", "one place"),
        ):
            one = part(notches=notches)
            self.assertIn(said, angles_fault(one, section(one)) or "", notches)
        for notches in ("1 x 2", "0 x 2 at top left", "1 x 2 at middle left", "x at top left"):
            with self.assertRaises(CarpentryError, msg=notches) as caught:
                part(notches=notches)
            self.assertEqual(caught.exception.problems[0].place, "notches")
        with self.assertRaisesRegex(CarpentryError, "square ends"):
            part(notches="1 x 2 at top left", ends="20 20")


class OutlineTest(TestCase):
    def test_corners_by_hand(self) -> None:
        one = part(outline="0 0, 30 0, 30 2, 24 3.5, 0 3-1/2")
        self.assertEqual(seen(one), [(0, 0), (30, 0), (30, 2), (24, 3.5), (0, 3.5)])
        self.assertEqual(
            one.shaping_told(), ["5 straight sides, marked from the left end and the bottom edge"]
        )
        inner = part(outline="0 0, 30 0, 30 3 1/2, 20 3 1/2, 20 2, 0 2")
        self.assertIn("1 inner corner", inner.shaping_told()[1])
        self.assertAlmostEqual(area_of(seen(inner)), 30 * 2 + 10 * 1.5)

    def test_what_cannot_be_is_told(self) -> None:
        for outline, said in (
            ("0 0, 30 0", "3 to 40"),
            ("0 0, 30 0, 0 0", "twice"),
            ("0 0, 30 3.5, 30 0, 0 3.5", "cross"),
            ("0 0, 30, 0 3.5", "no corner"),
        ):
            with self.assertRaisesRegex(CarpentryError, said, msg=outline):
                part(outline=outline)
        for outline, said in (
            ("0 0, 28 0, 28 3.5, 0 3.5", "end to end"),
            ("0 0, 30 0, 30 3, 0 3", "edge to edge"),
        ):
            one = part(outline=outline)
            self.assertIn(said, angles_fault(one, section(one)) or "", outline)


class OtherUnitTest(TestCase):
    def test_shaped_parts_keep_their_size(self) -> None:
        for typed in (
            {"ends": "45 stub 1/2, point 30/60"},
            {"notches": "1 1/8 x 2 at top right; 1 x 3 at bottom, 12 from left"},
            {"outline": "0 0, 30 0, 30 2, 24 3.5, 0 3-1/2"},
        ):
            one = part(**typed)
            again = read_part(part_in(one, INCHES, Unit.MM), Lexicon(Unit.MM))
            self.assertEqual(again.seen(section(again)), one.seen(section(one)), typed)
