"""Projects and their parts."""

from collections.abc import Iterable, Sequence
from dataclasses import asdict
from typing import Any, Self

from django.core.exceptions import ValidationError
from django.db import models
from django.utils.functional import cached_property

from carpentry.design import PART_COLUMNS, PartFields, mark_number, mark_of, matched, read_part
from carpentry.design import Part as ReadPart
from carpentry.language import CarpentryError, Unit, typed_fields
from carpentry.lumber import NO_OWN, Lexicon, lexicon_in
from carpentry.project import (
    NamedPart,
    ProjectFile,
    SettingFields,
    Settings,
    own_among,
    part_in,
    read_settings,
    settings_in,
)
from carpentry.project.file import TYPED_LINES
from carpentry.project.respelling import respelled
from server.common.columns import typed_columns
from server.common.errors import as_validation_error
from server.common.owned import OwnedQuerySet
from server.common.rows import (
    Changes,
    Row,
    TextLine,
    as_lines,
    replace_rows,
    snapshots,
    whole_text,
)
from server.history.models import Revision, Snapshot, Versioned
from server.stocks.models import own_stocks
from server.yards.models import Yard

SETTINGS = tuple(typed_fields(SettingFields))
MOST_TYPED = 20_000  # characters of all lines of a kind
# What no part is shown otherwise for.
_OF_THE_WHOLE = {
    *("kerf", "trim_start", "trim_end", "order", "share_angled_cuts", "eased", "spare", "rack"),
    *("keep_from", "keep_from_of", "keep_width", "budget", "sells_for", "rip", "resaw"),
    *("own_stock", *(name for name in SETTINGS if name.startswith("saw_"))),
}


class ProjectQuerySet(OwnedQuerySet):
    """Projects; those that were deleted are kept apart until they are deleted for good."""

    def of(self, user: Any) -> Self:
        return super().of(user).filter(deleted=None)

    def deleted_of(self, user: Any) -> Self:
        """What a user deleted and can bring back, the last first."""
        return super().of(user).exclude(deleted=None).order_by("-deleted")


class Project(Versioned, typed_columns(SettingFields, "SettingColumns", __name__)):
    """A thing to build: its settings (a column for each of ``SettingFields``), its parts and the
    yard it is bought at."""

    yard = models.ForeignKey(
        Yard, null=True, blank=True, on_delete=models.SET_NULL, related_name="projects"
    )
    deleted = models.DateTimeField(null=True, blank=True, editable=False)

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
        """The settings as they were typed."""
        return SettingFields(**{name: getattr(self, name) for name in SETTINGS})

    def take_settings(self, typed: SettingFields) -> None:
        """Becomes a project with these settings."""
        for name in SETTINGS:
            setattr(self, name, getattr(typed, name))

    @cached_property
    def _own(self) -> Any:
        return own_stocks(self.owner)

    @property
    def lexicon(self) -> Lexicon:
        """How its words are read, with the materials of the builder's own."""
        return lexicon_in(self.unit, self._own)

    def named_parts(self, lexicon: Lexicon | None = None) -> list[NamedPart]:
        """The parts as carpentry understands them, in their order, by another ``lexicon`` where one
        is given."""
        words = self.lexicon if lexicon is None else lexicon
        return [NamedPart(str(p.id), read_part(p.fields, words)) for p in self.parts.all()]

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
        replace_rows(known, wanted)
        return wanted

    def add_parts(self, read: Iterable[ReadPart], marks: Iterable[str] = ()) -> list["Part"]:
        """Appends parts (read by carpentry); each gets a mark of its own. Returns the new rows."""
        parts = list(read)
        given = list(marks) or [""] * len(parts)
        taken = set(self.parts.values_list("mark", flat=True)) | set(given)
        last = max(map(mark_number, taken), default=0)
        position = (self.parts.aggregate(models.Max("position"))["position__max"] or 0) + 1
        rows = []
        for offset, (part, mark) in enumerate(zip(parts, given, strict=True)):
            if not mark:
                last += 1
            row = Part(project=self, position=position + offset, mark=mark or mark_of(last))
            row.take(part)
            rows.append(row)
        Part.objects.bulk_create(rows)
        self.touch(row.id for row in rows)
        return rows

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
        before = self.lexicon
        self.take_settings(settings_in(self.settings(), unit))
        for kind, text in self.typed_lines().items():
            self.write_lines(kind, respelled(kind, text, before.unit))
        rows = list(self.parts.all())
        for row in rows:
            row.write(part_in(row.fields, before, unit))
        replace_rows(self.parts, rows, typed_fields(PartFields))

    def as_file(self) -> ProjectFile:
        parts = [(row.mark, row.read()) for row in self.parts.all()]
        return ProjectFile(
            self.name,
            self.settings(),
            self.yard.name if self.yard else "",
            tuple(part for _, part in parts),
            tuple(mark for mark, _ in parts),
            own_among(part.stock for _, part in parts),
            **self.typed_lines(),
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
            "parts": snapshots(self.parts.all()),
        }

    def restore(self, snapshot: Snapshot) -> None:
        self.name = snapshot["name"]
        usual = SettingFields.usual(Unit(snapshot["unit"]))
        for name in SETTINGS:
            setattr(self, name, snapshot.get(name, getattr(usual, name)))
        yard = snapshot["yard"]
        self.yard = Yard.objects.of(self.owner).filter(id=yard).first() if yard else None
        if "lines" in snapshot:
            wanted = [ProjectLine.from_snapshot(row, project=self) for row in snapshot["lines"]]
            replace_rows(self.lines, wanted)
        else:  # written before lines were rows
            for kind in TYPED_LINES:
                self.write_lines(kind, snapshot.get(kind, ""))
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


class ProjectLine(TextLine):
    """A joint, a thing of hardware, a finish or a rule of thumb, as typed."""

    whose = "project"
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="lines")
    kind = models.CharField(max_length=10, choices=[(kind, kind) for kind in TYPED_LINES])


class Part(Row, typed_columns(PartFields, "PartColumns", __name__)):
    """One line of the part list: as typed, with what was understood."""

    whose = "project"
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="parts")
    position = models.PositiveIntegerField()
    mark = models.CharField(max_length=3)
    pieces = models.PositiveIntegerField(editable=False)
    length_ticks = models.PositiveBigIntegerField(editable=False)

    class Meta:
        ordering = ["position", "id"]
        constraints = [
            models.UniqueConstraint(fields=["project", "mark"], name="one_part_of_a_mark"),
            models.CheckConstraint(condition=models.Q(pieces__gte=1), name="part_is_made_once"),
            models.CheckConstraint(condition=models.Q(length_ticks__gte=1), name="part_has_length"),
        ]

    def __str__(self) -> str:
        return f"{self.mark} {self.name}"

    @property
    def fields(self) -> PartFields:
        return PartFields(**{name: getattr(self, name) for name in PART_COLUMNS})

    def read(self) -> ReadPart:
        """The part as carpentry understands it."""
        return read_part(self.fields, self.project.lexicon)

    def write(self, fields: PartFields) -> None:
        """Takes fields as they are typed."""
        for name, text in asdict(fields).items():
            setattr(self, name, text)

    def take(self, read: ReadPart) -> None:
        """Becomes a part that carpentry has read."""
        self.write(read.fields)
        for name, length in read.lengths().items():
            setattr(self, name, length.text)
        self.pieces = read.quantity
        self.length_ticks = read.length.ticks

    def clean(self) -> None:
        try:
            self.take(self.read())
        except CarpentryError as error:
            raise as_validation_error(error) from error
