"""Asking for a plan, storing it, and finding the one that belongs to a project's present state."""

import uuid
from collections import Counter
from collections.abc import Sequence
from threading import Lock
from time import monotonic

from django.conf import settings as django_settings
from django.db import transaction

from carpentry.cutting import CutPlan, Layout, check_plan, read_plan
from carpentry.project import Offer, kept_leftovers, section_left
from carpentry.sizes import Section
from server.plans.inputs import Document, Inputs, named_boards
from server.plans.models import Board, Piece, Plan
from server.plans.solver import Job, solver
from server.projects.models import Project, ProjectRevision
from server.rack.models import RackBoard

KEPT_DRAFTS = 60
_GRACE, _MOMENT = 2.0, 0.02  # seconds, where other plans are in the way
UNDER_WAY = (Plan.Status.QUEUED, Plan.Status.RUNNING)
_one_at_a_time = Lock()


def plan_for(project: Project, inputs: Inputs) -> Plan:
    """The plan of the project's present state: one already made or under way, else a new one.

    A small one is done when this returns; a larger one goes on beside the server.
    """
    digest = inputs.digest
    with _one_at_a_time:
        plan = project.plans.filter(digest=digest).exclude(status=Plan.Status.FAILED).first()
        if plan and plan.status in UNDER_WAY and solver.job(plan.id) is None:
            plan = _orphaned(plan)
        job = None
        if plan is None:
            plan = Plan.objects.create(project=project, digest=digest)
            problems = [p for p in inputs.documents if p]
            before = plan_in_force(project)
            kept = [_same_parts(problem, before.outcome if before else []) for problem in problems]
            owner = project.owner_id
            job = solver.submit(plan.id, project.id, problems, kept, owner=owner)
    if job:
        _await(plan, inputs, job)
    ProjectRevision.objects.filter(subject=project, number=project.version).update(plan=plan)
    return plan


def plan_in_force(project: Project) -> Plan | None:
    """The plan that a new one takes the place of: that of this state with other prices or boards on
    hand, else that of the state before it."""
    revisions = project.revisions.filter(
        number__in=(project.version, project.version - 1), plan__status=Plan.Status.DONE
    )
    newest = revisions.select_related("plan").order_by("-number").first()
    return newest.plan if newest else None


def _same_parts(problem: Document, outcome: list[Document]) -> Document | None:
    """The plan among several that shares most parts with a problem, ``None`` where none does."""
    wanted = {part["id"] for part in problem["parts"]}

    def shared(plan: Document) -> int:
        return len(wanted & {p["part"] for layout in plan["layouts"] for p in layout["parts"]})

    best = max(outcome, key=shared, default=None)
    return best if best and shared(best) else None


def _orphaned(plan: Plan) -> Plan | None:
    """A plan under way without a job: just stored by another thread, or left by an ended server."""
    plan.refresh_from_db()
    if plan.status not in UNDER_WAY:
        return plan
    Plan.objects.filter(id=plan.id).update(status=Plan.Status.FAILED)
    return None


def settled_plan(project: Project, inputs: Inputs, seconds: float) -> list[Document]:
    """The plan of a project's present state as documents; one under way is waited for, so many
    seconds, then it is the best so far."""
    plan = plan_for(project, inputs)
    job = solver.job(plan.id)
    wait_for(plan, seconds)
    return plan.outcome or (job.plans if job else [])


def wait_for(plan: Plan, seconds: float) -> None:
    """Waits until a plan under way is stored, so many seconds at the most."""
    job = solver.job(plan.id)
    if job:
        job.settled.wait(seconds)
    if plan.status in UNDER_WAY:
        plan.refresh_from_db()  # stored by another thread, perhaps before the job was looked for


def planned_aside(
    problems: list[Document],
    project: Project,
    what: str,
    seconds: float,
    before: Sequence[Document] = (),
) -> list[Document]:
    """Plans for one answer, not stored: the best that are found within so many seconds, with as
    many of the boards of plans ``before`` them as cost nothing. ``what`` says what they are for;
    older ones of the same project for the same are stopped."""
    if not problems:
        return []
    kept = [_same_parts(problem, list(before)) for problem in problems]
    subject = uuid.uuid5(project.id, what)
    job = solver.submit(uuid.uuid4(), subject, problems, kept, seconds, owner=project.owner_id)
    deadline = monotonic() + seconds + _GRACE
    job.finished.wait(seconds)
    while not job.plans and not job.finished.wait(_MOMENT) and monotonic() < deadline:
        pass
    plans = job.plans
    solver.stop(job.key)
    solver.forget(job)
    return plans


def _await(plan: Plan, inputs: Inputs, job: Job) -> None:
    """Waits a moment for a plan; one that takes longer is stored when it comes."""

    def store(finished: Job) -> None:
        try:
            _store(plan, inputs, finished)
        finally:
            solver.forget(finished)

    Plan.objects.filter(id=plan.id).update(status=Plan.Status.RUNNING)
    plan.status = Plan.Status.RUNNING
    if job.wait(django_settings.ANSWER_WITHIN_SECONDS, store):
        store(job)


def _store(plan: Plan, inputs: Inputs, job: Job) -> None:
    """Writes what a job came to, checked once more, as boards and pieces with lasting ids."""
    problems = [problem for problem in inputs.problems if problem]
    plan.seconds = round(job.elapsed, 3)
    if job.failed or len(job.plans) != len(problems):
        plan.status = Plan.Status.STOPPED if job.stopped else Plan.Status.FAILED
        Plan.objects.filter(id=plan.id).update(status=plan.status, seconds=plan.seconds)
        return
    for problem, document in zip(problems, job.plans, strict=True):
        check_plan(problem, read_plan(document, inputs.settings.unit))
    plans = inputs.plans(job.plans)
    totals = inputs.tally(plans).purchase
    plan.outcome = job.plans
    plan.status = Plan.Status.STOPPED if job.stopped else Plan.Status.DONE
    plan.boards_count = totals.boards
    plan.subtotal = totals.subtotal
    plan.unplaced_count = totals.unplaced
    with transaction.atomic():
        if not Plan.objects.filter(id=plan.id).exists():
            return
        plan.save()
        _write_boards(plan, inputs, plans)
        stale = plan.project.plans.filter(stage=Plan.Stage.DRAFT).values_list("id", flat=True)
        Plan.objects.filter(id__in=list(stale[KEPT_DRAFTS:])).delete()


def _take(on_rack: list[RackBoard], offer: Offer, inputs: Inputs) -> RackBoard:
    """The first board of an offer's kind that is still on the rack for this plan."""
    named = named_boards(one.part for m in inputs.materials for one in m.parts)
    board = next(b for b in on_rack if inputs.basis.on_hand(b, named) == offer.on_hand)
    on_rack.remove(board)
    return board


def _best_first(boards: list[RackBoard]) -> list[RackBoard]:
    """Boards in the order in which they are taken: layouts with parts that are seen come first."""
    return sorted(boards, key=lambda board: (board.read().unevenness, board.number))


def _offcuts(layout: Layout, board: Section | None) -> list[dict[str, int | None]]:
    """What of a board of a section is worth keeping."""
    offcuts = []
    for rest in kept_leftovers(layout):
        section = section_left(rest, board)
        offcuts.append(
            {
                "length": rest.length,
                "thickness": section.thickness if section else None,
                "width": section.width if section else None,
            }
        )
    return offcuts


def _write_boards(plan: Plan, inputs: Inputs, plans: list[CutPlan | None]) -> None:
    boards: list[Board] = []
    pieces: list[Piece] = []
    layout_number = 0
    cut: Counter[str] = Counter()
    for material, made in zip(inputs.materials, plans, strict=True):
        offers = {offer.id: offer for offer in material.offers}
        owned = {offer.stock for offer in material.offers if offer.owned}
        on_rack = {stock: _best_first(inputs.basis.rack[stock]) for stock in owned}
        for layout in made.layouts if made else ():
            layout_number += 1
            offer = offers[layout.stock]
            offcuts = _offcuts(layout, material.section_of(offer))
            for _ in range(layout.count):
                taken = _take(on_rack[offer.stock], offer, inputs) if offer.owned else None
                section = material.section_of(offer)
                board = Board(
                    plan=plan,
                    rack_board=taken.id if taken else None,
                    rack_number=taken.number if taken else None,
                    number=len(boards) + 1,
                    layout=layout_number,
                    stock=str(offer.stock),
                    thickness=section.thickness if section else None,
                    width=section.width if section else None,
                    length=offer.length,
                    real_length=offer.real_length,
                    price=offer.price,
                    offcuts=offcuts,
                )
                boards.append(board)
                for placed in layout.parts:
                    cut[placed.part] += 1
                    label = f"{inputs.marks[placed.part]}{cut[placed.part]}"
                    pieces.append(
                        Piece(
                            board=board,
                            part=placed.part,
                            label=label,
                            start=placed.start,
                            end=placed.end,
                        )
                    )
    Board.objects.bulk_create(boards)
    Piece.objects.bulk_create(pieces)
