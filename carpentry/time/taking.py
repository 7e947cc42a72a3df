"""A change that would do, as what is typed of a project."""

from collections.abc import Mapping

from carpentry.hours.windows import read_hours, week_of, write_hours, write_week
from carpentry.language import Json
from carpentry.time.step import Step, key_of


def typed_for(take: Json, steps: Mapping[str, Step], lines: str) -> dict[str, str]:
    """What to type, by field of a project, for a change of its days to be taken; ``lines`` are its
    steps as they are typed. Nothing for what cannot be typed."""
    found: dict[str, str] = {}
    if "off" in take:
        found["days_off"] = ", ".join(take["off"])
    if "more" in take:
        days = (
            f"{day} {' '.join(write_hours(read_hours(one)) for one in hours)}"
            for day, hours in take["more"].items()
        )
        found["days_more"] = ", ".join(days)
    if "windows" in take:
        found["days_hours"] = write_week(week_of(take["windows"]))
    if "clamps" in take:
        found["days_clamps"] = str(take["clamps"])
    if "without" in take:
        told = [f"{_said(steps[key])}, left out" for key in take["without"]]
        found["steps"] = "\n".join([*_kept(lines), *told])
    if "with" in take:
        found["steps"] = "\n".join(_with(take["with"], steps, _kept(lines)))
    return found


def _with(says: str, steps: Mapping[str, Step], lines: list[str]) -> list[str]:
    """Lines by which every step that can be done with something is."""
    for step in steps.values():
        if step.instead is None or step.instead.says != says:
            continue
        if step.line in lines:
            lines[lines.index(step.line)] = f"{step.line}, with {says}"
        elif not step.line:
            lines.append(f"{_said(step)}, with {says}")
    return lines


def _said(step: Step) -> str:
    """The name by which a line means a step."""
    return step.name if key_of(step.name) == step.key else step.key


def _kept(lines: str) -> list[str]:
    return [line.strip() for line in lines.splitlines() if line.strip()]
