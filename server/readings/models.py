"""What the ruler read: rows and database constraints only."""

from __future__ import annotations

import uuid

from django.db import models
from django.db.models import Q

from common.fields import LengthField
from piecing.diagnosis import ReadingKind
from projects.models import PlannedUnit

KINDS = [(k.value, k.name.lower()) for k in ReadingKind]


class ReadingRow(models.Model):
    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    unit = models.ForeignKey(PlannedUnit, on_delete=models.CASCADE, related_name="readings")
    kind = models.CharField(max_length=20, choices=KINDS)
    value = LengthField()
    row_units = models.PositiveSmallIntegerField(null=True, blank=True)
    whole = LengthField(null=True, blank=True)
    note = models.CharField(max_length=200, blank=True, default="")
    taken_at = models.DateTimeField(auto_now_add=True)
    order = models.PositiveIntegerField(default=0)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["order", "taken_at", "pk"]
        indexes = [models.Index(fields=["unit", "deleted_at", "order"])]
        constraints = [
            models.CheckConstraint(condition=Q(kind__in=[k for k, _ in KINDS]), name="reading_kind"),
            models.CheckConstraint(
                condition=~Q(kind="row_length") | Q(row_units__gte=2), name="row_length_has_its_count"
            ),
            models.CheckConstraint(
                condition=~Q(kind="strip_test") | Q(whole__isnull=False), name="strip_test_has_both"
            ),
        ]
