"""Plain cases at the bench, worked by hand: the verdict leads with what an expert would say, or stays open where she would.

The seventeen of the shared list, in its order, and more of the same nature. The answers are sentences an expert signs; no
figure in them is computed here.
"""

from __future__ import annotations

from unittest import TestCase

from piecing.diagnosis.causes import Cause
from piecing.diagnosis.remedies import changes_for_the_rest, remedies_of
from piecing.diagnosis.verdict import Status, Verdict
from piecing.lengths import inches

from .trials import FOUR_BY_FOUR, STAR, Scene, corner_units, read, seen

F, S = FOUR_BY_FOUR(), STAR()
HST, GOOSE = F.batch("half_square_triangle"), S.batch("flying_goose")
BELOW_2 = "the seam below row 2"


def rows(*values: str, of: str = "row") -> list:  # type: ignore[type-arg]
    return [r for n, v in enumerate(values, 1) for r in read(of, v, feature=f"{of} {n}, middle")]


def stitches(*values: str, **where: str) -> list:  # type: ignore[type-arg]
    return read("stitch", *values, **{"spot": "middle", **where})


def widths(*values: str) -> list:  # type: ignore[type-arg]
    return read("width", *values, batch=HST)


def heights(*values: str) -> list:  # type: ignore[type-arg]
    return read("height", *values, batch=HST)


def tips(*values: str) -> list:  # type: ignore[type-arg]
    places = ("tip c2r1 bottom", "tip c1r2 right", "tip c4r2 left", "tip c2r4 top")
    return [r for key, v in zip(places, values, strict=False) for r in read("edge_tip", v, feature=key)]


class SeventeenTest(TestCase):
    def leads(self, v: Verdict, cause: Cause, said: str) -> None:
        self.assertEqual(v.status, Status.SETTLED, str(v.said))
        assert v.leading is not None
        self.assertEqual(v.leading.cause, cause)
        self.assertIn(said, str(v.said))

    def test_1_every_seam_wide(self) -> None:
        v = F.judge(*rows("12 5/16", "12 5/16", "12 5/16"), *rows("12 5/16", "12 5/16", of="column"),
                    *stitches(*["9/32"] * 5), *widths("3 1/2", "3 1/2", "3 1/2"))  # fmt: skip
        self.leads(v, Cause.SEAM, "all seams are 1⁄32″ wide")

    def test_1_stitch_at_a_quarter_not_at_nine_thirty_seconds(self) -> None:
        found = F.infer(*rows("12 5/16", "12 5/16", "12 5/16"), *stitches(*["9/32"] * 5), *widths("3 1/2", "3 1/2"))
        change = changes_for_the_rest(found, F.judge(*found.readings))[0]
        self.assertIn("1⁄4″", str(change.title))
        self.assertIn("not at 9⁄32″", str(change.title))

    def test_2_off_the_diagonal(self) -> None:
        misses = [
            r
            for unit, corner in (
                ("c1r1", "bottom left"),
                ("c2r2", "top right"),
                ("c3r3", "bottom left"),
                ("c4r1", "top right"),
            )
            for r in read("miss", "1/32" if "bottom" in corner else "-1/32", unit=unit, corner=corner)
        ]
        given = (*widths("3 1/2", "3 1/2"), *heights("3 1/2", "3 1/2"), *rows("12 1/2", "12 1/2"),
                 *stitches("1/4", "1/4"), *misses)  # fmt: skip
        v = F.judge(*given)
        self.leads(v, Cause.SHIFT, "trimmed 1⁄32″ off the diagonal")
        again = next(r for r in remedies_of(F.infer(*given), v) if r.code == "trim_again-0")
        self.assertIn("trimmed to size already", str(again.why_not))

    def test_3_the_fold_is_not_paid_for(self) -> None:
        given = (*stitches(*["1/4"] * 4), *read("strip_test", "31/32", whole=inches("55/16")),
                 *rows("12 13/32", "12 13/32", "12 13/32"), *widths("3 1/2", "3 1/2"))  # fmt: skip
        v = F.judge(*given)
        self.leads(v, Cause.FOLD, "it takes a thread of each fabric")
        self.assertIn("a thread under 1⁄4″", str(changes_for_the_rest(F.infer(*given), v)[0].title))

    def test_4_tips_too_near_the_edge(self) -> None:
        v = S.judge(*read("clearance", "3/16", "3/16", "3/16", batch=GOOSE), *read("width", "6 1/2", batch=GOOSE),
                    *read("height", "3 1/2", batch=GOOSE), *stitches("1/4", "1/4"), *tips("-1/16", "-1/16"))  # fmt: skip
        self.leads(v, Cause.TIP, "1⁄16″ too little above the tip")
        self.assertIsNone(v.beside)

    def test_5_one_seam_strays_at_its_right_end(self) -> None:
        others = [s.name for s in F.model.places.seams if s.name != BELOW_2]
        for edge in ("middle", "right"):
            columns = [
                r
                for n, value in enumerate(("12 1/2", "12 1/2", "12 7/16", "12 3/8"), 1)
                for r in read("column", value, feature=f"column {n}, {edge}")
            ]
            given = (
                *stitches("1/4", seam=BELOW_2, spot="start"), *stitches("1/4", seam=BELOW_2),
                *stitches("5/16", seam=BELOW_2, spot="end"), *(r for s in others[:3] for r in stitches("1/4", seam=s)),
                *columns, *rows("12 1/2", "12 1/2"),
            )  # fmt: skip
            v = F.judge(*given)
            self.leads(v, Cause.ONE_SEAM, "the seam below row 2 strays deep by 1⁄16″ at its right end")
            first = remedies_of(F.infer(*given), v)[0]
            self.assertIn("Unpick two inches at the right end of the seam below row 2", str(first.title))

    def test_6_a_slip_of_the_pen(self) -> None:
        given = (*rows("12 1/2", "12 1/2", "21 1/2"), *rows("12 1/2", of="column"), *stitches("1/4", "1/4"),
                 *widths("3 1/2", "3 1/2"))  # fmt: skip
        self.assertEqual(F.judge(*given).status, Status.TRUE)
        (odd,) = F.infer(*given).odd
        self.assertEqual(odd.index, 2)
        self.assertIn("12 1⁄2″, and it reads 21 1⁄2″", str(odd.said).replace("\u00a0", " "))

    def test_7_finished_and_unfinished_mixed_up(self) -> None:
        v = F.judge(*widths("3"), *heights("3"))
        self.assertEqual(v.status, Status.MISTAKE)
        self.assertIn("finished and unfinished size mixed up, or a ruler's border counted", str(v.said))

    def test_8_one_wrong_mark(self) -> None:
        v = F.judge(*widths("3 1/4", "3 1/4", "3 1/4"), *heights("3 1/4", "3 1/4", "3 1/4"))
        self.assertEqual(v.status, Status.MISTAKE)
        self.assertIn("wrong mark of the ruler, 1⁄4″ too small", str(v.said))

    def test_9_a_turned_unit_and_nothing_about_sizes(self) -> None:
        v = F.judge(*seen("right_when_turned"), *widths("3 1/2"), *heights("3 1/2"))
        self.assertEqual((v.status, v.code), (Status.MISTAKE, "turned_unit"))
        self.assertNotIn("″", str(v.said))

    def test_other_mistakes_of_the_eye_lead_and_say_nothing_of_sizes(self) -> None:
        for kind, code in (("two_alike", "two_alike"), ("seam_inside_out", "wrong_sides")):
            with self.subTest(kind):
                v = F.judge(*seen(kind), *widths("3 1/2"), *heights("3 1/2"))
                self.assertEqual((v.status, v.code), (Status.MISTAKE, code))
                self.assertNotIn("″", str(v.said))

    def test_10_open(self) -> None:
        self.assertEqual(F.judge(*rows("12 3/8"), *widths("3 1/2"), *stitches("1/4")).status, Status.UNSETTLED)

    def test_11_rows_that_contradict_each_other(self) -> None:
        v = F.judge(*rows("12", "12 3/4"), *widths("3 1/2", "3 1/2"), *stitches("1/4", "1/4"))
        self.assertEqual(v.status, Status.DOUBTED)
        self.assertIsNone(v.leading)

    def test_12_true_by_the_sixth_reading(self) -> None:
        for given in (
            (*rows("12 1/2", "12 15/32"), *rows("12 1/2", of="column"), *stitches("1/4"), *widths("3 1/2", "3 17/32")),
            (*widths("3 1/2", "3 1/2"), *stitches("1/4", "1/4"), *rows("12 1/2", "12 1/2")),
        ):
            self.assertEqual(F.judge(*given).status, Status.TRUE)
        more = (*rows("12 1/2", "12 15/32"), *rows("12 1/2", "12 17/32", of="column"), *stitches("1/4", "1/4", "9/32", "1/4"),
                *widths("3 1/2", "3 17/32", "3 1/2"))  # fmt: skip
        self.assertEqual(F.judge(*more).status, Status.TRUE)

    def test_13_stretched_not_trimmed_large(self) -> None:
        units = corner_units()
        key = units.batch("corner_triangle")
        v = units.judge(
            *read("width", "3 9/16", "3 9/16", batch=key), *read("height", "3 9/16", "3 9/16", batch=key),
            *read("diagonal_rising", "5 3/32", "5 3/32", batch=key),
            *read("diagonal_falling", "4 31/32", "4 31/32", batch=key), *seen("wavy"), *stitches("1/4", "1/4"),
        )  # fmt: skip
        self.leads(v, Cause.STRETCH, "stretched")

    def test_14_narrow_seams_are_sewn_again_with_nothing_unpicked(self) -> None:
        given = (
            *stitches("3/16", "3/16", "3/16"),
            *tips("1/16", "1/16"),
            *rows("12 3/4"),
            *rows("12 3/4", of="column"),
        )
        v = S.judge(*given)
        self.leads(v, Cause.SEAM, "all seams are 1⁄16″ narrow")
        first = remedies_of(S.infer(*given), v)[0]
        self.assertEqual((first.code, first.minutes), ("all_seams", 2 * len(S.model.places.seams)))
        self.assertIn("Nothing is unpicked", str(first.how))

    def test_15_wide_seams_are_unpicked(self) -> None:
        given = (
            *stitches("5/16", "5/16", "5/16"),
            *tips("-1/16", "-1/16"),
            *rows("12 1/4"),
            *rows("12 1/4", of="column"),
        )
        v = S.judge(*given)
        self.leads(v, Cause.SEAM, "all seams are 1⁄16″ wide")
        self.assertIn("Unpick", str(remedies_of(S.infer(*given), v)[0].how))

    def test_16_cut_small(self) -> None:
        # Planned: squares of 4, raw 3.6464; both 1/8 under.
        given = (
            *read("cut", "3 7/8", "3 7/8", batch=HST),
            *read("raw_width", "3 17/32", "3 17/32", "3 17/32", batch=HST),
        )
        v = F.judge(*given)
        self.leads(v, Cause.CUT, "cut 1⁄8″ too small")
        self.assertEqual(remedies_of(F.infer(*given), v)[0].code, "cut_again-0")

    def test_17_the_hand_varies_and_no_setting_is_moved(self) -> None:
        given = (
            *stitches("3/16", "1/4", "5/16", "1/4", "7/32", "9/32"),
            *rows("12 7/16", "12 9/16", "12 1/2"),
            *seen("frayed"),
        )
        v = F.judge(*given)
        self.assertEqual(v.status, Status.VARIES)
        (change,) = changes_for_the_rest(F.infer(*given), v)
        self.assertIn("move no setting", str(change.title))


class MoreTest(TestCase):
    def test_what_a_later_stage_erased_cannot_lead(self) -> None:
        v = F.judge(*read("cut", "3 7/8", "3 7/8", batch=HST), *widths("3 1/2", "3 1/2", "3 1/2"), *heights("3 1/2"),
                    *stitches("1/4", "1/4"), *rows("12 1/2", "12 1/2"))  # fmt: skip
        self.assertEqual(v.status, Status.TRUE, str(v.said))

    def test_one_small_unit_is_named_by_its_place(self) -> None:
        v = F.judge(*read("width", "3 7/16", unit="c3r1"), *read("height", "3 7/16", unit="c3r1"), *widths("3 1/2", "3 1/2", "3 1/2"),
                    *rows("12 7/16", "12 1/2", "12 1/2"), *stitches("1/4", "1/4"))  # fmt: skip
        self.assertEqual(v.status, Status.SETTLED, str(v.said))
        self.assertIn("the unit in row 1, column 3", str(v.said))

    def test_seams_that_stray_at_every_start(self) -> None:
        v = F.judge(
            *stitches("5/16", "5/16", "5/16", "5/16", spot="start"), *stitches("1/4", "1/4", "1/4"),
            *stitches("1/4", "1/4", "1/4", spot="end"), *widths("3 1/2", "3 1/2"),
        )  # fmt: skip
        self.assertEqual(v.status, Status.SETTLED, str(v.said))
        assert v.leading is not None
        self.assertEqual(v.leading.cause, Cause.START)

    def test_one_reading_is_no_judgement(self) -> None:
        for given in (rows("12 1/2"), rows("12 3/8"), stitches("5/16"), widths("3 7/16")):
            self.assertEqual(F.judge(*given).status, Status.UNSETTLED)
        self.assertEqual(F.judge().status, Status.NO_READINGS)

    def test_two_things_together(self) -> None:
        misses = [
            r
            for unit, corner in (
                ("c1r1", "bottom left"),
                ("c2r2", "top right"),
                ("c3r3", "bottom left"),
                ("c4r1", "top right"),
            )
            for r in read("miss", "1/16" if "bottom" in corner else "-1/16", unit=unit, corner=corner)
        ]
        v = F.judge(
            *stitches(*["5/16"] * 5), *rows("12 1/8", "12 1/8", "12 1/8"), *widths("3 1/2", "3 1/2", "3 1/2"), *misses
        )
        self.assertIn(v.status, (Status.SEVERAL, Status.SETTLED))
        named = {p.cause for p in (v.leading, v.beside) if p is not None}
        self.assertEqual(named, {Cause.SEAM, Cause.SHIFT})

    def test_true_oblong_units_are_true_however_they_lie(self) -> None:
        # Geese of 6 by 3 lie four ways round the star: each is 6 1/2 by 3 1/2 by its own width and height.
        given = [
            r
            for unit in ("c2r1", "c1r2", "c4r2", "c2r4")
            for r in (*read("width", "6 1/2", unit=unit), *read("height", "3 1/2", unit=unit))
        ]
        v = S.judge(*given, *stitches("1/4", "1/4"), *rows("12 1/2"), *rows("12 1/2", of="column"))
        self.assertEqual(v.status, Status.TRUE, str(v.said))

    def test_no_setting_is_moved_before_a_cause_is_named(self) -> None:
        scene: Scene = F
        found = scene.infer(*stitches("9/32"), *rows("12 7/16"))
        v = scene.judge(*found.readings)
        self.assertEqual(changes_for_the_rest(found, v), ())
