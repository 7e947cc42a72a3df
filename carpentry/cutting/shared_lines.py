"""Angled ends that share saw lines beside boards that are ripped.

The model of ripped boards gives every angled end a saw line of its own; that of lines lets
neighbours share one, and rips nothing. So parts with angled ends are also planned on boards of
their own, with and without others of their section, and boards that are crosscut alone are planned
anew as lines. The cheapest of these is taken.
"""

from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import replace
from decimal import Decimal

from carpentry.cutting.layouts import put_together
from carpentry.cutting.plan import CutPlan, Layout, PlacedPart, Status, pieces_used
from carpentry.cutting.problem import CutPart, CutProblem, StockPiece
from carpentry.cutting.sawing import with_cuts
from carpentry.cutting.unplaced import unplaced_of
from carpentry.design.ends import is_angled

Plan = Callable[[CutProblem, float], CutPlan]  # of a problem, in a share of the time that is left
Section = tuple[int | None, int | None]
_SHARE = 0.3


def shares_beside_rips(problem: CutProblem) -> bool:
    """Whether some boards are ripped, and neighbours elsewhere may share saw lines."""
    angled = any(is_angled(part.ends) for part in problem.parts)
    return problem.is_ripped and problem.share_angled_cuts and angled


def with_shared_lines(problem: CutProblem, ripped: CutPlan, plan: Plan) -> Iterator[CutPlan]:
    """Plans, each better than the one before and than the ``ripped`` one, with its bound."""
    best = ripped
    for alone in (True, False):
        apart = _planned_apart(problem, alone, plan)
        if apart is not None and _key(apart) < _key(best):
            best = apart
            yield _of(problem, best.layouts, ripped)
    lines = _lines_anew(problem, best, plan)
    if lines is not None and _key(lines) < _key(best):
        yield _of(problem, lines.layouts, ripped)


def _key(plan: CutPlan) -> tuple[int, Decimal, int]:
    return sum(one.quantity for one in plan.unplaced), plan.price, plan.pieces_of_stock


def _of(problem: CutProblem, layouts: Iterable[Layout], ripped: CutPlan) -> CutPlan:
    """Boards as a plan, with the bound that is known of all plans: how many pieces are fewest is
    not."""
    pieces = {piece.id: piece for piece in problem.stock}
    boards = (_in_section(one, pieces[one.stock]) for one in layouts for _ in range(one.count))
    found = tuple(with_cuts(problem, one) for one in put_together(problem, boards))
    price = problem.price_of(pieces_used(found))
    left = unplaced_of(problem, found)
    return replace(
        ripped,
        status=Status.INCOMPLETE if left else Status.FEASIBLE,
        price=price,
        bound=min(ripped.bound, price),
        layouts=found,
        unplaced=left,
    )


def _in_section(board: Layout, piece: StockPiece) -> Layout:
    """A single board, each part of which says where it lies in the section."""
    across, through = (0, piece.width or 0), (0, piece.thickness or 0)

    def placed(part: PlacedPart) -> PlacedPart:
        return replace(part, y=part.y or across, z=part.z or through)

    return Layout(board.stock, 1, tuple(map(placed, board.parts)))


def _section(one: CutPart | StockPiece) -> Section:
    return one.thickness, one.width


def _on_a_line(problem: CutProblem, part: CutPart) -> tuple[StockPiece, ...]:
    """The stock that a part comes from without a rip: of its own section, and straight."""
    if is_angled(part.edges):
        return ()
    return tuple(
        piece
        for piece in problem.stock
        if _section(piece) == _section(part)
        and not piece.crook
        and (not part.on or piece.id in part.on)
    )


def _planned_apart(problem: CutProblem, alone: bool, plan: Plan) -> CutPlan | None:
    """Parts with angled ends on boards of their own section, ``alone`` or with the square ones of
    it, the others from all that is left; ``None`` where none can be."""
    sections = {
        _section(part)
        for part in problem.parts
        if is_angled(part.ends) and _on_a_line(problem, part)
    }
    layouts: list[Layout] = []
    on_lines: set[str] = set()
    for section in sections:
        here = tuple(
            part
            for part in problem.parts
            if _section(part) == section
            and _on_a_line(problem, part)
            and (is_angled(part.ends) or not alone)
        )
        on_lines |= {part.id for part in here}
        stock = _straight(problem, section, _left(problem, layouts))
        found = plan(_only(problem, here, stock), _SHARE)
        if found.unplaced:
            return None
        layouts += found.layouts
    rest = tuple(part for part in problem.parts if part.id not in on_lines)
    if not sections:
        return None
    if rest:
        others = plan(_only(problem, rest, _left(problem, layouts)), _SHARE)
        layouts += others.layouts
    return _whole(problem, layouts)


def _lines_anew(problem: CutProblem, before: CutPlan, plan: Plan) -> CutPlan | None:
    """A plan with its boards that are crosscut alone planned anew as lines, those of a section
    together; ``None`` where no part of them has angled ends."""
    parts = {part.id: part for part in problem.parts}
    pieces = {piece.id: piece for piece in problem.stock}
    by_section: dict[Section, list[Layout]] = {}
    kept: list[Layout] = []
    for layout in before.layouts:
        piece = pieces[layout.stock]
        plain = all(piece in _on_a_line(problem, parts[one.part]) for one in layout.parts)
        if plain:
            by_section.setdefault(_section(piece), []).append(layout)
        else:
            kept.append(layout)
    anew = False
    for section, lines in by_section.items():
        held = Counter[str]()
        for line in lines:
            for placed in line.parts:
                held[placed.part] += line.count
        here = tuple(replace(parts[name], quantity=count) for name, count in held.items())
        if not any(is_angled(part.ends) for part in here):
            kept += lines
            continue
        anew = True
        others = [*kept, *(one for group in by_section.values() for one in group if group != lines)]
        stock = _straight(problem, section, _left(problem, others))
        found = plan(_only(problem, here, stock), _SHARE)
        kept += lines if found.unplaced else found.layouts
    return _whole(problem, kept) if anew else None


def _straight(
    problem: CutProblem, section: Section, stock: Sequence[StockPiece]
) -> tuple[StockPiece, ...]:
    return tuple(one for one in stock if _section(one) == section and not one.crook)


def _left(problem: CutProblem, layouts: Iterable[Layout]) -> tuple[StockPiece, ...]:
    """The stock that some boards leave."""
    used = pieces_used(layouts)
    return tuple(
        piece
        if piece.available is None
        else replace(piece, available=max(0, piece.available - used[piece.id]))
        for piece in problem.stock
    )


def _only(
    problem: CutProblem, parts: tuple[CutPart, ...], stock: tuple[StockPiece, ...]
) -> CutProblem:
    """Some parts from some stock."""
    names = {piece.id for piece in stock}
    mine = tuple(
        replace(part, on=tuple(name for name in part.on if name in names)) for part in parts
    )
    return replace(problem, parts=mine, stock=stock)


def _whole(problem: CutProblem, layouts: Sequence[Layout]) -> CutPlan:
    """Boards as a plan of which nothing is proven."""
    nothing = CutPlan(Status.FEASIBLE, Decimal(0), Decimal(0), (), ())
    return _of(problem, layouts, nothing)
