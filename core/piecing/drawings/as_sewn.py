"""The block as it comes out, its errors made larger by a factor, its faults numbered.

Every unit is drawn from the engine, moved and turned in its trim as told, clipped where its seams run, and put where
the lengths before it leave it. Source: docs/theory, section 14.5.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import cos, hypot, sin
from typing import NamedTuple

import numpy as np

from ..blocks.geometry import lying, sew_unit
from ..blocks.pattern import Orientation
from ..diagnosis.faults import Fault
from ..diagnosis.model import OF_SEAM, BlockModel, Vector, course_shares
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


Levels = tuple[float, float, float]
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


Errors = Sequence[float]
"""Every error of a block in the order of its model: a plain list, since they are looked up one by one a hundred thousand times."""
_NONE = [0.0] * len(OF_SEAM)


class _Sides(NamedTuple):
    """For each side of a unit, where its seam runs, from the unit's middle: at its lower or left end, its middle, its other end."""

    left: Levels
    bottom: Levels
    right: Levels
    top: Levels


def _placing(model: BlockModel, errors: Errors) -> Vector:
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
                reached += errors[model.of_unit(number, "width" if axis == 0 else "height")]
                for side in ("left", "right") if axis == 0 else ("top", "bottom"):
                    seam = cell.seam(side)
                    if seam is not None:
                        edge = cell.box[SIDES.index(side)] if axis == 0 else cell.box[1 if side == "bottom" else 3]
                        at = (edge, level) if axis == 0 else (level, edge)
                        reached -= _taken_at(model, seam, at, errors)
    return found


@dataclass(frozen=True)
class _Unit:
    """One unit where it comes to lie: where its seams run from its middle, and how far its middle is moved at three levels."""

    cell: PlacedUnit
    lines: _Sides
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
            x = self.lines.right[ky] if x > 0 else -self.lines.left[ky]
        if abs(abs(y) - self.cell.height / 2) < 1e-4:
            y = self.lines.top[kx] if y > 0 else -self.lines.bottom[kx]
        return self.put((x, y))

    def straight(self, fine: float) -> bool:
        """Whether no seam of it bends by more than ``fine`` inches in its middle."""
        bends = (*self.lines, self.across, self.up)
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


def _units(model: BlockModel, errors: Errors) -> list[_Unit]:
    moved = _placing(model, errors).tolist()
    s, found = float(model.allowance), []
    for cell in model.places.cells:
        first = model.of_unit(cell.number, "width")
        half = (cell.width / 2 + s + errors[first] / 2, cell.height / 2 + s + errors[first + 1] / 2)
        lines = _edges(model, cell, errors, *half)
        courses = [_course(cell, axis, lines, moved[cell.number][axis], s) for axis in (0, 1)]
        found.append(_Unit(cell, lines, courses[0], courses[1], half))
    return found


def faces_of(model: BlockModel, errors: Vector) -> tuple[Face, ...]:
    """Every patch one sees, in inches, y upward; the block's lower left finished corner at the origin when all is true."""
    listed = errors.tolist()
    return tuple(f for unit in _units(model, listed) for f in _faces(model, unit, listed))


def _faces(model: BlockModel, unit: _Unit, errors: Errors, fine: float = 0.0) -> Iterator[Face]:
    cell, layout = unit.cell, model.places.layout
    spec = layout.specs(layout.part(model.places.finished))[cell.number]
    first = model.of_unit(cell.number, "across")
    across, up, turn = errors[first : first + 3]
    angle = turn / hypot(cell.width / 2, cell.height / 2)
    trim = (across, up, angle)
    for seen, fabric in _patches(spec, cell.orientation, float(model.allowance), trim, unit.lines, unit.straight(fine)):
        yield Face((tuple(unit.put(p) for p in seen), fabric, cell.number))


@lru_cache(maxsize=2048)
def _patches(
    spec: UnitSpec, orientation: Orientation, s: float, trim: tuple[float, float, float], lines: _Sides, straight: bool
) -> tuple[tuple[Polygon, str], ...]:
    """What one sees of a unit, counted from its middle: its patches moved and turned (inches, radians) by ``trim``, clipped where its
    seams run. Remembered: in a block that is true all units of a kind are alike."""
    across, up, angle = trim
    sine, cosine = sin(angle), cos(angle)
    found = []
    for outline, fabric in _upright_faces(spec, orientation, s):
        moved = tuple((x * cosine - y * sine + across, x * sine + y * cosine + up) for x, y in outline)
        found += [(seen, fabric) for seen in (_within if straight else _quarters)(moved, lines)]
    return tuple(found)


@lru_cache(maxsize=512)
def _upright_faces(spec: UnitSpec, orientation: Orientation, s: float) -> tuple[tuple[Polygon, str], ...]:
    """The patches of a unit as it lies, counted from its middle, with cloth to spare round it."""
    piece = sew_unit(spec, s + _PAD) or sew_unit(spec, s)
    if piece is None:
        return ()
    left, bottom, right, top = piece.extent
    x, y = (left + right) / 2, (bottom + top) / 2
    return tuple(
        (tuple(lying((p[0] - x, p[1] - y), orientation) for p in face.outline), face.fabric) for face in piece.faces
    )


def _edges(model: BlockModel, cell: PlacedUnit, errors: Errors, half_w: float, half_h: float) -> _Sides:
    s = float(model.allowance)
    left, bottom, right, top = cell.box
    x, y = cell.middle
    ends = (
        ((left, bottom), (left, y), (left, top)),
        ((left, bottom), (x, bottom), (right, bottom)),
        ((right, bottom), (right, y), (right, top)),
        ((left, top), (x, top), (right, top)),
    )

    def runs(side: str, half: float, ends: Sequence[Point]) -> Levels:
        seam = cell.seam(side)
        # To a billionth of an inch: where a unit lies in its block leaves more in the last digit of its size.
        if seam is None:
            return (round(half, 9),) * 3
        low, middle, high = (round(half - s - _taken_at(model, seam, p, errors), 9) for p in ends)
        return low, middle, high

    sides = zip(_Sides._fields, (half_w, half_h, half_w, half_h), ends, strict=True)
    return _Sides(*(runs(side, half, at) for side, half, at in sides))


def _taken_at(model: BlockModel, seam: int, at: Point, errors: Errors) -> float:
    """What a seam takes up beyond the allowance where it passes a point."""
    base = model.of_seam(seam, "mean")
    of_seam = errors[base : base + len(OF_SEAM)]
    if of_seam == _NONE:
        return 0.0
    mean, start, middle, end, fold = of_seam
    a, b, c = course_shares(min(1.0, max(0.0, model.places.seams[seam].along(at))))
    return mean + a * start + b * middle + c * end + fold * (model.folds[seam] if model.folds else 1.0) / 2


def _course(cell: PlacedUnit, axis: int, lines: _Sides, moved: Sequence[float], s: float) -> list[float]:
    """How far the unit's middle is moved at three levels, so that its left (lower) seam lies where it should."""
    side = ("left", "bottom")[axis]
    edge = cell.box[axis] - (0.0 if cell.seam(side) is not None else s)
    return [edge + moved[k] + lines[axis][k] for k in range(3)]


def _at(course: Sequence[float], along: float, half: float) -> float:
    t = along / half
    return course[1] + (course[2] - course[1]) * t if t > 0 else course[1] + (course[1] - course[0]) * t


def _within(outline: Polygon, lines: _Sides) -> list[Polygon]:
    """The outline clipped where straight seams run."""
    left, bottom, right, top = lines
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


def _quarters(outline: Polygon, lines: _Sides) -> list[Polygon]:
    """The outline clipped where the seams run, quarter by quarter: a seam bends in its middle only."""
    left, bottom, right, top = lines
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
    drawn = (errors * factor).tolist()
    units = _units(model, drawn)
    s, places = float(model.allowance), model.places
    w, h = places.width, places.height
    fine = _FINE * max(w, h)
    for unit in units:
        for outline, fabric, _ in _faces(model, unit, drawn, fine):
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
    return sketch.to_drawing(
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
