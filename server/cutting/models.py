"""What there is of each fabric, and the cutting plan made from it."""

from __future__ import annotations

import uuid

from django.db import models
from django.db.models import Q

from api.fields import LengthField
from piecing.cutting import ClothKind, Goal
from projects.models import Fabric, Project

KINDS = [(k.value, k.name.lower()) for k in ClothKind]
GOALS = [(g.value, g.name.lower()) for g in Goal]


class Stock(models.Model):
    """``count`` cloths alike of a fabric, usable ``across`` by ``along``."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    fabric = models.ForeignKey(Fabric, on_delete=models.CASCADE, related_name="stock")
    position = models.PositiveIntegerField(default=0)
    kind = models.CharField(max_length=12, choices=KINDS, default=ClothKind.YARDAGE.value)
    across = LengthField()
    along = LengthField()
    count = models.PositiveIntegerField(default=1)
    name = models.CharField(max_length=80, blank=True, default="")
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["position", "pk"]
        constraints = [models.CheckConstraint(condition=Q(kind__in=[k for k, _ in KINDS]), name="stock_kind")]


class CutPlan(models.Model):
    """The last plan of a project as it was found; ``laid`` holds it exactly, ``done`` the strips ticked off,
    ``extra`` pieces from a list (fabric, width, height, count, name), ``asked_at`` since when one is being looked for."""

    project = models.OneToOneField(Project, on_delete=models.CASCADE, primary_key=True, related_name="cut_plan")
    goal = models.CharField(max_length=10, choices=GOALS, default=Goal.LEAST.value)
    along = models.BooleanField(default=False)
    laid = models.JSONField(default=dict, blank=True)
    done = models.JSONField(default=list, blank=True)
    extra = models.JSONField(default=list, blank=True)
    made_at = models.DateTimeField(null=True, blank=True)
    asked_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        constraints = [models.CheckConstraint(condition=Q(goal__in=[g for g, _ in GOALS]), name="cut_plan_goal")]
