"""A workroom: whose projects these are, and how lengths are set in it."""

from __future__ import annotations

import uuid

from django.db import models
from django.db.models import Q

from common.fields import LengthField
from piecing.lengths import Measure

MEASURES = [(m.value, m.name.lower()) for m in Measure]


def _eighth() -> str:
    return "1/8"


def _thirty_second() -> str:
    return "1/32"


def _quarter() -> str:
    return "1/4"


class Workroom(models.Model):
    """One by default and without sign-in; projects hang from it, so people can be told apart later."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    name = models.CharField(max_length=120, default="My workroom")
    measure = models.CharField(max_length=2, choices=MEASURES, default=Measure.INCHES.value)
    ruler_step = LengthField(default=_eighth)
    reading_step = LengthField(default=_thirty_second)
    seam_allowance = LengthField(default=_quarter)

    class Meta:
        constraints = [
            models.CheckConstraint(condition=Q(measure__in=[m for m, _ in MEASURES]), name="workroom_measure")
        ]
