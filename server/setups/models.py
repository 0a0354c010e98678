"""Machine set-ups of a workroom, and days whose readings are left out: rows and database constraints only."""

from __future__ import annotations

import uuid

from django.db import models
from django.db.models import Q

from api.fields import LengthField
from workrooms.models import Workroom

PRESSINGS = [("side", "to one side"), ("open", "open")]


class SetUp(models.Model):
    """A machine as it was set up from a day on. One is in use; a change begins a new one (``came_from`` the old), so that what was
    sewn before keeps the one it was sewn with. ``guide`` is the mark at which the guide stands, ``guide_step`` what it moves by."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workroom = models.ForeignKey(Workroom, on_delete=models.CASCADE, related_name="set_ups")
    machine = models.CharField(max_length=60)
    foot = models.CharField(max_length=60, blank=True, default="")
    plate = models.CharField(max_length=60, blank=True, default="")
    needle = models.CharField(max_length=60, blank=True, default="")
    thread = models.CharField(max_length=60, blank=True, default="")
    stitch_length = models.CharField(max_length=20, blank=True, default="")
    needle_position = models.CharField(max_length=30, blank=True, default="")
    guide = LengthField(null=True, blank=True)
    guide_step = LengthField(default="1/64")
    pressing = models.CharField(max_length=4, choices=PRESSINGS, default="side")
    starch = models.BooleanField(default=False)
    note = models.CharField(max_length=200, blank=True, default="")
    began = models.DateField()
    in_use = models.BooleanField(default=False)
    came_from = models.ForeignKey("self", on_delete=models.SET_NULL, null=True, blank=True, related_name="later")
    made_at = models.DateTimeField(auto_now_add=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-began", "-made_at", "pk"]
        constraints = [
            models.UniqueConstraint(
                fields=["workroom"], condition=Q(in_use=True, deleted_at__isnull=True), name="one_set_up_in_use"
            ),
            models.CheckConstraint(condition=~Q(machine=""), name="set_up_has_machine"),
            models.CheckConstraint(condition=Q(pressing__in=[p for p, _ in PRESSINGS]), name="set_up_pressing"),
        ]


class DayOut(models.Model):
    """A bad day: nothing read on it speaks of the quilter's hands."""

    workroom = models.ForeignKey(Workroom, on_delete=models.CASCADE, related_name="days_out")
    day = models.DateField()

    class Meta:
        ordering = ["day"]
        constraints = [models.UniqueConstraint(fields=["workroom", "day"], name="a_day_is_left_out_once")]
