"""Whether a proof proves what it says: every figure is worked out anew."""

from collections.abc import Iterator
from decimal import Decimal

from carpentry.cutting.problem import CutProblem
from carpentry.language import Problem
from carpentry.proof.capacity import Capacity
from carpentry.proof.proof import Line, Proof
from carpentry.proof.purchases import Purchases


def check_proof(problem: CutProblem, proof: Proof) -> list[Problem]:
    """What is wrong with a proof for a problem, by place; nothing where it is accepted: no purchase
    below what it has ``checked`` holds all parts."""
    capacity = Capacity(problem)
    faults = [fault for n, line in enumerate(proof.lines) for fault in _line(capacity, n, line)]
    stock = {piece.id for piece in problem.stock}
    for number, counts in enumerate(proof.refuted):
        place = f"refuted[{number}]"
        unknown = counts.keys() - stock
        for name in unknown:
            faults.append(Problem(place, f"no stock is called {name}"))
        if not faults and not capacity.is_refuted(counts, proof.lines):
            faults.append(Problem(place, "these boards may hold all parts"))
    if proof.checked > proof.price:
        faults.append(Problem("checked", "is above the price"))
    if faults:
        return faults
    least = least_left(problem, proof)
    if least != proof.checked:
        said = f"purchases from {least:f} on are possible by all that is said here"
        faults.append(Problem("checked", said))
    return faults


def least_left(problem: CutProblem, proof: Proof) -> Decimal:
    """The cheapest purchase that a proof leaves possible, or its price, if what it says of boards
    and of purchases that were refuted is so."""
    purchases = Purchases(problem, proof.price)
    return purchases.in_money(purchases.cheapest(proof.lines, proof.refuted).cost)


def _line(capacity: Capacity, number: int, line: Line) -> Iterator[Problem]:
    place = f"lines[{number}]"
    parts = {part.id: part.quantity for part in capacity.problem.parts}
    for name in line.worth.keys() - parts.keys():
        yield Problem(f"{place}.worth", f"no part is called {name}")
    needed = sum(line.worth.get(name, 0) * quantity for name, quantity in parts.items())
    if needed != line.needed:
        yield Problem(f"{place}.needed", f"all parts are worth {needed}, not {line.needed}")
    holds = capacity.most_worth(line.worth)
    if holds is None:
        yield Problem(f"{place}.holds", "what a board holds of these worths cannot be checked")
        return
    for name in line.holds.keys() | holds.keys():
        real, said = holds.get(name), line.holds.get(name)
        if real is None:
            yield Problem(f"{place}.holds", f"no stock is called {name}")
        elif real != said:
            yield Problem(f"{place}.holds.{name}", f"it holds up to {real}, not {said}")
