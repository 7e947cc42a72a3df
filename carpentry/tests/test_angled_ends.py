"""Angled ends: measured in four ways, planned with what the saw takes, replayed, shared."""

import itertools
import json
import math
import random
from dataclasses import replace
from decimal import Decimal
from unittest import TestCase
from unittest.mock import patch

from carpentry.cutting import (
    Budget,
    CutPart,
    CutProblem,
    Status,
    StockPiece,
    check_plan,
    plan_cuts,
    problem_document,
    read_plan,
    read_problem,
)
from carpentry.cutting.plan_file import plan_document
from carpentry.design.ends import (
    SQUARE_ENDS,
    EndAngle,
    Ends,
    Measured,
    bevel_lines,
    mirrored,
    outermost,
    outline,
    read_angle,
    told,
    turned,
    ways_to_lie,
)
from carpentry.language import CarpentryError, PlanCheckError, Unit
from carpentry.tests import seeds
from carpentry.tests.problems import ticks

KERF = ticks("1/8")
THICK, WIDE = ticks("1 1/2"), ticks("3 1/2")


def ends(left: str, right: str) -> Ends:
    return read_angle(left), read_angle(right)


def part(name: str, length: str, count: int, left: str = "0", right: str = "0") -> CutPart:
    return CutPart(name, ticks(length), count, THICK, WIDE, ends=ends(left, right))


def problem(length: str, *parts: CutPart, share: bool = False, count: int = 9) -> CutProblem:
    piece = StockPiece("2x4", ticks(length), Decimal("4.00"), count, THICK, WIDE)
    return CutProblem(Unit.INCH, KERF, 0, 0, (piece,), parts, share_angled_cuts=share)


class MeasuringTest(TestCase):
    def test_what_is_read(self) -> None:
        self.assertEqual(read_angle(" -22.5° "), EndAngle(Decimal("-22.5")))
        self.assertEqual(read_angle("45b"), EndAngle(Decimal(45), bevel=True))
        for text in ("", "x", "76", "1e2"):
            with self.assertRaises(CarpentryError):
                read_angle(text)

    def test_45_degrees_reach_as_far_as_the_board_is_wide(self) -> None:
        """tan 45° is 1, tan 60° is √3; a bevel counts the thickness."""
        self.assertEqual(read_angle("45").reach(THICK, WIDE), WIDE)
        self.assertEqual(read_angle("-45b").reach(THICK, WIDE), THICK)
        self.assertEqual(read_angle("60").reach(THICK, WIDE), math.ceil(WIDE * math.sqrt(3)))

    def test_the_saw_takes_kerf_over_cosine(self) -> None:
        """cos 60° is one half; cos 45° is 1 ÷ √2."""
        self.assertEqual(read_angle("60").saw(KERF), 2 * KERF)
        self.assertEqual(read_angle("45").saw(KERF), math.ceil(KERF * math.sqrt(2)))
        self.assertEqual(read_angle("0").saw(KERF), KERF)

    def test_four_ways_of_measuring(self) -> None:
        """A 2x4 with 45° ends, 20 in along its middle: 23 1/2 over all as a trapezoid; its top edge
        is the long one."""
        trapezoid, parallelogram = ends("45", "45"), ends("45", "-45")
        long = ticks("23 1/2")
        for measured, length, shape in (
            (Measured.LONG_LONG, "23 1/2", trapezoid),
            (Measured.CENTRE, "20", trapezoid),
            (Measured.SHORT_SHORT, "16 1/2", trapezoid),
            (Measured.EDGE, "23 1/2", trapezoid),
            (Measured.EDGE, "20", parallelogram),
            (Measured.CENTRE, "20", parallelogram),
        ):
            self.assertEqual(outermost(ticks(length), shape, measured, THICK, WIDE), long, measured)

    def test_ends_that_meet(self) -> None:
        with self.assertRaisesRegex(CarpentryError, "nothing is left"):
            outermost(ticks("6"), ends("45", "45"), Measured.LONG_LONG, THICK, WIDE)
        parallelogram = ends("45", "-45")
        self.assertEqual(
            outermost(ticks("6"), parallelogram, Measured.LONG_LONG, THICK, WIDE), ticks("6")
        )

    def test_turning_keeps_the_part(self) -> None:
        """The corners of a turned part are those of the part, seen from another side."""
        chance = random.Random(3)
        for _ in range(40):
            first, second = (str(chance.randint(-40, 40)) for _ in range(2))
            shape = ends(first, second)
            for left in (shape[0], shape[0].flipped, shape[1], shape[1].flipped):
                way = turned(shape, left)
                self.assertEqual(way[0], left)
                a = outline(0, ticks("30"), shape, THICK, WIDE)
                b = outline(0, ticks("30"), way, THICK, WIDE)
                edges = sorted((a[1] - a[0], a[2] - a[3]))
                self.assertEqual(edges, sorted((b[1] - b[0], b[2] - b[3])))

    def test_a_mirror_image_is_no_way_to_lie(self) -> None:
        """A mitered left and a bevelled right end: rolled over both change their sign; turned end
        for end on the face only the miter does. Turned in the hand, no source."""
        self.assertEqual(
            ways_to_lie(ends("20", "10b")),
            (ends("20", "10b"), ends("-20", "-10b"), ends("10b", "-20"), ends("-10b", "20")),
        )
        self.assertNotIn(mirrored(ends("20", "10b")), ways_to_lie(ends("20", "10b")))
        self.assertIn(mirrored(ends("20", "-20")), ways_to_lie(ends("20", "-20")))

    def test_ends_in_words(self) -> None:
        self.assertEqual(told(ends("20", "20")), "both 20°, mirrored")
        self.assertEqual(told(ends("20", "-20")), "both 20°, parallel")
        self.assertEqual(told(ends("0", "-45b")), "left square, right 45° bevel")

    def test_bevels_are_drawn_at_their_full_length(self) -> None:
        shape = ends("30", "45b")
        top_left, top_right, bottom_right, bottom_left = outline(0, 9000, shape, 1000, 2000)
        self.assertEqual((top_left, top_right, bottom_right), (0, 9000, 9000))
        self.assertEqual(bottom_left, math.ceil(2000 * math.tan(math.radians(30))))
        self.assertEqual(bevel_lines(0, 9000, shape, 1000), [8000])


class PlanningTest(TestCase):
    def test_without_sharing_every_part_takes_its_whole_length(self) -> None:
        """Between two at 45° the saw takes 1/8 × √2, 0.177 in."""
        plan = plan_cuts(problem("46 1/8", part("slat", "23", 2, "45", "-45")))
        self.assertEqual(plan.pieces_of_stock, 2)
        plan = plan_cuts(problem("46 3/16", part("slat", "23", 2, "45", "-45")))
        self.assertEqual((plan.pieces_of_stock, plan.status), (1, Status.OPTIMAL))

    def test_parts_that_share_their_cuts_nest(self) -> None:
        """Four parallelograms of 23 1/2 with 45° ends: the first whole, each other one 20 in and a
        saw line of 1/8 × √2 further: 84.03 in."""
        for shape in (("45", "-45"), ("45", "45")):
            slats = part("slat", "23 1/2", 4, *shape)
            plan = plan_cuts(problem("84 1/4", slats, share=True))
            self.assertEqual((plan.pieces_of_stock, plan.status), (1, Status.OPTIMAL), shape)
            starts = [placed.start for placed in plan.layouts[0].parts]
            pitch = ticks("20") + EndAngle(Decimal(45)).saw(KERF)
            self.assertEqual(starts, [n * pitch for n in range(4)])
            self.assertEqual(plan_cuts(problem("84", slats, share=True)).pieces_of_stock, 2)
            self.assertEqual(plan_cuts(problem("84 1/4", slats)).pieces_of_stock, 2)

    def test_a_trapezoid_lies_the_other_way_up_beside_its_neighbour(self) -> None:
        plan = plan_cuts(problem("84 1/4", part("slat", "23 1/2", 4, "45", "45"), share=True))
        lefts = [placed.ends[0].degrees for placed in plan.layouts[0].parts]
        self.assertEqual(lefts, [Decimal(45), Decimal(-45), Decimal(45), Decimal(-45)])

    def test_thousands_of_one_part(self) -> None:
        """Four to a board: 10,000 take 2,500."""
        given = problem("96", part("slat", "23 1/2", 10_000, "30", "0"), count=10_000)
        plan = plan_cuts(given)
        self.assertEqual((plan.status, plan.pieces_of_stock), (Status.OPTIMAL, 2_500))

    def test_square_parts_join_a_chain(self) -> None:
        given = problem(
            "96", part("slat", "23 1/2", 3, "30", "-30"), part("block", "10", 2), share=True
        )
        plan = plan_cuts(given)
        self.assertEqual((plan.pieces_of_stock, plan.status), (1, Status.OPTIMAL))
        check_plan(given, plan)

    def test_every_plan_holds_and_sharing_never_costs_more(self) -> None:
        chance = random.Random(8)
        for number in seeds(10, 25):
            parts = []
            for n in range(chance.randint(1, 5)):
                angle = chance.choice(["0", "15", "30", "45"])
                right = chance.choice([angle, f"-{angle}", "0"])
                length = str(chance.randint(20, 60))
                parts.append(part(f"p{n}", length, chance.randint(1, 5), angle, right))
            given = problem(str(chance.randint(70, 130)), *parts, count=99)
            alone = plan_cuts(given, Budget(5.0))
            shared = plan_cuts(replace(given, share_angled_cuts=True), Budget(5.0))
            for plan in (alone, shared):
                self.assertEqual(plan.unplaced, (), number)
            self.assertLessEqual(shared.price, alone.price, number)

    def test_nothing_is_claimed_that_more_sharing_could_undercut(self) -> None:
        """Too many parts to list: two classes of angles, of which the planner chains one. What it
        claims is never above the price of the same parts with a square cut at half their ends'
        reach."""
        parts = [part("a", "26", 4, "45", "-45"), part("b", "26", 4, "30", "-30")]
        with patch("carpentry.cutting.search.every_load.MOST_LOADS", 0):
            plan = plan_cuts(problem("96", *parts, share=True))
        short = [replace(p, length=p.length - p.reach(0), ends=SQUARE_ENDS) for p in parts]
        self.assertLessEqual(plan.bound, plan_cuts(problem("96", *short)).price)
        if plan.status is Status.OPTIMAL:
            self.assertEqual(plan.price, plan.bound)
        listed = plan_cuts(problem("96", *parts, share=True))
        self.assertIs(listed.status, Status.OPTIMAL)
        self.assertLessEqual(plan.bound, listed.price)
        self.assertLessEqual(listed.price, plan.price)

    def test_few_parts_against_every_order_and_way_to_lie(self) -> None:
        """Brute force over every line of up to five parts, each lying in any of its ways."""
        chance = random.Random(21)
        shared_some = 0
        for number in seeds(8, 12):
            angles = chance.sample(["0", "20", "45", "-20", "-45", "30b"], 3)
            parts = [
                part(f"p{n}", str(chance.randint(9, 20)), 1, *chance.choices(angles, k=2))
                for n in range(5)
            ]
            given = problem(str(chance.randint(36, 50)), *parts, share=chance.random() < 0.7)
            plan = plan_cuts(given)
            check_plan(given, plan)
            self.assertIs(plan.status, Status.OPTIMAL, number)
            self.assertEqual(plan.pieces_of_stock, self.fewest(given), number)
            square = replace(given, parts=tuple(replace(one, ends=SQUARE_ENDS) for one in parts))
            shared_some += self.fewest(given) < self.fewest(square)
        self.assertGreater(shared_some, 0)

    @staticmethod
    def fewest(given: CutProblem) -> int:
        """The fewest boards for parts that are there once."""
        room = given.sound_length(given.stock[0])

        def gap(before: EndAngle, after: EndAngle) -> int:
            saw = max(before.saw(given.kerf), after.saw(given.kerf))
            like = after.degrees and after == before.flipped and given.share_angled_cuts
            return saw - (after.reach(THICK, WIDE) if like else 0)

        def fit(line: tuple[CutPart, ...]) -> bool:
            lasts = {way[1]: line[0].length for way in ways_to_lie(line[0].ends)}
            for one in line[1:]:
                longer: dict[EndAngle, int] = {}
                for left, right in ways_to_lie(one.ends):
                    for before, length in lasts.items():
                        total = length + gap(before, left) + one.length
                        longer[right] = min(total, longer.get(right, total))
                lasts = longer
            return min(lasts.values()) <= room

        def on_one(parts: tuple[CutPart, ...]) -> bool:
            return any(fit(line) for line in itertools.permutations(parts))

        def least(parts: tuple[CutPart, ...]) -> int:
            if not parts:
                return 0
            first, *others = parts
            return min(
                1 + least(tuple(one for one in others if one not in beside))
                for count in range(len(others) + 1)
                for beside in itertools.combinations(others, count)
                if on_one((first, *beside))
            )

        return least(given.parts)

    def test_ripped_and_angled(self) -> None:
        piece = StockPiece("2x8", ticks("60"), Decimal("5.00"), None, THICK, ticks("7 1/4"))
        given = CutProblem(
            Unit.INCH, KERF, 0, 0, (piece,), (part("brace", "29 1/2", 4, "45", "45"),)
        )
        plan = plan_cuts(given)
        self.assertEqual(plan.pieces_of_stock, 1)
        check_plan(given, plan)

    def test_documents_read_back(self) -> None:
        given = problem("96", part("slat", "23 1/2", 3, "30", "-30b"), share=True)
        self.assertEqual(read_problem(json_of(given)), given)
        plan = plan_cuts(given)
        self.assertEqual(read_plan(plan_document(plan, Unit.INCH), Unit.INCH), plan)

    def test_a_length_measured_otherwise_is_converted_when_it_is_read(self) -> None:
        document = problem_document(problem("96", part("slat", "23 1/2", 3, "45", "45")))
        document["parts"][0] |= {"length": "20", "measured": "centre"}
        self.assertEqual(read_problem(json.dumps(document)).parts[0].length, ticks("23 1/2"))


class CheckTest(TestCase):
    def setUp(self) -> None:
        self.problem = problem("84 1/4", part("slat", "23 1/2", 4, "45", "-45"), share=True)
        self.plan = plan_cuts(self.problem)

    def refused(self, words: str, given: CutProblem, **change: object) -> None:
        layout = self.plan.layouts[0]
        spoiled = replace(layout.parts[1], **change)  # type: ignore[arg-type]
        parts = (layout.parts[0], spoiled, *layout.parts[2:])
        plan = replace(self.plan, layouts=(replace(layout, parts=parts),))
        with self.assertRaisesRegex(PlanCheckError, words):
            check_plan(given, plan)

    def test_what_is_wrong(self) -> None:
        check_plan(self.problem, self.plan)
        second = self.plan.layouts[0].parts[1]
        closer = {"start": second.start - 8, "end": second.end - 8}
        self.refused("its size or place", self.problem, **closer)
        self.refused("other ends", self.problem, ends=SQUARE_ENDS)
        alone = replace(self.problem, share_angled_cuts=False)
        self.refused("share a saw line", alone)


def json_of(given: CutProblem) -> str:
    return json.dumps(problem_document(given))
