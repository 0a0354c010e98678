"""Handling at the bench: steps of sewing, pressing and joining in words, lots, what is done and left, the cautions."""

from .cautions import cautions_for
from .joining_steps import JoinStep, join_steps
from .lots import LotPlan, part_in_lots, wound_before
from .marking import MARKING_WORDS, Marking
from .progress import LotDone, Tally, tally_of
from .steps import BenchStage, UnitStep, unit_steps

__all__ = [
    "MARKING_WORDS",
    "BenchStage",
    "JoinStep",
    "LotDone",
    "LotPlan",
    "Marking",
    "Tally",
    "UnitStep",
    "cautions_for",
    "join_steps",
    "part_in_lots",
    "tally_of",
    "unit_steps",
    "wound_before",
]
