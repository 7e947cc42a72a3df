"""A plan in the words of the API's contract."""

from collections import Counter
from dataclasses import asdict, replace
from decimal import Decimal
from itertools import islice
from uuid import UUID

from django.db.models import QuerySet
from django.utils import timezone

from carpentry.buying import write_money
from carpentry.cutting import CutPlan, CutProblem, Unplaced
from carpentry.language import Json, Notation, Unit, sold_name
from carpentry.lumber import load_told, species_of
from carpentry.planning import Workup
from carpentry.project import (
    Beside,
    Material,
    Tally,
    Totals,
    compare,
    compare_beside,
    notes,
    proof_told,
)
from carpentry.project.board_words import best_boards_told, lengths_told, test_piece_told
from server.common.schemas import section_out
from server.plans.boards import NumberedBoards, show_layouts
from server.plans.buying import shopping_out
from server.plans.making import UNDER_WAY, version_before
from server.plans.models import Plan, PlanOfVersion
from server.plans.schemas import (
    AlreadyCutOut,
    BoardHoldsOut,
    ClaimOut,
    CountedPartOut,
    CutBoardOut,
    LaterOut,
    MaterialOut,
    PlanOut,
    ProofCountOut,
    ProofOut,
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
    shown = _show(plan, work, documents, status, job.elapsed if job else plan.seconds)
    proven = shown.tally.claim.proven
    if job is None and plan.proven != proven:  # it was made before that was noted with it
        Plan.objects.filter(id=plan.id).update(proven=proven)
    return shown


def show_documents(project: Project, work: Workup, documents: list[Json]) -> PlanOut:
    """Plans of a project's present state that are not kept, as its plan."""
    plan = Plan(project=project, digest=work.digest, status=Plan.Status.DONE, asked=timezone.now())
    return _show(plan, work, documents, plan.status, None)


def show_proofs(plan: Plan, work: Workup) -> list[ProofOut]:
    """The proofs of a plan, material by material."""
    plans = zip(work.materials, work.problems, work.plans(plan.outcome), strict=True)
    told = (
        proof_told(*one, work.settings, currency=work.currency, marks=work.marks) for one in plans
    )
    return [
        ProofOut(
            of=proof.of,
            counts=[
                ProofCountOut(
                    parts=[CountedPartOut(part=part, counts=n) for part, n in count.parts],
                    needed=count.needed,
                    boards=[BoardHoldsOut(**asdict(board)) for board in count.boards],
                )
                for count in proof.counts
            ],
            tried=list(proof.tried),
            says=proof.says,
            whole=proof.whole,
        )
        for proof in told
        if proof
    ]


def _show(
    plan: Plan, work: Workup, documents: list[Json], status: str, seconds: float | None
) -> PlanOut:
    plans = work.plans(documents)
    totals = work.tally(plans)
    version = version_before(plan.project)
    before = version.plan if version else None
    boards = NumberedBoards(plan, before if before and before.id != plan.id else None)
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
        effect=_effect(plan, version, boards.cut_otherwise, work)
        if version and status == Plan.Status.DONE
        else "",
        longest_ticks=_longest_board(work, plans),
        cut={UUID(part): count for part, count in work.cut_already().items()},
        already_cut=[_already_cut(one, work.settings.notation) for one in cut_before(plan)],
        materials=materials,
        shopping=shopping_out(totals, work, plans, planning=status in UNDER_WAY),
        tally=_tally(totals, work, plans),
        saw_cautions=work.saw_cautions(plans),
        other_cautions=work.other_cautions(),
    )


def _effect(plan: Plan, before: PlanOfVersion, otherwise: int, work: Workup) -> str:
    """What a change did to the purchase, beside the version before it."""
    notation = work.settings.notation
    both = (_still_to_buy(one, notation) for one in (before.plan, plan))
    said = [compare(*both, work.currency)]
    if before.beside:
        metric = work.settings.unit is Unit.MM
        said.append(compare_beside(Beside(**before.beside), work.beside, metric=metric))
    if otherwise:
        said.append(f"{otherwise} {'board is' if otherwise == 1 else 'boards are'} cut otherwise")
    return "; ".join(filter(None, said))


def _still_to_buy(plan: Plan, notation: Notation) -> Totals:
    """What a plan asks for yet: nothing where its boards are cut."""
    if plan.stage == Plan.Stage.CUT:
        return Totals(0, Decimal(0), 0)
    bought = plan.boards.filter(rack_board=None).values_list("stock", "length")
    lengths = Counter(f"{stock} {sold_name(length, notation)}" for stock, length in bought)
    return replace(plan.totals, lengths=lengths)


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


def _material(
    material: Material,
    problem: CutProblem | None,
    made: CutPlan | None,
    work: Workup,
    numbered: NumberedBoards,
) -> MaterialOut:
    settings, first = work.settings, numbered.next
    notation = settings.notation
    species = species_of(material.stock)
    told = notes(material, problem, made, settings)
    return MaterialOut(
        stock=material.called,
        ripped=material.ripped,
        kind=material.stock.kind,
        wood=species.name,
        stands=species.exposure or "",
        caution=species.caution,
        section=None if material.ripped else section_out(material.section, notation),
        section_source=work.source if material.section_from_yard else "standard size",
        best_boards=best_boards_told(material, made, first),
        note="the yard's section differs from length to length" if material.sections_differ else "",
        test_piece=test_piece_told(material, made, first, notation),
        notes=[note.says for note in islice(told, MOST_NOTES)],
        priced=material.priced,
        summary=lengths_told(material, made, notation),
        cost=write_money(made.price, work.currency) if made and material.priced else None,
        layouts=show_layouts(made.layouts if made else (), material, numbered, settings),
        unplaced=[
            UnplacedOut(part=UUID(u.part), quantity=u.quantity, reason=_with_numbers(u, work))
            for u in (made.unplaced if made else ())
        ],
        later=[LaterOut(part=UUID(one.id), reason=reason) for one, reason in material.later],
    )


def _with_numbers(one: Unplaced, work: Workup) -> str:
    """Why a part has no board, with the numbers that went into its length where it follows."""
    said = work.project.sheet.went_into(work.marks[one.part])
    return f"{one.reason} ({said})" if said else one.reason


def _tally(totals: Tally, work: Workup, plans: list[CutPlan | None]) -> TallyOut:
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
            checked=any(plan and plan.proof for plan in plans),
            headline=totals.claim.headline,
            detail=totals.claim.detail,
        ),
    )
