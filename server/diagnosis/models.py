"""Diagnoses kept as they were said: rows and database constraints only."""

from __future__ import annotations

import uuid

from django.db import models
from django.db.models import Q

from blocks.models import Block
from projects.models import PlannedUnit

TURNED_OUT = [("", "not known yet"), ("right", "right"), ("partly", "partly right"), ("wrong", "wrong")]


class SavedDiagnosis(models.Model):
    """A diagnosis of a block or of a kind of unit as it was said that day, and what turned out later. ``said`` is sentences,
    never computed again."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    block = models.ForeignKey(Block, on_delete=models.CASCADE, related_name="saved", null=True, blank=True)
    unit = models.ForeignKey(PlannedUnit, on_delete=models.CASCADE, related_name="saved", null=True, blank=True)
    saved_at = models.DateTimeField(auto_now_add=True)
    said = models.JSONField(default=dict)
    turned_out = models.CharField(max_length=8, choices=TURNED_OUT, blank=True, default="")
    later = models.CharField(max_length=400, blank=True, default="")
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-saved_at", "pk"]
        constraints = [
            models.CheckConstraint(condition=Q(turned_out__in=[k for k, _ in TURNED_OUT]), name="saved_turned_out"),
            models.CheckConstraint(
                condition=Q(block__isnull=True, unit__isnull=False) | Q(block__isnull=False, unit__isnull=True),
                name="saved_is_of_one_subject",
            ),
        ]
