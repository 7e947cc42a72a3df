"""What happened of a project's steps."""

from typing import Any

from django.db import models

from carpentry.time.progress import ProgressEvent, ProgressKind
from server.log.models import Happened
from server.projects.models import Project


class Progress(models.Model):
    """How far the steps of a project are: all that happened of them."""

    project = models.OneToOneField(
        Project, primary_key=True, on_delete=models.CASCADE, related_name="progress"
    )

    def __str__(self) -> str:
        return f"progress of {self.project}"

    def happened(self) -> list[ProgressEvent]:
        """What happened, in order."""
        return [row.read() for row in self.events.all()]


class StepEvent(Happened):
    """One event of a step."""

    whose = "progress"
    progress = models.ForeignKey(Progress, on_delete=models.CASCADE, related_name="events")

    class Meta(Happened.Meta):
        constraints = [
            models.UniqueConstraint(
                fields=["progress", "number"], name="one_step_event_of_a_number"
            )
        ]

    def read(self) -> ProgressEvent:
        """The event as carpentry knows it."""
        typed: dict[str, Any] = self.typed
        return ProgressEvent(id=str(self.id), kind=ProgressKind(self.kind), **typed)
