"""Projects and their parts."""

from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import asdict, replace
from typing import Any, Self

from django.core.exceptions import ValidationError
from django.db import models
from django.utils.functional import cached_property

from carpentry.cutting import SawLimits
from carpentry.design import Part as ReadPart
from carpentry.design import (
    PartFields,
    Sections,
    Sheet,
    TypedSheet,
    lines_keeping_unit,
    mark_number,
    mark_of,
    matched,
    read_part,
    run_keeping_unit,
    with_formulas,
)
from carpentry.design.measures import (
    MOST_MEASURES,
    MeasureFields,
    check_measure,
    measure_keeping_unit,
)
from carpentry.design.runs import RunFields, check_run
from carpentry.language import CarpentryError, Unit, typed_fields
from carpentry.lumber import NO_OWN, Lexicon, Section, StockName, lexicon_in
from carpentry.project import (
    NamedPart,
    ProjectFile,
    SettingFields,
    Settings,
    own_among,
    part_in,
    read_settings,
    section_sold,
    settings_in,
)
from carpentry.project.file import FOLLOWING_LINES, TYPED_LINES
from carpentry.project.respelling import respelled
from carpentry.project.settings import SAW, saw_fields
from carpentry.project.sheet_in_file import MOST_RUNS
from server.common.columns import typed_columns
from server.common.errors import as_validation_error
from server.common.owned import OwnedQuerySet
from server.common.rows import (
    Changes,
    as_lines,
    replace_rows,
    snapshots,
    whole_text,
)
from server.history.models import Revision, Snapshot, Versioned
from server.projects.rows import Measure, Part, ProjectLine, Run, Shape, follows
from server.rack.models import RackBoard
from server.stocks.models import own_stocks
from server.tools.models import Toolbox
from server.yards.models import Yard

SETTINGS = tuple(name for name in typed_fields(SettingFields) if name not in SAW)
MOST_TYPED = 20_000  # characters of all lines of a kind
# What no part is shown otherwise for.
_OF_THE_WHOLE = {
    *("kerf", "trim_start", "trim_end", "order", "share_angled_cuts", "eased", "spare", "rack"),
    *("keep_from", "keep_from_of", "keep_width", "budget", "sells_for", "rip", "resaw"),
    "own_stock",
    *(name for name in SETTINGS if name.startswith("days_")),
}


def next_position(rows: "models.Manager[Any]") -> int:
    """The place after the last of some rows."""
    return (rows.aggregate(models.Max("position"))["position__max"] or 0) + 1


def measured_boards(owner: Any) -> dict[int, Section]:
    """What the boards on a builder's rack measure, by number."""
    rows = RackBoard.objects.filter(rack__owner=owner).select_related("rack")
    sections = {row.number: row.read().section for row in rows}
    return {number: section for number, section in sections.items() if section}


class ProjectQuerySet(OwnedQuerySet):
    """Projects; those that were deleted are kept apart until they are deleted for good."""

    def of(self, user: Any) -> Self:
        return super().of(user).filter(deleted=None)

    def deleted_of(self, user: Any) -> Self:
        """What a user deleted and can bring back, the last first."""
        return super().of(user).exclude(deleted=None).order_by("-deleted")


class Project(Versioned, typed_columns(SettingFields, "SettingColumns", __name__, *SAW)):
    """A thing to build: its settings (a column for each of ``SettingFields``, but for what the saws
    can do), its parts and the yard it is bought at."""

    yard = models.ForeignKey(
        Yard, null=True, blank=True, on_delete=models.SET_NULL, related_name="projects"
    )
    deleted = models.DateTimeField(null=True, blank=True, editable=False)
    # Of the letters that parts were given the last one, by its number: none is given twice.
    letters = models.PositiveIntegerField(default=0, editable=False)

    objects = ProjectQuerySet.as_manager()

    class Meta:
        ordering = ["-updated"]

    def clean(self) -> None:
        super().clean()
        self.settings()

    def settings(self) -> Settings:
        """The settings as carpentry understands them."""
        try:
            typed = self.setting_fields
            return read_settings(typed, self.lexicon.own if typed.keep_from_of else NO_OWN)
        except CarpentryError as error:
            raise as_validation_error(error) from error

    @property
    def setting_fields(self) -> SettingFields:
        """The settings as they were typed, with what the builder's saws can do."""
        typed = {name: getattr(self, name) for name in SETTINGS}
        return SettingFields(**typed, **saw_fields(self._saw, Unit(self.unit)))

    def take_settings(self, typed: SettingFields) -> None:
        """Becomes a project with these settings."""
        for name in SETTINGS:
            setattr(self, name, getattr(typed, name))

    @cached_property
    def _own(self) -> Any:
        return own_stocks(self.owner)

    @cached_property
    def _saw(self) -> SawLimits:
        return Toolbox.of(self.owner).owned.limits

    @property
    def currency(self) -> str:
        """That of its yard, or the usual one."""
        return str(self.yard.currency) if self.yard else "USD"

    @property
    def lexicon(self) -> Lexicon:
        """How its words are read, with the materials of the builder's own."""
        return lexicon_in(self.unit, self._own)

    def sheet(self, lexicon: Lexicon | None = None, sections: Sections | None = None) -> Sheet:
        """Its parts, by their marks, with its measures and runs, worked out: by another ``lexicon``
        and for other sizes of stocks than those of its yard where they are given."""
        return Sheet(self._typed_sheet(), lexicon or self.lexicon, sections or self.section)

    before: Sheet | None = None  # as a change that is being made found it
    after: Sheet | None = None  # and as it leaves it

    def sheet_of(self, rows: "Iterable[Part]") -> Sheet:
        """A sheet that has some of its parts at least: the others, too, where anything follows."""
        if self.has_followers:
            return self.sheet()
        parts = {row.mark: row.fields for row in rows}
        return Sheet(TypedSheet(parts), self.lexicon, self.section)

    @property
    def has_followers(self) -> bool:
        """Whether anything in it follows something else."""
        own = self.measures.exists() or self.runs.exists() or self.shapes.exists()
        return own or self.parts.filter(Part.following()).exists()

    def _typed_sheet(self) -> TypedSheet:
        parts = {row.mark: row.fields for row in self.parts.all()}
        named = any(fields.boards for fields in parts.values())
        return TypedSheet(
            parts,
            [row.fields for row in self.measures.all()],
            [row.fields for row in self.runs.all()],
            self.settings().usual_measures,
            measured_boards(self.owner) if named else {},
            {kind: text for kind, text in self.typed_lines().items() if kind in FOLLOWING_LINES},
            self.named(),
        )

    def named(self) -> dict[str, str]:
        """What its shapes are asked and work out, as formulas by name."""
        return {n: text for row in self.shapes.all() for n, text in row.placed.named.items()}

    def taken_names(self) -> list[str]:
        """The names that are taken in its formulas, of measures, of shapes and of theirs."""
        measures = [row.name for row in self.measures.all()]
        return [*measures, *(row.called for row in self.shapes.all()), *self.named()]

    def sections(self, stocks: Collection[StockName]) -> dict[StockName, tuple[Any, bool]]:
        """What stocks measure at its yard, each with whether that is the yard's own size."""
        lines: dict[StockName, list[Any]] = {}
        if self.yard:
            names = {str(stock) for stock in stocks}
            for row in self.yard.lines.filter(stock_key__in=names):
                row.yard = self.yard
                line = row.read()
                lines.setdefault(line.stock, []).append(line)
        return {stock: section_sold(stock, lines.get(stock, ())) for stock in stocks}

    def section(self, stock: StockName) -> Section | None:
        """What a stock measures at its yard."""
        section: Section | None = self.sections([stock])[stock][0]
        return section

    def named_parts(
        self, lexicon: Lexicon | None = None, sections: Sections | None = None
    ) -> list[NamedPart]:
        """The parts as carpentry understands them, in their order; as in ``sheet``."""
        sheet = self.sheet(lexicon, sections)
        return [NamedPart(str(p.id), sheet.part(p.mark)) for p in self.parts.all()]

    def checked(self, row: "Part") -> ReadPart:
        """A row as it was just typed, among the others of the project. Raises ``CarpentryError`` by
        field."""
        fields = with_formulas(row.fields, self.lexicon)
        if not follows(fields):
            return read_part(fields, self.lexicon)
        typed = self._typed_sheet()
        changed = replace(typed, parts={**typed.parts, row.mark: fields})
        return Sheet(changed, self.lexicon, self.section).check(row.mark)

    def typed_lines(self) -> dict[str, str]:
        """Joints, hardware, finishes and rules as they were typed."""
        lines = list(self.lines.all())
        return {
            kind: whole_text(line for line in lines if line.kind == kind) for kind in TYPED_LINES
        }

    def write_lines(self, kind: str, text: str) -> list["ProjectLine"]:
        """Makes the lines of a kind those of a text; what stays keeps its id. Returns the lines."""
        if len(text) > MOST_TYPED:
            raise ValidationError({kind: f"longer than {MOST_TYPED:,} characters"})
        known = self.lines.filter(kind=kind)
        wanted = [
            ProjectLine(id=id_, project=self, kind=kind, position=position, text=line)
            for position, (id_, line) in enumerate(as_lines(text, known))
        ]
        replace_rows(known, wanted, ("position", "text"))
        return wanted

    def reword_lines(self, kind: str, text: str) -> None:
        """Makes the lines of a kind those of a text that means the same, line by line."""
        rows = list(self.lines.filter(kind=kind))
        lines = text.split("\n")
        lines += [""] * (len(rows) - len(lines))
        for row, line in zip(rows, lines, strict=False):
            if not row.by_hand and row.shape_id:
                row.written = {"text": line}
            row.text = line
        ProjectLine.objects.bulk_update(rows, ["text", "written"])

    def add_parts(self, read: Iterable[ReadPart], marks: Iterable[str] = ()) -> list["Part"]:
        """Appends parts (read by carpentry); each gets a mark of its own. Returns the new rows."""
        parts = list(read)
        given = list(marks) or [""] * len(parts)
        self.note_letters(given)
        last = self.letters
        position = next_position(self.parts)
        rows = []
        for offset, (part, mark) in enumerate(zip(parts, given, strict=True)):
            if not mark:
                last += 1
            row = Part(project=self, position=position + offset, mark=mark or mark_of(last))
            row.take(part)
            rows.append(row)
        Part.objects.bulk_create(rows)
        self.note_letters()
        self.touch(row.id for row in rows)
        return rows

    def note_letters(self, more: Iterable[str] = ()) -> None:
        """Notes the last letter that was given to a part, with ``more`` that are to be given."""
        marks = {*self.parts.values_list("mark", flat=True), *more}
        self.letters = max(self.letters, *map(mark_number, marks), 0)
        Project.objects.filter(id=self.id).update(letters=self.letters)

    def add_measure(self, fields: MeasureFields) -> "Measure":
        """A measure more. Raises ``CarpentryError`` by field where it cannot be kept."""
        if self.measures.count() >= MOST_MEASURES:
            raise CarpentryError(f"a project has {MOST_MEASURES:,} measures at the most")
        check_measure(fields, self.taken_names(), Unit(self.unit))
        return self.measures.create(position=next_position(self.measures), **asdict(fields))

    def keep_figures(self, named: Mapping[str, str]) -> None:
        """Makes measures of what a shape was asked and worked out."""
        begins = next_position(self.measures)
        Measure.objects.bulk_create(
            Measure(project=self, position=begins + n, name=name, formula=text)
            for n, (name, text) in enumerate(named.items())
        )

    def add_run(self, fields: RunFields) -> "Run":
        """A run more. Raises ``CarpentryError`` by field where it cannot be kept."""
        names = [row.name for row in self.runs.all()]
        if len(names) >= MOST_RUNS:
            raise CarpentryError(f"a project has {MOST_RUNS} runs at the most")
        check_run(fields, names)
        return self.runs.create(position=next_position(self.runs), **asdict(fields))

    def write_sheet(self, typed: TypedSheet) -> None:
        """Takes what is typed of the rows that are there, in their order."""
        for measure, fields in zip(self.measures.all(), typed.measures, strict=True):
            if measure.fields != fields:
                measure.write(fields)
                measure.save()
        for run, asked in zip(self.runs.all(), typed.runs, strict=True):
            if run.fields != asked:
                run.reword(asked)
                run.save()
        for kind, text in typed.lines.items():
            self.reword_lines(kind, text)
        for shape in self.shapes.all():
            shape.take(shape.placed.with_named(typed.named))
            shape.save()
        parts = list(self.parts.all())
        for row in parts:
            row.reword(typed.parts[row.mark])
        replace_rows(self.parts, parts, (*typed_fields(PartFields), "written"))

    def replace_parts(self, read: Sequence[ReadPart]) -> None:
        """Makes the part list what was read; parts that were in it stay the same rows, with their
        marks."""
        known = {str(row.id): row for row in self.parts.all()}
        ids = matched(((id_, row.fields) for id_, row in known.items()), read)
        kept = [known[id_] for id_ in ids if id_]
        for position, (id_, part) in enumerate(zip(ids, read, strict=True), start=1):
            if id_:
                known[id_].take(part)
                known[id_].position = position
        changes = replace_rows(self.parts, kept)
        self.touch(changes.changed, changes.gone)
        fresh = [(position, part) for position, part in enumerate(read, 1) if not ids[position - 1]]
        rows = self.add_parts(part for _, part in fresh)
        for row, (position, _) in zip(rows, fresh, strict=True):
            row.position = position
        Part.objects.bulk_update(rows, ["position"])

    def change_unit(self, unit: Unit) -> None:
        """Another unit for bare numbers; nothing changes its size."""
        before, sheet = self.lexicon, self.sheet()
        self.take_settings(settings_in(self.settings(), unit))
        for measure in self.measures.all():
            measure.write(measure_keeping_unit(measure.fields, before.unit))
            measure.save()
        for run in self.runs.all():
            run.reword(run_keeping_unit(run.fields, before.unit))
            run.save()
        for shape in self.shapes.all():
            shape.take(shape.placed.keeping_unit(before.unit))
            shape.save()
        for kind, text in self.typed_lines().items():
            kept = lines_keeping_unit(text, before.unit) if kind in FOLLOWING_LINES else text
            self.reword_lines(kind, respelled(kind, kept, before.unit))
        rows = list(self.parts.all())
        for row in rows:
            row.reword(part_in(sheet.part(row.mark), before, unit))
        replace_rows(self.parts, rows, (*typed_fields(PartFields), "written"))

    def as_file(self) -> ProjectFile:
        sheet = self.sheet()
        parts = [(row.mark, sheet.part(row.mark)) for row in self.parts.all()]
        return ProjectFile(
            self.name,
            self.settings(),
            self.yard.name if self.yard else "",
            tuple(part for _, part in parts),
            tuple(mark for mark, _ in parts),
            own_among(part.stock for _, part in parts),
            **self.typed_lines(),
            measures=tuple(sheet.typed.measures),
            runs=tuple(sheet.typed.runs),
            shapes=tuple(row.filed() for row in self.shapes.all()),
        )

    def touch(self, ids: Iterable[Any] = (), gone: Iterable[Any] = ()) -> None:
        """Notes which rows a change altered, and which are gone."""
        self.altered.changed.update(ids)
        self.altered.gone.update(gone)

    @cached_property
    def altered(self) -> Changes:
        """The parts that changes of this object have altered."""
        return Changes()

    def remember(self) -> dict[str, Any]:
        return self._shown_with()

    def changed_from(self, before: dict[str, Any]) -> None:
        """Notes that every part is shown otherwise where what they share has changed."""
        self.altered.made = True
        if before != self._shown_with():
            self.touch(self.parts.values_list("id", flat=True))

    def _shown_with(self) -> dict[str, Any]:
        names = [name for name in SETTINGS if name not in _OF_THE_WHOLE]
        return {name: getattr(self, name) for name in (*names, "yard_id")}

    def snapshot(self) -> Snapshot:
        return {name: getattr(self, name) for name in SETTINGS} | {
            "name": self.name,
            "yard": str(self.yard_id) if self.yard_id else None,
            "lines": snapshots(self.lines.all()),
            "measures": snapshots(self.measures.all()),
            "shapes": snapshots(self.shapes.all()),
            "runs": snapshots(self.runs.all()),
            "parts": snapshots(self.parts.all()),
        }

    def restore(self, snapshot: Snapshot) -> None:
        self.name = snapshot["name"]
        usual = SettingFields.usual(Unit(snapshot["unit"]))
        for name in SETTINGS:
            setattr(self, name, snapshot.get(name, getattr(usual, name)))
        yard = snapshot["yard"]
        self.yard = Yard.objects.of(self.owner).filter(id=yard).first() if yard else None
        # What shapes wrote is linked to them: they are there first.
        known = snapshot.get("shapes", [])
        replace_rows(self.shapes, [Shape.from_snapshot(row, project=self) for row in known])
        if "lines" in snapshot:
            wanted = [ProjectLine.from_snapshot(row, project=self) for row in snapshot["lines"]]
            replace_rows(self.lines, wanted)
        else:  # written before lines were rows
            for kind in TYPED_LINES:
                self.write_lines(kind, snapshot.get(kind, ""))
        for rows, kind in ((self.measures, Measure), (self.runs, Run)):
            known = snapshot.get(kind.related, [])
            replace_rows(rows, [kind.from_snapshot(row, project=self) for row in known])
        changes = replace_rows(
            self.parts, [Part.from_snapshot(row, project=self) for row in snapshot["parts"]]
        )
        self.touch(changes.changed, changes.gone)


class ProjectRevision(Revision):
    subject = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="revisions")

    class Meta(Revision.Meta):
        constraints = [
            models.UniqueConstraint(
                fields=["subject", "number"], name="one_project_revision_a_version"
            )
        ]
