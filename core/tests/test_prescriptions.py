"""Every figure that cloth is cut, sewn or bought by, held by a figure worked out another way: by hand in the test, on paper with
shapely, or by drawing lots. Nothing here is computed with the formula that it checks."""

from __future__ import annotations

import itertools
from dataclasses import replace
from math import ceil, sqrt
from unittest import TestCase

import numpy as np
from shapely.geometry import Polygon, box

from piecing.blocks.library import library_pattern
from piecing.blocks.pattern import layout_of
from piecing.blocks.sizing import block_size
from piecing.cutting.buying import Shop, purchases
from piecing.cutting.stock import WantedPiece
from piecing.diagnosis.causes import Cause, Parameter, parameters_of
from piecing.diagnosis.equations import HAND_NOISE, STRIP_SCATTER, equation_of
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import changes_for_the_rest, of_whole
from piecing.diagnosis.remedies.remedy import Remedy, Work
from piecing.diagnosis.verdict import Status, judge
from piecing.errors import ClothImpossible, CutTooSmall, PiecingError, QuiltImpossible
from piecing.joining.order import Order, orders, steps
from piecing.joining.thread import block_join_length, run_said, thread_needed
from piecing.lengths import ZERO, Length, Measure, Style, inches, mm
from piecing.planning import Choices, School, plan
from piecing.planning.holdings import Holding, units_from
from piecing.quilts.choices import Border, Corners, QuiltChoices, Setting
from piecing.quilts.fitting import fitted_to_number, fitted_to_size
from piecing.quilts.sizes import QuiltSizes, quilt_sizes
from piecing.trimming import margin_read, recipes
from piecing.units import METHODS, kind_of, method_for
from piecing.units.method import Cuts

from .blocks import grid
from .samples import sample
from .trials import FOUR_BY_FOUR, STAR, read

QUARTER, EIGHTH = inches("1/4"), inches("1/8")
SQUARES = {"A": {"kind": "plain_square", "fabrics": "a"}}


def quilt(**choices: object) -> QuiltSizes:
    start: dict[str, object] = {"columns": 3, "rows": 4, "block_width": inches(10), "block_height": inches(10)}
    return quilt_sizes(QuiltChoices(**{**start, **choices}))  # type: ignore[arg-type]


def piece(q: QuiltSizes, name: str) -> tuple[str, str, int]:
    found = next(p for p in q.pieces if p.name.startswith(name))
    return found.cut_width.exact, found.cut_height.exact, found.count


class QuiltTest(TestCase):
    def test_what_is_not_trimmed_is_cut_to_the_mark_and_finishes_as_asked_for(self) -> None:
        """Sashing of 50 mm with allowances of 6 is cut 62 wide, on a ruler stepped in fives too; 1 5/8 with quarters is 2 1/8 on one
        stepped in quarters. A long sash, which is trimmed, is a step and half an inch longer at the most."""
        for block, sash, allowance, step, wanted in (
            (mm(300), mm(50), mm(6), mm(5), (mm(62), mm(312))),
            (inches(12), inches("13/8"), inches("1/4"), inches("1/4"), (inches("17/8"), inches("25/2"))),
        ):
            q = quilt(
                columns=3,
                rows=3,
                block_width=block,
                block_height=block,
                sash=sash,
                seam_allowance=allowance,
                ruler_step=step,
            )
            beside = next(p for p in q.pieces if p.name == "sashing beside blocks")
            self.assertEqual((beside.cut_width, beside.cut_height), wanted)
            between = next(p for p in q.pieces if p.name == "sashing between rows")
            self.assertEqual(between.cut_width, wanted[0])
            exact = block * 3 + sash * 2 + allowance * 2
            self.assertTrue(exact < between.cut_height <= exact + inches("1/2") + step)

    def test_rows_and_columns_make_just_so_many_or_come_nearest_to_a_size(self) -> None:
        by_hand = {
            1: (1, 1),
            2: (2, 1),
            4: (2, 2),
            5: (5, 1),
            6: (2, 3),
            9: (3, 3),
            12: (3, 4),
            20: (4, 5),
            25: (5, 5),
            59: (59, 1),
        }
        self.assertEqual({n: fitted_to_number(n) for n in by_hand}, by_hand)
        for n in (0, 61, 122):
            with self.assertRaises(QuiltImpossible):
                fitted_to_number(n)
        # Of 10 with sashing of 2: n blocks are 12 n - 2 wide. 60 lies between 58 (five) and 70 (six), nearer to five.
        self.assertEqual(fitted_to_size(inches(60), inches(65), inches(10), inches(2)), (5, 6))
        # A border of 4 all round takes 8 of it.
        self.assertEqual(fitted_to_size(inches(60), inches(65), inches(10), inches(2), inches(4)), (4, 5))
        self.assertEqual(fitted_to_size(inches(3), inches(3), inches(10)), (1, 1))
        with self.assertRaises(QuiltImpossible):
            fitted_to_size(inches(700), inches(10), inches(10))

    def test_binding_strips_lose_their_width_at_each_join_and_a_foot_at_the_end(self) -> None:
        """30 by 40: round 140, with a foot 152. One strip gives 40, each further one 37 1/2: 40, 77 1/2, 115, 152 1/2."""
        q = quilt(binding_strip=inches("5/2"))
        self.assertEqual((q.binding.round_about, q.binding.length), (inches(140), inches(152)))
        self.assertEqual(q.binding.strips, 4)
        # At 3 in. a strip gives 37: 40, 77, 114, 151, and 151 is short by one.
        self.assertEqual(quilt(binding_strip=inches(3)).binding.strips, 5)

    def test_binding_laid_out_on_paper_reaches_round(self) -> None:
        """Strips as parallelograms joined on the diagonal: their length along the middle, by shapely areas."""
        for strip, columns, rows in ((2.5, 3, 4), (2.25, 5, 7), (3.0, 2, 2), (2.5, 8, 9)):
            q = quilt(columns=columns, rows=rows, binding_strip=inches(str(strip)))
            whole = Polygon([(0, 0), (40, 0), (40, strip), (0, strip)])
            corner = Polygon([(0, 0), (strip, 0), (0, strip)])
            # Joined at a right angle, each join cuts a triangle off the end of either strip.
            n = q.binding.strips
            reach = (whole.area * n - 2 * corner.area * (n - 1)) / strip
            one_fewer = (whole.area * (n - 1) - 2 * corner.area * (n - 2)) / strip
            need = 20 * (columns + rows) + 12
            self.assertGreaterEqual(reach + 1e-9, need)
            self.assertLess(one_fewer, need)

    def test_backing_panels_lose_half_an_inch_on_both_sides_of_each_seam(self) -> None:
        """Cloth 40 wide: two panels reach 79, three 118. A quilt 71 wide with 4 over needs 79, one of 72 needs 80."""
        for width, panels in ((71, 2), (72, 3)):
            q = quilt(columns=1, rows=1, block_width=inches(width), block_height=inches(90), backing_over=inches(4))
            along = next(b for b in q.backing if b.along)
            self.assertEqual(along.panels, panels)
            self.assertEqual(along.length, inches(98) * panels)
            self.assertEqual((along.width, along.height), (inches(width + 8), inches(98)))

    def test_the_backing_of_least_cloth_is_first(self) -> None:
        q = quilt(columns=1, rows=1, block_width=inches(60), block_height=inches(66), backing_over=ZERO)
        # Along: two panels of 66 are 132. Across: two panels of 60 are 120.
        self.assertEqual([(b.along, b.length) for b in q.backing[:2]], [(False, inches(120)), (True, inches(132))])

    def test_setting_triangles_by_the_published_additions(self) -> None:
        """Side squares are the block's diagonal and 1 1/4, corner squares half of it and 7/8, up to the ruler's mark; cut at
        that, a triangle on paper holds its finished self with a quarter inch all round."""
        for block in (6, 8, 9, 10, 12):
            q = quilt(block_width=inches(block), block_height=inches(block), setting=Setting.ON_POINT, oversize=ZERO)
            side, corner = (
                float(next(p for p in q.pieces if p.name.startswith(n)).cut_width) for n in ("side", "corner")
            )
            self.assertEqual(side, ceil((block * sqrt(2) + 1.2072) * 8) / 8)
            self.assertEqual(corner, ceil((block / sqrt(2) + 0.8536) * 8) / 8)
            for cut, pieces, long_edge in ((side, 4, block * sqrt(2)), (corner, 2, block)):
                square = box(0, 0, cut, cut)
                triangle = (
                    Polygon([(0, 0), (cut, 0), (cut / 2, cut / 2)])
                    if pieces == 4
                    else Polygon([(0, 0), (cut, 0), (0, cut)])
                )
                self.assertAlmostEqual(square.area / triangle.area, pieces)
                left, _, right, _ = triangle.buffer(-0.25, join_style="mitre").bounds
                held = right - left if pieces == 4 else (right - left) * sqrt(2)
                self.assertGreaterEqual(held + 1e-3, long_edge)

    def test_setting_triangles_are_enough(self) -> None:
        """Three by four on point: two places along each short side, three along each long one, ten in all; a square gives four."""
        q = quilt(setting=Setting.ON_POINT)
        side = next(p for p in q.pieces if p.name.startswith("side"))
        self.assertEqual((side.needed, side.count, side.left_over), (10, 3, 2))

    def test_borders_and_sashing_cut_with_an_allowance_on_every_edge(self) -> None:
        q = quilt(
            sash=inches("3/2"),
            borders=(Border(inches(2), "b", Corners.OVERLAPPED), Border(inches(3), "c", Corners.SQUARE, "d")),
            oversize=ZERO,
        )
        # Centre: 3 x 10 + 2 x 1 1/2 by 4 x 10 + 3 x 1 1/2, so 33 by 44 1/2.
        self.assertEqual((q.centre_width, q.centre_height), (inches(33), inches("89/2")))
        self.assertEqual(piece(q, "sashing beside"), ("2", "21/2", 8))
        self.assertEqual(piece(q, "sashing between"), ("2", "67/2", 3))
        self.assertEqual(piece(q, "border 1, sides"), ("5/2", "45", 2))
        self.assertEqual(piece(q, "border 1, top"), ("5/2", "75/2", 2))
        self.assertEqual(piece(q, "border 2, sides"), ("7/2", "49", 2))
        self.assertEqual(piece(q, "border 2, top"), ("7/2", "75/2", 2))
        self.assertEqual(piece(q, "border 2, corner"), ("7/2", "7/2", 4))
        self.assertEqual((q.width, q.height), (inches(43), inches("109/2")))


class ShopTest(TestCase):
    def one(self, height: str, count: int = 1, width: str = "30", **shop: object) -> Length:
        pieces = [WantedPiece("A", "a", inches(width), inches(height), count, turns=False)]
        (bought,) = purchases(pieces, Shop(**shop), 1.0)  # type: ignore[arg-type]
        return bought.buy

    def test_cloth_that_shrinks_by_a_tenth_is_bought_a_ninth_longer(self) -> None:
        """40 3/4 of cloth that keeps nine tenths: 45.28, past the mark at 45; a tenth on top would be 44.8."""
        from fractions import Fraction

        bought = self.one("163/4", shrinkage=Fraction(1, 10), wrong_cuts=0)
        self.assertEqual(bought, inches("99/2"))
        self.assertGreaterEqual(float(bought) * 0.9, 40.75)

    def test_a_strip_cut_wrong_is_allowed_for(self) -> None:
        """Two strips of 10: 20, with one more 30; an eighth of a yard is 4 1/2, so 31 1/2 without shrinking."""
        from fractions import Fraction

        self.assertEqual(self.one("10", 2, shrinkage=Fraction(0), wrong_cuts=1), inches("63/2"))
        self.assertEqual(self.one("10", 2, shrinkage=Fraction(0), wrong_cuts=0), inches("45/2"))

    def test_a_border_cut_wrong_is_joined_from_strips_across(self) -> None:
        """Two borders of 4 1/2 by 41 1/2 and four squares of 5 lie side by side: 41 1/2. A strip of 5 makes any of them good: 46 1/2,
        and the next eighth of a yard is 49 1/2. A border that must lie along the cloth takes its length once more: 83, so 85 1/2."""
        from fractions import Fraction

        squares = WantedPiece("B", "a", inches(5), inches(5), 4)
        shop = Shop(shrinkage=Fraction(0))
        for along, turns, buy in ((False, True, "99/2"), (True, True, "171/2"), (False, False, "171/2")):
            border = WantedPiece("A", "a", inches("9/2"), inches("83/2"), 2, turns=turns, along_cloth=along)
            with self.subTest(along=along, turns=turns):
                (bought,) = purchases([border, squares], shop, 1.0)
                self.assertEqual((bought.bare, bought.buy), (inches("83/2"), inches(buy)))

    def test_a_piece_that_may_not_turn_is_refused_where_it_is_wider_than_cloth(self) -> None:
        wide = [WantedPiece("A", "a", inches(41), inches(10), 1, turns=False)]
        with self.assertRaises(ClothImpossible):
            purchases(wide, Shop(), 1.0)


class ThreadTest(TestCase):
    def test_a_four_patch_of_four_blocks_by_hand(self) -> None:
        """2 by 2 squares finishing 8: two seams of 4 1/2 and one of 8 1/2, all with their allowances."""
        pattern = grid(["A0 A0", "A0 A0"], SQUARES)
        self.assertAlmostEqual(float(block_join_length(pattern, inches(8), QUARTER)), 4.5 * 2 + 8.5, places=3)

    def test_three_inches_of_thread_an_inch_of_seam_half_of_it_on_the_bobbin(self) -> None:
        found = thread_needed([inches(100), inches("399/2")], inches(200))
        # 299 1/2 of seam is 300; 900 of thread, 450 on bobbins of 200: three, and one over.
        self.assertEqual((found.seam, found.thread, found.bobbins), (inches(300), inches(900), 4))
        self.assertEqual(thread_needed([], inches(200)).bobbins, 0)

    def test_seam_and_thread_are_told_as_thread_is_sold(self) -> None:
        """1594 inches are 44.3 yards, 4782 are 132.8; 40 metres and a bit are 41. Less than two yards stay on the tape."""
        for length, said in (
            (inches(1594), "45 yd"),
            (inches(4782), "133 yd"),
            (inches("143/2"), "72″"),
            (inches(72), "2 yd"),
        ):
            self.assertEqual(str(run_said(length, Measure.INCHES)).replace("\u00a0", " "), said)
        style = Style(Measure.MILLIMETRES)
        for length, said in ((mm(40_010), "41 m"), (mm(1_995), "2000 mm"), (mm(2_000), "2 m")):
            self.assertEqual(run_said(length, Measure.MILLIMETRES).text(style).replace("\u00a0", " "), said)


class UnitTest(TestCase):
    def test_spares_from_flipped_corners_by_shapely(self) -> None:
        """A corner square of 3 1/2, sewn on its diagonal and again half an inch toward the corner, cut between: what the second
        line holds, opened, is a square with its allowances."""
        spec = sample("flying_goose", inches(6))
        p = plan(Choices(spec, "two_flipped_corners", School.EXACT))
        (spare,) = p.spares
        corner = float(p.cuts["corner"])
        self.assertEqual(corner, 3.5)
        square = box(0, 0, corner, corner)
        beyond = sqrt(2) * 0.5
        # The corner at the origin; the first seam runs from (corner, 0) to (0, corner), the second one half an inch nearer.
        held = square.intersection(Polygon([(0, 0), (corner - beyond, 0), (0, corner - beyond)]))
        leg = held.bounds[2]
        self.assertAlmostEqual(float(spare.raw), leg, places=3)
        self.assertEqual(spare.count, 2)

    def test_a_corner_too_small_to_sew_again_leaves_no_spare(self) -> None:
        """Corners of 1, 1 3/8 and 1 1/2 leave 0.29, 0.67 and 0.79 raw: the first two would finish below a quarter inch."""
        for finished, spares in (("1", False), ("7/4", False), ("2", True)):
            spec = sample("flying_goose", inches(finished))
            self.assertEqual(bool(plan(Choices(spec, "two_flipped_corners", School.EXACT)).spares), spares, finished)

    def test_pieces_at_hand_count_the_same_in_whatever_order_they_are_named(self) -> None:
        """Geese finishing 4 by 2 of one fabric: one square of 5 1/4 and four of 2 7/8. From one of 12 and one of 5 1/2 the large
        comes out of the smaller cloth, the four out of the other."""
        geese = plan(Choices(sample("flying_goose", inches(4), "aaa"), "four", School.EXACT))
        self.assertEqual((geese.cuts["large"], geese.cuts["small"]), (inches("21/4"), inches("23/8")))
        big, little = Holding(inches(12), inches(12), 1), Holding(inches("11/2"), inches("11/2"), 1)
        self.assertEqual(units_from(geese, (big, little)), 4)
        self.assertEqual(units_from(geese, (little, big)), 4)

    def test_a_measured_margin_is_half_of_what_is_over(self) -> None:
        p = plan(Choices(sample("half_square_triangle", inches(3)), "pair"))
        read_ = margin_read(p, [inches("15/4"), inches("31/8"), inches("29/8")])
        # 3 3/4 on the mean, trimmed to 3 1/2: an eighth a side.
        self.assertEqual(read_, EIGHTH)
        self.assertIsNone(margin_read(p, []))

    def test_one_square_at_hand_gives_two_triangles_and_no_third(self) -> None:
        """Loose triangles: half of a square of each fabric to a unit."""
        loose = plan(Choices(sample("half_square_triangle", inches(3)), "loose_triangles", School.LITTLE))
        self.assertEqual(units_from(loose, (Holding(inches(5), inches(5), 1),)), 2)
        self.assertEqual(units_from(loose, (Holding(inches(5), inches(5), 3),)), 6)

    def test_rules_of_thumb_as_they_are_taught(self) -> None:
        """Finishing 3: a pair from squares of 4, generously 4 1/2; eight from squares of 8, generously 9."""
        for method, level, size in (("pair", 1, 4), ("pair", 2, "9/2"), ("eight", 1, 8), ("eight", 2, 9)):
            cuts = method_for("half_square_triangle", method).thumb_cuts(
                sample("half_square_triangle", inches(3)), QUARTER, level
            )
            self.assertEqual(cuts["square"], inches(size), (method, level))

    def test_a_pair_trimmed_closed_has_the_legs_it_was_cut_with(self) -> None:
        """Sewn and cut apart, each half still has the legs of the square it came from."""
        p = plan(Choices(sample("half_square_triangle", inches(3)), "pair", School.LITTLE))
        closed = next(r for r in recipes(p, None) if r.code == "closed")
        points = [q for m in closed.steps[0].drawing.marks if m.role == "back" for q in m.points]
        wide = max(x for x, _ in points) - min(x for x, _ in points)
        self.assertAlmostEqual(wide, float(p.cuts["square"]), places=3)

    def test_a_block_that_is_not_square_has_two_allowances_each_way(self) -> None:
        pattern = grid(["A0 A0 A0"], SQUARES)
        size = block_size(layout_of(pattern), inches(9), QUARTER)
        self.assertEqual((size.unfinished, size.unfinished_height), (inches("19/2"), inches("7/2")))


class JoiningTest(TestCase):
    def test_strips_bow_when_they_are_more_than_three_times_as_long_as_wide(self) -> None:
        def bowing(columns: int) -> int:
            pattern = grid([" ".join(["A0"] * columns)] * 2, SQUARES)
            return next(o for o in orders(pattern) if o.order is Order.ROWS).bowing

        self.assertEqual([bowing(3), bowing(4), bowing(6)], [0, 1, 1])

    def test_sizes_after_each_seam_by_hand(self) -> None:
        """Three squares finishing 2 in a row, two rows: 2 1/2 high, 6 1/2 long, then 4 1/2 high."""
        found = steps(layout_of(grid(["A0 A0 A0"] * 2, SQUARES)), Order.ROWS, inches(6), QUARTER)
        self.assertEqual(
            [(s.width, s.height) for s in found],
            [(inches("13/2"), inches("5/2"))] * 2 + [(inches("13/2"), inches("9/2"))],
        )


class RawTest(TestCase):
    def nominal(self, kind: ReadingKind) -> float:
        goose = STAR().batch("flying_goose")
        e = equation_of(Reading(kind, inches(1), batch=goose), STAR().model, inches("1/32"), STAR().raw)
        return e.nominal

    def test_a_raw_goose_is_twice_as_wide_as_high_and_each_is_its_own(self) -> None:
        """Trim a little: loose triangles or four at a time, six by three comes out wider than 6 1/2 and higher than 3 1/2."""
        wide, high = self.nominal(ReadingKind.RAW_WIDTH), self.nominal(ReadingKind.RAW_HEIGHT)
        self.assertGreater(wide, 6.5)
        self.assertLess(wide, 7.5)
        self.assertGreaterEqual(high, 3.5)
        self.assertLess(high, 4.25)

    def test_bias_drawn_out_lengthens_the_diagonal_it_lies_along(self) -> None:
        """The seam of a half-square unit runs from its lower left to its upper right corner, on the bias."""
        scene = FOUR_BY_FOUR()
        batch = scene.batch("half_square_triangle")
        number = parameters_of(scene.model).index(Parameter(Cause.STRETCH, 0))
        along, square = (
            equation_of(Reading(k, inches(1), batch=batch), scene.model, inches("1/32"), scene.raw).of_causes[number]
            for k in (ReadingKind.DIAGONAL_RISING, ReadingKind.DIAGONAL_FALLING)
        )
        self.assertGreater(along, 0.9)
        self.assertLess(abs(square), 0.1)

    def test_a_strip_tests_own_noise_by_drawing_strips(self) -> None:
        """Three strips cut with scatter, the middle one read and then all three: spread of (all - 3 middle)/2, less the seams'."""
        rng = np.random.default_rng(3)
        n = 400_000
        strips = 1.5 + rng.normal(0, STRIP_SCATTER, (n, 3))
        e = rng.normal(0.25, 0.01, (n, 2))
        middle = strips[:, 1] - e.sum(axis=1) + rng.normal(0, HAND_NOISE, n)
        all_three = strips.sum(axis=1) - 2 * e.sum(axis=1) + rng.normal(0, HAND_NOISE, n)
        told = (all_three - 3 * middle) / 2
        self.assertAlmostEqual(float(told.mean()), 0.25, delta=0.001)
        drawn = float(told.var()) - 0.01**2 / 2
        scene = FOUR_BY_FOUR()
        test = Reading(ReadingKind.STRIP_TEST, inches(1), whole=inches("7/2"))
        self.assertAlmostEqual(equation_of(test, scene.model, inches("1/32"), scene.raw).hand / drawn, 1, delta=0.02)


class RemediesTest(TestCase):
    def when_it_cannot_be_cured(self, *lengths: str) -> dict[str, Remedy]:
        """Rows and columns of a block of 12 read so; what is offered where no seam or unit can be put right."""
        row, *others = lengths
        readings = [*read("row", row, feature="row 1, middle"), *read("column", *others, feature="column 1, middle")]
        found = FOUR_BY_FOUR().infer(*readings)
        verdict = replace(judge(found), status=Status.SEVERAL)
        deviations = found.model.deviations(found.block)
        work = Work(found, verdict, {}, (), 1, deviations)
        return {r.code: r for r in of_whole.offers(work, cured=False)}

    def test_a_frame_is_cut_so_that_the_block_is_trimmed_to_its_size(self) -> None:
        """About half an inch short: 12 raw. A strip sewn on takes a quarter off each and adds what is left of its width."""
        frame = self.when_it_cannot_be_cured("12", "12", "12")["frame"]
        strip = float(frame.how.values["strip"])  # type: ignore[arg-type]
        sewn = 12 - 2 * 0.25 + 2 * (strip - 0.25)
        self.assertGreaterEqual(sewn, 12.5 + 0.25, "a quarter to trim, all round")
        self.assertLess(sewn, 12.5 + 1)

    def test_the_set_is_brought_down_to_the_smallest_edge_on_the_mark_below(self) -> None:
        """The smallest edge reads 11 63/64: 11 31/32 is the mark that all of it reaches."""
        down = self.when_it_cannot_be_cured("12", "767/64", "12")["bring_down"]
        self.assertEqual(down.how.values["size"], inches("383/32"))
        self.assertEqual(down.how.values["finished"], inches("383/32") - inches("1/2"))

    def test_from_nine_thirty_seconds_back_to_a_quarter(self) -> None:
        readings = [
            *read("row", "12 5/16", "12 5/16", feature="row 1, middle"),
            *read("column", "12 5/16", "12 5/16", feature="column 1, middle"),
            *read("stitch", *["9/32"] * 5, spot="middle"),
            *read("width", "7/2", "7/2", "7/2", batch=FOUR_BY_FOUR().batch("half_square_triangle")),
        ]
        found, verdict = FOUR_BY_FOUR().infer(*readings), FOUR_BY_FOUR().judge(*readings)
        first = changes_for_the_rest(found, verdict)[0]
        self.assertIn("not at 9⁄32″", str(first.title))
        # Three strips of 1 1/2 lose a quarter on each sewn side: 1 in the middle, 3 1/2 over all.
        shown = [first.how.values[n] for n in ("strip", "middle", "whole")]
        self.assertEqual(shown, [inches("3/2"), inches(1), inches("7/2")])
        moved = first.how.values["move"].size  # type: ignore[union-attr]
        self.assertAlmostEqual(moved, 1 / 32, delta=1 / 100)


class LevelsTest(TestCase):
    def test_two_readings_settle_a_sixteenth_at_most(self) -> None:
        judged = FOUR_BY_FOUR().judge
        self.assertNotEqual(judged(*read("stitch", "9/32", "9/32", spot="middle")).status, Status.SETTLED)
        many = read("stitch", *["5/16"] * 8, spot="middle")
        rows = read("row", "12 1/8", "12 1/8", feature="row 1, middle")
        self.assertEqual(judged(*many, *rows).status, Status.SETTLED)

    def test_true_is_not_said_while_something_may_still_lead(self) -> None:
        """Two widths a thirty-second under, one seam in three over by as much: five in six that nothing is off is too little."""
        batch = FOUR_BY_FOUR().batch("half_square_triangle")
        readings = [
            *read("width", "111/32", "111/32", "7/2", batch=batch),
            *read("stitch", "1/4", "9/32", "1/4", spot="middle"),
            *read("row", "399/32", feature="row 1, middle"),
        ]
        self.assertNotEqual(FOUR_BY_FOUR().judge(*readings).status, Status.TRUE)

    def test_true_is_not_said_of_what_was_hardly_looked_at(self) -> None:
        judged = FOUR_BY_FOUR().judge
        self.assertNotEqual(judged(*read("row", "25/2", feature="row 1, middle")).status, Status.TRUE)
        self.assertNotEqual(judged(*read("stitch", *["1/4"] * 4, spot="middle")).status, Status.TRUE)

    def test_the_library_block_of_the_scenario_is_whole(self) -> None:
        self.assertFalse(library_pattern("lantern").empty)


class RoundedTest(TestCase):
    """Every size up to the ruler's marks by itself must not cut a tip off: every way, at every usual size, in both measures."""

    def test_every_way_gives_its_unit_at_every_size_and_step(self) -> None:
        sizes = [(mm(w), mm(a), mm(step)) for w in (30, 45, 60, 75, 90, 100, 150) for a in (6, 7) for step in (1, 5)]
        sizes += [
            (inches(w), inches("1/4"), inches(step))
            for w in ("1", "3/2", "9/4", "3", "7/2", "9/2", "6", "27/8")
            for step in ("1/16", "1/8", "1/4")
        ]
        refused = []
        for finished, allowance, step in sizes:
            for method in METHODS:
                spec = kind_of(method.kind).usual_spec(finished)
                for school in (School.EXACT, School.LITTLE, School.GENEROUS):
                    asked = Choices(spec, method.name, school, 8, 0, allowance, None, inches(0), step)
                    try:
                        found = plan(asked)
                    except CutTooSmall as refusal:
                        refused.append(f"{method.kind} {method.name} {school} {finished} in {step}: {refusal}")
                        continue
                    # Each size is on the ruler's marks, but for those cut round a template.
                    off = [n for n, x in found.cuts.items() if n not in method.templated and not x.on_step(step)]
                    self.assertEqual(off, [], f"{method.kind} {method.name} {finished} in {step}")
        self.assertEqual(refused, [])

    def test_one_size_cut_already_and_the_rest_goes_with_it_or_the_size_refused_for_works(self) -> None:
        tried = 0
        for method, finished in itertools.product(METHODS, (inches(2), inches("11/2"))):
            asked = Choices(kind_of(method.kind).usual_spec(finished), method.name, School.LITTLE, 8)
            for name, usual in plan(asked).cuts.items():
                for eighths in (-6, -3, -1, 1, 4, 9):
                    given = {name: usual + inches("1/8") * eighths}
                    said = f"{method.kind} {method.name} {name} {eighths}"
                    try:
                        found = plan(replace(asked, cuts=Cuts(given)))
                    except CutTooSmall as refusal:
                        works = {**given, str(refusal.field).removeprefix("cuts."): refusal.data["smallest"]}
                        found = plan(replace(asked, cuts=Cuts(works)))
                    except PiecingError:
                        continue
                    self.assertGreaterEqual(float(found.margins.least), 0, said)
                    tried += 1
        self.assertGreater(tried, 400)
