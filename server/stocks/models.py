"""Materials of a builder's own, beside the size book's."""

import uuid
from collections.abc import Iterable
from dataclasses import asdict
from typing import Any

from django.db import models

from carpentry.language import CarpentryError, Unit
from carpentry.lumber import Exposure, Form, Kind, OwnFields, OwnStock, read_own
from server.common.errors import as_validation_error
from server.common.rows import Row
from server.history.models import Revision, Snapshot, Versioned, the_only


class OwnMaterials(Versioned):
    """A builder's own materials, with a history. Bare lengths in it are inches.

    One that is put away is not offered any more, but parts, price lines and boards that name it
    are understood as before.
    """

    first_label = "no materials of your own"

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["owner"], name="one_list_of_materials_a_builder")
        ]

    @classmethod
    def of(cls, user: Any) -> "OwnMaterials":
        """The builder's materials."""
        return the_only(cls, user, "Materials")

    def take(self, stocks: Iterable[OwnStock]) -> None:
        """Adds materials that came with a file; those of a known name stay as they are."""
        known = set(self.rows.values_list("key", flat=True))
        fresh = [stock for stock in stocks if stock.name not in known]

        def make(mine: "OwnMaterials") -> str:
            for stock in fresh:
                row = OwnMaterial(materials=mine, **asdict(stock.fields))
                row.full_clean()
                row.save()
            return f"{', '.join(stock.name for stock in fresh)} came with a file"[:200]

        if fresh:
            self.change(self.version, uuid.uuid4(), "materials imported", make)

    def snapshot(self) -> Snapshot:
        return {"rows": [row.snapshot() for row in self.rows.filter(put_away=False)]}

    def restore(self, snapshot: Snapshot) -> None:
        self.rows.update(put_away=True)
        for row in snapshot["rows"]:
            OwnMaterial.objects.update_or_create(
                id=row["id"], defaults={"materials": self, **row, "put_away": False}
            )


class OwnMaterialsRevision(Revision):
    subject = models.ForeignKey(OwnMaterials, on_delete=models.CASCADE, related_name="revisions")

    class Meta(Revision.Meta):
        constraints = [
            models.UniqueConstraint(
                fields=["subject", "number"], name="one_materials_revision_a_version"
            )
        ]


def _choices(of: Any) -> list[tuple[str, str]]:
    return [(one.value, one.value) for one in of]


class OwnMaterial(Row):
    """One material as typed; its name never changes, because parts and prices go by it."""

    whose = "materials"
    materials = models.ForeignKey(OwnMaterials, on_delete=models.CASCADE, related_name="rows")
    name = models.CharField(max_length=60)
    form = models.CharField(max_length=10, choices=_choices(Form), default=Form.BOARD.value)
    thickness = models.CharField(max_length=60)
    width = models.CharField(max_length=60, blank=True)
    density = models.CharField(max_length=20, blank=True)
    kind = models.CharField(max_length=10, choices=_choices(Kind), default=Kind.PLAIN.value)
    exposure = models.CharField(
        max_length=40, choices=_choices(Exposure), default=Exposure.DRY.value
    )
    caution = models.CharField(max_length=200, blank=True)
    put_away = models.BooleanField(default=False)
    key = models.CharField(max_length=60, editable=False)

    class Meta:
        ordering = ["key"]
        constraints = [
            models.UniqueConstraint(fields=["materials", "key"], name="one_material_of_a_name")
        ]

    def __str__(self) -> str:
        return self.name

    def read(self) -> OwnStock:
        typed = {name: getattr(self, name) for name in asdict(OwnFields())}
        return read_own(OwnFields(**typed), Unit.INCH)

    def clean(self) -> None:
        try:
            self.key = self.read().name
        except CarpentryError as error:
            raise as_validation_error(error) from error


def own_stocks(user: Any) -> dict[str, OwnStock]:
    """What a builder's own materials are, by name, those put away too."""
    rows = OwnMaterial.objects.filter(materials__owner=user)
    return {row.key: row.read() for row in rows}
