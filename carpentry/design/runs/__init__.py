"""Runs: equal things in a row along a length, where each is marked, and what holds them apart."""

from carpentry.design.runs.asked import AtEnd, End, Run, Side, Spacing
from carpentry.design.runs.equal import lay, length_of, neighbours
from carpentry.design.runs.packers import packed, piles
from carpentry.design.runs.runs_file import run_document
from carpentry.design.runs.siding import Siding, exposure_of, lay_rows

__all__ = [
    "AtEnd",
    "End",
    "Run",
    "Side",
    "Siding",
    "Spacing",
    "exposure_of",
    "lay",
    "lay_rows",
    "length_of",
    "neighbours",
    "packed",
    "piles",
    "run_document",
]
