from typing import Any

from rest_framework import serializers

from common.wire import LengthField

from .models import MEASURES


class WorkroomSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField()
    name = serializers.CharField()
    measure = serializers.ChoiceField(choices=MEASURES)
    ruler_step = LengthField()
    reading_step = LengthField()
    seam_allowance = LengthField()


class ChangeSerializer(serializers.Serializer[Any]):
    """``changes``: field to new value as typed. ``seen``: what the writer last saw in those fields."""

    changes = serializers.DictField(child=serializers.JSONField(allow_null=True))
    seen = serializers.DictField(child=serializers.JSONField(allow_null=True), required=False, default=dict)
