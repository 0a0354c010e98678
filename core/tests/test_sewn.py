"""The block as sewn: its linear model against polygons cut and folded by shapely, and against sums drawn one by one."""

from __future__ import annotations

from math import hypot, sqrt
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import LineString, Point, Polygon
from shapely.affinity import affine_transform

from piecing.blocks.library import library_keys, library_pattern
from piecing.blocks.pattern import laid
from piecing.lengths import inches
from piecing.diagnosis.causes import parameters_of, scatter_of, shape_of
from piecing.diagnosis.faults import faults_of
from piecing.diagnosis.model import FeatureKind, BlockModel, model_of
from piecing.diagnosis.picture import as_sewn, faces_of
from piecing.diagnosis.places import places_of
from piecing.diagnosis.whatif import errors_of, outcomes, seam_costs

from .sewers import Hands, Truth, bench

_S = 0.25
_NEAR = 0.001
small = st.floats(-1 / 32, 1 / 32)


def block(name: str, finished: str = "12") -> BlockModel:
    return model_of(places_of(laid(library_pattern(name)), inches(finished)), inches("1/4"))


def reflected(a: tuple[float, float], b: tuple[float, float]) -> list[float]:
    """Shapely's affine matrix of folding over the line through two points."""
    dx, dy = b[0] - a[0], b[1] - a[1]
    n = dx * dx + dy * dy
    xx, xy = (dx * dx - dy * dy) / n, 2 * dx * dy / n
    return [xx, xy, xy, -xx, a[0] - xx * a[0] - xy * a[1], a[1] - xy * a[0] + xx * a[1]]


def through(matrix: list[float], p: tuple[float, float]) -> tuple[float, float]:
    found = affine_transform(Point(p), matrix)
    return found.x, found.y


def joined_row(widths: list[float], height: float, seams: list[tuple[float, float]]) -> tuple[float, float]:
    """Units sewn side by side: length along the finished upper and lower edge, raw edge to raw edge.

    Each unit is laid face down on the one before, raw edges together, stitched from ``seams`` (start at the top, end at the
    bottom, inches from the raw edge) and folded open: two reflections of shapely's. Lengths are those of the cloth between
    the lines, along each unit's own edges.
    """
    low, high = _S, height - _S
    placed: list[Polygon] = []
    stitches: list[tuple[tuple[float, float], tuple[float, float]]] = []
    frame = [1.0, 0.0, 0.0, 1.0, 0.0, 0.0]
    for k, width in enumerate(widths):
        here = affine_transform(Polygon([(0, 0), (width, 0), (width, height), (0, height)]), frame)
        placed.append(here)
        if k == len(widths) - 1:
            break
        start, end = seams[k]
        raw = through(frame, (width, 0)), through(frame, (width, height))
        stitch = through(frame, (width - end, low)), through(frame, (width - start, high))
        stitches.append(stitch)
        # The next unit, its left edge on this one's right edge, turned over onto it and folded open again.
        beside = [frame[0], frame[1], frame[2], frame[3], *through(frame, (width, 0))]
        turned = reflected(*raw)
        opened = reflected(*stitch)

        def chained(
            p: tuple[float, float],
            beside: list[float] = beside,
            turned: list[float] = turned,
            opened: list[float] = opened,
        ) -> tuple[float, float]:
            return through(opened, through(turned, through(beside, p)))

        o, x, y = chained((0, 0)), chained((1, 0)), chained((0, 1))
        frame = [x[0] - o[0], y[0] - o[0], x[1] - o[1], y[1] - o[1], o[0], o[1]]
    lengths = []
    for level in (high, low):
        total = 0.0
        for k, shape in enumerate(placed):
            corners = list(shape.exterior.coords)
            a, b = _at(corners[0], corners[3], level / height), _at(corners[1], corners[2], level / height)
            line = LineString([a, b])
            ends = [a, b]
            for n, stitch in ((0, stitches[k - 1] if k else None), (1, stitches[k] if k < len(stitches) else None)):
                if stitch:
                    met = line.intersection(LineString([_beyond(*stitch), _beyond(*reversed(stitch))]))
                    ends[n] = (met.x, met.y)
            total += hypot(ends[1][0] - ends[0][0], ends[1][1] - ends[0][1])
        lengths.append(total)
    return lengths[0], lengths[1]


def _at(a: tuple[float, ...], b: tuple[float, ...], share: float) -> tuple[float, float]:
    return a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share


def _beyond(a: tuple[float, float], b: tuple[float, float]) -> tuple[float, float]:
    return b[0] + (b[0] - a[0]), b[1] + (b[1] - a[1])


class GeometryTest(TestCase):
    @settings(max_examples=30, deadline=None)
    @given(st.lists(small, min_size=5, max_size=5), st.lists(st.tuples(small, small), min_size=4, max_size=4))
    def test_a_rows_edges_against_folded_polygons(self, trims: list[float], seams: list[tuple[float, float]]) -> None:
        model = block("basket", "15")
        errors = np.zeros(model.errors)
        row = sorted((c for c in model.places.cells if c.row == 0), key=lambda c: c.column)
        self.assertEqual(len(row), 5)
        for c, trim in zip(row, trims, strict=True):
            errors[model.of_unit(c.number, "width")] = trim
        for c, (start, end) in zip(row, seams, strict=False):
            seam = c.seam("right")
            assert seam is not None
            for what, by in (("start", start), ("middle", (start + end) / 2), ("end", end)):
                errors[model.of_seam(seam, what)] = by
        deviations = model.deviations(errors)
        size = row[0].width + 2 * _S
        top, bottom = joined_row([size + t for t in trims], size, [(_S + a, _S + b) for a, b in seams])
        for edge, length in (("top", top), ("bottom", bottom)):
            n = model.find(f"row:0:{edge}")
            assert n is not None
            self.assertAlmostEqual(model.features[n].nominal + deviations[n], length, delta=_NEAR)

    @settings(max_examples=60, deadline=None)
    @given(small, small, small, small, st.integers(0, 40))
    def test_a_corner_tip_against_lines_that_meet(
        self, upright: float, level: float, shift: float, wide: float, pick: int
    ) -> None:
        model = block("four_wheels", "12")
        tips = [f for f in model.features if f.kind is FeatureKind.CORNER_TIP]
        f = tips[pick % len(tips)]
        cell = model.places.cells[f.cell]
        down, across = f.edge.split()
        errors = np.zeros(model.errors)
        for side, by in ((across, upright), (down, level)):
            seam = cell.seam(side)
            assert seam is not None
            errors[model.of_seam(seam, "mean")] += by
        errors[model.of_unit(f.cell, "width")] = errors[model.of_unit(f.cell, "height")] = wide
        errors[model.of_unit(f.cell, "across")] = shift * cell.shift[0]
        errors[model.of_unit(f.cell, "up")] = shift * cell.shift[1]
        n = model.find(f.key)
        assert n is not None
        # The unit from its middle: trimmed box, two seam lines, and the diagonal moved with the design.
        half = cell.width / 2 + _S + wide / 2
        sx, sy = (-1 if across == "left" else 1), (-1 if down == "bottom" else 1)
        corner = (sx * (half - _S - upright), sy * (half - _S - level))
        mx, my = shift * cell.shift[0], shift * cell.shift[1]
        diagonal = LineString([(mx - 9 * sx, my - 9 * sy), (mx + 9 * sx, my + 9 * sy)])
        met = diagonal.intersection(LineString([(-9, corner[1]), (9, corner[1])]))
        gap = (met.x - corner[0]) * sx
        self.assertAlmostEqual(float(model.deviations(errors)[n]), gap, delta=_NEAR)

    def test_patches_fill_the_block_when_all_is_true(self) -> None:
        for name in library_keys():
            model = block(name)
            faces = faces_of(model, np.zeros(model.errors))
            area = sum(Polygon(o).area for o, _, _ in faces)
            wide, high = (x + 2 * _S for x in (model.places.width, model.places.height))
            with self.subTest(name):
                self.assertAlmostEqual(area, wide * high, delta=1e-3)

    def test_drawn_faults_stand_where_the_figures_say(self) -> None:
        model = block("wake", "11/2")
        errors = errors_of(model, {"seam": 1 / 16})
        goose = next(b.number for b in model.places.batches if b.kind == "flying_goose")
        tip = next(t for t in model.places.edge_tips if model.places.cells[t.cell].batch == goose)
        cell = model.places.cells[tip.cell]
        found = [Polygon(o) for o, role, n in faces_of(model, errors) if n == cell.number and role == "a"]
        # The tip is cut off by 1/16: along the seam, the goose shows a flat end twice as long (its sides lie at 45 degrees).
        top = max(y for p in found for _, y in p.exterior.coords)
        flat = [x for p in found for x, y in p.exterior.coords if abs(y - top) < 1e-6]
        self.assertAlmostEqual(max(flat) - min(flat), 2 / 16, delta=0.002)


class KindsOfTipTest(TestCase):
    def test_a_seam_too_wide_everywhere_cuts_edge_tips_and_leaves_corner_tips_sharp(self) -> None:
        for name in ("wake", "lantern", "sawtooth_star", "geese_in_a_whirl"):
            model = block(name)
            deviations = model.deviations(errors_of(model, {"seam": 1 / 32, "fold": 1 / 32}))
            by_kind = {
                k: [d for f, d in zip(model.features, deviations, strict=True) if f.kind is k] for k in FeatureKind
            }
            with self.subTest(name):
                np.testing.assert_allclose(by_kind[FeatureKind.EDGE_TIP], -3 / 64, atol=1e-9)
                np.testing.assert_allclose(by_kind[FeatureKind.CORNER_TIP], 0, atol=1e-9)
                if name in ("lantern", "wake"):
                    # Where one side of a crossing has more seams before it than the other, a wide seam makes a step.
                    np.testing.assert_allclose(by_kind[FeatureKind.CROSSING], 0, atol=1e-9)

    def test_a_row_of_eight_loses_seven_sixteenths(self) -> None:
        model = block("wake", "11/2")  # eight units down
        n = model.find("column:0:left")
        assert n is not None
        self.assertAlmostEqual(float(model.deviations(errors_of(model, {"seam": 1 / 32}))[n]), -7 / 16)
        across, down, seams_across, seams_down = seam_costs(model)
        self.assertEqual((seams_across, seams_down), (0, 7))
        self.assertAlmostEqual(down, -7 / 16)
        self.assertEqual(across, 0)

    def test_trimmed_off_the_diagonal_sizes_stay_and_corner_tips_break_both_ways(self) -> None:
        model = block("pinwheel", "8")
        deviations = model.deviations(errors_of(model, {"shift:0": 1 / 16}))
        tips = [d for f, d in zip(model.features, deviations, strict=True) if f.kind is FeatureKind.CORNER_TIP]
        np.testing.assert_allclose(np.abs(tips), sqrt(2) / 16, atol=1e-9)
        rows = [d for f, d in zip(model.features, deviations, strict=True) if f.kind is FeatureKind.ROW]
        np.testing.assert_allclose(rows, 0, atol=1e-12)
        said = " ".join(str(f.said) for f in faults_of(model, deviations))
        self.assertIn("the diagonal runs into", said)

    def test_seams_that_drift_at_their_end_bow_a_row(self) -> None:
        model = block("lantern")
        deviations = model.deviations(errors_of(model, {"end": 1 / 32}))
        top, bottom = (model.find(f"row:0:{e}") for e in ("top", "bottom"))
        assert top is not None
        assert bottom is not None
        self.assertAlmostEqual(float(deviations[top]), 0, delta=1e-3)
        self.assertAlmostEqual(float(deviations[bottom]), -2 * 2 / 32, delta=1e-3)


class SumsTest(TestCase):
    def test_every_figure_is_what_a_hand_adds_up(self) -> None:
        for name, finished in (("lantern", "21/2"), ("wake", "11/2"), ("pinwheel", "8"), ("four_wheels", "12")):
            b = bench(name, finished)
            hands = Hands(
                b,
                Truth(seam=1 / 32, start=1 / 64, end=-1 / 64, trim=1 / 48, shift=1 / 32, tip=1 / 40),
                np.random.default_rng(4),
            )
            errors = np.zeros(b.model.errors)
            for c in b.model.places.cells:
                u = hands.units[c.number]
                of = (
                    u["w"],
                    u["h"],
                    u["dx"] + u["shift"] * c.shift[0],
                    u["dy"] + u["shift"] * c.shift[1],
                    u["turn"],
                    u["tip"],
                )
                for what, by in zip(("width", "height", "across", "up", "turn", "tip"), of, strict=True):
                    errors[b.model.of_unit(c.number, what)] = by
            for k, parts in enumerate(hands.seams):
                for what, by in zip(("mean", "start", "middle", "end", "fold"), parts, strict=True):
                    errors[b.model.of_seam(k, what)] = by
            deviations = b.model.deviations(errors)
            for f, d in zip(b.model.features, deviations, strict=True):
                with self.subTest(name, feature=f.key):
                    self.assertAlmostEqual(f.nominal + float(d), hands.true_feature(f.key), delta=3e-4)


class ManyBlocksTest(TestCase):
    def test_monte_carlo_agrees_with_added_variances(self) -> None:
        model = block("four_wheels")
        found = outcomes(model, {"seam": 1 / 64}, np.random.default_rng(3), 20_000)
        deviations = model.deviations(errors_of(model, {"seam": 1 / 64}))
        rows = [n for n, f in enumerate(model.features) if f.kind is FeatureKind.ROW]
        # The mean of n draws strays by sd / sqrt(n), the spread by sd / sqrt(2 n): four of each.
        self.assertAlmostEqual(
            found.width.mean, float(np.mean(deviations[rows])), delta=4 * found.width.rss / 20_000**0.5
        )
        self.assertAlmostEqual(found.width.sd / found.width.rss, 1, delta=4 / 40_000**0.5)
        self.assertGreater(found.width.worst, 2 * found.width.rss)
        self.assertEqual(sum(found.histogram), 20_000)

    def test_tips_cut_by_a_wide_seam_and_none_by_steady_hands(self) -> None:
        model = block("wake", "11/2")
        wide = outcomes(model, {"seam": 1 / 16}, np.random.default_rng(3), 4_000)
        true = outcomes(model, {}, np.random.default_rng(3), 4_000, scatter=0.2)
        assert wide.tips_cut is not None
        assert true.tips_cut is not None
        self.assertGreater(wide.tips_cut, 0.85)
        self.assertLess(true.tips_cut, 0.01)
        self.assertGreater(wide.blocks_small, 0.99)

    def test_the_same_seed_gives_the_same_blocks(self) -> None:
        model = block("lantern")
        first, again = (outcomes(model, {"trim:0": 1 / 32}, np.random.default_rng(9), 3_000) for _ in range(2))
        self.assertEqual(first, again)


class ModelTest(TestCase):
    def test_every_arrangement_has_its_figures(self) -> None:
        for name in library_keys():
            model = block(name)
            with self.subTest(name):
                self.assertEqual(model.matrix.shape, (len(model.features), model.errors))
                self.assertEqual(shape_of(model).shape, (model.errors, len(parameters_of(model))))
                self.assertEqual(len({f.key for f in model.features}), len(model.features))
                self.assertTrue((scatter_of(model) > 0).all())

    def test_the_drawing_says_how_much_larger_and_how_many_faults(self) -> None:
        model = block("lantern")
        errors = errors_of(model, {"seam": 1 / 32})
        faults = faults_of(model, model.deviations(errors))
        drawing = as_sewn(model, errors, faults, 4)
        self.assertIn("4 times as large", str(drawing.alt))
        self.assertEqual(sum(m.role == "fault-point" for m in drawing.marks), len(faults))
