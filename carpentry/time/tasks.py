"""What is planned: hands-on tasks of one builder, with waits that run beside them."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from functools import cached_property

from carpentry.hours.weather import Drying, Wait
from carpentry.hours.windows import Calendar

NOTHING = Wait(0, 0)


class NoRoom(Exception):
    """A task that fits nowhere before the calendar ends."""


@dataclass(frozen=True)
class Task:
    """One step: so many ``minutes`` of hands-on work in one stretch of its ``calendar`` (in
    several where it ``may_split``), after other tasks (by index) and their waits, not before
    ``release`` (an instant). Its ``wait`` begins when the work ends; it ``stays`` where the builder
    waits beside it. Its clamps are held to the end of ``held``, which is no longer than the wait.

    ``begun`` fixes when it began, ``ended`` when it was done, ``over`` when its wait was.
    """

    minutes: int
    calendar: Calendar = field(repr=False, compare=False)
    after: tuple[int, ...] = ()
    wait: Wait = NOTHING
    stays: bool = False
    clamps: int = 0
    held: Wait = NOTHING
    may_split: bool = False
    release: int | None = None
    begun: int | None = None
    ended: int | None = None
    over: int | None = None

    @property
    def here(self) -> int:
        """Minutes for which the builder is there."""
        return self.minutes + (self.wait.minutes if self.stays else 0)


@dataclass(frozen=True)
class Placed:
    """When a task is done: hands-on from ``start`` to ``end``, its wait over at ``free_from``."""

    start: int
    end: int
    free_from: int


@dataclass(frozen=True)
class DaysProblem:
    """Tasks to do from an instant on, with so many ``clamps`` (``None``: enough of them), where
    things dry as ``drying`` says. Those that are done are facts; what is left is planned."""

    tasks: Sequence[Task]
    start: int
    drying: Drying = field(default_factory=Drying, repr=False)
    clamps: int | None = None

    @cached_property
    def followers(self) -> list[list[int]]:
        """Which tasks come right after each."""
        found: list[list[int]] = [[] for _ in self.tasks]
        for n, task in enumerate(self.tasks):
            for before in task.after:
                found[before].append(n)
        return found

    @cached_property
    def in_order(self) -> list[int]:
        """The tasks so that none is before one that it comes after; as they were typed, else."""
        left = [len(set(task.after)) for task in self.tasks]
        ready = [n for n, count in enumerate(left) if not count]
        found: list[int] = []
        while ready:
            n = min(ready)
            ready.remove(n)
            found.append(n)
            for after in set(self.followers[n]):
                left[after] -= 1
                if not left[after]:
                    ready.append(after)
        return found


def circle_among(after: Sequence[Sequence[int]]) -> list[int]:
    """Steps that wait for each other in a circle, each for the next one; empty where none do."""
    state = [0] * len(after)  # not seen, on the way, done

    def walk(first: int) -> list[int]:
        way: list[tuple[int, Iterator[int]]] = [(first, iter(after[first]))]
        state[first] = 1
        while way:
            n, more = way[-1]
            next_ = next(more, None)
            if next_ is None:
                state[n] = 2
                way.pop()
            elif state[next_] == 1:
                steps = [one for one, _ in way]
                return steps[steps.index(next_) :]
            elif state[next_] == 0:
                state[next_] = 1
                way.append((next_, iter(after[next_])))
        return []

    for n in range(len(after)):
        if not state[n] and (found := walk(n)):
            return found
    return []
