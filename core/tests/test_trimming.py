"""Recipes and pictures: what is laid where gives the size that is promised. Drawings are measured, not admired."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from piecing.blocks.library import library_keys, library_pattern
from piecing.blocks.pattern import Pattern, Place, UnitPlacement
from piecing.drawings.unit import design_picture, pictures
from piecing.errors import RulerImpossible
from piecing.geometry.drawing import Drawing, DrawnMark
from piecing.lengths import Length, Measure, inches
from piecing.messages import Message
from piecing.planning.plan import plan
from piecing.planning.schools import School
from piecing.planning.unit_plan import Choices, UnitPlan
from piecing.trimming import (
    Cutter,
    Recipe,
    Ruler,
    expectation,
    fit,
    opened_said,
    recipes,
    starting_set,
    trim_block,
    trimmed_plan,
)
from piecing.trimming.whole_block import middle_crossing
from piecing.units import KINDS, Method, UnitSpec, kind_of

from .samples import ALL_WAYS, half_square, sample

_RULERS = starting_set(Measure.INCHES)
_ways = st.sampled_from(ALL_WAYS)
_plans = st.builds(
    lambda size, fold: plan(half_square(size, fold=fold)),
    st.fractions(min_value=1, max_value=9, max_denominator=8).map(Length.of),
    st.sampled_from([inches(0), inches("1/64"), inches("1/32")]),
)
_cutters = st.sampled_from(Cutter)


def marks(drawing: Drawing, role: str) -> list[DrawnMark]:
    return [m for m in drawing.marks if m.role == role]


def span(drawing: Drawing, role: str) -> tuple[float, float, float, float]:
    """Left, top, right, bottom of every mark of a role."""
    points = [p for m in marks(drawing, role) for p in m.points]
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return min(xs), min(ys), max(xs), max(ys)


def way_of(p: UnitPlan, code: str, cutter: Cutter = Cutter.RIGHT) -> Recipe:
    return next(r for r in recipes(p, _RULERS, cutter) if r.code == code)


def edge(drawing: Drawing, cutter: Cutter) -> tuple[float, float]:
    """Where the ruler's cutting edges lie: the upright one, and the upper one."""
    left, top, right, _ = span(drawing, "ruler")
    return (right if cutter is Cutter.RIGHT else left), top


class OpenedTest(TestCase):
    @settings(max_examples=80)
    @given(_ways, _cutters)
    def test_two_ruler_lines_lie_a_target_from_the_cutting_edges(
        self, way: tuple[Method, UnitSpec], cutter: Cutter
    ) -> None:
        method, spec = way
        p = trimmed_plan(plan(Choices(spec, method.name)))
        for step in way_of(p, "opened", cutter).steps:
            x, y = edge(step.drawing, cutter)
            lines = [m.points for m in marks(step.drawing, "ruler-line")]
            across = [abs(a[0] - x) for a, b in lines if abs(a[0] - b[0]) < 1e-9]
            down = [abs(a[1] - y) for a, b in lines if abs(a[1] - b[1]) < 1e-9]
            self.assertLess(min(abs(d - float(p.target_width)) for d in across), 1e-6)
            self.assertLess(min(abs(d - float(p.target_height)) for d in down), 1e-6)

    @settings(max_examples=60)
    @given(_ways, _cutters)
    def test_cutting_along_the_edges_twice_leaves_the_target(
        self, way: tuple[Method, UnitSpec], cutter: Cutter
    ) -> None:
        """After half a turn the unit lies against the marks, and what is left of it ends at the blade."""
        method, spec = way
        p = trimmed_plan(plan(Choices(spec, method.name)))
        drawing = way_of(p, "opened", cutter).steps[-1].drawing
        x, y = edge(drawing, cutter)
        fresh = span(drawing, "fresh")
        far = fresh[0] if cutter is Cutter.RIGHT else fresh[2]
        self.assertAlmostEqual(abs(x - far), float(p.target_width), places=5)
        self.assertAlmostEqual(abs(y - fresh[3]), float(p.target_height), places=5)

    @given(_plans, _cutters)
    def test_the_diagonal_of_the_ruler_lies_on_the_seam(self, p: UnitPlan, cutter: Cutter) -> None:
        for step in way_of(p, "opened", cutter).steps:
            (diagonal,) = marks(step.drawing, "ruler-diagonal")
            (seam,) = marks(step.drawing, "seam")
            (x1, y1), (x2, y2) = diagonal.points
            for x, y in seam.points:
                self.assertAlmostEqual((x - x1) * (y2 - y1) - (y - y1) * (x2 - x1), 0, places=5)

    def test_a_goose_has_its_tip_under_two_lines_and_both_slants_on_its_seams(self) -> None:
        p = plan(Choices(sample("flying_goose"), "four"))
        for number, step in enumerate(way_of(p, "opened").steps):
            slants = marks(step.drawing, "ruler-diagonal")
            seams = marks(step.drawing, "seam")
            self.assertEqual(len(slants), 2)
            for slant in slants:
                (x1, y1), (x2, y2) = slant.points
                lies_on = [
                    all(abs((x - x1) * (y2 - y1) - (y - y1) * (x2 - x1)) < 1e-5 for x, y in seam.points)
                    for seam in seams
                ]
                self.assertTrue(any(lies_on), f"step {number + 1}")

    def test_it_comes_to_the_target(self) -> None:
        self.assertEqual(way_of(plan(half_square(fold=inches("1/32"))), "opened").opens_to, inches(4))

    def test_a_goose_of_two_units_is_trimmed_before_it_is_joined(self) -> None:
        p = plan(Choices(sample("flying_goose"), "two_half_square_triangles"))
        self.assertEqual(trimmed_plan(p).spec.kind, "half_square_triangle")
        self.assertEqual(recipes(p)[0].opens_to, inches("13/4"))

    @settings(max_examples=60)
    @given(_ways, _cutters)
    def test_every_way_has_four_steps_with_words_and_pictures(
        self, way: tuple[Method, UnitSpec], cutter: Cutter
    ) -> None:
        method, spec = way
        for recipe in recipes(plan(Choices(spec, method.name)), _RULERS, cutter):
            self.assertEqual(len(recipe.steps), 4)
            self.assertTrue(recipe.cautions)
            for step in recipe.steps:
                self.assertTrue(str(step.how) and str(step.look_for) and step.drawing.marks)
            if recipe.code == "opened" and cutter is Cutter.LEFT:
                self.assertIn("left side", str(recipe.steps[1].how))


class ClosedTest(TestCase):
    @given(_plans, _cutters)
    def test_it_opens_to_the_target_less_what_the_fold_takes(self, p: UnitPlan, cutter: Cutter) -> None:
        recipe = way_of(p, "closed", cutter)
        self.assertEqual(recipe.opens_to, p.target_width - p.choices.fold.over_root2())
        left, top, right, bottom = span(recipe.steps[-1].drawing, "face")
        self.assertAlmostEqual(right - left, float(recipe.opens_to))
        self.assertAlmostEqual(bottom - top, float(recipe.opens_to))

    @given(_plans, _cutters)
    def test_the_diagonal_mark_lies_on_the_stitching(self, p: UnitPlan, cutter: Cutter) -> None:
        drawing = way_of(p, "closed", cutter).steps[0].drawing
        (stitch,), (diagonal,) = marks(drawing, "stitch"), marks(drawing, "ruler-diagonal")
        (x1, y1), (x2, y2) = stitch.points
        for x, y in diagonal.points:
            self.assertAlmostEqual((x - x1) * (y2 - y1) - (y - y1) * (x2 - x1), 0, places=6)

    def test_a_known_fold_is_said(self) -> None:
        folded = way_of(plan(half_square(fold=inches("1/32"))), "closed")
        self.assertIn("thread outside", str(folded.steps[0].look_for))
        self.assertNotIn("thread outside", str(way_of(plan(half_square()), "closed").steps[0].look_for))

    def test_only_ways_that_leave_a_unit_unopened_have_it(self) -> None:
        for method, spec in ALL_WAYS:
            has = "closed" in [r.code for r in recipes(plan(Choices(spec, method.name)))]
            unopened = method.kind == "half_square_triangle" and method.name != "flipped_corner"
            joined_later = (method.kind, method.name) == ("flying_goose", "two_half_square_triangles")
            self.assertEqual(has, unopened or joined_later, f"{method.kind} {method.name}")

    def test_a_slotted_ruler_is_used_as_one(self) -> None:
        slotted = Ruler("Slotted", inches(8), inches(8), slotted=True)
        recipe = next(r for r in recipes(plan(half_square()), [*_RULERS, slotted]) if r.code == "closed")
        self.assertIn("slots", str(recipe.ruler))
        self.assertIn("slots", str(recipe.steps[1].how))


class FoldedTest(TestCase):
    def test_the_corner_stands_half_a_diagonal_above_the_fold(self) -> None:
        p = plan(half_square("18"))
        recipe = way_of(p, "folded")
        (dot,) = marks(recipe.steps[1].drawing, "tip")
        self.assertAlmostEqual(-dot.points[0][1], float(p.target_width) / 2**0.5)
        cuts = marks(recipe.steps[3].drawing, "blade")
        for cut in cuts:
            (x1, y1), (x2, y2) = cut.points
            self.assertAlmostEqual(abs((y2 - y1) / (x2 - x1)), 1.0)

    def test_it_comes_first_when_no_ruler_is_large_enough(self) -> None:
        self.assertEqual(recipes(plan(half_square("18")), _RULERS)[0].code, "folded")
        self.assertEqual(recipes(plan(half_square("4")), _RULERS)[0].code, "opened")


class RulerTest(TestCase):
    def test_the_smallest_that_covers_is_taken(self) -> None:
        small = fit(_RULERS, inches(4), inches(4), diagonal=True).ruler
        large = fit(_RULERS, inches(8), inches(8), diagonal=True).ruler
        assert small
        assert large
        self.assertEqual((small.name, large.name), ("Small square", "Large square"))

    def test_why_none_will_do(self) -> None:
        self.assertEqual(fit(_RULERS, inches(15), inches(15), diagonal=False).why_not, "small")
        self.assertEqual(fit(_RULERS, inches(20), inches(5), diagonal=True).why_not, "diagonal")
        self.assertEqual(fit((), inches(4), inches(4), diagonal=False).why_not, "none")
        for rulers, finished, code in ((_RULERS, "20", "ruler_small"), ((), "4", "ruler_none")):
            warnings = way_of_none(plan(half_square(finished)), rulers)
            self.assertIn(code, warnings)

    def test_a_border_is_a_hazard(self) -> None:
        bordered = [Ruler("Bordered", inches("13/2"), inches("13/2"), border=inches("1/2"))]
        self.assertIn("ruler_border", way_of_none(plan(half_square()), bordered))
        both = [*bordered, *_RULERS]
        self.assertNotIn("ruler_border", way_of_none(plan(half_square()), both), "one without a border is taken first")

    def test_rulers_that_cannot_be(self) -> None:
        for size in ("0", "1/2", "200"):
            with self.subTest(size), self.assertRaises(RulerImpossible):
                Ruler("x", inches(size), inches(6))
        with self.assertRaises(RulerImpossible):
            Ruler("x", inches(6), inches(6), border=inches(3))

    def test_the_metric_set_is_metric(self) -> None:
        self.assertTrue(all(r.width.on_step(Length.of(50) * 5 / 127) for r in starting_set(Measure.MILLIMETRES)))


def way_of_none(p: UnitPlan, rulers: object) -> list[str]:
    opened = next(r for r in recipes(p, rulers) if r.code == "opened")  # type: ignore[arg-type]
    return [n.code for n in opened.warnings]


class ExpectationTest(TestCase):
    def test_tips_reassure_and_corners_do_not_speak_of_them(self) -> None:
        goose = expectation(plan(Choices(sample("flying_goose"), "four")))
        assert goose.reassures is not None
        self.assertIn("looks wrong and is right", str(goose.reassures))
        self.assertIsNone(expectation(plan(half_square())).reassures)

    @given(_ways)
    def test_the_slipped_picture_differs_by_a_sixteenth(self, way: tuple[Method, UnitSpec]) -> None:
        method, spec = way
        e = expectation(plan(Choices(spec, method.name, School.GENEROUS)))
        one, other = span(e.true, "finished"), span(e.slipped, "finished")
        self.assertAlmostEqual(sum(abs(a - b) for a, b in zip(one, other, strict=True)), 2 / 16, places=6)


class PicturesTest(TestCase):
    @settings(max_examples=60)
    @given(_ways)
    def test_true_proportion_from_sewn_to_trimmed(self, way: tuple[Method, UnitSpec]) -> None:
        method, spec = way
        p = plan(Choices(spec, method.name, School.GENEROUS))
        drawn = pictures(p)
        left, top, right, bottom = span(drawn.sewn, "target")
        self.assertAlmostEqual(right - left, float(p.target_width))
        self.assertAlmostEqual(bottom - top, float(p.target_height))
        left, top, right, bottom = span(drawn.trimmed, "finished")
        self.assertAlmostEqual(right - left, float(p.spec.width))
        self.assertAlmostEqual(bottom - top, float(p.spec.height))
        self.assertEqual(drawn.sewn.window, drawn.trimmed.window)
        for stage in drawn.stages:
            self.assertTrue(stage.drawing.marks and str(stage.title))

    def test_the_two_sewing_lines_stand_a_seam_from_the_diagonal(self) -> None:
        drawing = pictures(plan(half_square())).stages[0].drawing
        (blade,) = marks(drawing, "blade")
        (x0, y0), _ = blade.points
        lap = 0.0
        for stitch in marks(drawing, "stitch"):
            x, y = stitch.points[0]
            self.assertAlmostEqual(abs((x - x0) + (y - y0)) / 2**0.5, 0.25 + lap, places=6)

    def test_dimensions_say_the_plans_own_figures(self) -> None:
        drawn = pictures(plan(half_square()))
        self.assertEqual({str(d.label) for d in drawn.sewn.dimensions}, {"4\u00a05⁄32″", "1⁄16″"})
        self.assertEqual([str(d.label) for d in drawn.stages[0].drawing.dimensions], ["4\u00a01⁄2″"])

    def test_tips_are_marked_in_the_trimmed_picture(self) -> None:
        drawn = pictures(plan(Choices(sample("square_in_square", inches("7/2")), "flipped_corners")))
        self.assertEqual(len(marks(drawn.trimmed, "tip")), 4)

    def test_every_kind_has_a_picture_of_its_own(self) -> None:
        seen = set()
        for name in KINDS:
            drawing = design_picture(kind_of(name).design(sample(name)), Message(name))
            seen.add(str([m.points for m in drawing.marks]))
        self.assertEqual(len(seen), len(KINDS))


class OpenedInWordsTest(TestCase):
    def test_how_large_it_opens_in_words(self) -> None:
        four = inches(4)
        self.assertIsNone(opened_said(four, four))
        self.assertEqual(str(opened_said(inches("511/128"), four)), "This way the unit opens to a hair under 4″.")
        self.assertEqual(str(opened_said(inches("513/128"), four)), "This way the unit opens to a hair over 4″.")
        self.assertEqual(str(opened_said(inches("31/8"), four)), "This way the unit opens to about 3\xa07⁄8″.")


class PurposeTest(TestCase):
    """What recipes say where two instructions once contradicted each other, and rulers made for one thing."""

    def told(self, p: UnitPlan, rulers: tuple[Ruler, ...] | None = None) -> str:
        return " ".join(f"{s.how} {s.look_for}" for s in recipes(p, rulers)[0].steps)

    def test_a_diamonds_tips_are_told_as_the_plan_tells_them(self) -> None:
        """3 1/2 finished: the centre wants 3 1/2 / √2 + 1/2 = 2.975. Cut 3 it leaves 2 - √2 · 1.25 = 0.232, which the ruler reads 7/32."""
        p = plan(Choices(sample("square_in_square"), "corner_triangles"))
        self.assertEqual(p.cuts["centre"], inches(3))
        told = self.told(p)
        self.assertIn("Every tip stands 7⁄32″ from its raw edge, 1⁄32″ less than an allowance", told)
        self.assertNotIn("each tip 1⁄4″ inside", told)
        for mark in expectation(p).marks:
            self.assertAlmostEqual(float(mark.distance), 2 - 2**0.5 * 1.25, places=6)

    def test_a_diamond_that_fits_is_told_an_allowance(self) -> None:
        self.assertIn(
            "Every tip stands 1⁄4″ from", self.told(plan(Choices(sample("square_in_square"), "flipped_corners")))
        )

    def test_corner_units_have_one_instruction(self) -> None:
        spec = sample("corner_triangle")
        told = self.told(plan(Choices(spec, "flipped_corners")))
        self.assertIn("at the lower right corner, which was not sewn", told)
        self.assertEqual(told.count("not sewn"), 1)
        four = replace(spec, corners=(inches("3/4"),) * 4)
        self.assertIn("no corner is left", self.told(plan(Choices(four, "flipped_corners"))))

    def test_a_goose_ruler_is_for_geese_alone(self) -> None:
        own = Ruler("Goose", inches(7), inches(4), goose=True)
        p = plan(Choices(sample("flying_goose"), "four"))
        ways = recipes(p, (own,))
        self.assertEqual(ways[0].code, "goose_ruler")
        self.assertIn("slanting lines on the seams", str(ways[0].steps[0].how))
        self.assertEqual(ways[1].warnings[0].code, "ruler_none")
        large = plan(Choices(sample("flying_goose", inches(8)), "four"))
        self.assertEqual(recipes(large, (own,))[0].code, "opened")
        self.assertEqual(recipes(plan(half_square()), (own,))[0].warnings[0].code, "ruler_none")


class WholeBlockTest(TestCase):
    def test_a_pinwheel_by_hand(self) -> None:
        """8 finished is 8 1/2 raw: the 4 1/4 lines on the crossing, on a ruler of 8 1/2 or more whose diagonal reaches the corner."""
        pinwheel = library_pattern("pinwheel")
        recipe = trim_block(pinwheel, inches(8), inches("1/4"), starting_set(Measure.INCHES))
        told = " ".join(str(s.how) for s in recipe.steps)
        self.assertIn(
            "Put the 4 1⁄4″ lines on the crossing in the middle. The 45-degree line runs into both corners",
            told.replace("\u00a0", " "),
        )
        self.assertIn("Large square", str(recipe.ruler))
        self.assertIn("rocks the ruler", str(recipe.steps[1].look_for))

    def test_no_ruler_is_large_enough(self) -> None:
        small = (Ruler("Small square", inches("13/2"), inches("13/2")),)
        recipe = trim_block(library_pattern("pinwheel"), inches(8), inches("1/4"), small)
        self.assertEqual(recipe.warnings[0].code, "ruler_small")
        border = (Ruler("Bordered", inches(13), inches(13), border=inches("1/2")),)
        self.assertEqual(
            trim_block(library_pattern("pinwheel"), inches(8), inches("1/4"), border).warnings[0].code, "ruler_border"
        )

    def test_every_library_block(self) -> None:
        for key in library_keys():
            pattern = library_pattern(key)
            for cutter in Cutter:
                recipe = trim_block(pattern, inches(9), inches("1/4"), starting_set(Measure.INCHES), cutter)
                self.assertTrue(all(s.drawing.marks for s in recipe.steps), key)

    def test_where_a_crossing_lies_in_the_middle(self) -> None:
        self.assertTrue(middle_crossing(library_pattern("pinwheel")))
        self.assertFalse(middle_crossing(library_pattern("capstan")))
        wide = Place(0, 0, UnitPlacement("rectangle", ("a",)), across=2)
        below = [Place(n, 1, UnitPlacement("plain_square", ("b",))) for n in (0, 1)]
        # Two squares under one wide piece: a seam ends in the middle, and nothing crosses there.
        self.assertFalse(middle_crossing(Pattern("Tee", (Fraction(1),) * 2, (Fraction(1),) * 2, (wide, *below))))
