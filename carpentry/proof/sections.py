"""Sections that parts have, and the strips of them that a board has room for side by side.

What is said of room is never too little: bevelled strips lie as close as they ever could, and each
cut is asked only for what it cannot do without.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cache
from itertools import product

from carpentry.cutting.problem import NO_LIMITS, CutPart, SawLimits
from carpentry.design.ends import is_angled
from carpentry.proof.boards import TooMany

Size = tuple[int, int]  # thickness and width
Counts = tuple[int, ...]
_MOST_PLACES = 120  # along a side of a section, at which it may be cut
_MOST_PATTERNS = 400  # ways to rip a section


@dataclass(frozen=True)
class Section:
    """A section that parts have, at its least: ``turn`` for one that may lie on its edge, ``rip``
    and ``resaw`` for what may be sawn of it, ``whole`` for that of the board whatever it is.
    ``over_all`` is how wide it is by itself, ``more`` what it takes beyond its size where it is
    sawn, ``saw`` what saws it."""

    thickness: int
    width: int
    turn: bool
    rip: bool
    resaw: bool
    whole: bool
    over_all: int = 0
    more: Size = (0, 0)
    saw: SawLimits = NO_LIMITS

    @classmethod
    def of(cls, part: CutPart, saw: SawLimits) -> "Section":
        thick, wide = part.thickness or 0, part.width or 0
        bevelled = is_angled(part.edges)
        if bevelled:  # of what neighbors that lean alike save, half is its own
            wide = max(1, wide - (sum(edge.reach(thick, 0) for edge in part.edges) + 1) // 2)
        return cls(
            thick,
            wide,
            part.turn and not bevelled,
            part.rip or bevelled,
            part.resaw,
            part.whole,
            part.width or 0,
            (part.extra.thickness, part.extra.width),
            saw,
        )

    def lying(self, board: Size) -> Iterator[Size]:
        """How it may lie in a board's section: what it takes through and across it."""
        if self.whole:
            yield board
            return
        ways = []
        if self.over_all <= board[1]:
            ways.append(((self.thickness, self.width), self.more))
        if self.turn and self.thickness != self.width:
            ways.append(((self.width, self.thickness), self.more[::-1]))
        for (high, wide), (more_high, more_wide) in ways:
            if high != board[0] and not (self.resaw and self.saw.resaws(wide)):
                continue
            if wide != board[1] and not (self.rip and self.saw.rips(high)):
                continue
            yield (
                high if high == board[0] else high + more_high,
                wide if wide == board[1] else wide + more_wide,
            )

    def fits(self, board: Size) -> bool:
        """Whether a board gives a strip of it at all."""
        return any(high <= board[0] and wide <= board[1] for high, wide in self.lying(board))


def strip_patterns(board: Size, kerf: int, sections: Sequence[Section]) -> list[Counts]:
    """How many strips of each section a board has room for side by side, sawn from side to side cut
    after cut: all that no other has more of (as in Gilmore and Gomory 1965).

    Raises ``TooMany``.
    """
    sizes = [(size, n) for n, one in enumerate(sections) for size in one.lying(board)]
    heights = _places([high for (high, _), _ in sizes], board[0], kerf)
    widths = _places([wide for (_, wide), _ in sizes], board[1], kerf)
    alone = [tuple(int(n == m) for m in range(len(sections))) for n in range(len(sections))]

    @cache
    def patterns(high: int, wide: int) -> tuple[Counts, ...]:
        found = {alone[n] for (h, w), n in sizes if h <= high and w <= wide}
        if not found:
            return ()
        halves = [((high, at), (high, wide - at - kerf)) for at in widths if at + kerf < wide]
        halves += [((at, wide), (high - at - kerf, wide)) for at in heights if at + kerf < high]
        for one, other in halves:
            both = product(patterns(*one), patterns(*other))
            found.update(tuple(a + b for a, b in zip(x, y, strict=True)) for x, y in both)
            if len(found) > _MOST_PATTERNS:
                found = set(_greatest(found))
            if len(found) > _MOST_PATTERNS:
                raise TooMany
        return tuple(_greatest(found))

    return sorted(patterns(*board))


def _greatest(patterns: set[Counts]) -> list[Counts]:
    """Those that no other has as much of everything as."""
    kept: list[Counts] = []
    for one in sorted(patterns, key=sum, reverse=True):
        if not any(all(a <= b for a, b in zip(one, other, strict=True)) for other in kept):
            kept.append(one)
    return kept


def _places(sizes: Sequence[int], side: int, kerf: int) -> list[int]:
    """Where a side may be cut: after as many of these sizes as there is room for."""
    found = {0}
    for size in set(sizes):
        for at in sorted(found):
            beyond = at
            while beyond + size + (kerf if beyond else 0) <= side:
                beyond += size + (kerf if beyond else 0)
                found.add(beyond)
            if len(found) > _MOST_PLACES:
                raise TooMany
    return sorted(found - {0})
