"""How large each cause is by the readings alone, what is believed of each reading, and which are set aside.

Source: docs/theory, section 14.7.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import sqrt

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from ..lengths import ZERO, Length, inches
from ..messages import Message
from .causes import Cause, Parameter
from .model import Vector
from .possible import NOTHING
from .priors import Prior
from .readings import Reading
from .sets import LikelySet
from .system import Candidate, System
from .words import SlipGuess

__all__ = ["Estimate", "Outlier", "estimates_of", "fitted_by", "lone_readings", "readings_aside"]

_ASIDE = 0.5
"""Probability from which a reading is set aside."""
_UNMEASURED = 1 / 20
"""Inches either side, nine times in ten, from which nothing is known of a cause."""
_NINE_IN_TEN = 1.645
"""Standard deviations either side of its mean that hold nine tenths of a normal."""


@dataclass(frozen=True, slots=True)
class Outlier:
    """A reading set aside: what the others make of it (inches, with its spread), how far off it is, and a guess at the slip."""

    index: int
    expected: float
    expected_sd: float
    away: float
    probability: float
    said: Message


@dataclass(frozen=True, slots=True)
class Estimate:
    """One cause by the readings alone, as if nothing had been held likely of it: inches beyond what is wanted, and an interval
    that holds its true size nine times in ten. ``large`` is the probability that it is more than scatter."""

    parameter: Parameter
    size: float
    low: float
    high: float
    large: float
    leads: float

    @property
    def spread(self) -> float:
        """The standard deviation of a normal with so wide an interval, inches."""
        return (self.high - self.low) / (2 * _NINE_IN_TEN)

    @property
    def measured(self) -> bool:
        """Whether the readings say anything of it."""
        return self.high - self.low < 2 * _UNMEASURED

    @property
    def looked_at(self) -> bool:
        """Whether any reading touches it at all."""
        return self.high - self.low < 2.0

    @property
    def sure_of_side(self) -> bool:
        """Whether the whole 90% interval lies on one side of nothing."""
        return self.low * self.high > 0


def estimates_of(
    system: System,
    sets: Sequence[LikelySet],
    params: Sequence[Parameter],
    sizes: NDArray[np.float64],
    leading: NDArray[np.int64],
) -> tuple[Estimate, ...]:
    """Of each cause by the readings alone: under every set the generalised least squares of it, all else as held likely; of
    the seam with the readings of her records, where there are any. ``sizes`` and ``leading`` are those of the possible blocks."""
    prior, common = system.prior, system.common
    columns = np.array([system.of_causes[:, j] if j < common else system.reads(p) for j, p in enumerate(params)]).T
    nominal = np.concatenate([prior.mean, np.zeros(len(params) - common)])
    away = np.array([_wanted_size(prior, p) for p in params])
    low, middle, high = np.full(len(params), -1.0), nominal - away, np.full(len(params), 1.0)
    told = np.abs(columns).max(axis=0, initial=0.0) > 1e-9 if sets else np.zeros(len(params), dtype=bool)
    if told.any():
        by_readings = [
            _under(system, s, [p for p, t in zip(params, told, strict=True) if t], columns[:, told]) for s in sets
        ]
        centre = np.array([c for c, _ in by_readings]) + nominal[told]
        spread = np.array([sd for _, sd in by_readings])
        found = _quantiles(centre.T, spread.T, np.array([s.weight for s in sets])) - away[told]
        low[told], middle[told], high[told] = found
    large, leads = (sizes > NOTHING).mean(axis=0), [float((leading == j).mean()) for j in range(len(params))]
    return tuple(
        Estimate(p, float(middle[j]), float(low[j]), float(high[j]), float(large[j]), leads[j])
        for j, p in enumerate(params)
    )


def _under(system: System, s: LikelySet, params: Sequence[Parameter], columns: Vector) -> tuple[Vector, Vector]:
    """(parameters,) the estimates of one set beyond what is held of them, and their standard deviations; ``columns`` (readings,
    parameters) what an inch of each does."""
    number = {p: j for j, p in enumerate(system.parameters)}
    at = [number.get(p, -1) for p in params]
    own = np.array([s.singles.get(p, 0.0) if j < 0 else s.variance[j] for p, j in zip(params, at, strict=True)])
    shift = np.array([0.0 if j < 0 else s.shift[j] for j in at])
    struck = np.array([0.0 if j < 0 else s.struck[j] for j in at])
    reach = np.einsum("np,np->p", columns, s.inverse @ columns)
    centre = shift + struck + (columns.T @ s.weighed) / reach
    variance = np.maximum(1 / reach - own, 1e-8)
    if system.prior.recorded:
        # Her records are readings of the same seam, and say as much as their own spread allows.
        seam = np.array([p.cause is Cause.SEAM for p in params])
        told = (centre * own + shift * variance) / (own + variance)
        centre = np.where(seam, told, centre)
        variance = np.where(seam, own * variance / (own + variance), variance)
    return centre, np.sqrt(variance)


def _wanted_size(prior: Prior, p: Parameter) -> float:
    return prior.offset if p.cause is Cause.SEAM else prior.paid if p.cause is Cause.FOLD else 0.0


def fitted_by(system: System, sets: Sequence[LikelySet]) -> Vector:
    """(readings,): what all that is believed makes of every reading, inches; 0 for one that was not used."""
    fitted = np.zeros(len(system.readings))
    left = sum((s.weight * (s.noise @ s.weighed) for s in sets), np.zeros(system.count))
    for k, n in enumerate(system.used if sets else ()):
        fitted[n] = system.readings[n].read - left[k]
    return fitted


def readings_aside(system: System, sets: Sequence[LikelySet]) -> tuple[Outlier, ...]:
    """Readings that likely are slips of the pen."""
    return _by_themselves(system, sets, lambda c: c.slip, _question)


def lone_readings(system: System, sets: Sequence[LikelySet]) -> tuple[Outlier, ...]:
    """Readings taken again and found right, of a piece that likely is off by itself."""
    return _by_themselves(system, sets, lambda c: c.own, _alone)


def _by_themselves(
    system: System,
    sets: Sequence[LikelySet],
    of: Callable[[Candidate], int],
    said: Callable[[Reading, float], Message],
) -> tuple[Outlier, ...]:
    """Readings that likely are off by themselves: ``of`` says of which reading a candidate is, -1 for none."""
    found = []
    candidates: dict[int, dict[int, float]] = {}
    for c, what in enumerate(system.what):
        candidates.setdefault(of(what), {})[c] = what.variance
    for k, n in enumerate(system.used):
        variance_of = candidates.get(n, {})
        chance = sum(s.weight for s in sets if not s.of.isdisjoint(variance_of))
        if chance < _ASIDE:
            continue
        expected = variance = 0.0
        for s in sets:
            own = sum(variance_of[c] for c in s.of if c in variance_of)
            off = float(s.weighed[k] / s.inverse[k, k])
            expected += s.weight * (system.readings[n].read - off)
            variance += s.weight * max(1 / float(s.inverse[k, k]) - own, 1e-8)
        away = system.readings[n].read - expected
        found.append(Outlier(n, expected, sqrt(variance), away, chance, said(system.readings[n], expected)))
    return tuple(found)


_SHARES = np.array([0.05, 0.5, 0.95])


def _quantiles(centre: Vector, spread: Vector, weights: Vector) -> Vector:
    """(3, figures): of mixtures of normals (figures, sets) at 5, 50 and 95 in 100, by bisection."""
    low = np.repeat((centre - 6 * spread).min(axis=1)[None], 3, axis=0)
    high = np.repeat((centre + 6 * spread).max(axis=1)[None], 3, axis=0)
    for _ in range(44):
        middle = (low + high) / 2
        below = ndtr((middle[:, :, None] - centre) / spread) @ weights < _SHARES[:, None]
        low, high = np.where(below, middle, low), np.where(below, high, middle)
    return np.asarray((low + high) / 2)


def _question(r: Reading, expected: float) -> Message:
    return Message(
        "The other readings make this {wanted}, and it reads {read}{slip} Read it again."
        if (wanted := _on_a_mark(expected)) != ZERO
        else "The other readings make this nothing at all, and it reads {read}{slip} Read it again.",
        wanted=wanted,
        read=Length.near(r.read),
        slip=SlipGuess(abs(r.read - expected)),
    )


def _alone(r: Reading, expected: float) -> Message:
    return Message(
        "Read again it is still {read}, and the other readings make it {wanted}: this one is off by itself."
        if (wanted := _on_a_mark(expected)) != ZERO
        else "Read again it is still {read}, and the other readings make it nothing at all: this one is off by itself.",
        wanted=wanted,
        read=Length.near(r.read),
    )


def _on_a_mark(size: float) -> Length:
    return Length.near(size).round_near(inches("1/32"))
