"""The block as sewn: its linear model against polygons cut and folded by shapely, and against sums drawn one by one."""

from __future__ import annotations

from dataclasses import replace
from math import hypot, sqrt
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import LineString, Point, Polygon
from shapely.affinity import affine_transform

from piecing.blocks.editing import whole_mirrored, whole_turned
from piecing.blocks.library import library_keys, library_pattern
from piecing.blocks.pattern import Pattern, layout_of
from piecing.diagnosis.causes import Cause, Parameter, parameters_of, scatter_of, shape_of
from piecing.diagnosis.equations import equation_of
from piecing.diagnosis.faults import faults_of
from piecing.diagnosis.model import BlockModel, FeatureKind, model_of
from piecing.diagnosis.placing import block_geometry
from piecing.diagnosis.reading_kinds import ReadingKind as K
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.whatif import errors_of, outcomes, seam_costs
from piecing.drawings.as_sewn import as_sewn, faces_of
from piecing.lengths import inches

from .polygons import BLOCKS, Sewn, Table, Truth, Ways, sewn, table

_S = 0.25
_NEAR = 0.001
small = st.floats(-1 / 32, 1 / 32)


def block(name: str, finished: str = "12") -> BlockModel:
    return model_of(block_geometry(layout_of(library_pattern(name)), inches(finished)), inches("1/4"))


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
            n = model.find(f"row 1, {edge}")
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
        mx, my = (shift * v for v in cell.toward(model.places.batches[cell.batch].slips[0]))
        errors[model.of_unit(f.cell, "across")] = mx
        errors[model.of_unit(f.cell, "up")] = my
        n = model.find(f.key)
        assert n is not None
        # The unit from its middle: trimmed box, two seam lines, and the diagonal moved with the design.
        half = cell.width / 2 + _S + wide / 2
        sx, sy = (-1 if across == "left" else 1), (-1 if down == "bottom" else 1)
        corner = (sx * (half - _S - upright), sy * (half - _S - level))
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
        n = model.find("column 1, left")
        assert n is not None
        self.assertAlmostEqual(float(model.deviations(errors_of(model, {"seam": 1 / 32}))[n]), -7 / 16)
        costs = seam_costs(model)
        self.assertEqual((costs.seams_across, costs.seams_down), (0, 7))
        self.assertAlmostEqual(costs.down, 7 / 16)
        self.assertEqual(costs.across, 0)

    def test_trimmed_off_the_diagonal_sizes_stay_and_corner_tips_break_both_ways(self) -> None:
        model = block("pinwheel", "8")
        deviations = model.deviations(errors_of(model, {"shift-0": 1 / 16}))
        tips = [d for f, d in zip(model.features, deviations, strict=True) if f.kind is FeatureKind.CORNER_TIP]
        np.testing.assert_allclose(np.abs(tips), sqrt(2) / 16, atol=1e-9)
        rows = [d for f, d in zip(model.features, deviations, strict=True) if f.kind is FeatureKind.ROW]
        np.testing.assert_allclose(rows, 0, atol=1e-12)
        said = " ".join(str(f.said) for f in faults_of(model, deviations))
        self.assertIn("the diagonal runs into", said)

    def test_seams_that_drift_at_their_end_bow_a_row(self) -> None:
        model = block("lantern")
        deviations = model.deviations(errors_of(model, {"end": 1 / 32}))
        top, bottom = (model.find(f"row 1, {e}") for e in ("top", "bottom"))
        assert top is not None
        assert bottom is not None
        self.assertAlmostEqual(float(deviations[top]), 0, delta=1e-3)
        self.assertAlmostEqual(float(deviations[bottom]), -2 * 2 / 32, delta=1e-3)


class PolygonsTest(TestCase):
    """Every cause against polygons that are cut, clipped along the stitching and measured: no equation is shared."""

    def test_every_figure_of_eight_blocks_under_every_cause(self) -> None:
        size = 1 / 64
        for name, finished in BLOCKS:
            t = table(name, finished)
            for p in parameters_of(t.model):
                if p.cause is Cause.CUT or p.axis:
                    continue
                truth = replace(Truth(batch=max(p.batch, 0), fold=0.0, scant=False), **{p.cause.value: size})
                made = sewn(t, truth, Ways(scatter=0.0, cutting=0.0), np.random.default_rng(0))
                for seam in made.seams:
                    course = [truth.start, truth.start / 2, 0, truth.end / 2, truth.end]
                    seam.at, seam.fold = _S + truth.seam + np.array(course), truth.fold
                deviations = t.model.deviations(errors_of(t.model, {p.key: size}))
                with self.subTest(name, cause=p.key):
                    for f, d in zip(t.model.features, deviations, strict=True):
                        self.assertAlmostEqual(made.feature(f.key) - f.nominal, float(d), delta=2e-3, msg=f.key)
                    self._units(t, made, p, size)

    def _units(self, t: Table, made: Sewn, p: Parameter, size: float) -> None:
        """What is read on single units as they lie."""
        places, one = t.model.places, inches(1)
        for c in places.cells:
            if c.batch != p.batch:
                continue
            corners = [f"{x.down} {x.across}" for x in places.corner_tips if x.cell == c.number]
            kinds = [Reading(K(k), one, unit=c.key) for k in ("width", "height", "diagonal_rising", "diagonal_falling")]
            kinds += [Reading(K.MISS, one, unit=c.key, corner=corner) for corner in corners]
            if places.batches[c.batch].tips:
                kinds.append(Reading(K.CLEARANCE, one, unit=c.key))
            for r in kinds:
                e = equation_of(r, t.model, inches("1/32"))
                said = float(e.of_causes[parameters_of(t.model).index(p)]) * size
                self.assertAlmostEqual(made.true(r) - e.nominal, said, delta=1e-3, msg=f"{r.kind} {c.key} {r.corner}")


class TurningTest(TestCase):
    def test_every_figure_turns_and_mirrors_with_the_block(self) -> None:
        # A habit of the hand is one with the unit: turned by a quarter or mirrored, the block shows the same faults, turned.
        for name in library_keys():
            pattern = library_pattern(name)
            first = _spread_of(pattern)
            ways = {"half": whole_turned(pattern, 2), "mirrored": whole_mirrored(pattern)}
            if pattern.width == pattern.height:
                ways |= {"quarter": whole_turned(pattern, 1), "three": whole_turned(pattern, 3)}
            for how, other in ways.items():
                with self.subTest(name, how=how):
                    found = _spread_of(other)
                    self.assertEqual(first.keys(), found.keys())
                    for key, value in first.items():
                        np.testing.assert_allclose(found[key], value, atol=1e-9, err_msg=str(key))


def _spread_of(pattern: Pattern) -> dict[tuple[str, str], list[float]]:
    """For every cause of the units: the sizes of what it does to each kind of tip, in order, sides and signs set aside."""
    model = model_of(block_geometry(layout_of(pattern), inches("12")), inches("1/4"))
    found = {}
    for p in parameters_of(model):
        if p.batch < 0 or p.cause is Cause.CUT:
            continue
        deviations = model.deviations(errors_of(model, {p.key: 1.0}))
        for kind in (FeatureKind.EDGE_TIP, FeatureKind.CORNER_TIP):
            of = sorted(abs(float(d)) for f, d in zip(model.features, deviations, strict=True) if f.kind is kind)
            batch = model.places.batches[p.batch].key
            found[f"{batch} {p.cause} {p.axis}", str(kind)] = of
    return found


class ManyBlocksTest(TestCase):
    def test_monte_carlo_agrees_with_added_variances(self) -> None:
        model = block("four_wheels")
        found = outcomes(model, {"seam": 1 / 64}, 3, 20_000)
        deviations = model.deviations(errors_of(model, {"seam": 1 / 64}))
        rows = [n for n, f in enumerate(model.features) if f.kind is FeatureKind.ROW]
        # The mean of n draws strays by sd / sqrt(n), the spread by sd / sqrt(2 n): four of each.
        self.assertAlmostEqual(
            found.width.mean, float(np.mean(deviations[rows])), delta=4 * found.width.rss / 20_000**0.5
        )
        self.assertAlmostEqual(found.width.sd / found.width.rss, 1, delta=4 / 40_000**0.5)
        self.assertGreater(found.width.worst, 2 * found.width.rss)
        self.assertEqual(sum(found.histogram), 20_000)

    def test_the_histogram_says_where_the_width_as_planned_lies(self) -> None:
        """The bars' middles, weighed by their blocks, have the mean; true blocks stray to both sides alike; with every seam 1/16 wide a
        block with three seams across is 3/8 short, and none is as wide as planned."""
        model = block("four_wheels")
        for causes in ({}, {"seam": 1 / 16}):
            found = outcomes(model, causes, 3, 20_000)
            step = (found.widest - found.narrowest) / len(found.histogram)
            middles = found.narrowest + step * (np.arange(len(found.histogram)) + 0.5)
            self.assertAlmostEqual(float(middles @ found.histogram) / 20_000, found.width.mean, delta=step / 4)
            if causes:
                self.assertAlmostEqual(found.width.mean, -3 / 8, delta=1 / 256)
                self.assertLess(found.widest, 0)
                self.assertIsNone(found.planned_at)
            else:
                assert found.planned_at is not None
                self.assertAlmostEqual(found.planned_at, 0.5, delta=0.15)

    def test_tips_cut_by_a_wide_seam_and_none_by_steady_hands(self) -> None:
        model = block("wake", "11/2")
        wide = outcomes(model, {"seam": 1 / 16}, 3, 4_000)
        true = outcomes(model, {}, 3, 4_000, scatter=0.2)
        assert wide.tips_cut is not None
        assert true.tips_cut is not None
        self.assertGreater(wide.tips_cut, 0.85)
        self.assertLess(true.tips_cut, 0.01)
        self.assertGreater(wide.blocks_small, 0.99)

    def test_the_same_seed_gives_the_same_blocks(self) -> None:
        model = block("lantern")
        first, again = (outcomes(model, {"trim-0": 1 / 32}, 9, 3_000) for _ in range(2))
        self.assertEqual(first, again)

    def test_a_cause_moves_all_of_them_and_none_apart(self) -> None:
        """Two seams a row, each 1/32 deeper on both sides: an eighth off every block, and chance as it was."""
        model = block("lantern")
        true, wide = outcomes(model, {}, 9, 3_000), outcomes(model, {"seam": 1 / 32}, 9, 3_000)
        self.assertAlmostEqual(wide.width.mean - true.width.mean, -1 / 8, places=6)
        self.assertAlmostEqual(wide.width.sd, true.width.sd, places=6)
        self.assertNotEqual(outcomes(model, {}, 10, 3_000).width.mean, true.width.mean)
        # As many as are not kept are drawn one part after another, and are the same hands.
        many = outcomes(model, {}, 9, 200_000)
        self.assertAlmostEqual(many.width.sd, true.width.sd, delta=4 * true.width.sd / (2 * 3_000) ** 0.5)


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
