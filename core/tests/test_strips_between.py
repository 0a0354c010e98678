"""Strips between blocks laid by hand, cut to the mean of three lengths of what they join. Figures worked out by hand."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from unittest import TestCase

from piecing.blocks.library import library_pattern
from piecing.blocks.pattern import BlockPlacement, Pattern, Place, UnitPlacement
from piecing.cutting.wanted import cut_as_measured, unit_pieces
from piecing.errors import LayoutIncomplete
from piecing.joining.order import Order
from piecing.lengths import Length, inches
from piecing.planning.plan import plan
from piecing.planning.unit_plan import Choices
from piecing.quilts.choices import QuiltChoices, Setting
from piecing.quilts.sizes import quilt_sizes
from piecing.quilts.strips_between import StripsBetween, strips_between
from piecing.quilts.top import TopAsMeasured, TopLength, top_as_measured
from piecing.units.spec import UnitSpec

QUARTER = inches("1/4")
BLOCK = BlockPlacement("lantern", library_pattern("lantern"))


def length(text: str) -> Length:
    return sum((inches(p) for p in text.split()), Length.of(0))


def strip(fabric: str = "c") -> UnitPlacement:
    return UnitPlacement("rectangle", (fabric,))


def four(*, middle: int = 1) -> Pattern:
    """Four blocks of 6 with strips of 1 between those of a row, upright, and one of 2 across the whole between the rows."""
    parts = tuple(map(Fraction, (6, middle, 6)))
    rows = tuple(map(Fraction, (6, 2, 6)))
    held = [Place(c, r, BLOCK) for r in (0, 2) for c in (0, 2)]
    held += [Place(1, 0, strip()), Place(1, 2, strip()), Place(0, 1, strip(), across=3)]
    return Pattern("Centre", parts, rows, tuple(held))


def found(pattern: Pattern, finished: str) -> dict[tuple[str, ...], StripsBetween]:
    return {s.places: s for s in strips_between(pattern, Order.ROWS, inches(finished), QUARTER)}


def measured(between: tuple[StripsBetween, ...], **lengths: str) -> TopAsMeasured:
    """The top of a centre laid by hand of 13 once these were measured, by the number of the seams that have strips."""
    c = QuiltChoices(1, 1, inches(13), inches(13), setting=Setting.BY_HAND)
    known = {
        f"{between[int(n[1:])].key} {i}": TopLength(length(v), between[int(n[1:])].length)
        for n, values in lengths.items()
        for i, v in enumerate(values.split(", "), 1)
    }
    return top_as_measured(quilt_sizes(c), known, between)


def told(top: TopAsMeasured, step: int) -> str:
    return " ".join(map(str, top.steps[step].said)).replace("\u00a0", " ")


class WhichTest(TestCase):
    def test_strips_of_a_row_are_as_long_as_it_is_high_those_between_rows_as_it_is_wide(self) -> None:
        strips = found(four(), "13")
        self.assertEqual(set(strips), {("row 1, column 2",), ("row 3, column 2",), ("row 2, column 1",)})
        # 6 and two allowances; 6 + 1 + 6 and two allowances.
        self.assertEqual(strips["row 1, column 2",].length, inches("13/2"))
        self.assertEqual(strips["row 2, column 1",].length, inches("27/2"))
        self.assertTrue(strips["row 1, column 2",].upright)
        self.assertFalse(strips["row 2, column 1",].upright)

    def test_their_names_stay_when_something_is_laid_below(self) -> None:
        before = found(four(), "13")
        grown = replace(
            four(),
            rows=(*four().rows, Fraction(1, 2)),
            places=(*four().places, Place(0, 3, strip(), across=3)),
        )
        after = found(grown, "13")
        self.assertEqual(after["row 1, column 2",].key, before["row 1, column 2",].key)
        self.assertEqual(len({s.key for s in after.values()}), len(after))

    def test_a_key_can_stand_in_an_address(self) -> None:
        for s in found(four(), "13").values():
            self.assertNotIn("/", s.key)

    def test_what_is_no_strip_or_joins_no_block_is_cut_as_planned(self) -> None:
        # Across it is as wide as it is long: a patch, not a strip.
        self.assertNotIn(("row 1, column 2",), found(four(middle=6), "18"))
        unit = UnitPlacement("half_square_triangle", ("a", "b"))
        flat = Pattern("Centre", (Fraction(2), Fraction(1)), (Fraction(2),), (Place(0, 0, unit), Place(1, 0, strip())))
        self.assertEqual(strips_between(flat, Order.ROWS, inches(3), QUARTER), ())

    def test_a_centre_with_an_empty_place_is_refused(self) -> None:
        with self.assertRaises(LayoutIncomplete):
            strips_between(replace(four(), places=four().places[1:]), Order.ROWS, inches(13), QUARTER)


class MeasuredTest(TestCase):
    def setUp(self) -> None:
        by_place = found(four(), "13")
        self.between = tuple(by_place[k] for k in (("row 1, column 2",), ("row 3, column 2",), ("row 2, column 1",)))

    def test_three_lengths_have_a_mean_that_the_strip_is_cut_by(self) -> None:
        # 6 3/8 + 6 3/8 + 6 1/4 = 19; a third is 6 1/3, by a ruler of eighths 6 3/8.
        top = measured(self.between, n0="6 3/8, 6 3/8, 6 1/4")
        self.assertIn("Cut the strip 1 1⁄2″ × 6 3⁄8″", told(top, 0))
        self.assertEqual([(s.length, s.between.places) for s in top.strips], [(length("6 3/8"), ("row 1, column 2",))])

    def test_two_lengths_cut_nothing_nor_does_one_misread(self) -> None:
        self.assertEqual(measured(self.between, n0="6 3/8, 6 3/8").strips, ())
        # The finished size typed for the raw one.
        top = measured(self.between, n0="6, 6 3/8, 6 3/8")
        self.assertEqual(top.strips, ())
        self.assertIn("finished size", told(top, 0))

    def test_strips_come_before_the_borders_and_leave_the_planned_quilt(self) -> None:
        top = measured(self.between, n2="13 1/4, 13 3/8, 13 1/4")
        self.assertEqual(len(top.steps), 3)
        # 39 7/8 in all; a third is 13 7/24, by eighths 13 1/4.
        self.assertIn("Cut the strip 2 1⁄2″ × 13 1⁄4″", told(top, 2))
        self.assertEqual(top.sizes.width, inches(13))


class CutTest(TestCase):
    """Of two strips 1 by 6 one was measured: it is cut 1 1/2 by 6 3/8, the other stays 1 1/2 by 6 1/2."""

    def sizes(self, count: int, top: TopAsMeasured) -> dict[tuple[float, float], int]:
        spec = UnitSpec("rectangle", inches(1), inches(6), ("c",))
        plans = cut_as_measured([plan(Choices(spec=spec, count=count, method="cut"))], top.strips)
        pieces = [p for one in plans for p in unit_pieces(one, "Rectangle", {})]
        self.assertEqual({p.name for p in pieces}, {"Rectangle"})
        return {(float(p.width), float(p.height)): p.count for p in pieces}

    def top(self, **lengths: str) -> TopAsMeasured:
        by_place = found(four(), "13")
        return measured(tuple(by_place[k] for k in (("row 1, column 2",), ("row 3, column 2",))), **lengths)

    def test_nothing_measured_is_cut_as_planned(self) -> None:
        self.assertEqual(self.sizes(2, self.top()), {(1.5, 6.5): 2})

    def test_what_was_measured_is_cut_to_it(self) -> None:
        top = self.top(n0="6 3/8, 6 3/8, 6 3/8")
        self.assertEqual(self.sizes(2, top), {(1.5, 6.5): 1, (1.5, 6.375): 1})
        both = self.top(n0="6 3/8, 6 3/8, 6 3/8", n1="6 5/8, 6 5/8, 6 5/8")
        self.assertEqual(self.sizes(2, both), {(1.5, 6.375): 1, (1.5, 6.625): 1})

    def test_strips_of_another_size_stay_as_planned(self) -> None:
        other = plan(Choices(spec=UnitSpec("rectangle", inches(1), inches(5), ("c",)), count=2, method="cut"))
        self.assertEqual(cut_as_measured([other], self.top(n0="6 3/8, 6 3/8, 6 3/8").strips), (other,))

    def test_no_more_are_cut_to_it_than_are_to_be_made(self) -> None:
        both = self.top(n0="6 3/8, 6 3/8, 6 3/8", n1="6 3/8, 6 3/8, 6 3/8")
        self.assertEqual(self.sizes(1, both), {(1.5, 6.375): 1})
        self.assertEqual(self.sizes(5, both), {(1.5, 6.5): 3, (1.5, 6.375): 2})
