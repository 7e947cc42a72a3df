"""What is bought, in the words of the API's contract."""

from uuid import UUID

from carpentry.buying import (
    ListLine,
    budget_told,
    margin_told,
    price_told,
    write_money,
    write_volume,
)
from carpentry.cutting import CutPlan
from carpentry.language import Notation, sold_name
from carpentry.lumber import StockName
from carpentry.planning import Workup
from carpentry.project import Hardware, HardwareLine, Settings, Tally, group_shares
from server.common.schemas import length_out, section_out
from server.plans.schemas import (
    GroupOut,
    HardwareLineOut,
    HardwareOut,
    JointOut,
    ListLineOut,
    PackOut,
    ShoppingOut,
)


def shopping_out(
    found: Tally, work: Workup, plans: list[CutPlan | None], *, planning: bool = False
) -> ShoppingOut:
    """The list of a plan's boards, and of all that is not wood. What is earned, and what of a
    budget is left, is told of a whole total alone."""
    notation, currency = work.settings.notation, work.currency
    budget, sells_for = work.settings.budget, work.settings.sells_for
    shopping = found.shopping
    note = work.left_out_told(found, planning=planning)
    if note:
        budget = sells_for = None
    parts_on: dict[tuple[str, int], dict[UUID, None]] = {}
    for material, made in zip(work.materials, plans, strict=True):
        offers = {offer.id: offer for offer in material.offers}
        for layout in made.layouts if made else ():
            offer = offers[layout.stock]
            on = parts_on.setdefault((str(offer.stock), offer.length), {})
            on.update(dict.fromkeys(UUID(placed.part) for placed in layout.parts))
    told = {
        (line.stock, line.length.ticks): price_told(
            line, currency, whole_inches=work.basis.whole_inches
        )
        for line in work.basis.lines
    }
    return ShoppingOut(
        lines=[
            ListLineOut(
                stock=str(line.stock),
                section=section_out(line.section, notation),
                named_length=sold_name(line.length, notation),
                real_length=length_out(line.real_length, notation)
                if line.real_length != line.length
                else None,
                count=line.count,
                price=None if line.price is None else write_money(line.price, currency),
                line_price=None
                if line.line_price is None
                else write_money(line.line_price, currency),
                how=_how(line, told, work.settings),
                spare=line.spare,
                kind=line.stock.kind,
                parts=[] if line.spare else list(parts_on.get((str(line.stock), line.length), ())),
            )
            for line in shopping.lines
        ],
        groups=[
            GroupOut(name=one.name, pieces=one.pieces, cost=write_money(one.cost, currency))
            for one in group_shares(list(zip(work.materials, plans, strict=True)))
        ],
        hardware=_hardware(work.hardware, currency, notation),
        subtotal=write_money(shopping.subtotal, currency),
        wood_total=write_money(shopping.wood_total, currency),
        budget="" if budget is None else budget_told(shopping.total, budget, currency),
        over_budget=budget is not None and shopping.total > budget,
        margin="" if sells_for is None else margin_told(shopping.per_copy, sells_for, currency),
        tax_rate=f"{work.basis.tax.rate:f}",
        tax_included=work.basis.tax.included,
        tax=write_money(shopping.tax, currency),
        total=write_money(shopping.total, currency),
        per_copy=write_money(shopping.per_copy, currency),
        copies=work.settings.copies,
        unpriced=shopping.unpriced,
        total_note=note,
    )


def _how(line: ListLine, told: dict[tuple[StockName, int], str], settings: Settings) -> str:
    price = told.get((line.stock, line.length), "")
    if not line.spare:
        return price
    return f"spare: {settings.fields.spare} of those that are cut, against culls; {price}"


def _amount(amount: int, line: HardwareLine, notation: Notation, *, down: bool = False) -> str:
    """So many pieces, or a volume in the unit of the tin; empty for none."""
    if not amount:
        return ""
    if not line.volume:
        return str(amount)
    return write_volume(amount, metric=notation is Notation.MM, tin=line.tin, down=down)


def _hardware(hardware: Hardware, currency: str, notation: Notation) -> HardwareOut:
    return HardwareOut(
        lines=[
            HardwareLineOut(
                name=line.name,
                length=None if line.length is None else length_out(line.length, notation),
                needed=_amount(line.needed, line, notation),
                have=_amount(line.have, line, notation),
                packs=[
                    PackOut(
                        name=package.name,
                        content="" if package.holds == 1 else package.content,
                        count=count,
                        price=write_money(package.price, currency),
                    )
                    for package, count in line.packs
                ],
                price=None if line.price is None else write_money(line.price, currency),
                left=_amount(line.left, line, notation, down=True),
                used_for=list(line.used_for),
            )
            for line in hardware.lines
        ],
        joints=[
            JointOut(
                text=joint.text,
                fastener=joint.fastener,
                length=None if joint.length is None else length_out(joint.length, notation),
                count=joint.count,
                warnings=list(joint.warnings),
                notes=list(joint.notes),
            )
            for joint in hardware.joints
        ],
        problems=[f"{problem.place}: {problem.message}" for problem in hardware.problems],
        price=write_money(hardware.price, currency),
        unpriced=hardware.unpriced,
    )
