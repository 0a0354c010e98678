"""The size ladder, and what the seam costs, on the wire; Plan, Check and Mend all show them."""

from typing import Any

from rest_framework import serializers

from piecing.ladder import Tick
from piecing.lengths import Style

from .wire import LengthField

__all__ = ["LadderSerializer", "SeamCostSerializer"]


class RungSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    size = LengthField()
    at = serializers.FloatField()
    loss = LengthField(allow_null=True)
    why = serializers.CharField()


class TickSerializer(serializers.Serializer[Any]):
    """A mark of the rule; whole and half units (ranks 0 and 1) carry their figure."""

    figure = serializers.SerializerMethodField()
    at = serializers.FloatField()
    rank = serializers.IntegerField()

    def get_figure(self, tick: Tick) -> str | None:
        style: Style = self.context.get("style") or Style()
        return style.pretty(tick.size) if tick.rank <= 1 else None


class LadderSerializer(serializers.Serializer[Any]):
    """Positions are shares, 0 to 1, of the window from ``start`` to ``end``."""

    start = LengthField()
    end = LengthField()
    rungs = RungSerializer(many=True)
    ticks = TickSerializer(many=True)


class SeamCostSerializer(serializers.Serializer[Any]):
    units = serializers.IntegerField()
    seams = serializers.IntegerField()
    slip = LengthField()
    cost = LengthField()
