"""Cuts: every part comes free at its size, on boards of every sort, by the cuts alone."""

import json
import random
from dataclasses import replace
from decimal import Decimal
from unittest import TestCase

from carpentry.cutting import (
    Budget,
    Cut,
    CutPart,
    CutProblem,
    Layout,
    Leftover,
    Order,
    Saw,
    SawnPiece,
    StockPiece,
    check_plan,
    first_plan,
    plan_cuts,
    plan_document,
    read_plan,
    read_problem,
    with_cuts,
)
from carpentry.cutting.check import layout_faults
from carpentry.cutting.problem import Extra, SawLimits
from carpentry.design.edges import outermost_width, read_edges
from carpentry.design.ends import EndAngle
from carpentry.language import PlanCheckError, Unit
from carpentry.tests import often, seeds
from carpentry.tests.problems import problem, ticks
from carpentry.tests.random_problems import SORTS, random_problem

FIVE = Budget(5.0)
KERF = ticks("1/8")


def board(width: str, length: str = "96", thickness: str = "1 1/2", **more: object) -> StockPiece:
    piece = StockPiece("board", ticks(length), Decimal(9), None, ticks(thickness), ticks(width))
    return replace(piece, **more)  # type: ignore[arg-type]


def part(name: str, width: str, length: str, count: int = 1, thickness: str = "1 1/2") -> CutPart:
    return CutPart(name, ticks(length), count, ticks(thickness), ticks(width))


def cut_from(piece: StockPiece, *parts: CutPart, start: str = "0", **more: object) -> CutProblem:
    given = CutProblem(Unit.INCH, KERF, ticks(start), 0, (piece,), parts)
    return replace(given, **more)  # type: ignore[arg-type]


def lines_of(layout: Layout, saw: Saw) -> list[tuple[int, int]]:
    return [(cut.start, cut.end) for cut in layout.cuts if cut.saw is saw]


class EveryPartComesFreeTest(TestCase):
    """Thousands of boards, first plans at once and searched ones: ``check_plan``, which shares no
    code with what makes the cuts, replays every one of them before it is returned."""

    def test_first_plans_of_every_sort(self) -> None:
        boards = 0
        for sort in SORTS:
            for seed in seeds(60, 500) if sort in ("line", "angled") else seeds(8, 60):
                with self.subTest(sort=sort, seed=seed):
                    given = random_problem(sort, seed)
                    plan = first_plan(given)
                    check_plan(given, plan)
                    boards += sum(layout.count for layout in plan.layouts)
        self.assertGreater(boards, often(400, 3_000))

    def test_searched_plans_of_every_sort(self) -> None:
        for sort in SORTS:
            for seed in seeds(3, 10, first=1_000):
                with self.subTest(sort=sort, seed=seed):
                    given = random_problem(sort, seed)
                    plan = plan_cuts(given, Budget(0.2))
                    check_plan(given, plan)
                    document = json.loads(json.dumps(plan_document(plan, given.unit)))
                    self.assertEqual(read_plan(document, given.unit), plan)

    def test_points_inside_a_part_end_up_in_it(self) -> None:
        """Another way to see it, which knows no planes: a grain of wood anywhere in a part is on
        one side of every square cut that it meets, never in the saw, and ends in that part."""
        chance = random.Random(4)
        grains = 0
        for sort in ("line", "ripped", "eased", "flawed", "limited"):
            for seed in seeds(12, 40):
                given = random_problem(sort, seed)
                for layout in first_plan(given).layouts:
                    wide = next(p for p in given.stock if p.id == layout.stock)
                    fates = {one.number: one.part for one in layout.pieces}
                    for placed in layout.parts:
                        spans = (
                            (placed.start, placed.end),
                            placed.y or (0, wide.width or 1),
                            placed.z or (0, wide.thickness or 1),
                        )
                        grain = tuple(chance.uniform(low, high) for low, high in spans)
                        self.assertEqual(fates[self.piece_of(grain, layout)], placed.part)
                        grains += 1
        self.assertGreater(grains, often(300, 1_000))

    def piece_of(self, grain: tuple[float, ...], layout: Layout) -> int:
        piece = 0
        for cut in layout.cuts:
            if cut.of != piece:
                continue
            at = grain[[Saw.CROSSCUT, Saw.RIP, Saw.RESAW].index(cut.saw)]
            self.assertFalse(cut.start < at < cut.end, "a grain of a part is sawn to dust")
            made = cut.makes[0] if at <= cut.start else cut.makes[1]
            assert made is not None
            piece = made
        return piece


class SawLinesTest(TestCase):
    """Worked by hand: where the saw runs."""

    def only_layout(self, given: CutProblem) -> Layout:
        (layout,) = plan_cuts(given, FIVE).layouts
        self.assertEqual(layout.count, 1)
        return layout

    def test_strips_begin_at_the_marked_edge(self) -> None:
        """Two 1 1/2 x 40 from a 2x10: rips at 1 1/2 and 3 1/8, not a first strip of 6 3/8."""
        layout = self.only_layout(cut_from(board("9 1/4"), part("rail", "1 1/2", "40", 2)))
        first, second = lines_of(layout, Saw.RIP)
        self.assertEqual(first, (ticks("1 1/2"), ticks("1 5/8")))
        self.assertEqual(second, (ticks("3 1/8"), ticks("3 1/4")))

    def test_waste_before_a_strip_gets_its_line(self) -> None:
        given = cut_from(board("9 1/4"), part("rail", "1 1/2", "96"))
        y = (ticks("4"), ticks("5 1/2"))
        placed = plan_cuts(given, FIVE).layouts[0].parts[0]
        layout = with_cuts(given, Layout("board", 1, (replace(placed, y=y),)))
        self.assertEqual(
            lines_of(layout, Saw.RIP),
            [(ticks("3 7/8"), ticks("4")), (ticks("5 1/2"), ticks("5 5/8"))],
        )
        self.assertEqual(layout_faults(given, layout), [])

    def test_a_rounded_edge_is_ripped_off_before_the_first_strip(self) -> None:
        given = cut_from(
            board("3 1/2", "60"), part("strip", "1 1/2", "59", 2), eased=ticks("1/8"), start="1/2"
        )
        layout = self.only_layout(given)
        rips = lines_of(layout, Saw.RIP)
        self.assertEqual(rips[0], (0, ticks("1/8")))
        self.assertEqual(rips[1][0], ticks("1 5/8"))
        self.assertEqual(len(rips), 3)

    def test_a_resaw_goes_through_its_own_strip_alone(self) -> None:
        """A thin slat beside a full rail out of one board: the resaw is of the slat's strip."""
        given = cut_from(
            board("5 1/2"),
            part("rail", "3 1/2", "90"),
            CutPart("slat", ticks("90"), 1, ticks("5/8"), ticks("1 3/4"), turn=False),
        )
        layout = self.only_layout(given)
        (resaw,) = (cut for cut in layout.cuts if cut.saw is Saw.RESAW)
        rail = next(one.number for one in layout.pieces if one.part == "rail")
        self.assertNotIn(rail, self.inside(layout, resaw.of))

    def inside(self, layout: Layout, piece: int) -> set[int]:
        """The pieces that a piece is cut into, itself too."""
        found = {piece}
        for cut in layout.cuts:
            if cut.of in found:
                found.update(made for made in cut.makes if made is not None)
        return found

    def test_two_passes_are_no_more_than_a_kerf(self) -> None:
        """Two halves of a board are each half of it less half a kerf."""
        halves = problem([("96", "5", None)], [("47 15/16", 2)])
        (layout,) = plan_cuts(halves).layouts
        self.assertEqual(lines_of(layout, Saw.CROSSCUT), [(ticks("47 15/16"), ticks("48 1/16"))])

    def test_shared_and_slanted_lines(self) -> None:
        """At 45° a 1/8 kerf takes 1/8 x sqrt 2 = 0.1768 in along the board, 1437 ticks."""
        given = read_problem(
            json.dumps(
                {
                    "kerf": "1/8",
                    "share_angled_cuts": True,
                    "stock": [
                        {"id": "2x4", "length": "60", "price": "4"}
                        | {"thickness": "1 1/2", "width": "3 1/2"}
                    ],
                    "parts": [
                        {"id": "slat", "length": "20", "quantity": 2, "ends": ["45", "-45"]}
                        | {"thickness": "1 1/2", "width": "3 1/2"}
                    ],
                }
            )
        )
        (layout,) = plan_cuts(given).layouts
        slanted = [cut for cut in layout.cuts if cut.angle.degrees]
        self.assertEqual({cut.end - cut.start for cut in slanted}, {1437})
        self.assertEqual(len(slanted), 3)  # the one in the middle makes two ends

    def test_a_crooked_board_is_straightened_first(self) -> None:
        """5 1/2 wide with a hollow of 1/2: the belly's corner first, then the hollow with its
        corner; what is straight lies from 5/8 to 5 3/8."""
        crooked = board("5 1/2", crook=ticks("1/2"), corner=ticks("1/8"))
        layout = self.only_layout(cut_from(crooked, part("rail", "4 3/4", "90")))
        self.assertEqual(
            lines_of(layout, Saw.RIP)[:2],
            [(ticks("5 3/8"), ticks("5 1/2")), (ticks("1/2"), ticks("5/8"))],
        )
        self.assertEqual(layout.parts[0].y, (ticks("5/8"), ticks("5 3/8")))
        wider = plan_cuts(cut_from(crooked, part("rail", "4 13/16", "90")), FIVE)
        self.assertEqual([one.part for one in wider.unplaced], ["rail"])


class OffcutsTest(TestCase):
    def test_strips_worth_keeping_are_kept(self) -> None:
        given = cut_from(
            board("9 1/4", "40"),
            part("rail", "3 1/2", "40"),
            keep_offcut_from=ticks("12"),
            keep_width=ticks("1 1/2"),
        )
        (layout,) = plan_cuts(given, FIVE).layouts
        (kept,) = (rest for rest in layout.leftover if rest.keep)
        self.assertEqual((kept.length, kept.y), (ticks("40"), (ticks("3 5/8"), ticks("9 1/4"))))
        self.assertEqual(sum(one.keep for one in layout.pieces), 1)
        narrow = replace(given, keep_width=ticks("6"))
        (layout,) = plan_cuts(narrow, FIVE).layouts
        self.assertFalse(any(one.keep for one in layout.pieces))

    def test_a_stock_may_have_a_limit_of_its_own(self) -> None:
        given = problem([("96", "5", None)], [("60", 1)])
        given = replace(given, keep_offcut_from=ticks("12"))
        (layout,) = plan_cuts(given).layouts
        self.assertTrue(layout.leftover[0].keep)
        stock = tuple(replace(piece, keep_from=ticks("40")) for piece in given.stock)
        (layout,) = plan_cuts(replace(given, stock=stock)).layouts
        self.assertFalse(layout.leftover[0].keep)

    def test_a_flaw_is_cut_out_of_what_is_kept(self) -> None:
        given = problem([("96", "5", None)], [("20", 1)])
        flawed = replace(given.stock[0], flaws=((ticks("50"), ticks("52")),))
        given = replace(given, stock=(flawed,), keep_offcut_from=ticks("12"))
        (layout,) = plan_cuts(given).layouts
        kept = [(rest.start, rest.end) for rest in layout.leftover if rest.keep]
        self.assertEqual(kept, [(ticks("20 1/8"), ticks("50")), (ticks("52"), ticks("96"))])
        self.assertEqual(sum(one.keep for one in layout.pieces), 2)


class LimitsOfTheSawTest(TestCase):
    def reason(self, given: CutProblem) -> str:
        plan = plan_cuts(given, FIVE)
        (unplaced,) = plan.unplaced
        return unplaced.reason

    def test_no_resaw_deeper_than_the_saw(self) -> None:
        """5/8 x 9 1/2 out of a 2x12 is a resaw 9 1/2 deep."""
        panel = CutPart("panel", ticks("40"), 1, ticks("5/8"), ticks("9 1/2"))
        given = cut_from(board("11 1/4"), panel)
        self.assertEqual(plan_cuts(given, FIVE).unplaced, ())
        limited = replace(given, saw=SawLimits(resaw_depth=ticks("6")))
        self.assertIn("resaws up to 6", self.reason(limited))
        allowed = replace(given, saw=SawLimits(resaw_depth=ticks("9 1/2")))
        self.assertEqual(plan_cuts(allowed, FIVE).unplaced, ())

    def test_crosscuts_no_wider_than_the_saw(self) -> None:
        wide = part("shelf", "9 1/4", "40")
        limited = SawLimits(crosscut=ticks("8"))
        given = cut_from(board("9 1/4"), wide, saw=limited)
        self.assertIn("9 1/4″ is wider than the saw crosscuts, 8″", self.reason(given))
        narrow = cut_from(board("9 1/4"), part("rail", "3 1/2", "40", 4), saw=limited)
        (layout,) = plan_cuts(narrow, FIVE).layouts
        self.assertIs(layout.cuts[0].saw, Saw.RIP)  # too wide to be crosscut before it is ripped
        first = replace(narrow, order=Order.CROSSCUT_FIRST)
        self.assertIn("crosscuts come first", self.reason(first))

    def test_angles_beyond_the_saw(self) -> None:
        given = cut_from(board("3 1/2"), part("brace", "3 1/2", "20"))
        ends = (EndAngle(Decimal(55)), EndAngle())
        steep = replace(given, parts=(replace(given.parts[0], ends=ends),))
        self.assertEqual(plan_cuts(steep).unplaced, ())
        limited = replace(steep, saw=SawLimits(miter=Decimal(50)))
        self.assertIn("goes to 50°", self.reason(limited))
        edges = read_edges("50 0")
        wide = outermost_width(ticks("2"), edges, ticks("1 1/2"))
        bevelled = replace(given.parts[0], edges=edges, width=wide)
        tilted = replace(given, parts=(bevelled,), saw=SawLimits(tilt=Decimal(45)))
        self.assertIn("tilts to 45°", self.reason(tilted))

    def test_thick_boards_are_not_ripped(self) -> None:
        given = cut_from(board("3 1/2", thickness="3 1/2"), part("rail", "1 1/2", "40"))
        rip = SawLimits(rip_depth=ticks("3"), resaw_depth=ticks("3"))
        self.assertIn("rips up to 3", self.reason(replace(given, saw=rip)))
        resawn = SawLimits(rip_depth=ticks("3"), resaw_depth=ticks("4"))
        (layout,) = plan_cuts(replace(given, saw=resawn), FIVE).layouts
        kinds = [cut.saw for cut in layout.cuts if cut.saw is not Saw.CROSSCUT]
        self.assertEqual(kinds, [Saw.RESAW, Saw.RIP])

    def test_a_part_may_forbid_what_others_may(self) -> None:
        thin = CutPart("slat", ticks("40"), 1, ticks("3/4"), ticks("3 1/2"), turn=False)
        given = cut_from(board("3 1/2"), thin)
        self.assertEqual(plan_cuts(given, FIVE).unplaced, ())
        kept = replace(given, parts=(replace(thin, resaw=False),))
        self.assertEqual([one.part for one in plan_cuts(kept, FIVE).unplaced], ["slat"])
        narrow = part("rail", "1 1/2", "40")
        whole = cut_from(board("3 1/2"), replace(narrow, rip=False))
        self.assertEqual([one.part for one in plan_cuts(whole, FIVE).unplaced], ["rail"])

    def test_bad_limits_are_named(self) -> None:
        with self.assertRaises(Exception) as raised:
            read_problem(
                '{"saw": {"crosscut": "wide", "tilt": "45b", "bite": "3"},'
                ' "stock": [{"id": "a", "length": "96", "price": "5"}],'
                ' "parts": [{"id": "x", "length": "40"}]}'
            )
        told = str(raised.exception)
        for words in ("saw.crosscut: ", "saw.tilt: “45b” is no angle of a saw", "saw.bite: "):
            self.assertIn(words, told)


class ReplayTest(TestCase):
    """Every way of spoiling cuts is noticed."""

    def setUp(self) -> None:
        self.given = cut_from(board("5 1/2", "60"), part("rail", "2 1/2", "28", 4), start="1/2")
        self.plan = plan_cuts(self.given, FIVE)
        self.layout = self.plan.layouts[0]

    def refused(self, words: str, **change: object) -> None:
        spoiled = replace(self.layout, **change)  # type: ignore[arg-type]
        with self.assertRaisesRegex(PlanCheckError, words):
            check_plan(self.given, replace(self.plan, layouts=(spoiled,)))

    def changed(self, number: int, **change: object) -> tuple[Cut, ...]:
        cuts = list(self.layout.cuts)
        cuts[number] = replace(cuts[number], **change)  # type: ignore[arg-type]
        return tuple(cuts)

    def test_what_is_wrong(self) -> None:
        check_plan(self.given, self.plan)
        first, rip = (
            self.layout.cuts[0],
            next(n for n, cut in enumerate(self.layout.cuts) if cut.saw is Saw.RIP),
        )
        line = self.layout.cuts[rip]
        self.refused("the saw takes", cuts=self.changed(0, end=first.end + 1))
        moved = {"start": line.start + 1, "end": line.end + 1}
        self.refused("its size or place is another", cuts=self.changed(rip, **moved))
        self.refused("no such piece", cuts=self.changed(0, of=99))
        self.refused("pieces are not those", cuts=self.layout.cuts[:-1])
        self.refused("is said to lie", cuts=self.changed(0, makes=(None, first.makes[1])))
        self.refused("is made twice", cuts=self.changed(0, makes=(first.makes[1],) * 2))
        bent = self.changed(0, saw=Saw.RESAW, angle=EndAngle(Decimal(5), bevel=True))
        self.refused("a resaw is square", cuts=bent)
        swapped = tuple(
            replace(one, part="" if one.part else "rail", keep=False) for one in self.layout.pieces
        )
        self.refused("is no rail", pieces=swapped)
        every = tuple(SawnPiece(one.number, one.part, True) for one in self.layout.pieces)
        self.refused("has no sound wood", pieces=every)
        self.refused("a leftover is not what remains", leftover=(Leftover(0, ticks("60")),))

    def test_the_order_of_work(self) -> None:
        """Rips of the whole board, then crosscuts, are no plan that crosscuts first."""
        ripped = replace(self.given, order=Order.RIP_FIRST)
        plan = plan_cuts(ripped, FIVE)
        with self.assertRaisesRegex(PlanCheckError, "not in the allowed order"):
            other = replace(self.given, order=Order.CROSSCUT_FIRST)
            check_plan(other, plan)

    def test_limits_are_looked_at(self) -> None:
        tight = replace(self.given, saw=SawLimits(rip_depth=ticks("1")))
        with self.assertRaisesRegex(PlanCheckError, "beyond what the saw can do"):
            check_plan(tight, self.plan)

    def test_extra_wood_is_part_of_the_size(self) -> None:
        more = replace(self.given.parts[0], extra=Extra(length=ticks("1/2"), width=ticks("1/8")))
        given = replace(self.given, parts=(more,))
        plan = plan_cuts(given, FIVE)
        self.assertEqual(plan.unplaced, ())
        with self.assertRaises(PlanCheckError):
            check_plan(self.given, plan)
