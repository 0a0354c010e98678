"""What is done at the bench: lots of units, blocks or the quilt, and every step and count that somebody put down."""

from __future__ import annotations

import uuid

from django.db import models
from django.db.models import Q

from piecing.handling.marking import Marking
from piecing.handling.spoiled import WHY_WORDS
from piecing.handling.steps import BenchStage
from projects.models import PlannedUnit, Project

MARKINGS = [(m.value, m.name.lower()) for m in Marking]
STAGES = [(s.value, s.name.lower()) for s in BenchStage]
WHYS = [(w.value, words) for w, words in WHY_WORDS.items()]
COUNTED = ("trimmed", "spoiled")
"""What is counted by the unit instead of by the step."""


class Handling(models.Model):
    """How one unit or block is worked: the school of marking, and how many goes of its method make a lot (none: as is handy)."""

    subject = models.CharField(max_length=50, primary_key=True)
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="handlings")
    marking = models.CharField(max_length=10, choices=MARKINGS, default=Marking.CENTRE.value)
    lot_goes = models.PositiveSmallIntegerField(null=True, blank=True)

    class Meta:
        constraints = [
            models.CheckConstraint(condition=Q(marking__in=[m for m, _ in MARKINGS]), name="handling_marking"),
            models.CheckConstraint(condition=Q(lot_goes__isnull=True) | Q(lot_goes__gte=1), name="handling_lot"),
        ]


class Lot(models.Model):
    """A lot that was begun: of a unit, of a block, or the quilt (neither), under its number for good. ``goes`` of the method give
    ``units``; ``made_as`` is what they were made to, so that a plan that is changed meanwhile changes nothing here. ``sewn`` and
    ``pressed`` say that all its steps of that stage are done, ``joined`` that all of a block's are."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="lots")
    subject = models.CharField(max_length=50)
    unit = models.ForeignKey(PlannedUnit, on_delete=models.CASCADE, related_name="lots", null=True, blank=True)
    block = models.ForeignKey("blocks.Block", on_delete=models.CASCADE, related_name="lots", null=True, blank=True)
    number = models.PositiveSmallIntegerField()
    goes = models.PositiveSmallIntegerField()
    units = models.PositiveIntegerField()
    made_as = models.JSONField(default=dict, blank=True)
    sewn = models.BooleanField(default=False)
    pressed = models.BooleanField(default=False)
    joined = models.BooleanField(default=False)

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["project", "subject", "number"], name="lot_number")]


class Done(models.Model):
    """Something that somebody put down: a ``step`` of a lot, or a ``count`` of units trimmed or spoiled. Taken back it stays, not
    counted; a step that two people put down is done until both take it back. Units spoiled may say ``why``, with a ``note``; ``lost`` is
    the cloth that goes into new ones (square inches by fabric) and the minutes that making them usually takes, as it was then."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="done")
    lot = models.ForeignKey(Lot, on_delete=models.CASCADE, related_name="done", null=True, blank=True)
    unit = models.ForeignKey(PlannedUnit, on_delete=models.CASCADE, related_name="done", null=True, blank=True)
    stage = models.CharField(max_length=10)
    step = models.CharField(max_length=160, blank=True, default="")
    count = models.IntegerField(default=0)
    at = models.DateTimeField(auto_now_add=True)
    undone = models.BooleanField(default=False)
    why = models.CharField(max_length=8, choices=WHYS, blank=True, default="")
    note = models.CharField(max_length=200, blank=True, default="")
    lost = models.JSONField(default=dict, blank=True)

    class Meta:
        ordering = ["at"]
        indexes = [models.Index(fields=["lot", "undone"])]
        constraints = [
            models.CheckConstraint(condition=Q(lot__isnull=False) | Q(unit__isnull=False), name="done_of_something"),
            models.CheckConstraint(condition=Q(stage__in=[*(s for s, _ in STAGES), *COUNTED]), name="done_stage"),
        ]
