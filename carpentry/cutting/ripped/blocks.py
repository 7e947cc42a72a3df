"""What a region of a cross-section is filled with: one strip, or strips with bevelled edges side by
side, neighbours turned so that one saw line makes the edges of both."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from carpentry.cutting.ripped.section import BoardSection
from carpentry.design.edges import SQUARE_EDGES, Edges
from carpentry.design.ends import EndAngle, is_angled, ways_to_lie

Counts = tuple[int, ...]
_MOST_BLOCKS = 150


@dataclass(frozen=True)
class StripSize:
    """A finished section that parts have, in ticks; ``turn`` lets it lie on its edge in the board.
    Where it is sawn to a size it takes that much ``extra_thickness`` and ``extra_width`` more. With
    bevelled ``edges`` its width is between their outermost points. ``loose`` is for bounds: bevels
    then take no more saw than square edges, and any two that lean the same way lie as close as the
    flatter of them lets them. Without ``rip`` it is as wide as its board, without ``resaw`` as
    thick; ``whole`` it is the board's section as it is."""

    thickness: int
    width: int
    turn: bool
    extra_thickness: int = 0
    extra_width: int = 0
    edges: Edges = SQUARE_EDGES
    loose: bool = False
    rip: bool = True
    resaw: bool = True
    whole: bool = False

    @property
    def is_bevelled(self) -> bool:
        return is_angled(self.edges)

    def lying(self, board: BoardSection) -> Iterator[tuple[int, int]]:
        """The height and width it takes from a board, as it is and turned, where it may be sawn so:
        what is as thick or as wide as the board already has no sawn face there, but for bevelled
        edges."""
        if self.whole:
            if board.gives(board.thickness, board.width, SQUARE_EDGES):
                yield board.thickness, board.width
            return
        thick, broad = (
            (self.thickness, self.extra_thickness),
            (self.width, self.extra_width),
        )
        for (h, more_h), (w, more_w) in ((thick, broad), (broad, thick)):
            stays = w == board.width and not self.is_bevelled
            high, wide = h if h == board.thickness else h + more_h, w if stays else w + more_w
            allowed = (self.resaw or high == board.thickness) and (self.rip or stays)
            if allowed and board.gives(high, wide, self.edges, loose=self.loose):
                yield high, wide
            if not self.turn or self.is_bevelled:
                return

    def room(self, kerf: int) -> int:
        """Ticks across the board that its saw lines take more than square ones."""
        return sum(self.saw(edge, kerf) - kerf for edge in self.edges)

    def saw(self, edge: EndAngle, kerf: int) -> int:
        """Ticks that a saw line along one of its edges takes across the board."""
        return kerf if self.loose else edge.saw(kerf)

    def fits(self, board: BoardSection, kerf: int) -> bool:
        """Whether a board gives it."""
        return any(
            h <= board.thickness
            and ((w == board.width and not board.crooked) or w + self.room(kerf) <= board.inner)
            for h, w in self.lying(board)
        )


@dataclass(frozen=True)
class Laid:
    """A strip of size number ``size`` in a block, ``wide`` and ``at`` so far from the block's edge
    (ticks); ``way`` is how it lies, as ``ways_to_lie`` counts, with its ``edges`` then."""

    size: int
    wide: int
    at: int = 0
    way: int = 0
    edges: Edges = SQUARE_EDGES


@dataclass(frozen=True)
class Block:
    """Strips side by side that no cut but their shared saw lines parts: ``high`` and ``wide``
    without the last kerf (ticks)."""

    counts: Counts
    high: int
    wide: int
    strips: tuple[Laid, ...]


def blocks_of(
    sizes: Sequence[StripSize], most: Sequence[int], board: BoardSection, kerf: int
) -> list[Block]:
    """The blocks that a board may be ripped into, with no more strips of a size than ``most``."""
    found = []
    for number, size in enumerate(sizes):
        if most[number] and not size.is_bevelled and not size.whole:
            counts = tuple(int(n == number) for n in range(len(sizes)))
            for high, wide in dict.fromkeys(size.lying(board)):
                found.append(Block(counts, high, wide, (Laid(number, wide),)))
    return found + list(_Chains(sizes, most, board, kerf).blocks())


class TooManyBlocks(Exception):
    """More chains than are worth listing, where all of them are needed."""


class _Chains:
    """Bevelled strips one after the other, each with its first edge along the last one's other
    edge."""

    def __init__(
        self, sizes: Sequence[StripSize], most: Sequence[int], board: BoardSection, kerf: int
    ) -> None:
        self.sizes = sizes
        self.most = most
        self.board = board
        self.kerf = kerf
        self.lying = [next(size.lying(board), (0, 0)) for size in sizes]

    def blocks(self) -> Iterator[Block]:
        """The chains that the board has room for. Of those with the same strips and outer edges the
        narrowest are enough."""
        widest: dict[tuple[Counts, Edges], int] = {}
        waiting: list[tuple[Laid, ...]] = [()]
        while waiting:
            for chain in self._longer(waiting.pop(0)):
                last = chain[-1]
                size = self.sizes[last.size]
                wide = last.at + last.wide + size.saw(last.edges[1], self.kerf) - self.kerf
                counts = [sum(one.size == n for one in chain) for n in range(len(self.sizes))]
                key = tuple(counts), (chain[0].edges[0], last.edges[1])
                if wide > self.board.inner or wide >= widest.get(key, wide + 1):
                    continue
                if len(widest) == _MOST_BLOCKS:
                    if size.loose:
                        raise TooManyBlocks
                    return
                widest[key] = wide
                waiting.append(chain)
                high = max(self.lying[one.size][0] for one in chain)
                if high != self.board.thickness and not self.board.resaws(wide):
                    continue
                yield Block(key[0], high, wide, chain)

    def _longer(self, chain: tuple[Laid, ...]) -> Iterator[tuple[Laid, ...]]:
        for number, size in enumerate(self.sizes):
            count = sum(laid.size == number for laid in chain)
            if not size.is_bevelled or count >= self.most[number] or not self.lying[number][0]:
                continue
            for way, edges in enumerate(ways_to_lie(size.edges)):
                at = self._after(chain, number, edges)
                if at is not None:
                    yield *chain, Laid(number, self.lying[number][1], at, way, edges)

    def _after(self, chain: tuple[Laid, ...], number: int, edges: Edges) -> int | None:
        """Where a strip begins after a chain, ``None`` where their edges do not go together."""
        size = self.sizes[number]
        if not chain:
            return size.saw(edges[0], self.kerf) - self.kerf
        last = chain[-1]
        before, after = last.edges[1], edges[0]
        end, high = last.at + last.wide, self.lying[number][0]
        if size.loose and before.degrees * after.degrees < 0:
            return end - min(before.reach(high, 0), after.reach(high, 0)) + self.kerf
        if before.degrees and after == before.flipped and self.lying[last.size][0] == high:
            return end - before.reach(high, 0) + size.saw(before, self.kerf)
        return None
