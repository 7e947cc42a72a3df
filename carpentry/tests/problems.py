"""Cut problems for tests: by hand and at random."""

import random
from decimal import Decimal

from carpentry.cutting import CutPart, CutProblem, StockPiece
from carpentry.language import TICKS_PER_FOOT, TICKS_PER_INCH, Unit, read_length

SIXTEENTH = 508


def ticks(text: str) -> int:
    return read_length(text, "in").ticks


def problem(
    stock: list[tuple[str, str, int | None]],
    parts: list[tuple[str, int]],
    *,
    kerf: str = "1/8",
    start: str = "0",
    end: str = "0",
) -> CutProblem:
    """A problem from (length, price, available) and (length, quantity), in inches."""
    return CutProblem(
        Unit.INCH,
        ticks(kerf),
        ticks(start),
        ticks(end),
        tuple(
            StockPiece(f"s{n}", ticks(length), Decimal(price), available)
            for n, (length, price, available) in enumerate(stock)
        ),
        tuple(CutPart(f"p{n}", ticks(length), count) for n, (length, count) in enumerate(parts)),
    )


def home_size(
    seed: int, *, kinds: tuple[int, int] = (3, 25), parts: tuple[int, int] = (8, 120)
) -> CutProblem:
    """A random problem as a home project has it: a few priced lengths, some of them limited."""
    chance = random.Random(seed)
    lengths = sorted({chance.randint(8 * 16, 100 * 16) for _ in range(chance.randint(*kinds))})
    counts = [1] * len(lengths)
    for _ in range(max(0, chance.randint(*parts) - len(lengths))):
        counts[chance.randrange(len(lengths))] += 1
    feet = sorted(chance.sample([8, 10, 12, 14, 16], chance.choice([4, 5])))
    return CutProblem(
        Unit.INCH,
        2 * SIXTEENTH,
        8 * SIXTEENTH,
        0,
        tuple(
            StockPiece(
                f"{n}ft",
                n * TICKS_PER_FOOT,
                Decimal(round(n * 62 * chance.uniform(0.9, 1.15))).scaleb(-2),
                chance.choice([None, None, chance.randint(2, 20)]),
            )
            for n in feet
        ),
        tuple(
            CutPart(f"p{n}", length * SIXTEENTH, count)
            for n, (length, count) in enumerate(zip(lengths, counts, strict=True))
        ),
    )


def rip_size(
    seed: int, *, kinds: tuple[int, int] = (6, 12), parts: tuple[int, int] = (12, 45)
) -> CutProblem:
    """A random problem with ripping: parts of a few widths, stock of four sizes."""
    chance = random.Random(seed)
    thickness, widths = chance.choice(
        [
            ("3/4", ["1 1/2", "2 1/2", "3 1/2", "5 1/2", "7 1/4", "9 1/4", "11 1/4"]),
            ("1 1/2", ["1 1/2", "3 1/2", "5 1/2", "7 1/4", "9 1/4", "11 1/4"]),
        ]
    )
    rate = Decimal("0.25") if thickness == "3/4" else Decimal("0.35")
    stock = [
        StockPiece(
            f"{width} by {feet} ft",
            feet * TICKS_PER_FOOT,
            round(
                feet
                * rate
                * ticks(width)
                / TICKS_PER_INCH
                * Decimal(chance.randint(85, 120))
                / 100,
                2,
            ),
            None,
            ticks(thickness),
            ticks(width),
        )
        for width in (*chance.sample(widths[1:], 3), widths[0])
        for feet in chance.sample([6, 8, 10, 12], 2)
    ]
    widest = max(piece.width or 0 for piece in stock)
    narrow = [
        width
        for width in ("3/4", "1", "1 1/4", "1 1/2", "1 3/4", "2", "2 1/2", "3", "3 1/2", "5 1/2")
        if ticks(width) <= widest
    ]
    sections = chance.sample(narrow, min(len(narrow), chance.randint(2, 5)))
    count = chance.randint(*kinds)
    each = max(1, chance.randint(*parts) // count)
    return CutProblem(
        Unit.INCH,
        2 * SIXTEENTH,
        8 * SIXTEENTH,
        0,
        tuple(stock),
        tuple(
            CutPart(
                f"p{n}",
                chance.randint(24, 240) * 4 * SIXTEENTH,
                chance.randint(1, 2 * each - 1),
                ticks(thickness),
                ticks(chance.choice(sections)),
            )
            for n in range(count)
        ),
    )
