"""Readings beside their targets, the sign in words."""

from __future__ import annotations

from unittest import TestCase

from piecing.diagnosis import Reading, ReadingKind, compare
from piecing.diagnosis.readings import target_of
from piecing.errors import RowCountMissing, SizeOutOfRange, StripTestImpossible, StripTestIncomplete
from piecing.lengths import Length, inches
from piecing.planning import plan

from .samples import half_square

_PLAN = plan(half_square())
K = ReadingKind


def read(kind: K, value: str, row_units: int | None = None, whole: str | None = None) -> Reading:
    return Reading(kind, inches(value), row_units, None if whole is None else inches(whole))


class TargetTest(TestCase):
    def test_each_kind_has_its_target(self) -> None:
        wanted = {
            read(K.UNIT_WIDTH, "4"): inches(4),
            read(K.UNIT_HEIGHT, "4"): inches(4),
            read(K.RAW_SIZE, "4"): _PLAN.raw_width,
            read(K.ROW_LENGTH, "11", 3): inches(11),
            read(K.ROW_LENGTH, "57/2", 8): inches("57/2"),
            read(K.STITCH_DISTANCE, "1/4"): inches("1/4"),
            read(K.STRIP_TEST, "1", whole="7/2"): inches("1/4"),
        }
        for reading, target in wanted.items():
            with self.subTest(reading.kind):
                self.assertEqual(target_of(reading, _PLAN), target)


class WordsTest(TestCase):
    def test_the_sign_is_said(self) -> None:
        said = {
            read(K.UNIT_WIDTH, "63/16"): "1⁄16″ short",
            read(K.UNIT_WIDTH, "65/16"): "1⁄16″ long",
            read(K.UNIT_WIDTH, "4"): "as it should be",
            read(K.ROW_LENGTH, "43/4", 3): "1⁄4″ short",
            read(K.STITCH_DISTANCE, "9/32"): "1⁄32″ wide",
            read(K.STITCH_DISTANCE, "7/32"): "1⁄32″ narrow",
            read(K.STRIP_TEST, "15/16", whole="27/8"): "1⁄32″ too much taken up",
        }
        for reading, words in said.items():
            with self.subTest(words):
                self.assertEqual(str(compare(reading, _PLAN).said), words)

    def test_a_raw_unit_below_the_target_is_named(self) -> None:
        self.assertIn("too small to trim", str(compare(read(K.RAW_SIZE, "63/16"), _PLAN).said))

    def test_two_allowances_off_smells_of_finished_and_unfinished(self) -> None:
        for value in ("7/2", "9/2"):
            self.assertIn("mixed up", str(compare(read(K.UNIT_WIDTH, value), _PLAN).said))
        self.assertNotIn("mixed up", str(compare(read(K.STITCH_DISTANCE, "3/4"), _PLAN).said))

    def test_differences_are_exact(self) -> None:
        self.assertEqual(compare(read(K.UNIT_WIDTH, "127/32"), _PLAN).difference, inches("-1/32"))
        self.assertFalse(compare(read(K.RAW_SIZE, "265/64"), _PLAN).off, "within a hair of 4.1464")


class RefusalTest(TestCase):
    def test_readings_that_say_nothing(self) -> None:
        with self.assertRaises(SizeOutOfRange):
            read(K.UNIT_WIDTH, "0")
        for count in (None, 0, 1, 201):
            with self.subTest(count), self.assertRaises(RowCountMissing):
                read(K.ROW_LENGTH, "11", count)
        with self.assertRaises(StripTestIncomplete):
            read(K.STRIP_TEST, "1")
        with self.assertRaises(StripTestImpossible):
            read(K.STRIP_TEST, "7/2", whole="1")
        with self.assertRaises(StripTestIncomplete):
            _ = read(K.UNIT_WIDTH, "4").strip_test

    def test_a_strip_test_reads_as_its_take_up(self) -> None:
        comparison = compare(read(K.STRIP_TEST, "31/32", whole="55/16"), _PLAN)
        self.assertEqual(comparison.read, inches("17/64"))
        self.assertEqual(comparison.difference, Length.of(1) / 64)
