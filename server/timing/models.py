"""Minutes that were timed, free time, and evenings that were planned: rows and database constraints only."""

from __future__ import annotations

import uuid
from datetime import date, datetime, time

from django.db import models
from django.db.models import Q
from django.utils import timezone

from blocks.models import Block
from piecing.timing import Rhythm, WorkStage
from projects.models import PlannedUnit, Project
from setups.models import SetUp
from workrooms.models import Workroom

STAGES = [(s.value, s.name.lower()) for s in WorkStage]
RHYTHMS = [(r.value, r.name.lower()) for r in Rhythm]
MOMENT = 16
"""Characters of a moment by the clock on the wall: 2026-12-01T19:30."""


class WorkTime(models.Model):
    """A stretch of work at one stage. While it runs it has no ``ended``; ``minutes`` is what counts, empty where nobody knows.

    ``count`` things were done in it, ``usual`` are the minutes that they usually take: both as they were when it ended, since the
    plan may change. ``cut_before`` is how many pieces were cut when it began. It began at the server at ``made_at``.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workroom = models.ForeignKey(Workroom, on_delete=models.CASCADE, related_name="times")
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="times")
    unit = models.ForeignKey(PlannedUnit, on_delete=models.SET_NULL, null=True, blank=True, related_name="times")
    block = models.ForeignKey(Block, on_delete=models.SET_NULL, null=True, blank=True, related_name="times")
    set_up = models.ForeignKey(SetUp, on_delete=models.SET_NULL, null=True, blank=True, related_name="times")
    stage = models.CharField(max_length=5, choices=STAGES)
    began = models.DateTimeField()
    ended = models.DateTimeField(null=True, blank=True)
    minutes = models.FloatField(null=True, blank=True)
    count = models.PositiveIntegerField(null=True, blank=True)
    usual = models.FloatField(null=True, blank=True)
    cut_before = models.PositiveIntegerField(default=0)
    note = models.CharField(max_length=200, blank=True, default="")
    made_at = models.DateTimeField(auto_now_add=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-began", "-made_at"]
        indexes = [models.Index(fields=["workroom", "stage", "-began"])]
        constraints = [
            models.UniqueConstraint(
                fields=["workroom"], condition=Q(ended=None, deleted_at=None), name="one_clock_runs"
            ),
            models.CheckConstraint(condition=Q(stage__in=[s for s, _ in STAGES]), name="time_stage"),
            models.CheckConstraint(condition=Q(minutes=None) | Q(minutes__gt=0), name="time_minutes"),
        ]

    @property
    def day(self) -> str:
        """The day it began, by the clock on the wall. Set to another one, it began at noon of that."""
        return timezone.localtime(self.began).date().isoformat()

    @day.setter
    def day(self, text: str) -> None:
        if text != self.day:
            noon = datetime.combine(date.fromisoformat(text), time(12), timezone.get_current_timezone())
            self.began, self.ended = noon, noon if self.ended is not None else None


class FreshBlade(models.Model):
    """A fresh blade was put in on this day, when ``cuts_before`` had been made in this workroom."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workroom = models.ForeignKey(Workroom, on_delete=models.CASCADE, related_name="blades")
    day = models.DateField()
    cuts_before = models.PositiveIntegerField(default=0)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-day"]


class FreeTime(models.Model):
    """Usually free on this day of the week (0 for Monday), from and to a time of the clock on the wall."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workroom = models.ForeignKey(Workroom, on_delete=models.CASCADE, related_name="free_times")
    weekday = models.PositiveSmallIntegerField()
    begins = models.TimeField()
    ends = models.TimeField()
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["weekday", "begins"]
        constraints = [
            models.CheckConstraint(condition=Q(weekday__lte=6), name="free_weekday"),
            models.CheckConstraint(condition=Q(ends__gt=models.F("begins")), name="free_ends_later"),
        ]


class Busy(models.Model):
    """Not free, by the clock on the wall; of a calendar only the times are kept. ``source`` is the name of its file, empty where it
    was typed."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workroom = models.ForeignKey(Workroom, on_delete=models.CASCADE, related_name="busy")
    source = models.CharField(max_length=120, blank=True, default="")
    begins = models.CharField(max_length=MOMENT)
    ends = models.CharField(max_length=MOMENT)

    class Meta:
        ordering = ["begins"]
        indexes = [models.Index(fields=["workroom", "ends"])]


class Schedule(models.Model):
    """Whether a project is planned into the free evenings, and by what days it has to be done."""

    project = models.OneToOneField(Project, on_delete=models.CASCADE, primary_key=True, related_name="schedule")
    planned = models.BooleanField(default=False)
    rhythm = models.CharField(max_length=11, choices=RHYTHMS, default=Rhythm.NONE.value)
    first = models.DateField(null=True, blank=True)

    class Meta:
        constraints = [models.CheckConstraint(condition=Q(rhythm__in=[r for r, _ in RHYTHMS]), name="schedule_rhythm")]


class KeptSitting(models.Model):
    """An evening of the plan that was kept, under its name for good: planned anew at the same time it is the same one with a higher
    ``sequence``, and one that is planned no longer is ``cancelled``. ``tasks`` say what is done in it: the project, what of, the
    stage, in words, how many, and ``until`` how many are through the stage when it is over."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workroom = models.ForeignKey(Workroom, on_delete=models.CASCADE, related_name="sittings")
    begins = models.CharField(max_length=MOMENT)
    ends = models.CharField(max_length=MOMENT)
    tasks = models.JSONField(default=list)
    sequence = models.PositiveIntegerField(default=0)
    cancelled = models.BooleanField(default=False)
    kept_at = models.DateTimeField()

    class Meta:
        ordering = ["begins"]
        constraints = [models.UniqueConstraint(fields=["workroom", "begins"], name="one_sitting_at_a_time")]
