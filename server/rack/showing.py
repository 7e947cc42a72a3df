"""The rack in the words of the API's contract."""

import uuid
from dataclasses import asdict

from django.db.models import Q

from server.common.schemas import length_out, section_out
from server.history.showing import shows
from server.rack.models import Rack, RackBoard
from server.rack.schemas import RackBoardOut, RackOut

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


@shows(Rack)
def show_rack(rack: Rack, find: str = "", page: int = 1, board: uuid.UUID | None = None) -> RackOut:
    """A page of the rack's boards that a search finds, in the order of their numbers; or one."""
    boards = rack.boards.filter(id=board) if board else rack.boards.all()
    for word in find.split():
        is_number = word.isascii() and word.isdigit() and len(word) < _MOST_DIGITS
        wanted = Q(stock_key__icontains=word) | Q(place__icontains=word) | Q(note__icontains=word)
        boards = boards.filter(wanted | Q(number=int(word)) if is_number else wanted)
    start = (max(page, 1) - 1) * PAGE
    rows = boards[start : start + PAGE]
    for row in rows:
        row.rack = rack
    return RackOut(
        version=rack.version,
        boards=[show_board(row) for row in rows],
        found=boards.count(),
        total=rack.boards.count(),
        page_size=PAGE,
        **asdict(rack.labels),
    )
