"""One way of keeping a history, shared by all that has a version.

Every change names the version it saw and makes the next one, with a snapshot of what it made. Undo
and redo are changes too: they make a new version from an earlier snapshot.
"""

import uuid
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, ClassVar, Self, TypeVar

from django.conf import settings
from django.core.exceptions import ValidationError
from django.db import models, transaction

from server.common.owned import OwnedQuerySet

Snapshot = dict[str, Any]
KEPT_REVISIONS = 300
LONGEST_LABEL = 200


def shortened(label: str) -> str:
    """A label that a revision can hold."""
    return label if len(label) <= LONGEST_LABEL else f"{label[: LONGEST_LABEL - 1]}…"


class Conflict(Exception):
    """A change was made from a version that is no longer the newest."""

    def __init__(self, subject: "Versioned", seen_version: int) -> None:
        self.subject = subject
        self.seen_version = seen_version
        super().__init__(f"{subject} is at version {subject.version}, not {seen_version}")


@dataclass(frozen=True)
class Labels:
    """What the newest ``change`` was, or what an undo took back; what ``undo`` would take back and
    ``redo`` bring again, ``None`` for nothing."""

    change: str
    undo: str | None
    redo: str | None


class Versioned(models.Model):
    """Something owned, with a version and a history. Subclasses say how to snapshot and restore."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    name = models.CharField(max_length=100)
    version = models.PositiveIntegerField(default=1)
    created = models.DateTimeField(auto_now_add=True)
    updated = models.DateTimeField(auto_now=True)

    objects = OwnedQuerySet.as_manager()
    first_label: ClassVar[str] = "begun"

    class Meta:
        abstract = True

    def __str__(self) -> str:
        return self.name

    def clean(self) -> None:
        if not self.name.strip():
            raise ValidationError({"name": "give it a name"})

    def snapshot(self) -> Snapshot:
        raise NotImplementedError

    def restore(self, snapshot: Snapshot) -> None:
        raise NotImplementedError

    def remember(self) -> Any:
        """What a subclass wants to know after a change of the state before it."""
        return None

    def changed_from(self, before: Any) -> None:
        """Called after every change, undo and redo with what ``remember`` returned."""

    @property
    def history(self) -> "models.Manager[Revision]":
        return self.revisions

    def revision(self, number: int | None) -> "Revision | None":
        """A version of it, with its snapshot."""
        return None if number is None else self.history.filter(number=number).first()

    def entry(self, number: int | None) -> "Revision | None":
        """A version of it as the history names it, without its snapshot."""
        return (
            None if number is None else self.history.defer("snapshot").filter(number=number).first()
        )

    @property
    def labels(self) -> "Labels":
        """What the newest change was, and what an undo or a redo would do."""
        newest = self.entry(self.version)
        if newest is None:
            return Labels("", None, None)
        wanted = {newest.undo_to, newest.redo_to, self.version - 1}
        found = self.history.defer("snapshot").filter(number__in=wanted - {None})
        others = {one.number: one.label for one in found}
        change = newest.label
        if newest.redo_to == self.version - 1 and newest.redo_to in others:
            change = f"undone: {others[newest.redo_to]}"
        undo = newest.label if newest.undo_to in others else None
        return Labels(change, undo, others.get(newest.redo_to))

    def begin_history(self, label: str) -> None:
        """Writes the first revision of something new."""
        self.history.create(number=self.version, snapshot=self.snapshot(), label=label)

    @transaction.atomic
    def change(
        self,
        seen_version: int,
        change_id: uuid.UUID,
        label: str,
        make: Callable[[Self], str | None],
    ) -> None:
        """Makes a change and the next version of it.

        ``make`` changes the rows and may return a better label. A change whose id is in the history
        already is not made again. Raises ``Conflict`` when ``seen_version`` is not the newest.
        """
        self._lock()
        if self.history.filter(change_id=change_id).exists():
            return
        self._expect(seen_version)
        before = self.remember()
        label = shortened(make(self) or label)
        self._next(label, change_id, undo_to=seen_version, redo_to=None)
        self.changed_from(before)

    @transaction.atomic
    def undo(self, seen_version: int, change_id: uuid.UUID) -> None:
        """Goes back to the state before the newest change; nothing happens at the beginning."""
        self._step(seen_version, change_id, back=True)

    @transaction.atomic
    def redo(self, seen_version: int, change_id: uuid.UUID) -> None:
        """Takes the last undo back; nothing happens when there is none."""
        self._step(seen_version, change_id, back=False)

    def _step(self, seen_version: int, change_id: uuid.UUID, *, back: bool) -> None:
        self._lock()
        if self.history.filter(change_id=change_id).exists():
            return
        self._expect(seen_version)
        newest = self.entry(self.version)
        target = newest and self.revision(newest.undo_to if back else newest.redo_to)
        if newest is None or target is None:
            return
        before = self.remember()
        self.restore(target.snapshot)
        self._next(
            target.label,
            change_id,
            undo_to=target.undo_to,
            redo_to=self.version if back else target.redo_to,
        )
        self.changed_from(before)

    def _lock(self) -> None:
        """Makes it what it is now; what was never stored is stored as it is."""
        if not self._state.adding:
            self.refresh_from_db()
            return
        known = type(self).objects.of(self.owner).first()
        if known:
            self.id, self._state.adding = known.id, False
            self.refresh_from_db()
        else:
            self.save(force_insert=True)
            self.begin_history(self.first_label)

    def _expect(self, seen_version: int) -> None:
        if self.version != seen_version:
            raise Conflict(self, seen_version)

    def _next(
        self, label: str, change_id: uuid.UUID, *, undo_to: int | None, redo_to: int | None
    ) -> None:
        self.version += 1
        self.full_clean()
        self.save()
        self.history.create(
            number=self.version,
            snapshot=self.snapshot(),
            label=label,
            change_id=change_id,
            undo_to=undo_to,
            redo_to=redo_to,
        )
        self.history.filter(number__lte=self.version - KEPT_REVISIONS).delete()


class Revision(models.Model):
    """One version: what it was called, its snapshot, and where undo and redo lead from it.

    Subclasses add ``subject``, a foreign key named ``revisions`` on the other side.
    """

    number = models.PositiveIntegerField()
    label = models.CharField(max_length=LONGEST_LABEL)
    snapshot = models.JSONField()
    change_id = models.UUIDField(null=True)
    undo_to = models.PositiveIntegerField(null=True)
    redo_to = models.PositiveIntegerField(null=True)
    made = models.DateTimeField(auto_now_add=True)

    class Meta:
        abstract = True
        ordering = ["number"]
        indexes = [models.Index(fields=["subject", "change_id"], name="%(class)s_change")]


V = TypeVar("V", bound=Versioned)


def the_only(model: type[V], user: Any, name: str) -> V:
    """The one thing of its kind that a builder has. Where it was never changed it is not stored
    yet, and there is nothing in it."""
    known: V | None = model.objects.of(user).first()
    return known or model(owner=user, name=name)
