"""What seams take too much of each fabric is said, and mended, where stitching and fold are not told apart.

A block of four by four units of three has, in each row, three seams, and so six allowances; its rows are 12 1/2 from raw edge to
raw edge. What they are short by, over six, is what a seam takes too much of each fabric. By hand.
"""

from unittest import TestCase

from piecing.blocks.library import library_pattern
from piecing.diagnosis.asking import next_readings
from piecing.diagnosis.causes import Cause
from piecing.diagnosis.reading_kinds import SIZES
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import changes_for_the_rest, remedies_of
from piecing.diagnosis.verdict import Status, Verdict, judge

from .test_first_readings import strips
from .trials import FOUR_BY_FOUR, plain, read, scene

F = FOUR_BY_FOUR()
HST = F.batch("half_square_triangle")
TRUE_UNITS = read("width", "7/2", "7/2", "7/2", batch=HST)


def rows(*sizes: str) -> list[Reading]:
    return [r for n, size in enumerate(sizes, 1) for r in read("row", size, feature=f"row {n}, middle")]


def judged(*readings: Reading) -> Verdict:
    return judge(F.infer(*readings))


class SeamsTakeTest(TestCase):
    def test_rows_say_how_much_where_the_back_does_not_say_of_what(self) -> None:
        """Six allowances, 3/16 short: 1/32 of each. The back reads a quarter or 9/32, so the fold takes some of it."""
        for back in (("1/4", "9/32", "9/32", "1/4"), ("1/4", "1/4", "1/4", "9/32")):
            with self.subTest(back):
                found = F.infer(*read("stitch", *back, spot="middle"), *rows(*["12 5/16"] * 3), *TRUE_UNITS)
                v = judge(found)
                self.assertEqual(v.status, Status.SETTLED)
                self.assertEqual(
                    plain(v.said), "all seams take 1⁄32″ too much of each fabric, by stitching and fold together"
                )
                self.assertEqual((v.leading and v.leading.cause, v.sure_words), (Cause.SEAM, "likely"))
                self.assertIn("row 1, through the middle: 3⁄16″ short", plain(v.why))
                change = changes_for_the_rest(found, v)[0]
                self.assertIn("by 1⁄32″", plain(change.how))
                first = remedies_of(found, v)[0]
                self.assertEqual(first.code, "all_seams")
                # Sewn anew as it says, the rows come to their length.
                assert first.change is not None
                after = F.model.deviations(first.change.of(found.block, found.mean))
                length = F.model.find("row 2, middle")
                assert length is not None
                self.assertAlmostEqual(float(after[length]), 0.0, delta=1 / 32)

    def test_what_the_back_says_alone_is_named_as_that(self) -> None:
        """All 9/32 on the back, rows short by as much: the stitching. All a quarter: the fold."""
        wide = judged(*read("stitch", *["9/32"] * 5, spot="middle"), *rows(*["12 5/16"] * 3), *TRUE_UNITS)
        self.assertEqual(plain(wide.said), "all seams are 1⁄32″ wide")
        fold = judged(*read("stitch", *["1/4"] * 5, spot="middle"), *rows(*["12 5/16"] * 3), *TRUE_UNITS)
        self.assertEqual(plain(fold.said), "the fold is not paid for: it takes 1⁄32″ of each fabric")

    def test_a_thread_is_not_said_so(self) -> None:
        """3/32 short over six is 1/64 of each, as much as a usual fold takes."""
        v = judged(*read("stitch", "1/4", "9/32", "1/4", spot="middle"), *rows(*["12 13/32"] * 3), *TRUE_UNITS)
        self.assertNotIn("together", plain(v.said))

    def test_true_rows_deny_it(self) -> None:
        v = judged(*read("stitch", "1/4", "9/32", "9/32", spot="middle"), *rows(*["12 1/2"] * 3), *TRUE_UNITS)
        self.assertNotIn("too much", plain(v.said))

    def test_units_trimmed_small_are_no_seams(self) -> None:
        """Four units of 3 15/32 are an eighth short of 14; the rows are short by just that."""
        small = read("width", *["3 15/32"] * 4, batch=HST)
        v = judged(*read("stitch", "1/4", "9/32", "1/4", spot="middle"), *rows(*["12 3/8"] * 3), *small)
        self.assertNotIn("too much", plain(v.said))

    def test_not_before_a_drift_would_have_shown(self) -> None:
        """Middles of seams and of rows alone say nothing of where seams begin and end; the same read at their ends does."""
        short = (*rows(*["12 5/16"] * 2), *TRUE_UNITS[:2])
        shorter = (*short, *rows(*["12 5/16"] * 3)[2:])
        middles = read("stitch", "1/4", "9/32", spot="middle")
        self.assertNotIn("too much", plain(judged(*short, *middles).said))
        ends = (*read("stitch", "9/32", spot="start"), *read("stitch", "1/4", spot="end"))
        self.assertIn("too much", plain(judged(*shorter, *ends).said))

    def test_one_unit_on_its_mark_is_not_enough(self) -> None:
        """Units 3/64 small each would make rows of four as short, and one of them may be right: another is asked for."""
        given = (*read("stitch", "1/4", "9/32", "9/32", "1/4", spot="middle"), *rows(*["12 5/16"] * 3))
        found = F.infer(*given, *TRUE_UNITS[:1])
        v = judge(found)
        self.assertIs(v.status, Status.UNSETTLED)
        self.assertTrue(plain(v.why).endswith("one by itself may be right: measure another."))
        self.assertIn(next_readings(found, v)[0].reading.kind, SIZES)
        self.assertIn("too much", plain(judged(*given, *TRUE_UNITS[:2]).said))

    def test_strips_that_lose_a_quarter_each_deny_it(self) -> None:
        """Three strips of 1 1/2: the middle one 1 and all three 3 1/2 lose a quarter each; 31/32 and 3 7/16 lose 1/64 more."""
        given = (*read("stitch", "1/4", "9/32", "9/32", "1/4", spot="middle"), *rows(*["12 5/16"] * 3), *TRUE_UNITS)
        self.assertIs(judged(*given, *strips("1", "7/2")).status, Status.UNSETTLED)
        self.assertIn("too much", plain(judged(*given, *strips("31/32", "55/16")).said))

    def test_two_seams_that_differ_leave_it_to_the_stitching(self) -> None:
        """Rows 1/4 short over six fabrics: more than a fold. One seam reads 9/32, one 7/32; a third and a fourth on their marks deny that it
        is the stitching."""
        given = (*rows(*["12 1/4"] * 3), *TRUE_UNITS[:2])
        two = (*read("stitch", "9/32", spot="start"), *read("stitch", "7/32", spot="end"))
        v = judged(*given, *two)
        self.assertEqual((v.status, v.leading and v.leading.cause), (Status.SETTLED, Cause.SEAM))
        v = judged(*given, *two, *read("stitch", "1/4", "1/4", spot="middle"))
        self.assertNotEqual(v.leading and v.leading.cause, Cause.SEAM)

    def test_a_fold_beside_small_units_is_what_they_and_the_stitching_leave_over(self) -> None:
        """Four units of 2 15/32 in a row, and rows of 8 3/16 in place of 8 1/2: 1/8 is theirs, and 3/16 over six fabrics a 1/32 of each. With one
        unit read, or two seams, they may be smaller, or these wide."""
        dishes = scene(library_pattern("broken_dishes"), "8")
        short = rows(*["8 3/16"] * 3)
        units = read("width", *["2 15/32"] * 3, batch=dishes.batch("half_square_triangle"))
        backs = read("stitch", *["1/4"] * 3, spot="middle")
        v = judge(dishes.infer(*short, *units, *backs))
        self.assertEqual(
            plain(v.said),
            "Two things together: half-square triangles trimmed 1⁄32″ too small; and the fold is not paid for: it takes 1⁄32″ of each fabric",
        )
        for fewer in ((*units[:1], *backs), (*units, *backs[:2])):
            self.assertIs(judge(dishes.infer(*short, *fewer)).status, Status.UNSETTLED)
