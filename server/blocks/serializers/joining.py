"""In which order a block is joined, and how its seams are pressed."""

from typing import Any

from rest_framework import serializers

from api.wire import (
    DrawingField,
    LengthAnswerField,
    MessageField,
)

from ..models import ORDERS
from .blocks import BlockSizeSerializer


class OrderingSerializer(serializers.Serializer[Any]):
    order = serializers.ChoiceField(choices=ORDERS)
    said = MessageField()
    awkward = serializers.IntegerField()


class StepSerializer(serializers.Serializer[Any]):
    said = MessageField()
    width = LengthAnswerField()
    height = LengthAnswerField()
    crossings = serializers.IntegerField()


class JoinedSerializer(serializers.Serializer[Any]):
    """The proposed order first. Steps give sizes raw edge to raw edge."""

    orders = OrderingSerializer(many=True)
    order = serializers.ChoiceField(choices=ORDERS)
    steps = StepSerializer(many=True)
    block = BlockSizeSerializer(source="sizes.block")


class ConflictSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    said = MessageField()


class SeamWaySerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    way = serializers.CharField()


class CrossingSerializer(serializers.Serializer[Any]):
    """``x, y`` in parts; ``left, top`` as shares of the picture of the back. ``plain``: four seams between units meet, and could be spun."""

    x = serializers.FloatField()
    y = serializers.FloatField()
    left = serializers.FloatField()
    top = serializers.FloatField()
    spun = serializers.BooleanField()
    plain = serializers.BooleanField()


class WishesSerializer(serializers.Serializer[Any]):
    to_dark = serializers.BooleanField()
    from_bulk = serializers.BooleanField()
    layers = serializers.IntegerField(allow_null=True)
    repeats = serializers.BooleanField()
    spun = serializers.ListField(child=serializers.ListField(child=serializers.FloatField()))


class PressedSerializer(serializers.Serializer[Any]):
    order = serializers.ChoiceField(choices=ORDERS)
    front = DrawingField()
    back = DrawingField()
    second = DrawingField(allow_null=True)
    seams = SeamWaySerializer(many=True)
    crossings = CrossingSerializer(many=True)
    nested = serializers.IntegerField(source="map.nested")
    pairs = serializers.IntegerField(source="map.pairs")
    edge_nested = serializers.IntegerField(source="map.edge_nested")
    edge_pairs = serializers.IntegerField(source="map.edge_pairs")
    most_layers = serializers.IntegerField(source="map.most_layers")
    optimal = serializers.BooleanField(source="map.optimal")
    sound = serializers.BooleanField()
    conflicts = ConflictSerializer(many=True, source="map.conflicts")
    wishes = WishesSerializer()
