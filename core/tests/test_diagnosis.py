"""From readings to a verdict and to advice that, followed, mends the row."""

from __future__ import annotations

from math import sqrt
from unittest import TestCase

import numpy as np

from piecing.diagnosis import Cause, Diagnosis, Reading, ReadingKind, Status, diagnose, sure_in_words
from piecing.diagnosis.inference import Estimate
from piecing.lengths import Length, inches
from piecing.planning import plan

from .quilters import Truth, any_truth, one_cause, readings_of
from .samples import half_square

_PLAN = plan(half_square())
K = ReadingKind


def readings(*typed: tuple[K, str] | tuple[K, str, int]) -> list[Reading]:
    return [Reading(t[0], inches(t[1]), t[2] if len(t) > 2 else None) for t in typed]


_WIDE_SEAM = readings(
    *((K.UNIT_WIDTH, v) for v in ("4", "4", "127/32", "4")),
    (K.ROW_LENGTH, "111/8", 4),  # 13 7/8 where 14 1/2 is wanted
    (K.ROW_LENGTH, "445/32", 4),
    *((K.STITCH_DISTANCE, v) for v in ("11/32", "11/32", "5/16")),
)
_TRIMMED_SMALL = readings(
    *((K.UNIT_WIDTH, v) for v in ("63/16", "125/32", "63/16", "63/16")),
    (K.ROW_LENGTH, "227/16", 4),  # 14 3/16
    *((K.STITCH_DISTANCE, v) for v in ("1/4", "1/4", "7/32")),
)


def estimate(d: Diagnosis, cause: Cause) -> Estimate:
    return next(f.estimate for f in d.findings if f.estimate.cause is cause)


class VerdictTest(TestCase):
    def test_a_wide_seam_is_found(self) -> None:
        d = diagnose(_PLAN, _WIDE_SEAM)
        self.assertEqual((d.verdict.status, d.verdict.leading), (Status.SETTLED, Cause.SEAM))
        self.assertAlmostEqual(estimate(d, Cause.SEAM).mean, 0.08, delta=0.015)
        self.assertIn("short", str(d.verdict.said))

    def test_units_trimmed_small_are_found(self) -> None:
        d = diagnose(_PLAN, _TRIMMED_SMALL)
        self.assertEqual((d.verdict.status, d.verdict.leading), (Status.SETTLED, Cause.TRIM))
        self.assertLess(estimate(d, Cause.TRIM).high, 0)

    def test_a_row_alone_does_not_settle_it_and_the_missing_reading_is_named(self) -> None:
        d = diagnose(_PLAN, readings((K.ROW_LENGTH, "113/8", 4)))
        self.assertEqual(d.verdict.status, Status.UNSETTLED)
        self.assertIsNone(d.verdict.leading)
        self.assertEqual(d.the_rest, ())
        wanted = d.verdict.next_reading
        assert wanted is not None
        self.assertEqual(set(wanted.between), {Cause.SEAM, Cause.TRIM})
        self.assertIn(wanted.kind, (K.UNIT_WIDTH, K.STITCH_DISTANCE))
        self.assertLess(wanted.doubt_after, wanted.doubt_now)

    def test_no_readings_is_no_judgement(self) -> None:
        d = diagnose(_PLAN, [])
        self.assertEqual((d.verdict.status, d.evidence, d.this_row, d.the_rest), (Status.NO_READINGS, (), (), ()))

    def test_a_true_row_needs_nothing(self) -> None:
        d = diagnose(
            _PLAN,
            readings(*[(K.UNIT_WIDTH, "4")] * 4, (K.ROW_LENGTH, "29/2", 4), *[(K.STITCH_DISTANCE, "15/64")] * 3),
        )
        self.assertEqual((d.verdict.status, d.verdict.leading), (Status.TRUE, None))
        self.assertEqual([a.code for a in d.this_row], ["ease_in"])
        self.assertEqual(str(d.verdict.said), "as it should be")

    def test_two_errors_that_cancel_are_not_called_true_work(self) -> None:
        d = diagnose(
            _PLAN,
            readings(*[(K.UNIT_WIDTH, "131/32")] * 6, (K.ROW_LENGTH, "29/2", 4), *[(K.STITCH_DISTANCE, "5/16")] * 4),
        )
        self.assertEqual(d.verdict.status, Status.TRUE)
        self.assertIsNotNone(d.verdict.leading)

    def test_contributions_add_up_to_the_expected_row(self) -> None:
        v = diagnose(_PLAN, _WIDE_SEAM).verdict
        self.assertAlmostEqual(sum(c.mean for c in v.contributions), v.expected)
        self.assertAlmostEqual(sum(c.share or 0 for c in v.contributions), 1)
        assert v.unexplained is not None
        self.assertAlmostEqual(v.expected + v.unexplained, v.deviation)

    def test_the_same_readings_give_the_same_words(self) -> None:
        self.assertEqual(diagnose(_PLAN, _WIDE_SEAM).verdict, diagnose(_PLAN, _WIDE_SEAM).verdict)

    def test_a_mistyped_reading_stands_apart(self) -> None:
        typo = [*_TRIMMED_SMALL, *readings((K.UNIT_WIDTH, "29/8"))]
        evidence = diagnose(_PLAN, typo).evidence
        self.assertTrue(evidence[-1].apart)
        self.assertFalse(any(e.apart for e in diagnose(_PLAN, _TRIMMED_SMALL).evidence))

    def test_one_scale_of_words(self) -> None:
        self.assertEqual(
            [sure_in_words(p) for p in (0.99, 0.85, 0.7, 0.3)],
            ["almost certainly", "very likely", "probably", "perhaps"],
        )

    def test_findings_say_which_readings_they_rest_on(self) -> None:
        said = {f.estimate.cause: str(f.grounds) for f in diagnose(_PLAN, _WIDE_SEAM).findings}
        self.assertIn("mean of 3", said[Cause.SEAM])
        self.assertIn("usual fold is assumed", said[Cause.FOLD])
        self.assertIn("4″", said[Cause.TRIM])
        self.assertIn("No raw unit", said[Cause.CUT])

    def test_evidence_adds_up(self) -> None:
        for e in diagnose(_PLAN, _WIDE_SEAM).evidence:
            alone = sum(value - e.nominal for _, value in e.alone)
            self.assertAlmostEqual(e.together, e.nominal + alone)
            self.assertAlmostEqual(e.left_over, e.value - e.together)


class AdviceTest(TestCase):
    def codes(self, d: Diagnosis) -> tuple[list[str], list[str]]:
        return [a.code for a in d.this_row if a.possible], [a.code for a in d.the_rest]

    def test_a_wide_seam_is_unpicked_and_the_guide_moved(self) -> None:
        row, rest = self.codes(diagnose(_PLAN, _WIDE_SEAM))
        self.assertEqual(row, ["sew_shallower", "join_to_measure"])
        self.assertEqual(rest, ["move_guide"])

    def test_the_advised_seam_brings_the_row_to_its_target(self) -> None:
        d = diagnose(_PLAN, _WIDE_SEAM)
        seam = float(d.this_row[0].how.values["new"])  # type: ignore[arg-type]
        change = estimate(d, Cause.SEAM).mean + 0.25 - seam
        self.assertAlmostEqual(d.verdict.deviation + 2 * 3 * change, 0, delta=1 / 500)

    def test_the_moved_guide_pays_for_the_fold(self) -> None:
        d = diagnose(_PLAN, _WIDE_SEAM)
        wanted = float(d.the_rest[0].how.values["wanted"])  # type: ignore[arg-type]
        self.assertAlmostEqual(wanted + estimate(d, Cause.FOLD).mean / 2, 0.25, delta=1 / 4000)

    def test_units_trimmed_small_are_made_again_and_the_mark_set(self) -> None:
        row, rest = self.codes(diagnose(_PLAN, _TRIMMED_SMALL))
        self.assertIn("make_again", row)
        self.assertIn("set_trim_mark", rest)

    def test_cloth_never_holds_less_than_three_sixteenths(self) -> None:
        far = readings(*[(K.UNIT_WIDTH, "31/8")] * 4, (K.ROW_LENGTH, "14", 4), *[(K.STITCH_DISTANCE, "7/32")] * 3)
        cannot = next(a for a in diagnose(_PLAN, far).this_row if a.code == "sew_shallower")
        self.assertFalse(cannot.possible)
        self.assertIsNone(cannot.row_becomes)
        self.assertEqual(diagnose(_PLAN, far).this_row[-1], cannot, "what cannot be done comes last")

    def test_a_row_too_long_is_sewn_deeper(self) -> None:
        narrow = readings(*[(K.UNIT_WIDTH, "4")] * 4, (K.ROW_LENGTH, "119/8", 4), *[(K.STITCH_DISTANCE, "3/16")] * 3)
        self.assertEqual(diagnose(_PLAN, narrow).this_row[0].code, "sew_deeper")

    def test_two_sure_causes_of_one_weight_are_both_named(self) -> None:
        both = readings(
            *[(K.UNIT_WIDTH, "63/16")] * 8, (K.ROW_LENGTH, "445/32", 4), *[(K.STITCH_DISTANCE, "19/64")] * 8
        )
        d = diagnose(_PLAN, both)
        self.assertEqual(d.verdict.status, Status.SEVERAL)
        self.assertEqual({d.verdict.leading, d.verdict.beside}, {Cause.SEAM, Cause.TRIM})
        self.assertEqual({a.code for a in d.the_rest}, {"move_guide", "set_trim_mark"})

    def test_nothing_is_changed_on_an_assumed_fold(self) -> None:
        self.assertEqual(diagnose(_PLAN, readings(*[(K.UNIT_WIDTH, "4")] * 5)).the_rest, ())

    def test_pieces_cut_small_are_said(self) -> None:
        raw = readings(*[(K.RAW_SIZE, "65/16")] * 6, *[(K.STITCH_DISTANCE, "1/4")] * 4, *[(K.UNIT_WIDTH, "4")] * 3)
        small = [*raw, *readings((K.ROW_LENGTH, "115/8", 4))]
        self.assertIn("cut_true", [a.code for a in diagnose(_PLAN, small).the_rest])


class SimulatedQuiltersTest(TestCase):
    """Hidden truths, readings rounded to 1/32. Tolerances follow from the number of quilters drawn."""

    def test_the_dominant_cause_is_named(self) -> None:
        rng = np.random.default_rng(1)
        quilters, right, wrong = 300, 0, 0
        for i in range(quilters):
            cause = ("seam", "trim")[i % 2]
            v = diagnose(_PLAN, readings_of(one_cause(rng, cause, 3 / 64), _PLAN, rng)).verdict
            right += v.leading == Cause(cause)
            wrong += v.status is Status.SETTLED and v.leading != Cause(cause)
        slack = 2 * sqrt(0.9 * 0.1 / quilters)
        self.assertGreaterEqual(right / quilters, 0.90 - slack)
        self.assertLess(wrong / quilters, 0.03)

    def test_intervals_of_90_hold_the_truth(self) -> None:
        rng = np.random.default_rng(2)
        quilters = 600
        held = dict.fromkeys((Cause.SEAM, Cause.FOLD, Cause.TRIM), 0)
        for _ in range(quilters):
            truth = any_truth(rng)
            d = diagnose(_PLAN, readings_of(truth, _PLAN, rng))
            for cause in held:
                e = estimate(d, cause)
                held[cause] += e.low <= getattr(truth, cause.value) <= e.high
        for cause, count in held.items():
            with self.subTest(cause):
                self.assertTrue(0.85 <= count / quilters <= 0.95, count / quilters)

    def test_readings_come_in_thirty_seconds(self) -> None:
        rng = np.random.default_rng(3)
        for reading in readings_of(Truth(0, 0, 0), _PLAN, rng):
            self.assertTrue(reading.value.on_step(Length.of(1) / 32))
