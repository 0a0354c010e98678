from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.wire import LengthAnswerField, MessageField
from piecing.quilts.measured import Fate, borne_said

from .whole import MeasuredSheet


class MeasuredOneSerializer(serializers.Serializer[Any]):
    """One finished block by its number, with the names of its readings."""

    number = serializers.IntegerField()
    width = LengthAnswerField(source="width.value", allow_null=True, default=None)
    height = LengthAnswerField(source="height.value", allow_null=True, default=None)
    width_reading = serializers.UUIDField(source="width.pk", allow_null=True, default=None)
    height_reading = serializers.UUIDField(source="height.pk", allow_null=True, default=None)


class BlockFateSerializer(serializers.Serializer[Any]):
    name = serializers.CharField(source="block.name")
    fate = serializers.ChoiceField(choices=[f.value for f in Fate], source="fate.value")
    said = MessageField()


class CommonSizeSerializer(serializers.Serializer[Any]):
    """All blocks brought to this size; ``counts`` how many meet each fate."""

    width = LengthAnswerField()
    height = LengthAnswerField()
    counts = serializers.SerializerMethodField()
    fates = BlockFateSerializer(many=True)

    @extend_schema_field(serializers.DictField(child=serializers.IntegerField()))
    def get_counts(self, size: Any) -> dict[str, int]:
        return {f.value: size.count(f) for f in Fate if size.count(f)}


class CommonSizesSerializer(serializers.Serializer[Any]):
    smallest = CommonSizeSerializer()
    planned = CommonSizeSerializer()
    best = CommonSizeSerializer()


class MeasuredKindSerializer(serializers.Serializer[Any]):
    block = serializers.UUIDField(source="key")
    name = serializers.CharField()
    count = serializers.IntegerField()
    width = LengthAnswerField()
    height = LengthAnswerField()
    ones = MeasuredOneSerializer(many=True)
    measured = serializers.ListField(child=serializers.IntegerField())
    sizes = CommonSizesSerializer(allow_null=True)
    numbering = MessageField(allow_null=True)


class MeasuredQuiltSerializer(serializers.Serializer[Any]):
    """Finished; ``within`` how far off it may be either way, nine times in ten; ``by`` what it is reckoned from."""

    width = LengthAnswerField()
    height = LengthAnswerField()
    width_within = LengthAnswerField()
    height_within = LengthAnswerField()
    by = MessageField()
    why = MessageField(allow_null=True)


class TopReadingSerializer(serializers.Serializer[Any]):
    """One place where the top is measured, raw edge to raw edge; ``stale`` when the quilt has been planned otherwise since."""

    key = serializers.CharField()
    where = MessageField()
    planned = LengthAnswerField()
    value = LengthAnswerField(allow_null=True)
    stale = serializers.BooleanField()
    note = MessageField(allow_null=True)


class TopStepSerializer(serializers.Serializer[Any]):
    key = serializers.CharField()
    title = MessageField()
    how = MessageField()
    readings = TopReadingSerializer(many=True)
    said = serializers.ListField(child=MessageField())


class MeasuredSheetSerializer(serializers.Serializer[Any]):
    """``places`` say which block lies where, row by row as the quilt is seen; ``unlike`` is what neighbours differ in all, ``before`` in the order of their
    numbers, ``least`` what no arrangement goes below."""

    kinds = MeasuredKindSerializer(many=True)
    refusal = MessageField(source="refusal.said", allow_null=True, default=None)
    waiting = MessageField(allow_null=True)
    places = serializers.ListField(child=serializers.ListField(child=serializers.CharField()), source="rows")
    unlike = LengthAnswerField(allow_null=True)
    before = LengthAnswerField(allow_null=True)
    least = LengthAnswerField(allow_null=True)
    quilt = MeasuredQuiltSerializer(allow_null=True)
    top = TopStepSerializer(many=True)
    borne = serializers.SerializerMethodField()

    def get_borne(self, _sheet: MeasuredSheet) -> str:
        return borne_said().text(self.context["style"])
