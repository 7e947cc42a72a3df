"""A cut problem with ripping in whole numbers: what is wanted, and which boards could give it.

Sizes along the board have the kerf in them, so that strips hold parts, and boards hold segments,
exactly when sizes add up to no more than what there is.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from decimal import Decimal
from functools import reduce
from math import gcd

from carpentry.cutting.line.sound_runs import Particular
from carpentry.cutting.problem import CutPart, CutProblem, Order, Shape, StockPiece
from carpentry.cutting.ripped.best_rips import RipValues
from carpentry.cutting.ripped.blocks import StripSize
from carpentry.cutting.ripped.rip_patterns import RipPattern
from carpentry.cutting.ripped.section import BoardSection
from carpentry.cutting.search.model import Pattern
from carpentry.cutting.search.patterns import Knapsack
from carpentry.cutting.search.sources import Money, Source, as_source

_WEIGHT = 1000  # of the largest part; weights are whole and need not be exact
_THREE_SEGMENTS = 400  # lengths worth cutting at, above which two segments are tried, not three


@dataclass(frozen=True)
class Segment:
    """A length of a board (kerf in, whole units) with its rip pattern, and the items that each of
    the pattern's strips holds, in their order. ``start`` is where it begins (ticks) when that is
    not right after the one before."""

    size: int
    pattern: RipPattern
    strips: tuple[tuple[int, ...], ...]
    start: int | None = None


@dataclass(frozen=True)
class Item:
    """Parts of one strip size and shape; ``size`` has their saw lines in it, in whole units.
    ``alone`` is what one takes that shares no saw line, which in a loose model is more."""

    strip: int
    shape: Shape
    size: int
    alone: int


@dataclass(frozen=True)
class Kind:
    """Boards that hold the same: their capacity (kerf in) and how their section is ripped;
    ``particular`` where they have flaws or only some parts may come from them. ``one_segment``
    where they are not crosscut before they are ripped. In a loose model ``sound`` says what parts
    that must be clear have of it by themselves."""

    capacity: int
    section: RipValues
    strips: tuple[int, ...]
    particular: Particular | None = None
    one_segment: bool = False
    sound: Particular | None = None

    def holds(self, item: int, of: Item) -> bool:
        """Whether it holds an item, by its number."""
        if of.strip not in self.strips:
            return False
        longest = self.particular.longest_for(item) if self.particular else self.capacity
        return of.size <= longest


class Ripping:
    """Items and boards of a problem, with their numbers by strip size and shape (``item_of``) and
    by stock (``source_of``). ``recipes`` says how a pattern that was found is cut.
    ``loose`` is for bounds: bevelled edges then take less than they really do, and parts that must
    be clear keep off flaws by themselves, but not beside others that may lie on them; lengths are
    less than those that parts have ``alone``, by their ids."""

    def __init__(
        self, problem: CutProblem, *, loose: bool = False, alone: Mapping[str, int] | None = None
    ) -> None:
        self.problem = problem
        self.order = problem.order
        self.loose = loose
        self.money = Money.of([piece.price for piece in problem.stock])
        strips: dict[StripSize, int] = {}
        wanted: dict[tuple[int, Shape], int] = {}
        room: dict[tuple[int, Shape], int] = {}
        lone: dict[tuple[int, Shape], int] = {}
        for part in problem.parts:
            if any(_takes(piece, problem, part) for piece in problem.stock):
                size = replace(strip_of(part), loose=loose)
                strip = strips.setdefault(size, len(strips))
                key = strip, problem.shape(part)
                room[key] = part.room(problem.kerf)
                by_itself = alone[part.id] if alone else room[key]
                lone[key] = min(by_itself, lone.get(key, by_itself))
                wanted[key] = wanted.get(key, 0) + part.quantity
        self.strips = tuple(strips)
        self.kerf = problem.kerf
        keys = sorted(wanted, key=lambda k: (k[0], -room[k], str(k[1])))
        unit = reduce(gcd, (room[key] for key in keys), 0) or 1
        self.unit = unit
        self.items = tuple(Item(*key, room[key] // unit, lone[key] // unit) for key in keys)
        self.demand = tuple(wanted[key] for key in keys)
        self.item_of = {(self.strips[strip], shape): n for n, (strip, shape) in enumerate(keys)}
        self.sizes = self._weights()
        self.crosscuts: dict[tuple[tuple[int, ...], int], Knapsack] = {}  # by sizes and capacity
        self.recipes: dict[tuple[int, Pattern], tuple[Segment, ...]] = {}
        self.of_strip = [
            [i for i, item in enumerate(self.items) if item.strip == strip]
            for strip in range(len(self.strips))
        ]
        self.kinds: list[Kind] = []
        self.sources = tuple(self._sources(problem))
        self.source_of = {source.stock: n for n, source in enumerate(self.sources)}
        top = max((kind.capacity for kind in self.kinds), default=0)
        self.knapsacks = [
            Knapsack(
                [self.items[i].size for i in of_strip], [self.demand[i] for i in of_strip], [top]
            )
            for of_strip in self.of_strip
        ]
        self.most_segments = self._most_segments()

    def _weights(self) -> tuple[int, ...]:
        volumes = [
            (strip.thickness + strip.extra_thickness + self.kerf)
            * (strip.width + strip.extra_width + self.kerf)
            * item.size
            for item in self.items
            for strip in (self.strips[item.strip],)
        ]
        largest = max(volumes, default=1)
        return tuple(max(1, volume * _WEIGHT // largest) for volume in volumes)

    def _sources(self, problem: CutProblem) -> Iterator[Source]:
        total = sum(self.demand)
        known: dict[object, int] = {}
        for piece in problem.stock:
            allowed = tuple(self._allows(piece, item) for item in self.items)
            key = (replace(piece, id="", price=Decimal(0), available=None), allowed)
            if piece.available == 0 or problem.sound_length(piece) <= 0:
                continue
            if key not in known:
                kind = self._kind(problem, piece, allowed)
                if kind is None:
                    continue
                known[key] = len(self.kinds)
                self.kinds.append(kind)
            yield as_source(problem, piece, known[key], self.money, total)

    @staticmethod
    def _allows(piece: StockPiece, item: Item) -> bool:
        return not item.shape.on or piece.id in item.shape.on

    def _particular(
        self, problem: CutProblem, piece: StockPiece, allowed: tuple[bool, ...]
    ) -> Particular | None:
        if not piece.flaws and all(allowed):
            return None
        clear = [item.shape.clear for item in self.items]
        if self.loose and not all(clear):
            piece = replace(piece, flaws=())  # any part may lie where some may
        return Particular.of(problem, piece, self.unit, allowed, clear)

    def _sound(
        self, problem: CutProblem, piece: StockPiece, allowed: tuple[bool, ...]
    ) -> Particular | None:
        """What parts that must be clear have of a piece where flaws hold no others back."""
        clear = [item.shape.clear for item in self.items]
        if not self.loose or not piece.flaws or all(clear):
            return None
        both = [one and other for one, other in zip(clear, allowed, strict=True)]
        return Particular.of(problem, piece, self.unit, both, clear) if any(both) else None

    def _kind(
        self, problem: CutProblem, piece: StockPiece, allowed: tuple[bool, ...]
    ) -> Kind | None:
        """How a piece is used, ``None`` for one that no part comes from."""
        capacity = (problem.sound_length(piece) + problem.kerf) // self.unit
        board = BoardSection.of(problem, piece)
        crossed = problem.saw.crosses(board.width, board.thickness)
        if self.order is Order.CROSSCUT_FIRST and not crossed:
            return None
        usable = tuple(
            number
            for number, strip in enumerate(self.strips)
            if strip.fits(board, problem.kerf)
            and any(self.items[i].size <= capacity for i in self.of_strip[number])
        )
        if not usable:
            return None
        most = [sum(self.demand[i] for i in self.of_strip[number]) for number in usable]
        section = RipValues(board, problem.kerf, [self.strips[number] for number in usable], most)
        whole_length = self.order is Order.RIP_FIRST or not crossed
        particular = self._particular(problem, piece, allowed)
        sound = self._sound(problem, piece, allowed)
        kind = Kind(capacity, section, usable, particular, whole_length, sound)
        held = any(kind.holds(number, item) for number, item in enumerate(self.items))
        return kind if held else None

    def is_like(self, other: "Ripping") -> bool:
        """Whether boards hold the same in both: then a bound of one is one of the other."""
        return self._told() == other._told()

    def _told(self) -> list[object]:
        every: list[object] = [self.demand, self.sources, self.unit]
        every += [(item.strip, item.size, item.alone, item.shape.clear) for item in self.items]
        for kind in self.kinds:
            patterns = kind.section.patterns
            counts = None if patterns is None else {p.counts for p in patterns}
            plain = kind.capacity, kind.strips, kind.one_segment
            every.append((*plain, kind.particular, kind.sound, counts))
        return every

    def _most_segments(self) -> int:
        places = sum(len(knapsack.sums) for knapsack in self.knapsacks)
        return 3 if places <= _THREE_SEGMENTS else 2


def strip_of(part: CutPart) -> StripSize:
    """The strip that a part is sawn from."""
    assert part.thickness is not None and part.width is not None
    extra = part.extra
    square = part.thickness == part.width and extra.thickness == extra.width
    return StripSize(
        part.thickness,
        part.width,
        part.turn and not square,
        extra.thickness,
        extra.width,
        part.edges,
        rip=part.rip,
        resaw=part.resaw,
        whole=part.whole,
    )


def fits_stock(part: CutPart, piece: StockPiece, problem: CutProblem) -> bool:
    """Whether a piece of stock has the section that a part is ripped from."""
    return strip_of(part).fits(BoardSection.of(problem, piece), problem.kerf)


def _takes(piece: StockPiece, problem: CutProblem, part: CutPart) -> bool:
    """Whether a piece of stock can give a part at all."""
    return (
        piece.available != 0
        and (not part.on or piece.id in part.on)
        and all(problem.saw.turns(end) for end in part.ends)
        and part.room(problem.kerf) <= problem.sound_length(piece) + problem.kerf
        and fits_stock(part, piece, problem)
    )
