"""At the saw: the tools owned, the set-ups that make a plan's cuts, and what happened to boards.

A plan's boards become ``BenchBoard``s; ``stop_by_stop`` and ``board_by_board`` order their cuts
into set-ups, each one position of one tool.
"""

from carpentry.shop.alone import shop_document
from carpentry.shop.bench import Bench, Changed, bench_of, undo_fault
from carpentry.shop.bench_cuts import BenchBoard, BenchCut, MadePiece, Position, every_cut
from carpentry.shop.bench_file import (
    board_document,
    changed_document,
    plans_as_cut,
    read_board_document,
    read_changed,
)
from carpentry.shop.events import BenchEvent, BenchEventKind
from carpentry.shop.from_plan import boards_to_cut, not_yet
from carpentry.shop.placing import Sold, Supply
from carpentry.shop.refit import come_to
from carpentry.shop.said import (
    MARKS,
    OVER_ALL,
    counted,
    is_usual,
    lies,
    line_said,
    made_said,
    notes_of,
    piece_said,
    set_at,
    stands,
    way_said,
)
from carpentry.shop.set_ups import (
    Sequenced,
    SetUp,
    board_by_board,
    minutes_of,
    rows_of,
    stop_by_stop,
)
from carpentry.shop.shop_file import set_ups_of
from carpentry.shop.tools import (
    KINDS,
    MOST_TOOLS,
    STARTERS,
    Kind,
    Limit,
    Tool,
    Tools,
    read_tool,
    starter_tools,
)
from carpentry.shop.tools_file import read_tools_file, tools_document
from carpentry.shop.tree import Box, box_of

__all__ = [
    "KINDS",
    "MARKS",
    "MOST_TOOLS",
    "OVER_ALL",
    "STARTERS",
    "Bench",
    "BenchBoard",
    "BenchCut",
    "BenchEvent",
    "BenchEventKind",
    "Box",
    "Changed",
    "Kind",
    "Limit",
    "MadePiece",
    "Position",
    "Sequenced",
    "SetUp",
    "Sold",
    "Supply",
    "Tool",
    "Tools",
    "bench_of",
    "board_by_board",
    "board_document",
    "boards_to_cut",
    "box_of",
    "changed_document",
    "come_to",
    "counted",
    "every_cut",
    "is_usual",
    "lies",
    "line_said",
    "made_said",
    "minutes_of",
    "not_yet",
    "notes_of",
    "piece_said",
    "plans_as_cut",
    "read_board_document",
    "read_changed",
    "read_tool",
    "read_tools_file",
    "rows_of",
    "set_at",
    "set_ups_of",
    "shop_document",
    "stands",
    "starter_tools",
    "stop_by_stop",
    "tools_document",
    "undo_fault",
    "way_said",
]
