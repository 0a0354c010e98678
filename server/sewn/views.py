from typing import Any
from uuid import UUID

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from blocks.models import Block
from blocks.selectors import get_block
from common.problems import ProblemSerializer, Refused
from common.requests import valid
from piecing.errors import PiecingError
from piecing.lengths import Measure, Style
from piecing.diagnosis.causes import parameters_of
from piecing.diagnosis.symptoms import Symptom, symptom_picture, symptoms
from projects.translate import style_of
from readings.serializers import ImportedSerializer, SheetSerializer
from workrooms.selectors import current_workroom
from workrooms.serializers import ChangeSerializer

from . import commands, selectors, serializers
from .hand import by_hand_sheet
from .sheets import as_csv, import_csv

_REFUSED = {422: ProblemSerializer}
_ANSWERS: Any = {200: serializers.SewnSerializer, **_REFUSED}


def _context(sheet: selectors.SewnSheet, style: Style) -> dict[str, Any]:
    by_row = {row.pk: reading for row, reading in zip(sheet.rows, sheet.found.readings, strict=False)}
    odd = {sheet.rows[o.index].pk: o.said for o in sheet.found.odd if o.index < len(sheet.rows)}
    model = sheet.scene.model
    return {
        "style": style,
        "model": model,
        "parameters": parameters_of(model),
        "reach": sheet.verdict.reach,
        "by_row": by_row,
        "odd": odd,
        "stock": sheet.stock,
    }


def _sheet(block: Block, factor: float = 4.0, tried: str = "") -> Response:
    style = style_of(block.project)
    try:
        sheet = selectors.sheet_of(block, factor, tried)
    except PiecingError as refusal:
        raise Refused([refusal], style) from None
    return Response(serializers.SewnSerializer(sheet, context=_context(sheet, style)).data)


def _factor(request: Request) -> float:
    try:
        return min(16.0, max(1.0, float(request.query_params.get("factor", "4"))))
    except ValueError:
        return 4.0


class SewnView(APIView):
    """A block as its readings make it: drawn, judged, with what to measure next and what to do."""

    @extend_schema(
        operation_id="sewn",
        parameters=[OpenApiParameter("factor", float), OpenApiParameter("tried", str)],
        responses=_ANSWERS,
    )
    def get(self, request: Request, key: UUID) -> Response:
        block = get_block(current_workroom(), key)
        return _sheet(block, _factor(request), request.query_params.get("tried", "")[:160])


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
        return Response(serializers.TriedSerializer(tried, context={"style": style}).data)


class MeasuredView(APIView):
    @extend_schema(operation_id="put_measured", request=ChangeSerializer, responses=_ANSWERS)
    def put(self, request: Request, block: UUID, key: UUID) -> Response:
        body = valid(ChangeSerializer(data=request.data))
        return _sheet(commands.put_measured(current_workroom(), block, key, body["changes"], body["seen"]))

    @extend_schema(operation_id="delete_measured", responses=_ANSWERS)
    def delete(self, _request: Request, block: UUID, key: UUID) -> Response:
        return _sheet(commands.delete_measured(current_workroom(), block, key))


class RestoreMeasuredView(APIView):
    @extend_schema(operation_id="restore_measured", request=None, responses=_ANSWERS)
    def post(self, _request: Request, block: UUID, key: UUID) -> Response:
        return _sheet(commands.restore_measured(current_workroom(), block, key))


class MeasuredSheetView(APIView):
    """Readings of a block as CSV."""

    @extend_schema(operation_id="export_measured", responses={(200, "text/csv"): OpenApiTypes.STR})
    def get(self, _request: Request, key: UUID) -> HttpResponse:
        block = get_block(current_workroom(), key)
        text = as_csv(block.measured.filter(deleted_at=None), style_of(block.project))
        answer = HttpResponse(text, content_type="text/csv; charset=utf-8")
        answer["Content-Disposition"] = 'attachment; filename="block-readings.csv"'
        return answer

    @extend_schema(
        operation_id="import_measured",
        request=SheetSerializer,
        responses={200: ImportedSerializer, **_REFUSED},
    )
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(SheetSerializer(data=request.data))
        block = get_block(current_workroom(), key)
        try:
            taken = import_csv(block, body["text"])
        except PiecingError as refusal:
            raise Refused([refusal], style_of(block.project)) from None
        return Response(ImportedSerializer(taken).data)


class KeptView(APIView):
    """A diagnosis kept as it was said, and what turned out later."""

    @extend_schema(operation_id="keep_diagnosis", request=None, responses=_ANSWERS)
    def put(self, _request: Request, block: UUID, key: UUID) -> Response:
        return _sheet(commands.keep(current_workroom(), block, key))

    @extend_schema(operation_id="change_kept", request=ChangeSerializer, responses=_ANSWERS)
    def patch(self, request: Request, block: UUID, key: UUID) -> Response:
        body = valid(ChangeSerializer(data=request.data))
        return _sheet(commands.change_kept(current_workroom(), block, key, body["changes"], body["seen"]))


class ByHandView(APIView):
    """A diagnosis without a project."""

    @extend_schema(operation_id="diagnose_by_hand", request=serializers.ByHandSerializer, responses=_ANSWERS)
    def post(self, request: Request) -> Response:
        body = valid(serializers.ByHandSerializer(data=request.data))
        style = Style(Measure(body["measure"]))
        sheet = by_hand_sheet(body, style)
        return Response(serializers.SewnSerializer(sheet, context=_context(sheet, style)).data)


class SymptomsView(APIView):
    """What one may see, with a picture of each and of how it should look."""

    @extend_schema(operation_id="symptoms", responses=serializers.SymptomSerializer(many=True))
    def get(self, _request: Request) -> Response:
        shown = [
            _shown(s, under)
            for first in symptoms()
            for s, under in ((first, ""), *((f, first.code) for f in first.further))
        ]
        return Response(serializers.SymptomSerializer(shown, many=True, context={"style": Style()}).data)


def _shown(s: Symptom, under: str) -> dict[str, Any]:
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
