"""Projects and their parts."""

import uuid
from collections.abc import Iterable
from dataclasses import asdict, fields

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.utils.functional import cached_property

from carpentry.cutting import Order
from carpentry.errors import CarpentryError
from carpentry.length import Notation, Unit, interchange, unambiguous
from carpentry.parts import PART_LENGTHS, PartFields, mark_number, mark_of, read_part
from carpentry.parts import Part as ReadPart
from carpentry.project import (
    NamedPart,
    ProjectFile,
    RackUse,
    SettingFields,
    Settings,
    own_among,
    read_settings,
)
from carpentry.project.file import TYPED_LINES
from carpentry.project.keeping import written_out
from carpentry.project.respelling import respelled
from carpentry.project.settings import MAX_COPIES, SETTING_LENGTHS
from carpentry.sizes import NO_OWN, OwnStocks
from server.history.errors import as_validation_error
from server.history.models import Revision, Snapshot, Versioned
from server.materials.models import own_stocks
from server.yards.models import Yard

SETTINGS = tuple(field.name for field in fields(SettingFields))


class Project(Versioned):
    """A thing to build: its settings (a column for each of ``SettingFields``), its parts and the
    yard it is bought at."""

    class Unit(models.TextChoices):
        INCH = "in", "inches"
        MM = "mm", "millimetres"

    unit = models.CharField(max_length=2, choices=Unit, default=Unit.INCH)
    notation = models.CharField(
        max_length=8, choices=[(n.value, n.value) for n in Notation], default="1/32"
    )
    kerf = models.CharField(max_length=60, default="1/8")
    trim_start = models.CharField(max_length=60, default="1/2")
    trim_end = models.CharField(max_length=60, default="0")
    copies = models.PositiveIntegerField(
        default=1, validators=[MinValueValidator(1), MaxValueValidator(MAX_COPIES)]
    )
    yard = models.ForeignKey(
        Yard, null=True, blank=True, on_delete=models.SET_NULL, related_name="projects"
    )

    rip = models.BooleanField(default=False)
    resaw = models.BooleanField(default=True)
    own_stock = models.BooleanField(default=False)
    order = models.CharField(
        max_length=20, choices=[(o.value, o.value) for o in Order], default=Order.EITHER.value
    )
    share_angled_cuts = models.BooleanField(default=True)
    extra_length = models.CharField(max_length=60, default="0")
    extra_width = models.CharField(max_length=60, default="0")
    extra_thickness = models.CharField(max_length=60, default="0")
    eased = models.CharField(max_length=60, default="0")
    keep_from = models.CharField(max_length=60, default="12")
    keep_from_of = models.CharField(max_length=500, blank=True)
    keep_width = models.CharField(max_length=60, default="1 1/2")
    saw_crosscut = models.CharField(max_length=60, blank=True, default="12")
    saw_rip_depth = models.CharField(max_length=60, blank=True, default="3")
    saw_rip_width = models.CharField(max_length=60, blank=True)
    saw_resaw_depth = models.CharField(max_length=60, blank=True, default="3")
    saw_tilt = models.CharField(max_length=20, blank=True, default="45")
    saw_miter = models.CharField(max_length=20, blank=True)
    spare = models.CharField(max_length=10, default="0")
    rack = models.CharField(
        max_length=10,
        choices=[(use.value, use.value) for use in RackUse],
        default=RackUse.NEVER.value,
    )

    joints = models.TextField(blank=True, max_length=20_000)
    hardware = models.TextField(blank=True, max_length=20_000)
    finishes = models.TextField(blank=True, max_length=20_000)
    rules = models.TextField(blank=True, max_length=5_000)

    budget = models.CharField(max_length=20, blank=True)
    sells_for = models.CharField(max_length=20, blank=True)

    class Meta:
        ordering = ["-updated"]

    def clean(self) -> None:
        super().clean()
        self.settings()

    def settings(self) -> Settings:
        """The settings as carpentry understands them."""
        try:
            typed = SettingFields(**{name: getattr(self, name) for name in SETTINGS})
            return read_settings(typed, self.own if typed.keep_from_of else NO_OWN)
        except CarpentryError as error:
            raise as_validation_error(error) from error

    def take_settings(self, typed: SettingFields) -> None:
        """Becomes a project with these settings."""
        for name in SETTINGS:
            setattr(self, name, getattr(typed, name))

    @cached_property
    def own(self) -> OwnStocks:
        """The materials of the builder's own."""
        return own_stocks(self.owner)

    def named_parts(self, own: OwnStocks | None = None) -> list[NamedPart]:
        """The parts as carpentry understands them, in their order; ``own`` are the materials of the
        builder's own, as they are now where not given."""
        own = self.own if own is None else own
        return [NamedPart(str(p.id), read_part(p.fields, self.unit, own)) for p in self.parts.all()]

    def add_parts(self, read: Iterable[ReadPart], marks: Iterable[str] = ()) -> "list[Part]":
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
        return rows

    def change_unit(self, unit: Unit) -> None:
        """Another unit for bare numbers; nothing changes its size. Texts that would be read as
        another length are written out with the unit they were typed in."""
        before = Unit(self.unit)
        settings = self.settings()
        usual_before, usual = SettingFields.usual(before), SettingFields.usual(unit)
        for name in SETTING_LENGTHS:
            is_usual = getattr(self, name) == getattr(usual_before, name)
            ticks = settings.length(name)
            kept = interchange(ticks, unit) if ticks else "0"
            if ticks is None:
                kept = ""
            setattr(self, name, getattr(usual, name) if is_usual else kept)
        self.keep_from_of = written_out(settings.kept)
        for name in TYPED_LINES:
            setattr(self, name, respelled(name, getattr(self, name), before))
        rows = list(self.parts.all())
        for row in rows:
            part = row.read(before)
            for name, length in part.lengths().items():
                setattr(row, name, unambiguous(getattr(row, name), length.ticks, before))
            if row.read(unit).length.ticks != row.length_ticks:
                raise CarpentryError(f"{row.name or row.stock} would change its size", "unit")
        self.unit = unit.value
        self.notation = usual.notation
        Part.objects.bulk_update(rows, PART_LENGTHS)

    def as_file(self) -> ProjectFile:
        parts = list(self.parts.all())
        return ProjectFile(
            self.name,
            self.settings(),
            self.yard.name if self.yard else "",
            tuple(part.read(self.unit) for part in parts),
            tuple(part.mark for part in parts),
            own_among(part.read(self.unit).stock for part in parts),
            *(getattr(self, name) for name in TYPED_LINES),
        )

    def snapshot(self) -> Snapshot:
        return {name: getattr(self, name) for name in SETTINGS} | {
            "name": self.name,
            "yard": str(self.yard_id) if self.yard_id else None,
            **{name: getattr(self, name) for name in TYPED_LINES},
            "parts": [part.snapshot() for part in self.parts.all()],
        }

    def restore(self, snapshot: Snapshot) -> None:
        self.name = snapshot["name"]
        usual = SettingFields.usual(Unit(snapshot["unit"]))
        for name in SETTINGS:
            setattr(self, name, snapshot.get(name, getattr(usual, name)))
        for name in TYPED_LINES:
            setattr(self, name, snapshot.get(name, ""))
        yard = snapshot["yard"]
        self.yard = Yard.objects.filter(owner=self.owner, id=yard).first() if yard else None
        self.parts.all().delete()
        Part.objects.bulk_create(Part(project=self, **row) for row in snapshot["parts"])


class ProjectRevision(Revision):
    subject = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="revisions")
    plan = models.ForeignKey(
        "plans.Plan", null=True, on_delete=models.SET_NULL, related_name="revisions"
    )

    class Meta(Revision.Meta):
        constraints = [
            models.UniqueConstraint(
                fields=["subject", "number"], name="one_project_revision_a_version"
            )
        ]


class Part(models.Model):
    """One line of the part list: as typed, with what was understood."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="parts")
    position = models.PositiveIntegerField()
    mark = models.CharField(max_length=3)
    quantity = models.CharField(max_length=20)
    name = models.CharField(max_length=200, blank=True)
    stock = models.CharField(max_length=100)
    length = models.CharField(max_length=60, blank=True)
    thickness = models.CharField(max_length=60, blank=True)
    width = models.CharField(max_length=60, blank=True)
    ends = models.CharField(max_length=40, blank=True)
    edges = models.CharField(max_length=40, blank=True)
    measured = models.CharField(max_length=20, blank=True)
    grain = models.CharField(max_length=20, blank=True)
    clear = models.CharField(max_length=20, blank=True)
    show = models.CharField(max_length=20, blank=True)
    rip = models.CharField(max_length=20, blank=True)
    resaw = models.CharField(max_length=20, blank=True)
    own_stock = models.CharField(max_length=20, blank=True)
    extra_length = models.CharField(max_length=60, blank=True)
    extra_width = models.CharField(max_length=60, blank=True)
    extra_thickness = models.CharField(max_length=60, blank=True)
    boards = models.CharField(max_length=60, blank=True)
    group = models.CharField(max_length=200, blank=True)
    note = models.CharField(max_length=200, blank=True)
    pieces = models.PositiveIntegerField(editable=False, validators=[MinValueValidator(1)])
    length_ticks = models.PositiveBigIntegerField(editable=False, validators=[MinValueValidator(1)])

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
        return PartFields(**{name: getattr(self, name) for name in asdict(PartFields())})

    def read(self, unit: str) -> ReadPart:
        """The part as carpentry understands it in the project's unit."""
        return read_part(self.fields, unit, self.project.own)

    def take(self, read: ReadPart) -> None:
        """Becomes a part that carpentry has read."""
        for name, text in asdict(read.fields).items():
            setattr(self, name, text)
        for name, length in read.lengths().items():
            setattr(self, name, length.text)
        self.pieces = read.quantity
        self.length_ticks = read.length.ticks

    def clean(self) -> None:
        try:
            self.take(self.read(self.project.unit))
        except CarpentryError as error:
            raise as_validation_error(error) from error

    def snapshot(self) -> Snapshot:
        """Every column but the project."""
        columns = [field.name for field in self._meta.concrete_fields if field.name != "project"]
        return {name: getattr(self, name) for name in columns} | {"id": str(self.id)}
