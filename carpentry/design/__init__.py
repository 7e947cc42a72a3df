"""The part list: what is to be built, as typed and as understood.

``read_part`` checks one part's fields, ``entry`` understands a typed line or pasted rows, ``table``
reads and writes whole lists. ``measures`` works sizes out from formulas, ``runs`` lays equal things
along a length. All report every problem at once.
"""

from carpentry.design.entry import read_entry, read_lines
from carpentry.design.marks import all_marked, mark_number, mark_of
from carpentry.design.matching import matched
from carpentry.design.not_planned import angles_fault, not_planned_yet
from carpentry.design.pairs import mirror_pairs
from carpentry.design.part import (
    MAX_PARTS,
    MAX_QUANTITY,
    MOST_FORMULA,
    PART_LENGTHS,
    Part,
    PartFields,
    read_part,
)
from carpentry.design.sheet import (
    EMPTY,
    FORMULA_FIELDS,
    MeasureShown,
    RunShown,
    Sections,
    Sheet,
    TypedSheet,
    formula_keeping_unit,
    formulas_in,
    lines_keeping_unit,
    measures_shown,
    part_keeping_unit,
    renaming,
    run_keeping_unit,
    runs_shown,
    with_formulas,
)
from carpentry.design.table import (
    COLUMNS,
    PART_COLUMNS,
    parts_table_of_csv,
    parts_table_of_rows,
    parts_table_of_text,
    read_parts,
    read_parts_csv,
    write_parts_csv,
)

__all__ = [
    "COLUMNS",
    "EMPTY",
    "FORMULA_FIELDS",
    "MAX_PARTS",
    "MAX_QUANTITY",
    "MOST_FORMULA",
    "PART_COLUMNS",
    "PART_LENGTHS",
    "MeasureShown",
    "Part",
    "PartFields",
    "RunShown",
    "Sections",
    "Sheet",
    "TypedSheet",
    "all_marked",
    "angles_fault",
    "formula_keeping_unit",
    "formulas_in",
    "lines_keeping_unit",
    "mark_number",
    "mark_of",
    "matched",
    "measures_shown",
    "mirror_pairs",
    "not_planned_yet",
    "part_keeping_unit",
    "parts_table_of_csv",
    "parts_table_of_rows",
    "parts_table_of_text",
    "read_entry",
    "read_lines",
    "read_part",
    "read_parts",
    "read_parts_csv",
    "renaming",
    "run_keeping_unit",
    "runs_shown",
    "with_formulas",
    "write_parts_csv",
]
