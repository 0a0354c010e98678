"""Linear-Gaussian inference of the causes from the readings. Source: docs/theory.md, section 8."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from .model import CAUSES, Cause, Observation, Prior, Vector

__all__ = ["INTERVAL_90", "Estimate", "Posterior", "infer"]

INTERVAL_90 = 1.6448536269514722
"""Standard deviations either side of the mean that hold nine tenths of a normal distribution."""


@dataclass(frozen=True, slots=True)
class Estimate:
    """A cause's size in inches: mean, standard deviation, and the interval that holds it nine times in ten."""

    cause: Cause
    mean: float
    sd: float

    @property
    def low(self) -> float:
        return self.mean - INTERVAL_90 * self.sd

    @property
    def high(self) -> float:
        return self.mean + INTERVAL_90 * self.sd


@dataclass(frozen=True, slots=True)
class Posterior:
    """Mean (4,) and covariance (4, 4) of the causes, in the order of ``CAUSES``."""

    mean: Vector
    covariance: NDArray[np.float64]

    def estimates(self) -> tuple[Estimate, ...]:
        return tuple(
            Estimate(c, float(self.mean[i]), float(np.sqrt(self.covariance[i, i]))) for i, c in enumerate(CAUSES)
        )

    def along(self, direction: Vector) -> tuple[float, float]:
        """Mean and standard deviation of ``direction · causes``."""
        return float(direction @ self.mean), float(np.sqrt(direction @ self.covariance @ direction))

    def variance_after(self, direction: Vector, response: Vector, noise: float) -> float:
        """Variance of ``direction · causes`` once one more reading of this response is in, whatever it reads."""
        gain = direction @ self.covariance @ response
        spread = response @ self.covariance @ response + noise**2
        return float(direction @ self.covariance @ direction - gain**2 / spread)


def infer(prior: Prior, observations: Sequence[Observation]) -> Posterior:
    """Combine prior and readings by adding precisions: Λ = Λ₀ + Σ h hᵀ/σ²."""
    precision = np.linalg.inv(prior.covariance)
    pull = precision @ prior.mean
    if observations:
        responses = np.array([o.response / o.noise for o in observations])
        residuals = np.array([(o.value - o.nominal) / o.noise for o in observations])
        precision = precision + responses.T @ responses
        pull = pull + responses.T @ residuals
    covariance = np.linalg.inv(precision)
    return Posterior(covariance @ pull, (covariance + covariance.T) / 2)
