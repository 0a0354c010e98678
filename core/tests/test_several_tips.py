"""A square in a square has four tips: which of them was read is told, or any may have been. Each case worked by hand before it was typed.

The diamond of the star finishes 6: its unit is 6 1/2, each tip 1/4 inside. A centre square too large by r2 times a sixteenth, so by a good
3/32, leaves 3/16 outside every tip of a unit trimmed to 6 1/2; one trimmed a sixteenth too far up leaves 3/16 above it and 5/16 below.
"""

from __future__ import annotations

from collections import Counter
from unittest import TestCase

import numpy as np

from piecing.blocks.library import library_pattern
from piecing.diagnosis.asking import next_readings
from piecing.diagnosis.asking_words import how_said
from piecing.diagnosis.candidates import candidates
from piecing.diagnosis.causes import Cause, Parameter
from piecing.diagnosis.equations import equation_of
from piecing.diagnosis.inference import infer
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import changes_for_the_rest, remedies_of
from piecing.diagnosis.said import cause_said
from piecing.diagnosis.verdict import Status, judge
from piecing.errors import ReadingMisplaced
from piecing.lengths import inches

from .polygons import Truth, Ways, sewn, table
from .test_more_trials import QUARTERS, heights, lines, widths
from .trials import plain, read, scene

STAR = scene(library_pattern("star_in_a_square"), "12")
ROUND = scene(library_pattern("round_of_diamonds"), "12")
DIAMOND, GOOSE = STAR.batch("square_in_square"), STAR.batch("flying_goose")
SIZES = [*widths(DIAMOND, "6 1/2", "6 1/2"), *heights(DIAMOND, "6 1/2"), *QUARTERS]


def tips(*values: str, side: str = "", batch: str = DIAMOND) -> list[Reading]:
    return read("clearance", *values, batch=batch, corner=side)


class SeveralTipsTest(TestCase):
    def test_any_tip_of_four_too_near_its_edge(self) -> None:
        given = [*tips(*["3/16"] * 4), *SIZES]
        v = STAR.judge(*given)
        self.assertIs(v.status, Status.SETTLED, v.why)
        assert v.leading is not None
        self.assertIs(v.leading.cause, Cause.TIP)
        self.assertEqual(plain(v.said), "squares in squares trimmed with 1⁄16″ too little outside their tips")

    def test_the_centre_is_made_smaller_and_nothing_is_trimmed(self) -> None:
        """Trimmed to leave 1/4 it would be too large: r2 of a sixteenth is the centre's, half of that the seam's own."""
        given = [*tips(*["3/16"] * 4), *SIZES]
        found, v = STAR.infer(*given), STAR.judge(*given)
        (change,) = changes_for_the_rest(found, v)
        self.assertEqual(plain(change.title), "Make the centre of the squares in squares smaller")
        self.assertIn("Cut it 3⁄32″ smaller", plain(change.how))
        self.assertRegex(plain(change.how), "where its corners are flipped, sew them (a thread over )?1⁄32″ further in")
        offered = remedies_of(found, v)
        again = next(r for r in offered if r.code.startswith("trim_again"))
        self.assertIn("trimming only brings the edge nearer", plain(again.why_not))
        self.assertIn("Unpick it. Make a new one, and trim it", plain(offered[0].how))
        at_tips = next(r for r in offered if r.code == "shallower_at_tips")
        self.assertEqual(plain(at_tips.how).count("row 2, column 2"), 1)

    def test_off_to_one_side_is_told_by_which_tip(self) -> None:
        given = [*tips("3/16", "3/16", side="top"), *tips("5/16", "5/16", side="bottom"), *SIZES]
        v = STAR.judge(*given)
        self.assertIs(v.status, Status.SETTLED, v.why)
        assert v.leading is not None
        self.assertIs(v.leading.cause, Cause.SHIFT)
        self.assertEqual(plain(v.said), "squares in squares trimmed 1⁄16″ too far up or down")

    def test_the_same_two_marks_of_tips_nobody_named_are_not_a_side(self) -> None:
        v = STAR.judge(*tips("3/16", "3/16"), *tips("5/16", "5/16"), *SIZES)
        self.assertFalse(v.leading is not None and v.leading.cause in (Cause.SHIFT, Cause.TIP), v.said)

    def test_a_tip_of_one_unit_is_named_as_it_lies(self) -> None:
        """Those round the sides of the block are turned each their own way."""
        self.assertEqual(
            {c.orientation.turn for c in ROUND.model.places.cells if c.number in ROUND.model.places.edge_tips_of},
            {0, 1, 2, 3},
        )
        for cell in ROUND.model.places.cells:
            if ROUND.model.places.batches[cell.batch].kind != "square_in_square":
                continue
            for side, low, high in (
                ("top", "up", 1),
                ("bottom", "up", -1),
                ("left", "across", -1),
                ("right", "across", 1),
            ):
                (r,) = read("clearance", "1/4", unit=cell.key, corner=side)
                e = equation_of(r, ROUND.model, inches("1/32"), ROUND.raw)
                self.assertAlmostEqual(
                    float(e.of_errors[ROUND.model.of_unit(cell.number, low)]), -high, msg=f"{cell.key} {side}"
                )
                self.assertEqual(float(e.of_errors[ROUND.model.of_unit(cell.number, "tip")]), 1.0)
            (r,) = read("clearance", "1/4", unit=cell.key)
            e = equation_of(r, ROUND.model, inches("1/32"), ROUND.raw)
            self.assertEqual(float(e.of_errors[ROUND.model.of_unit(cell.number, "up")]), 0.0)

    def test_a_side_without_a_tip_is_refused(self) -> None:
        for batch, side in ((GOOSE, "bottom"), (DIAMOND, "bottom left"), (GOOSE, "nowhere")):
            with self.subTest(side=side), self.assertRaises(ReadingMisplaced) as refused:
                STAR.infer(*tips("1/4", side=side, batch=batch))
            self.assertEqual(refused.exception.field, "corner")
        STAR.infer(*tips("1/4", side="top", batch=GOOSE))

    def test_what_is_asked_for_names_the_tip(self) -> None:
        asked = {(r.batch, r.corner) for r in candidates(STAR.infer(*SIZES)) if r.kind is ReadingKind.CLEARANCE}
        self.assertEqual({side for b, side in asked if b == DIAMOND}, {"top", "right", "bottom", "left"})
        self.assertEqual({side for b, side in asked if b == GOOSE}, {""})

    def test_one_tip_too_near_may_be_either_and_the_one_opposite_tells(self) -> None:
        given = [*tips("3/16", "3/16", side="top"), *SIZES]
        v = STAR.judge(*given)
        self.assertIs(v.status, Status.UNSETTLED)
        self.assertIn("1⁄16″ too little outside their tips", plain(v.why))
        self.assertIn("1⁄16″ too far up or down", plain(v.why))
        first = next_readings(STAR.infer(*given), raw=STAR.raw)[0]
        self.assertEqual((first.reading.batch, first.reading.corner), (DIAMOND, "bottom"))
        self.assertIn(
            "from the bottom tip of one of the squares in squares", plain(how_said(first.reading, STAR.model))
        )
        for other, cause in (("3/16", Cause.TIP), ("5/16", Cause.SHIFT)):
            v = STAR.judge(*given, *tips(other, side="bottom"))
            assert v.leading is not None
            self.assertIs(v.leading.cause, cause)

    def test_a_block_with_much_that_may_be_off_is_true_where_all_lies_on_its_mark(self) -> None:
        """Rows of 12 1/2, squares of 3 1/2; nobody looked at the tips of geese and diamond, and that is said."""
        squares = STAR.batch("plain_square")
        given = [
            *lines(*["12 1/2"] * 3), *lines(*["12 1/2"] * 2, of="column"), *QUARTERS, *widths(squares, *["3 1/2"] * 3),
        ]  # fmt: skip
        v = STAR.judge(*given)
        self.assertIs(v.status, Status.TRUE, v.why)
        self.assertIn("the cloth above tips", plain(v.why))

    def test_hands_that_trim_the_centre_too_large_are_told_so(self) -> None:
        """Simulated from polygons, a sixteenth outside every tip; which tip was read is written down, or is not."""
        t = table("star_in_a_square", "12")
        (diamond,) = (b for b in t.model.places.batches if b.key == DIAMOND)
        named = Counter[str]()
        for seed in range(8):
            for sides in (("top", "right", "bottom"), ("", "", "")):
                block = sewn(
                    t, Truth(batch=diamond.number, tip=-1 / 16, fold=1 / 64), Ways(), np.random.default_rng(seed)
                )
                asked = [
                    *(Reading(ReadingKind.CLEARANCE, inches(1), batch=DIAMOND, corner=side) for side in sides),
                    *(Reading(ReadingKind.WIDTH, inches(1), batch=DIAMOND) for _ in range(2)),
                    *(Reading(ReadingKind.STITCH, inches(1), spot="middle") for _ in range(3)),
                ]
                v = judge(infer(t.model, [block.taken(r) for r in asked], raw=t.raw))
                named[v.leading.cause.value if v.leading else "open"] += 1
        self.assertGreaterEqual(named["tip"], 12, named)
        self.assertLessEqual(set(named), {"tip", "open"}, named)

    def test_one_of_them_by_itself(self) -> None:
        (cell,) = (c for c in STAR.model.places.cells if STAR.model.places.batches[c.batch].key == DIAMOND)
        said = cause_said(STAR.model, Parameter(Cause.ONE_UNIT, place=cell.number, spot="tip"), -1 / 16)
        self.assertEqual(plain(said), "the unit in row 2, column 2 has 1⁄16″ too little outside its tips")
