"""Readings that one more look settles, and what is said meanwhile: a figure that may be so though nothing bears it out, lengths denied
by what they are made of, what only the eye saw, and the first remedy where two would do.

Worked out by hand for the 4 x 4 of half-square triangles (units 3 1/2 in., rows 12 1/2 in., six allowances within each), for a star
finishing 12 (geese 6 1/2 by 3 1/2, their tips 1/4 below the raw edge) and for a nine-patch of squares cut 3 1/2.
"""

from __future__ import annotations

import re
from unittest import TestCase

from piecing.blocks.library import library_pattern
from piecing.diagnosis import Status, judge
from piecing.diagnosis.asking import NextReading, next_readings
from piecing.diagnosis.causes import Cause
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import changes_for_the_rest, remedies_of
from piecing.diagnosis.remedies.remedy import Remedy
from piecing.lengths import Measure, Style, inches

from .trials import FOUR_BY_FOUR, STAR, Scene, read, scene, seen

F, S, NINE = FOUR_BY_FOUR(), STAR(), scene(library_pattern("nine_patch"), "9")
HST, GOOSE, SQUARE = F.batch("half_square_triangle"), S.batch("flying_goose"), NINE.batch("plain_square")


def plain(said: object) -> str:
    return str(said).replace("\u00a0", " ")


def lines(kind: str, *values: str, first: int = 1) -> list[Reading]:
    return [r for n, v in enumerate(values, first) for r in read(kind, v, feature=f"{kind} {n}, middle")]


def remedies(where: Scene, *taken: Reading) -> tuple[Remedy, ...]:
    found = where.infer(*taken)
    return remedies_of(found, judge(found), where.plans)


def tips(value: str, count: int = 3) -> list[Reading]:
    keys = [f.key for f in S.model.features if f.kind.value == "edge_tip"]
    return [r for k in keys[:count] for r in read("edge_tip", value, feature=k)]


SEAMS, UNITS = read("stitch", *["1/4"] * 3, spot="middle"), read("width", *["3 1/2"] * 3, batch=HST)


class MayBeSoTest(TestCase):
    def test_one_seam_at_half_an_inch_is_read_again_before_all_is_called_true(self) -> None:
        taken = [*read("stitch", "1/2", seam="row 1 seam 1"), *SEAMS, *lines("row", "12 1/2", "12 1/2", first=2)]
        verdict = F.judge(*taken)
        self.assertEqual(verdict.status, Status.UNSETTLED)
        self.assertIn("row 1 seam 1: raw edge to stitching, middle: 1⁄4″ wide", plain(verdict.why))
        self.assertIn("Read it again.", plain(verdict.why))
        self.assertEqual(remedies(F, *taken)[0].code, "wait")

    def test_a_seam_of_an_inch_and_a_quarter_is_of_the_pen(self) -> None:
        taken = [*read("stitch", *["1/4"] * 4, "1 1/4", spot="middle"), *UNITS, *lines("row", "12 1/2", "12 1/2")]
        self.assertEqual(F.judge(*taken).status, Status.TRUE)

    def test_one_unit_half_an_inch_large(self) -> None:
        verdict = F.judge(*read("width", "3 1/2", "3 1/2", "4", batch=HST))
        self.assertEqual(
            plain(verdict.why),
            "one of the half-square triangles: trimmed width: 1⁄2″ over, and nothing else that was measured says so. Read it again.",
        )

    def test_two_squares_of_seven_are_small_and_no_fold_is_spoken_of(self) -> None:
        verdict = NINE.judge(*read("width", "3 3/8", "3 3/8", *["3 1/2"] * 5, batch=SQUARE))
        self.assertEqual(
            plain(verdict.why),
            "one of the plain squares: width: 1⁄8″ short, and 1 more like it; nothing else that was measured says why.",
        )

    def test_of_true_units_alone_no_seam_is_suspected(self) -> None:
        self.assertEqual(
            plain(F.judge(*UNITS[:2]).why),
            "Nothing that was measured stands out, but too little was looked at to call it true.",
        )

    def test_one_reading_accuses_nothing(self) -> None:
        verdict = F.judge(*lines("row", "12 3/8"))
        self.assertEqual(plain(verdict.why), "row 1, through the middle: 1⁄8″ short. One reading does not say why.")


class DeniedTest(TestCase):
    def test_rows_long_over_true_seams_and_units_accuse_neither(self) -> None:
        """A quarter over six allowances is 1/24 each: three seams that read 1/4 are not so."""
        taken = [*lines("row", "12 3/4", "12 3/4", "12 3/4"), *UNITS, *SEAMS]
        self.assertEqual(F.judge(*taken).status, Status.UNSETTLED)
        found = F.infer(*taken)
        self.assertEqual(changes_for_the_rest(found, judge(found)), ())

    def test_units_true_by_their_sides_are_not_trimmed_to_another_size(self) -> None:
        """Diagonals of 3 1/2 in. are 4 61/64; one is an eighth longer and the other as much shorter: pulled on the bias, sides true."""
        taken = [
            *read("diagonal_rising", "5 1/16", "5 1/16", batch=HST), *read("diagonal_falling", "4 13/16", "4 13/16", batch=HST),
            *read("width", "3 1/2", "3 1/2", batch=HST), *read("height", "3 1/2", "3 1/2", batch=HST),
        ]  # fmt: skip
        found = F.infer(*taken)
        verdict = judge(found)
        assert verdict.leading is not None
        self.assertIs(verdict.leading.cause, Cause.STRETCH)
        self.assertIsNone(verdict.beside)
        self.assertEqual([c.title.template[:6] for c in changes_for_the_rest(found, verdict)], ["Starch"])

    def test_crossings_that_miss_are_no_drift_before_an_end_was_read(self) -> None:
        keys = [f.key for f in F.model.features if f.kind.value == "crossing"][:3]
        missed = [r for k in keys for r in read("crossing", "1/8", feature=k)]
        taken = [*missed, *lines("row", "12 1/2", "12 1/2"), *UNITS]
        self.assertEqual(F.judge(*taken).status, Status.UNSETTLED)
        self.assertEqual(remedies(F, *taken)[0].code, "wait")

    def test_tips_on_both_sides_speak_for_no_fold(self) -> None:
        keys = [f.key for f in S.model.features if f.kind.value == "edge_tip"]
        mixed = [
            r
            for k, v in zip(keys, ("1/16", "-1/16", "1/16", "-1/16"), strict=True)
            for r in read("edge_tip", v, feature=k)
        ]
        why = plain(S.judge(*mixed, *SEAMS).why)
        self.assertEqual(
            why,
            "row 1, column 2: tip at its bottom: 1⁄16″ short of the seam, and what else was measured does not say why.",
        )


class RawTest(TestCase):
    """A pinwheel of units finishing 4: two squares of 5 by the pair leave 5 - 0.354 = 4.646 raw, 4 1/2 trimmed. Nothing is joined."""

    P = scene(library_pattern("pinwheel"), "8")
    HST = P.model.places.batches[0].key

    def taken(self, raw: str) -> list[Reading]:
        return [*read("cut", "5", "5", batch=self.HST), *read("raw_width", raw, raw, raw, batch=self.HST)]

    def test_seams_too_deep_leave_nothing_to_trim(self) -> None:
        """4 1/2 raw is 0.146 short: over root two, the seam took a tenth too much. Four of six minutes each, and no joining seam."""
        taken = self.taken("4 1/2")
        self.assertIn("seams are 3⁄32″ wide", plain(self.P.judge(*taken).said))
        (only,) = remedies(self.P, *taken)
        self.assertEqual((only.code, only.minutes), ("make_again-0", 24))
        self.assertIn("Their own seams took too much", plain(only.how))
        self.assertIn("Sew one more at a thread under 1⁄4″", plain(only.how))

    def test_once_rows_are_read_they_are_joined(self) -> None:
        taken = [
            *self.taken("4 1/2"),
            *lines("row", "8 5/16", "8 5/16"),
            *read("stitch", *["11/32"] * 3, spot="middle"),
        ]
        self.assertIn("all_seams", [r.code for r in remedies(self.P, *taken)])

    def test_too_narrow_there_is_more_to_trim(self) -> None:
        """4 3/4 raw is 0.104 over: narrow by 0.073, and a quarter inch is left to trim."""
        taken = [*self.taken("4 3/4"), *read("stitch", *["3/16"] * 3, spot="middle")]
        (only,) = remedies(self.P, *taken)
        self.assertEqual((only.code, only.minutes), ("trim_closely-0", 4))
        self.assertIn("is left to trim, half of it on each side", plain(only.how))


class GeeseTest(TestCase):
    ABOVE = (*read("height", *["3 7/16"] * 3, batch=GOOSE), *read("clearance", *["3/16"] * 3, batch=GOOSE))

    def test_as_much_off_the_height_as_above_the_tip_is_one_cut(self) -> None:
        """Nobody measured how wide they are: nothing is said of it."""
        verdict = S.judge(*self.ABOVE, *read("stitch", "1/4", "1/4", spot="middle"))
        self.assertEqual(verdict.status, Status.MISTAKE)
        self.assertEqual(plain(verdict.said), "flying geese trimmed 1⁄16″ too short, above the tip")
        self.assertEqual(
            plain(verdict.why), "It is the same on every one of them, and from their foot to the tip they are right."
        )

    def test_short_with_a_true_tip_asks_for_the_width(self) -> None:
        taken = [*read("height", *["3 7/16"] * 3, batch=GOOSE), *read("clearance", *["1/4"] * 3, batch=GOOSE)]
        self.assertNotEqual(S.judge(*taken).status, Status.MISTAKE)

    FLOATING = (*read("clearance", *["5/16"] * 3, batch=GOOSE), *read("height", "3 1/2", batch=GOOSE))

    def test_two_minutes_a_seam_come_before_making_geese_again(self) -> None:
        """Tips 1/16 short of their seams: craft sews deeper over an inch or so; four seams of two minutes."""
        first, other = remedies(S, *self.FLOATING, *read("stitch", "1/4", "1/4", spot="middle"))[:2]
        self.assertEqual((first.code, first.minutes), ("deeper_at_tips", 8))
        self.assertEqual((other.code, other.minutes), ("make_again-1", 4 * 6 + 8 * (3 + 2)))
        assert first.left is not None
        assert other.left is not None
        self.assertLess(abs(first.left - other.left), 0.5)

    def test_tips_seen_to_float_by_a_sixteenth_can_be_reached(self) -> None:
        taken = [*tips("1/16", 4), *tips("1/16", 4), *read("clearance", *["5/16"] * 4, batch=GOOSE)]
        offered = {r.code: r for r in remedies(S, *taken)}
        self.assertTrue(offered["deeper_at_tips"].possible)
        self.assertIn("Sew again at the tips, 5⁄16″", plain(offered["deeper_at_tips"].title))

    def test_tips_cut_off_by_a_sixteenth_leave_three_sixteenths_of_seam(self) -> None:
        taken = [
            *tips("-1/16"),
            *read("clearance", *["3/16"] * 3, batch=GOOSE),
            *read("stitch", "1/4", "1/4", spot="middle"),
        ]
        first = remedies(S, *taken)[0]
        self.assertEqual((first.code, first.minutes), ("shallower_at_tips", 20))
        self.assertEqual(plain(first.title), "Unpick at the tips and sew 3⁄16″ from the raw edge")

    def test_cut_off_by_more_no_allowance_is_left(self) -> None:
        taken = [
            *tips("-1/8"),
            *read("clearance", *["1/8"] * 3, batch=GOOSE),
            *read("stitch", "1/4", "1/4", spot="middle"),
        ]
        offered = {r.code: r for r in remedies(S, *taken)}
        self.assertFalse(offered["shallower_at_tips"].possible)
        self.assertIn("3⁄16″", plain(offered["shallower_at_tips"].why_not))

    def test_before_a_seam_or_a_row_was_read_faults_are_expected_not_seen(self) -> None:
        self.assertTrue(F.infer(*UNITS).expected)
        for more in (SEAMS, lines("row", "12 1/2"), read("block_width", "12 1/2")):
            self.assertFalse(F.infer(*UNITS, *more).expected)


class FirstTest(TestCase):
    def test_one_small_unit_is_made_again_before_crossings_are_patched(self) -> None:
        unit = F.model.places.cells[5].key
        taken = [
            *read("width", "3 3/8", unit=unit), *read("height", "3 3/8", unit=unit), *UNITS,
            *lines("row", "12 1/2", "12 3/8"),
        ]  # fmt: skip
        first, other = remedies(F, *taken)[:2]
        self.assertEqual(plain(first.title), "Make the unit in row 2, column 2 again")
        self.assertEqual(other.code, "match")

    LARGE = (*read("width", *["3 5/8"] * 3, batch=HST), *read("height", *["3 5/8"] * 2, batch=HST))

    def test_a_second_ruler_is_asked_for_while_a_border_may_explain_it(self) -> None:
        self.assertEqual([r.code for r in remedies(F, *self.LARGE)], ["measure_mark", "trim_again-0"])

    def test_rows_of_four_large_units_rule_the_border_out(self) -> None:
        """Four times an eighth: 13 in. A border would have made it 12 5/8. Sixteen units: a minute to trim each, and
        their fifteen seams are unpicked and sewn again."""
        (only,) = remedies(F, *self.LARGE, *lines("row", "13", "13"), *read("stitch", "1/4", "1/4", spot="middle"))
        self.assertEqual((only.code, only.minutes), ("trim_again-0", 16 * 1 + 15 * (3 + 2)))
        self.assertIn("Unpick them. Set the ruler", plain(only.how))
        self.assertEqual(plain(only.risk), "bias edges stretch while they are unpicked")


class FoldTest(TestCase):
    def test_a_thread_pays_for_the_fold_and_the_guide_comes_nearer(self) -> None:
        """The back reads 1/4; three strips of 1 1/2 show 31/32 and 3 7/16, rows of four are 3/32 short: 1/64 of each fabric."""
        strips = Reading(ReadingKind.STRIP_TEST, inches("31/32"), whole=inches("55/16"))
        found = F.infer(
            strips, *read("stitch", *["1/4"] * 4, spot="middle"), *lines("row", *["12 13/32"] * 3), *UNITS[:2]
        )
        (change,) = changes_for_the_rest(found, judge(found))
        self.assertIn("Stitch a thread under 1⁄4″", plain(change.title))
        self.assertIn("Move the guide nearer to the needle by a thread", plain(change.how))


class RipperTest(TestCase):
    def test_care_of_its_point_stands_where_it_is_taken_in_hand(self) -> None:
        for value, unpicked in (("5/16", True), ("3/16", False)):
            first = remedies(F, *read("stitch", *[value] * 6, spot="middle"))[0]
            self.assertEqual((first.code, first.unpicks), ("all_seams", unpicked))
        self.assertFalse(remedies(F, *lines("row", "12 3/8"))[0].unpicks)


class SeenTest(TestCase):
    SAID = {
        "shadow": ("Pressed to the light side", "pressed_to_light"),
        "bowed": ("Rows joined one after another", "joined_in_turn"),
        "frayed": ("A dull or nicked blade", "blade"),
    }

    def test_what_the_eye_alone_found_is_the_headline(self) -> None:
        for sign, (said, code) in self.SAID.items():
            with self.subTest(sign):
                verdict = F.judge(*seen(sign))
                self.assertEqual((plain(verdict.said), verdict.code), (said, code))
                self.assertEqual([r.code for r in remedies(F, *seen(sign))], [code])

    def test_a_wrong_picture_is_looked_over_before_anything_is_unpicked(self) -> None:
        verdict = F.judge(*seen("picture_wrong"))
        self.assertEqual(
            plain(verdict.why), "The picture is wrong. Whether it comes right when a unit is turned tells which."
        )
        self.assertEqual([r.code for r in remedies(F, *seen("picture_wrong"))], ["look_over", "turned_unit"])
        self.assertEqual([r.code for r in remedies(F, *seen("right_when_turned"))], ["turned_unit"])

    def test_waves_alone_say_nothing_of_sizes(self) -> None:
        self.assertEqual(plain(F.judge(*seen("wavy")).said), "Nothing is measured yet")

    def test_a_bow_is_looked_into_before_the_block_is_left(self) -> None:
        taken = [*seen("bowed"), *lines("row", "12 1/2", "12 1/2"), *SEAMS]
        self.assertEqual([r.code for r in remedies(F, *taken)], ["joined_in_turn", "leave"])

    def test_beside_a_cause_it_comes_last(self) -> None:
        taken = [*seen("shadow"), *read("stitch", *["5/16"] * 6, spot="middle")]
        self.assertEqual(remedies(F, *taken)[-1].code, "pressed_to_light")


class NextTest(TestCase):
    """What is asked for next: what was just said to be read again, else what a length is made of; in words without signs."""

    def asked(self, where: Scene, *taken: Reading) -> NextReading:
        found = where.infer(*taken)
        return next_readings(found, judge(found))[0]

    def test_what_is_to_be_read_again_comes_first(self) -> None:
        odd = read("stitch", "1/2", seam="row 1 seam 1", spot="middle")
        first = self.asked(F, *odd, *SEAMS, *lines("row", "12 1/2", "12 1/2", first=2))
        self.assertEqual(
            (first.reading.kind, first.reading.seam, first.reading.spot), (odd[0].kind, "row 1 seam 1", "middle")
        )
        self.assertEqual(
            plain(first.said), "Read once more what read 1⁄2″: row 1 seam 1: raw edge to stitching, middle."
        )
        self.assertTrue(first.needed)

    def test_read_alike_twice_it_is_not_asked_for_a_third_time(self) -> None:
        odd = read("stitch", "1/2", "1/2", seam="row 1 seam 1", spot="middle")
        first = self.asked(F, *odd, *SEAMS, *lines("row", "12 1/2", "12 1/2", first=2))
        self.assertNotIn("once more", plain(first.said))
        short = [*read("block_width", "12 3/8", "12 3/8"), *read("block_height", "12 1/2", "12 1/2")]
        self.assertNotIn("once more", plain(self.asked(F, *short).said))

    def test_after_one_short_length_it_is_asked_what_lengths_are_made_of(self) -> None:
        """A diagonal says nothing of why a row is short."""
        for taken in (lines("row", "12 3/8"), read("block_width", "12 3/8", "12 3/8")):
            kind = self.asked(F, *taken).reading.kind.value
            self.assertIn(kind, ("row", "column", "stitch", "strip_test", "width", "height"))

    def outcomes(self, where: Scene, reading: Reading, *taken: Reading) -> list[str]:
        found = where.infer(*taken)
        (one,) = next_readings(found, judge(found), options=[reading])
        return [plain(o.said) for o in one.outcomes]

    def test_sides_are_named_and_nothing_is_below_zero(self) -> None:
        """Geese believed to have too little or too much cloth above the tip: a tip is cut off, or floats."""
        (tip,) = tips("1", 1)
        said = self.outcomes(S, tip, *read("clearance", "1/4", batch=GOOSE))
        self.assertGreater(len(said), 1)
        self.assertTrue(any(" and it is cut off: " in x for x in said), said)
        self.assertTrue(any(" and it floats short of the seam: " in x for x in said), said)
        (miss,) = read("miss", "1", unit="c1r1", corner="bottom left")
        said += self.outcomes(F, miss, *UNITS)
        self.assertTrue(any(" and it lands on the left side: " in x for x in said), said)
        self.assertFalse([x for x in said if "−" in x or "-" in x.split(":")[0]], said)

    def test_one_unit_is_named_without_a_size_too(self) -> None:
        """Row 2 and column 2 are an eighth short, all others and the seams are true: the unit where they cross."""
        taken = [
            *lines("row", "12 1/2", "12 3/8", "12 1/2"), *lines("column", "12 1/2", "12 3/8", "12 1/2"), *SEAMS,
            *read("width", "3 7/16", unit="c2r2"),
        ]  # fmt: skip
        (height,) = read("height", "1", unit="c2r2")
        said = self.outcomes(F, height, *taken)
        self.assertTrue(any("the unit in row 2, column 2 by itself" in x for x in said), said)

    def test_one_seam_is_named_without_a_size_it_may_not_have(self) -> None:
        """Row 1 short by 3/8, the others true: one of its two seams may be deep, and none is called narrow."""
        taken = [*lines("row", "9 1/8", "9 1/2", "9 1/2"), *lines("row", "9 1/8")]
        (stitch,) = read("stitch", "1", seam="row 1 seam 1", spot="middle")
        said = self.outcomes(NINE, stitch, *taken)
        self.assertTrue(any("row 1 seam 1 by itself" in x for x in said), said)
        self.assertFalse([x for x in said if "narrow" in x], said)


class MillimetresTest(TestCase):
    """Whoever sews in millimetres is told no inches, and the guide moves by as much as its two settings differ."""

    STYLE = Style(Measure.MILLIMETRES)

    def texts(self, where: Scene, *taken: Reading) -> list[str]:
        found = where.infer(*taken)
        verdict = judge(found)
        told = [*remedies_of(found, verdict, where.plans), *changes_for_the_rest(found, verdict)]
        return [m.text(self.STYLE).replace("\u00a0", " ") for r in told for m in (r.title, r.how, r.effect, r.risk)]

    def test_no_inches_anywhere(self) -> None:
        one_end = [
            r
            for v, s in (("1/4", "start"), ("5/16", "end"))
            for r in read("stitch", v, seam="the seam below row 2", spot=s)
        ]
        every_end = [
            r
            for n in (1, 2, 3)
            for v, s in (("1/4", "start"), ("3/16", "end"))
            for r in read("stitch", v, seam=f"row {n} seam 1", spot=s)
        ]
        for where, taken in (
            (S, [*GeeseTest.FLOATING, *SEAMS]),
            (S, [*tips("-1/16"), *read("clearance", *["3/16"] * 3, batch=GOOSE), *SEAMS]),
            (F, every_end),
            (F, [*one_end, *SEAMS, *lines("row", "12 1/2", "12 1/2")]),
            (F, read("stitch", *["5/16"] * 6, spot="middle")),
        ):
            said = self.texts(where, *taken)
            self.assertTrue(said)
            self.assertFalse([x for x in said if "inch" in x or "″" in x], said)

    def test_an_inch_is_25_mm_and_two_are_50(self) -> None:
        said = " ".join(self.texts(S, *tips("-1/16"), *read("clearance", *["3/16"] * 3, batch=GOOSE), *SEAMS))
        self.assertIn("unpick 50 mm, 25 mm either side of the tip", said)

    def test_settings_and_the_move_between_them_add_up(self) -> None:
        for value in ("9/32", "5/16", "11/32", "7/32"):
            said = " ".join(
                self.texts(F, *read("stitch", *[value] * 8, spot="middle"), *lines("row", *self.rows(value)))
            )
            to, now = map(float, re.search(r"Stitch at ([\d.]+) mm,[^.]* not at ([\d.]+) mm", said).groups())  # type: ignore[union-attr]
            (moved,) = map(float, re.search(r"the needle by ([\d.]+) mm", said).groups())  # type: ignore[union-attr]
            # A thread, 1/64 in. or 0.4 mm at most, that is said to be less for the fold.
            fold = 0.4 if "a thread less for the fold" in said else 0.0
            self.assertLessEqual(abs(moved - abs(now - to)), fold + 0.051, said)
            if not fold:
                self.assertIn(f"Sew all joining seams again at {to:g} mm", said)

    def rows(self, value: str) -> tuple[str, ...]:
        """Six allowances within a row of four: 12 1/2 less six times what each takes beyond a quarter."""
        return {
            "9/32": ("12 5/16",) * 3,
            "5/16": ("12 1/8",) * 3,
            "11/32": ("11 15/16",) * 3,
            "7/32": ("12 11/16",) * 3,
        }[value]
