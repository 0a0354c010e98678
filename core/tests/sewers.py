"""Simulated quilters at a block: hidden truth, units trimmed and seams sewn one by one, read off a ruler on request.

Shares nothing with the diagnosis but the craft's own equations (docs/theory.md, section 7): every unit and every seam is
drawn anew, figures are added up in inches by hand and rounded to the ruler's marks.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from math import hypot, sqrt

import numpy as np

from piecing.blocks.library import library_pattern
from piecing.blocks.pattern import Layout, laid
from piecing.lengths import Length, inches
from piecing.planning import Choices, plan
from piecing.diagnosis.inference import Inference
from piecing.diagnosis.model import BlockModel, model_of
from piecing.diagnosis.places import places_of
from piecing.diagnosis.readings import RawSizes, ReadingKind, Reading, raw_sizes
from piecing.units import methods_of

__all__ = ["CAUSES", "Bench", "Truth", "bench", "every_reading", "quilter"]

CAUSES = ("seam", "trim", "shift", "tip", "cut")
_S = 0.25


@dataclass(frozen=True)
class Truth:
    """Errors in inches; those of units are of one batch."""

    seam: float = 0.0
    start: float = 0.0
    end: float = 0.0
    fold: float = 3 / 128
    trim: float = 0.0
    shift: float = 0.0
    tip: float = 0.0
    cut: float = 0.0
    stretch: float = 0.0


@dataclass(frozen=True)
class Bench:
    """A block to be measured, and what its batches' raw sizes should be."""

    model: BlockModel
    raw: dict[int, RawSizes] = field(default_factory=dict)
    batch: int = 0


def bench(name: str, finished: str, batch: int = 0) -> Bench:
    """A block of the library at a finished size; ``batch`` is the one that things go wrong with."""
    layout: Layout = laid(library_pattern(name))
    model = model_of(places_of(layout, inches(finished)), inches("1/4"))
    raw = {}
    for b in model.places.batches:
        if not b.plain:
            raw[b.number] = raw_sizes(plan(Choices(b.spec, methods_of(b.kind)[0].name)))
    return Bench(model, raw, batch)


def quilter(rng: np.random.Generator, cause: str, size: float, causes: tuple[str, ...]) -> Truth:
    """One error of ``size``, either way; the others a third of it at most, fold and drift as people have them."""
    of = {c: rng.uniform(-size / 3, size / 3) for c in causes}
    of[cause] = size * rng.choice((-1, 1))
    return Truth(
        **of,
        fold=rng.normal(3 / 128, 1 / 160),
        start=rng.normal(0, 1 / 64),
        end=rng.normal(0, 1 / 64),
        stretch=rng.normal(0, 1 / 96),
    )


def every_reading(b: Bench, found: Inference) -> list[Reading]:
    """Every reading there is of units and seams, in the order of the work."""
    one = inches(1)
    tips = [t for t in b.model.places.corner_tips if b.model.places.cells[t.cell].batch == 0]
    fresh = min(tips, key=lambda t: (sum(r.cell == t.cell for r in found.readings), t.cell)).cell
    ends = [f"{t.down} {t.across}" for t in tips if t.cell == fresh]
    kinds = [ReadingKind.CUT, ReadingKind.RAW_WIDTH, ReadingKind.RAW_HEIGHT, ReadingKind.WIDTH, ReadingKind.HEIGHT]
    kinds += [ReadingKind.DIAGONAL_RISING, ReadingKind.DIAGONAL_FALLING]
    options = [Reading(k, one, batch=0) for k in kinds]
    if b.model.places.batches[0].tips:
        options.append(Reading(ReadingKind.CLEARANCE, one, batch=0))
    options += [Reading(ReadingKind.MISS, one, cell=fresh, corner=end) for end in ends[:2]]
    options += [Reading(ReadingKind.STITCH, one, spot=spot) for spot in ("start", "middle", "end")]
    return [*options, Reading(ReadingKind.STRIP_TEST, one, whole=inches("7/2"))]


class Hands:
    """Takes any reading asked for, on fresh units and seams, of the true block."""

    def __init__(self, b: Bench, truth: Truth, rng: np.random.Generator, mark: int = 32) -> None:
        self.bench, self.truth, self.rng, self.mark = b, truth, rng, mark
        places = b.model.places
        n, t = rng.normal, truth
        self.units = [self._unit(c.batch) for c in places.cells]
        self.seams = [
            (t.seam + n(0, 1 / 96), t.start + n(0, 1 / 96), n(0, 1 / 128), t.end + n(0, 1 / 96), t.fold + n(0, 1 / 256))
            for _ in places.seams
        ]

    def _unit(self, batch: int) -> dict[str, float]:
        n, t = self.rng.normal, self.truth
        wrong = batch == self.bench.batch
        trim, shift, tip = (t.trim, t.shift, t.tip) if wrong else (0.0, 0.0, 0.0)
        pulled = t.stretch / 2**1.5 if wrong else 0.0
        return {
            "w": trim + pulled + n(0, 1 / 64),
            "h": trim + pulled + n(0, 1 / 64),
            "shift": shift,
            "dx": n(0, 1 / 96),
            "dy": n(0, 1 / 96),
            "turn": n(0, 1 / 128),
            "tip": tip + n(0, 1 / 64),
        }

    def _read(self, x: float) -> Length:
        return Length.of(round((x + self.rng.normal(0, 1 / 128)) * self.mark)) / self.mark

    def taken(self, r: Reading) -> Reading:
        """The reading asked for, as the ruler shows it."""
        from dataclasses import replace

        if r.kind is ReadingKind.STRIP_TEST:
            e = _S + self.truth.seam + self.truth.fold / 2 + self.rng.normal(0, 1 / 96 / sqrt(2))
            strips = 1.5 + self.rng.normal(0, 1 / 128, 3)
            return replace(r, value=self._read(strips[1] - 2 * e), whole=self._read(float(strips.sum()) - 4 * e))
        return replace(r, value=self._read(self.true(r)))

    def true(self, r: Reading) -> float:
        """What a perfect ruler would show."""
        model, n = self.bench.model, self.rng.normal
        places, t = model.places, self.truth
        if r.kind is ReadingKind.STITCH:
            spot = {"start": t.start + n(0, 1 / 96), "end": t.end + n(0, 1 / 96), "middle": n(0, 1 / 128)}[r.spot]
            return _S + t.seam + n(0, 1 / 96) + spot + n(0, 1 / 128)
        if r.feature:
            return self.true_feature(r.feature)
        cell = places.cells[r.cell] if r.cell >= 0 else next(c for c in places.cells if c.batch == r.batch)
        unit = self.units[r.cell] if r.cell >= 0 else self._unit(cell.batch)
        w, h = cell.width + 2 * _S + unit["w"], cell.height + 2 * _S + unit["h"]
        wrong = cell.batch == self.bench.batch
        match r.kind:
            case ReadingKind.WIDTH:
                return float(w)
            case ReadingKind.HEIGHT:
                return float(h)
            case ReadingKind.CUT:
                return self.bench.raw[cell.batch].cut + (t.cut if wrong else 0.0) + float(n(0, 1 / 64))
            case ReadingKind.RAW_WIDTH:
                raw = self.bench.raw[cell.batch]
                e = t.seam + t.fold / 2 + n(0, 1 / 96)
                cut = (t.cut if wrong else 0.0) + n(0, 1 / 64)
                return raw.width + raw.gain * cut - raw.loss * e + (t.stretch / 2**1.5 if wrong else 0.0)
            case ReadingKind.CLEARANCE:
                tip = next(x for x in places.edge_tips if x.cell == cell.number)
                return _S + unit["tip"] - self._outward(cell, unit, tip.side)
            case ReadingKind.MISS:
                # Perpendicular distance of the unit's own corner from the diagonal's line, by its distance in the plane.
                return self._miss(cell, unit, r.corner) / sqrt(2)
            case _:
                pulled = (t.stretch / 2 if wrong else 0.0) * (1 if cell.shift[0] * cell.shift[1] < 0 else -1)
                return hypot(w, h) + pulled
        raise AssertionError(r.kind)

    def _outward(self, cell, unit: dict[str, float], side: str) -> float:  # type: ignore[no-untyped-def]
        dx = unit["dx"] + unit["shift"] * cell.shift[0]
        dy = unit["dy"] + unit["shift"] * cell.shift[1]
        return {"left": -dx, "right": dx, "bottom": -dy, "top": dy}[side]

    def _miss(self, cell, unit: dict[str, float], corner: str) -> float:  # type: ignore[no-untyped-def]
        """r2 o: how far along the lower or upper edge the diagonal, drawn out, passes the corner, inward positive turned."""
        down, across = corner.split()
        sx, sy = (-1 if across == "left" else 1), (-1 if down == "bottom" else 1)
        half = hypot(cell.width / 2, cell.height / 2)
        # The design's corner point, moved and turned, against the trimmed corner.
        cx, cy = sx * cell.width / 2, sy * cell.height / 2
        phi = unit["turn"] / half
        px = cx - phi * cy + unit["dx"] + unit["shift"] * cell.shift[0]
        py = cy + phi * cx + unit["dy"] + unit["shift"] * cell.shift[1]
        qx, qy = cx + sx * unit["w"] / 2, cy + sy * unit["h"] / 2
        inward_x, inward_y = -sx * (px - qx), -sy * (py - qy)
        return inward_y - inward_x

    def _take_up(self, seam: int, t: float) -> float:
        mean, start, middle, end, fold = self.seams[seam]
        course = start + (middle - start) * 2 * t if t < 0.5 else middle + (end - middle) * (2 * t - 1)
        return mean + course + fold / 2

    def true_feature(self, key: str) -> float:
        """A figure of the joined block, added up by hand."""
        model = self.bench.model
        places = model.places
        f = model.features[model.find(key) or 0]
        if f.kind.value == "edge_tip":
            cell = places.cells[f.cell]
            tip = next(x for x in places.edge_tips if x.cell == f.cell and x.side == f.edge)
            t = self.units[f.cell]["tip"] - self._outward(cell, self.units[f.cell], f.edge)
            return t - self._take_up(f.seam, places.seams[f.seam].along(tip.at))
        if f.kind.value == "corner_tip":
            cell = places.cells[f.cell]
            down, across = f.edge.split()
            upright, level = cell.seam(across), cell.seam(down)
            assert upright is not None
            assert level is not None
            at = f.at
            ex = self._take_up(upright, places.seams[upright].along(at))
            ey = self._take_up(level, places.seams[level].along(at))
            return ex - ey + self._miss(cell, self.units[f.cell], f.edge)
        if f.kind.value in ("row", "column"):
            return self._length(f.kind.value == "column", f.row, f.edge)
        return self._step(f)

    def _length(self, upright: bool, track: int, edge: str) -> float:
        """Along one edge of a row or column: the units that touch that line, less what their seams take up there."""
        places, pattern = self.bench.model.places, self.bench.model.places.layout.pattern
        part = places.width / float(pattern.width)
        before = [float(t) * part for t in (pattern.columns if upright else pattern.rows)]
        near, far = sum(before[:track]), sum(before[: track + 1])
        level = (near if edge == "left" else far) if upright else places.height - (near if edge == "top" else far)
        total = 2 * _S
        for k, cell in enumerate(places.cells):
            low, high = (cell.box[0], cell.box[2]) if upright else (cell.box[1], cell.box[3])
            touches = abs((low if edge in ("left", "bottom") else high) - level) < 1e-6
            if not touches:
                continue
            total += (cell.height + self.units[k]["h"]) if upright else (cell.width + self.units[k]["w"])
            for side in ("top", "bottom") if upright else ("left", "right"):
                seam = cell.seam(side)
                if seam is not None:
                    at = (level, cell.box[1]) if upright else (cell.box[0], level)
                    total -= self._take_up(seam, min(1.0, max(0.0, places.seams[seam].along(at))))
        return total

    def _step(self, f) -> float:  # type: ignore[no-untyped-def]
        places = self.bench.model.places
        seam = places.seams[f.seam]
        sums = []
        for side in ("right", "left") if seam.upright else ("bottom", "top"):
            total = 0.0
            beside = [c for c in places.cells if c.seam(side) == f.seam]
            beside.sort(key=lambda c: -c.box[3] if seam.upright else c.box[0])
            for n, c in enumerate(beside):
                start = -c.box[1] if seam.upright else c.box[2]
                limit = -f.at[1] if seam.upright else f.at[0]
                if start > limit + 1e-6:
                    break
                total += self.units[c.number]["h" if seam.upright else "w"]
                for other in ("top", "bottom") if seam.upright else ("left", "right"):
                    k = c.seam(other)
                    if k is not None and not (n == 0 and other in ("top", "left")):
                        total -= self._take_up(
                            k,
                            places.seams[k].along(
                                (seam.start[0], c.box[1]) if seam.upright else (c.box[0], seam.start[1])
                            ),
                        )
            sums.append(total)
        return sums[0] - sums[1]
