"""The log of a workroom: trial pieces, notes, what was learned, with photos: rows and database constraints only."""

from __future__ import annotations

import uuid

from django.db import models
from django.db.models import Q

from api.fields import CutsField, LengthField
from projects.models import PlannedUnit, Project
from workrooms.models import Workroom

KINDS = [("trial", "trial piece"), ("note", "note"), ("learned", "learned")]
LONGEST = 4_000


class LogEntry(models.Model):
    """Something put down on a day, of a project or of none. A ``trial`` is one ``unit`` made of pieces cut to ``cuts`` that measured
    ``width`` by ``height`` before it was trimmed; ``said`` what came of it, as it was judged when it was put down."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workroom = models.ForeignKey(Workroom, on_delete=models.CASCADE, related_name="log")
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="log", null=True, blank=True)
    unit = models.ForeignKey(PlannedUnit, on_delete=models.SET_NULL, related_name="log", null=True, blank=True)
    kind = models.CharField(max_length=7, choices=KINDS)
    day = models.DateField()
    text = models.CharField(max_length=LONGEST, blank=True, default="")
    of = models.CharField(max_length=200, blank=True, default="")
    cuts = CutsField(default=dict, blank=True)
    width = LengthField(null=True, blank=True)
    height = LengthField(null=True, blank=True)
    said = models.JSONField(default=list, blank=True)
    made_at = models.DateTimeField(auto_now_add=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-day", "-made_at"]
        indexes = [models.Index(fields=["workroom", "-day"])]
        constraints = [
            models.CheckConstraint(condition=Q(kind__in=[k for k, _ in KINDS]), name="log_kind"),
            models.CheckConstraint(condition=~Q(kind="trial") | Q(width__isnull=False), name="log_trial_is_measured"),
        ]


class Photo(models.Model):
    """A photo of an entry, as JPEG in the one file that holds everything; nothing but the picture is kept of it."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    entry = models.ForeignKey(LogEntry, on_delete=models.CASCADE, related_name="photos")
    image = models.BinaryField()
    width = models.PositiveSmallIntegerField()
    height = models.PositiveSmallIntegerField()
    caption = models.CharField(max_length=200, blank=True, default="")
    made_at = models.DateTimeField(auto_now_add=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["made_at", "pk"]
