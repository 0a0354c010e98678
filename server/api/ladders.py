"""The size ladder, and what the seam costs, on the wire; Plan, Check and Mend all show them."""

from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from piecing.drawings.ladder import Rung, Tick
from piecing.lengths import Style

from .wire import LengthAnswerField, LengthSerializer, length_out

__all__ = ["LadderSerializer", "SeamCostSerializer"]


class RungSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    size = LengthAnswerField()
    at = serializers.FloatField()
    beyond = serializers.BooleanField()
    gain = serializers.SerializerMethodField()
    loss = serializers.SerializerMethodField()
    why = serializers.CharField()

    def get_gain(self, rung: Rung) -> bool:
        """Whether the next rung is larger: then ``loss`` is what it gains."""
        return rung.loss is not None and rung.loss.sign < 0

    @extend_schema_field(LengthSerializer(allow_null=True))
    def get_loss(self, rung: Rung) -> dict[str, Any] | None:
        return None if rung.loss is None else length_out(abs(rung.loss), self.context.get("style") or Style())


class LadderTickSerializer(serializers.Serializer[Any]):
    """A mark of the rule; whole and half units (ranks 0 and 1) carry their figure."""

    figure = serializers.SerializerMethodField()
    at = serializers.FloatField()
    rank = serializers.IntegerField()

    def get_figure(self, tick: Tick) -> str | None:
        style: Style = self.context.get("style") or Style()
        return style.pretty(tick.size) if tick.rank <= 1 else None


class LadderSerializer(serializers.Serializer[Any]):
    """Positions are shares, 0 to 1, of the window from ``start`` to ``end``; ``head`` names the piece it begins with."""

    dimension = serializers.CharField()
    head = serializers.CharField()
    start = LengthAnswerField()
    end = LengthAnswerField()
    rungs = RungSerializer(many=True)
    ticks = LadderTickSerializer(many=True)


class SeamCostSerializer(serializers.Serializer[Any]):
    units = serializers.IntegerField()
    seams = serializers.IntegerField()
    slip = LengthAnswerField()
    cost = LengthAnswerField()
