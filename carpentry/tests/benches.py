"""Boards on a bench, and what may happen to them, at random."""

import random
from collections import Counter
from collections.abc import Hashable, Iterable, Sequence
from dataclasses import replace

from carpentry.cutting import CutPlan, CutProblem, first_plan
from carpentry.language import Notation, Unit
from carpentry.lumber import Section
from carpentry.shop import (
    Bench,
    BenchBoard,
    BenchEvent,
    BenchEventKind,
    Sold,
    Supply,
    starter_tools,
)
from carpentry.shop.tree import checked

CUT, MISCUT, FLAW, LENGTH, LOST, UNDONE = BenchEventKind
TOOLS = starter_tools()


def benched(problem: CutProblem, plan: CutPlan) -> list[BenchBoard]:
    """The boards of a bare plan, labelled."""
    boards: list[BenchBoard] = []
    cut: Counter[str] = Counter()
    stock = {piece.id: piece for piece in problem.stock}
    parts = {part.id: part for part in problem.parts}
    for layout in plan.layouts:
        for _ in range(layout.count):
            piece = stock[layout.stock]
            first = parts[layout.parts[0].part]
            section = Section(
                piece.thickness or first.thickness or 1, piece.width or first.width or 1
            )
            board = BenchBoard(
                len(boards) + 1,
                "2x4",
                piece.length,
                section,
                layout.cuts,
                layout.pieces,
                crooked=bool(piece.crook),
            )
            labels = []
            for placed in layout.parts:
                cut[placed.part] += 1
                labels.append(f"{placed.part}·{cut[placed.part]}")
            boards.append(board.holding(zip(layout.parts, labels, strict=True)))
    return boards


def supply_of(problem: CutProblem) -> Supply:
    first = problem.parts[0]
    sold = {
        piece.id: Sold(
            piece.id,
            "2x4",
            f"{piece.length // 8128} in",
            piece.length,
            Section(piece.thickness or first.thickness or 1, piece.width or first.width or 1),
            piece.price,
        )
        for piece in problem.stock
    }
    return Supply([problem], [sold], Unit.INCH, Notation.SIXTY_FOURTHS, "USD", TOOLS)


def bench_for(problem: CutProblem) -> Bench:
    plan = first_plan(problem)
    boards = benched(problem, plan)
    stock = {piece.id: piece for piece in problem.stock}
    offers = [layout.stock for layout in plan.layouts for _ in range(layout.count)]
    trims = (problem.trim_start, problem.trim_end)
    return Bench(
        {
            board.number: replace(
                board, offer=offer, trims=trims, flaws=stock[offer].flaws, price=stock[offer].price
            )
            for board, offer in zip(boards, offers, strict=True)
        }
    )


def labels_of(bench: Bench) -> Counter[str]:
    return Counter(label for board in bench.boards.values() for label in board.labels.values())


def bench_of_now(bench: Bench, event: BenchEvent) -> Bench:
    return replace(bench, done=bench.done | bench.with_before(event.keys))


def something(chance: random.Random, bench: Bench, name: str) -> BenchEvent | None:
    """Something that happens next; ``None`` where all is cut."""
    ready = [
        (number, cut_number, cut)
        for number, board in bench.boards.items()
        for cut_number, cut in board.numbered()
        if cut.of in bench.there(number)
    ]
    if not ready:
        return None
    number, cut_number, cut = chance.choice(ready)
    kind = chance.choices([CUT, MISCUT, FLAW, LENGTH, LOST], [3, 4, 1, 1, 1])[0]
    key = f"{number}.{cut_number}"
    if kind is CUT:
        return BenchEvent(name, CUT, cuts=key)
    if kind is MISCUT:
        piece = bench.lying(number).get(cut.makes[0] or 0)
        axis = {"crosscut": 0, "rip": 1, "resaw": 2}[cut.saw.value]
        was = piece.size(axis) if piece else 8128
        left = max(100, was * chance.choice([0.3, 0.8, 0.97]))
        return BenchEvent(name, MISCUT, cuts=key, now=f"{left / 8128:.3f}")
    if kind is FLAW:
        long = bench.lying(number)[cut.of].size(0) / 8128
        at = chance.random() * long * 0.9
        return BenchEvent(
            name, FLAW, board=number, piece=cut.of, start=f"{at:.3f}", end=f"{at + 0.5:.3f}"
        )
    if kind is LENGTH:
        long = bench.boards[number].length / 8128 + chance.choice([-6, -0.25, 0.5])
        return BenchEvent(name, LENGTH, board=number, now=f"{max(long, 1):.3f}")
    return BenchEvent(name, LOST, board=number, piece=cut.of)


def faults(before: Bench, bench: Bench, problem: CutProblem, wanted: Counter[str]) -> list[str]:
    """What was lost between two states of a bench: every part is on one board or told as missing,
    every board comes apart into its parts by its cuts alone, and what is cut stays as it was cut.
    Raises ``PlanCheckError`` for a board that does not."""
    here = labels_of(bench)
    found = [f"{label} is there {count} times" for label, count in here.items() if count > 1]
    if here | Counter(bench.missing.keys()) != wanted:
        found.append("a part is lost, or one too many")
    found += [f"{label} is there and missing" for label in set(here) & set(bench.missing)]
    if not before.done <= bench.done:
        found.append("what was cut is not cut any more")
    for board in bench.boards.values():
        if board.placed:
            checked(problem, board)
    found += [f"cut {key} is another" for key in before.done if bench.cut(key) != before.cut(key)]
    return found


# a cut, the positions at which it may be made, what it waits for
Waits = tuple[tuple[int, int], Sequence[Hashable], tuple[int, int] | None]


def fewest_rounds(boards: Iterable[Iterable[Waits]]) -> int:
    """The fewest set-ups that cut boards, exactly: every state that so many lead to, one layer
    after the other."""
    cuts = {name: (may, after) for board in boards for name, may, after in board}
    positions = {position for may, _ in cuts.values() for position in may}

    def made(done: frozenset[tuple[int, int]], at: Hashable) -> frozenset[tuple[int, int]]:
        while True:
            more = {
                name
                for name, (may, after) in cuts.items()
                if name not in done and at in may and (after is None or after in done)
            }
            if not more:
                return done
            done |= more

    layer, count = {frozenset[tuple[int, int]]()}, 0
    while all(len(done) < len(cuts) for done in layer):
        layer = {made(done, at) for done in layer for at in positions}
        count += 1
    return count
