from typing import Any

from rest_framework import serializers

from common.wire import LengthField
from workrooms.models import MEASURES

from .models import SCHOOLS, SIZE_BASES, VALUES


class FabricSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField()
    role = serializers.CharField()
    name = serializers.CharField()
    colour = serializers.CharField()
    value = serializers.ChoiceField(choices=VALUES)


class PlannedUnitSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField()
    kind = serializers.CharField()
    method = serializers.CharField()
    size_basis = serializers.ChoiceField(choices=SIZE_BASES)
    finished = LengthField()
    block_finished = LengthField()
    units_across = serializers.IntegerField()
    count = serializers.IntegerField()
    school = serializers.ChoiceField(choices=SCHOOLS)
    own_margin = LengthField(allow_null=True)
    cut = LengthField(allow_null=True)


class ProjectSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField()
    name = serializers.CharField()
    measure = serializers.ChoiceField(choices=MEASURES)
    seam_allowance = LengthField()
    stitch = LengthField(allow_null=True)
    fold = LengthField()
    ruler_step = LengthField()
    reading_step = LengthField()
    archived = serializers.SerializerMethodField()
    deleted = serializers.SerializerMethodField()
    updated_at = serializers.DateTimeField()
    units = PlannedUnitSerializer(many=True)
    fabrics = FabricSerializer(many=True)

    def get_archived(self, project: Any) -> bool:
        return project.archived_at is not None

    def get_deleted(self, project: Any) -> bool:
        return project.deleted_at is not None


class NewProjectSerializer(serializers.Serializer[Any]):
    """``id`` is made by the caller, so that sending again after a lost answer makes nothing twice."""

    id = serializers.UUIDField()
    name = serializers.CharField(required=False, allow_blank=True, max_length=200)


class NewKeySerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField()
