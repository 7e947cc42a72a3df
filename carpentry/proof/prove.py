"""Proofs written down from the worths that a plan was found with, as short as they can be."""

from collections.abc import Iterable, Mapping, Sequence
from decimal import Decimal
from math import gcd

from carpentry.cutting.problem import CutProblem
from carpentry.proof.capacity import Capacity
from carpentry.proof.proof import Counts, Line, Proof
from carpentry.proof.purchases import Found, Purchases

_MOST_WORTHS = 40
_MOST_REFUTED = 60
_SCALES = (1, 2, 3, 4, 6, 12, 10_080)  # of small worths, which are easier to add up
_MOST_ALONE = 4  # worths that are tried alone


def prove(problem: CutProblem, price: Decimal, worths: Sequence[Mapping[str, int]]) -> Proof:
    """The proof that as little as possible below a ``price`` is possible, from what parts may be
    worth. It is whole, or says up to where it goes."""
    purchases = Purchases(problem, price)
    capacity = Capacity(problem)
    worths = [*capacity.usual_worths(), *worths[-_MOST_WORTHS:]]  # the last ones say most
    if not problem.is_ripped:
        for worth in reversed(
            worths[-_MOST_ALONE:]
        ):  # one line of small figures, where it is enough
            for scale in (None, *_SCALES):
                lines = lines_of(capacity, [_scaled(worth, scale) if scale else worth])
                is_enough = purchases.cheapest(lines, ()).cost == purchases.price
                if is_enough and scale:
                    return Proof(price, price, lines)
                if not is_enough and not scale:
                    break
    lines = lines_of(capacity, worths)
    found, refuted = _refuting(capacity, purchases, lines)
    if found.cost == purchases.price and not refuted:
        lines = _fewest(purchases, lines, refuted)
    elif not found.is_sure:
        return Proof(price, purchases.in_money(found.cost), lines, refuted)
    return Proof(price, purchases.in_money(found.cost), lines, refuted)


def _scaled(worth: Mapping[str, int], scale: int) -> dict[str, int]:
    most = max(worth.values(), default=0) or 1
    return {name: round(value / most * scale) for name, value in worth.items()}


def lines_of(capacity: Capacity, worths: Iterable[Mapping[str, int]]) -> tuple[Line, ...]:
    """The lines of these worths, of those that can be told."""
    quantity = {part.id: part.quantity for part in capacity.problem.parts}
    found = []
    for told in worths:
        common = gcd(*told.values()) or 1
        worth = {name: value // common for name, value in told.items()}
        holds = capacity.most_worth(worth)
        if holds is None:
            continue
        needed = sum(value * quantity[name] for name, value in worth.items())
        found.append(Line({name: n for name, n in worth.items() if n}, needed, holds))
    return tuple(found)


def _refuting(
    capacity: Capacity, purchases: Purchases, lines: Sequence[Line]
) -> tuple[Found, tuple[Counts, ...]]:
    """The cheapest purchase that is left once those that hold not all parts are struck off."""
    refuted: list[Counts] = []
    names = [piece.id for piece in capacity.problem.stock]
    while True:
        found = purchases.cheapest(lines, refuted)
        if found.counts is None or len(refuted) == _MOST_REFUTED:
            return found, tuple(refuted)
        counts = {name: n for name, n in zip(names, found.counts, strict=True) if n}
        if not capacity.is_refuted(counts, lines):
            return found, tuple(refuted)
        refuted.append(counts)


def _fewest(
    purchases: Purchases, lines: tuple[Line, ...], refuted: Sequence[Counts]
) -> tuple[Line, ...]:
    """The lines without those that nothing depends on."""
    kept = lines
    for line in lines:
        fewer = tuple(one for one in kept if one is not line)
        if fewer and purchases.cheapest(fewer, refuted).cost == purchases.price:
            kept = fewer
    return kept
