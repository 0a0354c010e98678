"""What is said and promised of every step from blocks to the quilt top: each figure by hand, for three by four blocks of 12 in."""

from __future__ import annotations

import re
from collections import Counter
from fractions import Fraction
from unittest import TestCase

from piecing.blocks.pattern import UnitPlacement
from piecing.handling.quilt_steps import quilt_steps
from piecing.lengths import ZERO, Length, inches
from piecing.messages import Message
from piecing.quilts.choices import Border, Corners, QuiltChoices, Setting, block_spots
from piecing.quilts.pieced import PiecedRow
from piecing.quilts.sizes import quilt_sizes

HALF_SQUARE = UnitPlacement("half_square_triangle", ("a", "b"))


def told(columns: int = 3, rows: int = 4, **choices: object) -> dict[str, str]:
    """Every step by its name: what is done, and what to look for."""
    sizes = quilt_sizes(QuiltChoices(columns, rows, inches(12), inches(12), **choices))  # type: ignore[arg-type]
    return {
        s.key: " ".join(str(m) for m in (*s.said, *s.look)).replace("\u00a0", " ").replace("  ", " ")
        for s in quilt_steps(sizes)
    }


class StraightTest(TestCase):
    def test_rows_nest_by_turns(self) -> None:
        steps = told()
        for n, side in ((1, "left"), (2, "right"), (3, "left"), (4, "right")):
            self.assertIn(f"Press this row to the {side}.", steps[f"row {n}"])

    def test_three_blocks_are_joined_one_after_another_and_four_in_pairs(self) -> None:
        self.assertNotIn("in pairs", told()["row 1"])
        self.assertIn("Join them in pairs", told(columns=4)["row 1"])

    def test_four_rows_in_pairs_and_three_not(self) -> None:
        self.assertIn("Join rows in pairs", told()["rows"])
        self.assertNotIn("in pairs", told(rows=3)["rows"])

    def test_one_row_is_joined_to_nothing(self) -> None:
        self.assertEqual(list(told(rows=1)), ["row 1"])
        self.assertEqual(list(told(rows=2)), ["row 1", "row 2", "rows"])


class SashedTest(TestCase):
    def test_lines_between_the_rows(self) -> None:
        """Four rows have three between; three blocks and two sashes of 2 are 40 long, and raw 40 1/2 by 2 1/2."""
        steps = told(sash=inches(2))
        self.assertIn("Cut 3 strips 2 1⁄2″ wide to that length", steps["sashing"])
        self.assertIn("should measure 40 1⁄2″ by 2 1⁄2″", steps["sashing"])
        self.assertIn("should measure 40 1⁄2″ by 12 1⁄2″", steps["row 1"])
        # Four rows of 12 and three lines of 2 are 54.
        self.assertIn("should measure 40 1⁄2″ by 54 1⁄2″", steps["rows"])

    def test_lines_outside_as_well(self) -> None:
        """Five lines; a row has four sashes: 44. Four rows and five lines are 58."""
        steps = told(sash=inches(2), sash_round=True)
        self.assertIn("one at each end", steps["row 1"])
        self.assertIn("Cut 5 strips 2 1⁄2″ wide", steps["sashing"])
        self.assertIn("should measure 44 1⁄2″ by 58 1⁄2″", steps["rows"])

    def test_lines_with_cornerstones(self) -> None:
        self.assertIn("3 lines of sashing with a cornerstone", told(sash=inches(2), cornerstones=True)["sashing"])
        self.assertIn("One line of sashing", told(rows=2, sash=inches(2), cornerstones=True)["sashing"])

    def test_one_row_has_no_line_but_outside(self) -> None:
        self.assertEqual(list(told(rows=1, sash=inches(2))), ["row 1"])
        steps = told(rows=1, sash=inches(2), sash_round=True)
        self.assertEqual(list(steps), ["row 1", "sashing", "rows"])
        self.assertIn("Cut 2 strips", steps["sashing"])


class OnPointTest(TestCase):
    def test_rows_along_the_diagonal(self) -> None:
        """Two by two on point: rows of one, three and one block; three of 12 are 36, and raw 36 1/2 by 12 1/2."""
        steps = told(columns=2, rows=2, setting=Setting.ON_POINT)
        self.assertIn("Diagonal row 1: one block.", steps["row 1"])
        self.assertIn("Diagonal row 2: 3 blocks side by side.", steps["row 2"])
        self.assertIn("Its blocks measure 36 1⁄2″ by 12 1⁄2″ without the triangles", steps["row 2"])
        self.assertIn("Trim the edges 1⁄4″ beyond the corners", steps["rows"])


class StaggeredTest(TestCase):
    def test_columns_of_one_length(self) -> None:
        """Four blocks of 12: 48; every second column has plain cloth at its ends; three columns are 36 wide."""
        steps = told(setting=Setting.STAGGERED, stagger=Fraction(1, 2))
        self.assertIn("Plain cloth goes at its head and at its foot.", steps["column 2"])
        self.assertNotIn("Plain cloth", steps["column 1"] + steps["column 3"])
        self.assertIn("should measure 12 1⁄2″ by 48 1⁄2″", steps["column 1"])
        self.assertIn("should measure 36 1⁄2″ by 48 1⁄2″", steps["columns"])
        self.assertIn("Join them in pairs", steps["column 1"])
        self.assertNotIn("in pairs", told(rows=3, setting=Setting.STAGGERED)["column 1"])


class BorderTest(TestCase):
    def test_a_plain_one(self) -> None:
        """Round 36 by 48 a border of 4: strips 4 1/2 wide, at the sides 48 1/2 long; then 44 wide, and 44 by 56 in all."""
        steps = told(borders=(Border(inches(4), "a"),))
        self.assertIn("Cut two strips 4 1⁄2″ wide to that length. The plan has 48 1⁄2″.", steps["border 1 sides"])
        self.assertIn("should measure 44 1⁄2″ by 48 1⁄2″", steps["border 1 sides"])
        self.assertIn("Cut two strips 4 1⁄2″ wide to that length. The plan has 44 1⁄2″.", steps["border 1 ends"])
        self.assertIn("should measure 44 1⁄2″ by 56 1⁄2″", steps["border 1 ends"])

    def test_with_squares_at_its_corners(self) -> None:
        """The ends are cut to the width before the sides went on: 36 1/2."""
        ends = told(borders=(Border(inches(4), "a", Corners.SQUARE, "b"),))["border 1 ends"]
        self.assertIn("Cut two strips 4 1⁄2″ wide to what it was before the sides went on: 36 1⁄2″.", ends)
        self.assertIn("Sew a square 4 1⁄2″ to each end", ends)

    def test_mitred(self) -> None:
        """Outside it is 44 by 56; strips are cut 4 in. longer than that and its allowances: 48 1/2 and 60 1/2."""
        sides = told(borders=(Border(inches(4), "a", Corners.MITRED),))["border 1 sides"]
        self.assertIn("Strips are cut 4 1⁄2″ wide: two 60 1⁄2″ long, two 48 1⁄2″.", sides)
        self.assertIn("Begin and end each seam 1⁄4″ from the edge", sides)
        ends = told(borders=(Border(inches(4), "a", Corners.MITRED),))["border 1 ends"]
        self.assertIn("should measure 44 1⁄2″ by 56 1⁄2″", ends)

    def test_pieced_of_half_squares(self) -> None:
        """Half squares of 3 fit 36 and 48: twelve and sixteen of them. Strips at the sides 3 1/2 by 48 1/2; then 42 wide; those at
        top and bottom with their corners 42 1/2 by 3 1/2; in all 42 by 54."""
        steps = told(borders=(Border(inches(3), "a", pieced=PiecedRow((HALF_SQUARE,))),))
        self.assertEqual([k for k in steps if "border" in k], ["border 1 sides", "border 1 ends"])
        self.assertIn("Each strip should measure 3 1⁄2″ by 48 1⁄2″", steps["border 1 sides"])
        self.assertIn("It should measure 42 1⁄2″ by 48 1⁄2″", steps["border 1 sides"])
        self.assertIn("corners included, should measure 42 1⁄2″ by 3 1⁄2″", steps["border 1 ends"])
        self.assertIn("It should measure 42 1⁄2″ by 54 1⁄2″", steps["border 1 ends"])

    def test_one_that_does_not_fit_has_a_plain_strip_inside(self) -> None:
        """Sashes of 1 make the centre 38 by 51, where threes go 13 times and 17: 39 leaves half an inch at either side, raw 1."""
        steps = told(sash=inches(1), borders=(Border(inches(3), "a", pieced=PiecedRow((HALF_SQUARE,))),))
        strip = steps["border 1 plain strip"]
        self.assertIn("Sew a strip cut 1″ wide to the left and the right", strip)
        self.assertNotIn("top and bottom", strip)
        self.assertIn("should measure 39 1⁄2″ by 51 1⁄2″", strip)
        self.assertIn("Trim the whole to what the pieced strips measure", strip)


class AllowanceTest(TestCase):
    def test_other_allowances(self) -> None:
        steps = told(seam_allowance=inches("3/8"), borders=(Border(inches(4), "a"),))
        self.assertIn("should measure 36 3⁄4″ by 12 3⁄4″", steps["row 1"])
        self.assertIn("Cut two strips 4 3⁄4″ wide", steps["border 1 sides"])

    def test_without_sashing_nothing_is_said_of_it(self) -> None:
        self.assertNotIn("sash", " ".join(told(sash=ZERO).values()))


class SizeTest(TestCase):
    def test_what_is_said_to_measure_is_what_is_kept_account_of(self) -> None:
        """The size in words and the one that a record of the step is held against are one."""
        row = PiecedRow((HALF_SQUARE,))
        for choices in (
            {"sash": inches(2), "sash_round": True},
            {"borders": (Border(inches(4), "a"), Border(inches(2), "b", Corners.SQUARE))},
            {"borders": (Border(inches(3), "a", pieced=row),), "columns": 3, "rows": 5},
            {"setting": Setting.ON_POINT},
        ):
            sizes = quilt_sizes(
                QuiltChoices(**{"columns": 3, "rows": 4, **choices}, block_width=inches(11), block_height=inches(11))
            )  # type: ignore[arg-type]
            for step in quilt_steps(sizes):
                said = [str(m) for m in step.look if "should measure" in str(m)]
                with self.subTest(f"{choices} {step.key}"):
                    for text in said:
                        self.assertIn(str(Message("{w} by {h}", w=step.width, h=step.height)), text)


class DiagonalRowsTest(TestCase):
    """Rows run from lower left to upper right and are laid level to be sewn: what lies below in the quilt's left then lies at the lower
    edge. A setting triangle stands between two blocks at the rim, its right angle where their corners touch."""

    def test_two_by_three_by_hand(self) -> None:
        steps = told(2, 3, setting=Setting.ON_POINT)
        self.assertEqual([k for k in steps if k.startswith("row ")], ["row 1", "row 2", "row 3", "row 4"])
        self.assertIn("one block.", steps["row 1"])
        self.assertIn("to each end: its right angle flush with the lower edge", steps["row 1"])
        # The second row ends at the quilt's upper right corner, the third at its lower left one.
        self.assertIn("3 blocks side by side", steps["row 2"])
        self.assertIn("to the left end: its right angle flush with the lower edge", steps["row 2"])
        self.assertIn("At the other end a corner triangle comes last", steps["row 2"])
        self.assertIn("to the right end: its right angle flush with the upper edge", steps["row 3"])
        self.assertIn("to each end: its right angle flush with the upper edge", steps["row 4"])
        self.assertIn("36 1⁄2″ by 12 1⁄2″ without the triangles", steps["row 3"])

    def test_triangles_stand_where_two_blocks_touch(self) -> None:
        """Of every size: by which of the two corners at a row's end another block touches there."""
        for columns in range(1, 6):
            for rows in range(1, 6):
                c = QuiltChoices(columns, rows, inches(12), inches(12), setting=Setting.ON_POINT)
                spots, steps = set(block_spots(c)), told(columns, rows, setting=Setting.ON_POINT)
                setting = 0
                for n, k in enumerate(sorted({x + y for x, y in spots}), 1):
                    row = sorted(s for s in spots if s[0] + s[1] == k)
                    (x, y), (over, up) = row[0], row[-1]
                    left = "lower" if (x, y + 2) in spots else "upper" if (x - 2, y) in spots else ""
                    right = "lower" if (over + 2, up) in spots else "upper" if (over, up - 2) in spots else ""
                    setting += bool(left) + bool(right)
                    said = steps[f"row {n}"]
                    with self.subTest(f"{columns} by {rows}, row {n}"):
                        if left == right:
                            wanted = (
                                f"to each end: its right angle flush with the {left} edge"
                                if left
                                else "At its ends corner"
                            )
                        elif left and right:
                            wanted = f"on the left its right angle is flush with the {left} edge, on the right with the {right} one"
                        else:
                            side = "left" if left else "right"
                            wanted = f"to the {side} end: its right angle flush with the {left or right} edge"
                        self.assertIn(wanted, said)
                # As many as the plan cuts: one between any two blocks along each side.
                self.assertEqual(setting, 2 * (columns - 1) + 2 * (rows - 1))

    def test_sashes_of_a_square_one(self) -> None:
        """Blocks of 12 with sashes of 1 at both ends: one is 14 long, three are 40. Outside lie long sashes of the same lengths."""
        steps = told(2, 2, setting=Setting.ON_POINT, sash=inches(1))
        self.assertIn("one block with a sash at each end", steps["row 1"])
        self.assertIn("Its blocks and sashes measure 14 1⁄2″ by 12 1⁄2″", steps["row 1"])
        self.assertIn("cut as long as this row, to its upper edge", steps["row 1"])
        self.assertIn("3 blocks side by side, with sashes between them and one at each end", steps["row 2"])
        self.assertIn("Its blocks and sashes measure 40 1⁄2″", steps["row 2"])
        self.assertIn("to its upper and to its lower edge", steps["row 2"])
        self.assertIn("cut as long as this row, to its lower edge", steps["row 3"])
        self.assertIn("Join row to sashing to row", steps["rows"])
        stones = told(2, 2, setting=Setting.ON_POINT, sash=inches(1), cornerstones=True)
        self.assertIn("a long sash, pieced with cornerstones as long as this row, to its upper edge", stones["row 1"])

    def test_a_row_between_two_of_its_length_has_a_seam_in_two_parts(self) -> None:
        """Two by four: the third row, three blocks long, lies between long sashes of four. The upper one begins even with its left end and
        lies over the right triangle, which waits for the lower one, which lies over the left triangle, which waits for the upper one."""
        tall = told(2, 4, setting=Setting.ON_POINT, sash=inches(1))
        self.assertIn("even with its left end; then the left triangle", tall["row 3"])
        self.assertIn("close the seam of the upper one last", tall["row 3"])
        self.assertEqual([k for k, v in tall.items() if "in two parts" in v or "one block longer" in v], ["row 3"])
        wide = told(4, 2, setting=Setting.ON_POINT, sash=inches(1))
        self.assertIn("even with its right end; then the right triangle", wide["row 3"])

    def test_long_sashes_are_those_that_the_plan_cuts(self) -> None:
        """What rows take as long as they are, and what lies between, together: as many of each length as are cut."""
        for columns, rows in ((1, 1), (1, 3), (2, 2), (2, 3), (2, 4), (4, 2), (3, 3)):
            choices = {"setting": Setting.ON_POINT, "sash": inches(1)}
            sizes = quilt_sizes(QuiltChoices(columns, rows, inches(12), inches(12), **choices))  # type: ignore[arg-type]
            cut = {p.finished_height: p.count for p in sizes.pieces if p.name.startswith("sashing between rows")}
            own = Counter[Length]()
            for said in told(columns, rows, **choices).values():
                for edge in re.findall(
                    "cut as long as this row, to its (upper and to its lower|upper|lower) edge", said
                ):
                    blocks = int(m[1]) if (m := re.search(r": (\d+) blocks", said)) else 1
                    own[inches(13 * blocks + 1)] += 2 if "and" in edge else 1
            for length, n in own.items():
                with self.subTest(f"{columns} by {rows}: {length}"):
                    self.assertEqual(cut[length], n)
