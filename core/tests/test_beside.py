"""Settings side by side, by hand: how many blocks each takes, what cloth lies between them, and how far one sews."""

from __future__ import annotations

from dataclasses import replace
from math import sqrt
from unittest import TestCase

from piecing.lengths import ZERO, inches
from piecing.quilts.beside import SettingBeside, settings_beside
from piecing.quilts.choices import Border, QuiltChoices, Setting
from piecing.quilts.sizes import quilt_sizes

ALLOWANCE = 0.25
PLAIN = QuiltChoices(3, 4, inches(12), inches(12), sash=ZERO, borders=())
"""Twelve blocks of 12, edge to edge: 36 by 48."""


def beside(choices: QuiltChoices) -> dict[str, SettingBeside]:
    return {str(s.said): s for s in settings_beside(quilt_sizes(choices))}


class BesideTest(TestCase):
    def test_the_quilt_as_it_is_comes_first_and_is_not_said_twice(self) -> None:
        found = list(beside(PLAIN))
        self.assertEqual(found[0], "as it is now")
        self.assertNotIn("straight, edge to edge", found)
        self.assertEqual(len(found), 5)
        sashed = list(beside(replace(PLAIN, sash=inches(2), sash_round=True, cornerstones=True)))
        self.assertIn("straight, edge to edge", sashed)
        self.assertNotIn("straight, with sashing and cornerstones", sashed)

    def test_edge_to_edge_takes_no_cloth_and_eight_and_a_third_feet_of_seam(self) -> None:
        now = beside(PLAIN)["as it is now"]
        # Nothing lies between the blocks: the only plain cloth is the binding's strips, 40 wide.
        (binding,) = [p for p in now.sizes.pieces if not p.apart]
        self.assertTrue(binding.joined)
        self.assertAlmostEqual(float(now.cloth.value), 40 * float(PLAIN.binding_strip) * binding.count, places=6)
        # Two seams down of 48 and three across of 36; eleven joins of twelve blocks, each with an allowance at both ends.
        self.assertAlmostEqual(float(now.seams), 2 * 48 + 3 * 36 + 11 * 2 * ALLOWANCE, places=6)

    def test_a_sash_of_a_sixth_of_the_block(self) -> None:
        sashed = beside(PLAIN)["straight, with sashing and cornerstones"].sizes
        self.assertEqual(sashed.choices.sash, inches(2))
        # 36 by 48 is nearest to three and three blocks of 14: 2.57 and 3.43 of them.
        self.assertEqual((sashed.choices.columns, sashed.choices.rows), (3, 3))
        self.assertEqual((sashed.centre_width, sashed.centre_height), (inches(3 * 14 + 2), inches(3 * 14 + 2)))
        strips = {p.name: p for p in sashed.pieces if not p.joined}
        self.assertEqual(sum(p.count for p in strips.values()), 24 + 16)

    def test_a_sash_that_is_there_is_kept(self) -> None:
        found = beside(replace(PLAIN, sash=inches("3/2")))
        self.assertEqual(found["on point, with sashing and cornerstones"].sizes.choices.sash, inches("3/2"))

    def test_on_point_a_row_takes_a_diagonal(self) -> None:
        found = beside(PLAIN)["on point"]
        choices = found.sizes.choices
        # 36 and 48 are 2.12 and 2.83 diagonals of 12.
        self.assertEqual((choices.columns, choices.rows), (2, 3))
        self.assertAlmostEqual(float(found.sizes.centre_width), 24 * sqrt(2), places=9)
        self.assertAlmostEqual(float(found.sizes.centre_height), 36 * sqrt(2), places=9)
        # Six blocks and two between them. Of their 384 inches of edge 144 lie along six side triangles and 48 along the corners;
        # the other 192 are sewn to each other. Seventeen seams join the eighteen parts.
        self.assertEqual(choices.blocks, 8)
        self.assertAlmostEqual(float(found.seams), 144 + 48 + (384 - 192) / 2 + 17 * 2 * ALLOWANCE, places=3)

    def test_oblong_blocks_never_stand_on_point(self) -> None:
        oblong = replace(PLAIN, block_height=inches(10))
        self.assertFalse([s for s in beside(oblong) if s.startswith("on point")])
        self.assertIn("staggered, with plain cloth at the ends", beside(oblong))

    def test_borders_stay_round_every_one_of_them(self) -> None:
        for name, one in beside(replace(PLAIN, borders=(Border(inches(4), "c"),))).items():
            with self.subTest(name):
                self.assertEqual(one.sizes.width - one.sizes.centre_width, inches(8))
                self.assertEqual(one.sizes.height - one.sizes.centre_height, inches(8))

    def test_never_so_far_from_the_size_as_another_block_would_be(self) -> None:
        for columns, rows in ((1, 1), (2, 7), (9, 3)):
            now = quilt_sizes(replace(PLAIN, columns=columns, rows=rows))
            for one in settings_beside(now):
                c = one.sizes.choices
                pitch = float(c.block_width + c.sash) * (sqrt(2) if c.setting is Setting.ON_POINT else 1)
                rim = float(c.sash) * (sqrt(2) if c.setting is Setting.ON_POINT else 1)
                self.assertLessEqual(abs(float(one.sizes.centre_width - now.centre_width)), pitch / 2 + rim + 1e-9)
                self.assertLessEqual(
                    abs(float(one.sizes.centre_height - now.centre_height)),
                    pitch / 2 + rim + (pitch / 2 if c.setting is Setting.STAGGERED else 0) + 1e-9,
                )
