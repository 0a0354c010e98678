"""What was read on a block, and diagnoses kept: rows and database constraints only."""

from __future__ import annotations

import uuid

from django.db import models
from django.db.models import Q

from blocks.models import Block
from common.fields import LengthField
from piecing.diagnosis.readings import ReadingKind

KINDS = [(k.value, k.name.lower()) for k in ReadingKind]
TURNED_OUT = [("", "not known yet"), ("right", "right"), ("partly", "partly right"), ("wrong", "wrong")]


class Measured(models.Model):
    """One reading of a block; which fields tell where it was taken depends on its kind (see the core)."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    block = models.ForeignKey(Block, on_delete=models.CASCADE, related_name="measured")
    kind = models.CharField(max_length=20, choices=KINDS)
    value = LengthField(null=True, blank=True)
    whole = LengthField(null=True, blank=True)
    batch = models.SmallIntegerField(default=-1)
    cell = models.SmallIntegerField(default=-1)
    corner = models.CharField(max_length=20, blank=True, default="")
    seam = models.SmallIntegerField(default=-1)
    spot = models.CharField(max_length=8, blank=True, default="")
    feature = models.CharField(max_length=120, blank=True, default="")
    day = models.CharField(max_length=10, blank=True, default="")
    confirmed = models.BooleanField(default=False)
    note = models.CharField(max_length=200, blank=True, default="")
    order = models.PositiveIntegerField(default=0)
    taken_at = models.DateTimeField(auto_now_add=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["order", "taken_at", "pk"]
        indexes = [models.Index(fields=["block", "deleted_at", "order"])]
        constraints = [models.CheckConstraint(condition=Q(kind__in=[k for k, _ in KINDS]), name="measured_kind")]


class Kept(models.Model):
    """A diagnosis as it was said that day, and what turned out later. ``said`` is sentences, never computed again."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    block = models.ForeignKey(Block, on_delete=models.CASCADE, related_name="kept")
    kept_at = models.DateTimeField(auto_now_add=True)
    said = models.JSONField(default=dict)
    turned_out = models.CharField(max_length=8, choices=TURNED_OUT, blank=True, default="")
    later = models.CharField(max_length=400, blank=True, default="")
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-kept_at", "pk"]
        constraints = [
            models.CheckConstraint(condition=Q(turned_out__in=[k for k, _ in TURNED_OUT]), name="kept_turned_out")
        ]
