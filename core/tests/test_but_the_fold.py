"""What keeps a block from being called true when every seam lies on its mark: a fold that lengths leave room for.

Two geese one above the other finish 5 1/2: one seam between them, so that the column measures 6. A fabric loses 1/4 to it, and half of
what the fold takes besides.
"""

from __future__ import annotations

from unittest import TestCase

from piecing.blocks.library import library_pattern
from piecing.diagnosis.asking import next_readings
from piecing.diagnosis.causes import Cause
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import changes_for_the_rest, done_first, remedies_of
from piecing.diagnosis.verdict import Status
from piecing.lengths import inches

from .test_first_readings import strips
from .test_more_trials import GOOSE, HST, QUARTERS, F, S, lines, missed, seams, widths
from .trials import plain, read, scene

PAIR = scene(library_pattern("goose_pair"), "11/2")


def geese(column: str) -> list[Reading]:
    """One seam is read, twice, and a strip test; a tip lies a 1/32 within its seam."""
    return [
        *read("edge_tip", "-1/32", feature="tip c1r2 top"),
        *lines(column, of="column"),
        *seams("1/4", spot="end"),
        *seams("7/32"),
        *read("strip_test", "1", whole=inches("7/2")),
        *read("miss", "0", unit="c1r1", corner="bottom left"),
    ]


class ButTheFoldTest(TestCase):
    def test_a_sixteenth_short_over_one_seam_is_not_true(self) -> None:
        """Half of it is 1/32 of each fabric, which neither the stitching nor the strips account for; a diagonal of each was read."""
        self.assertNotIn("All is true", plain(PAIR.judge(*geese("5 15/16")).said))
        given = [*geese("5 15/16"), *missed("c1r2", "0")]
        v = PAIR.judge(*given)
        self.assertIs(v.status, Status.UNSETTLED)
        self.assertEqual(plain(v.said), "All is true so far, but for the fold")
        self.assertIn("a thread more of each fabric than is allowed for", plain(v.why))

    def test_one_reads_on_before_anything_is_done(self) -> None:
        found = PAIR.infer(*geese("5 15/16"))
        v = PAIR.judge(*geese("5 15/16"))
        self.assertTrue(next_readings(found, v)[0].needed)
        self.assertIsNone(done_first(v, remedies_of(found, v), changes_for_the_rest(found, v)))

    def test_a_thirty_second_short_over_two_seams_is_true(self) -> None:
        """Within what anyone trims and sews: seven readings, none off by more than a 1/32."""
        for rows in (["12 15/32"] * 2, ["12 15/32"] * 3, ["12 17/32"] * 2):
            given = [*QUARTERS, *lines(*rows), *widths(GOOSE, "6 1/2", "6 1/2")]
            self.assertIs(S.judge(*given).status, Status.TRUE, rows)


class LooksJustSoTest(TestCase):
    """Sixteen half-square triangles; rows short by 1/8 over six fabrics, and each seam on its mark from the back: a fold of 1/24 would do that,
    and so would units trimmed a 1/32 small, of which there are four in a row."""

    GIVEN = (*lines("12 3/8", "12 3/8", "12 3/8"), *seams(*["1/4"] * 4))

    def test_while_no_unit_was_measured_one_is_asked_for(self) -> None:
        v = F.judge(*self.GIVEN)
        self.assertIs(v.status, Status.UNSETTLED)
        self.assertTrue(plain(v.why).endswith("Units that are a little small look just so: measure one."))
        first = next_readings(F.infer(*self.GIVEN), v)[0].reading
        self.assertIn(first.kind, (ReadingKind.WIDTH, ReadingKind.HEIGHT))

    def test_strips_that_lose_a_quarter_each_deny_it(self) -> None:
        """Three strips of 1 1/2: the middle one 1, all three 3 1/2, as if nothing were folded; 31/32 and 3 7/16 where it takes a 1/32."""
        given = [*self.GIVEN, *widths(HST, "3 1/2", "3 1/2")]
        v = F.judge(*given, *strips("31/32", "55/16"))
        assert v.leading is not None
        self.assertIs(v.leading.cause, Cause.FOLD)
        v = F.judge(*given, *strips("1", "7/2"))
        self.assertIs(v.status, Status.UNSETTLED)
        self.assertIn("the strips that were sewn for a test do not show it", plain(v.why))
        first = next_readings(F.infer(*given, *strips("1", "7/2")), v)[0].reading
        self.assertIn(first.kind, (ReadingKind.WIDTH, ReadingKind.HEIGHT, ReadingKind.STRIP_TEST))
