"""A plan in the words of the API's contract."""

from collections import Counter
from decimal import Decimal
from itertools import islice, pairwise
from uuid import UUID

from django.db.models import QuerySet
from django.utils import timezone

from carpentry.buying import write_money
from carpentry.cutting import CutPlan, CutProblem, Layout, PlacedPart
from carpentry.design.edges import wider_width
from carpentry.design.ends import bevel_lines, is_angled, outline, told
from carpentry.language import Json, Notation, sold_name, write_length
from carpentry.lumber import Section, load_told, species_of
from carpentry.planning import Workup
from carpentry.project import (
    CutLine,
    Material,
    Offer,
    RipStrip,
    Tally,
    Totals,
    compare,
    cut_lines,
    kept_leftovers,
    notes,
    rip_segments,
    test_piece,
)
from carpentry.project.cut_lines import SawnLine
from server.common.schemas import length_out, sawn_out, section_out
from server.plans.buying import shopping_out
from server.plans.making import UNDER_WAY, plan_before
from server.plans.models import Board, Plan
from server.plans.schemas import (
    AlreadyCutOut,
    ClaimOut,
    CutBoardOut,
    CutOut,
    LaterOut,
    LayoutOut,
    LeftoverOut,
    MadeOut,
    MaterialOut,
    PlacedOut,
    PlanOut,
    RipSegmentOut,
    RipStripOut,
    SpanOut,
    TallyOut,
    UnplacedOut,
)
from server.plans.solver import solver
from server.projects.models import Project

MOST_NOTES = 3


def show_plan(plan: Plan, work: Workup) -> PlanOut:
    """The plan of a project's present state, done or still under way, with what the newest change
    did to it; boards that are cut otherwise than in the plan before it are told apart."""
    job = solver.job(plan.id)
    if job is None and plan.status in UNDER_WAY:
        plan.refresh_from_db()  # stored a moment ago, by another thread
    status = plan.status  # before its plans: another thread may store better ones at any moment
    documents = job.whole(job.plans) if job else plan.outcome
    return _show(plan, work, documents, status, job.elapsed if job else plan.seconds)


def show_documents(project: Project, work: Workup, documents: list[Json]) -> PlanOut:
    """Plans of a project's present state that are not kept, as its plan."""
    plan = Plan(project=project, digest=work.digest, status=Plan.Status.DONE, asked=timezone.now())
    return _show(plan, work, documents, plan.status, None)


def _show(
    plan: Plan, work: Workup, documents: list[Json], status: str, seconds: float | None
) -> PlanOut:
    plans = work.plans(documents)
    totals = work.tally(plans)
    before = plan_before(plan.project)
    boards = _Boards(plan, before if before and before.id != plan.id else None)
    materials = [
        _material(*planned, work, boards)
        for planned in zip(work.materials, work.problems, plans, strict=True)
    ]
    return PlanOut(
        id=plan.id,
        project=plan.project_id,
        version=plan.project.version,
        status=status,
        stage=plan.stage,
        asked=plan.asked,
        seconds=None if seconds is None else round(seconds, 3),
        effect=_effect(plan, before, boards.changed, work.currency)
        if before and status == Plan.Status.DONE
        else "",
        longest_ticks=_longest_board(work, plans),
        cut={UUID(part): count for part, count in work.cut_already().items()},
        already_cut=[_already_cut(one, work.settings.notation) for one in cut_before(plan)],
        materials=materials,
        shopping=shopping_out(totals.shopping, work, plans),
        tally=_tally(totals, work),
        saw_cautions=work.saw_cautions(plans),
        other_cautions=work.other_cautions(),
    )


def _effect(plan: Plan, before: Plan, changed: int, currency: str) -> str:
    """What a change did to the purchase, beside the plan of the version before it."""
    effect = compare(_still_to_buy(before), _still_to_buy(plan), currency)
    if not changed:
        return effect
    return f"{effect}; {changed} {'board is' if changed == 1 else 'boards are'} cut otherwise"


def _still_to_buy(plan: Plan) -> Totals:
    """What a plan asks for yet: nothing where its boards are cut."""
    return Totals(0, Decimal(0), 0) if plan.stage == Plan.Stage.CUT else plan.totals


def cut_before(plan: Plan) -> "QuerySet[Plan]":
    """The plans of its project that were cut before this one, the first first."""
    cut = plan.project.plans.filter(stage=Plan.Stage.CUT).exclude(id=plan.id)
    return cut.order_by("asked")


def _already_cut(cut: Plan, notation: str) -> AlreadyCutOut:
    """What a plan cut, from what was stored of it then."""
    boards = list(cut.boards.prefetch_related("pieces"))
    prices = [board.price for board in boards]
    cost = None
    if None not in prices:
        cost = write_money(sum(filter(None, prices), Decimal(0)), cut.basis.get("currency", "USD"))
    count = "1 board" if len(boards) == 1 else f"{len(boards)} boards"
    return AlreadyCutOut(
        told=f"{count}, {cost}" if cost else count,
        cost=cost,
        boards=[
            CutBoardOut(
                number=board.number,
                stock=board.stock,
                length=sold_name(board.length, notation),
                pieces=[piece.label for piece in board.pieces.all()],
            )
            for board in boards
        ],
    )


Signature = tuple[str, tuple[str, ...]]


def _boards_of(outcome: list[Json]) -> Counter[Signature]:
    """How many boards of a plan are cut alike: their stock and the parts on them."""
    found: Counter[Signature] = Counter()
    for plan in outcome:
        for layout in plan["layouts"]:
            parts = tuple(sorted(placed["part"] for placed in layout["parts"]))
            found[layout["stock"], parts] += layout["count"]
    return found


def _longest_board(work: Workup, plans: list[CutPlan | None]) -> int:
    return max(
        (
            offer.real_length
            for material, made in zip(work.materials, plans, strict=True)
            for offer in material.offers
            if made and any(layout.stock == offer.id for layout in made.layouts)
        ),
        default=0,
    )


class _Boards:
    """A plan's boards as they are shown one after the other: the next number, those that are
    stored, and how many of a kind there were before."""

    def __init__(self, plan: Plan, before: Plan | None) -> None:
        self.next = 1
        self.changed = 0
        self._stored = {board.number: board for board in plan.boards.all()}
        self._before = _boards_of(before.outcome) if before else None

    def take(self, layout: Layout) -> tuple[list[Board], int]:
        """The stored boards of a layout, and how many of them are cut otherwise than before."""
        numbers = range(self.next, self.next + layout.count)
        self.next += layout.count
        boards = [self._stored[n] for n in numbers if n in self._stored]
        if self._before is None:
            return boards, 0
        signature = layout.stock, tuple(sorted(placed.part for placed in layout.parts))
        same = min(layout.count, self._before[signature])
        self._before[signature] -= same
        self.changed += layout.count - same
        return boards, layout.count - same


def _material(
    material: Material,
    problem: CutProblem | None,
    made: CutPlan | None,
    work: Workup,
    numbered: _Boards,
) -> MaterialOut:
    notation = work.settings.notation
    currency = work.currency
    offers = {offer.id: offer for offer in material.offers}
    layouts: list[LayoutOut] = []
    first = numbered.next
    shown = {named.id for named in material.parts if named.part.show}
    counts: Counter[str] = Counter()
    for layout in made.layouts if made else ():
        offer = offers[layout.stock]
        counts[layout.stock] += layout.count
        number = numbered.next
        boards, changed = numbered.take(layout)
        lines = cut_lines(layout, offer.real_length, material.section_of(offer))
        layouts.append(
            LayoutOut(
                first=number,
                count=layout.count,
                board_ids=[board.id for board in boards],
                owned=offer.owned,
                rack_numbers=[b.rack_number for b in boards if b.rack_number is not None],
                named_length=sold_name(offer.length, notation),
                length=length_out(offer.real_length, notation),
                stock=str(offer.stock),
                measured=section_out(offer.on_hand.section, notation) if offer.on_hand else None,
                section=section_out(material.section_of(offer), notation),
                rips=_rips(layout, material, offer, lines, notation),
                cuts=[_cut(line, notation) for line in lines],
                parts=_placed_parts(layout, material, notation),
                keep=_leftovers(layout, notation),
                changed=changed,
                show=any(placed.part in shown for placed in layout.parts),
                flaws=[_span(flaw) for flaw in offer.on_hand.flaws] if offer.on_hand else [],
                trim_start=work.settings.trim_start.ticks,
                trim_end=work.settings.trim_end.ticks,
            )
        )
    species = species_of(material.stock)
    lengths = [
        f"{counts[offer.id]} of {f'{offer.stock} ' if material.ripped else ''}"
        f"{sold_name(offer.length, notation)}" + (" from the rack" if offer.owned else "")
        for offer in material.offers
        if counts[offer.id]
    ]
    return MaterialOut(
        stock=material.called,
        ripped=material.ripped,
        kind=material.stock.kind,
        wood=species.name,
        stands=species.exposure or "",
        caution=species.caution,
        section=None if material.ripped else section_out(material.section, notation),
        section_source=work.source if material.section_from_yard else "standard size",
        best_boards=_best_boards(layouts),
        note="the yard's section differs from length to length" if material.sections_differ else "",
        test_piece=_test_piece(material, made, first, work.settings.notation),
        notes=[
            one.says for one in islice(notes(material, problem, made, work.settings), MOST_NOTES)
        ],
        priced=material.priced,
        summary=", ".join(lengths),
        cost=write_money(made.price, currency) if made and material.priced else None,
        layouts=layouts,
        unplaced=[
            UnplacedOut(part=UUID(u.part), quantity=u.quantity, reason=u.reason)
            for u in (made.unplaced if made else ())
        ],
        later=[LaterOut(part=UUID(one.id), reason=reason) for one, reason in material.later],
    )


def _span(span: tuple[int, int]) -> SpanOut:
    return SpanOut(low=span[0], high=span[1])


def _rips(
    layout: Layout, material: Material, offer: Offer, lines: list[CutLine], notation: str
) -> list[RipSegmentOut]:
    section = material.section_of(offer)
    if not material.ripped or section is None:
        return []
    return [
        RipSegmentOut(
            start=length_out(one.start, notation),
            end=length_out(one.end, notation),
            strips=[
                RipStripOut(
                    y=_span(strip.y),
                    z=_span(strip.z),
                    parts=[UUID(part) for part in dict.fromkeys(strip.parts)],
                    thickness=sawn_out(strip.z[1] - strip.z[0], notation),
                    width=sawn_out(_wider(strip), notation),
                    corners=strip.corners,
                )
                for strip in one.strips
            ],
            cuts=[line.number for line in one.lines],
        )
        for one in rip_segments(layout, section, lines)
    ]


def _cut(line: CutLine, notation: str) -> CutOut:
    written = length_out if line.angle else sawn_out  # what is slanted was never typed
    return CutOut(
        number=line.number,
        saw=line.saw.value,
        of=line.of,
        at=written(line.at, notation),
        waste=line.waste,
        fence=written(line.fence, notation),
        against=line.against,
        angle=f"{line.angle:f}°" if line.angle else "",
        long_point=line.long_point,
        face_up=line.face_up,
        makes=[
            MadeOut(
                number=made.number,
                parts=[UUID(part) for part in dict.fromkeys(made.parts)],
                is_part=made.is_part,
                keep=made.keep,
            )
            for made in line.makes
        ],
        on_face=_drawn(line.on_face),
        on_end=_drawn(line.on_end),
    )


def _drawn(line: SawnLine | None) -> list[int] | None:
    return [at for point in line for at in point] if line else None


def _wider(strip: RipStrip) -> int:
    """Ticks across the wider face of a strip."""
    return wider_width(strip.y[1] - strip.y[0], strip.edges, strip.z[1] - strip.z[0])


def _placed_parts(layout: Layout, material: Material, notation: str) -> list[PlacedOut]:
    shown = [_placed(one, material.sections[one.part], notation) for one in layout.parts]
    if material.ripped:
        return shown
    for (before, one), out in zip(pairwise(layout.parts), shown[1:], strict=True):
        out.shared = one.start < before.end and is_angled(one.ends)
    return shown


def _placed(placed: PlacedPart, section: Section | None, notation: str) -> PlacedOut:
    thick, wide = (section.thickness, section.width) if section else (0, 0)
    return PlacedOut(
        part=UUID(placed.part),
        start=placed.start,
        end=placed.end,
        y=_span(placed.y) if placed.y else None,
        z=_span(placed.z) if placed.z else None,
        length=length_out(placed.end - placed.start, notation),
        corners=list(outline(placed.start, placed.end, placed.ends, thick, wide)),
        bevels=bevel_lines(placed.start, placed.end, placed.ends, thick),
        ends=told(placed.ends) if is_angled(placed.ends) else "",
        long_points=[end.long_point for end in placed.ends],
        shared=False,
    )


def _best_boards(layouts: list[LayoutOut]) -> str:
    """Which boards hold parts that are seen, in words; nothing where all do or none does."""
    if all(layout.show for layout in layouts):
        return ""
    numbers = [n for one in layouts if one.show for n in range(one.first, one.first + one.count)]
    if not numbers:
        return ""
    boards = f"board {numbers[0]}" if len(numbers) == 1 else f"boards {_listed(numbers)}"
    return f"the best boards for what is seen: {boards}"


def _listed(numbers: list[int]) -> str:
    """Numbers in words, those in a row together: 1 to 3, 5."""
    runs: list[list[int]] = []
    for number in numbers:
        if runs and runs[-1][-1] == number - 1:
            runs[-1].append(number)
        else:
            runs.append([number])
    return ", ".join(
        f"{run[0]} to {run[-1]}" if len(run) > 2 else ", ".join(map(str, run)) for run in runs
    )


def _test_piece(material: Material, made: CutPlan | None, first: int, notation: Notation) -> str:
    """Where the piece for trial cuts comes from, in words, with boards numbered from ``first``."""
    if made is None or not made.layouts:
        return ""
    found = test_piece(material, made)
    if found is None:
        return "no leftover is long enough for a test piece"
    index, rest = found
    length = write_length(rest.length, notation).text
    return f"test piece for setting up: {length} left of board {first + index}"


def _leftovers(layout: Layout, notation: str) -> list[LeftoverOut]:
    return [
        LeftoverOut(
            start=rest.start,
            end=rest.end,
            y=_span(rest.y) if rest.y else None,
            z=_span(rest.z) if rest.z else None,
            length=length_out(rest.length, notation),
            width=sawn_out(rest.y[1] - rest.y[0], notation) if rest.y else None,
        )
        for rest in kept_leftovers(layout)
    ]


def _tally(totals: Tally, work: Workup) -> TallyOut:
    currency, shopping = work.currency, totals.shopping
    some_priced = shopping.unpriced < totals.boards + totals.spare
    return TallyOut(
        boards=totals.boards,
        spare=totals.spare,
        owned=totals.owned,
        longest=sold_name(totals.longest, work.settings.notation) if totals.longest else "",
        cost=write_money(shopping.subtotal, currency) if some_priced else None,
        with_tax=write_money(shopping.wood_total, currency)
        if some_priced and work.basis.tax.rate
        else None,
        unpriced=shopping.unpriced,
        waste=f"{totals.waste:f}",
        keepable=totals.keepable,
        board_feet=f"{totals.board_feet:f}",
        weight=load_told(totals.weight_kg, totals.unweighed, work.settings.unit),
        bound=write_money(totals.bound, currency) if totals.bound else None,
        unplaced=totals.unplaced,
        later=totals.later,
        claim=ClaimOut(
            proven=totals.claim.proven,
            headline=totals.claim.headline,
            detail=totals.claim.detail,
        ),
    )
