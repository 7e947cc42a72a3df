"""Facts that happened, as events: stored once, taken in once, never rewritten."""

from typing import Any, ClassVar

from django.db import models


class Happened(models.Model):
    """One event under an id of the client's making, ``typed`` as it was told. Subclasses add what
    it belongs to, a foreign key named ``whose`` with ``events`` on the other side."""

    whose: ClassVar[str]
    id = models.UUIDField(primary_key=True)
    number = models.PositiveIntegerField()
    kind = models.CharField(max_length=10)
    typed = models.JSONField(default=dict, blank=True)
    made = models.DateTimeField(auto_now_add=True)

    class Meta:
        abstract = True
        ordering = ["number"]

    def __str__(self) -> str:
        return f"{self.kind} {self.typed.get('line', '')}"

    def save(self, *args: Any, **options: Any) -> None:
        """Stores it, once: what happened is never rewritten."""
        if not self._state.adding:
            raise TypeError("what happened is never rewritten")
        super().save(*args, **options | {"force_insert": True})

    @classmethod
    def take(
        cls, subject: Any, id: Any, kind: str, typed: dict[str, Any], **more: Any
    ) -> "Happened | None":
        """Stores an event behind those of a subject; ``None`` for one that is known."""
        if cls._default_manager.filter(id=id).exists():
            return None
        number = subject.events.count() + 1
        row = cls(id=id, number=number, kind=kind, typed=typed, **{cls.whose: subject}, **more)
        row.full_clean()
        row.save()
        return row
