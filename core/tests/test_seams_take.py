"""What seams take too much of each fabric is said, and mended, where stitching and fold are not told apart.

A block of four by four units of three has, in each row, three seams, and so six allowances; its rows are 12 1/2 from raw edge to
raw edge. What they are short by, over six, is what a seam takes too much of each fabric. By hand.
"""

from unittest import TestCase

from piecing.diagnosis.causes import Cause
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import changes_for_the_rest, remedies_of
from piecing.diagnosis.verdict import Status, Verdict, judge

from .trials import FOUR_BY_FOUR, plain, read

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
        short = (*rows(*["12 5/16"] * 3), TRUE_UNITS[0])
        middles = read("stitch", "1/4", "9/32", spot="middle")
        self.assertNotIn("too much", plain(judged(*short, *middles).said))
        ends = (*read("stitch", "9/32", spot="start"), *read("stitch", "1/4", spot="end"))
        self.assertIn("too much", plain(judged(*short, *ends).said))
