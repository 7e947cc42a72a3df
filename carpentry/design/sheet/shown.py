"""Measures and runs as they are shown: what holds, what is wrong, where it is used."""

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction

from carpentry.design.measures import Formula, Kind, MeasureFields, Reckoned, Value, as_length
from carpentry.design.runs import Laid, RunFields
from carpentry.design.sheet.sheet import Sheet
from carpentry.design.sheet.typed import run_inputs
from carpentry.language import CarpentryError, Problem


@dataclass(frozen=True)
class MeasureShown:
    """A measure worked out: what holds, and what its formula comes to where the tape said
    otherwise; what is wrong with it; which of its specimens do not fit what holds; where it is
    used."""

    fields: MeasureFields
    value: Value | None
    computed: Value | None
    problems: tuple[str, ...]
    specimens: tuple[tuple[Value, bool], ...]
    used_by: tuple[str, ...]


@dataclass(frozen=True)
class RunShown:
    """A run worked out, or what is wrong with it by field; where it is used."""

    fields: RunFields
    laid: Laid | None
    problems: tuple[Problem, ...]
    used_by: tuple[str, ...]


def measures_shown(sheet: Sheet) -> Iterator[MeasureShown]:
    """The measures in their order, worked out."""
    formulas, measured, _, _ = sheet.unread
    users = sheet.users()
    for one in sheet.typed.measures:
        value = sheet.worked.values.get(one.name)
        problems = tuple(sheet.problems_at.get(one.name, ()))
        formula = formulas.get(one.name)
        if value is None and not problems:
            problems = (sheet.waits_for(one.name),) if formula else ("it is not said yet",)
        computed = sheet.worked.computed.get(one.name) if one.name in measured else None
        specimens = _specimens(sheet, formula, value)
        yield MeasureShown(
            one, value, computed, problems, specimens, tuple(users.get(one.name, ()))
        )


def _specimens(
    sheet: Sheet, formula: Reckoned | None, value: Value | None
) -> tuple[tuple[Value, bool], ...]:
    """What was measured of several things, each with whether it fits what holds."""
    if not isinstance(formula, Formula) or value is None:
        return ()
    try:
        found = formula.specimens(sheet.worked.values, sheet.known_or(sheet.worked.values))
    except (CarpentryError, KeyError):
        return ()
    room = _comparable(sheet, value)
    smaller = formula.takes_smallest
    fits = []
    for one in found:
        size = _comparable(sheet, one)
        fits.append((one, size >= room if smaller else size <= room))
    return tuple(fits)


def _comparable(sheet: Sheet, value: Value) -> Fraction:
    if value.kind is Kind.ANGLE or value.kind is Kind.COUNT:
        return value.amount
    return as_length(value, sheet.lexicon.unit).amount


def runs_shown(sheet: Sheet) -> Iterator[RunShown]:
    """The runs in their order, worked out."""
    users = sheet.users()
    for run in sheet.typed.runs:
        inputs = run_inputs(run)
        told = [
            Problem(key.rpartition(": ")[2], message)
            for key in inputs
            for message in sheet.problems_at.get(key, ())
        ]
        found: Laid | None = None
        if not told:
            missing = [key for key in inputs if key not in sheet.worked.values]
            told = [Problem(k.rpartition(": ")[2], sheet.waits_for(k)) for k in missing]
        if not told:
            try:
                found = sheet.lay(run, sheet.worked.values)
                if found.packers_fault:
                    told = [Problem("packers", found.packers_fault)]
            except CarpentryError as error:
                told = list(error.problems)
        letter = run.part.strip().upper()
        if letter and letter not in sheet.typed.parts:
            told.append(Problem("part", f"there is no part {letter} any more"))
        used = tuple(
            one
            for said in ("gap", "count", "last")
            for one in users.get(f"{said} of {run.name}", ())
        )
        yield RunShown(run, found, tuple(told), tuple(dict.fromkeys(used)))
