"""The most valuable way to rip a section, for many segment lengths at once."""

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

from carpentry.cutting.cross_section import (
    BoardSection,
    Cut,
    Regions,
    RipPattern,
    StripSize,
    Tree,
    rip_patterns,
    whole_strips,
)

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

    def best(self, worths: Ints, caps: Ints) -> Ints:
        """The greatest worth of the section for each length. ``worths`` of one strip and ``caps``
        of all strips that are wanted: one row per strip size, one column per length."""
        if self.patterns is None:
            every: Ints = np.minimum(self._guillotine(worths)[0], caps.sum(axis=0))
            for pattern in self._whole:
                every = np.maximum(every, self._worth(pattern, worths, caps))
            return every
        best: Ints = np.zeros(worths.shape[1], dtype=np.int64)
        for pattern in self.patterns:
            best = np.maximum(best, self._worth(pattern, worths, caps))
        return best

    def pattern(self, worths: Ints, caps: Ints, at: int) -> RipPattern:
        """The pattern that is best at one length."""
        one, cap = worths[:, at : at + 1], caps[:, at : at + 1]
        if self.patterns is None:
            found = self._regions.pattern(self._guillotine(one)[1])
            choices = (found, *self._whole)
            return max(choices, key=lambda p: int(self._worth(p, one, cap)[0]))
        return max(self.patterns, key=lambda p: int(self._worth(p, one, cap)[0]))

    @staticmethod
    def _worth(pattern: RipPattern, worths: Ints, caps: Ints) -> Ints:
        total = np.zeros(worths.shape[1], dtype=np.int64)
        for size, count in enumerate(pattern.counts):
            if count:
                total += np.minimum(worths[size] * count, caps[size])
        return total

    def _guillotine(self, worths: Ints) -> tuple[Ints, Tree]:
        """The greatest worth over every region, and the cuts that give it at the first length."""
        regions = self._regions
        best: dict[tuple[int, int], tuple[Ints, Tree]] = {}
        for high in regions.heights:
            for wide in regions.widths:
                worth: Ints = np.zeros(worths.shape[1], dtype=np.int64)
                tree: Tree = None
                for number, h, w in regions.strips_in(high, wide):
                    if worths[number][0] > worth[0]:
                        tree = (number, h, w)
                    worth = np.maximum(worth, worths[number])
                for along, at, first, second in regions.cuts(high, wide):
                    both = best[first][0] + best[second][0]
                    if both[0] > worth[0]:
                        tree = Cut(along, at, best[first][1], best[second][1])
                    worth = np.maximum(worth, both)
                best[high, wide] = worth, tree
        return best[regions.whole]
