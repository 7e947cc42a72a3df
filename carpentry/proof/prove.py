"""Proofs written down from the worths that a plan was found with, as short as they can be."""

from collections.abc import Iterable, Mapping, Sequence
from decimal import Decimal
from math import gcd

from carpentry.cutting.problem import CutProblem
from carpentry.proof.filling import is_refuted
from carpentry.proof.proof import Counts, Line, Proof
from carpentry.proof.purchases import Found, Purchases
from carpentry.proof.worth import most_worth, usual_worths

_MOST_WORTHS = 40
_MOST_REFUTED = 60
_SCALES = (1, 2, 3, 4, 6, 12)  # of small worths, which are easier to add up
_MOST_ALONE = 6  # worths that are tried alone


def prove(problem: CutProblem, price: Decimal, worths: Sequence[Mapping[str, int]]) -> Proof:
    """The proof that as little as possible below a ``price`` is possible, from what parts may be
    worth. It is whole, or says up to where it goes."""
    purchases = Purchases(problem, price)
    worths = [*usual_worths(problem), *worths[-_MOST_WORTHS:]]  # the last ones say most
    for scale in _SCALES:  # one line of small figures, where that is enough
        for worth in worths[-_MOST_ALONE:]:
            lines = _lines(problem, [_scaled(worth, scale)])
            if purchases.cheapest(lines, ()).cost == purchases.price:
                return Proof(price, price, lines)
    lines = _lines(problem, worths)
    found, refuted = _refuting(problem, purchases, lines)
    if found.cost == purchases.price:
        lines = _fewest(purchases, lines, refuted)
    elif not found.is_sure:
        return Proof(price, purchases.in_money(found.cost), lines, refuted)
    return Proof(price, purchases.in_money(found.cost), lines, refuted)


def _scaled(worth: Mapping[str, int], scale: int) -> dict[str, int]:
    most = max(worth.values(), default=0) or 1
    return {name: round(value / most * scale) for name, value in worth.items()}


def _lines(problem: CutProblem, worths: Iterable[Mapping[str, int]]) -> tuple[Line, ...]:
    """The lines of these worths, of those that can be told."""
    quantity = {part.id: part.quantity for part in problem.parts}
    found = []
    for told in worths:
        common = gcd(*told.values()) or 1
        worth = {name: value // common for name, value in told.items()}
        holds = most_worth(problem, worth)
        if holds is None:
            continue
        needed = sum(value * quantity[name] for name, value in worth.items())
        found.append(Line({name: n for name, n in worth.items() if n}, needed, holds))
    return tuple(found)


def _refuting(
    problem: CutProblem, purchases: Purchases, lines: Sequence[Line]
) -> tuple[Found, tuple[Counts, ...]]:
    """The cheapest purchase that is left once those that hold not all parts are struck off."""
    refuted: list[Counts] = []
    names = [piece.id for piece in problem.stock]
    while True:
        found = purchases.cheapest(lines, refuted)
        if found.counts is None or len(refuted) == _MOST_REFUTED:
            return found, tuple(refuted)
        counts = {name: n for name, n in zip(names, found.counts, strict=True) if n}
        if not is_refuted(problem, counts):
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
