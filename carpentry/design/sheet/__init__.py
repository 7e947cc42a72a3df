"""Parts, measures and runs that follow one another: typed, worked out, and shown."""

from carpentry.design.sheet.kept import (
    formula_keeping_unit,
    lines_keeping_unit,
    part_keeping_unit,
    renaming,
    run_keeping_unit,
)
from carpentry.design.sheet.reckoning import Sections
from carpentry.design.sheet.sheet import EMPTY, Sheet
from carpentry.design.sheet.shown import MeasureShown, RunShown, measures_shown, runs_shown
from carpentry.design.sheet.typed import (
    FORMULA_FIELDS,
    TypedSheet,
    formulas_in,
    with_formulas,
)

__all__ = [
    "EMPTY",
    "FORMULA_FIELDS",
    "MeasureShown",
    "RunShown",
    "Sections",
    "Sheet",
    "TypedSheet",
    "formula_keeping_unit",
    "formulas_in",
    "lines_keeping_unit",
    "measures_shown",
    "part_keeping_unit",
    "renaming",
    "run_keeping_unit",
    "runs_shown",
    "with_formulas",
]
