"""What shapes wrote in a project, and writing it anew: rows that are linked follow, what was typed
by hand stays, and what was taken away stays away."""

from collections.abc import Iterable, Mapping
from typing import Any

from carpentry.design import MAX_PARTS, Sheet, mark_of
from carpentry.design.shapes import (
    LINE_KINDS,
    PART_FIELDS,
    RUN_FIELDS,
    Placed,
    Rows,
    made_placed,
    write_placed,
)
from carpentry.language import CarpentryError
from carpentry.project.sheet_in_file import FiledShape
from server.projects.models import Project, next_position
from server.projects.rows import Linked, Part, ProjectLine, Run, Shape

_KINDS = ("part", "run", *LINE_KINDS)
_MOST_TIMES = 4  # in which shapes that follow one another come to rest


def add_shape(project: Project, placed: Placed) -> Shape:
    """A shape more, with all that it writes. Raises ``CarpentryError`` by measure."""
    shape = project.shapes.create(
        position=next_position(project.shapes),
        called=placed.called,
        shape=placed.shape,
        measures=dict(placed.measures),
    )
    write_shape(project, shape)
    return shape


def write_shape(project: Project, shape: Shape) -> None:
    """Writes a shape anew. Raises ``CarpentryError`` by measure where it cannot be built so."""
    for _ in range(_MOST_TIMES):
        rows = _rows(project, shape, project.sheet())
        if not _take(project, shape, rows, _all_linked(project)):
            break
    made = made_placed(shape.placed, project.sheet())
    made.check_runs()
    assert made.parts is not None and made.solids is not None


def write_shapes(project: Project) -> Sheet:
    """Writes all shapes anew as measures are now, and returns the sheet that comes of it. One that
    cannot be written stays as it was: what is wrong is told where it is shown."""
    sheet = project.sheet()
    shapes = list(project.shapes.all())
    for _ in range(_MOST_TIMES if shapes else 0):
        changed, known = False, _all_linked(project)
        for shape in shapes:
            try:
                changed |= _take(project, shape, _rows(project, shape, sheet), known)
            except CarpentryError:
                continue
        if not changed:
            break
        sheet = project.sheet()
    return sheet


def _rows(project: Project, shape: Shape, sheet: Sheet) -> Rows:
    def letter() -> str:
        project.note_letters()
        project.letters += 1
        Project.objects.filter(id=project.id).update(letters=project.letters)
        return mark_of(project.letters)

    return write_placed(shape.placed, sheet, letter)


def _all_linked(project: Project) -> "dict[tuple[Any, str], list[Linked]]":
    """All rows that shapes wrote, by shape and kind."""
    found: dict[tuple[Any, str], list[Linked]] = {}
    for rows in (project.parts, project.runs, project.lines):
        for row in rows.exclude(shape=None):
            found.setdefault((row.shape_id, kind_of(row)), []).append(row)
    return found


def _take(
    project: Project, shape: Shape, rows: Rows, linked_rows: "dict[tuple[Any, str], list[Linked]]"
) -> bool:
    """Makes linked rows what a shape writes; whether anything changed."""
    wanted = _wanted(rows)
    changed = _note(shape, rows.placed, linked_rows.get((shape.id, "run"), []))
    wrote = set(shape.wrote)
    for kind, written in wanted.items():
        known = {row.key: row for row in linked_rows.get((shape.id, kind), ())}
        for key, fields in written.items():
            if key in known:
                if known[key].follow(fields):
                    known[key].save()
                    changed = True
                    _touch(project, known[key])
            elif f"{kind}: {key}" not in wrote:
                _touch(project, _add(project, shape, kind, key, fields))
                changed = True
        for key in known.keys() - written.keys():
            _drop(project, shape, known[key])
            changed = True
    now = [f"{kind}: {key}" for kind, written in wanted.items() for key in written]
    changed |= now != shape.wrote
    if changed:
        shape.wrote = now
        shape.save()
        if project.parts.count() > MAX_PARTS:
            raise CarpentryError(f"a project holds {MAX_PARTS:,} parts at the most")
    return changed


def _drop(project: Project, shape: Shape, row: Linked) -> None:
    """Takes away what a shape writes no more, but a part of which pieces were cut, and a line that
    was typed by hand."""
    if isinstance(row, Part) and _is_cut(project, row):
        _keep(project, shape, row)
    elif isinstance(row, ProjectLine) and row.by_hand:
        row.unlink()
    else:
        if isinstance(row, Part):
            project.touch(gone=[row.pk])
        row.delete()


def _is_cut(project: Project, part: Part) -> bool:
    """Whether pieces of a part were cut."""
    return project.plans.filter(stage="cut", boards__pieces__part=part.pk).exists()


def _keep(project: Project, shape: Shape, part: Part) -> None:
    """Keeps a part that its shape writes no more, as pieces of it were cut: with the sizes that it
    had, and its letter, which the shape gives to nothing else."""
    before = project.before
    if before and part.mark in before.typed.parts:
        part.write(before.part(part.mark).plain_fields)
    shape.letters.pop(part.key, None)
    part.unlink()
    project.touch([part.pk])


def _wanted(rows: Rows) -> dict[str, dict[str, dict[str, str]]]:
    """What a shape writes, by kind of row, key and column."""
    return {
        "part": {key: _only(PART_FIELDS, fields) for key, fields in rows.parts.items()},
        "run": {key: _only(RUN_FIELDS, fields) for key, fields in rows.runs.items()},
        **{
            kind: {key: {"text": text} for key, text in rows.lines[kind].items()}
            for kind in LINE_KINDS
        },
    }


def _only(names: Iterable[str], fields: Any) -> dict[str, str]:
    return {name: getattr(fields, name) for name in names}


def _note(shape: Shape, placed: Placed, runs: Iterable[Any]) -> bool:
    """Notes letters and figures of a shape; what is in its runs goes by another name where the
    shape does."""
    before = (shape.figures, shape.letters)
    shape.take(placed)
    changed = before != (shape.figures, shape.letters)
    for run in runs:
        name = f"{shape.called} {run.key}"
        if run.name != name:
            run.name = name
            run.save()
            changed = True
    return changed


def kind_of(row: Linked) -> str:
    """What a linked row is: a part, a run, or the kind of its line."""
    if isinstance(row, ProjectLine):
        return str(row.kind)
    return "part" if isinstance(row, Part) else "run"


def linked(project: Project, shape: Shape, kind: str) -> list[Linked]:
    """The rows of a kind that a shape wrote."""
    if kind == "part":
        return list(project.parts.filter(shape=shape))
    if kind == "run":
        return list(project.runs.filter(shape=shape))
    return list(project.lines.filter(shape=shape, kind=kind))


def _add(project: Project, shape: Shape, kind: str, key: str, fields: Mapping[str, str]) -> Linked:
    link = {"project": project, "shape": shape, "key": key, "written": dict(fields)}
    if kind == "part":
        return Part.objects.create(
            **link,
            **fields,
            position=next_position(project.parts),
            mark=shape.letters[key],
            group=shape.called,
        )
    if kind == "run":
        name = f"{shape.called} {key}"
        if project.runs.filter(name=name).exists():
            raise CarpentryError(f"there is a run “{name}” already", "called")
        position = next_position(project.runs)
        return Run.objects.create(**link, **fields, position=position, name=name)
    position = next_position(project.lines.filter(kind=kind))
    return ProjectLine.objects.create(**link, **fields, kind=kind, position=position)


def _touch(project: Project, row: Linked) -> None:
    if isinstance(row, Part):
        project.touch([row.pk])


def let_go(project: Project, shape: Shape) -> None:
    """Lets a shape go: what it wrote stays as it is, with its figures as measures that it follows,
    and follows the shape no more."""
    named = shape.placed.named
    users = project.sheet().users()
    for kind in _KINDS:
        for row in linked(project, shape, kind):
            row.unlink()
    shape.delete()
    project.keep_figures({name: text for name, text in named.items() if users.get(name)})


def remove_with_all(project: Project, shape: Shape) -> None:
    """Removes a shape and all that it wrote."""
    gone = [row.pk for row in linked(project, shape, "part")]
    project.note_letters()
    project.parts.filter(id__in=gone).delete()
    project.touch(gone=gone)
    project.runs.filter(shape=shape).delete()
    project.lines.filter(shape=shape).delete()
    shape.delete()


def follow_again(project: Project, shape: Shape, part: Part | None, field: str) -> None:
    """Lets a field of a part follow its shape again; all of the shape where no part is said: what
    was taken away comes back, too."""
    if part is not None:
        setattr(part, field, part.written[field])
        part.save()
        project.touch([part.pk])
        return
    for kind in _KINDS:
        for row in linked(project, shape, kind):
            row.take_written()
    project.touch(project.parts.filter(shape=shape).values_list("id", flat=True))
    shape.wrote = []
    shape.save()
    write_shape(project, shape)


def link_shape(project: Project, filed: FiledShape) -> None:
    """A shape that was read from a file, linked with what it writes: parts by their letters, runs
    by their names, lines by their texts. What is otherwise was typed by hand."""
    shape = Shape(project=project, position=next_position(project.shapes))
    shape.take(filed.placed)
    shape.save()
    keys = {mark: key for key, mark in filed.placed.letters.items()}
    try:
        wanted = _wanted(_rows(project, shape, project.sheet()))
    except CarpentryError:  # told where it is shown; all that is linked is taken as it is
        wanted = {}
    rows: list[tuple[str, str, Linked]] = [
        ("part", keys[row.mark], row) for row in project.parts.filter(mark__in=keys)
    ]
    runs = {f"{shape.called} {key}": key for key in filed.runs}
    rows += [("run", runs[row.name], row) for row in project.runs.filter(name__in=runs)]
    for kind, texts in filed.lines.items():
        known = {row.text: row for row in project.lines.filter(kind=kind, shape=None)}
        rows += [(kind, key, known.pop(text)) for key, text in texts.items() if text in known]
    for kind, key, row in rows:
        names = {"part": PART_FIELDS, "run": RUN_FIELDS}.get(kind, ("text",))
        row.shape, row.key = shape, key
        row.written = wanted.get(kind, {}).get(key) or _only(names, row)
        row.save()
    written = {f"{kind}: {key}" for kind, texts in wanted.items() for key in texts}
    shape.wrote = sorted(written | {f"{kind}: {key}" for kind, key, _ in rows})
    shape.save()
