"""The size ladder: cut, raw, trimmed and finished on one scale, with the loss between two rungs named.

Readings sit on the same scale as marks. Positions are shares (0 to 1) of the window shown, so that a
screen only has to place them.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from .lengths import Length, Measure, inches, mm
from .planning import UnitPlan

__all__ = ["Ladder", "Rung", "Step", "Tick", "ladder"]

_ROOM_BESIDE = 0.12


@dataclass(frozen=True, slots=True)
class Rung:
    """One size; ``loss`` is what is lost on the way down to the next rung, and ``why``."""

    name: str
    size: Length
    at: float
    loss: Length | None = None
    why: str = ""


@dataclass(frozen=True, slots=True)
class Tick:
    """A mark of the rule along the ladder; ``rank`` 0 for whole units, 1 halves, 2 quarters and so on."""

    size: Length
    at: float
    rank: int


@dataclass(frozen=True, slots=True)
class Step:
    """A length placed on the ladder's scale, such as a reading."""

    size: Length
    at: float


@dataclass(frozen=True, slots=True)
class Ladder:
    start: Length
    end: Length
    rungs: tuple[Rung, ...]
    ticks: tuple[Tick, ...]

    def place(self, size: Length) -> Step:
        """Where ``size`` lies, held to the window's edges when it is outside."""
        share = (float(size) - float(self.start)) / (float(self.end) - float(self.start))
        return Step(size, min(1.0, max(0.0, share)))


def ladder(plan: UnitPlan, measure: Measure = Measure.INCHES, readings: Iterable[Length] = ()) -> Ladder:
    """The ladder of a plan, its window widened so that ``readings`` fit unless they are far off."""
    step = inches("1/16") if measure is Measure.INCHES else mm(1)
    sizes = [plan.cut, plan.raw, plan.target, plan.finished]
    low, high = min(sizes), max(sizes)
    reach = high - low
    near = [r for r in readings if low - reach / 2 <= r <= high + reach / 2]
    low, high = min([low, *near]), max([high, *near])
    beside = max(2, int(float(high - low) * _ROOM_BESIDE / float(step)))
    start = max(low.round_near(step) - step * beside, Length.of(0))
    empty = Ladder(start, high.round_up(step) + step * beside, (), ())
    return Ladder(empty.start, empty.end, _rungs(plan, empty), _ticks(empty, step, measure))


def _rungs(plan: UnitPlan, scale: Ladder) -> tuple[Rung, ...]:
    losses = (
        ("cut", plan.cut, plan.cut - plan.raw, "to the diagonal seam"),
        ("raw", plan.raw, plan.raw - plan.target, "trimmed off"),
        ("trimmed", plan.target, plan.target - plan.finished, "to the joining seams"),
        ("finished", plan.finished, None, ""),
    )
    return tuple(Rung(name, size, scale.place(size).at, loss, why) for name, size, loss, why in losses)


def _ticks(scale: Ladder, step: Length, measure: Measure) -> tuple[Tick, ...]:
    groups = (16, 8, 4, 2) if measure is Measure.INCHES else (10, 5)
    first = step.whole_times(scale.start, up=True)
    last = step.whole_times(scale.end)
    ticks = []
    for k in range(first, last + 1):
        rank = next((i for i, g in enumerate(groups) if k % g == 0), len(groups))
        ticks.append(Tick(step * k, scale.place(step * k).at, rank))
    return tuple(ticks)
