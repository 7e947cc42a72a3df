"""Asking for a plan, storing it, and finding the one that belongs to a project's present state."""

import logging
import uuid
from collections.abc import Sequence
from dataclasses import asdict
from time import monotonic

from django.conf import settings as django_settings
from django.db import transaction

from carpentry.language import Json
from carpentry.planning import (
    MADE_BY,
    NumberedBoard,
    Replanned,
    Workup,
    numbered_boards,
    settled_among,
)
from carpentry.planning import replan as what_to_plan
from server.plans.models import Board, Piece, Plan, PlanOfVersion
from server.plans.solver import Job, solver
from server.projects.models import Project

logger = logging.getLogger(__name__)
KEPT_DRAFTS = 60
_KNOWN_PLANS, _READ_PLANS = 12, 2  # where proven plans are looked for, and taken from
_FIRST_PLAN, _MOMENT = 20.0, 0.02  # seconds, where other plans are in the way
AT_THE_DESK = (Plan.Stage.DRAFT, Plan.Stage.CUT)  # the others are those of trips
UNDER_WAY = (Plan.Status.QUEUED, Plan.Status.RUNNING)


def find_plan(project: Project, work: Workup) -> Plan | None:
    """The plan of a project's present state that is made or under way; changes nothing."""
    plans = project.plans.filter(digest=work.digest, stage__in=AT_THE_DESK)
    plans = plans.exclude(stage=Plan.Stage.DRAFT, made_by__lt=MADE_BY)  # or cut, and taken back
    plan = plans.exclude(status=Plan.Status.FAILED).first()
    if plan and plan.status in UNDER_WAY and solver.job(plan.id) is None:
        wait_for(plan, 0)  # just stored by another thread, outdated, or left by an ended server
        return plan if plan.status in (Plan.Status.DONE, Plan.Status.STOPPED) else None
    return plan


def plan_for(project: Project, work: Workup) -> Plan:
    """The plan of the project's present state: one already made or under way, else a new one.

    A small one is done when this returns; a larger one goes on beside the server.
    """
    plan = find_plan(project, work)
    wanted = _what_to_plan(project, work) if plan is None else None
    job = None
    with transaction.atomic():  # nobody else writes meanwhile: it is asked for once
        plan = plan or find_plan(project, work)
        if plan is None and wanted:
            project.plans.filter(digest=work.digest, status__in=UNDER_WAY).update(
                status=Plan.Status.FAILED
            )
            plan = Plan(project=project, digest=work.digest, problems=list(wanted.digests))
            job = solver.submit(
                plan.id,
                project.id,
                wanted.open,
                wanted.near,
                owner=project.owner_id,
                whole=wanted.whole,
            )
            plan.save(force_insert=True)
        PlanOfVersion.objects.update_or_create(
            project=project,
            number=project.version,
            defaults={"plan": plan, "beside": asdict(work.beside)},
        )
    if job and wanted and plan:
        _await(plan, work, wanted, job)
    return plan


def plan_again(project: Project, work: Workup) -> Plan:
    """The plan of the project's present state; one that was stopped is taken up again."""
    project.plans.filter(digest=work.digest, status=Plan.Status.STOPPED).delete()
    return plan_for(project, work)


def _what_to_plan(project: Project, work: Workup) -> Replanned:
    """What has to be planned: not what an earlier plan of the project proved."""
    asked = set(what_to_plan(work, {}, []).digests)
    recent = project.plans.filter(status=Plan.Status.DONE).values_list("id", "problems")
    knowing = [id_ for id_, digests in recent[:_KNOWN_PLANS] if asked & set(digests)]
    known = {
        digest: plan
        for one in project.plans.filter(id__in=knowing[:_READ_PLANS])
        for digest, plan in settled_among(one.problems, one.outcome)
    }
    before = plan_in_force(project)
    return what_to_plan(work, known, before.outcome if before else [])


def plan_in_force(project: Project) -> Plan | None:
    """The plan that a new one takes the place of: that of this state with other prices or boards on
    hand, else that of the state before it."""
    versions = project.planned_versions.filter(
        number__in=(project.version, project.version - 1), plan__status=Plan.Status.DONE
    )
    newest = versions.select_related("plan").order_by("-number").first()
    return newest.plan if newest else None


def version_before(project: Project) -> PlanOfVersion | None:
    """The version before this one with its plan, when that is done."""
    versions = project.planned_versions.filter(
        number=project.version - 1, plan__status=Plan.Status.DONE
    )
    return versions.select_related("plan").first()


def settled_plan(project: Project, work: Workup, seconds: float) -> list[Json]:
    """The plan of a project's present state as documents: the one that is made or, waited for so
    many seconds, under way; else one made for this answer, which is not kept."""
    plan = find_plan(project, work)
    job = plan and solver.job(plan.id)
    if plan:
        wait_for(plan, seconds)
    known = plan.outcome if plan else []
    if not known and job:
        known = job.whole(job.plans)
    return known or planned_aside(work, project, "settled", seconds)


def wait_for(plan: Plan, seconds: float) -> None:
    """Waits until a plan under way is stored, so many seconds at the most."""
    job = solver.job(plan.id)
    if job:
        job.settled.wait(seconds)
    if plan.status in UNDER_WAY:
        try:
            plan.refresh_from_db()  # stored by another thread, perhaps before it was looked for
        except Plan.DoesNotExist:  # outdated
            plan.status = Plan.Status.FAILED


def planned_aside(
    work: Workup,
    project: Project,
    what: str,
    seconds: float,
    wanted: Replanned | None = None,
) -> list[Json]:
    """Plans for one answer, not stored: the best that are found within so many seconds. ``what``
    says what they are for; older ones of the same project for the same are stopped. All problems
    are planned, or what is ``wanted``. A first plan is waited for longer, on a busy machine; empty
    where there is none."""
    asked = wanted or what_to_plan(work, {}, [])
    if not asked.open:
        return asked.whole([])
    subject = uuid.uuid5(project.id, what)
    job = solver.submit(
        uuid.uuid4(), subject, asked.open, asked.near, seconds, owner=project.owner_id
    )
    deadline = monotonic() + seconds + _FIRST_PLAN
    job.finished.wait(seconds)
    while not job.plans and not job.finished.wait(_MOMENT) and monotonic() < deadline:
        pass
    plans = job.plans
    solver.stop(job.key)
    solver.forget(job)
    return asked.whole(plans)


def _await(plan: Plan, work: Workup, wanted: Replanned, job: Job) -> None:
    """Waits a moment for a plan; one that takes longer is stored when it comes."""

    def store(finished: Job) -> None:
        try:
            _store(plan, work, wanted, finished)
        finally:
            solver.forget(finished)

    Plan.objects.filter(id=plan.id).update(status=Plan.Status.RUNNING)
    plan.status = Plan.Status.RUNNING
    if job.wait(django_settings.ANSWER_WITHIN_SECONDS, store):
        store(job)


def _store(plan: Plan, work: Workup, wanted: Replanned, job: Job) -> None:
    """Writes what a job came to, checked once more, as boards and pieces with lasting ids; nothing
    of one that was outdated before it came to anything."""
    if job.outdated:
        Plan.objects.filter(id=plan.id).delete()
        return
    plan.seconds = round(job.elapsed, 3)
    outcome = wanted.whole(job.plans)
    if job.failed or len(outcome) != len(wanted.problems):
        plan.status = Plan.Status.STOPPED if job.stopped else Plan.Status.FAILED
        Plan.objects.filter(id=plan.id).update(status=plan.status, seconds=plan.seconds)
        return
    plan.status = Plan.Status.STOPPED if job.stopped else Plan.Status.DONE
    work.check(outcome)
    checked = work.with_proofs_checked(outcome)
    if checked != outcome:
        logger.error("a proof was refused")
    outcome = checked
    plans = work.plans(outcome)
    found = work.tally(plans)
    totals = found.totals
    plan.outcome = outcome
    plan.boards_count = totals.boards
    plan.subtotal = totals.subtotal
    plan.unplaced_count = totals.unplaced
    plan.proven = found.claim.proven
    boards, pieces = _rows(plan, numbered_boards(work, plans))
    with transaction.atomic():  # nothing is reckoned while nobody else can write
        if not Plan.objects.filter(id=plan.id).exists():
            return
        plan.save()
        Board.objects.bulk_create(boards)
        Piece.objects.bulk_create(pieces)
        stale = plan.project.plans.filter(stage=Plan.Stage.DRAFT).values_list("id", flat=True)
        Plan.objects.filter(id__in=list(stale[KEPT_DRAFTS:])).delete()


def _rows(plan: Plan, numbered: Sequence[NumberedBoard]) -> tuple[list[Board], list[Piece]]:
    """Boards and pieces of a plan, not stored."""
    boards: list[Board] = []
    pieces: list[Piece] = []
    for one in numbered:
        board = Board(
            plan=plan,
            rack_board=one.taken.id if one.taken else None,
            rack_number=one.taken.number if one.taken else None,
            number=one.number,
            layout=one.layout,
            stock=str(one.offer.stock),
            thickness=one.section.thickness if one.section else None,
            width=one.section.width if one.section else None,
            length=one.offer.length,
            real_length=one.offer.real_length,
            price=one.offer.price,
            offcuts=[
                {
                    "length": offcut.length,
                    "thickness": offcut.section.thickness if offcut.section else None,
                    "width": offcut.section.width if offcut.section else None,
                }
                for offcut in one.offcuts
            ],
        )
        boards.append(board)
        pieces += [
            Piece(board=board, part=p.part, label=p.label, start=p.start, end=p.end)
            for p in one.pieces
        ]
    return boards, pieces
