"""The days of a project in the words of the API's contract."""

import re
from collections.abc import Iterator
from datetime import date, timedelta
from typing import Any
from uuid import UUID

from carpentry.hours.durations import write_duration, write_long
from carpentry.language import CarpentryError, Problem, Unit
from carpentry.lumber.cautions import STRENGTH
from carpentry.time import DaysPlan, PlannedStep
from carpentry.time.checks import Answered, Check, answer_check
from carpentry.time.progress import Happened
from carpentry.time.said import (
    clock_said,
    day_said,
    headline,
    line_of,
    moment_said,
    next_said,
    outlook,
    proof_said,
    slowed,
    waiting,
)
from carpentry.time.step import Sort, Step
from carpentry.time.steps_file import needs_of
from carpentry.time.taking import typed_for
from server.common.schemas import ProblemOut, length_out
from server.days.going import ProjectDays, plan_for_days
from server.days.schemas import (
    DayOut,
    DaysOut,
    DrawnShapeOut,
    PieceOut,
    StepCheckOut,
    StepOut,
    WouldDoOut,
)

_DAY = 24 * 60
_SOME = re.compile(r"^\d+ of ")  # of the joints of a line, in one round
_NOTHING = Happened()
_DRAWN = (Sort.GLUE, Sort.JOIN, Sort.ASSEMBLE)


def show_days(
    found: ProjectDays, *, thorough: bool, refused: list[tuple[str, str]] | None = None
) -> DaysOut:
    """The days of a project. ``thorough`` works out all that can be."""
    plan, fault = None, found.fault
    if found.days is not None:
        try:
            plan, thorough = plan_for_days(found.days, thorough=thorough)
        except CarpentryError as error:
            fault = error.problems[0].message
    problems = list(found.all.problems)
    if fault:
        problems.insert(0, Problem("days", fault))
    shared: dict[str, Any] = {
        "project": found.project.id,
        "name": found.project.name,
        "version": found.project.version,
        "zone": found.zone.name,
        "thorough": thorough,
        "problems": [ProblemOut(place=p.place, message=p.message) for p in problems],
        "asks": list(found.all.asks),
        "not_timed": list(found.not_timed),
        "gone": list(found.gone),
        "cautions": [STRENGTH],
        "refused": [ProblemOut(place=id, message=why) for id, why in refused or ()],
    }
    if plan is None:
        return DaysOut(**shared, **_no_plan(found, fault))
    return DaysOut(**shared, **_Drawn(found, plan).shown())


def _no_plan(found: ProjectDays, fault: str) -> dict[str, Any]:
    """Steps without days."""
    empty = "" if found.all.steps else "There are no parts yet, so there is nothing to do"
    return {
        "headline": "These days cannot be planned" if fault else empty,
        "says": fault,
        "is_late": bool(fault),
        **dict.fromkeys(
            ("begin_by", "ready", "late", "proof", "next", "waiting", "clamps", "wanted_says"), ""
        ),
        "exact": False,
        "work": write_duration(sum(step.minutes for step in found.all.steps)),
        "work_done": "",
        "width": 0,
        "now": 0,
        "wanted": None,
        "ready_at": 0,
        "days": [],
        "free": [],
        "would_do": [],
        "steps": [_Bare(found, step).shown() for step in found.all.steps],
    }


class _Bare:
    """A step without its days."""

    def __init__(self, found: ProjectDays, step: Step) -> None:
        self.found, self.step = found, step
        self.so_far = found.happened.get(step.key, _NOTHING)
        self.settings = found.work.settings

    def shown(self, **placed: Any) -> StepOut:
        step = self.step
        drawn = {
            **{"state": "later", "start": 0, "end": 0, "free_from": 0, "spans": [], "when": ""},
            **{"until": "", "slack": "", "critical": False, "late": False},
            "wait": write_long(step.wait.minutes) if step.wait.minutes else "",
        } | placed
        return StepOut(
            key=step.key,
            name=step.name,
            sort=step.sort.value,
            detail=self._detail(),
            work=write_duration(step.minutes),
            wait_says=step.wait_told,
            needs=needs_of(step),
            pieces=list(self._pieces()),
            joints=[self._joint(line) for line in step.joints],
            drawn=list(self._drawn()),
            notes=[*step.notes, *step.asks],
            cautions=list(step.cautions),
            check=self._check(step.check) if step.check else None,
            batch=step.batch,
            made=self.so_far.fact.made,
            again=self._again(),
            last=UUID(self.so_far.last) if self.so_far.last else None,
            typed=line_of(step),
            line=step.line,
            is_own=step.sort in (Sort.OWN, Sort.EARLY) and bool(step.line),
            **drawn,
        )

    def _detail(self) -> str:
        """The words beneath its name."""
        step = self.step
        if step.sort is Sort.GLUE and step.wait_told:
            return step.wait_told
        if step.notes:
            return step.notes[0]
        if step.check:
            return step.check.told(self.settings.notation)
        return step.wait_told

    def _pieces(self) -> Iterator[PieceOut]:
        """Its pieces by letter and number."""
        work, notation = self.found.work, self.settings.notation
        named = {work.marks[one.id]: one.part for one in work.project.parts}
        for mark in self.step.parts:
            size, part = work.joined.get(mark), named.get(mark)
            if size is None or part is None:
                continue
            count = size.pieces * self.settings.copies
            yield PieceOut(
                label=f"{mark}1" if count == 1 else f"{mark}1 to {mark}{count}",
                name=part.name or str(part.stock),
                thickness=length_out(size.thickness, notation) if size.thickness else None,
                width=length_out(size.width, notation) if size.width else None,
                length=length_out(size.length, notation),
            )

    def _joint(self, line: str) -> str:
        """A joint with what holds it."""
        typed = _SOME.sub("", line)
        one = next((o for o in self.found.work.hardware.joints if o.text == typed), None)
        if one is None or not one.fastener:
            return line
        length = ""
        if one.length is not None:
            length = f" {length_out(one.length, self.settings.notation).text}"
        more = "; ".join(("", *one.notes, *one.warnings))
        count = f"{one.count} × " if typed == line else ""
        return f"{line}: {count}{one.fastener}{length}{more}"

    def _drawn(self) -> Iterator[DrawnShapeOut]:
        """The shapes that its parts belong to, where it is put together."""
        if self.step.sort not in _DRAWN:
            return
        for shape in self.found.project.shapes.all():
            if set(shape.placed.letters.values()) & set(self.step.parts):
                yield DrawnShapeOut(id=shape.id, called=shape.called)

    def _again(self) -> str:
        if not self.so_far.changed:
            return ""
        marks = " ".join(self.so_far.changed)
        verb = "has" if len(self.so_far.changed) == 1 else "have"
        return f"{marks} {verb} changed since this was done: it is to do again"

    def _read(self, check: Check, text: str) -> Answered | None:
        """What an answer comes to, ``None`` for one of a check that was another."""
        try:
            return answer_check(check, text, self.settings.unit, self.settings.notation)
        except CarpentryError:
            return None

    def _check(self, check: Check) -> StepCheckOut:
        answer, good, says = "", True, ""
        read = [one for text in self.so_far.answers if (one := self._read(check, text))]
        if self.step.batch > 1 and read:
            off = [f"number {n}: {one.says}" for n, one in enumerate(read, 1) if not one.good]
            answer, good = f"{len(read)} of {self.step.batch}", not off
            says = "; ".join(off)
        elif read:
            answer, good, says = read[-1].text, read[-1].good, read[-1].says
        return StepCheckOut(
            told=check.told(self.settings.notation),
            asks=check.asks,
            is_figure=check.tolerance is not None,
            answer=answer,
            good=good,
            says=says,
        )


class _Drawn:
    """A plan of days as it is drawn and told."""

    def __init__(self, found: ProjectDays, plan: DaysPlan) -> None:
        self.found, self.plan = found, plan
        self.zone, self.now = found.zone, found.now
        self.unit: Unit = found.work.settings.unit
        self.steps = {step.key: step for step in found.all.steps}
        edges = [self.now, *(one.placed.start for one in plan.steps)]
        self.first = self.zone.day(min(edges))
        wanted = plan.days.wanted
        self.last = self.zone.day(max([plan.ready, self.now, *([wanted] if wanted else [])]))
        self.origin = self.zone.midnight(self.first)
        self.lines = found.project.typed_lines()["steps"]

    def shown(self) -> dict[str, Any]:
        plan, wanted = self.plan, self.plan.days.wanted
        end = self.zone.midnight(self.last + timedelta(days=1))
        names = {key: step.name for key, step in self.steps.items()}
        done = sum(one.minutes for one in plan.days.steps if one.ended is not None)
        reasons = [one.told for one in plan.reasons]
        said = [*outlook(plan, self.unit), *slowed(plan, names), *reasons]
        return {
            "headline": headline(plan),
            "says": " ".join(said),
            "is_late": bool(plan.late),
            "begin_by": self._moment(plan.begin_by),
            "ready": self._moment(plan.ready),
            "late": write_long(plan.late) if plan.late else "",
            "exact": plan.exact,
            "proof": proof_said(plan),
            "next": next_said(plan, self.steps, self.unit),
            "work": write_duration(sum(one.minutes for one in plan.days.steps)),
            "work_done": write_duration(done) if done else "",
            "waiting": write_long(waiting(plan)),
            "clamps": self._clamps(),
            "width": end - self.origin,
            "now": self.now - self.origin,
            "wanted": None if wanted is None else wanted - self.origin,
            "wanted_says": "" if wanted is None else self._wanted(wanted),
            "ready_at": plan.ready - self.origin,
            "days": list(self._days()),
            "free": [
                [max(0, start - self.origin), finish - self.origin]
                for start, finish in plan.days.free(self.origin, end - 1)
                if finish > self.origin
            ],
            "steps": [self._step(one) for one in self._in_time()],
            "would_do": [
                WouldDoOut(
                    says=one.says,
                    typed=typed_for(one.take, self.steps, self.lines),
                    ready=self._moment(one.ready),
                    in_time=wanted is not None and one.ready <= wanted,
                )
                for one in plan.would_do
                if one.days.start >= min(self.now, plan.days.start)
            ],
        }

    def _in_time(self) -> list[PlannedStep]:
        """The steps as they come."""
        return sorted(self.plan.steps, key=lambda one: (one.placed.start, one.placed.end))

    def _moment(self, instant: int | None) -> str:
        if instant is None:
            return ""
        return day_said(self.zone, instant, self.now, self.unit)

    def _wanted(self, instant: int) -> str:
        local = self.zone.local(instant)
        if self.zone.midnight(local.date()) == instant:
            return f"wanted {self.zone.local(instant - 1):%a}"
        return f"wanted {local:%a} {clock_said(local, self.unit)}"

    def _days(self) -> Iterator[DayOut]:
        day: date = self.first
        while day <= self.last:
            yield DayOut(at=self.zone.midnight(day) - self.origin, called=f"{day:%a %-d}")
            day += timedelta(days=1)

    def _clamps(self) -> str:
        """How many clamps are free now, where they are counted and needed."""
        owned, used = self.plan.days.clamps, 0
        if not any(one.clamps for one in self.plan.days.steps):
            return ""
        if owned is None:
            most = max(one.clamps for one in self.plan.days.steps)
            return f"{most} at once"
        for one, asked in zip(self.plan.steps, self.plan.days.steps, strict=True):
            held = asked.wait if asked.held is None else asked.held
            if asked.begun is not None or asked.ended is not None:
                until = min(one.placed.free_from, one.placed.end + held.minutes)
                used += asked.clamps if one.placed.start <= self.now < until else 0
        return f"{owned - used} of {owned}"

    def _step(self, one: PlannedStep) -> StepOut:
        placed, step = one.placed, self.steps[one.id]
        wanted = self.plan.days.wanted
        waits = placed.free_from - placed.end
        at_least = "" if self.plan.slack_exact else "at least "
        return _Bare(self.found, step).shown(
            state=self._state(one),
            start=placed.start - self.origin,
            end=placed.end - self.origin,
            free_from=placed.free_from - self.origin,
            spans=[[a - self.origin, b - self.origin] for a, b in one.spans],
            when=moment_said(self.zone, placed.start, self.unit),
            until=moment_said(self.zone, placed.free_from, self.unit),
            wait=write_long(waits) if waits else "",
            slack="" if not one.slack else f"can wait {at_least}{write_long(one.slack)}",
            critical=one.critical,
            late=wanted is not None and placed.free_from > wanted,
        )

    def _state(self, one: PlannedStep) -> str:
        asked = next(step for step in self.plan.days.steps if step.id == one.id)
        if asked.ended is not None:
            return "dry" if one.placed.free_from > self.now else "done"
        if asked.begun is not None:
            return "begun"
        later = [
            other.placed.start
            for other, step in zip(self.plan.steps, self.plan.days.steps, strict=True)
            if step.ended is None and step.begun is None
        ]
        return "next" if one.placed.start == min(later) else "later"
