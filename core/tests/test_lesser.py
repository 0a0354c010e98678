"""What is a little off is not all there is until somebody looked round: plain cases by hand.

An hourglass star of 9 has units of 3 1/2 and two seams in a row of 9 1/2. Each seam a 1/32 narrow leaves 1/32 more of the fabric on
each side of it: a row a 1/32 too long four times over, 9 5/8.
"""

from __future__ import annotations

from unittest import TestCase

from piecing.blocks.library import library_pattern
from piecing.diagnosis.asking import next_readings
from piecing.diagnosis.causes import Cause
from piecing.diagnosis.inference import infer
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import changes_for_the_rest, done_first, remedies_of
from piecing.diagnosis.verdict import Status

from .trials import plain, read, scene

STAR = scene(library_pattern("hourglass_star"), "9")
HOURGLASS, SQUARE = STAR.batch("quarter_square_triangle"), STAR.batch("plain_square")


def narrow(row: str, seam: str) -> list[Reading]:
    """One row, one square, and one seam read at three spots: five readings."""
    along = [r for spot in ("start", "middle", "end") for r in read("stitch", seam, spot=spot)]
    return read("row", row, feature="row 1, middle") + read("width", "3 1/2", batch=SQUARE) + along


def missed(value: str, unit: str = "c2r1") -> list[Reading]:
    return read("miss", value, unit=unit, corner="top right")


NARROW = narrow("9 5/8", "7/32")


class LesserTest(TestCase):
    def test_a_thirty_second_waits_for_a_look_round(self) -> None:
        verdict = STAR.judge(*NARROW)
        self.assertIs(verdict.status, Status.UNSETTLED)
        self.assertEqual(
            plain(verdict.why),
            "Perhaps all seams are 1⁄32″ narrow. More may be off where nobody looked yet: where diagonals meet corners and the size of "
            "some units.",
        )

    def test_what_is_asked_for_is_where_nobody_looked(self) -> None:
        verdict = STAR.judge(*NARROW)
        first = next_readings(infer(STAR.model, NARROW), verdict)[0].reading
        self.assertIn(first.kind, (ReadingKind.MISS, ReadingKind.WIDTH, ReadingKind.HEIGHT))
        self.assertNotEqual(first.batch, SQUARE)

    def test_it_is_named_once_units_were_looked_at(self) -> None:
        verdict = STAR.judge(*NARROW, *missed("0"), *read("width", "3 1/2", batch=HOURGLASS))
        self.assertIs(verdict.status, Status.SETTLED)
        self.assertEqual(plain(verdict.said), "all seams are 1⁄32″ narrow")

    def test_the_sixteenth_that_was_found_there_leads(self) -> None:
        verdict = STAR.judge(*NARROW, *missed("1/16"), *missed("1/16", "c1r2"))
        self.assertIs(verdict.status, Status.SETTLED)
        assert verdict.leading is not None
        self.assertIs(verdict.leading.cause, Cause.SHIFT)

    def test_a_sixteenth_is_named_at_once(self) -> None:
        verdict = STAR.judge(*narrow("9 3/4", "3/16"))
        self.assertIs(verdict.status, Status.SETTLED)
        self.assertEqual(plain(verdict.said), "all seams are 1⁄16″ narrow")

    def test_where_all_was_looked_at_six_readings_do(self) -> None:
        ends = [*read("stitch", "7/32", spot="start"), *read("stitch", "7/32", spot="end")]
        units = [*missed("0"), *read("width", "3 1/2", batch=HOURGLASS), *read("width", "3 1/2", batch=SQUARE)]
        verdict = STAR.judge(*read("row", "9 5/8", feature="row 1, middle"), *units, *ends)
        self.assertEqual(plain(verdict.said), "all seams are 1⁄32″ narrow")

    def test_seven_readings_do_whatever_was_not_looked_at(self) -> None:
        """Two rows more, one of them a little less over: nobody measures everything before she moves her guide."""
        more = [*read("row", "9 9/16", feature="row 2, middle"), *read("row", "9 5/8", feature="row 3, middle")]
        verdict = STAR.judge(*NARROW, *more)
        self.assertIs(verdict.status, Status.SETTLED)
        self.assertEqual(plain(verdict.said), "all seams are 1⁄32″ narrow")

    def test_four_readings_are_no_look_round(self) -> None:
        """A column of eight units, 22 1/2, is 13/32 over, fourteen fabrics a 1/32 each; a goose is true and a seam 7/32 at both ends. Nobody
        measured the rectangles, which may be a 1/16 over themselves."""
        wake = scene(library_pattern("wake"), "11/2")
        column = read("column", "22 29/32", feature="column 1, middle")
        goose = read("height", "3 1/4", batch=wake.batch("flying_goose"))
        verdict = wake.judge(
            *column, *goose, *read("stitch", "7/32", spot="end"), *read("stitch", "7/32", spot="start")
        )
        self.assertIs(verdict.status, Status.UNSETTLED)
        self.assertIn("More may be off where nobody looked yet: the size of some units", plain(verdict.why))

    def test_after_a_row_what_no_row_tells_is_asked_for(self) -> None:
        """A row is as long as its units and seams make it, wherever their diagonals lie: on a unit, or at a corner of the block."""
        row = read("row", "9 17/32", feature="row 1, middle")
        first = next_readings(infer(STAR.model, row), STAR.judge(*row))[0].reading
        self.assertIn(first.kind, (ReadingKind.MISS, ReadingKind.CORNER_GAP))


class FirstTest(TestCase):
    ALL_TRUE = (
        *(r for n in (1, 2, 3) for r in read("row", "9 1/2", feature=f"row {n}, middle")),
        *read("width", "3 1/2", "3 1/2", "3 1/2", batch=HOURGLASS),
        *read("height", "3 1/2", batch=HOURGLASS),
        *missed("0"),
        *missed("0", "c1r2"),
        *missed("0", "c3r2"),
    )

    def first(self, *given: Reading) -> str:
        found, verdict = infer(STAR.model, given), STAR.judge(*given)
        first = done_first(verdict, remedies_of(found, verdict), changes_for_the_rest(found, verdict))
        return first.code if first is not None else ""

    def test_nothing_is_left_for_good_while_a_seam_is_asked_for(self) -> None:
        self.assertIs(STAR.judge(*self.ALL_TRUE).status, Status.UNSETTLED)
        self.assertEqual(self.first(*self.ALL_TRUE), "")

    def test_what_is_true_is_left(self) -> None:
        given = (*self.ALL_TRUE, *read("stitch", "1/4", spot="middle"))
        self.assertIs(STAR.judge(*given).status, Status.TRUE)
        self.assertEqual(self.first(*given), "leave")

    def test_a_cause_that_is_named_has_its_remedy(self) -> None:
        self.assertEqual(self.first(*narrow("9 3/4", "3/16")), "all_seams")
        self.assertEqual(self.first(), "")
