"""Formulas that go on meaning what they meant: another name for a measure, another unit for bare
figures."""

from contextlib import suppress
from dataclasses import replace

from carpentry.design.measures import keeping_unit, read_formula, renamed
from carpentry.design.part import PartFields
from carpentry.design.runs import RunFields, read_packers
from carpentry.design.sheet.lines import lines_with
from carpentry.design.sheet.typed import TypedSheet, formulas_in, run_inputs, with_each_formula
from carpentry.language import CarpentryError, Unit, read_exactly, spelled_out, unambiguous


def renaming(
    typed: TypedSheet, old: str, new: str, unit: Unit, *, of_run: bool = False
) -> TypedSheet:
    """What is typed where a measure, or a run, is called otherwise: every formula follows."""

    def follow(text: str) -> str:
        try:
            return renamed(read_formula(text, unit), old, new, run=of_run)
        except CarpentryError:
            return text

    return TypedSheet(
        parts={mark: with_each_formula(fields, follow) for mark, fields in typed.parts.items()},
        measures=[
            replace(
                one,
                name=new if one.name == old and not of_run else one.name,
                formula=follow(one.formula) if one.formula.strip() else one.formula,
            )
            for one in typed.measures
        ],
        runs=[
            replace(
                run,
                name=new if of_run and run.name == old else run.name,
                **{key.rpartition(": ")[2]: follow(text) for key, text in run_inputs(run).items()},
            )
            for run in typed.runs
        ],
        usual=typed.usual,
        boards=typed.boards,
        lines={kind: lines_with(text, follow) for kind, text in typed.lines.items()},
        named={
            new if name == old and not of_run else name: follow(text)
            for name, text in typed.named.items()
        },
    )


def part_keeping_unit(fields: PartFields, unit: Unit) -> dict[str, str]:
    """The formulas of a part, and what the tape said of it, by field, as they are typed where bare
    figures are in another unit."""
    kept = with_each_formula(fields, lambda text: formula_keeping_unit(text, unit))
    said = {name: getattr(kept, name) for name in formulas_in(fields)}
    return said | (
        {"taped": formula_keeping_unit(fields.taped, unit)} if fields.taped.strip() else {}
    )


def run_keeping_unit(run: RunFields, unit: Unit) -> RunFields:
    """A run as it is typed where bare figures are in another unit."""
    texts = run_inputs(run)
    kept = {
        key.rpartition(": ")[2]: formula_keeping_unit(text, unit) for key, text in texts.items()
    }
    with suppress(CarpentryError):  # what cannot be read is told at its field, and kept as it is
        if run.rounding.strip():
            step = round(read_exactly(run.rounding, unit))
            kept["rounding"] = unambiguous(run.rounding, step, unit)
    with suppress(CarpentryError):
        packers = read_packers(run.packers, unit)
        kept["packers"] = ", ".join(spelled_out(round(packer), unit) for packer in packers)
    return replace(run, **kept)


def formula_keeping_unit(text: str, unit: Unit) -> str:
    """A formula as it is typed where bare figures are in another unit; what is none stays."""
    with suppress(CarpentryError):
        return keeping_unit(text, unit)
    return text


def lines_keeping_unit(text: str, unit: Unit) -> str:
    """Lines as they are typed where bare figures of their formulas are in another unit."""
    return lines_with(text, lambda formula: formula_keeping_unit(formula, unit))
