from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from piecing.lengths import Measure, Style

from .commands import change_workroom
from .models import Workroom
from .selectors import current_workroom
from .serializers import ChangeSerializer, WorkroomSerializer


def _out(room: Workroom) -> Response:
    return Response(WorkroomSerializer(room, context={"style": Style(Measure(room.measure))}).data)


class WorkroomView(APIView):
    """Settings that new projects start from."""

    @extend_schema(operation_id="workroom", responses=WorkroomSerializer)
    def get(self, _request: Request) -> Response:
        return _out(current_workroom())

    @extend_schema(operation_id="change_workroom", request=ChangeSerializer, responses=WorkroomSerializer)
    def patch(self, request: Request) -> Response:
        body = ChangeSerializer(data=request.data)
        body.is_valid(raise_exception=True)
        return _out(change_workroom(body.validated_data["changes"], body.validated_data["seen"]))
