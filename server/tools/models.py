"""The tools of a workshop: each with its limits, as typed."""

import uuid
from typing import Any

from django.db import models
from django.utils.functional import cached_property

from carpentry.language import CarpentryError, Unit
from carpentry.shop import KINDS, STARTERS, Tool, Tools, read_tool
from server.common.errors import as_validation_error
from server.common.rows import Row, replace_rows, snapshots
from server.history.models import Revision, Snapshot, Versioned, the_only


class Toolbox(Versioned):
    """A builder's tools, with a history. Bare lengths in it are inches. One that nobody has changed
    has a few common tools to start from, which are stored with the first change."""

    first_label = "a few common tools"

    class Meta:
        constraints = [models.UniqueConstraint(fields=["owner"], name="one_toolbox_a_builder")]

    @classmethod
    def of(cls, user: Any) -> "Toolbox":
        """The builder's tools."""
        return the_only(cls, user, "Tools")

    def begin_history(self, label: str) -> None:
        """Stores the tools to start from before anything is changed."""
        OwnedTool.objects.bulk_create(self._starters())
        super().begin_history(label)

    def _starters(self) -> "list[OwnedTool]":
        return [
            OwnedTool(
                id=uuid.uuid5(
                    uuid.NAMESPACE_OID, f"{kind} of {self.owner_id}"
                ),  # the same each time
                toolbox=self,
                position=position,
                kind=kind,
                limits=dict(limits),
            )
            for position, (kind, limits) in enumerate(STARTERS, start=1)
        ]

    def rows(self) -> "list[OwnedTool]":
        """Its tools, in their order."""
        return self._starters() if self._state.adding else list(self.tools.all())

    @cached_property
    def owned(self) -> Tools:
        """The tools as carpentry understands them."""
        return Tools([row.read() for row in self.rows()])

    def snapshot(self) -> Snapshot:
        return {"tools": snapshots(self.tools.all())}

    def restore(self, snapshot: Snapshot) -> None:
        replace_rows(
            self.tools, [OwnedTool.from_snapshot(row, toolbox=self) for row in snapshot["tools"]]
        )


class ToolboxRevision(Revision):
    subject = models.ForeignKey(Toolbox, on_delete=models.CASCADE, related_name="revisions")

    class Meta(Revision.Meta):
        constraints = [
            models.UniqueConstraint(
                fields=["subject", "number"], name="one_toolbox_revision_a_version"
            )
        ]


class OwnedTool(Row):
    """One tool: its kind, a name where there is more than one of it, its limits as typed."""

    whose = "toolbox"
    toolbox = models.ForeignKey(Toolbox, on_delete=models.CASCADE, related_name="tools")
    position = models.PositiveIntegerField()
    kind = models.CharField(max_length=20, choices=[(kind, kind) for kind in KINDS])
    name = models.CharField(max_length=60, blank=True)
    limits = models.JSONField(default=dict, blank=True)

    class Meta:
        ordering = ["position"]

    def __str__(self) -> str:
        return self.name or self.kind

    def read(self) -> Tool:
        """The tool as carpentry understands it. Raises ``CarpentryError`` by limit."""
        return read_tool(self.kind, self.name, self.limits, Unit.INCH)

    def clean(self) -> None:
        try:
            self.read()
        except CarpentryError as error:
            raise as_validation_error(error) from error
