"""The rows of a project: its parts, measures, runs, shapes and typed lines."""

from dataclasses import asdict
from typing import Any, ClassVar

from django.db import models

from carpentry.design import FORMULA_FIELDS, PartFields, formulas_in, read_part
from carpentry.design import Part as ReadPart
from carpentry.design.measures import MeasureFields
from carpentry.design.runs import RunFields
from carpentry.design.shapes import Placed
from carpentry.language import CarpentryError, typed_fields
from carpentry.project.file import TYPED_LINES
from carpentry.project.sheet_in_file import FiledShape
from server.common.columns import typed_columns
from server.common.errors import as_validation_error
from server.common.rows import Row, TextLine

_PROJECT = "projects.Project"


def follows(fields: PartFields) -> bool:
    """Whether a part is read with its sheet: it has a formula, or was measured."""
    return bool(formulas_in(fields) or fields.taped.strip())


class TypedRow(Row):
    """A row of typed fields, those of the dataclass ``of``; ``related`` is what a project calls
    such rows."""

    of: ClassVar[type[Any]]
    related: ClassVar[str]

    class Meta:
        abstract = True

    def __str__(self) -> str:
        return str(self.fields.name)

    @property
    def fields(self) -> Any:
        """The fields as they were typed."""
        return self.of(**{name: getattr(self, name) for name in typed_fields(self.of)})

    def write(self, fields: Any) -> None:
        """Takes fields as they are typed."""
        for name, text in asdict(fields).items():
            setattr(self, name, text)


class Shape(Row):
    """A shape of a project, as typed. ``wrote`` names all that it wrote last, whether that is still
    there or was taken away."""

    whose, related = "project", "shapes"
    project = models.ForeignKey(_PROJECT, on_delete=models.CASCADE, related_name="shapes")
    position = models.PositiveIntegerField()
    called = models.CharField(max_length=40)
    shape = models.CharField(max_length=40)
    measures = models.JSONField(default=dict)
    letters = models.JSONField(default=dict)
    figures = models.JSONField(default=dict)
    wrote = models.JSONField(default=list)

    class Meta:
        ordering = ["position", "id"]

    def __str__(self) -> str:
        return self.called

    @property
    def placed(self) -> Placed:
        """The shape as carpentry knows it."""
        return Placed(self.called, self.shape, self.measures, self.letters, self.figures)

    def filed(self) -> FiledShape:
        """It with what it wrote, as a file says it."""
        lines: dict[str, dict[str, str]] = {}
        for line in self.projectlines.all():
            lines.setdefault(line.kind, {})[line.key] = line.text
        return FiledShape(self.placed, lines, tuple(run.key for run in self.runs.all()))

    def take(self, placed: Placed) -> None:
        """Becomes a shape that carpentry knows."""
        self.called, self.shape = placed.called, placed.shape
        self.measures, self.letters = dict(placed.measures), dict(placed.letters)
        self.figures = dict(placed.figures)


class Linked(models.Model):
    """A row that a shape may have written: by which ``key`` it stays linked, and what the shape
    ``written`` of it last, by field. What differs from that was typed by hand, and stays."""

    shape = models.ForeignKey(
        Shape, null=True, blank=True, on_delete=models.SET_NULL, related_name="%(class)ss"
    )
    key = models.CharField(max_length=60, blank=True, default="")
    written = models.JSONField(default=dict, blank=True)

    class Meta:
        abstract = True

    @property
    def by_hand(self) -> list[str]:
        """The fields that are not as the shape wrote them."""
        if self.shape_id is None:
            return []
        return [name for name, text in self.written.items() if getattr(self, name) != text]

    def follow(self, written: dict[str, str]) -> bool:
        """Takes what its shape writes where nothing was typed by hand; whether that changed it."""
        kept = self.by_hand
        for name, text in written.items():
            if name not in kept:
                setattr(self, name, text)
        changed = self.written != written
        self.written = written
        return changed

    def unlink(self) -> None:
        """Stays as it is, and follows its shape no more."""
        self.shape, self.key, self.written = None, "", {}
        self.save()

    def take_written(self) -> None:
        """Becomes what its shape wrote of it, whatever was typed by hand."""
        for name, text in self.written.items():
            setattr(self, name, text)
        self.save()

    def reword(self, fields: Any) -> None:
        """Takes fields that mean what they meant in other words: those that were as the shape wrote
        them still are."""
        kept = self.by_hand
        for name, text in asdict(fields).items():
            setattr(self, name, text)
        words = {name: getattr(self, name) for name in self.written if name not in kept}
        self.written = self.written | words


class ProjectLine(TextLine, Linked):
    """A joint, a thing of hardware, a finish or a rule of thumb, as typed."""

    whose = "project"
    project = models.ForeignKey(_PROJECT, on_delete=models.CASCADE, related_name="lines")
    kind = models.CharField(max_length=10, choices=[(kind, kind) for kind in TYPED_LINES])


class Measure(TypedRow, typed_columns(MeasureFields, "MeasureColumns", __name__)):
    """A named size, as typed."""

    whose, related, of = "project", "measures", MeasureFields
    project = models.ForeignKey(
        "projects.Project", on_delete=models.CASCADE, related_name="measures"
    )
    position = models.PositiveIntegerField()

    class Meta:
        ordering = ["position", "id"]


class Run(Linked, TypedRow, typed_columns(RunFields, "RunColumns", __name__)):
    """Equal things in a row, as typed."""

    whose, related, of = "project", "runs", RunFields
    project = models.ForeignKey(_PROJECT, on_delete=models.CASCADE, related_name="runs")
    position = models.PositiveIntegerField()

    class Meta:
        ordering = ["position", "id"]


class Part(Linked, TypedRow, typed_columns(PartFields, "PartColumns", __name__)):
    """One line of the part list, as typed."""

    whose, related, of = "project", "parts", PartFields
    project = models.ForeignKey(_PROJECT, on_delete=models.CASCADE, related_name="parts")
    position = models.PositiveIntegerField()
    mark = models.CharField(max_length=3)

    class Meta:
        ordering = ["position", "id"]
        constraints = [
            models.UniqueConstraint(fields=["project", "mark"], name="one_part_of_a_mark"),
        ]

    def __str__(self) -> str:
        return f"{self.mark} {self.name}"

    @classmethod
    def following(cls) -> models.Q:
        """Rows that are read with their sheet: a formula in one of their fields, or a size that was
        measured."""
        found = ~models.Q(taped="")
        for name in FORMULA_FIELDS:
            found |= models.Q(**{f"{name}__startswith": "="})
        return found

    def read(self) -> ReadPart:
        """The part as carpentry understands it."""
        if not follows(self.fields):
            return read_part(self.fields, self.project.lexicon)
        return self.project.sheet().part(self.mark)

    def take(self, read: ReadPart) -> None:
        """Becomes a part that carpentry has read."""
        self.write(read.fields)
        said = {name for name, _, _ in read.followed}
        for name, length in read.lengths().items():
            if name not in said:
                setattr(self, name, length.text)

    def clean(self) -> None:
        try:
            self.take(self.project.checked(self))
        except CarpentryError as error:
            raise as_validation_error(error) from error
