"""What was proven of a purchase, in words, with everything that the proof leaves aside."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from decimal import Decimal

from carpentry.buying import write_money
from carpentry.cutting import NO_SPARE, CutPlan, Ended, Order, Status
from carpentry.cutting.plan import pieces_used
from carpentry.design.ends import is_angled
from carpentry.language import write_length
from carpentry.project.material import Material
from carpentry.project.settings import RackUse, Settings

Planned = Sequence[tuple[Material, CutPlan]]

_ORDERS = {
    Order.RIP_FIRST: "rips first",
    Order.CROSSCUT_FIRST: "crosscuts first",
    Order.EITHER: "crosscut, rip, crosscut",
}


@dataclass(frozen=True)
class Claim:
    """What was proven, in words; ``proven`` when no cheaper (or shorter) purchase exists. Its
    ``limits`` are what the proof speaks of and what it leaves aside."""

    proven: bool
    headline: str
    detail: str
    limits: tuple[str, ...] = ()


def claim_of(
    plans: Sequence[tuple[Material, CutPlan | None]],
    settings: Settings,
    currency: str,
    source: str,
) -> Claim:
    """The claim over the plans of all materials, ``None`` where nothing of one is planned.
    ``source`` names the prices, such as "Tallow Street Yard"."""
    planned = [(material, plan) for material, plan in plans if plan]
    open_parts = _without_boards(plans)
    if not planned and not open_parts:
        if any(
            material.cut_already(one, settings) for material, _ in plans for one in material.parts
        ):
            return Claim(False, "Everything is cut", "nothing is left to buy")
        return Claim(False, "Nothing to buy yet", "add a part to see the boards it takes")
    limits = tuple(
        dict.fromkeys(one for m, plan in planned for one in limits_of(m, plan, settings))
    )
    proven, headline, said = _found(planned, settings, currency, source)
    if open_parts:
        rest = f"; for the others {headline[0].lower()}{headline[1:]}, {said}"
        placed = planned and not any(plan.unplaced for _, plan in planned)
        said = f"the reasons stand beside the boards{rest if placed else ''}"
        proven, headline = False, open_parts
    return Claim(proven, headline, "; ".join((said, *limits)) if limits else said, limits)


def _without_boards(plans: Sequence[tuple[Material, CutPlan | None]]) -> str:
    """What no board is planned for, in words; empty where all is."""
    left = sum(one.quantity for _, plan in plans if plan for one in plan.unplaced)
    later = sum(len(material.later) for material, _ in plans)
    said = [
        f"{left} {'piece' if left == 1 else 'pieces'} without a board" if left else "",
        f"{later} {'part' if later == 1 else 'parts'} not planned yet" if later else "",
    ]
    return ", ".join(filter(None, said))


def _found(
    planned: Planned, settings: Settings, currency: str, source: str
) -> tuple[bool, str, str]:
    if any(_without_spares(material, plan, settings) for material, plan in planned):
        return False, "A plan, not proven least", f"for {source}: spare boards come on top"
    # What only comes from boards on hand costs nothing, whatever it would cost at a yard.
    priced = [plan for m, plan in planned if m.priced or not _bought(m, plan)]
    unpriced = [plan for m, plan in planned if not m.priced and _bought(m, plan)]
    bought = sum(_bought(material, plan) for material, plan in planned)
    without = sum(_bought(m, plan) for m, plan in planned if not m.priced)
    if any(plan.price and not plan.bound for _, plan in planned):
        return False, "A plan, not proven least", f"for {source}"
    apart = any(material.apart for material, _ in planned)
    if priced and unpriced:
        return _partly_priced(() if apart else priced, without, bought, currency, source)
    if apart:
        said = f"for {source}: boards that are not ripped are planned apart"
        return False, "A plan, not proven least", said
    if not priced:
        return _without_prices(planned, settings)
    return _priced(priced, currency, source)


def _without_spares(material: Material, plan: CutPlan, settings: Settings) -> bool:
    """Whether what is bought costs more than what was planned, as of plans that were made before
    spare boards were part of them."""
    problem = material.problem(settings) if settings.spare != NO_SPARE else None
    return problem is not None and problem.price_of(pieces_used(plan.layouts)) != plan.price


def _priced(priced: Sequence[CutPlan], currency: str, source: str) -> tuple[bool, str, str]:
    dearer = sum((plan.price - plan.bound for plan in priced), Decimal(0))
    if dearer:
        money = write_money(dearer, currency)
        said = f"bound proven for {source}{_out_of_time(priced)}"
        return False, f"At most {money} above the least", said
    unchecked = sum((plan.price - (plan.checked or 0) for plan in priced), Decimal(0))
    if any(plan.checked is None for plan in priced):
        return False, "Nothing cheaper was found", f"for {source}; its proof is not checked"
    if unchecked:
        money = write_money(unchecked, currency)
        said = f"nothing cheaper was found for {source}; the proof stops {money} below"
        return False, "Checked in part", said
    said = f"proven and checked for {source}"
    if not all(plan.status is Status.OPTIMAL for plan in priced):
        said += "; that no fewer boards would do is not proven"
    return True, "No cheaper purchase exists", said


def _partly_priced(
    priced: Sequence[CutPlan], without: int, bought: int, currency: str, source: str
) -> tuple[bool, str, str]:
    """Boards without a price can make any purchase dearer: nothing is proven of the whole, nor of
    the others where nothing is ``priced`` that could not share boards with something else."""
    have = "has" if without == 1 else "have"
    headline = f"{without} of {bought} boards {have} no price"
    if not priced:
        return False, headline, f"nothing is proven of the others, for {source}"
    proven, found, said = _priced(priced, currency, source)
    of_rest = f"{found[0].lower()}{found[1:]} for the others" if proven else found
    return False, headline, f"{of_rest}, {said}"


def _out_of_time(plans: Iterable[CutPlan]) -> str:
    """Whether the clock ended a search, so that a cheaper plan may be found with more time."""
    ended = any(plan.ended is Ended.CLOCK and plan.price != plan.bound for plan in plans)
    return ", the time ran out" if ended else ""


def _without_prices(planned: Planned, settings: Settings) -> tuple[bool, str, str]:
    if any(plan.price != plan.bound for m, plan in planned if m.ripped):
        return False, "A plan, not proven least", "no prices"
    longer = int(sum((plan.price - plan.bound for _, plan in planned), Decimal(0)))
    if longer:
        written = write_length(longer, settings.notation).text
        said = f"bound proven, no prices{_out_of_time(plan for _, plan in planned)}"
        return False, f"At most {written} longer than the least", said
    if any(plan.checked != plan.price for _, plan in planned):
        said = "for standard lengths, no prices; its proof is not checked in whole"
        return False, "Nothing shorter was found", said
    return True, "No shorter purchase exists", "proven and checked for standard lengths, no prices"


def _bought(material: Material, plan: CutPlan) -> int:
    owned = {offer.id for offer in material.offers if offer.owned}
    return sum(layout.count for layout in plan.layouts if layout.stock not in owned)


def limits_of(material: Material, plan: CutPlan, settings: Settings) -> Iterator[str]:
    """What the proof of one plan speaks of, and what it leaves aside, in words."""
    parts = [named.part for named in material.parts]
    if not material.ripped:
        yield "crosscuts only"
    else:
        yield _ORDERS[settings.order]
        if plan.rip_set_ups:
            yield f"up to {plan.rip_set_ups} rip set-ups a board"
        bevelled = [named.id for named in material.parts if is_angled(named.part.edges)]
        if (
            len({section.thickness for section in map(material.sections.get, bevelled) if section})
            > 1
        ):
            yield "bevels ripped on pieces as thick as the part"
    # A set of which pieces were cut is planned part by part.
    if any(named.part.fields.together and not named.cut for named in material.parts):
        yield "matching parts kept together"
    if any(part.is_shaped for part in parts):
        yield "shaped parts cut from square pieces"
    if not all(part.square_ended or part.is_shaped for part in parts):
        shared = settings.share_angled_cuts
        yield "neighbours share angled cuts" if shared else "no angled cut shared by neighbours"
    if material.ripped or not all(part.square_ended or part.is_shaped for part in parts):
        yield "within what your saws can do"
    if settings.spare != NO_SPARE:
        yield "spare boards included"
    if any(offer.owned for offer in material.offers):
        always = settings.rack is RackUse.ALWAYS
        yield "boards from the rack first" if always else "boards from the rack cost nothing"
