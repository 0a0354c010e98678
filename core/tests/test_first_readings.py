"""What is said after the first reading or two, when nothing can be settled: what was read is repeated, never called nothing.

The figures are worked out by hand: a strip test of 1 1/2 strips whose middle one reads 7/8 and all three 3 1/4 has seams of 5/16.
"""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from piecing.blocks.library import library_pattern
from piecing.diagnosis.asking import next_readings
from piecing.diagnosis.causes import Cause
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import remedies_of
from piecing.diagnosis.verdict import Status
from piecing.lengths import inches

from .test_more_trials import heights, lines, seams, widths
from .trials import FOUR_BY_FOUR, STAR, Scene, plain, read, scene

F, S = FOUR_BY_FOUR(), STAR()
HST, GOOSE = F.batch("half_square_triangle"), S.batch("flying_goose")


def strips(middle: str, whole: str) -> list[Reading]:
    return read("strip_test", middle, whole=inches(whole))  # type: ignore[arg-type]


class FirstReadingsTest(TestCase):
    def open(self, where: Scene, given: list[Reading]) -> str:
        v = where.judge(*given)
        self.assertEqual(v.status, Status.UNSETTLED, f"{v.said}")
        return plain(v.why)

    def first(self, where: Scene, given: list[Reading]) -> str:
        found, v = where.infer(*given), where.judge(*given)
        return plain(remedies_of(found, v, where.plans)[0].how)

    def test_one_seam_a_sixteenth_wide_is_repeated(self) -> None:
        self.assertIn("middle: 1⁄16″ wide. One reading", self.open(F, seams("5/16")))
        self.assertIn("middle: 1⁄16″ narrow. One reading", self.open(F, seams("3/16")))

    def test_one_seam_a_thread_off_is_nothing(self) -> None:
        self.assertIn("Nothing that was measured stands out", self.open(F, seams("9/32")))

    def test_one_piece_cut_an_eighth_small_is_repeated(self) -> None:
        self.assertIn("a piece as cut: 1⁄8″ short", self.open(F, read("cut", "3 7/8", batch=HST)))

    def test_a_unit_without_room_to_trim_is_repeated(self) -> None:
        # As planned it comes out at 3 21/32.
        self.assertIn("raw width", self.open(F, read("raw_width", "3 1/2", batch=HST)))
        self.assertIn("Nothing that was measured", self.open(F, read("raw_width", "3 3/4", batch=HST)))

    def test_what_shows_in_the_block_is_told_before_how_it_was_cut(self) -> None:
        crossing = next(f.key for f in F.model.features if f.kind.value == "crossing")
        given = [*read("cut", "3 7/8", batch=HST), *read("crossing", "1/16", feature=crossing)]
        self.assertIn("crossing 1: 1⁄16″ past it", self.open(F, given))

    def test_strip_tests_alone_say_what_is_taken_up_and_not_by_what(self) -> None:
        for middle, whole, size in (("15/16", "27/8", "1⁄32″"), ("7/8", "13/4", "1⁄16″")):
            for times in (1, 2):
                with self.subTest(middle=middle, times=times):
                    said = self.open(F, strips(middle, whole) * times)
                    self.assertIn(f"each fabric loses {size} too much", said)
                    self.assertIn("Read the stitching on the back of the strips", said)
                    self.assertNotIn("sew a strip test", said)

    def test_whoever_sewed_one_is_not_sent_to_sew_a_strip_test(self) -> None:
        rows = lines("12 3/8", "12 3/8")
        self.assertIn("sew a strip test", self.open(F, [*rows, *widths(HST, "3 1/2", "3 1/2")]))
        self.assertTrue(
            self.open(F, [*rows, *strips("15/16", "27/8")]).endswith("look just so: read the stitching on the back.")
        )

    def test_a_strip_test_too_long_is_a_seam_too_near_the_edge(self) -> None:
        # Strips of 1 1/2 sewn at 3/16: the middle one 1 1/8, all three 3 3/4.
        self.assertIn("loses 1⁄16″ too little", self.open(F, strips("9/8", "15/4")))

    def test_a_true_strip_test_says_nothing(self) -> None:
        self.assertIn("Nothing that was measured stands out", self.open(F, strips("1", "7/2")))

    def test_tips_cut_off_or_short_may_be_seams_or_clearance(self) -> None:
        tips = [f.key for f in S.model.features if f.kind.value == "edge_tip"]
        for value, seam, above in (("-1/16", "wide", "too little"), ("1/16", "narrow", "too much")):
            with self.subTest(value=value):
                size = read("edge_tip", value)[0].value
                said = self.open(S, [Reading(ReadingKind.TIP_GAP, size, feature=k) for k in tips[:3]])
                self.assertIn(f"all seams are 1⁄16″ {seam}", said)
                self.assertIn(f"trimmed with 1⁄16″ {above} above the tip", said)

    def test_one_tip_of_four_is_not_laid_to_the_fold(self) -> None:
        tips = [f.key for f in S.model.features if f.kind.value == "edge_tip"]
        gaps = [
            Reading(ReadingKind.TIP_GAP, read("edge_tip", v)[0].value, feature=k)
            for k, v in zip(tips, ("-1/16", "0", "0", "0"), strict=True)
        ]
        said = self.open(S, [*gaps, *seams("1/4", "1/4"), *read("clearance", "1/4", "1/4", batch=GOOSE)])
        self.assertIn("1⁄16″ cut off, and what else was measured does not say why", said)

    def test_no_block_is_called_short_of_which_no_length_was_read(self) -> None:
        self.assertTrue(self.first(F, seams("5/16", "5/16")).startswith("The block may come out short"))
        self.assertTrue(self.first(F, lines("12 1/4")).startswith("The block is short"))

    def test_seams_that_nobody_read_are_likely_and_not_certain(self) -> None:
        # Two seams across the star, 1/16 wide: each row 4 times 1/16 short.
        rows = [*lines("12 1/4", "12 1/4", "12 1/4"), *widths(GOOSE, *["6 1/2"] * 3), *heights(GOOSE, *["3 1/2"] * 3)]
        self.assertEqual(plain(S.judge(*rows).said), "all seams are 1⁄16″ wide")
        self.assertEqual(S.judge(*rows).sure_words, "likely")
        self.assertEqual(S.judge(*rows, *seams("5/16", "5/16")).sure_words, "certain")

    def test_an_outcome_promises_no_more_than_the_verdict_then_says(self) -> None:
        """A row may say much of seams, yet nobody is certain of seams that were not looked at; and little is sure after one reading."""
        seams_read = (ReadingKind.STITCH, ReadingKind.STRIP_TEST)
        short = [*lines("12 1/4", "12 1/4"), *widths(GOOSE, "6 1/2")]
        certain = []
        for where, given in ((F, []), (F, lines("12 1/2")), (S, short)):
            found = where.infer(*given)
            for asked in next_readings(found, where.judge(*given)):
                for o in asked.outcomes:
                    said = plain(o.said)
                    if len(given) < 2 and o.sure < 0.98:
                        self.assertTrue(said.endswith("(open)"), said)
                    if o.cause is not None and o.cause.cause is Cause.SEAM and o.sure > 0.95 and given:
                        certain.append(said.endswith("(certain)") == (asked.reading.kind in seams_read))
        self.assertTrue(certain)
        self.assertTrue(all(certain))

    def test_it_is_one_more_only_where_one_was_read(self) -> None:
        for given, said in (
            ([], "measure one seam at its middle"),
            (seams("1/4"), "measure one more seam at its middle"),
        ):
            asked = next_readings(F.infer(*given), options=[Reading(ReadingKind.STITCH, inches(1), spot="middle")])
            self.assertIn(said, plain(asked[0].said))
        width = Reading(ReadingKind.WIDTH, inches(1), batch=HST)
        for given, one in (
            ([], "one of the"),
            (widths(HST, "3 1/2"), "one more of the"),
            (read("width", "3 1/2", unit="c1r1"), "one more of the"),
            (heights(HST, "3 1/2"), "one of the"),
        ):
            self.assertIn(f"Measure {one}", plain(next_readings(F.infer(*given), options=[width])[0].said))
        square = Reading(ReadingKind.WIDTH, inches(1), batch=S.batch("plain_square"))
        others = S.infer(*widths(GOOSE, "6 1/2"))
        self.assertIn("Measure one of the", plain(next_readings(others, options=[square])[0].said))

    def test_no_ruler_is_laid_from_corner_to_corner_where_straight_across_tells_about_as_much(self) -> None:
        geese = scene(library_pattern("goose_pair"), "11/2")
        tip = next(f.key for f in geese.model.features if f.kind.value == "edge_tip")
        given = read("edge_tip", "0", feature=tip)
        for _ in range(3):
            asked = next_readings(geese.infer(*given), geese.judge(*given))[0].reading
            self.assertNotIn(asked.kind, (ReadingKind.DIAGONAL_RISING, ReadingKind.DIAGONAL_FALLING))
            if asked.kind not in (ReadingKind.WIDTH, ReadingKind.HEIGHT):
                break
            given += [replace(asked, value=inches(6) if asked.kind is ReadingKind.WIDTH else inches("13/4"))]

    def test_what_the_verdict_sends_one_to_read_is_asked_for(self) -> None:
        st = read("strip_test", "15/16", whole=inches("27/8"))  # type: ignore[arg-type]
        fold = [*widths(HST, "3 1/2", "3 1/2"), *lines("12 13/32", "12 13/32")]
        cases = (
            ([*fold, *lines("12 13/32")], "read the stitching on the back", (ReadingKind.STITCH,)),
            ([*fold, *st], "read the stitching on the back", (ReadingKind.STITCH,)),
            (st, "Read the stitching on the back", (ReadingKind.STITCH,)),
            (
                lines("12 1/8", "12 1/8"),
                "measure one, or the stitching on the back",
                (ReadingKind.WIDTH, ReadingKind.STITCH),
            ),
            (
                [*widths(HST, "3 9/16", "3 9/16"), *heights(HST, "3 9/16")],
                "measure both diagonals",
                (ReadingKind.DIAGONAL_RISING, ReadingKind.DIAGONAL_FALLING),
            ),
        )
        for given, said, kinds in cases:
            with self.subTest(said, count=len(given)):
                found, verdict = F.infer(*given), F.judge(*given)
                self.assertIn(said, plain(verdict.why))
                asked = next_readings(found, verdict)[0].reading
                self.assertIn(asked.kind, kinds)

    def test_what_is_short_by_a_sixteenth_is_not_refused_for_being_more(self) -> None:
        """Two geese a sixteenth short, one over the other: the one seam between them would have to give 1/8 back, and lie at 1/8."""
        geese = scene(library_pattern("goose_pair"), "11/2")
        batch = geese.batch("flying_goose")
        given = [*widths(batch, *["5 15/16"] * 4), *heights(batch, *["3 3/16"] * 3), *seams("1/4", "1/4")]
        offered = remedies_of(geese.infer(*given), geese.judge(*given), geese.plans)
        (share,) = (r for r in offered if plain(r.title).startswith("Share what the flying geese are short"))
        self.assertIn("less than 3⁄16″ of allowance", plain(share.why_not))

    def test_both_ends_of_seams_are_asked_for_one_after_the_other(self) -> None:
        """Three seams 1/32 wide at their middle: a drift looks just so, until both ends were read."""
        given = seams("9/32", "9/32", "9/32")
        spots = []
        for _ in range(2):
            found, verdict = F.infer(*given), F.judge(*given)
            self.assertIn("Seams that drift look just so: read one at both its ends", plain(verdict.why))
            asked = next_readings(found, verdict)[0].reading
            self.assertIs(asked.kind, ReadingKind.STITCH)
            spots.append(asked.spot)
            given += [replace(asked, value=inches("9/32"))]
        self.assertEqual(sorted(spots), ["end", "start"])
