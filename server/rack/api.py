"""The API of the rack: boards on hand, found, noted, changed and removed."""

import uuid
from dataclasses import asdict
from typing import Any

from django.db.models import Q
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router

from carpentry.errors import CarpentryError
from carpentry.rack import MAX_BOARDS, BoardFields
from carpentry.sizes import ask_for_feet
from server.config.schemas import ErrorOut, Page, length_out
from server.documents.answers import file_answer
from server.documents.labels import rack_labels_pdf
from server.documents.type import Paper
from server.plans.cut import step_rack
from server.plans.effects import effect_on_rack
from server.plans.schemas import EffectOut, section_out
from server.projects.schemas import SeenIn
from server.rack.models import Rack, RackBoard
from server.rack.schemas import (
    BoardFieldsIn,
    RackBoardIn,
    RackBoardOut,
    RackConflictOut,
    RackOut,
    RemoveBoardsIn,
)

router = Router(tags=["rack"])
CHANGE = {200: RackOut, 404: ErrorOut, 409: RackConflictOut, 422: ErrorOut}
_MOST_DIGITS = 10  # of a board number
PAGE = 100
NOTATION = "1/64"


def show_board(board: RackBoard) -> RackBoardOut:
    """A board as it is."""
    read = board.read()
    straight = read.straight_width
    return RackBoardOut(
        id=board.id,
        number=board.number,
        **asdict(board.fields),
        kind=read.stock.kind,
        length_shown=length_out(read.length, NOTATION),
        section=section_out(read.section, NOTATION),
        section_source="measured" if read.is_measured else "standard size",
        straight_width=None if straight is None else length_out(straight, NOTATION),
        left_alone=read.not_used_because(),
    )


def show_rack(rack: Rack, find: str = "", page: int = 1, board: uuid.UUID | None = None) -> RackOut:
    """A page of the rack's boards that a search finds, in the order of their numbers; or one."""
    boards = rack.boards.filter(id=board) if board else rack.boards.all()
    for word in find.split():
        is_number = word.isascii() and word.isdigit() and len(word) < _MOST_DIGITS
        wanted = Q(stock_key__icontains=word) | Q(place__icontains=word) | Q(note__icontains=word)
        boards = boards.filter(wanted | Q(number=int(word)) if is_number else wanted)
    start = (max(page, 1) - 1) * PAGE
    newest = rack.revision(rack.version)
    return RackOut(
        version=rack.version,
        boards=[show_board(board) for board in boards[start : start + PAGE]],
        found=boards.count(),
        total=rack.boards.count(),
        page_size=PAGE,
        undo=rack.undo_label,
        redo=rack.redo_label,
        change=newest.label if newest else "",
    )


@router.get("/rack", response=RackOut)
def get_rack(
    request: HttpRequest, find: str = "", page: Page = 1, board: uuid.UUID | None = None
) -> RackOut:
    """The builder's rack: a page of the boards that a search finds, or one of them."""
    return show_rack(Rack.of(request.user), find, page, board)


@router.put("/rack/boards/{uuid:board_id}", response=CHANGE)
def write_board(request: HttpRequest, board_id: uuid.UUID, fields: RackBoardIn) -> RackOut:
    """Notes a board down: changes the fields given, or adds the board under this id."""
    rack = Rack.of(request.user)
    given: dict[str, Any] = {
        name: value.strip()
        for name, value in fields.dict(exclude_none=True, exclude={"version", "change_id"}).items()
    }
    ask_for_feet(given.get("length", ""), Rack.UNIT)

    def make(rack: Rack) -> str:
        board = rack.boards.filter(id=board_id).first()
        if board is None:
            if rack.boards.count() >= MAX_BOARDS:
                raise CarpentryError(f"a rack holds {MAX_BOARDS:,} boards at the most")
            added = rack.add_boards([BoardFields(**given)], [board_id])[0]
            return f"{added} added: {added.stock} {added.length}"
        for name, value in given.items():
            setattr(board, name, value)
        board.full_clean()
        board.save()
        return f"{board}: {', '.join(f'{name} {value}' for name, value in given.items())}"[:200]

    rack.change(fields.version, fields.change_id, "board", make)
    return show_rack(rack)


@router.post(
    "/rack/boards/{uuid:board_id}/effect",
    response={200: list[EffectOut], 404: ErrorOut, 422: ErrorOut},
)
def effect_of_measuring(
    request: HttpRequest, board_id: uuid.UUID, fields: BoardFieldsIn
) -> list[EffectOut]:
    """The parts planned from this board that new fields of it would change; keeps nothing."""
    board = get_object_or_404(Rack.of(request.user).boards, id=board_id)
    return effect_on_rack(board, fields.dict(exclude_none=True))


@router.post("/rack/boards/remove", response=CHANGE)
def remove_boards(request: HttpRequest, removal: RemoveBoardsIn) -> RackOut:
    """Takes boards off the rack."""
    rack = Rack.of(request.user)

    def make(rack: Rack) -> str:
        gone = list(rack.boards.filter(id__in=removal.boards))
        rack.boards.filter(id__in=[board.id for board in gone]).delete()
        return f"{', '.join(str(board) for board in gone)} taken off"[:200]

    rack.change(removal.version, removal.change_id, "boards taken off", make)
    return show_rack(rack)


@router.post("/rack/undo", response=CHANGE)
def undo_rack(request: HttpRequest, seen: SeenIn) -> RackOut:
    """Takes the newest change back."""
    rack = Rack.of(request.user)
    step_rack(rack, "undo", seen.version, seen.change_id)
    return show_rack(rack)


@router.post("/rack/redo", response=CHANGE)
def redo_rack(request: HttpRequest, seen: SeenIn) -> RackOut:
    """Brings back what the last undo took."""
    rack = Rack.of(request.user)
    step_rack(rack, "redo", seen.version, seen.change_id)
    return show_rack(rack)


@router.get("/rack/boards/{uuid:board_id}", response={200: RackBoardOut, 404: ErrorOut})
def get_board(request: HttpRequest, board_id: uuid.UUID) -> RackBoardOut:
    """One board."""
    return show_board(get_object_or_404(Rack.of(request.user).boards, id=board_id))


@router.get("/rack/labels.pdf", response={200: None})
def labels(request: HttpRequest, paper: Paper = "letter") -> HttpResponse:
    """A label for every board on the rack, to cut out and staple on."""
    boards = [show_board(board) for board in Rack.of(request.user).boards.all()]
    return file_answer(rack_labels_pdf(boards, paper), "rack labels", "pdf")
