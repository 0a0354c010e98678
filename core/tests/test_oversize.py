"""Schools of oversizing; the share that can be trimmed, by quadrature and by drawing lots."""

from __future__ import annotations

from math import sqrt
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from piecing.errors import NoMarginGiven, RecordsTooFew
from piecing.lengths import Length, inches, mm
from piecing.planning.room import WANTED_SHARE, QuilterRecord, room_share
from piecing.planning.schools import School, record_cuts, school_cuts
from piecing.units import Method, UnitSpec, method_for
from piecing.units.half_square_triangle import PAIR
from piecing.units.method import Cuts

from .samples import ALL_WAYS, sample

_RECORD = QuilterRecord(take_up_mean=0.27, take_up_sd=0.02, cut_sd=1 / 64, readings=9)
_QUARTER, _EIGHTH = inches("1/4"), inches("1/8")
_finished = st.fractions(min_value=1, max_value=14, max_denominator=8).map(Length.of)
_take_ups = st.sampled_from([inches("15/64"), _QUARTER, inches("17/64"), inches("9/32")])
_steps = st.sampled_from([inches("1/16"), inches("1/8"), inches("1/4"), mm(1), mm(5)])


def square_cut(school: School, finished: Length, take_up: Length, step: Length) -> Length:
    spec = sample("half_square_triangle", finished)
    cuts = school_cuts(school, PAIR, spec, _QUARTER, take_up, step, own_margin=_EIGHTH, record=_RECORD)
    return cuts["square"]


class SchoolTest(TestCase):
    def test_published_rules_of_thumb(self) -> None:
        three = inches(3)
        self.assertEqual(square_cut(School.EXACT, three, _QUARTER, _EIGHTH), inches("31/8"))
        self.assertEqual(square_cut(School.LITTLE, three, _QUARTER, _EIGHTH), inches(4))
        self.assertEqual(square_cut(School.GENEROUS, three, _QUARTER, _EIGHTH), inches("9/2"))
        published = {
            ("quarter_square_triangle", "loose_triangles"): {
                School.EXACT: "17/4",
                School.LITTLE: "9/2",
                School.GENEROUS: "5",
            },
            ("half_square_triangle", "eight"): {School.EXACT: "31/4", School.LITTLE: "8", School.GENEROUS: "9"},
        }
        for (kind, name), sizes in published.items():
            for school, size in sizes.items():
                cuts = school_cuts(school, method_for(kind, name), sample(kind, three), _QUARTER, _QUARTER, _EIGHTH)
                self.assertEqual(cuts["square"], inches(size), (kind, name, school))

    def test_published_geese(self) -> None:
        """Finishing 2 by 4: exact 5 1/4 and 2 7/8; a little, 5 1/2 and 3, with the tip where it was."""
        goose, spec = method_for("flying_goose", "four"), sample("flying_goose", inches(4))
        for school, large, small in ((School.EXACT, "21/4", "23/8"), (School.LITTLE, "11/2", "3")):
            cuts = school_cuts(school, goose, spec, _QUARTER, _QUARTER, _EIGHTH)
            self.assertEqual((cuts["large"], cuts["small"]), (inches(large), inches(small)))
            self.assertEqual(goose.margins(spec, cuts, _QUARTER, _QUARTER).top, inches(0))

    @given(_finished, _take_ups, _steps)
    def test_ones_own_margin_is_reached_and_not_by_more_than_a_step(
        self, finished: Length, take_up: Length, step: Length
    ) -> None:
        cut = square_cut(School.OWN_MARGIN, finished, take_up, step)
        margin = (cut - take_up.times_root2() - finished - _QUARTER * 2) / 2
        self.assertGreaterEqual(margin, _EIGHTH)
        self.assertLess(margin - _EIGHTH, step / 2)

    def test_a_school_that_gives_no_figure_says_what_it_needs(self) -> None:
        spec = sample("half_square_triangle")
        with self.assertRaises(NoMarginGiven):
            school_cuts(School.OWN_MARGIN, PAIR, spec, _QUARTER, _QUARTER, _EIGHTH)
        with self.assertRaises(RecordsTooFew):
            school_cuts(School.RECORDS, PAIR, spec, _QUARTER, _QUARTER, _EIGHTH)


def drawn_share(method: Method, spec: UnitSpec, cuts: Cuts, draws: int, rng: np.random.Generator) -> float:
    """The share by making ``draws`` units: a seam each, and every size off by its own across and along."""
    passed = 0
    plain = {n: float(v) for n, v in cuts.items()}
    for _ in range(draws):
        e = Length.near(rng.normal(_RECORD.take_up_mean, _RECORD.take_up_sd))
        across, along = (
            Cuts((n, Length.near(v + rng.normal(0, _RECORD.cut_sd))) for n, v in plain.items()) for _ in range(2)
        )
        wide, high = method.margins(spec, across, _QUARTER, e), method.margins(spec, along, _QUARTER, e)
        passed += min(wide.left, wide.right, high.bottom, high.top).sign >= 0
    return passed / draws


class RoomTest(TestCase):
    def test_quadrature_agrees_with_drawn_units_for_every_method(self) -> None:
        rng = np.random.default_rng(11)
        draws = 1500
        for method, spec in ALL_WAYS:
            cuts = method.minimum_cuts(spec, _QUARTER, inches("17/64"), inches("1/64"))
            share = room_share(method, spec, cuts, _QUARTER, _RECORD)
            drawn = drawn_share(method, spec, cuts, draws, rng)
            with self.subTest(f"{method.kind} {method.name}"):
                self.assertAlmostEqual(share, drawn, delta=4.5 * sqrt(0.25 / draws))

    def test_quadrature_agrees_with_very_many_units_of_the_pair_method(self) -> None:
        rng = np.random.default_rng(12)
        draws, spec = 400_000, sample("half_square_triangle")
        for cut in (inches("35/8"), inches("71/16"), inches("9/2")):
            seam = rng.normal(_RECORD.take_up_mean, _RECORD.take_up_sd, draws)
            sides = float(cut) + rng.normal(0, _RECORD.cut_sd, (2, draws)) - sqrt(2) * seam
            drawn = float(np.mean((sides >= 4.0).all(axis=0)))
            with self.subTest(cut):
                share = room_share(PAIR, spec, Cuts(square=cut), _QUARTER, _RECORD)
                self.assertAlmostEqual(share, drawn, delta=4 * sqrt(share * (1 - share) / draws) + 1e-4)

    def test_of_geese_whose_foot_and_tip_depend_on_one_cut(self) -> None:
        """What is left at the foot of a goose and above its tip come of the same two sizes, one for and one against: a hand's spread that
        is felt at both. Very many geese by their margins at the sizes as cut; each moves evenly with every size and with the seam."""
        rng, draws, inch = np.random.default_rng(13), 200_000, Length.of(1)
        hand = QuilterRecord(17 / 64, 0.02, 1 / 24, 20)
        geese = [(m, s) for m, s in ALL_WAYS if m.kind == "flying_goose" and m.name in ("four", "two_flipped_corners")]
        self.assertEqual(len(geese), 2)
        for method, spec in geese:
            cuts = method.minimum_cuts(spec, _QUARTER, inches("17/64"), inches("1/16"))

            def left(cuts: Cuts, e: Length, method: Method = method, spec: UnitSpec = spec) -> list[float]:
                return [float(x) for x in method.margins(spec, cuts, _QUARTER, e).sides]

            e = inches("17/64")
            plain = np.array(left(cuts, e))
            by_seam = np.array(left(cuts, e + inch)) - plain
            seam = rng.normal(0, hand.take_up_sd, draws)
            sides = plain[:, None] + by_seam[:, None] * seam
            for name, size in cuts.items():
                by = np.array(left(cuts.but(**{name: size + inch}), e)) - plain
                across, along = rng.normal(0, hand.cut_sd, (2, draws))
                # Left and right come of the cut across, foot and tip of the cut along.
                sides[:2] += by[:2, None] * across
                sides[2:] += by[2:, None] * along
            drawn = float((sides >= 0).all(axis=0).mean())
            with self.subTest(method.name):
                self.assertTrue(0.3 < drawn < 0.97, drawn)
                share = room_share(method, spec, cuts, _QUARTER, hand)
                self.assertAlmostEqual(share, drawn, delta=0.004)

    @settings(max_examples=60)
    @given(st.sampled_from(ALL_WAYS), _steps)
    def test_the_records_school_gives_99_in_100(self, way: tuple[Method, UnitSpec], step: Length) -> None:
        method, spec = way
        cuts = record_cuts(method, spec, _QUARTER, _RECORD, step)
        self.assertGreaterEqual(room_share(method, spec, cuts, _QUARTER, _RECORD), WANTED_SHARE)

    @given(_finished, _steps)
    def test_and_for_one_size_of_square_it_is_the_smallest(self, finished: Length, step: Length) -> None:
        spec = sample("half_square_triangle", finished)
        cuts = record_cuts(PAIR, spec, _QUARTER, _RECORD, step)
        smaller = cuts.but(square=cuts["square"] - step)
        self.assertLess(room_share(PAIR, spec, smaller, _QUARTER, _RECORD), WANTED_SHARE)

    def test_a_steadier_hand_needs_less_cloth(self) -> None:
        steady = QuilterRecord(0.25, 0.004, 1 / 256, 20)
        spec, step = sample("half_square_triangle"), inches("1/16")
        one, other = (record_cuts(PAIR, spec, _QUARTER, r, step)["square"] for r in (steady, _RECORD))
        self.assertLess(one, other)
