"""Parts in one line: home-size problems, large ones, and the classic bin-packing classes."""

import random
from collections.abc import Iterator
from dataclasses import replace
from decimal import Decimal

from benchmarks.reporting import gap, report, spread, timed
from carpentry.cutting import Budget, CutPart, CutProblem, Status, StockPiece, plan_cuts, steadied
from carpentry.cutting.line.model import to_line
from carpentry.cutting.search.first_fit import first_fit, orders
from carpentry.language import TICKS_PER_FOOT, TICKS_PER_INCH, TICKS_PER_MM, Unit
from carpentry.tests.problems import home_size
from carpentry.tests.test_steady import SteadyTest, changed


def home_projects() -> None:
    problems = [home_size(seed) for seed in range(20)]
    done = [timed(problem) for problem in problems]
    proven = sum(plan.status is Status.OPTIMAL for plan, _ in done)
    report("home-size problems proven", f"{proven} of {len(done)}", spread([s for _, s in done]))
    many = [_times(problem, 20) for problem in problems]
    done = [timed(problem) for problem in many]
    proven = sum(plan.status is Status.OPTIMAL for plan, _ in done)
    report("the same, 20 times as many", f"{proven} of {len(done)}", spread([s for _, s in done]))


def _times(problem: CutProblem, factor: int) -> CutProblem:
    stock = tuple(
        replace(piece, available=piece.available and piece.available * factor)
        for piece in problem.stock
    )
    parts = tuple(replace(part, quantity=part.quantity * factor) for part in problem.parts)
    return replace(problem, stock=stock, parts=parts)


def pencil_prices(problem: CutProblem) -> Iterator[Decimal]:
    """First-fit decreasing with every single length, and from many mixed starts."""
    line = to_line(problem)
    chance = random.Random(0)
    tried = list(orders(line))
    tried += [tuple(chance.sample(range(len(line.sources)), len(line.sources))) for _ in range(30)]
    for order in tried:
        packing = first_fit(line, order, line.demand)
        if not any(packing.missing):
            yield line.money.price(packing.key(line)[1])


def against_the_pencil() -> None:
    savings: list[Decimal] = []
    dearer = compared = 0
    for seed in range(200):
        problem = home_size(10_000 + seed)
        plan = plan_cuts(problem)
        pencil = min(pencil_prices(problem), default=None)
        if pencil is None or plan.unplaced:
            continue
        compared += 1
        dearer += plan.price > pencil
        savings.append((pencil - plan.price) / pencil * 100)
    mean = sum(savings, Decimal(0)) / len(savings)
    report(
        "against the best first-fit plan",
        f"{compared} random projects",
        f"dearer on {dearer}",
        f"mean saving {mean:.2f} %, best {max(savings):.2f} %",
    )


def large_problem(seed: int) -> CutProblem:
    """2,000 parts of 60 lengths on sixteenths, over six stocks."""
    chance = random.Random(seed)
    lengths = sorted(chance.sample(range(8 * 16, 100 * 16), 60))
    counts = [1] * 60
    for _ in range(2000 - 60):
        counts[chance.randrange(60)] += 1
    stock = tuple(
        StockPiece(f"{n}", n * TICKS_PER_FOOT, Decimal(n * chance.randint(58, 70)).scaleb(-2))
        for n in (8, 10, 12, 14, 16, 20)
    )
    parts = tuple(
        CutPart(f"p{n}", length * TICKS_PER_INCH // 16, count)
        for n, (length, count) in enumerate(zip(lengths, counts, strict=True))
    )
    return CutProblem(Unit.INCH, TICKS_PER_INCH // 8, TICKS_PER_INCH // 2, 0, stock, parts)


def large(count: int = 10) -> None:
    """Fresh ones, other ones at every run."""
    first = random.SystemRandom().randrange(10**6)
    plans = [timed(large_problem(seed), Budget(5.0)) for seed in range(first, first + count)]
    proven = sum(plan.status is Status.OPTIMAL for plan, _ in plans)
    report(
        "2,000 parts of 60 lengths, 5 s",
        f"seeds {first} to {first + count - 1}: {proven} of {count} proven",
        f"worst gap {max(gap(plan) for plan, _ in plans):.3f} %",
        f"worst {max(seconds for _, seconds in plans):.2f} s of CPU",
    )


def _bins(sizes: list[int], bin_size: int) -> CutProblem:
    parts = tuple(CutPart(str(s), s * TICKS_PER_MM, sizes.count(s)) for s in sorted(set(sizes)))
    return CutProblem(
        Unit.MM, 0, 0, 0, (StockPiece("bin", bin_size * TICKS_PER_MM, Decimal(1)),), parts
    )


def bin_packing() -> None:
    """Generated in the way of Falkenauer's classes (1996): uniform ones of 20 to 100 in 150,
    triplets in 1000."""
    for count in (120, 250, 500):
        chance = random.Random(count)
        sizes = [chance.randint(20, 100) for _ in range(count)]
        plan, seconds = timed(_bins(sizes, 150))
        report(
            f"generated uniform bins, {count} items", plan.status.value, f"{seconds:.2f} s of CPU"
        )
    for count in (60, 120, 249, 501):
        chance = random.Random(count)
        sizes = []
        while len(sizes) < count:
            large_one, middle = chance.randint(380, 490), chance.randint(250, 370)
            if 250 <= 1000 - large_one - middle < middle:
                sizes += [large_one, middle, 1000 - large_one - middle]
        plan, seconds = timed(_bins(sizes, 1000), Budget(10.0))
        report(
            f"generated triplets, {count} items, known least {count // 3}",
            plan.status.value,
            f"{plan.pieces_of_stock} bins, gap {gap(plan):.2f} %",
            f"{seconds:.2f} s of CPU",
        )


def steady() -> None:
    """How many boards a small edit leaves alone."""
    chance = random.Random(4)
    calm = fresh_total = 0
    for seed in range(20):
        before = plan_cuts(home_size(seed))
        edited = SteadyTest.edited(home_size(seed), chance)
        fresh = plan_cuts(edited)
        plan = steadied(edited, fresh, before)
        fresh_total += changed(fresh, before)
        calm += changed(plan, before)
    report("one part more: boards cut otherwise", f"{calm}, planned afresh {fresh_total}")
