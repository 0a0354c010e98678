from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.wire import DrawingField, LengthAnswerField, MessageField
from cutting.serializers import PileSerializer
from piecing.handling.lots import MOST_IN_A_LOT
from planning.serializers import RecipeSerializer

from .models import COUNTED, MARKINGS, STAGES, WHYS
from .selectors import BlockBench
from .subject import UNIT_OR_BLOCK, SubjectKind

_ALL_STAGES = [*(s for s, _ in STAGES), *COUNTED]


class WrongSerializer(serializers.Serializer[Any]):
    """A way to go wrong: how it is seen before sewing, where it is, and after."""

    code = serializers.CharField(source="wrong.code")
    before = MessageField()
    after = MessageField()
    before_drawing = DrawingField(source="wrong.before", allow_null=True)
    after_drawing = DrawingField(source="wrong.after")


class UnitStepSerializer(serializers.Serializer[Any]):
    """``times`` is how often it is done in one go of the method."""

    key = serializers.CharField()
    stage = serializers.ChoiceField(choices=STAGES)
    title = MessageField()
    said = serializers.ListField(child=MessageField())
    look = serializers.ListField(child=MessageField())
    times = serializers.IntegerField()
    front = DrawingField()
    back = DrawingField(allow_null=True)
    wrong = WrongSerializer(many=True)
    cautions = serializers.ListField(child=MessageField())


class StepDoneSerializer(serializers.Serializer[Any]):
    """A step that is done, and the names under which it was put down."""

    step = serializers.CharField()
    keys = serializers.ListField(child=serializers.UUIDField())


class LotSerializer(serializers.Serializer[Any]):
    """``wind``: a fresh bobbin goes in before it. One that is not ``begun`` may still change with the plan."""

    number = serializers.IntegerField()
    goes = serializers.IntegerField()
    units = serializers.IntegerField()
    done = StepDoneSerializer(many=True)
    begun = serializers.BooleanField()
    thread = MessageField(allow_null=True)
    wind = serializers.BooleanField()


class RunSerializer(serializers.Serializer[Any]):
    """Lots made to one plan; ``earlier`` when the unit is planned otherwise by now, ``said`` what then holds."""

    steps = UnitStepSerializer(many=True)
    lots = LotSerializer(many=True)
    per_go = serializers.IntegerField()
    earlier = serializers.BooleanField()
    counts = serializers.BooleanField()
    said = MessageField(allow_null=True)


class TallySerializer(serializers.Serializer[Any]):
    wanted = serializers.IntegerField()
    ready = serializers.IntegerField()
    to_make = serializers.IntegerField()
    sewn = serializers.IntegerField()
    pressed = serializers.IntegerField()
    trimmed = serializers.IntegerField()
    spoiled = serializers.IntegerField()
    good = serializers.IntegerField()
    left_to_trim = serializers.IntegerField()
    trim_now = serializers.IntegerField()
    finished = serializers.BooleanField()


class UnitBenchSerializer(serializers.Serializer[Any]):
    """A unit at the bench: its steps, its lots with what is done, and what is left."""

    unit = serializers.UUIDField(source="unit.pk")
    title = MessageField()
    picture = DrawingField()
    trim_width = LengthAnswerField()
    trim_height = LengthAnswerField()
    marking = serializers.ChoiceField(choices=MARKINGS)
    lot_goes = serializers.IntegerField(allow_null=True, min_value=1, max_value=MOST_IN_A_LOT)
    usual_goes = serializers.IntegerField()
    runs = RunSerializer(many=True)
    tally = TallySerializer()
    bias = serializers.ListField(child=MessageField())
    pairs = serializers.ListField(child=MessageField())
    ripper_cautions = serializers.ListField(child=MessageField())
    sew_cautions = serializers.ListField(child=MessageField())
    press_cautions = serializers.ListField(child=MessageField())
    trim_cautions = serializers.ListField(child=MessageField())


class JoinStepSerializer(serializers.Serializer[Any]):
    """``front`` and ``back`` are numbers of drawings of the bench, counted from 0."""

    key = serializers.CharField(source="step.key")
    stage = serializers.ChoiceField(choices=STAGES, source="step.stage")
    block = serializers.CharField(source="step.block")
    title = MessageField(source="step.title")
    said = serializers.ListField(child=MessageField(), source="step.said")
    look = serializers.ListField(child=MessageField(), source="step.look")
    times = serializers.IntegerField(source="step.times")
    width = LengthAnswerField(source="step.width")
    height = LengthAnswerField(source="step.height")
    front = serializers.IntegerField()
    back = serializers.IntegerField(allow_null=True)
    cautions = serializers.ListField(child=MessageField(), source="step.cautions")


class BlockBenchSerializer(serializers.Serializer[Any]):
    """A block at the bench; its lots are of whole blocks. ``drawings`` are those of its steps, each once."""

    block = serializers.UUIDField(source="key")
    name = serializers.CharField()
    picture = DrawingField()
    count = serializers.IntegerField()
    joined = serializers.IntegerField()
    colourways = serializers.ListField(child=MessageField())
    drawings = serializers.SerializerMethodField()
    steps = serializers.SerializerMethodField()
    lots = LotSerializer(many=True)
    join_cautions = serializers.ListField(child=MessageField())
    press_cautions = serializers.ListField(child=MessageField())
    nests = serializers.BooleanField()
    trim = RecipeSerializer(allow_null=True)

    @extend_schema_field(serializers.ListField(child=DrawingField()))
    def get_drawings(self, bench: BlockBench) -> list[Any]:
        field = DrawingField()
        field.bind("drawings", self)
        return [field.to_representation(d) for d in bench.pictured[0]]

    @extend_schema_field(JoinStepSerializer(many=True))
    def get_steps(self, bench: BlockBench) -> Any:
        return JoinStepSerializer(bench.pictured[1], many=True, context=self.context).data


class QuiltStepSerializer(serializers.Serializer[Any]):
    key = serializers.CharField()
    title = MessageField()
    said = serializers.ListField(child=MessageField())
    look = serializers.ListField(child=MessageField())
    width = LengthAnswerField()
    height = LengthAnswerField()


class QuiltBenchSerializer(serializers.Serializer[Any]):
    """The quilt at the bench; no step while none is put together."""

    steps = QuiltStepSerializer(many=True)
    done = StepDoneSerializer(many=True)
    picture = DrawingField(allow_null=True)
    cautions = serializers.ListField(child=MessageField())
    refusal = serializers.CharField(allow_blank=True)


class BenchUnitSerializer(serializers.Serializer[Any]):
    unit = serializers.UUIDField(source="key")
    title = MessageField()
    picture = DrawingField()
    tally = TallySerializer()
    sewn_here = serializers.BooleanField()
    begun = serializers.BooleanField()


class BenchBlockSerializer(serializers.Serializer[Any]):
    block = serializers.UUIDField(source="key")
    name = serializers.CharField()
    count = serializers.IntegerField()
    joined = serializers.IntegerField()
    begun = serializers.BooleanField()


class StageCountSerializer(serializers.Serializer[Any]):
    stage = serializers.ChoiceField(choices=["cut", *(s for s, _ in STAGES)])
    done = serializers.IntegerField()
    of = serializers.IntegerField()


class ShortSerializer(serializers.Serializer[Any]):
    """A pile of which the bench has taken ``short`` pieces more than are put down as cut."""

    letter = serializers.CharField()
    fabric = serializers.CharField()
    cut = serializers.IntegerField()
    spoiled = serializers.IntegerField()
    short = serializers.IntegerField()


class BenchNextSerializer(serializers.Serializer[Any]):
    """Where to go on; ``of`` is the unit or block it is for."""

    stage = serializers.ChoiceField(choices=["begin", "blocks", "cut", "sew", "trim", "join", "quilt", "measure"])
    said = MessageField()
    of = serializers.UUIDField(allow_null=True)


class BenchSerializer(serializers.Serializer[Any]):
    """A project at the bench at a glance."""

    units = BenchUnitSerializer(many=True)
    blocks = BenchBlockSerializer(many=True)
    stages = StageCountSerializer(many=True)
    quilt_left = serializers.BooleanField()
    begun = serializers.BooleanField()
    short = ShortSerializer(many=True)
    next = BenchNextSerializer(allow_null=True)


class StandingSerializer(serializers.Serializer[Any]):
    """Where a project stands; ``waiting`` says what keeps something from being cut for, ``off`` which sizes do not read round."""

    blocks = serializers.ListField(child=MessageField())
    units = serializers.ListField(child=MessageField())
    quilt = MessageField(allow_null=True)
    waiting = serializers.ListField(child=MessageField())
    off = serializers.ListField(child=MessageField())
    piles = PileSerializer(many=True)
    wanted = serializers.IntegerField()
    left = serializers.IntegerField()
    readings = serializers.IntegerField()
    next = BenchNextSerializer()
    bench = BenchSerializer()


class DoneSerializer(serializers.Serializer[Any]):
    """A ``step`` of lot ``lot`` of a unit, a block or the quilt; or ``count`` units trimmed or spoiled."""

    subject = serializers.ChoiceField(choices=[*UNIT_OR_BLOCK, SubjectKind.QUILT.value])
    of = serializers.UUIDField(required=False, allow_null=True, default=None)
    stage = serializers.ChoiceField(choices=_ALL_STAGES)
    lot = serializers.IntegerField(required=False, default=1, min_value=1, max_value=9999)
    step = serializers.CharField(required=False, default="", allow_blank=True, max_length=160)
    count = serializers.IntegerField(required=False, default=0, min_value=-10_000, max_value=10_000)
    why = serializers.ChoiceField(choices=[("", ""), *WHYS], required=False, default="")
    note = serializers.CharField(required=False, default="", allow_blank=True, max_length=200)
