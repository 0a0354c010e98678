"""Lots, bobbins, what is done and left, and which way a unit's seams go by its block's map."""

from __future__ import annotations

import random
from dataclasses import replace
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from piecing.blocks.library import library_keys, library_pattern
from piecing.blocks.pattern import layout_of
from piecing.cautions import CAUTIONS, DEFER, Risk
from piecing.errors import CountOutOfRange, MoreThanMade
from piecing.geometry.sewing import Needle
from piecing.handling.cautions import cautions_for
from piecing.handling.from_map import OPEN, ways_of_units
from piecing.handling.lots import goes_left, part_in_lots, usual_lot, wound_before
from piecing.handling.progress import LotDone, Tally, check_count, how_far, tally_of
from piecing.handling.quilt_steps import quilt_steps
from piecing.handling.steps import BenchStage, lighter_on_top, unit_steps
from piecing.joining.order import orders
from piecing.joining.pressing import pressing_map
from piecing.lengths import ZERO, inches
from piecing.planning.plan import plan
from piecing.planning.unit_plan import Choices
from piecing.quilts.choices import Border, Corners, QuiltChoices, Setting
from piecing.quilts.sizes import quilt_sizes

from .follower import follow
from .samples import ALL_WAYS, half_square

_STEPS = {"take": BenchStage.SEW, "sew": BenchStage.SEW, "open": BenchStage.PRESS}


class LotsTest(TestCase):
    def test_by_hand(self) -> None:
        """25 pairs in lots of 8 are 8, 8, 8 and 1; each pair sews 12 in., a lot of 8 takes 96 in. of seam and 288 of thread."""
        lots = part_in_lots(25, 8, inches(12))
        self.assertEqual([lot.goes for lot in lots], [8, 8, 8, 1])
        self.assertEqual([lot.number for lot in lots], [1, 2, 3, 4])
        self.assertEqual(lots[0].thread, inches(288))

    def test_bobbin_by_hand(self) -> None:
        """A lot takes 144 in. of lower thread. A bobbin of 300 does two lots and not a third: wind before the third."""
        self.assertEqual(wound_before(part_in_lots(25, 8, inches(12)), inches(300)), (3,))
        self.assertEqual(wound_before(part_in_lots(25, 8, inches(12)), inches(150)), (2, 3, 4))
        self.assertEqual(wound_before(part_in_lots(25, 8, inches(12)), inches(9000)), ())

    @given(st.integers(1, 400), st.integers(1, 40), st.integers(1, 60), st.integers(20, 4000))
    def test_no_lot_runs_out_that_one_bobbin_can_do(self, goes: int, size: int, seam: int, bobbin: int) -> None:
        lots = part_in_lots(goes, size, inches(seam))
        self.assertEqual(sum(lot.goes for lot in lots), goes)
        winds, left = set(wound_before(lots, inches(bobbin))), float(bobbin)
        for lot in lots:
            need = float(lot.seam) * 1.5
            if lot.number in winds:
                left = bobbin
            self.assertTrue(need <= left + 1e-6 or need > bobbin or not lots.index(lot) or lot.number in winds)
            left = (left - need) % bobbin if need > left else left - need

    def test_lots_that_cannot_be(self) -> None:
        for size in (0, -1, 201):
            with self.assertRaises(CountOutOfRange):
                part_in_lots(10, size, inches(1))

    def test_what_is_left_to_make(self) -> None:
        """48 wanted and 20 made in pairs: 14 more; 49 wanted: 15, one over."""
        self.assertEqual((goes_left(48, 2, 20), goes_left(49, 2, 20), goes_left(48, 2, 60)), (14, 15, 0))
        self.assertEqual((usual_lot(2), usual_lot(8), usual_lot(40)), (8, 2, 1))


class ProgressTest(TestCase):
    def lot(self, units: int, *done: str, counts: bool = True) -> LotDone:
        far = how_far(_STEPS, done)
        return LotDone(units, far.sewn, far.pressed, counts)

    def test_by_hand(self) -> None:
        """Three lots of 8: the first through, the second sewn, the third begun. 16 sewn, 8 pressed; 5 trimmed, one spoiled."""
        lots = [self.lot(8, "take", "sew", "open"), self.lot(8, "take", "sew"), self.lot(8, "take")]
        t = tally_of(24, 2, lots, 5, 1)
        self.assertEqual((t.sewn, t.pressed, t.trimmed, t.spoiled), (16, 8, 5, 1))
        self.assertEqual((t.to_make, t.good, t.left_to_trim, t.trim_now), (23, 6, 18, 11))
        self.assertFalse(t.finished)
        self.assertTrue(tally_of(24, 2, lots, 23, 1).finished)

    def test_pressing_put_down_before_sewing_is_not_pressed(self) -> None:
        self.assertEqual(tally_of(8, 0, [self.lot(8, "open")], 0, 0).pressed, 0)

    def test_a_lot_of_an_earlier_plan_does_not_count(self) -> None:
        lot = self.lot(8, "take", "sew", "open", counts=False)
        self.assertEqual(tally_of(8, 0, [lot], 0, 0).sewn, 0)

    def test_spoiled_before_it_was_trimmed_nothing_good_is_less_than_nothing(self) -> None:
        """Three ready from elsewhere; of five sewn one is trimmed and two were spoiled: the three are good, and four left to trim."""
        t = Tally(wanted=6, ready=3, sewn=5, pressed=5, trimmed=1, spoiled=2)
        self.assertEqual((t.good, t.to_make, t.left_to_trim, t.trim_now), (3, 5, 4, 4))
        self.assertEqual(replace(t, trimmed=4).good, 5)

    def test_more_than_made_is_refused(self) -> None:
        check_count("trimmed", 3, 5, 8)
        with self.assertRaises(MoreThanMade) as refused:
            check_count("trimmed", 4, 5, 8)
        self.assertEqual(refused.exception.code, "more_than_made")
        with self.assertRaises(MoreThanMade):
            check_count("trimmed", -6, 5, 8)

    def test_nothing_is_through_of_what_has_no_steps(self) -> None:
        far = how_far({}, ())
        self.assertFalse(far.sewn or far.pressed or far.whole)
        self.assertTrue(how_far({"join": BenchStage.JOIN}, {"join"}).whole)

    def test_a_walk_by_chance_never_counts_wrong(self) -> None:
        """1,000 steps done and undone over three lots: at each the tally is what counting by hand gives."""
        rng, done = random.Random(14), [set(), set(), set()]  # type: ignore[var-annotated]
        for _ in range(1000):
            lot, (key, _stage) = rng.randrange(3), rng.choice(list(_STEPS.items()))
            done[lot] ^= {key}
            t = tally_of(24, 0, [self.lot(8, *d) for d in done], 0, 0)
            self.assertEqual(t.sewn, 8 * sum({"take", "sew"} <= d for d in done))
            self.assertEqual(t.pressed, 8 * sum({"take", "sew", "open"} <= d for d in done))


class LightOnTopTest(TestCase):
    def test_the_lighter_of_two_squares_is_marked(self) -> None:
        for dark, light in ((2, 0), (0, 2)):
            p = plan(half_square())
            steps = unit_steps(p, {"a": "Dark", "b": "Light"}, {"a": dark, "b": light})
            mark = next(s for s in steps if s.key.startswith("mark"))
            self.assertIn("Light" if dark else "Dark", str(mark.said[0]))

    def test_whatever_lies_on_top_the_unit_is_the_same(self) -> None:
        for method, spec in ALL_WAYS:
            p = plan(Choices(spec, method.name))
            for values in ({"a": 2, "b": 0}, {"a": 0, "b": 2, "c": 1}):
                moments = lighter_on_top(p.simulated.making.moments, values)
                sizes = {n: float(v) for n, v in p.cuts.items()}
                out = follow(moments, sizes, 0.25, Needle.of(0.25))
                self.assertEqual(len(out), p.batch.units)


class MapTest(TestCase):
    def test_the_seams_within_units_as_the_map_has_them(self) -> None:
        """For blocks of half-square triangles: every one counted once, and by far the most toward the dark."""
        values = {"a": 2, "b": 0, "c": 1}
        counted, dark = 0, list[bool]()
        for key in library_keys():
            pattern = library_pattern(key)
            layout = layout_of(pattern)
            part = layout.part(inches(12))
            if len(layout.cells) > 20:
                continue
            found = pressing_map(pattern, orders(pattern)[0].order, values)
            specs = {c.spec(part) for c in layout.cells if c.unit.kind == "half_square_triangle"}
            for spec in specs:
                ways = ways_of_units(pattern, found.pressed, spec, inches(12), {})
                one, other = spec.part_fabrics
                n = sum(1 for c in layout.cells if c.spec(part) == spec)
                self.assertEqual(sum(ways.of(one, other).values()), n if one != other else 0 or n, key)
                self.assertLessEqual(set(ways.of(one, other)), {one, other, OPEN})
                counted += n
                if values[one] != values[other] and all(c.code != "to_light" for c in found.conflicts):
                    dark.append(set(ways.of(one, other)) == {one if values[one] > values[other] else other})
        self.assertGreater(counted, 40)
        # Where nothing had to give way every one of them goes toward the dark.
        self.assertTrue(len(dark) > 3 and all(dark))


class CautionsTest(TestCase):
    def test_each_stands_where_its_risk_is(self) -> None:
        self.assertIn(CAUTIONS[Risk.IRON][0], cautions_for(BenchStage.PRESS))
        self.assertNotIn(CAUTIONS[Risk.BLADE][0], cautions_for(BenchStage.SEW))
        self.assertIn(CAUTIONS[Risk.BLADE][0], cautions_for(BenchStage.SEW, cuts=True))
        self.assertIn(CAUTIONS[Risk.SITTING][0], cautions_for(BenchStage.TRIM, units=41))
        for stage in BenchStage:
            said = cautions_for(stage, cuts=True, units=100)
            self.assertEqual(said[-1], DEFER)
            self.assertEqual(len(said), len(set(map(str, said))))


class QuiltStepsTest(TestCase):
    def test_what_comes_out_last_is_the_quilt(self) -> None:
        """Every setting, sashed or not, with borders: the last step measures the whole top with its allowances."""
        base = {"columns": 3, "rows": 4, "block_width": inches(12), "block_height": inches(12)}
        borders = (Border(inches(2), "a"), Border(inches(5), "b", Corners.SQUARE, "a"))
        for setting in Setting:
            for sash in (ZERO, inches(2)):
                if (setting is Setting.STAGGERED and sash > ZERO) or setting is Setting.BY_HAND:
                    continue
                for edge in ((), borders):
                    sizes = quilt_sizes(QuiltChoices(**base, setting=setting, sash=sash, borders=edge))  # type: ignore[arg-type]
                    steps = quilt_steps(sizes)
                    self.assertEqual(
                        (steps[-1].width, steps[-1].height), (sizes.unfinished_width, sizes.unfinished_height), setting
                    )
                    self.assertEqual(len({s.key for s in steps}), len(steps))

    def test_borders_by_hand(self) -> None:
        """A centre of 36 by 48 with a border of 2 and one of 5: first sides on it 40 1/2 by 48 1/2, then ends 40 1/2 by 52 1/2."""
        borders = (Border(inches(2), "a"), Border(inches(5), "b"))
        sizes = quilt_sizes(QuiltChoices(3, 4, inches(12), inches(12), borders=borders))
        found = {s.key: (s.width, s.height) for s in quilt_steps(sizes)}
        half = inches("1/2")
        self.assertEqual(found["rows"], (inches(36) + half, inches(48) + half))
        self.assertEqual(found["border 1 sides"], (inches(40) + half, inches(48) + half))
        self.assertEqual(found["border 1 ends"], (inches(40) + half, inches(52) + half))
        self.assertEqual(found["border 2 sides"], (inches(50) + half, inches(52) + half))

    def test_a_sashed_row_by_hand(self) -> None:
        """Three blocks of 12 with two sashes of 2 between: 40 finished, 40 1/2 raw; rows 12 1/2 high."""
        sizes = quilt_sizes(QuiltChoices(3, 4, inches(12), inches(12), sash=inches(2)))
        row = quilt_steps(sizes)[0]
        self.assertEqual((row.width, row.height), (inches("81/2"), inches("25/2")))
