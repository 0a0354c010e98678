"""A lot while it is sewn or trimmed: whether what is measured of it drifts or jumps, since when, and which units are in doubt.

Every place where the level may have changed is weighed against no change, with the quilter's own spread known only roughly: a
normal and inverse-gamma model, whose evidence is Student's t (Barry and Hartigan 1993 of change points; O'Hagan 1994 of the
model). Source: docs/theory, section 16.3.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from math import hypot, log, sqrt
from statistics import median

import numpy as np
from numpy.typing import NDArray

from ..diagnosis.causes import SCATTER
from ..diagnosis.equations import CUT_SCATTER
from ..diagnosis.reading_kinds import ReadingKind
from ..diagnosis.words import Roughly
from ..messages import Message

__all__ = ["FEWEST_MEASURED", "STEADY_SPREAD", "LotState", "LotWatch", "Watched", "next_to_measure", "watch_lot"]

FEWEST_MEASURED = 4
"""Units measured before anything is said of a change."""
_OFTEN = 0.12
"""How often a lot changes on the way."""
_SURE = 0.6
"""Probability of a change from which it is told: fewer than one steady lot in twenty reaches it (bench)."""
_STEP = 1 / 32
"""Inches: how large a change is, when there is one."""
_KNOWN = 12.0
"""Readings' worth of what the quilter's own spread is known by."""
_LEVEL = 1 / 90
"""Inches: how far a lot's level lies from what is usual of her."""
_WILD = 4.0
"""Spreads from both its neighbours at which one reading is a slip, and counts as they do; from the middle of all no reading counts as
further off than that."""


STEADY_SPREAD = {
    ReadingKind.STITCH: hypot(SCATTER["mean"], SCATTER["middle"]),
    ReadingKind.RAW_WIDTH: hypot(CUT_SCATTER, sqrt(2) * SCATTER["mean"]),
    ReadingKind.WIDTH: SCATTER["width"],
    ReadingKind.HEIGHT: SCATTER["height"],
}
"""What can be watched of a lot, with its spread from unit to unit in steady hands, inches. A raw unit loses the square root of two of
its seam's take-up (docs/theory, section 4)."""


class LotState(StrEnum):
    """What is said of a lot."""

    TOO_FEW = "too_few"
    STEADY = "steady"
    ONE_ODD = "one_odd"
    JUMP = "jump"
    DRIFT = "drift"


@dataclass(frozen=True, slots=True)
class Watched:
    """One unit of the lot that was measured: its number in the order sewn, and how far off what is wanted it is, inches, the mean of
    so many ``readings`` of it."""

    unit: int
    off: float
    readings: int = 1


@dataclass(frozen=True, slots=True)
class LotWatch:
    """``since`` is the first unit in doubt and ``doubtful`` how many there are up to the last one measured; ``measure`` are units that
    would narrow it down; ``by`` is the change in inches. ``level`` is where the lot lay before it, ``probability`` that it changed."""

    state: LotState
    level: float
    since: int = 0
    doubtful: int = 0
    measure: tuple[int, ...] = ()
    by: float = 0.0
    probability: float = 0.0

    def sentence(self, words: tuple[Message, Message]) -> Message:
        """In words; ``words`` say what it does when the figure grows, and when it shrinks ("the seam runs wider")."""
        what = words[0] if self.by > 0 else words[1]
        match self.state:
            case LotState.TOO_FEW:
                return Message("Four units have to be measured before anything can be said of this lot.")
            case LotState.STEADY:
                return Message("This lot is steady so far.")
            case LotState.ONE_ODD:
                return Message("Unit {unit} lies apart by itself. Measure the next one too.", unit=self.since)
        told = Message(
            _DRIFTS if self.state is LotState.DRIFT else _JUMPED,
            since=self.since,
            what=what,
            by=Roughly(self.by),
            n=self.doubtful,
        )
        if not self.measure:
            return told
        return Message(
            "{told} Measure {n, plural, one {unit {first}} other {units {first} and {last}}} to know where it began.",
            told=told,
            n=len(self.measure),
            first=self.measure[0],
            last=self.measure[-1],
        )


_DRIFTS = "From about unit {since} on, {what} more and more, by {by} by now: {n, plural, one {one unit is} other {# units are}} in doubt."
_JUMPED = "Since about unit {since}, {what} by {by}: {n, plural, one {one unit is} other {# units are}} in doubt."


def watch_lot(measured: Sequence[Watched], *, spread: float, noise: float = 0.0, usual: float = 0.0) -> LotWatch:
    """``measured`` in any order, of units of one lot; ``spread`` is the quilter's own, of unit to unit, ``noise`` what one reading
    adds, and ``usual`` how far off her units lie on the whole; inches."""
    units = sorted(measured, key=lambda m: m.unit)
    if len(units) < FEWEST_MEASURED:
        return LotWatch(LotState.TOO_FEW, median([m.off for m in units]) if units else 0.0)
    each = np.array([spread**2 + noise**2 / m.readings for m in units])
    spread = max(float(np.sqrt(each.mean())), 1e-4)
    own = each / spread**2
    offs = np.array([m.off for m in units])
    tame = _without_slips(offs, spread)
    numbers = np.array([m.unit for m in units], dtype=float)
    ways = [(k, drift) for k in range(1, len(units)) for drift in (False, True)]
    evidence = np.array([_evidence(tame - usual, _shape(numbers, k, drift), own, spread) for k, drift in ways])
    none = _evidence(tame - usual, None, own, spread)
    scores = evidence + log(_OFTEN / len(ways)) - none - log(1 - _OFTEN)
    weights = np.exp(scores)
    probability = float(weights.sum() / (1 + weights.sum()))
    drifts = np.array([drift for _, drift in ways])
    at = np.array([k for k, _ in ways])
    if probability < _SURE:
        return LotWatch(LotState.STEADY, float(tame.mean()), probability=probability)
    best = int(weights.argmax())
    first = int(at[best])
    if float(weights[at == len(units) - 1].sum()) > 0.5 * float(weights.sum()):
        return LotWatch(
            LotState.ONE_ODD,
            float(tame[:-1].mean()),
            units[-1].unit,
            1,
            by=float(tame[-1] - tame[:-1].mean()),
            probability=probability,
        )
    drift = bool(weights[drifts].sum() > weights[~drifts].sum())
    before, after = tame[:first], tame[first:]
    by = float(after[-2:].mean() - before.mean()) if drift else float(after.mean() - before.mean())
    since = units[first - 1].unit + 1
    return LotWatch(
        LotState.DRIFT if drift else LotState.JUMP,
        float(before.mean()),
        since,
        units[-1].unit - since + 1,
        _to_measure([m.unit for m in units], at, weights),
        by,
        probability,
    )


def _without_slips(offs: NDArray[np.float64], spread: float) -> NDArray[np.float64]:
    """The last one may be the first of many, and stays as it is but for how far."""
    tame = offs.copy()
    for n in range(len(offs) - 1):
        beside = offs[[1, 2]] if n == 0 else offs[[n - 1, n + 1]]
        if np.abs(offs[n] - beside).min() > _WILD * spread > np.ptp(beside):
            tame[n] = beside.mean()
    middle = float(np.median(tame))
    return np.clip(tame, middle - _WILD * spread, middle + _WILD * spread)


def _shape(numbers: NDArray[np.float64], k: int, drift: bool) -> NDArray[np.float64]:
    """What a change at the ``k``-th measured unit adds to each: all at once, or growing from unit to unit to its full size."""
    if not drift:
        return (np.arange(len(numbers)) >= k).astype(float)
    grown = numbers - numbers[k - 1]
    return np.asarray(np.clip(grown / max(1.0, grown[-1]), 0.0, 1.0))


def _evidence(
    x: NDArray[np.float64], change: NDArray[np.float64] | None, own: NDArray[np.float64], spread: float
) -> float:
    """Logarithm of the density of ``x``, but for what all models share; ``own`` is each one's variance beside the mean of them."""
    n = len(x)
    level = np.ones(n)
    covariance = np.diag(own) + (_LEVEL / spread) ** 2 * np.outer(level, level)
    if change is not None:
        covariance += (_STEP / spread) ** 2 * np.outer(change, change)
    root = np.linalg.cholesky(covariance)
    half = np.linalg.solve(root, x)
    squares = float(half @ half) / spread**2
    return float(-np.log(np.diag(root)).sum() - (_KNOWN + n) / 2 * np.log(_KNOWN + squares))


def _to_measure(units: Sequence[int], at: NDArray[np.int64], weights: NDArray[np.float64]) -> tuple[int, ...]:
    """Up to two units not measured yet: the middle of the gaps in which the change most likely lies."""
    shares = [(float(weights[at == k].sum()), k) for k in range(1, len(units))]
    found = []
    for _, k in sorted(shares, reverse=True):
        low, high = units[k - 1], units[k]
        if high - low > 1:
            found.append((low + high) // 2)
        if len(found) == 2:
            break
    return tuple(sorted(found))


def next_to_measure(watch: LotWatch, measured: Sequence[Watched], every: int, lot: int) -> int:
    """The unit to measure next: one that narrows a change down, else one in ``every``, no further than the lot's last."""
    if watch.measure:
        return watch.measure[0]
    return min(max(1, lot), max(m.unit for m in measured) + every) if measured else 1
