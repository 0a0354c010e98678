"""What to change for the blocks not yet sewn, and what mends a mistake made at a stroke: each setting by hand."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from piecing.diagnosis import Inference, Status, Verdict, judge
from piecing.diagnosis.causes import Cause, Parameter
from piecing.diagnosis.faults import faults_of
from piecing.diagnosis.mistake import MistakeKind
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import changes_for_the_rest, remedies_of
from piecing.diagnosis.remedies.of_mistakes import offers
from piecing.diagnosis.remedies.remedy import Remedy, Work
from piecing.lengths import Measure, Style, mm
from piecing.messages import Message

from .trials import FOUR_BY_FOUR, STAR, Scene, read

F, S = FOUR_BY_FOUR(), STAR()
MM = Style(Measure.MILLIMETRES)
SETTLED = Verdict(Status.SETTLED, judge(F.infer()).said, judge(F.infer()).why, 0.97, ())


def stitched(at: str, *, strays: str = "", spot: str = "start") -> Inference:
    """Six seams read in their middle, and perhaps where they stray."""
    there = read("stitch", *[strays] * 6, spot=spot) if strays else []
    return F.infer(*read("stitch", *[at] * 6, spot="middle"), *there)


def changed(found: Inference, leading: Parameter, style: Style | None = None) -> list[tuple[str, str]]:
    """Title and way of each change, the verdict taken as given."""
    verdict = replace(SETTLED, leading=leading)
    return [(plain(r.title, style), plain(r.how, style)) for r in changes_for_the_rest(found, verdict)]


def sized(scene: Scene, kind: str, size: str, what: str = "width") -> tuple[Inference, int]:
    """Six units of a kind read, and the number of their batch."""
    found = scene.infer(*read(what, *[size] * 6, batch=scene.batch(kind)))
    return found, next(b.number for b in scene.model.places.batches if b.kind == kind)


def plain(said: Message, style: Style | None = None) -> str:
    """Its words with spaces that may break."""
    return said.text(style or Style()).replace("\u00a0", " ")


class GuideTest(TestCase):
    def test_seams_a_sixteenth_wide_are_brought_back_and_the_strips_to_check_it_add_up(self) -> None:
        ((title, how),) = changed(stitched("5/16"), Parameter(Cause.SEAM))
        self.assertIn("not at 5⁄16″", title)
        self.assertIn("Move the guide nearer to the needle by 1⁄16″", how)
        # Three strips of 1 1/2 sewn together: the middle one shows 1, all of them 3 1/2.
        self.assertIn("three strips cut 1 1⁄2″ wide", how)
        self.assertIn("the middle one should read 1″, all three 3 1⁄2″", how)

    def test_what_is_said_of_the_stitching_is_what_was_read(self) -> None:
        # Six seams of 9/32: neither the headline nor the setting is drawn toward a quarter.
        ((title, how),) = changed(stitched("9/32"), Parameter(Cause.SEAM))
        self.assertEqual(title, "Stitch at 1⁄4″, not at 9⁄32″")
        self.assertIn("nearer to the needle by 1⁄32″", how)

    def test_seams_a_sixteenth_narrow_the_other_way(self) -> None:
        ((title, how),) = changed(stitched("3/16"), Parameter(Cause.SEAM))
        self.assertIn("not at 3⁄16″", title)
        self.assertIn("away from the needle by 1⁄16″", how)

    def test_in_millimetres_the_amounts_are_those_of_a_metric_guide(self) -> None:
        ((title, how),) = changed(stitched("5/16"), Parameter(Cause.SEAM), MM)
        self.assertNotIn("″", title + how)
        # A quarter is 6.35 mm and five sixteenths 7.94, which nobody tells from 8: the guide goes by what the two are said as.
        self.assertIn("Stitch at 6.4 mm, not at 8 mm", title)
        self.assertIn("nearer to the needle by 1.6 mm", how)

    def test_seams_that_are_right_are_left_alone(self) -> None:
        self.assertEqual(changed(stitched("1/4"), Parameter(Cause.SEAM)), [])

    def test_a_side_that_is_not_sure_is_left_alone(self) -> None:
        found = F.infer(*read("stitch", "9/32", "7/32", "9/32", "7/32", spot="middle"))
        self.assertEqual(changed(found, Parameter(Cause.SEAM)), [])

    def test_where_seams_stray_the_work_is_held(self) -> None:
        for spot, cause in (("start", Cause.START), ("end", Cause.END)):
            ((title, how),) = changed(stitched("1/4", strays="3/8", spot=spot), Parameter(cause))
            self.assertEqual(title, f"Hold the work at the {spot} of each seam")
            self.assertIn(f"at their {spot}", how)
            self.assertRegex(how, "stray by 1⁄8″|stray by 3⁄32″")


class MarkTest(TestCase):
    def test_units_trimmed_off_are_trimmed_to_the_mark(self) -> None:
        # Finishing 3, they are trimmed to 3 1/2.
        for size, now in (("3 7/16", "3 7⁄16″"), ("3 9/16", "3 9⁄16″")):
            found, n = sized(F, "half_square_triangle", size)
            ((title, how),) = changed(found, Parameter(Cause.TRIM, n))
            self.assertIn("to 3 1⁄2″", title)
            self.assertIn(f"not to {now}", title)
            self.assertIn("before the batch", how)

    def test_a_tip_left_too_low_is_given_its_quarter(self) -> None:
        found, n = sized(S, "flying_goose", "3/16", "clearance")
        ((title, _),) = changed(found, Parameter(Cause.TIP, n))
        self.assertRegex(title, "Leave 1⁄4″ above the tip of the .*geese.*, not 3⁄16″")

    def test_what_is_not_sure_of_its_side_moves_no_mark(self) -> None:
        found, n = sized(F, "half_square_triangle", "3 1/2")
        self.assertEqual(changed(found, Parameter(Cause.TRIM, n)), [])

    def test_every_cause_of_a_batch_has_a_way(self) -> None:
        """By an estimate set by hand, a sixteenth either way: the amount said is a sixteenth."""
        found, n = sized(F, "half_square_triangle", "3 9/16")
        for cause, words in (
            (Cause.CUT, ("too large", "too small")),
            (Cause.SHIFT, ("off it", "off it")),
            (Cause.STRETCH, ("drawn out by", "drawn out by")),
        ):
            parameter = Parameter(cause, n)
            for sign, word in zip((1, -1), words, strict=True):
                estimates = tuple(
                    replace(e, size=sign / 16, low=sign / 16 - 0.01, high=sign / 16 + 0.01)
                    if (e.parameter.cause, e.parameter.batch) == (cause, n)
                    else e
                    for e in found.estimates
                )
                known = next(
                    (e.parameter for e in estimates if (e.parameter.cause, e.parameter.batch) == (cause, n)), None
                )
                if known is None:
                    self.fail(f"{parameter} is no cause of a block of half-square triangles")
                ((_, how),) = changed(replace(found, estimates=estimates), known)
                self.assertIn("1⁄16″", how)
                self.assertIn(word, how)


class NothingTest(TestCase):
    def test_what_is_open_true_doubted_or_a_mistake_moves_no_setting(self) -> None:
        found = stitched("5/16")
        for status in (Status.TRUE, Status.MISTAKE, Status.DOUBTED, Status.NO_READINGS):
            given = replace(SETTLED, status=status, leading=Parameter(Cause.SEAM))
            self.assertEqual(changes_for_the_rest(found, given), ())

    def test_hands_that_vary_are_steadied_and_move_nothing(self) -> None:
        (only,) = changes_for_the_rest(stitched("5/16"), replace(SETTLED, status=Status.VARIES))
        self.assertEqual(only.code, "steadier")
        self.assertIn("move no setting", str(only.title))


def work(found: Inference, code: str = "") -> Work:
    verdict = replace(SETTLED, status=Status.MISTAKE, code=code)
    return Work(found, verdict, {}, faults_of(found.model, found.block))


class MistakeTest(TestCase):
    def test_minutes_of_what_lay_wrong_by_hand(self) -> None:
        """To unpick takes three minutes, to sew two, to make a unit six; a unit in its place has four seams."""
        for code, minutes in (
            ("turned_unit", 4 * (3 + 2)),
            ("wrong_hand", 4 * (3 + 2) + 6),
            ("two_alike", 3 + 6),
            ("wrong_sides", 3 + 2),
        ):
            (only,) = offers(work(F.infer(), code))
            self.assertEqual((only.minutes, only.cures), (minutes, True), code)

    def test_nothing_is_offered_for_no_mistake(self) -> None:
        self.assertEqual(list(offers(work(F.infer()))), [])

    def mistaken(self, size: str) -> tuple[Inference, list[Remedy]]:
        found = F.infer(*read("width", *[size] * 6, batch=F.batch("half_square_triangle")))
        return found, list(offers(work(found)))

    def test_trimmed_to_the_finished_size_they_are_made_again(self) -> None:
        found, remedies = self.mistaken("3")
        assert found.mistake is not None
        self.assertEqual(found.mistake[0].kind, MistakeKind.FINISHED)
        self.assertEqual([r.code for r in remedies], ["measure_mark", "make_again-0"])
        # Sixteen units of six minutes each.
        self.assertEqual(remedies[1].minutes, 16 * 6)
        self.assertIn("1⁄2″ too small", str(remedies[1].how))

    def test_how_far_off_is_said_as_it_was_read_whatever_mark_it_was(self) -> None:
        """Each by hand from 3 1/2; sixteen units are trimmed again in a minute each, made again in six."""
        for size, off, how in (
            ("3 11/16", "3⁄16″", "large"),
            ("4 1/4", "3⁄4″", "large"),
            ("4 1/2", "1″", "large"),
            ("4 3/4", "1 1⁄4″", "large"),
            ("5 1/2", "2″", "large"),
            ("3 5/16", "3⁄16″", "small"),
            ("2 1/2", "1″", "small"),
            ("2 3/4", "3⁄4″", "small"),
        ):
            with self.subTest(size):
                found, remedies = self.mistaken(size)
                verdict = judge(found)
                self.assertEqual(verdict.status, Status.MISTAKE)
                self.assertIn(f"{off} too {how}", plain(verdict.said))
                last = remedies[-1]
                self.assertIn(f"They are {off} too {how}", plain(last.how))
                self.assertEqual(last.minutes, 16 if how == "large" else 96)

    def test_in_millimetres_too(self) -> None:
        # 3 1/2 is 88.9 mm; a centimetre more is read as 98.9.
        far = [Reading(ReadingKind.WIDTH, mm(989) / 10, batch=F.batch("half_square_triangle")) for _ in range(6)]
        verdict = judge(F.infer(*far))
        self.assertEqual(verdict.status, Status.MISTAKE)
        self.assertIn("10 mm too large", plain(verdict.said, MM))

    def test_readings_that_differ_are_no_wrong_mark(self) -> None:
        """Four readings far apart: none of them is the mark that all were trimmed to."""
        for sizes, middle in (
            (("4", "4 5/8", "3 1/2", "5 1/4"), "1 1⁄8″"),
            (("3 7/8", "4 1/4", "4 1/16"), "9⁄16″"),
        ):
            found = F.infer(*read("width", *sizes, batch=F.batch("half_square_triangle")))
            self.assertNotIn(f"{middle} too large", plain(judge(found).said))

    def test_a_mistake_is_measured_with_another_ruler_before_anything_is_cut(self) -> None:
        found, _ = self.mistaken("3")
        self.assertEqual([r.code for r in remedies_of(found, judge(found))], ["measure_mark", "make_again-0"])


class OneByItselfTest(TestCase):
    """One unit read twice and off as no other is: it alone is trimmed, or made, again."""

    def first(self, size: str, *, confirmed: bool = True, **where: str) -> Remedy:
        where = where or {"batch": F.batch("half_square_triangle")}
        rest = read("width", *["3 1/2"] * 5, batch=F.batch("half_square_triangle"))
        (one,) = read("width", size, **where)
        found = F.infer(*rest, replace(one, confirmed=confirmed))
        return remedies_of(found, judge(found))[0]

    def test_too_large_it_is_trimmed_in_a_minute(self) -> None:
        for size, off in (("4 1/2", "1″"), ("3 3/4", "1⁄4″"), ("3 11/16", "3⁄16″")):
            first = self.first(size)
            self.assertEqual((first.code, first.minutes), ("trim_one-0", 1))
            self.assertIn(f"{off} too large by itself. Trim it to 3 1⁄2″ by 3 1⁄2″", plain(first.how))

    def test_too_small_it_is_made_again_in_six(self) -> None:
        first = self.first("3 1/4")
        self.assertEqual((first.code, first.minutes), ("make_one-0", 6))
        self.assertIn("1⁄4″ too small by itself", plain(first.how))

    def test_a_cause_that_is_named_comes_first(self) -> None:
        (one,) = read("width", "4 1/4", batch=F.batch("half_square_triangle"))
        found = F.infer(
            *read("stitch", *["5/16"] * 6, spot="middle"),
            *read("width", *["3 1/2"] * 5, batch=F.batch("half_square_triangle")),
            replace(one, confirmed=True),
        )
        verdict = judge(found)
        codes = [r.code for r in remedies_of(found, verdict) if r.possible]
        self.assertIn("all seams", plain(verdict.said))
        self.assertEqual(codes[0], "all_seams")
        self.assertIn("trim_one-0", codes)

    def test_by_its_place_as_well(self) -> None:
        self.assertEqual(self.first("3 3/4", unit="c1r1").code, "trim_one-0")

    def test_read_once_it_is_read_again_before_anything_is_done(self) -> None:
        self.assertFalse(self.first("4 1/2", confirmed=False).code.startswith(("trim_one", "make_one")))

    def test_one_like_the_others_is_left(self) -> None:
        self.assertFalse(self.first("3 1/2").code.startswith(("trim_one", "make_one")))


class MeasuredAloneTest(TestCase):
    def test_what_was_not_measured_is_not_accused(self) -> None:
        """Geese half an inch off say nothing of the squares beside them."""
        for what, size in (("width", "7"), ("width", "6"), ("height", "4"), ("height", "3")):
            found = S.infer(*read(what, *[size] * 4, batch=S.batch("flying_goose")))
            verdict = judge(found)
            self.assertEqual(verdict.status, Status.MISTAKE)
            self.assertIn("flying geese trimmed 1⁄2″ too", plain(verdict.said))
            self.assertFalse([r for r in remedies_of(found, verdict) if "square" in plain(r.title)])

    def test_two_kinds_alike_are_all_units(self) -> None:
        both = (*read("width", *["7"] * 4, batch=S.batch("flying_goose")),
                *read("width", *["4"] * 4, batch="plain_square 3 x 3"))  # fmt: skip
        self.assertIn("all units trimmed 1⁄2″ too large", plain(judge(S.infer(*both)).said))

    def test_a_block_alone_names_no_mark(self) -> None:
        """An inch short may be its seams or its units: a teacher asks for one of each before she says."""
        for size in ("11 1/2", "13 1/2", "12", "13"):
            found = F.infer(*read("block_width", size), *read("block_height", size))
            self.assertNotIn("mark", plain(judge(found).said))
            self.assertFalse([r for r in remedies_of(found, judge(found)) if r.code.startswith("make_again")])

    def test_pieces_cut_two_allowances_small_are_cut_again(self) -> None:
        # For a unit finishing 3 the squares of a pair are cut 4, a little over the seven eighths.
        found = F.infer(*read("cut", *["3 1/2"] * 4, batch=F.batch("half_square_triangle")))
        verdict = judge(found)
        self.assertIn("pieces for the half-square triangles cut 1⁄2″ too small", plain(verdict.said))
        again = next(r for r in remedies_of(found, verdict) if r.code.startswith("cut_again"))
        self.assertEqual(again.minutes, 16 * 2)
        large = F.infer(*read("cut", *["5"] * 4, batch=F.batch("half_square_triangle")))
        self.assertIn("cut at the wrong mark of the ruler, 1″ too large", plain(judge(large).said))
        self.assertIn("Trim a little more off", [plain(r.title) for r in remedies_of(large, judge(large), F.plans)])


class CutSmallTest(TestCase):
    """Squares for a unit that finishes 3 are cut 4. Sewn a quarter either side of the diagonal they come out 0.354 smaller."""

    def first(self, *cuts: str, stitch: str = "") -> Remedy:
        seams = read("stitch", *[stitch] * 6, spot="middle") if stitch else []
        found = F.infer(*read("cut", *cuts, batch=F.batch("half_square_triangle")), *seams)
        leading = next(p for p in found.parameters if p.cause is Cause.CUT)
        return remedies_of(found, replace(SETTLED, leading=leading), F.plans)[0]

    def test_a_sixteenth_small_they_are_trimmed_closely(self) -> None:
        first = self.first(*["3 15/16"] * 4)
        self.assertEqual((first.code, first.minutes), ("trim_closely-0", 16))
        # 3.9375 - 0.3536 is 3.584: 0.084 more than 3 1/2.
        self.assertIn("cut 1⁄16″ small, and 3⁄32″ is left to trim", plain(first.how))

    def test_an_eighth_small_they_are_cut_again(self) -> None:
        first = self.first(*["3 7/8"] * 4)
        # 3.875 - 0.3536 leaves 0.021, a hundredth on each side.
        self.assertIn("a thread to trim at most. Cut again", plain(first.how))
        self.assertEqual((first.code, first.minutes), ("cut_again-0", 32))
        # Eight pairs of squares.
        self.assertIn("16 of 4″", plain(first.pieces or Message("")))

    def test_three_sixteenths_small_nothing_is_left(self) -> None:
        self.assertIn("no room to trim", plain(self.first(*["3 13/16"] * 4).how))

    def test_seams_sewn_deep_take_of_that_room(self) -> None:
        """A sixteenth deep on both sides of the diagonal takes 0.088 of the unit, more than was left."""
        self.assertEqual(self.first(*["3 15/16"] * 6, stitch="5/16").code, "cut_again-0")

    def test_large_there_is_more_to_trim(self) -> None:
        first = self.first(*["4 1/16"] * 4)
        self.assertEqual((first.code, plain(first.title)), ("cut_again-0", "Trim a little more off"))
