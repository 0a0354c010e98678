"""The size ladder: one scale, changes that add up, readings placed truly."""

from __future__ import annotations

from itertools import pairwise
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from piecing.drawings.ladder import Ladder, ladders
from piecing.lengths import Length, Measure, inches, mm
from piecing.planning.plan import plan
from piecing.planning.unit_plan import Choices
from piecing.units import Method, UnitSpec

from .samples import ALL_WAYS, half_square, sample

_PLAN = plan(half_square())


def the_ladder(*readings: str) -> Ladder:
    (one,) = ladders(_PLAN, readings={"size": [inches(r) for r in readings]})
    return one


class LadderTest(TestCase):
    @given(st.sampled_from(ALL_WAYS))
    def test_changes_lead_from_one_rung_to_the_next(self, way: tuple[Method, UnitSpec]) -> None:
        method, spec = way
        for scale in ladders(plan(Choices(spec, method.name))):
            self.assertEqual([r.name for r in scale.rungs], ["cut", "raw", "trimmed", "finished"])
            for upper, lower in pairwise(scale.rungs):
                assert upper.loss is not None
                self.assertEqual(upper.size - upper.loss, lower.size)
                self.assertTrue(upper.why)

    @given(st.sampled_from(ALL_WAYS))
    def test_places_are_to_one_scale(self, way: tuple[Method, UnitSpec]) -> None:
        method, spec = way
        for scale in ladders(plan(Choices(spec, method.name))):
            width = float(scale.end - scale.start)
            for rung in scale.rungs:
                if not rung.beyond:
                    self.assertAlmostEqual(rung.at, float(rung.size - scale.start) / width)
                    self.assertTrue(0 <= rung.at <= 1)

    def test_a_unit_that_is_wider_than_high_has_two(self) -> None:
        two = ladders(plan(Choices(sample("flying_goose"), "four")))
        self.assertEqual([(scale.dimension, scale.head) for scale in two], [("width", "large"), ("height", "small")])
        self.assertEqual(two[1].rungs[-1].size, inches("11/4"))

    def test_a_cut_many_times_the_unit_is_torn_off(self) -> None:
        (eight,) = ladders(plan(Choices(sample("half_square_triangle"), "eight")))
        self.assertTrue(eight.rungs[0].beyond)
        self.assertEqual(eight.rungs[0].at, 1.0)
        self.assertLess(float(eight.end - eight.start), 2)

    def test_a_half_is_what_a_goose_of_two_units_is_trimmed_from(self) -> None:
        (half,) = ladders(plan(Choices(sample("flying_goose"), "two_half_square_triangles")))
        self.assertEqual((half.dimension, half.rungs[2].size), ("half", inches("13/4")))

    def test_ticks_are_the_rulers_own(self) -> None:
        scale = the_ladder()
        by_size = {t.size: t.rank for t in scale.ticks}
        self.assertEqual((by_size[inches(4)], by_size[inches("9/2")], by_size[inches("15/4")]), (0, 1, 2))
        self.assertEqual({b.size - a.size for a, b in pairwise(scale.ticks)}, {inches("1/16")})
        metric = ladders(plan(half_square(mm(90), seam_allowance=mm(6), ruler_step=mm(1))), Measure.MILLIMETRES)[0]
        self.assertEqual({t.rank for t in metric.ticks if t.size.on_step(mm(10))}, {0})

    def test_near_readings_widen_the_window_and_far_ones_do_not(self) -> None:
        self.assertLess(the_ladder("27/8").start, inches("27/8"))
        self.assertEqual(the_ladder("1/2").start, the_ladder().start)
        self.assertEqual(the_ladder().place(inches("1/2")).at, 0.0)
        self.assertEqual(the_ladder().place(inches(40)).at, 1.0)

    def test_the_smallest_unit_still_has_a_ladder(self) -> None:
        (tiny,) = ladders(plan(half_square("1/4", ruler_step=inches("1/16"))))
        self.assertGreaterEqual(tiny.start, Length.of(0))
        self.assertGreater(tiny.end, tiny.start)
