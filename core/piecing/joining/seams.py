"""Every seam of a block in the order it is sewn, where seams run into it, and which side of it is darker.

Coordinates are parts, x from the left and y upward from the lower edge. Source: docs/theory, section 12.7.
"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import cache, lru_cache
from math import ceil, floor, hypot

import numpy as np

from ..blocks.geometry import cell_middle, inner_seams, placed_parts
from ..blocks.pattern import BlockPlacement, Layout, Orientation, Pattern, layout_of
from ..geometry.plane import Point, holds
from ..lengths import Length
from ..units import UnitSpec
from .order import Joint, Order, order_of, orders

__all__ = ["VALUES", "BlockSeam", "Meeting", "block_seams", "darkness", "edge_meetings", "joint_name", "meetings"]

VALUES = {"light": 0, "medium": 1, "dark": 2}
_NEAR = 1e-6
_PART = Length.of(1)


@dataclass(frozen=True, slots=True)
class BlockSeam:
    """One seam; ``level`` counts sewing stages: a seam runs into those of a higher level. ``inner`` ones are a unit's. ``line`` names
    the row or column of the block that it is sewn in, if it is in one."""

    name: str
    start: Point
    end: Point
    level: int
    inner: bool
    line: str = ""

    @property
    def direction(self) -> Point:
        """The unit vector along the seam."""
        dx, dy = self.end[0] - self.start[0], self.end[1] - self.start[1]
        length = hypot(dx, dy)
        return dx / length, dy / length

    @property
    def length(self) -> float:
        """Its finished length, in parts of the block."""
        return hypot(self.end[0] - self.start[0], self.end[1] - self.start[1])

    @property
    def left(self) -> Point:
        """Unit vector to its left."""
        dx, dy = self.direction
        return -dy, dx

    @property
    def middle(self) -> Point:
        """Its middle, in parts of the block."""
        return (self.start[0] + self.end[0]) / 2, (self.start[1] + self.end[1]) / 2


@lru_cache(maxsize=128)
def block_seams(pattern: Pattern, order: Order) -> tuple[BlockSeam, ...]:
    """All seams, those within units first. Blocks in the block are sewn in their own best order.

    Raises ``LayoutIncomplete``, ``CannotBeSewn``.
    """
    section = order_of(pattern.complete(), order)
    layout, high = layout_of(pattern), float(pattern.height)
    found: list[BlockSeam] = []
    for n, place in enumerate(pattern.places):
        if isinstance(place.content, BlockPlacement):
            found += _held_seams(pattern, place, place.content)
        else:
            found += _unit_seams(layout, n, place.name)
    level = max((s.level for s in found), default=0)
    for joint in section.all_joints:
        level += 1
        (x1, y1), (x2, y2) = joint.start, joint.end
        found.append(
            BlockSeam(
                joint_name(pattern, joint),
                (float(x1), high - float(y1)),
                (float(x2), high - float(y2)),
                level,
                inner=False,
                line=_line_of(pattern, joint),
            )
        )
    return tuple(found)


def _unit_seams(layout: Layout, place: int, name: str) -> Iterator[BlockSeam]:
    for cell in layout.cells_of(place):
        x, y = cell_middle(layout, cell, 1.0)
        for n, s in enumerate(inner_seams(cell.spec(_PART), cell.orientation)):
            start, end = ((p[0] + x, p[1] + y) for p in (s.start, s.end))
            yield BlockSeam(f"{name}, {s.name}", start, end, n, True)


def _held_seams(pattern: Pattern, place: object, held: BlockPlacement) -> Iterator[BlockSeam]:
    left, top, wide, _ = (float(v) for v in pattern.box(place))  # type: ignore[arg-type]
    orientation: Orientation = place.orientation  # type: ignore[attr-defined]
    inner = held.pattern
    own = (float(inner.width), float(inner.height))
    seen = (own[1], own[0]) if orientation.across else own
    scale = wide / seen[0]
    base = float(pattern.height) - top

    def moved(p: Point) -> Point:
        x, y = p[0] - own[0] / 2, p[1] - own[1] / 2
        if orientation.mirrored:
            x = -x
        for _ in range(orientation.turn):
            x, y = y, -x
        return left + (x + seen[0] / 2) * scale, base - (seen[1] / 2 - y) * scale

    best = orders(inner)[0].order
    for s in block_seams(inner, best):
        yield replace(s, name=f"{place.name}, {s.name}", start=moved(s.start), end=moved(s.end), line="")  # type: ignore[attr-defined]


def joint_name(pattern: Pattern, joint: Joint) -> str:
    """As people count: "row 2 seam 3", "the seam below row 1"."""
    xs, ys = pattern.edges
    part, line = ", in part" if joint.partial else "", _line_of(pattern, joint)
    if joint.upright:
        return f"{line} seam {_index(xs, joint.start[0])}{part}"
    return f"the seam below row {_index(ys, joint.start[1])}{line and f', {line}'}{part}"


def _line_of(pattern: Pattern, joint: Joint) -> str:
    """The rows that an upright seam crosses, the columns that a level one does; empty for one below a whole row."""
    (x1, y1), (x2, y2) = joint.start, joint.end
    xs, ys = pattern.edges
    edges, start, end = (ys, y1, y2) if joint.upright else (xs, x1, x2)
    what, first, last = "row" if joint.upright else "column", _index(edges, start) + 1, _index(edges, end)
    if not joint.upright and first == 1 and last == len(pattern.columns):
        return ""
    return f"{what} {first}" if first >= last else f"{what}s {first} to {last}"


def _index(edges: tuple[Fraction, ...], at: Fraction) -> int:
    """Which edge; for a point between two, the one before."""
    return bisect_right(edges, at) - 1


@dataclass(frozen=True, slots=True)
class Meeting:
    """A point on a seam that others run into: from its left side and from its right, by their numbers.

    ``pairs`` are those that should nest: one from each side, going on straight or thrown back as from a mirror.
    """

    on: int
    at: Point
    left: tuple[int, ...]
    right: tuple[int, ...]
    pairs: tuple[tuple[int, int], ...]


def meetings(seams: Sequence[BlockSeam]) -> tuple[Meeting, ...]:
    """Every point where seams run into a later one between its ends."""
    found = []
    # Both ends of every seam beside its other end, all at once: a large quilt has thousands of them.
    here = np.array([end for s in seams for end in (s.start, s.end)], float).reshape(-1, 2)
    other = here.reshape(-1, 2, 2)[:, ::-1].reshape(-1, 2)
    levels = np.repeat(np.array([s.level for s in seams]), 2)
    for n, later in enumerate(seams):
        u, w = np.array(later.direction), np.array(later.left)
        out = here - later.start
        alongs, sides = out @ u, (other - here) @ w
        near = (np.abs(out @ w) <= _NEAR) & (alongs > _NEAR) & (alongs < later.length - _NEAR)
        points: dict[int, tuple[list[int], list[int]]] = {}
        for e in np.flatnonzero(near & (levels < later.level) & (np.abs(sides) > _NEAR)):
            points.setdefault(round(float(alongs[e]) * 4096), ([], []))[0 if sides[e] > 0 else 1].append(int(e) // 2)
        dx, dy = later.direction
        for along, (left, right) in sorted(points.items()):
            at = (later.start[0] + dx * along / 4096, later.start[1] + dy * along / 4096)
            found.append(Meeting(n, at, tuple(left), tuple(right), _pairs(seams, left, right, later.direction, at)))
    return tuple(found)


def _away(s: BlockSeam, at: Point) -> Point:
    """Unit vector along the seam, away from a point at one of its ends."""
    (dx, dy), (x, y) = s.direction, at
    near_start = abs(s.start[0] - x) + abs(s.start[1] - y) < abs(s.end[0] - x) + abs(s.end[1] - y)
    return (dx, dy) if near_start else (-dx, -dy)


def _pairs(
    seams: Sequence[BlockSeam],
    left: Sequence[int],
    right: Sequence[int],
    u: Point,
    at: Point,
    other: Point | None = None,
) -> tuple[tuple[int, int], ...]:
    """Going straight on comes before thrown back; a seam has one partner."""

    def slope(k: int, p: Point) -> float:
        return sum(a * b for a, b in zip(_away(seams[k], p), u, strict=True))

    there = other or at
    ls, rs = {k: slope(k, at) for k in left}, {k: slope(k, there) for k in right}
    found: list[tuple[int, int]] = []
    for sign in (-1, 1):
        for k, a in ls.items():
            if any(k == p for p, _ in found):
                continue
            partner = next(
                (m for m, b in rs.items() if abs(b - sign * a) < 1e-4 and all(m != q for _, q in found)), None
            )
            if partner is not None:
                found.append((k, partner))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class EdgeMeeting:
    """Where a block touches its neighbour: a seam ending at its right (or upper) edge and one at the left (or lower)."""

    upright: bool
    at: float
    pairs: tuple[tuple[int, int], ...]


def edge_meetings(pattern: Pattern, seams: Sequence[BlockSeam]) -> tuple[EdgeMeeting, ...]:
    """Which seams of a block meet which of the next one, when it is repeated side by side and below."""
    wide, high = float(pattern.width), float(pattern.height)
    found = []
    for upright, low, top in ((True, 0.0, wide), (False, 0.0, high)):
        over, along = (0, 1) if upright else (1, 0)
        u = (0.0, 1.0) if upright else (1.0, 0.0)
        ends: dict[float, dict[int, list[int]]] = {low: {}, top: {}}
        for k, s in enumerate(seams):
            for p in (s.start, s.end):
                for edge in (low, top):
                    inside = _NEAR < p[along] < (high if upright else wide) - _NEAR
                    if abs(p[over] - edge) < _NEAR and inside and abs(s.left[along]) > _NEAR:
                        ends[edge].setdefault(round(p[along] * 4096), []).append(k)
        for place in sorted(ends[top].keys() & ends[low].keys()):
            at = place / 4096
            here, there = ((top, at), (low, at)) if upright else ((at, top), (at, low))
            pairs = _pairs(seams, ends[top][place], ends[low][place], u, here, there)
            if pairs:
                found.append(EdgeMeeting(upright, at, pairs))
    return tuple(found)


def darkness(
    pattern: Pattern, seams: Sequence[BlockSeam], values: Mapping[str, int]
) -> tuple[tuple[float, float], ...]:
    """For every seam the mean value on its left and on its right, looked at along it just beside the fold."""
    layout = layout_of(pattern)
    boxes, middles, kinds = [], [], []
    for cell, spec in zip(layout.cells, layout.specs(_PART), strict=True):
        x, y = cell_middle(layout, cell, 1.0)
        half = (float(cell.width) / 2, float(cell.height) / 2)
        middles.append((x, y))
        kinds.append((spec, cell.orientation))
        boxes.append((x - half[0], y - half[1], x + half[0], y + half[1]))

    @cache
    def darkness_at(kind: tuple[UnitSpec, Orientation], x: float, y: float) -> float | None:
        """How dark a unit is at a point counted from its middle; units alike are looked at once."""
        return next((float(values.get(p.role, 1)) for p in placed_parts(*kind) if holds(p.outline, (x, y))), None)

    near = _by_square(boxes, float(max(layout.pattern.width, layout.pattern.height)) / max(1.0, len(boxes) ** 0.5))
    smallest = min((float(min(c.width, c.height)) for c in layout.cells), default=1.0)

    def value(p: Point) -> float | None:
        for n in near(p):
            left, foot, right, top = boxes[n]
            if left <= p[0] <= right and foot <= p[1] <= top:
                x, y = middles[n]
                return darkness_at(kinds[n], round(p[0] - x, 9), round(p[1] - y, 9))
        return None

    return tuple(tuple(_mean(value(q) for q in _beside(s, smallest, side)) for side in (1, -1)) for s in seams)  # type: ignore[misc]


def _by_square(boxes: Sequence[tuple[float, float, float, float]], side: float) -> Callable[[Point], Sequence[int]]:
    """Which boxes touch the square of a coarse grid that a point is in, so that not all of them are looked at."""
    squares: dict[tuple[int, int], list[int]] = {}
    for n, (left, foot, right, top) in enumerate(boxes):
        for x in range(floor(left / side), floor(right / side) + 1):
            for y in range(floor(foot / side), floor(top / side) + 1):
                squares.setdefault((x, y), []).append(n)
    return lambda p: squares.get((floor(p[0] / side), floor(p[1] / side)), ())


def _beside(s: BlockSeam, smallest: float, side: int) -> Iterator[Point]:
    count = max(2, ceil(s.length / smallest * 2))
    (dx, dy), (nx, ny), off = s.direction, s.left, smallest * 0.02 * side
    for n in range(count):
        along = s.length * (n + 0.5) / count
        yield s.start[0] + dx * along + nx * off, s.start[1] + dy * along + ny * off


def _mean(values: Iterable[float | None]) -> float:
    known = [v for v in values if v is not None]
    return sum(known) / len(known) if known else 1.0
