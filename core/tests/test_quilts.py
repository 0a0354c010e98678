"""The quilt: its area is what is in it, drawn pieces lie beside each other, and scraps keep apart."""

from __future__ import annotations

import random
from itertools import product
from unittest import TestCase

from shapely.affinity import rotate
from shapely.geometry import Polygon as Shape
from shapely.geometry import box
from shapely.ops import unary_union

from piecing.blocks.library import library_pattern
from piecing.blocks.pattern import layout_of
from piecing.drawings.quilt import block_middles, quilt_picture
from piecing.errors import QuiltImpossible, ScrapsImpossible
from piecing.geometry.drawing import DrawnMark, Stamp
from piecing.geometry.plane import area, rotated
from piecing.lengths import ZERO, Length, inches
from piecing.quilts.choices import Border, Corners, QuiltChoices, Setting, block_spots
from piecing.quilts.laid import Laid
from piecing.quilts.scrap_places import cell_box, neighbours, scrap_places
from piecing.quilts.scraps import ScrapStock, arrange_scraps, touching
from piecing.quilts.sizes import QuiltSizes, quilt_sizes
from tests.blocks import grid

TEN = inches(10)


def quilt(columns: int = 5, rows: int = 4, **choices: object) -> QuiltSizes:
    return quilt_sizes(QuiltChoices(columns, rows, TEN, TEN, **choices))  # type: ignore[arg-type]


def finished_area(q: QuiltSizes) -> float:
    """Blocks and plain pieces of the centre, each by its own finished size."""
    total = float(q.choices.block_width) * float(q.choices.block_height) * q.blocks
    for p in q.pieces:
        if p.name.startswith(("border", "binding")):
            continue
        wide, high = float(p.finished_width), float(p.finished_height)
        one = (
            wide**2 / 4
            if p.name.startswith("side")
            else wide**2 / 2
            if p.name.startswith("corner setting")
            else wide * high
        )
        total += one * (p.needed or p.count)
    return total


class SizesTest(TestCase):
    def test_what_is_in_the_centre_fills_it_exactly(self) -> None:
        for setting, sash, stones, about in product(
            (Setting.STRAIGHT, Setting.ON_POINT, Setting.STAGGERED), (ZERO, inches("3/2")), (False, True), (False, True)
        ):
            if (setting is Setting.STAGGERED and sash > ZERO) or setting is Setting.BY_HAND:
                continue
            with self.subTest((setting, sash, stones, about)):
                q = quilt(setting=setting, sash=sash, cornerstones=stones, sash_round=about)
                self.assertAlmostEqual(finished_area(q), float(q.centre_width) * float(q.centre_height), places=6)

    def test_borders_add_on_both_sides_whatever_their_corners(self) -> None:
        found = {}
        for corners in Corners:
            q = quilt(borders=(Border(inches(1), "a"), Border(inches(4), "b", corners)))
            self.assertEqual((q.width, q.height), (inches(60), inches(50)))
            self.assertEqual((q.unfinished_width, q.unfinished_height), (inches("121/2"), inches("101/2")))
            found[corners] = {p.name: p for p in q.pieces}
        squares = found[Corners.SQUARE]["border 2, corner squares"]
        self.assertEqual((squares.count, squares.cut_width), (4, inches("9/2")))
        # Mitred, each strip reaches from outer corner to outer corner, with four inches to spare.
        across = found[Corners.MITRED]["border 2, top and bottom"]
        self.assertEqual((across.count, across.cut_width, across.cut_height), (2, inches("9/2"), inches("129/2")))

    def test_setting_triangles_by_the_rule_with_the_grain_outside(self) -> None:
        q = quilt(setting=Setting.ON_POINT, oversize=ZERO)
        side, corner = q.pieces[0], q.pieces[1]
        # 10 across the diagonal is 14.142; and 1 1/4 (really 1.2071), up to the next eighth. A half: 10/√2 and 7/8.
        self.assertEqual((side.cut_width, side.cut_into, side.needed), (inches("123/8"), 4, 2 * 4 + 2 * 3))
        self.assertEqual((corner.cut_width, corner.cut_into, corner.count), (inches("8"), 2, 2))

    def test_every_plain_piece_is_cut_with_its_allowances_and_its_oversize(self) -> None:
        for p in quilt(sash=inches("3/2"), borders=(Border(inches(3), "a"),)).pieces:
            if p.name == "binding strip" or p.cut_into > 1:
                continue
            over = inches("1/2") if p.note else ZERO
            self.assertEqual(p.cut_width, p.finished_width + inches("1/2"), p.name)
            self.assertEqual(p.cut_height, p.finished_height + inches("1/2") + over, p.name)

    def test_backing_is_wide_enough_either_way_and_the_lesser_comes_first(self) -> None:
        q = quilt()
        for b in q.backing[:2]:
            over = b.width if b.along else b.height
            self.assertGreaterEqual(inches(40) * b.panels - inches(1) * (b.panels - 1), over)
            self.assertLess(inches(40) * (b.panels - 1) - inches(1) * max(0, b.panels - 2), over)
        self.assertLessEqual(q.backing[0].length, q.backing[1].length)

    def test_a_backing_of_one_length_with_a_strip(self) -> None:
        """A quilt of 44 by 60 with 4 over all round: 52 by 68. A strip of 14 in a length of 40 loses four half inches: 52. Two lengths of 40 less a seam of half inches are 79 long, enough for 68. To buy 68 and twice the strip."""
        choices = QuiltChoices(1, 1, inches(44), inches(60), usable=inches(40), backing_over=inches(4))
        (found,) = [b for b in quilt_sizes(choices).backing if b.strip > ZERO]
        self.assertEqual((found.width, found.height), (inches(52), inches(68)))
        self.assertEqual((found.strip, found.strip_lengths), (inches(14), 2))
        # Both edges of the strip and both of the parted length lose half an inch: 40 + 14 less four halves.
        self.assertEqual(choices.usable + found.strip - inches("1/2") * 4, found.width)
        self.assertEqual(found.length, inches(68) + inches(28))
        # Two seams of 68, and one of 14 where the strip is joined.
        self.assertEqual(found.seam, inches(150))

    def test_binding_goes_round(self) -> None:
        b = quilt().binding
        self.assertEqual(b.round_about, inches(180))
        # each diagonal join takes a strip's width
        self.assertGreaterEqual(inches(40) * b.strips - b.strip * (b.strips - 1), b.length)
        self.assertLess(inches(40) * (b.strips - 1) - b.strip * (b.strips - 2), b.length)

    def test_what_cannot_be_is_refused(self) -> None:
        with self.assertRaises(QuiltImpossible):
            quilt_sizes(QuiltChoices(2, 2, TEN, inches(5), Setting.ON_POINT))
        for bad in (
            {"columns": 0},
            {"columns": 61},
            {"sash": Length.of(-1)},
            {"borders": (Border(ZERO, "a"),)},
            {"setting": Setting.STAGGERED, "sash": inches(1)},
            {"binding_strip": inches(13)},
            {"binding_strip": inches(10), "usable": inches(9)},
            {"columns": 50, "rows": 50},
        ):
            with self.subTest(bad), self.assertRaises(QuiltImpossible):
                quilt(**bad)


class PictureTest(TestCase):
    def test_blocks_lie_inside_and_beside_each_other(self) -> None:
        for setting, sash in product((Setting.STRAIGHT, Setting.ON_POINT, Setting.STAGGERED), (ZERO, inches(1))):
            if setting is Setting.STAGGERED and sash > ZERO:
                continue
            q = quilt(setting=setting, sash=sash, sash_round=True)
            angle = 45 if setting is Setting.ON_POINT else 0
            shapes = []
            for x, y in block_middles(q):
                corners = [rotated((a, b), angle) for a, b in ((-5, -5), (5, -5), (5, 5), (-5, 5))]
                shapes.append(Shape([(x + a, y + b) for a, b in corners]))
            whole = unary_union(shapes)
            self.assertAlmostEqual(whole.area, 100 * q.blocks, places=5)
            centre = box(0, 0, float(q.centre_width), float(q.centre_height))
            self.assertAlmostEqual(whole.difference(centre).area, 0, places=5)
            if setting is Setting.ON_POINT and sash == ZERO:
                # What the blocks leave open is what the setting triangles fill.
                open_area = centre.area - whole.area
                n = {p.name: p for p in q.pieces}
                side, corner = n["side setting triangle"], n["corner setting triangle"]
                self.assertAlmostEqual(
                    open_area,
                    side.needed * float(side.finished_width) ** 2 / 4 + 4 * float(corner.finished_width) ** 2 / 2,
                    places=5,
                )

    def test_the_picture_is_the_size_of_the_quilt(self) -> None:
        lantern = Laid(layout_of(library_pattern("lantern")))
        for setting in (Setting.STRAIGHT, Setting.ON_POINT, Setting.STAGGERED):
            q = quilt(setting=setting, cornerstones=True, borders=(Border(inches(2), "a", Corners.SQUARE, "c"),))
            drawing = quilt_picture(q, lambda _n: lantern)
            self.assertAlmostEqual(drawing.window[2], float(q.width))
            self.assertEqual(sum(len(s.at) for s in drawing.stamps), q.blocks)
            blocks = [Shape([(x, -y) for x, y in m.points]) for s in drawing.stamps for m in s.set_down()]
            self.assertEqual(len(blocks), 25 * q.blocks)
            # The patches of all blocks tile them, stand where the blocks are, and leave nothing between.
            size = float(q.choices.block_width)
            turn = 45 if setting is Setting.ON_POINT else 0
            wanted = unary_union(
                [
                    rotate(box(x - size / 2, y - size / 2, x + size / 2, y + size / 2), turn)
                    for x, y in ((x + 2, y + 2) for x, y in block_middles(q))
                ]
            )
            self.assertAlmostEqual(unary_union(blocks).symmetric_difference(wanted).area, 0.0, places=6)
            self.assertAlmostEqual(sum(b.area for b in blocks), wanted.area, places=6)

    def test_a_stamp_is_turned_as_one_sees_it(self) -> None:
        """A mark to the right of its middle, turned by a quarter anticlockwise, stands above it: y is down, so less."""
        mark = DrawnMark("face", ((2.0, 0.0), (3.0, 0.0), (3.0, 1.0)))
        (turned,) = Stamp((mark,), ((10.0, 10.0),), 90.0).set_down()
        self.assertEqual(turned.points[0], (10.0, 8.0))

    def test_from_afar_every_unit_has_the_fabric_that_it_has_most_of(self) -> None:
        """144 blocks of 24 by 24 units: one area a unit, alike in size to the unit, in the block's fabrics."""
        units = {"A": {"kind": "half_square_triangle", "fabrics": "ab"}, "B": {"kind": "plain_square", "fabrics": "c"}}
        many = Laid(layout_of(grid(["A0 B0 " * 12] * 24, units)))
        drawing = quilt_picture(quilt_sizes(QuiltChoices(12, 12, inches(12), inches(12))), lambda _n: many)
        (stamp,) = drawing.stamps
        self.assertEqual((len(stamp.marks), len(stamp.at)), (576, 144))
        self.assertEqual({m.fabric for m in stamp.marks} - {"a", "b"}, {"c"})
        self.assertEqual(sum(m.fabric == "c" for m in stamp.marks), 288)
        self.assertAlmostEqual(sum(abs(area(m.points)) for m in stamp.marks), 144.0, places=6)


class ScrapsTest(TestCase):
    def setUp(self) -> None:
        self.one = layout_of(grid(["A0 " * 6] * 6, {"A": {"kind": "plain_square", "fabrics": "a"}}))
        self.q = quilt_sizes(QuiltChoices(1, 1, inches(18), inches(18)))
        self.places = scrap_places(self.q, [Laid(self.one)], "a")
        self.pairs = neighbours(self.places)

    def test_neighbours_of_a_grid(self) -> None:
        self.assertEqual(len(self.places), 36)
        self.assertEqual(len(self.pairs), 2 * 6 * 5)
        self.assertEqual(len(neighbours(self.places, corners=True)), 2 * 6 * 5 + 2 * 5 * 5)

    def test_neighbours_reach_across_blocks_but_not_across_sashing(self) -> None:
        nine = layout_of(library_pattern("nine_patch"))
        edge_to_edge = quilt_sizes(QuiltChoices(2, 1, inches(9), inches(9)))
        sashed = quilt_sizes(QuiltChoices(2, 1, inches(9), inches(9), sash=inches(1)))
        for q, wanted in ((edge_to_edge, 2), (sashed, 0)):
            places = scrap_places(q, [Laid(nine)] * 2, "a")
            self.assertEqual(len(neighbours(places)), wanted)

    def test_no_neighbours_alike_counts_kept_fixed_places_kept(self) -> None:
        stock = [ScrapStock("a", 12, 2), ScrapStock("b", 12, 0), ScrapStock("c", 12, 1)]
        for order in (0, 50, 100):
            found = arrange_scraps(self.places, self.pairs, stock, fixed={0: "c", 35: "a"}, order=order, seed=4)
            self.assertEqual((found.alike, touching(found.fabrics, self.pairs)), ((), ()))
            self.assertEqual((found.fabrics[0], found.fabrics[35]), ("c", "a"))
            self.assertTrue(all(found.fabrics.count(s.fabric) <= s.count for s in stock))

    def test_ordered_is_nearer_to_light_to_dark_than_random(self) -> None:
        stock = [ScrapStock(f, 6, n) for n, f in enumerate("abcdef")]
        dark = {s.fabric: s.darkness for s in stock}

        def disorder(order: int) -> float:
            found = arrange_scraps(self.places, self.pairs, stock, order=order, seed=2).fabrics
            along = [dark[f] - (p.box[0] - p.box[3]) * 5 / 30 for f, p in zip(found, self.places, strict=True)]
            mean = sum(along) / len(along)
            return sum((a - mean) ** 2 for a in along)

        self.assertLess(disorder(100), disorder(0) / 2)

    def test_what_is_in_the_way_is_proven(self) -> None:
        found = arrange_scraps(self.places, self.pairs, [ScrapStock("a", 22), ScrapStock("b", 10), ScrapStock("c", 4)])
        self.assertTrue(found.alike)
        self.assertEqual(len(found.alike), len(touching(found.fabrics, self.pairs)))
        self.assertIn(
            "Fabric A has to fill 22 of 36 places, since there are only 14 of others; 18 at most can lie apart",
            str(found.said[0]),
        )
        # fewer cannot be had: 22 of one fabric on 6 by 6; every one beyond 18 meets at least two of its own in the grid's corners
        self.assertTrue(found.optimal)

    def test_fixed_neighbours_alike_are_named(self) -> None:
        found = arrange_scraps(
            self.places, self.pairs, [ScrapStock("a", 20), ScrapStock("b", 20)], fixed={0: "a", 1: "a"}
        )
        self.assertIn("are neighbours, and both are fixed to fabric A", str(found.said[0]))

    def test_too_few_units_and_fixed_places_without_any(self) -> None:
        for stock, fixed in (
            ([ScrapStock("a", 20)], {}),
            ([ScrapStock("a", 40)], {3: "z"}),
            ([ScrapStock("a", 40), ScrapStock("b", 1)], {3: "b", 4: "b"}),
            ([ScrapStock("a", -1)], {}),
        ):
            with self.assertRaises(ScrapsImpossible):
                arrange_scraps(self.places, self.pairs, stock, fixed=fixed)
        with self.assertRaises(ScrapsImpossible):
            scrap_places(self.q, [Laid(self.one)], "q")

    def test_boxes_of_turned_blocks(self) -> None:
        rng = random.Random(1)
        leaf = layout_of(library_pattern("leaf"))
        for _ in range(8):
            from piecing.blocks.pattern import Orientation

            orientation = Orientation(rng.randrange(4), rng.random() < 0.5)
            boxes = [cell_box(Laid(leaf, orientation), n, inches(9)) for n in range(len(leaf.cells))]
            self.assertAlmostEqual(sum(w * h for _, _, w, h in boxes), 81)
            self.assertEqual(len({(round(x), round(y)) for x, y, _, _ in boxes}), 9)
        self.assertEqual(len(block_spots(self.q.choices)), 1)
