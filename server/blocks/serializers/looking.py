"""A layout looked over: other ways of turning it, and the unit that makes it wrong."""

from typing import Any

from rest_framework import serializers

from api.wire import (
    DrawingField,
    MessageField,
)

from ..models import LYINGS
from ..wire import PatternField
from .blocks import BlockViewSerializer


class LookingRequestSerializer(serializers.Serializer[Any]):
    across = serializers.IntegerField(min_value=1, max_value=6, required=False, default=2)
    every_second = serializers.ChoiceField(choices=LYINGS, required=False, default="upright")
    column = serializers.IntegerField(min_value=0, max_value=23, required=False, allow_null=True, default=None)
    row = serializers.IntegerField(min_value=0, max_value=23, required=False, allow_null=True, default=None)


class AlternativeSerializer(serializers.Serializer[Any]):
    said = MessageField()
    as_it_is = serializers.BooleanField()
    turn = serializers.IntegerField(source="orientation.turn")
    mirrored = serializers.BooleanField(source="orientation.mirrored")
    drawing = DrawingField()


class OtherWaysSerializer(serializers.Serializer[Any]):
    apart = DrawingField()
    many = DrawingField()  # type: ignore[assignment]
    alternatives = AlternativeSerializer(many=True)


class SeenRequestSerializer(serializers.Serializer[Any]):
    seen = PatternField()


class FaultSerializer(serializers.Serializer[Any]):
    column = serializers.IntegerField()
    row = serializers.IntegerField()
    what = serializers.CharField()
    said = MessageField()


class FindingSerializer(serializers.Serializer[Any]):
    faults = FaultSerializer(many=True, source="finding.faults")
    whole = serializers.IntegerField(source="finding.whole")
    said = MessageField(source="finding.said")
    picture = DrawingField()
    view = BlockViewSerializer()
