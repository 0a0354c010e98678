"""What there is of each fabric, and the cutting plan made from it."""

from __future__ import annotations

import uuid

from django.db import models
from django.db.models import Q

from api.fields import LengthField
from piecing.cutting import ClothKind, Goal
from projects.models import Fabric, Project
from workrooms.models import Workroom

KINDS = [(k.value, k.name.lower()) for k in ClothKind]
GOALS = [(g.value, g.name.lower()) for g in Goal]


class Stock(models.Model):
    """``count`` alike of the workroom's cloths, triangles or units, usable ``across`` by ``along``; ``across_most`` where they may
    be wider.

    One that a project reserves hangs from its ``fabric``; on the shelf it has none, and ``cloth`` and ``colour`` say which it is.
    ``other`` is the second fabric of a unit. So no two projects can count the same cloth.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workroom = models.ForeignKey(Workroom, on_delete=models.CASCADE, related_name="stock")
    fabric = models.ForeignKey(Fabric, on_delete=models.CASCADE, related_name="stock", null=True, blank=True)
    cloth = models.CharField(max_length=80, blank=True, default="")
    colour = models.CharField(max_length=7, blank=True, default="")
    other = models.CharField(max_length=80, blank=True, default="")
    position = models.PositiveIntegerField(default=0)
    kind = models.CharField(max_length=20, choices=KINDS, default=ClothKind.YARDAGE.value)
    across = LengthField()
    along = LengthField()
    across_most = LengthField(null=True, blank=True)
    count = models.PositiveIntegerField(default=1)
    name = models.CharField(max_length=80, blank=True, default="")
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["position", "pk"]
        constraints = [models.CheckConstraint(condition=Q(kind__in=[k for k, _ in KINDS]), name="stock_kind")]


class CutPile(models.Model):
    """A pile once cloth was planned or cut for it: its letter for the life of the project, what it is, and how many pieces were
    cut, spoiled and given away, and how many single triangles put by; strips ticked on the plan that stands are not in it yet (``piecing.cutting.ledger``)."""

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="piles")
    fabric = models.ForeignKey(Fabric, on_delete=models.CASCADE, related_name="piles")
    letter = models.CharField(max_length=6)
    width = LengthField()
    height = LengthField()
    gives = models.PositiveSmallIntegerField(default=1)
    name = models.TextField(blank=True, default="")
    cut = models.PositiveIntegerField(default=0)
    spoiled = models.PositiveIntegerField(default=0)
    given = models.PositiveIntegerField(default=0)
    put_by = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["project", "letter"], name="pile_letter"),
            models.UniqueConstraint(fields=["project", "fabric", "width", "height", "gives"], name="pile_once"),
        ]


class CutPlan(models.Model):
    """The last plan of a project as it was found; ``laid`` holds it exactly, ``done`` the strips ticked off,
    ``extra`` pieces from a list (fabric, width, height, count, name), ``asked_at`` since when one is being looked for,
    ``binding`` the strips chosen for it (width, and length with number), ``before`` what stood before its strips were last put down as cut, for the undo."""

    project = models.OneToOneField(Project, on_delete=models.CASCADE, primary_key=True, related_name="cut_plan")
    goal = models.CharField(max_length=10, choices=GOALS, default=Goal.LEAST.value)
    along = models.BooleanField(default=False)
    laid = models.JSONField(default=dict, blank=True)
    done = models.JSONField(default=list, blank=True)
    extra = models.JSONField(default=list, blank=True)
    binding = models.JSONField(default=dict, blank=True)
    before = models.JSONField(default=dict, blank=True)
    made_at = models.DateTimeField(null=True, blank=True)
    asked_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        constraints = [models.CheckConstraint(condition=Q(goal__in=[g for g, _ in GOALS]), name="cut_plan_goal")]
