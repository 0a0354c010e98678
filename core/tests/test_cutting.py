"""The cutting plan: sound by a separate check, never worse than the plain one, near its bound, best on small ones."""

from __future__ import annotations

import random
from collections.abc import Sequence
from dataclasses import replace
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from piecing.blocks.library import library_pattern
from piecing.cutting.buying import Shop, purchases
from piecing.cutting.check import flaws
from piecing.cutting.fitting import fits, most_blocks, suggestions
from piecing.cutting.ledger import ledger
from piecing.cutting.packing import pack_bins
from piecing.cutting.plan import (
    CutStrip,
    CuttingPlan,
    Goal,
    Placed,
    PlanCost,
    bolt_length,
    cutting_plan,
    shelf_cloths,
    shelf_plan,
)
from piecing.cutting.stock import Cloth, ClothKind, WantedPiece
from piecing.cutting.strips import Bin, Item, shelves
from piecing.cutting.wanted import unit_pieces
from piecing.drawings.cloth import cloth_picture, first_said, strip_said
from piecing.errors import ClothImpossible, NothingToCut
from piecing.joining.thread import block_join_length, thread_needed
from piecing.lengths import Length, Measure, inches
from piecing.planning.plan import plan as unit_plan
from piecing.planning.schools import School
from piecing.planning.unit_plan import UnitPlan
from piecing.trimming import Cutter
from piecing.trimming.rulers import Ruler, starting_set
from tests.samples import half_square, instance

YARD = Cloth("bolt", "a", inches(40), inches(72), name="two yards")


def piece(key: str, width: str, height: str, count: int, **more: object) -> WantedPiece:
    return WantedPiece(key, "a", inches(width), inches(height), count, **more)  # type: ignore[arg-type]


def used(plan: CuttingPlan) -> Length:
    return sum((c.used for c in plan.cloths), inches(0))


class StripsTest(TestCase):
    def best(self, items: list[Item], width: int) -> int:
        """The least depth by trying every way to share few pieces among strips."""
        pieces = [i for i in items for _ in range(i.count)]
        best = 10**9

        def lay(k: int, strips: list[tuple[int, int]]) -> None:
            nonlocal best
            depth = sum(d for _, d in strips)
            if depth >= best:
                return
            if k == len(pieces):
                best = depth
                return
            for along, deep in pieces[k].ways:
                for n, (x, d) in enumerate(strips):
                    if x + along <= width:
                        lay(k + 1, [*strips[:n], (x + along, max(d, deep)), *strips[n + 1 :]])
                lay(k + 1, [*strips, (along, deep)])

        lay(0, [])
        return best

    def test_small_ones_are_never_above_the_best_there_is(self) -> None:
        rng = random.Random(11)
        for _ in range(6):
            items = [
                Item(rng.randrange(4, 12), rng.randrange(4, 12), rng.randrange(1, 3), rng.random() < 0.7)
                for _ in range(3)
            ]
            found = pack_bins(items, [Bin(20, 200, 1, 1)], 2.0)
            # Stacking may do better than strips without it, never worse.
            self.assertLessEqual(found.cost, self.best(items, 20))
            self.assertLessEqual(found.bound, found.cost)

    def test_without_stacking_the_best_there_is_is_found_and_proven(self) -> None:
        rng = random.Random(12)
        for _ in range(6):
            # No piece is half as deep as another, so that strips hold no stacks and the search by hand is complete.
            items = [
                Item(rng.randrange(8, 16), rng.randrange(8, 16), rng.randrange(1, 3), rng.random() < 0.5)
                for _ in range(3)
            ]
            found = pack_bins(items, [Bin(32, 400, 1, 1)], 2.0)
            self.assertEqual((found.cost, round(found.bound)), (self.best(items, 32), found.cost))
            self.assertTrue(found.optimal)

    def test_more_strips_than_the_plain_plan_has_may_be_best(self) -> None:
        # Every plan of as many strips as the first ones found costs 187 or more.
        found = pack_bins(instance(601, 30, 8), [Bin(320, 100_000, 1, 1)], 4.0)
        self.assertEqual((found.cost, found.optimal), (184, True))

    @settings(max_examples=12, deadline=None)
    @given(st.integers(0, 10_000))
    def test_never_worse_than_the_plain_plan_and_the_bound_holds(self, seed: int) -> None:
        rng = random.Random(seed)
        items = [
            Item(rng.randrange(8, 40), rng.randrange(8, 40), rng.randrange(1, 9), rng.random() < 0.6) for _ in range(5)
        ]
        bins = [Bin(160, 600, 1, 1)]
        plain = sum(s.depth for _, _, s in shelves(items, bins))
        found = pack_bins(items, bins, 1.0)
        self.assertLessEqual(found.cost, plain)
        area = sum(i.wide * i.deep * i.count for i in items)
        self.assertLessEqual(found.bound, found.cost + 1e-6)
        self.assertGreaterEqual(found.cost * 160, area)


class CountedTest(TestCase):
    """What is to be bought is only counted: as much as the plans that are laid out piece by piece."""

    def test_as_many_as_are_laid_out(self) -> None:
        rng, short, proven = random.Random(3), 0, 0
        for seed in range(10):
            sizes = [(rng.randrange(10, 60), rng.randrange(10, 60), rng.randrange(1, 30)) for _ in range(4)]
            pieces = [piece("ABCD"[n], f"{w}/8", f"{h}/8", k) for n, (w, h, k) in enumerate(sizes)]
            quarters = Cloth("f", "a", inches(20), inches(18), ClothKind.FAT_QUARTER, (2, 30)[seed % 2])
            laid = shelf_plan(pieces, [quarters])
            with self.subTest(seed):
                counted = shelf_cloths(pieces, [quarters])
                self.assertEqual(counted, None if laid.missing else len(laid.cloths))
                bolt = Cloth("b", "a", inches(40), inches(1_500))
                plan = cutting_plan(pieces, [bolt], seconds=0.3)
                taken, least = bolt_length(pieces, bolt, 0.3)
                self.assertGreaterEqual(float(taken) * 40, sum(w * h * k for w, h, k in sizes) / 64)
                if least and plan.proven:
                    proven += 1
                    self.assertEqual(taken, max(s.y + s.depth for s in plan.cloths[0].strips))
            short += counted is None
        self.assertTrue(0 < short < 10, "some did, some did not")
        self.assertGreater(proven, 0, "a busy machine proves fewer in the time it has")


class LargeTest(TestCase):
    def test_thousands_of_pieces_and_of_cloths(self) -> None:
        pieces = [piece("A", "9/2", "9/2", 6000), piece("B", "5", "3", 3000)]
        plain = shelf_plan(pieces, [Cloth("f", "a", inches(20), inches(18), ClothKind.FAT_QUARTER, 5000)])
        self.assertEqual(plain.missing, ())
        quarters = Cloth("f", "a", inches(20), inches(18), ClothKind.FAT_QUARTER, 900)
        plan = cutting_plan(pieces, [quarters], seconds=2)
        # Sixteen of 4 1/2 lie in a quarter, and twenty-four of 5 by 3: 500 quarters hold all.
        self.assertEqual(plan.missing, ())
        self.assertLessEqual(len(plan.cloths), 560)


class PlanTest(TestCase):
    def assert_sound(self, plan: CuttingPlan, pieces: list[WantedPiece], cloths: list[Cloth]) -> None:
        self.assertEqual([str(f.said) for f in flaws(plan, pieces, cloths)], [])

    def test_twenty_four_squares_of_four_and_a_half(self) -> None:
        # By hand: 8 of 4 1/2 in 40, so three strips of 4 1/2.
        pieces = [piece("A", "9/2", "9/2", 24)]
        plan = cutting_plan(pieces, [YARD], seconds=1)
        self.assertEqual((used(plan), plan.strips, plan.depths, plan.proven), (inches("27/2"), 3, 1, True))
        self.assert_sound(plan, pieces, [YARD])

    def test_plans_are_sound_over_many_stocks(self) -> None:
        rng = random.Random(5)
        for n in range(4):
            pieces = [
                replace(
                    piece(
                        chr(65 + k), f"{rng.randrange(12, 60)}/8", f"{rng.randrange(12, 60)}/8", rng.randrange(1, 12)
                    ),
                    turns=rng.random() < 0.7,
                )
                for k in range(5)
            ]
            cloths = [
                Cloth("y", "a", inches(40), inches(rng.randrange(10, 40))),
                Cloth("f", "a", inches(20), inches(18), ClothKind.FAT_QUARTER, 3),
                Cloth("s", "a", inches(10), inches(10), ClothKind.SQUARE, 4),
            ]
            for goal in Goal:
                with self.subTest((n, goal)):
                    self.assert_sound(cutting_plan(pieces, cloths, goal, 0.25), pieces, cloths)

    def test_the_check_finds_what_is_wrong(self) -> None:
        pieces = [piece("A", "4", "4", 4), piece("B", "3", "6", 2, turns=False)]
        plan = cutting_plan(pieces, [YARD], seconds=1)
        cloth = plan.cloths[0]
        strip = cloth.strips[0]
        p = strip.placed[0]

        def with_first(changed: object) -> CuttingPlan:
            held = replace(strip, placed=(changed, *strip.placed[1:]))  # type: ignore[arg-type]
            return replace(plan, cloths=(replace(cloth, strips=(held, *cloth.strips[1:])),))

        other = strip.placed[1]
        for changed, code in (
            (replace(p, x=inches(39)), "off_the_cloth"),
            (replace(p, x=other.x, y=other.y), "overlap"),
            (replace(p, width=p.width + inches(1)), "size"),
        ):
            self.assertIn(code, {f.code for f in flaws(with_first(changed), pieces, [YARD])})
        self.assertIn("missing", {f.code for f in flaws(replace(plan, cloths=()), pieces, [YARD])})
        turned = next(q for s in cloth.strips for q in s.placed if q.piece.key == "B")
        wrong = replace(turned, width=turned.height, height=turned.width)
        flipped = replace(
            cloth,
            strips=tuple(replace(s, placed=tuple(wrong if q is turned else q for q in s.placed)) for s in cloth.strips),
        )
        self.assertIn("grain", {f.code for f in flaws(replace(plan, cloths=(flipped,)), pieces, [YARD])})

    def test_goals_do_what_they_say(self) -> None:
        pieces = [piece("A", "9/2", "9/2", 10), piece("B", "5/2", "5/2", 20)]
        scraps = Cloth("scrap", "a", inches(20), inches(14), ClothKind.SCRAP, 2)
        least, fewest, spare = (cutting_plan(pieces, [YARD, scraps], g, 2.0) for g in Goal)
        self.assertLessEqual(fewest.strips, least.strips)
        bolt = {
            g.goal: sum(float(c.used) for c in g.cloths if c.cloth.kind is ClothKind.YARDAGE)
            for g in (least, fewest, spare)
        }
        self.assertLessEqual(bolt[Goal.SPARE], bolt[Goal.FEWEST])

    def test_borders_longer_than_the_cloth_is_wide_go_along_it(self) -> None:
        pieces = [piece("A", "9/2", "60", 4), piece("B", "4", "4", 10)]
        plan = cutting_plan(pieces, [YARD], seconds=1)
        self.assertEqual(plan.missing, ())
        self.assertTrue(all(p.height == inches(60) for c in plan.cloths for p in c.placed if p.piece.key == "A"))
        self.assert_sound(plan, pieces, [YARD])

    def test_what_does_not_fit_is_missing_and_said(self) -> None:
        pieces = [piece("A", "50", "50", 1), piece("B", "4", "4", 2), piece("C", "4", "4", 1)]
        plan = cutting_plan(pieces, [YARD], seconds=1)
        self.assertEqual([(m.piece.key, m.count) for m in plan.missing], [("A", 1)])
        nothing = cutting_plan(pieces, [], seconds=1)
        self.assertEqual(sum(m.count for m in nothing.missing), 4)
        with self.assertRaises(NothingToCut):
            cutting_plan([], [YARD])
        with self.assertRaises(ClothImpossible):
            Cloth("z", "a", inches(0), inches(10))

    def test_left_overs_are_offered_back(self) -> None:
        plan = cutting_plan([piece("A", "9/2", "9/2", 6)], [YARD], seconds=1)
        left = {x.name: (x.width, x.height) for x in plan.cloths[0].left}
        self.assertEqual(left["rest of two yards"], (inches(40), inches("135/2")))
        self.assertEqual(left["end of strip 1, two yards"], (inches(13), inches("9/2")))

    def test_left_overs_below_neighbours_alike_are_one(self) -> None:
        plan = cutting_plan(
            [piece("A", "3", "12", 2, turns=False), piece("B", "5", "4", 3, turns=False)], [YARD], seconds=1
        )
        cloth = plan.cloths[0]
        whole = sum(float(x.width) * float(x.height) for x in cloth.left)
        cut = sum(float(p.width) * float(p.height) for p in cloth.placed)
        self.assertAlmostEqual(whole + cut, 40 * 72)

    def test_pictures_hold_every_piece_and_mirror_for_the_left_hand(self) -> None:
        plan = cutting_plan([piece("A", "9/2", "9/2", 6), piece("B", "3", "3", 4)], [YARD], seconds=1)
        right, left = (cloth_picture(plan.cloths[0], c) for c in (Cutter.RIGHT, Cutter.LEFT))
        faces = [m for m in right.marks if m.role == "face"]
        self.assertEqual(len(faces), 10)
        self.assertAlmostEqual(min(x for m in faces for x, _ in m.points), 0)
        self.assertAlmostEqual(max(x for m in left.marks if m.role == "face" for x, _ in m.points), 40)
        said = strip_said(plan.cloths[0].strips[0], starting_set(Measure.INCHES), plan.cloths[0].cloth)
        self.assertIn("Cut a strip 4 1⁄2″ deep", str(said.said).replace("\u00a0", " "))

    def test_the_ruler_reaches_as_far_as_the_cut_runs(self) -> None:
        """6 1/2 and 12 1/2 squares, 6 by 24: across 40 in. only the long one, folded once; a 6 1/2 square never."""
        rulers = starting_set(Measure.INCHES)
        for depth, across, wanted in (
            ("9/2", "40", "With Long ruler, the cloth folded once: 20″ to cut."),
            ("9/2", "20", "With Long ruler, the cloth unfolded."),
            ("9/2", "6", "With Small square, the cloth unfolded."),
            ("9/2", "90", "With Long ruler, the cloth folded twice: 22 1⁄2″ to cut, four layers."),
            ("10", "40", "With Large square, the cloth folded twice: 10″ to cut, four layers."),
            (
                "15",
                "40",
                "No ruler you own is 15″ wide: lay Large square beside Long ruler, edge to edge, and cut along Long ruler.",
            ),
            ("48", "40", "No ruler you own is 48″ wide: lay the cloth's edge on a line of the mat"),
        ):
            with self.subTest(depth, across=across):
                strip = CutStrip(1, inches(0), inches(depth), ())
                said = str(strip_said(strip, rulers, Cloth("c", "a", inches(across), inches(72))).ruler).replace(
                    "\u00a0", " "
                )
                self.assertTrue(said.startswith(wanted), said)
        self.assertIn("on the mat", str(strip_said(strip, (), YARD).ruler))


class BuyingTest(TestCase):
    def test_in_the_shops_steps_with_shrinkage_and_a_wrong_cut(self) -> None:
        (bought,) = purchases([piece("A", "9/2", "9/2", 24)], Shop(), 1.0)
        # 13 1/2 and one strip more is 18; 3 in a hundred shrink; up to the next 4 1/2
        self.assertEqual((bought.bare, bought.buy), (inches("27/2"), inches("45/2")))
        # 4 by 4 fit a quarter of 20 by 18; 2 by 2 a ten-inch square
        packs = [(p.kind.value, p.count, p.along) for p in bought.instead]
        self.assertEqual(packs, [("fat_quarter", 2, inches(18)), ("square", 6, inches(10)), ("square", 24, inches(5))])

    def test_what_no_cloth_is_wide_enough_for(self) -> None:
        with self.assertRaises(ClothImpossible):
            purchases([piece("A", "45", "50", 1)], Shop(), 1.0)
        (bought,) = purchases([piece("A", "12", "12", 2)], Shop(), 1.0)
        self.assertNotIn(ClothKind.SQUARE, [p.kind for p in bought.instead])


class PilesTest(TestCase):
    def test_piles_of_one_size_are_put_together_under_a_letter(self) -> None:
        piles = ledger(
            [
                piece("x", "4", "4", 3, name="one"),
                piece("y", "5", "5", 1, name="two"),
                piece("z", "4", "4", 2, name="three"),
            ],
            (),
        )
        self.assertEqual(
            [(p.piece.key, p.piece.width, p.wanted, p.piece.name) for p in piles],
            [("A", inches(5), 1, "two"), ("B", inches(4), 5, "one; three")],
        )

    def test_thread_is_three_times_the_seam(self) -> None:
        nine = block_join_length(library_pattern("nine_patch"), inches(9), inches("1/4"))
        # 6 short seams of 3 1/2 and two of 9 1/2
        self.assertEqual(nine, inches(40))
        thread = thread_needed([nine] * 9, inches(360))
        self.assertEqual((thread.seam, thread.thread, thread.bobbins), (inches(360), inches(1080), 3))


class FittingTest(TestCase):
    def test_the_most_blocks_by_hand(self) -> None:
        # Four 4 1/2 squares a block; 8 across, 16 down in two yards: 128 squares, so 32 blocks.
        def pieces(n: int) -> list[WantedPiece]:
            return [piece("A", "9/2", "9/2", 4 * n)]

        self.assertEqual(most_blocks(pieces, [YARD]), 32)
        self.assertEqual(most_blocks(pieces, []), 0)

    def test_another_way_that_fits_is_found(self) -> None:
        # Ten-inch squares hold no 4 1/2 squares beyond four each; eight at a time from 9 1/2 does.
        made = unit_plan(half_square("7/2", count=16, school=School.LITTLE))
        cloths = [Cloth(f, f, inches(10), inches(10), ClothKind.SQUARE, 2) for f in "ab"]

        def pieces(plans: Sequence[UnitPlan]) -> Sequence[WantedPiece]:
            return [p for q in plans for p in unit_pieces(q, "halves", {})]

        self.assertTrue(fits(pieces([made]), cloths))
        tight = [Cloth(f, f, inches(19) / 2, inches(19) / 2, ClothKind.SQUARE, 2) for f in "ab"]
        many = unit_plan(half_square("7/2", count=16, school=School.GENEROUS))
        self.assertFalse(fits(pieces([many]), tight))
        said = [(s.method, s.school) for s in suggestions([many], pieces, tight)]
        self.assertIn(("eight", School.LITTLE), said)


class CostTest(TestCase):
    def test_what_a_plan_costs_in_words(self) -> None:
        """Nine squares of 4 1/2: eight across 40, so two strips of one width, 360 square inches. Two cuts
        for the strips, eight across the one and one across the other."""
        plan = cutting_plan([piece("A", "9/2", "9/2", 9)], [YARD], seconds=1.0)
        self.assertEqual(
            str(PlanCost.of(plan).said).replace("\u00a0", " "),
            "Least fabric: 2 strips in one width, 11 cuts with like strips stacked by four, 360 sq in of cloth.",
        )
        short = cutting_plan([piece("A", "9/2", "9/2", 9)], [Cloth("s", "a", inches(10), inches(5))], Goal.FEWEST, 1.0)
        self.assertIn("short of 7 pieces", str(PlanCost.of(short).said))


class StackTest(TestCase):
    def test_strips_alike_are_cut_in_stacks_of_four(self) -> None:
        """40 squares of 4 1/2: five strips of eight. Five cuts, eight through four of them and eight through the fifth: 21."""
        plan = cutting_plan([piece("A", "9/2", "9/2", 40)], [YARD], seconds=1.0)
        self.assertEqual((plan.strips, plan.cuts), (5, 21))
        # Thirty-two are four strips, and one stack: 4 and 8.
        self.assertEqual(cutting_plan([piece("A", "9/2", "9/2", 32)], [YARD], seconds=1.0).cuts, 12)

    def test_a_piece_less_deep_than_its_strip_takes_one_cut_more(self) -> None:
        strip = CutStrip(
            1,
            inches(0),
            inches(5),
            tuple(
                Placed(piece(k, "3", h, 1), inches(x), inches(0), inches(3), inches(h))
                for k, h, x in (("A", "5", 0), ("B", "4", 3))
            ),
        )
        self.assertEqual(strip.cuts_across, 3)


class HandsTest(TestCase):
    def test_what_is_cut_to_size_already_is_taken_as_it_is(self) -> None:
        pack = Cloth("p", "a", inches(5), inches(5), ClothKind.SQUARE, 3)
        plan = cutting_plan([piece("A", "5", "5", 2), piece("B", "2", "5", 1)], [pack], seconds=1.0)
        said = [str(strip_said(s, starting_set(Measure.INCHES), c.cloth).said) for c in plan.cloths for s in c.strips]
        self.assertEqual(sum(s.startswith("Take it as it is: one A") for s in said), 2)
        self.assertEqual(sum("Cut a strip" in s for s in said), 1)
        self.assertIsNone(first_said(pack))
        self.assertIn("square up the edge", str(first_said(YARD)))

    def test_a_border_before_the_first_mark_is_counted(self) -> None:
        """4 1/2 deep under a ruler with half an inch before its first mark: its mark 4. One without is taken where there is one."""
        bordered = Ruler("Bordered", inches(6), inches(24), border=inches("1/2"))
        plan = cutting_plan([piece("A", "9/2", "9/2", 8)], [YARD], seconds=1.0)
        strip = plan.cloths[0].strips[0]
        said = str(strip_said(strip, [bordered], YARD).ruler)
        self.assertIn("cutting along that edge, set its mark 4″", said)
        plain = Ruler("Plain", inches(8), inches(24))
        self.assertIn("Plain", str(strip_said(strip, [bordered, plain], YARD).ruler))
        self.assertNotIn("set its mark", str(strip_said(strip, [bordered, plain], YARD).ruler))
