"""What a board holds that is crosscut into segments, each of them ripped into strips, and these
crosscut into parts.

A strip is as thick and as wide as the parts in it. Sizes along the board are as in ``boards``: what
is told to have no room has none.
"""

from collections.abc import Iterator, Sequence
from functools import cache, cached_property
from itertools import product
from math import lcm, prod

from carpentry.cutting.problem import CutProblem, Order, StockPiece
from carpentry.proof.boards import Loads, Piece, TooMany
from carpentry.proof.sections import Counts, Section, Size, strip_patterns

_MOST_DIVIDED = 4_000  # ways to share a load out among segments
_MOST_STRIPS = 10  # pieces along strips of one section, of which every way is tried
_MOST_STEPS = 20_000
_MOST_COUNTED = 10_000  # for shares that are parts of one


class Sawing:
    """How boards of one section come apart into some ``pieces``, whatever their length."""

    def __init__(
        self,
        problem: CutProblem,
        section: Size,
        pieces: Sequence[Piece],
        fitting: Sequence[bool],
    ) -> None:
        parts = {part.id: part for part in problem.parts}
        of = [Section.of(parts[piece.parts[0]], problem.saw) for piece in pieces]
        self.pieces = pieces
        self.board = section
        self.kerf = problem.kerf
        self.fits = [may and one.fits(section) for may, one in zip(fitting, of, strict=True)]
        fitting_sections = (one for one, fits in zip(of, self.fits, strict=True) if fits)
        self.sections = list(dict.fromkeys(fitting_sections))
        self.section_of = [
            self.sections.index(one) if fits else -1
            for one, fits in zip(of, self.fits, strict=True)
        ]
        crossed = problem.saw.crosses(section[1], section[0])
        self.one_segment = problem.order is Order.RIP_FIRST or not crossed
        self._shortest: dict[Counts, int] = {}
        self._alone: dict[Counts, int] = {}

    @cached_property
    def patterns(self) -> list[Counts]:
        """How many strips of each section lie side by side. Raises ``TooMany``."""
        return strip_patterns(self.board, self.kerf, self.sections)

    def shares(self) -> Iterator[Counts]:
        """Ways to give every section a share of a board's: by how many of it there is room for, by
        area, and all alike, and each alone. Raises ``TooMany``."""
        most = [max(pattern[n] for pattern in self.patterns) for n in range(len(self.sections))]
        whole = lcm(*most)
        if whole <= _MOST_COUNTED:
            yield tuple(whole // n for n in most)
        areas = []
        for one in self.sections:
            high, wide = next(one.lying(self.board))
            areas.append((high + self.kerf) * (wide + self.kerf))
        yield tuple(areas)
        yield tuple(1 for _ in self.sections)
        for number in range(len(self.sections)) if len(self.sections) > 1 else ():
            yield tuple(int(n == number) for n in range(len(self.sections)))

    def shortest(self, counts: Counts) -> int:
        """The least length in which so many of each piece could be cut. Raises ``TooMany``."""
        known = self._shortest.get(counts)
        if known is not None:
            return known
        if prod(n + 1 for n in counts) > _MOST_DIVIDED:
            raise TooMany
        best = self._in_one_segment(counts)
        if not self.one_segment:
            first = next(n for n, count in enumerate(counts) if count)
            for part in product(*(range(n + 1) for n in counts)):
                if not part[first] or part == counts:
                    continue
                segment = self._in_one_segment(part)
                if segment < best:
                    rest = tuple(a - b for a, b in zip(counts, part, strict=True))
                    best = min(best, segment + self.shortest(rest))
        self._shortest[counts] = best
        return best

    def _in_one_segment(self, counts: Counts) -> int:
        known = self._alone.get(counts)
        if known is not None:
            return known
        sizes: list[list[int]] = [[] for _ in self.sections]
        for number, n in enumerate(counts):
            if n:
                sizes[self.section_of[number]] += [self.pieces[number].size] * n
        chains = [tuple(sorted(of, reverse=True)) for of in sizes]
        best = sum(map(sum, sizes)) + 1  # one behind the other is shorter
        for pattern in self.patterns:
            if all(n or not of for of, n in zip(chains, pattern, strict=True)):
                strips = zip(chains, pattern, strict=True)
                best = min(best, max(longest_strip(of, n) for of, n in strips if of))
        self._alone[counts] = best
        return best


@cache
def longest_strip(sizes: Counts, strips: int) -> int:
    """The least length of the longest of so many strips that hold sizes, the largest first, or
    somewhat less where they are many: no less than what the largest of them take."""
    if strips == 1:
        return sum(sizes)
    if strips >= len(sizes):
        return sizes[0]
    least = max(sizes[0], -(-sum(sizes) // strips), sizes[strips - 1] + sizes[strips])
    if len(sizes) > _MOST_STRIPS:
        return max(least, longest_strip(sizes[:_MOST_STRIPS], strips))
    best = sum(sizes)

    def share(at: int, loads: list[int]) -> None:
        nonlocal best
        if at == len(sizes):
            best = min(best, max(loads))
            return
        for number, load in enumerate(loads):
            if load + sizes[at] < best and best > least and load not in loads[:number]:
                loads[number] += sizes[at]
                share(at + 1, loads)
                loads[number] -= sizes[at]

    share(0, [0] * strips)
    return best


class RippedBoard:
    """What one piece of a stock holds."""

    def __init__(self, sawing: Sawing, problem: CutProblem, stock: StockPiece) -> None:
        self.sawing = sawing
        self.room = 2 * (problem.sound_length(stock) + problem.kerf)
        self._known: dict[Counts, bool] = {}

    def has_room(self, counts: Counts) -> bool:
        """Whether so many of each piece may be cut from it. Raises ``TooMany``."""
        known = self._known.get(counts)
        if known is None:
            fits = zip(counts, self.sawing.fits, strict=True)
            known = all(fits or not n for n, fits in fits) and self._views_have_room(counts)
            known = known and self.sawing.shortest(counts) <= self.room
            self._known[counts] = known
        return known

    @cached_property
    def _views(self) -> list[tuple[int, Counts]]:
        """Its room in every way to share its section, and what each piece takes of it."""
        sawing = self.sawing
        if not sawing.sections:
            return []
        found = []
        for share in sawing.shares():
            patterns = (zip(share, one, strict=True) for one in sawing.patterns)
            most = max(sum(s * n for s, n in one) for one in patterns)
            sizes = tuple(
                piece.size * share[section] if section >= 0 else 0
                for piece, section in zip(sawing.pieces, sawing.section_of, strict=True)
            )
            found.append((self.room * most, sizes))
        return found

    def _views_have_room(self, counts: Counts) -> bool:
        return all(
            sum(size * n for size, n in zip(sizes, counts, strict=True)) <= room
            for room, sizes in self._views
        )

    def most_worth(self, values: Sequence[int]) -> int:
        """The most that pieces with these values are worth together on it, or somewhat more: the
        least of what is said by shares of its section and by segments of every length, each without
        the other."""
        sawing = self.sawing
        here = [n for n, fits in enumerate(sawing.fits) if fits and values[n]]
        most = sum(values[n] * sawing.pieces[n].quantity for n in here)
        try:
            views = self._views
        except TooMany:
            return most
        for room, sizes in views:
            loads = Loads([(sizes[n], values[n], sawing.pieces[n].quantity) for n in here], room)
            if loads.is_complete:
                most = min(most, loads.most(room))
        return min(most, self._most_in_segments(values, most))

    def _most_in_segments(self, values: Sequence[int], most: int) -> int:
        """What segments hold at the most, whatever the others hold."""
        sawing = self.sawing
        strips, wanted = [], []
        for number in range(len(sawing.sections)):
            of = [
                (sawing.pieces[n].size, values[n], sawing.pieces[n].quantity)
                for n, section in enumerate(sawing.section_of)
                if section == number and values[n]
            ]
            strips.append(Loads(of, self.room))
            wanted.append(sum(value * quantity for _, value, quantity in of))
        if not all(one.is_complete for one in strips):
            return most
        held: list[tuple[int, int]] = []
        for length in sorted({size for one in strips for size in one.sizes if size}):
            one_strip = [one.most(length) for one in strips]
            worth = max(
                sum(min(n * one, all_) for n, one, all_ in zip(p, one_strip, wanted, strict=True))
                for p in sawing.patterns
            )
            if not held or worth > held[-1][1]:
                held.append((length, worth))
        if sawing.one_segment:
            return held[-1][1] if held else 0
        return _most_of(held, self.room)


def _most_of(held: Sequence[tuple[int, int]], room: int) -> int:
    """The most that segments (length, worth) come to in some room, the densest first (branch and
    bound), or somewhat more."""
    order = sorted(held, key=lambda one: one[0] / one[1])
    best = steps = 0

    def fill(first: int, left: int, worth: int) -> None:
        nonlocal best, steps
        best = max(best, worth)
        for number in range(first, len(order)):
            length, more = order[number]
            if worth + more * left // length <= best:
                return
            if length <= left:
                steps += 1
                if steps > _MOST_STEPS:
                    best = worth + more * left // length
                    return
                fill(number, left - length, worth + more)

    fill(0, room, 0)
    return best
