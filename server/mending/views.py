from uuid import UUID

from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from common.problems import ProblemSerializer
from projects.selectors import get_unit
from projects.translate import style_of
from workrooms.selectors import current_workroom

from .selectors import diagnosis_of
from .serializers import DiagnosisSerializer


class DiagnosisView(APIView):
    """What the readings of a unit say, how surely, and what to do."""

    @extend_schema(operation_id="diagnosis", responses={200: DiagnosisSerializer, 422: ProblemSerializer})
    def get(self, _request: Request, key: UUID) -> Response:
        unit = get_unit(current_workroom(), key)
        planned, diagnosis = diagnosis_of(unit)
        context = {"style": style_of(unit.project), "reach": diagnosis.verdict.reach}
        shown = {
            "row_target": planned.choices.row(diagnosis.verdict.row_units),
            "estimates": diagnosis.findings,
            "verdict": diagnosis.verdict,
            "evidence": diagnosis.evidence,
            "this_row": diagnosis.this_row,
            "the_rest": diagnosis.the_rest,
        }
        return Response(DiagnosisSerializer(shown, context=context).data)
