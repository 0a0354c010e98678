"""How many units and pieces the blocks take."""

from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.problems import FieldProblemSerializer
from api.wire import (
    AreaField,
    DrawingField,
    LengthAnswerField,
)
from piecing.drawings.unit import design_picture
from piecing.messages import Message
from piecing.units import kind_of
from planning.serializers import UnitPlanSerializer
from projects.models import SCHOOLS
from projects.serializers import KINDS

from .blocks import RefusalSerializer
from .quilt import MakingSerializer


class CountedSerializer(RefusalSerializer):
    kind = serializers.ChoiceField(choices=KINDS, source="unit.spec.kind")
    width = LengthAnswerField(source="unit.spec.width")
    height = LengthAnswerField(source="unit.spec.height")
    square = serializers.BooleanField(source="unit.spec.is_square")
    part_fabrics = serializers.ListField(child=serializers.CharField(), source="unit.spec.part_fabrics")
    as_drawn = serializers.IntegerField(source="unit.as_drawn")
    mirrored = serializers.IntegerField(source="unit.mirrored")
    handed = serializers.BooleanField(source="unit.handed")
    blocks = serializers.ListField(child=serializers.CharField(), source="unit.blocks")
    spares = serializers.IntegerField()
    method = serializers.CharField()
    school = serializers.ChoiceField(choices=SCHOOLS)
    picture = serializers.SerializerMethodField()
    plan = UnitPlanSerializer(allow_null=True)
    refusal = serializers.SerializerMethodField()

    @extend_schema_field(DrawingField())
    def get_picture(self, counted: Any) -> dict[str, Any]:
        spec = counted.unit.spec
        return DrawingField().to_representation(design_picture(kind_of(spec.kind).design(spec), Message("")))

    @extend_schema_field(FieldProblemSerializer(allow_null=True))
    def get_refusal(self, counted: Any) -> dict[str, Any] | None:
        return self.refusal_data(counted.refusal)


class CountsSerializer(RefusalSerializer):
    units = CountedSerializer(many=True)
    blocks = serializers.IntegerField()
    total = serializers.IntegerField()
    cloth = AreaField()
    makings = serializers.DictField(child=MakingSerializer(), source="quilt.makings")
    spare_percent = serializers.IntegerField(source="quilt.spare_percent")
    spare_number = serializers.IntegerField(source="quilt.spare_number")
    refusal = serializers.SerializerMethodField()

    @extend_schema_field(FieldProblemSerializer(allow_null=True))
    def get_refusal(self, counts: Any) -> dict[str, Any] | None:
        return self.refusal_data(counts.refusal)
