"""The one re-planner, what a plan rests on, and what is told before a size is corrected."""

from collections import Counter
from dataclasses import replace
from decimal import Decimal
from unittest import TestCase

from carpentry.buying import PriceFields, PriceLine, Tax, read_price_line
from carpentry.cutting import first_plan, plan_document
from carpentry.design import Part, PartFields, matched, mirror_pairs, read_part
from carpentry.language import Json, PlanCheckError
from carpentry.lumber import INCHES, MILLIMETRES, Lexicon, OwnFields, Section, read_own
from carpentry.lumber.rack import BoardFields, OnHand, read_board
from carpentry.planning import (
    Basis,
    Facts,
    PlannedProject,
    RackBoard,
    Touched,
    Workup,
    effects_of_section,
    effects_on_board,
    is_settled,
    numbered_boards,
    read_basis,
    replan,
    settled_among,
    usable,
)
from carpentry.project import NamedPart, SettingFields, part_in, read_settings, settings_in
from carpentry.tests.problems import ticks


def line(stock: str, length: str, price: str) -> PriceLine:
    return read_price_line(PriceFields(stock=stock, length=length, price=price), INCHES)


LIST = (line("2x4", "8ft", "4.10"), line("2x4", "10ft", "5.35"), line("1x6 cedar", "8ft", "9.20"))


def part(text: str, **typed: str) -> Part:
    quantity, name, stock, length = text.split(";")
    return read_part(PartFields(quantity, name, stock, length, **typed), INCHES)


def project(*parts: Part, **settings: object) -> PlannedProject:
    named = [NamedPart(str(n), one) for n, one in enumerate(parts)]
    chosen = read_settings(replace(SettingFields(), **settings))  # type: ignore[arg-type]
    return PlannedProject(chosen, named, {one.id: "ABCDEFG"[n] for n, one in enumerate(named)})


def basis(**other: object) -> Basis:
    return replace(Basis(INCHES.unit, lines=LIST, source="Millrace Yard"), **other)  # type: ignore[arg-type]


def plans(work: Workup) -> list[Json]:
    """A quick plan of every problem, as documents."""
    return [plan_document(first_plan(p), work.settings.unit) for p in work.problems if p]


TWO_WOODS = project(part("4;leg;2x4;33"), part("3;slat;1x6 cedar;44"))


class ReplanTest(TestCase):
    def setUp(self) -> None:
        self.work = Workup(TWO_WOODS, basis())
        self.first = replan(self.work, {}, [])
        self.made = self.first.whole(plans(self.work))

    def test_at_first_all_of_it_is_planned(self) -> None:
        self.assertEqual(len(self.first.open), 2)
        self.assertEqual(self.first.near, [None, None])
        self.assertEqual(self.first.whole(self.made), self.made)
        self.assertEqual(self.first.whole(self.made[:1]), [])

    def test_a_problem_that_is_known_keeps_its_plan(self) -> None:
        known = {self.first.digests[0]: self.made[0]}
        again = replan(self.work, known, [])
        self.assertEqual(again.open, [self.first.problems[1]])
        self.assertEqual(again.whole(self.made[1:]), self.made)

    def test_one_that_has_changed_is_planned_near_to_the_plan_before(self) -> None:
        longer = replace(
            TWO_WOODS, parts=[NamedPart("0", part("4;leg;2x4;34")), TWO_WOODS.parts[1]]
        )
        known = dict(zip(self.first.digests, self.made, strict=True))
        again = replan(Workup(longer, basis()), known, self.made)
        self.assertEqual(len(again.open), 1)
        self.assertEqual(again.near, [self.made[0]])
        self.assertIs(again.kept[1], self.made[1])

    def test_what_was_made_with_other_saws_or_trims_is_not_kept_to(self) -> None:
        fields = TWO_WOODS.settings.fields
        for other in (
            replace(fields, trim_start="0"),
            replace(fields, kerf="1/16"),
            replace(fields, saw_miter="40"),
        ):
            changed = replace(TWO_WOODS, settings=read_settings(other))
            again = replan(Workup(changed, basis()), {}, self.made)
            self.assertEqual(again.near, [None, None], other)

    def test_what_is_not_touched_keeps_its_plan_whatever_is_in_the_cart(self) -> None:
        cedar = LIST[2].stock
        facts = Facts(taken={cedar: Counter([OnHand(LIST[2].real_length)])})
        work = Workup(TWO_WOODS, basis(), facts)
        again = replan(work, {}, self.made)
        self.assertEqual(len(again.open), 2)
        left = again.leaving(work, {0}, self.first.digests, self.made)
        self.assertEqual(len(left.open), 1)
        self.assertEqual(left.digests[1], self.first.digests[1])
        self.assertEqual(left.whole(self.made[:1]), self.made)

    def test_another_number_of_woods_is_planned_as_a_whole(self) -> None:
        more = project(*(one.part for one in TWO_WOODS.parts), part("1;board;2x6;30"))
        work = Workup(more, basis())
        again = replan(work, {}, self.made)
        self.assertEqual(again.leaving(work, {0}, self.first.digests, self.made), again)

    def test_only_what_is_settled_need_not_be_made_again(self) -> None:
        proven = {**self.made[0], "status": "optimal", "bound": self.made[0]["price"], "proof": {}}
        open_ = {**self.made[1], "status": "feasible"}
        self.assertTrue(is_settled(proven))
        self.assertFalse(is_settled(open_))
        self.assertEqual(dict(settled_among(("a", "b"), (proven, open_))), {"a": proven})


class FactsTest(TestCase):
    def test_what_is_cut_is_not_planned_again(self) -> None:
        cut = {"0": {ticks("33"): 3}}
        work = Workup(TWO_WOODS, basis(), Facts(cut=cut))
        problem = work.problems[0]
        assert problem is not None
        self.assertEqual([one.quantity for one in problem.parts], [1])
        self.assertEqual(work.cut_already(), {"0": 3})
        whole = Workup(TWO_WOODS, basis(), Facts(cut={"0": {ticks("33"): 4}}))
        self.assertIsNone(whole.problems[0])

    def test_pieces_of_another_length_are_none_of_these(self) -> None:
        work = Workup(TWO_WOODS, basis(), Facts(cut={"0": {ticks("34"): 3}}))
        self.assertEqual(work.cut_already(), {})

    def test_the_list_as_it_turned_out(self) -> None:
        gone = tuple(replace(one, available=0) for one in LIST)
        work = Workup(TWO_WOODS, basis(), Facts(lines=gone))
        self.assertEqual({offer.available for m in work.materials for offer in m.offers}, {0})
        self.assertEqual(work.basis.lines, LIST)

    def test_a_check_of_some_materials_alone(self) -> None:
        work = Workup(TWO_WOODS, basis())
        made = plans(work)
        made[1] = {**made[1], "price": "0.01"}
        work.check(made, {0})
        with self.assertRaises(PlanCheckError):
            work.check(made)


class BasisTest(TestCase):
    def board(self, number: int, **noted: str) -> RackBoard:
        fields = BoardFields(stock="2x4", length="70", **noted)
        return RackBoard(f"id {number}", number, read_board(fields, INCHES))

    def test_it_reads_back(self) -> None:
        own = read_own(OwnFields(name="glulam", thickness="3", width="9"), "in")
        kept = basis(
            tax=Tax(Decimal("6.75"), included=False),
            own={own.name: own},
            rack=usable([self.board(1), self.board(2, width="3 7/16")]),
            packs="screws 2, 100, 8.60",
        )
        again = read_basis(kept.document())
        self.assertEqual(again.document(), kept.document())
        self.assertEqual(again.lexicon, Lexicon(INCHES.unit, {own.name: own}))
        work, later = (
            Workup(project(part("1;leg;2x4;33"), rack="always"), b) for b in (kept, again)
        )
        self.assertEqual(work.digest, later.digest)

    def test_a_twisted_board_is_left_on_the_rack(self) -> None:
        self.assertEqual(usable([self.board(1, twist="yes")]), {})

    def test_boards_are_taken_evenest_first_and_pieces_are_numbered(self) -> None:
        rack = usable([self.board(7, bow="1/4"), self.board(9)])
        work = Workup(project(part("2;leg;2x4;60"), rack="always"), basis(rack=rack))
        first, second = numbered_boards(work, work.plans(plans(work)))
        self.assertEqual([b.taken.number for b in (first, second) if b.taken], [9, 7])
        self.assertEqual([p.label for b in (first, second) for p in b.pieces], ["A1", "A2"])

    def test_a_board_in_the_cart_is_none_of_the_rack(self) -> None:
        facts = Facts(taken={LIST[0].stock: Counter([OnHand(LIST[0].real_length)])})
        work = Workup(project(part("1;leg;2x4;60")), basis(), facts)
        (board,) = numbered_boards(work, work.plans(plans(work)))
        self.assertTrue(board.offer.owned)
        self.assertIsNone(board.taken)


class EffectsTest(TestCase):
    def test_a_corrected_size(self) -> None:
        before = Section(ticks("1 1/2"), ticks("3 1/2"))
        after = Section(ticks("1 1/2"), ticks("3 7/16"))
        own_width = part("2;rail;2x4;40", width="3 1/2")
        touched = [Touched("A", part("4;leg;2x4;33"), 4, False), Touched("B", own_width, 2, False)]
        leg, rail = effects_of_section(touched, before, after)
        self.assertEqual((leg.of.mark, leg.before, leg.after, leg.why), ("A", before, after, ""))
        self.assertEqual((rail.after, rail.why), (before, "is more than the width of its stock"))
        self.assertEqual(list(effects_of_section(touched, before, before)), [])

    def test_a_board_that_is_measured_again(self) -> None:
        touched = [Touched("A", part("1;leg;2x4;33"), 1, False)]
        board = read_board(BoardFields(stock="2x4", length="70"), INCHES)
        for noted, why in (
            ({"length": "60"}, "the board has another length: it is planned anew"),
            ({"twist": "yes"}, "twisted: rejected"),
        ):
            fields = replace(board.fields, **noted)
            (effect,) = effects_on_board(touched, board, read_board(fields, INCHES))
            self.assertEqual((effect.after, effect.why), (None, why))


class PartsTest(TestCase):
    def test_left_and_right(self) -> None:
        parts = {
            "l": part("1;left;2x4;40", ends="20 10b"),
            "r": part("1;right;2x4;40", ends="10b 20"),
            "x": part("1;longer;2x4;41", ends="10b 20"),
            "p": part("1;parallel;2x4;40", ends="20 -20"),
            "s": part("1;square;2x4;40"),
        }
        self.assertEqual(mirror_pairs(parts), {"l": "r", "r": "l"})

    def test_which_parts_of_a_list_are_the_same(self) -> None:
        rail, leg, slat = part("2;rail;2x4;41"), part("4;leg;2x4;33"), part("6;slat;1x4;20")
        known = [("1", leg.fields), ("2", rail.fields), ("3", slat.fields)]
        longer = part("2;rail;2x4;42")
        self.assertEqual(matched(known, [longer, leg]), ["2", "1"])
        self.assertEqual(matched(known, [part("6;slat;1x6;22")]), ["3"])
        self.assertEqual(matched(known, [part("1;top;2x4;33")]), [None])
        twins = [("1", leg.fields), ("2", leg.fields)]
        self.assertEqual(matched(twins, [leg, leg, leg]), ["1", "2", None])

    def test_in_another_unit_nothing_changes_its_size(self) -> None:
        typed = PartFields("2", "leg", "2x4", "33 1/2", extra_length="1/4")
        there = part_in(read_part(typed, INCHES), INCHES, MILLIMETRES.unit)
        before, after = read_part(typed, INCHES), read_part(there, MILLIMETRES)
        self.assertEqual(after.length.ticks, before.length.ticks)
        self.assertEqual(after.extra[0], replace(before.extra[0], text=there.extra_length))  # type: ignore[type-var]
        settings = read_settings(SettingFields(kerf="3/32", saw_rip_width=""))
        metric = read_settings(settings_in(settings, MILLIMETRES.unit))
        self.assertEqual(metric.kerf.ticks, settings.kerf.ticks)
        self.assertEqual(metric.fields.trim_start, "10")  # the usual one becomes the usual one
        self.assertIsNone(metric.saw.rip_width)
