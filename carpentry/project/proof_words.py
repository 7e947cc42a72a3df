"""A proof in words that a builder can add up."""

from collections.abc import Mapping
from dataclasses import dataclass

from carpentry.buying import write_money
from carpentry.cutting import CutPlan, CutProblem
from carpentry.language import Reader, sold_name
from carpentry.project.material import Material
from carpentry.project.settings import Settings
from carpentry.proof import Line, Proof, read_proof


@dataclass(frozen=True)
class BoardHolds:
    """How much one board holds at the most; ``price`` is empty where boards have none."""

    board: str
    price: str
    holds: int


@dataclass(frozen=True)
class CountTold:
    """What each part counts, how much all of them need, and what boards hold of it."""

    parts: tuple[tuple[str, int], ...]
    needed: int
    boards: tuple[BoardHolds, ...]


@dataclass(frozen=True)
class ProofTold:
    """The proof for one material: its ``counts``, the purchases that meet them all and were
    ``tried`` in every way, and what follows; ``whole`` if nothing is left open."""

    of: str
    counts: tuple[CountTold, ...]
    tried: tuple[str, ...]
    says: str
    whole: bool


def proof_told(
    material: Material,
    problem: CutProblem | None,
    plan: CutPlan | None,
    settings: Settings,
    *,
    currency: str,
    marks: Mapping[str, str],
) -> ProofTold | None:
    """The proof of a plan in words; ``None`` for a plan without one. ``marks`` are the letters of
    the parts, by id."""
    if problem is None or plan is None or plan.proof is None:
        return None
    reader = Reader(plan.proof)
    proof = read_proof(reader)
    reader.raise_problems()
    words = _Words(material, settings, currency, marks)
    return ProofTold(
        material.called,
        tuple(words.count(line) for line in proof.lines),
        tuple(words.purchase(problem, counts) for counts in proof.refuted),
        words.conclusion(proof),
        proof.is_whole,
    )


class _Words:
    def __init__(
        self, material: Material, settings: Settings, currency: str, marks: Mapping[str, str]
    ) -> None:
        self.material, self.currency = material, currency
        notation = settings.notation
        self.parts = {
            one.id: " ".join(filter(None, (marks.get(one.id, ""), one.part.name)))
            for one in material.parts
        }
        self.boards = {
            offer.id: f"{offer.stock} {sold_name(offer.length, notation)}"
            + (" from the rack" if offer.owned else "")
            for offer in material.offers
        }

    def count(self, line: Line) -> CountTold:
        offers = {offer.id: offer for offer in self.material.offers}
        boards = (
            BoardHolds(
                self.boards[name],
                write_money(price, self.currency)
                if self.material.priced and (price := offers[name].price) is not None
                else "",
                holds,
            )
            for name, holds in line.holds.items()
        )
        parts = ((self.parts.get(part, part), worth) for part, worth in line.worth.items())
        return CountTold(tuple(parts), line.needed, tuple(dict.fromkeys(boards)))

    def purchase(self, problem: CutProblem, counts: Mapping[str, int]) -> str:
        said = " + ".join(f"{n} × {self.boards[name]}" for name, n in counts.items())
        if not self.material.priced:
            return said
        return f"{said}: {write_money(problem.price_of(counts), self.currency)}"

    def conclusion(self, proof: Proof) -> str:
        one = len(proof.lines) == 1 and not proof.refuted
        held = f"{proof.lines[0].needed:,}" if one else "all parts"
        if not self.material.priced:
            return f"No boards with {'' if proof.is_whole else 'much '}less lumber hold {held}."
        said = f"No boards under {write_money(proof.checked, self.currency)} hold {held}."
        if proof.is_whole:
            return said
        price = write_money(proof.price, self.currency)
        return f"{said} Whether any under {price} do is open."
