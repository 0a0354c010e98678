"""One unit's plan, the same under every school, and everything that is refused."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from piecing.errors import CountOutOfRange, CutTooSmall, SeamTooWide, SizeOutOfRange
from piecing.lengths import Length, Measure, Style, inches, mm
from piecing.oversize import QuilterRecord, School
from piecing.planning import Choices, finished_unit, offers, plan, seam_cost

_LANTERN = Choices(inches("7/2"), count=48)
_choices = st.builds(
    Choices,
    finished=st.fractions(min_value=1, max_value=14, max_denominator=8).map(Length.of),
    count=st.integers(1, 200),
    school=st.sampled_from([School.EXACT, School.LITTLE, School.GENEROUS]),
    fold=st.sampled_from([inches(0), inches("1/64"), inches("1/32")]),
    ruler_step=st.sampled_from([inches("1/16"), inches("1/8"), mm(1)]),
)


class PlanTest(TestCase):
    def test_the_lantern_unit(self) -> None:
        p = plan(_LANTERN)
        self.assertEqual((p.cut, p.target, p.finished), (inches("9/2"), inches(4), inches("7/2")))
        self.assertAlmostEqual(float(p.raw), 4.14645, places=5)
        self.assertAlmostEqual(float(p.margin), 0.07322, places=5)
        self.assertEqual((p.batches, p.made, p.spare), (24, 48, 0))
        self.assertEqual(
            [(c.role, c.count, c.size) for c in p.pieces], [("a", 24, inches("9/2")), ("b", 24, inches("9/2"))]
        )
        self.assertAlmostEqual(float(p.cloth.value), 48 * 4.5**2)

    def test_an_odd_number_leaves_one_over(self) -> None:
        p = plan(replace(_LANTERN, count=7))
        self.assertEqual((p.batches, p.made, p.spare), (4, 8, 1))
        self.assertIn("spare_unit", [n.code for n in p.notes])

    @given(_choices)
    def test_cloth_is_kept_trimmed_or_folded_away(self, choices: Choices) -> None:
        p = plan(choices)
        u, e = float(p.target), float(choices.seam.take_up)
        kept = u * u + 2 * (2**0.5 * u * e - e * e)
        self.assertAlmostEqual(float(p.cloth.value), float(p.trimmings.value) + p.made * kept, places=6)

    @given(_choices)
    def test_waste_is_a_share(self, choices: Choices) -> None:
        self.assertTrue(0 <= plan(choices).waste_share < 1)

    @given(_choices)
    def test_no_school_plans_a_unit_too_small(self, choices: Choices) -> None:
        self.assertGreaterEqual(plan(choices).margin, inches(0))

    def test_squares_already_cut_are_taken_as_they_are(self) -> None:
        self.assertEqual(plan(replace(_LANTERN, cut=inches(5))).cut, inches(5))

    def test_squares_too_small_are_refused_with_the_smallest_that_works(self) -> None:
        with self.assertRaises(CutTooSmall) as caught:
            plan(replace(_LANTERN, cut=inches("17/4")))
        self.assertEqual(caught.exception.data["smallest"], inches("35/8"))
        plan(replace(_LANTERN, cut=inches("35/8")))
        self.assertIn("4\u00a03⁄8″", str(caught.exception))
        self.assertIn("mm", caught.exception.said.text(Style(Measure.MILLIMETRES)))

    def test_a_scant_seam_leaves_more_to_trim(self) -> None:
        scant = plan(replace(_LANTERN, stitch=inches("15/64")))
        self.assertGreater(scant.margin, plan(_LANTERN).margin)

    def test_millimetres_come_from_the_allowance_and_no_inch_rule(self) -> None:
        p = plan(Choices(mm(90), seam_allowance=mm(6), ruler_step=mm(1)))
        self.assertEqual(p.target, mm(102))
        self.assertEqual(p.cut, mm(114))  # F + 4s; the bare need is 102 + 8.485
        self.assertTrue(p.cut.on_step(mm(1)))

    def test_notes_stop_the_scissors_where_they_should(self) -> None:
        codes = {n.code: n for n in plan(replace(_LANTERN, school=School.EXACT, ruler_step=inches("1/64"))).notes}
        self.assertTrue(codes["no_margin"].serious)
        off = plan(replace(_LANTERN, finished=inches("10/3"), ruler_step=inches("1/8")))
        self.assertIn("target_off_ruler", [n.code for n in off.notes])
        self.assertIn("wider_than_ruler", [n.code for n in plan(replace(_LANTERN, finished=inches(24))).notes])


class RefusalTest(TestCase):
    def test_what_no_quilter_means(self) -> None:
        wrong = (
            ({"finished": inches(0)}, SizeOutOfRange, "finished"),
            ({"finished": inches("-1")}, SizeOutOfRange, "finished"),
            ({"finished": inches(400)}, SizeOutOfRange, "finished"),
            ({"seam_allowance": inches(0)}, SeamTooWide, "seam_allowance"),
            ({"seam_allowance": inches(2)}, SeamTooWide, "seam_allowance"),
            ({"finished": inches("1/4"), "seam_allowance": inches("3/8")}, SeamTooWide, "seam_allowance"),
            ({"stitch": inches(1)}, SeamTooWide, "stitch"),
            ({"count": 0}, CountOutOfRange, "count"),
            ({"count": 10_001}, CountOutOfRange, "count"),
        )
        for change, error, field in wrong:
            with self.subTest(change), self.assertRaises(error) as caught:
                plan(replace(_LANTERN, **change))  # type: ignore[arg-type]
            self.assertEqual(caught.exception.field, field)


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
        cuts = {o.plan.cut for o in offers(replace(_LANTERN, cut=inches(9))) if o.plan}
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
        true, wide = inches("1/4"), inches("9/32")
        row = lambda e: inches(4) * 8 - e * (2 * 7)  # noqa: E731
        self.assertEqual(row(true) - row(wide), inches("7/16"))
