import tempfile
from pathlib import Path
from typing import Any

from django.conf import settings
from django.http import FileResponse
from django.utils import timezone
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from api.problems import NotHere, ProblemSerializer
from api.requests import valid
from api.wire import MessageField, told_by
from piecing.lengths import Style
from projects.selectors import get_project
from workrooms.selectors import current_workroom

from .copies import copies, make_copy, restore
from .fullness import nearly_full_of_project, nearly_full_of_room
from .purge import deleted_rows, purge


class CopySerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    made = serializers.DateTimeField()
    size = serializers.IntegerField()


class CopyFileSerializer(serializers.Serializer[Any]):
    """A file that “Save everything” wrote."""

    file = serializers.FileField(max_length=200)


def _list_answer() -> Response:
    return Response(CopySerializer(copies(), many=True).data)


_COPIES = {200: CopySerializer(many=True), 422: ProblemSerializer}


class BackupView(APIView):
    """Everything in one file, out and in."""

    parser_classes = (MultiPartParser,)

    @extend_schema(operation_id="save_everything", responses={(200, "application/octet-stream"): OpenApiTypes.BINARY})
    def get(self, _request: Request) -> FileResponse:
        with tempfile.TemporaryDirectory(dir=settings.DATA) as scratch:
            made = make_copy(Path(scratch) / "everything.sqlite3")
            # Open, it can still be read after its folder is gone.
            opened = made.open("rb")
        name = f"entretoile-{timezone.now():%Y-%m-%d}.sqlite3"
        return FileResponse(opened, as_attachment=True, filename=name, content_type="application/octet-stream")

    @extend_schema(operation_id="restore_everything", request=CopyFileSerializer, responses=_COPIES)
    def post(self, request: Request) -> Response:
        given = valid(CopyFileSerializer(data=request.data))["file"]
        with tempfile.NamedTemporaryFile(dir=settings.DATA, suffix=".part") as taken:
            for part in given.chunks():
                taken.write(part)
            taken.flush()
            restore(Path(taken.name))
        return _list_answer()


class CopiesView(APIView):
    """The copies that the program made by itself."""

    @extend_schema(operation_id="copies", responses=CopySerializer(many=True))
    def get(self, _request: Request) -> Response:
        return _list_answer()


class DeletedSerializer(serializers.Serializer[Any]):
    """How many deleted things can still be taken back."""

    count = serializers.IntegerField()


class DeletedView(APIView):
    """What was deleted and is kept so that it can be taken back."""

    @extend_schema(operation_id="deleted", responses=DeletedSerializer)
    def get(self, _request: Request) -> Response:
        return Response({"count": deleted_rows()})

    @extend_schema(operation_id="purge_deleted", responses={200: DeletedSerializer})
    def delete(self, _request: Request) -> Response:
        """Lets go of it for good, after a copy of everything."""
        purge()
        return Response({"count": deleted_rows()})


class NearlyFullRequestSerializer(serializers.Serializer[Any]):
    """Of one project, or of what is kept for all of them."""

    project = serializers.UUIDField(required=False, allow_null=True, default=None)


class NearlyFullSerializer(serializers.Serializer[Any]):
    """A line for each thing of which hardly any more can be kept."""

    lines = serializers.ListField(child=MessageField())


class NearlyFullView(APIView):
    @extend_schema(
        operation_id="nearly_full",
        parameters=[NearlyFullRequestSerializer],
        responses={200: NearlyFullSerializer, 404: ProblemSerializer, 422: ProblemSerializer},
    )
    def get(self, request: Request) -> Response:
        room, project = current_workroom(), valid(NearlyFullRequestSerializer(data=request.query_params))["project"]
        lines = nearly_full_of_project(get_project(room, project)) if project else nearly_full_of_room(room)
        return Response(told_by(NearlyFullSerializer, {"lines": lines}, {"style": Style()}))


class RestoreCopyView(APIView):
    @extend_schema(operation_id="restore_copy", request=None, responses=_COPIES)
    def post(self, _request: Request, name: str) -> Response:
        found = next((c for c in copies() if c.name == name), None)
        if found is None:
            raise NotHere("There is no such copy. The last seven of each kind are kept.")
        restore(found.path)
        return _list_answer()
