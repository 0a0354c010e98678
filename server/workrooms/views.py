from uuid import UUID

from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from api.patches import ChangeSerializer, change_of
from api.wire import told_by
from piecing.lengths import Measure, Style

from . import commands
from .models import Workroom
from .selectors import current_workroom
from .serializers import WorkroomSerializer


def _out(room: Workroom) -> Response:
    return Response(told_by(WorkroomSerializer, room, {"style": Style(Measure(room.measure))}))


_WORKROOM_CHANGE = change_of("Workroom", commands.workroom_readers(Measure.INCHES))
_RULER_CHANGE = change_of("Ruler", commands.ruler_readers(Measure.INCHES))


class WorkroomView(APIView):
    """Settings that new projects start from, and the rulers owned."""

    @extend_schema(operation_id="workroom", responses=WorkroomSerializer)
    def get(self, _request: Request) -> Response:
        return _out(current_workroom())

    @extend_schema(operation_id="change_workroom", request=_WORKROOM_CHANGE, responses=WorkroomSerializer)
    def patch(self, request: Request) -> Response:
        body = ChangeSerializer(data=request.data)
        body.is_valid(raise_exception=True)
        return _out(commands.change_workroom(body.validated_data["changes"], body.validated_data["seen"]))


class RulerView(APIView):
    @extend_schema(operation_id="put_ruler", request=_RULER_CHANGE, responses=WorkroomSerializer)
    def put(self, request: Request, key: UUID) -> Response:
        body = ChangeSerializer(data=request.data)
        body.is_valid(raise_exception=True)
        room = current_workroom()
        return _out(commands.put_ruler(room, key, body.validated_data["changes"], body.validated_data["seen"]))

    @extend_schema(operation_id="delete_ruler", responses={200: WorkroomSerializer})
    def delete(self, _request: Request, key: UUID) -> Response:
        return _out(commands.delete_ruler(current_workroom(), key))


class RestoreRulerView(APIView):
    @extend_schema(operation_id="restore_ruler", request=None, responses=WorkroomSerializer)
    def post(self, _request: Request, key: UUID) -> Response:
        return _out(commands.restore_ruler(current_workroom(), key))
