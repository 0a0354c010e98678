"""What errors do to a block, tried."""

from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.wire import DrawingField

from .fields import BesideField, InchesField
from .sheet import AtWorkSerializer
from .verdict import SeenFaultSerializer


class WhatIfSerializer(serializers.Serializer[Any]):
    """Errors in inches by the key of their cause. ``blocks`` of them are drawn at random for the figures of many."""

    causes = serializers.DictField(child=serializers.FloatField(min_value=-1, max_value=1))
    factor = serializers.FloatField(min_value=1, max_value=16, default=1)
    scatter = serializers.FloatField(min_value=0, max_value=4, default=1)
    blocks = serializers.IntegerField(min_value=0, max_value=100_000, default=0)


class SpreadSerializer(serializers.Serializer[Any]):
    mean = BesideField()
    low = BesideField()
    high = BesideField()
    rss = InchesField()
    worst = InchesField()


class ManySerializer(serializers.Serializer[Any]):
    blocks = serializers.IntegerField()
    width = SpreadSerializer()
    height = SpreadSerializer()
    tips_cut = serializers.FloatField(allow_null=True)
    tips_floating = serializers.FloatField(allow_null=True)
    corners_off = serializers.FloatField(allow_null=True)
    crossings_off = serializers.FloatField(allow_null=True)
    blocks_small = serializers.FloatField()
    histogram = serializers.ListField(child=serializers.IntegerField())
    narrowest = BesideField()
    widest = BesideField()
    planned_at = serializers.FloatField(allow_null=True)


class RoomSerializer(serializers.Serializer[Any]):
    batch = serializers.IntegerField()
    school = serializers.CharField()
    share = serializers.FloatField(allow_null=True)


class TriedSerializer(serializers.Serializer[Any]):
    drawing = DrawingField()
    causes = serializers.SerializerMethodField()
    faults = SeenFaultSerializer(many=True)
    width = BesideField()
    height = BesideField()
    across = InchesField()
    down = InchesField()
    seen = InchesField()
    eased = InchesField()
    seams_across = serializers.IntegerField()
    seams_down = serializers.IntegerField()
    quilt_across = InchesField()
    quilt_down = InchesField()
    of_many = ManySerializer(allow_null=True)
    rooms = RoomSerializer(many=True)

    @extend_schema_field(AtWorkSerializer(many=True))
    def get_causes(self, tried: Any) -> list[dict[str, str]]:
        return [{"key": key, "said": said.text(self.context["style"])} for key, said in tried.causes]
