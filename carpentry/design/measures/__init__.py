"""Measures: named sizes, and sizes worked out from them by formula, exact until they are cut."""

from carpentry.design.measures.formula import (
    Formula,
    Look,
    Reference,
    read_formula,
    renamed,
)
from carpentry.design.measures.measures_file import worked_document
from carpentry.design.measures.values import Kind, Value, as_length, number
from carpentry.design.measures.working import (
    Worked,
    check_name,
    read_measures,
    used_by,
    work_out,
    work_out_formulas,
)

__all__ = [
    "Formula",
    "Kind",
    "Look",
    "Reference",
    "Value",
    "Worked",
    "as_length",
    "check_name",
    "number",
    "read_formula",
    "read_measures",
    "renamed",
    "used_by",
    "work_out",
    "work_out_formulas",
    "worked_document",
]
