"""A cut plan: boards, what lies on each, and what was proven about it."""

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from decimal import Decimal
from enum import StrEnum

from carpentry.cutting.cuts import Cut, SawnPiece
from carpentry.design.edges import SQUARE_EDGES, Edges
from carpentry.design.ends import SQUARE_ENDS, Ends
from carpentry.language import Json

Span = tuple[int, int]


class Status(StrEnum):
    """What a plan claims."""

    OPTIMAL = "optimal"
    FEASIBLE = "feasible"
    INCOMPLETE = "incomplete"


class Ended(StrEnum):
    """What ended the search: a proof, its budget of steps, or the clock. Only the clock can make it
    end otherwise the next time."""

    PROOF = "proof"
    STEPS = "steps"
    CLOCK = "clock"


@dataclass(frozen=True)
class PlacedPart:
    """A part on a board as it is sawn, from ``start`` to ``end`` in ticks from the board's marked
    end; on a ripped board also across its width (``y``) and through its thickness (``z``).
    ``ends`` and bevelled ``edges`` as they lie: a part may be turned end for end and over."""

    part: str
    start: int
    end: int
    y: Span | None = None
    z: Span | None = None
    ends: Ends = SQUARE_ENDS
    edges: Edges = SQUARE_EDGES


@dataclass(frozen=True)
class Leftover:
    """Sound wood that no part uses, in ticks from the board's marked end; on a ripped board also
    across and through it; worth a ``keep`` where it is long and wide enough."""

    start: int
    end: int
    y: Span | None = None
    z: Span | None = None
    keep: bool = False

    @property
    def length(self) -> int:
        return self.end - self.start


@dataclass(frozen=True)
class Layout:
    """``count`` boards of one stock, all cut alike: where parts lie, what is left over, and the
    ``cuts`` that take a board apart into its ``pieces``. One board that was cut already keeps the
    ``number`` that is written on it; 0 for the next one."""

    stock: str
    count: int
    parts: tuple[PlacedPart, ...]
    leftover: tuple[Leftover, ...] = ()
    cuts: tuple[Cut, ...] = ()
    pieces: tuple[SawnPiece, ...] = ()
    number: int = 0


def pieces_used(layouts: Iterable[Layout]) -> Counter[str]:
    """How many pieces of each stock (by id) boards are cut from."""
    used = Counter[str]()
    for layout in layouts:
        used[layout.stock] += layout.count
    return used


@dataclass(frozen=True)
class Unplaced:
    """Parts that got no place, and why, in words."""

    part: str
    quantity: int
    reason: str


@dataclass(frozen=True)
class CutPlan:
    """A plan for a ``CutProblem``; its ``price`` has the spare pieces in it.

    ``optimal`` means that price and number of pieces are proven least among plans of the allowed
    cuts; otherwise ``bound`` is a price below which no such plan that places as many parts exists.
    ``worths`` of parts (by id) are what the bound was proven with; ``proof`` is the document that
    says so, with the price up to which it was ``checked``, once it is written.
    ``rip_set_ups`` is how many a board had at the most in what was looked at; ``None`` for no such
    limit. ``ended`` says what ended the search; ``None`` where that is not known.
    """

    status: Status
    price: Decimal
    bound: Decimal
    layouts: tuple[Layout, ...]
    unplaced: tuple[Unplaced, ...]
    rip_set_ups: int | None = None
    ended: Ended | None = None
    worths: tuple[Mapping[str, int], ...] = field(default=(), compare=False, repr=False)
    proof: Json | None = field(default=None, compare=False, repr=False)

    @property
    def checked(self) -> Decimal | None:
        """Below which price no purchase holds all parts, by its proof; ``None`` without one."""
        return None if self.proof is None else Decimal(self.proof["checked"])

    @property
    def pieces_of_stock(self) -> int:
        return sum(layout.count for layout in self.layouts)
