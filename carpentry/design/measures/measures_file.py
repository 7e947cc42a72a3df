"""Measures as JSON documents, and what they come to."""

from fractions import Fraction

from carpentry.design.measures.values import Kind, Value
from carpentry.design.measures.working import MOST_MEASURES, read_measures, work_out_formulas
from carpentry.language import (
    ROUNDED_TO,
    CarpentryError,
    Faults,
    Json,
    Reader,
    Unit,
    parse_json,
    read_exactly,
    rounded,
    ticks_per,
    write_decimal,
    write_figure,
)


def worked_document(text: str | bytes) -> Json:
    """What the measures of a JSON document come to, rounded to its ``round``.

    Raises ``CarpentryError`` with every problem and its path.
    """
    reader = Reader(parse_json(text))
    unit = Unit(reader.choice("units", [u.value for u in Unit], Unit.INCH.value))
    to = reader.text("round", ROUNDED_TO[unit])
    step = Fraction(1)
    try:
        step = read_exactly(to, unit) / ticks_per(unit)
        if not step:
            reader.fault("round", "must be above 0")
    except CarpentryError as error:
        reader.fault("round", error.problems[0].message)
    if not reader.has("measures"):
        reader.fault("measures", "is missing")
    inside = reader.inside("measures")
    if len(inside.names()) > MOST_MEASURES:
        reader.fault("measures", f"are more than {MOST_MEASURES:,}")
        reader.raise_problems()
    measures = {name: inside.text(name, longest=20_000) for name in inside.names()}
    reader.refuse_unknown()
    told = {p.place for p in reader.problems}
    faults = Faults()
    readable = {name: text for name, text in measures.items() if inside.path(name) not in told}
    formulas = read_measures(readable, unit, faults)
    worked = work_out_formulas(formulas, set(measures), faults)
    for problem in worked.problems:
        inside.fault(problem.place, problem.message)
    reader.raise_problems()
    return {"measures": {name: _said(worked.values[name], unit, step) for name in measures}}


def _said(value: Value, unit: Unit, step: Fraction) -> Json:
    amount = value.amount / ticks_per(unit) if value.kind is Kind.LENGTH else value.amount
    if value.kind in {Kind.LENGTH, Kind.NUMBER}:
        shown = rounded(amount, step)
        text = write_figure(shown, unit)
    else:
        text = write_decimal(amount)
        shown = Fraction(text)
    return {"kind": value.kind.value, "value": text, "exact": shown == amount}
