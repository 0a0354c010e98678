"""What causes are called where one picks them, and what lies beside its size: told apart, in plain words, without signs."""

from __future__ import annotations

import re
from unittest import TestCase

from piecing.blocks.library import library_keys, library_pattern
from piecing.diagnosis.causes import CAUSE_WORDS, Cause, parameters_of
from piecing.diagnosis.equations import equation_of
from piecing.diagnosis.names import reading_said
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.said import beside_said, cause_name, cause_of_whom
from piecing.diagnosis.words import SlipGuess
from piecing.lengths import Measure, Style, inches

from .trials import STAR, scene

LANTERN = scene(library_pattern("lantern"), "21/2")


class NameTest(TestCase):
    def test_no_two_causes_of_the_same_units_are_called_alike(self) -> None:
        for key in library_keys():
            model = scene(library_pattern(key), "12").model
            names = [(p.batch, str(cause_name(model, p))) for p in parameters_of(model)]
            self.assertEqual(len(set(names)), len(names), key)

    def test_the_diagonal_named_is_the_one_that_misses_its_corners(self) -> None:
        # The hourglass in column 2, row 1 lies upright: its rising diagonal runs from bottom left to top right.
        model = LANTERN.model
        for corner, diagonal in (
            ("bottom left", "rising"),
            ("top right", "rising"),
            ("top left", "falling"),
            ("bottom right", "falling"),
        ):
            read = Reading(ReadingKind.MISS, inches("1/32"), unit="c2r1", corner=corner)
            of = equation_of(read, model, inches("1/32")).of_causes
            (named,) = (
                str(cause_name(model, p)) for p, by in zip(parameters_of(model), of, strict=True) if abs(by) > 1e-9
            )
            self.assertEqual(named, f"Off the {diagonal} diagonal", corner)

    def test_stretch_is_named_by_the_diagonal_that_grows(self) -> None:
        model, batch = LANTERN.model, LANTERN.batch("quarter_square_triangle")
        for kind, diagonal in ((ReadingKind.DIAGONAL_RISING, "rising"), (ReadingKind.DIAGONAL_FALLING, "falling")):
            of = equation_of(Reading(kind, inches(5), batch=batch), model, inches("1/32")).of_causes
            drawn = {
                str(cause_name(model, p)): by
                for p, by in zip(parameters_of(model), of, strict=True)
                if p.cause is Cause.STRETCH and abs(by) > 1e-9
            }
            self.assertEqual(max(drawn, key=lambda name: drawn[name]), f"Stretch along the {diagonal} diagonal")

    def test_what_has_no_diagonal_to_a_corner_and_what_is_not_trimmed(self) -> None:
        model = scene(library_pattern("diamonds"), "12").model
        kinds = {b.number: b.kind for b in model.places.batches}
        named = [
            str(cause_name(model, p))
            for p in parameters_of(model)
            if p.cause is Cause.SHIFT and kinds[p.batch] == "square_in_square"
        ]
        self.assertEqual(named, ["Off to one side", "Off up or down"])
        model = STAR().model
        sizes = {
            model.places.batches[p.batch].kind: str(cause_name(model, p))
            for p in parameters_of(model)
            if p.cause is Cause.TRIM
        }
        self.assertEqual((sizes["flying_goose"], sizes["plain_square"]), ("Trimmed size", "Size as cut"))

    def test_words_are_words(self) -> None:
        for words in CAUSE_WORDS.values():
            self.assertRegex(words, re.compile(r"^[A-Z][a-z]*( [a-z]+)*$"))

    def test_within_a_sentence_they_say_whose(self) -> None:
        said = {str(cause_of_whom(LANTERN.model, p)) for p in parameters_of(LANTERN.model)}
        self.assertLessEqual(
            {"stitching distance", "off the rising diagonal of hourglasses", "size as cut of plain squares"}, said
        )


class BesideTest(TestCase):
    def test_over_short_and_right(self) -> None:
        for off, said in (
            (1 / 8, "1⁄8″ over"),
            (-1 / 32, "1⁄32″ short"),
            (-3 / 16, "3⁄16″ short"),
            (0.004, "right"),
            (0.0, "right"),
        ):
            self.assertEqual(str(beside_said(off)).replace("\u00a0", " "), said)
        self.assertEqual(beside_said(-1 / 8).text(Style(Measure.MILLIMETRES)).replace("\u00a0", " "), "3 mm short")


class SlipTest(TestCase):
    def test_a_slip_is_guessed_by_the_marks_of_her_ruler(self) -> None:
        metric = Style(Measure.MILLIMETRES)
        for off, said, in_mm in (
            (1.02, "a whole inch", "."),
            (0.49, "half an inch", "."),
            (0.25, "a quarter", "."),
            (0.2, ".", "half a centimetre"),
            (0.13, "an eighth", "."),
            (0.39, ".", "a whole centimetre"),
            (0.79, ".", "two centimetres"),
            (9.0, "mistyped", "mistyped"),
        ):
            self.assertIn(said, SlipGuess(off).set_in(None))
            self.assertIn(in_mm, SlipGuess(off).set_in(metric))
            self.assertNotRegex(SlipGuess(off).set_in(metric), r"inch|eighth|quarter|/")


class ReadingWordsTest(TestCase):
    def test_what_is_never_trimmed_has_no_trimmed_size(self) -> None:
        square, triangle = LANTERN.batch("plain_square"), LANTERN.batch("half_square_triangle")
        for batch, wide, high in ((square, "width", "height"), (triangle, "trimmed width", "trimmed height")):
            said = [
                str(reading_said(Reading(k, inches(4), batch=batch), LANTERN.model)).split(": ")[1]
                for k in (ReadingKind.WIDTH, ReadingKind.HEIGHT)
            ]
            self.assertEqual(said, [wide, high])
