"""Shapes as JSON documents, and what they write."""

from carpentry.design.shapes.asked import Work
from carpentry.design.shapes.known import SHAPES
from carpentry.design.shapes.shape import Made, make
from carpentry.design.sheet import Sections
from carpentry.language import CarpentryError, Json, Reader, Unit, parse_json
from carpentry.lumber import Lexicon, standard_section


def make_shape(
    name: str, typed: dict[str, str], lexicon: Lexicon, sections: Sections = standard_section
) -> Made:
    """A shape made with measures, as typed. Raises ``CarpentryError`` by measure."""
    return make(SHAPES[name], typed, lexicon, sections)


def shape_document(text: str | bytes) -> Json:
    """What the shape of a JSON document writes, on standard sizes.

    Raises ``CarpentryError`` with every problem and its path.
    """
    reader = Reader(parse_json(text))
    unit = Unit(reader.choice("units", [u.value for u in Unit], Unit.INCH.value))
    name = reader.choice("shape", list(SHAPES), "")
    inside = reader.inside("measures")
    typed = {one: inside.text_or_whole(one) for one in inside.names()}
    if not reader.has("measures"):
        reader.fault("measures", "is missing")
    reader.refuse_unknown()
    reader.raise_problems()
    try:
        made = make_shape(name, typed, Lexicon(unit))
        assert made.solids is not None
    except CarpentryError as error:
        for problem in error.problems:
            inside.fault(problem.place, problem.message)
    reader.raise_problems()
    return {
        "shape": name,
        "parts": [_part(made, row.key) for row in made.written.rows],
        "joints": [
            made.sheet.inline(made.names.said(joint.text())) for joint in made.written.joints
        ],
        "notes": [*made.shape.notices(made), *filter(None, [made.shape.caution])],
        "work": [_work(made, one) for one in made.written.work],
        "marks": {
            run.name: [made.sheet.shown_ticks(mark) for mark in made.laid(run.name).marks()]
            for run in made.written.runs
        },
    }


def _work(made: Made, one: Work) -> Json:
    sizes = {
        name: made.sheet.shown_length(made.names.said(text)) for name, text in one.sizes.items()
    }
    return {"work": one.kind, "on": made.names.letters[one.key], "at": one.place, **sizes}


def _part(made: Made, key: str) -> Json:
    row = next(row for row in made.written.rows if row.key == key)
    part = made.parts[key]
    plain = part.plain_fields
    said = {name: getattr(plain, name) for name in ("ends", "edges", "measured", "width")}
    return {
        "mark": made.names.letters[key],
        "quantity": part.quantity,
        "name": part.name,
        "stock": str(part.stock),
        "length": plain.length,
        "formula": made.names.said(row.length),
        **{name: text for name, text in said.items() if text},
    }
