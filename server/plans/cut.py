"""A plan marked cut: its keepable offcuts go onto the rack, the boards it used come off it."""

import uuid
from collections.abc import Iterator

from django.db import transaction

from carpentry.language import CarpentryError, Unit, interchange
from carpentry.lumber import INCHES, Section, StockName, read_stock, standard_section
from carpentry.lumber.rack import MAX_BOARDS, BoardFields, offcut_stock, section_noted
from server.plans.models import Board, Plan
from server.plans.resting import work_up
from server.rack.models import Rack, RackBoard


def _counted(count: int, one: str) -> str:
    return f"{count} {one}{'' if count == 1 else 's'}"


@transaction.atomic
def mark_cut(plan: Plan, change_id: uuid.UUID) -> None:
    """Marks a plan of a project's present state cut and moves its boards; done again it does
    nothing.

    Raises ``CarpentryError`` for a plan that is not finished or not of the present state.
    """
    if plan.stage == Plan.Stage.CUT:
        return
    work = work_up(plan.project)
    if plan.status not in (Plan.Status.DONE, Plan.Status.STOPPED):
        raise CarpentryError("this plan is not finished yet", "plan")
    if plan.digest != work.digest:
        raise CarpentryError("the project, yard or rack has changed: look at the new plan", "plan")
    boards = list(plan.boards.all())
    if not boards:
        raise CarpentryError("this plan has no boards to cut", "plan")

    words = INCHES.knowing(work.basis.own)

    def make(rack: Rack) -> str:
        used = list(rack.boards.filter(id__in=[b.rack_board for b in boards if b.rack_board]))
        rows = [board.snapshot() for board in used]
        rack.boards.filter(id__in=[board.id for board in used]).delete()
        offcuts = [
            offcut
            for board in boards
            for stock in [read_stock(board.stock, words).stock]
            for offcut in _offcuts(board, stock, plan, used)
        ]
        if rack.boards.count() + len(offcuts) > MAX_BOARDS:
            raise CarpentryError(f"a rack holds {MAX_BOARDS:,} boards: take some off first", "plan")
        added = rack.add_boards(offcuts)
        entry = {"plan": str(plan.id), "taken": rows, "added": [str(board.id) for board in added]}
        rack.cut_plans = [*rack.cut_plans, entry]
        return (
            f"{plan.project.name} cut: {_counted(len(added), 'offcut')} laid on,"
            f" {_counted(len(rows), 'board')} used"
        )

    plan.basis = work.basis.document()
    plan.stage = Plan.Stage.CUT
    plan.save(update_fields=["basis", "stage"])
    rack = Rack.of(plan.project.owner)
    rack.change(rack.version, change_id, "plan cut", make)


@transaction.atomic
def take_cut_back(plan: Plan, change_id: uuid.UUID) -> None:
    """Undoes ``mark_cut``: offcuts still on the rack go, boards that were used come back."""
    rack = Rack.of(plan.project.owner)
    entry = next((e for e in rack.cut_plans if e["plan"] == str(plan.id)), None)
    if entry is None:
        return

    def make(rack: Rack) -> str:
        rack.boards.filter(id__in=entry["added"]).delete()
        RackBoard.objects.bulk_create(
            RackBoard.from_snapshot(row, rack=rack) for row in entry["taken"]
        )
        rack.cut_plans = [one for one in rack.cut_plans if one != entry]
        return f"{plan.project.name} not cut after all"

    rack.change(rack.version, change_id, "plan not cut", make)
    settle_stages(rack)


def settle_stages(rack: Rack) -> None:
    """Makes the stages of plans agree with the rack, after its own undo or redo."""
    cut = [entry["plan"] for entry in rack.cut_plans]
    plans = Plan.objects.filter(project__owner=rack.owner)
    plans.filter(stage=Plan.Stage.CUT).exclude(id__in=cut).update(stage=Plan.Stage.DRAFT)
    plans.filter(id__in=cut).exclude(basis={}).update(stage=Plan.Stage.CUT)


def _offcuts(
    board: Board, stock: StockName, plan: Plan, used: list[RackBoard]
) -> Iterator[BoardFields]:
    """What a board leaves, as the rack notes it down; measured where the board was, and where it is
    not what its name says."""
    cut_from = next((one for one in used if one.id == board.rack_board), None)
    for offcut in board.offcuts:
        section = None
        if offcut["thickness"] and offcut["width"]:
            section = Section(offcut["thickness"], offcut["width"])
        name = offcut_stock(stock, section)
        if name is None:
            continue
        own_size = section != standard_section(name) or (cut_from and cut_from.read().is_measured)
        measured = section_noted(section, Unit.INCH) if section and own_size else {}
        yield BoardFields(
            stock=str(name),
            length=interchange(offcut["length"], Unit.INCH),
            place=cut_from.place if cut_from else "",
            note=f"offcut of {plan.project.name}, board {board.number}"[:200],
            **measured,
        )


def step_rack(rack: Rack, way: str, version: int, change_id: uuid.UUID) -> None:
    """Undo or redo of the rack, with the plans that it marks cut or not."""
    with transaction.atomic():
        (rack.undo if way == "undo" else rack.redo)(version, change_id)
        settle_stages(rack)
