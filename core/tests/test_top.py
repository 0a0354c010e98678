"""The top as it measures: what is cut to the mean of three lengths. Figures worked out by hand, from raw edge to raw edge."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from piecing.blocks.pattern import UnitPlacement
from piecing.lengths import Length, inches
from piecing.quilts.choices import Border, Corners, QuiltChoices
from piecing.quilts.pieced import PiecedRow, RowFit
from piecing.quilts.sizes import quilt_sizes
from piecing.quilts.top import TopLength, TopStep, top_steps

HALF = inches("21/2")
"""Three by four blocks of 10 1/2 with sashes of 1 1/2: 34 1/2 by 46 1/2, so 35 by 47 before it is bordered."""
CHOICES = QuiltChoices(3, 4, HALF, HALF, sash=inches("3/2"))


def plain(said: object) -> str:
    return str(said).replace("\u00a0", " ")


def typed(choices: QuiltChoices, **lengths: str) -> dict[str, TopStep]:
    """The steps once these were measured, by name; "12 3/8" is a length, and every one was planned as it is now."""
    sizes = quilt_sizes(choices)
    planned = {r.key: r.planned for s in top_steps(sizes, {}) for r in s.readings}
    known = {}
    for key, values in lengths.items():
        step = key.replace("_", " ")
        for n, value in enumerate(values.split(", "), 1):
            name = f"{step} {n}"
            known[name] = TopLength(sum((inches(p) for p in value.split()), Length.of(0)), planned[name])
    return {s.key: s for s in top_steps(sizes, known)}


def told(step: TopStep) -> str:
    return plain(" ".join(map(str, step.said)))


class BorderTest(TestCase):
    def test_overlapped_borders_are_cut_to_the_mean_the_second_pair_with_the_first_on(self) -> None:
        choices = replace(CHOICES, borders=(Border(inches(1), "b"),))
        steps = typed(choices)
        self.assertEqual([r.planned for r in steps["border 1 down"].readings], [inches(47)] * 3)
        # The sides, 1 finished each, are on: 34 1/2 + 2 + 1/2.
        self.assertEqual([r.planned for r in steps["border 1 across"].readings], [inches(37)] * 3)
        self.assertEqual(told(steps["border 1 down"]), "")
        # 46 7/8 + 46 3/4 + 46 5/8 = 140 1/4; a third is 46 3/4.
        steps = typed(choices, border_1_down="46 7/8, 46 3/4, 46 5/8", border_1_across="37 1/8, 37, 36 7/8")
        self.assertIn("Cut both sides 1 1⁄2″ × 46 3⁄4″", told(steps["border 1 down"]))
        self.assertIn("Cut the top and the bottom 1 1⁄2″ × 37″", told(steps["border 1 across"]))

    def test_nothing_is_cut_to_two_lengths(self) -> None:
        steps = typed(replace(CHOICES, borders=(Border(inches(1), "b"),)), border_1_down="46 7/8, 46 3/4")
        self.assertNotIn("Cut", told(steps["border 1 down"]))

    def test_with_corner_squares_both_are_measured_first(self) -> None:
        choices = replace(CHOICES, borders=(Border(inches(4), "b", Corners.SQUARE, "c"),))
        steps = typed(choices, border_1_down="47, 47, 47", border_1_across="35 1/4, 35 1/4, 35 1/4")
        self.assertEqual(steps["border 1 across"].readings[0].planned, inches(35))
        self.assertIn("Cut the top and the bottom 4 1⁄2″ × 35 1⁄4″", told(steps["border 1 across"]))

    def test_mitred_borders_reach_over_two_corners(self) -> None:
        choices = replace(CHOICES, borders=(Border(inches(4), "b", Corners.MITRED),))
        steps = typed(choices, border_1_down="47 1/4, 47 1/4, 47 1/4", border_1_across="35, 35, 35")
        # Two widths of 4 and the 4 that mitres are cut longer by: 47 1/4 + 8 + 4.
        self.assertIn("Cut both sides 4 1⁄2″ × 59 1⁄4″", told(steps["border 1 down"]))
        self.assertIn("Cut the top and the bottom 4 1⁄2″ × 47″", told(steps["border 1 across"]))

    def test_the_strip_inside_a_pieced_border_makes_up_the_difference(self) -> None:
        """Geese of 4 by 2 round a top that finishes 44 1/2 by 56 1/2: 12 of them across are 48, 15 down are 60, so 1 3/4 all round."""
        geese = PiecedRow((UnitPlacement("flying_goose", ("a", "b", "b")),), fit=RowFit.ADAPT)
        inner = (Border(inches(1), "b"), Border(inches(4), "c", Corners.SQUARE, "c"))
        choices = replace(CHOICES, borders=(*inner, Border(inches(2), "b", pieced=geese)))
        steps = typed(choices, border_3_down="57 1/4, 57 1/4, 57 1/4", border_3_across="44 3/4, 44 3/4, 44 3/4")
        # It must come to 48 1/2 across: 44 3/4 + 2 x (2 3/8 - 1/2). Down to 60 1/2: 57 1/4 + 2 x (2 1/8 - 1/2).
        self.assertIn("Cut the plain strips at the sides 2 3⁄8″ × 57 1⁄4″", told(steps["border 3 down"]))
        self.assertIn("Cut the plain strips above and below 2 1⁄8″ × 48 1⁄2″", told(steps["border 3 across"]))

    def test_lengths_far_apart_are_looked_into_first(self) -> None:
        steps = typed(replace(CHOICES, borders=(Border(inches(1), "b"),)), border_1_down="47 1/2, 47, 46 3/4")
        self.assertIn("differ by 3⁄4″", told(steps["border 1 down"]))

    def test_what_was_measured_under_another_plan_is_not_used(self) -> None:
        choices = replace(CHOICES, borders=(Border(inches(1), "b"),))
        known = {f"border 1 down {n}": TopLength(inches(40), inches(40)) for n in (1, 2, 3)}
        down = next(s for s in top_steps(quilt_sizes(choices), known) if s.key == "border 1 down")
        self.assertTrue(all(r.stale for r in down.readings))
        self.assertNotIn("Cut", plain(" ".join(map(str, down.said))))


class RowTest(TestCase):
    def test_sashes_between_rows_are_cut_to_the_mean_and_each_row_is_judged_by_it(self) -> None:
        steps = typed(CHOICES, row="35, 35, 35 1/8, 34 1/2")
        # Half an inch is more than three blocks ease; the other three add up to 105 1/8: a third is 35 1/24, by the eighth 35.
        self.assertIn("Cut the sashes between rows 2″ × 35″", told(steps["rows"]))
        self.assertIn("Row 3 is 1⁄8″ longer than 35″: ease it in", told(steps["rows"]))
        self.assertIn("Row 4 is 1⁄2″ shorter than 35″, more than can be eased", told(steps["rows"]))

    def test_with_cornerstones_no_sash_is_cut_to_a_row(self) -> None:
        steps = typed(replace(CHOICES, cornerstones=True), row="35, 35, 35, 35")
        self.assertNotIn("Cut", told(steps["rows"]))
        self.assertIn("alike", told(steps["rows"]))

    def test_one_row_alone_has_none_to_be_joined_to(self) -> None:
        self.assertNotIn("rows", typed(replace(CHOICES, rows=1)))
