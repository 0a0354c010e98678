"""Units of which one side alone was trimmed at a wrong mark, as a teacher types them; and what is said before anything is measured.

Every figure is worked out by hand: a 4 x 4 of half-square triangles of 3 1/2 in. before they are joined, a row of four of them
12 1/2 in.; geese of 6 1/2 by 3 1/2 in. with 1/4 in. above the tip.
"""

from __future__ import annotations

from unittest import TestCase

from piecing.diagnosis import Status, judge
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import changes_for_the_rest, remedies_of
from piecing.diagnosis.remedies.remedy import Remedy
from piecing.lengths import Style, mm

from .blocks import grid
from .trials import FOUR_BY_FOUR, STAR, Scene, read, scene, seen

F, S = FOUR_BY_FOUR(), STAR()
HST, GEESE = F.batch("half_square_triangle"), S.batch("flying_goose")


def plain(said: object) -> str:
    return str(said).replace("\u00a0", " ")


def rows(value: str, *, kind: str = "row") -> list[Reading]:
    return [r for n in (1, 2, 3) for r in read(kind, value, feature=f"{kind} {n}, middle")]


def remedies(where: Scene, *readings: Reading) -> tuple[Remedy, ...]:
    found = where.infer(*readings)
    return remedies_of(found, judge(found), where.plans)


class SquareTest(TestCase):
    def test_too_wide_and_not_too_high(self) -> None:
        taken = [*read("width", *["57/16"] * 4, batch=HST), *read("height", *["7/2"] * 4, batch=HST)]
        verdict = F.judge(*taken)
        self.assertEqual(verdict.status, Status.MISTAKE)
        self.assertEqual(plain(verdict.said), "half-square triangles trimmed 1⁄16″ too wide")
        self.assertIn("their height is right", plain(verdict.why))
        (again,) = remedies(F, *taken)
        self.assertIn("on that side only", plain(again.title))
        self.assertIn("take 1⁄16″ off", plain(again.how))
        self.assertEqual(again.minutes, 16)

    def test_the_rows_are_short_for_it_and_the_columns_are_not(self) -> None:
        """Four of them 1/16 narrow make every row 1/4 short."""
        taken = [
            *read("width", *["55/16"] * 3, batch=HST), *read("height", *["7/2"] * 3, batch=HST),
            *rows("12 1/4"), *rows("12 1/2", kind="column"),
        ]  # fmt: skip
        self.assertEqual(plain(F.judge(*taken).said), "half-square triangles trimmed 1⁄16″ too narrow")
        first, second = remedies(F, *taken)
        # Ten of the fifteen seams stand upright: each is unpicked and sewn shallower, none of those between the rows.
        self.assertIn("between the seams beside them", plain(first.title))
        self.assertIn("these 10 seams", plain(first.how))
        self.assertEqual((first.minutes, second.code), (10 * (3 + 2), "make_again-0"))
        self.assertNotIn("no seam shares", plain(second.how))

    def test_a_quarter_is_more_than_seams_share_out(self) -> None:
        again, share = remedies(F, *read("width", *["13/4"] * 3, batch=HST), *read("height", *["7/2"] * 3, batch=HST))
        self.assertFalse(share.possible)
        self.assertIn("Make the half-square triangles again", plain(again.title))
        self.assertIn("no seam shares so much out", plain(again.how))

    def test_the_other_side(self) -> None:
        said = F.judge(*read("width", *["7/2"] * 4, batch=HST), *read("height", *["57/16"] * 4, batch=HST)).said
        self.assertEqual(plain(said), "half-square triangles trimmed 1⁄16″ too tall")

    def test_in_millimetres_as_it_was_read(self) -> None:
        of = lambda kind, n: [Reading(r.kind, mm(n), batch=HST) for r in read(kind, *["1"] * 4)]  # noqa: E731
        # 3 1/2 in. is 88.9 mm; 87 and 89 are read with a ruler of whole millimetres.
        said = F.judge(*of("width", 87), *of("height", 89)).said
        self.assertRegex(said.text(Style()).replace("\u00a0", " "), r"too narrow$")

    def test_a_unit_that_lies_turned_has_its_own_width(self) -> None:
        """Every other one lies on its side: what is narrow is the unit, and rows and columns are short alike."""
        unit = {"A": {"kind": "half_square_triangle", "fabrics": "ab"}}
        turned = scene(grid(["A0 A1 A0 A1", "A1 A0 A1 A0"] * 2, unit), "12")
        at = [("c1r1", "55/16", "7/2"), ("c2r1", "55/16", "7/2"), ("c1r2", "55/16", "7/2")]
        own = [r for u, w, h in at for r in (*read("width", w, unit=u), *read("height", h, unit=u))]
        # Two of each row of four lie on their side: two of them are 1/16 narrow across the row.
        verdict = turned.judge(*own, *rows("12 3/8"), *rows("12 3/8", kind="column"))
        self.assertEqual(plain(verdict.said), "half-square triangles trimmed 1⁄16″ too narrow")

    def test_the_picture_shows_it(self) -> None:
        found = F.infer(*read("width", *["13/4"] * 4, batch=HST), *read("height", *["7/2"] * 4, batch=HST))
        for feature, off in zip(F.model.features, F.model.deviations(found.block), strict=True):
            if feature.key == "row 1, middle":
                self.assertAlmostEqual(float(off), -1.0, delta=0.06)
            if feature.key == "column 1, middle":
                self.assertAlmostEqual(float(off), 0.0, delta=0.06)


class NotAccusedTest(TestCase):
    def test_neither_side_right(self) -> None:
        """Widths 1/16 over and heights 1/8: no side of them is the right one."""
        verdict = F.judge(*read("width", *["57/16"] * 4, batch=HST), *read("height", *["29/8"] * 4, batch=HST))
        self.assertNotIn("is right", plain(verdict.why))

    def test_one_reading_of_each_side(self) -> None:
        verdict = F.judge(*read("width", "57/16", batch=HST), *read("height", "7/2", batch=HST))
        self.assertEqual(verdict.status, Status.UNSETTLED)

    def test_a_mark_of_a_thirty_second(self) -> None:
        verdict = F.judge(*read("width", *["113/32"] * 4, batch=HST), *read("height", *["7/2"] * 4, batch=HST))
        self.assertNotEqual(verdict.status, Status.MISTAKE)

    def test_both_sides_off_are_trimmed_large(self) -> None:
        verdict = F.judge(*read("width", *["57/16"] * 4, batch=HST), *read("height", *["57/16"] * 4, batch=HST))
        self.assertNotIn("their", plain(verdict.why))

    def test_a_sixteenth_of_widths_alone_is_no_one_side(self) -> None:
        self.assertNotEqual(F.judge(*read("width", *["57/16"] * 4, batch=HST)).status, Status.MISTAKE)

    def test_widths_that_differ(self) -> None:
        taken = read("width", "57/16", "7/2", "57/16", "55/16", batch=HST)
        self.assertNotEqual(F.judge(*taken, *read("height", *["7/2"] * 4, batch=HST)).status, Status.MISTAKE)

    def test_one_side_alone_says_nothing_of_the_other(self) -> None:
        verdict = F.judge(*read("width", *["13/4"] * 4, batch=HST))
        self.assertIn("trimmed to the wrong mark of the ruler, 1⁄4″ too small", plain(verdict.said))


class GeeseTest(TestCase):
    def taken(self, height: str, clearance: str = "") -> list[Reading]:
        above = read("clearance", clearance, clearance, batch=GEESE) if clearance else []
        return [*read("height", *[height] * 3, batch=GEESE), *read("width", *["13/2"] * 3, batch=GEESE), *above]

    def shared(self, *taken: Reading) -> set[str]:
        """The seams that the first remedy would sew shallower, by name."""
        change = remedies(S, *taken)[0].change
        seams = S.model.places.seams
        return (
            set()
            if change is None
            else {s.name for n, s in enumerate(seams) if change.renewed[S.model.of_seam(n, "mean")]}
        )

    def test_cut_off_at_the_foot_the_tip_keeps_its_quarter(self) -> None:
        taken = self.taken("13/4", "1/4")
        self.assertEqual(plain(S.judge(*taken).said), "flying geese trimmed 1⁄4″ too short, at the foot")
        self.assertEqual([r.code.split("-")[0] for r in remedies(S, *taken)], ["make_again", "share"])

    def test_cut_off_above_the_tip_it_has_so_much_less(self) -> None:
        """A sixteenth less above the tip is sewn a sixteenth nearer to that edge: then the tip is whole."""
        taken = self.taken("55/16", "3/16")
        self.assertEqual(plain(S.judge(*taken).said), "flying geese trimmed 1⁄16″ too short, above the tip")
        # Each of the four geese has its tip at a seam of the middle square.
        middle = next(c for c in S.model.places.cells if c.width == c.height == 6)
        self.assertEqual(self.shared(*taken), {S.model.places.seams[n].name for n in middle.seams if n is not None})

    def test_a_sixteenth_at_the_foot(self) -> None:
        taken = self.taken("55/16", "1/4")
        self.assertEqual(plain(S.judge(*taken).said), "flying geese trimmed 1⁄16″ too short, at the foot")
        # Their feet are the block's own edge: no seam of the block is there.
        self.assertEqual(self.shared(*taken), set())

    def test_where_the_tip_was_not_looked_at_neither_end_is_named(self) -> None:
        taken = self.taken("53/16")
        self.assertEqual(plain(S.judge(*taken).said), "flying geese trimmed 3⁄16″ too short")

    def test_too_tall_they_are_trimmed(self) -> None:
        taken = self.taken("29/8", "3/8")
        self.assertEqual(plain(S.judge(*taken).said), "flying geese trimmed 1⁄8″ too tall, above the tip")
        self.assertIn("take 1⁄8″ off", plain(remedies(S, *taken)[0].how))

    def test_of_a_mistake_no_setting_is_moved(self) -> None:
        found = S.infer(*self.taken("13/4", "1/4"))
        self.assertEqual(changes_for_the_rest(found, judge(found)), ())


class FirstThingsFirstTest(TestCase):
    def test_what_was_only_seen_is_no_reason_to_leave_it(self) -> None:
        answers = {"frayed": ["blade"], "shadow": ["pressed_to_light"], "bowed": ["joined_in_turn"], "wavy": []}
        for sign, codes in answers.items():
            with self.subTest(sign):
                self.assertEqual([r.code for r in remedies(F, *seen(sign))], codes)

    def test_while_it_is_open_measuring_stands_before_the_ripper(self) -> None:
        """One seam of 9/32 in.; were all so, rows would be 1/8 in. short. They are 3/16 in. short, and it stays open."""
        stitched = read("stitch", "9/32", spot="middle")
        short = [r for n in (1, 2) for r in read("row", "12 5/16", feature=f"row {n}, middle")]
        found = S.infer(*stitched, *short)
        self.assertEqual(judge(found).status, Status.UNSETTLED)
        self.assertEqual(remedies(S, *stitched, *short)[0].code, "wait")
