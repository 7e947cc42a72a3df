"""What a kind of stock, and how it is cut, has to answer to join the planner.

Lengths on a line, lines with angled ends and boards that are ripped are ways; sheets or glued
panels join by answering the same, and by a line in ``ways``.
"""

from collections.abc import Callable
from typing import Protocol

from carpentry.cutting.plan import Layout
from carpentry.cutting.problem import CutPart, CutProblem
from carpentry.cutting.search.cheapest import SearchResult
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.model import Model, Packing
from carpentry.cutting.search.sources import Money

Report = Callable[[Packing, int], None]  # told of a better packing, and of a bound


class MoneyedModel(Model, Protocol):
    """A model that knows what its costs are in money."""

    @property
    def money(self) -> Money: ...


class Way(Protocol):
    """A cut problem as one way of cutting sees it."""

    @property
    def problem(self) -> CutProblem: ...
    @property
    def model(self) -> MoneyedModel: ...

    @property
    def rip_set_ups(self) -> int | None:
        """The most ways to rip a board that were looked at, where not all were."""

    @property
    def bounds_all(self) -> bool:
        """Whether its bound is that of every plan: it leaves out no way to save, or boards hold no
        more in the relaxed problem."""

    def loosened(self) -> "Way | None":
        """The relaxed problem, in which every plan there is has room and may be cheaper; ``None``
        where there is none that is worth its work."""

    def item_of(self, part: CutPart) -> int | None:
        """The item of its model that a part is one of, ``None`` for one that no board holds."""

    def search(self, clock: Clock, report: Report, kept_back: float = 0.0) -> SearchResult:
        """The cheapest packing with its proof, and of equal ones the best to have, leaving a share
        of the time ``kept_back`` where it would take all of it."""

    def search_plainly(self, clock: Clock) -> SearchResult:
        """The same without care for what is as cheap."""

    def arrange(self, packing: Packing) -> tuple[Layout, ...]:
        """The boards of a packing in the order of the stock, equal ones together."""
