from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from common.ladders import LadderSerializer, SeamCostSerializer
from common.problems import FieldProblemSerializer, field_problem
from common.wire import AreaField, DrawingField, LengthField, SaidField
from projects.models import SCHOOLS, SIZE_BASES
from workrooms.models import MEASURES


class PlanRequestSerializer(serializers.Serializer[Any]):
    """The choices as typed; nothing is saved by asking."""

    measure = serializers.ChoiceField(choices=MEASURES)
    size_basis = serializers.ChoiceField(choices=SIZE_BASES)
    finished = serializers.CharField(allow_blank=True, max_length=200, trim_whitespace=False)
    block_finished = serializers.CharField(allow_blank=True, max_length=200, trim_whitespace=False)
    units_across = serializers.CharField(allow_blank=True, max_length=200)
    count = serializers.CharField(allow_blank=True, max_length=200)
    school = serializers.ChoiceField(choices=SCHOOLS)
    own_margin = serializers.CharField(allow_blank=True, max_length=200, required=False, default="")
    cut = serializers.CharField(allow_blank=True, max_length=200, required=False, default="")
    seam_allowance = serializers.CharField(allow_blank=True, max_length=200)
    stitch = serializers.CharField(allow_blank=True, max_length=200, required=False, default="")
    fold = serializers.CharField(allow_blank=True, max_length=200)
    ruler_step = serializers.CharField(allow_blank=True, max_length=200)


class NoteSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    said = SaidField()
    serious = serializers.BooleanField()


class CutPiecesSerializer(serializers.Serializer[Any]):
    role = serializers.CharField()
    count = serializers.IntegerField()
    size = LengthField()


class UnitPlanSerializer(serializers.Serializer[Any]):
    finished = LengthField()
    target = LengthField()
    cut = LengthField()
    raw = LengthField()
    margin = LengthField()
    take_up = LengthField(source="choices.seam.take_up")
    wanted = serializers.IntegerField(source="choices.count")
    batches = serializers.IntegerField()
    made = serializers.IntegerField()
    spare = serializers.IntegerField()
    pieces = CutPiecesSerializer(many=True)
    cloth = AreaField()
    trimmings = AreaField()
    waste_percent = serializers.SerializerMethodField()
    room_percent = serializers.SerializerMethodField()
    notes = NoteSerializer(many=True)

    def get_waste_percent(self, plan: Any) -> float:
        return round(100 * float(plan.waste_share), 1)

    def get_room_percent(self, plan: Any) -> float | None:
        """Rounded down, so that 99 is never said of less."""
        return None if plan.room is None else int(1000 * plan.room) / 10


class OfferSerializer(serializers.Serializer[Any]):
    school = serializers.ChoiceField(choices=SCHOOLS)
    plan = UnitPlanSerializer(allow_null=True)
    refusal = serializers.SerializerMethodField()

    def get_refusal(self, offer: Any) -> str | None:
        return None if offer.refusal is None else str(offer.refusal.said.text(self.context.get("style")))


class PicturesSerializer(serializers.Serializer[Any]):
    cut = DrawingField()
    sewn = DrawingField()
    corner = DrawingField()
    trimmed = DrawingField()


class PlannedSerializer(serializers.Serializer[Any]):
    plan = UnitPlanSerializer(allow_null=True)
    refusal = serializers.SerializerMethodField()
    offers = OfferSerializer(many=True)
    ladder = LadderSerializer(allow_null=True)
    pictures = PicturesSerializer(allow_null=True)
    seam_cost = SeamCostSerializer()

    @extend_schema_field(FieldProblemSerializer(allow_null=True))
    def get_refusal(self, planned: Any) -> dict[str, Any] | None:
        return None if planned.refusal is None else field_problem(planned.refusal, self.context["style"])


class RecipeStepSerializer(serializers.Serializer[Any]):
    title = SaidField()
    how = SaidField()
    look_for = SaidField()
    drawing = DrawingField()


class RecipeSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    title = SaidField()
    when = SaidField()
    ruler = SaidField()
    opens_to = LengthField()
    cautions = serializers.ListField(child=SaidField(), read_only=True)
    steps = RecipeStepSerializer(many=True)


class TrimSerializer(serializers.Serializer[Any]):
    target = LengthField()
    finished = LengthField()
    raw = LengthField()
    margin = LengthField()
    notes = NoteSerializer(many=True)
    recipes = RecipeSerializer(many=True)
