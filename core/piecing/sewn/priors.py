"""What is held likely of a block's causes before any reading, and when every leading one may be small or large.

Source: docs/theory.md, sections 14.3 and 14.7.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations
from math import log, sqrt

import numpy as np
from numpy.typing import NDArray

from ..lengths import Length
from ..oversize import QuilterRecord
from .causes import LEADING, SewnCause, parameters_of
from .model import SewnModel, Vector
from .readings import SewnKind, SewnReading

__all__ = ["Mixture", "Prior", "after_seeing", "prior_of"]

_SET_UP = 1 / 64
"""Between the seam of the record and that of today, once the machine is set up anew."""
_SEEN_WIDENS = 3.0
_SMALL = 1 / 100
"""Standard deviation in inches of a leading cause that is none: a setting as well as hands set it."""
_LARGE = 0.1
"""How often a leading cause is one."""
_DRAWS = 8000


@dataclass(frozen=True)
class Prior:
    """Mean and standard deviation of each parameter, inches; ``small`` that of a leading cause when it is one of those that
    do not matter; ``wanted`` is what each should be."""

    mean: Vector
    sd: Vector
    small: Vector
    wanted: Vector


def prior_of(
    model: SewnModel,
    *,
    stitch: Length | None = None,
    fold: Length | None = None,
    record: QuilterRecord | None = None,
) -> Prior:
    """Before any reading: around the planned stitching distance and the measured or usual fold; or, with a record of enough
    seams, around the quilter's own."""
    params = parameters_of(model)
    mean = np.array([p.prior_mean for p in params])
    sd = np.array([p.prior_sd for p in params])
    wanted = np.zeros(len(params))
    at = {p.cause: n for n, p in enumerate(params) if p.batch < 0}
    seam, folded = at[SewnCause.SEAM], at[SewnCause.FOLD]
    if fold is not None and float(fold) > 0:
        mean[folded] = float(fold)
    wanted[folded] = mean[folded]
    offset = float(stitch - model.allowance) if stitch is not None else 0.0
    mean[seam] = wanted[seam] = offset
    if record is not None and record.readings >= 3:
        mean[seam] = record.take_up_mean - float(model.allowance) - mean[folded] / 2
        sd[seam] = sqrt(record.take_up_sd**2 / record.readings + _SET_UP**2)
    return Prior(mean, sd, np.minimum(sd, _SMALL), wanted)


def after_seeing(model: SewnModel, prior: Prior, readings: Sequence[SewnReading]) -> Prior:
    """What only the eye saw makes its causes more likely to be large: waves speak of stretch, a bow of seams that drift."""
    kinds = {r.kind for r in readings}
    wider = np.ones(len(prior.sd))
    for n, p in enumerate(parameters_of(model)):
        if SewnKind.WAVY in kinds and p.cause is SewnCause.STRETCH:
            wider[n] = _SEEN_WIDENS
        if SewnKind.BOWED in kinds and p.cause in (SewnCause.START, SewnCause.END):
            wider[n] = _SEEN_WIDENS
    return prior if (wider == 1).all() else Prior(prior.mean, prior.sd * wider, prior.small * wider, prior.wanted)


class Mixture:
    """Each leading cause is most often small and now and then large: every choice of large ones is a linear model of its own.

    ``spread`` is the covariance of the answer with all of them large. What the readings alone say of the parameters is that
    answer without its prior. None of it depends on what was read, but for ``pull``.
    """

    def __init__(self, model: SewnModel, prior: Prior, spread: NDArray[np.float64]) -> None:
        params = parameters_of(model)
        self.prior, self.count = prior, len(params)
        contenders = [n for n, p in enumerate(params) if p.cause in LEADING]
        self._precision = np.linalg.inv(spread)
        said = self._precision - np.diag(1 / prior.sd**2)
        most = 3 if len(contenders) <= 6 else 2
        choices = [c for k in range(most + 1) for c in combinations(contenders, k)]
        # The last one has all of them large: what the rivals are first weighed by, and no part of the mixture.
        inverse = np.tile(1 / prior.sd**2, (len(choices) + 1, 1))
        odds = np.full(len(choices) + 1, -np.inf)
        for k, large in enumerate(choices):
            inverse[k, contenders] = 1 / prior.small[contenders] ** 2
            inverse[k, list(large)] = 1 / prior.sd[list(large)] ** 2
            odds[k] = len(large) * log(_LARGE) + (len(contenders) - len(large)) * log(1 - _LARGE)
        self._inverse, self._odds = inverse, odds
        self._total = said[None] + np.einsum("kp,pq->kpq", inverse, np.eye(self.count))
        self.covariances = np.linalg.inv(self._total)
        self._volume = (np.log(inverse).sum(axis=1) - np.linalg.slogdet(self._total)[1]) / 2

    def means(self, wide: Vector) -> NDArray[np.float64]:
        """(choices, parameters) when the answer with all large is ``wide``."""
        pull = self._precision @ wide - self.prior.mean / self.prior.sd**2
        return np.asarray(np.einsum("kpq,kq->kp", self.covariances, pull[None] + self._inverse * self.prior.mean))

    def evidence(self, means: NDArray[np.float64]) -> Vector:
        """Logarithm of each choice's evidence, all beyond a figure that is common to them; the last one without its odds."""
        fit = np.einsum("kp,kpq,kq->k", means, self._total, means) - (self._inverse * self.prior.mean**2).sum(axis=1)
        return np.asarray(self._volume + fit / 2)

    def excess(self, wide: Vector) -> float:
        """By how much the mixture explains readings better than all large do, as a logarithm."""
        found = self.evidence(self.means(wide))
        return float(np.logaddexp.reduce(found[:-1] + self._odds[:-1]) - found[-1])

    def answer(self, wide: Vector, rng: np.random.Generator) -> tuple[Vector, NDArray[np.float64], NDArray[np.float64]]:
        """Mean, covariance and draws."""
        means = self.means(wide)
        evidence = self.evidence(means) + self._odds
        weights = np.exp(evidence - evidence.max())
        weights /= weights.sum()
        mean = weights @ means
        apart = means - mean
        covariance = np.einsum("k,kpq->pq", weights, self.covariances)
        covariance += np.einsum("k,kp,kq->pq", weights, apart, apart)
        counts = rng.multinomial(_DRAWS, weights)
        parts = []
        for k in map(int, np.nonzero(counts)[0]):
            root = np.linalg.cholesky(self.covariances[k] + np.eye(self.count) * 1e-14)
            parts.append(means[k] + rng.standard_normal((counts[k], self.count)) @ root.T)
        return mean, covariance, rng.permutation(np.concatenate(parts))
