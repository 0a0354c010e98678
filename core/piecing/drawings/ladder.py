"""The size ladder: cut, raw, trimmed and finished on one scale, with the change between two rungs named.

Readings sit on the same scale as marks. Positions are shares (0 to 1) of the window shown, so that a
screen only has to place them. A unit that is wider than high has two ladders.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from ..lengths import Length, Measure, inches, mm
from ..planning.unit_plan import UnitPlan
from ..units.method import LadderRule

__all__ = ["DIMENSION_WORDS", "RUNG_WORDS", "Ladder", "LadderStep", "Rung", "Tick", "ladders"]

_ROOM_BESIDE = 0.12


@dataclass(frozen=True, slots=True)
class Rung:
    """One size; ``loss`` is what is lost on the way down to the next rung (below zero: gained), and ``why``.

    ``beyond`` says that it lies outside the window and is drawn torn off.
    """

    name: str
    size: Length
    at: float
    beyond: bool
    loss: Length | None = None
    why: str = ""


RUNG_WORDS = {"cut": "Cut", "raw": "Raw", "trimmed": "Trimmed", "finished": "Finished"}
DIMENSION_WORDS = {"size": "Size", "width": "Width", "height": "Height", "half": "Half unit"}


@dataclass(frozen=True, slots=True)
class Tick:
    """A mark of the rule along the ladder; ``rank`` 0 for whole units, 1 halves, 2 quarters and so on."""

    size: Length
    at: float
    rank: int


@dataclass(frozen=True, slots=True)
class LadderStep:
    """A length placed on the ladder's scale, such as a reading."""

    size: Length
    at: float


@dataclass(frozen=True, slots=True)
class Ladder:
    """``dimension``: size, width, height, or half for the half-square triangles that a goose is joined from."""

    dimension: str
    head: str
    start: Length
    end: Length
    rungs: tuple[Rung, ...]
    ticks: tuple[Tick, ...]

    def place(self, size: Length) -> LadderStep:
        """Where ``size`` lies, held to the window's edges when it is outside."""
        share = (float(size) - float(self.start)) / (float(self.end) - float(self.start))
        return LadderStep(size, min(1.0, max(0.0, share)))


def ladders(
    plan: UnitPlan, measure: Measure = Measure.INCHES, readings: Mapping[str, Iterable[Length]] | None = None
) -> tuple[Ladder, ...]:
    """The ladders of a plan, each window widened so that the readings of its dimension fit unless they are far off."""
    taken = readings or {}
    return tuple(
        _ladder(plan, rule, measure, list(taken.get(rule.dimension, ()))) for rule in plan.method.ladders(plan.spec)
    )


def _ladder(plan: UnitPlan, rule: LadderRule, measure: Measure, readings: list[Length]) -> Ladder:
    step = inches("1/16") if measure is Measure.INCHES else mm(1)
    sizes = plan.method.rungs(rule, plan.spec, plan.cuts, plan.allowance, plan.take_up)
    cut, rest = sizes[0], sizes[1:]
    low, high = min(rest), max(rest)
    # A cut many times the unit would squeeze everything else together: it is shown torn off.
    if abs(cut - high) <= (high - low) * 2:
        low, high = min(low, cut), max(high, cut)
    reach = high - low
    near = [r for r in readings if low - reach / 2 <= r <= high + reach / 2]
    low, high = min([low, *near]), max([high, *near])
    beside = max(2, int(float(high - low) * _ROOM_BESIDE / float(step)))
    start = max(low.round_near(step) - step * beside, Length.of(0))
    empty = Ladder(rule.dimension, rule.head, start, high.round_up(step) + step * beside, (), ())
    rungs = _rungs(sizes, rule, empty)
    return Ladder(empty.dimension, empty.head, empty.start, empty.end, rungs, _ticks(empty, step, measure))


def _rungs(sizes: tuple[Length, Length, Length, Length], rule: LadderRule, scale: Ladder) -> tuple[Rung, ...]:
    cut, raw, trimmed, finished = sizes
    losses = (
        ("cut", cut, cut - raw, rule.change),
        ("raw", raw, raw - trimmed, "trimmed off"),
        ("trimmed", trimmed, trimmed - finished, "to the joining seams"),
        ("finished", finished, None, ""),
    )
    return tuple(
        Rung(name, size, scale.place(size).at, size > scale.end or size < scale.start, loss, why)
        for name, size, loss, why in losses
    )


def _ticks(scale: Ladder, step: Length, measure: Measure) -> tuple[Tick, ...]:
    groups = (16, 8, 4, 2) if measure is Measure.INCHES else (10, 5)
    first = step.whole_times(scale.start, up=True)
    last = step.whole_times(scale.end)
    ticks = []
    for k in range(first, last + 1):
        rank = next((i for i, g in enumerate(groups) if k % g == 0), len(groups))
        ticks.append(Tick(step * k, scale.place(step * k).at, rank))
    return tuple(ticks)
