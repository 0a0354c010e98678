from dataclasses import dataclass
from typing import Any
from uuid import UUID

from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.serializers import CharField
from rest_framework.views import APIView

from api.looked_up import one_answer
from api.patches import ChangeSerializer, change_of
from api.problems import ProblemSerializer, Refused
from api.requests import valid
from api.wire import told_by
from piecing.errors import PiecingError
from piecing.lengths import Measure
from projects.models import Project
from projects.selectors import get_project
from projects.serializers import ProjectSerializer
from projects.translate import style_of
from workrooms.selectors import current_workroom

from . import commands, quilt_commands, scrap_commands, selectors, serializers
from .beginning import begin_project
from .counts import counts_of
from .joining import joined_view, pressed_view
from .library import library_of
from .looking import find_of_turned, other_ways
from .models import Block
from .quilt import QuiltSheet, besides_of, may_number_blocks, quilt_view
from .readers import block_readers, quilt_readers
from .rounding import round_sizes, unround_sizes
from .scraps import scrap_boxes, scrap_setting
from .translate import find_in, pattern_of

_QUILT_CHANGE = change_of("Quilt", quilt_readers(Measure.INCHES))
_BLOCK_CHANGE = change_of(
    "Block", block_readers(Measure.INCHES, lambda _key: None, ""), start=CharField(required=False, allow_blank=True)
)


@dataclass(frozen=True)
class _Saved:
    block: Block
    view: selectors.LaidBlock


@dataclass(frozen=True)
class _Sheet:
    project: Project
    blocks: list[_Saved] | None
    quilt: QuiltSheet


def _saved_blocks(project: Project) -> list[_Saved]:
    find = find_in(project.workroom)
    return [
        _Saved(b, selectors.layout_view(pattern_of(b, find), b.finished, project)) for b in selectors.blocks_of(project)
    ]


def _sheet(project: Project, status: int = 200) -> Response:
    with one_answer():
        sheet = _Sheet(project, _saved_blocks(project), quilt_view(project))
    return Response(told_by(serializers.SheetSerializer, sheet, {"style": style_of(project)}), status=status)


def _style(key: UUID) -> dict[str, Any]:
    return {"style": style_of(get_project(current_workroom(), key))}


_REFUSED = {422: ProblemSerializer}
_ORDER = OpenApiParameter("order", str)


class BeginningView(APIView):
    """A project with what it begins with, all of it or nothing; its key is made by the caller."""

    @extend_schema(
        operation_id="begin_project",
        request=serializers.BeginningSerializer,
        responses={201: ProjectSerializer, **_REFUSED},
    )
    def post(self, request: Request) -> Response:
        body = valid(serializers.BeginningSerializer(data=request.data))
        parts = {k: body[k] for k in ("unit", "block", "quilt")}
        project = begin_project(current_workroom(), body["id"], body["name"], body["fabrics"], **parts)
        return Response(told_by(ProjectSerializer, project, {"style": style_of(project)}), status=201)


class LibraryView(APIView):
    """The arrangements that come with the program, then one's own."""

    @extend_schema(operation_id="library", responses=serializers.LibraryBlockSerializer(many=True))
    def get(self, _request: Request) -> Response:
        return Response(serializers.LibraryBlockSerializer(library_of(current_workroom()), many=True).data)


class OwnBlockView(APIView):
    """An arrangement kept in one's own library; its key is made by the caller."""

    @extend_schema(
        operation_id="keep_own",
        request=serializers.OwnRequestSerializer,
        responses=serializers.LibraryBlockSerializer(many=True),
    )
    def put(self, request: Request, key: UUID) -> Response:
        body = valid(serializers.OwnRequestSerializer(data=request.data))
        room = current_workroom()
        commands.keep_own(room, key, body["block"])
        return Response(serializers.LibraryBlockSerializer(library_of(room), many=True).data)

    @extend_schema(operation_id="delete_own", responses={200: serializers.LibraryBlockSerializer(many=True)})
    def delete(self, _request: Request, key: UUID) -> Response:
        room = current_workroom()
        commands.delete_own(room, key)
        return Response(serializers.LibraryBlockSerializer(library_of(room), many=True).data)


class RestoreOwnView(APIView):
    @extend_schema(operation_id="restore_own", request=None, responses=serializers.LibraryBlockSerializer(many=True))
    def post(self, _request: Request, key: UUID) -> Response:
        room = current_workroom()
        commands.restore_own(room, key)
        return Response(serializers.LibraryBlockSerializer(library_of(room), many=True).data)


class SheetView(APIView):
    """All blocks of a project, and its quilt."""

    @extend_schema(operation_id="blocks", responses=serializers.SheetSerializer)
    def get(self, _request: Request, key: UUID) -> Response:
        return _sheet(get_project(current_workroom(), key))


class LookView(APIView):
    """A layout looked at, and changed if a change is asked for; nothing is saved."""

    @extend_schema(
        operation_id="look",
        request=serializers.LookRequestSerializer,
        responses={200: serializers.BlockViewSerializer, **_REFUSED},
    )
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(serializers.LookRequestSerializer(data=request.data))
        view = selectors.look_at(current_workroom(), key, body)
        return Response(told_by(serializers.BlockViewSerializer, view, _style(key)))


class NewBlockView(APIView):
    """A block made or changed; its key is made by the caller."""

    @extend_schema(operation_id="put_block", request=_BLOCK_CHANGE, responses=serializers.SheetSerializer)
    def put(self, request: Request, key: UUID, block: UUID) -> Response:
        body = valid(serializers.NewBlockSerializer(data=request.data))
        room = current_workroom()
        return _sheet(commands.put_block(room, key, block, body["start"], body["changes"], body["seen"]))


class EditView(APIView):
    """One change to the layout of a block, made by the core and kept."""

    @extend_schema(
        operation_id="edit_block",
        request=serializers.EditRequestSerializer,
        responses={200: serializers.EditedBlockSerializer, **_REFUSED},
    )
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(serializers.EditRequestSerializer(data=request.data))
        room = current_workroom()
        block = commands.edit_block(room, key, body["edit"])
        project = get_project(room, block.project_id)
        view = selectors.layout_view(pattern_of(block, find_in(room)), block.finished, project)
        edited = {"project": project.pk, "block": _Saved(block, view)}
        return Response(told_by(serializers.EditedBlockSerializer, edited, {"style": style_of(project)}))


class BlockView(APIView):
    @extend_schema(operation_id="delete_block", responses={200: serializers.SheetSerializer})
    def delete(self, _request: Request, key: UUID) -> Response:
        return _sheet(commands.delete_block(current_workroom(), key))


class RestoreBlockView(APIView):
    @extend_schema(operation_id="restore_block", request=None, responses=serializers.SheetSerializer)
    def post(self, _request: Request, key: UUID) -> Response:
        return _sheet(commands.restore_block(current_workroom(), key))


class LookingView(APIView):
    """A saved block taken apart, several side by side, and what one place could look like."""

    @extend_schema(
        operation_id="other_ways",
        request=serializers.LookingRequestSerializer,
        responses={200: serializers.OtherWaysSerializer, **_REFUSED},
    )
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(serializers.LookingRequestSerializer(data=request.data))
        room = current_workroom()
        spot = None if body["column"] is None or body["row"] is None else (body["column"], body["row"])
        ways = other_ways(room, key, body["across"], body["every_second"], spot)
        return Response(
            told_by(serializers.OtherWaysSerializer, ways, _style(selectors.get_block(room, key).project_id))
        )


class FindTurnedView(APIView):
    """What lies on the table, compared with what is meant."""

    @extend_schema(
        operation_id="find_turned",
        request=serializers.SeenRequestSerializer,
        responses={200: serializers.FindingSerializer, **_REFUSED},
    )
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(serializers.SeenRequestSerializer(data=request.data))
        room = current_workroom()
        found = find_of_turned(room, key, body["seen"])
        return Response(
            told_by(serializers.FindingSerializer, found, _style(selectors.get_block(room, key).project_id))
        )


class JoiningView(APIView):
    """The orders in which a saved block can be joined, and the chosen one step by step."""

    @extend_schema(
        operation_id="joining", parameters=[_ORDER], responses={200: serializers.JoinedSerializer, **_REFUSED}
    )
    def get(self, request: Request, key: UUID) -> Response:
        room = current_workroom()
        joined = joined_view(room, key, request.query_params.get("order"))
        return Response(
            told_by(serializers.JoinedSerializer, joined, _style(selectors.get_block(room, key).project_id))
        )


class PressingView(APIView):
    """Which way every seam of a saved block is pressed."""

    @extend_schema(
        operation_id="pressing",
        parameters=[_ORDER, OpenApiParameter("wishes", str)],
        responses={200: serializers.PressedSerializer, **_REFUSED},
    )
    def get(self, request: Request, key: UUID) -> Response:
        """Asked as it is chosen, before that is kept: an order, and wishes as JSON."""
        room, asked = current_workroom(), request.query_params
        pressed = pressed_view(room, key, asked.get("order"), asked.get("wishes"))
        return Response(
            told_by(serializers.PressedSerializer, pressed, _style(selectors.get_block(room, key).project_id))
        )


class QuiltView(APIView):
    @extend_schema(
        operation_id="change_quilt",
        request=_QUILT_CHANGE,
        responses={200: serializers.ChangedQuiltSerializer, **_REFUSED},
    )
    def patch(self, request: Request, key: UUID) -> Response:
        body = valid(ChangeSerializer(data=request.data))
        project = quilt_commands.change_quilt(current_workroom(), key, body["changes"], body["seen"])
        with one_answer():
            sheet = _Sheet(
                project,
                _saved_blocks(project) if may_number_blocks(project, body["changes"]) else None,
                quilt_view(project),
            )
        return Response(told_by(serializers.ChangedQuiltSerializer, sheet, {"style": style_of(project)}))


class BesideView(APIView):
    """The quilt in other settings of about its size, to compare."""

    @extend_schema(operation_id="settings_beside", responses=serializers.BesideSerializer(many=True))
    def get(self, _request: Request, key: UUID) -> Response:
        project = get_project(current_workroom(), key)
        found = besides_of(project)
        return Response(serializers.BesideSerializer(found, many=True, context={"style": style_of(project)}).data)


class SamplerView(APIView):
    """The centre laid by rule from blocks of several sizes, to go on from by hand."""

    @extend_schema(
        operation_id="lay_sampler",
        request=serializers.SamplerSerializer,
        responses={200: serializers.SheetSerializer, **_REFUSED},
    )
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(serializers.SamplerSerializer(data=request.data))
        return _sheet(quilt_commands.lay_sampler(current_workroom(), key, body))


class SashingView(APIView):
    """The centre laid by rule with sashes of several strips, to go on from by hand."""

    @extend_schema(
        operation_id="lay_sashing",
        request=serializers.SashingSerializer,
        responses={200: serializers.SheetSerializer, **_REFUSED},
    )
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(serializers.SashingSerializer(data=request.data))
        return _sheet(quilt_commands.lay_sashing(current_workroom(), key, body))


def _project(project: Project) -> Response:
    return Response(told_by(ProjectSerializer, project, {"style": style_of(project)}))


class RoundedView(APIView):
    """Sizes that do not read round in the project's measure become the nearest that do."""

    @extend_schema(operation_id="round_sizes", request=None, responses={200: ProjectSerializer, **_REFUSED})
    def post(self, _request: Request, key: UUID) -> Response:
        return _project(round_sizes(current_workroom(), key))

    @extend_schema(operation_id="unround_sizes", responses={200: ProjectSerializer})
    def delete(self, _request: Request, key: UUID) -> Response:
        return _project(unround_sizes(current_workroom(), key))


class ScrapsView(APIView):
    """Scraps of one role over the quilt."""

    @extend_schema(
        operation_id="scrap_places",
        parameters=[OpenApiParameter("role", str, required=True)],
        responses={200: serializers.ScrapSettingSerializer, **_REFUSED},
    )
    def get(self, request: Request, key: UUID) -> Response:
        room = current_workroom()
        project = get_project(room, key)
        role = request.query_params.get("role", "")[:2]
        try:
            setting = scrap_setting(project, find_in(room), role)
        except PiecingError as refusal:
            raise Refused([refusal], style_of(project)) from None
        return Response(serializers.ScrapSettingSerializer({"role": role, "places": scrap_boxes(setting)}).data)

    @extend_schema(
        operation_id="lay_scraps",
        request=serializers.ScrapsRequestSerializer,
        responses={200: serializers.SheetSerializer, **_REFUSED},
    )
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(serializers.ScrapsRequestSerializer(data=request.data))
        return _sheet(scrap_commands.lay_scraps(current_workroom(), key, body))

    @extend_schema(operation_id="take_up_scraps", responses={200: serializers.SheetSerializer})
    def delete(self, _request: Request, key: UUID) -> Response:
        return _sheet(scrap_commands.take_up_scraps(current_workroom(), key))


class CountsView(APIView):
    """Every unit of every block, counted and planned."""

    @extend_schema(operation_id="counts", responses=serializers.CountsSerializer)
    def get(self, _request: Request, key: UUID) -> Response:
        room = current_workroom()
        project = get_project(room, key)
        counts = counts_of(room, project)
        return Response(told_by(serializers.CountsSerializer, counts, {"style": style_of(project)}))
