"""Pieced borders, arrangements by rule and parts of blocks: areas that add up, pictures that turn the corner, and the joiner's word."""

from __future__ import annotations

import random
from collections import Counter
from fractions import Fraction
from unittest import TestCase

from shapely import STRtree
from shapely.geometry import Point, Polygon

from piecing.blocks import editing
from piecing.blocks.boxes import Box, cropped, pattern_of, plain_box
from piecing.blocks.library import library_pattern
from piecing.blocks.pattern import BlockPlacement, Content, Orientation, Pattern, Place, UnitPlacement, layout_of
from piecing.diagnosis import block_geometry
from piecing.drawings.block import block_picture, draw_block
from piecing.drawings.quilt import quilt_picture
from piecing.errors import PiecingError, QuiltImpossible
from piecing.geometry.drawing import Drawing, Sketch
from piecing.handling.joining_steps import join_steps
from piecing.handling.quilt_steps import quilt_steps
from piecing.joining.order import Order
from piecing.lengths import ZERO, Length, inches
from piecing.messages import Message
from piecing.quilts.by_rule import Sampled, SashStrip, StripCrossing, as_set, sampler, sashed_pattern
from piecing.quilts.choices import BackingWay, Border, Corners, QuiltChoices, Setting, block_spots
from piecing.quilts.laid import Laid
from piecing.quilts.pieced import PiecedRow, RowFit, Runs, fitted_row
from piecing.quilts.seams import quilt_join_length
from piecing.quilts.sizes import QuiltSizes, quilt_sizes
from tests.joiner import join

HALF_SQUARE = UnitPlacement("half_square_triangle", ("a", "b"))
GOOSE = UnitPlacement("flying_goose", ("a", "b", "b"))
HOURGLASS = UnitPlacement("quarter_square_triangle", ("a", "b", "a", "b"))
SQUARE, OTHER = UnitPlacement("plain_square", ("a",)), UnitPlacement("plain_square", ("b",))


def bordered(wide: str, high: str, depth: str, row: PiecedRow, **choices: object) -> QuiltSizes:
    border = Border(inches(depth), "c", pieced=row)
    return quilt_sizes(QuiltChoices(1, 1, inches(wide), inches(high), borders=(border,), **choices))  # type: ignore[arg-type]


def by_chance(chance: random.Random) -> QuiltChoices:
    """Any setting with any borders; what cannot be is for the caller to pass over."""
    setting = chance.choice([Setting.STRAIGHT, Setting.ON_POINT, Setting.STAGGERED])
    borders = []
    for _ in range(chance.randint(0, 4)):
        units: tuple[Content, ...] = chance.choice([(HALF_SQUARE,), (GOOSE,), (HOURGLASS,), (SQUARE, OTHER)])
        pieced = PiecedRow(
            units,
            Orientation(chance.randint(0, 3)),
            chance.choice(list(RowFit)),
            chance.choice(list(Runs)),
            chance.choice([None, HALF_SQUARE]),
        )
        width = Length.of(Fraction(chance.randint(8, 40), 8))
        borders.append(Border(width, "c", chance.choice(list(Corners)), "d", pieced if chance.random() < 0.6 else None))
    side = Length.of(Fraction(chance.randint(24, 110), 8))
    return QuiltChoices(
        chance.randint(1, 7),
        chance.randint(1, 8),
        side,
        side if setting is Setting.ON_POINT else Length.of(Fraction(chance.randint(24, 110), 8)),
        setting,
        sash=ZERO if setting is Setting.STAGGERED else Length.of(Fraction(chance.randint(0, 16), 8)),
        sash_round=chance.random() < 0.5,
        cornerstones=chance.random() < 0.5,
        borders=tuple(borders),
        stagger=Fraction(chance.randint(1, 4), 5),
        half_blocks=chance.random() < 0.5,
    )


def area_of(q: QuiltSizes) -> float:
    """All that the top is made of, each part by its own finished size."""
    total = float(q.choices.block_width) * float(q.choices.block_height) * q.blocks
    for p in q.pieces:
        wide, high = float(p.finished_width), float(p.finished_height)
        if p.joined or p.apart:
            continue
        if p.cut_into > 1:
            one = wide**2 / 4 if p.cut_into == 4 else wide**2 / 2
        else:
            # A mitred strip is its outer length less one width, on average.
            one = wide * (high - wide) if p.mitred else wide * high
        total += one * (p.needed or p.count)
    return total + sum(float(p.width) * float(p.height) * p.count for p in q.parts)


class AreasTest(TestCase):
    def test_of_three_hundred_quilts_by_chance(self) -> None:
        chance, tried, pieced = random.Random(16), 0, 0
        while tried < 300:
            choices = by_chance(chance)
            try:
                q = quilt_sizes(choices)
            except QuiltImpossible:
                continue
            tried += 1
            whole = float(q.width) * float(q.height)
            self.assertAlmostEqual(area_of(q), whole, delta=1e-6 * whole, msg=str(choices))
            for part in q.parts:
                pieced += part.pattern is not None
                if part.pattern is not None:
                    cells = layout_of(part.pattern.complete()).cells
                    each = float(part.width / part.pattern.width) ** 2
                    covered = sum(float(c.width * c.height) for c in cells) * each
                    self.assertAlmostEqual(covered, float(part.width) * float(part.height), places=6)
            for r in q.rounds:
                if r.row:
                    for gap in (r.row.beside, r.row.above):
                        self.assertTrue(gap == ZERO or gap >= inches("1/2"))
            # Each step measures no less than the one before, and the last one the whole top.
            steps = quilt_steps(q)
            if steps:
                self.assertEqual((steps[-1].width, steps[-1].height), (q.unfinished_width, q.unfinished_height))
            self.assertGreater(float(quilt_join_length(q)), 0 if q.rounds else -1e-9)
        self.assertGreater(pieced, 150)


class FittingTest(TestCase):
    """By hand."""

    def test_a_row_that_fits(self) -> None:
        row = fitted_row(PiecedRow((HALF_SQUARE,)), inches(3), inches(36), inches(48), inches("1/8"), "c")
        self.assertEqual((row.across, row.down, row.beside, row.above, row.notes), (12, 16, ZERO, ZERO, ()))

    def test_a_strip_makes_up_for_the_rest(self) -> None:
        """Thirteen of 3 in. reach 39; 37 lie inside, so 1 in. shows on either side. Round 38 thirteen leave 1/2."""
        row = fitted_row(PiecedRow((HALF_SQUARE,)), inches(3), inches(37), inches(38), inches("1/8"), "c")
        self.assertEqual((row.across, row.down, row.beside, row.above), (13, 13, inches(1), inches("1/2")))

    def test_a_strip_too_narrow_to_sew_takes_one_unit_more(self) -> None:
        """Thirteen over 38 1/4 would leave 3/8 on either side."""
        row = fitted_row(PiecedRow((HALF_SQUARE,)), inches(3), inches("153/4"), inches(36), inches("1/8"), "c")
        self.assertEqual((row.across, row.beside), (14, inches("15/8")))

    def test_from_the_middle_outward_the_number_is_even(self) -> None:
        row = fitted_row(
            PiecedRow((HALF_SQUARE,), runs=Runs.MIRRORED), inches(3), inches(39), inches(36), inches("1/8"), "c"
        )
        self.assertEqual((row.across, row.beside, row.down), (14, inches("3/2"), 12))

    def test_geese_by_how_they_lie(self) -> None:
        """A goose 4 wide is 2 high: base along the edge it takes 4, pointing along it takes half of its depth."""
        for turn, pitch in ((0, inches(8)), (1, inches(2))):
            row = fitted_row(
                PiecedRow((GOOSE,), Orientation(turn)), inches(4), inches(40), inches(48), inches("1/8"), "c"
            )
            self.assertEqual(row.pitch, pitch)

    def test_adapted_to_the_nearest_mark(self) -> None:
        """Into 33 3/4 and 45 go 2 1/4 (15 and 20) and 1 7/8 (18 and 24): to 2 the second is nearer by a quarter of an eighth."""
        row = fitted_row(
            PiecedRow((SQUARE,), fit=RowFit.ADAPT), inches(2), inches("135/4"), inches(45), inches("1/8"), "c"
        )
        self.assertEqual((row.depth, row.across, row.down, row.beside), (inches("15/8"), 18, 24, ZERO))

    def test_adapted_larger_or_from_far(self) -> None:
        """The same sides: to 2 1/8 the nearer is 2 1/4; from 2 3/4 it is still the nearest within a third."""
        for depth in ("17/8", "11/4"):
            row = fitted_row(
                PiecedRow((SQUARE,), fit=RowFit.ADAPT), inches(depth), inches("135/4"), inches(45), inches("1/8"), "c"
            )
            self.assertEqual((row.depth, row.across, row.down), (inches("9/4"), 15, 20))

    def test_no_size_goes_in_so_a_strip_does(self) -> None:
        row = fitted_row(
            PiecedRow((SQUARE,), fit=RowFit.ADAPT), inches(2), inches("289/8"), inches(37), inches("1/8"), "c"
        )
        self.assertEqual(row.depth, inches(2))
        self.assertGreater(row.beside, ZERO)
        self.assertEqual(len(row.notes), 2)

    def test_what_cannot_be(self) -> None:
        for row, depth, width, field in (
            (PiecedRow((HALF_SQUARE,)), "1/4", "40", "width"),
            (PiecedRow((HALF_SQUARE,)), "31", "40", "width"),
            (PiecedRow((HALF_SQUARE, GOOSE)), "2", "40", "pieced"),
            (PiecedRow((HALF_SQUARE,), corner=GOOSE), "2", "40", "corner"),
            (PiecedRow((HALF_SQUARE,)), "1/2", "60", "width"),
        ):
            with self.assertRaises(QuiltImpossible) as refused:
                fitted_row(row, inches(depth), inches(width), inches(20), inches("1/8"), "c")
            self.assertEqual(refused.exception.field, field)


class Look:
    """A picture to look at: which fabric is on top at a point, y downward from the upper edge."""

    def __init__(self, drawing: Drawing) -> None:
        marks = [m for m in drawing.all_marks if m.closed and m.fabric]
        self.fabrics = [m.fabric for m in marks]
        self.tree = STRtree([Polygon(m.points) for m in marks])
        self.left, self.top, _, _ = drawing.window

    def at(self, x: float, y: float) -> str:
        found = self.tree.query(Point(self.left + x, self.top + y), predicate="within")
        return self.fabrics[max(found)]


class CornersTest(TestCase):
    """The picture against what the eye expects: it falls on itself when it is turned, or seen in a mirror."""

    def rim(self, runs: Runs, units: tuple[Content, ...], turn: int) -> tuple[Look, float]:
        row = PiecedRow(units, Orientation(turn), runs=runs, corner=HALF_SQUARE)
        q = bordered("24", "24", "3", row)
        at = Laid(layout_of(Pattern("Plain", (Fraction(1),), (Fraction(1),), ())))
        return Look(quilt_picture(q, [at])), float(q.width)

    def points(self, side: float) -> list[tuple[float, float]]:
        return [
            (x, d) for n in range(int(side / 0.93)) for d in (0.613, 1.729, 2.4571) if (x := 0.3707 + 0.9311 * n) < side
        ]

    def test_one_way_round_it_turns_with_the_quilt(self) -> None:
        for units in ((HALF_SQUARE,), (GOOSE,), (SQUARE, OTHER)):
            for turn in range(4):
                look, side = self.rim(Runs.ROUND, units, turn)
                for x, y in self.points(side):
                    here = look.at(x, y)
                    self.assertIn(here, "abc")
                    # A quarter to the right: what was at the top lies at the right, then below, then at the left.
                    self.assertEqual(look.at(side - y, x), here, (turn, x, y))
                    self.assertEqual(look.at(side - x, side - y), here, (turn, x, y))
                    self.assertEqual(look.at(y, side - x), here, (turn, x, y))

    def test_from_the_middle_it_is_its_own_mirror_image(self) -> None:
        for units in ((HALF_SQUARE,), (GOOSE,), (SQUARE, OTHER)):
            for turn in range(4):
                look, side = self.rim(Runs.MIRRORED, units, turn)
                for x, y in self.points(side):
                    here = look.at(x, y)
                    self.assertEqual(look.at(side - x, y), here, (turn, x, y))
                    self.assertEqual(look.at(x, side - y), here, (turn, x, y))


class JoinedTest(TestCase):
    """Whoever follows the steps gets strips, samplers and arrangements of the size they should have; the joiner looks."""

    def sewn(self, pattern: Pattern, finished: Length, order: Order = Order.ROWS) -> tuple[float, float]:
        s = inches("1/4")
        steps = join_steps(pattern, order, finished, s, inches("1/8"))
        left, bottom, right, top = join(steps, pattern, finished, s).extent
        return right - left - 0.5, top - bottom - 0.5

    def measures(self, pattern: Pattern, finished: Length, height: Length) -> None:
        wide, high = self.sewn(pattern, finished)
        self.assertAlmostEqual(wide, float(finished), places=6)
        self.assertAlmostEqual(high, float(height), places=6)

    def test_strips_of_borders(self) -> None:
        for units, turn in (((HALF_SQUARE,), 0), ((GOOSE,), 1), ((SQUARE, OTHER), 0)):
            for runs in Runs:
                q = bordered("20", "26", "2", PiecedRow(units, Orientation(turn), runs=runs))
                for part in q.parts:
                    assert part.pattern is not None
                    self.measures(part.pattern, part.width, part.height)

    def test_quilts_as_set_and_samplers(self) -> None:
        block = library_pattern("lantern")
        held = BlockPlacement("lantern", block)
        for choices in (
            QuiltChoices(3, 2, inches(6), inches(6), sash=inches("3/2"), cornerstones=True, sash_round=True),
            QuiltChoices(3, 2, inches(6), inches(6), sash=inches(1)),
            QuiltChoices(3, 2, inches(6), inches(6), Setting.STAGGERED, stagger=Fraction(1, 3)),
        ):
            lying = [(held, Orientation())] * len(block_spots(choices))
            q = quilt_sizes(choices)
            pattern = as_set(choices, lying, "Centre").complete()
            self.assertEqual((pattern.width, pattern.height), (q.centre_width.rational, q.centre_height.rational))
            order = Order.COLUMNS if choices.setting is Setting.STAGGERED else Order.ROWS
            wide, high = self.sewn(pattern, q.centre_width, order)
            self.assertAlmostEqual((wide, high), (float(q.centre_width), float(q.centre_height)), places=6)

    def assertAlmostEqual(self, first: object, second: object, **more: object) -> None:  # type: ignore[override] # noqa: N802
        if isinstance(first, tuple) and isinstance(second, tuple):
            for a, b in zip(first, second, strict=True):
                super().assertAlmostEqual(a, b, **more)  # type: ignore[call-overload]
        else:
            super().assertAlmostEqual(first, second, **more)  # type: ignore[call-overload]

    def test_samplers_by_chance_are_whole_and_can_be_sewn(self) -> None:
        chance = random.Random(3)
        block = library_pattern("pinwheel")
        for _ in range(10):
            sizes = [Length.of(Fraction(chance.randint(8, 48), 2)) / 2 for _ in range(chance.randint(1, 14))]
            width = max(sizes) + Length.of(chance.randint(0, 30))
            gap = chance.choice([ZERO, inches(1), inches("3/2")])
            blocks = [Sampled(BlockPlacement("pinwheel", block), s, s) for s in sizes]
            pattern = sampler(blocks, width, gap, "c", inches("1/8"), "Sampler").complete()
            self.assertEqual(pattern.width, width.rational)
            held = [p for p in pattern.places if isinstance(p.content, BlockPlacement)]
            self.assertEqual(sorted(pattern.box(p)[2] for p in held), sorted(s.rational for s in sizes))
            self.assertTrue(all(pattern.box(p)[2] == pattern.box(p)[3] for p in held))
            self.measures(pattern, width, Length.of(pattern.height))

    def test_a_sampler_by_hand(self) -> None:
        """12, 9, 6 on 24 with strips of 1 between: 12 and 9 share 2 in. more than the strip; 6 lies alone, 9 beside it."""
        block = library_pattern("pinwheel")
        blocks = [Sampled(BlockPlacement("pinwheel", block), inches(n), inches(n)) for n in (6, 12, 9)]
        pattern = sampler(blocks, inches(24), inches(1), "c", inches("1/8"), "Sampler")
        boxes = {
            float(pattern.box(p)[2]): [float(v) for v in pattern.box(p)]
            for p in pattern.places
            if isinstance(p.content, BlockPlacement)
        }
        self.assertEqual(boxes[12.0][:2], [0, 0])
        # Three inches between them: flush on both sides. It is 3 lower than its row: 1 1/2 above and below.
        self.assertEqual(boxes[9.0][:2], [15, 1.5])
        self.assertEqual(boxes[6.0][:2], [9, 13])
        self.assertEqual(pattern.height, 19)

    def test_every_row_ends_flush(self) -> None:
        """Three of 6 on 19 3/8 leave 1 3/8: 5/8 before the second, and what the steps leave over before the third."""
        held = BlockPlacement("pinwheel", library_pattern("pinwheel"))
        pattern = sampler([Sampled(held, inches(6), inches(6))] * 3, inches("155/8"), ZERO, "c", inches("1/8"), "S")
        lefts = [pattern.box(p)[0] for p in pattern.places if isinstance(p.content, BlockPlacement)]
        self.assertEqual(lefts, [0, Fraction(53, 8), Fraction(107, 8)])

    def test_samplers_that_cannot_be(self) -> None:
        one = Sampled(BlockPlacement("pinwheel", library_pattern("pinwheel")), inches(12), inches(12))
        for blocks, width, gap, field in (
            ([], "40", "1", "blocks"),
            ([one] * 2000, "40", "1", "blocks"),
            ([one], "11", "1", "width"),
            ([one], "40", "1/8", "gap"),
        ):
            with self.assertRaises(QuiltImpossible) as refused:
                sampler(blocks, inches(width), inches(gap), "c", inches("1/8"), "S")
            self.assertEqual(refused.exception.field, field)

    def test_parts_of_a_block_are_the_block_again(self) -> None:
        """What lies at the head and what lies at the foot are one block, cut where it has a seam or is plain."""
        block = library_pattern("lantern")
        low, high = (
            cropped(block, *share, "part")
            for share in ((Fraction(2, 3), Fraction(1, 3)), (Fraction(0), Fraction(2, 3)))
        )
        self.assertEqual(low.height + high.height, block.height)
        whole = sorted((c.left, c.top, c.unit.kind) for c in layout_of(block).cells)
        parts = [(c.left, c.top, c.unit.kind) for c in layout_of(high).cells]
        parts += [(c.left, c.top + high.height, c.unit.kind) for c in layout_of(low).cells]
        self.assertEqual(sorted(parts), whole)
        with self.assertRaises(PiecingError):
            cropped(block, Fraction(0), Fraction(1, 2), "part")

    def test_a_cut_through_plain_cloth(self) -> None:
        """Nine squares cut through their middle row: half squares of it beside whole ones, no hole, in both parts."""
        nine = library_pattern("nine_patch")
        for top in (Fraction(0), Fraction(1, 2)):
            part = cropped(nine, top, Fraction(1, 2), "part").complete()
            self.assertEqual((part.width, part.height, len(part.places)), (3, Fraction(3, 2), 6))


class BackTest(TestCase):
    def test_one_length_and_a_strip(self) -> None:
        """Quilt 44 by 60, 4 over: 52 by 68. Of 40 usable 12 are short, and two seams take 2: a strip cut 14, from two lengths."""
        q = quilt_sizes(QuiltChoices(1, 1, inches(44), inches(60), backing_way=BackingWay.STRIP))
        best = q.backing[0]
        self.assertEqual((best.strip, best.strip_lengths, best.panel_length), (inches(14), 2, inches(68)))
        self.assertEqual(best.length, inches(68 + 28))
        # Laid out: two parts of the length and the strip, less a half inch at each raw edge of both seams.
        self.assertEqual(inches(40) + best.strip - inches("1/2") * 4, inches(52))
        others = {b.along for b in q.backing[1:]}
        self.assertEqual(others, {True, False})

    def test_the_way_chosen_comes_first_and_none_is_proposed_that_cannot_be(self) -> None:
        for way, along in ((BackingWay.ALONG, True), (BackingWay.ACROSS, False)):
            q = quilt_sizes(QuiltChoices(1, 1, inches(44), inches(60), backing_way=way))
            self.assertEqual((q.backing[0].along, q.backing[0].strip), (along, ZERO))
        narrow = quilt_sizes(QuiltChoices(1, 1, inches(31), inches(60)))
        self.assertEqual({b.strip for b in narrow.backing}, {ZERO})

    def test_a_hanging_sleeve(self) -> None:
        """Four deep: a tube of twice that and two seams, as long as the quilt is wide; no part of the top."""
        q = quilt_sizes(QuiltChoices(1, 1, inches(44), inches(60), sleeve=inches(4)))
        sleeve = next(p for p in q.pieces if p.name == "hanging sleeve")
        self.assertEqual((sleeve.cut_width, sleeve.cut_height, sleeve.count), (inches("17/2"), inches(44), 1))
        self.assertEqual(float(quilt_join_length(q)), 0)


class EdgesTest(TestCase):
    """Places merged and split by their edges."""

    def setUp(self) -> None:
        whole = (Fraction(1),) * 3
        self.all = [(c, r) for r in range(3) for c in range(3)]
        self.pattern = editing.placed(Pattern("Nine", whole, whole), self.all, UnitPlacement("rectangle", ("a",)))

    def test_larger_it_takes_what_lies_under_it(self) -> None:
        made = editing.stretched(self.pattern, (0, 0), 3, 2)
        self.assertEqual(next((p.column, p.row, p.across, p.down) for p in made.places), (0, 0, 3, 2))
        self.assertEqual((len(made.places), made.empty), (4, ()))

    def test_smaller_it_leaves_plain_cloth_behind_and_no_hole(self) -> None:
        made = editing.stretched(editing.stretched(self.pattern, (0, 0), 3, 3), (0, 0), 1, 2)
        first = made.at(0, 0)
        assert first is not None
        self.assertEqual((first.down, made.empty), (2, ()))
        self.assertEqual(len(made.places), 1 + 7)

    def test_a_pieced_unit_leaves_its_place_empty(self) -> None:
        four = editing.placed(editing.cleared(self.pattern, self.all), [(0, 0)], HALF_SQUARE)
        large = editing.stretched(four, (0, 0), 2, 2)
        self.assertEqual(len(editing.stretched(large, (0, 0), 1, 1).empty), 8)

    def test_nothing_is_cut_through(self) -> None:
        made = editing.stretched(self.pattern, (1, 0), 1, 3)
        for across, down in ((2, 1), (3, 2), (9, 1)):
            with self.assertRaises(PiecingError):
                editing.stretched(made, (0, 0), across, down)
        with self.assertRaises(PiecingError):
            editing.stretched(editing.cleared(made, [(0, 0)]), (0, 0), 1, 1)


class ManyTest(TestCase):
    def test_a_block_of_many_blocks_is_drawn_as_if_each_were_drawn_for_itself(self) -> None:
        """Twelve blocks, turned and mirrored, beside strips: every patch lies where drawing them one by one lays it."""
        inner = library_pattern("gulls")
        boxes = [
            Box(
                Fraction(3 * x),
                Fraction(3 * y),
                Fraction(2),
                Fraction(2),
                BlockPlacement("gulls", inner),
                Orientation(x, y == 1),
            )
            for x in range(4)
            for y in range(3)
        ]
        # Strips of one cloth and one width, and of two lengths.
        boxes += [plain_box(Fraction(3 * x + 2), Fraction(0), Fraction(1), Fraction(5), "c") for x in range(3)]
        boxes += [plain_box(Fraction(3 * x + 2), Fraction(5), Fraction(1), Fraction(3), "c") for x in range(3)]
        boxes += [
            plain_box(Fraction(3 * x), Fraction(3 * y + 2), Fraction(2), Fraction(1), "d")
            for x in range(4)
            for y in range(2)
        ]
        layout = layout_of(pattern_of("Many", boxes).complete())
        whole = Sketch()
        draw_block(whole, layout, inches(33))
        one_by_one = whole.to_drawing((0.0, 0.0, 33.0, 24.0), Message("all"))

        def patches(drawing: Drawing) -> list[tuple[object, ...]]:
            return sorted(
                (m.fabric, *sorted((round(x, 6), round(y, 6)) for x, y in m.points)) for m in drawing.all_marks
            )

        picture = block_picture(layout, inches(33))
        self.assertEqual(patches(picture), patches(one_by_one))
        self.assertLess(len(picture.marks) + sum(len(s.marks) for s in picture.stamps), len(one_by_one.marks))

    def test_more_units_than_are_judged_at_once(self) -> None:
        whole = (Fraction(1),) * 51
        unit = UnitPlacement("plain_square", ("a",))
        many = Pattern("Many", whole, whole, tuple(Place(c, r, unit) for r in range(51) for c in range(51)))
        with self.assertRaisesRegex(PiecingError, "2,601"):
            block_geometry(layout_of(many), inches(51))


class SashedTest(TestCase):
    """Blocks of 6, three across and two down, with sashes of several strips; every length added up by hand."""

    THREE = (SashStrip(inches("1/2"), "c"), SashStrip(inches(1), "a"), SashStrip(inches("1/2"), "c"))
    TWO = (SashStrip(inches(1), "a"), SashStrip(inches("3/2"), "b"))

    def laid(
        self,
        across: tuple[SashStrip, ...],
        down: tuple[SashStrip, ...],
        crossing: StripCrossing = StripCrossing.CHEQUERED,
        *,
        outside: bool = False,
    ) -> Pattern:
        held = BlockPlacement("pinwheel", library_pattern("pinwheel"))
        choices = QuiltChoices(3, 2, inches(6), inches(6), sash_round=outside)
        lying = [(held, Orientation())] * 6
        return sashed_pattern(choices, lying, across, down, crossing, "d", "Centre").complete()

    def plain(self, pattern: Pattern) -> Counter[tuple[float, float, str]]:
        return Counter(
            (float(pattern.box(p)[2]), float(pattern.box(p)[3]), p.content.part_fabrics[0])
            for p in pattern.places
            if isinstance(p.content, UnitPlacement)
        )

    def test_three_and_three_cross_in_a_nine_patch(self) -> None:
        pattern = self.laid(self.THREE, self.THREE)
        self.assertEqual((pattern.width, pattern.height), (22, 14))
        # Two sashes beside the blocks of each of two rows, one sash above each of three columns; two crossings.
        self.assertEqual(
            self.plain(pattern),
            {
                (0.5, 6.0, "c"): 8, (1.0, 6.0, "a"): 4, (6.0, 0.5, "c"): 6, (6.0, 1.0, "a"): 3,
                (0.5, 0.5, "a"): 8, (1.0, 1.0, "a"): 2, (0.5, 1.0, "c"): 4, (1.0, 0.5, "c"): 4,
            },
        )  # fmt: skip

    def test_outside_the_outer_blocks_too(self) -> None:
        pattern = self.laid(self.THREE, self.THREE, outside=True)
        self.assertEqual((pattern.width, pattern.height), (26, 18))
        self.assertEqual(self.plain(pattern)[1.0, 1.0, "a"], 4 * 3)

    def test_one_piece_where_they_cross(self) -> None:
        found = self.plain(self.laid(self.THREE, self.TWO, StripCrossing.PLAIN))
        self.assertEqual(found[2.0, 2.5, "d"], 2)
        self.assertEqual(found[6.0, 1.5, "b"], 3)

    def test_strips_between_rows_run_through(self) -> None:
        found = self.plain(self.laid(self.THREE, self.TWO, StripCrossing.RUN))
        self.assertEqual({k: n for k, n in found.items() if k[0] > 6}, {(22.0, 1.0, "a"): 1, (22.0, 1.5, "b"): 1})

    def test_strips_one_way_only_are_as_long_as_the_quilt(self) -> None:
        columns = self.laid(self.TWO, ())
        self.assertEqual((columns.width, columns.height), (23, 12))
        self.assertEqual(self.plain(columns), {(1.0, 12.0, "a"): 2, (1.5, 12.0, "b"): 2})
        rows = self.laid((), self.TWO)
        self.assertEqual((rows.width, rows.height), (18, 14.5))
        self.assertEqual(self.plain(rows), {(18.0, 1.0, "a"): 1, (18.0, 1.5, "b"): 1})

    def test_of_one_strip_the_cornerstone_has_its_own_fabric(self) -> None:
        one = (SashStrip(inches(1), "a"),)
        self.assertEqual(self.plain(self.laid(one, one))[1.0, 1.0, "d"], 2)

    def test_they_lie_in_the_order_given(self) -> None:
        """From left to right and from top to bottom: 1 in. of a, then 1 1/2 of b."""
        pattern = self.laid(self.TWO, self.TWO, StripCrossing.RUN)
        at = {
            (float(pattern.box(p)[0]), p.content.part_fabrics[0])
            for p in pattern.places
            if isinstance(p.content, UnitPlacement) and pattern.box(p)[3] == 6
        }
        self.assertEqual(at, {(6.0, "a"), (7.0, "b"), (14.5, "a"), (15.5, "b")})

    def test_all_of_them_can_be_sewn(self) -> None:
        s = inches("1/4")
        for across, down in ((self.THREE, self.THREE), (self.TWO, ()), ((), self.THREE), (self.TWO, self.THREE)):
            for crossing in StripCrossing:
                pattern = self.laid(across, down, crossing, outside=bool(across and down))
                wide, high = Length.of(pattern.width), Length.of(pattern.height)
                left, bottom, right, top = join(
                    join_steps(pattern, Order.ROWS, wide, s, inches("1/8")), pattern, wide, s
                ).extent
                self.assertAlmostEqual(right - left - 0.5, float(wide), places=6)
                self.assertAlmostEqual(top - bottom - 0.5, float(high), places=6)

    def test_strips_that_cannot_be(self) -> None:
        thin = (SashStrip(inches("1/8"), "a"),)
        for across, down, field in (((), (), "across"), (thin, (), "across"), (self.TWO, self.TWO * 3, "down")):
            with self.assertRaises(QuiltImpossible) as refused:
                self.laid(across, down)
            self.assertEqual(refused.exception.field, field)
        with self.assertRaises(QuiltImpossible) as refused:
            sashed_pattern(
                QuiltChoices(30, 30, inches(6), inches(6)), [], self.TWO, (), StripCrossing.RUN, "d", "Centre"
            )
        self.assertEqual(refused.exception.field, "columns")
