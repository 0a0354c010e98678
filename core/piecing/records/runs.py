"""Readings over time, a point a day, and how they spread beside what is assumed: what is drawn as a run and as bars.

Source: docs/theory, section 16.2.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date
from math import hypot
from statistics import fmean

from scipy.special import ndtr

from ..diagnosis.habits import Figure, Habit
from ..diagnosis.readings import Reading
from ..lengths import Length

__all__ = ["Bar", "RunPoint", "bars_of", "days_between", "run_of", "seam_off"]

_WILD = 1 / 4
"""Inches: a seam further off was mistyped, and is not drawn."""
_WIDE = {Habit.SEAM: 1 / 64, Habit.CUTTING: 1 / 32, Habit.TRIMMING: 1 / 32}
"""Inches that a bar holds: half of what was read to where two readings make one figure, else a mark."""


@dataclass(frozen=True, slots=True)
class RunPoint:
    """All readings of one day with one set-up: how many, their mean, the least and the most, in inches."""

    day: date
    set_up: str
    count: int
    mean: float
    least: float
    most: float


def days_between(day: date, today: date) -> int:
    """How many days ago; a day in the future, or a clock set back, counts as today."""
    return max(0, (today - day).days)


def run_of(readings: Iterable[tuple[date, str, float]]) -> tuple[RunPoint, ...]:
    """``readings`` are day, set-up and inches, in any order; the points come in the order of days."""
    by: dict[tuple[date, str], list[float]] = {}
    for day, set_up, value in readings:
        by.setdefault((day, set_up), []).append(value)
    return tuple(
        RunPoint(day, set_up, len(v), fmean(v), min(v), max(v))
        for (day, set_up), v in sorted(by.items(), key=lambda x: (x[0][0], x[0][1]))
    )


def seam_off(reading: Reading, allowance: Length, fold: float) -> float | None:
    """What the seam took beyond the allowance, inches: a strip test as it is, a stitching distance with half the ``fold``. None for a
    reading so far off that it was mistyped."""
    off = reading.read - float(allowance) + (0.0 if reading.whole is not None else fold / 2)
    return off if abs(off) < _WILD else None


@dataclass(frozen=True, slots=True)
class Bar:
    """How many readings lie about ``middle`` inches, and how many the diagnosis would expect there."""

    middle: float
    count: int
    expected: float


def bars_of(habit: Habit, values: Sequence[float], figure: Figure, noise: float) -> tuple[Bar, ...]:
    """How many were read in each bar, and how many a quilter as the diagnosis assumes her, with this mean, would have read there;
    ``noise`` is what one reading adds, inches. None without a reading."""
    if not values:
        return ()
    wide, spread = _WIDE[habit], hypot(figure.assumed, noise)
    found = []
    for n in range(round(min(values) / wide) - 1, round(max(values) / wide) + 2):
        low, high = (float(ndtr((n * wide + side * wide / 2 - figure.mean) / spread)) for side in (-1, 1))
        found.append(Bar(n * wide, sum(1 for v in values if round(v / wide) == n), len(values) * (high - low)))
    return tuple(found)
