"""Set-ups: every cut in one of them, as few as can be, and parts that come off the cards alone."""

import json
import math
import random
from collections import Counter
from collections.abc import Sequence
from dataclasses import replace
from decimal import Decimal
from unittest import TestCase

from carpentry.cutting import (
    Cut,
    CutPart,
    CutPlan,
    CutProblem,
    PlacedPart,
    Saw,
    SawnPiece,
    StockPiece,
    first_plan,
)
from carpentry.design.edges import mean_width, wider_width
from carpentry.design.ends import is_angled, read_ends
from carpentry.design.outline import read_notches
from carpentry.language import CarpentryError, Json, Notation, Unit
from carpentry.lumber import Section
from carpentry.lumber.cautions import CROSSCUTS
from carpentry.planning import plan_all, work_up_files
from carpentry.project import read_project_file, read_yard_file
from carpentry.shop import (
    BenchBoard,
    Position,
    Sequenced,
    Tools,
    board_by_board,
    board_document,
    boards_to_cut,
    every_cut,
    read_board_document,
    read_tool,
    read_tools_file,
    shop_document,
    starter_tools,
    stop_by_stop,
    tools_document,
)
from carpentry.shop.bench_cuts import position_of
from carpentry.shop.lying import Lying
from carpentry.shop.said import line_said, way_said
from carpentry.shop.sequence import in_fewest_rounds
from carpentry.shop.set_ups import cautions_of, minutes_of
from carpentry.shop.shaping import PartShape
from carpentry.shop.shop_file import set_ups_document
from carpentry.shop.ways import Chosen, Crosscut, Rip, Way, for_crosscut, for_rip
from carpentry.tests import seeds
from carpentry.tests.benches import Waits, benched, fewest_rounds
from carpentry.tests.card_reader import CardReader, Solid
from carpentry.tests.problems import ticks
from carpentry.tests.random_problems import SORTS, random_problem
from carpentry.tests.terminal import ROOT, run

INCH = 8128
CLOSE = 0.01  # of an inch, that slanted faces may be off by


def tools(**owned: object) -> Tools:
    return read_tools_file(json.dumps({name.replace("_", " "): one for name, one in owned.items()}))


OWNED = {
    "common ones": starter_tools(),
    "tilting to the right": tools(
        miter_saw={"tilt": "45", "tilt left": "0", "swing left": "0", "miter": "75"},
        table_saw={"tilt side": "right", "tilt": "75"},
    ),
    "to one side": tools(
        miter_saw={"miter": "60", "swing right": "0", "tilt": "60", "tilt right": "0"},
        table_saw={"tilt": "75", "tilt side": "left", "rip": "4"},
        hand_saw=True,
    ),
    "a wedge": tools(
        miter_saw={"miter": "25", "tilt": "25"},
        table_saw={"tilt": "25", "tilt side": "left"},
        wedge={"tilt": "15"},
    ),
    "hand tools": tools(circular_saw={"depth": "1", "tilt": "45"}, hand_saw=True),
    "a table saw alone": tools(table_saw={"depth": "2"}),
}


def read_cards(boards: Sequence[BenchBoard], found: Sequenced, kerf: int) -> CardReader:
    """What somebody has in hand who followed the cards."""
    sizes = {board.number: board.size for board in boards}
    inches = {n: (one[0] / INCH, one[1] / INCH, one[2] / INCH) for n, one in sizes.items()}
    reader = CardReader(inches, kerf / INCH, Unit.INCH)
    cards = json.loads(json.dumps(set_ups_document(found, Unit.INCH, Notation.SIXTY_FOURTHS)))
    reader.cut_further = {(cut["board"], cut["piece"]) for card in cards for cut in card["cuts"]}
    for card in cards:
        reader.work(card)
    return reader


class CardsAloneTest(TestCase):
    """Parts at their size from what is printed on the cards, by a reader of its own."""

    def hold(self, problem: CutProblem, reader: CardReader, unplaced: Counter[str]) -> None:
        """Every part that has a place is in hand, at its size, and in its shape by volume."""
        for part in problem.parts:
            mine = [reader.labels[label] for label, one in reader.parts.items() if one == part.id]
            self.assertEqual(len(mine), part.quantity - unplaced[part.id], part.id)
            for solid in mine:
                self._measure(part, solid.extents(), solid.volume())

    def _measure(self, part: CutPart, extents: list[float], volume: float) -> None:
        extra = part.extra
        self.assertAlmostEqual(extents[0], part.sawn_length / INCH, delta=CLOSE, msg=part.id)
        if part.thickness is None or part.width is None or part.whole:
            return
        wanted = (part.thickness, part.width)
        sawn = (part.thickness + extra.thickness, part.width + extra.width)
        for got, least, most in zip(sorted(extents[1:]), sorted(wanted), sorted(sawn), strict=True):
            self.assertTrue(least / INCH - CLOSE < got < most / INCH + CLOSE, (part, extents))
        if extra.width or extra.thickness or (is_angled(part.ends) and is_angled(part.edges)):
            return
        mean = part.sawn_length - sum(part.reach(end) for end in (0, 1)) / 2
        wide = part.width
        if is_angled(part.edges):
            wide = mean_width(
                wider_width(part.width, part.edges, part.thickness), part.edges, part.thickness
            )
        whole = mean * wide * part.thickness / INCH**3
        self.assertAlmostEqual(volume, whole, delta=0.005 * whole + 0.02, msg=str(part))

    def follow(self, problem: CutProblem, plan: CutPlan, owned: Tools) -> None:
        boards = benched(problem, plan)
        cuts = every_cut(boards, owned)
        unplaced = Counter({one.part: one.quantity for one in plan.unplaced})
        every = sorted((b.number, n) for b in boards for n in range(1, len(b.cuts) + 1))
        for found in (stop_by_stop(cuts, owned), board_by_board(cuts, owned)):
            made = [cut.key for one in found.set_ups for cut in one.cuts]
            self.assertEqual(sorted(made), every)
            self.hold(problem, read_cards(boards, found, problem.kerf), unplaced)

    def test_random_boards_of_every_sort(self) -> None:
        every = list(OWNED.items())
        for n, sort in enumerate(SORTS):
            for seed in seeds(3, 50):
                name, owned = every[(n + seed) % len(every)]
                with self.subTest(sort=sort, seed=seed, owned=name):
                    problem = random_problem(sort, seed)
                    self.follow(problem, first_plan(problem), owned)

    def test_the_cold_frame(self) -> None:
        yard = read_yard_file((ROOT / "demo/tallow-street.yard.json").read_bytes())
        project = read_project_file((ROOT / "demo/cold-frame.project.json").read_bytes())
        work = work_up_files(project, yard)
        plans = plan_all(work, 3)
        owned = starter_tools()
        boards = boards_to_cut(work, plans)
        found = stop_by_stop(every_cut(boards, owned), owned)
        self.assertTrue(any(one.position.tilt for one in found.set_ups))
        reader = read_cards(boards, found, work.settings.kerf.ticks)
        for problem in work.problems:
            assert problem
            self.hold(problem, reader, Counter())
        self.assertEqual(len(reader.labels), sum(b.quantity for b in project.parts))


class ShapedCardsTest(TestCase):
    """Ends that take more than a plain cut, from what is printed on the cards alone."""

    WIDE, THICK, LONG = 3.5, 1.5, 24.0

    def board(self, ends: str, *, on_edge: bool = False) -> BenchBoard:
        wide, thick, long = (round(one * INCH) for one in (self.WIDE, self.THICK, self.LONG))
        section = Section(wide, thick) if on_edge else Section(thick, wide)
        cut = Cut(Saw.CROSSCUT, 0, long, long + 1016, (1, 2))
        board = BenchBoard(
            number=1,
            stock="2x4",
            length=2 * long,
            section=section,
            cuts=(cut,),
            pieces=(SawnPiece(1, "p"), SawnPiece(2)),
            shapes={"p": PartShape(long, wide, thick, read_ends(ends))},
        )
        written = json.loads(json.dumps(board_document(board)))
        again = read_board_document(written)
        self.assertEqual(board_document(again), written)
        return again.holding([(PlacedPart("p", 0, long), "A1")])

    def cut(self, ends: str, owned: Tools, *, on_edge: bool = False) -> Solid:
        board = self.board(ends, on_edge=on_edge)
        found = stop_by_stop(every_cut([board], owned), owned)
        return read_cards([board], found, 1016).labels["A1"]

    def test_ends_are_as_they_were_typed(self) -> None:
        sides = tools(
            miter_saw={"miter": "60", "tilt": "60", "tilt right": "0"}, table_saw={"depth": "3"}
        )
        for seed in seeds(40, 400):
            chance = random.Random(seed)
            ends = f"{_any_end(chance)}, {_any_end(chance)}"
            on_edge = chance.random() < 0.3
            with self.subTest(ends=ends, seed=seed, on_edge=on_edge):
                solid = self.cut(ends, sides if seed % 2 else starter_tools(), on_edge=on_edge)
                shape = read_ends(ends)
                for up, out in ((0.0, 0.0), (0.0, 1.0), (1.0, 0.0), (1.0, 1.0), (0.5, 0.5)):
                    lost = [one.lost(up, out, self.THICK * INCH, self.WIDE * INCH) for one in shape]
                    at = _along(solid, up, out, on_edge=on_edge, wide=self.WIDE, thick=self.THICK)
                    self.assertAlmostEqual(at[0], lost[0] / INCH, delta=CLOSE)
                    self.assertAlmostEqual(self.LONG - at[1], lost[1] / INCH, delta=CLOSE)

    def test_lines_are_told_from_where_they_begin(self) -> None:
        for ends, told in (
            (
                "point 45, 0",
                [
                    "line from 1 3/4″ from the marked edge on the marked end to 1 3/4″ from the"
                    " marked end on the marked edge",
                    "line from 1 3/4″ from the marked edge on the marked end to 1 3/4″ from the"
                    " marked end on the far edge",
                ],
            ),
            (
                "0, 45 tilt 10",
                [
                    "line from the corner of far end and marked edge to 3 1/2″ from the far end on"
                    " the far edge"
                ],
            ),
            (
                "-45 stub 1, 0",
                [
                    "line from 2 1/2″ from the marked edge on the marked end to 2 1/2″ from the"
                    " marked end on the marked edge"
                ],
            ),
        ):
            cuts = every_cut([self.board(ends)], starter_tools())[0]
            said = [line_said(cut, Notation.SIXTY_FOURTHS) for cut in cuts if cut.shaping]
            self.assertEqual(said, told)

    def test_notches_and_outlines_say_their_lines(self) -> None:
        board = self.board("0 0")
        notches = read_notches("1 x 2 at top right; 1/2 x 3 at bottom, 4 from left", Unit.INCH)
        shape = replace(board.shapes["p"], notches=notches)
        boards = [replace(board, shapes={"p": shape})]
        cuts = set_ups_document(
            stop_by_stop(every_cut(boards, starter_tools()), starter_tools()),
            Unit.INCH,
            Notation.SIXTY_FOURTHS,
        )
        saw = [(card["tool"], cut["line"]) for card in cuts for cut in card["cuts"] if cut["line"]]
        self.assertEqual(
            saw,
            [
                ("jig saw", [["22", "0"], ["22", "1"], ["24", "1"]]),
                ("jig saw", [["4", "3 1/2"], ["4", "3"], ["7", "3"], ["7", "3 1/2"]]),
            ],
        )
        nothing = every_cut(boards, tools())[0][-1]
        self.assertIn("a jig saw", nothing.position.would)


def _any_end(chance: random.Random) -> str:
    degrees = chance.choice(["10", "-22.5", "30", "-45"])
    return chance.choice(
        [
            "0",
            f"{degrees} tilt {chance.choice(['15', '-20', '40'])}",
            f"{degrees} stub {chance.choice(['3/8', '1', '2 1/4'])}",
            chance.choice(["point 45", "point 30/50"]),
        ]
    )


def _along(
    solid: Solid, up: float, out: float, *, on_edge: bool, wide: float, thick: float
) -> tuple[float, float]:
    """From where to where a part reaches, at shares of its width and its thickness."""
    across, through = (1 - up) * wide, (1 - out) * thick
    y, z = (thick - through, across) if on_edge else (across, through)
    ends = [-math.inf, math.inf]
    for (nx, ny, nz), distance in solid.halves:
        rest = distance - ny * y - nz * z
        if nx > 1e-9:
            ends[1] = min(ends[1], rest / nx)
        elif nx < -1e-9:
            ends[0] = max(ends[0], rest / nx)
    return ends[0], ends[1]


class FewestSetUpsTest(TestCase):
    """Each position set as seldom as can be, against an exact program."""

    def test_as_few_as_an_exact_program_finds(self) -> None:
        for seed in seeds(20, 50):
            chance = random.Random(seed)
            boards = [_random_board(chance, b) for b in range(chance.randint(2, 5))]
            found = in_fewest_rounds(boards, lambda position: (str(position),))
            self.assertTrue(found.is_fewest)
            self.assertEqual(len(found.rounds), fewest_rounds(boards), f"seed {seed}")

    def test_one_stop_for_every_length_where_the_boards_allow_it(self) -> None:
        for seed in range(10):
            problem = random_problem("line", seed)
            owned = starter_tools()
            cuts = every_cut(benched(problem, first_plan(problem)), owned)
            longest_first = all(
                [c.position.at for c in board if c.position.at is not None]
                == sorted((c.position.at for c in board if c.position.at is not None), reverse=True)
                for board in cuts
            )
            found = stop_by_stop(cuts, owned)
            positions = {cut.position for board in cuts for cut in board}
            if longest_first:
                self.assertLessEqual(len(found.set_ups), len(positions))
            self.assertLessEqual(found.moves, board_by_board(cuts, owned).moves)
            self.assertGreaterEqual(found.lifts, len(cuts) if cuts else 0)

    def test_boards_are_lifted_once_each_where_they_are_cut_one_after_the_other(self) -> None:
        problem = random_problem("line", 2)
        owned = starter_tools()
        cuts = every_cut(benched(problem, first_plan(problem)), owned)
        found = board_by_board(cuts, owned)
        self.assertEqual(found.lifts, len([board for board in cuts if board]))
        order = [cut.board for one in found.set_ups for cut in one.cuts]
        self.assertEqual(order, sorted(order))
        self.assertGreater(minutes_of(found.set_ups), 0)


def _random_board(chance: random.Random, board: int) -> list[Waits]:
    cuts: list[Waits] = []
    for n in range(chance.randint(2, 6)):
        after = (board, chance.choice([n - 1, n - 1, chance.randrange(n)])) if n else None
        may = sorted({chance.randint(1, 5) for _ in range(chance.choice([1, 1, 1, 2, 3]))})
        cuts.append(((board, n), may, after))
    return cuts


class OwnedToolsTest(TestCase):
    """What a tool can do, what plans may ask, and every input that is refused."""

    def refused(self, kind: str, typed: dict[str, str]) -> dict[str, str]:
        with self.assertRaises(CarpentryError) as raised:
            read_tool(kind, "", typed, Unit.INCH)
        return {one.place: one.message for one in raised.exception.problems}

    def test_limits_that_cannot_be(self) -> None:
        told = self.refused("miter saw", {"crosscut": "-12", "tilt": "over", "throat": "3"})
        self.assertIn("less than nothing", told["crosscut"])
        self.assertIn("no angle", told["tilt"])
        self.assertIn("has no “throat”", told["throat"])
        self.assertIn("what the tool can do", self.refused("table saw", {"rip": "0"})["rip"])
        self.assertIn("100 ft", self.refused("sled", {"width": "1300"})["width"])
        self.assertIn("yes or no", self.refused("table saw", {"dado": "perhaps"})["dado"])
        self.assertIn("left, right", self.refused("table saw", {"tilt side": "up"})["tilt side"])
        self.assertIn("length × how many", self.refused("clamps", {"clamps": "lots"})["clamps"])
        with self.assertRaisesRegex(CarpentryError, "no tool here: choose one of miter saw"):
            read_tool("laser", "", {}, Unit.INCH)

    def test_what_plans_may_ask(self) -> None:
        miter = {"crosscut": "8", "miter": "50", "tilt": "45"}
        self.assertEqual(tools(miter_saw=miter).limits.crosscut, ticks("8"))
        over = tools(miter_saw=miter | {"turn over": True}).limits
        self.assertEqual(over.crosscut, ticks("16"))
        self.assertEqual(tools(miter_saw=miter, sled={"width": "20"}).limits.crosscut, ticks("20"))
        wedged = tools(miter_saw=miter, wedge={"tilt": "10"}).limits
        self.assertEqual((wedged.tilt, wedged.miter), (Decimal(55), Decimal(60)))
        table = {"rip": "24", "depth": "3", "tilt": "45"}
        self.assertEqual(tools(table_saw=table).limits.rip_width, ticks("24"))
        guided = tools(table_saw=table, circular_saw={"guide": "98"}, miter_saw=miter).limits
        self.assertEqual((guided.rip_width, guided.miter), (None, None))
        self.assertEqual(tools(table_saw=table).limits.resaw_depth, ticks("6"))
        self.assertEqual(tools(table_saw=table | {"resaw": "4"}).limits.resaw_depth, ticks("4"))

    def test_a_file_of_tools_read_again(self) -> None:
        owned = tools(
            table_saw={"rip": "24", "dado": True},
            router_table={"bits": [{"kind": "straight", "diameter": "1/2"}], "pass": "1/4"},
            helper=True,
            miter_saw=[{"crosscut": "8"}, {"name": "big one", "crosscut": "14"}],
        )
        self.assertEqual(read_tools_file(json.dumps(tools_document(owned))), owned)
        self.assertEqual(owned.limits.crosscut, ticks("14"))


class SafeAndDoableTest(TestCase):
    """What is not held safely is not asked for; hand tools are tools."""

    def crosscut(self, owned: Tools, *sizes: str) -> Chosen:
        wide, thick, long, whole = (ticks(one) for one in sizes)
        return for_crosscut(owned, Crosscut(wide, thick, long, whole=whole))

    def test_short_pieces_and_stubs_are_held_down(self) -> None:
        # 1 1/2 pieces out of 3 1/4: both sides of the blade are short
        for sizes, way in (
            (("3 1/2", "3/4", "1 1/2", "40"), Way.HOLD_DOWN),
            (("3 1/2", "3/4", "8", "11 1/2"), Way.HOLD_DOWN),
            (("3 1/2", "3/4", "8", "12"), None),
            (("3 1/2", "3/4", "30", "96"), None),
        ):
            self.assertEqual(self.crosscut(starter_tools(), *sizes).way, way, sizes)

    def test_nothing_under_a_foot_is_ripped_at_the_fence(self) -> None:
        for resaw in (False, True):
            asked = Rip(ticks("3/4"), ticks("8"), ticks("2"), resaw=resaw)
            chosen = for_rip(starter_tools(), asked)
            self.assertEqual((chosen.way, chosen.is_along_a_line), (Way.HOLD_DOWN, True))
            longer = replace(asked, long=ticks("12"))
            self.assertNotEqual(for_rip(starter_tools(), longer).way, Way.HOLD_DOWN)
            self.assertIsNone(for_rip(tools(hand_saw=True), asked).way)

    def test_no_sliver_is_trapped_at_the_fence(self) -> None:
        # 9 out of 9 1/4, 8 long: with the usual edge the fence is farther than the side is long
        part = CutPart("A", ticks("8"), 1, ticks("1 1/2"), ticks("9"))
        stock = StockPiece("b", ticks("8"), Decimal(1), 1, ticks("1 1/2"), ticks("9 1/4"))
        problem = CutProblem(Unit.INCH, ticks("1/8"), 0, 0, (stock,), (part,))
        (cut,) = every_cut(benched(problem, first_plan(problem)), starter_tools())[0]
        self.assertEqual(cut.lying.distance, ticks("9"))
        self.assertEqual(cut.position.way, Way.HOLD_DOWN)

    def test_a_small_circular_saw_cuts_a_post_from_two_faces(self) -> None:
        small = tools(circular_saw={"depth": "2 1/4"})
        chosen = self.crosscut(small, "3 1/2", "3 1/2", "40", "96")
        self.assertEqual((chosen.way, chosen.passes), (Way.PASSES, 2))
        self.assertTrue(chosen.is_along_a_line)
        self.assertIs(self.crosscut(small, "3 1/2", "5 1/2", "40", "96").way, Way.ANOTHER)
        both = tools(circular_saw={"depth": "2 1/4"}, hand_saw=True)
        by_hand = self.crosscut(both, "3 1/2", "5 1/2", "40", "96")
        self.assertEqual((str(by_hand.tool), by_hand.way), ("hand saw", None))

    def test_a_table_saw_alone_says_who_could_and_warns_of_its_fence(self) -> None:
        alone = tools(table_saw={"depth": "3"})
        chosen = self.crosscut(alone, "3 1/2", "3/4", "40", "96")
        self.assertIn("a sled on a table saw", chosen.would)
        position = Position("", "", "crosscut", None, way=Way.ANOTHER)
        self.assertIn(CROSSCUTS, list(cautions_of(position, narrow=False, short=False)))

    def test_a_wedge_says_on_which_side_it_is_thick(self) -> None:
        owned = tools(miter_saw={"miter": "45", "tilt": "45"}, wedge={"tilt": "10"})
        for swing, lean, said in (
            ("50", "0", "between fence and piece, its thick end to the left"),
            ("-50", "0", "between fence and piece, its thick end to the right"),
            ("0", "50", "under the piece, its thick end to the right"),
        ):
            asked = Crosscut(ticks("3"), ticks("1"), ticks("40"), Decimal(swing), Decimal(lean))
            chosen = for_crosscut(owned, asked)
            lying = Lying("", "", "", 0, 0, Decimal(lean), Decimal(swing))
            position = position_of("crosscut", ticks("40"), chosen, lying)
            self.assertIsNone(position.at)  # a wedge changes the distance
            self.assertIn(said, way_said(position, Notation.SIXTY_FOURTHS))


class ShopAloneTest(TestCase):
    """``python -m carpentry shop``: parts, tools and boards without a plan."""

    def shop(self, document: Json) -> Json:
        return shop_document(json.dumps(document))

    def test_from_the_terminal(self) -> None:
        part = {"id": "B", "thickness": "3/4", "width": "7 1/4", "length": "18 1/2", "quantity": 2}
        done = run("shop", "-", given=json.dumps({"parts": [part], "tools": self.SAWS}))
        found = json.loads(done.stdout)
        self.assertEqual((found["set_ups"][0]["stop"], found["faults"]), ("18 1/2", []))
        refused = run("shop", "-", given=json.dumps({"parts": [part | {"length": "-1"}]}))
        self.assertEqual((refused.returncode, refused.stdout), (2, ""))

    def refused(self, document: Json) -> str:
        with self.assertRaises(CarpentryError) as raised:
            self.shop(document)
        return str(raised.exception)

    def only(self, part: Json, **more: object) -> list[Json]:
        found: list[Json] = self.shop({"parts": [{"id": "A", "length": "20", **part}], **more})[
            "set_ups"
        ]
        return found

    SAWS = {
        "miter saw": {"crosscut": "12", "tilt": "45", "miter": "50", "fence left": "20"},
        "table saw": {"rip": "24", "depth": "3 1/8", "tilt": "45"},
    }

    def test_a_stop_for_every_length(self) -> None:
        parts = [
            {"id": "A", "thickness": "3/4", "width": "5 1/2", "length": "20", "quantity": 3},
            {"id": "B", "thickness": "1 1/2", "width": "3 1/2", "length": "20", "quantity": 2},
            {"id": "C", "thickness": "3/4", "width": "5 1/2", "length": "32 1/2"},
        ]
        found = self.shop({"parts": parts, "tools": self.SAWS})["set_ups"]
        self.assertEqual([one["stop"] for one in found], ["32 1/2", "20"])
        self.assertEqual(found[1]["of"], [{"part": "A", "count": 3}, {"part": "B", "count": 2}])
        self.assertEqual(
            (found[0]["tool"], found[0]["way"], found[0]["angle"]), ("miter saw", None, "0")
        )

    def test_ways_round_a_limit(self) -> None:
        sized = {"thickness": "3/4", "width": "7 1/4"}
        for part, way, more in (
            ({"width": "12 1/2"}, "raise", {}),
            ({"width": "14"}, "flip", {}),
            ({"width": "26"}, "another tool", {}),
            ({"ends": ["0", "50b"]}, "wedge", {"bevel": "50", "tilt": "45", "wedge": "5"}),
            ({"ends": "0 55", "width": "5 1/2"}, "wedge", {"angle": "55", "wedge": "5"}),
            ({"length": "5"}, "hold-down", {"stop": "5"}),
        ):
            with self.subTest(part=part):
                found = self.only(sized | part, tools=self.SAWS)[-1]
                self.assertEqual(found["way"], way)
                self.assertEqual({name: found[name] for name in more}, more)
        on_sled = self.only(sized | {"width": "26"}, tools={**self.SAWS, "sled": {"width": "30"}})
        self.assertEqual((on_sled[0]["way"], on_sled[0]["tool"]), ("sled", "table saw"))
        guided = self.only(sized | {"width": "26"}, tools={"circular saw": {"depth": "2"}})
        self.assertEqual((guided[0]["way"], guided[0]["tool"]), ("guide", "circular saw"))
        self.assertNotIn("stop", guided[0])
        nothing = self.only(sized, tools={})
        self.assertEqual((nothing[0]["tool"], nothing[0]["way"]), (None, "another tool"))

    def test_a_chord_says_how_much_a_board_is_raised(self) -> None:
        # a 10 in blade that crosses 5 1/2: its middle is √(5² − 2.75²) = 4.176 above the table; a
        # 6 in chord is √(5² − 3²) = 4 from the middle: 0.176 up, 3/16 by eighths 1/4
        saw = {"miter saw": {"crosscut": "5 1/2", "blade": "10"}}
        found = self.only({"thickness": "3/4", "width": "6"}, tools=saw)[0]
        self.assertEqual((found["way"], found["raise"]), ("raise", "1/4"))

    def test_bevelled_edges(self) -> None:
        part = {"thickness": "3/4", "width": "3 1/2", "edges": ["20", "-20"]}
        found = self.only(part, tools=self.SAWS)
        rips = [one for one in found if one["do"] == "rip"]
        # leaning alike both rips stand alike: the same width at the table
        self.assertEqual([(one["fence"], one["bevel"]) for one in rips], [("3 1/2", "20")])
        self.assertEqual(rips[0]["of"], [{"part": "A", "count": 2}])
        apart = self.only(part | {"edges": "45 45"}, tools=self.SAWS)
        # worked: the face 3 1/2 wide, up; on the table each bevel is 3/4 · tan 45° nearer the
        # fence, which the long point of the other edge touches: 2 3/4 both times
        self.assertEqual([one["fence"] for one in apart if one["do"] == "rip"], ["2 3/4"])

    def test_ends_that_take_more_than_a_plain_cut(self) -> None:
        part = {"thickness": "1 1/2", "width": "3 1/2", "ends": ["point 45", "30 tilt 15"]}
        found = self.only(part, tools=self.SAWS)
        # the square piece first, at its stop; then each cut to its line
        self.assertEqual([one.get("stop") for one in found], ["20", None, None, None])
        angles = [(one["angle"], one.get("bevel")) for one in found[1:]]
        self.assertEqual(sorted(angles), [("30", "15"), ("45", None), ("45", None)])
        self.assertIn("line from the corner of far end and marked edge", found[-1]["says"])
        bare = self.refused({"parts": [{"id": "A", "length": "20", "ends": "point 45, 0"}]})
        self.assertIn("width: is missing: an angle needs it", bare)

    def test_crooked_boards(self) -> None:
        board = {"width": "3 1/2", "crook": "1/8", "corners": "1/8"}
        found = self.shop({"boards": [board | {"straight edge": "6"}], "tools": self.SAWS})[
            "set_ups"
        ]
        # 6 + 3 1/2 − 1/8, then 3 1/2 − 1/8 − 2 × 1/8; common practice, no source
        self.assertEqual([one["fence"] for one in found], ["9 3/8", "3 1/8"])
        self.assertEqual({one["do"] for one in found}, {"straighten"})
        belly = self.shop({"boards": [board | {"together": "9 5/8"}]})["set_ups"]
        self.assertEqual(belly[0]["fence"], "9 3/8")

    def test_what_cannot_be_read_is_named_with_its_path(self) -> None:
        said = self.refused(
            {
                "tools": {"miter saw": {"crosscut": "-1"}, "lathe": {}},
                "parts": [
                    {"id": "A", "length": "0"},
                    {"id": "A", "length": "20", "ends": "45 x"},
                    {"id": "C", "length": "20", "edges": ["20", "20"]},
                ],
                "boards": [{"width": "3 1/2", "crook": "4"}],
                "colour": "red",
            }
        )
        for place in (
            *("tools.miter saw.crosscut", "tools.lathe", "parts[0].length", "parts[1].ends"),
            *("parts[2].thickness", "boards[0].crook", "boards[0].straight edge", "colour"),
        ):
            self.assertIn(f"{place}: ", said)
        self.assertIn("nothing to set up", self.refused({}))

    def test_work_on_parts_is_told_as_not_worked_out_yet(self) -> None:
        found = self.shop({"parts": [{"id": "B", "length": "20"}], "work": ["B rabbet 1/2 x 1/4"]})
        self.assertEqual(found["not_yet"], ["B rabbet 1/2 x 1/4: is not worked out yet"])


class SetUpsOfAProjectTest(TestCase):
    """``build`` prints the set-ups of its plan."""

    def test_the_compost_station(self) -> None:
        files = ["demo/compost-station.project.json", "--yard", "demo/tallow-street.yard.json"]
        found = json.loads(run("build", *files, "--seconds", "2").stdout)
        cuts = Counter(
            (cut["board"], cut["cut"]) for one in found["set_ups"] for cut in one["cuts"]
        )
        wanted = sum(len(layout["cuts"]) * layout["count"] for layout in found["layouts"])
        self.assertEqual((len(cuts), max(cuts.values())), (wanted, 1))
        self.assertTrue(found["shop"]["stop_by_stop"]["fewest"])
        self.assertLess(
            found["shop"]["stop_by_stop"]["moves"], found["shop"]["board_by_board"]["moves"]
        )
        treated = [one for one in found["set_ups"] if "Treated wood" in " ".join(one["cautions"])]
        self.assertTrue(treated)
