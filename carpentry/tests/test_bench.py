"""The bench: cuts done and gone wrong, and nothing that is lost on the way."""

import json
import random
from collections import Counter
from decimal import Decimal
from unittest import TestCase

from carpentry.cutting import CutPart, CutProblem, Order, Saw, StockPiece
from carpentry.language import CarpentryError, Unit
from carpentry.shop import (
    Bench,
    BenchEvent,
    Changed,
    Sequenced,
    Supply,
    bench_of,
    board_by_board,
    changed_document,
    come_to,
    every_cut,
    read_changed,
    stop_by_stop,
    undo_fault,
)
from carpentry.tests.benches import (
    CUT,
    FLAW,
    LENGTH,
    LOST,
    MISCUT,
    TOOLS,
    UNDONE,
    bench_for,
    bench_of_now,
    faults,
    labels_of,
    something,
    supply_of,
)
from carpentry.tests.problems import ticks
from carpentry.tests.random_problems import SORTS, random_problem
from carpentry.tests.test_set_ups import read_cards


class RandomMiscutsTest(TestCase):
    """Things that go wrong one after the other, on boards of every sort: every part is on one board
    or told as missing, every board comes apart into its parts by its cuts alone, and what is cut
    stays. The benchmark does this a thousand times."""

    def test_nothing_is_ever_lost(self) -> None:
        went_wrong = 0
        for sort in SORTS:
            for seed in (SORTS.index(sort),):
                chance = random.Random(f"miscuts {sort} {seed}")
                problem = random_problem(sort, seed)
                bench = bench_for(problem)
                wanted = labels_of(bench)
                supply = supply_of(problem)
                for step in range(25):
                    event = something(chance, bench, f"{step}")
                    if event is None:
                        break
                    with self.subTest(sort=sort, seed=seed, step=step, event=event):
                        before, bench = bench, self.take(bench, event, supply)
                        went_wrong += event.kind is not CUT and bench is not before
                        self.assertEqual(faults(before, bench, problem, wanted), [])
        self.assertGreater(went_wrong, 50)

    def take(self, bench: Bench, event: BenchEvent, supply: Supply) -> Bench:
        if event.kind is CUT:
            return bench_of_now(bench, event)
        try:
            changed = come_to(bench, event, supply)
            kept = json.loads(json.dumps(changed_document(changed)))
            self.assertEqual(read_changed(kept), changed)
            return bench.changed(changed)
        except CarpentryError as error:
            self.assertNotIn("PlanCheckError", repr(type(error)))
            return bench

    def test_cards_make_the_parts_after_miscuts_too(self) -> None:
        for sort in ("line", "ripped", "bevelled", "angled"):
            chance = random.Random(f"cards {sort}")
            problem = random_problem(sort, 3)
            bench, supply = bench_for(problem), supply_of(problem)
            for step in range(12):
                event = something(chance, bench, str(step))
                if event is not None and event.kind in (CUT, MISCUT):
                    bench = self.take(bench, event, supply)
            boards = list(bench.boards.values())
            cuts = every_cut(boards, TOOLS)
            for found in (stop_by_stop(cuts, TOOLS), board_by_board(cuts, TOOLS)):
                reader = read_cards(boards, found, problem.kerf)
                self.assertEqual(set(reader.labels), set(labels_of(bench)))
                parts = {part.id: part for part in problem.parts}
                for label, solid in reader.labels.items():
                    long = parts[reader.parts[label]].sawn_length / 8128
                    self.assertAlmostEqual(solid.extents()[0], long, delta=0.01)


class OneMiscutTest(TestCase):
    """Two boards of 8 ft: A1 60 and B1 30 from the first, A2 60 and B2 30 from the second."""

    def setUp(self) -> None:
        parts = (CutPart("A", ticks("60"), 2), CutPart("B", ticks("30"), 2))
        stock = (StockPiece("8 ft", ticks("96"), Decimal("4.18"), 3),)
        self.problem = CutProblem(Unit.INCH, ticks("1/8"), 0, 0, stock, parts, keep_offcut_from=1)
        self.bench = bench_for(self.problem)
        self.supply = supply_of(self.problem)

    def miscut(self, cut: str, now: str, bench: Bench | None = None) -> Changed:
        event = BenchEvent("x", MISCUT, cuts=cut, now=now)
        return come_to(bench or self.bench, event, self.supply)

    def refused(self, **typed: object) -> str:
        event = BenchEvent("x", **{"kind": MISCUT, "cuts": "1.1"} | typed)  # type: ignore[arg-type]
        with self.assertRaises(CarpentryError) as raised:
            come_to(self.bench, event, self.supply)
        return raised.exception.problems[0].message

    def test_what_is_too_short_for_its_own_part_becomes_another(self) -> None:
        # 60 was cut at 59: the second part of the board is moved along and what is left over grows
        # to 96 − 59 − 1/8 − 30 − 1/8 = 6 3/4; the lost 60 takes a board more
        found = self.miscut("1.1", "59")
        self.assertEqual(found.says, "A·1 comes from one more 2x4 96 in, $4.18: board 3")
        first = next(board for board in found.boards if board.number == 1)
        self.assertEqual(first.cuts[0].start, ticks("59"))
        self.assertEqual(first.cuts[1].start, ticks("89 1/8"))
        after = self.bench.changed(found)
        self.assertEqual(after.there(1), [1, 2])

    def test_a_lost_piece_goes_into_what_is_left_over(self) -> None:
        # the 59 of board 1 is there, and 35 7/8 of board 3: a lost 30 takes no other board
        bench = self.bench.changed(self.miscut("1.1", "59"))
        found = self.miscut("2.2", "12", bench)
        self.assertRegex(found.says, r"^B·2 comes from what is left of board [13]$")
        self.assertFalse([board for board in found.boards if board.number > 3])

    def test_the_miscut_piece_itself_is_used_first_where_it_fits(self) -> None:
        found = self.miscut("1.1", "59")
        bench = self.bench.changed(found)
        self.assertEqual(bench.boards[1].labels, {3: "B·1"})
        lost = come_to(bench, BenchEvent("y", LOST, board=2), self.supply)
        self.assertIn("B·2 comes from what is left of board 1", lost.says)

    def test_what_no_board_is_left_for_is_told(self) -> None:
        bench = self.bench.changed(self.miscut("1.1", "59"))
        found = self.miscut("2.1", "58", bench)
        self.assertEqual(found.missing, {"A·2": "A"})
        self.assertIn("there is no board for A·2", found.says)
        self.assertEqual(bench.changed(found).missing, {"A·2": "A"})

    def test_a_rip_that_wandered(self) -> None:
        part = CutPart("S", ticks("40"), 6, ticks("3/4"), ticks("1"))
        board = StockPiece("1x6", ticks("48"), Decimal(5), 2, ticks("3/4"), ticks("5 1/2"))
        problem = CutProblem(Unit.INCH, ticks("1/8"), 0, 0, (board,), (part,), Order.RIP_FIRST)
        bench, supply = bench_for(problem), supply_of(problem)
        first = next(n for n, cut in bench.boards[1].numbered() if cut.saw is Saw.RIP)
        found = come_to(bench, BenchEvent("x", MISCUT, cuts=f"1.{first}", now="4 1/4"), supply)
        # strips of 1 in fall on the free side: between blade and fence are 4 3/8 for four more, of
        # which 4 1/4 are left, for three; the first strip is an eighth too wide, and sawn once more
        after = bench.changed(found)
        self.assertEqual(labels_of(after) | Counter(after.missing.keys()), labels_of(bench))
        self.assertEqual(sorted(after.boards), [1, 2])
        cards = read_cards(list(after.boards.values()), self._stops(after), problem.kerf)
        widths = {sorted(round(one, 3) for one in s.extents())[1] for s in cards.labels.values()}
        self.assertEqual((len(cards.labels), widths), (6, {1.0}))

    def _stops(self, bench: Bench) -> Sequenced:
        return stop_by_stop(every_cut(list(bench.boards.values()), TOOLS), TOOLS)

    def test_every_refusal(self) -> None:
        self.assertIn("1/4″ too long, which is no miscut", self.refused(now="60 1/4"))
        self.assertIn("only 96″ before it was cut", self.refused(now="97"))
        self.assertIn("it is no miscut", self.refused(now="60"))
        self.assertIn("write what is left", self.refused(now="0"))
        self.assertIn("more than nothing", self.refused(now="-3"))
        self.assertIn("a number is expected", self.refused(now="a bit"))
        self.assertIn("cut otherwise now", self.refused(cuts="1.9"))
        self.assertIn("cut otherwise now", self.refused(cuts="9.1"))
        self.assertIn("is no cut", self.refused(cuts="one"))
        self.assertIn("one cut goes wrong", self.refused(cuts="1.1 1.2"))
        self.assertIn("no board 7", self.refused(kind=LOST, board=7))
        self.assertIn("not there any more", self.refused(kind=LOST, board=1, piece=9))
        self.assertIn("beyond where the flaw begins", self.refused(kind=FLAW, board=1, start="30"))
        flaw = {"kind": FLAW, "board": 1, "start": "90", "end": "97"}
        self.assertIn("it is 96″ long", self.refused(**flaw))
        self.assertIn("twice as long", self.refused(kind=LENGTH, board=1, now="400"))
        self.assertIn("how long it is planned", self.refused(kind=LENGTH, board=1, now="96"))
        self.assertIn("write how long", self.refused(kind=LENGTH, board=1, now="0"))

    def test_a_shorter_board_and_a_flaw(self) -> None:
        short = come_to(self.bench, BenchEvent("x", LENGTH, board=1, now="90"), self.supply)
        self.assertIn("B·1 comes from one more 2x4", short.says)
        within = come_to(self.bench, BenchEvent("x", LENGTH, board=1, now="95 3/4"), self.supply)
        self.assertEqual(within.says, "nothing else changes")
        flaw = BenchEvent("x", FLAW, board=2, start="70", end="74")
        self.assertIn("B·2 comes from", come_to(self.bench, flaw, self.supply).says)
        in_waste = BenchEvent("x", FLAW, board=2, start="92", end="94")
        self.assertEqual(come_to(self.bench, in_waste, self.supply).says, "nothing else changes")

    def test_done_twice_and_undone(self) -> None:
        boards = list(self.bench.boards.values())
        one = BenchEvent("a", CUT, cuts="1.2")
        twice = BenchEvent("b", CUT, cuts="1.1 1.2")
        bench = bench_of(boards, [(one, None), (twice, None)])
        self.assertEqual(bench.done, {(1, 1), (1, 2)})  # what comes before it is cut, too
        undone = BenchEvent("c", UNDONE, undoes="b")
        bench = bench_of(boards, [(one, None), (twice, None), (undone, None)])
        self.assertEqual(bench.done, {(1, 1), (1, 2)})
        changed = self.miscut("2.1", "59")
        events = [(one, None), (BenchEvent("m", MISCUT), changed)]
        self.assertIn("planned anew after that", undo_fault(events, "a"))
        self.assertEqual(undo_fault(events, "m"), "")
        self.assertIn("nothing of that kind", undo_fault(events, "zzz"))
        events.append((BenchEvent("u", UNDONE, undoes="m"), None))
        self.assertIn("undone already", undo_fault(events, "m"))
        self.assertEqual(undo_fault(events, "a"), "")
