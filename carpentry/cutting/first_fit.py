"""First-fit decreasing: the plan a careful builder makes with a pencil. Quick, never proven."""

from collections.abc import Iterator, Sequence

from carpentry.cutting.model import Board, Model, Packing


def first_fit(
    model: Model, order: Sequence[int], demand: Sequence[int], gone: Sequence[int] = ()
) -> Packing:
    """Longest parts first, each onto the first open board that holds it, else onto a new piece of
    the first source in ``order`` that holds it and is not used up. Then every board is
    exchanged for the cheapest piece that holds the same parts."""
    open_boards: list[tuple[int, list[int], int]] = []
    sources = model.sources
    used = list(gone) or [0] * len(sources)
    missing = [0] * len(model.sizes)
    room: list[int] = []
    for item, size in enumerate(model.sizes):
        first = 0
        for _ in range(demand[item]):
            at = next((b for b in range(first, len(room)) if room[b] >= size), None)
            if at is None:
                source = next(
                    (s for s in order if sources[s].kind >= size and used[s] < sources[s].limit),
                    None,
                )
                if source is None:
                    missing[item] += 1
                    continue
                used[source] += 1
                open_boards.append((source, [0] * len(model.sizes), 0))
                room.append(sources[source].kind)
                at = len(room) - 1
            open_boards[at][1][item] += 1
            room[at] -= size
            first = at
    boards = []
    for (source, counts, _), left in zip(open_boards, room, strict=True):
        need = sources[source].kind - left
        cheapest = min(
            (
                s
                for s, candidate in enumerate(sources)
                if s == source or (candidate.kind >= need and used[s] < candidate.limit)
            ),
            key=lambda s: (sources[s].cost, s != source, sources[s].kind),
        )
        used[source] -= 1
        used[cheapest] += 1
        boards.append(Board(cheapest, tuple(counts)))
    return Packing(tuple(boards), tuple(missing))


def orders(model: Model) -> Iterator[tuple[int, ...]]:
    """Orders of sources worth trying: each first on its own, then by cost per length, then by
    length either way."""
    sources = model.sources
    every = range(len(sources))
    by_value = sorted(every, key=lambda s: (sources[s].cost / sources[s].kind, s))
    for source in every:
        yield (source, *(s for s in by_value if s != source))
    yield tuple(by_value)
    yield tuple(sorted(every, key=lambda s: sources[s].kind))
    yield tuple(sorted(every, key=lambda s: -sources[s].kind))


def best_first_fit(
    model: Model, demand: Sequence[int] | None = None, gone: Sequence[int] = ()
) -> Packing:
    """The best packing of first-fit decreasing over all ``orders`` (sizes: longest first), when
    ``gone`` pieces of each source are used up already."""
    wanted = model.demand if demand is None else demand
    packings = [first_fit(model, order, wanted, gone) for order in orders(model)]
    if not packings:
        return Packing((), tuple(wanted))
    return min(packings, key=lambda packing: packing.key(model))
