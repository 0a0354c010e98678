from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import serializers as wire
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from api.csv_serializers import CsvTextSerializer, ImportedSerializer
from api.patches import ChangeSerializer, change_of
from api.problems import ProblemSerializer
from api.requests import valid
from api.wire import told_by
from piecing.lengths import Measure, Style
from progress.subject import UNIT_OR_BLOCK
from projects.selectors import get_project
from workrooms.models import Workroom
from workrooms.selectors import current_workroom

from . import commands, evenings, selectors, serializers
from .calendars import calendar_of
from .readers import free_readers, schedule_readers, time_readers
from .sheets import as_csv, import_times

_REFUSED = {422: ProblemSerializer}
_TIMES = {200: serializers.TimeSheetSerializer, **_REFUSED}
_EVENINGS = {200: serializers.EveningSheetSerializer, **_REFUSED}
_OF: dict[str, Any] = {
    "project": wire.UUIDField(required=False, allow_null=True),
    "subject": wire.ChoiceField(choices=[*UNIT_OR_BLOCK, ""], required=False),
    "of": wire.UUIDField(required=False, allow_null=True),
}
_TIME_CHANGE = change_of("WorkTime", time_readers(), **_OF)
_FREE_CHANGE = change_of("FreeTime", free_readers())
_SCHEDULE_CHANGE = change_of("Schedule", schedule_readers())


class _TimeChangeSerializer(ChangeSerializer):
    project = wire.UUIDField(required=False, allow_null=True, default=None)
    subject = wire.ChoiceField(choices=[*UNIT_OR_BLOCK, ""], required=False, default="")
    of = wire.UUIDField(required=False, allow_null=True, default=None)


def _style(room: Workroom) -> Style:
    return Style(Measure(room.measure))


def _times(room: Workroom) -> Response:
    sheet = selectors.times_of(room)
    return Response(told_by(serializers.TimeSheetSerializer, sheet, {"style": _style(room)}))


def _evenings(room: Workroom) -> Response:
    sheet = evenings.evenings_of(room)
    return Response(told_by(serializers.EveningSheetSerializer, sheet, {"style": _style(room)}))


class TimesView(APIView):
    """Minutes put down, her own pace, and quiet notes."""

    @extend_schema(operation_id="times", responses=serializers.TimeSheetSerializer)
    def get(self, _request: Request) -> Response:
        return _times(current_workroom())


class RunningView(APIView):
    """The clock, if it runs."""

    @extend_schema(operation_id="running_clock", responses=serializers.RunningSerializer)
    def get(self, _request: Request) -> Response:
        running = selectors.running_of(current_workroom())
        return Response(serializers.RunningSerializer({"running": running}).data)


class TimeView(APIView):
    """Minutes typed by hand, put right, or taken away."""

    @extend_schema(operation_id="put_time", request=_TIME_CHANGE, responses=_TIMES)
    def put(self, request: Request, key: UUID) -> Response:
        body, room = valid(_TimeChangeSerializer(data=request.data)), current_workroom()
        subject = (body["subject"], body["of"]) if body["subject"] and body["of"] else None
        commands.put_time(room, key, body["changes"], body["seen"], body["project"], subject)
        return _times(room)

    @extend_schema(operation_id="delete_time", responses=_TIMES)
    def delete(self, _request: Request, key: UUID) -> Response:
        room = current_workroom()
        commands.delete_time(room, key)
        return _times(room)


class RestoreTimeView(APIView):
    @extend_schema(operation_id="restore_time", request=None, responses=_TIMES)
    def post(self, _request: Request, key: UUID) -> Response:
        room = current_workroom()
        commands.restore_time(room, key)
        return _times(room)


class ClockView(APIView):
    """The clock for one stretch of work: begun, and stopped."""

    @extend_schema(operation_id="begin_clock", request=serializers.ClockSerializer, responses=_TIMES)
    def put(self, request: Request, key: UUID) -> Response:
        body, room = valid(serializers.ClockSerializer(data=request.data)), current_workroom()
        commands.begin_clock(room, key, body["project"], body["stage"], body["at"])
        return _times(room)

    @extend_schema(operation_id="stop_clock", request=serializers.StopSerializer, responses=_TIMES)
    def post(self, request: Request, key: UUID) -> Response:
        body, room = valid(serializers.StopSerializer(data=request.data)), current_workroom()
        commands.stop_clock(room, key, body["at"])
        return _times(room)


class BladeView(APIView):
    """A fresh blade."""

    @extend_schema(operation_id="put_blade", request=None, responses=_TIMES)
    def put(self, _request: Request, key: UUID, day: str) -> Response:
        room = current_workroom()
        commands.put_blade(room, key, day)
        return _times(room)

    @extend_schema(operation_id="delete_blade", responses=_TIMES)
    def delete(self, _request: Request, key: UUID, day: str) -> Response:  # noqa: ARG002
        room = current_workroom()
        commands.delete_blade(room, key)
        return _times(room)


class TimeSheetView(APIView):
    """Minutes as CSV, out and in."""

    @extend_schema(operation_id="export_times", responses={(200, "text/csv"): OpenApiTypes.STR})
    def get(self, _request: Request) -> HttpResponse:
        answer = HttpResponse(as_csv(current_workroom()), content_type="text/csv; charset=utf-8")
        answer["Content-Disposition"] = 'attachment; filename="minutes.csv"'
        return answer

    @extend_schema(
        operation_id="import_times", request=CsvTextSerializer, responses={200: ImportedSerializer, **_REFUSED}
    )
    def post(self, request: Request) -> Response:
        body = valid(CsvTextSerializer(data=request.data))
        return Response(ImportedSerializer(import_times(current_workroom(), body["text"])).data)


class ProjectTimeView(APIView):
    """How long the rest of a project takes."""

    @extend_schema(operation_id="project_time", responses=serializers.ProjectTimeSerializer)
    def get(self, _request: Request, key: UUID) -> Response:
        room = current_workroom()
        told = evenings.project_time(room, get_project(room, key))
        return Response(told_by(serializers.ProjectTimeSerializer, told, {"style": _style(room)}))


class EveningsView(APIView):
    """Free time, and the evenings that projects are planned into."""

    @extend_schema(operation_id="evenings", responses=serializers.EveningSheetSerializer)
    def get(self, _request: Request) -> Response:
        return _evenings(current_workroom())


class FreeView(APIView):
    @extend_schema(operation_id="put_free", request=_FREE_CHANGE, responses=_EVENINGS)
    def put(self, request: Request, key: UUID) -> Response:
        body, room = valid(ChangeSerializer(data=request.data)), current_workroom()
        commands.put_free(room, key, body["changes"], body["seen"])
        return _evenings(room)

    @extend_schema(operation_id="delete_free", responses=_EVENINGS)
    def delete(self, _request: Request, key: UUID) -> Response:
        room = current_workroom()
        commands.delete_free(room, key)
        return _evenings(room)


class RestoreFreeView(APIView):
    @extend_schema(operation_id="restore_free", request=None, responses=_EVENINGS)
    def post(self, _request: Request, key: UUID) -> Response:
        room = current_workroom()
        commands.restore_free(room, key)
        return _evenings(room)


class BusyDayView(APIView):
    """A single day that is not free, or is again."""

    @extend_schema(operation_id="put_busy_day", request=None, responses=_EVENINGS)
    def put(self, _request: Request, day: str) -> Response:
        room = current_workroom()
        commands.put_busy_day(room, day, busy=True)
        return _evenings(room)

    @extend_schema(operation_id="delete_busy_day", responses=_EVENINGS)
    def delete(self, _request: Request, day: str) -> Response:
        room = current_workroom()
        commands.put_busy_day(room, day, busy=False)
        return _evenings(room)


class CalendarView(APIView):
    """When one is busy, from a calendar file; and that no longer."""

    @extend_schema(operation_id="take_calendar", request=serializers.CalendarSerializer, responses=_EVENINGS)
    def post(self, request: Request) -> Response:
        body, room = valid(serializers.CalendarSerializer(data=request.data)), current_workroom()
        commands.take_calendar(room, body["name"], body["text"])
        return _evenings(room)

    @extend_schema(operation_id="leave_calendar", parameters=[OpenApiParameter("name", str)], responses=_EVENINGS)
    def delete(self, request: Request) -> Response:
        room = current_workroom()
        commands.leave_calendar(room, str(request.query_params.get("name", ""))[:120])
        return _evenings(room)


class ScheduleView(APIView):
    @extend_schema(operation_id="change_schedule", request=_SCHEDULE_CHANGE, responses=_EVENINGS)
    def patch(self, request: Request, key: UUID) -> Response:
        body, room = valid(ChangeSerializer(data=request.data)), current_workroom()
        commands.change_schedule(room, key, body["changes"], body["seen"])
        return _evenings(room)


class KeepView(APIView):
    """The plan as it stands is the one that is kept."""

    @extend_schema(operation_id="keep_plan", request=None, responses=_EVENINGS)
    def post(self, _request: Request) -> Response:
        room = current_workroom()
        commands.keep_plan(room)
        return _evenings(room)


class KeptCalendarView(APIView):
    """The evenings that were kept, for a calendar."""

    @extend_schema(operation_id="export_evenings", responses={(200, "text/calendar"): OpenApiTypes.STR})
    def get(self, _request: Request) -> HttpResponse:
        rows = list(current_workroom().sittings.all())
        answer = HttpResponse(
            calendar_of(rows, evenings.sitting_texts(rows)), content_type="text/calendar; charset=utf-8"
        )
        answer["Content-Disposition"] = 'attachment; filename="evenings.ics"'
        return answer
