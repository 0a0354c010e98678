"""How deep to sew, and to what size to bring a block that is left as it is: by hand, on a star of geese and a grid of half squares.

A seam that was stitched at 3/16 in. leaves a tip 1/16 short of it; at 5/16 it cuts 1/16 off. What mends either is a quarter.
"""

from __future__ import annotations

from unittest import TestCase

import numpy as np

from piecing.diagnosis import Inference, judge
from piecing.diagnosis.faults import faults_of
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import changes_for_the_rest, of_whole, remedies_of
from piecing.diagnosis.remedies.remedy import Remedy, Work
from piecing.lengths import inches

from .trials import FOUR_BY_FOUR, STAR, Scene, plain, read

F, S = FOUR_BY_FOUR(), STAR()
HST, GEESE = F.batch("half_square_triangle"), S.batch("flying_goose")


def lines(value: str, places: tuple[int, ...], kind: str = "row") -> list[Reading]:
    return [r for n in places for r in read(kind, value, feature=f"{kind} {n}, middle")]


def offered(where: Scene, *readings: Reading) -> tuple[Inference, dict[str, Remedy]]:
    found = where.infer(*readings)
    return found, {r.code: r for r in remedies_of(found, judge(found), where.plans)}


NARROW = (*read("stitch", *["3/16"] * 5, spot="middle"), *lines("12 3/4", (1, 2, 4)))
"""A row of the star has two seams: four fabrics each lose 1/16 less than a quarter."""
WIDE = (*read("stitch", *["5/16"] * 5, spot="middle"), *lines("12 1/4", (1, 2, 4)))


class TipsTest(TestCase):
    def test_tips_that_float_are_sewn_to_the_quarter(self) -> None:
        _, remedies = offered(S, *NARROW)
        deeper = remedies["deeper_at_tips"]
        self.assertIn("Sew again at the tips, 1⁄4″ from the raw edge", plain(deeper.title))
        self.assertIn("Nothing is unpicked", plain(deeper.how))
        self.assertEqual(deeper.minutes, 4 * 2)

    def test_tips_that_are_cut_off_too_with_two_inches_unpicked(self) -> None:
        _, remedies = offered(S, *WIDE)
        shallower = remedies["shallower_at_tips"]
        self.assertRegex(plain(shallower.title), r"sew (a thread (over|under) )?1⁄4″ from the raw edge")
        self.assertIn("unpick two inches", plain(shallower.how))
        self.assertEqual(shallower.minutes, 4 * (3 + 2))

    def test_of_geese_trimmed_with_too_much_above_the_tip_the_seam_goes_down_to_it(self) -> None:
        """Seams are at a quarter, tips at 5/16: a thread under that, since the fold takes some."""
        _, remedies = offered(
            S, *read("clearance", *["5/16"] * 3, batch=GEESE), *read("height", "7/2", "7/2", batch=GEESE),
            *read("stitch", "1/4", "1/4", spot="middle"),
        )  # fmt: skip
        self.assertRegex(plain(remedies["deeper_at_tips"].title), r"(a thread under )?5⁄16″ from the raw edge")

    def test_below_three_sixteenths_no_seam_holds(self) -> None:
        """Tips left 1/8 from the edge want a seam at 1/8."""
        _, remedies = offered(
            S, *read("clearance", *["1/8"] * 4, batch=GEESE), *read("height", "7/2", "7/2", batch=GEESE),
            *read("stitch", "1/4", "1/4", "1/4", spot="middle"),
        )  # fmt: skip
        self.assertFalse(remedies["shallower_at_tips"].possible)


class AllSeamsTest(TestCase):
    def test_narrow_ones_over_the_old_line_and_wide_ones_unpicked(self) -> None:
        """Eight seams, two minutes to sew and three to unpick each."""
        for taken, minutes, unpicked in ((NARROW, 16, False), (WIDE, 40, True)):
            _, remedies = offered(S, *taken)
            with self.subTest(minutes):
                self.assertEqual(remedies["all_seams"].minutes, minutes)
                self.assertEqual("Unpick each" in plain(remedies["all_seams"].how), unpicked)

    def test_sewn_anew_the_rows_come_to_their_length_whatever_the_fold_takes(self) -> None:
        """Strips of 1 1/2 that show 15/16 in the middle, seams of a quarter: the fold takes 1/32 of each fabric, and all is made
        up by stitching at 7/32: then a fabric loses a quarter to a seam, and six of them leave the row its 12 1/2. What is forecast of
        it allows for a fold that is a little less than it was read."""
        strip = Reading(ReadingKind.STRIP_TEST, inches("15/16"), whole=inches("27/8"))
        taken = [
            strip, strip, *read("stitch", *["1/4"] * 6, spot="middle"), *lines("12 5/16", (1, 2, 3)),
            *lines("12 5/16", (1, 2, 3), "column"), *read("width", *["7/2"] * 3, batch=HST),
        ]  # fmt: skip
        found, remedies = offered(F, *taken)
        self.assertEqual(plain(remedies["all_seams"].title), "Sew all joining seams again at 7⁄32″")
        (guide,) = changes_for_the_rest(found, judge(found))
        self.assertEqual(plain(guide.title), "Stitch at 7⁄32″, not at 1⁄4″: 1⁄32″ less pays for the fold")
        self.assertIn("nearer to the needle by 1⁄32″", plain(guide.how))
        change = remedies["all_seams"].change
        assert change is not None
        before, after = (F.model.deviations(e) for e in (found.block, change.of(found.block, found.mean)))
        rows = [
            n for n, f in enumerate(F.model.features) if f.key in ("row 1, middle", "row 2, middle", "column 1, middle")
        ]
        self.assertTrue(np.all(before[rows] < -1 / 8), before[rows])
        self.assertTrue(np.all(np.abs(after[rows]) < 1 / 16), after[rows])


class UnitsTest(TestCase):
    def test_off_the_diagonal_by_an_eighth_root_two_of_it_comes_off(self) -> None:
        """The line lies 1/8 beside the corner; along the edge that is 0.177, nearest to 3/16."""
        taken = [*read("miss", *["1/8"] * 4, corner="bottom left", batch=HST), *read("width", "7/2", "7/2", batch=HST),
                 *read("height", "7/2", "7/2", batch=HST)]  # fmt: skip
        _, remedies = offered(F, *taken)
        trim, make = remedies["trim_again-0"], remedies["make_again-0"]
        self.assertIn("take 3⁄16″ off the fuller side", plain(trim.how))
        self.assertFalse(trim.possible)
        # Sixteen of them, six minutes each: nothing that was read says that they are joined.
        self.assertEqual(make.minutes, 16 * 6)
        self.assertIn(
            "Unpick them if they are joined. Make 16 new ones, and trim them to 3 1⁄2″ by 3 1⁄2″", plain(make.how)
        )


class WholeTest(TestCase):
    def test_a_block_that_is_small_is_brought_to_its_smallest_edge_on_the_mark_below(self) -> None:
        """Seams 1/24 wide take 1/4 of a row of four: the shortest reads a thread over 12 7/32 and finishes 11 23/32; a frame would make up
        1/8 a side, from strips of 1/8 and two allowances and a quarter to trim: 7/8, or the mark above."""
        taken = [*read("stitch", *["9/32"] * 5, spot="middle"), *lines("12 1/4", (1, 2)), *lines("12 15/64", (3,)),
                 *lines("12 1/4", (1, 2), "column")]  # fmt: skip
        found = F.infer(*taken)
        deviations = F.model.deviations(found.block)
        work = Work(found, judge(found), F.plans, faults_of(F.model, deviations), 1, deviations)
        offers = {r.code: r for r in of_whole.offers(work, cured=False)}
        how = plain(offers["bring_down"].how)
        self.assertIn("Trim every block to 12 7⁄32″", how)
        self.assertIn("each block finishes 11 23⁄32″", how)
        self.assertTrue(offers["bring_down"].spread)
        self.assertRegex(plain(offers["frame"].how), r"Cut strips (7⁄8|1)″ wide")
        self.assertIn("trim the block to 12 1⁄2″", plain(offers["frame"].how))

    def test_one_whose_cause_is_mended_is_not(self) -> None:
        self.assertNotIn("bring_down", offered(S, *WIDE)[1])
