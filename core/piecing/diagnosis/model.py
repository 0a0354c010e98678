"""The observation model: what each cause does to each reading.

Four causes, each a signed error in inches around what the craft asks for:

    seam   mean stitching distance minus the seam allowance s
    fold   length one pressed seam swallows (0 would mean: paid for)
    trim   mean trimmed size minus the target U
    cut    mean size of the pieces minus the planned cut C

A reading is ``nominal + h · causes + noise``. Priors and noises below are written for this craft and are
what ``docs/theory.md``, section 8, derives and explains; change them there and here together.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from math import sqrt

import numpy as np
from numpy.typing import NDArray

from ..lengths import ZERO, Length, inches
from ..planning import UnitPlan
from .readings import Reading, ReadingKind

__all__ = [
    "CAUSES",
    "CUT_SCATTER",
    "FOLD_USUAL",
    "HAND_NOISE",
    "PRIOR_SPREAD",
    "SEAM_SCATTER",
    "SPOT_SCATTER",
    "STRIP_SCATTER",
    "UNIT_SCATTER",
    "Cause",
    "Observation",
    "Prior",
    "Vector",
    "observe",
    "prior_for",
    "row_response",
]

Vector = NDArray[np.float64]


class Cause(StrEnum):
    SEAM = "seam"
    FOLD = "fold"
    TRIM = "trim"
    CUT = "cut"


CAUSES = tuple(Cause)

FOLD_USUAL = 3 / 128
"""Mean fold where none was measured: midway between the usual 1/64 and 1/32."""
PRIOR_SPREAD = {Cause.SEAM: 3 / 64, Cause.FOLD: 1 / 160, Cause.TRIM: 3 / 64, Cause.CUT: 3 / 64}
"""Standard deviations. The fold's puts four quilters in five between 1/64 and 1/32."""
UNIT_SCATTER = 1 / 64
"""Between units trimmed with one setting."""
SEAM_SCATTER = 1 / 96
"""Between the mean stitching distances of seams sewn with one setting."""
SPOT_SCATTER = 1 / 64
"""Of the stitching distance at one spot around the day's mean, between seams and along a seam."""
CUT_SCATTER = 1 / 64
"""Between pieces cut with one setting."""
STRIP_SCATTER = 1 / 128
"""Between the three strips of a strip test, cut one after another."""
HAND_NOISE = 1 / 128
"""Of laying the ruler and judging the edge, before the mark is chosen."""


@dataclass(frozen=True, slots=True)
class Prior:
    mean: Vector
    covariance: NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Observation:
    """A reading as an equation: ``value = nominal + response · causes + noise``, noise sd ``noise`` inches."""

    reading: Reading
    nominal: float
    value: float
    response: Vector
    noise: float


def prior_for(plan: UnitPlan) -> Prior:
    """Before any reading: around the planned stitching distance, the measured or usual fold, true trim and cut."""
    fold = float(plan.choices.fold) if plan.choices.fold > ZERO else FOLD_USUAL
    offset = float(plan.choices.seam.stitch - plan.choices.seam_allowance)
    spread = np.array([PRIOR_SPREAD[c] for c in CAUSES])
    return Prior(np.array([offset, fold, 0.0, 0.0]), np.diag(spread**2))


def row_response(units: int) -> Vector:
    """Row length = sum of widths - 2 sum of take-ups over n - 1 inner seams."""
    inner = units - 1
    return np.array([-2.0 * inner, -1.0 * inner, float(units), 0.0])


def observe(reading: Reading, plan: UnitPlan, resolution: Length = inches("1/32")) -> Observation:
    """The equation of one reading taken with a ruler marked every ``resolution``."""
    ruler = float(resolution) ** 2 / 12 + HAND_NOISE**2
    allowance = plan.choices.seam_allowance
    match reading.kind:
        case ReadingKind.UNIT_WIDTH | ReadingKind.UNIT_HEIGHT:
            wide = reading.kind is ReadingKind.UNIT_WIDTH
            nominal = float(plan.target_width if wide else plan.target_height)
            response = np.array([0.0, 0.0, 1.0, 0.0])
            noise = UNIT_SCATTER**2 + ruler
        case ReadingKind.ROW_LENGTH:
            n = reading.row_units or 2
            nominal = float(plan.choices.row(n))
            response = row_response(n)
            noise = n * UNIT_SCATTER**2 + 4 * (n - 1) * SEAM_SCATTER**2 + ruler
        case ReadingKind.STITCH_DISTANCE:
            nominal, response = float(allowance), np.array([1.0, 0.0, 0.0, 0.0])
            noise = SPOT_SCATTER**2 + ruler
        case ReadingKind.STRIP_TEST:
            nominal, response = float(allowance), np.array([1.0, 0.5, 0.0, 0.0])
            # e = (W - 3m)/2: ten quarter-variances of the ruler, six quarters of the strips, half of the seams'.
            noise = 2.5 * ruler + 1.5 * STRIP_SCATTER**2 + 0.5 * SEAM_SCATTER**2
        case ReadingKind.RAW_SIZE:
            nominal = float(plan.raw_at(allowance))
            loss = float(plan.raw_at(ZERO) - plan.raw_at(inches(1)))
            gain = float(plan.raw_at(allowance, cut_off=inches(1)) - plan.raw_at(allowance))
            response = np.array([-loss, -loss / 2, 0.0, gain])
            noise = (gain * CUT_SCATTER) ** 2 + (loss * SEAM_SCATTER) ** 2 + ruler
    value = float(reading.strip_test.take_up if reading.kind is ReadingKind.STRIP_TEST else reading.value)
    return Observation(reading, nominal, value, response, sqrt(noise))
