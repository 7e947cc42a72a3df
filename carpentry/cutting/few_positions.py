"""Of plans at one price the one whose cuts take the fewest positions of a saw: distinct lengths at
an angle, distinct widths of strips; before all the one that rips no piece which is too short to be
held safely. Knows no tools; the purchase and what is kept stay as they are.
"""

import logging
from collections import Counter
from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from decimal import Decimal

from carpentry.cutting.check import check_plan, layout_faults
from carpentry.cutting.cuts import Cut, Saw
from carpentry.cutting.plan import CutPlan, Layout, Span, Status, pieces_used
from carpentry.cutting.problem import CutProblem, Order
from carpentry.cutting.replay import Piece, saw_apart, whole_board
from carpentry.cutting.sawing import MANNERS, with_cuts
from carpentry.language import TICKS_PER_INCH, PlanCheckError
from carpentry.lumber.cautions import SHORT_RIP

_ALIKE = 8  # ticks that one figure may be off by
_NARROW = 3 * TICKS_PER_INCH // 2  # a narrower strip comes off on the free side
_ROUNDS = 2
_AXES = {Saw.CROSSCUT: 0, Saw.RIP: 1, Saw.RESAW: 2}
logger = logging.getLogger(__name__)

Position = tuple[Saw, int, Decimal, bool]  # what a stop or fence is set to, the angle, a bevel
Kept = tuple[int, Span | None, Span | None]
Replan = Callable[[CutProblem], CutPlan | None]


def fewer_positions(problem: CutProblem, plan: CutPlan, replan: Replan) -> CutPlan:
    """The plan cut in the order that takes fewest positions, or another of the same purchase that
    takes fewer; ``replan`` plans in a moment, or gives ``None``. Parts that show stay on the boards
    that were chosen for them. What was proven of it stays."""
    if not problem.is_ripped or plan.unplaced:
        return plan
    best = _cut_well(problem, plan)
    is_free = problem.order is Order.EITHER and not any(part.show for part in problem.parts)
    for order in (Order.RIP_FIRST, Order.CROSSCUT_FIRST):
        if is_free:
            other = _in_order(problem, plan, order, replan)
            if other is not None and trouble_of(problem, other.layouts) < trouble_of(
                problem, best.layouts
            ):
                best = other
    return best


@dataclass(frozen=True)
class _Set:
    """The positions that boards take, and those of cuts along a line, which are none where the saw
    stands so for others; how many cuts there are, and how many rips of short pieces."""

    stops: frozenset[Position]
    lines: frozenset[Position]
    cuts: int
    short_rips: int

    @property
    def positions(self) -> int:
        angles = {one[2:] for one in self.stops if one[0] is Saw.CROSSCUT}
        return len(self.stops) + sum(one[2:] not in angles for one in self.lines)

    @property
    def worth(self) -> tuple[int, int, int]:
        """The less the better: no piece is ripped that is too short to be held safely, then few
        positions, then few cuts."""
        return self.short_rips, self.positions, self.cuts


def positions_of(problem: CutProblem, layouts: Iterable[Layout]) -> int:
    """How many positions a saw is set to for the cuts of boards, whatever tools there are."""
    return _of_boards(problem, layouts).positions


def trouble_of(problem: CutProblem, layouts: Iterable[Layout]) -> tuple[int, int, int]:
    """Rips of pieces under 12 in, positions, cuts: the less of the first the better, and so on."""
    return _of_boards(problem, layouts).worth


def _of_boards(problem: CutProblem, layouts: Iterable[Layout]) -> _Set:
    return _together([_of_board(problem, one) for one in layouts])


def _together(sets: Iterable[_Set]) -> _Set:
    known = list(sets)
    stops = frozenset[Position]().union(*(one.stops for one in known))
    lines = frozenset[Position]().union(*(one.lines for one in known))
    short_rips = sum(one.short_rips for one in known)
    return _Set(stops, lines, sum(one.cuts for one in known), short_rips)


def _of_board(problem: CutProblem, layout: Layout) -> _Set:
    piece = next(one for one in problem.stock if one.id == layout.stock)
    lying: dict[int, Piece] = {0: whole_board(piece.length, piece.width or 1, piece.thickness or 1)}
    wanted = {one.number for one in layout.pieces if not one.is_waste}
    for cut in reversed(layout.cuts):
        if wanted & set(cut.makes):
            wanted.add(cut.of)
    stops: set[Position] = set()
    lines: set[Position] = set()
    short = 0
    for cut in layout.cuts:
        of = lying[cut.of]
        short += cut.saw is not Saw.CROSSCUT and of.size(0) < SHORT_RIP
        for number, rest in zip(cut.makes, saw_apart(of, cut), strict=True):
            if number is not None and rest is not None:
                lying[number] = rest
        is_line = cut.saw is Saw.CROSSCUT and cut.makes[0] not in wanted
        at = 0 if is_line else _figure(cut, of) // _ALIKE
        position = (cut.saw, at, abs(cut.angle.degrees), cut.angle.bevel)
        (lines if is_line else stops).add(position)
    return _Set(frozenset(stops), frozenset(lines), len(layout.cuts) * layout.count, short)


def _figure(cut: Cut, of: Piece) -> int:
    """What the stop or the fence is set to, about."""
    low, high = of.spans[_AXES[cut.saw]]
    below, above = round(cut.start - low), round(high - cut.end)
    if cut.saw is Saw.CROSSCUT:
        return below
    far = (above > below and (cut.saw is Saw.RESAW or below < _NARROW)) or below <= 0
    return above if far else below


def _cut_well(problem: CutProblem, plan: CutPlan) -> CutPlan:
    """The same boards, each cut in the order that adds fewest positions to those of the others."""
    layouts = list(plan.layouts)
    if problem.order is not Order.EITHER:
        return plan
    choices = [
        [(one, _of_board(problem, one)) for one in _choices(problem, layout)] for layout in layouts
    ]
    taken = [every[0] for every in choices]
    for _ in range(_ROUNDS):
        for n, every in enumerate(choices):
            if len(every) > 1:
                rest = _together(one for k, (_, one) in enumerate(taken) if k != n)
                taken[n] = min(every, key=lambda one: _together([rest, one[1]]).worth)
    layouts = [layout for layout, _ in taken]
    return _checked(problem, plan, replace(plan, layouts=tuple(layouts)))


def _choices(problem: CutProblem, layout: Layout) -> list[Layout]:
    """A board cut in every order that leaves as much to keep."""
    bare = Layout(layout.stock, layout.count, layout.parts)
    found = [layout]
    for manner in MANNERS:
        sawn = with_cuts(problem, bare, manner)
        if sawn == layout or layout_faults(problem, sawn):
            continue
        if _kept(problem, sawn) == _kept(problem, layout) and sawn not in found:
            found.append(sawn)
    return found


def _kept(problem: CutProblem, layout: Layout) -> Counter[Kept]:
    """What of a board is worth keeping; nothing where nobody says how long that is."""
    if not problem.keep_offcut_from:
        return Counter()
    return Counter((one.length, one.y, one.z) for one in layout.leftover if one.keep)


def _in_order(problem: CutProblem, plan: CutPlan, order: Order, replan: Replan) -> CutPlan | None:
    """A plan of the same purchase whose boards are all ripped or all crosscut first; ``None``
    where there is none that leaves as much to keep."""
    used = pieces_used(plan.layouts)
    stock = tuple(replace(one, available=used[one.id]) for one in problem.stock if used[one.id])
    found = replan(replace(problem, stock=stock, order=order, owned_first=False))
    if found is None or found.unplaced or pieces_used(found.layouts) != used:
        return None
    before, after = (_all_kept(problem, one.layouts) for one in (plan, found))
    if after.total() < before.total() or _length(after) < _length(before):
        return None
    made = replace(plan, layouts=found.layouts)
    return made if _checked(problem, plan, made) is made else None


def _all_kept(problem: CutProblem, layouts: Iterable[Layout]) -> Counter[Kept]:
    found: Counter[Kept] = Counter()
    for layout in layouts:
        for _ in range(layout.count):
            found += _kept(problem, layout)
    return found


def _length(kept: Counter[Kept]) -> int:
    return sum(length * count for (length, _, _), count in kept.items())


def _checked(problem: CutProblem, plan: CutPlan, other: CutPlan) -> CutPlan:
    """Another plan where it passes the check, else the first."""
    if plan.status is Status.INCOMPLETE:
        return plan
    try:
        check_plan(problem, other)
    except PlanCheckError:
        logger.exception("a plan with fewer positions was refused by the check")
        return plan
    return other
