"""One measure of a project: its name, what it is, and what the tape said instead."""

import re
from collections.abc import Sequence
from dataclasses import dataclass

from carpentry.design.measures.formula import LONGEST_FORMULA, Formula, keeping_unit, read_formula
from carpentry.design.measures.values import Value
from carpentry.design.measures.working import LONGEST_NAME, check_name, nothing_known
from carpentry.language import CarpentryError, Faults, Unit, check_day, check_typed, typed

_LINE = re.compile(r"([^=]*)=(.*)", re.DOTALL)
LONGEST_NOTE = 200


@dataclass(frozen=True)
class MeasureFields:
    """A measure exactly as typed. ``measured_on`` is the day (ISO) on which the tape said so."""

    name: str = typed("Name", most=LONGEST_NAME)
    formula: str = typed("Is", help="72, or 2 * door + 3", most=LONGEST_FORMULA)
    measured: str = typed("Measured", help="what the tape said; it holds instead")
    measured_on: str = typed("Measured on", most=10)
    note: str = typed("Note", help="for yourself", most=LONGEST_NOTE)


def split_measure(line: str) -> MeasureFields:
    """A typed line, ``lid = depth + 1 1/2``, as fields. Raises ``CarpentryError``."""
    found = _LINE.fullmatch(line)
    if not found:
        raise CarpentryError("write a name and what it is, such as lid = depth + 1 1/2")
    return MeasureFields(name=" ".join(found[1].split()), formula=found[2].strip())


def formula_of(fields: MeasureFields, unit: Unit) -> Formula | None:
    """The formula of a measure, ``None`` where there is only what the tape said. Raises
    ``CarpentryError``."""
    text = fields.formula.strip().removeprefix("=").strip()
    if not text and fields.measured.strip():
        return None
    return read_formula(text, unit)


def read_taped(text: str, unit: Unit) -> Value:
    """What the tape said: a figure, or arithmetic with figures alone. Raises ``CarpentryError``."""
    formula = read_formula(text, unit)
    if formula.names or formula.references:
        raise CarpentryError("what the tape said is a figure, without names")
    return formula.value({}, nothing_known)


def check_measure(fields: MeasureFields, others: Sequence[str], unit: Unit) -> None:
    """Raises ``CarpentryError`` by field where a measure cannot be kept beside ``others``."""
    faults = Faults()
    check_typed(fields, faults)
    faults.attempt("name", lambda: check_name(fields.name), None)
    if fields.name in others:
        faults.add("name", f"there is a measure “{fields.name}” already")
    faults.attempt("formula", lambda: formula_of(fields, unit), None)
    if fields.measured.strip():
        faults.attempt("measured", lambda: read_taped(fields.measured, unit), None)
    faults.attempt("measured_on", lambda: check_day(fields.measured_on), None)
    faults.raise_any()


def measure_keeping_unit(fields: MeasureFields, unit: Unit) -> MeasureFields:
    """A measure as it is typed where bare figures are in another unit."""
    formula = fields.formula
    return MeasureFields(
        name=fields.name,
        formula=keeping_unit(formula, unit) if formula.strip() else formula,
        measured=keeping_unit(fields.measured, unit) if fields.measured.strip() else "",
        measured_on=fields.measured_on,
        note=fields.note,
    )
