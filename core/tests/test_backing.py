"""Backing whose print is kept: upright, and going on across its seams. Lengths and widths by hand, and by laying them out."""

from __future__ import annotations

from fractions import Fraction
from math import ceil
from typing import Any
from unittest import TestCase

from piecing.errors import QuiltImpossible
from piecing.lengths import ZERO, inches
from piecing.prints import ClothPrint, Direction
from piecing.quilts import Backing, QuiltChoices, quilt_sizes
from piecing.quilts.backing import backing_said
from piecing.quilts.choices import BackingWay
from tests.trials import plain


def backings(
    wide: int, high: int, way: BackingWay = BackingWay.LEAST, usable: int = 40, **of_print: Any
) -> tuple[Backing, ...]:
    """Of a quilt that finishes so large, four inches over all round."""
    choices = QuiltChoices(
        1, 1, inches(wide), inches(high), backing_way=way, usable=inches(usable), backing_print=ClothPrint(**of_print)
    )
    return quilt_sizes(choices).backing


class UprightTest(TestCase):
    """A quilt of 60 by 66 takes least cloth with its seams across: two lengths of 68 against two of 74."""

    def test_a_print_with_a_direction_stands_upright(self) -> None:
        self.assertFalse(backings(60, 66)[0].along)
        for direction in (Direction.STRIPES, Direction.ONE_WAY):
            best = backings(60, 66, direction=direction)[0]
            self.assertEqual((best.along, best.strip, best.length, best.turned), (True, ZERO, inches(148), False))
            self.assertNotIn("side.", plain(backing_said(best)))

    def test_across_is_still_had_by_who_asks_for_it_and_is_told(self) -> None:
        best = backings(60, 66, BackingWay.ACROSS, direction=Direction.ONE_WAY)[0]
        self.assertEqual((best.along, best.length, best.turned), (False, inches(136), True))
        self.assertIn("Its print lies on its side.", plain(backing_said(best)))
        self.assertFalse(backings(60, 66, BackingWay.ACROSS)[0].turned)

    def test_the_strip_stands_upright_too(self) -> None:
        """44 by 60: a strip cut 14 of one more length of 68, where print is kept; else from two lengths of 14 across the cloth."""
        best = backings(44, 60, BackingWay.STRIP, direction=Direction.ONE_WAY)[0]
        self.assertEqual(
            (best.strip, best.strip_lengths, best.length, best.seam), (inches(14), 1, inches(136), inches(136))
        )
        self.assertIn("cut 14″ wide along the selvedge", plain(backing_said(best)))
        self.assertEqual(backings(44, 60, BackingWay.STRIP)[0].length, inches(96))


class RepeatTest(TestCase):
    def test_each_length_begins_at_the_same_place(self) -> None:
        """44 by 60: 52 by 68. Two lengths of 68 of a print that comes round every 24 begin 72 apart: 72 and 68."""
        best = backings(44, 60, BackingWay.ALONG, along=inches(24))[0]
        self.assertEqual(
            (best.panels, best.panel_length, best.every, best.length), (2, inches(68), inches(72), inches(140))
        )
        self.assertIn("begins 72″ after", plain(backing_said(best)))
        # 68 is four times 17: nothing is lost.
        self.assertEqual(backings(44, 60, BackingWay.ALONG, along=inches(17))[0].length, inches(136))

    def test_with_a_strip_the_second_length_too(self) -> None:
        self.assertEqual(backings(44, 60, BackingWay.STRIP, along=inches(24))[0].length, inches(140))

    def test_one_length_alone_loses_nothing(self) -> None:
        best = backings(30, 60, along=inches(24), across=inches(24))[0]
        self.assertEqual((best.panels, best.length), (1, inches(68)))

    def test_across_a_seam_whole_repeats_are_added(self) -> None:
        """Of 40 a seam takes an inch; 39 holds two repeats of 14: 28. So two widths show 68, three 96: a back of 74 takes three."""
        best = backings(66, 60, BackingWay.ALONG, across=inches(14))[0]
        self.assertEqual((best.panels, best.length), (3, inches(204)))
        self.assertEqual(backings(60, 60, BackingWay.ALONG, across=inches(14))[0].panels, 2)
        self.assertEqual(backings(66, 60, BackingWay.ALONG, across=inches(13))[0].panels, 2)

    def test_as_it_is_laid_out_on_the_table(self) -> None:
        """The right seam of one width and the left one of the next lie at the same place of the print, half an inch from their raw
        edges at least. All such places are tried, by half inches."""
        for usable in range(20, 46, 5):
            for repeat in range(3, usable - 1, 4):
                places = [Fraction(n, 2) for n in range(1, usable * 2)]
                added = max(
                    right - left for right in places for left in places if right > left and (right - left) % repeat == 0
                )
                for wide in (30, 52, 61, 97):
                    panels = 1 + max(0, ceil(Fraction(wide + 8 - usable) / added))
                    best = backings(wide, 90, BackingWay.ALONG, usable, across=inches(repeat))[0]
                    self.assertEqual(best.panels, panels, (usable, repeat, wide))

    def test_what_does_not_come_round_is_refused(self) -> None:
        with self.assertRaises(QuiltImpossible) as caught:
            backings(60, 60, usable=40, across=inches(40))
        self.assertEqual(caught.exception.field, "backing_repeat_across")
        self.assertEqual(backings(60, 60, BackingWay.ALONG, across=inches(39))[0].panels, 2)
        for field in ("along", "across"):
            for size in (inches(-1), inches(200)):
                with self.assertRaises(QuiltImpossible):
                    backings(60, 60, **{field: size})


class NarrowTest(TestCase):
    def test_cloth_that_its_seams_would_use_up_is_refused(self) -> None:
        for usable in (inches("1/2"), inches(1), inches("5/4")):
            with self.assertRaises(QuiltImpossible) as caught:
                quilt_sizes(QuiltChoices(1, 1, inches(44), inches(60), usable=usable, binding_strip=inches("3/8")))
            self.assertEqual(caught.exception.field, "usable")
