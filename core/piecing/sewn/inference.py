"""Causes from readings: linear-Gaussian, with single causes that change the sizes at a stroke weighed as rival models.

The unknowns are the causes and the errors of every unit and seam around them; a reading is one linear equation in both.
Source: docs/theory.md, section 14.7.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import log, sqrt

import numpy as np
from numpy.typing import NDArray

from ..lengths import Length, inches
from ..wording import Said
from .causes import Parameter, SewnCause, parameters_of, scatter_of
from .model import SewnModel, Vector
from .priors import Mixture, Prior, after_seeing, prior_of
from .readings import PLAIN, Equation, RawSizes, SewnReading, equation_of
from .rivals import Hypothesis, Rival, hypotheses_of, rivals_of, seen_odds

__all__ = ["INTERVAL_90", "Hypothesis", "Inference", "Odd", "Prior", "infer", "prior_of"]

INTERVAL_90 = 1.6448536269514722
_ODD = 3.6
"""Standard deviations, by all other readings, from which a reading is asked about."""
_BELIEVED = 0.75
_ALONE = 1 / 8
"""Inches that a confirmed reading may be off by itself."""
_DAY = 1 / 128
"""Between the mean stitching distances of two days at one machine."""
_SURE_OF_SCATTER = 20.0
"""Readings that the assumed scatter is worth."""


@dataclass(frozen=True, slots=True)
class Odd:
    """A reading that the others do not bear out: what they make of it, how far off it is, and a guess at the slip."""

    index: int
    expected: float
    expected_sd: float
    away: float
    said: Said


@dataclass(frozen=True)
class Inference:
    """``mean``, ``covariance`` and ``draws`` (draws, parameters) of the parameters; ``narrowed`` is what is left of each one's prior
    spread, were all of them large; ``residuals`` and ``fitted`` for every reading in its order (zero for
    plain ones). ``errors`` is the most likely error of every unit and seam. ``unsteady`` tells by how much readings scatter
    more than assumed (1 when not)."""

    model: SewnModel
    prior: Prior
    readings: tuple[SewnReading, ...]
    equations: tuple[Equation | None, ...]
    mean: Vector
    covariance: NDArray[np.float64]
    draws: NDArray[np.float64]
    narrowed: Vector
    errors: Vector
    fitted: Vector
    residuals: Vector
    odd: tuple[Odd, ...]
    hypotheses: tuple[Hypothesis, ...]
    unsteady: float

    @property
    def parameters(self) -> tuple[Parameter, ...]:
        return parameters_of(self.model)

    @property
    def believed(self) -> Hypothesis | None:
        """The discrete cause that is more likely than all else together."""
        return next((h for h in self.hypotheses if h.code != "none" and h.probability >= _BELIEVED), None)

    def sd(self, n: int) -> float:
        return float(sqrt(max(0.0, self.covariance[n, n])))

    def interval(self, n: int) -> tuple[float, float]:
        """Holds the parameter nine times in ten."""
        low, high = np.quantile(self.draws[:, n], (0.05, 0.95))
        return float(low), float(high)


@dataclass(frozen=True)
class _System:
    """Readings as one linear system; ``columns`` of errors that any of them speaks of."""

    value: Vector
    design: NDArray[np.float64]
    noise: Vector
    start: Vector
    precision: Vector
    columns: NDArray[np.int64]


def _system(
    model: SewnModel, prior: Prior, readings: Sequence[SewnReading], equations: Sequence[Equation], scale: float
) -> _System:
    n, scatter = len(readings), scatter_of(model) * scale
    of_errors = np.array([e.of_errors for e in equations]).reshape(n, model.errors)
    columns = np.nonzero(of_errors.any(axis=0))[0]
    days = sorted({r.day for r in readings})
    seam = next(k for k, p in enumerate(parameters_of(model)) if p.cause is SewnCause.SEAM)
    of_causes = np.array([e.of_causes for e in equations]).reshape(n, len(prior.mean))
    by_day = (
        np.array([[of_causes[k, seam] * (r.day == d) for d in days] for k, r in enumerate(readings)])
        if len(days) > 1
        else np.zeros((n, 0))
    )
    design = np.hstack([of_causes, of_errors[:, columns], by_day])
    precision = np.concatenate([1 / prior.sd**2, 1 / scatter[columns] ** 2, np.full(by_day.shape[1], 1 / _DAY**2)])
    start = np.concatenate([prior.mean, np.zeros(len(columns) + by_day.shape[1])])
    value = np.array([r.read - e.nominal for r, e in zip(readings, equations, strict=True)])
    # Read again and right, yet far from all others: then it is that one piece that is off, and the rest are not judged by it.
    own = np.array([_ALONE**2 if r.confirmed else 0.0 for r in readings])
    noise = np.array([e.noise for e in equations]) * scale**2 + own
    return _System(value - design @ start, design, noise, start, precision, columns)


@dataclass(frozen=True)
class _Solved:
    """``weighed`` is K⁻¹ times the residuals of the prior, ``diagonal`` that of K⁻¹, K the readings' own covariance."""

    update: Vector
    covariance: NDArray[np.float64]
    weighed: Vector
    diagonal: Vector
    system: _System

    def through(self, x: Vector) -> Vector:
        """K⁻¹ x."""
        s = self.system
        y = x / s.noise
        return np.asarray(y - s.design @ (self.covariance @ (s.design.T @ y)) / s.noise)


def _solved(s: _System) -> _Solved:
    weighted = s.design / s.noise[:, None]
    covariance = np.linalg.inv(np.diag(s.precision) + s.design.T @ weighted)
    update = covariance @ (weighted.T @ s.value)
    plain = s.value / s.noise
    weighed = plain - weighted @ (covariance @ (s.design.T @ plain))
    diagonal = 1 / s.noise - ((weighted @ covariance) * weighted).sum(axis=1)
    return _Solved(update, np.asarray(covariance, dtype=np.float64), weighed, np.maximum(diagonal, 1e-12), s)


def infer(
    model: SewnModel,
    readings: Sequence[SewnReading],
    prior: Prior | None = None,
    *,
    resolution: Length = inches("1/32"),
    raw: Mapping[int, RawSizes] | None = None,
    rng: np.random.Generator | None = None,
) -> Inference:
    """What the readings say of every cause; ``rng`` only draws from what they leave open (seeded when not given). Raises ``ReadingMisplaced`` for one that this block has no place for."""
    prior = after_seeing(model, prior or prior_of(model), readings)
    equations = tuple(None if r.kind in PLAIN else equation_of(r, model, resolution, raw) for r in readings)
    numbers = [n for n, e in enumerate(equations) if e is not None]
    rivals = rivals_of(model, readings, equations)
    _, odd, chosen, weights, solved, scale = _weighed(model, prior, readings, equations, numbers, rivals)
    width = len(prior.mean)
    fitted = np.zeros(len(readings))
    errors = np.zeros(model.errors)
    wide, spread = prior.mean, np.diag(prior.sd**2)
    if solved is not None:
        state = solved.system.start + solved.update
        wide, spread = state[:width], solved.covariance[:width, :width]
    mean, covariance, draws = Mixture(model, prior, spread).answer(wide, rng or np.random.default_rng(1852))
    if solved is not None:
        count = len(solved.system.columns)
        cross = solved.covariance[width : width + count, :width]
        errors[solved.system.columns] = state[width : width + count] + cross @ np.linalg.solve(spread, mean - wide)
    for n in numbers:
        e = equations[n]
        assert e is not None
        fitted[n] = e.nominal + float(e.of_causes @ mean + e.of_errors @ errors) + float(chosen[n])
    for r in rivals:
        if r.change is chosen and r.parameter >= 0:
            # What was done at a stroke is as true of the block as what grew by degrees.
            mean, draws = mean.copy(), draws.copy()
            mean[r.parameter] += r.by
            draws[:, r.parameter] += r.by
    residuals = np.array([r.read - fitted[n] if equations[n] is not None else 0.0 for n, r in enumerate(readings)])
    return Inference(
        model,
        prior,
        tuple(readings),
        equations,
        mean,
        (covariance + covariance.T) / 2,
        draws,
        np.sqrt(np.maximum(np.diagonal(spread), 0.0)) / prior.sd,
        errors,
        fitted,
        residuals,
        tuple(sorted(odd, key=lambda o: o.index)),
        weights,
        scale,
    )


def _weighed(
    model: SewnModel,
    prior: Prior,
    readings: Sequence[SewnReading],
    equations: Sequence[Equation | None],
    numbers: list[int],
    rivals: list[Rival],
) -> tuple[list[int], list[Odd], Vector, tuple[Hypothesis, ...], _Solved | None, float]:
    """Readings kept, those asked about, the change of the discrete cause believed, all of these weighed, and the solution."""
    none = np.zeros(len(readings))
    plain = seen_odds(readings)
    if not numbers:
        return [], [], none, hypotheses_of(rivals, [], plain), None, 1.0
    kept, scale = list(numbers), 1.0
    solved, gains = _solve(model, prior, readings, equations, kept, rivals, none, scale)
    best = max(range(len(rivals)), key=lambda k: gains[k] + rivals[k].odds, default=None)
    change = none
    if best is not None and gains[best] + rivals[best].odds > log(_BELIEVED / (1 - _BELIEVED)):
        change = rivals[best].change
    odd: list[Odd] = []
    most = len(kept) // 3
    while True:
        solved, gains = _solve(model, prior, readings, equations, kept, rivals, change, scale)
        away = solved.weighed / np.sqrt(solved.diagonal)
        doubtful = [k for k in np.argsort(-np.abs(away)) if not readings[kept[k]].confirmed and abs(away[k]) > _ODD]
        if not doubtful or len(odd) >= most:
            break
        k = int(doubtful[0])
        n = kept.pop(k)
        off = float(solved.weighed[k] / solved.diagonal[k])
        odd.append(_asked(readings[n], n, off, float(1 / sqrt(solved.diagonal[k])), float(away[k])))
    if odd and change is none:
        # What looked like several odd readings may be one cause, and the other way round: weighed again without them.
        best = max(range(len(rivals)), key=lambda k: gains[k] + rivals[k].odds, default=None)
        if best is not None and gains[best] + rivals[best].odds > log(_BELIEVED / (1 - _BELIEVED)):
            change = rivals[best].change
            solved, _ = _solve(model, prior, readings, equations, kept, rivals, change, scale)
    spread = float(solved.system.value @ solved.weighed)
    scale = sqrt((_SURE_OF_SCATTER + spread) / (_SURE_OF_SCATTER + len(kept)))
    if scale > 1.1:
        solved, _ = _solve(model, prior, readings, equations, kept, rivals, change, scale)
    else:
        scale = 1.0
    _, gains = _solve(model, prior, readings, equations, kept, rivals, none, scale)
    return kept, odd, change, hypotheses_of(rivals, gains, plain), solved, scale


def _solve(
    model: SewnModel,
    prior: Prior,
    readings: Sequence[SewnReading],
    equations: Sequence[Equation | None],
    kept: list[int],
    rivals: list[Rival],
    change: Vector,
    scale: float,
) -> tuple[_Solved, list[float]]:
    """The solution with a discrete change taken off, and for each rival the logarithm of its evidence against none."""
    some = [equations[n] for n in kept]
    system = _system(model, prior, [readings[n] for n in kept], [e for e in some if e is not None], scale)
    shifted = _System(
        system.value - change[kept], system.design, system.noise, system.start, system.precision, system.columns
    )
    solved = _solved(shifted)
    width = len(prior.mean)
    mixture = Mixture(model, prior, solved.covariance[:width, :width])
    answer = (shifted.start + solved.update)[:width]
    base = mixture.excess(answer)
    gains = []
    for r in rivals:
        d = (r.change - change)[kept]
        if not d.any():
            gains.append(0.0)
            continue
        by_all_large = float(d @ solved.weighed - d @ solved.through(d) / 2)
        moved = (solved.covariance @ (shifted.design.T @ (d / shifted.noise)))[:width]
        gains.append(by_all_large + mixture.excess(answer - moved) - base)
    return solved, gains


def _asked(r: SewnReading, index: int, off: float, sd: float, away: float) -> Odd:
    slip = _slip(abs(off))
    wanted = Length.near(r.read - off)
    said = Said(
        "The other readings make this {wanted}, and it reads {read}" + slip + " Read it again.",
        wanted=wanted,
        read=Length.near(r.read),
    )
    return Odd(index, r.read - off, sd, away, said)


def _slip(off: float) -> str:
    for size, what in (
        (1.0, ": a whole inch apart."),
        (1 / 2, ": half an inch apart, as when a border is counted."),
        (1 / 4, ": a quarter apart, as when 3/8 is written for 5/8."),
        (1 / 8, ": an eighth apart, as when a mark is miscounted."),
    ):
        if abs(off - size) < 1 / 24:
            return what
    return "."
