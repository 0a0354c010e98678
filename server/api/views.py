"""What belongs to no room."""

from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView


class HealthSerializer(serializers.Serializer[Any]):
    here = serializers.BooleanField()


class HealthView(APIView):
    """Whether the server answers."""

    @extend_schema(operation_id="health", responses=HealthSerializer)
    def get(self, _request: Request) -> Response:
        return Response({"here": True})
