"""Lengths: what people write, exactly read, rounded up to a ruler, set as fractions."""

from __future__ import annotations

from fractions import Fraction
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from piecing.diagnosis.words import GuideSetting, SizeRead
from piecing.errors import InexactLength, LengthError, LengthNotUnderstood, LengthOutOfRange
from piecing.lengths import Area, Length, Measure, Style, inches, mm, parse_length, parse_step
from piecing.lengths.surd import Surd

_MM = Style(Measure.MILLIMETRES)


class ParsingTest(TestCase):
    def test_every_way_of_writing_a_length(self) -> None:
        three_seven_eighths = inches("31/8")
        for text in (
            "3 7/8",
            "3-7/8",
            '3 7/8"',
            "3.875",
            "3,875",
            "31/8",
            "3⅞",
            "3 ⅞",
            "3 7⁄8″",
            "3 7 / 8 in",
            " 3  7/8 inches ",
            "3 7/8 in.",
            "3–7/8",
        ):
            with self.subTest(text):
                self.assertEqual(parse_length(text), three_seven_eighths)

    def test_millimetres_and_centimetres(self) -> None:
        for text in ("98 mm", "98mm", "9.8cm", "9,8 cm", "98.0 mm"):
            with self.subTest(text):
                self.assertEqual(parse_length(text), mm(98))
        self.assertEqual(parse_length("98", Measure.MILLIMETRES), mm(98))
        self.assertEqual(parse_length("1/4", Measure.MILLIMETRES), inches("1/4"), "a bare fraction is inches")
        self.assertEqual(parse_length('1/4"', Measure.MILLIMETRES), inches("1/4"))
        self.assertEqual(parse_length("25.4 mm"), inches(1))

    def test_cloth_as_it_is_bought(self) -> None:
        for text in ("2 1/2 yd", "2.5 yards", "2½yd", "90 in", "5/2 yd."):
            for measure in Measure:
                with self.subTest(text):
                    self.assertEqual(parse_length(text, measure), inches(90))
        for text in ("1.5 m", "1 1/2 m", "1,5 metres", "150 cm"):
            with self.subTest(text):
                self.assertEqual(parse_length(text), mm(1500))

    def test_a_mark_and_a_thread(self) -> None:
        for text in (
            "scant 1/4",
            "a scant 1/4",
            "1/4 scant",
            'a scant 1/4"',
            "a thread under 1/4″",
            "1/4 less a thread",
            "1/4 in a thread under",
        ):
            with self.subTest(text):
                self.assertEqual(parse_length(text), inches("15/64"))
        for text in ("a thread over 3/16", "thread over 3/16", "3/16 and a thread", "3/16 in. plus a thread"):
            with self.subTest(text):
                self.assertEqual(parse_length(text), inches("13/64"))
        self.assertEqual(parse_length("a thread under 12 1/2"), inches("799/64"))
        for text in ("scant", "a thread", "scant scant 1/4", "thread 1/4"):
            with self.subTest(text), self.assertRaises(LengthNotUnderstood):
                parse_length(text)
        with self.assertRaises(LengthOutOfRange):
            parse_length("a thread under 0")

    def test_what_is_said_of_a_guide_can_be_typed(self) -> None:
        for n in range(4, 64):
            said = GuideSetting(n / 64).set_in(Style())
            self.assertEqual(parse_length(said), Length.of(Fraction(n, 64)), said)

    def test_a_reading_between_two_marks_is_told_by_a_thread(self) -> None:
        for size, said in (
            ("15/64", "a thread under 1⁄4″"),
            ("799/64", "a thread under 12 1⁄2″"),
            ("9/32", "9⁄32″"),
            ("25/2", "12 1⁄2″"),
        ):
            self.assertEqual(SizeRead(inches(size)).set_in(Style()).replace("\u00a0", " "), said)
        self.assertEqual(SizeRead(inches("15/64")).set_in(_MM), _MM.pretty(inches("15/64")))

    def test_every_sixty_fourth_round_trips(self) -> None:
        style = Style()
        for k in range(6401):
            length = Length.of(Fraction(k, 64))
            for text in (style.text(length), style.pretty(length), _MM.text(length)):
                self.assertEqual(parse_length(text), length, text)

    def test_every_tenth_of_a_millimetre_round_trips(self) -> None:
        for k in range(0, 30_000, 7):
            length = mm(Fraction(k, 10))
            for text in (_MM.text(length), _MM.pretty(length)):
                self.assertEqual(parse_length(text), length, text)

    @given(
        st.decimals(0, 9999, places=6).map(str)
        | st.fractions(0, 99, max_denominator=9_999).map(str)
        | st.decimals(0, 9999, places=6).map(lambda d: f"{d} mm"),
        st.sampled_from(Measure),
        st.sampled_from(Measure),
    )
    def test_whatever_is_typed_comes_back_in_either_measure(
        self, typed: str, typed_in: Measure, shown_in: Measure
    ) -> None:
        length = parse_length(typed, typed_in)
        self.assertEqual(parse_length(Style(shown_in).text(length), shown_in), length)

    def test_what_cannot_be_read_is_said_in_words(self) -> None:
        said = {
            "": "nothing was typed",
            "   ": "nothing was typed",
            "wide": "which is no number",
            "3 7/0": "0 below the line",
            "3 8/8": "must be less than 1",
            "3 in 5 mm": "mixes two measures",
            "3 4": "left over",
            "3 furlongs": "no unit known here",
            "1.1234567": "more than 6 decimals",
            "1/123456": "finer than any ruler",
            "3/": "no unit known here",
        }
        for text, words in said.items():
            with self.subTest(text), self.assertRaises(LengthNotUnderstood) as caught:
                parse_length(text)
            self.assertIn(words, str(caught.exception))
            self.assertEqual(caught.exception.code, "length_not_understood")

    def test_below_zero_and_beyond_everything(self) -> None:
        for text in ("-1", "−1/4", "10001", "99999999999 mm"):
            with self.subTest(text), self.assertRaises(LengthOutOfRange):
                parse_length(text)
        self.assertEqual(parse_length("-1/4", signed=True), inches("-1/4"))

    @given(st.text(max_size=30))
    def test_any_text_is_read_or_refused(self, text: str) -> None:
        try:
            length = parse_length(text)
        except LengthError as refusal:
            self.assertTrue(str(refusal))
        else:
            self.assertGreaterEqual(length, inches(0))

    def test_a_long_paste_is_quoted_short(self) -> None:
        with self.assertRaises(LengthNotUnderstood) as caught:
            parse_length("x" * 5000)
        self.assertLess(len(str(caught.exception)), 200)

    def test_steps_lie_between_zero_and_an_inch(self) -> None:
        self.assertEqual(parse_step("1/8"), inches("1/8"))
        for text in ("0", "2", "26 mm"):
            with self.subTest(text), self.assertRaises(LengthOutOfRange):
                parse_step(text)


_lengths = st.fractions(min_value=0, max_value=60, max_denominator=512).map(Length.of)
_roots = st.builds(
    lambda p, q: Length(Surd(p, q)), st.fractions(0, 9, max_denominator=64), st.fractions(0, 9, max_denominator=64)
)
_steps = st.sampled_from([inches("1/8"), inches("1/16"), inches("1/4"), mm(1), mm(5)])


class RoundingTest(TestCase):
    @given(_lengths | _roots, _steps)
    def test_rounding_up_is_the_smallest_mark_that_reaches(self, length: Length, step: Length) -> None:
        up = length.round_up(step)
        self.assertTrue(up.on_step(step))
        self.assertGreaterEqual(up, length)
        self.assertLess(up - step, length)

    @given(_lengths | _roots, _steps)
    def test_rounding_near_is_within_half_a_step(self, length: Length, step: Length) -> None:
        self.assertLessEqual(abs(length.round_near(step) - length), step / 2)

    @given(_lengths, _steps)
    def test_a_mark_rounds_to_itself(self, length: Length, step: Length) -> None:
        mark = length.round_up(step)
        self.assertEqual((mark.round_up(step), mark.round_near(step)), (mark, mark))

    def test_a_step_may_be_millimetres_and_the_length_a_diagonal(self) -> None:
        diagonal = inches(3).times_root2()  # 4.24264... in., 107.763 mm
        self.assertEqual(diagonal.round_up(mm(1)), mm(108))
        self.assertEqual(diagonal.round_up(inches("1/8")), inches("17/4"))
        self.assertEqual(diagonal.over_root2(), inches(3))


class SettingTest(TestCase):
    def test_fractions_are_set_with_a_fraction_slash(self) -> None:
        self.assertEqual(Style().pretty(inches("31/8")), "3\u00a07⁄8″")
        self.assertEqual(Style().pretty(inches("-1/16")), "−1⁄16″")
        self.assertEqual(Style().text(inches("-17/16")), "-1 1/16")
        self.assertEqual(Style().text(inches(0)), "0")
        self.assertEqual(Style().pretty(inches("-1/512")), "0″", "no minus before a zero")

    def test_fields_hold_the_length_itself(self) -> None:
        self.assertEqual(Style().text(mm(6)), "6 mm")
        self.assertEqual(Style().text(inches("10/3")), "3 1/3")
        self.assertEqual(Style().text(inches("3/10")), "0.3")
        self.assertEqual(_MM.text(inches("1/4")), "6.35 mm")
        self.assertEqual(_MM.text(inches("1/16")), '1/16"')
        self.assertEqual(Style().text(inches(1).times_root2()), "1 27/64", "nobody types a root")

    def test_millimetres_are_set_to_a_tenth(self) -> None:
        self.assertEqual(_MM.pretty(inches("31/8")), "98.4\u00a0mm")
        self.assertEqual(_MM.pretty(mm(98)), "98\u00a0mm")
        self.assertEqual(_MM.pretty(mm("-1/2")), "−0.5\u00a0mm")

    def test_it_is_known_when_the_text_stands_for_a_neighbour(self) -> None:
        self.assertTrue(Style().shows_exactly(inches("31/8")))
        self.assertFalse(Style().shows_exactly(inches(1).times_root2()))
        self.assertFalse(_MM.shows_exactly(inches("31/8")))

    def test_the_exact_form_holds_the_root(self) -> None:
        self.assertEqual(inches("31/8").exact, "31/8")
        self.assertEqual((inches("9/2") - inches("1/4").times_root2()).exact, "9/2 - 1/4*sqrt2")

    def test_areas_in_both_measures(self) -> None:
        area = Area(inches(10).area_with(inches(10)))
        self.assertEqual(area.set_in(Style()), "100\u00a0sq\u00a0in")
        self.assertEqual(area.set_in(_MM), "645\u00a0cm²")


class ExactnessTest(TestCase):
    def test_floats_are_refused_by_name(self) -> None:
        for given_ in (0.25, True, "1"):
            with self.subTest(given_), self.assertRaises(InexactLength):
                Length.of(given_)  # type: ignore[arg-type]

    def test_a_diagonal_has_no_rational_form(self) -> None:
        with self.assertRaises(InexactLength):
            _ = inches(1).times_root2().rational

    def test_an_estimate_becomes_a_length_knowingly(self) -> None:
        self.assertEqual(Length.near(0.25), inches("1/4"))
        self.assertLess(abs(float(Length.near(1 / 3)) - 1 / 3), 1 / 16_000)
