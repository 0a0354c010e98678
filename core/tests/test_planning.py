"""One unit's plan, the same under every school, and everything that is refused."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from piecing.errors import (
    CornersOverlap,
    CountOutOfRange,
    CutTooSmall,
    PiecingError,
    RatioNotPossible,
    SeamTooWide,
    SizeOutOfRange,
    StripDoesNotFit,
    UnknownChoice,
)
from piecing.lengths import ZERO, Length, Measure, Style, inches, mm
from piecing.planning.plan import finished_unit, offers, plan
from piecing.planning.room import QuilterRecord
from piecing.planning.schools import School
from piecing.planning.seam_cost import seam_cost
from piecing.planning.unit_plan import Choices, comes_in_two_hands, pieces_said, ready_said, still_to_make
from piecing.units import Method, UnitSpec
from piecing.units.method import Cuts

from .samples import ALL_WAYS, half_square, sample

_LANTERN = half_square(count=48)
_schools = st.sampled_from([School.EXACT, School.LITTLE, School.GENEROUS])


def codes(choices: Choices, record: QuilterRecord | None = None) -> dict[str, bool]:
    return {n.code: n.serious for n in plan(choices, record).notes}


class PlanTest(TestCase):
    def test_the_lantern_unit(self) -> None:
        p = plan(_LANTERN)
        self.assertEqual((p.cuts["square"], p.target_width, p.spec.width), (inches("9/2"), inches(4), inches("7/2")))
        self.assertAlmostEqual(float(p.raw_width), 4.14645, places=5)
        self.assertAlmostEqual(float(p.margin), 0.07322, places=5)
        self.assertEqual((p.batches, p.made, p.spare), (24, 48, 0))
        self.assertEqual([(c.role, c.count, c.width) for c in p.pieces], [(r, 24, inches("9/2")) for r in "ab"])
        self.assertAlmostEqual(float(p.cloth.value), 48 * 4.5**2)

    def test_an_odd_number_leaves_one_over(self) -> None:
        p = plan(replace(_LANTERN, count=7))
        self.assertEqual((p.batches, p.made, p.spare), (4, 8, 1))
        self.assertIn("spare_unit", codes(replace(_LANTERN, count=7)))

    @settings(max_examples=150)
    @given(st.sampled_from(ALL_WAYS), _schools, st.integers(1, 60), st.sampled_from([ZERO, inches("1/32")]))
    def test_every_way_plans_enough_cloth_and_no_unit_too_small(
        self, way: tuple[Method, UnitSpec], school: School, count: int, fold: Length
    ) -> None:
        method, spec = way
        p = plan(Choices(spec, method.name, school, count, fold=fold, ruler_step=inches("1/16")))
        self.assertGreaterEqual(p.margin, ZERO)
        self.assertGreaterEqual(p.made, count)
        self.assertTrue(0 <= p.waste_share < 1, p.waste_share)
        for piece in p.pieces:
            self.assertGreater(piece.count, 0)
            self.assertTrue(0 <= piece.left_over < piece.gives)

    def test_the_cloth_in_a_trimmed_half_square_triangle(self) -> None:
        """U² seen, and two layers of allowance along the diagonal: 2(√2 U e - e²)."""
        for fold in (ZERO, inches("1/32")):
            p = plan(half_square(fold=fold))
            u, e = float(p.target_width), float(p.take_up)
            self.assertAlmostEqual(p.simulated.kept, u * u + 2 * (2**0.5 * u * e - e * e))

    def test_odd_triangles_are_counted(self) -> None:
        quarters = plan(Choices(sample("quarter_square_triangle", part_fabrics="abac"), "loose_triangles", count=7))
        by_role = {piece.role: piece for piece in quarters.pieces}
        # a: 14 triangles from 4 squares, two over; b and c: 7 from 2, one over each.
        self.assertEqual(
            {r: (x.count, x.left_over) for r, x in by_role.items()}, {"a": (4, 2), "b": (2, 1), "c": (2, 1)}
        )

    def test_strips_have_their_whole_length(self) -> None:
        p = plan(Choices(sample("four_patch", part_fabrics="abab"), "strips", School.EXACT, count=10))
        self.assertEqual(
            [(c.role, c.width, c.height, c.count) for c in p.pieces],
            [(r, inches("9/4"), inches("9/4") * 20, 1) for r in "ab"],
        )

    def test_squares_already_cut_are_taken_as_they_are(self) -> None:
        self.assertEqual(plan(replace(_LANTERN, cuts=Cuts(square=inches(5)))).cuts["square"], inches(5))
        triangles = Choices(_LANTERN.spec, "loose_triangles", cuts=Cuts(square=inches(5)))
        self.assertEqual(
            plan(triangles).raw_width, inches(5) - inches("1/4").times_root2(), "bought triangles, by their leg"
        )

    def test_squares_too_small_are_refused_with_the_smallest_that_works(self) -> None:
        with self.assertRaises(CutTooSmall) as caught:
            plan(replace(_LANTERN, cuts=Cuts(square=inches("17/4"))))
        self.assertEqual(caught.exception.data["smallest"], inches("35/8"))
        self.assertEqual(caught.exception.field, "cuts.square")
        plan(replace(_LANTERN, cuts=Cuts(square=inches("35/8"))))
        self.assertIn("4\u00a03⁄8″", str(caught.exception))
        self.assertIn("mm", caught.exception.said.text(Style(Measure.MILLIMETRES)))

    def test_what_is_not_cut_yet_goes_with_what_is(self) -> None:
        """Four geese of 5 1/2 by 2 3/4 from a large square G and small ones S: the tip stays while S is G/2 and 1/4 at the least, and the
        unit is wide enough from 5 1/2 + 1/2 + r2/2 on, 6 3/4 by the eighth."""
        geese = Choices(UnitSpec("flying_goose", inches("11/2"), inches("11/4"), ("a", "b", "b")), "four")
        found = plan(replace(geese, cuts=Cuts(large=inches("29/4")))).cuts
        self.assertEqual((found["large"], found["small"]), (inches("29/4"), inches("31/8")))
        found = plan(replace(geese, cuts=Cuts(small=inches("29/8")))).cuts
        self.assertEqual((found["large"], found["small"]), (inches("27/4"), inches("29/8")))
        with self.assertRaises(CutTooSmall) as caught:
            plan(replace(geese, cuts=Cuts(large=inches("29/4"), small=inches("7/2"))))
        self.assertEqual((caught.exception.field, caught.exception.data["smallest"]), ("cuts.small", inches("31/8")))
        self.assertIn("beside the others", str(caught.exception))

    def test_a_scant_seam_leaves_more_to_trim(self) -> None:
        self.assertGreater(plan(replace(_LANTERN, stitch=inches("15/64"))).margin, plan(_LANTERN).margin)

    def test_millimetres_come_from_the_allowance_and_no_inch_rule(self) -> None:
        p = plan(half_square(mm(90), seam_allowance=mm(6), ruler_step=mm(1)))
        self.assertEqual((p.target_width, p.cuts["square"]), (mm(102), mm(114)))  # F + 4s; the bare need is 110.5

    def test_notes_stop_the_scissors_where_they_should(self) -> None:
        self.assertTrue(codes(replace(_LANTERN, school=School.EXACT, ruler_step=inches("1/64")))["no_margin"])
        self.assertIn("target_off_ruler", codes(half_square("10/3")))
        self.assertIn("comes_out_exact", codes(Choices(sample("plain_square"), "cut")))
        self.assertIn("tip_set", codes(Choices(sample("flying_goose"), "four")))
        self.assertIn("spare_small_units", codes(Choices(sample("flying_goose"), "two_flipped_corners")))
        wobbly = QuilterRecord(0.28, 0.03, 1 / 64, 5)
        self.assertTrue(codes(_LANTERN, wobbly)["fewer_than_99"])

    def test_a_centre_that_is_no_ruler_size_is_said_with_what_it_does(self) -> None:
        diamond = Choices(sample("square_in_square", inches(4)), "corner_triangles")
        self.assertTrue(codes(diamond)["tips_off"], "3 3/8 cuts 1/32 off the tips")
        self.assertNotIn("tips_off", codes(replace(diamond, ruler_step=inches("1/64"))))

    def test_a_goose_from_two_units_says_what_its_middle_seam_does(self) -> None:
        goose = Choices(sample("flying_goose"), "two_half_square_triangles")
        self.assertNotIn("joined_width", codes(goose))
        self.assertTrue(codes(replace(goose, fold=inches("1/32")))["joined_width"])

    def test_pieces_in_words(self) -> None:
        self.assertEqual(
            str(pieces_said(plan(Choices(sample("flying_goose"), "four", count=4)).pieces)),
            "1 of 7″ and 4 of 3\u00a03⁄4″",
        )


class HandTest(TestCase):
    def spec(self, part_fabrics: str, kind: str = "quarter_square_triangle") -> UnitSpec:
        return sample(kind, part_fabrics=part_fabrics)

    def test_rings_that_have_a_hand(self) -> None:
        for part_fabrics, wanted in (
            ("abab", False),
            ("abac", False),
            ("aabb", False),
            ("aabc", True),
            ("abcd", True),
            ("abca", True),
        ):
            with self.subTest(part_fabrics):
                self.assertEqual(comes_in_two_hands(self.spec(part_fabrics)), wanted)
        self.assertFalse(comes_in_two_hands(sample("half_square_triangle")))
        self.assertTrue(comes_in_two_hands(self.spec("abc", "split_quarter_square_triangle")))
        self.assertFalse(comes_in_two_hands(self.spec("abb", "split_quarter_square_triangle")))
        self.assertFalse(comes_in_two_hands(self.spec("abb", "flying_goose")))
        self.assertTrue(comes_in_two_hands(self.spec("abc", "flying_goose")))
        self.assertFalse(comes_in_two_hands(self.spec("aaaa", "four_patch")))
        self.assertTrue(comes_in_two_hands(self.spec("abcd", "four_patch")))

    def test_corners_decide_the_hand_of_a_corner_unit(self) -> None:
        one = UnitSpec("corner_triangle", inches(3), inches(3), tuple("abbbb"), (inches(1), ZERO, ZERO, ZERO))
        self.assertFalse(comes_in_two_hands(one))
        neighbours = replace(one, corners=(inches(1), inches("3/2"), ZERO, ZERO))
        self.assertTrue(comes_in_two_hands(neighbours))

    def test_two_at_a_time_gives_as_many_of_each_and_says_so(self) -> None:
        split = Choices(self.spec("abc", "split_quarter_square_triangle"), "unit_and_square", count=24)
        p = plan(split)
        self.assertEqual((p.made_as_drawn, p.made_mirrored, p.spare), (24, 24, 24))
        self.assertTrue(codes(split)["half_of_each_hand"])
        said = next(n.said.text() for n in p.notes if n.code == "half_of_each_hand")
        self.assertIn("Made from loose triangles", said)
        proposed = plan(replace(split, method="loose_triangles"))
        self.assertEqual((proposed.made_as_drawn, proposed.made_mirrored), (24, 0))
        both = replace(split, count=12, mirrored=12)
        self.assertEqual((plan(both).made, plan(both).spare), (24, 0))
        self.assertFalse(codes(both)["has_a_hand"])

    def test_loose_triangles_give_the_hand_that_is_wanted(self) -> None:
        p = plan(Choices(self.spec("abc", "split_quarter_square_triangle"), "loose_triangles", count=24))
        self.assertEqual((p.made_as_drawn, p.made_mirrored), (24, 0))


class RefusalTest(TestCase):
    def refused(self, choices: Choices, error: type[PiecingError], field: str) -> PiecingError:
        with self.assertRaises(error) as caught:
            plan(choices)
        self.assertEqual(caught.exception.field, field)
        return caught.exception

    def test_what_no_quilter_means(self) -> None:
        wrong: tuple[tuple[Choices, type[PiecingError], str], ...] = (
            (half_square("0"), SizeOutOfRange, "finished"),
            (half_square("-1"), SizeOutOfRange, "finished"),
            (half_square("400"), SizeOutOfRange, "finished"),
            (half_square(seam_allowance=inches(0)), SeamTooWide, "seam_allowance"),
            (half_square(seam_allowance=inches(2)), SeamTooWide, "seam_allowance"),
            (half_square("1/4", seam_allowance=inches("3/8")), SeamTooWide, "seam_allowance"),
            (half_square(stitch=inches(1)), SeamTooWide, "stitch"),
            (half_square(count=0), CountOutOfRange, "count"),
            (half_square(count=-3, mirrored=9), CountOutOfRange, "count"),
            (half_square(count=10_001), CountOutOfRange, "count"),
            (half_square(cuts=Cuts(square=inches(0))), SizeOutOfRange, "cut"),
            (Choices(sample("half_square_triangle"), "by_magic"), UnknownChoice, "method"),
            (Choices(replace(sample("plain_square"), kind="octagon"), "cut"), UnknownChoice, "kind"),
        )
        for choices, error, field in wrong:
            with self.subTest(field):
                self.refused(choices, error, field)

    def test_geese_of_another_ratio(self) -> None:
        wide = sample("flying_goose").sized(inches(6), inches(2))
        for name in ("four", "loose_triangles", "two_flipped_corners", "two_half_square_triangles"):
            refusal = self.refused(Choices(wide, name), RatioNotPossible, "height")
            self.assertEqual(refusal.data["right"], inches(3))
        self.assertEqual(plan(Choices(wide, "templates")).target_height, inches("5/2"))

    def test_strips_that_do_not_fit(self) -> None:
        spec = sample("strip_split_square")
        for strip in ("0", "-1", "4", "9"):
            with self.subTest(strip):
                self.refused(Choices(replace(spec, strip=inches(strip)), "strip"), StripDoesNotFit, "strip")
        narrow = Choices(replace(spec, strip=inches("1/4")), "strip", cuts=Cuts(square=inches(4)))
        refusal = self.refused(narrow, CutTooSmall, "cuts.square")
        self.assertEqual(refusal.data["smallest"], inches("17/4"), "a narrow strip makes it smaller than the square")

    def test_corners_that_overlap(self) -> None:
        spec = sample("corner_triangle", inches(4))
        for corners in ((3, 2, 0, 0), (0, 0, 3, 2), (2, 0, 0, 3), (0, 0, 0, 0), (5, 0, 0, 0)):
            a, b, c, d = (inches(k) for k in corners)
            with self.subTest(corners):
                self.refused(Choices(replace(spec, corners=(a, b, c, d)), "flipped_corners"), CornersOverlap, "corners")
        meeting = replace(spec, corners=(inches(2),) * 4)
        self.assertEqual(plan(Choices(meeting, "flipped_corners")).target_width, inches("9/2"))

    def test_eight_from_a_square_too_small(self) -> None:
        small = Choices(sample("half_square_triangle"), "eight", cuts=Cuts(square=inches(5)))
        self.assertEqual(self.refused(small, CutTooSmall, "cuts.square").data["smallest"], inches("35/4"))


class SideBySideTest(TestCase):
    def test_every_school_answers_or_says_what_it_lacks(self) -> None:
        side_by_side = offers(_LANTERN)
        self.assertEqual([o.school for o in side_by_side], list(School))
        lacking = {o.school: o.refusal.code for o in side_by_side if o.refusal}
        self.assertEqual(lacking, {School.OWN_MARGIN: "no_margin_given", School.RECORDS: "records_too_few"})

    def test_with_records_each_school_says_how_many_can_be_trimmed(self) -> None:
        record = QuilterRecord(0.27, 0.02, 1 / 64, 9)
        rooms = [o.plan.room for o in offers(replace(_LANTERN, own_margin=inches("1/8")), record) if o.plan]
        self.assertEqual(len(rooms), 5)
        self.assertTrue(all(r is not None and 0 <= r <= 1 for r in rooms))

    def test_a_cut_of_ones_own_does_not_leak_into_the_schools(self) -> None:
        cuts = {o.plan.cuts["square"] for o in offers(replace(_LANTERN, cuts=Cuts(square=inches(9)))) if o.plan}
        self.assertNotIn(inches(9), cuts)


class BlockTest(TestCase):
    def test_a_block_is_shared_among_its_units(self) -> None:
        self.assertEqual(finished_unit(inches("21/2"), 3), inches("7/2"))
        self.assertEqual(finished_unit(inches(10), 3), Length.of(Fraction(10, 3)))
        for across in (0, -1, 101):
            with self.subTest(across), self.assertRaises(CountOutOfRange):
                finished_unit(inches(10), across)

    def test_what_a_seam_costs_is_what_rows_lose(self) -> None:
        # Eight units, seven seams: 1/32 too wide costs 7/16.
        self.assertEqual(seam_cost(8, inches("1/32")).cost, inches("7/16"))
        self.assertEqual((seam_cost(1, inches("1/32")).units, seam_cost(8, inches("1/32")).seams), (2, 7))

        def row(take_up: Length) -> Length:
            return inches(4) * 8 - take_up * (2 * 7)

        self.assertEqual(row(inches("1/4")) - row(inches("9/32")), inches("7/16"))


class FlippedTest(TestCase):
    def test_every_flipped_way_says_to_sew_a_thread_outside_the_line(self) -> None:
        for method, spec in ALL_WAYS:
            told = [n.code for n in plan(Choices(spec, method.name)).notes]
            with self.subTest(method.name):
                self.assertEqual("thread_outside" in told, "flipped" in method.name)


class ReadyTest(TestCase):
    def test_what_is_there_is_not_made_again(self) -> None:
        """Those as drawn are there first."""
        by_hand = {
            (24, 0, 0): (24, 0),
            (24, 0, 10): (14, 0),
            (12, 12, 15): (0, 9),
            (12, 12, 30): (0, 0),
            (0, 5, 2): (0, 3),
        }
        for (count, mirrored, ready), left in by_hand.items():
            self.assertEqual(still_to_make(count, mirrored, ready), left)

    def test_it_is_said(self) -> None:
        self.assertIsNone(ready_said(24, 0))
        self.assertEqual(str(ready_said(24, 1)), "One unit is there already, so 23 of 24 are to make.")
        self.assertIn("All 24 units are there already", str(ready_said(24, 30)))
        self.assertIn("The one unit is there", str(ready_said(1, 1)))


class UnlikeLegsTest(TestCase):
    def test_skies_of_both_hands_are_cut(self) -> None:
        """Three geese 6 by 4 take three skies of either hand: two rectangles cut on each diagonal, four in all, one of each left over."""
        spec = sample("flying_goose").sized(inches(6), inches(4))
        p = plan(Choices(spec, "templates", count=3))
        skies = [c for c in p.pieces if c.name == "sky_wide"]
        self.assertEqual([(c.count, c.left_over) for c in skies], [(2, 1), (2, 1)])
        self.assertIn("both_diagonals", {n.code for n in p.notes})
        square = plan(Choices(sample("flying_goose"), "templates", count=3))
        self.assertEqual([c.count for c in square.pieces if c.name == "sky_wide"], [3])
        self.assertNotIn("both_diagonals", {n.code for n in square.notes})
