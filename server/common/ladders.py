"""The size ladder on the wire; Plan, Check and Mend all show it."""

from typing import Any

from rest_framework import serializers

from .wire import LengthField

__all__ = ["LadderSerializer"]


class RungSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    size = LengthField()
    at = serializers.FloatField()
    loss = LengthField(allow_null=True)
    why = serializers.CharField()


class TickSerializer(serializers.Serializer[Any]):
    size = LengthField()
    at = serializers.FloatField()
    rank = serializers.IntegerField()


class LadderSerializer(serializers.Serializer[Any]):
    """Positions are shares, 0 to 1, of the window from ``start`` to ``end``."""

    start = LengthField()
    end = LengthField()
    rungs = RungSerializer(many=True)
    ticks = TickSerializer(many=True)
