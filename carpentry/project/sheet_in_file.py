"""What parts follow, in project files: measures, runs and shapes."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import asdict, dataclass, field, fields

from carpentry.design import MOST_FORMULA
from carpentry.design.measures import MOST_MEASURES, MeasureFields, check_measure
from carpentry.design.runs import RunFields, check_run
from carpentry.design.shapes import LINE_KINDS, MOST_SHAPES, SHAPES, Placed, check_placed
from carpentry.language import CarpentryError, Json, Reader, Unit
from carpentry.lumber import Lexicon

MOST_RUNS = 200
_MEASURE_FIELDS = tuple(field.name for field in fields(MeasureFields))
_RUN_FIELDS = tuple(field.name for field in fields(RunFields))


@dataclass(frozen=True)
class FiledShape:
    """A shape with the keys of the ``runs`` that it wrote and the texts of its lines, by kind and
    key; parts are linked to it by their letters."""

    placed: Placed
    lines: Mapping[str, Mapping[str, str]] = field(default_factory=dict)
    runs: Sequence[str] = ()


def read_measures(reader: Reader, unit: Unit) -> list[MeasureFields]:
    found: list[MeasureFields] = []
    for item in reader.items("measures", most=MOST_MEASURES, required=False):
        typed = MeasureFields(
            **{name: item.text(name, "", longest=MOST_FORMULA) for name in _MEASURE_FIELDS}
        )
        item.refuse_unknown()
        try:
            check_measure(typed, [one.name for one in found], unit)
        except CarpentryError as error:
            for problem in error.problems:
                item.fault(problem.place, problem.message)
        found.append(typed)
    return found


def read_runs(reader: Reader) -> list[RunFields]:
    found: list[RunFields] = []
    for item in reader.items("runs", most=MOST_RUNS, required=False):
        usual = RunFields()
        typed = RunFields(
            **{
                name: item.text(name, getattr(usual, name), longest=MOST_FORMULA)
                for name in _RUN_FIELDS
            }
        )
        item.refuse_unknown()
        try:
            check_run(typed, [one.name for one in found])
        except CarpentryError as error:
            for problem in error.problems:
                item.fault(problem.place, problem.message)
        found.append(typed)
    return found


def lists_document(
    name: str, typed: Sequence[MeasureFields] | Sequence[RunFields]
) -> dict[str, list[dict[str, str]]]:
    """Things that are typed field by field, without what is empty; nothing where there are none."""
    rows = [{field: text for field, text in asdict(one).items() if text} for one in typed]
    return {name: rows} if rows else {}


def named_by(shapes: Iterable[FiledShape]) -> dict[str, str]:
    """What shapes are asked and work out, as formulas by name."""
    return {name: text for one in shapes for name, text in one.placed.named.items()}


def read_shapes(reader: Reader, lexicon: Lexicon, measures: Sequence[str]) -> list[FiledShape]:
    """The shapes of a file, beside measures of these names."""
    found: list[FiledShape] = []
    for item in reader.items("shapes", most=MOST_SHAPES, required=False):
        shape = item.choice("shape", list(SHAPES), "")
        placed = Placed(
            item.text("called", longest=100),
            shape,
            *(_texts(item, name) for name in ("measures", "letters", "figures")),
        )
        inside = item.inside("lines")
        lines = {kind: _texts(inside, kind) for kind in LINE_KINDS}
        inside.refuse_unknown()
        runs = tuple(item.texts("runs"))
        item.refuse_unknown()
        taken = [*measures, *(one.placed.called for one in found), *named_by(found)]
        try:
            if shape:
                check_placed(placed, taken, lexicon)
        except CarpentryError as error:
            for problem in error.problems:
                place = problem.place
                item.fault(place if place == "called" else f"measures.{place}", problem.message)
        if shape:
            found.append(FiledShape(placed, lines, runs))
    return found


def _texts(reader: Reader, name: str) -> dict[str, str]:
    """An object whose every value is a text."""
    inside = reader.inside(name)
    return {one: inside.text(one, "", longest=4 * MOST_FORMULA) for one in inside.names()}


def shapes_document(shapes: Sequence[FiledShape]) -> dict[str, list[Json]]:
    """Shapes as they are read back; nothing where there are none."""
    found = [
        {
            "called": one.placed.called,
            "shape": one.placed.shape,
            "measures": dict(one.placed.measures),
            "letters": dict(one.placed.letters),
            "figures": dict(one.placed.figures),
            "lines": {kind: dict(texts) for kind, texts in one.lines.items() if texts},
            "runs": list(one.runs),
        }
        for one in shapes
    ]
    return {"shapes": found} if found else {}
