"""The tally: what a plan takes, what it wastes, and what is proven about it."""

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from decimal import Decimal
from fractions import Fraction

from carpentry.buying import ListLine, ShoppingList, Tax, shopping_list, write_money
from carpentry.buying.coating import write_area
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
    def totals(self) -> "Totals":
        return Totals(self.boards + self.spare, self.shopping.subtotal, self.unplaced)


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
    planned = [_Taken.of(material, plan) for material, plan in plans if plan]
    wood = sum((one.wood for one in planned), Fraction(0))
    finished = sum((one.finished for one in planned), Fraction(0))
    cut_from, spares = _to_buy(planned, settings)
    shopping = shopping_list((*cut_from, *spares), tax, settings.copies, hardware)
    return Tally(
        boards=sum(line.count for line in cut_from),
        spare=sum(line.count for line in spares),
        owned=sum(one.owned for one in planned),
        longest=max((line.length for line in cut_from), default=0),
        waste=rounded((wood - finished) / wood * 100) if wood else Decimal("0.0"),
        keepable=sum(one.keepable for one in planned),
        board_feet=rounded(sum(map(_board_feet, cut_from), Fraction(0))),
        weight_kg=rounded(sum((one.kilograms for one in planned), Fraction(0))),
        unweighed=sum(one.unweighed for one in planned),
        bound=sum((p.bound for m, p in plans if p and m.priced), Decimal(0)),
        shopping=shopping,
        claim=claim_of(plans, settings, currency, source),
        unplaced=sum(u.quantity for _, plan in plans if plan for u in plan.unplaced),
        later=sum(len(material.later) for material, _ in plans),
    )


@dataclass(frozen=True)
class _Taken:
    """What the plan of one material takes: how many of each offer, the ``wood`` in their boards and
    in ``finished`` parts (cubic ticks), and what is ``bought`` of it weighs."""

    material: Material
    counts: Mapping[str, int]
    wood: Fraction
    finished: Fraction
    kilograms: Fraction
    unweighed: int
    keepable: int

    @classmethod
    def of(cls, material: Material, plan: CutPlan) -> "_Taken":
        offers = {offer.id: offer for offer in material.offers}
        counts: Counter[str] = Counter()
        for layout in plan.layouts:
            counts[layout.stock] += layout.count
        wood = {name: _volume(material, offers[name]) * count for name, count in counts.items()}
        bought = [name for name in counts if not offers[name].owned]
        density = species_of(material.stock).density()
        weighed = sum(wood[name] for name in bought) if density is not None else 0
        return cls(
            material,
            counts,
            wood=Fraction(sum(wood.values())),
            finished=_finished(material, plan),
            kilograms=weight_kg(weighed, density) if density is not None else Fraction(0),
            unweighed=0 if density is not None else sum(counts[name] for name in bought),
            keepable=sum(layout.count * len(kept_leftovers(layout)) for layout in plan.layouts),
        )

    @property
    def owned(self) -> int:
        """How many boards on hand it uses."""
        return sum(self.counts.get(offer.id, 0) for offer in self.material.offers if offer.owned)

    def bought(self) -> Iterator[tuple[Offer, ListLine]]:
        """What of it is bought, offer by offer."""
        for offer in self.material.offers:
            count = self.counts.get(offer.id, 0)
            if count and not offer.owned:
                section = self.material.section_of(offer)
                yield (
                    offer,
                    ListLine(
                        offer.stock, section, offer.length, offer.real_length, count, offer.price
                    ),
                )


def _board_feet(line: ListLine) -> Fraction:
    """The board feet of a line by its named size; 0 where they are not known."""
    return Fraction(board_feet(line.stock, line.length) or 0) * line.count


def _volume(material: Material, offer: Offer) -> int:
    """The wood of one board, in cubic ticks; 0 where its section is not known."""
    section = material.section_of(offer)
    return section.area * offer.real_length if section else 0


def _finished(material: Material, plan: CutPlan) -> Fraction:
    """The wood in the parts that a plan gives, in cubic ticks."""
    volumes = {
        named.id: named.part.mean_section(section).area * named.part.centre_length(section)
        for named in material.parts
        if (section := material.sections[named.id])
    }
    cut = (
        (layout.count, sum(volumes.get(placed.part, 0) for placed in layout.parts))
        for layout in plan.layouts
    )
    return sum((Fraction(volume) * count for count, volume in cut), Fraction(0))


def _to_buy(planned: Sequence[_Taken], settings: Settings) -> tuple[list[ListLine], list[ListLine]]:
    """The lines that are cut from, those of one stock and length in one, and the spare ones beside
    them."""
    lines: dict[ListLine, Offer] = {}
    counts: Counter[ListLine] = Counter()
    for offer, line in (one for taken in planned for one in taken.bought()):
        alike = replace(line, count=0)
        lines[alike] = offer
        counts[alike] += line.count
    spares = [
        replace(line, count=more, spare=True)
        for line, offer in lines.items()
        if (more := _spare(counts[line], offer, settings))
    ]
    return [replace(line, count=counts[line]) for line in lines], spares


def _spare(count: int, offer: Offer, settings: Settings) -> int:
    """Boards to buy beyond those that are cut, no more than there are."""
    return settings.spare.beside(count, offer.available)


_MOST_NAMED = 3  # kinds of boards that took the place of others


@dataclass(frozen=True)
class Totals:
    """What two plans are compared by; ``lengths`` counts what is bought, by its name."""

    boards: int
    subtotal: Decimal
    unplaced: int
    lengths: Mapping[str, int] = field(default_factory=dict)


@dataclass(frozen=True)
class Beside:
    """What a project takes beside boards: pieces to cut, packs to buy, and what is coated (square
    ticks)."""

    pieces: int = 0
    packs: int = 0
    coated: int = 0


def more_or_fewer(count: int, one: str) -> str:
    """A difference in words: ``2 boards fewer``; empty for none."""
    noun = one if abs(count) == 1 else f"{one}s"
    return f"{abs(count)} {noun} {'more' if count > 0 else 'fewer'}" if count else ""


def compare_beside(before: Beside, after: Beside, *, metric: bool) -> str:
    """What a change did beside the boards: "20 pieces more, finish +61 sq ft, 1 pack more"; empty
    for nothing."""
    coated = after.coated - before.coated
    area = write_area(abs(coated), metric=metric)
    finish = f"finish {'+' if coated > 0 else '−'}{area}" if area.strip("0. m²sqft") else ""
    pieces = more_or_fewer(after.pieces - before.pieces, "piece")
    packs = more_or_fewer(after.packs - before.packs, "pack")
    return ", ".join(filter(None, (pieces, finish, packs)))


def compare(before: Totals, after: Totals, currency: str) -> str:
    """What a change did to the purchase, such as "2 boards fewer, −$9.10"."""
    said: list[str] = []
    if after.unplaced != before.unplaced:
        said.append(f"{after.unplaced} without a board" if after.unplaced else "all parts placed")
    boards = after.boards - before.boards
    if boards:
        said.append(more_or_fewer(boards, "board"))
    cost = after.subtotal - before.subtotal
    if cost:
        said.append(("+" if cost > 0 else "") + write_money(cost, currency))
    if not said and before.lengths != after.lengths:
        said.append(_became(Counter(before.lengths), Counter(after.lengths)))
    return ", ".join(said) or "same purchase"


def _became(before: Counter[str], after: Counter[str]) -> str:
    """Which boards took the place of which, of as many that cost as much."""
    gone, come = before - after, after - before
    if len(gone) > _MOST_NAMED or len(come) > _MOST_NAMED:
        return "other lengths at the same cost"
    said = (" + ".join(f"{n} × {name}" for name, n in sorted(one.items())) for one in (gone, come))
    return " became ".join(said)
