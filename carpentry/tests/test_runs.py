"""Runs: against figures worked by hand, and against what 10,000 made-up ones add up to."""

import json
import random
from fractions import Fraction
from itertools import combinations, pairwise
from unittest import TestCase

from carpentry.design.runs import (
    AtEnd,
    End,
    Run,
    Spacing,
    exposure_of,
    lay,
    lay_rows,
    length_of,
    neighbours,
    packed,
    piles,
    run_document,
)
from carpentry.language import CarpentryError, Json, rounded
from carpentry.tests import often

MADE_UP = often(1250, 10_000)
SEED = 20


def laid(**document: object) -> Json:
    return run_document(json.dumps(document))


def problems(**document: object) -> dict[str, str]:
    try:
        laid(**document)
    except CarpentryError as error:
        return {problem.place: problem.message for problem in error.problems}
    raise AssertionError("it was not refused")


def at_end(end: End, item: Fraction, gap: Fraction) -> Fraction:
    """What an end takes, told apart from the code that lays runs."""
    known = {
        AtEnd.ITEM: Fraction(0),
        AtEnd.GAP: gap,
        AtEnd.HALF_GAP: gap / 2,
        AtEnd.HALF_ITEM: -item / 2,
    }
    return known[end] if isinstance(end, AtEnd) else end


class MadeUpRunTest(TestCase):
    def made_up(self, chance: random.Random) -> tuple[Fraction, Fraction, tuple[End, End], Spacing]:
        item = Fraction(chance.randint(10, 4000), chance.choice([1, 10, 32]))
        along = item * chance.randint(3, 60) + Fraction(chance.randint(1, 9999), 7)
        ends = [chance.choice([*AtEnd, Fraction(chance.randint(0, 100), 8)]) for _ in range(2)]
        gap = Fraction(chance.randint(1, 3000), chance.choice([1, 10, 16]))
        spacing = chance.choice(
            [Spacing(gap=gap), Spacing(gap_at_most=gap), Spacing(count=chance.randint(2, 20))]
        )
        return along, item, (ends[0], ends[1]), spacing

    def test_items_gaps_and_ends_add_up_to_the_length_exactly(self) -> None:
        chance = random.Random(SEED)
        count = 0
        while count < MADE_UP:
            along, item, ends, spacing = self.made_up(chance)
            try:
                run = lay(along, item, ends, spacing)
            except CarpentryError:
                continue
            count += 1
            whole = at_end(ends[0], item, run.gap) + at_end(ends[1], item, run.gap)
            whole += sum(run.gaps) + run.count * item
            self.assertEqual(whole, along)
            self.assertEqual(set(run.gaps) | {run.gap}, {run.gap})
            self.assertEqual(run.places[0], at_end(ends[0], item, run.gap))
            self.assertEqual(length_of(item, run.count, run.gap, ends), along)
            step = chance.choice([Fraction(1, 16), Fraction(1, 2), Fraction(1)])
            for place in run.places:
                self.assertLessEqual(abs(rounded(place, step) - place), step / 2)
            self.check_choice(run, ends, spacing)

    def check_choice(self, run: Run, ends: tuple[End, End], spacing: Spacing) -> None:
        """No other count does better: the neighbours are tried one by one."""
        around = neighbours(run, ends)
        if spacing.gap is not None:
            for gap in around.values():
                self.assertGreaterEqual(abs(gap - spacing.gap), abs(run.gap - spacing.gap))
        if spacing.gap_at_most is not None:
            self.assertLessEqual(run.gap, spacing.gap_at_most)
            if run.count - 1 in around:
                self.assertGreater(around[run.count - 1], spacing.gap_at_most)

    def test_packers_bring_every_item_to_its_place(self) -> None:
        chance = random.Random(SEED + 1)
        count = 0
        while count < 300:
            along, item, ends, spacing = self.made_up(chance)
            # Whole ones, so many of the smallest that every height between is made.
            smallest = Fraction(chance.choice([1, 2, 5]), chance.choice([1, 2]))
            packers = [smallest * 2**n for n in range(9)]
            try:
                run = lay(along, item, ends, spacing)
            except CarpentryError:
                continue
            if run.gap < smallest or run.gap > sum(packers):
                continue
            count += 1
            start = rounded(run.places[0], Fraction(1, 16))
            at = start
            for exact, pile in zip(run.places[1:], packed(run, start, packers), strict=True):
                self.assertEqual(len(set(pile)), len(pile))  # each is there once
                at += item + sum(pile)
                self.assertLessEqual(abs(at - exact), smallest / 2)


class HandWorkedTest(TestCase):
    def test_a_boardwalk(self) -> None:
        """1210 of 88.9 boards, half a gap at each end: 9 leave 45.54, 10 would 32.1, 8 62.35."""
        told = laid(
            units="mm",
            along="1210",
            item="88.9",
            gap="40",
            ends="half-gap",
            packers=["18", "18", "3", "3", "3", "1"],
        )
        self.assertEqual((told["count"], told["gap"], told["exact_gap"]), (9, "45.5", "45.544444"))
        self.assertEqual(told["marks"][:2], ["23", "157"])
        self.assertEqual(told["gaps"][:3], ["45", "46", "45"])
        self.assertEqual(told["packers"][0], ["18", "18", "3", "3", "3"])
        self.assertEqual(told["packers"][1], ["18", "18", "3", "3", "3", "1"])
        self.assertEqual((told["along"], told["rows"], told["last"]), ("1210", None, None))
        ends = (AtEnd.HALF_GAP, AtEnd.HALF_GAP)
        run = lay(Fraction(1210), Fraction(889, 10), ends, Spacing(count=9))
        around = {count: float(gap) for count, gap in neighbours(run, ends).items()}
        self.assertEqual(around, {8: 62.35, 10: 32.1})

    def test_gaps_of_27_and_a_half(self) -> None:
        told = laid(
            units="mm",
            along="210",
            item="20",
            count="5",
            ends="item",
            packers=["12", "12", "3", "1"],
        )
        self.assertEqual(told["gaps"], ["27", "28", "27", "28"])
        self.assertEqual(told["packers"][0], ["12", "12", "3"])

    def test_four_bays_of_100_inches(self) -> None:
        lines = laid(along="100", item="2 1/2", count="5", ends="half-item", marks="centre")
        self.assertEqual(lines["marks"], ["0", "25", "50", "75", "100"])
        flush = laid(along="100", item="2 1/2", count=5, ends="item")
        self.assertEqual(flush["marks"], ["0", "24 3/8", "48 3/4", "73 1/8", "97 1/2"])
        self.assertEqual((flush["gap"], flush["exact_gap"]), ("21 7/8", "21.875"))

    def test_marks_are_each_rounded_on_their_own(self) -> None:
        told = laid(along="100", item="1", count="7", ends="item", round="1/16", marks="far")
        self.assertEqual(told["marks"][-1], "100")
        self.assertEqual(told["marks"][1], "17 1/2")

    def test_the_length_that_so_many_take(self) -> None:
        told = laid(item="3 1/2", count="7", gap="1/4", ends=["item", "gap"])
        self.assertEqual((told["along"], told["count"], told["gap"]), ("26 1/4", 7, "1/4"))

    def test_centres_are_kept_and_an_item_closes_the_run(self) -> None:
        """Uprights at 16 in a frame of 92: common practice, no source."""
        told = laid(along="92", item="1 1/2", centres="16", ends="item")
        self.assertEqual(told["marks"], ["0", "16", "32", "48", "64", "80", "90 1/2"])
        self.assertEqual(told["gaps"][-2:], ["14 1/2", "9"])
        left = laid(along="92", item="1 1/2", centres="16", ends=["item", "0"])
        self.assertEqual(left["marks"], ["0", "16", "32", "48", "64", "80"])

    def test_the_largest_gap_that_is_allowed(self) -> None:
        told = laid(along="72", item="1 1/2", gap_at_most="3 7/8")
        self.assertEqual((told["count"], told["exact_gap"]), (13, "3.75"))
        ends = ["1", "item"]
        self.assertEqual(
            laid(along="20", item="2", count="3", ends=ends)["marks"], ["1", "9 1/2", "18"]
        )


class SidingTest(TestCase):
    def test_nine_rows_of_seven_and_a_quarter(self) -> None:
        told = laid(along="60", item="7 1/4", lap="1/2", gap="1/8")
        self.assertEqual((told["rows"], told["count"], told["last"]), (9, 9, "5"))
        self.assertEqual(told["marks"][:3], ["0", "6 7/8", "13 3/4"])
        self.assertEqual(laid(along="60", item="7 1/4", exposure="6 7/8")["last"], "5")

    def test_marks_are_of_rows_as_they_are_ripped(self) -> None:
        wall = {"along": "31", "item": "7 1/4", "exposure": "6 7/8", "least": "4"}
        self.assertEqual(laid(**wall, marks="far")["marks"][::4], ["5 3/8", "31"])
        self.assertEqual(laid(**wall, marks="centre")["marks"][1], "8 5/8")
        self.assertEqual(laid(along="5", item="7 1/4", lap="1/2", marks="far")["marks"], ["5"])

    def test_every_wall_is_covered_and_no_row_is_too_many(self) -> None:
        chance = random.Random(SEED + 2)
        for _ in range(often(600, 2_000)):
            width = Fraction(chance.randint(30, 120), 8)
            lap = Fraction(chance.randint(0, 8), 8)
            exposure = exposure_of(width, lap, Fraction(chance.randint(0, 2), 16))
            height = Fraction(chance.randint(60, 900), 8)
            least = Fraction(chance.randint(0, 16), 8)
            try:
                rows = lay_rows(height, width, exposure, least)
            except CarpentryError:
                continue
            tops = [place + width for place in rows.places]
            tops[0], tops[-1] = rows.first, rows.places[-1] + rows.last
            self.assertEqual(tops[-1], height)
            self.assertGreaterEqual(rows.last, min(least, height))
            self.assertLessEqual(max(rows.first, rows.last), width)
            for top, foot in pairwise(zip(tops, rows.places, strict=True)):
                self.assertEqual(top[0] - foot[1], width - exposure)
            if rows.rows > 1 and not rows.is_shifted:
                self.assertGreater(height, rows.places[-2] + width)

    def test_a_strip_that_is_too_narrow_shifts_the_rows(self) -> None:
        """31 of 7 1/4 boards showing 6 7/8: the fifth row would be 3 1/2, so first and last are
        (31 + 3/8 - 3 x 6 7/8) / 2 = 5 3/8."""
        plain = laid(along="31", item="7 1/4", exposure="6 7/8")
        self.assertEqual((plain["rows"], plain["last"]), (5, "3 1/2"))
        told = laid(along="31", item="7 1/4", exposure="6 7/8", least="4")
        self.assertEqual((told["rows"], told["last"]), (5, "5 3/8"))
        self.assertEqual(told["marks"], ["0", "5", "11 7/8", "18 3/4", "25 5/8"])


class PilesTest(TestCase):
    def test_against_every_way_of_putting_them_together(self) -> None:
        chance = random.Random(SEED + 3)
        for _ in range(50):
            packers = [Fraction(chance.randint(1, 24), 2) for _ in range(chance.randint(1, 8))]
            every: dict[Fraction, int] = {}
            for many in range(len(packers) + 1):
                for pile in combinations(packers, many):
                    every.setdefault(sum(pile, Fraction(0)), many)
            made = piles(packers, Fraction(1_000))
            self.assertEqual({height: len(pile) for height, pile in made.items()}, every)
            self.assertTrue(all(sum(pile) == height for height, pile in made.items()))


class BadRunTest(TestCase):
    def test_each_is_told_at_its_field(self) -> None:
        wood = {"along": "72", "item": "3 1/2"}
        for document, place, said in (
            ({"along": "72", "count": "3"}, "item", "is missing"),
            ({"item": "3", "count": "3"}, "along", "is missing"),
            (wood, "count", "is missing, or one of gap"),
            (wood | {"count": "3", "gap": "1"}, "gap", "one too many beside count"),
            (wood | {"count": "0"}, "count", "one item at the least"),
            (wood | {"count": "10000"}, "count", "2,000 items at the most"),
            (wood | {"count": "22"}, "count", "22 of them do not fit: 20 is the most"),
            (wood | {"count": "three-ish"}, "count", "no whole number"),
            (wood | {"gap": "-1"}, "gap", "a number is expected"),
            (wood | {"gap": "0.0001", "item": "0.001"}, "count", "2,000 items at the most"),
            (wood | {"item": "80", "gap": "1"}, "item", "not one of them fits"),
            (wood | {"item": "0", "gap": "1"}, "item", "must be above 0"),
            (wood | {"centres": "3"}, "centres", "nearer to one another"),
            (wood | {"lap": "4"}, "lap", "as wide as the board, or wider"),
            (wood | {"lap": "1", "exposure": "2"}, "exposure", "one too many beside lap"),
            (wood | {"exposure": "2", "gap": "1/8"}, "gap", "one too many beside exposure"),
            (wood | {"lap": "1", "count": "3"}, "count", "not asked of siding"),
            (wood | {"count": "3", "least": "1"}, "least", "asked of siding only"),
            (wood | {"count": "3", "ends": "wall"}, "ends", "“wall” is none of item, gap"),
            (wood | {"count": "3", "ends": ["gap"] * 3}, "ends", "3 entries, more than 2"),
            (wood | {"count": "3", "packers": ["1", "x"]}, "packers[1]", "a number is expected"),
            (wood | {"count": "3", "packers": ["0"]}, "packers", "more than no room"),
            (wood | {"count": "3", "packers": ["1"]}, "packers", "do not make up the gaps"),
            (wood | {"count": "3", "spread": "1"}, "spread", "is no field here"),
            (wood | {"count": "3", "round": "0"}, "round", "must be above 0"),
            (wood | {"count": "1", "ends": "item"}, "count", "fills nothing"),
            (wood | {"gap_at_most": "0", "item": "5"}, "gap_at_most", "do not fit any more"),
        ):
            self.assertIn(said, problems(**document).get(place, ""), document)

    def test_all_of_them_at_once(self) -> None:
        found = problems(along="x", item="y", round="z", packers=["1", "w"], units="feet")
        self.assertEqual(set(found), {"along", "item", "round", "packers[1]", "units", "count"})
