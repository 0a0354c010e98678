from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.wire import AreaField, DrawingField, LengthAnswerField, MessageField
from piecing.cutting import ClothKind
from piecing.cutting.buying import shop_said
from piecing.cutting.stock import grain_said
from workrooms.models import MEASURES

from .models import GOALS, KINDS


class _OfStock(serializers.Serializer[Any]):
    """What is told of anything in the stock: whether pieces are cut from it, and how a triangle lies."""

    is_cloth = serializers.SerializerMethodField()
    varies = serializers.SerializerMethodField()
    grain = serializers.SerializerMethodField()

    def get_is_cloth(self, row: Any) -> bool:
        return ClothKind(row.kind).is_cloth

    def get_varies(self, row: Any) -> bool:
        """Whether it may be wider than is known."""
        return ClothKind(row.kind).varies

    def get_grain(self, row: Any) -> str:
        said = grain_said(ClothKind(row.kind), row.across)
        return "" if said is None else said.text(self.context["style"])


class StockSerializer(_OfStock):
    id = serializers.UUIDField()
    fabric = serializers.UUIDField(source="fabric_id")
    role = serializers.CharField(source="fabric.role")
    kind = serializers.ChoiceField(choices=KINDS)
    across = LengthAnswerField()
    along = LengthAnswerField()
    across_most = LengthAnswerField(allow_null=True)
    count = serializers.IntegerField()
    name = serializers.CharField(allow_blank=True)
    other = serializers.CharField(allow_blank=True)


class ShelvedSerializer(_OfStock):
    """On the shelf: ``said`` is what it is in a line, ``freed_by`` the deleted project that had it."""

    id = serializers.UUIDField()
    cloth = serializers.SerializerMethodField()
    colour = serializers.SerializerMethodField()
    freed_by = serializers.SerializerMethodField()
    kind = serializers.ChoiceField(choices=KINDS)
    across = LengthAnswerField()
    along = LengthAnswerField()
    across_most = LengthAnswerField(allow_null=True)
    count = serializers.IntegerField()
    name = serializers.CharField(allow_blank=True)
    other = serializers.CharField(allow_blank=True)

    def get_cloth(self, row: Any) -> str:
        return str(row.fabric.name if row.fabric else row.cloth)

    def get_colour(self, row: Any) -> str:
        return str(row.fabric.colour if row.fabric else row.colour)

    def get_freed_by(self, row: Any) -> str:
        return str(row.fabric.project.name) if row.fabric else ""


class ShelfSerializer(serializers.Serializer[Any]):
    """Everything that no project has reserved, in the workroom's measure."""

    measure = serializers.ChoiceField(choices=MEASURES)
    cloths = ShelvedSerializer(many=True)


class UnitsThereSerializer(serializers.Serializer[Any]):
    stock = serializers.UUIDField()
    said = MessageField()
    use = serializers.IntegerField()


class SparesSerializer(serializers.Serializer[Any]):
    """``leaves``: what falls off the unit and is not kept; ``there``: units in stock that would do in its place."""

    leaves = MessageField(allow_null=True)
    there = UnitsThereSerializer(many=True)


class UseSparesSerializer(serializers.Serializer[Any]):
    stock = serializers.UUIDField()


class MoveSerializer(serializers.Serializer[Any]):
    """``count`` of them; ``rest`` is the key of those that are parted from the others, made by the caller."""

    count = serializers.IntegerField(min_value=1, max_value=20_000)
    rest = serializers.UUIDField()


class PileSerializer(serializers.Serializer[Any]):
    """Pieces of one fabric and size, under the letter they lie under on the table. cut + left = wanted + spoiled + given + over;
    ``given`` ones were cut smaller for others or put with the scraps. ``ready`` triangles for it lie in the stock, ``odd`` ones
    are left once all is cut."""

    letter = serializers.CharField(source="entry.letter")
    fabric = serializers.CharField(source="entry.fabric")
    width = LengthAnswerField(source="entry.width")
    height = LengthAnswerField(source="entry.height")
    square = serializers.SerializerMethodField()
    gives = serializers.IntegerField(source="entry.gives")
    name = serializers.CharField(source="entry.name", allow_blank=True)
    turns = serializers.BooleanField()
    wanted = serializers.IntegerField()
    cut = serializers.IntegerField(source="entry.cut")
    spoiled = serializers.IntegerField(source="entry.spoiled")
    given = serializers.IntegerField(source="entry.given")
    left = serializers.IntegerField()
    cut_when_done = serializers.IntegerField()
    over = serializers.IntegerField()
    ready = serializers.IntegerField()
    odd = serializers.IntegerField()

    def get_square(self, pile: Any) -> bool:
        return bool(pile.entry.width == pile.entry.height)


class StripSerializer(serializers.Serializer[Any]):
    number = serializers.IntegerField()
    said = MessageField()
    ruler = MessageField()
    done = serializers.BooleanField()
    depth = LengthAnswerField()
    top = serializers.FloatField()


class ScrapLeftSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    width = LengthAnswerField()
    height = LengthAnswerField()


class ClothPlanSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    fabric = serializers.CharField()
    across = LengthAnswerField()
    along = LengthAnswerField()
    used = LengthAnswerField()
    picture = DrawingField()
    letters = serializers.SerializerMethodField()
    first = MessageField(allow_null=True)
    strips = StripSerializer(many=True)
    left = ScrapLeftSerializer(many=True)

    @extend_schema_field(
        {
            "type": "array",
            "items": {
                "type": "object",
                "properties": {"letter": {"type": "string"}, "x": {"type": "number"}, "y": {"type": "number"}},
                "required": ["letter", "x", "y"],
            },
        }
    )
    def get_letters(self, cloth: Any) -> list[dict[str, Any]]:
        """Where each piece's letter stands, as shares of the picture."""
        return [{"letter": letter, "x": x, "y": y} for letter, x, y in cloth.letters]


class MissingSerializer(serializers.Serializer[Any]):
    letter = serializers.CharField(source="piece.key")
    fabric = serializers.CharField(source="piece.fabric")
    width = LengthAnswerField(source="piece.width")
    height = LengthAnswerField(source="piece.height")
    count = serializers.IntegerField()


class CutPlanSerializer(serializers.Serializer[Any]):
    """``gap_percent`` is how far above the proven best it may lie; ``flaws`` is the separate check's word, empty when sound;
    ``changed`` what is no longer as it was when the plan was made; ``costs`` of this plan and of the other way of cutting; ``name`` tells one plan from another."""

    goal = serializers.ChoiceField(choices=GOALS)
    cloths = ClothPlanSerializer(many=True)
    missing = MissingSerializer(many=True)
    gap_percent = serializers.FloatField()
    proven = serializers.BooleanField()
    strips = serializers.IntegerField()
    depths = serializers.IntegerField()
    used = AreaField()
    cut = AreaField()
    waste_percent = serializers.FloatField()
    flaws = serializers.ListField(child=MessageField())
    changed = serializers.ListField(child=MessageField())
    costs = serializers.ListField(child=MessageField())
    name = serializers.CharField(allow_blank=True)


class JobSerializer(serializers.Serializer[Any]):
    running = serializers.BooleanField()
    share = serializers.FloatField()
    failed = serializers.CharField(allow_blank=True)


class CuttingSheetSerializer(serializers.Serializer[Any]):
    """``left`` pieces are still to cut; ``binding`` says what it is joined from; ``undo`` says what can be gone back to, empty when nothing;
    ``waiting`` what cannot be cut for yet, ``last`` what is better not cut yet."""

    project = serializers.UUIDField(source="project.pk")
    stock = StockSerializer(many=True)
    piles = PileSerializer(many=True)
    plan = CutPlanSerializer(allow_null=True)
    job = JobSerializer()
    left = serializers.IntegerField()
    undo = serializers.CharField(allow_blank=True)
    waiting = serializers.ListField(child=MessageField())
    binding = MessageField(allow_null=True)
    last = MessageField(allow_null=True)


class BeginSerializer(serializers.Serializer[Any]):
    """``along``: borders cut with the selvedge."""

    goal = serializers.ChoiceField(choices=GOALS, required=False, default="least")
    along = serializers.BooleanField(required=False, default=False)


class TickSerializer(serializers.Serializer[Any]):
    number = serializers.IntegerField(min_value=1, max_value=5000)
    done = serializers.BooleanField()
    plan = serializers.CharField(required=False, default="", allow_blank=True, max_length=60)


class BlockPossibleSerializer(serializers.Serializer[Any]):
    """``least`` at the smallest that the cloths may be, ``most`` at the largest."""

    name = serializers.CharField()
    least = serializers.IntegerField()
    most = serializers.IntegerField()
    said = MessageField()


class WayThatFitsSerializer(serializers.Serializer[Any]):
    kind = serializers.CharField()
    method = serializers.CharField()
    school = serializers.CharField(source="school.value")


class PossibleSerializer(serializers.Serializer[Any]):
    """How many of each block the stock gives by itself, and which other way would make a short plan fit."""

    blocks = BlockPossibleSerializer(many=True)
    ways = WayThatFitsSerializer(many=True)


class PackSerializer(serializers.Serializer[Any]):
    kind = serializers.CharField()
    count = serializers.IntegerField()
    across = LengthAnswerField()
    along = LengthAnswerField()


class PurchaseSerializer(serializers.Serializer[Any]):
    fabric = serializers.CharField()
    bare = LengthAnswerField()
    buy = LengthAnswerField()
    asked = serializers.SerializerMethodField()
    instead = PackSerializer(many=True)

    def get_asked(self, purchase: Any) -> str:
        style = self.context["style"]
        return str(shop_said(purchase.buy, style.measure).text(style))


class BackingPurchaseSerializer(serializers.Serializer[Any]):
    """The back of the quilt, and batting as large; ``said`` is how it is joined."""

    width = LengthAnswerField()
    height = LengthAnswerField()
    bare = LengthAnswerField()
    asked = serializers.SerializerMethodField()
    said = MessageField()

    def get_asked(self, backing: Any) -> str:
        style = self.context["style"]
        return str(shop_said(backing.buy, style.measure).text(style))


class SeamLengthSerializer(serializers.Serializer[Any]):
    """Seams sewn alike; ``told`` is their length in yards or metres, a short one in inches or centimetres."""

    said = MessageField()
    length = LengthAnswerField()
    told = MessageField()


class BuyingRequestSerializer(serializers.Serializer[Any]):
    """Allowances: shrinkage in a hundred, strips cut wrong, yards (or metres) on a bobbin, 0 for a common one."""

    shrinkage = serializers.IntegerField(min_value=0, max_value=30, required=False, default=3)
    wrong_cuts = serializers.IntegerField(min_value=0, max_value=20, required=False, default=1)
    bobbin = serializers.IntegerField(min_value=0, max_value=1000, required=False, default=0)


class BuyingSerializer(serializers.Serializer[Any]):
    """What to buy when nothing is in stock; ``refusal`` says which piece no cloth is wide enough for. ``better_coming``: less cloth may do, and is
    still looked for."""

    purchases = PurchaseSerializer(many=True)
    refusal = serializers.CharField(allow_blank=True)
    shrinkage_percent = serializers.IntegerField()
    wrong_cuts = serializers.IntegerField()
    seam = LengthAnswerField(source="thread.seam")
    thread = LengthAnswerField(source="thread.thread")
    seam_said = MessageField()
    thread_said = MessageField()
    bobbins = serializers.IntegerField(source="thread.bobbins")
    seams = serializers.SerializerMethodField()
    backing = BackingPurchaseSerializer(allow_null=True)
    backing_fabric = serializers.CharField(allow_blank=True)
    better_coming = serializers.BooleanField()

    @extend_schema_field(SeamLengthSerializer(many=True))
    def get_seams(self, buying: Any) -> Any:
        rows = [{"said": said, "length": length, "told": told} for said, length, told in buying.seams]
        return SeamLengthSerializer(rows, many=True, context=self.context).data
