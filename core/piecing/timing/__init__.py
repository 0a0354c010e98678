"""Minutes and evenings: what work usually takes, a quilter's own pace, sittings laid into free time, what is due, what wears."""

from .dues import Rhythm, due_of
from .effort import (
    STAGE_ORDER,
    Effort,
    WorkStage,
    again_minutes,
    block_minutes,
    piece_minutes,
    quilt_minutes,
    unit_minutes,
)
from .free import SHORTEST, Stretch, Weekly, free_stretches
from .pace import Pace, PaceForecast, Timed, pace_of, time_for, usual_pace
from .said import STAGE_WORDS, behind_said, forecast_said, task_said
from .sittings import Chore, Late, Plan, Sitting, Task, in_order, late_said, plan_sittings, rests_said
from .wear import blade_said, needle_said
from .words import Day, Minutes

__all__ = [
    "SHORTEST",
    "STAGE_ORDER",
    "STAGE_WORDS",
    "Chore",
    "Day",
    "Effort",
    "Late",
    "Minutes",
    "Pace",
    "PaceForecast",
    "Plan",
    "Rhythm",
    "Sitting",
    "Stretch",
    "Task",
    "Timed",
    "Weekly",
    "WorkStage",
    "again_minutes",
    "behind_said",
    "blade_said",
    "block_minutes",
    "due_of",
    "forecast_said",
    "free_stretches",
    "in_order",
    "late_said",
    "needle_said",
    "pace_of",
    "piece_minutes",
    "plan_sittings",
    "quilt_minutes",
    "rests_said",
    "task_said",
    "time_for",
    "unit_minutes",
    "usual_pace",
]
