"""The days of a project: its steps, when there is time for them, and what happened so far."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace

from carpentry.buying.coating import read_coat
from carpentry.buying.joints import Joint, read_each_line, read_joint
from carpentry.buying.products import read_product
from carpentry.design import Part
from carpentry.hours.clock import Zone
from carpentry.hours.weather_lines import forecast_of, read_weather
from carpentry.language import CarpentryError, Problem
from carpentry.planning import Workup
from carpentry.project import Fastened, Settings
from carpentry.shop import Sequenced
from carpentry.time.all_steps import AllSteps, all_steps, within_hours
from carpentry.time.asked import MOST_STEPS, Days
from carpentry.time.made_steps import made_steps
from carpentry.time.maker import MadeOf
from carpentry.time.step import Step
from carpentry.time.step_lines import read_step


@dataclass(frozen=True)
class DaysLines:
    """Steps, labels of products, the weather and work on parts as they are typed, a line each."""

    steps: str = ""
    products: str = ""
    weather: str = ""
    work: str = ""


@dataclass(frozen=True)
class Fact:
    """What happened of a step: when it was begun and done, and when its wait was over (instants)
    where the builder said so; how many of its batch are ``made``."""

    begun: int | None = None
    ended: int | None = None
    over: int | None = None
    made: int = 0


@dataclass(frozen=True)
class Wood:
    """What only the desk and the shop know of a project: the shape that wrote each part (by mark),
    the set-ups that cut it, where it is planned, and the clamps of the workshop (``None``: nothing
    is said of them)."""

    shapes: Mapping[str, str] = field(default_factory=dict)
    set_ups: Sequenced | None = None
    clamps: int | None = None


def steps_of(work: Workup, lines: DaysLines, wood: Wood | None = None) -> AllSteps:
    """The steps of a project, and what is wrong with the lines of its days."""
    known = wood or Wood()
    sheet, settings = work.project.sheet, work.settings
    products, bad_products = read_each_line(lines.products, read_product)
    typed, bad_steps = read_each_line(lines.steps, lambda line: read_step(line, settings.unit))
    _, bad_weather = read_each_line(lines.weather, read_weather)
    finishes, _ = read_each_line(work.project.finishes, lambda line: read_coat(sheet.inline(line)))
    named = {work.marks[one.id]: one.part for one in work.project.parts}
    made = made_steps(
        MadeOf(
            parts=work.joined,
            groups={mark: part.fields.group.strip() for mark, part in named.items()},
            stocks={mark: str(part.stock) for mark, part in named.items()},
            held=frozenset(mark for mark, part in named.items() if part.is_held),
            joints=list(_joints(work)),
            finishes=finishes,
            set_ups=known.set_ups,
            products=products,
            clamps=clamps_of(settings, known),
            pace=settings.days.pace,
            copies=settings.copies,
            shapes=known.shapes,
            worked=_worked(work, lines.work),
        )
    )
    found = all_steps(made, typed, products, _things(named))
    told = {"products": bad_products, "steps": bad_steps, "weather": bad_weather}
    problems = [Problem(f"{kind}, {p.place}", p.message) for kind, bad in told.items() for p in bad]
    problems += [Problem(f"steps, {p.place}", p.message) for p in found.problems]
    steps = tuple(within_hours(found.steps, settings.days.hours.longest))
    return AllSteps(steps, tuple(problems))


def _worked(work: Workup, typed: str) -> dict[str, int]:
    """How many places are worked on each part: lines of work, notches and clipped corners."""
    lines = [line.split() for line in typed.splitlines()]
    found = {work.marks[one.id]: len(one.part.shaping_told()) for one in work.project.parts}
    for words in filter(None, lines):
        if words[0] in found:
            found[words[0]] += 1
    return found


def clamps_of(settings: Settings, wood: Wood) -> int | None:
    """The clamps that are owned: those that the project says, else those of the workshop."""
    return wood.clamps if settings.days.clamps is None else settings.days.clamps


def _things(parts: Mapping[str, Part]) -> dict[str, list[str]]:
    """The marks of parts by the names of the parts and of their groups."""
    found: dict[str, list[str]] = {}
    for mark, part in parts.items():
        for name in (part.fields.group, part.name):
            found.setdefault(" ".join(name.lower().split()), []).append(mark)
    return found


def _joints(work: Workup) -> Iterable[tuple[Joint, Fastened]]:
    sheet, unit = work.project.sheet, work.settings.unit
    joints, _ = read_each_line(
        work.project.joints, lambda line: read_joint(sheet.inline(line), unit=unit)
    )
    return zip(joints, work.hardware.joints, strict=True)


def days_of(
    steps: Sequence[Step],
    settings: Settings,
    weather: str,
    now: tuple[int, Zone],
    facts: Mapping[str, Fact] | None = None,
    *,
    clamps: int | None = None,
) -> Days:
    """Steps as days to plan, from ``now`` (an instant, and where the builder's clock hangs unless
    the project says so) on, or from when they are not begun before; with so many ``clamps`` where
    the workshop is known.
    Raises ``CarpentryError`` for times that cannot be."""
    if len(steps) > MOST_STEPS:
        raise CarpentryError(
            f"{len(steps):,} steps are more than {MOST_STEPS}, the most that are planned: put "
            "parts into fewer groups"
        )
    asked = settings.days
    zone, start = asked.zone or now[1], now[0]
    if asked.begin is not None and not facts:
        start = max(start, zone.instant(asked.begin))
    told, _ = read_each_line(weather, read_weather)
    timed = []
    for step in steps:
        fact = (facts or {}).get(step.key, Fact())
        one = replace(step.timed(), begun=fact.begun, ended=fact.ended, over=fact.over)
        if fact.made and fact.ended is None:
            left = max(0, step.batch - fact.made)
            one = replace(one, minutes=-(-one.minutes * left // step.batch))
        timed.append(one)
    return Days(
        zone,
        start,
        tuple(timed),
        asked.hours,
        wanted=None if asked.wanted is None else zone.instant(asked.wanted),
        helper=asked.helper,
        daylight=asked.daylight,
        forecast=forecast_of(told),
        clamps=asked.clamps if clamps is None else clamps,
    )
