"""A project in the words of the API's contract."""

from collections.abc import Iterable
from dataclasses import asdict, dataclass
from functools import lru_cache
from typing import Any
from uuid import UUID

from django.db.models import Q, prefetch_related_objects

from carpentry.buying import USUAL_LINES
from carpentry.cutting import Extra
from carpentry.design import COLUMNS, Sheet, angles_fault, mirror_pairs, not_planned_yet
from carpentry.design import Part as ReadPart
from carpentry.design.edges import edges_told
from carpentry.design.ends import faces, is_angled, told
from carpentry.language import CarpentryError, Notation, Table, Unit
from carpentry.lumber import (
    OwnStock,
    Section,
    species_of,
    standard_section,
    weight_kg,
    weight_told,
)
from carpentry.project import extra_of
from carpentry.project.settings import PROJECT_LENGTHS
from server.common.schemas import ProblemOut, length_out, section_out
from server.common.uploads import columns_out
from server.history.showing import shows
from server.projects.drawing import show_part, show_shapes
from server.projects.following import show_measures, show_runs
from server.projects.models import SETTINGS, Part, Project
from server.projects.schemas import (
    FaceOut,
    FollowedOut,
    PartOut,
    ProjectChangedOut,
    ProjectOut,
    ReadingOut,
    ReadPartOut,
    SettingLengthOut,
    SlantOut,
    YardNameOut,
)
from server.projects.shape_schemas import DrawnOut

_MOST_TRIES = 8
_PLAIN = tuple(name for name in SETTINGS if name not in PROJECT_LENGTHS)


def read_at_once(project: Project) -> None:
    """Makes a project what it is now, its settings and its rows of one version, also while others
    change it. Raises ``Project.DoesNotExist`` when it is gone."""
    for _ in range(_MOST_TRIES):
        project.refresh_from_db()
        prefetch_related_objects([project], "parts", "lines", "measures", "runs", "shapes", "yard")
        if Project.objects.filter(id=project.id, version=project.version).exists():
            break


@shows(Project)
def show_project(project: Project) -> ProjectOut:
    """The project as it is now."""
    read_at_once(project)
    sheet = project.sheet()
    parts = _Parts(project, sheet).show(project.parts.all())
    return ProjectOut(**_whole(project, sheet), parts=parts)


def show_change(project: Project, seen: int) -> ProjectChangedOut:
    """What the change just made did to a project of the version ``seen``; asked in the transaction
    that the change was made in."""
    altered = project.altered
    only_this = project.version == seen + 1 and altered.made
    rows = project.parts.all()
    if only_this:
        rows = rows.filter(Q(id__in=altered.changed) | Part.following())
    angled = project.parts.exclude(ends="")
    sheet = project.after or project.sheet_of([*rows, *angled])
    return ProjectChangedOut(
        **_whole(project, sheet),
        seen=seen,
        whole=not only_this,
        parts=_Parts(project, sheet).show(rows),
        gone=list(altered.gone) if only_this else [],
    )


def _whole(project: Project, sheet: Sheet) -> dict[str, Any]:
    settings, notation = project.settings(), project.notation
    angled = {str(part.id): part for part in project.parts.exclude(ends="")}
    pairs = mirror_pairs({id_: sheet.part(part.mark) for id_, part in angled.items()})
    return {
        **{name: getattr(project, name) for name in _PLAIN},
        **{
            name: SettingLengthOut(
                typed=getattr(project, name), shown=length_out(settings.length(name) or 0, notation)
            )
            for name in PROJECT_LENGTHS
        },
        "id": project.id,
        "name": project.name,
        "version": project.version,
        **project.typed_lines(),
        "measures": show_measures(project, sheet),
        "runs": show_runs(project, sheet),
        "shapes": show_shapes(project, sheet),
        "usual_rules": list(USUAL_LINES),
        "yard": YardNameOut(id=project.yard.id, name=project.yard.name) if project.yard else None,
        "pairs": {UUID(id_): angled[other].mark for id_, other in pairs.items()},
        **asdict(project.labels),
        "updated": project.updated,
    }


class _Parts:
    """The parts of a project, as they measure at its yard."""

    def __init__(self, project: Project, sheet: Sheet) -> None:
        self.project, self.sheet = project, sheet
        settings = project.settings()
        yard = project.yard.name if project.yard else ""
        self.shared = _Shared(
            settings.notation, settings.unit, settings.copies, settings.extra, yard
        )

    def show(self, rows: Iterable[Part]) -> list[PartOut]:
        """Some of them, in their order."""
        read = [(row, self.sheet.part(row.mark)) for row in rows]
        sold = self.project.sections({part.stock for _, part in read})
        return [
            _show(
                _Place(
                    *(row.id, row.mark, row.position, part.stock.own),
                    row.shape_id,
                    tuple(row.by_hand),
                ),
                part,
                sold[part.stock],
                self.shared,
            )
            for row, part in read
        ]


@dataclass(frozen=True)
class _Shared:
    """What all parts of a project are shown with."""

    notation: Notation
    unit: Unit
    copies: int
    extra: Extra
    yard: str


@dataclass(frozen=True)
class _Place:
    """Which part it is, where in the list, and what it is of where that is one's own material: the
    name alone tells that from no other. The shape that wrote it, and what of it is by hand."""

    id: UUID
    mark: str
    position: int
    own: OwnStock | None
    shape: UUID | None
    by_hand: tuple[str, ...]


@lru_cache(10_000)
def _show(
    place: _Place, part: ReadPart, sold: tuple[Section | None, bool], shared: _Shared
) -> PartOut:
    notation = shared.notation
    stock_section, from_yard = sold
    section = part.finished_section(stock_section)
    over_all = part.length.ticks
    if section and not part.square_ended and not angles_fault(part, stock_section):
        over_all = part.outermost(section)
    sawn = over_all and over_all + extra_of(part, shared.extra).length
    return PartOut.model_construct(
        **vars(part.fields),
        id=place.id,
        mark=place.mark,
        position=place.position,
        pieces=part.quantity * shared.copies,
        called=part.name,
        stock_name=str(part.stock),
        kind=part.stock.kind,
        section=section_out(section, notation),
        section_source=shared.yard if from_yard else "standard size",
        length_shown=length_out(part.length.ticks, notation),
        computed=length_out(part.computed.ticks, notation) if part.computed else None,
        follows=[FollowedOut(field=f, value=v, exact=e) for f, v, e in part.followed],
        fault=part.fault,
        is_held=part.is_held,
        shape=place.shape,
        by_hand=list(place.by_hand),
        shaping=part.shaping_told(),
        sketch=_sketch(place.mark, part, stock_section, shared),
        other_faces=_other_faces(part, section, notation),
        over_all=length_out(over_all, notation) if over_all != part.length.ticks else None,
        sawn=length_out(sawn, notation) if sawn != over_all else None,
        angles="" if part.square_ended else told(part.ends),
        bevels=edges_told(part.edges),
        slant=_slant(part),
        weight=_weight_of_one(part, section, shared.unit),
        warnings=list(part.warnings),
    )


def _sketch(letter: str, part: ReadPart, stock: Section | None, shared: _Shared) -> DrawnOut | None:
    """A part of an odd shape as it is seen from its face, measured from one end and one edge."""
    if not part.is_shaped or stock is None or angles_fault(part, stock):
        return None
    corners = part.seen(stock)
    return show_part(letter, corners, part.stock.kind, shared.unit, shared.notation)


def _other_faces(part: ReadPart, section: Section | None, notation: str) -> list[FaceOut]:
    """The length of an angled part over its other faces; nothing of a square one, or of one that
    cannot be cut."""
    if section is None or part.square_ended or part.fault:
        return []
    try:
        over_all = part.outermost(section)
    except CarpentryError:
        return []
    return [
        FaceOut(called=way.value, length=length_out(ticks, notation))
        for way, ticks in faces(over_all, part.ends, section.thickness, section.width).items()
        if way is not part.measured
    ]


def _slant(part: ReadPart) -> SlantOut | None:
    if part.square_ended and not is_angled(part.edges):
        return None
    (left, right), (low, high) = part.ends, part.edges
    return SlantOut(
        ends=[float(left.degrees), float(right.degrees)],
        bevels=[left.bevel, right.bevel],
        edges=[float(low.degrees), float(high.degrees)],
    )


def _weight_of_one(part: ReadPart, section: Section | None, unit: Unit) -> str:
    """What one piece weighs air-dry; nothing for what has no section, or is of an unknown wood."""
    density = species_of(part.stock).density()
    if section is None or density is None or part.fault:
        return ""
    volume = part.mean_section(section).area * part.centre_length(section)
    return weight_told(weight_kg(volume, density), unit, "0.1")


def show_reading(parts: list[ReadPart], notation: str, table: Table | None = None) -> ReadingOut:
    """Parts as understood, for a preview, with the columns of the table that they are from."""
    return ReadingOut(
        columns=columns_out(table) if table else [],
        choices=list(COLUMNS.known),
        parts=[
            ReadPartOut(
                quantity=part.quantity,
                name=part.name,
                stock=str(part.stock),
                kind=part.stock.kind,
                section=section_out(standard_section(part.stock), notation),
                length=length_out(part.length.ticks, notation),
                group=part.fields.group,
                note=part.fields.note,
                later=not_planned_yet(part, standard_section(part.stock)) or "",
                warnings=list(part.warnings),
            )
            for part in parts
        ],
        problems=[],
    )


def show_problems(error: CarpentryError, table: Table | None = None) -> ReadingOut:
    """Why nothing was understood."""
    return ReadingOut(
        columns=columns_out(table) if table else [],
        choices=list(COLUMNS.known),
        parts=[],
        problems=[ProblemOut(place=p.place, message=p.message) for p in error.problems],
    )
