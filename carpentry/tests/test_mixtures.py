"""Small projects of square, angled, bevelled and ripped parts mixed: what is allowed more never
costs more, and what is called least is no dearer than anything else that is."""

from collections.abc import Iterator
from dataclasses import replace
from decimal import Decimal
from random import Random
from unittest import TestCase

from carpentry.buying import PriceLine, Tax
from carpentry.cutting import Budget, check_plan, plan_cuts
from carpentry.project import Grouping, NamedPart, Shelf, Tally, gather_materials, tally
from carpentry.proof import with_proof
from carpentry.tests import seeds
from carpentry.tests.test_claims import line, named, settled

PRICES = (
    *(("2x4", "8ft", "3.87"), ("2x4", "10ft", "5.13"), ("2x4", "12ft", "6.05")),
    *(("1x4", "8ft", "2.60"), ("1x4", "10ft", "3.40")),
    *(("2x6", "8ft", "5.90"), ("2x6", "10ft", "7.10")),
)
LINES = [line(*row) for row in PRICES]
MORE = [line("2x4", "16ft", "8.20"), line("2x6", "12ft", "8.90"), line("1x4", "12ft", "4.00")]
SECONDS = 6.0
Row = dict[str, str]


def drawn(seed: int) -> list[Row]:
    """Two to five kinds of parts."""
    chance = Random(seed)
    rows = []
    for number in range(chance.randint(2, 5)):
        kind = chance.choice(("square", "square", "angled", "angled", "bevelled", "ripped"))
        row = {"name": f"part {number}", "stock": chance.choice(("2x4", "2x4", "1x4", "2x6"))}
        row |= {"quantity": str(chance.randint(1, 4)), "length": str(chance.randint(10, 60))}
        if kind == "angled":
            row["ends"] = chance.choice(("45 -45", "30 -30", "45 45", "0 45", "22.5 -22.5"))
        if kind == "bevelled":
            row["edges"] = chance.choice(("0 15", "10 10", "10 -10"))
        if kind == "ripped":
            row |= {"width": chance.choice(("1", "1 1/2", "2", "2 1/2")), "rip": "yes"}
        rows.append(row)
    return rows


def tallied(rows: list[Row], *more: PriceLine, **typed: object) -> Tally:
    settings = settled(**typed)
    lines = [*LINES, *more]
    materials = gather_materials(named(*rows), Shelf(lines, settings.unit), settings)
    plans = []
    for material in materials:
        problem = material.problem(settings)
        plan = plan_cuts(problem, Budget(SECONDS)) if problem else None
        if problem and plan:
            check_plan(problem, plan)
            plan = with_proof(problem, plan)
        plans.append((material, plan))
    return tally(plans, settings, Tax(Decimal(0), included=False), "USD", "Old Mill")


def one_fewer(rows: list[Row]) -> list[Row]:
    fewer = str(int(rows[0]["quantity"]) - 1)
    return [rows[0] | {"quantity": fewer}, *rows[1:]] if fewer != "0" else rows[1:]


def allowing_more(rows: list[Row], typed: dict[str, object]) -> Iterator[tuple[str, Tally, int]]:
    """Plans that cannot cost more than so many times the one for these parts and settings."""
    yield "shared cuts", tallied(rows, **typed | {"share_angled_cuts": True}), 1
    yield "ripping", tallied(rows, **typed | {"rip": True}), 1
    yield "either order", tallied(rows, **typed | {"order": "either"}), 1
    yield "other lengths", tallied(rows, *MORE, **typed), 1
    yield "one part fewer", tallied(one_fewer(rows), **typed), 1
    yield "a thinner kerf", tallied(rows, **typed | {"kerf": "1/16"}), 1
    yield "no trim", tallied(rows, **typed | {"trim_start": "0", "trim_end": "0"}), 1
    yield "two builds", tallied(rows, **typed | {"copies": 2}), 2


class MixtureTest(TestCase):
    def test_sharing_is_never_dearer(self) -> None:
        for seed in seeds(12, 300):
            rows = drawn(seed)
            shared, unshared = (tallied(rows, share_angled_cuts=share) for share in (True, False))
            with self.subTest(seed=seed):
                self.assertEqual(shared.unplaced, unshared.unplaced)
                self.assertLessEqual(shared.shopping.subtotal, unshared.shopping.subtotal)

    def test_allowing_more_or_asking_less_is_never_dearer_where_both_are_proven(self) -> None:
        compared = 0
        for seed in seeds(6, 300, 1000):
            rows, chance = drawn(seed), Random(seed)
            typed: dict[str, object] = {
                "share_angled_cuts": chance.random() < 0.5,
                "order": chance.choice(("rip-first", "crosscut-first", "either")),
                "rip": chance.random() < 0.5,
            }
            base = tallied(rows, **typed)
            if not base.claim.proven:
                continue
            for what, other, times in allowing_more(rows, typed):
                if other.claim.proven:
                    compared += 1
                    with self.subTest(what, seed=seed):
                        most = times * base.shopping.subtotal
                        self.assertLessEqual(other.shopping.subtotal, most)
        self.assertGreater(compared, 20)

    def test_a_brace_and_a_bevelled_rail_come_from_one_board(self) -> None:
        """Two pieces of 40 from a board of 96: with shared cuts too."""
        rail = {"quantity": "1", "name": "rail", "stock": "2x4", "length": "40", "edges": "0 15"}
        brace = {"quantity": "1", "name": "brace", "stock": "2x4", "length": "40", "ends": "45 -45"}
        for share in (True, False):
            found = tallied([rail, brace], share_angled_cuts=share)
            self.assertEqual((found.boards, found.shopping.subtotal), (1, Decimal("3.87")))
            self.assertTrue(found.claim.proven)

    def test_a_bevel_on_one_size_changes_nothing_about_another(self) -> None:
        """A 1x4 cannot give a 2x4; nor the other way round, where nothing is resawn."""
        braces = {
            "quantity": "4",
            "name": "brace",
            "stock": "2x4",
            "length": "40",
            "ends": "45 -45",
        }
        rails = {"quantity": "2", "name": "rail", "stock": "1x4", "length": "30"}
        plain, bevelled = (
            tallied([braces, row], saw_resaw_depth="1")
            for row in (rails, rails | {"edges": "0 15"})
        )
        of_braces = [
            [(one.length, one.count) for one in found.shopping.lines if str(one.stock) == "2x4"]
            for found in (plain, bevelled)
        ]
        self.assertEqual(*of_braces)
        self.assertTrue(bevelled.claim.proven)


class KeptApartTest(TestCase):
    """So many parts that those which are not ripped are planned by themselves."""

    parts: list[NamedPart] = named(
        {"quantity": "1", "name": "rail", "stock": "2x4", "length": "40", "edges": "0 15"},
        {"quantity": "200", "name": "picket", "stock": "2x4", "length": "40"},
    )

    def test_nothing_is_called_least(self) -> None:
        settings = settled()
        materials = gather_materials(self.parts, Shelf(LINES, settings.unit), settings)
        plans = []
        for material in materials:
            problem = material.problem(settings)
            assert problem
            plans.append((material, plan_cuts(problem, Budget(SECONDS))))
        found = tally(plans, settings, Tax(Decimal(0), included=False), "USD", "Old Mill")
        self.assertTrue(any(material.apart for material in materials))
        self.assertFalse(found.claim.proven)
        self.assertIn("apart", found.claim.detail)

    def test_plans_of_before_are_gathered_as_they_were(self) -> None:
        """A brace with angled ends was planned by itself where ends share saw lines."""
        rows = (
            {"quantity": "1", "name": "rail", "stock": "2x4", "length": "40", "edges": "0 15"},
            {"quantity": "1", "name": "brace", "stock": "2x4", "length": "40", "ends": "45 -45"},
            {"quantity": "1", "name": "sill", "stock": "2x4", "length": "40"},
        )
        settings = replace(settled(), share_angled_cuts=True)
        found = {
            grouping: [
                [one.part.name for one in material.parts]
                for material in gather_materials(
                    named(*rows), Shelf(LINES, settings.unit), settings, grouping
                )
            ]
            for grouping in Grouping
        }
        self.assertEqual(found[Grouping.RIPPED_ALONE], [["rail"], ["brace", "sill"]])
        self.assertEqual(found[Grouping.SQUARE_ENDED], [["rail", "sill"], ["brace"]])
        self.assertEqual(found[Grouping.SAME_BOARDS], [["rail", "brace", "sill"]])
