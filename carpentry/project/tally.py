"""The tally: what a plan takes, what it wastes, and what is proven about it."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from fractions import Fraction

from carpentry.buying import ListLine, ShoppingList, Tax, shopping_list, write_money
from carpentry.cutting import CutPlan
from carpentry.lumber import board_feet, rounded, species_of, weight_kg
from carpentry.project.claims import Claim, claim_of
from carpentry.project.leftovers import kept_leftovers
from carpentry.project.material import Material, Offer
from carpentry.project.settings import Settings


@dataclass(frozen=True)
class Tally:
    """Totals of a project's plan: ``boards`` to buy and cut, ``spare`` ones to buy beside them,
    ``owned`` ones used. Lengths in ticks;
    ``keepable`` counts offcuts worth keeping; ``waste`` in percent by volume, one decimal;
    ``board_feet`` by named sizes; ``bound`` is a
    subtotal below which no purchase is possible; ``weight_kg`` is that of the boards bought,
    air-dry, without ``unweighed`` boards of woods that nobody knows the weight of.
    """

    boards: int
    spare: int
    owned: int
    longest: int
    waste: Decimal
    keepable: int
    board_feet: Decimal
    bound: Decimal
    weight_kg: Decimal
    unweighed: int
    shopping: ShoppingList
    claim: Claim
    unplaced: int
    later: int

    @property
    def purchase(self) -> "Purchase":
        return Purchase(self.boards + self.spare, self.shopping.subtotal, self.unplaced)


def tally(
    plans: Sequence[tuple[Material, CutPlan | None]],
    settings: Settings,
    tax: Tax,
    currency: str,
    source: str,
    *,
    hardware: Decimal = Decimal(0),
) -> Tally:
    """The tally of each material's plan (``None`` where nothing of it is planned).

    ``source`` names the prices in the claim, such as "Tallow Street Yard"; ``hardware`` is what all
    that is not wood costs.
    """
    lines: dict[ListLine, Offer] = {}
    taken: Counter[ListLine] = Counter()
    bought = finished = feet = Fraction(0)
    kilograms = Fraction(0)
    longest = keepable = owned = unweighed = 0
    for material, plan in plans:
        if plan is None:
            continue
        offers = {offer.id: offer for offer in material.offers}
        counts: dict[str, int] = {}
        density = species_of(material.stock).density()
        volumes = {
            named.id: named.part.mean_section(section).area * named.part.centre_length(section)
            for named in material.parts
            if (section := material.sections[named.id])
        }
        for layout in plan.layouts:
            counts[layout.stock] = counts.get(layout.stock, 0) + layout.count
            section = material.section_of(offers[layout.stock])
            wood = section.area * offers[layout.stock].real_length if section else 0
            wood *= layout.count
            bought += wood
            if not offers[layout.stock].owned and density is None:
                unweighed += layout.count
            elif density is not None and not offers[layout.stock].owned:
                kilograms += weight_kg(wood, density)
            cut = sum(volumes.get(placed.part, 0) for placed in layout.parts)
            finished += Fraction(cut) * layout.count
            keepable += layout.count * len(kept_leftovers(layout))
        for offer in material.offers:
            count = counts.get(offer.id, 0)
            if not count:
                continue
            if offer.owned:
                owned += count
                continue
            longest = max(longest, offer.length)
            feet += (board_feet(offer.stock, offer.length) or 0) * count
            line = ListLine(
                offer.stock,
                material.section_of(offer),
                offer.length,
                offer.real_length,
                0,
                offer.price,
            )
            lines[line] = offer
            taken[line] += count
    cut_from = [replace(line, count=taken[line]) for line in lines]
    spares = [
        replace(line, count=more, spare=True)
        for line, offer in lines.items()
        if (more := _spare(taken[line], offer, settings))
    ]
    shopping = shopping_list((*cut_from, *spares), tax, settings.copies, hardware)
    return Tally(
        boards=sum(line.count for line in cut_from),
        spare=sum(line.count for line in spares),
        owned=owned,
        longest=longest,
        waste=rounded((bought - finished) / bought * 100) if bought else Decimal("0.0"),
        keepable=keepable,
        board_feet=rounded(feet),
        weight_kg=rounded(kilograms),
        unweighed=unweighed,
        bound=sum((p.bound for m, p in plans if p and m.priced), Decimal(0)),
        shopping=shopping,
        claim=claim_of(plans, settings, currency, source),
        unplaced=sum(u.quantity for _, plan in plans if plan for u in plan.unplaced),
        later=sum(len(material.later) for material, _ in plans),
    )


def _spare(count: int, offer: Offer, settings: Settings) -> int:
    """Boards to buy beyond those that are cut, no more than there are."""
    more = settings.spare.of(count)
    return more if offer.available is None else min(more, offer.available - count)


@dataclass(frozen=True)
class Purchase:
    """What two plans are compared by."""

    boards: int
    subtotal: Decimal
    unplaced: int


def compare(before: Purchase, after: Purchase, currency: str) -> str:
    """What a change did to the purchase, such as "2 boards fewer, −$9.10"."""
    said: list[str] = []
    boards = after.boards - before.boards
    if boards:
        noun = "board" if abs(boards) == 1 else "boards"
        said.append(f"{abs(boards)} {noun} {'more' if boards > 0 else 'fewer'}")
    cost = after.subtotal - before.subtotal
    if cost:
        said.append(("+" if cost > 0 else "") + write_money(cost, currency))
    if after.unplaced != before.unplaced:
        said.append(f"{after.unplaced} without a board" if after.unplaced else "all parts placed")
    return ", ".join(said) or "same purchase"
