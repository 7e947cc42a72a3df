"""The tally: what a plan takes, what it wastes, and what is proven about it."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from fractions import Fraction

from carpentry.buying import ListLine, ShoppingList, Tax, shopping_list, write_money
from carpentry.cutting import CutPlan, Order, Status
from carpentry.length import write_length
from carpentry.project.leftovers import whole_leftover
from carpentry.project.material import Material
from carpentry.project.settings import Settings
from carpentry.sizes import board_feet, rounded, species_of, weight_kg


@dataclass(frozen=True)
class Claim:
    """What was proven, in words; ``proven`` when no cheaper (or shorter) purchase exists."""

    proven: bool
    headline: str
    detail: str


@dataclass(frozen=True)
class Tally:
    """Totals of a project's plan: ``boards`` to buy and cut, ``spare`` ones to buy beside them,
    ``owned`` ones used. Lengths in ticks;
    ``waste`` in percent by volume, one decimal; ``board_feet`` by named sizes; ``bound`` is a
    subtotal below which no purchase is possible; ``weight_kg`` is that of the boards bought,
    air-dry.
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
    lines: list[ListLine] = []
    spares: list[ListLine] = []
    bought = finished = feet = Fraction(0)
    kilograms = Fraction(0)
    longest = keepable = owned = 0
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
            if not offers[layout.stock].owned:
                kilograms += weight_kg(wood, density)
            cut = sum(volumes.get(placed.part, 0) for placed in layout.parts)
            finished += Fraction(cut) * layout.count
            rest = whole_leftover(layout)
            keep_from = settings.keep_from_for(offers[layout.stock].stock)
            keepable += layout.count if rest and rest.length >= keep_from else 0
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
                count,
                offer.price,
            )
            lines.append(line)
            more = settings.spare.of(count)
            if offer.available is not None:
                more = min(more, offer.available - count)
            if more:
                spares.append(replace(line, count=more, spare=True))
    shopping = shopping_list((*lines, *spares), tax, settings.copies, hardware)
    return Tally(
        boards=sum(line.count for line in lines),
        spare=sum(line.count for line in spares),
        owned=owned,
        longest=longest,
        waste=rounded((bought - finished) / bought * 100) if bought else Decimal("0.0"),
        keepable=keepable,
        board_feet=rounded(feet),
        weight_kg=rounded(kilograms),
        bound=sum((p.bound for m, p in plans if p and m.priced), Decimal(0)),
        shopping=shopping,
        claim=_claim(plans, settings, currency, source),
        unplaced=sum(u.quantity for _, plan in plans if plan for u in plan.unplaced),
        later=sum(len(material.later) for material, _ in plans),
    )


def _claim(
    plans: Sequence[tuple[Material, CutPlan | None]],
    settings: Settings,
    currency: str,
    source: str,
) -> Claim:
    planned = [(material, plan) for material, plan in plans if plan]
    if not planned:
        if any(
            material.cut_already(one, settings) for material, _ in plans for one in material.parts
        ):
            return Claim(False, "Everything is cut", "nothing is left to buy")
        return Claim(False, "Nothing to buy yet", "add a part to see the boards it takes")
    left = sum(u.quantity for _, plan in planned for u in plan.unplaced)
    cuts = _cuts(planned, settings)
    prices = f"proven for {source}, {cuts}"
    if left:
        noun = "part has" if left == 1 else "parts have"
        return Claim(False, f"{left} {noun} no board", "the reasons stand beside the boards")
    priced = [plan for material, plan in planned if material.priced]
    unpriced = [plan for material, plan in planned if not material.priced]
    dearer = sum((plan.price - plan.bound for plan in priced), Decimal(0))
    if any(p.price != p.bound for m, p in planned if m.ripped and not m.priced):
        return Claim(False, "A plan, not proven least", f"no prices; {cuts}")
    longer = int(sum((plan.price - plan.bound for plan in unpriced), Decimal(0)))
    proven = all(plan.status is Status.OPTIMAL for _, plan in planned)
    if any(plan.price and not plan.bound for _, plan in planned):
        return Claim(False, "A plan, not proven least", f"for {source}, {cuts}")
    if dearer:
        money = write_money(dearer, currency)
        return Claim(False, f"At most {money} above the least", f"bound {prices}")
    if longer:
        written = write_length(longer, settings.notation).text
        return Claim(False, f"At most {written} longer than the least", f"bound proven, {cuts}")
    if not proven:
        return Claim(False, "No cheaper purchase exists", f"fewest boards not proven; {prices}")
    if not priced:
        return Claim(True, "No shorter purchase exists", "proven for standard lengths, no prices")
    if unpriced:
        return Claim(True, "No cheaper purchase exists", f"{prices}; some stock has no price")
    return Claim(True, "No cheaper purchase exists", prices)


def _cuts(planned: Sequence[tuple[Material, CutPlan]], settings: Settings) -> str:
    """The cuts that a claim speaks of."""
    if not any(material.ripped for material, _ in planned):
        return "crosscuts only"
    orders = {
        Order.RIP_FIRST: "rips first",
        Order.CROSSCUT_FIRST: "crosscuts first",
        Order.EITHER: "crosscut, rip, crosscut",
    }
    return f"{orders[settings.order]}, up to three rip set-ups a board"


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
