from uuid import UUID

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from common.requests import valid
from projects.models import PlannedUnit
from projects.selectors import get_unit
from projects.translate import style_of
from workrooms.selectors import current_workroom

from . import commands, serializers
from .selectors import check_of, rows_of
from .sheets import as_csv, import_csv


def _check(unit: PlannedUnit) -> Response:
    data = serializers.CheckSerializer(check_of(unit), context={"style": style_of(unit.project)}).data
    return Response(data)


class CheckView(APIView):
    """Every reading of a unit beside its target."""

    @extend_schema(operation_id="check", responses=serializers.CheckSerializer)
    def get(self, _request: Request, key: UUID) -> Response:
        return _check(get_unit(current_workroom(), key))


class ReadingView(APIView):
    @extend_schema(
        operation_id="put_reading",
        request=serializers.WriteReadingSerializer,
        responses=serializers.CheckSerializer,
    )
    def put(self, request: Request, unit: UUID, key: UUID) -> Response:
        body = valid(serializers.WriteReadingSerializer(data=request.data))
        row = commands.put_reading(current_workroom(), unit, key, body["changes"], body["seen"])
        return _check(row.unit)

    @extend_schema(operation_id="delete_reading", responses=serializers.CheckSerializer)
    def delete(self, _request: Request, unit: UUID, key: UUID) -> Response:
        return _check(commands.delete_reading(current_workroom(), unit, key).unit)


class RestoreReadingView(APIView):
    @extend_schema(operation_id="restore_reading", request=None, responses=serializers.CheckSerializer)
    def post(self, _request: Request, unit: UUID, key: UUID) -> Response:
        return _check(commands.restore_reading(current_workroom(), unit, key).unit)


class SheetView(APIView):
    """Readings as CSV."""

    @extend_schema(operation_id="export_readings", responses={(200, "text/csv"): OpenApiTypes.STR})
    def get(self, _request: Request, key: UUID) -> HttpResponse:
        unit = get_unit(current_workroom(), key)
        text = as_csv(rows_of(unit), style_of(unit.project))
        answer = HttpResponse(text, content_type="text/csv; charset=utf-8")
        answer["Content-Disposition"] = 'attachment; filename="readings.csv"'
        return answer

    @extend_schema(
        operation_id="import_readings",
        request=serializers.SheetSerializer,
        responses=serializers.ImportedSerializer,
    )
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(serializers.SheetSerializer(data=request.data))
        taken = import_csv(get_unit(current_workroom(), key), body["text"])
        return Response(serializers.ImportedSerializer(taken).data)
