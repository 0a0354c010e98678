"""Cloth of which only a range is known: planned at the least, told at both."""

from __future__ import annotations

from unittest import TestCase

from piecing.cutting import Cloth, ClothKind, WantedPiece
from piecing.cutting.fitting import blocks_given
from piecing.errors import ClothImpossible
from piecing.lengths import inches


class UncertainTest(TestCase):
    def test_five_fat_quarters_by_hand(self) -> None:
        """18 along, 20 to 22 across, squares of 5 1/2: three across and three down, at 22 four across and three down."""

        def pieces(n: int) -> list[WantedPiece]:
            return [WantedPiece("A", "a", inches("11/2"), inches("11/2"), 3 * n)]

        cloth = Cloth("fq", "a", inches(20), inches(18), ClothKind.FAT_QUARTER, 5, across_most=inches(22))
        found = blocks_given("Beacon", pieces, [cloth])
        self.assertEqual((found.least, found.most), (15, 20))
        self.assertIn("15 to 20 blocks of Beacon", str(found.said))
        self.assertIn("measure", str(found.said))
        sure = blocks_given("Beacon", pieces, [Cloth("fq", "a", inches(20), inches(18), ClothKind.FAT_QUARTER, 5)])
        self.assertEqual((sure.least, sure.most), (15, 15))
        self.assertNotIn("measure", str(sure.said))
        one = blocks_given("Beacon", pieces, [Cloth("fq", "a", inches(20), inches(6))])
        self.assertTrue(str(one.said).startswith("One block"))
        self.assertTrue(str(blocks_given("Beacon", pieces, []).said).startswith("No block"))

    def test_the_most_is_no_less_than_the_least(self) -> None:
        with self.assertRaises(ClothImpossible) as refused:
            Cloth("fq", "a", inches(20), inches(18), across_most=inches(19))
        self.assertEqual(refused.exception.field, "across_most")
