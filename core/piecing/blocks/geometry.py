"""Where the parts and seams of every unit lie in a block; inches, y upward.

Every outline comes from a unit's own design or from the engine. Source: docs/theory, section 12.3.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from ..errors import PlanError
from ..geometry.plane import Point, Polygon, area, rectangle, rotated, sides_of
from ..geometry.sewing import Needle, Piece
from ..lengths import Length
from ..units import UnitSpec, kind_of, methods_of
from ..units.design import Part
from ..units.simulate import simulate_unit
from .pattern import Cell, Layout, Orientation

__all__ = ["UnitSeam", "cell_middle", "inner_seams", "lying", "placed_parts", "sew_unit"]


@lru_cache(maxsize=4096)
def placed_parts(spec: UnitSpec, orientation: Orientation) -> tuple[Part, ...]:
    """The parts of a unit as it lies, about its own middle, in inches."""
    design = kind_of(spec.kind).design(spec)
    about = (design.width / 2, design.height / 2)

    def moved(p: Part) -> Part:
        points = [lying((x - about[0], y - about[1]), orientation) for x, y in p.outline]
        return Part(tuple(points if area(tuple(points)) > 0 else reversed(points)), p.role)

    return tuple(moved(p) for p in design.parts)


def lying(p: Point, orientation: Orientation) -> Point:
    """A point of a unit, measured from its middle, where it comes to lie: mirrored first, then turned in quarters."""
    return rotated((-p[0], p[1]) if orientation.mirrored else p, -90 * orientation.turn)


@dataclass(frozen=True, slots=True)
class UnitSeam:
    """A seam of a unit as it lies, about the unit's middle, in the order of sewing; inches."""

    name: str
    start: Point
    end: Point


@lru_cache(maxsize=4096)
def inner_seams(spec: UnitSpec, orientation: Orientation) -> tuple[UnitSeam, ...]:
    """The seams within a unit, taken from the engine, which sews it at its bare sizes with a quarter-inch seam."""
    piece = sew_unit(spec, min(0.25, float(min(spec.width, spec.height)) / 4))
    if piece is None:
        return ()
    wide, high = float(spec.width), float(spec.height)
    edge = (piece.extent[2] - wide) / 2
    box = rectangle(wide, high)
    seams = []
    for s in piece.seams:
        ends = _within((s.start[0] - edge, s.start[1] - edge), (s.end[0] - edge, s.end[1] - edge), box)
        if ends:
            start, end = (lying((x - wide / 2, y - high / 2), orientation) for x, y in ends)
            seams.append(UnitSeam(s.name, start, end))
    return tuple(seams)


def _within(start: Point, end: Point, box: Polygon) -> tuple[Point, Point] | None:
    """The stretch of a segment inside a box; None when it only touches."""
    low, high = 0.0, 1.0
    for side in sides_of(box):
        a, b = side.side(start), side.side(end)
        if a < 1e-9 and b < 1e-9:
            return None
        if a < 0 or b < 0:
            share = a / (a - b)
            low, high = (max(low, share), high) if a < 0 else (low, min(high, share))
    if high - low < 1e-6:
        return None
    (x, y), (dx, dy) = start, (end[0] - start[0], end[1] - start[1])
    return (x + low * dx, y + low * dy), (x + high * dx, y + high * dy)


@lru_cache(maxsize=1024)
def sew_unit(spec: UnitSpec, allowance: float) -> Piece | None:
    """The unit sewn without any oversize and trimmed, lower left corner at the origin; None when no way makes it."""
    seam = Length.near(allowance)
    for method in methods_of(spec.kind):
        try:
            method.refuse(spec, seam)
            cuts = {name: float(size) for name, size in method.minimum_cuts(spec, seam, seam).items()}
            return simulate_unit(method, spec, cuts, float(seam), Needle.of(float(seam))).trimmed
        except PlanError:
            continue
    return None


def cell_middle(layout: Layout, cell: Cell, part: float) -> Point:
    """The middle of a unit, y upward from the block's lower left corner."""
    high = float(layout.pattern.height)
    across, down = float(cell.left) + float(cell.width) / 2, float(cell.top) + float(cell.height) / 2
    return across * part, (high - down) * part
