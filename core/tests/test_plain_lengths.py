"""Plain cases at the bench of lengths that do not say by themselves why they are off: measured from seam to seam, shorter along one edge,
of units that are not joined yet, of one unit of a row. Each worked by hand before it was typed.

A grid of sixteen half squares finishing 12 measures 12 1/2 before it is joined, its units 3 1/2.
"""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from piecing.blocks.library import library_pattern
from piecing.diagnosis.asking import next_readings
from piecing.diagnosis.bearing import bow_of
from piecing.diagnosis.causes import Cause
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import changes_for_the_rest, remedies_of
from piecing.diagnosis.verdict import Status
from piecing.lengths import inches

from .test_more_trials import GOOSE, HST, QUARTERS, F, S, heights, lines, seams, widths
from .trials import plain, read, scene, seen

UNITS = widths(HST, "3 1/2", "3 1/2", "3 1/2")


class SeamToSeamTest(TestCase):
    """Units and seams are right, and all that they were joined to reads 12."""

    given = [*read("block_width", "12", "12"), *read("block_height", "12", "12"), *QUARTERS, *UNITS]

    def test_it_is_the_finished_size(self) -> None:
        v = F.judge(*self.given)
        self.assertIs(v.status, Status.MISTAKE)
        self.assertEqual(plain(v.said), "what is joined was measured from seam to seam: it reads 1⁄2″ too short")

    def test_it_is_measured_again_and_nothing_unpicked(self) -> None:
        found = F.infer(*self.given)
        (first, *others) = remedies_of(found, F.judge(*self.given))
        self.assertEqual(plain(first.title), "Measure one of them again, from raw edge to raw edge")
        self.assertIn("It should be 1⁄2″ longer so", plain(first.how))
        self.assertIn("add 1⁄4″ for each seam", plain(first.how))
        self.assertEqual((others, first.minutes), ([], 1))
        self.assertEqual(changes_for_the_rest(found, F.judge(*self.given)), ())

    def test_rows_alone_may_be_short_for_their_seams(self) -> None:
        for given in (lines("12", "12", "12"), [*lines("12", "12"), *seams("5/16", "5/16")]):
            self.assertIsNot(F.judge(*given).status, Status.MISTAKE)

    def test_one_that_is_not_so_short_denies_it(self) -> None:
        self.assertNotIn("from seam to seam", plain(F.judge(*lines("12", "12 1/4", "12"), *QUARTERS, *UNITS).said))

    def test_units_at_their_finished_size_too_are_another_mistake(self) -> None:
        v = F.judge(*lines("12", "12"), *widths(HST, "3", "3"))
        self.assertIs(v.status, Status.MISTAKE)
        self.assertNotIn("from seam to seam", plain(v.said))


class BowTest(TestCase):
    """Two rows measure 12 1/2 along their upper edge and an eighth less along their lower one."""

    given = [*lines("12 1/2", "12 1/2", edge="top"), *lines("12 3/8", "12 3/8", edge="bottom")]

    def test_what_is_seen_is_said_and_the_seams_are_asked_for_at_that_end(self) -> None:
        for given in (self.given, [*seen("bowed"), *self.given]):
            v = F.judge(*given)
            self.assertIs(v.status, Status.UNSETTLED)
            self.assertIn("The rows read 1⁄8″ less along their lower edge than along their upper one", plain(v.why))
            first = next_readings(F.infer(*given), v, raw=F.raw)[0]
            self.assertEqual((first.reading.seam, first.reading.spot), ("row 1 seam 1", "end"))
            self.assertIn("measure row 1 seam 1 at its lower end", plain(first.said))

    def test_read_there_they_run_a_little_deeper(self) -> None:
        given = [*self.given, *seams("9/32", "9/32", "9/32", spot="end"), *seams("1/4", "1/4", spot="start")]
        v = F.judge(*given)
        self.assertIn("their seams run a little deeper there", plain(v.why))
        first = next_readings(F.infer(*given), v, raw=F.raw)[0].reading
        self.assertFalse(first.kind is ReadingKind.STITCH and first.spot == "end")

    def test_read_there_they_are_right(self) -> None:
        v = F.judge(*self.given, *seams("1/4", "1/4", spot="end"))
        self.assertIs(v.status, Status.UNSETTLED)
        self.assertIn("and seams are right there: measure both edges once more", plain(v.why))

    def test_a_quarter_is_named(self) -> None:
        v = F.judge(*lines("12 1/2", "12 1/2", edge="top"), *lines("12 1/4", "12 1/4", edge="bottom"))
        assert v.leading is not None
        self.assertIs(v.leading.cause, Cause.END)

    def test_by_columns_and_at_the_near_edge(self) -> None:
        given = [
            *lines("12 3/8", "12 3/8", of="column", edge="left"),
            *lines("12 1/2", "12 1/2", of="column", edge="right"),
        ]
        bow = bow_of(F.infer(*given))
        assert bow is not None
        self.assertEqual((bow.kind, bow.edge, bow.spot, round(bow.by, 4)), (ReadingKind.COLUMN, "left", "start", 0.125))

    def test_what_is_no_bow(self) -> None:
        both_ways = [*lines("12 1/2", "12 3/8", edge="top"), *lines("12 3/16", "12 7/16", edge="bottom")]
        apart = [*lines("12 1/2", "12 3/8", edge="top"), *lines("12 3/8", "12 1/2", edge="bottom")]
        little = [*lines("12 1/2", "12 1/2", edge="top"), *lines("12 7/16", "12 7/16", edge="bottom")]
        for given in (
            both_ways,
            apart,
            little,
            lines("12 1/2", "12 3/8"),
            [*lines("12 1/2", edge="top"), *read("row", "12 3/8", feature="row 2, bottom")],
        ):
            self.assertIsNone(bow_of(F.infer(*given)))


class NothingElseReadTest(TestCase):
    def test_no_end_of_seams_is_blamed_for_what_is_short_through_its_middle(self) -> None:
        """Units and seams true, the block 3/8 to 5/8 short: it is not said where nobody looked."""
        for short in ("12 1/8", "12 1/16", "11 7/8"):
            v = F.judge(*read("block_width", short), *read("block_height", short), *QUARTERS, *UNITS)
            self.assertIs(v.status, Status.UNSETTLED, short)
            self.assertFalse(v.leading is not None and v.leading.cause in (Cause.START, Cause.END), v.said)

    def test_units_as_they_come_from_the_machine_do_not_tell_seams_from_cutting(self) -> None:
        """Geese cut at the exact size (a goose square 1/4 less, a sky square 1/8) leave nothing to trim, as seams 3/32 wide would: nobody
        read either."""
        given = [*read("raw_height", *["3 1/2"] * 3, batch=GOOSE), *read("raw_width", "6 1/2", "6 1/2", batch=GOOSE)]
        v = S.judge(*given)
        self.assertIs(v.status, Status.UNSETTLED)
        self.assertIn(
            "Pieces cut small look just so: measure one as it was cut, or the stitching on the back", plain(v.why)
        )
        offered = remedies_of(S.infer(*given), v, S.plans)
        self.assertEqual([r.code for r in offered], ["wait"])
        self.assertNotIn("The block is short", plain(offered[0].how))
        self.assertEqual(plain(S.judge(*given, *seams("11/32", "11/32")).said), "all seams are 3⁄32″ wide")


class OneUnitTest(TestCase):
    given = [*widths(HST, *["3 1/2"] * 4), *seams("1/4", "1/4"), *lines("12 7/16", "12 1/2", "12 1/2")]
    small = Reading(ReadingKind.WIDTH, inches("55/16"), unit="c3r1")

    def test_read_twice_and_borne_out_by_its_row_it_is_named(self) -> None:
        for again in (self.small, replace(self.small, confirmed=True)):
            v = F.judge(*self.given, self.small, again)
            self.assertEqual(plain(v.said), "the unit in row 1, column 3 is 1⁄16″ too small across")

    def test_read_once_it_is_not(self) -> None:
        self.assertIs(F.judge(*self.given, self.small).status, Status.UNSETTLED)


class OblongTest(TestCase):
    def test_both_sides_of_the_mark_are_said(self) -> None:
        """The rails of a churn dash of 9 finish 3 by 1 1/2."""
        churn = scene(library_pattern("churn_dash"), "9")
        rails = next(b.key for b in churn.model.places.batches if b.kind == "rectangle")
        given = [*heights(rails, "1 15/16", "1 15/16"), *widths(rails, "3 7/16", "3 7/16"), *QUARTERS]
        v = churn.judge(*given)
        found = churn.infer(*given)
        (change,) = changes_for_the_rest(found, v)
        self.assertEqual(plain(change.title), "Cut the rectangles to 3 1⁄2″ by 2″, not 1⁄16″ less each way")
        again = next(r for r in remedies_of(found, v) if r.code.startswith("make_again"))
        self.assertIn("3 1⁄2″ by 2″. One that is right stays.", plain(again.how))
