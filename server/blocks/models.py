"""Blocks of a project, arrangements kept in one's own library, and how the quilt is put together."""

from __future__ import annotations

import uuid

from django.db import models
from django.db.models import Q

from api.fields import LengthField
from piecing.joining.order import Order
from piecing.quilts.choices import BackingWay, Setting
from projects.models import Project
from workrooms.models import Workroom

ORDERS = [(o.value, o.name.lower()) for o in Order]
SETTINGS = [(s.value, s.name.lower()) for s in Setting]
SPREADS = [("chequered", "chequered"), ("in_order", "in order"), ("set_in", "set in")]
BACKINGS = [(w.value, w.name.lower()) for w in BackingWay]
LYINGS = [("upright", "upright"), ("quarter", "quarter"), ("half", "half"), ("mirrored", "mirrored")]


def _one_way() -> list[dict[str, object]]:
    return [{"count": 1, "roles": {}}]


class Block(models.Model):
    """``pattern`` is in the format ``entretoile-block/1``; ``colourways`` are counts with roles for roles; ``pressing`` are
    wishes for the map, ``sewn_open`` the names of the seams that were in fact pressed open. ``part`` is empty for a block that the
    quilter laid; what the quilt is pieced of beside its blocks stands here too, under a name for good: its centre laid by hand, strips
    of pieced borders, parts of blocks at the ends of columns."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="blocks")
    part = models.CharField(max_length=60, blank=True, default="")
    position = models.PositiveSmallIntegerField(default=0)
    pattern = models.JSONField()
    finished = LengthField()
    colourways = models.JSONField(default=_one_way)
    order = models.CharField(max_length=10, choices=ORDERS, blank=True, default="")
    pressing = models.JSONField(default=dict, blank=True)
    sewn_open = models.JSONField(default=list, blank=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["position", "pk"]
        constraints = [
            models.CheckConstraint(condition=Q(order__in=["", *(o for o, _ in ORDERS)]), name="block_order"),
            models.UniqueConstraint(fields=["project", "part"], condition=~Q(part=""), name="one_block_a_part"),
        ]


class OwnBlock(models.Model):
    """An arrangement kept for other projects."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workroom = models.ForeignKey(Workroom, on_delete=models.CASCADE, related_name="own_blocks")
    pattern = models.JSONField()
    made_at = models.DateTimeField(auto_now_add=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["made_at"]


class Quilt(models.Model):
    """One for a project: its setting, what is round it, and how its units are made; ``followed`` once the plan follows its blocks,
    ``begun`` once somebody put a quilt together: before that it takes no cloth. ``unrounded`` is what sizes were before they were
    made round: of what, its key, the field, the size then and the size since. ``top`` is what the top measured by the name of the place,
    and what was planned there then, exact inches."""

    project = models.OneToOneField(Project, on_delete=models.CASCADE, primary_key=True, related_name="quilt")
    columns = models.PositiveSmallIntegerField(default=3)
    rows = models.PositiveSmallIntegerField(default=4)
    setting = models.CharField(max_length=10, choices=SETTINGS, default=Setting.STRAIGHT.value)
    spread = models.CharField(max_length=10, choices=SPREADS, default="chequered")
    every_second = models.CharField(max_length=10, choices=LYINGS, default="upright")
    sash = LengthField(default="0")
    sash_round = models.BooleanField(default=False)
    cornerstones = models.BooleanField(default=False)
    sash_fabric = models.CharField(max_length=1, default="a")
    cornerstone_fabric = models.CharField(max_length=1, default="b")
    setting_fabric = models.CharField(max_length=1, default="b")
    borders = models.JSONField(default=list, blank=True)
    binding_strip = LengthField(default="9/4")
    binding_fabric = models.CharField(max_length=1, default="a")
    backing_fabric = models.CharField(max_length=1, default="b")
    backing_over = LengthField(default="4")
    usable = LengthField(default="40")
    oversize = LengthField(default="1/2")
    stagger = models.CharField(max_length=9, default="1/2")
    half_blocks = models.BooleanField(default=False)
    backing_way = models.CharField(max_length=10, choices=BACKINGS, default=BackingWay.LEAST.value)
    backing_repeat = LengthField(default="0")
    backing_repeat_across = LengthField(default="0")
    sleeve = LengthField(default="0")
    makings = models.JSONField(default=dict, blank=True)
    spare_percent = models.PositiveSmallIntegerField(default=0)
    spare_number = models.PositiveSmallIntegerField(default=0)
    followed = models.BooleanField(default=True)
    begun = models.BooleanField(default=False)
    scraps = models.JSONField(default=dict, blank=True)
    unrounded = models.JSONField(default=list, blank=True)
    top = models.JSONField(default=dict, blank=True)

    class Meta:
        constraints = [
            models.CheckConstraint(condition=Q(setting__in=[s for s, _ in SETTINGS]), name="quilt_setting"),
            models.CheckConstraint(condition=Q(spread__in=[s for s, _ in SPREADS]), name="quilt_spread"),
            models.CheckConstraint(condition=Q(backing_way__in=[s for s, _ in BACKINGS]), name="quilt_backing_way"),
            models.CheckConstraint(condition=Q(every_second__in=[s for s, _ in LYINGS]), name="quilt_every_second"),
        ]
