"""Plans: what was asked for, how far it is, and the boards and pieces it came to."""

import uuid
from decimal import Decimal

from django.db import models

from carpentry.planning import MADE_BY
from carpentry.project import Totals
from server.projects.models import Project

AS_CUT = 0  # of ``made_by``: boards as they were really cut, which is no plan to be chosen
_SINCE_AS_CUT = 2  # the first version of planning whose boards were noted so


class Plan(models.Model):
    """A plan for one state of a project. Once done it never changes: a new one is a new row.
    ``made_by`` is the version of planning that made it, ``outcome`` has a cut plan for every cut
    problem, ``problems`` the digests of these; ``proven`` says whether it is claimed least.
    ``basis`` is what it rests on, where that is kept: of one that was cut, or made at a yard."""

    class Status(models.TextChoices):
        QUEUED = "queued"
        RUNNING = "running"
        DONE = "done"
        STOPPED = "stopped"
        FAILED = "failed"

    class Stage(models.TextChoices):
        DRAFT = "draft"
        CHOSEN = "chosen"
        BOUGHT = "bought"
        CUT = "cut"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="plans")
    digest = models.CharField(max_length=64, editable=False)
    made_by = models.PositiveSmallIntegerField(default=MADE_BY, editable=False)
    status = models.CharField(max_length=8, choices=Status, default=Status.QUEUED)
    stage = models.CharField(max_length=6, choices=Stage, default=Stage.DRAFT)
    asked = models.DateTimeField(auto_now_add=True)
    seconds = models.FloatField(null=True)
    basis = models.JSONField(default=dict, blank=True, editable=False)
    problems = models.JSONField(default=list, blank=True, editable=False)
    outcome = models.JSONField(default=list, blank=True)
    boards_count = models.PositiveIntegerField(default=0)
    subtotal = models.DecimalField(max_digits=12, decimal_places=2, default=Decimal(0))
    unplaced_count = models.PositiveIntegerField(default=0)
    proven = models.BooleanField(default=False, editable=False)

    class Meta:
        ordering = ["-asked"]
        indexes = [models.Index(fields=["project", "digest"])]

    @property
    def made_by_any_of(self) -> tuple[int, ...]:
        """The versions of planning that may have made it: of boards as they were cut it is not
        noted."""
        if self.made_by != AS_CUT:
            return (self.made_by,)
        return tuple(range(MADE_BY, _SINCE_AS_CUT - 1, -1))

    @property
    def totals(self) -> Totals:
        """What it is compared by."""
        return Totals(self.boards_count, self.subtotal, self.unplaced_count)

    def __str__(self) -> str:
        return f"{self.status} plan of {self.project}"


class PlanOfVersion(models.Model):
    """Which plan is that of a version of a project, and what it takes ``beside`` boards."""

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="planned_versions")
    number = models.PositiveIntegerField()
    plan = models.ForeignKey(Plan, on_delete=models.CASCADE, related_name="versions")
    # What that version takes beside boards; what was written before it was noted has none.
    beside = models.JSONField(default=dict, blank=True, editable=False)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["project", "number"], name="one_plan_of_a_version")
        ]

    def __str__(self) -> str:
        return f"{self.plan}, version {self.number}"


class Board(models.Model):
    """One piece of stock to be bought and cut. ``number`` is written on it; boards of the same
    ``layout`` are cut alike. Lengths and sections in ticks; ``offcuts`` are what of it is worth
    keeping, each with its ``length``, ``thickness`` and ``width``."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    plan = models.ForeignKey(Plan, on_delete=models.CASCADE, related_name="boards")
    number = models.PositiveIntegerField()
    layout = models.PositiveIntegerField()
    stock = models.CharField(max_length=100)
    thickness = models.PositiveBigIntegerField(null=True)
    width = models.PositiveBigIntegerField(null=True)
    length = models.PositiveBigIntegerField()
    real_length = models.PositiveBigIntegerField()
    price = models.DecimalField(max_digits=12, decimal_places=2, null=True)
    rack_board = models.UUIDField(null=True)
    rack_number = models.PositiveIntegerField(null=True)
    offcuts = models.JSONField(default=list, blank=True)

    class Meta:
        ordering = ["number"]
        constraints = [
            models.UniqueConstraint(fields=["plan", "number"], name="one_board_of_a_number")
        ]

    def __str__(self) -> str:
        return f"board {self.number}"


class Piece(models.Model):
    """One part on its board, from ``start`` to ``end`` in ticks. ``label`` is written on it."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    board = models.ForeignKey(Board, on_delete=models.CASCADE, related_name="pieces")
    part = models.UUIDField()
    label = models.CharField(max_length=12)
    start = models.PositiveBigIntegerField()
    end = models.PositiveBigIntegerField()

    class Meta:
        ordering = ["start"]
        constraints = [
            models.CheckConstraint(
                condition=models.Q(end__gt=models.F("start")), name="piece_has_length"
            )
        ]

    def __str__(self) -> str:
        return self.label
