"""Binding joined from strips of any length, by hand and on paper; what its backing, batting and thread take."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon

from piecing.blocks.library import library_pattern
from piecing.cutting import Cloth, ClothKind, WantedPiece, cutting_plan
from piecing.cutting.buying import Shop, backing_purchase, purchases
from piecing.cutting.joined import strips_for
from piecing.errors import QuiltImpossible
from piecing.joining.thread import block_join_length, unit_seam_length
from piecing.lengths import Measure, Style, inches
from piecing.planning.plan import plan
from piecing.prints import ClothPrint, Direction
from piecing.quilts.choices import Border, QuiltChoices, Setting
from piecing.quilts.joined import joined_length, strips_said, strips_settled
from piecing.quilts.seams import binding_seam_length, quilt_join_length
from piecing.quilts.sizes import quilt_sizes

from .samples import half_square

W = inches("9/4")
USUAL = inches(40)


def fat_quarters(n: int, along: str = "18") -> Cloth:
    return Cloth("fq", "c", inches(20), inches(along), ClothKind.FAT_QUARTER, n)


def quilt(**but: object) -> QuiltChoices:
    given_ = {"columns": 3, "rows": 3, "block_width": inches(12), "block_height": inches(12)} | but
    return QuiltChoices(**given_)  # type: ignore[arg-type]


class StripsTest(TestCase):
    def test_fat_quarters_do_by_hand(self) -> None:
        """312 wanted. The first strip of 20 gives 20, each further one 17 3/4: 17 make 304, 18 make 321 3/4."""
        found = strips_for(inches(312), W, {}, [], [fat_quarters(3)], USUAL)
        self.assertEqual(found, {inches(20): 18})
        self.assertEqual(joined_length(found, W), inches("1287/4"))

    def test_a_strip_more_only_from_a_hair_beyond_what_they_reach(self) -> None:
        """Seven of 40 in. joined on the diagonal lose six widths of 2 1/4: 266 1/2."""
        self.assertEqual(joined_length({USUAL: 7}, W), inches("533/2"))
        self.assertEqual(strips_settled(inches("533/2"), W, {}, USUAL), {USUAL: 7})
        self.assertEqual(strips_settled(inches("533/2") + inches("1/8"), W, {}, USUAL), {USUAL: 8})
        # Two of 20 are there: 37 3/4, and each further strip of 40 adds 37 3/4.
        there = {inches(20): 2}
        self.assertEqual(strips_settled(inches("151/2"), W, there, USUAL), {inches(20): 2, USUAL: 1})
        self.assertEqual(strips_settled(inches("151/2") + inches("1/8"), W, there, USUAL), {inches(20): 2, USUAL: 2})

    def test_the_longest_first_then_shorter_ones_then_to_buy(self) -> None:
        """10 in. of cloth give four strips of 40: 153 1/4 together. 158 3/4 more by 17 3/4 each are nine of 20."""
        bolt = Cloth("bolt", "c", inches(40), inches(10))
        self.assertEqual(strips_for(inches(312), W, {}, [], [fat_quarters(2), bolt], USUAL), {USUAL: 4, inches(20): 9})
        # One fat quarter gives eight of the nine: one strip of 40 is to be bought for the last.
        self.assertEqual(strips_for(inches(312), W, {}, [], [fat_quarters(1), bolt], USUAL), {USUAL: 5, inches(20): 7})

    def test_what_lies_there_is_used_and_other_pieces_come_first(self) -> None:
        """Six strips of 40 make 228 3/4; 83 1/4 more are five of 20. A square of 10 takes 10 of a fat quarter's 18: three left."""
        have = {USUAL: 6}
        self.assertEqual(strips_for(inches(312), W, have, [], [fat_quarters(1)], USUAL), {USUAL: 6, inches(20): 5})
        other = [WantedPiece("A", "c", inches(10), inches(10), 2)]
        self.assertEqual(strips_for(inches(312), W, have, other, [fat_quarters(1)], USUAL), {USUAL: 7, inches(20): 3})

    def test_a_long_narrow_rest_is_cut_lengthwise(self) -> None:
        rest = Cloth("rest", "c", inches(9), inches(60))
        self.assertEqual(strips_for(inches(200), W, {}, [], [rest], USUAL), {inches(60): 4})

    def test_a_choice_follows_the_quilt(self) -> None:
        """Twelve of 20 make 215 1/4. For 190 ten do (179 3/4 is short, eleven make 197 1/2); for 260 two of 40 are added."""
        chosen = {inches(20): 12}
        self.assertEqual(strips_settled(inches(215), W, chosen, USUAL), chosen)
        self.assertEqual(strips_settled(inches(190), W, chosen, USUAL), {inches(20): 11})
        self.assertEqual(strips_settled(inches(260), W, chosen, USUAL), {inches(20): 12, USUAL: 2})
        with self.assertRaises(QuiltImpossible):
            strips_settled(inches(10), inches(40), {}, USUAL)

    @settings(max_examples=60, deadline=None)
    @given(
        needed=st.integers(60, 500),
        quarters=st.integers(0, 4),
        deep=st.integers(0, 20),
        squares=st.integers(0, 6),
    )
    def test_they_come_out_of_the_cloth_and_reach_round(
        self, needed: int, quarters: int, deep: int, squares: int
    ) -> None:
        """Laid on paper as strips that lose a corner at each join; none can be left out; the planner finds them beside the rest."""
        cloths = [fat_quarters(quarters)] if quarters else []
        cloths += [Cloth("bolt", "c", inches(40), inches(deep))] if deep else []
        others = [WantedPiece("A", "c", inches(6), inches(6), squares)] if squares else []
        found = strips_for(inches(needed), W, {}, others, cloths, USUAL)
        n, corner = sum(found.values()), Polygon([(0, 0), (2.25, 0), (0, 2.25)]).area
        area = sum(Polygon([(0, 0), (float(x), 0), (float(x), 2.25), (0, 2.25)]).area * k for x, k in found.items())
        self.assertGreaterEqual((area - 2 * corner * (n - 1)) / 2.25 + 1e-9, needed)
        shortest = min(found)
        fewer = {**found, shortest: found[shortest] - 1}
        if sum(fewer.values()):
            self.assertLess(joined_length(fewer, W), inches(needed))
        if USUAL not in found and cloths:
            pieces = [WantedPiece(str(x), "c", W, x, k) for x, k in found.items()]
            self.assertEqual(cutting_plan([*others, *pieces], cloths, seconds=1.0).missing, ())

    def test_in_words(self) -> None:
        said = strips_said({USUAL: 4, inches(20): 1}, W)
        self.assertEqual(
            str(said.text(Style())),
            "Binding: 4 strips of 40″ and one strip of 20″, 2\xa01⁄4″ wide; 4 joins on the diagonal, 171″ in all.",
        )
        self.assertIn("no join", str(strips_said({USUAL: 1}, W)))
        self.assertIn("mm", strips_said({USUAL: 1}, W).text(Style(measure=Measure.MILLIMETRES)))

    def test_packs_of_fat_quarters_hold_a_binding(self) -> None:
        """Nine strips of 40 make 342. Nineteen of 20 make 339 1/2, so it takes twenty; eight come out of a fat quarter's 18 in."""
        strips = [WantedPiece("A", "c", W, USUAL, 9, joined=True)]
        pack = next(p for p in purchases(strips, Shop(), 1.0)[0].instead if p.kind is ClothKind.FAT_QUARTER)
        self.assertEqual(pack.count, 3)
        # Eleven of 40 make 417 1/2, and 24 of 20 make 428 1/4: three fat quarters hold them; 440 would take a fourth.
        eleven = [WantedPiece("A", "c", W, USUAL, 11, joined=True)]
        pack = next(p for p in purchases(eleven, Shop(), 1.0)[0].instead if p.kind is ClothKind.FAT_QUARTER)
        self.assertEqual(pack.count, 3)
        fixed = [WantedPiece("A", "c", W, USUAL, 9)]
        self.assertFalse([p for p in purchases(fixed, Shop(), 1.0)[0].instead if p.kind is ClothKind.FAT_QUARTER])


class BackingTest(TestCase):
    def test_a_print_with_a_direction_is_joined_up_and_down(self) -> None:
        """60 by 66 with nothing over: across takes 120, along 132. Three in a hundred more, in eighths of a yard: 126, 139 1/2."""
        c = quilt(columns=1, rows=1, block_width=inches(60), block_height=inches(66), backing_over=inches(0))
        backings = quilt_sizes(c).backing
        any_way = backing_purchase(backings[0], Shop())
        one_way = replace(c, backing_print=ClothPrint(Direction.ONE_WAY))
        upright = backing_purchase(quilt_sizes(one_way).backing[0], Shop())
        self.assertEqual((any_way.bare, any_way.buy), (inches(120), inches(126)))
        self.assertEqual((upright.bare, upright.buy), (inches(132), inches("279/2")))
        # 120 at thirty in a hundred is 171.4, and so 175 1/2.
        shrinks = Shop(shrinkage=Fraction(3, 10))
        self.assertEqual(backing_purchase(backings[0], shrinks).buy, inches("351/2"))
        self.assertIn("up and down", str(upright.said))
        self.assertIn("across", str(any_way.said))
        self.assertEqual((any_way.width, any_way.height), (inches(60), inches(66)))


class SeamLengthTest(TestCase):
    def test_nine_blocks_edge_to_edge_by_hand(self) -> None:
        """Two seams of 12 1/2 in each of three rows, and two of 36 1/2."""
        self.assertAlmostEqual(float(quilt_join_length(quilt_sizes(quilt()))), 6 * 12.5 + 2 * 36.5, places=3)

    def test_sashing_and_a_border_by_hand(self) -> None:
        """3 by 3 of 12 with sashing of 2 between: rows of 40, five lie below each other, 40 high; a border of 3, sides first."""
        c = quilt(sash=inches(2), borders=(Border(inches(3), "a"),))
        rows = 3 * 4 * 12.5 + 4 * 40.5
        self.assertAlmostEqual(float(quilt_join_length(quilt_sizes(c))), rows + 2 * 40.5 + 2 * 46.5, places=3)

    def test_sashing_with_cornerstones_by_hand(self) -> None:
        """Rows as before; each of two sashing rows has four seams of 2 1/2."""
        c = quilt(sash=inches(2), cornerstones=True)
        by_hand = 3 * 4 * 12.5 + 2 * 4 * 2.5 + 4 * 40.5
        self.assertAlmostEqual(float(quilt_join_length(quilt_sizes(c))), by_hand, places=3)

    def test_two_by_two_on_point_by_hand(self) -> None:
        """Five blocks of 10 in rows of one, three and one. An outer row has a side triangle at both ends: two seams of 10. The
        middle row has two seams between blocks and a corner triangle at both ends. Between rows a seam is three blocks long, 30,
        and the last two corners are sewn on along a block, 10."""
        c = quilt(columns=2, rows=2, block_width=inches(10), block_height=inches(10), setting=Setting.ON_POINT)
        finished = 2 * 2 * 10 + 4 * 10 + 2 * 30 + 2 * 10
        seams = 4 + 4 + 2 + 2
        self.assertAlmostEqual(float(quilt_join_length(quilt_sizes(c))), finished + seams * 0.5, places=2)

    def test_the_binding_and_its_joins(self) -> None:
        """30 by 40 with strips of 2 1/2: four strips, three joins of 3.5355 and once round 140."""
        c = quilt(columns=3, rows=4, block_width=inches(10), block_height=inches(10), binding_strip=inches("5/2"))
        self.assertAlmostEqual(float(binding_seam_length(quilt_sizes(c), 4)), 140 + 3 * 2.5 * 2**0.5, places=3)

    def test_half_square_units_are_sewn_across_the_squares_as_cut(self) -> None:
        """Two at a time from a square a: two lines a quarter inch beside the diagonal, each shorter than it by a quarter at either end."""
        made = plan(half_square("3", count=24))
        side = float(made.cuts["square"])
        each = side * 2**0.5 - 2 * 0.25
        self.assertAlmostEqual(float(unit_seam_length(made)), 12 * 2 * each, places=2)

    def test_a_block_counts_only_its_joins(self) -> None:
        nine = library_pattern("nine_patch")
        self.assertEqual(block_join_length(nine, inches(9), inches("1/4")), inches(40))
        # A pinwheel of 10: two seams of 5 1/2, one of 10 1/2; the diagonals of its units are counted with the units.
        wheel = library_pattern("pinwheel")
        self.assertAlmostEqual(float(block_join_length(wheel, inches(10), inches("1/4"))), 21.5, places=3)
