"""How a board's cross-section is ripped: every way that straight rips give, none that wastes a
strip that another way would keep."""

from bisect import bisect_right
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from carpentry.cutting.ripped.blocks import Block, Counts, StripSize, blocks_of
from carpentry.cutting.ripped.section import BoardSection
from carpentry.design.edges import SQUARE_EDGES, Edges

_MOST_PATTERNS = 1_000
_MOST_STEPS = 500_000
_MOST_REGIONS = 4_000


@dataclass(frozen=True)
class Strip:
    """A strip of size number ``size`` in a board: ``y`` across the width, ``z`` through the
    thickness, in ticks from one corner; ``way`` is how it lies, as ``ways_to_lie`` counts, with its
    ``edges`` then."""

    size: int
    y: tuple[int, int]
    z: tuple[int, int]
    way: int = 0
    edges: Edges = SQUARE_EDGES


@dataclass(frozen=True)
class RipPattern:
    """Strips that one cross-section gives, ``counts`` of each size."""

    counts: Counts
    strips: tuple[Strip, ...]


@dataclass(frozen=True)
class Cut:
    """Two regions with a saw kerf between them: side by side (``along`` the width) or stacked."""

    along: bool
    at: int
    first: "Tree"
    second: "Tree"


Region = tuple[int, int]  # height and width, both with the kerf in
Tree = Cut | Block | None  # a cut, what fills a region, or waste


def _sums(sizes: Sequence[int], most: int) -> list[int]:
    """What sizes (kerf in each) reach in any number, up to ``most``."""
    reached = {0}
    for size in sizes:
        for start in sorted(reached):
            total = start + size
            while total <= most and total not in reached:
                reached.add(total)
                total += size
    return sorted(reached)


def _undominated(found: dict[Counts, Tree]) -> dict[Counts, Tree]:
    ordered = sorted(found, key=lambda c: (-sum(c), c))
    every = np.array(ordered, dtype=np.int32).reshape(len(ordered), -1)
    rows = np.empty_like(every)
    kept: dict[Counts, Tree] = {}
    for number, counts in enumerate(ordered):
        if not (rows[: len(kept)] >= every[number]).all(axis=1).any():
            rows[len(kept)] = every[number]
            kept[counts] = found[counts]
    return kept


class _TooMany(Exception):
    """More patterns than are worth listing."""


class Regions:
    """Patterns of the rectangles that rips of one board leave; heights and widths with the kerf in,
    and no more than their strips reach."""

    def __init__(
        self, board: BoardSection, kerf: int, sizes: Sequence[StripSize], most: Sequence[int]
    ) -> None:
        self.board = board
        self.kerf = kerf
        self.most = most
        self.blocks = blocks_of(sizes, most, board, kerf)
        self.sizes = len(sizes)
        self.steps = 0
        self.known: dict[tuple[int, int], dict[Counts, Tree]] = {}
        heights = sorted({block.high + kerf for block in self.blocks})
        widths = sorted({block.wide + kerf for block in self.blocks})
        self.heights = _sums(heights, board.thickness + kerf)
        self.widths = _sums(widths, board.inner + kerf)

    def fill(self, high: int, wide: int) -> dict[Counts, Tree]:
        known = self.known.get((high, wide))
        if known is None:
            known = self.known[high, wide] = _undominated(self._found(high, wide))
            if len(known) > _MOST_PATTERNS:
                raise _TooMany
        return known

    def _found(self, high: int, wide: int) -> dict[Counts, Tree]:
        found: dict[Counts, Tree] = {(0,) * self.sizes: None}
        for block in self.blocks_in(high, wide):
            found.setdefault(block.counts, block)
        for along, at, first, second in self.cuts(high, wide):
            self._combine(found, self.fill(*first), self.fill(*second), Cut(along, at, None, None))
        return found

    def blocks_in(self, high: int, wide: int) -> Iterator[Block]:
        """The blocks that a region holds one of."""
        for block in self.blocks:
            if block.high + self.kerf <= high and block.wide + self.kerf <= wide:
                yield block

    def cuts(self, high: int, wide: int) -> Iterator[tuple[bool, int, Region, Region]]:
        """The rips of a region: whether along the width, where, and the two regions it leaves."""
        may_rip = self.board.rips(high - self.kerf)
        for at in (w for w in self.widths if 0 < w <= wide // 2 + 1 and may_rip):
            rest = shrunk(self.widths, wide - at)
            if rest:
                yield True, at, (high, at), (high, rest)
        may_resaw = self.board.resaws(wide - self.kerf)
        for at in (h for h in self.heights if 0 < h <= high // 2 + 1 and may_resaw):
            rest = shrunk(self.heights, high - at)
            if rest:
                yield False, at, (at, wide), (rest, wide)

    @property
    def are_too_many(self) -> bool:
        """Whether there are more regions than can be gone through."""
        return len(self.heights) * len(self.widths) > _MOST_REGIONS

    @property
    def whole(self) -> Region:
        """The region of the whole section."""
        return self.heights[-1], self.widths[-1]

    def pattern(self, tree: Tree) -> RipPattern:
        """The pattern that a tree of cuts makes."""
        strips = tuple(_strips(tree, self.board.low, 0))
        counts = [0] * self.sizes
        for strip in strips:
            counts[strip.size] += 1
        return RipPattern(tuple(counts), strips)

    def _combine(
        self,
        found: dict[Counts, Tree],
        first: dict[Counts, Tree],
        second: dict[Counts, Tree],
        cut: Cut,
    ) -> None:
        self.steps += len(first) * len(second)
        if self.steps > _MOST_STEPS:
            raise _TooMany
        every = np.array(list(first))[:, None] + np.array(list(second))[None]
        every = np.minimum(every, self.most).reshape(-1, self.sizes)
        trees, second_trees = list(first.values()), list(second.values())
        for number, both in enumerate(map(tuple, every.tolist())):
            if both not in found:
                one, other = divmod(number, len(second))
                found[both] = Cut(cut.along, cut.at, trees[one], second_trees[other])


def shrunk(reachable: Sequence[int], size: int) -> int:
    """The largest reachable size that is no more than this one; ``reachable`` begins with 0."""
    return reachable[bisect_right(reachable, size) - 1]


@lru_cache(64)
def rip_patterns(
    board: BoardSection, kerf: int, sizes: tuple[StripSize, ...], most: tuple[int, ...]
) -> list[RipPattern] | None:
    """The patterns of a board's section that no other pattern contains; ``None`` when they are too
    many to list.

    Every rip goes straight through what is left, with a ``kerf`` between strips (ticks); a region
    may be wider or thicker than its strip, which is then sawn to size. No pattern has more strips
    of a size than ``most``. A strip as wide as the board keeps its edges.
    """
    regions = Regions(board, kerf, sizes, most)
    try:
        trees = regions.fill(*regions.whole)
    except _TooMany:
        return None
    patterns = [regions.pattern(tree) for tree in trees.values() if tree is not None]
    patterns += whole_strips(board, sizes, most)
    return sorted(patterns, key=lambda p: (-sum(p.counts), p.counts))


def whole_strips(
    board: BoardSection, sizes: Sequence[StripSize], most: Sequence[int]
) -> list[RipPattern]:
    """The patterns of one strip that is as wide as the board, where that is not found otherwise:
    its edges are not eased, the saw that bevels them runs out of the board, or it is the board as
    it is."""
    if board.crooked:
        return []
    patterns = []
    for number, size in enumerate(sizes):
        if not most[number] or not (board.is_eased or size.is_bevelled or size.whole):
            continue
        ways = size.lying(board)
        h = next((h for h, w in ways if w == board.width and h <= board.thickness), None)
        if h is not None:
            counts = tuple(int(n == number) for n in range(len(sizes)))
            strip = Strip(number, (0, board.width), (0, h), edges=size.edges)
            patterns.append(RipPattern(counts, (strip,)))
    return patterns


def _strips(tree: Tree, y: int, z: int) -> Iterator[Strip]:
    """The strips of a tree whose region begins at a corner."""
    if tree is None:
        return
    if isinstance(tree, Cut):
        if tree.first is None:  # nothing lies before what is wanted
            yield from _strips(tree.second, y, z)
            return
        yield from _strips(tree.first, y, z)
        yield from _strips(
            tree.second, y + (tree.at if tree.along else 0), z + (0 if tree.along else tree.at)
        )
        return
    for laid in tree.strips:
        across = y + laid.at, y + laid.at + laid.wide
        yield Strip(laid.size, across, (z, z + tree.high), laid.way, laid.edges)
