from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.wire import DrawingField, DrawingSerializer, LengthAnswerField, LengthSerializer, LengthsField, length_out
from piecing.drawings.unit import design_picture
from piecing.messages import Message
from piecing.units import KINDS as CORE_KINDS
from piecing.units import kind_of
from workrooms.models import MEASURES

from .models import DIRECTIONS, SCHOOLS, SIZE_BASES, VALUES, PlannedUnit
from .translate import spec_of

KINDS = [(k, k) for k in CORE_KINDS]


class FabricSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField()
    role = serializers.CharField()
    name = serializers.CharField()
    colour = serializers.CharField()
    value = serializers.ChoiceField(choices=VALUES)
    direction = serializers.ChoiceField(choices=DIRECTIONS)
    swatch = serializers.CharField(allow_blank=True)


class PlannedUnitSerializer(serializers.Serializer[Any]):
    """``part_fabrics`` is the fabric of each part; ``picture`` the finished unit."""

    id = serializers.UUIDField()
    kind = serializers.ChoiceField(choices=KINDS)
    method = serializers.CharField()
    size_basis = serializers.ChoiceField(choices=SIZE_BASES)
    finished = LengthAnswerField()
    height = LengthAnswerField(allow_null=True)
    block_finished = LengthAnswerField()
    units_across = serializers.IntegerField()
    part_fabrics = serializers.ListField(child=serializers.CharField())
    corner_0 = LengthAnswerField()
    corner_1 = LengthAnswerField()
    corner_2 = LengthAnswerField()
    corner_3 = LengthAnswerField()
    strip = LengthAnswerField()
    count = serializers.IntegerField()
    mirrored = serializers.IntegerField()
    school = serializers.ChoiceField(choices=SCHOOLS)
    own_margin = LengthAnswerField(allow_null=True)
    cuts = LengthsField()
    width_shown = serializers.SerializerMethodField()
    height_shown = serializers.SerializerMethodField()
    picture = serializers.SerializerMethodField()

    @extend_schema_field(LengthSerializer)
    def get_width_shown(self, unit: PlannedUnit) -> dict[str, Any]:
        return length_out(spec_of(unit).width, self.context["style"])

    @extend_schema_field(LengthSerializer)
    def get_height_shown(self, unit: PlannedUnit) -> dict[str, Any]:
        return length_out(spec_of(unit).height, self.context["style"])

    @extend_schema_field(DrawingSerializer)
    def get_picture(self, unit: PlannedUnit) -> dict[str, Any]:
        spec = spec_of(unit)
        drawing = design_picture(kind_of(spec.kind).design(spec), Message(""))
        return DrawingField().to_representation(drawing)


class ProjectSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField()
    name = serializers.CharField()
    measure = serializers.ChoiceField(choices=MEASURES)
    seam_allowance = LengthAnswerField()
    stitch = LengthAnswerField(allow_null=True)
    fold = LengthAnswerField()
    ruler_step = LengthAnswerField()
    reading_step = LengthAnswerField()
    archived = serializers.SerializerMethodField()
    deleted = serializers.SerializerMethodField()
    updated_at = serializers.DateTimeField()
    units = PlannedUnitSerializer(many=True)
    fabrics = FabricSerializer(many=True)

    def get_archived(self, project: Any) -> bool:
        return project.archived_at is not None

    def get_deleted(self, project: Any) -> bool:
        return project.deleted_at is not None


class NewProjectSerializer(serializers.Serializer[Any]):
    """``id`` is made by the caller, so that sending again after a lost answer makes nothing twice."""

    id = serializers.UUIDField()
    name = serializers.CharField(required=False, allow_blank=True, max_length=200)


class NewKeySerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField()


class NewUnitSerializer(serializers.Serializer[Any]):
    """A unit of a kind, or a copy of one in the project."""

    id = serializers.UUIDField()
    kind = serializers.CharField(required=False, default="half_square_triangle", max_length=60)
    copy_of = serializers.UUIDField(required=False, allow_null=True, default=None)
