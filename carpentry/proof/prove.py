"""Proofs written down from the worths that a plan was found with, as short as they can be."""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from decimal import Decimal
from math import gcd, prod
from time import monotonic

from carpentry.cutting.plan import CutPlan
from carpentry.cutting.problem import CutProblem
from carpentry.proof.capacity import Capacity
from carpentry.proof.proof import Counts, Line, Proof, proof_document
from carpentry.proof.purchases import Found, Purchases

_MOST_WORTHS = 40
_MOST_REFUTED = 60
_SCALES = (1, 2, 3, 4, 6, 12)  # of small worths, which are easier to add up
_FEW_LOADS = 3_000  # of a board that is ripped
_MOST_ALONE = 4  # worths that are tried alone


def prove(
    problem: CutProblem,
    price: Decimal,
    worths: Sequence[Mapping[str, int]],
    seconds: float = math.inf,
) -> Proof:
    """The proof that as little as possible below a ``price`` is possible, from what parts may be
    worth. It is whole, or says up to where it goes; the clock only makes it say less."""
    until = monotonic() + seconds
    purchases = Purchases(problem, price)
    capacity = Capacity(problem)
    worths = [*capacity.usual_worths(), *worths[-_MOST_WORTHS:]]  # the last ones say most
    short = None if problem.is_ripped else _short(capacity, purchases, worths)
    if short:
        return Proof(price, price, (short,))
    lines = lines_of(capacity, worths, until)
    found, refuted = _refuting(capacity, purchases, lines, until)
    if found.cost == purchases.price and not refuted:
        lines = _fewest(purchases, lines)
    return Proof(price, purchases.in_money(found.cost), lines, refuted)


def with_proof(problem: CutProblem, plan: CutPlan, seconds: float = math.inf) -> CutPlan:
    """A plan with the proof that nothing is cheaper, as far as it goes in that time. Without one
    where its own search did not find that it is least, and where parts have no board."""
    if plan.unplaced or plan.bound != plan.price:
        return plan
    return replace(plan, proof=proof_document(prove(problem, plan.price, plan.worths, seconds)))


def _short(
    capacity: Capacity, purchases: Purchases, worths: Sequence[Mapping[str, int]]
) -> Line | None:
    """One line that is enough, of figures as small as can be; ``None`` where none is."""

    def enough(worth: Mapping[str, int]) -> Line | None:
        lines = lines_of(capacity, [worth])
        return lines[0] if purchases.cheapest(lines, ()).cost == purchases.price else None

    for worth in reversed(worths[-_MOST_ALONE:]):
        whole = enough(worth)
        if whole:
            return next(filter(None, (enough(_scaled(worth, one)) for one in _SCALES)), whole)
    return None


def is_proved_soon(problem: CutProblem) -> bool:
    """Whether a proof is a matter of a moment."""
    return not problem.is_ripped or prod(one.quantity + 1 for one in problem.parts) <= _FEW_LOADS


def _scaled(worth: Mapping[str, int], scale: int) -> dict[str, int]:
    most = max(worth.values(), default=0) or 1
    return {name: round(value / most * scale) for name, value in worth.items()}


def lines_of(
    capacity: Capacity, worths: Iterable[Mapping[str, int]], until: float = math.inf
) -> tuple[Line, ...]:
    """The lines of these worths, of those that can be told by then."""
    quantity = {part.id: part.quantity for part in capacity.problem.parts}
    found: list[Line] = []
    for told in worths:
        if found and monotonic() > until:
            break
        common = gcd(*told.values()) or 1
        worth = {name: value // common for name, value in told.items()}
        holds = capacity.most_worth(worth)
        if holds is None:
            continue
        needed = sum(value * quantity[name] for name, value in worth.items())
        found.append(Line({name: n for name, n in worth.items() if n}, needed, holds))
    return tuple(found)


def _refuting(
    capacity: Capacity, purchases: Purchases, lines: Sequence[Line], until: float
) -> tuple[Found, tuple[Counts, ...]]:
    """The cheapest purchase that is left once those that hold not all parts are struck off."""
    refuted: list[Counts] = []
    names = [piece.id for piece in capacity.problem.stock]
    while True:
        found = purchases.cheapest(lines, refuted)
        is_over = monotonic() > until or len(refuted) == _MOST_REFUTED
        if found.counts is None or is_over:
            return found, tuple(refuted)
        counts = {name: n for name, n in zip(names, found.counts, strict=True) if n}
        if not capacity.is_refuted(counts, lines):
            return found, tuple(refuted)
        refuted.append(counts)


def _fewest(purchases: Purchases, lines: tuple[Line, ...]) -> tuple[Line, ...]:
    """The lines without those that nothing depends on."""
    kept = lines
    for line in lines:
        fewer = tuple(one for one in kept if one is not line)
        if fewer and purchases.cheapest(fewer, ()).cost == purchases.price:
            kept = fewer
    return kept
