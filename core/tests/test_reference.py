"""Every reference figure, by closed form and by simulation."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any
from unittest import TestCase

from piecing.geometry.sewing import Needle
from piecing.lengths import ZERO, Length, inches
from piecing.units import method_for
from piecing.units.method import Cuts
from piecing.units.simulate import simulate_unit
from piecing.units.spec import UnitSpec

from .samples import sample

_CASES: list[dict[str, Any]] = json.loads((Path(__file__).parent / "figures" / "units.json").read_text())["cases"]
_TOLERANCE = 0.0002
_NAMES = {
    "large_square": "large",
    "small_square": "small",
    "square": "square",
    "strip": "strip",
    "centre": "centre",
    "triangle_square": "triangle",
}


def exact(figure: float) -> Length:
    """A reference figure as the fraction it was rounded from: cuts lie on 1/64, seams and folds on 1/128."""
    return inches(round(figure * 64)) / 64 if abs(figure * 64 - round(figure * 64)) < 1e-6 else Length.near(figure)


def parts(case: dict[str, Any]) -> tuple[UnitSpec, Cuts]:
    """The unit and the cuts of a case. The raw size does not depend on what it is to finish at, but the trim box does."""
    kind, method = case["kind"], case["method"]
    # A few of these schools and shapes are sized by what the raw unit can give.
    smallest = min(case.get("raw", 99.0), case.get("raw_height", 99.0) * 2, case.get("raw_width", 99.0))
    finished = inches(int((smallest - 0.75) * 8)) / 8
    spec = sample(
        kind, finished * 2 if kind == "flying_goose" and finished * 2 < inches(int(case["raw_width"])) else finished
    )
    if kind == "strip_split_square":
        strip = exact(case["strip"]) - inches("1/2")
        spec = UnitSpec(kind, finished, finished, spec.part_fabrics, strip=max(strip, inches("1/16")))
    cuts = Cuts((_NAMES[name], exact(case[name])) for name in _NAMES if name in case)
    if method == "strip":
        cuts = cuts.but(strip_length=inches(20))
    return spec, cuts


class ReferenceTest(TestCase):
    def test_there_are_figures_for_eight_ways(self) -> None:
        self.assertEqual(len({(c["kind"], c["method"]) for c in _CASES}), 8)

    def test_closed_forms(self) -> None:
        for case in _CASES:
            method = method_for(case["kind"], case["method"])
            spec, cuts = parts(case)
            take_up = Length.near(case["stitch_distance_in"] + case["fold_in"] / 2)
            width, height = (float(x) for x in method.raw(spec, cuts, inches("1/4"), take_up))
            with self.subTest(case):
                self.assertAlmostEqual(width, case.get("raw", case.get("raw_width")), delta=_TOLERANCE)
                self.assertAlmostEqual(height, case.get("raw", case.get("raw_height")), delta=_TOLERANCE)
                if "tip_clearance" in case:
                    top = method.margins(spec, cuts, inches("1/4"), take_up).top
                    self.assertAlmostEqual(float(top) + 0.25, case["tip_clearance"], delta=_TOLERANCE)

    def test_simulation(self) -> None:
        for case in _CASES:
            method = method_for(case["kind"], case["method"])
            spec, cuts = parts(case)
            needle = Needle.of(case["stitch_distance_in"], case["fold_in"])
            unit = simulate_unit(method, spec, {n: float(v) for n, v in cuts.items()}, 0.25, needle)
            room, (left, bottom, right, top) = unit.room, unit.raw.extent
            width, height = right - left, top - bottom
            if case["kind"] == "strip_split_square":  # the strip's ends stick out past the corners
                (x1, y1), (x2, y2) = unit.box[0], unit.box[2]
                width, height = x2 - x1 + room["left"] + room["right"], y2 - y1 + room["bottom"] + room["top"]
            with self.subTest(case):
                self.assertAlmostEqual(width, case.get("raw", case.get("raw_width")), delta=_TOLERANCE)
                self.assertAlmostEqual(height, case.get("raw", case.get("raw_height")), delta=_TOLERANCE)
                if "tip_clearance" in case:
                    self.assertAlmostEqual(room["top"] + 0.25, case["tip_clearance"], delta=_TOLERANCE)


class WholeCaseTest(TestCase):
    def test_a_missing_figure_would_be_noticed(self) -> None:
        self.assertTrue(all({"kind", "method", "stitch_distance_in", "fold_in"} <= set(c) for c in _CASES))
        self.assertGreater(len(_CASES), 40)
        self.assertEqual(ZERO, inches(0))
