from uuid import UUID

from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from common.problems import ProblemSerializer
from piecing.lengths import Measure, Style
from piecing.trimming import recipes
from projects.selectors import get_unit
from projects.translate import style_of
from readings.selectors import plan_of
from workrooms.selectors import current_workroom

from .selectors import plan_choices
from .serializers import PlannedSerializer, PlanRequestSerializer, TrimSerializer


class PlanView(APIView):
    """Plan choices that need not be saved."""

    @extend_schema(
        operation_id="plan",
        request=PlanRequestSerializer,
        responses={200: PlannedSerializer, 422: ProblemSerializer},
    )
    def post(self, request: Request) -> Response:
        body = PlanRequestSerializer(data=request.data)
        body.is_valid(raise_exception=True)
        typed = body.validated_data
        planned = plan_choices(current_workroom(), typed)
        return Response(PlannedSerializer(planned, context={"style": Style(Measure(typed["measure"]))}).data)


class TrimView(APIView):
    """How to trim a saved unit, every way."""

    @extend_schema(operation_id="trim", responses={200: TrimSerializer, 422: ProblemSerializer})
    def get(self, _request: Request, key: UUID) -> Response:
        unit = get_unit(current_workroom(), key)
        planned = plan_of(unit)
        shown = {
            "target": planned.target,
            "finished": planned.finished,
            "raw": planned.raw,
            "margin": planned.margin,
            "notes": planned.notes,
            "recipes": recipes(planned),
        }
        return Response(TrimSerializer(shown, context={"style": style_of(unit.project)}).data)
