"""A project in the words of the API's contract."""

from collections.abc import Collection
from functools import lru_cache
from typing import Any
from uuid import UUID

from django.db.models import prefetch_related_objects

from carpentry.buying import USUAL_LINES
from carpentry.design import COLUMNS, angles_fault, mirror_pairs, not_planned_yet
from carpentry.design import Part as ReadPart
from carpentry.design.edges import edges_told
from carpentry.design.ends import told
from carpentry.language import CarpentryError, Table, Unit
from carpentry.lumber import (
    Section,
    StockName,
    species_of,
    standard_section,
    weight_kg,
    weight_told,
)
from carpentry.project import extra_of, section_sold
from carpentry.project.settings import SETTING_LENGTHS
from server.common.schemas import ProblemOut, length_out, section_out
from server.common.uploads import columns_out
from server.history.showing import shows
from server.projects.models import SETTINGS, Part, Project
from server.projects.schemas import (
    PART_FIELDS,
    PartOut,
    ProjectChangedOut,
    ProjectOut,
    ReadingOut,
    ReadPartOut,
    SettingLengthOut,
    YardNameOut,
)

_MOST_TRIES = 8
_PLAIN = tuple(name for name in SETTINGS if name not in SETTING_LENGTHS)


def read_at_once(project: Project) -> None:
    """Makes a project what it is now, its settings and its rows of one version, also while others
    change it. Raises ``Project.DoesNotExist`` when it is gone."""
    for _ in range(_MOST_TRIES):
        project.refresh_from_db()
        prefetch_related_objects([project], "parts", "lines", "yard")
        if Project.objects.filter(id=project.id, version=project.version).exists():
            break


@shows(Project)
def show_project(project: Project) -> ProjectOut:
    """The project as it is now."""
    read_at_once(project)
    return ProjectOut(**_whole(project), parts=_Parts(project).show())


def show_change(project: Project, seen: int) -> ProjectChangedOut:
    """What the change just made did to a project of the version ``seen``."""
    altered = project.altered
    read_at_once(project)
    parts = _Parts(project)
    only_this = project.version == seen + 1 and altered.made
    return ProjectChangedOut(
        **_whole(project),
        seen=seen,
        whole=not only_this,
        parts=parts.show(altered.changed if only_this else None),
        gone=list(altered.gone) if only_this else [],
    )


def _whole(project: Project) -> dict[str, Any]:
    settings, notation = project.settings(), project.notation
    parts = {str(part.id): part for part in project.parts.all()}
    pairs = mirror_pairs({id_: part.read() for id_, part in parts.items() if part.ends})
    return {
        **{name: getattr(project, name) for name in _PLAIN},
        **{
            name: SettingLengthOut(
                typed=getattr(project, name), shown=length_out(settings.length(name) or 0, notation)
            )
            for name in SETTING_LENGTHS
        },
        "id": project.id,
        "name": project.name,
        "version": project.version,
        **project.typed_lines(),
        "usual_rules": list(USUAL_LINES),
        "yard": YardNameOut(id=project.yard.id, name=project.yard.name) if project.yard else None,
        "pairs": {UUID(id_): parts[other].mark for id_, other in pairs.items()},
        "undo": project.undo_label,
        "redo": project.redo_label,
        "change": project.change_label,
        "updated": project.updated,
    }


class _Parts:
    """The parts of a project, as they measure at its yard."""

    def __init__(self, project: Project) -> None:
        self.project = project
        self.settings = project.settings()
        self.rows: list[Part] = list(project.parts.all())
        for row in self.rows:
            row.project = project

    def show(self, only: Collection[UUID] | None = None) -> list[PartOut]:
        """All of them, or ``only`` these, in their order."""
        rows = [row for row in self.rows if only is None or row.id in only]
        read = [(row, row.read()) for row in rows]
        self.sections = self._sections({part.stock for _, part in read})
        return [self._show(row, part) for row, part in read]

    def _sections(self, stocks: Collection[StockName]) -> dict[StockName, tuple[Any, bool]]:
        lines: dict[StockName, list[Any]] = {}
        if self.project.yard:
            names = {str(stock) for stock in stocks}
            for row in self.project.yard.lines.filter(stock_key__in=names):
                row.yard = self.project.yard
                line = row.read()
                lines.setdefault(line.stock, []).append(line)
        return {stock: section_sold(stock, lines.get(stock, ())) for stock in stocks}

    def _show(self, row: Part, part: ReadPart) -> PartOut:
        notation = self.settings.notation
        stock_section, from_yard = self.sections[part.stock]
        section = part.finished_section(stock_section)
        over_all = part.length.ticks
        if section and not angles_fault(part, stock_section):
            over_all = part.outermost(section)
        sawn = over_all + extra_of(part, self.settings).length
        return PartOut(
            **{name: getattr(row, name) for name in PART_FIELDS},
            id=row.id,
            mark=row.mark,
            position=row.position,
            pieces=part.quantity * self.settings.copies,
            called=part.name,
            stock_name=str(part.stock),
            kind=part.stock.kind,
            section=section_out(section, notation),
            section_source=self.project.yard.name
            if from_yard and self.project.yard
            else "standard size",
            length_shown=length_out(part.length.ticks, notation),
            over_all=length_out(over_all, notation) if over_all != part.length.ticks else None,
            sawn=length_out(sawn, notation) if sawn != over_all else None,
            angles="" if part.square_ended else told(part.ends),
            bevels=edges_told(part.edges),
            weight=_weight_of_one(part, section, self.settings.unit),
            warnings=list(part.warnings),
        )


@lru_cache(10_000)
def _weight_of_one(part: ReadPart, section: Section | None, unit: Unit) -> str:
    """What one piece weighs air-dry; nothing for what has no section, or is of an unknown wood."""
    density = species_of(part.stock).density()
    if section is None or density is None:
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
