from collections.abc import Callable
from typing import Any
from uuid import UUID

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from api.csv_serializers import CsvTextSerializer, ImportedSerializer
from api.patches import ChangeSerializer, Reader, change_of
from api.problems import ProblemSerializer, Refused
from api.requests import valid
from api.wire import told_by
from blocks.quilt_commands import measure_top
from blocks.readers import top_readers
from blocks.selectors import get_block
from measuring.translate import reading_readers
from piecing.diagnosis.causes import parameters_of
from piecing.diagnosis.symptoms import Symptom, symptoms
from piecing.drawings.symptom import symptom_picture
from piecing.errors import PiecingError
from piecing.lengths import Measure, Style
from projects.models import Project
from projects.selectors import get_project
from projects.translate import style_of
from workrooms.selectors import current_workroom

from . import commands, selectors, serializers
from .hand import by_hand_sheet
from .sheets import as_csv, import_csv
from .subjects import Subject, subject_of
from .whole import measured_of
from .whole_serializers import MeasuredSheetSerializer

_REFUSED = {422: ProblemSerializer}
_ANSWERS: Any = {200: serializers.DiagnosisSerializer, **_REFUSED}
_SUBJECT = OpenApiParameter("subject", str, OpenApiParameter.PATH, enum=["blocks", "units"])

_READING_CHANGE = change_of("Reading", {**reading_readers(Measure.INCHES), "lands": Reader(str)})
_TOP_CHANGE = change_of("Top", top_readers(Measure.INCHES))
_SAVED_CHANGE = change_of("Saved", {**commands.SAVED_READERS, "deleted": Reader(str)})


def _context(sheet: selectors.DiagnosisSheet, style: Style, *, of_row: bool) -> dict[str, Any]:
    first = len(sheet.pool.elsewhere)
    own = {first + n: row for n, row in enumerate(sheet.rows)}
    model = sheet.scene.model
    return {
        "style": style,
        "of_row": of_row,
        "model": model,
        "parameters": parameters_of(model),
        "reach": sheet.verdict.reach,
        "by_row": {row.pk: reading for row, reading in sheet.pool.own},
        "nominal": {row.pk: e.nominal for n, row in own.items() if (e := sheet.found.equations[n]) is not None},
        "odd": {own[o.index].pk: o.said for o in sheet.found.odd if o.index in own},
        "stock": sheet.stock,
        "ladders": sheet.ladders,
    }


def _sheet(subject: Subject, factor: float = 4.0, tried: str = "") -> Response:
    try:
        sheet = selectors.sheet_of(subject, factor, tried)
    except PiecingError as refusal:
        raise Refused([refusal], subject.style) from None
    return Response(
        told_by(serializers.DiagnosisSerializer, sheet, _context(sheet, subject.style, of_row=subject.block is None))
    )


def _factor(request: Request) -> float:
    try:
        return min(16.0, max(1.0, float(request.query_params.get("factor", "4"))))
    except ValueError:
        return 4.0


class DiagnosisView(APIView):
    """A block or a kind of unit as its readings make it: drawn, judged, with what to measure next and what to do."""

    @extend_schema(
        operation_id="diagnosis",
        parameters=[_SUBJECT, OpenApiParameter("factor", float), OpenApiParameter("tried", str)],
        responses=_ANSWERS,
    )
    def get(self, request: Request, subject: str, key: UUID) -> Response:
        found = subject_of(current_workroom(), subject, key)
        return _sheet(found, _factor(request), request.query_params.get("tried", "")[:160])


class WorkingView(APIView):
    """How the diagnosis of a block or a kind of unit was worked out."""

    @extend_schema(
        operation_id="working",
        parameters=[_SUBJECT],
        responses={200: serializers.WorkingSheetSerializer, **_REFUSED},
    )
    def get(self, _request: Request, subject: str, key: UUID) -> Response:
        found = subject_of(current_workroom(), subject, key)
        try:
            return _working(selectors.judged_sheet(found), found.style)
        except PiecingError as refusal:
            raise Refused([refusal], found.style) from None


def _working(sheet: selectors.DiagnosisSheet, style: Style) -> Response:
    context = {"style": style, "model": sheet.scene.model}
    return Response(told_by(serializers.WorkingSheetSerializer, selectors.working_of(sheet), context))


class WhatIfView(APIView):
    @extend_schema(
        operation_id="what_if",
        request=serializers.WhatIfSerializer,
        responses={200: serializers.TriedSerializer, **_REFUSED},
    )
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(serializers.WhatIfSerializer(data=request.data))
        block = get_block(current_workroom(), key)
        style = style_of(block.project)
        try:
            tried = selectors.what_if(block, body["causes"], body["factor"], body["scatter"], body["blocks"])
        except PiecingError as refusal:
            raise Refused([refusal], style) from None
        return Response(told_by(serializers.TriedSerializer, tried, {"style": style}))


class ReadingView(APIView):
    """One reading, taken down, changed or taken away; what it then says comes with the answer."""

    @extend_schema(operation_id="put_reading", parameters=[_SUBJECT], request=_READING_CHANGE, responses=_ANSWERS)
    def put(self, request: Request, subject: str, key: UUID, reading: UUID) -> Response:
        body = valid(ChangeSerializer(data=request.data))
        found = subject_of(current_workroom(), subject, key)
        return _sheet(_done(found, lambda: commands.put_reading(found, reading, body["changes"], body["seen"])))

    @extend_schema(operation_id="delete_reading", parameters=[_SUBJECT], responses=_ANSWERS)
    def delete(self, _request: Request, subject: str, key: UUID, reading: UUID) -> Response:
        found = subject_of(current_workroom(), subject, key)
        return _sheet(_done(found, lambda: commands.delete_reading(found, reading)))


def _done(found: Subject, change: Callable[[], object]) -> Subject:
    """The subject read anew after a change; what the core refuses is told in its measure."""
    try:
        change()
    except PiecingError as refusal:
        raise Refused([refusal], found.style) from None
    return Subject(found.project, found.block, found.unit)


class RestoreReadingView(APIView):
    @extend_schema(operation_id="restore_reading", parameters=[_SUBJECT], request=None, responses=_ANSWERS)
    def post(self, _request: Request, subject: str, key: UUID, reading: UUID) -> Response:
        found = subject_of(current_workroom(), subject, key)
        return _sheet(_done(found, lambda: commands.restore_reading(found, reading)))


class ReadingSheetView(APIView):
    """Readings of a block or a kind of unit as CSV."""

    @extend_schema(
        operation_id="export_readings", parameters=[_SUBJECT], responses={(200, "text/csv"): OpenApiTypes.STR}
    )
    def get(self, _request: Request, subject: str, key: UUID) -> HttpResponse:
        found = subject_of(current_workroom(), subject, key)
        rows = [r for r in found.project.readings.filter(deleted_at=None) if found.owns(r)]
        answer = HttpResponse(as_csv(rows, found.style), content_type="text/csv; charset=utf-8")
        answer["Content-Disposition"] = 'attachment; filename="readings.csv"'
        return answer

    @extend_schema(
        operation_id="import_readings",
        parameters=[_SUBJECT],
        request=CsvTextSerializer,
        responses={200: ImportedSerializer, **_REFUSED},
    )
    def post(self, request: Request, subject: str, key: UUID) -> Response:
        body = valid(CsvTextSerializer(data=request.data))
        found = subject_of(current_workroom(), subject, key)
        try:
            taken = import_csv(found, body["text"])
        except PiecingError as refusal:
            raise Refused([refusal], found.style) from None
        return Response(ImportedSerializer(taken).data)


class SavedView(APIView):
    """A diagnosis kept as it was said, and what turned out later."""

    @extend_schema(operation_id="save_diagnosis", parameters=[_SUBJECT], request=None, responses=_ANSWERS)
    def put(self, _request: Request, subject: str, key: UUID, saved: UUID) -> Response:
        found = subject_of(current_workroom(), subject, key)
        return _sheet(_done(found, lambda: commands.save_diagnosis(found, saved)))

    @extend_schema(operation_id="change_saved", parameters=[_SUBJECT], request=_SAVED_CHANGE, responses=_ANSWERS)
    def patch(self, request: Request, subject: str, key: UUID, saved: UUID) -> Response:
        body = valid(ChangeSerializer(data=request.data))
        found = subject_of(current_workroom(), subject, key)
        return _sheet(_done(found, lambda: commands.change_saved(found, saved, body["changes"], body["seen"])))


class ByHandView(APIView):
    """A diagnosis without a project."""

    @extend_schema(operation_id="diagnose_by_hand", request=serializers.ByHandSerializer, responses=_ANSWERS)
    def post(self, request: Request) -> Response:
        body = valid(serializers.ByHandSerializer(data=request.data))
        style = Style(Measure(body["measure"]))
        sheet = by_hand_sheet(body, style)
        return Response(told_by(serializers.DiagnosisSerializer, sheet, _context(sheet, style, of_row=True)))


class ByHandWorkingView(APIView):
    """How a diagnosis without a project was worked out, from what was typed for it."""

    @extend_schema(
        operation_id="working_by_hand",
        request=serializers.ByHandSerializer,
        responses={200: serializers.WorkingSheetSerializer, **_REFUSED},
    )
    def post(self, request: Request) -> Response:
        body = valid(serializers.ByHandSerializer(data=request.data))
        style = Style(Measure(body["measure"]))
        return _working(by_hand_sheet(body, style), style)


class SymptomsView(APIView):
    """What one may see, with a picture of each and of how it should look."""

    @extend_schema(operation_id="symptoms", responses=serializers.SymptomSerializer(many=True))
    def get(self, _request: Request) -> Response:
        shown = [
            _symptom_data(s, under)
            for first in symptoms()
            for s, under in ((first, ""), *((f, first.code) for f in first.further))
        ]
        return Response(serializers.SymptomSerializer(shown, many=True, context={"style": Style()}).data)


def _symptom_data(s: Symptom, under: str) -> dict[str, Any]:
    return {
        "code": s.code,
        "under": under,
        "said": s.said,
        "question": s.question,
        "because": s.because,
        "measure": [k.value for k in s.measure],
        "observe": s.observe.value if s.observe else "",
        "picture": symptom_picture(s.code),
        "true_picture": symptom_picture(s.code, true=True),
    }


def _measured_answer(project: Project) -> Response:
    sheet = measured_of(current_workroom(), project)
    return Response(told_by(MeasuredSheetSerializer, sheet, {"style": style_of(project)}))


class MeasuredView(APIView):
    """Finished blocks as they really measure, and what follows for the quilt."""

    @extend_schema(operation_id="measured_blocks", responses=MeasuredSheetSerializer)
    def get(self, _request: Request, key: UUID) -> Response:
        return _measured_answer(get_project(current_workroom(), key))


class MeasuredTopView(APIView):
    """What the top measures at one of its places, answered by what is cut to it."""

    @extend_schema(
        operation_id="put_top_measured",
        request=_TOP_CHANGE,
        responses={200: MeasuredSheetSerializer, **_REFUSED},
    )
    def put(self, request: Request, key: UUID, place: str) -> Response:
        body = valid(ChangeSerializer(data=request.data))
        return _measured_answer(measure_top(current_workroom(), key, place, body["changes"], body["seen"]))


class MeasuredBlockView(APIView):
    """One reading of one finished block, answered by what follows for all of them; nothing is diagnosed for it."""

    @extend_schema(
        operation_id="put_measured",
        request=_READING_CHANGE,
        responses={200: MeasuredSheetSerializer, **_REFUSED},
    )
    def put(self, request: Request, key: UUID, reading: UUID) -> Response:
        body = valid(ChangeSerializer(data=request.data))
        subject = subject_of(current_workroom(), "blocks", key)
        commands.put_reading(subject, reading, body["changes"], body["seen"])
        return _measured_answer(subject.project)

    @extend_schema(operation_id="delete_measured", responses={200: MeasuredSheetSerializer, **_REFUSED})
    def delete(self, _request: Request, key: UUID, reading: UUID) -> Response:
        subject = subject_of(current_workroom(), "blocks", key)
        commands.delete_reading(subject, reading)
        return _measured_answer(subject.project)
