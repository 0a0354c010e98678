"""What does not fit together, as a teacher types it: readings that deny each other, one far off by itself, one place never looked at.

Worked out by hand for the 4 x 4 of half-square triangles: units 3 1/2 in. before they are joined, rows and columns 12 1/2 in.
"""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from piecing.diagnosis import Status, judge
from piecing.diagnosis.causes import Cause, Parameter
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import changes_for_the_rest, remedies_of

from .trials import FOUR_BY_FOUR, plain, read

F = FOUR_BY_FOUR()
HST = F.batch("half_square_triangle")


def lines(value: str, kind: str = "row", places: tuple[int, ...] = (1, 2, 3)) -> list[Reading]:
    return [r for n in places for r in read(kind, value, feature=f"{kind} {n}, middle")]


def stitched(value: str, *seams: str, spot: str = "middle") -> list[Reading]:
    return [r for s in seams for r in read("stitch", value, seam=s, spot=spot)]


UNITS = read("width", *["7/2"] * 3, batch=HST)
IN_ROWS = tuple(f"row {n} seam 1" for n in (1, 2, 3, 4))


class DeniedTest(TestCase):
    def test_seams_a_sixteenth_wide_would_make_rows_three_eighths_short(self) -> None:
        """They are not: neither the seams nor the rows are gone by."""
        taken = [*read("stitch", *["5/16"] * 4, spot="middle"), *lines("12 1/2"), *UNITS]
        verdict = F.judge(*taken)
        self.assertEqual(verdict.status, Status.DOUBTED)
        self.assertIn("4 of 10", plain(verdict.why))
        found = F.infer(*taken)
        self.assertEqual((remedies_of(found, verdict, F.plans), changes_for_the_rest(found, verdict)), ((), ()))

    def test_narrow_ones_too(self) -> None:
        taken = [*read("stitch", *["3/16"] * 4, spot="middle"), *lines("12 1/2"), *UNITS]
        self.assertEqual(F.judge(*taken).status, Status.DOUBTED)

    def test_rows_that_are_short_for_it_are_no_denial(self) -> None:
        """Three seams take 1/16 of either side: 3/8 in."""
        taken = [*read("stitch", *["5/16"] * 4, spot="middle"), *lines("12 1/8"), *UNITS]
        self.assertEqual(plain(F.judge(*taken).said), "all seams are 1⁄16″ wide")

    def test_seams_on_both_sides_of_a_quarter_are_a_hand_that_varies(self) -> None:
        taken = [*read("stitch", "3/16", "5/16", "1/4", "3/16", "5/16", "9/32", spot="middle"), *lines("12 1/2")]
        self.assertNotEqual(F.judge(*taken).status, Status.DOUBTED)

    def test_all_on_one_side_is_no_hand_that_varies(self) -> None:
        """Not one of them reads narrow: it would not be true that they lie on both sides."""
        for wide in (("5/16", "1/4", "5/16", "9/32", "1/4", "5/16"), ("5/16",) * 5):
            taken = [*read("stitch", *wide, spot="middle"), *lines("12 1/2")]
            with self.subTest(wide):
                self.assertNotEqual(F.judge(*taken).status, Status.VARIES)


class BorderTest(TestCase):
    def test_units_a_quarter_short_in_rows_that_are_true(self) -> None:
        """Were they so, a row of four would be an inch short."""
        verdict = F.judge(*read("width", *["13/4"] * 4, batch=HST), *lines("12 1/2"))
        self.assertEqual(verdict.status, Status.MISTAKE)
        self.assertEqual(plain(verdict.said), "every unit reads 1⁄4″ too short: the ruler's border was counted")
        self.assertIn("as long as true units make it", plain(verdict.why))

    def test_nothing_of_the_block_is_made_again_for_it(self) -> None:
        found = F.infer(*read("width", *["13/4"] * 4, batch=HST), *lines("12 1/2"))
        self.assertEqual([r.code for r in remedies_of(found, judge(found), F.plans)], ["measure_mark"])

    def test_rows_an_inch_short_are_units_a_quarter_short(self) -> None:
        verdict = F.judge(*read("width", *["13/4"] * 4, batch=HST), *lines("11 1/2"))
        self.assertIn("trimmed to the wrong mark of the ruler, 1⁄4″ too small", plain(verdict.said))

    def test_rows_a_quarter_short_as_well_are_a_border_at_everything(self) -> None:
        verdict = F.judge(*read("width", *["13/4"] * 4, batch=HST), *lines("12 1/4"))
        self.assertIn("everything reads 1⁄4″ too short", plain(verdict.said))


class ByItselfTest(TestCase):
    TRUE = (*lines("12 1/2"), *read("stitch", "1/4", "1/4", spot="middle"), *read("width", "7/2", "7/2", batch=HST))

    def test_one_length_an_eighth_off_is_read_again(self) -> None:
        """Nothing else says that the block is small: it is not called true over it, and nothing is blamed for it."""
        verdict = F.judge(*self.TRUE, *read("block_width", "12 3/8"), *read("block_height", "12 1/2"))
        self.assertEqual(verdict.status, Status.UNSETTLED)
        self.assertEqual(
            plain(verdict.why),
            "one block across: 1⁄8″ short, and nothing else that was measured says so. Read it again.",
        )

    def test_open_it_says_what_stands_out(self) -> None:
        """A column 1/8 long, one unit and one seam true: more has to be looked at, and it is not said that nothing is off."""
        verdict = F.judge(
            *lines("12 5/8", "column", (1,)), *read("width", "7/2", batch=HST), *read("stitch", "1/4", spot="middle")
        )
        self.assertEqual(verdict.status, Status.UNSETTLED)
        self.assertRegex(plain(verdict.why), r"^column 1, through the middle: 1⁄8″ over, and .* does not say why\.$")

    def test_with_nothing_off_it_says_so(self) -> None:
        why = plain(F.judge(*lines("12 1/2", "column", (1,)), *read("width", "7/2", batch=HST)).why)
        self.assertNotIn("does not say why", why)

    def test_with_that_length_right_it_is_true(self) -> None:
        verdict = F.judge(*self.TRUE, *read("block_width", "12 1/2"), *read("block_height", "12 1/2"))
        self.assertEqual(verdict.status, Status.TRUE)

    def test_a_thirty_second_is_no_reason(self) -> None:
        verdict = F.judge(*self.TRUE, *read("block_width", "12 15/32"), *read("block_height", "12 1/2"))
        self.assertEqual(verdict.status, Status.TRUE)


class LookedAtTest(TestCase):
    SHORT = (*lines("12 1/2"), *lines("12 5/16", "column"), *stitched("1/4", *IN_ROWS[:3]))

    def test_no_seam_is_unpicked_that_was_not_measured(self) -> None:
        """Columns 3/16 short and rows true may be one seam 3/32 deep, or three of 1/32, or units too low."""
        found = F.infer(*self.SHORT)
        verdict = judge(found)
        self.assertEqual(verdict.status, Status.UNSETTLED)
        self.assertEqual(remedies_of(found, verdict, F.plans)[0].code, "wait")

    def test_once_it_was_measured_it_is_named(self) -> None:
        verdict = F.judge(*self.SHORT, *stitched("11/32", "the seam below row 2"))
        self.assertEqual(verdict.status, Status.SETTLED)
        leading = verdict.leading
        assert leading is not None
        self.assertIs(leading.cause, Cause.ONE_SEAM)
        self.assertEqual(F.model.places.seams[leading.place].name, "the seam below row 2")

    def test_a_common_cause_needs_no_place(self) -> None:
        verdict = F.judge(*read("stitch", *["5/16"] * 6, spot="middle"))
        self.assertEqual(verdict.leading, Parameter(Cause.SEAM))


class SaidTest(TestCase):
    def test_two_settings_of_one_mark_are_told_apart(self) -> None:
        """Less than a thread is no other mark of the ruler, once the seam is believed to be narrow."""
        found = F.infer(*read("stitch", *["1/4"] * 5, spot="middle"), *lines("12 11/16"), *UNITS)
        hair = (replace(e, size=-0.006) if e.parameter == Parameter(Cause.SEAM) else e for e in found.estimates)
        found = replace(found, estimates=tuple(hair))
        verdict = replace(judge(found), status=Status.SETTLED, leading=Parameter(Cause.SEAM))
        (change,) = changes_for_the_rest(found, verdict)
        self.assertEqual(plain(change.title), "Stitch a thread deeper than now, at 1⁄4″")
