"""The one family of errors that carpentry raises: always a message a builder can act on."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import TypeVar

T = TypeVar("T")


@dataclass(frozen=True)
class Problem:
    """One fault of some input.

    ``place`` says where it is: ``line 4, length`` in a file of rows, ``parts[0].length`` in JSON,
    empty when there is only one place it could be.
    """

    place: str
    message: str

    def __str__(self) -> str:
        return f"{self.place}: {self.message}" if self.place else self.message


class CarpentryError(ValueError):
    """Input that cannot be used, with every problem found in it."""

    def __init__(self, problems: Iterable[Problem] | Problem | str, place: str = "") -> None:
        if isinstance(problems, str):
            problems = Problem(place, problems)
        self.problems: tuple[Problem, ...] = (
            (problems,) if isinstance(problems, Problem) else tuple(problems)
        )
        super().__init__("\n".join(str(problem) for problem in self.problems))


class Faults:
    """Gathers the problems of many fields, so that all of them are told at once."""

    def __init__(self) -> None:
        self.problems: list[Problem] = []

    def add(self, place: str, message: str) -> None:
        self.problems.append(Problem(place, message))

    def attempt(self, place: str, read: Callable[[], T], default: T) -> T:
        """What ``read`` returns, or ``default`` with its problems kept at ``place``."""
        try:
            return read()
        except CarpentryError as error:
            self.problems.extend(Problem(place, p.message) for p in error.problems)
            return default

    def raise_any(self) -> None:
        if self.problems:
            raise CarpentryError(self.problems)


class LengthError(CarpentryError):
    """A text that is no length. ``column`` (from 1) is where it stopped making sense; ``said`` is
    the message without it."""

    def __init__(self, message: str, column: int) -> None:
        self.said, self.column = message, column
        super().__init__(f"{message} (column {column})")


class StockNameError(CarpentryError):
    """A text that names no stock, with the nearest known names in its message."""


class PlanCheckError(CarpentryError):
    """A plan that does not hold when it is replayed: never shown, never stored."""
