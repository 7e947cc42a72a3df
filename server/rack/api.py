"""The API of the rack: boards on hand, found, noted, changed and removed."""

import uuid

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router

from carpentry.language import CarpentryError, Unit, change_said
from carpentry.lumber import ask_for_feet
from carpentry.lumber.rack import MAX_BOARDS, BoardFields
from server.common.columns import given
from server.common.schemas import ConflictOut, ErrorOut, Page
from server.rack.models import Rack
from server.rack.schemas import RackBoardIn, RackBoardOut, RackOut, RemoveBoardsIn
from server.rack.showing import show_board, show_rack

router = Router(tags=["rack"])
CHANGE = {200: RackOut, 404: ErrorOut, 409: ConflictOut[RackOut], 422: ErrorOut}


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
    told = given(fields)
    ask_for_feet(told.get("length", ""), Unit.INCH)

    def make(rack: Rack) -> str:
        board = rack.boards.filter(id=board_id).first()
        if board is None:
            if rack.boards.count() >= MAX_BOARDS:
                raise CarpentryError(f"a rack holds {MAX_BOARDS:,} boards at the most")
            added = rack.add_boards([BoardFields(**told)], [board_id])[0]
            return f"{added} added: {added.stock} {added.length}"
        said = []
        for name, value in told.items():
            said.append(change_said(BoardFields, name, value, getattr(board, name)))
            setattr(board, name, value)
        board.full_clean()
        board.save()
        return f"{board}: {', '.join(said)}"

    rack.change(fields.version, fields.change_id, "board", make)
    return show_rack(rack)


@router.post("/rack/boards/remove", response=CHANGE)
def remove_boards(request: HttpRequest, removal: RemoveBoardsIn) -> RackOut:
    """Takes boards off the rack."""
    rack = Rack.of(request.user)

    def make(rack: Rack) -> str:
        gone = list(rack.boards.filter(id__in=removal.boards))
        rack.boards.filter(id__in=[board.id for board in gone]).delete()
        return f"{', '.join(str(board) for board in gone)} taken off"

    rack.change(removal.version, removal.change_id, "boards taken off", make)
    return show_rack(rack)


@router.get("/rack/boards/{uuid:board_id}", response={200: RackBoardOut, 404: ErrorOut})
def get_board(request: HttpRequest, board_id: uuid.UUID) -> RackBoardOut:
    """One board."""
    return show_board(get_object_or_404(Rack.of(request.user).boards, id=board_id))
