"""Set-ups: one position of one tool that serves every piece that needs it, in the order in which
they are made."""

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from itertools import groupby, pairwise

from carpentry.cutting import Saw
from carpentry.language import TICKS_PER_FOOT, TICKS_PER_INCH
from carpentry.lumber.cautions import (
    CROSSCUTS,
    NARROW,
    NARROW_STRIP,
    PROTECTION,
    RIPS,
    SHORT,
    SHORT_PIECE,
    SHORT_RIP,
    SHORT_RIPPED,
    STEEP,
    TREATED,
)
from carpentry.shop.bench_cuts import (
    STRAIGHTEN,
    TRIM,
    BenchCut,
    Position,
)
from carpentry.shop.lying import NOTHING
from carpentry.shop.sequence import Rank, in_few_walks, in_fewest_rounds
from carpentry.shop.tools import Tools
from carpentry.shop.ways import LINE_SAWS, Way

_TABLE = 12 * TICKS_PER_INCH  # that carries a piece beside the blade where nothing is said
_HELD = 6 * TICKS_PER_FOOT  # that one holds behind a table saw; common practice, no source
_LONG = 4 * TICKS_PER_FOOT  # a piece that is shorter is held by hand
_MOST_STACKED = 3
_TEST_PIECE = 6 * TICKS_PER_INCH
_FIRST = [STRAIGHTEN, TRIM, "rip", "resaw", "crosscut", "notch", "outline"]
_STEEP = 45
MINUTES_A_SET_UP, MINUTES_A_CUT = 3, 0.75  # common practice, no source


@dataclass(frozen=True)
class SetUp:
    """One set-up: its ``position`` and the cuts made at it, board by board. How many alike may be
    ``stacked``; whether the stop is beyond the fence by so much (``extension``, ticks) and how far
    the longest piece hangs over (``overhang``); ``test_from`` is the board whose waste a first cut
    is tried in, ``None`` where that is other scrap."""

    position: Position
    cuts: tuple[BenchCut, ...]
    stacked: int = 1
    extension: int = 0
    overhang: int = 0
    test_from: int | None = None
    cautions: tuple[str, ...] = ()

    @property
    def boards(self) -> list[int]:
        """The numbers of its boards, in order."""
        return list(dict.fromkeys(cut.board for cut in self.cuts))

    @property
    def labels(self) -> list[str]:
        """The parts that come off."""
        return [label for cut in self.cuts for label in cut.labels]

    @property
    def shaped(self) -> list[str]:
        """The parts of which more is sawn."""
        return list(dict.fromkeys(cut.shapes for cut in self.cuts if cut.shapes))


@dataclass(frozen=True)
class Sequenced:
    """Set-ups one after the other, how often a stop or a fence is set (``moves``), how often a
    board is taken up (``lifts``), and whether no order of these cuts, each in its turn along its
    board, takes fewer set-ups."""

    set_ups: tuple[SetUp, ...]
    moves: int
    lifts: int
    is_fewest: bool

    @property
    def swings(self) -> int:
        """How often a saw is turned or tilted, to square again too."""
        stood: dict[str, tuple[Decimal, Decimal]] = {}
        count = 0
        for one in self.set_ups:
            position = one.position
            if position.at is None and position.kind != "miter saw":
                continue
            now = (position.swing, position.lean)
            count += stood.get(position.tool, (NOTHING, NOTHING)) != now
            stood[position.tool] = now
        return count

    @property
    def walks(self) -> int:
        """How often one goes from one tool to another."""
        tools = [one.position.tool for one in self.set_ups]
        return sum(before != after for before, after in pairwise(tools))


def minutes_of(set_ups: Iterable[SetUp]) -> int:
    """About how long set-ups take; common practice, no source."""
    known = list(set_ups)
    cuts = sum(len(one.cuts) for one in known)
    return round(MINUTES_A_SET_UP * len(known) + MINUTES_A_CUT * cuts)


def stop_by_stop(cuts: Sequence[Sequence[BenchCut]], tools: Tools) -> Sequenced:
    """Each position set as seldom as can be; boards are taken up again as often as that needs."""
    known = {cut.key: cut for board in cuts for cut in board}
    stops = _stops(known.values())
    waits = {key: _waits_for(cut) for key, cut in known.items()}
    ordered = in_fewest_rounds(
        ([(cut.key, _may_be_at(cut, stops), waits[cut.key]) for cut in board] for board in cuts),
        _rank,
    )
    near = in_few_walks(ordered.rounds, waits, _apart)
    rounds = [(position, [known[key] for key in keys]) for position, keys in near]
    _put_off(rounds, stops)
    made = [(position, mine) for position, mine in rounds if mine]
    return _sequence(made, tools, is_fewest=ordered.is_fewest)


def _put_off(rounds: list[tuple[Position, list[BenchCut]]], stops: list[Position]) -> None:
    """Moves cuts to a line to the set-up at which their board is taken up next, where the saw
    stands so there, too."""
    at = {cut.key: n for n, (_, mine) in enumerate(rounds) for cut in mine}
    nexts: dict[tuple[int, int], list[int]] = {}
    for n in reversed(range(len(rounds))):
        for cut in sorted(rounds[n][1], key=lambda one: one.key, reverse=True):
            later = min(nexts.get(cut.key, ()), default=n)
            if later > n and rounds[later][0] in _may_be_at(cut, stops):
                rounds[n][1].remove(cut)
                rounds[later][1].append(cut)
                at[cut.key] = later
            before = _waits_for(cut)
            if before is not None:
                nexts.setdefault(before, []).append(at[cut.key])


def board_by_board(cuts: Sequence[Sequence[BenchCut]], tools: Tools) -> Sequenced:
    """Each board is taken up once, cut to its last piece and put away."""
    rounds: list[tuple[Position, list[BenchCut]]] = []
    for board in cuts:
        stops = _stops(board)
        alone = in_fewest_rounds(
            [[(cut.number, _may_be_at(cut, stops), cut.after) for cut in board]], _rank
        )
        known = {cut.number: cut for cut in board}
        for position, numbers in alone.rounds:
            if not rounds or rounds[-1][0] != position:
                rounds.append((position, []))
            rounds[-1][1].extend(known[number] for number in numbers)
    found = _sequence(rounds, tools, is_fewest=False)
    return replace(found, lifts=sum(bool(board) for board in cuts))


def _waits_for(cut: BenchCut) -> tuple[int, int] | None:
    return None if cut.after is None else (cut.board, cut.after)


def _stops(cuts: Iterable[BenchCut]) -> list[Position]:
    found = (cut.position for cut in cuts if cut.position.do == Saw.CROSSCUT.value)
    return list(dict.fromkeys(one for one in found if one.at is not None))


def _may_be_at(cut: BenchCut, stops: Iterable[Position]) -> list[Position]:
    """Where a cut may be made: at its own position, or, to a line, at any stop where the saw stands
    so and which is farther from the blade than the piece reaches."""
    mine = cut.position
    if mine.at is not None or not mine.is_crosscut or mine.way is not None or cut.shaping:
        return [mine]
    reach = max(cut.lying.blade) - min(cut.lying.near_end) + TICKS_PER_INCH
    same = replace(mine, do=Saw.CROSSCUT.value)
    found = [one for one in stops if (one.at or 0) >= reach and replace(one, at=None) == same]
    return found or [mine]


def _apart(last: Position | None, position: Position) -> int:
    """How much is moved from one position to another: a stop or a fence, the angle too, or one
    walks to another tool."""
    if last is None or last.tool != position.tool:
        return 2
    return (last.swing, last.lean) != (position.swing, position.lean)


def _rank(position: Position) -> Rank:
    """What comes first: straight edges, trimmed ends, the longest stop, square before angled."""
    return (
        _FIRST.index(position.do),
        float(position.angle + position.tilt),
        -(position.at or 0),
        position.tool,
    )


def _sequence(
    rounds: Sequence[tuple[Position, list[BenchCut]]], tools: Tools, *, is_fewest: bool
) -> Sequenced:
    ordered = [(position, _in_hand(cuts)) for position, cuts in rounds]
    waste = _waste(cut for _, cuts in ordered for cut in cuts)
    set_ups = tuple(_set_up(position, cuts, tools, waste) for position, cuts in ordered)
    moves = sum(1 for one in set_ups if one.position.at is not None)
    return Sequenced(set_ups, moves, sum(len(one.boards) for one in set_ups), is_fewest)


def _in_hand(cuts: list[BenchCut]) -> list[BenchCut]:
    """Cuts as boards are taken up: all of one, then those of the next."""
    return sorted(cuts, key=lambda cut: cut.key)


def _waste(cuts: Iterable[BenchCut]) -> dict[tuple[int, int], list[int]]:
    """The boards that leave scrap long enough to try a cut in, by its section."""
    found: dict[tuple[int, int], list[int]] = {}
    for cut in cuts:
        long = [
            cut.rest if not made.is_near else cut.lying.distance
            for made in cut.makes
            if made.is_waste
        ]
        if cut.saw.value == "crosscut" and any(one >= _TEST_PIECE for one in long):
            found.setdefault(cut.size[1:], []).append(cut.board)
    return found


def _set_up(
    position: Position,
    cuts: list[BenchCut],
    tools: Tools,
    waste: dict[tuple[int, int], list[int]],
) -> SetUp:
    saw = next((tool for tool in tools.owned if str(tool) == position.tool), None)
    extension = overhang = 0
    if position.kind == "miter saw":
        left, right = (saw.length(f"fence {side}") if saw else None for side in ("left", "right"))
        if left is not None and position.at is not None:
            extension = max(0, position.at - left)
        overhang = max(_overhang(cut, left or _TABLE, right or _TABLE) for cut in cuts)
    elif position.kind == "table saw" and not tools.of("outfeed", "helper"):
        overhang = max(max(0, cut.size[0] - _HELD) for cut in cuts)
    here = {cut.board for cut in cuts}
    tried = next((one for one in waste.get(cuts[0].size[1:], ()) if one not in here), None)
    tried = tried if tried is not None else next(iter(waste.get(cuts[0].size[1:], ())), None)
    if position.way is None and any(cut.is_held for cut in cuts):
        position = replace(position, way=Way.HOLD_DOWN)
    return SetUp(
        position,
        tuple(cuts),
        stacked=_stacked(position, cuts, saw.length("depth") if saw else None),
        extension=extension,
        overhang=overhang,
        test_from=tried,
        cautions=tuple(_cautions(position, cuts)),
    )


def _overhang(cut: BenchCut, left: int, right: int) -> int:
    """How far a piece hangs over the table on one side, where that is more than a third of it."""
    if cut.size[0] < _LONG or cut.shaping:
        return 0
    over = max(cut.lying.distance - left, cut.rest - right)
    return over if over > cut.size[0] / 3 else 0


def _stacked(position: Position, cuts: list[BenchCut], depth: int | None) -> int:
    """How many equal pieces are cut at once, one on the other, their ends flush: square crosscuts
    at a stop, of boards that are there at the same time, as high as the saw cuts."""
    square = not position.angle and not position.tilt and position.way is None
    if position.do != "crosscut" or not square or depth is None:
        return 1
    alike = Counter((cut.size, cut.number) for cut in cuts if cut.size[2] > 1)
    if not alike:  # nobody knows how thick they are
        return 1
    (size, _), count = max(alike.items(), key=lambda one: one[1])
    return max(1, min(_MOST_STACKED, count, depth // size[2]))


def cautions_of(
    position: Position, *, narrow: bool, short: bool, treated: bool = False
) -> Iterator[str]:
    """What to mind where a tool stands so, of ``narrow`` strips, ``short`` pieces and ``treated``
    wood too."""
    if position.is_crosscut:
        if position.kind in ("table saw", ""):
            yield CROSSCUTS
        if short:
            yield SHORT
    elif position.is_rip and position.kind not in LINE_SAWS:
        yield RIPS
        if short:
            yield SHORT_RIPPED
        if narrow:
            yield NARROW
    if position.tilt > _STEEP or position.angle > _STEEP:
        yield STEEP
    if treated:
        yield TREATED
    yield PROTECTION


def _cautions(position: Position, cuts: list[BenchCut]) -> Iterator[str]:
    return cautions_of(
        position,
        narrow=any(map(_narrow, cuts)),
        short=any(map(_short, cuts)),
        treated=any("treated" in cut.stock.split() for cut in cuts),
    )


def _short(cut: BenchCut) -> bool:
    if cut.position.is_rip:
        return cut.size[0] < SHORT_RIP
    return cut.is_held or any(
        0 < (cut.lying.distance if made.is_near else cut.rest) < SHORT_PIECE
        for made in cut.makes
        if not made.is_waste
    )


def _narrow(cut: BenchCut) -> bool:
    """Whether a strip that comes off is narrow."""
    wide = cut.size[2] if cut.saw.value == "resaw" else cut.size[1]
    return any(
        0 < (cut.lying.distance if made.is_near else wide - cut.lying.beyond) < NARROW_STRIP
        for made in cut.makes
    )


def rows_of(set_up: SetUp) -> list[tuple[int, list[BenchCut]]]:
    """The cuts of a set-up, board by board."""
    return [(board, list(cuts)) for board, cuts in groupby(set_up.cuts, lambda cut: cut.board)]
