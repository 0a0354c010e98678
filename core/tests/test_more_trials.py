"""More plain cases at the bench: hourglasses, geese, plain squares and rows of units, each worked by hand before it was typed.

An hourglass star of 12 has units of 4 1/2 and two seams in a row, a star of 12 geese of 6 1/2 by 3 1/2 and two seams in a row, the
grid of sixteen units of 3 1/2 and three. A fabric loses 1/4 to a seam on each side of it.
"""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from piecing.blocks.library import library_pattern
from piecing.diagnosis.asking import next_readings
from piecing.diagnosis.causes import Cause
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import changes_for_the_rest, remedies_of
from piecing.diagnosis.verdict import Status, Verdict
from piecing.lengths import inches

from .trials import FOUR_BY_FOUR, STAR, Scene, plain, read, scene

F, S, H = FOUR_BY_FOUR(), STAR(), scene(library_pattern("hourglass_star"), "12")
HST, GOOSE = F.batch("half_square_triangle"), S.batch("flying_goose")
HOURGLASS, SQUARE = H.batch("quarter_square_triangle"), H.batch("plain_square")


def lines(*values: str, of: str = "row", edge: str = "middle") -> list[Reading]:
    return [r for n, v in enumerate(values, 1) for r in read(of, v, feature=f"{of} {n}, {edge}")]


def seams(*values: str, spot: str = "middle") -> list[Reading]:
    return read("stitch", *values, spot=spot)


def widths(batch: str, *values: str) -> list[Reading]:
    return read("width", *values, batch=batch)


def heights(batch: str, *values: str) -> list[Reading]:
    return read("height", *values, batch=batch)


def missed(unit: str, value: str) -> list[Reading]:
    return read("miss", value, unit=unit, corner="bottom left" if "c1" in unit or "c3" in unit else "top right")


QUARTERS = seams("1/4", "1/4", "1/4")


class LeadingTest(TestCase):
    def leads(self, where: Scene, given: list[Reading], cause: Cause, said: str) -> Verdict:
        v = where.judge(*given)
        self.assertEqual(v.status, Status.SETTLED, f"{v.said} {v.why}")
        assert v.leading is not None
        self.assertIs(v.leading.cause, cause)
        self.assertEqual(plain(v.said), said)
        return v

    def test_hourglasses_trimmed_a_sixteenth_small(self) -> None:
        """One of them in the first row, two in the second."""
        given = [
            *widths(HOURGLASS, *["4 7/16"] * 3),
            *heights(HOURGLASS, *["4 7/16"] * 2),
            *QUARTERS,
            *lines("12 7/16", "12 3/8"),
        ]
        self.leads(H, given, Cause.TRIM, "hourglasses trimmed 1⁄16″ too small")

    def test_squares_cut_small_between_true_hourglasses(self) -> None:
        given = [
            *widths(SQUARE, *["4 7/16"] * 3),
            *widths(HOURGLASS, *["4 1/2"] * 3),
            *QUARTERS,
            *lines("12 3/8", "12 7/16"),
        ]
        v = self.leads(H, given, Cause.TRIM, "plain squares cut 1⁄16″ too small")
        (change,) = changes_for_the_rest(H.infer(*given), v)
        self.assertEqual(plain(change.title), "Cut the plain squares to 4 1⁄2″, not to 4 7⁄16″")

    def test_narrow_seams_in_a_star_of_hourglasses(self) -> None:
        """Four fabrics lose 1/32 less: rows are 1/8 long."""
        given = [
            *seams(*["7/32"] * 4),
            *lines("12 5/8", "12 5/8"),
            *lines("12 5/8", of="column"),
            *widths(HOURGLASS, "4 1/2", "4 1/2"),
        ]
        self.leads(H, given, Cause.SEAM, "all seams are 1⁄32″ narrow")

    def test_half_squares_a_thirty_second_small(self) -> None:
        """Four in a row leave it 1/8 short; seams read a quarter. No other cause is left, though the hand may be off by less."""
        given = [*lines("12 3/8", "12 3/8"), *QUARTERS, *widths(HST, *["3 15/32"] * 4), *heights(HST, *["3 15/32"] * 2)]
        self.leads(F, given, Cause.TRIM, "half-square triangles trimmed 1⁄32″ too small")

    def test_rows_that_bear_small_units_out_do_not_make_it_open(self) -> None:
        """Four times 1/32 is the 1/8 that rows are short. What a fold may take besides is a thread."""
        units = [*QUARTERS, *widths(HST, *["3 15/32"] * 3), *heights(HST, *["3 15/32"] * 2)]
        self.leads(F, units, Cause.TRIM, "half-square triangles trimmed 1⁄32″ too small")
        self.leads(F, [*units, *lines("12 3/8", "12 3/8")], Cause.TRIM, "half-square triangles trimmed 1⁄32″ too small")

    def test_two_rows_short_along_one_edge_are_every_seam(self) -> None:
        """3/8 over six fabrics along the upper edges of both, nothing along the lower ones: no seam has to be turned over for that."""
        along = [*lines("12 1/8", "12 1/8", edge="top"), *lines("12 1/2", "12 1/2", edge="bottom")]
        self.leads(
            F, [*along, *widths(HST, "3 1/2", "3 1/2")], Cause.START, "every seam strays deep by 1⁄16″ at its start"
        )

    def test_one_seam_that_strays_at_its_start_is_not_every_seam(self) -> None:
        """One column of 11 is 1/8 over, the other true, and the one seam that was turned over lies at 5/32 at its start: a second one tells."""
        lantern = scene(library_pattern("lantern"), "21/2")
        hst = lantern.batch("half_square_triangle")
        given = [
            *lines("11 1/8", "11", of="column"),
            *read("diagonal_rising", "5 21/32", batch=hst),
            *seams("5/32", spot="start"),
        ]
        v = lantern.judge(*given)
        self.assertIs(v.status, Status.UNSETTLED)
        self.assertTrue(
            plain(v.why).endswith("One seam that strays by itself looks just so: read another at its start.")
        )
        first = next_readings(lantern.infer(*given), v)[0].reading
        self.assertEqual((first.kind, first.spot), (ReadingKind.STITCH, "start"))
        said = "every seam strays narrow by 1⁄16″ at its start"
        self.leads(lantern, [*given, *seams("3/16", spot="start")], Cause.START, said)

    def test_what_bears_wide_seams_out_does_not_make_it_open(self) -> None:
        """Columns of 11 read 10 25/32 over four allowances: 7/128 of each. Units are right, and lie on their lines; a drift is all but ruled out
        once two columns say the same, though no seam was read at its ends."""
        lantern = scene(library_pattern("lantern"), "21/2")
        given = [*lines("10 25/32", "10 25/32", of="column"), *widths(lantern.batch("quarter_square_triangle"), "4")]
        said = "all seams are 1⁄16″ wide"
        self.leads(lantern, [*given, *missed("c1r1", "0")], Cause.SEAM, said)
        self.leads(lantern, [*given, *missed("c1r1", "0"), *missed("c2r1", "0")], Cause.SEAM, said)

    def test_a_row_of_five(self) -> None:
        """Eight fabrics lose 1/32 more at its four seams: 15 1/4 in place of 15 1/2."""
        given = [
            *read("row", "15 1/4", "15 1/4", count=5, batch=HST),
            *seams(*["9/32"] * 3),
            *widths(HST, "3 1/2", "3 1/2"),
        ]
        self.leads(F, given, Cause.SEAM, "all seams are 1⁄32″ wide")

    def test_a_strip_test_is_two_readings(self) -> None:
        given = [
            *read("strip_test", "15/16", whole=inches("27/8")),
            *seams(*["9/32"] * 3),
            *lines("12 5/16", "12 5/16"),
        ]
        self.leads(F, given, Cause.SEAM, "all seams are 1⁄32″ wide")

    def test_a_sixteenth_large_both_ways_and_in_its_rows(self) -> None:
        """A stretch would do the same: after so much that agrees it is named, and not as certain."""
        given = [
            *widths(HST, *["3 9/16"] * 3),
            *heights(HST, *["3 9/16"] * 3),
            *seams("1/4", "1/4"),
            *lines("12 3/4", "12 3/4"),
        ]
        v = self.leads(F, given, Cause.TRIM, "half-square triangles trimmed 1⁄16″ too large")
        self.assertEqual(v.sure_words, "likely")
        few = F.judge(*given[:5])
        self.assertEqual(few.status, Status.UNSETTLED)
        self.assertIn("measure both diagonals of one", plain(few.why))

    def test_units_and_rows_that_bear_each_other_out(self) -> None:
        """Four units of 3 9/16 leave a row 1/4 long."""
        given = [*widths(HST, "3 9/16", "3 9/16"), *seams("1/4", "1/4"), *lines("12 3/4", "12 3/4")]
        self.leads(F, given, Cause.TRIM, "half-square triangles trimmed 1⁄16″ too large")

    def test_a_fold_of_a_thirty_second_is_paid_for_in_full(self) -> None:
        """Six fabrics a row, each 1/32 short though the back reads a quarter: 7/32 and the fold make the quarter."""
        given = [
            *lines("12 5/16", "12 5/16", "12 5/16"), *lines("12 5/16", "12 5/16", of="column"), *seams(*["1/4"] * 4),
            *widths(HST, *["3 1/2"] * 4), *heights(HST, "3 1/2", "3 1/2"),
        ]  # fmt: skip
        v = self.leads(F, given, Cause.FOLD, "the fold is not paid for: it takes 1⁄32″ of each fabric")
        found = F.infer(*given)
        self.assertEqual(
            plain(changes_for_the_rest(found, v)[0].title),
            "Stitch at 7⁄32″, not at 1⁄4″: 1⁄32″ less pays for the fold",
        )
        self.assertEqual(plain(remedies_of(found, v)[0].title), "Sew all joining seams again at 7⁄32″")

    def test_of_two_seams_on_the_back_nothing_is_left_over_for_the_fold(self) -> None:
        """Six fabrics leave a row 1/8 short: what it is short by is the fold's once the stitching is known, by three seams at the least."""
        rows = [*lines("12 3/8", "12 3/8", "12 3/8"), *lines("12 3/8", "12 3/8", of="column")]
        units = [*widths(HST, *["3 1/2"] * 4), *heights(HST, "3 1/2", "3 1/2")]
        few = F.judge(*rows, *units, *seams("1/4", "1/4"))
        self.assertIs(few.status, Status.UNSETTLED)
        self.assertIn("read the stitching on the back", plain(few.why))
        self.assertIn("the fold is not paid for", plain(F.judge(*rows, *units, *QUARTERS).said))

    def test_too_much_above_the_tip(self) -> None:
        tips = [r for key in ("tip c2r1 bottom", "tip c1r2 right") for r in read("edge_tip", "1/16", feature=key)]
        given = [
            *read("clearance", *["5/16"] * 3, batch=GOOSE),
            *tips,
            *widths(GOOSE, "6 1/2"),
            *heights(GOOSE, "3 1/2"),
            *QUARTERS,
        ]
        self.leads(S, given, Cause.TIP, "flying geese trimmed with 1⁄16″ too much above the tip")

    def test_two_of_a_thirty_second(self) -> None:
        """Six fabrics and four units a row: 3/16 and 1/8."""
        given = [
            *lines("12 3/16", "12 3/16"),
            *seams(*["9/32"] * 3),
            *widths(HST, *["3 15/32"] * 3),
            *heights(HST, *["3 15/32"] * 2),
        ]
        v = F.judge(*given)
        self.assertIs(v.status, Status.SEVERAL)
        self.assertEqual({p.cause for p in (v.leading, v.beside) if p}, {Cause.SEAM, Cause.TRIM})


class NothingOffTest(TestCase):
    def test_a_scant_seam_that_pays_for_its_fold(self) -> None:
        given = [*seams(*["7/32"] * 4), *lines("12 1/2", "12 1/2", "12 1/2"), *widths(HOURGLASS, "4 1/2", "4 1/2")]
        self.assertIs(H.judge(*given).status, Status.TRUE)

    NO_SEAM = [
        *lines("12 1/2", "12 1/2", "12 1/2"), *widths(HST, "3 1/2", "3 1/2", "3 1/2"), *heights(HST, "3 1/2"), *missed("c1r1", "0"), *missed("c2r2", "0"),
        *missed("c4r1", "0"),
    ]  # fmt: skip

    def test_nobody_calls_a_block_true_without_a_look_at_a_seam(self) -> None:
        """Rows through their middle and units all on their marks: every seam may run off its line at its ends all the same."""
        v = F.judge(*self.NO_SEAM)
        self.assertIs(v.status, Status.UNSETTLED)
        self.assertEqual(plain(v.said), "All is true so far, and no seam was looked at")
        self.assertIn("at its start and end only: read one there", plain(v.why))
        asked = next_readings(F.infer(*self.NO_SEAM), v)[0].reading
        self.assertIs(asked.kind, ReadingKind.STITCH)
        self.assertIn(asked.spot, ("start", "end"))
        self.assertIs(F.judge(*self.NO_SEAM, *seams("1/4", spot=asked.spot)).status, Status.TRUE)
        self.assertIsNot(F.judge(*self.NO_SEAM, *seams("5/16", "5/16", spot=asked.spot)).status, Status.TRUE)

    def test_rows_along_both_edges_show_where_seams_end(self) -> None:
        """Three seams in a row: off by 1/16 at their starts they take 3/8 off its upper edge."""
        along = [*lines("12 1/2", "12 1/2", edge="top"), *lines("12 1/2", "12 1/2", edge="bottom")]
        self.assertIs(F.judge(*self.NO_SEAM, *along).status, Status.TRUE)
        short = [*lines("12 1/8", "12 1/8", edge="top"), *lines("12 1/2", "12 1/2", edge="bottom")]
        self.assertIsNot(F.judge(*self.NO_SEAM, *short).status, Status.TRUE)

    def test_seams_that_vary_do_not_excuse_a_unit_that_is_small(self) -> None:
        """Two seams a 1/16 narrow and two a 1/16 wide: a hand that varies. The one unit that was measured is a 1/16 small: they may all be."""
        varied = seams("3/16", "5/16", "3/16", "5/16")
        self.assertIs(F.judge(*varied, *widths(HST, "3 1/2", "3 1/2")).status, Status.VARIES)
        v = F.judge(*varied, *widths(HST, "3 7/16"))
        self.assertIs(v.status, Status.UNSETTLED)
        self.assertIn("trimmed 1⁄16″ too small; or nothing at all", plain(v.why))

    def test_three_seams_an_eighth_apart_are_enough_where_all_else_is_on_its_mark(self) -> None:
        given = [*seams("3/16", "5/16", "9/32"), *lines("12 1/2", "12 1/2"), *widths(HST, "3 1/2", "3 1/2")]
        self.assertIs(F.judge(*given).status, Status.VARIES)

    def test_geese_that_vary_do_not_excuse_rows_that_are_long(self) -> None:
        """Geese a 1/16 wide and on their mark, a 1/32 high and low: a hand that varies. The rows are 1/32 and 3/32 over, and no seam was read."""
        geese = [*widths(GOOSE, "6 9/16", "6 1/2"), *heights(GOOSE, "3 17/32", "3 15/32")]
        self.assertIs(S.judge(*geese, *lines("12 17/32", "12 19/32")).status, Status.UNSETTLED)

    def test_a_thirty_second_off_the_diagonal_is_lost_in_a_hand_that_varies(self) -> None:
        """One row of a pinwheel a 1/16 over, the other a 1/16 short; its diagonals pass their corners by nothing to 3/32 on either side."""
        wheel = scene(library_pattern("pinwheel"), "8")
        half = wheel.batch("half_square_triangle")
        given = [
            *lines("8 9/16", "8 7/16"), *seams("1/4", "7/32"), *widths(half, "4 1/2"), *read("diagonal_rising", "6 3/8", batch=half),
            *read("miss", "0", unit="c1r1", corner="top left"), *read("miss", "1/32", unit="c2r1", corner="top right"),
            *read("corner_tip", "1/32", feature="diagonal c1r1 bottom right"),
            *read("corner_tip", "-3/32", feature="diagonal c2r1 bottom left"),
        ]  # fmt: skip
        self.assertIs(wheel.judge(*given).status, Status.UNSETTLED)

    def test_true_within_a_thirty_second(self) -> None:
        given = [
            *widths(HST, "3 1/2", "3 17/32", "3 1/2"), *heights(HST, "3 1/2", "3 15/32"), *seams("1/4", "9/32", "1/4", "7/32"),
            *lines("12 1/2", "12 15/32", "12 17/32"), *lines("12 1/2", of="column"),
        ]  # fmt: skip
        self.assertIs(F.judge(*given).status, Status.TRUE)

    def test_seams_an_eighth_apart_are_a_hand_that_varies(self) -> None:
        """Their mean is a quarter, and so is that of the rows 12 1/2: no setting is to be moved."""
        given = [*seams("7/32", "9/32", "1/4", "5/16", "3/16"), *lines("12 1/2", "12 7/16", "12 9/16")]
        v = S.judge(*given)
        self.assertIs(v.status, Status.VARIES)
        self.assertIn("move no setting", plain(changes_for_the_rest(S.infer(*given), v)[0].title))


class OneOfThemTest(TestCase):
    """One half square passes its corner by 1/8, three on their corners."""

    given = [
        *widths(HST, "3 1/2", "3 1/2"), *seams("1/4", "1/4"),
        *missed("c1r1", "0"), *missed("c2r2", "0"), *missed("c4r1", "0"),
    ]  # fmt: skip
    (off,) = missed("c3r3", "1/8")

    def test_it_is_read_again_before_all_is_called_true(self) -> None:
        v = F.judge(*self.given, self.off)
        self.assertIs(v.status, Status.UNSETTLED)
        self.assertIn(
            "bottom left corner by 1⁄8″, and nothing else that was measured says so. Read it again.", plain(v.why)
        )
        (odd,) = F.infer(*self.given, self.off).odd
        self.assertIn("make this nothing at all, and it reads 1⁄8″", plain(odd.said))

    def test_read_again_it_is_one_that_is_off(self) -> None:
        found = F.infer(*self.given, replace(self.off, confirmed=True))
        v = F.judge(*found.readings)
        self.assertEqual(
            plain(v.said), "All but one is true: row 3, column 3: diagonal past the bottom left corner by 1⁄8″"
        )
        self.assertEqual(plain(remedies_of(found, v)[0].title), "Make the unit in row 3, column 3 again")

    def test_two_that_are_off_by_themselves(self) -> None:
        others = [*widths(HST, *["3 1/2"] * 6), *heights(HST, "3 1/2", "3 1/2"), *QUARTERS, *lines("12 1/2", "12 1/2")]
        off = [replace(r, confirmed=True) for r in widths(HST, "3 3/4", "3 1/8")]
        v = F.judge(*others, *off)
        self.assertIs(v.status, Status.TRUE)
        self.assertEqual(
            plain(v.said),
            "All but 2 are true; most off is one of the half-square triangles: trimmed width: 3⁄8″ short",
        )

    def test_two_of_one_diagonal_short_by_an_eighth_stand_out(self) -> None:
        """4 1/2 squares measure 6 3/8 from corner to corner."""
        given = [
            *read("diagonal_rising", "6 3/8", "6 3/8", batch=HOURGLASS), *read("diagonal_falling", "6 1/4", "6 1/4", batch=HOURGLASS),
            *widths(HOURGLASS, "4 1/2", "4 1/2"), *seams("1/4", "1/4"),
        ]  # fmt: skip
        v = H.judge(*given)
        self.assertIs(v.status, Status.UNSETTLED)
        self.assertIn("diagonal, falling: 1⁄8″ short, and 1 more like it", plain(v.why))


class TooLittleTest(TestCase):
    def test_rows_and_columns_alone_do_not_tell_seams_from_units(self) -> None:
        """Rows of four 3/8 short: six fabrics losing 1/16 more, or four units 3/32 small."""
        given = [*lines("12 1/8", "12 1/8", "12 1/8"), *lines("12 1/8", "12 1/8", of="column")]
        v = F.judge(*given)
        self.assertIs(v.status, Status.UNSETTLED)
        self.assertIn("Units trimmed small look just so: measure one, or the stitching on the back", plain(v.why))
        self.assertEqual(next(r.code for r in remedies_of(F.infer(*given), v) if r.possible), "wait")
        self.assertEqual(changes_for_the_rest(F.infer(*given), v), ())
        for more in (widths(HST, "3 1/2", "3 1/2"), seams("5/16")):
            self.assertEqual(plain(F.judge(*given, *more).said), "all seams are 1⁄16″ wide")
        long = F.judge(*lines("12 7/8", "12 7/8", "12 7/8"), *lines("12 7/8", "12 7/8", of="column"))
        self.assertIn("Units trimmed large look just so", plain(long.why))

    def test_what_is_not_joined_yet_is_brought_to_no_size(self) -> None:
        """Pairs of squares cut 4 and sewn 5/16 deep: 4 less r2 times 5/16 is a good 3 9/16, and 3 1/2 is wanted."""
        given = [
            *read("raw_width", *["3 19/32"] * 3, batch=HST),
            *read("cut", *["4"] * 3, batch=HST),
            *seams(*["5/16"] * 3),
        ]
        v = F.judge(*given)
        offered = remedies_of(F.infer(*given), v, F.plans)
        self.assertEqual(plain(offered[0].title), "Go on with the half-square triangles, and trim them to size")
        self.assertFalse({"bring_down", "frame"} & {r.code for r in offered})


class GooseTest(TestCase):
    def test_off_to_one_side(self) -> None:
        """Its two seams pass the upper corners by 1/16, square to them, one on either side: r2 of that along the base, a good 3/32."""
        (goose, *_) = (c for c in S.model.places.cells if S.model.places.batches[c.batch].key == GOOSE)
        given = [
            *read("miss", "1/16", unit=goose.key, corner="top right"), *read("miss", "-1/16", unit=goose.key, corner="top left"),
            *read("clearance", "1/4", "1/4", batch=GOOSE), *widths(GOOSE, "6 1/2", "6 1/2"), *seams("1/4", "1/4"),
        ]  # fmt: skip
        v = S.judge(*given)
        self.assertEqual(plain(v.said), "flying geese trimmed 3⁄32″ off to one side")
        found = S.infer(*given)
        (change,) = changes_for_the_rest(found, v)
        self.assertEqual(plain(change.title), "Lay the ruler's lines on both seams of the flying geese")
        # Centred again it lacks what it was off by at either end.
        again = next(r for r in remedies_of(found, v) if r.code.startswith("trim_again"))
        self.assertIn("3⁄16″ would have to come off", plain(again.why_not))

    def test_short_at_the_foot_where_no_seam_lies_yet(self) -> None:
        """The geese of the star stand with their feet at its edge."""
        given = [
            *heights(GOOSE, *["3 7/16"] * 3), *widths(GOOSE, *["6 1/2"] * 3), *read("clearance", *["1/4"] * 3, batch=GOOSE),
            *seams("1/4", "1/4"),
        ]  # fmt: skip
        v = S.judge(*given)
        self.assertEqual(plain(v.said), "flying geese trimmed 1⁄16″ too short, at the foot")
        again, share = remedies_of(S.infer(*given), v)
        self.assertTrue(again.possible)
        self.assertIn("sew that one shallower when they are joined", plain(share.why_not))
        self.assertNotIn("0", plain(share.how))
