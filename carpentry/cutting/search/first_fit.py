"""First-fit decreasing: the plan a careful builder makes with a pencil. Quick, never proven."""

from collections.abc import Iterator, Sequence

import numpy as np
import numpy.typing as npt

from carpentry.cutting.search.model import FilledBoard, Model, Packing


def first_fit(
    model: Model, order: Sequence[int], demand: Sequence[int], gone: Sequence[int] = ()
) -> Packing:
    """Longest parts first, each onto the first open board that holds it, else onto a new piece of
    the first source in ``order`` that holds it and is not used up. Then every board is
    exchanged for the cheapest piece that holds the same parts."""
    sources = model.sources
    used = list(gone) or [0] * len(sources)
    missing = [0] * len(model.sizes)
    opened: list[int] = []  # the source of every board
    held: list[list[tuple[int, int]]] = []  # item and how many of it
    room: npt.NDArray[np.int64] = np.zeros(64, dtype=np.int64)
    for item, size in enumerate(model.sizes):
        left = demand[item]
        if not left:
            continue
        fits = room[: len(opened)] // size
        for at in map(int, np.flatnonzero(fits)):
            taken = min(left, int(fits[at]))
            held[at].append((item, taken))
            room[at] -= taken * size
            left -= taken
            if not left:
                break
        while left:
            source = next(
                (s for s in order if sources[s].kind >= size and used[s] < sources[s].limit), None
            )
            if source is None:
                missing[item] += left
                break
            taken = min(left, sources[source].kind // size)
            used[source] += 1
            opened.append(source)
            held.append([(item, taken)])
            if len(opened) > len(room):
                room = np.concatenate([room, np.zeros_like(room)])
            room[len(opened) - 1] = sources[source].kind - taken * size
            left -= taken
    boards = []
    for at, source in enumerate(opened):
        need = sources[source].kind - int(room[at])
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
        counts = [0] * len(model.sizes)
        for item, taken in held[at]:
            counts[item] += taken
        boards.append(FilledBoard(cheapest, tuple(counts)))
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
