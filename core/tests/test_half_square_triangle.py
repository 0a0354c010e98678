"""The pair method: closed form, engine and reference figures agree."""

from __future__ import annotations

import json
from fractions import Fraction
from pathlib import Path
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from piecing.errors import UnknownChoice
from piecing.geometry.plane import area, rectangle
from piecing.geometry.sewing import trim
from piecing.lengths import Length, inches, mm
from piecing.seams import Seam
from piecing.units import method_for
from piecing.units.half_square_triangle import PAIR, sew_pair
from piecing.units.pictures import edges_of

_CASES = json.loads((Path(__file__).parent / "figures" / "units.json").read_text())["cases"]
_TOLERANCE = 0.0002

_cuts = st.fractions(min_value=2, max_value=24, max_denominator=16).map(Length.of)
_seams = st.builds(
    Seam,
    st.fractions(min_value=Fraction(3, 16), max_value=Fraction(5, 16), max_denominator=128).map(Length.of),
    st.fractions(min_value=0, max_value=Fraction(1, 32), max_denominator=128).map(Length.of),
)


def reference(kind: str, method: str) -> list[dict[str, float]]:
    return [c for c in _CASES if (c["kind"], c["method"]) == (kind, method)]


class ReferenceTest(TestCase):
    def test_there_are_reference_figures(self) -> None:
        self.assertGreaterEqual(len(reference("half_square_triangle", "pair")), 5)

    def test_both_routes_meet_the_reference_figures(self) -> None:
        for case in reference("half_square_triangle", "pair"):
            seam = Seam(Length.near(case["stitch_distance_in"]), Length.near(case["fold_in"]))
            with self.subTest(case):
                closed = float(PAIR.raw(Length.near(case["square"]), seam.take_up))
                self.assertAlmostEqual(closed, case["raw"], delta=_TOLERANCE)
                _, _, width, height = PAIR.sew(case["square"], seam).extent
                self.assertAlmostEqual(width, case["raw"], delta=_TOLERANCE)
                self.assertAlmostEqual(height, case["raw"], delta=_TOLERANCE)


class PairTest(TestCase):
    @given(_cuts, _seams)
    def test_closed_form_and_engine_agree(self, cut: Length, seam: Seam) -> None:
        unit = PAIR.sew(float(cut), seam)
        left, bottom, right, top = unit.extent
        raw = float(PAIR.raw(cut, seam.take_up))
        self.assertAlmostEqual(right - left, raw)
        self.assertAlmostEqual(top - bottom, raw)
        self.assertAlmostEqual(unit.cloth, float(cut) ** 2, msg="two units take two squares of cloth")

    @given(_cuts, _seams)
    def test_the_seam_runs_through_the_corners(self, cut: Length, seam: Seam) -> None:
        (line,) = PAIR.sew(float(cut), seam).seams
        raw = float(PAIR.raw(cut, seam.take_up))
        for x, y in (line.start, line.end):
            self.assertAlmostEqual(x, y)
        self.assertAlmostEqual(min(line.start[0], line.end[0]), 0)
        self.assertAlmostEqual(max(line.start[0], line.end[0]), raw)

    @given(_cuts, _seams)
    def test_cut_for_undoes_raw(self, cut: Length, seam: Seam) -> None:
        self.assertEqual(PAIR.cut_for(PAIR.raw(cut, seam.take_up), seam.take_up), cut)

    @given(_cuts, _seams, st.fractions(min_value=0, max_value=Fraction(1, 2), max_denominator=32).map(Length.of))
    def test_trimmings_are_what_falls_off_on_the_engine(self, cut: Length, seam: Seam, margin: Length) -> None:
        target = PAIR.raw(cut, seam.take_up) - margin * 2
        at = float(margin)
        box = rectangle(float(target), float(target), (at, at))
        _, off = trim(PAIR.sew(float(cut), seam), *edges_of(box))
        self.assertAlmostEqual(float(PAIR.trimmings(cut, target, seam.take_up)), off, places=6)

    def test_the_rule_of_thumb_has_two_hundredths_to_spare(self) -> None:
        # F + 7/8 against F + 2s + √2 s at a quarter inch: 0.0214 in.
        spare = inches("3") + inches("7/8") - PAIR.cut_for(inches("7/2"), inches("1/4"))
        self.assertAlmostEqual(float(spare), 0.0214, places=4)

    def test_a_worked_example(self) -> None:
        # Squares cut 4 1/2, seams true at 1/4: raw 4 1/2 - 0.35355 = 4.14645.
        self.assertAlmostEqual(float(PAIR.raw(inches("9/2"), inches("1/4"))), 4.14645, places=5)

    def test_a_worked_example_in_millimetres(self) -> None:
        # 115 mm squares, seams at 6 mm and a fold of 0.6 mm: 115 - √2 · 6.3 = 106.0905 mm.
        raw = PAIR.raw(mm(115), Seam(mm(6), mm("0.6")).take_up)
        self.assertAlmostEqual(float(raw) * 25.4, 106.0905, places=4)

    def test_schools_by_rule_of_thumb(self) -> None:
        self.assertEqual(PAIR.rule_size(inches(3), inches("1/4"), 1), inches(4))
        self.assertEqual(PAIR.rule_size(inches(3), inches("1/4"), 2), inches("9/2"))

    def test_a_seam_wider_at_its_end_turns_the_diagonal_off_its_corner(self) -> None:
        unit = sew_pair(4.5, 0.25, 0.3125)
        line = unit.seams[0]
        off = [abs(p[0] - p[1]) for p in (line.start, line.end)]
        self.assertGreater(max(off), 0.02)
        self.assertAlmostEqual(unit.cloth, 4.5**2)

    def test_the_two_patches_share_the_face_equally(self) -> None:
        unit = PAIR.sew(4.5, Seam(inches("1/4")))
        self.assertEqual({p.fabric for p in unit.faces}, {"a", "b"})
        sizes = {p.fabric: abs(area(p.outline)) for p in unit.faces}
        self.assertAlmostEqual(sizes["a"], sizes["b"])

    def test_an_unknown_method_is_refused_with_what_there_is(self) -> None:
        with self.assertRaises(UnknownChoice) as caught:
            method_for("half_square_triangle", "by_magic")
        self.assertIn("half_square_triangle/pair", str(caught.exception))
