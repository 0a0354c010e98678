"""The quilt as it is set: sizes, plain pieces, backing, binding, and its blocks."""

from fractions import Fraction
from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.problems import FieldProblemSerializer
from api.wire import (
    AreaField,
    DrawingField,
    LengthAnswerField,
    LengthSerializer,
    MessageField,
    length_out,
    told_by,
)
from piecing.lengths import Length, Measure, inches, mm
from piecing.quilts.backing import backing_said, binding_said
from piecing.quilts.choices import Corners
from projects.models import SCHOOLS

from ..models import BACKINGS, LYINGS, SETTINGS, SPREADS
from ..wire import PiecedWire
from .blocks import RefusalSerializer, SavedBlockSerializer


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


class QuiltViewSerializer(RefusalSerializer):
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
        return self.refusal_data(view.refusal)

    @extend_schema_field(ScrapsKeptSerializer)
    def get_scraps(self, view: Any) -> Any:
        kept = view.quilt.scraps
        return told_by(ScrapsKeptSerializer, {**kept, "laid": bool(kept.get("laid"))}, {})


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
