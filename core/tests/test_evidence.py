"""Sets of candidates weighed one by one, as a joint normal says it, beside the short way that the search takes."""

from __future__ import annotations

from itertools import combinations
from unittest import TestCase

import numpy as np
from scipy.stats import multivariate_normal

from piecing.diagnosis.evidence import Background, Candidates, search

_READINGS, _CANDIDATES = 9, 7


class BackgroundTest(TestCase):
    """Nine readings, seven candidates: one shifts only, one is a slip of ten inches (which taken away again loses ten of sixteen
    digits), two are hard to tell apart."""

    def setUp(self) -> None:
        rng = np.random.default_rng(2204)
        columns = rng.normal(size=(_READINGS, _CANDIDATES))
        columns[:, 1] = columns[:, 0] + 0.02 * rng.normal(size=_READINGS)
        columns[:, 5] = np.eye(_READINGS)[3]
        variance = np.array([0.002, 0.002, 0.004, 0.0, 0.001, 100.0, 0.003])
        mean = np.array([0.0, 0.0, 0.05, 1.0, 0.0, 0.0, -0.02])
        self.of = Candidates(columns, mean, variance, rng.normal(-3, 1, _CANDIDATES))
        rough = rng.normal(size=(_READINGS, _READINGS)) / 100
        self.base = rough @ rough.T + np.eye(_READINGS) / 90**2
        self.residual = columns[:, 2] * 0.06 + rng.multivariate_normal(np.zeros(_READINGS), self.base)
        self.where = Background(self.residual, self.base, self.of)
        self.sets = [frozenset(s) for n in range(5) for s in combinations(range(_CANDIDATES), n)]

    def joint(self, of: frozenset[int]) -> tuple[np.ndarray, np.ndarray]:
        """Mean and covariance of the readings under a set, built up one candidate at a time."""
        mean, covariance = np.zeros(_READINGS), self.base.copy()
        for k in of:
            column = self.of.columns[:, k]
            mean = mean + self.of.mean[k] * column
            covariance = covariance + self.of.variance[k] * np.outer(column, column)
        return mean, covariance

    def weight(self, of: frozenset[int]) -> float:
        mean, covariance = self.joint(of)
        likely = multivariate_normal(mean, covariance, allow_singular=False).logpdf(self.residual)
        return float(likely + sum(self.of.odds[k] for k in of) + _READINGS * np.log(2 * np.pi) / 2)

    def test_a_set_weighs_what_the_joint_normal_says(self) -> None:
        for of in self.sets:
            self.assertAlmostEqual(self.where.score(of), self.weight(of), 6, sorted(of))

    def test_neighbours_weigh_what_they_weigh_by_themselves(self) -> None:
        for of in self.sets:
            around = self.where.around(of)
            for k in range(_CANDIDATES):
                wanted = self.weight(of ^ {k})
                self.assertAlmostEqual(float(around[k]), wanted, delta=1e-4 + abs(wanted) / 1e6, msg=(sorted(of), k))

    def test_what_is_left_is_weighed_by_the_covariance_under_the_set(self) -> None:
        for of in self.sets:
            mean, covariance = self.joint(of)
            inverse, weighed, left = self.where.under(of)
            np.testing.assert_allclose(left, self.residual - mean, atol=1e-12)
            np.testing.assert_allclose(inverse @ covariance, np.eye(_READINGS), atol=1e-6)
            np.testing.assert_allclose(covariance @ weighed, left, atol=1e-6)

    def test_the_search_finds_the_likeliest_sets_of_all(self) -> None:
        every = [frozenset(s) for n in range(_CANDIDATES + 1) for s in combinations(range(_CANDIDATES), n)]
        best = sorted(every, key=self.weight, reverse=True)[:3]
        self.assertEqual([of for of, _ in search(self.where).likeliest(3)], best)
