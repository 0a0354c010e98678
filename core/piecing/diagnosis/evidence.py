"""Which few things went wrong: sets of candidates weighed by how well they explain the readings.

Everything that may or may not be so is a candidate with prior odds: a common cause that is large, one seam or one unit that
strays, a slip of the pen, a mistake made at a stroke. A set of them makes the readings one joint normal, whose density
times the odds is its weight. The sets are searched from the empty one outward, best first: adding or taking away one
candidate changes the density by a formula of rank one, so that all neighbours of a set are weighed at once
(shotgun search: Hans, Dobra and West 2007). Source: docs/theory, section 14.7.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from heapq import heappop, heappush, nlargest

import numpy as np
from numpy.typing import NDArray

__all__ = ["Candidates", "Weighed", "density", "inverse_of", "search"]

Vector = NDArray[np.float64]
_WINDOW = 7.0
"""Sets so many nats below the best are not followed further."""
_MOST_AT_ONCE = 9
_MOST_NEAR = 40


@dataclass(frozen=True)
class Candidates:
    """``columns`` (readings, candidates): what an inch of each does to each reading; ``mean`` and ``variance`` (candidates,) how
    large it is when it is so, inches and square inches; ``odds`` (candidates,) logarithms."""

    columns: Vector
    mean: Vector
    variance: Vector
    odds: Vector

    @property
    def count(self) -> int:
        """How many candidates are weighed."""
        return len(self.odds)


@dataclass
class Weighed:
    """Sets of candidates with the logarithm of their weight."""

    score: dict[frozenset[int], float] = field(default_factory=dict)

    def ranked(self, most: int) -> list[tuple[frozenset[int], float]]:
        """The likeliest sets of candidates by their numbers, each with the logarithm of its weight."""
        return nlargest(most, self.score.items(), key=lambda x: x[1])


def inverse_of(covariance: Vector) -> tuple[Vector, float]:
    """The inverse and the logarithm of the determinant."""
    root = np.linalg.cholesky(covariance)
    return np.asarray(np.linalg.inv(covariance), dtype=np.float64), 2 * float(np.log(np.diagonal(root)).sum())


def density(residual: Vector, base: Vector, c: Candidates, of: frozenset[int]) -> tuple[float, Vector, Vector, Vector]:
    """Logarithm of the weight of one set (without what is common to all), the inverse covariance of the readings under it,
    that inverse times what is left of them, and what is left of them."""
    inside = sorted(of)
    left = residual - c.columns[:, inside] @ c.mean[inside]
    wide = [k for k in inside if c.variance[k] > 0]
    covariance = base
    if wide:
        columns = c.columns[:, wide] * np.sqrt(c.variance[wide])
        covariance = base + columns @ columns.T
    inverse, volume = inverse_of(covariance)
    weighed = inverse @ left
    return float(c.odds[inside].sum()) - (volume + float(left @ weighed)) / 2, inverse, weighed, left


def _neighbours(c: Candidates, of: frozenset[int], score: float, inverse: Vector, weighed: Vector) -> Vector:
    """(candidates,): the weight of the set with each candidate added, or taken away where it is in.

    A candidate shifts the readings by its mean and widens their covariance by its variance, one after the other.
    """
    pull = c.columns.T @ weighed
    reach = np.einsum("nj,nj->j", c.columns, inverse @ c.columns)
    v, m = c.variance, c.mean
    grown = 1 + v * reach
    added = c.odds + m * pull - m**2 * reach / 2 + (v * (pull - m * reach) ** 2 / grown - np.log(grown)) / 2
    for k in of:
        shrunk = max(1 - v[k] * reach[k], 1e-12)
        narrower = -(np.log(shrunk) + v[k] * pull[k] ** 2 / shrunk) / 2
        added[k] = narrower - m[k] * pull[k] / shrunk - m[k] ** 2 * reach[k] / shrunk / 2 - c.odds[k]
    return np.asarray(score + added)


def search(
    residual: Vector,
    base: Vector,
    c: Candidates,
    *,
    begin: Iterable[frozenset[int]] = (frozenset(),),
    most: int = 30,
) -> Weighed:
    """The likely sets of candidates, with their weights; ``most`` of them have all their neighbours looked at."""
    found, waiting, opened, best = Weighed(), list[tuple[float, int, frozenset[int]]](), set[frozenset[int]](), -np.inf
    for of in begin:
        found.score[of] = density(residual, base, c, of)[0]
        heappush(waiting, (-found.score[of], len(found.score), of))
        best = max(best, found.score[of])
    while waiting and most > 0:
        worst, _, of = heappop(waiting)
        if -worst < best - _WINDOW:
            break
        if of in opened:
            continue
        opened.add(of)
        most -= 1
        score, inverse, weighed, _ = density(residual, base, c, of)
        around = _neighbours(c, of, score, inverse, weighed)
        best = max(best, float(around.max(initial=-np.inf)))
        near = np.nonzero(around > best - _WINDOW - 1)[0]
        for k in near[np.argsort(-around[near])][:_MOST_NEAR]:
            other = of ^ {int(k)}
            if len(other) <= _MOST_AT_ONCE and other not in found.score:
                found.score[other] = float(around[k])
                heappush(waiting, (-float(around[k]), len(found.score), other))
    return found
