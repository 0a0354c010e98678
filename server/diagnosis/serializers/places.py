"""The places of a block where something is read."""

from functools import lru_cache
from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.wire import MessageField
from piecing.diagnosis.causes import parameters_of
from piecing.diagnosis.model import BlockModel
from piecing.diagnosis.names import feature_name, landings
from piecing.diagnosis.places import batch_name
from piecing.diagnosis.reading_kinds import ReadingKind, kinds_offered
from piecing.diagnosis.said import cause_name
from piecing.lengths import Style

from .fields import CAUSES, InchesField, PointField


class ParameterSerializer(serializers.Serializer[Any]):
    key = serializers.CharField()
    cause = serializers.ChoiceField(choices=CAUSES)
    batch = serializers.IntegerField()
    name = serializers.SerializerMethodField()

    def get_name(self, p: Any) -> str:
        return cause_name(self.context["model"], p).text()


class BatchSerializer(serializers.Serializer[Any]):
    number = serializers.IntegerField()
    key = serializers.CharField()
    kind = serializers.CharField()
    name = serializers.SerializerMethodField()
    oblong = serializers.SerializerMethodField()
    count = serializers.IntegerField()
    tips = serializers.BooleanField()
    tip_sides = serializers.SerializerMethodField()
    corners = serializers.BooleanField()
    plain = serializers.BooleanField()

    def get_tip_sides(self, b: Any) -> list[str]:
        return list(self.context["model"].places.tip_sides(b))

    def get_name(self, b: Any) -> str:
        return batch_name(self.context["model"].places, b.number)

    def get_oblong(self, b: Any) -> bool:
        return bool(b.spec.width != b.spec.height)


class LandingSerializer(serializers.Serializer[Any]):
    """One of the sides that a reading may lie on, as it is picked."""

    code = serializers.CharField()
    said = MessageField()


class CornerSerializer(serializers.Serializer[Any]):
    corner = serializers.CharField()
    landings = LandingSerializer(many=True)


class CellSerializer(serializers.Serializer[Any]):
    """A unit to pick on the drawing; ``box`` is left, top, width, height."""

    number = serializers.IntegerField()
    key = serializers.CharField()
    name = serializers.CharField()
    batch = serializers.IntegerField()
    across = serializers.BooleanField()
    box = serializers.ListField(child=serializers.FloatField())
    corners = CornerSerializer(many=True)
    tips = serializers.ListField(child=serializers.CharField())

    def to_representation(self, c: Any) -> dict[str, Any]:
        # Written out by hand: a block has thousands of them.
        places = self.context["model"].places
        left, bottom, right, top = c.box
        corners = [f"{t.down} {t.across}" for t in places.corner_tips_of.get(c.number, ())]
        return {
            "number": c.number,
            "key": c.key,
            "name": c.name,
            "batch": c.batch,
            "across": c.orientation.across,
            "box": [round(v, 4) for v in (left, -top, right - left, top - bottom)],
            "corners": [{"corner": corner, "landings": _landings_told(ReadingKind.MISS, corner)} for corner in corners],
            "tips": [t.side for t in places.edge_tips_of.get(c.number, ())],
        }


class SeamSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    upright = serializers.BooleanField()
    start = PointField()
    end = PointField()
    pressed_open = serializers.SerializerMethodField()

    def get_pressed_open(self, s: Any) -> bool:
        model = self.context["model"]
        return bool(model.folds[model.places.seam(s.name)] < 1)


class FeatureSerializer(serializers.Serializer[Any]):
    key = serializers.CharField()
    kind = serializers.CharField()
    name = serializers.CharField()
    at = PointField()
    nominal = InchesField()
    landings = LandingSerializer(many=True)

    def to_representation(self, f: Any) -> dict[str, Any]:
        # Written out by hand: a block has thousands of them.
        model, fields = self.context["model"], self.fields
        upright = f.seam >= 0 and model.places.seams[f.seam].upright
        return {
            "key": f.key,
            "kind": f.kind.value,
            "name": str(feature_name(model, model.find(f.key)).text(self.context["style"])),
            "at": fields["at"].to_representation(f.at),
            "nominal": fields["nominal"].to_representation(f.nominal),
            "landings": _landings_told(ReadingKind(f.kind.value), f.edge if " " in f.edge else "", upright),
        }


@lru_cache(maxsize=256)
def _landings_told(kind: ReadingKind, corner: str, upright: bool = False) -> list[dict[str, str]]:
    return [{"code": x.code, "said": x.said.text()} for x in landings(kind, corner, upright=upright)]


class PlacesSerializer(serializers.Serializer[Any]):
    """What can be picked and measured."""

    batches = BatchSerializer(many=True)
    cells = CellSerializer(many=True)
    seams = SeamSerializer(many=True)
    features = serializers.SerializerMethodField()
    parameters = serializers.SerializerMethodField()
    kinds = serializers.SerializerMethodField()

    def get_kinds(self, _places: Any) -> list[str]:
        """What can be read here, in the order of the work."""
        return [k.value for k in kinds_offered(self.context["model"], of_row=self.context["of_row"])]

    @extend_schema_field(FeatureSerializer(many=True))
    def get_features(self, _places: Any) -> Any:
        return FeatureSerializer(self.context["model"].features, many=True, context=self.context).data

    @extend_schema_field(ParameterSerializer(many=True))
    def get_parameters(self, _places: Any) -> Any:
        return ParameterSerializer(self.context["parameters"], many=True, context=self.context).data


@lru_cache(maxsize=32)
def _places_told(model: BlockModel, style: Style, of_row: bool) -> Any:
    """The same for every answer about one block, however many readings there are."""
    context = {"model": model, "parameters": parameters_of(model), "style": style, "of_row": of_row}
    return PlacesSerializer(model.places, context=context).data
