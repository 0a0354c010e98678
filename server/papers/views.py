"""Papers by address, to open and print."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema, extend_schema_field
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from api.problems import ProblemSerializer, Refused
from api.wire import DrawingField, LengthAnswerField, MessageField, told_by
from blocks.quilt import quilt_view
from blocks.scraps import scraps_laid
from blocks.selectors import blocks_of, get_block
from blocks.translate import find_in, pattern_of
from cutting.ledger import keep_letters
from cutting.selectors import sheet_of
from cutting.translate import now_of
from journal.models import Photo
from journal.story import story_of
from measuring.selectors import plan_of, plan_or_refuse
from piecing.blocks.pattern import layout_of
from piecing.drawings.block import block_picture
from piecing.errors import PaperImpossible, PiecingError
from piecing.geometry.drawing import Drawing
from piecing.geometry.vector import svg
from piecing.lengths import Measure
from piecing.messages import Message
from piecing.overview.ticket import BlockTicket, QuiltTicket, Ticket, block_ticket, ticket
from piecing.quilts.sizes import QuiltSizes
from piecing.trimming import Cutter
from piecing.units import kind_of
from planning.serializers import RecipeStepSerializer
from progress.selectors import block_bench, hands_of, quilt_bench
from progress.translate import letters_of
from projects.models import Project
from projects.selectors import get_project, get_unit
from projects.translate import style_of
from workrooms.selectors import current_workroom, owned_rulers

from .labels import Label, labels_pdf, pile_label
from .plan import plan_pdf
from .quilt import quilt_pdf
from .scraps import scraps_pdf
from .sheet import PAGES, PaperStyle
from .story import story_pdf
from .template import template_pdf, template_svg
from .ticket import ticket_pdf

_PAGE = OpenApiParameter("page", str, enum=list(PAGES), description="Paper: a4 or letter.")
_PDF = {(200, "application/pdf"): OpenApiTypes.BINARY, 422: ProblemSerializer}


def _page(request: Request) -> str:
    page = request.query_params.get("page", "a4")
    if page not in PAGES:
        raise Refused([PaperImpossible("Paper is a4 or letter.", field="page")])
    return page


def _pdf(body: bytes, name: str) -> HttpResponse:
    answer = HttpResponse(body, content_type="application/pdf")
    answer["Content-Disposition"] = f'inline; filename="{name}.pdf"'
    return answer


def _names(project: Project) -> dict[str, str]:
    return {f.role: f.name for f in project.fabrics.all()}


def _colours(project: Project) -> dict[str, str]:
    return {f.role: f.colour for f in project.fabrics.all()}


def tickets_of(project: Project) -> list[tuple[str, Ticket]]:
    """One for every unit that can be planned."""
    room = project.workroom
    rulers, cutter, letters, found = owned_rulers(room), Cutter(room.cutter), letters_of(project), []
    for unit in project.units.all():
        unit.project = project
        try:
            planned = plan_of(unit)
            found.append((kind_of(unit.kind).title, ticket(planned, hands_of(unit, planned, letters), rulers, cutter)))
        except PiecingError:
            continue
    return found


def block_tickets_of(project: Project) -> list[BlockTicket]:
    """One for every block that can be joined."""
    found = []
    for block in blocks_of(project):
        try:
            bench = block_bench(project.workroom, block.pk)
        except Refused:
            continue
        found.append(block_ticket(bench.name, bench.count - bench.joined, bench.steps, bench.picture, bench.colourways))
    return found


def quilt_ticket_of(project: Project) -> QuiltTicket | None:
    """None while no quilt is put together, or while it cannot be sewn."""
    bench = quilt_bench(project)
    if not bench.steps or bench.picture is None:
        return None
    last = bench.steps[-1]
    wanted = Message("{w} by {h}, raw edge to raw edge, when all is joined", w=last.width, h=last.height)
    return QuiltTicket(wanted, bench.steps, bench.cautions, bench.picture)


class StoryPaper(APIView):
    """A project as a whole, to print or keep."""

    @extend_schema(operation_id="story_paper", parameters=[_PAGE], responses=_PDF)
    def get(self, request: Request, key: UUID) -> HttpResponse:
        room = current_workroom()
        project = get_project(room, key)
        story = story_of(room, project)
        photos = {p.pk: p for p in Photo.objects.filter(pk__in=[p.pk for r in story.rows for p in r.photos])}
        style = PaperStyle(Measure(project.measure))
        return _pdf(story_pdf(story, style, _colours(project), photos, _page(request)), "story")


class TicketStepSerializer(serializers.Serializer[Any]):
    title = MessageField()
    said = serializers.ListField(child=MessageField())
    look = serializers.ListField(child=MessageField())
    times = serializers.IntegerField()
    stage = serializers.CharField()
    front = DrawingField()


def lot_labels_of(project: Project) -> list[Label]:
    """One for every lot that is to be sewn, so that chains are kept in order."""
    found = []
    for unit in project.units.all():
        unit.project = project
        try:
            planned = plan_of(unit)
        except PiecingError:
            continue
        if len(planned.kind.parts) == 1:
            continue
        size = PaperStyle(Measure(project.measure)).pretty(planned.spec.width)
        for lot in hands_of(unit, planned).lots:
            units = lot.goes * planned.batch.units
            sets = f"{lot.goes} sets, {units} units" if planned.batch.units > 1 else f"{units} units"
            found.append(Label(str(lot.number), f"Lot {lot.number}: {sets}", (f"{planned.kind.title} {size}", "")))
    return found


class TicketLotSerializer(serializers.Serializer[Any]):
    number = serializers.IntegerField()
    goes = serializers.IntegerField()


class TicketSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    wanted = MessageField()
    cut = serializers.ListField(child=MessageField())
    pairs = serializers.ListField(child=MessageField())
    steps = TicketStepSerializer(many=True)
    trim_by = serializers.SerializerMethodField()
    trim = serializers.SerializerMethodField()
    target = LengthAnswerField()
    target_height = LengthAnswerField()
    tips = serializers.ListField(child=MessageField())
    lots = TicketLotSerializer(many=True)
    done = MessageField(allow_null=True)
    wound = serializers.ListField(child=serializers.IntegerField())
    goes = serializers.IntegerField()
    per_go = serializers.IntegerField()
    cautions = serializers.ListField(child=MessageField())
    picture = DrawingField()

    def get_trim_by(self, held: Ticket) -> str:
        """What the way of trimming is called; nothing where nothing is trimmed."""
        return held.recipe.title.text(self.context["style"]) if held.recipe else ""

    @extend_schema_field(RecipeStepSerializer(many=True))
    def get_trim(self, held: Ticket) -> Any:
        """The steps of trimming."""
        steps = held.recipe.steps if held.recipe else ()
        return RecipeStepSerializer(steps, many=True, context=self.context).data


class BlockTicketSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    wanted = MessageField()
    steps = TicketStepSerializer(many=True)
    cautions = serializers.ListField(child=MessageField())
    picture = DrawingField()


class QuiltTicketStepSerializer(serializers.Serializer[Any]):
    title = MessageField()
    said = serializers.ListField(child=MessageField())
    look = serializers.ListField(child=MessageField())


class QuiltTicketSerializer(serializers.Serializer[Any]):
    wanted = MessageField()
    steps = QuiltTicketStepSerializer(many=True)
    cautions = serializers.ListField(child=MessageField())
    picture = DrawingField()


class TicketsSerializer(serializers.Serializer[Any]):
    """The bench tickets of a project: of its units, of the blocks that they are joined to, and of the quilt."""

    units = TicketSerializer(many=True)
    blocks = BlockTicketSerializer(many=True)
    quilt = QuiltTicketSerializer(allow_null=True)


class TicketView(APIView):
    """The bench ticket of every unit and block of a project, on screen."""

    @extend_schema(operation_id="ticket", responses=TicketsSerializer)
    def get(self, _request: Request, key: UUID) -> Response:
        project = get_project(current_workroom(), key)
        units = [_Named(n, t) for n, t in tickets_of(project)]
        tickets = {"units": units, "blocks": block_tickets_of(project), "quilt": quilt_ticket_of(project)}
        return Response(told_by(TicketsSerializer, tickets, {"style": style_of(project)}))


class _Named:
    """A ticket with the name of its unit."""

    def __init__(self, name: str, held: Ticket) -> None:
        self.name, self._held = name, held

    def __getattr__(self, field: str) -> Any:
        return getattr(self._held, field)


class TicketPaper(APIView):
    @extend_schema(operation_id="ticket_pdf", parameters=[_PAGE], responses=_PDF)
    def get(self, request: Request, key: UUID) -> HttpResponse:
        project = get_project(current_workroom(), key)
        body = ticket_pdf(
            project.name,
            tickets_of(project),
            block_tickets_of(project),
            quilt_ticket_of(project),
            _colours(project),
            Measure(project.measure),
            _page(request),
        )
        return _pdf(body, "ticket")


class LabelsPaper(APIView):
    @extend_schema(operation_id="labels_pdf", parameters=[_PAGE], responses=_PDF)
    def get(self, request: Request, key: UUID) -> HttpResponse:
        project = get_project(current_workroom(), key)
        piles = now_of(project)
        # A printed letter is kept.
        keep_letters(project, piles)
        names, measure = _names(project), Measure(project.measure)
        labels = [pile_label(p.piece, names.get(p.entry.fabric, ""), measure) for p in piles if p.wanted]
        body = labels_pdf(project.name, [*labels, *lot_labels_of(project)], _page(request))
        return _pdf(body, "labels")


class PlanPaper(APIView):
    @extend_schema(operation_id="plan_pdf", parameters=[_PAGE], responses=_PDF)
    def get(self, request: Request, key: UUID) -> HttpResponse:
        project = get_project(current_workroom(), key)
        plan = sheet_of(project).plan
        cloths = plan.cloths if plan else ()
        body = plan_pdf(
            project.name, cloths, _names(project), _colours(project), Measure(project.measure), _page(request)
        )
        return _pdf(body, "cutting-plan")


class ScrapsPaper(APIView):
    """A map of the scraps that are laid out."""

    @extend_schema(operation_id="scraps_pdf", parameters=[_PAGE], responses=_PDF)
    def get(self, request: Request, key: UUID) -> HttpResponse:
        project = get_project(current_workroom(), key)
        view = quilt_view(project)
        body = scraps_pdf(
            project.name, view.picture, scraps_laid(project), _names(project), _colours(project), _page(request)
        )
        return _pdf(body, "scraps")


class TemplatePaper(APIView):
    @extend_schema(operation_id="template_pdf", parameters=[_PAGE], responses=_PDF)
    def get(self, request: Request, key: UUID) -> HttpResponse:
        unit = get_unit(current_workroom(), key)
        page = _page(request)
        try:
            body = template_pdf(_title(unit), plan_or_refuse(unit), Measure(unit.project.measure), page)
        except PiecingError as refusal:
            raise Refused([refusal], style_of(unit.project)) from None
        return _pdf(body, "template")


class TemplateDrawing(APIView):
    @extend_schema(
        operation_id="template_svg", responses={(200, "image/svg+xml"): OpenApiTypes.STR, 422: ProblemSerializer}
    )
    def get(self, _request: Request, key: UUID) -> HttpResponse:
        unit = get_unit(current_workroom(), key)
        try:
            body = template_svg(_title(unit), plan_or_refuse(unit))
        except PiecingError as refusal:
            raise Refused([refusal], style_of(unit.project)) from None
        return HttpResponse(body, content_type="image/svg+xml")


class BlockDrawing(APIView):
    """A block as SVG, at its finished size."""

    @extend_schema(
        operation_id="block_svg", responses={(200, "image/svg+xml"): OpenApiTypes.STR, 422: ProblemSerializer}
    )
    def get(self, _request: Request, key: UUID) -> HttpResponse:
        room = current_workroom()
        block = get_block(room, key)
        project = get_project(room, block.project_id)
        pattern = pattern_of(block, find_in(room))
        body = svg(block_picture(layout_of(pattern), block.finished), _colours(project), style_of(project))
        return HttpResponse(body, content_type="image/svg+xml")


_SCALE = OpenApiParameter("scale", int, description="One to so much; without it as large as is handy.")


def _scale(request: Request) -> int:
    """0 where none is asked for."""
    text = request.query_params.get("scale", "").strip()
    if not text:
        return 0
    if not text.isascii() or not text.isdigit() or not 1 <= int(text[:6]) <= 100:
        raise Refused([PaperImpossible("A scale is one to a whole number from 1 to 100.", field="scale")])
    return int(text)


def _drawn_quilt(project: Project) -> tuple[Drawing, QuiltSizes]:
    view = quilt_view(project)
    if view.picture is None or view.sizes is None:
        nothing = PaperImpossible("There is no quilt to draw yet. Lay out a block first.")
        raise Refused([view.refusal or nothing], style_of(project))
    return view.picture, view.sizes


class QuiltDrawing(APIView):
    """The quilt as SVG: one to a scale, or ten inches wide."""

    @extend_schema(
        operation_id="quilt_svg",
        parameters=[_SCALE],
        responses={(200, "image/svg+xml"): OpenApiTypes.STR, 422: ProblemSerializer},
    )
    def get(self, request: Request, key: UUID) -> HttpResponse:
        project, scale = get_project(current_workroom(), key), _scale(request)
        picture, sizes = _drawn_quilt(project)
        width = float(sizes.width) / scale if scale else 10
        body = svg(picture, _colours(project), style_of(project), width=width)
        return HttpResponse(body, content_type="image/svg+xml")


class QuiltPaper(APIView):
    """The quilt on one page, or tiled at a scale."""

    @extend_schema(operation_id="quilt_pdf", parameters=[_PAGE, _SCALE], responses={**_PDF, 422: ProblemSerializer})
    def get(self, request: Request, key: UUID) -> HttpResponse:
        project, scale = get_project(current_workroom(), key), _scale(request)
        picture, sizes = _drawn_quilt(project)
        names, colours, measure = _names(project), _colours(project), Measure(project.measure)
        try:
            body = quilt_pdf(project.name, picture, sizes, names, colours, measure, _page(request), scale)
        except PiecingError as refusal:
            raise Refused([refusal], style_of(project)) from None
        return _pdf(body, "quilt")


def _title(unit: Any) -> str:
    return f"{kind_of(unit.kind).title}, {unit.project.name}"
