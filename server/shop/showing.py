"""Cutting in the words of the API's contract."""

from collections import Counter
from collections.abc import Iterable, Iterator
from uuid import UUID

from carpentry.language import Notation
from carpentry.lumber import StockName, read_stock
from carpentry.planning import Workup
from carpentry.shop import (
    MARKS,
    OVER_ALL,
    Bench,
    BenchBoard,
    BenchCut,
    BenchEvent,
    BenchEventKind,
    Changed,
    Sequenced,
    SetUp,
    board_by_board,
    counted,
    every_cut,
    is_usual,
    lies,
    line_said,
    made_said,
    minutes_of,
    notes_of,
    piece_said,
    rows_of,
    set_at,
    stands,
    stop_by_stop,
    way_said,
)
from server.common.schemas import length_out
from server.shop.models import Cutting
from server.shop.schemas import (
    BenchBoardOut,
    BenchPieceOut,
    CardCutOut,
    CardOut,
    CardRowOut,
    CuttingOut,
    HeldOut,
    LabelOut,
    LastEventOut,
    RefusedBenchEventOut,
    SawnShapeOut,
    SequenceOut,
)

Refused = Iterable[tuple[BenchEvent, str]]
_MOST_CHANGES = 12


def show_cutting(cutting: Cutting, work: Workup | None = None, refused: Refused = ()) -> CuttingOut:
    """Cutting as it is; ``work`` is the project as it is at the desk now."""
    is_begun = not cutting._state.adding
    happened = cutting.happened() if is_begun else []
    bench = cutting.bench() if is_begun else _planned(cutting)
    tools = cutting.supplied.tools
    boards = [board for board in bench.boards.values() if board.cuts]
    cuts = every_cut(boards, tools)
    shown = _Shown(cutting, bench)
    replanned = [(event, changed) for event, changed in happened if changed is not None]
    return CuttingOut(
        id=cutting.id if is_begun else None,
        project=cutting.project_id,
        name=cutting.project.name,
        begun=cutting.begun if is_begun else None,
        finished=cutting.finished is not None,
        by_stop=shown.sequence(stop_by_stop(cuts, tools)),
        by_board=shown.sequence(board_by_board(cuts, tools)),
        boards=[shown.board(board) for board in bench.boards.values()],
        done=[f"{board}.{number}" for board, number in sorted(bench.done)],
        seen=[UUID(event.id) for event, _ in happened],
        refused=[RefusedBenchEventOut(id=UUID(e.id), message=why) for e, why in refused],
        last=_last(happened, bench),
        missing=sorted(bench.missing),
        said=_said(replanned, happened),
        changed=list(_changed(cutting, work))[:_MOST_CHANGES] if work else [],
        held=shown.held(),
        not_yet=cutting.not_yet,
        labels=shown.labels(),
        marks=MARKS,
        notation=cutting.notation,
    )


def _planned(cutting: Cutting) -> Bench:
    return Bench({board.number: board for board in cutting.planned_boards()})


def _said(
    replanned: list[tuple[BenchEvent, Changed]], happened: list[tuple[BenchEvent, Changed | None]]
) -> str:
    """What the newest event that changed the boards came to, unless that was undone."""
    undone = {event.undoes for event, _ in happened}
    standing = [changed for event, changed in replanned if event.id not in undone]
    return standing[-1].says if standing else ""


def _last(happened: list[tuple[BenchEvent, Changed | None]], bench: Bench) -> LastEventOut | None:
    """The newest event that stands and may be undone."""
    undone = {event.undoes for event, _ in happened}
    for event, changed in reversed(happened):
        if event.kind is BenchEventKind.UNDONE or event.id in undone:
            continue
        keys = event.keys if event.cuts else []
        cuts = bench.with_before(keys) if event.kind is BenchEventKind.CUT else frozenset(keys)
        said = f"{len(keys)} cut" + ("s" if len(keys) > 1 else "")
        if changed is not None:
            said = event.kind.value
        return LastEventOut(
            id=UUID(event.id), said=said, cuts=[f"{b}.{n}" for b, n in sorted(cuts)]
        )
    return None


def _changed(cutting: Cutting, work: Workup) -> Iterator[str]:
    """How the parts of a project differ at the desk from those that are cut here."""
    if cutting.project.version == cutting.project_version:
        return
    notation = cutting.notation
    now = {
        one.id: (work.marks[one.id], one.part)
        for material in work.materials
        for one in material.all_parts()
    }
    for id_, (mark, part) in now.items():
        was = cutting.parts.get(id_)
        count = part.quantity * work.settings.copies
        if was is None:
            yield f"{mark} is new"
            continue
        if part.length.ticks != was["length"]:
            before, after = (
                length_out(one, notation).text for one in (was["length"], part.length.ticks)
            )
            yield f"{mark}: {before} → {after}"
        if count != was["quantity"]:
            yield f"{mark}: {was['quantity']} → {count} pieces"
    yield from (f"{was['mark']} is gone" for id_, was in cutting.parts.items() if id_ not in now)


class _Shown:
    """Boards and set-ups of one cutting as they are shown."""

    def __init__(self, cutting: Cutting, bench: Bench) -> None:
        self.cutting = cutting
        self.bench = bench
        self.notation = Notation(cutting.notation)
        self.planned = len(cutting.boards)
        self.names = {one["mark"]: one["name"] for one in cutting.parts.values()}
        self._kinds: dict[str, str] = {}

    def sequence(self, found: Sequenced) -> SequenceOut:
        seen: Counter[str] = Counter()
        cards = []
        for set_up in found.set_ups:
            card = self.card(set_up)
            seen[card.key] += 1
            cards.append(card.model_copy(update={"key": f"{card.key} {seen[card.key]}"}))
        return SequenceOut(
            cards=cards,
            moves=found.moves,
            lifts=found.lifts,
            swings=found.swings,
            walks=found.walks,
            fewest=found.is_fewest,
        )

    def card(self, set_up: SetUp) -> CardOut:
        position = set_up.position
        heading, _, _ = set_at(position, self.notation).partition(" at ")
        return CardOut(
            key=f"{position.tool} {position.do} {position.at} {position.swing} {position.lean}",
            do=position.do,
            tool=position.tool,
            heading=f"{heading} at" if position.at is not None else heading,
            at=None if position.at is None else length_out(position.at, self.cutting.notation),
            stands=stands(position),
            tells=self._tells(set_up),
            way=way_said(position, self.notation),
            notes=notes_of(set_up, self.notation),
            cautions=list(set_up.cautions),
            angle=float(position.angle),
            swing=position.swing_side,
            tilt=float(position.tilt),
            tilt_side=position.tilt_side,
            fence_side=position.fence_side,
            is_crosscut=position.is_crosscut,
            minutes=float(minutes_of([set_up])),
            rows=[self.row(board, cuts) for board, cuts in rows_of(set_up)],
        )

    def _tells(self, set_up: SetUp) -> str:
        """What comes off: ``6 cross ties (B)``."""
        named = [*set_up.labels, *set_up.shaped]
        letters = Counter(label.rstrip("0123456789") for label in named)
        said = [
            f"{count} {self.names.get(mark, '') or 'pieces'} ({mark})"
            for mark, count in letters.items()
        ]
        stocks = dict.fromkeys(cut.stock for cut in set_up.cuts)
        return ", ".join([*said, *stocks]) if said else ", ".join(stocks)

    def row(self, number: int, cuts: list[BenchCut]) -> CardRowOut:
        board = self.bench.boards[number]
        return CardRowOut(
            board=number,
            called=board.called,
            stock=board.stock,
            kind=self._kind(board.stock),
            off=counted(
                dict.fromkeys(one for cut in cuts for one in (*cut.labels, cut.shapes) if one)
            ),
            cuts=[self.cut(cut) for cut in cuts],
        )

    def _kind(self, stock: str) -> str:
        """The kind of its wood, which it is drawn as."""
        if stock not in self._kinds:
            read: StockName = read_stock(stock, self.cutting.project.lexicon).stock
            self._kinds[stock] = read.kind
        return self._kinds[stock]

    def cut(self, cut: BenchCut) -> CardCutOut:
        near = next((made for made in cut.makes if made.is_near), None)
        keeps = near is not None and not near.is_waste
        long = cut.near_size if near is not None and near.labels else None
        if long is not None and near is not None and near.part and cut.is_slanted:
            long = self.cutting.parts[near.part].get("over_all") or long
        return CardCutOut(
            key=f"{cut.board}.{cut.number}",
            board=cut.board,
            piece=piece_said(cut),
            lies=lies(cut),
            is_usual=is_usual(cut),
            up=cut.lying.up,
            against=cut.lying.fence,
            first=cut.lying.first,
            mark=length_out(abs(cut.mark), self.cutting.notation),
            to_line=cut.position.at is None,
            line=line_said(cut, self.notation),
            line_along=cut.lying.along if cut.position.is_crosscut else "",
            touches=cut.lying.touches or "",
            waste=cut.waste,
            size=list(cut.size),
            near_end=list(cut.lying.near_end),
            blade=list(cut.lying.blade),
            far_end=list(cut.lying.far_end),
            kerf=cut.kerf,
            near=cut.lying.distance,
            far=cut.lying.beyond,
            corners=[list(corner) for corner in cut.corners],
            labels=cut.labels or [one for one in (cut.shapes,) if one],
            makes=made_said(cut),
            keeps_near=keeps,
            keeps_far=any(not made.is_near and not made.is_waste for made in cut.makes),
            measured=None if long is None else length_out(long, self.cutting.notation),
            shape=_shape(cut) if cut.shaping else None,
            measured_how=OVER_ALL if cut.is_slanted else "",
        )

    def board(self, board: BenchBoard) -> BenchBoardOut:
        there = self.bench.there(board.number)
        lying = self.bench.lying(board.number)
        return BenchBoardOut(
            number=board.number,
            called=board.called,
            stock=board.stock,
            length=length_out(board.length, self.cutting.notation),
            is_more=board.number > self.planned,
            is_whole=there == [0],
            is_gone=not there,
            pieces=[
                BenchPieceOut(
                    number=piece,
                    called=board.labels.get(piece)
                    or (f"piece {piece}" if piece else "the whole board"),
                    length=length_out(round(lying[piece].size(0)), self.cutting.notation),
                )
                for piece in there
            ],
        )

    def held(self) -> list[HeldOut]:
        return [
            HeldOut(mark=one["mark"], name=one["name"], count=one["quantity"])
            for one in self.cutting.parts.values()
            if one["held"]
        ]

    def labels(self) -> list[LabelOut]:
        parts = self.cutting.parts
        found = []
        for number, board in self.bench.boards.items():
            for piece, label in board.labels.items():
                part = parts[board.placed[piece].part]
                found.append(
                    LabelOut(
                        label=label,
                        name=part["name"],
                        length=length_out(
                            part.get("over_all") or part["length"], self.cutting.notation
                        ),
                        measured=OVER_ALL if part.get("over_all") else "",
                        board=number,
                        goes_to=part["group"],
                    )
                )
        return sorted(found, key=lambda one: _in_order(one.label))


def _shaped(cuts: list[BenchCut]) -> list[str]:
    """The parts of which more is sawn."""
    return list(dict.fromkeys(cut.shapes for cut in cuts if cut.shapes))


def _shape(cut: BenchCut) -> SawnShapeOut:
    shaping = cut.shaping
    assert shaping is not None
    return SawnShapeOut(
        line=[list(point) for point in shaping.line],
        waste=[list(point) for point in shaping.waste],
        is_outline=shaping.called == "outline",
        is_over=cut.lying.fence != shaping.edges[0],
    )


def _in_order(label: str) -> tuple[int, str, int]:
    mark = label.rstrip("0123456789")
    return len(mark), mark, int(label[len(mark) :] or 0)
