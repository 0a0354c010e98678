"""Stitching distance, fold, take-up and the three-strip test."""

from __future__ import annotations

from fractions import Fraction
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from piecing.errors import SeamTooWide, StripTestImpossible
from piecing.geometry.plane import Line, bounds, rectangle
from piecing.geometry.sewing import Needle, Patch, Piece, joined, laid_on
from piecing.lengths import Length, inches
from piecing.planning.seam import Seam, StripTest, fold_from

_widths = st.fractions(min_value=1, max_value=6, max_denominator=32).map(Length.of)
_take_ups = st.fractions(min_value=Fraction(1, 8), max_value=Fraction(3, 8), max_denominator=128).map(Length.of)


def sewn_strips(width: float, take_up: float) -> tuple[float, float]:
    """Middle and whole width of three strips, cut and sewn on the engine."""
    strip = Piece((Patch(rectangle(width, 9.0), "a"),))
    needle, left_edge = Needle.of(take_up), Line((0.0, 9.0), (0.0, 0.0))
    edge = Line((width, 0.0), (width, 9.0))
    two = joined(strip, laid_on(strip, left_edge, edge), edge, "seam", needle)
    right = bounds([p.outline for p in two.faces])[2]
    edge = Line((right, 0.0), (right, 9.0))
    three = joined(two, laid_on(strip, left_edge, edge), edge, "seam", needle)
    left, _, far, _ = three.extent
    at = sorted(s.start[0] for s in three.seams)
    return at[1] - at[0], far - left


class SeamTest(TestCase):
    def test_take_up_is_the_stitching_distance_and_half_the_fold(self) -> None:
        self.assertEqual(Seam(inches("1/4"), inches("1/32")).take_up, inches("17/64"))

    def test_seams_that_cannot_be(self) -> None:
        for stitch, fold in (("0", "0"), ("-1/4", "0"), ("1/4", "-1/64"), ("1/4", "1/2")):
            with self.subTest((stitch, fold)), self.assertRaises(SeamTooWide):
                Seam(inches(stitch), inches(fold))

    @given(_widths, _take_ups)
    def test_a_strip_test_gives_back_what_was_sewn(self, width: Length, take_up: Length) -> None:
        middle, whole = sewn_strips(float(width), float(take_up))
        test = StripTest(Length.near(middle), Length.near(whole))
        self.assertAlmostEqual(float(test.strip_width), float(width), places=3)
        self.assertAlmostEqual(float(test.take_up), float(take_up), places=3)

    def test_worked_example(self) -> None:
        # Strips cut 1 1/2: the middle reads 31/32, the whole 3 7/16, stitches lie 1/4 from the edge.
        test = StripTest(inches("31/32"), inches("55/16"))
        self.assertEqual(test.strip_width, inches("3/2"))
        self.assertEqual(test.take_up, inches("17/64"))
        self.assertEqual(fold_from(test.take_up, inches("1/4")), inches("1/32"))

    def test_widths_that_cannot_be(self) -> None:
        for middle, whole in (("0", "3"), ("1", "0"), ("1", "3"), ("3 1/2", "1")):
            a, b = (inches(sum(Fraction(p) for p in s.split())) for s in (middle, whole))
            with self.subTest((middle, whole)), self.assertRaises(StripTestImpossible):
                StripTest(a, b)
