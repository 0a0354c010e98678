"""Points, directed lines and convex polygons in the plane, in inches (floats, y upward).

Pictures and the simulated route to every size need no more than clipping and reflecting convex
outlines; exact sizes come from the closed forms in ``units``. ``TOUCH`` is the one tolerance here.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from math import cos, hypot, radians, sin

__all__ = [
    "TOUCH",
    "Line",
    "Point",
    "Polygon",
    "area",
    "bounds",
    "centroid",
    "clip",
    "holds",
    "meeting",
    "mirror_all",
    "rectangle",
    "rotated",
    "sides_of",
    "stretch_inside",
]

Point = tuple[float, float]
Polygon = tuple[Point, ...]

TOUCH = 1e-9
"""Inches within which a point lies on a line."""


@dataclass(frozen=True, slots=True)
class Line:
    """A directed line through ``start`` and ``end``; its left side is the positive one."""

    start: Point
    end: Point

    @property
    def direction(self) -> Point:
        """The unit vector from start to end. Raises ``ZeroDivisionError`` for a line without length."""
        dx, dy = self.end[0] - self.start[0], self.end[1] - self.start[1]
        length = hypot(dx, dy)
        return dx / length, dy / length

    def side(self, p: Point) -> float:
        """Signed distance of ``p`` in inches, positive to the left."""
        dx, dy = self.direction
        return dx * (p[1] - self.start[1]) - dy * (p[0] - self.start[0])

    def shifted(self, left: float, left_at_end: float | None = None) -> Line:
        """Moved to its left by ``left`` inches at the start and ``left_at_end`` at the end."""
        dx, dy = self.direction
        last = left if left_at_end is None else left_at_end
        return Line(
            (self.start[0] - dy * left, self.start[1] + dx * left),
            (self.end[0] - dy * last, self.end[1] + dx * last),
        )

    def reversed(self) -> Line:
        """The same line from its other end."""
        return Line(self.end, self.start)

    def at(self, along: float) -> Point:
        """The point ``along`` inches from the start."""
        dx, dy = self.direction
        return self.start[0] + dx * along, self.start[1] + dy * along

    def along(self, p: Point) -> float:
        """How far ``p`` lies along the line from its start, in inches."""
        dx, dy = self.direction
        return dx * (p[0] - self.start[0]) + dy * (p[1] - self.start[1])

    def mirror(self, p: Point) -> Point:
        """``p`` folded over this line."""
        dx, dy = self.direction
        s = self.side(p)
        return p[0] + 2 * dy * s, p[1] - 2 * dx * s


def rectangle(width: float, height: float, at: Point = (0.0, 0.0)) -> Polygon:
    """The four corners from the lower left one on, counterclockwise."""
    x, y = at
    return ((x, y), (x + width, y), (x + width, y + height), (x, y + height))


def area(outline: Polygon) -> float:
    """Signed area in square inches, positive when the outline runs anticlockwise."""
    following = outline[1:] + outline[:1]
    return sum(x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in zip(outline, following, strict=True)) / 2


def clip(outline: Polygon, line: Line) -> Polygon:
    """The part of a convex outline on the left of ``line``; empty when there is none."""
    dx, dy = line.direction
    x0, y0 = line.start
    sides = [dx * (y - y0) - dy * (x - x0) for x, y in outline]
    if min(sides) >= -TOUCH:
        return outline
    if max(sides) <= TOUCH:
        return ()
    kept: list[Point] = []
    (qx, qy), t = outline[-1], sides[-1]
    for (px, py), s in zip(outline, sides, strict=True):
        if (s > TOUCH and t < -TOUCH) or (s < -TOUCH and t > TOUCH):
            share = t / (t - s)
            kept.append((qx + share * (px - qx), qy + share * (py - qy)))
        if s >= -TOUCH:
            kept.append((px, py))
        qx, qy, t = px, py, s
    return tuple(kept) if len(kept) > 2 and abs(area(tuple(kept))) > TOUCH else ()


def mirror_all(outline: Polygon, line: Line) -> Polygon:
    """The outline folded over ``line``; order reversed, so that it stays anticlockwise."""
    return tuple(line.mirror(p) for p in reversed(outline))


def rotated(p: Point, degrees: float, about: Point = (0.0, 0.0)) -> Point:
    """Turned anticlockwise; quarter turns come out without rounding."""
    c, s = _QUARTERS.get(int(degrees) % 360 if degrees == int(degrees) else -1) or (
        cos(radians(degrees)),
        sin(radians(degrees)),
    )
    x, y = p[0] - about[0], p[1] - about[1]
    return about[0] + c * x - s * y, about[1] + s * x + c * y


_QUARTERS = {0: (1.0, 0.0), 90: (0.0, 1.0), 180: (-1.0, 0.0), 270: (0.0, -1.0)}


def bounds(outlines: Iterable[Polygon]) -> tuple[float, float, float, float]:
    """Left, bottom, right, top of everything given."""
    points = [p for o in outlines for p in o]
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return min(xs), min(ys), max(xs), max(ys)


def centroid(outline: Polygon) -> Point:
    """The middle of the corners: inside, for a convex outline."""
    return sum(x for x, _ in outline) / len(outline), sum(y for _, y in outline) / len(outline)


def sides_of(outline: Polygon) -> tuple[Line, ...]:
    """The sides of an anticlockwise outline as lines with the inside on their left."""
    return tuple(Line(p, q) for p, q in zip(outline, outline[1:] + outline[:1], strict=True))


def holds(outline: Polygon, p: Point) -> bool:
    """Whether a convex anticlockwise outline holds the point, its edge included."""
    return all(side.side(p) >= -TOUCH for side in sides_of(outline))


def meeting(one: Line, other: Line) -> Point:
    """Where two lines, drawn out, meet. Raises ``ZeroDivisionError`` for parallel ones."""
    (x, y), (dx, dy), (ex, ey) = one.start, one.direction, other.direction
    across = dx * ey - dy * ex
    if abs(across) < TOUCH:
        raise ZeroDivisionError("parallel lines do not meet")
    t = ((other.start[0] - x) * ey - (other.start[1] - y) * ex) / across
    return x + t * dx, y + t * dy


def stretch_inside(line: Line, outline: Polygon) -> tuple[float, float] | None:
    """From where to where along the line it runs inside a convex anticlockwise outline; None when it does not."""
    low, high = float("-inf"), float("inf")
    for side in sides_of(outline):
        here = side.side(line.start)
        slope = side.side(line.at(1.0)) - here
        if abs(slope) < TOUCH:
            if here < -TOUCH:
                return None
        elif slope > 0:
            low = max(low, -here / slope)
        else:
            high = min(high, -here / slope)
    return (low, high) if high - low > TOUCH else None
