"""Proofs of what is called least: accepted where they prove it, refused where one figure is wrong,
and no board ever holds more than they say."""

import json
from collections import Counter
from collections.abc import Iterator
from copy import deepcopy
from dataclasses import replace
from decimal import Decimal
from itertools import product
from pathlib import Path
from random import Random
from tempfile import TemporaryDirectory
from typing import Any
from unittest import TestCase

from carpentry.cutting import CutPlan, CutProblem, first_plan, plan_cuts, problem_document
from carpentry.cutting.plan import pieces_used
from carpentry.design.edges import read_edges
from carpentry.language import Json, Reader
from carpentry.project import Shelf, gather_materials
from carpentry.proof import Line, Proof, check_proof, proof_document, prove, read_proof
from carpentry.proof.capacity import Capacity
from carpentry.proof.prove import lines_of
from carpentry.proof.ripped import longest_strip
from carpentry.proof.sections import Section, strip_patterns
from carpentry.tests import often, seeds
from carpentry.tests.problems import home_size, problem, ticks
from carpentry.tests.samples import FOLDER
from carpentry.tests.terminal import run
from carpentry.tests.test_claims import named, settled
from carpentry.tests.test_mixtures import LINES, drawn
from carpentry.tests.test_spares import drawn as drawn_with_spares
from carpentry.tests.test_spares import least

SAMPLE = FOLDER / "short-run.cut.json"


def mixtures(seed: int, *, share: bool) -> Iterator[CutProblem]:
    """The cut problems of a small project of square, angled, bevelled and ripped parts."""
    settings = settled(share_angled_cuts=share)
    for material in gather_materials(named(*drawn(seed)), Shelf(LINES, settings.unit), settings):
        given = material.problem(settings)
        if given:
            yield given


def is_called_least(plan: CutPlan) -> bool:
    return not plan.unplaced and plan.price == plan.bound


def corrupted(document: Json, chance: Random) -> Json:
    """The same with one figure that says another amount."""
    spoiled: Any = deepcopy(document)
    line = chance.choice(spoiled["lines"])
    what = chance.choice(("worth", "holds", "needed"))
    if what == "needed":
        line["needed"] += chance.choice((-1, 1))
    else:
        name = chance.choice(list(line[what]))
        line[what][name] += 1
    return dict(spoiled)


def read(document: Json) -> Proof:
    reader = Reader(document)
    proof = read_proof(reader)
    reader.raise_problems()
    return proof


class LineTest(TestCase):
    def test_every_purchase_that_is_called_least_is_proven(self) -> None:
        """All but a few, whose last purchases are too many to try: these are not green."""
        chance, least, whole = Random(1), 0, 0
        for seed in seeds(10, 500):
            given = home_size(seed)
            plan = plan_cuts(given)
            if not is_called_least(plan):
                continue
            proof = prove(given, plan.price, plan.worths)
            with self.subTest(seed=seed):
                least, whole = least + 1, whole + proof.is_whole
                document = json.loads(json.dumps(proof_document(proof)))
                self.assertEqual(read(document), proof)
                self.assertEqual(check_proof(given, read(document)), [])
                self.assertTrue(check_proof(given, read(corrupted(document, chance))))
        self.assertGreaterEqual(whole, least * 0.98)

    def test_nothing_is_proven_above_the_least(self) -> None:
        """Against every purchase tried; spares and stock of limited number among them."""
        for seed in seeds(10, 200, 500):
            given = drawn_with_spares(seed)
            plan = plan_cuts(given)
            if plan.unplaced:
                continue
            dearer = plan.price + Decimal("3.00")
            with self.subTest(seed=seed):
                self.assertEqual(prove(given, plan.price, plan.worths).checked, plan.price)
                self.assertLessEqual(prove(given, dearer, plan.worths).checked, least(given))

    def test_worked_by_hand(self) -> None:
        """Uprights and ties are worth 1, rails of 5 ft 3: a 2x4 of 8 ft holds two pieces of 1 or a
        rail's 3 and so on; the figures are added up on paper."""
        given = problem([("96", "4.00", None), ("120", "6.00", None)], [("40", 5)])
        proof = Proof(
            Decimal("12.00"),
            Decimal("12.00"),
            (Line({"p0": 1}, 5, {"s0": 2, "s1": 2}),),
        )
        self.assertEqual(check_proof(given, proof), [])
        five = replace(proof, lines=(Line({"p0": 1}, 5, {"s0": 2, "s1": 3}),))
        (fault,) = check_proof(given, five)
        self.assertEqual(fault.place, "lines[0].holds.s1")
        self.assertIn("up to 2, not 3", fault.message)

    def test_a_purchase_that_figures_allow_is_refuted_by_trying(self) -> None:
        """Three of 50 and one of 40 from two of 96: 50 beside 50 is too long."""
        given = problem([("96", "4.00", None)], [("50", 3), ("40", 1)])
        claim = Proof(Decimal("12.00"), Decimal("12.00"), (), ({"s0": 2},))
        self.assertEqual(check_proof(given, claim), [])
        other = replace(claim, refuted=({"s0": 3},))
        self.assertIn("may hold all parts", check_proof(given, other)[0].message)
        unknown = replace(claim, refuted=({"s0": 2, "s7": 1},))
        self.assertIn("s7", check_proof(given, unknown)[0].message)

    def test_a_claim_above_what_is_shown_is_refused(self) -> None:
        given = problem([("96", "4.00", None)], [("40", 4)])
        claim = Proof(Decimal("12.00"), Decimal("12.00"), (Line({"p0": 1}, 4, {"s0": 2}),))
        self.assertIn("from 8.00 on", check_proof(given, claim)[0].message)
        above = replace(claim, checked=Decimal("16.00"))
        self.assertIn("above the price", check_proof(given, above)[0].message)


class MixtureTest(TestCase):
    def test_proofs_of_mixtures_are_accepted_and_spoiled_ones_refused(self) -> None:
        chance, least, whole = Random(2), 0, 0
        for seed in seeds(6, 200, 3000):
            for given in mixtures(seed, share=bool(seed % 2)):
                plan = plan_cuts(given)
                if plan.unplaced:
                    continue
                proof = prove(given, plan.price, plan.worths)
                with self.subTest(seed=seed):
                    self.assertLessEqual(proof.checked, plan.price)
                    if is_called_least(plan):
                        least, whole = least + 1, whole + proof.is_whole
                    self.assertEqual(check_proof(given, proof), [])
                    if proof.lines and proof.checked:
                        spoiled = corrupted(proof_document(proof), chance)
                        self.assertTrue(check_proof(given, read(spoiled)))
        self.assertGreaterEqual(whole, least * 0.95)

    def test_two_boards_for_what_one_holds_are_refused(self) -> None:
        """A bevelled rail and a braced one, 40 each, planned apart: 7.74 is not the least."""
        rail = {"quantity": "1", "name": "rail", "stock": "2x4", "length": "40", "edges": "0 15"}
        brace = {"quantity": "1", "name": "brace", "stock": "2x4", "length": "40", "ends": "45 -45"}
        settings = settled(share_angled_cuts=True)
        shelf = Shelf(LINES, settings.unit)
        (material,) = gather_materials(named(rail, brace), shelf, settings)
        given = material.problem(settings)
        assert given
        plan = plan_cuts(given)
        self.assertEqual(plan.price, Decimal("3.87"))
        honest = prove(given, Decimal("7.74"), plan.worths)
        self.assertLessEqual(honest.checked, Decimal("3.87"))
        claimed = replace(honest, checked=Decimal("7.74"))
        self.assertTrue(check_proof(given, claimed))
        for refuted in honest.refuted:
            self.assertLess(sum(refuted.values()), 1)

    def test_no_board_of_any_plan_holds_more_than_is_said(self) -> None:
        """Nor more than there is said to be room for; and no purchase that holds all is refuted."""
        chance = Random(3)
        for seed in seeds(10, 300, 4000):
            for given in mixtures(seed, share=bool(seed % 2)):
                capacity = Capacity(given)
                worths = [{part.id: chance.randint(0, 9) for part in given.parts} for _ in range(3)]
                lines = lines_of(capacity, worths)
                for plan in (first_plan(given), plan_cuts(given)):
                    for layout in plan.layouts:
                        held = Counter(placed.part for placed in layout.parts)
                        counts = tuple(held[piece.parts[0]] for piece in capacity.pieces)
                        with self.subTest(seed=seed):
                            self.assertTrue(capacity.boards[layout.stock].has_room(counts))
                            for line in lines:
                                worth = sum(line.worth.get(p, 0) * n for p, n in held.items())
                                self.assertLessEqual(worth, line.holds[layout.stock])
                    if not plan.unplaced:
                        bought = pieces_used(plan.layouts)
                        with self.subTest(seed=seed):
                            self.assertFalse(capacity.is_refuted(bought, lines))
                            self.assertFalse(capacity.is_refuted(bought, ()))


class RoomTest(TestCase):
    """Loads are tried piece by piece, and only full ones are kept: so what has room must have it
    with a piece fewer, too."""

    def assert_downward(self, capacity: Capacity, most: int) -> None:
        wanted = [min(piece.quantity, most) for piece in capacity.pieces]
        for name, board in capacity.boards.items():
            for counts in product(*(range(n + 1) for n in wanted)):
                if any(counts) and board.has_room(counts):
                    for at, n in enumerate(counts):
                        if n > 0 and sum(counts) > 1:
                            fewer = (*counts[:at], n - 1, *counts[at + 1 :])
                            self.assertTrue(board.has_room(fewer), (name, counts, fewer))

    def test_where_angled_ends_find_others_to_share_saw_lines_with(self) -> None:
        """Two braces alone lose what their outer ends would save; with a block beside them that is
        counted as saved."""
        rows = (
            {"quantity": "2", "name": "brace", "stock": "2x4", "length": "46", "ends": "45 -45"},
            {"quantity": "2", "name": "block", "stock": "2x4", "length": "1"},
            {"quantity": "2", "name": "strut", "stock": "2x4", "length": "5", "ends": "45 -30"},
        )
        settings = settled(share_angled_cuts=True)
        for eighths in range(0, 64, 3):
            longer = f"{46 + eighths // 8} {eighths % 8}/8"
            typed = (rows[0] | {"length": longer}, *rows[1:])
            shelf = Shelf(LINES, settings.unit)
            (material,) = gather_materials(named(*typed), shelf, settings)
            given = material.problem(settings)
            assert given
            with self.subTest(length=longer):
                self.assert_downward(Capacity(given), 2)

    def test_of_random_mixtures(self) -> None:
        for seed in seeds(8, 100, 5000):
            for given in mixtures(seed, share=bool(seed % 2)):
                with self.subTest(seed=seed):
                    self.assert_downward(Capacity(given), 2)

    def test_strips_of_many_pieces(self) -> None:
        """What eleven pieces take on some strips is no less than what ten of them do."""
        chance = Random(5)
        for _ in range(often(60, 500)):
            sizes = tuple(sorted((chance.randint(3, 30) for _ in range(11)), reverse=True))
            for strips in (2, 3, 4):
                for at in range(11):
                    fewer = (*sizes[:at], *sizes[at + 1 :])
                    known = longest_strip(fewer, strips), longest_strip(sizes, strips)
                    self.assertLessEqual(*known, (sizes, at, strips))


class SectionTest(TestCase):
    SLAT = Section(ticks("3/4"), ticks("1 1/2"), True, True, True, False)
    WHOLE = Section(ticks("1 1/2"), ticks("3 1/2"), True, False, False, True)
    BOARD = ticks("1 1/2"), ticks("3 1/2")

    def test_worked_by_hand(self) -> None:
        """In a 2x4 two strips of 1 1/2 and a kerf of 1/8 are 3 1/8 wide; resawn they would be 1 5/8
        thick with a kerf: so two slats lie in it flat, or four on edge, 3/4 and a kerf each."""
        kerf = ticks("1/8")
        self.assertEqual(strip_patterns(self.BOARD, kerf, [self.SLAT]), [(4,)])
        flat = replace(self.SLAT, turn=False)
        self.assertEqual(strip_patterns(self.BOARD, kerf, [flat]), [(2,)])
        self.assertEqual(strip_patterns(self.BOARD, 0, [flat]), [(4,)])
        self.assertEqual(strip_patterns(self.BOARD, kerf, [self.WHOLE, flat]), [(0, 2), (1, 0)])

    def test_bevelled_strips_lie_closer_than_square_ones(self) -> None:
        (given,) = mixtures(137, share=False)
        part = replace(given.parts[0], edges=read_edges("15 15"))
        section = Section.of(part, given.saw)
        self.assertLess(section.width, part.width or 0)
        alone = replace(section, over_all=self.BOARD[1] + 1, width=self.BOARD[1])
        self.assertFalse(alone.fits(self.BOARD))


class CommandTest(TestCase):
    def checked(self, asked: str, answer: str) -> tuple[int, str, str]:
        with TemporaryDirectory() as folder:
            file = Path(folder) / "problem.json"
            file.write_text(asked)
            done = run("check-proof", str(file), "-", given=answer)
        return done.returncode, done.stdout, done.stderr

    def test_a_plan_with_its_proof(self) -> None:
        asked = SAMPLE.read_text()
        answer = run("plan", str(SAMPLE), "--proof").stdout
        code, said, _ = self.checked(asked, answer)
        self.assertEqual((code, said.splitlines()[0]), (0, "accepted"))
        self.assertNotIn("proof", json.loads(run("plan", str(SAMPLE)).stdout))
        plan = json.loads(answer)
        for spoil, says in (
            ({"bound": "1.00", "status": "feasible"}, None),
            ({"price": "50.00"}, "price"),
            ({"proof": plan["proof"] | {"price": "50.00"}}, "price"),
            ({"proof": plan["proof"] | {"checked": "41.00"}}, "checked"),
            ({"layouts": plan["layouts"][1:]}, "accounted for"),
        ):
            code, said, _ = self.checked(asked, json.dumps(plan | spoil))
            self.assertEqual(code, 3 if says else 0, spoil)
            self.assertIn(says or "accepted", said)

    def test_the_proofs_of_a_whole_project(self) -> None:
        demo = Path(__file__).parents[2] / "demo"
        project, yard = demo / "compost-station.project.json", demo / "tallow-street.yard.json"
        answer = run("build", str(project), "--yard", str(yard), "--proof").stdout
        for one in json.loads(answer)["proofs"]:
            code, said, _ = self.checked(json.dumps(one["problem"]), answer)
            self.assertEqual(code, 0, (one["of"], said))
        other = json.dumps(problem_document(home_size(1)))
        code, _, told = self.checked(other, answer)
        self.assertEqual(code, 2)
        self.assertIn("none of these proofs", told)

    def test_what_cannot_be_read(self) -> None:
        asked = SAMPLE.read_text()
        for answer, says in (
            ("{", "no JSON|not JSON"),
            ("{}", "proof.price: is missing"),
            (json.dumps({"proof": {"price": "x", "checked": "1", "lines": []}}), "proof.price"),
            (json.dumps({"proof": None, "layouts": []}), "parts have no board"),
        ):
            code, out, told = self.checked(asked, answer)
            self.assertEqual((code, out), (2, ""), answer)
            self.assertRegex(told, says)
        self.assertEqual(run("check-proof", "nowhere.json", str(SAMPLE)).returncode, 2)
