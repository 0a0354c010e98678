"""Pictures looked at point by point: what lies uppermost there is what was laid there, by another route."""

from __future__ import annotations

import random
import xml.etree.ElementTree as ET
from collections.abc import Sequence
from dataclasses import replace
from fractions import Fraction
from math import cos, pi, sin
from unittest import TestCase

from shapely.geometry import Point as Spot
from shapely.geometry import Polygon as Shape

from piecing.blocks.boxes import Box, cropped, in_whole_parts, pattern_of, plain_box, with_finished
from piecing.blocks.comparing import compare_patterns
from piecing.blocks.library import library_keys, library_pattern
from piecing.blocks.pattern import BlockPlacement, Cell, Orientation, UnitPlacement, layout_of
from piecing.diagnosis.symptoms import symptoms
from piecing.drawings.block import block_picture
from piecing.drawings.finding import finding_picture
from piecing.drawings.quilt import quilt_picture
from piecing.drawings.symptom import symptom_picture
from piecing.errors import QuiltImpossible
from piecing.geometry.drawing import Drawing, DrawnMark, Sketch
from piecing.geometry.vector import svg
from piecing.lengths import ZERO, inches
from piecing.messages import Message
from piecing.quilts.choices import Border, Corners, QuiltChoices, Setting, block_spots
from piecing.quilts.laid import Laid
from piecing.quilts.sizes import QuiltSizes, quilt_sizes

LIES = [Orientation(turn, mirrored) for turn in range(4) for mirrored in (False, True)]
SVG = "{http://www.w3.org/2000/svg}"


def fabric_at(drawing: Drawing, x: float, y: float) -> str:
    """The fabric that is drawn last over a point, counted from the upper left corner of the picture."""
    spot = Spot(drawing.window[0] + x, drawing.window[1] + y)
    found = [m.fabric for m in drawing.all_marks if m.closed and m.role == "face" and Shape(m.points).contains(spot)]
    return found[-1] if found else ""


def clear_of_edges(drawing: Drawing, x: float, y: float) -> bool:
    """Whether a point lies well within whatever it lies on."""
    spot = Spot(drawing.window[0] + x, drawing.window[1] + y)
    return all(
        Shape(m.points).exterior.distance(spot) > 0.02 for m in drawing.all_marks if m.closed and len(m.points) > 2
    )


class OnTheQuiltTest(TestCase):
    """Seven random points of each of many quilts, carried from the block that lies there, however it is turned."""

    def looked_at(self, sized: QuiltSizes, lying: Sequence[Laid], rng: random.Random) -> None:
        c = sized.choices
        picture = quilt_picture(sized, lying)
        own = block_picture(layout_of(lying[0].layout.pattern), c.block_width)
        wide, sash = float(c.block_width), float(c.sash)
        # The corner of the centre, from which rows and columns are counted.
        left, top = (
            float(a - b) / 2 for a, b in ((sized.width, sized.centre_width), (sized.height, sized.centre_height))
        )
        spots = block_spots(c)
        seen = 0
        while seen < 7:
            n = rng.randrange(len(spots))
            u, v = rng.uniform(0.03, 0.97) * wide, rng.uniform(0.03, 0.97) * wide
            if not clear_of_edges(own, u, v):
                continue
            x, y = spots[n]
            a, b = u - wide / 2, v - wide / 2
            if lying[n].orientation.mirrored:
                a = -a
            for _ in range(lying[n].orientation.turn):
                a, b = -b, a
            if c.setting is Setting.ON_POINT:
                half = (wide + sash) / 2**0.5
                first = wide / 2**0.5 + sash * 2**0.5
                middle = (left + first + x * half, top + first + y * half)
                here = (
                    middle[0] + a * cos(pi / 4) - b * sin(pi / 4),
                    middle[1] + a * sin(pi / 4) + b * cos(pi / 4),
                )
            else:
                rim = sash if c.sash_round else 0.0
                drop = wide * float(c.stagger) if c.setting is Setting.STAGGERED and x % 2 else 0.0
                here = (
                    left + rim + x * (wide + sash) + wide / 2 + a,
                    top + rim + y * (wide + sash) + wide / 2 + b + drop,
                )
            roles = dict(lying[n].roles)
            shown = fabric_at(own, u, v)
            self.assertTrue(shown)
            self.assertEqual(fabric_at(picture, *here), roles.get(shown, shown))
            seen += 1

    def test_every_setting(self) -> None:
        rng = random.Random(9)
        lantern = layout_of(library_pattern("lantern"))
        for setting in (Setting.STRAIGHT, Setting.ON_POINT, Setting.STAGGERED):
            for sash in (ZERO, inches("3/2")):
                if setting is Setting.STAGGERED and sash > ZERO:
                    continue
                for stones in (False, True):
                    choices = QuiltChoices(
                        3,
                        2,
                        inches(9),
                        inches(9),
                        setting=setting,
                        sash=sash,
                        cornerstones=stones,
                        sash_round=stones,
                        borders=(Border(inches(2), "z", Corners.SQUARE, "y"),),
                    )
                    sized = quilt_sizes(choices)
                    ways = ((), (("a", "b"), ("b", "a")), (("c", "d"),))
                    lying = [Laid(lantern, rng.choice(LIES), rng.choice(ways)) for _ in block_spots(choices)]
                    with self.subTest((setting, sash, stones)):
                        self.looked_at(sized, lying, rng)

    def test_sashes_cornerstones_borders_and_their_corners_show_their_fabrics(self) -> None:
        choices = QuiltChoices(
            2, 2, inches(6), inches(6), sash=inches(2), sash_fabric="s", cornerstones=True, cornerstone_fabric="t",
            sash_round=False, borders=(Border(inches(2), "u", Corners.SQUARE, "v"), Border(inches(3), "w", Corners.OVERLAPPED)),
        )  # fmt: skip
        lying = [Laid(layout_of(library_pattern("lantern")))] * 4
        picture = quilt_picture(quilt_sizes(choices), lying)
        # From the corner: 3 of the outer border, 2 of the inner one, a block of 6, the sash of 2.
        for x, y, fabric in (
            (1, 1, "w"), (12, 1, "w"), (4, 4, "v"), (12, 4, "u"), (4, 12, "u"), (12, 6, "s"), (6, 12, "s"), (12, 12, "t"),
            (22.5, 12, "w"), (20, 20, "v"),
        ):  # fmt: skip
            self.assertEqual(fabric_at(picture, x, y), fabric, (x, y))

    def test_from_afar_each_unit_has_the_fabric_of_most_of_it(self) -> None:
        choices = QuiltChoices(30, 30, inches(3), inches(3), borders=())
        # Four by four stars make a block of so many units that nine hundred of them are dots.
        four = pattern_of(
            "Stars",
            [
                Box(
                    Fraction(4 * c),
                    Fraction(4 * r),
                    Fraction(4),
                    Fraction(4),
                    BlockPlacement("star", library_pattern("sawtooth_star")),
                )
                for c in range(2)
                for r in range(2)
            ],
        )
        star = layout_of(four)
        picture = quilt_picture(quilt_sizes(choices), [Laid(star)] * 900)
        self.assertTrue(all(m.role in ("patch", "face") for s in picture.stamps for m in s.marks))
        self.assertGreater(900 * len(star.cells), 20_000)
        (stamp,) = picture.stamps
        self.assertEqual(len(stamp.marks), len(star.cells))
        # A goose has half its cloth in its large triangle; a plain square has one fabric.
        for mark, cell in zip(stamp.marks, star.cells, strict=True):
            parts = cell.unit.part_fabrics
            self.assertIn(mark.fabric, parts)
            self.assertTrue(len(parts) > 1 or mark.fabric == parts[0])


class BoxesTest(TestCase):
    def test_a_part_of_a_block_shows_what_the_whole_shows_there(self) -> None:
        for key in ("lantern", "sawtooth_star", "pinwheel"):
            pattern = library_pattern(key)
            for row in range(1, len(pattern.rows)):
                share = pattern.edges[1][row] / pattern.height
                if any(c.top < pattern.edges[1][row] < c.bottom for c in layout_of(pattern).cells):
                    continue
                upper = cropped(pattern, Fraction(0), share, "upper")
                lower = cropped(pattern, share, 1 - share, "lower")
                self.assertEqual(upper.height + lower.height, pattern.height)
                whole = {(c.left, c.top): c for c in layout_of(pattern).cells}
                for part, down in ((upper, Fraction(0)), (lower, pattern.height * share)):
                    for c in layout_of(part).cells:
                        there = whole[c.left, c.top + down]
                        self.assertEqual((c.unit, c.orientation, c.width, c.height), same(there))

    def test_a_cut_through_plain_cloth_makes_oblongs_and_through_a_seam_is_refused(self) -> None:
        plain = pattern_of("Plain", [plain_box(*map(Fraction, (0, 0, 2, 2)), "a")])
        half = cropped(plain, Fraction(1, 4), Fraction(1, 4), "slice")
        self.assertEqual((half.width, half.height), (2, Fraction(1, 2)))
        self.assertEqual(layout_of(half).cells[0].unit.kind, "rectangle")
        with self.assertRaises(QuiltImpossible) as refused:
            cropped(library_pattern("pinwheel"), Fraction(0), Fraction(1, 5), "slice")
        self.assertIn("runs through", str(refused.exception))

    def test_boxes_at_odds_become_the_tracks_between_them(self) -> None:
        unit = UnitPlacement("half_square_triangle", ("a", "b"))
        boxes = [
            Box(Fraction(0), Fraction(0), Fraction(3, 2), Fraction(3, 2), unit, Orientation(1)),
            plain_box(Fraction(3, 2), Fraction(0), Fraction(1), Fraction(3, 2), "c"),
        ]
        found = pattern_of("Two", boxes)
        self.assertEqual((found.columns, found.rows), ((Fraction(3, 2), Fraction(1)), (Fraction(3, 2),)))
        whole = in_whole_parts(found)
        self.assertEqual((whole.columns, whole.rows), ((3, 2), (3,)))
        self.assertEqual(whole.places, found.places)

    def test_what_is_finished_is_one_plain_piece_in_its_place(self) -> None:
        block = library_pattern("lantern")
        held = pattern_of(
            "Pair",
            [
                Box(Fraction(0), Fraction(0), block.width, block.height, BlockPlacement("lantern", block)),
                Box(
                    block.width,
                    Fraction(0),
                    block.width,
                    block.height,
                    BlockPlacement("lantern", block),
                    Orientation(1),
                ),
            ],
        )
        self.assertIs(with_finished(held, ()), held)
        one = with_finished(held, (1,))
        self.assertEqual(len(layout_of(one).cells), len(layout_of(block).cells) + 1)
        self.assertEqual(one.places[1].content, UnitPlacement("plain_square", ("a",)))
        self.assertEqual(one.places[0], held.places[0])


def same(c: Cell) -> tuple[object, ...]:
    return c.unit, c.orientation, c.width, c.height


class FindingTest(TestCase):
    def test_the_ring_lies_round_the_unit_that_was_turned(self) -> None:
        wanted = library_pattern("sawtooth_star")
        ringed = 0
        for n, place in enumerate(wanted.places):
            turned = replace(place, orientation=place.orientation.turned(1))
            seen = replace(wanted, places=(*wanted.places[:n], turned, *wanted.places[n + 1 :]))
            finding = compare_patterns(wanted, seen)
            drawn = finding_picture(seen, finding, inches(12))
            rings = [m for m in drawn.marks if m.role == "fault"]
            self.assertEqual(len(rings), len(finding.faults))
            if len(rings) != 1 or finding.whole:
                continue
            ringed += 1
            middle = Shape(rings[0].points).centroid
            left, top, wide, high = wanted.box(place)
            part = 12 / float(wanted.width)
            self.assertAlmostEqual(middle.x, float(left + wide / 2) * part, places=6)
            self.assertAlmostEqual(middle.y - drawn.window[1], float(top + high / 2) * part, places=6)
        # The geese: a square lies as it lay.
        self.assertGreaterEqual(ringed, 4)


def drawn_alike(one: Drawing, other: Drawing) -> list[tuple[DrawnMark, DrawnMark]]:
    """Faces of two pictures of one block, by their order."""
    faces = [[m for m in d.all_marks if m.closed and m.fabric] for d in (one, other)]
    return list(zip(*faces, strict=False))


class SymptomTest(TestCase):
    def test_each_end_is_drawn_as_it_looks_and_as_it_should(self) -> None:
        for symptom in (s for first in symptoms() for s in first.walk()):
            with self.subTest(symptom.code):
                wrong, right = symptom_picture(symptom.code), symptom_picture(symptom.code, true=True)
                off = [
                    max(abs(a - b), abs(c - d))
                    for m, n in drawn_alike(wrong, right)
                    for (a, c), (b, d) in zip(m.points, n.points, strict=False)
                ]
                self.assertTrue(symptom.turned or not any(symptom.causes.values()) or max(off) > 0.01)
                self.assertIn("How it should look", str(right.alt))
                self.assertTrue(str(wrong.alt).startswith(symptom.said))
        with self.assertRaises(KeyError):
            symptom_picture("nothing.of_the_kind")


class SvgTest(TestCase):
    COLOURS = {"a": "#112233", "b": "#445566", "c": "#778899"}

    def read(self, text: str) -> ET.Element:
        return ET.fromstring(text)

    def test_it_is_as_large_as_the_block_and_holds_every_patch_in_its_colour(self) -> None:
        for key in library_keys()[::9]:
            layout = layout_of(library_pattern(key))
            picture = block_picture(layout, inches(9))
            root = self.read(svg(picture, self.COLOURS))
            self.assertEqual(root.get("width"), "9.0000in")
            high = 9 * float(layout.pattern.height / layout.pattern.width)
            self.assertEqual(root.get("height"), f"{high:.4f}in")
            polygons = root.findall(f"{SVG}polygon")
            self.assertEqual(len(polygons), sum(len(m.points) > 1 and m.closed for m in picture.all_marks))
            total = 0.0
            for p in polygons:
                points = [tuple(map(float, xy.split(","))) for xy in (p.get("points") or "").split()]
                if p.get("fill") != "none":
                    total += Shape(points).area
            self.assertAlmostEqual(total, 9 * high, delta=0.02)

    def test_at_another_width_the_window_stays(self) -> None:
        picture = block_picture(layout_of(library_pattern("lantern")), inches(9))
        large, small = (self.read(svg(picture, self.COLOURS, width=w)) for w in (0.0, 3.0))
        self.assertEqual(large.get("viewBox"), small.get("viewBox"))
        self.assertEqual(small.get("width"), "3.0000in")

    def test_names_and_colours_that_could_be_markup_are_written_out(self) -> None:
        first = replace(library_pattern("lantern"), name='A <b> & "c"')
        picture = block_picture(layout_of(first), inches(9))
        root = self.read(svg(picture, {"a": '"/><script>'}))
        self.assertIn('A <b> & "c"', root.findtext(f"{SVG}title") or "")
        self.assertFalse(root.findall(f"{SVG}script"))

    def test_patches_seen_from_afar_are_filled_as_units_are(self) -> None:
        sketch = Sketch().polygon("patch", ((0.0, 0.0), (1.0, 0.0), (1.0, 1.0)), "a")
        (mark,) = self.read(svg(sketch.to_drawing((0.0, 0.0, 1.0, 1.0), Message("a quilt")), self.COLOURS))[1:]
        self.assertEqual((mark.get("fill"), mark.get("fill-opacity")), ("#112233", "1.0"))
