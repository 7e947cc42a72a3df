"""The rack: boards on hand, each with a number that is written on it."""

import uuid
from collections.abc import Iterable
from dataclasses import asdict
from itertools import zip_longest
from typing import Any

from django.db import models
from django.utils.functional import cached_property

from carpentry.errors import CarpentryError
from carpentry.rack import BoardFields, MeasuredBoard, read_board
from carpentry.sizes import OwnStocks, StockName
from server.history.errors import as_validation_error
from server.history.models import Revision, Snapshot, Versioned
from server.materials.models import own_stocks


class Rack(Versioned):
    """A builder's rack, with a history of its own. Bare lengths on it are inches."""

    UNIT = "in"
    next_number = models.PositiveIntegerField(default=1)
    cut_plans = models.JSONField(
        default=list, blank=True
    )  # what each plan marked cut took and laid on

    class Meta:
        constraints = [models.UniqueConstraint(fields=["owner"], name="one_rack_a_builder")]

    @classmethod
    def of(cls, user: Any) -> "Rack":
        """The builder's rack, made when it is first asked for."""
        rack, made = cls.objects.get_or_create(owner=user, defaults={"name": "Rack"})
        if made:
            rack.begin_history("empty rack")
        return rack

    @cached_property
    def own(self) -> OwnStocks:
        """The materials of the builder's own."""
        return own_stocks(self.owner)

    def add_boards(
        self, boards: Iterable[BoardFields], ids: Iterable[uuid.UUID] = ()
    ) -> "list[RackBoard]":
        """Lays boards on the rack, under ids where there are some; each gets the next number.
        Numbers are never used twice."""
        added = []
        for fields, given in zip_longest(boards, ids):
            board = RackBoard(
                id=given or uuid.uuid4(), rack=self, number=self.next_number, **asdict(fields)
            )
            board.full_clean()
            board.save(force_insert=True)
            self.next_number += 1
            added.append(board)
        return added

    def usable(self) -> "dict[StockName, list[RackBoard]]":
        """Boards that plans may use, by stock, in the order of their numbers."""
        found: dict[StockName, list[RackBoard]] = {}
        for board in self.boards.all():
            read = board.read()
            if not read.not_used_because():
                found.setdefault(read.stock, []).append(board)
        return found

    def snapshot(self) -> Snapshot:
        return {
            "next_number": self.next_number,
            "cut_plans": self.cut_plans,
            "boards": [board.snapshot() for board in self.boards.all()],
        }

    def restore(self, snapshot: Snapshot) -> None:
        self.next_number = max(self.next_number, snapshot["next_number"])
        self.cut_plans = snapshot.get("cut_plans", [])
        self.boards.all().delete()
        RackBoard.objects.bulk_create(RackBoard(rack=self, **row) for row in snapshot["boards"])


class RackRevision(Revision):
    subject = models.ForeignKey(Rack, on_delete=models.CASCADE, related_name="revisions")

    class Meta(Revision.Meta):
        constraints = [
            models.UniqueConstraint(
                fields=["subject", "number"], name="one_rack_revision_a_version"
            )
        ]


class RackBoard(models.Model):
    """One board on the rack: as noted down, with what was understood."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    rack = models.ForeignKey(Rack, on_delete=models.CASCADE, related_name="boards")
    number = models.PositiveIntegerField()
    stock = models.CharField(max_length=100)
    length = models.CharField(max_length=60, blank=True)
    thickness = models.CharField(max_length=60, blank=True)
    width = models.CharField(max_length=60, blank=True)
    width_middle = models.CharField(max_length=60, blank=True)
    width_end = models.CharField(max_length=60, blank=True)
    crook = models.CharField(max_length=60, blank=True)
    bow = models.CharField(max_length=60, blank=True)
    cup = models.CharField(max_length=60, blank=True)
    twist = models.CharField(max_length=10, blank=True)
    flaws = models.CharField(max_length=200, blank=True)
    place = models.CharField(max_length=200, blank=True)
    note = models.CharField(max_length=200, blank=True)
    stock_key = models.CharField(max_length=100, editable=False)
    length_ticks = models.PositiveBigIntegerField(editable=False)

    class Meta:
        ordering = ["number"]
        constraints = [
            models.UniqueConstraint(fields=["rack", "number"], name="one_rack_board_of_a_number")
        ]

    def __str__(self) -> str:
        return f"board {self.number}"

    @property
    def fields(self) -> BoardFields:
        return BoardFields(**{name: getattr(self, name) for name in asdict(BoardFields())})

    def read(self, own: OwnStocks | None = None) -> MeasuredBoard:
        """The board as carpentry understands it; ``own`` are the materials of the builder's own, as
        they are now where not given."""
        return read_board(self.fields, Rack.UNIT, self.rack.own if own is None else own)

    def clean(self) -> None:
        try:
            read = self.read()
        except CarpentryError as error:
            raise as_validation_error(error) from error
        self.stock_key = str(read.stock)
        self.length_ticks = read.length

    def snapshot(self) -> Snapshot:
        """Every column but the rack."""
        columns = [field.name for field in self._meta.concrete_fields if field.name != "rack"]
        return {name: getattr(self, name) for name in columns} | {"id": str(self.id)}
