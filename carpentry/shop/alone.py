"""Set-ups for parts, tools and boards alone, without a plan: ``python -m carpentry shop``."""

from collections.abc import Iterator
from dataclasses import dataclass
from decimal import Decimal

from carpentry.cutting import Cut, Saw
from carpentry.cutting.replay import Piece, whole_board
from carpentry.design.edges import Edges, outermost_width, read_edges
from carpentry.design.ends import SQUARE, Ends, is_shaped, read_ends, says_shape
from carpentry.language import CarpentryError, Json, Notation, Reader, Unit, parse_json
from carpentry.lumber.cautions import NARROW_STRIP, SHORT_PIECE, SHORT_RIP
from carpentry.lumber.straighten import straight_width
from carpentry.shop.bench_cuts import Position, position_of, rank_of, to_shape
from carpentry.shop.lying import NOTHING, Lying, at_the_fence, at_the_miter_saw
from carpentry.shop.said import length_said, shape_said, stands, way_said
from carpentry.shop.set_ups import cautions_of
from carpentry.shop.shaping import PartShape
from carpentry.shop.shop_file import position_document
from carpentry.shop.tools import Tools, starter_tools
from carpentry.shop.tools_file import read_tools
from carpentry.shop.ways import Chosen, Crosscut, Rip, for_crosscut, for_rip

MOST = 1_000
_FIRST_END, _SHAPED = "first end", "shaped"


@dataclass(frozen=True)
class _Part:
    """A part as it is told: its sizes in ticks, 0 where nothing is said of one."""

    id: str
    thickness: int
    width: int
    length: int
    quantity: int
    ends: Ends
    edges: Edges


@dataclass(frozen=True)
class _Board:
    """A crooked board, measured (ticks), and the straight edge that rides the fence: its width, or
    that of both ``together`` over the belly."""

    id: str
    width: int
    crook: int
    corners: int
    straight_edge: int | None
    together: int | None

    @property
    def fences(self) -> tuple[int, int]:
        """From fence to blade for the first cut and for the second (ticks); common practice."""
        second = straight_width(self.width, self.crook, self.corners, 2)
        if self.together is not None:
            return self.together - self.crook - self.corners, second
        return (self.straight_edge or 0) + self.width - self.corners, second


def shop_document(text: str | bytes) -> Json:
    """The set-ups of the parts and boards of a JSON document, with its tools, else a few common
    ones. Lines of work and of joints are told as not worked out yet.

    Raises ``CarpentryError`` with every problem and its path.
    """
    reader = Reader(parse_json(text))
    unit = Unit(reader.choice("units", [u.value for u in Unit], Unit.INCH.value))
    tools = read_tools(reader.inside("tools"), unit) if reader.has("tools") else starter_tools()
    parts = [_part(one, unit) for one in reader.items("parts", most=MOST, required=False)]
    boards = [
        _board(one, n, unit)
        for n, one in enumerate(reader.items("boards", most=MOST, required=False), start=1)
    ]
    later = [*reader.texts("work", most=MOST), *reader.texts("joints", most=MOST)]
    reader.nothing("tools")
    if not parts and not boards and not reader.problems:
        reader.fault("parts", "are none, and there are no boards: there is nothing to set up")
    ids = [part.id for part in parts]
    for n, name in enumerate(ids):
        if name in ids[:n]:
            reader.fault(f"parts[{n}].id", f"“{name}” is there twice")
    reader.refuse_unknown()
    reader.raise_problems()
    notation = Notation.MM if unit is Unit.MM else Notation.SIXTY_FOURTHS
    set_ups = [
        *(one for board in boards for one in _straightened(board, tools, unit, notation)),
        *_of_parts(parts, tools, unit, notation),
    ]
    return {
        "set_ups": set_ups,
        "holes": [],
        "faults": [],
        "not_yet": [f"{line}: is not worked out yet" for line in later if line.strip()],
    }


def _part(item: Reader, unit: Unit) -> _Part:
    name = item.text("id")
    thickness, width = (
        item.ticks(size, unit, least=1) if item.has(size) else 0 for size in ("thickness", "width")
    )
    length = item.ticks("length", unit, least=1)
    quantity = item.whole("quantity", 1, least=1, most=10_000)
    ends, edges = _angles(item, unit)
    shaped = is_shaped(ends)
    slanted = any(end.degrees and not end.bevel for end in ends)
    needs = {
        "thickness": shaped or any(end.bevel for end in (*ends, *edges)),
        "width": shaped or slanted or any(edge.bevel for edge in edges),
    }
    for size, told in (("thickness", thickness), ("width", width)):
        if needs[size] and not told:
            item.fault(size, "is missing: an angle needs it")
    item.refuse_unknown()
    return _Part(name, thickness, width, length, quantity, ends, edges)


def _angles(item: Reader, unit: Unit) -> tuple[Ends, Edges]:
    """Ends and edges, each two angles as text, one behind the other or in a list."""
    ends, edges = (SQUARE, SQUARE), (SQUARE, SQUARE)
    try:
        told = item.texts("ends", alone=True)
        ends = read_ends((", " if says_shape(" ".join(told)) else " ").join(told), unit)
    except CarpentryError as error:
        item.fault("ends", error.problems[0].message)
    try:
        edges = read_edges(" ".join(item.texts("edges", alone=True)))
    except CarpentryError as error:
        item.fault("edges", error.problems[0].message)
    return ends, edges


def _board(item: Reader, number: int, unit: Unit) -> _Board:
    straight, together = (
        item.ticks(name, unit, least=1) if item.has(name) else None
        for name in ("straight edge", "together")
    )
    board = _Board(
        id=item.text("id", str(number)),
        width=item.ticks("width", unit, least=1),
        crook=item.ticks("crook", unit, "0"),
        corners=item.ticks("corners", unit, "0"),
        straight_edge=straight,
        together=together,
    )
    if straight is None and together is None:
        item.fault("straight edge", "is missing: write its width, or “together” over the belly")
    try:
        if min(board.fences) < 1:
            item.fault("together", "is less than what comes off: nothing straight is left")
    except CarpentryError as error:
        item.fault("crook", error.problems[0].message)
    item.refuse_unknown()
    return board


def _straightened(board: _Board, tools: Tools, unit: Unit, notation: Notation) -> Iterator[Json]:
    """The two cuts that make a crooked board straight."""
    says = (
        "Straighten board {id}: the straight edge touches the two ends of the hollow side and rides"
        " the fence; fence at {fence}, the belly comes off.",
        "Straighten board {id}: the sawn edge against the fence at {fence}; the hollow comes off.",
    )
    for fence, said in zip(board.fences, says, strict=True):
        chosen = for_rip(tools, Rip(0, max(fence, SHORT_RIP), fence))
        position = _stand("straighten", fence, chosen, NOTHING)
        yield {
            **position_document(position, unit),
            "of": [{"board": board.id, "count": 1}],
            "says": said.format(id=board.id, fence=length_said(fence, notation)),
            "cautions": list(cautions_of(position, narrow=False, short=False)),
        }


@dataclass(frozen=True)
class _Asked:
    """One cut that a part asks for: where a tool stands, and how the part lies."""

    position: Position
    lying: Lying
    which: str
    line: str = ""


def _of_parts(parts: list[_Part], tools: Tools, unit: Unit, notation: Notation) -> Iterator[Json]:
    """The set-ups of parts, those that stand alike together: rips, first ends, then lengths, the
    longest stop first."""
    found: dict[tuple[str, Position, str], list[tuple[_Part, Lying]]] = {}
    for part in parts:
        for asked in _asked(part, tools, notation):
            key = (asked.which, asked.position, asked.line)
            found.setdefault(key, []).append((part, asked.lying))
    order = ["rip", _FIRST_END, "crosscut", _SHAPED]
    for (which, position, line), of in sorted(
        found.items(), key=lambda one: (order.index(one[0][0]), -(one[0][1].at or 0))
    ):
        counts: dict[str, int] = {}
        for part, _ in of:
            counts[part.id] = counts.get(part.id, 0) + part.quantity
        short = which == "crosscut" and any(part.length < SHORT_PIECE for part, _ in of)
        narrow = which == "rip" and any(part.width < NARROW_STRIP for part, _ in of)
        yield {
            **position_document(position, unit),
            "of": [{"part": part, "count": count} for part, count in counts.items()],
            "lies": sorted({_lies(lying) for _, lying in of}),
            "says": " ".join(filter(None, [_says(which, position, counts, notation), line])),
            "cautions": list(cautions_of(position, narrow=narrow, short=short)),
        }


def _lies(lying: Lying) -> str:
    return f"{lying.up} up, {lying.fence} against the fence, {lying.first} first"


def _asked(part: _Part, tools: Tools, notation: Notation) -> Iterator[_Asked]:
    yield from _rips(part, tools)
    left, right = (SQUARE if end.is_shaped else end for end in part.ends)
    blank = whole_board(part.length, part.width or 1, part.thickness or 1)
    if left.degrees:
        at = 0 if left.degrees > 0 else left.reach(part.thickness, part.width)
        cut = Cut(Saw.CROSSCUT, 0, at, at, (None, 1), left.flipped)
        yield _crosscut(part, cut, blank, tools, first_end=True)
    at = part.length - (0 if right.degrees >= 0 else right.reach(part.thickness, part.width))
    yield _crosscut(
        part, Cut(Saw.CROSSCUT, 0, at, at, (1, None), right), blank, tools, first_end=False
    )
    yield from _shaped(part, tools, notation)


def _shaped(part: _Part, tools: Tools, notation: Notation) -> Iterator[_Asked]:
    """What is sawn of a part's ends once they are square."""
    size = (part.length, part.width, part.thickness)
    ends = (one if one.is_shaped else SQUARE for one in part.ends)
    for one in PartShape(*size, (next(ends), next(ends))).works():
        lying, chosen = to_shape(one, size, {}, tools)
        position = position_of("crosscut", None, chosen, lying)
        yield _Asked(position, lying, _SHAPED, shape_said(one, size, notation))


def _crosscut(part: _Part, cut: Cut, blank: Piece, tools: Tools, *, first_end: bool) -> _Asked:
    ways = []
    for over in (False, True) if cut.angle.degrees else (False,):
        lying = at_the_miter_saw(cut, blank, over=over)
        wanted = Crosscut(part.width, part.thickness, part.length, lying.swing, lying.lean)
        ways.append((lying, for_crosscut(tools, wanted)))
    lying, chosen = min(ways, key=lambda one: rank_of(one[1].way))
    at = None if first_end else lying.distance
    position = _stand("crosscut", at, chosen, lying.lean, lying.swing)
    return _Asked(position, lying, _FIRST_END if first_end else "crosscut")


def _rips(part: _Part, tools: Tools) -> Iterator[_Asked]:
    """A rip for each bevelled edge, from a blank as wide as the part is between its outermost
    points: first the right edge, then the left one with the right one against the fence."""
    left, right = part.edges
    if not left.degrees and not right.degrees:
        return
    wide = outermost_width(part.width, part.edges, part.thickness)
    blank = whole_board(part.length, wide, part.thickness)
    for edge, far in ((right, False), (left, True)):
        if not edge.degrees:
            continue
        reach = edge.reach(part.thickness, 0)
        inset = 0 if edge.degrees > 0 else reach
        at, angle = (inset, edge.flipped) if far else (wide - inset, edge)
        lying = at_the_fence(Cut(Saw.RIP, 0, at, at, (1, 2), angle), blank, far=far)
        chosen = for_rip(tools, Rip(part.thickness, part.length, lying.distance, lying.lean))
        yield _Asked(_stand("rip", lying.distance, chosen, lying.lean), lying, "rip")


def _stand(
    do: str, at: int | None, chosen: Chosen, lean: Decimal, swing: Decimal = NOTHING
) -> Position:
    return position_of(do, at, chosen, Lying("", "", "", at or 0, 0, lean, swing))


def _says(which: str, position: Position, counts: dict[str, int], notation: Notation) -> str:
    off = ", ".join(f"{count} × {part}" for part, count in counts.items())
    at = "" if position.at is None else length_said(position.at, notation)
    if which == _FIRST_END:
        said = f"Crosscut the first end, {stands(position)}: {off}."
    elif which == "rip":
        said = f"Rip, fence at {at}, {stands(position)}: {off}."
    else:
        said = f"Crosscut, {f'stop at {at}' if at else 'to the line'}, {stands(position)}: {off}."
    return " ".join(filter(None, [said, way_said(position, notation)]))
