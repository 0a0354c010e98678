"""The block as it comes out, its errors made larger by a factor, its faults numbered.

Every unit is drawn from the engine, moved and turned in its trim as told, clipped where its seams run, and put where
the lengths before it leave it. Source: docs/theory, section 14.5.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import cos, hypot, sin

import numpy as np

from ..blocks.geometry import lying, sewn
from ..blocks.pattern import Orientation
from ..diagnosis.faults import Fault
from ..diagnosis.model import OF_UNIT, BlockModel, Vector, course_shares
from ..diagnosis.places import SIDES, PlacedUnit
from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Line, Point, Polygon, clip
from ..messages import Message
from ..units import UnitSpec

__all__ = ["Face", "as_sewn", "faces_of"]

_MOST_NUMBERS = 40
_PAD = 0.6
"""Inches of cloth drawn beyond the allowance, so that a moved design still fills its unit."""
_FINE = 1 / 2000
"""A bend of so small a share of the block is less than a dot of a screen, and drawn straight."""


class Face(tuple[Polygon, str, int]):
    """Outline, fabric role and number of the unit."""

    __slots__ = ()


Spot = tuple[int, int, int, float]
"""A unit by its number, an axis, which of three levels along its edge, and that level in inches."""


@lru_cache(maxsize=64)
def _courses(model: BlockModel) -> tuple[tuple[tuple[Spot, ...], ...], ...]:
    """(axes, levels): along every straight line at which an edge of some unit is put, the units that it crosses, in order: their
    left edges at their bottom, middle and top, their lower edges at their left, middle and right."""
    places = model.places
    found: list[tuple[tuple[Spot, ...], ...]] = []
    for axis in (0, 1):
        levels: dict[float, list[tuple[int, int, float]]] = {}
        for c in places.cells:
            low, high = (c.box[1], c.box[3]) if axis == 0 else (c.box[0], c.box[2])
            for k, share in enumerate((1e-3, 0.5, 1 - 1e-3)):
                level = low + share * (high - low)
                levels.setdefault(round(level, 6), []).append((c.number, k, level))
        lines = []
        for put in levels.values():
            level = put[0][2]
            asked = {number: k for number, k, _ in put}
            crossed = sorted(places.crossing(level, axis == 1), key=lambda c: c.box[axis])
            lines.append(tuple((c.number, axis, asked.get(c.number, -1), level) for c in crossed))
        found.append(tuple(lines))
    return tuple(found)


def _placing(model: BlockModel, errors: Vector) -> Vector:
    """(cells, 2, 3): how far each unit's left edge at its bottom, middle and top, and its lower edge at its left, middle and
    right, lie beyond where they should, inches: the sum of what the units before it are too wide or too high."""
    places = model.places
    found = np.zeros((len(places.cells), 2, 3))
    for lines in _courses(model):
        for line in lines:
            reached = 0.0
            for number, axis, k, level in line:
                cell = places.cells[number]
                if k >= 0:
                    found[number, axis, k] = reached
                reached += float(errors[model.of_unit(number, "width" if axis == 0 else "height")])
                for side in ("left", "right") if axis == 0 else ("top", "bottom"):
                    seam = cell.seam(side)
                    if seam is not None:
                        edge = cell.box[SIDES.index(side)] if axis == 0 else cell.box[1 if side == "bottom" else 3]
                        at = (edge, level) if axis == 0 else (level, edge)
                        reached -= _taken(model, seam, at, errors)
    return found


@dataclass(frozen=True)
class _Unit:
    """One unit where it comes to lie: where its seams run from its middle, and how far its middle is moved at three levels."""

    cell: PlacedUnit
    lines: dict[str, tuple[float, float, float]]
    across: list[float]
    up: list[float]
    half: Point

    def put(self, p: Point) -> Point:
        """A point of the unit, counted from its middle, in the block."""
        return (float(p[0] + _at(self.across, p[1], self.half[1])), float(p[1] + _at(self.up, p[0], self.half[0])))

    def seam_point(self, at: Point) -> Point:
        """Where a point on the finished unit's edge comes to lie: on the seam that runs there."""
        x, y = at[0] - self.cell.middle[0], at[1] - self.cell.middle[1]
        kx, ky = (1 + (x > 1e-6) - (x < -1e-6)), (1 + (y > 1e-6) - (y < -1e-6))
        if abs(abs(x) - self.cell.width / 2) < 1e-4:
            x = self.lines["right"][ky] if x > 0 else -self.lines["left"][ky]
        if abs(abs(y) - self.cell.height / 2) < 1e-4:
            y = self.lines["top"][kx] if y > 0 else -self.lines["bottom"][kx]
        return self.put((x, y))

    def straight(self, fine: float) -> bool:
        """Whether no seam of it bends by more than ``fine`` inches in its middle."""
        bends = (*self.lines.values(), self.across, self.up)
        return all(abs(b[1] - (b[0] + b[2]) / 2) <= fine for b in bends)

    def outline(self, fine: float = 0.0) -> Polygon:
        """The eight points round what one sees of it; its four corners where nothing bends by more than ``fine`` inches."""
        left, bottom, right, top = self.cell.box
        x, y = self.cell.middle
        corners = ((left, bottom), (right, bottom), (right, top), (left, top))
        if self.straight(fine):
            return tuple(self.seam_point(p) for p in corners)
        middles = ((x, bottom), (right, y), (x, top), (left, y))
        return tuple(self.seam_point(p) for both in zip(corners, middles, strict=True) for p in both)


def _units(model: BlockModel, errors: Vector) -> list[_Unit]:
    moved = _placing(model, errors)
    s, found = float(model.allowance), []
    for cell in model.places.cells:
        own = errors[model.of_unit(cell.number, "width") :][:2]
        half = (cell.width / 2 + s + float(own[0]) / 2, cell.height / 2 + s + float(own[1]) / 2)
        lines = _edges(model, cell, errors, *half)
        courses = [_course(cell, axis, lines, moved[cell.number][axis], s) for axis in (0, 1)]
        found.append(_Unit(cell, lines, courses[0], courses[1], half))
    return found


def faces_of(model: BlockModel, errors: Vector) -> tuple[Face, ...]:
    """Every patch one sees, in inches, y upward; the block's lower left finished corner at the origin when all is true."""
    return tuple(f for unit in _units(model, errors) for f in _faces(model, unit, errors))


def _faces(model: BlockModel, unit: _Unit, errors: Vector, fine: float = 0.0) -> Iterator[Face]:
    cell, s = unit.cell, float(model.allowance)
    layout_cell = model.places.layout.cells[cell.number]
    spec = layout_cell.spec(model.places.layout.part(model.places.finished))
    own = [float(v) for v in errors[model.of_unit(cell.number, "width") :][: len(OF_UNIT)]]
    angle = own[4] / hypot(cell.width / 2, cell.height / 2)
    sine, cosine, straight = sin(angle), cos(angle), unit.straight(fine)
    for outline, fabric in _upright_faces(spec, layout_cell.orientation, s):
        moved = tuple((x * cosine - y * sine + own[2], x * sine + y * cosine + own[3]) for x, y in outline)
        for seen in _within(moved, unit.lines) if straight else _quarters(moved, unit.lines):
            yield Face((tuple(unit.put(p) for p in seen), fabric, cell.number))


@lru_cache(maxsize=512)
def _upright_faces(spec: UnitSpec, orientation: Orientation, s: float) -> tuple[tuple[Polygon, str], ...]:
    """The patches of a unit as it lies, counted from its middle, with cloth to spare round it."""
    piece = sewn(spec, s + _PAD) or sewn(spec, s)
    if piece is None:
        return ()
    left, bottom, right, top = piece.extent
    x, y = (left + right) / 2, (bottom + top) / 2
    return tuple(
        (tuple(lying((p[0] - x, p[1] - y), orientation) for p in face.outline), face.fabric) for face in piece.faces
    )


def _edges(
    model: BlockModel, cell: PlacedUnit, errors: Vector, half_w: float, half_h: float
) -> dict[str, tuple[float, float, float]]:
    """For each side, where its seam runs, from the unit's middle, at the side's lower or left end, middle and other end."""
    s = float(model.allowance)
    x, y = cell.middle
    found = {}
    for side, half, ends in (
        ("left", half_w, [(cell.box[0], y2) for y2 in (cell.box[1], y, cell.box[3])]),
        ("right", half_w, [(cell.box[2], y2) for y2 in (cell.box[1], y, cell.box[3])]),
        ("bottom", half_h, [(x2, cell.box[1]) for x2 in (cell.box[0], x, cell.box[2])]),
        ("top", half_h, [(x2, cell.box[3]) for x2 in (cell.box[0], x, cell.box[2])]),
    ):
        seam = cell.seam(side)
        if seam is None:
            found[side] = (half, half, half)
            continue
        found[side] = tuple(half - s - _taken(model, seam, p, errors) for p in ends)  # type: ignore[assignment]
    return found


def _taken(model: BlockModel, seam: int, at: Point, errors: Vector) -> float:
    """What a seam takes up beyond the allowance where it passes a point."""
    t = min(1.0, max(0.0, model.places.seams[seam].along(at)))
    base = model.of_seam(seam, "mean")
    mean, start, middle, end, fold = (float(v) for v in errors[base : base + 5])
    a, b, c = course_shares(t)
    return mean + a * start + b * middle + c * end + fold * (model.folds[seam] if model.folds else 1.0) / 2


def _course(
    cell: PlacedUnit,
    axis: int,
    lines: dict[str, tuple[float, float, float]],
    moved: Vector,
    s: float,
) -> list[float]:
    """How far the unit's middle is moved at three levels, so that its left (lower) seam lies where it should."""
    side = ("left", "bottom")[axis]
    edge = cell.box[axis] - (0.0 if cell.seam(side) is not None else s)
    return [edge + float(moved[k]) + lines[side][k] for k in range(3)]


def _at(course: Sequence[float], along: float, half: float) -> float:
    t = along / half
    return course[1] + (course[2] - course[1]) * t if t > 0 else course[1] + (course[1] - course[0]) * t


def _within(outline: Polygon, lines: dict[str, tuple[float, float, float]]) -> list[Polygon]:
    """The outline clipped where straight seams run."""
    left, right, bottom, top = (lines[k] for k in ("left", "right", "bottom", "top"))
    w, h = max(*left, *right), max(*bottom, *top)
    rest = outline
    for line in (
        Line((-left[2], h), (-left[0], -h)),
        Line((right[0], -h), (right[2], h)),
        Line((-w, -bottom[0]), (w, -bottom[2])),
        Line((w, top[2]), (-w, top[0])),
    ):
        rest = clip(rest, line) if rest else ()
    return [rest] if rest else []


def _quarters(outline: Polygon, lines: dict[str, tuple[float, float, float]]) -> list[Polygon]:
    """The outline clipped where the seams run, quarter by quarter: a seam bends in its middle only."""
    left, right, bottom, top = (lines[k] for k in ("left", "right", "bottom", "top"))
    w, h = max(*left, *right), max(*bottom, *top)
    cuts = (
        (
            Line((0, -1), (0, 1)),
            Line((1, 0), (-1, 0)),
            Line((-left[1], 0), (-left[0], -h)),
            Line((-w, -bottom[0]), (0, -bottom[1])),
        ),
        (
            Line((0, 1), (0, -1)),
            Line((1, 0), (-1, 0)),
            Line((right[0], -h), (right[1], 0)),
            Line((0, -bottom[1]), (w, -bottom[2])),
        ),
        (
            Line((0, 1), (0, -1)),
            Line((-1, 0), (1, 0)),
            Line((right[1], 0), (right[2], h)),
            Line((w, top[2]), (0, top[1])),
        ),
        (
            Line((0, -1), (0, 1)),
            Line((-1, 0), (1, 0)),
            Line((-left[2], h), (-left[1], 0)),
            Line((0, top[1]), (-w, top[0])),
        ),
    )
    found = []
    for half_planes in cuts:
        rest = outline
        for line in half_planes:
            rest = clip(rest, line) if rest else ()
        if rest:
            found.append(rest)
    return found


def _beside(at: Point, taken: Sequence[Point], apart: float) -> Point:
    """The point itself, or the next one to its left where no number stands yet."""
    x, y = at
    while any(abs(x - p) < apart and abs(y - q) < apart for p, q in taken):
        x -= apart
    return x, y


def as_sewn(model: BlockModel, errors: Vector, faults: Sequence[Fault] = (), factor: float = 1.0) -> Drawing:
    """The drawing, errors ``factor`` times as large; the outline it should have stands around it."""
    sketch = Sketch()
    units = _units(model, errors * factor)
    s, places = float(model.allowance), model.places
    w, h = places.width, places.height
    fine = _FINE * max(w, h)
    for unit in units:
        for outline, fabric, _ in _faces(model, unit, errors * factor, fine):
            sketch.polygon("patch", outline, fabric)
    outlines = [unit.outline(fine) for unit in units]
    for outline in outlines:
        sketch.polygon("joined", outline)
    sketch.polygon("target", ((-s, -s), (w + s, -s), (w + s, h + s), (-s, h + s)))
    numbers: list[Point] = []
    for f in faults[:_MOST_NUMBERS]:
        at = f.feature.at if f.feature.cell < 0 else units[f.feature.cell].seam_point(f.feature.at)
        at = _beside(at, numbers, 0.055 * max(w, h))
        numbers.append(at)
        sketch.mark("fault-point", at)
        sketch.dimension(at, at, at, Message("{n}", n=f.number))
    points = [p for outline in outlines for p in outline]
    xs, ys = [x for x, _ in points] + [-s, w + s], [y for _, y in points] + [-s, h + s]
    pad = 0.045 * max(w, h)
    return sketch.drawn(
        (min(xs) - pad, min(ys) - pad, max(xs) + pad, max(ys) + pad),
        Message(
            "{name} as sewn, its errors drawn {times}: {faults}.",
            name=places.layout.pattern.name,
            times="as they are" if factor == 1 else f"{factor:g} times as large",
            faults="no fault to be seen"
            if not faults
            else "one fault"
            if len(faults) == 1
            else f"{len(faults)} faults",
        ),
    )
