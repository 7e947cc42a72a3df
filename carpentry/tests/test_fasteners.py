"""Lengths of fasteners and packages, against worked values and brute force."""

import itertools
import random
from decimal import Decimal
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from carpentry.buying.fastener_kinds import KINDS, Kind, usual_lengths
from carpentry.buying.fasteners import (
    USUAL_RULES,
    Passed,
    Through,
    check_length,
    choose_length,
)
from carpentry.buying.packages import Package, pack_need
from carpentry.language import TICKS_PER_INCH, TICKS_PER_MM, CarpentryError, Unit
from carpentry.tests import often
from carpentry.tests.problems import ticks


def way(*pieces: str) -> list[Passed]:
    """Pieces such as ``3/4`` or ``3 1/2 edge``."""
    found = []
    for piece in pieces:
        *size, last = piece.split()
        through = Through(last) if last in list(Through) else Through.FACE
        found.append(Passed(ticks(" ".join(size) if last in list(Through) else piece), through))
    return found


def chosen(kind: Kind, *pieces: str, sunk: int = 0, unit: Unit = Unit.INCH) -> str:
    found = choose_length(kind, way(*pieces), unit, sunk=sunk)
    length = found.length
    return "" if length is None else str(Decimal(length) / TICKS_PER_INCH)


class LengthTest(TestCase):
    def test_worked_values(self) -> None:
        """Common practice, no source: 3/4 onto a 2x face takes 2 in, 2x onto 2x faces 2 1/2, 2x
        into the edge or end of a 2x4, or onto a post, 3 in: a screw is never asked to bite
        more than 1 1/2. A thick last piece asks for no more: 3/4 onto a post takes 2 in (a bite of
        1 1/8)."""
        for kind, pieces, length in (
            (Kind.SCREW, ("3/4", "1 1/2"), "2"),
            (Kind.SCREW, ("1 1/2", "1 1/2"), "2.5"),
            (Kind.SCREW, ("1 1/2", "3 1/2 edge"), "3"),
            (Kind.SCREW, ("3/4", "3 1/2 edge"), "2"),
            (Kind.SCREW, ("3/4", "3 1/2"), "2"),
            (Kind.SCREW, ("3/4", "5 1/2"), "2"),
            (Kind.SCREW, ("1 1/2", "5 1/2"), "3"),
            (Kind.NAIL, ("1 1/2", "3 1/2 end"), "3.5"),
            (Kind.STAPLE, ("1/8", "3/4"), "0.375"),
            (Kind.LAG, ("1 1/2", "3 1/2"), "4"),
            (Kind.BRAD, ("1/4", "3/4"), "0.625"),
            (Kind.NAIL, ("3/4", "1 1/2"), "2"),
            (Kind.POCKET, ("3/4", "3/4"), "1.25"),
            (Kind.POCKET, ("1 1/2", "3 1/2 edge"), "2.5"),
            (Kind.CARRIAGE, ("1 1/2", "3 1/2"), "5.5"),
            (Kind.BOLT, ("1 1/2", "3 1/2", "1 1/2"), "7"),
        ):
            self.assertEqual(chosen(kind, *pieces), length, (kind, pieces))

    def test_all_thicknesses_count(self) -> None:
        """Two boards of 3/4 onto a 2x: 2 1/2 in bites 1 in of 1 1/2 and stays 1/2 short."""
        self.assertEqual(chosen(Kind.SCREW, "3/4", "3/4", "1 1/2"), "2.5")

    def test_a_recessed_head_goes_deeper(self) -> None:
        """Under a recess of 1/4, 2 1/4 in goes through 1 1/4 and bites 1 of 1 1/2; through
        1/2, 1 1/4 in bites 1 1/2 times that."""
        self.assertEqual(chosen(Kind.SCREW, "1 1/2", "1 1/2", sunk=USUAL_RULES.recess), "2.25")
        self.assertEqual(chosen(Kind.SCREW, "3/4", "1 1/2", sunk=USUAL_RULES.recess), "1.25")

    def test_a_recess_shortens_what_is_passed(self) -> None:
        """A bolt through 1 1/2 and 3 1/2 with its head sunk 1/4 passes 4 3/4 and needs 5 1/4; a
        recess as deep as the board goes through it."""
        self.assertEqual(chosen(Kind.CARRIAGE, "1 1/2", "3 1/2", sunk=USUAL_RULES.recess), "5.5")
        self.assertEqual(chosen(Kind.BOLT, "1 3/4", "3 1/2"), "6")
        self.assertEqual(chosen(Kind.BOLT, "1 3/4", "3 1/2", sunk=USUAL_RULES.recess), "5.5")
        found = choose_length(Kind.SCREW, way("1/4", "1 1/2"), Unit.INCH, sunk=USUAL_RULES.recess)
        self.assertEqual(found.warnings, ("the recess goes through the first piece",))
        typed = check_length(Kind.SCREW, ticks("1"), way("1/4", "1 1/2"), sunk=USUAL_RULES.recess)
        self.assertEqual(typed, found.warnings)

    def test_where_a_pocket_screw_comes_out(self) -> None:
        """Common practice: half of it goes into the other piece. 1 1/4 in for 3/4 stock goes 5/8
        deep: through 1/2, and just 1/8 short of 3/4."""
        for last, words in (("1/2", ("1 1/4″ comes through",)), ("3/4", ())):
            found = choose_length(Kind.POCKET, way("3/4", last), Unit.INCH)
            self.assertEqual((found.length, found.warnings), (ticks("1 1/4"), words))
        near = check_length(Kind.POCKET, ticks("1 1/2"), way("3/4", "13/16"))
        self.assertEqual(near, ("its point stops only 1/16″ from the far side",))

    def test_never_through_and_as_short_as_bites(self) -> None:
        """Whatever the thicknesses: an 1/8 in is left, and no shorter length that is sold bites."""
        chance = random.Random(1)
        for _ in range(often(100, 300)):
            pieces = [Passed(chance.randint(8, 60) * 508) for _ in range(chance.randint(2, 3))]
            found = choose_length(Kind.SCREW, pieces, Unit.INCH)
            whole = sum(piece.depth for piece in pieces)
            if found.length is None or found.warnings:
                continue
            self.assertLessEqual(found.length, whole - ticks("1/8"))
            fastened = whole - pieces[-1].depth
            bite = min(pieces[-1].depth * 2 / 3, fastened * 1.5, ticks("1 1/2"))
            into = found.length - fastened
            self.assertGreaterEqual(into, min(int(bite), found.length // 3, ticks("1")))
            for shorter in usual_lengths(Kind.SCREW, Unit.INCH):
                if into >= int(bite) and shorter < found.length <= ticks("4"):
                    self.assertLess(shorter - fastened, int(bite))

    def test_in_millimetres(self) -> None:
        found = choose_length(
            Kind.SCREW, [Passed(18 * TICKS_PER_MM), Passed(45 * TICKS_PER_MM)], Unit.MM
        )
        self.assertEqual(found.length, 45 * TICKS_PER_MM)  # 18 and 1 1/2 times 18

    def test_what_is_said(self) -> None:
        for pieces, words in (
            (("1/4", "3/8"), "comes through"),
            (("6", "1 1/2"), "misses the last piece: 6″ lie before it"),
            (("7/8", "3/8"), "only 1/8″ goes into the last piece"),
            (("3 1/2", "3 1/2"), "5″ is a silly length for a screw: counterbore it"),
        ):
            found = choose_length(Kind.SCREW, way(*pieces), Unit.INCH)
            self.assertTrue(any(words in warning for warning in found.warnings), (pieces, found))
        self.assertIn(
            "threaded rod", choose_length(Kind.BOLT, way("9", "9"), Unit.INCH).warnings[0]
        )
        self.assertEqual(
            check_length(Kind.SCREW, ticks("3"), way("3/4", "1 1/2")), ("3″ comes through",)
        )
        self.assertIn("washers", check_length(Kind.BOLT, ticks("5"), way("1 1/2", "3 1/2"))[0])
        with self.assertRaisesRegex(CarpentryError, "two pieces"):
            choose_length(Kind.SCREW, way("3/4"), Unit.INCH)
        with self.assertRaisesRegex(CarpentryError, "thickness of a piece is missing"):
            choose_length(Kind.SCREW, [Passed(0), Passed(9)], Unit.INCH)


class PackageTest(TestCase):
    def test_the_cheapest_packs(self) -> None:
        """230 screws: two hundreds and a fifty at 3 × less than three hundreds."""
        packs = [Package("50", 50, Decimal("5.50")), Package("100", 100, Decimal("9.00"))]
        found = pack_need(230, packs)
        self.assertEqual((found.counts, found.price, found.left), ((1, 2), Decimal("23.50"), 20))
        self.assertEqual(pack_need(230, packs, in_drawer=40).counts, (0, 2))
        self.assertEqual(pack_need(30, packs, in_drawer=40).left, 10)

    def test_against_brute_force(self) -> None:
        chance = random.Random(5)
        for _ in range(60):
            packs = [
                Package(
                    str(n),
                    chance.randint(1, 40),
                    Decimal(chance.randint(50, 900)) / 100,
                    chance.choice((None, None, 2)),
                )
                for n in range(chance.randint(1, 4))
            ]
            needed = chance.randint(1, 60)
            ranges = [
                range((p.available if p.available is not None else needed // p.holds + 1) + 1)
                for p in packs
            ]
            every = [
                (sum(p.price * n for p, n in zip(packs, counts, strict=True)), sum(counts))
                for counts in itertools.product(*ranges)
                if sum(p.holds * n for p, n in zip(packs, counts, strict=True)) >= needed
            ]
            if not every:
                with self.assertRaisesRegex(CarpentryError, "too few"):
                    pack_need(needed, packs)
                continue
            found = pack_need(needed, packs)
            self.assertEqual((found.price, sum(found.counts)), min(every))

    def test_what_is_refused(self) -> None:
        for packs, words in (
            ([], "no package of it"),
            ([Package("a", 0, Decimal(1))], "holds nothing"),
            ([Package("a", 1, Decimal(-1))], "less than nothing"),
        ):
            with self.assertRaisesRegex(CarpentryError, words):
                pack_need(5, packs)


depths = st.integers(4, 96).map(lambda sixteenths: sixteenths * TICKS_PER_INCH // 16)
pieces = st.builds(Passed, depths, st.sampled_from(list(Through)))
ways = st.lists(pieces, min_size=2, max_size=4)


class AnyWayTest(TestCase):
    """Whatever is passed, in sixteenths from 1/4 to 6 in."""

    @given(ways, st.sampled_from([Kind.SCREW, Kind.STRUCTURAL, Kind.NAIL]), st.booleans())
    def test_what_is_chosen_without_a_word_bites_and_stays_within(
        self, way: list[Passed], kind: Kind, recessed: bool
    ) -> None:
        sunk = USUAL_RULES.recess if recessed else 0
        found = choose_length(kind, way, Unit.INCH, sunk=sunk)
        if found.length is None:
            self.assertTrue(found.warnings)
            return
        fastened, last = sum(piece.depth for piece in way[:-1]) - sunk, way[-1]
        self.assertLessEqual(found.length, fastened + last.depth - USUAL_RULES.short)
        self.assertGreater(found.length, fastened)
        if not found.warnings:
            bite = fastened * 1.5
            if last.through is Through.FACE:
                bite = min(bite, last.depth * 2 / 3)
            share = 0.5 if last.through is Through.END else 1 / 3
            enough = min(found.length * share, ticks("3") * share)
            bite = min(bite, KINDS[kind].most_bite or bite, enough)
            self.assertGreaterEqual(found.length - fastened, int(bite))
        told = check_length(kind, found.length, way, sunk=sunk)
        self.assertEqual(told, found.warnings)

    @given(ways, st.sampled_from(list(Unit)))
    def test_a_bolt_passes_everything_with_room_for_its_nut(
        self, way: list[Passed], unit: Unit
    ) -> None:
        found = choose_length(Kind.BOLT, way, unit)
        needed = sum(piece.depth for piece in way) + USUAL_RULES.nut
        shorter = [one for one in usual_lengths(Kind.BOLT, unit) if one < needed]
        if found.length is None:
            self.assertEqual(len(shorter), len(usual_lengths(Kind.BOLT, unit)))
        else:
            self.assertEqual(found.length, usual_lengths(Kind.BOLT, unit)[len(shorter)])
