"""What the ruler read, wherever it was laid: one pool for a project, rows and database constraints only."""

from __future__ import annotations

import uuid

from django.db import models
from django.db.models import Q

from api.fields import LengthField
from piecing.diagnosis import ReadingKind
from projects.models import PlannedUnit, Project

KINDS = [(k.value, k.name.lower()) for k in ReadingKind]


class ReadingRow(models.Model):
    """One reading. ``unit`` or ``block`` is what it was taken down for; the names of places stay whatever is laid out anew.

    ``mark`` says what lay there when it was taken (see the core).
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="readings")
    unit = models.ForeignKey(PlannedUnit, on_delete=models.CASCADE, related_name="readings", null=True, blank=True)
    block = models.ForeignKey("blocks.Block", on_delete=models.CASCADE, related_name="readings", null=True, blank=True)
    kind = models.CharField(max_length=20, choices=KINDS)
    value = LengthField(null=True, blank=True)
    whole = LengthField(null=True, blank=True)
    count = models.PositiveSmallIntegerField(default=0)
    batch = models.CharField(max_length=80, blank=True, default="")
    at_unit = models.CharField(max_length=16, blank=True, default="")
    corner = models.CharField(max_length=20, blank=True, default="")
    seam = models.CharField(max_length=120, blank=True, default="")
    spot = models.CharField(max_length=8, blank=True, default="")
    feature = models.CharField(max_length=160, blank=True, default="")
    mark = models.TextField(blank=True, default="")
    day = models.CharField(max_length=10, blank=True, default="")
    confirmed = models.BooleanField(default=False)
    note = models.CharField(max_length=200, blank=True, default="")
    order = models.PositiveIntegerField(default=0)
    taken_at = models.DateTimeField(auto_now_add=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        db_table = "measuring_reading"
        ordering = ["order", "taken_at", "pk"]
        indexes = [models.Index(fields=["project", "deleted_at", "order"])]
        constraints = [
            models.CheckConstraint(condition=Q(kind__in=[k for k, _ in KINDS]), name="reading_is_of_a_kind"),
            models.CheckConstraint(
                condition=~Q(kind="strip_test") | Q(whole__isnull=False), name="strip_test_has_both_readings"
            ),
            models.CheckConstraint(
                condition=Q(unit__isnull=True) | Q(block__isnull=True), name="reading_is_of_one_subject"
            ),
        ]
