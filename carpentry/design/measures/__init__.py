"""Measures: named sizes, and sizes worked out from them by formula, exact until they are cut."""

from carpentry.design.measures.formula import (
    RESERVED,
    Formula,
    Known,
    Look,
    Reference,
    keeping_unit,
    read_formula,
    renamed,
)
from carpentry.design.measures.measure import (
    MeasureFields,
    check_measure,
    formula_of,
    measure_keeping_unit,
    read_taped,
    split_measure,
)
from carpentry.design.measures.measures_file import worked_document
from carpentry.design.measures.values import Kind, Value, as_length, length, number
from carpentry.design.measures.working import (
    MOST_MEASURES,
    Reckoned,
    Worked,
    check_name,
    read_measures,
    used_by,
    work_out,
    work_out_formulas,
)

__all__ = [
    "MOST_MEASURES",
    "RESERVED",
    "Formula",
    "Kind",
    "Known",
    "Look",
    "MeasureFields",
    "Reckoned",
    "Reference",
    "Value",
    "Worked",
    "as_length",
    "check_measure",
    "check_name",
    "formula_of",
    "keeping_unit",
    "length",
    "measure_keeping_unit",
    "number",
    "read_formula",
    "read_measures",
    "read_taped",
    "renamed",
    "split_measure",
    "used_by",
    "work_out",
    "work_out_formulas",
    "worked_document",
]
