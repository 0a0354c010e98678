"""A quilter's own pace: how much longer each stage takes her than usual, from minutes that were timed.

Source: docs/theory, section 17.2.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from math import exp, log, sqrt

from ..diagnosis.habits import HALF_LIFE, sureness
from .effort import WorkStage

__all__ = ["LEAST_TIMED", "Pace", "PaceForecast", "Timed", "pace_of", "time_for", "usual_pace"]

LEAST_TIMED = 1.0
"""Minutes: a shorter stretch tells nothing."""
_BETWEEN = 0.5
"""Of ln(own/usual) from quilter to quilter: two in three need 0.6 to 1.65 of what is usual."""
_SITTING = 0.3
"""Of ln(own/usual) from sitting to sitting of one quilter, before any is known; worth as many sittings as ``_HELD``."""
_HELD = 4.0
_WILD = log(8)
"""A stretch eight times off what is usual was timed or counted wrongly, and is not used."""
_TENTH = 1.2816


@dataclass(frozen=True, slots=True)
class Timed:
    """A stretch of work: the ``minutes`` it took, those ``usual`` for what was done in it, and how many days ago it was."""

    minutes: float
    usual: float
    age: float = 0.0

    @property
    def weight(self) -> float:
        """One for today's; half as much every 60 days."""
        return float(0.5 ** (max(0.0, self.age) / HALF_LIFE))


@dataclass(frozen=True, slots=True)
class Pace:
    """``factor`` of the usual minutes, ``unsure`` the spread of its logarithm, ``sitting`` that from sitting to sitting; from so
    many ``sittings``, which are ``worth`` that many of today's."""

    factor: float
    unsure: float
    sitting: float
    sittings: int
    worth: float

    @property
    def sure(self) -> str:
        """Certain, likely or open, by what it rests on."""
        return sureness(self.worth)


def usual_pace() -> Pace:
    """Of a quilter of whom nothing is known."""
    return Pace(1.0, _BETWEEN, _SITTING, 0, 0.0)


def pace_of(stretches: Iterable[Timed]) -> Pace:
    """From what was timed of one stage. Long stretches count as one: a sitting goes well or badly as a whole."""
    told = [(log(t.minutes / t.usual), t.weight) for t in stretches if t.minutes >= LEAST_TIMED and t.usual > 0]
    told = [(x, w) for x, w in told if abs(x) < _WILD]
    if not told:
        return usual_pace()
    worth = sum(w for _, w in told)
    mean = sum(x * w for x, w in told) / worth
    squares = sum(w * (x - mean) ** 2 for x, w in told)
    sitting = sqrt((_HELD * _SITTING**2 + squares) / (_HELD + max(0.0, worth - 1)))
    precision = 1 / _BETWEEN**2 + worth / sitting**2
    middle = (worth / sitting**2) * mean / precision
    return Pace(exp(middle), sqrt(1 / precision), sitting, len(told), worth)


@dataclass(frozen=True, slots=True)
class PaceForecast:
    """Minutes: as it most likely goes, and from ``quick`` to ``slow`` eight times in ten."""

    minutes: float
    quick: float
    slow: float


def time_for(work: Mapping[WorkStage, float], paces: Mapping[WorkStage, Pace], sitting: float = 60.0) -> PaceForecast:
    """How long work takes whose usual minutes are given by stage, in sittings of so many minutes. The stages go well or badly
    each by itself; their sum is taken as log-normal."""
    means: Sequence[tuple[float, float]] = [
        _moments(minutes, paces.get(stage, usual_pace()), sitting) for stage, minutes in work.items() if minutes > 0
    ]
    total = sum(m for m, _ in means)
    if not total:
        return PaceForecast(0.0, 0.0, 0.0)
    variance = sum(v for _, v in means)
    spread = sqrt(log(1 + variance / total**2))
    middle = total / sqrt(1 + variance / total**2)
    return PaceForecast(middle, middle * exp(-_TENTH * spread), middle * exp(_TENTH * spread))


def _moments(usual: float, pace: Pace, sitting: float) -> tuple[float, float]:
    """Mean and variance of the minutes of one stage: the pace is the same in all its sittings, their luck is not."""
    middle = usual * pace.factor
    sittings = max(1.0, middle / sitting)
    spread = pace.unsure**2 + pace.sitting**2 / sittings
    mean = middle * exp(spread / 2)
    return mean, mean**2 * (exp(spread) - 1)
