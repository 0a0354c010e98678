"""The size ladder: one scale, losses that add up, readings placed truly."""

from __future__ import annotations

import itertools
from unittest import TestCase

from piecing.ladder import Ladder, ladder
from piecing.lengths import Length, Measure, inches, mm
from piecing.planning import Choices, plan
from piecing.units.half_square_triangle import PAIR

_PLAN = plan(Choices(inches("7/2")))


class LadderTest(TestCase):
    def test_rungs_stand_in_order_and_losses_lead_from_one_to_the_next(self) -> None:
        rungs = ladder(_PLAN).rungs
        self.assertEqual([r.name for r in rungs], ["cut", "raw", "trimmed", "finished"])
        for upper, lower in itertools.pairwise(rungs):
            assert upper.loss is not None
            self.assertEqual(upper.size - upper.loss, lower.size)
        self.assertEqual(sum((float(r.loss) for r in rungs if r.loss), 0.0), float(_PLAN.cut - _PLAN.finished))

    def test_places_are_to_one_scale(self) -> None:
        scale = ladder(_PLAN)
        width = float(scale.end - scale.start)
        for rung in scale.rungs:
            self.assertAlmostEqual(rung.at, float(rung.size - scale.start) / width)
            self.assertTrue(0 < rung.at < 1)

    def test_ticks_are_the_rulers_own(self) -> None:
        scale = ladder(_PLAN)
        by_size = {t.size: t.rank for t in scale.ticks}
        self.assertEqual((by_size[inches(4)], by_size[inches("9/2")], by_size[inches("15/4")]), (0, 1, 2))
        gaps = {b.size - a.size for a, b in zip(scale.ticks, scale.ticks[1:], strict=False)}
        self.assertEqual(gaps, {inches("1/16")})
        metric = ladder(plan(Choices(mm(90), seam_allowance=mm(6), ruler_step=mm(1))), Measure.MILLIMETRES)
        self.assertEqual({t.rank for t in metric.ticks if t.size.on_step(mm(10))}, {0})

    def test_near_readings_widen_the_window_and_far_ones_do_not(self) -> None:
        near, far = inches("27/8"), inches("1/2")
        self.assertLess(ladder(_PLAN, readings=[near]).start, near)
        self.assertEqual(ladder(_PLAN, readings=[far]).start, ladder(_PLAN).start)
        self.assertEqual(ladder(_PLAN).place(far).at, 0.0)
        self.assertEqual(ladder(_PLAN).place(inches(40)).at, 1.0)

    def test_the_smallest_unit_still_has_a_ladder(self) -> None:
        tiny: Ladder = ladder(plan(Choices(inches("1/4"), ruler_step=inches("1/16"))))
        self.assertGreaterEqual(tiny.start, Length.of(0))
        self.assertGreater(tiny.end, tiny.start)

    def test_the_first_loss_is_what_the_seam_eats(self) -> None:
        rung = ladder(_PLAN).rungs[0]
        self.assertEqual(rung.loss, _PLAN.cut - PAIR.raw(_PLAN.cut, inches("1/4")))
