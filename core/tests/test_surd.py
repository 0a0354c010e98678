"""p + q√2: a field, exactly ordered."""

from __future__ import annotations

from decimal import Decimal, getcontext
from fractions import Fraction
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from piecing.lengths.surd import ROOT2, Surd

getcontext().prec = 60
_TRUE_ROOT2 = Decimal(2).sqrt()
_numbers = st.fractions(min_value=-500, max_value=500, max_denominator=4096)
surds = st.builds(Surd, _numbers, _numbers)


def decimal(s: Surd) -> Decimal:
    """The number to 60 places, by another route than the class uses."""
    p, q = (Decimal(x.numerator) / Decimal(x.denominator) for x in (s.p, s.q))
    return p + q * _TRUE_ROOT2


class SurdTest(TestCase):
    @given(surds, surds)
    def test_sums_and_products_agree_with_sixty_places(self, a: Surd, b: Surd) -> None:
        self.assertAlmostEqual(decimal(a + b), decimal(a) + decimal(b), places=40)
        self.assertAlmostEqual(decimal(a - b), decimal(a) - decimal(b), places=40)
        self.assertAlmostEqual(decimal(a * b), decimal(a) * decimal(b), places=40)

    @given(surds, surds)
    def test_order_agrees_with_sixty_places(self, a: Surd, b: Surd) -> None:
        self.assertEqual(a < b, decimal(a) < decimal(b))
        self.assertEqual(a <= b, decimal(a) <= decimal(b))

    @given(surds)
    def test_floor_and_ceiling_enclose(self, a: Surd) -> None:
        self.assertLessEqual(a.floor(), decimal(a))
        self.assertLess(decimal(a), a.floor() + 1)
        self.assertEqual(a.ceil(), -((-a).floor()))

    def test_neighbours_a_float_cannot_tell_apart(self) -> None:
        # The convergents of √2 squeeze it from both sides, far below a float's last place.
        below, above = Fraction(1), Fraction(3, 2)
        for _ in range(60):
            n = above.numerator
            d = above.denominator
            below, above = Fraction(n + 2 * d, n + d), Fraction(3 * n + 4 * d, 2 * n + 3 * d)
            if below > above:
                below, above = above, below
        self.assertEqual(float(below), float(above))
        self.assertLess(Surd(below), ROOT2)
        self.assertLess(ROOT2, Surd(above))

    @given(surds, _numbers.filter(bool))
    def test_division_undoes_multiplication(self, a: Surd, by: Fraction) -> None:
        self.assertEqual((a * by) / by, a)

    def test_refuses_floats_and_changes_and_zero_below_the_line(self) -> None:
        with self.assertRaises(TypeError):
            Surd(0.5)  # type: ignore[arg-type]
        with self.assertRaises(AttributeError):
            ROOT2.p = 3  # type: ignore[misc]
        with self.assertRaises(ZeroDivisionError):
            _ = ROOT2 / 0

    @given(surds)
    def test_equal_numbers_hash_alike(self, a: Surd) -> None:
        again = Surd(a.p, a.q)
        self.assertEqual((a, hash(a)), (again, hash(again)))
        self.assertEqual(a.is_rational, not a.q)
