from collections.abc import Iterable
from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.wire import LengthAnswerField, MessageField
from diagnosis.models import TURNED_OUT, SavedDiagnosis
from measuring.models import ReadingRow
from piecing.diagnosis.habits import Habit
from piecing.diagnosis.words import SURENESS, GuideSetting, Roughly
from piecing.lengths import Length, Measure, Style, inches, mm
from piecing.planning.schools import School
from piecing.planning.seam import StripTest
from piecing.records import (
    GROWS,
    HABIT_WORDS,
    Help,
    LotState,
    RunPoint,
    SeamSearch,
    UnitMaking,
    habit_said,
    habit_sureness,
    spread_said,
)
from progress.subject import UNIT_OR_BLOCK
from setups.models import PRESSINGS, SetUp
from setups.selectors import name_of

from .commands import TEST_KINDS
from .forecasts import Foretold
from .selectors import HandsShown, LotSheet

_AS_WANTED = 1 / 128
"""Inches: half a thread is nothing that a ruler tells."""


class SeamTestSerializer(serializers.Serializer[Any]):
    """``takes`` is the take-up that a strip test tells, in words a guide can be set by; ``strip`` how wide its strips really were."""

    id = serializers.UUIDField()
    kind = serializers.ChoiceField(choices=TEST_KINDS)
    value = LengthAnswerField()
    whole = LengthAnswerField(allow_null=True)
    wanted = LengthAnswerField(allow_null=True)
    guide = LengthAnswerField(allow_null=True)
    spot = serializers.CharField()
    day = serializers.CharField()
    note = serializers.CharField()
    takes = serializers.SerializerMethodField()

    def get_takes(self, row: ReadingRow) -> str:
        style: Style = self.context["style"]
        if row.value is None:
            return ""
        if row.whole is None:
            return style.pretty(row.value)
        return GuideSetting(float(StripTest(row.value, row.whole).take_up)).set_in(style)


class SetUpSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField()
    name = serializers.SerializerMethodField()
    machine = serializers.CharField()
    foot = serializers.CharField()
    plate = serializers.CharField()
    needle = serializers.CharField()
    thread = serializers.CharField()
    stitch_length = serializers.CharField()
    needle_position = serializers.CharField()
    guide = LengthAnswerField(allow_null=True)
    guide_step = LengthAnswerField()
    pressing = serializers.ChoiceField(choices=PRESSINGS)
    starch = serializers.BooleanField()
    note = serializers.CharField()
    began = serializers.DateField()
    in_use = serializers.BooleanField()
    came_from = serializers.UUIDField(source="came_from_id", allow_null=True)
    tests = serializers.SerializerMethodField()
    tested = serializers.SerializerMethodField()

    def get_name(self, row: SetUp) -> str:
        return name_of(row)

    @extend_schema_field(SeamTestSerializer(many=True))
    def get_tests(self, row: SetUp) -> Any:
        return SeamTestSerializer(self.context["sheet"].tests[row.pk], many=True, context=self.context).data

    def get_tested(self, row: SetUp) -> int:
        return int(self.context["sheet"].counts.get(row.pk, 0))


class SeamSearchSerializer(serializers.Serializer[Any]):
    """Where the guide should stand; ``setting`` and ``steps`` from where it stands now, below zero nearer the needle."""

    stand = serializers.ChoiceField(choices=[s.value for s in SeamSearch])
    said = MessageField()
    setting = LengthAnswerField(allow_null=True)
    steps = serializers.IntegerField()


class RecordsSerializer(serializers.Serializer[Any]):
    set_ups = SetUpSerializer(many=True)
    search = SeamSearchSerializer(allow_null=True)
    today = serializers.DateField()
    strip = LengthAnswerField()


class RunPointSerializer(serializers.Serializer[Any]):
    """All readings of a day, in inches beyond what was wanted; ``told`` is their mean in words."""

    day = serializers.DateField()
    set_up = serializers.CharField()
    count = serializers.IntegerField()
    mean = serializers.FloatField()
    least = serializers.FloatField()
    most = serializers.FloatField()
    told = serializers.CharField()


class AxisTickSerializer(serializers.Serializer[Any]):
    at = serializers.FloatField()
    text = serializers.CharField()


class BarSerializer(serializers.Serializer[Any]):
    middle = serializers.FloatField()
    text = serializers.CharField()
    count = serializers.IntegerField()
    expected = serializers.FloatField()


class HabitSerializer(serializers.Serializer[Any]):
    """One habit in words, drawn as a run over time and as a distribution beside the one assumed. ``low`` and ``high`` hold its mean
    nine times in ten."""

    habit = serializers.ChoiceField(choices=[h.value for h in Habit])
    title = serializers.CharField()
    said = serializers.CharField()
    spread = serializers.CharField()
    sure = serializers.ChoiceField(choices=SURENESS)
    readings = serializers.IntegerField()
    mean = serializers.FloatField()
    low = serializers.FloatField()
    high = serializers.FloatField()
    run = RunPointSerializer(many=True)
    bars = BarSerializer(many=True)
    ticks = AxisTickSerializer(many=True)


class ChangeOfMachineSerializer(serializers.Serializer[Any]):
    day = serializers.DateField()
    name = serializers.CharField()


class HandsSerializer(serializers.Serializer[Any]):
    """Figures in inches beyond what was wanted, for drawing; everything that is read stands in words beside them."""

    habits = serializers.SerializerMethodField()
    changes = ChangeOfMachineSerializer(many=True)
    days_out = serializers.ListField(child=serializers.DateField(), source="out")
    names = serializers.DictField(child=serializers.CharField())

    @extend_schema_field(HabitSerializer(many=True))
    def get_habits(self, hands: HandsShown) -> Any:
        style, allowance = self.context["style"], self.context["allowance"]
        return [_habit(h, hands, style, allowance) for h in Habit if h in hands.figures]


def _habit(habit: Habit, hands: HandsShown, style: Style, allowance: Length) -> dict[str, Any]:
    figure, run, bars = hands.figures[habit], hands.runs.get(habit, ()), hands.bars.get(habit, ())
    reach = [figure.low, figure.high, *(x for p in run for x in (p.least, p.most)), *(b.middle for b in bars)]
    return {
        "habit": habit.value,
        "title": HABIT_WORDS[habit],
        "said": habit_said(habit, figure, allowance).text(style),
        "spread": spread_said(figure).text(style),
        "sure": habit_sureness(figure),
        "readings": figure.readings,
        "mean": figure.mean,
        "low": figure.low,
        "high": figure.high,
        "run": [_point(p, style) for p in run],
        "bars": [
            {"middle": b.middle, "text": _mark(b.middle, style), "count": b.count, "expected": b.expected} for b in bars
        ],
        "ticks": [{"at": float(t), "text": _signed_text(t, style)} for t in _ticks(reach, style)],
    }


def _point(p: RunPoint, style: Style) -> dict[str, Any]:
    told = _beyond(p.mean, style)
    return {
        "day": p.day,
        "set_up": p.set_up,
        "count": p.count,
        "mean": p.mean,
        "least": p.least,
        "most": p.most,
        "told": told,
    }


def _beyond(size: float, style: Style) -> str:
    """In words: beyond what was wanted, or short of it, by the marks of her ruler."""
    if abs(size) < _AS_WANTED:
        return "as wanted"
    return f"{Roughly(size).set_in(style)} {'over' if size > 0 else 'under'}"


def _mark(size: float, style: Style) -> str:
    """A mark of the ruler; nothing between two of them."""
    step = mm(1) / 2 if style.measure is Measure.MILLIMETRES else inches("1/32")
    near = Length.near(size).round_near(step)
    return _signed_text(near, style) if abs(float(near) - size) < float(step) / 8 else ""


def _signed_text(tick: Length, style: Style) -> str:
    return "as wanted" if not tick.sign else f"{style.pretty(abs(tick))} {'over' if tick.sign > 0 else 'under'}"


def _ticks(reach: Iterable[float], style: Style) -> list[Length]:
    """Marks of the ruler across what is drawn, seven at most."""
    low, high = min(reach, default=0.0), max(reach, default=0.0)
    step = mm(1) / 2 if style.measure is Measure.MILLIMETRES else inches("1/32")
    while (high - low) / float(step) > 6:
        step = step * 2
    first, last = Length.near(min(low, 0.0)).round_down(step), Length.near(max(high, 0.0)).round_up(step)
    count = round(float(last - first) / float(step))
    return [first + step * n for n in range(count + 1)]


class CalibrationSerializer(serializers.Serializer[Any]):
    sure = serializers.ChoiceField(choices=SURENESS)
    right = serializers.IntegerField()
    partly = serializers.IntegerField()
    wrong = serializers.IntegerField()
    waiting = serializers.IntegerField()
    share = serializers.FloatField(allow_null=True)
    low = serializers.FloatField()
    high = serializers.FloatField()


class KeptSerializer(serializers.Serializer[Any]):
    """A diagnosis that was kept, where it is, and what turned out."""

    id = serializers.UUIDField(source="pk")
    subject = serializers.SerializerMethodField()
    of = serializers.SerializerMethodField()
    project = serializers.SerializerMethodField()
    project_name = serializers.SerializerMethodField()
    saved_at = serializers.DateTimeField()
    headline = serializers.SerializerMethodField()
    turned_out = serializers.ChoiceField(choices=TURNED_OUT)
    later = serializers.CharField()

    @extend_schema_field(serializers.ChoiceField(choices=UNIT_OR_BLOCK))
    def get_subject(self, row: SavedDiagnosis) -> str:
        return "blocks" if row.block_id else "units"

    def get_of(self, row: SavedDiagnosis) -> str:
        return str(row.block_id or row.unit_id)

    def get_project(self, row: SavedDiagnosis) -> str:
        subject = row.block or row.unit
        return str(subject.project_id) if subject else ""

    def get_project_name(self, row: SavedDiagnosis) -> str:
        subject = row.block or row.unit
        return subject.project.name if subject else ""

    def get_headline(self, row: SavedDiagnosis) -> str:
        return str(row.said.get("headline", ""))


class KeptDiagnosesSerializer(serializers.Serializer[Any]):
    promise = MessageField()
    kept = KeptSerializer(many=True)
    calibrations = CalibrationSerializer(many=True)


class WatchedSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField(source="pk")
    nth = serializers.IntegerField()
    value = LengthAnswerField()
    off = serializers.SerializerMethodField()
    told = serializers.SerializerMethodField()

    def get_off(self, row: ReadingRow) -> float:
        return float(row.value - row.wanted) if row.value is not None and row.wanted is not None else 0.0

    def get_told(self, row: ReadingRow) -> str:
        return _beyond(self.get_off(row), self.context["style"])


class SamplingPlanSerializer(serializers.Serializer[Any]):
    count = serializers.IntegerField()
    every = serializers.IntegerField()
    certainty = serializers.FloatField()
    hopeless = serializers.BooleanField()
    said = MessageField()


class LotSheetSerializer(serializers.Serializer[Any]):
    """A lot under way, as far as it was measured. ``level`` and ``ticks`` are for drawing, inches beyond what is wanted."""

    kind = serializers.CharField(source="kind.value")
    lot = serializers.IntegerField()
    units = serializers.IntegerField()
    rows = WatchedSerializer(many=True)
    state = serializers.ChoiceField(choices=[s.value for s in LotState], source="watch.state.value")
    said = serializers.SerializerMethodField()
    since = serializers.IntegerField(source="watch.since")
    doubtful = serializers.IntegerField(source="watch.doubtful")
    measure = serializers.ListField(child=serializers.IntegerField(), source="watch.measure")
    next = serializers.IntegerField()
    level = serializers.FloatField(source="watch.level")
    by = serializers.FloatField(source="watch.by")
    own = serializers.BooleanField()
    plans = SamplingPlanSerializer(many=True)
    ticks = serializers.SerializerMethodField()

    def get_said(self, sheet: LotSheet) -> str:
        return sheet.watch.sentence(GROWS[sheet.kind]).text(self.context["style"])

    @extend_schema_field(AxisTickSerializer(many=True))
    def get_ticks(self, sheet: LotSheet) -> Any:
        style = self.context["style"]
        return [
            {"at": float(t), "text": _signed_text(t, style)} for t in _ticks([m.off for m in sheet.measured], style)
        ]


class ForetoldSerializer(serializers.Serializer[Any]):
    """Of a hundred tips, and of a hundred blocks, how many would be right, and how many of a hundred units have something to trim (None:
    none is sewn, or some cannot be made at this size); ``off`` is what the block is off on the whole."""

    key = serializers.CharField()
    name = serializers.CharField()
    tips = serializers.SerializerMethodField()
    blocks = serializers.SerializerMethodField()
    room = serializers.SerializerMethodField()
    cannot = serializers.IntegerField(source="rooms.cannot")
    enough = serializers.IntegerField()
    off = serializers.SerializerMethodField()

    def get_room(self, told: Foretold) -> int | None:
        return None if told.rooms.share is None else _of_hundred(told.rooms.share)

    def get_tips(self, told: Foretold) -> int | None:
        return None if told.forecast.tips is None else round(100 * told.forecast.tips)

    def get_blocks(self, told: Foretold) -> int:
        return round(100 * told.forecast.blocks)

    def get_off(self, told: Foretold) -> str:
        return _beyond(told.forecast.off, self.context["style"])


SCHOOLS_ASKED = [s.value for s in (School.EXACT, School.LITTLE, School.GENEROUS, School.RECORDS)]


def _of_hundred(share: float) -> int:
    """Rounded down: of a hundred that all have room, not one may be short."""
    return int(100 * share + 1e-6)


class ForecastsSerializer(serializers.Serializer[Any]):
    """``readings`` of seams and ``trimmed`` units stand behind it; none of them: steady hands are assumed. ``left`` arrangements are not
    worked out yet: ask again."""

    finished = LengthAnswerField(source="asked.finished")
    blocks = ForetoldSerializer(many=True)
    left = serializers.IntegerField()
    tip_borne = LengthAnswerField()
    side_borne = LengthAnswerField()
    readings = serializers.IntegerField()
    trimmed = serializers.IntegerField()


class HelpSerializer(serializers.Serializer[Any]):
    said = MessageField()
    tips = serializers.SerializerMethodField()
    blocks = serializers.SerializerMethodField()

    def get_tips(self, help_: Help) -> int | None:
        return None if help_.then.tips is None else round(100 * help_.then.tips)

    def get_blocks(self, help_: Help) -> int:
        return round(100 * help_.then.blocks)


class WayToMakeSerializer(serializers.Serializer[Any]):
    """Of a hundred units made so, how many have something to trim; ``cloth`` of one."""

    said = MessageField()
    room = serializers.SerializerMethodField()
    cloth = serializers.SerializerMethodField()

    def get_room(self, making: UnitMaking) -> int:
        return _of_hundred(making.share)

    def get_cloth(self, making: UnitMaking) -> str:
        return making.cloth.set_in(self.context["style"])


class UnitRoomsSerializer(serializers.Serializer[Any]):
    said = MessageField()
    count = serializers.IntegerField()
    usual = WayToMakeSerializer()
    others = WayToMakeSerializer(many=True)


class ForecastSerializer(serializers.Serializer[Any]):
    block = ForetoldSerializer()
    units = UnitRoomsSerializer(many=True)
    helps = HelpSerializer(many=True)
