from fractions import Fraction
from typing import Any
from weakref import WeakKeyDictionary

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.problems import FieldProblemSerializer, field_problem
from api.wire import (
    AreaField,
    DrawingField,
    FlatSerializer,
    LengthAnswerField,
    LengthSerializer,
    MessageField,
    length_out,
    told_by,
)
from piecing.drawings.unit import design_picture
from piecing.lengths import Length, Measure, Style, inches, mm
from piecing.messages import Message
from piecing.quilts.backing import backing_said, binding_said
from piecing.quilts.by_rule import StripCrossing
from piecing.quilts.choices import Corners
from piecing.units import kind_of
from planning.serializers import UnitPlanSerializer
from projects.models import SCHOOLS
from projects.serializers import KINDS

from .models import BACKINGS, LYINGS, ORDERS, SETTINGS, SPREADS
from .selectors import LaidBlock
from .wire import EditField, PatternField, PiecedWire, PressingField


def _sound_edit(value: Any) -> Any:
    if not isinstance(value, dict):
        raise serializers.ValidationError("A change is an object that says what to do.")
    return value


class EditRequestSerializer(serializers.Serializer[Any]):
    """One change to a layout."""

    edit = EditField()

    def validate_edit(self, value: Any) -> Any:
        return _sound_edit(value)


class LookRequestSerializer(serializers.Serializer[Any]):
    """A layout, and one change to it if any; nothing is saved by asking."""

    block = serializers.UUIDField(required=False, allow_null=True, default=None)
    pattern = PatternField()
    finished = serializers.CharField(max_length=60, trim_whitespace=False, allow_blank=True)
    edit = EditField(required=False, default=None, allow_null=True)

    def validate_edit(self, value: Any) -> Any:
        return value if value is None else _sound_edit(value)


class TrackSerializer(FlatSerializer):
    """A column or row, ``share`` of the whole."""

    name = serializers.CharField()
    finished = LengthAnswerField()
    on_step = serializers.BooleanField()
    share = serializers.FloatField()


class NearSizeSerializer(serializers.Serializer[Any]):
    finished = LengthAnswerField()
    step = LengthAnswerField()
    larger = serializers.BooleanField()


class OddUnitSerializer(serializers.Serializer[Any]):
    place = serializers.CharField()
    said = MessageField()
    serious = serializers.BooleanField()


class BlockSizeSerializer(serializers.Serializer[Any]):
    finished = LengthAnswerField()
    finished_height = LengthAnswerField()
    unfinished = LengthAnswerField()
    unfinished_height = LengthAnswerField()


class UnitSizeSerializer(serializers.Serializer[Any]):
    width = LengthAnswerField()
    height = LengthAnswerField()
    count = serializers.IntegerField()


class BlockSizesSerializer(serializers.Serializer[Any]):
    """``nearest``: sizes at which every track and unit falls on a mark."""

    block = BlockSizeSerializer()
    columns = TrackSerializer(many=True)
    rows = TrackSerializer(many=True)
    unit_sizes = serializers.SerializerMethodField()
    off_step = TrackSerializer(many=True)
    nearest = NearSizeSerializer(many=True)
    odd = OddUnitSerializer(many=True)

    @extend_schema_field(UnitSizeSerializer(many=True))
    def get_unit_sizes(self, sizes: Any) -> list[dict[str, Any]]:
        style = self.context["style"]
        return [
            {"width": length_out(w, style), "height": length_out(h, style), "count": n} for w, h, n in sizes.unit_sizes
        ]


class SpotSerializer(FlatSerializer):
    """One place; ``box`` is left, top, width, height as shares of the picture, ``lies`` counts in ``lying`` from 0."""

    column = serializers.IntegerField()
    row = serializers.IntegerField()
    across = serializers.IntegerField()
    down = serializers.IntegerField()
    box = serializers.ListField(child=serializers.FloatField(), min_length=4, max_length=4)
    lies = serializers.IntegerField()


class LyingSerializer(FlatSerializer):
    """What lies in one place or in many alike. ``content`` is a kind or a block's key, empty in an empty place."""

    content = serializers.CharField(allow_blank=True)
    name = serializers.CharField(allow_blank=True)
    part_fabrics = serializers.ListField(child=serializers.CharField())
    parts = serializers.ListField(child=serializers.CharField())
    corners = serializers.ListField(child=serializers.CharField())
    strip = serializers.CharField(allow_blank=True)
    turn = serializers.IntegerField()
    mirrored = serializers.BooleanField()
    width = serializers.SerializerMethodField()
    height = serializers.SerializerMethodField()

    @extend_schema_field(LengthSerializer)
    def get_width(self, lying: Any) -> dict[str, Any]:
        return length_out(lying.size[0], self.context["style"])

    @extend_schema_field(LengthSerializer)
    def get_height(self, lying: Any) -> dict[str, Any]:
        return length_out(lying.size[1], self.context["style"])


class _WithRefusal(serializers.Serializer[Any]):
    """A core refusal told beside what could be worked out."""

    def told(self, refusal: Any) -> dict[str, Any] | None:
        return None if refusal is None else field_problem(refusal, self.context["style"])


_told: WeakKeyDictionary[LaidBlock, dict[Style, Any]] = WeakKeyDictionary()


class BlockViewSerializer(_WithRefusal):
    pattern = PatternField()
    name = serializers.CharField()
    columns = serializers.CharField()
    rows = serializers.CharField()
    picture = DrawingField()
    spots = SpotSerializer(many=True)
    lying = LyingSerializer(many=True)
    empty = serializers.ListField(child=serializers.CharField())
    roles = serializers.ListField(child=serializers.CharField())
    sizes = BlockSizesSerializer()
    cannot = serializers.SerializerMethodField()

    @extend_schema_field(FieldProblemSerializer(allow_null=True))
    def get_cannot(self, view: Any) -> dict[str, Any] | None:
        return self.told(view.cannot)

    def to_representation(self, instance: LaidBlock) -> Any:
        """Told once as long as the layout is remembered: a quilt tells all its blocks whatever is changed round them."""
        told = _told.setdefault(instance, {})
        style = self.context["style"]
        if style not in told:
            told[style] = super().to_representation(instance)
        return told[style]


class LibraryBlockSerializer(serializers.Serializer[Any]):
    key = serializers.CharField()
    own = serializers.BooleanField()
    pattern = PatternField()
    name = serializers.CharField()
    columns = serializers.IntegerField()
    rows = serializers.IntegerField()
    picture = DrawingField()
    kinds = serializers.ListField(child=serializers.CharField())


class ColourwaySerializer(serializers.Serializer[Any]):
    count = serializers.IntegerField()
    roles = serializers.DictField(child=serializers.CharField())


class SavedBlockSerializer(serializers.Serializer[Any]):
    """A block of the project with its layout worked out."""

    id = serializers.UUIDField(source="block.pk")
    part = serializers.CharField(source="block.part", allow_blank=True)
    finished = LengthAnswerField(source="block.finished")
    colourways = ColourwaySerializer(many=True, source="block.colourways")
    order = serializers.ChoiceField(choices=ORDERS, allow_blank=True, source="block.order")
    pressing = PressingField(source="block.pressing")
    view = BlockViewSerializer()


class EditedBlockSerializer(serializers.Serializer[Any]):
    """A block after a change to its layout."""

    project = serializers.UUIDField()
    block = SavedBlockSerializer()


class PlainPieceSerializer(serializers.Serializer[Any]):
    """``cut_into`` 2 or 4: a square cut on its diagonals, of which ``needed`` are used and ``left_over`` not."""

    name = serializers.CharField()
    fabric = serializers.CharField()
    finished_width = LengthAnswerField()
    finished_height = LengthAnswerField()
    cut_width = LengthAnswerField()
    cut_height = LengthAnswerField()
    count = serializers.IntegerField()
    cut_into = serializers.IntegerField()
    needed = serializers.IntegerField()
    left_over = serializers.IntegerField()
    note = serializers.SerializerMethodField()

    def get_note(self, piece: Any) -> str:
        return piece.note.text(self.context["style"]) if piece.note else ""


class BackingSerializer(serializers.Serializer[Any]):
    along = serializers.BooleanField()
    panels = serializers.IntegerField()
    panel_length = LengthAnswerField()
    length = LengthAnswerField()
    width = LengthAnswerField()
    height = LengthAnswerField()
    strip = LengthAnswerField()
    said = serializers.SerializerMethodField()

    def get_said(self, backing: Any) -> str:
        return str(backing_said(backing).text(self.context["style"]))


class BindingSerializer(serializers.Serializer[Any]):
    strips = serializers.IntegerField()
    strip = LengthAnswerField()
    round_about = LengthAnswerField()
    length = LengthAnswerField()


class QuiltSizesSerializer(serializers.Serializer[Any]):
    """``width`` and ``height`` finish; ``unfinished_...`` is raw edge to raw edge before it is bound."""

    blocks = serializers.IntegerField()
    block_width = LengthAnswerField(source="choices.block_width")
    block_height = LengthAnswerField(source="choices.block_height")
    centre_width = LengthAnswerField()
    centre_height = LengthAnswerField()
    width = LengthAnswerField()
    height = LengthAnswerField()
    unfinished_width = LengthAnswerField()
    unfinished_height = LengthAnswerField()
    pieces = PlainPieceSerializer(many=True)
    backing = BackingSerializer(many=True)
    binding = BindingSerializer()
    binding_corner = serializers.SerializerMethodField()
    notes = serializers.ListField(child=MessageField())

    def get_binding_corner(self, sizes: Any) -> str:
        return str(binding_said(sizes.choices).text(self.context["style"]))


class BlocksTakenSerializer(serializers.Serializer[Any]):
    """How many of a block in one of its colourways, counted from nought, the quilt as it is set takes."""

    block = serializers.UUIDField(source="block.pk")
    colourway = serializers.IntegerField()
    takes = serializers.IntegerField()
    planned = serializers.IntegerField()


class BorderSerializer(serializers.Serializer[Any]):
    width = serializers.SerializerMethodField()
    fabric = serializers.CharField()
    corners = serializers.ChoiceField(choices=[c.value for c in Corners])
    corner_fabric = serializers.CharField()
    pieced = serializers.SerializerMethodField()

    @extend_schema_field(PiecedWire(allow_null=True))
    def get_pieced(self, border: Any) -> Any:
        return border.get("pieced")

    def get_width(self, border: Any) -> str:
        return str(self.context["style"].text(Length.of(Fraction(border["width"]))))


class MakingSerializer(serializers.Serializer[Any]):
    method = serializers.CharField(allow_blank=True)
    school = serializers.ChoiceField(choices=SCHOOLS)


class ScrapsKeptSerializer(serializers.Serializer[Any]):
    """An arrangement as it was kept: ``laid`` is spot, unit of the block, fabric."""

    role = serializers.CharField(default="")
    stock = serializers.DictField(child=serializers.IntegerField(), default=dict)
    fixed = serializers.DictField(child=serializers.CharField(), default=dict)
    order = serializers.IntegerField(default=0)
    seed = serializers.IntegerField(default=1)
    corners = serializers.BooleanField(default=False)
    sets = serializers.BooleanField(default=False)
    alike = serializers.ListField(child=serializers.ListField(child=serializers.IntegerField()), default=list)
    said = serializers.ListField(child=serializers.CharField(), default=list)
    laid = serializers.BooleanField(default=False)


class QuiltViewSerializer(_WithRefusal):
    begun = serializers.BooleanField(source="quilt.begun")
    columns = serializers.IntegerField(source="quilt.columns")
    rows = serializers.IntegerField(source="quilt.rows")
    setting = serializers.ChoiceField(choices=SETTINGS, source="quilt.setting")
    spread = serializers.ChoiceField(choices=SPREADS, source="quilt.spread")
    every_second = serializers.ChoiceField(choices=LYINGS, source="quilt.every_second")
    sash = LengthAnswerField(source="quilt.sash")
    sash_round = serializers.BooleanField(source="quilt.sash_round")
    cornerstones = serializers.BooleanField(source="quilt.cornerstones")
    sash_fabric = serializers.CharField(source="quilt.sash_fabric")
    cornerstone_fabric = serializers.CharField(source="quilt.cornerstone_fabric")
    setting_fabric = serializers.CharField(source="quilt.setting_fabric")
    borders = BorderSerializer(many=True, source="quilt.borders")
    binding_strip = LengthAnswerField(source="quilt.binding_strip")
    binding_fabric = serializers.CharField(source="quilt.binding_fabric")
    backing_fabric = serializers.CharField(source="quilt.backing_fabric")
    backing_over = LengthAnswerField(source="quilt.backing_over")
    usable = LengthAnswerField(source="quilt.usable")
    oversize = LengthAnswerField(source="quilt.oversize")
    stagger = serializers.CharField(source="quilt.stagger")
    half_blocks = serializers.BooleanField(source="quilt.half_blocks")
    backing_way = serializers.ChoiceField(choices=BACKINGS, source="quilt.backing_way")
    backing_repeat = LengthAnswerField(source="quilt.backing_repeat")
    backing_repeat_across = LengthAnswerField(source="quilt.backing_repeat_across")
    sleeve = LengthAnswerField(source="quilt.sleeve")
    sizes = QuiltSizesSerializer(allow_null=True)
    picture = DrawingField(allow_null=True)
    counted = serializers.IntegerField()
    takes = BlocksTakenSerializer(many=True)
    takes_said = MessageField(allow_null=True)
    left_out = serializers.ListField(child=serializers.CharField())
    cloth = AreaField()
    refusal = serializers.SerializerMethodField()
    scraps = serializers.SerializerMethodField()

    @extend_schema_field(FieldProblemSerializer(allow_null=True))
    def get_refusal(self, view: Any) -> dict[str, Any] | None:
        return self.told(view.refusal)

    @extend_schema_field(ScrapsKeptSerializer)
    def get_scraps(self, view: Any) -> Any:
        kept = view.quilt.scraps
        return told_by(ScrapsKeptSerializer, {**kept, "laid": bool(kept.get("laid"))}, {})


class SamplerSerializer(serializers.Serializer[Any]):
    """Blocks of several sizes in rows: how many of each by its key, how wide the rows finish, the strip between."""

    numbers = serializers.DictField(child=serializers.CharField(max_length=60, allow_blank=True))
    width = serializers.CharField(max_length=60, allow_blank=True)
    gap = serializers.CharField(max_length=60, allow_blank=True, default="")
    fabric = serializers.RegexField("^[a-z]$")


class SashStripSerializer(serializers.Serializer[Any]):
    """One strip of a sash: what it finishes, and its fabric."""

    width = serializers.CharField(max_length=60, allow_blank=True)
    fabric = serializers.RegexField("^[a-z]$")


class SashingSerializer(serializers.Serializer[Any]):
    """Blocks in straight rows with sashes of several strips: those between columns from left to right, between rows from top to bottom,
    and what lies where they cross."""

    columns = serializers.CharField(max_length=60, allow_blank=True)
    rows = serializers.CharField(max_length=60, allow_blank=True)
    across = SashStripSerializer(many=True)
    down = SashStripSerializer(many=True)
    crossing = serializers.ChoiceField(choices=[c.value for c in StripCrossing])
    cornerstone = serializers.RegexField("^[a-z]$")
    outside = serializers.BooleanField()


class BesideSerializer(serializers.Serializer[Any]):
    """The quilt in another setting of about its size; ``cloth`` is of what goes between and round the blocks."""

    said = MessageField(source="setting.said")
    setting = serializers.ChoiceField(choices=SETTINGS, source="setting.sizes.choices.setting")
    columns = serializers.IntegerField(source="setting.sizes.choices.columns")
    rows = serializers.IntegerField(source="setting.sizes.choices.rows")
    sash = LengthAnswerField(source="setting.sizes.choices.sash")
    sash_round = serializers.BooleanField(source="setting.sizes.choices.sash_round")
    cornerstones = serializers.BooleanField(source="setting.sizes.choices.cornerstones")
    blocks = serializers.IntegerField(source="setting.sizes.blocks")
    width = LengthAnswerField(source="setting.sizes.width")
    height = LengthAnswerField(source="setting.sizes.height")
    cloth = AreaField(source="setting.cloth")
    seams = serializers.SerializerMethodField()
    picture = DrawingField()

    @extend_schema_field(LengthSerializer)
    def get_seams(self, beside: Any) -> Any:
        """As far as one measures so much thread: whole inches, or centimetres."""
        style = self.context["style"]
        whole = mm(10) if style.measure is Measure.MILLIMETRES else inches(1)
        return length_out(beside.setting.seams.round_up(whole), style)


class SheetSerializer(serializers.Serializer[Any]):
    """All blocks of a project and its quilt."""

    project = serializers.UUIDField(source="project.pk")
    blocks = SavedBlockSerializer(many=True)
    quilt = QuiltViewSerializer()


class ChangedQuiltSerializer(serializers.Serializer[Any]):
    """The quilt after a change to it. ``blocks`` is null where those laid by the quilter are as they were; strips of borders and parts of
    blocks follow the quilt, and are read again with the sheet."""

    project = serializers.UUIDField(source="project.pk")
    blocks = SavedBlockSerializer(many=True, allow_null=True)
    quilt = QuiltViewSerializer()


class LookingRequestSerializer(serializers.Serializer[Any]):
    across = serializers.IntegerField(min_value=1, max_value=6, required=False, default=2)
    every_second = serializers.ChoiceField(choices=LYINGS, required=False, default="upright")
    column = serializers.IntegerField(min_value=0, max_value=23, required=False, allow_null=True, default=None)
    row = serializers.IntegerField(min_value=0, max_value=23, required=False, allow_null=True, default=None)


class AlternativeSerializer(serializers.Serializer[Any]):
    said = MessageField()
    as_it_is = serializers.BooleanField()
    turn = serializers.IntegerField(source="orientation.turn")
    mirrored = serializers.BooleanField(source="orientation.mirrored")
    drawing = DrawingField()


class OtherWaysSerializer(serializers.Serializer[Any]):
    apart = DrawingField()
    many = DrawingField()  # type: ignore[assignment]
    alternatives = AlternativeSerializer(many=True)


class SeenRequestSerializer(serializers.Serializer[Any]):
    seen = PatternField()


class FaultSerializer(serializers.Serializer[Any]):
    column = serializers.IntegerField()
    row = serializers.IntegerField()
    what = serializers.CharField()
    said = MessageField()


class FindingSerializer(serializers.Serializer[Any]):
    faults = FaultSerializer(many=True, source="finding.faults")
    whole = serializers.IntegerField(source="finding.whole")
    said = MessageField(source="finding.said")
    picture = DrawingField()
    view = BlockViewSerializer()


class OrderingSerializer(serializers.Serializer[Any]):
    order = serializers.ChoiceField(choices=ORDERS)
    said = MessageField()
    awkward = serializers.IntegerField()


class StepSerializer(serializers.Serializer[Any]):
    said = MessageField()
    width = LengthAnswerField()
    height = LengthAnswerField()
    crossings = serializers.IntegerField()


class JoinedSerializer(serializers.Serializer[Any]):
    """The proposed order first. Steps give sizes raw edge to raw edge."""

    orders = OrderingSerializer(many=True)
    order = serializers.ChoiceField(choices=ORDERS)
    steps = StepSerializer(many=True)
    block = BlockSizeSerializer(source="sizes.block")


class ConflictSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    said = MessageField()


class SeamWaySerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    way = serializers.CharField()


class CrossingSerializer(serializers.Serializer[Any]):
    """``x, y`` in parts; ``left, top`` as shares of the picture of the back. ``plain``: four seams between units meet, and could be spun."""

    x = serializers.FloatField()
    y = serializers.FloatField()
    left = serializers.FloatField()
    top = serializers.FloatField()
    spun = serializers.BooleanField()
    plain = serializers.BooleanField()


class WishesSerializer(serializers.Serializer[Any]):
    to_dark = serializers.BooleanField()
    from_bulk = serializers.BooleanField()
    layers = serializers.IntegerField(allow_null=True)
    repeats = serializers.BooleanField()
    spun = serializers.ListField(child=serializers.ListField(child=serializers.FloatField()))


class PressedSerializer(serializers.Serializer[Any]):
    order = serializers.ChoiceField(choices=ORDERS)
    front = DrawingField()
    back = DrawingField()
    second = DrawingField(allow_null=True)
    seams = SeamWaySerializer(many=True)
    crossings = CrossingSerializer(many=True)
    nested = serializers.IntegerField(source="map.nested")
    pairs = serializers.IntegerField(source="map.pairs")
    edge_nested = serializers.IntegerField(source="map.edge_nested")
    edge_pairs = serializers.IntegerField(source="map.edge_pairs")
    most_layers = serializers.IntegerField(source="map.most_layers")
    optimal = serializers.BooleanField(source="map.optimal")
    sound = serializers.BooleanField()
    conflicts = ConflictSerializer(many=True, source="map.conflicts")
    wishes = WishesSerializer()


class CountedSerializer(_WithRefusal):
    kind = serializers.ChoiceField(choices=KINDS, source="unit.spec.kind")
    width = LengthAnswerField(source="unit.spec.width")
    height = LengthAnswerField(source="unit.spec.height")
    square = serializers.BooleanField(source="unit.spec.is_square")
    part_fabrics = serializers.ListField(child=serializers.CharField(), source="unit.spec.part_fabrics")
    as_drawn = serializers.IntegerField(source="unit.as_drawn")
    mirrored = serializers.IntegerField(source="unit.mirrored")
    handed = serializers.BooleanField(source="unit.handed")
    blocks = serializers.ListField(child=serializers.CharField(), source="unit.blocks")
    spares = serializers.IntegerField()
    method = serializers.CharField()
    school = serializers.ChoiceField(choices=SCHOOLS)
    picture = serializers.SerializerMethodField()
    plan = UnitPlanSerializer(allow_null=True)
    refusal = serializers.SerializerMethodField()

    @extend_schema_field(DrawingField())
    def get_picture(self, counted: Any) -> dict[str, Any]:
        spec = counted.unit.spec
        return DrawingField().to_representation(design_picture(kind_of(spec.kind).design(spec), Message("")))

    @extend_schema_field(FieldProblemSerializer(allow_null=True))
    def get_refusal(self, counted: Any) -> dict[str, Any] | None:
        return self.told(counted.refusal)


class CountsSerializer(_WithRefusal):
    units = CountedSerializer(many=True)
    blocks = serializers.IntegerField()
    total = serializers.IntegerField()
    cloth = AreaField()
    makings = serializers.DictField(child=MakingSerializer(), source="quilt.makings")
    spare_percent = serializers.IntegerField(source="quilt.spare_percent")
    spare_number = serializers.IntegerField(source="quilt.spare_number")
    refusal = serializers.SerializerMethodField()

    @extend_schema_field(FieldProblemSerializer(allow_null=True))
    def get_refusal(self, counts: Any) -> dict[str, Any] | None:
        return self.told(counts.refusal)


class NewBlockSerializer(serializers.Serializer[Any]):
    """``start``: the key of the arrangement a new block begins with; empty for an empty grid."""

    start = serializers.CharField(max_length=80, required=False, allow_blank=True, default="")
    changes = serializers.DictField(child=serializers.JSONField(allow_null=True), required=False, default=dict)
    seen = serializers.DictField(child=serializers.JSONField(allow_null=True), required=False, default=dict)


class OwnRequestSerializer(serializers.Serializer[Any]):
    block = serializers.UUIDField()


class ScrapsRequestSerializer(serializers.Serializer[Any]):
    """``fixed`` holds fabrics by the number of a place; ``order`` runs from 0, at random, to 100, light to dark;
    in matched ``sets`` all units of a block are of one fabric. A ``role`` of two letters asks for pairs: all of a block from one
    pair, ``stock`` and ``fixed`` by the two letters of a pair, counted in blocks."""

    role = serializers.RegexField("^[a-z]{1,2}$")
    stock = serializers.DictField(child=serializers.CharField(max_length=8))
    fixed = serializers.DictField(child=serializers.RegexField("^[a-z]{1,2}$"), required=False, default=dict)
    order = serializers.IntegerField(min_value=0, max_value=100, required=False, default=0)
    seed = serializers.IntegerField(min_value=0, max_value=1_000_000, required=False, default=1)
    corners = serializers.BooleanField(required=False, default=False)
    sets = serializers.BooleanField(required=False, default=False)


class ScrapSpotSerializer(serializers.Serializer[Any]):
    """A place that takes a scrap: its number is its place in the list, ``spot`` that of its block in the quilt; ``box`` as shares of the
    quilt's picture."""

    name = serializers.CharField()
    spot = serializers.IntegerField()
    box = serializers.ListField(child=serializers.FloatField(), min_length=4, max_length=4)


class ScrapSettingSerializer(serializers.Serializer[Any]):
    role = serializers.CharField()
    places = ScrapSpotSerializer(many=True)


class BeginUnitSerializer(serializers.Serializer[Any]):
    kind = serializers.ChoiceField(choices=KINDS)
    finished = serializers.CharField(allow_blank=True, max_length=60)
    count = serializers.CharField(allow_blank=True, max_length=60)


class BeginBlockSerializer(serializers.Serializer[Any]):
    """``start`` is an arrangement of the library."""

    start = serializers.CharField(max_length=80)
    finished = serializers.CharField(allow_blank=True, max_length=60)
    count = serializers.CharField(required=False, default="", allow_blank=True, max_length=60)


class BeginBorderSerializer(serializers.Serializer[Any]):
    width = serializers.CharField(allow_blank=True, max_length=60)
    fabric = serializers.CharField(max_length=2)


class BeginQuiltSerializer(serializers.Serializer[Any]):
    """Of so many blocks, or about ``wide`` by ``high``."""

    wide = serializers.CharField(required=False, default="", allow_blank=True, max_length=60)
    high = serializers.CharField(required=False, default="", allow_blank=True, max_length=60)
    sash = serializers.CharField(required=False, allow_blank=True, max_length=60)
    sash_fabric = serializers.CharField(required=False, max_length=2)
    borders = BeginBorderSerializer(many=True, required=False)
    binding_fabric = serializers.CharField(required=False, max_length=2)


class BeginningSerializer(serializers.Serializer[Any]):
    """What a project begins with: a unit, a block, or a quilt of a block. ``fabrics`` by name, in the order of their letters."""

    id = serializers.UUIDField()
    name = serializers.CharField(required=False, default="", allow_blank=True, max_length=200)
    fabrics = serializers.ListField(child=serializers.CharField(allow_blank=True, max_length=200), max_length=12)
    unit = BeginUnitSerializer(required=False, allow_null=True, default=None)
    block = BeginBlockSerializer(required=False, allow_null=True, default=None)
    quilt = BeginQuiltSerializer(required=False, allow_null=True, default=None)
