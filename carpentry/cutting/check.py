"""Replays a plan as a builder would saw it, knowing nothing of how it was found."""

from collections import Counter
from decimal import Decimal
from itertools import pairwise

from carpentry.cutting.plan import CutPlan, Layout, Leftover, PlacedPart, Status
from carpentry.cutting.problem import CutPart, CutProblem, Order, StockPiece
from carpentry.edges import corners
from carpentry.ends import is_angled, ways_to_lie
from carpentry.errors import PlanCheckError, Problem


def check_plan(problem: CutProblem, plan: CutPlan) -> None:
    """Raises ``PlanCheckError`` with everything that is wrong with a plan for a problem.

    Every part is there once or listed as unplaced; every part lies in sound wood at its own size,
    and straight cuts in the allowed order, each a kerf wide, take the parts apart; no more of a
    stock is used than there is; leftovers are what remains; price and status add up.
    """
    faults: list[Problem] = []
    parts = {part.id: part for part in problem.parts}
    stock = {piece.id: piece for piece in problem.stock}
    cut: Counter[str] = Counter()
    used: Counter[str] = Counter()
    price = Decimal(0)
    for number, layout in enumerate(plan.layouts):
        place = f"layouts[{number}]"
        piece = stock.get(layout.stock)
        if piece is None:
            faults.append(Problem(place, f"no stock is called {layout.stock}"))
            continue
        if layout.count < 1:
            faults.append(Problem(place, "a layout of no boards"))
        used[piece.id] += layout.count
        price += piece.price * layout.count
        faults += [Problem(place, text) for text in _saw(problem, piece, layout, parts)]
        for placed in layout.parts:
            cut[placed.part] += layout.count
    for unplaced in plan.unplaced:
        cut[unplaced.part] += unplaced.quantity
    for name in {*parts, *cut}:
        wanted = parts[name].quantity if name in parts else 0
        if cut[name] != wanted:
            faults.append(Problem(name, f"{cut[name]} accounted for, {wanted} wanted"))
    for name, count in used.items():
        available = stock[name].available
        if available is not None and count > available:
            faults.append(Problem(name, f"{count} used, {available} available"))
    if price != plan.price:
        faults.append(Problem("price", f"the boards cost {price}, the plan says {plan.price}"))
    if plan.bound > plan.price:
        faults.append(Problem("bound", "the proven bound is above the price"))
    if (plan.status is Status.INCOMPLETE) != bool(plan.unplaced):
        faults.append(Problem("status", "says otherwise than the unplaced parts"))
    if plan.status is Status.OPTIMAL and plan.bound != plan.price:
        faults.append(Problem("bound", "an optimal plan's bound is its price"))
    if faults:
        raise PlanCheckError(faults)


def layout_faults(problem: CutProblem, layout: Layout) -> list[str]:
    """What goes wrong when a board of this problem is cut so, in words."""
    piece = next((one for one in problem.stock if one.id == layout.stock), None)
    if piece is None:
        return [f"no stock is called {layout.stock}"]
    return _saw(problem, piece, layout, {part.id: part for part in problem.parts})


def _saw(
    problem: CutProblem, piece: StockPiece, layout: Layout, parts: dict[str, CutPart]
) -> list[str]:
    """What goes wrong when this board is cut."""
    wrong: list[str] = []
    if not layout.parts:
        wrong.append("a board that nothing is cut from")
    boxes: list[_Box] = []
    sound = _whole(problem, piece)
    for placed in layout.parts:
        part = parts.get(placed.part)
        if part is None:
            wrong.append(f"no part is called {placed.part}")
            continue
        box = _box(piece, placed)
        boxes.append(box)
        wrong += _misfits(piece, part, placed, box, sound)
        wrong += _other_edges(part, placed)
        if problem.is_ripped and not _eased(problem.eased, box[1], sound[1]):
            wrong.append(f"{placed.part} has a rounded edge")
    if not problem.is_ripped and any(is_angled(placed.ends) for placed in layout.parts):
        wrong += _angled_gaps(problem, layout, parts)
    elif not _separable(_with_saw(problem, layout, boxes), problem.kerf, _stages(problem)):
        wrong.append("no straight saw can separate these parts in the allowed order")
    wrong += _bevelled_gaps(problem, layout, boxes)
    wrong += _false_leftovers(problem, piece, layout, boxes)
    return wrong


_Box = tuple[tuple[int, int], tuple[int, int], tuple[int, int]]
_ANYWHERE = (0, 1)  # across and through a board whose section does not matter


def _whole(problem: CutProblem, piece: StockPiece) -> _Box:
    """The sound wood of a board."""
    across = (0, piece.width) if piece.width is not None else _ANYWHERE
    through = (0, piece.thickness) if piece.thickness is not None else _ANYWHERE
    return (problem.trim_start, piece.length - problem.trim_end), across, through


def _box(piece: StockPiece, placed: PlacedPart | Leftover) -> _Box:
    across = (0, piece.width) if piece.width is not None else _ANYWHERE
    through = (0, piece.thickness) if piece.thickness is not None else _ANYWHERE
    return (placed.start, placed.end), placed.y or across, placed.z or through


def _with_saw(problem: CutProblem, layout: Layout, boxes: list[_Box]) -> list[_Box]:
    """Boxes with what an angled saw line takes more than a square one, and with bevelled edges as
    wide as half-way through the board: there too slanted lines are a saw apart."""
    if len(boxes) != len(layout.parts):
        return boxes
    return [
        (
            (
                box[0][0] - placed.ends[0].saw(problem.kerf) + problem.kerf,
                box[0][1] + placed.ends[1].saw(problem.kerf) - problem.kerf,
            ),
            _half_way(placed, box),
            box[2],
        )
        for placed, box in zip(layout.parts, boxes, strict=True)
    ]


def _half_way(placed: PlacedPart, box: _Box) -> tuple[int, int]:
    left, right = (edge.reach(box[2][1] - box[2][0], 0) for edge in placed.edges)
    return box[1][0] + left // 2, box[1][1] - right // 2


def _other_edges(part: CutPart, placed: PlacedPart) -> list[str]:
    """Edges and ends of a ripped part that are not its own, however it is turned."""
    ways = zip(ways_to_lie(part.edges), ways_to_lie(part.ends), strict=True)
    if is_angled(part.edges) and (placed.edges, placed.ends) not in ways:
        return [f"{placed.part} has other edges"]
    return []


def _bevelled_gaps(problem: CutProblem, layout: Layout, boxes: list[_Box]) -> list[str]:
    """Between neighbours across the board lies the saw line of each one's edge, on the face and on
    the back."""
    if len(boxes) != len(layout.parts):
        return []
    across = sorted(zip(layout.parts, boxes, strict=True), key=lambda one: _half_way(*one))
    wrong: list[str] = []
    for number, (one, box) in enumerate(across):
        for other, beside in across[number + 1 :]:
            angled = one.edges[1].degrees or other.edges[0].degrees
            if not angled or any(_apart(box[axis], beside[axis]) for axis in (0, 2)):
                continue
            needed = max(one.edges[1].saw(problem.kerf), other.edges[0].saw(problem.kerf))
            high = box[2][1] - box[2][0]
            _, on_face, on_back, _ = corners(*box[1], one.edges, high)
            face, _, _, back = corners(*beside[1], other.edges, high)
            if min(face - on_face, back - on_back) < needed:
                wrong.append(f"{other.part} begins before the saw is clear of {one.part}")
    return wrong


def _apart(one: tuple[int, int], other: tuple[int, int]) -> bool:
    return one[1] <= other[0] or other[1] <= one[0]


def _angled_gaps(problem: CutProblem, layout: Layout, parts: dict[str, CutPart]) -> list[str]:
    """Between neighbours lies a saw line at each one's angle, or one that both share."""
    wrong: list[str] = []
    placed = [one for one in layout.parts if one.part in parts]
    for one, other in pairwise(placed):
        right, left = one.ends[1], other.ends[0]
        needed = max(right.saw(problem.kerf), left.saw(problem.kerf))
        if problem.share_angled_cuts and left.degrees and left == right.flipped:
            needed -= left.reach(*_across(parts[one.part]))
        if other.start - one.end < needed:
            wrong.append(f"{other.part} begins before the saw is clear of {one.part}")
    for one in placed:
        if one.ends not in ways_to_lie(parts[one.part].ends):
            wrong.append(f"{one.part} has other ends")
    return wrong


def _across(part: CutPart) -> tuple[int, int]:
    return part.thickness or 0, part.width or 0


def _misfits(
    piece: StockPiece, part: CutPart, placed: PlacedPart, box: _Box, sound: _Box
) -> list[str]:
    wrong: list[str] = []
    if placed.end - placed.start != part.sawn_length:
        wrong.append(f"{placed.part} is not cut to its length")
    if part.width is not None and part.thickness is not None:
        size = (box[1][1] - box[1][0], box[2][1] - box[2][0])
        whole = (sound[1][1], sound[2][1])
        across = part.width, part.extra.width
        through = part.thickness, part.extra.thickness
        ways = [(across, through), (through, across)] if part.turn else [(across, through)]
        if not any(
            all(
                real == own + more or real == own == board
                for real, board, (own, more) in zip(size, whole, way, strict=True)
            )
            for way in ways
        ):
            wrong.append(f"{placed.part} is not ripped to its section")
    if part.on and piece.id not in part.on:
        wrong.append(f"{placed.part} may not come from {piece.id}")
    if part.clear and any(placed.start < end and start < placed.end for start, end in piece.flaws):
        wrong.append(f"{placed.part} lies on a flaw")
    if any(a < low or b > high for (a, b), (low, high) in zip(box, sound, strict=True)):
        wrong.append(f"{placed.part} ends beyond sound wood")
    return wrong


def _eased(eased: int, across: tuple[int, int], board: tuple[int, int]) -> bool:
    """Whether a strip keeps clear of the edges that are ripped off, or is as wide as the board."""
    return across == board or (across[0] >= eased and across[1] <= board[1] - eased)


def _stages(problem: CutProblem) -> tuple[str, ...]:
    """The directions of cuts, one stage after the other: ``x`` crosscuts, ``yz`` rips."""
    if problem.order is Order.RIP_FIRST:
        return ("yz", "x")
    if problem.order is Order.CROSSCUT_FIRST:
        return ("x", "yz")
    return ("x", "yz", "x")


def _separable(boxes: list[_Box], kerf: int, stages: tuple[str, ...]) -> bool:
    """Whether straight cuts, each through all that is left and a kerf wide, take boxes apart."""
    if len(boxes) <= 1:
        return True
    if not stages:
        return False
    for axis in ("xyz".index(name) for name in stages[0]):
        ordered = sorted(boxes, key=lambda box: box[axis])
        clear = ordered[0][axis][1]
        for number, box in enumerate(ordered[1:], start=1):
            if box[axis][0] >= clear + kerf:
                return _separable(ordered[:number], kerf, stages) and _separable(
                    ordered[number:], kerf, stages
                )
            clear = max(clear, box[axis][1])
    return _separable(boxes, kerf, stages[1:])


def _false_leftovers(
    problem: CutProblem, piece: StockPiece, layout: Layout, boxes: list[_Box]
) -> list[str]:
    """Leftovers that are not there; on a board that is not ripped it must be the whole rest."""
    rests = [_box(piece, rest) for rest in layout.leftover]
    if not problem.is_ripped:
        sound = _whole(problem, piece)[0]
        at = max(
            (placed.end + placed.ends[1].saw(problem.kerf) for placed in layout.parts),
            default=sound[0],
        )
        claimed = sum(rest[0][1] - rest[0][0] for rest in rests)
        outside = any(rest[0][0] < at or rest[0][1] > sound[1] for rest in rests)
        spans = [rest[0] for rest in rests]
        flawed = any(a < end and start < b for a, b in spans for start, end in piece.flaws)
        whole = not piece.flaws and claimed != max(0, sound[1] - at)
        return ["the leftover is not what remains"] if outside or flawed or whole else []
    sound_box = _whole(problem, piece)
    for number, rest in enumerate(rests):
        inside = all(
            low <= a < b <= high for (a, b), (low, high) in zip(rest, sound_box, strict=True)
        )
        others = (*boxes, *rests[:number])
        if not inside or any(_meet(rest, other) for other in others):
            return ["a leftover is not what remains"]
    return []


def _meet(one: _Box, other: _Box) -> bool:
    """Whether two boxes share wood."""
    return all(a < d and c < b for (a, b), (c, d) in zip(one, other, strict=True))
