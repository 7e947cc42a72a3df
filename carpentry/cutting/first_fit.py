"""First-fit decreasing: the plan a careful builder makes with a pencil. Quick, never proven."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from carpentry.cutting.line import Line
from carpentry.cutting.patterns import Pattern


@dataclass(frozen=True)
class Board:
    """One piece of a source (its index) and how many of each item lie on it."""

    source: int
    pattern: Pattern


@dataclass(frozen=True)
class Packing:
    """Boards that hold what ``missing`` (per item) leaves out."""

    boards: tuple[Board, ...]
    missing: tuple[int, ...]

    def key(self, line: Line) -> tuple[int, int, int]:
        """What is minimised: parts left out, cost, pieces."""
        cost = sum(line.sources[board.source].cost for board in self.boards)
        return sum(self.missing), cost, len(self.boards)


def first_fit(line: Line, order: Sequence[int], demand: Sequence[int]) -> Packing:
    """Longest parts first, each onto the first open board that holds it, else onto a new piece of
    the first source in ``order`` that holds it and is not used up. Then every board is
    exchanged for the cheapest piece that holds the same parts."""
    open_boards: list[tuple[int, list[int], int]] = []
    used = [0] * len(line.sources)
    missing = [0] * len(line.sizes)
    room: list[int] = []
    for item, size in enumerate(line.sizes):
        first = 0
        for _ in range(demand[item]):
            at = next((b for b in range(first, len(room)) if room[b] >= size), None)
            if at is None:
                source = next(
                    (
                        s
                        for s in order
                        if line.sources[s].capacity >= size and used[s] < line.sources[s].limit
                    ),
                    None,
                )
                if source is None:
                    missing[item] += 1
                    continue
                used[source] += 1
                open_boards.append((source, [0] * len(line.sizes), 0))
                room.append(line.sources[source].capacity)
                at = len(room) - 1
            open_boards[at][1][item] += 1
            room[at] -= size
            first = at
    boards = []
    for (source, counts, _), left in zip(open_boards, room, strict=True):
        need = line.sources[source].capacity - left
        cheapest = min(
            (
                s
                for s, candidate in enumerate(line.sources)
                if s == source or (candidate.capacity >= need and used[s] < candidate.limit)
            ),
            key=lambda s: (line.sources[s].cost, s != source, line.sources[s].capacity),
        )
        used[source] -= 1
        used[cheapest] += 1
        boards.append(Board(cheapest, tuple(counts)))
    return Packing(tuple(boards), tuple(missing))


def orders(line: Line) -> Iterator[tuple[int, ...]]:
    """Orders of sources worth trying: each first on its own, then by cost per length, then by
    length either way."""
    every = range(len(line.sources))
    by_value = sorted(every, key=lambda s: (line.sources[s].cost / line.sources[s].capacity, s))
    for source in every:
        yield (source, *(s for s in by_value if s != source))
    yield tuple(by_value)
    yield tuple(sorted(every, key=lambda s: line.sources[s].capacity))
    yield tuple(sorted(every, key=lambda s: -line.sources[s].capacity))


def best_first_fit(line: Line, demand: Sequence[int] | None = None) -> Packing:
    """The best packing of first-fit decreasing over all ``orders``."""
    wanted = line.demand if demand is None else demand
    packings = [first_fit(line, order, wanted) for order in orders(line)]
    if not packings:
        return Packing((), tuple(wanted))
    return min(packings, key=lambda packing: packing.key(line))
