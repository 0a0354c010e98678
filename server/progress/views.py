from typing import Any
from uuid import UUID

from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from api.patches import ChangeSerializer, change_of
from api.problems import ProblemSerializer
from api.requests import valid
from api.wire import told_by
from blocks.quilt import quilt_of
from blocks.selectors import get_block
from projects.models import Project
from projects.selectors import get_project, get_unit
from projects.translate import style_of
from workrooms.selectors import current_workroom

from . import commands, selectors, serializers
from .overview import bench_of_project
from .standing import standing_of

_HANDLING = change_of("Handling", commands.handling_readers())


def _bench(project: Project) -> Response:
    context = {"style": style_of(project)}
    found = bench_of_project(project, quilt=quilt_of(project).begun)
    return Response(told_by(serializers.BenchSerializer, found, context))


_ANSWERS = {200: serializers.BenchSerializer, 422: ProblemSerializer}


class StandingView(APIView):
    """Where a project stands, and what to do next."""

    @extend_schema(operation_id="standing", responses=serializers.StandingSerializer)
    def get(self, _request: Request, key: UUID) -> Response:
        project = get_project(current_workroom(), key)
        return Response(told_by(serializers.StandingSerializer, standing_of(project), {"style": style_of(project)}))


class BenchView(APIView):
    """A project at the bench: what is done of every unit and block, and where to go on."""

    @extend_schema(operation_id="bench", responses=serializers.BenchSerializer)
    def get(self, _request: Request, key: UUID) -> Response:
        return _bench(get_project(current_workroom(), key))


class UnitBenchView(APIView):
    """A unit at the bench: steps, lots, what is done."""

    @extend_schema(operation_id="unit_bench", responses={200: serializers.UnitBenchSerializer, 422: ProblemSerializer})
    def get(self, _request: Request, key: UUID) -> Response:
        room = current_workroom()
        style = style_of(get_unit(room, key).project)
        found = selectors.unit_bench(room, key)
        return Response(told_by(serializers.UnitBenchSerializer, found, {"style": style}))

    @extend_schema(operation_id="change_unit_handling", request=_HANDLING, responses=_ANSWERS)
    def patch(self, request: Request, key: UUID) -> Response:
        body: dict[str, Any] = valid(ChangeSerializer(data=request.data))
        return _bench(commands.change_handling(current_workroom(), key, body["changes"], body["seen"]))


class BlockBenchView(APIView):
    """A block at the bench: how it is joined and pressed, its lots, what is done."""

    @extend_schema(
        operation_id="block_bench", responses={200: serializers.BlockBenchSerializer, 422: ProblemSerializer}
    )
    def get(self, _request: Request, key: UUID) -> Response:
        room = current_workroom()
        found = selectors.block_bench(room, key)
        style = style_of(get_block(room, key).project)
        return Response(told_by(serializers.BlockBenchSerializer, found, {"style": style}))


class QuiltBenchView(APIView):
    """The quilt at the bench: blocks into rows, rows into the quilt, borders."""

    @extend_schema(operation_id="quilt_bench", responses=serializers.QuiltBenchSerializer)
    def get(self, _request: Request, key: UUID) -> Response:
        project = get_project(current_workroom(), key)
        found = selectors.quilt_bench(project)
        return Response(told_by(serializers.QuiltBenchSerializer, found, {"style": style_of(project)}))


class DoneView(APIView):
    """Something put down as done, under a name of its own."""

    @extend_schema(operation_id="put_done", request=serializers.DoneSerializer, responses=_ANSWERS)
    def put(self, request: Request, key: UUID, done: UUID) -> Response:
        body = valid(serializers.DoneSerializer(data=request.data))
        return _bench(commands.put_done(current_workroom(), key, done, body))

    @extend_schema(operation_id="take_back", responses=_ANSWERS)
    def delete(self, _request: Request, key: UUID, done: UUID) -> Response:
        return _bench(commands.take_back(current_workroom(), key, done))
