"""Of equal purchases, the one that leaves most for the next project: the longest single leftover,
or most length in leftovers that are worth keeping."""

from collections.abc import Sequence

from carpentry.cutting.line.model import LineModel
from carpentry.cutting.problem import CutProblem
from carpentry.cutting.search.covering import Relaxation, dive
from carpentry.cutting.search.holding import Bin, Holder
from carpentry.cutting.search.model import FilledBoard, Packing

_MOST_TRIES, _FEW_TRIES, _MANY_ITEMS = 14, 5, 30


def lengthen_leftover(
    problem: CutProblem, holder: Holder, line: LineModel, packing: Packing
) -> Packing:
    """The same purchase with the best leftovers that a few tries find; ``holder`` is the one that
    ``line`` was searched with."""
    best = packing
    worth = _worth_keeping(problem, line, packing)
    demand = [d - m for d, m in zip(line.demand, packing.missing, strict=True)]
    counts = [0] * len(line.sources)
    for board in packing.boards:
        counts[board.source] += 1
    tries, most = 0, _MOST_TRIES if len(line.sizes) <= _MANY_ITEMS else _FEW_TRIES

    def rest_of(board: FilledBoard) -> int:
        if line.sources[board.source].kind < 0:
            return 0
        held = sum(n * w for n, w in zip(board.pattern, line.sizes, strict=True))
        return line.sources[board.source].kind - held

    longest = max(map(rest_of, packing.boards), default=0)
    total_rest = sum(map(rest_of, packing.boards))
    by_capacity = sorted(range(len(counts)), key=lambda s: -line.sources[s].kind)
    for source in (s for s in by_capacity if counts[s] and line.sources[s].kind >= 0):
        capacity = line.sources[source].kind
        low, high = longest, min(capacity - line.sizes[-1], total_rest)
        while high > low and tries < most and not holder.clock.is_over:
            tries += 1
            wanted = high if tries == 1 else (low + high + 1) // 2
            boards = _with_rest(
                holder, counts, Bin(line.sources[source].kind - wanted, 1, source), demand
            )
            if boards is None:
                high = wanted - 1
                continue
            found = Packing(boards, packing.missing)
            low = longest = max(map(rest_of, boards))
            if _worth_keeping(problem, line, found) >= worth:
                best, worth = found, _worth_keeping(problem, line, found)
    return best


def _worth_keeping(problem: CutProblem, line: LineModel, packing: Packing) -> int:
    """Ticks in leftovers that are long enough to be kept; 0 where no length is said."""
    if not problem.keep_offcut_from:
        return 0
    pieces = {piece.id: piece for piece in problem.stock}
    total = 0
    for board in packing.boards:
        if line.sources[board.source].kind < 0:
            continue
        held = [(n, shape) for n, shape in zip(board.pattern, line.shapes, strict=True) if n]
        used = sum(
            n * (shape.length + sum(end.saw(problem.kerf) for end in shape.ends) - problem.kerf)
            for n, shape in held
        )
        rest = problem.sound_length(pieces[line.sources[board.source].stock]) - used
        total += rest if rest >= problem.keep_offcut_from else 0
    return total


def _with_rest(
    holder: Holder, counts: Sequence[int], shorter: Bin, demand: Sequence[int]
) -> tuple[FilledBoard, ...] | None:
    """The demand on the same pieces, one of them made ``shorter``, or ``None``."""
    bins = [
        Bin(source.kind, n - (index == shorter.source), index)
        for index, (source, n) in enumerate(zip(holder.model.sources, counts, strict=True))
    ]
    relaxation = Relaxation(holder, [*bins, shorter], demand)
    solved = relaxation.solve()
    if solved is None or solved[0] > 0:
        return None
    ended = dive(relaxation, solved[1])
    whole = ended.is_complete and len(ended.boards) == sum(counts)
    return ended.boards if whole else None
