"""A block: its layout, its sizes, and what is kept of it."""

from typing import Any
from weakref import WeakKeyDictionary

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.problems import FieldProblemSerializer, field_problem
from api.wire import (
    DrawingField,
    FlatSerializer,
    LengthAnswerField,
    LengthSerializer,
    MessageField,
    length_out,
)
from piecing.lengths import Style

from ..models import ORDERS
from ..selectors import LaidBlock
from ..wire import EditField, PatternField, PressingField


def _sound_edit(value: Any) -> Any:
    if not isinstance(value, dict):
        raise serializers.ValidationError("A change is an object that says what to do.")
    return value


class EditRequestSerializer(serializers.Serializer[Any]):
    """One change to a layout."""

    edit = EditField()

    def validate_edit(self, value: Any) -> Any:
        return _sound_edit(value)


class LookRequestSerializer(serializers.Serializer[Any]):
    """A layout, and one change to it if any; nothing is saved by asking."""

    block = serializers.UUIDField(required=False, allow_null=True, default=None)
    pattern = PatternField()
    finished = serializers.CharField(max_length=60, trim_whitespace=False, allow_blank=True)
    edit = EditField(required=False, default=None, allow_null=True)

    def validate_edit(self, value: Any) -> Any:
        return value if value is None else _sound_edit(value)


class TrackSerializer(FlatSerializer):
    """A column or row, ``share`` of the whole."""

    name = serializers.CharField()
    finished = LengthAnswerField()
    on_step = serializers.BooleanField()
    share = serializers.FloatField()


class NearSizeSerializer(serializers.Serializer[Any]):
    finished = LengthAnswerField()
    step = LengthAnswerField()
    larger = serializers.BooleanField()


class OddUnitSerializer(serializers.Serializer[Any]):
    place = serializers.CharField()
    said = MessageField()
    serious = serializers.BooleanField()


class BlockSizeSerializer(serializers.Serializer[Any]):
    finished = LengthAnswerField()
    finished_height = LengthAnswerField()
    unfinished = LengthAnswerField()
    unfinished_height = LengthAnswerField()


class UnitSizeSerializer(serializers.Serializer[Any]):
    width = LengthAnswerField()
    height = LengthAnswerField()
    count = serializers.IntegerField()


class BlockSizesSerializer(serializers.Serializer[Any]):
    """``nearest``: sizes at which every track and unit falls on a mark."""

    block = BlockSizeSerializer()
    columns = TrackSerializer(many=True)
    rows = TrackSerializer(many=True)
    unit_sizes = serializers.SerializerMethodField()
    off_step = TrackSerializer(many=True)
    nearest = NearSizeSerializer(many=True)
    odd = OddUnitSerializer(many=True)

    @extend_schema_field(UnitSizeSerializer(many=True))
    def get_unit_sizes(self, sizes: Any) -> list[dict[str, Any]]:
        style = self.context["style"]
        return [
            {"width": length_out(w, style), "height": length_out(h, style), "count": n} for w, h, n in sizes.unit_sizes
        ]


class SpotSerializer(FlatSerializer):
    """One place; ``box`` is left, top, width, height as shares of the picture, ``lies`` counts in ``lying`` from 0."""

    column = serializers.IntegerField()
    row = serializers.IntegerField()
    across = serializers.IntegerField()
    down = serializers.IntegerField()
    box = serializers.ListField(child=serializers.FloatField(), min_length=4, max_length=4)
    lies = serializers.IntegerField()


class LyingSerializer(FlatSerializer):
    """What lies in one place or in many alike. ``content`` is a kind or a block's key, empty in an empty place."""

    content = serializers.CharField(allow_blank=True)
    name = serializers.CharField(allow_blank=True)
    part_fabrics = serializers.ListField(child=serializers.CharField())
    parts = serializers.ListField(child=serializers.CharField())
    corners = serializers.ListField(child=serializers.CharField())
    strip = serializers.CharField(allow_blank=True)
    turn = serializers.IntegerField()
    mirrored = serializers.BooleanField()
    width = serializers.SerializerMethodField()
    height = serializers.SerializerMethodField()

    @extend_schema_field(LengthSerializer)
    def get_width(self, lying: Any) -> dict[str, Any]:
        return length_out(lying.size[0], self.context["style"])

    @extend_schema_field(LengthSerializer)
    def get_height(self, lying: Any) -> dict[str, Any]:
        return length_out(lying.size[1], self.context["style"])


class RefusalSerializer(serializers.Serializer[Any]):
    """A core refusal told beside what could be worked out."""

    def refusal_data(self, refusal: Any) -> dict[str, Any] | None:
        return None if refusal is None else field_problem(refusal, self.context["style"])


_told: WeakKeyDictionary[LaidBlock, dict[Style, Any]] = WeakKeyDictionary()


class BlockViewSerializer(RefusalSerializer):
    pattern = PatternField()
    name = serializers.CharField()
    columns = serializers.CharField()
    rows = serializers.CharField()
    picture = DrawingField()
    spots = SpotSerializer(many=True)
    lying = LyingSerializer(many=True)
    empty = serializers.ListField(child=serializers.CharField())
    roles = serializers.ListField(child=serializers.CharField())
    sizes = BlockSizesSerializer()
    cannot = serializers.SerializerMethodField()

    @extend_schema_field(FieldProblemSerializer(allow_null=True))
    def get_cannot(self, view: Any) -> dict[str, Any] | None:
        return self.refusal_data(view.cannot)

    def to_representation(self, instance: LaidBlock) -> Any:
        """Told once as long as the layout is remembered: a quilt tells all its blocks whatever is changed round them."""
        told = _told.setdefault(instance, {})
        style = self.context["style"]
        if style not in told:
            told[style] = super().to_representation(instance)
        return told[style]


class LibraryBlockSerializer(serializers.Serializer[Any]):
    key = serializers.CharField()
    own = serializers.BooleanField()
    pattern = PatternField()
    name = serializers.CharField()
    columns = serializers.IntegerField()
    rows = serializers.IntegerField()
    picture = DrawingField()
    kinds = serializers.ListField(child=serializers.CharField())


class ColourwaySerializer(serializers.Serializer[Any]):
    count = serializers.IntegerField()
    roles = serializers.DictField(child=serializers.CharField())


class SavedBlockSerializer(serializers.Serializer[Any]):
    """A block of the project with its layout worked out."""

    id = serializers.UUIDField(source="block.pk")
    part = serializers.CharField(source="block.part", allow_blank=True)
    finished = LengthAnswerField(source="block.finished")
    colourways = ColourwaySerializer(many=True, source="block.colourways")
    order = serializers.ChoiceField(choices=ORDERS, allow_blank=True, source="block.order")
    pressing = PressingField(source="block.pressing")
    view = BlockViewSerializer()


class EditedBlockSerializer(serializers.Serializer[Any]):
    """A block after a change to its layout."""

    project = serializers.UUIDField()
    block = SavedBlockSerializer()


class NewBlockSerializer(serializers.Serializer[Any]):
    """``start``: the key of the arrangement a new block begins with; empty for an empty grid."""

    start = serializers.CharField(max_length=80, required=False, allow_blank=True, default="")
    changes = serializers.DictField(child=serializers.JSONField(allow_null=True), required=False, default=dict)
    seen = serializers.DictField(child=serializers.JSONField(allow_null=True), required=False, default=dict)


class OwnRequestSerializer(serializers.Serializer[Any]):
    block = serializers.UUIDField()
