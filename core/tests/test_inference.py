"""The observation equations against the geometry, and the posterior against two other routes."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from scipy.stats import multivariate_normal

from piecing.diagnosis import Cause, Reading, ReadingKind, record_from
from piecing.diagnosis.inference import INTERVAL_90, infer
from piecing.diagnosis.model import CAUSES, FOLD_USUAL, observe, prior_for, row_response
from piecing.geometry.sewing import Needle
from piecing.lengths import Length, inches
from piecing.planning import plan
from piecing.seams import Seam
from piecing.units.half_square_triangle import PAIR
from piecing.units.simulate import made

from .samples import half_square

_PLAN = plan(half_square())
K = ReadingKind
_READINGS = (
    Reading(K.UNIT_WIDTH, inches("127/32")),
    Reading(K.ROW_LENGTH, inches("43/4"), 3),
    Reading(K.STITCH_DISTANCE, inches("9/32")),
    Reading(K.RAW_SIZE, inches("65/16")),
    Reading(K.STRIP_TEST, inches("31/32"), whole=inches("55/16")),
)


def made_with(seam: float, fold: float, trim: float, cut: float, reading: Reading) -> float:
    """What a ruler without noise reads off work with these errors, cut and sewn on the engine."""
    sewn = Seam(Length.near(0.25 + seam), Length.near(fold))
    unit = float(_PLAN.target_width) + trim
    match reading.kind:
        case K.UNIT_WIDTH | K.UNIT_HEIGHT:
            return unit
        case K.ROW_LENGTH:
            n = reading.row_units or 0
            return n * unit - 2 * (n - 1) * float(sewn.take_up)
        case K.STITCH_DISTANCE:
            return float(sewn.stitch)
        case K.STRIP_TEST:
            return float(sewn.take_up)
        case K.RAW_SIZE:
            sizes = {"square": float(_PLAN.cuts["square"]) + cut}
            needle = Needle.of(float(sewn.stitch), float(sewn.fold))
            left, _, right, _ = made(PAIR, _PLAN.spec, sizes, 0.25, needle).raw.extent
            return right - left


class EquationTest(TestCase):
    def test_each_cause_moves_each_reading_as_the_geometry_does(self) -> None:
        step = 1 / 128
        for reading in _READINGS:
            equation = observe(reading, _PLAN)
            still = made_with(0, 0, 0, 0, reading)
            with self.subTest(reading.kind):
                self.assertAlmostEqual(equation.nominal, still, places=6)
                for i, cause in enumerate(CAUSES):
                    errors = {c.value: step if c is cause else 0.0 for c in CAUSES}
                    moved = made_with(**errors, reading=reading)
                    self.assertAlmostEqual(equation.response[i], (moved - still) / step, places=5)

    def test_a_row_of_eight_loses_seven_sixteenths_to_a_thirty_second(self) -> None:
        self.assertAlmostEqual(row_response(8) @ np.array([1 / 32, 0, 0, 0]), -7 / 16)

    def test_a_coarser_ruler_is_trusted_less(self) -> None:
        fine = observe(_READINGS[0], _PLAN, inches("1/64")).noise
        self.assertGreater(observe(_READINGS[0], _PLAN, inches("1/16")).noise, fine)


class PosteriorTest(TestCase):
    def test_it_agrees_with_conditioning_the_joint_normal(self) -> None:
        prior = prior_for(_PLAN)
        observations = [observe(r, _PLAN) for r in _READINGS]
        h = np.array([o.response for o in observations])
        noise = np.diag([o.noise**2 for o in observations])
        residual = np.array([o.value - o.nominal for o in observations]) - h @ prior.mean
        gain = prior.covariance @ h.T @ np.linalg.inv(h @ prior.covariance @ h.T + noise)
        posterior = infer(prior, observations)
        np.testing.assert_allclose(posterior.mean, prior.mean + gain @ residual, atol=1e-12)
        np.testing.assert_allclose(posterior.covariance, prior.covariance - gain @ h @ prior.covariance, atol=1e-12)

    def test_it_agrees_with_weighted_draws_from_the_prior(self) -> None:
        prior = prior_for(_PLAN)
        observations = [observe(r, _PLAN) for r in _READINGS[:3]]
        rng = np.random.default_rng(5)
        draws = rng.multivariate_normal(prior.mean, prior.covariance, 400_000)
        log_weight = sum(
            multivariate_normal.logpdf(o.value - o.nominal - draws @ o.response, 0, o.noise**2) for o in observations
        )
        weight = np.exp(log_weight - np.max(log_weight))
        weight /= weight.sum()
        posterior = infer(prior, observations)
        standard_error = np.sqrt(np.diag(posterior.covariance) * np.sum(weight**2))
        np.testing.assert_array_less(np.abs(weight @ draws - posterior.mean), 5 * standard_error)

    def test_without_readings_it_is_the_prior(self) -> None:
        prior = prior_for(_PLAN)
        posterior = infer(prior, [])
        np.testing.assert_allclose(posterior.mean, prior.mean)
        np.testing.assert_allclose(posterior.covariance, prior.covariance)

    def test_the_promised_narrowing_is_what_the_reading_then_brings(self) -> None:
        before = infer(prior_for(_PLAN), [observe(_READINGS[1], _PLAN)])
        direction = np.array([-4.0, 0.0, -3.0, 0.0])
        extra = observe(_READINGS[2], _PLAN)
        promised = before.variance_after(direction, extra.response, extra.noise)
        after = infer(prior_for(_PLAN), [observe(_READINGS[1], _PLAN), extra])
        self.assertAlmostEqual(promised, after.along(direction)[1] ** 2)

    def test_intervals_hold_nine_tenths(self) -> None:
        estimate = infer(prior_for(_PLAN), []).estimates()[0]
        self.assertAlmostEqual(estimate.high - estimate.mean, INTERVAL_90 * estimate.sd)
        self.assertEqual(estimate.cause, Cause.SEAM)


class PriorTest(TestCase):
    def test_a_measured_fold_and_a_scant_seam_are_believed(self) -> None:
        known = prior_for(plan(half_square(stitch=inches("15/64"), fold=inches("1/32"))))
        self.assertAlmostEqual(known.mean[0], -1 / 64)
        self.assertAlmostEqual(known.mean[1], 1 / 32)
        self.assertAlmostEqual(prior_for(_PLAN).mean[1], FOLD_USUAL)


class RecordTest(TestCase):
    def test_three_seam_readings_make_a_record(self) -> None:
        seams = [Reading(K.STITCH_DISTANCE, inches(v)) for v in ("9/32", "9/32", "1/4")]
        self.assertIsNone(record_from(inches("1/4"), seams[:2]))
        record = record_from(inches("1/4"), seams)
        assert record is not None
        self.assertEqual(record.readings, 3)
        self.assertTrue(0.25 < record.take_up_mean < 0.30)

    def test_other_readings_do_not_count(self) -> None:
        self.assertIsNone(record_from(inches("1/4"), [Reading(K.UNIT_WIDTH, inches(4))] * 9))
