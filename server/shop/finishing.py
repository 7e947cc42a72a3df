"""The end of cutting: parts are cut for good, what is left goes onto the rack, boards that were
taken from it are off it."""

import uuid
from collections.abc import Iterator
from decimal import Decimal

from django.db import transaction
from django.utils import timezone

from carpentry.language import CarpentryError, Unit, interchange
from carpentry.lumber import INCHES, Section, read_stock, standard_section
from carpentry.lumber.rack import MAX_BOARDS, BoardFields, offcut_stock, section_noted
from carpentry.shop import Bench, BenchBoard, Box, box_of, plans_as_cut
from server.plans.cut import take_cut_back
from server.plans.models import AS_CUT, Board, Piece, Plan
from server.rack.models import Rack
from server.shop.models import Cutting
from server.stocks.models import own_stocks


@transaction.atomic
def finish(cutting: Cutting, change_id: uuid.UUID) -> None:
    """Ends cutting: what is cut stays cut for whatever is planned next, whole boards and offcuts
    are laid on the rack. Done again it does nothing.

    Raises ``CarpentryError`` when the rack is full, or nothing was cut.
    """
    cutting.refresh_from_db()
    if cutting.finished is not None:
        return
    bench = cutting.bench()
    if not bench.done:
        raise CarpentryError("nothing is cut yet: call it off instead")
    plan = _plan_of(cutting, bench)
    rack = Rack.of(cutting.project.owner)

    def lay(rack: Rack) -> str:
        begun = [b for b in bench.boards.values() if b.rack and not _is_as_it_was(bench, b)]
        used = list(rack.boards.filter(id__in=[board.rack for board in begun]))
        rows = [board.snapshot() for board in used]
        rack.boards.filter(id__in=[board.id for board in used]).delete()
        rest = list(_left(cutting, bench))
        if rack.boards.count() + len(rest) > MAX_BOARDS:
            raise CarpentryError(f"a rack holds {MAX_BOARDS:,} boards: take some off first")
        added = rack.add_boards(rest)
        entry = {"plan": str(plan.id), "taken": rows, "added": [str(board.id) for board in added]}
        rack.cut_plans = [*rack.cut_plans, entry]
        count = len(added)
        return f"{cutting.project.name} cut: {count} {'piece' if count == 1 else 'pieces'} laid on"

    rack.change(rack.version, change_id, "cut in the shop", lay)
    cutting.plan = plan
    cutting.finished = timezone.now()
    cutting.save(update_fields=["plan", "finished"])


@transaction.atomic
def open_again(cutting: Cutting, change_id: uuid.UUID) -> None:
    """Takes the end of cutting back. Raises ``CarpentryError`` where the project is being cut
    again already."""
    if cutting.finished is None:
        return
    if cutting.project.cuttings.filter(finished=None).exists():
        raise CarpentryError("this project is being cut already")
    if cutting.plan:
        take_cut_back(cutting.plan, change_id)
    cutting.finished = None
    cutting.save(update_fields=["finished"])


def _plan_of(cutting: Cutting, bench: Bench) -> Plan:
    """What is cut, as a plan that was. Where all of it is cut it is that of the project as it was
    then, with the boards as they were really cut; else only the pieces count, for whatever is
    planned next."""
    whole = not bench.cuts_left() and not bench.missing
    used = [board for board in bench.boards.values() if board.placed]
    plan = Plan.objects.create(
        project=cutting.project,
        digest=cutting.digest if whole else f"cut {uuid.uuid4()}",
        status=Plan.Status.DONE,
        stage=Plan.Stage.CUT,
        made_by=AS_CUT,
        basis=cutting.basis,
        seconds=0.0,
        outcome=plans_as_cut(bench, cutting.supplied) if whole else [],
        boards_count=len(used),
        subtotal=sum((board.price or 0 for board in used), Decimal(0)),
    )
    cut: dict[int, list[tuple[str, str, int]]] = {}
    for board, label, placed in bench.parts_cut():
        cut.setdefault(board.number, []).append((label, placed.part, placed.end - placed.start))
    for number, pieces in cut.items():
        bench_board = bench.boards[number]
        row = Board.objects.create(
            plan=plan,
            number=number,
            layout=number,
            stock=bench_board.stock,
            thickness=bench_board.section.thickness if bench_board.section else None,
            width=bench_board.section.width if bench_board.section else None,
            length=bench_board.length,
            real_length=bench_board.length,
            price=bench_board.price,
        )
        Piece.objects.bulk_create(
            Piece(board=row, part=part, label=label, start=0, end=long)
            for label, part, long in pieces
        )
    return plan


def _is_as_it_was(bench: Bench, board: BenchBoard) -> bool:
    """Whether a board was not begun, and nothing was found out about it."""
    return bench.there(board.number) == [0]


def _left(cutting: Cutting, bench: Bench) -> Iterator[BoardFields]:
    """What lies there and is no part: whole boards, pieces with parts that were not cut, offcuts
    that are kept."""
    words = INCHES.knowing(own_stocks(cutting.project.owner))
    for number, board in bench.boards.items():
        if board.rack and _is_as_it_was(bench, board):
            continue  # it is still there
        lying = bench.lying(number)
        kept = {one.number for one in board.pieces if one.keep}
        cut_on = {cut.of for cut in board.cuts}
        for piece in bench.there(number):
            if piece in board.labels or (piece not in kept and piece not in cut_on):
                continue
            length, width, thickness = (round(lying[piece].size(axis)) for axis in range(3))
            least = cutting.supplied.problem(board).keep_offcut_from
            if piece in kept and piece not in cut_on and length < least:
                continue  # cut wrong, and too short to keep
            section = Section(thickness, width) if board.section else None
            stock = read_stock(board.stock, words).stock
            name = stock if section == board.section else offcut_stock(stock, section)
            if name is None:
                continue
            own = section is not None and section != standard_section(name)
            yield BoardFields(
                stock=str(name),
                length=interchange(length, Unit.INCH),
                note=_note(cutting, board, piece),
                flaws=_flaws(board, box_of(lying[piece])),
                **(section_noted(section, Unit.INCH) if section and own else {}),
            )


def _flaws(board: BenchBoard, box: Box) -> str:
    """The bad spots of a piece, from its near end, as the rack notes them."""
    start, end = box.x
    found: list[tuple[int, int]] = []
    for flaw in sorted(board.flaws):
        a, b = max(flaw[0], start) - start, min(flaw[1], end) - start
        if found and a <= found[-1][1]:  # two that meet are one
            found[-1] = found[-1][0], max(b, found[-1][1])
        elif a < b:
            found.append((a, b))
    return ", ".join(
        f"{interchange(a, Unit.INCH)} to {interchange(b, Unit.INCH)}" for a, b in found
    )


def _note(cutting: Cutting, board: BenchBoard, piece: int) -> str:
    what = "offcut" if piece else "board"
    return f"{what} of {cutting.project.name}, board {board.number}"[:200]
