"""What of a purchase falls to each group of parts."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from fractions import Fraction

from carpentry.cutting import CutPlan
from carpentry.design import Part
from carpentry.lumber import Section
from carpentry.project.material import Material


@dataclass(frozen=True)
class GroupShare:
    """A group, empty for parts without one, how many pieces of it get a board that is bought, and
    its share of what those boards cost, before tax."""

    name: str
    pieces: int
    cost: Decimal


def group_shares(plans: Sequence[tuple[Material, CutPlan | None]]) -> list[GroupShare]:
    """The groups in the order in which parts first name them. A board's price, waste and all, falls
    to its parts by their volume; the shares add up to the cent."""
    costs: dict[str, Fraction] = {}
    pieces: dict[str, int] = {}
    for material, plan in plans:
        offers = {offer.id: offer for offer in material.offers}
        parts = {named.id: named.part for named in material.parts}
        for named in material.parts:
            costs.setdefault(named.part.fields.group.strip(), Fraction(0))
        for layout in plan.layouts if plan else ():
            offer = offers[layout.stock]
            volumes = [
                (
                    parts[placed.part].fields.group.strip(),
                    _volume(parts[placed.part], material.sections[placed.part]),
                )
                for placed in layout.parts
            ]
            whole = sum(volume for _, volume in volumes)
            for group, volume in volumes if not offer.owned else ():
                price = Fraction(offer.price or 0) * layout.count
                costs[group] += price * Fraction(volume, whole)
                pieces[group] = pieces.get(group, 0) + layout.count
    return [
        GroupShare(group, pieces[group], cost)
        for group, cost in zip(costs, _to_the_cent(list(costs.values())), strict=True)
        if pieces.get(group)
    ]


def _volume(part: Part, section: Section | None) -> int:
    return part.length.ticks * (section.area if section else 1)


def _to_the_cent(amounts: list[Fraction]) -> list[Decimal]:
    """Amounts in whole cents whose sum is that of the amounts, rounded: what is cut off goes to
    those that lose most."""
    scaled = [amount * 100 for amount in amounts]
    floors = [int(amount) for amount in scaled]
    left = round(sum(scaled)) - sum(floors)
    by_loss = sorted(range(len(scaled)), key=lambda n: floors[n] - scaled[n])
    for n in by_loss[:left]:
        floors[n] += 1
    return [Decimal(cents).scaleb(-2) for cents in floors]
