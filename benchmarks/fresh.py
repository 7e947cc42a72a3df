"""Fresh random problems: other ones at every run, their seeds printed, so that nothing is tuned to
them."""

import random
from collections.abc import Callable
from dataclasses import dataclass, replace
from decimal import Decimal
from time import monotonic

from benchmarks.reporting import gap, report
from carpentry.cutting import (
    Budget,
    CutPart,
    CutPlan,
    CutProblem,
    Order,
    Status,
    StockPiece,
    first_plan,
    plan_cuts,
)
from carpentry.language import TICKS_PER_FOOT, TICKS_PER_INCH, TICKS_PER_MM, Unit, read_length
from carpentry.tests.random_problems import random_problem

SIXTEENTH = TICKS_PER_INCH // 16


def line_problem(seed: int) -> CutProblem:
    """3 to 120 lengths, 10 to 5,000 parts, 1 to 8 stocks, some of them limited: on sixteenths, in
    millimetres (with a kerf of 1/8 in or 3 mm), or with odd decimals."""
    chance = random.Random(seed)
    fine = chance.choice(["sixteenths", "sixteenths", "millimetres", "millimetres", "decimals"])
    kinds = round(3 * 40 ** chance.random())
    count = round(10 * 500 ** chance.random())
    stocks = chance.randint(1, 8)
    metric = fine == "millimetres"
    unit = TICKS_PER_MM if metric else SIXTEENTH if fine == "sixteenths" else 1
    whole = (2400 if metric else 96 * 16 if fine == "sixteenths" else 96 * TICKS_PER_INCH) * unit
    longest = round(whole * chance.uniform(0.3, 1.0))
    shortest = round(longest * chance.uniform(0.05, 0.4))
    lengths = set()
    while len(lengths) < kinds:
        length = chance.randint(shortest, longest)
        step = unit if fine != "decimals" else chance.choice([1, 127, 813])
        lengths.add(length - length % step)
        if len(lengths) >= (longest - shortest) // unit:
            break
    sizes = sorted(lengths)
    counts = [1] * len(sizes)
    for _ in range(max(0, count - len(sizes))):
        counts[chance.randrange(len(sizes))] += 1
    kerf = chance.choice([TICKS_PER_INCH // 8, 3 * TICKS_PER_MM] if metric else [2 * SIXTEENTH])
    stock = []
    for number, feet in enumerate(chance.sample([8, 9, 10, 11, 12, 14, 16, 18, 20], stocks)):
        price = Decimal(round(feet * 62 * chance.uniform(0.88, 1.15))).scaleb(-2)
        real = feet * 300 * TICKS_PER_MM if metric else feet * TICKS_PER_FOOT
        limit = chance.randint(1, 30) if chance.random() < 0.3 and number else None
        stock.append(StockPiece(f"s{number}", real, price, limit))
    parts = enumerate(zip(sizes, counts, strict=True))
    return CutProblem(
        Unit.MM if metric else Unit.INCH,
        kerf,
        chance.choice([0, 8 * SIXTEENTH, 10 * TICKS_PER_MM]),
        chance.choice([0, 0, 8 * SIXTEENTH]),
        tuple(stock),
        tuple(CutPart(f"p{n}", size, count) for n, (size, count) in parts),
    )


def ripped_problem(seed: int) -> CutProblem:
    """10 to 200 parts of 2 to 20 kinds out of boards of two to four widths, lying or standing."""
    chance = random.Random(seed)
    count = round(10 * 20 ** chance.random())
    kinds = min(count, chance.randint(2, 20))
    thickness = chance.choice(["3/4", "1 1/2"])
    thick = read_length(thickness, Unit.INCH).ticks
    widths = chance.sample(["3 1/2", "5 1/2", "7 1/4", "9 1/4", "11 1/4"], chance.randint(2, 4))
    stock = []
    for width in widths:
        wide = read_length(width, Unit.INCH).ticks
        for feet in chance.sample([6, 8, 10, 12], chance.randint(1, 3)):
            rate = chance.uniform(0.2, 0.35) * feet * wide / TICKS_PER_INCH
            price = Decimal(round(rate * 100)).scaleb(-2)
            name = f"{width} by {feet} ft"
            stock.append(StockPiece(name, feet * TICKS_PER_FOOT, price, None, thick, wide))
    narrow = chance.sample([6, 8, 10, 12, 14, 16, 20, 24, 28, 36, 40, 44, 56], chance.randint(1, 5))
    thin = chance.choice([thick, thick, thick, thick // 2])
    parts = []
    for number in range(kinds):
        wide = min(chance.choice(narrow) * 2 * SIXTEENTH, max(p.width or 0 for p in stock))
        length = chance.randint(6 * 16, 66 * 16) * SIXTEENTH
        high = chance.choice([thick, thick, thin])
        parts.append(CutPart(f"p{number}", length, 1, high, wide))
    for _ in range(count - kinds):
        at = chance.randrange(kinds)
        parts[at] = replace(parts[at], quantity=parts[at].quantity + 1)
    return CutProblem(
        Unit.INCH,
        2 * SIXTEENTH,
        8 * SIXTEENTH,
        0,
        tuple(stock),
        tuple(parts),
        order=chance.choice([Order.EITHER, Order.EITHER, Order.RIP_FIRST, Order.CROSSCUT_FIRST]),
    )


@dataclass
class Measured:
    """What one fresh problem came to: its first plan and the searched one, with their seconds."""

    seed: int
    given: CutProblem
    at_once: CutPlan
    first: float
    plan: CutPlan
    seconds: float


def _measured(
    what: str, make: Callable[[int], CutProblem], count: int, seconds: float
) -> list[Measured]:
    """Problems of seeds that nobody has seen, planned, and what is said of all of them."""
    first = random.SystemRandom().randrange(10**6)
    report(what, f"seeds {first} to {first + count - 1}, {seconds:g} s each")
    found = []
    for seed in range(first, first + count):
        given = make(seed)
        started = monotonic()
        at_once = first_plan(given)
        between = monotonic()
        plan = plan_cuts(given, Budget(seconds))
        ended = monotonic()
        found.append(Measured(seed, given, at_once, between - started, plan, ended - between))
    complete = [one for one in found if one.plan.status is not Status.INCOMPLETE]
    gaps = sorted((gap(one.plan), one.seed) for one in complete)
    (ninth, _), (worst, seed) = gaps[len(gaps) * 9 // 10], gaps[-1]
    proven = sum(one.plan.status is Status.OPTIMAL for one in complete)
    spread = f"ninth decile {ninth:.2f} %, worst {worst:.2f} % (seed {seed})"
    report("  proven, gaps", f"{proven} of {len(complete)}", spread)
    kept = max(one.seconds for one in found) / seconds
    longest = max(one.first for one in found)
    report("  first plan, limit kept", f"worst {longest:.2f} s", f"{kept:.2f} of the limit")
    return found


def fresh_lines(count: int = 160, seconds: float = 10.0) -> None:
    """Fresh one-line problems: how many are proven, how far off the others may be."""
    found = _measured("fresh one-line problems", line_problem, count, seconds)
    open_ones = [one for one in found if one.plan.status is not Status.OPTIMAL]
    alike = sum(one.plan.price == one.at_once.price for one in open_ones)
    report("  at the first-fit price, unproven", str(alike))


def fresh_rips(count: int = 60, seconds: float = 10.0) -> None:
    """Fresh ripped problems: those of up to 60 parts apart, whose proof is asked for."""
    found = _measured("fresh ripped problems", ripped_problem, count, seconds)
    small = [one for one in found if sum(part.quantity for part in one.given.parts) <= 60]
    proven = sum(one.plan.status is Status.OPTIMAL for one in small)
    report("  proven of those up to 60 parts", f"{proven} of {len(small)}")


def fresh_specials(count: int = 60, seconds: float = 5.0) -> None:
    """Angled ends on ripped boards, bevels, allowances, flaws, crooked boards, saw limits."""

    def special(seed: int) -> CutProblem:
        return random_problem(("mixed", "bevelled", "limited")[seed % 3], seed)

    _measured("fresh special problems", special, count, seconds)
