"""The guide moved between two days of one project: each figure by hand for a grid of sixteen half squares finishing 12, 12 1/2 before it is
joined, whose rows lose two allowances at each of three seams.
"""

from __future__ import annotations

from unittest import TestCase

from piecing.diagnosis.asking import next_readings
from piecing.diagnosis.causes import Cause
from piecing.diagnosis.reading_kinds import ACROSS_SEAMS
from piecing.diagnosis.readings import Reading, two_settings
from piecing.diagnosis.remedies import changes_for_the_rest, remedies_of
from piecing.diagnosis.verdict import Status

from .test_more_trials import HST, F, lines, widths
from .trials import plain, read

MONDAY, FRIDAY = "2026-11-23", "2026-11-27"
UNITS = widths(HST, "3 1/2", "3 1/2")


def sewn(day: str, *values: str) -> list[Reading]:
    return read("stitch", *values, spot="middle", day=day)


class TwoSettingsTest(TestCase):
    mended = (*sewn(MONDAY, "5/16", "5/16", "5/16"), *sewn(FRIDAY, "1/4", "1/4", "1/4"), *UNITS)

    def test_it_is_said_and_a_row_is_asked_for(self) -> None:
        """Their mean of 9/32 is nobody's seam."""
        v = F.judge(*self.mended)
        self.assertIs(v.status, Status.UNSETTLED)
        self.assertIn(
            "Seams sewn on 23 November 2026 lie 5⁄16″ from the edge, those sewn on 27 November 2026 1⁄4″: the guide was moved. Measure a row",
            plain(v.why),
        )
        first = next_readings(F.infer(*self.mended), v, raw=F.raw)[0]
        self.assertIn(first.reading.kind, ACROSS_SEAMS)

    def test_a_block_of_the_first_day_is_mended_and_no_guide_moved(self) -> None:
        """Six fabrics of each row lose 1/16 more: 3/8 short."""
        given = [*self.mended, *lines("12 1/8", "12 1/8", "12 1/8")]
        found, v = F.infer(*given), F.judge(*given)
        self.assertEqual(plain(v.said), "all seams are 1⁄16″ wide")
        self.assertEqual(remedies_of(found, v)[0].code, "all_seams")
        self.assertEqual(changes_for_the_rest(found, v), ())

    def test_a_block_of_the_second_day_is_true(self) -> None:
        self.assertIs(F.judge(*self.mended, *lines("12 1/2", "12 1/2", "12 1/2")).status, Status.TRUE)

    def test_moved_for_the_worse_it_is_moved_back(self) -> None:
        given = [*sewn(MONDAY, "1/4", "1/4", "1/4"), *sewn(FRIDAY, "5/16", "5/16", "5/16"), *UNITS]
        self.assertIn("and not for the better. Sew a strip test", plain(F.judge(*given).why))
        given += lines("12 1/8", "12 1/8")
        found, v = F.infer(*given), F.judge(*given)
        assert v.leading is not None
        self.assertIs(v.leading.cause, Cause.SEAM)
        (change,) = changes_for_the_rest(found, v)
        self.assertIn("Stitch at 1⁄4″", plain(change.title))

    def test_what_is_one_setting(self) -> None:
        one = [
            [*sewn(MONDAY, "1/4", "9/32"), *sewn(FRIDAY, "9/32", "1/4")],
            [*sewn(MONDAY, "1/4", "1/4"), *sewn(FRIDAY, "9/32", "9/32")],
            [*sewn(MONDAY, "1/4", "1/4"), *sewn(FRIDAY, "5/16")],
            [*sewn(MONDAY, "1/4", "5/16"), *sewn(FRIDAY, "5/16", "3/8")],
            [*sewn("", "1/4", "1/4"), *sewn("", "5/16", "5/16")],
        ]
        for given in one:
            self.assertIsNone(two_settings(given))
        found = two_settings([*sewn(FRIDAY, "1/4", "1/4"), *sewn(MONDAY, "5/16", "11/32")])
        assert found is not None
        self.assertEqual((found.first, found.last), (MONDAY, FRIDAY))
        # Moved and moved back: what counts is where it stands now, and what it stood at before that.
        wednesday = "2026-11-25"
        back = two_settings(
            [*sewn(MONDAY, "1/4", "1/4"), *sewn(wednesday, "5/16", "5/16"), *sewn(FRIDAY, "1/4", "1/4")]
        )
        assert back is not None
        self.assertEqual((back.first, back.last), (wednesday, FRIDAY))
        stays = two_settings(
            [*sewn(MONDAY, "5/16", "5/16"), *sewn(wednesday, "1/4", "1/4"), *sewn(FRIDAY, "1/4", "1/4")]
        )
        assert stays is not None
        self.assertEqual((stays.first, stays.last), (MONDAY, FRIDAY))
        self.assertAlmostEqual(found.before, 21 / 64)
        self.assertAlmostEqual(found.after, 1 / 4)
