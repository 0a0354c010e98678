"""A project begun from a block, a unit or a quilt."""

from typing import Any

from rest_framework import serializers

from projects.serializers import KINDS


class BeginUnitSerializer(serializers.Serializer[Any]):
    kind = serializers.ChoiceField(choices=KINDS)
    finished = serializers.CharField(allow_blank=True, max_length=60)
    count = serializers.CharField(allow_blank=True, max_length=60)


class BeginBlockSerializer(serializers.Serializer[Any]):
    """``start`` is an arrangement of the library."""

    start = serializers.CharField(max_length=80)
    finished = serializers.CharField(allow_blank=True, max_length=60)
    count = serializers.CharField(required=False, default="", allow_blank=True, max_length=60)


class BeginBorderSerializer(serializers.Serializer[Any]):
    width = serializers.CharField(allow_blank=True, max_length=60)
    fabric = serializers.CharField(max_length=2)


class BeginQuiltSerializer(serializers.Serializer[Any]):
    """Of so many blocks, or about ``wide`` by ``high``."""

    wide = serializers.CharField(required=False, default="", allow_blank=True, max_length=60)
    high = serializers.CharField(required=False, default="", allow_blank=True, max_length=60)
    sash = serializers.CharField(required=False, allow_blank=True, max_length=60)
    sash_fabric = serializers.CharField(required=False, max_length=2)
    borders = BeginBorderSerializer(many=True, required=False)
    binding_fabric = serializers.CharField(required=False, max_length=2)


class BeginningSerializer(serializers.Serializer[Any]):
    """What a project begins with: a unit, a block, or a quilt of a block. ``fabrics`` by name, in the order of their letters."""

    id = serializers.UUIDField()
    name = serializers.CharField(required=False, default="", allow_blank=True, max_length=200)
    fabrics = serializers.ListField(child=serializers.CharField(allow_blank=True, max_length=200), max_length=12)
    unit = BeginUnitSerializer(required=False, allow_null=True, default=None)
    block = BeginBlockSerializer(required=False, allow_null=True, default=None)
    quilt = BeginQuiltSerializer(required=False, allow_null=True, default=None)
