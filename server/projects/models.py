"""Projects, the units planned in them and their fabrics: rows and database constraints only."""

from __future__ import annotations

import uuid
from typing import ClassVar

from django.db import models
from django.db.models import Q

from api.fields import CutsField, LengthField
from piecing.lengths import Measure
from piecing.planning.schools import School
from workrooms.models import MEASURES, Workroom

SCHOOLS = [(s.value, s.name.lower()) for s in School]
SIZE_BASES = [("unit", "unit"), ("block", "block")]
DIRECTIONS = [("none", "none"), ("stripes", "stripes"), ("one_way", "one way")]
VALUES = [("light", "light"), ("medium", "medium"), ("dark", "dark")]


def _usual_ring() -> list[str]:
    return ["a", "b"]


class Project(models.Model):
    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workroom = models.ForeignKey(Workroom, on_delete=models.PROTECT, related_name="projects")
    name = models.CharField(max_length=120)
    measure = models.CharField(max_length=2, choices=MEASURES, default=Measure.INCHES.value)
    seam_allowance = LengthField()
    stitch = LengthField(null=True, blank=True)
    fold = LengthField(default="0")
    ruler_step = LengthField()
    reading_step = LengthField()
    created_at = models.DateTimeField(auto_now_add=True)
    updated_at = models.DateTimeField(auto_now=True)
    archived_at = models.DateTimeField(null=True, blank=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-updated_at"]
        constraints = [
            models.CheckConstraint(condition=Q(measure__in=[m for m, _ in MEASURES]), name="project_measure"),
            models.CheckConstraint(condition=~Q(name=""), name="project_has_name"),
        ]


class PlannedUnit(models.Model):
    """One kind of unit in a project, with how it is made, how many are wanted, and how many of them are ``ready`` made;
    ``spares_kept`` small units that fall off it went to the stock, ``trimmed`` ones are done and ``spoiled`` ones made again.

    ``of_blocks`` holds, by the key of each block that it is wanted for, its name and how many as drawn and mirrored; empty for a
    unit that was planned by hand (see ``blocks.following``).
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="units")
    position = models.PositiveSmallIntegerField(default=0)
    kind = models.CharField(max_length=40, default="half_square_triangle")
    method = models.CharField(max_length=40, default="pair")
    size_basis = models.CharField(max_length=5, choices=SIZE_BASES, default="unit")
    finished = LengthField()
    height = LengthField(null=True, blank=True)
    block_finished = LengthField()
    units_across = models.PositiveSmallIntegerField(default=3)
    part_fabrics = models.JSONField(default=_usual_ring)
    corner_0 = LengthField(default="0")
    corner_1 = LengthField(default="0")
    corner_2 = LengthField(default="0")
    corner_3 = LengthField(default="0")
    strip = LengthField(default="0")
    count = models.PositiveIntegerField(default=1)
    mirrored = models.PositiveIntegerField(default=0)
    ready = models.PositiveIntegerField(default=0)
    spares_kept = models.PositiveIntegerField(default=0)
    trimmed = models.PositiveIntegerField(default=0)
    spoiled = models.PositiveIntegerField(default=0)
    school = models.CharField(max_length=20, choices=SCHOOLS, default=School.LITTLE.value)
    own_margin = LengthField(null=True, blank=True)
    cuts = CutsField(default=dict, blank=True)
    of_blocks = models.JSONField(default=dict, blank=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["position", "pk"]
        constraints = [
            models.CheckConstraint(condition=Q(count__gte=1) | Q(mirrored__gte=1), name="unit_count"),
            models.CheckConstraint(condition=Q(units_across__gte=1), name="unit_across"),
            models.CheckConstraint(condition=Q(school__in=[s for s, _ in SCHOOLS]), name="unit_school"),
            models.CheckConstraint(condition=Q(size_basis__in=["unit", "block"]), name="unit_size_basis"),
        ]


class _Live(models.Manager["Fabric"]):
    """Fabrics that were not removed."""

    def get_queryset(self) -> models.QuerySet[Fabric]:
        return super().get_queryset().filter(deleted_at=None)


class Fabric(models.Model):
    """A fabric of a project under its letter; removed, it is hidden with its stock until that is undone."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="fabrics")
    role = models.CharField(max_length=2)
    name = models.CharField(max_length=80)
    colour = models.CharField(max_length=7)
    value = models.CharField(max_length=6, choices=VALUES)
    direction = models.CharField(max_length=8, choices=DIRECTIONS, default="none")
    swatch = models.TextField(blank=True, default="")
    deleted_at = models.DateTimeField(null=True, blank=True)

    objects = _Live()
    every: ClassVar[models.Manager[Fabric]] = models.Manager()

    class Meta:
        ordering = ["role"]
        constraints = [
            models.UniqueConstraint(fields=["project", "role"], name="one_fabric_a_role", condition=Q(deleted_at=None)),
            models.CheckConstraint(condition=Q(value__in=[v for v, _ in VALUES]), name="fabric_value"),
            models.CheckConstraint(condition=Q(direction__in=[d for d, _ in DIRECTIONS]), name="fabric_direction"),
            models.CheckConstraint(condition=Q(colour__regex=r"^#[0-9a-f]{6}$"), name="fabric_colour"),
        ]
