"""A project's days as they are asked for: its steps, what happened of them, and the plan."""

import uuid
from collections import Counter, OrderedDict
from collections.abc import Hashable, Iterable, Mapping
from contextlib import suppress
from dataclasses import asdict, dataclass, replace
from datetime import datetime, timedelta
from threading import BoundedSemaphore, Lock
from typing import Generic, TypeVar

from django.db import transaction
from django.utils import timezone

from carpentry.hours.clock import Zone, instant_of, read_zone
from carpentry.language import CarpentryError
from carpentry.planning import Workup
from carpentry.shop import Sequenced, boards_to_cut, every_cut, not_yet, stop_by_stop
from carpentry.time import Days, DaysPlan, first_plan_of_days, plan_of_days
from carpentry.time.all_steps import AllSteps
from carpentry.time.checks import answer_check, answer_spelled_out
from carpentry.time.progress import (
    Happened,
    ProgressEvent,
    ProgressKind,
    happened,
    read_when,
    undo_fault,
)
from carpentry.time.project_days import DaysLines, Fact, Wood, clamps_of, days_of, steps_of
from carpentry.time.step import Sort, Step
from server.days.models import Progress, StepEvent
from server.plans.making import find_plan
from server.plans.models import Plan
from server.plans.resting import work_up
from server.plans.state import state_of_project
from server.projects.models import Project
from server.shop.going import cutting_of, put_away
from server.shop.models import Cutting
from server.tools.models import Toolbox

SECONDS = 2.5  # for a whole plan of days
MOST_EVENTS = 10_000
_AHEAD = timedelta(minutes=5)  # a clock may be before ours
_REMEMBERED = 64


@dataclass(frozen=True)
class ProjectDays:
    """The steps of a project, what happened of each, and the days to plan; ``days`` is ``None``
    where there is nothing to do or it cannot be planned, which ``fault`` says. ``gone`` are those
    of which something happened and that are not there any more."""

    project: Project
    work: Workup
    zone: Zone
    now: int
    all: AllSteps
    happened: Mapping[str, Happened]
    days: Days | None
    fault: str
    not_timed: tuple[str, ...]
    gone: tuple[str, ...]


Known = TypeVar("Known")


class _Remembered(Generic[Known]):
    """The last few answers, by what they depend on."""

    def __init__(self) -> None:
        self._known: OrderedDict[Hashable, Known] = OrderedDict()
        self._lock = Lock()

    def get(self, key: Hashable) -> Known | None:
        with self._lock:
            return self._known.get(key)

    def keep(self, key: Hashable, answer: Known) -> None:
        with self._lock:
            self._known[key] = answer
            while len(self._known) > _REMEMBERED:
                self._known.popitem(last=False)


_set_ups: _Remembered[Sequenced | None] = _Remembered()
_plans: _Remembered[DaysPlan] = _Remembered()
_may_work = BoundedSemaphore(2)


def zone_of(text: str) -> Zone:
    """The zone that a screen tells; that of the server where nobody knows it."""
    with suppress(CarpentryError):
        return read_zone(text)
    return Zone(timezone.get_default_timezone_name())


def project_days(project: Project, zone: Zone, now: datetime | None = None) -> ProjectDays:
    """The days of a project as they are now."""
    work = work_up(project)
    settings = project.settings()
    zone = settings.days.zone or zone
    moment = instant_of(now or timezone.now())
    typed = project.typed_lines()
    lines = DaysLines(typed["steps"], typed["products"], typed["weather"], typed["work"])
    owned = Toolbox.of(project.owner).owned
    wood = Wood(_shapes(project), _set_ups_of(project, work), owned.clamps)
    found = steps_of(work, lines, wood)
    known = happened(_events(project), {s.key: _about(s, work) for s in found.steps})
    known = _cut_at_the_shop(project, work, found, known)
    found = found.without_hidden(
        {key for key, one in known.items() if one.fact.begun or one.fact.ended}
    )
    days, fault = None, ""
    if found.steps:
        facts = {key: one.fact for key, one in known.items()}
        try:
            days = days_of(
                found.steps,
                settings,
                lines.weather,
                (moment, zone),
                facts,
                clamps=clamps_of(settings, wood),
            )
            days.check()
        except CarpentryError as error:
            days, fault = None, error.problems[0].message
    not_timed = tuple(not_yet(work, typed["work"].splitlines()))
    there = {step.key for step in found.steps}
    gone = tuple(key for key, one in known.items() if key not in there and one.fact != Fact())
    return ProjectDays(project, work, zone, moment, found, known, days, fault, not_timed, gone)


def plan_for_days(days: Days, *, thorough: bool) -> tuple[DaysPlan, bool]:
    """The plan of days, and whether it is worked out: where that is asked for and not too much is
    worked out already, else at once and as good as it comes. Raises ``CarpentryError``."""
    key = repr(days)
    known = _plans.get(key)
    if known is None and thorough and _may_work.acquire(blocking=False):
        try:
            known = plan_of_days(days, SECONDS)
        finally:
            _may_work.release()
        _plans.keep(key, known)
    return known or first_plan_of_days(days), known is not None


def _shapes(project: Project) -> dict[str, str]:
    """What shape wrote each part, by its mark."""
    return {mark: row.shape for row in project.shapes.all() for mark in row.placed.letters.values()}


def _set_ups_of(project: Project, work: Workup) -> Sequenced | None:
    """The set-ups that cut a project as it is planned now, ``None`` where it is not planned."""
    plan = find_plan(project, work)
    if plan is None or not plan.outcome:
        return None
    key = (plan.id, plan.stage, state_of_project(project))
    known = _set_ups.get(key)
    if known is None:
        tools = Toolbox.of(project.owner).owned
        boards = boards_to_cut(work, work.plans(plan.outcome))
        known = stop_by_stop(every_cut(boards, tools), tools)
        _set_ups.keep(key, known)
    return known


def _about(step: Step, work: Workup) -> dict[str, str]:
    """How the parts of a step are, by their marks."""
    stocks = {work.marks[one.id]: str(one.part.stock) for one in work.project.parts}
    found = {}
    for mark in step.parts:
        part = work.joined.get(mark)
        if part:
            size = f"{part.thickness}x{part.width}x{part.length}"
            pieces = part.pieces * work.settings.copies
            found[mark] = f"{pieces} {stocks[mark]} {size}"
    return found


def _events(project: Project) -> list[ProgressEvent]:
    progress = Progress.objects.filter(project=project).first()
    return progress.happened() if progress else []


def _cut_at_the_shop(
    project: Project, work: Workup, found: AllSteps, known: dict[str, Happened]
) -> dict[str, Happened]:
    """What is all cut at the shop, or marked as cut at the desk, is done, unless something else was
    said of it."""
    fact = _cut_at(project, work)
    if fact is None:
        return known
    cut = {s.key: Happened(fact) for s in found.steps if s.sort is Sort.CUT}
    return cut | known


def _cut_at(project: Project, work: Workup) -> Fact | None:
    """When all of it was cut, ``None`` where it is not."""
    last = put_away(project) if project.cuttings.exists() else None
    if last is not None and last.finished is not None:
        return Fact(instant_of(last.begun), instant_of(last.finished))
    going = cutting_of(project)
    if going is not None and _is_all_cut(going, work):
        last_cut = going.events.order_by("-number").values_list("made", flat=True).first()
        return Fact(instant_of(going.begun), instant_of(last_cut or going.begun))
    plan = find_plan(project, work)
    if plan is None or plan.stage != Plan.Stage.CUT:
        return None
    planned = instant_of(plan.asked)  # when it was marked is not written down; nothing waits for it
    return Fact(planned, planned)


def _is_all_cut(cutting: Cutting, work: Workup) -> bool:
    """Whether every piece of the project as it is now has come off at the saw."""
    bench = cutting.bench()
    cut = Counter(label.rstrip("0123456789") for _, label, _ in bench.parts_cut())
    needed = {
        mark: part.pieces * work.settings.copies
        for mark, part in work.joined.items()
        if mark not in {work.marks[one.id] for one in work.project.parts if one.part.is_held}
    }
    return not bench.cuts_left() and all(cut[mark] >= count for mark, count in needed.items())


@transaction.atomic
def take_events(
    project: Project, zone: Zone, events: Iterable[ProgressEvent]
) -> list[tuple[str, str]]:
    """Takes in what happened, each event once. Returns those that could not be, by id, and why."""
    progress, _ = Progress.objects.get_or_create(project=project)
    days = project_days(project, zone)
    steps = {step.key: step for step in days.all.steps}
    refused = []
    for event in events:
        try:
            with transaction.atomic():
                _take_in(progress, days, steps, event)
        except CarpentryError as error:
            refused.append((event.id, error.problems[0].message))
    return refused


def _take_in(
    progress: Progress, days: ProjectDays, steps: Mapping[str, Step], event: ProgressEvent
) -> None:
    if StepEvent.objects.filter(id=event.id).exists():
        return
    if progress.events.count() >= MOST_EVENTS:
        raise CarpentryError("too much happened here: nothing more is kept")
    about: Mapping[str, str] = {}
    unit = days.work.settings.unit
    if event.kind is ProgressKind.UNDONE:
        fault = undo_fault(progress.happened(), event.undoes)
        if fault:
            raise CarpentryError(fault, "undoes")
    else:
        step = steps.get(event.step)
        if step is None:
            raise CarpentryError("this step is not there any more", "step")
        if event.kind is ProgressKind.CHECKED:
            _check(step, event, days)
        elif event.kind is ProgressKind.MADE:
            _check_made(step, event)
        else:
            _check_time(event)
        if event.kind is ProgressKind.DONE:
            about = _about(step, days.work)
    if event.kind is ProgressKind.CHECKED:
        event = replace(event, answer=answer_spelled_out(event.answer, unit))
    typed = {n: v for n, v in asdict(event).items() if n not in ("id", "kind", "about") and v}
    typed |= {"about": dict(about)} if about else {}
    StepEvent.take(progress, uuid.UUID(event.id), event.kind.value, typed)


def _check(step: Step, event: ProgressEvent, days: ProjectDays) -> None:
    if step.check is None:
        raise CarpentryError("there is nothing to check at this step", "step")
    settings = days.work.settings
    answer_check(step.check, event.answer, settings.unit, settings.notation)


def _check_made(step: Step, event: ProgressEvent) -> None:
    if step.batch == 1:
        raise CarpentryError("only one of it is made: press Done", "answer")
    if not event.answer.isdecimal() or not 0 < int(event.answer) < step.batch:
        raise CarpentryError(f"from 1 to {step.batch - 1}; when all are made it is done", "answer")
    _check_time(event)


def _check_time(event: ProgressEvent) -> None:
    moment = read_when(event.at)
    if moment > timezone.now() + _AHEAD:
        raise CarpentryError("that is still to come", "at")
    if moment < timezone.now() - timedelta(days=3650):
        raise CarpentryError("that is over ten years ago", "at")
