"""Points, directed lines and convex polygons in the plane, in inches (floats, y upward).

Pictures and the simulated route to every size need no more than clipping and reflecting convex
outlines; exact sizes come from the closed forms in ``units``. ``TOUCH`` is the one tolerance here.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import hypot

__all__ = ["TOUCH", "Line", "Point", "Polygon", "area", "bounds", "clip", "mirror_all", "rectangle", "shift", "turn"]

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
        return Line(self.end, self.start)

    def mirror(self, p: Point) -> Point:
        """``p`` folded over this line."""
        dx, dy = self.direction
        s = self.side(p)
        return p[0] + 2 * dy * s, p[1] - 2 * dx * s


def rectangle(width: float, height: float, at: Point = (0.0, 0.0)) -> Polygon:
    x, y = at
    return ((x, y), (x + width, y), (x + width, y + height), (x, y + height))


def area(outline: Polygon) -> float:
    """Signed area in square inches, positive when the outline runs anticlockwise."""
    following = outline[1:] + outline[:1]
    return sum(x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in zip(outline, following, strict=True)) / 2


def clip(outline: Polygon, line: Line) -> Polygon:
    """The part of a convex outline on the left of ``line``; empty when there is none."""
    kept: list[Point] = []
    sides = [line.side(p) for p in outline]
    for i, (p, s) in enumerate(zip(outline, sides, strict=True)):
        q, t = outline[i - 1], sides[i - 1]
        if (s > TOUCH and t < -TOUCH) or (s < -TOUCH and t > TOUCH):
            share = t / (t - s)
            kept.append((q[0] + share * (p[0] - q[0]), q[1] + share * (p[1] - q[1])))
        if s >= -TOUCH:
            kept.append(p)
    return tuple(kept) if len(kept) > 2 and abs(area(tuple(kept))) > TOUCH else ()


def mirror_all(outline: Polygon, line: Line) -> Polygon:
    """The outline folded over ``line``; order reversed, so that it stays anticlockwise."""
    return tuple(line.mirror(p) for p in reversed(outline))


def shift(outline: Polygon, dx: float, dy: float) -> Polygon:
    return tuple((x + dx, y + dy) for x, y in outline)


def turn(outline: Polygon, quarter_turns: int, about: Point) -> Polygon:
    """Turned anticlockwise by whole quarter turns."""
    cx, cy = about
    out = outline
    for _ in range(quarter_turns % 4):
        out = tuple((cx - (y - cy), cy + (x - cx)) for x, y in out)
    return out


def bounds(outlines: list[Polygon]) -> tuple[float, float, float, float]:
    """Left, bottom, right, top of everything given."""
    xs = [x for o in outlines for x, _ in o]
    ys = [y for o in outlines for _, y in o]
    return min(xs), min(ys), max(xs), max(ys)
