"""Fresh random problems: other ones at every run, their seeds printed, so that nothing is tuned to
them."""

import random
from decimal import Decimal

from carpentry.cutting import CutPart, CutProblem, StockPiece
from carpentry.length import TICKS_PER_FOOT, TICKS_PER_INCH, TICKS_PER_MM, Unit

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
