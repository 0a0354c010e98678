"""What is said of joining a block, step by step: each sentence and figure by hand for small blocks of plain squares."""

from __future__ import annotations

import re
from dataclasses import replace
from fractions import Fraction
from unittest import TestCase

from piecing.blocks.editing import whole_mirrored
from piecing.blocks.library import library_pattern
from piecing.blocks.pattern import BlockPlacement, Pattern, Place, UnitPlacement
from piecing.handling.joining_steps import join_steps
from piecing.handling.steps import BenchStage
from piecing.joining.order import Order, orders
from piecing.joining.pressing import Press, pressing_map
from piecing.lengths import inches

from .blocks import grid

SQUARES = {"A": {"kind": "plain_square", "fabrics": "a"}, "B": {"kind": "plain_square", "fabrics": "b"}}
NINE = grid(["A0 B0 A0", "B0 A0 B0", "A0 B0 A0"], SQUARES)


def told(pattern: Pattern, order: Order, finished: str, *, mapped: bool = False) -> dict[str, str]:
    """By key: the title, what is done and what to look for."""
    pressed = pressing_map(pattern, order, {"a": 3, "b": 0}) if mapped else None
    steps = join_steps(pattern, order, inches(finished), inches("1/4"), inches("1/8"), pressed)
    said = {s.key: " ".join(str(m) for m in (s.title, *s.said, *s.look)) for s in steps}
    return {k: v.replace("\u00a0", " ").replace("  ", " ") for k, v in said.items()}


class RowsTest(TestCase):
    def test_three_rows_of_three(self) -> None:
        """Squares finishing 3: a row is 9 1/2 by 3 1/2, and where two rows meet there are two crossings."""
        steps = told(NINE, Order.ROWS, "9")
        self.assertEqual(
            [k for k in steps if k.startswith("join")], [f"join 0,{n},3,{n + 1}" for n in range(3)] + ["join 0,0,3,3"]
        )
        for n in range(3):
            self.assertIn(f"Row {n + 1}: lay columns 1, 2 and 3 side by side.", steps[f"join 0,{n},3,{n + 1}"])
        self.assertIn("sew the right edge. It measures 9 1⁄2″ by 3 1⁄2″", steps["join 0,0,3,1"])
        self.assertIn("Lay row 1, row 2 and row 3 one below the other.", steps["join 0,0,3,3"])
        self.assertIn("sew the lower edge. Pin the 2 crossings first, then the ends.", steps["join 0,0,3,3"])
        self.assertIn("It measures 9 1⁄2″ by 9 1⁄2″", steps["join 0,0,3,3"])
        self.assertIn("9 1⁄2″ by 3 1⁄2″", steps["press 0,1,3,2"])

    def test_one_crossing(self) -> None:
        steps = told(grid(["A0 B0", "B0 A0"], SQUARES), Order.ROWS, "6")
        self.assertIn("Row 2: lay columns 1 and 2 side by side.", steps["join 0,1,2,2"])
        self.assertIn("Pin the crossing first", steps["join 0,0,2,2"])

    def test_a_long_row_is_told_by_its_ends_and_joined_in_pairs(self) -> None:
        """Seven finishing 2 each: 14 1/2 by 2 1/2, six crossings."""
        steps = told(grid(["A0 B0 A0 B0 A0 B0 A0"] * 2, SQUARES), Order.ROWS, "14")
        self.assertIn("Row 1: lay columns 1 to 7 side by side.", steps["join 0,0,7,1"])
        self.assertIn("Join them in pairs, then pairs of pairs: so the row does not bow.", steps["join 0,0,7,1"])
        self.assertIn("It measures 14 1⁄2″ by 2 1⁄2″", steps["join 0,0,7,1"])
        self.assertIn("Pin the 6 crossings first", steps["join 0,0,7,2"])

    def test_three_are_joined_one_after_another(self) -> None:
        self.assertNotIn("in pairs", " ".join(told(NINE, Order.ROWS, "9").values()))


class ColumnsTest(TestCase):
    def test_three_columns_of_three(self) -> None:
        steps = told(NINE, Order.COLUMNS, "9")
        for n in range(3):
            self.assertIn(f"Column {n + 1}: lay rows 1, 2 and 3 one below the other.", steps[f"join {n},0,{n + 1},3"])
        self.assertIn("It measures 3 1⁄2″ by 9 1⁄2″", steps["join 1,0,2,3"])
        self.assertIn("Lay column 1, column 2 and column 3 side by side.", steps["join 0,0,3,3"])


class PressedTest(TestCase):
    def test_by_the_map_dark_squares_take_both_allowances(self) -> None:
        """In a chequer of dark a and light b each seam goes to its dark square: rows press away from each other and nest."""
        steps = told(NINE, Order.ROWS, "9", mapped=True)
        # Dark, light, dark: face down too the seam on the left goes left and the one on the right goes right; in the row below,
        # light, dark, light, both go to the middle.
        self.assertIn("Seen from the back, from left to right: left, right.", steps["press 0,0,3,1"])
        self.assertIn("Seen from the back, from left to right: right, left.", steps["press 0,1,3,2"])
        self.assertIn("nest", steps["join 0,0,3,3"])

    def test_one_after_the_other_from_the_side_that_lies_left_on_the_back(self) -> None:
        """Dark, three light, dark: the seam beside the dark square on the right goes to it; face down it comes first, and goes left."""
        steps = told(grid(["A0 B0 B0 B0 A0"], SQUARES), Order.ROWS, "10", mapped=True)
        said = next(v for k, v in steps.items() if k.startswith("press"))
        self.assertRegex(said, r"from left to right: (left|\d times left).*, right\.")

    def test_columns_from_top_to_bottom(self) -> None:
        """Dark, light, dark one below the other: up and down, as on the front."""
        steps = told(NINE, Order.COLUMNS, "9", mapped=True)
        self.assertIn("Seen from the back, from top to bottom: up, down.", steps["press 0,0,1,3"])
        self.assertIn("Seen from the back, from top to bottom: down, up.", steps["press 1,0,2,3"])


class TipsTest(TestCase):
    """Where the tips at the edge stand is said where slanting seams end there, and nowhere else."""

    SAID = "Every tip stands 1⁄4″ from the raw edge."

    def test_plain_squares_have_none(self) -> None:
        self.assertFalse([k for k, v in told(NINE, Order.ROWS, "9").items() if "tip" in v])

    def test_of_two_rows_only_the_one_with_a_diagonal(self) -> None:
        half = {"kind": "half_square_triangle", "fabrics": "ab"}
        steps = told(grid(["A0 H0", "B0 A0"], {**SQUARES, "H": half}), Order.ROWS, "6")
        self.assertIn(self.SAID, steps["join 0,0,2,1"])
        self.assertNotIn("tip", steps["join 0,1,2,2"])
        self.assertIn(self.SAID, steps["join 0,0,2,2"])

    def test_a_diagonal_in_the_middle_reaches_no_edge(self) -> None:
        half = {"kind": "half_square_triangle", "fabrics": "ab"}
        steps = told(grid(["A0 B0 A0", "B0 H0 B0", "A0 B0 A0"], {**SQUARES, "H": half}), Order.ROWS, "9")
        self.assertIn(self.SAID, steps["join 0,1,3,2"])
        self.assertNotIn("tip", steps["join 0,0,3,3"])


class OpenTest(TestCase):
    def test_seams_that_the_map_opens(self) -> None:
        """All pressed open: said once with the number of seams, and to no side."""
        found = pressing_map(NINE, Order.ROWS, {"a": 2, "b": 0})
        opened = replace(found, pressed=tuple(replace(p, way=Press.OPEN) for p in found.pressed))
        steps = join_steps(NINE, Order.ROWS, inches(9), inches("1/4"), inches("1/8"), opened)
        (last,) = [s for s in steps if s.key == "press 0,0,3,3"]
        said = " ".join(map(str, last.said))
        self.assertIn("Press the seams open: bulk gathers here.", said)
        self.assertNotIn("Seen from the back", said)


class WhereTest(TestCase):
    def test_crossings_by_their_distance_from_the_raw_end(self) -> None:
        """Squares finishing 3: the first crossing of two rows lies 3 in. and an allowance from the left, the second 3 more."""
        rows = told(NINE, Order.ROWS, "9", mapped=True)["join 0,0,3,3"]
        self.assertIn("Crossings at 3 1⁄4″ and 6 1⁄4″ from the left", rows)
        columns = told(NINE, Order.COLUMNS, "9", mapped=True)["join 0,0,3,3"]
        self.assertIn("Crossings at 3 1⁄4″ and 6 1⁄4″ from the top", columns)

    def test_from_the_top_down(self) -> None:
        """Rows finishing 4 and 2: the crossing of two columns lies 4 1/4 from the top, 2 1/4 from the foot."""
        oblong = {"kind": "rectangle", "fabrics": "b"}
        uneven = grid(["A0 R1", "R0 A0"], {**SQUARES, "R": oblong}, rows=[2, 1], columns=[2, 1])
        columns = told(uneven, Order.COLUMNS, "6", mapped=True)["join 0,0,3,3"]
        self.assertIn("at 4 1⁄4″ from the top", columns)
        rows = told(uneven, Order.ROWS, "6", mapped=True)["join 0,0,3,3"]
        self.assertIn("at 4 1⁄4″ from the left", rows)

    def test_the_middle_crossing_comes_first_where_the_last_seam_has_it(self) -> None:
        said = "Begin at the crossing in the middle and sew outward"
        self.assertIn(said, told(grid(["A0 B0", "B0 A0"], SQUARES), Order.ROWS, "6")["join 0,0,2,2"])
        self.assertIn(said, told(grid(["A0 B0", "B0 A0"], SQUARES), Order.COLUMNS, "6")["join 0,0,2,2"])
        # Of three rows none meets in the middle; of two rows of three no corners do.
        self.assertNotIn(said, " ".join(told(NINE, Order.ROWS, "9").values()))
        self.assertNotIn(said, " ".join(told(grid(["A0 B0 A0", "B0 A0 B0"], SQUARES), Order.ROWS, "9").values()))


class RoundTest(TestCase):
    """Four strips round a middle square, each as long as two squares: of the first seam half is sewn, so that the fourth strip finds
    its way under it."""

    def test_which_half_is_sewn_first_and_in_which_order_one_goes_round(self) -> None:
        """The strip above stands out on the left of the middle and is even with it on the right; to that even edge, two squares long,
        the right one is joined, and so round."""
        pattern = library_pattern("capstan")
        said = told(pattern, orders(pattern)[0].order, "12")["join 0,0,3,3"]
        self.assertIn("Begin with row 2, column 2. Lay row 1, column 1 on it, flush on the right: begin there", said)
        self.assertIn("sew only half of that seam. It stays open where that one stands out", said)
        self.assertIn(
            "go round: join row 1, column 3, row 3, column 2 and row 2, column 1, each along its whole edge", said
        )
        self.assertIn("Sew the other half of the first seam last. It measures 12 1⁄2″ by 12 1⁄2″", said)

    def test_the_other_way_round_it_is_even_on_the_left(self) -> None:
        pattern = whole_mirrored(library_pattern("capstan"))
        said = told(pattern, orders(pattern)[0].order, "12")["join 0,0,3,3"]
        first = re.search(
            r"Lay (row \d, column \d) on it, flush (on the left|on the right|at the top|at the foot)", said
        )
        assert first is not None
        # Mirrored, the strips stand out the other way: even with the middle where, as drawn, they stood out.
        ends = {"row 1, column 2": "on the left", "row 3, column 1": "on the right",
                "row 1, column 1": "at the foot", "row 2, column 3": "at the top"}  # fmt: skip
        self.assertEqual(ends[first[1]], first[2])


class CentreTest(TestCase):
    """A centre laid by hand: two blocks that finish 6 with a strip that finishes 1 between them."""

    def test_strips_between_finished_blocks_are_cut_to_what_those_measure(self) -> None:
        star, strip = BlockPlacement("star", library_pattern("pinwheel")), UnitPlacement("rectangle", ("a",))
        places = (Place(0, 0, star), Place(1, 0, strip), Place(2, 0, star))
        six, one = Fraction(6), Fraction(1)
        centre = Pattern("Centre", (six, one, six), (six,), places)
        for apart, measured in ((frozenset({0, 2}), True), (frozenset[int](), False)):
            steps = join_steps(centre, Order.ROWS, inches(13), inches("1/4"), inches("1/8"), None, apart)
            last = " ".join(str(m) for m in next(s for s in reversed(steps) if s.stage is BenchStage.JOIN).said)
            said = "The plain strip in it is cut only now, to the mean of three lengths of what it joins; the plan has 6 1⁄2″."
            self.assertEqual(said in last.replace("\u00a0", " "), measured)
