from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.wire import DrawingField, LengthAnswerField, MessageField
from progress.models import WHYS

from .rows import SOURCES, LogRow
from .story import Story


class PhotoSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField(source="pk")
    width = serializers.IntegerField()
    height = serializers.IntegerField()
    caption = serializers.CharField()


class LogRowSerializer(serializers.Serializer[Any]):
    """One thing that was put down. ``why`` something was made again can be said later."""

    id = serializers.UUIDField(source="key")
    kind = serializers.ChoiceField(choices=SOURCES)
    day = serializers.DateField()
    project = serializers.SerializerMethodField()
    project_name = serializers.SerializerMethodField()
    title = serializers.CharField()
    lines = serializers.ListField(child=serializers.CharField())
    text = serializers.CharField()
    why = serializers.ChoiceField(choices=[("", ""), *WHYS])
    photos = PhotoSerializer(many=True)
    unit = serializers.UUIDField(allow_null=True)
    cuts = serializers.DictField(child=serializers.CharField())

    @extend_schema_field(serializers.UUIDField(allow_null=True))
    def get_project(self, row: LogRow) -> Any:
        return row.project.pk if row.project else None

    def get_project_name(self, row: LogRow) -> str:
        return row.project.name if row.project else ""


class TrialSizeSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    title = serializers.CharField()
    planned = LengthAnswerField()


class TrialAskedSerializer(serializers.Serializer[Any]):
    """``square`` units are measured one way, others both."""

    title = MessageField()
    sizes = TrialSizeSerializer(many=True)
    width = LengthAnswerField()
    height = LengthAnswerField()
    square = serializers.BooleanField()


class LogProjectSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField(source="pk")
    name = serializers.CharField()


class LogPageSerializer(serializers.Serializer[Any]):
    rows = LogRowSerializer(many=True)
    count = serializers.IntegerField()
    page = serializers.IntegerField()
    pages = serializers.IntegerField()
    projects = LogProjectSerializer(many=True)


class LogAskedSerializer(serializers.Serializer[Any]):
    q = serializers.CharField(max_length=200, required=False, default="", allow_blank=True)
    project = serializers.UUIDField(required=False, allow_null=True, default=None)
    kind = serializers.ChoiceField(choices=["", *SOURCES], required=False, default="")
    page = serializers.IntegerField(min_value=1, max_value=100_000, required=False, default=1)


class PutPhotoSerializer(serializers.Serializer[Any]):
    """``image`` is a data address; empty where only the caption is put right."""

    image = serializers.CharField(allow_blank=True, max_length=1_950_000)
    caption = serializers.CharField(allow_blank=True, max_length=200, required=False, default="")


class StoryBlockSerializer(serializers.Serializer[Any]):
    said = MessageField()
    picture = DrawingField()


class FactSerializer(serializers.Serializer[Any]):
    heading = serializers.CharField()
    lines = serializers.ListField(child=serializers.CharField())


class StorySerializer(serializers.Serializer[Any]):
    """A project as a whole: facts, pictures, and what was put down on the way."""

    project = serializers.UUIDField(source="project.pk")
    name = serializers.CharField(source="project.name")
    begun = serializers.DateField()
    ended = serializers.DateField(allow_null=True)
    blocks = StoryBlockSerializer(many=True)
    quilt = DrawingField(allow_null=True)
    facts = serializers.SerializerMethodField()
    rows = LogRowSerializer(many=True)

    @extend_schema_field(FactSerializer(many=True))
    def get_facts(self, story: Story) -> Any:
        return [{"heading": heading, "lines": lines} for heading, lines in story.facts]
