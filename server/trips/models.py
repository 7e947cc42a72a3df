"""Trips to a yard: what was to be taken, and everything that happened there."""

import uuid
from decimal import Decimal

from django.db import models
from django.utils.functional import cached_property

from carpentry.buying import Tax
from carpentry.language import Unit
from carpentry.lumber import Lexicon, lexicon_in
from carpentry.planning import Basis, read_basis
from carpentry.trip import (
    Cart,
    Event,
    EventKind,
    Line,
    Purchase,
    Wanted,
    cart_of,
    lines_of,
    together,
)
from server.log.models import Happened
from server.plans.models import Plan
from server.projects.models import Project
from server.yards.models import Yard


class Trip(models.Model):
    """One trip for one project. Prices and boards are those of its ``basis``, as they were when it
    began, and so is the ``unit`` of bare lengths; ``planned`` is the purchase of then. ``plan`` is
    the one in force, ``wanted`` what it takes of every line, material by material, ``left_out``
    whom it leaves out.
    ``packs`` are the packs of hardware, ``short`` says of which there are too few; ``unplanned`` is
    a trip that something happened to since. ``said`` is what the newest plan changed. ``paid``
    holds what was corrected on the receipt, ``laid`` the boards that went onto the rack,
    ``put_away`` the lines of hardware that went into the drawer, by their ids."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="trips")
    yard = models.ForeignKey(
        Yard, null=True, blank=True, on_delete=models.SET_NULL, related_name="trips"
    )
    yard_name = models.CharField(max_length=100)
    begun = models.DateTimeField(auto_now_add=True)
    finished = models.DateTimeField(null=True, blank=True)
    project_version = models.PositiveIntegerField()
    unit = models.CharField(max_length=2, choices=[(unit.value, unit.value) for unit in Unit])
    basis = models.JSONField(editable=False)
    planned = models.JSONField(default=dict, blank=True, editable=False)
    plan = models.ForeignKey(
        Plan, null=True, blank=True, on_delete=models.SET_NULL, related_name="trips"
    )
    wanted = models.JSONField(default=list, blank=True, editable=False)
    left_out = models.JSONField(default=list, blank=True, editable=False)
    packs = models.JSONField(default=list, blank=True, editable=False)
    short = models.JSONField(default=list, blank=True, editable=False)
    unplanned = models.BooleanField(default=False, editable=False)
    said = models.CharField(max_length=500, blank=True)
    said_by = models.CharField(max_length=36, blank=True)
    paid = models.JSONField(default=dict, blank=True, editable=False)
    laid = models.JSONField(default=list, blank=True, editable=False)
    put_away = models.JSONField(default=list, blank=True, editable=False)

    class Meta:
        ordering = ["-begun"]
        constraints = [
            models.UniqueConstraint(
                fields=["project"],
                condition=models.Q(finished=None),
                name="one_open_trip_a_project",
            )
        ]

    def __str__(self) -> str:
        return f"trip to {self.yard_name} for {self.project}"

    @property
    def currency(self) -> str:
        return str(self.basis["currency"])

    @property
    def tax(self) -> Tax:
        rate, included = self.basis["tax"]
        return Tax(Decimal(rate), included)

    @cached_property
    def rests_on(self) -> Basis:
        """Prices and boards as they were."""
        return read_basis(self.basis)

    @property
    def lexicon(self) -> Lexicon:
        """How words are read on it, with the materials of the builder's own as they were."""
        return lexicon_in(self.unit, self.rests_on.own)

    def lines(self) -> dict[str, Line]:
        """Everything on the yard's list as it was, and the packs, by key."""
        basis = self.rests_on
        return lines_of(basis.lines, whole_inches=basis.whole_inches) | {
            line.key: line for line, _ in self.pack_lines()
        }

    def pack_lines(self) -> list[tuple[Line, int]]:
        """The packs of hardware, and how many of each."""
        return [
            (
                Line(
                    row["key"],
                    row["name"],
                    None if row["price"] is None else Decimal(row["price"]),
                    length=row["length"],
                    content=row["content"],
                    holds=row["holds"],
                ),
                row["count"],
            )
            for row in self.packs
        ]

    def take_packs(self, packs: list[tuple[Line, int]]) -> None:
        """Keeps packs of hardware as they are now; those that are not wanted any more stay known,
        because they may be in the cart."""
        now = {line.key: (line, count) for line, count in packs}
        known = {line.key: (line, 0) for line, _ in self.pack_lines()}
        self.packs = [
            {
                "key": line.key,
                "name": line.name,
                "price": None if line.price is None else f"{line.price:f}",
                "length": line.length,
                "content": line.content,
                "holds": line.holds,
                "count": count,
            }
            for line, count in (known | now).values()
        ]

    @property
    def purchase(self) -> Purchase:
        """What is wanted of every line, packs and all."""
        boards = [
            {key: Wanted(needed, spare, tuple(idle)) for key, (needed, spare, idle) in one.items()}
            for one in self.wanted
        ]
        packs = {line.key: Wanted(count) for line, count in self.pack_lines() if count}
        return together([*boards, packs])

    @property
    def missing(self) -> list[str]:
        """What is not to be had, in words."""
        return [*(told for one in self.left_out for told in one), *self.short]

    @property
    def claim(self) -> str:
        """What is proven of the plan in force."""
        if self.plan and self.plan.proven:
            return "No cheaper purchase exists"
        return "Not all of it is proven least"

    def read_events(self) -> list[Event]:
        """What happened, in order."""
        return [event.read() for event in self.events.all()]

    def cart(self, *more: Event) -> Cart:
        """What all events come to, and ``more`` after them. Raises ``CarpentryError`` for one that
        cannot be."""
        return cart_of([*self.read_events(), *more], self.lines(), self.lexicon)


class TripEvent(Happened):
    """One event of a trip."""

    whose = "trip"
    trip = models.ForeignKey(Trip, on_delete=models.CASCADE, related_name="events")

    class Meta(Happened.Meta):
        constraints = [
            models.UniqueConstraint(fields=["trip", "number"], name="one_event_of_a_number")
        ]

    def read(self) -> Event:
        """The event as carpentry knows it."""
        return Event(id=str(self.id), kind=EventKind(self.kind), **self.typed)
