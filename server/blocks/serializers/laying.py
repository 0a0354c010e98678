"""What is laid by rule: samplers, sashing of several strips, scraps."""

from typing import Any

from rest_framework import serializers

from piecing.quilts.by_rule import StripCrossing


class SamplerSerializer(serializers.Serializer[Any]):
    """Blocks of several sizes in rows: how many of each by its key, how wide the rows finish, the strip between."""

    numbers = serializers.DictField(child=serializers.CharField(max_length=60, allow_blank=True))
    width = serializers.CharField(max_length=60, allow_blank=True)
    gap = serializers.CharField(max_length=60, allow_blank=True, default="")
    fabric = serializers.RegexField("^[a-z]$")


class SashStripSerializer(serializers.Serializer[Any]):
    """One strip of a sash: what it finishes, and its fabric."""

    width = serializers.CharField(max_length=60, allow_blank=True)
    fabric = serializers.RegexField("^[a-z]$")


class SashingSerializer(serializers.Serializer[Any]):
    """Blocks in straight rows with sashes of several strips: those between columns from left to right, between rows from top to bottom,
    and what lies where they cross."""

    columns = serializers.CharField(max_length=60, allow_blank=True)
    rows = serializers.CharField(max_length=60, allow_blank=True)
    across = SashStripSerializer(many=True)
    down = SashStripSerializer(many=True)
    crossing = serializers.ChoiceField(choices=[c.value for c in StripCrossing])
    cornerstone = serializers.RegexField("^[a-z]$")
    outside = serializers.BooleanField()


class ScrapsRequestSerializer(serializers.Serializer[Any]):
    """``fixed`` holds fabrics by the number of a place; ``order`` runs from 0, at random, to 100, light to dark;
    in matched ``sets`` all units of a block are of one fabric. A ``role`` of two letters asks for pairs: all of a block from one
    pair, ``stock`` and ``fixed`` by the two letters of a pair, counted in blocks."""

    role = serializers.RegexField("^[a-z]{1,2}$")
    stock = serializers.DictField(child=serializers.CharField(max_length=8))
    fixed = serializers.DictField(child=serializers.RegexField("^[a-z]{1,2}$"), required=False, default=dict)
    order = serializers.IntegerField(min_value=0, max_value=100, required=False, default=0)
    seed = serializers.IntegerField(min_value=0, max_value=1_000_000, required=False, default=1)
    corners = serializers.BooleanField(required=False, default=False)
    sets = serializers.BooleanField(required=False, default=False)


class ScrapSpotSerializer(serializers.Serializer[Any]):
    """A place that takes a scrap: its number is its place in the list, ``spot`` that of its block in the quilt; ``box`` as shares of the
    quilt's picture."""

    name = serializers.CharField()
    spot = serializers.IntegerField()
    box = serializers.ListField(child=serializers.FloatField(), min_length=4, max_length=4)


class ScrapSettingSerializer(serializers.Serializer[Any]):
    role = serializers.CharField()
    places = ScrapSpotSerializer(many=True)
