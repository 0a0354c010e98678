from typing import Any

from django.utils import timezone
from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.wire import MessageField
from piecing.diagnosis.words import SURENESS
from piecing.timing import STAGE_WORDS, Day, Minutes, WorkStage, forecast_said, late_said, rests_said, task_said
from piecing.units import kind_of
from projects.translate import style_of

from .evenings import EveningSheet, ProjectTime, SittingSaid
from .models import RHYTHMS, STAGES, WorkTime
from .selectors import StagePace


def _stage(**kwargs: Any) -> serializers.ChoiceField:
    return serializers.ChoiceField(choices=STAGES, **kwargs)


class WorkTimeSerializer(serializers.Serializer[Any]):
    """A stretch of work. ``minutes`` can be typed back; ``told`` says them, ``of`` what was worked, ``counted`` whether they speak of her pace."""

    id = serializers.UUIDField(source="pk")
    project = serializers.UUIDField(source="project_id")
    project_name = serializers.CharField(source="project.name")
    stage = _stage()
    stage_said = serializers.SerializerMethodField()
    of = serializers.SerializerMethodField()
    day = serializers.CharField()
    began = serializers.DateTimeField()
    minutes = serializers.SerializerMethodField()
    told = serializers.SerializerMethodField()
    count = serializers.IntegerField(allow_null=True)
    counted = serializers.SerializerMethodField()
    note = serializers.CharField()

    def get_stage_said(self, row: WorkTime) -> str:
        return STAGE_WORDS[WorkStage(row.stage)]

    def get_of(self, row: WorkTime) -> str:
        if row.unit is not None:
            return f"{kind_of(row.unit.kind).many} finishing {style_of(row.project).pretty(row.unit.finished)}"
        return str(row.block.pattern.get("name", "")) if row.block is not None else ""

    def get_minutes(self, row: WorkTime) -> str:
        return "" if row.minutes is None else f"{row.minutes:.0f}" if row.minutes >= 1 else f"{row.minutes:.1f}"

    def get_told(self, row: WorkTime) -> str:
        return "" if row.minutes is None else str(Minutes(row.minutes))

    def get_counted(self, row: WorkTime) -> bool:
        return row.minutes is not None and row.usual is not None


class RunningSerializer(serializers.Serializer[Any]):
    running = WorkTimeSerializer(allow_null=True)


class StagePaceSerializer(serializers.Serializer[Any]):
    """Her pace in words, and how sure it is."""

    stage = _stage(source="stage.value")
    title = serializers.SerializerMethodField()
    told = serializers.SerializerMethodField()
    pace = serializers.SerializerMethodField()
    sure = serializers.ChoiceField(choices=SURENESS, source="pace.sure")
    sittings = serializers.IntegerField(source="pace.sittings")
    stretches = serializers.IntegerField()

    def get_title(self, row: StagePace) -> str:
        return STAGE_WORDS[row.stage]

    def get_told(self, row: StagePace) -> str:
        return str(Minutes(row.minutes)) if row.minutes else ""

    def get_pace(self, row: StagePace) -> str:
        return pace_said(row)


def pace_said(row: StagePace) -> str:
    """An hour of what is usual, in her time."""
    if not row.pace.sittings:
        return "as is usual, until you time some"
    return f"what usually takes an hour takes you {Minutes(60 * row.pace.factor)}"


class ProjectNameSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField(source="pk")
    name = serializers.CharField()


class TimeSheetSerializer(serializers.Serializer[Any]):
    running = WorkTimeSerializer(allow_null=True)
    stages = StagePaceSerializer(many=True)
    rows = WorkTimeSerializer(many=True)
    count = serializers.IntegerField()
    reminders = serializers.ListField(child=MessageField())
    blade = serializers.SerializerMethodField()
    today = serializers.DateField()
    projects = ProjectNameSerializer(many=True)

    @extend_schema_field(serializers.DateField(allow_null=True))
    def get_blade(self, sheet: Any) -> Any:
        return sheet.blade.day if sheet.blade else None


class FreeTimeSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField(source="pk")
    weekday = serializers.IntegerField()
    begins = serializers.SerializerMethodField()
    ends = serializers.SerializerMethodField()

    def get_begins(self, row: Any) -> str:
        return str(row.begins.strftime("%H:%M"))

    def get_ends(self, row: Any) -> str:
        return str(row.ends.strftime("%H:%M"))


class SourceSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    count = serializers.IntegerField()
    begins = serializers.CharField()
    until = serializers.CharField()


class StageLeftSerializer(serializers.Serializer[Any]):
    stage = _stage()
    title = serializers.CharField()
    told = serializers.CharField()
    spent = serializers.CharField()


class LateSerializer(serializers.Serializer[Any]):
    due = serializers.DateField()
    done = serializers.DateField(allow_null=True)
    late = serializers.BooleanField()
    tight = serializers.BooleanField()
    said = serializers.SerializerMethodField()

    def get_said(self, late: Any) -> str:
        return str(late_said(late, timezone.localdate()))


class ProjectTimeSerializer(serializers.Serializer[Any]):
    """How long the rest of a project takes. ``sure`` is that of the stage that takes most of it."""

    project = serializers.UUIDField(source="project.pk")
    name = serializers.CharField(source="project.name")
    planned = serializers.BooleanField(source="schedule.planned")
    rhythm = serializers.ChoiceField(choices=RHYTHMS, source="schedule.rhythm")
    first = serializers.DateField(source="schedule.first", allow_null=True)
    said = serializers.SerializerMethodField()
    sure = serializers.ChoiceField(choices=SURENESS)
    stages = serializers.SerializerMethodField()
    lates = LateSerializer(many=True)

    def get_said(self, told: ProjectTime) -> str:
        return str(forecast_said(told.forecast))

    @extend_schema_field(StageLeftSerializer(many=True))
    def get_stages(self, told: ProjectTime) -> Any:
        return [
            {
                "stage": s.value,
                "title": STAGE_WORDS[s],
                "told": str(Minutes(told.left[s])) if told.left.get(s) else "",
                "spent": str(Minutes(told.spent[s.value])) if told.spent.get(s.value) else "",
            }
            for s in WorkStage
            if told.left.get(s) or told.spent.get(s.value)
        ]


class TaskSerializer(serializers.Serializer[Any]):
    project = serializers.CharField()
    stage = _stage()
    said = serializers.SerializerMethodField()
    minutes = serializers.SerializerMethodField()

    def get_said(self, task: Any) -> str:
        return str(task_said(WorkStage(task["stage"]), task["said"], task["count"]))

    def get_minutes(self, task: Any) -> str:
        return str(Minutes(task["minutes"]))


class SittingSerializer(serializers.Serializer[Any]):
    day = serializers.SerializerMethodField()
    date = serializers.SerializerMethodField()
    begins = serializers.SerializerMethodField()
    ends = serializers.SerializerMethodField()
    tasks = TaskSerializer(many=True)

    def get_day(self, row: SittingSaid) -> str:
        return str(Day(row.begins.date(), timezone.localdate()))

    def get_date(self, row: SittingSaid) -> str:
        return row.begins.date().isoformat()

    def get_begins(self, row: SittingSaid) -> str:
        return row.begins.strftime("%H:%M")

    def get_ends(self, row: SittingSaid) -> str:
        return row.ends.strftime("%H:%M")


_SHOWN = 40


class EveningSheetSerializer(serializers.Serializer[Any]):
    """Free time, projects that are planned into it, and the evenings: the next forty of them, ``sittings_in_all``. ``kept`` are still to
    come of the plan that was kept, which is the ``same`` as this one or not."""

    free = FreeTimeSerializer(many=True)
    sources = SourceSerializer(many=True)
    days = serializers.SerializerMethodField()
    projects = ProjectTimeSerializer(many=True)
    others = ProjectNameSerializer(many=True)
    sittings = serializers.SerializerMethodField()
    sittings_in_all = serializers.SerializerMethodField()
    left = serializers.BooleanField()
    kept = serializers.IntegerField()
    same = serializers.BooleanField()
    behind = serializers.ListField(child=MessageField())
    rests = serializers.SerializerMethodField()

    def get_rests(self, _sheet: EveningSheet) -> str:
        return str(rests_said())

    @extend_schema_field(serializers.ListField(child=serializers.DateField()))
    def get_days(self, sheet: EveningSheet) -> list[str]:
        return [d[:10] for d in sheet.days]

    @extend_schema_field(SittingSerializer(many=True))
    def get_sittings(self, sheet: EveningSheet) -> Any:
        return SittingSerializer(sheet.sittings[:_SHOWN], many=True, context=self.context).data

    def get_sittings_in_all(self, sheet: EveningSheet) -> int:
        return len(sheet.sittings)


class ClockSerializer(serializers.Serializer[Any]):
    """``at`` is when it was tapped, by the browser's clock: what waited for the server loses no minute."""

    project = serializers.UUIDField()
    stage = _stage()
    at = serializers.CharField(max_length=40)


class StopSerializer(serializers.Serializer[Any]):
    at = serializers.CharField(max_length=40)


class CalendarSerializer(serializers.Serializer[Any]):
    name = serializers.CharField(max_length=120)
    text = serializers.CharField(trim_whitespace=False)
