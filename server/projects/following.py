"""Measures and runs in the words of the API's contract."""

from fractions import Fraction

from carpentry.design import MeasureShown, RunShown, Sheet, measures_shown, runs_shown
from carpentry.design.measures import Kind, Value
from carpentry.design.runs import Laid, pile_told
from carpentry.language import Unit, rounded, ticks_per, write_decimal
from server.common.schemas import LengthOut, ProblemOut, ValueOut, length_out
from server.projects.models import Project
from server.projects.schemas import (
    LaidOut,
    MarkOut,
    MeasureOut,
    NeighbourOut,
    OpeningOut,
    RunOut,
    SpecimenOut,
)


def show_measures(project: Project, sheet: Sheet) -> list[MeasureOut]:
    """The measures of a project, worked out."""
    return [
        _measure(row.id, one, sheet, project.notation)
        for row, one in zip(project.measures.all(), measures_shown(sheet), strict=True)
    ]


def _measure(id_: object, one: MeasureShown, sheet: Sheet, notation: str) -> MeasureOut:
    return MeasureOut(
        **vars(one.fields),
        id=id_,
        value=show_value(one.value, sheet, notation),
        computed=show_value(one.computed, sheet, notation),
        problems=list(one.problems),
        specimens=[
            SpecimenOut(text=sheet.shown(specimen)[0], fits=fits)
            for specimen, fits in one.specimens
        ],
        used_by=list(one.used_by),
    )


def show_value(value: Value | None, sheet: Sheet, notation: str) -> ValueOut | None:
    """A value as it is shown, lengths rounded as they are cut."""
    if value is None:
        return None
    text, exact = sheet.shown(value)
    length: LengthOut | None = None
    if value.kind is Kind.LENGTH and value.amount >= 0:
        length = _length(value.amount, sheet.rounding, notation)
    if value.kind is Kind.ANGLE:
        text += "°"
    return ValueOut(kind=value.kind.value, text=text, length=length, exact=exact)


def _length(amount: Fraction, step: Fraction, notation: str) -> LengthOut:
    return length_out(round(rounded(amount, step)), notation)


def show_runs(project: Project, sheet: Sheet) -> list[RunOut]:
    """The runs of a project, laid out."""
    return [
        _run(row.id, one, project, _kind_of(one.fields.part.strip(), sheet))
        for row, one in zip(project.runs.all(), runs_shown(sheet), strict=True)
    ]


def _kind_of(mark: str, sheet: Sheet) -> str:
    """What a part is drawn as; nothing for none."""
    return sheet.part(mark).stock.kind if mark in sheet.typed.parts else ""


def _run(id_: object, one: RunShown, project: Project, kind: str) -> RunOut:
    return RunOut(
        **vars(one.fields),
        id=id_,
        kind=kind,
        laid=_laid(one.laid, project) if one.laid else None,
        problems=[ProblemOut(place=p.place, message=p.message) for p in one.problems],
        used_by=list(one.used_by),
    )


def _laid(laid: Laid, project: Project) -> LaidOut:
    run, notation, unit = laid.run, project.notation, Unit(project.unit)
    ends, checks = (laid.marks(), laid.marks(from_end=True)), laid.checks()
    return LaidOut(
        count=run.count,
        pieces=laid.pieces,
        item=_length(run.item, Fraction(1), notation),
        along=_length(run.along, laid.rounding, notation),
        gap=None if laid.rows else _length(run.gap, laid.rounding, notation),
        exact_gap=write_decimal(run.gap / ticks_per(unit)),
        neighbours=[
            NeighbourOut(count=count, gap=_length(gap, laid.rounding, notation))
            for count, gap in sorted(laid.neighbours.items())
        ],
        marks=[
            MarkOut(
                number=number,
                left=_length(left, Fraction(1), notation),
                right=_length(right, Fraction(1), notation),
                start=round(place),
                wide=round(wide),
                left_out=number in laid.left_out,
                loose=number > run.count - laid.loose,
                check=_length(checks[number], laid.rounding, notation)
                if number in checks
                else None,
            )
            for number, left, right, place, wide in zip(
                range(1, run.count + 1), *ends, run.places, laid.widths, strict=True
            )
        ],
        side=laid.side.value,
        packers=[pile_told(pile, unit) for pile in laid.packers],
        rows=laid.rows.rows if laid.rows else None,
        last=_length(laid.rows.last, laid.rounding, notation) if laid.rows else None,
        first=_length(laid.rows.first, laid.rounding, notation) if laid.rows else None,
        is_shifted=bool(laid.rows and laid.rows.is_shifted),
        exposure=_length(laid.rows.exposure, laid.rounding, notation) if laid.rows else None,
        openings=[
            OpeningOut(number=number, width=_length(width, laid.rounding, notation))
            for number, width in laid.openings.items()
        ],
        caution=laid.caution,
    )
