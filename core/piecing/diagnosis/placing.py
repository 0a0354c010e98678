"""From a layout to its places: units where they lie, the seams beside them, the tips that end there, and batches of units made alike.

Source: docs/theory, section 14.1.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import replace
from functools import lru_cache
from math import hypot

from ..blocks.geometry import cell_middle, inner_seams
from ..blocks.pattern import UPRIGHT, Cell, Layout
from ..errors import PatternNotUnderstood
from ..geometry.plane import Point
from ..joining.order import orders
from ..joining.seams import block_seams
from ..lengths import Length
from ..units import UnitSpec, kind_of
from .places import NEAR, OUTWARD, SIDES, BlockGeometry, CornerTip, EdgeTip, PlacedUnit, SeamLine, UnitBatch

__all__ = ["block_geometry"]

_MOST_UNITS = 2_500
"""A quilt laid by hand may hold more."""


@lru_cache(maxsize=64)
def block_geometry(layout: Layout, finished: Length) -> BlockGeometry:
    """Everything the errors act on. Raises ``LayoutIncomplete``, ``CannotBeSewn``, and ``PatternNotUnderstood`` for more units than can
    be judged at once.
    """
    if len(layout.cells) > _MOST_UNITS:
        raise PatternNotUnderstood(
            "There are {n} of its units, and {most} at once can be judged. Measure its blocks one by one.",
            field="layout",
            n=f"{len(layout.cells):,}",
            most=f"{_MOST_UNITS:,}",
        )
    part = layout.part(finished)
    scale = float(part)
    order = orders(layout.pattern)[0].order
    lines = tuple(
        _turned_true(
            SeamLine(s.name, (s.start[0] * scale, s.start[1] * scale), (s.end[0] * scale, s.end[1] * scale), s.line)
        )
        for s in block_seams(layout.pattern, order)
        if not s.inner
    )
    keys: dict[tuple[str, Length, Length], int] = {}
    cells: list[PlacedUnit] = []
    specs: list[UnitSpec] = []
    edge_tips: list[EdgeTip] = []
    corner_tips: list[CornerTip] = []
    by_level = _by_level(lines)
    held, made = Counter[int](), layout.specs(part)
    for n, cell in enumerate(layout.cells):
        x, y = cell_middle(layout, cell, scale)
        w, h = float(cell.width) * scale / 2, float(cell.height) * scale / 2
        box = (x - w, y - h, x + w, y + h)
        spec = made[n]
        batch = keys.setdefault((spec.kind, spec.width, spec.height), len(specs))
        if batch == len(specs):
            specs.append(spec)
        ends = [
            ((s.start[0] + x, s.start[1] + y), (s.end[0] + x, s.end[1] + y))
            for s in inner_seams(spec, cell.orientation)
        ]
        edges, corners = _tips(box, ends)
        edge_tips += [EdgeTip(n, side, at) for side, at in edges]
        corner_tips += [CornerTip(n, a, d, at) for a, d, at in corners]
        held[cell.place] += 1
        cells.append(_placed_unit(layout, n, cell, held[cell.place], box, batch, by_level))
    batches = tuple(
        _batch(
            b,
            spec,
            sum(c.batch == b for c in cells),
            any(cells[t.cell].batch == b for t in edge_tips),
            any(cells[t.cell].batch == b for t in corner_tips),
        )
        for b, spec in enumerate(specs)
    )
    return BlockGeometry(
        layout, finished, tuple(cells), _named_apart(lines), batches, tuple(edge_tips), tuple(corner_tips)
    )


Lines = Mapping[tuple[bool, int], Sequence[tuple[int, float, float, float]]]
"""Seams by which way they run and how far across the block, in hundredths: number, place across, and where along it begins and ends."""


def _by_level(lines: tuple[SeamLine, ...]) -> Lines:
    found: dict[tuple[bool, int], list[tuple[int, float, float, float]]] = {}
    for n, s in enumerate(lines):
        across, along = (0, 1) if s.upright else (1, 0)
        low, high = sorted((s.start[along], s.end[along]))
        at, near = s.start[across], NEAR * (high - low)
        found.setdefault((s.upright, round(at * 100)), []).append((n, at, low - near, high + near))
    return found


def _placed_unit(
    layout: Layout,
    n: int,
    cell: Cell,
    which: int,
    box: tuple[float, float, float, float],
    batch: int,
    lines: Lines,
) -> PlacedUnit:
    """``which`` unit of its place it is, from 1."""
    place = layout.pattern.places[cell.place]
    left, right, bottom, top = (_seam_on(lines, box, side) for side in SIDES)
    return PlacedUnit(
        n,
        f"c{place.column + 1}r{place.row + 1}" + (f"u{which}" if cell.nested else ""),
        f"{place.name}, unit {which}" if cell.nested else place.name,
        box,
        batch,
        (left, right, bottom, top),
        cell.orientation,
        place.row,
        place.column,
    )


def _named_apart(lines: tuple[SeamLine, ...]) -> tuple[SeamLine, ...]:
    """No two seams share a name."""
    seen: dict[str, int] = {}
    found = []
    for line in lines:
        seen[line.name] = seen.get(line.name, 0) + 1
        again = seen[line.name]
        found.append(line if again == 1 else replace(line, name=f"{line.name}, part {again}"))
    return tuple(found)


def _turned_true(line: SeamLine) -> SeamLine:
    """Upright seams start at the top, level ones at the left, whichever way their block lies."""
    back = line.start[1] < line.end[1] - NEAR if line.upright else line.start[0] > line.end[0] + NEAR
    return replace(line, start=line.end, end=line.start) if back else line


def _seam_on(lines: Lines, box: tuple[float, float, float, float], side: str) -> int | None:
    left, bottom, right, top = box
    upright = side in ("left", "right")
    edge = {"left": left, "right": right, "bottom": bottom, "top": top}[side]
    middle = (bottom + top) / 2 if upright else (left + right) / 2
    level = round(edge * 100)
    found = [
        n
        for k in (level - 1, level, level + 1)
        for n, at, low, high in lines.get((upright, k), ())
        if abs(edge - at) < NEAR and low < middle < high
    ]
    return min(found, default=None)


def _side_of(box: tuple[float, float, float, float], p: Point) -> tuple[str, ...]:
    """The sides of a box that a point lies on."""
    left, bottom, right, top = box
    on = {"left": p[0] - left, "right": p[0] - right, "bottom": p[1] - bottom, "top": p[1] - top}
    return tuple(side for side in SIDES if abs(on[side]) < NEAR)


def _tips(
    box: tuple[float, float, float, float], ends: list[tuple[Point, Point]]
) -> tuple[list[tuple[str, Point]], list[tuple[str, str, Point]]]:
    """Points where two seams meet in the middle of a side, and corners that a diagonal runs into."""
    met: dict[tuple[int, int], list[Point]] = {}
    edges: list[tuple[str, Point]] = []
    corners: list[tuple[str, str, Point]] = []
    for start, end in ends:
        slope = abs(abs(end[0] - start[0]) - abs(end[1] - start[1])) < NEAR
        for p in (start, end):
            on = _side_of(box, p)
            if len(on) == 2 and slope:
                corner = (on[0], on[1], p)
                if not any(c[:2] == corner[:2] for c in corners):
                    corners.append(corner)
            elif len(on) == 1:
                met.setdefault((round(p[0] * 1000), round(p[1] * 1000)), []).append(p)
    for points in met.values():
        if len(points) >= 2:
            edges.append((_side_of(box, points[0])[0], points[0]))
    return edges, corners


def _batch(number: int, spec: UnitSpec, count: int, tips: bool, corners: bool) -> UnitBatch:
    w, h = float(spec.width), float(spec.height)
    ends = [(s.start, s.end) for s in inner_seams(spec, UPRIGHT)]
    edges, _ = _tips((-w / 2, -h / 2, w / 2, h / 2), ends)
    sides = {side for side, _ in edges}
    tip = OUTWARD[sides.pop()] if len(sides) == 1 else None
    plain = len(kind_of(spec.kind).parts) == 1
    return UnitBatch(
        number,
        f"{spec.kind} {spec.width.rational} x {spec.height.rational}",
        spec,
        count,
        tips,
        corners,
        plain,
        _slips(ends, tips, tip),
        tip,
        () if plain else _strains(ends, tip, w, h),
    )


def _directions(ends: list[tuple[Point, Point]]) -> list[Point]:
    """The different ways in which sloping seams run, the first one first."""
    found: list[Point] = []
    for (x1, y1), (x2, y2) in ends:
        length = hypot(x2 - x1, y2 - y1)
        dx, dy = (x2 - x1) / length, (y2 - y1) / length
        if min(abs(dx), abs(dy)) > 0.1 and all(abs(dx * py - dy * px) > NEAR for px, py in found):
            found.append((dx, dy))
    return found


def _slips(ends: list[tuple[Point, Point]], tips: bool, tip: Point | None) -> tuple[Point, ...]:
    """Along the base for a unit with one tip (toward the tip it is the clearance that is off), both ways for one with tips
    on several sides, else square to each diagonal."""
    if tip is not None:
        return ((-tip[1], tip[0]),)
    if tips:
        return ((1.0, 0.0), (0.0, 1.0))
    return tuple((-dy, dx) for dx, dy in _directions(ends)[:2])


def _strains(ends: list[tuple[Point, Point]], tip: Point | None, w: float, h: float) -> tuple[tuple[Point, ...], ...]:
    """Along its one sloping seam, or along both at once for a unit that is the same left and right; a unit whose cloth is on
    the bias from corner to corner either way may be drawn along either."""
    ways = _directions(ends)
    if tip is not None:
        return (tuple(ways[:2]),)
    if len(ways) == 1:
        return ((ways[0],),)
    long = hypot(w, h)
    return (((w / long, h / long),), ((w / long, -h / long),))
