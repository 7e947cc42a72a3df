import json
from dataclasses import replace
from decimal import Decimal
from unittest import TestCase

from carpentry.buying import Tax, read_prices_csv
from carpentry.cutting import Cause, CutPlan, Status, less_trim, plan_cuts
from carpentry.design import read_lines, read_parts_csv
from carpentry.language import TICKS_PER_FOOT, CarpentryError, Unit, read_length
from carpentry.lumber import INCHES
from carpentry.project import (
    Material,
    NamedPart,
    Note,
    SettingFields,
    Settings,
    Shelf,
    Tally,
    Totals,
    YardFile,
    compare,
    gather_materials,
    notes,
    project_document,
    read_project_file,
    read_settings,
    read_yard_file,
    tally,
    yard_document,
)
from carpentry.proof import with_proof
from carpentry.tests.problems import problem, ticks
from carpentry.tests.samples import sample

NO_TAX = Tax(Decimal(0), included=False)


def settings(**typed: object) -> Settings:
    return read_settings(SettingFields(**typed))  # type: ignore[arg-type]


def named(text: str) -> list[NamedPart]:
    return [NamedPart(str(n), part) for n, part in enumerate(read_lines(text, INCHES))]


def planned(
    parts: list[NamedPart], yard: str | None, **typed: object
) -> tuple[list[tuple[Material, CutPlan | None]], Tally]:
    chosen = settings(**typed)
    lines = next(iter(read_prices_csv(sample(f"{yard}.prices.csv")).values())) if yard else []
    materials = gather_materials(parts, Shelf(lines, chosen.unit), chosen)
    problems = [(material, material.problem(chosen)) for material in materials]
    plans = [(material, with_proof(p, plan_cuts(p)) if p else None) for material, p in problems]
    return plans, tally(plans, chosen, NO_TAX, "USD", yard or "standard lengths")


def told_of(planned: tuple[Material, CutPlan | None], chosen: Settings) -> list[Note]:
    material, plan = planned
    return list(notes(material, material.problem(chosen), plan, chosen))


class CompostStationTest(TestCase):
    def setUp(self) -> None:
        parts = read_parts_csv(sample("compost-station.parts.csv"), INCHES)
        self.parts = [NamedPart(str(n), part) for n, part in enumerate(parts)]

    def test_at_tallow_street_it_is_complete_and_proven(self) -> None:
        plans, found = planned(self.parts, "tallow-street")
        self.assertTrue(found.claim.proven)
        self.assertEqual((found.boards, found.unplaced), (38, 0))
        self.assertEqual(found.shopping.subtotal, Decimal("322.45"))
        self.assertTrue(all(plan and plan.status is Status.OPTIMAL for _, plan in plans))

    def test_at_pike_and_daughter_it_takes_every_16_footer(self) -> None:
        _, found = planned(self.parts, "pike-and-daughter")
        long_ones = [ln for ln in found.shopping.lines if ln.length == 16 * TICKS_PER_FOOT]
        self.assertEqual([line.count for line in long_ones], [9])
        self.assertEqual(found.unplaced, 0)

    def test_three_more_back_slats_have_no_board_there(self) -> None:
        more = [
            replace(one, part=replace(one.part, quantity=10))
            if one.part.name == "back slat"
            else one
            for one in self.parts
        ]
        plans, found = planned(more, "pike-and-daughter")
        self.assertEqual(found.unplaced, 1)
        reasons = [u.reason for _, plan in plans if plan for u in plan.unplaced]
        self.assertIn("used up", reasons[0])
        self.assertIn("without a board", found.claim.headline)

    def test_the_yards_section_wins(self) -> None:
        plans, _ = planned(self.parts, "pike-and-daughter")
        treated = next(m for m, _ in plans if str(m.stock) == "2x4 treated")
        assert treated.section is not None
        self.assertTrue(treated.section_from_yard)
        self.assertEqual(treated.section.width, read_length("3 7/16", "in").ticks)

    def test_waste_is_wood_bought_less_wood_in_parts(self) -> None:
        plans, found = planned(named("2 stud 2x4 treated 47"), "tallow-street")
        offer = plans[0][0].offers[0]
        bought = offer.real_length
        expected = Decimal(100 * (bought - 94 * 8128)) / Decimal(bought)
        self.assertEqual(found.waste, expected.quantize(Decimal("0.1")))


class MaterialsTest(TestCase):
    def test_without_a_yard_the_least_length_of_standard_boards(self) -> None:
        plans, found = planned(named("3 rail 2x4 60"), None)
        material, plan = plans[0]
        assert plan is not None
        self.assertFalse(material.priced)
        # a trim, three 60 in rails and two kerfs are 180 3/4 in: one 16 ft board holds them
        self.assertEqual(plan.price, Decimal(16 * TICKS_PER_FOOT))
        self.assertIn("No shorter purchase", found.claim.headline)
        self.assertEqual(found.shopping.unpriced, found.boards)

    def test_a_stock_the_yard_does_not_sell_is_planned_without_a_price(self) -> None:
        _, found = planned(named("1 rail 2x4 treated 60\n1 beam 6x6 60"), "tallow-street")
        self.assertEqual(found.shopping.unpriced, 1)
        self.assertFalse(found.claim.proven)
        self.assertEqual(found.claim.headline, "1 of 2 boards has no price")
        self.assertIn("no cheaper purchase exists for the others", found.claim.detail)

    def test_a_near_miss_in_words(self) -> None:
        plans, _ = planned(named("3 rail 2x4 40"), None, trim_start="0")
        told = [note.says for note in told_of(plans[0], settings(trim_start="0"))]
        self.assertIn("Three 40″ parts miss a 10 ft board by 1/4″: the saw takes 1/4″", told)

    def test_near_misses_name_trim_kerf_and_length_apart(self) -> None:
        plans, _ = planned(named("3 rail 2x4 39 7/8\n2 post 2x4 60 1/4"), None)
        told = [(note.cause, note.says) for note in told_of(plans[0], settings())]
        three = "Three 39 7/8″ parts miss a 10 ft board by 3/8″: the saw takes 1/4″, the trim 1/2″"
        self.assertIn((Cause.KERF, f"{three}, 3/8″ is to spare"), told)
        two = "Two 60 1/4″ parts miss a 10 ft board by 1 1/8″: 1/2″ too long, the saw takes 1/8″"
        self.assertIn((Cause.LENGTH, f"{two}, the trim 1/2″"), told)

    def test_less_trim_that_would_save_boards(self) -> None:
        """Three 39 1/2 parts and two kerfs are 118 3/4: a 10 ft board has them after a trim of
        1 1/4 or less. Fifteen of them take five boards then, eight with a trim of 1 1/2."""
        given = problem([("120", "7.00", None)], [("39 1/2", 15)], start="1 1/2")
        plan = plan_cuts(given)
        self.assertEqual(plan.pieces_of_stock, 8)
        self.assertEqual(less_trim(given, plan), (ticks("1/4"), 3))
        shorter = replace(given, trim_start=ticks("1 1/4"))
        self.assertIsNone(less_trim(shorter, plan_cuts(shorter)))

    def test_copies_multiply(self) -> None:
        _, one = planned(named("1 rail 2x4 treated 60"), "tallow-street")
        _, four = planned(named("1 rail 2x4 treated 60"), "tallow-street", copies=4)
        self.assertEqual((one.boards, four.boards), (1, 2))

    def test_what_needs_more_than_a_crosscut_is_listed_for_later(self) -> None:
        plans, found = planned(named("1 bottom ply 1/2 30 x 24\n1 rail 2x4 20"), None)
        self.assertEqual(found.later, 1)
        self.assertIsNone(plans[0][1])
        self.assertEqual(plans[0][0].later[0][1], "cut from a sheet")

    def test_too_many_pieces_are_named(self) -> None:
        plans, found = planned(named("9000 peg 2x2 8"), None, copies=2)
        self.assertEqual(found.later, 1)
        self.assertIn("10,000 pieces", plans[0][0].later[0][1])

    def test_nothing_yet(self) -> None:
        _, found = planned([], None)
        self.assertEqual((found.boards, found.waste), (0, Decimal("0.0")))
        self.assertIn("Nothing to buy yet", found.claim.headline)


class CompareTest(TestCase):
    def test_in_words(self) -> None:
        lengths = {"2x4 8 ft": 1, "2x4 10 ft": 1, "1x4 8 ft": 2}
        before = Totals(38, Decimal("322.45"), 0, lengths)
        for after, said in (
            (Totals(36, Decimal("313.35"), 0), "2 boards fewer, −$9.10"),
            (Totals(39, Decimal("330.00"), 0), "1 board more, +$7.55"),
            (before, "same purchase"),
            (
                replace(before, lengths={"2x4 12 ft": 1, "2x4 16 ft": 1, "1x4 8 ft": 2}),
                "1 × 2x4 10 ft + 1 × 2x4 8 ft became 1 × 2x4 12 ft + 1 × 2x4 16 ft",
            ),
            (
                replace(before, lengths={f"2x4 {n} ft": 1 for n in range(4)}),
                "other lengths at the same cost",
            ),
            (Totals(38, Decimal("322.45"), 2), "2 without a board"),
            (Totals(37, Decimal("312.85"), 2), "2 without a board, 1 board fewer, −$9.60"),
            (Totals(37, Decimal("312.85"), 0), "1 board fewer, −$9.60"),
        ):
            self.assertEqual(compare(before, after, "USD"), said)


class SettingsTest(TestCase):
    def test_faults_by_field(self) -> None:
        for typed, place in (
            ({"kerf": "x"}, "kerf"),
            ({"kerf": "2"}, "kerf"),
            ({"trim_start": "60"}, "trim_start"),
            ({"trim_end": "-1"}, "trim_end"),
            ({"copies": 0}, "copies"),
            ({"notation": "mm"}, "notation"),
            ({"notation": "1/3"}, "notation"),
            ({"unit": "ft"}, "unit"),
        ):
            with self.assertRaises(CarpentryError, msg=typed) as caught:
                settings(**typed)
            self.assertEqual([p.place for p in caught.exception.problems], [place])


class FilesTest(TestCase):
    def document(self) -> dict[str, object]:
        return {
            "format": "grain-tally/project@1",
            "name": "Rain-barrel stand",
            "unit": "in",
            "kerf": "1/8",
            "trim": {"start": "1/2", "end": "0"},
            "copies": 2,
            "yard": "Tallow Street Yard",
            "parts": [
                {"mark": "A", "quantity": "4", "name": "leg", "stock": "4x4", "length": "24½"}
            ],
        }

    def test_a_project_reads_back(self) -> None:
        first = read_project_file(json.dumps(self.document()))
        again = read_project_file(json.dumps(project_document(first)))
        self.assertEqual(first, again)
        self.assertEqual(again.parts[0].fields.length, "24½")

    def test_faults_of_a_project_by_path(self) -> None:
        part = {"quantity": "4", "stock": "4x4", "length": "24"}
        for change, path in (
            ({"format": "x"}, "format"),
            ({"name": ""}, "name"),
            ({"unit": "ft"}, "unit"),
            ({"kerf": "wide"}, "kerf"),
            ({"trim": {"start": "99"}}, "trim.start"),
            ({"copies": 0}, "copies"),
            ({"colour": 1}, "colour"),
            ({"parts": [part | {"length": "x"}]}, "parts[0].length"),
            ({"parts": [part | {"size": "x"}]}, "parts[0].size"),
            ({"parts": [part | {"mark": "a1"}]}, "parts[0].mark"),
            ({"parts": [part | {"mark": "A"}, part | {"mark": "A"}]}, "parts"),
        ):
            with self.assertRaises(CarpentryError, msg=path) as caught:
                read_project_file(json.dumps(self.document() | change))
            self.assertIn(path, [p.place for p in caught.exception.problems])

    def test_a_yard_reads_back(self) -> None:
        lines = tuple(read_prices_csv(sample("tallow-street.prices.csv"))["Tallow Street Yard"])
        yard = YardFile("Y", Unit.INCH, "USD", Tax(Decimal("6.75"), included=True), "each", lines)
        again = read_yard_file(json.dumps(yard_document(yard)))
        self.assertEqual(yard_document(again), yard_document(yard))
        self.assertEqual(again.tax, yard.tax)

    def test_faults_of_a_yard_by_path(self) -> None:
        line = {"stock": "2x4", "length": "8ft", "price": "5"}
        good = {"format": "grain-tally/yard@1", "name": "Y", "lines": [line]}
        for change, path in (
            ({"currency": "XXZ"}, "currency"),
            ({"tax_rate": "lots"}, "tax_rate"),
            ({"tax_rate": "60"}, "tax_rate"),
            ({"prices_include_tax": "no"}, "prices_include_tax"),
            ({"board_foot_rounding": "up"}, "board_foot_rounding"),
            ({"lines": [line | {"price": "x"}]}, "lines[0].price"),
            ({"lines": [line, line]}, "lines[1]"),
        ):
            with self.assertRaises(CarpentryError, msg=path) as caught:
                read_yard_file(json.dumps(good | change))
            self.assertIn(path, [p.place for p in caught.exception.problems])
