from uuid import UUID

from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from api.problems import ProblemSerializer
from api.requests import valid
from api.wire import told_by
from piecing.lengths import Measure, Style
from piecing.units import KINDS
from projects.selectors import get_unit
from projects.translate import style_of
from workrooms.selectors import current_workroom

from . import serializers
from .selectors import compare_choices, plan_choices, trim_of


class KindsView(APIView):
    """The kinds of unit there are."""

    @extend_schema(operation_id="kinds", responses=serializers.KindSerializer(many=True))
    def get(self, _request: Request) -> Response:
        return Response(serializers.KindSerializer(list(KINDS.values()), many=True).data)


class PlanView(APIView):
    """Plan choices that need not be saved."""

    @extend_schema(
        operation_id="plan",
        request=serializers.PlanRequestSerializer,
        responses={200: serializers.PlannedSerializer, 422: ProblemSerializer},
    )
    def post(self, request: Request) -> Response:
        typed = valid(serializers.PlanRequestSerializer(data=request.data))
        planned = plan_choices(current_workroom(), typed)
        context = {"style": Style(Measure(typed["measure"]))}
        return Response(told_by(serializers.PlannedSerializer, planned, context))


class CompareView(APIView):
    """Every way and every school for choices that need not be saved."""

    @extend_schema(
        operation_id="compare",
        request=serializers.CompareRequestSerializer,
        responses={200: serializers.ComparisonSerializer, 422: ProblemSerializer},
    )
    def post(self, request: Request) -> Response:
        typed = valid(serializers.CompareRequestSerializer(data=request.data))
        comparison = compare_choices(current_workroom(), typed, typed["at_hand"])
        margins = [w.plan.margin for w in comparison.ways if w.plan]
        context = {"style": Style(Measure(typed["measure"])), "margins": margins}
        return Response(told_by(serializers.ComparisonSerializer, comparison, context))


class TrimView(APIView):
    """How to trim a saved unit, every way."""

    @extend_schema(operation_id="trim", responses={200: serializers.TrimSerializer, 422: ProblemSerializer})
    def get(self, _request: Request, key: UUID) -> Response:
        unit = get_unit(current_workroom(), key)
        trim = trim_of(unit)
        context = {"style": style_of(unit.project), "target": trim.shown.target_width}
        return Response(told_by(serializers.TrimSerializer, trim, context))
