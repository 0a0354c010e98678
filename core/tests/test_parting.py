"""What is asked for while nothing leads, and what keeps a block from being called true: by how far what is off would move a reading.

A grid of sixteen half-square triangles finishing 3, the block 12: units of 3 1/2, four in a row. A 1/32 in the size of every unit makes a
row 1/8 longer, one unit 1/32; a ruler's mark is 1/32.
"""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

import numpy as np

from piecing.blocks.library import library_pattern
from piecing.diagnosis.asking import next_readings
from piecing.diagnosis.bearing import is_denied
from piecing.diagnosis.causes import Cause, Parameter
from piecing.diagnosis.equations import equation_of
from piecing.diagnosis.inference import infer
from piecing.diagnosis.parting import partings
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.verdict import Status, judge
from piecing.lengths import inches

from .test_more_trials import GOOSE, HST, QUARTERS, F, S, heights, lines, missed, seams, widths
from .trials import plain, read, scene

LENGTHS = [*lines("12 1/2", "12 1/2"), *lines("12 1/2", "12 1/2", of="column")]
SIZES = [*LENGTHS, *QUARTERS, *widths(HST, "3 1/2", "3 1/2")]


def worth(given: list[Reading], *asked: Reading, mark: str = "1/32") -> list[float]:
    found = infer(F.model, given, raw=F.raw, resolution=inches(mark))
    equations = [equation_of(r, F.model, inches(mark), F.raw) for r in asked]
    return [float(x) for x in partings(found, asked, equations)]


class WorthTest(TestCase):
    def test_it_is_a_chance(self) -> None:
        asked = [*widths(HST, "3 1/2"), *missed("c1r1", "0"), *lines("12 1/2"), *QUARTERS[:1]]
        for x in worth(SIZES, *asked):
            self.assertGreater(x, 0.0)
            self.assertLess(x, 1.0)

    def test_what_was_not_looked_at_parts_better_than_what_was(self) -> None:
        """Two widths and four lengths lie on their marks; where a diagonal lies none of them tells."""
        width, miss = worth(SIZES, *widths(HST, "3 1/2"), *missed("c1r1", "0"))
        self.assertGreater(miss, 2 * width)

    def test_of_one_looked_at_once_another_tells_more_than_the_same_again(self) -> None:
        """The same corner shows the same mark again."""
        again, other = worth([*SIZES, *missed("c1r1", "0")], *missed("c1r1", "0"), *missed("c2r2", "0"))
        self.assertGreater(other, 1.2 * again)

    def test_each_one_more_tells_less(self) -> None:
        one, two, three = (missed(u, "0") for u in ("c1r1", "c2r2", "c4r1"))
        told = [worth([*SIZES, *before], *missed("c3r4", "0"))[0] for before in ([], one, one + two, one + two + three)]
        self.assertEqual(told, sorted(told, reverse=True))

    def test_how_much_a_known_cause_comes_to_is_another_question(self) -> None:
        """Two diagonals off to the same side, by a mark and by two: a third tells which of them it is, and hardly whether."""
        known = [*missed("c1r1", "1/32"), *missed("c3r3", "1/16")]
        self.assertLess(worth([*SIZES, *known], *missed("c1r4", "0"))[0], 0.02)

    def test_a_coarse_ruler_tells_less(self) -> None:
        """Sixteenths show a 1/32 by chance alone."""
        fine, coarse = (worth(SIZES, *missed("c1r1", "0"), mark=m)[0] for m in ("1/32", "1/16"))
        self.assertGreater(fine, 1.2 * coarse)

    def test_a_row_shows_what_four_units_are_off_by_together(self) -> None:
        """Once it is known how deep the seams lie, which it shows six times over as well."""
        row, width = worth([*QUARTERS, *QUARTERS], *lines("12 1/2"), *widths(HST, "3 1/2"))
        self.assertGreater(row, width)

    def test_the_order_of_readings_does_not_matter(self) -> None:
        asked = [*widths(HST, "3 1/2"), *missed("c1r1", "0"), *heights(HST, "3 1/2")]
        np.testing.assert_allclose(worth(SIZES, *asked), worth(SIZES[::-1], *asked), rtol=1e-6)
        np.testing.assert_allclose(worth(SIZES, *asked), worth(SIZES, *asked[::-1])[::-1], rtol=1e-6)


class AskedTest(TestCase):
    def asked(self, *given: Reading) -> Reading:
        found = F.infer(*given)
        return next_readings(found, F.judge(*given), raw=F.raw)[0].reading

    def test_where_diagonals_lie_is_looked_at_when_sizes_were(self) -> None:
        self.assertIn(self.asked(*SIZES).kind, (ReadingKind.MISS, ReadingKind.CORNER_GAP))

    def test_one_unit_off_by_a_mark_is_asked_about_on_another(self) -> None:
        asked = self.asked(*SIZES, *missed("c1r1", "1/32"))
        self.assertIs(asked.kind, ReadingKind.MISS)
        self.assertNotEqual(asked.unit, "c1r1")


class TrueTest(TestCase):
    def test_a_mark_off_on_the_one_unit_looked_at_is_not_true(self) -> None:
        """All units may lie so, or this one."""
        self.assertIs(F.judge(*SIZES, *missed("c1r1", "1/32")).status, Status.UNSETTLED)
        self.assertIs(F.judge(*SIZES, *missed("c1r1", "1/32"), *missed("c2r2", "0")).status, Status.UNSETTLED)

    def test_two_others_on_their_mark_make_it_one(self) -> None:
        given = [*SIZES, *missed("c1r1", "1/32"), *missed("c2r2", "0"), *missed("c4r1", "0")]
        self.assertIs(F.judge(*given).status, Status.TRUE)

    def test_by_a_coarse_ruler_one_unit_is_not_enough(self) -> None:
        """A 1/32 lies halfway between two sixteenths, and shows as the one or the other."""
        given = [*SIZES, *QUARTERS, *widths(HST, "3 1/2", "3 1/2")]
        for units, wanted in (("c1r1",), Status.UNSETTLED), (("c1r1", "c2r2", "c4r1"), Status.TRUE):
            misses = [r for u in units for r in missed(u, "0")]
            found = infer(F.model, [*given, *misses], raw=F.raw, resolution=inches("1/16"))
            self.assertIs(judge(found).status, wanted, units)

    def test_what_was_read_on_its_mark_once_will_do(self) -> None:
        self.assertIs(F.judge(*SIZES, *missed("c1r1", "0")).status, Status.TRUE)

    def test_one_more_on_its_mark_does_not_take_it_back(self) -> None:
        """Two geese of 5 1/2 by 2 3/4, all on their marks but the height of both, which reads a 1/32 short, and one seam a 1/32 narrow. The
        tip of the upper one was read, a diagonal of either is: with each the fold is known a little less badly."""
        pair = scene(library_pattern("goose_pair"), "11/2")
        given = [
            *read("edge_tip", "0", feature="tip c1r2 top"), *lines("5 31/32", of="column"), *missed("c1r1", "0"),
            *seams("1/4", spot="start"), *seams("1/4", spot="end"), *seams("7/32"),
        ]  # fmt: skip
        self.assertIs(pair.judge(*given).status, Status.TRUE)
        self.assertIs(pair.judge(*given, *missed("c1r2", "0")).status, Status.TRUE)

    def test_squares_that_nobody_measured_answer_through_their_rows(self) -> None:
        """Geese, seams and rows on their marks; with every row a 1/16 over, its two squares would be a 1/32 each."""
        given = [*QUARTERS, *widths(GOOSE, "6 1/2", "6 1/2"), *heights(GOOSE, "3 1/2")]
        self.assertIs(S.judge(*given, *lines("12 1/2", "12 1/2")).status, Status.TRUE)
        self.assertIsNot(S.judge(*given, *lines("12 9/16", "12 9/16", "12 9/16")).status, Status.TRUE)


class TwoTogetherTest(TestCase):
    def test_a_row_and_a_width_do_not_tell_two(self) -> None:
        """A row 9/16 short, one unit a 1/16 small: four such units make a quarter of it, and seams, or this one row, the rest."""
        given = [*lines("11 15/16"), *widths(HST, "3 7/16")]
        self.assertIs(F.judge(*given).status, Status.UNSETTLED)


class FoldTest(TestCase):
    """Rows 1/8 short over six fabrics, seams and units on their marks: 1/48 of each, that a fold takes, or seams a thread wide take."""

    GIVEN = (*lines("12 3/8", "12 3/8"), *QUARTERS, *widths(HST, "3 1/2", "3 1/2"))

    def test_two_rows_leave_it_open_between_them(self) -> None:
        v = F.judge(*self.GIVEN)
        self.assertIs(v.status, Status.UNSETTLED)
        self.assertIn("sew a strip test", plain(v.why))

    def test_strips_are_asked_for(self) -> None:
        found = F.infer(*self.GIVEN)
        self.assertIs(next_readings(found, judge(found))[0].reading.kind, ReadingKind.STRIP_TEST)


class DeniedTest(TestCase):
    """Every row 3/16 short over six fabrics, units true: 1/32 of each fabric."""

    ROWS = (*lines("12 5/16", "12 5/16"), *lines("12 5/16", of="column"), *widths(HST, *["3 1/2"] * 3))

    def led_by(self, mark: str) -> Cause | None:
        found = infer(F.model, [*self.ROWS, *QUARTERS], raw=F.raw, resolution=inches(mark))
        verdict = judge(found)
        return verdict.leading.cause if verdict.leading else None

    def test_seams_that_read_a_quarter_by_thirty_seconds_are_not_wide(self) -> None:
        self.assertIs(self.led_by("1/32"), Cause.FOLD)

    def test_by_sixteenths_they_may_be(self) -> None:
        """A seam of 9/32 reads a quarter as often as not."""
        found = infer(F.model, [*self.ROWS, *QUARTERS], raw=F.raw, resolution=inches("1/16"))
        self.assertFalse(is_denied(found, replace(found.estimate(Parameter(Cause.SEAM)), size=1 / 32)))
        self.assertTrue(is_denied(found, replace(found.estimate(Parameter(Cause.SEAM)), size=1 / 16)))
