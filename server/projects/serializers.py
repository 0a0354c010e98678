from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.fields import LengthField
from api.patches import Reader, change_of
from api.wire import (
    DrawingField,
    DrawingSerializer,
    LengthAnswerField,
    LengthSerializer,
    LengthsField,
    MessageField,
    length_out,
)
from piecing.drawings.unit import design_picture
from piecing.lengths import Measure
from piecing.messages import Message
from piecing.units import KINDS as CORE_KINDS
from piecing.units import kind_of
from workrooms.models import MEASURES

from .models import DIRECTIONS, VALUES, PlannedUnit
from .readers import fabric_readers, project_readers, unit_readers
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


class PlannedUnitSerializer(serializers.ModelSerializer[PlannedUnit]):
    """Every field a unit takes (``projects.readers.unit_readers``) and what follows: ``part_fabrics`` is the fabric of each part,
    ``picture`` the finished unit."""

    kind = serializers.ChoiceField(choices=KINDS)
    part_fabrics = serializers.ListField(child=serializers.CharField())
    cuts = LengthsField()
    blocks = serializers.SerializerMethodField()
    width_shown = serializers.SerializerMethodField()
    height_shown = serializers.SerializerMethodField()
    picture = serializers.SerializerMethodField()

    class Meta:
        model = PlannedUnit
        fields = ("id", *unit_readers(Measure.INCHES), "blocks", "width_shown", "height_shown", "picture")
        read_only_fields = fields

    def build_standard_field(self, field_name: str, model_field: Any) -> Any:
        if isinstance(model_field, LengthField):
            return LengthAnswerField, {"allow_null": model_field.null}
        return super().build_standard_field(field_name, model_field)

    @extend_schema_field(serializers.ListField(child=serializers.CharField()))
    def get_blocks(self, unit: PlannedUnit) -> list[str]:
        """The blocks that it is wanted for, by name; none when it was planned by hand."""
        return sorted({str(name) for name, _, _ in unit.of_blocks.values()})

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


class ProjectsAskedSerializer(serializers.Serializer[Any]):
    page = serializers.IntegerField(required=False, default=1, min_value=1, max_value=1_000_000)
    archived = serializers.BooleanField(required=False, default=False)


class DyeSerializer(serializers.Serializer[Any]):
    """What a picture needs of a fabric."""

    role = serializers.CharField()
    colour = serializers.CharField()


class ProjectLineSerializer(serializers.Serializer[Any]):
    """A project in the list; ``pictures`` are numbers of the page's pictures, counted from 0. ``trimmed`` of ``to_trim`` units are done."""

    id = serializers.UUIDField(source="project.pk")
    name = serializers.CharField(source="project.name")
    updated_at = serializers.DateTimeField(source="project.updated_at")
    said = MessageField()
    pictures = serializers.ListField(child=serializers.IntegerField())
    fabrics = DyeSerializer(many=True)
    trimmed = serializers.IntegerField()
    to_trim = serializers.IntegerField()


class ProjectPageSerializer(serializers.Serializer[Any]):
    """``count`` projects on so many ``pages``; ``others`` are in the archive, or out of it when that is what was asked for."""

    lines = ProjectLineSerializer(many=True)
    pictures = serializers.ListField(child=DrawingField())
    page = serializers.IntegerField()
    pages = serializers.IntegerField()
    count = serializers.IntegerField()
    others = serializers.IntegerField()


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


ProjectChangeSerializer = change_of("Project", project_readers(Measure.INCHES))
UnitChangeSerializer = change_of("Unit", unit_readers(Measure.INCHES))
FabricChangeSerializer = change_of("Fabric", {"role": Reader(str), **fabric_readers()})


class ExchangeSerializer(serializers.Serializer[Any]):
    """Two fabrics by their letters."""

    one = serializers.RegexField("^[a-z]$")
    other = serializers.RegexField("^[a-z]$")
