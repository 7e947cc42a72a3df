"""What a project is planned from, what happened since, and what of it has to be planned anew.

A ``Workup`` is a project on its ``Basis`` (prices and boards on hand) with the ``Facts`` that
happened since (pieces cut, boards taken, what the yard really has). ``replan`` says which of its
cut problems need a new plan; ``numbered_boards`` are what the plans come to.
"""

from carpentry.planning.basis import Basis, RackBoard, read_basis, usable
from carpentry.planning.boards import LabelledPiece, NumberedBoard, Offcut, numbered_boards
from carpentry.planning.build import build_document, is_complete, plan_all, work_up_files
from carpentry.planning.effects import (
    Effect,
    Touched,
    effects_of_section,
    effects_on_board,
    effects_that_follow,
)
from carpentry.planning.facts import NOTHING_HAPPENED, Facts, Pieces
from carpentry.planning.made_or_bought import MakeOrBuy, make_or_buy, read_made_price
from carpentry.planning.other_yard import AtYard, cheaper_told
from carpentry.planning.replanner import Replanned, is_settled, replan, settled_among
from carpentry.planning.workup import MADE_BY, PlannedProject, Workup

__all__ = [
    "MADE_BY",
    "NOTHING_HAPPENED",
    "AtYard",
    "Basis",
    "Effect",
    "Facts",
    "LabelledPiece",
    "MakeOrBuy",
    "NumberedBoard",
    "Offcut",
    "Pieces",
    "PlannedProject",
    "RackBoard",
    "Replanned",
    "Touched",
    "Workup",
    "build_document",
    "cheaper_told",
    "effects_of_section",
    "effects_on_board",
    "effects_that_follow",
    "is_complete",
    "is_settled",
    "make_or_buy",
    "numbered_boards",
    "plan_all",
    "read_basis",
    "read_made_price",
    "replan",
    "settled_among",
    "usable",
    "work_up_files",
]
