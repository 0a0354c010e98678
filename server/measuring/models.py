"""What the ruler read, wherever it was laid: one pool for a project and for seam tests, rows and database constraints only."""

from __future__ import annotations

import uuid

from django.db import models
from django.db.models import Q

from api.fields import LengthField
from piecing.diagnosis import ReadingKind
from projects.models import PlannedUnit, Project
from setups.models import SetUp

KINDS = [(k.value, k.name.lower()) for k in ReadingKind]


class ReadingRow(models.Model):
    """One reading. ``unit`` or ``block`` is what it was taken down for; the names of places stay whatever is laid out anew.

    ``mark`` says what lay there when it was taken (see the core), ``wanted`` what it should have read then. A seam test is of no
    project but ``test_of`` a set-up; ``set_up`` is the one in use when a reading was taken, ``guide`` the mark its guide stood at. A
    unit measured while its lot was sewn has the ``lot``'s number and is the ``nth`` of it.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="readings", null=True, blank=True)
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
    set_up = models.ForeignKey(SetUp, on_delete=models.SET_NULL, related_name="readings", null=True, blank=True)
    test_of = models.ForeignKey(SetUp, on_delete=models.CASCADE, related_name="tests", null=True, blank=True)
    guide = LengthField(null=True, blank=True)
    wanted = LengthField(null=True, blank=True)
    lot = models.PositiveSmallIntegerField(default=0)
    nth = models.PositiveIntegerField(default=0)
    note = models.CharField(max_length=200, blank=True, default="")
    order = models.PositiveIntegerField(default=0)
    taken_at = models.DateTimeField(auto_now_add=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        db_table = "measuring_reading"
        ordering = ["order", "taken_at", "pk"]
        indexes = [
            models.Index(fields=["project", "deleted_at", "order"]),
            models.Index(fields=["kind", "deleted_at", "-taken_at"]),
        ]
        constraints = [
            models.CheckConstraint(condition=Q(kind__in=[k for k, _ in KINDS]), name="reading_is_of_a_kind"),
            models.CheckConstraint(
                condition=~Q(kind="strip_test") | Q(whole__isnull=False), name="strip_test_has_both_readings"
            ),
            models.CheckConstraint(
                condition=Q(project__isnull=True, test_of__isnull=False)
                | Q(project__isnull=False, test_of__isnull=True),
                name="reading_is_of_a_project_or_a_set_up",
            ),
            models.CheckConstraint(
                condition=Q(unit__isnull=True) | Q(block__isnull=True), name="reading_is_of_one_subject"
            ),
        ]
