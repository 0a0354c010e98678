from typing import Any

from rest_framework import serializers

from common.ladders import LadderSerializer, SeamCostSerializer
from common.wire import LengthField, SaidField

from .models import KINDS


class ReadingSerializer(serializers.Serializer[Any]):
    """A reading beside its target. ``read`` is the take-up of a strip test, else the value itself."""

    id = serializers.UUIDField(source="row.pk")
    kind = serializers.ChoiceField(choices=KINDS, source="row.kind")
    value = LengthField(source="row.value")
    row_units = serializers.IntegerField(source="row.row_units", allow_null=True)
    whole = LengthField(source="row.whole", allow_null=True)
    note = serializers.CharField(source="row.note")
    read = LengthField(source="comparison.read")
    target = LengthField(source="comparison.target")
    said = SaidField(source="comparison.said")
    off = serializers.BooleanField(source="comparison.off")
    dimension = serializers.CharField(allow_null=True)
    rung = serializers.CharField(allow_null=True)
    at = serializers.FloatField(allow_null=True)


class TargetSerializer(serializers.Serializer[Any]):
    kind = serializers.ChoiceField(choices=KINDS)
    target = LengthField()
    row_units = serializers.IntegerField(allow_null=True)


class CheckSerializer(serializers.Serializer[Any]):
    ladders = LadderSerializer(many=True)
    readings = ReadingSerializer(many=True)
    targets = TargetSerializer(many=True)
    seam_cost = SeamCostSerializer()


class WriteReadingSerializer(serializers.Serializer[Any]):
    """Fields as typed; ``seen`` holds what the writer last saw when changing a reading."""

    changes = serializers.DictField(child=serializers.JSONField(allow_null=True))
    seen = serializers.DictField(child=serializers.JSONField(allow_null=True), required=False, default=dict)


class SheetSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(max_length=1_000_000, trim_whitespace=False)


class RefusedLineSerializer(serializers.Serializer[Any]):
    line = serializers.IntegerField()
    text = serializers.CharField()
    reason = serializers.CharField()


class ImportedSerializer(serializers.Serializer[Any]):
    added = serializers.IntegerField()
    refused = RefusedLineSerializer(many=True)
