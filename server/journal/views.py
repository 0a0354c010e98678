from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers as wire
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from api.patches import ChangeSerializer, change_of
from api.problems import ProblemSerializer
from api.requests import valid
from api.wire import told_by
from piecing.lengths import Measure
from progress.commands import say_why, why_readers
from projects.selectors import get_project, get_unit
from projects.translate import style_of
from workrooms.selectors import current_workroom

from . import commands, selectors, serializers
from .story import story_of

_REFUSED = {422: ProblemSerializer}
_ANSWERS = {200: serializers.LogPageSerializer, **_REFUSED}
_OF: dict[str, Any] = {
    "project": wire.UUIDField(required=False, allow_null=True),
    "unit": wire.UUIDField(required=False, allow_null=True),
}
_ENTRY_CHANGE = change_of("LogEntry", commands.entry_readers(Measure.INCHES), **_OF)
_WHY_CHANGE = change_of("Why", why_readers())


class _EntryChangeSerializer(ChangeSerializer):
    project = wire.UUIDField(required=False, allow_null=True, default=None)
    unit = wire.UUIDField(required=False, allow_null=True, default=None)


def _log() -> Response:
    """The newest page: whoever looks at another one asks for it again."""
    return Response(serializers.LogPageSerializer(selectors.log_of(current_workroom())).data)


class LogView(APIView):
    """Everything that was put down of the work, searched."""

    @extend_schema(
        operation_id="log", parameters=[serializers.LogAskedSerializer], responses=serializers.LogPageSerializer
    )
    def get(self, request: Request) -> Response:
        asked = valid(serializers.LogAskedSerializer(data=request.query_params))
        page = selectors.log_of(current_workroom(), asked["q"], asked["project"], asked["kind"], asked["page"])
        return Response(serializers.LogPageSerializer(page).data)


class EntryView(APIView):
    """A trial piece, a note, or what was learned."""

    @extend_schema(operation_id="put_entry", request=_ENTRY_CHANGE, responses=_ANSWERS)
    def put(self, request: Request, key: UUID) -> Response:
        body = valid(_EntryChangeSerializer(data=request.data))
        commands.put_entry(current_workroom(), key, body["changes"], body["seen"], body["project"], body["unit"])
        return _log()

    @extend_schema(operation_id="delete_entry", responses=_ANSWERS)
    def delete(self, _request: Request, key: UUID) -> Response:
        commands.delete_entry(current_workroom(), key)
        return _log()


class RestoreEntryView(APIView):
    @extend_schema(operation_id="restore_entry", request=None, responses=_ANSWERS)
    def post(self, _request: Request, key: UUID) -> Response:
        commands.restore_entry(current_workroom(), key)
        return _log()


class TrialView(APIView):
    """What a trial piece of a unit is asked for: its sizes as they are planned, and what they should come to."""

    @extend_schema(operation_id="trial_of", responses={200: serializers.TrialAskedSerializer, **_REFUSED})
    def get(self, _request: Request, key: UUID) -> Response:
        unit = get_unit(current_workroom(), key)
        context = {"style": style_of(unit.project)}
        return Response(told_by(serializers.TrialAskedSerializer, selectors.trial_asked(unit), context))


class EntryPhotoView(APIView):
    """A photo of an entry, or another caption to it."""

    @extend_schema(operation_id="put_photo", request=serializers.PutPhotoSerializer, responses=_ANSWERS)
    def put(self, request: Request, key: UUID, photo: UUID) -> Response:
        body = valid(serializers.PutPhotoSerializer(data=request.data))
        commands.put_photo(current_workroom(), key, photo, body["image"], body["caption"])
        return _log()


class PhotoView(APIView):
    @extend_schema(operation_id="photo", responses={(200, "image/jpeg"): OpenApiTypes.BINARY})
    def get(self, _request: Request, key: UUID) -> HttpResponse:
        row = selectors.get_photo(current_workroom(), key)
        answer = HttpResponse(bytes(row.image), content_type="image/jpeg")
        # A photo never changes under its name.
        answer["Cache-Control"] = "private, max-age=31536000, immutable"
        return answer

    @extend_schema(operation_id="delete_photo", responses=_ANSWERS)
    def delete(self, _request: Request, key: UUID) -> Response:
        commands.delete_photo(current_workroom(), key)
        return _log()


class RestorePhotoView(APIView):
    @extend_schema(operation_id="restore_photo", request=None, responses=_ANSWERS)
    def post(self, _request: Request, key: UUID) -> Response:
        commands.restore_photo(current_workroom(), key)
        return _log()


class WhyView(APIView):
    """Why units were made again."""

    @extend_schema(operation_id="say_why", request=_WHY_CHANGE, responses=_ANSWERS)
    def patch(self, request: Request, key: UUID, done: UUID) -> Response:
        body = valid(ChangeSerializer(data=request.data))
        say_why(current_workroom(), key, done, body["changes"], body["seen"])
        return _log()


class StoryView(APIView):
    """A project as a whole."""

    @extend_schema(operation_id="story", responses=serializers.StorySerializer)
    def get(self, _request: Request, key: UUID) -> Response:
        room = current_workroom()
        project = get_project(room, key)
        context = {"style": style_of(project)}
        return Response(told_by(serializers.StorySerializer, story_of(room, project), context))
