"""Measures and runs in the words of the API's contract."""

from collections.abc import Sequence
from fractions import Fraction

from carpentry.design import MeasureShown, RunShown, Sheet, measures_shown, runs_shown
from carpentry.design.measures import Kind, Value
from carpentry.design.runs import Laid
from carpentry.language import TICKS_PER_INCH, Unit, rounded, ticks_per, write_decimal, write_figure
from server.common.schemas import LengthOut, ProblemOut, length_out
from server.projects.models import Project
from server.projects.schemas import (
    LaidOut,
    MarkOut,
    MeasureOut,
    NeighbourOut,
    OpeningOut,
    RunOut,
    SpecimenOut,
    ValueOut,
)

CHECKED_EVERY = 5  # items, at which a figure is told to check by


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
    kinds = {row.mark: row for row in project.parts.all()} if project.runs.all() else {}
    return [
        _run(row.id, one, project, kind_of(kinds.get(one.fields.part.strip()), sheet))
        for row, one in zip(project.runs.all(), runs_shown(sheet), strict=True)
    ]


def kind_of(row: object, sheet: Sheet) -> str:
    """What a part is drawn as; nothing for none."""
    return "" if row is None else sheet.part(row.mark).stock.kind  # type: ignore[attr-defined]


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
    ends = laid.marks(), laid.marks(from_end=True)
    item, last = run.item, laid.rows.last if laid.rows else run.item
    widths = [item] * run.count
    if laid.rows:
        widths[0], widths[-1] = laid.rows.first, laid.rows.last
    return LaidOut(
        count=run.count,
        pieces=laid.pieces,
        item=_length(item, Fraction(1), notation),
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
                check=_check(number, place + wide, laid, notation),
            )
            for number, left, right, place, wide in zip(
                range(1, run.count + 1), *ends, run.places, widths, strict=True
            )
        ],
        side=laid.side.value,
        packers=_packers(laid, unit),
        rows=laid.rows.rows if laid.rows else None,
        last=_length(last, laid.rounding, notation) if laid.rows else None,
        first=_length(laid.rows.first, laid.rounding, notation) if laid.rows else None,
        is_shifted=bool(laid.rows and laid.rows.is_shifted),
        exposure=_length(laid.rows.exposure, laid.rounding, notation) if laid.rows else None,
        openings=[
            OpeningOut(number=number, width=_length(width, laid.rounding, notation))
            for number, width in laid.openings.items()
        ],
        caution=_caution(laid),
    )


def _check(number: int, ends_at: Fraction, laid: Laid, notation: str) -> LengthOut | None:
    if number % CHECKED_EVERY or number in laid.left_out:
        return None
    return _length(ends_at, laid.rounding, notation)


def _packers(laid: Laid, unit: Unit) -> list[str]:
    """What makes up each gap, in words: ``18 + 18 + 3 = 39``."""
    return [_pile(pile, unit) for pile in laid.packers]


def _pile(pile: Sequence[Fraction], unit: Unit) -> str:
    figures = [write_figure(packer / ticks_per(unit), unit) for packer in pile]
    total = write_figure(sum(pile, Fraction(0)) / ticks_per(unit), unit)
    if not figures:
        return "nothing"
    return f"{' + '.join(figures)} = {total}" if len(figures) > 1 else total


def _caution(laid: Laid) -> str:
    """What to mind of a run."""
    return shrinking_caution(laid) if laid.rows else guard_caution(laid)


def shrinking_caution(laid: Laid) -> str:
    """What to mind where rows overlap by less than wet boards shrink: about a fiftieth of their
    width. Common practice from memory."""
    assert laid.rows
    cover = laid.run.item - laid.rows.exposure
    if cover > laid.run.item / 50:
        return ""
    return "boards laid wet shrink: lap less gap should be more than a fiftieth of their width"


def guard_caution(laid: Laid) -> str:
    """What to mind where a run may be a guard: its gaps let a sphere of 4 in through. Common
    practice from memory; the local code decides."""
    gaps = [*laid.run.gaps, *laid.openings.values()]
    if not gaps or max(gaps) < 4 * TICKS_PER_INCH:
        return ""
    return "a 4 in ball passes: where this is a guard, the local code decides how wide a gap may be"
