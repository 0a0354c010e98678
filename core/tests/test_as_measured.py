"""Blocks as they really measure: by hand, against every arrangement there is, and against quilts sewn seam by seam."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from fractions import Fraction
from functools import partial
from itertools import combinations, pairwise, permutations
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from piecing.blocks.pattern import UnitPlacement
from piecing.drawings.quilt import block_middles
from piecing.errors import CountOutOfRange, SizeOutOfRange
from piecing.lengths import Length, inches
from piecing.quilts.arranging import BlockArrangement, BlockPlace, _Work, arrange_blocks, joined_along, places_of
from piecing.quilts.choices import Border, QuiltChoices, Setting
from piecing.quilts.finished import QuiltHands, finished_quilt, seam_cost
from piecing.quilts.measured import BlockAsMeasured, CommonSizes, Fate, common_sizes
from piecing.quilts.pieced import PiecedRow
from piecing.quilts.sizes import quilt_sizes
from piecing.quilts.top import TopAsMeasured, TopLength, brought_to, top_as_measured

_EIGHTH = inches("1/8")


def _sizes(*sides: str, tips: bool = True, mark: Length = _EIGHTH) -> CommonSizes:
    """Square blocks planned to 11 inches, raw edge to raw edge."""
    blocks = [BlockAsMeasured(f"Lantern {n}", inches(s), inches(s), tips) for n, s in enumerate(sides, 1)]
    return common_sizes(blocks, inches(11), inches(11), mark)


class CommonSizeTest(TestCase):
    def fates(self, found: CommonSizes) -> list[Fate]:
        return [f.fate for f in found.planned.fates]

    def test_each_fate_by_hand(self) -> None:
        """11 as planned; 1/16 over comes off as 1/32 each side; 1/8 over cuts points by 1/16; 1/16 short is eased; 1/8 short is made
        again; 5/8 short leaves a frame of 5/16."""
        found = _sizes("11", "177/16", "89/8", "175/16", "87/8", "83/8")
        self.assertEqual(self.fates(found), [Fate.AS_IT_IS, Fate.TRIM, Fate.TIPS, Fate.EASE, Fate.AGAIN, Fate.FRAME])
        said = [str(f.said) for f in found.planned.fates]
        self.assertEqual(said[1], "Trim off 1⁄16″, half on each side.")
        self.assertEqual(said[2], "Trimming off 1⁄8″, half on each side, cuts off its points.")
        self.assertIn("a strip that shows 5⁄16″", said[5])

    def test_without_points_at_its_edges_nothing_is_cut_off(self) -> None:
        self.assertEqual(self.fates(_sizes("89/8", tips=False)), [Fate.TRIM])

    def test_the_smallest_size_eases_none_and_lies_on_a_mark(self) -> None:
        found = _sizes("177/16", "349/32", "11").smallest
        self.assertEqual(found.width, inches("87/8"))
        self.assertEqual(found.count(Fate.EASE) + found.count(Fate.AGAIN), 0)

    def test_one_small_block_does_not_bring_all_the_others_down(self) -> None:
        """Eleven true ones and one 1/8 short: to make that one again is less than to cut the points of eleven."""
        found = _sizes(*["11"] * 11, "87/8")
        self.assertEqual((found.best.width, found.best.count(Fate.AGAIN)), (inches(11), 1))

    def test_one_of_three_does_when_that_costs_less_than_making_it_again(self) -> None:
        self.assertEqual(_sizes("11", "11", "87/8").best.width, inches("87/8"))

    def test_large_one_way_and_true_the_other(self) -> None:
        block = BlockAsMeasured("Lantern 1", inches("89/8"), inches(11))
        (fate,) = common_sizes([block], inches(11), inches(11), _EIGHTH).planned.fates
        self.assertEqual((fate.fate, fate.trim), (Fate.TIPS, inches("1/16")))

    def test_a_frame_shows_a_quarter_or_is_none(self) -> None:
        self.assertEqual(self.fates(_sizes("85/8", "21/2")), [Fate.AGAIN, Fate.FRAME])

    def test_when_most_are_small_all_are_brought_down(self) -> None:
        found = _sizes(*["87/8"] * 10, "11", "11", tips=False)
        self.assertEqual(found.best.width, inches("87/8"))

    def test_oblong_blocks_change_both_ways_alike(self) -> None:
        block = BlockAsMeasured("Wake 1", inches("47/8"), inches("95/8"), tips=False)
        found = common_sizes([block], inches(6), inches(12), _EIGHTH).smallest
        self.assertEqual((found.width, found.height), (inches("47/8"), inches("95/8")))

    def test_nonsense(self) -> None:
        with self.assertRaises(CountOutOfRange):
            common_sizes([], inches(11), inches(11), _EIGHTH)
        for wrong in ("5", "23"):
            with self.assertRaises(SizeOutOfRange):
                _sizes("11", wrong)


def _unlike(w: np.ndarray, h: np.ndarray) -> float:
    """Of a grid: blocks side by side differ in height, blocks one above the other in width."""
    return float(np.abs(np.diff(h, axis=1)).sum() + np.abs(np.diff(w, axis=0)).sum())


def _in_rows(w: Sequence[float], h: Sequence[float], rows: int, columns: int) -> BlockArrangement:
    c = QuiltChoices(columns, rows, inches(11), inches(11))
    return arrange_blocks(list(w), list(h), places_of(c, [0] * c.blocks, [False] * c.blocks))


class ArrangingTest(TestCase):
    def test_against_every_arrangement_of_six(self) -> None:
        for seed in range(12):
            rng = np.random.default_rng(seed)
            w, h = 11 + rng.normal(0, 1 / 24, (2, 6))
            orders = (np.array(p) for p in permutations(range(6)))
            least = min(_unlike(w[p].reshape(2, 3), h[p].reshape(2, 3)) for p in orders)
            found = _in_rows(w, h, 2, 3)
            self.assertAlmostEqual(found.unlike, least, places=9)
            self.assertAlmostEqual(found.before, _unlike(w.reshape(2, 3), h.reshape(2, 3)), places=9)
            self.assertLessEqual(found.least, found.unlike + 1e-12)

    def test_a_hundred_blocks_that_fit_perfectly_reach_the_bound(self) -> None:
        """Rows of one height and columns of one width, shuffled."""
        rng = np.random.default_rng(2)
        tall, wide = 11 + rng.normal(0, 1 / 16, (2, 10))
        order = rng.permutation(100)
        found = _in_rows(np.tile(wide, 10)[order], np.repeat(tall, 10)[order], 10, 10)
        self.assertAlmostEqual(found.unlike, found.least, places=9)
        self.assertEqual(sorted(found.blocks), list(range(100)))

    def test_never_worse_than_it_was(self) -> None:
        for rows, columns in ((1, 1), (1, 5), (4, 1), (3, 4)):
            rng = np.random.default_rng(rows)
            w, h = 11 + rng.normal(0, 1 / 24, (2, rows * columns))
            found = _in_rows(w, h, rows, columns)
            self.assertLessEqual(found.unlike, found.before + 1e-12)
            self.assertLessEqual(found.least, found.unlike + 1e-12)

    def test_blocks_that_do_not_fill_the_rows(self) -> None:
        with self.assertRaises(CountOutOfRange):
            _in_rows([11.0] * 5, [11.0] * 5, 2, 3)

    def test_the_bound_by_every_arrangement_of_a_row(self) -> None:
        """In a row of five the least is the range, whatever the heights are."""
        rng = np.random.default_rng(8)
        for _ in range(5):
            h = rng.normal(11, 0.1, 5)
            found = _in_rows([11.0] * 5, h, 1, 5)
            self.assertAlmostEqual(found.unlike, float(np.ptp(h)), places=9)
            self.assertAlmostEqual(found.least, float(np.ptp(h)), places=9)


class AnyPlacesTest(TestCase):
    """On point, staggered, by hand, of several kinds and turned: which are joined is told by a drawing, the best by trying all."""

    def places(self, setting: Setting, columns: int, rows: int) -> tuple[BlockPlace, ...]:
        c = QuiltChoices(columns, rows, inches(6), inches(6), setting, stagger=Fraction(1, 3))
        return places_of(c, [0] * c.blocks, [False] * c.blocks)

    def test_on_point_each_block_between_touches_four(self) -> None:
        """Two by two with one between, numbered row by row: 0 1, 2, 3 4. Up to the right lie 3-2-1, down to the right 0-2-4."""
        places = self.places(Setting.ON_POINT, 2, 2)
        self.assertEqual(joined_along(places, across=True), [[0], [3, 2, 1], [4]])
        self.assertEqual(joined_along(places, across=False), [[3], [0, 2, 4], [1]])

    def test_on_point_sides_meet_as_they_are_drawn(self) -> None:
        """The drawing's own outlines: blocks that share a side there are joined, and no others."""
        for columns, rows in ((2, 3), (3, 3), (4, 2)):
            c = QuiltChoices(columns, rows, inches(6), inches(6), Setting.ON_POINT)
            places = places_of(c, [0] * c.blocks, [False] * c.blocks)
            middles, side = block_middles(quilt_sizes(c)), 6.0
            beside = {
                frozenset((a, b))
                for a, b in combinations(range(c.blocks), 2)
                if abs(np.hypot(middles[a][0] - middles[b][0], middles[a][1] - middles[b][1]) - side) < 1e-6
            }
            joined = {
                frozenset(p)
                for across in (True, False)
                for line in joined_along(places, across=across)
                for p in pairwise(line)
            }
            self.assertEqual(joined, beside)
            for line in joined_along(places, across=True):
                for a, b in pairwise(line):
                    self.assertGreater(middles[b][0], middles[a][0])
                    self.assertGreater(middles[b][1], middles[a][1])

    def test_staggered_blocks_are_joined_in_their_columns(self) -> None:
        """Three columns by two rows, the middle one a block less and lower: 0 1 2, 3 4."""
        places = self.places(Setting.STAGGERED, 3, 2)
        self.assertEqual(joined_along(places, across=False), [[0, 3], [1], [2, 4]])
        self.assertTrue(all(len(line) == 1 for line in joined_along(places, across=True)))

    def test_by_hand_across_a_sash_but_not_across_a_block(self) -> None:
        places = [BlockPlace(0, 0, 6, 6), BlockPlace(7, 0, 6, 6), BlockPlace(19, 0, 6, 6), BlockPlace(25, 0, 6, 3)]
        self.assertEqual(joined_along(places, across=True), [[0, 1], [2], [3]])

    def test_on_point_against_every_arrangement_of_five(self) -> None:
        places = self.places(Setting.ON_POINT, 2, 2)
        for seed in range(6):
            rng = np.random.default_rng(seed)
            w, h = 6 + rng.normal(0, 1 / 24, (2, 5))

            def unlike(p: Sequence[int], w: np.ndarray = w, h: np.ndarray = h) -> float:
                up, down = (h[p[3]], h[p[2]], h[p[1]]), (w[p[0]], w[p[2]], w[p[4]])
                return float(np.abs(np.diff(up)).sum() + np.abs(np.diff(down)).sum())

            found = arrange_blocks(w.tolist(), h.tolist(), places)
            self.assertAlmostEqual(found.unlike, min(map(unlike, permutations(range(5)))), places=9)
            self.assertAlmostEqual(found.unlike, unlike(found.blocks), places=9)
            self.assertLessEqual(found.least, found.unlike + 1e-12)

    def test_kinds_keep_their_places(self) -> None:
        """Two kinds by turns in a row of six: nothing but blocks of one kind is exchanged, and the best of 36 is found."""
        places = [BlockPlace(x, 0, 1, 1, kind=x % 2) for x in range(6)]
        kinds = [0, 0, 0, 1, 1, 1]
        for seed in range(4):
            h = 6 + np.random.default_rng(seed).normal(0, 1 / 24, 6)
            least = min(
                float(np.abs(np.diff([h[a[0]], h[b[0]], h[a[1]], h[b[1]], h[a[2]], h[b[2]]])).sum())
                for a in permutations((0, 1, 2))
                for b in permutations((3, 4, 5))
            )
            found = arrange_blocks([6.0] * 6, h.tolist(), places, kinds)
            self.assertEqual([kinds[n] for n in found.blocks], [0, 1] * 3)
            self.assertAlmostEqual(found.unlike, least, places=9)
        with self.assertRaises(CountOutOfRange):
            arrange_blocks([6.0] * 6, [6.0] * 6, places, [0] * 6)

    def test_turned_a_quarter_it_is_joined_along_its_other_side(self) -> None:
        """Beside an upright block 6 high a turned one 6 wide fits, whatever its height."""
        places = [BlockPlace(0, 0, 1, 1), BlockPlace(1, 0, 1, 1, turned=True)]
        found = arrange_blocks([6.5, 6.0], [6.0, 7.0], places)
        self.assertEqual((found.blocks, found.unlike, found.least), ((0, 1), 0.0, 0.0))


def as_brought(choices: QuiltChoices, **lengths: str) -> TopAsMeasured:
    """With all blocks brought to 11 in., raw edge to raw edge; ``lengths`` are the mean of three, by the name of the stage."""
    sizes, eleven = quilt_sizes(choices), inches(11)
    planned = {r.key: r.planned for s in top_as_measured(sizes, {}).steps for r in s.readings}
    known = {
        key: TopLength(inches(lengths[stage]), at)
        for key, at in planned.items()
        if (stage := key.rsplit(" ", 1)[0].replace(" ", "_")) in lengths
    }
    return top_as_measured(sizes, brought_to(sizes, known, eleven, eleven))


class FinishedQuiltTest(TestCase):
    choices = QuiltChoices(3, 4, inches("21/2"), inches("21/2"), sash=inches("3/2"), borders=(Border(inches(4), "c"),))

    def test_as_planned_by_steady_hands(self) -> None:
        found = finished_quilt(as_brought(self.choices), QuiltHands())
        # Three blocks, two sashes, two borders.
        self.assertEqual(found.width, inches("63/2") + inches(3) + inches(8))
        self.assertEqual(found.height, inches(42) + inches("9/2") + inches(8))

    def test_every_border_and_a_sash_round_about_add_two_seams(self) -> None:
        """A seam that takes 1/64 more on either side costs 1/32: six with one border, eight with two, ten with a sash round about too."""
        hands = QuiltHands(1 / 64)
        two = replace(self.choices, borders=(Border(inches(4), "c"), Border(inches(2), "a")))
        for choices, plain, seams in (
            (self.choices, "85/2", 6), (two, "93/2", 8), (replace(two, sash_round=True), "99/2", 10),
        ):  # fmt: skip
            found = finished_quilt(as_brought(choices), hands)
            self.assertEqual(found.sizes.width, inches(plain))
            self.assertAlmostEqual(float(found.width), float(inches(plain)) - seams / 32, 9)

    def test_what_was_measured_of_the_top_is_begun_from(self) -> None:
        """With the sides on it is measured across: nothing more is sewn that way. Down there are two seams to come, of 1/32 each."""
        hands = QuiltHands(1 / 64, 1 / 128, 1 / 100, 1 / 100)
        blocks = finished_quilt(as_brought(self.choices), hands)
        found = finished_quilt(as_brought(self.choices, border_1_across="85/2", border_1_down="93/2"), hands)
        self.assertEqual(found.width, inches(42))
        self.assertAlmostEqual(float(found.height), 46 + 8 - 2 / 32, 9)
        # Three lengths off a tape, each off by a twenty-fourth: 1.645 / 24 / r3.
        self.assertAlmostEqual(float(found.width_within), 0.0396, 4)
        self.assertLess(float(found.height_within), float(blocks.height_within))
        told = found.by_the_ruler
        self.assertEqual((told.width, told.width_within), (inches(42), inches("1/8")))
        self.assertEqual((told.height, told.height_within), (inches(54), inches("1/8")))
        # Rows of 34 1/4, and four seams of two borders beyond them.
        two = replace(self.choices, borders=(Border(inches(4), "c"), Border(inches(2), "a")))
        found = finished_quilt(as_brought(two, row="137/4"), hands)
        self.assertAlmostEqual(float(found.width), 33.75 + 12 - 4 / 32, 9)

    def test_a_pieced_border_takes_the_quilt_back_to_the_plan(self) -> None:
        geese = PiecedRow((UnitPlacement("flying_goose", ("a", "b", "b")),))
        choices = replace(self.choices, borders=(Border(inches(2), "b", pieced=geese), Border(inches(1), "a")))
        planned = quilt_sizes(choices)
        found = finished_quilt(as_brought(choices, border_1_across="34", border_1_down="46"), QuiltHands())
        self.assertEqual((found.width, found.height), (planned.width, planned.height))
        # Beyond it, what was measured counts: with the last sides on an eighth less than planned.
        narrow = str((planned.width + inches("3/8")).rational)
        found = finished_quilt(as_brought(choices, border_2_across=narrow), QuiltHands(1 / 64))
        self.assertEqual(found.width, planned.width - inches("1/8"))

    def test_on_point_blocks_shrink_corner_to_corner(self) -> None:
        """Each block loses 1/32 of either side, so r2/32 from corner to corner; three of them lie across, four down."""
        hands = QuiltHands(1 / 64)
        on_point = replace(self.choices, setting=Setting.ON_POINT, sash=Length.of(0), borders=())
        found = finished_quilt(as_brought(on_point), hands)
        self.assertAlmostEqual(float(found.sizes.width), 3 * 10.5 * 2**0.5, 4)
        self.assertAlmostEqual(float(found.width), 3 * (10.5 - 1 / 32) * 2**0.5, 4)
        self.assertAlmostEqual(float(found.height), 4 * (10.5 - 1 / 32) * 2**0.5, 4)
        # With sashes of 1 1/2 between and round about the blocks, as they are on point, each of the four loses as much.
        found = finished_quilt(as_brought(replace(on_point, sash=inches("3/2"))), hands)
        self.assertAlmostEqual(float(found.sizes.width), (3 * 10.5 + 4 * 1.5) * 2**0.5, 4)
        self.assertAlmostEqual(float(found.sizes.width) - float(found.width), 7 / 32 * 2**0.5, 4)

    def test_what_a_seam_costs_the_quilt(self) -> None:
        """Blocks of two inner seams, so 1/8 for every 1/32 too wide; between three blocks and two sashes there are four more seams."""
        cost = partial(seam_cost, across=1 / 8, down=1 / 16, by=1 / 32)
        self.assertEqual(cost(replace(self.choices, borders=())), (3 / 8 + 4 / 16, 4 / 16 + 6 / 16))
        self.assertEqual(cost(replace(self.choices, sash_round=True))[0], 3 / 8 + 6 / 16)
        plain = replace(self.choices, sash=Length.of(0))
        self.assertEqual(cost(plain), (3 / 8 + 2 / 16, 4 / 16 + 3 / 16))
        # On point a block and its outer seams lose 1/8 + 1/16 one way and 1/16 + 1/16 the other: corner to corner root two less of both.
        across, down = cost(replace(plain, setting=Setting.ON_POINT))
        self.assertAlmostEqual(across, 3 * (3 / 16 + 2 / 16) / 2**0.5, 9)
        self.assertAlmostEqual(down, 4 * (3 / 16 + 2 / 16) / 2**0.5, 9)
        sashed = cost(replace(self.choices, setting=Setting.ON_POINT))
        self.assertAlmostEqual(sashed[0], across + 4 * (2 / 16) / 2**0.5, 9)

    def test_on_point_against_blocks_set_corner_to_corner(self) -> None:
        """A row of four blocks joined to what lies above and below: corners found one after another, each side of each block taking its
        own seams and cuts."""
        hands = QuiltHands(1 / 64, 1 / 128, 1 / 100, 1 / 100)
        choices = replace(self.choices, columns=4, setting=Setting.ON_POINT, sash=Length.of(0), borders=())
        found = finished_quilt(as_brought(choices), hands)
        rng, widths = np.random.default_rng(8), []
        for _ in range(4_000):
            mean = 0.25 + 1 / 64 + rng.normal(0, 1 / 128)
            x = 0.0
            for _ in range(4):
                # Up and to the right along one side, down along the other: each as cut, less its two seams.
                for _side in range(2):
                    x += (11 + rng.normal(0, 1 / 100) - 2 * mean - rng.normal(0, 1 / 100, 2).sum()) / 2**0.5
            widths.append(x)
        self.assertAlmostEqual(float(np.mean(widths)), float(found.width), delta=0.01)
        inside = np.abs(np.array(widths) - float(found.width)) <= float(found.width_within)
        self.assertTrue(0.86 <= inside.mean() <= 0.95, inside.mean())

    def test_against_quilts_sewn_seam_by_seam(self) -> None:
        hands = QuiltHands(1 / 64, 1 / 128, 1 / 100, 1 / 100)
        found = finished_quilt(as_brought(self.choices), hands)
        self.assertIn("Yours take more than that", str(found.why))
        self.assertIn("and 6 are crossed from side to side", str(found.why))
        self.assertIsNone(finished_quilt(as_brought(self.choices), QuiltHands()).why)
        rng, widths = np.random.default_rng(6), []
        for _ in range(4_000):
            mean = 0.25 + 1 / 64 + rng.normal(0, 1 / 128)
            # border, block, sash, block, sash, block, border: six seams between seven parts; the outer edges lose the planned quarter.
            cut = np.array([4.5, 11, 2, 11, 2, 11, 4.5]) + rng.normal(0, 1 / 100, 7)
            widths.append(cut.sum() - 2 * (mean + rng.normal(0, 1 / 100, 6)).sum() - 0.5)
        self.assertAlmostEqual(float(np.mean(widths)), float(found.width), delta=0.01)
        inside = np.abs(np.array(widths) - float(found.width)) <= float(found.width_within)
        self.assertAlmostEqual(float(inside.mean()), 0.9, delta=0.03)


class AnyBlocksTest(TestCase):
    """Blocks of any sizes: what must hold whatever was measured."""

    sides = st.lists(st.tuples(st.integers(-12, 12), st.integers(-12, 12)), min_size=1, max_size=9)

    @settings(max_examples=80, deadline=None)
    @given(sides, st.booleans())
    def test_what_is_offered_keeps_its_word(self, off: list[tuple[int, int]], tips: bool) -> None:
        eleven, step = inches(11), inches("1/32")
        blocks = [BlockAsMeasured(str(n), eleven + step * w, eleven + step * h, tips) for n, (w, h) in enumerate(off)]
        found = common_sizes(blocks, eleven, eleven, _EIGHTH)
        least = min(min(b.width, b.height) for b in blocks)
        self.assertLessEqual(found.smallest.width, least)
        self.assertGreater(found.smallest.width + _EIGHTH, least)
        for fate in (Fate.EASE, Fate.FRAME, Fate.AGAIN):
            self.assertEqual(found.smallest.count(fate), 0)
        self.assertLessEqual(found.best.trouble, min(found.smallest.trouble, found.planned.trouble))
        for f in found.best.fates:
            b = f.block
            self.assertEqual(f.short > inches(0), found.best.width > b.width or found.best.height > b.height)
            if f.fate is Fate.TIPS:
                self.assertEqual("ease it in" in str(f.said), f.short > inches(0))
            if f.fate in (Fate.TRIM, Fate.AS_IT_IS):
                self.assertGreaterEqual(min(b.width - found.best.width, b.height - found.best.height), inches(0))
            self.assertTrue(str(f.said).endswith("."))

    @settings(max_examples=12, deadline=None)
    @given(st.integers(1, 9), st.integers(1, 9))
    def test_places_that_are_assigned_at_once_never_touch(self, rows: int, columns: int) -> None:
        covered: set[int] = set()
        for places in _Grid(rows, columns).apart:
            covered |= {int(p) for p in places}
            for p in places:
                for q in places:
                    apart = abs(p // columns - q // columns) + abs(p % columns - q % columns)
                    self.assertTrue(p == q or apart > 1)
        if rows * columns > 3:
            self.assertEqual(covered, set(range(rows * columns)))


class _Grid(_Work):
    def __init__(self, rows: int, columns: int) -> None:
        c, n = QuiltChoices(columns, rows, inches(11), inches(11)), rows * columns
        of = np.zeros(n, dtype=np.int64)
        super().__init__(np.full((2, n), 11.0), of, of, places_of(c, [0] * n, [False] * n))
