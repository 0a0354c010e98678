from typing import Any
from uuid import UUID

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from api.problems import ProblemSerializer
from projects.selectors import get_project
from projects.serializers import ProjectSerializer
from projects.translate import style_of
from workrooms.selectors import current_workroom

from .project import exported, imported, schema


class AnySerializer(serializers.Serializer[Any]):
    """A project in the format ``entretoile-project/1``; its schema is served beside it."""

    format = serializers.CharField()
    name = serializers.CharField()


class ExportView(APIView):
    """A project as JSON."""

    @extend_schema(operation_id="export_project", responses=AnySerializer)
    def get(self, _request: Request, key: UUID) -> Response:
        answer = Response(exported(get_project(current_workroom(), key)))
        answer["Content-Disposition"] = 'attachment; filename="project.json"'
        return answer


class ImportView(APIView):
    """A new project from JSON; nothing that is there is touched."""

    @extend_schema(
        operation_id="import_project", request=AnySerializer, responses={201: ProjectSerializer, 422: ProblemSerializer}
    )
    def post(self, request: Request) -> Response:
        project = imported(current_workroom(), request.data)
        return Response(ProjectSerializer(project, context={"style": style_of(project)}).data, status=201)


class SchemaView(APIView):
    """The JSON Schema of the project format."""

    @extend_schema(operation_id="project_schema", responses={200: dict})
    def get(self, _request: Request) -> Response:
        return Response(schema())
