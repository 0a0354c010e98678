from __future__ import annotations

from dataclasses import replace
from uuid import UUID

from django.http import HttpResponse
from django.utils import timezone
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import serializers as wire
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from api.csv_serializers import CsvTextSerializer, ImportedSerializer
from api.patches import ChangeSerializer, change_of
from api.problems import ProblemSerializer, Refused
from api.readers import length_reader
from api.requests import valid
from api.wire import told_by
from measuring.models import ReadingRow
from piecing.blocks.sizing import check_finished
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.errors import PiecingError
from piecing.lengths import Measure, Style, inches, mm
from piecing.planning.schools import School
from piecing.records import STEADY_SPREAD, sureness_said
from projects.selectors import get_unit
from projects.translate import style_of
from setups import commands as setups
from workrooms.models import Workroom
from workrooms.selectors import current_workroom

from . import commands, selectors, serializers
from .forecasts import ForecastAsked, forecasts_of, helps_of, usual_asked
from .sheets import as_csv, import_tests

_REFUSED = {422: ProblemSerializer}
_ANSWERS = {200: serializers.RecordsSerializer, **_REFUSED}
_SET_UP_CHANGE = change_of(
    "SetUp", setups.set_up_readers(Measure.INCHES), came_from=wire.UUIDField(required=False, allow_null=True)
)
_TEST_CHANGE = change_of("SeamTest", commands.test_readers(Measure.INCHES))


class _SetUpChangeSerializer(ChangeSerializer):
    came_from = wire.UUIDField(required=False, allow_null=True, default=None)


def _style(room: Workroom) -> Style:
    return Style(Measure(room.measure))


def _out(room: Workroom) -> Response:
    sheet = selectors.records_of(room)
    told = {
        "set_ups": sheet.set_ups,
        "search": sheet.search,
        "today": timezone.localdate(),
        "strip": mm(40) if room.measure == Measure.MILLIMETRES.value else inches("3/2"),
    }
    context = {"style": _style(room), "sheet": sheet}
    return Response(told_by(serializers.RecordsSerializer, told, context))


class RecordsView(APIView):
    """Machine set-ups, their seam tests, and where the guide should stand."""

    @extend_schema(operation_id="records", responses=serializers.RecordsSerializer)
    def get(self, _request: Request) -> Response:
        return _out(current_workroom())


class SetUpView(APIView):
    @extend_schema(operation_id="put_set_up", request=_SET_UP_CHANGE, responses=_ANSWERS)
    def put(self, request: Request, key: UUID) -> Response:
        body, room = valid(_SetUpChangeSerializer(data=request.data)), current_workroom()
        setups.put_set_up(room, key, body["changes"], body["seen"], body["came_from"])
        return _out(room)

    @extend_schema(operation_id="delete_set_up", responses=_ANSWERS)
    def delete(self, _request: Request, key: UUID) -> Response:
        room = current_workroom()
        setups.delete_set_up(room, key)
        return _out(room)


class UseSetUpView(APIView):
    @extend_schema(operation_id="use_set_up", request=None, responses=_ANSWERS)
    def post(self, _request: Request, key: UUID) -> Response:
        room = current_workroom()
        setups.use_set_up(room, key)
        return _out(room)


class RestoreSetUpView(APIView):
    @extend_schema(operation_id="restore_set_up", request=None, responses=_ANSWERS)
    def post(self, _request: Request, key: UUID) -> Response:
        room = current_workroom()
        setups.restore_set_up(room, key)
        return _out(room)


class TestView(APIView):
    """One seam test of a set-up, taken down, corrected or taken away."""

    @extend_schema(operation_id="put_test", request=_TEST_CHANGE, responses=_ANSWERS)
    def put(self, request: Request, key: UUID, reading: UUID) -> Response:
        body, room = valid(ChangeSerializer(data=request.data)), current_workroom()
        commands.put_test(room, key, reading, body["changes"], body["seen"])
        return _out(room)

    @extend_schema(operation_id="delete_test", responses=_ANSWERS)
    def delete(self, _request: Request, key: UUID, reading: UUID) -> Response:
        room = current_workroom()
        commands.delete_test(room, key, reading)
        return _out(room)


class RestoreTestView(APIView):
    @extend_schema(operation_id="restore_test", request=None, responses=_ANSWERS)
    def post(self, _request: Request, key: UUID, reading: UUID) -> Response:
        room = current_workroom()
        commands.restore_test(room, key, reading)
        return _out(room)


class DayView(APIView):
    """A bad day left out of the records, and taken back in."""

    @extend_schema(operation_id="leave_day_out", request=None, responses={200: serializers.HandsSerializer, **_REFUSED})
    def put(self, _request: Request, day: str) -> Response:
        room = current_workroom()
        setups.leave_day_out(room, day)
        return _hands(room)

    @extend_schema(operation_id="take_day_back", responses={200: serializers.HandsSerializer, **_REFUSED})
    def delete(self, _request: Request, day: str) -> Response:
        room = current_workroom()
        setups.take_day_back(room, day)
        return _hands(room)


def _hands(room: Workroom) -> Response:
    context = {"style": _style(room), "allowance": room.seam_allowance}
    return Response(told_by(serializers.HandsSerializer, selectors.hands_of(room), context))


class HandsView(APIView):
    """Mean and spread of every habit, over time and beside what is assumed."""

    @extend_schema(operation_id="hands", responses=serializers.HandsSerializer)
    def get(self, _request: Request) -> Response:
        return _hands(current_workroom())


class DiagnosesView(APIView):
    """Diagnoses kept in all projects, and how often each sureness turned out right."""

    @extend_schema(operation_id="kept_diagnoses", responses=serializers.KeptDiagnosesSerializer)
    def get(self, _request: Request) -> Response:
        kept, found = selectors.kept_diagnoses(current_workroom())
        told = {"kept": kept, "calibrations": found, "promise": sureness_said()}
        return Response(told_by(serializers.KeptDiagnosesSerializer, told, {"style": _style(current_workroom())}))


class _AskedSerializer(wire.Serializer[None]):
    finished = wire.CharField(max_length=40, required=False, default="")
    school = wire.ChoiceField(choices=serializers.SCHOOLS_ASKED, required=False, default=School.LITTLE.value)


_ASKED = [_AskedSerializer]


def _forecast_asked(request: Request, room: Workroom) -> ForecastAsked:
    """The size of a block as it is typed; a usual one where none is."""
    body, measure, asked = valid(_AskedSerializer(data=request.query_params)), Measure(room.measure), usual_asked(room)
    finished = asked.finished
    if body["finished"].strip():
        try:
            finished = length_reader(measure).read(body["finished"])
            check_finished(finished)
        except PiecingError as refusal:
            raise Refused([refusal.at("finished")], _style(room)) from None
    return replace(asked, finished=finished, school=School(body["school"]))


class ForecastsView(APIView):
    """The library by one's own hands, the surest first."""

    @extend_schema(
        operation_id="forecasts", parameters=_ASKED, responses={200: serializers.ForecastsSerializer, **_REFUSED}
    )
    def get(self, request: Request) -> Response:
        room = current_workroom()
        found = forecasts_of(room, _forecast_asked(request, room))
        return Response(told_by(serializers.ForecastsSerializer, found, {"style": _style(room)}))


class ForecastView(APIView):
    """One arrangement, and what would help most."""

    @extend_schema(
        operation_id="forecast", parameters=_ASKED, responses={200: serializers.ForecastSerializer, **_REFUSED}
    )
    def get(self, request: Request, key: str) -> Response:
        room = current_workroom()
        block, found = helps_of(room, key, _forecast_asked(request, room))
        told = {"block": block, "helps": found, "units": block.rooms.units}
        return Response(told_by(serializers.ForecastSerializer, told, {"style": _style(room)}))


class TestSheetView(APIView):
    """Seam tests as CSV, out and in."""

    @extend_schema(operation_id="export_tests", responses={(200, "text/csv"): OpenApiTypes.STR})
    def get(self, _request: Request) -> HttpResponse:
        room = current_workroom()
        rows = (
            ReadingRow.objects.filter(test_of__workroom=room, test_of__deleted_at=None, deleted_at=None)
            .select_related("test_of")
            .order_by("day", "order", "taken_at")
        )
        answer = HttpResponse(as_csv(rows, _style(room)), content_type="text/csv; charset=utf-8")
        answer["Content-Disposition"] = 'attachment; filename="seam-tests.csv"'
        return answer

    @extend_schema(
        operation_id="import_tests", request=CsvTextSerializer, responses={200: ImportedSerializer, **_REFUSED}
    )
    def post(self, request: Request) -> Response:
        body = valid(CsvTextSerializer(data=request.data))
        return Response(ImportedSerializer(import_tests(current_workroom(), body["text"])).data)


class _LotRequestSerializer(wire.Serializer[None]):
    kind = wire.ChoiceField(choices=[k.value for k in STEADY_SPREAD], default=ReadingKind.STITCH.value)
    lot = wire.IntegerField(min_value=0, max_value=9_999, default=1)
    units = wire.IntegerField(min_value=0, max_value=9_999, default=0)


class LotReadView(APIView):
    """A lot while it is worked: steady, or since when not."""

    @extend_schema(
        operation_id="watch_lot",
        parameters=[
            OpenApiParameter("kind", str, enum=[k.value for k in STEADY_SPREAD]),
            OpenApiParameter("lot", int),
            OpenApiParameter("units", int),
        ],
        responses={200: serializers.LotSheetSerializer},
    )
    def get(self, request: Request, key: UUID) -> Response:
        asked = valid(_LotRequestSerializer(data=request.query_params))
        unit = get_unit(current_workroom(), key)
        sheet = selectors.lot_of(unit, ReadingKind(asked["kind"]), asked["lot"], asked["units"])
        return Response(told_by(serializers.LotSheetSerializer, sheet, {"style": style_of(unit.project)}))
