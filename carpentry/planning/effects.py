"""Which parts a corrected size would change, told before it is applied."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass

from carpentry.design import Part, Sheet, not_planned_yet
from carpentry.lumber import Section
from carpentry.lumber.rack import MeasuredBoard


@dataclass(frozen=True)
class Touched:
    """A part that a corrected size may change, so many ``pieces`` of it, in a project where parts
    may be ripped or not."""

    mark: str
    part: Part
    pieces: int
    rip: bool


@dataclass(frozen=True)
class Effect:
    """What becomes of a part: its finished section ``before`` and ``after``, and ``why`` it would
    not be planned as before, empty where it would."""

    of: Touched
    before: Section | None
    after: Section | None
    why: str = ""


def effects_of_section(
    parts: Iterable[Touched], before: Section, after: Section
) -> Iterator[Effect]:
    """The parts that change where their stock measures ``after`` instead of ``before``."""
    for one in parts:
        was, now = (
            "" if one.part.may_be_sawn(one.rip) else not_planned_yet(one.part, section) or ""
            for section in (before, after)
        )
        sections = one.part.finished_section(before), one.part.finished_section(after)
        if sections[0] != sections[1] or was != now:
            yield Effect(one, *sections, now)


def effects_that_follow(now: Sheet, then: Sheet, written: Callable[[int], str]) -> Iterator[Effect]:
    """The parts of a project that follow a corrected size with their own: ``written`` writes a
    length in ticks."""
    for mark in now.typed.parts:
        was, will_be = now.part(mark), then.part(mark)
        why = will_be.fault if will_be.fault != was.fault else ""
        if not why and will_be.length != was.length:
            lengths = written(was.length.ticks), written(will_be.length.ticks)
            why = f"its length follows: {' → '.join(lengths)}"
        if not why and will_be.quantity != was.quantity:
            why = f"its count follows: {was.quantity} → {will_be.quantity}"
        if why:
            section = then.sections(will_be.stock)
            size = will_be.finished_section(section)
            yield Effect(Touched(mark, will_be, was.quantity, rip=False), size, size, why)


def effects_on_board(
    parts: Iterable[Touched], before: MeasuredBoard, after: MeasuredBoard
) -> Iterator[Effect]:
    """The parts planned from a board on hand that change when it measures ``after``."""
    why = after.not_used_because()
    if not why and after.length != before.length:
        why = "the board has another length: it is planned anew"
    if why:
        section = before.section
        yield from (Effect(one, one.part.finished_section(section), None, why) for one in parts)
    elif before.section and after.section:
        yield from effects_of_section(parts, before.section, after.section)
