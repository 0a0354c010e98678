"""The cut / lay / sew / open / trim engine, against shapely and against conservation of cloth."""

from __future__ import annotations

from math import sqrt
from unittest import TestCase

import shapely
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import LineString
from shapely.geometry import Polygon as Region
from shapely.ops import split

from piecing.geometry.drawing import Sketch
from piecing.geometry.plane import Line, area, clip, meeting, mirror_all, rectangle, rotated, stretch_inside
from piecing.geometry.sewing import Needle, Piece, Stack, Stitching, joined, laid_on, square, trim, turned_over
from piecing.messages import Message

_sizes = st.floats(min_value=1, max_value=16)
_shares = st.floats(min_value=0.1, max_value=0.9)


def region(piece: Piece) -> Region:
    """What one sees of a piece, as one region of shapely's."""
    return shapely.union_all([Region(p.outline) for p in piece.faces])


class PlaneTest(TestCase):
    @given(_sizes, _shares, _shares)
    def test_clipping_agrees_with_shapely(self, side: float, a: float, b: float) -> None:
        start, end = (side * a, 0.0), (side * b, side)
        left = clip(rectangle(side, side), Line(start, end))
        blade = LineString([(start[0] - (end[0] - start[0]), -side), (end[0] + (end[0] - start[0]), 2 * side)])
        parts = split(Region(rectangle(side, side)), blade)
        wanted = min(parts.geoms, key=lambda g: g.centroid.x)
        self.assertAlmostEqual(Region(left).symmetric_difference(wanted).area, 0, places=6)

    @given(_sizes)
    def test_mirrored_twice_is_itself(self, side: float) -> None:
        line = Line((0.3, -1.0), (side, 2.0))
        twice = mirror_all(mirror_all(rectangle(side, side), line), line)
        for (x, y), (u, v) in zip(twice, rectangle(side, side), strict=True):
            self.assertAlmostEqual(x, u)
            self.assertAlmostEqual(y, v)

    def test_four_quarter_turns_are_none(self) -> None:
        outline = rectangle(3.0, 2.0)
        turned = outline
        for _ in range(4):
            turned = tuple(rotated(p, 90, (1.0, 1.0)) for p in turned)
        self.assertEqual(turned, outline)
        self.assertAlmostEqual(area(tuple(rotated(p, 33) for p in outline)), 6.0)

    def test_lines_meet_and_run_inside(self) -> None:
        rising, falling = Line((0.0, 0.0), (1.0, 1.0)), Line((0.0, 4.0), (4.0, 0.0))
        self.assertEqual(meeting(rising, falling), (2.0, 2.0))
        with self.assertRaises(ZeroDivisionError):
            meeting(rising, rising.shifted(1.0))
        self.assertAlmostEqual(stretch_inside(rising, rectangle(3.0, 3.0))[1], 3 * sqrt(2))  # type: ignore[index]
        self.assertIsNone(stretch_inside(Line((5.0, 0.0), (5.0, 1.0)), rectangle(3.0, 3.0)))

    def test_a_line_outside_clips_all_or_nothing(self) -> None:
        outline = rectangle(1.0, 1.0)
        self.assertEqual(clip(outline, Line((2.0, 0.0), (2.0, 1.0))), outline)
        self.assertEqual(clip(outline, Line((2.0, 1.0), (2.0, 0.0))), ())


def side_by_side(side: float, needle: Needle) -> Piece:
    """Two squares joined on one side."""
    edge, left = Line((side, 0.0), (side, side)), Line((0.0, side), (0.0, 0.0))
    return joined(square(side, "a"), laid_on(square(side, "b"), left, edge), edge, "seam", needle)


class SewingTest(TestCase):
    @given(_sizes, _shares)
    def test_a_cut_keeps_all_the_cloth(self, side: float, share: float) -> None:
        left, right = square(side, "a").cut(Line((0.0, side * share), (side, side * (1 - share))))
        self.assertAlmostEqual(left.cloth + right.cloth, side * side)

    @given(_sizes, st.floats(min_value=0.1, max_value=0.45), st.sampled_from([0.0, 1 / 64, 1 / 32]))
    def test_sewing_hides_cloth_and_loses_none(self, side: float, stitch: float, fold: float) -> None:
        piece, take_up = side_by_side(side, Needle.of(stitch, fold)), stitch + fold / 2
        self.assertAlmostEqual(piece.cloth, 2 * side * side)
        self.assertAlmostEqual(region(piece).area, side * (2 * side - 2 * take_up))
        left, _, right, _ = piece.extent
        self.assertAlmostEqual(right - left, 2 * side - 2 * take_up)

    def test_a_seam_may_take_up_more_at_its_end(self) -> None:
        piece = side_by_side(4.0, Needle(Stitching(0.25, 0.5)))
        (seam,) = piece.seams
        self.assertAlmostEqual(seam.start[0], 3.75)
        self.assertAlmostEqual(seam.end[0], 3.5)
        self.assertAlmostEqual(piece.cloth, 32.0)

    def test_one_seam_of_many_may_be_sewn_otherwise(self) -> None:
        needle = Needle(Stitching(0.25, 0.25), {"seam": Stitching(0.3, 0.3)})
        self.assertAlmostEqual(side_by_side(4.0, needle).extent[2], 7.4)

    @given(_sizes, st.floats(min_value=0.2, max_value=0.3))
    def test_turning_a_sewn_piece_over_twice_gives_it_back(self, side: float, stitch: float) -> None:
        piece, over = side_by_side(side, Needle.of(stitch)), Line((0.0, -1.0), (side, 2.0))
        back = turned_over(turned_over(piece, over), over)
        for one, two in zip(piece.faces, back.faces, strict=True):
            self.assertEqual(one.fabric, two.fabric)
            self.assertAlmostEqual(Region(one.outline).symmetric_difference(Region(two.outline)).area, 0, places=6)

    def test_grain_turns_with_the_cloth(self) -> None:
        (patch,) = turned_over(square(2.0, "a"), Line((0.0, 0.0), (1.0, 1.0))).faces
        self.assertAlmostEqual(patch.grain[0], 0.0)
        self.assertAlmostEqual(abs(patch.grain[1]), 1.0)

    def test_trimming_says_what_fell_off(self) -> None:
        rest, off = trim(square(4.0, "a"), Line((0.0, 1.0), (4.0, 1.0)), Line((3.0, 0.0), (3.0, 4.0)))
        self.assertAlmostEqual(rest.cloth, 9.0)
        self.assertAlmostEqual(off, 7.0)

    def test_a_seam_is_trimmed_with_the_piece(self) -> None:
        piece = side_by_side(4.0, Needle.of(0.25))
        rest, _ = trim(piece, Line((0.0, 1.0), (8.0, 1.0)))
        self.assertAlmostEqual(min(rest.seams[0].start[1], rest.seams[0].end[1]), 1.0)
        gone, _ = trim(piece, Line((5.0, 4.0), (5.0, 0.0)))
        self.assertEqual(gone.seams, ())

    @given(_sizes)
    def test_a_laid_piece_lies_on_its_edge_and_on_the_same_side(self, side: float) -> None:
        edge, onto = Line((0.0, side), (0.0, 0.0)), Line((1.0, 2.0), (4.0, 6.0))
        laid = laid_on(square(side, "b"), edge, onto, 0.5)
        sides = [onto.side(p) for p in laid.faces[0].outline]
        self.assertAlmostEqual(min(sides), 0.0)
        self.assertAlmostEqual(max(sides), side)
        self.assertAlmostEqual(min(onto.along(p) for p in laid.faces[0].outline), 0.5)

    def test_stitches_that_stray_into_a_part_are_picked_out(self) -> None:
        stack = Stack(square(4.0, "a"), turned_over(square(4.0, "b"), Line((2.0, 0.0), (2.0, 4.0))))
        needle = Needle.of(0.25)
        stack = stack.sewn("left", Line((0.0, 4.0), (0.0, 0.0)), needle).sewn(
            "bottom", Line((0.0, 0.0), (4.0, 0.0)), needle
        )
        lower, _ = stack.cut(Line((0.0, 0.0), (4.0, 4.0)).reversed())
        self.assertEqual(max(lower.stitches, key=lower.sewn_length).name, "bottom")
        self.assertAlmostEqual(lower.opened("bottom").cloth, 16.0)


class DrawingTest(TestCase):
    def test_a_sketch_turns_the_page_over_and_keeps_every_mark(self) -> None:
        drawing = (
            Sketch()
            .piece(square(2.0, "a"))
            .line("blade", (0.0, 0.0), (2.0, 2.0))
            .dimension((0.0, 0.0), (2.0, 0.0), (1.0, -0.2), Message("two"))
            .to_drawing((-1.0, -1.0, 3.0, 3.0), Message("a square"))
        )
        self.assertEqual(drawing.window, (-1.0, -3.0, 4.0, 4.0))
        self.assertEqual([m.role for m in drawing.marks], ["face", "blade"])
        self.assertEqual(drawing.marks[1].points, ((0.0, -0.0), (2.0, -2.0)))
        self.assertEqual(drawing.dimensions[0].at, (1.0, 0.2))

    def test_a_line_can_be_drawn_past_its_ends(self) -> None:
        drawing = Sketch().stretch("blade", Line((0.0, 0.0), (3.0, 4.0)), 5.0).to_drawing((0, 0, 1, 1), Message(""))
        (x1, y1), (x2, y2) = drawing.marks[0].points
        self.assertAlmostEqual(sqrt((x2 - x1) ** 2 + (y2 - y1) ** 2), 15.0)
