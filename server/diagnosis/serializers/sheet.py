"""The whole of a diagnosis, of a block and by hand."""

from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.ladders import LadderSerializer
from api.patches import patch_of
from api.wire import DrawingField
from measuring.translate import typed_readers
from piecing.lengths import Measure, hair
from projects.serializers import KINDS as UNIT_KINDS
from workrooms.models import MEASURES

from .fields import InchesField
from .places import PlacesSerializer, _places_told
from .readings import MisplacedSerializer, ReadingSerializer
from .verdict import (
    AskedSerializer,
    RemedySerializer,
    SavedSerializer,
    ScatterSerializer,
    SeenFaultSerializer,
    SeenSerializer,
    ShareSerializer,
    VerdictSerializer,
    WorkingSerializer,
)


class DiagnosisSerializer(serializers.Serializer[Any]):
    """A block, a kind of unit or sizes typed by hand, as the readings make it. ``before`` is the drawing without the remedy that
    is tried. ``expected``: nothing was read of seams, rows or tips, so that its faults rest on records and on what is usual."""

    drawing = DrawingField()
    before = DrawingField(allow_null=True)
    factor = serializers.FloatField()
    slider_step = serializers.SerializerMethodField()
    tried = serializers.CharField(allow_blank=True)
    places = serializers.SerializerMethodField()
    ladders = LadderSerializer(many=True)
    faults = SeenFaultSerializer(many=True)
    expected = serializers.BooleanField(source="found.expected")
    readings = ReadingSerializer(many=True, source="newest")
    earlier = serializers.IntegerField()
    elsewhere = serializers.SerializerMethodField()
    misplaced = serializers.SerializerMethodField()
    verdict = VerdictSerializer()
    seen = SeenSerializer(many=True, source="found.seen")
    odd = serializers.SerializerMethodField()
    lone = serializers.SerializerMethodField()
    scatter = serializers.SerializerMethodField()
    next = AskedSerializer(many=True)
    first = serializers.SerializerMethodField()
    this_block = RemedySerializer(many=True)
    the_batch = RemedySerializer(many=True)
    saved = SavedSerializer(many=True)

    def get_slider_step(self, _sheet: Any) -> float:
        """Inches: half a hair of this measure, what a slider of the what-if moves by."""
        return float(hair(self.context["style"].measure) / 2)

    def get_first(self, sheet: Any) -> str:
        """The title of what is done before anything else; empty when that is one more reading."""
        return sheet.first.title.text(self.context["style"]) if sheet.first is not None else ""

    def get_elsewhere(self, sheet: Any) -> int:
        """Readings taken elsewhere in the project that count here too."""
        return len(sheet.pool.elsewhere)

    @extend_schema_field(PlacesSerializer)
    def get_places(self, _sheet: Any) -> Any:
        return _places_told(self.context["model"], self.context["style"], self.context["of_row"])

    @extend_schema_field(MisplacedSerializer(many=True))
    def get_misplaced(self, sheet: Any) -> Any:
        rows = [{"id": r.pk, "kind": r.kind, "why": why} for r, why in sheet.pool.misplaced]
        return MisplacedSerializer(rows, many=True, context=self.context).data

    @extend_schema_field(serializers.ListField(child=serializers.CharField()))
    def get_odd(self, sheet: Any) -> list[str]:
        return [o.said.text(self.context["style"]) for o in sheet.found.odd]

    @extend_schema_field(serializers.ListField(child=serializers.CharField()))
    def get_lone(self, sheet: Any) -> list[str]:
        """Read again and found right: that one is off by itself."""
        return [o.said.text(self.context["style"]) for o in sheet.found.lone]

    @extend_schema_field(ScatterSerializer(many=True))
    def get_scatter(self, sheet: Any) -> Any:
        rows = [{"where": k, "times": round(v, 2)} for k, v in sheet.found.factors.items()]
        return ScatterSerializer(rows, many=True).data


class WorkingSheetSerializer(serializers.Serializer[Any]):
    shares = ShareSerializer(many=True)
    readings = WorkingSerializer(many=True)
    left_over = InchesField()


class AtWorkSerializer(serializers.Serializer[Any]):
    key = serializers.CharField()
    said = serializers.CharField()


@extend_schema_field(patch_of("TypedReading", typed_readers(Measure.INCHES))(many=True))
class _TypedReadings(serializers.ListField):
    """Read one by one, so that each is refused beside its line."""

    child = serializers.DictField(child=serializers.JSONField(allow_null=True))


class ByHandSerializer(serializers.Serializer[Any]):
    """A row of units without a project: sizes and readings as typed."""

    measure = serializers.ChoiceField(choices=MEASURES, default="in")
    kind = serializers.ChoiceField(choices=UNIT_KINDS, default="half_square_triangle")
    finished = serializers.CharField(max_length=40)
    units = serializers.IntegerField(min_value=2, max_value=20, default=4)
    seam_allowance = serializers.CharField(max_length=40, default="1/4")
    factor = serializers.FloatField(min_value=1, max_value=16, default=4)
    readings = _TypedReadings(max_length=5000, default=list)


class SymptomSerializer(serializers.Serializer[Any]):
    """What one sees; the further answers hang below it, in one flat list by ``under``."""

    code = serializers.CharField()
    under = serializers.CharField(allow_blank=True)
    said = serializers.CharField()
    question = serializers.CharField(allow_blank=True)
    because = serializers.CharField(allow_blank=True)
    measure = serializers.ListField(child=serializers.CharField())
    observe = serializers.CharField(allow_blank=True)
    picture = DrawingField()
    true_picture = DrawingField()
