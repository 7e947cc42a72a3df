"""Packs and cans: how many of each to buy for what is needed, at the least cost and proven."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.programs import INFINITY, Outcome, Program
from carpentry.cutting.search.sources import Money
from carpentry.language import CarpentryError

MOST_NEEDED = 10_000_000
_SECONDS = 2.0


@dataclass(frozen=True)
class Package:
    """What is sold together: ``holds`` so many pieces, or millilitres where it is a ``volume``, for
    a ``price``; ``available`` at the most, ``None`` for as many as wanted. ``content`` is what it
    holds as it was typed."""

    name: str
    holds: int
    price: Decimal
    available: int | None = None
    volume: bool = False
    content: str = ""


@dataclass(frozen=True)
class Packed:
    """What to buy for a need: ``counts`` of each package, what it costs, and how many are ``left``
    over, what is in the drawer counted first."""

    counts: tuple[int, ...]
    price: Decimal
    left: int


def pack_need(needed: int, packages: Sequence[Package], in_drawer: int = 0) -> Packed:
    """The cheapest packages that hold ``needed`` beyond what is ``in_drawer``; of equal ones those
    with fewest packages. Proven: an integer program, its answer checked in whole numbers.

    Raises ``CarpentryError`` for a need that packages cannot meet, and for packages that hold
    nothing or cost less than nothing.
    """
    if not 0 <= needed <= MOST_NEEDED:
        raise CarpentryError(f"from 0 to {MOST_NEEDED:,} can be packed")
    for package in packages:
        if package.holds < 1:
            raise CarpentryError(f"{package.name} holds nothing")
        if package.price < 0:
            raise CarpentryError(f"{package.name} costs less than nothing")
    rest = max(0, needed - in_drawer)
    if not rest:
        return Packed(tuple(0 for _ in packages), Decimal(0), in_drawer - needed)
    most = [-(-rest // p.holds) if p.available is None else p.available for p in packages]
    if sum(p.holds * n for p, n in zip(packages, most, strict=True)) < rest:
        raise CarpentryError("there is no package of it" if not packages else "they are too few")
    counts = _least(rest, packages, most)
    bought = sum(p.holds * n for p, n in zip(packages, counts, strict=True))
    price = sum((p.price * n for p, n in zip(packages, counts, strict=True)), Decimal(0))
    return Packed(counts, price, bought + in_drawer - needed)


def _least(rest: int, packages: Sequence[Package], most: Sequence[int]) -> tuple[int, ...]:
    money = Money.of([package.price for package in packages])
    pieces = sum(most) + 1
    program = Program([(float(rest), INFINITY)])
    for package, limit in zip(packages, most, strict=True):
        cost = money.cost(package.price) * pieces + 1
        program.add_column(float(cost), [(0, float(package.holds))], float(limit), integer=True)
    found = program.solve(Clock(_SECONDS))
    counts = tuple(round(n) for n in found.columns)
    held = sum(p.holds * n for p, n in zip(packages, counts, strict=True))
    if found.outcome is not Outcome.SOLVED or held < rest:
        raise CarpentryError("these packages could not be decided between")
    return counts
