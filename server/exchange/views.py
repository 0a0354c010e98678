from typing import Any
from uuid import UUID

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from api.problems import ProblemSerializer
from api.requests import valid
from api.wire import told_by
from projects.selectors import get_project
from projects.serializers import ProjectSerializer
from projects.translate import style_of
from workrooms.selectors import current_workroom

from .history import opened_as_copy, states_of
from .openapi import JSON_SCHEMA, PATTERN_FILE, PROJECT_FILE, RECORDS_FILE
from .pattern import pattern_exported, pattern_schema, take_pattern
from .project import export_project, import_project, schema
from .records import records_exported, records_schema, take_records

_JSON = "application/json"


class ExportView(APIView):
    """A project as JSON."""

    @extend_schema(operation_id="export_project", responses={200: PROJECT_FILE})
    def get(self, _request: Request, key: UUID) -> Response:
        answer = Response(export_project(get_project(current_workroom(), key)))
        answer["Content-Disposition"] = 'attachment; filename="project.json"'
        return answer


class ImportView(APIView):
    """A new project from JSON; nothing that is there is touched."""

    @extend_schema(
        operation_id="import_project",
        request={_JSON: PROJECT_FILE},
        responses={201: ProjectSerializer, 422: ProblemSerializer},
    )
    def post(self, request: Request) -> Response:
        project = import_project(current_workroom(), request.data)
        return Response(told_by(ProjectSerializer, project, {"style": style_of(project)}), status=201)


class SchemaView(APIView):
    """The JSON Schema of the project format."""

    @extend_schema(operation_id="project_schema", responses={200: JSON_SCHEMA})
    def get(self, _request: Request) -> Response:
        return Response(schema())


class PatternFileView(APIView):
    """A block as JSON, with the blocks in it."""

    @extend_schema(operation_id="export_block", responses={200: PATTERN_FILE})
    def get(self, _request: Request, key: UUID) -> Response:
        answer = Response(pattern_exported(current_workroom(), key))
        answer["Content-Disposition"] = 'attachment; filename="block.json"'
        return answer


class TakePatternView(APIView):
    """A new block of a project from JSON; its key is made by the caller."""

    @extend_schema(
        operation_id="import_block",
        request={_JSON: PATTERN_FILE},
        responses={201: ProjectSerializer, 422: ProblemSerializer},
    )
    def put(self, request: Request, key: UUID, block: UUID) -> Response:
        project = take_pattern(current_workroom(), key, block, request.data)
        return Response(told_by(ProjectSerializer, project, {"style": style_of(project)}), status=201)


class PatternSchemaView(APIView):
    """The JSON Schema of the format of a block."""

    @extend_schema(operation_id="pattern_schema", responses={200: JSON_SCHEMA})
    def get(self, _request: Request) -> Response:
        return Response(pattern_schema())


class StateSerializer(serializers.Serializer[Any]):
    """An earlier state of a project; ``said`` names what had changed since the one before."""

    id = serializers.UUIDField()
    at = serializers.DateTimeField()
    said = serializers.ListField(child=serializers.CharField())


class CopyKeySerializer(serializers.Serializer[Any]):
    """The key of the project that is made, chosen by the caller."""

    id = serializers.UUIDField()


class HistoryView(APIView):
    """The last states of a project."""

    @extend_schema(operation_id="history", responses=StateSerializer(many=True))
    def get(self, _request: Request, key: UUID) -> Response:
        return Response(StateSerializer(states_of(get_project(current_workroom(), key)), many=True).data)


class StateCopyView(APIView):
    """An earlier state opened as a project of its own."""

    @extend_schema(operation_id="open_state", request=CopyKeySerializer, responses={201: ProjectSerializer})
    def post(self, request: Request, key: UUID, state: UUID) -> Response:
        body = valid(CopyKeySerializer(data=request.data))
        project = opened_as_copy(current_workroom(), key, state, body["id"])
        return Response(told_by(ProjectSerializer, project, {"style": style_of(project)}), status=201)


class TakenInSerializer(serializers.Serializer[Any]):
    """How many of each kind were added, how many were ``known`` already, and which could not be taken, each with its reason."""

    added = serializers.DictField(child=serializers.IntegerField())
    known = serializers.IntegerField()
    refused = serializers.ListField(child=serializers.CharField())


class RecordsFileView(APIView):
    """The records as JSON, out and in."""

    @extend_schema(operation_id="export_records", responses={200: RECORDS_FILE})
    def get(self, _request: Request) -> Response:
        answer = Response(records_exported(current_workroom()))
        answer["Content-Disposition"] = 'attachment; filename="records.json"'
        return answer

    @extend_schema(
        operation_id="import_records",
        request={_JSON: RECORDS_FILE},
        responses={200: TakenInSerializer, 422: ProblemSerializer},
    )
    def post(self, request: Request) -> Response:
        return Response(TakenInSerializer(take_records(current_workroom(), request.data)).data)


class RecordsSchemaView(APIView):
    """The JSON Schema of the records' format."""

    @extend_schema(operation_id="records_schema", responses={200: JSON_SCHEMA})
    def get(self, _request: Request) -> Response:
        return Response(records_schema())
