"""Mean and spread of one habit of a quilter's hands, from how far each reading lay off what was wanted.

Old readings count less: a reading weighs half as much every ``HALF_LIFE`` days. Source: docs/theory, section 16.2.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from math import sqrt

from scipy.special import chdtri, stdtrit

from .words import SURENESS

__all__ = ["ENOUGH", "FEWEST", "HALF_LIFE", "Figure", "Habit", "Off", "figure_of", "sureness"]

HALF_LIFE = 60.0
"""Days."""
FEWEST, ENOUGH = 4, 12
"""Readings behind a promise, and behind one that is called certain."""
_HELD = 4.0
"""Readings' worth of what is held likely of a spread before any was taken."""
_LOW, _HIGH = 0.05, 0.95


class Habit(StrEnum):
    """What hands do in their own way. Each is known in inches beyond what was wanted."""

    SEAM = "seam"
    FOLD = "fold"
    START = "start"
    END = "end"
    CUTTING = "cutting"
    TRIMMING = "trimming"


@dataclass(frozen=True, slots=True)
class Off:
    """One reading: how far off what was wanted, inches, and how many days ago. ``marks`` is how often over the variance of one mark of the
    ruler is in it: five times in a strip's width, which is a whole less twice a middle."""

    off: float
    age: float = 0.0
    marks: float = 1.0

    @property
    def weight(self) -> float:
        """One for today's; half as much every ``HALF_LIFE`` days. A day in the future counts as today."""
        return float(0.5 ** (max(0.0, self.age) / HALF_LIFE))


@dataclass(frozen=True, slots=True)
class Figure:
    """A habit, in inches: its mean and spread, each with an interval that holds it nine times in ten, over so many ``readings``,
    which count as ``worth`` of today's. ``assumed`` is the spread held likely before any reading."""

    mean: float
    low: float
    high: float
    spread: float
    spread_low: float
    spread_high: float
    readings: int
    worth: float
    assumed: float

    @property
    def sure(self) -> str:
        """Certain, likely or open, by what it rests on."""
        return sureness(self.worth)

    @property
    def off(self) -> bool:
        """Whether the whole interval of the mean lies on one side of nothing."""
        return self.low * self.high > 0


def sureness(worth: float) -> str:
    """One scale of words for what rests on so many readings."""
    certain, likely, unsure = SURENESS
    return certain if worth >= ENOUGH else likely if worth >= FEWEST else unsure


def figure_of(readings: Sequence[Off], *, noise: float, assumed: float) -> Figure | None:
    """None without readings. ``noise`` is the standard deviation that reading one mark adds, ``assumed`` the spread that steady
    hands have, inches.

    The spread of what was read has a scaled inverse chi-square of ``worth`` readings beside 4 at the assumed one; what
    reading adds is taken out of it afterwards. The mean has Student's t about it.
    """
    if not readings:
        return None
    weights = [r.weight for r in readings]
    total = sum(weights)
    # Readings that count half each are worth fewer than they are, but never less than one newest.
    worth = max(total, max(weights))
    noise *= sqrt(sum(w * r.marks for w, r in zip(weights, readings, strict=True)) / total)
    mean = sum(w * r.off for w, r in zip(weights, readings, strict=True)) / total
    squares = sum(w * (r.off - mean) ** 2 for w, r in zip(weights, readings, strict=True))
    known = assumed**2 + noise**2
    freedom = max(0.0, worth - 1) + _HELD
    about = squares + _HELD * known
    # A mean that is itself a guess leaves one reading less to tell the spread by.
    variance = about / freedom
    reach = float(stdtrit(freedom, _HIGH)) * sqrt(variance / worth)
    # What lies above is given: 1/20 of it for the low end of the spread, 19/20 for the high one.
    low, high = about / float(chdtri(freedom, _LOW)), about / float(chdtri(freedom, _HIGH))
    return Figure(
        mean,
        mean - reach,
        mean + reach,
        _without(variance, noise),
        _without(low, noise),
        _without(high, noise),
        len(readings),
        worth,
        assumed,
    )


def _without(variance: float, noise: float) -> float:
    return sqrt(max(0.0, variance - noise**2))
