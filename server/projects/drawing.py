"""Shapes and their drawings in the words of the API's contract."""

from collections.abc import Callable, Sequence
from fractions import Fraction

from carpentry.design import Sheet
from carpentry.design.shapes import (
    LaidOut,
    Made,
    Placed,
    View,
    check_placed,
    lay_out,
    made_alone,
    made_placed,
    part_view,
    views_of,
)
from carpentry.language import CarpentryError, Unit, rounded, ticks_per
from server.common.schemas import ProblemOut, length_out
from server.projects.following import show_value
from server.projects.linking import kind_of
from server.projects.models import Project
from server.projects.rows import Linked, Part, ProjectLine, Shape
from server.projects.shape_schemas import (
    DrawingOut,
    DrawnLabelOut,
    DrawnOut,
    DrawnPieceOut,
    PreviewedPartOut,
    ShapeOut,
    ShapePreviewOut,
)

MOST_ROOM = 4_000  # pixels
LEAST_ROOM = 200
_PIXELS_PER_INCH = 96
_PART_ROOM = (380, 190)


def show_shapes(project: Project, sheet: Sheet) -> list[ShapeOut]:
    """The shapes of a project, worked out."""
    shapes = list(project.shapes.all())
    wrote: dict[object, list[Linked]] = {shape.id: [] for shape in shapes}
    if shapes:
        for row in (*project.parts.all(), *project.runs.all(), *project.lines.all()):
            if row.shape_id:
                wrote[row.shape_id].append(row)
    return [_shape(shape, wrote[shape.id], sheet, project.notation) for shape in shapes]


def _shape(shape: Shape, wrote: list[Linked], sheet: Sheet, notation: str) -> ShapeOut:
    placed = shape.placed
    values = {
        name: show_value(sheet.worked.values.get(f"{placed.called} {name}"), sheet, notation)
        for name in placed.given.figures
    }
    problems, notices = _checked(placed, sheet)
    here = {f"{kind_of(row)}: {row.key}" for row in wrote}
    return ShapeOut(
        id=shape.id,
        called=shape.called,
        shape=shape.shape,
        heading=placed.kind.heading,
        measures=shape.measures,
        values={name: value for name, value in values.items() if value},
        writes=[row.mark for row in wrote if isinstance(row, Part)],
        work=[
            _inline(row.text, sheet)
            for row in wrote
            if isinstance(row, ProjectLine) and row.kind == "work"
        ],
        left_out=[one for one in shape.wrote if one not in here],
        problems=problems,
        notices=notices,
    )


def _inline(line: str, sheet: Sheet) -> str:
    """A line with its formulas worked out; as it is where one cannot be."""
    try:
        return sheet.inline(line)
    except CarpentryError:
        return line


def _checked(placed: Placed, sheet: Sheet) -> tuple[list[ProblemOut], list[str]]:
    """Why a shape cannot be built as its measures are now, or else what is to be minded of it."""
    try:
        made = made_placed(placed, sheet)
        made.check_runs()
        assert made.solids is not None
    except CarpentryError as error:
        return _told(error), []
    return [], list(made.shape.notices(made))


def _told(error: CarpentryError) -> list[ProblemOut]:
    return [ProblemOut(place=p.place, message=p.message) for p in error.problems]


def show_drawing(project: Project, shape: Shape, wide: int, high: int) -> DrawingOut:
    """A shape in its views, or why it cannot be drawn."""
    try:
        made = made_placed(shape.placed, project.sheet())
        return DrawingOut(views=_views(made, project, wide, high), problems=[])
    except CarpentryError as error:
        return DrawingOut(views=[], problems=_told(error))


def show_preview(project: Project, placed: Placed, wide: int, high: int) -> ShapePreviewOut:
    """What a shape would be in a project that does not have it."""
    sheet = project.sheet()
    try:
        check_placed(placed, project.taken_names(), project.lexicon)
        made = made_alone(placed, sheet)
        views = _views(made, project, wide, high)
    except CarpentryError as error:
        return ShapePreviewOut(parts=[], views=[], problems=_told(error))
    parts = [
        PreviewedPartOut(
            mark=made.names.letters[key],
            quantity=part.quantity,
            name=part.name,
            stock=str(part.stock),
            length=length_out(part.length.ticks, project.notation),
        )
        for key, part in made.parts.items()
    ]
    return ShapePreviewOut(parts=parts, views=views, problems=[])


def _views(made: Made, project: Project, wide: int, high: int) -> list[DrawnOut]:
    room = [min(MOST_ROOM, max(LEAST_ROOM, size)) for size in (wide, high)]
    words = length_words(made.sheet, project.notation)
    full = full_size(_PIXELS_PER_INCH, Unit(project.unit))
    kinds = {made.names.letters[key]: part.stock.kind for key, part in made.parts.items()}
    return [_drawn(view, lay_out(view, *room, full, words), kinds) for view in views_of(made)]


def show_part(
    letter: str, corners: Sequence[tuple[float, float]], kind: str, unit: Unit, notation: str
) -> DrawnOut:
    """A part by itself, laid out for its details."""
    view = part_view(letter, corners, ticks_per(unit))
    laid = lay_out(
        view,
        *_PART_ROOM,
        full_size(_PIXELS_PER_INCH, unit),
        lambda ticks: length_out(ticks, notation).text,
    )
    return _drawn(view, laid, {letter: kind})


def full_size(per_inch: float, unit: Unit) -> float:
    """How many pixels, or points, a unit of a project has where an inch has so many."""
    return per_inch if unit is Unit.INCH else per_inch / 25.4


def length_words(sheet: Sheet, notation: str) -> Callable[[int], str]:
    """How lengths of drawings are written: rounded as they are cut."""
    return lambda ticks: length_out(round(rounded(Fraction(ticks), sheet.rounding)), notation).text


def _drawn(view: View, laid: LaidOut, kinds: dict[str, str]) -> DrawnOut:
    return DrawnOut(
        name=view.name,
        width=laid.width,
        height=laid.height,
        ratio=f"1 : {laid.ratio}",
        pieces=[
            DrawnPieceOut(
                letter=one.letter,
                number=one.number,
                kind=kinds.get(one.letter, ""),
                points=" ".join(f"{x:g},{y:g}" for x, y in one.points),
            )
            for one in laid.outlines
        ],
        lines=[[*line.start, *line.end] for line in laid.lines],
        labels=[
            DrawnLabelOut(text=one.text, x=one.at[0], y=one.at[1], letter=one.letter)
            for one in laid.labels
        ],
    )
