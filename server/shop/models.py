"""Cutting in the shop: the boards as they were planned, and everything that happened to them."""

import json
import uuid
from decimal import Decimal
from typing import Any

from django.db import models
from django.utils.functional import cached_property

from carpentry.cutting import problem_document, read_problem
from carpentry.language import Json, Notation, Unit
from carpentry.lumber import Section
from carpentry.shop import (
    Bench,
    BenchBoard,
    BenchEvent,
    BenchEventKind,
    Changed,
    Sold,
    Supply,
    bench_of,
    read_board_document,
    read_changed,
)
from server.log.models import Happened
from server.plans.models import Plan
from server.projects.models import Project
from server.tools.models import Toolbox


class Cutting(models.Model):
    """The boards of one plan being cut. ``boards`` are as they were planned, ``parts`` how they are
    called, by their ids, ``supply`` what they were planned from: the project may go on at the desk
    meanwhile. ``basis`` is that of the plan; ``digest`` that of the project's state. ``left`` is
    what went onto the rack when it was finished."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="cuttings")
    begun = models.DateTimeField(auto_now_add=True)
    finished = models.DateTimeField(null=True, blank=True)
    project_version = models.PositiveIntegerField()
    unit = models.CharField(max_length=2, choices=[(unit.value, unit.value) for unit in Unit])
    notation = models.CharField(max_length=8, choices=[(one.value, one.value) for one in Notation])
    digest = models.CharField(max_length=64, editable=False)
    basis = models.JSONField(editable=False)
    boards = models.JSONField(editable=False)
    parts = models.JSONField(editable=False)
    supply = models.JSONField(editable=False)
    not_yet = models.JSONField(default=list, blank=True, editable=False)
    plan = models.ForeignKey(
        Plan, null=True, blank=True, on_delete=models.SET_NULL, related_name="cuttings"
    )

    class Meta:
        ordering = ["-begun"]
        constraints = [
            models.UniqueConstraint(
                fields=["project"],
                condition=models.Q(finished=None),
                name="one_open_cutting_a_project",
            )
        ]

    def __str__(self) -> str:
        return f"cutting {self.project}"

    def planned_boards(self) -> list[BenchBoard]:
        """The boards as they were planned."""
        return [read_board_document(one) for one in self.boards]

    def happened(self) -> list[tuple[BenchEvent, Changed | None]]:
        """What happened, in order, each with what it came to where it changed the boards."""
        return [(row.read(), row.changed) for row in self.events.all()]

    def bench(self) -> Bench:
        """The bench as it is."""
        return bench_of(self.planned_boards(), self.happened())

    @cached_property
    def supplied(self) -> Supply:
        """What the boards were planned from."""
        return read_supply(
            self.supply, Unit(self.unit), Notation(self.notation), Toolbox.of(self.project.owner)
        )


class CuttingEvent(Happened):
    """One event at the bench; ``came_to`` is what it changed of the boards, worked out once."""

    whose = "cutting"
    cutting = models.ForeignKey(Cutting, on_delete=models.CASCADE, related_name="events")
    came_to = models.JSONField(null=True, blank=True, editable=False)

    class Meta(Happened.Meta):
        constraints = [
            models.UniqueConstraint(
                fields=["cutting", "number"], name="one_cutting_event_of_a_number"
            )
        ]

    def read(self) -> BenchEvent:
        """The event as carpentry knows it."""
        return BenchEvent(id=str(self.id), kind=BenchEventKind(self.kind), **self.typed)

    @property
    def changed(self) -> Changed | None:
        return None if self.came_to is None else read_changed(self.came_to)


def supply_document(supply: Supply) -> Json:
    """What boards were planned from, as plain data that ``read_supply`` takes back."""
    return {
        "problems": [problem_document(one) if one else None for one in supply.problems],
        "sold": [
            {
                one.id: {
                    "stock": one.stock,
                    "called": one.called,
                    "length": one.length,
                    "section": (
                        [one.section.thickness, one.section.width] if one.section else None
                    ),
                    "price": None if one.price is None else f"{one.price:f}",
                }
                for one in sold.values()
            }
            for sold in supply.sold
        ],
        "currency": supply.currency,
    }


def read_supply(document: Json, unit: Unit, notation: Notation, toolbox: Toolbox) -> Supply:
    """What boards were planned from, with the tools as they are now."""
    return Supply(
        problems=[read_problem(json.dumps(one)) if one else None for one in document["problems"]],
        sold=[{id_: _sold(id_, one) for id_, one in sold.items()} for sold in document["sold"]],
        unit=unit,
        notation=notation,
        currency=document["currency"],
        tools=toolbox.owned,
    )


def _sold(id_: str, told: dict[str, Any]) -> Sold:
    return Sold(
        id=id_,
        stock=told["stock"],
        called=told["called"],
        length=told["length"],
        section=Section(*told["section"]) if told["section"] else None,
        price=None if told["price"] is None else Decimal(told["price"]),
    )
