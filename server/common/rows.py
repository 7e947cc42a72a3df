"""Rows that belong to something with a history: they keep their ids through every change."""

import difflib
import uuid
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import Any, ClassVar, Self

from django.db import IntegrityError, models, transaction


@dataclass
class Changes:
    """The ids of rows that were ``changed`` or added, and of those that are ``gone``; ``made`` when
    a change was made at all."""

    made: bool = False
    changed: set[uuid.UUID] = field(default_factory=set)
    gone: set[uuid.UUID] = field(default_factory=set)


class Row(models.Model):
    """One row of something; ``whose`` is the name of the foreign key to it."""

    whose: ClassVar[str]
    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)

    class Meta:
        abstract = True

    @classmethod
    def columns(cls) -> list[str]:
        """The names of the columns that a snapshot has: all but whose it is."""
        return [one.attname for one in cls._meta.concrete_fields if one.name != cls.whose]

    @classmethod
    def from_snapshot(cls, row: dict[str, Any], **whose: Any) -> Self:
        """A row, not saved, from its snapshot; what that does not know is not taken."""
        known = {
            one.attname: one.to_python(row[one.attname])
            for one in cls._meta.concrete_fields
            if one.attname in row
        }
        return cls(**known, **whose)

    def snapshot(self) -> dict[str, Any]:
        """Every column but whose it is."""
        return _plain(type(self), {name: getattr(self, name) for name in self.columns()})


def replace_rows(
    known: "models.Manager[Any]", wanted: Iterable[Row], columns: Iterable[str] | None = None
) -> Changes:
    """Makes rows what is wanted, by difference: rows of an id that is known are changed in these
    columns (all where not said) where they differ, others are added, and those that are not wanted
    any more go."""
    model = known.model
    names = [name for name in columns or model.columns() if name != "id"]
    here = {row.id: row for row in known.all()}
    rows = {row.id: row for row in wanted}
    changes = Changes(gone=set(here) - set(rows))
    fresh = [row for id_, row in rows.items() if id_ not in here]
    altered = [
        row
        for id_, row in rows.items()
        if id_ in here and any(getattr(row, n) != getattr(here[id_], n) for n in names)
    ]
    changes.changed = {row.id for row in (*fresh, *altered)}
    if changes.gone:
        known.filter(id__in=changes.gone).delete()
    try:
        with transaction.atomic():
            model.objects.bulk_update(altered, names, batch_size=200)
    except IntegrityError:  # what two rows have swapped is told apart by no order of changing them
        known.filter(id__in=[row.id for row in altered]).delete()
        fresh = [*altered, *fresh]
    model.objects.bulk_create(fresh)
    return changes


def snapshots(rows: "models.QuerySet[Any]") -> list[dict[str, Any]]:
    """The snapshots of rows, read without making rows of them."""
    return [_plain(rows.model, row) for row in rows.values(*rows.model.columns())]


def _plain(model: type[Row], row: dict[str, Any]) -> dict[str, Any]:
    """The columns of a row with its ids as text."""
    keyed = (models.UUIDField, models.ForeignKey)
    keys = [one.attname for one in model._meta.concrete_fields if isinstance(one, keyed)]
    return row | {name: str(row[name]) for name in keys if row.get(name)}


class TextLine(Row):
    """One typed line among others of its kind."""

    position = models.PositiveIntegerField()
    text = models.CharField(max_length=2_000, blank=True)

    class Meta(Row.Meta):
        abstract = True
        ordering = ["position"]

    def __str__(self) -> str:
        return self.text


def whole_text(lines: Iterable[TextLine]) -> str:
    """Lines as the text they were typed as."""
    return "\n".join(line.text for line in lines)


def as_lines(text: str, known: Iterable[TextLine]) -> Iterator[tuple[uuid.UUID, str]]:
    """The lines of a text, each with its id: that of the line it was before, where it was one."""
    before = list(known)
    typed = text.splitlines()
    match = difflib.SequenceMatcher(None, [line.text for line in before], typed, autojunk=False)
    for how, low, high, start, end in match.get_opcodes():
        for n, line in enumerate(typed[start:end]):
            kept = how in ("equal", "replace") and low + n < high
            yield (before[low + n].id if kept else uuid.uuid4()), line
