"""Seams of one row, or those between the rows, sewn otherwise than the rest, and single seams; plain squares in words; what is true.

Every figure is worked out by hand: a nine-patch of squares finishing 3 in., cut 3 1/2, its rows and columns 9 1/2 in. before the block
is joined. A seam sewn 1/16 wide takes 1/16 of either side, 1/8 of the length.
"""

from __future__ import annotations

from collections import Counter
from unittest import TestCase

import numpy as np

from piecing.blocks.library import library_pattern
from piecing.diagnosis import Status, judge
from piecing.diagnosis.causes import Cause
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import changes_for_the_rest, remedies_of
from piecing.diagnosis.remedies.remedy import Remedy
from piecing.lengths import Length

from .blocks import grid
from .polygons import Truth, Ways, sewn, table
from .trials import FOUR_BY_FOUR, STAR, Scene, read, scene

NINE = scene(library_pattern("nine_patch"), "9")
SQUARES = NINE.model.places.batches[0].key
BETWEEN = ("the seam below row 1", "the seam below row 2")
FIRST_OF_ROWS = tuple(f"row {n} seam 1" for n in (1, 2, 3))


def plain(said: object) -> str:
    return str(said).replace("\u00a0", " ")


def stitched(value: str, *seams: str) -> list[Reading]:
    return [r for s in seams for r in read("stitch", value, seam=s)]


def lines(kind: str, *values: str) -> list[Reading]:
    return [r for n, v in enumerate(values, 1) for r in read(kind, v, feature=f"{kind} {n}, middle")]


def remedies(where: Scene, *taken: Reading) -> tuple[Remedy, ...]:
    found = where.infer(*taken)
    return remedies_of(found, judge(found), where.plans)


class GroupsTest(TestCase):
    def groups(self, pattern: str, finished: str = "12") -> dict[str, int]:
        places = scene(library_pattern(pattern), finished).model.places
        return {g.name: len(g.seams) for g in places.seam_groups}

    def test_of_a_nine_patch_sewn_in_rows(self) -> None:
        rows = {f"the seams of row {n}": 2 for n in (1, 2, 3)}
        self.assertEqual(
            self.groups("nine_patch"), {"the seams between the rows": 2, "the seams within the rows": 6, **rows}
        )

    def test_where_both_ways_are_interrupted_they_are_told_by_how_they_lie(self) -> None:
        names = {g.name for g in FOUR_BY_FOUR().model.places.seam_groups}
        self.assertLessEqual({"the seams that lie across", "the seams that stand upright"}, names)
        self.assertEqual(sum(len(g.seams) for g in FOUR_BY_FOUR().model.places.seam_groups[:2]), 15)

    def test_seams_within_a_place_are_of_no_row_of_the_block(self) -> None:
        """Rails: each square is three strips, and what joins the strips of one is sewn before any row: as many names as squares, and no row
        nor column that held them together."""
        self.assertEqual({n for n in self.groups("rail_fence") if " of " in n}, set())
        self.assertEqual(
            {n for n in self.groups("churn_dash") if " of " in n}, {f"the seams of row {n}" for n in (1, 2, 3)}
        )

    def test_a_single_row_has_none_and_two_rows_no_pair_between(self) -> None:
        half = {"A": {"kind": "half_square_triangle", "fabrics": "ab"}}
        self.assertEqual(scene(grid(["A0 A0 A0"], half), "9").model.places.seam_groups, ())
        pair = scene(grid(["A0 A0", "A0 A0"], half), "6").model.places.seam_groups
        self.assertEqual([g.name for g in pair if "between" in g.name], [])


class BetweenRowsTest(TestCase):
    """The two long seams at 5/16, those within rows at 1/4: columns lose 1/4, rows nothing."""

    TAKEN = (
        *stitched("5/16", *BETWEEN), *stitched("1/4", *FIRST_OF_ROWS),
        *lines("row", "9 1/2", "9 1/2", "9 1/2"), *lines("column", "9 1/4", "9 1/4", "9 1/4"),
    )  # fmt: skip

    def test_they_are_named_together(self) -> None:
        verdict = NINE.judge(*self.TAKEN)
        self.assertEqual(verdict.status, Status.SETTLED)
        self.assertEqual(plain(verdict.said), "the seams between the rows are 1⁄16″ wide")
        self.assertIn("1⁄4″ short", plain(verdict.why))

    def test_two_seams_are_unpicked_and_six_stay(self) -> None:
        first = remedies(NINE, *self.TAKEN)[0]
        self.assertEqual(plain(first.title), "Sew the seams between the rows again at 1⁄4″")
        self.assertIn("Unpick each of the 2 seams, press flat", plain(first.how))
        # Three minutes to unpick a seam, two to sew it.
        self.assertEqual(first.minutes, 10)
        assert first.change is not None
        renewed = {n for n in range(8) if first.change.renewed[NINE.model.of_seam(n, "mean")]}
        self.assertEqual({NINE.model.places.seams[n].name for n in renewed}, set(BETWEEN))

    def test_the_guide_is_not_moved_for_it(self) -> None:
        found = NINE.infer(*self.TAKEN)
        self.assertEqual(changes_for_the_rest(found, judge(found)), ())

    def test_by_the_seams_alone(self) -> None:
        taken = [*stitched("5/16", *BETWEEN, BETWEEN[0]), *stitched("1/4", *FIRST_OF_ROWS)]
        self.assertEqual(plain(NINE.judge(*taken).said), "the seams between the rows are 1⁄16″ wide")

    def test_narrow_ones_are_sewn_over(self) -> None:
        taken = [
            *stitched("3/16", *BETWEEN), *stitched("1/4", *FIRST_OF_ROWS),
            *lines("row", "9 1/2", "9 1/2"), *lines("column", "9 3/4", "9 3/4"),
        ]  # fmt: skip
        self.assertEqual(plain(NINE.judge(*taken).said), "the seams between the rows are 1⁄16″ narrow")
        first = remedies(NINE, *taken)[0]
        self.assertIn("Nothing is unpicked", plain(first.how))
        self.assertEqual(first.minutes, 4)

    BOTH_WAYS = (*lines("column", "9 1/4", "9 1/4", "9 1/4"), *lines("row", "9 1/2", "9 1/2", "9 1/2"))

    def test_lengths_both_ways_are_not_enough_before_a_seam_was_looked_at(self) -> None:
        """Squares cut oblong would make the same lengths."""
        verdict = NINE.judge(*self.BOTH_WAYS)
        self.assertEqual(verdict.status, Status.UNSETTLED)
        self.assertEqual(remedies(NINE, *self.BOTH_WAYS)[0].code, "wait")
        self.assertIn("the seams between the rows", plain(verdict.why))

    def test_one_of_them_looked_at_bears_the_lengths_out(self) -> None:
        verdict = NINE.judge(*self.BOTH_WAYS, *stitched("5/16", BETWEEN[0]))
        self.assertEqual(plain(verdict.said), "the seams between the rows are 1⁄16″ wide")

    def test_one_of_them_looked_at_and_lengths_one_way_are_not_enough(self) -> None:
        for kind in ("column", "row"):
            taken = [*lines(kind, *["9 1/4"] * 3), *stitched("5/16", BETWEEN[0])]
            spoken_of = [e for e in NINE.infer(*taken).estimates if e.parameter.cause is Cause.SOME_SEAMS and e.leads]
            self.assertEqual(spoken_of, [], kind)

    def test_two_seams_of_which_nobody_wrote_down_which(self) -> None:
        """Rows of sixteen half squares 3/8 short, six fabrics each losing 1/16 more; columns true."""
        four = FOUR_BY_FOUR()
        taken = [
            *lines("row", *["12 1/8"] * 3), *lines("column", *["12 1/2"] * 3), *read("stitch", "5/16", "1/4"),
            *read("width", "3 1/2", "3 1/2", batch=four.batch("half_square_triangle")),
        ]  # fmt: skip
        self.assertEqual(plain(four.judge(*taken).said), "the seams that stand upright are 1⁄16″ wide")

    def test_all_of_them_wide_are_all_seams(self) -> None:
        taken = [*stitched("5/16", *BETWEEN, *FIRST_OF_ROWS), *lines("row", "9 1/4", "9 1/4")]
        self.assertEqual(plain(NINE.judge(*taken).said), "all seams are 1⁄16″ wide")


class HabitTest(TestCase):
    """Seams of other work are all 1/16 wide, and so are the long ones here; those within the rows are right. The habit is mended, and of
    this block only what is off."""

    TAKEN = (
        *read("stitch", *["5/16"] * 6, spot="middle"), *stitched("5/16", *BETWEEN), *stitched("1/4", *FIRST_OF_ROWS),
        *lines("column", "9 1/4", "9 1/4", "9 1/4"),
    )  # fmt: skip

    def test_what_is_right_is_named_and_left(self) -> None:
        verdict = NINE.judge(*self.TAKEN)
        self.assertEqual(plain(verdict.said), "all seams but those within the rows are 1⁄16″ wide")
        self.assertIsNone(verdict.beside)
        first = remedies(NINE, *self.TAKEN)[0]
        self.assertEqual(plain(first.title), "Sew all joining seams but those within the rows again at 1⁄4″")
        self.assertIn("Unpick each of the 2 seams", plain(first.how))
        self.assertEqual(first.minutes, 10)
        self.assertFalse([r for r in remedies(NINE, *self.TAKEN) if r.code.startswith("some_seams")])

    def test_the_guide_is_moved_for_what_is_sewn_next(self) -> None:
        found = NINE.infer(*self.TAKEN)
        (change,) = changes_for_the_rest(found, judge(found))
        self.assertIn("Stitch at 1⁄4″, not at 5⁄16″", plain(change.title))


class OneRowTest(TestCase):
    def test_only_the_first_row_was_sewn_wide(self) -> None:
        taken = [
            *stitched("5/16", "row 1 seam 1", "row 1 seam 2"), *stitched("1/4", *FIRST_OF_ROWS[1:]),
            *lines("row", "9 1/4", "9 1/2", "9 1/2"),
        ]  # fmt: skip
        self.assertEqual(plain(NINE.judge(*taken).said), "the seams of row 1 are 1⁄16″ wide")
        self.assertEqual(remedies(NINE, *taken)[0].minutes, 10)

    def test_one_seam_of_it_an_eighth_wide(self) -> None:
        """It takes all of the quarter by itself; read in its middle alone, it is taken to be so all along."""
        taken = [
            *stitched("1/4", "row 1 seam 1", "row 2 seam 1"), *stitched("3/8", "row 1 seam 2"),
            *lines("row", "9 1/4", "9 1/2"),
        ]  # fmt: skip
        verdict = NINE.judge(*taken)
        self.assertEqual(verdict.status, Status.SETTLED)
        self.assertEqual(plain(verdict.said), "row 1 seam 2 strays deep by 1⁄8″")
        leading = verdict.leading
        assert leading is not None
        self.assertEqual((leading.cause, leading.spot), (Cause.ONE_SEAM, "whole"))
        first = remedies(NINE, *taken)[0]
        self.assertIn("Unpick all of it", plain(first.how))

    def test_two_that_stray_an_eighth_are_read_again_and_the_block_is_not_called_true(self) -> None:
        taken = [
            *stitched("3/8", "row 1 seam 1", "row 3 seam 2"),
            *stitched("1/4", "row 1 seam 2", "row 2 seam 1", "row 3 seam 1", BETWEEN[0]),
        ]  # fmt: skip
        self.assertEqual(NINE.judge(*taken).status, Status.UNSETTLED)
        first = remedies(NINE, *taken)[0]
        self.assertEqual(first.code, "wait")
        self.assertIn("read again before anything is mended or left", plain(first.how))

    def test_a_width_that_nothing_else_says_is_read_again(self) -> None:
        """A quarter short across beside a height that is right: neither left as it is nor mended."""
        taken = [*read("block_width", "9 1/4"), *read("block_height", "9 1/2")]
        self.assertEqual(NINE.judge(*taken).status, Status.UNSETTLED)
        self.assertEqual([r.code for r in remedies(NINE, *taken)], ["wait"])


class PlainSquaresTest(TestCase):
    """They are cut, never trimmed."""

    TAKEN = (
        *read("width", *["27/8"] * 3, batch=SQUARES), *lines("row", "9 1/8", "9 1/8"),
        *stitched("1/4", *FIRST_OF_ROWS[:2]),
    )  # fmt: skip

    def test_cut_at_a_wrong_mark(self) -> None:
        said = plain(NINE.judge(*self.TAKEN).said)
        self.assertEqual(said, "plain squares cut to the wrong mark of the ruler, 1⁄8″ too small")
        again = next(r for r in remedies(NINE, *self.TAKEN) if r.code.startswith("make_again"))
        self.assertIn("Cut the plain squares again", plain(again.title))
        # Nine squares of two minutes; their eight seams are unpicked and sewn again.
        self.assertEqual(again.minutes, 9 * 2 + 8 * 5)

    def test_finished_and_unfinished_size_mixed_up(self) -> None:
        said = plain(NINE.judge(*read("width", "3", "3", "3", batch=SQUARES)).said)
        self.assertIn("cut 1⁄2″ too small: finished and unfinished size mixed up", said)
        self.assertNotIn("trimmed", said)

    def test_units_of_a_block_with_both_keep_their_own_words(self) -> None:
        star = STAR()
        said = plain(star.judge(*read("width", *["51/8"] * 3, batch=star.batch("flying_goose"))).said)
        self.assertIn("trimmed", said)


class OneFigureTest(TestCase):
    def test_a_single_nonsense_is_no_mark_of_the_ruler(self) -> None:
        """Rails of 6 1/2 by 2 1/2 in.; 3 7/8 is read once, and is of something else."""
        rails = scene(library_pattern("rail_fence"), "12")
        found = rails.infer(*read("width", "31/8", batch=rails.batch("rectangle")))
        self.assertEqual(judge(found).status, Status.UNSETTLED)
        self.assertEqual(len(found.odd), 1)
        self.assertIn("figure mistyped", plain(found.odd[0].said))

    def test_read_twice_it_is_one(self) -> None:
        rails = scene(library_pattern("rail_fence"), "12")
        verdict = rails.judge(*read("width", "47/8", "47/8", "47/8", batch=rails.batch("rectangle")))
        self.assertEqual(plain(verdict.said), "rectangles cut to the wrong mark of the ruler, 5⁄8″ too small")

    def test_raw_units_alone_do_not_tell_of_a_border(self) -> None:
        """Geese 1/4 under what their pieces should give: cut small or sewn deep, and no length but theirs was read."""
        geese = scene(library_pattern("goose_row"), "12")
        taken = read("raw_height", *["19/8"] * 3, batch=geese.batch("flying_goose"))
        verdict = geese.judge(*taken)
        self.assertEqual(verdict.status, Status.UNSETTLED)
        self.assertIn("pieces for the flying geese cut", plain(verdict.why))

    def test_rows_and_units_alike_do(self) -> None:
        four = FOUR_BY_FOUR()
        units = four.batch("half_square_triangle")
        taken = [*read("width", "3", "3", "3", batch=units), *lines("row", "12", "12", "12")]
        verdict = four.judge(*taken)
        self.assertIn("everything reads 1⁄2″ too short: the ruler's border was counted", plain(verdict.said))
        self.assertIn("on a unit as on a whole row", plain(verdict.why))


class TrueTest(TestCase):
    """Everything read lies on its mark: true by the sixth reading, also where plain squares were not measured by themselves."""

    def test_a_star_by_its_geese_and_lines(self) -> None:
        star = STAR()
        geese = star.batch("flying_goose")
        taken = [
            *read("width", "13/2", batch=geese), *read("height", "7/2", batch=geese),
            *read("clearance", "1/4", batch=geese), *lines("row", "12 1/2"), *lines("column", "12 1/2"),
            *stitched("1/4", "row 1 seam 1"),
        ]  # fmt: skip
        self.assertEqual(star.judge(*taken).status, Status.TRUE)

    def test_hourglasses(self) -> None:
        where = scene(library_pattern("hourglass_star"), "9")
        units = where.batch("quarter_square_triangle")
        taken = [
            *read("width", "7/2", "7/2", batch=units), *read("height", "7/2", batch=units),
            *lines("row", "9 1/2", "9 1/2"), *stitched("1/4", "row 1 seam 1"),
        ]  # fmt: skip
        self.assertEqual(where.judge(*taken).status, Status.TRUE)

    def test_a_square_in_the_middle_an_eighth_too_small_is_no_true_star(self) -> None:
        """Every row through it is 1/8 short while the others are right."""
        star = STAR()
        geese = star.batch("flying_goose")
        taken = [
            *read("width", "13/2", "13/2", batch=geese), *read("height", "7/2", batch=geese),
            *read("row", "12 1/2", feature="row 1, middle"), *read("row", "12 3/8", feature="row 2, middle"),
            *read("column", "12 3/8", feature="column 2, middle"), *stitched("1/4", "row 1 seam 1", "row 1 seam 3"),
        ]  # fmt: skip
        self.assertNotEqual(star.judge(*taken).status, Status.TRUE)


class SimulatedTest(TestCase):
    """Blocks of cloth clipped along wavering seams, those of one group 1/16 off; up to three seams of it, four others and every row and
    column are read to 1/32."""

    BLOCKS = (
        ("nine_patch", "9"),
        ("pinwheel", "8"),
        ("sawtooth_star", "12"),
        ("hourglass_star", "9"),
        ("churn_dash", "12"),
    )

    def named(self, off: float, count: int, seed: int) -> Counter[str]:
        rng, found = np.random.default_rng(seed), Counter[str]()
        one = Length.of(1)
        for n in range(count):
            t = table(*self.BLOCKS[n % len(self.BLOCKS)])
            groups = t.model.places.seam_groups
            at = int(rng.integers(len(groups)))
            made = sewn(t, Truth(), Ways(), rng)
            for k in groups[at].seams:
                made.seams[k].at = made.seams[k].at + off
            names = [s.name for s in t.model.places.seams]
            inside = [names[k] for k in groups[at].seams][:3]
            outside = [name for k, name in enumerate(names) if k not in groups[at].seams][:4]
            asked = [Reading(ReadingKind.STITCH, one, seam=s, spot="middle") for s in inside + outside]
            asked += [
                Reading(ReadingKind(f.kind.value), one, feature=f.key)
                for f in t.model.features
                if f.kind.value in ("row", "column") and f.edge == "middle"
            ]
            leading = Scene(t.model, t.raw, {}).judge(*(made.taken(r) for r in asked)).leading
            if leading is None:
                found["nothing"] += 1
            elif leading.cause is Cause.SOME_SEAMS and leading.place == at:
                found["right"] += 1
            else:
                found["wrong"] += 1
        return found

    def test_a_sixteenth_is_found_by_whoever_measures_there(self) -> None:
        for off, seed in ((1 / 16, 5), (-1 / 16, 6)):
            found = self.named(off, 20, seed)
            with self.subTest(off):
                self.assertGreaterEqual(found["right"], 13, found)
                self.assertLessEqual(found["wrong"], 1, found)

    def test_nothing_is_named_where_all_are_alike(self) -> None:
        self.assertEqual(self.named(0.0, 20, 7), Counter(nothing=20))
