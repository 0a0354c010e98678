from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.wire import LengthAnswerField

from .models import CUTTERS, MEASURES


class RulerSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField()
    name = serializers.CharField()
    width = LengthAnswerField()
    height = LengthAnswerField()
    corner_diagonal = serializers.BooleanField()
    border = LengthAnswerField()
    slotted = serializers.BooleanField()
    grooved = serializers.BooleanField()
    goose = serializers.BooleanField()


class WorkroomSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField()
    name = serializers.CharField()
    measure = serializers.ChoiceField(choices=MEASURES)
    ruler_step = LengthAnswerField()
    reading_step = LengthAnswerField()
    seam_allowance = LengthAnswerField()
    cutter = serializers.ChoiceField(choices=CUTTERS)
    needle_hours = serializers.IntegerField(allow_null=True)
    blade_cuts = serializers.IntegerField(allow_null=True)
    rulers = serializers.SerializerMethodField()

    @extend_schema_field(RulerSerializer(many=True))
    def get_rulers(self, room: Any) -> list[dict[str, Any]]:
        rows = room.rulers.filter(deleted_at=None)
        return list(RulerSerializer(rows, many=True, context=self.context).data)
