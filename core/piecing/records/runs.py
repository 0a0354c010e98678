"""Readings over time, a point a day: what is drawn as a run.

Source: docs/theory, section 16.2.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from statistics import fmean

__all__ = ["RunPoint", "days_between", "run_of"]


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
