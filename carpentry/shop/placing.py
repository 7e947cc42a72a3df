"""A place for parts that lost their own, changing as little as can be.

A lost part goes where nothing else has to change: into what is left over, or into a piece that was
cut wrong. Else one piece that is not cut yet is cut otherwise, so that it fits there too. Else it
takes a board more, the cheapest that holds it.
"""

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from decimal import Decimal

from carpentry.cutting import (
    Budget,
    CutPart,
    CutPlan,
    CutProblem,
    Layout,
    StockPiece,
    plan_cuts,
)
from carpentry.language import Notation, Unit, write_money
from carpentry.lumber import Section
from carpentry.shop.bench import Bench, Key
from carpentry.shop.bench_cuts import BenchBoard
from carpentry.shop.tools import Tools
from carpentry.shop.tree import (
    Labelled,
    box_of,
    checked,
    grafted,
    has_square_edges,
    parts_in,
    slants,
    under,
    unsound,
    without,
)

_SECONDS = 0.25
_MOST_LEAVES, _MOST_TRIED = 60, 8
_FREE = Decimal(0)


@dataclass(frozen=True)
class Sold:
    """What of one wood can be had beside the boards on the bench: a length of a stock, with its
    section, its price as it is paid, and how it is ``called``."""

    id: str
    stock: str
    called: str
    length: int
    section: Section | None
    price: Decimal | None


@dataclass(frozen=True)
class Supply:
    """What the boards on a bench were planned from: the cut problem of every wood, by index, and
    what is sold of it, by the ids of its stock."""

    problems: Sequence[CutProblem | None]
    sold: Sequence[Mapping[str, Sold]]
    unit: Unit
    notation: Notation
    currency: str
    tools: Tools

    def problem(self, board: BenchBoard) -> CutProblem:
        problem = self.problems[board.material]
        assert problem is not None  # its boards were planned from it
        return problem


@dataclass
class Work:
    """A change under way: the bench as it is then, and what has no place."""

    bench: Bench
    supply: Supply
    lost: list[Labelled] = field(default_factory=list)
    material: int = -1
    touched: set[int] = field(default_factory=set)
    fresh: set[Key] = field(default_factory=set)
    said: list[str] = field(default_factory=list)

    def put(self, board: BenchBoard) -> None:
        self.bench = replace(self.bench, boards={**self.bench.boards, board.number: board})
        self.touched.add(board.number)


@dataclass(frozen=True)
class _Spot:
    """A piece that parts may be cut from, as stock of a cut problem."""

    board: int
    piece: int
    stock: StockPiece


def place(work: Work) -> dict[str, str]:
    """Finds a place for what has lost its own; returns what has none, by label."""
    problem = work.supply.problems[work.material]
    if not work.lost or problem is None:
        return {}
    leaves = list(_leaves(work))
    found = _planned(work, problem, work.lost, leaves)
    if found is not None and not found.unplaced:
        _apply(work, found, work.lost, leaves)
        return {}
    for spot in _uncut(work):
        board = work.bench.boards[spot.board]
        parts = [*work.lost, *parts_in(board, spot.piece)]
        inside = under(board, spot.piece)
        spots = [one for one in leaves if one.board != spot.board or one.piece not in inside]
        spots.append(spot)
        found = _planned(work, problem, parts, spots)
        if found is not None and not found.unplaced:
            work.put(without(board, spot.piece))
            _apply(work, found, parts, spots)
            work.said.append(f"board {spot.board} is cut otherwise")
            return {}
    return _buy(work, problem, leaves)


def _leaves(work: Work) -> Iterator[_Spot]:
    """What is left over of the boards of a wood: offcuts that are kept, and what is still to be cut
    off as waste; the largest first."""
    found = []
    for number, board in work.bench.boards.items():
        if board.material != work.material:
            continue
        there, to_come = set(work.bench.there(number)), work.bench.to_come(number)
        for one in board.pieces:
            thrown_away = one.number in there and not one.keep
            if one.part or one.number not in to_come or thrown_away:
                continue
            spot = _spot(work, number, one.number)
            if spot:
                found.append(spot)
    found.sort(key=lambda spot: -spot.stock.length)
    yield from found[:_MOST_LEAVES]


def _uncut(work: Work) -> list[_Spot]:
    """The pieces of a wood that are there and not cut yet, those with the fewest parts first."""
    found = []
    for number, board in work.bench.boards.items():
        if board.material != work.material:
            continue
        for piece in work.bench.there(number):
            parts = len(parts_in(board, piece))
            spot = _spot(work, number, piece) if parts and piece not in board.labels else None
            if spot:
                found.append((parts, number, spot))
    found.sort(key=lambda one: one[:2])
    return [spot for _, _, spot in found[:_MOST_TRIED]]


def _spot(work: Work, number: int, piece: int) -> _Spot | None:
    """A piece as stock; ``None`` where its edges are bevelled."""
    board = work.bench.boards[number]
    lying = work.bench.lying(number)[piece]
    if not has_square_edges(lying):
        return None
    box = box_of(lying)
    length, width, thickness = box.size
    if min(box.size) < 1:
        return None
    sized = {} if board.section is None else {"thickness": thickness, "width": width}
    flaws = tuple(unsound(board, box, slants(lying)))
    stock = StockPiece(f"{number}.{piece}", length, _FREE, 1, flaws=flaws, **sized)
    return _Spot(number, piece, stock)


def _planned(
    work: Work,
    problem: CutProblem,
    lost: Sequence[Labelled],
    spots: Sequence[_Spot],
    sold: Sequence[StockPiece] = (),
) -> CutPlan | None:
    """A plan for parts from pieces that are there, and from what is sold; ``None`` without any."""
    count = Counter(placed.part for placed, _ in lost)
    parts = [_alone(work, part, count[part.id], spots, sold) for part in problem.parts]
    wanted = tuple(part for part in parts if part is not None)
    stock = (*(spot.stock for spot in spots), *sold)
    if not stock or sum(part.quantity for part in wanted) < len(lost):
        return None
    sized = all(piece.width is not None for piece in stock)
    if not sized:
        stock = tuple(replace(piece, width=None, thickness=None) for piece in stock)
        wanted = tuple(replace(one, width=None, thickness=None) for one in wanted)
    asked = replace(
        problem,
        stock=stock,
        parts=wanted,
        trim_start=problem.trim_start if sold else 0,
        trim_end=problem.trim_end if sold else 0,
        owned_first=False,
    )
    return plan_cuts(asked, Budget(_SECONDS))


def _alone(
    work: Work,
    part: CutPart,
    count: int,
    spots: Sequence[_Spot],
    sold: Sequence[StockPiece],
) -> CutPart | None:
    """A part that is looked for a place for; ``None`` where it is not, or where none of the pieces
    is of the stock that it names."""
    if not count:
        return None
    on: tuple[str, ...] = ()
    if part.on:
        boards = work.bench.boards
        on = tuple(s.stock.id for s in spots if boards[s.board].offer in part.on)
        on += tuple(piece.id for piece in sold if piece.id in part.on)
        if not on:
            return None
    return replace(part, quantity=count, on=on, together="", show=False, clear=True)


def _apply(work: Work, plan: CutPlan, lost: Sequence[Labelled], spots: Sequence[_Spot]) -> None:
    """Cuts pieces, and boards that are bought, as a plan says."""
    known = {spot.stock.id: spot for spot in spots}
    waiting: dict[str, list[str]] = {}
    for placed, label in lost:
        waiting.setdefault(placed.part, []).append(label)
    for layout in plan.layouts:
        for _ in range(layout.count):
            labels = [waiting[placed.part].pop(0) for placed in layout.parts]
            spot = known.get(layout.stock)
            if spot:
                board = work.bench.boards[spot.board]
                box = box_of(work.bench.lying(spot.board)[spot.piece])
                made = grafted(board, spot.piece, layout, box, labels)
                where = f"what is left of board {spot.board}"
                if (spot.board, spot.piece) in work.fresh:
                    where = f"the piece of board {spot.board} that was cut wrong"
            else:
                made = _bought(work, layout, labels)
                where = _told_bought(work, made)
            problem = work.supply.problem(made)
            checked(problem, made)
            work.put(made)
            fresh = [label for label in labels if label in {one for _, one in work.lost}]
            if fresh:
                work.said.append(f"{' '.join(fresh)} {_comes(fresh)} from {where}")


def _comes(labels: Sequence[str]) -> str:
    return "comes" if len(labels) == 1 else "come"


def _bought(work: Work, layout: Layout, labels: Sequence[str]) -> BenchBoard:
    """One more board, with the next number."""
    sold = work.supply.sold[work.material][layout.stock]
    like = next(b for b in work.bench.boards.values() if b.material == work.material)
    board = BenchBoard(
        number=max(work.bench.boards) + 1,
        stock=sold.stock,
        length=sold.length,
        section=sold.section,
        cuts=layout.cuts,
        pieces=layout.pieces,
        material=work.material,
        offer=sold.id,
        called=sold.called,
        price=sold.price,
        trims=like.trims,
        shapes=like.shapes,
    )
    return board.holding(zip(layout.parts, labels, strict=True))


def _told_bought(work: Work, board: BenchBoard) -> str:
    price = "" if board.price is None else f", {write_money(board.price, work.supply.currency)}"
    return f"one more {board.stock} {board.called}{price}: board {board.number}"


def _buy(work: Work, problem: CutProblem, leaves: Sequence[_Spot]) -> dict[str, str]:
    """A board more, or several, the cheapest that hold what finds no place in what is left over;
    what none holds is told."""
    lost = list(work.lost)
    found = _planned(work, problem, lost, leaves)
    if found is not None:
        here, lost = _split(lost, found)
        _apply(work, found, here, leaves)
    used = Counter(board.offer for board in work.bench.boards.values())
    sold = [
        replace(
            piece,
            available=None if piece.available is None else max(0, piece.available - used[piece.id]),
        )
        for piece in problem.stock
        if piece.id in work.supply.sold[work.material]
    ]
    sold = [piece for piece in sold if piece.available != 0]
    found = _planned(work, problem, lost, [], sold)
    if found is None:
        return {label: placed.part for placed, label in lost}
    held, missing = _split(lost, found)
    _apply(work, found, held, [])
    return {label: placed.part for placed, label in missing}


def _split(lost: Sequence[Labelled], plan: CutPlan) -> tuple[list[Labelled], list[Labelled]]:
    """Parts that a plan places, and those that it does not."""
    short = Counter({one.part: one.quantity for one in plan.unplaced})
    held: list[Labelled] = []
    missing: list[Labelled] = []
    for placed, label in lost:
        is_short = short[placed.part] > 0
        short[placed.part] -= is_short
        (missing if is_short else held).append((placed, label))
    return held, missing


def told(work: Work, missing: Mapping[str, str]) -> str:
    said = list(dict.fromkeys(work.said))
    if missing:
        labels = " ".join(sorted(missing))
        said.append(f"there is no board for {labels}: add one at the desk, or at the yard")
    if not said:
        return "nothing else changes"
    return "; ".join(said)
