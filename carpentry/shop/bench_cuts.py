"""The cuts of boards on the bench: each of the plan's cuts, how its piece lies, which tool makes it
and how that stands."""

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from decimal import Decimal

from carpentry.cutting import Cut, PlacedPart, Saw, SawnPiece
from carpentry.cutting.replay import SQUARE, Piece, saw_apart, whole_board
from carpentry.language import TICKS_PER_INCH
from carpentry.lumber import Section
from carpentry.shop.lying import (
    EDGE,
    END,
    FACE,
    FAR_END,
    NOTHING,
    Lying,
    across,
    at_the_fence,
    at_the_miter_saw,
    outermost,
)
from carpentry.shop.shaping import PartShape, Shaping
from carpentry.shop.tools import Tool, Tools
from carpentry.shop.ways import Chosen, Crosscut, Rip, Way, for_crosscut, for_rip, for_shape

STRAIGHTEN, TRIM = "straighten", "trim"
SLIVER = TICKS_PER_INCH // 2  # a narrower one is not held between blade and fence
_ALIKE = 8  # ticks, 0.025 mm, by which two figures of one setting may differ
_SHAPED, _MOST_WORKS = 100_000, 100  # numbers of what is sawn of parts, past those of all cuts
Stand = tuple[str, Decimal, Decimal]
_ENOUGH = 1  # tick, that sawn pieces may differ by where they are one piece for two eyes


@dataclass(frozen=True)
class BenchBoard:
    """A board as it lies there to be cut: the ``number`` that is written on it, its ``stock`` and
    what it measures (ticks), its tree of cuts and their lasting ``numbers``, where its parts lie
    (``placed``) and their ``labels``, by the numbers of their pieces. ``material`` is the wood that
    it is planned with, by index, ``offer`` what it is there, ``price`` what one more costs, and its
    length is ``called`` so; a ``crooked`` one is made straight by its first two rips. ``flaws`` are
    stretches of unsound wood, ``trims`` what is lost at its ends (ticks); ``rack`` is the board on
    the rack that it is, by its id; ``shapes`` are what makes parts more than square pieces, by
    their ids."""

    number: int
    stock: str
    length: int
    section: Section | None
    cuts: tuple[Cut, ...]
    pieces: tuple[SawnPiece, ...]
    labels: Mapping[int, str] = field(default_factory=dict)
    placed: Mapping[int, PlacedPart] = field(default_factory=dict)
    numbers: tuple[int, ...] = ()
    material: int = 0
    offer: str = ""
    called: str = ""
    price: Decimal | None = None
    crooked: bool = False
    flaws: tuple[tuple[int, int], ...] = ()
    trims: tuple[int, int] = (0, 0)
    rack: str = ""
    shapes: Mapping[str, PartShape] = field(default_factory=dict)

    def __post_init__(self) -> None:
        if not self.numbers and self.cuts:
            object.__setattr__(self, "numbers", tuple(range(1, len(self.cuts) + 1)))

    def holding(self, placed: Iterable[tuple[PlacedPart, str]]) -> "BenchBoard":
        """The same with where its parts lie, and their labels."""
        found = label_pieces(self, placed)
        return replace(
            self,
            labels={number: label for number, (_, label) in found.items()},
            placed={number: one for number, (one, _) in found.items()},
        )

    @property
    def size(self) -> tuple[int, int, int]:
        if self.section is None:
            return self.length, 1, 1
        return self.length, self.section.width, self.section.thickness

    def numbered(self) -> Iterator[tuple[int, Cut]]:
        """Its cuts with their numbers."""
        return zip(self.numbers, self.cuts, strict=True)

    def shaped(self) -> Iterator[tuple[int, int, Shaping]]:
        """What is sawn of its parts once they are cut, each with its lasting number and that of its
        piece."""
        for piece, placed in self.placed.items():
            shape = self.shapes.get(placed.part)
            for n, one in enumerate(shape.works() if shape else ()):
                yield _SHAPED + _MOST_WORKS * piece + n, piece, one


@dataclass(frozen=True)
class Position:
    """One position of one tool. ``at`` is from stop or fence to the near side of the blade (ticks),
    ``None`` for cuts along a line that is marked. ``swing`` and ``lean`` are how the tool itself
    stands (degrees, with their directions), ``angle`` and ``tilt`` what comes of them with a
    ``wedge``. ``far_fence`` where the fence stands to the left of the blade."""

    tool: str
    kind: str
    do: str
    at: int | None
    swing: Decimal = NOTHING
    lean: Decimal = NOTHING
    angle: Decimal = NOTHING
    tilt: Decimal = NOTHING
    wedge: Decimal = NOTHING
    way: Way | None = None
    raised: int = 0
    passes: int = 1
    would: str = ""
    far_fence: bool = False

    @property
    def is_crosscut(self) -> bool:
        """Whether it is across the grain, trims too."""
        return self.do in (Saw.CROSSCUT.value, TRIM)

    @property
    def is_rip(self) -> bool:
        """Whether it is along the grain, straightening too."""
        return self.do in (Saw.RIP.value, Saw.RESAW.value, STRAIGHTEN)

    @property
    def swing_side(self) -> str:
        """To which side the front of a miter saw goes; empty where it stands square."""
        return "" if not self.angle else "left" if self.swing > 0 else "right"

    @property
    def tilt_side(self) -> str:
        """To which side the top of the blade leans, as one stands before the saw; empty where it
        stands upright."""
        to_right = self.lean > 0 if self.is_crosscut else self.far_fence
        return "" if not self.tilt else "right" if to_right else "left"

    @property
    def fence_side(self) -> str:
        """On which side of the blade the fence of a table saw stands."""
        return "left" if self.far_fence else "right"


@dataclass(frozen=True)
class MadePiece:
    """What comes off: the number of the piece, the part that it is (by id) and its label, the
    ``labels`` of all parts in it, whether it is kept; ``is_near`` the stop or fence."""

    number: int
    part: str
    label: str
    labels: tuple[str, ...]
    keep: bool
    is_near: bool

    @property
    def is_waste(self) -> bool:
        return not self.labels and not self.keep


@dataclass(frozen=True)
class BenchCut:
    """One cut of the plan at the bench: ``number`` among the cuts of its board, piece ``of`` which
    it is made, of that ``size`` (ticks, along, across, through), how it lies, and the line to saw:
    ``mark`` on the face that is up, from the near end or edge (ticks), with the waste ``beyond`` or
    ``before`` it; on the table it is at ``mark_below``. ``near_size`` is how long (of a rip: wide)
    the piece at stop or fence comes to be, 0 without one. What is not safe in the hand ``is_held``
    by a clamp; ``at_end`` where the marked end of the board as bought comes off; the saw takes
    ``kerf`` along the piece (ticks). ``is_slanted`` where the piece at the stop has an end that is
    not square, so that its size is over all. A ``shaping`` is sawn of the part whose label it
    ``shapes``, which is cut already."""

    board: int
    number: int
    of: int
    saw: Saw
    size: tuple[int, int, int]
    lying: Lying
    position: Position
    mark: int
    waste: str
    makes: tuple[MadePiece, ...]
    corners: tuple[tuple[int, int], ...]
    stock: str
    after: int | None
    near_size: int
    kerf: int
    mark_below: int
    at_end: bool = False
    is_held: bool = False
    is_slanted: bool = False
    shaping: Shaping | None = None
    shapes: str = ""

    @property
    def key(self) -> tuple[int, int]:
        return self.board, self.number

    @property
    def labels(self) -> list[str]:
        """The parts that come off with this cut."""
        return [one.label for one in self.makes if one.label]

    @property
    def rest(self) -> int:
        """How much of the piece is beyond the blade (ticks)."""
        return max(0, self.size[0] - self.lying.beyond)


def label_pieces(
    board: BenchBoard, placed: Iterable[tuple[PlacedPart, str]]
) -> dict[int, tuple[PlacedPart, str]]:
    """The parts of a board and their labels by the numbers of the pieces that they are, by where
    they lie."""
    waiting = list(placed)
    found: dict[int, tuple[PlacedPart, str]] = {}
    lying = lying_pieces(board)
    for one in board.pieces:
        if not one.part:
            continue
        spans = lying[one.number].spans
        mine = min(
            (other for other in waiting if other[0].part == one.part),
            key=lambda other: _apart(other[0], spans),
        )
        waiting.remove(mine)
        found[one.number] = mine
    return found


def _apart(placed: PlacedPart, spans: Sequence[tuple[float, float]]) -> float:
    told = ((placed.start, placed.end), placed.y or spans[1], placed.z or spans[2])
    return sum(
        abs(a - b)
        for one, span in zip(told, spans, strict=True)
        for a, b in zip(one, span, strict=True)
    )


def lying_pieces(board: BenchBoard) -> dict[int, Piece]:
    """Every piece that a board's cuts make, those that are cut further too, by number."""
    every = {0: whole_board(*board.size)}
    for cut in board.cuts:
        for number, rest in zip(cut.makes, saw_apart(every[cut.of], cut), strict=True):
            if number is not None and rest is not None:
                every[number] = rest
    return every


def holding(board: BenchBoard) -> dict[int, list[str]]:
    """The labels of the parts in every piece, those in pieces of its pieces too."""
    found = {number: [label] for number, label in board.labels.items()}
    for cut in reversed(board.cuts):
        inside = [label for made in cut.makes if made is not None for label in found.get(made, ())]
        if inside:
            found[cut.of] = inside
    return found


@dataclass(frozen=True)
class _Way:
    """One way to make a cut: how the piece lies, and on which tool."""

    lying: Lying
    chosen: Chosen

    @property
    def stand(self) -> Stand:
        return str(self.chosen.tool), self.lying.swing, self.lying.lean


@dataclass(frozen=True)
class _Asked:
    """A cut, the piece that it is made of, and the ways to make it, of which all are as good."""

    number: int
    cut: Cut
    piece: Piece
    ways: Sequence[_Way]


def every_cut(boards: Iterable[BenchBoard], tools: Tools) -> list[list[BenchCut]]:
    """The cuts of boards, board by board, in the order of the plan. Where a piece may lie in two
    ways it lies so that the saw stands as it does for most others."""
    known = list(boards)
    asked = [list(_asked(board, tools)) for board in known]
    stands: Counter[Stand] = Counter()
    for only in (True, False):  # what cannot be otherwise weighs first
        stands.update(
            way.stand
            for board in asked
            for one in board
            for way in one.ways
            if not only or len(one.ways) == 1
        )
    return _settled(
        [
            [*_bench_cuts(board, mine, stands, tools), *_shaped(board, stands, tools)]
            for board, mine in zip(known, asked, strict=True)
        ]
    )


def _asked(board: BenchBoard, tools: Tools) -> Iterator[_Asked]:
    every, inside = lying_pieces(board), holding(board)
    keeps = {one.number for one in board.pieces if one.keep}
    for number, cut in board.numbered():
        first, _ = cut.makes
        is_first = first in keeps or first in inside
        piece = every[cut.of]
        if cut.saw is Saw.CROSSCUT:
            ways = _crosscut(cut, piece, tools, wanted_first=is_first)
        else:
            ways = _rip(cut, piece, tools, wanted=[n in keeps or n in inside for n in cut.makes])
        yield _Asked(number, cut, piece, ways)


def _bench_cuts(
    board: BenchBoard, asked: Iterable[_Asked], stands: Mapping[Stand, int], tools: Tools
) -> Iterator[BenchCut]:
    every, inside = lying_pieces(board), holding(board)
    keeps = {one.number for one in board.pieces if one.keep}
    parts = {one.number: one.part for one in board.pieces if one.part}
    made_by = {made: n for n, cut in board.numbered() for made in cut.makes if made}
    for one in asked:
        cut, piece = one.cut, one.piece
        wanted = [n in keeps or n in inside for n in cut.makes]
        straight = board.crooked and cut.saw is Saw.RIP and one.number <= 2
        way = max(one.ways, key=lambda way: stands[way.stand])
        lying, chosen = way.lying, way.chosen
        near_is_first = cut.saw is Saw.CROSSCUT or lying.fence in (EDGE, FACE)
        near_wanted = wanted[0] if near_is_first else wanted[1]
        position = _position(cut, lying, chosen, tools, straight=straight, near_wanted=near_wanted)
        if position.far_fence:  # the same edge at a fence on the other side: end for end
            lying = replace(lying, first=FAR_END if lying.first == END else END)
        yield BenchCut(
            board=board.number,
            number=one.number,
            of=cut.of,
            saw=cut.saw,
            size=(round(piece.size(0)), round(piece.size(1)), round(piece.size(2))),
            lying=lying,
            position=position,
            mark=lying.line if near_wanted else lying.line_beyond,
            waste="beyond" if near_wanted else "before",
            makes=tuple(
                MadePiece(
                    made,
                    parts.get(made, ""),
                    board.labels.get(made, ""),
                    tuple(inside.get(made, ())),
                    made in keeps,
                    (which == 0) == near_is_first,
                )
                for which, made in enumerate(cut.makes)
                if made is not None
            ),
            corners=_end_grain(piece, lying),
            stock=board.stock,
            after=made_by.get(cut.of),
            near_size=_near_size(cut, every, near_is_first=near_is_first),
            kerf=cut.end - cut.start,
            mark_below=lying.distance if near_wanted else lying.beyond,
            at_end=cut.saw is Saw.CROSSCUT and not any(wanted[:1]) and not piece.spans[0][0],
            is_held=chosen.way is Way.HOLD_DOWN,
            is_slanted=cut.saw is Saw.CROSSCUT and _has_slanted_end(every, cut),
        )


def _shaped(board: BenchBoard, stands: Mapping[Stand, int], tools: Tools) -> Iterator[BenchCut]:
    """The cuts that shape parts, whose ends are square by then."""
    every = lying_pieces(board)
    made_by = {made: n for n, cut in board.numbered() for made in cut.makes if made}
    kerf = min((cut.end - cut.start for cut in board.cuts), default=0)
    last: dict[int, int | None] = {}
    for number, of, upright in board.shaped():
        long, across_, through = (round(every[of].size(axis)) for axis in range(3))
        shape, size = board.shapes[board.placed[of].part], (long, across_, through)
        shaping = upright
        if abs(across_ - shape.thick) < abs(across_ - shape.wide):
            shaping, size = upright.on_edge, (long, through, across_)
        lying, chosen = to_shape(shaping, size, stands, tools)
        do = Saw.CROSSCUT.value if shaping.is_straight else shaping.called
        yield BenchCut(
            board=board.number,
            number=number,
            of=of,
            saw=Saw.CROSSCUT,
            size=size,
            lying=lying,
            position=position_of(do, None, chosen, lying),
            mark=0,
            waste="outside",
            makes=(),
            corners=(),
            stock=board.stock,
            after=last.get(of, made_by.get(of)),
            near_size=0,
            kerf=kerf,
            mark_below=0,
            is_held=chosen.way is Way.HOLD_DOWN,
            shaping=shaping,
            shapes=board.labels[of],
        )
        last[of] = number


def to_shape(
    shaping: Shaping, size: tuple[int, int, int], stands: Mapping[Stand, int], tools: Tools
) -> tuple[Lying, Chosen]:
    """How a piece lies for what is sawn of it, and the tool."""
    long, wide, thick = size
    if not shaping.is_straight:
        return shaping.lying, for_shape(tools, thick)
    ways = []
    for lying in (shaping.lying, shaping.end_for_end):
        asked = Crosscut(wide, thick, long, lying.swing, lying.lean)
        ways.append(_Way(lying, for_crosscut(tools, asked)))
    best = min(rank_of(way.chosen.way) for way in ways)
    same = [way for way in ways if rank_of(way.chosen.way) == best]
    found = max(same, key=lambda way: stands.get(way.stand, 0))
    return found.lying, found.chosen


def _settled(boards: list[list[BenchCut]]) -> list[list[BenchCut]]:
    """The same, with stops and fences that differ by less than anybody sets them at one figure."""
    known = {cut.position for board in boards for cut in board if cut.position.at is not None}
    figures: dict[Position, Position] = {}
    last: dict[Position, Position] = {}
    for position in sorted(known, key=lambda one: one.at or 0):
        alike = replace(position, at=None)
        before = last.get(alike)
        if before is None or (position.at or 0) - (before.at or 0) > _ALIKE:
            last[alike] = position
        figures[position] = last[alike]
    return [
        [replace(cut, position=figures.get(cut.position, cut.position)) for cut in board]
        for board in boards
    ]


def _has_slanted_end(every: Mapping[int, Piece], cut: Cut) -> bool:
    near = cut.makes[0]
    sides = () if near is None else every[near].sides
    return any(side.axis == 0 and side.lean != SQUARE for side in sides)


def _near_size(cut: Cut, every: Mapping[int, Piece], *, near_is_first: bool) -> int:
    near = cut.makes[0 if near_is_first else 1]
    axis = {Saw.CROSSCUT: 0, Saw.RIP: 1, Saw.RESAW: 2}[cut.saw]
    return 0 if near is None else round(every[near].size(axis))


def _crosscut(cut: Cut, piece: Piece, tools: Tools, *, wanted_first: bool) -> list[_Way]:
    """As the board is marked, or turned over about its length, which turns and tilts the saw to the
    other side: what the saw does most easily, and then what lets the stop be touched."""
    found: list[tuple[tuple[int, bool], _Way]] = []
    wide, thick = round(piece.size(1)), round(piece.size(2))
    slanted = any(side.lean != SQUARE for side in piece.sides if side.axis == 0)
    for over in (False, True) if cut.angle.degrees or slanted else (False,):
        lying = at_the_miter_saw(cut, piece, over=over)
        held = lying.distance if wanted_first else round(piece.size(0)) - lying.beyond
        asked = Crosscut(wide, thick, held, lying.swing, lying.lean, round(piece.size(0)))
        chosen = for_crosscut(tools, asked)
        untold = wanted_first and lying.touches is None
        found.append(((rank_of(chosen.way), untold), _Way(lying, chosen)))
    best = min(rank for rank, _ in found)
    return [way for rank, way in found if rank == best]


def rank_of(way: Way | None) -> int:
    """Which of two ways is the better one."""
    return _RANK.index(way)


_RANK = [
    None,
    Way.HOLD_DOWN,
    Way.RAISE,
    Way.FLIP,
    Way.SLED,
    Way.WEDGE,
    Way.PASSES,
    Way.GUIDE,
    Way.ANOTHER,
]


def _rip(cut: Cut, piece: Piece, tools: Tools, *, wanted: Sequence[bool]) -> list[_Way]:
    """With the usual edge against the fence; with the other one where the fence does not stand so
    far from the blade, unless that traps a sliver at the fence and sets the part free."""
    usual = at_the_fence(cut, piece)
    other = at_the_fence(cut, piece, far=usual.fence in (EDGE, FACE))
    found = []
    for lying in (usual, other):
        deep = round(piece.size(1 if cut.saw is Saw.RESAW else 2))
        long, reach = round(piece.size(0)), lying.distance
        asked = Rip(deep, long, reach, lying.lean, resaw=cut.saw is Saw.RESAW)
        near_wanted = wanted[0 if lying.fence in (EDGE, FACE) else 1]
        traps = not near_wanted and reach < SLIVER
        chosen = for_rip(tools, asked)
        found.append(((traps, rank_of(chosen.way)), _Way(lying, chosen)))
    best = min(rank for rank, _ in found)
    return [next(way for rank, way in found if rank == best)]


def position_of(do: str, at: int | None, chosen: Chosen, lying: Lying) -> Position:
    """How the tool that was chosen stands for a piece that lies so."""
    tool = chosen.tool
    along_a_line = chosen.is_along_a_line or (do == Saw.CROSSCUT.value and lying.touches is None)
    return Position(
        tool=str(tool) if tool else "",
        kind=tool.kind if tool else "",
        do=do,
        at=None if along_a_line else at,
        swing=chosen.swing,
        lean=chosen.lean,
        angle=abs(lying.swing),
        tilt=abs(lying.lean),
        wedge=chosen.wedge,
        way=chosen.way,
        raised=chosen.raised,
        passes=chosen.passes,
        would=chosen.would,
        far_fence=bool(lying.lean) and tool is not None and _leans_right(tool),
    )


def _position(
    cut: Cut, lying: Lying, chosen: Chosen, tools: Tools, *, straight: bool, near_wanted: bool
) -> Position:
    if cut.saw is Saw.CROSSCUT:
        if chosen.way is Way.HOLD_DOWN:  # which is of one piece, not of where the saw stands
            chosen = replace(chosen, way=None)
        if not near_wanted:
            return position_of(TRIM, None, chosen, lying)
    if not straight:
        return position_of(cut.saw.value, lying.distance, chosen, lying)
    edge = tools.first("straight edge")
    wide = edge.length("width") if edge else None
    at = lying.distance
    if lying.fence == EDGE and cut.of == 0:  # the straight edge rides the fence with the board
        at += wide or 0
    return position_of(STRAIGHTEN, at, chosen, lying)


def _leans_right(saw: Tool) -> bool:
    """Whether the blade of a table saw tilts to the right, so that the fence stands to the left."""
    return saw.limits.get("tilt side") == "right"


def _end_grain(piece: Piece, lying: Lying) -> tuple[tuple[int, int], ...]:
    """The end of a piece as it lies against the fence (ticks): the corners of its section from the
    fence out and from the table up, round it."""
    (y0, y1), (z0, z1) = outermost(piece), piece.spans[2]
    corners = []
    for z, outward in ((z0, (0, 1)), (z1, (1, 0))):
        ends = across(piece, z)
        corners += [(ends[which], z) for which in outward]
    if lying.up in (FACE, "back"):
        from_far = lying.fence not in (EDGE, FACE)
        return tuple(
            (round(y1 - y if from_far else y - y0), round(z1 - z if lying.up == FACE else z - z0))
            for y, z in corners
        )
    from_back = lying.fence != FACE
    return tuple((round(z1 - z if from_back else z - z0), round(y - y0)) for y, z in corners)
