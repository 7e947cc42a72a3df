"""Claims that hold: what was proven is said of what it was proven of, and of nothing else."""

import ast
from collections import Counter
from dataclasses import replace
from decimal import Decimal
from pathlib import Path
from unittest import TestCase

from carpentry.buying import PriceFields, PriceLine, Tax, read_price_line
from carpentry.cutting import CutPlan, Ended, Status, plan_cuts
from carpentry.design import PartFields, read_lines, read_part
from carpentry.language import CarpentryError, Unit
from carpentry.lumber import INCHES, Section, read_stock
from carpentry.lumber.rack import BoardFields, OnHand, offcut_stock, read_board
from carpentry.project import (
    Claim,
    Material,
    NamedPart,
    SettingFields,
    Settings,
    Shelf,
    claims,
    gather_materials,
    read_project_file,
    read_settings,
    tally,
)
from carpentry.project.claims import claim_of
from carpentry.proof import with_proof
from carpentry.tests.problems import ticks


def line(stock: str, length: str, price: str, available: str = "") -> PriceLine:
    return read_price_line(
        PriceFields(stock=stock, length=length, price=price, per="each", available=available),
        INCHES,
    )


def named(*rows: dict[str, str]) -> list[NamedPart]:
    parts = [read_part(PartFields(**row), INCHES) for row in rows]
    return [NamedPart(str(number), part) for number, part in enumerate(parts)]


def typed(text: str) -> list[NamedPart]:
    return [NamedPart(str(n), part) for n, part in enumerate(read_lines(text, INCHES))]


def settled(**fields: object) -> Settings:
    return read_settings(replace(SettingFields(), **fields))  # type: ignore[arg-type]


def planned(
    parts: list[NamedPart], lines: list[PriceLine], settings: Settings, *boards: BoardFields
) -> tuple[list[tuple[Material, CutPlan | None]], Claim]:
    owned: dict[object, Counter[OnHand]] = {}
    for fields in boards:
        read = read_board(fields, INCHES)
        owned.setdefault(read.stock, Counter())[read.on_hand] += 1
    shelf = Shelf(lines, settings.unit, owned=owned)  # type: ignore[arg-type]
    materials = gather_materials(parts, shelf, settings)
    problems = [(material, material.problem(settings)) for material in materials]
    plans = [(material, with_proof(p, plan_cuts(p)) if p else None) for material, p in problems]
    tax = Tax(Decimal(0), included=False)
    return plans, tally(plans, settings, tax, "USD", "Old Mill").claim


LEGS = {"quantity": "2", "name": "leg", "stock": "2x4", "length": "30"}
RAIL = {"quantity": "1", "name": "rail", "stock": "2x4", "length": "22", "edges": "10 0"}


class PlannedTogetherTest(TestCase):
    def test_what_is_ripped_shares_boards_with_what_is_not(self) -> None:
        """Two legs of 30, a bevelled rail of 22, a trim and three kerfs are 83: one 8 ft board."""
        eight = [line("2x4", "8ft", "4.00")]
        plans, claim = planned(named(LEGS, RAIL), eight, settled())
        self.assertEqual([plan.pieces_of_stock for _, plan in plans if plan], [1])
        self.assertTrue(claim.proven)
        self.assertNotIn("apart", claim.detail)

    def test_what_is_not_ripped_keeps_the_section_of_its_board(self) -> None:
        plans, _ = planned(named(LEGS, RAIL), [line("2x4", "8ft", "4.00")], settled())
        ((material, plan),) = plans
        assert plan is not None
        legs = [one for layout in plan.layouts for one in layout.parts if one.part == "0"]
        self.assertEqual({one.y for one in legs}, {(0, ticks("3 1/2"))})
        self.assertEqual(material.sawn, {"1"})

    def test_only_from_its_own_stock(self) -> None:
        slats = {"quantity": "2", "name": "slat", "stock": "2x2", "length": "90", "rip": "yes"}
        lines = [line("2x2", "8ft", "5.00"), line("2x4", "8ft", "4.00")]
        for own, price in (("", "4.00"), ("yes", "10.00")):
            plans, _ = planned(named(slats | {"own_stock": own}), lines, settled())
            self.assertEqual([p.price for _, p in plans if p], [Decimal(price)], own)
        plans, _ = planned(named(slats), lines, settled(own_stock=True))
        self.assertEqual([p.price for _, p in plans if p], [Decimal("10.00")])

    def test_sawn_thinner_only_where_it_may_be(self) -> None:
        """Four 3/4 x 3 1/2 boards out of two 2x4: a resaw 3 1/2 wide, which a saw has to do."""
        thin = {"quantity": "2", "name": "slat", "stock": "1x4", "length": "90", "rip": "yes"}
        lines = [line("1x4", "8ft", "5.00"), line("2x4", "8ft", "4.00")]
        deep = settled(saw_resaw_depth="3 1/2", kerf="0")
        cases: list[tuple[Settings, dict[str, str], str]] = [
            (deep, {}, "4.00"),
            (settled(kerf="0"), {}, "10.00"),
            (deep, {"resaw": "no"}, "10.00"),
        ]
        for settings, more, price in cases:
            plans, _ = planned(named(thin | more), lines, settings)
            self.assertEqual([p.price for _, p in plans if p], [Decimal(price)], more)

    def test_too_many_to_be_planned_together_are_named(self) -> None:
        many = LEGS | {"quantity": "300"}
        plans, claim = planned(named(many, RAIL), [line("2x4", "8ft", "4.00")], settled())
        self.assertEqual(len(plans), 2)
        self.assertFalse(claim.proven)
        self.assertIn("boards that are not ripped are planned apart", claim.detail)

    def test_few_boards_are_not_planned_twice(self) -> None:
        """One 10-footer: planned apart, either group alone would take it."""
        lines = [line("2x4", "8ft", "4.00"), line("2x4", "10ft", "1.00", available="1")]
        many = LEGS | {"quantity": "300"}
        plans, _ = planned(named(many, RAIL), lines, settled())
        used = sum(
            layout.count
            for _, plan in plans
            for layout in (plan.layouts if plan else ())
            if layout.stock.endswith("120")
        )
        self.assertEqual(used, 1)


class GreenTest(TestCase):
    """Every sentence that can stand in green, and what has to be so for it."""

    SENTENCES = {
        "No cheaper purchase exists": "all that is bought has a price",
        "No shorter purchase exists": "nothing has a price",
    }

    def test_no_other_sentence_is_called_proven(self) -> None:
        """Read from the claims themselves: whatever they return as proven."""
        tree = ast.parse(Path(claims.__file__).read_text())
        returned = [node.value for node in ast.walk(tree) if isinstance(node, ast.Return)]
        tuples = [one.elts for one in returned if isinstance(one, ast.Tuple)]
        proven = {
            text.value
            for first, text, *_ in tuples
            if isinstance(first, ast.Constant) and first.value is True
            if isinstance(text, ast.Constant)
        }
        self.assertEqual(proven, set(self.SENTENCES))
        made = [node for node in ast.walk(tree) if isinstance(node, ast.Call)]
        named_so = [one for one in made if getattr(one.func, "id", "") == "Claim"]
        first = [one.args[0] for one in named_so]
        self.assertFalse([one for one in first if getattr(one, "value", None) is True])

    def test_what_has_to_be_so(self) -> None:
        eight = line("2x4", "8ft", "4.00")
        free = BoardFields(stock="2x4", length="96")
        rails = {"quantity": "3", "name": "rail", "stock": "2x4", "length": "40"}
        long = rails | {"quantity": "1", "length": "99"}
        beams = rails | {"stock": "2x6", "length": "80"}
        planed = rails | {"width": "2", "rip": "no"}
        slats = {"quantity": "2", "name": "slat", "stock": "2x2", "length": "40", "rip": "yes"}
        square = line("2x2", "8ft", "3.00")
        cases: list[tuple[str, list[dict[str, str]], list[PriceLine], dict[str, object]]] = [
            ("No cheaper purchase exists", [rails], [eight], {}),
            ("No shorter purchase exists", [rails], [], {}),
            ("No cheaper purchase exists", [rails], [eight], {"spare": "1"}),
            ("No cheaper purchase exists", [rails], [], {"rack": "saving"}),
            ("2 of 4 boards have no price", [rails, beams], [eight], {}),
            ("1 of 2 boards has no price", [slats, rails], [square], {}),
            ("1 piece without a board", [rails, long], [eight], {}),
            ("1 part not planned yet", [rails, planed], [eight], {}),
            ("1 piece without a board, 1 part not planned yet", [long, planed], [eight], {}),
            ("Nothing to buy yet", [], [eight], {}),
        ]
        for headline, rows, lines, fields in cases:
            with self.subTest(headline):
                boards = [free, free] if fields.get("rack") else []
                _, claim = planned(named(*rows), lines, settled(**fields), *boards)
                self.assertEqual(claim.headline, headline)
                self.assertEqual(claim.proven, headline in self.SENTENCES)
                if slats in rows:  # from boards that rails could come from, planned apart
                    self.assertIn("nothing is proven of the others", claim.detail)

    def test_a_bound_below_the_price_is_never_green(self) -> None:
        plans, _ = planned(typed("3 rail 2x4 40"), [line("2x4", "8ft", "4.00")], settled())
        ((material, plan),) = plans
        assert plan is not None
        for status in (Status.OPTIMAL, Status.FEASIBLE):
            below = replace(plan, status=status, bound=plan.price - Decimal("0.01"))
            claim = claim_of([(material, below)], settled(), "USD", "Old Mill")
            self.assertEqual(
                (claim.proven, claim.headline), (False, "At most $0.01 above the least")
            )


class LimitsAreNamedTest(TestCase):
    def test_neighbours_that_share_and_that_do_not(self) -> None:
        slats = {"quantity": "4", "name": "slat", "stock": "2x4", "length": "20", "ends": "45 -45"}
        eight = [line("2x4", "8ft", "4.00")]
        shared = planned(named(slats), eight, settled(share_angled_cuts=True))[1]
        self.assertIn("neighbours share angled cuts", shared.limits)
        alone = planned(named(slats), eight, settled())[1]
        self.assertIn("no angled cut shared by neighbours", alone.limits)

    def test_what_a_new_project_and_an_old_file_have(self) -> None:
        self.assertTrue(SettingFields.new(Unit.INCH).share_angled_cuts)
        old = read_project_file('{"format": "grain-tally/project@1", "name": "Old"}')
        self.assertFalse(old.settings.share_angled_cuts)

    def test_spare_rack_and_saws(self) -> None:
        eight = [line("2x4", "8ft", "4.00")]
        ripped = settled(rip=True, spare="1", rack="always")
        board = BoardFields(stock="2x4", length="60")
        claim = planned(typed("4 rail 2x4 40"), eight, ripped, board)[1]
        for words in ("spare boards", "from the rack first", "what your saws can do"):
            self.assertTrue(any(words in limit for limit in claim.limits), words)
        self.assertNotIn("rip set-ups", claim.detail)  # every load is listed: no such limit

    def test_missing_prices(self) -> None:
        """Two of three boards have no price: nothing is cheapest then."""
        lines = [line("2x4", "8ft", "4.00")]
        claim = planned(typed("1 rail 2x4 90\n2 beam 2x6 100"), lines, settled())[1]
        self.assertEqual((claim.proven, claim.headline), (False, "2 of 3 boards have no price"))

    def test_a_price_that_is_the_bound_is_proven(self) -> None:
        plans, _ = planned(typed("3 rail 2x4 40"), [line("2x4", "8ft", "4.00")], settled())
        ((material, plan),) = plans
        assert plan is not None
        waiting = replace(plan, status=Status.FEASIBLE)
        tax = Tax(Decimal(0), included=False)
        claim = tally([(material, waiting)], settled(), tax, "USD", "Old Mill").claim
        self.assertEqual((claim.proven, claim.headline), (True, "No cheaper purchase exists"))
        self.assertIn("no fewer boards", claim.detail)


class CrookedBoardsTest(TestCase):
    CROOKED = BoardFields(stock="2x6", length="96", crook="1/2")

    def test_the_straight_strip_is_used_first(self) -> None:
        """5 1/2 less 1/2 and twice 1/8 is 4 3/4: two 2 1/4 strips and a kerf."""
        strips = {"quantity": "2", "name": "strip", "stock": "2x6", "length": "90"}
        strips |= {"width": "2 1/4", "rip": "yes"}
        always = settled(rack="always")
        plans, _ = planned(named(strips), [line("2x6", "8ft", "9.00")], always, self.CROOKED)
        self.assertEqual([plan.price for _, plan in plans if plan], [Decimal(0)])
        wide = named(strips | {"width": "4 7/8", "quantity": "1"})
        plans, _ = planned(wide, [line("2x6", "8ft", "9.00")], always, self.CROOKED)
        self.assertEqual([plan.price for _, plan in plans if plan], [Decimal("9.00")])

    def test_whole_boards_are_not_cut_from_it(self) -> None:
        plans, _ = planned(
            typed("1 rail 2x6 90"),
            [line("2x6", "8ft", "9.00")],
            settled(rack="always"),
            self.CROOKED,
        )
        self.assertEqual([plan.price for _, plan in plans if plan], [Decimal("9.00")])


class OffcutNamesTest(TestCase):
    def test_the_name_under_which_a_strip_is_laid_on(self) -> None:
        stock = read_stock("2x10 cedar", INCHES).stock
        for thickness, width, name in (
            ("1 1/2", "9 1/4", "2x10 cedar"),
            ("1 1/2", "9 3/16", "2x10 cedar"),
            ("1 1/2", "3 1/2", "2x4 cedar"),
            ("1 1/2", "3", "2x3 cedar"),
            ("3/4", "5 1/2", "1x6 cedar"),
        ):
            section = Section(ticks(thickness), ticks(width))
            self.assertEqual(str(offcut_stock(stock, section)), name)
        self.assertIsNone(offcut_stock(stock, Section(ticks("1/8"), ticks("9"))))


class SawSettingsTest(TestCase):
    def test_what_is_refused(self) -> None:
        bad = {"saw_crosscut": "0", "saw_rip_depth": "deep", "saw_tilt": "-4", "saw_miter": "80"}
        with self.assertRaises(CarpentryError) as raised:
            settled(**bad, saw_resaw_depth="200ft")
        found = {problem.place: problem.message for problem in raised.exception.problems}
        self.assertEqual(set(found), {*bad, "saw_resaw_depth"})
        self.assertIn("nothing where it has no limit", found["saw_crosscut"])

    def test_no_limit_where_nothing_is_typed(self) -> None:
        free = settled(
            saw_crosscut="", saw_rip_depth="", saw_resaw_depth="", saw_tilt="", saw_miter=""
        )
        self.assertEqual(free.saw, type(free.saw)())


class ProofTest(TestCase):
    """Green is what has a proof that goes up to its price."""

    def claimed(self, checked: str | None, *lines: PriceLine) -> Claim:
        settings = settled()
        plans, _ = planned(named(LEGS, RAIL), list(lines), settings)
        ((material, plan),) = plans
        assert plan is not None and plan.proof is not None
        self.assertEqual(plan.checked, plan.price)
        proof = None if checked is None else plan.proof | {"checked": checked}
        return claim_of([(material, replace(plan, proof=proof))], settings, "USD", "a yard")

    def test_of_a_price(self) -> None:
        eight = line("2x4", "8ft", "4.00")
        self.assertTrue(self.claimed("4.00", eight).proven)
        part = self.claimed("3.00", eight)
        self.assertEqual((part.proven, part.headline), (False, "Checked in part"))
        self.assertIn("the proof stops $1.00 below", part.detail)
        none = self.claimed(None, eight)
        self.assertEqual((none.proven, none.headline), (False, "Nothing cheaper was found"))

    def test_of_a_length(self) -> None:
        self.assertEqual(self.claimed(None).headline, "Nothing shorter was found")


class OutOfTimeTest(TestCase):
    def told(self, ended: Ended | None, bound: str) -> str:
        """What is said of a plan at 4.00 whose search ended so, with such a bound."""
        settings = settled()
        plans, _ = planned(named(LEGS, RAIL), [line("2x4", "8ft", "4.00")], settings)
        ((material, plan),) = plans
        assert plan is not None
        stopped = replace(plan, status=Status.FEASIBLE, bound=Decimal(bound), ended=ended)
        return claim_of([(material, stopped)], settings, "$", "a yard").detail

    def test_a_plan_that_the_clock_ended_says_so(self) -> None:
        self.assertIn("bound proven for a yard, the time ran out", self.told(Ended.CLOCK, "3.00"))

    def test_other_ends_are_not_laid_on_the_clock(self) -> None:
        self.assertNotIn("time", self.told(Ended.STEPS, "3.00"))
        self.assertNotIn("time", self.told(None, "3.00"))  # stored before plans said so
        self.assertNotIn("time", self.told(Ended.CLOCK, "4.00"))

    def test_bevels_of_several_thicknesses_are_named(self) -> None:
        thick = {"quantity": "2", "name": "sill", "stock": "2x4", "length": "20", "edges": "10 10"}
        thin = {"quantity": "2", "name": "cap", "stock": "1x4", "length": "20", "edges": "10 10"}
        lines = [line("2x6", "8ft", "4.00")]
        for parts, several in (((thick,), False), ((thick, thin), True)):
            _, claim = planned(named(*parts), lines, settled())
            self.assertEqual("bevels ripped on pieces as thick" in claim.detail, several)
