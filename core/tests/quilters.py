"""Simulated quilters: hidden truth, sewn and trimmed seam by seam and unit by unit, read off a ruler.

Shares nothing with the diagnosis but the craft: it draws every seam and every unit, adds up the row
in inches and rounds to the ruler's marks.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from piecing.diagnosis import Reading, ReadingKind
from piecing.lengths import Length
from piecing.planning import UnitPlan


@dataclass(frozen=True)
class Truth:
    """Mean errors in inches: stitching distance, fold, trimmed size."""

    seam: float
    fold: float
    trim: float


@dataclass(frozen=True)
class Habits:
    """Spreads in inches, drawn afresh for every seam, spot, unit and ruler."""

    seam: float = 1 / 96
    along: float = (1 / 64**2 - 1 / 96**2) ** 0.5
    unit: float = 1 / 64
    hand: float = 1 / 128


def any_truth(rng: np.random.Generator) -> Truth:
    return Truth(rng.normal(0, 3 / 64), rng.normal(3 / 128, 1 / 160), rng.normal(0, 3 / 64))


def one_cause(rng: np.random.Generator, cause: str, size: float) -> Truth:
    """A quilter with one error of ``size`` and the other a third of it at most."""
    other = rng.uniform(-size / 3, size / 3)
    main = size * rng.choice((-1, 1))
    fold = rng.normal(3 / 128, 1 / 160)
    return Truth(main, fold, other) if cause == "seam" else Truth(other, fold, main)


def readings_of(
    truth: Truth,
    plan: UnitPlan,
    rng: np.random.Generator,
    *,
    units: int = 4,
    rows: int = 2,
    row_units: int = 4,
    seams: int = 3,
    mark: int = 32,
    habits: Habits | None = None,
) -> list[Reading]:
    """Measure ``units`` units, ``rows`` rows and ``seams`` seams of this quilter's work."""
    h = habits or Habits()
    target, allowance = float(plan.target_width), float(plan.choices.seam_allowance)

    def read(inches: float) -> Length:
        return Length.of(round((inches + rng.normal(0, h.hand)) * mark)) / mark

    def unit() -> float:
        return target + truth.trim + rng.normal(0, h.unit)

    def seam() -> float:
        return allowance + truth.seam + rng.normal(0, h.seam)

    out = [Reading(ReadingKind.UNIT_WIDTH, read(unit())) for _ in range(units)]
    for _ in range(rows):
        length = sum(unit() for _ in range(row_units))
        length -= sum(2 * seam() + truth.fold for _ in range(row_units - 1))
        out.append(Reading(ReadingKind.ROW_LENGTH, read(length), row_units=row_units))
    for _ in range(seams):
        out.append(Reading(ReadingKind.STITCH_DISTANCE, read(seam() + rng.normal(0, h.along))))
    return out
