"""What happened of the steps of a project, as events: begun, done, dry, checked, undone."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from datetime import datetime
from enum import StrEnum

from carpentry.hours.clock import instant_of
from carpentry.language import CarpentryError, typed
from carpentry.time.project_days import Fact


class ProgressKind(StrEnum):
    """What can happen of a step."""

    BEGUN = "begun"
    DONE = "done"
    MADE = "made"  # so many of its batch
    OVER = "over"  # its wait is
    CHECKED = "checked"
    UNDONE = "undone"  # another event is taken back


@dataclass(frozen=True)
class ProgressEvent:
    """An event as it was told: of which ``step`` (its key), ``at`` what time (with its offset), the
    ``answer`` to a check or how many of a batch are made, and the event that it ``undoes``.
    ``about`` is how the parts of the step were when it was done, by their marks."""

    id: str
    kind: ProgressKind
    step: str = typed("Step", most=200)
    at: str = typed("When", most=40)
    answer: str = typed("Answer", most=60)
    undoes: str = typed("Takes back", most=40)
    about: Mapping[str, str] = field(default_factory=dict)

    @property
    def instant(self) -> int:
        return instant_of(read_when(self.at))


def read_when(text: str) -> datetime:
    """A time with its offset. Raises ``CarpentryError``."""
    try:
        moment = datetime.fromisoformat(text.strip())
    except ValueError as error:
        raise CarpentryError(f"“{text[:40]}” is no time", "at") from error
    if moment.tzinfo is None:
        raise CarpentryError(f"“{text[:40]}” says no offset", "at")
    return moment


_NOTHING = Fact()


@dataclass(frozen=True)
class Happened:
    """What stands of the events of one step: its fact, the answers to its check (one of each of a
    batch), the parts (by mark) that have changed since it was done, and the newest event that
    can be taken back."""

    fact: Fact = _NOTHING
    answers: tuple[str, ...] = ()
    changed: tuple[str, ...] = ()
    last: str = ""

    @property
    def answer(self) -> str:
        """The newest answer; empty for none."""
        return self.answers[-1] if self.answers else ""


def happened(
    events: Iterable[ProgressEvent], about: Mapping[str, Mapping[str, str]]
) -> dict[str, Happened]:
    """What happened of every step, in the order of events. A step whose parts are not as they were
    (``about``, by step and mark) when it was done is to do again."""
    known = list(events)
    undone = {event.undoes for event in known if event.kind is ProgressKind.UNDONE}
    found: dict[str, Happened] = {}
    for event in known:
        if event.id in undone or event.kind is ProgressKind.UNDONE:
            continue
        before = found.get(event.step, Happened())
        found[event.step] = _after(before, event, about.get(event.step, {}))
    return found


def _after(before: Happened, event: ProgressEvent, now: Mapping[str, str]) -> Happened:
    fact, answers = before.fact, before.answers
    changed: tuple[str, ...] = before.changed
    match event.kind:
        case ProgressKind.BEGUN:
            fact, changed = Fact(begun=event.instant, made=fact.made), ()
        case ProgressKind.MADE:
            fact = Fact(fact.begun, made=int(event.answer))
        case ProgressKind.DONE:
            changed = tuple(mark for mark, was in event.about.items() if now.get(mark, was) != was)
            begun = fact.begun if fact.begun is not None and fact.begun <= event.instant else None
            fact = Fact() if changed else Fact(begun=begun, ended=event.instant)
        case ProgressKind.OVER:
            if fact.ended is not None:
                fact = Fact(fact.begun, fact.ended, max(fact.ended, event.instant))
        case _:
            answers = (*answers, event.answer)
    return Happened(fact, answers, changed, event.id)


def undo_fault(events: Iterable[ProgressEvent], undoes: str) -> str:
    """Why an event cannot be taken back; empty where it can."""
    known = {event.id: event for event in events}
    if undoes not in known or known[undoes].kind is ProgressKind.UNDONE:
        return "there is nothing of that kind to take back"
    if any(event.undoes == undoes for event in known.values()):
        return "that is taken back already"
    return ""
