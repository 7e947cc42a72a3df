"""Board after board, each the one that gives most for its price: what a quick builder does."""

from collections.abc import Sequence

from carpentry.cutting.search.model import FilledBoard, Model, Packing, Pattern

_MOST_BOARDS = 400


def greedy(
    model: Model, demand: Sequence[int], used: Sequence[int], values: Sequence[int]
) -> Packing:
    """Board after board, each the one that gives most worth for its price; ended where that is
    cheapest by the cheapest board that holds all the rest."""
    left, gone = list(demand), list(used)
    boards: list[FilledBoard] = []
    ended: list[Packing] = []
    while any(left) and len(boards) < _MOST_BOARDS:
        open_sources = [s for s, source in enumerate(model.sources) if gone[s] < source.limit]
        best = model.best_for([model.sources[s].kind for s in open_sources], values, left)
        choices = []
        for s, (_, pattern) in zip(open_sources, best, strict=True):
            worth = sum(v * n for v, n in zip(values, pattern, strict=True))
            if worth:
                choices.append((-worth / (model.sources[s].cost or 0.01), s, pattern))
        if not choices:
            break
        whole = [s for _, s, pattern in choices if list(pattern) == left]
        if whole:
            last = min(whole, key=lambda s: model.sources[s].cost)
            nothing = tuple(0 for _ in left)
            ended.append(Packing((*boards, FilledBoard(last, tuple(left))), nothing))
        _, source, pattern = min(choices)
        times = min(r // n for n, r in zip(pattern, left, strict=True) if n)
        times = max(1, min(times, model.sources[source].limit - gone[source]))
        boards += [FilledBoard(source, pattern)] * times
        gone[source] += times
        left = [r - n * times for r, n in zip(left, pattern, strict=True)]
    packing = _cheapened(model, Packing(tuple(boards), tuple(left)), gone)
    return min((packing, *ended), key=lambda one: one.key(model))


def _cheapened(model: Model, packing: Packing, gone: list[int]) -> Packing:
    """Every board exchanged for the cheapest piece that holds the same."""
    boards = []
    for board in packing.boards:
        best = board.source
        for s in sorted(range(len(model.sources)), key=lambda s: model.sources[s].cost):
            if model.sources[s].cost >= model.sources[board.source].cost:
                break
            if gone[s] < model.sources[s].limit and _can_hold(model, s, board.pattern):
                best = s
                break
        gone[board.source] -= 1
        gone[best] += 1
        boards.append(FilledBoard(best, board.pattern))
    return Packing(tuple(boards), packing.missing)


def _can_hold(model: Model, source: int, pattern: Pattern) -> bool:
    if not all(model.holds(source, item) for item, n in enumerate(pattern) if n):
        return False
    (_, found), *_ = model.best_for([model.sources[source].kind], model.sizes, pattern)
    return found == pattern
