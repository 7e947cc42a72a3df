"""Runs: equal things in a row along a length, where each is marked, and what holds them apart."""

from carpentry.design.runs.asked import AtEnd, End, Run, Side, Spacing
from carpentry.design.runs.equal import lay, length_of, neighbours
from carpentry.design.runs.packers import packed, piles
from carpentry.design.runs.runs_file import run_document
from carpentry.design.runs.siding import Siding, exposure_of, lay_rows
from carpentry.design.runs.typed_run import (
    ENDS,
    FIGURES,
    Laid,
    RunFields,
    check_run,
    laid,
    pile_told,
    read_packers,
)

__all__ = [
    "ENDS",
    "FIGURES",
    "AtEnd",
    "End",
    "Laid",
    "Run",
    "RunFields",
    "Side",
    "Siding",
    "Spacing",
    "check_run",
    "exposure_of",
    "laid",
    "lay",
    "lay_rows",
    "length_of",
    "neighbours",
    "packed",
    "pile_told",
    "piles",
    "read_packers",
    "run_document",
]
