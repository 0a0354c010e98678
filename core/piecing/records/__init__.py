"""What a quilter's own readings say over time: her seam and the guide it is set by, her hands, a lot while it is sewn, and how
often diagnoses turned out right."""

from ..diagnosis.habits import Figure, Habit, Off, figure_of, sureness
from .calibration import Calibration, TurnedOut, calibrations, sureness_said
from .control import STEADY_SPREAD, LotState, LotWatch, Watched, next_to_measure, watch_lot
from .forecast import Forecast, Help, OwnHands, forecast, helps
from .guide import GuideSearch, GuideTest, SeamSearch, find_seam
from .rooms import BlockRooms, UnitMaking, UnitRooms, block_rooms, steady_record
from .runs import Bar, RunPoint, bars_of, days_between, run_of, seam_off
from .sampling import CERTAINTIES, SamplingPlan, sampling_plan, share_off
from .words import GROWS, HABIT_WORDS, habit_said, habit_sureness, spread_said

__all__ = [
    "CERTAINTIES",
    "GROWS",
    "HABIT_WORDS",
    "STEADY_SPREAD",
    "Bar",
    "BlockRooms",
    "Calibration",
    "Figure",
    "Forecast",
    "GuideSearch",
    "GuideTest",
    "Habit",
    "Help",
    "LotState",
    "LotWatch",
    "Off",
    "OwnHands",
    "RunPoint",
    "SamplingPlan",
    "SeamSearch",
    "TurnedOut",
    "UnitMaking",
    "UnitRooms",
    "Watched",
    "bars_of",
    "block_rooms",
    "calibrations",
    "days_between",
    "figure_of",
    "find_seam",
    "forecast",
    "habit_said",
    "habit_sureness",
    "helps",
    "next_to_measure",
    "run_of",
    "sampling_plan",
    "seam_off",
    "share_off",
    "spread_said",
    "steady_record",
    "sureness",
    "sureness_said",
    "watch_lot",
]
