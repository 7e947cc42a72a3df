"""What the search works on: items that are wanted, sources to buy, and what one piece can hold."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Protocol

from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.programs import Outcome
from carpentry.cutting.search.sources import Source, cost_of

Pattern = tuple[int, ...]


def worth_of(values: Sequence[int], pattern: Pattern) -> int:
    """What items on a board are worth together."""
    return sum(v * n for v, n in zip(values, pattern, strict=True))


@dataclass(frozen=True)
class FilledBoard:
    """One piece of a source (its index) and how many of each item lie on it."""

    source: int
    pattern: Pattern


class Model(Protocol):
    """A stock kind joins the planner by answering these. ``sizes`` weigh the items: no piece holds
    more of them than it has itself."""

    @property
    def sizes(self) -> tuple[int, ...]: ...
    @property
    def demand(self) -> tuple[int, ...]: ...
    @property
    def sources(self) -> tuple[Source, ...]: ...

    def holds(self, source: int, item: int) -> bool:
        """Whether one piece of a source can hold an item."""

    @property
    def most_care(self) -> int:
        """The care with which there is nothing closer to be had."""

    @property
    def is_quick(self) -> bool:
        """Whether questions are answered so quickly that many may be asked for little."""

    def best_for(
        self, kinds: Sequence[int], values: Sequence[int], demand: Sequence[int], care: int = 0
    ) -> list[tuple[int, Pattern]]:
        """For each kind a worth that no pattern of it exceeds, and the most valuable pattern that
        was found, with no more of an item than ``demand``: the more ``care``, the more work, for a
        worth that is closer to what a pattern has."""

    def others_for(
        self, kind: int, values: Sequence[int], demand: Sequence[int]
    ) -> "Iterator[Pattern]":
        """Other good patterns of a kind, that programs may be quicker with."""

    def pack(
        self, kinds: Sequence[int], demand: Sequence[int], clock: Clock, effort: int = 0
    ) -> tuple[Outcome, tuple[Pattern, ...]]:
        """Whether pieces of these kinds hold all of a demand, and what each holds; undecided where
        the model has no way of its own to tell."""

    def every_pattern(self, kind: int, demand: Sequence[int], most: int) -> list[Pattern] | None:
        """Every pattern of a kind that no other contains, or ``None`` for more than ``most``."""

    def quick(self, demand: Sequence[int], used: Sequence[int]) -> "Packing":
        """A packing of a demand at once, without any proof, when ``used`` pieces of each source are
        gone."""

    def tries(self, values: Sequence[int], clock: Clock) -> "Iterator[Packing]":
        """Packings made with some care, guided by what items are worth."""


@dataclass(frozen=True)
class Packing:
    """Boards that hold what ``missing`` (per item) leaves out."""

    boards: tuple[FilledBoard, ...]
    missing: tuple[int, ...]

    def key(self, model: Model) -> tuple[int, int, int]:
        """What is minimised: parts left out, cost, pieces."""
        counts = [0] * len(model.sources)
        for board in self.boards:
            counts[board.source] += 1
        return sum(self.missing), cost_of(model.sources, counts), len(self.boards)
