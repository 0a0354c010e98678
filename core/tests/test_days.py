"""Days as people write them, each looked up in a calendar by hand."""

from __future__ import annotations

from datetime import date
from unittest import TestCase

from piecing.days import day_words, read_day
from piecing.errors import DayImpossible

_TODAY = date(2026, 11, 29)


class ReadDayTest(TestCase):
    def test_every_way_of_writing_a_day(self) -> None:
        for text in (
            "2026-11-25",
            " 2026-11-25 ",
            "25.11.2026",
            "25. 11. 2026",
            "25.11.",
            "25 Nov",
            "25 nov 2026",
            "25. November 2026",
            "Nov 25",
            "Nov. 25, 2026",
            "November 25th",
            "11/25/2026",
            "25/11",
        ):
            with self.subTest(text):
                self.assertEqual(read_day(text, _TODAY), date(2026, 11, 25))

    def test_without_a_year_it_is_the_last_one_that_has_come(self) -> None:
        self.assertEqual(read_day("3 Dec", _TODAY), date(2025, 12, 3))
        self.assertEqual(read_day("30 Nov", _TODAY), date(2026, 11, 30))
        self.assertEqual(read_day("1 Jan", date(2026, 12, 31)), date(2027, 1, 1))
        self.assertEqual(read_day("29 Feb", date(2025, 3, 1)), date(2024, 2, 29))
        self.assertEqual(read_day("12/12", _TODAY), date(2025, 12, 12))

    def test_what_is_to_come_is_the_next_one(self) -> None:
        for text, day in (("3 Dec", date(2026, 12, 3)), ("28 Nov", date(2026, 11, 28)), ("1.2.", date(2027, 2, 1))):
            with self.subTest(text):
                self.assertEqual(read_day(text, _TODAY, to_come=True), day)
        self.assertEqual(read_day("29 Feb", date(2096, 3, 2), to_come=True), date(2104, 2, 29))
        self.assertEqual(read_day("2020-01-01", _TODAY, to_come=True), date(2020, 1, 1))

    def test_what_is_no_day(self) -> None:
        for text, why in (
            ("2026-02-30", "no such day"),
            ("31 Nov", "no such day"),
            ("12 Frost", "no such day"),
            ("11/12/2026", "may be two days"),
            ("11/12", "may be two days"),
            ("25/25", "no such day"),
            ("11/25/26", "written 2026-11-25"),
            ("next week", "written 2026-11-25"),
            ("today", "written 2026-11-25"),
            ("", "written 2026-11-25"),
            ("٢٠٢٦-١١-٢٥", "written 2026-11-25"),
            ("20261125", "written 2026-11-25"),
        ):
            with self.subTest(text), self.assertRaisesRegex(DayImpossible, why):
                read_day(text, _TODAY)

    def test_said_and_read_again(self) -> None:
        self.assertEqual(day_words(date(2026, 11, 25)), "25 November 2026")
        self.assertEqual(day_words(date(2027, 1, 1)), "1 January 2027")
        for day in (date(2026, 2, 28), date(2024, 2, 29), date(2026, 12, 31)):
            self.assertEqual(read_day(day_words(day), _TODAY), day)
