"""Geese trimmed too large and geese drawn out on their bias, by hand: trimmed, both sides are over by the same; drawn out by a share, the
long side by twice as much as the short one, since it is twice as long.

A star of 12 has geese of 6 1/2 by 3 1/2.
"""

from __future__ import annotations

from unittest import TestCase

from piecing.diagnosis.asking import next_readings
from piecing.diagnosis.causes import Cause
from piecing.diagnosis.inference import infer
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.verdict import Status

from .trials import FOUR_BY_FOUR, STAR, plain, read

S = STAR()
GOOSE = S.batch("flying_goose")
LONG = [*read("width", "6 9/16", "6 9/16", batch=GOOSE), *read("stitch", "1/4", "1/4", "1/4", spot="middle")]


class DrawnOutTest(TestCase):
    def test_one_side_alone_does_not_tell_and_the_other_is_asked_for(self) -> None:
        given = [*LONG, *read("row", "12 5/8", feature="row 1, middle")]
        verdict = S.judge(*given)
        self.assertIs(verdict.status, Status.UNSETTLED)
        first = next_readings(infer(S.model, given), verdict)[0].reading
        self.assertEqual((first.kind, first.batch), (ReadingKind.HEIGHT, GOOSE))

    def test_both_sides_over_by_the_same(self) -> None:
        verdict = S.judge(*LONG, *read("height", "3 9/16", "3 9/16", batch=GOOSE))
        self.assertIs(verdict.status, Status.SETTLED)
        self.assertEqual(plain(verdict.said), "flying geese trimmed 1⁄16″ too large")

    def test_one_reading_of_the_other_side_will_do(self) -> None:
        verdict = S.judge(*LONG, *read("height", "3 9/16", batch=GOOSE))
        self.assertEqual(plain(verdict.said), "flying geese trimmed 1⁄16″ too large")

    def test_the_long_side_by_twice_as_much(self) -> None:
        verdict = S.judge(*LONG, *read("height", "3 17/32", "3 17/32", batch=GOOSE))
        self.assertIn("flying geese stretched", plain(verdict.why) + plain(verdict.said))
        self.assertFalse(verdict.leading is not None and verdict.leading.cause is Cause.TRIM)

    def test_of_the_squares_beside_them_nothing_is_learned_of_geese(self) -> None:
        """A square read across is no goose read across: the verdict's own sentence still sends one to a goose."""
        squares = read("width", "6 1/2", "6 1/2", batch="plain_square 6 x 6")
        tall = read("height", "3 9/16", "3 9/16", "3 9/16", batch=GOOSE)
        given = [*tall, *squares]
        verdict = S.judge(*given)
        self.assertIn("measure one both ways", plain(verdict.why))
        assert verdict.wanted is not None
        self.assertEqual(verdict.wanted.kinds, (ReadingKind.WIDTH,))
        first = next_readings(infer(S.model, given), verdict)[0].reading
        self.assertEqual((first.kind, first.batch), (ReadingKind.WIDTH, GOOSE))


class HowMuchTest(TestCase):
    def test_what_two_diagonals_say_is_known_to_a_thirty_second(self) -> None:
        """Half squares of 3 1/2, their diagonal 4.95: one reads 5 3/32, the other 4 15/16, each of one unit. A mark of the ruler lies between
        either and the next, and bias gives under the hand: 5/32 apart is an eighth or three sixteenths, and no sixteenth."""
        four = FOUR_BY_FOUR()
        key = four.batch("half_square_triangle")
        given = [
            *read("diagonal_rising", "5 3/32", batch=key), *read("diagonal_falling", "4 15/16", batch=key),
            *read("width", "3 9/16", "3 17/32", batch=key), *read("stitch", "1/4", "1/4", spot="middle"),
        ]  # fmt: skip
        e = next(e for e in four.infer(*given).estimates if e.parameter.cause is Cause.STRETCH)
        self.assertLess(1 / 16, e.low)
        self.assertLess(1 / 16, e.high - e.low)
