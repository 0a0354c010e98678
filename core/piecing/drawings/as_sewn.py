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
from ..diagnosis.faults import Fault
from ..diagnosis.model import OF_UNIT, BlockModel, Responses, Vector, across, course_shares
from ..diagnosis.places import PlacedUnit
from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Line, Point, Polygon, clip
from ..messages import Message

__all__ = ["Face", "as_sewn", "faces_of"]

_MOST_NUMBERS = 40
_PAD = 0.6
"""Inches of cloth drawn beyond the allowance, so that a moved design still fills its unit."""


class Face(tuple[Polygon, str, int]):
    """Outline, fabric role and number of the unit."""

    __slots__ = ()


@lru_cache(maxsize=64)
def _placing(model: BlockModel) -> Vector:
    """(cells, 2, 3, errors): how far each unit's left edge at its bottom, middle and top, and its lower edge at its left,
    middle and right, lie beyond where they should, inches."""
    places = model.places
    rows = Responses(places)
    found = np.zeros((len(places.cells), 2, 3, rows.size))
    for c in places.cells:
        for axis in (0, 1):
            low, high = (c.box[1], c.box[3]) if axis == 0 else (c.box[0], c.box[2])
            for k, share in enumerate((1e-3, 0.5, 1 - 1e-3)):
                level = low + share * (high - low)
                row = found[c.number, axis, k]
                for other in places.crossing(level, axis == 1):
                    if other.box[axis] < c.box[axis] - 1e-6:
                        across(rows, row, other, level, axis == 1)
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

    @property
    def outline(self) -> Polygon:
        """The eight points round what one sees of it."""
        left, bottom, right, top = self.cell.box
        x, y = self.cell.middle
        part_fabrics = (
            (left, bottom),
            (x, bottom),
            (right, bottom),
            (right, y),
            (right, top),
            (x, top),
            (left, top),
            (left, y),
        )
        return tuple(self.seam_point(p) for p in part_fabrics)


def _units(model: BlockModel, errors: Vector) -> list[_Unit]:
    moved = np.einsum("caje,e->caj", _placing(model), errors)
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


def _faces(model: BlockModel, unit: _Unit, errors: Vector) -> Iterator[Face]:
    cell, s = unit.cell, float(model.allowance)
    layout_cell = model.places.layout.cells[cell.number]
    spec = layout_cell.spec(model.places.layout.part(model.places.finished))
    piece = sewn(spec, s + _PAD) or sewn(spec, s)
    if piece is None:
        return
    own = [float(v) for v in errors[model.of_unit(cell.number, "width") :][: len(OF_UNIT)]]
    left, bottom, right, top = piece.extent
    about = ((left + right) / 2, (bottom + top) / 2)
    angle = own[4] / hypot(cell.width / 2, cell.height / 2)
    for face in piece.faces:
        points = []
        for p in face.outline:
            x, y = lying((p[0] - about[0], p[1] - about[1]), layout_cell.orientation)
            x, y = x * cos(angle) - y * sin(angle) + own[2], x * sin(angle) + y * cos(angle) + own[3]
            points.append((x, y))
        for quarter in _quarters(tuple(points), unit.lines):
            yield Face((tuple(unit.put(p) for p in quarter), face.fabric, cell.number))


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
    return mean + a * start + b * middle + c * end + fold / 2


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
    for unit in units:
        for outline, fabric, _ in _faces(model, unit, errors * factor):
            sketch.polygon("patch", outline, fabric)
    for unit in units:
        sketch.polygon("joined", unit.outline)
    s, places = float(model.allowance), model.places
    w, h = places.width, places.height
    sketch.polygon("target", ((-s, -s), (w + s, -s), (w + s, h + s), (-s, h + s)))
    numbers: list[Point] = []
    for f in faults[:_MOST_NUMBERS]:
        at = f.feature.at if f.feature.cell < 0 else units[f.feature.cell].seam_point(f.feature.at)
        at = _beside(at, numbers, 0.055 * max(w, h))
        numbers.append(at)
        sketch.mark("fault-point", at)
        sketch.dimension(at, at, at, Message("{n}", n=f.number))
    points = [p for u in units for p in u.outline]
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
