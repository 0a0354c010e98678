"""A workroom: whose projects these are, and how lengths are set in it."""

from __future__ import annotations

import uuid

from django.db import models
from django.db.models import Q

from api.fields import LengthField
from piecing.lengths import Measure
from piecing.trimming import Cutter

CUTTERS = [(c.value, c.name.lower()) for c in Cutter]
MEASURES = [(m.value, m.name.lower()) for m in Measure]


def _eighth() -> str:
    return "1/8"


def _thirty_second() -> str:
    return "1/32"


def _quarter() -> str:
    return "1/4"


class Workroom(models.Model):
    """One by default and without sign-in; projects hang from it, so people can be told apart later. A fresh needle is due after
    ``needle_hours`` of sewing, a fresh blade after ``blade_cuts``; empty: nothing is said."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    name = models.CharField(max_length=120, default="My workroom")
    measure = models.CharField(max_length=2, choices=MEASURES, default=Measure.INCHES.value)
    ruler_step = LengthField(default=_eighth)
    reading_step = LengthField(default=_thirty_second)
    seam_allowance = LengthField(default=_quarter)

    cutter = models.CharField(max_length=5, choices=CUTTERS, default=Cutter.RIGHT.value)
    needle_hours = models.PositiveSmallIntegerField(null=True, blank=True, default=8)
    blade_cuts = models.PositiveIntegerField(null=True, blank=True, default=1_000)

    class Meta:
        constraints = [
            models.CheckConstraint(condition=Q(measure__in=[m for m, _ in MEASURES]), name="workroom_measure"),
            models.CheckConstraint(condition=Q(cutter__in=[c for c, _ in CUTTERS]), name="workroom_cutter"),
        ]


class OwnedRuler(models.Model):
    """A ruler of the workroom's."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workroom = models.ForeignKey(Workroom, on_delete=models.CASCADE, related_name="rulers")
    position = models.PositiveSmallIntegerField(default=0)
    name = models.CharField(max_length=60)
    width = LengthField()
    height = LengthField()
    corner_diagonal = models.BooleanField(default=True)
    border = LengthField(default="0")
    slotted = models.BooleanField(default=False)
    grooved = models.BooleanField(default=False)
    goose = models.BooleanField(default=False)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["position", "pk"]
        constraints = [models.CheckConstraint(condition=~Q(name=""), name="ruler_has_name")]


class AppliedChange(models.Model):
    """The name of a change that was made, so that the same change sent again is not made twice."""

    id = models.UUIDField(primary_key=True)
    at = models.DateTimeField(auto_now_add=True, db_index=True)
