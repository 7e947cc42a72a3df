"""A board's tree of cuts, changed in one place: a piece cut otherwise, moved cuts, new pieces."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from decimal import Decimal

from carpentry.cutting import Cut, CutProblem, Layout, PlacedPart, Saw, SawnPiece, StockPiece
from carpentry.cutting.replay import Piece, replay
from carpentry.cutting.sawing import with_cuts
from carpentry.design.edges import SQUARE_EDGES
from carpentry.language import PlanCheckError, Problem
from carpentry.shop.bench_cuts import BenchBoard, lying_pieces

Labelled = tuple[PlacedPart, str]
_ORDER = "the cuts are not in the allowed order"  # which a miscut may make another
_FREE = Decimal(0)


@dataclass(frozen=True)
class Box:
    """Where a piece lies on its board (ticks): along, across and through."""

    x: tuple[int, int]
    y: tuple[int, int]
    z: tuple[int, int]

    @property
    def size(self) -> tuple[int, int, int]:
        return self.x[1] - self.x[0], self.y[1] - self.y[0], self.z[1] - self.z[0]


def box_of(piece: Piece) -> Box:
    """The box round a piece."""
    x, y, z = ((round(low), round(high)) for low, high in piece.spans)
    return Box(x, y, z)


def slants(piece: Piece) -> tuple[int, int]:
    """How far its ends reach in from its outermost points, left and right (ticks)."""
    box = box_of(piece)
    ins = [0, 0]
    for side in piece.sides:
        if side.axis == 0 and any(side.lean):
            at = [side.where((0.0, y, z)) for y in piece.spans[1] for z in piece.spans[2]]
            if side.upper:
                ins[1] = max(ins[1], box.x[1] - round(min(at)))
            else:
                ins[0] = max(ins[0], round(max(at)) - box.x[0])
    return ins[0], ins[1]


def has_square_edges(piece: Piece) -> bool:
    """Whether its edges are square, whatever its ends are."""
    return all(side.axis == 0 or not any(side.lean) for side in piece.sides)


def unsound(board: BenchBoard, box: Box, ends: tuple[int, int] = (0, 0)) -> list[tuple[int, int]]:
    """The stretches of a piece that no part may lie on, from its near end (ticks): flaws, what is
    trimmed off the ends of its board, and what its own slanted ends take."""
    length = box.size[0]
    first, last = board.trims
    told = [
        (0, max(ends[0], first - box.x[0] if box.x[0] == 0 else 0)),
        (length - max(ends[1], last if box.x[1] == board.length else 0), length),
        *((start - box.x[0], end - box.x[0]) for start, end in board.flaws),
    ]
    clipped = ((max(0, start), min(length, end)) for start, end in told)
    return sorted((start, end) for start, end in clipped if start < end)


def under(board: BenchBoard, piece: int) -> set[int]:
    """A piece, and all that comes of it."""
    found = {piece}
    for cut in board.cuts:
        if cut.of in found:
            found |= {made for made in cut.makes if made is not None}
    return found


def parts_in(board: BenchBoard, piece: int) -> list[Labelled]:
    """The parts in a piece, with their labels, from the marked end."""
    found = [(board.placed[n], board.labels[n]) for n in under(board, piece) if n in board.labels]
    return sorted(found, key=lambda one: (one[0].start, one[0].y or (0, 0), one[0].z or (0, 0)))


def without(board: BenchBoard, piece: int) -> BenchBoard:
    """A board on which a piece is cut no further, and is waste."""
    inside = under(board, piece)
    kept = [(n, cut) for n, cut in board.numbered() if cut.of not in inside]
    pieces = [one for one in board.pieces if one.number not in inside]
    return replace(
        board,
        cuts=tuple(cut for _, cut in kept),
        numbers=tuple(n for n, _ in kept),
        pieces=tuple(sorted([*pieces, SawnPiece(piece)], key=lambda one: one.number)),
        labels={n: label for n, label in board.labels.items() if n not in inside},
        placed={n: one for n, one in board.placed.items() if n not in inside},
    )


def next_piece(board: BenchBoard) -> int:
    """A number that no piece of a board has."""
    made = (one for cut in board.cuts for one in (cut.of, *cut.makes) if one is not None)
    return max([0, *made, *(one.number for one in board.pieces)]) + 1


def keep(board: BenchBoard, piece: int) -> BenchBoard:
    """The same board with a piece that is worth keeping."""
    pieces = (replace(one, keep=True) if one.number == piece else one for one in board.pieces)
    return replace(board, pieces=tuple(pieces))


def grafted(
    board: BenchBoard, piece: int, layout: Layout, origin: Box, labels: Sequence[str]
) -> BenchBoard:
    """A board on which a piece that was cut no further is cut as a layout says, whose positions are
    from the piece's own edges; ``labels`` are those of its parts, in their order."""
    first = next_piece(board)
    renamed = {0: piece}
    for cut in layout.cuts:
        for made in cut.makes:
            if made is not None:
                renamed[made] = first
                first += 1
    moved = {Saw.CROSSCUT: origin.x[0], Saw.RIP: origin.y[0], Saw.RESAW: origin.z[0]}
    cuts = [
        replace(
            cut,
            of=renamed[cut.of],
            start=cut.start + moved[cut.saw],
            end=cut.end + moved[cut.saw],
            makes=(_renamed(cut.makes[0], renamed), _renamed(cut.makes[1], renamed)),
        )
        for cut in layout.cuts
    ]
    number = max([0, *board.numbers]) + 1
    pieces = [one for one in board.pieces if one.number != piece]
    pieces += [replace(one, number=renamed[one.number]) for one in layout.pieces]
    whole = replace(
        board,
        cuts=(*board.cuts, *cuts),
        numbers=(*board.numbers, *range(number, number + len(cuts))),
        pieces=tuple(sorted(pieces, key=lambda one: one.number)),
    )
    here = [_moved(one, origin) for one in layout.parts]
    known = [(one, board.labels[n]) for n, one in board.placed.items()]
    return whole.holding([*known, *zip(here, labels, strict=True)])


def _renamed(made: int | None, names: dict[int, int]) -> int | None:
    return None if made is None else names[made]


def _moved(placed: PlacedPart, origin: Box) -> PlacedPart:
    """A part where it lies on its board."""
    y, z = placed.y or (0, origin.size[1]), placed.z or (0, origin.size[2])
    return replace(
        placed,
        start=placed.start + origin.x[0],
        end=placed.end + origin.x[0],
        y=(y[0] + origin.y[0], y[1] + origin.y[0]),
        z=(z[0] + origin.z[0], z[1] + origin.z[0]),
    )


def cut_anew(
    problem: CutProblem, board: BenchBoard, piece: int, parts: Sequence[Labelled]
) -> BenchBoard:
    """A board of which a piece is cut for these parts where they lie, and for no others. Raises
    ``PlanCheckError`` where they cannot be cut so."""
    bare = without(board, piece)
    lying = lying_pieces(bare)[piece]
    box = box_of(lying)
    if not parts:
        worth = box.size[0] - sum(slants(lying)) >= max(1, problem.keep_offcut_from)
        return keep(bare, piece) if worth and problem.keep_offcut_from else bare
    stock = _stock(board, lying, box)
    mine = [_on_piece(one, box, lying) for one, _ in parts]
    alone = replace(problem, stock=(stock,), trim_start=0, trim_end=0)
    layout = with_cuts(alone, Layout(stock.id, 1, tuple(mine)))
    made = grafted(bare, piece, layout, box, [label for _, label in parts])
    restored = {label: one for one, label in parts}
    placed = {n: restored.get(made.labels[n], one) for n, one in made.placed.items()}
    checked(problem, replace(made, placed=placed))
    return replace(made, placed=placed)


def _stock(board: BenchBoard, lying: Piece, box: Box) -> StockPiece:
    return StockPiece(
        "piece",
        box.size[0],
        _FREE,
        1,
        thickness=box.size[2],
        width=box.size[1],
        flaws=tuple(unsound(board, box, slants(lying))),
    )


def _on_piece(placed: PlacedPart, box: Box, lying: Piece) -> PlacedPart:
    """A part as it lies on its piece; of a strip that has its section, by its ends alone."""
    start, end = placed.start - box.x[0], placed.end - box.x[0]
    y, z = placed.y or box.y, placed.z or box.z
    if (y, z) == (box.y, box.z) or not has_square_edges(lying):
        return replace(placed, start=start, end=end, y=None, z=None, edges=SQUARE_EDGES)
    return replace(
        placed,
        start=start,
        end=end,
        y=(y[0] - box.y[0], y[1] - box.y[0]),
        z=(z[0] - box.z[0], z[1] - box.z[0]),
    )


def checked(problem: CutProblem, board: BenchBoard) -> None:
    """Saws a board by its cuts alone. Raises ``PlanCheckError`` where a part does not come free, at
    its size, where it is said to lie."""
    _, width, thickness = board.size
    stock = StockPiece(
        "board", board.length, _FREE, thickness=thickness, width=width, flaws=board.flaws
    )
    order = sorted(board.placed)
    layout = Layout("board", 1, tuple(board.placed[n] for n in order), (), board.cuts, board.pieces)
    plain = tuple(replace(one, keep=False) for one in layout.pieces)
    told = replay(replace(problem, stock=(stock,)), stock, replace(layout, pieces=plain))
    wrong = [one for one in told if one != _ORDER]
    if wrong:
        raise PlanCheckError([Problem(f"board {board.number}", one) for one in wrong])


def moved_along(board: BenchBoard, piece: int, by: int) -> BenchBoard:
    """A board on which all that is crosscut from a piece is crosscut so much further (ticks)."""
    inside = under(board, piece)

    def along(cut: Cut) -> int:
        return by if cut.of in inside and cut.saw is Saw.CROSSCUT else 0

    return replace(
        board,
        cuts=tuple(
            replace(cut, start=cut.start + along(cut), end=cut.end + along(cut))
            for cut in board.cuts
        ),
        placed={
            n: replace(one, start=one.start + by, end=one.end + by) if n in inside else one
            for n, one in board.placed.items()
        },
    )
