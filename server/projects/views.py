from uuid import UUID

from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from api.patches import ChangeSerializer
from api.requests import valid
from api.wire import told_by
from workrooms.selectors import current_workroom

from . import commands
from .lines import page_of
from .models import Project
from .selectors import get_project
from .serializers import (
    FabricChangeSerializer,
    NewKeySerializer,
    NewProjectSerializer,
    NewUnitSerializer,
    ProjectChangeSerializer,
    ProjectPageSerializer,
    ProjectsAskedSerializer,
    ProjectSerializer,
    UnitChangeSerializer,
)
from .translate import style_of


def _out(project: Project, status: int = 200) -> Response:
    return Response(told_by(ProjectSerializer, project, {"style": style_of(project)}), status=status)


class ProjectsView(APIView):
    @extend_schema(operation_id="projects", parameters=[ProjectsAskedSerializer], responses=ProjectPageSerializer)
    def get(self, request: Request) -> Response:
        """Lines of projects, newest change first; a number beyond the last page gives the last one."""
        asked = valid(ProjectsAskedSerializer(data=request.query_params))
        return Response(
            ProjectPageSerializer(page_of(current_workroom(), asked["page"], archived=asked["archived"])).data
        )

    @extend_schema(operation_id="create_project", request=NewProjectSerializer, responses={201: ProjectSerializer})
    def post(self, request: Request) -> Response:
        body = valid(NewProjectSerializer(data=request.data))
        return _out(commands.create_project(current_workroom(), body["id"], body.get("name")), 201)


class ProjectView(APIView):
    @extend_schema(operation_id="project", responses=ProjectSerializer)
    def get(self, _request: Request, key: UUID) -> Response:
        return _out(get_project(current_workroom(), key))

    @extend_schema(operation_id="change_project", request=ProjectChangeSerializer, responses=ProjectSerializer)
    def patch(self, request: Request, key: UUID) -> Response:
        body = valid(ChangeSerializer(data=request.data))
        return _out(commands.change_project(current_workroom(), key, body["changes"], body["seen"]))

    @extend_schema(operation_id="delete_project", responses={200: ProjectSerializer})
    def delete(self, _request: Request, key: UUID) -> Response:
        return _out(commands.delete_project(current_workroom(), key))


class RestoreProjectView(APIView):
    @extend_schema(operation_id="restore_project", request=None, responses=ProjectSerializer)
    def post(self, _request: Request, key: UUID) -> Response:
        return _out(commands.restore_project(current_workroom(), key))


class ArchiveProjectView(APIView):
    @extend_schema(operation_id="archive_project", request=None, responses=ProjectSerializer)
    def post(self, _request: Request, key: UUID) -> Response:
        return _out(commands.archive_project(current_workroom(), key, True))

    @extend_schema(operation_id="unarchive_project", responses={200: ProjectSerializer})
    def delete(self, _request: Request, key: UUID) -> Response:
        return _out(commands.archive_project(current_workroom(), key, False))


class DuplicateProjectView(APIView):
    @extend_schema(operation_id="duplicate_project", request=NewKeySerializer, responses={201: ProjectSerializer})
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(NewKeySerializer(data=request.data))
        return _out(commands.duplicate_project(current_workroom(), key, body["id"]), 201)


class UnitsView(APIView):
    @extend_schema(operation_id="add_unit", request=NewUnitSerializer, responses={201: ProjectSerializer})
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(NewUnitSerializer(data=request.data))
        room = current_workroom()
        return _out(commands.add_unit(room, key, body["id"], body["kind"], body["copy_of"]), 201)


class UnitView(APIView):
    @extend_schema(operation_id="change_unit", request=UnitChangeSerializer, responses=ProjectSerializer)
    def patch(self, request: Request, key: UUID) -> Response:
        body = valid(ChangeSerializer(data=request.data))
        return _out(commands.change_unit(current_workroom(), key, body["changes"], body["seen"]))

    @extend_schema(operation_id="delete_unit", responses={200: ProjectSerializer})
    def delete(self, _request: Request, key: UUID) -> Response:
        return _out(commands.delete_unit(current_workroom(), key))


class RestoreUnitView(APIView):
    @extend_schema(operation_id="restore_unit", request=None, responses=ProjectSerializer)
    def post(self, _request: Request, key: UUID) -> Response:
        return _out(commands.restore_unit(current_workroom(), key))


class NewFabricView(APIView):
    """A fabric more; its key is made by the caller."""

    @extend_schema(operation_id="put_fabric", request=FabricChangeSerializer, responses=ProjectSerializer)
    def put(self, request: Request, key: UUID, fabric: UUID) -> Response:
        body = valid(ChangeSerializer(data=request.data))
        return _out(commands.put_fabric(current_workroom(), key, fabric, body["changes"]))


class FabricView(APIView):
    @extend_schema(operation_id="change_fabric", request=FabricChangeSerializer, responses=ProjectSerializer)
    def patch(self, request: Request, key: UUID) -> Response:
        body = valid(ChangeSerializer(data=request.data))
        return _out(commands.change_fabric(current_workroom(), key, body["changes"], body["seen"]))

    @extend_schema(operation_id="delete_fabric", responses={200: ProjectSerializer})
    def delete(self, _request: Request, key: UUID) -> Response:
        return _out(commands.delete_fabric(current_workroom(), key))


class RestoreFabricView(APIView):
    @extend_schema(operation_id="restore_fabric", request=None, responses=ProjectSerializer)
    def post(self, _request: Request, key: UUID) -> Response:
        return _out(commands.restore_fabric(current_workroom(), key))
