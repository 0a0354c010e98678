from uuid import UUID

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from api.csv_serializers import CsvTextSerializer, ImportedSerializer
from api.looked_up import one_answer
from api.patches import ChangeSerializer, change_of
from api.problems import ProblemSerializer
from api.requests import valid
from api.wire import told_by
from piecing.lengths import Measure, Style
from projects.models import Project
from projects.selectors import get_project, get_unit
from projects.serializers import ExchangeSerializer, ProjectSerializer
from projects.translate import style_of
from workrooms.models import Workroom
from workrooms.selectors import current_workroom

from . import commands, selectors, serializers, sheets, shelf, spares, stock_commands

_STOCK_CHANGE = change_of("Stock", stock_commands.stock_readers(Measure.INCHES))
_SHELF_CHANGE = change_of("Shelf", shelf.shelf_readers(Measure.INCHES))
_PILE_CHANGE = change_of("Pile", commands.PILE_READERS)


def _sheet(project: Project) -> Response:
    context = {"style": style_of(project)}
    with one_answer():
        sheet = selectors.sheet_of(project)
    return Response(told_by(serializers.CuttingSheetSerializer, sheet, context))


_ANSWERS = {200: serializers.CuttingSheetSerializer, 422: ProblemSerializer}


class CuttingView(APIView):
    """Stock, piles and plan of a project."""

    @extend_schema(operation_id="cutting", responses=serializers.CuttingSheetSerializer)
    def get(self, _request: Request, key: UUID) -> Response:
        return _sheet(get_project(current_workroom(), key))

    @extend_schema(operation_id="begin_cutting", request=serializers.BeginSerializer, responses=_ANSWERS)
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(serializers.BeginSerializer(data=request.data))
        return _sheet(commands.begin_plan(current_workroom(), key, body["goal"], along=body["along"]))

    @extend_schema(operation_id="stop_cutting", responses={200: serializers.CuttingSheetSerializer})
    def delete(self, _request: Request, key: UUID) -> Response:
        return _sheet(commands.stop_plan(current_workroom(), key))


class TickView(APIView):
    """A strip ticked off."""

    @extend_schema(operation_id="tick_strip", request=serializers.TickSerializer, responses=_ANSWERS)
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(serializers.TickSerializer(data=request.data))
        return _sheet(commands.tick_strip(current_workroom(), key, body["number"], body["done"], body["plan"]))


class MarkCutView(APIView):
    """The plan is cut: stock is used up, left-overs come back."""

    @extend_schema(operation_id="mark_cut", request=None, responses=_ANSWERS)
    def post(self, _request: Request, key: UUID) -> Response:
        return _sheet(commands.mark_cut(current_workroom(), key))


class UndoCutView(APIView):
    """Plan, piles and stock as before strips were last put down as cut."""

    @extend_schema(operation_id="undo_cutting", request=None, responses=_ANSWERS)
    def post(self, _request: Request, key: UUID) -> Response:
        return _sheet(commands.undo_cutting(current_workroom(), key))


class PileView(APIView):
    """A pile as it was counted on the table."""

    @extend_schema(operation_id="change_pile", request=_PILE_CHANGE, responses=_ANSWERS)
    def patch(self, request: Request, key: UUID, letter: str) -> Response:
        body = valid(ChangeSerializer(data=request.data))
        return _sheet(commands.change_pile(current_workroom(), key, letter, body["changes"], body["seen"]))


class KeepOverView(APIView):
    """Pieces of a pile that are no longer wanted go to the stock as scraps."""

    @extend_schema(operation_id="keep_over", request=None, responses=_ANSWERS)
    def post(self, _request: Request, key: UUID, letter: str) -> Response:
        return _sheet(commands.keep_over(current_workroom(), key, letter))


class TrianglesView(APIView):
    """Odd triangles of a pile go to the stock."""

    @extend_schema(operation_id="put_triangles_by", request=None, responses=_ANSWERS)
    def post(self, _request: Request, key: UUID, letter: str) -> Response:
        return _sheet(commands.put_triangles_by(current_workroom(), key, letter))


class SparesView(APIView):
    """What falls off a planned unit, and units in stock that would do in its place."""

    @extend_schema(operation_id="spares", responses=serializers.SparesSerializer)
    def get(self, _request: Request, key: UUID) -> Response:
        room = current_workroom()
        style = style_of(get_unit(room, key).project)
        return Response(told_by(serializers.SparesSerializer, spares.spares_of_unit(room, key), {"style": style}))


class KeepSparesView(APIView):
    """Small units that fall off go to the stock."""

    @extend_schema(operation_id="keep_spares", request=None, responses=_ANSWERS)
    def post(self, _request: Request, key: UUID) -> Response:
        return _sheet(spares.keep_spares(current_workroom(), key))


class UseSparesView(APIView):
    """Units in stock are made already."""

    @extend_schema(operation_id="use_spares", request=serializers.UseSparesSerializer, responses=_ANSWERS)
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(serializers.UseSparesSerializer(data=request.data))
        return _sheet(spares.use_spares(current_workroom(), key, body["stock"]))


def _shelf(room: Workroom) -> Response:
    body = {"measure": room.measure, "cloths": shelf.on_shelf(room)}
    return Response(told_by(serializers.ShelfSerializer, body, {"style": Style(Measure(room.measure))}))


_SHELF_ANSWERS = {200: serializers.ShelfSerializer, 422: ProblemSerializer}


class ShelfView(APIView):
    """What no project has reserved."""

    @extend_schema(operation_id="shelf", responses=serializers.ShelfSerializer)
    def get(self, _request: Request) -> Response:
        return _shelf(current_workroom())


class ShelvedView(APIView):
    """A cloth on the shelf; its key is made by the caller."""

    @extend_schema(operation_id="put_on_shelf", request=_SHELF_CHANGE, responses=_SHELF_ANSWERS)
    def put(self, request: Request, key: UUID) -> Response:
        body = valid(ChangeSerializer(data=request.data))
        return _shelf(shelf.put_on_shelf(current_workroom(), key, body["changes"], body["seen"]))

    @extend_schema(operation_id="delete_shelved", responses={200: serializers.ShelfSerializer})
    def delete(self, _request: Request, key: UUID) -> Response:
        return _shelf(shelf.delete_shelved(current_workroom(), key))


class RestoreShelvedView(APIView):
    @extend_schema(operation_id="restore_shelved", request=None, responses=serializers.ShelfSerializer)
    def post(self, _request: Request, key: UUID) -> Response:
        return _shelf(shelf.restore_shelved(current_workroom(), key))


class ShelveView(APIView):
    """So many of a project's cloths back on the shelf."""

    @extend_schema(operation_id="shelve", request=serializers.MoveSerializer, responses=_ANSWERS)
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(serializers.MoveSerializer(data=request.data))
        return _sheet(shelf.shelve(current_workroom(), key, body["count"], body["rest"]))


class TakeOffShelfView(APIView):
    """So many of the cloths on the shelf reserved for a fabric."""

    @extend_schema(operation_id="take_off_shelf", request=serializers.MoveSerializer, responses=_ANSWERS)
    def post(self, request: Request, key: UUID, stock: UUID) -> Response:
        body = valid(serializers.MoveSerializer(data=request.data))
        return _sheet(shelf.take_off_shelf(current_workroom(), key, stock, body["count"], body["rest"]))


class NewStockView(APIView):
    """A cloth of a fabric; its key is made by the caller."""

    @extend_schema(operation_id="put_stock", request=_STOCK_CHANGE, responses=_ANSWERS)
    def put(self, request: Request, key: UUID, stock: UUID) -> Response:
        body = valid(ChangeSerializer(data=request.data))
        return _sheet(stock_commands.put_stock(current_workroom(), key, stock, body["changes"], body["seen"]))


class StockView(APIView):
    @extend_schema(operation_id="delete_stock", responses={200: serializers.CuttingSheetSerializer})
    def delete(self, _request: Request, key: UUID) -> Response:
        return _sheet(stock_commands.delete_stock(current_workroom(), key))


class RestoreStockView(APIView):
    @extend_schema(operation_id="restore_stock", request=None, responses=serializers.CuttingSheetSerializer)
    def post(self, _request: Request, key: UUID) -> Response:
        return _sheet(stock_commands.restore_stock(current_workroom(), key))


class PossibleView(APIView):
    """What the stock is enough for."""

    @extend_schema(operation_id="possible", responses=serializers.PossibleSerializer)
    def get(self, _request: Request, key: UUID) -> Response:
        project = get_project(current_workroom(), key)
        found = selectors.possible_of(project)
        return Response(told_by(serializers.PossibleSerializer, found, {"style": style_of(project)}))


class _SheetView(APIView):
    """A sheet of CSV, out and in."""

    name = ""

    def out(self, key: UUID) -> HttpResponse:
        project = get_project(current_workroom(), key)
        text = sheets.stock_csv(project) if self.name == "stock" else sheets.cut_list_csv(project)
        answer = HttpResponse(text, content_type="text/csv; charset=utf-8")
        answer["Content-Disposition"] = f'attachment; filename="{self.name}.csv"'
        return answer

    def take_lines(self, request: Request, key: UUID) -> Response:
        body = valid(CsvTextSerializer(data=request.data))
        project = get_project(current_workroom(), key)
        take = sheets.import_stock if self.name == "stock" else sheets.import_cut_list
        return Response(ImportedSerializer(take(project, body["text"])).data)


_CSV = {(200, "text/csv"): OpenApiTypes.STR}


class StockSheetView(_SheetView):
    name = "stock"

    @extend_schema(operation_id="export_stock", responses=_CSV)
    def get(self, _request: Request, key: UUID) -> HttpResponse:
        return self.out(key)

    @extend_schema(operation_id="import_stock", request=CsvTextSerializer, responses=ImportedSerializer)
    def post(self, request: Request, key: UUID) -> Response:
        return self.take_lines(request, key)


class CutListView(_SheetView):
    name = "cut-list"

    @extend_schema(operation_id="export_cut_list", responses=_CSV)
    def get(self, _request: Request, key: UUID) -> HttpResponse:
        return self.out(key)

    @extend_schema(operation_id="import_cut_list", request=CsvTextSerializer, responses=ImportedSerializer)
    def post(self, request: Request, key: UUID) -> Response:
        return self.take_lines(request, key)


class BuyingView(APIView):
    """What to buy, and the thread."""

    @extend_schema(
        operation_id="buying",
        parameters=[serializers.BuyingRequestSerializer],
        responses=serializers.BuyingSerializer,
    )
    def get(self, request: Request, key: UUID) -> Response:
        asked = valid(serializers.BuyingRequestSerializer(data=request.query_params))
        project = get_project(current_workroom(), key)
        found = selectors.buying_of(project, asked["shrinkage"], asked["wrong_cuts"], asked["bobbin"])
        return Response(told_by(serializers.BuyingSerializer, found, {"style": style_of(project)}))


class ExchangeView(APIView):
    """Two fabrics of a project change places everywhere."""

    @extend_schema(operation_id="exchange_fabrics", request=ExchangeSerializer, responses=ProjectSerializer)
    def post(self, request: Request, key: UUID) -> Response:
        body = valid(ExchangeSerializer(data=request.data))
        project = commands.exchange_fabrics(current_workroom(), key, body["one"], body["other"])
        return Response(told_by(ProjectSerializer, project, {"style": style_of(project)}))
