"""Which few things went wrong: sets of candidates weighed by how well they explain the readings.

Everything that may or may not be so is a candidate with prior odds: a common cause that is large, one seam or one unit that
strays, a slip of the pen, a mistake made at a stroke. A set of them makes the readings one joint normal, whose density
times the odds is its weight. The sets are searched from the empty one outward, best first: adding or taking away one
candidate changes the density by a formula of rank one, so that all neighbours of a set are weighed at once
(shotgun search: Hans, Dobra and West 2007). However many readings there are, a set is weighed by matrices of its own size, since
it widens the covariance by a column for each candidate (Woodbury's identity). Source: docs/theory, section 14.7.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from heapq import heappop, heappush, nlargest

import numpy as np
from numpy.typing import NDArray

__all__ = ["Background", "Candidates", "Weighed", "search"]

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


@dataclass(frozen=True, slots=True)
class _Widening:
    """What a set makes of the readings' covariance: its score; those of it that widen the covariance; a root of what that takes from
    the inverse (as many rows and columns); and (candidates,) what each would be pulled by if nothing had been widened."""

    score: float
    wide: list[int]
    root: Vector
    pull: Vector


@dataclass
class Weighed:
    """Sets of candidates with the logarithm of their weight."""

    score: dict[frozenset[int], float] = field(default_factory=dict)

    def likeliest(self, most: int) -> list[tuple[frozenset[int], float]]:
        """The likeliest sets of candidates by their numbers, each with the logarithm of its weight."""
        return nlargest(most, self.score.items(), key=lambda x: x[1])


class Background:
    """The readings by one kind of hands when nothing is large, and what every candidate does to them.

    ``residual`` (readings,) is what they say beyond what is wanted, inches; ``base`` (readings, readings) their covariance.
    Raises ``numpy.linalg.LinAlgError`` for a covariance that is not positive.
    """

    def __init__(self, residual: Vector, base: Vector, candidates: Candidates) -> None:
        self.residual, self.candidates = residual, candidates
        root = np.linalg.cholesky(base)
        self._volume = 2 * float(np.log(np.diagonal(root)).sum())
        self._inverse = np.asarray(np.linalg.inv(base), dtype=np.float64)
        self._weighed = self._inverse @ residual
        self._reached = self._inverse @ candidates.columns
        # What any two candidates have to do with each other is found when it is asked for: of some hundreds a few are.
        self._reach = np.einsum("kj,kj->j", candidates.columns, self._reached)
        self._pull = candidates.columns.T @ self._weighed
        self._size = float(residual @ self._weighed)
        self._spread = np.sqrt(candidates.variance)
        self._wide: list[bool] = (candidates.variance > 0).tolist()

    def score(self, of: frozenset[int]) -> float:
        """Logarithm of the weight of one set, without what is common to all."""
        return self._widening(of).score

    def around(self, of: frozenset[int]) -> Vector:
        """(candidates,): the score of the set with each candidate added, or taken away where it is in.

        A candidate shifts the readings by its mean and widens their covariance by its variance, one after the other.
        """
        c = self.candidates
        w = self._widening(of)
        wide, root, pull = w.wide, w.root, w.pull
        reach = self._reach
        if wide:
            # What the set has widened is told less well than before, by the square of this.
            less = root @ self._between(wide)
            pull = pull - less.T @ (root @ pull[wide])
            reach = reach - np.einsum("kj,kj->j", less, less)
        v, m = c.variance, c.mean
        grown = 1 + v * reach
        added = c.odds + m * pull - m**2 * reach / 2 + (v * (pull - m * reach) ** 2 / grown - np.log(grown)) / 2
        for k in of:
            shrunk = max(1 - v[k] * reach[k], 1e-12)
            narrower = -(np.log(shrunk) + v[k] * pull[k] ** 2 / shrunk) / 2
            added[k] = narrower - m[k] * pull[k] / shrunk - m[k] ** 2 * reach[k] / shrunk / 2 - c.odds[k]
        return np.asarray(w.score + added)

    def under(self, of: frozenset[int]) -> tuple[Vector, Vector, Vector]:
        """The inverse covariance of the readings under a set, that inverse times what is left of them, and what is left of them."""
        w = self._widening(of)
        inside = sorted(of)
        left = self.residual - self.candidates.columns[:, inside] @ self.candidates.mean[inside]
        less = self._reached[:, w.wide] @ w.root.T
        inverse = self._inverse - less @ less.T
        return inverse, inverse @ left, left

    def _between(self, some: list[int]) -> Vector:
        """(some, candidates): what some candidates have to do with all of them."""
        return np.asarray(self.candidates.columns[:, some].T @ self._reached)

    def _widening(self, of: frozenset[int]) -> _Widening:
        c = self.candidates
        volume, root = self._volume, np.zeros((0, 0))
        inside = sorted(of)
        if not inside:
            return _Widening(-(volume + self._size) / 2, inside, root, self._pull)
        wide = [k for k in inside if self._wide[k]]
        pull, size, mean = self._pull, self._size, c.mean[inside]
        if mean.any():
            pull = pull - mean @ self._between(inside)
            size -= float((self._pull[inside] + pull[inside]) @ mean)
        if wide:
            spread, among = self._spread[wide], c.columns[:, wide].T @ self._reached[:, wide]
            grown = np.linalg.cholesky(np.eye(len(wide)) + spread[:, None] * among * spread)
            root = np.linalg.inv(grown) * spread
            volume += 2 * float(np.log(np.diagonal(grown)).sum())
            drawn = root @ pull[wide]
            size -= float(drawn @ drawn)
        return _Widening(float(c.odds[inside].sum()) - (volume + size) / 2, wide, root, pull)


def search(where: Background, *, begin: Iterable[frozenset[int]] = (frozenset(),), most: int = 30) -> Weighed:
    """The likely sets of candidates, with their weights; ``most`` of them have all their neighbours looked at."""
    found, waiting, opened, best = Weighed(), list[tuple[float, int, frozenset[int]]](), set[frozenset[int]](), -np.inf
    for of in begin:
        found.score[of] = where.score(of)
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
        around = where.around(of)
        best = max(best, float(around.max(initial=-np.inf)))
        near = np.nonzero(around > best - _WINDOW - 1)[0]
        for k in near[np.argsort(-around[near])][:_MOST_NEAR]:
            other = of ^ {int(k)}
            if len(other) <= _MOST_AT_ONCE and other not in found.score:
                found.score[other] = float(around[k])
                heappush(waiting, (-float(around[k]), len(found.score), other))
    return found
