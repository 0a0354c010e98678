"""From readings of a block to causes: named, interval by interval, mistyped ones asked about, the next one chosen, mended."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

import numpy as np

from piecing.errors import ReadingMisplaced, SizeOutOfRange, StripTestIncomplete
from piecing.lengths import Length, inches
from piecing.oversize import QuilterRecord
from piecing.diagnosis.asking import candidates, next_readings
from piecing.diagnosis.batch_changes import for_the_batch
from piecing.diagnosis.causes import Cause, shape_of
from piecing.diagnosis.explain import workings
from piecing.diagnosis.faults import faults_of
from piecing.diagnosis.inference import Inference, infer, prior_of
from piecing.diagnosis.readings import ReadingKind, Reading
from piecing.diagnosis.remedies import for_this_block, sewn_errors
from piecing.diagnosis.symptoms import end_of, symptoms
from piecing.diagnosis.verdict import Status, judge
from piecing.diagnosis.whatif import errors_of

from .sewers import Bench, Hands, Truth, bench, every_reading, quilter

K = ReadingKind
PINWHEEL = bench("pinwheel", "8")
GEESE = bench("goose_pair", "11/2")


def r(kind: K, value: str, **where: object) -> Reading:
    length = -inches(value[1:]) if value.startswith("-") else Length.of(0) if value == "0" else inches(value)
    return Reading(kind, length, **where)  # type: ignore[arg-type]


def widths(*values: str) -> list[Reading]:
    return [r(K.WIDTH, v, batch=0) for v in values]


def stitches(*values: str) -> list[Reading]:
    return [r(K.STITCH, v, spot="middle") for v in values]


def judged(b: Bench, readings: list[Reading]) -> Inference:
    return infer(b.model, readings, raw=b.raw)


def estimate(found: Inference, key: str) -> float:
    return float(found.mean[[p.key for p in found.parameters].index(key)])


class CausesTest(TestCase):
    def test_a_wide_seam_with_everything_else_looked_at(self) -> None:
        found = judged(
            PINWHEEL,
            [
                *stitches("5/16", "5/16", "5/16"),
                *widths("9/2", "9/2"),
                r(K.CUT, "5", batch=0),
                r(K.MISS, "0", cell=0),
            ],
        )
        verdict = judge(found)
        self.assertEqual((verdict.status, verdict.leading and verdict.leading.cause), (Status.SETTLED, Cause.SEAM))
        self.assertAlmostEqual(estimate(found, "seam"), 1 / 16, delta=1 / 64)

    def test_edge_tips_cut_with_a_true_seam_are_the_trim_above_the_tip(self) -> None:
        readings = [
            *stitches("1/4", "1/4"),
            *[r(K.CLEARANCE, "3/16", batch=0) for _ in range(3)],
            *widths("6", "6"),
            r(K.CUT, "7", batch=0),
            r(K.MISS, "0", cell=0),
        ]
        verdict = judge(judged(GEESE, readings))
        assert verdict.leading is not None
        self.assertEqual(verdict.leading.cause, Cause.TIP)

    def test_one_reading_settles_nothing_and_none_is_no_judgement(self) -> None:
        self.assertEqual(judge(judged(PINWHEEL, widths("9/2"))).status, Status.UNSETTLED)
        self.assertEqual(judge(judged(PINWHEEL, [])).status, Status.NO_READINGS)

    def test_what_the_record_knows_is_where_it_begins(self) -> None:
        record = QuilterRecord(0.25 + 1 / 32 + 3 / 256, 1 / 90, 1 / 64, 40)
        prior = prior_of(PINWHEEL.model, record=record)
        found = infer(PINWHEEL.model, stitches("9/32"), prior, raw=PINWHEEL.raw)
        bare = infer(PINWHEEL.model, stitches("9/32"), raw=PINWHEEL.raw)
        seam = [p.key for p in found.parameters].index("seam")
        self.assertAlmostEqual(float(prior.mean[seam]), 1 / 32, delta=1e-9)
        self.assertLess(found.sd(seam), bare.sd(seam))

    def test_readings_of_one_unit_say_less_than_those_of_many(self) -> None:
        trim = [p.key for p in judged(PINWHEEL, []).parameters].index("trim:0")
        same = judged(PINWHEEL, [r(K.WIDTH, "9/2", cell=1) for _ in range(6)])
        many = judged(PINWHEEL, widths(*["9/2"] * 6))
        self.assertGreater(same.sd(trim), 1.2 * many.sd(trim))

    def test_seams_of_one_day_are_not_those_of_another(self) -> None:
        seam = [p.key for p in judged(PINWHEEL, []).parameters].index("seam")
        one = judged(PINWHEEL, stitches(*["9/32"] * 6))
        two = judged(PINWHEEL, [replace(s, day=f"2026-11-2{n % 2}") for n, s in enumerate(stitches(*["9/32"] * 6))])
        self.assertGreater(two.sd(seam), one.sd(seam))

    def test_readings_that_contradict_each_other_widen_the_intervals(self) -> None:
        trim = [p.key for p in judged(PINWHEEL, []).parameters].index("trim:0")
        calm = judged(PINWHEEL, widths("9/2", "9/2", "9/2", "9/2", "9/2", "9/2"))
        wild = judged(PINWHEEL, widths("73/16", "71/16", "73/16", "71/16", "73/16", "71/16"))
        self.assertGreater(wild.unsteady, 1.2)
        self.assertGreater(wild.sd(trim), calm.sd(trim))

    def test_working_adds_up(self) -> None:
        found = judged(
            PINWHEEL, [*stitches("5/16", "9/32"), *widths("9/2", "145/32"), r(K.ROW, "33/4", feature="row:0:top")]
        )
        for w in workings(found):
            total = w.nominal + sum(t.adds for t in w.terms) + w.own
            self.assertAlmostEqual(total, w.fitted, delta=0.02)
            self.assertAlmostEqual(w.fitted + w.left_over, w.read)


class OddTest(TestCase):
    def test_a_mistyped_reading_in_ten_is_asked_about(self) -> None:
        rng = np.random.default_rng(31)
        asked = accused = 0
        quilters = 60
        for _ in range(quilters):
            hands = Hands(PINWHEEL, quilter(rng, "seam", 1 / 32, ("seam", "trim", "shift", "cut")), rng)
            one = inches(1)
            wanted = [Reading(K.STITCH, one, spot="middle")] * 4 + [Reading(K.WIDTH, one, batch=0)] * 4
            wanted += [Reading(K.CUT, one, batch=0)] * 2
            readings = [hands.taken(w) for w in wanted]
            k = int(rng.integers(10))
            value = readings[k].value
            assert value is not None
            slip = inches("1/4") if value < inches(1) or rng.random() < 0.5 else -inches("1/4")
            readings[k] = replace(readings[k], value=value + slip)
            odd = [o.index for o in judged(PINWHEEL, readings).odd]
            asked += k in odd
            accused += any(o != k for o in odd)
        self.assertGreaterEqual(asked, 0.95 * quilters - 2)
        self.assertLessEqual(accused, 0.1 * quilters)

    def test_true_readings_are_hardly_ever_asked_about(self) -> None:
        rng = np.random.default_rng(32)
        asked = 0
        for _ in range(60):
            hands = Hands(PINWHEEL, quilter(rng, "trim", 3 / 64, ("seam", "trim", "shift", "cut")), rng)
            readings = [hands.taken(c) for c in candidates(judged(PINWHEEL, []), joined=False)]
            asked += bool(judged(PINWHEEL, readings).odd)
        self.assertLessEqual(asked, 4)

    def test_a_confirmed_reading_is_kept_without_pulling_the_others(self) -> None:
        odd = [*widths("9/2", "9/2", "9/2", "9/2"), replace(r(K.WIDTH, "19/4", batch=0), confirmed=True)]
        found = judged(PINWHEEL, odd)
        self.assertEqual(found.odd, ())
        self.assertLess(abs(estimate(found, "trim:0")), 1 / 100)


class AtAStrokeTest(TestCase):
    def named(self, readings: list[Reading], b: Bench = PINWHEEL) -> str:
        found = judged(b, readings)
        return found.believed.code if found.believed else "none"

    def test_finished_for_unfinished_is_told_from_the_rulers_border(self) -> None:
        # Units half an inch small make a row of two a whole inch short; a border counted makes it half an inch long.
        trimmed = [
            *widths("4", "4", "127/32"),
            r(K.ROW, "15/2", feature="row:0:top"),
            r(K.ROW, "241/32", feature="row:1:top"),
        ]
        self.assertTrue(self.named(trimmed).startswith("finished_for_unfinished:0:small"))
        border = [
            *widths("5", "5", "159/32"),
            r(K.ROW, "9", feature="row:0:top"),
            r(K.ROW, "287/32", feature="row:1:top"),
        ]
        self.assertTrue(self.named(border).startswith("ruler_border:+0.50"), self.named(border))

    def test_a_wrong_mark(self) -> None:
        self.assertTrue(
            self.named(widths("37/8", "37/8", "147/32", "149/32", "37/8")).startswith("wrong_mark:0:+0.125")
        )

    def test_discrete_causes_in_ninety_eight_of_a_hundred(self) -> None:
        rng = np.random.default_rng(33)
        right = wrongly = 0
        quilters = 60
        for n in range(quilters):
            hands = Hands(PINWHEEL, quilter(rng, "seam", 1 / 48, ("seam", "trim", "shift", "cut")), rng)
            one = inches(1)
            wanted = [Reading(K.WIDTH, one, batch=0)] * 3 + [Reading(K.HEIGHT, one, batch=0)]
            wanted += [Reading(K.ROW, one, feature=f"row:{k}:top") for k in (0, 1)] + [
                Reading(K.STITCH, one, spot="middle")
            ] * 2
            readings = [hands.taken(w) for w in wanted]
            sound = judged(PINWHEEL, readings)
            wrongly += sound.believed is not None
            by, code = ((-1 / 2, "finished_for_unfinished"), (1 / 2, "ruler_border"), (1 / 4, "ruler_border"))[n % 3]
            spoiled = []
            for x in readings:
                units = 2 if x.kind is K.ROW and code.startswith("finished") else 1
                off = by * units if x.kind is not K.STITCH else 0.0
                assert x.value is not None
                spoiled.append(
                    replace(x, value=x.value + Length.near(off))
                    if off >= 0
                    else replace(x, value=x.value - Length.near(-off))
                )
            right += self.named(spoiled).startswith(code)
        self.assertGreaterEqual(right, 0.98 * quilters - 1)
        self.assertLessEqual(wrongly, 1)

    def test_the_picture_wrong_though_sizes_are_right(self) -> None:
        found = judged(PINWHEEL, [*widths("9/2", "9/2"), Reading(K.PICTURE_WRONG)])
        codes = [h.code for h in found.hypotheses]
        self.assertIn("turned_unit", codes)
        self.assertIn("wrong_hand", codes)
        turned = judged(PINWHEEL, [Reading(K.PICTURE_WRONG), Reading(K.RIGHT_WHEN_TURNED)])
        assert turned.believed is not None
        self.assertEqual(turned.believed.code, "turned_unit")


class NextTest(TestCase):
    def test_it_asks_for_what_was_not_looked_at(self) -> None:
        found = judged(
            PINWHEEL, [*stitches("1/4", "1/4", "1/4"), *widths("9/2", "9/2", "9/2"), *[r(K.CUT, "5", batch=0)] * 3]
        )
        asked = next_readings(found, raw=PINWHEEL.raw)[0]
        self.assertEqual(asked.reading.kind, K.MISS)
        self.assertLess(asked.doubt_after, asked.doubt_now)
        self.assertGreater(len(asked.outcomes), 1)
        self.assertAlmostEqual(sum(o.chance for o in asked.outcomes), 1, delta=0.02)

    def test_chosen_readings_settle_with_a_third_fewer_than_the_same_in_a_fixed_order(self) -> None:
        rng = np.random.default_rng(34)
        causes = ("seam", "trim", "shift", "cut")
        counts = {"chosen": 0, "fixed": 0}
        for n in range(16):
            truth = quilter(rng, causes[n % 4], 1 / 16, causes)
            for how in counts:
                hands, readings = Hands(PINWHEEL, truth, rng), list[Reading]()
                while len(readings) < 24:
                    found = judged(PINWHEEL, readings)
                    if len(readings) >= 3 and judge(found).status is Status.SETTLED:
                        break
                    wanted = (
                        next_readings(found, raw=PINWHEEL.raw, options=every_reading(PINWHEEL, found))[0].reading
                        if how == "chosen"
                        else every_reading(PINWHEEL, found)[len(readings) % 13]
                    )
                    readings.append(hands.taken(wanted))
                counts[how] += len(readings)
        self.assertLess(counts["chosen"], counts["fixed"] * 2 / 3)


class MendingTest(TestCase):
    def spoiled(self, b: Bench, truth: Truth) -> Inference:
        """A block measured through and through with a fine ruler, every unit and seam just as its batch."""
        causes = {
            "seam": truth.seam,
            "trim:0": truth.trim,
            "shift:0": truth.shift,
            "tip:0": truth.tip,
            "fold": truth.fold,
        }
        errors = errors_of(b.model, causes)
        off = b.model.deviations(errors)
        readings = [
            Reading(K(f.kind.value), Length.near(f.nominal + float(d)), feature=f.key)
            for f, d in zip(b.model.features, off, strict=True)
        ]
        for n in range(len(b.model.places.seams)):
            readings += [
                Reading(K.STITCH, Length.near(0.25 + truth.seam), seam=n, spot=s)
                for s in ("start", "middle", "end")
            ]
        for c in b.model.places.cells:
            size = Length.near(c.width + 0.5 + truth.trim), Length.near(c.height + 0.5 + truth.trim)
            readings += [Reading(K.WIDTH, size[0], cell=c.number), Reading(K.HEIGHT, size[1], cell=c.number)]
            if b is GEESE:
                readings.append(Reading(K.CLEARANCE, Length.near(0.25 + truth.tip), cell=c.number))
        return judged(b, readings)

    def test_the_block_as_read_has_the_true_faults(self) -> None:
        found = self.spoiled(PINWHEEL, Truth(shift=1 / 16))
        faults = faults_of(PINWHEEL.model, PINWHEEL.model.deviations(sewn_errors(found)))
        self.assertTrue(any(f.feature.kind.value == "corner_tip" for f in faults))

    def test_a_floating_tip_is_sewn_deeper_and_a_cut_one_never(self) -> None:
        floating = for_this_block(self.spoiled(GEESE, Truth(tip=1 / 15)))
        deeper = [x for x in floating if x.code.startswith("deeper")]
        self.assertTrue(deeper[0].possible)
        self.assertIsNotNone(deeper[0].errors)
        cut = for_this_block(self.spoiled(GEESE, Truth(tip=-1 / 20)))
        never = [x for x in cut if x.code.startswith("deeper")]
        self.assertFalse(never[0].possible)
        shallower = next(x for x in cut if x.code.startswith("shallower"))
        self.assertTrue(shallower.possible)

    def test_a_remedy_tried_mends_what_it_is_for_and_never_leaves_less_than_three_sixteenths(self) -> None:
        for b, truth in (
            (GEESE, Truth(tip=1 / 15)),
            (GEESE, Truth(seam=1 / 20)),
            (PINWHEEL, Truth(shift=1 / 20)),
            (PINWHEEL, Truth(seam=1 / 16)),
        ):
            found = self.spoiled(b, truth)
            before = [f for f in faults_of(b.model, b.model.deviations(sewn_errors(found))) if not f.eased]
            remedies = [
                x
                for x in for_this_block(found)
                if x.possible and x.errors is not None and not x.code.startswith(("bring", "leave"))
            ]
            with self.subTest(truth=truth):
                self.assertTrue(remedies)
                self.assertLess(min(x.left for x in remedies), len(before))
                for x in remedies:
                    assert x.errors is not None
                    for n in range(len(b.model.places.seams)):
                        mean = x.errors[b.model.of_seam(n, "mean")]
                        changed = x.errors - sewn_errors(found)
                        if np.abs(changed[b.model.of_seam(n, "mean")]) > 1e-9:
                            self.assertGreaterEqual(0.25 + mean, 3 / 16 - 1e-6)

    def test_units_a_little_short_are_shared_between_seams_and_shorter_ones_made_again(self) -> None:
        little = {x.code: x for x in for_this_block(self.spoiled(PINWHEEL, Truth(trim=-1 / 24)))}
        self.assertTrue(little["share:0"].possible)
        self.assertLess(abs(little["share:0"].width), 1 / 32)
        much = {x.code: x for x in for_this_block(self.spoiled(PINWHEEL, Truth(trim=-1 / 12)))}
        self.assertFalse(much["share:0"].possible)
        self.assertTrue(much["make_again:0"].possible)

    def test_what_the_eye_saw_is_unpicked(self) -> None:
        found = judged(PINWHEEL, [*widths("9/2"), Reading(K.PICTURE_WRONG)])
        codes = [x.code for x in for_this_block(found)]
        self.assertIn("unpick_turned", codes)
        self.assertIn("other_hand", codes)
        turned = judged(PINWHEEL, [*widths("9/2"), Reading(K.PICTURE_WRONG), Reading(K.RIGHT_WHEN_TURNED)])
        self.assertNotIn("other_hand", [x.code for x in for_this_block(turned)])

    def test_waves_make_stretch_likelier(self) -> None:
        rising = [r(K.DIAGONAL_RISING, "205/32", batch=0)]
        n = [p.key for p in judged(PINWHEEL, []).parameters].index("stretch:0")
        calm, wavy = judged(PINWHEEL, rising), judged(PINWHEEL, [*rising, Reading(K.WAVY)])
        self.assertGreater(abs(wavy.mean[n]), abs(calm.mean[n]))

    def test_the_rest_of_the_batch_is_changed_by_what_was_measured(self) -> None:
        found = self.spoiled(PINWHEEL, Truth(seam=1 / 24, trim=-1 / 20))
        codes = [x.code for x in for_the_batch(found)]
        self.assertIn("move_guide", codes)
        self.assertIn("trim:0", codes)
        move = next(x for x in for_the_batch(found) if x.code == "move_guide")
        wanted = float(move.how.values["wanted"])  # type: ignore[arg-type]
        fold = estimate(found, "fold")
        self.assertAlmostEqual(wanted + fold / 2, 0.25, delta=1 / 200)
        self.assertIn("strip", str(move.how))

    def test_followed_the_advice_gives_a_true_block(self) -> None:
        found = self.spoiled(PINWHEEL, Truth(seam=1 / 24))
        self.assertTrue(for_the_batch(found))
        for x in for_the_batch(found):
            self.assertLess(abs(x.width), 1 / 32)

    def test_what_is_left_is_counted_not_said(self) -> None:
        found = self.spoiled(GEESE, Truth(tip=1 / 15))
        model = GEESE.model
        now = sum(not f.eased for f in faults_of(model, model.deviations(sewn_errors(found))))
        for x in for_this_block(found):
            if x.code.startswith("press_toward") and x.possible:
                self.assertEqual(x.left, now - 1)
        small = {x.code: x for x in for_this_block(self.spoiled(PINWHEEL, Truth(seam=1 / 12)))}
        self.assertEqual(small["bring_down"].left, 0)

    def test_off_the_diagonal_is_trimmed_again_only_when_there_is_cloth_to_spare(self) -> None:
        for trim, possible in ((0.0, False), (1 / 8, True)):
            found = self.spoiled(PINWHEEL, Truth(shift=1 / 16, trim=trim))
            again = next(x for x in for_this_block(found) if x.code == "trim_again:0:shift")
            self.assertEqual(again.possible, possible)

    def test_a_true_block_is_left_alone(self) -> None:
        found = infer(
            PINWHEEL.model,
            [*widths("9/2", "9/2"), *[r(K.ROW, "17/2", feature=f"row:{n}:top") for n in (0, 1)]],
            raw=PINWHEEL.raw,
        )
        self.assertEqual(for_this_block(found)[0].code, "leave")


class RefusedTest(TestCase):
    def test_readings_that_cannot_be(self) -> None:
        for refusal, make in (
            (SizeOutOfRange, lambda: Reading(K.WIDTH)),
            (SizeOutOfRange, lambda: r(K.WIDTH, "-4", batch=0)),
            (SizeOutOfRange, lambda: r(K.ROW, "900", feature="row:0:top")),
            (StripTestIncomplete, lambda: r(K.STRIP_TEST, "1")),
        ):
            with self.subTest(refusal=refusal.__name__), self.assertRaises(refusal):
                make()

    def test_readings_from_another_block(self) -> None:
        for reading in (
            r(K.CROSSING, "1/32", feature="crossing:elsewhere:1"),
            r(K.ROW, "8", feature="column:0:left"),
            r(K.CLEARANCE, "1/4", batch=0),
            r(K.WIDTH, "4", batch=9),
            r(K.WIDTH, "4", cell=99),
            r(K.STITCH, "1/4", seam=40, spot="start"),
            r(K.MISS, "0", cell=0, corner="bottom right of nothing"),
        ):
            with self.subTest(kind=reading.kind), self.assertRaises(ReadingMisplaced):
                judged(PINWHEEL, [reading])

    def test_thousands_of_readings(self) -> None:
        found = judged(PINWHEEL, widths(*["9/2"] * 2000, *["145/32"] * 2000) + stitches(*["9/32"] * 1000))
        self.assertAlmostEqual(estimate(found, "trim:0"), 1 / 64, delta=1 / 200)


class SymptomsTest(TestCase):
    def test_three_questions_at_most_and_each_end_says_why(self) -> None:
        for first in symptoms():
            for s in first.walk():
                with self.subTest(s.code):
                    self.assertIsNotNone(end_of(s.code))
                    if not s.further:
                        self.assertTrue(s.because)
                        self.assertTrue(s.measure or s.observe)

    def test_causes_of_the_pictures_are_causes_of_their_blocks(self) -> None:
        from piecing.blocks.library import library_pattern
        from piecing.blocks.pattern import laid
        from piecing.diagnosis.causes import parameters_of
        from piecing.diagnosis.model import model_of
        from piecing.diagnosis.places import places_of

        for first in symptoms():
            for s in first.walk():
                model = model_of(places_of(laid(library_pattern(s.block)), inches(8)), inches("1/4"))
                keys = {p.key for p in parameters_of(model)}
                with self.subTest(s.code):
                    self.assertLessEqual(set(s.causes), keys)
                    faults = faults_of(model, model.deviations(errors_of(model, s.causes)))
                    self.assertEqual(bool(faults), bool(s.causes))
                    self.assertEqual(shape_of(model).shape[1], len(keys))
