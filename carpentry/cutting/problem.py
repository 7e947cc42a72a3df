"""What is to be cut from what: one material, by lengths alone or by sections too."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from enum import Enum
from functools import cached_property

from carpentry.design.edges import SQUARE_EDGES, Edges
from carpentry.design.ends import SQUARE, SQUARE_ENDS, EndAngle, Ends, is_angled
from carpentry.language import Unit


class Order(Enum):
    """The order of work on a board that is ripped: full-length strips, each crosscut on its own;
    segments, each ripped; or crosscut, rip, crosscut, which holds both."""

    RIP_FIRST = "rip-first"
    CROSSCUT_FIRST = "crosscut-first"
    EITHER = "either"


@dataclass(frozen=True)
class SawLimits:
    """What the saws at hand can do, ``None`` without limit: the width that is crosscut, the
    thickness that is ripped and the width that is resawn, from blade to fence when ripping (ticks),
    and how far from square a blade tilts and a miter turns (degrees)."""

    crosscut: int | None = None
    rip_depth: int | None = None
    rip_width: int | None = None
    resaw_depth: int | None = None
    tilt: Decimal | None = None
    miter: Decimal | None = None

    def crosses(self, wide: int, high: int) -> bool:
        """Whether a piece of that section (ticks) is crosscut, lying flat."""
        return self.crosscut is None or max(wide, high) <= self.crosscut

    def tilts(self, edge: EndAngle) -> bool:
        """Whether the blade tilts so far."""
        return self.tilt is None or abs(edge.degrees) <= self.tilt

    def rips(self, high: int, tilt: EndAngle = SQUARE) -> bool:
        """Whether a piece so thick (ticks) is ripped with a blade so tilted: depth ÷ cos θ."""
        if not self.tilts(tilt):
            return False
        deep = high / math.cos(math.radians(abs(tilt.degrees)))
        return self.rip_depth is None or deep <= self.rip_depth + 0.5

    def reaches(self, fence: int) -> bool:
        """Whether the fence stands so far from the blade (ticks)."""
        return self.rip_width is None or fence <= self.rip_width

    def resaws(self, wide: int) -> bool:
        """Whether a piece so wide (ticks) is resawn."""
        return self.resaw_depth is None or wide <= self.resaw_depth

    def turns(self, end: EndAngle) -> bool:
        """Whether an end is cut at that angle."""
        most = self.tilt if end.bevel else self.miter
        return most is None or abs(end.degrees) <= most


NO_LIMITS = SawLimits()
MOST_WEDGE = 15  # degrees that a wedge adds to what a saw can do at the most; from memory


@dataclass(frozen=True)
class StockPiece:
    """A piece that can be bought (or is owned, at price 0).

    ``length`` in ticks, the real one; ``price`` of one piece; ``available`` pieces, ``None`` for
    as many as wanted. ``thickness`` and ``width`` in ticks where parts may be ripped from it.
    ``flaws`` are stretches of unsound wood, from–to in ticks from the marked end. ``crook`` is the
    hollow (ticks) of its marked edge; both edges are ripped straight first, with ``corner`` more.
    ``keep_from`` is how long a leftover of it is worth keeping, where not as of others.
    """

    id: str
    length: int
    price: Decimal
    available: int | None = None
    thickness: int | None = None
    width: int | None = None
    flaws: tuple[tuple[int, int], ...] = ()
    crook: int = 0
    corner: int = 0
    keep_from: int | None = None


@dataclass(frozen=True)
class Spare:
    """Boards to buy beyond those that are cut, of every length that is used: so many, or so many
    percent, rounded up."""

    boards: int = 0
    percent: int = 0

    def of(self, count: int) -> int:
        """The spare boards for ``count`` that are cut."""
        return self.boards + -(-count * self.percent // 100) if count else 0

    def beside(self, count: int, available: int | None) -> int:
        """The same, no more than there are beside those that are cut."""
        more = self.of(count)
        return more if available is None else min(more, available - count)


NO_SPARE = Spare()


@dataclass(frozen=True)
class Extra:
    """Wood that a part needs beyond its finished size, in ticks: across and through it only where
    it is sawn."""

    length: int = 0
    width: int = 0
    thickness: int = 0


NO_EXTRA = Extra()


@dataclass(frozen=True)
class Shape:
    """What makes parts alike to the planner: sawn length (ticks), ends, whether they must be clear,
    and which stock they may come from."""

    length: int
    ends: Ends
    clear: bool
    on: tuple[str, ...]


@dataclass(frozen=True)
class CutPart:
    """``quantity`` equal parts of ``length`` ticks between their outermost points, with a section
    where they are ripped or have angled ``ends``. Unless ``turn`` is off a part may be sawn lying
    on its edge. No flaw may fall on a ``clear`` one. Where ``on`` names stock it comes from that
    alone. Those that ``show`` share few boards, which come first. With bevelled ``edges`` its width
    is between their outermost points. Without ``rip`` it is as wide as its board, without
    ``resaw`` as thick; ``whole`` it has the section of its board, whatever that measures. Parts
    that say the same ``together`` are cut from one board in their order, a kerf between two."""

    id: str
    length: int
    quantity: int
    thickness: int | None = None
    width: int | None = None
    turn: bool = True
    extra: Extra = NO_EXTRA
    ends: Ends = SQUARE_ENDS
    clear: bool = True
    on: tuple[str, ...] = ()
    edges: Edges = SQUARE_EDGES
    show: bool = False
    rip: bool = True
    resaw: bool = True
    whole: bool = False
    together: str = ""

    @property
    def sawn_length(self) -> int:
        return self.length + self.extra.length

    def room(self, kerf: int) -> int:
        """Ticks along the board that it takes with its saw lines, when none is shared."""
        return self.sawn_length + sum(end.saw(kerf) for end in self.ends) - kerf

    def reach(self, end: int) -> int:
        """Ticks between long and short point of its left (0) or right (1) end."""
        return self.ends[end].reach(self.thickness or 0, self.width or 0)


def sets_of(parts: Sequence[CutPart]) -> dict[str, list[CutPart]]:
    """The sets of parts that are kept together, in their order, by the name of the set."""
    found: dict[str, list[CutPart]] = {}
    for part in parts:
        if part.together:
            found.setdefault(part.together, []).append(part)
    return {name: one for name, one in found.items() if len(one) > 1}


def together_fault(parts: Sequence[CutPart]) -> str:
    """Why parts cannot be kept together, in words; empty where they can."""
    first = parts[0]
    for part in parts:
        if is_angled(part.ends) or is_angled(part.edges):
            return "only square ends and edges are kept together"
        if (part.thickness, part.width, part.on) != (first.thickness, first.width, first.on):
            return "only parts of one section from the same boards are kept together"
    return ""


@dataclass(frozen=True)
class CutProblem:
    """Parts to be cut from stock of one material. Sizes in ticks.

    Parts lie in one line with ``kerf`` between them; the last needs no cut when it ends exactly at
    sound wood. ``trim_start`` and ``trim_end`` are the wood lost at each end of a piece of stock;
    across it nothing is lost. With ``share_angled_cuts`` neighbours whose ends run alike share one
    saw line. Of equal plans the one with most leftover length in pieces of at least
    ``keep_offcut_from`` is wanted, where that is 0 the one with the longest leftover.
    With ``owned_first`` as many parts as can be come from stock of price 0, also where that saves
    nothing. ``eased``, its kerf included, is ripped off either edge of a board before strips are.
    Leftovers at least ``keep_offcut_from`` long and ``keep_width`` wide are kept. No cut is beyond
    what the ``saw`` can do. With those that are cut ``spare`` ones are bought.
    """

    unit: Unit
    kerf: int
    trim_start: int
    trim_end: int
    stock: tuple[StockPiece, ...]
    parts: tuple[CutPart, ...]
    order: Order = Order.EITHER
    share_angled_cuts: bool = False
    keep_offcut_from: int = 0
    owned_first: bool = False
    eased: int = 0
    keep_width: int = 0
    saw: SawLimits = NO_LIMITS
    spare: Spare = NO_SPARE

    def price_of(self, counts: Mapping[str, int]) -> Decimal:
        """What so many pieces of stock (by id) cost with the spare ones beside them."""
        return sum(
            (
                piece.price * (count + self.spare.beside(count, piece.available))
                for piece in self.stock
                if (count := counts.get(piece.id, 0))
            ),
            Decimal(0),
        )

    def may_crosscut(self, part: CutPart) -> bool:
        """Whether the saw cuts the ends of a part, whose section is that of its board."""
        turns = all(self.saw.turns(end) for end in part.ends)
        return turns and self.saw.crosses(part.width or 0, part.thickness or 0)

    def straight_edges(self, piece: StockPiece) -> tuple[int, int]:
        """Between which lines across a piece (ticks) strips lie that are not as wide as it is."""
        eased = max(self.eased, piece.corner)
        return eased + piece.crook, (piece.width or 0) - eased

    def shape(self, part: CutPart) -> Shape:
        """What makes a part like others; where no stock has flaws all parts are clear."""
        flawless = not any(piece.flaws for piece in self.stock)
        return Shape(part.sawn_length, part.ends, part.clear or flawless, part.on)

    def sound_length(self, piece: StockPiece) -> int:
        """Ticks of a piece between its trims; zero or less when the trims take all of it."""
        return piece.length - self.trim_start - self.trim_end

    @cached_property
    def is_ripped(self) -> bool:
        """Whether sections differ: somewhere a rip may be needed."""
        parts = {(part.thickness, part.width) for part in self.parts}
        stock = {(piece.thickness, piece.width) for piece in self.stock}
        some = any(part.width is not None for part in self.parts)
        if all(part.whole for part in self.parts):
            return False
        return some and (len(parts | stock) > 1 or any(is_angled(p.edges) for p in self.parts))
