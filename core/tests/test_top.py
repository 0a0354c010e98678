"""The top as it measures: what is cut to the mean of three lengths. Figures worked out by hand, from raw edge to raw edge."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from piecing.blocks.pattern import UnitPlacement
from piecing.handling.quilt_steps import quilt_steps
from piecing.lengths import Length, inches
from piecing.quilts.choices import Border, Corners, QuiltChoices, Setting
from piecing.quilts.pieced import PiecedRow, RowFit
from piecing.quilts.sizes import QuiltSizes, quilt_sizes
from piecing.quilts.top import TopAsMeasured, TopLength, TopStep, brought_to, top_as_measured

HALF = inches("21/2")
"""Three by four blocks of 10 1/2 with sashes of 1 1/2: 34 1/2 by 46 1/2, so 35 by 47 before it is bordered."""
CHOICES = QuiltChoices(3, 4, HALF, HALF, sash=inches("3/2"))


def with_geese(second: str) -> QuiltChoices:
    """Inside geese of 4 by 2 a border of 1 and a ``second`` one."""
    geese = PiecedRow((UnitPlacement("flying_goose", ("a", "b", "b")),), fit=RowFit.ADAPT)
    inner = (Border(inches(1), "b"), Border(inches(second), "c", Corners.SQUARE, "c"))
    return replace(CHOICES, borders=(*inner, Border(inches(2), "b", pieced=geese)))


def plain(said: object) -> str:
    return str(said).replace("\u00a0", " ")


def length(text: str) -> Length:
    return sum((inches(p) for p in text.split()), Length.of(0))


def measured(choices: QuiltChoices, **lengths: str) -> TopAsMeasured:
    """The top once these were measured, by name; "12 3/8" is a length, and every one was planned as it is now."""
    sizes = quilt_sizes(choices)
    planned = {r.key: r.planned for s in top_as_measured(sizes, {}).steps for r in s.readings}
    known = {}
    for key, values in lengths.items():
        step = key.replace("_", " ")
        for n, value in enumerate(values.split(", "), 1):
            name = step if step in planned else f"{step} {n}"
            known[name] = TopLength(length(value), planned[name])
    return top_as_measured(sizes, known)


def typed(choices: QuiltChoices, **lengths: str) -> dict[str, TopStep]:
    return {s.key: s for s in measured(choices, **lengths).steps}


def cut(sizes: QuiltSizes) -> dict[str, tuple[Length, Length, int]]:
    """What is cut, by its name: shorter side, longer side, how many."""
    return {p.name: (p.cut_width, p.cut_height, p.count) for p in sizes.pieces}


def size(wide: str, long: str, count: int) -> tuple[Length, Length, int]:
    return length(wide), length(long), count


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
        choices = with_geese("4")
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
        top = top_as_measured(quilt_sizes(choices), known)
        down = next(s for s in top.steps if s.key == "border 1 down")
        self.assertTrue(all(r.stale for r in down.readings))
        self.assertNotIn("Cut", plain(" ".join(map(str, down.said))))


class RowTest(TestCase):
    def test_sashes_between_rows_are_cut_to_the_mean_and_each_row_is_judged_by_it(self) -> None:
        steps = typed(CHOICES, row="35, 35, 35 1/8, 34 1/2")
        # Half an inch is more than three blocks ease; the other three add up to 105 1/8: a third is 35 1/24, by the eighth 35.
        self.assertIn("Cut the sashing between rows 2″ × 35″", told(steps["rows"]))
        self.assertIn("Row 3 is 1⁄8″ longer than 35″: ease it in", told(steps["rows"]))
        self.assertIn("Row 4 is 1⁄2″ shorter than 35″, more than can be eased", told(steps["rows"]))

    def test_with_cornerstones_no_sash_is_cut_to_a_row(self) -> None:
        steps = typed(replace(CHOICES, cornerstones=True), row="35, 35, 35, 35")
        self.assertNotIn("Cut", told(steps["rows"]))
        self.assertIn("alike", told(steps["rows"]))

    def test_one_row_alone_has_none_to_be_joined_to(self) -> None:
        self.assertNotIn("rows", typed(replace(CHOICES, rows=1)))

    def test_columns_of_staggered_blocks(self) -> None:
        """Blocks of 10 1/2, four to a column: 42 1/2. 42 1/2 twice, 42 3/8 and 42 1/2 are a mean of 42 15/32, by the eighth 42 1/2."""
        choices = replace(CHOICES, columns=4, setting=Setting.STAGGERED, sash=Length.of(0))
        steps = typed(choices, column="42 1/2, 42 3/8, 42 1/2, 42 1/2")
        self.assertEqual({r.planned for r in steps["columns"].readings}, {length("42 1/2")})
        self.assertIn("Column 2 is 1⁄8″ shorter than 42 1⁄2″", told(steps["columns"]))

    def test_diagonal_rows_are_compared_with_those_of_as_many_blocks(self) -> None:
        """Three across and two down, sashes of 1 1/2 round about: rows of 1, 3, 3 and 1 blocks; 10 1/2 + 3 + 1/2 = 14, and 38."""
        choices = replace(CHOICES, rows=2, setting=Setting.ON_POINT)
        steps = typed(choices, row="14, 37 7/8, 37 7/8, 14")
        self.assertEqual([r.planned for r in steps["rows"].readings], [inches(14), inches(38), inches(38), inches(14)])
        self.assertIn("alike", told(steps["rows"]))
        self.assertIn("3 blocks long 2″ × 37 7⁄8″", told(steps["rows"]))
        self.assertIn("1⁄4″ longer", told(typed(choices, row="14, 37 3/4, 38 1/4, 14")["rows"]))


class CutTest(TestCase):
    """What is cut of the quilt, once some of it was measured."""

    def test_nothing_measured_changes_nothing(self) -> None:
        sizes = quilt_sizes(replace(CHOICES, borders=(Border(inches(1), "b"),)))
        self.assertEqual(top_as_measured(sizes, {}).sizes, sizes)

    def test_all_goes_with_the_size_that_blocks_were_brought_to(self) -> None:
        choices = replace(CHOICES, borders=(Border(inches(1), "b"),))
        top = measured(choices, blocks_across="10 7/8", blocks_down="10 3/4")
        now = cut(top.sizes)
        # A row: 3 x 10 3/8 + 3 + 1/2 = 34 5/8, and 1/2 to trim. Down: 4 x 10 1/4 + 4 1/2 + 1/2 = 46, and 1/2.
        self.assertEqual(now["sashing beside blocks"], size("2", "10 3/4", 8))
        self.assertEqual(now["sashing between rows"], size("2", "35 1/8", 3))
        self.assertEqual(now["border, sides"], size("1 1/2", "46 1/2", 2))
        self.assertEqual(now["border, top and bottom"], size("1 1/2", "37 1/8", 2))
        steps = {s.key: s for s in top.steps}
        self.assertIn("Cut the sashing beside blocks 2″ × 10 3⁄4″", told(steps["blocks"]))
        self.assertIn("Should be 34 5⁄8″", plain(steps["rows"].how))
        self.assertIn("The plan has 36 1⁄2″ × 48 1⁄2″", plain(top.sizes.notes[0]))
        # What was planned when it was measured stays what tells whether a length is of this plan.
        self.assertEqual(steps["rows"].readings[0].planned, inches(35))

    def test_parts_of_blocks_are_pieced_as_planned(self) -> None:
        choices = replace(CHOICES, setting=Setting.STAGGERED, half_blocks=True, sash=Length.of(0))
        top = measured(choices, blocks_across="10 7/8", blocks_down="10 7/8")
        self.assertEqual(top.sizes.parts, quilt_sizes(choices).parts)

    def test_what_blocks_are_thought_to_be_gives_way_to_what_they_were_trimmed_to(self) -> None:
        sizes, eleven = quilt_sizes(CHOICES), inches(11)
        for at, found in ((eleven, "21/2"), (inches(12), "43/4")):
            known = {"blocks across": TopLength(inches("87/8") if at != eleven else eleven, at)}
            top = top_as_measured(sizes, brought_to(sizes, known, inches("45/4"), inches("45/4")))
            self.assertEqual(top.sizes.choices.block_width, inches(found))

    def test_the_finished_size_typed_for_the_raw_one_cuts_nothing(self) -> None:
        top = measured(CHOICES, blocks_across="10 1/2", blocks_down="11")
        self.assertEqual(cut(top.sizes), cut(quilt_sizes(CHOICES)))
        self.assertIn("10 1⁄2″ is the finished size; raw edge to raw edge it should be 11″", told(top.steps[0]))

    def test_blocks_that_are_as_planned_say_nothing(self) -> None:
        steps = typed(CHOICES, blocks_across="11", blocks_down="11")
        self.assertEqual(told(steps["blocks"]), "")

    def test_one_size_both_ways_on_point(self) -> None:
        choices = replace(CHOICES, rows=2, setting=Setting.ON_POINT, sash=Length.of(0))
        top = measured(choices, blocks_across="10 3/4")
        # A quarter of a square G has a long edge of G - (2 + 2 r2)/4 in.; 10 1/4 corner to corner are 14.496: with 1/2 over 16.20.
        self.assertEqual(cut(top.sizes)["side setting triangle"], size("16 1/4", "16 1/4", 2))
        self.assertEqual([r.key for s in top.steps if s.key == "blocks" for r in s.readings], ["blocks across"])

    def test_sashes_and_what_comes_after_go_with_the_rows(self) -> None:
        choices = replace(CHOICES, borders=(Border(inches(1), "b"),))
        top = measured(choices, row="35 1/4, 35 1/4, 35 1/4, 35 1/4")
        self.assertEqual(cut(top.sizes)["sashing between rows"], size("2", "35 1/4", 3))
        # 35 1/4 with the sides on is 37 1/4, and 1/2 to trim, for it is measured once more.
        self.assertEqual(cut(top.sizes)["border, top and bottom"], size("1 1/2", "37 3/4", 2))
        steps = {s.key: s for s in top.steps}
        self.assertIn("Should be 37 1⁄4″", plain(steps["border 1 across"].how))

    def test_borders_are_cut_once_and_for_all_when_three_lengths_are_known(self) -> None:
        choices = replace(CHOICES, borders=(Border(inches(1), "b"), Border(inches(4), "c", Corners.SQUARE, "d")))
        top = measured(choices, border_1_down="46 7/8, 46 3/4, 46 5/8", border_1_across="37 1/4, 37 1/4, 37 1/4")
        now = cut(top.sizes)
        self.assertEqual(now["border 1, sides"], size("1 1/2", "46 3/4", 2))
        self.assertEqual(now["border 1, top and bottom"], size("1 1/2", "37 1/4", 2))
        # Round it: 46 3/4 + 2 = 48 3/4 and 37 1/4, each with 1/2 over until they are measured too.
        self.assertEqual(now["border 2, sides"], size("4 1/2", "49 1/4", 2))
        self.assertEqual(now["border 2, top and bottom"], size("4 1/2", "37 3/4", 2))
        # 36 3/4 + 8 and 48 1/4 + 8, less nothing: 44 3/4 by 56 1/4, so the binding goes 202 in. round.
        self.assertEqual((top.sizes.width, top.sizes.height), (length("44 3/4"), length("56 1/4")))
        self.assertEqual(top.sizes.binding.round_about, inches(202))

    def test_the_strip_inside_a_pieced_border_and_the_row_that_stays(self) -> None:
        choices = with_geese("4")
        planned, sides, ends = (
            quilt_sizes(choices),
            "border 3, plain strip at the sides",
            "border 3, plain strip above and below",
        )
        # As planned: 1 3/4 all round. With blocks 1/8 narrower the top is 3/8 less across, so each side shows 3/16 more.
        self.assertEqual(cut(planned)[sides][0], length("2 1/4"))
        top = measured(choices, blocks_across="10 7/8", blocks_down="11")
        self.assertEqual(cut(top.sizes)[sides][0], length("2 7/16"))
        self.assertEqual((top.sizes.width, top.sizes.parts), (planned.width, planned.parts))
        top = measured(choices, border_3_down="57 1/4, 57 1/4, 57 1/4", border_3_across="44 3/4, 44 3/4, 44 3/4")
        self.assertEqual(cut(top.sizes)[sides], size("2 3/8", "57 1/4", 2))
        self.assertEqual(cut(top.sizes)[ends], size("2 1/8", "48 1/2", 2))

    def test_where_too_little_would_show_no_strip_is_cut(self) -> None:
        """Inside borders of 1 and 5 3/4 the top is 48 by 60, and twelve and fifteen geese of 4 by 2 go round it as they are."""
        choices = with_geese("23/4")
        top = measured(choices, border_3_down="60 1/2, 60 1/2, 60 1/2", border_3_across="48 3/8, 48 3/8, 48 3/8")
        self.assertFalse([name for name in cut(top.sizes) if "plain strip" in name])
        steps = {s.key: s for s in top.steps}
        self.assertIn("The top is 1⁄8″ shorter than the pieced row", told(steps["border 3 down"]))
        self.assertIn("The pieced row fits as it is", told(steps["border 3 across"]))
        # Half an inch short, a quarter shows on each side: cut 3/4.
        top = measured(choices, border_3_down="60 1/2, 60 1/2, 60 1/2", border_3_across="48, 48, 48")
        self.assertEqual(cut(top.sizes)["border 3, plain strip at the sides"], size("3/4", "60 1/2", 2))

    def test_a_slip_of_the_tape_cuts_nothing(self) -> None:
        choices = replace(CHOICES, borders=(Border(inches(1), "b"),))
        top = measured(choices, border_1_down="46 7/8, 64 3/4, 46 5/8", blocks_across="1")
        self.assertEqual(cut(top.sizes), cut(quilt_sizes(choices)))
        said = " ".join(told(s) for s in top.steps)
        self.assertIn("64 3⁄4″ is far from 47″", said)
        self.assertIn("1″ is far from 11″", said)


class JoiningTest(TestCase):
    """What the steps of joining say once it was measured; before that they say to measure."""

    def said(self, top: TopAsMeasured, key: str) -> str:
        return plain(" ".join(str(m) for s in quilt_steps(top.sizes) if s.key == key for m in s.said))

    def test_strips_are_cut_to_what_was_measured(self) -> None:
        choices = replace(CHOICES, borders=(Border(inches(1), "b"), Border(inches(4), "c", Corners.SQUARE, "d")))
        before = measured(choices)
        for key in ("sashing", "border 1 sides", "border 1 ends", "border 2 sides"):
            self.assertIn("easure", self.said(before, key))
        top = measured(
            choices,
            row="35 1/4, 35 1/4, 35 1/4, 35 1/4",
            border_1_down="46 3/4, 46 3/4, 46 3/4",
            border_1_across="37 1/4, 37 1/4, 37 1/4",
            border_2_down="48 1/2, 48 1/2, 48 1/2",
            border_2_across="37, 37, 37",
        )
        for key, strips in (
            ("sashing", "Cut 3 strips 2″ × 35 1⁄4″"),
            ("border 1 sides", "Cut two strips 1 1⁄2″ × 46 3⁄4″"),
            ("border 1 ends", "Cut two strips 1 1⁄2″ × 37 1⁄4″"),
            ("border 2 sides", "Cut two strips 4 1⁄2″ × 48 1⁄2″"),
            ("border 2 ends", "Cut two strips 4 1⁄2″ × 37″"),
        ):
            self.assertIn(strips, self.said(top, key))
            self.assertNotIn("take the mean", self.said(top, key))
        # With sides of 4 finished on a top of 48 by 36 1/2: 44 1/2 + 1/2 across.
        wholes = {s.key: (s.width, s.height) for s in quilt_steps(top.sizes)}
        self.assertEqual(wholes["border 2 sides"], (inches(45), length("48 1/2")))

    def test_mitred_strips_are_marked_from_the_middle(self) -> None:
        choices = replace(CHOICES, borders=(Border(inches(4), "b", Corners.MITRED),))
        top = measured(choices, border_1_down="47 1/4, 47 1/4, 47 1/4", border_1_across="35, 35, 35")
        said = self.said(top, "border 1 sides")
        self.assertIn("two 59 1⁄4″ long, two 47″", said)
        self.assertIn("half of 47 1⁄4″ or of 35″", said)
