"""The most valuable way to rip a section, for many segment lengths at once."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from carpentry.cutting.ripped.blocks import Block, StripSize
from carpentry.cutting.ripped.rip_patterns import (
    Cut,
    Regions,
    RipPattern,
    Tree,
    rip_patterns,
    whole_strips,
)
from carpentry.cutting.ripped.section import BoardSection

Ints = npt.NDArray[np.int64]


class RipValues:
    """A board's section (ticks): over the list of its rip patterns where these are few, else over
    every region that rips can leave, where the worth may count more strips than are wanted."""

    def __init__(
        self, board: BoardSection, kerf: int, sizes: Sequence[StripSize], most: Sequence[int]
    ) -> None:
        self.patterns = rip_patterns(board, kerf, tuple(sizes), tuple(most))
        self._whole = whole_strips(board, sizes, most)
        self._regions = Regions(board, kerf, sizes, most)
        self._rough = self.patterns is None and self._regions.are_too_many

    def best(self, worths: Ints, caps: Ints) -> Ints:
        """The greatest worth of the section for each length. ``worths`` of one strip and ``caps``
        of all strips that are wanted: one row per strip size, one column per length."""
        if self.patterns is None:
            most = self._by_area(worths) if self._rough else self._guillotine(worths)[-1]
            every: Ints = np.minimum(most, caps.sum(axis=0))
            for pattern in self._whole:
                every = np.maximum(every, self._worth(pattern, worths, caps))
            return every
        return np.asarray(self._of_all(worths, caps).max(axis=0, initial=0), dtype=np.int64)

    def pattern(self, worths: Ints, caps: Ints, at: int) -> RipPattern:
        """The pattern that is best at one length."""
        one, cap = worths[:, at : at + 1], caps[:, at : at + 1]
        if self.patterns is None:
            tree = self._columns(one[:, 0], cap[:, 0]) if self._rough else self._tree(one)
            found = self._regions.pattern(tree)
            choices = (found, *self._whole)
            return max(choices, key=lambda p: int(self._worth(p, one, cap)[0]))
        return self.patterns[int(self._of_all(one, cap)[:, 0].argmax())]

    def _of_all(self, worths: Ints, caps: Ints) -> Ints:
        """The worth of every pattern (a row each) for each length."""
        counts = self._counts
        total: Ints = np.zeros((len(counts), worths.shape[1]), dtype=np.int64)
        for size in range(counts.shape[1]):
            total += np.minimum(counts[:, size, None] * worths[size], caps[size])
        return total

    @cached_property
    def _counts(self) -> Ints:
        """The strips of every pattern, a row each."""
        return np.array([pattern.counts for pattern in self.patterns or ()], dtype=np.int64)

    @staticmethod
    def _worth(pattern: RipPattern, worths: Ints, caps: Ints) -> Ints:
        total = np.zeros(worths.shape[1], dtype=np.int64)
        for size, count in enumerate(pattern.counts):
            if count:
                total += np.minimum(worths[size] * count, caps[size])
        return total

    def _by_area(self, worths: Ints) -> Ints:
        """What the section is worth at the most, by what its area with the kerf in is worth."""
        board, kerf = self._regions.board, self._regions.kerf
        whole = (board.thickness + kerf) * (board.inner + kerf)
        best: Ints = np.zeros(worths.shape[1], dtype=np.int64)
        for block in self._regions.blocks:
            area = (block.high + kerf) * (block.wide + kerf)
            worth = np.array(block.counts, dtype=np.int64) @ worths
            best = np.maximum(best, -(-worth * whole // area))
        return best

    def _columns(self, worths: Ints, caps: Ints) -> Tree:
        """Blocks stacked in columns side by side, the one that is worth most for its width first:
        a good way to rip a section, not the best one."""
        board, kerf = self._regions.board, self._regions.kerf
        room, left = board.inner + kerf, caps.copy()
        columns: list[tuple[Block, int]] = []
        while board.rips(board.thickness):
            choices = []
            for number, block in enumerate(self._regions.blocks):
                deep = (board.thickness + kerf) // (block.high + kerf)
                counts = np.array(block.counts, dtype=np.int64) * deep
                worth = int(np.minimum(counts * worths, left).sum())
                if worth and block.wide + kerf <= room:
                    choices.append((worth / (block.wide + kerf), -number, deep))
            if not choices:
                break
            _, number, deep = max(choices)
            block = self._regions.blocks[-number]
            columns.append((block, deep))
            left = np.maximum(left - np.array(block.counts, dtype=np.int64) * deep * worths, 0)
            room -= block.wide + kerf
        tree: Tree = None
        for block, deep in reversed(columns):
            column: Tree = block
            for _ in range(deep - 1):
                column = Cut(False, block.high + kerf, block, column)
            tree = column if tree is None else Cut(True, block.wide + kerf, column, tree)
        return tree

    def _guillotine(self, worths: Ints) -> Ints:
        """The greatest worth of every region, one row each, for each length."""
        found: Ints = np.zeros((len(self._steps), worths.shape[1]), dtype=np.int64)
        for number, step in enumerate(self._steps):
            if step.blocks:
                found[number] = (step.counts @ worths).max(axis=0)
            if len(step.firsts):
                both = found[step.firsts] + found[step.seconds]
                np.maximum(found[number], both.max(axis=0), out=found[number])
        return found

    def _tree(self, worths: Ints) -> Tree:
        """The cuts of the whole section that are worth most at one length."""
        found = self._guillotine(worths)[:, 0]

        def tree(number: int) -> Tree:
            step = self._steps[number]
            for block, counts in zip(step.blocks, step.counts, strict=True):
                if found[number] and (counts @ worths)[0] == found[number]:
                    return block
            if not found[number]:
                return None
            at = int((found[step.firsts] + found[step.seconds]).argmax())
            along, where = step.cuts[at]
            return Cut(along, where, tree(int(step.firsts[at])), tree(int(step.seconds[at])))

        return tree(len(self._steps) - 1)

    @cached_property
    def _steps(self) -> "list[_Step]":
        """The regions from the smallest to the whole section, each with what it is made from."""
        regions = self._regions
        keys = [(high, wide) for high in regions.heights for wide in regions.widths]
        numbers = {key: number for number, key in enumerate(keys)}
        steps = []
        for key in keys:
            ways: dict[tuple[int, int], tuple[bool, int]] = {}
            for along, at, first, second in regions.cuts(*key):
                ways.setdefault((numbers[first], numbers[second]), (along, at))
            pairs: Ints = np.array(list(ways), dtype=np.int64).reshape(-1, 2)
            blocks = list(regions.blocks_in(*key))
            counts: Ints = np.array([block.counts for block in blocks], dtype=np.int64)
            steps.append(_Step(blocks, counts, pairs[:, 0], pairs[:, 1], list(ways.values())))
        return steps


@dataclass(frozen=True)
class _Step:
    """A region: the blocks it holds one of, with their counts of strips, and the pairs of regions
    (by number) that a cut, along the width or not and where, leaves of it."""

    blocks: list[Block]
    counts: Ints
    firsts: Ints
    seconds: Ints
    cuts: list[tuple[bool, int]]
