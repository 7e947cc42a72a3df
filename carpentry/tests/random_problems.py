"""Cut problems of every sort, at random: what the planner meets when a stranger uses it."""

import random
from decimal import Decimal

from carpentry.cutting import CutPart, CutProblem, Extra, Order, StockPiece
from carpentry.cutting.problem import SawLimits
from carpentry.design.edges import outermost_width, read_edges
from carpentry.design.ends import Measured, outermost, read_ends
from carpentry.language import TICKS_PER_FOOT, TICKS_PER_INCH, CarpentryError, Unit
from carpentry.tests.problems import SIXTEENTH, ticks

SORTS = ("line", "angled", "ripped", "bevelled", "eased", "flawed", "mixed", "limited")
_ANGLES = ("0", "0", "10", "-10", "22.5", "-22.5", "45", "-45", "30b", "-45b")
_EDGES = ("", "", "20 20", "20 -20", "-10 20", "45 45", "0 -30")


def random_problem(sort: str, seed: int, *, most: int = 6) -> CutProblem:
    """A problem of a sort, with up to ``most`` kinds of parts."""
    chance = random.Random(f"{sort} {seed}")
    ripped = sort not in ("line", "angled")
    thickness = ticks(chance.choice(["3/4", "1 1/2"]))
    angled = sort in ("angled", "mixed")
    stock = tuple(
        _stock(chance, number, thickness, sort, ripped=ripped or angled)
        for number in range(chance.randint(1, 3))
    )
    widest = max(piece.width or 0 for piece in stock)
    parts: list[CutPart] = []
    while len(parts) < chance.randint(1, most):
        part = _part(chance, len(parts), thickness, widest, sort)
        if part is not None:
            parts.append(part if ripped else _as_wide(part, stock[0]))
    if not ripped and angled:
        stock = tuple(
            StockPiece(p.id, p.length, p.price, p.available, thickness, stock[0].width)
            for p in stock
        )
    return CutProblem(
        unit=Unit.INCH,
        kerf=chance.choice([SIXTEENTH, 2 * SIXTEENTH, 3 * 320]),
        trim_start=chance.choice([0, SIXTEENTH, 8 * SIXTEENTH]),
        trim_end=chance.choice([0, 0, SIXTEENTH, 4 * SIXTEENTH]),
        stock=stock,
        parts=tuple(parts),
        order=chance.choice(list(Order)),
        share_angled_cuts=chance.random() < 0.6,
        keep_offcut_from=chance.choice([0, TICKS_PER_FOOT]),
        keep_width=chance.choice([0, TICKS_PER_INCH]),
        eased=ticks("1/8") if sort == "eased" or (sort == "mixed" and chance.random() < 0.3) else 0,
        saw=_limits(chance) if sort == "limited" else SawLimits(),
    )


def _limits(chance: random.Random) -> SawLimits:
    return SawLimits(
        crosscut=ticks(chance.choice(["6", "8", "12"])),
        rip_depth=ticks(chance.choice(["1", "2", "3"])),
        rip_width=ticks(chance.choice(["4", "24"])),
        resaw_depth=ticks(chance.choice(["2", "3", "6"])),
        tilt=Decimal(45),
        miter=Decimal(50),
    )


def _stock(
    chance: random.Random, number: int, thickness: int, sort: str, *, ripped: bool
) -> StockPiece:
    length = chance.choice([6, 8, 10]) * TICKS_PER_FOOT
    price = Decimal(chance.randint(300, 2000)).scaleb(-2)
    width = ticks(chance.choice(["3 1/2", "5 1/2", "9 1/4"])) if ripped else None
    flaws: tuple[tuple[int, int], ...] = ()
    if sort in ("flawed", "mixed") and chance.random() < 0.7:
        at = chance.randint(8, 60) * TICKS_PER_INCH
        flaws = ((at, at + chance.randint(1, 40) * SIXTEENTH),)
    crook = ticks("3/8") if sort == "mixed" and chance.random() < 0.3 else 0
    return StockPiece(
        f"s{number}", length, price, None, thickness if ripped else None, width, flaws, crook
    )


def _part(
    chance: random.Random, number: int, thickness: int, widest: int, sort: str
) -> CutPart | None:
    length = chance.randint(6 * 16, 60 * 16) * SIXTEENTH
    quantity = chance.randint(1, 4)
    if sort == "line":
        return CutPart(f"p{number}", length, quantity)
    ends = read_ends(f"{chance.choice(_ANGLES)} {chance.choice(_ANGLES)}")
    edges = read_edges(chance.choice(_EDGES))
    high = chance.choice([thickness, thickness, ticks("3/8"), thickness // 2])
    wide = chance.choice([ticks("3/4"), ticks("1 1/8"), ticks("1 1/2"), ticks("3 1/2"), widest])
    if sort not in ("bevelled", "mixed"):
        edges = read_edges("")
    if sort not in ("angled", "mixed"):
        ends = read_ends("")
    try:
        over_all = outermost_width(wide, edges, high)
        outermost(length, ends, Measured.LONG_LONG, thickness, max(over_all, widest))
    except CarpentryError:
        return None
    return CutPart(
        f"p{number}",
        length,
        quantity,
        high,
        over_all,
        turn=chance.random() < 0.8,
        extra=chance.choice([Extra(), Extra(SIXTEENTH, SIXTEENTH)]) if sort == "mixed" else Extra(),
        ends=ends,
        edges=edges,
        clear=chance.random() < 0.7,
    )


def _as_wide(part: CutPart, piece: StockPiece) -> CutPart:
    return CutPart(
        part.id,
        part.length,
        part.quantity,
        piece.thickness,
        piece.width,
        ends=part.ends,
        clear=part.clear,
    )
