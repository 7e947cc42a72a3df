"""The rack: boards on hand, each with a number that is written on it."""

import uuid
from collections.abc import Iterable
from dataclasses import asdict
from itertools import zip_longest
from typing import Any

from django.db import models
from django.utils.functional import cached_property

from carpentry.language import CarpentryError, typed_fields
from carpentry.lumber import INCHES, Lexicon, StockName
from carpentry.lumber.rack import BoardFields, MeasuredBoard, read_board
from carpentry.planning import RackBoard as PlannedFrom
from carpentry.planning import usable
from server.common.columns import typed_columns
from server.common.errors import as_validation_error
from server.common.rows import Row, replace_rows, snapshots
from server.history.models import Revision, Snapshot, Versioned, the_only
from server.stocks.models import own_stocks


class Rack(Versioned):
    """A builder's rack, with a history of its own. Bare lengths on it are inches."""

    first_label = "empty rack"
    next_number = models.PositiveIntegerField(default=1)
    cut_plans = models.JSONField(
        default=list, blank=True
    )  # what each plan marked cut took and laid on

    class Meta:
        constraints = [models.UniqueConstraint(fields=["owner"], name="one_rack_a_builder")]

    @classmethod
    def of(cls, user: Any) -> "Rack":
        """The builder's rack."""
        return the_only(cls, user, "Rack")

    @cached_property
    def lexicon(self) -> Lexicon:
        """How its words are read, with the materials of the builder's own."""
        return INCHES.knowing(own_stocks(self.owner))

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

    def usable(self) -> dict[StockName, list[PlannedFrom]]:
        """Boards that plans may use, by stock, in the order of their numbers."""
        rows = self.boards.all()
        return usable(PlannedFrom(str(row.id), row.number, row.read()) for row in rows)

    def snapshot(self) -> Snapshot:
        return {
            "next_number": self.next_number,
            "cut_plans": self.cut_plans,
            "boards": snapshots(self.boards.all()),
        }

    def restore(self, snapshot: Snapshot) -> None:
        self.next_number = max(self.next_number, snapshot["next_number"])
        self.cut_plans = snapshot.get("cut_plans", [])
        replace_rows(
            self.boards, [RackBoard.from_snapshot(row, rack=self) for row in snapshot["boards"]]
        )


class RackRevision(Revision):
    subject = models.ForeignKey(Rack, on_delete=models.CASCADE, related_name="revisions")

    class Meta(Revision.Meta):
        constraints = [
            models.UniqueConstraint(
                fields=["subject", "number"], name="one_rack_revision_a_version"
            )
        ]


class RackBoard(Row, typed_columns(BoardFields, "BoardColumns", __name__)):
    """One board on the rack: as noted down, with what was understood."""

    whose = "rack"
    rack = models.ForeignKey(Rack, on_delete=models.CASCADE, related_name="boards")
    number = models.PositiveIntegerField()
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
        return BoardFields(**{name: getattr(self, name) for name in typed_fields(BoardFields)})

    def read(self) -> MeasuredBoard:
        """The board as carpentry understands it."""
        return read_board(self.fields, self.rack.lexicon)

    def clean(self) -> None:
        try:
            read = self.read()
        except CarpentryError as error:
            raise as_validation_error(error) from error
        self.stock_key = str(read.stock)
        self.length_ticks = read.length
