"""The steps and days of a whole project as JSON."""

from collections.abc import Sequence
from datetime import UTC, datetime

from carpentry.cutting import CutPlan
from carpentry.hours.clock import FIRST_YEAR, Zone, instant_of
from carpentry.hours.durations import write_duration
from carpentry.language import CarpentryError, Json, Notation
from carpentry.planning import Workup
from carpentry.project import ProjectFile
from carpentry.shop import Tools, boards_to_cut, every_cut, starter_tools, stop_by_stop
from carpentry.time.days_file import days_document
from carpentry.time.plan import plan_of_days
from carpentry.time.project_days import DaysLines, Wood, clamps_of, days_of, steps_of
from carpentry.time.step import Step

_NO_DAY = Zone("UTC")
_NEVER = instant_of(datetime(FIRST_YEAR, 1, 3, tzinfo=UTC))


def days_of_build(
    project: ProjectFile,
    work: Workup,
    plans: Sequence[CutPlan | None],
    tools: Tools | None = None,
) -> Json:
    """The steps of a project, and where it says when it is begun its plan of days; nothing is
    compared with today."""
    boards = boards_to_cut(work, plans)
    owned = starter_tools() if tools is None else tools
    set_ups = stop_by_stop(every_cut(boards, owned), owned)
    lines = DaysLines(project.steps, project.products, project.weather, project.work)
    wood = Wood(_shapes(project), set_ups if boards else None, owned.clamps if tools else None)
    found = steps_of(work, lines, wood)
    notation = work.settings.notation
    return {
        "steps": [step_document(one, notation) for one in found.steps],
        "steps_problems": [str(problem) for problem in found.problems],
        "days": _days(project, found.steps, work, clamps_of(work.settings, wood)),
    }


def _shapes(project: ProjectFile) -> dict[str, str]:
    """What shape wrote each part, by its mark."""
    return {
        mark: one.placed.shape for one in project.shapes for mark in one.placed.letters.values()
    }


def _days(
    project: ProjectFile, steps: Sequence[Step], work: Workup, clamps: int | None
) -> Json | None:
    asked = work.settings.days
    if asked.begin is None or not steps:
        return None
    zone = asked.zone or _NO_DAY
    try:
        days = days_of(steps, work.settings, project.weather, (_NEVER, zone), clamps=clamps)
        return days_document(plan_of_days(days, 3))
    except CarpentryError as error:
        return {"problems": [str(problem) for problem in error.problems]}


def step_document(step: Step, notation: Notation) -> Json:
    """A step as JSON: what it is, how long, what it waits for and needs."""
    return {
        "id": step.key,
        "name": step.name,
        "sort": step.sort.value,
        "minutes": step.minutes,
        "after": list(step.after),
        "wait": write_duration(step.wait.minutes),
        "wait_says": step.wait_told,
        "slower_when_humid": step.wait.slow > step.wait.minutes,
        "stay": step.stays,
        "clamps": step.clamps,
        "needs": list(needs_of(step)),
        "may_be_split": step.may_split,
        "check": step.check.told(notation) if step.check else None,
        "parts": list(step.parts),
        "joints": list(step.joints),
        "notes": [*step.notes, *step.asks],
        "cautions": list(step.cautions),
    }


def needs_of(step: Step) -> list[str]:
    """What a step needs, in words."""
    needs = [f"{step.clamps} clamps"] if step.clamps else []
    needs += ["a helper"] if step.helper else []
    needs += ["daylight"] if step.daylight else []
    needs += ["dry weather"] if step.dry else []
    if step.least is not None:
        fahrenheit = float(step.least) * 9 / 5 + 32
        needs.append(f"{fahrenheit:.0f} °F ({float(step.least):.0f} °C) or more")
    return needs
