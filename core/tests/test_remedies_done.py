"""What remedies promise, held against hands that do what they say; what is worth doing, by hand.

Blocks are cut, sewn and mended as polygons (``polygons``, ``mended``), which share nothing with the forecast.
"""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

import numpy as np

from piecing.blocks.library import library_pattern
from piecing.diagnosis.causes import Cause, parameters_of
from piecing.diagnosis.equations import equation_of
from piecing.diagnosis.faults import faults_of
from piecing.diagnosis.inference import Inference
from piecing.diagnosis.model import FeatureKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import LEAVE, changes_for_the_rest, done_first, remedies_of
from piecing.diagnosis.remedies.remedy import Change, Remedy
from piecing.diagnosis.verdict import Verdict, judge
from piecing.lengths import inches

from .asked import asked, faults_on
from .mended import mended
from .polygons import Truth, Ways, sewn, table
from .test_more_trials import heights, lines, missed, seams, widths
from .trials import FOUR_BY_FOUR, STAR, Scene, plain, read, scene

F, S = FOUR_BY_FOUR(), STAR()
HST = F.batch("half_square_triangle")
PAWS, PAIR = scene(library_pattern("paws"), "14"), scene(library_pattern("goose_pair"), "12")
TOES, GEESE = PAWS.batch("half_square_triangle"), PAIR.batch("flying_goose")
WIDE_PAWS = [*lines("14 1/8", "14 1/4"), *seams(*["9/32"] * 4), *widths(TOES, "2 1/2", "2 1/2")]
"""Toes of 2: the first row has six seams, the second four. Each takes 1/16 more."""


def offered(where: Scene, given: list[Reading]) -> tuple[Inference, Verdict, tuple[Remedy, ...]]:
    found = where.infer(*given)
    verdict = judge(found)
    return found, verdict, remedies_of(found, verdict)


def _missed_alike(where: Scene, unit: str) -> list[Reading]:
    """1/16 to the same side of the unit as it is made, whichever way it lies."""
    cell = where.model.places.unit(unit)
    assert cell is not None
    ends = [t for t in where.model.places.corner_tips if t.cell == cell.number]
    row = {
        t: equation_of(r, where.model, inches("1/32")).of_causes[_shift_of(where, cell.batch)]
        for t in ends
        for r in read("miss", "0", unit=unit, corner=f"{t.down} {t.across}")
    }
    return [
        r
        for t, by in row.items()
        for r in read("miss", "1/16" if by > 0 else "-1/16", unit=unit, corner=f"{t.down} {t.across}")
    ][:1]


def _shift_of(where: Scene, batch: int) -> int:
    return next(n for n, p in enumerate(parameters_of(where.model)) if p.cause is Cause.SHIFT and p.batch == batch)


class PinsTest(TestCase):
    def test_nobody_pins_crossings_that_step_because_every_seam_is_wide(self) -> None:
        _, verdict, remedies = offered(PAWS, WIDE_PAWS)
        self.assertEqual(plain(verdict.said), "all seams are 1⁄32″ wide")
        possible = [r for r in remedies if r.possible]
        self.assertEqual(possible[0].code, "all_seams")
        for r in possible:
            self.assertIsNotNone(r.left, r.code)

    def test_they_hold_a_sixteenth_in_and_what_is_over_must_not_be_seen(self) -> None:
        """Up to about 1/16 is eased, and 1/32 of what is left is not seen; an eighth puckers. What is not pinned stays."""
        crossings = [n for n, f in enumerate(F.model.features) if f.kind is FeatureKind.CROSSING][:3]
        errors = np.zeros(F.model.errors)
        off = F.model.deviations(errors)

        class Stepped:
            features = F.model.features

            def deviations(self, _: object) -> object:
                found = off.copy()
                found[crossings] = (3 / 32, -1 / 8, 3 / 32)
                return found

        change = Change(errors, errors > 0, errors, held=tuple(crossings[:2]))
        after = change.deviations(Stepped(), errors, errors)  # type: ignore[arg-type]
        self.assertEqual([float(after[n]) for n in crossings], [0.0, -1 / 8, 3 / 32])


class LeaveTest(TestCase):
    OFF_TO_ONE_SIDE = tuple(
        r
        for corner, value in (("bottom left", "1/16"), ("bottom right", "-1/16"))
        for r in read("miss", value, value, value, batch=GEESE, corner=corner)
    )

    def test_what_no_seam_of_the_block_shows_is_left_and_the_rest_put_right(self) -> None:
        """Two geese, one above the other: their base lies at the edge of the block or along one seam, their sides at its edges."""
        given = [
            *self.OFF_TO_ONE_SIDE,
            *widths(GEESE, "12 1/2", "12 1/2"),
            *heights(GEESE, "6 1/2"),
            *seams("1/4", "1/4"),
        ]
        found, verdict, remedies = offered(PAIR, given)
        assert verdict.leading is not None
        self.assertIs(verdict.leading.cause, Cause.SHIFT)
        self.assertEqual(remedies[0].code, LEAVE)
        # A sixteenth square to the diagonals is 3/32 along the base.
        self.assertIn(
            "at the block's own edge, once it is joined to others: points there miss by 3⁄32″", plain(remedies[0].how)
        )
        again = next(r for r in remedies if r.code == "make_again-0")
        self.assertTrue(again.possible)
        self.assertIn("those at the block's own edge too", plain(again.effect))
        batch = changes_for_the_rest(found, verdict)
        self.assertEqual(done_first(verdict, remedies, batch), batch[0])

    def test_half_squares_in_the_corners_of_a_block_miss_by_root_two_of_it(self) -> None:
        """Their diagonals end at its edge, both of them; 1/16 square to the line is 3/32 along the edge."""
        lantern = scene(library_pattern("lantern"), "21/2")
        halves = lantern.batch("half_square_triangle")
        given = [
            *(r for u in ("c1r1", "c3r1", "c1r3") for r in _missed_alike(lantern, u)),
            *widths(halves, "4", "4"), *heights(halves, "4"), *seams("1/4", "1/4"), *lines("11", "11"),
        ]  # fmt: skip
        _, verdict, remedies = offered(lantern, given)
        self.assertIn("half-square triangles trimmed 1⁄16″ off the diagonal", plain(verdict.said))
        self.assertEqual(remedies[0].code, LEAVE)
        self.assertIn("points there miss by 3⁄32″", plain(remedies[0].how))

    def test_corners_missed_all_over_a_block_are_not_left(self) -> None:
        given = [
            *missed("c1r1", "1/16"), *missed("c2r2", "-1/16"), *missed("c3r3", "1/16"), *missed("c4r1", "-1/16"),
            *widths(HST, "3 1/2", "3 1/2"), *heights(HST, "3 1/2"), *seams("1/4", "1/4"),
        ]  # fmt: skip
        _, verdict, remedies = offered(F, given)
        self.assertIn("off the diagonal", plain(verdict.said))
        self.assertNotIn(LEAVE, [r.code for r in remedies if r.possible])

    def test_pieces_cut_small_are_not_left(self) -> None:
        cut = [*read("cut", "3 3/4", "3 3/4", batch=HST), *read("raw_width", "3 3/8", "3 3/8", "3 3/8", batch=HST)]
        self.assertNotIn(LEAVE, [r.code for r in offered(F, cut)[2]])


class WorthTest(TestCase):
    """The square in the middle of a star, 1/16 small or large: one side of every crossing at its corners is so much longer, which pins ease."""

    MIDDLE = next(b.key for b in S.model.places.batches if "6 x 6" in b.key)

    def star(self, size: str) -> tuple[Remedy, ...]:
        given = [*widths(self.MIDDLE, size, size), *heights(self.MIDDLE, size), *seams("1/4", "1/4", "1/4"),
                 *widths(S.batch("flying_goose"), "6 1/2", "6 1/2")]  # fmt: skip
        return offered(S, given)[2]

    def test_what_takes_hardly_a_fault_away_is_not_worth_it(self) -> None:
        pins = next(r for r in self.star("6 7/16") if r.code == "match")
        self.assertEqual(plain(pins.why_not), "It would take hardly any fault away.")

    def test_what_may_as_well_do_harm_is_not_worth_it(self) -> None:
        first, *others = self.star("6 9/16")
        self.assertEqual(first.code, LEAVE)
        self.assertEqual({plain(r.why_not) for r in others}, {"It may leave the block further off than it is."})

    def test_a_row_by_itself_has_one_fault_and_is_worth_mending(self) -> None:
        """Four half squares, every seam a 1/32 wide: 3/16 short, and all is sewn again, three seams of five minutes."""
        row = scene(library_pattern("half_square_row"), "12")
        halves = row.batch("half_square_triangle")
        two = [replace(r, feature="", count=4, batch=halves) for r in lines("12 5/16", "12 5/16")]
        given = [*widths(halves, "3 1/2", "3 1/2"), *seams("9/32", "9/32", "9/32"), *two]
        first = offered(row, given)[2][0]
        self.assertEqual((first.code, first.minutes), ("all_seams", 15))

    def test_points_inside_the_block_are_its_own_matter(self) -> None:
        """A square in a square whose four tips lie at seams of the block."""
        block = scene(library_pattern("star_in_a_square"), "12")
        middle = block.batch("square_in_square")
        given = [
            *read("clearance", *["3/16"] * 4, batch=middle),
            *widths(middle, "6 1/2"),
            *heights(middle, "6 1/2"),
            *seams("1/4", "1/4"),
        ]
        _, verdict, remedies = offered(block, given)
        self.assertIn("too little outside their tips", plain(verdict.said))
        again = next(r for r in remedies if r.code.startswith("make_again"))
        self.assertEqual(plain(again.effect), "Only these units and their seams are touched.")


class JoinedTest(TestCase):
    def test_what_may_not_be_joined_yet_is_unpicked_if_it_is(self) -> None:
        """Sixteen half squares read small by themselves: six minutes for a new one."""
        given = [*widths(HST, "3 7/16", "3 7/16", "3 7/16"), *heights(HST, "3 7/16", "3 7/16")]
        again = next(r for r in offered(F, given)[2] if r.code == "make_again-0")
        self.assertIn("Unpick them if they are joined.", plain(again.how))
        self.assertEqual(again.minutes, 16 * 6)
        self.assertTrue(again.unpicks)

    def test_rows_say_that_they_are(self) -> None:
        """Fifteen seams, five minutes each to unpick and to sew."""
        given = [
            *widths(HST, "3 7/16", "3 7/16", "3 7/16"),
            *heights(HST, "3 7/16", "3 7/16"),
            *lines("12 1/4", "12 1/4"),
        ]
        again = next(r for r in offered(F, given)[2] if r.code == "make_again-0")
        self.assertIn("Unpick them. Make 16 new ones", plain(again.how))
        self.assertEqual(again.minutes, 16 * 6 + 15 * 5)
        assert again.change is not None
        self.assertTrue(all(again.change.renewed[F.model.of_seam(n, "mean")] for n in range(15)))

    def test_what_four_lack_is_shared_between_six_allowances(self) -> None:
        """A row of four is 1/4 short: 1/24 of each allowance. A share is sewn as it is told, with the scatter of any seam."""
        given = [*widths(HST, "3 7/16", "3 7/16", "3 7/16"), *heights(HST, "3 7/16", "3 7/16"), *lines("12 1/4", "12 1/4", "12 1/4"),
                 *lines("12 1/4", "12 1/4", of="column"), *seams("1/4", "1/4", "1/4")]  # fmt: skip
        first = offered(F, given)[2][0]
        self.assertIn("sew each at a thread over 3⁄16″", plain(first.how))
        assert first.change is not None
        for n in range(15):
            self.assertTrue(first.change.renewed[F.model.of_seam(n, "mean")])
            self.assertAlmostEqual(float(first.change.to[F.model.of_seam(n, "mean")]), -1 / 24, delta=0.012)

    def test_one_unit_is_held_by_the_seams_beside_it(self) -> None:
        """In the corner of the grid two; in its middle four."""
        for unit, beside in (("c1r1", 2), ("c2r3", 4)):
            given = [
                *read("width", "3 3/8", unit=unit), *read("height", "3 3/8", unit=unit), *widths(HST, "3 1/2", "3 1/2", "3 1/2"),
                *heights(HST, "3 1/2", "3 1/2"), *lines("12 3/8" if unit == "c1r1" else "12 1/2", "12 1/2", "12 1/2"), *seams("1/4", "1/4"),
            ]  # fmt: skip
            one = [r for r in offered(F, given)[2] if r.code.startswith("one_unit")]
            with self.subTest(unit):
                self.assertEqual([r.minutes for r in one], [6 + 5 * beside])


class HabitTest(TestCase):
    def test_a_seam_that_is_sewn_again_strays_as_this_hand_strays(self) -> None:
        """Told to sew at a quarter, 1/16 deep at every start: so is the one that is sewn again, and it is a quarter in its middle."""
        nothing = np.zeros(F.model.errors)
        causes = np.zeros(20)
        causes[1], causes[0] = 1 / 16, 1 / 32
        change = Change.none(F.model).sewn_anew(F.model, [3], 0.25)
        errors = nothing.copy()
        errors[F.model.of_seam(3, "mean")] = 1 / 32
        after = change.of(errors, causes)
        self.assertEqual(after[F.model.of_seam(3, "mean")], 0.0)
        self.assertEqual(after[F.model.of_seam(3, "start")], 1 / 16)
        self.assertEqual(after[F.model.of_seam(3, "end")], 0.0)
        self.assertEqual(after[F.model.of_seam(2, "start")], 0.0)
        deeper = Change.none(F.model).sewn_anew(F.model, [3], 9 / 32)
        self.assertEqual(deeper.of(errors, causes)[F.model.of_seam(3, "mean")], 1 / 32)
        as_ever = Change.none(F.model).sewn_anew(F.model, [3]).of(nothing, causes)
        self.assertEqual(as_ever[F.model.of_seam(3, "mean")], 1 / 32)


class DoneTest(TestCase):
    """Blocks with one thing 1/16 off and the rest within a third of that; their first remedies done by the hands that sewed them."""

    BLOCKS = (("pinwheel", "8"), ("sawtooth_star", "12"), ("broken_dishes", "8"), ("hourglass_star", "9"))
    TRUTHS = (
        {"seam": 1 / 16}, {"seam": -1 / 16}, {"start": 1 / 16}, {"end": -1 / 16}, {"trim": 1 / 16}, {"trim": -1 / 16}, {"shift": 1 / 16},
    )  # fmt: skip

    def test_as_many_faults_are_left_as_was_promised_and_hardly_ever_more_than_before(self) -> None:
        promised, left, before, worse = [], [], [], []
        for n, of in enumerate(self.TRUTHS * 4):
            rng, t = np.random.default_rng((1776, n)), table(*self.BLOCKS[n % len(self.BLOCKS)])
            batch = max(t.model.places.batches, key=lambda b: (not b.plain, b.count)).number
            others = {cause: float(rng.uniform(-1 / 48, 1 / 48)) for cause in ("seam", "trim", "shift")}
            block = sewn(t, Truth(batch=batch, **{**others, **of}), Ways(), rng)
            found, verdict = list(asked(block, 12))[-1]
            first = next((r for r in remedies_of(found, verdict) if r.possible), None)
            if first is None or first.left is None or first.code == LEAVE:
                continue
            faults = [f for f in faults_of(t.model, t.model.deviations(found.block)) if not f.eased]
            was = faults_on(block)
            after = [faults_on(mended(block, first, faults, rng)) for _ in range(4)]
            promised.append(first.left)
            left.append(np.mean(after))
            before.append(was)
            worse += [k > was for k in after]
        self.assertGreaterEqual(len(left), 16)
        self.assertLess(np.mean(left), 0.7 * np.mean(before))
        self.assertLess(abs(np.mean(left) - np.mean(promised)), np.mean(promised) / 4)
        self.assertLess(np.mean(worse), 0.06)
