"""Asking for a plan, storing it, and finding the one that belongs to a project's present state."""

import hashlib
import json
from collections import Counter
from dataclasses import dataclass
from decimal import Decimal
from threading import Lock

from django.conf import settings as django_settings
from django.db import transaction

from carpentry.buying import Tax
from carpentry.cutting import CutPlan, check_plan, problem_document, read_plan
from carpentry.project import Material, Settings, Tally, gather_materials, tally
from carpentry.sizes import StockName
from server.plans.models import Board, Piece, Plan
from server.plans.solver import Job, solver
from server.projects.models import Project, ProjectRevision
from server.rack.models import Rack, RackBoard, lengths_of

KEPT_DRAFTS = 60
UNDER_WAY = (Plan.Status.QUEUED, Plan.Status.RUNNING)
_one_at_a_time = Lock()
NO_TAX = Tax(Decimal(0), included=False)


@dataclass(frozen=True)
class Inputs:
    """What a plan is made from: a project's settings and materials as they are now."""

    settings: Settings
    materials: list[Material]
    marks: dict[str, str]
    tax: Tax
    currency: str
    source: str
    rack: dict[StockName, list[RackBoard]]

    def problems(self) -> list[dict[str, object] | None]:
        """The cut problem of each material, ``None`` where there is nothing to plan yet."""
        found = (material.problem(self.settings) for material in self.materials)
        return [problem_document(problem) if problem else None for problem in found]

    def digest(self) -> str:
        """A digest of everything a plan depends on."""
        stated = [
            [
                str(m.stock),
                repr(m.section),
                m.priced,
                [[o.id, str(o.price), o.available] for o in m.offers],
                [str(board.id) for board in self.rack.get(m.stock, [])],
                problem,
            ]
            for m, problem in zip(self.materials, self.problems(), strict=True)
        ]
        return hashlib.sha256(json.dumps(stated, sort_keys=True).encode()).hexdigest()

    def plans(self, documents: list[dict[str, object]]) -> list[CutPlan | None]:
        """The plan of each material from documents, one per cut problem."""
        left = iter(documents)
        plans: list[CutPlan | None] = []
        for problem in self.problems():
            document = next(left, None) if problem else None
            plans.append(read_plan(document, self.settings.unit) if document else None)
        return plans

    def tally(self, plans: list[CutPlan | None]) -> Tally:
        pairs = list(zip(self.materials, plans, strict=True))
        return tally(pairs, self.settings, self.tax, self.currency, self.source)


def inputs_of(project: Project) -> Inputs:
    """What a plan of this project would be made from now."""
    settings = project.settings()
    named = project.named_parts()
    yard = project.yard
    lines = []
    if yard:
        wanted = {str(one.part.stock) for one in named}
        lines = [line.read() for line in yard.lines.filter(stock_key__in=wanted)]
    rack = Rack.of(project.owner).usable() if project.use_rack else {}
    return Inputs(
        settings=settings,
        rack=rack,
        materials=gather_materials(
            named,
            lines,
            settings,
            whole_inches=bool(yard and yard.whole_inches),
            owned=lengths_of(rack),
        ),
        marks={str(id_): mark for id_, mark in project.parts.values_list("id", "mark")},
        tax=yard.tax if yard else NO_TAX,
        currency=yard.currency if yard else "USD",
        source=yard.name if yard else "standard lengths",
    )


def plan_for(project: Project, inputs: Inputs) -> Plan:
    """The plan of the project's present state: one already made or under way, else a new one.

    A small one is done when this returns; a larger one goes on beside the server.
    """
    digest = inputs.digest()
    with _one_at_a_time:
        plan = project.plans.filter(digest=digest).exclude(status=Plan.Status.FAILED).first()
        if plan and plan.status in UNDER_WAY and solver.job(plan.id) is None:
            plan = _orphaned(plan)
        job = None
        if plan is None:
            plan = Plan.objects.create(project=project, digest=digest)
            job = solver.submit(plan.id, project.id, [p for p in inputs.problems() if p])
    if job:
        _await(plan, inputs, job)
    ProjectRevision.objects.filter(subject=project, number=project.version).update(plan=plan)
    return plan


def _orphaned(plan: Plan) -> Plan | None:
    """A plan under way without a job: just stored by another thread, or left by an ended server."""
    plan.refresh_from_db()
    if plan.status not in UNDER_WAY:
        return plan
    Plan.objects.filter(id=plan.id).update(status=Plan.Status.FAILED)
    return None


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
    problems = [p for p in (m.problem(inputs.settings) for m in inputs.materials) if p]
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


def _take(on_rack: list[RackBoard], length: int) -> RackBoard:
    """The first board of a length that is still on the rack for this plan."""
    board = next(board for board in on_rack if board.length_ticks == length)
    on_rack.remove(board)
    return board


def _write_boards(plan: Plan, inputs: Inputs, plans: list[CutPlan | None]) -> None:
    boards: list[Board] = []
    pieces: list[Piece] = []
    layout_number = 0
    cut: Counter[str] = Counter()
    for material, made in zip(inputs.materials, plans, strict=True):
        offers = {offer.id: offer for offer in material.offers}
        on_rack = list(inputs.rack.get(material.stock, []))
        for layout in made.layouts if made else ():
            layout_number += 1
            offer = offers[layout.stock]
            rest = layout.leftover[0] if layout.leftover else None
            for _ in range(layout.count):
                taken = _take(on_rack, offer.length) if offer.owned else None
                board = Board(
                    plan=plan,
                    rack_board=taken.id if taken else None,
                    rack_number=taken.number if taken else None,
                    number=len(boards) + 1,
                    layout=layout_number,
                    stock=str(material.stock),
                    thickness=material.section.thickness if material.section else None,
                    width=material.section.width if material.section else None,
                    length=offer.length,
                    real_length=offer.real_length,
                    price=offer.price,
                    leftover_start=rest.start if rest else None,
                    leftover_end=rest.end if rest else None,
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
