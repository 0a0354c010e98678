from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.ladders import LadderSerializer, SeamCostSerializer
from api.problems import FieldProblemSerializer, field_problem
from api.wire import (
    AreaField,
    DrawingField,
    DrawingSerializer,
    LengthAnswerField,
    LengthSerializer,
    LengthsField,
    MessageField,
    length_out,
)
from piecing.drawings.unit import design_picture
from piecing.lengths import Length, Measure, finest_mark, inches
from piecing.messages import Message
from piecing.overview.compare import Way
from piecing.trimming import Recipe, opened_said
from piecing.units import Kind, methods_of
from projects.models import SCHOOLS, SIZE_BASES
from projects.readers import SEAM_FIELDS, unit_readers
from projects.serializers import KINDS
from workrooms.models import MEASURES


class TypedField(serializers.CharField):
    """Something typed, kept as it was typed; empty by default."""

    def __init__(self, **kwargs: Any) -> None:
        usual: dict[str, Any] = {"allow_blank": True, "required": False, "default": "", "max_length": 200}
        super().__init__(trim_whitespace=False, **usual | kwargs)


class PlanRequestSerializer(serializers.Serializer[Any]):
    """The choices as typed, every field a unit takes and what the project says of its seams; nothing is saved by asking.

    ``names`` are what its fabrics are called, by role.
    """

    measure = serializers.ChoiceField(choices=MEASURES)
    kind = serializers.ChoiceField(choices=KINDS)
    method = serializers.CharField(max_length=60)
    size_basis = serializers.ChoiceField(choices=SIZE_BASES)
    part_fabrics = serializers.ListField(child=serializers.CharField(max_length=2), max_length=12)
    school = serializers.ChoiceField(choices=SCHOOLS)
    cuts = serializers.DictField(child=TypedField(allow_null=True), required=False, default=dict)
    names = serializers.DictField(child=serializers.CharField(max_length=80), required=False, default=dict)

    def get_fields(self) -> dict[str, Any]:
        fields = super().get_fields()
        typed = (*unit_readers(Measure.INCHES), *SEAM_FIELDS)
        return {**fields, **{f: TypedField() for f in typed if f not in fields}}


class CompareRequestSerializer(PlanRequestSerializer):
    """``at_hand``: pieces there are, such as "12 of 10 x 10; 5 x 5"."""

    at_hand = serializers.CharField(allow_blank=True, required=False, default="", max_length=2000)


class NoteSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    said = MessageField()
    serious = serializers.BooleanField()


class CutPieceSerializer(serializers.Serializer[Any]):
    role = serializers.CharField()
    name = serializers.CharField()
    width = LengthAnswerField()
    height = LengthAnswerField()
    square = serializers.BooleanField(source="is_square")
    count = serializers.IntegerField()
    gives = serializers.IntegerField()
    left_over = serializers.IntegerField()


class MarginsSerializer(serializers.Serializer[Any]):
    left = LengthAnswerField()
    right = LengthAnswerField()
    bottom = LengthAnswerField()
    top = LengthAnswerField()


class UnitPlanSerializer(serializers.Serializer[Any]):
    method = serializers.CharField(source="method.name")
    finished = LengthAnswerField(source="spec.width")
    finished_height = LengthAnswerField(source="spec.height")
    target = LengthAnswerField(source="target_width")
    target_height = LengthAnswerField()
    square = serializers.BooleanField(source="spec.is_square")
    cuts = LengthsField()
    raw = LengthAnswerField(source="raw_width")
    raw_height = LengthAnswerField()
    margin = LengthAnswerField()
    margins = MarginsSerializer()
    take_up = LengthAnswerField()
    wanted = serializers.IntegerField()
    batches = serializers.IntegerField()
    made = serializers.IntegerField()
    made_as_drawn = serializers.IntegerField()
    made_mirrored = serializers.IntegerField()
    handed = serializers.BooleanField()
    spare = serializers.IntegerField()
    pieces = CutPieceSerializer(many=True)
    told_apart = serializers.BooleanField()
    cloth = AreaField()
    waste_percent = serializers.SerializerMethodField()
    room_percent = serializers.SerializerMethodField()
    notes = NoteSerializer(many=True)

    def get_waste_percent(self, plan: Any) -> float:
        return float(round(100 * plan.waste_share, 1))

    def get_room_percent(self, plan: Any) -> float | None:
        """Rounded down, so that 99 is never said of less."""
        return None if plan.room is None else int(1000 * plan.room) / 10


class OfferSerializer(serializers.Serializer[Any]):
    school = serializers.ChoiceField(choices=SCHOOLS)
    plan = UnitPlanSerializer(allow_null=True)
    refusal = serializers.SerializerMethodField()

    def get_refusal(self, offer: Any) -> str | None:
        return None if offer.refusal is None else str(offer.refusal.said.text(self.context.get("style")))


class StagePictureSerializer(serializers.Serializer[Any]):
    title = MessageField()
    drawing = DrawingField()


class PicturesSerializer(serializers.Serializer[Any]):
    stages = StagePictureSerializer(many=True)
    sewn = DrawingField()
    corner = DrawingField()
    trimmed = DrawingField()


class PlannedSerializer(serializers.Serializer[Any]):
    plan = UnitPlanSerializer(allow_null=True)
    refusal = serializers.SerializerMethodField()
    offers = OfferSerializer(many=True)
    ladders = LadderSerializer(many=True)
    pictures = PicturesSerializer(allow_null=True)
    design = DrawingField()
    seam_cost = SeamCostSerializer()
    on_the_way = serializers.ListField(child=MessageField())

    @extend_schema_field(FieldProblemSerializer(allow_null=True))
    def get_refusal(self, planned: Any) -> dict[str, Any] | None:
        return None if planned.refusal is None else field_problem(planned.refusal, self.context["style"])


class WaySerializer(serializers.Serializer[Any]):
    """One method under one school, with what is cut and sewn for all units wanted."""

    method = serializers.CharField(source="method.name")
    school = serializers.ChoiceField(choices=SCHOOLS)
    refusal = serializers.SerializerMethodField()
    cuts = serializers.SerializerMethodField()
    margin = serializers.SerializerMethodField()
    margin_rank = serializers.SerializerMethodField()
    margins = MarginsSerializer(source="plan.margins", default=None)
    cloth = AreaField(source="plan.cloth", default=None)
    waste_percent = serializers.SerializerMethodField()
    pieces = serializers.IntegerField(source="in_all.pieces")
    seams = serializers.IntegerField(source="in_all.seams")
    sewn = serializers.SerializerMethodField()
    cuts_apart = serializers.IntegerField(source="in_all.cuts_apart")
    bias_percent = serializers.SerializerMethodField()
    loose_bias = serializers.BooleanField()
    hands = serializers.CharField()
    handed = serializers.BooleanField(source="plan.handed", default=False)
    made_as_drawn = serializers.IntegerField(source="plan.made_as_drawn", default=0)
    made_mirrored = serializers.IntegerField(source="plan.made_mirrored", default=0)
    room_percent = serializers.SerializerMethodField()
    at_hand = serializers.IntegerField(allow_null=True)
    largest = LengthAnswerField(allow_null=True)
    ruler = serializers.SerializerMethodField()
    drawbacks = serializers.ListField(child=MessageField(), read_only=True)

    def get_refusal(self, way: Way) -> str | None:
        return None if way.refusal is None else way.refusal.said.text(self.context["style"])

    @extend_schema_field(LengthSerializer(allow_null=True))
    def get_margin(self, way: Way) -> dict[str, Any] | None:
        """To the nearest mark: finer than that nobody trims."""
        if way.plan is None:
            return None
        mark = finest_mark(way.plan.choices.ruler_step)
        return length_out(way.plan.margin.round_near(mark), self.context["style"])

    @extend_schema_field(LengthsField())
    def get_cuts(self, way: Way) -> dict[str, Any]:
        style = self.context["style"]
        return {} if way.plan is None else {name: length_out(size, style) for name, size in way.plan.cuts.items()}

    def get_margin_rank(self, way: Way) -> int:
        """For sorting: how many ways leave less on their tightest side; -1 for one that cannot be planned."""
        ranked: list[Length] = self.context["margins"]
        return -1 if way.plan is None else sum(m < way.plan.margin for m in ranked)

    def get_waste_percent(self, way: Way) -> float:
        return round(100 * way.waste_share, 1)

    @extend_schema_field(LengthSerializer)
    def get_sewn(self, way: Way) -> dict[str, Any]:
        return length_out(Length.near(way.in_all.sewn).round_up(inches(1)), self.context["style"])

    def get_bias_percent(self, way: Way) -> int:
        return round(100 * way.bias_outside)

    def get_room_percent(self, way: Way) -> float | None:
        return None if way.plan is None or way.plan.room is None else int(1000 * way.plan.room) / 10

    def get_ruler(self, way: Way) -> str | None:
        """The ruler of yours that trims it; empty when none does, null when you listed none."""
        return None if way.ruler is None else way.ruler.ruler.name if way.ruler.ruler else ""


class ComparisonSerializer(serializers.Serializer[Any]):
    """The recommended way first, with its reason."""

    ways = WaySerializer(many=True)
    reason = MessageField(allow_null=True)


class RecipeStepSerializer(serializers.Serializer[Any]):
    title = MessageField()
    how = MessageField()
    look_for = MessageField()
    drawing = DrawingField()


class RecipeSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    title = MessageField()
    when = MessageField()
    ruler = MessageField()
    opens = serializers.SerializerMethodField()
    warnings = NoteSerializer(many=True)
    cautions = serializers.ListField(child=MessageField(), read_only=True)
    steps = RecipeStepSerializer(many=True)

    def get_opens(self, recipe: Recipe) -> str | None:
        """Where the unit opens to another size than the ``target`` of the context, which."""
        if "target" not in self.context:
            return None
        said = opened_said(recipe.opens_to, self.context["target"])
        return None if said is None else said.text(self.context["style"])


class TruthMarkSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    side = serializers.CharField()
    distance = LengthAnswerField()


class ExpectationSerializer(serializers.Serializer[Any]):
    marks = TruthMarkSerializer(many=True)
    says = MessageField()
    reassures = MessageField(allow_null=True)
    true = DrawingField()
    slipped = DrawingField()
    slip = LengthAnswerField()


class TrimSerializer(serializers.Serializer[Any]):
    """``margin_read`` is what the raw units measured so far leave a side."""

    target = LengthAnswerField(source="shown.target_width")
    target_height = LengthAnswerField(source="shown.target_height")
    square = serializers.BooleanField(source="shown.spec.is_square")
    finished = LengthAnswerField(source="shown.spec.width")
    raw = LengthAnswerField(source="shown.raw_width")
    margin = LengthAnswerField(source="shown.margin")
    margins = MarginsSerializer(source="shown.margins")
    room_percent = serializers.SerializerMethodField()
    notes = NoteSerializer(source="shown.notes", many=True)
    cutter = serializers.CharField()
    on_the_way = serializers.ListField(child=MessageField())
    recipes = RecipeSerializer(many=True)
    expectation = ExpectationSerializer()
    margin_read = LengthAnswerField(allow_null=True)
    raw_readings = serializers.IntegerField()

    def get_room_percent(self, trim: Any) -> float | None:
        return None if trim.shown.room is None else int(1000 * trim.shown.room) / 10


class KindSerializer(serializers.Serializer[Any]):
    """A kind of unit there is: its parts in order, its ways of being made, and its picture."""

    name = serializers.CharField()
    parts = serializers.ListField(child=serializers.CharField())
    usual = serializers.CharField()
    methods = serializers.SerializerMethodField()
    free_height = serializers.BooleanField()
    has_strip = serializers.BooleanField()
    has_corners = serializers.BooleanField()
    picture = serializers.SerializerMethodField()

    def get_methods(self, kind: Kind) -> list[str]:
        return [m.name for m in methods_of(kind.name)]

    @extend_schema_field(DrawingSerializer)
    def get_picture(self, kind: Kind) -> dict[str, Any]:
        spec = kind.usual_spec(Length.of(4))
        return DrawingField().to_representation(design_picture(kind.design(spec), Message("")))
