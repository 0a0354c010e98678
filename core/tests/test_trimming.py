"""Recipes: what is laid where gives the size that is promised. Drawings are measured, not admired."""

from __future__ import annotations

from itertools import pairwise
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from piecing.geometry.drawing import Drawing, Mark
from piecing.lengths import Length, inches
from piecing.planning import Choices, UnitPlan, plan
from piecing.trimming import Recipe, recipes
from piecing.trimming.recipe import square_ruler_for
from piecing.units.pictures import pictures, trim_box

_plans = st.builds(
    Choices,
    finished=st.fractions(min_value=1, max_value=9, max_denominator=8).map(Length.of),
    fold=st.sampled_from([inches(0), inches("1/64"), inches("1/32")]),
).map(plan)


def marks(drawing: Drawing, role: str) -> list[Mark]:
    return [m for m in drawing.marks if m.role == role]


def span(drawing: Drawing, role: str) -> tuple[float, float, float, float]:
    """Left, top, right, bottom of every mark of a role."""
    points = [p for m in marks(drawing, role) for p in m.points]
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return min(xs), min(ys), max(xs), max(ys)


def way(p: UnitPlan, code: str) -> Recipe:
    return next(r for r in recipes(p) if r.code == code)


class OpenedTest(TestCase):
    @given(_plans)
    def test_the_marks_lie_target_from_the_cut_edges(self, p: UnitPlan) -> None:
        for step in way(p, "opened").steps:
            _, top, right, _ = span(step.drawing, "ruler")
            upright, level = marks(step.drawing, "ruler-line")
            self.assertAlmostEqual(right - upright.points[0][0], float(p.target))
            self.assertAlmostEqual(level.points[0][1] - top, float(p.target))

    @given(_plans)
    def test_the_diagonal_of_the_ruler_lies_on_the_seam(self, p: UnitPlan) -> None:
        for step in way(p, "opened").steps:
            (diagonal,) = marks(step.drawing, "ruler-diagonal")
            (seam,) = marks(step.drawing, "seam")
            for x, y in (*diagonal.points, *seam.points):
                self.assertAlmostEqual(x, -y)

    @given(_plans)
    def test_after_half_a_turn_the_marks_lie_on_the_fresh_edges(self, p: UnitPlan) -> None:
        drawing = way(p, "opened").steps[2].drawing
        upright, level = marks(drawing, "ruler-line")
        self.assertAlmostEqual(upright.points[0][0], 0)
        self.assertAlmostEqual(level.points[0][1], 0)
        left, top, right, bottom = span(drawing, "face")
        self.assertAlmostEqual(right - left, float(p.raw - p.margin))
        self.assertAlmostEqual(bottom - top, float(p.raw - p.margin))

    def test_it_comes_to_the_target(self) -> None:
        self.assertEqual(way(plan(Choices(inches("7/2"), fold=inches("1/32"))), "opened").opens_to, inches(4))


class ClosedTest(TestCase):
    @given(_plans)
    def test_it_opens_to_the_target_less_what_the_fold_takes(self, p: UnitPlan) -> None:
        recipe = way(p, "closed")
        self.assertEqual(recipe.opens_to, p.target - p.choices.fold.over_root2())
        left, top, right, bottom = span(recipe.steps[-1].drawing, "face")
        self.assertAlmostEqual(right - left, float(recipe.opens_to))
        self.assertAlmostEqual(bottom - top, float(recipe.opens_to))

    @given(_plans)
    def test_the_diagonal_mark_lies_on_the_stitching(self, p: UnitPlan) -> None:
        drawing = way(p, "closed").steps[0].drawing
        (stitch,), (diagonal,) = marks(drawing, "stitch"), marks(drawing, "ruler-diagonal")
        sums = [x - y for x, y in (*stitch.points, *diagonal.points)]
        for a, b in pairwise(sums):
            self.assertAlmostEqual(a, b)

    def test_a_known_fold_is_said(self) -> None:
        folded = way(plan(Choices(inches("7/2"), fold=inches("1/32"))), "closed")
        self.assertIn("thread outside", str(folded.steps[0].look_for))
        flat = way(plan(Choices(inches("7/2"))), "closed")
        self.assertNotIn("thread outside", str(flat.steps[0].look_for))


class RulerTest(TestCase):
    @given(_plans)
    def test_the_ruler_covers_the_raw_unit(self, p: UnitPlan) -> None:
        size = square_ruler_for(p.raw)
        self.assertGreaterEqual(size - p.raw, inches("1/2"))
        self.assertTrue(size.on_step(inches(1)))


class PicturesTest(TestCase):
    @given(_plans)
    def test_true_proportion_from_cut_to_trimmed(self, p: UnitPlan) -> None:
        drawn = pictures(p)
        left, top, right, bottom = span(drawn.cut, "back")
        self.assertAlmostEqual(right - left, float(p.cut))
        self.assertAlmostEqual(bottom - top, float(p.cut))
        left, _, right, _ = span(drawn.sewn, "face")
        self.assertAlmostEqual(right - left, float(p.raw))
        left, _, right, _ = span(drawn.trimmed, "face")
        self.assertAlmostEqual(right - left, float(p.target))
        left, _, right, _ = span(drawn.trimmed, "finished")
        self.assertAlmostEqual(right - left, float(p.finished))
        for stage in (drawn.sewn, drawn.trimmed):
            self.assertAlmostEqual(stage.window[2], drawn.cut.window[2])

    @given(_plans)
    def test_the_trim_line_lies_inside_the_raw_outline_by_the_margin(self, p: UnitPlan) -> None:
        left, top, right, bottom = span(pictures(p).sewn, "target")
        raw_left, raw_top, raw_right, raw_bottom = span(pictures(p).sewn, "face")
        for gap in (left - raw_left, top - raw_top, raw_right - right, raw_bottom - bottom):
            self.assertAlmostEqual(gap, float(p.margin))

    @given(_plans)
    def test_the_two_sewing_lines_stand_a_seam_from_the_diagonal(self, p: UnitPlan) -> None:
        drawing = pictures(p).cut
        (blade,) = marks(drawing, "blade")
        (x0, y0), _ = blade.points
        for stitch in marks(drawing, "stitch"):
            x, y = stitch.points[0]
            self.assertAlmostEqual(abs((x - x0) + (y - y0)) / 2**0.5, float(p.choices.seam.stitch))

    def test_dimensions_say_the_plans_own_figures(self) -> None:
        p = plan(Choices(inches("7/2")))
        said = {str(d.label) for d in pictures(p).sewn.dimensions}
        self.assertEqual(said, {"4\u00a09⁄64″", "5⁄64″"})
        self.assertEqual(len(trim_box(p)), 4)
