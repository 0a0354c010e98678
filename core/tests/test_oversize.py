"""Schools of oversizing; the share that can be trimmed, by quadrature and by drawing lots."""

from __future__ import annotations

from math import sqrt
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from piecing.errors import NoMarginGiven, RecordsTooFew
from piecing.lengths import Length, inches, mm
from piecing.oversize import WANTED_SHARE, QuilterRecord, School, record_cut, room_share, school_cut
from piecing.units.half_square_triangle import PAIR

_RECORD = QuilterRecord(take_up_mean=0.27, take_up_sd=0.02, cut_sd=1 / 64, readings=9)
_QUARTER = inches("1/4")
_finished = st.fractions(min_value=1, max_value=14, max_denominator=8).map(Length.of)
_take_ups = st.sampled_from([inches("15/64"), _QUARTER, inches("17/64"), inches("9/32")])
_steps = st.sampled_from([inches("1/16"), inches("1/8"), inches("1/4"), mm(1), mm(5)])


def cut_of(school: School, finished: Length, take_up: Length, step: Length) -> Length:
    return school_cut(school, PAIR, finished, _QUARTER, take_up, step, own_margin=inches("1/8"), record=_RECORD)


class SchoolTest(TestCase):
    def test_published_rules_of_thumb(self) -> None:
        three, eighth = inches(3), inches("1/8")
        self.assertEqual(cut_of(School.EXACT, three, _QUARTER, eighth), inches("31/8"))
        self.assertEqual(cut_of(School.LITTLE, three, _QUARTER, eighth), inches(4))
        self.assertEqual(cut_of(School.GENEROUS, three, _QUARTER, eighth), inches("9/2"))

    @given(_finished, _take_ups, _steps)
    def test_cut_is_the_smallest_mark_that_reaches_the_target(
        self, finished: Length, take_up: Length, step: Length
    ) -> None:
        cut, target = cut_of(School.EXACT, finished, take_up, step), finished + _QUARTER * 2
        self.assertTrue(cut.on_step(step))
        self.assertGreaterEqual(PAIR.raw(cut, take_up), target)
        self.assertLess(PAIR.raw(cut - step, take_up), target)

    @given(_finished, _take_ups, _steps)
    def test_a_higher_school_never_leaves_less(self, finished: Length, take_up: Length, step: Length) -> None:
        exact, little, generous = (
            cut_of(s, finished, take_up, step) for s in (School.EXACT, School.LITTLE, School.GENEROUS)
        )
        self.assertLessEqual(exact, little)
        self.assertLessEqual(little, generous)

    @given(_finished, _take_ups, _steps)
    def test_ones_own_margin_is_reached_and_not_by_more_than_a_step(
        self, finished: Length, take_up: Length, step: Length
    ) -> None:
        cut = cut_of(School.OWN_MARGIN, finished, take_up, step)
        margin = (PAIR.raw(cut, take_up) - finished - _QUARTER * 2) / 2
        self.assertGreaterEqual(margin, inches("1/8"))
        self.assertLess(margin - inches("1/8"), step / 2)

    def test_a_school_that_gives_no_figure_says_what_it_needs(self) -> None:
        with self.assertRaises(NoMarginGiven):
            school_cut(School.OWN_MARGIN, PAIR, inches(3), _QUARTER, _QUARTER, inches("1/8"))
        with self.assertRaises(RecordsTooFew):
            school_cut(School.RECORDS, PAIR, inches(3), _QUARTER, _QUARTER, inches("1/8"))


class RoomTest(TestCase):
    def test_quadrature_agrees_with_drawn_units(self) -> None:
        rng = np.random.default_rng(11)
        draws = 200_000
        for cut in (inches("35/8"), inches("71/16"), inches("9/2")):
            seam = rng.normal(_RECORD.take_up_mean, _RECORD.take_up_sd, draws)
            sides = float(cut) + rng.normal(0, _RECORD.cut_sd, (2, draws)) - sqrt(2) * seam
            drawn = float(np.mean((sides >= 4.0).all(axis=0)))
            with self.subTest(cut):
                share = room_share(PAIR, cut, inches(4), _RECORD)
                self.assertAlmostEqual(share, drawn, delta=4 * sqrt(share * (1 - share) / draws) + 1e-4)

    @given(_finished, _steps)
    def test_the_records_school_is_the_smallest_that_gives_99_in_100(self, finished: Length, step: Length) -> None:
        target = finished + _QUARTER * 2
        cut = record_cut(PAIR, target, _RECORD, step)
        self.assertTrue(cut.on_step(step))
        self.assertGreaterEqual(room_share(PAIR, cut, target, _RECORD), WANTED_SHARE)
        self.assertLess(room_share(PAIR, cut - step, target, _RECORD), WANTED_SHARE)

    def test_a_steadier_hand_needs_less_cloth(self) -> None:
        steady = QuilterRecord(0.25, 0.004, 1 / 256, 20)
        target, step = inches(4), inches("1/16")
        self.assertLess(record_cut(PAIR, target, steady, step), record_cut(PAIR, target, _RECORD, step))
